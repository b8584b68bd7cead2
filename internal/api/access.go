package api

import (
	"context"
	"fmt"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/internal/store"
)

// right says who may carry out an operation.
type right []store.Role

// The rights. Public operations need no sign-in.
var (
	public = right{}
	all    = right{store.Owner, store.Stylist, store.Apprentice}
	crew   = right{store.Owner, store.Stylist}
	owners = right{store.Owner}
)

// access is what each role may do, by operation. An apprentice reads everything
// that keeps a client safe and may work on plans; she changes no client and
// deletes nothing. Only an owner deletes a client or manages people.
var access = map[string]right{
	// Coming in.
	"studio":      public, // what the sign-in page needs to know
	"claimStudio": public, // works once, while there is nobody
	"signIn":      public,
	"signInDemo":  public, // works in the demo studio alone

	// One's own sign-in.
	"me":                all,
	"signOut":           all,
	"signOutEverywhere": all,
	"changePassword":    all,

	// People of the studio.
	"listPeople":   all,
	"addPerson":    owners,
	"changePerson": owners,
	"removePerson": owners,

	// Clients.
	"listClients":  all,
	"readClient":   all,
	"createClient": crew,
	"saveClient":   crew,
	"exportClient": crew,
	"deleteClient": owners,

	// Plans.
	"catalogue":    all,
	"preview":      all,
	"fitCount":     all,
	"changes":      all,
	"tradeOff":     all,
	"beginPlan":    all,
	"listPlans":    all,
	"readPlan":     all,
	"createPlan":   all,
	"savePlan":     all,
	"importPlan":   all,
	"comparePlan":  all,
	"listVersions": all,
	"readVersion":  all,
	"planPicture":  all,
	"planView":     all,
	"planSheet":    all,
	"exportPlan":   all,
	"deletePlan":   crew,
}

type personKey struct{}

// person is who makes the request; the guard has put her there.
func person(ctx context.Context) store.Person {
	p, _ := ctx.Value(personKey{}).(store.Person)
	return p
}

// guard lets a request through to an operation when access says so.
func (s *server) guard(api huma.API) func(huma.Context, func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		allowed := access[ctx.Operation().OperationID]
		if len(allowed) == 0 {
			next(ctx)
			return
		}
		who, err := s.signedIn(ctx.Context())
		if err != nil {
			_ = huma.WriteErr(api, ctx, http.StatusUnauthorized, "Sign in first.")
			return
		}
		if !slices.Contains(allowed, who.Role) {
			_ = huma.WriteErr(api, ctx, http.StatusForbidden, fmt.Sprintf("This is not open to the role %q; ask an owner of the studio.", who.Role))
			return
		}
		next(huma.WithValue(ctx, personKey{}, who))
	}
}
