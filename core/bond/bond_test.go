package bond

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// steps is how far s runs in these tests.
const steps = 24

// rows are n rows of even height that grow from first to last sections each, as those of a
// disc seen from its middle do, or of a strip.
func rows(n int, first, last float64) []Band {
	bands := make([]Band, n)
	for k := range bands {
		width := first + (last-first)*float64(k)/max(1, float64(n-1))
		line := func(sections float64) Edge {
			e := Edge{Run: make([]float64, steps+1), To: steps}
			for j := range e.Run {
				e.Run[j] = 25 * sections * float64(j) / steps
			}
			return e
		}
		step := (last - first) / max(1, float64(n-1)) / 2
		b := Band{
			Inner: line(width - step), Outer: line(width + step), To: steps, FullTo: steps, PerStep: width / steps, Height: 1, Grow: 1,
			Area: make([]float64, steps+1), InnerArea: make([]float64, steps+1), Tall: make([]float64, steps+1),
		}
		for j := range b.Area {
			b.Area[j] = width * float64(j) / steps
			b.InnerArea[j] = b.Area[j] / 2
			b.Tall[j] = 1
		}
		bands[k] = b
	}
	return bands
}

func laid(courses []Course, sides float64) (n float64) {
	for i := range courses {
		n += contribution(sides, courses[i].Boxes(), courses[i].Start, courses[i].End)
	}
	return n
}

// The quarter rule of masonry codes for running bond: head joints of successive courses are
// offset by at least a quarter unit. It holds whatever the rows hold, over the middle of the
// head too, and the number of sections follows the area.
func TestBrickOnRowsOfAnyLength(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 4))
	for range 400 {
		first := 1 + 12*r.Float64()
		bands := rows(3+r.IntN(12), first, max(1, first+8*r.Float64()-4))
		free := [2]bool{r.IntN(2) == 0, r.IntN(3) == 0}
		wished := 0.0
		for k := range bands {
			bands[k].FreeStart, bands[k].FreeEnd = free[0], free[1]
			wished += 2 * bands[k].Sections()
		}
		var carry Carry
		courses := Brick(t.Context(), bands, 2, &carry)
		assert.InDelta(t, wished, carry.Wished, 1e-9)
		assert.InDelta(t, laid(courses, 2), carry.Laid, 1e-9)
		assert.InDelta(t, wished, carry.Laid, 3, "the count follows the area")
		for k := 1; k < len(bands); k++ {
			seat := On(bands[k-1].Outer, bands[k].Inner, &courses[k-1], &courses[k])
			if least, mean, ok := seat.Offsets(); ok {
				require.GreaterOrEqual(t, least, Quarter-1e-9, "rows %d and %d of %.1f to %.1f sections", k, k+1, first, bands[len(bands)-1].Sections())
				require.LessOrEqual(t, mean, 0.75)
			}
			if free[0] {
				assert.NotEqual(t, courses[k-1].Start, courses[k].Start, "a section and a part take turns on the middle")
			}
		}
	}
}

// Half a unit is the usual form of running bond: rows of equal length come to it.
func TestEqualRowsAreAPerfectBond(t *testing.T) {
	bands := rows(6, 8, 8)
	courses := Brick(t.Context(), bands, 1, &Carry{})
	for k := 1; k < len(bands); k++ {
		_, mean, ok := On(bands[k-1].Outer, bands[k].Inner, &courses[k-1], &courses[k]).Offsets()
		require.True(t, ok)
		assert.InDelta(t, 0.5, mean, 0.08)
	}
	_, _, ok := On(bands[0].Outer, bands[1].Inner, &courses[0], &Course{}).Offsets()
	assert.False(t, ok, "a row of one section has no part end")
}

// Columns of a grid stand in line for as long as the rows bear it.
func TestGridKeepsItsColumns(t *testing.T) {
	bands := rows(8, 5.97, 6.04)
	courses := Grid(t.Context(), bands, 2, &Carry{})
	for _, c := range courses {
		assert.Equal(t, courses[0].Joints, c.Joints)
	}
	seams := 0
	bands = rows(12, 3, 14)
	var carry Carry
	courses = Grid(t.Context(), bands, 2, &carry)
	for k := range courses {
		if k > 0 && courses[k].Boxes() != courses[k-1].Boxes() {
			seams++
		}
		from := 0.0
		for i := range courses[k].Boxes() {
			_, to := Gap(courses[k].Joints, i, 0, steps)
			area := bands[k].areaTo(to)
			assert.Greater(t, area-from, 0.5, "no sliver")
			assert.Less(t, area-from, 1.7)
			from = area
		}
	}
	assert.Positive(t, seams)
	assert.InDelta(t, carry.Wished, carry.Laid, 3)
}

// Triangles are of one area but at a border, and together they are the row.
func TestTrianglesShareTheRow(t *testing.T) {
	bands := rows(5, 7.3, 9.1)
	courses := Triangles(bands, 2, &Carry{})
	for k, c := range courses {
		require.Len(t, c.Outer, len(c.Joints))
		z := newZigzag(&bands[k], &c, c.Boxes(), 0)
		sum := 0.0
		for i := range c.Boxes() {
			area := z.upTo(i) - z.upTo(i-1)
			assert.Greater(t, area, 0.5)
			assert.Less(t, area, 1.6)
			sum += area
		}
		assert.InDelta(t, bands[k].Sections(), sum, 1e-9)
		for i := 1; i < len(c.Joints); i++ { // every line shares a corner with the one before
			assert.True(t, c.Joints[i] == c.Joints[i-1] || c.Outer[i] == c.Outer[i-1])
		}
	}
}

// What rounding leaves over in one zone is made good in the next.
func TestRoundingIsCarried(t *testing.T) {
	var carry Carry
	for range 10 {
		Brick(t.Context(), rows(1, 4.3, 4.3), 1, &carry)
	}
	assert.InDelta(t, 43, carry.Laid, 0.6)
	assert.InDelta(t, 43, carry.Wished, 1e-9)
}

// A free-hand row is a brick that strays, the same way each time.
func TestLoosenedPartsStayNear(t *testing.T) {
	bands := rows(6, 7, 9)
	plain := Brick(t.Context(), bands, 1, &Carry{})
	loose, again := Clone(plain), Clone(plain)
	Loosen(bands, loose)
	Loosen(bands, again)
	assert.Equal(t, loose, again)
	for k, c := range loose {
		unit := steps / float64(c.Boxes())
		for i := range c.Joints {
			assert.Less(t, math.Abs(c.Joints[i]-plain[k].Joints[i]), 0.2*unit)
			assert.Less(t, math.Abs(c.Outer[i]-plain[k].Joints[i]), 0.2*unit)
		}
	}
}
