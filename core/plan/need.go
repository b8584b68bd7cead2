package plan

import (
	"fmt"

	"kladotex/core/method"
	"kladotex/core/supply"
)

// Need is what to buy.
type Need struct {
	// Pieces are the needs of those that hang somewhere, in the plan's order.
	Pieces []PieceNeed `json:"pieces"`
	// Wraps are the needs of the ways that wrap.
	Wraps []WrapNeed `json:"wraps"`
}

// PieceNeed is the need of one piece.
type PieceNeed struct {
	Piece  string       `json:"piece" doc:"Key of the piece"`
	OnHead int          `json:"onHead" doc:"At places, without those to fill with"`
	Hooked int          `json:"hooked" doc:"Of them, those hooked on tracks, on a net or on linked plaits"`
	Fill   int          `json:"fill"`
	Spares int          `json:"spares"`
	Order  supply.Order `json:"order"`
}

// WrapNeed is the wrapping hair that one way needs.
type WrapNeed struct {
	Way     string       `json:"way" doc:"Key of the way"`
	Plaits  int          `json:"plaits" doc:"Plaits wrapped"`
	Strands int          `json:"strands" doc:"For all of them, without spares"`
	Order   supply.Order `json:"order"`
}

// need folds the places into what to buy.
func (w *worked) need() (Need, error) {
	in := w.in
	n := Need{Pieces: []PieceNeed{}, Wraps: []WrapNeed{}}
	pieces := make([]PieceNeed, len(in.Pieces))
	wraps := make([]WrapNeed, len(in.Ways))
	for i := range w.res.Places {
		p := &w.res.Places[i]
		pieces[p.Piece].OnHead += p.Count
		if p.Ground != method.OnPlait {
			pieces[p.Piece].Hooked += p.Count
		}
		if s := w.works[i].Strands; s > 0 {
			wraps[p.Way].Plaits++
			wraps[p.Way].Strands += s
		}
	}
	for i, need := range pieces {
		piece := in.Pieces[i]
		if in.Fill.Piece == piece.Key {
			need.Fill = in.Fill.Count
		}
		if need.OnHead+need.Fill == 0 {
			continue
		}
		need.Piece, need.Spares = piece.Key, in.Spares.Of(need.OnHead+need.Fill)
		var err error
		if need.Order, err = supply.Buy(need.OnHead+need.Fill+need.Spares, piece.Pack.Yield(), piece.Offers); err != nil {
			return Need{}, fmt.Errorf("ordering %q: %w", piece.Key, err)
		}
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
	return n, nil
}

// totals are pieces on the head, spares, packs, those left over and the cost of all.
func (n Need) totals() (t Tally) {
	for _, p := range n.Pieces {
		t.Pieces += p.OnHead + p.Fill
		t.Spares += p.Spares
		t.Packs += p.Order.Packs
		t.Leftover += p.Order.Leftover
		t.Cost += p.Order.Cost
	}
	for _, w := range n.Wraps {
		t.Packs += w.Order.Packs
		t.Cost += w.Order.Cost
	}
	return t
}
