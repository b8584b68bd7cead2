package figure

import (
	"math"
	"slices"
)

// Shape is one path of a picture, back to front: outlines that are filled, or lines that
// are drawn. It is the same on the screen and on paper.
type Shape struct {
	Paths [][]XY
	// Fill is nil for lines, Line for areas.
	Fill, Line *Colour
	Width      float64
	Opacity    float64
	// Holes is true where an outline inside another is a hole.
	Holes bool
}

// Drawing is a frame drawn.
type Drawing struct {
	// Stage lies behind the strands, Front over all. The lens shows Stage and Strands again.
	Stage, Strands, Front []Shape
	// Lens is nil for none; Glass is its rim, its pane of paper, the ring round what it
	// shows, and the stem between them.
	Lens  *Lens
	Glass []Shape
}

const (
	outline = 1.9 // ink round every strand
	seam    = 0.35
)

type canvas struct {
	shapes []Shape
	gap    Colour
	quick  bool
}

// Draw draws a frame on its stage. A quick drawing, for a picture that is seen for a
// moment on the way, leaves out combing and light.
func Draw(f Frame, on Stage, quick bool) Drawing {
	sampling, off := fine, tolerance
	if quick {
		sampling, off = coarse, 3*tolerance
	}
	var curves []*curve
	for i := range f.Strands {
		s := &f.Strands[i]
		if s.Shown <= 0.02 {
			continue
		}
		c := newCurve(s, sampling)
		if s.Tube != nil {
			back := *c
			back.layer, c.layer = inside, skin
			curves = append(curves, &back)
		}
		curves = append(curves, c)
	}
	cv := &canvas{gap: backdrops[on].gap, quick: quick}
	for _, s := range ordered(curves) {
		cv.stretch(s)
	}
	for i := range cv.shapes {
		for k, p := range cv.shapes[i].Paths {
			cv.shapes[i].Paths[k] = simplified(p, off)
		}
	}
	out := Drawing{Stage: backdrops[on].draw(), Strands: cv.shapes, Lens: f.Lens}
	if f.Lens != nil {
		glass := &canvas{}
		glass.lens(*f.Lens)
		out.Glass = glass.shapes
	}
	front := &canvas{}
	for _, d := range f.Dots {
		front.dot(d)
	}
	for _, a := range f.Arrows {
		front.arrow(a)
	}
	if f.Wrong != nil {
		front.cross(*f.Wrong)
	}
	out.Front = front.shapes
	return out
}

func (cv *canvas) fill(c Colour, opacity float64, holes bool, paths ...[]XY) {
	paths = slices.DeleteFunc(paths, func(p []XY) bool { return len(p) < 3 })
	if len(paths) > 0 {
		cv.shapes = append(cv.shapes, Shape{Paths: paths, Fill: &c, Opacity: opacity, Holes: holes})
	}
}

func (cv *canvas) line(c Colour, width, opacity float64, paths ...[]XY) {
	if len(paths) > 0 {
		cv.shapes = append(cv.shapes, Shape{Paths: paths, Line: &c, Width: width, Opacity: opacity})
	}
}

// put turns strand coordinates into places on the stage.
func (c *curve) put(path []on) []XY {
	out := make([]XY, len(path))
	for i, q := range path {
		side := 1.0
		if q.t < 0 {
			side = -1
		}
		out[i] = c.xy(q.s, q.t*c.edge(q.s, side, 0))
	}
	return out
}

// patches are areas of a strand, cut to a stretch of it.
func (cv *canvas) patches(c *curve, areas [][]on, from, to float64, colour Colour, opacity float64) {
	var paths [][]XY
	for _, a := range areas {
		paths = append(paths, c.put(cutArea(a, from-seam, to+seam)))
	}
	cv.fill(colour, opacity, false, paths...)
}

// strokes are lines on a strand, cut to a stretch of it.
func (cv *canvas) strokes(c *curve, lines [][]on, from, to float64, colour Colour, width, opacity float64) {
	var paths [][]XY
	for _, l := range lines {
		for _, part := range cutLine(l, from, to) {
			paths = append(paths, c.put(part))
		}
	}
	cv.line(colour, width, opacity, paths...)
}

// ribbon is the outline of a stretch, grown by more on both sides and past true ends.
func (c *curve) ribbon(from, to, more float64) []XY {
	if from <= 1e-6 && c.of.Ends[0] != Open {
		from -= more
	}
	if to >= c.length-1e-6 && c.of.Ends[1] != Open {
		to += more
	}
	n := int(math.Max(2, math.Ceil((to-from)/(0.85*c.step))))
	out := make([]XY, 0, 2*n+2)
	for i := 0; i <= n; i++ {
		s := mix(from, to, float64(i)/float64(n))
		out = append(out, c.xy(s, c.edge(s, 1, more)))
	}
	for i := n; i >= 0; i-- {
		s := mix(from, to, float64(i)/float64(n))
		out = append(out, c.xy(s, -c.edge(s, -1, more)))
	}
	return out
}

// stretch paints a part of a strand: a gap of paper where it passes over something, its
// outline, its body and its texture.
func (cv *canvas) stretch(s stretch) {
	c, p := s.c, s.c.of.paint()
	start := len(cv.shapes)
	defer func() {
		for i := start; i < len(cv.shapes) && c.of.Shown < 1; i++ {
			cv.shapes[i].Opacity *= c.of.Shown
		}
	}()
	if c.layer == inside {
		cv.hollow(c, s.from, s.to, p)
		return
	}
	holes := c.holes()
	body := func(more, from, to float64, colour Colour) {
		paths := [][]XY{c.ribbon(from, to, more)}
		for _, h := range holes {
			if cut := cutArea(h, from, to); len(cut) > 2 {
				paths = append(paths, c.put(cut))
			}
		}
		cv.fill(colour, 1, len(paths) > 1, paths...)
	}
	if !c.of.Snug {
		for _, over := range s.over {
			body(outline+c.look.gap, over[0], over[1], cv.gap)
		}
	}
	body(outline, s.from, s.to, ink)
	if c.look.hairy && !cv.quick {
		cv.strokes(c, c.hairs(s.from-6, s.to+6), s.from, s.to, p.dark, 1.1, 1)
	}
	body(0, math.Max(0, s.from-seam), math.Min(c.length, s.to+seam), p.base)
	x := c.look.draw(c, s.from, s.to, cv.quick)
	if len(holes) > 0 {
		x.light = slices.DeleteFunc(x.light, func(a []on) bool { return slices.ContainsFunc(a, c.inHole) })
		x.dark, x.fine = c.outsideHoles(x.dark), c.outsideHoles(x.fine)
	}
	cv.patches(c, x.light, s.from, s.to, p.light, 0.9)
	cv.strokes(c, x.fine, s.from, s.to, p.dark, 0.7, 0.55)
	cv.strokes(c, x.dark, s.from, s.to, p.dark, 1.5, 1)
	if len(holes) == 0 {
		return
	}
	if c.of.Tube.Open > shut { // the skin throws a shade on what runs inside
		cv.strokes(c, [][]on{closed(c.window(2.6))}, s.from, s.to, ink, 5.5, 0.2)
	}
	for i := range holes {
		holes[i] = closed(holes[i])
	}
	cv.strokes(c, holes, s.from, s.to, ink, 2, 1)
}

func closed(p []on) []on { return append(slices.Clone(p), p[0]) }

func (cv *canvas) disc(at XY, r float64, colour Colour, opacity float64) {
	cv.fill(colour, opacity, false, circle(at, r))
}

func circle(at XY, r float64) []XY {
	out := make([]XY, 32)
	for i := range out {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / 32)
		out[i] = XY{at.X + r*cos, at.Y + r*sin}
	}
	return out
}

// dot is where a finger presses.
func (cv *canvas) dot(at XY) {
	const r = 9
	cv.disc(at, r+2.6, paper, 1)
	cv.disc(at, r+1, ink, 1)
	cv.disc(at, r-0.6, signal, 1)
	cv.disc(at, r*0.45, ink, 0.75)
}

func (cv *canvas) lens(l Lens) {
	small := l.Radius / l.Scale
	d := math.Hypot(l.To.X-l.At.X, l.To.Y-l.At.Y)
	ux, uy := (l.To.X-l.At.X)/d, (l.To.Y-l.At.Y)/d
	ring := circle(l.At, small)
	rim := [][]XY{append(ring, ring[0]), {{l.At.X + ux*small, l.At.Y + uy*small}, {l.To.X - ux*l.Radius, l.To.Y - uy*l.Radius}}}
	cv.line(paper, 3.4, 0.7, rim...)
	cv.line(ink, 1.6, 1, rim...)
	cv.disc(l.To, l.Radius+3, ink, 1)
	cv.disc(l.To, l.Radius, paper, 1)
}

// arrow is the way a strand takes.
func (cv *canvas) arrow(way []XY) {
	s := Strand{Ends: [2]End{Open, Open}}
	for _, p := range way {
		s.Line = append(s.Line, Point{p.X, p.Y, 0, 2})
	}
	c := newCurve(&s, fine)
	head := math.Min(17, c.length/2)
	neck := c.length - head
	body := func(more float64) []XY {
		var left, right []XY
		for s := -more; s <= neck+0.01; s += 3 {
			left, right = append(left, c.xy(s, 3+more)), append(right, c.xy(s, -3-more))
		}
		left = append(left, c.xy(neck-more, 3+more), c.xy(neck-more, 9.5+1.5*more))
		right = append(right, c.xy(neck-more, -3-more), c.xy(neck-more, -9.5-1.5*more))
		end := c.place(c.length)
		left = append(left, XY{end.x - end.ny*more*1.7, end.y + end.nx*more*1.7})
		slices.Reverse(right)
		return append(left, right...)
	}
	cv.fill(paper, 1, false, body(3.2))
	cv.fill(ink, 1, false, body(1.5))
	cv.fill(signal, 1, false, body(0))
}

// cross strikes a mistake out.
func (cv *canvas) cross(at XY) {
	const r = 62
	lines := [][]XY{{{at.X - r, at.Y - r}, {at.X + r, at.Y + r}}, {{at.X + r, at.Y - r}, {at.X - r, at.Y + r}}}
	cv.line(paper, 11, 0.85, lines...)
	cv.line(wrong, 6.5, 0.95, lines...)
}

// tolerance is how far a drawn path of a still may lie off the computed one, units.
const tolerance = 0.11

// simplified drops the points of a path that lie less than off from its way (Douglas and
// Peucker).
func simplified(p []XY, off float64) []XY {
	if len(p) < 4 {
		return p
	}
	keep := make([]bool, len(p))
	keep[0], keep[len(p)-1] = true, true
	var split func(a, b int)
	split = func(a, b int) {
		dx, dy := p[b].X-p[a].X, p[b].Y-p[a].Y
		long := max(dx*dx+dy*dy, 1e-12)
		worst, at := off, 0
		for i := a + 1; i < b; i++ {
			x, y := p[i].X-p[a].X, p[i].Y-p[a].Y
			u := min(max((x*dx+y*dy)/long, 0), 1) // where it turns back on itself the line ends
			d := math.Hypot(x-u*dx, y-u*dy)
			if d > worst {
				worst, at = d, i
			}
		}
		if at > 0 {
			keep[at] = true
			split(a, at)
			split(at, b)
		}
	}
	split(0, len(p)-1)
	out := make([]XY, 0, len(p))
	for i, k := range keep {
		if k {
			out = append(out, p[i])
		}
	}
	return out
}

// cutArea is the part of an area between two distances along a strand.
func cutArea(p []on, from, to float64) []on {
	half := func(p []on, in func(on) bool, at float64) (out []on) {
		for i := range p {
			u, v := p[i], p[(i+1)%len(p)]
			if in(u) {
				out = append(out, u)
			}
			if in(u) != in(v) {
				out = append(out, on{at, mix(u.t, v.t, (at-u.s)/(v.s-u.s))})
			}
		}
		return out
	}
	return half(half(p, func(q on) bool { return q.s >= from }, from), func(q on) bool { return q.s <= to }, to)
}

// cutLine are the parts of a line between two distances along a strand.
func cutLine(p []on, from, to float64) (out [][]on) {
	var part []on
	end := func() {
		if len(part) > 1 {
			out = append(out, part)
		}
		part = nil
	}
	for i := 0; i+1 < len(p); i++ {
		u, v := p[i], p[i+1]
		f, g := 0.0, 1.0
		if d := v.s - u.s; math.Abs(d) > 1e-9 {
			a, b := (from-u.s)/d, (to-u.s)/d
			f, g = max(f, min(a, b)), min(g, max(a, b))
		} else if u.s < from || u.s > to {
			g = -1
		}
		if f >= g {
			end()
			continue
		}
		at := func(f float64) on { return on{mix(u.s, v.s, f), mix(u.t, v.t, f)} }
		if part == nil {
			part = append(part, at(f))
		}
		part = append(part, at(g))
		if g < 1 {
			end()
		}
	}
	end()
	return out
}
