package store

import (
	"fmt"
	"path/filepath"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/plan"
	"kladotex/core/supply"
)

// Items and lots are found by any words of their names and colours, whatever the case and the marks of
// their letters, page by page, each once.
func TestSuppliesAreFoundPageByPage(t *testing.T) {
	t.Parallel()
	s := opened(t, filepath.Join(t.TempDir(), "studio.db"))
	want := map[string]bool{}
	for n := range 23 {
		i := someItem(fmt.Sprintf("Línea %02d", n))
		if n%5 == 0 {
			i.Kind, i.Colours = "cuffs", []supply.Colour{{Name: "Brass", Swatch: "#b08d3c"}}
		}
		made, err := s.CreateItem(t.Context(), uuid.NewString(), ItemDraft{Item: i, Archived: n == 7})
		require.NoError(t, err)
		for k := range 2 {
			id := fmt.Sprintf("%s-%d", made.ID, k)
			_, err = s.AddLot(t.Context(), LotDraft{ID: id, Item: made.ID, Lot: supply.Lot{Colour: i.Colours[0].Name, Pack: 20, Condition: supply.New}},
				MoveDraft{ID: id, Kind: supply.Bought, Stock: supply.Stock{Packs: 1 + k}})
			require.NoError(t, err)
			want[id] = true
		}
	}
	var got []string
	for page := (Page{Limit: 7}); ; {
		lots, err := s.Stash(t.Context(), StashWish{}, page)
		require.NoError(t, err)
		for _, l := range lots {
			got = append(got, l.ID)
		}
		if len(lots) < page.Limit {
			break
		}
		page.After = lots[len(lots)-1].Cursor()
	}
	assert.Len(t, got, 46)
	for _, id := range got {
		assert.True(t, want[id], "twice, or none of ours")
		delete(want, id)
	}

	count := func(wish ItemWish) int {
		items, err := s.Items(t.Context(), wish, all)
		require.NoError(t, err)
		return len(items)
	}
	assert.Equal(t, 22, count(ItemWish{}))
	assert.Equal(t, 1, count(ItemWish{Archived: true}))
	assert.Equal(t, 5, count(ItemWish{Kind: "cuffs"}))
	assert.Equal(t, 5, count(ItemWish{Search: "BRASS linea"}))
	assert.Equal(t, 1, count(ItemWish{Search: "linea 03 peat"}))
	assert.Zero(t, count(ItemWish{Search: "linea 07"}), "archived")
	items, err := s.Items(t.Context(), ItemWish{Search: "linea 03"}, all)
	require.NoError(t, err)
	assert.Equal(t, 60, items[0].Pieces, "of both lots")

	// A lot that is used up is listed only when it is asked for.
	lots, err := s.Stash(t.Context(), StashWish{Item: items[0].ID}, all)
	require.NoError(t, err)
	require.Len(t, lots, 2)
	_, err = s.Move(t.Context(), lots[0].ID, MoveDraft{ID: "all", Kind: supply.Used, Stock: supply.Stock{Loose: lots[0].Pieces(20)}})
	require.NoError(t, err)
	lots, err = s.Stash(t.Context(), StashWish{Item: items[0].ID}, all)
	require.NoError(t, err)
	assert.Len(t, lots, 1)
	lots, err = s.Stash(t.Context(), StashWish{Item: items[0].ID, Empty: true}, all)
	require.NoError(t, err)
	assert.Len(t, lots, 2)
}

// An item is saved over the version it was read at; the same twice is once.
func TestItemsAreSavedOverTheirVersion(t *testing.T) {
	t.Parallel()
	s, item, _ := stocked(t, 1)
	d := ItemDraft{Item: item.Item}
	d.Item.Note = "Stiff until it is washed."
	for range 2 {
		saved, err := s.SaveItem(t.Context(), item.ID, item.Version, d)
		require.NoError(t, err)
		assert.Equal(t, item.Version+1, saved.Version)
	}
	d.Item.Note = "Another word."
	_, err := s.SaveItem(t.Context(), item.ID, item.Version, d)
	assert.ErrorIs(t, err, ErrStale)
	_, err = s.CreateItem(t.Context(), item.ID, d)
	assert.ErrorIs(t, err, ErrStale, "another under the same id")
	err = s.PutItems(t.Context(), []ItemPut{{ID: item.ID, Version: item.Version, Draft: d}}, func(int) error { return nil })
	assert.ErrorIs(t, err, ErrStale)
}

// What is ticked off of a preparation is the last that was said, by whom and when, and goes with the plan.
func TestWhatIsPreparedIsKept(t *testing.T) {
	t.Parallel()
	s, item, _ := stocked(t, 1)
	p, _ := wanting(t, s, "One", item)
	require.NoError(t, s.Prepare(t.Context(), p.ID, "make:p1", 3, "Odalys"))
	require.NoError(t, s.Prepare(t.Context(), p.ID, "make:p1", 7, "Ikaika"))
	require.NoError(t, s.Prepare(t.Context(), p.ID, "rinse", 1, "Ikaika"))
	got, err := s.Prepared(t.Context(), p.ID)
	require.NoError(t, err)
	require.Len(t, got, 2)
	assert.Equal(t, 7, got[0].Done)
	assert.Equal(t, "Ikaika", got[0].Person)
	require.NoError(t, s.DeletePlan(t.Context(), p.ID))
	got, err = s.Prepared(t.Context(), p.ID)
	require.NoError(t, err)
	assert.Empty(t, got)
	assert.ErrorIs(t, s.Prepare(t.Context(), p.ID, "rinse", 1, "Ikaika"), ErrNotFound)
}

// An order for a plan outlives the plan, and listing anew replaces only what is not ordered yet.
func TestOrdersOutliveTheirPlan(t *testing.T) {
	t.Parallel()
	s, item, _ := stocked(t, 1)
	p, _ := wanting(t, s, "One", item)
	order := func(id string) Purchase {
		return Purchase{ID: id, Supplier: "near", PlanID: p.ID, State: Listed, Lines: []PurchaseLine{{Item: item.ID, Name: item.Name, Pack: 20, Offer: item.Offers[0], Count: 1}}}
	}
	require.NoError(t, s.ListPurchases(t.Context(), p.ID, []Purchase{order("a"), order("b")}))
	_, err := s.Place(t.Context(), "a", "2027-03-01", "2027-03-03")
	require.NoError(t, err)
	require.NoError(t, s.ListPurchases(t.Context(), p.ID, []Purchase{order("c")}))
	ids := func(plan string) (out []string) {
		list, err := s.Purchases(t.Context(), plan)
		require.NoError(t, err)
		for _, o := range list {
			out = append(out, o.ID)
		}
		return out
	}
	assert.Equal(t, []string{"a", "c"}, ids(p.ID), "the one under way stays, the one that is due first")
	require.NoError(t, s.DropPurchase(t.Context(), "c"))
	require.NoError(t, s.DeletePlan(t.Context(), p.ID))
	assert.Empty(t, ids(p.ID))
	assert.Equal(t, []string{"a"}, ids(""))
	_, err = s.CreatePlan(t.Context(), p.ID, draft(t, "One", "Odalys", plan.Default()))
	assert.ErrorIs(t, err, ErrNotFound)
	_, err = s.Arrive(t.Context(), "none", "2027-03-03", "Odalys", nil)
	assert.ErrorIs(t, err, ErrNotFound)
}
