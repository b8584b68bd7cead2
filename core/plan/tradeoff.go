package plan

import (
	"context"
	"slices"

	"kladotex/core/parting"
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
	Structure parting.Structure `json:"structure" enum:"all,ear-to-ear,perimeter,horseshoe,part-line,linked,net-cap,front-design"`
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

// TradeOff computes the plan at section widths from half an inch to two, an eighth
// of an inch apart, all its sizes scaled alike, with those changes by hand that hold at
// any size; and on every structure, the part line and the nape guard adapted where it
// needs that, without changes by hand. What can
// not be laid is left out. The error is that of [Compute] for the plan as it is, or
// that of ctx when it ends first.
func TradeOff(ctx context.Context, in Input) (Trade, error) {
	own, err := Compute(ctx, in)
	if err != nil {
		return Trade{}, err
	}
	trade := Trade{tradeSizes(ctx, in, own), tradeStructures(ctx, in, own)}
	return trade, ctx.Err()
}

// heldAtAnySize are the changes by hand that are about a place on the head, not about
// the sections of one size.
func heldAtAnySize(edits []parting.Edit) []parting.Edit {
	return slices.DeleteFunc(slices.Clone(edits), func(e parting.Edit) bool {
		return e.Kind != parting.LeaveOut
	})
}

// Scaled is the plan with its sections so many times as wide and as high, with those changes by
// hand that hold at any size.
func (in Input) Scaled(scale float64) Input {
	for _, wish := range []*parting.Wish{&in.Parting.Front, &in.Parting.Back} {
		wish.Width *= scale
		wish.Height *= scale
	}
	in.Parting.Edits = heldAtAnySize(in.Parting.Edits)
	return in
}

func tradeSizes(ctx context.Context, in Input, own Result) []TradePoint {
	points := []TradePoint{}
	for width := tradeFrom; width <= tradeTo+tradeStep/2 && ctx.Err() == nil; width += tradeStep {
		scale := width / in.Parting.Back.Width
		other := in.Scaled(scale)
		res, err := own, error(nil)
		if scale != 1 {
			res, err = workOut(ctx, other, parting.Attempt)
		}
		if err != nil {
			continue
		}
		t := res.Tally
		points = append(points, TradePoint{width, t.Sections, t.Pieces, t.Packs, t.Cost, t.Minutes})
	}
	return points
}

func tradeStructures(ctx context.Context, in Input, own Result) []StructurePoint {
	points := []StructurePoint{}
	var whole Tally
	for _, structure := range parting.Structures {
		if ctx.Err() != nil {
			break
		}
		other := in
		other.Parting = in.Parting.On(structure)
		res, err := own, error(nil)
		if structure != in.Parting.Structure {
			res, err = workOut(ctx, other, parting.Attempt)
		}
		if err != nil {
			continue
		}
		t := res.Tally
		if structure == parting.AllIndividuals {
			whole = t
		}
		points = append(points, StructurePoint{
			structure, t.Sections, t.Pieces, t.Packs, t.Cost, t.Minutes, whole.Minutes - t.Minutes, whole.Cost - t.Cost,
		})
	}
	return points
}
