package parting

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/scalp"
)

// Between any two decorative cornrows stands one row of individuals, on the sides that have a design;
// together they take the scalp that the cornrows alone would take.
func TestIndividualsBetweenDecoratedCornrows(t *testing.T) {
	head, err := scalp.Fit(scalp.Tapes{Circumference: 559, FrontToNape: 356, EarToEar: 318, Ratio: 0.78})
	require.NoError(t, err)
	inches := Wish{Pattern: Brick, Size: Size{Width: inch, Height: inch}, Ramp: 1, Along: 1}
	of := func(side Side, cornrows int, between, curved bool) Layout {
		s := Plain(inches, inches).On(FrontDesign)
		s.Design = Design{Side: side, Cornrows: cornrows, Curved: curved, Reach: 0.7, Between: between}
		l, err := Lay(t.Context(), head, s)
		require.NoError(t, err, "%s, %d", side, cornrows)
		return l
	}
	area := func(l Layout) (sum float64) {
		for _, x := range l.Sections {
			sum += x.Area
		}
		for _, x := range l.Cornrows {
			sum += x.Area
		}
		return sum
	}
	for _, side := range []Side{BothSides, LeftSide, Across} {
		for cornrows := 1; cornrows <= 3; cornrows++ {
			curved := cornrows%2 == 0
			plain, mixed := of(side, cornrows, false, curved), of(side, cornrows, true, curved)
			rows := map[Zone]int{}
			for _, x := range mixed.Sections {
				rows[x.Zone] = max(rows[x.Zone], x.Row)
			}
			gaps := 0
			for zone, n := range rows {
				if strings.HasPrefix(zone.Name(), "Between") {
					gaps++
					assert.Equal(t, 1, n, zone)
				}
			}
			sides := map[Side]int{BothSides: 2, LeftSide: 1, Across: 1}[side]
			assert.Equal(t, sides*(cornrows-1), gaps, "%s, %d cornrows", side, cornrows)
			assert.Len(t, mixed.Cornrows, len(plain.Cornrows))
			assert.InEpsilon(t, area(plain), area(mixed), 0.01)
		}
	}
	s := Plain(inches, inches).On(FrontDesign)
	s.Design.Cornrows, s.Design.Between, s.Design.Reach = 12, true, 0.4
	_, err = Lay(t.Context(), head, s)
	require.Error(t, err)
}
