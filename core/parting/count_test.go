package parting

import (
	"context"
	"flag"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/craft"
	"kladotex/core/invalid"
	"kladotex/core/scalp"
)

// everyTotal is the step between the totals that are fitted; make bars takes every one.
var everyTotal = flag.Int("totals", 29, "the step between the totals from 20 to 300 that are fitted")

// Every total from 20 to 300 on three heads in six structures: met exactly where left and
// right can, else by the two even neighbours, the nearest that a mirrored head can come;
// and, except for one in two hundred, with no more slivers than sections of that size have by
// themselves. What is returned is laid again to see that it has what it says.
func TestEveryTotalIsMet(t *testing.T) {
	type wished struct {
		structure Structure
		part      PartKind
		front     Wish
		back      Wish
		odd       bool // something crosses the middle
	}
	plain := func(pattern Pattern, size float64) Wish { return Wish{pattern, square(size), 1, 1} }
	wishes := []wished{
		{AllIndividuals, MiddlePart, plain(Grid, 0.75), plain(Grid, 1), false},
		{AllIndividuals, NoPart, plain(Brick, 1), plain(Brick, 1), true},
		{AllIndividuals, Levels, plain(Brick, 1), plain(Brick, 1), true},
		{Linked, MiddlePart, plain(Triangle, 0.75), Wish{FreeHand, square(1), 1.4, 1}, false},
		{EarToEar, NoPart, plain(Grid, 0.6), plain(Grid, 1), true},
		{FrontDesign, MiddlePart, plain(Brick, 0.5), plain(Brick, 1), false},
		{Perimeter, NoPart, plain(Brick, 1), plain(Brick, 1), true},
		{Horseshoe, MiddlePart, plain(Brick, 0.5), plain(Brick, 1), false},
	}
	var fitted, worse atomic.Int64
	t.Cleanup(func() { // every run is through
		assert.LessOrEqual(t, float64(worse.Load()), 0.006*float64(fitted.Load()), "totals with more slivers than there are by themselves")
	})
	for _, preset := range scalp.Presets() {
		if !slices.Contains([]string{"Child", "Average", "Extra-large"}, preset.Name) {
			continue
		}
		h, err := scalp.Fit(preset.Tapes)
		require.NoError(t, err)
		for i, w := range wishes {
			s := Plain(w.front, w.back).On(w.structure)
			s.Part.Kind = w.part
			t.Run(fmt.Sprintf("%s %s %s", preset.Name, w.structure, w.part), func(t *testing.T) {
				t.Parallel()
				for total := 20 + i%*everyTotal; total <= 300; total += *everyTotal {
					found, err := FitCount(context.Background(), h, s, Count{Total: total})
					if bad := invalid.From(err); len(bad) > 0 && bad[0].Path == "total" {
						require.Greater(t, total, 42, "few sections always fit: %v", err)
						break // smaller ones do not
					}
					require.NoError(t, err, total)
					if total%2 == 1 && !w.odd {
						require.Len(t, found, 2, total)
						require.Equal(t, []int{total - 1, total + 1}, []int{found[0].Sections, found[1].Sections})
						continue
					}
					require.Len(t, found, 1, total)
					met := found[0].Settings
					l, err := Lay(context.Background(), h, met)
					require.NoError(t, err)
					require.Len(t, l.Sections, total)
					assert.Equal(t, s.Front.Pattern, met.Front.Pattern)
					if found[0].Split > 0 {
						assert.Len(t, met.Edits, found[0].Split)
						continue
					}
					free := s
					for wish, to := range map[*Wish]Wish{&free.Front: met.Front, &free.Back: met.Back} {
						scale := math.Sqrt(to.Width * to.Height / wish.Width / wish.Height)
						wish.Width, wish.Height = wish.Width*scale, wish.Height*scale
					}
					byThemselves, err := Lay(context.Background(), h, free)
					require.NoError(t, err)
					fitted.Add(1)
					if len(slivers(l)) > len(slivers(byThemselves)) {
						worse.Add(1)
					}
				}
			})
		}
	}
}

func slivers(l Layout) (ids []string) {
	for i := range l.Sections {
		if l.Sections[i].Share < craft.SliverShare {
			ids = append(ids, l.Sections[i].ID)
		}
	}
	return ids
}

func TestAKeptZoneStaysAsItIs(t *testing.T) {
	h := average(t)
	s := both(Brick, square(0.75), square(1))
	before, err := Lay(context.Background(), h, s)
	require.NoError(t, err)
	found, err := FitCount(context.Background(), h, s, Count{Total: len(before.Sections) + 20, Keep: KeepFront})
	require.NoError(t, err)
	require.NotEmpty(t, found)
	for _, f := range found {
		assert.Equal(t, s.Front, f.Settings.Front)
		assert.Less(t, f.Settings.Back.Width, s.Back.Width)
	}
	if wished := len(before.Sections) + 20; len(found) == 1 {
		assert.Equal(t, wished, found[0].Sections)
	} else {
		assert.Less(t, found[0].Sections, wished)
		assert.Greater(t, found[1].Sections, wished)
	}
}

// A number for the front alone, or the back alone, leaves the other as it is.
func TestOneZoneIsFittedByItself(t *testing.T) {
	h := average(t)
	s := both(Brick, square(0.75), square(1))
	now, err := Lay(context.Background(), h, s)
	require.NoError(t, err)
	front := 2 * now.Balance[0].Left.Sections
	for _, total := range []int{30, 44, 60, 80} {
		found, err := FitCount(context.Background(), h, s, Count{Total: total, Keep: KeepFront, Alone: true})
		require.NoError(t, err)
		if len(found) == 1 {
			assert.Equal(t, total, found[0].Back)
		} else {
			require.Len(t, found, 2)
			assert.True(t, found[0].Back < total && total < found[1].Back, "%d: %d and %d", total, found[0].Back, found[1].Back)
		}
		for _, x := range found {
			assert.Equal(t, front, x.Front)
			assert.Equal(t, s.Front, x.Settings.Front)
			l, err := Lay(context.Background(), h, x.Settings)
			require.NoError(t, err)
			assert.Len(t, l.Sections, front+x.Back)
		}
	}
}

// What is left out in the zone that stays does not count against the one that changes.
func TestOneZoneIsFittedBesideWhatIsLeftOut(t *testing.T) {
	h := average(t)
	s := both(Brick, square(0.75), square(1))
	now, err := Lay(context.Background(), h, s)
	require.NoError(t, err)
	front := 2 * now.Balance[0].Left.Sections
	for _, x := range now.Sections {
		if x.Front && x.Row == 1 {
			s.Edits = append(s.Edits, Edit{Kind: LeaveOut, At: Toward(h, x.Centroid)})
		}
	}
	found, err := FitCount(context.Background(), h, s, Count{Total: 44, Keep: KeepFront, Alone: true})
	require.NoError(t, err)
	require.Len(t, found, 1)
	assert.Equal(t, 44, found[0].Back)
	assert.Equal(t, front-len(s.Edits), found[0].Front)
}

// Every structure is fitted, with its stops, rings and changes by hand: exactly, or by
// the numbers on either side.
func TestEveryStructureIsFitted(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 1))
	exact, tried := 0, 0
	for i := range sampled(48) {
		h := randomHead(r)
		s := randomSettings(r, Structures[i%len(Structures)], Patterns[i%len(Patterns)])
		now, err := Lay(context.Background(), h, s)
		if err != nil || s.Structure == PartLine {
			continue // a part line's number is set, not fitted
		}
		if i%3 == 0 {
			x := now.Sections[r.IntN(len(now.Sections))]
			s.Edits = []Edit{{Kind: LeaveOut, At: Toward(h, x.Centroid)}}
		}
		total := max(8, len(now.Sections)*(80+r.IntN(50))/100)
		found, err := FitCount(context.Background(), h, s, Count{Total: total})
		if err != nil {
			require.Equal(t, "total", invalid.From(err)[0].Path)
			continue
		}
		tried++
		require.NotEmpty(t, found)
		for _, x := range found {
			l, err := Lay(context.Background(), h, x.Settings)
			require.NoError(t, err)
			assert.Len(t, l.Sections, x.Sections)
			if x.Sections == total {
				exact++
			} else {
				assert.InDelta(t, total, x.Sections, 8, "%s", s.Structure)
			}
		}
	}
	assert.Greater(t, exact, tried/2)
}

func TestTotalsOutOfReachNameTheRange(t *testing.T) {
	h := average(t)
	for _, total := range []int{-4, 0, 3, 5000} {
		_, err := FitCount(context.Background(), h, both(Brick, square(1), square(1)), Count{Total: total})
		bad := invalid.From(err)
		require.Len(t, bad, 1, total)
		assert.Equal(t, "total", bad[0].Path)
		assert.Regexp(t, `Between \d+ and \d+ sections`, bad[0].Message)
	}
	_, err := FitCount(context.Background(), h, both("spiral", square(1), square(1)), Count{Total: 100})
	require.NotEmpty(t, invalid.From(err))
	assert.Equal(t, "parting.front.pattern", invalid.From(err)[0].Path)
}

func BenchmarkFitCount(b *testing.B) {
	h := average(b)
	for b.Loop() {
		_, _ = FitCount(context.Background(), h, both(Brick, square(0.75), square(1)), Count{Total: 120})
	}
}

// On any head and from any sizes: what is found keeps to its Patterns, ramps and
// limits, and never lies on one side of the wish alone unless it meets it.
func TestFittedSizesStayWithinTheLimits(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 7))
	for i := 0; i < 12; {
		h, err := scalp.Fit(scalp.Tapes{
			Circumference: 500 + 120*r.Float64(), FrontToNape: 320 + 80*r.Float64(), EarToEar: 290 + 60*r.Float64(), Ratio: 0.72 + 0.15*r.Float64(),
		})
		if err != nil {
			continue
		}
		i++
		s := Plain(
			Wish{Patterns[i%len(Patterns)], square(0.5 + 1.2*r.Float64()), 0.6 + r.Float64(), 1},
			Wish{Patterns[(i+1)%len(Patterns)], square(0.5 + 1.2*r.Float64()), 1, 1},
		)
		total := 24 + r.IntN(260)
		found, err := FitCount(context.Background(), h, s, Count{Total: total, Keep: []Keep{KeepNone, KeepFront, KeepBack}[i%3]})
		if err != nil { // a kept zone may already have more than the wish
			require.Equal(t, "total", invalid.From(err)[0].Path)
			continue
		}
		require.NotEmpty(t, found)
		if len(found) == 1 {
			assert.Equal(t, total, found[0].Sections)
		} else {
			assert.Less(t, found[0].Sections, total)
			assert.Greater(t, found[1].Sections, total)
		}
		for _, f := range found {
			require.NoError(t, f.Settings.Check())
			assert.Equal(t, s.Front.Pattern, f.Settings.Front.Pattern)
			assert.Equal(t, s.Front.Ramp, f.Settings.Front.Ramp)
			l, err := Lay(context.Background(), h, f.Settings)
			require.NoError(t, err)
			assert.Len(t, l.Sections, f.Sections)
		}
	}
}

// Slivers are counted by the area between part ends before anything is drawn: as many as the
// drawn layout has.
func TestSliversAreCountedBeforeDrawing(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 9))
	laid, drawn := 0, 0
	for range 40 {
		h := randomHead(r)
		size := Size{inch * (0.6 + r.Float64()), inch * (0.6 + r.Float64())}
		s := both([]Pattern{Grid, Brick}[r.IntN(2)], size, size)
		s.Part.Kind = []PartKind{MiddlePart, NoPart, Levels}[r.IntN(3)]
		frames, err := newFrames(h, s)
		require.NoError(t, err)
		laid += sliversOf(layRows(context.Background(), s, frames.pairs()))
		l, err := Lay(context.Background(), h, s)
		require.NoError(t, err)
		for i := range l.Sections { // a half on either side counts on both
			if x := &l.Sections[i]; x.Share < craft.SliverShare {
				if drawn++; math.Abs(x.Centroid[1]) < 0.5 {
					drawn++
				}
			}
		}
	}
	assert.Positive(t, drawn)
	assert.InDelta(t, drawn, laid, 0.15*float64(drawn)+2)
}

// A section is split across its row: two halves of nearly one area where there was one.
func TestAHalvedSectionIsTwo(t *testing.T) {
	h := average(t)
	s := both(Brick, square(1), square(1))
	l, err := Lay(context.Background(), h, s)
	require.NoError(t, err)
	for _, i := range []int{3, 30, 60, 90} {
		x := &l.Sections[i]
		split := s
		split.Edits = []Edit{x.halved(h)}
		cut, err := Lay(context.Background(), h, split)
		require.NoError(t, err)
		require.Empty(t, cut.Rejected, x.ID)
		require.Len(t, cut.Sections, len(l.Sections)+1, x.ID)
		whole := 0.0
		for _, part := range cut.Sections {
			if !slices.ContainsFunc(l.Sections, func(y Section) bool { return math.Abs(y.Area-part.Area) < 1e-6 }) {
				whole += part.Area
				assert.InDelta(t, 0.5, part.Area/x.Area, 0.12, "%s into %s", x.ID, part.ID)
			}
		}
		assert.InEpsilon(t, x.Area, whole, 0.01, x.ID)
	}
}
