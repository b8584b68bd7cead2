package compare_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/compare"
	"kladotex/core/internal/countdown"
	"kladotex/core/invalid"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
	"kladotex/core/tally"
)

func TestTradeOffIsThePlanAtOtherSizes(t *testing.T) {
	in := plan.Default()
	in.Parting.Front.Width = 19.05
	trade, err := compare.TradeOff(context.Background(), plantest.Solve(t, in))
	require.NoError(t, err)
	points := trade.Sizes
	require.Len(t, points, 13)
	own := compute(t, in).Tally
	for i, p := range points {
		if p.Width == in.Parting.Back.Width {
			assert.Equal(t, compare.TradePoint{p.Width, own.Sections, own.Pieces, own.Packs, own.Cost, own.Minutes}, p)
		}
		if i > 0 {
			assert.LessOrEqual(t, p.Sections, points[i-1].Sections)
			assert.LessOrEqual(t, p.Minutes, points[i-1].Minutes)
			assert.LessOrEqual(t, p.Packs, points[i-1].Packs)
		}
	}
	// Half the size, four times the sections, roughly.
	assert.InEpsilon(t, 4, float64(points[0].Sections)/float64(points[4].Sections), 0.15)
	in.Spares.Percent = -1
	_, err = plan.Solve(context.Background(), in)
	require.NotEmpty(t, invalid.From(err))
	assert.Equal(t, "spares.percent", invalid.From(err)[0].Path)
}

// A comparison that nobody waits for any more lays no further head.
func TestTradeOffStopsWithItsContext(t *testing.T) {
	const plenty = 1 << 40
	whole := countdown.From(plenty)
	sol := plantest.Solve(t, plan.Default())
	_, err := compare.TradeOff(whole, sol)
	require.NoError(t, err)
	asked := plenty - whole.Left()
	for share := range int64(8) {
		ctx := countdown.From(asked * share / 8)
		_, err := compare.TradeOff(ctx, sol)
		require.ErrorIs(t, err, context.Canceled, "%d eighths", share)
		assert.Less(t, -ctx.Left(), int64(20), "%d eighths", share)
	}
}

// Common practice, no source: individuals in front and cornrows behind give the look in
// about half the time, a horseshoe or a part line with cornrows in less; and a cornrow is hooked in
// seconds where a plait takes minutes.
func TestWhatStructuresSave(t *testing.T) {
	in := plan.Default()
	trade, err := compare.TradeOff(context.Background(), plantest.Solve(t, in))
	require.NoError(t, err)
	at := map[parting.Structure]compare.StructurePoint{}
	for _, p := range trade.Structures {
		at[p.Structure] = p
	}
	require.Len(t, at, len(parting.Structures))
	whole := compute(t, in).Tally
	assert.Equal(t, whole.Minutes, at[parting.AllIndividuals].Minutes)
	for _, s := range []parting.Structure{parting.EarToEar, parting.Horseshoe, parting.Perimeter, parting.PartLine} {
		assert.InDelta(t, whole.Minutes-at[s].Minutes, at[s].SavedMinutes, 1e-9)
		assert.Less(t, at[s].Minutes, 0.8*whole.Minutes, s)
		assert.Less(t, at[s].Sections, whole.Sections)
	}
	assert.Less(t, at[parting.PartLine].Minutes, at[parting.EarToEar].Minutes)
	assert.InDelta(t, 0.5, at[parting.EarToEar].Minutes/whole.Minutes, 0.17)
	assert.Less(t, at[parting.Horseshoe].Minutes, at[parting.EarToEar].Minutes)

	in.Parting.Structure = parting.EarToEar
	res := compute(t, in)
	hooked := res.Need.Pieces[0].Hooked
	assert.Equal(t, res.Layout.Hooks(), hooked)
	assert.Equal(t, len(res.Layout.Sections)+hooked, res.Tally.Pieces)
	var hook float64
	for _, s := range res.Hours.Stages {
		if s.Name == "Hook on" {
			hook = s.Minutes.Likely
		}
	}
	// Common practice, no source: 120 pieces are hooked on cornrows in 40 to 60 minutes, sorting
	// among them.
	assert.True(t, hook*120/float64(hooked) >= 40 && hook*120/float64(hooked) <= 60, "%v minutes", hook)
}

// compute sums up a plan that must work.
func compute(t testing.TB, in plan.Input) tally.Result {
	t.Helper()
	res, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	return res
}
