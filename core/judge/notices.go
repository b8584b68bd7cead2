package judge

import (
	"fmt"
	"math"
	"slices"

	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/invalid"
	"kladotex/core/plan"
)

// Notices are those of the layout, of the methods at their places, of load, and of rules
// that match nothing. pieces is how many hang on the whole head.
func Notices(sol *plan.Solved, pieces int) []advice.Notice {
	var found advice.Gathered
	total := map[string]int{}
	for i := range sol.Places {
		p := &sol.Places[i]
		way := sol.Input.Ways[p.Way].Key
		total[way]++
		total[allPlaces]++
		id := sol.Places[i].Carrier()
		for _, f := range sol.Methods[p.Way].Judge(sol.Job(p)) {
			group := way
			if f.Code == advice.TenderScalp {
				group = allPlaces // said once for all methods
			}
			found.Add(group, id, f)
		}
		if f, heavy := loadAt(sol, i); heavy {
			found.Add(allPlaces, id, f)
		}
		if f, long := longAt(sol, i); long {
			found.Add(allPlaces, id, f)
		}
	}
	out := append([]advice.Notice{}, refused(sol.Input)...)
	out = append(out, sol.Layout.Notices...)
	out = append(out, sparse(sol)...)
	out = append(out, allergies(sol)...)
	out = append(out, loadOfHead(sol, sol.Weight, pieces)...)
	out = append(out, found.Notices(func(group string) int { return total[group] })...)
	for u, use := range sol.Input.Uses {
		if sol.Matched[u] > 0 || u == 1 && !sol.HasBase() {
			continue
		}
		out = append(out, advice.Notice{
			Code: advice.EmptyUse, Severity: advice.Hint, About: []string{},
			Reason: fmt.Sprintf("The rule %q says nothing about this head: no spot of this head matches it.", use.Where.Name()),
			Remedy: "Choose other spots, another method, or take the rule away.",
		})
	}
	placed := map[int]bool{}
	for i := range sol.Places {
		for _, a := range sol.Places[i].Accents {
			placed[a] = true
		}
	}
	for k, a := range sol.Input.Accents {
		if !placed[k] {
			out = append(out, advice.Notice{
				Code: advice.EmptyUse, Severity: advice.Hint, About: []string{},
				Reason: fmt.Sprintf("%s is put on nowhere: there is no spot %s on this head.", sol.Input.AccentName(a), a.Where.Name()),
				Remedy: "Choose other spots, or take the accent away.",
			})
		}
	}
	return out
}

// sparse is said of a base whose pieces hang so far apart that scalp shows between them.
func sparse(sol *plan.Solved) []advice.Notice {
	n, apart := sol.Layout.Hooks(), sol.Layout.Spacing
	thick := 0.0
	for i := range sol.Places {
		if p := &sol.Places[i]; p.Section < 0 {
			thick = max(thick, sol.Input.Pieces[p.Piece].Thickness)
		}
	}
	most, what := craft.BareShare*thick, "the cornrows"
	if len(sol.Layout.Cornrows) == 0 {
		most, what = craft.BareNetShare*thick, "the net"
	}
	if n == 0 || thick == 0 || apart <= most {
		return nil
	}
	need := float64(n) * apart / most
	if len(sol.Layout.Cornrows) == 0 {
		need *= apart / most
	}
	return []advice.Notice{{
		Code: advice.Sparse, Severity: advice.Look, About: []string{},
		Reason: fmt.Sprintf("Pieces hang %s apart on %s: bald between them.", invalid.Length(apart), what),
		Remedy: fmt.Sprintf("At most %s apart, about %.0f pieces, or thicker ones.", invalid.AtMost(most), math.Ceil(need)),
	}}
}

// without says how a head does without a product.
var without = map[plan.ProductKey]string{
	plan.Gel:     "Parts with another product, or with none; plain water parts cleanly too.",
	plan.Wax:     "Parts with another product, or with none; plain water parts cleanly too.",
	plan.Oil:     "Leave the scalp bare, or a plain oil that was borne before.",
	plan.LeaveIn: "Another leave-in that was borne before, or water alone.",
	plan.FoamSet: "No setting foam: a scarf alone lays flyaways flat.",
	plan.Glue:    "Ends tucked or rolled in, without glue.",
	plan.Bands:   "Plaits without bands, or bands of another make: latex is what many do not bear.",
}

// allergies are products of this head that it does not bear.
func allergies(sol *plan.Solved) (out []advice.Notice) {
	used := sol.Measured()
	if sol.Bands() > 0 {
		used[plan.Bands] = 1
	}
	for _, p := range plan.Products {
		if used[p.Key] > 0 && slices.Contains(sol.Input.Avoid, p.Key) {
			out = append(out, advice.Notice{
				Code: advice.Allergy, Severity: advice.Danger, About: []string{},
				Reason: fmt.Sprintf("This head is planned with %s, and there is an allergy to it.", p.Key.Name()),
				Remedy: without[p.Key] + " Read what is in anything new, and try it behind an ear a day before.",
			})
		}
	}
	return out
}

// allPlaces is the group of findings that are about no method in particular.
const allPlaces = ""
