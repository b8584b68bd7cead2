package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/client"
	"kladotex/internal/studio"
)

type clearanceOutput struct{ Body studio.Clearance }

func clearanceAnswer(ctx context.Context, c studio.Clearance, err error) (*clearanceOutput, error) {
	if err != nil {
		return nil, problem(ctx, err, "body.")
	}
	return &clearanceOutput{c}, nil
}

func (s *server) clearanceOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "readClearance", Method: http.MethodGet, Path: "/api/v1/plans/{id}/clearance",
		Summary: "What holds a plan back from a quote, a booking and the chair", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *PlanPath) (*clearanceOutput, error) {
		c, err := s.studio.Clearance(ctx, in.ID)
		return clearanceAnswer(ctx, c, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "askAboutHead", Method: http.MethodPut, Path: "/api/v1/plans/{id}/asked",
		Summary: "Keep what was answered about a head that no client's card speaks of", Metadata: rights(studio.Crew),
	}, func(ctx context.Context, in *struct {
		PlanPath
		Body struct {
			History []client.Event `json:"history" maxItems:"8" enum:"chemical,hair-loss,sore-scalp" doc:"What calls for caution; none is an answer too"`
		}
	}) (*clearanceOutput, error) {
		c, err := s.studio.Ask(ctx, person(ctx), in.ID, in.Body.History)
		return clearanceAnswer(ctx, c, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "readCaution", Method: http.MethodPost, Path: "/api/v1/plans/{id}/cautions",
		Summary: "Say that a grave caution of the head of a plan was read", Metadata: rights(studio.Crew),
	}, func(ctx context.Context, in *struct {
		PlanPath
		Body struct {
			Caution string `json:"caution" maxLength:"40" doc:"Key of the caution"`
		}
	}) (*clearanceOutput, error) {
		c, err := s.studio.ReadCaution(ctx, person(ctx), in.ID, in.Body.Caution)
		return clearanceAnswer(ctx, c, err)
	})
}
