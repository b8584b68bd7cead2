package api

import (
	"bytes"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/plan"
	"kladotex/internal/store"
)

// A sign-in outlives a restart of the program.
func TestSignInOutlivesARestart(t *testing.T) {
	s := open(t)
	again := httptest.NewServer(served(t, s.store, slog.New(slog.DiscardHandler), Options{}))
	t.Cleanup(again.Close)
	before, err := url.Parse(s.url)
	require.NoError(t, err)
	after, err := url.Parse(again.URL)
	require.NoError(t, err)
	s.client.Jar.SetCookies(after, s.client.Jar.Cookies(before))
	s.url = again.URL
	var me personEntry
	res := s.send("GET", "/api/v1/session", "")
	require.Equal(t, http.StatusOK, res.StatusCode)
	res.json(t, &me)
	assert.Equal(t, personEntry{ID: me.ID, Name: "Odalys", Role: store.Owner}, me)
}

// What is logged, even of every request, says nothing of clients, people or what
// was sent.
func TestLogsHoldNoClientData(t *testing.T) {
	var log bytes.Buffer
	logger := slog.New(slog.NewTextHandler(&log, &slog.HandlerOptions{Level: slog.LevelDebug}))
	slog.SetDefault(logger)
	t.Cleanup(func() { slog.SetDefault(slog.New(slog.DiscardHandler)) })
	s := door(t, Options{})
	server := httptest.NewServer(served(t, s.store, logger, Options{}))
	t.Cleanup(server.Close)
	s.url = server.URL
	require.Equal(t, 201, s.send("POST", "/api/v1/owner", `{"name":"Odalys Brandt","password":"`+secret+`"}`).StatusCode)
	doc := s.newClient("Hesper Dunmorrow")
	s.newPlan("For Hesper Dunmorrow", plan.Default())
	s.send("GET", "/api/v1/clients?search=Dunmorrow", "")
	s.send("POST", "/api/v1/session", `{"name":"Odalys Brandt","password":"a wrong one"}`)
	s.send("POST", "/api/v1/clients", `{"name":"Juno Pellwether","archived":false,"facts":{}}`)
	s.send("GET", "/api/v1/clients/"+doc.ID+"/export", "")
	text := log.String()
	require.Contains(t, text, "/api/v1/clients", "requests are logged")
	for _, private := range []string{"Hesper", "Dunmorrow", "Odalys", "Juno", secret, "a wrong one", "an aunt", doc.ID} {
		assert.NotContains(t, text, private)
	}
}

// Every answer, page, file or refusal, carries the headers that keep others out.
func TestSecureHeadersOnEveryAnswer(t *testing.T) {
	s := open(t)
	for _, path := range []string{"/", "/favicon.svg", "/api/v1/plans", "/api/v1/nothing", "/nothing.js"} {
		res := s.send("GET", path, "")
		for header, want := range map[string]string{
			"X-Content-Type-Options": "nosniff", "X-Frame-Options": "DENY", "Referrer-Policy": "no-referrer",
			"Cross-Origin-Opener-Policy": "same-origin", "Cross-Origin-Resource-Policy": "same-origin",
		} {
			assert.Equal(t, want, res.Header.Get(header), "%s on %s", header, path)
		}
		assert.Contains(t, res.Header.Get("Content-Security-Policy"), "default-src 'none'", path)
		assert.Contains(t, res.Header.Get("Content-Security-Policy"), "frame-ancestors 'none'", path)
	}
}
