// Package figure draws the moves of hands in hair so that they can be followed, and read back.
//
// A strand is a centre line with a width and a depth along it. A frame is one still picture
// of several strands, a figure a few frames of the same strands and the way between them.
// What lies over and what under at a crossing comes from the depth alone, as in a knot
// diagram; so what a frame states about itself (the loop under the plait, the tail through
// the loop) can be read back from the very lines that are drawn, see [Frame.Check].
//
// The stage is [Width] by [Height] units, y downward, z towards the viewer. The hand that
// holds the hook works from the right; [Frame.Mirror] turns a frame over for the left hand.
package figure

import (
	"math"
	"slices"
)

// The size of the stage, units.
const (
	Width  = 360.0
	Height = 420.0
)

// Material is what a strand is made of: it gives the texture and the silhouette.
type Material int

// The materials.
const (
	Plaited  Material = iota // three strands, a chain of lenses
	Combed                   // loose hair, lines along
	Twisted                  // two strands, slanting lenses
	Locked                   // a loc: rings, bumpy
	Coiled                   // a hollow corkscrew
	Curly                    // a loose curl
	Wrapping                 // wrapping hair, rough at the edge
	Elastic                  // a band
	Metal                    // shaft and latch of the hook
	Grip                     // the hook's handle
)

// Tone is what a strand is, as far as its colour goes.
type Tone int

// The tones.
const (
	Own   Tone = iota // own hair
	Piece             // the piece that is put on
	Other             // a second piece, or hair added to the first
	Cover             // wrapping hair
	Steel
	Wood
	Rubber
)

// End is how a strand ends.
type End int

// The ends.
const (
	Round End = iota
	Open      // it goes on where it is not drawn
	Tip       // a tip of hair
)

// Point is a place on a centre line: Z is its depth towards the viewer and W the strand's
// full width there, units.
type Point struct{ X, Y, Z, W float64 }

// XY is a place on the stage.
type XY struct{ X, Y float64 }

// Strand is one thing with a centre line.
type Strand struct {
	Name string
	Of   Material
	Tone Tone
	Line []Point
	// Bright is 1 for the strand that moves, 0 at rest.
	Bright float64
	// Shown is 1 for a strand in sight, 0 for one that is not there.
	Shown float64
	Ends  [2]End
	// Tube is set for a hollow strand in which others may run.
	Tube *Tube
	// Shift moves the texture along the strand, in periods.
	Shift float64
	// Turned draws the strand as in a mirror: what is twisted one way is twisted the other way.
	Turned bool
	// Snug strands lie tight on their neighbours: no gap is left where they pass over.
	Snug bool
	// Bow is the part that others go through, as shares of the length; zero for all of it.
	Bow [2]float64
	// Way gives the line on the way to this frame, for u from 0 to 1; nil for the straight
	// way from the frame before.
	Way func(u float64) []Point
}

// Tube is the inside of a hollow strand, cut open so that one sees in.
type Tube struct {
	From, To float64 // the window, shares of the length
	Open     float64 // 0 shut to 1
	Mouths   []Mouth
}

// Mouth is a slit in the wall: where it is along the strand, as a share of its length,
// where across it, from -1 to 1, and half its length in units.
type Mouth struct{ At, Across, Half float64 }

// Lens shows the surroundings of At again, Scale times as large, in a circle round To.
type Lens struct {
	At, To        XY
	Scale, Radius float64
}

// Frame is one still picture.
type Frame struct {
	// Says is what it shows, in a short sentence.
	Says    string
	Strands []Strand
	// Arrows show the way a strand takes next, Dots where a finger presses.
	Arrows [][]XY
	Dots   []XY
	Lens   *Lens
	// Wrong is where a mistake is crossed out.
	Wrong *XY
	// States are what holds in it; [Frame.Check] reads them back.
	States []State
	// Via frames are only passed through on the way to the next one.
	Via bool
}

// Stage is what lies behind the strands.
type Stage int

// The stages.
const (
	Hanging Stage = iota // a strip of scalp on top, the hair hangs down
	Lying                // seen from above, the scalp all over
)

// Figure is a move: its frames in order. A strand is the same in all frames by its name.
type Figure struct {
	Title  string
	Stage  Stage
	Frames []Frame
}

// Stills are the frames that are shown standing still, as indices.
func (f Figure) Stills() (at []int) {
	for i, frame := range f.Frames {
		if !frame.Via {
			at = append(at, i)
		}
	}
	return at
}

func mix(a, b, u float64) float64 { return a + (b-a)*u }

// ease starts and stops a movement gently.
func ease(u float64) float64 { return u * u * (3 - 2*u) }

// At is the frame at time t: whole numbers are the frames themselves, between them their
// strands are on the way. A strand that only one of two frames has fades.
func (f Figure) At(t float64) Frame {
	last := len(f.Frames) - 1
	i := min(max(int(math.Floor(t)), 0), last)
	u := t - float64(i)
	if u <= 0 || i == last {
		return f.Frames[i]
	}
	a, b := f.Frames[i], f.Frames[i+1]
	if !a.Via && !b.Via { // a via frame is passed at full speed
		u = ease(u)
	}
	out := Frame{Says: b.Says}
	for _, s := range a.Strands {
		k := slices.IndexFunc(b.Strands, func(q Strand) bool { return q.Name == s.Name })
		if k < 0 {
			s.Shown *= 1 - u
			out.Strands = append(out.Strands, s)
			continue
		}
		out.Strands = append(out.Strands, between(s, b.Strands[k], u))
	}
	for _, q := range b.Strands {
		if !slices.ContainsFunc(a.Strands, func(s Strand) bool { return s.Name == q.Name }) {
			if q.Shown *= u; q.Way != nil {
				q.Line = q.Way(u)
			}
			out.Strands = append(out.Strands, q)
		}
	}
	return out
}

// between is a strand on its way from a to b.
func between(a, b Strand, u float64) Strand {
	out := b
	out.Shown, out.Bright = mix(a.Shown, b.Shown, u), mix(a.Bright, b.Bright, u)
	out.Bow = [2]float64{mix(a.Bow[0], b.Bow[0], u), mix(a.Bow[1], b.Bow[1], u)}
	if a.Tube != nil && b.Tube != nil {
		tube := *b.Tube
		tube.From, tube.To, tube.Open = mix(a.Tube.From, tube.From, u), mix(a.Tube.To, tube.To, u), mix(a.Tube.Open, tube.Open, u)
		out.Tube = &tube
	}
	if b.Way != nil {
		out.Line = b.Way(u)
		return out
	}
	p, q := a.Line, b.Line
	if len(p) != len(q) {
		n := 2 * max(len(p), len(q))
		p, q = Along(p, n), Along(q, n)
	}
	out.Line = make([]Point, len(p))
	for i := range p {
		out.Line[i] = Point{mix(p[i].X, q[i].X, u), mix(p[i].Y, q[i].Y, u), mix(p[i].Z, q[i].Z, u), mix(p[i].W, q[i].W, u)}
	}
	return out
}

// Way are the frames on the way from one still to the one after it or before it, without
// the stills themselves: about n of them, and half as many more for each frame that is
// passed through.
func (f Figure) Way(from, to, n int) (out []Frame) {
	stills := f.Stills()
	a, b := stills[min(from, to)], stills[max(from, to)]
	n = n * (b - a + 1) / 2
	for k := 1; k < n; k++ {
		out = append(out, f.At(float64(a)+float64(b-a)*float64(k)/float64(n)))
	}
	if to < from {
		slices.Reverse(out)
	}
	return out
}

// Bare is the frame without tools and arrows: what comes off comes off by hand.
func (f Frame) Bare() Frame {
	f.Strands = slices.DeleteFunc(slices.Clone(f.Strands), func(s Strand) bool { return s.Of == Metal || s.Of == Grip })
	f.Arrows = nil
	return f
}

// Mirror turns a frame over for the left hand, the drawn twist with it: what is wound with a piece stays wound
// with it. Over, under, through and inside stay as they are.
func (f Frame) Mirror() Frame {
	f.Strands = slices.Clone(f.Strands)
	for i := range f.Strands {
		s := &f.Strands[i]
		s.Line = slices.Clone(s.Line)
		for k := range s.Line {
			s.Line[k].X = Width - s.Line[k].X
		}
		s.Way = nil
		s.Turned = !s.Turned
	}
	over := func(p XY) XY { return XY{Width - p.X, p.Y} }
	turn := func(list []XY) []XY {
		out := make([]XY, len(list))
		for i, p := range list {
			out[i] = over(p)
		}
		return out
	}
	f.Dots = turn(f.Dots)
	arrows := make([][]XY, len(f.Arrows))
	for i, a := range f.Arrows {
		arrows[i] = turn(a)
	}
	f.Arrows = arrows
	if f.Lens != nil {
		l := *f.Lens
		l.At, l.To = over(l.At), over(l.To)
		f.Lens = &l
	}
	if f.Wrong != nil {
		w := over(*f.Wrong)
		f.Wrong = &w
	}
	return f
}
