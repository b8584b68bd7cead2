package api

import (
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/google/uuid"
	"github.com/labstack/echo/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/attach"
	"kladotex/core/care"
	"kladotex/core/client"
	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/tally"
	"kladotex/core/wear"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// heads are plans of every method on what it goes on, every base, children and every state of the edges.
func heads(t *testing.T) map[string]plan.Input {
	t.Helper()
	out := map[string]plan.Input{}
	try := func(name string, change func(*plan.Input)) {
		in := plan.Default()
		change(&in)
		if plan.Check(in) == nil {
			out[name] = in
		}
	}
	for _, m := range method.Catalogue {
		for _, structure := range []parting.Structure{parting.AllIndividuals, parting.EarToEar} {
			for _, child := range []bool{false, true} {
				try(fmt.Sprint(m.ID, structure, child), func(in *plan.Input) {
					in.Parting = in.Parting.On(structure)
					way := plan.NewWay(in.Ways[0].Key, m.ID)
					if m.Wraps {
						way.Wrapping = in.Ways[0].Wrapping
					}
					in.Ways[0], in.Child = way, child
				})
			}
		}
	}
	for _, edges := range []hair.Edges{hair.StrongEdges, hair.FineEdges, hair.FragileEdges, hair.BareEdges} {
		for _, kind := range []parting.BaseKind{parting.Cornrows, parting.LinkedPlaits, parting.Net} {
			try(fmt.Sprint(edges, kind), func(in *plan.Input) {
				in.Parting = in.Parting.On(parting.EarToEar)
				in.Parting.Base.Kind, in.Hair.Edges, in.Parting.Edges = kind, edges, craft.EdgeStrip
			})
		}
	}
	return out
}

// What a client is told of one head of weeks, water, nights and warnings is the same in the quote, in the
// message, on the page, on the sheet and by the clock, and it is what the head bears.
func TestOneRuleOfCareAndWear(t *testing.T) {
	t.Parallel()
	s := open(t)
	all := heads(t)
	require.Greater(t, len(all), 30)
	n := 0
	for name, in := range all {
		sol, err := plan.Solve(t.Context(), in)
		require.NoError(t, err, name)
		brief := care.Brief(sol, attach.Of(sol))
		told := brief.Told(wear.Rules{Weeks: wear.Weeks{Least: 6, Most: 8}})
		for _, m := range brief.Parts {
			facts, _ := method.Lookup(m.Method)
			// On a cornrow a plain hook holds as long as the foundation does.
			hooked := facts.Family == method.Hook && m.Ground == method.OnCornrow
			if float64(m.Places) >= 0.05*float64(len(brief.Parts)) && !hooked {
				assert.LessOrEqual(t, told.Most, facts.WearWeeks[1], "%s: %s bears no more", name, facts.Name)
			}
			if facts.Bears() == method.Dry {
				assert.Contains(t, strings.Join(told.Lines(), "\n"), "Keep it dry", name)
			}
		}
		if in.Child {
			assert.LessOrEqual(t, told.Most, 4, name)
		}
		if n++; n > 8 && n%6 > 0 { // the papers take their time
			continue
		}
		p := s.newPlan("Head", in)
		s.safe(p.ID)
		var q quoteDocument
		res := s.send("POST", "/api/v1/plans/"+p.ID+"/quotes", anew(`{"unit":"in","paper":"letter"}`), "If-Match", `"1"`)
		require.Equal(t, http.StatusCreated, res.StatusCode, string(res.body))
		res.json(t, &q)
		assert.Equal(t, told.Lines(), q.Given.Care, name)
		message := string(s.send("GET", "/api/v1/plans/"+p.ID+"/letters/care", "").body)
		id := s.done(p.ID, 0)
		d := s.wear(id)
		assert.Equal(t, told.Most, (d.Clock.Planned+6)/7, name)
		link := s.send("POST", "/api/v1/installs/"+id+"/care-link", "")
		var at careLink
		link.json(t, &at)
		page := unescaped(string(s.send("GET", at.Path, "").body))
		sheet := s.send("GET", "/api/v1/installs/"+id+"/care.pdf", "")
		assert.True(t, strings.HasPrefix(string(sheet.body), "%PDF"), name)
		for _, line := range []string{told.Says(), careText(told, "wash"), careText(told, "night"), careText(told, "call")} {
			written, err := json.Marshal(line)
			require.NoError(t, err)
			assert.Contains(t, message, strings.Trim(string(written), `"`), name)
			assert.Contains(t, page, line, name)
		}
		for i, c := range d.Care {
			assert.Equal(t, told.Care[i], c, name)
		}
		// What is sent once it hangs goes by the head as it is worn.
		assert.Contains(t, string(s.send("GET", "/api/v1/plans/"+p.ID+"/letters/care", "").body), "taken down by then")
	}
}

func careText(t wear.Told, key string) string {
	for _, c := range t.Care {
		if c.Key == key {
			return c.Text
		}
	}
	return ""
}

func unescaped(page string) string {
	return strings.NewReplacer("&#39;", "'", "&#34;", `"`, "&amp;", "&").Replace(page)
}

// What could hurt stops every way onward until it was read by name; a head that no card speaks of is asked
// about; nothing hangs on bare edges, and what is offered instead goes through.
func TestWhatCouldHurtStopsEveryWayOnward(t *testing.T) {
	t.Parallel()
	s := open(t)
	in := plan.Default()
	in.Day = &plan.Day{Install: "2027-03-27"}
	ways := func(planID string, version int) map[string]answer {
		match := fmt.Sprintf(`"%d"`, version)
		return map[string]answer{
			"quote":   s.send("POST", "/api/v1/plans/"+planID+"/quotes", anew(`{"unit":"in","paper":"letter"}`), "If-Match", match),
			"booking": s.send("POST", "/api/v1/plans/"+planID+"/booking", made(), "If-Match", match),
			"chair":   s.send("POST", "/api/v1/plans/"+planID+"/install", `{"id":"`+uuid.NewString()+`","unit":"in","paper":"letter"}`),
		}
	}
	stopped := func(planID string, says string) {
		t.Helper()
		for name, res := range ways(planID, 1) {
			assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, name)
			assert.Contains(t, string(res.body), says, name)
		}
	}
	goes := func(planID string, version int) {
		t.Helper()
		for name, res := range ways(planID, version) {
			assert.Equal(t, http.StatusCreated, res.StatusCode, "%s: %s", name, res.body)
		}
	}
	// A client whose card says it.
	for _, e := range []client.Event{client.SoreScalp, client.HairLoss, client.Chemical} {
		c := s.newClient("Ysolde Abarinwe")
		facts := client.New()
		facts.History = []client.Event{e}
		res := s.send("PUT", "/api/v1/clients/"+c.ID, text(t, map[string]any{"name": c.Name, "archived": false, "facts": facts}), "If-Match", `"1"`)
		require.Equal(t, http.StatusOK, res.StatusCode, string(res.body))
		p := s.planFor("The cellist", c.ID, in)
		stopped(p.ID, "Read this first")
		s.safe(p.ID)
		goes(p.ID, 1)
	}
	// Nobody's card: asked, and what is answered is read.
	p := s.newPlan("My own head", in)
	stopped(p.ID, "Ask first about a sore scalp")
	apprentice := s.as(store.Apprentice)
	assert.Equal(t, http.StatusForbidden, apprentice.send("PUT", "/api/v1/plans/"+p.ID+"/asked", `{"history":[]}`).StatusCode)
	require.Equal(t, http.StatusOK, s.send("PUT", "/api/v1/plans/"+p.ID+"/asked", `{"history":["sore-scalp"]}`).StatusCode)
	stopped(p.ID, "not now")
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("POST", "/api/v1/plans/"+p.ID+"/cautions", `{"caution":"chemical"}`).StatusCode)
	s.safe(p.ID)
	goes(p.ID, 1)
	// A child, whoever's.
	in.Child = true
	p = s.newPlan("A child", in)
	require.Equal(t, http.StatusOK, s.send("PUT", "/api/v1/plans/"+p.ID+"/asked", `{"history":[]}`).StatusCode)
	stopped(p.ID, "A child")
	in.Child = false
	// Bare edges.
	in.Hair.Edges = hair.BareEdges
	p = s.newPlan("Bare edges", in)
	s.safe(p.ID)
	stopped(p.ID, "The edges are bare")
	var c studio.Clearance
	s.send("GET", "/api/v1/plans/"+p.ID+"/clearance", "").json(t, &c)
	require.NotEmpty(t, c.Refusals[0].Remedies)
	res := s.send("PUT", "/api/v1/plans/"+p.ID, draft(t, "Bare edges", c.Refusals[0].Remedies[0].Input), "If-Match", `"1"`)
	require.Equal(t, http.StatusOK, res.StatusCode, string(res.body))
	goes(p.ID, 2)
	computed, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	assert.Equal(t, "bare-edges", string(computed.Notices[0].Code), "it is the first thing that is said")
}

// Without consent nothing of scalp and hair is kept of a worn head, in whatever entry it stands; an apprentice puts
// nothing right that others wrote.
func TestOneGateForHealthNotes(t *testing.T) {
	t.Parallel()
	s := open(t)
	c := s.newClient("Ysolde Abarinwe")
	p := s.planFor("The cellist", c.ID, plan.Default())
	id := s.done(p.ID, 20)
	for name, e := range map[string]wear.Entry{
		"a look":               {Kind: wear.Checked, Signs: map[string]wear.Grade{"sores": wear.Bad}},
		"a note":               {Kind: wear.Noted, Text: "Sore at the nape"},
		"a taking down":        {Kind: wear.Down, Text: "open sores, bald patch"},
		"how it felt":          {Kind: wear.Down, Felt: wear.Painful},
		"the edges":            {Kind: wear.Down, Edges: wear.Worse},
		"a repair with a note": {Kind: wear.Mended, Piece: "p1", Count: 1, Text: "sore there"},
	} {
		e.ID = uuid.NewString()
		res := s.put(id, e)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, name)
		assert.Contains(t, string(res.body), "consent", name)
	}
	assert.False(t, s.wear(id).KeepsHealth)
	down := wear.Entry{ID: uuid.NewString(), Kind: wear.Down, Minutes: 90}
	require.Equal(t, http.StatusOK, s.put(id, down).StatusCode, "what was done is kept")
	require.Equal(t, http.StatusOK, s.send("DELETE", "/api/v1/installs/"+id+"/wear/"+down.ID, "").StatusCode)

	s.consent(&c, client.Consent{Given: true, On: "2026-11-01"})
	assert.True(t, s.wear(id).KeepsHealth)
	note := wear.Entry{ID: uuid.NewString(), Kind: wear.Noted, Text: "Sore at the nape"}
	require.Equal(t, http.StatusOK, s.put(id, note).StatusCode)
	apprentice := s.as(store.Apprentice)
	note.Text = "."
	assert.Equal(t, http.StatusForbidden, apprentice.put(id, note).StatusCode)
	note.Kind = wear.Down
	assert.Equal(t, http.StatusUnprocessableEntity, s.put(id, note).StatusCode, "an entry stays what it is")
	own := wear.Entry{ID: uuid.NewString(), Kind: wear.Noted, Text: "Edges look fine"}
	require.Equal(t, http.StatusOK, apprentice.put(id, own).StatusCode)
	own.Text = "Edges are fine"
	assert.Equal(t, http.StatusOK, apprentice.put(id, own).StatusCode, "their own they put right")
}

// A piece that is renamed after it was ordered is not ordered once more.
func TestARenamedPieceIsNotOrderedAgain(t *testing.T) {
	t.Parallel()
	s := open(t)
	item := s.adopt("D-18")
	in := plan.Default()
	in.Pieces = []hair.Piece{item.Item.Piece("p1", item.ID, "Peat")}
	p := s.newPlan("The cellist", in)
	var orders []store.Purchase
	res := s.send("POST", "/api/v1/plans/"+p.ID+"/orders", "")
	require.Less(t, res.StatusCode, 300, string(res.body))
	res.json(t, &orders)
	require.NotEmpty(t, orders)
	for _, o := range orders {
		res := s.send("POST", "/api/v1/orders/"+o.ID+"/place", `{"on":"2026-12-01"}`)
		require.Less(t, res.StatusCode, 300, string(res.body))
	}
	in.Pieces[0].Name = "Driftline, the long ones"
	require.Equal(t, http.StatusOK, s.send("PUT", "/api/v1/plans/"+p.ID, draft(t, "The cellist", in), "If-Match", `"1"`).StatusCode)
	var shop studio.Shopping
	s.send("POST", "/api/v1/shopping?plan="+p.ID, text(t, in)).json(t, &shop)
	assert.Positive(t, shop.Lines[0].Coming)
	assert.Empty(t, shop.Lines[0].Order.Lines)
}

// Where the session cannot be kept there is one answer, which says so.
func TestOneAnswerWhereTheSessionIsNotKept(t *testing.T) {
	t.Parallel()
	e := echo.New()
	sessions := scs.New()
	sessions.Store = fullStore{}
	e.Use(inSession(sessions))
	e.POST("/api/v1/session", func(c *echo.Context) error {
		sessions.Put(c.Request().Context(), personInSession, "odalys")
		return c.JSON(http.StatusCreated, map[string]string{"name": "Odalys"})
	})
	res := httptest.NewRecorder()
	e.ServeHTTP(res, httptest.NewRequest(http.MethodPost, "/api/v1/session", nil))
	assert.Equal(t, http.StatusInternalServerError, res.Code)
	var said struct{ Status int }
	require.NoError(t, json.Unmarshal(res.Body.Bytes(), &said), "one document: %s", res.Body.String())
	assert.Equal(t, http.StatusInternalServerError, said.Status)
}

// fullStore keeps no session.
type fullStore struct{}

func (fullStore) Find(string) ([]byte, bool, error)      { return nil, false, nil }
func (fullStore) Commit(string, []byte, time.Time) error { return errors.New("the disk is full") }
func (fullStore) Delete(string) error                    { return errors.New("the disk is full") }

// Blanks are no password, wherever one is set.
func TestBlanksAreNoPassword(t *testing.T) {
	t.Parallel()
	s := door(t, Options{})
	blanks := strings.Repeat(" ", 12)
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("POST", "/api/v1/owner", text(t, map[string]string{"name": "Odalys", "password": blanks})).StatusCode)
	require.Equal(t, http.StatusCreated, s.send("POST", "/api/v1/owner", text(t, map[string]string{"name": "Odalys", "password": secret})).StatusCode)
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("PUT", "/api/v1/session/password", text(t, map[string]string{"old": secret, "password": blanks})).StatusCode)
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("POST", "/api/v1/people", text(t, map[string]string{"name": "Tamsin", "role": "stylist", "password": blanks})).StatusCode)
}

// Wrong addresses of care from one network keep nobody there from signing in.
func TestWrongCareAddressesKeepNobodyOut(t *testing.T) {
	t.Parallel()
	s := door(t, Options{})
	require.Equal(t, http.StatusCreated, s.send("POST", "/api/v1/owner", text(t, map[string]string{"name": "Odalys", "password": secret})).StatusCode)
	last := 0
	for range 3 * addressBurst {
		last = s.send("GET", "/care/nothing", "").StatusCode
	}
	assert.Equal(t, http.StatusTooManyRequests, last)
	assert.Equal(t, http.StatusCreated, s.stranger().send("POST", "/api/v1/session", text(t, map[string]string{"name": "Odalys", "password": secret})).StatusCode)
}

// A table of the stash that is read in twice is known by what is in it.
func TestATableReadInTwiceIsKnown(t *testing.T) {
	t.Parallel()
	s := open(t)
	item := s.adopt("D-18")
	table := "Piece,Colour,Packs,Loose\r\n" + strings.Repeat(`"`+item.Item.Name+"\",Peat,1,0\r\n", 300)
	read := func(save bool) (last studio.Imported) {
		res := s.send("POST", fmt.Sprintf("/api/v1/tables/stash?save=%t", save), table, "Content-Type", "text/csv")
		require.Equal(t, http.StatusOK, res.StatusCode, string(res.body))
		lines := strings.Split(strings.TrimSpace(string(res.body)), "\n")
		var said readingIn
		require.NoError(t, json.Unmarshal([]byte(lines[len(lines)-1]), &said), lines[len(lines)-1])
		require.NotNil(t, said.Says, lines[len(lines)-1])
		return *said.Says
	}
	assert.Equal(t, 300, read(false).New)
	first := read(true)
	assert.True(t, first.Saved)
	again := read(true)
	assert.Zero(t, again.New)
	assert.Equal(t, 300, again.Repeated)
	lots, err := s.store.EveryLot(t.Context())
	require.NoError(t, err)
	assert.Len(t, lots, 300)
}
