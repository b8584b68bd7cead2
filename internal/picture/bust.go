package picture

import (
	"cmp"
	_ "embed"
	"encoding/json"
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/tally"
)

// drawnBust is the rest of the head, for bearings only: a face, a nose, ears and a neck in
// proportion to the fitted skull. Drawn by eye; nothing is computed from it. The screen
// draws from the same file.
type drawnBust struct {
	// Face and Neck are slices: height, front and back extent in half head lengths, half
	// width in half breadths.
	Face [][4]float64 `json:"face"`
	Neck [][4]float64 `json:"neck"`
	// Nose are slices of it.
	Nose [][4]float64 `json:"nose"`
	// Ear is its outline: forward and up in mm from its middle, on an average head.
	Ear [][2]float64 `json:"ear"`
	// Paired are the brow and the eye of one side, Mouth the line of the lips: aside in
	// half breadths and up in half head lengths.
	Paired [][][2]float64 `json:"paired"`
	Mouth  [][2]float64   `json:"mouth"`
	// SkullFoot is how far down the skull is seen, in half heights: to the nape, where the
	// neck takes over.
	SkullFoot float64 `json:"skullFoot"`
}

//go:embed bust.json
var bustFile []byte

// drawn is read once, as the program starts.
var drawn = func() (b drawnBust) {
	if err := json.Unmarshal(bustFile, &b); err != nil {
		panic("picture: bust.json: " + err.Error())
	}
	return b
}()

// averageHalf is half the length of an average head, mm: that which ears are drawn for.
const averageHalf = 108

// turns are n points round an upright ellipse.
func turns(n int, middle r3.Vec, long, wide float64) []r3.Vec {
	ring := make([]r3.Vec, n)
	for i := range ring {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / float64(n))
		ring[i] = r3.Add(middle, r3.Vec{X: long * cos, Y: wide * sin})
	}
	return ring
}

// body is a part of the bust, seen as the hull of its points; middle tells how far
// in front it lies.
type body struct {
	shapes []Shape
	middle r3.Vec
}

// bust is the far ear, face, nose, neck and skull, what lies behind first.
func (c Camera) bust(res tally.Result) []Shape {
	a, b := c.axes.X, c.axes.Y
	// What is seen of slices: the hulls of neighbours, an edge round all of them.
	sliced := func(list [][4]float64, fill Tone) (shapes []Shape) {
		rings := make([][]Point, len(list))
		for i, s := range list {
			rings[i] = c.flatAll(turns(24, r3.Vec{X: a * (s[1] + s[2]) / 2, Z: a * s[0]}, a*(s[1]-s[2])/2, b*s[3]))
		}
		var fills []Shape
		for i := 2; i < len(rings); i++ {
			ring := hull(slices.Concat(rings[i-2], rings[i-1], rings[i]))
			shapes = append(shapes, Shape{ring, fill, neckTone, 0.4})
			fills = append(fills, Shape{Outline: ring, Fill: fill})
		}
		return append(shapes, fills...)
	}
	var skull []r3.Vec
	foot := drawn.SkullFoot
	for _, p := range c.outline() {
		if p.Z > foot*c.axes.Z {
			skull = append(skull, p)
		}
	}
	wide := math.Sqrt(1 - foot*foot)
	skull = append(skull, turns(36, r3.Vec{Z: foot * c.axes.Z}, a*wide, b*wide)...)
	bodies := []body{
		{sliced(smoothed(cutNeck()), neckTone), r3.Vec{X: -0.25 * a, Z: -1.1 * a}},
		{append(sliced(smoothed(drawn.Face), skinTone), c.features()...), r3.Vec{X: 0.4 * a, Z: -0.5 * a}},
		{sliced(smoothed(drawn.Nose), skinTone), r3.Vec{X: a, Z: -0.45 * a}},
		{[]Shape{{Outline: hull(c.flatAll(skull)), Fill: skinTone}}, r3.Vec{}},
	}
	slices.SortStableFunc(bodies, func(p, q body) int {
		return cmp.Compare(r3.Dot(p.middle, c.toViewer), r3.Dot(q.middle, c.toViewer))
	})
	far, _ := c.ears(res)
	for _, b := range bodies {
		far = append(far, b.shapes...)
	}
	return far
}

// between is how many slices are drawn for each that is told.
const between = 3

// smoothed are slices run together (Catmull and Rom's spline), so that no edge shows between them.
func smoothed(list [][4]float64) [][4]float64 {
	var out [][4]float64
	for i := range len(list) - 1 {
		before, p, q, after := list[max(0, i-1)], list[i], list[i+1], list[min(len(list)-1, i+2)]
		for n := range between {
			u := float64(n) / between
			var s [4]float64
			for k := range s {
				a, b, c, d := before[k], p[k], q[k], after[k]
				s[k] = b + 0.5*u*(c-a+u*(2*a-5*b+4*c-d+u*(3*(b-c)+d-a)))
			}
			out = append(out, s)
		}
	}
	return append(out, list[len(list)-1])
}

// neckFoot is where the neck ends on paper, where it cannot fade out, in half head
// lengths.
const neckFoot = -1.34

// cutNeck are the slices of the neck down to its foot.
func cutNeck() [][4]float64 {
	last := slices.IndexFunc(drawn.Neck, func(s [4]float64) bool { return s[0] < neckFoot })
	above, below := drawn.Neck[last-1], drawn.Neck[last]
	f := (above[0] - neckFoot) / (above[0] - below[0])
	var foot [4]float64
	for k := range foot {
		foot[k] = above[k] + f*(below[k]-above[k])
	}
	return append(slices.Clone(drawn.Neck[:last]), foot)
}

// onFace is a point of the face and its outward normal there.
func (c Camera) onFace(aside, up float64) (point, normal r3.Vec) {
	below := 1
	for below < len(drawn.Face)-1 && drawn.Face[below][0] >= up {
		below++
	}
	high, low := drawn.Face[below-1], drawn.Face[below]
	f := (high[0] - up) / (high[0] - low[0])
	mix := func(k int) float64 { return high[k] + f*(low[k]-high[k]) }
	middle, half, width := (mix(1)+mix(2))/2, (mix(1)-mix(2))/2, mix(3)
	cos := math.Sqrt(max(0, 1-aside*aside/(width*width)))
	return r3.Vec{X: c.axes.X * (middle + half*cos), Y: c.axes.Y * aside, Z: c.axes.X * up},
		r3.Unit(r3.Vec{X: cos / (c.axes.X * half), Y: aside / width / (c.axes.Y * width)})
}

// features are brows, eyes and mouth, fainter the more they turn away.
func (c Camera) features() []Shape {
	var shapes []Shape
	draw := func(line [][2]float64, mirror float64) {
		points := make([]Point, len(line))
		var middle r3.Vec
		for i, p := range line {
			at, normal := c.onFace(mirror*p[0], p[1])
			points[i] = c.flat(at)
			if i == len(line)/2 {
				middle = normal
			}
		}
		strength := clamp(2.2*r3.Dot(middle, c.toViewer)-0.15) * clamp(2.5-2.8*c.toViewer.Z)
		if strength == 0 {
			return
		}
		tone := skinTone.towards(neckTone, strength)
		for i := 1; i < len(points); i++ {
			shapes = append(shapes, Shape{Outline: strip(points[i-1], points[i], 1.1), Fill: tone})
			shapes = append(shapes, Shape{Outline: disc(points[i], 1.1), Fill: tone})
		}
	}
	for _, line := range drawn.Paired {
		draw(line, 1)
		draw(line, -1)
	}
	draw(drawn.Mouth, 1)
	return shapes
}

// ears are the ear turned away, behind everything, and the one on the viewer's side,
// before it. The back of an ear is a rim's thickness behind its front, and runs to where
// it grows from the head.
func (c Camera) ears(res tally.Result) (far, near []Shape) {
	top := vec(res.Head.Landmarks.EarTop)
	size := c.axes.X / averageHalf
	for _, side := range []float64{1, -1} {
		middle := r3.Vec{X: top.X - 5*size, Y: side * (top.Y*0.93 + 2), Z: top.Z - 25*size}
		leaf := func(k, flare float64) []r3.Vec {
			out := make([]r3.Vec, len(drawn.Ear))
			for i, p := range drawn.Ear {
				out[i] = r3.Add(middle, r3.Scale(size, r3.Vec{X: k * p[0], Y: side * flare * (13 - k*p[0]), Z: k * p[1]}))
			}
			return out
		}
		const flare = 0.48
		outward := r3.Unit(r3.Vec{X: 0.45, Y: side, Z: 0.1})
		back := leaf(1, flare)
		for _, p := range leaf(0.92, flare) {
			back = append(back, r3.Sub(p, r3.Scale(6*size, outward)))
		}
		for _, p := range leaf(0.5, 0) {
			back = append(back, r3.Vec{X: p.X + 5*size, Y: p.Y - side*8*size, Z: p.Z})
		}
		ear := []Shape{{rounded(hull(c.flatAll(back))), skinTone, neckTone, 1}}
		shown := r3.Dot(outward, c.toViewer)
		if shown <= 0 {
			far = append(far, ear...)
			continue
		}
		if shown > 0.15 { // its front, and the hollow in it
			ear = append(ear, Shape{rounded(c.flatAll(leaf(1, flare))), skinTone, neckTone, 0.8},
				Shape{Outline: rounded(c.flatAll(leaf(0.6, flare))), Fill: skinTone.towards(neckTone, 0.5*clamp(1.6*shown))})
		}
		near = append(near, ear...)
	}
	return far, near
}

// rounded is a smooth closed curve near the points: quadratic arcs between the middles of
// the sides.
func rounded(points []Point) []Point {
	const steps = 4
	middle := func(p, q Point) Point { return Point{(p.X + q.X) / 2, (p.Y + q.Y) / 2} }
	var out []Point
	for i, p := range points {
		from, to := middle(points[(i+len(points)-1)%len(points)], p), middle(p, points[(i+1)%len(points)])
		for k := range steps {
			t := float64(k) / steps
			a, b, c := (1-t)*(1-t), 2*t*(1-t), t*t
			out = append(out, Point{a*from.X + b*p.X + c*to.X, a*from.Y + b*p.Y + c*to.Y})
		}
	}
	return out
}

// towards is the tone a share of the way to another.
func (t Tone) towards(other Tone, share float64) Tone {
	for i := range t {
		t[i] += int(math.Round(share * float64(other[i]-t[i])))
	}
	return t
}

func clamp(v float64) float64 { return max(0, min(1, v)) }
