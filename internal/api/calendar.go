package api

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/invalid"
	"kladotex/core/plan"
	"kladotex/internal/calendar"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// bookingDocument is a plan on the calendar.
type bookingDocument struct {
	ID     string           `json:"id"`
	PlanID string           `json:"planId,omitempty" doc:"Left out once the plan is deleted"`
	Booked calendar.Booking `json:"booked"`
	By     string           `json:"by"`
	At     time.Time        `json:"at"`
}

func bookingOf(b store.Booking) bookingDocument {
	return bookingDocument{b.ID, b.PlanID, b.Entry, b.By, b.At}
}

type bookingOutput struct{ Body bookingDocument }

// busyEntry is a time at which someone is busy elsewhere, by the studio's clock.
type busyEntry struct {
	PersonID string `json:"personId"`
	Title    string `json:"title"`
	From     string `json:"from" doc:"Date and time, such as 2026-12-04T09:00"`
	To       string `json:"to"`
}

// month is what is on the calendar.
type month struct {
	Bookings []bookingDocument `json:"bookings"`
	Busy     []busyEntry       `json:"busy"`
	// Today is the date by the studio's clock.
	Today string `json:"today"`
}

// feed is where the calendar can be followed.
type feed struct {
	Path string `json:"path" doc:"Path under this studio's address; who knows it sees the calendar"`
}

// readIn is what came of reading a calendar file.
type readIn struct {
	Count   int      `json:"count" doc:"Times at which the person is busy"`
	LeftOut []string `json:"leftOut" doc:"What was not understood"`
}

// mostTold is how much of what was not understood is told.
const mostTold = 5

// maxCalendar is the size of a calendar file, bytes, above which it is refused.
const maxCalendar = 4 << 20

// clashWish is a plan whose sittings may clash.
type clashWish struct {
	PlanID string     `json:"planId,omitempty" maxLength:"64" doc:"Left out for one that was never saved"`
	Input  plan.Input `json:"input"`
}

type calendarFile struct {
	ContentType string `header:"Content-Type"`
	Cache       string `header:"Cache-Control"`
	Body        []byte
}

const calendarType = "text/calendar; charset=utf-8"

func (s *server) calendarOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "bookPlan", Method: http.MethodPost, Path: "/api/v1/plans/{id}/booking",
		Summary: "Put a plan on the calendar as it is stored, in place of an earlier booking of it", Metadata: rights(studio.Crew), DefaultStatus: http.StatusCreated,
	}, func(ctx context.Context, in *struct {
		PlanPath
		Conditional
		Body Made
	}) (*bookingOutput, error) {
		version, err := in.version()
		if err != nil {
			return nil, err
		}
		b, err := s.studio.Book(ctx, person(ctx), in.Body.ID, in.PlanPath.ID, version)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &bookingOutput{bookingOf(b)}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "readBooking", Method: http.MethodGet, Path: "/api/v1/plans/{id}/booking",
		Summary: "How a plan stands on the calendar; an empty list where it is not on it", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *PlanPath) (*struct{ Body []bookingDocument }, error) {
		b, err := s.studio.Store.BookingOf(ctx, in.ID)
		if errors.Is(err, store.ErrNotFound) {
			return &struct{ Body []bookingDocument }{[]bookingDocument{}}, nil
		}
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &struct{ Body []bookingDocument }{[]bookingDocument{bookingOf(b)}}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "cancelBooking", Method: http.MethodDelete, Path: "/api/v1/bookings/{id}",
		Summary: "Take a booking off the calendar", Metadata: rights(studio.Crew), DefaultStatus: http.StatusNoContent,
	}, func(ctx context.Context, in *struct {
		ID string `path:"id" maxLength:"64"`
	}) (*struct{}, error) {
		if err := s.studio.Store.CancelBooking(ctx, in.ID); err != nil {
			return nil, problem(ctx, err, "")
		}
		return nil, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "clashes", Method: http.MethodPost, Path: "/api/v1/clashes",
		Summary: "What the sittings of a plan want that is held by others", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct{ Body clashWish }) (*struct{ Body []calendar.Clash }, error) {
		clashes, err := s.studio.Clashes(ctx, in.Body.PlanID, in.Body.Input)
		if err != nil {
			return nil, problem(ctx, invalid.Under(err, "input"), "body.")
		}
		return &struct{ Body []calendar.Clash }{clashes}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "readCalendar", Method: http.MethodGet, Path: "/api/v1/calendar",
		Summary: "What is on the calendar from one day to another", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		From string `query:"from" required:"true" maxLength:"10" doc:"First day, such as 2026-12-01"`
		To   string `query:"to" required:"true" maxLength:"10" doc:"Last day, up to 100 days later"`
	}) (*struct{ Body month }, error) {
		bookings, busy, clock, err := s.studio.Month(ctx, in.From, in.To)
		if err != nil {
			return nil, problem(ctx, err, "query.")
		}
		out := month{Bookings: make([]bookingDocument, len(bookings)), Busy: make([]busyEntry, len(busy)), Today: clock.Today()}
		for i, b := range bookings {
			out.Bookings[i] = bookingOf(b)
		}
		const local = "2006-01-02T15:04"
		for i, b := range busy {
			out.Busy[i] = busyEntry{b.PersonID, b.Title, b.Start.In(clock.Zone).Format(local), b.End.In(clock.Zone).Format(local)}
		}
		return &struct{ Body month }{out}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "calendarFile", Method: http.MethodGet, Path: "/api/v1/calendar.ics",
		Summary: "The calendar as a file", Metadata: rights(studio.All), Responses: file("text/calendar", "The calendar"),
	}, func(ctx context.Context, _ *struct{}) (*fileOutput, error) {
		body, err := s.studio.CalendarFile(ctx)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return download(calendarType, "Calendar.ics", body), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "readFeed", Method: http.MethodGet, Path: "/api/v1/calendar/feed",
		Summary: "Where the calendar can be followed by who asks: an address for each person, which ends with their place in the studio", Metadata: rights(studio.Crew),
	}, func(ctx context.Context, _ *struct{}) (*struct{ Body feed }, error) {
		secret, err := s.studio.Feed(ctx, person(ctx))
		return feedOf(ctx, secret, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "renewFeed", Method: http.MethodPost, Path: "/api/v1/calendar/feed",
		Summary: "Give who asks another address for the calendar; the one before leads nowhere", Metadata: rights(studio.Crew),
	}, func(ctx context.Context, _ *struct{}) (*struct{ Body feed }, error) {
		secret, err := s.studio.RenewFeed(ctx, person(ctx))
		return feedOf(ctx, secret, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "followCalendar", Method: http.MethodGet, Path: "/api/v1/feeds/{secret}/calendar.ics",
		Summary: "The calendar for who knows its secret", Metadata: rights(studio.Public), Responses: file("text/calendar", "The calendar"),
	}, func(ctx context.Context, in *struct {
		Secret string `path:"secret" maxLength:"64"`
	}) (*calendarFile, error) {
		body, err := s.studio.Followed(ctx, in.Secret)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &calendarFile{calendarType, "no-store", body}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "importBusy", Method: http.MethodPut, Path: "/api/v1/people/{id}/busy",
		Summary: "Read a calendar file in: its times are busy times of a person, in place of those read in before", Metadata: rights(studio.All), MaxBodyBytes: maxCalendar,
	}, func(ctx context.Context, in *struct {
		PersonPath
		RawBody []byte `contentType:"text/calendar"`
	}) (*struct{ Body readIn }, error) {
		by := person(ctx)
		end, err := s.long.begin(ctx, by.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		defer end()
		count, leftOut, err := s.studio.ImportBusy(ctx, by, in.ID, bytes.NewReader(in.RawBody))
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		told := append([]string{}, leftOut[:min(mostTold, len(leftOut))]...)
		if n := len(leftOut) - len(told); n > 0 {
			told = append(told, fmt.Sprintf("and %d more", n))
		}
		return &struct{ Body readIn }{readIn{count, told}}, nil
	})
}

func feedOf(ctx context.Context, secret string, err error) (*struct{ Body feed }, error) {
	if err != nil {
		return nil, problem(ctx, err, "")
	}
	return &struct{ Body feed }{feed{"/api/v1/feeds/" + secret + "/calendar.ics"}}, nil
}
