package supply

import (
	"fmt"
	"math/bits"
	"slices"

	"kladotex/core/hair"
)

// OrderLine is a number of the same offer.
type OrderLine struct {
	Offer hair.Offer `json:"offer"`
	Count int        `json:"count"`
}

// Order is what to buy for a need.
type Order struct {
	Need     int         `json:"need" doc:"Pieces or strands needed"`
	Packs    int         `json:"packs"`
	Units    int         `json:"units" doc:"Pieces or strands in those packs"`
	Leftover int         `json:"leftover" doc:"Pieces or strands left over"`
	Cost     int64       `json:"costMinor"`
	Lines    []OrderLine `json:"lines"`
}

// Buy finds the cheapest combination of offers of packs of yield units that
// covers need, whoever sells them; of equally cheap ones, that with the fewest packs, and
// so the least left over. It refuses a
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

// Want is one line to be bought: packs of yield units that cover a need.
type Want struct {
	Key    string
	Need   int
	Yield  int
	Offers []hair.Offer
}

// MaxSellers is how many sellers are tried in every combination.
const MaxSellers = 8

// Purchase is what is bought, and from which sellers.
type Purchase struct {
	// Orders are those of the wants, in their order.
	Orders []Order
	// Sellers are the keys of those who deliver for a fee, sorted.
	Sellers []string
	Goods   int64 // minor units
	Fees    int64 // minor units
}

// Total is what all of it costs.
func (p Purchase) Total() int64 { return p.Goods + p.Fees }

// PurchaseAll finds the cheapest way to buy all wants: every combination of sellers is tried, each want
// bought in the cheapest way of those, with one fee for every seller taken. Of equally cheap
// ones that with the fewest packs is taken, then that of the fewest sellers. Offers of nobody
// named are bought in any shop without a fee. It refuses wants that nobody sells, and more than
// eight sellers.
func PurchaseAll(wants []Want, sellers []Seller) (Purchase, error) {
	if len(sellers) > MaxSellers {
		return Purchase{}, fmt.Errorf("supply: %d sellers; up to %d can be compared", len(sellers), MaxSellers)
	}
	known := func(key string) int { return slices.IndexFunc(sellers, func(s Seller) bool { return s.Key == key }) }
	var best Purchase
	var bestPacks int
	found := false
	var failed error
combination:
	for set := range uint(1) << len(sellers) {
		p := Purchase{Orders: make([]Order, len(wants))}
		packs, used := 0, uint(0)
		for i, w := range wants {
			if w.Need <= 0 {
				p.Orders[i] = Order{Lines: []OrderLine{}}
				continue
			}
			var open []hair.Offer
			for _, o := range w.Offers {
				if k := known(o.Supplier); k < 0 || set&(1<<k) != 0 {
					open = append(open, o)
				}
			}
			order, err := Buy(w.Need, w.Yield, open)
			if err != nil {
				failed = fmt.Errorf("%s: %w", w.Key, err)
				continue combination
			}
			p.Orders[i] = order
			p.Goods += order.Cost
			packs += order.Packs
			for _, l := range order.Lines {
				if k := known(l.Offer.Supplier); k >= 0 {
					used |= 1 << k
				}
			}
		}
		if used != set {
			continue // the same is found without those who sell nothing
		}
		for k, s := range sellers {
			if set&(1<<k) != 0 {
				p.Fees += s.Fee
				p.Sellers = append(p.Sellers, s.Key)
			}
		}
		better := !found || p.Total() < best.Total() || p.Total() == best.Total() &&
			(packs < bestPacks || packs == bestPacks && bits.OnesCount(set) < len(best.Sellers))
		if better {
			best, bestPacks, found = p, packs, true
		}
	}
	if !found {
		return Purchase{}, failed
	}
	slices.Sort(best.Sellers)
	return best, nil
}
