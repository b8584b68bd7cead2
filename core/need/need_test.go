package need_test

import (
	"bytes"
	"encoding/json"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/need"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
	"kladotex/core/supply"
	"kladotex/core/tally"
)

// compute sums up a plan that must work.
func compute(t testing.TB, in plan.Input) tally.Result {
	t.Helper()
	res, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	return res
}

// Accents are as many as wished, counted, weighed and timed; at picked places one is put at each.
func TestAccentsAreCountedAndWeighed(t *testing.T) {
	plain, err := tally.Compute(t.Context(), plan.Default())
	require.NoError(t, err)
	in := plan.Default()
	cuff := &plan.Thing{Name: "Cuff", Mass: 0.6, Pack: 12, Price: 450}
	in.Accents = []plan.Accent{{Thing: cuff, Where: plan.Where{Kind: plan.InFront}, Count: 8}, {Piece: plantest.FirstPiece, Where: plan.Where{Kind: plan.Everywhere}, Count: 10}}
	res, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	placed := map[int]int{}
	left, right := 0, 0
	for _, p := range res.Places {
		for _, a := range p.Accents {
			placed[a]++
			if p.At[1] > 1 {
				left++
			} else if p.At[1] < -1 {
				right++
			}
		}
	}
	assert.InDelta(t, 8, placed[0], 1)
	assert.InDelta(t, 10, placed[1], 1)
	assert.Equal(t, left, right)
	require.Len(t, res.Need.Things, 1)
	assert.Equal(t, placed[0], res.Need.Things[0].Count)
	assert.Equal(t, 1, res.Need.Things[0].Order.Packs)
	assert.Equal(t, plain.Need.Pieces[0].OnHead+placed[1], res.Need.Pieces[0].OnHead)
	mass := in.Pieces[0].Mass
	assert.InDelta(t, plain.Tally.Weight+0.6*float64(placed[0])+mass*float64(placed[1]), res.Tally.Weight, 1e-6)
	assert.Greater(t, res.Tally.Minutes, plain.Tally.Minutes)

	at := parting.Direction{0.36, 0.48, 0.8}
	in.Accents = []plan.Accent{{Thing: cuff, Where: plan.Where{Kind: plan.AtPlaces, Places: []parting.Direction{at}}, Count: 1}}
	res, err = tally.Compute(t.Context(), in)
	require.NoError(t, err)
	assert.Equal(t, 1, res.Need.Things[0].Count)
}

// Every place where a piece hangs comes once in working order, what is hooked behind before the
// hairline and the part line; packs reach further one after the other, the last one all.
func TestPacksReachInWorkingOrder(t *testing.T) {
	for _, structure := range []parting.Structure{parting.AllIndividuals, parting.EarToEar, parting.PartLine, parting.Perimeter, parting.Linked} {
		in := plan.Default()
		in.Parting.Structure = structure
		s, err := need.Supply(plantest.Solve(t, in))
		require.NoError(t, err)
		res, err := tally.Compute(t.Context(), in)
		require.NoError(t, err)
		require.Len(t, s.Fillings, 1)
		f := s.Fillings[0]
		seen := slices.Sorted(slices.Values(f.Order))
		assert.Equal(t, len(res.Places), len(slices.Compact(seen)), structure)
		yield, last := in.Pieces[0].Pack.Yield(), 0
		for i, r := range f.Reach {
			assert.Equal(t, i+1, r.Packs)
			assert.LessOrEqual(t, r.Pieces, yield*r.Packs)
			assert.GreaterOrEqual(t, r.Places, last)
			last = r.Places
		}
		assert.Equal(t, len(res.Places), last)
		assert.Equal(t, s.Need.Pieces[0].Without, len(f.Reach), "as many packs as without spares")
		if structure == parting.PartLine {
			assert.NotEqual(t, method.OnPlait, res.Places[f.Order[0]].Ground, "cornrows first")
			assert.Equal(t, method.OnPlait, res.Places[f.Order[len(f.Order)-1]].Ground, "the part line last")
		}
	}
	// Behind from the nape up.
	res, err := tally.Compute(t.Context(), plan.Default())
	require.NoError(t, err)
	s, err := need.Supply(plantest.Solve(t, plan.Default()))
	require.NoError(t, err)
	first, late := res.Places[s.Fillings[0].Order[0]], res.Places[s.Fillings[0].Order[len(res.Places)-1]]
	assert.Less(t, first.At[2], -20.0)
	assert.Greater(t, late.At[0], first.At[0])
}

// What is prepared follows from the form of the pieces and from the house's way.
func TestPreparationFollowsFromTheHair(t *testing.T) {
	keys := func(in plan.Input) (out []string) {
		s, err := need.Supply(plantest.Solve(t, in))
		require.NoError(t, err)
		for _, task := range s.Tasks {
			if assert.NotEmpty(t, task.Steps, task.Key); task.Key == "ready" {
				continue // things to have at hand: no work
			}
			out = append(out, task.Key)
			assert.Positive(t, task.Minutes, task.Key)
		}
		return out
	}
	assert.Equal(t, []string{"rinse", "stretch:p1"}, keys(plan.Default()))
	in := plan.Default()
	in.Customs = map[string]string{"rinse": "new"}
	in = plantest.WithPiece(in, func(p *hair.Piece) { p.Loop = 30 })
	assert.Empty(t, keys(in), "a loop that is wide enough, and hair used as it comes")
	in.Ways = slices.Clone(in.Ways)
	in.Ways[0] = plan.NewWay(plantest.FirstWay, method.CollarAndWrap)
	assert.Equal(t, []string{"wrap:w1"}, keys(in))

	bulk := plantest.WithPiece(plan.Default(), func(p *hair.Piece) {
		p.Form, p.Length, p.Sold, p.Pack = hair.Bulk, 254, 1016, hair.Pack{Units: 32, Cuts: 2, Splits: 3}
	})
	bulk.Ways = slices.Clone(bulk.Ways)
	bulk.Ways[0] = plan.NewWay(plantest.FirstWay, method.FoldAndTwist)
	s, err := need.Supply(plantest.Solve(t, bulk))
	require.NoError(t, err)
	cut := s.Tasks[0]
	require.Equal(t, "cut:p1", cut.Key)
	// A strand of 40 in cut in two and folded hangs 10 in; each gives six.
	assert.InDelta(t, 254, cut.Cut.Hanging(), 1e-9)
	needed := s.Need.Pieces[0].OnHead + s.Need.Pieces[0].Fill + s.Need.Pieces[0].Spares
	assert.Equal(t, (needed+5)/6, cut.Count)

	made := plantest.WithPiece(plan.Default(), func(p *hair.Piece) { p.Form, p.Length, p.Thickness, p.Loop = hair.HandmadeLoc, 610, 10, 30 })
	made.Ways = slices.Clone(made.Ways)
	made.Ways[0] = plan.NewWay(plantest.FirstWay, method.SharedLoop)
	made.Customs = map[string]string{"pieces": "made"}
	s, err = need.Supply(plantest.Solve(t, made))
	require.NoError(t, err)
	assert.Equal(t, "make:p1", s.Tasks[0].Key)
	require.NotEmpty(t, s.Tasks[0].Batches)
	assert.Equal(t, s.Tasks[0].Count, s.Tasks[0].Batches[len(s.Tasks[0].Batches)-1].To)
}

// The chosen amount decides what is bought, and says so.
func TestTheChosenAmountIsBought(t *testing.T) {
	in := plan.Default()
	spares := func(a supply.AmountName) need.PieceNeed {
		in.Spares.Amount = a
		res, err := tally.Compute(t.Context(), in)
		require.NoError(t, err)
		return res.Need.Pieces[0]
	}
	least, likely, safe := spares(supply.LeastAmount), spares(supply.LikelyAmount), spares(supply.SafeAmount)
	assert.Zero(t, least.Spares)
	assert.Greater(t, likely.Spares, 0)
	assert.Greater(t, safe.Spares, likely.Spares)
	assert.GreaterOrEqual(t, safe.Enough, supply.SafeShare)
	assert.Equal(t, safe.Amounts.Safe, safe.OnHead+safe.Spares)
	in.Spares.Spoilt = 0.1
	assert.Greater(t, spares(supply.SafeAmount).Spares, safe.Spares, "a studio that spoils more")
}

// A plan with a mix, accents, a day, an amount and pieces of the supplies is written and read back as it
// was; earlier documents have none of it and mean what they meant.
func TestWhatIsSuppliedGoesThereAndBack(t *testing.T) {
	in := plantest.InTwoColours()
	in.Pieces = slices.Clone(in.Pieces)
	in.Pieces[1].Item, in.Pieces[1].Swatch, in.Pieces[1].Stiffness, in.Pieces[1].Sold = "item", "#b98a4a", hair.Firm, 1016
	in.Pieces[1].Offers = []hair.Offer{{Packs: 6, Price: 6600, Supplier: "near"}}
	in.Ways = slices.Clone(in.Ways)
	in.Ways[0] = plan.NewWay(plantest.FirstWay, method.CollarAndWrap)
	in.Ways[0].Wrapping.Name, in.Ways[0].Wrapping.Item, in.Ways[0].Wrapping.Cuts = "Marlow wrap", "wrap", 2
	in.Accents = []plan.Accent{{Thing: &plan.Thing{Name: "Cuff", Mass: 0.6, Pack: 12, Price: 450, Item: "cuffs", Colour: "Brass"}, Where: plan.Where{Kind: plan.InFront}, Count: 8}}
	in.Day, in.Spares.Amount = &plan.Day{Install: "2027-03-20"}, supply.LikelyAmount
	require.NoError(t, plan.Check(in))
	raw, err := plan.File{Title: "All of it", Input: in}.Encode()
	require.NoError(t, err)
	back, err := plan.ReadFile(bytes.NewReader(raw))
	require.NoError(t, err)
	assert.Equal(t, in, back.Input)

	plain, err := json.Marshal(plan.Default())
	require.NoError(t, err)
	for _, field := range []string{"mix", "accents", "\"day\"", "amount", "swatch", "soldMm", "\"item\""} {
		assert.NotContains(t, string(plain), field, "what is not said is not written")
	}
	told := plan.Changes(plan.Default(), in)
	var labels []string
	for _, c := range told {
		labels = append(labels, c.Label)
	}
	for _, label := range []string{"Pieces", "Methods", "What goes where", "Spares as much as", "Accents", "Day of the install"} {
		assert.Contains(t, labels, label)
	}
}
