package parting

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/golang/geo/s2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/floats"
	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/advice"
	"kladotex/core/invalid"
	"kladotex/core/scalp"
	"kladotex/core/surface"
)

func average(t testing.TB) scalp.Head {
	t.Helper()
	for _, p := range scalp.Presets() {
		if p.Name == "Average" {
			h, err := scalp.Fit(p.Tapes)
			require.NoError(t, err)
			return h
		}
	}
	t.Fatal("no average head")
	return scalp.Head{}
}

func square(in float64) Size { return Size{in * inch, in * inch} }

// both is one pattern, one size all over front and back.
func both(pattern Pattern, front, back Size) Settings {
	return Plain(Wish{pattern, front, 1, 1}, Wish{pattern, back, 1, 1})
}

// sampled is how many of n random cases are tried: a fifth of them where tests are to be short.
func sampled(n int) int {
	if testing.Short() {
		return (n + 4) / 5
	}
	return n
}

// forRandomLayouts lays random heads in all patterns, at random sizes that grow or
// shrink over every third zone.
func forRandomLayouts(t *testing.T, n int, check func(t *testing.T, h scalp.Head, s Settings, l Layout)) {
	t.Helper()
	r := rand.New(rand.NewPCG(4, 2))
	for i := 0; i < sampled(n); {
		h, err := scalp.Fit(scalp.Tapes{
			Circumference: 490 + 140*r.Float64(), FrontToNape: 310 + 100*r.Float64(), EarToEar: 280 + 80*r.Float64(),
			Ratio: 0.7 + 0.2*r.Float64(),
		})
		if err != nil {
			continue
		}
		i++
		size := func() Size {
			width := inch * (0.4 + 1.3*r.Float64())
			return Size{width, width * (0.7 + 0.6*r.Float64())}
		}
		wish := func(k int) Wish {
			w := Wish{Patterns[k%len(Patterns)], size(), 1, 1}
			if r.IntN(3) == 0 {
				w.Ramp = 0.5 + 1.5*r.Float64()
			}
			return w
		}
		s := Plain(wish(i), wish(i+i/len(Patterns)))
		l, err := Lay(context.Background(), h, s)
		require.NoError(t, err)
		name := fmt.Sprintf("%.3v %.3v on %.1f %.1f %.1f", s.Front, s.Back, h.A, h.B, h.C)
		if !t.Run(name, func(t *testing.T) { check(t, h, s, l) }) {
			return
		}
	}
}

// zoneArea integrates a zone's patch over a fine grid of its own, mm².
func zoneArea(p *surface.Patch) float64 {
	const n = 400
	area := 0.0
	prev := fine(p, 0, n)
	for i := 1; i <= n; i++ {
		next := fine(p, float64(i)/n, n)
		for j := range n {
			a, b, c, d := prev[j], prev[j+1], next[j+1], next[j]
			area += r3.Norm(r3.Cross(r3.Sub(c, a), r3.Sub(d, b))) / 2
		}
		prev = next
	}
	return area
}

// fine is the patch's line at t in n steps, as surface points.
func fine(p *surface.Patch, t float64, n int) []r3.Vec {
	left, right := p.Start.At(t), p.End.At(t)
	out := make([]r3.Vec, n+1)
	for j := range out {
		s := float64(j) / float64(n)
		u := r3.Add(r3.Add(r3.Scale(1-t, p.Bottom.At(s)), r3.Scale(t, p.Top.At(s))),
			r3.Add(r3.Scale(1-s, left), r3.Scale(s, right)))
		u = r3.Sub(u, r3.Add(r3.Scale(1-t, r3.Add(r3.Scale(1-s, p.Bottom.At(0)), r3.Scale(s, p.Bottom.At(1)))),
			r3.Scale(t, r3.Add(r3.Scale(1-s, p.Top.At(0)), r3.Scale(s, p.Top.At(1))))))
		out[j] = p.Head.Surface(scalp.Unit(u))
	}
	return out
}

func TestSectionsTileTheirZones(t *testing.T) {
	forRandomLayouts(t, 25, func(t *testing.T, h scalp.Head, s Settings, l Layout) {
		f, err := newFrames(h, s)
		require.NoError(t, err)
		for i, p := range f.left.panels {
			whole := zoneArea(p.patch)
			// Left and right of the same zone follow one another.
			assert.InEpsilon(t, whole, l.Zones[2*i].Area, 1e-3, "zone %s", l.Zones[2*i].Zone)
			assert.InEpsilon(t, whole, l.Zones[2*i+1].Area, 1e-3, "zone %s", l.Zones[2*i+1].Zone)
		}
	})
}

// A positive area for every outline, all of them summing to the zone's, leaves no
// room for an overlap.
func TestEverySectionIsSound(t *testing.T) {
	forRandomLayouts(t, 150, func(t *testing.T, _ scalp.Head, _ Settings, l Layout) {
		byID := map[string]Section{}
		for _, s := range l.Sections {
			byID[s.ID] = s
		}
		require.Len(t, byID, len(l.Sections), "ids are unique")
		for _, s := range l.Sections {
			require.Positive(t, s.Area, s.ID)
			for _, v := range []float64{s.Width.Min, s.Height.Min, s.Hairline, s.Part, s.Centroid[2], s.Normal[0]} {
				require.False(t, math.IsNaN(v) || math.IsInf(v, 0), "%s has %v", s.ID, v)
			}
			require.Positive(t, s.Width.Max, s.ID)
			require.Positive(t, s.Height.Min, s.ID)
			require.NotEmpty(t, s.Neighbours, s.ID)
			for _, n := range s.Neighbours {
				require.Contains(t, byID, n)
				require.Contains(t, byID[n].Neighbours, s.ID, "%s and %s are neighbours both ways", s.ID, n)
			}
		}
	})
}

// A row guide measures what is drawn: its parts lie where the outlines have their
// corners, and the widths between them are the sections'.
func TestRowLinesMeasureTheSections(t *testing.T) {
	forRandomLayouts(t, 24, func(t *testing.T, _ scalp.Head, _ Settings, l Layout) {
		sections := map[string]Section{}
		for _, s := range l.Sections {
			sections[s.ID] = s
		}
		for _, r := range l.Rows {
			for _, line := range []RowLine{r.Lower, r.Upper} {
				require.LessOrEqual(t, line.First+len(line.Parts), r.Sections-1)
				require.True(t, slices.IsSorted(line.Parts))
				for i, x := range line.Parts {
					require.LessOrEqual(t, x, line.Length+1e-9)
					if i == 0 {
						continue
					}
					// Between two parts lies a section, whose least and greatest widths are those
					// on its lines, or on the row's middle.
					s := sections[sectionID(r.Zone, r.Row, line.First+i+1)]
					assert.LessOrEqual(t, s.Width.Min, x-line.Parts[i-1]+1e-6, s.ID)
					assert.GreaterOrEqual(t, s.Width.Max, x-line.Parts[i-1]-1e-6, s.ID)
				}
			}
		}
	})
}

// The parts that show are a ring round the head and a line along the front part;
// the middle of the back is covered.
func TestPartsThatShow(t *testing.T) {
	l, err := Lay(context.Background(), average(t), both(Brick, square(1), square(1)))
	require.NoError(t, err)
	seen := map[Zone]int{}
	for _, s := range l.Sections {
		if s.Hairline < 10 {
			assert.True(t, s.Seen, "%s lies at the hairline", s.ID)
		}
		if s.Hairline > 60 && s.Zone == BackLeft {
			assert.False(t, s.Seen, "%s is covered", s.ID)
		}
		if s.Seen {
			seen[s.Zone]++
		}
		assert.InDelta(t, s.Area/645.16, s.Share, 1e-9)
	}
	assert.Equal(t, seen[FrontLeft], seen[FrontRight])
	assert.GreaterOrEqual(t, seen[FrontLeft], 8, "a hairline row and a part row")
}

// opposite is the id on the other side of a zone that has two.
func opposite(id string) string {
	return id[:1] + map[string]string{"L": "R", "R": "L"}[id[1:2]] + id[2:]
}

func TestRightMirrorsLeft(t *testing.T) {
	forRandomLayouts(t, 40, func(t *testing.T, _ scalp.Head, _ Settings, l Layout) {
		byID := map[string]Section{}
		for _, s := range l.Sections {
			byID[s.ID] = s
		}
		for _, s := range l.Sections {
			other, ok := byID[opposite(s.ID)]
			require.True(t, ok, s.ID)
			assert.InDelta(t, s.Area, other.Area, 1e-9)
			assert.InDelta(t, s.Centroid[1], -other.Centroid[1], 1e-9)
			assert.InDelta(t, s.Centroid[0], other.Centroid[0], 1e-9)
			assert.Len(t, other.Neighbours, len(s.Neighbours))
		}
	})
}

// The quarter rule of masonry codes for running bond: head joints of successive
// courses are offset by at least a quarter unit.
func TestBrickKeepsTheQuarterRule(t *testing.T) {
	forRandomLayouts(t, 400, func(t *testing.T, h scalp.Head, s Settings, l Layout) {
		f, err := newFrames(h, s)
		require.NoError(t, err)
		eachPanel(layRows(t.Context(), s, f.pairs()), func(p *panel) {
			if p.wish.Pattern != Brick {
				return
			}
			for _, c := range l.Channels {
				assert.NotEqual(t, p.key, string(c.Zone[:1]))
			}
			for r := 1; r < p.rows; r++ {
				// Every part end against every part end of the row below, in mm on the line
				// they share; the unit is the mean distance of part ends there.
				from, to := p.line(r)
				on := func(joints []float64) (mm []float64) {
					for _, s := range joints {
						if s > from && s < to {
							mm = append(mm, p.lines[r].MM(s))
						}
					}
					return mm
				}
				below, above := on(p.highJoints(r-1)), on(p.lowJoints(r))
				if len(below) < 3 || len(above) < 3 {
					continue
				}
				unit := func(mm []float64) float64 { return (mm[len(mm)-1] - mm[0]) / float64(len(mm)-1) }
				mean := (unit(below) + unit(above)) / 2
				for _, x := range below {
					for _, y := range above {
						require.GreaterOrEqual(t, math.Abs(x-y), mean/4*(1-1e-9), "%s rows %d and %d", p.key, r, r+1)
					}
				}
			}
		})
		for _, w := range l.Notices {
			assert.NotEqual(t, advice.WeakStagger, w.Code)
		}
	})
}

func TestGridLinesUpAndDropsColumnsAtSeams(t *testing.T) {
	forRandomLayouts(t, 90, func(t *testing.T, h scalp.Head, s Settings, l Layout) {
		rows := map[Zone][]Row{}
		for _, r := range l.Rows {
			rows[r.Zone] = append(rows[r.Zone], r)
		}
		seams := 0
		for zone, list := range rows {
			wish := s.Back
			if strings.HasPrefix(string(zone), "F") {
				wish = s.Front
			}
			if wish.Pattern != Grid {
				continue
			}
			for i := 1; i < len(list); i++ {
				if list[i].Sections != list[i-1].Sections {
					seams++
					assert.Contains(t, l.Seams, Seam{zone, i, list[i-1].Sections, list[i].Sections})
				}
			}
			for _, r := range list {
				if r.Sections > 1 {
					assert.GreaterOrEqual(t, r.Length/float64(r.Sections), 0.65*wish.Width*math.Pow(wish.Ramp, (float64(r.Row)-0.5)/float64(len(list)))-1e-9, "%s%d", zone, r.Row)
				}
			}
		}
		assert.Len(t, l.Seams, seams)
	})
}

// A channel counts from three rows on, and every run of a grid's columns is found.
func TestChannelsOfAGridAreItsColumnLines(t *testing.T) {
	l, err := Lay(context.Background(), average(t), both(Grid, square(1), square(1)))
	require.NoError(t, err)
	rows := map[Zone][]int{}
	for _, r := range l.Rows {
		rows[r.Zone] = append(rows[r.Zone], r.Sections)
	}
	covered := map[string]bool{}
	for _, c := range l.Channels {
		assert.GreaterOrEqual(t, c.ToRow-c.FromRow, 2)
		assert.Positive(t, c.Length)
		for _, id := range c.Sections {
			assert.False(t, covered[id], "two channels end at %s", id)
			covered[id] = true
		}
	}
	for zone, counts := range rows {
		for from := 0; from < len(counts); {
			to := from
			for to < len(counts) && counts[to] == counts[from] {
				to++
			}
			for r := from; r < to && to-from >= 3; r++ {
				for k := 1; k < counts[r]; k++ {
					assert.True(t, covered[sectionID(zone, r+1, k)], "the part after %s is in a channel", sectionID(zone, r+1, k))
				}
			}
			from = to
		}
	}
}

// Common practice, no source: sections on an average head by size,
// and the area of its hair. They are counts of boxes.
func TestAverageHeadHasTheCountsOfPractice(t *testing.T) {
	h := average(t)
	for _, pattern := range []Pattern{Grid, Brick, FreeHand} {
		for _, c := range []struct {
			in        float64
			low, high int
		}{{0.75, 160, 195}, {1, 95, 120}, {1.25, 60, 75}, {1.5, 40, 50}} {
			l, err := Lay(context.Background(), h, both(pattern, square(c.in), square(c.in)))
			require.NoError(t, err)
			n := len(l.Sections)
			assert.True(t, n >= c.low && n <= c.high, "%s at %v in gives %d sections, practice %d to %d", pattern, c.in, n, c.low, c.high)
			assert.True(t, l.Area >= 54000 && l.Area <= 66000, "hair-bearing area %.0f mm²", l.Area)
		}
	}
}

func TestHalvingTheSizeQuadruplesTheCount(t *testing.T) {
	h := average(t)
	for _, pattern := range Patterns {
		for _, in := range []float64{0.8, 1, 1.2} {
			whole, err := Lay(context.Background(), h, both(pattern, square(in), square(in)))
			require.NoError(t, err)
			half, err := Lay(context.Background(), h, both(pattern, square(in/2), square(in/2)))
			require.NoError(t, err)
			assert.InEpsilon(t, 4, float64(len(half.Sections))/float64(len(whole.Sections)), 0.12, "%s at %v in", pattern, in)
		}
	}
}

// On a round head a section's area is that of the s2 polygon with the same
// corners.
func TestSectionAreasOnARoundHeadAgreeWithS2(t *testing.T) {
	const radius = 95.0
	ball := scalp.Head{A: radius, B: radius, C: radius, Nape: 45 * math.Pi / 180}
	l, err := Lay(context.Background(), ball, both(Brick, square(1), square(1)))
	require.NoError(t, err)
	for _, s := range l.Sections {
		points := make([]s2.Point, len(s.Outline))
		for i, p := range s.Outline {
			points[i] = s2.PointFromCoords(p[0], p[1], p[2])
		}
		assert.InEpsilon(t, s2.LoopFromPoints(points).Area()*radius*radius, s.Area, 1e-6, s.ID)
	}
}

func TestRefusedSettingsAreNamed(t *testing.T) {
	h := average(t)
	for path, s := range map[string]Settings{
		"front.pattern":  both("spiral", square(1), square(1)),
		"front.widthMm":  both(Grid, Size{0, inch}, square(1)),
		"front.heightMm": both(Grid, Size{inch, math.NaN()}, square(1)),
		"back.widthMm":   both(Grid, square(1), Size{5, 5}),
		"back.heightMm":  both(Brick, square(1), Size{inch, 900}),
		"back.ramp":      Plain(Wish{Brick, square(1), 1, 1}, Wish{Brick, square(1), 0, 1}),
	} {
		if path == "back.widthMm" {
			s.Front.Size = Size{5, 5} // in range each, too many together
		}
		_, err := Lay(context.Background(), h, s)
		var bad invalid.Errors
		require.ErrorAs(t, err, &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

// The size offered when there would be too many sections does work.
func TestTooManySectionsOffersASizeThatWorks(t *testing.T) {
	h := average(t)
	for _, pattern := range Patterns {
		s := both(pattern, Size{5, 5}, Size{6, 5})
		_, err := Lay(context.Background(), h, s)
		var bad invalid.Errors
		require.ErrorAs(t, err, &bad)
		var front, back float64
		_, scanErr := fmt.Sscanf(bad[0].Message[strings.Index(bad[0].Message, "at least"):], "at least %f cm", &front)
		require.NoError(t, scanErr, bad[0].Message)
		_, scanErr = fmt.Sscanf(bad[0].Message[strings.Index(bad[0].Message, "front and"):], "front and %f cm", &back)
		require.NoError(t, scanErr, bad[0].Message)
		grow := 10 * front / s.Front.Width
		l, err := Lay(context.Background(), h, both(pattern, Size{10 * front, 5 * grow}, Size{10 * back, 5 * grow}))
		require.NoError(t, err)
		assert.LessOrEqual(t, len(l.Sections), MaxSections)
	}
}

// Triangles are triangles, and a ramp grows the sections the way it says.
func TestTrianglesAndRamps(t *testing.T) {
	h := average(t)
	l, err := Lay(context.Background(), h, both(Triangle, square(1), square(1)))
	require.NoError(t, err)
	inner := map[string]int{}
	for _, r := range l.Rows {
		inner[fmt.Sprint(r.Zone, r.Row)] = r.Sections
	}
	boxes := 0
	for _, s := range l.Sections {
		if s.Width.Min > 0 { // a triangle has a tip on one of its lines
			boxes++
			assert.Contains(t, []int{1, inner[fmt.Sprint(s.Zone, s.Row)]}, s.Index, "%s ends a row, where a border slants", s.ID)
		}
	}
	assert.Less(t, boxes, len(l.Sections)/4)
	assert.Empty(t, l.Channels)

	for _, ramp := range []float64{0.5, 1.5, 2} {
		l, err := Lay(context.Background(), h, Plain(Wish{Grid, square(0.75), ramp, 1}, Wish{Grid, square(0.75), ramp, 1}))
		require.NoError(t, err)
		// Whole rows fill what there is, so a row departs a little from its height; the growth
		// from the lower to the upper rows is as wished.
		var grown, wished []float64
		for _, r := range l.Rows {
			if r.Zone != BackLeft {
				continue
			}
			sum, n := 0.0, 0.0
			for _, s := range l.Sections {
				if s.Zone == r.Zone && s.Row == r.Row {
					sum, n = sum+s.Height.Mean, n+1
				}
			}
			assert.InEpsilon(t, r.Size.Height, sum/n, 0.2, "row %d", r.Row)
			grown, wished = append(grown, sum/n), append(wished, r.Size.Height)
		}
		third := len(grown) / 3
		growth := func(h []float64) float64 { return floats.Sum(h[len(h)-third:]) / floats.Sum(h[:third]) }
		assert.InEpsilon(t, growth(wished), growth(grown), 0.2, "ramp %v", ramp)
	}
}

// A free-hand layout is irregular, and the same each time.
func TestFreeHandIsRepeatable(t *testing.T) {
	h := average(t)
	first, err := Lay(context.Background(), h, both(FreeHand, square(1), square(1)))
	require.NoError(t, err)
	again, err := Lay(context.Background(), h, both(FreeHand, square(1), square(1)))
	require.NoError(t, err)
	assert.Equal(t, first, again)
	brick, err := Lay(context.Background(), h, both(Brick, square(1), square(1)))
	require.NoError(t, err)
	require.Len(t, first.Sections, len(brick.Sections), "brick counts")
	moved := 0
	for i, s := range first.Sections {
		if math.Abs(s.Area-brick.Sections[i].Area) > 0.01*s.Area {
			moved++
		}
		assert.InEpsilon(t, brick.Sections[i].Area, s.Area, 0.45, s.ID)
	}
	assert.Greater(t, moved, len(first.Sections)/2)
}

func BenchmarkLay(b *testing.B) {
	h := average(b)
	for _, pattern := range Patterns {
		b.Run(string(pattern), func(b *testing.B) {
			s := both(pattern, square(0.6), square(0.6))
			l, err := Lay(context.Background(), h, s)
			require.NoError(b, err)
			b.ReportAllocs()
			for b.Loop() {
				_, _ = Lay(context.Background(), h, s)
			}
			b.ReportMetric(float64(len(l.Sections)), "sections")
		})
	}
}
