package judge

import (
	"slices"

	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/plan"
)

// Counted is what is found at the places of a plan, counted and not worded: what a search over many plans
// goes by. It finds what [Fit] finds.
type Counted struct {
	// Places are at how many each finding is, Worst how bad the worst is.
	Places map[advice.Code]int
	Worst  map[advice.Code]float64
	// Loads are those of the places that carry something, in shares of what is usually hung there, ascending.
	Loads []float64
	// Heavy are the indices of places that carry too much, Seen how many of them lie at the hairline.
	Heavy []int
	Seen  int
}

// Count judges every place of a plan.
func Count(sol *plan.Solved) Counted {
	out := Counted{Places: map[advice.Code]int{}, Worst: map[advice.Code]float64{}}
	for i := range sol.Places {
		p := &sol.Places[i]
		if p.Kept {
			continue
		}
		found := sol.Methods[p.Way].Judge(sol.Job(p))
		load, share, _ := loadHere(sol, i)
		out.Loads = append(out.Loads, load/(share*craft.UsualLoad))
		if f, heavy := loadAt(sol, i); heavy {
			found = append(found, f)
			out.Heavy = append(out.Heavy, i)
			if sol.AtHairline(p) {
				out.Seen++
			}
		}
		if f, long := longAt(sol, i); long {
			found = append(found, f)
		}
		for _, f := range found {
			worst, has := out.Worst[f.Code]
			if !has || f.Grade > worst {
				out.Worst[f.Code] = f.Grade
			}
			out.Places[f.Code]++
		}
	}
	slices.Sort(out.Loads)
	return out
}
