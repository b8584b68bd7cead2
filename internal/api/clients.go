package api

import (
	"context"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/client"
	"kladotex/core/plan"
	"kladotex/internal/sheet"
	"kladotex/internal/store"
)

// clientEntry is a client in a list.
type clientEntry struct {
	ID       string    `json:"id"`
	Name     string    `json:"name"`
	Archived bool      `json:"archived"`
	Plans    int       `json:"plans" doc:"Plans made for her"`
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
}

// clientDraft is what a person saves of a client.
type clientDraft struct {
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
		Facts: c.Facts, Cautions: c.Facts.Cautions(),
	}}
}

func etag(version int) string { return strconv.Quote(strconv.Itoa(version)) }

// checkedClient refuses a client without a name or with facts that can not be.
func checkedClient(draft clientDraft) (name string, err error) {
	name = strings.TrimSpace(draft.Name)
	if name == "" {
		return "", huma.Error422UnprocessableEntity("A client needs a name.", &huma.ErrorDetail{Location: "body.name", Message: "A client needs a name."})
	}
	if err := draft.Facts.Check(); err != nil {
		return "", problem(err, "body.facts.")
	}
	return name, nil
}

func (s *server) clientOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "listClients", Method: http.MethodGet, Path: "/api/v1/clients",
		Summary: "List clients by name",
	}, func(ctx context.Context, in *struct {
		Search   string `query:"search" maxLength:"120" doc:"Part of a name"`
		Archived bool   `query:"archived" doc:"List the archived ones instead"`
	}) (*struct{ Body []clientEntry }, error) {
		list, err := s.store.Clients(ctx, strings.TrimSpace(in.Search), in.Archived)
		if err != nil {
			return nil, problem(err, "")
		}
		out := make([]clientEntry, len(list))
		for i, c := range list {
			out[i] = clientEntry{c.ID, c.Name, c.Archived, c.Plans, c.Updated}
		}
		return &struct{ Body []clientEntry }{out}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "createClient", Method: http.MethodPost, Path: "/api/v1/clients",
		Summary: "Add a client", DefaultStatus: http.StatusCreated, MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct{ Body clientDraft }) (*clientOutput, error) {
		name, err := checkedClient(in.Body)
		if err != nil {
			return nil, err
		}
		c, err := s.store.CreateClient(ctx, name, in.Body.Facts)
		if err != nil {
			return nil, problem(err, "")
		}
		return clientOf(c), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "readClient", Method: http.MethodGet, Path: "/api/v1/clients/{id}",
		Summary: "Read a client",
	}, func(ctx context.Context, in *ClientPath) (*clientOutput, error) {
		c, err := s.store.Client(ctx, in.ID)
		if err != nil {
			return nil, problem(err, "")
		}
		return clientOf(c), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "saveClient", Method: http.MethodPut, Path: "/api/v1/clients/{id}",
		Summary: "Save a client over the version it started from", MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct {
		ClientPath
		Conditional
		Body clientDraft
	}) (*clientOutput, error) {
		version, err := in.version()
		if err != nil {
			return nil, err
		}
		name, err := checkedClient(in.Body)
		if err != nil {
			return nil, err
		}
		c, err := s.store.SaveClient(ctx, in.ID, version, name, in.Body.Archived, in.Body.Facts)
		if err != nil {
			return nil, problem(err, "")
		}
		return clientOf(c), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "deleteClient", Method: http.MethodDelete, Path: "/api/v1/clients/{id}",
		Summary: "Delete a client with all her plans", DefaultStatus: http.StatusNoContent,
	}, func(ctx context.Context, in *ClientPath) (*struct{}, error) {
		if err := s.store.DeleteClient(ctx, in.ID); err != nil {
			return nil, problem(err, "")
		}
		return nil, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "exportClient", Method: http.MethodGet, Path: "/api/v1/clients/{id}/export",
		Summary: "Everything that is held about a client", Responses: file("application/json", "The file"),
	}, func(ctx context.Context, in *ClientPath) (*fileOutput, error) {
		c, err := s.store.Client(ctx, in.ID)
		if err != nil {
			return nil, problem(err, "")
		}
		entries, err := s.store.Plans(ctx, in.ID)
		if err != nil {
			return nil, problem(err, "")
		}
		held := sheet.Held{Client: c}
		for _, e := range entries {
			versions, err := s.store.Versions(ctx, e.ID)
			if err != nil {
				return nil, problem(err, "")
			}
			held.Plans = append(held.Plans, sheet.HeldPlan{Entry: e, Versions: versions})
		}
		body, err := held.JSON()
		if err != nil {
			return nil, problem(err, "")
		}
		return download("application/json", c.Name+" - all that is held.json", body), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "beginPlan", Method: http.MethodGet, Path: "/api/v1/begin",
		Summary: "The input a new plan starts from: the default or an earlier plan, with the client's head and hair",
	}, func(ctx context.Context, in *struct {
		Client string `query:"client" maxLength:"64" doc:"Whose head it is"`
		From   string `query:"from" maxLength:"64" doc:"An earlier plan to start from"`
	}) (*struct{ Body planDraft }, error) {
		draft := planDraft{Title: "New plan", ClientID: in.Client, Input: plan.Default()}
		if in.From != "" {
			p, err := s.store.Plan(ctx, in.From)
			if err != nil {
				return nil, problem(err, "")
			}
			draft.Title, draft.Input = p.Title+", again", p.Input
			if draft.ClientID == "" {
				draft.ClientID = p.ClientID
			}
		}
		if draft.ClientID != "" {
			c, err := s.store.Client(ctx, draft.ClientID)
			if err != nil {
				return nil, problem(err, "")
			}
			draft.Input = c.Facts.Begin(draft.Input)
			if in.From == "" {
				draft.Title = c.Name
			}
		}
		return &struct{ Body planDraft }{draft}, nil
	})
}
