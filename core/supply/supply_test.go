package supply

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
)

// Common practice, no source: 8 packs of 20 give 160 pieces.
func TestEightPacksOfTwenty(t *testing.T) {
	o, err := Buy(160, 20, []hair.Offer{{Packs: 1, Price: 900}})
	require.NoError(t, err)
	assert.Equal(t, 8, o.Packs)
	assert.Equal(t, 160, o.Units)
	assert.Zero(t, o.Leftover)
	assert.EqualValues(t, 7200, o.Cost)
}

// cheapest tries every combination of offers.
func cheapest(need, yield int, offers []hair.Offer) (cost int64, packs int) {
	cost = math.MaxInt64
	var walk func(k, have int, spent int64)
	walk = func(k, have int, spent int64) {
		if have*yield >= need {
			if spent < cost || spent == cost && have < packs {
				cost, packs = spent, have
			}
			return
		}
		for ; k < len(offers); k++ {
			walk(k, have+offers[k].Packs, spent+offers[k].Price)
		}
	}
	walk(0, 0, 0)
	return cost, packs
}

func TestBuyFindsTheCheapestOrder(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 5))
	for range 400 {
		offers := make([]hair.Offer, 1+r.IntN(3))
		for i := range offers {
			offers[i] = hair.Offer{Packs: 1 + r.IntN(7), Price: int64(r.IntN(40)) * 100}
		}
		need, yield := r.IntN(200), 10+r.IntN(50)
		o, err := Buy(need, yield, offers)
		require.NoError(t, err)
		cost, packs := cheapest(need, yield, offers)
		require.Equal(t, cost, o.Cost, "%d of %d from %v", need, yield, offers)
		require.Equal(t, packs, o.Packs, "%d of %d from %v", need, yield, offers)
		var sum int64
		bought := 0
		for _, l := range o.Lines {
			sum += int64(l.Count) * l.Offer.Price
			bought += l.Count * l.Offer.Packs
		}
		require.Equal(t, o.Cost, sum)
		require.Equal(t, o.Packs, bought)
		require.GreaterOrEqual(t, o.Leftover, 0)
	}
}

func TestBuyRefusesOffersThatCoverNothing(t *testing.T) {
	for _, offers := range [][]hair.Offer{nil, {{Packs: 0, Price: 100}}, {{Packs: 1, Price: -1}}} {
		_, err := Buy(10, 20, offers)
		assert.Error(t, err)
	}
	_, err := Buy(10, 0, []hair.Offer{{Packs: 1, Price: 100}})
	assert.Error(t, err)
}

func TestSpares(t *testing.T) {
	assert.Equal(t, 8, Spares{Percent: 5, Least: 2}.Of(160))
	assert.Equal(t, 6, Spares{Percent: 5, Least: 2}.Of(101))
	assert.Equal(t, 2, Spares{Percent: 5, Least: 2}.Of(10))
}

// The ribbon against the length of a helix walked in small steps.
func TestWrapRibbonIsAHelix(t *testing.T) {
	const length, diameter, width, steps = 150.0, 6.0, 5.0, 200000
	walked, x, y := 0.0, diameter/2, 0.0
	for i := 1; i <= steps; i++ {
		sin, cos := math.Sincos(2 * math.Pi * length / width * float64(i) / steps)
		nx, ny := diameter/2*cos, diameter/2*sin
		walked += math.Sqrt((nx-x)*(nx-x) + (ny-y)*(ny-y) + (length/steps)*(length/steps))
		x, y = nx, ny
	}
	assert.InEpsilon(t, walked, WrapRibbon(length, diameter, width), 1e-5)
}
