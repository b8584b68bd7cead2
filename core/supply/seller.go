package supply

import (
	"strings"

	"kladotex/core/invalid"
)

// Seller is who takes an order.
type Seller struct {
	// Key is what offers, lots and orders name it by; it stays when the name changes.
	Key  string `json:"key" maxLength:"64"`
	Name string `json:"name" maxLength:"60"`
	Note string `json:"note,omitempty" maxLength:"400" doc:"How to order there, whom to ask"`
	// Fee is the delivery of one order, minor units.
	Fee int64 `json:"feeMinor" doc:"Delivery of one order, minor units"`
	// Days is how long an order is on its way.
	Days int `json:"days" doc:"Days from order to door"`
	// Practice is true for one that is simulated: its lists and prices can be asked for.
	Practice bool `json:"practice" doc:"True for a simulated one, whose lists and prices can be asked for"`
	// Archived is true for one that is ordered from no more.
	Archived bool `json:"archived" doc:"True for one that is ordered from no more"`
}

// Bounds of a seller; the fee is in minor units.
const (
	maxSellerDays = 120
	maxSellerFee  = 100_000_000
)

// Check refuses a seller that cannot be, as [invalid.Errors] with paths relative to s.
func (s Seller) Check() error {
	var bad invalid.Errors
	bad.Letters("name", "The name of a supplier", strings.TrimSpace(s.Name), 1, 60)
	bad.Letters("note", "The note", s.Note, 0, 400)
	bad.Count("days", "The days an order is on its way", s.Days, 0, maxSellerDays)
	if s.Fee < 0 || s.Fee > maxSellerFee {
		bad.Add("feeMinor", "Delivery costs nothing or more, up to a million; write 0 where you fetch it.")
	}
	return bad.Err()
}

// Listed is an item as a seller lists it on a day.
type Listed struct {
	Number string `json:"number" doc:"The supplier's own number"`
	Item   Item   `json:"item"`
}
