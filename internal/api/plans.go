package api

import (
	"context"
	"fmt"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/plan"
	"kladotex/internal/sheet"
	"kladotex/internal/store"
)

// planEntry is a plan in a list.
type planEntry struct {
	ID       string    `json:"id"`
	Title    string    `json:"title"`
	Version  int       `json:"version"`
	Pattern  string    `json:"pattern"`
	Method   string    `json:"method"`
	Sections int       `json:"sections"`
	Pieces   int       `json:"pieces"`
	Packs    int       `json:"packs"`
	Cost     int64     `json:"costMinor"`
	Minutes  float64   `json:"minutes"`
	Updated  time.Time `json:"updated"`
}

// planDocument is a whole plan.
type planDocument struct {
	ID      string     `json:"id"`
	Title   string     `json:"title"`
	Version int        `json:"version" doc:"Counts saves; send it back as If-Match"`
	Updated time.Time  `json:"updated"`
	Input   plan.Input `json:"input"`
}

// planDraft is what a person saves.
type planDraft struct {
	Title string     `json:"title" minLength:"1" maxLength:"120" doc:"What the plan is called"`
	Input plan.Input `json:"input"`
}

type planPath struct {
	ID string `path:"id" maxLength:"64"`
}

type createPlanInput struct {
	Body planDraft
}

type savePlanInput struct {
	ID      string `path:"id" maxLength:"64"`
	IfMatch string `header:"If-Match" required:"true" doc:"ETag of the version this save started from"`
	Body    planDraft
}

type planOutput struct {
	ETag string `header:"ETag"`
	Body planDocument
}

type plansOutput struct {
	Body []planEntry
}

type pictureInput struct {
	ID      string `path:"id" maxLength:"64"`
	Version int    `query:"v" doc:"The version shown; lets a browser keep the picture"`
}

type pictureOutput struct {
	ContentType  string `header:"Content-Type"`
	CacheControl string `header:"Cache-Control"`
	Body         []byte
}

func entryOf(e store.Entry) planEntry {
	return planEntry{
		ID: e.ID, Title: e.Title, Version: e.Version, Pattern: e.Pattern, Method: e.Method,
		Sections: e.Sections, Pieces: e.Pieces, Packs: e.Packs, Cost: e.Cost, Minutes: e.Minutes, Updated: e.Updated,
	}
}

func documentOf(p store.Plan) *planOutput {
	return &planOutput{
		ETag: strconv.Quote(strconv.Itoa(p.Version)),
		Body: planDocument{ID: p.ID, Title: p.Title, Version: p.Version, Updated: p.Updated, Input: p.Input},
	}
}

// checked computes a draft, so that only plans that work are stored.
func checked(draft planDraft) (title string, sum store.Summary, err error) {
	title = strings.TrimSpace(draft.Title)
	if title == "" {
		return "", sum, huma.Error422UnprocessableEntity("A plan needs a name.",
			&huma.ErrorDetail{Location: "body.title", Message: "A plan needs a name, such as who it is for."})
	}
	res, err := plan.Compute(draft.Input)
	if err != nil {
		return "", sum, problem(err, "body.input.")
	}
	return title, store.Summarise(draft.Input, res), nil
}

func (s *server) planOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "listPlans", Method: http.MethodGet, Path: "/api/v1/plans",
		Summary: "List plans, the one saved last first",
	}, func(ctx context.Context, _ *struct{}) (*plansOutput, error) {
		entries, err := s.store.Plans(ctx)
		if err != nil {
			return nil, problem(err, "")
		}
		out := &plansOutput{Body: make([]planEntry, len(entries))}
		for i, e := range entries {
			out.Body[i] = entryOf(e)
		}
		return out, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "createPlan", Method: http.MethodPost, Path: "/api/v1/plans",
		Summary: "Store a new plan", DefaultStatus: http.StatusCreated, MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *createPlanInput) (*planOutput, error) {
		title, sum, err := checked(in.Body)
		if err != nil {
			return nil, err
		}
		p, err := s.store.CreatePlan(ctx, title, in.Body.Input, sum)
		if err != nil {
			return nil, problem(err, "")
		}
		return documentOf(p), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "readPlan", Method: http.MethodGet, Path: "/api/v1/plans/{id}",
		Summary: "Read a plan",
	}, func(ctx context.Context, in *planPath) (*planOutput, error) {
		p, err := s.store.Plan(ctx, in.ID)
		if err != nil {
			return nil, problem(err, "")
		}
		return documentOf(p), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "savePlan", Method: http.MethodPut, Path: "/api/v1/plans/{id}",
		Summary: "Save a plan over the version it started from", MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *savePlanInput) (*planOutput, error) {
		version, err := strconv.Atoi(strings.Trim(in.IfMatch, `"`))
		if err != nil {
			return nil, huma.Error422UnprocessableEntity("If-Match must be the ETag of the plan as it was read.",
				&huma.ErrorDetail{Location: "header.If-Match", Message: fmt.Sprintf("%q is no ETag of a plan.", in.IfMatch)})
		}
		title, sum, err := checked(in.Body)
		if err != nil {
			return nil, err
		}
		p, err := s.store.SavePlan(ctx, in.ID, version, title, in.Body.Input, sum)
		if err != nil {
			return nil, problem(err, "")
		}
		return documentOf(p), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "deletePlan", Method: http.MethodDelete, Path: "/api/v1/plans/{id}",
		Summary: "Delete a plan", DefaultStatus: http.StatusNoContent,
	}, func(ctx context.Context, in *planPath) (*struct{}, error) {
		if err := s.store.DeletePlan(ctx, in.ID); err != nil {
			return nil, problem(err, "")
		}
		return nil, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "planPicture", Method: http.MethodGet, Path: "/api/v1/plans/{id}/picture.svg",
		Summary: "A small picture of the parted head",
		Responses: map[string]*huma.Response{"200": {
			Description: "The picture", Content: map[string]*huma.MediaType{"image/svg+xml": {}},
		}},
	}, func(ctx context.Context, in *pictureInput) (*pictureOutput, error) {
		p, err := s.store.Plan(ctx, in.ID)
		if err != nil {
			return nil, problem(err, "")
		}
		res, err := plan.Compute(p.Input)
		if err != nil {
			return nil, problem(fmt.Errorf("stored plan %s: %w", in.ID, err), "")
		}
		out := &pictureOutput{ContentType: "image/svg+xml", CacheControl: "no-cache", Body: sheet.Picture(res)}
		if in.Version == p.Version {
			out.CacheControl = "private, max-age=31536000, immutable"
		}
		return out, nil
	})
}
