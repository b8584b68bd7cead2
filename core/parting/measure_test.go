package parting

import (
	"context"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/golang/geo/s1"
	"github.com/golang/geo/s2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
	"kladotex/core/surface"
)

// length of a line along its points, mm.
func lengthOf(line scalp.Line) (mm float64) {
	for i := 1; i < len(line); i++ {
		mm += apart(line[i-1], line[i])
	}
	return mm
}

// A part line starts, ends and stops where it was said to: measured again with the
// head's own arcs, which know nothing of zones.
func TestPartLinesLieWhereTheyAreSaidTo(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 1))
	for i := range 60 {
		h := randomHead(r)
		s := both(Brick, square(1), square(1))
		from, to := 50*r.Float64()-25, 50*r.Float64()-25
		s.Part = Part{Kind: DiagonalPart, Offset: from, EndOffset: to, Stop: 110 + 60*r.Float64()}
		if i%2 == 0 {
			s.Part = Part{Kind: SidePart, Offset: math.Copysign(max(4, math.Abs(from)), from), Ear: 30*r.Float64() - 15}
		}
		l, err := Lay(context.Background(), h, s)
		require.NoError(t, err)
		// Along the hairline, from the front centre to the start of the part.
		start, least := 0, math.Inf(1)
		for k, p := range l.HairlineCurve {
			if d := apart(p, l.PartLine[0]); d < least {
				start, least = k, d
			}
		}
		along := lengthOf(l.HairlineCurve[:start+1])
		if s.Part.Offset < 0 && start > 0 { // the curve goes round by the left
			along = lengthOf(append(append(scalp.Line{}, l.HairlineCurve[start:]...), l.HairlineCurve[0]))
		}
		assert.InDelta(t, math.Abs(s.Part.Offset), along, 4, "drawn in steps of 3 mm")
		assert.Equal(t, s.Part.Offset > 0, l.PartLine[0][1] > 0, "left is left")
		// The ear-to-ear part crosses the middle at the stop, or where it was moved to; beside a
		// part that runs on to the nape it runs straight from each ear to that, and so by less
		// than a comb's width elsewhere.
		at := slices.IndexFunc(l.EarToEar, func(p scalp.Point) bool { return p[1] <= 0 })
		middle := l.EarToEar[at]
		if a, b := l.EarToEar[at-1][1], middle[1]; b < 0 {
			for i := range middle {
				middle[i] = l.EarToEar[at-1][i] + a/(a-b)*(middle[i]-l.EarToEar[at-1][i])
			}
		}
		reach := 0.6
		if s.toNape() {
			reach = 1
		}
		front := h.Landmark(scalp.FrontCentre)
		want := s.Part.Stop
		if want == 0 {
			want = h.Arc(front, h.Crown()) - s.Part.Ear
		}
		assert.InDelta(t, want, h.Arc(front, h.Crown())+signedArc(h, middle), reach)
	}
}

// signedArc is how far behind the crown a point of the middle lies, mm.
func signedArc(h scalp.Head, p scalp.Point) float64 {
	return math.Copysign(h.Arc(surface.Toward(h, p), h.Crown()), -p[0])
}

// A spot painted out on a round head takes about as much as the spherical cap of the s2
// library, for sections small against it.
func TestSpotsTakeOutTheirArea(t *testing.T) {
	const radius = 95.0
	ball := scalp.Head{A: radius, B: radius, C: radius, Nape: 45 * math.Pi / 180}
	for _, spot := range []float64{25, 35, 50} {
		s := both(Grid, square(0.3), square(0.3))
		at := scalp.Unit(r3.Vec{X: -0.5, Y: 0.45, Z: 0.7})
		s.LeftOut = []Spot{{Direction{at.X, at.Y, at.Z}, spot}}
		l, err := Lay(context.Background(), ball, s)
		require.NoError(t, err)
		disc := s2.CapFromCenterAngle(s2.PointFromCoords(at.X, at.Y, at.Z), s1.Angle(spot/radius))
		assert.InEpsilon(t, disc.Area()*radius*radius, l.OutArea, 0.1, "%v mm", spot)
	}
}

// Edges left out all round are a strip of the width that was said, and what is left is
// less by just that.
func TestEdgesAreAStripOfTheirWidth(t *testing.T) {
	h := average(t)
	whole, err := Lay(context.Background(), h, both(Brick, square(0.75), square(1)))
	require.NoError(t, err)
	for _, edges := range []float64{4, 8, 14} {
		s := both(Brick, square(0.75), square(1))
		s.Edges = edges
		l, err := Lay(context.Background(), h, s)
		require.NoError(t, err)
		sum := 0.0
		for i, p := range l.Border {
			d := apart(p, l.HairlineCurve[i])
			assert.InDelta(t, edges, d, 0.45*edges, "the rings' lines keep about one width")
			sum += d
		}
		assert.InDelta(t, edges, sum/float64(len(l.Border)), 0.1*edges)
		strip := (whole.Area - l.Area) / edges // as long as the hairline, about
		assert.InEpsilon(t, lengthOf(append(l.HairlineCurve, l.HairlineCurve[0])), strip, 0.12)
	}
}

// A change on the left together with its mirror image makes a head that is its own
// mirror image.
func TestMirroredChangesKeepBothSidesAlike(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 3))
	changed := 0
	for i := range 60 {
		h := randomHead(r)
		s := both(Patterns[i%len(Patterns)], square(0.8+0.4*r.Float64()), square(1))
		if i%3 == 0 {
			s.Part.Stop = 140
		}
		bare, err := Lay(context.Background(), h, s)
		require.NoError(t, err)
		for _, e := range randomEdits(r, h, bare, 4) {
			if math.Abs(e.At[1]) < 0.25 || e.With != nil && e.With[1]*e.At[1] < 0.06 {
				continue // on the middle a change and its mirror image are one
			}
			mirror := e
			mirror.At[1] = -mirror.At[1]
			if e.With != nil {
				mirror.With = &Direction{e.With[0], -e.With[1], e.With[2]}
			}
			s.Edits = append(s.Edits, e, mirror)
		}
		l, err := Lay(context.Background(), h, s)
		require.NoError(t, err)
		if len(l.Rejected) > 0 {
			continue
		}
		if len(s.Edits) > 0 {
			changed++
		}
		assert.Empty(t, l.withoutTwin(), "%v", s.Edits)
		for _, b := range l.Balance {
			assert.Equal(t, b.Left.Sections, b.Right.Sections)
			assert.InDelta(t, b.Left.Area, b.Right.Area, 0.01*b.Left.Area+1)
		}
	}
	assert.Greater(t, changed, 12)
}

// The row lines of zones that cross the middle measure what is drawn: with a section on
// the middle half its width to the first part, with a part there a whole one.
func TestRowLinesOfCentralZones(t *testing.T) {
	forEveryStructure(t, 2, func(t *testing.T, _ scalp.Head, s Settings, l Layout) {
		sections := map[string]Section{}
		for _, x := range l.Sections {
			sections[x.ID] = x
		}
		for _, z := range l.Zones {
			require.NotEmpty(t, z.Zone.Name())
		}
		for _, r := range l.Rows {
			if !r.Zone.Central() || r.Sections < 4 || s.Front.Pattern == Triangle {
				continue
			}
			if r.Middle == "border" { // below the forehead rows start on the temple
				require.Equal(t, Front, r.Zone)
				continue
			}
			on := 0
			for _, x := range l.Sections {
				if x.Zone == r.Zone && x.Row == r.Row && math.Abs(x.Centroid[1]) < 0.5 && (x.Zone != Rings && x.Zone != Hairline) {
					on++
				}
			}
			if r.Zone == Rings || r.Zone == Hairline {
				continue // they cross it twice
			}
			assert.Equal(t, map[string]int{"section": 1, "part": 0}[r.Middle], on, "%s%d", r.Zone, r.Row)
			n := r.Lower.First + len(r.Lower.Parts) + 1
			if n-1 < r.Upper.First+len(r.Upper.Parts) { // a part that ends on a hairline below
				n = r.Upper.First + len(r.Upper.Parts) + 1
			}
			if r.Middle == "section" {
				assert.Equal(t, 2*n-1, r.Sections)
			} else {
				assert.Equal(t, 2*n, r.Sections)
			}
			if r.Middle == "section" {
				middle := sections[sectionID(r.Zone, r.Row, (r.Sections+1)/2)]
				assert.InDelta(t, 0, middle.Centroid[1], 0.01)
				assert.LessOrEqual(t, middle.Width.Min, 2*max(r.Lower.Parts[0], r.Upper.Parts[0])+0.01)
				assert.GreaterOrEqual(t, middle.Width.Max, 2*min(r.Lower.Parts[0], r.Upper.Parts[0])-0.01)
			}
		}
	})
}

// On the line two rows share, each part is told from the nearest one of the row below,
// a part on the middle of the head included, in every structure: the places told of the row
// below are those of its own line.
func TestPartsAreToldFromTheRowBelow(t *testing.T) {
	told := 0
	forEveryStructure(t, 3, func(t *testing.T, _ scalp.Head, _ Settings, l Layout) {
		rows := map[Zone]map[int]Row{}
		for _, r := range l.Rows {
			if rows[r.Zone] == nil {
				rows[r.Zone] = map[int]Row{}
			}
			rows[r.Zone][r.Row] = r
		}
		for _, r := range l.Rows {
			below, ok := rows[r.Zone][r.Row-1]
			if !ok {
				require.Empty(t, r.Below)
				continue
			}
			require.True(t, slices.IsSorted(r.Below))
			// Both lists tell the same part ends from different starts: they are as far apart.
			theirs := slices.Clone(below.Upper.Parts)
			// One may lie on the middle, at the start of the line and of a ring at its end.
			theirs = append([]float64{0}, append(theirs, below.Upper.Length)...)
			for i := 1; i < len(r.Below); i++ {
				gap := r.Below[i] - r.Below[i-1]
				require.True(t, slices.ContainsFunc(theirs, func(x float64) bool {
					return slices.ContainsFunc(theirs, func(y float64) bool { return math.Abs(y-x-gap) < 1e-6 })
				}), "%s%d", r.Zone, r.Row)
			}
			for k, at := range r.Lower.Parts {
				off, ok := r.Off(k)
				for _, y := range r.Below {
					if ok {
						require.LessOrEqual(t, math.Abs(off), math.Abs(at-y)+1e-9, "%s%d part %d", r.Zone, r.Row, k)
					} else {
						require.Greater(t, math.Abs(at-y), r.Size.Width)
					}
				}
				if ok {
					told++
				}
			}
		}
	})
	assert.Greater(t, told, 1000)
}

// apart is the distance of two points, mm.
func apart(a, b scalp.Point) float64 { return math.Sqrt(distance2(a, b)) }

// What travels to a screen is the layout to a hundredth of a millimetre, and rounding
// it again changes nothing.
func TestRoundedLayoutIsTheSameToAHundredth(t *testing.T) {
	h := average(t)
	exact, err := Lay(context.Background(), h, both(Brick, square(0.75), square(1)))
	require.NoError(t, err)
	l, err := Lay(context.Background(), h, both(Brick, square(0.75), square(1)))
	require.NoError(t, err)
	l.Round()
	require.Len(t, l.Sections, len(exact.Sections))
	for i, s := range l.Sections {
		e := exact.Sections[i]
		for _, pair := range [][2]float64{
			{e.Area, s.Area}, {e.Hairline, s.Hairline}, {e.Part, s.Part},
			{e.Width.Min, s.Width.Min}, {e.Width.Mean, s.Width.Mean}, {e.Width.Max, s.Width.Max},
			{e.Height.Min, s.Height.Min}, {e.Height.Mean, s.Height.Mean}, {e.Height.Max, s.Height.Max},
		} {
			assert.InDelta(t, pair[0], pair[1], 0.005+1e-9, s.ID)
			assert.InDelta(t, math.Round(pair[1]*100)/100, pair[1], 0, s.ID)
		}
		assert.InDelta(t, e.Stagger, s.Stagger, 5e-5+1e-9)
	}
	for i, r := range l.Rows {
		for k, mm := range r.Lower.Parts {
			assert.InDelta(t, exact.Rows[i].Lower.Parts[k], mm, 0.005+1e-9)
		}
		for k, mm := range r.Below {
			assert.InDelta(t, exact.Rows[i].Below[k], mm, 0.005+1e-9)
		}
	}
	again := slices.Clone(l.Sections)
	l.Round()
	assert.Equal(t, again, l.Sections)
}
