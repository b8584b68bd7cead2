package freeze

import (
	"fmt"
	"strings"

	"kladotex/core/attach"
	"kladotex/core/hours"
	"kladotex/core/need"
	"kladotex/core/plan"
	"kladotex/core/quote"
	"kladotex/core/tally"
	"kladotex/core/words"
)

// Bought are the lines of a price for the hair and small things of a plan, at the prices of
// the packs it takes.
func Bought(in plan.Input, want need.Need) []quote.Charge {
	out := []quote.Charge{}
	for _, n := range want.Pieces {
		if n.Made { // its hair stands by itself
			continue
		}
		p := in.Piece(n.Piece)
		name := p.Name
		if p.Colour != "" {
			name += ", " + strings.ToLower(p.Colour)
		}
		out = append(out, quote.Charge{
			Kind: quote.Hair, Name: name, Amount: n.Order.Cost,
			Detail: fmt.Sprintf("%s for %s and %s", words.Count(n.Order.Packs, "pack"), words.Count(n.OnHead+n.Fill, "piece"), words.Count(n.Spares, "spare")),
		})
	}
	for _, n := range want.Wraps {
		out = append(out, quote.Charge{
			Kind: quote.Hair, Name: n.Name, Amount: n.Order.Cost,
			Detail: fmt.Sprintf("%s: %s", words.Count(n.Order.Packs, "pack"), n.Says),
		})
	}
	for _, n := range want.Things {
		out = append(out, quote.Charge{
			Kind: quote.Things, Name: n.Name, Amount: n.Order.Cost, Detail: fmt.Sprintf("%d on the head", n.Count),
		})
	}
	used, cost := []string{}, int64(0)
	for _, n := range want.Products {
		used, cost = append(used, strings.ToLower(n.Name)), cost+n.Cost
	}
	if cost > 0 {
		out = append(out, quote.Charge{Kind: quote.Things, Name: "What is used up", Amount: cost, Detail: words.List(used)})
	}
	return out
}

// Price is what a plan costs on a studio's terms, with the plan summed up.
func Price(sol *plan.Solved, terms quote.Terms) (quote.Price, tally.Result, error) {
	res, err := tally.Of(sol)
	if err != nil {
		return quote.Price{}, tally.Result{}, err
	}
	in := sol.Input
	work := quote.Labour{Minutes: res.Tally.Minutes, People: len(in.Hands())}
	if work.People > 1 { // each of them is paid
		day, err := hours.DayOf(sol)
		if err != nil {
			return quote.Price{}, tally.Result{}, err
		}
		work.Minutes = day.Labour
	}
	return terms.Of(in.PricedBy(), Bought(in, res.Need), work), res, nil
}

// Included says in a few lines what an install takes in, for one who does not know the trade.
func Included(in plan.Input, r tally.Result) []string {
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
		out = append(out, fmt.Sprintf("%s taken off, parted and plaited again: %s of %d; the rest stays as it hangs", rows, words.Count(again, "section"), t.Sections))
	} else {
		out = append(out, fmt.Sprintf("%s parted and plaited, %s", words.Count(t.Sections, "section"), in.Parting.Structure.Name()))
		if n := len(r.Layout.Cornrows); n > 0 {
			out = append(out, words.Count(n, "cornrow")+" to hook on")
		}
	}
	out = append(out, fmt.Sprintf("%s hung, %s", words.Count(t.Pieces, "piece"), strings.ToLower(attach.Methods(r.Work))))
	if in.Trim != nil {
		out = append(out, in.CutWords())
	}
	return append(out, "Checking, filling and finishing")
}
