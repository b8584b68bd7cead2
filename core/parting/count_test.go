package parting

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/invalid"
	"kladotex/core/scalp"
)

// For every total from 20 to 300 on three heads: met exactly where it is even, and
// the two even neighbours where it is odd, nearer than which no mirrored head can
// come. What is returned is laid again to see that it has what it says.
func TestEveryTotalIsMetOrItsNeighboursAreGiven(t *testing.T) {
	patternOf := map[string]Settings{
		"Child":       both(Brick, square(1), square(1)),
		"Average":     both(Grid, square(0.75), square(1)),
		"Extra-large": Plain(Wish{Triangle, square(0.75), 1, 1}, Wish{FreeHand, square(1), 1.4, 1}),
	}
	for _, preset := range scalp.Presets() {
		s, ok := patternOf[preset.Name]
		if !ok {
			continue
		}
		h, err := scalp.Fit(preset.Tapes)
		require.NoError(t, err)
		t.Run(preset.Name, func(t *testing.T) {
			t.Parallel()
			for total := 20; total <= 300; total++ {
				found, err := FitCount(h, s, total, KeepNone)
				require.NoError(t, err, "%s %d", preset.Name, total)
				want := []int{total}
				if total%2 == 1 {
					want = []int{total - 1, total + 1}
				}
				var got []int
				for _, f := range found {
					got = append(got, f.Sections)
					assert.Equal(t, s.Front.Pattern, f.Settings.Front.Pattern)
					if total%20 == 0 { // each is laid; drawing them all takes long
						l, err := Lay(h, f.Settings)
						require.NoError(t, err)
						assert.Len(t, l.Sections, f.Sections)
					}
				}
				require.Equal(t, want, got, "%s, %d sections", preset.Name, total)
			}
		})
	}
}

func TestAKeptZoneStaysAsItIs(t *testing.T) {
	h := average(t)
	s := both(Brick, square(0.75), square(1))
	before, err := Lay(h, s)
	require.NoError(t, err)
	found, err := FitCount(h, s, len(before.Sections)+20, KeepFront)
	require.NoError(t, err)
	require.NotEmpty(t, found)
	for _, f := range found {
		assert.Equal(t, s.Front, f.Settings.Front)
		assert.Less(t, f.Settings.Back.Width, s.Back.Width)
	}
	if wished := len(before.Sections) + 20; len(found) == 1 {
		assert.Equal(t, wished, found[0].Sections)
	} else {
		assert.Less(t, found[0].Sections, wished)
		assert.Greater(t, found[1].Sections, wished)
	}
}

func TestTotalsOutOfReachNameTheRange(t *testing.T) {
	h := average(t)
	for _, total := range []int{-4, 0, 3, 5000} {
		_, err := FitCount(h, both(Brick, square(1), square(1)), total, KeepNone)
		bad := invalid.From(err)
		require.Len(t, bad, 1, total)
		assert.Equal(t, "total", bad[0].Path)
		assert.Regexp(t, `Between \d+ and \d+ sections`, bad[0].Message)
	}
	_, err := FitCount(h, both("spiral", square(1), square(1)), 100, KeepNone)
	require.NotEmpty(t, invalid.From(err))
	assert.Equal(t, "parting.front.pattern", invalid.From(err)[0].Path)
}

func BenchmarkFitCount(b *testing.B) {
	h := average(b)
	for b.Loop() {
		_, _ = FitCount(h, both(Brick, square(0.75), square(1)), 120, KeepNone)
	}
}

// On any head and from any sizes: what is found keeps to its patterns, ramps and
// limits, and never lies on one side of the wish alone unless it meets it.
func TestFittedSizesStayWithinTheLimits(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 7))
	for i := 0; i < 12; {
		h, err := scalp.Fit(scalp.Tapes{
			Circumference: 500 + 120*r.Float64(), FrontToNape: 320 + 80*r.Float64(), EarToEar: 290 + 60*r.Float64(), Ratio: 0.72 + 0.15*r.Float64(),
		})
		if err != nil {
			continue
		}
		i++
		s := Plain(
			Wish{patterns[i%len(patterns)], square(0.5 + 1.2*r.Float64()), 0.6 + r.Float64(), 1},
			Wish{patterns[(i+1)%len(patterns)], square(0.5 + 1.2*r.Float64()), 1, 1},
		)
		total := 24 + r.IntN(260)
		found, err := FitCount(h, s, total, []Keep{KeepNone, KeepFront, KeepBack}[i%3])
		if err != nil { // a kept zone may already have more than the wish
			require.Equal(t, "total", invalid.From(err)[0].Path)
			continue
		}
		require.NotEmpty(t, found)
		if len(found) == 1 {
			assert.Equal(t, total, found[0].Sections)
		} else {
			assert.Less(t, found[0].Sections, total)
			assert.Greater(t, found[1].Sections, total)
		}
		for _, f := range found {
			require.NoError(t, f.Settings.Check())
			assert.Equal(t, s.Front.Pattern, f.Settings.Front.Pattern)
			assert.Equal(t, s.Front.Ramp, f.Settings.Front.Ramp)
			l, err := Lay(h, f.Settings)
			require.NoError(t, err)
			assert.Len(t, l.Sections, f.Sections)
		}
	}
}
