package hang

import (
	"context"
	"math"
	"slices"

	"kladotex/core/fall"
	"kladotex/core/plan"
)

// rowCut is what a cut makes of a row, lengths as it hangs, mm.
type rowCut struct{ guide, shortest, longest float64 }

// trim cuts what hangs as the plan says, every row to its guide piece.
func trim(ctx context.Context, sol *plan.Solved, h *hanging) error {
	if sol.Input.Trim == nil {
		return nil
	}
	reach, err := h.wearer.Reach(ctx, h.pieces)
	if err != nil {
		return err
	}
	cutTo(sol, h, reach)
	return nil
}

// cutTo cuts every row to its guide piece and gives what was cut; nil where nothing is.
func cutTo(sol *plan.Solved, h *hanging, reach fall.Reach) []rowCut {
	if sol.Input.Trim == nil {
		return nil
	}
	line, _ := fall.LineOf(sol.Input.Trim.Line) // checked
	low, high := math.Inf(1), math.Inf(-1)
	for _, row := range h.rows {
		low, high = min(low, row.height), max(high, row.height)
	}
	cuts := make([]rowCut, len(h.rows))
	for k, row := range h.rows {
		rank := (row.height - low) / max(1, high-low)
		each := make([]float64, 0, len(row.pieces))
		for _, i := range row.pieces {
			facing := max(0, min(1, 1.6*h.pieces[i].Root.X))
			each = append(each, reach.At(i, sol.Input.Trim.Shape.Ends(line.Share, rank, facing)))
		}
		slices.Sort(each)
		cuts[k] = rowCut{fall.Quantile(each, 0.5), fall.Quantile(each, 0), fall.Quantile(each, 1)}
		for _, i := range row.pieces {
			h.pieces[i].Length = min(h.pieces[i].Length, max(leastCut, cuts[k].guide))
		}
	}
	return cuts
}

// leastCut is the shortest a piece is cut, mm.
const leastCut = 25.0
