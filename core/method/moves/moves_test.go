package moves

import (
	"flag"
	"fmt"
	"math"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/method/figure"
)

func drawn(t *testing.T, id ID) figure.Figure {
	t.Helper()
	f, ok := Lookup(id)
	require.True(t, ok, id)
	return f
}

// still is a frame that stands, counted as clips count.
func still(f figure.Figure, i int) figure.Frame { return f.Frames[f.Stills()[i]] }

// Frames in which no strand crosses another where it would tell something.
var silent = map[string]bool{
	"split-root 0": true, "stations 1": true, "own-strand 0": true, "wrapped-third 0": true,
	"twine 0": true, "link 0": true, "merge 0": true,
}

// Every crossing that a frame states is read back from its drawing, for either hand.
func TestEveryStatementIsReadBack(t *testing.T) {
	for _, id := range IDs() {
		f := drawn(t, id)
		for i := range f.Stills() {
			name, frame := fmt.Sprintf("%s %d", id, i), still(f, i)
			assert.Empty(t, frame.Check(), name)
			assert.Empty(t, frame.Mirror().Check(), "%s for the left hand", name)
			assert.Equal(t, silent[name], len(frame.States) == 0, "%s states what holds", name)
			assert.NotEmpty(t, frame.Says, name)
			for _, s := range frame.States {
				assert.NotEmpty(t, s.String(), name)
			}
		}
	}
}

// Each move makes the crossings that practitioners make. Common practice, no source: they
// stand here apart from the drawings, as the trade tells them.
func TestMovesAsTheTradeTellsThem(t *testing.T) {
	for _, told := range []struct {
		id    ID
		still int
		holds string
	}{
		// Hook: under from A to B, the bight laid in, the latch closed over it, drawn back.
		{RootHitch, 0, "hook under plait 1"},
		{RootHitch, 1, "loop over hook 1"},
		{RootHitch, 1, "loop under latch 1"},
		{RootHitch, 2, "loop under plait 2"},
		{RootHitch, 2, "hook under plait 0"},
		// Root hitch: two legs under the plait, the body over it, once through the bight.
		{RootHitch, 3, "piece over plait 1"},
		{RootHitch, 3, "piece through loop 0"},
		{RootHitch, 4, "piece through loop 1"},
		{RootHitch, 5, "piece through loop 1"},
		{RootHitch, 5, "loop under plait 2"},
		{RootHitchBraid, 5, "piece through loop 1"},
		{RootHitchBraid, 5, "loop under plait 2"},
		// Shared hitch: the free end of the plait and the body together.
		{SharedHitch, 2, "loop under plait 2"},
		{SharedHitch, 3, "plait through loop 0"},
		{SharedHitch, 4, "plait through loop 1"},
		{SharedHitch, 4, "piece through loop 1"},
		{SharedHitch, 5, "plait through loop 1"},
		{SharedHitch, 5, "piece through loop 1"},
		{SharedTwist, 5, "plait through loop 1"},
		{SharedTwist, 5, "piece through loop 1"},
		{SharedCoil, 5, "plait through loop 1"},
		{SharedCoil, 5, "piece through loop 1"},
		// Hidden knot: two legs at B, a thin part two or three times through the fold, the
		// other leg over the knot.
		{HiddenKnot, 1, "strand under plait 2"},
		{HiddenKnot, 2, "part through strand 1"},
		{HiddenKnot, 3, "part through strand 2"},
		{HiddenKnot, 4, "part through strand 2"},
		{HiddenKnot, 4, "strand over plait"},
		// Pass: the hook up inside, the plait laid in, inside between the two points.
		{Weave, 1, "hook inside piece 1"},
		{Weave, 2, "plait over hook 1"},
		{Weave, 2, "plait under latch 1"},
		{Weave, 3, "plait inside piece 1"},
		// Lace: in at one side, out at the other, the next from the other side.
		{Lace, 0, "hook inside piece 1"},
		{Lace, 2, "plait inside piece 1"},
		{Lace, 3, "hook inside piece 1"},
		{Lace, 4, "plait inside piece 6"},
		// Loose hair: through the bight, and once more on a large section.
		{LooseDraw, 0, "hook through loop 1"},
		{LooseDraw, 1, "hair through loop 1"},
		{LooseDraw, 2, "hair through loop 2"},
		{LooseDraw, 3, "hair through loop 2"},
		// Split root: the small strand through the bight, then plaited.
		{SplitRoot, 1, "hook through loop 1"},
		{SplitRoot, 2, "small over hook 1"},
		{SplitRoot, 3, "small through loop 1"},
		{SplitRoot, 5, "small through loop 1"},
		// Cornrow: under it, and a root hitch.
		{CornrowHitch, 0, "hook under cornrow 1"},
		{CornrowHitch, 2, "loop under cornrow 2"},
		{CornrowHitch, 3, "piece over cornrow 1"},
		{CornrowHitch, 4, "piece through loop 1"},
		{Net, 1, "hook under cornrow 1"},
		// Stack: over the tip, hitched at the body, then at the root.
		{Stack, 0, "tip over plait 1"},
		{Stack, 2, "body through body-fold 1"},
		{Stack, 3, "root through root-fold 1"},
		{Stack, 3, "root-fold under plait 2"},
		// Wind: over and under base and piece.
		{Wind, 2, "wrap over piece"},
		{Wind, 2, "wrap under plait"},
		// Collar: slid on, the end back under its own root, wrapping hair through the root.
		{Collar, 0, "plait through loop 1"},
		{Collar, 1, "hook under plait 1"},
		{Collar, 2, "plait under latch 1"},
		{Collar, 3, "plait over plait 1"},
		{Collar, 5, "wrap under plait"},
		{Collar, 7, "wrap over piece"},
		// Coil: closed round the plait, which goes through its loop.
		{Coil, 0, "plait through loop 1"},
		{Coil, 2, "coil over plait"},
		{Coil, 2, "coil under plait"},
		// Banded: through the eye, down and back up, the band over the end, the cover over it.
		{Banded, 0, "plait through loop 1"},
		{Banded, 1, "plait under piece"},
		{Banded, 2, "plait over plait"},
		{Banded, 3, "band over plait"},
		{Banded, 5, "wrap over band"},
		// Built on the head: base hair and wrapping hair half under the root.
		{Built, 0, "base under plait 1"},
		{Built, 1, "wrap under plait"},
		{Built, 2, "wrap over base"},
		{BuiltSoft, 4, "wrap over base"},
		// Twists: half under the anchor turns or the plait; a tip through a gap.
		{AnchorTwist, 1, "strand under anchor 1"},
		{AnchorTwist, 5, "strand under anchor 1"},
		{FoldTwist, 1, "strand under plait 1"},
		{FoldTwist, 5, "strand under plait 1"},
		{Twine, 1, "twist under piece"},
		{Twine, 3, "twist inside piece 1"},
		// Braids: own hair in the bundle; a third once round the rest.
		{OwnStrand, 1, "hair over bundle 1"},
		{OwnStrand, 3, "borrowed over bundle"},
		{WrappedThird, 1, "hair under two-thirds 1"},
		{WrappedThird, 2, "third over two-thirds 2"},
		{WrappedThird, 2, "third under two-thirds 2"},
		// A plait laid into the next one is one of its three strands, and so is a thin cornrow.
		{Link, 1, "first over upper"},
		{Merge, 1, "middle over upper"},
		// Hair fed in goes with a strand of the cornrow, over and under as that does.
		{FeedIn, 1, "bit-1 under lower"},
		{FeedIn, 1, "bit-1 over upper"},
		{FeedIn, 2, "bit-2 over lower"},
		// The outer strand over the middle one, or under it.
		{PlaitOver, 0, "right over middle"},
		{PlaitOver, 0, "left over right"},
		{PlaitUnder, 0, "middle over right"},
		{PlaitUnder, 0, "right over left"},
	} {
		f := still(drawn(t, told.id), told.still)
		f.States = holds(told.holds)
		assert.Empty(t, f.Check(), "%s %d", told.id, told.still)
	}
	// The mistakes do not make them.
	for id, missed := range map[ID]string{WeaveAside: "plait inside piece", RootFirst: "hook under plait"} {
		f := still(drawn(t, id), 0)
		f.States = holds(missed)
		assert.NotEmpty(t, f.Check(), id)
	}
}

// hitched are figures with a hitch: the loop, the body that goes through it, what it holds
// on, and the first and last still in which it holds.
var hitched = []struct {
	id                  ID
	loop, body, on      string
	open, through, last int
}{
	{RootHitch, "loop", "piece", "plait", 2, 4, 5},
	{RootHitchBraid, "loop", "piece", "plait", 2, 4, 5},
	{SharedHitch, "loop", "piece", "plait", 2, 4, 5},
	{SharedTwist, "loop", "piece", "plait", 2, 4, 5},
	{SharedCoil, "loop", "piece", "plait", 2, 4, 5},
	{CornrowHitch, "loop", "piece", "cornrow", 2, 3, 4},
}

// A hitch holds: its noose is linked with what it sits on, and the body goes through the
// loop, once; so it cannot fall off. Drawn backward it comes off.
func TestHitchesHoldAndComeOff(t *testing.T) {
	for _, h := range hitched {
		f := drawn(t, h.id)
		for i := h.through; i <= h.last; i++ {
			for _, frame := range []figure.Frame{still(f, i), still(f, i).Mirror()} {
				noose, lock := frame.Hitch(h.loop, h.body, h.on)
				assert.Equal(t, 1, max(lock, -lock), "%s %d: through its loop", h.id, i)
				if h.on == "plait" && f.Stage == figure.Hanging && !strings.HasPrefix(string(h.id), "shared") {
					assert.InDelta(t, 1, math.Abs(noose[0]), 0.02, "%s %d: linked", h.id, i)
					assert.InDelta(t, 1, math.Abs(noose[1]), 0.02, "%s %d: linked", h.id, i)
				}
			}
		}
		// Once through, it stays through all the way to the tight hitch.
		for i := h.through; i < h.last; i++ {
			for k, frame := range f.Way(i, i+1, 12) {
				assert.Equal(t, 1, frame.Count(h.body, figure.Through, h.loop), "%s %d, %d on", h.id, i, k)
			}
		}
		// Backward: the body is out of the loop, then the loop out from under what held it.
		_, lock := still(f, h.open).Bare().Hitch(h.loop, h.body, h.on)
		assert.Zero(t, lock, "%s: drawn back out of the loop", h.id)
		assert.Zero(t, still(f, 0).Bare().Count(h.loop, figure.Under, h.on), "%s: free", h.id)
	}
}

// A collar is linked with the plait it was slid on, from the first picture to the last, and
// so is the loop of a coil.
func TestCollarsAreLinked(t *testing.T) {
	for _, id := range []ID{Collar, Coil} {
		f := drawn(t, id)
		for i := range f.Stills() {
			assert.InDelta(t, 1, math.Abs(still(f, i).Linked("loop", "plait")), 0.02, "%s %d", id, i)
		}
	}
}

// What goes through or runs inside at both ends of a way does so all along it.
func TestNothingSlipsOutOnTheWay(t *testing.T) {
	for _, id := range IDs() {
		f := drawn(t, id)
		for i := 1; i < len(f.Stills()); i++ {
			a, b := still(f, i-1), still(f, i)
			for _, s := range b.States {
				if s.Is != figure.Through || !slices.Contains(a.States, s) {
					continue
				}
				for k, frame := range f.Way(i-1, i, 10) {
					assert.Equal(t, s.Times, frame.Count(s.A, s.Is, s.B), "%s to %d, %d on: %s", id, i, k, s)
				}
			}
		}
	}
}

// Drawn backward to its first picture, what was put on is off: nothing goes through what it
// went through, and nothing is wound round anything.
func TestDrawnBackwardItIsOff(t *testing.T) {
	for _, off := range []struct {
		id   ID
		a    string
		is   figure.Relation
		b    string
		when int // the still in which it held
	}{
		{RootHitch, "piece", figure.Through, "loop", 5},
		{RootHitch, "loop", figure.Under, "plait", 5},
		{RootHitchBraid, "piece", figure.Through, "loop", 5},
		{SharedHitch, "plait", figure.Through, "loop", 5},
		{SharedHitch, "loop", figure.Under, "plait", 5},
		{SharedTwist, "plait", figure.Through, "loop", 5},
		{SharedCoil, "piece", figure.Through, "loop", 5},
		{Weave, "plait", figure.Inside, "piece", 4},
		{Lace, "plait", figure.Inside, "piece", 4},
		{SplitRoot, "small", figure.Through, "loop", 5},
		{CornrowHitch, "piece", figure.Through, "loop", 4},
		{CornrowHitch, "loop", figure.Under, "cornrow", 4},
		{Stack, "root", figure.Through, "root-fold", 3},
		{Coil, "coil", figure.Under, "plait", 4},
		{Twine, "twist", figure.Inside, "piece", 3},
		{Banded, "plait", figure.Over, "plait", 3},
		{FoldTwist, "strand", figure.Under, "plait", 5},
		{AnchorTwist, "left half", figure.Over, "strand", 5},
	} {
		f := drawn(t, off.id)
		assert.Positive(t, still(f, off.when).Count(off.a, off.is, off.b), "%s: it held", off.id)
		bare := still(f, 0).Bare()
		switch off.id {
		case FoldTwist, AnchorTwist: // the strand's middle lay in the hook, beside the plait
			assert.Zero(t, bare.Count("strand", figure.Under, "plait")+bare.Count("strand", figure.Under, "anchor"), off.id)
		default:
			assert.Zero(t, bare.Count(off.a, off.is, off.b), "%s: it is off", off.id)
		}
	}
}

var update = flag.Bool("update", false, "write the readings anew")

// The drawings as they are read: every pair of strands that cross in a still, and how. A
// change of a drawing shows here, move by move.
func TestReadings(t *testing.T) {
	var b strings.Builder
	for _, id := range IDs() {
		f := drawn(t, id)
		fmt.Fprintf(&b, "%s: %s\n", id, f.Title)
		for i := range f.Stills() {
			frame := still(f, i)
			fmt.Fprintf(&b, "  %d %s\n", i, frame.Says)
			for k, p := range frame.Strands {
				for _, q := range frame.Strands[k:] {
					if over, under := frame.Count(p.Name, figure.Over, q.Name), frame.Count(p.Name, figure.Under, q.Name); over+under > 0 {
						fmt.Fprintf(&b, "    %s, %s: over %d, under %d\n", p.Name, q.Name, over, under)
					}
				}
			}
		}
	}
	const file = "testdata/readings.txt"
	if *update {
		require.NoError(t, os.WriteFile(file, []byte(b.String()), 0o644))
	}
	kept, err := os.ReadFile(file)
	require.NoError(t, err)
	assert.Equal(t, string(kept), b.String())
}

// Every drawing lies on its stage and can be painted; the way to it too.
func TestEveryPictureIsPainted(t *testing.T) {
	for _, id := range IDs() {
		f := drawn(t, id)
		for i := range f.Stills() {
			d := figure.Draw(still(f, i), f.Stage, false)
			assert.NotEmpty(t, d.Strands, "%s %d", id, i)
			for _, s := range slices.Concat(d.Strands, d.Front, d.Glass) {
				for _, path := range s.Paths {
					for _, p := range path {
						require.False(t, math.IsNaN(p.X+p.Y) || math.IsInf(p.X+p.Y, 0), "%s %d", id, i)
					}
				}
			}
			if l := d.Lens; l != nil {
				assert.Greater(t, l.Scale, 1.0, "%s %d", id, i)
				assert.True(t, l.To.X-l.Radius >= 0 && l.To.X+l.Radius <= figure.Width && l.To.Y+l.Radius <= figure.Height, "%s %d: the lens on the stage", id, i)
			}
		}
	}
}

func BenchmarkMotion(b *testing.B) {
	f, _ := Lookup(RootHitch)
	for b.Loop() {
		for _, frame := range f.Way(3, 4, 14) {
			figure.Draw(frame, f.Stage, true)
		}
	}
}
