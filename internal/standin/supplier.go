// Package standin holds small simulated stand-ins for the world outside the
// studio. Everything in it is made up.
package standin

import "kladotex/core/hair"

// PriceList is the simulated supplier's price list: piece lines with the facts
// of a piece and the ways it is sold. Prices are minor units.
func PriceList() []hair.Piece {
	const inch = 25.4
	pack := func(units int) hair.Pack { return hair.Pack{Units: units, Cuts: 1, Splits: 1} }
	offers := func(single int64, set int, price int64) []hair.Offer {
		return []hair.Offer{{Packs: 1, Price: single}, {Packs: set, Price: price}}
	}
	return []hair.Piece{
		{
			Key: "driftline-18", Name: "Driftline soft loc, 18 in", Form: hair.SoftLoc, Length: 18 * inch, Thickness: 9, Mass: 4.2,
			Pack: pack(20), Offers: offers(1250, 6, 6600),
		}, {
			Key: "driftline-24", Name: "Driftline soft loc, 24 in", Form: hair.SoftLoc, Length: 24 * inch, Thickness: 9, Mass: 5.4,
			Pack: pack(20), Offers: offers(1450, 6, 7700),
		}, {
			Key: "saltspun-14", Name: "Saltspun twist, 14 in", Form: hair.Twist, Length: 14 * inch, Thickness: 7, Mass: 2.1,
			Pack: pack(30), Offers: offers(990, 7, 5900),
		}, {
			Key: "saltspun-22", Name: "Saltspun twist, 22 in", Form: hair.Twist, Length: 22 * inch, Thickness: 7, Mass: 3.1,
			Pack: pack(24), Offers: offers(1150, 7, 6900),
		}, {
			Key: "fernhook-20", Name: "Fernhook loc, 20 in", Form: hair.SoftLoc, Length: 20 * inch, Thickness: 11, Mass: 6.5,
			Pack: pack(12), Offers: offers(1390, 3, 3750),
		}, {
			Key: "quayside-20", Name: "Quayside Wave bulk, 20 in folded", Form: hair.Bulk, Length: 20 * inch, Thickness: 10, Mass: 3,
			Pack: hair.Pack{Units: 32, Cuts: 1, Splits: 2}, Offers: offers(820, 3, 2250),
		}, {
			Key: "saltspun-braid-18", Name: "Saltspun braid, 18 in", Form: hair.Braid, Length: 18 * inch, Thickness: 7, Mass: 2.6,
			Pack: pack(24), Offers: offers(1090, 7, 6500),
		}, {
			Key: "marlow-14", Name: "Marlow Coil, 14 in", Form: hair.CoilLoc, Length: 14 * inch, Thickness: 8, Mass: 3.4,
			Pack: pack(21), Offers: offers(1180, 6, 6200),
		}, {
			Key: "fernhook-made-22", Name: "Fernhook handmade loc, 22 in", Form: hair.HandmadeLoc, Length: 22 * inch, Thickness: 10, Mass: 6,
			Pack: pack(10), Offers: offers(1890, 3, 5100),
		}, {
			Key: "quayside-curl-12", Name: "Quayside Wave curl, 12 in folded", Form: hair.CurlyBulk, Length: 12 * inch, Thickness: 9, Mass: 1.8,
			Pack: hair.Pack{Units: 40, Cuts: 1, Splits: 1}, Offers: offers(780, 3, 2100),
		}, {
			Key: "marlow-braiding-26", Name: "Marlow braiding hair, 26 in", Form: hair.BraidingHair, Length: 26 * inch, Thickness: 8, Mass: 5,
			Pack: hair.Pack{Units: 3, Cuts: 1, Splits: 10}, Offers: offers(640, 6, 3500),
		},
	}
}
