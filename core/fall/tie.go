package fall

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
)

// halfUp is the least z of the unit vector of a root that is tied when half the hair is up:
// all above the temples. By eye.
const halfUp = 0.42

// tieOf is where a style gathers the hair, as a unit vector: tied back at the height of the
// temples, half up behind the crown.
func tieOf(s Style) r3.Vec {
	if s == HalfUp {
		return scalp.At(math.Pi, 0.82)
	}
	return scalp.At(math.Pi, 0.35)
}

// toTie is the great circle from a root to the tie, appended to way.
func (w *Wearer) toTie(root, tie r3.Vec, way []r3.Vec) []r3.Vec {
	h := w.body.head
	angle := math.Acos(max(-1, min(1, r3.Dot(root, tie))))
	n := max(1, int(angle*h.A/domeStep))
	sin := math.Sin(angle)
	for i := range n + 1 {
		f, u := float64(i)/float64(n), root
		if sin > 1e-6 {
			u = r3.Add(r3.Scale(math.Sin((1-f)*angle)/sin, root), r3.Scale(math.Sin(f*angle)/sin, tie))
		}
		way = append(way, h.Surface(scalp.Unit(u)))
	}
	return way
}

const (
	tieStands = 26.0     // mm the tie stands off the head
	golden    = 2.399963 // radians between the pieces of a bunch packed like a sunflower
	squeezed  = 0.55     // of its width the bunch has in the tie
	opened    = 0.85     // and below it
)

// gather lays a piece to the tie and hangs it in the bunch, as the one of a rank in it.
func (w *Wearer) gather(s *strand, tie r3.Vec, rank int, m *stack) []r3.Vec {
	b, t := &w.body, s.Thickness
	line := make([]r3.Vec, 0, len(s.dome)+60)
	for i, q := range s.dome {
		rise := t / 2
		if i > 0 {
			over, _ := m.over(q, t)
			rise = min(max(rise, min(over, t/2+0.25*domeStep*float64(i))), 14)
		}
		_, normal := b.steepest(q)
		line = append(line, r3.Add(q, r3.Scale(rise, normal)))
	}
	normal := b.head.Normal(tie)
	knot := r3.Add(b.head.Surface(tie), r3.Scale(tieStands, normal))
	across := scalp.Unit(r3.Cross(normal, r3.Vec{Y: 1}))
	aside := r3.Cross(normal, across)
	radius := 0.52 * t * math.Sqrt(float64(rank)+0.5)
	sin, cos := math.Sincos(golden * float64(rank))
	at := func(out, drop, spread float64) r3.Vec {
		q := r3.Add(knot, r3.Add(r3.Scale(out, normal), r3.Vec{Z: -drop}))
		return b.offBell(r3.Add(q, r3.Add(r3.Scale(spread*radius*cos, across), r3.Scale(spread*radius*sin, aside))), t/2)
	}
	line = append(line, at(0, 0, squeezed), at(18, 2, squeezed*1.05))
	reach := 30 + radius*sin/2
	const turn = 6
	for i := 1; i <= turn; i++ {
		f := float64(i) / turn
		s, c := math.Sincos(f * math.Pi / 2)
		line = append(line, at(18+reach*s, 2+30*(1-c), squeezed+(opened-squeezed)*f))
	}
	line, left := cutTo(line, s.Length)
	for end := line[len(line)-1]; left > 1e-6; {
		next := r3.Add(end, r3.Vec{Z: -min(10, left)})
		next, _, _ = b.torso.clear(b.offBell(next, t/2), t/2, 0.3)
		l := max(length(r3.Sub(next, end)), 1)
		if l > left {
			next, l = r3.Add(end, r3.Scale(left/l, r3.Sub(next, end))), left
		}
		line = append(line, next)
		end, left = next, left-l
	}
	return line
}

// offBell moves a point above the plane of the circumference out to a lift.
func (b *body) offBell(p r3.Vec, least float64) r3.Vec {
	if p.Z <= 0 {
		return p
	}
	if lift := b.lift(p); lift < least {
		return r3.Add(p, r3.Scale(least-lift, b.outward(p)))
	}
	return p
}
