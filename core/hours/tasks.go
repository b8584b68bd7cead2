// Package hours says how long a solved plan takes, by whom and in which sittings: the tasks of
// every place, the steps of the day in working order, and the day in words and numbers.
package hours

import (
	"cmp"
	"slices"

	"kladotex/core/craft"
	"kladotex/core/fall"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plan"
)

// extras is the skill of putting on accents and cuffs.
const extras = "extras"

// plaitTask is to part the section of a place and plait its hair; false where it has none.
func plaitTask(sol *plan.Solved, i int) (pace.Task, bool) {
	p := &sol.Places[i]
	minutes := 0.0
	switch {
	case p.Section < 0:
		return pace.Task{}, false
	case p.Ground == method.OnLink:
		minutes = pace.Link(p.Plait.Length())
	case p.Ground == method.OnLaid:
		minutes = pace.Plait(p.Plait.Braided, p.Plait.Twisted) + craft.LayBack
	case sol.Works[i].Unplaited:
		minutes = pace.Plait(0, 0)
	default:
		minutes = pace.Plait(p.Plait.Braided, p.Plait.Twisted)
	}
	minutes += preparing(sol, p)
	if sol.Input.Hair.Slips() {
		minutes *= craft.SlipSlower
	}
	return pace.Task{Kind: pace.Plaits, Skill: plan.PlaitingSkill, Minutes: minutes}, true
}

// preparing is what the sides taken on parts and plaits add to a section, or save, minutes.
func preparing(sol *plan.Solved, p *plan.Place) (minutes float64) {
	in := &sol.Input
	switch side := in.Custom(plan.Neatness); {
	case side == plan.RoughParts:
		minutes -= craft.RoughTime
	case side == plan.CrispAll && !sol.Layout.Sections[p.Section].Seen:
		minutes += craft.CrispTime
	}
	if in.Plaits.Fed > 0 {
		minutes += craft.FeedTime
	}
	if in.Plaits.Band {
		minutes += craft.BandOnTime
	}
	return minutes
}

// attachTasks are to put on what hangs at a place, added to a list.
func attachTasks(sol *plan.Solved, out []pace.Task, i int) []pace.Task {
	p, x := &sol.Places[i], &sol.Works[i]
	skill := string(sol.Input.Ways[p.Way].Method)
	attach, hide := x.Fixing(p.Count), x.Conceal
	if p.Ground == method.OnEnd { // fed in while the cornrow is plaited
		return append(out, pace.Task{Kind: pace.Attach, Skill: skill, Minutes: attach + hide, Piece: true})
	}
	if p.Ground != method.OnPlait {
		out = append(out, pace.Task{Kind: pace.Hook, Skill: skill, Minutes: attach, Piece: true})
	} else {
		out = append(out, pace.Task{Kind: pace.Attach, Skill: skill, Minutes: attach, Piece: hide == 0})
		if hide > 0 {
			out = append(out, pace.Task{Kind: pace.Conceal, Skill: skill, Minutes: hide, Piece: true})
		}
	}
	for _, a := range p.Accents {
		if sol.Input.AccentPiece(a) >= 0 {
			out = append(out, pace.Task{Kind: pace.Hook, Skill: extras, Minutes: craft.AccentTime})
		} else {
			out = append(out, pace.Task{Kind: pace.Finish, Skill: extras, Minutes: craft.ThingTime})
		}
	}
	return out
}

// Tasks are all that is done at one place: its plait, and what goes on.
func Tasks(sol *plan.Solved, i int) []pace.Task {
	var out []pace.Task
	if t, has := plaitTask(sol, i); has {
		out = append(out, t)
	}
	return attachTasks(sol, out, i)
}

// cornrowTask is to plait a cornrow flat, rings strung before it where it is one of a design.
func cornrowTask(sol *plan.Solved, t *parting.Cornrow) pace.Task {
	minutes := pace.Cornrow(t.Length, t.OfDesign())
	if t.OfDesign() {
		minutes += craft.RingTime * float64(sol.Input.Parting.Design.Rings)
	}
	return pace.Task{Kind: pace.Cornrows, Skill: string(pace.Cornrows), Minutes: minutes}
}

// DesignSide is what a side of a front design takes, its cornrows and the braids they go on as.
type DesignSide struct {
	Zone    parting.Zone `json:"zone"`
	Minutes float64      `json:"minutes" doc:"For the first of those who work"`
}

// Design is what each side of a front design takes.
func Design(sol *plan.Solved) []DesignSide {
	out := []DesignSide{}
	worker := sol.Input.Worker(0)
	add := func(zone parting.Zone, t pace.Task) {
		k := slices.IndexFunc(out, func(d DesignSide) bool { return d.Zone == zone })
		if k < 0 {
			k = len(out)
			out = append(out, DesignSide{Zone: zone})
		}
		out[k].Minutes += worker.Begin().Range(t).Likely
	}
	for _, t := range cornrows(sol) {
		if t.OfDesign() {
			add(t.Zone, cornrowTask(sol, t))
		}
	}
	for i := range sol.Places {
		if p := &sol.Places[i]; p.Ground == method.OnEnd {
			for _, t := range attachTasks(sol, nil, i) {
				t.Piece = false // no warming up: it is one piece of work
				add(p.Zone, t)
			}
		}
	}
	return out
}

// settle is what comes before the first part of any head.
var settle = pace.Task{Kind: pace.Settle, Skill: string(pace.Settle), Minutes: craft.SettleTime}

// tailTask is to put away the tails of the base, netTask to lay its nets; false where there are
// none.
func tailTask(sol *plan.Solved) (pace.Task, bool) {
	n := sol.Layout.Tails()
	return pace.Task{Kind: pace.Cornrows, Skill: string(pace.Cornrows), Minutes: craft.TailTime * float64(n)}, n > 0 && sol.Input.Redo == nil
}

func netTask(sol *plan.Solved) (pace.Task, bool) {
	return pace.Task{Kind: pace.Nets, Skill: string(pace.Nets), Minutes: craft.NetTime}, len(sol.Layout.Nets) > 0 && sol.Input.Redo == nil
}

// underNetTask is to plait what a net lies on, where those are plaits: parted by hand and laid back.
func underNetTask(sol *plan.Solved) (pace.Task, bool) {
	minutes := 0.0
	for _, net := range sol.Layout.Nets {
		for _, at := range net.Plaits {
			minutes += pace.Plait(sol.HairAt(at)*craft.BraidTakeUp, 0) - craft.RoughTime + craft.LayBack
		}
	}
	return pace.Task{Kind: pace.Plaits, Skill: plan.PlaitingSkill, Minutes: minutes}, minutes > 0 && sol.Input.Redo == nil
}

// wholeBase are the tasks of the base that are no single cornrow's, in the order they are done.
var wholeBase = []struct {
	name string
	of   func(*plan.Solved) (pace.Task, bool)
}{{"Plaits under the net", underNetTask}, {"Tails put away", tailTask}, {pace.Nets.Name(), netTask}}

// FinishPart is one of the things that end a head.
type FinishPart struct {
	Name    string  `json:"name"`
	Minutes float64 `json:"minutes" doc:"Practised hands on another's head"`
}

// trimTimes are what cutting one piece takes, by the shape of the ends.
var trimTimes = map[fall.Shape]float64{fall.Blunt: craft.BluntTime, fall.Layers: craft.LayerTime, fall.Bob: craft.BobTime}

// Finishing is what ends a head, each with its minutes by count and by what was chosen.
func Finishing(sol *plan.Solved) []FinishPart {
	loose, hooked, dipped, knots := 0, 0, 0, 0
	in := &sol.Input
	for i := range sol.Places {
		p := &sol.Places[i]
		switch {
		case p.Kept:
			continue
		case p.Ground == method.OnPlait:
			loose += p.Count
		default:
			hooked += p.Count
		}
		if in.Pieces[p.Piece].Form.Facts().Folded && p.Ground != method.OnEnd {
			knots += p.Count
		}
		if sol.Chosen[p.Way]["end"] == "water" {
			dipped += p.Count
		}
	}
	out := []FinishPart{{"Check the back, smooth and roll", craft.FinishTime - craft.FoamTime + craft.LooseFinish*float64(loose) + craft.HookedFinish*float64(hooked)}}
	add := func(name string, minutes float64) {
		if minutes > 0 {
			out = append(out, FinishPart{name, minutes})
		}
	}
	add("Fill thin spots", craft.FillTime*float64(in.Fill.Total()))
	if in.Trim != nil {
		add("Cut the ends", craft.TrimStart+trimTimes[in.Trim.Shape]*float64(loose+hooked))
	}
	if dipped > 0 {
		add("Ends in hot water", craft.DipStart+craft.DipTime*float64(dipped))
	}
	if in.Custom(plan.Knots) == plan.KnotsRough {
		add("Knots roughed up", craft.RoughKnot*float64(knots))
	}
	switch in.Custom(plan.Foam) {
	case "minutes":
		add("Foam, some minutes under a scarf", craft.FoamTime)
	case "night":
		add("Foam and a scarf for the night", craft.FoamOn)
	}
	if !in.Fragile() {
		add("Lay the edges", craft.EdgeTime)
	}
	return out
}

// finishTask is to look the whole head over, fill, trim and set.
func finishTask(sol *plan.Solved) pace.Task {
	minutes := 0.0
	for _, p := range Finishing(sol) {
		minutes += p.Minutes
	}
	return pace.Task{Kind: pace.Finish, Skill: string(pace.Finish), Minutes: minutes}
}

// BaseTasks are all that is done to the base before anything hangs on it.
func BaseTasks(sol *plan.Solved) (out []pace.Task) {
	for _, t := range cornrows(sol) {
		out = append(out, cornrowTask(sol, t))
	}
	for _, whole := range wholeBase {
		if t, has := whole.of(sol); has {
			out = append(out, t)
		}
	}
	return out
}

// cornrows are those to be plaited; none where only outer rows are done again.
func cornrows(sol *plan.Solved) (out []*parting.Cornrow) {
	if sol.Input.Redo == nil {
		for i := range sol.Layout.Cornrows {
			out = append(out, &sol.Layout.Cornrows[i])
		}
	}
	return out
}

// headTasks are all that is done at the head.
func headTasks(sol *plan.Solved) []pace.Task {
	out := append(make([]pace.Task, 0, 3*len(sol.Places)+8), settleTask(sol))
	out = append(out, BaseTasks(sol)...)
	for i := range sol.Places {
		if sol.Places[i].Kept {
			continue
		}
		if t, has := plaitTask(sol, i); has {
			out = append(out, t)
		}
		out = attachTasks(sol, out, i)
	}
	return append(out, finishTask(sol))
}

// Of is what the first of those who work takes for all of it alone.
func Of(sol *plan.Solved) pace.Hours { return pace.Estimate(headTasks(sol), sol.Input.Worker(0)) }

// Timeable is something of a plan that can be timed.
type Timeable struct {
	Skill  string `json:"skill" doc:"Id of a method, or plaits"`
	Name   string `json:"name"`
	Places int    `json:"places"`
	// Rate is the mean of practised hands on another's head, minutes a place.
	Rate float64 `json:"rateMin" doc:"Practised hands on another's head, minutes a place"`
}

// timeable are what can be timed on this head, that of most minutes first.
func timeable(sol *plan.Solved) []Timeable {
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
	for i := range sol.Places {
		p := &sol.Places[i]
		if p.Kept {
			continue
		}
		if t, has := plaitTask(sol, i); has {
			add(plan.PlaitingSkill, "Part and plait a section", t.Minutes)
		}
		m := sol.Methods[p.Way]
		add(string(m.ID), m.Name, sol.Works[i].Minutes(p.Count))
	}
	slices.SortStableFunc(out, func(a, b Timeable) int { return cmp.Compare(b.Rate, a.Rate) })
	for k := range out {
		out[k].Rate /= float64(out[k].Places)
	}
	return out
}

// Undo is what practised hands take to take a place down, and to undo its plait, minutes.
func Undo(sol *plan.Solved, i int) (off, base float64) {
	p := &sol.Places[i]
	if t, has := plaitTask(sol, i); has {
		base = craft.UndoShare * t.Minutes
	}
	return sol.Methods[p.Way].Off() * float64(p.Count), base
}

// settleTask is what comes before the first part: of a head that is worn, taking off what is done
// again too.
func settleTask(sol *plan.Solved) pace.Task {
	t := settle
	if sol.Input.Custom(plan.Product) == "none" {
		t.Minutes -= craft.ProductTime
	}
	if sol.Input.Redo != nil {
		for i := range sol.Places {
			if !sol.Places[i].Kept {
				off, base := Undo(sol, i)
				t.Minutes += off + base
			}
		}
	}
	return t
}
