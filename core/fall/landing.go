package fall

import (
	"context"
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"
)

// Landing is where the ends of pieces land, as shares of stature.
type Landing struct {
	// Low is what one end in twenty hangs lower than, Middle half of them, High what one in
	// twenty stays above.
	Low    float64 `json:"low"`
	Middle float64 `json:"middle"`
	High   float64 `json:"high"`
	// Line is the lowest body line that half of the ends reach.
	Line string `json:"line" doc:"The lowest body line half of the ends reach"`
}

// Landed reads ends at the given shares of stature, at least one; it
// sorts them.
func Landed(shares []float64) Landing {
	slices.Sort(shares)
	l := Landing{Low: Quantile(shares, 0.05), Middle: Quantile(shares, 0.5), High: Quantile(shares, 0.95)}
	l.Line = LineAt(l.Middle)
	return l
}

// Quantile is that of sorted values, between neighbours; NaN of none.
func Quantile(sorted []float64, q float64) float64 {
	if len(sorted) == 0 {
		return math.NaN()
	}
	x := q * float64(len(sorted)-1)
	i := int(x)
	if i+1 >= len(sorted) {
		return sorted[len(sorted)-1]
	}
	return sorted[i] + (x-float64(i))*(sorted[i+1]-sorted[i])
}

// MaxReach is the length up to which [Wearer.Reach] looks, mm.
const MaxReach = 1500.0

// Reach is how far down pieces of a head come at any length.
type Reach struct {
	wearer *Wearer
	lines  [][]r3.Vec
}

// Reach hangs pieces as long as can be, to find out what length ends where. The error is that
// of ctx.
func (w *Wearer) Reach(ctx context.Context, pieces []Piece) (Reach, error) {
	long := slices.Clone(pieces)
	for i := range long {
		long[i].Length = MaxReach
	}
	lines, _, err := w.hang(ctx, long, Down)
	if err != nil {
		return Reach{}, err
	}
	return Reach{w, lines}, nil
}

// At is the length, as it hangs, at which piece i ends at a share of stature: 0 for one that
// grows below it, +Inf for one that never comes down to it.
func (r Reach) At(i int, share float64) float64 {
	line, z := r.lines[i], r.wearer.Height(share)
	if line[0].Z <= z {
		return 0
	}
	run := 0.0
	for k := 1; k < len(line); k++ {
		a, b := line[k-1], line[k]
		step := length(r3.Sub(b, a))
		if b.Z <= z {
			return run + step*(a.Z-z)/(a.Z-b.Z)
		}
		run += step
	}
	return math.Inf(1)
}
