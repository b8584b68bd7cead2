package supply

// Spot is one place among which colours or accents are spread.
type Spot struct {
	// Line groups those that follow one another; spots of a line stand together, in order.
	Line string
	// Twin is the index of its mirror image, or its own or -1 where it has none.
	Twin int
}

// Spread gives every spot one of len(shares) kinds so that each kind has its share and comes
// evenly: the error of every choice is carried on to the next spot, every second line the
// other way round, so that no stripe stands through several lines (error diffusion). Twins get
// the same kind. Shares are whole parts, one of them at least above 0.
func Spread(spots []Spot, shares []int) []int {
	total := 0
	for _, s := range shares {
		total += s
	}
	out := make([]int, len(spots))
	for i := range out {
		out[i] = -1
	}
	due := make([]float64, len(shares))
	place := func(i int) {
		if out[i] >= 0 {
			return
		}
		weight, twin := 1.0, spots[i].Twin
		if twin >= 0 && twin != i && out[twin] < 0 {
			weight = 2
		} else {
			twin = i
		}
		best := 0
		for k, s := range shares {
			due[k] += weight * float64(s) / float64(total)
			if due[k] > due[best] {
				best = k
			}
		}
		due[best] -= weight
		out[i], out[twin] = best, best
	}
	for from, line := 0, 0; from < len(spots); line++ {
		to := from
		for to < len(spots) && spots[to].Line == spots[from].Line {
			to++
		}
		for k := from; k < to; k++ {
			if line%2 == 0 {
				place(k)
			} else {
				place(to - 1 - (k - from))
			}
		}
		from = to
	}
	return out
}
