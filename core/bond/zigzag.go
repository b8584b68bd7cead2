package bond

import (
	"math"
	"slices"
)

// pointed is the share of its outer line that the inner line of a row may measure for plain
// cuts across it to make triangles, their tips at the narrow end.
const pointed = 0.35

// Triangles cuts each row by a zigzag into as many triangles as its area makes. At a border
// the corner pieces are three quarters and their neighbours five quarters of the rest: half
// triangles at the edge would be slivers. Across the middle two halves make a whole one.
// Zigzags of neighbouring rows start on opposite sides, so that tips meet tips and bases
// bases. For sides and carry see [Brick].
func Triangles(bands []Band, sides float64, carry *Carry) []Course {
	courses := make([]Course, len(bands))
	for k := range bands {
		b, c := &bands[k], &courses[k]
		for _, end := range []struct {
			free bool
			to   *End
		}{{b.FreeStart, &c.Start}, {b.FreeEnd, &c.End}} {
			if end.free {
				*end.to = Straddled
			}
		}
		natural := sides * b.Sections()
		want := carry.Wished + natural - carry.Laid
		isPointed := b.Inner.length() < pointed*b.Outer.length()
		if isPointed && b.FreeStart && b.FreeEnd {
			// An oval is cut into an even number or an odd one, whichever comes nearer.
			for _, start := range []End{Straddled, Divided} {
				off := (want - contribution(sides, 0, start, c.End)) / sides
				if was := (want - contribution(sides, 0, c.Start, c.End)) / sides; math.Abs(off-math.Round(off)) < math.Abs(was-math.Round(was)) {
					c.Start = start
				}
			}
		}
		n := max(1, int(math.Round((want-contribution(sides, 0, c.Start, c.End))/sides)))
		if b.Most > 0 {
			for n > 1 && contribution(sides, n, c.Start, c.End) > float64(b.Most) {
				n--
			}
		}
		if b.Fixed > 0 {
			n = b.Fixed
		} else {
			carry.Wished += natural
			carry.Laid += contribution(sides, n, c.Start, c.End)
		}
		switch {
		case n == 1:
		case isPointed, n == 2 && (b.FullFrom-b.From > 1 || b.To-b.FullTo > 1):
			// The tips of the triangles are at the narrow end; or a line from corner to corner
			// would cross a slanting border.
			*c = b.even(n, c.Start, c.End)
		default:
			b.zigzag(c, n, k)
		}
	}
	return courses
}

// zigzag cuts row k into n triangles. The zigzag's corners are one step of area apart; how
// far the first and the last stand from a border is looked for, so that the pieces there
// come out even however it slants.
func (b *Band) zigzag(c *Course, n, k int) {
	best := math.Inf(1)
	for turned := range 2 {
		z := newZigzag(b, c, n, (k+turned)%2)
		cost := 0.05 * float64(turned) // tips should meet tips
		for range 2 {
			cost += z.settle()
		}
		if cost < best {
			best = cost
			c.Joints, c.Outer = z.lines()
		}
	}
}

// zigzag is a way to cut a row into triangles: line i runs from corner i to corner i+1, one
// on the inner and one on the outer line of the row, in turn.
type zigzag struct {
	b           *Band
	n, turned   int
	first, last float64 // steps from the ends to the corners next to them
	loose       [2]bool // which of them may be chosen
}

func newZigzag(b *Band, c *Course, n, turned int) zigzag {
	const edge = 1.5
	z := zigzag{b: b, n: n, turned: turned, first: 1, last: 1}
	if c.Start == Border {
		z.first, z.loose[0] = edge, true
	}
	if c.End == Border {
		z.last, z.loose[1] = edge, true
	}
	return z
}

// onInner tells whether corner i lies on the inner line.
func (z *zigzag) onInner(i int) bool { return (i+z.turned)%2 == 0 }

func (z *zigzag) corner(i int) float64 {
	line := z.b.Outer
	if z.onInner(i) {
		line = z.b.Inner
	}
	switch {
	case i == 0:
		return line.From
	case i == z.n-1:
		return line.To
	}
	steps := float64(z.n-3) + z.first + z.last
	return z.b.placeOf(z.b.Sections() * (float64(i-1) + z.first) / steps)
}

// upTo is the area from the start to line i, in sections.
func (z *zigzag) upTo(i int) float64 {
	switch i {
	case -1:
		return 0
	case z.n - 1:
		return z.b.Sections()
	}
	inner, outer := z.corner(i), z.corner(i+1)
	if !z.onInner(i) {
		inner, outer = outer, inner
	}
	quarter := func(s float64) float64 { return max(z.b.From, min(z.b.To, s)) }
	half := between(z.b.InnerArea, quarter(0.75*inner+0.25*outer))
	far := quarter(0.25*inner + 0.75*outer)
	return half + between(z.b.Area, far) - between(z.b.InnerArea, far)
}

// cost prices the pieces from one on.
func (z *zigzag) cost(from, to int) (cost float64) {
	before := z.upTo(from - 1)
	for i := from; i < to; i++ {
		now := z.upTo(i)
		share := now - before
		off := math.Log(max(1e-3, share))
		cost += off*off + areaCost(share)
		before = now
	}
	return cost
}

// settle chooses how far the outermost corners stand from the ends, and prices what comes.
func (z *zigzag) settle() float64 {
	const pieces = 3
	k := min(pieces, z.n)
	choose := func(value *float64, from, to int) float64 {
		best, at := math.Inf(1), *value
		for *value = 0.6; *value < 2.6; *value += 0.1 {
			if cost := z.cost(from, to); cost < best {
				best, at = cost, *value
			}
		}
		*value = at
		return best
	}
	cost := 0.0
	if z.loose[0] {
		cost += choose(&z.first, 0, k)
	}
	if z.loose[1] {
		cost += choose(&z.last, z.n-k, z.n)
	}
	return cost
}

// lines are the corners of every line on the inner and on the outer line of the row.
func (z *zigzag) lines() (inner, outer []float64) {
	inner, outer = make([]float64, z.n-1), make([]float64, z.n-1)
	for i := range z.n - 1 {
		a, b := z.corner(i), z.corner(i+1)
		if !z.onInner(i) {
			a, b = b, a
		}
		inner[i], outer[i] = a, b
	}
	return inner, outer
}

// jitterShare is how far a free-hand part end strays either way, in mean section
// widths: enough to look drawn by hand, too little to make a sliver.
const jitterShare = 0.1

// Loosen moves every part end on its inner and on its outer line by itself, the
// same way each time.
func Loosen(bands []Band, courses []Course) {
	for k := range courses {
		b, c := &bands[k], &courses[k]
		c.Outer = slices.Clone(c.Joints)
		reach := jitterShare * b.Sections() / (float64(c.Boxes()) - float64(c.Halves())/2)
		for i, s := range c.Joints {
			// Near a border that cuts the row off there is no room to stray.
			if s < b.FullFrom || s > b.FullTo {
				continue
			}
			at := b.areaTo(s)
			c.Joints[i] = b.placeOf(at + reach*noise(2*k, i))
			c.Outer[i] = b.placeOf(at + reach*noise(2*k+1, i))
		}
	}
}

// noise is a number in -1..1 that looks random but depends on a and b alone: the
// finalizer of the SplitMix64 generator (Steele, Lea and Flood 2014, constants
// from memory).
func noise(a, b int) float64 {
	x := uint64(a)<<32 + uint64(b) + 0x9e3779b97f4a7c15
	x = (x ^ x>>30) * 0xbf58476d1ce4e5b9
	x = (x ^ x>>27) * 0x94d049bb133111eb
	x ^= x >> 31
	return float64(x>>11)/(1<<52) - 1
}
