// Package standin holds small simulated stand-ins for the world outside the
// studio. Everything in it is made up.
package standin

import (
	"kladotex/core/pieces"
	"kladotex/core/plan"
)

// PriceList is the simulated supplier's price list: piece lines with the facts
// of a piece and the ways it is sold. Prices are minor units.
func PriceList() []plan.Piece {
	const inch = 25.4
	once := plan.PerSection{Front: 1, Back: 1}
	pack := func(units int) pieces.Pack { return pieces.Pack{Units: units, Cuts: 1, Splits: 1} }
	offers := func(single int64, set int, price int64) []pieces.Offer {
		return []pieces.Offer{{Packs: 1, Price: single}, {Packs: set, Price: price}}
	}
	return []plan.Piece{
		{
			Line: "Driftline soft loc, 18 in", Form: pieces.Loc, Length: 18 * inch, Diameter: 9, Mass: 4.2,
			PerSection: once, Pack: pack(20), Offers: offers(1250, 6, 6600),
		}, {
			Line: "Driftline soft loc, 24 in", Form: pieces.Loc, Length: 24 * inch, Diameter: 9, Mass: 5.4,
			PerSection: once, Pack: pack(20), Offers: offers(1450, 6, 7700),
		}, {
			Line: "Saltspun twist, 14 in", Form: pieces.Twist, Length: 14 * inch, Diameter: 7, Mass: 2.1,
			PerSection: once, Pack: pack(30), Offers: offers(990, 7, 5900),
		}, {
			Line: "Saltspun twist, 22 in", Form: pieces.Twist, Length: 22 * inch, Diameter: 7, Mass: 3.1,
			PerSection: once, Pack: pack(24), Offers: offers(1150, 7, 6900),
		}, {
			Line: "Fernhook loc, 20 in", Form: pieces.Loc, Length: 20 * inch, Diameter: 11, Mass: 6.5,
			PerSection: once, Pack: pack(12), Offers: offers(1390, 3, 3750),
		}, {
			Line: "Quayside Wave bulk, 20 in folded", Form: pieces.Bulk, Length: 20 * inch, Diameter: 10, Mass: 3,
			PerSection: once, Pack: pieces.Pack{Units: 32, Cuts: 1, Splits: 2}, Offers: offers(820, 3, 2250),
		},
	}
}
