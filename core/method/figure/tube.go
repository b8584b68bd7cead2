package figure

import "math"

const (
	windowWide = 0.6 // half width of a window, in half widths of the strand
	mouthWide  = 0.15
	shut       = 0.05 // a window less open than this is not drawn
)

// halfWindow is the half width of the window at a distance along.
func (c *curve) halfWindow(s float64) float64 {
	tube := c.of.Tube
	from, to := tube.From*c.length, tube.To*c.length
	u := (s - (from+to)/2) / ((to - from) / 2)
	if math.Abs(u) >= 1 {
		return 0
	}
	uneven := rough(s/5, 9) - 0.5 // a cut through hair is not smooth
	return windowWide * tube.Open * (1 + 0.09*uneven) * math.Pow(1-math.Pow(math.Abs(u), 2.6), 1/2.6)
}

// window is the outline of the window, smaller by in units.
func (c *curve) window(in float64) []on {
	tube := c.of.Tube
	from, to := tube.From*c.length, tube.To*c.length
	middle, half := (from+to)/2, (to-from)/2
	var up, down []on
	for i := 0; i <= 64; i++ {
		u := math.Sin((float64(i)/32 - 1) * math.Pi / 2)
		t := math.Max(0, c.halfWindow(middle+u*half)-in/math.Max(4, c.place(middle+u*half).half))
		up, down = append(up, on{middle + u*(half-in), t}), append(down, on{middle + u*(half-in), -t})
	}
	return band(up, down)[0]
}

func (c *curve) mouth(m Mouth) []on {
	out := make([]on, 24)
	for i := range out {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / 24)
		out[i] = on{m.At*c.length + m.Half*sin, m.Across + mouthWide*cos}
	}
	return out
}

// holes are the window and the mouths.
func (c *curve) holes() (out [][]on) {
	if c.of.Tube == nil {
		return nil
	}
	if c.of.Tube.Open > shut {
		out = append(out, c.window(0))
	}
	for _, m := range c.of.Tube.Mouths {
		out = append(out, c.mouth(m))
	}
	return out
}

func (c *curve) inHole(q on) bool {
	if c.of.Tube.Open > shut && math.Abs(q.t) < c.halfWindow(q.s) {
		return true
	}
	for _, m := range c.of.Tube.Mouths {
		if math.Hypot((q.s-m.At*c.length)/m.Half, (q.t-m.Across)/mouthWide) < 1 {
			return true
		}
	}
	return false
}

// outsideHoles are the parts of lines that lie on the skin.
func (c *curve) outsideHoles(lines [][]on) (out [][]on) {
	const parts = 6
	for _, l := range lines {
		var part []on
		for i := 0; i < (len(l)-1)*parts; i++ {
			a, b, f := l[i/parts], l[i/parts+1], float64(i%parts)/parts
			q := on{mix(a.s, b.s, f), mix(a.t, b.t, f)}
			if !c.inHole(q) {
				part = append(part, q)
				continue
			}
			if len(part) > 1 {
				out = append(out, part)
			}
			part = nil
		}
		if len(part) > 1 {
			out = append(out, part)
		}
	}
	return out
}

// hollow is what one sees through the holes: the far wall, its rings bent the other way,
// the cut edge, and the dark of the mouths.
func (cv *canvas) hollow(c *curve, from, to float64, p paint) {
	pale := p.light.mix(paper, 0.45)
	if c.of.Tube.Open > shut {
		cv.patches(c, [][]on{c.window(-1)}, from, to, pale, 1)
		var rings [][]on
		for k := int(c.within(c.of.Tube.From * c.length).phase); k <= int(c.within(c.of.Tube.To*c.length).phase)+1; k += 2 {
			var line []on
			for i := 0; i <= 8; i++ {
				t := mix(-0.6, 0.6, float64(i)/8)
				q := on{c.whereIs(float64(k)) - 24.4*(0.36-t*t) + 3*(noise(k, 5)-0.5), t}
				if math.Abs(q.t) < c.halfWindow(q.s)+0.04 {
					line = append(line, q)
				}
			}
			if len(line) > 1 {
				rings = append(rings, line)
			}
		}
		cv.strokes(c, rings, from, to, p.base.mix(p.light, 0.4), 1.1, 0.75)
		cv.strokes(c, [][]on{closed(c.window(1.2))}, from, to, p.light.mix(p.base, 0.5), 4, 1)
	}
	var mouths [][]on
	for _, m := range c.of.Tube.Mouths {
		mouths = append(mouths, c.mouth(m))
	}
	cv.patches(c, mouths, from, to, ink.mix(Colour{}, 0.3), 1)
}
