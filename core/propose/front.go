package propose

import (
	"cmp"
	"math"
	"slices"
)

// facet is something by which plans are told apart: of it less is better, in steps below which nobody notices a
// difference. By eye, and common practice.
type facet struct {
	key  string
	step float64
	// of is the facet of a candidate; more is better where it is negated.
	of func(*Candidate) float64
}

// The facets known before a head hangs, and those known once it does.
var (
	byMinutes = facet{byHours, 15, func(c *Candidate) float64 { return c.Facts.Minutes }}
	byCost    = facet{byMoney, 0, func(c *Candidate) float64 { return float64(c.Facts.Cost) }}
	byLoad    = facet{tooHeavy, 0.25, func(c *Candidate) float64 { return c.Facts.Load }}
	bySingles = facet{"singles", 0.15, func(c *Candidate) float64 { return -c.Facts.Singles }}
	byWear    = facet{byWeeks, 1, func(c *Candidate) float64 { return -float64(c.Facts.Weeks) }}
	byThick   = facet{byFullness, 40, func(c *Candidate) float64 { return -c.Facts.thick }}
	byFull    = facet{byFullness, 0.08, func(c *Candidate) float64 { return -c.Facts.Full }}
	byBare    = facet{byCover, 0.015, func(c *Candidate) float64 { return c.Facts.Bare }}

	cheap = []facet{byMinutes, byCost, byLoad, byThick, bySingles, byWear}
	whole = []facet{byMinutes, byCost, byLoad, byFull, byBare, bySingles, byWear}
)

// steps is a facet of a candidate in whole steps.
func (f facet) steps(c *Candidate) int {
	step := f.step
	if step == 0 { // of money a pack is noticed
		step = float64(c.packPrice())
	}
	return int(math.Floor(f.of(c)/step + 1e-9))
}

// front are the candidates that no other is at least as good as in every facet: of equals the quickest stays.
func front(list []*Candidate, facets []facet) []*Candidate {
	list = slices.Clone(list)
	slices.SortStableFunc(list, func(a, b *Candidate) int {
		return cmp.Or(cmp.Compare(a.Facts.Minutes, b.Facts.Minutes), cmp.Compare(a.Facts.Cost, b.Facts.Cost), cmp.Compare(a.order, b.order))
	})
	steps := make([][]int, len(list))
	for i, c := range list {
		steps[i] = make([]int, len(facets))
		for k, f := range facets {
			steps[i][k] = f.steps(c)
		}
	}
	var out []*Candidate
	for i, c := range list {
		beaten := false
		for j := range list {
			if i != j && beats(steps[j], steps[i], j < i) {
				beaten = true
				break
			}
		}
		if !beaten {
			out = append(out, c)
		}
	}
	return out
}

// beats tells whether one is in every facet at least as good as another and better in one, or equal and first.
func beats(a, b []int, first bool) bool {
	better := false
	for k := range a {
		if a[k] > b[k] {
			return false
		}
		better = better || a[k] < b[k]
	}
	return better || first
}

// thin leaves n of a list ordered by hours, the ends among them and the others evenly between, every base as long
// as there is room.
func thin(list []*Candidate, n int) []*Candidate {
	if len(list) <= n {
		return list
	}
	byBase := map[string][]*Candidate{}
	var order []string
	for _, c := range list {
		key := string(c.Variant.Base)
		if byBase[key] == nil {
			order = append(order, key)
		}
		byBase[key] = append(byBase[key], c)
	}
	var out []*Candidate
	for k, key := range order {
		of := byBase[key]
		room := (n - len(out)) / (len(order) - k)
		if len(of) <= room {
			out = append(out, of...)
			continue
		}
		for i := range room {
			out = append(out, of[i*(len(of)-1)/max(1, room-1)])
		}
	}
	return out
}
