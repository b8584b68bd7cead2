package hang

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
	"kladotex/core/scalp"
)

// Runs of bare places, single pieces across them or not.
func TestGapsAlongACornrow(t *testing.T) {
	cover := []int{1, 0, 0, 1, 0, 0, 1, 1, 1, 0, 0}
	of := make([]int, len(cover))
	runs := gaps(cover, of, 1)
	require.Len(t, runs, 2)
	assert.Equal(t, [2]int{1, 6}, [2]int{runs[0].from, runs[0].to})
	assert.InDelta(t, 0.8, runs[0].bare, 1e-9)
	assert.Equal(t, [2]int{9, 11}, [2]int{runs[1].from, runs[1].to})
	// One cornrow ends where the next begins.
	of = []int{0, 0, 0, 0, 1, 1, 1, 1, 1, 1, 1}
	assert.Len(t, gaps(cover, of, 1), 3)
	assert.Empty(t, gaps([]int{1, 2, 1}, make([]int, 3), 2))
}

// What shows alike on both sides is one thing, filled by one touch.
func TestBothSidesAreOne(t *testing.T) {
	sol := plantest.Solve(t, plan.Default())
	left := Showing{Kind: onScalp, Name: "Scalp shows", Area: 400, Points: scalp.Line{{-60, 50, 60}, {-62, 52, 58}}}
	right := Showing{Kind: onScalp, Name: "Scalp shows", Area: 390, Points: scalp.Line{{-60, -50, 60}, {-62, -51, 58}}}
	other := Showing{Kind: onScalp, Name: "Scalp shows", Area: 350, Points: scalp.Line{{60, -40, 70}}}
	out := paired(sol, []Showing{left, other, right})
	require.Len(t, out, 2)
	assert.Equal(t, 790.0, out[0].Area)
	assert.Len(t, out[0].Points, 4)
	assert.Contains(t, out[0].Name, "both sides")
	assert.Contains(t, out[1].Name, "right")
}

// Places along a line stand at even steps.
func TestPlacesAlongALine(t *testing.T) {
	at := along(scalp.Line{{0}, {12}, {12, 20, 0}}, 5)
	require.Len(t, at, 6)
	for i := 1; i < len(at); i++ {
		assert.LessOrEqual(t, r3.Norm(r3.Sub(at[i], at[i-1])), 5.0+1e-9)
	}
	assert.Equal(t, r3.Vec{X: 2.5}, at[0])
}
