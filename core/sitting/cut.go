package sitting

import "math"

// Sitting is a stretch of the steps, and who does what when.
type Sitting struct {
	// From and To bound the stretch: steps[From:To].
	From, To int
	Spans    []Span
	Minutes  float64
}

// Cut cuts the steps into the fewest sittings that are no longer than their limits, and of
// those into the most even ones. Sitting k, from 0, lasts limit(k) at most, minutes. A step that
// is by itself longer than that makes a sitting of its own. Where two people share the rows, none is
// left plaited and not attached at the end of a sitting, unless all are plaited first.
func (c Crew) Cut(steps []Step, limit func(k int) float64) []Sitting {
	ends := c.ends(steps)
	if len(c.People) > 1 {
		ends = thinned(steps, ends, limit)
	}
	n := len(ends) - 1
	if n < 1 {
		return nil
	}
	length := make([][]extent, n) // of a sitting from one end on, as far as it matters
	most := 0.0
	for k := range n {
		most = max(most, limit(k))
	}
	for a := range n {
		length[a] = c.lengths(steps, ends, a, most)
	}
	// cost[a] is the least sum of squared shares of work in their limits that k sittings up to end
	// a come to, from[k][a] where the last of them begins. Even sittings have the least sum.
	cost := make([]float64, n+1)
	for a := range cost {
		cost[a] = math.Inf(1)
	}
	cost[0] = 0
	var from [][]int
	for k := 0; math.IsInf(cost[n], 1); k++ {
		next, begins := make([]float64, n+1), make([]int, n+1)
		for b := range next {
			next[b] = math.Inf(1)
		}
		for a, have := range cost {
			if math.IsInf(have, 1) || a == n {
				continue
			}
			for j, x := range length[a] {
				if j > 0 && x.minutes > limit(k) {
					break
				}
				share := x.work / limit(k)
				if b := a + 1 + j; have+share*share < next[b] {
					next[b], begins[b] = have+share*share, a
				}
			}
		}
		cost, from = next, append(from, begins)
	}
	out := make([]Sitting, len(from))
	for k, b := len(from)-1, n; k >= 0; k-- {
		a := from[k][b]
		s := &out[k]
		s.From, s.To = ends[a], ends[b]
		s.Spans = c.Run(steps, s.From, s.To)
		s.Minutes = Length(s.Spans)
		b = a
	}
	return out
}

// extent is how long a sitting lasts, and how much work is in it, by all who do any.
type extent struct{ minutes, work float64 }

// worked is the work in spans, without rests.
func worked(spans []Span) (minutes float64) {
	for _, s := range spans {
		minutes += s.End - s.Start
		for _, r := range s.Rests {
			minutes -= r.End - r.Start
		}
	}
	return minutes
}

// lengths are those of the sittings that begin at end a and end one, two, three … ends later,
// up to the first that is longer than most.
func (c Crew) lengths(steps []Step, ends []int, a int, most float64) (out []extent) {
	if len(c.People) == 1 {
		var p at
		b := a + 1
		for i := ends[a]; i < len(steps); i++ {
			if steps[i].By[0] > 0 {
				c.do(&p, &steps[i], 0, i)
			}
			if i+1 == ends[b] {
				if out = append(out, extent{p.free, p.worked}); p.free > most {
					return out
				}
				b++
			}
		}
		return out
	}
	for b := a + 1; b < len(ends); b++ {
		spans := c.Run(steps, ends[a], ends[b])
		x := extent{Length(spans), worked(spans)}
		if out = append(out, x); x.minutes > most {
			return out
		}
	}
	return out
}

// grain is the share of a sitting below which two people's steps are not looked at one by one for
// an end: there are many, and each has to be tried out.
const grain = 1.0 / 12

// thinned leaves ends out where so little lies between them that a sitting is hardly evener for it.
func thinned(steps []Step, ends []int, limit func(k int) float64) []int {
	shortest := math.Inf(1)
	for k := range ends {
		shortest = min(shortest, limit(k))
	}
	out, since := ends[:1:1], 0.0
	for k := 1; k < len(ends); k++ {
		for _, s := range steps[ends[k-1]:ends[k]] {
			since += longest(s.By)
		}
		next := 0.0
		if k+1 < len(ends) {
			for _, s := range steps[ends[k]:ends[k+1]] {
				next += longest(s.By)
			}
		}
		if since+next > grain*shortest || k == len(ends)-1 {
			out, since = append(out, ends[k]), 0
		}
	}
	return out
}

// longest is what a step takes the slowest of those who do it.
func longest(by []float64) (minutes float64) {
	for _, m := range by {
		minutes = max(minutes, m)
	}
	return minutes
}

// ends are where a sitting may begin and end, as indices of steps: anywhere between two steps
// for one person; for two, where no row is plaited and not attached, or among steps of one sort.
func (c Crew) ends(steps []Step) []int {
	out := []int{0}
	last := map[int]int{} // the last step of each row
	for i, s := range steps {
		last[s.Row] = i
	}
	open := map[int]bool{}
	for i, s := range steps {
		if s.Row != NoRow {
			if open[s.Row] = true; last[s.Row] == i {
				delete(open, s.Row)
			}
		}
		alike := i+1 < len(steps) && steps[i+1].Plaits == s.Plaits
		if len(c.People) == 1 || len(open) == 0 || alike || i == len(steps)-1 {
			out = append(out, i+1)
		}
	}
	return out
}
