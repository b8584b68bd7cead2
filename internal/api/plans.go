package api

import (
	"context"
	"fmt"
	"math"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/plan"
	"kladotex/internal/picture"
	"kladotex/internal/sheet"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// planEntry is a plan in a list.
type planEntry struct {
	ID       string      `json:"id"`
	Title    string      `json:"title"`
	Version  int         `json:"version"`
	ClientID string      `json:"clientId,omitempty"`
	Client   string      `json:"client,omitempty" doc:"Whose head it is"`
	Pattern  string      `json:"pattern"`
	Method   string      `json:"method"`
	Sections int         `json:"sections"`
	Pieces   int         `json:"pieces"`
	Packs    int         `json:"packs"`
	Cost     int64       `json:"costMinor"`
	Minutes  float64     `json:"minutes"`
	Warnings int         `json:"warnings"`
	Next     studio.Next `json:"next" enum:"client,warnings,sheet" doc:"What to do next: say whose head it is, look at the warnings, take the sheet along"`
	SavedBy  string      `json:"savedBy,omitempty"`
	// InstallID is set once it is or was at the chair.
	InstallID string    `json:"installId,omitempty" doc:"Its install, once it is or was at the chair: then it stays as it is"`
	Updated   time.Time `json:"updated"`
}

// planDocument is a whole plan.
type planDocument struct {
	ID       string `json:"id"`
	Title    string `json:"title"`
	ClientID string `json:"clientId,omitempty"`
	Version  int    `json:"version" doc:"Counts saves; send it back as If-Match"`
	SavedBy  string `json:"savedBy,omitempty"`
	// InstallID is set once it is or was at the chair.
	InstallID string     `json:"installId,omitempty" doc:"Its install, once it is or was at the chair: then it stays as it is"`
	Updated   time.Time  `json:"updated"`
	Input     plan.Input `json:"input"`
	Variants  []variant  `json:"variants"`
}

// variant is a state of a plan pinned under a name.
type variant struct {
	Name string `json:"name" minLength:"1" maxLength:"80"`
	// Input is nil for one that cannot be read any more; sent back so it is kept.
	Input   *plan.Input `json:"input,omitempty" doc:"Left out for a state that cannot be read any more; sent back without, it is kept as it is stored"`
	Trouble string      `json:"trouble,omitempty" readOnly:"true" doc:"Why it cannot be read or computed any more"`
}

// PlanDraft is what a person saves.
type PlanDraft struct {
	Title    string     `json:"title" minLength:"1" maxLength:"120" doc:"What the plan is called"`
	ClientID string     `json:"clientId,omitempty" maxLength:"64" doc:"Whose head it is; left out while that is open"`
	Input    plan.Input `json:"input"`
	Variants []variant  `json:"variants,omitempty" maxItems:"6" doc:"States pinned beside the plan, to compare"`
}

// newPlan is a plan to be stored, under an id made by who makes it; see [newClient].
type newPlan struct {
	Made
	PlanDraft
}

// PlanPath names a plan. It is exported, as are the other parts that operations
// share, because their description is made by reflection.
type PlanPath struct {
	ID string `path:"id" maxLength:"64"`
}

// Conditional has the header that names the version a save started from.
type Conditional struct {
	IfMatch string `header:"If-Match" required:"true" doc:"ETag of the version this save started from"`
}

func (h Conditional) version() (int, error) {
	version, err := strconv.Atoi(strings.Trim(h.IfMatch, `"`))
	if err != nil {
		return 0, huma.Error422UnprocessableEntity("If-Match must be the ETag of what was read.",
			&huma.ErrorDetail{Location: "header.If-Match", Message: fmt.Sprintf("%q is no ETag of ours.", h.IfMatch)})
	}
	return version, nil
}

type planOutput struct {
	ETag string `header:"ETag"`
	Body planDocument
}

type pictureOutput struct {
	ContentType  string `header:"Content-Type"`
	CacheControl string `header:"Cache-Control"`
	Body         []byte
}

// planVersion is a plan as it was once saved.
type planVersion struct {
	Version  int           `json:"version"`
	Title    string        `json:"title"`
	Sections int           `json:"sections"`
	SavedBy  string        `json:"savedBy"`
	SavedAt  time.Time     `json:"savedAt"`
	Changes  []plan.Change `json:"changes" doc:"What it changed of the version before it in this list"`
}

// comparison is two states of a plan that one person has: where they began, and
// where they are.
type comparison struct {
	Base PlanDraft `json:"base"`
	Mine PlanDraft `json:"mine"`
}

// difference is what two people did to one plan.
type difference struct {
	Version int           `json:"version" doc:"Of the plan as it is stored"`
	SavedBy string        `json:"savedBy"`
	SavedAt time.Time     `json:"savedAt"`
	Theirs  []plan.Change `json:"theirs" doc:"What the stored plan changed of the base"`
	Mine    []plan.Change `json:"mine" doc:"What the other state changed of the base"`
}

func entryOf(e store.Entry) planEntry {
	return planEntry{
		ID: e.ID, Title: e.Title, Version: e.Version, ClientID: e.ClientID, Client: e.Client, Pattern: e.Pattern, Method: e.Method,
		Sections: e.Sections, Pieces: e.Pieces, Packs: e.Packs, Cost: e.Cost, Minutes: e.Minutes, Warnings: e.Warnings,
		Next: studio.NextOf(e), SavedBy: e.SavedBy, InstallID: e.InstallID, Updated: e.Updated,
	}
}

func documentOf(p store.Plan) *planOutput {
	variants := make([]variant, len(p.Variants))
	for i, v := range p.Variants {
		variants[i] = variant{Name: v.Name, Input: v.Input}
		if v.Trouble != nil {
			variants[i].Trouble = v.Trouble.Error()
		}
	}
	return &planOutput{etag(p.Version), planDocument{
		ID: p.ID, Title: p.Title, ClientID: p.ClientID, Version: p.Version, SavedBy: p.SavedBy, InstallID: p.InstallID, Updated: p.Updated,
		Input: p.Input, Variants: variants,
	}}
}

// draft is what the studio saves of it.
func (d PlanDraft) draft() studio.Draft {
	variants := make([]store.Variant, len(d.Variants))
	for i, v := range d.Variants {
		variants[i] = store.Variant{Name: v.Name, Input: v.Input}
	}
	return studio.Draft{Title: d.Title, ClientID: d.ClientID, Input: d.Input, Variants: variants}
}

// planAnswer is the plan that was read or stored.
func planAnswer(ctx context.Context, p store.Plan, err error) (*planOutput, error) {
	if err != nil {
		return nil, problem(ctx, err, "body.")
	}
	return documentOf(p), nil
}

func (s *server) planOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "listPlans", Method: http.MethodGet, Path: "/api/v1/plans",
		Summary: "A page of the plans, the one saved last first", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		Client string `query:"client" maxLength:"64" doc:"Only those of this client"`
		PageWish
	}) (*struct{ Body pageOf[planEntry] }, error) {
		page, err := in.page()
		if err != nil {
			return nil, err
		}
		entries, err := s.studio.Store.Plans(ctx, in.Client, page)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return cut(entries, in.PageWish, entryOf), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "createPlan", Method: http.MethodPost, Path: "/api/v1/plans",
		Summary: "Store a new plan", Metadata: rights(studio.All), DefaultStatus: http.StatusCreated, MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct{ Body newPlan }) (*planOutput, error) {
		p, err := s.studio.CreatePlan(ctx, person(ctx).Name, in.Body.ID, in.Body.draft())
		return planAnswer(ctx, p, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "readPlan", Method: http.MethodGet, Path: "/api/v1/plans/{id}",
		Summary: "Read a plan", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *PlanPath) (*planOutput, error) {
		p, err := s.studio.Store.Plan(ctx, in.ID)
		return planAnswer(ctx, p, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "savePlan", Method: http.MethodPut, Path: "/api/v1/plans/{id}",
		Summary: "Save a plan over the version it started from", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct {
		PlanPath
		Conditional
		Body PlanDraft
	}) (*planOutput, error) {
		version, err := in.version()
		if err != nil {
			return nil, err
		}
		p, err := s.studio.SavePlan(ctx, person(ctx).Name, in.ID, version, in.Body.draft())
		return planAnswer(ctx, p, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "deletePlan", Method: http.MethodDelete, Path: "/api/v1/plans/{id}",
		Summary: "Delete a plan with its history", Metadata: rights(studio.Crew), DefaultStatus: http.StatusNoContent,
	}, func(ctx context.Context, in *PlanPath) (*struct{}, error) {
		if err := s.studio.Store.DeletePlan(ctx, in.ID); err != nil {
			return nil, problem(ctx, err, "")
		}
		return nil, nil
	})

	s.historyOperations(api)
	s.sheetOperations(api)
}

// twoInputs are two states to be told apart.
type twoInputs struct {
	From plan.Input `json:"from"`
	To   plan.Input `json:"to"`
}

// historyOperations look at earlier versions of a plan and compare states of it.
func (s *server) historyOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "listVersions", Method: http.MethodGet, Path: "/api/v1/plans/{id}/versions",
		Summary: "A plan's history, newest first", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *PlanPath) (*struct{ Body []planVersion }, error) {
		past, err := s.studio.History(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		out := make([]planVersion, len(past))
		for i, v := range past {
			out[i] = planVersion{v.Version.Version, v.Title, v.Sections, v.SavedBy, v.SavedAt, v.Changes}
		}
		return &struct{ Body []planVersion }{out}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "readVersion", Method: http.MethodGet, Path: "/api/v1/plans/{id}/versions/{version}",
		Summary: "A plan as it once was", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		PlanPath
		Version int `path:"version" minimum:"1"`
	}) (*struct{ Body PlanDraft }, error) {
		v, err := s.studio.Store.Version(ctx, in.ID, in.Version)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &struct{ Body PlanDraft }{PlanDraft{Title: v.Title, Input: v.Input}}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "changes", Method: http.MethodPost, Path: "/api/v1/changes",
		Summary: "What differs between two plans, in the trade's words", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(_ context.Context, in *struct{ Body twoInputs }) (*struct{ Body []plan.Change }, error) {
		return &struct{ Body []plan.Change }{plan.Changes(in.Body.From, in.Body.To)}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "comparePlan", Method: http.MethodPost, Path: "/api/v1/plans/{id}/compare",
		Summary: "Who saved the plan meanwhile, and what both sides changed", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct {
		PlanPath
		Body comparison
	}) (*struct{ Body difference }, error) {
		d, err := s.studio.Compare(ctx, in.ID, in.Body.Base.draft(), in.Body.Mine.draft())
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &struct{ Body difference }{difference{d.Version, d.SavedBy, d.SavedAt, d.Theirs, d.Mine}}, nil
	})
}

// sheetOperations write a plan down: pictures, the sheet, the file.
func (s *server) sheetOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "planPicture", Method: http.MethodGet, Path: "/api/v1/plans/{id}/picture.svg",
		Summary: "A small picture of the parted head", Metadata: rights(studio.All), Responses: file("image/svg+xml", "The picture"),
	}, func(ctx context.Context, in *struct {
		PlanPath
		Version int `query:"v" doc:"The version shown; lets a browser keep the picture"`
	}) (*pictureOutput, error) {
		p, res, err := s.studio.Computed(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		out := &pictureOutput{"image/svg+xml", "no-cache", picture.Small(res)}
		if in.Version == p.Version {
			out.CacheControl = "private, max-age=31536000, immutable"
		}
		return out, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "planView", Method: http.MethodGet, Path: "/api/v1/plans/{id}/view.svg",
		Summary: "The parted head as seen from somewhere", Metadata: rights(studio.All), Responses: file("image/svg+xml", "The picture"),
	}, func(ctx context.Context, in *struct {
		PlanPath
		Lon float64 `query:"lon" minimum:"-360" maximum:"720" default:"146" doc:"Degrees from the face towards the client's left"`
		Lat float64 `query:"lat" minimum:"-90" maximum:"90" default:"30" doc:"Degrees up"`
	}) (*fileOutput, error) {
		p, res, err := s.studio.Computed(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return download("image/svg+xml", p.Title+".svg", picture.View(res, in.Lon*math.Pi/180, in.Lat*math.Pi/180)), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "planSheet", Method: http.MethodGet, Path: "/api/v1/plans/{id}/sheet.pdf",
		Summary: "The plan sheet with its true-scale gauge card", Metadata: rights(studio.All), Responses: file("application/pdf", "The sheet"),
	}, func(ctx context.Context, in *struct {
		PlanPath
		Unit  sheet.Unit   `query:"unit" default:"in"`
		Paper string       `query:"paper" enum:"letter,a4" default:"letter"`
		Parts []sheet.Part `query:"parts" maxItems:"6" doc:"The parts to print, with commas between; left out for all"`
	}) (*fileOutput, error) {
		end, err := s.long.begin(ctx, person(ctx).ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		defer end()
		title, body, err := s.studio.Sheet(ctx, in.ID, in.Unit, in.Paper, in.Parts...)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return download("application/pdf", title+".pdf", body), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "daySheet", Method: http.MethodGet, Path: "/api/v1/plans/{id}/day.pdf",
		Summary: "The day sheet: order, times and checks", Metadata: rights(studio.All), Responses: file("application/pdf", "The sheet"),
	}, func(ctx context.Context, in *struct {
		PlanPath
		Unit  sheet.Unit `query:"unit" default:"in"`
		Paper string     `query:"paper" enum:"letter,a4" default:"letter" doc:"Where the studio has no paper of its own"`
	}) (*fileOutput, error) {
		end, err := s.long.begin(ctx, person(ctx).ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		defer end()
		title, body, err := s.studio.DaySheet(ctx, in.ID, in.Unit, in.Paper)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return download("application/pdf", title+", day.pdf", body), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "exportPlan", Method: http.MethodGet, Path: "/api/v1/plans/{id}/export",
		Summary: "A plan as a file, to be imported elsewhere", Metadata: rights(studio.All), Responses: file("application/json", "The file"),
	}, func(ctx context.Context, in *PlanPath) (*fileOutput, error) {
		title, body, err := s.studio.Export(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return download("application/json", title+".kladotex.json", body), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "importPlan", Method: http.MethodPost, Path: "/api/v1/import",
		Summary: "Store the plan in a file that was exported", Metadata: rights(studio.All), DefaultStatus: http.StatusCreated, MaxBodyBytes: maxBody,
		SkipValidateBody: true, // plan.ReadFile does, and names the field
	}, func(ctx context.Context, in *struct {
		ID      string `query:"id" required:"true" format:"uuid" doc:"A random UUID for the new plan, made by who asks; the same when the request is repeated"`
		RawBody []byte `contentType:"application/json"`
	}) (*planOutput, error) {
		p, err := s.studio.Import(ctx, person(ctx).Name, in.ID, in.RawBody)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return documentOf(p), nil
	})
}
