package studio

import (
	"cmp"
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
	"time"

	"kladotex/core/hours"
	"kladotex/core/house"
	"kladotex/core/invalid"
	"kladotex/core/plan"
	"kladotex/internal/calendar"
	"kladotex/internal/export"
	"kladotex/internal/store"
)

// booked is a plan's day as it goes on the calendar.
func booked(p store.Plan, day hours.DayPlan, orders []ShopOrder, home house.Rules) calendar.Booking {
	b := calendar.Booking{
		Schema: calendar.Schema, Title: p.Title, Client: p.Client, Zone: home.Zone,
		Sittings: make([]calendar.Sitting, len(day.Sittings)), Errands: []calendar.Errand{},
	}
	for _, r := range day.Rows {
		b.Pieces += r.Pieces
	}
	for i, s := range day.Sittings {
		out := calendar.Sitting{On: s.On, At: s.At, Minutes: s.Minutes, People: []string{}, Names: []string{}, Chair: !s.Home, Does: s.Does}
		for k, h := range day.Hands {
			if !s.Has(k) {
				continue
			}
			if h.Person != "" {
				out.People = append(out.People, h.Person)
			}
			if h.Name != "" {
				out.Names = append(out.Names, h.Name)
			}
		}
		b.Sittings[i] = out
	}
	for _, o := range orders {
		if o.OrderBy != "" {
			b.Errands = append(b.Errands, calendar.Errand{On: o.OrderBy, Title: "Last day to order: " + o.Name})
		}
	}
	for _, d := range day.Due {
		if d.Before > 0 {
			b.Errands = append(b.Errands, calendar.Errand{On: d.On, At: d.At, Title: d.Title})
		}
	}
	return b
}

// Book puts a plan on the calendar as it is stored, under an id made by who books it. The version
// is that which was looked at: a plan that was saved since is refused with [store.ErrStale].
func (s *Studio) Book(ctx context.Context, by store.Person, id, planID string, version int) (store.Booking, error) {
	p, err := s.Store.Plan(ctx, planID)
	if err != nil {
		return store.Booking{}, err
	}
	if p.Version != version {
		return store.Booking{}, store.ErrStale
	}
	if err := s.cleared(ctx, p); err != nil {
		return store.Booking{}, err
	}
	if p.Input.InstallDay() == "" {
		var bad invalid.Errors
		bad.Add("day.install", "Give the first sitting a date; then the plan can go on the calendar.")
		return store.Booking{}, bad
	}
	home, err := s.Store.House(ctx)
	if err != nil {
		return store.Booking{}, err
	}
	sol, err := plan.Solve(ctx, p.Input)
	if err != nil {
		return store.Booking{}, fmt.Errorf("stored plan %s: %w", planID, err)
	}
	day, err := hours.DayOf(sol)
	if err != nil {
		return store.Booking{}, fmt.Errorf("stored plan %s: %w", planID, err)
	}
	shop, err := s.Shop(ctx, planID, p.Input)
	if err != nil {
		return store.Booking{}, err
	}
	record, err := recordOf(sol)
	if err != nil {
		return store.Booking{}, err
	}
	var out store.Booking
	err = s.update(ctx, func(s *Studio) error {
		if err := s.unmoved(ctx, p); err != nil {
			return err
		}
		out, err = s.Store.Book(ctx, id, store.BookingDraft{
			PlanID: p.ID, ClientID: p.ClientID, Entry: booked(p, day, shop.Orders, home.Rules), Record: record, By: by.Name,
		})
		return err
	})
	return out, err
}

// Clashes are what the sittings of a plan want that is held by others: a chair, a person, or hair
// that is promised to another plan. planID is that of the plan itself, empty for one that was
// never saved.
func (s *Studio) Clashes(ctx context.Context, planID string, in plan.Input) ([]calendar.Clash, error) {
	sol, err := plan.Solve(ctx, in)
	if err != nil {
		return nil, err
	}
	day, err := hours.DayOf(sol)
	if err != nil {
		return nil, err
	}
	out := []calendar.Clash{}
	home, err := s.Store.House(ctx)
	if err != nil {
		return nil, err
	}
	if in.InstallDay() != "" {
		mine := booked(store.Plan{}, day, nil, home.Rules).Sittings
		if out, err = s.timeClashes(ctx, planID, mine, home.Rules); err != nil {
			return nil, err
		}
	}
	shop, err := s.Shop(ctx, planID, in)
	if err != nil {
		return nil, err
	}
	for i, l := range append(append(shop.Lines, shop.Wraps...), shop.Things...) {
		if l.Elsewhere > 0 && l.Order.Packs > 0 {
			name := "Hair"
			if i < len(shop.Need.Pieces) {
				name = in.Piece(shop.Need.Pieces[i].Piece).Name
			}
			out = append(out, calendar.Clash{Kind: calendar.Elsewhere, Sitting: -1, Says: fmt.Sprintf("%s: %d in the stash are promised to another plan.", name, l.Elsewhere)})
		}
	}
	return out, nil
}

// timeClashes are the clashes of sittings with what else is on the calendar.
func (s *Studio) timeClashes(ctx context.Context, planID string, mine []calendar.Sitting, rules house.Rules) ([]calendar.Clash, error) {
	clock, err := s.clockOf(rules)
	if err != nil {
		return nil, err
	}
	zone := clock.Zone
	first, err := mine[0].When(zone)
	if err != nil {
		return nil, err
	}
	last, err := mine[len(mine)-1].When(zone)
	if err != nil {
		return nil, err
	}
	held, err := s.held(ctx, planID, first.Start.AddDate(0, 0, -1), last.End.AddDate(0, 0, 1))
	if err != nil {
		return nil, err
	}
	people, err := s.Store.People(ctx)
	if err != nil {
		return nil, err
	}
	names := map[string]string{}
	for _, p := range people {
		names[p.ID] = p.Name
	}
	return calendar.Clashes(mine, zone, held, rules.Seats(), names)
}

// held is what is taken between two times, but by a plan itself.
func (s *Studio) held(ctx context.Context, planID string, from, to time.Time) (out []calendar.Occupied, err error) {
	bookings, err := s.Store.Bookings(ctx, from.Format(time.DateOnly), to.Format(time.DateOnly))
	if err != nil {
		return nil, err
	}
	for _, b := range bookings {
		if planID != "" && b.PlanID == planID {
			continue
		}
		zone, err := zoneNamed(b.Entry.Zone)
		if err != nil {
			return nil, fmt.Errorf("booking %s: %w", b.ID, err)
		}
		for _, sitting := range b.Entry.Sittings {
			when, err := sitting.When(zone)
			if err != nil {
				return nil, fmt.Errorf("booking %s: %w", b.ID, err)
			}
			title := b.Entry.Client
			if title == "" {
				title = b.Entry.Title
			}
			out = append(out, calendar.Occupied{Span: when, Title: title, People: sitting.People, Chair: sitting.Chair})
		}
	}
	busy, err := s.Store.BusyTimes(ctx, from, to)
	if err != nil {
		return nil, err
	}
	for _, b := range busy {
		out = append(out, calendar.Occupied{Span: calendar.Span{Start: b.Start, End: b.End}, Title: b.Title, People: []string{b.PersonID}})
	}
	return out, nil
}

// Month is what is on the calendar from one day to another, and the studio's clock.
func (s *Studio) Month(ctx context.Context, from, to string) (bookings []store.Booking, busy []store.BusyTime, clock Clock, err error) {
	var bad invalid.Errors
	bad.Day("from", "The first day", from)
	bad.Day("to", "The last day", to)
	if len(bad) == 0 && (to < from || daysBefore(to, 100) > from) {
		bad.Add("to", "The last day lies up to 100 days after the first.")
	}
	if err := bad.Err(); err != nil {
		return nil, nil, Clock{}, err
	}
	if clock, err = s.Clock(ctx); err != nil {
		return nil, nil, Clock{}, err
	}
	if bookings, err = s.Store.Bookings(ctx, from, to); err != nil {
		return nil, nil, Clock{}, err
	}
	start, _ := time.ParseInLocation(time.DateOnly, from, clock.Zone)
	end, _ := time.ParseInLocation(time.DateOnly, to, clock.Zone)
	busy, err = s.Store.BusyTimes(ctx, start, end.AddDate(0, 0, 1))
	return bookings, busy, clock, err
}

// feedDays is how many days back and ahead the calendar is written.
const feedDays = 400

// CalendarFile writes the studio's calendar as iCalendar.
func (s *Studio) CalendarFile(ctx context.Context) ([]byte, error) {
	clock, err := s.Clock(ctx)
	if err != nil {
		return nil, err
	}
	now := clock.Now()
	bookings, err := s.Store.Bookings(ctx, now.AddDate(0, 0, -feedDays).Format(time.DateOnly), now.AddDate(0, 0, feedDays).Format(time.DateOnly))
	if err != nil {
		return nil, err
	}
	home, err := s.Store.House(ctx)
	if err != nil {
		return nil, err
	}
	entries := make([]export.Entry, len(bookings))
	for i, b := range bookings {
		zone, err := zoneNamed(b.Entry.Zone)
		if err != nil {
			return nil, fmt.Errorf("booking %s: %w", b.ID, err)
		}
		entries[i] = export.Entry{ID: b.ID, At: b.At, Zone: zone, Booking: b.Entry}
	}
	name := strings.TrimSpace(home.Rules.Asks().Name)
	if name == "" {
		name = "Kladotex"
	}
	heads, err := s.WornHeads(ctx)
	if err != nil {
		return nil, err
	}
	days := make([]export.HeadDays, len(heads))
	for i := range heads {
		h := &heads[i]
		days[i] = export.HeadDays{ID: h.ID, At: h.Closed, Days: []export.Day{{On: h.Date(h.Clock.Next), Title: cmp.Or(h.Client, h.Title) + ": check scalp, edges and roots"}}}
		if h.Clock.Next != h.Clock.Planned {
			days[i].Days = append(days[i].Days, export.Day{On: h.Date(h.Clock.Planned), Title: cmp.Or(h.Client, h.Title) + ": take down"})
		} else {
			days[i].Days[0].Title = cmp.Or(h.Client, h.Title) + ": take down"
		}
	}
	return export.Calendar(name, entries, days)
}

// Feed is the secret of the address at which a person can follow the calendar; it is made when it is
// first asked for, and ends when they leave the studio.
func (s *Studio) Feed(ctx context.Context, by store.Person) (string, error) {
	secret, err := s.Store.FeedSecret(ctx, by.ID)
	if err != nil || secret != "" {
		return secret, err
	}
	return s.RenewFeed(ctx, by)
}

// RenewFeed gives a person another address: whoever follows the one before sees nothing any more.
func (s *Studio) RenewFeed(ctx context.Context, by store.Person) (string, error) {
	secret := rand.Text() // 128 bits at least
	return secret, s.Store.SetFeedSecret(ctx, by.ID, secret)
}

// Followed is the calendar for who knows the secret of a person who may see it; for others there is
// nothing, or [store.ErrNotFound].
func (s *Studio) Followed(ctx context.Context, secret string) ([]byte, error) {
	who, err := s.Store.FeedOwner(ctx, secret)
	if err != nil {
		return nil, err
	}
	if !slices.Contains(Crew, who.Role) {
		return nil, store.ErrNotFound
	}
	return s.CalendarFile(ctx)
}

// Imported times are kept for this long ahead.
const busyYears = 2

// ImportBusy puts the times of a calendar file in place of those read in for a person before:
// they read it in themselves, or an owner does.
func (s *Studio) ImportBusy(ctx context.Context, by store.Person, person string, file io.Reader) (count int, leftOut []string, err error) {
	if _, err := s.Store.Person(ctx, person); err != nil {
		return 0, nil, err
	}
	if by.ID != person && by.Role != store.Owner {
		return 0, nil, ErrNotTheirs
	}
	clock, err := s.Clock(ctx)
	if err != nil {
		return 0, nil, err
	}
	from := clock.Now().AddDate(0, 0, -31)
	times, leftOut, err := export.ReadBusy(ctx, file, clock.Zone, from, from.AddDate(busyYears, 0, 0))
	if errors.Is(err, export.ErrNoCalendar) || errors.Is(err, export.ErrTooMany) {
		var bad invalid.Errors
		bad.Add("(document)", "%s.", strings.ToUpper(err.Error()[:1])+err.Error()[1:])
		return 0, nil, bad
	}
	if err != nil {
		return 0, nil, err
	}
	busy := make([]store.BusyTime, len(times))
	for i, t := range times {
		busy[i] = store.BusyTime{PersonID: person, Title: t.Title, Start: t.Start, End: t.End}
	}
	return len(busy), leftOut, s.Store.SetBusy(ctx, person, busy)
}
