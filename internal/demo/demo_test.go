package demo

import (
	"context"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/advice"
	"kladotex/core/hair"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/tally"
	"kladotex/internal/calendar"
	"kladotex/internal/standin"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

func TestStudioIsFurnishedOnce(t *testing.T) {
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "demo.db"))
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	for range 2 {
		require.NoError(t, Furnish(t.Context(), s))
		plans, err := s.Plans(t.Context(), "", store.Page{Limit: 100})
		require.NoError(t, err)
		assert.Len(t, plans, len(Plans())+len(finished))
		clients, err := s.Clients(t.Context(), "", false, store.Page{Limit: 100})
		require.NoError(t, err)
		assert.Len(t, clients, 6)
		people, err := s.People(t.Context())
		require.NoError(t, err)
		assert.Len(t, people, 3)
	}
}

// A studio of one's own is never opened to anyone.
func TestOnlyTheDemoIsFurnished(t *testing.T) {
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "mine.db"))
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	_, err = s.AddOwner(t.Context(), "Odalys", "hash")
	require.NoError(t, err)
	assert.ErrorIs(t, Furnish(t.Context(), s), ErrNotTheDemo)
	assert.False(t, s.Facts().Demo)
	people, err := s.People(t.Context())
	require.NoError(t, err)
	assert.Len(t, people, 1)
}

// Every demo plan uses a method that suits its piece, and every line of the price
// list can be planned with.
func TestDemoPlansAndPriceListWork(t *testing.T) {
	for _, p := range Plans() {
		res, err := tally.Compute(context.Background(), p.Input)
		require.NoError(t, err, p.Title)
		for _, n := range res.Notices {
			assert.NotContains(t, []advice.Code{
				advice.WrongForm, advice.ShortHair, advice.LongPlait, advice.FatPlait, advice.ThinPlait, advice.TooHeavy, advice.FewNecks, advice.EmptyUse,
			}, n.Code, p.Title)
		}
		assert.True(t, res.Tally.Weight >= 150 && res.Tally.Weight <= 620, "%s weighs %.0f g", p.Title, res.Tally.Weight)
	}
	for name, facts := range Clients() {
		assert.NoError(t, facts.Check(), name)
	}
	for _, piece := range standin.PriceList() {
		in := plan.Default()
		in.Pieces, in.Uses[0].Piece, in.Fill.Piece = []hair.Piece{piece}, piece.Key, piece.Key
		_, err := tally.Compute(context.Background(), in)
		assert.NoError(t, err, piece.Name)
	}
}

// The demo shows most structures, each on some other head, and none with a warning of
// cornrows too fat or too thin.
func TestDemoShowsTheStructures(t *testing.T) {
	structures, heads := map[parting.Structure]bool{}, map[string]bool{}
	for _, p := range Plans() {
		structures[p.Input.Parting.Structure] = true
		heads[p.Client] = true
		res, err := tally.Compute(context.Background(), p.Input)
		require.NoError(t, err, p.Title)
		for _, n := range res.Notices {
			assert.NotContains(t, []advice.Code{advice.FatCornrow, advice.ThinCornrow}, n.Code, p.Title)
		}
		assert.Empty(t, res.Layout.Rejected, p.Title)
	}
	assert.GreaterOrEqual(t, len(structures), 8)
	assert.Len(t, heads, 6)
}

// There is always a sitting today, some are booked ahead, nobody is booked twice at once, and the
// days end at a decent hour.
func TestTheDemoHasACalendar(t *testing.T) {
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "demo.db"))
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	require.NoError(t, Furnish(t.Context(), s))
	today := time.Now().Format(time.DateOnly)
	list, err := s.Bookings(t.Context(), today, time.Now().AddDate(0, 0, 40).Format(time.DateOnly))
	require.NoError(t, err)
	require.Len(t, list, len(booked))
	use, err := studio.Open(t.Context(), s, standin.World())
	require.NoError(t, err)
	now := false
	for _, b := range list {
		for _, sitting := range b.Entry.Sittings {
			now = now || sitting.On == today
			when, err := sitting.When(time.Local)
			require.NoError(t, err)
			assert.Less(t, when.End.Hour(), 23, b.Entry.Title)
			assert.Equal(t, when.Start.Day(), when.End.Day(), b.Entry.Title)
		}
		p, err := s.Plan(t.Context(), b.PlanID)
		require.NoError(t, err)
		clashes, err := use.Clashes(t.Context(), p.ID, p.Input)
		require.NoError(t, err)
		for _, c := range clashes {
			assert.NotContains(t, []calendar.ClashKind{calendar.ChairTaken, calendar.PersonBusy}, c.Kind, "%s: %s", p.Title, c.Says)
		}
	}
	assert.True(t, now, "a sitting today")
}

// One install is half done at the chair, with something missed; a dozen are in the log, and the log
// has found out how fast people really are.
func TestTheDemoHasAChairAndALog(t *testing.T) {
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "demo.db"))
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	require.NoError(t, Furnish(t.Context(), s))
	use, err := studio.Open(t.Context(), s, standin.World())
	require.NoError(t, err)
	at, err := use.AtChair(t.Context())
	require.NoError(t, err)
	require.Len(t, at, 1)
	w := at[0].View.Watch
	assert.InDelta(t, 0.6, float64(w.Done)/float64(w.Of), 0.1)
	assert.True(t, at[0].View.Working)
	require.Len(t, w.Missed, 1)
	require.Len(t, w.Missed[0].Tasks, 1)
	log, err := use.Store.Log(t.Context(), store.Page{Limit: 50})
	require.NoError(t, err)
	require.Len(t, log, len(finished))
	for _, l := range log {
		for _, st := range l.Log.Stages {
			assert.GreaterOrEqual(t, 10*st.Timed, 9*st.Tasks, "%s: %s", l.Title, st.Name)
		}
		assert.NotZero(t, l.Log.Pieces[0].Used, l.Title)
	}
	paces, err := use.Paces(t.Context())
	require.NoError(t, err)
	checked := 0
	for _, p := range paces {
		for _, skill := range p.Skills {
			truth, known := paceOf[p.Person.Name][skill.Skill]
			minutes := 0.0
			for _, l := range skill.Lines {
				minutes += l.Actual
			}
			if known && minutes > 180 {
				checked++
				assert.InEpsilon(t, truth*p.Person.Hand.Factor(), skill.Factor, 0.1, "%s at %s", p.Person.Name, skill.Name)
			}
		}
	}
	assert.GreaterOrEqual(t, checked, 4)
}
