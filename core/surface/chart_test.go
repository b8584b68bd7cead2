package surface

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
)

// ball is a chart of a quarter of a round head: s turns about the top from the front to the
// left, x runs down from 70° to 10° of latitude in three rows. Its end slants.
func ball() (*Chart, []Band) {
	h := scalp.Head{A: 95, B: 95, C: 95, Nape: 0.7}
	const n = 24
	place := func(s, x float64) r3.Vec {
		return scalp.At(s/n*math.Pi/2, (70-20*x)*math.Pi/180)
	}
	c := &Chart{Head: h, Steps: n, Draw: func(x float64) []r3.Vec {
		out := make([]r3.Vec, n+1)
		for j := range out {
			out[j] = place(float64(j), x)
		}
		return out
	}}
	for x := 0.0; x <= 3; x += 0.25 {
		s := n - 5*x/3
		c.End = append(c.End, Mark{S: s, X: x, At: place(s, x)})
	}
	var bands []Band
	for x := 0.0; x < 3; x++ {
		bands = append(bands, c.Band(c.Line(x), c.Line(x+0.5), c.Line(x+1)))
	}
	return c, bands
}

// However a band is cut, its pieces are the band: none lies over another, none is lost.
func TestPiecesOfABandMakeIt(t *testing.T) {
	c, bands := ball()
	r := rand.New(rand.NewPCG(8, 1))
	for i := range bands {
		b := &bands[i]
		whole, _ := c.Head.AreaCentroid(b.Ring(nil, Box{b.From, b.To, b.From, b.To}))
		for range 200 {
			low, high := b.From, b.From
			sum := 0.0
			for low < b.To || high < b.To {
				toLow, toHigh := min(b.To, low+1+4*r.Float64()), min(b.To, high+1+4*r.Float64())
				if toLow > b.FullTo || toHigh > b.FullTo { // the last part before the border is square
					toLow, toHigh = b.To, b.To
				}
				ring := b.Ring(nil, Box{low, toLow, high, toHigh})
				require.GreaterOrEqual(t, len(ring), 3)
				area, _ := c.Head.AreaCentroid(ring)
				sum += math.Abs(area)
				low, high = toLow, toHigh
			}
			require.InEpsilon(t, math.Abs(whole), sum, 2e-3)
		}
	}
}

// The area of a band between two parallels is that of a spherical zone, 2πr²·(sin − sin) of a
// whole turn (Archimedes); that of the chart is what its outline holds.
func TestBandsMeasureTheSphere(t *testing.T) {
	c, bands := ball()
	outline, _ := c.Head.AreaCentroid(Outline(bands))
	sum := 0.0
	for i := range bands {
		b := &bands[i]
		full := b.Running[int(b.FullTo)]
		turn := math.Pi / 2 * math.Floor(b.FullTo) / float64(c.Steps)
		low, high := (70-20*float64(i))*math.Pi/180, (50-20*float64(i))*math.Pi/180
		assert.InEpsilon(t, turn*95*95*(math.Sin(low)-math.Sin(high)), full, 5e-3, "row %d", i+1)
		assert.InDelta(t, b.Area()/2, b.RunningLow[c.Steps], 0.12*b.Area())
		sum += b.Area()
	}
	assert.InEpsilon(t, sum, math.Abs(outline), 5e-3)
}

// A line's length and place go together: mm on a parallel are those of its circle.
func TestLinesAreMeasuredAlongThem(t *testing.T) {
	c, _ := ball()
	line := c.Line(1.5)
	radius := 95 * math.Cos(40*math.Pi/180)
	for _, s := range []float64{0, 3.7, 12, 23.9, 24} {
		assert.InDelta(t, radius*s/24*math.Pi/2, line.MM(s), 0.1)
		assert.InDelta(t, s, line.SAt(line.MM(s)), 1e-9)
	}
	assert.InDelta(t, line.MM(20)-line.MM(4), c.Curve(line, 4, 20).Length(), 1e-9)
}

// A square has the compactness 1, a right triangle ½, a needle little; turning it changes
// nothing.
func TestCompactness(t *testing.T) {
	h := scalp.Head{A: 95, B: 95, C: 95, Nape: 0.7}
	for name, c := range map[string]struct {
		corners [][2]float64 // mm round a place on the head
		want    float64
	}{
		"square":   {[][2]float64{{-5, -5}, {5, -5}, {5, 5}, {-5, 5}}, 1},
		"triangle": {[][2]float64{{-5, -5}, {5, -5}, {-5, 5}}, 0.5},
		"kite":     {[][2]float64{{-20, 0}, {0, -2}, {20, 0}, {0, 2}}, 0.5},
	} {
		for turn := 0.0; turn < 3; turn += 0.7 {
			sin, cos := math.Sincos(turn)
			ring := make([]r3.Vec, len(c.corners))
			for i, p := range c.corners {
				x, y := p[0]*cos-p[1]*sin, p[0]*sin+p[1]*cos
				ring[i] = scalp.Unit(r3.Vec{X: x / 95, Y: y / 95, Z: 1})
			}
			area, centroid := h.AreaCentroid(ring)
			assert.InDelta(t, c.want, Compactness(h, ring, area, centroid, nil), 0.03, name)
		}
	}
}
