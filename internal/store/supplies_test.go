package store

import (
	"errors"
	"fmt"
	"path/filepath"
	"sync"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/plan"
	"kladotex/core/supply"
)

func someItem(name string) supply.Item {
	return supply.Item{
		Schema: supply.ItemSchema, Kind: "soft-loc", Name: name, Line: "Driftline", Length: 457.2, Thickness: 9, Mass: 4.2, Fibre: supply.Synthetic,
		Currency: "USD", Pack: hair.Pack{Units: 20, Cuts: 1, Splits: 1}, Colours: []supply.Colour{{Name: "Peat", Swatch: "#2f2119"}},
		Offers: []hair.Offer{{Packs: 1, Price: 1250}}, Articles: []supply.Article{},
	}
}

// stocked is a studio with an item and a lot of packs of 20 of it.
func stocked(t *testing.T, packs int) (s *Store, item Item, lot Lot) {
	t.Helper()
	s = opened(t, filepath.Join(t.TempDir(), "studio.db"))
	item, err := s.CreateItem(t.Context(), uuid.NewString(), ItemDraft{Item: someItem("Driftline soft loc, 18 in")})
	require.NoError(t, err)
	lot, err = s.AddLot(t.Context(), LotDraft{ID: uuid.NewString(), Item: item.ID, Lot: supply.Lot{Colour: "Peat", Pack: 20, Condition: supply.New}},
		MoveDraft{ID: uuid.NewString(), Kind: supply.Bought, Stock: supply.Stock{Packs: packs}, By: "Odalys"})
	require.NoError(t, err)
	return s, item, lot
}

// Two people take pieces at once, each some moves twice over a bad line: every move counts once,
// and nothing is lost or made.
func TestTwoPeopleMoveAtOnce(t *testing.T) {
	t.Parallel()
	s, _, lot := stocked(t, 20)
	var wait sync.WaitGroup
	for who := range 2 {
		wait.Go(func() {
			for n := range 50 {
				d := MoveDraft{ID: fmt.Sprintf("%d-%d", who, n), Kind: supply.Used, Stock: supply.Stock{Loose: 3}, By: fmt.Sprint(who)}
				for range 1 + n%2 {
					_, err := s.Move(t.Context(), lot.ID, d)
					assert.NoError(t, err)
				}
			}
		})
	}
	wait.Wait()
	lots, err := s.Stash(t.Context(), StashWish{}, all)
	require.NoError(t, err)
	require.Len(t, lots, 1)
	assert.Equal(t, 400-2*50*3, lots[0].Pieces(20))
	moves, err := s.StashMoves(t.Context(), lot.ID)
	require.NoError(t, err)
	sum := 0
	for _, m := range moves {
		sum += m.Packs*20 + m.Pieces
	}
	assert.Equal(t, lots[0].Pieces(20), sum)
	_, err = s.Move(t.Context(), lot.ID, MoveDraft{ID: "x", Kind: supply.Used, Stock: supply.Stock{Loose: 101}})
	assert.NotEmpty(t, invalid.From(err), "more than there is")
}

// plans of one piece, in the colour of the lot.
func wanting(t *testing.T, s *Store, title string, item Item) (Plan, []Claim) {
	t.Helper()
	p, err := s.CreatePlan(t.Context(), uuid.NewString(), draft(t, title, "Odalys", plan.Default()))
	require.NoError(t, err)
	return p, []Claim{{Key: "p1", Item: item.ID, Colour: "peat", Pieces: 60}}
}

// Two plans are never promised the same pieces; what one needs no more, uses or leaves behind is
// free for the other at once.
func TestTwoPlansAreNeverPromisedTheSame(t *testing.T) {
	t.Parallel()
	s, item, lot := stocked(t, 5)
	one, claim := wanting(t, s, "One", item)
	two, _ := wanting(t, s, "Two", item)
	promised := func() map[string]int {
		lots, err := s.Stash(t.Context(), StashWish{}, all)
		require.NoError(t, err)
		out, sum := map[string]int{}, 0
		for _, p := range lots[0].Promises {
			out[p.Plan] = p.Pieces
			sum += p.Pieces
		}
		assert.Equal(t, sum, lots[0].Promised)
		assert.LessOrEqual(t, sum, lots[0].Pieces(20))
		return out
	}
	require.NoError(t, s.Hold(t.Context(), one.ID, true, claim))
	require.NoError(t, s.Hold(t.Context(), two.ID, true, claim))
	assert.Equal(t, map[string]int{"One": 60, "Two": 40}, promised())
	covered, holds, err := s.Covering(t.Context(), two.ID, claim)
	require.NoError(t, err)
	assert.True(t, holds)
	assert.Equal(t, 60, covered[0].Elsewhere)
	assert.Equal(t, []supply.TakeFrom{{Lot: lot.ID, Pieces: 40}}, covered[0].Take)

	// The first needs fewer: saved, the rest is free; the second gets it when it is saved.
	save := func(p *Plan, pieces int) {
		d := draft(t, p.Title, "Odalys", p.Input)
		d.Claims = []Claim{{Key: "p1", Item: item.ID, Colour: "Peat", Pieces: pieces}}
		d.Input.OwnHead = !d.Input.OwnHead // so that there is something to save
		saved, err := s.SavePlan(t.Context(), p.ID, p.Version, d)
		require.NoError(t, err)
		*p = saved
	}
	save(&one, 30)
	save(&two, 60)
	assert.Equal(t, map[string]int{"One": 30, "Two": 60}, promised())

	// What is used is promised no more, and not claimed once more.
	_, err = s.Move(t.Context(), lot.ID, MoveDraft{ID: "m", Kind: supply.Used, Stock: supply.Stock{Loose: 25}, PlanID: one.ID})
	require.NoError(t, err)
	assert.Equal(t, map[string]int{"One": 5, "Two": 60}, promised())
	save(&one, 30)
	assert.Equal(t, map[string]int{"One": 5, "Two": 60}, promised())

	// A plan that is deleted holds nothing, one that is freed neither.
	require.NoError(t, s.DeletePlan(t.Context(), two.ID))
	require.NoError(t, s.Hold(t.Context(), one.ID, false, claim))
	assert.Empty(t, promised())
	assert.ErrorIs(t, s.Hold(t.Context(), two.ID, true, claim), ErrNotFound)
}

// Another length of the line can stand in when it is long enough; another colour or line cannot.
func TestOnlyWhatWillDoIsTaken(t *testing.T) {
	t.Parallel()
	s, item, _ := stocked(t, 1)
	put := func(name, line, colour string, length float64) {
		i := someItem(name)
		i.Line, i.Length, i.Colours = line, length, []supply.Colour{{Name: colour, Swatch: "#000000"}}
		made, err := s.CreateItem(t.Context(), uuid.NewString(), ItemDraft{Item: i})
		require.NoError(t, err)
		_, err = s.AddLot(t.Context(), LotDraft{ID: name, Item: made.ID, Lot: supply.Lot{Colour: colour, Pack: 20, Condition: supply.New}},
			MoveDraft{ID: name, Kind: supply.Bought, Stock: supply.Stock{Packs: 1}})
		require.NoError(t, err)
	}
	put("longer", "Driftline", "Peat", 600)
	put("shorter", "Driftline", "Peat", 400)
	put("other line", "Saltspun", "Peat", 457.2)
	put("other colour", "Driftline", "Tar", 457.2)
	covered, _, err := s.Covering(t.Context(), "", []Claim{{Key: "p1", Item: item.ID, Colour: "Peat", Pieces: 100}})
	require.NoError(t, err)
	require.Len(t, covered[0].Take, 2)
	assert.Equal(t, "longer", covered[0].Take[1].Lot, "the right length first")
	sum := covered[0].Take[0].Pieces + covered[0].Take[1].Pieces
	assert.Equal(t, 40, sum)
}

// An item that lots or plans name is archived, not deleted, and nothing of theirs changes.
func TestAnItemInUseIsArchivedInstead(t *testing.T) {
	t.Parallel()
	s, item, _ := stocked(t, 1)
	archived, err := s.DeleteItem(t.Context(), item.ID)
	require.NoError(t, err)
	assert.True(t, archived)
	kept, err := s.Item(t.Context(), item.ID)
	require.NoError(t, err)
	assert.True(t, kept.Archived)
	assert.Equal(t, 20, kept.Pieces)

	alone, err := s.CreateItem(t.Context(), uuid.NewString(), ItemDraft{Item: someItem("On its own")})
	require.NoError(t, err)
	archived, err = s.DeleteItem(t.Context(), alone.ID)
	require.NoError(t, err)
	assert.False(t, archived)
	_, err = s.Item(t.Context(), alone.ID)
	assert.ErrorIs(t, err, ErrNotFound)
	_, err = s.CreateItem(t.Context(), alone.ID, ItemDraft{Item: someItem("On its own")})
	assert.ErrorIs(t, err, ErrNotFound, "a late repetition does not bring it back")
}

// What came is held against the label: a pack short is kept beside the supplier's name, and an
// order arrives once.
func TestAnOrderArrivesOnceWithWhatCame(t *testing.T) {
	t.Parallel()
	s, item, _ := stocked(t, 0+1)
	order := Purchase{ID: uuid.NewString(), Supplier: "near", State: Listed, Lines: []PurchaseLine{
		{Item: item.ID, Name: item.Name, Colour: "Peat", Pack: 20, Offer: hair.Offer{Packs: 6, Price: 6600}, Count: 1},
		{Name: "A comb", Pack: 1, Offer: hair.Offer{Packs: 1, Price: 200}, Count: 2},
	}}
	require.NoError(t, s.ListPurchases(t.Context(), "", []Purchase{order}))
	_, err := s.Place(t.Context(), order.ID, "2026-11-20", "2026-11-22")
	require.NoError(t, err)
	_, err = s.Arrive(t.Context(), order.ID, "2026-11-23", "Ikaika", []Came{{Packs: 5, Pieces: 99, Checked: "counted"}})
	assert.NotEmpty(t, invalid.From(err), "a line is missing")
	came := []Came{{Packs: 5, Pieces: 99, Checked: "counted"}, {Packs: 2, Pieces: 2, Checked: "label"}}
	for range 2 {
		p, err := s.Arrive(t.Context(), order.ID, "2026-11-23", "Ikaika", came)
		require.NoError(t, err)
		assert.Equal(t, Arrived, p.State)
	}
	got, err := s.Item(t.Context(), item.ID)
	require.NoError(t, err)
	assert.Equal(t, 20+99, got.Pieces)
	short, err := s.Shortfalls(t.Context())
	require.NoError(t, err)
	assert.Equal(t, []Shortfall{{Supplier: "near", Orders: 1, Packs: 5, Missing: 1, Lacking: 1}}, short)
	_, err = s.Place(t.Context(), order.ID, "2026-11-24", "2026-11-26")
	assert.NotEmpty(t, invalid.From(err), "it has arrived")
	assert.NotEmpty(t, invalid.From(s.DropPurchase(t.Context(), order.ID)))
}

// A table that is stopped half-way leaves nothing behind.
func TestManyAtOnceOrNoneAtAll(t *testing.T) {
	t.Parallel()
	s := opened(t, filepath.Join(t.TempDir(), "studio.db"))
	puts := make([]ItemPut, 2500)
	for n := range puts {
		puts[n] = ItemPut{ID: uuid.NewString(), Draft: ItemDraft{Item: someItem(fmt.Sprintf("Line %04d", n))}}
	}
	stopped := errors.New("stopped")
	err := s.PutItems(t.Context(), puts, func(done int) error {
		if done == 2000 {
			return stopped
		}
		return nil
	})
	require.ErrorIs(t, err, stopped)
	items, err := s.Items(t.Context(), ItemWish{}, all)
	require.NoError(t, err)
	assert.Empty(t, items)
	require.NoError(t, s.PutItems(t.Context(), puts, func(int) error { return nil }))
	items, err = s.Items(t.Context(), ItemWish{Search: "LINE 0007"}, all)
	require.NoError(t, err)
	assert.Len(t, items, 1)
}
