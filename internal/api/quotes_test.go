package api

import (
	"bytes"
	"fmt"
	"net/http"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/client"
	"kladotex/core/fall"
	"kladotex/core/hair"
	"kladotex/core/hang"
	"kladotex/core/judge"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/quote"
	"kladotex/internal/store"
)

// ask posts a body and reads the answer.
func ask[T any](s tester, path string, body any) (out T) {
	s.t.Helper()
	res := s.send("POST", path, text(s.t, body))
	require.Less(s.t, res.StatusCode, 300, string(res.body))
	res.json(s.t, &out)
	return out
}

// A head through the facets: what is too heavy is found and put right by what is offered, a
// showing cornrow is filled, ends are cut to a line, and the price follows.
func TestAHeadIsJudgedHungAndPriced(t *testing.T) {
	t.Parallel()
	s := open(t)
	s.adopt("D-18")
	in := plan.Default()
	in.Parting = in.Parting.On(parting.EarToEar)
	in.Pieces[0].Mass, in.Pieces[0].Length = 12, 24*25.4

	fit := ask[judge.Fitting](s, "/api/v1/fitting", map[string]any{"input": in})
	require.NotEmpty(t, fit.Zones[0].Findings)
	worst := fit.Zones[0].Findings[0]
	require.NotEmpty(t, worst.Remedies)
	for _, r := range worst.Remedies {
		res := s.send("POST", "/api/v1/preview", text(t, r.Input))
		assert.Equal(t, http.StatusOK, res.StatusCode, "%s: %s", r.Says, res.body)
	}
	// What the client wore before is compared.
	facts := client.New()
	facts.Installs = []client.Install{{On: "2026-05-04", What: "Light twists", Weeks: 6, Comfort: "comfortable", Mass: 210}}
	made := s.send("POST", "/api/v1/clients", anew(text(t, map[string]any{"name": "Imre Vantongeren", "facts": facts, "archived": false})))
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	var c struct{ ID string }
	made.json(t, &c)
	fit = ask[judge.Fitting](s, "/api/v1/fitting", map[string]any{"input": in, "clientId": c.ID})
	assert.Contains(t, fit.Load.Says[len(fit.Load.Says)-1], "Light twists")

	light := in
	light.Pieces = []hair.Piece{in.Pieces[0]}
	light.Pieces[0].Mass = 4
	drape := ask[hang.Drape](s, "/api/v1/drape", map[string]any{"input": light, "style": fall.Down})
	require.NotEmpty(t, drape.Cover.Shows)
	before := ask[quote.Price](s, "/api/v1/price", light)
	light.Fill.At = drape.Cover.Shows[0].Fill
	after := ask[hang.Drape](s, "/api/v1/drape", map[string]any{"input": light, "style": fall.Down})
	assert.Len(t, after.Pieces, len(drape.Pieces)+len(light.Fill.At))
	assert.GreaterOrEqual(t, ask[quote.Price](s, "/api/v1/price", light).Total, before.Total)

	light.Trim = &plan.Trim{Shape: fall.Blunt, Line: "waist"}
	landings := ask[hang.Landings](s, "/api/v1/landing", light)
	assert.Positive(t, landings.Rows[0].Guide)
	light.Trim.Line = "ankle"
	res := s.send("POST", "/api/v1/landing", text(t, light))
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, string(res.body), "trim.line")
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("POST", "/api/v1/drape", text(t, map[string]any{"input": in, "style": "sideways"})).StatusCode)
}

// A quote is frozen when it is given: later prices and plans do not touch it. It is numbered,
// given once, answered, and on paper.
func TestAQuoteIsFrozen(t *testing.T) {
	t.Parallel()
	s := open(t)
	var house houseDocument
	s.send("GET", "/api/v1/house", "").json(t, &house)
	terms := quote.UsualTerms()
	terms.Name, terms.Rate, terms.Tax, terms.TaxIncluded, terms.Conditions = "Tidewheel Loft", 3200, 8.875, false, "The deposit is kept when the day is given up within two days."
	house.Rules.Terms = &terms
	res := s.send("PUT", "/api/v1/house", text(t, house.Rules), "If-Match", fmt.Sprintf(`"%d"`, house.Version))
	require.Equal(t, http.StatusOK, res.StatusCode, string(res.body))

	in := plan.Default()
	in.Price = &quote.Basis{Extras: []quote.Extra{{Name: "Wash and dry", Amount: 1500}}}
	p := s.newPlan("The cellist", in)
	price := ask[quote.Price](s, "/api/v1/price", in)
	give := func(body, match string) answer {
		return s.send("POST", "/api/v1/plans/"+p.ID+"/quotes", body, "If-Match", match)
	}
	body := anew(`{"unit":"in","paper":"letter"}`)
	assert.Equal(t, http.StatusPreconditionFailed, give(body, `"7"`).StatusCode, "a plan that was saved since is looked at again")
	s.safe(p.ID)
	res = give(body, `"1"`)
	require.Equal(t, http.StatusCreated, res.StatusCode, string(res.body))
	var q quoteDocument
	res.json(t, &q)
	assert.Equal(t, 1, q.Number)
	assert.Equal(t, price, q.Given.Price)
	assert.Equal(t, "Tidewheel Loft", q.Given.Studio)
	assert.Equal(t, quote.Open, q.State)
	until, err := time.Parse(time.DateOnly, q.Given.Until)
	require.NoError(t, err)
	assert.WithinDuration(t, time.Now().AddDate(0, 0, 30), until, 48*time.Hour)
	res = give(body, `"1"`)
	require.Equal(t, http.StatusCreated, res.StatusCode)
	var again quoteDocument
	res.json(t, &again)
	assert.Equal(t, q.ID, again.ID, "the same request twice is one quote")

	// The price of everything doubles, the plan changes, and goes.
	paper := s.send("GET", "/api/v1/quotes/"+q.ID+"/quote.pdf", "")
	assert.True(t, bytes.HasPrefix(paper.body, []byte("%PDF-")))
	terms.Rate *= 2
	house.Rules.Terms = &terms
	require.Equal(t, http.StatusOK, s.send("PUT", "/api/v1/house", text(t, house.Rules), "If-Match", fmt.Sprintf(`"%d"`, house.Version+1)).StatusCode)
	in.Uses[0].Count = 2
	require.Equal(t, http.StatusOK, s.send("PUT", "/api/v1/plans/"+p.ID, draft(t, "The cellist", in), "If-Match", `"1"`).StatusCode)
	read := func() (q quoteDocument) {
		res := s.send("GET", "/api/v1/quotes/"+again.ID, "")
		require.Equal(t, http.StatusOK, res.StatusCode, string(res.body))
		res.json(t, &q)
		return q
	}
	assert.Equal(t, price, read().Given.Price)
	assert.Equal(t, paper.body, s.send("GET", "/api/v1/quotes/"+q.ID+"/quote.pdf", "").body)
	for _, part := range []string{"parted", "draped"} {
		assert.Contains(t, string(s.send("GET", "/api/v1/quotes/"+q.ID+"/picture/"+part, "").body), "<svg")
	}
	res = s.send("POST", "/api/v1/plans/"+p.ID+"/quotes", anew(`{"unit":"cm","paper":"a4"}`), "If-Match", `"2"`)
	require.Equal(t, http.StatusCreated, res.StatusCode)
	var second quoteDocument
	res.json(t, &second)
	assert.Equal(t, 2, second.Number)
	assert.Greater(t, second.Given.Price.Total, price.Total)

	// Answered by the crew; an apprentice only reads.
	apprentice := s.as(store.Apprentice)
	assert.Equal(t, http.StatusForbidden, apprentice.send("PUT", "/api/v1/quotes/"+q.ID+"/state", `{"state":"accepted"}`).StatusCode)
	assert.Equal(t, http.StatusForbidden, apprentice.send("POST", "/api/v1/plans/"+p.ID+"/quotes", body, "If-Match", `"2"`).StatusCode)
	res = s.send("PUT", "/api/v1/quotes/"+q.ID+"/state", `{"state":"accepted"}`)
	require.Equal(t, http.StatusOK, res.StatusCode, string(res.body))
	accepted := read()
	assert.Equal(t, quote.Accepted, accepted.State)
	require.NotNil(t, accepted.Answered)
	assert.NotEmpty(t, accepted.By)
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("PUT", "/api/v1/quotes/"+q.ID+"/state", `{"state":"perhaps"}`).StatusCode)

	require.Equal(t, http.StatusNoContent, s.send("DELETE", "/api/v1/plans/"+p.ID, "").StatusCode)
	assert.Empty(t, read().PlanID, "the quote outlives its plan")
	assert.Equal(t, http.StatusNotFound, s.send("GET", "/api/v1/quotes/nothing", "").StatusCode)
}
