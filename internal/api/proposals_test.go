package api

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/client"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/propose"
	"kladotex/core/wish"
	"kladotex/internal/studio"
)

// wished is a wish for the head a newcomer starts from, on which nothing calls for caution.
func wished(w wish.Wanted) studio.Wished {
	in := plan.Default()
	in.Wanted = &w
	return studio.Wished{Input: in, Measured: true, Asked: true, History: []client.Event{}, Read: []string{}}
}

// propose asks for proposals; lines says how many lines told how far the search had come.
func (s tester) propose(w studio.Wished) (lines int, a propose.Answer) {
	s.t.Helper()
	res := s.send("POST", "/api/v1/proposals", text(s.t, w))
	require.Equal(s.t, 200, res.StatusCode, string(res.body))
	for _, line := range strings.Split(strings.TrimSpace(string(res.body)), "\n") {
		var news proposing
		require.NoError(s.t, json.Unmarshal([]byte(line), &news))
		require.Empty(s.t, news.Trouble)
		if news.Answer != nil {
			a = *news.Answer
		} else {
			require.NotNil(s.t, news.Progress)
			lines++
		}
	}
	return lines, a
}

// From a wish to a plan that is kept with it: told how far it has come, chosen, asked about, held against the wish
// later on.
func TestFromAWishToAPlan(t *testing.T) {
	t.Parallel()
	s := open(t)
	w := wished(wish.Wanted{Look: wish.Locs, To: "armpit", Minutes: 300})
	lines, a := s.propose(w)
	assert.Positive(t, lines)
	require.NotEmpty(t, a.Proposals)
	first := a.Proposals[0]
	assert.LessOrEqual(t, first.Facts.Minutes, 300.0)

	doc := s.newPlan("From a wish", first.Input)
	var kept planDocument
	s.send("GET", "/api/v1/plans/"+doc.ID, "").json(t, &kept)
	require.NotNil(t, kept.Input.Wanted)
	assert.Equal(t, "armpit", kept.Input.Wanted.To)

	var why propose.Why
	s.send("POST", "/api/v1/proposals/why", text(t, whyWish{w, propose.Asked{Base: parting.AllIndividuals, SizeMM: 12.7}, first.Facts})).json(t, &why)
	assert.Contains(t, strings.Join(why.Breaks, "; "), "longer than there is")

	held := func(in plan.Input) (h propose.Held) {
		other := w
		other.Input = in
		s.send("POST", "/api/v1/proposals/held", text(t, other)).json(t, &h)
		return h
	}
	assert.Empty(t, held(first.Input).Breaks)
	larger := first.Input
	larger.Parting = larger.Parting.On(parting.AllIndividuals)
	larger.Parting.Front.Size, larger.Parting.Back.Size = parting.Size{Width: 15, Height: 15}, parting.Size{Width: 15, Height: 15}
	assert.NotEmpty(t, held(larger).Breaks, "a change later is held against the wish")
}

// Health comes first: it is asked where no card answers it, and what is not settled by name stops everything.
func TestHealthComesBeforeProposals(t *testing.T) {
	t.Parallel()
	s := open(t)
	w := wished(wish.Wanted{Look: wish.Locs, Minutes: 240})
	w.Asked = false
	_, a := s.propose(w)
	assert.Equal(t, propose.AskHealth, a.Asks)
	assert.Len(t, a.Questions, 3)
	assert.Empty(t, a.Proposals)

	w.Asked, w.History = true, []client.Event{client.SoreScalp}
	_, a = s.propose(w)
	require.Len(t, a.Stops, 1)
	assert.Empty(t, a.Proposals)
	w.Read = []string{a.Stops[0].Key}
	_, a = s.propose(w)
	assert.NotEmpty(t, a.Proposals)

	c := s.newClient("Ines Calloway-Brandt")
	c.Facts.History = []client.Event{client.HairLoss}
	require.Equal(t, 200, s.send("PUT", "/api/v1/clients/"+c.ID, text(t, ClientDraft{Name: c.Name, Facts: c.Facts}), "If-Match", `"1"`).StatusCode)
	w = wished(wish.Wanted{Look: wish.Locs})
	w.ClientID, w.Asked = c.ID, false
	_, a = s.propose(w)
	require.Len(t, a.Stops, 1, "the card speaks for the client")
	assert.Equal(t, string(client.HairLoss), a.Stops[0].Key)
}

// A wish that cannot be is refused at its field; one that says no look is asked for it.
func TestWishesThatCannotBe(t *testing.T) {
	t.Parallel()
	s := open(t)
	_, a := s.propose(wished(wish.Wanted{Minutes: 300}))
	assert.Equal(t, propose.AskLook, a.Asks)
	res := s.send("POST", "/api/v1/proposals", text(t, wished(wish.Wanted{Look: wish.Locs, Nothing: true})))
	require.Equal(t, 422, res.StatusCode)
	assert.Contains(t, string(res.body), "body.input.wanted.lots")
}
