package studio

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/chair"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/core/wear"
	"kladotex/internal/sheet"
	"kladotex/internal/store"
)

// clocked is a studio in a zone, at a moment that can be set.
func clocked(t *testing.T, zone string, now time.Time) (*Studio, func(time.Time)) {
	t.Helper()
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "studio.db"))
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	use, err := Open(t.Context(), s, new(world).outside())
	require.NoError(t, err)
	use.now = func() time.Time { return now }
	home, err := s.House(t.Context())
	require.NoError(t, err)
	home.Rules.Zone = zone
	_, err = use.SaveHouse(t.Context(), home.Version, home.Rules)
	require.NoError(t, err)
	return use, func(at time.Time) { now = at }
}

// Days are those of the studio's zone, whatever the machine's: on both sides of midnight, and over a change of
// clock. Changes of clock by the time zone database: Lisbon goes back on 25 October 2026 at 02:00.
func TestDaysAreOfTheStudiosZone(t *testing.T) {
	utc := func(text string) time.Time {
		at, err := time.Parse(time.RFC3339, text)
		require.NoError(t, err)
		return at
	}
	for _, x := range []struct{ zone, now, today string }{
		{"Pacific/Auckland", "2026-12-31T10:59:00Z", "2026-12-31"},
		{"Pacific/Auckland", "2026-12-31T11:01:00Z", "2027-01-01"},
		{"America/Los_Angeles", "2027-01-01T07:59:00Z", "2026-12-31"},
		{"America/Los_Angeles", "2027-01-01T08:01:00Z", "2027-01-01"},
		{"Europe/Lisbon", "2026-10-24T23:30:00Z", "2026-10-25"},
		{"Europe/Lisbon", "2026-10-25T23:30:00Z", "2026-10-25"},
	} {
		use, _ := clocked(t, x.zone, utc(x.now))
		c, err := use.Clock(t.Context())
		require.NoError(t, err)
		assert.Equal(t, x.today, c.Today(), "%s at %s", x.zone, x.now)
	}
	lisbon, err := time.LoadLocation("Europe/Lisbon")
	require.NoError(t, err)
	c := Clock{lisbon, utc("2026-10-27T12:00:00Z")}
	assert.Equal(t, 48*time.Hour, c.Day(utc("2026-10-26T10:00:00Z")).Sub(c.Day(utc("2026-10-24T10:00:00Z"))), "two days, though the night between was longer")
	assert.Equal(t, "2026-12-31T12:00:00+13:00", Clock{mustZone(t, "Pacific/Auckland"), utc("2027-01-05T00:00:00Z")}.Midday("2026-12-31").Format(time.RFC3339))
}

func mustZone(t *testing.T, name string) *time.Location {
	t.Helper()
	zone, err := time.LoadLocation(name)
	require.NoError(t, err)
	return zone
}

// What happened on the last day of a year in Auckland is of that year; a quote bears the studio's day, and the
// log its days.
func TestTheLastDayOfTheYearInAuckland(t *testing.T) {
	zone := mustZone(t, "Pacific/Auckland")
	use, set := clocked(t, "Pacific/Auckland", time.Date(2026, 12, 31, 20, 0, 0, 0, zone))
	owner := store.Person{ID: "odalys", Name: "Odalys", Role: store.Owner}
	items, err := use.Store.CreateItem(t.Context(), uuid.NewString(), store.ItemDraft{Item: supply.Item{
		Schema: supply.ItemSchema, Kind: "soft-loc", Name: "Driftline soft loc", Length: 457, Thickness: 9, Mass: 4.2, Fibre: supply.Synthetic, Currency: "USD", Pack: plan.Default().Pieces[0].Pack,
	}})
	require.NoError(t, err)
	in := plan.Default()
	in.Pieces[0] = items.Item.Piece(in.Pieces[0].Key, items.ID, "Peat")
	p, err := use.CreatePlan(t.Context(), "Odalys", uuid.NewString(), Draft{Title: "A head", Input: in})
	require.NoError(t, err)
	_, err = use.Ask(t.Context(), owner, p.ID, nil)
	require.NoError(t, err)
	quote, err := use.GiveQuote(t.Context(), owner, uuid.NewString(), p.ID, p.Version, sheet.Inches, "letter")
	require.NoError(t, err)
	assert.Equal(t, "2026-12-31", quote.Given.On)

	began := time.Date(2026, 12, 1, 9, 0, 0, 0, zone)
	i, err := use.StartInstall(t.Context(), owner, Start{ID: uuid.NewString(), PlanID: p.ID, At: began})
	require.NoError(t, err)
	events := []chair.Event{{ID: "the-first-one", N: 1, At: began.UnixMilli(), Hand: i.Brief.Hands[0].Key, Kind: chair.Began}}
	for _, task := range i.Brief.Tasks {
		events = append(events, chair.Event{ID: uuid.NewString(), N: len(events) + 1, At: began.Add(time.Hour).UnixMilli(), Hand: i.Brief.Hands[0].Key, Kind: chair.Done, Tasks: []string{task.Key}})
	}
	events = append(events, chair.Event{ID: "the-last-one", N: len(events) + 1, At: time.Date(2026, 12, 2, 0, 30, 0, 0, zone).UnixMilli(), Hand: i.Brief.Hands[0].Key, Kind: chair.Ended})
	_, err = use.Tell(t.Context(), owner, i.ID, 0, events)
	require.NoError(t, err)
	csv, err := use.LogFile(t.Context())
	require.NoError(t, err)
	assert.Contains(t, string(csv), "2026-12-02", "half past midnight by the studio's clock")
	assert.NotContains(t, string(csv), "2026-12-01")

	// Taken down on the last day of the year, told on the first of the next.
	set(time.Date(2027, 1, 1, 9, 0, 0, 0, zone))
	h, err := use.HeadOf(t.Context(), i.ID)
	require.NoError(t, err)
	assert.Equal(t, 30, h.Day)
	key := in.Pieces[0].Key
	_, err = use.PutWear(t.Context(), owner, i.ID, wear.Entry{ID: uuid.NewString(), On: "2026-12-31", Kind: wear.Down, Saved: []wear.Saved{{Piece: key, Good: 20}}})
	require.NoError(t, err)
	for year, saved := range map[int]int{2026: 20, 2027: 0} {
		y, err := use.YearOf(t.Context(), year)
		require.NoError(t, err)
		assert.Equal(t, saved, y.All.Saved, "%d", year)
	}
}
