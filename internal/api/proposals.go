package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/invalid"
	"kladotex/core/plan"
	"kladotex/core/propose"
	"kladotex/internal/studio"
)

// proposing is a line of the answer to a wish: how far the search has come, and in the last one what came of it.
type proposing struct {
	Progress *propose.Progress `json:"progress,omitempty"`
	Answer   *propose.Answer   `json:"answer,omitempty"`
	// Trouble says why it broke off.
	Trouble string `json:"trouble,omitempty"`
}

// whyWish is a way that was not proposed and that somebody asks about.
type whyWish struct {
	Wished  studio.Wished   `json:"wished"`
	Asked   propose.Asked   `json:"asked"`
	Instead propose.Figures `json:"instead" doc:"The proposal it is held against"`
}

const (
	// searchTime bounds a search.
	searchTime = 15 * time.Second
	// tellEvery is how often it is told how far one has come.
	tellEvery = 100 * time.Millisecond
)

func (s *server) proposalOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "propose", Method: http.MethodPost, Path: "/api/v1/proposals",
		Summary:  "Plans that meet a wish: lines of JSON tell how far the search has come, the last one what came of it",
		Metadata: rights(studio.All), MaxBodyBytes: maxBody, Responses: linesOf[proposing](api),
	}, func(ctx context.Context, in *struct{ Body studio.Wished }) (*huma.StreamResponse, error) {
		if err := plan.Check(in.Body.Input); err != nil {
			return nil, problem(ctx, invalid.Under(err, "input"), "body.")
		}
		end, err := s.long.begin(ctx, person(ctx).ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return lines(ctx, searchTime, func(ctx context.Context, tell func(proposing) error) {
			defer end()
			var told time.Time
			answer, err := s.studio.Propose(ctx, in.Body, func(p propose.Progress) {
				if time.Since(told) >= tellEvery {
					told = time.Now()
					_ = tell(proposing{Progress: &p}) // who asked may be gone; ctx ends then
				}
			})
			if err != nil {
				_ = tell(proposing{Trouble: problem(ctx, err, "").Error()}) // the same
				return
			}
			_ = tell(proposing{Answer: &answer}) // the same
		}), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "holdAgainstWish", Method: http.MethodPost, Path: "/api/v1/proposals/held",
		Summary: "A plan held against the wish it carries", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct{ Body studio.Wished }) (*struct{ Body propose.Held }, error) {
		held, err := s.studio.HoldAgainstWish(ctx, in.Body)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body propose.Held }{held}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "whyNot", Method: http.MethodPost, Path: "/api/v1/proposals/why",
		Summary: "What speaks against a way that was not proposed", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct{ Body whyWish }) (*struct{ Body propose.Why }, error) {
		end, err := s.long.begin(ctx, person(ctx).ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		defer end()
		why, err := s.studio.WhyNot(ctx, in.Body.Wished, in.Body.Asked, in.Body.Instead)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body propose.Why }{why}, nil
	})
}
