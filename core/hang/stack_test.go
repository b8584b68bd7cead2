package hang_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
	"kladotex/core/hang"
	"kladotex/core/method"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
)

// The lowest of five pieces along a plait hangs from its tip, so that it ends lower by the plait than the
// one at its root.
func TestPiecesOfAStackHangFromWhereTheyAreHooked(t *testing.T) {
	in := plantest.Of(plantest.By(method.Stack, hair.CurlyBulk), plantest.Size(50), plantest.Grown(8), plantest.Piece(8*25.4, 8, 1.5))
	in.Ways[0].Settings["stations"] = 5
	sol := plantest.Solve(t, in)
	d, err := hang.Of(t.Context(), sol, "down")
	require.NoError(t, err)
	low, high, most := map[int]float64{}, map[int]float64{}, 0.0
	for _, p := range d.Pieces {
		end := p.Ends * d.Stature
		if have, ok := low[p.Place]; !ok || end < have {
			low[p.Place] = end
		}
		high[p.Place] = max(high[p.Place], end)
	}
	for i := range sol.Places {
		most = max(most, (high[i]-low[i])/sol.Places[i].Plait.Length())
	}
	assert.InDelta(t, 1, most, 0.25, "the difference is about the plait's length")
}

// The headline is told by what hangs everywhere: a few long accents do not lengthen a head, and the longest
// row stands beside it. No end goes through the floor.
func TestTheHeadlineIsThatOfTheMainPieces(t *testing.T) {
	in := plan.Default()
	plain, err := hang.Land(t.Context(), plantest.Solve(t, in))
	require.NoError(t, err)
	long := in.Pieces[0]
	long.Key, long.Length = "long", 1200
	in.Pieces = append(in.Pieces, long)
	in.Accents = []plan.Accent{{Piece: "long", Where: plan.Where{Kind: plan.Everywhere}, Count: 90}}
	more, err := hang.Land(t.Context(), plantest.Solve(t, in))
	require.NoError(t, err)
	assert.InDelta(t, plain.All.Middle, more.All.Middle, 0.02, "the accents are half as long again as it")
	assert.LessOrEqual(t, more.Longest.Lands.Middle, more.All.Middle)
	assert.NotEmpty(t, plain.Longest.Name)

	in = plan.Default()
	in.Pieces[0].Length, in.Stature = 1300, 1000
	d, err := hang.Of(t.Context(), plantest.Solve(t, in), "down")
	require.NoError(t, err)
	for _, p := range d.Pieces {
		assert.GreaterOrEqual(t, p.Ends, -1e-6)
	}
	l, err := hang.Land(t.Context(), plantest.Solve(t, in))
	require.NoError(t, err)
	assert.Contains(t, []string{"knee", "floor"}, l.All.Line)
}
