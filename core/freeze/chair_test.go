package freeze_test

import (
	"context"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/chair"
	"kladotex/core/freeze"
	"kladotex/core/hours"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
	"kladotex/core/tally"
)

// What goes to the chair is the plan: every place once, its pieces, its minutes and its sittings, with
// the same rows on both sides where nothing keeps them apart.
func TestTheChairGetsThePlan(t *testing.T) {
	for _, structure := range parting.Structures {
		t.Run(string(structure), func(t *testing.T) {
			in := plan.Default()
			in.Parting.Structure = structure
			for _, r := range parting.Rules() {
				if r.Structure == structure {
					in.Parting.Base = r.Start
				}
			}
			sit := in.UsualSittings()
			sit.Longest = 120
			in.Day = &plan.Day{Sittings: &sit}
			c, err := freeze.ForChair(plantest.Solve(t, in))
			require.NoError(t, err)
			day, err := hours.DayOf(plantest.Solve(t, in))
			require.NoError(t, err)
			res, err := tally.Compute(context.Background(), in)
			require.NoError(t, err)
			b := c.Brief
			require.Len(t, b.Places, len(res.Places))
			attached := map[int]int{}
			minutes, rates := 0.0, 0.0
			keys := map[string]bool{}
			for _, task := range b.Tasks {
				assert.False(t, keys[task.Key], task.Key)
				keys[task.Key] = true
				minutes += task.Minutes[0]
				rates += task.Rate
				assert.Less(t, task.Sitting, len(b.Sittings))
				if task.Place >= 0 && task.Kind != pace.Plaits {
					attached[task.Place]++
				}
			}
			assert.Len(t, attached, len(res.Places))
			assert.InDelta(t, day.Hours.Total.Likely, minutes, 1e-6)
			assert.InDelta(t, day.Practised, rates, 1e-6)
			assert.True(t, slices.IsSortedFunc(b.Tasks, func(a, o chair.Task) int { return a.Sitting - o.Sitting }), "a sitting is a stretch of the list")
			pieces := 0
			for i, p := range b.Places {
				pieces += p.Count
				assert.Equal(t, res.Places[i].ID, p.ID)
				assert.GreaterOrEqual(t, p.Step, 0)
				assert.Greater(t, p.Middle, -1e-9)
				assert.Less(t, p.Middle, 300.0)
			}
			assert.Equal(t, b.Pieces[0].Need, pieces+in.Fill.Total())
			for r, row := range b.Rows {
				if row.Mirror >= 0 {
					assert.Equal(t, r, b.Rows[row.Mirror].Mirror)
					assert.NotEqual(t, row.Left, b.Rows[row.Mirror].Left)
				}
			}
			v := b.Fold(nil).View(chair.Wish{ByRow: b.ByRow})
			assert.InDelta(t, minutes, v.Watch.Left.Likely, 1e-6)
			for _, side := range v.Watch.Balance {
				assert.False(t, side.Odd, side.Name)
			}
		})
	}
}
