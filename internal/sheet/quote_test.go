package sheet

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/care"
	"kladotex/core/fall"
	"kladotex/core/freeze"
	"kladotex/core/hang"
	"kladotex/core/plan"
	"kladotex/core/quote"
	"kladotex/core/wear"
)

// The plan sheet tells how it hangs: at what height, where rows end, what is cut off.
func TestTheSheetTellsHowItHangs(t *testing.T) {
	t.Parallel()
	in := plan.Default()
	in.Stature = 1700
	in.Trim = &plan.Trim{Shape: fall.Layers, Line: "waist"}
	p := computed(t, in)
	drape, err := hang.Of(t.Context(), solved(t, in), fall.Down)
	require.NoError(t, err)
	landings, err := hang.Land(t.Context(), solved(t, in))
	require.NoError(t, err)
	p.Drape, p.Landings = &drape, &landings
	text := written(t, p)
	for _, says := range []string{"How it hangs", "At 66⅞ in standing", "Layers: the lowest row ends at the waist", "Guide piece", "Back, row 1", "falls short by", "Fullness"} {
		assert.Contains(t, text, says)
	}
	p.Drape = nil
	assert.NotContains(t, written(t, p), "How it hangs")
}

// A quote on paper says what it says on the screen, in its own currency.
func TestAQuoteOnPaper(t *testing.T) {
	t.Parallel()
	in := plan.Default()
	p := computed(t, in)
	drape, err := hang.Of(t.Context(), solved(t, in), fall.Down)
	require.NoError(t, err)
	terms := quote.Terms{Name: "Tidewheel Loft", Rate: 3200, Deposit: 25, TaxName: "Sales tax", Tax: 8.875, ValidDays: 30}
	price := terms.Of(quote.Basis{}, freeze.Bought(in, p.Result.Need), quote.Labour{Minutes: p.Result.Tally.Minutes, People: 1})
	worn := care.Brief(solved(t, in), p.Result.Work)
	told := worn.Told(wear.Rules{Weeks: wear.Weeks{Least: 6, Most: 8}})
	letter := quote.Letter{
		Title: "The cellist", Client: "Ysolde Abarinwe", Studio: terms.Name, By: "Odalys Brandt", On: "2026-11-27", Until: "2026-12-27",
		Currency: "EUR", Price: price, Included: freeze.Included(in, p.Result), Cautions: []string{"Fragile edges."}, Care: told.Lines(),
		Conditions: "The deposit is kept when the day is given up within two days.",
	}
	body, err := QuotePDF(t.Context(), Quote{Number: 7, Given: letter, At: time.Now(), Input: in, Result: p.Result, Drape: drape}, Style{Unit: Inches, Paper: "a4"})
	require.NoError(t, err)
	text := textOf(t, body)
	for _, says := range []string{
		"Quote 7", "Tidewheel Loft", "For Ysolde Abarinwe", "until Sunday, 27 December 2026", "Sales tax 8.875 %",
		money(price.Total, "EUR"), money(price.Deposit, "EUR"), money(price.Rest, "EUR"), "pieces hung", "Fragile edges.", "not medical advice",
		"The deposit is kept", "Worn for 6 to 8 weeks",
	} {
		assert.Contains(t, text, says)
	}
}
