package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/parting"
)

// Counts of common practice (no source) on an average head, with locs 9 mm thick: what is
// plaited, and what is hooked beside it.
func TestCountsOfCommonPractice(t *testing.T) {
	const inch = 25.4
	between := func(low, high int) [2]int { return [2]int{low, high} }
	for _, c := range []struct {
		structure parting.Structure
		part      parting.PartKind
		size      float64
		plaits    [2]int
		hooked    [2]int
	}{
		{parting.AllIndividuals, parting.MiddlePart, 0.75 * inch, between(160, 195), between(0, 0)},
		{parting.AllIndividuals, parting.MiddlePart, inch, between(95, 120), between(0, 0)},
		{parting.AllIndividuals, parting.MiddlePart, 1.25 * inch, between(60, 75), between(0, 0)},
		{parting.AllIndividuals, parting.MiddlePart, 1.5 * inch, between(40, 50), between(0, 0)},
		{parting.EarToEar, parting.MiddlePart, inch, between(24, 34), between(45, 60)},
		{parting.Perimeter, parting.NoPart, 1.25 * inch, between(15, 20), between(60, 75)},
		{parting.PartLine, parting.MiddlePart, inch, between(8, 12), between(68, 112)},
		{parting.Linked, parting.MiddlePart, 1.25 * inch, between(60, 70), between(0, 0)},
	} {
		in := Default()
		in.Parting.Structure, in.Parting.Part.Kind = c.structure, c.part
		for _, w := range []*parting.Wish{&in.Parting.Front, &in.Parting.Back} {
			w.Width, w.Height = c.size, c.size
		}
		require.InDelta(t, 9, in.Pieces[0].Thickness, 1e-9)
		res, err := Compute(t.Context(), in)
		require.NoError(t, err)
		hooked := res.Layout.Hooks()
		assert.True(t, c.plaits[0] <= res.Tally.Sections && res.Tally.Sections <= c.plaits[1], "%s at %.0f mm: %d plaits", c.structure, c.size, res.Tally.Sections)
		assert.True(t, c.hooked[0] <= hooked && hooked <= c.hooked[1], "%s at %.0f mm: %d hooked", c.structure, c.size, hooked)
	}
}

// A base that saves work saves hair too: no structure takes more pieces than individuals all
// over with the same card.
func TestABaseTakesNoMoreThanIndividuals(t *testing.T) {
	whole, err := Compute(t.Context(), Default())
	require.NoError(t, err)
	for _, structure := range parting.Structures {
		in := Default()
		in.Parting = in.Parting.On(structure)
		res, err := Compute(t.Context(), in)
		require.NoError(t, err, structure)
		assert.LessOrEqual(t, res.Tally.Pieces, whole.Tally.Pieces, structure)
	}
}

// Hooks stand 2.2 times the piece's thickness apart, never closer than it is thick, or as the
// plan says.
func TestHooksFollowThePiece(t *testing.T) {
	in := Default()
	in.Pieces[0].Thickness = 10
	assert.InDelta(t, 22, in.HookSpacing(), 1e-9)
	in.Parting.Base.Spacing = 30
	assert.InDelta(t, 30, in.HookSpacing(), 1e-9)
	in.Parting.Base.Spacing = 6
	assert.InDelta(t, 10, in.HookSpacing(), 1e-9)
	thin := in.Pieces[0]
	thin.Key, thin.Thickness = "thin", 4
	in.Pieces, in.Uses[1].Piece, in.Parting.Base.Spacing = append(in.Pieces, thin), "thin", 0
	assert.InDelta(t, 8.8, in.HookSpacing(), 1e-9, "the piece on the base counts")
}
