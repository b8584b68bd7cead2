package hang

import (
	"context"
	"math"
	"slices"

	"kladotex/core/fall"
	"kladotex/core/plan"
)

// Landings say where the ends of a plan's pieces land, and what would make them land
// elsewhere.
type Landings struct {
	Stature float64 `json:"statureMm"`
	Asked   bool    `json:"asked" doc:"False where the height was not given and a usual one was taken"`
	// All is where the main pieces end, without accents and what is filled in; Longest where the
	// row does that hangs lowest.
	All     fall.Landing `json:"all"`
	Longest LongestRow   `json:"longest"`
	// Rows are from the lowest behind to the highest in front, as they are worked.
	Rows []RowLanding `json:"rows"`
	// Lines are the body lines with the lengths that reach them, from the top.
	Lines []LineReach `json:"lines"`
}

// LongestRow is the row that hangs lowest.
type LongestRow struct {
	Name  string       `json:"name"`
	Lands fall.Landing `json:"lands"`
}

// RowLanding is where the pieces of one row end.
type RowLanding struct {
	Name   string       `json:"name"`
	Front  bool         `json:"front"`
	Pieces int          `json:"pieces"`
	Lands  fall.Landing `json:"lands"`
	// Drawn are its pieces, as indices into those of the [Drape].
	Drawn []int `json:"drawn"`
	// Guide is the length of the row's guide piece when cut, as it hangs; Shortest and
	// Longest are what a cut exact at every piece would make of it. 0 without a cut.
	Guide    float64 `json:"guideMm"`
	Shortest float64 `json:"shortestMm"`
	Longest  float64 `json:"longestMm"`
	// Off is what is cut off the guide piece; negative where the piece does not come down
	// to the line.
	Off float64 `json:"offMm" doc:"What is cut off; below zero the piece falls short by so much"`
	// Reach is, for every body line, how long a piece of the row is made that comes down to it, mm: the
	// length of its guide piece.
	Reach []float64 `json:"reachMm" doc:"For every body line, how long a piece of the row must be to come down to it, mm"`
}

// LineReach is the length, as pieces are sold, whose ends come down to a body line.
type LineReach struct {
	fall.BodyLine
	// First is that at which the first end touches it, Half half of them, All every one.
	First float64 `json:"firstMm"`
	Half  float64 `json:"halfMm"`
	All   float64 `json:"allMm"`
}

// Land says where the ends of a plan land. The error is that of ctx when it ends first.
func Land(ctx context.Context, sol *plan.Solved) (Landings, error) {
	h := hang(sol)
	reach, err := h.wearer.Reach(ctx, h.pieces)
	if err != nil {
		return Landings{}, err
	}
	whole := make([]float64, len(h.pieces)) // lengths before any is cut
	for i, p := range h.pieces {
		whole[i] = p.Length
	}
	cuts := cutTo(sol, h, reach)
	paths, err := h.wearer.Hang(ctx, h.pieces, fall.Down)
	if err != nil {
		return Landings{}, err
	}
	out := Landings{Rows: []RowLanding{}, Lines: make([]LineReach, len(fall.Lines))}
	out.Stature, out.Asked = sol.Input.Wearing()
	all := make([]float64, len(paths))
	for i, p := range paths {
		all[i] = h.wearer.Share(p.End().Z)
	}
	for k, row := range h.rows {
		if len(row.pieces) == 0 {
			continue
		}
		ends := make([]float64, len(row.pieces))
		longest, count := 0.0, 0
		for n, i := range row.pieces {
			ends[n] = all[i]
			count += h.list[i].count
			longest = max(longest, whole[i])
		}
		r := RowLanding{Name: row.name, Front: row.front, Pieces: count, Lands: fall.Landed(ends), Drawn: row.pieces}
		if cuts != nil {
			c := cuts[k]
			r.Guide, r.Shortest, r.Longest = finite(c.guide), finite(c.shortest), finite(c.longest)
			r.Off = longest - r.Guide
		}
		out.Rows = append(out.Rows, r)
	}
	main := make([]float64, 0, len(all))
	for i, share := range all {
		if !h.list[i].beside {
			main = append(main, share)
		}
	}
	out.All = fall.Landed(main)
	for _, r := range out.Rows {
		if out.Longest.Name == "" || r.Lands.Middle < out.Longest.Lands.Middle {
			out.Longest = LongestRow{r.Name, r.Lands}
		}
	}
	// As sold: lengths that hang are longer before they spring up.
	sold := make([]float64, len(h.pieces))
	for i, x := range h.list {
		sold[i] = sol.Input.Pieces[x.piece].Length / max(1, whole[i])
	}
	for k := range out.Rows {
		r := &out.Rows[k]
		r.Reach = make([]float64, len(fall.Lines))
		for n, line := range fall.Lines {
			need := make([]float64, 0, len(r.Drawn))
			for _, i := range r.Drawn {
				if mm := reach.At(i, line.Share); !h.list[i].beside && !math.IsInf(mm, 0) {
					need = append(need, mm*sold[i])
				}
			}
			slices.Sort(need)
			r.Reach[n] = finite(fall.Quantile(need, 0.5))
		}
	}
	for k, line := range fall.Lines {
		need := make([]float64, 0, len(h.pieces))
		for i := range h.pieces {
			if mm := reach.At(i, line.Share); !math.IsInf(mm, 0) {
				need = append(need, mm*sold[i])
			}
		}
		slices.Sort(need)
		out.Lines[k] = LineReach{line, finite(fall.Quantile(need, 0)), finite(fall.Quantile(need, 0.5)), finite(fall.Quantile(need, 1))}
	}
	return out, nil
}
