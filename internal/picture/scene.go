// Package picture draws parted heads on paper and in files: a scene of shapes, back to
// front, and scenes as SVG. Lengths are mm.
package picture

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/parting"
	"kladotex/core/scalp"
	"kladotex/core/tally"
)

// Point is a place on a picture, mm, y down.
type Point struct{ X, Y float64 }

// Tone is a colour, 0 to 255 each.
type Tone [3]int

// Shape is one filled polygon of a picture, in the order of painting.
type Shape struct {
	Outline []Point
	Fill    Tone
	// Edge is drawn round it in the given width, mm; 0 draws none.
	Edge  Tone
	Width float64
}

// Tones of a drawn head: those a new plan is drawn with.
var (
	skinTone  = Tone{169, 116, 79}
	neckTone  = Tone{148, 98, 63}
	scalpTone = Tone{211, 162, 124}
	rootTone  = Tone{28, 20, 17}
	// hookTone marks a piece hooked on a cornrow, looseTone own hair left out.
	hookTone  = Tone{236, 205, 150}
	looseTone = Tone{150, 112, 84}
	// threadTone is a net.
	threadTone = Tone{168, 140, 100}
	// hairDark and hairLight are the hair turned away from and towards the light.
	hairDark, hairLight = [3]float64{34, 24, 20}, [3]float64{104, 76, 58}
)

// Camera is an orthographic view of a head.
type Camera struct {
	axes                r3.Vec
	toViewer, right, up r3.Vec
	// rim separates what faces the viewer: a surface point p, divided by the
	// axes, is in sight when its product with rim is not negative. On an
	// ellipsoid that border is a plane.
	rim r3.Vec
}

// CameraAt looks at the head from a longitude and latitude, radians.
func CameraAt(axes scalp.Point, lon, lat float64) Camera {
	sin, cos := math.Sincos(lon)
	c := Camera{axes: vec(axes), toViewer: scalp.At(lon, lat), right: r3.Vec{X: -sin, Y: cos}}
	c.up = r3.Cross(c.toViewer, c.right)
	c.rim = r3.Unit(c.divide(c.toViewer))
	return c
}

func vec(p scalp.Point) r3.Vec { return r3.Vec{X: p[0], Y: p[1], Z: p[2]} }

func (c Camera) divide(p r3.Vec) r3.Vec {
	return r3.Vec{X: p.X / c.axes.X, Y: p.Y / c.axes.Y, Z: p.Z / c.axes.Z}
}

// Facing is 1 for a point of the scalp turned to the viewer, 0 on the rim.
func (c Camera) facing(p r3.Vec) float64 { return r3.Dot(c.divide(p), c.rim) }

func (c Camera) flat(p r3.Vec) Point { return Point{r3.Dot(p, c.right), -r3.Dot(p, c.up)} }

// See is where a point of the head lies on the picture, and how squarely it faces the viewer: 1
// in the middle, 0 on the rim, below it behind.
func (c Camera) See(p scalp.Point) (at Point, facing float64) {
	return c.flat(vec(p)), c.facing(vec(p))
}

func (c Camera) flatAll(ring []r3.Vec) []Point {
	out := make([]Point, len(ring))
	for i, p := range ring {
		out[i] = c.flat(p)
	}
	return out
}

// stretch is a part of an outline in sight, from where it comes over the rim to where it
// goes under, at these angles of the rim.
type stretch struct {
	points   []r3.Vec
	from, to float64
}

// rimStep is the angle between points drawn along the rim: about 6 mm.
const rimStep = 0.06

// Clip keeps the parts of a polygon in sight (Weiler and Atherton's way): where its
// outline goes out of sight, the part is bounded by the rim up to where the next
// stretch comes into sight. A straight line between the two would leave a wedge of the
// head bare.
func (c Camera) clip(outline scalp.Line) [][]r3.Vec {
	ring := make([]r3.Vec, len(outline))
	seen := make([]float64, len(outline))
	hidden := false
	for i, p := range outline {
		ring[i] = vec(p)
		seen[i] = c.facing(ring[i])
		hidden = hidden || seen[i] < 0
	}
	if !hidden {
		return [][]r3.Vec{ring}
	}
	if !counterClockwise(ring) {
		slices.Reverse(ring)
		slices.Reverse(seen)
	}
	n := len(ring)
	crossing := func(i, k int) r3.Vec {
		f := seen[i] / (seen[i] - seen[k])
		return r3.Add(r3.Scale(1-f, ring[i]), r3.Scale(f, ring[k]))
	}
	var stretches []stretch
	for i := range ring {
		next := (i + 1) % n
		if seen[i] >= 0 || seen[next] < 0 {
			continue // not where it comes into sight
		}
		s := stretch{points: []r3.Vec{crossing(i, next)}}
		k := next
		for ; seen[k] >= 0; k = (k + 1) % n {
			s.points = append(s.points, ring[k])
		}
		s.points = append(s.points, crossing((k+n-1)%n, k))
		s.from, s.to = c.rimAngle(s.points[0]), c.rimAngle(s.points[len(s.points)-1])
		stretches = append(stretches, s)
	}
	var out [][]r3.Vec
	used := make([]bool, len(stretches))
	for start := range stretches {
		var part []r3.Vec
		for at := start; !used[at]; {
			used[at] = true
			part = append(part, stretches[at].points...)
			to, next, gap := stretches[at].to, 0, math.Inf(1)
			for k, s := range stretches {
				if ahead := math.Mod(s.from-to+4*math.Pi, 2*math.Pi); ahead < gap {
					next, gap = k, ahead
				}
			}
			// All the way round is a rounding error of none at all.
			for step := rimStep; step < gap && gap < 0.9*2*math.Pi; step += rimStep {
				part = append(part, c.onRim(to+step))
			}
			at = next
		}
		if len(part) > 2 {
			out = append(out, part)
		}
	}
	return out
}

// counterClockwise tells whether a polygon of scalp runs so, seen from outside the head.
func counterClockwise(ring []r3.Vec) bool {
	var area, middle r3.Vec
	for i, p := range ring {
		area = r3.Add(area, r3.Cross(p, ring[(i+1)%len(ring)]))
		middle = r3.Add(middle, p)
	}
	return r3.Dot(area, middle) > 0
}

// onRim is the place of the rim at an angle; angles rise counter-clockwise as the viewer
// sees them.
func (c Camera) onRim(angle float64) r3.Vec {
	e1 := r3.Unit(r3.Cross(c.rim, r3.Vec{X: 0.3, Y: 0.5, Z: 0.81}))
	e2 := r3.Cross(c.rim, e1)
	sin, cos := math.Sincos(angle)
	u := r3.Add(r3.Scale(cos, e1), r3.Scale(sin, e2))
	return r3.Vec{X: u.X * c.axes.X, Y: u.Y * c.axes.Y, Z: u.Z * c.axes.Z}
}

// rimAngle is the angle of a place on the rim.
func (c Camera) rimAngle(p r3.Vec) float64 {
	e1 := r3.Unit(r3.Cross(c.rim, r3.Vec{X: 0.3, Y: 0.5, Z: 0.81}))
	e2 := r3.Cross(c.rim, e1)
	u := c.divide(p)
	return math.Atan2(r3.Dot(u, e2), r3.Dot(u, e1))
}

// outline is the head's rim as the viewer sees it.
func (c Camera) outline() []r3.Vec {
	ring := make([]r3.Vec, 72)
	for i := range ring {
		ring[i] = c.onRim(2 * math.Pi * float64(i) / float64(len(ring)))
	}
	return ring
}

// Scene is the parted head as the camera sees it.
func Scene(res tally.Result, c Camera) []Shape {
	shapes := c.bust(res)
	light := r3.Unit(r3.Add(r3.Scale(0.7, c.toViewer), r3.Add(r3.Scale(0.75, c.up), r3.Scale(-0.35, c.right))))
	var roots []Shape
	hair := func(normal r3.Vec) (fill Tone) {
		shade := math.Max(0, r3.Dot(normal, light))
		for i := range fill {
			fill[i] = int(hairDark[i] + shade*(hairLight[i]-hairDark[i]))
		}
		return fill
	}
	for _, s := range res.Layout.LeftOut { // own hair, left as it is
		for _, ring := range c.clip(s.Outline) {
			shapes = append(shapes, Shape{c.flatAll(ring), looseTone, scalpTone, 0.6})
		}
	}
	ground := func(line scalp.Line) (fill Tone) { // one tone for all of it, and no edge in its middle
		fill = hair(c.meanFacing(line))
		for i := range fill { // the plait on it is lighter
			fill[i] = int(0.55*float64(fill[i]) + 0.45*float64(rootTone[i]))
		}
		return fill
	}
	laid := func(outlines []scalp.Line, along scalp.Line, edge float64) {
		for _, outline := range outlines {
			for _, ring := range c.clip(outline) {
				shapes = append(shapes, Shape{c.flatAll(ring), ground(along), scalpTone, edge})
			}
		}
	}
	for _, t := range res.Layout.Cornrows {
		laid(t.Outlines, t.Line, 0)
	}
	for i := range res.Layout.Cornrows {
		t := &res.Layout.Cornrows[i]
		for _, outline := range t.Outlines {
			for _, line := range partLines(t, res.Layout.Cornrows, outline) {
				for k := 1; k < len(line); k++ {
					if from, to := vec(line[k-1]), vec(line[k]); c.facing(from) >= 0 && c.facing(to) >= 0 {
						shapes = append(shapes, Shape{Outline: strip(c.flat(from), c.flat(to), 0.9), Fill: scalpTone})
					}
				}
			}
		}
	}
	for _, n := range res.Layout.Nets {
		if len(n.Plaits) > 0 {
			laid(n.Outlines, n.Plaits, 0.8)
		}
	}
	for i := range res.Layout.Cornrows {
		t := &res.Layout.Cornrows[i]
		shapes = append(shapes, c.plait(flatPlait(t, res.Layout.Cornrows), hair)...)
		roots = append(roots, c.hooks(t.Hooks)...)
	}
	for _, n := range res.Layout.Nets {
		for _, root := range n.Plaits {
			shapes = append(shapes, c.plait(c.laidBack(root), hair)...)
		}
	}
	for _, n := range res.Layout.Nets {
		shapes = append(shapes, c.threads(n)...)
		roots = append(roots, c.hooks(n.Hooks)...)
	}
	places := make(map[string]scalp.Point, len(res.Layout.Sections))
	for _, s := range res.Layout.Sections {
		places[s.ID] = s.Centroid
	}
	for i, s := range res.Layout.Sections {
		rings := c.clip(s.Outline)
		for _, ring := range rings {
			shapes = append(shapes, Shape{c.flatAll(ring), hair(vec(s.Normal)), scalpTone, 2.2})
		}
		if len(rings) == 0 {
			continue
		}
		half := max(1.6, 0.45*res.Places[i].Plait.Diameter)
		if to, ok := places[s.Into]; ok {
			roots = append(roots, c.plait(c.linked(s.Centroid, to, half), hair)...)
		}
		if s.Laid {
			lying := c.laidBack(s.Centroid)
			lying.half = half
			roots = append(roots, c.plait(lying, hair)...)
		}
		if c.facing(vec(s.Centroid)) > 0.12 {
			roots = append(roots, Shape{Outline: disc(c.flat(vec(s.Centroid)), max(1.3, res.Places[i].Plait.Diameter/2)), Fill: rootTone})
		}
	}
	shapes = append(shapes, roots...)
	_, near := c.ears(res)
	return append(shapes, near...)
}

// meanFacing is the way a line on the scalp faces where it is in sight.
func (c Camera) meanFacing(line scalp.Line) r3.Vec {
	var seen, all r3.Vec
	for _, p := range line {
		n := c.normal(vec(p))
		all = r3.Add(all, n)
		if c.facing(vec(p)) > 0 {
			seen = r3.Add(seen, n)
		}
	}
	if r3.Norm(seen) == 0 {
		seen = all
	}
	return r3.Unit(seen)
}

// normal is the outward unit normal at a point of the scalp.
func (c Camera) normal(p r3.Vec) r3.Vec {
	return r3.Unit(r3.Vec{X: p.X / (c.axes.X * c.axes.X), Y: p.Y / (c.axes.Y * c.axes.Y), Z: p.Z / (c.axes.Z * c.axes.Z)})
}

// threads are those of a net, between places that lie next to each other. A net may have
// thousands: each looks only at those in the cubes of a lattice about it.
func (c Camera) threads(n parting.NetArea) []Shape {
	var shapes []Shape
	long := 1.4 * math.Sqrt(n.Area/float64(len(n.Hooks))*2/math.Sqrt(3))
	type cube [3]int
	cubeOf := func(p scalp.Point) (at cube) {
		for i, v := range p {
			at[i] = int(math.Floor(v / long))
		}
		return at
	}
	before := map[cube][]r3.Vec{}
	for _, p := range n.Hooks {
		a, at := vec(p), cubeOf(p)
		for i := range 27 {
			for _, b := range before[cube{at[0] + i%3 - 1, at[1] + i/3%3 - 1, at[2] + i/9 - 1}] {
				if r3.Norm2(r3.Sub(a, b)) < long*long && c.facing(a) > 0.05 && c.facing(b) > 0.05 {
					shapes = append(shapes, Shape{Outline: strip(c.flat(a), c.flat(b), 0.25), Fill: threadTone})
				}
			}
		}
		before[at] = append(before[at], a)
	}
	return shapes
}

// hooks are the dots where pieces are hooked on.
func (c Camera) hooks(places scalp.Line) []Shape {
	var shapes []Shape
	for _, p := range places {
		if c.facing(vec(p)) > 0.05 {
			shapes = append(shapes, Shape{Outline: disc(c.flat(vec(p)), 1.3), Fill: hookTone})
		}
	}
	return shapes
}

// strip is a straight band of a half width between two places.
func strip(a, b Point, half float64) []Point {
	long := max(1e-6, math.Hypot(b.X-a.X, b.Y-a.Y))
	x, y := -(b.Y-a.Y)/long*half, (b.X-a.X)/long*half
	return []Point{{a.X + x, a.Y + y}, {b.X + x, b.Y + y}, {b.X - x, b.Y - y}, {a.X - x, a.Y - y}}
}

// disc is a circle as a polygon.
func disc(at Point, r float64) []Point {
	out := make([]Point, 12)
	for i := range out {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / float64(len(out)))
		out[i] = Point{at.X + r*cos, at.Y + r*sin}
	}
	return out
}

// hull is the convex hull of points, in order (Andrew's monotone chain).
func hull(points []Point) []Point {
	sorted := slices.Clone(points)
	slices.SortFunc(sorted, func(p, q Point) int {
		return cmp.Or(cmp.Compare(p.X, q.X), cmp.Compare(p.Y, q.Y))
	})
	half := func() []Point {
		var out []Point
		for _, p := range sorted {
			for len(out) > 1 {
				a, b := out[len(out)-2], out[len(out)-1]
				if (b.X-a.X)*(p.Y-a.Y)-(b.Y-a.Y)*(p.X-a.X) > 0 {
					break
				}
				out = out[:len(out)-1]
			}
			out = append(out, p)
		}
		return out[:len(out)-1]
	}
	lower := half()
	slices.Reverse(sorted)
	return append(lower, half()...)
}
