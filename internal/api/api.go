// Package api serves a studio over HTTP: the typed operations under /api/v1 and
// the web application itself.
package api

import (
	"crypto/rand"
	"encoding/json"
	"log/slog"
	"net/http"
	"net/netip"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"
	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"

	"kladotex/core/plan"
	"kladotex/internal/password"
	"kladotex/internal/store"
)

// Limits at the edge.
const (
	maxBody        = plan.MaxDocument
	requestTimeout = 20 * time.Second
)

// server holds what the operations share.
type server struct {
	store    *store.Store
	sessions *scs.SessionManager
	demo     bool
	// nobody is the hash of a password that no one has.
	nobody string
}

// Options are what a server may be told.
type Options struct {
	// Demo lets anyone in as one of the studio's people, without a password.
	Demo bool
}

// New is the whole HTTP application over a store. log gets one line for each
// request: method, route, status and time, never what was sent.
func New(s *store.Store, log *slog.Logger, o Options) *echo.Echo {
	e := echo.New()
	e.Logger = log
	e.HTTPErrorHandler = echoProblem
	e.IPExtractor = echo.ExtractIPDirect() // no one else's word for an address
	sessions := newSessions(s)
	e.Use(
		middleware.RequestLoggerWithConfig(middleware.RequestLoggerConfig{
			LogMethod: true, LogRoutePath: true, LogStatus: true, LogLatency: true, HandleError: true,
			LogValuesFunc: func(_ *echo.Context, v middleware.RequestLoggerValues) error {
				log.Debug("request", "method", v.Method, "route", v.RoutePath, "status", v.Status, "took", v.Latency)
				return nil
			},
		}),
		middleware.Recover(),
		secure,
		middleware.CSRFWithConfig(middleware.CSRFConfig{
			CookieName: csrfCookie, CookiePath: "/", CookieSameSite: http.SameSiteStrictMode,
			ErrorHandler: func(*echo.Context, error) error {
				return echo.NewHTTPError(http.StatusForbidden, "This request did not come from Kladotex's own pages.")
			},
		}),
		middleware.ContextTimeout(requestTimeout),
		middleware.GzipWithConfig(middleware.GzipConfig{Skipper: onThisMachine, MinLength: 1 << 10}),
		slowGuessing(),
		inSession(sessions),
	)
	operations(e, &server{store: s, sessions: sessions, demo: o.Demo, nobody: password.Hash(rand.Text())})
	application(e)
	return e
}

// csrfCookie holds the token that a request from one of our own pages sends back
// as X-CSRF-Token, where the browser does not say itself where it comes from.
const csrfCookie = "kladotex_csrf"

// secure sets the headers every answer has; pages add a policy that lets them
// load what is ours.
func secure(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		header := c.Response().Header()
		header.Set("X-Content-Type-Options", "nosniff")
		header.Set("Referrer-Policy", "no-referrer")
		header.Set("X-Frame-Options", "DENY")
		header.Set("Cross-Origin-Opener-Policy", "same-origin")
		header.Set("Cross-Origin-Resource-Policy", "same-origin")
		header.Set("Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'")
		return next(c)
	}
}

// onThisMachine tells a request that came over loopback. Compressing for it would
// cost every slider movement more time than it saves.
func onThisMachine(c *echo.Context) bool {
	address, err := netip.ParseAddrPort(c.Request().RemoteAddr)
	return err == nil && address.Addr().Unmap().IsLoopback()
}

// operations registers every typed operation and returns their description.
func operations(e *echo.Echo, s *server) huma.API {
	config := huma.DefaultConfig("Kladotex", "1")
	config.Info.Description = "Plans for crocheted locs, twists and braids. Lengths are mm, areas mm², mass g, times minutes, money minor units of the studio's currency."
	config.OpenAPIPath = "/api/v1/openapi"
	config.DocsPath, config.SchemasPath = "", ""
	config.CreateHooks = nil
	api := huma.NewAPI(config, adapter{e})
	api.UseMiddleware(s.guard(api))
	s.sessionOperations(api)
	s.peopleOperations(api)
	s.clientOperations(api)
	s.previewOperations(api)
	s.planOperations(api)
	s.catalogueOperations(api)
	for _, item := range api.OpenAPI().Paths {
		for _, op := range []*huma.Operation{item.Get, item.Post, item.Put, item.Delete} {
			if op == nil {
				continue
			}
			if _, ok := access[op.OperationID]; !ok {
				panic("api: no right is set for the operation " + op.OperationID)
			}
		}
	}
	return api
}

// Describe is the OpenAPI 3.1 document of the operations, as JSON.
func Describe() ([]byte, error) {
	return json.MarshalIndent(operations(echo.New(), &server{}).OpenAPI(), "", " ")
}
