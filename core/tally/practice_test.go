package tally_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/advice"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
	"kladotex/core/scalp"
	"kladotex/core/surface"
	"kladotex/core/tally"
)

// Heads as a stylist says them, each as a plan of it opens, and what is commonly used on them
// (common practice, no source): individuals, what is hooked beside them, both together. A size is
// told where a stylist would tell it; nothing else is tuned.
func TestHeadsAsTheyOpen(t *testing.T) {
	const inch = 25.4
	type span [2]int
	some := span{1, 1000}
	for _, c := range []struct {
		what        string
		structure   parting.Structure
		change      plantest.Change
		plaits      span
		hooked, all span
	}{
		{"all over, ¾ in, small twists", parting.AllIndividuals, plantest.All(plantest.Size(0.75*inch), plantest.Piece(14*inch, 7, 2)), span{160, 195}, span{}, some},
		{"all over, 1 in", parting.AllIndividuals, plantest.Size(inch), span{95, 120}, span{}, some},
		{"all over, 1¼ in", parting.AllIndividuals, plantest.Size(1.25 * inch), span{60, 75}, span{}, some},
		{"all over, 1½ in", parting.AllIndividuals, plantest.Size(1.5 * inch), span{40, 50}, span{}, some},
		{"ear to ear with locs", parting.EarToEar, plantest.All(), span{24, 34}, span{45, 60}, some},
		{"ear to ear, cornrows from side to side", parting.EarToEar, plantest.Run(parting.Horizontal), span{24, 34}, span{45, 60}, some},
		{"a ring with long braids", parting.Perimeter, plantest.All(), span{15, 20}, span{60, 75}, some},
		{"horseshoe, 6 + 6, goddess locs", parting.Horseshoe, plantest.Piece(18*inch, 10, 4), span{12, 12}, span{40, 60}, some},
		{"part line, 5 a side, small braids", parting.PartLine, plantest.Piece(18*inch, 7, 2), span{10, 10}, some, span{80, 120}},
		{"linked plaits", parting.Linked, plantest.All(), span{60, 70}, span{}, some},
		{"front design", parting.FrontDesign, plantest.All(), some, some, span{70, 90}},
		{"net and hidden knots, bulk", parting.NetCap, plantest.Piece(18*inch, 7, 2), some, some, span{100, 180}},
	} {
		in := plan.Default()
		in.Parting = in.Parting.On(c.structure)
		c.change(&in)
		res, err := tally.Compute(t.Context(), in)
		require.NoError(t, err)
		within := func(n int, want span, of string) {
			assert.True(t, want[0] <= n && n <= want[1], "%s: %d %s", c.what, n, of)
		}
		within(res.Tally.Sections, c.plaits, "plaits")
		within(res.Layout.Hooks(), c.hooked, "hooked")
		within(res.Tally.Pieces, c.all, "pieces")
		for _, n := range res.Notices {
			assert.Equal(t, advice.Hint, n.Severity, "%s opens with a warning: %s", c.what, n.Reason)
		}
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
	in.Parting.Base.NoRing = false
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
