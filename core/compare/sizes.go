// Package compare sets a plan beside what it could be: other sizes and structures, other methods,
// and ways to do it in the time there is.
package compare

import (
	"context"

	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/tally"
)

// TradePoint is what a plan would come to with sections of another size.
type TradePoint struct {
	// Width is the section width behind, mm; the other sizes keep their ratio
	// to it.
	Width    float64 `json:"widthMm"`
	Sections int     `json:"sections"`
	Pieces   int     `json:"pieces"`
	Packs    int     `json:"packs"`
	Cost     int64   `json:"costMinor"`
	Minutes  float64 `json:"minutes"`
}

// The sizes of a trade-off: from half an inch to two, an eighth apart.
const (
	tradeFrom, tradeTo = 12.7, 50.8
	tradeStep          = 3.175
)

// StructurePoint is what the plan would come to on another structure.
type StructurePoint struct {
	Structure parting.Structure `json:"structure"`
	Sections  int               `json:"sections"`
	Pieces    int               `json:"pieces"`
	Packs     int               `json:"packs"`
	Cost      int64             `json:"costMinor"`
	Minutes   float64           `json:"minutes"`
	// SavedMinutes and SavedCost are against individuals all over.
	SavedMinutes float64 `json:"savedMinutes"`
	SavedCost    int64   `json:"savedCostMinor"`
}

// Trade is what a plan would come to at other sizes and on other structures.
type Trade struct {
	Sizes      []TradePoint     `json:"sizes"`
	Structures []StructurePoint `json:"structures"`
}

// TradeOff computes the plan at section widths from half an inch to two, an eighth of an inch apart,
// all its sizes scaled alike, with those changes by hand that hold at any size; and on every
// structure, the part line and the nape guard adapted where it needs that, without changes by
// hand. What cannot be laid is left out. The error is that of ctx when it ends first.
func TradeOff(ctx context.Context, sol *plan.Solved) (Trade, error) {
	own, err := tally.Of(sol)
	if err != nil {
		return Trade{}, err
	}
	trade := Trade{tradeSizes(ctx, sol.Input, own.Tally), tradeStructures(ctx, sol.Input, own.Tally)}
	return trade, ctx.Err()
}

// attempt is the tally of a plan that is only compared with.
func attempt(ctx context.Context, in plan.Input) (tally.Tally, error) {
	sol, err := plan.Attempt(ctx, in)
	if err != nil {
		return tally.Tally{}, err
	}
	res, err := tally.Of(sol)
	return res.Tally, err
}

func tradeSizes(ctx context.Context, in plan.Input, own tally.Tally) []TradePoint {
	points := []TradePoint{}
	for width := tradeFrom; width <= tradeTo+tradeStep/2 && ctx.Err() == nil; width += tradeStep {
		scale := width / in.Parting.Back.Width
		other := in.Scaled(scale)
		t, err := own, error(nil)
		if scale != 1 {
			t, err = attempt(ctx, other)
		}
		if err != nil {
			continue
		}
		points = append(points, TradePoint{width, t.Sections, t.Pieces, t.Packs, t.Cost, t.Minutes})
	}
	return points
}

func tradeStructures(ctx context.Context, in plan.Input, own tally.Tally) []StructurePoint {
	points := []StructurePoint{}
	var whole tally.Tally
	for _, structure := range parting.Structures {
		if ctx.Err() != nil {
			break
		}
		other := in
		other.Parting = in.Parting.On(structure)
		t, err := own, error(nil)
		if structure != in.Parting.Structure {
			t, err = attempt(ctx, other)
		}
		if err != nil {
			continue
		}
		if structure == parting.AllIndividuals {
			whole = t
		}
		points = append(points, StructurePoint{
			structure, t.Sections, t.Pieces, t.Packs, t.Cost, t.Minutes, whole.Minutes - t.Minutes, whole.Cost - t.Cost,
		})
	}
	return points
}
