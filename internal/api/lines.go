package api

import (
	"context"
	"encoding/json"
	"net/http"
	"reflect"
	"time"

	"github.com/danielgtaylor/huma/v2"
)

// linesOf describes an answer in lines of JSON.
func linesOf[T any](api huma.API) map[string]*huma.Response {
	return map[string]*huma.Response{"200": {Description: "Lines of JSON", Content: map[string]*huma.MediaType{
		"application/x-ndjson": {Schema: api.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[T](), true, "")},
	}}}
}

// lines answers long work with lines of JSON, which tell how far it has come; the last one says what came of it.
// The work has a limit of its own, and ends when who asked is gone.
func lines[T any](ctx context.Context, limit time.Duration, work func(ctx context.Context, tell func(T) error)) *huma.StreamResponse {
	return &huma.StreamResponse{Body: func(w huma.Context) {
		ctx, stop := context.WithTimeout(ctx, limit)
		defer stop()
		w.SetHeader("Content-Type", "application/x-ndjson")
		w.SetStatus(http.StatusOK)
		out := json.NewEncoder(w.BodyWriter())
		control := http.NewResponseController(w.BodyWriter().(http.ResponseWriter))
		_ = control.SetWriteDeadline(time.Now().Add(limit + answerTime)) // it has a limit of its own
		work(ctx, func(line T) error {
			err := out.Encode(line)
			_ = control.Flush() // what cannot be flushed comes a little later
			return err
		})
	}}
}
