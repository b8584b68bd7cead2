package api

import (
	"log/slog"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/danielgtaylor/huma/v2"
	"github.com/labstack/echo/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/craft"
	"kladotex/core/pace"
	"kladotex/internal/store"
)

// Every route, asked by everyone: who may is let in, who may not is told so, and
// nobody gets past the door.
func TestEveryRouteKeepsToTheTableOfRights(t *testing.T) {
	t.Parallel()
	owner := open(t)
	people := map[store.Role]tester{store.Owner: owner, store.Stylist: owner.as(store.Stylist), store.Apprentice: owner.as(store.Apprentice)}
	described := operations(echo.New(), &server{}).OpenAPI()
	for path, item := range described.Paths {
		for method, op := range map[string]*huma.Operation{"GET": item.Get, "POST": item.Post, "PUT": item.Put, "DELETE": item.Delete} {
			if op == nil {
				continue
			}
			right, ok := rightsOf(op)
			require.True(t, ok, op.OperationID)
			if strings.HasPrefix(op.OperationID, "signOut") || op.OperationID == "signIn" || op.OperationID == "changePassword" {
				continue // they end or begin sessions; tested by themselves
			}
			where := strings.NewReplacer("{id}", "nobody", "{version}", "1").Replace(path)
			ask := func(s tester) int {
				return s.send(method, where, "{}", "If-Match", `"1"`).StatusCode
			}
			if len(right) == 0 {
				assert.NotContains(t, []int{http.StatusUnauthorized, http.StatusForbidden}, ask(owner.stranger()), op.OperationID)
				continue
			}
			assert.Equal(t, http.StatusUnauthorized, ask(owner.stranger()), op.OperationID)
			for role, s := range people {
				if slices.Contains(right, role) {
					assert.NotContains(t, []int{http.StatusUnauthorized, http.StatusForbidden}, ask(s), "%s by %s", op.OperationID, role)
				} else {
					assert.Equal(t, http.StatusForbidden, ask(s), "%s by %s", op.OperationID, role)
				}
			}
		}
	}
	// Who is signed in is told the same.
	for role, s := range people {
		var who me
		s.send("GET", "/api/v1/session", "").json(t, &who)
		assert.Equal(t, role == store.Owner, slices.Contains(who.May, "saveHouse"), role)
		assert.Equal(t, role != store.Apprentice, slices.Contains(who.May, "deletePlan"), role)
		assert.Contains(t, who.May, "preview", role)
	}
}

// What the roles mean, said once more in plain words.
func TestWhatAnApprenticeAndAStylistMayNotDo(t *testing.T) {
	t.Parallel()
	owner := open(t)
	stylist, apprentice := owner.as(store.Stylist), owner.as(store.Apprentice)
	id := owner.newClient("Juno Pellwether").ID
	for _, c := range []struct {
		who          tester
		method, path string
	}{
		{apprentice, "PUT", "/api/v1/clients/" + id},
		{apprentice, "GET", "/api/v1/clients/" + id + "/export"},
		{apprentice, "DELETE", "/api/v1/clients/" + id},
		{stylist, "DELETE", "/api/v1/clients/" + id},
		{stylist, "POST", "/api/v1/people"},
		{apprentice, "DELETE", "/api/v1/plans/nobody"},
	} {
		assert.Equal(t, http.StatusForbidden, c.who.send(c.method, c.path, "{}", "If-Match", `"1"`).StatusCode, "%s %s", c.method, c.path)
	}
	assert.Equal(t, http.StatusOK, apprentice.send("GET", "/api/v1/clients/"+id, "").StatusCode)
}

func TestOwnerIsNamedOnce(t *testing.T) {
	t.Parallel()
	s := door(t, Options{})
	var facts studioFacts
	s.send("GET", "/api/v1/studio", "").json(t, &facts)
	assert.True(t, facts.Empty)
	assert.Equal(t, 401, s.send("GET", "/api/v1/plans", "").StatusCode)

	for body, location := range map[string]string{
		`{"name":" ","password":"lantern regatta"}`: "body.name",
		`{"name":"Odalys","password":"short"}`:      "body.password",
	} {
		res := s.send("POST", "/api/v1/owner", body)
		require.Equal(t, 422, res.StatusCode)
		var p problemDetails
		res.json(t, &p)
		assert.Equal(t, location, p.Errors[0].Location)
	}
	require.Equal(t, 201, s.send("POST", "/api/v1/owner", `{"name":"Odalys","password":"lantern regatta"}`).StatusCode)
	assert.Equal(t, 409, s.stranger().send("POST", "/api/v1/owner", `{"name":"Thief","password":"lantern regatta"}`).StatusCode)
	s.send("GET", "/api/v1/studio", "").json(t, &facts)
	assert.False(t, facts.Empty)
	assert.Empty(t, facts.Demo, "names are not told at the door")
}

func TestSigningInAndOut(t *testing.T) {
	t.Parallel()
	s := open(t)
	laptop, tablet := s.stranger(), s.stranger()
	assert.Equal(t, 401, laptop.signIn("Odalys", "lantern regattas").StatusCode)
	assert.Equal(t, 401, laptop.signIn("Nobody", secret).StatusCode)
	in := laptop.signIn("odalys", secret)
	require.Equal(t, 201, in.StatusCode)
	cookie := in.Header.Get("Set-Cookie")
	for _, part := range []string{"HttpOnly", "SameSite=Strict", sessionCookie(s.store) + "="} {
		assert.Contains(t, cookie, part)
	}
	require.Equal(t, 201, tablet.signIn("Odalys", secret).StatusCode)

	require.Equal(t, 204, laptop.send("DELETE", "/api/v1/session", "").StatusCode)
	assert.Equal(t, 204, laptop.send("GET", "/api/v1/session", "").StatusCode)
	assert.Equal(t, 200, tablet.send("GET", "/api/v1/session", "").StatusCode, "the tablet stays signed in")

	// A new password: signed in here, out everywhere else.
	require.Equal(t, 201, laptop.signIn("Odalys", secret).StatusCode)
	wrong := tablet.send("PUT", "/api/v1/session/password", `{"old":"what was it","password":"merrow sound"}`)
	assert.Equal(t, 422, wrong.StatusCode)
	require.Equal(t, 204, tablet.send("PUT", "/api/v1/session/password", `{"old":"`+secret+`","password":"merrow sound"}`).StatusCode)
	assert.Equal(t, 200, tablet.send("GET", "/api/v1/session", "").StatusCode)
	assert.Equal(t, 204, laptop.send("GET", "/api/v1/session", "").StatusCode)
	assert.Equal(t, 401, laptop.signIn("Odalys", secret).StatusCode)
	require.Equal(t, 201, laptop.signIn("Odalys", "merrow sound").StatusCode)

	require.Equal(t, 204, laptop.send("DELETE", "/api/v1/sessions", "").StatusCode)
	for _, machine := range []tester{laptop, tablet} {
		assert.Equal(t, 204, machine.send("GET", "/api/v1/session", "").StatusCode)
	}
}

func TestPeopleAreAddedChangedAndTakenOut(t *testing.T) {
	t.Parallel()
	owner := open(t)
	stylist := owner.as(store.Stylist)
	var me personEntry
	stylist.send("GET", "/api/v1/session", "").json(t, &me)
	assert.Equal(t, 422, owner.send("POST", "/api/v1/people", `{"name":"STYLIST","password":"lantern regatta","role":"stylist"}`).StatusCode, "a name is taken whatever its case")

	// A role counts from the next request on; a new password ends all sign-ins.
	require.Equal(t, 200, owner.send("PUT", "/api/v1/people/"+me.ID, `{"name":"Tamsin","role":"apprentice"}`).StatusCode)
	assert.Equal(t, 403, stylist.send("POST", "/api/v1/clients", "{}").StatusCode)
	require.Equal(t, 200, owner.send("PUT", "/api/v1/people/"+me.ID, `{"name":"Tamsin","role":"stylist","password":"quite another one"}`).StatusCode)
	assert.Equal(t, 204, stylist.send("GET", "/api/v1/session", "").StatusCode)
	require.Equal(t, 201, stylist.signIn("Tamsin", "quite another one").StatusCode)

	require.Equal(t, 204, owner.send("DELETE", "/api/v1/people/"+me.ID, "").StatusCode)
	assert.Equal(t, 204, stylist.send("GET", "/api/v1/session", "").StatusCode)
	assert.Equal(t, 404, owner.send("DELETE", "/api/v1/people/"+me.ID, "").StatusCode)
	owner.send("GET", "/api/v1/session", "").json(t, &me)
	assert.Equal(t, 409, owner.send("DELETE", "/api/v1/people/"+me.ID, "").StatusCode, "the last owner stays")
}

func TestGuessingPasswordsIsSlowed(t *testing.T) {
	t.Parallel()
	s := open(t).stranger()
	refused := 0
	for range 2 * addressBurst {
		res := s.signIn("Odalys", "guess after guess")
		if res.StatusCode == http.StatusTooManyRequests {
			refused++
			assert.NotEmpty(t, res.Header.Get("Retry-After"))
			assert.Contains(t, string(res.body), "Wait a little")
		} else {
			require.Equal(t, http.StatusUnauthorized, res.StatusCode)
		}
	}
	assert.GreaterOrEqual(t, refused, addressBurst-2, "all but the first few, and one for every %v", addressPause)
	assert.Equal(t, http.StatusTooManyRequests, s.signIn("Odalys", secret).StatusCode, "the right one has to wait too")
	assert.Equal(t, http.StatusTooManyRequests, s.send("POST", "/api/v1/session", "{}", "X-Forwarded-For", "198.51.100.7").StatusCode, "no one's word is taken for another address")
}

// demoDoor is the demo studio, with nobody in it yet.
func demoDoor(t *testing.T) tester {
	t.Helper()
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "demo.db"))
	require.NoError(t, err)
	require.NoError(t, s.MarkDemo(t.Context()))
	server := httptest.NewServer(served(t, s, slog.New(slog.DiscardHandler), Options{Demo: true}))
	t.Cleanup(func() { server.Close(); s.Close() })
	return tester{t, s, server.URL, nil}.stranger()
}

func TestTheDemoLetsAnyoneInAndOthersNobody(t *testing.T) {
	t.Parallel()
	s := demoDoor(t)
	p, err := s.store.AddPerson(t.Context(), "Ikaika", store.Apprentice, "no password")
	require.NoError(t, err)
	var facts studioFacts
	s.send("GET", "/api/v1/studio", "").json(t, &facts)
	assert.Equal(t, []personEntry{{p.ID, "Ikaika", store.Apprentice, PersonPace{pace.Practised, craft.OwnHead}}}, facts.Demo)
	assert.Equal(t, 404, s.send("POST", "/api/v1/session/demo", `{"id":"nobody"}`).StatusCode)
	assert.Equal(t, 201, s.send("POST", "/api/v1/session/demo", `{"id":"`+p.ID+`"}`).StatusCode)
	assert.Equal(t, 200, s.send("GET", "/api/v1/plans", "").StatusCode)

	other := open(t)
	var me personEntry
	other.send("GET", "/api/v1/session", "").json(t, &me)
	assert.Equal(t, 404, other.stranger().send("POST", "/api/v1/session/demo", `{"id":"`+me.ID+`"}`).StatusCode)
}

func TestForeignRequestsAreRefused(t *testing.T) {
	t.Parallel()
	s := open(t)
	body := `{"name":"Theirs","archived":false,"facts":{}}`
	for name, headers := range map[string][]string{
		"another site":       {"Sec-Fetch-Site", "cross-site"},
		"a sister site":      {"Sec-Fetch-Site", "same-site"},
		"no token":           {"Sec-Fetch-Site", ""},
		"a token made up":    {"Sec-Fetch-Site", "", "X-CSRF-Token", "abcdefghijklmnopqrstuvwxyzabcdef"},
		"a token, no cookie": {"Sec-Fetch-Site", "", "X-CSRF-Token", "x", "Cookie", ""},
	} {
		res := s.send("POST", "/api/v1/clients", body, headers...)
		assert.Equal(t, http.StatusForbidden, res.StatusCode, name)
		assert.Equal(t, "application/problem+json", res.Header.Get("Content-Type"), name)
	}
	// A browser that does not say where from: the token of our cookie counts.
	seen := s.send("GET", "/api/v1/clients", "", "Sec-Fetch-Site", "")
	token := ""
	for _, c := range seen.Cookies() {
		if c.Name == csrfCookie(s.store) {
			token = c.Value
		}
	}
	require.NotEmpty(t, token)
	assert.Equal(t, 422, s.send("POST", "/api/v1/clients", body, "Sec-Fetch-Site", "", "X-CSRF-Token", token).StatusCode, "past the guard, refused for its facts")

	forged := s.stranger().send("GET", "/api/v1/plans", "", "Cookie", sessionCookie(s.store)+"=AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA")
	assert.Equal(t, http.StatusUnauthorized, forged.StatusCode)
}
