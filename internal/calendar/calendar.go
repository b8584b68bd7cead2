// Package calendar holds sittings that are booked, times at which people are busy, and says
// where they clash. Times of the clock are local to a studio and hold whatever its clocks do:
// a sitting at nine is at nine after a change of clock too.
package calendar

import (
	"encoding/json"
	"fmt"
	"slices"
	"time"
)

// Schema is the version of the booking this package writes.
const Schema = 1

// Booking is a plan on the calendar, as it was when it was booked.
type Booking struct {
	Schema int    `json:"schema"`
	Title  string `json:"title"`
	Client string `json:"client" doc:"Empty where it was open whose head it is"`
	// Zone is that of the times in it, by its name in the zone database; empty for this machine's.
	Zone     string    `json:"zone"`
	Pieces   int       `json:"pieces"`
	Sittings []Sitting `json:"sittings"`
	// Errands come before the first sitting.
	Errands []Errand `json:"errands"`
}

// Sitting is one sitting of a booking.
type Sitting struct {
	On      string  `json:"on"`
	At      string  `json:"at"`
	Minutes float64 `json:"minutes" doc:"Its length, breaks in it"`
	// People are ids of those of the studio who work, Names what all who work are called.
	People []string `json:"people"`
	Names  []string `json:"names"`
	// Chair is true where it takes a chair of the studio.
	Chair bool   `json:"chair"`
	Does  string `json:"does"`
}

// Errand is something to be done on a day, or by a time of it.
type Errand struct {
	On    string `json:"on"`
	At    string `json:"at,omitempty"`
	Title string `json:"title"`
}

// Decode reads a booking as it was stored.
func Decode(raw []byte) (Booking, error) {
	var b Booking
	if err := json.Unmarshal(raw, &b); err != nil {
		return Booking{}, fmt.Errorf("reading a booking: %w", err)
	}
	if b.Schema != Schema {
		return Booking{}, fmt.Errorf("reading a booking: version %d; this program reads %d", b.Schema, Schema)
	}
	return b, nil
}

// Span is from when to when something lasts.
type Span struct{ Start, End time.Time }

// overlaps tells whether two spans share time.
func (s Span) overlaps(o Span) bool { return s.Start.Before(o.End) && o.Start.Before(s.End) }

// When is the span of a sitting in a zone. A time that the clocks leave out is that much later.
func (s Sitting) When(zone *time.Location) (Span, error) {
	start, err := time.ParseInLocation("2006-01-02 15:04", s.On+" "+s.At, zone)
	if err != nil {
		return Span{}, fmt.Errorf("a sitting on %q at %q: %w", s.On, s.At, err)
	}
	return Span{start, start.Add(time.Duration(s.Minutes * float64(time.Minute)).Round(time.Minute))}, nil
}

// Occupied is time that is taken: a sitting of another booking, or a time at which someone is busy.
type Occupied struct {
	Span
	Title  string
	People []string
	Chair  bool
}

// ClashKind is what two things want at the same time.
type ClashKind string

// The kinds.
const (
	ChairTaken ClashKind = "chair"
	PersonBusy ClashKind = "person"
	Elsewhere  ClashKind = "stash" // hair is promised to another plan
)

// Clash is one thing that cannot be had.
type Clash struct {
	Kind ClashKind `json:"kind" enum:"chair,person,stash"`
	// Sitting counts from 0; -1 where it is about the whole.
	Sitting int    `json:"sitting"`
	Says    string `json:"says"`
}

// Clashes are what the sittings of a booking want that is held by others at the time. A studio
// has chairs chairs; names are those of its people by id.
func Clashes(sittings []Sitting, zone *time.Location, others []Occupied, chairs int, names map[string]string) ([]Clash, error) {
	out := []Clash{}
	for i, s := range sittings {
		when, err := s.When(zone)
		if err != nil {
			return nil, err
		}
		var at []Occupied
		for _, o := range others {
			if o.overlaps(when) {
				at = append(at, o)
			}
		}
		slices.SortFunc(at, func(a, b Occupied) int { return a.Start.Compare(b.Start) })
		for _, o := range at {
			for _, p := range s.People {
				if slices.Contains(o.People, p) {
					out = append(out, Clash{PersonBusy, i, fmt.Sprintf("%s is taken from %s to %s: %s.", names[p], o.Start.In(zone).Format("15:04"), o.End.In(zone).Format("15:04"), o.Title)})
				}
			}
		}
		if s.Chair {
			if taken := most(at, when); taken >= chairs {
				out = append(out, Clash{ChairTaken, i, fmt.Sprintf("No chair is free: %s then, and the studio has %s.", sittingsTaken(taken), chairsText(chairs))})
			}
		}
	}
	return out, nil
}

// most is how many chairs are taken at once at most within a span.
func most(held []Occupied, within Span) (taken int) {
	for _, a := range held {
		if !a.Chair {
			continue
		}
		// The most are taken when one of them begins, or at the beginning.
		moment := a.Start
		if moment.Before(within.Start) {
			moment = within.Start
		}
		n := 0
		for _, b := range held {
			if b.Chair && !b.Start.After(moment) && b.End.After(moment) {
				n++
			}
		}
		taken = max(taken, n)
	}
	return taken
}

func sittingsTaken(n int) string {
	if n == 1 {
		return "one is taken"
	}
	return fmt.Sprintf("%d are taken", n)
}

func chairsText(n int) string {
	if n == 1 {
		return "one"
	}
	return fmt.Sprint(n)
}
