package studio

import (
	"cmp"
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"math"
	"reflect"
	"slices"
	"strings"

	"github.com/bojanz/currency"
	"github.com/google/uuid"

	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/supply"
	"kladotex/internal/export"
	"kladotex/internal/sheet"
	"kladotex/internal/store"
)

// Table is what can be carried out and read in as a table.
type Table string

// The tables.
const (
	PieceTable Table = "pieces"
	StashTable Table = "stash"
	OrderTable Table = "orders"
)

// money is the studio's currency with the minor units of a whole one.
func (s *Studio) money(ctx context.Context) (code string, minor float64, err error) {
	home, err := s.Store.House(ctx)
	if err != nil {
		return "", 0, err
	}
	digits, _ := currency.GetDigits(home.Rules.Currency)
	return home.Rules.Currency, math.Pow10(int(digits)), nil
}

// everyItem is each item, archived ones too.
func (s *Studio) everyItem(ctx context.Context) ([]store.Item, error) {
	var out []store.Item
	for _, archived := range []bool{false, true} {
		for page := (store.Page{Limit: 500}); ; {
			items, err := s.Store.Items(ctx, store.ItemWish{Archived: archived}, page)
			if err != nil {
				return nil, err
			}
			out = append(out, items...)
			if len(items) < page.Limit {
				break
			}
			page.After = items[len(items)-1].Cursor()
		}
	}
	return out, nil
}

// ExportTable writes a table as CSV.
func (s *Studio) ExportTable(ctx context.Context, t Table) ([]byte, error) {
	code, minor, err := s.money(ctx)
	if err != nil {
		return nil, err
	}
	sellers, err := s.sellers(ctx)
	if err != nil {
		return nil, err
	}
	// Tables name a supplier as people do.
	named := func(key string) string {
		if key == "" {
			return ""
		}
		return sellerOf(sellers, key).Name
	}
	switch t {
	case PieceTable:
		items, err := s.everyItem(ctx)
		if err != nil {
			return nil, err
		}
		var rows []export.ItemRow
		for _, i := range items {
			if i.Archived {
				continue
			}
			row := export.ItemRow{ID: i.ID, Item: i.Item}
			if len(i.Offers) == 0 {
				rows = append(rows, row)
			}
			for _, o := range i.Offers {
				o.Supplier = named(o.Supplier)
				row.Offer = &o
				rows = append(rows, row)
			}
		}
		return export.WriteItems(rows, minor), nil
	case StashTable:
		lots, err := s.Store.EveryLot(ctx)
		if err != nil {
			return nil, err
		}
		var rows []export.LotRow
		for _, l := range lots {
			if (l.Stock != supply.Stock{}) {
				l.Lot.Supplier = named(l.Lot.Supplier)
				rows = append(rows, export.LotRow{ID: l.ID, Item: l.Item.Name, Lot: l.Lot, Stock: l.Stock})
			}
		}
		return export.WriteLots(rows), nil
	default:
		orders, err := s.Store.Purchases(ctx, "")
		if err != nil {
			return nil, err
		}
		var rows []export.OrderRow
		for _, o := range orders {
			for _, l := range o.Lines {
				rows = append(rows, export.OrderRow{
					Supplier: named(o.Supplier), Item: l.Name, Colour: l.Colour, Offer: l.Offer, Count: l.Count, Pack: l.Pack, State: string(o.State), Due: o.Due, Currency: code,
				})
			}
		}
		return export.WriteOrders(rows, minor), nil
	}
}

// Imported is what reading a table in changes, or changed.
type Imported struct {
	Lines   int `json:"lines" doc:"Lines that were read"`
	New     int `json:"new"`
	Changed int `json:"changed"`
	Same    int `json:"same" doc:"Lines that change nothing"`
	// Repeated are those of Same that were read in before, with this very file.
	Repeated int `json:"repeated" doc:"Of those, lines that were read in before with this very file"`
	// Rows are the first of what is new or changed.
	Rows []ImportedRow `json:"rows"`
	// Errors are what is wrong, line by line, the first of them; Wrong is how many there are. With
	// any of them nothing is changed.
	Errors []export.LineError `json:"errors"`
	Wrong  int                `json:"wrong"`
	// Saved is true once it is done.
	Saved bool `json:"saved"`
}

// ImportedRow is one line of what changes.
type ImportedRow struct {
	Line int    `json:"line"`
	What string `json:"what" enum:"new,changed"`
	Name string `json:"name"`
	Says string `json:"says" doc:"What changes, in words"`
}

// shownRows is how many lines of a change and of what is wrong are sent.
const shownRows = 200

func (i *Imported) note(line int, what, name, says string) {
	switch what {
	case "new":
		i.New++
	case "changed":
		i.Changed++
	}
	if len(i.Rows) < shownRows {
		i.Rows = append(i.Rows, ImportedRow{line, what, name, says})
	}
}

func (i *Imported) fail(bad ...export.LineError) {
	i.Wrong += len(bad)
	i.Errors = append(i.Errors, bad[:min(len(bad), max(0, shownRows-len(i.Errors)))]...)
}

// Progress is told how many of how many lines are done; an error stops the work.
type Progress func(done, of int) error

// ImportTable reads a table in. Without save it only says what would change; with it all is changed at
// once, or, where a line is wrong or the work is stopped, nothing.
func (s *Studio) ImportTable(ctx context.Context, t Table, file []byte, save bool, by string, progress Progress) (Imported, error) {
	code, minor, err := s.money(ctx)
	if err != nil {
		return Imported{}, err
	}
	of := strings.Count(string(file), "\n")
	reading := func(lines int) error { return errors.Join(ctx.Err(), progress(lines, of)) }
	out := Imported{Rows: []ImportedRow{}, Errors: []export.LineError{}}
	switch t {
	case PieceTable:
		err = s.importItems(ctx, file, code, minor, save, &out, reading)
	case StashTable:
		err = s.importLots(ctx, file, save, by, &out, reading)
	default:
		err = s.importOrders(ctx, file, code, minor, save, &out, reading)
	}
	out.Saved = save && err == nil && out.Wrong == 0
	return out, err
}

func (s *Studio) importItems(ctx context.Context, file []byte, code string, minor float64, save bool, out *Imported, reading func(int) error) error {
	rows, bad, err := export.ReadItems(file, code, minor, reading)
	if err != nil {
		return err
	}
	out.fail(bad...)
	have, err := s.everyItem(ctx)
	if err != nil {
		return err
	}
	sellers, err := s.sellers(ctx)
	if err != nil {
		return err
	}
	byID, byName := map[string]*store.Item{}, map[string]*store.Item{}
	for k := range have {
		byID[have[k].ID], byName[strings.ToLower(have[k].Name)] = &have[k], &have[k]
	}
	var puts []store.ItemPut
	for _, r := range rows {
		out.Lines++
		old := byID[r.ID]
		if old == nil {
			old = byName[strings.ToLower(r.Item.Name)]
		}
		if old != nil {
			r.Item.Articles = old.Articles // tables do not carry them
		}
		if !out.keyed(sellers, r.Line, offered(r.Item.Offers)...) {
			continue
		}
		if refused := invalid.From(pricedIn(code, &r.Item)); refused != nil {
			for _, f := range refused {
				out.fail(export.LineError{Line: r.Line, Column: export.ItemColumn(f.Path), Message: f.Message})
			}
			continue
		}
		put := store.ItemPut{ID: uuid.NewString(), Draft: store.ItemDraft{Item: r.Item}}
		switch {
		case old == nil:
			out.note(r.Line, "new", r.Item.Name, fmt.Sprintf("%s, %d in a pack", r.Item.Kind.Facts().Name, r.Item.Pack.Units))
		default:
			says := itemChanges(old.Item, r.Item)
			if says == "" {
				out.Same++
				continue
			}
			put.ID, put.Version, put.Draft.Archived = old.ID, old.Version, old.Archived
			out.note(r.Line, "changed", r.Item.Name, says)
		}
		puts = append(puts, put)
	}
	if !save || out.Wrong > 0 {
		return nil
	}
	return s.Store.PutItems(ctx, puts, reading)
}

// offered are where the suppliers of offers stand.
func offered(offers []hair.Offer) (out []*string) {
	for k := range offers {
		out = append(out, &offers[k].Supplier)
	}
	return out
}

// keyed puts the keys of suppliers in the place of their names; false where one of them is not on file,
// which is noted.
func (i *Imported) keyed(sellers []supply.Seller, line int, names ...*string) bool {
	for _, name := range names {
		key, known := sellerNamed(sellers, *name)
		if !known {
			i.fail(export.LineError{Line: line, Column: "Supplier", Message: fmt.Sprintf("There is no supplier %q: enter it under Suppliers first, or leave it out for any shop.", *name)})
			return false
		}
		*name = key
	}
	return true
}

// itemChanges says which columns of an item differ; empty where none do.
func itemChanges(a, b supply.Item) string {
	var parts []string
	va, vb := reflect.ValueOf(a), reflect.ValueOf(b)
	for k := range va.NumField() {
		name := va.Type().Field(k).Name
		if !alike(va.Field(k).Interface(), vb.Field(k).Interface()) && name != "Schema" && name != "Articles" {
			path, _, _ := strings.Cut(va.Type().Field(k).Tag.Get("json"), ",")
			parts = append(parts, cmp.Or(export.ItemColumn(path), name))
		}
	}
	return strings.Join(parts, ", ")
}

// alike tells whether two values say the same; lengths may differ by the tenth of a millimetre that tables
// keep, and an empty list is none.
func alike(a, b any) bool {
	if x, ok := a.(float64); ok {
		y, _ := b.(float64)
		return math.Abs(x-y) < 0.06
	}
	va, vb := reflect.ValueOf(a), reflect.ValueOf(b)
	if va.Kind() == reflect.Slice && va.Len() == 0 && vb.Len() == 0 {
		return true
	}
	return reflect.DeepEqual(a, b)
}

func (s *Studio) importLots(ctx context.Context, file []byte, save bool, by string, out *Imported, reading func(int) error) error {
	rows, bad, err := export.ReadLots(file, reading)
	if err != nil {
		return err
	}
	out.fail(bad...)
	items, err := s.everyItem(ctx)
	if err != nil {
		return err
	}
	lots, err := s.Store.EveryLot(ctx)
	if err != nil {
		return err
	}
	sellers, err := s.sellers(ctx)
	if err != nil {
		return err
	}
	byName, byID := map[string]*store.Item{}, map[string]*store.Lot{}
	for k := range items {
		byName[strings.ToLower(items[k].Name)] = &items[k]
	}
	for k := range lots {
		byID[lots[k].ID] = &lots[k]
	}
	var puts []store.LotPut
	line := linesOf(file)
	for _, r := range rows {
		out.Lines++
		item := byName[strings.ToLower(r.Item)]
		if item == nil {
			out.fail(export.LineError{Line: r.Line, Column: "Piece", Message: fmt.Sprintf("There is no piece %q on file: put it on file first, or correct the name.", r.Item)})
			continue
		}
		if !out.keyed(sellers, r.Line, &r.Lot.Supplier) {
			continue
		}
		r.Lot.Pack = cmp.Or(r.Lot.Pack, item.Pack.Units)
		var refused invalid.Errors
		r.Lot.Check(&refused, "")
		if r.Packs < 0 || r.Loose < -r.Lot.Pack {
			refused.Add("loose", "There cannot be fewer than none.")
		}
		if len(refused) > 0 {
			for _, f := range refused {
				out.fail(export.LineError{Line: r.Line, Column: lotFields[f.Path], Message: f.Message})
			}
			continue
		}
		name := strings.TrimSuffix(item.Name+", "+r.Lot.Colour, ", ")
		move := store.MoveDraft{ID: uuid.NewString(), Kind: supply.Counted, Stock: r.Stock, By: by, Reason: "read in from a table"}
		old := byID[r.ID]
		switch {
		case r.ID != "" && old == nil:
			out.fail(export.LineError{Line: r.Line, Column: "Id", Message: "There is no such lot; leave the id out for a new one."})
			continue
		case old != nil && old.Stock == r.Stock:
			out.Same++
			continue
		case old != nil:
			out.note(r.Line, "changed", name, fmt.Sprintf("%d packs and %d loose, where there were %d and %d", r.Packs, r.Loose, old.Packs, old.Loose))
			puts = append(puts, store.LotPut{Lot: store.LotDraft{ID: r.ID}, Move: move})
		case byID[line(r.Line)] != nil:
			out.Same++
			out.Repeated++
			continue
		default:
			out.note(r.Line, "new", name, fmt.Sprintf("%d packs and %d loose", r.Packs, r.Loose))
			move.Kind = supply.Bought
			if r.Lot.Round > 0 {
				move.Kind = supply.Saved
			}
			puts = append(puts, store.LotPut{Lot: store.LotDraft{ID: line(r.Line), Item: item.ID, Lot: r.Lot}, Move: move})
		}
	}
	if !save || out.Wrong > 0 {
		return nil
	}
	return s.Store.PutLots(ctx, puts, reading)
}

// linesOf names the lines of a file, by all that is in it: the same file read in once more has the same names.
func linesOf(file []byte) func(line int) string {
	space := uuid.NewHash(sha256.New(), uuid.NameSpaceOID, file, 5)
	return func(line int) string { return uuid.NewSHA1(space, fmt.Append(nil, line)).String() }
}

// lotFields are the columns of a lot's fields, by the paths a refusal names.
var lotFields = map[string]string{"colour": "Colour", "lengthMm": "Cut to (mm)", "pack": "In a pack", "round": "Worn", "condition": "Condition", "loose": "Loose"}

func (s *Studio) importOrders(ctx context.Context, file []byte, code string, minor float64, save bool, out *Imported, reading func(int) error) error {
	rows, bad, err := export.ReadOrders(file, code, minor, reading)
	if err != nil {
		return err
	}
	out.fail(bad...)
	items, err := s.everyItem(ctx)
	if err != nil {
		return err
	}
	known, err := s.Store.Purchases(ctx, "")
	if err != nil {
		return err
	}
	sellers, err := s.sellers(ctx)
	if err != nil {
		return err
	}
	name := linesOf(file)
	var orders []store.Purchase
	for _, r := range rows {
		out.Lines++
		if r.State == string(store.Arrived) || r.State == string(store.Ordered) {
			out.Same++ // what is under way or arrived is not ordered once more
			continue
		}
		if !out.keyed(sellers, r.Line, &r.Supplier, &r.Offer.Supplier) {
			continue
		}
		line := store.PurchaseLine{Name: r.Item, Colour: r.Colour, Pack: r.Pack, Offer: r.Offer, Count: r.Count}
		if k := slices.IndexFunc(items, func(i store.Item) bool { return strings.EqualFold(i.Name, r.Item) }); k >= 0 {
			line.Item, line.Pack = items[k].ID, cmp.Or(r.Pack, items[k].Pack.Units)
		}
		if line.Pack < 1 {
			out.fail(export.LineError{Line: r.Line, Column: "In a pack", Message: fmt.Sprintf("%q is not on file: say what a pack of it holds, 1 or more.", r.Item)})
			continue
		}
		if n := len(orders); n == 0 || orders[n-1].Supplier != r.Supplier {
			orders = append(orders, store.Purchase{ID: name(r.Line), Supplier: r.Supplier, State: store.Listed})
		}
		last := &orders[len(orders)-1]
		last.Lines = append(last.Lines, line)
		if slices.ContainsFunc(known, func(p store.Purchase) bool { return p.ID == last.ID }) {
			out.Same++
			out.Repeated++
			continue
		}
		out.note(r.Line, "new", r.Item, fmt.Sprintf("%d × %d packs of %s", r.Count, r.Offer.Packs, sellerOf(sellers, r.Supplier).Name))
	}
	if !save || out.Wrong > 0 {
		return nil
	}
	return s.Store.ListPurchases(ctx, "", orders)
}

// shopped is a stored plan with its shopping.
func (s *Studio) shopped(ctx context.Context, planID string) (store.Plan, Shopping, error) {
	p, err := s.Store.Plan(ctx, planID)
	if err != nil {
		return store.Plan{}, Shopping{}, err
	}
	shop, err := s.Shop(ctx, planID, p.Input)
	return p, shop, err
}

// ShopTable is a plan's shopping and preparation as one table.
func (s *Studio) ShopTable(ctx context.Context, planID string) (title string, table []byte, err error) {
	p, shop, err := s.shopped(ctx, planID)
	if err != nil {
		return "", nil, err
	}
	code, minor, err := s.money(ctx)
	if err != nil {
		return "", nil, err
	}
	var rows []export.ListRow
	for _, o := range shop.Orders {
		for _, l := range o.Lines {
			rows = append(rows, export.ListRow{
				What: "buy", From: o.Name, Name: l.Name, Colour: l.Colour, Count: l.Count * l.Offer.Packs, Unit: "packs",
				Price: float64(int64(l.Count)*l.Offer.Price) / minor, Currency: code, By: o.OrderBy,
			})
		}
	}
	for _, t := range shop.Tasks {
		rows = append(rows, export.ListRow{What: "prepare", Name: t.Title, Count: t.Count, Unit: t.Unit, Minutes: t.Minutes, By: daysBefore(p.Input.InstallDay(), t.Before)})
	}
	return p.Title, export.WriteList(rows), nil
}

// ShopSheet writes a plan's shopping and preparation as PDF, to be ticked off by hand.
func (s *Studio) ShopSheet(ctx context.Context, planID string, unit sheet.Unit, paper string) (title string, pdf []byte, err error) {
	p, shop, err := s.shopped(ctx, planID)
	if err != nil {
		return "", nil, err
	}
	home, err := s.Store.House(ctx)
	if err != nil {
		return "", nil, err
	}
	code, _, err := s.money(ctx)
	if err != nil {
		return "", nil, err
	}
	list := sheet.Shopping{
		Title: p.Title, Client: p.Client, Updated: p.Updated, Install: p.Input.InstallDay(), HomeBy: shop.HomeBy, RinseOn: shop.RinseOn,
		Tasks: shop.Tasks, Done: map[string]int{},
	}
	for _, done := range shop.Prepared {
		list.Done[done.Task] = done.Done
	}
	wants := wantedOf(p.Input, shop.Need)
	for k, line := range slices.Concat(shop.Lines, shop.Wraps, shop.Things) {
		if line.Stash > 0 {
			name := strings.TrimSuffix(wants[k].name+", "+strings.ToLower(wants[k].colour), ", ")
			list.Stash = append(list.Stash, fmt.Sprintf("%d of %s", line.Stash, name))
		}
	}
	for _, o := range shop.Orders {
		order := sheet.ShopOrder{Name: o.Name, OrderBy: o.OrderBy, Fee: o.Fee, Total: o.Goods + o.Fee}
		for _, l := range o.Lines {
			sold := "pack"
			if l.Offer.Packs > 1 {
				sold = fmt.Sprintf("set of %d packs", l.Offer.Packs)
			}
			text := strings.TrimSuffix(fmt.Sprintf("%d × %s, %s, %s", l.Count, sold, l.Name, strings.ToLower(l.Colour)), ", ")
			order.Lines = append(order.Lines, sheet.ShopLine{Text: text, Price: int64(l.Count) * l.Offer.Price})
		}
		list.Orders = append(list.Orders, order)
	}
	pdf, err = sheet.ShoppingPDF(ctx, list, sheet.Style{Unit: unit, Paper: cmp.Or(home.Rules.Paper, paper), Currency: code})
	if err != nil {
		return "", nil, fmt.Errorf("shopping list of plan %s: %w", planID, err)
	}
	return p.Title, pdf, nil
}
