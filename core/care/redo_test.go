package care_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/chair"
	"kladotex/core/freeze"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
	"kladotex/core/tally"
)

// A plan of the outer rows works, buys and times those alone; all else stays where it is, and still
// weighs. The second row takes in the first.
func TestOnlyOuterRowsAreDoneAgain(t *testing.T) {
	for _, structure := range []parting.Structure{parting.AllIndividuals, parting.EarToEar, parting.Perimeter} {
		in := plan.Default()
		in.Parting.Structure = structure
		whole, err := tally.Compute(t.Context(), in)
		require.NoError(t, err)
		var before tally.Result
		for rows := 1; rows <= 2; rows++ {
			in.Redo = &plan.Redo{Install: "an-install", Rows: rows}
			r, err := tally.Compute(t.Context(), in)
			require.NoError(t, err)
			done := 0
			for _, p := range r.Places {
				if !p.Kept {
					done += p.Count
					assert.Equal(t, method.OnPlait, p.Ground)
				}
			}
			assert.Equal(t, done, r.Tally.Pieces)
			assert.Positive(t, done)
			assert.Less(t, r.Tally.Pieces, whole.Tally.Pieces)
			assert.Less(t, r.Tally.Minutes, whole.Tally.Minutes)
			assert.InDelta(t, whole.Tally.Weight, r.Tally.Weight, 1)
			assert.Equal(t, whole.Tally.Sections, r.Tally.Sections)
			if rows == 2 {
				for i := range r.Places {
					assert.True(t, before.Places[i].Kept || !r.Places[i].Kept, "the ring is in it")
				}
			}
			before = r
			at, err := freeze.ForChair(plantest.Solve(t, in))
			require.NoError(t, err)
			pieces, cornrows := 0, 0
			for _, task := range at.Brief.Tasks {
				if task.Place >= 0 {
					assert.False(t, r.Places[task.Place].Kept)
					if task.Kind != "plaits" {
						pieces += at.Brief.Places[task.Place].Count
					}
				}
				if task.Kind == "tracks" || task.Kind == "net" {
					cornrows++
				}
			}
			assert.Equal(t, done, pieces)
			assert.Zero(t, cornrows, "the base stays")
			state := at.Brief.Fold(nil)
			assert.Empty(t, state.View(chair.Wish{Hand: at.Brief.Hands[0].Key}).Watch.Missed)
		}
	}
}

// A ring of long plaits on an average head has 20 to 26 places, and redoing it takes an hour and a half
// to three (common practice, no source).
func TestARingIsAnEvening(t *testing.T) {
	in := plan.Default()
	in.Parting.Structure = parting.Perimeter
	at, err := freeze.ForChair(plantest.Solve(t, in))
	require.NoError(t, err)
	ring := at.Wear.Ring[0]
	assert.GreaterOrEqual(t, ring.Places, 18)
	assert.LessOrEqual(t, ring.Places, 28)
	assert.GreaterOrEqual(t, ring.Minutes, 75.0)
	assert.LessOrEqual(t, ring.Minutes, 180.0)
	assert.InDelta(t, 1, at.Wear.Taken, 0.001)
	off := 0.0
	places := 0
	for _, a := range at.Wear.Areas {
		off, places = off+a.Off, places+a.Places
	}
	assert.Equal(t, len(at.Brief.Places), places)
	assert.Less(t, off, 25.0)
}

// Where nothing hangs loose along the hairline there is no outer row.
func TestNoRingNoPlan(t *testing.T) {
	in := plan.Default()
	in.Parting.Structure = parting.Linked
	in.Redo = &plan.Redo{Install: "an-install", Rows: 1}
	_, err := tally.Compute(t.Context(), in)
	fields := invalid.From(err)
	require.NotEmpty(t, fields)
	assert.Equal(t, "redo.rows", fields[0].Path)
	in.Redo.Rows = 3
	assert.Equal(t, "redo.rows", invalid.From(plan.Check(in))[0].Path)
}
