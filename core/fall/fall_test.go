package fall

import (
	"context"
	"fmt"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/spatial/r3"
	"pgregory.net/rapid"

	"kladotex/core/scalp"
)

const inch = 25.4

// usual is an average head with a middle part.
func usual(t require.TestingT) (scalp.Head, scalp.Line) {
	tapes := scalp.Presets()[slices.IndexFunc(scalp.Presets(), func(p scalp.Preset) bool { return p.Name == "Average" })].Tapes
	h, err := scalp.FitWith(tapes, scalp.Hairline{})
	require.NoError(t, err)
	front := h.Landmark(scalp.FrontCentre)
	var part scalp.Line
	for lat := math.Asin(front.Z); lat < 1.5; lat += 0.05 {
		part = append(part, h.Point(scalp.At(0, lat)))
	}
	return h, part
}

// rooted are pieces on the left of a head with their mirror images behind them.
func rooted(h scalp.Head, n int, mm, thick float64) []Piece {
	places, _ := Scalp(h, 4000)
	var left, right []Piece
	for i := 0; i < len(places) && len(left) < n; i += 2 * max(1, len(places)/2/n) {
		u := scalp.Unit(r3.Vec{X: places[i].X / h.A, Y: places[i].Y / h.B, Z: places[i].Z / h.C})
		left = append(left, Piece{Root: u, Side: 1, Length: mm, Thickness: thick})
		right = append(right, Piece{Root: scalp.Mirror(u), Side: -1, Length: mm, Thickness: thick})
	}
	return append(left, right...)
}

// The steepest way down an ellipsoid is known in closed form: along it x^(A²) and y^(B²) grow
// alike, so that x = x₀·e^(τ/A²) and y = y₀·e^(τ/B²); on a sphere it is the meridian.
func TestTheWayDownIsTheSteepest(t *testing.T) {
	for _, h := range []scalp.Head{{A: 90, B: 90, C: 90}, {A: 99.5, B: 77.6, C: 104.9}} {
		w := &Wearer{body: body{head: h}}
		worst := 0.0
		for lon := 5.0; lon < 360; lon += 10 {
			for lat := 10.0; lat < 86; lat += 10 {
				root := scalp.At(lon*degree, lat*degree)
				p := h.Surface(root)
				for _, q := range w.dome(root, 0, nil)[1:] {
					tau := math.Log(q.Y/p.Y) * h.B * h.B
					if math.Abs(p.X)/h.A > math.Abs(p.Y)/h.B { // from the surer of the two
						tau = math.Log(q.X/p.X) * h.A * h.A
					}
					worst = max(worst, math.Hypot(q.X-p.X*math.Exp(tau/h.A/h.A), q.Y-p.Y*math.Exp(tau/h.B/h.B)))
				}
			}
		}
		allowed := 0.5 // mm, of steps of 7
		if h.A == h.B {
			allowed = 1e-6
		}
		assert.Less(t, worst, allowed)
	}
}

// Whatever hangs keeps out of head, face and body, keeps its length, and hangs alike on both
// sides.
func TestHairKeepsOutOfTheBody(t *testing.T) {
	h, part := usual(t)
	rapid.Check(t, func(t *rapid.T) {
		stature := rapid.Float64Range(1000, 2100).Draw(t, "stature")
		mm := rapid.Float64Range(60, 1100).Draw(t, "length")
		thick := rapid.Float64Range(3, 14).Draw(t, "thickness")
		n := rapid.IntRange(3, 70).Draw(t, "pieces a side")
		style := rapid.SampledFrom(Styles).Draw(t, "style")
		line := part
		if rapid.Bool().Draw(t, "no part") {
			line = nil
		}
		w := New(h, stature, line)
		pieces := rooted(h, n, mm, thick)
		lines, _, err := w.hang(context.Background(), pieces, style)
		require.NoError(t, err)
		half := len(pieces) / 2
		for i, way := range lines {
			run := 0.0
			for k := 1; k < len(way); k++ {
				run += length(r3.Sub(way[k], way[k-1]))
				q := way[k]
				if q.Z > 0 {
					require.Greater(t, w.body.lift(q), -1.0, "a point lies in the head")
				}
				if g, _ := w.body.torso.gauge(q, -12); g < 1 && style == Down {
					require.Fail(t, "a point lies in the body", "%v of piece %d", q, i)
				}
				// Nothing hangs before the eyes, the nose or the mouth.
				if style == Down && q.X > 0.9*h.A && q.Z < -0.1*h.A && q.Z > -1.1*h.A {
					require.Greater(t, math.Abs(q.Y), 0.25*h.B, "a point hangs before the face")
				}
			}
			require.InDelta(t, mm, run, 0.01*mm+thick)
			if style == Down && i < half {
				own, other := way[len(way)-1], lines[i+half][len(lines[i+half])-1]
				require.InDelta(t, 0, length(r3.Sub(own, scalp.Mirror(other))), 1e-6, "left and right end apart")
			}
		}
	})
}

// Cover counts what a comparison of every place with every stretch counts.
func TestCoverAgainstEveryPair(t *testing.T) {
	h, part := usual(t)
	rapid.Check(t, func(t *rapid.T) {
		w := New(h, 1650, part)
		pieces := rooted(h, rapid.IntRange(2, 40).Draw(t, "pieces"), rapid.Float64Range(50, 500).Draw(t, "length"), rapid.Float64Range(3, 12).Draw(t, "thickness"))
		paths, err := w.Hang(context.Background(), pieces, rapid.SampledFrom(Styles).Draw(t, "style"))
		require.NoError(t, err)
		places, _ := Scalp(h, 300)
		slack := rapid.Float64Range(0, 10).Draw(t, "slack")
		found, err := w.Cover(context.Background(), pieces, paths, places, slack)
		require.NoError(t, err)
		all := w.stretches(pieces, paths, slack)
		for i, p := range places {
			over := map[int32]bool{}
			for _, s := range all {
				if s.beside(w.body.onBell(p)) <= slack {
					over[s.piece] = true
				}
			}
			assert.Len(t, over, found[0][i])
		}
	})
}

// How far a place lies beside a stretch of hair, told by trying many of its points.
func TestHowFarBesideTheHair(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		v := rapid.Custom(func(t *rapid.T) r3.Vec {
			c := rapid.Float64Range(-20, 20)
			return r3.Vec{X: c.Draw(t, "x"), Y: c.Draw(t, "y"), Z: c.Draw(t, "z")}
		})
		from, step, p := v.Draw(t, "from"), v.Draw(t, "step"), v.Draw(t, "p")
		if length(step) < 0.1 {
			t.Skip("no stretch")
		}
		least := math.Inf(1)
		for k := range 2001 {
			least = min(least, length(r3.Sub(p, r3.Add(from, r3.Scale(float64(k)/2000, step)))))
		}
		s := &stretch{from: from, step: step, inverse: 1 / r3.Norm2(step), half: 4}
		assert.InDelta(t, least-4, s.beside(p), 0.02)
	})
}

// Pieces put where filling is proposed hang over every place that was bare.
func TestFillingCoversWhatWasBare(t *testing.T) {
	h, part := usual(t)
	ctx := context.Background()
	rapid.Check(t, func(t *rapid.T) {
		w := New(h, 1650, part)
		places, _ := Scalp(h, 500)
		from := rapid.IntRange(0, len(places)-20).Draw(t, "from")
		bare := places[from : from+rapid.IntRange(1, 20).Draw(t, "places")]
		thick := rapid.Float64Range(4, 12).Draw(t, "thickness")
		const slack = 4.0
		roots, err := w.FillFor(ctx, bare, thick, slack, len(bare))
		require.NoError(t, err)
		assert.LessOrEqual(t, len(roots), len(bare))
		var pieces []Piece
		for _, r := range roots {
			pieces = append(pieces, Piece{Root: r, Length: 400, Thickness: thick})
		}
		paths, err := w.Hang(ctx, pieces, Down)
		require.NoError(t, err)
		cover, err := w.Cover(ctx, pieces, paths, bare, 2*thick) // they are led a little aside
		require.NoError(t, err)
		missed := 0
		for _, n := range cover[0] {
			if n == 0 {
				missed++
			}
		}
		assert.LessOrEqual(t, missed, len(bare)/4)
	})
}

// Cut to the lengths found for a line, all ends lie on it; on the few points that are drawn
// they stray by a finger's width at most.
func TestCutToALineAllEndsLieOnIt(t *testing.T) {
	h, part := usual(t)
	w := New(h, 1700, part)
	pieces := rooted(h, 50, 600, 9)
	reach, err := w.Reach(context.Background(), pieces)
	require.NoError(t, err)
	const line = 0.70
	for i := range pieces {
		pieces[i].Length = reach.At(i, line)
	}
	lines, _, err := w.hang(context.Background(), pieces, Down)
	require.NoError(t, err)
	for _, way := range lines {
		assert.InDelta(t, w.Height(line), way[len(way)-1].Z, 1)
	}
	paths, err := w.Hang(context.Background(), pieces, Down)
	require.NoError(t, err)
	for _, p := range paths {
		assert.LessOrEqual(t, len(p.Points), MaxPoints)
		assert.InDelta(t, w.Height(line), p.End().Z, 16)
	}
	// Longer pieces never end higher.
	for i := range pieces {
		assert.LessOrEqual(t, reach.At(i, 0.75), reach.At(i, 0.6))
	}
}

// The places stand for the scalp inside the hairline: their areas add up to that of its
// polygon, which the head measures by another way.
func TestPlacesStandForTheScalp(t *testing.T) {
	h, _ := usual(t)
	places, each := Scalp(h, 3000)
	left := h.Hairline(scalp.FrontCentre, scalp.NapeCentre)
	area := 0.0
	for i := 1; i < len(left); i++ {
		a, _ := h.AreaCentroid([]r3.Vec{left[i-1], left[i], {Z: 1}})
		area += 2 * math.Abs(a)
	}
	assert.InEpsilon(t, area, each*float64(len(places)), 0.02)
}

func TestSpotsAreJoined(t *testing.T) {
	var places []r3.Vec
	for x := range 30 {
		for y := range 10 {
			places = append(places, r3.Vec{X: float64(5 * x), Y: float64(5 * y)})
		}
	}
	// Two blocks of bare places, of 3 by 4 and of 5 by 5, and one alone.
	bare := func(i int) bool {
		x, y := i/10, i%10
		return x < 3 && y < 4 || x >= 10 && x < 15 && y < 5 || x == 25 && y == 5
	}
	spots := Spots(places, bare, 25)
	require.Len(t, spots, 2)
	assert.Len(t, spots[0].Places, 25)
	assert.InDelta(t, 25*25, spots[0].Area, 1e-9)
	assert.Equal(t, r3.Vec{X: 60, Y: 10}, spots[0].Middle)
	assert.Len(t, spots[1].Places, 12)
}

func TestShapesOfACut(t *testing.T) {
	const line = 0.8
	assert.Equal(t, line, Blunt.Ends(line, 0.3, 1))
	assert.Equal(t, line, Layers.Ends(line, 0, 0), "the lowest row of layers reaches the line")
	assert.Greater(t, Layers.Ends(line, 1, 0), Layers.Ends(line, 0.5, 0))
	assert.Equal(t, line, Bob.Ends(line, 1, 0), "the outer rows of a bob reach the line")
	assert.Greater(t, Bob.Ends(line, 0, 0), line, "those beneath end above it")
	assert.Less(t, Bob.Ends(line, 1, 1), line, "it lengthens to the face")
}

func TestGivenUpOnTheWay(t *testing.T) {
	h, part := usual(t)
	ctx, cancel := context.WithCancel(context.Background())
	cancel()
	_, err := New(h, 1650, part).Hang(ctx, rooted(h, 10, 400, 9), Down)
	assert.ErrorIs(t, err, context.Canceled)
}

func BenchmarkHang(b *testing.B) {
	h, part := usual(b)
	for _, n := range []int{60, 150} {
		for _, style := range []Style{Down, Tied} {
			b.Run(fmt.Sprintf("%d pieces %s", 2*n, style), func(b *testing.B) {
				w, pieces := New(h, 1650, part), rooted(h, n, 24*inch, 8)
				b.ReportAllocs()
				for b.Loop() {
					_, _ = w.Hang(context.Background(), pieces, style)
				}
			})
		}
	}
}
