package supply

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat/distuv"
)

func TestSpares(t *testing.T) {
	assert.Equal(t, 8, Spares{Percent: 5, Least: 2}.Of(160))
	assert.Equal(t, 6, Spares{Percent: 5, Least: 2}.Of(101))
	assert.Equal(t, 2, Spares{Percent: 5, Least: 2}.Of(10))
	a := Amounts{Least: 100, Likely: 102, Safe: 105}
	assert.Equal(t, 0, Spares{Percent: 5, Amount: LeastAmount}.From(100, a))
	assert.Equal(t, 2, Spares{Percent: 5, Amount: LikelyAmount}.From(100, a))
	assert.Equal(t, 5, Spares{Percent: 5, Amount: SafeAmount}.From(100, a))
	assert.Equal(t, 5, Spares{Percent: 5}.From(100, a))
}

// pmf is the binomial by its factorials, apart from the library that is used.
func pmf(n, k int, p float64) float64 {
	lg := func(x int) float64 { v, _ := math.Lgamma(float64(x) + 1); return v }
	return math.Exp(lg(n) - lg(k) - lg(n-k) + float64(k)*math.Log(p) + float64(n-k)*math.Log1p(-p))
}

// With packs that are never short the safe amount is a quantile of gonum's binomial: the least
// number that, in 95 of 100, has no more spoilt than there is above the need.
func TestSafeIsAnExactQuantile(t *testing.T) {
	for _, need := range []int{1, 24, 72, 100, 160, 300} {
		for _, p := range []float64{0.005, 0.02, 0.08} {
			a := Odds{Spoilt: p}.Amounts(need, 20, 1)
			enough := func(n int) float64 {
				return distuv.Binomial{N: float64(n), P: p}.CDF(float64(n - need))
			}
			assert.GreaterOrEqual(t, enough(a.Safe), SafeShare)
			assert.Less(t, enough(a.Safe-1), SafeShare, "one less is not safe: %d of %d at %g", a.Safe-1, need, p)
			assert.GreaterOrEqual(t, enough(a.Likely), 0.5)
			assert.LessOrEqual(t, a.Least, a.Likely)
			assert.LessOrEqual(t, a.Likely, a.Safe)
		}
	}
}

// Short packs and spoilt pieces together: against the double sum by hand, and against chance.
func TestEnoughCountsShortPacks(t *testing.T) {
	o := Odds{Spoilt: 0.02, Short: 0.05}
	const need, bought, yield = 100, 106, 20
	sum := 0.0
	for short := 0; short <= 6; short++ {
		have := bought - short
		for spoilt := 0; spoilt <= have-need; spoilt++ {
			sum += pmf(6, short, o.Short) * pmf(have, spoilt, o.Spoilt)
		}
	}
	assert.InDelta(t, sum, o.Enough(bought, need, yield, 1), 1e-9)

	r := rand.New(rand.NewPCG(3, 4))
	const rounds = 40_000
	good := 0
	for range rounds {
		have := bought
		for range 6 {
			if r.Float64() < o.Short {
				have--
			}
		}
		fine := 0
		for range have {
			if r.Float64() >= o.Spoilt {
				fine++
			}
		}
		if fine >= need {
			good++
		}
	}
	assert.InDelta(t, float64(good)/rounds, o.Enough(bought, need, yield, 1), 0.01)
	assert.Zero(t, o.Enough(99, 100, 20, 1))
	assert.Less(t, o.Enough(106, 100, 20, 4), o.Enough(106, 100, 20, 1), "a strand that gives four units is missed four times")
}

// A studio's own rate holds from two hundred pieces on.
func TestRateIsTheStudiosOwnOnceLogged(t *testing.T) {
	assert.Equal(t, Odds{0.02, 0.05}, Rate(150, 30))
	assert.InDelta(t, 0.05, Rate(190, 10).Spoilt, 1e-12)
	require.InDelta(t, 0, Rate(500, 0).Spoilt, 1e-12)
	assert.Equal(t, 100, Rate(500, 0).Amounts(100, 20, 1).Likely, "a studio that spoils nothing")
}

// Common practice, no source: 2 packs of 36 carry 72 exactly, 3 packs of 40 carry 120.
func TestPacksThatCarryExactly(t *testing.T) {
	for _, c := range []struct{ need, yield, packs int }{{72, 36, 2}, {120, 40, 3}} {
		assert.Equal(t, c.need, c.packs*c.yield)
		a := Rate(0, 0).Amounts(c.need, c.yield, 1)
		assert.Equal(t, c.need, a.Least)
		assert.Greater(t, a.Safe, c.packs*c.yield, "and so a further pack is for spares alone")
	}
}
