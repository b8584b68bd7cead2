// Package scalp fits a head to a tape measure and answers questions about its
// surface.
//
// The head is an ellipsoid with semi-axes A, B, C (mm). Axes: x to the face, y
// to the client's left, z up; the origin lies in the plane of the largest
// circumference. A unit vector u stands for the surface point
// (A·u.X, B·u.Y, C·u.Z), so every great circle on the unit sphere is a central
// plane section of the head; those are the curves used throughout. Lengths are
// mm, areas mm², angles radians.
package scalp

import (
	"math"
	"strconv"

	"gonum.org/v1/gonum/integrate/quad"
	"gonum.org/v1/gonum/spatial/r3"
)

// Point is a surface point (x, y, z) in mm as it leaves the core.
type Point [3]float64

// MarshalJSON writes the point to a hundredth of a millimetre.
func (p Point) MarshalJSON() ([]byte, error) { return p.append(make([]byte, 0, 32), 1), nil }

// Line is a line or an outline on the surface.
type Line []Point

// Apart is the straight distance between two points, mm.
func Apart(p, q Point) float64 {
	return math.Sqrt((p[0]-q[0])*(p[0]-q[0]) + (p[1]-q[1])*(p[1]-q[1]) + (p[2]-q[2])*(p[2]-q[2]))
}

// From is the straight distance from p to the nearest point of the line, mm; infinite for a
// line without points.
func (l Line) From(p Point) float64 {
	least := math.Inf(1)
	for _, q := range l {
		least = min(least, Apart(p, q))
	}
	return least
}

// MarshalJSON writes the points to a tenth of a millimetre, finer than a comb:
// outlines are the bulk of a result and travel on every slider movement.
func (l Line) MarshalJSON() ([]byte, error) {
	b := append(make([]byte, 0, 2+25*len(l)), '[')
	for i, p := range l {
		if i > 0 {
			b = append(b, ',')
		}
		b = p.append(b, 10)
	}
	return append(b, ']'), nil
}

// append writes the point in steps of step hundredths of a millimetre.
func (p Point) append(b []byte, step float64) []byte {
	b = append(b, '[')
	for i, v := range p {
		if i > 0 {
			b = append(b, ',')
		}
		b = appendHundredths(b, int64(math.Round(v*100/step)*step))
	}
	return append(b, ']')
}

// appendHundredths writes n ÷ 100 without closing zeros. Whole numbers are written
// several times as fast as the shortest form of a float is found.
func appendHundredths(b []byte, n int64) []byte {
	if n < 0 {
		b, n = append(b, '-'), -n
	}
	b = strconv.AppendInt(b, n/100, 10)
	if n %= 100; n > 0 {
		b = append(b, '.', byte('0'+n/10))
		if n%10 > 0 {
			b = append(b, byte('0'+n%10))
		}
	}
	return b
}

// Head is a fitted head. Make one with [Fit]; the zero Head has no surface.
type Head struct {
	// A, B, C are the semi-axes in mm: half length, half breadth, height
	// above the plane of the circumference.
	A, B, C float64
	// Nape is the angle of the nape hairline centre below that plane, radians.
	Nape float64
	// hairline is how the landmarks depart from their usual places.
	hairline Hairline
}

// Surface is the surface point (mm) of unit vector u.
func (h Head) Surface(u r3.Vec) r3.Vec {
	return r3.Vec{X: h.A * u.X, Y: h.B * u.Y, Z: h.C * u.Z}
}

// Point is [Head.Surface] as a Point.
func (h Head) Point(u r3.Vec) Point {
	return Point{h.A * u.X, h.B * u.Y, h.C * u.Z}
}

// Normal is the outward unit normal at u.
func (h Head) Normal(u r3.Vec) r3.Vec {
	return Unit(r3.Vec{X: u.X / h.A, Y: u.Y / h.B, Z: u.Z / h.C})
}

// Chord is the straight distance in mm between the surface points of u and v.
func (h Head) Chord(u, v r3.Vec) float64 {
	return norm(h.Surface(r3.Sub(u, v)))
}

// norm is |v|. It skips r3.Norm's guard against overflow: no head is that big,
// and the core spends most of its time here.
func norm(v r3.Vec) float64 { return math.Sqrt(r3.Norm2(v)) }

// Unit is v at length 1; v must not be zero.
func Unit(v r3.Vec) r3.Vec { return r3.Scale(1/norm(v), v) }

// gauss holds Gauss-Legendre nodes and weights on [-1, 1].
type gauss struct{ x, w []float64 }

func newGauss(n int) gauss {
	g := gauss{make([]float64, n), make([]float64, n)}
	quad.Legendre{}.FixedLocations(g.x, g.w, -1, 1)
	return g
}

var gauss6 = newGauss(6)

// sweep is the length in mm of the central plane section p·cos φ + q·sin φ for φ
// in from..to, p and q orthonormal. Panels of at most 45° with six
// Gauss-Legendre nodes each hold the error below 1e-6 mm on any head.
func (h Head) sweep(p, q r3.Vec, from, to float64) float64 {
	panels := int(math.Ceil(math.Abs(to-from) / (math.Pi / 4)))
	if panels == 0 {
		return 0
	}
	half := (to - from) / float64(panels) / 2
	// |cos φ·Q - sin φ·P|², P and Q being p and q on the surface.
	atP, atQ := h.Surface(p), h.Surface(q)
	pp, pq, qq := r3.Norm2(atP), r3.Dot(atP, atQ), r3.Norm2(atQ)
	sum := 0.0
	for i := range panels {
		mid := from + half*float64(2*i+1)
		for k, x := range gauss6.x {
			sin, cos := math.Sincos(mid + half*x)
			sum += gauss6.w[k] * math.Sqrt(cos*cos*qq-2*sin*cos*pq+sin*sin*pp)
		}
	}
	return math.Abs(half) * sum
}

// Arc is the length in mm of the shorter central plane section between the
// surface points of the unit vectors u and v, which must not be opposite.
func (h Head) Arc(u, v r3.Vec) float64 {
	side := r3.Sub(v, r3.Scale(r3.Dot(u, v), u))
	n := norm(side)
	if n < 1e-15 {
		return 0
	}
	return h.sweep(u, r3.Scale(1/n, side), 0, math.Atan2(n, r3.Dot(u, v)))
}

// Circumference is the perimeter in mm of the plane z = 0.
func (h Head) Circumference() float64 {
	return h.sweep(r3.Vec{X: 1}, r3.Vec{Y: 1}, 0, 2*math.Pi)
}

// areaElement is the surface area per steradian of the unit sphere in the direction of v, mm².
func (h Head) areaElement(v r3.Vec) float64 {
	return math.Sqrt(r3.Norm2(r3.Vec{X: h.B * h.C * v.X, Y: h.A * h.C * v.Y, Z: h.A * h.B * v.Z}) / r3.Norm2(v))
}

// AreaCentroid is the area in mm² of the closed polygon of unit vectors ring
// (first vertex not repeated, edges central plane sections, all within a
// hemisphere, counter-clockwise
// seen from outside for a positive area) and its centroid as a unit vector.
//
// The polygon is fanned from its mean direction into spherical triangles; each
// solid angle is exact and the area element is taken at the three edge
// midpoints, which is exact on a sphere and good to 1e-5 for a section or a
// zone of a head.
func (h Head) AreaCentroid(ring []r3.Vec) (area float64, centroid r3.Vec) {
	var hub r3.Vec
	for _, u := range ring {
		hub = r3.Add(hub, u)
	}
	hub = Unit(hub)
	var sum r3.Vec
	prev := ring[len(ring)-1]
	spoke := h.areaElement(r3.Add(hub, prev)) // each is shared by two triangles
	for _, u := range ring {
		omega := 2 * math.Atan2(
			r3.Dot(hub, r3.Cross(prev, u)),
			1+r3.Dot(hub, prev)+r3.Dot(prev, u)+r3.Dot(u, hub))
		next := h.areaElement(r3.Add(u, hub))
		element := (spoke + h.areaElement(r3.Add(prev, u)) + next) / 3
		spoke = next
		part := omega * element
		area += part
		sum = r3.Add(sum, r3.Scale(part, Unit(r3.Add(hub, r3.Add(prev, u)))))
		prev = u
	}
	if n := norm(sum); n > 0 {
		hub = r3.Scale(1/n, sum)
	}
	return area, hub
}

// At is the unit vector at a longitude (from the face towards the client's
// left) and latitude (up from the plane of the circumference), both radians.
func At(lon, lat float64) r3.Vec {
	sinLon, cosLon := math.Sincos(lon)
	sinLat, cosLat := math.Sincos(lat)
	return r3.Vec{X: cosLat * cosLon, Y: cosLat * sinLon, Z: sinLat}
}
