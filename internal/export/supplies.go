package export

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"kladotex/core/hair"
	"kladotex/core/supply"
)

// ItemRow is a line of the table of pieces: an item and one of its offers. An item with several
// offers has several lines.
type ItemRow struct {
	ID    string
	Item  supply.Item
	Offer *hair.Offer
	Line  int
}

// millis writes a length in whole tenths of a millimetre.
func millis(mm float64) string { return plain(math.Round(mm*10) / 10) }

func yes(v bool) string {
	if v {
		return "yes"
	}
	return "no"
}

// itemColumns are those of the table of pieces; money is the minor units of a whole one.
func itemColumns(money float64) []column[ItemRow] {
	offer := func(r *ItemRow) *hair.Offer {
		if r.Offer == nil {
			r.Offer = &hair.Offer{Packs: 1}
		}
		return r.Offer
	}
	offered := func(r ItemRow, text func(hair.Offer) string) string {
		if r.Offer == nil {
			return ""
		}
		return text(*r.Offer)
	}
	return []column[ItemRow]{
		{name: "Name", aliases: []string{"piece", "product", "item"}, needed: true, get: func(r ItemRow) string { return r.Item.Name }, set: func(r *ItemRow, c cell) { r.Item.Name = c.text }},
		{name: "Kind", aliases: []string{"form", "type"}, needed: true, get: func(r ItemRow) string { return string(r.Item.Kind) }, set: func(r *ItemRow, c cell) { r.Item.Kind = kindNamed(c.text) }},
		{name: "Line", get: func(r ItemRow) string { return r.Item.Line }, set: func(r *ItemRow, c cell) { r.Item.Line = c.text }},
		{name: "Colours", aliases: []string{"colors", "colour", "color"}, get: func(r ItemRow) string { return coloursText(r.Item.Colours) }, set: func(r *ItemRow, c cell) { r.Item.Colours = coloursRead(c.text) }},
		{name: "Length (mm)", aliases: []string{"hanging length"}, kind: length, get: func(r ItemRow) string { return millis(r.Item.Length) }, set: func(r *ItemRow, c cell) { r.Item.Length = c.number }},
		{name: "Folded", kind: yesNo, get: func(r ItemRow) string { return yes(r.Item.Folded) }, set: func(r *ItemRow, c cell) { r.Item.Folded = c.yes }},
		{name: "Thickness (mm)", kind: length, get: func(r ItemRow) string { return plain(r.Item.Thickness) }, set: func(r *ItemRow, c cell) { r.Item.Thickness = c.number }},
		{name: "Weight of one (g)", aliases: []string{"mass", "weight"}, kind: number, get: func(r ItemRow) string { return plain(r.Item.Mass) }, set: func(r *ItemRow, c cell) { r.Item.Mass = c.number }},
		{name: "Loop (mm)", kind: length, get: func(r ItemRow) string { return plain(r.Item.Loop) }, set: func(r *ItemRow, c cell) { r.Item.Loop = c.number }},
		{name: "Bends", aliases: []string{"stiffness"}, get: func(r ItemRow) string { return string(r.Item.Stiffness) }, set: func(r *ItemRow, c cell) { r.Item.Stiffness = hair.Stiffness(strings.ToLower(c.text)) }},
		{name: "Fibre", aliases: []string{"fiber"}, get: func(r ItemRow) string { return string(r.Item.Fibre) }, set: func(r *ItemRow, c cell) {
			r.Item.Fibre = supply.Fibre(cmp.Or(strings.ToLower(c.text), string(supply.Synthetic)))
		}},
		{name: "Coated", kind: yesNo, get: func(r ItemRow) string { return yes(r.Item.Coated) }, set: func(r *ItemRow, c cell) { r.Item.Coated = c.yes }},
		{name: "In a pack", aliases: []string{"pack", "pieces a pack", "pieces per pack"}, kind: count, needed: true, get: func(r ItemRow) string { return fmt.Sprint(r.Item.Pack.Units) }, set: func(r *ItemRow, c cell) { r.Item.Pack.Units = int(c.number) }},
		{name: "Cuts", kind: count, get: func(r ItemRow) string { return fmt.Sprint(r.Item.Pack.Cuts) }, set: func(r *ItemRow, c cell) { r.Item.Pack.Cuts = int(c.number) }},
		{name: "Splits", kind: count, get: func(r ItemRow) string { return fmt.Sprint(r.Item.Pack.Splits) }, set: func(r *ItemRow, c cell) { r.Item.Pack.Splits = int(c.number) }},
		{name: "Supplier", get: func(r ItemRow) string { return offered(r, func(o hair.Offer) string { return o.Supplier }) }, set: func(r *ItemRow, c cell) {
			if !c.empty {
				offer(r).Supplier = c.text
			}
		}},
		{name: "Packs", aliases: []string{"packs in the offer"}, kind: count, get: func(r ItemRow) string {
			return offered(r, func(o hair.Offer) string { return fmt.Sprint(o.Packs) })
		}, set: func(r *ItemRow, c cell) {
			if !c.empty {
				offer(r).Packs = int(c.number)
			}
		}},
		{name: "Price", kind: amount, get: func(r ItemRow) string {
			return offered(r, func(o hair.Offer) string { return plain(float64(o.Price) / money) })
		}, set: func(r *ItemRow, c cell) {
			if !c.empty {
				offer(r).Price = int64(math.Round(c.number))
			}
		}},
		{name: "Currency", get: func(r ItemRow) string { return r.Item.Currency }, set: func(r *ItemRow, c cell) { r.Item.Currency = strings.ToUpper(c.text) }},
		{name: "Note", get: func(r ItemRow) string { return r.Item.Note }, set: func(r *ItemRow, c cell) { r.Item.Note = c.text }},
		{name: "Id", get: func(r ItemRow) string { return r.ID }, set: func(r *ItemRow, c cell) { r.ID = c.text }},
	}
}

// kindNamed finds a kind by its key or its name.
func kindNamed(text string) supply.Kind {
	text = strings.TrimSpace(text)
	for _, k := range supply.Kinds {
		if strings.EqualFold(text, string(k.Kind)) || strings.EqualFold(text, k.Name) {
			return k.Kind
		}
	}
	return supply.Kind(strings.ToLower(text))
}

// coloursText writes colours as "Tar #1b1714; Peat #2f2119 to #8a6238".
func coloursText(colours []supply.Colour) string {
	parts := make([]string, len(colours))
	for i, c := range colours {
		parts[i] = c.Name + " " + c.Swatch
		if c.Tip != "" {
			parts[i] += " to " + c.Tip
		}
	}
	return strings.Join(parts, "; ")
}

// unseen is the swatch of a colour that a table only names.
const unseen = "#6b5a48"

func coloursRead(text string) []supply.Colour {
	out := []supply.Colour{}
	for part := range strings.SplitSeq(text, ";") {
		part = strings.TrimSpace(part)
		if part == "" {
			continue
		}
		c := supply.Colour{Swatch: unseen}
		if head, tip, ok := strings.Cut(part, " to #"); ok {
			part, c.Tip = head, strings.ToLower("#"+strings.TrimSpace(tip))
		}
		if name, hex, ok := strings.Cut(part, "#"); ok {
			part, c.Swatch = strings.TrimSpace(name), strings.ToLower("#"+strings.TrimSpace(hex))
		}
		c.Name = part
		out = append(out, c)
	}
	return out
}

// WriteItems is the table of pieces; money is the minor units of a whole one of the currency.
func WriteItems(rows []ItemRow, money float64) []byte { return write(itemColumns(money), rows) }

// ReadItems reads a table of pieces. Lines of one name or id after the first are its further
// offers.
func ReadItems(raw []byte, currency string, money float64, progress func(lines int) error) ([]ItemRow, []LineError, error) {
	rows, bad, err := read(raw, itemColumns(money), money, progress)
	if err != nil {
		return nil, nil, err
	}
	var out []ItemRow
	at := map[string]int{}
	for _, r := range rows {
		v := r.value
		v.Line = r.line
		key := cmp.Or(v.ID, strings.ToLower(v.Item.Name))
		if i, again := at[key]; again && key != "" {
			if v.Offer != nil {
				out[i].Item.Offers = append(out[i].Item.Offers, *v.Offer)
			}
			continue
		}
		at[key] = len(out)
		i := &v.Item
		i.Schema, i.Currency = supply.ItemSchema, cmp.Or(i.Currency, currency)
		i.Fibre = cmp.Or(i.Fibre, supply.Synthetic)
		i.Pack.Cuts, i.Pack.Splits = cmp.Or(i.Pack.Cuts, 1), cmp.Or(i.Pack.Splits, 1)
		i.Offers, i.Articles = []hair.Offer{}, []supply.Article{}
		if i.Colours == nil {
			i.Colours = []supply.Colour{}
		}
		if v.Offer != nil {
			i.Offers = append(i.Offers, *v.Offer)
		}
		out = append(out, v)
	}
	return out, bad, nil
}

// itemFields are the columns of an item's fields, by the paths a refusal names.
var itemFields = map[string]string{
	"name": "Name", "kind": "Kind", "line": "Line", "colours": "Colours", "lengthMm": "Length (mm)", "thicknessMm": "Thickness (mm)",
	"massG": "Weight of one (g)", "loopMm": "Loop (mm)", "stiffness": "Bends", "fibre": "Fibre", "pack": "In a pack", "offers": "Price",
	"currency": "Currency", "note": "Note",
}

// ItemColumn is the column of a field of an item, by the path a refusal names.
func ItemColumn(path string) string {
	head, _, _ := strings.Cut(path, ".")
	head, _, _ = strings.Cut(head, "[")
	return itemFields[head]
}

// LotRow is a line of the table of the stash.
type LotRow struct {
	ID   string
	Item string // its name
	Lot  supply.Lot
	supply.Stock
	Line int
}

var lotColumns = []column[LotRow]{
	{name: "Piece", aliases: []string{"name", "item"}, needed: true, get: func(r LotRow) string { return r.Item }, set: func(r *LotRow, c cell) { r.Item = c.text }},
	{name: "Colour", aliases: []string{"color"}, get: func(r LotRow) string { return r.Lot.Colour }, set: func(r *LotRow, c cell) { r.Lot.Colour = c.text }},
	{name: "Shut packs", aliases: []string{"packs"}, kind: count, get: func(r LotRow) string { return fmt.Sprint(r.Packs) }, set: func(r *LotRow, c cell) { r.Packs = int(c.number) }},
	{name: "Loose", aliases: []string{"loose pieces", "pieces"}, kind: count, get: func(r LotRow) string { return fmt.Sprint(r.Loose) }, set: func(r *LotRow, c cell) { r.Loose = int(c.number) }},
	{name: "In a pack", aliases: []string{"pack"}, kind: count, get: func(r LotRow) string { return fmt.Sprint(r.Lot.Pack) }, set: func(r *LotRow, c cell) { r.Lot.Pack = int(c.number) }},
	{name: "Worn", aliases: []string{"round", "times worn"}, kind: count, get: func(r LotRow) string { return fmt.Sprint(r.Lot.Round) }, set: func(r *LotRow, c cell) { r.Lot.Round = int(c.number) }},
	{name: "Condition", get: func(r LotRow) string { return string(r.Lot.Condition) }, set: func(r *LotRow, c cell) { r.Lot.Condition = supply.Condition(strings.ToLower(c.text)) }},
	{name: "Cut to (mm)", kind: length, get: func(r LotRow) string {
		if r.Lot.Length == 0 {
			return ""
		}
		return millis(r.Lot.Length)
	}, set: func(r *LotRow, c cell) { r.Lot.Length = c.number }},
	{name: "Supplier", get: func(r LotRow) string { return r.Lot.Supplier }, set: func(r *LotRow, c cell) { r.Lot.Supplier = c.text }},
	{name: "Id", get: func(r LotRow) string { return r.ID }, set: func(r *LotRow, c cell) { r.ID = c.text }},
}

// WriteLots is the table of the stash.
func WriteLots(rows []LotRow) []byte { return write(lotColumns, rows) }

// ReadLots reads a table of the stash. A lot that stands in it twice is refused.
func ReadLots(raw []byte, progress func(lines int) error) ([]LotRow, []LineError, error) {
	rows, bad, err := read(raw, lotColumns, 1, progress)
	if err != nil {
		return nil, nil, err
	}
	out := make([]LotRow, 0, len(rows))
	lines := map[string]int{}
	for _, r := range rows {
		v := r.value
		v.Line = r.line
		if before, twice := lines[v.ID]; twice && v.ID != "" {
			bad = append(bad, LineError{r.line, "Id", fmt.Sprintf("This lot stands in line %d already: a lot has one line.", before)})
			continue
		}
		lines[v.ID] = r.line
		if v.Lot.Condition == "" {
			v.Lot.Condition = supply.New
			if v.Lot.Round > 0 {
				v.Lot.Condition = supply.Good
			}
		}
		out = append(out, v)
	}
	return out, bad, nil
}

// OrderRow is a line of the table of orders.
type OrderRow struct {
	Supplier, Item, Colour string
	Offer                  hair.Offer
	Count                  int
	Pack                   int
	State, Due             string
	Currency               string
	Line                   int
}

func orderColumns(money float64) []column[OrderRow] {
	return []column[OrderRow]{
		{name: "Supplier", get: func(r OrderRow) string { return r.Supplier }, set: func(r *OrderRow, c cell) { r.Supplier = c.text }},
		{name: "Piece", aliases: []string{"name", "item"}, needed: true, get: func(r OrderRow) string { return r.Item }, set: func(r *OrderRow, c cell) { r.Item = c.text }},
		{name: "Colour", aliases: []string{"color"}, get: func(r OrderRow) string { return r.Colour }, set: func(r *OrderRow, c cell) { r.Colour = c.text }},
		{name: "How many", aliases: []string{"count", "quantity"}, kind: count, needed: true, get: func(r OrderRow) string { return fmt.Sprint(r.Count) }, set: func(r *OrderRow, c cell) { r.Count = int(c.number) }},
		{name: "Packs", aliases: []string{"packs in the offer"}, kind: count, get: func(r OrderRow) string { return fmt.Sprint(r.Offer.Packs) }, set: func(r *OrderRow, c cell) { r.Offer.Packs = int(c.number) }},
		{name: "In a pack", kind: count, get: func(r OrderRow) string { return fmt.Sprint(r.Pack) }, set: func(r *OrderRow, c cell) { r.Pack = int(c.number) }},
		{name: "Price", kind: amount, get: func(r OrderRow) string { return plain(float64(r.Offer.Price) / money) }, set: func(r *OrderRow, c cell) { r.Offer.Price = int64(math.Round(c.number)) }},
		{name: "Currency", get: func(r OrderRow) string { return r.Currency }, set: func(r *OrderRow, c cell) { r.Currency = strings.ToUpper(c.text) }},
		{name: "State", get: func(r OrderRow) string { return r.State }, set: func(r *OrderRow, c cell) { r.State = c.text }},
		{name: "Due", get: func(r OrderRow) string { return r.Due }, set: func(r *OrderRow, c cell) { r.Due = c.text }},
	}
}

// WriteOrders is the table of orders.
func WriteOrders(rows []OrderRow, money float64) []byte { return write(orderColumns(money), rows) }

// ReadOrders reads a table of orders.
func ReadOrders(raw []byte, currency string, money float64, progress func(lines int) error) ([]OrderRow, []LineError, error) {
	rows, bad, err := read(raw, orderColumns(money), money, progress)
	if err != nil {
		return nil, nil, err
	}
	out := make([]OrderRow, len(rows))
	for i, r := range rows {
		out[i] = r.value
		o := &out[i]
		o.Line, o.Offer.Packs, o.Currency = r.line, cmp.Or(o.Offer.Packs, 1), cmp.Or(o.Currency, currency)
		o.Offer.Supplier = o.Supplier
		for _, c := range []struct {
			name      string
			v         int
			low, high int
		}{{"How many", o.Count, 1, 500}, {"Packs", o.Offer.Packs, 1, 50}} {
			if c.v < c.low || c.v > c.high {
				bad = append(bad, LineError{o.Line, c.name, fmt.Sprintf("It must be between %d and %d; it is %d.", c.low, c.high, c.v)})
			}
		}
		if o.Offer.Price < 0 || o.Offer.Price > hair.MaxPrice {
			bad = append(bad, LineError{o.Line, "Price", "A price must not be below nothing, nor above ten thousand."})
		}
		if o.Currency != currency {
			bad = append(bad, LineError{o.Line, "Currency", fmt.Sprintf("The price is in %s and your studio counts in %s.", o.Currency, currency)})
		}
	}
	slices.SortStableFunc(out, func(a, b OrderRow) int { return cmp.Compare(a.Supplier, b.Supplier) })
	return out, bad, nil
}

// ListRow is a line of a plan's shopping and preparation list.
type ListRow struct {
	What, From, Name, Colour string
	Count                    int
	Unit                     string
	Minutes                  float64
	Price                    float64 // whole units of the currency
	Currency, By             string
}

var listColumns = []column[ListRow]{
	{name: "To do", get: func(r ListRow) string { return r.What }},
	{name: "From", get: func(r ListRow) string { return r.From }},
	{name: "What", get: func(r ListRow) string { return r.Name }},
	{name: "Colour", get: func(r ListRow) string { return r.Colour }},
	{name: "How many", get: func(r ListRow) string { return orNothing(float64(r.Count)) }},
	{name: "Unit", get: func(r ListRow) string { return r.Unit }},
	{name: "Minutes", get: func(r ListRow) string { return orNothing(math.Ceil(r.Minutes)) }},
	{name: "Price", get: func(r ListRow) string { return orNothing(r.Price) }},
	{name: "Currency", get: func(r ListRow) string { return r.Currency }},
	{name: "By", get: func(r ListRow) string { return r.By }},
}

func orNothing(v float64) string {
	if v == 0 {
		return ""
	}
	return plain(v)
}

// WriteList is a shopping and preparation list.
func WriteList(rows []ListRow) []byte { return write(listColumns, rows) }
