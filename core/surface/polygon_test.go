package surface

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/golang/geo/s2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
)

// blob is a star-shaped ring round some place, and the same as an s2 loop.
func blob(r *rand.Rand) ([]r3.Vec, *s2.Loop, r3.Vec) {
	hub := scalp.At(2*math.Pi*r.Float64(), 1.2*r.Float64()-0.4)
	east := scalp.Unit(r3.Cross(r3.Vec{X: 0.31, Y: 0.2, Z: 0.93}, hub))
	north := r3.Cross(hub, east)
	n := 4 + r.IntN(9)
	ring := make([]r3.Vec, n)
	points := make([]s2.Point, n)
	for i := range ring {
		sin, cos := math.Sincos(2 * math.Pi * (float64(i) + 0.6*r.Float64()) / float64(n))
		reach := 0.04 + 0.3*r.Float64()
		ring[i] = scalp.Unit(r3.Add(hub, r3.Scale(reach, r3.Add(r3.Scale(cos, east), r3.Scale(sin, north)))))
		points[i] = s2.PointFromCoords(ring[i].X, ring[i].Y, ring[i].Z)
	}
	return ring, s2.LoopFromPoints(points), hub
}

// Which side of an outline a place lies on, against the spherical polygons of the s2
// library.
func TestContainsAgreesWithS2(t *testing.T) {
	r := rand.New(rand.NewPCG(15, 2))
	inside := 0
	for range 400 {
		ring, loop, hub := blob(r)
		for range 20 {
			u := scalp.Unit(r3.Add(hub, r3.Scale(0.35, r3.Vec{X: 2*r.Float64() - 1, Y: 2*r.Float64() - 1, Z: 2*r.Float64() - 1})))
			want := loop.ContainsPoint(s2.PointFromCoords(u.X, u.Y, u.Z))
			require.Equal(t, want, Contains(ring, u))
			if want {
				inside++
			}
		}
	}
	assert.Greater(t, inside, 500)
}

// Both halves of a cut together are as large as the whole, each as the s2 polygon of
// its corners.
func TestCutsAgreeWithS2(t *testing.T) {
	const radius = 95.0
	ball := scalp.Head{A: radius, B: radius, C: radius}
	r := rand.New(rand.NewPCG(15, 3))
	for range 300 {
		hub := scalp.At(2*math.Pi*r.Float64(), 0.9*r.Float64())
		east := scalp.Unit(r3.Cross(r3.Vec{Z: 1, X: 0.1}, hub))
		north := r3.Cross(hub, east)
		var ring []r3.Vec // convex, as sections nearly are
		for i := range 12 {
			sin, cos := math.Sincos(2 * math.Pi * float64(i) / 12)
			ring = append(ring, scalp.Unit(r3.Add(hub, r3.Scale(0.15, r3.Add(r3.Scale(cos, east), r3.Scale(0.6*sin, north))))))
		}
		turn := math.Pi * r.Float64()
		normal := r3.Add(r3.Scale(math.Cos(turn), east), r3.Scale(math.Sin(turn), north))
		sum := 0.0
		for _, half := range [][]r3.Vec{Cut(ring, normal), Cut(ring, r3.Scale(-1, normal))} {
			points := make([]s2.Point, len(half))
			for i, u := range half {
				points[i] = s2.PointFromCoords(u.X, u.Y, u.Z)
			}
			want := s2.LoopFromPoints(points).Area() * radius * radius
			got, _ := ball.AreaCentroid(half)
			assert.InEpsilon(t, want, got, 1e-6)
			sum += got
		}
		whole, _ := ball.AreaCentroid(ring)
		assert.InEpsilon(t, whole, sum, 1e-6)
	}
}
