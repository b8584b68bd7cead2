package method

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

// The moves of every method in the order in which practitioners make them, by words that
// stand for each, and those of its takedown. Common practice, no source.
var practice = map[ID]struct{ on, off []string }{
	HitchAndWeave: {
		[]string{"under the root of the plait", "stays shut", "through its own loop", "up through the middle of the piece", "Repeat every", "Roll the piece"},
		[]string{"draw it out pass by pass", "Cut the piece below the mark", "open the loop"},
	},
	HitchAndZigzag: {
		[]string{"under the root of the plait", "through its own loop", "from one side", "from the other side", "no gaps"},
		[]string{"Trim the braid below the mark", "Unravel it upward", "Open the loop"},
	},
	HiddenKnot: {
		[]string{"find its middle", "two legs on the other", "part a thin strand off that leg", "through the fold 2 times", "fall over the knot"},
		[]string{"cut the fold", "Draw the strand out"},
	},
	SplitRoot: {
		[]string{"the small strand", "down to its root", "Halve the large strand", "three strands", "up through the middle of the piece"},
		[]string{"Draw the plait out of the piece", "Undo the plait", "Cut the piece below the mark"},
	},
	TrackHitch: {
		[]string{"Start low at the back", "under the whole track", "through its own loop", "Hook the next one"},
		[]string{"back through it", "Draw the piece out", "Undo tails"},
	},
	Stations: {
		[]string{"At the tip", "At the body", "At the root, last", "covers the knot below"},
		[]string{"cut its loop", "Undo the knot at the tip"},
	},
	SharedLoop: {
		[]string{"under the root", "the plait and the body of the piece through the loop together", "Draw the plait up and the piece down", "Lay {length} of the wrapping hair down", "Wind its long side", "past the end of the plait", "back upward"},
		[]string{"loosen it backward", "clip the wrapping hair below the mark", "out of the shared loop"},
	},
	CollarAndWrap: {
		[]string{"like a collar", "catch the end of the plait and draw it back through", "hook it through the root", "Wind with even tension", "past the end of the plait"},
		[]string{"loosen it backward", "unwind it upward", "it stays whole"},
	},
	OpenCoil: {
		[]string{"through the loop together", "Open the coil a little", "twice round on the first spot", "twice round on one spot at each new start", "between the palms"},
		[]string{"Open the coil from below", "Nothing is cut"},
	},
	Banded: {
		[]string{"let it wait there", "through the loc's eye", "then back up", "Push the band up", "blunt end inside", "Wind it over plait and band"},
		[]string{"Wind the cover backward", "Clip the band", "it stays whole"},
	},
	BuiltOnHead: {
		[]string{"draw it half through", "across the row", "round base hair and plait together", "second strand under the last turns", "wind upward again"},
		[]string{"Cut below the mark", "Unwind"},
	},
	AnchorTwist: {
		[]string{"under the anchor turns", "draw it half through", "Undo the own twist", "one half to each leg", "round each other"},
		[]string{"Untwist", "Draw the bulk hair out"},
	},
	FoldAndTwist: {
		[]string{"under the root", "draw it half through", "Lay the plait along one leg", "one way and the two round each other the other way"},
		[]string{"Untwist", "Draw the bulk hair out"},
	},
	TwineAndLock: {
		[]string{"through the loop together", "in the piece's own direction", "through a small gap", "Keep it dry"},
		[]string{"Draw the tip out", "nothing is cut"},
	},
	OwnStrand: {
		[]string{"leave it unplaited", "the own hair is the third", "close to the scalp", "borrow a little", "after take-up", "hot water"},
		[]string{"Cut the braid below the mark", "Unbraid upward"},
	},
	WrappedThird: {
		[]string{"leave it unplaited", "one third, and two thirds", "wrap the third once round the rest", "Lay the own hair into one strand", "Nothing is borrowed", "hot water"},
		[]string{"Cut the braid below the mark", "unwrap the third"},
	},
}

func TestMovesComeInOrder(t *testing.T) {
	assert.Len(t, practice, len(Catalogue))
	inOrder := func(id ID, list []Step, words []string) {
		all := ""
		for _, s := range list {
			all += s.Text + "\n"
		}
		for _, w := range words {
			before, after, found := strings.Cut(all, w)
			if !assert.True(t, found, "%s: %q is missing, or comes too early, in\n%s%s", id, w, before, after) {
				return
			}
			all = after
		}
	}
	for _, m := range Catalogue {
		_, j := job(t, m.ID, 8*inch)
		if m.On(OnTrack) && !m.On(OnPlait) {
			j.Ground = OnTrack
		}
		r := Range{j, j, m.For(j), m.For(j)}
		inOrder(m.ID, m.Steps(r), practice[m.ID].on)
		off, mark := m.TakeDown(r)
		inOrder(m.ID, off, practice[m.ID].off)
		// What scalds, burns or pulls is said where it is done.
		told := fmt.Sprint(m.Steps(r))
		if strings.Contains(strings.ToLower(told), "hot water") {
			assert.Contains(t, told, "scald", m.ID)
			assert.Contains(t, told, "never over a child's back", m.ID)
		}
		if mark > 0 {
			assert.Greater(t, mark, j.Plait.Length(), m.ID)
		}
	}
}
