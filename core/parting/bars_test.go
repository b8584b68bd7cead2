package parting

import (
	"context"
	"flag"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"

	"kladotex/core/scalp"
)

// heads is how many random heads are held against the card; make bars takes a thousand.
var heads = flag.Int("heads", 24, "random heads to hold against the card")

// card is what sections come to, measured as a stylist would hold a card to them.
type card struct {
	compact, share, height, stagger, count []float64
}

func part(values []float64, bad func(float64) bool) float64 {
	n := 0
	for _, v := range values {
		if bad(v) {
			n++
		}
	}
	return float64(n) / float64(max(1, len(values)))
}

// The bars of a parting that a stylist would hold a card to, on random heads, sizes and part
// lines: compactness, areas, heights, the quarter rule, and counts that follow the area.
func TestSectionsAreTrueToTheCard(t *testing.T) {
	r := rand.New(rand.NewPCG(42, 7))
	size := func() Size {
		w := inch * (0.6 + 0.9*r.Float64())
		return Size{w, w * []float64{1, 0.8 + 0.45*r.Float64()}[r.IntN(2)]}
	}
	var boxes, triangles card
	for range *heads {
		h := randomHead(r)
		front, back := size(), size()
		if r.IntN(2) == 0 {
			front = back
		}
		off := math.Copysign(12+20*r.Float64(), r.Float64()-0.5)
		for _, part := range []Part{
			{Kind: MiddlePart}, {Kind: SidePart, Offset: off}, {Kind: NoPart}, {Kind: Levels},
			{Kind: DiagonalPart, Offset: off / 2, EndOffset: -off / 3},
			{Kind: MiddlePart, Stop: h.Arc(h.Landmark(scalp.FrontCentre), h.Crown())},
		} {
			for _, pattern := range Patterns {
				s := both(pattern, front, back)
				s.Part = part
				l, err := Lay(context.Background(), h, s)
				require.NoError(t, err, "%v %v", part, pattern)
				c := &boxes
				if pattern == Triangle {
					c = &triangles
				}
				c.hold(&l, pattern)
			}
		}
	}
	t.Logf("%d sections in boxes, %d triangles", len(boxes.share), len(triangles.share))
	less := func(bound float64) func(float64) bool { return func(v float64) bool { return v < bound } }
	more := func(bound float64) func(float64) bool { return func(v float64) bool { return v > bound } }
	outside := func(low, high float64) func(float64) bool { return func(v float64) bool { return v < low || v > high } }
	assert.LessOrEqual(t, part(boxes.compact, less(0.67)), 0.03, "compact")
	// None on 150 heads; of two million sections on a thousand heads a handful.
	assert.LessOrEqual(t, part(boxes.compact, less(0.45)), 1e-5, "needles")
	assert.GreaterOrEqual(t, slices.Min(boxes.compact), 0.39, "needles")
	for _, x := range []struct {
		name string
		c    card
		most float64
	}{{"boxes", boxes, 0.005}, {"triangles", triangles, 0.02}} {
		assert.LessOrEqual(t, part(x.c.share, less(0.5)), x.most, "%s under half", x.name)
		assert.LessOrEqual(t, part(x.c.share, more(1.6)), x.most, "%s over 1.6", x.name)
	}
	assert.LessOrEqual(t, part(boxes.share, outside(0.65, 1.35)), 0.05, "far from the wish")
	assert.LessOrEqual(t, part(boxes.height, outside(0.8, 1.2)), 0.03, "heights")
	assert.GreaterOrEqual(t, slices.Min(boxes.stagger), 0.25-1e-9, "quarter rule")
	// Front and back are rounded each for itself, by a section at most on either side of the
	// head. On 150 heads that is two of fifty at most; on a thousand one layout in a thousand,
	// of few large sections, lies beyond.
	counts := append(slices.Clone(boxes.count), triangles.count...)
	assert.LessOrEqual(t, part(counts, more(0.0402)), 1e-3, "count against area")
	assert.Less(t, slices.Max(counts), 0.06, "count against area")
	assert.Less(t, stat.Mean(counts, nil), 0.01, "count against area, in the mean")
}

// hold measures a layout.
func (c *card) hold(l *Layout, pattern Pattern) {
	sizes := map[rowAt]Size{}
	for _, r := range l.Rows {
		sizes[rowAt{r.Zone, r.Row}] = r.Size
	}
	area, wished := 0.0, 0.0
	for i := range l.Sections {
		x := &l.Sections[i]
		high := sizes[rowAt{x.Zone, x.Row}].Height
		c.compact, c.share = append(c.compact, x.Compact), append(c.share, x.Share)
		c.height = append(c.height, x.Height.Min/high, x.Height.Max/high)
		if pattern == Brick && x.Stagger < 1 {
			c.stagger = append(c.stagger, x.Stagger)
		}
		area += x.Area
		wished += x.Area / x.Share
	}
	if len(l.Sections) >= 40 {
		c.count = append(c.count, math.Abs(wished/area-1))
	}
}

// The count falls steadily as the size grows: no plateau wider than 3 % of the size beyond
// the least step there is, two sections where left and right mirror each other, and no jump.
func TestCountsFallSteadily(t *testing.T) {
	h := average(t)
	for _, part := range []PartKind{MiddlePart, NoPart, Levels} {
		for _, pattern := range []Pattern{Grid, Brick, Triangle}[:sampled(3)] {
			last, since := 0, 0.0
			for mm := 15.0; mm <= 38; mm += 0.1 {
				s := both(pattern, Size{mm, mm}, Size{mm, mm})
				s.Part.Kind = part
				l, err := Lay(context.Background(), h, s)
				require.NoError(t, err)
				n := len(l.Sections)
				exact := l.Area / mm / mm
				assert.InDelta(t, exact, float64(n), 0.04*exact+1, "%s %s at %.1f mm", part, pattern, mm)
				if n != last {
					last, since = n, mm
				}
				// A count of n follows sizes as far apart as n−2 and n+2 sections are.
				assert.LessOrEqual(t, mm-since, (0.03+2/exact)*mm, "%s %s stands at %d from %.1f mm", part, pattern, n, since)
			}
		}
	}
}
