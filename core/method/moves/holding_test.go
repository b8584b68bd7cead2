package moves

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/method/figure"
	"kladotex/core/method/knot"
)

// What a piece is held by, as the polynomial of [knot.Held.Holds] tells it. Worked out apart from the drawings;
// a hitch, a ring and a ring that is knotted are not the same.
const (
	off      = "0"
	hitch    = "1 1 0 -1 -2 -1 0 1 1"
	hitched2 = "1 1 0 0 -1 -1 -1 -1 0 0 1 1" // twice through the loop
	ringed   = "1 1 0 -1 -1"
	ringed2  = "1 1 1 0 -1 -1 -1" // own hair twice through the loop
	knotted1 = "1 0 0 0 0 0 -1"   // a ring, and the plait knotted round it
)

// lineOf is the line of a strand as the check sees it, a hair's breadth aside of all others, and half its
// width where it is hollow.
func lineOf(s figure.Strand, nth float64) (line []knot.Point, wall []float64) {
	var middle, wide []knot.Point
	for _, p := range s.Line {
		x, y := p.X+0.013*nth, p.Y+0.007*nth
		middle, wide = append(middle, knot.Point{X: x, Y: y, Z: p.Z}), append(wide, knot.Point{X: x, Y: y, Z: p.W})
	}
	line = knot.Smooth(middle, 2)
	if s.Tube != nil {
		for _, p := range knot.Smooth(wide, 2) {
			half := 0.0
			if p.Z > 30 { // past the hitch
				half = p.Z / 2
			}
			wall = append(wall, half)
		}
	}
	return line, wall
}

// asHeld takes own hair, loop and body out of a frame. A loop named "strand" is a folded one: the part of it
// above where the body leaves it.
func asHeld(t *testing.T, f figure.Frame, own, loop, body string) knot.Held {
	t.Helper()
	find := func(name string) figure.Strand {
		i := slices.IndexFunc(f.Strands, func(s figure.Strand) bool { return s.Name == name })
		require.GreaterOrEqual(t, i, 0, name)
		return f.Strands[i]
	}
	h := knot.Held{}
	h.Own, _ = lineOf(find(own), 1)
	h.Loop, _ = lineOf(find(loop), 2)
	h.Body, h.Wall = lineOf(find(body), 3)
	if loop == "strand" {
		leaves := h.Body[0].Y
		h.Loop = slices.DeleteFunc(h.Loop, func(p knot.Point) bool { return p.Y > leaves })
	}
	return h
}

// Every frame of every hitch, ring and wind holds, or comes off, as it should. Common practice, no source:
// what lies over, under, in and through, and the classes that follow from it, were written down and worked out
// before they were drawn.
var holding = []struct {
	id              ID
	first, last     int
	own, loop, body string
	is              string
	// how often body and own hair go through the loop, and own hair inside the body
	through, ownThrough, inside int
}{
	{RootHitch, 0, 3, "plait", "loop", "piece", off, 0, 0, 0},
	{RootHitch, 4, 5, "plait", "loop", "piece", hitch, 1, 0, 0},
	{RootHitchBraid, 0, 3, "plait", "loop", "piece", off, 0, 0, 0},
	{RootHitchBraid, 4, 5, "plait", "loop", "piece", hitch, 1, 0, 0},
	{CornrowHitch, 0, 2, "cornrow", "loop", "piece", off, 0, 0, 0},
	{CornrowHitch, 3, 4, "cornrow", "loop", "piece", hitch, 1, 0, 0},
	{AcrossCornrow, 0, 0, "cornrow", "loop", "piece", hitch, 1, 0, 0}, // only its place is wrong
	{Weave, 0, 2, "plait", "loop", "piece", hitch, 1, 0, 0},
	{Weave, 3, 3, "plait", "loop", "piece", hitch, 1, 0, 1},
	{Weave, 4, 5, "plait", "loop", "piece", hitch, 1, 0, 3},
	{WeaveAside, 0, 0, "plait", "loop", "piece", hitch, 1, 0, 0},
	{Lace, 0, 1, "plait", "loop", "piece", hitch, 1, 0, 0},
	{Lace, 2, 3, "plait", "loop", "piece", hitch, 1, 0, 1},
	{Lace, 4, 5, "plait", "loop", "piece", hitch, 1, 0, 6},
	{LaceGap, 0, 0, "plait", "loop", "piece", hitch, 1, 0, 3},
	{LooseDraw, 0, 0, "hair", "loop", "piece", off, 0, 0, 0},
	{LooseDraw, 1, 1, "hair", "loop", "piece", ringed, 0, 1, 0},
	{LooseDraw, 2, 3, "hair", "loop", "piece", ringed2, 0, 2, 0},
	{HiddenKnot, 2, 2, "plait", "strand", "part", hitch, 1, 0, 0},
	{HiddenKnot, 3, 4, "plait", "strand", "part", hitched2, 2, 0, 0},
	{Lump, 0, 0, "plait", "strand", "part", hitched2, 2, 0, 0}, // only its thickness is wrong
	{SplitRoot, 0, 2, "small", "loop", "piece", off, 0, 0, 0},
	{SplitRoot, 3, 5, "small", "loop", "piece", ringed, 0, 1, 0},
	{SplitBand, 0, 1, "small", "loop", "piece", ringed, 0, 1, 0},
	{ThinStrand, 0, 0, "small", "loop", "piece", ringed, 0, 1, 0},
	{Stack, 2, 3, "plait", "body-fold", "body", hitch, 1, 0, 0},
	{Stack, 3, 3, "plait", "root-fold", "root", hitch, 1, 0, 0},
	{RootFirst, 0, 0, "plait", "root-fold", "root", hitch, 1, 0, 0},
	{SharedHitch, 0, 3, "plait", "loop", "piece", off, 0, 0, 0},
	{SharedHitch, 4, 5, "plait", "loop", "piece", ringed, 1, 1, 0},
	{SharedTwist, 0, 3, "plait", "loop", "piece", off, 0, 0, 0},
	{SharedTwist, 4, 5, "plait", "loop", "piece", ringed, 1, 1, 0},
	{SharedCoil, 0, 3, "plait", "loop", "piece", off, 0, 0, 0},
	{SharedCoil, 4, 5, "plait", "loop", "piece", ringed, 1, 1, 0},
	{Wind, 0, 4, "plait", "loop", "piece", ringed, 1, 1, 0},
	{WindFat, 0, 0, "plait", "loop", "piece", ringed, 1, 1, 0},
	{Coil, 0, 4, "plait", "loop", "coil", ringed, 1, 1, 0},
	{CoilWide, 0, 0, "plait", "loop", "coil", ringed, 1, 1, 0},
	{Twine, 0, 2, "twist", "loop", "piece", ringed, 1, 1, 0},
	{TwineAgainst, 0, 0, "twist", "loop", "piece", ringed, 1, 1, 0},
	{Collar, 0, 3, "plait", "loop", "piece", ringed, 0, 1, 0},
	{Collar, 4, 7, "plait", "loop", "piece", knotted1, 0, 1, 0},
	{CollarFat, 0, 0, "plait", "loop", "piece", knotted1, 0, 1, 0},
}

func size(n int) int { return max(n, -n) }

// pastNeck is the number of samples of a body that are its neck.
const pastNeck = 12

func TestEveryFrameHoldsAsItShould(t *testing.T) {
	for _, h := range holding {
		f := drawn(t, h.id)
		for i := h.first; i <= h.last; i++ {
			for hand, frame := range []figure.Frame{still(f, i), still(f, i).Mirror()} {
				name := fmt.Sprintf("%s %d, hand %d", h.id, i, hand)
				held := asHeld(t, frame, h.own, h.loop, h.body)
				assert.Equal(t, h.is, held.Holds().String(), name)
				assert.Equal(t, h.through, size(held.Through(pastNeck)), "%s: body through loop", name)
				assert.Equal(t, h.ownThrough, size(held.OwnThrough()), "%s: own hair through loop", name)
				assert.Equal(t, h.inside, held.Inside(), "%s: own hair inside the body", name)
			}
		}
	}
}

// Where two pictures are held alike, so is everything on the way from one to the other: no pass is lost
// between them, and none comes that nobody makes.
func TestWhatHoldsHoldsOnTheWay(t *testing.T) {
	for _, h := range holding {
		f := drawn(t, h.id)
		for i := h.first; i < h.last; i++ {
			for k, frame := range f.Way(i, i+1, 8) {
				held := asHeld(t, frame, h.own, h.loop, h.body)
				assert.Equal(t, h.is, held.Holds().String(), "%s %d to %d, %d on", h.id, i, i+1, k)
			}
		}
	}
}

// The next figure takes up what the last one left.
func TestFiguresJoin(t *testing.T) {
	of := func(id ID, i int) (is string) {
		for _, h := range holding {
			if h.id == id && h.first <= i && i <= h.last {
				is = fmt.Sprint(h.is, h.through, h.ownThrough)
			}
		}
		require.NotEmpty(t, is, "%s %d", id, i)
		return is
	}
	for _, j := range [][2]ID{{RootHitch, Weave}, {RootHitchBraid, Lace}, {SharedHitch, Wind}, {SharedCoil, Coil}, {SharedTwist, Twine}} {
		last := len(drawn(t, j[0]).Stills()) - 1
		assert.Equal(t, of(j[0], last), of(j[1], 0), "%s, then %s", j[0], j[1])
	}
}

// What a hand gets wrong, and what was once drawn wrong, is told from what is right.
func TestFaultsAreCaught(t *testing.T) {
	change := func(f figure.Frame, name string, how func([]point) []point) figure.Frame {
		f.Strands = slices.Clone(f.Strands)
		for i := range f.Strands {
			if f.Strands[i].Name == name {
				f.Strands[i].Line = how(slices.Clone(f.Strands[i].Line))
			}
		}
		return f
	}
	lifted := func(pts []point) []point {
		for i := range pts {
			pts[i].Z += 80
		}
		return pts
	}
	over := change(still(drawn(t, RootHitch), 5), "piece", lifted)
	assert.Equal(t, off, asHeld(t, over, "plait", "loop", "piece").Holds().String(), "the piece lies over its loop, not in it")
	ring := change(still(drawn(t, Wind), 0), "piece", lifted)
	assert.Zero(t, asHeld(t, ring, "plait", "loop", "piece").Through(pastNeck), "the piece beside the ring")
	open := change(still(drawn(t, Collar), 4), "plait", func([]point) []point { return slices.Clone(collarKnot[:11]) })
	assert.Equal(t, ringed, asHeld(t, open, "plait", "loop", "piece").Holds().String(), "the end drawn through, not tucked")
	once := change(still(drawn(t, LooseDraw), 2), "hair", func(pts []point) []point { return lifted(pts) })
	assert.Equal(t, off, asHeld(t, once, "hair", "loop", "piece").Holds().String(), "own hair in front of the loop")
	aside := change(still(drawn(t, Weave), 4), "plait", lifted)
	assert.Zero(t, asHeld(t, aside, "plait", "loop", "piece").Inside(), "the plait in front of the skin")
}

// The own hair goes from draw to draw as it was: over one leg of the loop and under the other, then back the
// other way. Twice round one leg would slip.
func TestLooseHairIsDrawnFromTheOtherSide(t *testing.T) {
	f := drawn(t, LooseDraw)
	word := func(i int) string {
		var out []string
		crossings := still(f, i).Crossings("hair", "loop")
		slices.SortFunc(crossings, func(a, b figure.Crossing) int { return int(1e6 * (a.S[0] - b.S[0])) })
		for _, c := range crossings {
			leg := 1
			if c.At.X > 230 {
				leg = 2
			}
			how := "under"
			if c.Upper() == "hair" {
				how = "over"
			}
			out = append(out, fmt.Sprint(how, " ", leg))
		}
		return strings.Join(out, ", ")
	}
	assert.Equal(t, "over 1, under 2", word(1))
	assert.Equal(t, "over 1, under 2, over 2, under 1", word(2))
}

// The tail at the tip of a stack goes through its own turn: it is knotted, as a plain strand is not.
func TestTheTipIsTied(t *testing.T) {
	ring := func(i int) []int64 {
		f := still(drawn(t, Stack), i)
		at := slices.IndexFunc(f.Strands, func(s figure.Strand) bool { return s.Name == "tail" })
		require.GreaterOrEqual(t, at, 0)
		tip, _ := lineOf(f.Strands[at], 1)
		return knot.Bracket(knot.Held{Own: tip}.Alone()).Steps()
	}
	plain := []int64{1, 1}
	for i := 1; i < 4; i++ {
		assert.NotEqual(t, plain, ring(i), "still %d", i)
	}
}
