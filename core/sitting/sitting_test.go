package sitting

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// anyWork is a head of some rows: set out, each row plaited and then attached, and finished.
// Steps of the second person take slow times as long as those of the first.
func anyWork(t *rapid.T, people int, slow float64) []Step {
	by := func(minutes float64) []float64 { return []float64{minutes, minutes * slow}[:people] }
	minutes := rapid.Float64Range(1, 30)
	steps := []Step{{Row: NoRow, Plaits: true, By: by(15)}}
	rows := rapid.IntRange(1, 40).Draw(t, "rows")
	whole := people == 1 && rapid.Bool().Draw(t, "whole")
	plaited := make([]int, rows)
	plait := func(r int) {
		plaited[r] = len(steps)
		steps = append(steps, Step{Row: r, Plaits: true, By: by(minutes.Draw(t, "plait")), After: []int{0}, Arms: rapid.Bool().Draw(t, "arms")})
	}
	attach := func(r int) {
		steps = append(steps, Step{Row: r, By: by(minutes.Draw(t, "attach")), After: []int{plaited[r]}})
	}
	for r := range rows {
		if plait(r); !whole {
			attach(r)
		}
	}
	for r := 0; whole && r < rows; r++ {
		attach(r)
	}
	all := make([]int, len(steps))
	for i := range all {
		all[i] = i
	}
	return append(steps, Step{Row: NoRow, By: by(20), After: all})
}

func anyCrew(t *rapid.T, people int) Crew {
	c := Crew{People: make([]Person, people), Breaks: Breaks{Arms: rapid.Bool().Draw(t, "arms down")}}
	if rapid.Bool().Draw(t, "breaks") {
		c.Breaks.After, c.Breaks.Long = rapid.Float64Range(20, 120).Draw(t, "after"), rapid.Float64Range(3, 18).Draw(t, "long")
	}
	if people == 2 {
		c.People[1].PlaitsFirst = rapid.Bool().Draw(t, "plaits first")
	}
	return c
}

// Every step is done once, after those it waits for; nobody does two things at once, and no two
// people work at one row. Nobody works longer at a stretch than a break allows.
func checkSpans(t require.TestingT, c Crew, steps []Step, from, to int, spans []Span) {
	done := map[int]Span{}
	for _, s := range spans {
		assert.NotContains(t, done, s.Step, "done twice")
		assert.True(t, s.Step >= from && s.Step < to)
		done[s.Step] = s
	}
	assert.Len(t, done, to-from)
	for i, a := range spans {
		for _, need := range steps[a.Step].After {
			if need >= from {
				assert.LessOrEqual(t, done[need].End, a.Start+1e-9, "begun before what it needs")
			}
		}
		for _, b := range spans[:i] {
			apart := a.End <= b.Start+1e-9 || b.End <= a.Start+1e-9
			same := steps[a.Step].Row == steps[b.Step].Row && steps[a.Step].Row != NoRow
			assert.True(t, apart || a.Person != b.Person && !same, "%+v and %+v at once", a, b)
		}
	}
	if c.Breaks.After == 0 {
		return
	}
	for who := range c.People {
		stretch, last := 0.0, 0.0
		for _, s := range spans {
			if s.Person != who {
				continue
			}
			if s.Start-last >= c.Breaks.Long {
				stretch = 0
			}
			work := s.Start
			for _, r := range s.Rests {
				stretch += r.Start - work
				assert.LessOrEqual(t, stretch, c.Breaks.After+1e-6, "no break in time")
				if work = r.End; !r.Arms {
					stretch = 0
				}
			}
			stretch += s.End - work
			last = s.End
		}
		assert.LessOrEqual(t, stretch, c.Breaks.After+1e-6, "no break in time")
	}
}

// Sittings hold every step once and in order, none is over its limit, and there are no more than
// one needs who goes on for as long as a limit lasts.
func TestSittingsOfOne(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := anyCrew(t, 1)
		steps := anyWork(t, 1, 1)
		limit := rapid.Float64Range(60, 480).Draw(t, "limit")
		cut := c.Cut(steps, func(int) float64 { return limit })
		next := 0
		longest := 0.0
		for _, s := range cut {
			require.Equal(t, next, s.From, "order kept")
			next = s.To
			assert.LessOrEqual(t, s.Minutes, limit+1e-9)
			checkSpans(t, c, steps, s.From, s.To, s.Spans)
			assert.True(t, slices.IsSortedFunc(s.Spans, func(a, b Span) int { return a.Step - b.Step }))
			longest = max(longest, s.Minutes)
		}
		require.Equal(t, len(steps), next, "all of it")
		count, greedy := 0, 0.0
		for from := 0; from < len(steps); count++ {
			to := from + 1
			for to < len(steps) && Length(c.Run(steps, from, to+1)) <= limit {
				to++
			}
			greedy = max(greedy, Length(c.Run(steps, from, to)))
			from = to
		}
		assert.LessOrEqual(t, len(cut), count, "the fewest")
		work := 0.0
		for _, s := range steps {
			work += s.By[0]
		}
		assert.GreaterOrEqual(t, float64(len(cut)), work/limit, "none is longer than it may be")
	})
}

// Sittings are about as long as each other: of work in equal pieces no sitting has two pieces
// more than another.
func TestSittingsAreEven(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(2, 60).Draw(t, "n")
		steps := make([]Step, n)
		for i := range steps {
			steps[i] = Step{Row: i, By: []float64{10}}
		}
		c := Crew{People: make([]Person, 1)}
		limit := rapid.Float64Range(30, 200).Draw(t, "limit")
		least, most := n, 0
		for _, s := range c.Cut(steps, func(int) float64 { return limit }) {
			least, most = min(least, s.To-s.From), max(most, s.To-s.From)
		}
		assert.LessOrEqual(t, most-least, 1)
	})
}

// A sitting that was given more room takes more of the work.
func TestSittingsOfTheirOwnLength(t *testing.T) {
	steps := make([]Step, 30)
	for i := range steps {
		steps[i] = Step{Row: i, By: []float64{10}}
	}
	c := Crew{People: make([]Person, 1)}
	cut := c.Cut(steps, func(k int) float64 { return []float64{100, 200}[min(k, 1)] })
	require.Len(t, cut, 2)
	assert.Equal(t, 10, cut[0].To)
}

// Two never work at one row at once and never take longer than the first of them alone, however
// slow the second is; a second pair of hands as good as the first saves time on two rows or more.
func TestTwoPeople(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		slow := rapid.Float64Range(0.5, 4).Draw(t, "slow")
		c := anyCrew(t, 2)
		steps := anyWork(t, 2, slow)
		spans := c.Run(steps, 0, len(steps))
		checkSpans(t, c, steps, 0, len(steps), spans)
		one := Crew{People: c.People[:1], Breaks: c.Breaks}
		alone := Length(one.Run(steps, 0, len(steps)))
		assert.LessOrEqual(t, Length(spans), alone+1e-9)
		if len(steps) > 6 && slow <= 1 {
			assert.Less(t, Length(spans), alone)
		}
		limit := rapid.Float64Range(80, 400).Draw(t, "limit")
		next := 0
		for _, s := range c.Cut(steps, func(int) float64 { return limit }) {
			require.Equal(t, next, s.From)
			next = s.To
			checkSpans(t, c, steps, s.From, s.To, s.Spans)
			if s.To-s.From > 2 {
				assert.LessOrEqual(t, s.Minutes, limit+1e-9)
			}
		}
		assert.Equal(t, len(steps), next)
	})
}

// One who only plaits and one who only attaches hand the rows over, and between them never work
// longer than one as quick as either who does it all. (With breaks they may: one may rest while
// the other waits for them.)
func TestRowsAreHandedOver(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := Crew{People: []Person{{}, {PlaitsFirst: true}}}
		steps := anyWork(t, 2, 1)
		whole := slices.Clone(steps)
		for i := range steps {
			steps[i].By = slices.Clone(steps[i].By)
			steps[i].By[0] *= boolTo(!steps[i].Plaits)
			steps[i].By[1] *= boolTo(steps[i].Plaits)
		}
		spans := c.Run(steps, 0, len(steps))
		checkSpans(t, c, steps, 0, len(steps), spans)
		one := Crew{People: c.People[:1], Breaks: c.Breaks}
		assert.LessOrEqual(t, Length(spans), Length(one.Run(whole, 0, len(steps)))+1e-6)
	})
}

func boolTo(yes bool) float64 {
	if yes {
		return 1
	}
	return 0
}

// After an hour and a half comes a break of ten minutes, and arms that were raised for twenty
// minutes are put down for two.
func TestBreaks(t *testing.T) {
	c := Crew{People: make([]Person, 1), Breaks: Breaks{After: 90, Long: 10, Arms: true}}
	spans := c.Run([]Step{{Row: 0, By: []float64{50}}, {Row: 1, By: []float64{50}}}, 0, 2)
	assert.Equal(t, []Rest{{90, 100, false}}, spans[1].Rests)
	assert.Equal(t, 110.0, Length(spans))
	spans = c.Run([]Step{{Row: 0, By: []float64{45}, Arms: true}}, 0, 1)
	assert.Equal(t, []Rest{{20, 22, true}, {42, 44, true}}, spans[0].Rests)
	assert.Empty(t, c.Run([]Step{{Row: 0, By: []float64{90}}}, 0, 1)[0].Rests, "none after the last piece")
	// Nearly due, it comes before the row that would be broken off, not in it.
	spans = c.Run([]Step{{Row: 0, By: []float64{80}}, {Row: 1, By: []float64{20}}}, 0, 2)
	assert.Equal(t, []Rest{{80, 90, false}}, spans[1].Rests)
	assert.Empty(t, c.Run([]Step{{Row: 0, By: []float64{80}}, {Row: 1, By: []float64{10}}}, 0, 2)[1].Rests, "and not where all is done by then")
}

// Who works beyond four hours tires, so that the same rows take less in two sittings.
func TestLongDaysTire(t *testing.T) {
	steps := make([]Step, 36)
	for i := range steps {
		steps[i] = Step{Row: i, By: []float64{10}}
	}
	c := Crew{People: make([]Person, 1)}
	long := Length(c.Run(steps, 0, 36))
	assert.Greater(t, long, 365.0)
	assert.InDelta(t, 360, Length(c.Run(steps, 0, 18))+Length(c.Run(steps, 18, 36)), 1e-9)
}

func BenchmarkCutForTwo(b *testing.B) {
	var steps []Step
	for r := range 60 {
		steps = append(steps, Step{Row: r, Plaits: true, By: []float64{8, 9}}, Step{Row: r, By: []float64{12, 15}, After: []int{2 * r}})
	}
	c := Crew{People: []Person{{}, {PlaitsFirst: true}}, Breaks: Breaks{After: 90, Long: 10}}
	for b.Loop() {
		c.Cut(steps, func(int) float64 { return 180 })
	}
}
