package knot

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
)

// closed is a ring of n places of a curve over one turn.
func closed(n int, at func(t float64) Point) (ring Ring) {
	for i := range n {
		ring = append(ring, at(2*math.Pi*float64(i)/float64(n)))
	}
	return ring
}

func trefoil(t float64) Point {
	return Point{math.Sin(t) + 2*math.Sin(2*t), math.Cos(t) - 2*math.Cos(2*t), math.Sin(3 * t)}
}

func figureEight(t float64) Point {
	return Point{(2 + math.Cos(2*t)) * math.Cos(3*t), (2 + math.Cos(2*t)) * math.Sin(3*t), math.Sin(4 * t)}
}

// circle of radius r round (x, 0), tilted about the X axis.
func circle(x, r, tilt float64) Ring {
	return closed(97, func(t float64) Point {
		return Point{x + r*math.Cos(t), r * math.Sin(t) * math.Cos(tilt), r * math.Sin(t) * math.Sin(tilt)}
	})
}

// turned writes a polynomial for A in place of A⁻¹: what it is in a mirror.
func turned(p Laurent) Laurent {
	out := Laurent{}
	for power, c := range p {
		out[-power] = c
	}
	return out
}

// Values of Kauffman 1987, State models and the Jones polynomial: the trefoil A⁻⁷ - A⁻³ - A⁵, the figure of
// eight A⁻⁸ - A⁻⁴ + 1 - A⁴ + A⁸, two linked rings -A⁴ - A⁻⁴, where one ring alone is 1.
func TestBracketsOfKnownKnots(t *testing.T) {
	three := Laurent{-7: 1, -3: -1, 5: -1}.round()
	drawn := Bracket(closed(211, trefoil))
	assert.Contains(t, []Laurent{three, turned(three)}, drawn)
	assert.Equal(t, turned(drawn), Bracket(closed(211, func(t float64) Point { p := trefoil(t); p.X = -p.X; return p })), "in a mirror")
	assert.Equal(t, Laurent{-8: 1, -4: -1, 0: 1, 4: -1, 8: 1}.round(), Bracket(closed(307, figureEight)))
	assert.Equal(t, Laurent{4: -1, -4: -1}.round(), Bracket(circle(0, 2, 0.3), circle(1.7, 2, 1.2)))
	assert.Equal(t, Laurent{0: 1}.round().round(), Bracket(circle(0, 2, 0), circle(9, 2, 0)))
	kink := closed(101, func(t float64) Point { return Point{math.Sin(2 * t), math.Sin(t), math.Cos(t)} })
	assert.Contains(t, []Laurent{Laurent{3: -1}.round(), Laurent{-3: -1}.round()}, Bracket(kink), "a turn on itself")
}

func TestLinkingOfRings(t *testing.T) {
	a, b := circle(0, 2, 0.3), circle(1.7, 2, 1.2)
	n := Linking(a, b)
	assert.Equal(t, 1, n*n)
	assert.Equal(t, n, Linking(b, a), "either way round")
	assert.Equal(t, -n, Linking(a, reversed(b)), "one of them backward")
	assert.Zero(t, Linking(circle(0, 2, 0), circle(1, 2, 0)), "lying on each other")
	twice := closed(301, func(t float64) Point {
		return Point{2 + (1+0.3*math.Cos(2.5*t))*math.Cos(2*t), (0.3 * math.Sin(2.5*t)), (1 + 0.3*math.Cos(2.5*t)) * math.Sin(2*t)}
	})
	twice = tilted(twice, 0.4)
	n = Linking(twice, tilted(closed(99, func(t float64) Point { return Point{3 * math.Cos(t), 3 * math.Sin(t), 0} }), 0.4))
	assert.Equal(t, 4, n*n, "twice round")
}

func tilted(ring Ring, by float64) (out Ring) {
	sin, cos := math.Sincos(by)
	for _, p := range ring {
		out = append(out, Point{p.X, p.Y*cos - p.Z*sin, p.Y*sin + p.Z*cos})
	}
	return out
}

// A ring that is bent at random, without going through itself, stays what it is: its bracket is that of a
// plain ring, but for its turns on itself.
func TestWhatIsOnlyPushedAboutStaysWhatItIs(t *testing.T) {
	for seed := range uint64(40) {
		r := rand.New(rand.NewPCG(seed, 7))
		// Falling all the way and rising once, at the outside: nothing can be knotted in it.
		var pts []Point
		for i := range 14 {
			pts = append(pts, Point{r.Float64() * 100, r.Float64() * 100, float64(-10 * i)})
		}
		line := Smooth(pts, 2)
		last := line[len(line)-1]
		ring := Ring(append(line, Point{300, last.Y, last.Z}, Point{300, pts[0].Y, 100}, Point{pts[0].X, pts[0].Y, 100}))
		assert.Equal(t, []int64{1, 1}, Bracket(ring).Steps(), seed)
	}
}

// A plait that hangs straight, and a loop that lies under it or round it in ways a hand can make.
func TestWhatHolds(t *testing.T) {
	own := Smooth([]Point{{180, 0, 0}, {180, 100, 0}, {180, 300, 0}, {180, 460, 0}}, 2)
	under := Smooth([]Point{{120, 100, 0}, {180, 80, -30}, {240, 80, -5}, {260, 105, 0}, {240, 130, -5}, {180, 130, -30}, {120, 110, 0}}, 2)
	held := func(body ...Point) Held { return Held{Own: own, Loop: under, Body: Smooth(body, 2)} }
	aside := held(Point{118, 105, 0}, Point{90, 120, 0}, Point{70, 200, 0}, Point{70, 460, 0})
	over := held(Point{118, 105, 0}, Point{90, 120, 0}, Point{100, 180, 10}, Point{180, 120, 30}, Point{290, 180, 30}, Point{300, 460, 0})
	through := held(Point{118, 105, 0}, Point{90, 120, 0}, Point{100, 180, 10}, Point{180, 120, 30}, Point{225, 110, 15}, Point{250, 116, -20}, Point{290, 140, -20}, Point{300, 460, 0})
	assert.Equal(t, "0", aside.Holds().String(), "the loop only under it")
	assert.Equal(t, "0", over.Holds().String(), "laid over, not through")
	assert.Equal(t, "1 1 0 -1 -2 -1 0 1 1", through.Holds().String(), "a hitch")
	n := through.Through(20)
	assert.Equal(t, 1, n*n)
	assert.Zero(t, over.Through(20))
}
