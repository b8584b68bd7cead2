package api

import (
	"context"
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/labstack/echo/v5"

	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// rightsKey is where an operation declares who may carry it out.
const rightsKey = "rights"

// rights declares with an operation who may carry it out.
func rights(who studio.Right) map[string]any { return map[string]any{rightsKey: who} }

// rightsOf are those an operation declares; false when it declares none.
func rightsOf(op *huma.Operation) (studio.Right, bool) {
	who, ok := op.Metadata[rightsKey].(studio.Right)
	return who, ok
}

// may are the ids of the operations that a role may carry out, in order.
func may(operations map[string]*huma.Operation, role store.Role) []string {
	ids := []string{}
	for _, op := range operations {
		if who, _ := rightsOf(op); slices.Contains(who, role) {
			ids = append(ids, op.OperationID)
		}
	}
	slices.Sort(ids)
	return ids
}

// described are the routes that are no operations: the description of the others.
var described = regexp.MustCompile(`^GET /api/v1/openapi(-3\.0)?\.(json|yaml)$`)

// mustHaveRights stops the start of a server with a route under the API that no right
// was set for, whatever its method and however it was registered.
func mustHaveRights(routes echo.Routes, operations map[string]*huma.Operation) {
	for _, r := range routes {
		route := r.Method + " " + r.Path
		if !strings.HasPrefix(r.Path, "/api/") || described.MatchString(route) {
			continue
		}
		op, ok := operations[route]
		if ok {
			_, ok = rightsOf(op)
		}
		if !ok {
			panic("api: no right is declared with the route " + route)
		}
	}
}

// What a request carries to the operation that answers it.
type (
	personKey  struct{}
	routeKey   struct{}
	addressKey struct{}
)

// person is who makes the request; the guard has put them there.
func person(ctx context.Context) store.Person {
	p, _ := ctx.Value(personKey{}).(store.Person)
	return p
}

// address is the network the request came from.
func address(ctx context.Context) string {
	a, _ := ctx.Value(addressKey{}).(string)
	return a
}

// guard lets a request through to an operation when access says so, and only then.
func (s *server) guard(api huma.API) func(huma.Context, func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		op := ctx.Operation()
		ctx = huma.WithValue(ctx, routeKey{}, op.Method+" "+op.Path)
		refuse := func(err error) { _ = writeRefusal(api, ctx, err) }
		allowed, ok := rightsOf(op)
		if !ok {
			refuse(huma.Error403Forbidden("This is not open to anyone."))
			return
		}
		if len(allowed) == 0 {
			next(ctx)
			return
		}
		who, err := s.signedIn(ctx.Context())
		switch {
		case errors.Is(err, store.ErrNotFound):
			refuse(huma.Error401Unauthorized("Sign in first."))
		case err != nil:
			refuse(problem(ctx.Context(), err, ""))
		case !slices.Contains(allowed, who.Role):
			refuse(huma.Error403Forbidden(fmt.Sprintf("This is not open to the role %q; ask an owner of the studio.", who.Role)))
		default:
			next(huma.WithValue(ctx, personKey{}, who))
		}
	}
}
