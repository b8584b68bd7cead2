package quote

import (
	"math/big"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"kladotex/core/invalid"
)

// A share is that of exact arithmetic, rounded to the nearest minor unit, halves away from
// zero.
func TestSharesAreExact(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		amount := rapid.Int64Range(-MostAmount, MostAmount).Draw(t, "amount")
		thousandths := rapid.Int64Range(0, 100_000).Draw(t, "thousandths of a percent")
		exact := big.NewRat(amount*thousandths, 100_000)
		got := Percent(float64(thousandths) / 1000).Of(amount)
		off := new(big.Rat).Sub(exact, big.NewRat(got, 1))
		half := big.NewRat(1, 2)
		require.LessOrEqual(t, off.Abs(off).Cmp(half), 0)
		if new(big.Rat).Abs(exact).Cmp(big.NewRat(0, 1)) > 0 && off.Cmp(half) == 0 {
			assert.Equal(t, 1, new(big.Rat).Abs(big.NewRat(got, 1)).Cmp(new(big.Rat).Abs(exact)), "a half is rounded away from zero")
		}
	})
}

// The sum of the lines, with the tax where it comes on top, is the total; deposit and rest
// make it up; the tax within a price is that on top of what is left without it.
func TestSumsAreExact(t *testing.T) {
	amounts := rapid.Int64Range(0, MostAmount/100)
	rapid.Check(t, func(t *rapid.T) {
		terms := Terms{
			Rate:    rapid.Int64Range(0, 1_000_000).Draw(t, "rate"),
			Deposit: Percent(rapid.IntRange(0, 100).Draw(t, "deposit")),
			Tax:     Percent(float64(rapid.IntRange(0, 25_000).Draw(t, "tax")) / 1000), TaxIncluded: rapid.Bool().Draw(t, "included"),
			ValidDays: 30,
		}
		wish := Basis{BringsHair: rapid.Bool().Draw(t, "brings hair")}
		for range rapid.IntRange(0, 4).Draw(t, "extras") {
			wish.Extras = append(wish.Extras, Extra{"Extra", rapid.Int64Range(-MostAmount, 100_000).Draw(t, "extra")})
		}
		var bought []Charge
		for range rapid.IntRange(0, 5).Draw(t, "packs") {
			bought = append(bought, Charge{Kind: Hair, Amount: amounts.Draw(t, "hair")})
		}
		minutes := rapid.Float64Range(0, 3000).Draw(t, "minutes")
		p := terms.Of(wish, bought, Labour{Minutes: minutes, People: 1})

		sum := int64(0)
		for _, l := range p.Lines {
			assert.False(t, wish.BringsHair && l.Kind == Hair, "hair that the client brings is not charged")
			sum += l.Amount
		}
		assert.GreaterOrEqual(t, sum, int64(0), "what is taken off takes off what there is, and the lines say so")
		if terms.TaxIncluded {
			assert.Equal(t, sum, p.Total)
			assert.InDelta(t, float64(p.Tax), float64(terms.Tax)/100*float64(p.Total-p.Tax), 1)
		} else {
			assert.Equal(t, sum+p.Tax, p.Total)
		}
		assert.Equal(t, p.Total, p.Deposit+p.Rest)
		assert.GreaterOrEqual(t, p.Rest, int64(0))
	})
}

func TestAPriceByHand(t *testing.T) {
	// 5 packs at 12.50, 5 h 40 min at 32.00 an hour: charged as 5¾ h, 184.00; 15.00 for
	// washing, 10.00 off. 8.875 % on 251.50 is 22.320625.
	terms := Terms{Rate: 3000, Rates: map[string]int64{"tamsin": 3200}, Deposit: 20, TaxName: "Sales tax", Tax: 8.875, ValidDays: 30}
	p := terms.Of(Basis{Person: "tamsin", Extras: []Extra{{"Wash and dry", 1500}, {"First visit", -1000}}},
		[]Charge{{Kind: Hair, Name: "Locs", Amount: 6250}}, Labour{Minutes: 340, People: 1})
	var amounts []int64
	for _, l := range p.Lines {
		amounts = append(amounts, l.Amount)
	}
	assert.Equal(t, []int64{6250, 18400, 1500, -1000}, amounts)
	assert.Equal(t, int64(2232), p.Tax)
	assert.Equal(t, int64(27382), p.Total)
	assert.Equal(t, int64(5476), p.Deposit)
	assert.Equal(t, int64(21906), p.Rest)
	// The same with the tax in it: 251.50 ÷ 1.08875 leaves 231.00.
	terms.TaxIncluded = true
	p = terms.Of(Basis{Person: "tamsin", Extras: []Extra{{"Wash and dry", 1500}, {"First visit", -1000}}},
		[]Charge{{Kind: Hair, Name: "Locs", Amount: 6250}}, Labour{Minutes: 340, People: 1})
	assert.Equal(t, int64(25150), p.Total)
	assert.Equal(t, int64(2050), p.Tax)
	// In a currency without minor units the same numbers are whole ones: nothing depends on it.
	assert.Equal(t, int64(1), Percent(10).Of(5))
	assert.Equal(t, int64(0), Percent(10).Of(4))
}

func TestTermsThatCanNotBe(t *testing.T) {
	for path, change := range map[string]func(*Terms){
		"taxPercent":     func(t *Terms) { t.Tax = 8.12345 },
		"depositPercent": func(t *Terms) { t.Deposit = 120 },
		"rateMinor":      func(t *Terms) { t.Rate = -1 },
		"validDays":      func(t *Terms) { t.ValidDays = 0 },
		"ratesMinor.x":   func(t *Terms) { t.Rates = map[string]int64{"x": MostAmount + 1} },
	} {
		terms := UsualTerms()
		change(&terms)
		var bad invalid.Errors
		terms.Check(&bad, "")
		require.Len(t, bad, 1, path)
		assert.Equal(t, path, bad[0].Path)
	}
	var bad invalid.Errors
	UsualTerms().Check(&bad, "")
	Basis{Extras: []Extra{{"", 5}}}.Check(&bad, "")
	require.Len(t, bad, 1)
	assert.Equal(t, "extras[0].name", bad[0].Path)
}
