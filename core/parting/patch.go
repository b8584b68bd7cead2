package parting

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
)

// curve is a polyline of unit vectors with its running length on the head, mm.
type curve struct {
	points []r3.Vec
	run    []float64
}

func newCurve(h scalp.Head, points []r3.Vec) curve {
	run := make([]float64, len(points))
	for i := 1; i < len(points); i++ {
		run[i] = run[i-1] + h.Chord(points[i-1], points[i])
	}
	return curve{points, run}
}

// meridian is the great circle from u to v in about 3 mm steps. u and v must
// not be opposite.
func meridian(h scalp.Head, u, v r3.Vec) []r3.Vec {
	angle := math.Acos(max(-1, min(1, r3.Dot(u, v))))
	n := max(2, int(math.Ceil(angle*(h.A+h.B)/2/3)))
	points := make([]r3.Vec, n+1)
	for i := range points {
		f := float64(i) / float64(n)
		points[i] = scalp.Unit(r3.Add(
			r3.Scale(math.Sin((1-f)*angle), u),
			r3.Scale(math.Sin(f*angle), v)))
	}
	points[0], points[n] = u, v
	return points
}

func (c curve) length() float64 { return c.run[len(c.run)-1] }

// first and last are the curve's ends.
func (c curve) first() r3.Vec { return c.points[0] }
func (c curve) last() r3.Vec  { return c.points[len(c.points)-1] }

// at is the unit vector at share f (0..1) of the curve's length.
func (c curve) at(f float64) r3.Vec {
	want := f * c.length()
	i := firstFrom(c.run, want)
	switch {
	case i == 0:
		return c.points[0]
	case i == len(c.run):
		return c.points[i-1]
	}
	g := (want - c.run[i-1]) / (c.run[i] - c.run[i-1])
	return scalp.Unit(r3.Add(r3.Scale(1-g, c.points[i-1]), r3.Scale(g, c.points[i])))
}

// firstFrom is the index of the first of the rising values that is not below x. It
// is sort.SearchFloat64s without the calls, which the core would feel.
func firstFrom(rising []float64, x float64) int {
	low, high := 0, len(rising)
	for low < high {
		if mid := (low + high) / 2; rising[mid] < x {
			low = mid + 1
		} else {
			high = mid
		}
	}
	return low
}

// nearest is the one of the rising values, of which there is one at least, that lies
// nearest to x.
func nearest(rising []float64, x float64) float64 {
	i := firstFrom(rising, x)
	if i == len(rising) || i > 0 && x-rising[i-1] < rising[i]-x {
		return rising[i-1]
	}
	return rising[i]
}

// between appends to out the curve's own points strictly between the shares
// from and to, in that direction.
func (c curve) between(out []r3.Vec, from, to float64) []r3.Vec {
	eps := 1e-9 * c.length()
	low, high := min(from, to)*c.length()+eps, max(from, to)*c.length()-eps
	start := len(out)
	for i := firstFrom(c.run, low); i < len(c.run) && c.run[i] < high; i++ {
		out = append(out, c.points[i])
	}
	if from > to {
		slices.Reverse(out[start:])
	}
	return out
}

// sub is the stretch of the curve from one share of its length to another.
func (c curve) sub(h scalp.Head, from, to float64) curve {
	if from == 0 && to == 1 {
		return c
	}
	return newCurve(h, append(c.between([]r3.Vec{c.at(from)}, from, to), c.at(to)))
}

// subMM is sub with the places given in mm.
func (c curve) subMM(h scalp.Head, from, to float64) curve {
	return c.sub(h, from/c.length(), to/c.length())
}

// reversed runs the other way.
func (c curve) reversed() curve {
	points := slices.Clone(c.points)
	slices.Reverse(points)
	run := make([]float64, len(c.run))
	for i := range run {
		run[i] = c.length() - c.run[len(run)-1-i]
	}
	return curve{points, run}
}

// then is the curve continued by one that starts where it ends.
func (c curve) then(h scalp.Head, next curve) curve {
	return newCurve(h, append(slices.Clone(c.points), next.points[1:]...))
}

// mirrored is the curve on the other side of the head.
func (c curve) mirrored() curve {
	points := make([]r3.Vec, len(c.points))
	for i, u := range c.points {
		points[i] = scalp.Mirror(u)
	}
	return curve{points, c.run}
}

// patch is a zone's map (s, t) → unit vector, s along a row and t across rows,
// by transfinite (Coons) blending of its four boundary curves on the unit
// sphere, renormalised. bottom and top run along s, start and end along t.
type patch struct {
	head                    scalp.Head
	bottom, top, start, end curve
	// bow bends the lines between the rails towards the top, by this share of
	// the patch at their middle.
	bow float64
	// shares are the steps of s in which a line is drawn; rail holds the two
	// rails there, so that a line costs only two look-ups.
	shares []float64
	rail   []struct{ bottom, top r3.Vec }
}

// lineSteps is the number of steps in which a row line is drawn: 2 to 6 mm each
// on any quadrant, which keeps a chord within 0.05 mm of the scalp's curve.
const lineSteps = 24

// evenSteps are the shares of a line in lineSteps equal steps.
var evenSteps = func() []float64 {
	shares := make([]float64, lineSteps+1)
	for j := range shares {
		shares[j] = float64(j) / lineSteps
	}
	return shares
}()

func newPatch(h scalp.Head, bottom, top, start, end curve, shares []float64) *patch {
	p := &patch{head: h, bottom: bottom, top: top, start: start, end: end, shares: shares}
	p.rail = make([]struct{ bottom, top r3.Vec }, len(shares))
	for j, f := range shares {
		p.rail[j].bottom, p.rail[j].top = bottom.at(f), top.at(f)
	}
	return p
}

// transposed is the patch with rows running across instead of along.
func (p *patch) transposed() *patch {
	return newPatch(p.head, p.start, p.end, p.bottom, p.top, evenSteps)
}

// strip is the patch between the lines at two values of t.
func (p *patch) strip(from, to float64) *patch {
	return newPatch(p.head, p.line(from), p.line(to), p.start.sub(p.head, from, to), p.end.sub(p.head, from, to), p.shares)
}

// steps appends the patch's points at t for every step of s.
func (p *patch) steps(t float64, out []r3.Vec) []r3.Vec {
	last := len(p.rail) - 1
	c00, c10 := p.rail[0].bottom, p.rail[last].bottom
	c01, c11 := p.rail[0].top, p.rail[last].top
	left, right := p.start.at(t), p.end.at(t)
	bent := p.bow != 0 && t > 0 && t < 1
	flat := t
	for j, rail := range p.rail {
		s := p.shares[j]
		if bent {
			t = flat + p.bow*4*flat*(1-flat)*math.Sin(math.Pi*s)
			left, right = p.start.at(t), p.end.at(t)
		}
		u := r3.Add(
			r3.Add(r3.Scale(1-t, rail.bottom), r3.Scale(t, rail.top)),
			r3.Add(r3.Scale(1-s, left), r3.Scale(s, right)))
		u = r3.Sub(u, r3.Add(
			r3.Add(r3.Scale((1-s)*(1-t), c00), r3.Scale(s*(1-t), c10)),
			r3.Add(r3.Scale((1-s)*t, c01), r3.Scale(s*t, c11))))
		out = append(out, scalp.Unit(u))
	}
	return out
}

// line is the patch's curve at t: a rail itself, at its own points, so that
// patches that share it meet exactly.
func (p *patch) line(t float64) curve {
	switch t {
	case 0:
		return p.bottom
	case 1:
		return p.top
	}
	return newCurve(p.head, p.steps(t, make([]r3.Vec, 0, len(p.shares))))
}

// riseSteps is the number of steps over which the distance between rails is
// integrated.
const riseSteps = 32

// rise tabulates, for riseSteps+1 equal steps of t, the mean distance in mm of
// the line at t from the bottom rail.
func (p *patch) rise() []float64 {
	rise := make([]float64, riseSteps+1)
	prev := p.steps(0, nil)
	next := make([]r3.Vec, 0, len(prev))
	for i := 1; i <= riseSteps; i++ {
		next = p.steps(float64(i)/riseSteps, next[:0])
		sum, before := 0.0, p.head.Chord(prev[0], next[0])
		for j := 1; j < len(next); j++ { // trapezoid rule
			now := p.head.Chord(prev[j], next[j])
			sum += (before + now) / 2 * (p.shares[j] - p.shares[j-1])
			before = now
		}
		rise[i] = rise[i-1] + sum
		prev, next = next, prev
	}
	return rise
}

// shareAt is the t at which the mean distance from the bottom rail is mm.
func shareAt(rise []float64, mm float64) float64 {
	k := firstFrom(rise, mm)
	switch {
	case k == 0:
		return 0
	case k > riseSteps:
		return 1
	}
	return (float64(k-1) + (mm-rise[k-1])/(rise[k]-rise[k-1])) / riseSteps
}

// rowLines are the n+1 values of t, from 0 to 1, that divide the patch into n
// rows. With ramp ρ the rows grow from the bottom rail up, by the same factor
// from each to the next: the height at share τ of the rise is as 1 + (ρ-1)τ, so
// that the integral of 1/height reaches the share x of its whole at
// τ = (ρˣ - 1) ÷ (ρ - 1).
func rowLines(rise []float64, n int, ramp float64) []float64 {
	ts := make([]float64, n+1)
	ts[n] = 1
	for i := 1; i < n; i++ {
		share := float64(i) / float64(n)
		if ramp != 1 {
			share = (math.Pow(ramp, share) - 1) / (ramp - 1)
		}
		ts[i] = shareAt(rise, rise[riseSteps]*share)
	}
	return ts
}

// rowCount is the number of rows of the wished height at the bottom rail, growing
// by ramp to the top, that come nearest to filling rise mm.
func rowCount(rise, height, ramp float64) int {
	rows := rise / height
	if ramp != 1 {
		rows *= math.Log(ramp) / (ramp - 1)
	}
	return max(1, int(math.Round(rows)))
}
