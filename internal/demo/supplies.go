package demo

import (
	"context"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"

	"kladotex/core/hair"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/internal/standin"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// stock are the demo's items by the number they are listed under.
type stock map[string]store.Item

// furnishItems puts what both suppliers list on file, with the offers of both.
func furnishItems(ctx context.Context, s *store.Store) (stock, error) {
	items := map[string]supply.Item{}
	var numbers []string
	for _, seller := range standin.Suppliers {
		// As it was a while ago, so that prices have moved since.
		for _, l := range standin.List(seller.Key, time.Now().AddDate(0, 0, -30)) {
			have, known := items[l.Number]
			if !known {
				numbers = append(numbers, l.Number)
				items[l.Number] = l.Item
				continue
			}
			have.Offers = append(slices.Clone(have.Offers), l.Item.Offers...)
			have.Articles = append(slices.Clone(have.Articles), l.Item.Articles...)
			items[l.Number] = have
		}
	}
	out := stock{}
	for _, n := range numbers {
		i, err := s.CreateItem(ctx, uuid.NewString(), store.ItemDraft{Item: items[n]})
		if err != nil {
			return nil, fmt.Errorf("demo item %q: %w", n, err)
		}
		out[n] = i
	}
	return out, nil
}

// worn are the colours of the plans' pieces, by the titles of the plans; Peat where nothing is said.
var worn = map[string][]string{
	"The lighthouse technician, long thick hair": {"Peat to rope"},
	"The lighthouse technician, horseshoe":       {"Walnut", "Walnut"},
	"The cellist, a hairline that shows":         {"Tar"},
	"The ferry pilot, a design on the left":      {"Rope"},
	"The sail-school pupil, a part and no more":  {"Walnut"},
}

// installs are the days of plans with one, from today.
var installs = map[string]int{
	"The lighthouse technician, long thick hair": 9,
	"The coxswain, grown-in, before the regatta": 40,
	"The cellist, a hairline that shows":         16,
	"The baker, four evenings at home":           12,
	"The sail-school pupil, a part and no more":  0,
	"The coxswain, linked plaits under the cap":  4,
	"The ferry pilot, fine hair, few and light":  25,
	"The lighthouse technician, horseshoe":       60,
	"The cellist, a ring to tie up":              70,
	"The baker, own front and a quick back":      80,
	"The ferry pilot, a design on the left":      90,
	atChair:                                      0,
}

// take is a plan's input with its pieces taken from the items.
func (k stock) take(p Plan) plan.Input {
	in := p.Input
	in.Pieces = slices.Clone(in.Pieces)
	for i, piece := range in.Pieces {
		item, ok := k[piece.Key]
		if !ok {
			continue
		}
		colour := "Peat"
		if named := worn[p.Title]; i < len(named) {
			colour = named[i]
		}
		in.Pieces[i] = item.Piece(piece.Key, item.ID, colour)
	}
	in.Ways = slices.Clone(in.Ways)
	for i := range in.Ways {
		if in.Ways[i].Wrapping != nil {
			wrap := k["MW-24"]
			wrapping := wrap.Wrapping(wrap.ID, "Peat")
			in.Ways[i].Wrapping = &wrapping
		}
	}
	if days, planned := installs[p.Title]; planned {
		in.Day = &plan.Day{Install: time.Now().AddDate(0, 0, days).Format(time.DateOnly)}
	}
	if p.Title == lively {
		k.enliven(&in)
	}
	return in
}

const lively = "The coxswain, linked plaits under the cap"

// enliven gives the coxswain two colours mixed and a few brass cuffs in front.
func (k stock) enliven(in *plan.Input) {
	red := k["S-14"].Piece("buoy", k["S-14"].ID, "Buoy red")
	in.Pieces = append(in.Pieces, red)
	in.Uses = slices.Clone(in.Uses)
	first := in.Uses[0].Piece
	in.Uses = append(in.Uses, plan.Use{Where: plan.Where{Kind: plan.InFront}, Mix: []plan.Share{{Piece: first, Parts: 3}, {Piece: red.Key, Parts: 1}}})
	cuffs := k["TC-12"]
	in.Accents = []plan.Accent{{
		Thing: &plan.Thing{Name: cuffs.Name, Mass: cuffs.Mass, Pack: cuffs.Pack.Units, Price: cuffs.Offers[0].Price, Item: cuffs.ID, Colour: "Brass"},
		Where: plan.Where{Kind: plan.InFront}, Count: 8,
	}}
}

// lots are what lies in the demo's stash: bought some weeks ago, and what happened since.
var lots = []struct {
	number, colour string
	weeks          int // ago
	packs          int // bought
	round          int
	condition      supply.Condition
	saved          int // pieces that came back from a head
	used, spoilt   int
	supplier       string
}{
	{"D-18", "Peat", 7, 8, 0, supply.New, 0, 104, 3, standin.Chandlery},
	{"D-18", "Tar", 5, 2, 0, supply.New, 0, 0, 0, standin.Chandlery},
	{"D-18", "Peat to rope", 3, 6, 0, supply.New, 0, 31, 1, standin.Brackwater},
	{"D-24", "Tar", 20, 1, 1, supply.Good, 38, 0, 0, ""},
	{"S-14", "Peat", 9, 6, 0, supply.New, 0, 76, 2, standin.Chandlery},
	{"S-14", "Buoy red", 9, 1, 0, supply.New, 0, 20, 1, standin.Chandlery},
	{"S-22", "Walnut", 2, 7, 0, supply.New, 0, 0, 0, standin.Chandlery},
	{"F-20", "Walnut", 12, 4, 0, supply.New, 0, 30, 1, standin.Brackwater},
	{"Q-20", "Peat", 6, 5, 0, supply.New, 0, 77, 1, standin.Brackwater},
	{"M-14", "Walnut", 18, 1, 1, supply.Worn, 44, 6, 0, ""},
	{"FM-22", "Tar", 30, 1, 2, supply.Good, 26, 0, 0, ""},
	{"QC-12", "Honey", 8, 1, 0, supply.New, 0, 17, 1, standin.Chandlery},
	{"MW-24", "Peat", 6, 4, 0, supply.New, 0, 88, 0, standin.Brackwater},
	{"TB-200", "Tar", 14, 2, 0, supply.New, 0, 60, 0, standin.Chandlery},
	{"TC-12", "Brass", 9, 2, 0, supply.New, 0, 5, 0, standin.Chandlery},
	{"TT-1", "Tar", 15, 4, 0, supply.New, 0, 2, 0, standin.Chandlery},
	{"TH-1", "", 15, 3, 0, supply.New, 0, 0, 0, standin.Chandlery},
	{"TN-1", "Tar", 15, 2, 0, supply.New, 0, 1, 0, standin.Chandlery},
}

// furnish fills the stash, has two plans hold their share of it, and puts orders under way.
func (k stock) furnish(ctx context.Context, s *store.Store, use *studio.Studio, plans map[string]string) error {
	const by = "Odalys Brandt"
	for n, l := range lots {
		item := k[l.number]
		at := time.Now().AddDate(0, 0, -7*l.weeks)
		first := store.MoveDraft{ID: uuid.NewString(), Kind: supply.Bought, Stock: supply.Stock{Packs: l.packs}, By: by, At: at}
		if l.saved > 0 {
			first.Kind, first.Stock = supply.Saved, supply.Stock{Loose: l.saved}
		}
		lot := supply.Lot{Colour: l.colour, Pack: item.Pack.Units, Round: l.round, Condition: l.condition, Supplier: l.supplier}
		id := uuid.NewString()
		if _, err := s.AddLot(ctx, store.LotDraft{ID: id, Item: item.ID, Lot: lot}, first); err != nil {
			return fmt.Errorf("demo lot %d: %w", n, err)
		}
		for _, m := range []struct {
			kind   supply.MoveKind
			pieces int
		}{{supply.Used, l.used}, {supply.Spoilt, l.spoilt}} {
			if m.pieces == 0 {
				continue
			}
			at = at.AddDate(0, 0, 9)
			_, err := s.Move(ctx, id, store.MoveDraft{ID: uuid.NewString(), Kind: m.kind, Stock: supply.Stock{Loose: m.pieces}, By: "Tamsin Okoro-Vale", At: at})
			if err != nil {
				return fmt.Errorf("demo lot %d: %w", n, err)
			}
		}
	}
	return k.order(ctx, s, use, plans)
}

// order has two plans hold their share, and puts orders on the list, under way and arrived.
func (k stock) order(ctx context.Context, s *store.Store, use *studio.Studio, plans map[string]string) error {
	for _, title := range []string{"The lighthouse technician, long thick hair", lively} {
		if _, err := use.Hold(ctx, plans[title], true); err != nil {
			return fmt.Errorf("demo stash for %q: %w", title, err)
		}
	}
	day := func(days int) string { return time.Now().AddDate(0, 0, days).Format(time.DateOnly) }
	line := func(number, colour string, offer, count int) store.PurchaseLine {
		i := k[number]
		return store.PurchaseLine{Item: i.ID, Name: i.Name, Colour: colour, Pack: i.Pack.Units, Offer: i.Offers[offer], Count: count}
	}
	older := store.Purchase{ID: uuid.NewString(), Supplier: standin.Brackwater, State: store.Listed, Fee: 890, Lines: []store.PurchaseLine{
		{Item: k["S-14"].ID, Name: k["S-14"].Name, Colour: "Walnut", Pack: 30, Offer: far(k["S-14"]), Count: 4},
		{Item: k["TC-12"].ID, Name: k["TC-12"].Name, Colour: "Brass", Pack: 12, Offer: far(k["TC-12"]), Count: 1},
	}}
	under := store.Purchase{ID: uuid.NewString(), Supplier: standin.Chandlery, State: store.Listed, Fee: 550, PlanID: plans["The lighthouse technician, long thick hair"], Lines: []store.PurchaseLine{
		line("D-18", "Peat to rope", 0, 2), line("MW-24", "Peat", 0, 1),
	}}
	if err := s.ListPurchases(ctx, "", []store.Purchase{older, under}); err != nil {
		return err
	}
	if _, err := s.Place(ctx, older.ID, day(-19), day(-13)); err != nil {
		return err
	}
	// One twist was missing in four packs.
	_, err := s.Arrive(ctx, older.ID, day(-12), "Ikaika Moreau", []store.Came{{Packs: 4, Pieces: 119, Checked: "counted"}, {Packs: 1, Pieces: 12, Checked: "counted"}})
	if err != nil {
		return err
	}
	if _, err := s.Place(ctx, under.ID, day(0), day(2)); err != nil {
		return err
	}
	_, err = use.ListOrders(ctx, plans["The cellist, a hairline that shows"])
	return err
}

// far is the single pack of the far supplier.
func far(i store.Item) hair.Offer {
	return i.Offers[slices.IndexFunc(i.Offers, func(o hair.Offer) bool { return o.Supplier == standin.Brackwater })]
}
