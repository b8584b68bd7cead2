package supply

import (
	"math"
	"math/rand/v2"
	"slices"
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

// cheapestOfAll finds the cheapest purchase by trying every number of every offer of every want, with
// the fee of every seller any of them is bought of.
func cheapestOfAll(wants []Want, sellers []Seller) int64 {
	best := int64(math.MaxInt64)
	var walk func(want, offer, packs int, used map[string]bool, spent int64)
	walk = func(want, offer, packs int, used map[string]bool, spent int64) {
		if spent >= best {
			return
		}
		if want == len(wants) {
			for _, s := range sellers {
				if used[s.Key] {
					spent += s.Fee
				}
			}
			best = min(best, spent)
			return
		}
		w := wants[want]
		if packs*w.Yield >= w.Need {
			walk(want+1, 0, 0, used, spent)
			return
		}
		for k := offer; k < len(w.Offers); k++ {
			o := w.Offers[k]
			had := used[o.Supplier]
			used[o.Supplier] = true
			walk(want, k, packs+o.Packs, used, spent+o.Price)
			used[o.Supplier] = had
		}
	}
	walk(0, 0, 0, map[string]bool{}, 0)
	return best
}

// The purchase over sellers, their fees and all wants against every combination there is.
func TestPurchaseIsTheCheapestOverSellersAndWants(t *testing.T) {
	r := rand.New(rand.NewPCG(12, 12))
	for range 300 {
		sellers := []Seller{{Key: "near", Fee: int64(r.IntN(12)) * 100}, {Key: "far", Fee: int64(r.IntN(12)) * 100}, {Key: "other", Fee: 300}}[:1+r.IntN(3)]
		wants := make([]Want, 1+r.IntN(3))
		for i := range wants {
			w := Want{Key: "w", Need: r.IntN(90), Yield: 10 + r.IntN(20)}
			for range 1 + r.IntN(4) {
				o := hair.Offer{Packs: 1 + r.IntN(4), Price: int64(3+r.IntN(30)) * 100}
				if k := r.IntN(len(sellers) + 1); k < len(sellers) {
					o.Supplier = sellers[k].Key
				}
				w.Offers = append(w.Offers, o)
			}
			wants[i] = w
		}
		p, err := PurchaseAll(wants, sellers)
		require.NoError(t, err)
		require.Equal(t, cheapestOfAll(wants, sellers), p.Total(), "%+v of %+v", wants, sellers)
		var goods, fees int64
		for i, order := range p.Orders {
			require.GreaterOrEqual(t, order.Units, wants[i].Need)
			goods += order.Cost
		}
		for _, s := range sellers {
			if slices.Contains(p.Sellers, s.Key) {
				fees += s.Fee
			}
		}
		require.Equal(t, p.Goods, goods)
		require.Equal(t, p.Fees, fees)
	}
}

// What the stash covers whole costs nothing, not even a delivery.
func TestNothingIsBoughtForNothing(t *testing.T) {
	p, err := PurchaseAll([]Want{{Key: "w", Need: 0, Yield: 20, Offers: []hair.Offer{{Packs: 1, Price: 900, Supplier: "near"}}}}, []Seller{{Key: "near", Fee: 500}})
	require.NoError(t, err)
	assert.Zero(t, p.Total())
	assert.Empty(t, p.Sellers)
	_, err = PurchaseAll([]Want{{Key: "w", Need: 5, Yield: 20}}, nil)
	assert.Error(t, err, "nobody sells it")
}
