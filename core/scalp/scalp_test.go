package scalp

import (
	"encoding/csv"
	"encoding/json"
	"math"
	"math/rand/v2"
	"os"
	"strconv"
	"testing"

	"github.com/golang/geo/s2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/mathext"
	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/invalid"
)

const degree = math.Pi / 180

// randomHead is any head whose tapes fit, with its tapes.
func randomHead(t *testing.T, r *rand.Rand) (Head, Tapes) {
	t.Helper()
	for range 1000 {
		tapes := Tapes{
			Circumference: 470 + 180*r.Float64(), FrontToNape: 290 + 130*r.Float64(), EarToEar: 260 + 120*r.Float64(),
			HairBulk: 8 * r.Float64(), Ratio: 0.7 + 0.2*r.Float64(),
		}
		if h, err := Fit(tapes); err == nil {
			return h, tapes
		}
	}
	t.Fatal("no head in a thousand fits its tapes")
	return Head{}, Tapes{}
}

func TestFittedHeadGivesItsTapesBack(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 1))
	for range 300 {
		h, want := randomHead(t, r)
		got := h.Tapes(want.HairBulk)
		// Half a millimetre is finer than any tape; the solver does far better.
		assert.InDelta(t, want.Circumference, got.Circumference, 1e-3)
		assert.InDelta(t, want.FrontToNape, got.FrontToNape, 1e-3)
		assert.InDelta(t, want.EarToEar, got.EarToEar, 1e-3)
		assert.InDelta(t, want.Ratio, got.Ratio, 1e-12)
	}
	for _, p := range Presets() {
		_, err := Fit(p.Tapes)
		assert.NoError(t, err, p.Name)
	}
}

func TestBulkIsTakenOffTheTapes(t *testing.T) {
	// On a sphere of 90 mm a tape over 5 mm of hair is a circle of 95 mm.
	ball := Head{A: 90, B: 90, C: 90, Nape: 40 * degree}
	got := ball.Tapes(5)
	assert.InDelta(t, 2*math.Pi*95, got.Circumference, 1e-6)
	assert.InDelta(t, 95*(180+2*8)*degree, got.EarToEar, 1e-6)
	assert.InDelta(t, 95*(180-27+40)*degree, got.FrontToNape, 1e-6)
}

func TestRefusedTapesAreNamedWithARangeThatWorks(t *testing.T) {
	average := Presets()[2].Tapes
	for path, spoil := range map[string]func(*Tapes){
		"circumferenceMm": func(t *Tapes) { t.Circumference = 120 },
		"frontToNapeMm":   func(t *Tapes) { t.FrontToNape = 250 },
		"earToEarMm":      func(t *Tapes) { t.EarToEar = 240 },
		"hairBulkMm":      func(t *Tapes) { t.HairBulk = -1 },
		"ratio":           func(t *Tapes) { t.Ratio = math.NaN() },
	} {
		tapes := average
		spoil(&tapes)
		_, err := Fit(tapes)
		var bad invalid.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
		assert.Regexp(t, `between .* and `, bad[0].Message)
	}
}

// Perimeter of an ellipse: 4a·E(m), m = 1 - b²/a², with E from gonum's Carlson
// forms.
func TestCircumferenceIsTheEllipticIntegral(t *testing.T) {
	for _, ratio := range []float64{0.66, 0.78, 0.9, 0.94, 1} {
		h := Head{A: 98, B: 98 * ratio, C: 100}
		assert.InDelta(t, 4*h.A*mathext.CompleteE(1-ratio*ratio), h.Circumference(), 1e-6)
	}
}

// US Army anthropometric survey 1988, women and men, from memory: head length
// and breadth against circumference, mm. The ellipse agrees within 5 %.
func TestCircumferenceAgreesWithAnthropometry(t *testing.T) {
	for _, m := range []struct{ length, breadth, around float64 }{{187, 144, 546}, {197, 152, 568}} {
		h := Head{A: m.length / 2, B: m.breadth / 2, C: 100}
		assert.InEpsilon(t, m.around, h.Circumference(), 0.05)
	}
}

// testdata/geodesic.csv is made by GeographicLib's GeodSolve (geodesic.sh). Along a
// meridian or the equator of a spheroid a central plane section is the geodesic
// itself; elsewhere it is longer, on a head by less than 1 %.
func TestArcsAgreeWithGeodesics(t *testing.T) {
	f, err := os.Open("testdata/geodesic.csv")
	require.NoError(t, err)
	defer f.Close()
	rows, err := csv.NewReader(f).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 41)
	for _, row := range rows[1:] {
		v := make([]float64, len(row))
		for i, text := range row {
			v[i], err = strconv.ParseFloat(text, 64)
			require.NoError(t, err)
		}
		a, flat := v[0], v[1]
		h := Head{A: a, B: a, C: a * (1 - flat)}
		reduced := func(lat float64) float64 { return math.Atan((1 - flat) * math.Tan(lat*degree)) }
		got := h.Arc(At(v[3]*degree, reduced(v[2])), At(v[5]*degree, reduced(v[4])))
		want := v[6]
		if onMeridian, onEquator := v[3] == v[5], v[2] == 0 && v[4] == 0; onMeridian || onEquator || flat == 0 {
			assert.InDelta(t, want, got, 1e-5, "%v", row)
		} else {
			assert.GreaterOrEqual(t, got, want-1e-6, "%v", row)
			assert.InEpsilon(t, want, got, 0.01, "%v", row)
		}
	}
}

// Areas on a round head against the spherical polygons of the s2 library.
func TestAreasOnARoundHeadAgreeWithS2(t *testing.T) {
	r := rand.New(rand.NewPCG(2, 2))
	const radius = 90.0
	ball := Head{A: radius, B: radius, C: radius}
	for range 200 {
		hub := At(2*math.Pi*r.Float64(), math.Asin(2*r.Float64()-1))
		east := Unit(r3.Cross(r3.Vec{X: 0.31, Y: 0.2, Z: 0.93}, hub))
		north := r3.Cross(hub, east)
		n := 3 + r.IntN(12)
		ring := make([]r3.Vec, n)
		points := make([]s2.Point, n)
		for i := range ring {
			sin, cos := math.Sincos(2 * math.Pi * (float64(i) + 0.8*r.Float64()) / float64(n))
			reach := 0.05 + 0.5*r.Float64()
			ring[i] = Unit(r3.Add(hub, r3.Scale(reach, r3.Add(r3.Scale(cos, east), r3.Scale(sin, north)))))
			points[i] = s2.PointFromCoords(ring[i].X, ring[i].Y, ring[i].Z)
		}
		area, _ := ball.AreaCentroid(ring)
		assert.InEpsilon(t, s2.LoopFromPoints(points).Area()*radius*radius, area, 1e-9)
	}
}

// A whole octant of an ellipsoid, whose area Knud Thomsen's formula (from memory)
// gives within 1.1 %.
func TestEllipsoidAreaAgreesWithThomsen(t *testing.T) {
	h := Head{A: 99, B: 78, C: 105}
	octant := 0.0
	// A triangle of the octant at a time, small enough for the fan.
	const n = 24
	at := func(i, j int) r3.Vec {
		return At(float64(i)/n*math.Pi/2, float64(j)/n*math.Pi/2)
	}
	for i := range n {
		for j := range n {
			ring := []r3.Vec{at(i, j), at(i+1, j), at(i+1, j+1), at(i, j+1)}
			if j == n-1 {
				ring = ring[:3]
			}
			area, _ := h.AreaCentroid(ring)
			octant += area
		}
	}
	const p = 1.6075
	mean := (math.Pow(h.A*h.B, p) + math.Pow(h.A*h.C, p) + math.Pow(h.B*h.C, p)) / 3
	assert.InEpsilon(t, 4*math.Pi*math.Pow(mean, 1/p), 8*octant, 0.011)
}

func TestHairlineIsSmoothAndMeetsItsLandmarks(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 3))
	for range 50 {
		h, _ := randomHead(t, r)
		line := h.Hairline(FrontCentre, NapeCentre)
		assert.Equal(t, h.Landmark(FrontCentre), line[0])
		assert.Equal(t, h.Landmark(NapeCentre), line[len(line)-1])
		for i := 1; i < len(line)-1; i++ {
			assert.InDelta(t, 1, r3.Norm(line[i]), 1e-12)
			before, after := Unit(r3.Sub(line[i], line[i-1])), Unit(r3.Sub(line[i+1], line[i]))
			assert.Greater(t, r3.Dot(before, after), 0.8, "the hairline turns sharply at step %d", i)
		}
	}
}

// A point is written to the hundredth of a millimetre, the points of a line to the tenth.
func TestPointsAreWrittenToTheHundredth(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 5))
	line := Line{{0, -0.001, 100}, {-0.5, 7.1, -12.34}, {99.999, -99.995, 0.05}}
	for range 500 {
		line = append(line, Point{200*r.Float64() - 100, 200*r.Float64() - 100, r.Float64() / 50})
	}
	for _, c := range []struct {
		written any
		per     float64
	}{{[]Point(line), 100}, {line, 10}} {
		raw, err := json.Marshal(c.written)
		require.NoError(t, err)
		var back [][3]float64
		require.NoError(t, json.Unmarshal(raw, &back))
		require.Len(t, back, len(line))
		for i, p := range line {
			for k, v := range p {
				assert.InDelta(t, v, back[i][k], 0.5/c.per+1e-9)
				assert.Equal(t, math.Round(back[i][k]*c.per)/c.per, back[i][k])
			}
		}
	}
}
