package freeze_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/fall"
	"kladotex/core/freeze"
	"kladotex/core/hours"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
	"kladotex/core/quote"
	"kladotex/core/tally"
)

// The price of a plan is made of its packs and its hours.
func TestWhatAPlanCosts(t *testing.T) {
	in := plan.Default()
	in.Ways[0] = plan.NewWay(plantest.FirstWay, method.CollarAndWrap)
	in.Accents = []plan.Accent{{Thing: &plan.Thing{Name: "Cuff", Mass: 0.5, Pack: 20, Price: 400}, Where: plan.Where{Kind: plan.InFront}, Count: 8}}
	terms := quote.UsualTerms()
	price, res, err := freeze.Price(plantest.Solve(t, in), terms)
	require.NoError(t, err)
	sum := map[quote.Kind]int64{}
	for _, l := range price.Lines {
		sum[l.Kind] += l.Amount
	}
	assert.Equal(t, res.Tally.Cost, sum[quote.Hair]+sum[quote.Things])
	used := int64(0)
	for _, p := range res.Need.Products {
		used += p.Cost
	}
	assert.Equal(t, 400+used, sum[quote.Things], "the cuffs, and what is used up of jars and bottles")
	assert.Positive(t, used)
	assert.Equal(t, int64(quote.Hours(res.Tally.Minutes))*terms.Rate/60, sum[quote.Work])
	in.Price = &quote.Basis{BringsHair: true}
	brought, _, err := freeze.Price(plantest.Solve(t, in), terms)
	require.NoError(t, err)
	assert.Equal(t, sum[quote.Work], brought.Total)
	included := freeze.Included(in, res)
	assert.Contains(t, included[0], "100 sections parted and plaited")
	assert.Contains(t, included[1], "100 pieces hung, collar and wrap")
	in.Trim = &plan.Trim{Shape: fall.Bob, Line: "chin"}
	assert.Contains(t, freeze.Included(in, res)[2], "A rounded bob to the chin")
}

// A day counts tiredness within a sitting, at most two fifths more; alone it takes the sittings it would have,
// and two people are paid for what both do.
func TestADayOfTwo(t *testing.T) {
	assert.InDelta(t, 1.4, pace.Tired(10_000), 1e-9)
	in := plan.Default()
	in.Parting.Front.Size, in.Parting.Back.Size = parting.Size{Width: 14, Height: 14}, parting.Size{Width: 14, Height: 14}
	one := in
	one.Day = &plan.Day{Hands: []plan.Hand{{Key: "a", Name: "A", Hand: pace.Practised, Does: plan.DoesBoth}}}
	two := in
	two.Day = &plan.Day{Hands: append(slices.Clone(one.Day.Hands), plan.Hand{Key: "b", Name: "B", Hand: pace.Practised, Does: plan.PlaitsFirst})}
	alone, err := hours.DayOf(plantest.Solve(t, one))
	require.NoError(t, err)
	both, err := hours.DayOf(plantest.Solve(t, two))
	require.NoError(t, err)
	assert.InDelta(t, alone.Sum(), both.Alone, 0.02*alone.Sum(), "as long as it takes who does it alone")
	assert.InDelta(t, alone.Labour, alone.Hours.Total.Likely, 1e-9)
	assert.InDelta(t, alone.Labour, both.Labour, 0.05*alone.Labour, "the same work, by whoever")
	terms := quote.Terms{Rate: 3000}
	a, _, err := freeze.Price(plantest.Solve(t, one), terms)
	require.NoError(t, err)
	b, _, err := freeze.Price(plantest.Solve(t, two), terms)
	require.NoError(t, err)
	work := func(p quote.Price) quote.Charge {
		return p.Lines[slices.IndexFunc(p.Lines, func(c quote.Charge) bool { return c.Kind == quote.Work })]
	}
	assert.InDelta(t, work(a).Amount, work(b).Amount, 0.05*float64(work(a).Amount))
	assert.Contains(t, work(b).Detail, "of 2 people")
	slow := two
	day := *two.Day
	day.Hands = slices.Clone(day.Hands)
	day.Hands[1].Hand = pace.Beginner
	slow.Day = &day
	c, _, err := freeze.Price(plantest.Solve(t, slow), terms)
	require.NoError(t, err)
	assert.Greater(t, work(c).Amount, work(b).Amount, "the second pair of hands is paid too")
}

// A quote for outer rows says what is done again, not that the whole head is parted.
func TestAQuoteForOuterRowsSaysSo(t *testing.T) {
	in := plan.Default()
	in.Redo = &plan.Redo{Install: "an-install", Rows: 1}
	res, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	said := freeze.Included(in, res)
	assert.Contains(t, said[0], "The outer row taken off, parted and plaited again")
	assert.Contains(t, said[0], "the rest stays as it hangs")
	assert.NotContains(t, strings.Join(said, " "), "cornrow")
}
