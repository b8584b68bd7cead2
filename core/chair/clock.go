package chair

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"kladotex/core/craft"
)

// Taps that come this soon after one another tell of work that was done before them, ms.
const together = 12_000

// Time between two taps is believed between these shares of what was planned, and Pause on top: less
// was written down afterwards, more holds a pause nobody told of.
const (
	leastShare, mostShare = 0.2, 4.0
)

const minute = 60_000.0 // ms

// stream is one hand at work through an install.
type stream struct {
	key string
	// hand is the index of the hand whose minutes are planned for it; own is false for one who came
	// to help and is none of the plan's.
	hand    int
	own     bool
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

// rests are since when there was no pause, by what is said of it.
func (w *stream) rests() map[string]*int64 {
	return map[string]*int64{restBreak: &w.rested, restArms: &w.armsDown, restWater: &w.drank}
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
	return g.minutes >= leastShare*g.planned && g.minutes <= mostShare*g.planned+craft.UnsaidPause
}

// follow times every hand by its own taps.
func (s *State) follow(events []Event) {
	byTime := slices.Clone(events)
	slices.SortStableFunc(byTime, func(a, b Event) int { return cmp.Compare(a.At, b.At) })
	for h, hand := range s.Hands {
		s.streams = append(s.streams, stream{key: hand.Key, hand: h, own: true, latest: -1})
	}
	var others []string
	for i := range byTime {
		if key := byTime[i].Hand; !slices.Contains(others, key) && s.stream(key) < 0 {
			others = append(others, key)
		}
	}
	slices.Sort(others) // in one order everywhere
	for _, key := range others {
		s.streams = append(s.streams, stream{key: key, latest: -1})
	}
	told := make([]bool, len(s.tasks)) // plaits, by themselves
	for i := range byTime {
		e := &byTime[i]
		w := &s.streams[s.stream(e.Hand)]
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
			if mark := w.rests()[e.Text]; mark != nil {
				*mark = e.At
			}
		case e.Kind == Done:
			s.timed(w, e, told)
		}
	}
	for h := range s.streams {
		s.streams[h].close()
	}
}

// stream is the index of the stream of a hand by its key; -1 for one who told nothing yet.
func (s *State) stream(key string) int {
	return slices.IndexFunc(s.streams, func(w stream) bool { return w.key == key })
}

// latest is the task a hand told of last, -1 for none, and working whether it is at work.
func (s *State) latest(key string) (task int, working bool) {
	if k := s.stream(key); k >= 0 {
		return s.streams[k].latest, s.streams[k].working
	}
	return -1, false
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
		minutes += min(g.minutes, mostShare*g.planned+craft.UnsaidPause)
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
			g.share(s, w.hand, func(t *task, minutes float64) {
				k := slices.IndexFunc(out, func(e Evidence) bool { return e.Hand == w.key && e.Skill == t.Skill })
				if k < 0 {
					k = len(out)
					e := Evidence{Hand: w.key, Skill: t.Skill, Own: s.OwnHead && w.own && w.hand == 0}
					if w.own {
						e.Person = s.Hands[w.hand].Person
					} else {
						e.Person = strings.TrimPrefix(w.key, helps)
					}
					out = append(out, e)
				}
				out[k].Tasks++
				out[k].Actual += minutes
				out[k].Rate += t.Rate
				out[k].Planned += t.Minutes[w.hand]
			})
		}
	}
	return out
}

// helps is before the id of a person who came to help, in the key of their hand.
const helps = "helper/"

// Helper is the key of the hand of a person of the studio who came to help.
func Helper(person string) string { return helps + person }

// pace is how much longer than planned a hand takes at a skill, as far as this head tells.
func (s *State) pace(key string) func(skill string) float64 {
	actual, planned := map[string]float64{}, map[string]float64{}
	for _, e := range s.Evidence() {
		if e.Hand == key {
			actual[e.Skill], planned[e.Skill] = e.Actual, e.Planned
		}
	}
	return func(skill string) float64 {
		return (craft.PlannedWeighs + actual[skill]) / (craft.PlannedWeighs + planned[skill])
	}
}

// spread is how far the time that is left may lie from the likely one, a share either way, after so
// many minutes of work that were timed.
func spread(timed float64) float64 {
	return max(craft.LeastSpread, craft.Unlogged*math.Sqrt(craft.PlannedWeighs/(craft.PlannedWeighs+timed)))
}
