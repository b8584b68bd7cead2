package bond

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// joints are n rising shares of a row.
func joints(r *rand.Rand, n int) []float64 {
	out := make([]float64, n)
	for i := range out {
		out[i] = math.Round(40*r.Float64()) / 40 // now and then two rows have the same
	}
	slices.Sort(out)
	return out
}

// Walking both rows at once finds what looking at every pair does.
func TestGapsAreThoseOfEveryPair(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 4))
	for range 2000 {
		a, b := joints(r, 1+r.IntN(9)), joints(r, 1+r.IntN(9))
		least, sum := math.Inf(1), 0.0
		for _, pair := range [][2][]float64{{a, b}, {b, a}} {
			for _, x := range pair[0] {
				nearest := math.Inf(1)
				for _, y := range pair[1] {
					nearest = min(nearest, math.Abs(x-y))
				}
				least, sum = min(least, nearest), sum+nearest
			}
		}
		gotLeast, gotSum := gaps(a, b, 0)
		require.InDelta(t, least, gotLeast, 1e-12, "%v %v", a, b)
		require.InDelta(t, sum, gotSum, 1e-9, "%v %v", a, b)
	}
}

// Looking no further than the first broken rule never makes a broken bond look kept,
// and leaves the price of a kept one as it is.
func TestABrokenBondStaysBroken(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 5))
	kept, lost := 0, 0
	for range 2000 {
		n := 2 + r.IntN(8)
		below := Course{Length: float64(n), Joints: endJoints(n, endWidths{1, 1}, Border, Border)}
		n += r.IntN(3) - 1
		above := Course{Length: float64(n), Joints: endJoints(n, endWidths{0.75 + 0.5*r.Float64(), 0.75 + 0.5*r.Float64()}, Border, Border)}
		whole, quick := bondCost(&below, &above, math.Inf(1)), bondCost(&below, &above, 1)
		if whole < broken {
			kept++
			require.InDelta(t, whole, quick, 0)
		} else {
			lost++
			require.GreaterOrEqual(t, quick, float64(broken))
		}
	}
	assert.Greater(t, kept, 200)
	assert.Greater(t, lost, 200)
}

// Masonry codes define running bond by head joints offset at least a quarter unit in
// successive courses; half a unit is its usual form.
func TestHalfLappedCoursesAreAPerfectBond(t *testing.T) {
	below := Course{Length: 8, Joints: endJoints(8, endWidths{1, 1}, Border, Border)}
	above := Course{Length: 8, Joints: endJoints(9, endWidths{0.5, 0.5}, Border, Border)}
	least, mean, ok := Offsets(&below, &above, 0)
	require.True(t, ok)
	// Nine boxes, two of them halves, count nine: the mean width is that of 8½ sections.
	assert.InDelta(t, 0.5*8.5/8, least, 0.01)
	assert.InDelta(t, least, mean, 1e-9)
	_, _, ok = Offsets(&below, &Course{Length: 1}, 0)
	assert.False(t, ok, "a row of one section has no part end")
}
