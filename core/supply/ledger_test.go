package supply

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
)

// Five hundred random lives of a lot, booked move by move and cut anywhere into before and this year: the
// account closes, what is left is what lies there, and pieces counted beside the ledger agree.
func TestLedgerClosesOverFiveHundredLives(t *testing.T) {
	random := rand.New(rand.NewPCG(16, 500))
	for life := range 500 {
		lot := Lot{Pack: 1 + random.IntN(40), Condition: New, Round: random.IntN(2)}
		var have Stock
		var lines []Posting
		bought, used, came, spoilt := 0, 0, 0, 0 // beside the ledger
		moves := 2 + random.IntN(30)
		cut := random.IntN(moves)
		for n := range moves {
			kind := Moves[random.IntN(len(Moves))].Kind
			m := Stock{Packs: random.IntN(4), Loose: random.IntN(30)}
			reason := ""
			if kind == Adjusted {
				m, reason = Stock{Packs: random.IntN(5) - 2, Loose: random.IntN(21) - 10}, "found behind the shelf"
			}
			entries, err := lot.Book(have, kind, m, reason)
			if err != nil {
				continue
			}
			have = have.After(entries...)
			for _, e := range entries {
				lines = append(lines, Posting{e, n < cut})
			}
			if n < cut {
				continue
			}
			switch kind {
			case Bought:
				bought += m.Pieces(lot.Pack)
			case Used:
				used += m.Pieces(lot.Pack)
			case Saved:
				came += m.Pieces(lot.Pack)
			case Spoilt:
				spoilt += m.Pieces(lot.Pack)
			}
		}
		a := AccountOf(lot, lines)
		require.True(t, a.Closes(), "life %d: %+v", life, a)
		assert.Equal(t, have.Pieces(lot.Pack), a.LeftNew+a.LeftSaved, "life %d", life)
		assert.Equal(t, []int{bought, used - came, came, spoilt}, []int{a.Bought, a.UsedUp, a.Saved, a.Spoilt}, "life %d", life)
		money := a.Times(float64(random.IntN(9000)) / 37)
		assert.True(t, money.Closes(), "life %d in money: %+v", life, money)
		assert.True(t, a.Plus(a).Closes())
	}
}

// A piece costs the least of what its packs are sold for.
func TestUnitPriceIsTheLeast(t *testing.T) {
	i := Item{Pack: hair.Pack{Units: 20}, Offers: []hair.Offer{{Packs: 1, Price: 1250}, {Packs: 6, Price: 6600}, {Packs: 2}}}
	assert.InDelta(t, 55, i.UnitPrice(), 1e-9)
	assert.Zero(t, Item{Pack: hair.Pack{Units: 20}}.UnitPrice())
}
