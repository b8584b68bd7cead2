package studio

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"

	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/need"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/core/tally"
	"kladotex/internal/store"
)

// CreateItem adds an item to the supplies under an id made by who adds it.
func (s *Studio) CreateItem(ctx context.Context, id string, d store.ItemDraft) (store.Item, error) {
	d, err := s.checkedItem(ctx, d)
	if err != nil {
		return store.Item{}, err
	}
	return s.Store.CreateItem(ctx, id, d)
}

// SaveItem saves an item over the version it started from.
func (s *Studio) SaveItem(ctx context.Context, id string, version int, d store.ItemDraft) (store.Item, error) {
	d, err := s.checkedItem(ctx, d)
	if err != nil {
		return store.Item{}, err
	}
	return s.Store.SaveItem(ctx, id, version, d)
}

// checkedItem refuses an item that cannot be, and one priced in another currency than the studio's.
func (s *Studio) checkedItem(ctx context.Context, d store.ItemDraft) (store.ItemDraft, error) {
	home, err := s.Store.House(ctx)
	if err != nil {
		return store.ItemDraft{}, err
	}
	return d, invalid.Under(pricedIn(home.Rules.Currency, &d.Item), "item")
}

// pricedIn tidies an item's words and refuses one that cannot be in a studio of a currency.
func pricedIn(currency string, i *supply.Item) error {
	i.Name, i.Line, i.Note = strings.TrimSpace(i.Name), strings.TrimSpace(i.Line), strings.TrimSpace(i.Note)
	var bad invalid.Errors
	if err := bad.Collect(i.Check()); err != nil {
		return err
	}
	if len(i.Offers) > 0 && i.Currency != currency {
		bad.Add("currency", "The prices are in %s and your studio counts in %s: write them in %s, or leave them out.", i.Currency, currency, currency)
	}
	return bad.Err()
}

// AddLot puts a lot of an item into the stash.
func (s *Studio) AddLot(ctx context.Context, d store.LotDraft, first store.MoveDraft) (store.Lot, error) {
	var bad invalid.Errors
	d.Lot.Check(&bad, "lot.")
	item, err := s.Store.Item(ctx, d.Item)
	if err != nil {
		return store.Lot{}, err
	}
	if d.Lot.Colour != "" && !slices.ContainsFunc(item.Colours, func(c supply.Colour) bool { return strings.EqualFold(c.Name, d.Lot.Colour) }) {
		bad.Add("lot.colour", "%s does not come in %q; add the colour to the item first.", item.Name, d.Lot.Colour)
	}
	if len(bad) > 0 {
		return store.Lot{}, bad
	}
	return s.Store.AddLot(ctx, d, first)
}

// PriceChange is an offer of a supplier that is no longer as the studio's item has it.
type PriceChange struct {
	Item     string `json:"item" doc:"Id of the item"`
	Name     string `json:"name"`
	Supplier string `json:"supplier"`
	Packs    int    `json:"packs"`
	// Was and Is are the prices, minor units; 0 where there was or is no such offer.
	Was int64 `json:"wasMinor"`
	Is  int64 `json:"isMinor"`
}

// newPrices are an item with the offers its suppliers make today, and what changed. Offers of a supplier
// whose list cannot be asked for stay.
func newPrices(i store.Item, lists map[string][]supply.Listed) (supply.Item, []PriceChange) {
	out := i.Item
	out.Offers = slices.Clone(i.Offers)
	var changes []PriceChange
	for _, a := range i.Articles {
		listed, asked := lists[a.Supplier]
		if !asked {
			continue
		}
		k := slices.IndexFunc(listed, func(l supply.Listed) bool { return l.Number == a.Number })
		var now []hair.Offer
		if k >= 0 {
			now = listed[k].Item.Offers
		}
		packs := map[int][2]int64{}
		kept := out.Offers[:0:0]
		for _, o := range out.Offers {
			if o.Supplier != a.Supplier {
				kept = append(kept, o)
				continue
			}
			packs[o.Packs] = [2]int64{o.Price, 0}
		}
		for _, o := range now {
			packs[o.Packs] = [2]int64{packs[o.Packs][0], o.Price}
		}
		for n, p := range packs {
			if p[0] != p[1] {
				changes = append(changes, PriceChange{i.ID, i.Name, a.Supplier, n, p[0], p[1]})
			}
		}
		out.Offers = append(kept, now...)
	}
	slices.SortFunc(changes, func(a, b PriceChange) int {
		return cmp.Or(cmp.Compare(a.Supplier, b.Supplier), cmp.Compare(a.Packs, b.Packs))
	})
	return out, changes
}

// RefreshPrices asks the suppliers what they take today and says what changed; with save it is
// written into the items too.
func (s *Studio) RefreshPrices(ctx context.Context, save bool) ([]PriceChange, error) {
	home, err := s.Store.House(ctx)
	if err != nil {
		return nil, err
	}
	lists, err := s.lists(ctx, home.Rules.Currency)
	if err != nil {
		return nil, err
	}
	out := []PriceChange{}
	for page := (store.Page{Limit: 200}); ; {
		items, err := s.Store.Items(ctx, store.ItemWish{}, page)
		if err != nil {
			return nil, err
		}
		for _, i := range items {
			item, changes := newPrices(i, lists)
			out = append(out, changes...)
			if save && len(changes) > 0 {
				if _, err := s.Store.SaveItem(ctx, i.ID, i.Version, store.ItemDraft{Item: item, Archived: i.Archived}); err != nil {
					return nil, err
				}
			}
		}
		if len(items) < page.Limit {
			return out, nil
		}
		page.After = items[len(items)-1].Cursor()
	}
}

// lists are what the suppliers have today whose lists can be asked for, by their keys. It refuses lists
// in another currency than the studio's.
func (s *Studio) lists(ctx context.Context, currency string) (map[string][]supply.Listed, error) {
	sellers, err := s.sellers(ctx)
	if err != nil {
		return nil, err
	}
	out := map[string][]supply.Listed{}
	for _, seller := range sellers {
		if !seller.Practice || seller.Archived {
			continue
		}
		if out[seller.Key], err = s.ListOf(ctx, seller.Key); err != nil {
			return nil, fmt.Errorf("the list of %s: %w", seller.Key, err)
		}
		for _, l := range out[seller.Key] {
			if l.Item.Currency != currency {
				var bad invalid.Errors
				bad.Add("currency", "%s quotes in %s and your studio counts in %s: its prices cannot be taken over.", seller.Name, l.Item.Currency, currency)
				return nil, bad
			}
		}
	}
	return out, nil
}

// Shopping is what a plan needs of hair, what the stash gives, and what is bought for the rest.
type Shopping struct {
	need.Supplied
	Lines  []ShopLine `json:"lines" doc:"In the order of the need's pieces"`
	Wraps  []ShopLine `json:"wrapLines" doc:"In the order of the need's wrapping hair"`
	Things []ShopLine `json:"thingLines" doc:"In the order of the need's small things"`
	// Holds is true for a plan in work that holds its share of the stash.
	Holds bool `json:"holds"`
	// Orders are what is bought, by supplier.
	Orders []ShopOrder `json:"orders"`
	Goods  int64       `json:"goodsMinor"`
	Fees   int64       `json:"feesMinor"`
	// Odds are those of the studio; Logged is how many pieces it has logged.
	Odds     supply.Odds      `json:"odds"`
	Logged   int              `json:"logged"`
	Prepared []store.Prepared `json:"prepared"`
	// RinseOn is the day new hair is rinsed, HomeBy the day it must be there; empty while the day of the
	// install is open.
	RinseOn string `json:"rinseOn"`
	HomeBy  string `json:"homeBy"`
}

// ShopLine is one piece, wrapping hair or thing of the plan: what lies there for it and what is
// bought.
type ShopLine struct {
	Key string `json:"key" doc:"What it is for inside the plan"`
	// Stash is how many units the stash gives, Used how many were taken for the plan already, Coming how many
	// are ordered for it and on their way, Elsewhere how many others are promised.
	Stash     int               `json:"stash" doc:"What the stash gives"`
	Used      int               `json:"used" doc:"What was taken for this plan already"`
	Coming    int               `json:"coming" doc:"What is ordered for this plan and on its way"`
	Elsewhere int               `json:"elsewhere" doc:"What would do but is promised to other plans"`
	Lots      []supply.TakeFrom `json:"lots" doc:"The lots they come from, pieces as sold"`
	Order     supply.Order      `json:"order" doc:"What is bought for the rest"`
}

// ShopOrder is what one supplier is asked for.
type ShopOrder struct {
	// Supplier is its key, empty for any shop.
	Supplier string `json:"supplier"`
	Name     string `json:"name"`
	Days     int    `json:"days" doc:"Days until it comes"`
	Fee      int64  `json:"feeMinor"`
	// OrderBy is the last day to order; empty while the day of the install is open.
	OrderBy string               `json:"orderBy"`
	Lines   []store.PurchaseLine `json:"lines"`
	Goods   int64                `json:"goodsMinor"`
}

// wanted is one thing a plan needs, as the stash and the shops know it.
type wanted struct {
	key, name, item, colour string
	need                    int // units ready to attach
	per                     int // units that one as sold gives
	pack                    int // as sold in a pack
	offers                  []hair.Offer
}

func (w wanted) claim() store.Claim {
	return store.Claim{Key: w.key, Item: w.item, Colour: w.colour, Pieces: (w.need + w.per - 1) / w.per}
}

// wantedOf are the pieces, the wrapping hair and the small things a plan needs, in the order of its need.
func wantedOf(in plan.Input, need need.Need) []wanted {
	var out []wanted
	for _, n := range need.Pieces {
		p := in.Piece(n.Piece)
		if n.Made { // what the stash has not is made, not bought
			out = append(out, wanted{p.Key, p.Name, "", p.Colour, 0, 1, 1, p.Offers})
			continue
		}
		out = append(out, wanted{p.Key, p.Name, p.Item, p.Colour, n.OnHead + n.Fill + n.Spares, p.Pack.Cuts * p.Pack.Splits, p.Pack.Units, p.Offers})
	}
	for _, n := range need.Wraps {
		h := n.Hair(in)
		per := max(1, h.Cuts)
		pack := max(1, h.Strands/per)
		if n.Unit == "g" { // of hair that is weighed out a strand counts as its mass
			per, pack = 1, max(1, int(h.PackMass))
		}
		out = append(out, wanted{n.Key(), n.Name, h.Item, h.Colour, n.Order.Need, per, pack, h.AsOffers()})
	}
	for _, n := range need.Things {
		t := n.Thing(in)
		out = append(out, wanted{n.Key(), t.Name, t.Item, t.Colour, n.Count, 1, t.Pack, []hair.Offer{{Packs: 1, Price: t.Price}}})
	}
	return out
}

// claims are what a plan needs of the stash.
func claims(in plan.Input, need need.Need) []store.Claim {
	list := wantedOf(in, need)
	out := make([]store.Claim, len(list))
	for i, w := range list {
		out[i] = w.claim()
		out[i].Reuse = in.ReuseFirst
	}
	return out
}

// Shop works out the shopping of a plan as it is now; planID is empty for one that was never saved.
func (s *Studio) Shop(ctx context.Context, planID string, in plan.Input) (Shopping, error) {
	sol, err := plan.Solve(ctx, in)
	if err != nil {
		return Shopping{}, err
	}
	supplied, err := need.Supply(sol)
	if err != nil {
		return Shopping{}, err
	}
	out := Shopping{Supplied: supplied, Orders: []ShopOrder{}, Prepared: []store.Prepared{}}
	covered, holds, err := s.Store.Covering(ctx, planID, claims(in, supplied.Need))
	if err != nil {
		return Shopping{}, err
	}
	out.Holds = holds
	used, spoilt, err := s.Store.Lost(ctx)
	if err != nil {
		return Shopping{}, err
	}
	out.Odds, out.Logged = supply.Rate(used, spoilt), used+spoilt
	var coming []store.PurchaseLine
	if planID != "" {
		prepared, err := s.Store.Prepared(ctx, planID)
		if err != nil {
			return Shopping{}, err
		}
		out.Prepared = append(out.Prepared, prepared...)
		if coming, err = s.coming(ctx, planID); err != nil {
			return Shopping{}, err
		}
	}
	list := wantedOf(in, supplied.Need)
	lines, wants := make([]ShopLine, len(list)), make([]supply.Want, len(list))
	for k, w := range list {
		c := covered[k]
		line := ShopLine{Key: w.key, Used: c.Used * w.per, Elsewhere: c.Elsewhere * w.per, Lots: append([]supply.TakeFrom{}, c.Take...)}
		for _, t := range c.Take {
			line.Stash += t.Pieces * w.per
		}
		for _, l := range coming {
			named := l.Key == "" && l.Name == w.name // listed before lines bore the key
			if (l.Key == w.key || named) && l.Item == w.item && strings.EqualFold(l.Colour, w.colour) {
				line.Coming += l.Packs() * l.Pack * w.per
			}
		}
		lines[k] = line
		wants[k] = supply.Want{Key: w.name, Need: max(0, w.need-line.Stash-line.Used-line.Coming), Yield: w.pack * w.per, Offers: w.offers}
	}
	sellers, err := s.sellers(ctx)
	if err != nil {
		return Shopping{}, err
	}
	bought, err := supply.PurchaseAll(wants, selling(sellers, wants))
	if err != nil {
		return Shopping{}, err
	}
	for k := range lines {
		lines[k].Order = bought.Orders[k]
	}
	pieces, wraps := len(supplied.Need.Pieces), len(supplied.Need.Wraps)
	out.Lines, out.Wraps, out.Things = lines[:pieces], lines[pieces:pieces+wraps], lines[pieces+wraps:]
	out.Goods, out.Fees = bought.Goods, bought.Fees
	out.date(in)
	out.list(list, bought, sellers)
	return out, nil
}

// coming are the lines of the orders for a plan that are on their way.
func (s *Studio) coming(ctx context.Context, planID string) (lines []store.PurchaseLine, err error) {
	orders, err := s.Store.Purchases(ctx, planID)
	for _, o := range orders {
		if o.State == store.Ordered {
			lines = append(lines, o.Lines...)
		}
	}
	return lines, err
}

// date counts back from the day of the install: hair is at home the day before it is prepared.
func (o *Shopping) date(in plan.Input) {
	begin := 0
	for _, t := range o.Tasks {
		begin = max(begin, t.Before)
		if t.Key == "rinse" {
			o.RinseOn = daysBefore(in.InstallDay(), t.Before)
		}
	}
	o.HomeBy = daysBefore(in.InstallDay(), begin)
}

// list sorts what is bought by who sells it.
func (o *Shopping) list(wants []wanted, bought supply.Purchase, sellers []supply.Seller) {
	at := map[string]int{}
	for k, order := range bought.Orders {
		for _, l := range order.Lines {
			i, have := at[l.Offer.Supplier]
			if !have {
				i = len(o.Orders)
				at[l.Offer.Supplier] = i
				o.Orders = append(o.Orders, o.orderOf(sellerOf(sellers, l.Offer.Supplier)))
			}
			w := wants[k]
			o.Orders[i].Lines = append(o.Orders[i].Lines, store.PurchaseLine{Key: w.key, Item: w.item, Name: w.name, Colour: w.colour, Pack: w.pack, Offer: l.Offer, Count: l.Count})
			o.Orders[i].Goods += int64(l.Count) * l.Offer.Price
		}
	}
	slices.SortFunc(o.Orders, func(a, b ShopOrder) int { return cmp.Or(cmp.Compare(b.Days, a.Days), cmp.Compare(a.Name, b.Name)) })
}

// anyShop is what an order of nobody in particular is called.
const anyShop = "Any shop"

func (o *Shopping) orderOf(of supply.Seller) ShopOrder {
	return ShopOrder{Supplier: of.Key, Name: of.Name, Days: of.Days, Fee: of.Fee, OrderBy: daysBefore(o.HomeBy, of.Days), Lines: []store.PurchaseLine{}}
}

// Hold has a stored plan hold its share of the stash, or frees it.
func (s *Studio) Hold(ctx context.Context, planID string, holds bool) (Shopping, error) {
	p, shop, err := s.shopped(ctx, planID)
	if err != nil {
		return Shopping{}, err
	}
	if err := s.Store.Hold(ctx, planID, holds, claims(p.Input, shop.Need)); err != nil {
		return Shopping{}, err
	}
	return s.Shop(ctx, planID, p.Input)
}

// Arrive books what came of an order. A plan in work for which it was ordered holds its share of it at
// once.
func (s *Studio) Arrive(ctx context.Context, id, on, by string, came []store.Came) (store.Purchase, error) {
	order, err := s.Store.Arrive(ctx, id, on, by, came)
	if err != nil || order.PlanID == "" {
		return order, err
	}
	_, shop, err := s.shopped(ctx, order.PlanID)
	if err == nil && shop.Holds {
		_, err = s.Hold(ctx, order.PlanID, true)
	}
	return order, err
}

// ListOrders puts what a stored plan has to buy on the order list.
func (s *Studio) ListOrders(ctx context.Context, planID string) ([]store.Purchase, error) {
	_, shop, err := s.shopped(ctx, planID)
	if err != nil {
		return nil, err
	}
	orders := make([]store.Purchase, len(shop.Orders))
	for i, o := range shop.Orders {
		orders[i] = store.Purchase{ID: uuid.NewString(), Supplier: o.Supplier, PlanID: planID, State: store.Listed, Lines: o.Lines, Fee: o.Fee}
	}
	if err := s.Store.ListPurchases(ctx, planID, orders); err != nil {
		return nil, err
	}
	return s.Store.Purchases(ctx, planID)
}

// PlaceOrder says that an order was placed on a day; it is due as its supplier delivers.
func (s *Studio) PlaceOrder(ctx context.Context, id, on string) (store.Purchase, error) {
	day, err := time.Parse(time.DateOnly, on)
	if err != nil {
		var bad invalid.Errors
		bad.Add("on", "The day is written like 2026-12-04; it is %q.", on)
		return store.Purchase{}, bad
	}
	orders, err := s.Store.Purchases(ctx, "")
	if err != nil {
		return store.Purchase{}, err
	}
	i := slices.IndexFunc(orders, func(p store.Purchase) bool { return p.ID == id })
	if i < 0 {
		return store.Purchase{}, store.ErrNotFound
	}
	sellers, err := s.sellers(ctx)
	if err != nil {
		return store.Purchase{}, err
	}
	return s.Store.Place(ctx, id, on, day.AddDate(0, 0, sellerOf(sellers, orders[i].Supplier).Days).Format(time.DateOnly))
}

// Instead is another piece in place of the one that hangs everywhere, or other sections, or both.
type Instead struct {
	Item   string `json:"item,omitempty" maxLength:"64" doc:"Id of the item; left out for the piece as it is"`
	Colour string `json:"colour,omitempty" maxLength:"40"`
	// Scale is how many times as wide and as high sections are; 0 for as they are.
	Scale float64 `json:"scale,omitempty" minimum:"0" maximum:"3" doc:"How many times as wide and as high sections are; left out for as they are"`
}

// name says what is instead, where no piece does.
func (i Instead) name() string {
	switch {
	case i.Scale > 1:
		return "Fewer, larger sections"
	case i.Scale > 0 && i.Scale < 1:
		return "More, smaller sections"
	}
	return ""
}

// Alternative is what a plan comes to with another piece.
type Alternative struct {
	Name      string  `json:"name"`
	Item      string  `json:"item,omitempty" doc:"Id of the item; left out where the piece is as it is"`
	Scale     float64 `json:"scale,omitempty" doc:"How many times as wide and high sections are; left out where they are as they are"`
	Sections  int     `json:"sections"`
	Colour    string  `json:"colour"`
	Thickness float64 `json:"thicknessMm"`
	Length    float64 `json:"lengthMm"`
	Pieces    int     `json:"pieces"`
	Packs     int     `json:"packs"`
	Stash     int     `json:"stash" doc:"Pieces of the need that lie in the stash"`
	Cost      int64   `json:"costMinor" doc:"What is bought, with delivery"`
	Minutes   float64 `json:"minutes"`
	Weight    float64 `json:"weightG"`
	Notices   int     `json:"notices"`
	// Trouble says why it cannot be.
	Trouble string `json:"trouble,omitempty"`
}

// maxAlternatives is how many are set side by side.
const maxAlternatives = 4

// Alternatives sets the plan beside itself with other pieces of the supplies in place of the one
// that hangs everywhere.
func (s *Studio) Alternatives(ctx context.Context, planID string, in plan.Input, others []Instead) ([]Alternative, error) {
	if len(others) > maxAlternatives {
		var bad invalid.Errors
		bad.Count("others", "The number of alternatives", len(others), 0, maxAlternatives)
		return nil, bad
	}
	first, err := s.alternative(ctx, planID, in)
	if err != nil {
		return nil, err
	}
	out := []Alternative{first}
	for _, o := range others {
		other, name := in, o.name()
		var bad error
		if o.Item != "" {
			item, err := s.Store.Item(ctx, o.Item)
			if err != nil {
				return nil, err
			}
			other, bad = in.With(item.Item.Piece("", o.Item, o.Colour))
			name = item.Name
		}
		if o.Scale > 0 {
			other = other.Scaled(o.Scale)
		}
		var a Alternative
		if bad == nil {
			a, bad = s.alternative(ctx, planID, other)
		}
		if refused := invalid.From(bad); refused != nil {
			a = Alternative{Trouble: refused[0].Message}
		} else if bad != nil {
			return nil, bad
		}
		a.Name, a.Item, a.Scale = name, o.Item, o.Scale
		if o.Item != "" {
			a.Colour = o.Colour
		}
		out = append(out, a)
	}
	return out, nil
}

func (s *Studio) alternative(ctx context.Context, planID string, in plan.Input) (Alternative, error) {
	res, err := tally.Compute(ctx, in)
	if err != nil {
		return Alternative{}, err
	}
	shop, err := s.Shop(ctx, planID, in)
	if err != nil {
		return Alternative{}, err
	}
	p := in.Piece(in.Uses[0].Piece)
	a := Alternative{
		Name: p.Name, Colour: p.Colour, Thickness: p.Thickness, Length: p.Length, Pieces: res.Tally.Pieces, Sections: res.Tally.Sections,
		Cost: shop.Goods + shop.Fees, Minutes: res.Tally.Minutes, Weight: math.Round(res.Tally.Weight), Notices: res.Tally.Notices,
	}
	for _, l := range shop.Lines {
		a.Stash += l.Stash
	}
	for _, o := range shop.Orders {
		for _, l := range o.Lines {
			a.Packs += l.Packs()
		}
	}
	return a, nil
}

// Prepare keeps how much of a task of a plan's preparation is done.
func (s *Studio) Prepare(ctx context.Context, planID, task string, done int, by string) error {
	if _, err := s.Store.Plan(ctx, planID); err != nil {
		return fmt.Errorf("preparing: %w", err)
	}
	return s.Store.Prepare(ctx, planID, task, done, by)
}

// daysBefore is the date days before a day; empty where that is open.
func daysBefore(day string, days int) string {
	d, err := time.Parse(time.DateOnly, day)
	if err != nil {
		return ""
	}
	return d.AddDate(0, 0, -days).Format(time.DateOnly)
}
