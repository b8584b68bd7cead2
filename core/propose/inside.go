package propose

import (
	"cmp"
	"context"
	"math"
	"slices"

	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/core/wish"
)

// wornKey is the key of pieces in hand that show wear.
const wornKey = "worn"

// inside is a plan whose pieces that show wear hang farthest from the hairline and the part, where nobody sees
// them; the plan as it is where none show wear, or where it cannot be laid.
func inside(ctx context.Context, in plan.Input, lot *wish.InHand) plan.Input {
	if lot == nil || lot.Worn == 0 {
		return in
	}
	sol, err := plan.Attempt(ctx, in)
	if err != nil {
		return in
	}
	var seen []scalp.Point
	for i := range sol.Places {
		if p := &sol.Places[i]; sol.AtHairline(p) || sol.AlongPart(p) {
			seen = append(seen, p.At)
		}
	}
	type hidden struct {
		place int
		far   float64
	}
	var list []hidden
	for i := range sol.Places {
		p := &sol.Places[i]
		if sol.AtHairline(p) || sol.AlongPart(p) {
			continue
		}
		h := hidden{i, math.Inf(1)}
		for _, at := range seen {
			h.far = min(h.far, scalp.Apart(p.At, at))
		}
		list = append(list, h)
	}
	slices.SortStableFunc(list, func(a, b hidden) int { return cmp.Compare(b.far, a.far) })
	where := plan.Where{Kind: plan.AtPlaces}
	for _, h := range list[:min(len(list), lot.Worn)] {
		where.Places = append(where.Places, parting.Toward(sol.Head, sol.Places[h.place].At))
	}
	if len(where.Places) == 0 {
		return in
	}
	worn := in.Pieces[0]
	worn.Key, worn.Name = wornKey, worn.Name+", worn before"
	in.Pieces = append(slices.Clone(in.Pieces), worn)
	in.Uses = append(slices.Clone(in.Uses), plan.Use{Where: where, Piece: wornKey})
	in.Spares.Least = keptBack / 2 // of each
	return in
}
