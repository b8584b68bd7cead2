package tally_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/core/surface"
	"kladotex/core/tally"
)

// Counts of common practice (no source) on an average head: what is plaited, and what is
// hooked beside it. Soft locs are taken to be 9 mm thick, goddess locs 10, small braids 6.
func TestCountsOfCommonPractice(t *testing.T) {
	const inch = 25.4
	between := func(low, high int) [2]int { return [2]int{low, high} }
	for _, c := range []struct {
		structure parting.Structure
		part      parting.PartKind
		size      float64
		thick     float64
		plaits    [2]int
		hooked    [2]int
	}{
		{parting.AllIndividuals, parting.MiddlePart, 0.75 * inch, 9, between(160, 195), between(0, 0)},
		{parting.AllIndividuals, parting.MiddlePart, inch, 9, between(95, 120), between(0, 0)},
		{parting.AllIndividuals, parting.MiddlePart, 1.25 * inch, 9, between(60, 75), between(0, 0)},
		{parting.AllIndividuals, parting.MiddlePart, 1.5 * inch, 9, between(40, 50), between(0, 0)},
		{parting.EarToEar, parting.MiddlePart, inch, 9, between(24, 34), between(45, 60)},
		{parting.Perimeter, parting.NoPart, 1.25 * inch, 9, between(15, 20), between(60, 75)},
		{parting.PartLine, parting.MiddlePart, inch, 9, between(8, 12), between(68, 80)},
		{parting.PartLine, parting.MiddlePart, inch, 6, between(8, 12), between(100, 120)},
		{parting.Horseshoe, parting.MiddlePart, 0.75 * inch, 10, between(12, 12), between(40, 60)},
		{parting.FrontDesign, parting.MiddlePart, 0.75 * inch, 9, between(12, 24), between(52, 66)},
		{parting.NetCap, parting.MiddlePart, inch, 9, between(20, 40), between(80, 140)},
		{parting.Linked, parting.MiddlePart, 1.25 * inch, 9, between(60, 70), between(0, 0)},
	} {
		in := plan.Default()
		in.Parting = in.Parting.On(c.structure)
		in.Parting.Part.Kind, in.Pieces[0].Thickness = c.part, c.thick
		if c.structure == parting.NetCap {
			in.Parting.Base.Kind = parting.Net
		}
		for _, w := range []*parting.Wish{&in.Parting.Front, &in.Parting.Back} {
			w.Width, w.Height = c.size, c.size
		}
		res, err := tally.Compute(t.Context(), in)
		require.NoError(t, err)
		hooked := res.Layout.Hooks()
		assert.True(t, c.plaits[0] <= res.Tally.Sections && res.Tally.Sections <= c.plaits[1], "%s at %.0f mm: %d plaits", c.structure, c.size, res.Tally.Sections)
		assert.True(t, c.hooked[0] <= hooked && hooked <= c.hooked[1], "%s at %.0f mm: %d hooked", c.structure, c.size, hooked)
	}
}

// A base that saves work saves hair too: no structure takes more pieces than individuals all
// over with the same card.
func TestABaseTakesNoMoreThanIndividuals(t *testing.T) {
	whole, err := tally.Compute(t.Context(), plan.Default())
	require.NoError(t, err)
	for _, structure := range parting.Structures {
		in := plan.Default()
		in.Parting = in.Parting.On(structure)
		res, err := tally.Compute(t.Context(), in)
		require.NoError(t, err, structure)
		assert.LessOrEqual(t, res.Tally.Pieces, whole.Tally.Pieces, structure)
	}
}

// Twelve individuals woven and about fifty pieces hooked take 45 min on own head.
// Common practice, no source.
func TestHoursOfAHorseshoe(t *testing.T) {
	in := plan.Default()
	in.OwnHead, in.Parting = true, in.Parting.On(parting.Horseshoe)
	in.Parting.Front.Width, in.Parting.Front.Height = 19, 19
	in.Pieces[0].Thickness = 10
	res, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	require.Equal(t, 12, res.Tally.Sections)
	minutes := 0.0
	for _, s := range res.Hours.Stages {
		if s.Name == "Hook on" || s.Name == "Attach" || s.Name == "Hide the plaits" {
			minutes += s.Minutes.Likely
		}
	}
	assert.InEpsilon(t, 45, minutes, 0.25)
}

// On both sides of a head that is the same on both hang the same pieces, however cornrows run
// together.
func TestMergedCornrowsMirror(t *testing.T) {
	for _, width := range []float64{15, 17, 19, 21, 24} {
		in := plan.Default()
		in.Parting = in.Parting.On(parting.Horseshoe)
		in.Parting.Front.Width, in.Parting.Front.Height = width, width
		res, err := tally.Compute(t.Context(), in)
		require.NoError(t, err)
		hooks := map[parting.Zone]int{}
		for _, x := range res.Layout.Cornrows {
			hooks[x.Zone] += len(x.Hooks)
		}
		assert.Equal(t, hooks["SL"], hooks["SR"], width)
		assert.Positive(t, hooks["SL"])
	}
}

// A net may go without a ring: then nobody plaits individuals but beside the part, and it
// stands back from the hairline.
func TestNetWithoutARing(t *testing.T) {
	in := plan.Default()
	in.Parting = in.Parting.On(parting.NetCap)
	in.Parting.Base.Kind = parting.Net
	ringed, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	in.Parting.Base.NoRing = true
	bare, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	assert.Less(t, bare.Tally.Sections, ringed.Tally.Sections)
	for _, x := range bare.Layout.Sections {
		assert.Contains(t, []parting.Zone{"PL", "PR"}, x.Zone)
	}
	head, err := scalp.FitWith(in.Head, in.Hairline)
	require.NoError(t, err)
	hairline := surface.NewCurve(head, head.Hairline(scalp.FrontCentre, scalp.NapeCentre))
	for _, net := range bare.Layout.Nets {
		for _, hook := range net.Hooks {
			u := surface.Toward(head, scalp.Point{hook[0], math.Abs(hook[1]), hook[2]})
			assert.Greater(t, hairline.Distance(head, u, new(int)), 10.0)
		}
	}
	in.Parting.Part.Kind = parting.NoPart
	none, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	assert.Zero(t, none.Tally.Sections)
	assert.Positive(t, none.Tally.Pieces)
}

// Hooks stand 2.2 times the piece's thickness apart, never closer than it is thick, or as the
// plan says.
func TestHooksFollowThePiece(t *testing.T) {
	in := plan.Default()
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

// Stations take several pieces for every plait, and hair braided in from the root spares the
// plait below it.
func TestMethodsDecidePiecesAndPlaits(t *testing.T) {
	of := func(id method.ID, form hair.Form, settings method.Settings) tally.Result {
		in := plan.Default()
		way := plan.NewWay("w1", id)
		for key, v := range settings {
			way.Settings[key] = v
		}
		in.Ways[0], in.Pieces[0].Form = way, form
		res, err := tally.Compute(t.Context(), in)
		require.NoError(t, err)
		return res
	}
	minutes := func(res tally.Result, stage string) float64 {
		for _, s := range res.Hours.Stages {
			if s.Name == stage {
				return s.Minutes.Likely
			}
		}
		return 0
	}
	n := of(method.HitchAndWeave, hair.SoftLoc, nil)
	four := of(method.Stack, hair.CurlyBulk, method.Settings{"stations": 4})
	assert.Equal(t, 4*n.Tally.Sections, four.Tally.Pieces)
	assert.InDelta(t, 4*n.Tally.Weight, four.Tally.Weight, 1e-6)
	braided := of(method.WrappedThird, hair.BraidingHair, nil)
	assert.Less(t, minutes(braided, "Part and plait"), 0.5*minutes(n, "Part and plait"))
	assert.Positive(t, braided.Work[0].CutBelow)
}
