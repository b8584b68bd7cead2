// Package moves draws the moves of the attachment methods: what goes under, over and
// through, frame by frame. The crossings are common practice, no source; each frame states
// its own, and they are read back from the drawing.
//
// The hook comes from side A, drawn on the right; B is the far side of the plait.
package moves

import (
	"maps"
	"math"
	"slices"
	"strconv"
	"strings"
	"sync"

	"kladotex/core/method/figure"
)

// ID names a drawn move.
type ID string

// Clip is a part of a drawn move: its frames from First to Last, counted from 0 over the
// frames that stand still. Where Last comes before First it is shown backward.
type Clip struct {
	Figure ID  `json:"figure"`
	First  int `json:"first"`
	Last   int `json:"last"`
}

// all builds every figure once.
var all = sync.OnceValue(func() map[ID]figure.Figure {
	out := map[ID]figure.Figure{}
	for _, family := range []map[ID]func() figure.Figure{hitches, weaves, wraps, twists, braids, bases} {
		for id, build := range family {
			out[id] = build()
		}
	}
	return out
})

// Lookup finds a drawn move.
func Lookup(id ID) (figure.Figure, bool) {
	f, ok := all()[id]
	return f, ok
}

// IDs are the drawn moves, in alphabetical order.
func IDs() []ID { return slices.Sorted(maps.Keys(all())) }

type (
	strand = figure.Strand
	point  = figure.Point
	xy     = figure.XY
	frame  = figure.Frame
	state  = figure.State
)

func pt(x, y, z, w float64) point { return point{X: x, Y: y, Z: z, W: w} }

func at(x, y float64) xy { return xy{X: x, Y: y} }

// holds are statements such as "loop under plait 2": a strand, how it lies, another strand,
// and how often; without a number at least once.
func holds(list ...string) []state {
	out := make([]state, len(list))
	for i, text := range list {
		words := strings.Fields(text)
		out[i] = state{A: words[0], Is: figure.Relation(words[1]), B: words[2], Times: figure.Some}
		if len(words) > 3 {
			n, err := strconv.Atoi(words[3])
			if err != nil {
				panic("moves: " + text)
			}
			out[i].Times = n
		}
	}
	return out
}

// line is a centre line from groups of x, y, z and width.
func line(v ...float64) []point {
	out := make([]point, len(v)/4)
	for i := range out {
		out[i] = pt(v[4*i], v[4*i+1], v[4*i+2], v[4*i+3])
	}
	return out
}

// way is an arrow from pairs of x and y.
func way(v ...float64) []xy {
	out := make([]xy, len(v)/2)
	for i := range out {
		out[i] = at(v[2*i], v[2*i+1])
	}
	return out
}

func arrows(list ...[]xy) [][]xy { return list }

// with joins single strands and groups of them.
func with(groups ...[]strand) (out []strand) {
	for _, g := range groups {
		out = append(out, g...)
	}
	return out
}

// hair is a strand of some material; it grows out of what holds it and ends as told.
func hair(name string, of figure.Material, tone figure.Tone, bright float64, end figure.End, pts []point) []strand {
	return []strand{{Name: name, Of: of, Tone: tone, Line: pts, Bright: bright, Shown: 1, Ends: [2]figure.End{figure.Open, end}}}
}

// own is own hair that comes out of the scalp.
func own(name string, of figure.Material, bright float64, end figure.End, pts []point) []strand {
	return hair(name, of, figure.Own, bright, end, pts)
}

// free is a strand with two ends of its own.
func free(name string, of figure.Material, tone figure.Tone, bright float64, end figure.End, pts []point) []strand {
	s := hair(name, of, tone, bright, end, pts)
	s[0].Ends[0] = end
	return s
}

// snug marks strands that lie tight on each other.
func snug(strands []strand) []strand {
	for i := range strands {
		strands[i].Snug = true
	}
	return strands
}

// looped is a piece with its loop: the loop runs from neck to neck, the body grows out of it.
func looped(of figure.Material, bright float64, loop, body []point) []strand {
	out := with(free("loop", figure.Twisted, figure.Piece, bright, figure.Round, loop), free("piece", of, figure.Piece, bright, figure.Round, body))
	return out
}

// hook is the hook with its point at a place, pushed along a direction: shaft, latch and
// handle. The point is curled to the side (1 for the right of its way, -1) and lies lift
// above the shaft, so that what is caught passes over the shaft and under the point. Open
// is 1 for the latch laid back, 0 for shut; dive is how much nearer the handle is.
type hook struct {
	at     xy
	toward xy // any length
	long   float64
	z      float64
	dive   float64
	side   float64
	open   float64
	lift   float64
	bright float64
}

// strands of the hook. The handle begins where the shaft is long.
func (h hook) strands() []strand {
	l := math.Hypot(h.toward.X, h.toward.Y)
	dx, dy := h.toward.X/l, h.toward.Y/l
	bent := func(back, aside, z, w float64) point {
		return pt(h.at.X-dx*back-dy*aside*h.side, h.at.Y-dy*back+dx*aside*h.side, h.z+z+h.dive*back/h.long, w)
	}
	shaft := free("hook", figure.Metal, figure.Steel, h.bright, figure.Round, []point{
		bent(h.long, 0, 0, 9), bent(h.long*0.6+20, 0, 0, 9), bent(64, 0, 0, 9), bent(34, 0, 0, 8), bent(14, -1, 0, 7.5),
		bent(3, 3, 2, 7), bent(0, 11, h.lift*0.6, 6.5), bent(6, 18, h.lift, 6), bent(18, 19, h.lift, 5),
	})
	shaft[0].Ends[0] = figure.Open
	turn := func(shutBack, shutAside, openBack, openAside float64) (back, aside float64) {
		return shutBack + (openBack-shutBack)*h.open, shutAside + (openAside-shutAside)*h.open
	}
	b1, a1 := turn(32, 8, 52, 13)
	b2, a2 := turn(18, 17, 63, 27)
	latch := free("latch", figure.Metal, figure.Steel, h.bright, figure.Round, []point{bent(43, 1, h.lift*0.5, 5), bent(b1, a1, h.lift*0.8, 6), bent(b2, a2, h.lift+1, 7.5)})
	handle := free("handle", figure.Grip, figure.Wood, h.bright, figure.Round, []point{bent(h.long+110, 0, 0, 24), bent(h.long+80, 0, 0, 24), bent(h.long+20, 0, 0, 22), bent(h.long, 0, 0, 15)})
	return with(handle, shaft, latch)
}

// layered moves the points of strands in a part of the stage to one depth and all others
// to another; they keep what they differ by themselves.
func layered(s []strand, n int, in func(p point) bool, there, elsewhere float64) []strand {
	for i := range s {
		pts := figure.Along(s[i].Line, n)
		for k, p := range pts {
			if in(p) {
				pts[k].Z += there
			} else {
				pts[k].Z += elsewhere
			}
		}
		s[i].Line = pts
	}
	return s
}

// helix winds round a straight line that hangs from y0 to y1: n points, turns in all,
// starting at an angle (0 is the right, a quarter is the front).
func helix(n int, x, y0, y1, radius, start, turns, w0, w1 float64) []point {
	out := make([]point, n)
	for i := range out {
		u := float64(i) / float64(n-1)
		sin, cos := math.Sincos(start + 2*math.Pi*turns*u)
		out[i] = pt(x+radius*cos, y0+(y1-y0)*u, 1.3*radius*sin, w0+(w1-w0)*u)
	}
	return out
}

// braid gives the ways of three strands, a third of a turn apart: x = sin t, z = -sin 2t, so
// that the outer one comes over the middle, right and left in turn; under it where depth is
// below zero. The strands start on the left, in the middle and on the right.
func braid(n int, x, y0, y1, half, depth, turns, w0, w1 float64) (out [3][]point) {
	for s, start := range []float64{-math.Pi * 5 / 6, -math.Pi / 6, math.Pi / 2} {
		for i := range n {
			u := float64(i) / float64(n-1)
			t := start + 2*math.Pi*turns*u
			out[s] = append(out[s], pt(x+half*math.Sin(t), y0+(y1-y0)*u, -depth*math.Sin(2*t), w0+(w1-w0)*u))
		}
	}
	return out
}

// shareAt is how much of the length of a line that hangs lies above a height.
func shareAt(hanging []point, y float64) float64 {
	const n = 600
	pts := figure.Along(hanging, n)
	i := n - 1
	for i > 0 && pts[i-1].Y > y {
		i--
	}
	return float64(i) / (n - 1)
}

func reversed(pts []point) []point {
	out := slices.Clone(pts)
	slices.Reverse(out)
	return out
}

// along spaces points evenly on the curve through groups of x, y, z and width.
func along(n int, v ...float64) []point { return figure.Along(line(v...), n) }
