package store

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/chair"
	"kladotex/core/invalid"
	"kladotex/core/supply"
	"kladotex/core/wear"
)

// hungHead is a finished install whose sixty pieces came out of a lot of eighty.
func hungHead(t *testing.T) (s *Store, item Item, lot Lot, w WornHead) {
	t.Helper()
	s, item, lot = stocked(t, 4)
	i, err := s.StartInstall(t.Context(), uuid.NewString(), startOf(t, planned(t, s)))
	require.NoError(t, err)
	bill := []Bill{{Claim: Claim{Key: "p1", Item: item.ID, Colour: "Peat", Pieces: 60}, Name: "Driftline", Used: 60}}
	log := chair.Log{Pieces: []chair.PieceLog{{Piece: chair.Piece{Key: "p1", Item: item.ID, Name: "Driftline", Colour: "Peat"}, Used: 60}}}
	ended(t, s, i.ID, Settlement{Over: true, At: time.Now().AddDate(0, 0, -40), Log: log, Bill: bill})
	w, err = s.WornHead(t.Context(), i.ID)
	require.NoError(t, err)
	return s, item, lot, w
}

// lying is what lies of every round.
func lying(t *testing.T, s *Store) map[int]int {
	t.Helper()
	lots, err := s.Stash(t.Context(), StashWish{Empty: true}, all)
	require.NoError(t, err)
	out := map[int]int{}
	for _, l := range lots {
		out[l.Round] += l.Pieces(l.Pack)
	}
	return out
}

// Entries told, told again, put right and taken back in any order leave the stash as the last word on each
// of them has it; the ledger closes all the while.
func TestEntriesMoveTheStashOnce(t *testing.T) {
	t.Parallel()
	s, item, _, w := hungHead(t)
	random := rand.New(rand.NewPCG(16, 60))
	type said struct{ take, good, worn int }
	last := map[string]said{}
	for step := range 60 {
		id := fmt.Sprintf("entry-%04d", random.IntN(5))
		if random.IntN(4) == 0 {
			// What a repair took of pieces that came back has to be put right before they did not.
			if err := s.DropEntry(t.Context(), w.ID, id, "Odalys"); invalid.From(err) == nil {
				require.NoError(t, err)
				delete(last, id)
			}
		} else {
			now := said{random.IntN(3), random.IntN(6), random.IntN(3)}
			e := wear.Entry{ID: id, On: time.Now().Format(time.DateOnly), Day: 40, Kind: wear.Replaced, Piece: "p1", Count: now.take, Text: fmt.Sprint(now), By: "Odalys"}
			moves := []Moving{{Key: "p1", Item: item.ID, Colour: "Peat", Take: now.take, Good: now.good, Worn: now.worn}}
			kept := true
			for range 1 + random.IntN(2) {
				err := s.PutEntry(t.Context(), w, e, Writer{Deletes: true}, time.Now(), moves)
				if kept = invalid.From(err) == nil; kept {
					require.NoError(t, err)
				}
			}
			if kept {
				last[id] = now
			}
		}
		taken, back := 0, 0
		for _, x := range last {
			taken, back = taken+x.take, back+x.good+x.worn
		}
		now := lying(t, s)
		require.Equal(t, 80-60+back-taken, now[0]+now[1]+now[2], "step %d", step)
		books, err := s.Ledger(t.Context(), time.Now().AddDate(-1, 0, 0), time.Now().AddDate(0, 0, 1))
		require.NoError(t, err)
		for _, b := range books {
			require.True(t, supply.AccountOf(b.Lot.Stocked.Lot, b.Lines).Closes(), "step %d", step)
		}
	}
	entries, err := readEntries(t.Context(), s.read, w.ID)
	require.NoError(t, err)
	assert.Len(t, entries, len(last))
}

// What came back is a round older, bears its condition and who wore it, costs what its lot cost, and
// another round makes it older still.
func TestSavedPiecesBearTheirRound(t *testing.T) {
	t.Parallel()
	s, item, _, w := hungHead(t)
	today := time.Now().Format(time.DateOnly)
	moves := []Moving{{Key: "p1", Item: item.ID, Colour: "Peat", Good: 40, Worn: 6}}
	down := wear.Entry{ID: "down-123456", On: today, Day: 40, Kind: wear.Down, By: "Odalys"}
	require.NoError(t, s.PutEntry(t.Context(), w, down, Writer{Deletes: true}, time.Now(), moves))
	back, err := s.BackOf(t.Context(), w.ID, []wear.Entry{down})
	require.NoError(t, err)
	assert.ElementsMatch(t, []Back{
		{item.ID, "Driftline soft loc, 18 in", 40, 1, supply.Good}, {item.ID, "Driftline soft loc, 18 in", 6, 1, supply.Worn},
	}, back)
	worn, err := s.WornHeads(t.Context(), time.Now().AddDate(-1, 0, 0))
	require.NoError(t, err)
	assert.Empty(t, worn, "it is down")
	books, err := s.Ledger(t.Context(), time.Now().AddDate(-1, 0, 0), time.Now().AddDate(0, 0, 1))
	require.NoError(t, err)
	for _, b := range books {
		assert.InDelta(t, 62.5, b.Price, 1e-9, "a pack of 20 for 12.50")
	}

	// Hung once more, worn ones first, and saved again.
	i, err := s.StartInstall(t.Context(), uuid.NewString(), startOf(t, planned(t, s)))
	require.NoError(t, err)
	ended(t, s, i.ID, Settlement{Over: true, At: time.Now(), Bill: []Bill{{Claim: Claim{Key: "p1", Item: item.ID, Colour: "Peat", Pieces: 50, Reuse: true}, Name: "Driftline", Used: 50}}})
	assert.Equal(t, map[int]int{0: 16, 1: 0}, lying(t, s))
	again, err := s.WornHead(t.Context(), i.ID)
	require.NoError(t, err)
	require.NoError(t, s.PutEntry(t.Context(), again, wear.Entry{ID: "down-654321", On: today, Kind: wear.Down}, Writer{Deletes: true}, time.Now(), []Moving{{Key: "p1", Item: item.ID, Colour: "Peat", Good: 48}}))
	assert.Equal(t, map[int]int{0: 16, 1: 4, 2: 44}, lying(t, s), "the new ones among them came back first")
}

// A ledger looks at a time: what came before it is there at its beginning.
func TestTheLedgerLooksAtATime(t *testing.T) {
	t.Parallel()
	s, _, lot := stocked(t, 3)
	lastYear := time.Now().AddDate(-1, 0, 0)
	_, err := s.Move(t.Context(), lot.ID, MoveDraft{ID: "old-bought", Kind: supply.Bought, Stock: supply.Stock{Packs: 2}, By: "Odalys", At: lastYear})
	require.NoError(t, err)
	account := func(from, to time.Time) supply.Account {
		books, err := s.Ledger(t.Context(), from, to)
		require.NoError(t, err)
		require.Len(t, books, 1)
		return supply.AccountOf(books[0].Lot.Stocked.Lot, books[0].Lines)
	}
	month := time.Now().AddDate(0, -1, 0)
	assert.Equal(t, supply.Account{Opening: 40, Bought: 60, LeftNew: 100}, account(month, time.Now().Add(time.Hour)))
	assert.Equal(t, supply.Account{Bought: 40, LeftNew: 40}, account(lastYear.AddDate(0, -1, 0), month))
}

// An address opens one head until its day, the one before it none, and both go with the head.
func TestCareLinks(t *testing.T) {
	t.Parallel()
	s, _, _, w := hungHead(t)
	open := func(secret, day string) string {
		id, err := s.ByCareSecret(t.Context(), secret, day)
		if err != nil {
			require.ErrorIs(t, err, ErrNotFound)
		}
		return id
	}
	require.NoError(t, s.SetCareLink(t.Context(), w.ID, CareLink{"FIRST", "2027-01-10", "Odalys"}))
	assert.Equal(t, w.ID, open("FIRST", "2027-01-10"))
	assert.Empty(t, open("FIRST", "2027-01-11"))
	assert.Empty(t, open("first", "2027-01-10"))
	assert.Empty(t, open("", "2027-01-10"))
	require.NoError(t, s.SetCareLink(t.Context(), w.ID, CareLink{"SECOND", "2027-01-10", "Odalys"}))
	assert.Empty(t, open("FIRST", "2027-01-10"))
	assert.Equal(t, w.ID, open("SECOND", "2027-01-10"))
	require.ErrorIs(t, s.SetCareLink(t.Context(), "nowhere", CareLink{"THIRD", "2027-01-10", "Odalys"}), ErrNotFound)
	require.NoError(t, s.DropCareLink(t.Context(), w.ID))
	assert.Empty(t, open("SECOND", "2027-01-10"))
	require.NoError(t, s.SetCareLink(t.Context(), w.ID, CareLink{"FOURTH", "2027-01-10", "Odalys"}))
	require.NoError(t, s.DeleteInstall(t.Context(), w.ID))
	assert.Empty(t, open("FOURTH", "2027-01-10"))
	require.ErrorIs(t, s.DeleteInstall(t.Context(), w.ID), ErrNotFound)
}
