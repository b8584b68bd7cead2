package fall

import (
	"context"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/spatial/r3"
	"gonum.org/v1/gonum/stat"
	"pgregory.net/rapid"

	"kladotex/core/scalp"
)

// The lines of the body stand at the stature fractions of Drillis and Contini 1966 (from
// memory): chin 0.870, shoulder 0.818, elbow 0.630, hip 0.530, knee 0.285; those between are in order.
func TestLinesOfTheBody(t *testing.T) {
	for key, share := range map[string]float64{"chin": 0.870, "shoulder": 0.818, "waist": 0.630, "hip": 0.530, "knee": 0.285} {
		l, ok := LineOf(key)
		require.True(t, ok)
		assert.Equal(t, share, l.Share)
	}
	assert.True(t, slices.IsSortedFunc(Lines, func(a, b BodyLine) int { return compare(b.Share, a.Share) }))
	_, ok := LineOf("ankle")
	assert.False(t, ok)
	for share, line := range map[float64]string{0.95: "ear", 0.88: "chin", 0.84: "chin", 0.82: "shoulder", 0.76: "armpit", 0.70: "mid-back", 0.66: "mid-back", 0.64: "waist", 0.45: "hip", 0.4: "thigh", 0.25: "knee", 0.0: "floor"} {
		assert.Equal(t, line, LineAt(share), "%v", share)
	}
	// A height and its share are one.
	h, _ := usual(t)
	w := New(h, 1700, nil)
	for _, share := range []float64{1, 0.8, 0.53} {
		assert.InDelta(t, share, w.Share(w.Height(share)), 1e-12)
	}
	assert.Equal(t, h.C, w.Height(1), "the vertex is the top of the head")
}

// Quantiles are those of a statistics library that interpolates between neighbours.
func TestQuantilesAgainstALibrary(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		v := rapid.SliceOfN(rapid.Float64Range(-5, 5), 2, 60).Draw(t, "values")
		q := rapid.Float64Range(0, 1).Draw(t, "quantile")
		slices.Sort(v)
		got := Quantile(v, q)
		assert.GreaterOrEqual(t, got, v[0])
		assert.LessOrEqual(t, got, v[len(v)-1])
		// The library counts a share of the values, not of the gaps: both lie between the same
		// neighbours or next to them.
		near := stat.Quantile(q, stat.Empirical, v, nil)
		first := slices.Index(v, near)
		last := first // of those that are the same
		for last+1 < len(v) && v[last+1] == near {
			last++
		}
		assert.GreaterOrEqual(t, got, v[max(0, first-1)]-1e-9)
		assert.LessOrEqual(t, got, v[min(len(v)-1, last+1)]+1e-9)
	})
	assert.Equal(t, 2.0, Quantile([]float64{1, 2, 3}, 0.5))
	assert.Equal(t, 1.5, Quantile([]float64{1, 2}, 0.5))
	assert.True(t, math.IsNaN(Quantile(nil, 0.5)))
	l := Landed([]float64{0.7, 0.62, 0.66})
	assert.Equal(t, 0.66, l.Middle)
	assert.Equal(t, "mid-back", l.Line)
}

// On the head lift is the distance out of it, along a ray from its middle; the bell's foot is
// upright.
func TestTheBell(t *testing.T) {
	h, _ := usual(t)
	b := newBody(h, 1650)
	rapid.Check(t, func(t *rapid.T) {
		u := scalp.At(rapid.Float64Range(-math.Pi, math.Pi).Draw(t, "lon"), rapid.Float64Range(0.05, 1.5).Draw(t, "lat"))
		out := rapid.Float64Range(-20, 60).Draw(t, "out")
		p := h.Surface(u)
		q := r3.Scale(1+out/r3.Norm(p), p)
		assert.InDelta(t, out, b.lift(q), 1e-9)
		assert.InDelta(t, 0, b.lift(b.onBell(q)), 1e-9)
		assert.InDelta(t, 1, r3.Norm(b.outward(q)), 1e-12)
		// Below the plane height does not matter.
		z := rapid.Float64Range(-400, 0).Draw(t, "z")
		low := r3.Vec{X: q.X, Y: q.Y, Z: z}
		assert.InDelta(t, b.lift(r3.Vec{X: q.X, Y: q.Y}), b.lift(low), 1e-9)
		assert.Equal(t, z, b.onBell(low).Z)
	})
}

// Whatever lies in the body is moved out of it, and what lies outside stays.
func TestTheBodyIsCleared(t *testing.T) {
	h, _ := usual(t)
	rapid.Check(t, func(t *rapid.T) {
		b := newBody(h, rapid.Float64Range(1100, 2000).Draw(t, "stature"))
		grow := rapid.Float64Range(0, 30).Draw(t, "grow")
		p := r3.Vec{
			X: rapid.Float64Range(-150, 150).Draw(t, "x"), Y: rapid.Float64Range(-200, 200).Draw(t, "y"),
			Z: rapid.Float64Range(-600, -60).Draw(t, "z"),
		}
		before, _ := b.torso.gauge(p, grow)
		out, normal, touched := b.torso.clear(p, grow, 1)
		assert.Equal(t, before < touching, touched)
		if !touched {
			assert.Equal(t, p, out)
			return
		}
		after, _ := b.torso.gauge(out, grow)
		assert.Greater(t, after, before, "nearer to the outside")
		assert.InDelta(t, 1, r3.Norm(normal), 1e-9)
	})
}

// An ear is left to the side, never forward or down, so that the order round the head is kept.
func TestEarsAreLeftToTheSide(t *testing.T) {
	h, _ := usual(t)
	b := newBody(h, 1650)
	rapid.Check(t, func(t *rapid.T) {
		side := rapid.SampledFrom([]float64{-1, 1}).Draw(t, "side")
		p := r3.Vec{X: rapid.Float64Range(-40, 40).Draw(t, "x"), Y: side * rapid.Float64Range(60, 110).Draw(t, "y"), Z: b.earMiddle + rapid.Float64Range(-50, 50).Draw(t, "z")}
		q := b.beside(p, 4)
		assert.Equal(t, [2]float64{p.X, p.Z}, [2]float64{q.X, q.Z})
		assert.GreaterOrEqual(t, side*q.Y, side*p.Y-1e-9)
	})
}

// A way keeps its ends when it is thinned, and strays little.
func TestThinnedWays(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(2, 120).Draw(t, "points")
		line := make([]r3.Vec, n)
		turn := rapid.Float64Range(0, 0.06).Draw(t, "turn")
		at, dir := r3.Vec{}, 0.0
		for i := range line {
			line[i] = at
			at = r3.Add(at, r3.Vec{X: 8 * math.Cos(dir), Z: -8 * math.Sin(dir)})
			dir += turn
		}
		thin, _ := thinned(line, nil)
		assert.LessOrEqual(t, len(thin), MaxPoints)
		assert.Equal(t, line[0], thin[0])
		assert.Equal(t, line[n-1], thin[len(thin)-1])
		long := func(l []r3.Vec) (mm float64) {
			for i := 1; i < len(l); i++ {
				mm += r3.Norm(r3.Sub(l[i], l[i-1]))
			}
			return mm
		}
		assert.InDelta(t, long(line), long(thin), 0.03*long(line)+1e-9)
		// Cut to a length, it is that long, or what is missing is told.
		want := rapid.Float64Range(1, 1200).Draw(t, "cut")
		cut, left := cutTo(slices.Clone(line), want)
		assert.InDelta(t, want, long(cut)+left, 1e-6)
	})
}

// Pieces that hang straight down from a circle are as many layers as their thickness makes of
// its arc: a number known without hanging anything.
func TestFullnessOfACircle(t *testing.T) {
	h, _ := usual(t)
	w := New(h, 1650, nil)
	middle := ridge * 1650
	const n, radius, thick = 90, 120.0, 9.0
	var pieces []Piece
	var paths []Path
	for i := range n {
		// All the way round, with an opening of a quarter in front.
		a := math.Pi/4 + 1.5*math.Pi*float64(i)/(n-1)
		x, y := middle+radius*math.Cos(a), radius*math.Sin(a)
		pieces = append(pieces, Piece{Thickness: thick})
		paths = append(paths, Path{Points: []r3.Vec{{X: x, Y: y, Z: 50}, {X: x, Y: y, Z: -400}}})
	}
	f := w.Fullness(pieces, paths, 0.85)
	assert.Equal(t, n, f.Crossing)
	assert.InEpsilon(t, 1.5*math.Pi*radius, f.Outline, 0.06, "chords of 12° from the outermost in each")
	assert.InEpsilon(t, n*thick/(1.5*math.Pi*radius), f.Layers, 0.08)
	assert.Zero(t, w.Fullness(pieces, paths, 0.3).Crossing, "none comes down so far")

	bands := w.Silhouette(pieces, paths)
	require.NotEmpty(t, bands)
	for _, b := range bands {
		assert.InDelta(t, radius+thick/2, b.Left, 1.5)
		assert.InDelta(t, -radius-thick/2, b.Right, 1.5)
	}
	assert.InDelta(t, 450, float64(len(bands))*silhouetteStep, 2*silhouetteStep)
}

// Tied hair passes through the tie and hangs below it in one bunch; half up leaves what grows
// low as it is.
func TestTiedHairIsGathered(t *testing.T) {
	h, part := usual(t)
	w := New(h, 1650, part)
	pieces := rooted(h, 40, 600, 8)
	ctx := context.Background()
	down, err := w.Hang(ctx, pieces, Down)
	require.NoError(t, err)
	for style, tie := range map[Style]r3.Vec{Tied: tieOf(Tied), HalfUp: tieOf(HalfUp)} {
		paths, err := w.Hang(ctx, pieces, style)
		require.NoError(t, err)
		knot, gathered := h.Surface(tie), 0
		var spread []r3.Vec
		for i, p := range paths {
			if style == HalfUp && pieces[i].Root.Z <= halfUp {
				continue
			}
			gathered++
			near := math.Inf(1)
			for _, q := range p.Points {
				near = min(near, length(r3.Sub(q, knot)))
			}
			assert.Less(t, near, 90.0, "it passes the tie")
			spread = append(spread, p.End())
		}
		require.NotZero(t, gathered)
		for _, end := range spread {
			assert.Less(t, math.Abs(end.Y), 70.0, "the bunch hangs together")
			assert.Negative(t, end.X)
		}
		if style == HalfUp {
			require.Less(t, gathered, len(pieces))
			continue
		}
		assert.Equal(t, len(pieces), gathered)
	}
	// Down, as many ends hang left as right.
	left := 0
	for _, p := range down {
		if p.End().Y > 0 {
			left++
		}
	}
	assert.Equal(t, len(pieces)/2, left)
}

// A longer piece lies on what hangs there already.
func TestLaterHairLiesOnEarlier(t *testing.T) {
	h, part := usual(t)
	w := New(h, 1650, part)
	low, high := scalp.At(math.Pi, 0.1), scalp.At(math.Pi-0.01, 0.5)
	both, err := w.Hang(context.Background(), []Piece{{Root: low, Length: 500, Thickness: 12}, {Root: high, Length: 500, Thickness: 12}}, Down)
	require.NoError(t, err)
	alone, err := w.Hang(context.Background(), []Piece{{Root: high, Length: 500, Thickness: 12}}, Down)
	require.NoError(t, err)
	assert.Greater(t, both[1].Lift, alone[0].Lift)
}
