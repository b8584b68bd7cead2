package picture

import (
	"cmp"
	_ "embed"
	"encoding/json"
	"math"
	"slices"
	"strconv"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/hang"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/core/tally"
)

// dressed is the body under a drape in a plain shirt, as shares of stature. Drawn by eye; hair
// falls over the body that core/fall knows, arms and all. The screen draws from the same file.
var dressed = func() (f struct {
	// Neckline and Sleeve are the heights at which the shirt ends, Foot where the figure
	// does.
	Neckline float64 `json:"neckline"`
	Sleeve   float64 `json:"sleeve"`
	Foot     float64 `json:"foot"`
	// Trunk is half the width of the trunk without the arms; hair falls over the body that
	// core/fall knows, arms and all.
	Trunk float64 `json:"trunk"`
	// Arm is the middle line of a hanging arm: forward, aside and up, with its half width.
	Arm [][4]float64 `json:"arm"`
}) {
	if err := json.Unmarshal(bodyFile, &f); err != nil {
		panic("picture: body.json: " + err.Error())
	}
	return f
}()

//go:embed body.json
var bodyFile []byte

// Tones of the figure under a drape.
var (
	clothTone = Tone{214, 206, 194}
	clothEdge = Tone{176, 164, 148}
	// plainHair is what a piece without a swatch is drawn in.
	plainHair = Tone{74, 52, 38}
)

// drapeStep is the length of a stretch of a piece that is painted as one, mm.
const drapeStep = 22.0

// HairTones are the colours of a plan's pieces, by index.
func HairTones(in plan.Input) []Tone {
	out := make([]Tone, len(in.Pieces))
	for i, p := range in.Pieces {
		out[i] = plainHair
		if n, err := strconv.ParseUint(strings.TrimPrefix(p.Swatch, "#"), 16, 32); err == nil && len(p.Swatch) == 7 {
			out[i] = Tone{int(n >> 16), int(n >> 8 & 255), int(n & 255)}
		}
	}
	return out
}

// tube is a stretch of a piece on the picture.
type tube struct {
	shapes []Shape
	depth  float64
}

// mostDrawn is how many pieces are drawn on a picture: of more than that nobody could tell one from the next.
const mostDrawn = 150

// Draped is the head with its hair as the camera sees it, down to the hips; tones are those
// of the pieces by index. Of very many pieces every second, third … is drawn, and as much wider as it
// takes to look the same.
func Draped(res tally.Result, d hang.Drape, tones []Tone, c Camera) []Shape {
	f := newWearer(d, c)
	every := (len(d.Pieces) + mostDrawn - 1) / mostDrawn
	var behind, before []tube
	for i := 0; i < len(d.Pieces); i += every {
		p := d.Pieces[i]
		p.Thick *= math.Sqrt(float64(every))
		b, n := f.tubes(&p, tones[p.Piece], i, every == 1)
		behind, before = append(behind, b...), append(before, n...)
	}
	far := func(a, b tube) int { return cmp.Compare(a.depth, b.depth) }
	slices.SortStableFunc(behind, far)
	slices.SortStableFunc(before, far)
	var out []Shape
	for _, t := range behind {
		out = append(out, t.shapes...)
	}
	out = append(out, f.torso()...)
	out = append(out, Scene(res, c)...)
	for _, t := range before {
		out = append(out, t.shapes...)
	}
	return out
}

// wearer is what hair hangs before and behind.
type wearer struct {
	c       Camera
	d       *hang.Drape
	foot    float64 // z below which nothing is drawn
	light   r3.Vec
	stature float64
}

func newWearer(d hang.Drape, c Camera) *wearer {
	f := &wearer{c: c, d: &d, stature: d.Stature, foot: c.axes.Z - (1-dressed.Foot)*d.Stature}
	f.light = r3.Unit(r3.Add(r3.Scale(0.7, c.toViewer), r3.Add(r3.Scale(0.75, c.up), r3.Scale(-0.4, c.right))))
	return f
}

// torso is the neck, the trunk in a plain shirt, and the arms, what lies behind first.
func (f *wearer) torso() []Shape {
	var skin, cloth []Shape
	share := func(z float64) float64 { return 1 - (f.c.axes.Z-z)/f.stature }
	ring := func(s [4]float64) []Point {
		trunk := f.stature * (dressed.Trunk - 0.014*math.Sin(math.Pi*clamp((0.76-share(s[0]))/0.24)))
		k := clamp((0.8 - share(s[0])) / 0.06)
		wide := s[3] + k*k*(3-2*k)*(trunk-s[3])
		return f.c.flatAll(turns(40, r3.Vec{X: (s[1] + s[2]) / 2, Z: s[0]}, (s[1]-s[2])/2, wide))
	}
	for i := 1; i < len(f.d.Torso); i++ {
		a, b := f.d.Torso[i-1], f.d.Torso[i]
		if b[0] < f.foot { // cut off where nobody looks
			k := (a[0] - f.foot) / (a[0] - b[0])
			for n := range b {
				b[n] = a[n] + k*(b[n]-a[n])
			}
		}
		both := hull(append(ring(a), ring(b)...))
		if share(b[0]) >= dressed.Neckline-0.01 {
			skin = append(skin, Shape{Outline: both, Fill: neckTone, Edge: neckTone, Width: 0.3})
		} else {
			cloth = append(cloth, Shape{Outline: both, Fill: clothTone, Edge: clothTone, Width: 0.3})
		}
		if b[0] <= f.foot {
			break
		}
	}
	var behind, before []Shape
	for _, side := range []float64{1, -1} {
		if side*f.c.toViewer.Y > 0.3 {
			before = append(before, f.arm(side)...)
		} else {
			behind = append(behind, f.arm(side)...)
		}
	}
	return slices.Concat(behind, skin, cloth, before)
}

// arm hangs at a side.
func (f *wearer) arm(side float64) []Shape {
	var sleeved, bare []Shape
	arm := dressed.Arm
	for i := 1; i < len(arm); i++ {
		a, b := arm[i-1], arm[i]
		round := func(p [4]float64) []Point {
			return f.c.flatAll(turns(16, r3.Vec{X: p[0] * f.stature, Y: side * p[1] * f.stature, Z: f.c.axes.Z - (1-p[2])*f.stature}, p[3]*f.stature, p[3]*f.stature))
		}
		s := Shape{Outline: hull(append(round(a), round(b)...)), Fill: skinTone, Edge: neckTone, Width: 0.3}
		if b[2] >= dressed.Sleeve-0.03 {
			s.Fill, s.Edge = scaled(clothTone, 0.97), clothEdge
			sleeved = append(sleeved, s)
		} else {
			bare = append(bare, s)
		}
	}
	return append(bare, sleeved...)
}

// tubes are the stretches of a piece, those behind the figure apart; a piece that is fine has a light along it.
func (f *wearer) tubes(p *hang.DrapedPiece, tone Tone, index int, fine bool) (behind, before []tube) {
	line := f.even(p.Points)
	n := len(line)
	shade := 0.9 + 0.2*float64((index*7919)%97)/97 // no two alike
	for i := 0; i+1 < n; i += 2 {
		j := min(i+2, n-1)
		mid := line[(i+j)/2]
		if mid.Z < f.foot {
			break
		}
		out := r3.Vec{X: mid.X / f.c.axes.X / f.c.axes.X, Y: mid.Y / f.c.axes.Y / f.c.axes.Y, Z: max(0, mid.Z) / f.c.axes.Z / f.c.axes.Z}
		out = r3.Unit(out)
		lit := shade * (0.45 + 0.75*max(0, r3.Dot(out, f.light)))
		if r3.Dot(out, f.c.toViewer) < 0 {
			lit = shade * 0.34 // the inside of the curtain
		}
		wide := p.Thick * taper(float64(i)/float64(n))
		stretch := f.c.flatAll(line[max(0, i-1) : j+1])
		t := tube{depth: r3.Dot(mid, f.c.toViewer) + 0.4*p.Lift}
		t.shapes = []Shape{
			{Outline: ribbon(stretch, wide/2), Fill: scaled(tone, 0.55*lit)},
			{Outline: ribbon(stretch, 0.34*wide), Fill: scaled(tone, lit)},
		}
		if fine {
			t.shapes = append(t.shapes, Shape{Outline: ribbon(stretch, 0.1*wide), Fill: scaled(tone, 1.35*lit)})
		}
		if f.hidden(mid) {
			behind = append(behind, t)
		} else {
			before = append(before, t)
		}
	}
	return behind, before
}

// taper is how thick a piece is at a share of its length ÷ its thickness.
func taper(f float64) float64 {
	if f < 0.7 {
		return 1
	}
	return 1 - 0.45*(f-0.7)/0.3
}

func scaled(t Tone, by float64) (out Tone) {
	for k := range t {
		out[k] = max(0, min(255, int(float64(t[k])*by)))
	}
	return out
}

// even are places on a way at even steps, on a smooth curve through its points.
func (f *wearer) even(points scalp.Line) []r3.Vec {
	at := func(i int) r3.Vec { return vec(points[max(0, min(len(points)-1, i))]) }
	out := []r3.Vec{at(0)}
	for i := 0; i+1 < len(points); i++ {
		p0, p1, p2, p3 := at(i-1), at(i), at(i+1), at(i+2)
		n := max(1, int(math.Round(r3.Norm(r3.Sub(p2, p1))/(drapeStep/2))))
		for k := 1; k <= n; k++ {
			s := float64(k) / float64(n)
			// Catmull and Rom's curve.
			q := r3.Scale(2*s*s*s-3*s*s+1, p1)
			q = r3.Add(q, r3.Scale((s*s*s-2*s*s+s)/2, r3.Sub(p2, p0)))
			q = r3.Add(q, r3.Scale(-2*s*s*s+3*s*s, p2))
			q = r3.Add(q, r3.Scale((s*s*s-s*s)/2, r3.Sub(p3, p1)))
			out = append(out, q)
		}
	}
	return out
}

// ribbon is a line half mm wide to either side.
func ribbon(line []Point, half float64) []Point {
	left, right := make([]Point, 0, 2*len(line)), make([]Point, 0, len(line))
	for i, p := range line {
		a, b := line[max(0, i-1)], line[min(len(line)-1, i+1)]
		dx, dy := b.X-a.X, b.Y-a.Y
		l := max(1e-6, math.Hypot(dx, dy))
		left = append(left, Point{p.X - half*dy/l, p.Y + half*dx/l})
		right = append(right, Point{p.X + half*dy/l, p.Y - half*dx/l})
	}
	slices.Reverse(right)
	return append(left, right...)
}

// hidden tells whether head or body stand between a point and the viewer.
func (f *wearer) hidden(p r3.Vec) bool {
	v := f.c.toViewer
	d, w := r3.Scale(1/0.985, f.c.divide(p)), r3.Scale(1/0.985, f.c.divide(v))
	q, h := r3.Dot(w, w), r3.Dot(d, w)
	if root := h*h - q*(r3.Dot(d, d)-1); root > 0 && (math.Sqrt(root)-h)/q > 2 {
		return true
	}
	for t := 8.0; t < 340; t += 20 {
		at := r3.Add(p, r3.Scale(t, v))
		if inSlices(f.d.Torso, at) || inSlices(f.d.Face, at) {
			return true
		}
	}
	return false
}

// inSlices tells whether a point lies well inside a body of slices from the top.
func inSlices(slices [][4]float64, p r3.Vec) bool {
	if len(slices) == 0 || p.Z > slices[0][0] || p.Z < slices[len(slices)-1][0] {
		return false
	}
	i := 1
	for slices[i][0] > p.Z {
		i++
	}
	hi, lo := slices[i-1], slices[i]
	f := (hi[0] - p.Z) / max(1e-9, hi[0]-lo[0])
	at := func(k int) float64 { return hi[k] + f*(lo[k]-hi[k]) }
	const inside = 6.0
	x := (p.X - (at(1)+at(2))/2) / max(1, (at(1)-at(2))/2-inside)
	y := p.Y / max(1, at(3)-inside)
	return x*x+y*y < 1
}

// DrapedBox is the part of a picture's plane that a draped head takes at a stature: left, top,
// width and height, mm.
func DrapedBox(stature float64) (left, top, wide, high float64) {
	wide = 0.36 * stature
	return -wide / 2, -140, wide, 140 + (1-dressed.Foot)*stature - 80
}

// DrapedView is an SVG of the draped head seen from a longitude and a latitude, radians.
func DrapedView(res tally.Result, d hang.Drape, in plan.Input, lon, lat float64) []byte {
	left, top, wide, high := DrapedBox(d.Stature)
	box := strconv.FormatFloat(left, 'f', 0, 64) + " " + strconv.FormatFloat(top, 'f', 0, 64) + " " +
		strconv.FormatFloat(wide, 'f', 0, 64) + " " + strconv.FormatFloat(high, 'f', 0, 64)
	return svg(Draped(res, d, HairTones(in), CameraAt(res.Head.Axes, lon, lat)), box, "The hair as it hangs: a drawing")
}
