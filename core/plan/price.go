package plan

import (
	"context"
	"fmt"
	"strings"

	"kladotex/core/quote"
)

// Bought are the lines of a price for the hair and small things of a plan, at the prices of
// the packs it takes.
func (r Result) Bought(in Input) []quote.Charge {
	out := []quote.Charge{}
	for _, n := range r.Need.Pieces {
		p := in.Piece(n.Piece)
		name := p.Name
		if p.Colour != "" {
			name += ", " + strings.ToLower(p.Colour)
		}
		out = append(out, quote.Charge{
			Kind: quote.Hair, Name: name, Amount: n.Order.Cost,
			Detail: fmt.Sprintf("%s for %s and %s", count(n.Order.Packs, "pack"), count(n.OnHead+n.Fill, "piece"), count(n.Spares, "spare")),
		})
	}
	for _, n := range r.Need.Wraps {
		out = append(out, quote.Charge{
			Kind: quote.Hair, Name: "Wrapping hair", Amount: n.Order.Cost,
			Detail: fmt.Sprintf("%s for %s", count(n.Order.Packs, "pack"), count(n.Plaits, "plait")),
		})
	}
	for _, n := range r.Need.Things {
		out = append(out, quote.Charge{
			Kind: quote.Things, Name: n.Name, Amount: n.Order.Cost, Detail: fmt.Sprintf("%d on the head", n.Count),
		})
	}
	return out
}

// PriceOf is what a plan costs on a studio's terms. The error is that of [Compute].
func PriceOf(ctx context.Context, in Input, terms quote.Terms) (quote.Price, Result, error) {
	res, err := Compute(ctx, in)
	if err != nil {
		return quote.Price{}, Result{}, err
	}
	work := quote.Labour{Minutes: res.Tally.Minutes, People: len(in.hands())}
	if work.People > 1 { // each of them is paid
		day, err := DayOf(ctx, in)
		if err != nil {
			return quote.Price{}, Result{}, err
		}
		work.Minutes = day.Labour
	}
	return terms.Of(in.price(), res.Bought(in), work), res, nil
}

// Included says in a few lines what an install takes in, for one who does not know the trade.
func (r Result) Included(in Input) []string {
	t := r.Tally
	var out []string
	if in.Redo != nil {
		again := 0
		for i := range r.Places {
			if !r.Places[i].Kept {
				again++
			}
		}
		rows := "The outer row"
		if in.Redo.Rows > 1 {
			rows = "Both outer rows"
		}
		out = append(out, fmt.Sprintf("%s taken off, parted and plaited again: %s of %d; the rest stays as it hangs", rows, count(again, "section"), t.Sections))
	} else {
		out = append(out, fmt.Sprintf("%s parted and plaited, %s", count(t.Sections, "section"), in.Parting.Structure.Name()))
		if n := len(r.Layout.Tracks); n > 0 {
			out = append(out, count(n, "flat track")+" to hook on")
		}
	}
	out = append(out, fmt.Sprintf("%s hung, %s", count(t.Pieces, "piece"), strings.ToLower(r.Methods())))
	if in.Trim != nil {
		out = append(out, in.CutWords())
	}
	return append(out, "Checking, filling and finishing")
}
