package hours

import (
	"fmt"
	"math"
	"slices"

	"kladotex/core/craft"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/sitting"
	"kladotex/core/words"
	"kladotex/core/workorder"
)

// Step is a step of a sitting with what it is.
type Step struct {
	sitting.Step
	Kind pace.Kind
	Name string
	// Places are those of a step of a row, Rate what practised hands take for one of the whole
	// head on another's, minutes.
	Places []int
	Rate   float64
	// Design is true for the decorative cornrows in front, which somebody may do alone.
	Design bool

	at int // its index in the steps of the day
}

// Work is the work of a plan in steps, in working order.
type Work struct {
	*plan.Solved
	Rows  []workorder.Row
	Crew  sitting.Crew
	Hands []plan.Hand
	Steps []Step
	// Plait and Attach are the minutes of every place for each who works.
	Plait, Attach [][]float64

	want plan.Sittings
}

// WorkOf puts the work of a plan in steps.
func WorkOf(sol *plan.Solved) *Work {
	want := sol.Input.Sittings()
	d := &Work{Solved: sol, Rows: workorder.Rows(sol), Hands: sol.Input.Hands(), want: want}
	d.Crew.Breaks = sitting.Breaks{After: want.Breaks.After, Long: want.Breaks.Long, Arms: want.Breaks.Arms && sol.Input.OwnHead}
	for _, h := range d.Hands {
		d.Crew.People = append(d.Crew.People, sitting.Person{PlaitsFirst: h.Does == plan.PlaitsFirst || h.Does == plan.DoesPlaits})
	}
	d.time()
	d.build()
	return d
}

// time works out the minutes of every place for each who works, in the order pieces go on.
func (d *Work) time() {
	d.Plait, d.Attach = make([][]float64, len(d.Hands)), make([][]float64, len(d.Hands))
	for k := range d.Hands {
		d.Plait[k], d.Attach[k] = d.Timed(d.Input.Worker(k))
	}
}

// Timed are the minutes of every place for a worker, to plait and to attach.
func (d *Work) Timed(w pace.Worker) (plait, attach []float64) {
	plait, attach = make([]float64, len(d.Places)), make([]float64, len(d.Places))
	run := w.Begin()
	for _, r := range d.Rows {
		for _, i := range r.Places {
			if t, has := plaitTask(d.Solved, i); has {
				plait[i] = run.Range(t).Likely
			}
			for _, t := range attachTasks(d.Solved, nil, i) {
				attach[i] += run.Range(t).Likely
			}
		}
	}
	return plait, attach
}

// by is what a task of the whole head takes each who works.
func (d *Work) by(t pace.Task) []float64 {
	out := make([]float64, len(d.Hands))
	for k := range d.Hands {
		out[k] = d.Input.Worker(k).Begin().Range(t).Likely
	}
	return out
}

// build lists the steps in working order: the base first; then, for one person, all plaits and
// after them all pieces, or row by row; for two always row by row, one behind the other.
func (d *Work) build() {
	settle := d.add(pace.Settle.Name(), settleTask(d.Solved), sitting.Step{Plaits: true})
	base := []int{}
	for _, t := range cornrows(d.Solved) {
		as := sitting.Step{Plaits: true, After: settle, Arms: t.Zone == parting.CornrowsBehind}
		base = append(base, d.addOf(t.OfDesign(), parting.CornrowName(t.Zone.Name(), t.ID), cornrowTask(d.Solved, t), as)...)
	}
	for _, whole := range wholeBase {
		if t, has := whole.of(d.Solved); has {
			base = d.addLong(whole.name, t, append(slices.Clone(settle), base...))
		}
	}
	// A linked plait is laid into one of a later row: pieces wait until all are.
	linked := []int{}
	plaited := make([][]int, len(d.Rows))
	plait := func(r int) {
		places := slices.DeleteFunc(slices.Clone(d.Rows[r].Places), func(i int) bool { return d.Plait[0][i] == 0 })
		if len(places) == 0 {
			return
		}
		plaited[r] = d.addRow(r, pace.Plaits, "Part and plait", places, d.Plait, settle)
		if d.Places[places[0]].Ground == method.OnLink {
			linked = append(linked, plaited[r]...)
		}
	}
	attach := func(r int) {
		after := append(slices.Clone(settle), plaited[r]...)
		kind, verb := pace.Attach, "Attach"
		switch d.Places[d.Rows[r].Places[0]].Ground {
		case method.OnPlait:
		case method.OnLink:
			after, kind, verb = append(after, linked...), pace.Hook, "Hook on"
		default:
			after, kind, verb = append(after, base...), pace.Hook, "Hook on"
		}
		d.addRow(r, kind, verb, d.Rows[r].Places, d.Attach, after)
	}
	byRow := d.Input.WorkOrder().ByRow || len(d.Hands) > 1
	d.eachRow(func(r int, links bool) {
		if links || !byRow {
			plait(r)
		}
	}, func(r int, links bool) {
		if !links && byRow {
			plait(r)
		}
		attach(r)
	})
	all := make([]int, len(d.Steps))
	for i := range all {
		all[i] = i
	}
	d.add(pace.Finish.Name(), finishTask(d.Solved), sitting.Step{After: all})
}

// eachRow goes through the rows twice; links tells those of linked plaits.
func (d *Work) eachRow(passes ...func(r int, links bool)) {
	for _, pass := range passes {
		for r := range d.Rows {
			pass(r, d.Places[d.Rows[r].Places[0]].Ground == method.OnLink)
		}
	}
}

// add appends a step of the whole head and returns its index, as what others wait for.
func (d *Work) add(name string, t pace.Task, as sitting.Step) []int {
	return d.addOf(false, name, t, as)
}

// addOf is [Work.add] of a step that is one of a front design, or is not.
func (d *Work) addOf(design bool, name string, t pace.Task, as sitting.Step) []int {
	s := Step{Kind: t.Kind, Name: name, at: len(d.Steps), Rate: t.Minutes, Step: as, Design: design}
	s.Row, s.By = sitting.NoRow, d.by(t)
	if s.Kind == pace.Cornrows || s.Kind == pace.Nets || s.Kind == pace.Plaits {
		d.allow(&s)
	}
	d.Steps = append(d.Steps, s)
	return []int{len(d.Steps) - 1}
}

// addLong appends steps of the whole head that may last longer than a sitting, in parts where
// they do, each after what came before.
func (d *Work) addLong(name string, t pace.Task, after []int) []int {
	parts := max(1, int(math.Ceil(slices.Max(d.by(t))/(partShare*d.shortest()))))
	t.Minutes /= float64(parts)
	for k := range parts {
		as := name
		if parts > 1 {
			as = fmt.Sprintf("%s, part %d of %d", name, k+1, parts)
		}
		after = d.add(as, t, sitting.Step{Plaits: true, After: after})
	}
	return after
}

// allow takes from a step those who do not do it.
func (d *Work) allow(s *Step) {
	designer := slices.ContainsFunc(d.Hands, func(h plan.Hand) bool { return h.Does == plan.DoesDesign })
	for k, h := range d.Hands {
		if designer && s.Design != (h.Does == plan.DoesDesign) {
			s.By[k] = 0
			continue
		}
		if s.Plaits && h.Does == plan.DoesAttaches || !s.Plaits && h.Does == plan.DoesPlaits {
			s.By[k] = 0
		}
	}
}

// partShare is the share of a sitting that a part of a row lasts that is longer than a sitting.
const partShare = 0.4

// addRow appends the steps of a row: one, or where that is longer than a sitting several.
func (d *Work) addRow(r int, kind pace.Kind, verb string, places []int, minutes [][]float64, after []int) (out []int) {
	longest := 0.0
	for k := range d.Hands {
		sum := 0.0
		for _, i := range places {
			sum += minutes[k][i]
		}
		longest = max(longest, sum)
	}
	parts := 1
	if shortest := d.shortest(); longest > shortest/2 {
		parts = min(len(places), int(math.Ceil(longest/(partShare*shortest))))
	}
	for n := range parts {
		part := places[n*len(places)/parts : (n+1)*len(places)/parts]
		s := Step{
			Kind: kind, Name: verb + ": " + d.Rows[r].Name, at: len(d.Steps), Places: part,
			Step: sitting.Step{Row: r, Plaits: kind == pace.Plaits, By: make([]float64, len(d.Hands)), After: after, Arms: d.Rows[r].Group != workorder.Front && d.Rows[r].Group != workorder.Hairline && d.Rows[r].Group != workorder.Part},
		}
		for k := range d.Hands {
			for _, i := range part {
				s.By[k] += minutes[k][i]
			}
		}
		s.Arms = s.Arms && s.Plaits
		s.Design = !slices.ContainsFunc(part, func(i int) bool { return d.Places[i].Ground != method.OnEnd })
		d.allow(&s)
		d.Steps = append(d.Steps, s)
		out = append(out, len(d.Steps)-1)
	}
	return out
}

// shortest is the limit of the shortest sitting, minutes.
func (d *Work) shortest() float64 {
	limit := d.want.Longest
	for _, s := range d.want.Slots {
		if s.Longest > 0 {
			limit = min(limit, s.Longest)
		}
	}
	return limit
}

// limit is how long sitting k may last, minutes.
func (d *Work) limit(k int) float64 {
	if k < len(d.want.Slots) && d.want.Slots[k].Longest > 0 {
		return d.want.Slots[k].Longest
	}
	return d.want.Longest
}

// plain are steps as the sittings see them.
func plain(steps []Step) []sitting.Step {
	out := make([]sitting.Step, len(steps))
	for i := range steps {
		out[i] = steps[i].Step
	}
	return out
}

// alone are the steps with the first person doing all of it.
func (d *Work) alone() []sitting.Step {
	lone := *d
	lone.Hands = []plan.Hand{d.Hands[0]}
	lone.Hands[0].Does = plan.DoesBoth
	lone.Steps = nil
	lone.Plait, lone.Attach = d.Plait[:1], d.Attach[:1]
	lone.build()
	return plain(lone.Steps)
}

// eveningAt is when a helper begins the evening before.
const eveningAt = "18:30"

// sittings cuts the work up. A helper who plaits the evening before has sittings of their own.
func (d *Work) sittings() (out []DaySitting) {
	helper := slices.IndexFunc(d.Hands, func(h plan.Hand) bool { return h.Evening })
	rest := d.Steps
	if helper >= 0 {
		evening := only(d.Steps, func(s *Step) bool { return s.Plaits })
		for i := range evening {
			evening[i].By = evening[i].By[helper : helper+1]
		}
		breaks := d.Crew.Breaks
		breaks.Arms = false // it is not their own head
		crew := sitting.Crew{People: make([]sitting.Person, 1), Breaks: breaks}
		for _, c := range crew.Cut(plain(evening), func(int) float64 { return craft.LongEvening }) {
			s := d.sitting(c, evening, func(int) int { return helper })
			s.Evening, s.Home, s.At, s.Limit = true, true, eveningAt, craft.LongEvening
			out = append(out, s)
		}
		rest = only(d.Steps, func(s *Step) bool { return !s.Plaits })
	}
	for k, c := range d.Crew.Cut(plain(rest), d.limit) {
		s := d.sitting(c, rest, func(who int) int { return who })
		s.At, s.Limit, s.Home = d.want.At, d.limit(k), d.want.Home
		if k < len(d.want.Slots) && d.want.Slots[k].At != "" {
			s.At = d.want.Slots[k].At
		}
		out = append(out, s)
	}
	return out
}

// only are some of the steps; what others wait for that is not among them is done.
func only(steps []Step, keep func(*Step) bool) (out []Step) {
	index := map[int]int{}
	for i := range steps {
		if !keep(&steps[i]) {
			continue
		}
		s := steps[i]
		s.After = nil
		for _, a := range steps[i].After {
			if k, has := index[a]; has {
				s.After = append(s.After, k)
			}
		}
		index[i] = len(out)
		out = append(out, s)
	}
	return out
}

// sitting is one that was cut, in words.
func (d *Work) sitting(c sitting.Sitting, steps []Step, person func(int) int) DaySitting {
	s := DaySitting{Minutes: c.Minutes, Spans: make([]DaySpan, len(c.Spans)), Waits: make([]float64, len(d.Hands))}
	last := make([]float64, len(d.Hands))
	for i, span := range c.Spans {
		of := &steps[span.Step]
		span.Person = person(span.Person)
		s.Spans[i] = DaySpan{Span: span, Kind: of.Kind, Name: of.Name, Row: of.Row}
		if last[span.Person] < span.Start {
			s.Waits[span.Person] += span.Start - last[span.Person]
		}
		last[span.Person] = span.End
	}
	s.Does = d.does(steps[c.From:c.To])
	s.from = c.From
	for _, of := range steps[c.From:c.To] {
		s.steps = append(s.steps, of.at)
	}
	return s
}

// does says in words what is done in a sitting.
func (d *Work) does(steps []Step) string {
	var parts []string
	rows := func(plaits bool) (first, last int) {
		first, last = -1, -1
		for i := range steps {
			if s := &steps[i]; s.Row >= 0 && s.Plaits == plaits {
				if first < 0 {
					first = s.Row
				}
				last = s.Row
			}
		}
		return first, last
	}
	say := func(verb string, first, last int) {
		switch {
		case first < 0:
		case first == last:
			parts = append(parts, fmt.Sprintf("%s row %d", verb, first+1))
		default:
			parts = append(parts, fmt.Sprintf("%s rows %d to %d", verb, first+1, last+1))
		}
	}
	has := func(kind pace.Kind) bool {
		return slices.ContainsFunc(steps, func(s Step) bool { return s.Kind == kind })
	}
	if has(pace.Cornrows) {
		parts = append(parts, "cornrows")
	}
	if has(pace.Nets) {
		parts = append(parts, "the net")
	}
	first, last := rows(true)
	say("plait", first, last)
	first, last = rows(false)
	say("attach", first, last)
	if has(pace.Finish) {
		parts = append(parts, "check and finish")
	}
	if len(parts) == 0 {
		parts = []string{"prepare the head"}
	}
	text := words.List(parts)
	return words.Sentence(text)
}
