// Package recur works out when a rule of RFC 5545 (section 3.3.10) repeats something, from the day to the
// year, in work that is bounded by the days there are: whatever lists a rule has, each day of the time
// that is asked for is looked at once, and each from its beginning on only where a rule counts. How many
// days may be looked at in all is a [Budget] that several rules share.
package recur

import (
	"context"
	"errors"
	"slices"
	"time"

	"github.com/teambition/rrule-go"
)

// Bounds of what is looked at: earlier beginnings are refused, and so are steps of more than these
// periods.
const (
	firstYear = 1900
	mostStep  = 10_000
)

// Errors of rules that are not followed.
var (
	ErrTooOften = errors.New("it repeats more often than daily")
	ErrTooLong  = errors.New("it began before 1900, or repeats less than once in ten thousand periods")
	ErrTooMuch  = errors.New("with all that repeats before it there is too much to work out")
)

// Budget is how many days may still be looked at.
type Budget int

// Days is what a calendar may cost: two years of more than a thousand rules, in some tenths of a second.
const Days Budget = 1_000_000

// Rule is a rule as it is read by the parser, with the beginning of what it repeats.
type Rule struct {
	freq     rrule.Frequency
	interval int
	count    int // 0 for as often as there is time
	until    time.Time
	start    time.Time
	week     time.Weekday // on which weeks begin

	months, monthDays, yearDays, weeks, positions set
	days                                          []rrule.Weekday
}

// set are numbers of a list; nil for no list.
type set map[int]bool

func setOf(list []int) set {
	if len(list) == 0 {
		return nil
	}
	s := make(set, len(list))
	for _, n := range list {
		s[n] = true
	}
	return s
}

// has tells whether a number, or the one as far from the end of a row as long as of, is in the list.
func (s set) has(n, of int) bool { return s[n] || s[n-of-1] }

// New is a rule that repeats what begins at start. It fails with [ErrTooOften] or [ErrTooLong].
func New(o rrule.ROption, start time.Time) (*Rule, error) {
	if o.Freq > rrule.DAILY || len(o.Byhour) > 1 || len(o.Byminute) > 1 || len(o.Bysecond) > 1 {
		return nil, ErrTooOften
	}
	if start.Year() < firstYear || o.Interval > mostStep {
		return nil, ErrTooLong
	}
	clock := func(list []int, own int) int {
		if len(list) > 0 {
			return list[0]
		}
		return own
	}
	y, m, d := start.Date()
	start = time.Date(y, m, d, clock(o.Byhour, start.Hour()), clock(o.Byminute, start.Minute()), clock(o.Bysecond, start.Second()), 0, start.Location())
	r := &Rule{
		freq: o.Freq, interval: max(1, o.Interval), count: o.Count, until: o.Until, start: start, week: weekday(o.Wkst.Day()),
		months: setOf(o.Bymonth), monthDays: setOf(o.Bymonthday), yearDays: setOf(o.Byyearday), positions: setOf(o.Bysetpos),
	}
	if o.Freq == rrule.YEARLY {
		r.weeks = setOf(o.Byweekno)
	}
	seen := map[rrule.Weekday]bool{}
	for _, w := range o.Byweekday {
		if !seen[w] {
			seen[w] = true
			r.days = append(r.days, w)
		}
	}
	// What a rule leaves open is as it was at the beginning.
	if r.weeks == nil && r.yearDays == nil && r.monthDays == nil && r.days == nil {
		switch o.Freq {
		case rrule.YEARLY:
			if r.months == nil {
				r.months = set{int(m): true}
			}
			r.monthDays = set{d: true}
		case rrule.MONTHLY:
			r.monthDays = set{d: true}
		case rrule.WEEKLY:
			r.days = []rrule.Weekday{weekdays[(int(start.Weekday())+6)%7]}
		}
	}
	return r, nil
}

var weekdays = []rrule.Weekday{rrule.MO, rrule.TU, rrule.WE, rrule.TH, rrule.FR, rrule.SA, rrule.SU}

// weekday is the day of the week of package time for one counted from Monday.
func weekday(fromMonday int) time.Weekday { return time.Weekday((fromMonday + 1) % 7) }

// Between are the times from one to another, both among them, at most most. It fails with
// [ErrTooMuch] when the budget is spent, and when ctx ends.
func (r *Rule) Between(ctx context.Context, budget *Budget, from, to time.Time, most int) (out []time.Time, err error) {
	last := to
	if !r.until.IsZero() && r.until.Before(last) {
		last = r.until
	}
	left := r.count
	hour, minute, second := r.start.Clock()
	begun := 0
	for k := r.firstPeriod(from); ; k++ {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		if *budget <= 0 {
			return nil, ErrTooMuch
		}
		days, begins, looked := r.period(k)
		*budget -= Budget(looked)
		if begins.After(last.AddDate(0, 0, 1)) { // a day in the zone of the start may be another in UTC
			return out, nil
		}
		if r.positions != nil {
			days = r.chosen(days)
		}
		for _, d := range days {
			at := time.Date(d.Year(), d.Month(), d.Day(), hour, minute, second, 0, r.start.Location())
			switch {
			case at.Before(r.start):
				continue
			case at.After(last):
				return out, nil
			}
			if !at.Before(from) {
				out = append(out, at)
			}
			if begun++; left > 0 && begun == left || len(out) == most {
				return out, nil
			}
		}
	}
}

// firstPeriod is a period before the first that reaches from: the first of all where the rule counts from
// its beginning on.
func (r *Rule) firstPeriod(from time.Time) int {
	if r.count > 0 || !from.After(r.start) {
		return 0
	}
	periods := map[rrule.Frequency]int{rrule.YEARLY: 366, rrule.MONTHLY: 31, rrule.WEEKLY: 7, rrule.DAILY: 1}
	days := int(from.Sub(r.start) / (24 * time.Hour))
	return max(0, days/(periods[r.freq]*r.interval)-2)
}

// chosen are the days of a period at the positions of the rule.
func (r *Rule) chosen(days []time.Time) (out []time.Time) {
	for i, d := range days {
		if r.positions.has(i+1, len(days)) {
			out = append(out, d)
		}
	}
	return out
}

// period are the days of the k-th period that the rule holds for, in order, as midnights UTC, when the
// period begins, and how many days it has.
func (r *Rule) period(k int) (days []time.Time, begin time.Time, looked int) {
	y, m, d := r.start.Date()
	step := k * r.interval
	var next time.Time
	switch r.freq {
	case rrule.YEARLY:
		begin = time.Date(y+step, 1, 1, 0, 0, 0, 0, time.UTC)
		next = begin.AddDate(1, 0, 0)
	case rrule.MONTHLY:
		begin = time.Date(y, m+time.Month(step), 1, 0, 0, 0, 0, time.UTC)
		next = begin.AddDate(0, 1, 0)
	case rrule.WEEKLY:
		begin = time.Date(y, m, d, 0, 0, 0, 0, time.UTC)
		begin = begin.AddDate(0, 0, 7*step-(int(begin.Weekday()-r.week)+7)%7)
		next = begin.AddDate(0, 0, 7)
	default:
		begin = time.Date(y, m, d+step, 0, 0, 0, 0, time.UTC)
		next = begin.AddDate(0, 0, 1)
	}
	for day := begin; day.Before(next); day = day.AddDate(0, 0, 1) {
		looked++
		if r.holds(day) {
			days = append(days, day)
		}
	}
	return days, begin, looked
}

// holds tells whether the lists of the rule let a day be.
func (r *Rule) holds(day time.Time) bool {
	if r.months != nil && !r.months[int(day.Month())] {
		return false
	}
	monthLong, yearLong := day.AddDate(0, 1, -day.Day()).Day(), time.Date(day.Year(), 12, 31, 0, 0, 0, 0, time.UTC).YearDay()
	return (r.monthDays == nil || r.monthDays.has(day.Day(), monthLong)) &&
		(r.yearDays == nil || r.yearDays.has(day.YearDay(), yearLong)) &&
		(r.weeks == nil || r.weeks.has(r.weekOf(day))) &&
		(r.days == nil || slices.ContainsFunc(r.days, func(w rrule.Weekday) bool { return r.isNth(w, day, monthLong, yearLong) }))
}

// isNth tells whether a day is one of the week, or the so-manieth of its month or year.
func (r *Rule) isNth(w rrule.Weekday, day time.Time, monthLong, yearLong int) bool {
	if weekday(w.Day()) != day.Weekday() {
		return false
	}
	n := w.N()
	if n == 0 || r.freq > rrule.MONTHLY {
		return true
	}
	at, long := day.YearDay(), yearLong
	if r.freq == rrule.MONTHLY || r.months != nil {
		at, long = day.Day(), monthLong
	}
	return n == (at+6)/7 || n == -((long-at)/7+1)
}

// weekOf is the number of the week a day lies in, and how many weeks that year has: the first with four
// days in the year is week 1.
func (r *Rule) weekOf(day time.Time) (week, of int) {
	// The fourth day of a week lies in the year that the week belongs to.
	fourth := day.AddDate(0, 0, 3-(int(day.Weekday()-r.week)+7)%7)
	end := time.Date(fourth.Year(), 12, 31, 0, 0, 0, 0, time.UTC)
	last := end.AddDate(0, 0, 3-(int(end.Weekday()-r.week)+7)%7)
	if last.Year() > fourth.Year() {
		last = last.AddDate(0, 0, -7)
	}
	return (fourth.YearDay() + 6) / 7, (last.YearDay() + 6) / 7
}
