package api

import (
	"encoding/json"
	"net/http"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/client"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/internal/store"
)

func (s tester) newClient(name string) clientDocument {
	s.t.Helper()
	facts := client.New()
	tapes := scalp.Presets()[0].Tapes
	facts.Tapes, facts.Notes, facts.Guardian = &tapes, "ten years old", "an aunt"
	res := s.send("POST", "/api/v1/clients", anew(text(s.t, ClientDraft{Name: name, Facts: facts})))
	require.Equal(s.t, http.StatusCreated, res.StatusCode, string(res.body))
	var doc clientDocument
	res.json(s.t, &doc)
	return doc
}

func TestClientIsKeptSearchedArchivedExportedAndDeleted(t *testing.T) {
	t.Parallel()
	s := open(t)
	doc := s.newClient(" Juno Pellwether ")
	assert.Equal(t, "Juno Pellwether", doc.Name)
	assert.NotEmpty(t, doc.Cautions, "a child calls for caution")

	var list pageOf[clientEntry]
	s.send("GET", "/api/v1/clients?search=pell", "").json(t, &list)
	require.Len(t, list.Items, 1)
	s.send("GET", "/api/v1/clients?search=nobody", "").json(t, &list)
	assert.Empty(t, list.Items)

	draft := ClientDraft{Name: doc.Name, Archived: true, Facts: doc.Facts}
	path := "/api/v1/clients/" + doc.ID
	saved := s.send("PUT", path, text(t, draft), "If-Match", `"1"`)
	require.Equal(t, 200, saved.StatusCode, string(saved.body))
	assert.Equal(t, 200, s.send("PUT", path, text(t, draft), "If-Match", `"1"`).StatusCode, "the same once more")
	draft.Name = "Someone else"
	assert.Equal(t, 412, s.send("PUT", path, text(t, draft), "If-Match", `"1"`).StatusCode)
	s.send("GET", "/api/v1/clients?archived=true", "").json(t, &list)
	assert.Len(t, list.Items, 1)

	// A plan for the client begins with the head; all of it is in what is held.
	var begun PlanDraft
	s.send("GET", "/api/v1/begin?client="+doc.ID, "").json(t, &begun)
	assert.Equal(t, "Juno Pellwether", begun.Title)
	assert.Equal(t, *doc.Facts.Tapes, begun.Input.Head)
	made := s.send("POST", "/api/v1/plans", anew(text(t, begun)))
	require.Equal(t, 201, made.StatusCode, string(made.body))
	var first planDocument
	made.json(t, &first)
	begun.Input.Parting.Back.Pattern = "grid"
	require.Equal(t, 200, s.send("PUT", "/api/v1/plans/"+first.ID, text(t, begun), "If-Match", `"1"`).StatusCode)

	held := s.send("GET", path+"/export", "")
	require.Equal(t, 200, held.StatusCode)
	assert.Contains(t, held.Header.Get("Content-Disposition"), "Juno Pellwether")
	var all struct {
		Name  string
		Facts client.Facts
		Plans []struct {
			Title    string
			Versions []struct{ Input plan.Input }
		}
	}
	require.NoError(t, json.Unmarshal(held.body, &all))
	assert.Equal(t, doc.Facts, all.Facts)
	require.Len(t, all.Plans, 1)
	require.Len(t, all.Plans[0].Versions, 2)
	assert.Equal(t, begun.Input, all.Plans[0].Versions[0].Input)

	// A second plan may start from the first, and keeps whose head it is.
	var again PlanDraft
	s.send("GET", "/api/v1/begin?from="+first.ID, "").json(t, &again)
	assert.Equal(t, doc.ID, again.ClientID)
	assert.Equal(t, begun.Input, again.Input)

	require.Equal(t, 200, s.send("DELETE", path, "").StatusCode)
	for _, gone := range []string{path, path + "/export", "/api/v1/plans/" + first.ID, "/api/v1/begin?client=" + doc.ID} {
		assert.Equal(t, 404, s.send("GET", gone, "").StatusCode, gone)
	}
	assert.Equal(t, 422, s.send("POST", "/api/v1/plans", anew(text(t, begun))).StatusCode, "no client of that number")
}

func TestBadClientsAreRefusedByField(t *testing.T) {
	t.Parallel()
	s := open(t)
	doc := s.newClient("Juno")
	good := text(t, ClientDraft{Name: "Juno", Facts: doc.Facts})
	for name, c := range map[string]struct {
		old, new, location string
		status             int
	}{
		"no name":         {`"name":"Juno"`, `"name":"  "`, "body.name", 422},
		"a wild tape":     {`"frontToNapeMm":330.2`, `"frontToNapeMm":5`, "body.facts.tapes.frontToNapeMm", 422},
		"no such edges":   {`"edges":"strong"`, `"edges":"sharp"`, "body.facts.hair.edges", 422},
		"unknown field":   {`"notes"`, `"colour":1,"notes"`, "body.facts.colour", 422},
		"no such event":   {`"history":[]`, `"history":["rain"]`, "body.facts.history[0]", 422},
		"broken":          {`"facts"`, `facts`, "body", 400},
		"a huge note":     {`"notes":"ten years old"`, `"notes":"` + strings.Repeat("x", 5000) + `"`, "body.facts.notes", 422},
		"a larger one":    {`"notes":"ten years old"`, `"notes":"` + strings.Repeat("x", maxBody) + `"`, "", 413},
		"consent undated": {`"given":false`, `"given":true`, "body.facts.consent.on", 422},
	} {
		require.Contains(t, good, c.old, name)
		body := strings.Replace(good, c.old, c.new, 1)
		for _, res := range []answer{s.send("POST", "/api/v1/clients", anew(body)), s.send("PUT", "/api/v1/clients/"+doc.ID, body, "If-Match", `"1"`)} {
			require.Equal(t, c.status, res.StatusCode, "%s: %s", name, res.body)
			var p problemDetails
			res.json(t, &p)
			if c.location != "" && assert.NotEmpty(t, p.Errors, name) {
				assert.Equal(t, c.location, p.Errors[0].Location, name)
			}
		}
	}
}

// A grave caution is read once, with name and day; it is asked anew when it comes back to the
// card, and only of what the card says, by those who may change the card.
func TestGraveCautionsAreAcknowledged(t *testing.T) {
	t.Parallel()
	owner := open(t)
	doc := owner.newClient("Juno Pellwether")
	require.Len(t, doc.Grave, 1)
	assert.Equal(t, client.Child, doc.Grave[0].Key)
	assert.Empty(t, doc.Acknowledged)
	path := "/api/v1/clients/" + doc.ID
	read := "/api/v1/plans/" + owner.planFor("Part line", doc.ID, plan.Default()).ID + "/cautions"
	assert.Equal(t, 403, owner.as(store.Apprentice).send("POST", read, `{"caution":"child"}`).StatusCode)
	assert.Equal(t, 422, owner.send("POST", read, `{"caution":"sore-scalp"}`).StatusCode, "the card does not say so")
	before := time.Now().Add(-time.Minute)
	for range 2 { // a repeated request changes nothing
		res := owner.send("POST", read, `{"caution":"child"}`)
		require.Equal(t, 200, res.StatusCode, string(res.body))
		owner.send("GET", path, "").json(t, &doc)
		require.Len(t, doc.Acknowledged, 1)
	}
	assert.NotEmpty(t, doc.Acknowledged[0].Person)
	assert.True(t, doc.Acknowledged[0].At.After(before))
	assert.Contains(t, string(owner.send("GET", path+"/export", "").body), `"acknowledged"`)

	save := func(guardian string) {
		doc.Facts.Guardian = guardian
		body := text(t, ClientDraft{Name: doc.Name, Facts: doc.Facts})
		res := owner.send("PUT", path, body, "If-Match", strconv.Quote(strconv.Itoa(doc.Version)))
		require.Equal(t, 200, res.StatusCode, string(res.body))
		doc = clientDocument{}
		res.json(t, &doc)
	}
	save("an uncle")
	assert.Len(t, doc.Acknowledged, 1, "still a child")
	save("")
	assert.Empty(t, doc.Acknowledged)
	save("an aunt")
	assert.Empty(t, doc.Acknowledged, "asked anew")
}
