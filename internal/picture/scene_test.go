package picture

import (
	"context"
	"encoding/xml"
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/tally"
)

// computed is what a plan comes to.
func computed(t testing.TB, in plan.Input) tally.Result {
	t.Helper()
	res, err := tally.Compute(context.Background(), in)
	require.NoError(t, err)
	return res
}

func TestPicturesAreSoundAndShowTheNearSide(t *testing.T) {
	p := computed(t, plan.Default())
	count := func(drawn []byte) int {
		require.NoError(t, xml.Unmarshal(drawn, new(struct{})), "well-formed XML")
		assert.NotContains(t, string(drawn), "NaN")
		return strings.Count(string(drawn), `stroke-width="2.2"`)
	}
	sections := len(p.Layout.Sections)
	// From behind the left shoulder more than half of the sections are in sight,
	// and never all; from below, few.
	shoulder := count(Small(p))
	assert.Greater(t, shoulder, sections/2)
	assert.Less(t, shoulder, sections)
	for lon := 0.0; lon < 360; lon += 15 {
		for _, lat := range []float64{-90, -25, 0, 40, 90} {
			n := count(View(p, lon*math.Pi/180, lat*math.Pi/180))
			assert.True(t, n > 0 && n <= sections, "%v %v: %d", lon, lat, n)
		}
	}
}

// What is clipped at the rim is bounded by it: no wedge of bare skin beside a cornrow.
// The area seen of the long cornrows is that of their short pieces in sight.
func TestNoWedgeIsBareAtTheRim(t *testing.T) {
	in := plan.Default()
	in.Parting.Structure, in.Parting.Base.Run, in.Parting.Base.Cornrows = parting.EarToEar, parting.Horizontal, 6
	res := computed(t, in)
	cornrows := 0
	for _, lon := range []float64{90, 130, 180, 250} {
		c := CameraAt(res.Head.Axes, lon*math.Pi/180, 15*math.Pi/180)
		for _, cornrow := range res.Layout.Cornrows {
			require.Len(t, cornrow.Outlines, 1, "one from side to side is whole")
			ring := cornrow.Outlines[0]
			seen := 0.0
			for _, part := range c.clip(ring) {
				seen += math.Abs(flatArea(c.flatAll(part)))
			}
			// Each half runs from the middle out to the ear and back: strips between points
			// opposite each other.
			pieces := 0.0
			for _, side := range []float64{1, -1} {
				var half []r3.Vec
				for _, p := range ring {
					if side*p[1] > -1e-9 {
						half = append(half, vec(p))
					}
				}
				if side < 0 { // the first of the list is the last of this half
					half = append(half[1:], half[0])
				}
				n := len(half)
				for i := range n/2 - 1 {
					quad := []r3.Vec{half[i], half[i+1], half[n-2-i], half[n-1-i]}
					if !slices.ContainsFunc(quad, func(p r3.Vec) bool { return c.facing(p) < 0 }) {
						pieces += math.Abs(flatArea(c.flatAll(quad)))
					}
				}
			}
			if pieces > 400 {
				cornrows++
				assert.Greater(t, seen, 0.97*pieces, "%s from %v°", cornrow.ID, lon)
			}
		}
	}
	assert.Greater(t, cornrows, 8)
}

func flatArea(ring []Point) (sum float64) {
	for i, p := range ring {
		q := ring[(i+1)%len(ring)]
		sum += (p.X*q.Y - q.X*p.Y) / 2
	}
	return sum
}

// Cornrows, hooks and what stays loose are drawn, from any side.
func TestPicturesShowTheBase(t *testing.T) {
	in := plan.Default()
	in.Parting.Structure, in.Parting.Base.Run = parting.Perimeter, parting.Horizontal
	in.Parting.Part.Kind = parting.NoPart
	p := computed(t, in)
	for lon := 0.0; lon < 6.3; lon += 0.5 {
		drawn := string(View(p, lon, 0.3))
		assert.NotContains(t, drawn, "NaN")
		assert.Contains(t, drawn, hookTone.hex())
		assert.Contains(t, drawn, scalpTone.hex(), "part lines")
		assert.Contains(t, drawn, `stroke-width="0.2"`, "the segments of plaits")
	}
}
