// Package standin holds small simulated stand-ins for the world outside the
// studio. Everything in it is made up.
package standin

import (
	"hash/fnv"
	"math"
	"slices"
	"time"

	"kladotex/core/hair"
	"kladotex/core/supply"
)

const inch = 25.4

// Currency is that of both suppliers' prices.
const Currency = "USD"

// The two suppliers: one near and quick, one far, cheaper in sets and slow.
const (
	Chandlery  = "chandlery-row"
	Brackwater = "brackwater-post"
)

// Suppliers are those who can be ordered from.
var Suppliers = []supply.Seller{
	{Key: Chandlery, Name: "Chandlery Row Hair", Fee: 550, Days: 2, Practice: true},
	{Key: Brackwater, Name: "Brackwater Fibre Post", Fee: 890, Days: 6, Practice: true},
}

// The colours lines come in.
var (
	tar      = supply.Colour{Name: "Tar", Swatch: "#1b1714"}
	peat     = supply.Colour{Name: "Peat", Swatch: "#2f2119"}
	walnut   = supply.Colour{Name: "Walnut", Swatch: "#4a3021"}
	rope     = supply.Colour{Name: "Rope", Swatch: "#8a6238"}
	honey    = supply.Colour{Name: "Honey", Swatch: "#b98a4a"}
	driftOut = supply.Colour{Name: "Peat to rope", Swatch: "#2f2119", Tip: "#8a6238"}
	buoy     = supply.Colour{Name: "Buoy red", Swatch: "#8f2f24"}
	ash      = supply.Colour{Name: "Ash", Swatch: "#8d8a84"}
)

// article is a line of the lists, with what both suppliers ask for it: a single pack and a set.
type article struct {
	number string
	item   supply.Item
	// near and far are the offers of the two; one who does not carry it has none.
	near, far []hair.Offer
}

func offers(single int64, set int, price int64) []hair.Offer {
	return []hair.Offer{{Packs: 1, Price: single}, {Packs: set, Price: price}}
}

func pack(units int) hair.Pack { return hair.Pack{Units: units, Cuts: 1, Splits: 1} }

func item(kind supply.Kind, line, name string, length, thickness, mass, loop float64, p hair.Pack, colours ...supply.Colour) supply.Item {
	return supply.Item{
		Schema: supply.ItemSchema, Kind: kind, Line: line, Name: name, Length: length * inch, Thickness: thickness, Mass: mass, Loop: loop,
		Stiffness: hair.Supple, Fibre: supply.Synthetic, Coated: kind.Facts().Hair, Pack: p, Colours: colours, Currency: Currency,
	}
}

// articles are all lines. The first entries are the price list a plan starts from.
var articles = []article{
	{"D-18", item("soft-loc", "Driftline soft loc", "Driftline soft loc, 18 in", 18, 9, 4.2, 11, pack(20), tar, peat, walnut, driftOut, honey), offers(1250, 6, 6600), offers(1190, 8, 8100)},
	{"D-24", item("soft-loc", "Driftline soft loc", "Driftline soft loc, 24 in", 24, 9, 5.4, 11, pack(20), tar, peat, walnut, driftOut), offers(1450, 6, 7700), offers(1390, 8, 9600)},
	{"S-14", item("looped-twist", "Saltspun twist", "Saltspun twist, 14 in", 14, 7, 2.1, 8, pack(30), tar, peat, walnut, rope, buoy), offers(990, 7, 5900), offers(940, 10, 7900)},
	{"S-22", item("looped-twist", "Saltspun twist", "Saltspun twist, 22 in", 22, 7, 3.1, 8, pack(24), tar, peat, walnut, rope), offers(1150, 7, 6900), nil},
	{"F-20", item("soft-loc", "Fernhook loc", "Fernhook loc, 20 in", 20, 11, 6.5, 14, pack(12), tar, walnut, ash), offers(1390, 3, 3750), offers(1340, 4, 4700)},
	{"Q-20", loose(item("bulk", "Quayside Wave", "Quayside Wave bulk, 20 in folded", 20, 10, 6, 0, hair.Pack{Units: 32, Cuts: 1, Splits: 2}, tar, peat, honey)), offers(820, 3, 2250), offers(760, 6, 4050)},
	{"SB-18", item("looped-braid", "Saltspun braid", "Saltspun braid, 18 in", 18, 7, 2.6, 8, pack(24), tar, peat, rope), offers(1090, 7, 6500), nil},
	{"M-14", item("coil-loc", "Marlow Coil", "Marlow Coil, 14 in", 14, 8, 3.4, 10, pack(21), tar, walnut, honey), offers(1180, 6, 6200), offers(1120, 8, 7600)},
	{"FM-22", blend(item("handmade-loc", "Fernhook handmade", "Fernhook handmade loc, 22 in", 22, 10, 6, 13, pack(10), tar, walnut)), offers(1890, 3, 5100), nil},
	{"QC-12", loose(item("curly-bulk", "Quayside Wave", "Quayside Wave curl, 12 in folded", 12, 9, 1.8, 0, pack(40), tar, peat, honey)), offers(780, 3, 2100), offers(740, 6, 3900)},
	{"MB-30", braiding(item("braiding-hair", "Marlow braiding", "Marlow braiding hair, 30 in", 30, 8, 50, 0, hair.Pack{Units: 3, Cuts: 1, Splits: 10}, tar, peat, walnut, ash)), offers(640, 6, 3500), offers(590, 10, 5400)},

	{"MW-24", item("wrapping-hair", "Marlow wrap", "Marlow wrapping hair, 24 in", 24, 0, 1.7, 0, pack(60), tar, peat, walnut), offers(600, 5, 2700), offers(560, 8, 4000)},
	{"TB-200", item("bands", "", "Tidewheel thin bands, 200", 0, 0, 0.1, 0, pack(200), tar), offers(240, 5, 1000), nil},
	{"TC-12", item("cuffs", "", "Lantern cuffs, brass, 12", 0, 0, 0.6, 0, pack(12), supply.Colour{Name: "Brass", Swatch: "#b08d3c"}), offers(450, 4, 1600), offers(420, 6, 2300)},
	{"TT-1", item("thread", "", "Weaving thread, spool", 0, 0, 20, 0, pack(1), tar), offers(320, 4, 1150), nil},
	{"TH-1", item("hook", "", "Latch hook, fine", 0, 0, 12, 0, pack(1)), offers(390, 3, 1050), nil},
	{"TN-1", item("net", "", "Weaving net, one size", 0, 0, 14, 0, pack(1), tar), offers(470, 3, 1290), offers(430, 4, 1640)},
}

func loose(i supply.Item) supply.Item {
	i.Folded, i.Stiffness = true, ""
	return i
}

func braiding(i supply.Item) supply.Item {
	i.Stiffness = ""
	return i
}

func blend(i supply.Item) supply.Item {
	i.Fibre, i.Coated, i.Stiffness = supply.Blend, false, hair.Firm
	return i
}

// PriceList is what a plan may start from: pieces with the facts of a piece and the ways the
// near supplier sells them. Prices are minor units.
func PriceList() []hair.Piece {
	var out []hair.Piece
	for _, a := range articles {
		if !a.item.Kind.Facts().Hangs {
			continue
		}
		a.item.Offers = a.near
		out = append(out, a.item.Piece(a.number, "", ""))
	}
	return out
}

// List is what a supplier has on a day, with the prices of that day; nil for one that is unknown. Prices
// move a little from week to week.
func List(supplier string, day time.Time) []supply.Listed {
	if !slices.ContainsFunc(Suppliers, func(s supply.Seller) bool { return s.Key == supplier }) {
		return nil
	}
	year, week := day.ISOWeek()
	out := []supply.Listed{}
	for _, a := range articles {
		offers := a.near
		if supplier == Brackwater {
			offers = a.far
		}
		if offers == nil {
			continue
		}
		drift := 1.0
		if share(a.number, week) > 0.7 { // most lines keep their price from week to week
			drift += 0.06 * (share(a.number+supplier, year*53+week) - 0.4)
		}
		i := a.item
		i.Offers = make([]hair.Offer, len(offers))
		for k, o := range offers {
			i.Offers[k] = hair.Offer{Packs: o.Packs, Price: int64(math.Round(float64(o.Price)*drift/10)) * 10, Supplier: supplier}
		}
		i.Articles = []supply.Article{{Supplier: supplier, Number: a.number}}
		out = append(out, supply.Listed{Number: a.number, Item: i})
	}
	return out
}

// share is a number from 0 to 1 that is the same for the same name and step.
func share(name string, step int) float64 {
	h := fnv.New32a()
	_, _ = h.Write([]byte(name)) // a hash takes anything
	_, _ = h.Write([]byte{byte(step), byte(step >> 8)})
	return float64(h.Sum32()) / math.MaxUint32
}
