package plan

import (
	"context"

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
// of an inch apart, all its sizes scaled alike; and on every structure, the part line
// and the nape guard adapted where it needs that, without changes by hand. What can
// not be laid is left out. The error is that of [Compute] for the plan as it is, or
// that of ctx when it ends first.
func TradeOff(ctx context.Context, in Input) (Trade, error) {
	if _, err := Compute(ctx, in); err != nil {
		return Trade{}, err
	}
	trade := Trade{tradeSizes(ctx, in), tradeStructures(ctx, in)}
	return trade, ctx.Err()
}

func tradeSizes(ctx context.Context, in Input) []TradePoint {
	points := []TradePoint{}
	for width := tradeFrom; width <= tradeTo+tradeStep/2; width += tradeStep {
		other := in
		scale := width / in.Parting.Back.Width
		for _, wish := range []*parting.Wish{&other.Parting.Front, &other.Parting.Back} {
			wish.Width *= scale
			wish.Height *= scale
		}
		res, err := Compute(ctx, other)
		if err != nil {
			continue
		}
		t := res.Tally
		points = append(points, TradePoint{width, t.Sections, t.Pieces, t.Packs, t.Cost, t.Minutes})
	}
	return points
}

func tradeStructures(ctx context.Context, in Input) []StructurePoint {
	points := []StructurePoint{}
	var whole Tally
	for _, structure := range parting.Structures {
		other := in
		other.Parting = in.Parting.On(structure)
		res, err := Compute(ctx, other)
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
