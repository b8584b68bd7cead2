package sheet

import (
	"bytes"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hours"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plan"
)

// The day sheet has every row to be plaited and attached, at its time, in order, with what comes
// before and what is looked at afterwards; the plan sheet tells the day too. Both are the same
// for the same plan.
func TestTheDayOnPaper(t *testing.T) {
	t.Parallel()
	in := plan.Default()
	in.Parting = in.Parting.On(parting.EarToEar)
	in.OwnHead = true
	in.Day = &plan.Day{Install: "2027-03-27", Hands: []plan.Hand{
		{Key: "a", Name: "Delphine", Hand: pace.Used, Does: plan.DoesBoth}, {Key: "b", Name: "Ọlá", Hand: pace.Used, Does: plan.PlaitsFirst},
	}}
	p := computed(t, in)
	day, err := hours.DayOf(solved(t, in))
	require.NoError(t, err)
	p.Day = &day
	body, err := DayPDF(t.Context(), p, Style{Inches, "a4", "EUR"})
	require.NoError(t, err)
	again, err := DayPDF(t.Context(), p, Style{Inches, "a4", "EUR"})
	require.NoError(t, err)
	assert.True(t, bytes.Equal(body, again))
	text := readOf(t, body)
	for _, says := range []string{"Day sheet", "Saturday, 27 March 2027", "18:30 to about", "Wash and detangle own hair", "Dry and stretch own hair", "Friday, 26 March 2027", "no plait missed", "Working order"} {
		assert.Contains(t, text, says)
	}
	for _, r := range day.Rows {
		assert.Contains(t, text, fmt.Sprintf("%d %s", r.Number, r.Name))
	}
	for _, s := range day.Sittings {
		for _, x := range s.Spans {
			assert.Contains(t, text, fmt.Sprintf("%s %s: %s", clockAfter(s.At, x.Start), day.Hands[x.Person].Name, x.Name))
		}
	}
	whole, err := PDF(t.Context(), p, Style{Inches, "letter", "EUR"})
	require.NoError(t, err)
	assert.Contains(t, textOf(t, whole), "Sittings")
}

// solved is a plan solved.
func solved(t testing.TB, in plan.Input) *plan.Solved {
	t.Helper()
	sol, err := plan.Solve(t.Context(), in)
	require.NoError(t, err)
	return sol
}
