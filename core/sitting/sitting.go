// Package sitting shares the work of an install between one or two people and cuts it into
// sittings. Times are minutes from the beginning of a sitting.
//
// The work is a list of steps in working order. One person does them in that order. Two share
// them: each takes the next step that is ready and theirs to do, and nobody begins a row that
// the other has in hand. A sitting is a stretch of the list, so that what is done in one and
// what is left for the next is never in doubt.
package sitting

import (
	"math"
	"slices"

	"kladotex/core/craft"
	"kladotex/core/pace"
)

// NoRow is the row of a step that is about the whole head.
const NoRow = -1

// Step is what is done in one go by one person: a row parted and plaited, a row attached, a
// cornrow.
type Step struct {
	// Row is that which is worked at, [NoRow] for the whole head.
	Row int
	// Plaits is true for what is done before anything can be attached.
	Plaits bool
	// By is what it takes each person, rested; 0 where they do not do it.
	By []float64
	// After are the steps that must be done before, each earlier in the list.
	After []int
	// Arms is true where the first person does it with raised arms, behind their own head.
	Arms bool
}

// Person is one who works.
type Person struct {
	// PlaitsFirst is true for one who attaches only once nothing is left to plait; another
	// plaits only while nothing can be attached.
	PlaitsFirst bool
}

// Breaks are the pauses of everyone who works, minutes.
type Breaks struct {
	// After so much work comes a break of Long; 0 for none.
	After, Long float64
	// Arms are put down where a step is done with raised arms.
	Arms bool
}

// Span is one person at one step, rests in it.
type Span struct {
	Step   int     `json:"step"`
	Person int     `json:"person"`
	Start  float64 `json:"startMin"`
	End    float64 `json:"endMin"`
	Rests  []Rest  `json:"rests,omitempty"`
}

// Rest is a pause.
type Rest struct {
	Start float64 `json:"startMin"`
	End   float64 `json:"endMin"`
	// Arms is true where only the arms are put down.
	Arms bool `json:"arms,omitempty"`
}

// Crew are those who work and how they rest.
type Crew struct {
	People []Person
	Breaks Breaks
}

// at is where one person stands in a sitting.
type at struct {
	free   float64 // from when they have nothing in hand
	worked float64 // minutes of work so far
	since  float64 // work since the last break
	raised float64 // work with raised arms since they were put down
	row    int     // that which they have in hand until they are free
}

// do lets a person do a step as soon as they are free.
func (c Crew) do(p *at, s *Step, who int, index int) Span {
	span := Span{Step: index, Person: who, Start: p.free}
	raised := s.Arms && who == 0 && c.Breaks.Arms
	left := s.By[who] * pace.Tired(p.worked)
	now := p.free
	rest := func(long float64, arms bool) {
		span.Rests = append(span.Rests, Rest{now, now + long, arms})
		now += long
		p.raised = 0
		if !arms {
			p.since = 0
		}
	}
	const end = 1e-9 // no rest is taken for what rounding leaves
	// Before a row that would be broken off one rests now, where a break is nearly due.
	if c.Breaks.After > 0 && p.since >= craft.NearlyDue*c.Breaks.After && p.since+left > c.Breaks.After {
		rest(c.Breaks.Long, false)
	}
	for {
		if c.Breaks.After > 0 && p.since >= c.Breaks.After-end {
			rest(c.Breaks.Long, false)
		}
		if raised && p.raised >= craft.ArmsUp-end {
			rest(craft.ArmsDown, true)
		}
		stretch := left
		if c.Breaks.After > 0 {
			stretch = min(stretch, c.Breaks.After-p.since)
		}
		if raised {
			stretch = min(stretch, craft.ArmsUp-p.raised)
		}
		now += stretch
		left -= stretch
		p.worked += stretch
		p.since += stretch
		if raised {
			p.raised += stretch
		}
		if left <= end {
			break
		}
	}
	p.free, span.End = now, now
	return span
}

// Run is one sitting of the steps from an index up to another, as quick as these people do it:
// where one of them is quicker alone, the others look on. What lies before from is done.
func (c Crew) Run(steps []Step, from, to int) []Span {
	all := make([]int, len(c.People))
	for i := range all {
		all[i] = i
	}
	best := c.share(steps, from, to, all)
	if len(all) > 1 {
		for i := range all {
			alone := func(s Step) bool { return s.By[i] > 0 }
			if !slices.ContainsFunc(steps[from:to], func(s Step) bool { return !alone(s) }) {
				if other := c.share(steps, from, to, all[i:i+1]); Length(other) < Length(best) {
					best = other
				}
			}
		}
	}
	return best
}

// Length is when the last span of a sitting ends.
func Length(spans []Span) (minutes float64) {
	for _, s := range spans {
		minutes = max(minutes, s.End)
	}
	return minutes
}

// share lets some of the people do steps.
func (c Crew) share(steps []Step, from, to int, people []int) []Span {
	spans := make([]Span, 0, to-from)
	if len(people) == 1 {
		var p at
		for i := from; i < to; i++ {
			if steps[i].By[people[0]] > 0 {
				spans = append(spans, c.do(&p, &steps[i], people[0], i))
			}
		}
		return spans
	}
	const open = math.MaxFloat64
	ends := make([]float64, to-from) // when each step is done; open before it is begun
	for i := range ends {
		ends[i] = open
	}
	ready := func(i int, now float64) bool {
		if ends[i-from] != open {
			return false
		}
		for k := len(steps[i].After) - 1; k >= 0; k-- { // what comes last is done last
			if a := steps[i].After[k]; a >= from && ends[a-from] > now {
				return false
			}
		}
		return true
	}
	now, left := make([]at, len(c.People)), to-from
	for i := range now {
		now[i].row = NoRow
	}
	// inHand tells whether somebody works at a row at a time: whoever is free before it does not.
	inHand := func(row int, time float64) bool {
		if row == NoRow {
			return false
		}
		for i := range now {
			if now[i].row == row && now[i].free > time {
				return true
			}
		}
		return false
	}
	clock := slices.Clone(people) // by when each is free
	for left > 0 {
		slices.SortStableFunc(clock, func(a, b int) int {
			switch {
			case now[a].free < now[b].free:
				return -1
			case now[a].free > now[b].free:
				return 1
			}
			return a - b
		})
		taken := false
		for _, who := range clock {
			time := now[who].free
			if i := c.next(steps, from, to, who, func(i int) bool {
				return !inHand(steps[i].Row, time) && ready(i, time)
			}); i >= 0 {
				spans = append(spans, c.do(&now[who], &steps[i], who, i))
				ends[i-from], now[who].row = now[who].free, steps[i].Row
				left--
				taken = true
				break
			}
			// Nothing for them yet: they wait for the next step to end.
			later := open
			for _, e := range ends {
				if e > time && e < later {
					later = e
				}
			}
			if later < open {
				waits := &now[who]
				if later-waits.free >= c.Breaks.Long { // who waits so long has rested
					waits.since, waits.raised = 0, 0
				}
				waits.free, waits.row = later, NoRow
				taken = true
				break
			}
		}
		if !taken {
			break // steps that none of these people do
		}
	}
	return spans
}

// next is the first step a person takes of those that are ready; -1 for none.
func (c Crew) next(steps []Step, from, to, who int, ready func(int) bool) int {
	other := -1
	for i := from; i < to; i++ {
		if steps[i].By[who] == 0 || !ready(i) {
			continue
		}
		if steps[i].Plaits == c.People[who].PlaitsFirst {
			return i
		}
		if other < 0 {
			other = i
		}
	}
	return other
}
