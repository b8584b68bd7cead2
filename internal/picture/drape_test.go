package picture

import (
	"encoding/xml"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/fall"
	"kladotex/core/hang"
	"kladotex/core/plan"
)

// The face that hair is kept from is the face that is drawn.
func TestTheFaceDrawnIsTheFaceHairFallsBeside(t *testing.T) {
	require.Len(t, fall.Face, len(drawn.Face))
	for i, s := range fall.Face {
		assert.Equal(t, drawn.Face[i], [4]float64{s.Z, s.Front, s.Back, s.Width})
	}
}

func TestADrapeIsDrawnFromEverySide(t *testing.T) {
	in := plan.Default()
	in.Pieces[0].Swatch = "#4a3021"
	res := computed(t, in)
	for _, style := range fall.Styles {
		d, err := hang.Of(t.Context(), solved(t, in), style)
		require.NoError(t, err)
		for lon := 0.0; lon < 360; lon += 45 {
			drawing := DrapedView(res, d, in, lon*math.Pi/180, 6*math.Pi/180)
			require.NoError(t, xml.Unmarshal(drawing, new(struct{})), "well-formed XML")
			assert.NotContains(t, string(drawing), "NaN")
			assert.Greater(t, strings.Count(string(drawing), "<path"), 3*len(d.Pieces))
		}
	}
}

// What hangs behind the body is painted before it, what hangs before it after: the middle of
// the back is hidden from the front, and the other way round.
func TestTheBodyHidesWhatHangsBehindIt(t *testing.T) {
	in := plan.Default()
	res := computed(t, in)
	d, err := hang.Of(t.Context(), solved(t, in), fall.Down)
	require.NoError(t, err)
	front, back := newWearer(d, CameraAt(res.Head.Axes, 0, 0)), newWearer(d, CameraAt(res.Head.Axes, math.Pi, 0))
	behind := r3.Vec{X: -0.085 * d.Stature, Z: -0.25 * d.Stature}
	assert.True(t, front.hidden(behind))
	assert.False(t, back.hidden(behind))
	occiput := r3.Vec{X: -1.05 * res.Head.Axes[0]}
	assert.True(t, front.hidden(occiput))
	assert.False(t, back.hidden(occiput))
}

func TestSwatchesBecomeTones(t *testing.T) {
	in := plan.Default()
	assert.Equal(t, []Tone{plainHair}, HairTones(in), "a piece without a swatch has a colour too")
	in.Pieces[0].Swatch = "#0a14ff"
	assert.Equal(t, []Tone{{10, 20, 255}}, HairTones(in))
}

func BenchmarkDraped(b *testing.B) {
	in := plan.Default()
	res := computed(b, in)
	d, err := hang.Of(b.Context(), solved(b, in), fall.Down)
	require.NoError(b, err)
	for b.Loop() {
		Draped(res, d, HairTones(in), CameraAt(res.Head.Axes, 2.4, 0.1))
	}
}

// solved is a plan solved.
func solved(t testing.TB, in plan.Input) *plan.Solved {
	t.Helper()
	sol, err := plan.Solve(t.Context(), in)
	require.NoError(t, err)
	return sol
}
