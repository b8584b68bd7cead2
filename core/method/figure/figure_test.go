package figure

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// ring is a circle round a place, flat in x and y or upright in x and z.
func ring(x, y, z, r float64, upright bool) []vector {
	out := make([]vector, 60)
	for i := range out {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / 60)
		if out[i] = (vector{x + r*cos, y + r*sin, z}); upright {
			out[i] = vector{x + r*cos, y, z + r*sin}
		}
	}
	return out
}

// torus is one component of the torus link that goes p times round while it turns q times.
func torus(q, start float64) []vector {
	out := make([]vector, 400)
	for i := range out {
		t := 2 * math.Pi * float64(i) / 400
		r := 3 + math.Cos(q*t+start)
		out[i] = vector{r * math.Cos(t), r * math.Sin(t), math.Sin(q*t + start)}
	}
	return out
}

// Linking numbers of the links 2-2-1 and 4-2-1 of Rolfsen's table (1 and 2), of rings apart,
// and of a link and its mirror image: knot theory, from memory.
func TestLinkingNumbersOfKnownLinks(t *testing.T) {
	flat := ring(0, 0, 0, 1, false)
	assert.InDelta(t, 1, math.Abs(linking(flat, ring(1, 0, 0, 1, true))), 1e-9)
	assert.InDelta(t, 0, linking(flat, ring(3, 0, 0, 1, true)), 1e-9)
	assert.InDelta(t, 2, math.Abs(linking(torus(2, 0), torus(2, math.Pi))), 1e-6)
	other := torus(2, math.Pi)
	mirrored := func(l []vector) []vector {
		out := slices.Clone(l)
		for i := range out {
			out[i][2] = -out[i][2]
		}
		return out
	}
	assert.InDelta(t, -linking(torus(2, 0), other), linking(mirrored(torus(2, 0)), mirrored(other)), 1e-9)
}

// The trefoil has three crossings, over and under in turn: knot theory, from memory.
func TestCrossingsOfTheTrefoil(t *testing.T) {
	var pts []Point
	for i := range 181 {
		a := 2 * math.Pi * (float64(i) + 7) / 180
		pts = append(pts, Point{180 + 50*(math.Sin(a)+2*math.Sin(2*a)), 200 + 50*(math.Cos(a)-2*math.Cos(2*a)), -40 * math.Sin(3*a), 8})
	}
	f := Frame{Strands: []Strand{{Name: "knot", Line: pts, Shown: 1}}}
	found := f.Crossings("knot", "knot")
	require.Len(t, found, 3)
	type pass struct {
		s    float64
		over bool
	}
	var along []pass
	for _, c := range found {
		along = append(along, pass{c.S[0], c.Z[0] > c.Z[1]}, pass{c.S[1], c.Z[1] > c.Z[0]})
	}
	slices.SortFunc(along, func(a, b pass) int { return int(a.s - b.s) })
	for i := 1; i < len(along); i++ {
		assert.NotEqual(t, along[i-1].over, along[i].over)
	}
}

// A needle through a ring goes through it once, beside it never, there and back not at all.
func TestThroughIsRead(t *testing.T) {
	loop := Strand{Name: "loop", Shown: 1}
	for i := range 25 {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / 24)
		loop.Line = append(loop.Line, Point{180 + 40*cos, 200 + 40*sin, 0, 8})
	}
	needle := func(pts ...Point) Frame {
		return Frame{Strands: []Strand{loop, {Name: "needle", Line: pts, Shown: 1}}}
	}
	once := needle(Point{180, 120, 30, 6}, Point{178, 190, 8, 6}, Point{182, 210, -8, 6}, Point{180, 300, -30, 6})
	assert.Equal(t, 1, once.Count("needle", Through, "loop"))
	assert.Equal(t, 1, once.Count("needle", Over, "loop"))
	assert.Equal(t, 1, once.Count("needle", Under, "loop"))
	beside := needle(Point{180, 120, 30, 6}, Point{250, 190, 8, 6}, Point{250, 210, -8, 6}, Point{180, 300, -30, 6})
	assert.Zero(t, beside.Count("needle", Through, "loop"))
	back := needle(Point{170, 120, 30, 6}, Point{170, 200, -20, 6}, Point{190, 205, -20, 6}, Point{192, 120, 30, 6})
	assert.Zero(t, back.Count("needle", Through, "loop"))
	once.States = []State{{A: "needle", Is: Through, B: "loop", Times: 2}}
	assert.Equal(t, []string{"needle through loop: stated 2, drawn 1"}, once.Check())
}

func points(t *rapid.T, label string) []Point {
	coord := func(name string, from, to float64) float64 {
		return rapid.Float64Range(from, to).Draw(t, label+name)
	}
	out := make([]Point, rapid.IntRange(2, 6).Draw(t, label))
	for i := range out {
		out[i] = Point{coord("x", 20, 340), coord("y", 60, 400), coord("z", -50, 50), coord("w", 6, 30)}
	}
	return out
}

func TestCurvesGoThroughTheirPointsEvenly(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		pts := points(t, "p")
		dense := spline(pts, 16)
		for i, p := range pts {
			assert.InDelta(t, 0, math.Hypot(dense[16*i].X-p.X, dense[16*i].Y-p.Y), 1e-6)
		}
		low, high := math.Inf(1), math.Inf(-1)
		for _, p := range pts {
			low, high = min(low, p.Z), max(high, p.Z)
		}
		way := Along(pts, 30)
		step := lengthOf(pts) / 29
		for i, p := range way {
			assert.True(t, p.Z >= low-1e-9 && p.Z <= high+1e-9, "depth never overshoots")
			if i > 0 { // a chord is never longer than its arc
				assert.LessOrEqual(t, math.Hypot(p.X-way[i-1].X, p.Y-way[i-1].Y), step+1e-6)
			}
		}
	})
}

func TestSimplifiedPathsStayNear(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var path []XY
		for _, p := range Along(points(t, "p"), 120) {
			path = append(path, XY{p.X, p.Y})
		}
		short := simplified(path, tolerance)
		assert.LessOrEqual(t, len(short), len(path))
		for _, p := range path {
			nearest := math.Inf(1)
			for i := 1; i < len(short); i++ {
				a, b := short[i-1], short[i]
				dx, dy := b.X-a.X, b.Y-a.Y
				u := min(max(((p.X-a.X)*dx+(p.Y-a.Y)*dy)/max(dx*dx+dy*dy, 1e-12), 0), 1)
				nearest = min(nearest, math.Hypot(p.X-a.X-u*dx, p.Y-a.Y-u*dy))
			}
			assert.LessOrEqual(t, nearest, tolerance+1e-9)
		}
	})
}

// In the mirror what lies over, under and through stays as it is, wherever it does not hang
// on rounding: where one strand ends on the other, or both lie at one depth, a shift of a
// millionth of a point reads otherwise too.
func TestMirrorKeepsWhatIsRead(t *testing.T) {
	const hair = 1e-6
	shifts := []Point{{X: hair}, {X: -hair}, {Y: hair}, {Y: -hair}, {Z: hair}, {Z: -hair}}
	rapid.Check(t, func(t *rapid.T) {
		a, b := points(t, "a"), points(t, "b")
		laid := func(by Point) Frame {
			line := slices.Clone(b)
			for i := range line {
				line[i].X, line[i].Y, line[i].Z = line[i].X+by.X, line[i].Y+by.Y, line[i].Z+by.Z
			}
			return Frame{Strands: []Strand{{Name: "a", Line: a, Shown: 1}, {Name: "b", Line: line, Shown: 1}}}
		}
		f := laid(Point{})
		for _, is := range []Relation{Over, Under, Through} {
			read := f.Count("a", is, "b")
			if slices.ContainsFunc(shifts, func(by Point) bool { return laid(by).Count("a", is, "b") != read }) {
				continue
			}
			assert.Equal(t, read, f.Mirror().Count("a", is, "b"), is)
		}
	})
}

// holds tells whether an outline covers a place.
func holds(path []XY, at XY) (in bool) {
	for i := range path {
		a, b := path[i], path[(i+1)%len(path)]
		if (a.Y > at.Y) != (b.Y > at.Y) && at.X < a.X+(at.Y-a.Y)/(b.Y-a.Y)*(b.X-a.X) {
			in = !in
		}
	}
	return in
}

// What is read as lying over is what one sees: the last body painted at a crossing is that
// of the upper strand.
func TestTheUpperStrandIsPaintedLast(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f := Frame{}
		tones := []Tone{Own, Piece, Steel}
		for i, tone := range tones {
			y0, y1 := rapid.Float64Range(100, 380).Draw(t, "from"), rapid.Float64Range(100, 380).Draw(t, "to")
			z := rapid.Float64Range(-20, 20).Draw(t, "depth")
			line := []Point{{40, y0, z, 18}, {320, y1, -z, 18}}
			if i == 2 {
				line = []Point{{y0, 80, z, 18}, {y1 - 40, 400, -z, 18}}
			}
			f.Strands = append(f.Strands, Strand{Name: string(rune('a' + i)), Of: Combed, Tone: tone, Line: line, Shown: 1})
		}
		drawing := Draw(f, Hanging, true)
		for i := range tones {
			for j := i + 1; j < len(tones); j++ {
				for _, c := range f.Crossings(f.Strands[i].Name, f.Strands[j].Name) {
					if math.Abs(c.Z[0]-c.Z[1]) < clear || crowded(f, c) {
						continue
					}
					var top *Colour
					for _, s := range drawing.Strands {
						if s.Fill != nil && slices.ContainsFunc(s.Paths, func(p []XY) bool { return holds(p, c.At) }) {
							top = s.Fill
						}
					}
					upper := f.Strands[i]
					if c.Upper() != upper.Name {
						upper = f.Strands[j]
					}
					require.NotNil(t, top)
					assert.Equal(t, upper.paint().base, *top)
				}
			}
		}
	})
}

// crowded tells whether a third strand passes over a crossing too, or two run side by side
// there.
func crowded(f Frame, c Crossing) bool {
	angle := func(name string) float64 {
		l := f.find(name).of.Line
		return math.Atan2(l[1].Y-l[0].Y, l[1].X-l[0].X)
	}
	if math.Abs(math.Sin(angle(c.Strands[0])-angle(c.Strands[1]))) < 0.4 {
		return true
	}
	for _, s := range f.Strands {
		if slices.Contains(c.Strands[:], s.Name) {
			continue
		}
		for _, p := range Along(s.Line, 100) {
			if math.Hypot(p.X-c.At.X, p.Y-c.At.Y) < 30 {
				return true
			}
		}
	}
	return false
}

func TestBetweenFramesStrandsComeAndGo(t *testing.T) {
	stay := Strand{Name: "stay", Line: []Point{{0, 0, 0, 4}, {0, 10, 0, 4}}, Shown: 1}
	there := stay
	there.Line = []Point{{10, 0, 0, 4}, {10, 10, 0, 4}, {10, 20, 0, 4}}
	f := Figure{Frames: []Frame{
		{Strands: []Strand{stay, {Name: "goes", Of: Metal, Line: stay.Line, Shown: 1}}},
		{Strands: []Strand{stay}, Via: true},
		{Strands: []Strand{there, {Name: "comes", Line: stay.Line, Shown: 1}}},
	}}
	assert.Equal(t, []int{0, 2}, f.Stills())
	way := f.Way(0, 1, 8)
	require.Len(t, way, 11)
	assert.Equal(t, way[2].Strands[0].Line, f.Way(1, 0, 8)[8].Strands[0].Line)
	shown := func(f Frame, name string) float64 {
		for _, s := range f.Strands {
			if s.Name == name {
				return s.Shown
			}
		}
		return 0
	}
	for i := 1; i < len(way); i++ {
		assert.LessOrEqual(t, shown(way[i], "goes"), shown(way[i-1], "goes"))
		assert.GreaterOrEqual(t, shown(way[i], "comes"), shown(way[i-1], "comes"))
		assert.GreaterOrEqual(t, way[i].Strands[0].Line[0].X, way[i-1].Strands[0].Line[0].X)
	}
	assert.Len(t, f.Frames[0].Bare().Strands, 1, "tools are laid aside")
}

func BenchmarkDraw(b *testing.B) {
	f := Frame{}
	for i := range 4 {
		var pts []Point
		for k := range 40 {
			sin, cos := math.Sincos(float64(k)*0.7 + float64(i)*1.5)
			pts = append(pts, Point{180 + 40*cos, 80 + 8*float64(k), 30 * sin, 18})
		}
		f.Strands = append(f.Strands, Strand{Name: string(rune('a' + i)), Of: Plaited, Tone: Tone(i % 3), Line: pts, Shown: 1})
	}
	for b.Loop() {
		Draw(f, Hanging, false)
	}
}

// tubed is a straight hollow strand that hangs in the middle, wide enough for others.
func tubed() Strand {
	return Strand{
		Name: "tube", Of: Locked, Tone: Piece, Shown: 1,
		Line: []Point{{180, 60, 0, 80}, {180, 240, 0, 80}, {180, 420, 0, 80}},
		Tube: &Tube{From: 0.1, To: 0.9, Open: 1, Mouths: []Mouth{{At: 0.3, Across: -0.8, Half: 12}, {At: 0.6, Across: 0.8, Half: 12}}},
	}
}

// Inside is read by depth: a line along the axis is inside, one that lies on the skin or
// beside the tube is not, and one that leaves and comes back is inside twice.
func TestInsideIsReadByDepth(t *testing.T) {
	along := func(z func(y float64) float64) Frame {
		s := Strand{Name: "plait", Of: Plaited, Tone: Own, Shown: 1}
		for y := 80.0; y <= 400; y += 10 {
			s.Line = append(s.Line, Point{180, y, z(y), 14})
		}
		return Frame{Strands: []Strand{tubed(), s}}
	}
	rapid.Check(t, func(t *rapid.T) {
		deep, out := rapid.Float64Range(-25, 25).Draw(t, "deep"), rapid.Float64Range(55, 120).Draw(t, "out")
		inside, skin := along(func(float64) float64 { return deep }), along(func(float64) float64 { return out })
		assert.Equal(t, 1, inside.Count("plait", Inside, "tube"))
		assert.Zero(t, skin.Count("plait", Inside, "tube"))
		twice := along(func(y float64) float64 {
			if y > 200 && y < 280 {
				return out
			}
			return deep
		})
		assert.Equal(t, 2, twice.Count("plait", Inside, "tube"))
	})
	solid := along(func(float64) float64 { return 0 })
	solid.Strands[0].Tube = nil
	assert.Zero(t, solid.Count("plait", Inside, "tube"), "nothing runs inside what is not hollow")
	assert.Zero(t, solid.Count("plait", Inside, "hook"), "nor inside what is not there")
}

// What runs inside a tube is hidden by its skin, and seen through its window.
func TestTheSkinHidesWhatRunsInside(t *testing.T) {
	f := Frame{Strands: []Strand{tubed(), {Name: "plait", Of: Combed, Tone: Own, Shown: 1, Line: []Point{{180, 80, 0, 14}, {180, 400, 0, 14}}}}}
	seen := func(at XY) Colour {
		var top Colour
		for _, s := range Draw(f, Hanging, true).Strands {
			if s.Fill == nil {
				continue
			}
			n := 0
			for _, p := range s.Paths {
				if holds(p, at) {
					n++
				}
			}
			if n == 1 || n > 1 && !s.Holes {
				top = *s.Fill
			}
		}
		return top
	}
	own := tones[Own][0]
	assert.Equal(t, own.base, seen(XY{182, 240}), "in the window")
	f.Strands[0].Tube.Open = 0
	assert.NotEqual(t, own.base, seen(XY{182, 240}), "shut")
}

// Turned over twice a frame is as it was.
func TestMirrorTwiceIsTheFrame(t *testing.T) {
	f := Frame{
		Strands: []Strand{tubed(), {Name: "a", Line: []Point{{10, 20, 3, 4}, {30, 90, -3, 4}}, Shown: 1}},
		Arrows:  [][]XY{{{10, 20}, {40, 60}}}, Dots: []XY{{50, 60}}, Lens: &Lens{At: XY{100, 100}, To: XY{250, 300}, Scale: 2, Radius: 40}, Wrong: &XY{20, 30},
	}
	left := f.Mirror()
	assert.InDelta(t, 350, left.Strands[1].Line[0].X, 1e-9)
	assert.Equal(t, f, left.Mirror())
}

// A frame that is turned over is drawn as its drawing in a mirror: mouths on the other side, twist the other
// way.
func TestAMirroredFrameIsDrawnMirrored(t *testing.T) {
	f := Frame{Strands: []Strand{tubed(), {Name: "a", Of: Twisted, Tone: Own, Shown: 1, Line: []Point{{60, 20, 80, 20}, {90, 200, 80, 24}, {250, 300, 80, 24}, {300, 420, 80, 20}}}}}
	right, left := Draw(f, Hanging, false).Strands, Draw(f.Mirror(), Hanging, false).Strands
	require.Len(t, left, len(right))
	for i := range right {
		require.Len(t, left[i].Paths, len(right[i].Paths))
		for k, path := range right[i].Paths {
			require.Len(t, left[i].Paths[k], len(path))
			for j, p := range path {
				assert.InDelta(t, Width-p.X, left[i].Paths[k][j].X, 1e-6)
				assert.InDelta(t, p.Y, left[i].Paths[k][j].Y, 1e-6)
			}
		}
	}
}

// A way that a strand has of its own is followed, eased at both ends.
func TestAStrandFollowsItsOwnWay(t *testing.T) {
	here := Strand{Name: "wrap", Shown: 1, Line: []Point{{0, 0, 0, 4}, {0, 10, 0, 4}}}
	there := here
	there.Line = []Point{{100, 0, 0, 4}, {100, 10, 0, 4}}
	there.Way = func(u float64) []Point { return []Point{{100 * u * u, 0, 0, 4}, {100 * u * u, 10, 0, 4}} }
	f := Figure{Frames: []Frame{{Strands: []Strand{here}}, {Strands: []Strand{there}}}}
	assert.InDelta(t, 25, f.At(0.5).Strands[0].Line[0].X, 1e-9)
	assert.InDelta(t, 100*math.Pow(ease(0.25), 2), f.At(0.25).Strands[0].Line[0].X, 1e-9)
	assert.Equal(t, there.Line, f.At(1).Strands[0].Line)
	assert.Equal(t, here.Line, f.At(-3).Strands[0].Line)
	assert.Equal(t, there.Line, f.At(9).Strands[0].Line)
}

func TestStatesInWords(t *testing.T) {
	for want, s := range map[string]State{
		"loop under plait twice":      {A: "loop", Is: Under, B: "plait", Times: 2},
		"piece through loop":          {A: "piece", Is: Through, B: "loop", Times: 1},
		"wrap over two thirds":        {A: "wrap", Is: Over, B: "two-thirds", Times: Some},
		"hook not under plait":        {A: "hook", Is: Under, B: "plait"},
		"plait inside piece 6 times":  {A: "plait", Is: Inside, B: "piece", Times: 6},
		"second tuft over wrap twice": {A: "second-tuft", Is: Over, B: "wrap", Times: 2},
	} {
		assert.Equal(t, want, s.String())
	}
}

// Any strands can be drawn: nothing is lost, nothing is drawn off the earth.
func FuzzDraw(f *testing.F) {
	f.Add(uint8(0), uint8(3), 20.0, 30.0, 300.0, 380.0, 12.0, 18.0, -9.0)
	f.Add(uint8(6), uint8(8), 180.0, 180.0, 180.0, 181.0, 0.0, 2.0, 40.0)
	f.Add(uint8(4), uint8(1), 100.0, 400.0, 100.0, 100.0, 60.0, 90.0, 5.0)
	f.Fuzz(func(t *testing.T, of, other uint8, x0, y0, x1, y1, z, w, bend float64) {
		for _, v := range []float64{x0, y0, x1, y1, z, w, bend} {
			if math.IsNaN(v) || math.Abs(v) > 500 {
				t.Skip()
			}
		}
		w = math.Abs(w) + 1
		material := func(k uint8) Material { return Material(int(k) % len(looks)) }
		frame := Frame{Strands: []Strand{
			{Name: "a", Of: material(of), Tone: Own, Shown: 1, Line: []Point{{x0, y0, z, w}, {(x0 + x1) / 2, y0 + bend, -z, w / 2}, {x1, y1, z, w}}},
			{Name: "b", Of: material(other), Tone: Piece, Shown: 0.5, Ends: [2]End{Tip, Tip}, Line: []Point{{x1, y0, 0, w}, {x0, y1, 0, w}}},
		}}
		for _, quick := range []bool{true, false} {
			d := Draw(frame, Lying, quick)
			for _, s := range d.Strands {
				for _, p := range slices.Concat(s.Paths...) {
					if math.IsNaN(p.X+p.Y) || math.Abs(p.X) > 1e4 || math.Abs(p.Y) > 1e4 {
						t.Fatalf("drawn at %v", p)
					}
				}
			}
		}
	})
}
