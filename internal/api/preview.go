package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/attach"
	"kladotex/core/compare"
	"kladotex/core/fall"
	"kladotex/core/hang"
	"kladotex/core/hours"
	"kladotex/core/house"
	"kladotex/core/invalid"
	"kladotex/core/judge"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/quote"
	"kladotex/core/scalp"
	"kladotex/core/tally"
	"kladotex/internal/flat"
	"kladotex/internal/studio"
)

type previewInput struct {
	Body plan.Input
}

// countWish is a plan whose sections shall be a certain number.
type countWish struct {
	Input plan.Input `json:"input"`
	parting.Count
}

func (s *server) previewOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "fitCount", Method: http.MethodPost, Path: "/api/v1/fit",
		Summary: "Section sizes that make a wished number of sections, or the nearest two", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct{ Body countWish }) (*struct{ Body []parting.Fitted }, error) {
		head, err := scalp.FitWith(in.Body.Input.Head, in.Body.Input.Hairline)
		if err != nil {
			return nil, problem(ctx, invalid.Under(err, "input"), "body.")
		}
		end, err := s.long.begin(ctx, person(ctx).ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		defer end()
		fitted, err := parting.FitCount(ctx, head, in.Body.Input.Parting, in.Body.Count)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body []parting.Fitted }{fitted}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "tradeOff", Method: http.MethodPost, Path: "/api/v1/tradeoff",
		Summary: "What the plan comes to with other section sizes and on other structures", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *previewInput) (*struct{ Body compare.Trade }, error) {
		end, err := s.long.begin(ctx, person(ctx).ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		defer end()
		return facetOf(ctx, in.Body, "body.", compare.TradeOff)
	})

	huma.Register(api, huma.Operation{
		OperationID: "preview", Method: http.MethodPost, Path: "/api/v1/preview",
		Summary: "A plan's head, tally and notices, without storing it", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, facet(func(_ context.Context, sol *plan.Solved) (flat.Preview, error) {
		res, err := tally.Of(sol)
		return flat.Of(&res), err
	}))

	// What only one step of a plan shows is asked for by it alone.
	huma.Register(api, huma.Operation{
		OperationID: "work", Method: http.MethodPost, Path: "/api/v1/work",
		Summary: "How the pieces of a plan go on, move by move", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, facet(workOf))

	huma.Register(api, huma.Operation{
		OperationID: "advice", Method: http.MethodPost, Path: "/api/v1/advice",
		Summary: "The methods compared for the head and its parts, with reasons", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, facet(compare.Methods))

	huma.Register(api, huma.Operation{
		OperationID: "departures", Method: http.MethodPost, Path: "/api/v1/departures",
		Summary: "Where a plan departs from the house rules", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *previewInput) (*struct{ Body []house.Departure }, error) {
		departures, err := s.studio.Departures(ctx, in.Body)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body []house.Departure }{departures}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "drape", Method: http.MethodPost, Path: "/api/v1/drape",
		Summary: "How the pieces of a plan hang, what they cover and how full", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct{ Body drapeWish }) (*struct{ Body hang.Drape }, error) {
		return facetOf(ctx, in.Body.Input, "body.input.", func(ctx context.Context, sol *plan.Solved) (hang.Drape, error) {
			return hang.Of(ctx, sol, in.Body.Style)
		})
	})

	huma.Register(api, huma.Operation{
		OperationID: "landing", Method: http.MethodPost, Path: "/api/v1/landing",
		Summary: "Where the ends land, what reaches each line, and the cut list", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, facet(hang.Land))

	huma.Register(api, huma.Operation{
		OperationID: "fitting", Method: http.MethodPost, Path: "/api/v1/fitting",
		Summary: "Whether the pieces suit their plaits and are not too heavy, with remedies", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct{ Body fittingWish }) (*struct{ Body judge.Fitting }, error) {
		fitting, err := s.studio.Fit(ctx, in.Body.ClientID, in.Body.Input)
		if err != nil {
			return nil, problem(ctx, invalid.Under(err, "input"), "body.")
		}
		return &struct{ Body judge.Fitting }{fitting}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "price", Method: http.MethodPost, Path: "/api/v1/price",
		Summary: "What a plan costs on the studio's terms", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *previewInput) (*struct{ Body quote.Price }, error) {
		price, err := s.studio.Price(ctx, in.Body)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body quote.Price }{price}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "day", Method: http.MethodPost, Path: "/api/v1/day",
		Summary: "How a plan is done: order, hours, people, sittings and what comes before", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, facet(func(_ context.Context, sol *plan.Solved) (hours.DayPlan, error) { return hours.DayOf(sol) }))

	huma.Register(api, huma.Operation{
		OperationID: "quicker", Method: http.MethodPost, Path: "/api/v1/quicker",
		Summary: "Other plans that keep to the time wished, where this one does not", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *previewInput) (*struct{ Body []compare.Quicker }, error) {
		end, err := s.long.begin(ctx, person(ctx).ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		defer end()
		return facetOf(ctx, in.Body, "body.", compare.Quicken)
	})

	huma.Register(api, huma.Operation{
		OperationID: "guide", Method: http.MethodPost, Path: "/api/v1/guide",
		Summary: "Where the parts of every row of a plan go", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, facet(func(_ context.Context, sol *plan.Solved) ([]guideRow, error) { return guideOf(&sol.Layout), nil }))
}

// drapeWish is a plan and how its hair is worn.
type drapeWish struct {
	Input plan.Input `json:"input"`
	Style fall.Style `json:"style"`
}

// fittingWish is a plan and whose head it is.
type fittingWish struct {
	Input    plan.Input `json:"input"`
	ClientID string     `json:"clientId,omitempty" maxLength:"64" doc:"Whose earlier installs it is compared with"`
}

// work is how the pieces go on.
type work struct {
	Before []method.Step       `json:"before" doc:"What is done before the first piece"`
	Work   []attach.Attachment `json:"work"`
	After  []method.Step       `json:"after" doc:"What is done after the last piece"`
}

func workOf(_ context.Context, sol *plan.Solved) (work, error) {
	before, after := attach.Around(sol.Input)
	return work{before, attach.Of(sol), after}, nil
}

// guideRow is a row to be parted by measure.
type guideRow struct {
	Zone     parting.Zone `json:"zone"`
	Row      int          `json:"row"`
	Sections int          `json:"sections"`
	// Size is the section wished for in this row.
	Size   parting.Size    `json:"size"`
	Middle string          `json:"middle" enum:"border,section,part" doc:"What a row that crosses the middle of the head has there"`
	Lower  parting.RowLine `json:"lower"`
	Upper  parting.RowLine `json:"upper"`
	Below  []float64       `json:"belowMm"`
	Seen   bool            `json:"seen"`
	Edited bool            `json:"edited,omitempty"`
}

func guideOf(l *parting.Layout) []guideRow {
	l.Round()
	rows := make([]guideRow, len(l.Rows))
	for i := range l.Rows {
		r := &l.Rows[i]
		rows[i] = guideRow{r.Zone, r.Row, r.Sections, r.Size, r.Middle, r.Lower, r.Upper, r.Below, r.Seen, r.Edited}
	}
	return rows
}

// facet answers with one facet of the plan that is sent.
func facet[T any](of func(context.Context, *plan.Solved) (T, error)) func(context.Context, *previewInput) (*struct{ Body T }, error) {
	return func(ctx context.Context, in *previewInput) (*struct{ Body T }, error) {
		return facetOf(ctx, in.Body, "body.", of)
	}
}

// facetOf solves a plan that stands at a path of the request and answers with a facet of it.
func facetOf[T any](ctx context.Context, in plan.Input, path string, of func(context.Context, *plan.Solved) (T, error)) (*struct{ Body T }, error) {
	sol, err := plan.Solve(ctx, in)
	if err != nil {
		return nil, problem(ctx, err, path)
	}
	body, err := of(ctx, sol)
	if err != nil {
		return nil, problem(ctx, err, path)
	}
	return &struct{ Body T }{body}, nil
}
