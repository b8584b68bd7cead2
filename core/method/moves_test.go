package method

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"kladotex/core/method/moves"
)

// The moves of every method in the order in which practitioners make them, by words that
// stand for each, and those of its takedown. Common practice, no source.
var practice = map[ID]struct{ on, off []string }{
	HitchAndWeave: {
		[]string{"under the root of the plait", "stays shut", "through its own loop", "up through its middle, and out right at the hitch", "come out where the plait came out last", "Roll the piece"},
		[]string{"Draw it out pass by pass", "Cut the piece below the mark", "open the loop"},
	},
	HitchAndZigzag: {
		[]string{"under the root of the plait", "through its own loop", "from one side", "from the other side", "no gaps"},
		[]string{"Trim the braid below the mark", "Unravel it upward", "Open the loop"},
	},
	HiddenKnot: {
		[]string{"find its middle", "two legs on the other", "part a thin strand off that leg", "through the fold 2 times", "fall over the knot"},
		[]string{"Lift the leg off the knot", "draw it out of the fold", "see both blades", "Draw the strand out"},
	},
	SplitRoot: {
		[]string{"the small strand", "down to its root", "Halve the large strand", "three strands", "up through its middle, and out right at the hitch"},
		[]string{"Draw it out pass by pass", "Undo the plait", "Cut the piece below the mark"},
	},
	CornrowHitch: {
		[]string{"Start low at the back", "under the whole cornrow", "through its own loop", "Hook the next one"},
		[]string{"back through it", "Draw the piece out", "Undo tails"},
	},
	Stack: {
		[]string{"At the tip", "as three strands", "through its own turn", "At the body", "Last, at the root", "covers the knot below"},
		[]string{"From the root down", "back out of its loop", "see both blades", "undo the knot"},
	},
	SharedLoop: {
		[]string{"under the root", "the plait and the body of the piece through the loop together", "Draw the plait up and the piece down", "Lay {length} of the wrapping hair down", "Wind its long side", "past the end of the plait", "back upward"},
		[]string{"loosen it backward", "past the plait's end", "Unwind upward", "out of the shared loop"},
	},
	CollarAndWrap: {
		[]string{"like a collar", "catch the plait's end and draw it back through", "over its own root", "down through the fold it made", "hook it through the root", "Wind evenly over plait and tail", "past the end of the plait"},
		[]string{"loosen it backward", "past the plait's end", "out of the fold", "Slide the piece off"},
	},
	OpenCoil: {
		[]string{"through the loop together", "Open the coil a little", "twice round where you begin", "twice round at each new start", "between the palms"},
		[]string{"Open the coil from below", "Nothing is cut"},
	},
	Banded: {
		[]string{"let it wait there", "through the loc's eye", "then back up", "Push the band up", "blunt end inside", "Wind it over plait and band"},
		[]string{"Wind the cover backward", "Roll the band off", "it stays whole"},
	},
	BuiltOnHead: {
		[]string{"half through", "across the row", "round base hair and plait", "lay a second strand along the base", "wind three turns over it", "wind upward again"},
		[]string{"Cut below the mark", "Unwind"},
	},
	AnchorTwist: {
		[]string{"under the anchor turns", "half through", "Undo own twist", "one half to each leg", "round each other"},
		[]string{"Untwist", "Draw the bulk hair out"},
	},
	FoldAndTwist: {
		[]string{"under the root", "half through", "Lay the plait inside one leg", "the same way, and round each other the other way"},
		[]string{"Untwist", "Draw the bulk hair out"},
	},
	TwineAndLock: {
		[]string{"through the loop together", "Look which way your piece is twisted", "the same way", "through a small gap", "Keep it dry"},
		[]string{"Draw the tip out", "nothing is cut"},
	},
	OwnStrand: {
		[]string{"leave it unplaited", "own hair is the third", "close to the scalp", "borrow a little", "after take-up", "hot water"},
		[]string{"Cut the braid below the mark", "Unbraid upward"},
	},
	WrappedThird: {
		[]string{"leave it unplaited", "one third, and two thirds", "nothing holds it until it is braided", "Wrap the third once round the rest", "Lay own hair into one strand", "Nothing is borrowed", "hot water"},
		[]string{"Cut the braid below the mark", "unwrap the third"},
	},
	FedIn: {
		[]string{"thin bits", "own hair alone", "to the middle strand", "the same little", "before the scalp ends", "Braid on from its end", "hot water"},
		[]string{"Cut the braid below the mark", "the bits come free"},
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
		if m.On(OnCornrow) && !m.On(OnPlait) {
			j.Ground = OnCornrow
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

// What is drawn for each method, in the order of its moves, and of its takedown. Common
// practice, no source.
var pictured = map[ID]struct{ on, off []moves.ID }{
	HitchAndWeave:  {[]moves.ID{moves.RootHitch, moves.Weave}, []moves.ID{moves.Weave, moves.RootHitch}},
	HitchAndZigzag: {[]moves.ID{moves.RootHitchBraid, moves.Lace}, []moves.ID{moves.Lace, moves.RootHitchBraid}},
	HiddenKnot:     {[]moves.ID{moves.HiddenKnot}, []moves.ID{moves.HiddenKnot}},
	SplitRoot:      {[]moves.ID{moves.SplitRoot, moves.Weave}, []moves.ID{moves.Weave, moves.SplitRoot}},
	CornrowHitch:   {[]moves.ID{moves.CornrowHitch}, []moves.ID{moves.CornrowHitch}},
	Stack:          {[]moves.ID{moves.Stack}, []moves.ID{moves.Stack}},
	SharedLoop:     {[]moves.ID{moves.SharedHitch, moves.Wind}, []moves.ID{moves.Wind, moves.SharedHitch}},
	CollarAndWrap:  {[]moves.ID{moves.Collar}, []moves.ID{moves.Collar}},
	OpenCoil:       {[]moves.ID{moves.SharedCoil, moves.Coil}, []moves.ID{moves.Coil, moves.SharedCoil}},
	Banded:         {[]moves.ID{moves.Banded}, []moves.ID{moves.Banded}},
	BuiltOnHead:    {[]moves.ID{moves.Built}, []moves.ID{moves.Built}},
	AnchorTwist:    {[]moves.ID{moves.AnchorTwist}, []moves.ID{moves.AnchorTwist}},
	FoldAndTwist:   {[]moves.ID{moves.FoldTwist}, []moves.ID{moves.FoldTwist}},
	TwineAndLock:   {[]moves.ID{moves.SharedTwist, moves.Twine}, []moves.ID{moves.Twine, moves.SharedTwist}},
	OwnStrand:      {[]moves.ID{moves.OwnStrand}, []moves.ID{moves.OwnStrand}},
	WrappedThird:   {[]moves.ID{moves.WrappedThird}, []moves.ID{moves.WrappedThird}},
	FedIn:          {[]moves.ID{moves.FeedIn}, []moves.ID{moves.FeedIn}},
}

// Every method is drawn from its first move to its last, none left out, and so are its
// takedown, backward, and its usual mistake, whatever is chosen of it and wherever it hangs.
func TestEveryMethodIsDrawn(t *testing.T) {
	shown := map[moves.ID]bool{}
	check := func(name string, list []Step, back bool) (seen []moves.ID) {
		at := map[moves.ID]int{}
		for _, s := range list {
			c := s.Shows
			if c == nil {
				continue
			}
			f, ok := moves.Lookup(c.Figure)
			if !assert.True(t, ok, "%s: %s", name, c.Figure) {
				continue
			}
			shown[c.Figure] = true
			last := len(f.Stills()) - 1
			assert.True(t, c.First >= 0 && c.First <= last && c.Last >= 0 && c.Last <= last, "%s: %v of %d", name, *c, last)
			assert.False(t, back && c.Last > c.First, "%s: %v comes off backward", name, *c)
			assert.False(t, !back && c.Last < c.First, "%s: %v goes on forward", name, *c)
			if before, again := at[c.Figure]; again && !back {
				assert.GreaterOrEqual(t, before, c.First, "%s: nothing between %d and %v is left out", name, before, *c)
			}
			if at[c.Figure] = c.Last; len(seen) == 0 || seen[len(seen)-1] != c.Figure {
				seen = append(seen, c.Figure)
			}
		}
		return seen
	}
	for _, m := range Catalogue {
		_, usual := job(t, m.ID, 8*inch)
		if !m.On(OnPlait) {
			usual.Ground = OnCornrow
		}
		r := Range{usual, usual, m.For(usual), m.For(usual)}
		off, _ := m.TakeDown(r)
		assert.Equal(t, pictured[m.ID].on, check(string(m.ID), m.Steps(r), false), m.ID)
		assert.Equal(t, pictured[m.ID].off, check(string(m.ID)+" off", off, true), m.ID)
		for _, id := range pictured[m.ID].on {
			f, _ := moves.Lookup(id)
			clips := []int{}
			for _, s := range m.Steps(r) {
				if s.Shows != nil && s.Shows.Figure == id {
					clips = append(clips, s.Shows.First, s.Shows.Last)
				}
			}
			assert.Zero(t, slices.Min(clips), "%s: %s from its first picture", m.ID, id)
			assert.Equal(t, len(f.Stills())-1, slices.Max(clips), "%s: %s to its last picture", m.ID, id)
		}
		wrong, ok := moves.Lookup(m.Wrong)
		assert.True(t, ok && wrong.Frames[0].Wrong != nil, "%s: the mistake is crossed out", m.ID)
		assert.False(t, shown[m.Wrong], "%s: a mistake is no step", m.ID)
		for _, ground := range m.Grounds {
			for _, c := range m.Choices {
				for _, o := range c.Options {
					j := usual
					j.Ground, j.Chosen, j.Merges = ground, m.Decided(m.Choosing(nil, c.Key, o.Key)), true
					r := Range{j, j, m.For(j), m.For(j)}
					name := string(m.ID) + " " + string(ground) + " " + o.Key
					assert.NotEmpty(t, check(name, m.Steps(r), false), name)
					off, _ := m.TakeDown(r)
					assert.NotEmpty(t, check(name, off, true), name)
				}
			}
		}
	}
	for _, id := range moves.IDs() { // no drawing lies unused
		f, _ := moves.Lookup(id)
		assert.True(t, shown[id] || f.Frames[0].Wrong != nil || id == moves.PlaitOver || id == moves.PlaitUnder, id) // plaits are made before
	}
}
