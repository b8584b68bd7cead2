package studio

import (
	"context"
	"fmt"
	"time"

	"kladotex/core/house"
)

// Clock is the studio's: the present, and the calendar of the zone that its house rules name. Every day
// that is said, kept or counted goes by it, whatever the clock of the machine is set to.
type Clock struct {
	Zone *time.Location
	now  time.Time
}

// Clock is the studio's clock at this moment.
func (s *Studio) Clock(ctx context.Context) (Clock, error) {
	home, err := s.Store.House(ctx)
	if err != nil {
		return Clock{}, err
	}
	return s.clockOf(home.Rules)
}

func (s *Studio) clockOf(rules house.Rules) (Clock, error) {
	zone, err := zoneNamed(rules.Zone)
	return Clock{zone, s.now()}, err
}

// Now is the present.
func (c Clock) Now() time.Time { return c.now.In(c.Zone) }

// Day is the day of a time, as midnight UTC, so that the difference of two days is whole days through
// every change of clock.
func (c Clock) Day(t time.Time) time.Time {
	y, m, d := t.In(c.Zone).Date()
	return time.Date(y, m, d, 0, 0, 0, 0, time.UTC)
}

// Date is the day of a time as a date.
func (c Clock) Date(t time.Time) string { return t.In(c.Zone).Format(time.DateOnly) }

// Today is the present day.
func (c Clock) Today() string { return c.Date(c.now) }

// Midday is the middle of a day, or the present for today and for what is no date: what happened on a
// day counts for the year of that day.
func (c Clock) Midday(on string) time.Time {
	day, err := time.ParseInLocation(time.DateOnly, on, c.Zone)
	if err != nil || on >= c.Today() {
		return c.now
	}
	return day.Add(12 * time.Hour)
}

// zoneNamed is a zone by its name; without one, that of this machine's clock.
func zoneNamed(name string) (*time.Location, error) {
	if name == "" {
		return time.Local, nil
	}
	zone, err := time.LoadLocation(name)
	if err != nil {
		return nil, fmt.Errorf("zone %q: %w", name, err)
	}
	return zone, nil
}
