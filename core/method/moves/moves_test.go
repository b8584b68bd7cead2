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
	"weave 0": true, "twine 0": true, "link 0": true, "merge 0": true,
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
		// bight under plait, two legs; body over plait; body through bight
		{RootHitch, 2, "loop under plait 2"}, {RootHitch, 3, "piece over plait 1"}, {RootHitch, 5, "piece through loop 1"},
		{RootHitchBraid, 5, "piece through loop 1"}, {RootHitchBraid, 5, "loop under plait 2"},
		// both go through the loop
		{SharedHitch, 5, "plait through loop 1"}, {SharedHitch, 5, "piece through loop 1"},
		{SharedTwist, 5, "plait through loop 1"}, {SharedCoil, 5, "plait through loop 1"},
		// a fold under the plait, the thin part through it two or three times
		{HiddenKnot, 1, "strand under plait 2"}, {HiddenKnot, 4, "part through strand 2"},
		// the plait inside the piece between two places; a lace from side to side
		{Weave, 3, "plait inside piece 1"}, {Lace, 4, "plait inside piece 6"},
		// own hair through the loop, and once more on a large section
		{LooseDraw, 1, "hair through loop 1"}, {LooseDraw, 3, "hair through loop 2"},
		{SplitRoot, 5, "small through loop 1"},
		{TrackHitch, 4, "loop under track 2"}, {TrackHitch, 4, "piece through loop 1"},
		{Stations, 3, "root through root-fold 1"}, {Stations, 3, "body through body-fold 1"},
		// a collar over the plait, the plait's end back under its own root
		{Collar, 0, "plait through loop 1"}, {Collar, 3, "plait over plait 1"}, {Collar, 5, "wrap under plait"},
		{Coil, 2, "coil over plait"}, {Coil, 2, "coil under plait"},
		{Banded, 3, "plait through loop 1"}, {Banded, 5, "wrap over band"},
		{Built, 0, "base under plait 1"}, {Built, 1, "wrap under plait"},
		{AnchorTwist, 5, "strand under anchor 1"}, {FoldTwist, 5, "strand under plait 1"},
		{Twine, 3, "twist inside piece 1"},
		{OwnStrand, 4, "borrowed over bundle"}, {WrappedThird, 2, "third under two-thirds 2"},
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
	{TrackHitch, "loop", "piece", "track", 2, 3, 4},
}

// A hitch holds: its noose is linked with what it sits on, and the body goes through the
// loop, once; so it can not fall off. Drawn backward it comes off.
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
