package api

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"maps"
	"math"
	"net/http"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/labstack/echo/v5"

	"kladotex/core/invalid"
	"kladotex/internal/store"
	"kladotex/internal/studio"
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
func problem(ctx context.Context, err error, prefix string) error {
	var bad invalid.Errors
	switch {
	case errors.As(err, &bad):
		details := make([]error, len(bad))
		for i, f := range bad {
			details[i] = &huma.ErrorDetail{Location: prefix + f.Path, Message: f.Message}
		}
		return huma.Error422UnprocessableEntity(bad[0].Message, details...)
	case errors.Is(err, store.ErrGone):
		return huma.Error410Gone("It was deleted.")
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("It is not there. It may have been deleted.")
	case errors.Is(err, store.ErrStale):
		return huma.Error412PreconditionFailed("It was saved elsewhere since you opened it.")
	case errors.Is(err, store.ErrAtChair):
		return huma.Error409Conflict("This plan is or was at the chair and stays as it is. Copy it to change it.")
	case errors.Is(err, store.ErrNoClient):
		return refusal("body.clientId", "This client is not there. The card may have been deleted.")
	case errors.Is(err, store.ErrNoVariant):
		return refusal("body.variants", "A pinned state that is kept without its input must be one the stored plan holds under that name.")
	case errors.Is(err, store.ErrNameTaken):
		return refusal("body.name", "Someone in the studio has this name already; add a letter or a family name.")
	case errors.Is(err, store.ErrSupplierNamed):
		return refusal("body.name", "Another supplier has this name already: add the street or the town.")
	case errors.Is(err, studio.ErrNotTheirs):
		return huma.Error403Forbidden("Only the person themselves or an owner sets this.")
	case errors.Is(err, store.ErrNotYours):
		return huma.Error403Forbidden("Someone else wrote this down: they put it right, or a stylist does.")
	case errors.Is(err, store.ErrLastOwner):
		return huma.Error409Conflict("A studio needs an owner: make someone else an owner first.")
	case errors.Is(err, store.ErrHasOwner):
		return huma.Error409Conflict("This studio has an owner already: sign in.")
	}
	route, _ := ctx.Value(routeKey{}).(string)
	if ctx.Err() != nil || errors.Is(err, context.Canceled) || errors.Is(err, context.DeadlineExceeded) {
		slog.Info("request given up", "route", route)
		return later("This took too long and was stopped; nothing was changed.")
	}
	slog.Error("request failed", "route", route, "error", err)
	if answer, ok := troubles[store.TroubleOf(err)]; ok {
		return answer()
	}
	return huma.Error500InternalServerError("Something went wrong on our side; nothing was changed.")
}

// troubles say what ails the studio's file, and what to do.
var troubles = map[store.Trouble]func() error{
	store.DiskFull: func() error {
		return huma.Error507InsufficientStorage("The disk is full: nothing was changed. Make room on it, then try again.")
	},
	store.Busy: func() error { return later("The studio's file is busy: nothing was changed. Try again in a moment.") },
	store.ReadOnly: func() error {
		return huma.Error500InternalServerError("The studio's file cannot be written: nothing was changed. Look at the rights of the file and its folder.")
	},
	store.Damaged: func() error {
		return huma.Error500InternalServerError("The studio's file is damaged. Stop Kladotex and restore your latest copy.")
	},
	store.DiskFailed: func() error {
		return huma.Error500InternalServerError("The disk failed: nothing was changed. Look at it, and make a copy of the studio if you can.")
	},
}

// later sends a request away with a time to come back.
func later(message string) error {
	return huma.ErrorWithHeaders(huma.Error503ServiceUnavailable(message), http.Header{"Retry-After": {"2"}})
}

// refusal names one refused field.
func refusal(location, message string) error {
	return huma.Error422UnprocessableEntity(message, &huma.ErrorDetail{Location: location, Message: message})
}

// seconds writes a time to come back after, whole and not less.
func seconds(d time.Duration) string { return strconv.Itoa(int(math.Ceil(d.Seconds()))) }

// writeRefusal answers a request that does not reach its operation.
func writeRefusal(api huma.API, ctx huma.Context, err error) error {
	var headed huma.HeadersError
	if errors.As(err, &headed) {
		for name, values := range headed.GetHeaders() {
			for _, v := range values {
				ctx.SetHeader(name, v)
			}
		}
	}
	var status huma.StatusError
	if !errors.As(err, &status) {
		status = huma.Error500InternalServerError("Something went wrong on our side; nothing was changed.")
	}
	return huma.WriteErr(api, ctx, status.GetStatus(), status.Error())
}

// echoProblem answers Echo's own errors, such as an unknown path under the API,
// with problem details too.
func echoProblem(c *echo.Context, err error) {
	if r, _ := echo.UnwrapResponse(c.Response()); r != nil && r.Committed {
		return
	}
	status := http.StatusInternalServerError
	if errors.Is(err, context.Canceled) || errors.Is(err, context.DeadlineExceeded) {
		status = http.StatusServiceUnavailable
	}
	var coded echo.HTTPStatusCoder
	if errors.As(err, &coded) && coded.StatusCode() != 0 {
		status = coded.StatusCode()
	}
	detail := http.StatusText(status)
	switch status {
	case http.StatusNotFound:
		detail = "There is nothing at this address."
	case http.StatusInternalServerError:
		slog.Error("request failed", "route", c.Request().Method+" "+c.Path(), "error", err)
	case http.StatusForbidden, http.StatusRequestTimeout, http.StatusTooManyRequests, http.StatusServiceUnavailable, http.StatusMisdirectedRequest:
		var worded *echo.HTTPError // by us
		if errors.As(err, &worded) && worded.Message != "" {
			detail = worded.Message
		}
	}
	writeProblem(c.Response(), huma.NewError(status, detail))
}

// writeProblem answers with problem details where no operation does.
func writeProblem(w http.ResponseWriter, answer error) {
	var headed huma.HeadersError
	if errors.As(answer, &headed) {
		maps.Copy(w.Header(), headed.GetHeaders())
	}
	var status huma.StatusError
	if !errors.As(answer, &status) {
		status = huma.Error500InternalServerError(answer.Error())
	}
	body, err := json.Marshal(status)
	if err != nil {
		slog.Error("writing an error", "error", err)
		return
	}
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(status.GetStatus())
	if _, err := w.Write(body); err != nil {
		slog.Warn("writing an error", "error", err)
	}
}
