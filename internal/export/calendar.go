package export

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
	"time"
	"unicode"

	ics "github.com/arran4/golang-ical"
	rfc5545 "github.com/emersion/go-ical"

	"kladotex/internal/calendar"
	"kladotex/internal/recur"
)

// Entry is a booking to be written as a calendar.
type Entry struct {
	ID string
	At time.Time // when it was booked
	// Zone is that of its times.
	Zone *time.Location
	calendar.Booking
}

// Calendar writes bookings, and the days of installs being worn, as iCalendar (RFC 5545). Sittings carry instants, so that readers in
// any zone show the right time; errands are whole days.
func Calendar(name string, entries []Entry, days []HeadDays) ([]byte, error) {
	cal := newCalendar(name)
	for _, e := range entries {
		who := e.Client
		if who == "" {
			who = e.Title
		}
		for i, s := range e.Sittings {
			when, err := s.When(e.Zone)
			if err != nil {
				return nil, fmt.Errorf("booking %s: %w", e.ID, err)
			}
			event := cal.AddEvent(fmt.Sprintf("%s-%d@kladotex", e.ID, i+1))
			event.SetDtStampTime(e.At)
			event.SetStartAt(when.Start)
			event.SetEndAt(when.End)
			title := who
			if len(e.Sittings) > 1 {
				title = fmt.Sprintf("%s, sitting %d of %d", who, i+1, len(e.Sittings))
			}
			event.SetSummary(oneLine(title))
			event.SetDescription(oneLine(fmt.Sprintf("%s. %d pieces. %s", s.Does, e.Pieces, strings.Join(s.Names, ", "))))
			event.SetStatus(ics.ObjectStatusConfirmed)
		}
		for i, errand := range e.Errands {
			if err := addDay(cal, fmt.Sprintf("%s-e%d@kladotex", e.ID, i+1), e.At, Day{errand.On, fmt.Sprintf("%s: %s", who, errand.Title)}); err != nil {
				return nil, err
			}
		}
	}
	for _, h := range days {
		for i, d := range h.Days {
			if err := addDay(cal, fmt.Sprintf("%s-w%d@kladotex", h.ID, i+1), h.At, d); err != nil {
				return nil, err
			}
		}
	}
	return []byte(cal.Serialize(ics.WithNewLineWindows)), nil
}

// HeadDays are the days of an install being worn, for those who look after it.
type HeadDays struct {
	ID   string
	At   time.Time // when it was finished
	Days []Day
}

// Day is a whole day on which something is due.
type Day struct{ On, Title string }

// Days writes whole days as iCalendar (RFC 5545), under ids that begin with one: read in once more they
// take the place of those before. at is when they were written.
func Days(name, id string, at time.Time, days []Day) ([]byte, error) {
	cal := newCalendar(name)
	for i, d := range days {
		if err := addDay(cal, fmt.Sprintf("%s-%d@kladotex", id, i+1), at, d); err != nil {
			return nil, err
		}
	}
	return []byte(cal.Serialize(ics.WithNewLineWindows)), nil
}

// oneLine is a text without line breaks and what else steers a reader: a line of a calendar ends where the
// file says, not where a name does.
func oneLine(text string) string {
	return strings.Join(strings.FieldsFunc(text, unicode.IsControl), " ")
}

func newCalendar(name string) *ics.Calendar {
	cal := ics.NewCalendar()
	cal.SetProductId("-//Kladotex//Calendar//EN")
	cal.SetMethod(ics.MethodPublish)
	cal.SetXWRCalName(oneLine(name))
	cal.SetRefreshInterval("PT1H")
	return cal
}

func addDay(cal *ics.Calendar, id string, at time.Time, d Day) error {
	day, err := time.Parse(time.DateOnly, d.On)
	if err != nil {
		return fmt.Errorf("calendar entry %s: %w", id, err)
	}
	event := cal.AddEvent(id)
	event.SetDtStampTime(at)
	event.SetAllDayStartAt(day)
	event.SetAllDayEndAt(day.AddDate(0, 0, 1))
	event.SetSummary(oneLine(d.Title))
	event.SetTimeTransparency(ics.TransparencyTransparent)
	return nil
}

// Bounds of what is read in.
const (
	mostEvents = 5000
	maxTitle   = 120
)

// BusyTime is a time at which someone is busy.
type BusyTime struct {
	calendar.Span
	Title string
}

// ReadBusy reads the times of an iCalendar that lie between two in part, at which whoever keeps
// it is busy: what is repeated is repeated, what was moved is where it was moved to, what is free or
// cancelled is left out. Times without a zone are those of local. What is not understood is left out and
// told. It fails with [ErrNoCalendar] or [ErrTooMany], or when ctx ends.
func ReadBusy(ctx context.Context, r io.Reader, local *time.Location, from, to time.Time) (busy []BusyTime, leftOut []string, err error) {
	plain := bufio.NewReader(r)
	if mark, err := plain.Peek(3); err == nil && string(mark) == "\uFEFF" { // a byte-order mark
		_, _ = plain.Discard(3)
	}
	decoder := rfc5545.NewDecoder(plain)
	budget := recur.Days
	x := reading{ctx: ctx, budget: &budget, local: local, from: from, to: to}
	for n := 0; ; n++ {
		cal, err := decode(decoder)
		if err == io.EOF && n > 0 {
			break
		}
		if err != nil {
			return nil, nil, ErrNoCalendar
		}
		events := cal.Events()
		moved := movedFrom(events, local)
		for _, e := range events {
			times, err := x.busyOf(e, moved)
			if ended := ctx.Err(); ended != nil {
				return nil, nil, ended
			}
			if err != nil {
				leftOut = append(leftOut, err.Error())
			}
			if busy = append(busy, times...); len(busy) > mostEvents || len(leftOut) > mostEvents {
				return nil, nil, ErrTooMany
			}
		}
	}
	slices.SortStableFunc(busy, func(a, b BusyTime) int { return a.Start.Compare(b.Start) })
	return busy, leftOut, nil
}

// decode reads the next calendar. The library falls over some lines that are none: that too is
// no calendar.
func decode(d *rfc5545.Decoder) (cal *rfc5545.Calendar, err error) {
	defer func() {
		if recover() != nil {
			cal, err = nil, ErrNoCalendar
		}
	}()
	return d.Decode()
}

// Errors of reading a calendar.
var (
	ErrNoCalendar = errors.New("this is no calendar file: it should begin with BEGIN:VCALENDAR")
	ErrTooMany    = fmt.Errorf("the calendar has more than %d times in these two years", mostEvents)
)

// longest is the longest time one is busy at a stretch.
const longest = 366 * 24 * time.Hour

// movedFrom are the times of events that stand by themselves elsewhere in the calendar, moved or called
// off, by the id of the event (RFC 5545, 3.8.4.4).
func movedFrom(events []rfc5545.Event, local *time.Location) map[string]times {
	out := map[string]times{}
	for _, e := range events {
		if p := e.Props.Get(rfc5545.PropRecurrenceID); p != nil {
			if at, err := p.DateTime(local); err == nil {
				id := idOf(e)
				if out[id] == nil {
					out[id] = times{}
				}
				out[id][at.Unix()] = true
			}
		}
	}
	return out
}

// times are seconds since 1970.
type times map[int64]bool

func idOf(e rfc5545.Event) string {
	if p := e.Props.Get(rfc5545.PropUID); p != nil {
		return p.Value
	}
	return ""
}

// reading is what is asked of a calendar.
type reading struct {
	ctx      context.Context
	budget   *recur.Budget // of the whole file
	local    *time.Location
	from, to time.Time
}

// busyOf are the times of one event; moved are those of its repetitions that stand by themselves.
func (x reading) busyOf(e rfc5545.Event, moved map[string]times) ([]BusyTime, error) {
	text := func(name string) string {
		v, err := e.Props.Text(name)
		if err != nil {
			return ""
		}
		return v
	}
	if status, err := e.Status(); err == nil && status == rfc5545.EventCancelled || strings.EqualFold(text(rfc5545.PropTransparency), "TRANSPARENT") {
		return nil, nil
	}
	title := text(rfc5545.PropSummary)
	if cut := []rune(title); len(cut) > maxTitle {
		title = string(cut[:maxTitle])
	}
	if title == "" {
		title = "Busy"
	}
	bad := func(err error) error { return fmt.Errorf("%s: %w", title, err) }
	start, err := e.DateTimeStart(x.local)
	if err != nil || start.IsZero() {
		return nil, bad(errors.New("its beginning is not understood"))
	}
	end, err := e.DateTimeEnd(x.local)
	if err != nil {
		return nil, bad(errors.New("its end is not understood"))
	}
	long := end.Sub(start)
	switch {
	case long <= 0: // a moment takes no time
		return nil, nil
	case long > longest:
		return nil, bad(errors.New("it lasts longer than a year"))
	}
	starts := []time.Time{start}
	if e.Props.Get(rfc5545.PropRecurrenceID) == nil {
		if starts, err = x.repeated(e, start, long, moved[idOf(e)]); err != nil {
			return nil, bad(err)
		}
	}
	var out []BusyTime
	for _, s := range starts {
		if s.Before(x.to) && s.Add(long).After(x.from) {
			out = append(out, BusyTime{calendar.Span{Start: s, End: s.Add(long)}, title})
		}
	}
	return out, nil
}

// repeated are the times at which an event begins: by its rule, at the dates it names besides, and at none
// of those that are excepted or moved.
func (x reading) repeated(e rfc5545.Event, start time.Time, long time.Duration, moved times) ([]time.Time, error) {
	option, err := e.Props.RecurrenceRule()
	if err != nil {
		return nil, errors.New("how it repeats is not understood")
	}
	starts := []time.Time{start}
	if option != nil {
		rule, err := recur.New(*option, start)
		if err != nil {
			return nil, err
		}
		if starts, err = rule.Between(x.ctx, x.budget, x.from.Add(-long), x.to, mostEvents+1); err != nil {
			return nil, err
		}
	}
	besides, err := datesOf(e, rfc5545.PropRecurrenceDates, x.local)
	if err != nil {
		return nil, err
	}
	excepted, err := datesOf(e, rfc5545.PropExceptionDates, x.local)
	if err != nil {
		return nil, err
	}
	none := make(times, len(excepted))
	for _, at := range excepted {
		none[at.Unix()] = true
	}
	seen := make(times, len(starts)+len(besides))
	return slices.DeleteFunc(append(starts, besides...), func(at time.Time) bool {
		twice := seen[at.Unix()]
		seen[at.Unix()] = true
		return twice || none[at.Unix()] || moved[at.Unix()]
	}), nil
}

// datesOf are the times that lines of a name list; several may stand in one line.
func datesOf(e rfc5545.Event, name string, local *time.Location) (out []time.Time, err error) {
	for _, p := range e.Props[name] {
		for value := range strings.SplitSeq(p.Value, ",") {
			one := p
			one.Value, _, _ = strings.Cut(value, "/") // of a period its beginning
			at, err := one.DateTime(local)
			if err != nil {
				return nil, errors.New("a date of its repetition is not understood")
			}
			if out = append(out, at); len(out) > mostEvents {
				return nil, errors.New("it names too many dates")
			}
		}
	}
	return out, nil
}
