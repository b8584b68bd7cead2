package parting

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/advice"
	"kladotex/core/invalid"
	"kladotex/core/scalp"
	"kladotex/core/surface"
)

// randomHead is a head of some shape, its hairline a little moved.
func randomHead(r *rand.Rand) scalp.Head {
	for {
		move := func(reach float64) float64 { return reach * (2*r.Float64() - 1) }
		h, err := scalp.FitWith(scalp.Tapes{
			Circumference: 500 + 120*r.Float64(), FrontToNape: 325 + 80*r.Float64(), EarToEar: 290 + 60*r.Float64(), Ratio: 0.72 + 0.16*r.Float64(),
		}, scalp.Hairline{
			Front: move(12), TempleCorner: scalp.Move{Up: move(10), Back: move(8)},
			Temple: scalp.Move{Back: move(6)}, NapeCorner: scalp.Move{Up: move(8), Back: move(8)},
		})
		if err == nil {
			return h
		}
	}
}

// randomSettings are settings of a structure and pattern that hang together.
func randomSettings(r *rand.Rand, structure Structure, pattern Pattern) Settings {
	size := func() Size {
		w := inch * (0.6 + 0.7*r.Float64())
		return Size{w, w * (0.8 + 0.4*r.Float64())}
	}
	s := Plain(Wish{pattern, size(), 1, 1}, Wish{pattern, size(), 1, 1})
	if r.IntN(3) == 0 {
		s.Front.Along = 0.7 + r.Float64()
		s.Back.Ramp = 0.7 + r.Float64()
	}
	s.Structure = structure
	kinds := []PartKind{MiddlePart, SidePart, DiagonalPart, NoPart, Levels}
	for {
		s.Part.Kind = kinds[r.IntN(len(kinds))]
		if s.Part.Kind == SidePart || s.Part.Kind == DiagonalPart {
			s.Part.Offset = 40*r.Float64() - 20
			s.Part.EndOffset = 40*r.Float64() - 20
		}
		if s.Check() == nil {
			break
		}
	}
	if r.IntN(2) == 0 {
		s.Part.Stop = 110 + 90*r.Float64()
	}
	s.Part.Ear = 40*r.Float64() - 20
	s.Rows = 1 + r.IntN(2)
	s.Peak = r.IntN(2) == 0
	s.PerSide = 6 + r.IntN(10)
	s.NapeGuard = r.IntN(2) == 0 && s.rule().NapeGuard
	s.Base.Kind = []BaseKind{Cornrows, Cornrows, LinkedPlaits, LoosePlaits, Net}[r.IntN(5)]
	s.Base.Under = UnderNets[r.IntN(2)]
	s.Base.NoRing = r.IntN(2) == 0
	s.Base.Run = Runs[r.IntN(len(Runs))]
	s.Base.Cornrows = 5 + r.IntN(7)
	s.Base.SideCornrows = 2 + r.IntN(3)
	if s.Base.Run == Diagonal {
		s.Base.Cornrows = 6 + 2*r.IntN(3)
	} else if s.Base.Run.back() && r.IntN(2) == 0 {
		s.Base.MergeInto, s.Base.MergeAfter = 1+r.IntN(s.Base.Cornrows-1), 20
	}
	s.Base.Tails = []Tails{Tucked, Stitched, Chained}[r.IntN(3)]
	s.Design.Side = DesignSides[r.IntN(len(DesignSides))]
	s.Grounds = randomGrounds(r, s)
	s.Design.Curved = r.IntN(2) == 0
	if r.IntN(3) == 0 {
		s.Edges = 8
	}
	return s
}

// randomGrounds are bases of their own for some parts of the head.
func randomGrounds(r *rand.Rand, s Settings) (out []OwnBase) {
	for _, part := range s.parts() {
		g := OwnBase{Part: part, Kind: []BaseKind{Cornrows, LinkedPlaits, LoosePlaits, Net}[r.IntN(4)], Run: Runs[r.IntN(len(Runs))], Cornrows: 4 + 2*r.IntN(2), Tails: TailEnds[r.IntN(3)]}
		switch {
		case r.IntN(3) > 0:
			continue
		case part == BaseAtNape:
			g.Kind, g.Run, g.Cornrows = Cornrows, Horizontal, 1
		case part == BaseSides:
			g.Cornrows = 2
		case part == BaseBehind && s.Structure == FrontDesign && r.IntN(2) == 0:
			g.Kind = NoBase
		}
		out = append(out, g)
	}
	return out
}

// forEveryStructure lays every structure in every pattern on random heads.
func forEveryStructure(t *testing.T, times int, check func(t *testing.T, h scalp.Head, s Settings, l Layout)) {
	r := rand.New(rand.NewPCG(11, 5))
	for _, structure := range Structures {
		for _, pattern := range Patterns {
			for i := range times {
				h := randomHead(r)
				s := randomSettings(r, structure, pattern)
				if structure == FrontDesign && s.Rows == 2 { // individuals between its cornrows
					s.Design.Between, s.Design.Cornrows, s.Design.Reach = true, 2+s.PerSide%2, 0.55+0.02*float64(s.PerSide)
				}
				l, err := Lay(context.Background(), h, s)
				if err != nil { // a stop or a ring that this head has no room for
					require.NotEmpty(t, invalid.From(err))
					continue
				}
				t.Run(fmt.Sprintf("%s/%s/%s/%d", structure, pattern, s.Part.Kind, i), func(t *testing.T) { check(t, h, s, l) })
			}
		}
	}
}

// hairArea is the scalp inside the line that zones start at, mm², summed in thin
// triangles from the crown.
func hairArea(t *testing.T, h scalp.Head, s Settings) float64 {
	f, err := newFrame(h, s, LeftSide)
	require.NoError(t, err)
	points := f.border.points
	area := 0.0
	const n = 60
	for i := 1; i < len(points); i++ {
		a, b := points[i-1], points[i]
		prevA, prevB := h.Crown(), h.Crown()
		for k := 1; k <= n; k++ {
			g := float64(k) / n
			nextA, nextB := slerp(h.Crown(), a, g), slerp(h.Crown(), b, g)
			p, q, u, v := h.Surface(prevA), h.Surface(prevB), h.Surface(nextA), h.Surface(nextB)
			cross := r3.Cross(r3.Sub(u, q), r3.Sub(v, p))
			sign := 1.0
			if r3.Dot(r3.Cross(a, b), h.Crown()) < 0 {
				sign = -1 // the hairline runs back towards the face here
			}
			area += sign * r3.Norm(cross) / 2
			prevA, prevB = nextA, nextB
		}
	}
	return 2 * area
}

func slerp(u, v r3.Vec, f float64) r3.Vec {
	angle := math.Acos(r3.Dot(u, v))
	return scalp.Unit(r3.Add(r3.Scale(math.Sin((1-f)*angle), u), r3.Scale(math.Sin(f*angle), v)))
}

// Every structure covers the hair-bearing scalp once: areas positive each, and
// together that of the whole.
func TestEveryStructureTilesTheScalp(t *testing.T) {
	forEveryStructure(t, 6, func(t *testing.T, h scalp.Head, s Settings, l Layout) {
		for _, x := range l.Sections {
			require.Positive(t, x.Area, x.ID)
			require.False(t, math.IsNaN(x.Width.Mean+x.Height.Mean+x.Hairline+x.Part+x.Share+x.Stagger), x.ID)
			require.Positive(t, x.Height.Min, x.ID)
			area, _ := h.AreaCentroid(surface.UnitRing(h, x.Outline))
			assert.InEpsilon(t, area, x.Area, 1e-3, "%s is drawn as large as it is said to be", x.ID)
		}
		for _, x := range l.Cornrows {
			require.Positive(t, x.Area, x.ID)
			require.Positive(t, x.Length, x.ID)
		}
		assert.InEpsilon(t, hairArea(t, h, s), l.Area+l.BaseArea, 1e-3)
	})
}

// Ids are unique, neighbours mutual and side by side on the scalp; central zones are
// their own mirror image and sided ones each other's, unless the plan sets them apart.
func TestEveryStructureHangsTogether(t *testing.T) {
	forEveryStructure(t, 3, func(t *testing.T, h scalp.Head, s Settings, l Layout) {
		byID := map[string]Section{}
		rows := map[string]int{}
		for _, x := range l.Sections {
			byID[x.ID] = x
			rows[fmt.Sprint(x.Zone, x.Row)]++
		}
		require.Len(t, byID, len(l.Sections), "ids are unique")
		for _, x := range l.Sections {
			for _, id := range x.Neighbours {
				require.Contains(t, byID, id)
				require.Contains(t, byID[id].Neighbours, x.ID, "%s and %s", x.ID, id)
			}
			if len(x.Neighbours) > 0 {
				_, ok := surface.Union(h, surface.UnitRing(h, x.Outline), surface.UnitRing(h, byID[x.Neighbours[0]].Outline))
				assert.True(t, ok, "%s lies beside %s", x.ID, x.Neighbours[0])
			}
		}
		for _, r := range l.Rows {
			assert.Equal(t, rows[fmt.Sprint(r.Zone, r.Row)], r.Sections, "%s%d", r.Zone, r.Row)
		}
		if s.mirrors() {
			assert.Empty(t, l.withoutTwin())
			for _, b := range l.Balance {
				assert.Equal(t, b.Left.Sections, b.Right.Sections)
				assert.InEpsilon(t, b.Left.Area+1, b.Right.Area+1, 1e-6)
			}
		}
		ids := map[string]bool{}
		for _, x := range l.Cornrows {
			require.False(t, ids[x.ID], x.ID)
			ids[x.ID] = true
		}
		for _, x := range l.Cornrows {
			assert.True(t, x.Into == "" || ids[x.Into], "%s runs into %q", x.ID, x.Into)
			for k := range x.Hooks {
				if k > 0 { // whole pieces share a short cornrow, and both sides are alike
					assert.LessOrEqual(t, apart(x.Hooks[k-1], x.Hooks[k]), 1.6*s.spacing())
				}
			}
		}
	})
}

// The quarter rule of masonry codes for running bond holds in every zone that is
// parted in brick, over the middle of the head and round its rings too.
func TestBrickKeepsTheQuarterRuleInEveryStructure(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 8))
	laid := 0
	for i := 0; laid < 160; i++ {
		h := randomHead(r)
		s := randomSettings(r, Structures[i%len(Structures)], Brick)
		l, err := Lay(context.Background(), h, s)
		if err != nil {
			continue
		}
		laid++
		assert.GreaterOrEqual(t, l.Stagger.Min+1e-9, map[bool]float64{true: 0.25}[l.Stagger.Mean > 0], "%s %s", s.Structure, s.Part.Kind)
		for _, w := range l.Notices {
			assert.NotEqual(t, advice.WeakStagger, w.Code, "%s %s: %v", s.Structure, s.Part.Kind, w.About)
		}
	}
}

// A part that stops has a section of the next row straight behind it, and nothing in
// line with it from there.
func TestASectionStandsBehindTheStop(t *testing.T) {
	h := average(t)
	for _, stop := range []float64{90, 130, 160, 190} {
		for _, pattern := range []Pattern{Brick, Grid, FreeHand} {
			s := both(pattern, square(1), square(1))
			s.Part.Stop = stop
			l, err := Lay(context.Background(), h, s)
			require.NoError(t, err)
			end := l.PartLine[len(l.PartLine)-1]
			behind := at(h, l.Sections, surface.Toward(h, scalp.Point{end[0] - 4, 0, end[2] + 0.5}))
			require.GreaterOrEqual(t, behind, 0)
			assert.InDelta(t, 0, l.Sections[behind].Centroid[1], 0.01, "%s behind a stop at %v", l.Sections[behind].ID, stop)
			assert.Equal(t, Back, l.Sections[behind].Zone)
		}
	}
}

// Counts that can be told by hand.
func TestStructuresHoldWhatTheySay(t *testing.T) {
	h := average(t)
	lay := func(change func(*Settings)) Layout {
		s := both(Brick, square(1), square(1))
		change(&s)
		l, err := Lay(context.Background(), h, s)
		require.NoError(t, err)
		return l
	}
	zones := func(l Layout) map[Zone]int {
		out := map[Zone]int{}
		for _, z := range l.Zones {
			out[z.Zone] = z.Sections
		}
		return out
	}
	line := lay(func(s *Settings) { s.Structure, s.PerSide = PartLine, 9 })
	assert.Equal(t, map[Zone]int{PartLeft: 9, PartRight: 9}, zones(line))
	assert.Len(t, line.Cornrows, 5+2*3)

	guard := lay(func(s *Settings) { s.Structure, s.NapeGuard = EarToEar, true })
	assert.Positive(t, zones(guard)[Nape])
	for _, x := range guard.Sections {
		if x.Zone == Nape {
			assert.Less(t, x.Hairline, 20.0)
		}
	}

	one := lay(func(s *Settings) { s.Structure = Perimeter })
	two := lay(func(s *Settings) { s.Structure, s.Rows = Perimeter, 2 })
	peak := lay(func(s *Settings) { s.Structure, s.Peak = Perimeter, true })
	// A ring of 1 in sections takes the hairline's length in inches, about.
	round := 0.0
	for i := range one.HairlineCurve {
		round += apart(one.HairlineCurve[i], one.HairlineCurve[(i+1)%len(one.HairlineCurve)])
	}
	assert.InEpsilon(t, round/inch, float64(zones(one)[Hairline]), 0.12)
	assert.Greater(t, zones(two)[Hairline], zones(one)[Hairline]*3/2)
	assert.Positive(t, zones(peak)[PeakRow])
	assert.Less(t, zones(peak)[PeakRow], zones(one)[Hairline]/3)

	linked := lay(func(s *Settings) { s.Structure = Linked })
	// Every chain ends at a tail, none runs in a ring, and most plaits are taken up.
	into := map[string]string{}
	for _, x := range linked.Sections {
		assert.True(t, x.Linked)
		into[x.ID] = x.Into
	}
	for id := range into {
		for steps, at := 0, id; at != ""; steps, at = steps+1, into[at] {
			require.Less(t, steps, 60, "%s is laid into itself", id)
		}
	}
	assert.Less(t, linked.Tails(), len(linked.Sections)/4)
	assert.Empty(t, linked.Cornrows)

	design := lay(func(s *Settings) { s.Structure, s.Design.Side = FrontDesign, LeftSide })
	assert.Positive(t, zones(design)[FrontLeft])
	assert.Greater(t, zones(design)[FrontRight], zones(design)[FrontLeft])

	side := lay(func(s *Settings) { s.Part = Part{Kind: SidePart, Offset: 30} })
	assert.Greater(t, zones(side)[FrontRight], zones(side)[FrontLeft], "a part on the left leaves more on the right")

	levels := lay(func(s *Settings) { s.Part.Kind = Levels })
	assert.Len(t, zones(levels), 1)
	for i := 1; i < len(levels.Rows); i++ {
		assert.LessOrEqual(t, levels.Rows[i].Length, levels.Rows[i-1].Length, "rings shorten inwards")
	}
	// The oval at the end is short.
	assert.Less(t, levels.Rows[len(levels.Rows)-1].Length, levels.Rows[0].Length/2)
}

// Cornrows that merge: as many begin and reach the nape as were asked for, no hair is lost,
// and the length is that of the ways.
func TestCornrowsMergeAndChain(t *testing.T) {
	h := average(t)
	for _, c := range []struct{ cornrows, into int }{{8, 4}, {9, 3}, {10, 3}, {7, 1}, {6, 5}} {
		s := both(Brick, square(1), square(1))
		s.Structure = EarToEar
		s.Base.Cornrows, s.Base.MergeInto, s.Base.MergeAfter = c.cornrows, c.into, 50
		l, err := Lay(context.Background(), h, s)
		require.NoError(t, err)
		ends := 0
		starts := 0
		for _, x := range l.Cornrows {
			if x.Into == "" {
				ends++
			}
			if len(x.Outlines) > 0 {
				starts++
			}
			if x.Merged && x.Into != "" {
				assert.Greater(t, x.Length, 50.0, x.ID)
				i := slices.IndexFunc(l.Cornrows, func(y Cornrow) bool { return y.ID == x.Into })
				assert.InDelta(t, 0, apart(x.Line[len(x.Line)-1], l.Cornrows[i].Line[0]), 1e-6, "%s ends where %s begins", x.ID, x.Into)
			}
		}
		assert.Equal(t, c.into, ends)
		assert.Equal(t, c.cornrows, starts)
		assert.Equal(t, c.into, l.Tails())

		s.Base.Tails = Chained
		l, err = Lay(context.Background(), h, s)
		require.NoError(t, err)
		assert.Equal(t, 1, l.Tails(), "%d into %d", c.cornrows, c.into)
	}
}

// Three thin cornrows on either side run together into one.
func TestSideCornrowsMerge(t *testing.T) {
	s := both(Brick, square(1), square(1))
	s.Structure, s.Rows = Horseshoe, 2
	apart, err := Lay(context.Background(), average(t), s)
	require.NoError(t, err)
	s.Base.MergeSides = true
	l, err := Lay(context.Background(), average(t), s)
	require.NoError(t, err)
	into := map[string]int{}
	for _, x := range l.Cornrows {
		if x.Merged && x.Into != "" {
			into[x.Into]++
			assert.Contains(t, []Zone{SideLeft, SideRight}, x.Zone)
		}
	}
	assert.Len(t, into, 2, "one on each side")
	for id, n := range into {
		assert.Equal(t, 3, n, id)
	}
	assert.InDelta(t, apart.BaseArea, l.BaseArea, 1e-6, "they take the same hair")
	assert.Less(t, l.Tails(), apart.Tails())
	assert.Less(t, l.Hooks(), apart.Hooks())
}

// Common practice, no source: 120 close-set pieces go on cornrows behind an ear-to-ear part;
// at 19 mm apart ten cornrows carry about that.
func TestPiecesOnCornrowsByPractice(t *testing.T) {
	s := both(Brick, square(1), square(1))
	s.Structure, s.Base.Cornrows, s.Base.Spacing = EarToEar, 10, 19
	l, err := Lay(context.Background(), average(t), s)
	require.NoError(t, err)
	assert.InDelta(t, 120, l.Hooks(), 40)
}

// A structure takes the part lines its rule names and no others, and settings put on
// another structure always hang together.
func TestStructuresTakeWhatTheirRulesSay(t *testing.T) {
	h := average(t)
	r := rand.New(rand.NewPCG(2, 2))
	for _, rule := range Rules() {
		for _, kind := range []PartKind{MiddlePart, SidePart, DiagonalPart, NoPart, Levels} {
			s := both(Brick, square(1), square(1))
			s.Structure, s.Part = rule.Structure, Part{Kind: kind, Offset: 20}
			_, err := Lay(context.Background(), h, s)
			assert.Equal(t, slices.Contains(rule.Parts, kind), err == nil, "%s with %s: %v", rule.Structure, kind, err)
			for _, other := range Structures {
				assert.NoError(t, s.On(rule.Structure).On(other).Check(), "%s on %s", kind, other)
			}
		}
		s := randomSettings(r, rule.Structure, Brick)
		assert.Equal(t, rule.Base, s.hasBase())
	}
}

// What contradicts itself is named, with what would work; and that does.
func TestContradictionsOfferWhatWorks(t *testing.T) {
	h := average(t)
	first := map[string]func(*Settings){
		"part.stopMm":         func(s *Settings) { s.Part.Stop = 26; s.Edges = 20 },
		"part.kind":           func(s *Settings) { s.Structure, s.Part.Kind = Horseshoe, NoPart },
		"base.tracks":         func(s *Settings) { s.Structure, s.Base.Cornrows = EarToEar, 60 },
		"base.sideTracks":     func(s *Settings) { s.Structure, s.Base.SideCornrows = PartLine, 30 },
		"base.mergeInto":      func(s *Settings) { s.Structure, s.Base.MergeInto = EarToEar, 12 },
		"base.mergeAfterMm":   func(s *Settings) { s.Structure, s.Base.MergeInto, s.Base.MergeAfter = EarToEar, 3, 400 },
		"napeGuard":           func(s *Settings) { s.Structure, s.NapeGuard = Perimeter, true },
		"rows":                func(s *Settings) { s.Structure, s.Rows, s.Front.Height = Perimeter, 6, 40 },
		"perSide":             func(s *Settings) { s.Structure, s.PerSide = PartLine, 60 },
		"part.offsetMm":       func(s *Settings) { s.Part = Part{Kind: SidePart, Offset: 60} },
		"leftOut[0].radiusMm": func(s *Settings) { s.Structure, s.LeftOut = PartLine, []Spot{{Toward(h, scalp.Point{45, 4, 90}), 88}} },
		"leftOut[0].at":       func(s *Settings) { s.LeftOut = []Spot{{Direction{0, 0, 3}, 20}} },
		"edits[0].with":       func(s *Settings) { s.Edits = []Edit{{Kind: Merge, At: Direction{0, 0, 1}}} },
		"design.tracks":       func(s *Settings) { s.Structure, s.Design.Cornrows = FrontDesign, 12 },
		"part.earPartMm":      func(s *Settings) { s.Part.Ear = 90 },
	}
	for path, change := range first {
		s := both(Brick, square(1), square(1))
		change(&s)
		_, err := Lay(context.Background(), h, s)
		bad := invalid.From(err)
		require.NotEmpty(t, bad, path)
		assert.Equal(t, path, bad[0].Path, bad[0].Message)
	}
	// The numbers offered, tried.
	try := func(change func(*Settings), pattern string, apply func(*Settings, float64)) {
		s := both(Brick, square(1), square(1))
		change(&s)
		_, err := Lay(context.Background(), h, s)
		require.Error(t, err)
		message := invalid.From(err)[0].Message
		value := offered(t, pattern, message)
		apply(&s, value)
		_, err = Lay(context.Background(), h, s)
		assert.NoError(t, err, message)
	}
	try(first["base.tracks"], `up to (\d+) are possible`, func(s *Settings, v float64) { s.Base.Cornrows = int(v) })
	try(first["base.sideTracks"], `up to (\d+) are possible`, func(s *Settings, v float64) { s.Base.SideCornrows = int(v) })
	try(first["rows"], `up to (\d+) are possible`, func(s *Settings, v float64) { s.Rows = int(v) })
	try(first["perSide"], `up to (\d+) are possible`, func(s *Settings, v float64) { s.PerSide = int(v) })
	try(first["part.stopMm"], `between ([\d.]+) cm`, func(s *Settings, v float64) { s.Part.Stop = 10 * v })
	try(first["part.offsetMm"], `up to ([\d.]+) cm`, func(s *Settings, v float64) { s.Part.Offset = 10 * v })
	try(first["leftOut[0].radiusMm"], `Up to ([\d.]+) cm`, func(s *Settings, v float64) { s.LeftOut[0].Radius = 10 * v })
	try(first["base.mergeAfterMm"], `within ([\d.]+) cm`, func(s *Settings, v float64) { s.Base.MergeAfter = 10 * v })
}

// offered reads the number that a message offers.
func offered(t *testing.T, pattern, message string) float64 {
	t.Helper()
	m := regexp.MustCompile(pattern).FindStringSubmatch(message)
	require.NotNil(t, m, message)
	v, err := strconv.ParseFloat(m[1], 64)
	require.NoError(t, err)
	return v
}

// Settings anywhere within their limits, hairlines dragged far: either refused by name
// or laid side by side, every number finite.
func TestSettingsAtTheirLimits(t *testing.T) {
	r := rand.New(rand.NewPCG(99, 8))
	either := func(reach float64) float64 { return reach * (2*r.Float64() - 1) }
	move := func() scalp.Move { return scalp.Move{Up: either(40), Back: either(40)} }
	wish := func(k int) Wish {
		return Wish{Patterns[k%len(Patterns)], Size{8 + 50*r.Float64(), 8 + 50*r.Float64()}, 0.5 + 1.5*r.Float64(), 0.5 + 1.5*r.Float64()}
	}
	laid, refused, folded := 0, 0, 0
	for i := 0; laid < sampled(250); i++ {
		var line scalp.Hairline
		if i%2 == 0 {
			line = scalp.Hairline{Front: either(40), TempleCorner: move(), Temple: move(), Sideburn: move(), BehindEar: move(), NapeCorner: move()}
		}
		h, err := scalp.FitWith(scalp.Tapes{
			Circumference: 480 + 180*r.Float64(), FrontToNape: 300 + 130*r.Float64(), EarToEar: 270 + 100*r.Float64(), Ratio: 0.68 + 0.24*r.Float64(),
		}, line)
		if err != nil {
			continue
		}
		s := randomSettings(r, Structures[i%len(Structures)], Patterns[i%len(Patterns)])
		s.Front, s.Back = wish(i), wish(i/4)
		s.Part.Offset, s.Part.EndOffset, s.Part.Ear = either(60), either(60), either(40)
		if i%3 == 0 {
			s.Part.Stop = 25 + 300*r.Float64()
		}
		s.Edges = max(0, either(40))
		l, err := Lay(context.Background(), h, s)
		if err != nil {
			bad := invalid.From(err)
			require.NotEmpty(t, bad)
			refused++
			if strings.Contains(bad[0].Message, "over one another") {
				folded++
			}
			continue
		}
		laid++
		for _, x := range l.Sections {
			require.GreaterOrEqual(t, x.Area, leastArea, "%s of %s %v", x.ID, s.Structure, s.Part)
			require.False(t, math.IsNaN(x.Width.Mean+x.Height.Mean+x.Share+x.Hairline+x.Part+x.Stagger), x.ID)
		}
		for _, x := range l.Cornrows {
			require.False(t, math.IsNaN(x.Area+x.Length+x.Width), x.ID)
		}
	}
	assert.Positive(t, folded, "some of these fold, and are found")
	assert.Greater(t, refused, folded)
}
