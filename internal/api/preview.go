package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/plan"
)

type previewInput struct {
	Body plan.Input
}

type previewOutput struct {
	Body plan.Result
}

func (s *server) previewOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "preview", Method: http.MethodPost, Path: "/api/v1/preview",
		Summary: "Compute a plan without storing it", MaxBodyBytes: maxBody,
	}, func(_ context.Context, in *previewInput) (*previewOutput, error) {
		res, err := plan.Compute(in.Body)
		if err != nil {
			return nil, problem(err, "body.")
		}
		return &previewOutput{res}, nil
	})
}
