package store

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/message"
	"kladotex/core/pace"
	"kladotex/core/plan"
	"kladotex/internal/calendar"
)

// fresh is a new studio.
func fresh(t *testing.T) *Store {
	t.Helper()
	return opened(t, filepath.Join(t.TempDir(), "studio.db"))
}

// planned is the id of a plan that was stored.
func planned(t *testing.T, s *Store) string {
	t.Helper()
	p, err := s.CreatePlan(t.Context(), uuid.NewString(), draft(t, "The cellist", "Odalys", plan.Default()))
	require.NoError(t, err)
	return p.ID
}

// draftOn is a booking of a plan on some days.
func draftOn(planID string, days ...string) BookingDraft {
	b := calendar.Booking{Schema: calendar.Schema, Title: "Plan", Errands: []calendar.Errand{{On: "2027-03-01", Title: "Wash"}}}
	for _, d := range days {
		b.Sittings = append(b.Sittings, calendar.Sitting{On: d, At: "09:00", Minutes: 120, People: []string{}, Names: []string{}})
	}
	return BookingDraft{PlanID: planID, Entry: b, Record: Record{Input: []byte("{}"), Places: []byte("{}"), Engine: plan.Engine}, By: "Odalys"}
}

// One booking of a plan stands; days find what is on them and what leads up to them; a plan that
// goes leaves its booking, and what was cancelled stays off.
func TestBookings(t *testing.T) {
	t.Parallel()
	s := fresh(t)
	p := planned(t, s)
	first, err := s.Book(t.Context(), "b1", draftOn(p, "2027-03-27", "2027-04-02"))
	require.NoError(t, err)
	again, err := s.Book(t.Context(), "b1", draftOn(p, "2027-05-01"))
	require.NoError(t, err)
	assert.Equal(t, first, again, "a repeated request changes nothing")
	on := func(from, to string) int {
		list, err := s.Bookings(t.Context(), from, to)
		require.NoError(t, err)
		return len(list)
	}
	assert.Equal(t, 1, on("2027-02-01", "2027-03-01"), "the errand before it")
	assert.Equal(t, 0, on("2027-02-01", "2027-02-28"))
	assert.Equal(t, 1, on("2027-04-02", "2027-04-02"))
	assert.Equal(t, 0, on("2027-04-03", "2027-12-31"))
	later := draftOn(p, "2027-06-01")
	later.Entry.Errands = nil
	second, err := s.Book(t.Context(), "b2", later)
	require.NoError(t, err)
	stands, err := s.BookingOf(t.Context(), p)
	require.NoError(t, err)
	assert.Equal(t, second.ID, stands.ID)
	assert.Equal(t, 0, on("2027-04-01", "2027-04-30"), "the earlier one gave way")
	require.NoError(t, s.DeletePlan(t.Context(), p))
	assert.Equal(t, 1, on("2027-06-01", "2027-06-01"))
	require.NoError(t, s.CancelBooking(t.Context(), "b2"))
	require.NoError(t, s.CancelBooking(t.Context(), "b2"))
	assert.Equal(t, 0, on("2027-06-01", "2027-06-01"))
	assert.ErrorIs(t, s.CancelBooking(t.Context(), "b9"), ErrNotFound)
	_, err = s.BookingOf(t.Context(), p)
	assert.ErrorIs(t, err, ErrNotFound)
}

// Times read in for a person take the place of those before, reach into the time asked for in
// part, and go with the person.
func TestBusyTimes(t *testing.T) {
	t.Parallel()
	s := fresh(t)
	owner, err := s.AddOwner(t.Context(), "Odalys", "hash")
	require.NoError(t, err)
	other, err := s.AddPerson(t.Context(), "Ikaika", Apprentice, "hash")
	require.NoError(t, err)
	day := time.Date(2027, 3, 20, 0, 0, 0, 0, time.UTC)
	at := func(hour int) time.Time { return day.Add(time.Duration(hour) * time.Hour) }
	require.NoError(t, s.SetBusy(t.Context(), owner.ID, []BusyTime{{Title: "Old", Start: at(9), End: at(10)}}))
	require.NoError(t, s.SetBusy(t.Context(), owner.ID, []BusyTime{{Title: "Choir", Start: at(9), End: at(12)}, {Title: "Late", Start: at(20), End: at(22)}}))
	require.NoError(t, s.SetBusy(t.Context(), other.ID, []BusyTime{{Title: "School", Start: at(8), End: at(9)}}))
	busy := func(from, to int) (titles []string) {
		list, err := s.BusyTimes(t.Context(), at(from), at(to))
		require.NoError(t, err)
		for _, b := range list {
			titles = append(titles, b.Title)
		}
		return titles
	}
	assert.Equal(t, []string{"School", "Choir", "Late"}, busy(0, 24))
	assert.Equal(t, []string{"Choir"}, busy(11, 20))
	assert.Empty(t, busy(12, 20), "what only touches does not reach in")
	require.NoError(t, s.RemovePerson(t.Context(), other.ID))
	assert.Equal(t, []string{"Choir", "Late"}, busy(0, 24))
}

func TestMessagesFeedAndPaceAreKept(t *testing.T) {
	t.Parallel()
	s := fresh(t)
	p := planned(t, s)
	words := message.Template{Subject: "On Saturday", Body: "Until nine."}
	m, err := s.KeepMessage(t.Context(), Message{ID: "m1", PlanID: p, Kind: message.Reminder, To: "Juno", Words: words, By: "Odalys"})
	require.NoError(t, err)
	again, err := s.KeepMessage(t.Context(), Message{ID: "m1", PlanID: p, Kind: message.Reminder, To: "Juno", Words: words, By: "Odalys"})
	require.NoError(t, err)
	assert.Equal(t, m, again)
	_, err = s.KeepMessage(t.Context(), Message{ID: "m1", PlanID: p, Kind: message.Care, To: "Juno", Words: words, By: "Odalys"})
	assert.ErrorIs(t, err, ErrStale, "another message under a used id")
	list, err := s.Messages(t.Context(), p)
	require.NoError(t, err)
	assert.Equal(t, []Message{m}, list)

	who, err := s.AddOwner(t.Context(), "Odalys", "hash")
	require.NoError(t, err)
	other, err := s.AddPerson(t.Context(), "Tamsin", Stylist, "hash")
	require.NoError(t, err)
	secret, err := s.FeedSecret(t.Context(), who.ID)
	require.NoError(t, err)
	assert.Empty(t, secret)
	for person, secret := range map[string]string{who.ID: "abc", other.ID: "def"} {
		require.NoError(t, s.SetFeedSecret(t.Context(), person, secret))
	}
	follows, err := s.FeedOwner(t.Context(), "def")
	require.NoError(t, err)
	assert.Equal(t, other.ID, follows.ID)
	require.NoError(t, s.RemovePerson(t.Context(), other.ID))
	_, err = s.FeedOwner(t.Context(), "def")
	assert.ErrorIs(t, err, ErrNotFound, "the address of a colleague goes with them")
	_, err = s.FeedOwner(t.Context(), "abc")
	require.NoError(t, err)

	assert.Equal(t, pace.Practised, who.Hand)
	who, err = s.SetPace(t.Context(), who.ID, pace.Beginner, 1.4)
	require.NoError(t, err)
	read, err := s.Person(t.Context(), who.ID)
	require.NoError(t, err)
	assert.Equal(t, who, read)
	assert.Equal(t, 1.4, read.OwnHead)
}
