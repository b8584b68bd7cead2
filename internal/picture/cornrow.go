package picture

import (
	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/parting"
	"kladotex/core/scalp"
)

// Sizes of a drawn cornrow, mm, and shares of its band and of itself: as the screen draws it.
const (
	thinnestPlait, thickestPlait = 3.2, 15.0
	ofBand                       = 0.42
	startShare, tailShare        = 0.35, 0.25
	mergeShare                   = 0.75
	growth, ending               = 2.5, 3.0 // widths over which it grows and ends
	combEvery                    = 5.0      // between strokes of hair combed into it
)

// plaited is a plait that lies on the scalp: its way, half its width where it is whole, the share of it
// that is left at its end, and half the scalp whose hair it takes up; 0 where none is combed in.
type plaited struct {
	line      scalp.Line
	half, end float64
	band      float64
}

// flatPlait is a cornrow as it is drawn: as wide as its band makes it; one that several run
// together into a third wider than the widest of them.
func flatPlait(t *parting.Cornrow, all []parting.Cornrow) plaited {
	width, end, widest := t.Width, tailShare, 0.0
	for i := range all {
		if f := &all[i]; f.Merged && f.Into == t.ID {
			widest = max(widest, f.Width)
		}
	}
	if widest > 0 {
		width = 1.3 * widest
	}
	if t.Merged && t.Into != "" {
		end = mergeShare
	}
	p := plaited{line: t.Line, half: min(thickestPlait, max(thinnestPlait, ofBand*width)) / 2, end: end}
	if len(t.Outlines) > 0 && !t.Merged {
		p.band = t.Width / 2
	}
	return p
}

// partLines are the stretches of a band's outline at which a part line shows: all of it, but for what lies
// between cornrows that have run together.
func partLines(t *parting.Cornrow, all []parting.Cornrow, outline scalp.Line) []scalp.Line {
	if !t.Merged || t.Into == "" || len(t.Line) < 2 {
		return []scalp.Line{append(outline[:len(outline):len(outline)], outline[0])}
	}
	end := vec(t.Line[len(t.Line)-1])
	on := r3.Sub(end, vec(t.Line[len(t.Line)-2]))
	gone := func(p scalp.Point) bool { // beyond where it ends, beside another that ends there too
		if r3.Dot(r3.Sub(vec(p), end), on) < 0 {
			return false
		}
		for i := range all {
			other := &all[i]
			if other.ID == t.ID || other.Into != t.Into || !other.Merged {
				continue
			}
			for _, ring := range other.Outlines {
				for _, q := range ring {
					if scalp.Apart(p, q) < 0.5 {
						return true
					}
				}
			}
		}
		return false
	}
	var out []scalp.Line
	var open scalp.Line
	for i := range len(outline) + 1 {
		p := outline[i%len(outline)]
		if gone(p) {
			if len(open) > 1 {
				out = append(out, open)
			}
			open = nil
			continue
		}
		open = append(open, p)
	}
	if len(open) > 1 {
		out = append(out, open)
	}
	return out
}

// laidBack is a small plait under a net, from its root back towards the nape.
func (c Camera) laidBack(root scalp.Point) plaited {
	const long, steps = 30.0, 4
	n := c.normal(vec(root))
	back := r3.Vec{X: -0.6, Z: -1}
	back = r3.Unit(r3.Sub(back, r3.Scale(r3.Dot(back, n), n)))
	line := make(scalp.Line, steps+1)
	for k := range line {
		p := c.onHead(r3.Add(vec(root), r3.Scale(long*float64(k)/steps, back)))
		line[k] = scalp.Point{p.X, p.Y, p.Z}
	}
	return plaited{line: line, half: 2.8, end: tailShare}
}

// linked is a plait from its root to that of the one it is laid into.
func (c Camera) linked(from, to scalp.Point, half float64) plaited {
	const steps = 3
	line := make(scalp.Line, steps+1)
	for k := range line {
		p := c.onHead(r3.Add(vec(from), r3.Scale(float64(k)/steps, r3.Sub(vec(to), vec(from)))))
		line[k] = scalp.Point{p.X, p.Y, p.Z}
	}
	return plaited{line: line, half: half, end: mergeShare}
}

// onHead is the point of the scalp in the direction of one near it.
func (c Camera) onHead(p r3.Vec) r3.Vec { return r3.Scale(1/r3.Norm(c.divide(p)), p) }

// segment is the outline of one of the segments of a plait of three: along it in pitches, outward in half
// widths. It leaves the middle as a tip, swells to the edge and folds back under the next.
var segment = [][2]float64{{0.62, -0.06}, {0.42, 0.36}, {0.22, 0.72}, {0.04, 0.93}, {-0.16, 1.01}, {-0.36, 0.98}, {-0.52, 0.86}, {-0.6, 0.66}, {-0.5, 0.42}, {-0.22, 0.18}, {0.2, 0.02}}

// plait draws a plait on the scalp: hair combed into it, its dark bed, and one segment left and one right
// in turn.
func (c Camera) plait(p plaited, hair func(r3.Vec) Tone) []Shape {
	var combed, bed, segments []Shape
	whole := 0.0
	for i := 1; i < len(p.line); i++ {
		whole += r3.Norm(r3.Sub(vec(p.line[i]), vec(p.line[i-1])))
	}
	pitch := 1.5 * p.half
	next, comb, gone, side := pitch/4, combEvery/2, 0.0, 1.0
	for i := 1; i < len(p.line); i++ {
		from, to := vec(p.line[i-1]), vec(p.line[i])
		long := r3.Norm(r3.Sub(to, from))
		if long == 0 {
			continue
		}
		along := r3.Scale(1/long, r3.Sub(to, from))
		half := func(mm float64) float64 {
			grown := min(1, startShare+(1-startShare)*mm/(2*p.half*growth))
			return p.half * min(grown, p.end+(1-p.end)*(whole-mm)/(2*p.half*ending))
		}
		if c.facing(from) > 0.16 && c.facing(to) > 0.16 { // nearer to the rim it would bulge
			bed = append(bed, Shape{Outline: strip(c.flat(from), c.flat(to), half(gone)), Fill: rootTone}, Shape{Outline: disc(c.flat(to), half(gone)), Fill: rootTone})
		}
		frame := func(mm float64) (at, n, left r3.Vec) {
			at = c.onHead(r3.Add(from, r3.Scale(mm-gone, along)))
			n = c.normal(at)
			return at, n, r3.Cross(n, along)
		}
		for ; next < gone+long; next += pitch / 2 {
			side = -side
			at, n, left := frame(next)
			if c.facing(at) < 0.08 {
				continue
			}
			h := half(next)
			ring := make([]Point, len(segment))
			for k, s := range segment {
				lift := h * (0.08 + 0.42*(1-s[1]*s[1]))
				ring[k] = c.flat(r3.Add(r3.Add(at, r3.Scale(lift, n)), r3.Add(r3.Scale(s[0]*pitch, along), r3.Scale(side*s[1]*h, left))))
			}
			segments = append(segments, Shape{ring, hair(r3.Unit(r3.Add(n, r3.Scale(0.45*side, left)))).lighter(14), rootTone, 0.25})
		}
		for ; p.band > p.half+3 && comb < gone+long; comb += combEvery {
			at, _, left := frame(comb)
			if c.facing(at) < 0.15 || whole-comb < 0.8*p.band {
				continue
			}
			for _, side := range []float64{1, -1} {
				out := r3.Add(at, r3.Scale(side*(p.band-1.5), left))
				in := r3.Add(at, r3.Add(r3.Scale(side*0.8*p.half, left), r3.Scale(0.7*p.band, along)))
				combed = append(combed, Shape{Outline: strip(c.flat(out), c.flat(in), 0.2), Fill: hair(c.normal(at)).lighter(26)})
			}
		}
		gone += long
	}
	return append(append(combed, bed...), segments...)
}

// lighter is the tone some steps of 255 lighter.
func (t Tone) lighter(by int) Tone {
	for i := range t {
		t[i] = min(255, t[i]+by)
	}
	return t
}
