package parting

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/scalp"
)

// A net is hooked in a lattice of even triangles, in which each place has an area of
// spacing² · √3 ÷ 2: the densest even spacing there is.
func TestNetIsHookedAsATriangularLattice(t *testing.T) {
	h := average(t)
	for _, spacing := range []float64{12, 16, 22} {
		s := both(Brick, square(1), square(1))
		s.Structure, s.Base.Kind, s.Base.Spacing = NetCap, Net, spacing
		l, err := Lay(context.Background(), h, s)
		require.NoError(t, err)
		area, hooks := 0.0, 0
		for _, n := range l.Nets {
			area += n.Area
			hooks += len(n.Hooks)
		}
		assert.InEpsilon(t, area/(spacing*spacing*math.Sqrt(3)/2), float64(hooks), 0.12, "%v mm", spacing)
		for _, n := range l.Nets {
			for i, p := range n.Hooks {
				for _, q := range n.Hooks[:i] {
					require.Greater(t, apart(p, q), 0.69*spacing, "two places are nearly one")
				}
			}
		}
		for _, x := range l.Cornrows {
			assert.Empty(t, x.Hooks, "pieces hang on the net, not on the plaits under it")
		}
	}
}

// Sections that grow along their row: the last is as much wider than the first as was
// wished, and there are as many as fit.
func TestSectionsGrowAlongTheirRow(t *testing.T) {
	h := average(t)
	for _, along := range []float64{0.6, 1.5, 2} {
		s := both(Grid, square(0.5), square(1))
		s.Front.Along = along
		l, err := Lay(context.Background(), h, s)
		require.NoError(t, err)
		// Rows end on a slanting hairline, so it is areas that tell: as large at either end as
		// is wished there, in the mean of all rows.
		first, last, rows := 0.0, 0.0, 0.0
		for _, r := range l.Rows {
			if r.Zone != FrontLeft || r.Sections < 4 {
				continue
			}
			first += find(t, l, sectionID(FrontLeft, r.Row, 1)).Share
			last += find(t, l, sectionID(FrontLeft, r.Row, r.Sections)).Share
			rows++
		}
		require.Greater(t, rows, 4.0)
		assert.InDelta(t, 1, first/rows, 0.12, "along %v", along)
		assert.InDelta(t, 1, last/rows, 0.12, "along %v", along)
		// A brick that grows keeps its quarter rule: offsets are measured in the widths
		// that stand there.
		s.Front.Pattern = Brick
		l, err = Lay(context.Background(), h, s)
		require.NoError(t, err)
		for _, x := range l.Sections {
			if x.Front {
				assert.GreaterOrEqual(t, x.Stagger, 0.25-1e-9)
			}
		}
	}
}

// Cornrows of one run share the scalp evenly, and their lengths are those of the ways
// across it.
func TestCornrowsShareTheScalpEvenly(t *testing.T) {
	h := average(t)
	for _, run := range []Run{Horizontal, StraightBack, Curved} {
		for _, n := range []int{5, 8, 11} {
			s := both(Brick, square(1), square(1))
			s.Structure, s.Base.Run, s.Base.Cornrows = EarToEar, run, n
			l, err := Lay(context.Background(), h, s)
			require.NoError(t, err)
			require.Len(t, l.Cornrows, n)
			for i, x := range l.Cornrows {
				length := 0.0
				for k := 1; k < len(x.Line); k++ {
					length += apart(x.Line[k-1], x.Line[k])
				}
				assert.InDelta(t, length, x.Length, 1e-6)
				assert.InEpsilon(t, x.Area/x.Length, x.Width, 1e-9)
				if run != Horizontal { // from left to right the last mirrors the first
					assert.InEpsilon(t, x.Length, l.Cornrows[n-1-i].Length, 1e-6)
					assert.InEpsilon(t, x.Area, l.Cornrows[n-1-i].Area, 1e-3)
				}
				// From side to side pieces mirror each other, and over the middle every other
				// cornrow has one between two of the next.
				if run == Horizontal {
					assert.Equal(t, i%2, len(x.Hooks)%2, x.ID)
					for k, p := range x.Hooks {
						q := x.Hooks[len(x.Hooks)-1-k]
						assert.Less(t, apart(p, scalp.Point{q[0], -q[1], q[2]}), 0.3)
					}
				}
			}
		}
	}
}

// Inside a ring cornrows run straight back from the front to the nape, over the ear too: none
// bends sharply, and none is cut where an ear-to-ear part would lie.
func TestCornrowsInsideARingRunStraightBack(t *testing.T) {
	h := average(t)
	for _, peak := range []bool{false, true} {
		s := both(Brick, square(1), square(1)).On(Perimeter)
		s.Part.Kind, s.Peak = NoPart, peak
		l, err := Lay(context.Background(), h, s)
		require.NoError(t, err)
		require.Len(t, l.Cornrows, s.Base.Cornrows)
		assert.Empty(t, l.EarToEar)
		for _, x := range l.Cornrows {
			require.Greater(t, x.Length, 180.0, x.ID)
			assert.Greater(t, x.Line[0][0], 0.0, "from the front")
			assert.Less(t, x.Line[len(x.Line)-1][0], 0.0, "to the nape")
			for i := 4; i+4 < len(x.Line); i++ { // over two centimetres or so
				a, b, c := x.Line[i-4], x.Line[i], x.Line[i+4]
				ahead := (b[0]-a[0])*(c[0]-b[0]) + (b[1]-a[1])*(c[1]-b[1]) + (b[2]-a[2])*(c[2]-b[2])
				assert.Greater(t, ahead/apart(a, b)/apart(b, c), math.Cos(50*math.Pi/180), "%s at %d", x.ID, i)
			}
		}
	}
}
