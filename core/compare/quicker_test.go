package compare_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/compare"
	"kladotex/core/hours"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
)

// What is offered where the hours do not fit is a plan that can be laid, takes less time or
// fits by sittings, and says so truly. A plan that fits is offered nothing.
func TestWhatMakesTheHoursFit(t *testing.T) {
	in := plan.Default()
	in.OwnHead = true
	in.Day = &plan.Day{Within: 5 * 60}
	now := dayOf(t, in)
	require.Greater(t, now.Sum(), in.Day.Within)
	offers, err := compare.Quicken(t.Context(), plantest.Solve(t, in))
	require.NoError(t, err)
	found := map[string]compare.Quicker{}
	for _, o := range offers {
		found[o.Key] = o
		require.NoError(t, plan.Check(o.Input), o.Key)
		day := dayOf(t, o.Input)
		assert.InDelta(t, day.Sum(), o.Minutes, 1e-9, o.Key)
		assert.Len(t, day.Sittings, o.Sittings, o.Key)
		if o.Key == "sittings" {
			assert.LessOrEqual(t, o.Longest, in.Day.Within)
			continue
		}
		assert.Less(t, o.Minutes, now.Sum(), o.Key)
		assert.Equal(t, o.Fits, o.Minutes <= in.Day.Within, o.Key)
	}
	for _, key := range []string{"larger", "tracks", "line", "helper", "sittings"} {
		assert.Contains(t, found, key)
	}
	assert.True(t, found["larger"].Fits)
	assert.Less(t, found["larger"].Pieces, found["helper"].Pieces)
	assert.Equal(t, parting.EarToEar, found["tracks"].Input.Parting.Structure)
	in.Day.Within = 20 * 60
	none, err := compare.Quicken(t.Context(), plantest.Solve(t, in))
	require.NoError(t, err)
	assert.Empty(t, none)
}

func dayOf(t *testing.T, in plan.Input) hours.DayPlan {
	t.Helper()
	d, err := hours.DayOf(plantest.Solve(t, in))
	require.NoError(t, err)
	return d
}
