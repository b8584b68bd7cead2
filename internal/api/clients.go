package api

import (
	"context"
	"encoding/base64"
	"net/http"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/client"
	"kladotex/core/plan"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// clientEntry is a client in a list.
type clientEntry struct {
	ID       string    `json:"id"`
	Name     string    `json:"name"`
	Archived bool      `json:"archived"`
	Plans    int       `json:"plans" doc:"Plans made for the client"`
	Updated  time.Time `json:"updated"`
}

// clientDocument is all that is known of a client.
type clientDocument struct {
	ID       string       `json:"id"`
	Name     string       `json:"name"`
	Archived bool         `json:"archived"`
	Version  int          `json:"version" doc:"Counts saves; send it back as If-Match"`
	Updated  time.Time    `json:"updated"`
	Facts    client.Facts `json:"facts"`
	Cautions []string     `json:"cautions" doc:"What to have before one's eyes, gravest first; usual practice, not medical advice"`
	// Grave are the cautions that must be read before anything is attached.
	Grave        []client.Grave       `json:"grave"`
	Acknowledged []store.Acknowledged `json:"acknowledged" doc:"Those that were read, by whom and when"`
}

// ClientDraft is what a person saves of a client.
type ClientDraft struct {
	Name     string       `json:"name" minLength:"1" maxLength:"120"`
	Archived bool         `json:"archived"`
	Facts    client.Facts `json:"facts"`
}

// ClientPath names a client.
type ClientPath struct {
	ID string `path:"id" maxLength:"64"`
}

type clientOutput struct {
	ETag string `header:"ETag"`
	Body clientDocument
}

func clientOf(c store.Client) *clientOutput {
	return &clientOutput{etag(c.Version), clientDocument{
		ID: c.ID, Name: c.Name, Archived: c.Archived, Version: c.Version, Updated: c.Updated,
		Facts: c.Facts, Cautions: c.Facts.Cautions(), Grave: c.Facts.Grave(), Acknowledged: append([]store.Acknowledged{}, c.Acknowledged...),
	}}
}

func etag(version int) string { return strconv.Quote(strconv.Itoa(version)) }

// newClient is a client to be added, under an id made by who adds it: when the answer
// is lost the request can be repeated, and adds nobody twice.
type newClient struct {
	Made
	ClientDraft
}

// Made is the id that a device gives to what it makes.
type Made struct {
	ID string `json:"id" format:"uuid" doc:"A random UUID, made by who asks; the same when the request is repeated"`
}

// draft is what the studio saves of it.
func (d ClientDraft) draft() store.ClientDraft {
	return store.ClientDraft{Name: d.Name, Archived: d.Archived, Facts: d.Facts}
}

// clientAnswer is the client that was read or stored.
func clientAnswer(ctx context.Context, c store.Client, err error) (*clientOutput, error) {
	if err != nil {
		return nil, problem(ctx, err, "body.")
	}
	return clientOf(c), nil
}

// PageWish says which part of a list is wanted.
type PageWish struct {
	After string `query:"after" maxLength:"400" doc:"Next of the page before; left out for the first page"`
	Limit int    `query:"limit" minimum:"1" maximum:"200" default:"50"`
}

// page is one more than is wanted, to tell whether there are others.
func (w PageWish) page() (store.Page, error) {
	after, err := base64.RawURLEncoding.DecodeString(w.After)
	if err != nil {
		return store.Page{}, refusal("query.after", "This is not the next of a page of ours; leave it out to begin with the first.")
	}
	return store.Page{After: string(after), Limit: w.Limit + 1}, nil
}

// pageOf is a part of a list.
type pageOf[T any] struct {
	Items []T    `json:"items"`
	Next  string `json:"next,omitempty" doc:"What to ask the next page with; left out on the last one"`
}

// cut makes a page of what was read with one more than is wanted.
func cut[E interface{ Cursor() string }, T any](read []E, w PageWish, as func(E) T) *struct{ Body pageOf[T] } {
	out := pageOf[T]{Items: []T{}}
	if len(read) > w.Limit {
		read = read[:w.Limit]
		out.Next = base64.RawURLEncoding.EncodeToString([]byte(read[w.Limit-1].Cursor()))
	}
	for _, e := range read {
		out.Items = append(out.Items, as(e))
	}
	return &struct{ Body pageOf[T] }{out}
}

func (s *server) clientOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "listClients", Method: http.MethodGet, Path: "/api/v1/clients",
		Summary: "A page of the clients, by name", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		Search   string `query:"search" maxLength:"120" doc:"Part of a name"`
		Archived bool   `query:"archived" doc:"List the archived ones instead"`
		PageWish
	}) (*struct{ Body pageOf[clientEntry] }, error) {
		page, err := in.page()
		if err != nil {
			return nil, err
		}
		list, err := s.studio.Store.Clients(ctx, in.Search, in.Archived, page)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return cut(list, in.PageWish, func(c store.ClientEntry) clientEntry {
			return clientEntry{c.ID, c.Name, c.Archived, c.Plans, c.Updated}
		}), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "createClient", Method: http.MethodPost, Path: "/api/v1/clients",
		Summary: "Add a client", Metadata: rights(studio.Crew), DefaultStatus: http.StatusCreated, MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct{ Body newClient }) (*clientOutput, error) {
		c, err := s.studio.CreateClient(ctx, in.Body.ID, in.Body.draft())
		return clientAnswer(ctx, c, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "readClient", Method: http.MethodGet, Path: "/api/v1/clients/{id}",
		Summary: "Read a client", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *ClientPath) (*clientOutput, error) {
		c, err := s.studio.Store.Client(ctx, in.ID)
		return clientAnswer(ctx, c, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "saveClient", Method: http.MethodPut, Path: "/api/v1/clients/{id}",
		Summary: "Save a client over the version it started from", Metadata: rights(studio.Crew), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct {
		ClientPath
		Conditional
		Body ClientDraft
	}) (*clientOutput, error) {
		version, err := in.version()
		if err != nil {
			return nil, err
		}
		c, err := s.studio.SaveClient(ctx, in.ID, version, in.Body.draft())
		return clientAnswer(ctx, c, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "deleteClient", Method: http.MethodDelete, Path: "/api/v1/clients/{id}",
		Summary: "Delete a client with all their plans, and say where anything of them remains", Metadata: rights(studio.Owners),
	}, func(ctx context.Context, in *ClientPath) (*remainsOutput, error) {
		return s.deleted(ctx, s.studio.Store.DeleteClient(ctx, in.ID))
	})

	huma.Register(api, huma.Operation{
		OperationID: "exportClient", Method: http.MethodGet, Path: "/api/v1/clients/{id}/export",
		Summary: "Everything that is held about a client", Metadata: rights(studio.Crew), Responses: file("application/json", "The file"),
	}, func(ctx context.Context, in *ClientPath) (*fileOutput, error) {
		name, body, err := s.studio.Dossier(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return download("application/json", name+" - all that is held.json", body), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "beginPlan", Method: http.MethodGet, Path: "/api/v1/begin",
		Summary: "The input a new plan starts from: the default or an earlier plan, with the client's head and hair", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		Client string `query:"client" maxLength:"64" doc:"Whose head it is"`
		From   string `query:"from" maxLength:"64" doc:"An earlier plan to start from"`
		Renews string `query:"renews" maxLength:"64" doc:"An install being worn whose outer rows are to be done again"`
		Rows   int    `query:"rows" minimum:"1" maximum:"2" default:"1" doc:"How many of them"`
	}) (*struct{ Body PlanDraft }, error) {
		d, err := s.studio.Begin(ctx, person(ctx), studio.Beginning{ClientID: in.Client, From: in.From, Renews: in.Renews, Rows: in.Rows})
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &struct{ Body PlanDraft }{PlanDraft{Title: d.Title, ClientID: d.ClientID, Input: d.Input}}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "putOnHead", Method: http.MethodPost, Path: "/api/v1/clients/{id}/input",
		Summary: "A plan's input with this client's head and hair in it, as far as they were measured", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct {
		ClientPath
		Body plan.Input
	}) (*struct{ Body plan.Input }, error) {
		input, err := s.studio.PutOnHead(ctx, in.ID, in.Body)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &struct{ Body plan.Input }{input}, nil
	})
}

type remainsOutput struct{ Body store.Remains }

// deleted says where what was deleted remains.
func (s *server) deleted(ctx context.Context, err error) (*remainsOutput, error) {
	if err != nil {
		return nil, problem(ctx, err, "")
	}
	remains, err := s.studio.Store.Remains()
	if err != nil {
		return nil, problem(ctx, err, "")
	}
	return &remainsOutput{remains}, nil
}
