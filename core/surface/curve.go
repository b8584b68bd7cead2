// Package surface is the geometry of the scalp: curves on it, patches between four
// curves, and polygons.
//
// Places are unit vectors seen from the middle of the head; the head turns them into
// points. Lengths are mm along the scalp unless said otherwise. Values are not changed
// once made, except for the Bow of a patch before it is first drawn.
package surface

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
)

// Curve is a polyline of unit vectors with its running length on the head, mm.
type Curve struct {
	// Points are unit vectors, Run the length in mm up to each.
	Points []r3.Vec
	Run    []float64
}

// NewCurve measures a polyline of unit vectors on a head.
func NewCurve(h scalp.Head, points []r3.Vec) Curve {
	run := make([]float64, len(points))
	for i := 1; i < len(points); i++ {
		run[i] = run[i-1] + h.Chord(points[i-1], points[i])
	}
	return Curve{points, run}
}

// GreatCircle is the great circle from u to v in about 3 mm steps. u and v must
// not be opposite.
func GreatCircle(h scalp.Head, u, v r3.Vec) []r3.Vec {
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

// Length is the curve's length on the head, mm.
func (c Curve) Length() float64 { return c.Run[len(c.Run)-1] }

// First and last are the curve's ends.
func (c Curve) First() r3.Vec { return c.Points[0] }
func (c Curve) Last() r3.Vec  { return c.Points[len(c.Points)-1] }

// At is the unit vector at share f (0..1) of the curve's length.
func (c Curve) At(f float64) r3.Vec {
	want := f * c.Length()
	i := firstFrom(c.Run, want)
	switch {
	case i == 0:
		return c.Points[0]
	case i == len(c.Run):
		return c.Points[i-1]
	}
	g := (want - c.Run[i-1]) / (c.Run[i] - c.Run[i-1])
	return scalp.Unit(r3.Add(r3.Scale(1-g, c.Points[i-1]), r3.Scale(g, c.Points[i])))
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

// Between appends to out the curve's own points strictly between the shares
// from and to, in that direction.
func (c Curve) Between(out []r3.Vec, from, to float64) []r3.Vec {
	eps := 1e-9 * c.Length()
	low, high := min(from, to)*c.Length()+eps, max(from, to)*c.Length()-eps
	start := len(out)
	for i := firstFrom(c.Run, low); i < len(c.Run) && c.Run[i] < high; i++ {
		out = append(out, c.Points[i])
	}
	if from > to {
		slices.Reverse(out[start:])
	}
	return out
}

// Sub is the stretch of the curve from one share of its length to another.
func (c Curve) Sub(h scalp.Head, from, to float64) Curve {
	if from == 0 && to == 1 {
		return c
	}
	return NewCurve(h, append(c.Between([]r3.Vec{c.At(from)}, from, to), c.At(to)))
}

// SubMM is [Curve.Sub] with the places given in mm.
func (c Curve) SubMM(h scalp.Head, from, to float64) Curve {
	return c.Sub(h, from/c.Length(), to/c.Length())
}

// Reversed runs the other way.
func (c Curve) Reversed() Curve {
	points := slices.Clone(c.Points)
	slices.Reverse(points)
	run := make([]float64, len(c.Run))
	for i := range run {
		run[i] = c.Length() - c.Run[len(run)-1-i]
	}
	return Curve{points, run}
}

// Then is the curve continued by one that starts where it ends.
func (c Curve) Then(h scalp.Head, next Curve) Curve {
	return NewCurve(h, append(slices.Clone(c.Points), next.Points[1:]...))
}

// Mirrored is the curve on the other side of the head.
func (c Curve) Mirrored() Curve {
	points := make([]r3.Vec, len(c.Points))
	for i, u := range c.Points {
		points[i] = scalp.Mirror(u)
	}
	return Curve{points, c.Run}
}

// Toward is the unit vector from the middle of the head towards a point on it.
func Toward(h scalp.Head, p scalp.Point) r3.Vec {
	return scalp.Unit(r3.Vec{X: p[0] / h.A, Y: p[1] / h.B, Z: p[2] / h.C})
}

// Mirrored is a line on the other side of the head.
func Mirrored(line scalp.Line) scalp.Line {
	out := slices.Clone(line)
	for i := range out {
		out[i][1] = -out[i][1]
	}
	return out
}

// OnHead is where unit vectors lie on the scalp.
func OnHead(h scalp.Head, line []r3.Vec) scalp.Line {
	out := make(scalp.Line, len(line))
	for i, u := range line {
		out[i] = h.Point(u)
	}
	return out
}

// BothSides continues a left curve that ends on the middle down the right side;
// a closed curve does not repeat its first point.
func BothSides(h scalp.Head, c Curve, closed bool) scalp.Line {
	left := OnHead(h, c.Points)
	right := Mirrored(left[:len(left)-1])
	slices.Reverse(right)
	if closed {
		right = right[:len(right)-1]
	}
	return append(left, right...)
}

// Distance is the length in mm of the central plane section from u to the nearest point
// the curve is given by. guess is an index of a point that may lie near; it becomes that of
// the nearest.
func (c Curve) Distance(h scalp.Head, u r3.Vec, guess *int) float64 {
	best := min(*guess, len(c.Points)-1)
	least := h.Chord(u, c.Points[best])
	for i := 0; i < len(c.Points); {
		far := h.Chord(u, c.Points[i])
		if far < least {
			best, least = i, far
		}
		// No point is nearer than the way along the curve there is long.
		next := c.Run[i] + far - least
		for i++; i < len(c.Points) && c.Run[i] <= next; i++ {
		}
	}
	*guess = best
	return h.Arc(u, c.Points[best])
}
