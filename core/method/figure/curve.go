package figure

import "math"

// Distances between samples along a strand, units: of a still, and of a picture that is
// seen for a moment.
const (
	fine   = 2.0
	coarse = 3.4
)

// sample is a place on a drawn strand with the normal to the right of the way along, the curvature (positive
// where that is the inner side) and the phase of the texture. A turned strand has its normal to the left.
type sample struct{ x, y, z, half, nx, ny, bend, phase float64 }

// curve is a strand made ready to be drawn. A hollow strand is painted twice: what one sees
// of its inside lies a little below its line, its skin with the holes above what runs in it.
type curve struct {
	of           *Strand
	look         *look
	at           []sample
	step, length float64
	layer        layer
}

type layer int

const (
	whole  layer = iota
	inside       // the far wall of a tube
	skin         // its near wall, with the holes
)

// spline is a centripetal Catmull-Rom curve through the points, n steps from each to the
// next. Depth and width ease from point to point and never overshoot.
func spline(pts []Point, n int) []Point {
	m := len(pts)
	if m < 2 {
		return pts
	}
	get := func(i int) Point {
		switch {
		case i < 0:
			return Point{X: 2*pts[0].X - pts[1].X, Y: 2*pts[0].Y - pts[1].Y}
		case i >= m:
			return Point{X: 2*pts[m-1].X - pts[m-2].X, Y: 2*pts[m-1].Y - pts[m-2].Y}
		}
		return pts[i]
	}
	knot := func(a, b Point) float64 { return math.Max(1e-3, math.Sqrt(math.Hypot(a.X-b.X, a.Y-b.Y))) }
	out := make([]Point, 0, (m-1)*n+1)
	for i := range m - 1 {
		p0, p1, p2, p3 := get(i-1), get(i), get(i+1), get(i+2)
		t1 := knot(p0, p1)
		t2 := t1 + knot(p1, p2)
		t3 := t2 + knot(p2, p3)
		for j := range n {
			u := float64(j) / float64(n)
			t := mix(t1, t2, u)
			lin := func(a, b, ta, tb float64) float64 { return (a*(tb-t) + b*(t-ta)) / (tb - ta) }
			run := func(v0, v1, v2, v3 float64) float64 {
				a1, a2, a3 := lin(v0, v1, 0, t1), lin(v1, v2, t1, t2), lin(v2, v3, t2, t3)
				return lin(lin(a1, a2, 0, t2), lin(a2, a3, t1, t3), t1, t2)
			}
			e := ease(u)
			out = append(out, Point{run(p0.X, p1.X, p2.X, p3.X), run(p0.Y, p1.Y, p2.Y, p3.Y), mix(p1.Z, p2.Z, e), mix(p1.W, p2.W, e)})
		}
	}
	return append(out, pts[m-1])
}

// Along takes n points at equal distances along the curve through pts.
func Along(pts []Point, n int) []Point {
	dense := spline(pts, 16)
	way := make([]float64, len(dense))
	for i := 1; i < len(dense); i++ {
		way[i] = way[i-1] + math.Hypot(dense[i].X-dense[i-1].X, dense[i].Y-dense[i-1].Y)
	}
	length := way[len(way)-1]
	out := make([]Point, n)
	j := 0
	for i := range out {
		s := length * float64(i) / float64(n-1)
		for j < len(dense)-2 && way[j+1] < s {
			j++
		}
		u := 0.0
		if way[j+1] > way[j] {
			u = min(max((s-way[j])/(way[j+1]-way[j]), 0), 1)
		}
		a, b := dense[j], dense[j+1]
		out[i] = Point{mix(a.X, b.X, u), mix(a.Y, b.Y, u), mix(a.Z, b.Z, u), mix(a.W, b.W, u)}
	}
	return out
}

func lengthOf(pts []Point) (sum float64) {
	dense := spline(pts, 16)
	for i := 1; i < len(dense); i++ {
		sum += math.Hypot(dense[i].X-dense[i-1].X, dense[i].Y-dense[i-1].Y)
	}
	return sum
}

func newCurve(of *Strand, sampling float64) *curve {
	length := lengthOf(of.Line)
	n := int(math.Max(4, math.Ceil(length/sampling)))
	c := &curve{of: of, look: &looks[of.Of], step: length / float64(n), length: length}
	for _, p := range Along(of.Line, n+1) {
		c.at = append(c.at, sample{x: p.X, y: p.Y, z: p.Z, half: p.W / 2})
	}
	// around are the samples two before and two after, whose difference is the direction.
	around := func(i int) (a, b sample, span float64) {
		from, to := max(0, i-2), min(n, i+2)
		return c.at[from], c.at[to], float64(to-from) * c.step
	}
	for i := range c.at {
		a, b, _ := around(i)
		dx, dy := b.x-a.x, b.y-a.y
		l := math.Max(1e-6, math.Hypot(dx, dy))
		c.at[i].nx, c.at[i].ny = dy/l, -dx/l
	}
	for i := range c.at {
		p := &c.at[i]
		a, b, span := around(i)
		p.bend = ((b.nx-a.nx)*p.ny - (b.ny-a.ny)*p.nx) / span
		if i > 0 {
			width := math.Max(3, p.half+c.at[i-1].half)
			if c.look.widest > 0 {
				width = math.Min(width, c.look.widest)
			}
			p.phase = c.at[i-1].phase + c.step/(c.look.period*width)
		}
	}
	if of.Turned {
		for i := range c.at {
			p := &c.at[i]
			p.nx, p.ny, p.bend = -p.nx, -p.ny, -p.bend
		}
	}
	return c
}

// place is the strand at a distance along it.
func (c *curve) place(s float64) sample {
	i := min(max(int(math.Floor(s/c.step)), 0), len(c.at)-2)
	u := s/c.step - float64(i)
	a, b := c.at[i], c.at[i+1]
	return sample{mix(a.x, b.x, u), mix(a.y, b.y, u), mix(a.z, b.z, u), mix(a.half, b.half, u), mix(a.nx, b.nx, u), mix(a.ny, b.ny, u), mix(a.bend, b.bend, u), mix(a.phase, b.phase, u)}
}

// within is the strand at a distance along it, held between its ends.
func (c *curve) within(s float64) sample { return c.place(min(max(s, 0), c.length)) }

// whereIs is the distance along at which the texture has a phase.
func (c *curve) whereIs(phase float64) float64 {
	low, high := 0, len(c.at)-1
	if phase <= 0 {
		return phase * c.look.period * 2 * c.at[0].half
	}
	if phase >= c.at[high].phase {
		return c.length + (phase-c.at[high].phase)*c.look.period*2*math.Max(2, c.at[high].half)
	}
	for high-low > 1 {
		if m := (low + high) / 2; c.at[m].phase <= phase {
			low = m
		} else {
			high = m
		}
	}
	return c.step * (float64(low) + (phase-c.at[low].phase)/(c.at[high].phase-c.at[low].phase))
}

// xy is the place on the stage at s along and t across, units; on the inner side of a bend
// t is held back, so that an outline never turns over.
func (c *curve) xy(s, t float64) XY {
	p := c.place(s)
	if p.bend*t > 0.92 {
		t = 0.92 / p.bend
	}
	return XY{p.x + p.nx*t, p.y + p.ny*t}
}

// edge is the half width on a side (1 or -1), with the bumps of the material and the shape
// of the ends, grown by more on all sides.
func (c *curve) edge(s, side, more float64) float64 {
	p := c.within(s)
	half := p.half * c.look.edge(p.phase+c.of.Shift, side)
	end := func(from float64, e End) float64 {
		from += more
		switch e {
		case Round:
			if r := math.Min(p.half*0.9, c.length/2) + more; from < r {
				return math.Sqrt(math.Max(0, 1-(1-from/r)*(1-from/r)))
			}
		case Tip:
			if r := math.Min(p.half*5, c.length/2) + more; from < r {
				return math.Pow(math.Max(0, from/r), 0.6)
			}
		case Open:
		}
		return 1
	}
	return (half + more) * end(s, c.of.Ends[0]) * end(c.length-s, c.of.Ends[1])
}

// noise is a number from 0 to 1 that looks like chance and is always the same.
func noise(i int, seed float64) float64 {
	v := math.Sin(float64(i)*127.1+seed*311.7) * 43758.5453
	return v - math.Floor(v)
}

// rough is noise that runs smoothly along x.
func rough(x, seed float64) float64 {
	i := math.Floor(x)
	return mix(noise(int(i), seed), noise(int(i)+1, seed), ease(x-i))
}
