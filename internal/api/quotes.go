package api

import (
	"context"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/quote"
	"kladotex/internal/sheet"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// quoteDocument is a quote as it was given.
type quoteDocument struct {
	ID       string       `json:"id"`
	Number   int          `json:"number"`
	PlanID   string       `json:"planId,omitempty" doc:"Left out once the plan is deleted"`
	State    quote.State  `json:"state"`
	Given    quote.Letter `json:"given"`
	At       time.Time    `json:"at"`
	Answered *time.Time   `json:"answered,omitempty" doc:"When it was accepted or declined"`
	By       string       `json:"answeredBy,omitempty" doc:"Who wrote the answer down"`
	Expired  bool         `json:"expired" doc:"True once its last day is over and nobody answered"`
}

// quoteOf is a quote as it stands on a day.
func quoteOf(q store.Quote, today string) quoteDocument {
	out := quoteDocument{ID: q.ID, Number: q.Number, PlanID: q.PlanID, State: q.State, Given: q.Given, At: q.At, By: q.AnsweredBy}
	if !q.Answered.IsZero() {
		out.Answered = &q.Answered
	}
	out.Expired = q.State == quote.Open && today > q.Given.Until
	return out
}

// QuotePath names a quote.
type QuotePath struct {
	ID string `path:"id" maxLength:"64"`
}

type quoteOutput struct{ Body quoteDocument }

func (s *server) quoteAnswer(ctx context.Context, q store.Quote, err error) (*quoteOutput, error) {
	if err != nil {
		return nil, problem(ctx, err, "body.")
	}
	clock, err := s.studio.Clock(ctx)
	if err != nil {
		return nil, problem(ctx, err, "")
	}
	return &quoteOutput{quoteOf(q, clock.Today())}, nil
}

// newQuote is a quote to be given.
type newQuote struct {
	Made
	Unit  sheet.Unit `json:"unit" doc:"Unit of length on its paper"`
	Paper string     `json:"paper" enum:"letter,a4"`
}

func (s *server) quoteOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "listQuotes", Method: http.MethodGet, Path: "/api/v1/plans/{id}/quotes",
		Summary: "The quotes given for a plan, the latest first", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *PlanPath) (*struct{ Body []quoteDocument }, error) {
		list, err := s.studio.Store.Quotes(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		clock, err := s.studio.Clock(ctx)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		out := make([]quoteDocument, len(list))
		for i, q := range list {
			out[i] = quoteOf(q, clock.Today())
		}
		return &struct{ Body []quoteDocument }{out}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "giveQuote", Method: http.MethodPost, Path: "/api/v1/plans/{id}/quotes",
		Summary: "Freeze a quote of a plan as it is stored", Metadata: rights(studio.Crew), DefaultStatus: http.StatusCreated,
	}, func(ctx context.Context, in *struct {
		PlanPath
		Conditional
		Body newQuote
	}) (*quoteOutput, error) {
		version, err := in.version()
		if err != nil {
			return nil, err
		}
		end, err := s.long.begin(ctx, person(ctx).ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		defer end()
		q, err := s.studio.GiveQuote(ctx, person(ctx), in.Body.ID, in.PlanPath.ID, version, in.Body.Unit, in.Body.Paper)
		return s.quoteAnswer(ctx, q, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "readQuote", Method: http.MethodGet, Path: "/api/v1/quotes/{id}",
		Summary: "A quote as it was given", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *QuotePath) (*quoteOutput, error) {
		q, err := s.studio.Store.Quote(ctx, in.ID)
		return s.quoteAnswer(ctx, q, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "answerQuote", Method: http.MethodPut, Path: "/api/v1/quotes/{id}/state",
		Summary: "Say what became of a quote", Metadata: rights(studio.Crew),
	}, func(ctx context.Context, in *struct {
		QuotePath
		Body struct {
			State quote.State `json:"state"`
		}
	}) (*quoteOutput, error) {
		q, err := s.studio.AnswerQuote(ctx, person(ctx), in.ID, in.Body.State)
		return s.quoteAnswer(ctx, q, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "quotePaper", Method: http.MethodGet, Path: "/api/v1/quotes/{id}/quote.pdf",
		Summary: "The paper of a quote as it was given", Metadata: rights(studio.All), Responses: file("application/pdf", "The quote"),
	}, func(ctx context.Context, in *QuotePath) (*fileOutput, error) {
		number, body, err := s.studio.Store.QuoteFile(ctx, in.ID, store.QuotePaper)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return download("application/pdf", fmt.Sprintf("Quote %d.pdf", number), body), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "quotePicture", Method: http.MethodGet, Path: "/api/v1/quotes/{id}/picture/{part}",
		Summary: "A picture on a quote: the head parted, or with its hair", Metadata: rights(studio.All), Responses: file("image/svg+xml", "The picture"),
	}, func(ctx context.Context, in *struct {
		QuotePath
		Part store.QuotePart `path:"part" enum:"parted,draped"`
	}) (*pictureOutput, error) {
		_, body, err := s.studio.Store.QuoteFile(ctx, in.ID, in.Part)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &pictureOutput{"image/svg+xml", "private, max-age=31536000, immutable", body}, nil
	})
}
