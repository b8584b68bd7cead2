package store

import (
	"fmt"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/chair"
	"kladotex/core/freeze"
	"kladotex/core/plan"
)

// startOf is an install of a plan.
func startOf(t *testing.T, planID string) InstallDraft {
	t.Helper()
	sol, err := plan.Solve(t.Context(), plan.Default())
	require.NoError(t, err)
	at, err := freeze.ForChair(sol)
	require.NoError(t, err)
	return InstallDraft{
		PlanID: planID, Brief: at.Brief, Frozen: Frozen{How: at.How, Head: []byte(`{"drawn":true}`)},
		Record: Record{Input: []byte("{}"), Places: []byte("{}"), Engine: plan.Engine}, By: "Odalys", PlanSheet: []byte("%PDF-1"),
	}
}

func someEvents(began time.Time, from, n int) (out []chair.Event) {
	for i := range n {
		out = append(out, chair.Event{ID: fmt.Sprintf("event-%06d", from+i), N: from + i + 1, At: began.UnixMilli() + int64(from+i), Hand: "first", Kind: chair.Noted, Text: "note"})
	}
	return out
}

// A plan is at the chair once, stays as it was there, and its install outlives it.
func TestAPlanIsAtTheChairOnce(t *testing.T) {
	t.Parallel()
	s := fresh(t)
	id := planned(t, s)
	first, err := s.StartInstall(t.Context(), "one", startOf(t, id))
	require.NoError(t, err)
	again, err := s.StartInstall(t.Context(), "two", startOf(t, id))
	require.NoError(t, err)
	assert.Equal(t, first, again, "another device finds the one that is there")
	assert.True(t, first.Papers)
	frozen, err := s.Frozen(t.Context(), "one")
	require.NoError(t, err)
	assert.JSONEq(t, `{"drawn":true}`, string(frozen.Head))
	assert.NotEmpty(t, frozen.How.Work)
	_, err = s.InstallFile(t.Context(), "one", PlanSheet)
	require.NoError(t, err)
	_, err = s.InstallFile(t.Context(), "one", DaySheet)
	assert.ErrorIs(t, err, ErrNotFound, "it was given none")

	p, err := s.Plan(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, "one", p.InstallID)
	changed := draft(t, "Another name", "Odalys", plan.Default())
	_, err = s.SavePlan(t.Context(), id, p.Version, changed)
	assert.ErrorIs(t, err, ErrAtChair)
	same, err := s.SavePlan(t.Context(), id, p.Version, draft(t, "The cellist", "Odalys", plan.Default()))
	require.NoError(t, err)
	assert.Equal(t, p.Version, same.Version)

	require.NoError(t, s.DeletePlan(t.Context(), id))
	left, err := s.Install(t.Context(), "one")
	require.NoError(t, err)
	assert.Empty(t, left.PlanID)
	assert.Equal(t, first.Brief, left.Brief)
}

// What was told is there once, in the order of arrival, and is read on from a cursor.
func TestWhatWasToldIsReadOn(t *testing.T) {
	t.Parallel()
	s := fresh(t)
	_, err := s.StartInstall(t.Context(), "one", startOf(t, planned(t, s)))
	require.NoError(t, err)
	began, err := s.Install(t.Context(), "one")
	require.NoError(t, err)
	someEvents := func(from, n int) []chair.Event { return someEvents(began.Started, from, n) }
	tell := func(install string, events []chair.Event, most int) error {
		return s.Tell(t.Context(), install, Telling{Person: "odalys", Events: events, Most: most})
	}
	require.NoError(t, tell("one", someEvents(0, 5), 7))
	first, err := s.Received(t.Context(), "one", 0)
	require.NoError(t, err)
	assert.Equal(t, someEvents(0, 5), first.Events)
	require.NoError(t, tell("one", someEvents(3, 4), 7), "two of them are there")
	next, err := s.Received(t.Context(), "one", first.Cursor)
	require.NoError(t, err)
	assert.Equal(t, someEvents(5, 2), next.Events)
	assert.Equal(t, 7, next.Known)
	none, err := s.Received(t.Context(), "one", next.Cursor)
	require.NoError(t, err)
	assert.Empty(t, none.Events)
	assert.Equal(t, next.Cursor, none.Cursor)
	assert.ErrorIs(t, tell("none", someEvents(0, 1), 7), ErrNotFound)
	assert.ErrorIs(t, tell("one", someEvents(7, 1), 7), ErrTooMany)
	require.NoError(t, tell("one", someEvents(0, 7), 7), "none of them is new")
	assert.ErrorIs(t, s.KeepPhoto(t.Context(), "none", "photo", []byte("x"), "Odalys"), ErrNotFound)
}

// The log comes in pages, the latest first, and pace goes with the person it is about.
func TestTheLogInPages(t *testing.T) {
	t.Parallel()
	s := fresh(t)
	owner, err := s.AddOwner(t.Context(), "Odalys", "hash")
	require.NoError(t, err)
	other, err := s.AddPerson(t.Context(), "Tamsin", Stylist, "hash")
	require.NoError(t, err)
	for k := range 5 {
		i, err := s.StartInstall(t.Context(), fmt.Sprintf("install-%d", k), startOf(t, planned(t, s)))
		require.NoError(t, err)
		who := []Person{owner, other}[k%2]
		ended(t, s, i.ID, Settlement{Over: true, At: time.Unix(int64(k), 0), Log: chair.Log{Evidence: []chair.Evidence{
			{Person: who.ID, Skill: "plaits", Actual: 60, Rate: 50, Own: k == 4}, {Person: "nobody of the studio", Skill: "plaits", Actual: 60, Rate: 50},
		}}})
	}
	var seen []string
	for page := (Page{Limit: 2}); ; {
		list, err := s.Log(t.Context(), page)
		require.NoError(t, err)
		for _, l := range list {
			seen = append(seen, l.ID)
		}
		if len(list) < page.Limit {
			break
		}
		page.After = list[len(list)-1].Cursor()
	}
	assert.Equal(t, []string{"install-4", "install-3", "install-2", "install-1", "install-0"}, seen)
	lines, err := s.PaceLines(t.Context())
	require.NoError(t, err)
	require.Len(t, lines, 5)
	assert.True(t, lines[4].Own)
	require.NoError(t, s.RemovePerson(t.Context(), other.ID))
	lines, err = s.PaceLines(t.Context())
	require.NoError(t, err)
	assert.Len(t, lines, 3)
}

// Pictures are kept once, under the id of the device, and are gone when they are deleted.
func TestPicturesOfAnInstall(t *testing.T) {
	t.Parallel()
	s := fresh(t)
	_, err := s.StartInstall(t.Context(), "one", startOf(t, planned(t, s)))
	require.NoError(t, err)
	id := uuid.NewString()
	require.NoError(t, s.KeepPhoto(t.Context(), "one", id, []byte("first"), "Odalys"))
	require.NoError(t, s.KeepPhoto(t.Context(), "one", id, []byte("second"), "Odalys"))
	kept, err := s.Photo(t.Context(), "one", id)
	require.NoError(t, err)
	assert.Equal(t, "first", string(kept))
	_, err = s.Photo(t.Context(), "another", id)
	assert.ErrorIs(t, err, ErrNotFound)
	require.NoError(t, s.DropPhoto(t.Context(), "one", id))
	_, err = s.Photo(t.Context(), "one", id)
	assert.ErrorIs(t, err, ErrNotFound)
}
