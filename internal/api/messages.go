package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/message"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// writtenMessage is a message as it would be sent.
type writtenMessage struct {
	To string `json:"to"`
	message.Template
}

// sentMessage is a message that was sent.
type sentMessage struct {
	ID   string           `json:"id"`
	Kind message.Kind     `json:"kind"`
	To   string           `json:"to"`
	By   string           `json:"by"`
	At   time.Time        `json:"at"`
	Says message.Template `json:"says"`
}

func sentOf(m store.Message) sentMessage {
	return sentMessage{m.ID, m.Kind, m.To, m.By, m.At, m.Words}
}

// newMessage is a message to be sent.
type newMessage struct {
	Made
	Kind    message.Kind `json:"kind"`
	Subject string       `json:"subject" minLength:"1" maxLength:"160"`
	Words   string       `json:"body" minLength:"1" maxLength:"6000"`
}

func (s *server) messageOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "writeMessage", Method: http.MethodGet, Path: "/api/v1/plans/{id}/letters/{kind}",
		Summary: "A message for a plan as the studio words it, filled", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		PlanPath
		Kind message.Kind `path:"kind"`
	}) (*struct{ Body writtenMessage }, error) {
		to, words, err := s.studio.WriteMessage(ctx, person(ctx), in.ID, in.Kind)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &struct{ Body writtenMessage }{writtenMessage{to, words}}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "sendMessage", Method: http.MethodPost, Path: "/api/v1/plans/{id}/messages",
		Summary: "Send a message for a plan through the outbox and keep it; nothing leaves this machine", Metadata: rights(studio.All), DefaultStatus: http.StatusCreated,
	}, func(ctx context.Context, in *struct {
		PlanPath
		Body newMessage
	}) (*struct{ Body sentMessage }, error) {
		m, err := s.studio.SendMessage(ctx, person(ctx), in.Body.ID, in.PlanPath.ID, in.Body.Kind, message.Template{Subject: in.Body.Subject, Body: in.Body.Words})
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body sentMessage }{sentOf(m)}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "listMessages", Method: http.MethodGet, Path: "/api/v1/plans/{id}/messages",
		Summary: "The messages sent for a plan, the latest first", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *PlanPath) (*struct{ Body []sentMessage }, error) {
		list, err := s.studio.Store.Messages(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		out := make([]sentMessage, len(list))
		for i, m := range list {
			out[i] = sentOf(m)
		}
		return &struct{ Body []sentMessage }{out}, nil
	})
}
