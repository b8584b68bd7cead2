package plan

import (
	"cmp"
	"slices"

	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
)

// Skills that are no method's.
const (
	plaiting = "plaits"
	extras   = "extras" // accents and cuffs
)

// plaitTask is to part the section of a place and plait its hair; false where it has none.
func (w *worked) plaitTask(i int) (pace.Task, bool) {
	p := &w.res.Places[i]
	minutes := 0.0
	switch {
	case p.Section < 0:
		return pace.Task{}, false
	case p.Ground == method.OnLink:
		minutes = pace.Link(p.Plait.Length())
	case w.works[i].Unplaited:
		minutes = pace.Plait(0, 0)
	default:
		minutes = pace.Plait(p.Plait.Braided, p.Plait.Twisted)
	}
	return pace.Task{Kind: pace.Plaits, Skill: plaiting, Minutes: minutes}, true
}

// attachTasks are to put on what hangs at a place, added to a list.
func (w *worked) attachTasks(out []pace.Task, i int) []pace.Task {
	p, x := &w.res.Places[i], &w.works[i]
	skill := string(w.in.Ways[p.Way].Method)
	attach, hide := x.Attach*float64(p.Count), x.Hiding(p.Count)
	if p.Ground != method.OnPlait {
		out = append(out, pace.Task{Kind: pace.Hook, Skill: skill, Minutes: attach, Piece: true})
	} else {
		out = append(out, pace.Task{Kind: pace.Attach, Skill: skill, Minutes: attach, Piece: hide == 0})
		if hide > 0 {
			out = append(out, pace.Task{Kind: pace.Conceal, Skill: skill, Minutes: hide, Piece: true})
		}
	}
	for _, a := range p.Accents {
		if w.accentPiece(a) >= 0 {
			out = append(out, pace.Task{Kind: pace.Hook, Skill: extras, Minutes: pace.AccentTime})
		} else {
			out = append(out, pace.Task{Kind: pace.Finish, Skill: extras, Minutes: pace.ThingTime})
		}
	}
	return out
}

// trackTask is to plait a track flat.
func trackTask(t *parting.Track) pace.Task {
	shows := t.Zone == parting.DesignLeft || t.Zone == parting.DesignRight
	return pace.Task{Kind: pace.Tracks, Skill: string(pace.Tracks), Minutes: pace.Track(t.Length, shows)}
}

// settleTask is what comes before the first part.
var settleTask = pace.Task{Kind: pace.Settle, Skill: string(pace.Settle), Minutes: pace.SettleTime}

// tailTask is to put away the tails of the base, netTask to lay its nets; false where there are
// none.
func (w *worked) tailTask() (pace.Task, bool) {
	n := w.layout.Tails()
	return pace.Task{Kind: pace.Tracks, Skill: string(pace.Tracks), Minutes: pace.TailTime * float64(n)}, n > 0 && w.in.Redo == nil
}

func (w *worked) netTask() (pace.Task, bool) {
	return pace.Task{Kind: pace.Nets, Skill: string(pace.Nets), Minutes: pace.NetTime}, len(w.layout.Nets) > 0 && w.in.Redo == nil
}

// finishTask is to look the whole head over, fill and trim.
func (w *worked) finishTask() pace.Task {
	minutes := pace.FinishTime + pace.FillTime*float64(w.in.Fill.Total())
	for i := range w.res.Places {
		p := &w.res.Places[i]
		switch {
		case p.Kept:
		case p.Ground == method.OnPlait:
			minutes += pace.LooseFinish * float64(p.Count)
		default:
			minutes += pace.HookedFinish * float64(p.Count)
		}
	}
	return pace.Task{Kind: pace.Finish, Skill: string(pace.Finish), Minutes: minutes}
}

// baseTasks are all that is done to the base before anything hangs on it.
func (w *worked) baseTasks() (out []pace.Task) {
	for _, t := range w.tracks() {
		out = append(out, trackTask(t))
	}
	for _, of := range []func() (pace.Task, bool){w.tailTask, w.netTask} {
		if t, has := of(); has {
			out = append(out, t)
		}
	}
	return out
}

// tracks are those to be plaited; none where only outer rows are done again.
func (w *worked) tracks() (out []*parting.Track) {
	if w.in.Redo == nil {
		for i := range w.layout.Tracks {
			out = append(out, &w.layout.Tracks[i])
		}
	}
	return out
}

// headTasks are all that is done at the head.
func (w *worked) headTasks() []pace.Task {
	out := append(make([]pace.Task, 0, 3*len(w.res.Places)+8), w.settleTask())
	out = append(out, w.baseTasks()...)
	for i := range w.res.Places {
		if w.res.Places[i].Kept {
			continue
		}
		if t, has := w.plaitTask(i); has {
			out = append(out, t)
		}
		out = w.attachTasks(out, i)
	}
	return append(out, w.finishTask())
}

// hours are what the first of those who work takes for all of it alone.
func (w *worked) hours() pace.Hours { return pace.Estimate(w.headTasks(), w.worker(0)) }

// worker is one of those who work, by the day's list; where it names nobody, practised hands.
func (w *worked) worker(k int) pace.Worker { return w.in.worker(k) }

func (in Input) worker(k int) pace.Worker {
	hand := in.hands()[k]
	out := pace.Worker{Hand: hand.Hand, Own: 1, New: hand.New}
	if in.OwnHead && k == 0 {
		out.Own = hand.own()
	}
	if in.Day == nil {
		return out
	}
	if len(hand.Logged) > 0 {
		out.Logged = make(map[string]pace.Timed, len(hand.Logged))
		for _, l := range hand.Logged {
			out.Logged[l.Skill] = pace.Timed{Factor: l.Factor * out.Own, Spread: l.Spread}
		}
	}
	timed := map[string]pace.Timed{}
	for _, t := range in.Day.Trials {
		if t.By == hand.Key {
			timed[t.Skill] = out.Time(t.Skill, t.Minutes, t.Rate)
		}
	}
	out.Timed = timed
	return out
}

// Timeable is something of a plan that can be timed.
type Timeable struct {
	Skill  string `json:"skill" doc:"Id of a method, or plaits"`
	Name   string `json:"name"`
	Places int    `json:"places"`
	// Rate is the mean of practised hands on another's head, minutes a place.
	Rate float64 `json:"rateMin" doc:"Practised hands on another's head, minutes a place"`
}

// timeable are what can be timed on this head, that of most minutes first.
func (w *worked) timeable() []Timeable {
	out := []Timeable{}
	add := func(skill, name string, minutes float64) {
		k := slices.IndexFunc(out, func(t Timeable) bool { return t.Skill == skill })
		if k < 0 {
			k = len(out)
			out = append(out, Timeable{Skill: skill, Name: name})
		}
		out[k].Places++
		out[k].Rate += minutes
	}
	for i := range w.res.Places {
		p := &w.res.Places[i]
		if p.Kept {
			continue
		}
		if t, has := w.plaitTask(i); has {
			add(plaiting, "Part and plait a section", t.Minutes)
		}
		m := w.methods[p.Way]
		add(string(m.ID), m.Name, w.works[i].Minutes(p.Count))
	}
	slices.SortStableFunc(out, func(a, b Timeable) int { return cmp.Compare(b.Rate, a.Rate) })
	for k := range out {
		out[k].Rate /= float64(out[k].Places)
	}
	return out
}
