package api

import (
	"bytes"
	"crypto/rand"
	"io/fs"
	"net/http"
	"path"
	"strings"

	"github.com/labstack/echo/v5"

	"kladotex/web"
)

// noncePlace stands in the page where each answer's nonce goes.
const noncePlace = "__NONCE__"

// csrfPlace stands where the name of the studio's CSRF cookie goes.
const csrfPlace = "__CSRF__"

// workerFile keeps the application on a device.
const workerFile = "sw.js"

// application serves the built web application: its files as they are, and its
// one page for every other address outside the API.
func application(e *echo.Echo, csrfCookie string) {
	dist := web.Files()
	page, pageErr := fs.ReadFile(dist, "index.html")
	e.RouteNotFound("/*", func(c *echo.Context) error {
		address := c.Request().URL.Path
		if c.Request().Method != http.MethodGet && c.Request().Method != http.MethodHead || strings.HasPrefix(address, "/api/") {
			return echo.ErrNotFound
		}
		header := c.Response().Header()
		name := strings.TrimPrefix(path.Clean(address), "/")
		if info, err := fs.Stat(dist, name); err == nil && !info.IsDir() && name != "index.html" {
			header.Set("Cache-Control", "no-cache")
			if strings.HasPrefix(name, "assets/") { // named by their contents
				header.Set("Cache-Control", "public, max-age=31536000, immutable")
			}
			if name == workerFile { // it fetches what it keeps, under a policy of its own
				header.Set("Content-Security-Policy", "default-src 'none'; script-src 'self'; connect-src 'self'; frame-ancestors 'none'")
			}
			return c.FileFS(name, dist)
		}
		if path.Ext(name) != "" {
			return echo.ErrNotFound
		}
		if pageErr != nil {
			return echo.NewHTTPError(http.StatusServiceUnavailable, "the web application was not built into this program")
		}
		nonce := rand.Text()
		header.Set("Cache-Control", "no-store")
		header.Set("Content-Security-Policy", "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'nonce-"+nonce+
			"'; font-src 'self'; img-src 'self' data:; connect-src 'self'; worker-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'")
		filled := bytes.ReplaceAll(page, []byte(noncePlace), []byte(nonce))
		return c.HTMLBlob(http.StatusOK, bytes.ReplaceAll(filled, []byte(csrfPlace), []byte(csrfCookie)))
	})
}
