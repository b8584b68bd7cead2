package surface

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/spatial/r3"
	"pgregory.net/rapid"

	"kladotex/core/scalp"
)

// The nearest point of a curve is found without looking at each, whatever point the search
// starts from: held against all of them.
func TestDistanceIsThatOfTheNearestPoint(t *testing.T) {
	h, err := scalp.Fit(scalp.Presets()[0].Tapes)
	require.NoError(t, err)
	hairline := NewCurve(h, h.Hairline(scalp.FrontCentre, scalp.NapeCentre))
	rapid.Check(t, func(t *rapid.T) {
		u := scalp.At(rapid.Float64Range(0, math.Pi).Draw(t, "lon"), rapid.Float64Range(-0.4, 1.5).Draw(t, "lat"))
		nearest, least := r3.Vec{}, math.Inf(1)
		for _, p := range hairline.Points {
			if d := h.Chord(u, p); d < least {
				nearest, least = p, d
			}
		}
		guess := rapid.IntRange(0, 2*len(hairline.Points)).Draw(t, "guess")
		found := hairline.Distance(h, u, &guess)
		if math.Abs(found-h.Arc(u, nearest)) > 1e-9 {
			t.Fatalf("%.6f mm, not %.6f", found, h.Arc(u, nearest))
		}
		if h.Chord(u, hairline.Points[guess]) > least+1e-9 {
			t.Fatalf("the guess %d is not the nearest point", guess)
		}
	})
}
