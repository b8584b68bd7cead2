package supply

import "math"

// Account is what came and went of pieces over a time, as pieces and as money. It closes:
// Opening + Bought = UsedUp + Spoilt + Given + Other + LeftNew + LeftSaved.
type Account struct {
	Opening int `json:"opening" doc:"Pieces there at the beginning"`
	Bought  int `json:"bought"`
	// UsedUp are those that went on heads and did not come back, Saved those that did: they are
	// used again, or lie in LeftSaved. UsedUp is below zero where more came back than went.
	UsedUp int `json:"usedUp"`
	Saved  int `json:"saved"`
	Spoilt int `json:"spoilt"`
	Given  int `json:"given"`
	// Other is what was counted or put right: above zero for pieces that were missing.
	Other int `json:"other"`
	// LeftNew and LeftSaved are there at the end, never worn and worn before.
	LeftNew   int `json:"leftNew"`
	LeftSaved int `json:"leftSaved"`
}

// Closes tells whether all that came is accounted for.
func (a Account) Closes() bool {
	return a.Opening+a.Bought == a.UsedUp+a.Spoilt+a.Given+a.Other+a.LeftNew+a.LeftSaved
}

// Posting is one line of the ledger with whether it lies in the time that is looked at, or before it.
type Posting struct {
	Entry
	Before bool
}

// AccountOf sums the ledger of one lot up to the end of a time. What was opened changes packs into
// pieces; where a pack held fewer than its label says, the rest was missing.
func AccountOf(l Lot, lines []Posting) Account {
	var a Account
	left := 0
	for _, line := range lines {
		n := Stock{line.Packs, line.Pieces}.Pieces(l.Pack)
		left += n
		if line.Before {
			a.Opening += n
			continue
		}
		switch line.Kind {
		case Bought:
			a.Bought += n
		case Used:
			a.UsedUp -= n
		case Saved:
			a.UsedUp -= n
			a.Saved += n
		case Spoilt:
			a.Spoilt -= n
		case Given:
			a.Given -= n
		default: // opened, counted, put right
			a.Other -= n
		}
	}
	if l.Round > 0 {
		a.LeftSaved = left
	} else {
		a.LeftNew = left
	}
	return a
}

// Plus is the sum of two accounts.
func (a Account) Plus(b Account) Account {
	return Account{
		a.Opening + b.Opening, a.Bought + b.Bought, a.UsedUp + b.UsedUp, a.Saved + b.Saved, a.Spoilt + b.Spoilt,
		a.Given + b.Given, a.Other + b.Other, a.LeftNew + b.LeftNew, a.LeftSaved + b.LeftSaved,
	}
}

// Times is an account in money, with a price for each piece in minor units. Pieces are whole and the
// price of one may not be: what rounding leaves goes to those used up, so that it closes too.
func (a Account) Times(price float64) Account {
	m := func(n int) int { return int(math.Round(price * float64(n))) }
	out := Account{
		Opening: m(a.Opening), Bought: m(a.Bought), Saved: m(a.Saved), Spoilt: m(a.Spoilt), Given: m(a.Given), Other: m(a.Other), LeftNew: m(a.LeftNew), LeftSaved: m(a.LeftSaved),
	}
	out.UsedUp = out.Opening + out.Bought - out.Spoilt - out.Given - out.Other - out.LeftNew - out.LeftSaved
	return out
}

// UnitPrice is the least a piece of an item costs in any of its offers, minor units; 0 where none has
// a price.
func (i Item) UnitPrice() float64 {
	least := 0.0
	for _, o := range i.Offers {
		if o.Packs > 0 && o.Price > 0 && i.Pack.Units > 0 {
			if p := float64(o.Price) / float64(o.Packs*i.Pack.Units); least == 0 || p < least {
				least = p
			}
		}
	}
	return least
}
