// Package api serves a studio over HTTP: the typed operations under /api/v1 and
// the web application itself.
package api

import (
	"context"
	"encoding/json"
	"log/slog"
	"net"
	"net/http"
	"net/netip"
	"reflect"
	"strings"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"
	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"

	"kladotex/core/plan"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// Limits at the edge.
const (
	maxBody        = plan.MaxDocument
	requestTimeout = 20 * time.Second
)

// server holds what the operations share.
type server struct {
	studio   *studio.Studio
	sessions *scs.SessionManager
	demo     bool
	guesses  *guesses
	long     oneEach
	// operations are those of the interface, by method and path.
	operations map[string]*huma.Operation
}

// Options are what a server may be told.
type Options struct {
	// Demo lets anyone in as one of the studio's people, without a password, where the
	// studio is the demo.
	Demo bool
	// Hosts are the names it answers to, beside those of this machine.
	Hosts []string
	// Secure is true behind HTTPS: cookies are then sent over nothing else.
	Secure bool
	// Proxies are believed when they say where a request comes from.
	Proxies []netip.Prefix
}

// clientAddress finds where a request comes from: by its connection, or as trusted
// proxies say. No one else's word is taken for it.
func (o Options) clientAddress() echo.IPExtractor {
	if len(o.Proxies) == 0 {
		return echo.ExtractIPDirect()
	}
	trust := []echo.TrustOption{echo.TrustLoopback(false), echo.TrustLinkLocal(false), echo.TrustPrivateNet(false)}
	for _, p := range o.Proxies {
		trust = append(trust, echo.TrustIPRange(&net.IPNet{
			IP: p.Addr().AsSlice(), Mask: net.CIDRMask(p.Bits(), p.Addr().BitLen()),
		}))
	}
	return echo.ExtractIPFromXFFHeader(trust...)
}

// New is the whole HTTP application over a store and the world around the studio. log gets one line for each
// request: method, route, status and time, never what was sent. It fails when ctx ends
// before it is ready.
func New(ctx context.Context, s *store.Store, outside studio.Outside, log *slog.Logger, o Options) (*echo.Echo, error) {
	use, err := studio.Open(ctx, s, outside)
	if err != nil {
		return nil, err
	}
	e := echo.New()
	e.Logger = log
	e.HTTPErrorHandler = echoProblem
	e.IPExtractor = o.clientAddress()
	sessions, guesses := newSessions(s, o.Secure), newGuesses()
	csrfCookie := csrfCookie(s)
	served := &server{studio: use, sessions: sessions, demo: o.Demo && s.Facts().Demo, guesses: guesses, operations: map[string]*huma.Operation{}}
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
		knownHost(o.Hosts),
		readFirst(served.operations),
		inTurn(),
		middleware.CSRFWithConfig(middleware.CSRFConfig{
			CookieName: csrfCookie, CookiePath: "/", CookieSameSite: http.SameSiteStrictMode, CookieSecure: o.Secure,
			ErrorHandler: func(*echo.Context, error) error {
				return echo.NewHTTPError(http.StatusForbidden, "This request did not come from Kladotex's own pages.")
			},
		}),
		middleware.ContextTimeoutWithConfig(middleware.ContextTimeoutConfig{Timeout: requestTimeout, Skipper: readsTable}),
		middleware.GzipWithConfig(middleware.GzipConfig{Skipper: onThisMachine(o), MinLength: 1 << 10}),
		guesses.slowGuessing,
		inSession(sessions),
	)
	operations(e, served)
	served.handedOver(e)
	application(e, csrfCookie)
	return e, nil
}

// csrfCookie is the name of the cookie with the token that a request from one of our
// own pages sends back as X-CSRF-Token, where the browser does not say itself where it
// comes from. Cookies of one host are shared by all its ports, so each studio has names
// of its own.
func csrfCookie(s *store.Store) string { return sessionCookie(s) + "_csrf" }

// sessionCookie is the name of the cookie with the session.
func sessionCookie(s *store.Store) string { return "kladotex_" + s.Facts().ID }

// secure sets the headers every answer has; pages add a policy that lets them
// load what is ours. What is answered under the API is private and stays in no cache,
// unless its operation says for how long.
func secure(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		header := c.Response().Header()
		header.Set("X-Content-Type-Options", "nosniff")
		header.Set("Referrer-Policy", "no-referrer")
		header.Set("X-Frame-Options", "DENY")
		header.Set("Cross-Origin-Opener-Policy", "same-origin")
		header.Set("Cross-Origin-Resource-Policy", "same-origin")
		header.Set("Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'")
		if strings.HasPrefix(c.Request().URL.Path, "/api/") {
			header.Set("Cache-Control", "no-store")
		}
		return next(c)
	}
}

// readsTable tells a request that reads a table in: it says how far it has come, and has a limit of its own.
func readsTable(c *echo.Context) bool {
	return c.Request().Method == http.MethodPost && strings.HasPrefix(c.Request().URL.Path, "/api/v1/tables/")
}

// onThisMachine tells a request that came over loopback, and not through a proxy there.
// Compressing for it would cost every slider movement more time than it saves.
func onThisMachine(o Options) middleware.Skipper {
	return func(c *echo.Context) bool {
		address, err := netip.ParseAddrPort(c.Request().RemoteAddr)
		return err == nil && address.Addr().Unmap().IsLoopback() && len(o.Proxies) == 0
	}
}

// operations registers every typed operation and returns their description.
func operations(e *echo.Echo, s *server) huma.API {
	config := huma.DefaultConfig("Kladotex", "1")
	config.Info.Description = "Plans for crocheted locs, twists and braids. Lengths are mm, areas mm², mass g, times minutes, money minor units of the studio's currency."
	config.OpenAPIPath = "/api/v1/openapi"
	config.DocsPath, config.SchemasPath = "", ""
	config.CreateHooks = nil
	config.Formats = map[string]huma.Format{"application/json": columnsFirst, "json": columnsFirst}
	config.Components.Schemas = huma.NewMapRegistry("#/components/schemas/", schemaName)
	enumerate(config.Components.Schemas)
	if s.operations == nil {
		s.operations = map[string]*huma.Operation{}
	}
	routes := adapter{e, s.operations}
	api := huma.NewAPI(config, routes)
	api.UseMiddleware(s.guard(api))
	s.sessionOperations(api)
	s.peopleOperations(api)
	s.clientOperations(api)
	s.previewOperations(api)
	s.proposalOperations(api)
	s.planOperations(api)
	s.clearanceOperations(api)
	s.quoteOperations(api)
	s.calendarOperations(api)
	s.messageOperations(api)
	s.chairOperations(api)
	s.wearOperations(api)
	s.catalogueOperations(api)
	s.figureOperations(api)
	s.houseOperations(api)
	s.supplyOperations(api)
	s.shoppingOperations(api)
	s.tableOperations(api)
	mustHaveRights(e.Router().Routes(), routes.operations)
	return api
}

// schemaName names a type in the description; those of the chair and of wear have names that others have too.
func schemaName(t reflect.Type, hint string) string {
	name := huma.DefaultSchemaNamer(t, hint)
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	if t.Kind() == reflect.Struct {
		switch t.PkgPath() {
		case "kladotex/core/chair":
			return "Chair" + name
		case "kladotex/core/wear":
			return "Wear" + name
		}
	}
	return name
}

// Describe is the OpenAPI 3.1 document of the operations, as JSON.
func Describe() ([]byte, error) {
	return json.MarshalIndent(operations(echo.New(), &server{}).OpenAPI(), "", " ")
}
