package surface

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
)

// Same is how far apart two unit vectors may lie and still be one corner: about
// 0.0001 mm on a head.
const Same = 1e-6

// Touch is the length in mm of a common border from which two sections count as
// neighbours; less is a corner.
const Touch = 0.5

// UnitRing is the outline of a section as unit vectors.
func UnitRing(h scalp.Head, outline scalp.Line) []r3.Vec {
	ring := make([]r3.Vec, len(outline))
	for i, p := range outline {
		ring[i] = scalp.Unit(r3.Vec{X: p[0] / h.A, Y: p[1] / h.B, Z: p[2] / h.C})
	}
	return ring
}

// Contains tells whether the counter-clockwise ring winds round u: by the edges, seen
// from u, that cross a line to one side of it.
func Contains(ring []r3.Vec, u r3.Vec) bool {
	// Two directions across u; any will do.
	aside := r3.Vec{X: 1}
	if math.Abs(u.X) > 0.7 {
		aside = r3.Vec{Y: 1}
	}
	east := scalp.Unit(r3.Cross(aside, u))
	north := r3.Cross(u, east)
	winds := 0
	last := ring[len(ring)-1]
	x, y := r3.Dot(east, last), r3.Dot(north, last)
	for _, v := range ring {
		if r3.Dot(u, v) < 0 {
			return false // no section reaches a quarter round the head
		}
		nextX, nextY := r3.Dot(east, v), r3.Dot(north, v)
		left := x*nextY - nextX*y
		switch {
		case y <= 0 && nextY > 0 && left > 0:
			winds++
		case y > 0 && nextY <= 0 && left < 0:
			winds--
		}
		x, y = nextX, nextY
	}
	return winds > 0
}

// edge runs from one corner to another, by their numbers.
type edge struct{ from, to int }

// Union joins two counter-clockwise rings that share a stretch of border of at
// least touch mm. ok is false when they do not, or when the union has a hole.
func Union(h scalp.Head, a, b []r3.Vec) (ring []r3.Vec, ok bool) {
	var corners []r3.Vec
	number := func(u r3.Vec) int {
		for i, v := range corners {
			if r3.Norm2(r3.Sub(u, v)) < Same*Same {
				return i
			}
		}
		corners = append(corners, u)
		return len(corners) - 1
	}
	edges := map[edge]bool{}
	shared := 0.0
	for i, whole := range [][]r3.Vec{onBorder(a, b), onBorder(b, a)} {
		for k, u := range whole {
			e := edge{number(u), number(whole[(k+1)%len(whole)])}
			switch back := (edge{e.to, e.from}); {
			case e.from == e.to:
			case i == 1 && edges[back]:
				delete(edges, back)
				shared += h.Chord(corners[e.from], corners[e.to])
			default:
				edges[e] = true
			}
		}
	}
	if shared < Touch || len(edges) == 0 {
		return nil, false
	}
	next := make(map[int]int, len(edges))
	start := len(corners)
	for e := range edges {
		if _, taken := next[e.from]; taken {
			return nil, false // the rings touch again in a single corner
		}
		next[e.from] = e.to
		start = min(start, e.from)
	}
	for at := start; len(ring) == 0 || at != start; at = next[at] {
		if len(ring) > len(edges) {
			return nil, false
		}
		ring = append(ring, corners[at])
	}
	return ring, len(ring) == len(edges)
}

// onBorder is ring with those corners of other that lie on its border put in.
func onBorder(ring, other []r3.Vec) []r3.Vec {
	out := make([]r3.Vec, 0, len(ring)+len(other))
	for i, u := range ring {
		v := ring[(i+1)%len(ring)]
		out = append(out, u)
		type hit struct {
			at float64
			u  r3.Vec
		}
		var hits []hit
		along := r3.Sub(v, u)
		long := r3.Norm2(along)
		if long < Same*Same {
			continue
		}
		normal := scalp.Unit(r3.Cross(u, v))
		for _, w := range other {
			if math.Abs(r3.Dot(normal, w)) > Same {
				continue
			}
			if f := r3.Dot(r3.Sub(w, u), along) / long; f > 0 && f < 1 &&
				r3.Norm2(r3.Sub(w, u)) >= Same*Same && r3.Norm2(r3.Sub(w, v)) >= Same*Same {
				hits = append(hits, hit{f, w})
			}
		}
		slices.SortFunc(hits, func(a, b hit) int {
			if a.at < b.at {
				return -1
			}
			return 1
		})
		for _, x := range hits {
			out = append(out, x.u)
		}
	}
	return out
}

// Cut is the part of ring on the side of the plane through the centre of the head
// to which normal points. A ring that is nearly convex, as sections are, stays one.
func Cut(ring []r3.Vec, normal r3.Vec) []r3.Vec {
	var out []r3.Vec
	prev := ring[len(ring)-1]
	before := r3.Dot(normal, prev)
	for _, u := range ring {
		now := r3.Dot(normal, u)
		if before < 0 != (now < 0) {
			f := before / (before - now)
			out = append(out, scalp.Unit(r3.Add(r3.Scale(1-f, prev), r3.Scale(f, u))))
		}
		if now >= 0 {
			out = append(out, u)
		}
		prev, before = u, now
	}
	return out
}

// ToLine is the distance in mm from u to a polyline, and the share of its length
// at which the nearest point lies.
func (c Curve) ToLine(h scalp.Head, u r3.Vec) (mm, share float64) {
	least := math.Inf(1)
	p := h.Surface(u)
	b := h.Surface(c.Points[0])
	for i := 1; i < len(c.Points); i++ {
		a := b
		b = h.Surface(c.Points[i])
		along := r3.Sub(b, a)
		long := r3.Norm2(along)
		if long == 0 {
			continue
		}
		f := max(0, min(1, r3.Dot(r3.Sub(p, a), along)/long))
		if d := r3.Norm2(r3.Sub(p, r3.Add(a, r3.Scale(f, along)))); d < least {
			least, share = d, (c.Run[i-1]+f*(c.Run[i]-c.Run[i-1]))/c.Length()
		}
	}
	return math.Sqrt(least), share
}

// Compactness is the area of a section (mm²) ÷ that of the smallest rectangle round it in
// the plane that touches the head at its centroid: 1 for a true box, ½ for a triangle, less
// for a needle. room is used for its points if it is large enough.
func Compactness(h scalp.Head, ring []r3.Vec, area float64, centroid r3.Vec, room [][2]float64) float64 {
	n := h.Normal(centroid)
	e1 := scalp.Unit(r3.Cross(n, r3.Vec{X: 0.3, Y: 0.5, Z: 0.81}))
	e2 := r3.Cross(n, e1)
	points := room
	for _, u := range ring {
		v := h.Surface(u)
		points = append(points, [2]float64{r3.Dot(v, e1), r3.Dot(v, e2)})
	}
	// The smallest rectangle lies along a side of the convex hull: a side of the section, or
	// a bridge over its bays, which are shallow. Sides that go on nearly straight are one.
	const straight = 0.999 // cosine
	least := math.Inf(1)
	var bx, by float64 // the last direction tried
	for i, a := range points {
		b := points[(i+1)%len(points)]
		dx, dy := b[0]-a[0], b[1]-a[1]
		long := math.Sqrt(dx*dx + dy*dy)
		if long < 1e-9 {
			continue
		}
		dx, dy = dx/long, dy/long
		if dx*bx+dy*by > straight {
			continue
		}
		bx, by = dx, dy
		left, right, low, high := math.Inf(1), math.Inf(-1), math.Inf(1), math.Inf(-1)
		for _, p := range points { // by hand: the built-in min and max also look for NaN
			x, y := p[0]*dx+p[1]*dy, p[1]*dx-p[0]*dy
			if x < left {
				left = x
			}
			if x > right {
				right = x
			}
			if y < low {
				low = y
			}
			if y > high {
				high = y
			}
		}
		least = min(least, (right-left)*(high-low))
	}
	return area / least
}
