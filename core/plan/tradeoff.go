package plan

import "kladotex/core/parting"

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

// TradeOff computes the plan at section widths from half an inch to two, an eighth
// of an inch apart, all its sizes scaled alike. Sizes that can not be laid are left
// out. The error is that of [Compute] for the plan as it is.
func TradeOff(in Input) ([]TradePoint, error) {
	if _, err := Compute(in); err != nil {
		return nil, err
	}
	points := []TradePoint{}
	for width := tradeFrom; width <= tradeTo+tradeStep/2; width += tradeStep {
		other := in
		scale := width / in.Parting.Back.Width
		for _, wish := range []*parting.Wish{&other.Parting.Front, &other.Parting.Back} {
			wish.Width *= scale
			wish.Height *= scale
		}
		res, err := Compute(other)
		if err != nil {
			continue
		}
		t := res.Tally
		points = append(points, TradePoint{width, t.Sections, t.Pieces, t.Packs, t.Cost, t.Minutes})
	}
	return points, nil
}
