package store

import (
	"fmt"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/chair"
	"kladotex/core/plan"
)

// startOf is an install of a plan.
func startOf(t *testing.T, planID string) InstallDraft {
	t.Helper()
	at, err := plan.ChairOf(t.Context(), plan.Default())
	require.NoError(t, err)
	return InstallDraft{
		PlanID: planID, Brief: at.Brief, Frozen: Frozen{How: at.How, Head: []byte(`{"drawn":true}`)},
		Input: []byte("{}"), Places: []byte("{}"), Engine: plan.Engine, By: "Odalys", PlanSheet: []byte("%PDF-1"),
	}
}

func someEvents(from, n int) (out []chair.Event) {
	for i := range n {
		out = append(out, chair.Event{ID: fmt.Sprintf("event-%06d", from+i), N: from + i + 1, At: int64(from + i), Hand: "first", Kind: chair.Noted, Text: "note"})
	}
	return out
}

// A plan is at the chair once, stays as it was there, and its install outlives it.
func TestAPlanIsAtTheChairOnce(t *testing.T) {
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
	s := fresh(t)
	_, err := s.StartInstall(t.Context(), "one", startOf(t, planned(t, s)))
	require.NoError(t, err)
	require.NoError(t, s.Tell(t.Context(), "one", "odalys", someEvents(0, 5)))
	first, err := s.Told(t.Context(), "one", 0)
	require.NoError(t, err)
	assert.Equal(t, someEvents(0, 5), first.Events)
	require.NoError(t, s.Tell(t.Context(), "one", "tamsin", someEvents(3, 4)), "two of them are there")
	next, err := s.Told(t.Context(), "one", first.Cursor)
	require.NoError(t, err)
	assert.Equal(t, someEvents(5, 2), next.Events)
	assert.Equal(t, 7, next.Known)
	none, err := s.Told(t.Context(), "one", next.Cursor)
	require.NoError(t, err)
	assert.Empty(t, none.Events)
	assert.Equal(t, next.Cursor, none.Cursor)
	assert.ErrorIs(t, s.Tell(t.Context(), "none", "odalys", someEvents(0, 1)), ErrNotFound)
	assert.ErrorIs(t, s.KeepPhoto(t.Context(), "none", "photo", []byte("x"), "Odalys"), ErrNotFound)
}

// The end of an install takes what was spent out of the stash, says what the stash never held, and done
// again it takes only what came since.
func TestTheEndTakesWhatWasSpent(t *testing.T) {
	s, item, lot := stocked(t, 2)
	id := planned(t, s)
	require.NoError(t, s.Hold(t.Context(), id, true, []Claim{{Key: "p1", Item: item.ID, Colour: "Peat", Pieces: 30}}))
	i, err := s.StartInstall(t.Context(), "one", startOf(t, id))
	require.NoError(t, err)
	left := func() int {
		lots, err := s.Stash(t.Context(), StashWish{Empty: true}, all)
		require.NoError(t, err)
		require.Len(t, lots, 1)
		require.Equal(t, lot.ID, lots[0].ID)
		return lots[0].Pieces(20)
	}
	end := func(used, spoilt int) []Booked {
		spent := []Spent{{Claim: Claim{Key: "p1", Item: item.ID, Colour: "Peat", Pieces: used + spoilt}, Name: "Driftline", Used: used, Spoilt: spoilt}}
		require.NoError(t, s.CloseInstall(t.Context(), i, time.UnixMilli(5000), chair.Log{Planned: 60, Evidence: []chair.Evidence{
			{Person: "nobody", Skill: "plaits", Actual: 60, Rate: 50},
		}}, spent, "Odalys"))
		l, err := s.LogOf(t.Context(), "one")
		require.NoError(t, err)
		assert.InDelta(t, 60, l.Log.Planned, 0)
		return l.Stash
	}
	assert.Equal(t, []Booked{{Piece: "Driftline", Used: 28, Spoilt: 2}}, end(28, 2))
	assert.Equal(t, 10, left())
	assert.Equal(t, []Booked{{Piece: "Driftline", Used: 28, Spoilt: 2}}, end(28, 2), "nothing came since")
	assert.Equal(t, 10, left())
	assert.Equal(t, []Booked{{Piece: "Driftline", Used: 38, Spoilt: 2, Beyond: 4}}, end(42, 2), "it held ten more, not fourteen")
	assert.Equal(t, 0, left())
	lines, err := s.PaceLines(t.Context())
	require.NoError(t, err)
	assert.Empty(t, lines, "of somebody who is not of the studio nothing is kept")

	require.NoError(t, s.ReopenInstall(t.Context(), "one"))
	_, err = s.LogOf(t.Context(), "one")
	assert.ErrorIs(t, err, ErrNotFound)
	going, err := s.AtChair(t.Context())
	require.NoError(t, err)
	assert.Len(t, going, 1)
}

// The log comes in pages, the latest first, and pace goes with the person it is about.
func TestTheLogInPages(t *testing.T) {
	s := fresh(t)
	owner, err := s.AddOwner(t.Context(), "Odalys", "hash")
	require.NoError(t, err)
	other, err := s.AddPerson(t.Context(), "Tamsin", Stylist, "hash")
	require.NoError(t, err)
	for k := range 5 {
		i, err := s.StartInstall(t.Context(), fmt.Sprintf("install-%d", k), startOf(t, planned(t, s)))
		require.NoError(t, err)
		who := []Person{owner, other}[k%2]
		require.NoError(t, s.CloseInstall(t.Context(), i, time.Unix(int64(k), 0), chair.Log{Evidence: []chair.Evidence{
			{Person: who.ID, Skill: "plaits", Actual: 60, Rate: 50, Own: k == 4},
		}}, nil, "Odalys"))
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
