package knot

import (
	"cmp"
	"math"
	"slices"
)

// Point is a place on a line: X to the right, Y down, Z towards the viewer.
type Point struct{ X, Y, Z float64 }

// Ring is a closed line; its last point is joined to its first.
type Ring []Point

// crossing is where two stretches of rings cross on the page. Its ports are numbered against the clock, as
// seen, from where the lower strand comes in: 0 and 2 are the lower strand, 1 and 3 the upper one.
type crossing struct {
	over, under place
	// sign is 1 where the lower strand crosses the upper one from its right to its left.
	sign int
}

// place is a place on a ring: which ring, and how far along, in segments.
type place struct {
	ring int
	at   float64
}

// diagram is what is left of rings when only their crossings count.
type diagram struct {
	crossings []crossing
	rings     int
}

// draw finds the crossings of rings with one another and with themselves.
func draw(rings []Ring) diagram {
	d := diagram{rings: len(rings)}
	for a := range rings {
		for b := a; b < len(rings); b++ {
			d.crossings = append(d.crossings, meet(a, rings[a], b, rings[b])...)
		}
	}
	return d
}

// box is what a segment lies in.
type box struct{ x0, y0, x1, y1 float64 }

func boxOf(p, q Point) box {
	return box{min(p.X, q.X), min(p.Y, q.Y), max(p.X, q.X), max(p.Y, q.Y)}
}

func (b box) apart(c box) bool { return b.x1 < c.x0 || c.x1 < b.x0 || b.y1 < c.y0 || c.y1 < b.y0 }

// meet finds the crossings of two rings, or of one with itself.
func meet(a int, p Ring, b int, q Ring) (out []crossing) {
	boxes := make([]box, len(q))
	for j := range q {
		boxes[j] = boxOf(q[j], q[(j+1)%len(q)])
	}
	for i := range p {
		p0, p1 := p[i], p[(i+1)%len(p)]
		here := boxOf(p0, p1)
		from := 0
		if a == b {
			from = i + 2
		}
		for j := from; j < len(q); j++ {
			if here.apart(boxes[j]) || a == b && i == 0 && j == len(q)-1 {
				continue
			}
			s, t, turn, ok := intersect(p0, p1, q[j], q[(j+1)%len(q)])
			if !ok {
				continue
			}
			first, second := place{a, float64(i) + s}, place{b, float64(j) + t}
			z1, z2 := p0.Z+(p1.Z-p0.Z)*s, q[j].Z+(q[(j+1)%len(q)].Z-q[j].Z)*t
			// Y points down: what turns with the clock on the page has a positive product.
			if z1 > z2 {
				out = append(out, crossing{over: first, under: second, sign: turn})
			} else {
				out = append(out, crossing{over: second, under: first, sign: -turn})
			}
		}
	}
	return out
}

// intersect tells where two segments cross, as shares of each, and whether the second goes from the first
// one's right to its left (1) or from left to right (-1).
func intersect(p0, p1, q0, q1 Point) (s, t float64, turn int, ok bool) {
	px, py, qx, qy := p1.X-p0.X, p1.Y-p0.Y, q1.X-q0.X, q1.Y-q0.Y
	det := px*qy - py*qx
	if det == 0 {
		return 0, 0, 0, false
	}
	dx, dy := q0.X-p0.X, q0.Y-p0.Y
	s, t = (dx*qy-dy*qx)/det, (dx*py-dy*px)/det
	if s < 0 || s >= 1 || t < 0 || t >= 1 {
		return 0, 0, 0, false
	}
	if turn = 1; det > 0 { // Y points down
		turn = -1
	}
	return s, t, turn, true
}

// arc joins two ports of crossings; a port is four times the crossing's number and the port's.
type arc [2]int

// arcs are the stretches between crossings, and how many rings have none.
func (d diagram) arcs() (arcs []arc, free int) {
	type pass struct {
		at      float64
		in, out int
	}
	passes := make([][]pass, d.rings)
	for i, c := range d.crossings {
		passes[c.under.ring] = append(passes[c.under.ring], pass{c.under.at, 4 * i, 4*i + 2})
		in, out := 4*i+3, 4*i+1
		if c.sign < 0 {
			in, out = out, in
		}
		passes[c.over.ring] = append(passes[c.over.ring], pass{c.over.at, in, out})
	}
	for _, list := range passes {
		if len(list) == 0 {
			free++
			continue
		}
		slices.SortFunc(list, func(a, b pass) int { return cmp.Compare(a.at, b.at) })
		for i, p := range list {
			arcs = append(arcs, arc{p.out, list[(i+1)%len(list)].in})
		}
	}
	return arcs, free
}

// Linking is the linking number of two rings: half the sum of the signs of their crossings.
func Linking(a, b Ring) int {
	sum := 0
	for _, c := range meet(0, a, 1, b) {
		sum += c.sign
	}
	return int(math.Round(float64(sum) / 2))
}
