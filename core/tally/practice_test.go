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
// (common practice, no source): individuals, what is hooked beside them, both together, and the
// hours of the whole head where they are told. What a stylist says is said; nothing is tuned.
func TestHeadsAsTheyOpen(t *testing.T) {
	const inch = 25.4
	type span [2]int
	any := span{0, 1000}
	with := func(list ...plantest.Change) plantest.Change { return plantest.All(list...) }
	by := func(id method.ID, form hair.Form, size float64) plantest.Change {
		return with(plantest.By(id, form), plantest.Size(size*inch))
	}
	behind := func(change func(*parting.Base)) plantest.Change {
		return func(in *plan.Input) { change(&in.Parting.Base) }
	}
	small := plantest.Piece(18*inch, 7, 2)
	for _, c := range []struct {
		what                string
		structure           parting.Structure
		change              plantest.Change
		plaits, hooked, all span
		minutes             span
	}{
		{"all over, ¾ in, small twists", parting.AllIndividuals, with(plantest.Size(0.75*inch), plantest.Piece(14*inch, 7, 2)), span{160, 195}, span{}, any, any},
		{"all over, 1 in", parting.AllIndividuals, plantest.Size(inch), span{95, 120}, span{}, any, any},
		{"all over, 1¼ in", parting.AllIndividuals, plantest.Size(1.25 * inch), span{60, 75}, span{}, any, any},
		{"all over, 1½ in", parting.AllIndividuals, plantest.Size(1.5 * inch), span{40, 50}, span{}, any, any},
		{"short twists woven one by one", parting.AllIndividuals, with(plantest.Grown(4), by(method.HitchAndWeave, hair.Twist, 0.82), plantest.Piece(8*inch, 7, 1.5)), span{140, 160}, span{}, any, any},
		{"coil locs", parting.AllIndividuals, by(method.OpenCoil, hair.CoilLoc, 1.34), span{50, 60}, span{}, any, any},
		{"collar and wrap", parting.AllIndividuals, by(method.CollarAndWrap, hair.HandmadeLoc, 1.25), span{45, 70}, span{}, any, any},
		{"banded locs on long hair", parting.AllIndividuals, with(plantest.Grown(18), by(method.Banded, hair.HandmadeLoc, 1.5)), span{40, 46}, span{}, any, any},
		{"five pieces a plait", parting.AllIndividuals, with(by(method.Stack, hair.CurlyBulk, 1.5), plantest.Piece(10*inch, 5, 1.5), func(in *plan.Input) { in.Ways[0].Settings["stations"] = 5 }), span{40, 50}, span{}, span{200, 250}, span{180, 1000}},
		{"braids by hand, 24 in", parting.AllIndividuals, with(by(method.WrappedThird, hair.BraidingHair, 1.14), plantest.Piece(24*inch, 8, 5)), span{70, 80}, span{}, any, span{360, 480}},
		{"ear to ear with locs", parting.EarToEar, with(), span{24, 34}, span{45, 60}, any, any},
		{"ear to ear, cornrows from side to side", parting.EarToEar, plantest.Run(parting.Horizontal), span{24, 34}, span{45, 60}, any, any},
		{"ear to ear, sixty spread behind", parting.EarToEar, behind(func(b *parting.Base) { b.Hooks = 60 }), span{24, 34}, span{60, 60}, any, any},
		{"a ring with long braids", parting.Perimeter, with(), span{15, 20}, span{60, 75}, any, any},
		{"horseshoe, 6 + 6, goddess locs", parting.Horseshoe, plantest.Piece(18*inch, 10, 4), span{12, 12}, span{40, 60}, any, any},
		{"part line, 5 a side, small braids", parting.PartLine, small, span{10, 10}, any, span{80, 120}, span{90, 150}},
		{"the same, full", parting.PartLine, with(small, behind(func(b *parting.Base) { b.Hooks = 110 })), span{10, 10}, span{110, 110}, span{120, 120}, any},
		{"linked plaits", parting.Linked, with(), span{60, 70}, span{}, any, any},
		{"front design", parting.FrontDesign, with(), any, any, span{70, 90}, any},
		{"front design, hair fed in", parting.FrontDesign, plantest.Feeds, any, any, span{70, 90}, any},
		{"a design on one side, individuals behind", parting.FrontDesign, with(func(in *plan.Input) { in.Parting.Design.Side = parting.LeftSide }, behind(func(b *parting.Base) { b.Kind = parting.NoBase })), any, span{}, any, any},
		{"net and hooks, bulk", parting.NetCap, small, any, any, span{100, 180}, any},
		{"net and hidden knots, no part", parting.NetCap, with(small, plantest.By(method.HiddenKnot, hair.Bulk), func(in *plan.Input) {
			in.Parting.Part.Kind, in.Ways[1] = parting.NoPart, plan.NewWay(plantest.HookWay, method.HiddenKnot)
		}), span{}, any, span{100, 180}, span{90, 150}},
	} {
		in := plan.Default()
		in.Parting = in.Parting.On(c.structure)
		c.change(&in)
		res, err := tally.Compute(t.Context(), in)
		require.NoError(t, err, c.what)
		within := func(n int, want span, of string) {
			assert.True(t, want[0] <= n && n <= want[1], "%s: %d %s", c.what, n, of)
		}
		t.Logf("%s: %d plaits, %d hooked, %d pieces, %d packs, %.0f min, %.0f g", c.what, res.Tally.Sections, res.Layout.Hooks(), res.Tally.Pieces, res.Tally.Packs, res.Tally.Minutes, res.Tally.Weight)
		within(res.Tally.Sections, c.plaits, "plaits")
		within(res.Layout.Hooks(), c.hooked, "hooked")
		within(res.Tally.Pieces, c.all, "pieces")
		within(int(res.Tally.Minutes), c.minutes, "minutes")
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
