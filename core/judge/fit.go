// Package judge says whether a solved plan is kind and holds: whether every piece suits its plait,
// what hangs on how much hair, what is wrong, and what would put it right.
package judge

import (
	"cmp"
	"context"
	"math"
	"slices"

	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/wear"
)

// Fit judges fit and load at every place of a plan. have are pieces besides the plan's own,
// before what the same person wore earlier. The error is that of ctx when it ends first.
func Fit(ctx context.Context, sol *plan.Solved, have []Ready, before []wear.Earlier) (Fitting, error) {
	out := Fitting{Places: make([]PlaceFit, len(sol.Places)), Zones: []ZoneFit{}}
	zones := map[string]*zoneFound{}
	var order []*zoneFound
	all := make([]float64, 0, len(sol.Places))
	for i := range sol.Places {
		p := &sol.Places[i]
		load, share, _ := loadHere(sol, i)
		all = append(all, load)
		hung := sol.Hung[i]
		out.Places[i] = PlaceFit{Hung: tenth(hung), Soaked: tenth(craft.Soaked * hung), Load: math.Round(100*load) / 100, Word: wordOf(load, share)}
		key := p.Zone.Sideless()
		z := zones[key]
		if z == nil {
			z = &zoneFound{fit: ZoneFit{Name: key, Hooked: p.Section < 0, Findings: []ZoneFinding{}}, zones: map[parting.Zone]bool{}}
			zones[key] = z
			order = append(order, z)
		}
		first := z.fit.Places == 0
		z.fit.Places++
		z.zones[p.Zone] = true
		z.fit.Plait.Add(math.Round(10*p.Plait.Diameter)/10, first)
		z.fit.Load.Add(math.Round(10*load)/10, first)
		found := sol.Methods[p.Way].Judge(sol.Job(p))
		if f, heavy := loadAt(sol, i); heavy {
			found = append(found, f)
		}
		if f, long := longAt(sol, i); long {
			found = append(found, f)
		}
		for _, f := range found {
			rank := slices.Index(fits, f.Code)
			if rank >= 0 && (out.Places[i].Fit == "" || rank < slices.Index(fits, out.Places[i].Fit)) {
				out.Places[i].Fit = f.Code
			}
			if rank >= 0 || slices.Contains(loads, f.Code) {
				z.add(i, f, sol.AtHairline(p))
			}
		}
	}
	if err := ctx.Err(); err != nil {
		return Fitting{}, err
	}
	for _, z := range order {
		z.fit.Findings = findings(sol, z, have)
	}
	// What hurts first, of that the edges; then as they come, from the back.
	slices.SortStableFunc(order, func(a, b *zoneFound) int {
		if d := gravity(b.fit) - gravity(a.fit); d != 0 {
			return d
		}
		return b.edges() - a.edges()
	})
	for _, z := range order {
		out.Zones = append(out.Zones, z.fit)
	}
	out.Load = headLoad(sol, all, before)
	return out, nil
}

// gravity is how grave the gravest finding of a zone is.
func gravity(z ZoneFit) int {
	worst := 0
	for _, f := range z.Findings {
		switch f.Severity {
		case advice.Danger:
			worst = max(worst, 2)
		case advice.Look:
			worst = max(worst, 1)
		}
	}
	return worst
}

// findings words what was found in a zone, with what would put it right.
func findings(sol *plan.Solved, z *zoneFound, have []Ready) []ZoneFinding {
	rank := func(c advice.Code) int {
		return slices.Index(slices.Concat(loads[:1], fits, loads[1:]), c)
	}
	slices.SortStableFunc(z.kinds, func(a, b *foundKind) int { return rank(a.worst.Code) - rank(b.worst.Code) })
	out := []ZoneFinding{}
	for _, k := range z.kinds {
		n := k.says()
		f := ZoneFinding{Code: n.Code, Severity: n.Severity, Count: len(k.places), Reason: n.Reason, Words: n.Remedy, Places: []string{}}
		// Edges first, then the worst: of loads those are the slivers.
		slices.SortStableFunc(k.places, func(a, b foundPlace) int {
			if a.edge != b.edge {
				return map[bool]int{true: -1, false: 1}[a.edge]
			}
			return cmp.Compare(b.Grade, a.Grade)
		})
		for _, p := range k.places {
			if id := sol.Places[p.place].Carrier(); !slices.Contains(f.Places, id) {
				f.Places = append(f.Places, id)
			}
		}
		f.Remedies = remedies(sol, z, k, have)
		out = append(out, f)
	}
	return out
}

// tenth rounds to a tenth.
func tenth(v float64) float64 { return math.Round(10*v) / 10 }
