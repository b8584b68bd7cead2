package studio

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/chair"
	"kladotex/core/wear"
	"kladotex/internal/store"
)

// worn is a head that was taken down after days, or is still worn where felt is empty.
func worn(title string, on string, days int, felt wear.Comfort, edges wear.Change) Head {
	day, err := time.Parse(time.DateOnly, on)
	if err != nil {
		panic(err)
	}
	h := Head{On: day, WornHead: store.WornHead{Logged: store.Logged{PlanID: "plan of " + title, Title: title, Log: chair.Log{
		Pieces: []chair.PieceLog{{Piece: chair.Piece{Key: "p1", Name: "Twist"}, Used: 98}}, Change: []string{"one", "two", "three", "four", "five"},
	}}}}
	h.Brief.Mass = 206
	h.State = &wear.State{Off: -1}
	if felt != "" {
		h.State.Off, h.State.Down = days, &wear.Entry{Day: days, On: h.Date(days), Felt: felt, Edges: edges}
	}
	return h
}

// What worked is told of the latest head that was taken down; where that was not comfortable, of the latest
// that was. When the next may follow goes by the latest in any case.
func TestWhatWorkedIsTheLatestComfortableHead(t *testing.T) {
	assert.Nil(t, WhatWorked(nil))
	still := worn("Still worn", "2026-11-01", 0, "", "")
	assert.Nil(t, WhatWorked([]Head{still}))

	good := worn("Spring", "2026-03-01", 42, wear.Comfortable, wear.Better)
	w := WhatWorked([]Head{still, good})
	require.NotNil(t, w)
	assert.Equal(t, "plan of Spring", w.PlanID)
	assert.Equal(t, "98 pieces, about 210 g in all, felt comfortable for 6 weeks.", w.Keep[0])
	assert.Equal(t, "The edges came out better than before.", w.Keep[1])
	assert.Equal(t, "No piece came loose.", w.Keep[2])
	assert.Len(t, w.Change, few)
	assert.Equal(t, "2026-04-19", w.Ready, "a week after six of wear")

	hurt := worn("Summer", "2026-06-01", 28, wear.Painful, wear.Worse)
	w = WhatWorked([]Head{hurt, good})
	assert.Equal(t, "Spring", w.Title)
	assert.Equal(t, "2026-07-27", w.Ready, "four weeks after the one that hurt")
	w = WhatWorked([]Head{hurt})
	assert.Contains(t, w.Change[0], "hurt: nothing as heavy or as tight again")
	assert.Contains(t, w.Change[1], "leave them out")
	assert.Empty(t, w.Keep[1:])
}

// Heads worn before are compared with by what hung and how it felt; one that nobody spoke of is left out.
func TestWornBeforeIsWhatWasFelt(t *testing.T) {
	before := wornBefore([]Head{worn("Still", "2026-11-01", 0, "", ""), worn("Tight", "2026-06-01", 28, wear.Tight, ""), worn("Good", "2026-03-01", 42, wear.Comfortable, "")})
	require.Len(t, before, 2)
	assert.Equal(t, "Tight", before[0].What)
	assert.False(t, before[0].Comfortable)
	assert.True(t, before[1].Comfortable)
	assert.InDelta(t, 206, before[1].Mass, 0)
	assert.Equal(t, "2026-03-01", before[1].On)
}

// Days are counted by the calendar, over the ends of months, leap days and changes of clocks.
func TestDaysAreCountedByTheCalendar(t *testing.T) {
	from := time.Date(2028, 2, 27, 0, 0, 0, 0, time.UTC)
	for on, want := range map[string]int{"2028-02-27": 0, "2028-02-29": 2, "2028-03-01": 3, "2028-04-02": 35, "2028-02-20": -7, "2029-02-27": 366} {
		days, err := dayAfter(from, on)
		require.NoError(t, err)
		assert.Equal(t, want, days, on)
		assert.Equal(t, on, (&Head{On: from}).Date(days))
	}
	_, err := dayAfter(from, "soon")
	require.Error(t, err)
}
