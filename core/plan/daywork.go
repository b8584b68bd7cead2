package plan

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/sitting"
)

// step is a step of a sitting with what it is.
type step struct {
	sitting.Step
	kind pace.Kind
	name string
	row  int // of the working order; -1 for the whole head
	// at is its index in the steps of the day; places are those of a step of a row, and rate what
	// practised hands take for one of the whole head on another's, minutes.
	at     int
	places []int
	rate   float64
}

// day is the work of a plan in steps.
type day struct {
	*worked
	rows  []WorkRow
	crew  sitting.Crew
	hands []Hand
	want  Sittings
	steps []step
	// plait and attach are the minutes of every place for each who works.
	plait, attach [][]float64
}

// day puts the work in steps.
func (w *worked) day() *day {
	want := w.in.sittings()
	d := &day{worked: w, rows: w.workRows(), hands: w.in.hands(), want: want}
	d.crew.Breaks = sitting.Breaks{After: want.Breaks.After, Long: want.Breaks.Long, Arms: want.Breaks.Arms && w.in.OwnHead}
	for _, h := range d.hands {
		d.crew.People = append(d.crew.People, sitting.Person{PlaitsFirst: h.Does == PlaitsFirst || h.Does == DoesPlaits})
	}
	d.time()
	d.build()
	return d
}

// time works out the minutes of every place for each who works, in the order pieces go on.
func (d *day) time() {
	d.plait, d.attach = make([][]float64, len(d.hands)), make([][]float64, len(d.hands))
	for k := range d.hands {
		d.plait[k], d.attach[k] = d.timedFor(d.worker(k))
	}
}

// timedFor are the minutes of every place for a worker, to plait and to attach.
func (d *day) timedFor(w pace.Worker) (plait, attach []float64) {
	plait, attach = make([]float64, len(d.res.Places)), make([]float64, len(d.res.Places))
	run := w.Begin()
	for _, r := range d.rows {
		for _, i := range r.Places {
			if t, has := d.plaitTask(i); has {
				plait[i] = run.Range(t).Likely
			}
			for _, t := range d.attachTasks(nil, i) {
				attach[i] += run.Range(t).Likely
			}
		}
	}
	return plait, attach
}

// by is what a task of the whole head takes each who works.
func (d *day) by(t pace.Task) []float64 {
	out := make([]float64, len(d.hands))
	for k := range d.hands {
		out[k] = d.worker(k).Begin().Range(t).Likely
	}
	return out
}

// build lists the steps in working order: the base first; then, for one person, all plaits and
// after them all pieces, or row by row; for two always row by row, one behind the other.
func (d *day) build() {
	settle := d.add(pace.Settle.Name(), d.settleTask(), sitting.Step{Plaits: true})
	base := []int{}
	for _, t := range d.tracks() {
		base = append(base, d.add(fmt.Sprintf("Track %s", t.ID), trackTask(t), sitting.Step{Plaits: true, After: settle, Arms: t.Zone == parting.TracksBehind})...)
	}
	for _, of := range []func() (pace.Task, bool){d.tailTask, d.netTask} {
		if t, has := of(); has {
			name := "Tails put away"
			if t.Kind == pace.Nets {
				name = t.Kind.Name()
			}
			base = d.add(name, t, sitting.Step{Plaits: true, After: append(slices.Clone(settle), base...)})
		}
	}
	// A linked plait is laid into one of a later row: pieces wait until all are.
	linked := []int{}
	plaited := make([][]int, len(d.rows))
	plait := func(r int) {
		places := slices.DeleteFunc(slices.Clone(d.rows[r].Places), func(i int) bool { return d.plait[0][i] == 0 })
		if len(places) == 0 {
			return
		}
		plaited[r] = d.addRow(r, pace.Plaits, "Part and plait", places, d.plait, settle)
		if d.res.Places[places[0]].Ground == method.OnLink {
			linked = append(linked, plaited[r]...)
		}
	}
	attach := func(r int) {
		after := append(slices.Clone(settle), plaited[r]...)
		kind, verb := pace.Attach, "Attach"
		switch d.res.Places[d.rows[r].Places[0]].Ground {
		case method.OnPlait:
		case method.OnLink:
			after, kind, verb = append(after, linked...), pace.Hook, "Hook on"
		default:
			after, kind, verb = append(after, base...), pace.Hook, "Hook on"
		}
		d.addRow(r, kind, verb, d.rows[r].Places, d.attach, after)
	}
	byRow := d.in.order().ByRow || len(d.hands) > 1
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
	all := make([]int, len(d.steps))
	for i := range all {
		all[i] = i
	}
	d.add(pace.Finish.Name(), d.finishTask(), sitting.Step{After: all})
}

// eachRow goes through the rows twice; links tells those of linked plaits.
func (d *day) eachRow(passes ...func(r int, links bool)) {
	for _, pass := range passes {
		for r := range d.rows {
			pass(r, d.res.Places[d.rows[r].Places[0]].Ground == method.OnLink)
		}
	}
}

// add appends a step of the whole head and returns its index, as what others wait for.
func (d *day) add(name string, t pace.Task, as sitting.Step) []int {
	s := step{kind: t.Kind, name: name, row: -1, at: len(d.steps), rate: t.Minutes, Step: as}
	s.Row, s.By = sitting.NoRow, d.by(t)
	if s.kind == pace.Tracks || s.kind == pace.Nets {
		d.allow(&s)
	}
	d.steps = append(d.steps, s)
	return []int{len(d.steps) - 1}
}

// allow takes from a step those who do not do it.
func (d *day) allow(s *step) {
	for k, h := range d.hands {
		if s.Plaits && h.Does == DoesAttaches || !s.Plaits && h.Does == DoesPlaits {
			s.By[k] = 0
		}
	}
}

// partShare is the share of a sitting that a part of a row lasts that is longer than a sitting.
const partShare = 0.4

// addRow appends the steps of a row: one, or where that is longer than a sitting several.
func (d *day) addRow(r int, kind pace.Kind, verb string, places []int, minutes [][]float64, after []int) (out []int) {
	longest := 0.0
	for k := range d.hands {
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
		s := step{
			kind: kind, name: verb + ": " + d.rows[r].Name, row: r, at: len(d.steps), places: part,
			Step: sitting.Step{Row: r, Plaits: kind == pace.Plaits, By: make([]float64, len(d.hands)), After: after, Arms: d.rows[r].Group != GroupFront && d.rows[r].Group != GroupHairline && d.rows[r].Group != GroupPart},
		}
		for k := range d.hands {
			for _, i := range part {
				s.By[k] += minutes[k][i]
			}
		}
		s.Arms = s.Arms && s.Plaits
		d.allow(&s)
		d.steps = append(d.steps, s)
		out = append(out, len(d.steps)-1)
	}
	return out
}

// shortest is the limit of the shortest sitting, minutes.
func (d *day) shortest() float64 {
	limit := d.want.Longest
	for _, s := range d.want.Slots {
		if s.Longest > 0 {
			limit = min(limit, s.Longest)
		}
	}
	return limit
}

// limit is how long sitting k may last, minutes.
func (d *day) limit(k int) float64 {
	if k < len(d.want.Slots) && d.want.Slots[k].Longest > 0 {
		return d.want.Slots[k].Longest
	}
	return d.want.Longest
}

// plain are steps as the sittings see them.
func plain(steps []step) []sitting.Step {
	out := make([]sitting.Step, len(steps))
	for i := range steps {
		out[i] = steps[i].Step
	}
	return out
}

// alone are the steps with the first person doing all of it.
func (d *day) alone() []sitting.Step {
	lone := *d
	lone.hands = []Hand{d.hands[0]}
	lone.hands[0].Does = DoesBoth
	lone.steps = nil
	lone.plait, lone.attach = d.plait[:1], d.attach[:1]
	lone.build()
	return plain(lone.steps)
}

// sittings cuts the work up. A helper who plaits the evening before has sittings of their own.
func (d *day) sittings() (out []DaySitting) {
	helper := slices.IndexFunc(d.hands, func(h Hand) bool { return h.Evening })
	rest := d.steps
	if helper >= 0 {
		evening := only(d.steps, func(s *step) bool { return s.Plaits })
		for i := range evening {
			evening[i].By = evening[i].By[helper : helper+1]
		}
		breaks := d.crew.Breaks
		breaks.Arms = false // it is not their own head
		crew := sitting.Crew{People: make([]sitting.Person, 1), Breaks: breaks}
		for _, c := range crew.Cut(plain(evening), func(int) float64 { return longEvening }) {
			s := d.sitting(c, evening, func(int) int { return helper })
			s.Evening, s.Home, s.At, s.Limit = true, true, eveningAt, longEvening
			out = append(out, s)
		}
		rest = only(d.steps, func(s *step) bool { return !s.Plaits })
	}
	for k, c := range d.crew.Cut(plain(rest), d.limit) {
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
func only(steps []step, keep func(*step) bool) (out []step) {
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
func (d *day) sitting(c sitting.Sitting, steps []step, person func(int) int) DaySitting {
	s := DaySitting{Minutes: c.Minutes, Spans: make([]DaySpan, len(c.Spans)), Waits: make([]float64, len(d.hands))}
	last := make([]float64, len(d.hands))
	for i, span := range c.Spans {
		of := &steps[span.Step]
		span.Person = person(span.Person)
		s.Spans[i] = DaySpan{Span: span, Kind: of.kind, Name: of.name, Row: of.row}
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
func (d *day) does(steps []step) string {
	var parts []string
	rows := func(plaits bool) (first, last int) {
		first, last = -1, -1
		for i := range steps {
			if s := &steps[i]; s.row >= 0 && s.Plaits == plaits {
				if first < 0 {
					first = s.row
				}
				last = s.row
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
		return slices.ContainsFunc(steps, func(s step) bool { return s.kind == kind })
	}
	if has(pace.Tracks) {
		parts = append(parts, "tracks")
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
		parts = []string{"set out"}
	}
	text := list(parts)
	return strings.ToUpper(text[:1]) + text[1:]
}
