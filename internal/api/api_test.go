package api

import (
	"bytes"
	"context"
	"encoding/json"
	"io"
	"log/slog"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/attach"
	"kladotex/core/house"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/core/tally"
	"kladotex/internal/flat"
	"kladotex/internal/standin"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// tester is a real server over a real file, as one person sees it: each has their
// own cookies.
type tester struct {
	t      *testing.T
	store  *store.Store
	url    string
	client *http.Client
}

// served is the whole application over a store.
func served(t testing.TB, s *store.Store, log *slog.Logger, o Options) http.Handler {
	t.Helper()
	handler, err := New(t.Context(), s, standin.World(), log, o)
	require.NoError(t, err)
	return handler
}

// anew is a body that makes something, under a new id.
func anew(body string) string {
	return strings.Replace(body, "{", `{"id":"`+uuid.NewString()+`",`, 1)
}

// door is a studio, and someone before it who is not signed in.
func door(t *testing.T, o Options) tester {
	t.Helper()
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "studio.db"))
	require.NoError(t, err)
	server := httptest.NewServer(served(t, s, slog.New(slog.DiscardHandler), o))
	t.Cleanup(func() { server.Close(); s.Close() })
	return tester{t, s, server.URL, nil}.stranger()
}

// stranger is someone else before the same studio, with no cookies.
func (s tester) stranger() tester {
	jar, err := cookiejar.New(nil)
	require.NoError(s.t, err)
	s.client = &http.Client{Jar: jar}
	return s
}

const secret = "lantern regatta"

// open is a studio whose owner, Odalys, is signed in.
func open(t *testing.T) tester {
	t.Helper()
	s := door(t, Options{})
	res := s.send("POST", "/api/v1/owner", text(t, map[string]string{"name": "Odalys", "password": secret}))
	require.Equal(t, http.StatusCreated, res.StatusCode, string(res.body))
	return s
}

// as adds a person of the role, named after it, to the owner's studio and signs
// them in.
func (s tester) as(role store.Role) tester {
	s.t.Helper()
	if role == store.Owner {
		return s
	}
	res := s.send("POST", "/api/v1/people", text(s.t, map[string]any{"name": role, "password": secret, "role": role}))
	require.Equal(s.t, http.StatusCreated, res.StatusCode, string(res.body))
	other := s.stranger()
	in := other.signIn(string(role), secret)
	require.Equal(s.t, http.StatusCreated, in.StatusCode, string(in.body))
	return other
}

func (s tester) signIn(name, password string) answer {
	s.t.Helper()
	return s.send("POST", "/api/v1/session", text(s.t, map[string]string{"name": name, "password": password}))
}

// answer is a response, its body read.
type answer struct {
	*http.Response
	body []byte
}

func (a answer) json(t *testing.T, v any) {
	t.Helper()
	require.NoError(t, json.Unmarshal(a.body, v), string(a.body))
}

func (s tester) send(method, path, body string, header ...string) answer {
	s.t.Helper()
	req, err := http.NewRequestWithContext(s.t.Context(), method, s.url+path, strings.NewReader(body))
	require.NoError(s.t, err)
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set("Sec-Fetch-Site", "same-origin") // as a browser says of our own pages
	for i := 0; i < len(header); i += 2 {
		req.Header.Set(header[i], header[i+1])
	}
	res, err := s.client.Do(req)
	require.NoError(s.t, err)
	defer res.Body.Close()
	raw, err := io.ReadAll(res.Body)
	require.NoError(s.t, err)
	return answer{res, raw}
}

func text(t testing.TB, v any) string {
	t.Helper()
	raw, err := json.Marshal(v)
	require.NoError(t, err)
	return string(raw)
}

// draft is a plan to save; title and input as given.
func draft(t *testing.T, title string, in plan.Input) string {
	return text(t, map[string]any{"title": title, "input": in})
}

// points unpacks a line of the interface.
func points(f flat.Line) (line scalp.Line) {
	var at [3]int
	for i := 0; i < len(f); i += 3 {
		var p scalp.Point
		for k := range at {
			at[k] += f[i+k]
			p[k] = float64(at[k]) / 10
		}
		line = append(line, p)
	}
	return line
}

// What travels as columns of whole numbers is the core's result to a tenth of a
// millimetre, and takes little room.
func TestPreviewIsTheCoresResult(t *testing.T) {
	t.Parallel()
	s := open(t)
	in := plan.Default()
	size := parting.Size{Width: 0.6 * 25.4, Height: 0.6 * 25.4}
	in.Parting.Front.Size, in.Parting.Back.Size = size, size
	res := s.send("POST", "/api/v1/preview", text(t, in))
	require.Equal(t, http.StatusOK, res.StatusCode, string(res.body))
	assert.LessOrEqual(t, len(res.body), 90_000, "bytes of a 300-section head")
	want, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	var got flat.Preview
	res.json(t, &got)
	assert.Equal(t, want.Tally, got.Tally)
	assert.Equal(t, want.Notices, got.Notices)
	l := got.Layout
	require.Len(t, l.IDs, len(want.Layout.Sections))
	near := func(want, got scalp.Line) {
		require.Len(t, got, len(want))
		for i := range want {
			for k := range want[i] {
				require.InDelta(t, want[i][k], got[i][k], 0.051)
			}
		}
	}
	near(want.Layout.HairlineCurve, points(l.Edge))
	first, neighbour, pairs, both := 0, 0, 0, 0
	for i, x := range want.Layout.Sections {
		assert.Equal(t, x.ID, l.IDs[i])
		near(x.Outline, points(l.Outlines[first:first+3*l.Points[i]]))
		first += 3 * l.Points[i]
		assert.InDelta(t, 10*x.Width.Mean, l.Widths[3*i], 0.51)
		assert.InDelta(t, 10*x.Width.Max, l.Widths[3*i]+l.Widths[3*i+2], 0.51)
		assert.Equal(t, x.Seen, l.Flags[i]&4 != 0)
		for _, k := range l.Neighbours[neighbour+1 : neighbour+1+l.Neighbours[neighbour]] {
			assert.Contains(t, x.Neighbours, l.IDs[k])
			pairs++
		}
		neighbour += 1 + l.Neighbours[neighbour]
		both += len(x.Neighbours)
		assert.Equal(t, want.Places[i].Count, got.Given.Counts[i])
	}
	assert.Len(t, l.Outlines, first)
	assert.Equal(t, both, 2*pairs, "every pair of neighbours once")

	// What only one step shows comes by itself.
	var shop studio.Shopping
	s.send("POST", "/api/v1/shopping", text(t, in)).json(t, &shop)
	assert.Equal(t, want.Need, shop.Need)
	var how work
	s.send("POST", "/api/v1/work", text(t, in)).json(t, &how)
	before, after := attach.Around(in)
	assert.Equal(t, work{before, want.Work, after}, how)
	var rows []guideRow
	s.send("POST", "/api/v1/guide", text(t, in)).json(t, &rows)
	require.Len(t, rows, len(want.Layout.Rows))
	assert.InDelta(t, want.Layout.Rows[3].Lower.Parts[2], rows[3].Lower.Parts[2], 0.006)
}

// The house rules are the owner's to set, with a currency that there is, and are saved
// over the version they were read at.
func TestHouseRulesBelongToTheStudio(t *testing.T) {
	t.Parallel()
	owner := open(t)
	var doc houseDocument
	owner.send("GET", "/api/v1/house", "").json(t, &doc)
	assert.Equal(t, house.Usual(), doc.Rules)
	save := func(currency, version string) int {
		return owner.send("PUT", "/api/v1/house", text(t, house.Rules{Schema: house.Schema, Currency: currency}), "If-Match", version).StatusCode
	}
	assert.Equal(t, 422, save("QQQ", `"1"`))
	assert.Equal(t, 422, save("€", `"1"`))
	assert.Equal(t, 200, save("EUR", `"1"`))
	assert.Equal(t, 200, save("EUR", `"1"`), "repeated")
	assert.Equal(t, 412, save("GBP", `"1"`))
	owner.send("GET", "/api/v1/house", "").json(t, &doc)
	assert.Equal(t, "EUR", doc.Rules.Currency)
	assert.Equal(t, 2, doc.Version)
}

func TestPlanIsKeptListedSavedAndDeleted(t *testing.T) {
	t.Parallel()
	s := open(t)
	var list pageOf[planEntry]
	s.send("GET", "/api/v1/plans", "").json(t, &list)
	assert.Empty(t, list.Items)

	in := plan.Default()
	made := s.send("POST", "/api/v1/plans", anew(draft(t, "  The pilot ", in)))
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	var doc planDocument
	made.json(t, &doc)
	assert.Equal(t, "The pilot", doc.Title)
	assert.Equal(t, `"1"`, made.Header.Get("ETag"))

	in.Parting.Front.Pattern, in.Parting.Back.Pattern = parting.Grid, parting.Grid
	saved := s.send("PUT", "/api/v1/plans/"+doc.ID, draft(t, "The pilot", in), "If-Match", `"1"`)
	require.Equal(t, http.StatusOK, saved.StatusCode, string(saved.body))
	assert.Equal(t, `"2"`, saved.Header.Get("ETag"))

	stale := s.send("PUT", "/api/v1/plans/"+doc.ID, draft(t, "Late", in), "If-Match", `"1"`)
	assert.Equal(t, http.StatusPreconditionFailed, stale.StatusCode)
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("PUT", "/api/v1/plans/"+doc.ID, draft(t, "Late", in)).StatusCode)

	var read planDocument
	s.send("GET", "/api/v1/plans/"+doc.ID, "").json(t, &read)
	assert.Equal(t, in, read.Input)
	s.send("GET", "/api/v1/plans", "").json(t, &list)
	require.Len(t, list.Items, 1)
	res, err := tally.Compute(context.Background(), in)
	require.NoError(t, err)
	assert.Equal(t, res.Tally.Sections, list.Items[0].Sections)
	assert.Equal(t, "grid", list.Items[0].Pattern)

	picture := s.send("GET", "/api/v1/plans/"+doc.ID+"/picture.svg?v=2", "")
	assert.Equal(t, http.StatusOK, picture.StatusCode)
	assert.Equal(t, "image/svg+xml", picture.Header.Get("Content-Type"))
	assert.Contains(t, picture.Header.Get("Cache-Control"), "immutable")
	assert.True(t, bytes.HasPrefix(picture.body, []byte("<svg")))

	assert.Equal(t, http.StatusNoContent, s.send("DELETE", "/api/v1/plans/"+doc.ID, "").StatusCode)
	for _, req := range [][2]string{{"GET", ""}, {"DELETE", ""}, {"GET", "/picture.svg"}} {
		gone := s.send(req[0], "/api/v1/plans/"+doc.ID+req[1], "")
		assert.Equal(t, http.StatusNotFound, gone.StatusCode)
		assert.Equal(t, "application/problem+json", gone.Header.Get("Content-Type"))
	}
}

// problemDetails are the fields of RFC 9457 that we use, with our extension.
type problemDetails struct {
	Title, Detail string
	Status        int
	Errors        []struct{ Location, Message string }
}

func TestBadInputIsRefusedByNameAndNothingIsKept(t *testing.T) {
	t.Parallel()
	s := open(t)
	good := draft(t, "A plan", plan.Default())
	kept := s.send("POST", "/api/v1/plans", anew(good))
	var doc planDocument
	kept.json(t, &doc)

	swap := func(was, is string) string {
		require.Contains(t, good, was)
		return strings.Replace(good, was, is, 1)
	}
	for name, c := range map[string]struct {
		body     string
		status   int
		location string
	}{
		"tape out of range":    {swap(`"circumferenceMm":558.8`, `"circumferenceMm":12`), 422, "body.input.head.circumferenceMm"},
		"contradictory tapes":  {swap(`"earToEarMm":317.5`, `"earToEarMm":235`), 422, "body.input.head.earToEarMm"},
		"zero size":            {swap(`"widthMm":25.4`, `"widthMm":0`), 422, "body.input.parting.front.widthMm"},
		"too many sections":    {strings.ReplaceAll(good, `Mm":25.4`, `Mm":5`), 422, "body.input.parting.back.widthMm"},
		"unknown field":        {swap(`"ownHead"`, `"sparkle":1,"ownHead"`), 422, "body.input.sparkle"},
		"missing field":        {swap(`,"ownHead":false`, ``), 422, "body.input"},
		"wrong type":           {swap(`"ownHead":false`, `"ownHead":"no"`), 422, "body.input.ownHead"},
		"blank name":           {swap(`"A plan"`, `"   "`), 422, "body.title"},
		"broken JSON":          {good[:len(good)/2], 400, "body"},
		"more than a megabyte": {swap(`"A plan"`, `"`+strings.Repeat("x", maxBody)+`"`), 413, ""},
	} {
		for _, way := range []string{"POST", "PUT"} {
			path, body := "/api/v1/plans", anew(c.body)
			if way == "PUT" {
				path, body = path+"/"+doc.ID, c.body
			}
			res := s.send(way, path, body, "If-Match", `"1"`)
			assert.Equal(t, c.status, res.StatusCode, "%s %s: %s", way, name, res.body)
			assert.Equal(t, "application/problem+json", res.Header.Get("Content-Type"), name)
			assert.Less(t, len(res.body), 4000, "%s is not sent back", name)
			var p problemDetails
			res.json(t, &p)
			assert.Equal(t, c.status, p.Status, name)
			assert.NotEmpty(t, p.Detail, name)
			if c.location != "" && assert.NotEmpty(t, p.Errors, name) {
				assert.Equal(t, c.location, p.Errors[0].Location, name)
			}
		}
	}
	var list pageOf[planEntry]
	s.send("GET", "/api/v1/plans", "").json(t, &list)
	require.Len(t, list.Items, 1)
	assert.Equal(t, 1, list.Items[0].Version)
}

func TestUnknownAddressesAndForeignOrigins(t *testing.T) {
	t.Parallel()
	s := open(t)
	for _, path := range []string{"/api/v1/nothing", "/api/", "/assets/none.js"} {
		res := s.send("GET", path, "")
		assert.Equal(t, http.StatusNotFound, res.StatusCode, path)
		assert.Equal(t, "application/problem+json", res.Header.Get("Content-Type"), path)
	}
	foreign := s.send("POST", "/api/v1/plans", anew(draft(t, "Theirs", plan.Default())), "Sec-Fetch-Site", "cross-site")
	assert.Equal(t, http.StatusForbidden, foreign.StatusCode)
}

func TestPageHasAStrictPolicy(t *testing.T) {
	t.Parallel()
	s := open(t)
	first, second := s.send("GET", "/plans", ""), s.send("GET", "/", "")
	require.Equal(t, http.StatusOK, first.StatusCode, "build the web application first: make bin/kladotex")
	policy := first.Header.Get("Content-Security-Policy")
	assert.Contains(t, policy, "default-src 'none'")
	// The chair's fold runs as WebAssembly, from a file of ours; nothing else is made of text.
	assert.NotContains(t, strings.Replace(policy, "script-src 'self' 'wasm-unsafe-eval';", "", 1), "unsafe")
	assert.NotEqual(t, policy, second.Header.Get("Content-Security-Policy"), "every answer has its own nonce")
	assert.NotContains(t, string(first.body), noncePlace)
	assert.NotContains(t, string(first.body), "://", "the page loads nothing from outside")
}

// The committed description, from which the web application's types are made, is
// the server's own. `make types` brings both up to date.
func TestDescriptionIsUpToDate(t *testing.T) {
	t.Parallel()
	want, err := os.ReadFile("../../docs/openapi.json")
	require.NoError(t, err)
	got, err := Describe()
	require.NoError(t, err)
	assert.JSONEq(t, string(want), string(got))
}
