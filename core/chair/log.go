package chair

import (
	"fmt"
	"slices"
	"strings"

	"kladotex/core/craft"
	"kladotex/core/pace"
)

// Log is an install looked back on.
type Log struct {
	Stages []StageLog `json:"stages"`
	Pieces []PieceLog `json:"pieces"`
	// Planned are the minutes of work planned for one pair of hands, Worked those at it, of all
	// hands together.
	Planned  float64    `json:"plannedMin"`
	Worked   float64    `json:"workedMin"`
	Evidence []Evidence `json:"evidence"`
	// Twice came out as two, Out were left out, Again were done again.
	Twice int `json:"twice"`
	Out   int `json:"out"`
	Again int `json:"again"`
	// Change is what to do differently next time, in words drawn from the numbers.
	Notes  []Note            `json:"notes"`
	Change []string          `json:"change"`
	Felt   map[string]Answer `json:"felt" doc:"What was answered, by the point at which it was asked"`
}

// StageLog is a stage as planned and as it was.
type StageLog struct {
	Kind pace.Kind `json:"kind" enum:"settle,tracks,net,plaits,hook,attach,finish"`
	Name string    `json:"name"`
	// Timed of Tasks say how long they took; Planned and Actual are the minutes of those.
	Tasks   int     `json:"tasks"`
	Timed   int     `json:"timed"`
	Planned float64 `json:"plannedMin"`
	Actual  float64 `json:"actualMin"`
}

// PieceLog is a piece as planned and as it was.
type PieceLog struct {
	Piece   Piece `json:"piece"`
	Used    int   `json:"used" doc:"On the head, those filled in among them"`
	Spoilt  int   `json:"spoilt"`
	Opened  int   `json:"opened" doc:"Packs"`
	Left    int   `json:"left"`
	Missing int   `json:"missing" doc:"Fewer in packs than their labels say"`
}

// Log looks back.
func (s *State) Log() Log {
	out := Log{Stages: []StageLog{}, Pieces: []PieceLog{}, Evidence: s.Evidence(), Twice: len(s.splits), Notes: append([]Note{}, s.notes...), Change: []string{}, Felt: map[string]Answer{}}
	for i := range s.tasks {
		t := &s.tasks[i]
		out.Again += t.again
		if t.status == Without && t.Place >= 0 && attaches(t.Kind) {
			out.Out++
		}
	}
	for _, t := range s.Tasks {
		out.Planned += t.Minutes[0]
	}
	for _, st := range s.stages() {
		out.Stages = append(out.Stages, StageLog{Kind: st.Kind, Name: st.Name, Tasks: st.Done})
	}
	for h := range s.streams {
		w := &s.streams[h]
		out.Worked += w.worked()
		for _, g := range w.groups {
			if !g.believed() {
				continue
			}
			g.share(s, w.hand, func(t *task, minutes float64) {
				k := slices.IndexFunc(out.Stages, func(l StageLog) bool { return l.Kind == t.Kind })
				if k < 0 {
					return
				}
				out.Stages[k].Timed++
				out.Stages[k].Planned += t.Minutes[w.hand]
				out.Stages[k].Actual += minutes
			})
		}
	}
	for _, p := range s.packs() {
		of := s.Pieces[p.Piece]
		c := s.used[of.Key]
		out.Pieces = append(out.Pieces, PieceLog{
			Piece: of, Used: p.Used - p.Spoilt, Spoilt: p.Spoilt, Opened: p.Opened, Missing: c.short,
			Left: max(0, of.Have+c.bought*of.Yield-c.short-p.Used),
		})
	}
	for key, answer := range s.asked {
		out.Felt[key] = answer
	}
	out.Change = s.change(&out)
	return out
}

// quicker is how many times as fast as before somebody is from where it is said.
const quicker = 1.25

// change says what to do differently, and why.
func (s *State) change(l *Log) []string {
	out := []string{}
	for _, st := range l.Stages {
		if st.Planned < 5 {
			continue
		}
		times := st.Actual / st.Planned
		switch {
		case times >= craft.MuchLonger:
			text := fmt.Sprintf("%s took %.1f × as long as planned (%.0f min for %.0f)", st.Name, times, st.Actual, st.Planned)
			if why := s.why(st.Kind); why != "" {
				text += ": " + why
			}
			out = append(out, text+".")
		case times <= craft.MuchShorter:
			out = append(out, fmt.Sprintf("%s went faster than planned: %.0f min for %.0f. The next plan allows less.", st.Name, st.Actual, st.Planned))
		}
	}
	if l.Twice > 0 {
		out = append(out, fmt.Sprintf("%s came out as two, %s: hold the card to the scalp for each, or plan with the size your hands make.", number(l.Twice, "section"), s.whereSplit()))
	}
	if l.Out > 0 {
		out = append(out, fmt.Sprintf("%s stayed without a piece: the next plan could leave them out from the start.", number(l.Out, "place")))
	}
	for _, p := range l.Pieces {
		name := p.Piece.Called()
		if share := float64(p.Spoilt) / float64(max(1, p.Used+p.Spoilt)); p.Spoilt >= 2 && share >= craft.MuchSpoilt {
			out = append(out, fmt.Sprintf("%d of %s spoilt (%.0f %%): stretch the loops before you start, and push the hair up while the latch comes out.", p.Spoilt, name, 100*share))
		}
		if p.Piece.Yield > 0 && p.Left >= p.Piece.Yield {
			packs := number(p.Left/p.Piece.Yield, "pack")
			out = append(out, fmt.Sprintf("%s of %s stayed shut: so much less next time.", packs, name))
		}
		if p.Missing > 0 {
			out = append(out, fmt.Sprintf("%s of %s were missing from their packs: count them when they arrive.", number(p.Missing, "piece"), name))
		}
	}
	for _, b := range s.balance() {
		if b.Odd {
			out = append(out, fmt.Sprintf("%s came out uneven: %d left, %d right. Part both sides of a row before you go on to the next.", b.Name, b.Left, b.Right))
			break
		}
	}
	for _, f := range feels {
		switch s.asked[f.key] {
		case Pulls:
			out = append(out, "It pulled: plait the roots slacker, and hang lighter pieces where it did.")
		case Hurts:
			out = append(out, "It hurt: too tight or too heavy for this head. Loosen what hurts now; where pain or bumps stay, ask a clinician.")
		default:
			continue
		}
		break
	}
	return out
}

// why says what the numbers tell of a stage that took longer.
func (s *State) why(kind pace.Kind) string {
	var reasons []string
	if kind == pace.Plaits && len(s.splits) > 0 {
		reasons = append(reasons, "your sections "+s.whereSplit()+" came out smaller")
	}
	again := 0
	for i := range s.tasks {
		if s.tasks[i].Kind == kind {
			again += s.tasks[i].again
		}
	}
	if again > 0 {
		reasons = append(reasons, number(again, "place")+" had to be done again")
	}
	if early, late := s.thirds(kind); late > 0 && early >= quicker*late {
		reasons = append(reasons, fmt.Sprintf("the first third was slow, the last took %.1f × the plan", late))
	}
	return strings.Join(reasons, ", ")
}

// whereSplit says where most places came out as two.
func (s *State) whereSplit() string {
	count := map[string]int{}
	for _, i := range s.splits {
		count[s.Rows[s.Places[i].Row].Region]++
	}
	best := ""
	for _, region := range s.regions() {
		if count[region] > count[best] {
			best = region
		}
	}
	return best
}

// thirds are how much longer than planned the first and the last third of a stage took; 0 and 0
// where too little was timed.
func (s *State) thirds(kind pace.Kind) (early, late float64) {
	type one struct{ actual, planned float64 }
	var all []one
	for h := range s.streams {
		for _, g := range s.streams[h].groups {
			if !g.believed() {
				continue
			}
			hand := s.streams[h].hand
			g.share(s, hand, func(t *task, minutes float64) {
				if t.Kind == kind {
					all = append(all, one{minutes, t.Minutes[hand]})
				}
			})
		}
	}
	third := len(all) / 3
	if third < 4 {
		return 0, 0
	}
	times := func(part []one) float64 {
		a, p := 0.0, 0.0
		for _, x := range part {
			a, p = a+x.actual, p+x.planned
		}
		return a / max(p, 1e-9)
	}
	return times(all[:third]), times(all[len(all)-third:])
}
