package tally_test

import (
	"bytes"
	"context"
	"encoding/json"
	"os"
	"runtime/debug"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/advice"
	"kladotex/core/attach"
	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
	"kladotex/core/tally"
)

// compute sums up a plan that must work.
func compute(t testing.TB, in plan.Input) tally.Result {
	t.Helper()
	res, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	return res
}

func codes(notices []advice.Notice) (out []advice.Code) {
	for _, n := range notices {
		out = append(out, n.Code)
	}
	return out
}

func TestTallySumsThePlan(t *testing.T) {
	in := plan.Default()
	in.Uses[0].Count = 2
	in.Uses = append(in.Uses, plantest.Behind(1))
	res := compute(t, in)
	front, back := 0, 0
	for _, s := range res.Layout.Sections {
		if strings.HasPrefix(s.ID, "F") {
			front++
		} else {
			back++
		}
	}
	assert.Equal(t, front+back, res.Tally.Sections)
	assert.Equal(t, 2*front+back, res.Tally.Pieces)
	require.Len(t, res.Need.Pieces, 1)
	order := res.Need.Pieces[0].Order
	assert.Equal(t, res.Tally.Pieces+res.Tally.Spares, order.Need)
	assert.GreaterOrEqual(t, order.Units, order.Need)
	cost := order.Cost
	for _, p := range res.Need.Products {
		cost += p.Cost
	}
	assert.Equal(t, cost, res.Tally.Cost)
	assert.InDelta(t, float64(res.Tally.Pieces)*in.Pieces[0].Mass, res.Tally.Weight, 1e-9)
	looked := 0
	for _, n := range res.Notices {
		if n.Severity != advice.Hint {
			looked++
		}
	}
	assert.Equal(t, looked, res.Tally.Notices)

	in.Fill.Count = 7
	filled := compute(t, in).Tally
	assert.Equal(t, res.Tally.Pieces+7, filled.Pieces)
	assert.InDelta(t, res.Tally.Weight+7*in.Pieces[0].Mass, filled.Weight, 1e-9)
	assert.Greater(t, filled.Minutes, res.Tally.Minutes)
}

func TestEachFamilyHidesThePlaitItsWay(t *testing.T) {
	in := plan.Default()
	weave := compute(t, in)
	require.Len(t, weave.Work, 1)
	assert.Equal(t, plan.Between{Least: 3, Most: 3}, weave.Work[0].Passes, "5.2 in of plait at a 2 in pitch")
	assert.Empty(t, weave.Need.Wraps)

	wrap := compute(t, plantest.AttachBy(in, method.CollarAndWrap))
	require.Len(t, wrap.Need.Wraps, 1)
	assert.Equal(t, weave.Tally.Packs+wrap.Need.Wraps[0].Order.Packs, wrap.Tally.Packs)
	assert.Greater(t, wrap.Tally.Weight, weave.Tally.Weight)
	assert.Zero(t, wrap.Work[0].Passes.Most)

	twisted := plantest.AttachBy(in, method.FoldAndTwist)
	assert.Contains(t, codes(compute(t, twisted).Notices), advice.WrongForm, "a loc cannot be folded")
	twisted = plantest.WithPiece(twisted, func(p *hair.Piece) { p.Form, p.Pack = hair.Bulk, hair.Pack{Units: 30, Cuts: 2, Splits: 2} })
	twist := compute(t, twisted)
	assert.NotContains(t, codes(twist.Notices), advice.WrongForm)
	assert.Equal(t, 1, twist.Need.Pieces[0].Order.Packs, "120 units from a pack")
}

// What is hooked on is told by its ground, and what there is no plait for speaks
// against no method.
func TestHookingFollowsTheBase(t *testing.T) {
	hooked := func(res tally.Result) *attach.Attachment {
		i := slices.IndexFunc(res.Work, func(w attach.Attachment) bool { return w.Method == method.CornrowHitch })
		if i < 0 {
			return nil
		}
		return &res.Work[i]
	}
	assert.Nil(t, hooked(compute(t, plan.Default())), "loose plaits all over")
	for structure, ground := range map[parting.Structure]method.Ground{
		parting.Perimeter: method.OnCornrow, parting.NetCap: method.OnNet, parting.Linked: method.OnLink,
	} {
		in := plan.Default()
		in.Parting.Structure = structure
		if structure == parting.NetCap {
			in.Parting.Base.Kind = parting.Net
		}
		res := compute(t, in)
		if w := hooked(res); assert.NotNil(t, w, structure) {
			assert.Equal(t, ground, w.Ground, structure)
			assert.Equal(t, res.Need.Pieces[0].Hooked, w.Pieces, structure)
		}
	}
	in := plantest.AttachBy(plan.Default(), method.FoldAndTwist)
	in.Parting.Structure = parting.Linked
	res := compute(t, in)
	assert.Equal(t, res.Need.Pieces[0].OnHead, res.Need.Pieces[0].Hooked)
	assert.NotContains(t, codes(res.Notices), advice.WrongForm)
	assert.Empty(t, compute(t, plantest.AttachBy(in, method.CollarAndWrap)).Need.Wraps, "nothing is wrapped, so not even a spare strand is bought")

	in.Parting.Structure = parting.EarToEar
	first := func(tails parting.Tails) string {
		in.Parting.Base.Tails = tails
		return hooked(compute(t, in)).Steps[0].Text
	}
	assert.Contains(t, first(parting.Tucked), "tuck each loose tail")
	assert.Contains(t, first(parting.Stitched), "stitch")
	assert.Contains(t, first(parting.Chained), "the one that is left")
}

func TestResultIsDeterministicAndFinite(t *testing.T) {
	first, err := json.Marshal(compute(t, plan.Default()))
	require.NoError(t, err, "JSON has no NaN")
	for range 3 {
		again, err := json.Marshal(compute(t, plan.Default()))
		require.NoError(t, err)
		require.True(t, bytes.Equal(first, again))
	}
}

// The bar of docs/performance.md: a preview of a 300-section head, with the memory the
// program gives itself.
func BenchmarkPreview(b *testing.B) {
	defer debug.SetGCPercent(debug.SetGCPercent(400))
	for _, part := range []parting.Part{{Kind: parting.MiddlePart}, {Kind: parting.SidePart, Offset: 25.4}, {Kind: parting.NoPart}, {Kind: parting.Levels}} {
		b.Run(string(part.Kind), func(b *testing.B) {
			in := plan.Default()
			in.Parting.Part = part
			size := parting.Size{Width: 0.58 * 25.4, Height: 0.58 * 25.4}
			in.Parting.Front.Size, in.Parting.Back.Size = size, size
			res := compute(b, in)
			b.ReportAllocs()
			for b.Loop() {
				if _, err := tally.Compute(context.Background(), in); err != nil {
					b.Fatal(err)
				}
			}
			b.ReportMetric(float64(res.Tally.Sections), "sections")
		})
	}
}

// A use that matches nothing is counted so, and reported; the base's own is not, where a
// head has none.
func TestAUseThatMatchesNothingIsReported(t *testing.T) {
	in := plan.Default()
	in.Parting.Part.Kind = parting.NoPart
	empty := func(in plan.Input) int {
		return len(slices.DeleteFunc(codes(compute(t, in).Notices), func(c advice.Code) bool { return c != advice.EmptyUse }))
	}
	assert.Zero(t, empty(in), "no base, and nothing is said of it")
	for _, u := range []plan.Use{
		{Where: plan.Where{Kind: plan.AlongPart}, Count: 2},
		{Where: plan.Where{Kind: plan.InZones, Zones: []parting.Zone{"T"}}, Count: 2},
		{Where: plan.Where{Kind: plan.InRows, Rows: []plan.RowName{{Zone: "F", Row: 99}}}, Count: 2},
		{Where: plan.Where{Kind: plan.AtPlaces, Places: []parting.Direction{{1, 0, 0}}}, Count: 2}, // on the face
		{Where: plan.Where{Kind: plan.InFront}, Way: plantest.HookWay},                             // nothing there to hook on
	} {
		with := in
		with.Uses = append(slices.Clone(in.Uses), u)
		res := compute(t, with)
		assert.Zero(t, res.Matched[2], u.Where.Kind)
		assert.Equal(t, 1, empty(with), u.Where.Kind)
	}
	// One that matches is not.
	in.Uses = append(in.Uses, plan.Use{Where: plan.Where{Kind: plan.AtNape}, Count: 2})
	res := compute(t, in)
	assert.Positive(t, res.Matched[2])
	assert.Zero(t, empty(in))
}

// What once passed without a word: 35 kg on a head, heavy locs on small sections of fine
// sparse hair, long pieces on a tender child. Common practice, no source.
func TestLoadSpeaksUp(t *testing.T) {
	heavy := plantest.WithPiece(plan.Default(), func(p *hair.Piece) { p.Mass, p.Length = 60, 1016 })
	heavy.Uses[0].Count = 6
	found := codes(compute(t, heavy).Notices)
	assert.Contains(t, found, advice.FewNecks)
	assert.Contains(t, found, advice.TooHeavy)

	small := plantest.WithPiece(plan.Default(), func(p *hair.Piece) { p.Mass, p.Thickness = 8, 9 })
	small.Parting.Front.Size, small.Parting.Back.Size = parting.Size{Width: 12.7, Height: 12.7}, parting.Size{Width: 12.7, Height: 12.7}
	small.Hair.Density, small.Hair.Strand = 110, 58
	found = codes(compute(t, small).Notices)
	assert.Contains(t, found, advice.TooHeavy)
	assert.Contains(t, found, advice.ThinPlait, "a thin plait under a thick piece")

	child := plantest.WithPiece(plan.Default(), func(p *hair.Piece) { p.Mass, p.Length = 5.4, 762 })
	before := compute(t, child)
	assert.NotContains(t, codes(before.Notices), advice.HeavyHead)
	child.Child, child.Hair.Tender = true, true
	res := compute(t, child)
	assert.Contains(t, codes(res.Notices), advice.HeavyHead)
	for _, n := range res.Notices {
		if n.Code == advice.HeavyHead {
			assert.Contains(t, n.Reason, "No safe limit is published")
			assert.NotEmpty(t, n.Remedy)
		}
	}
	// What is usual stays unremarked: a 4 g piece on the 1 in section of a dense head.
	assert.Empty(t, compute(t, plan.Default()).Notices)
}

// Plans of version 3 keep their tallies to the piece, the pack, the cent and the minute. The
// tallies are those of the parting in even bands, hooks spread evenly and mirrored, the minutes those of the tasks place by place; a
// change of any of them must be meant.
func TestPlansOfVersion3KeepTheirTally(t *testing.T) {
	raw, err := os.ReadFile("../plan/testdata/schema3.json")
	require.NoError(t, err)
	var kept []struct {
		Title string `json:"title"`
		Tally struct {
			Sections int     `json:"sections"`
			Pieces   int     `json:"pieces"`
			Packs    int     `json:"packs"`
			Cost     int64   `json:"costMinor"`
			Minutes  float64 `json:"minutes"`
			Weight   float64 `json:"weightG"`
		} `json:"tally"`
		Plan json.RawMessage `json:"plan"`
	}
	require.NoError(t, json.Unmarshal(raw, &kept))
	require.Len(t, kept, 12)
	for _, k := range kept {
		in, err := plan.Decode(bytes.NewReader(k.Plan))
		require.NoError(t, err, k.Title)
		res, err := tally.Compute(t.Context(), in)
		require.NoError(t, err, k.Title)
		got := res.Tally
		assert.Equal(t, k.Tally.Sections, got.Sections, k.Title)
		assert.Equal(t, k.Tally.Pieces, got.Pieces, k.Title)
		assert.InDelta(t, k.Tally.Minutes, got.Minutes, 1e-6, k.Title)
		assert.Equal(t, k.Tally.Packs, got.Packs, k.Title)
		assert.Equal(t, k.Tally.Cost, got.Cost, k.Title)
		assert.InDelta(t, k.Tally.Weight, got.Weight, 1e-6, k.Title)
	}
}

// A rule that names a mix replaces the one before it, and a later rule wins over the mix; hooks stand as
// far apart as the thickest of a mix wants.
func TestMixesAreRulesLikeOthers(t *testing.T) {
	in := plantest.InTwoColours()
	in.Parting.Structure = parting.EarToEar
	in.Uses = append(slices.Clone(in.Uses), plan.Use{Where: plan.Where{Kind: plan.InFront}, Piece: plantest.FirstPiece})
	res, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	behind := map[int]int{}
	for _, p := range res.Places {
		if p.Front {
			assert.Zero(t, p.Piece, "in front the later rule")
		} else {
			behind[p.Piece]++
		}
	}
	assert.Len(t, behind, 2)
	thin := in.HookSpacing()
	in.Pieces = slices.Clone(in.Pieces)
	in.Pieces[1].Thickness *= 1.5
	assert.InEpsilon(t, 1.5*thin, in.HookSpacing(), 1e-9)

	other, err := in.With(hair.Piece{
		Name: "Thin", Form: hair.SoftLoc, Length: 400, Thickness: 5, Mass: 2, Pack: hair.Pack{Units: 30, Cuts: 1, Splits: 1}, Offers: []hair.Offer{{Packs: 1, Price: 900}},
	})
	require.NoError(t, err)
	assert.Equal(t, plantest.FirstPiece, other.Uses[0].Piece)
	assert.Empty(t, other.Uses[0].Mix)
	assert.Equal(t, "Thin", other.Piece(plantest.FirstPiece).Name)
	_, err = in.With(hair.Piece{Name: "None"})
	assert.NotEmpty(t, invalid.From(err))
	assert.Len(t, in.Uses[0].Mix, 2, "the plan itself is as it was")
}
