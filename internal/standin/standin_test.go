package standin

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
	"kladotex/core/invalid"
)

// Every line of both lists is one a studio can take over as it is, and a plan can hang.
func TestListsCanBeTakenOver(t *testing.T) {
	for _, s := range Suppliers {
		list := List(s.Key, time.Now())
		require.NotEmpty(t, list, s.Name)
		numbers := map[string]bool{}
		for _, l := range list {
			assert.NoError(t, l.Item.Check(), l.Item.Name)
			assert.False(t, numbers[l.Number], "%s twice", l.Number)
			numbers[l.Number] = true
			assert.Equal(t, l.Number, l.Item.Articles[0].Number)
			for _, o := range l.Item.Offers {
				assert.Equal(t, s.Key, o.Supplier)
				assert.Zero(t, o.Price%10, "prices end in a round figure")
			}
			if !l.Item.Kind.Facts().Hangs {
				continue
			}
			var bad invalid.Errors
			l.Item.Piece("p", "", "").Check(&bad, "")
			assert.Empty(t, bad, l.Item.Name)
		}
	}
	assert.Nil(t, List("nobody", time.Now()))
}

// Prices hold for a week, and some have moved a month later, by no more than a few in a hundred.
func TestPricesMoveFromWeekToWeek(t *testing.T) {
	monday := time.Date(2027, 3, 1, 9, 0, 0, 0, time.UTC)
	prices := func(day time.Time) (out []hair.Offer) {
		for _, l := range List(Chandlery, day) {
			out = append(out, l.Item.Offers...)
		}
		return out
	}
	assert.Equal(t, prices(monday), prices(monday.AddDate(0, 0, 6)))
	moved := 0
	for week := 1; week <= 8; week++ {
		later := prices(monday.AddDate(0, 0, 7*week))
		for i, o := range prices(monday) {
			if later[i].Price != o.Price {
				moved++
			}
			assert.InEpsilon(t, o.Price, later[i].Price, 0.1)
		}
	}
	assert.Positive(t, moved)
}

// The scale swings and comes to rest near what the label says: bags and pieces.
func TestScaleComesToRest(t *testing.T) {
	for _, l := range List(Chandlery, time.Now()) {
		if !l.Item.Kind.Facts().Hair {
			continue
		}
		readings := Weigh(l.Item, 2)
		rest := readings[len(readings)-1]
		label := 2 * (Bag() + l.Item.Mass*float64(l.Item.Pack.Units))
		assert.InEpsilon(t, label, rest, 0.012, l.Item.Name)
		assert.NotEqual(t, rest, readings[0])
		// Close enough to count a pack by its weight.
		pieces := (rest - 2*Bag()) / l.Item.Mass
		assert.InDelta(t, 2*l.Item.Pack.Units, pieces, 0.011*float64(2*l.Item.Pack.Units), l.Item.Name)
	}
	unknown := List(Chandlery, time.Now())[0].Item
	unknown.Mass = 0
	readings := Weigh(unknown, 1)
	assert.InEpsilon(t, Bag()+4.2*20, readings[len(readings)-1], 0.06, "a soft loc of 18 in weighs about 4 g (common practice, no source)")
}

// Common practice, no source: pieces weigh 1.5 to 6 g or a little more, packs hold 10 to 60.
func TestPriceListIsBelievable(t *testing.T) {
	for _, p := range PriceList() {
		assert.True(t, p.Mass >= 1.5 && p.Mass <= 7, "%s weighs %.1f g", p.Name, p.Mass)
		assert.True(t, p.Pack.Yield() >= 10 && p.Pack.Yield() <= 64, "%s: %d", p.Name, p.Pack.Yield())
		each := float64(p.Offers[0].Price) / float64(p.Pack.Yield())
		assert.True(t, each > 5 && each < 200, "%s: %.0f a piece", p.Name, each)
	}
}
