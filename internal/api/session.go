package api

import (
	"context"
	"errors"
	"log/slog"
	"net/http"
	"strings"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"
	"github.com/labstack/echo/v5"

	"kladotex/core/pace"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// signInLasts is how long a sign-in holds. It is not drawn out by use: that would
// write to disk on every movement of a slider.
const signInLasts = 7 * 24 * time.Hour

// What a session holds: the person's id, and their epoch when they signed in.
const (
	personInSession = "person"
	epochInSession  = "epoch"
)

func newSessions(s *store.Store, secure bool) *scs.SessionManager {
	m := scs.New()
	m.Store = s.Sessions()
	m.Lifetime = signInLasts
	m.HashTokenInStore = true
	m.Cookie.Name = sessionCookie(s)
	m.Cookie.Secure = secure
	m.Cookie.SameSite = http.SameSiteStrictMode
	m.Cookie.HttpOnly = true
	return m
}

// inSession loads and saves the session around the operations, and notes where the
// request comes from; pages and files have none.
func inSession(sessions *scs.SessionManager) echo.MiddlewareFunc {
	sessions.ErrorFunc = func(w http.ResponseWriter, r *http.Request, err error) {
		writeProblem(w, problem(context.WithValue(r.Context(), routeKey{}, "the session"), err, ""))
		if once, ok := w.(*oneAnswer); ok {
			once.given = true
		}
	}
	wrap := echo.WrapMiddleware(func(next http.Handler) http.Handler {
		kept := sessions.LoadAndSave(next)
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			kept.ServeHTTP(&oneAnswer{ResponseWriter: w}, r)
		})
	})
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		with := wrap(next)
		return func(c *echo.Context) error {
			if !strings.HasPrefix(c.Request().URL.Path, "/api/") {
				return next(c)
			}
			r := c.Request()
			c.SetRequest(r.WithContext(context.WithValue(r.Context(), addressKey{}, network(c.RealIP()))))
			return with(c)
		}
	}
}

// oneAnswer drops what is written after an answer was given in place of it: the session is kept once the first
// of an answer is written, and where that fails the failure is the answer.
type oneAnswer struct {
	http.ResponseWriter
	given bool
}

func (o *oneAnswer) WriteHeader(status int) {
	if !o.given {
		o.ResponseWriter.WriteHeader(status)
	}
}

func (o *oneAnswer) Write(b []byte) (int, error) {
	if o.given {
		return len(b), nil
	}
	return o.ResponseWriter.Write(b)
}

// Unwrap is for [http.ResponseController].
func (o *oneAnswer) Unwrap() http.ResponseWriter { return o.ResponseWriter }

// signedIn is the person of the session; an error when there is none.
func (s *server) signedIn(ctx context.Context) (store.Person, error) {
	id := s.sessions.GetString(ctx, personInSession)
	if id == "" {
		return store.Person{}, store.ErrNotFound
	}
	p, err := s.studio.Store.Person(ctx, id)
	if err == nil && p.Epoch != s.sessions.GetInt(ctx, epochInSession) {
		err = store.ErrNotFound
	}
	return p, err
}

// enter starts a session for p, with a new token so that an earlier one cannot
// be planted.
func (s *server) enter(ctx context.Context, p store.Person) (*meOutput, error) {
	if err := s.sessions.RenewToken(ctx); err != nil {
		return nil, problem(ctx, err, "")
	}
	s.sessions.Put(ctx, personInSession, p.ID)
	s.sessions.Put(ctx, epochInSession, p.Epoch)
	return s.me(p), nil
}

// personEntry is a person of the studio as others see them.
type personEntry struct {
	ID   string     `json:"id"`
	Name string     `json:"name"`
	Role store.Role `json:"role"`
	PersonPace
}

// PersonPace is how quick someone is.
type PersonPace struct {
	Hand    pace.Hand `json:"hand" doc:"How practised they are"`
	OwnHead float64   `json:"ownHead" doc:"How many times as long their own head takes"`
}

func personOf(p store.Person) personEntry {
	return personEntry{p.ID, p.Name, p.Role, PersonPace{p.Hand, p.OwnHead}}
}

// me is who is signed in, and what they may do.
type me struct {
	ID   string     `json:"id"`
	Name string     `json:"name"`
	Role store.Role `json:"role"`
	May  []string   `json:"may" doc:"Ids of the operations that are open to them"`
}

type meOutput struct {
	Body me
}

func (s *server) me(p store.Person) *meOutput {
	return &meOutput{me{p.ID, p.Name, p.Role, may(s.operations, p.Role)}}
}

// studioFacts are what the page needs before anyone is signed in.
type studioFacts struct {
	Empty bool          `json:"empty" doc:"True while nobody is there: the first to come is named owner"`
	Demo  []personEntry `json:"demo" doc:"People of the demo studio, who need no password; empty elsewhere"`
}

// Credentials are what a person signs in with.
type Credentials struct {
	Name     string `json:"name" minLength:"1" maxLength:"80"`
	Password string `json:"password" maxLength:"200"`
}

// NewPassword is a password to be set.
type NewPassword struct {
	Password string `json:"password" minLength:"10" maxLength:"200" doc:"The new password"`
}

func (s *server) sessionOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "studio", Method: http.MethodGet, Path: "/api/v1/studio",
		Summary: "What a newcomer at the door needs to know", Metadata: rights(studio.Public),
	}, func(ctx context.Context, _ *struct{}) (*struct{ Body studioFacts }, error) {
		people, err := s.studio.Store.People(ctx)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		facts := studioFacts{Empty: len(people) == 0, Demo: []personEntry{}}
		for _, p := range people {
			if s.demo {
				facts.Demo = append(facts.Demo, personOf(p))
			}
		}
		return &struct{ Body studioFacts }{facts}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "claimStudio", Method: http.MethodPost, Path: "/api/v1/owner",
		Summary: "Name the owner of an empty studio and sign them in", Metadata: rights(studio.Public), DefaultStatus: http.StatusCreated,
	}, func(ctx context.Context, in *struct{ Body Credentials }) (*meOutput, error) {
		p, err := s.studio.Claim(ctx, in.Body.Name, in.Body.Password)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		s.guesses.opened(address(ctx), store.AccountKey(p.Name))
		return s.enter(ctx, p)
	})

	huma.Register(api, huma.Operation{
		OperationID: "signIn", Method: http.MethodPost, Path: "/api/v1/session",
		Summary: "Sign in", Metadata: rights(studio.Public), DefaultStatus: http.StatusCreated,
	}, func(ctx context.Context, in *struct{ Body Credentials }) (*meOutput, error) {
		name := store.AccountKey(in.Body.Name)
		if wait := s.guesses.atAccount(address(ctx), name); wait > 0 {
			return nil, tooManyTries(wait)
		}
		p, err := s.studio.SignIn(ctx, in.Body.Name, in.Body.Password)
		if errors.Is(err, studio.ErrNoMatch) {
			slog.Warn("sign-in failed", "from", address(ctx))
			return nil, huma.Error401Unauthorized("Name and password do not go together.")
		}
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		s.guesses.opened(address(ctx), name)
		return s.enter(ctx, p)
	})

	huma.Register(api, huma.Operation{
		OperationID: "signInDemo", Method: http.MethodPost, Path: "/api/v1/session/demo",
		Summary: "Sign in to the demo studio", Metadata: rights(studio.Public), DefaultStatus: http.StatusCreated,
	}, func(ctx context.Context, in *struct {
		Body struct {
			ID string `json:"id" maxLength:"64" doc:"One of the demo's people"`
		}
	}) (*meOutput, error) {
		if !s.demo {
			return nil, huma.Error404NotFound("This is not the demo studio.")
		}
		p, err := s.studio.Store.Person(ctx, in.Body.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return s.enter(ctx, p)
	})

	huma.Register(api, huma.Operation{
		OperationID: "me", Method: http.MethodGet, Path: "/api/v1/session",
		Summary: "Who is signed in; no content where nobody is", Metadata: rights(studio.Public),
		Responses: map[string]*huma.Response{"204": {Description: "Nobody is signed in"}},
	}, func(ctx context.Context, _ *struct{}) (*struct {
		Status int
		Body   *me
	}, error) {
		out := &struct {
			Status int
			Body   *me
		}{Status: http.StatusNoContent}
		switch p, err := s.signedIn(ctx); {
		case errors.Is(err, store.ErrNotFound):
		case err != nil:
			return nil, problem(ctx, err, "")
		default:
			out.Status, out.Body = http.StatusOK, &s.me(p).Body
		}
		return out, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "signOut", Method: http.MethodDelete, Path: "/api/v1/session",
		Summary: "Sign out", Metadata: rights(studio.All), DefaultStatus: http.StatusNoContent,
	}, func(ctx context.Context, _ *struct{}) (*struct{}, error) {
		return nil, s.sessions.Destroy(ctx)
	})

	huma.Register(api, huma.Operation{
		OperationID: "signOutEverywhere", Method: http.MethodDelete, Path: "/api/v1/sessions",
		Summary: "Sign out on every machine", Metadata: rights(studio.All), DefaultStatus: http.StatusNoContent,
	}, func(ctx context.Context, _ *struct{}) (*struct{}, error) {
		if err := s.studio.Store.EndSessions(ctx, person(ctx).ID); err != nil {
			return nil, problem(ctx, err, "")
		}
		return nil, s.sessions.Destroy(ctx)
	})

	huma.Register(api, huma.Operation{
		OperationID: "changePassword", Method: http.MethodPut, Path: "/api/v1/session/password",
		Summary: "Change one's own password and sign out everywhere else", Metadata: rights(studio.All), DefaultStatus: http.StatusNoContent,
	}, func(ctx context.Context, in *struct {
		Body struct {
			Old string `json:"old" maxLength:"200"`
			NewPassword
		}
	}) (*struct{}, error) {
		p := person(ctx)
		name := store.AccountKey(p.Name)
		if wait := s.guesses.atAccount(address(ctx), name); wait > 0 {
			return nil, tooManyTries(wait)
		}
		changed, err := s.studio.ChangePassword(ctx, p, in.Body.Old, in.Body.Password)
		if errors.Is(err, studio.ErrNoMatch) {
			slog.Warn("password change failed", "from", address(ctx))
			return nil, refusal("body.old", "This is not your present password.")
		}
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		s.guesses.opened(address(ctx), name)
		s.sessions.Put(ctx, epochInSession, changed.Epoch) // this one goes on
		return nil, nil
	})
}
