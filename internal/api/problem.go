package api

import (
	"encoding/json"
	"errors"
	"log/slog"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/labstack/echo/v5"

	"kladotex/core/invalid"
	"kladotex/internal/store"
)

// init sets the typed operations' manners. It makes their own refusals (a missing field, broken JSON) readable:
// the first one is the summary, and what was sent is not sent back.
func init() {
	huma.DefaultArrayNullable = false // no list of ours is ever null
	plain := huma.NewError
	huma.NewError = func(status int, message string, errs ...error) huma.StatusError {
		for i, err := range errs {
			var d huma.ErrorDetailer
			if !errors.As(err, &d) {
				continue
			}
			detail := *d.ErrorDetail()
			detail.Value = nil
			errs[i] = &detail
			if i == 0 && message == "validation failed" {
				message = detail.Location + ": " + detail.Message
			}
		}
		return plain(status, message, errs...)
	}
}

// problem turns an error into problem details (RFC 9457). Refused fields are
// named with their path under prefix; what is not meant for people is logged
// and answered with a plain 500.
func problem(err error, prefix string) error {
	var bad invalid.Errors
	switch {
	case errors.As(err, &bad):
		details := make([]error, len(bad))
		for i, f := range bad {
			details[i] = &huma.ErrorDetail{Location: prefix + f.Path, Message: f.Message}
		}
		return huma.Error422UnprocessableEntity(bad[0].Message, details...)
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("It is not there. It may have been deleted.")
	case errors.Is(err, store.ErrStale):
		return huma.Error412PreconditionFailed("It was saved elsewhere since you opened it.")
	case errors.Is(err, store.ErrNoClient):
		return huma.Error422UnprocessableEntity("This client is not there. She may have been deleted.",
			&huma.ErrorDetail{Location: "body.clientId", Message: "This client is not there. She may have been deleted."})
	case errors.Is(err, store.ErrNameTaken):
		return huma.Error422UnprocessableEntity("Someone in the studio has this name already.",
			&huma.ErrorDetail{Location: "body.name", Message: "Someone in the studio has this name already; add a letter or a family name."})
	case errors.Is(err, store.ErrLastOwner):
		return huma.Error409Conflict("A studio needs an owner: make someone else an owner first.")
	case errors.Is(err, store.ErrHasOwner):
		return huma.Error409Conflict("This studio has an owner already: sign in.")
	}
	slog.Error("request failed", "error", err)
	return huma.Error500InternalServerError("Something went wrong on our side; nothing was changed.")
}

// echoProblem answers Echo's own errors, such as an unknown path under the API,
// with problem details too.
func echoProblem(c *echo.Context, err error) {
	if r, _ := echo.UnwrapResponse(c.Response()); r != nil && r.Committed {
		return
	}
	status := http.StatusInternalServerError
	var coded echo.HTTPStatusCoder
	if errors.As(err, &coded) && coded.StatusCode() != 0 {
		status = coded.StatusCode()
	}
	detail := http.StatusText(status)
	switch status {
	case http.StatusNotFound:
		detail = "There is nothing at this address."
	case http.StatusInternalServerError:
		slog.Error("request failed", "error", err)
	case http.StatusForbidden, http.StatusTooManyRequests, http.StatusServiceUnavailable:
		var worded *echo.HTTPError // by us
		if errors.As(err, &worded) && worded.Message != "" {
			detail = worded.Message
		}
	}
	body, err := json.Marshal(huma.ErrorModel{Title: http.StatusText(status), Status: status, Detail: detail})
	if err != nil {
		slog.Error("writing an error", "error", err)
		return
	}
	if err := c.Blob(status, "application/problem+json", body); err != nil {
		slog.Warn("writing an error", "error", err)
	}
}
