package chair

import (
	"cmp"
	"math"
	"slices"
)

// Taps that come this soon after one another tell of work that was done before them, ms.
const together = 12_000

// Time between two taps is believed between these shares of what was planned, and Pause on top: less
// was written down afterwards, more holds a pause nobody told of.
const (
	leastShare, mostShare = 0.2, 4.0
	unsaidPause           = 15.0 // minutes
)

const minute = 60_000.0 // ms

// stream is one hand at work through an install.
type stream struct {
	hand    int
	working bool
	// mark is since when the next task is in work, carry the minutes of it before a pause.
	mark  int64
	carry float64
	// rested, armsDown and drank are since when there was no pause of each kind.
	rested, armsDown, drank int64
	latest                  int // index of the task told of last; -1 for none
	group                   group
	groups                  []group
}

// group is work that was told of in one go, and how long it took.
type group struct {
	tasks   []int
	to      int64
	minutes float64
	planned float64
}

// believed tells whether the time of a group says anything about pace.
func (g group) believed() bool {
	return g.minutes >= leastShare*g.planned && g.minutes <= mostShare*g.planned+unsaidPause
}

// follow times every hand by its own taps.
func (s *State) follow(events []Event) {
	byTime := slices.Clone(events)
	slices.SortStableFunc(byTime, func(a, b Event) int { return cmp.Compare(a.At, b.At) })
	s.streams = make([]stream, max(1, len(s.Hands)))
	for h := range s.streams {
		s.streams[h] = stream{hand: h, latest: -1}
	}
	told := make([]bool, len(s.tasks)) // plaits, by themselves
	for i := range byTime {
		e := &byTime[i]
		w := &s.streams[s.hand(e.Hand)]
		k, known := kinds[e.Kind]
		if !known {
			continue
		}
		switch {
		case e.Kind == Began:
			if !w.working {
				w.working, w.mark, w.rested, w.armsDown, w.drank = true, e.At, e.At, e.At, e.At
			}
		case k.breaks:
			w.close()
			if w.working {
				w.carry += max(0, float64(e.At-w.mark)/minute)
			}
			w.working = false
		case e.Kind == Rested:
			w.drank = e.At
			w.armsDown = e.At
		case e.Kind == Done:
			s.timed(w, e, told)
		}
	}
	for h := range s.streams {
		s.streams[h].close()
	}
}

// timed takes a hand's telling that something is done.
func (s *State) timed(w *stream, e *Event, told []bool) {
	var tasks []int
	planned := 0.0
	add := func(i int) {
		tasks = append(tasks, i)
		planned += s.tasks[i].Minutes[w.hand]
	}
	s.eachTask(e, func(i int, t *task) {
		add(i)
		told[i] = true
		if t.Place < 0 || !attaches(t.Kind) {
			return
		}
		if k := s.places[t.Place].plait; k >= 0 && !told[k] {
			add(k)
			told[k] = true
		}
	})
	if len(tasks) == 0 {
		return
	}
	w.latest = tasks[len(tasks)-1]
	if !w.working { // nobody said when it began
		w.close()
		w.working, w.mark, w.carry, w.rested, w.armsDown, w.drank = true, e.At, 0, e.At, e.At, e.At
		return
	}
	if len(w.group.tasks) > 0 && e.At-w.group.to <= together {
		w.group.minutes += float64(e.At-w.group.to) / minute
	} else {
		w.close()
		w.group.minutes = max(0, float64(e.At-w.mark)/minute) + w.carry
		w.carry = 0
	}
	w.group.tasks = append(w.group.tasks, tasks...)
	w.group.planned += planned
	w.group.to, w.mark = e.At, e.At
}

// close puts the group in work among those that are done.
func (w *stream) close() {
	if len(w.group.tasks) > 0 {
		w.groups = append(w.groups, w.group)
	}
	w.group = group{}
}

// worked are the minutes a hand was at it, pauses nobody told of apart.
func (w *stream) worked() (minutes float64) {
	for _, g := range w.groups {
		minutes += min(g.minutes, mostShare*g.planned+unsaidPause)
	}
	return minutes
}

// share gives the minutes of a group to its tasks, by what was planned for each.
func (g group) share(s *State, hand int, give func(t *task, minutes float64)) {
	for _, i := range g.tasks {
		t := &s.tasks[i]
		part := 1 / float64(len(g.tasks))
		if g.planned > 0 {
			part = t.Minutes[hand] / g.planned
		}
		give(t, g.minutes*part)
	}
}

// Evidence is what one hand took for one skill on this head, where its time is believed.
type Evidence struct {
	Hand   string  `json:"hand" doc:"Key of who worked"`
	Person string  `json:"person,omitempty"`
	Skill  string  `json:"skill"`
	Tasks  int     `json:"tasks"`
	Actual float64 `json:"actualMin"`
	// Rate is what practised hands take for the same on another's head, Planned what this hand
	// was planned to take.
	Rate    float64 `json:"rateMin"`
	Planned float64 `json:"plannedMin"`
	// Own is true for one's own head.
	Own bool `json:"own"`
}

// Evidence is what the taps say of pace, by hand and skill.
func (s *State) Evidence() []Evidence {
	out := []Evidence{}
	for h := range s.streams {
		w := &s.streams[h]
		for _, g := range w.groups {
			if !g.believed() {
				continue
			}
			g.share(s, h, func(t *task, minutes float64) {
				k := slices.IndexFunc(out, func(e Evidence) bool { return e.Hand == s.handKey(h) && e.Skill == t.Skill })
				if k < 0 {
					k = len(out)
					e := Evidence{Hand: s.handKey(h), Skill: t.Skill, Own: s.OwnHead && h == 0}
					if h < len(s.Hands) {
						e.Person = s.Hands[h].Person
					}
					out = append(out, e)
				}
				out[k].Tasks++
				out[k].Actual += minutes
				out[k].Rate += t.Rate
				out[k].Planned += t.Minutes[h]
			})
		}
	}
	return out
}

func (b *Brief) handKey(h int) string {
	if h < len(b.Hands) {
		return b.Hands[h].Key
	}
	return ""
}

// Within an install its own pace counts soon: what was planned weighs as much as so many minutes.
const plannedWeighs = 20.0

// pace is how much longer than planned a hand takes at a skill, as far as this head tells.
func (s *State) pace(hand int) func(skill string) float64 {
	actual, planned := map[string]float64{}, map[string]float64{}
	for _, e := range s.Evidence() {
		if e.Hand == s.handKey(hand) {
			actual[e.Skill], planned[e.Skill] = e.Actual, e.Planned
		}
	}
	return func(skill string) float64 {
		return (plannedWeighs + actual[skill]) / (plannedWeighs + planned[skill])
	}
}

// spread is how far the time that is left may lie from the likely one, a share either way, after so
// many minutes of work that were timed.
func spread(timed float64) float64 {
	const unlogged, least = 0.2, 0.08
	return max(least, unlogged*math.Sqrt(plannedWeighs/(plannedWeighs+timed)))
}
