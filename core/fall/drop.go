package fall

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
)

const (
	// mostLift is the most a piece is lifted over others on the head, in thicknesses: more is
	// pressed into the gaps.
	mostLift = 2.1
	// riseRate is how fast a piece rises or sinks, mm per mm of way, rootRise from its root.
	riseRate = 0.28
	rootRise = 0.4
	// fallStep is a step of the fall, mm; keeps is the share of the last direction kept.
	fallStep = 12.0
	keeps    = 0.45
	mostFall = 400
	// outAlong is how much of the slope along the shoulders hair follows, ridge the x of their
	// ridge ÷ stature.
	outAlong = 0.25
	ridge    = -0.024
	// cheek is how fast hair beside the face draws in, mm per mm of fall.
	cheek = 0.13
	// mostGrown is the most the body is grown by the hair that lies on it, mm.
	mostGrown = 34.0
)

// drop lays a piece over what lies already and lets it fall. It gives its way and how much
// hair lies beneath where it leaves the head.
func (w *Wearer) drop(s *strand, m *stack) (line []r3.Vec, lift float64) {
	b, t := &w.body, s.Thickness
	line = m.laidOn(s.dome, t)
	lift = b.lift(line[len(line)-1])
	grow := max(t/2, min(lift, mostGrown))
	if s.free { // it bows out of the scalp
		normal := b.head.Normal(s.Root)
		line[0] = r3.Add(s.dome[0], r3.Scale(t*0.3, normal))
		line = append(line, r3.Add(line[0], r3.Add(r3.Scale(t*0.55, normal), r3.Vec{Z: -t * 0.7})))
		grow = t / 2
	}
	line, left := cutTo(line, s.Length)
	if left > 0 {
		line = w.freely(line, left, t, grow, m)
	}
	return line, lift
}

// laidOn is a way over the head, lifted over the hair that lies there: no faster up and down
// than a piece bends, and away from its root in a short bow.
func (m *stack) laidOn(dome []r3.Vec, t float64) []r3.Vec {
	b := m.body
	line := make([]r3.Vec, 1, len(dome)+80)
	line[0] = dome[0]
	for i := 1; i < len(dome); i++ {
		from, step := dome[i-1], r3.Sub(dome[i], dome[i-1])
		n := int(math.Ceil(length(step) / 8))
		for j := 1; j <= n; j++ {
			q := r3.Add(from, r3.Scale(float64(j)/float64(n), step))
			if n > 1 {
				q = b.onHead(q)
			}
			line = append(line, q)
		}
	}
	n := len(line)
	rise := append(m.rise[:0], t/2)
	for i := 1; i < n; i++ {
		over, _ := m.over(line[i], t)
		rise = append(rise, max(t/2, min(over, mostLift*t)))
	}
	step := func(i int) float64 { return length(r3.Sub(line[i], line[i-1])) }
	for i := 1; i < n; i++ {
		rise[i] = max(rise[i], rise[i-1]-riseRate*step(i))
	}
	for i := n - 2; i > 0; i-- {
		rise[i] = max(rise[i], rise[i+1]-riseRate*step(i+1))
	}
	run := 0.0
	for i := 1; i < n; i++ {
		run += step(i)
		rise[i] = min(rise[i], t/2+rootRise*run)
	}
	m.rise = rise
	for i := range line {
		line[i] = r3.Add(line[i], r3.Scale(rise[i], b.outward(line[i])))
	}
	return line
}

// freely lets a piece fall the rest of its length from the end of a way, sliding over
// whatever stands there; the body is grown by the hair beneath.
func (w *Wearer) freely(line []r3.Vec, left, t, grow float64, m *stack) []r3.Vec {
	b := &w.body
	at := line[len(line)-1]
	dir, slope := r3.Vec{Z: -1}, r3.Vec{Z: -1}
	if len(line) > 1 {
		dir = scalp.Unit(r3.Sub(at, line[len(line)-2]))
	}
	landed := false
	for range mostFall {
		if left <= 1e-6 {
			break
		}
		h := min(fallStep, left)
		dir = scalp.Unit(r3.Add(r3.Scale(keeps, dir), r3.Scale(1-keeps, slope)))
		q := w.offHead(r3.Add(at, r3.Scale(h, dir)), t, grow)
		slope = r3.Vec{Z: -1}
		if out, normal, touched := b.torso.clear(q, grow, b.sideways(q.Z)); touched {
			q, landed = out, true
			slope = b.over(q, normal)
		}
		if !landed {
			q = w.beneath(q, h, t, m)
		}
		l := length(r3.Sub(q, at))
		switch {
		case l < 0.5: // wedged: it hangs straight on
			q, l = r3.Add(at, r3.Vec{Z: -h}), h
		case l > left:
			q, l = r3.Add(at, r3.Scale(left/l, r3.Sub(q, at))), left
		}
		dir = r3.Scale(1/l, r3.Sub(q, at))
		at = q
		left -= l
		line = append(line, at)
	}
	return line
}

// offHead keeps a falling piece off the face and the ears.
func (w *Wearer) offHead(q r3.Vec, t, grow float64) r3.Vec {
	b := &w.body
	if q.X > -0.1*b.head.A && q.Z > -1.25*b.head.A {
		if out, _, touched := b.face.clear(q, t/2, 1); touched {
			// To the side only: nothing is pushed forward over the face.
			q.Y, q.X = out.Y, min(out.X, q.X)
		}
	}
	if q.Z > b.earMiddle-45 && q.Z < 0 {
		q = b.beside(q, min(grow, t))
	}
	return q
}

// beneath lets a piece that has not touched the body yet lie on the hair beneath it, and
// beside the face on the cheek.
func (w *Wearer) beneath(q r3.Vec, h, t float64, m *stack) r3.Vec {
	b := &w.body
	over, lift := m.over(q, t)
	if rest := lift - max(over, -14); rest > 0 {
		if f := smooth(0.1, 0.5, q.X/b.head.A) * smooth(-1.15*b.head.A, -0.95*b.head.A, q.Z); f > 0 {
			q = r3.Sub(q, r3.Scale(min(rest, cheek*f*h), b.outward(q)))
		}
	}
	if up := over - lift; up > 0 && lift > -0.5*t-2 {
		q = r3.Add(q, r3.Scale(min(up, 0.35*h), b.outward(q)))
	}
	return q
}

// sideways is how freely the body pushes hair to the side: freely at the neck, hardly on the
// shoulders.
func (b *body) sideways(z float64) float64 { return 1 - 0.75*smooth(0.86, 0.835, b.share(z)) }

// over is the way hair slides over the body where it touches it: its weight takes it over the
// ridge to the front or the back.
func (b *body) over(q, normal r3.Vec) r3.Vec {
	if normal.Z <= 0 {
		return r3.Vec{Z: -1}
	}
	d := r3.Vec{X: normal.X * normal.Z, Y: outAlong * normal.Y * normal.Z, Z: normal.Z*normal.Z - 1}
	if least := normal.Z / 2; math.Abs(d.X) < least {
		d.X = math.Copysign(least, q.X-ridge*b.stature)
	}
	return scalp.Unit(d)
}
