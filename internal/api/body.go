package api

import (
	"bytes"
	"errors"
	"io"
	"net/http"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/labstack/echo/v5"
)

// Bounds of bodies that are being read or worked on: how long one may take to come and how long the answer
// then has, how much all of them hold, and how much those from one network do.
const (
	bodyTime     = 60 * time.Second
	answerTime   = 60 * time.Second
	bodiesRoom   = 256 << 20
	bodiesShare  = bodiesRoom / 4
	bodyStep     = 32 << 10
	usualMaxBody = 1 << 20 // that of operations which say nothing
)

// room is what bodies hold of the memory, in all and by network.
type room struct {
	lock sync.Mutex
	all  int
	of   map[string]int
}

// take adds to what a network holds, unless that would be too much.
func (r *room) take(network string, n int) bool {
	r.lock.Lock()
	defer r.lock.Unlock()
	if r.all+n > bodiesRoom || r.of[network]+n > bodiesShare {
		return false
	}
	r.all += n
	r.of[network] += n
	return true
}

func (r *room) give(network string, n int) {
	r.lock.Lock()
	defer r.lock.Unlock()
	r.all -= n
	if r.of[network] -= n; r.of[network] <= 0 {
		delete(r.of, network)
	}
}

// readFirst reads the body of a request under the API before the request takes a place among those that are
// served: who sends it slowly, or half of it, keeps nobody else waiting. Bodies are bounded by their
// operation, in time, and all together in memory.
func readFirst(operations map[string]*huma.Operation) echo.MiddlewareFunc {
	held := &room{of: map[string]int{}}
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			r := c.Request()
			if !strings.HasPrefix(r.URL.Path, "/api/") || r.Body == nil || r.Body == http.NoBody {
				return next(c)
			}
			most := usualMaxBody
			if op := operations[r.Method+" "+c.Path()]; op != nil && op.MaxBodyBytes > 0 {
				most = int(op.MaxBodyBytes)
			}
			from := network(c.RealIP())
			body, taken, err := readBody(c, held, from, most)
			defer func() { held.give(from, taken) }()
			if err != nil {
				return err
			}
			r.Body = io.NopCloser(bytes.NewReader(body))
			return next(c)
		}
	}
}

// readBody reads a body and one byte more than it may have, by which its operation sees that it is too
// long. taken is what it holds of the room.
func readBody(c *echo.Context, held *room, from string, most int) (body []byte, taken int, err error) {
	control := http.NewResponseController(c.Response())
	_ = control.SetReadDeadline(time.Now().Add(bodyTime)) // where there is no connection, there is nothing to wait for
	defer func() {                                        // the answer, and the next request, have their own time
		_ = control.SetReadDeadline(time.Time{})
		_ = control.SetWriteDeadline(time.Now().Add(answerTime))
	}()
	source := io.LimitReader(c.Request().Body, int64(most)+1)
	for {
		if cap(body)-len(body) < bodyStep {
			grown := max(bodyStep, 2*cap(body))
			if !held.take(from, grown-cap(body)) {
				c.Response().Header().Set("Retry-After", "5")
				return nil, taken, echo.NewHTTPError(http.StatusServiceUnavailable, "Too much is being sent at once. Try again in a moment.")
			}
			taken += grown - cap(body)
			body = append(make([]byte, 0, grown), body...)
		}
		n, err := source.Read(body[len(body):cap(body)])
		body = body[:len(body)+n]
		switch {
		case errors.Is(err, io.EOF):
			return body, taken, nil
		case err != nil:
			return nil, taken, echo.NewHTTPError(http.StatusRequestTimeout, "What was sent did not come whole, or too slowly. Send it again.")
		}
	}
}
