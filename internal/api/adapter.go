package api

import (
	"context"
	"crypto/tls"
	"io"
	"mime/multipart"
	"net/http"
	"net/url"
	"regexp"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/labstack/echo/v5"
)

// adapter lets typed operations be Echo routes, so that Echo's middleware and
// route table hold for all of them.
type adapter struct {
	echo *echo.Echo
	// operations are the ids of the operations by Echo's route.
	operations map[string]*huma.Operation
}

var pathParam = regexp.MustCompile(`\{([^}]+)\}`)

// Handle implements huma.Adapter.
func (a adapter) Handle(op *huma.Operation, handler func(huma.Context)) {
	path := pathParam.ReplaceAllString(op.Path, ":$1")
	a.operations[op.Method+" "+path] = op
	a.echo.Add(op.Method, path, func(c *echo.Context) error {
		handler(&operationContext{op: op, c: c})
		return nil
	})
}

// ServeHTTP implements huma.Adapter.
func (a adapter) ServeHTTP(w http.ResponseWriter, r *http.Request) { a.echo.ServeHTTP(w, r) }

// operationContext is an Echo request as a typed operation sees it.
type operationContext struct {
	op     *huma.Operation
	c      *echo.Context
	status int
}

func (o *operationContext) Operation() *huma.Operation { return o.op }
func (o *operationContext) Context() context.Context   { return o.c.Request().Context() }
func (o *operationContext) TLS() *tls.ConnectionState  { return o.c.Request().TLS }
func (o *operationContext) Method() string             { return o.c.Request().Method }
func (o *operationContext) Host() string               { return o.c.Request().Host }
func (o *operationContext) RemoteAddr() string         { return o.c.Request().RemoteAddr }
func (o *operationContext) URL() url.URL               { return *o.c.Request().URL }

// Param is a part of the path as it was meant: browsers escape signs in it that need no escape.
func (o *operationContext) Param(name string) string {
	value := o.c.Param(name)
	if plain, err := url.PathUnescape(value); err == nil && o.c.Request().URL.RawPath != "" {
		return plain
	}
	return value
}

func (o *operationContext) Query(name string) string     { return o.c.QueryParam(name) }
func (o *operationContext) Header(name string) string    { return o.c.Request().Header.Get(name) }
func (o *operationContext) BodyReader() io.Reader        { return o.c.Request().Body }
func (o *operationContext) Status() int                  { return o.status }
func (o *operationContext) SetHeader(name, value string) { o.c.Response().Header().Set(name, value) }
func (o *operationContext) AppendHeader(name, value string) {
	o.c.Response().Header().Add(name, value)
}
func (o *operationContext) BodyWriter() io.Writer { return o.c.Response() }

func (o *operationContext) Version() huma.ProtoVersion {
	r := o.c.Request()
	return huma.ProtoVersion{Proto: r.Proto, ProtoMajor: r.ProtoMajor, ProtoMinor: r.ProtoMinor}
}

func (o *operationContext) EachHeader(visit func(name, value string)) {
	for name, values := range o.c.Request().Header {
		for _, value := range values {
			visit(name, value)
		}
	}
}

func (o *operationContext) GetMultipartForm() (*multipart.Form, error) { return o.c.MultipartForm() }

// SetReadDeadline does nothing: the body is here already, see readFirst, and a deadline that passes later
// would end the request.
func (o *operationContext) SetReadDeadline(time.Time) error { return nil }

func (o *operationContext) SetStatus(code int) {
	if o.status != 0 {
		return // the answer broke off while it was written; no other can follow
	}
	o.status = code
	o.c.Response().WriteHeader(code)
}
