package fall

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/craft"
	"kladotex/core/scalp"
)

// Slice is a horizontal ellipse of a body, mm in the head's axes: at height Z it goes from
// Back to Front along x and Width to either side along y.
type Slice struct{ Z, Front, Back, Width float64 }

// solid is a stack of slices from top to bottom, its sides interpolated.
type solid []Slice

// BodyLine is a line of the body by which lengths are named.
type BodyLine struct {
	Key   string  `json:"key" enum:"chin,shoulder,armpit,mid-back,waist,hip,thigh,knee,floor"`
	Name  string  `json:"name"`
	Share float64 `json:"share" doc:"Its height ÷ stature"`
}

// Lines are the body lines from the top.
var Lines = []BodyLine{
	{"chin", "chin", craft.ChinLine}, {"shoulder", "shoulder", craft.ShoulderLine}, {"armpit", "armpit", craft.ArmpitLine},
	{"mid-back", "mid-back", craft.MidBackLine}, {"waist", "waist", craft.WaistLine}, {"hip", "hip", craft.HipLine},
	{"thigh", "thigh", craft.ThighLine}, {"knee", "knee", craft.KneeLine}, {"floor", "floor", 0},
}

// reached is how far above a line an end may lie and still reach it, ÷ stature: 2 cm.
const reached = 0.012

// LineAt names the lowest line that an end at a share of stature reaches; "ear" above the
// chin.
func LineAt(share float64) string {
	name := "ear"
	for _, l := range Lines {
		if share <= l.Share+reached {
			name = l.Name
		}
	}
	return name
}

// LineOf is the line with a key.
func LineOf(key string) (BodyLine, bool) {
	i := slices.IndexFunc(Lines, func(l BodyLine) bool { return l.Key == key })
	if i < 0 {
		return BodyLine{}, false
	}
	return Lines[i], true
}

// trunk is the foot of the neck, the shoulders, the chest and the hips with hanging arms, as
// shares of stature, x from the middle of the head. By eye.
var trunk = []Slice{
	{0.856, 0.014, -0.044, 0.034},
	{0.846, 0.012, -0.053, 0.043},
	{0.837, 0.013, -0.060, 0.062},
	{0.828, 0.018, -0.065, 0.087},
	{0.818, 0.024, -0.069, 0.108},
	{0.805, 0.033, -0.073, 0.121},
	{0.785, 0.046, -0.076, 0.129},
	{0.750, 0.062, -0.078, 0.133},
	{0.715, 0.072, -0.075, 0.133},
	{0.680, 0.061, -0.069, 0.132},
	{0.630, 0.051, -0.061, 0.131},
	{0.580, 0.053, -0.066, 0.131},
	{0.530, 0.056, -0.078, 0.131},
	{0.400, 0.050, -0.070, 0.131},
}

// neck is the neck's upper half, in half head lengths and half breadths.
var neck = []Slice{{-0.35, 0.10, -0.78, 0.66}, {-0.8, 0.2, -0.68, 0.62}}

// Face is the face in half head lengths along x and z and half breadths along y, as the
// head map draws it.
var Face = []Slice{
	{0.16, 0.978, -0.2, 0.965}, {-0.02, 0.992, -0.2, 0.962}, {-0.16, 0.978, -0.2, 0.948}, {-0.29, 0.946, -0.19, 0.925},
	{-0.42, 0.942, -0.17, 0.893}, {-0.55, 0.948, -0.13, 0.85}, {-0.65, 0.95, -0.1, 0.805}, {-0.72, 0.972, -0.08, 0.77},
	{-0.775, 0.958, -0.06, 0.742}, {-0.83, 0.966, -0.05, 0.71}, {-0.9, 0.925, -0.01, 0.665}, {-0.98, 0.928, 0.04, 0.6},
	{-1.06, 0.918, 0.12, 0.52}, {-1.13, 0.872, 0.2, 0.42}, {-1.175, 0.79, 0.28, 0.32}, {-1.195, 0.7, 0.36, 0.22},
}

// averageHalf is half the length of the head that ears are measured on, mm.
const averageHalf = 108.0

// body is what hair falls over: head, face, ears, neck and trunk at a stature.
type body struct {
	head        scalp.Head
	stature     float64
	torso, face solid
	earMiddle   float64 // height, mm
}

func newBody(h scalp.Head, stature float64) body {
	b := body{head: h, stature: stature}
	for _, s := range neck {
		b.torso = append(b.torso, Slice{s.Z * h.A, s.Front * h.A, s.Back * h.A, s.Width * h.B})
	}
	for _, s := range trunk {
		b.torso = append(b.torso, Slice{b.height(s.Z), s.Front * stature, s.Back * stature, s.Width * stature})
	}
	// The shoulders of small people stand higher than the neck's second slice.
	slices.SortFunc(b.torso, func(p, q Slice) int { return compare(q.Z, p.Z) })
	for _, s := range Face {
		b.face = append(b.face, Slice{s.Z * h.A, s.Front * h.A, s.Back * h.A, s.Width * h.B})
	}
	b.earMiddle = h.Surface(h.Landmark(scalp.EarTop)).Z - 25*h.A/averageHalf
	return b
}

// height is the z of a share of stature, mm; the vertex is at 1.
func (b *body) height(share float64) float64 { return b.head.C - (1-share)*b.stature }

// share is the share of stature at a height.
func (b *body) share(z float64) float64 { return 1 - (b.head.C-z)/b.stature }

// outside is the gauge of a point that lies at no slice's height.
const outside = 2.0

// gauge is 1 on a solid grown by grow mm and less inside it, with its gradient.
func (s solid) gauge(p r3.Vec, grow float64) (float64, r3.Vec) {
	if p.Z > s[0].Z || p.Z < s[len(s)-1].Z {
		return outside, r3.Vec{}
	}
	i := 1
	for s[i].Z > p.Z {
		i++
	}
	hi, lo := s[i-1], s[i]
	dz := max(hi.Z-lo.Z, 1e-9)
	f := (hi.Z - p.Z) / dz
	front, back := hi.Front+f*(lo.Front-hi.Front), hi.Back+f*(lo.Back-hi.Back)
	wide := hi.Width + f*(lo.Width-hi.Width) + grow
	middle, half := (front+back)/2, (front-back)/2+grow
	x, y := (p.X-middle)/half, p.Y/wide
	g := math.Hypot(x, y)
	if g > 1.6 || g < 1e-9 {
		return g, r3.Vec{}
	}
	// How middle, half length and half width change with height.
	dMiddle := ((hi.Front + hi.Back) - (lo.Front + lo.Back)) / 2 / dz
	dHalf := ((hi.Front - hi.Back) - (lo.Front - lo.Back)) / 2 / dz
	dWide := (hi.Width - lo.Width) / dz
	return g, r3.Vec{X: x / half / g, Y: y / wide / g, Z: (-x*dMiddle/half - x*x*dHalf/half - y*y*dWide/wide) / g}
}

// touching is the gauge under which a point counts as inside.
const touching = 0.999

// clear moves a point out of a solid grown by grow mm, and says with what outward normal
// it touched. sideways is how freely it is moved along y: hair goes over the ridge of a
// shoulder to the front or the back rather than out along it.
func (s solid) clear(p r3.Vec, grow, sideways float64) (out, normal r3.Vec, touched bool) {
	for range 3 {
		g, d := s.gauge(p, grow)
		steep := r3.Norm2(d)
		if g >= touching || steep == 0 {
			break
		}
		normal, touched = r3.Scale(1/math.Sqrt(steep), d), true
		d.Y *= sideways
		steep = max(r3.Norm2(d), steep/9)
		p = r3.Add(p, r3.Scale(min((1-g)/steep, 25/math.Sqrt(steep)), d))
	}
	return p, normal, touched
}

// beside moves a point out of an ear, straight to the side, so that the order round the head
// is kept.
func (b *body) beside(p r3.Vec, grow float64) r3.Vec {
	size := b.head.A / averageHalf
	side := math.Copysign(1, p.Y)
	middle := r3.Vec{X: -5 * size, Y: side * b.head.B * 0.93, Z: b.earMiddle}
	rx, ry, rz := 17*size+grow, 15*size+grow, 32*size+grow
	q := r3.Sub(p, middle)
	x, y, z := q.X/rx, q.Y/ry, q.Z/rz
	if x*x+y*y+z*z >= 1 {
		return p
	}
	return r3.Vec{X: p.X, Y: middle.Y + side*ry*math.Sqrt(max(0, 1-x*x-z*z)), Z: p.Z}
}
