package api

import (
	"context"
	"database/sql"
	"fmt"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"net/netip"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/labstack/echo/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/client"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/internal/store"
)

// at is a studio told how to serve, with its owner signed in from an address that is
// believed when it says so.
func at(t *testing.T, o Options) tester {
	t.Helper()
	s := door(t, o)
	res := s.send("POST", "/api/v1/owner", text(t, map[string]string{"name": "Odalys", "password": secret}))
	require.Equal(t, http.StatusCreated, res.StatusCode, string(res.body))
	return s
}

// A page elsewhere that gives its own name to this machine's address is not served.
func TestOnlyKnownNamesAreServed(t *testing.T) {
	t.Parallel()
	s := at(t, Options{Hosts: []string{"loft.example"}})
	address, err := url.Parse(s.url)
	require.NoError(t, err)
	ask := func(host, path string) answer {
		req, err := http.NewRequestWithContext(t.Context(), "GET", s.url+path, nil)
		require.NoError(t, err)
		req.Host = host
		res, err := s.client.Do(req)
		require.NoError(t, err)
		defer res.Body.Close()
		return answer{res, nil}
	}
	for _, host := range []string{"127.0.0.1:" + address.Port(), "localhost:8467", "LOCALHOST", "127.5.4.3", "[::1]:80", "loft.example", "Loft.Example:443", "loft.example."} {
		assert.Equal(t, http.StatusOK, ask(host, "/api/v1/studio").StatusCode, host)
		assert.Equal(t, http.StatusOK, ask(host, "/").StatusCode, host)
	}
	for _, host := range []string{"evil.example", "evil.example:" + address.Port(), "127.0.0.1.evil.example", "localhost.evil.example", "192.0.2.7", "loft.example.evil.example", "x"} {
		for _, path := range []string{"/", "/api/v1/studio", "/api/v1/openapi.json", "/favicon.svg"} {
			res := ask(host, path)
			assert.Equal(t, http.StatusMisdirectedRequest, res.StatusCode, host+path)
			assert.Equal(t, "application/problem+json", res.Header.Get("Content-Type"))
		}
	}
}

// A route under the API that no right was set for stops the start, whatever its method
// and however it came to be there.
func TestARouteWithoutRightsStopsTheStart(t *testing.T) {
	t.Parallel()
	for _, method := range []string{"GET", "POST", "PUT", "PATCH", "DELETE", "HEAD", "OPTIONS"} {
		e := echo.New()
		e.Add(method, "/api/v1/plans/:id/everything", func(c *echo.Context) error { return nil })
		assert.PanicsWithValue(t, "api: no right is declared with the route "+method+" /api/v1/plans/:id/everything", func() { operations(e, &server{}) }, method)
	}
	e := echo.New()
	operations(e, &server{})
	assert.Greater(t, len(e.Router().Routes()), 30)
}

func TestAnswersAreKeptInNoCache(t *testing.T) {
	t.Parallel()
	s := open(t)
	doc := s.newPlan("The pilot", plan.Default())
	for _, path := range []string{"/api/v1/plans", "/api/v1/plans/" + doc.ID, "/api/v1/session", "/api/v1/clients", "/api/v1/nothing", "/api/v1/plans/" + doc.ID + "/sheet.pdf"} {
		assert.Equal(t, "no-store", s.send("GET", path, "").Header.Get("Cache-Control"), path)
	}
}

// Two studios on one host do not sign each other out, and cookies behind HTTPS go over
// nothing else.
func TestCookiesAreOfOneStudio(t *testing.T) {
	t.Parallel()
	first, second := open(t), at(t, Options{Secure: true})
	names := map[string]bool{}
	for _, s := range []tester{first, second} {
		res := s.signIn("Odalys", secret)
		require.Equal(t, http.StatusCreated, res.StatusCode)
		for _, c := range append(res.Cookies(), s.send("GET", "/api/v1/session", "").Cookies()...) {
			names[c.Name] = true
			assert.Equal(t, s.url == second.url, c.Secure, c.Name)
		}
	}
	assert.Len(t, names, 2, "each has a name of its own: %v", names)
	both := first.stranger()
	require.Equal(t, http.StatusCreated, both.signIn("Odalys", secret).StatusCode)
	there := both
	there.url = open(t).url // another port of the same host, the same cookies
	require.Equal(t, http.StatusCreated, there.signIn("Odalys", secret).StatusCode)
	assert.Equal(t, http.StatusOK, both.send("GET", "/api/v1/session", "").StatusCode)
}

// guess tries a wrong password from an address, and tells what came of it.
func (s tester) guess(name, from string) int {
	s.t.Helper()
	return s.send("POST", "/api/v1/session", text(s.t, map[string]string{"name": name, "password": "guess after guess"}), "X-Forwarded-For", from).StatusCode
}

// One address alone cannot use up the tries of an account and lock its owner out; many
// together cannot guess on; and an address the account was opened from before is let
// in all the while.
func TestGuessingIsLimitedByAccountAndByAddress(t *testing.T) {
	t.Parallel()
	s := at(t, Options{Proxies: []netip.Prefix{netip.MustParsePrefix("127.0.0.0/8")}})
	right := func(from string) int {
		return s.stranger().send("POST", "/api/v1/session", text(t, map[string]string{"name": "Odalys", "password": secret}), "X-Forwarded-For", from).StatusCode
	}
	require.Equal(t, http.StatusCreated, right("192.0.2.1"))
	for range 3 * addressBurst {
		s.guess("Odalys", "192.0.2.66")
	}
	assert.Equal(t, http.StatusTooManyRequests, s.guess("Odalys", "192.0.2.66"))
	assert.Equal(t, http.StatusCreated, right("192.0.2.2"), "the owner comes in from elsewhere")

	tried := 0
	for i := range 4 * accountBurst {
		if s.guess("Odalys", fmt.Sprintf("198.51.100.%d", i)) == http.StatusUnauthorized {
			tried++
		}
	}
	assert.LessOrEqual(t, tried, accountBurst, "many addresses are one guesser")
	assert.Equal(t, http.StatusTooManyRequests, right("203.0.113.9"), "not even the right one, from nowhere")
	assert.Equal(t, http.StatusCreated, right("192.0.2.1"), "from where it was opened before it opens")
	assert.Equal(t, http.StatusUnauthorized, s.guess("Tamsin", "203.0.113.10"), "another account is not touched")

	// Of version 6 a whole network is one guesser.
	refused := 0
	for i := range 2 * addressBurst {
		if s.guess("Ikaika", fmt.Sprintf("2001:db8:0:1::%x", i+1)) == http.StatusTooManyRequests {
			refused++
		}
	}
	assert.GreaterOrEqual(t, refused, addressBurst-1)
}

// A proxy that is not trusted is not believed; behind a trusted one only what it wrote
// itself is.
func TestTheTrueAddressIsLimited(t *testing.T) {
	t.Parallel()
	s := at(t, Options{Proxies: []netip.Prefix{netip.MustParsePrefix("127.0.0.0/8")}})
	for i := range 2 * addressBurst { // the first entry is the sender's own word
		s.guess("Nobody", fmt.Sprintf("198.51.100.%d, 192.0.2.66", i))
	}
	assert.Equal(t, http.StatusTooManyRequests, s.guess("Nobody", "198.51.100.99, 192.0.2.66"))
}

// Present passwords are guessed no faster than others are.
func TestThePresentPasswordIsNotGuessed(t *testing.T) {
	t.Parallel()
	s := open(t)
	refused := 0
	for range 2 * addressBurst {
		if s.send("PUT", "/api/v1/session/password", `{"old":"guess after guess","password":"lantern regattas"}`).StatusCode == http.StatusTooManyRequests {
			refused++
		}
	}
	assert.GreaterOrEqual(t, refused, addressBurst-2)
}

// Those who claim a studio that has an owner cost nothing, and those who hang up do not
// keep others waiting at the door.
func TestClaimsThatHangUpDoNotHoldTheDoor(t *testing.T) {
	t.Parallel()
	s := at(t, Options{Proxies: []netip.Prefix{netip.MustParsePrefix("127.0.0.0/8")}})
	claim := text(t, map[string]string{"name": "Thief", "password": secret})
	for range 3 * addressBurst {
		status := s.stranger().send("POST", "/api/v1/owner", claim, "X-Forwarded-For", "192.0.2.66").StatusCode
		assert.Contains(t, []int{http.StatusConflict, http.StatusTooManyRequests}, status)
	}
	var gone sync.WaitGroup
	for i := range 100 {
		gone.Go(func() {
			ctx, stop := context.WithTimeout(t.Context(), 20*time.Millisecond)
			defer stop()
			req, err := http.NewRequestWithContext(ctx, "POST", s.url+"/api/v1/session", strings.NewReader(text(t, map[string]string{"name": fmt.Sprint("Nobody ", i), "password": secret})))
			if err != nil {
				return
			}
			req.Header.Set("Content-Type", "application/json")
			req.Header.Set("Sec-Fetch-Site", "same-origin")
			req.Header.Set("X-Forwarded-For", fmt.Sprintf("198.51.100.%d", i))
			if res, err := http.DefaultClient.Do(req); err == nil {
				res.Body.Close()
			}
		})
	}
	gone.Wait()
	// A hundred hashes would take two turns at a time some four seconds.
	start := time.Now()
	require.Equal(t, http.StatusCreated, s.stranger().send("POST", "/api/v1/session", text(t, map[string]string{"name": "Odalys", "password": secret}), "X-Forwarded-For", "192.0.2.1").StatusCode)
	assert.Less(t, time.Since(start), 3*time.Second)
}

// More requests than can be served wait in line or are sent away politely; none is
// answered by an error of the file's.
func TestManyRequestsAtOnce(t *testing.T) {
	s := open(t)
	var lock sync.Mutex
	statuses := map[int]int{}
	var all sync.WaitGroup
	for i := range 400 {
		all.Go(func() {
			method, path, body := "GET", "/api/v1/plans", ""
			if i%4 == 0 {
				method, body = "POST", anew(draft(t, "One of many", plan.Default()))
			}
			res := s.send(method, path, body)
			if res.StatusCode == http.StatusServiceUnavailable {
				assert.NotEmpty(t, res.Header.Get("Retry-After"))
			}
			lock.Lock()
			statuses[res.StatusCode]++
			lock.Unlock()
		})
	}
	all.Wait()
	for status := range statuses {
		assert.Contains(t, []int{http.StatusOK, http.StatusCreated, http.StatusServiceUnavailable}, status, "%v", statuses)
	}
	assert.Positive(t, statuses[http.StatusCreated])
}

// What ails the file is said as it is, and never taken for a sign-in that is missing.
func TestTroublesOfTheFileAreSaid(t *testing.T) {
	t.Parallel()
	path := filepath.Join(t.TempDir(), "studio.db")
	kept, err := store.Open(t.Context(), path)
	require.NoError(t, err)
	server := httptest.NewServer(served(t, kept, slog.New(slog.DiscardHandler), Options{}))
	t.Cleanup(func() { server.Close(); kept.Close() })
	s := tester{t, kept, server.URL, nil}.stranger()
	require.Equal(t, http.StatusCreated, s.send("POST", "/api/v1/owner", text(t, map[string]string{"name": "Odalys", "password": secret})).StatusCode)

	// Another program holds the file for longer than is waited.
	other, err := sql.Open("sqlite", "file:"+path+"?_txlock=exclusive")
	require.NoError(t, err)
	defer other.Close()
	tx, err := other.Begin()
	require.NoError(t, err)
	busy := s.send("POST", "/api/v1/plans", anew(draft(t, "Late", plan.Default())))
	require.NoError(t, tx.Rollback())
	assert.Equal(t, http.StatusServiceUnavailable, busy.StatusCode, string(busy.body))
	assert.NotEmpty(t, busy.Header.Get("Retry-After"))
	assert.Contains(t, string(busy.body), "busy")

	// The pages of the file turn to rubbish under it.
	require.NoError(t, kept.Close())
	broken, err := os.ReadFile(path)
	require.NoError(t, err)
	for i := 100; i < len(broken); i++ {
		broken[i] ^= 0x5a
	}
	require.NoError(t, os.WriteFile(path, broken, 0o600))
	res := s.send("GET", "/api/v1/plans", "")
	assert.Equal(t, http.StatusInternalServerError, res.StatusCode, string(res.body))
	assert.NotContains(t, string(res.body), "Sign in")
}

// An answer that was lost is asked for again with the same id: one plan, one client, one
// import.
func TestLostAcknowledgementsMakeNothingTwice(t *testing.T) {
	t.Parallel()
	s := open(t)
	made := anew(draft(t, "The pilot", plan.Default()))
	for range 3 {
		require.Equal(t, http.StatusCreated, s.send("POST", "/api/v1/plans", made).StatusCode)
	}
	assert.Equal(t, http.StatusPreconditionFailed, s.send("POST", "/api/v1/plans", strings.Replace(made, "The pilot", "Another", 1)).StatusCode)
	file, err := plan.File{Title: "Carried here", Input: plan.Default()}.Encode()
	require.NoError(t, err)
	id := uuid.NewString()
	for range 2 {
		require.Equal(t, http.StatusCreated, s.send("POST", "/api/v1/import?id="+id, string(file)).StatusCode)
	}
	var list pageOf[planEntry]
	s.send("GET", "/api/v1/plans", "").json(t, &list)
	assert.Len(t, list.Items, 2)
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("POST", "/api/v1/plans", draft(t, "No id", plan.Default())).StatusCode)

	// Deleted is deleted, for requests that come late too.
	require.Equal(t, http.StatusNoContent, s.send("DELETE", "/api/v1/plans/"+id, "").StatusCode)
	assert.Equal(t, http.StatusNotFound, s.send("POST", "/api/v1/import?id="+id, string(file)).StatusCode)

	// A repeated save is none that met another's.
	plans := list.Items
	body := draft(t, "The pilot, again", plan.Default())
	path := "/api/v1/plans/" + plans[1].ID
	first := s.send("PUT", path, body, "If-Match", `"1"`)
	require.Equal(t, http.StatusOK, first.StatusCode)
	again := s.send("PUT", path, body, "If-Match", `"1"`)
	require.Equal(t, http.StatusOK, again.StatusCode)
	assert.Equal(t, string(first.body), string(again.body))
	assert.Equal(t, http.StatusPreconditionFailed, s.send("PUT", path, draft(t, "Late", plan.Default()), "If-Match", `"1"`).StatusCode)
}

// Lists come a page at a time.
func TestListsArePaged(t *testing.T) {
	t.Parallel()
	s := open(t)
	for i := range 7 {
		s.newPlan(fmt.Sprint("Plan ", i), plan.Default())
	}
	seen := map[string]bool{}
	for next, pages := "", 0; ; pages++ {
		var page pageOf[planEntry]
		s.send("GET", "/api/v1/plans?limit=3&after="+next, "").json(t, &page)
		for _, e := range page.Items {
			seen[e.ID] = true
		}
		if next = page.Next; next == "" {
			assert.Equal(t, 2, pages)
			break
		}
		assert.Len(t, page.Items, 3)
	}
	assert.Len(t, seen, 7)
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("GET", "/api/v1/plans?after=%25%25", "").StatusCode)
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("GET", "/api/v1/plans?limit=100000", "").StatusCode)
}

// Whoever asks for a second long computation waits for the first, and nobody for those
// who hung up.
func TestOneLongComputationEach(t *testing.T) {
	var each oneEach
	end, err := each.begin(t.Context(), "Odalys")
	require.NoError(t, err)
	ctx, stop := context.WithCancel(t.Context())
	stop()
	_, err = each.begin(ctx, "Odalys")
	assert.ErrorIs(t, err, context.Canceled)
	other, err := each.begin(t.Context(), "Tamsin")
	require.NoError(t, err, "another person does not wait")
	other()
	end()
	end, err = each.begin(t.Context(), "Odalys")
	require.NoError(t, err)
	end()
	assert.Empty(t, each.turns, "nothing is kept of those who are done")

	// The request's context reaches the work: the person's turn is free again.
	s := open(t)
	in := plan.Default()
	in.Parting.Part.Kind = parting.Levels
	in.Parting.Front.Size = parting.Size{Width: 8, Height: 8}
	body := text(t, countWish{in, parting.Count{Total: 1777}})
	for range 3 {
		ctx, stop := context.WithTimeout(t.Context(), 30*time.Millisecond)
		req, err := http.NewRequestWithContext(ctx, "POST", s.url+"/api/v1/fit", strings.NewReader(body))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "application/json")
		req.Header.Set("Sec-Fetch-Site", "same-origin")
		_, err = s.client.Do(req)
		assert.ErrorIs(t, err, context.DeadlineExceeded)
		stop()
	}
	assert.Equal(t, http.StatusOK, s.send("POST", "/api/v1/fit", body).StatusCode)
}

// A client who was not measured changes nothing of a plan's measures.
func TestAPlanKeepsWhatTheClientsCardDoesNotSay(t *testing.T) {
	t.Parallel()
	s := open(t)
	made := s.send("POST", "/api/v1/clients", anew(`{"name":"Not measured","archived":false,"facts":`+text(t, client.New())+`}`))
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	var c clientDocument
	made.json(t, &c)
	in := plan.Default()
	in.Hair.Crown, in.Head.FrontToNape, in.Hairline.Front = 333, 350, 4
	var out plan.Input
	s.send("POST", "/api/v1/clients/"+c.ID+"/input", text(t, in)).json(t, &out)
	assert.Equal(t, 333.0, out.Hair.Crown)
	assert.Equal(t, in.Head, out.Head)
	assert.Equal(t, in.Hairline, out.Hairline)
}

// All that is held about a client: the states pinned beside their plans too.
func TestHeldIsEverything(t *testing.T) {
	t.Parallel()
	s := open(t)
	c := s.newClient("Juno Pellwether")
	in := plan.Default()
	pinned := in
	pinned.OwnHead = true
	body := PlanDraft{Title: "For Juno", ClientID: c.ID, Input: in, Variants: []variant{{Name: "Pinned beside it", Input: &pinned}}}
	require.Equal(t, http.StatusCreated, s.send("POST", "/api/v1/plans", anew(text(t, body))).StatusCode)
	held := string(s.send("GET", "/api/v1/clients/"+c.ID+"/export", "").body)
	assert.Contains(t, held, "Pinned beside it")
	assert.Contains(t, held, `"ownHead": true`)
}

// Failed sign-ins are logged with where they came from, and errors name their route.
func TestFailuresAreLogged(t *testing.T) {
	var log strings.Builder
	var lock sync.Mutex
	slog.SetDefault(slog.New(slog.NewTextHandler(writer(func(p []byte) (int, error) {
		lock.Lock()
		defer lock.Unlock()
		return log.Write(p)
	}), nil)))
	t.Cleanup(func() { slog.SetDefault(slog.New(slog.DiscardHandler)) })
	s := open(t)
	s.stranger().signIn("Odalys", "not the one it is")
	require.NoError(t, s.store.Close())
	s.send("GET", "/api/v1/studio", "")
	lock.Lock()
	defer lock.Unlock()
	assert.Contains(t, log.String(), `msg="sign-in failed" from=127.0.0.1`)
	assert.Contains(t, log.String(), `route=`)
}

type writer func([]byte) (int, error)

func (w writer) Write(p []byte) (int, error) { return w(p) }
