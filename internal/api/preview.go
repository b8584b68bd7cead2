package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/invalid"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/scalp"
)

type previewInput struct {
	Body plan.Input
}

type previewOutput struct {
	Body plan.Result
}

// countWish is a plan whose sections shall be a certain number.
type countWish struct {
	Input plan.Input `json:"input"`
	parting.Count
}

func (s *server) previewOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "fitCount", Method: http.MethodPost, Path: "/api/v1/fit",
		Summary: "Section sizes that make a wished number of sections, or the nearest two", MaxBodyBytes: maxBody,
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
		Summary: "What the plan comes to with other section sizes and on other structures", MaxBodyBytes: maxBody,
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
		Summary: "Compute a plan without storing it", MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *previewInput) (*previewOutput, error) {
		res, err := plan.Compute(ctx, in.Body)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		res.Layout.Round()
		return &previewOutput{res}, nil
	})
}
