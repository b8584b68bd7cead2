package surface

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
)

// Patch is a zone's map (s, t) → unit vector, s along a row and t across rows,
// by transfinite (Coons) blending of its four boundary curves on the unit
// sphere, renormalised. Bottom and Top run along s, Start and End along t.
type Patch struct {
	Head                    scalp.Head
	Bottom, Top, Start, End Curve
	// Bow bends the lines between the rails towards the top, by this share of
	// the patch at their middle.
	Bow float64
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

// NewPatch is the patch between four curves that meet at its corners.
func NewPatch(h scalp.Head, bottom, top, start, end Curve) *Patch {
	return NewPatchAt(h, bottom, top, start, end, evenSteps)
}

// NewPatchAt is a patch whose lines are drawn at the given shares of s, rising from 0
// to 1.
func NewPatchAt(h scalp.Head, bottom, top, start, end Curve, shares []float64) *Patch {
	p := &Patch{Head: h, Bottom: bottom, Top: top, Start: start, End: end, shares: shares}
	p.rail = make([]struct{ bottom, top r3.Vec }, len(shares))
	for j, f := range shares {
		p.rail[j].bottom, p.rail[j].top = bottom.At(f), top.At(f)
	}
	return p
}

// Transposed is the patch with rows running across instead of along.
func (p *Patch) Transposed() *Patch {
	return NewPatch(p.Head, p.Start, p.End, p.Bottom, p.Top)
}

// Strip is the patch between the lines at two values of t.
func (p *Patch) Strip(from, to float64) *Patch {
	return NewPatchAt(p.Head, p.Line(from), p.Line(to), p.Start.Sub(p.Head, from, to), p.End.Sub(p.Head, from, to), p.shares)
}

// steps appends the patch's points at t for every step of s.
func (p *Patch) steps(t float64, out []r3.Vec) []r3.Vec {
	last := len(p.rail) - 1
	c00, c10 := p.rail[0].bottom, p.rail[last].bottom
	c01, c11 := p.rail[0].top, p.rail[last].top
	left, right := p.Start.At(t), p.End.At(t)
	bent := p.Bow != 0 && t > 0 && t < 1
	flat := t
	for j, rail := range p.rail {
		s := p.shares[j]
		if bent {
			t = flat + p.Bow*4*flat*(1-flat)*math.Sin(math.Pi*s)
			left, right = p.Start.At(t), p.End.At(t)
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

// Line is the patch's curve at t: a rail itself, at its own points, so that
// patches that share it meet exactly.
func (p *Patch) Line(t float64) Curve {
	switch t {
	case 0:
		return p.Bottom
	case 1:
		return p.Top
	}
	return NewCurve(p.Head, p.steps(t, make([]r3.Vec, 0, len(p.shares))))
}

// riseSteps is the number of steps over which the distance between rails is
// integrated.
const riseSteps = 32

// Rise is the mean distance in mm of a patch's lines from its bottom rail, for equal
// steps of t from 0 to 1.
type Rise []float64

// Whole is the mean distance between the rails, mm.
func (r Rise) Whole() float64 { return r[len(r)-1] }

// Rise measures the patch from rail to rail.
func (p *Patch) Rise() Rise {
	rise := make(Rise, riseSteps+1)
	prev := p.steps(0, nil)
	next := make([]r3.Vec, 0, len(prev))
	for i := 1; i <= riseSteps; i++ {
		next = p.steps(float64(i)/riseSteps, next[:0])
		sum, before := 0.0, p.Head.Chord(prev[0], next[0])
		for j := 1; j < len(next); j++ { // trapezoid rule
			now := p.Head.Chord(prev[j], next[j])
			sum += (before + now) / 2 * (p.shares[j] - p.shares[j-1])
			before = now
		}
		rise[i] = rise[i-1] + sum
		prev, next = next, prev
	}
	return rise
}

// ShareAt is the t at which the mean distance from the bottom rail is mm.
func (r Rise) ShareAt(mm float64) float64 {
	k := firstFrom(r, mm)
	switch {
	case k == 0:
		return 0
	case k > riseSteps:
		return 1
	}
	return (float64(k-1) + (mm-r[k-1])/(r[k]-r[k-1])) / riseSteps
}

// Ring is the patch's border, its bottom rail first, the first point not repeated.
func (p *Patch) Ring() []r3.Vec {
	ring := append([]r3.Vec{}, p.Bottom.Points...)
	ring = append(ring, p.End.Points[1:]...)
	ring = append(ring, p.Top.Reversed().Points[1:]...)
	return append(ring, p.Start.Reversed().Points[1:len(p.Start.Points)-1]...)
}

// Area of the patch within its curves, mm².
func (p *Patch) Area() float64 {
	area, _ := p.Head.AreaCentroid(p.Ring())
	return math.Abs(area)
}
