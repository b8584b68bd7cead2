// Package supply counts the hair a head needs and finds the cheapest way to buy it.
// Lengths are mm, money integer minor units of the studio's currency.
package supply

import (
	"fmt"
	"math"

	"kladotex/core/hair"
)

// Spares are bought above the count.
type Spares struct {
	Percent float64 `json:"percent" doc:"Spares as a percentage of the count"`
	Least   int     `json:"least" doc:"Spares at least"`
}

// Of is the number of spares for n pieces.
func (s Spares) Of(n int) int {
	// The last digits of a percentage are rounding, not a further piece.
	return max(s.Least, int(math.Ceil(float64(n)*s.Percent/100-1e-9)))
}

// OrderLine is a number of the same offer.
type OrderLine struct {
	Offer hair.Offer `json:"offer"`
	Count int        `json:"count"`
}

// Order is what to buy for a need.
type Order struct {
	Need     int         `json:"need" doc:"Units needed"`
	Packs    int         `json:"packs"`
	Units    int         `json:"units" doc:"Units in those packs"`
	Leftover int         `json:"leftover" doc:"Units left over"`
	Cost     int64       `json:"costMinor"`
	Lines    []OrderLine `json:"lines"`
}

// Buy finds the cheapest combination of offers of packs of yield units that
// covers need; of equally cheap ones, that with the fewest packs. It refuses a
// yield below one, no offers, and an offer without packs or with a negative
// price.
func Buy(need, yield int, offers []hair.Offer) (Order, error) {
	if yield < 1 {
		return Order{}, fmt.Errorf("supply: a pack of %d units covers nothing", yield)
	}
	if len(offers) == 0 {
		return Order{}, fmt.Errorf("supply: no offers")
	}
	for _, o := range offers {
		if o.Packs < 1 || o.Price < 0 {
			return Order{}, fmt.Errorf("supply: an offer of %d packs for %d", o.Packs, o.Price)
		}
	}
	wanted := (need + yield - 1) / yield
	// best[n] covers at least n packs.
	type state struct {
		cost         int64
		packs, offer int
	}
	best := make([]state, wanted+1)
	for n := 1; n <= wanted; n++ {
		for k, o := range offers {
			rest := best[max(0, n-o.Packs)]
			s := state{rest.cost + o.Price, rest.packs + o.Packs, k}
			if k == 0 || s.cost < best[n].cost || s.cost == best[n].cost && s.packs < best[n].packs {
				best[n] = s
			}
		}
	}
	counts := make([]int, len(offers))
	for n := wanted; n > 0; n -= offers[best[n].offer].Packs {
		counts[best[n].offer]++
	}
	order := Order{Need: need, Packs: best[wanted].packs, Cost: best[wanted].cost, Lines: []OrderLine{}}
	order.Units = order.Packs * yield
	order.Leftover = order.Units - need
	for k, n := range counts {
		if n > 0 {
			order.Lines = append(order.Lines, OrderLine{offers[k], n})
		}
	}
	return order, nil
}

// WrapRibbon is the length in mm of a ribbon of hair of the given visible width
// wound as a helix over length mm of a base of diameter mm:
// turns × √((πD)² + w²).
func WrapRibbon(length, diameter, width float64) float64 {
	return length / width * math.Hypot(math.Pi*diameter, width)
}
