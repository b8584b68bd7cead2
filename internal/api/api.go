// Package api serves a studio over HTTP: the typed operations under /api/v1 and
// the web application itself.
package api

import (
	"log/slog"
	"net/http"
	"net/netip"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"

	"kladotex/core/plan"
	"kladotex/internal/store"
)

// Limits at the edge.
const (
	maxBody        = plan.MaxDocument
	requestTimeout = 20 * time.Second
)

// server holds what the operations share.
type server struct {
	store *store.Store
	log   *slog.Logger
}

// New is the whole HTTP application over a store. log gets one line for each
// request: method, route, status and time, never what was sent.
func New(s *store.Store, log *slog.Logger) *echo.Echo {
	e := echo.New()
	e.Logger = log
	e.HTTPErrorHandler = echoProblem
	e.Use(
		middleware.RequestLoggerWithConfig(middleware.RequestLoggerConfig{
			LogMethod: true, LogRoutePath: true, LogStatus: true, LogLatency: true, HandleError: true,
			LogValuesFunc: func(_ *echo.Context, v middleware.RequestLoggerValues) error {
				log.Debug("request", "method", v.Method, "route", v.RoutePath, "status", v.Status, "took", v.Latency)
				return nil
			},
		}),
		middleware.Recover(),
		echo.WrapMiddleware(http.NewCrossOriginProtection().Handler),
		middleware.ContextTimeout(requestTimeout),
		middleware.GzipWithConfig(middleware.GzipConfig{Skipper: onThisMachine, MinLength: 1 << 10}),
	)
	operations(e, &server{s, log})
	application(e)
	return e
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
	s.previewOperations(api)
	s.planOperations(api)
	s.catalogueOperations(api)
	return api
}

// Describe is the OpenAPI 3.1 document of the operations, as JSON.
func Describe() ([]byte, error) {
	return operations(echo.New(), &server{}).OpenAPI().MarshalJSON()
}
