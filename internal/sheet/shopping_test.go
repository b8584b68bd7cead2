package sheet

import (
	"context"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/need"
	"kladotex/core/plan"
	"kladotex/core/supply"
)

// shopped is a list of everything there can be on one.
func shopped(t *testing.T) Shopping {
	t.Helper()
	in := plan.Default()
	in.Pieces = []hair.Piece{in.Pieces[0]}
	p := &in.Pieces[0]
	p.Form, p.Sold, p.Length, p.Pack = hair.Bulk, 1016, 254, hair.Pack{Units: 32, Cuts: 2, Splits: 3}
	in.Ways = []plan.Way{plan.NewWay("w1", method.FoldAndTwist), in.Ways[1]}
	s, err := need.Supply(solved(t, in))
	require.NoError(t, err)
	return Shopping{
		Title: "The baker, four evenings", Client: "Delphine Quessant", Updated: time.Date(2027, 3, 1, 9, 0, 0, 0, time.UTC),
		Install: "2027-03-20", HomeBy: "2027-03-18", RinseOn: "2027-03-19", Stash: []string{"53 of Driftline, peat"},
		Orders: []ShopOrder{{Name: "Brackwater Fibre Post", OrderBy: "2027-03-12", Fee: 890, Total: 3390, Lines: []ShopLine{{"2 × pack, Driftline, peat", 2500}}}},
		Tasks:  s.Tasks, Done: map[string]int{"rinse": 1},
	}
}

// The list says what is taken, bought and prepared, by when and for how much, in the reader's unit.
func TestShoppingOnPaper(t *testing.T) {
	t.Parallel()
	body, err := ShoppingPDF(t.Context(), shopped(t), Style{Inches, "letter", "USD"})
	require.NoError(t, err)
	text := strings.Join(strings.Fields(textOf(t, body)), " ")
	for _, words := range []string{
		"Shopping and preparation", "Install on Saturday, 20 March 2027", "Hair at home by Thursday, 18 March 2027", "Rinse it on Friday, 19 March 2027",
		"53 of Driftline, peat", "Brackwater Fibre Post, order by Friday, 12 March 2027", "2 × pack, Driftline, peat", "$25.00",
		"Together $33.90, with $8.90 for delivery", "Cut and split", "cut it into 2 lengths of 20 in", "Folded over the hook a piece hangs 10 in", "hangs 10 in",
		"Rinse the new hair", "20 min + 14 h",
	} {
		assert.Contains(t, text, words)
	}
	metric, err := ShoppingPDF(t.Context(), shopped(t), Style{Centimetres, "a4", "EUR"})
	require.NoError(t, err)
	assert.Contains(t, textOf(t, metric), "25.4 cm")
	assert.Contains(t, textOf(t, metric), "€25.00")
}

// The drawn cut is to one scale: a length of two is half the strand, what hangs a quarter.
func TestTheCutIsDrawnToScale(t *testing.T) {
	t.Parallel()
	s := shopped(t)
	s.Orders, s.Stash, s.Tasks = nil, nil, s.Tasks[:1]
	body, err := ShoppingPDF(t.Context(), s, Style{Inches, "letter", "USD"})
	require.NoError(t, err)
	const dpi = 150
	dark := printed(t, body, 1, dpi)
	longest := func(y int) (long, from int) {
		run := 0
		for x := range int(8.5 * dpi) {
			if dark(x, y) {
				run++
				if run > long {
					long, from = run, x-run+1
				}
			} else {
				run = 0
			}
		}
		return long, from
	}
	var runs []int
	for y := 2 * dpi; y < 7*dpi; y++ {
		if long, _ := longest(y); long > dpi/2 && (len(runs) == 0 || runs[len(runs)-1] != long) {
			runs = append(runs, long)
		}
	}
	require.GreaterOrEqual(t, len(runs), 3, "a strand, its lengths, what hangs")
	strand := runs[0]
	for _, r := range runs {
		strand = max(strand, r)
	}
	near := func(share float64) bool {
		for _, r := range runs {
			if d := float64(r) - share*float64(strand); d > -12 && d < 6 {
				return true
			}
		}
		return false
	}
	assert.True(t, near(0.5), "%v", runs)
	assert.True(t, near(0.25), "%v", runs)
}

// What is done already stands ticked, and a long batch list has a box for each sitting.
func TestBatchesHaveBoxes(t *testing.T) {
	t.Parallel()
	s := shopped(t)
	made := supply.MakeLoc(560, 10, 610)
	s.Tasks = []need.Task{{Key: "make", Title: "Make the locs", Count: 20, Minutes: 190, Made: &made, Batches: supply.Batches(20, 9.5, 90), Steps: []method.Step{{Text: "Wind."}}}}
	s.Done = map[string]int{"make": 7}
	body, err := ShoppingPDF(t.Context(), s, Style{Inches, "letter", "USD"})
	require.NoError(t, err)
	text := textOf(t, body)
	assert.Contains(t, text, "☑ 1–7")
	assert.Contains(t, text, "☐ 8–13")
	ctx, stop := context.WithCancel(t.Context())
	stop()
	_, err = ShoppingPDF(ctx, s, Style{Inches, "letter", "USD"})
	assert.ErrorIs(t, err, context.Canceled)
}
