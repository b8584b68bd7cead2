// Package need says what a solved plan takes of hair and small things: how much of each to buy,
// how far the packs go on the head, and what is prepared at home.
package need

import (
	"fmt"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/plan"
	"kladotex/core/supply"
)

// Need is what to buy.
type Need struct {
	// Pieces are the needs of those that hang somewhere, in the plan's order.
	Pieces []PieceNeed `json:"pieces"`
	// Wraps are the needs of the ways that wrap.
	Wraps []WrapNeed `json:"wraps"`
	// Things are the needs of accents that are no pieces, and of small bands.
	Things []ThingNeed `json:"things"`
}

// PieceNeed is the need of one piece.
type PieceNeed struct {
	Piece  string       `json:"piece" doc:"Key of the piece"`
	OnHead int          `json:"onHead" doc:"At places, without those to fill with"`
	Hooked int          `json:"hooked" doc:"Of them, those hooked on cornrows, on a net or on linked plaits"`
	Fill   int          `json:"fill"`
	Spares int          `json:"spares"`
	Order  supply.Order `json:"order"`
	// Accents are those of OnHead that are put on besides.
	Accents int `json:"accents" doc:"Of those on the head, the ones put on as accents"`
	// Amounts are how many to have; Enough is the chance that the packs ordered are enough.
	Amounts supply.Amounts `json:"amounts"`
	Enough  float64        `json:"enough" doc:"Chance that the packs ordered are enough"`
	// Without is how many packs are enough without any spares.
	Without int `json:"withoutSpares" doc:"Packs that are enough without any spares"`
}

// ThingNeed is the need of a small thing.
type ThingNeed struct {
	Accent int          `json:"accent" doc:"Index of the accent; -1 for small bands that methods and plaits take"`
	Name   string       `json:"name"`
	Count  int          `json:"count"`
	Order  supply.Order `json:"order"`
}

// NoAccent stands for the index of an accent where a thing is none.
const NoAccent = -1

// Thing is what is needed: of an accent, or small bands.
func (n ThingNeed) Thing(in plan.Input) plan.Thing {
	if n.Accent == NoAccent {
		return plan.UsualBands
	}
	return *in.Accents[n.Accent].Thing
}

// WrapNeed is the wrapping hair that one way needs.
type WrapNeed struct {
	Way     string       `json:"way" doc:"Key of the method"`
	Plaits  int          `json:"plaits" doc:"Plaits wrapped"`
	Strands int          `json:"strands" doc:"For all of them, without spares"`
	Order   supply.Order `json:"order"`
}

// Of folds the places into what to buy.
func Of(sol *plan.Solved) (Need, error) {
	in := sol.Input
	n := Need{Pieces: []PieceNeed{}, Wraps: []WrapNeed{}, Things: []ThingNeed{}}
	things, bands := make([]int, len(in.Accents)), 0
	pieces := make([]PieceNeed, len(in.Pieces))
	wraps := make([]WrapNeed, len(in.Ways))
	for i := range sol.Places {
		p := &sol.Places[i]
		if p.Kept {
			continue
		}
		pieces[p.Piece].OnHead += p.Count
		if p.Ground != method.OnPlait {
			pieces[p.Piece].Hooked += p.Count
		}
		for _, a := range p.Accents {
			things[a]++
			if k := sol.Input.AccentPiece(a); k >= 0 {
				pieces[k].OnHead++
				pieces[k].Accents++
			}
		}
		bands += sol.Works[i].Bands * p.Count
		if in.Plaits.Band && p.Ground == method.OnPlait {
			bands++
		}
		if s := sol.Works[i].Strands; s > 0 {
			wraps[p.Way].Plaits++
			wraps[p.Way].Strands += s
		}
	}
	for i, need := range pieces {
		piece := in.Pieces[i]
		if in.Fill.Piece == piece.Key {
			need.Fill = in.Fill.Total()
		}
		if need.OnHead+need.Fill == 0 {
			continue
		}
		hang, yield, perStrand := need.OnHead+need.Fill, piece.Pack.Yield(), piece.Pack.Cuts*piece.Pack.Splits
		odds := in.Spares.Odds()
		need.Amounts = odds.Amounts(hang, yield, perStrand)
		need.Piece, need.Spares = piece.Key, in.Spares.From(hang, need.Amounts)
		need.Without = (hang + yield - 1) / yield
		var err error
		if need.Order, err = supply.Buy(hang+need.Spares, yield, piece.Offers); err != nil {
			return Need{}, fmt.Errorf("ordering %q: %w", piece.Key, err)
		}
		need.Enough = odds.Enough(need.Order.Units, hang, yield, perStrand)
		n.Pieces = append(n.Pieces, need)
	}
	for i, need := range wraps {
		if need.Strands == 0 {
			continue
		}
		need.Way = in.Ways[i].Key
		hair := in.Ways[i].Wrapping
		var err error
		if need.Order, err = supply.Buy(need.Strands+in.Spares.Of(need.Strands), hair.Strands, hair.AsOffers()); err != nil {
			return Need{}, fmt.Errorf("ordering the wrapping hair of %q: %w", need.Way, err)
		}
		n.Wraps = append(n.Wraps, need)
	}
	for a, count := range things {
		t := in.Accents[a].Thing
		if t == nil || count == 0 {
			continue
		}
		order, err := supply.Buy(count, t.Pack, []hair.Offer{{Packs: 1, Price: t.Price}})
		if err != nil {
			return Need{}, fmt.Errorf("ordering %q: %w", t.Name, err)
		}
		n.Things = append(n.Things, ThingNeed{a, t.Name, count, order})
	}
	if bands > 0 {
		order, err := supply.Buy(bands+in.Spares.Of(bands), plan.UsualBands.Pack, []hair.Offer{{Packs: 1, Price: plan.UsualBands.Price}})
		if err != nil {
			return Need{}, fmt.Errorf("ordering small bands: %w", err)
		}
		n.Things = append(n.Things, ThingNeed{NoAccent, plan.UsualBands.Name, bands, order})
	}
	return n, nil
}
