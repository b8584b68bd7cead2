package scalp

import (
	"math"
	"math/rand/v2"
	"regexp"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/invalid"
)

func averageTapes() Tapes { return Presets()[2].Tapes }

// A landmark that is moved lies as far as it was moved from its usual place, along
// the scalp, and the tape from front to nape still measures what it did.
func TestLandmarksMoveByWhatIsSaid(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	usual, err := Fit(averageTapes())
	require.NoError(t, err)
	for range 200 {
		up, back := 30*r.Float64()-15, 16*r.Float64()-8
		for name, l := range map[Landmark]Hairline{
			TempleCorner: {TempleCorner: Move{Up: up}},
			Temple:       {Temple: Move{Up: up}},
			BehindEar:    {BehindEar: Move{Back: back}},
			NapeCorner:   {NapeCorner: Move{Back: back}},
		} {
			h, err := FitWith(averageTapes(), l)
			require.NoError(t, err)
			want := math.Abs(up)
			if name == BehindEar || name == NapeCorner {
				want = math.Abs(back)
			}
			assert.InDelta(t, want, h.Arc(usual.Landmark(name), h.Landmark(name)), 0.02*want+0.05, "landmark %d", name)
		}
	}
	for _, front := range []float64{-15, -4, 8, 25} {
		h, err := FitWith(averageTapes(), Hairline{Front: front})
		require.NoError(t, err)
		assert.InDelta(t, averageTapes().FrontToNape, h.Tapes(0).FrontToNape, 1e-3)
		assert.InDelta(t, averageTapes().EarToEar, h.Tapes(0).EarToEar, 1e-3)
		// The nape gives way: it lies as much lower as the front lies higher.
		assert.InDelta(t, front, (h.Nape-usual.Nape)*(usual.A+usual.C)/2, 0.12*math.Abs(front)+0.3)
		assert.Equal(t, front > 0, h.Landmark(FrontCentre).Z > usual.Landmark(FrontCentre).Z)
	}
}

// A hairline that would turn back on itself is refused with a move that works.
func TestLandmarksDoNotPassEachOther(t *testing.T) {
	for _, c := range []struct {
		line  Hairline
		path  string
		apply func(*Hairline, float64)
	}{
		{Hairline{TempleCorner: Move{Back: 38}}, "hairline.templeCorner.backMm", func(l *Hairline, mm float64) { l.TempleCorner.Back = mm }},
		{Hairline{Temple: Move{Back: -32}}, "hairline.temple.backMm", func(l *Hairline, mm float64) { l.Temple.Back = mm }},
	} {
		_, err := FitWith(averageTapes(), c.line)
		bad := invalid.From(err)
		require.Len(t, bad, 1)
		assert.Equal(t, c.path, bad[0].Path, bad[0].Message)
		m := regexp.MustCompile(`to (-?[\d.]+) cm`).FindStringSubmatch(bad[0].Message)
		require.NotNil(t, m, bad[0].Message)
		cm, err := strconv.ParseFloat(m[1], 64)
		require.NoError(t, err)
		c.apply(&c.line, 10*cm)
		_, err = FitWith(averageTapes(), c.line)
		assert.NoError(t, err, bad[0].Message)
	}
	for path, l := range map[string]Hairline{
		"hairline.frontMm":        {Front: math.NaN()},
		"hairline.sideburn.upMm":  {Sideburn: Move{Up: 41}},
		"hairline.behindEar.upMm": {BehindEar: Move{Up: math.Inf(-1)}},
	} {
		_, err := FitWith(averageTapes(), l)
		require.NotEmpty(t, invalid.From(err), path)
		assert.Equal(t, path, invalid.From(err)[0].Path)
	}
	wild := averageTapes()
	wild.EarToEar = 1
	_, err := FitWith(wild, Hairline{Front: 5})
	assert.Equal(t, "head.earToEarMm", invalid.From(err)[0].Path)
}
