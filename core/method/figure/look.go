package figure

import (
	"fmt"
	"math"
)

// Colour is red, green and blue.
type Colour [3]uint8

func (a Colour) String() string { return fmt.Sprintf("#%02x%02x%02x", a[0], a[1], a[2]) }

// The colours of the page.
var (
	paper  = Colour{255, 250, 240}
	ink    = Colour{42, 35, 28}
	signal = Colour{242, 168, 29}
	wrong  = Colour{162, 58, 38}
	flesh  = Colour{226, 188, 149}
)

// paint is the colour of a strand with its shade and its light.
type paint struct{ base, dark, light Colour }

func (a Colour) mix(b Colour, u float64) (out Colour) {
	for i := range a {
		out[i] = uint8(math.Round(mix(float64(a[i]), float64(b[i]), u)))
	}
	return out
}

// tones at rest and moving.
var tones = map[Tone][2]paint{
	Own:    {{Colour{88, 60, 44}, Colour{36, 24, 16}, Colour{128, 96, 74}}, {Colour{120, 82, 56}, Colour{46, 28, 18}, Colour{184, 138, 100}}},
	Piece:  {{Colour{184, 100, 46}, Colour{104, 46, 18}, Colour{222, 150, 84}}, {Colour{218, 132, 50}, Colour{122, 56, 18}, Colour{255, 198, 118}}},
	Other:  {{Colour{203, 146, 78}, Colour{112, 70, 28}, Colour{234, 194, 136}}, {Colour{230, 170, 80}, Colour{130, 80, 28}, Colour{255, 224, 164}}},
	Cover:  {{Colour{186, 156, 118}, Colour{104, 78, 50}, Colour{220, 196, 162}}, {Colour{212, 178, 134}, Colour{116, 86, 54}, Colour{244, 226, 192}}},
	Steel:  {{Colour{152, 163, 170}, Colour{74, 86, 93}, Colour{232, 238, 241}}, {Colour{170, 182, 189}, Colour{74, 86, 93}, Colour{246, 250, 252}}},
	Wood:   {{Colour{46, 90, 56}, Colour{24, 52, 32}, Colour{98, 156, 110}}, {Colour{46, 90, 56}, Colour{24, 52, 32}, Colour{112, 172, 124}}},
	Rubber: {{Colour{122, 60, 88}, Colour{66, 26, 46}, Colour{184, 116, 148}}, {Colour{150, 72, 108}, Colour{66, 26, 46}, Colour{214, 140, 174}}},
}

func (s *Strand) paint() paint {
	rest, moving := tones[s.Tone][0], tones[s.Tone][1]
	return paint{rest.base.mix(moving.base, s.Bright), rest.dark.mix(moving.dark, s.Bright), rest.light.mix(moving.light, s.Bright)}
}

// on is a place in strand coordinates: s units along, t across as a share of the edge.
type on struct{ s, t float64 }

// texture is what is drawn on a strand: light patches, dark dividing lines and fine lines of
// combing.
type texture struct{ light, dark, fine [][]on }

// look is how a material is drawn.
type look struct {
	period float64 // of the texture, widths of the strand
	widest float64 // width beyond which the period grows no more; 0 for none
	gap    float64 // of paper, where it passes over something, units
	hairy  bool
	edge   func(phase, side float64) float64 // share of the half width
	// draw gives the texture of a stretch; a bare one has its dividing lines only.
	draw func(c *curve, from, to float64, bare bool) texture
}

var looks = [...]look{
	Plaited:  {period: 1, widest: 64, gap: 1.7, edge: notched(0.5, 0.84, 0.18, 0.7), draw: chain},
	Combed:   {period: 1, gap: 1.7, edge: smooth, draw: combing},
	Twisted:  {period: 0.82, widest: 64, gap: 1.7, edge: notched(0.9, 0.84, 0.18, 0.8), draw: rope},
	Locked:   {period: 0.34, widest: 36, gap: 1.7, edge: bumpy, draw: rings},
	Coiled:   {period: 0.5, gap: 1.7, edge: notched(0.9, 0.72, 0.3, 0.8), draw: rope},
	Curly:    {period: 1.1, gap: 1.7, edge: notched(0.8, 0.6, 0.44, 0.8), draw: rope},
	Wrapping: {period: 0.3, gap: 0.8, hairy: true, edge: frayed, draw: combing},
	Elastic:  {period: 1, gap: 1.2, edge: smooth, draw: shine},
	Metal:    {period: 1, gap: 1.7, edge: smooth, draw: shine},
	Grip:     {period: 1, gap: 1.7, edge: smooth, draw: shine},
}

func smooth(float64, float64) float64 { return 1 }

// notched is a silhouette with a notch wherever a strand goes under; on the left it comes
// later by off.
func notched(off, base, swell, sharp float64) func(phase, side float64) float64 {
	return func(phase, side float64) float64 {
		if side < 0 {
			phase -= off
		}
		return base + swell*math.Pow(math.Abs(math.Sin(math.Pi*phase)), sharp)
	}
}

func bumpy(phase, side float64) float64 {
	return 0.93 + 0.09*rough(phase, side) + 0.035*math.Abs(math.Sin(math.Pi*phase))
}

func frayed(phase, side float64) float64 { return 0.9 + 0.16*rough(2*phase, side+3) }

// seen are the periods of the texture from one distance to another, with some on both
// sides, whose lines may reach in.
func (c *curve) seen(from, to float64) (first, last int) {
	return int(math.Floor(c.within(from).phase+c.of.Shift)) - 3, int(math.Ceil(c.within(to).phase+c.of.Shift)) + 2
}

// across draws a line from one edge to the other over span periods, from phase k on; shape
// gives t.
func (c *curve) across(k, span, from, to float64, n int, side float64, shape func(u float64) float64) []on {
	line := make([]on, n+1)
	for i := range line {
		u := mix(from, to, float64(i)/float64(n))
		line[i] = on{c.whereIs(k + span*u - c.of.Shift), side * shape(u)}
	}
	return line
}

// lens is a patch round a line, thickest in its middle.
func lens(line []on, thick float64) []on {
	out := make([]on, 0, 2*len(line))
	for i, q := range line {
		out = append(out, on{q.s - thick*math.Sin(math.Pi*float64(i)/float64(len(line)-1)), q.t})
	}
	for i := len(line) - 1; i >= 0; i-- {
		out = append(out, on{2*line[i].s - out[i].s, line[i].t})
	}
	return out
}

// chain is the texture of a plait: strands come in from the right and from the left in turn
// and run past the middle.
func chain(c *curve, from, to float64, bare bool) (x texture) {
	const reach = 1.40 // how far a strand runs across, half widths
	shape := func(u float64) float64 { return 1 - reach*(1-math.Cos(0.64*math.Pi*u))/(1-math.Cos(0.64*math.Pi)) }
	first, last := c.seen(from, to)
	for k := first; k <= last; k++ {
		for _, side := range []float64{1, -1} {
			at := float64(k)
			if side < 0 {
				at += 0.5
			}
			half := c.within(c.whereIs(at - c.of.Shift)).half
			line := func(off, a, b float64, n int) []on { return c.across(at+off, 0.94, a, b, n, side, shape) }
			if x.dark = append(x.dark, line(0, 0, 1, 9)); bare {
				continue
			}
			x.light = append(x.light, lens(line(0.46, 0.16, 0.66, 7), 0.2*half))
			x.fine = append(x.fine, line(0.24, 0.05, 0.8, 6), line(0.72, 0.05, 0.55, 6))
		}
	}
	return x
}

// rope is the texture of two strands twisted.
func rope(c *curve, from, to float64, bare bool) (x texture) {
	shape := func(u float64) float64 { return math.Cos(math.Pi * u) }
	first, last := c.seen(from, to)
	for k := first; k <= last; k++ {
		at := float64(k)
		half := c.within(c.whereIs(at - c.of.Shift)).half
		line := func(off, a, b float64, n int) []on { return c.across(at+off, 0.9, a, b, n, 1, shape) }
		if x.dark = append(x.dark, line(0, 0, 1, 12)); bare {
			continue
		}
		x.light = append(x.light, lens(line(0.48, 0.26, 0.66, 8), 0.2*half))
		x.fine = append(x.fine, line(0.25, 0.1, 0.9, 10), line(0.74, 0.1, 0.9, 10))
	}
	return x
}

// rings is the texture of a loc: hair wound round, no turn like the other.
func rings(c *curve, from, to float64, bare bool) (x texture) {
	first, last := c.seen(from, to)
	for k := first; k <= last; k++ {
		half := math.Min(20, c.within(c.whereIs(float64(k)-c.of.Shift)).half)
		left, right := -0.98+0.5*noise(k, 1), 0.98-0.5*noise(k, 2)
		if k%2 == 0 {
			left = -1
		} else {
			right = 1
		}
		arc := func(off, a, b float64, n int, slant float64) []on {
			line := make([]on, n+1)
			for i := range line {
				t := mix(a, b, float64(i)/float64(n))
				line[i] = on{c.whereIs(float64(k)+off-c.of.Shift) + half*(0.34*(1-t*t)+slant*t), t}
			}
			return line
		}
		x.dark = append(x.dark, arc(0, left, right, 8, 0.12*(noise(k, 7)-0.5)))
		if bare {
			continue
		}
		x.light = append(x.light, lens(arc(0.5, -0.72, 0.05+0.3*noise(k, 4), 6, 0), 0.15*half))
	}
	return x
}

// combing is the texture of loose hair.
func combing(c *curve, from, to float64, bare bool) (x texture) {
	if bare {
		return x
	}
	const step = 7.0
	first, last := max(-1, step*math.Floor(from/step)-1), min(c.length+1, to+step)
	for i, t := range []float64{-0.66, -0.34, -0.02, 0.3, 0.62} {
		var line []on
		for s := first; s <= last; s += step {
			line = append(line, on{s, t + 0.07*math.Sin(s/17+2*float64(i))})
		}
		x.fine = append(x.fine, line)
	}
	var up, down []on
	for s := first + 3; s <= min(last, c.length-2); s += step {
		t := 0.14 + 0.06*math.Sin(s/15)
		up, down = append(up, on{s, t + 0.12}), append(down, on{s, t - 0.12})
	}
	x.light = band(up, down)
	return x
}

// shine is the light on something smooth.
func shine(c *curve, _, _ float64, bare bool) (x texture) {
	if bare {
		return x
	}
	in := math.Min(3, c.length/4)
	var up, down []on
	for s := in; s <= c.length-in; s += 4 {
		up, down = append(up, on{s, 0.5}), append(down, on{s, 0.12})
	}
	x.light = band(up, down)
	return x
}

// band is a patch between two lines.
func band(up, down []on) [][]on {
	if len(up) < 2 {
		return nil
	}
	for i := len(down) - 1; i >= 0; i-- {
		up = append(up, down[i])
	}
	return [][]on{up}
}

// hairs stand off the edge of rough hair.
func (c *curve) hairs(from, to float64) (lines [][]on) {
	for k := int(c.within(from).phase); k < int(c.within(to).phase)+2; k++ {
		for _, side := range []float64{1, -1} {
			s := c.whereIs(float64(k) + noise(k, side))
			half := c.within(s).half
			lines = append(lines, []on{{s, 0.9 * side}, {s + 0.35*half, side * (1.12 + 0.1*noise(k, 2*side))}, {s + 0.9*half, side * (1.25 + 0.35*noise(k, 5+side))}})
		}
	}
	return lines
}
