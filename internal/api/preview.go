package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/fall"
	"kladotex/core/house"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/quote"
	"kladotex/core/scalp"
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
	}, func(ctx context.Context, in *previewInput) (*struct{ Body plan.Trade }, error) {
		end, err := s.long.begin(ctx, person(ctx).ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		defer end()
		trade, err := plan.TradeOff(ctx, in.Body)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body plan.Trade }{trade}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "preview", Method: http.MethodPost, Path: "/api/v1/preview",
		Summary: "A plan's head, tally and notices, without storing it", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, facet(func(_ plan.Input, r *plan.Result) flat.Preview { return flat.Of(r) }))

	// What only one step of a plan shows is asked for by it alone.
	huma.Register(api, huma.Operation{
		OperationID: "work", Method: http.MethodPost, Path: "/api/v1/work",
		Summary: "How the pieces of a plan go on, move by move", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, facet(workOf))

	huma.Register(api, huma.Operation{
		OperationID: "advice", Method: http.MethodPost, Path: "/api/v1/advice",
		Summary: "The methods compared for the head and its parts, with reasons", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *previewInput) (*struct{ Body []plan.Advice }, error) {
		advice, err := plan.Advise(ctx, in.Body)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body []plan.Advice }{advice}, nil
	})

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
	}, func(ctx context.Context, in *struct{ Body drapeWish }) (*struct{ Body plan.Drape }, error) {
		drape, err := plan.DrapeOf(ctx, in.Body.Input, in.Body.Style)
		if err != nil {
			return nil, problem(ctx, invalid.Under(err, "input"), "body.")
		}
		return &struct{ Body plan.Drape }{drape}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "landing", Method: http.MethodPost, Path: "/api/v1/landing",
		Summary: "Where the ends land, what reaches each line, and the cut list", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *previewInput) (*struct{ Body plan.Landings }, error) {
		landings, err := plan.LandingsOf(ctx, in.Body)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body plan.Landings }{landings}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "fitting", Method: http.MethodPost, Path: "/api/v1/fitting",
		Summary: "Whether the pieces suit their plaits and are not too heavy, with remedies", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct{ Body fittingWish }) (*struct{ Body plan.Fitting }, error) {
		fitting, err := s.studio.Fit(ctx, in.Body.ClientID, in.Body.Input)
		if err != nil {
			return nil, problem(ctx, invalid.Under(err, "input"), "body.")
		}
		return &struct{ Body plan.Fitting }{fitting}, nil
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
	}, func(ctx context.Context, in *previewInput) (*struct{ Body plan.DayPlan }, error) {
		day, err := plan.DayOf(ctx, in.Body)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body plan.DayPlan }{day}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "quicker", Method: http.MethodPost, Path: "/api/v1/quicker",
		Summary: "Other plans that keep to the time wished, where this one does not", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *previewInput) (*struct{ Body []plan.Quicker }, error) {
		end, err := s.long.begin(ctx, person(ctx).ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		defer end()
		quicker, err := plan.QuickerOf(ctx, in.Body)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body []plan.Quicker }{quicker}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "guide", Method: http.MethodPost, Path: "/api/v1/guide",
		Summary: "Where the parts of every row of a plan go", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, facet(func(_ plan.Input, r *plan.Result) []guideRow { return guideOf(&r.Layout) }))
}

// drapeWish is a plan and how its hair is worn.
type drapeWish struct {
	Input plan.Input `json:"input"`
	Style fall.Style `json:"style" enum:"down,half-up,tied"`
}

// fittingWish is a plan and whose head it is.
type fittingWish struct {
	Input    plan.Input `json:"input"`
	ClientID string     `json:"clientId,omitempty" maxLength:"64" doc:"Whose earlier installs it is compared with"`
}

// work is how the pieces go on.
type work struct {
	Before []method.Step     `json:"before" doc:"What is done before the first piece"`
	Work   []plan.Attachment `json:"work"`
	After  []method.Step     `json:"after" doc:"What is done after the last piece"`
}

func workOf(in plan.Input, r *plan.Result) work {
	before, after := in.Around()
	return work{before, r.Work, after}
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

// facet answers with a part of what a plan comes to.
func facet[T any](of func(plan.Input, *plan.Result) T) func(context.Context, *previewInput) (*struct{ Body T }, error) {
	return func(ctx context.Context, in *previewInput) (*struct{ Body T }, error) {
		res, err := plan.Compute(ctx, in.Body)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body T }{of(in.Body, &res)}, nil
	}
}
