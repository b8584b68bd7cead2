package fall

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
)

// The bell is the envelope that hair lies on: the head's ellipsoid above the plane of its
// circumference, the upright elliptical cylinder on that circumference below it.

// lift is how far outside the bell a point lies, mm.
func (b *body) lift(p r3.Vec) float64 {
	x, y := p.X/b.head.A, p.Y/b.head.B
	gauge, from := x*x+y*y, p.X*p.X+p.Y*p.Y
	if p.Z > 0 {
		z := p.Z / b.head.C
		gauge += z * z
		from += p.Z * p.Z
	}
	if gauge == 0 {
		return -b.head.B
	}
	return math.Sqrt(from) * (1 - 1/math.Sqrt(gauge))
}

// onBell is the point of the bell under p: towards the middle above the plane, level below.
func (b *body) onBell(p r3.Vec) r3.Vec {
	x, y, z := p.X/b.head.A, p.Y/b.head.B, max(0, p.Z)/b.head.C
	gauge := math.Sqrt(x*x + y*y + z*z)
	if gauge < 1e-9 {
		return p
	}
	q := r3.Vec{X: p.X / gauge, Y: p.Y / gauge, Z: p.Z}
	if p.Z > 0 {
		q.Z /= gauge
	}
	return q
}

// azimuth is the angle of p round the bell from the face towards the client's left, radians:
// equal angles are equal shares of the ellipse.
func (b *body) azimuth(p r3.Vec) float64 { return math.Atan2(p.Y/b.head.B, p.X/b.head.A) }

// outward is the direction in which lift grows.
func (b *body) outward(p r3.Vec) r3.Vec {
	h := b.head
	v := r3.Vec{X: p.X / h.A / h.A, Y: p.Y / h.B / h.B, Z: max(0, p.Z) / h.C / h.C}
	if n := r3.Norm2(v); n > 0 {
		return r3.Scale(1/math.Sqrt(n), v)
	}
	return r3.Vec{Z: 1}
}

// steepest is the steepest descent over the head at p, as long as the sine of its slope, and
// the outward normal there.
func (b *body) steepest(p r3.Vec) (down, normal r3.Vec) {
	h := b.head
	n := scalp.Unit(r3.Vec{X: p.X / h.A / h.A, Y: p.Y / h.B / h.B, Z: p.Z / h.C / h.C})
	return r3.Vec{X: n.X * n.Z, Y: n.Y * n.Z, Z: n.Z*n.Z - 1}, n
}

// onHead puts a point back on the head.
func (b *body) onHead(p r3.Vec) r3.Vec {
	h := b.head
	return r3.Scale(1/math.Sqrt(p.X*p.X/h.A/h.A+p.Y*p.Y/h.B/h.B+p.Z*p.Z/h.C/h.C), p)
}

// smooth is 0 at a, 1 at b and level at both; a may be the greater.
func smooth(a, b, x float64) float64 {
	f := max(0, min(1, (x-a)/(b-a)))
	return f * f * (3 - 2*f)
}

func length(v r3.Vec) float64 { return math.Sqrt(r3.Norm2(v)) }

func compare(a, b float64) int {
	switch {
	case a < b:
		return -1
	case a > b:
		return 1
	}
	return 0
}
