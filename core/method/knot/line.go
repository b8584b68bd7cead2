package knot

import "math"

// Smooth is the line through points, round as hair is: centripetal Catmull-Rom on the page (Yuksel and others
// 2009, from memory), its depth going evenly from point to point without running over; places are about a
// step apart.
func Smooth(through []Point, step float64) []Point {
	n := len(through)
	if n < 3 {
		return through
	}
	out := []Point{through[0]}
	for i := 0; i+1 < n; i++ {
		p1, p2 := through[i], through[i+1]
		p0, p3 := ahead(p1, p2), ahead(p2, p1)
		if i > 0 {
			p0 = through[i-1]
		}
		if i+2 < n {
			p3 = through[i+2]
		}
		t1 := knotTime(p0, p1)
		t2 := t1 + knotTime(p1, p2)
		t3 := t2 + knotTime(p2, p3)
		parts := max(1, int(math.Hypot(p2.X-p1.X, p2.Y-p1.Y)/step))
		for k := 1; k <= parts; k++ {
			u := float64(k) / float64(parts)
			t := t1 + (t2-t1)*u
			at := func(a, b, c, d float64) float64 {
				a1 := a + (b-a)*t/t1
				a2 := b + (c-b)*(t-t1)/(t2-t1)
				a3 := c + (d-c)*(t-t2)/(t3-t2)
				b1 := a1 + (a2-a1)*t/t2
				b2 := a2 + (a3-a2)*(t-t1)/(t3-t1)
				return b1 + (b2-b1)*(t-t1)/(t2-t1)
			}
			out = append(out, Point{at(p0.X, p1.X, p2.X, p3.X), at(p0.Y, p1.Y, p2.Y, p3.Y), p1.Z + (p2.Z-p1.Z)*u*u*(3-2*u)})
		}
	}
	return out
}

// ahead is where the line from q to p would go on.
func ahead(p, q Point) Point { return Point{2*p.X - q.X, 2*p.Y - q.Y, p.Z} }

// knotTime is the square root of a distance on the page, never nothing.
func knotTime(p, q Point) float64 { return math.Sqrt(max(math.Hypot(q.X-p.X, q.Y-p.Y), 1e-6)) }
