package plan

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/sitting"
)

// DayPlan is how a plan is done: in which order, by whom, how long, in which sittings.
type DayPlan struct {
	// Hours are what the first of those who work takes for all of it alone, breaks apart.
	Hours pace.Hours `json:"hours"`
	// Figures are the times people name, each with what is in it.
	Figures []Figure `json:"figures"`
	// Practised are the minutes of practised hands on another's head for the same.
	Practised float64  `json:"practisedMin"`
	Hands     []Hand   `json:"hands"`
	Rows      []DayRow `json:"rows"`
	// Sittings are in order, those of a helper the evening before among them.
	Sittings []DaySitting `json:"sittings"`
	// Alone is how long the first would sit there alone, breaks in it, where two work; 0 for
	// one.
	Alone    float64    `json:"aloneMin" doc:"At the head with one pair of hands, where two work; else 0"`
	Timeable []Timeable `json:"timeable"`
	// Paces are what timed pieces say.
	Paces []Pace `json:"paces"`
	// Due are what comes before the first sitting, the earliest first.
	Due []Due `json:"due"`
	// Says are what there is to know about it, in words.
	Says []string `json:"says"`
	// Usual are the sittings of a plan that says nothing.
	Usual Sittings `json:"usual"`
}

// Figure is a time that people name.
type Figure struct {
	Key     string     `json:"key" enum:"attach,base,head,home"`
	Name    string     `json:"name"`
	Holds   string     `json:"holds" doc:"What is in it"`
	Minutes pace.Range `json:"minutes"`
}

// DayRow is a row of the working order with its minutes, of the first of those who work.
type DayRow struct {
	WorkRow
	Number int     `json:"number"`
	Pieces int     `json:"pieces"`
	Plait  float64 `json:"plaitMin"`
	Attach float64 `json:"attachMin"`
}

// DaySitting is one sitting.
type DaySitting struct {
	// On and At are its date and time; On is empty while that is open.
	On string `json:"on"`
	At string `json:"at"`
	// Minutes is its length, breaks in it; Limit what it may last.
	Minutes float64 `json:"minutes"`
	Limit   float64 `json:"limitMin"`
	// Evening is true for a helper's, before the first.
	Evening bool   `json:"evening,omitempty"`
	Home    bool   `json:"home,omitempty"`
	Does    string `json:"does" doc:"What is done in it, in words"`
	Spans   []Span `json:"spans"`
	// Waits are minutes of each who works with nothing in hand.
	Waits []float64 `json:"waitsMin"`
}

// Span is what one does for a while.
type Span struct {
	sitting.Span
	Kind pace.Kind `json:"kind" enum:"settle,tracks,net,plaits,hook,attach,conceal,finish"`
	Name string    `json:"name"`
	Row  int       `json:"row" doc:"Index of the row; -1 for the whole head"`
}

// Pace is what timed pieces say of a skill.
type Pace struct {
	Skill string `json:"skill"`
	Name  string `json:"name"`
	By    string `json:"by"`
	// Guess and Now are minutes a place before and after, warm.
	Guess  float64 `json:"guessMin"`
	Now    float64 `json:"nowMin"`
	Spread float64 `json:"spread" doc:"How far the true one may lie from it, a share"`
	Pieces int     `json:"pieces"`
}

// Due is something to be done before the first sitting.
type Due struct {
	Key   string `json:"key"`
	Title string `json:"title"`
	// Before is how many days before; On the date, empty while that is open.
	Before  int     `json:"daysBefore"`
	On      string  `json:"on"`
	At      string  `json:"at,omitempty"`
	Minutes float64 `json:"minutes"`
	Wait    float64 `json:"waitHours"`
}

// Times of getting ready at home. Common practice, no source.
const (
	washTime = 75.0 // to wash, dry and stretch the own hair
	curlTime = 40.0 // to wash and dry it, the curl left
	eatTime  = 30.0
	eatAhead = 60.0 // minutes before the first sitting
	// eveningAt is when a helper begins the evening before.
	eveningAt = "18:30"
	// longEvening is what a helper does at most in one evening, minutes.
	longEvening = 4 * 60.0
	// longDay is what a day at the head is at most before it is said, minutes.
	longDay = 8 * 60.0
)

// step is a step of a sitting with what it is.
type step struct {
	sitting.Step
	kind   pace.Kind
	name   string
	row    int // of the working order; -1 for the whole head
	places []int
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

// DayOf says how a plan is done. Its errors are those of [Compute].
func DayOf(ctx context.Context, in Input) (DayPlan, error) {
	w, err := in.resolved(ctx, parting.Lay)
	if err != nil {
		return DayPlan{}, err
	}
	w.workAll()
	need, err := w.need()
	if err != nil {
		return DayPlan{}, err
	}
	d := w.day()
	out := DayPlan{
		Hours: w.hours(), Hands: d.hands, Timeable: w.timeable(), Usual: in.UsualSittings(), Sittings: d.sittings(),
		Practised: pace.Estimate(w.headTasks(), pace.Worker{Hand: pace.Practised, Own: 1}).Total.Likely,
	}
	out.Figures = d.figures(out.Hours, w.tasks(need))
	out.Rows = d.dayRows()
	out.Paces = d.paces(out.Timeable)
	if len(d.hands) > 1 {
		alone := d.alone()
		out.Alone = sitting.Length(sitting.Crew{People: make([]sitting.Person, 1), Breaks: d.crew.Breaks}.Run(alone, 0, len(alone)))
	}
	out.date(in)
	out.Due = d.due(in, w.tasks(need), out.Sittings)
	out.Says = d.says(&out)
	return out, ctx.Err()
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
		d.plait[k], d.attach[k] = make([]float64, len(d.res.Places)), make([]float64, len(d.res.Places))
		run := d.worker(k).Begin()
		for _, r := range d.rows {
			for _, i := range r.Places {
				if t, has := d.plaitTask(i); has {
					d.plait[k][i] = run.Range(t).Likely
				}
				for _, t := range d.attachTasks(nil, i) {
					d.attach[k][i] += run.Range(t).Likely
				}
			}
		}
	}
}

// by is what tasks of the whole head take each who works.
func (d *day) by(tasks ...pace.Task) []float64 {
	out := make([]float64, len(d.hands))
	for k := range d.hands {
		run := d.worker(k).Begin()
		for _, t := range tasks {
			out[k] += run.Range(t).Likely
		}
	}
	return out
}

// build lists the steps in working order: the base first; then, for one person, all plaits and
// after them all pieces, or row by row; for two always row by row, one behind the other.
func (d *day) build() {
	settle := d.add(step{kind: pace.Settle, name: pace.Settle.Name(), row: -1, Step: sitting.Step{Plaits: true, By: d.by(settleTask)}})
	base := []int{}
	for i := range d.layout.Tracks {
		t := &d.layout.Tracks[i]
		base = append(base, d.add(step{
			kind: pace.Tracks, name: fmt.Sprintf("Track %s", t.ID), row: -1,
			Step: sitting.Step{Plaits: true, By: d.by(trackTask(t)), After: settle, Arms: t.Zone == parting.TracksBehind},
		})...)
	}
	for _, of := range []func() (pace.Task, bool){d.tailTask, d.netTask} {
		if t, has := of(); has {
			name := "Tails put away"
			if t.Kind == pace.Nets {
				name = t.Kind.Name()
			}
			base = d.add(step{kind: t.Kind, name: name, row: -1, Step: sitting.Step{Plaits: true, By: d.by(t), After: append(slices.Clone(settle), base...)}})
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
	d.add(step{kind: pace.Finish, name: pace.Finish.Name(), row: -1, Step: sitting.Step{By: d.by(d.finishTask()), After: all}})
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
func (d *day) add(s step) []int {
	s.Row = sitting.NoRow
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
			kind: kind, name: verb + ": " + d.rows[r].Name, row: r, places: part,
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
	s := DaySitting{Minutes: c.Minutes, Spans: make([]Span, len(c.Spans)), Waits: make([]float64, len(d.hands))}
	last := make([]float64, len(d.hands))
	for i, span := range c.Spans {
		of := &steps[span.Step]
		span.Person = person(span.Person)
		s.Spans[i] = Span{Span: span, Kind: of.kind, Name: of.name, Row: of.row}
		if last[span.Person] < span.Start {
			s.Waits[span.Person] += span.Start - last[span.Person]
		}
		last[span.Person] = span.End
	}
	s.Does = d.does(steps[c.From:c.To])
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
	text := list(parts)
	if text == "" {
		text = "set out"
	}
	return strings.ToUpper(text[:1]) + text[1:]
}

// figures are the times people name.
func (d *day) figures(h pace.Hours, home []Task) []Figure {
	names := func(kinds ...pace.Kind) string {
		var out []string
		for _, s := range h.Stages {
			if slices.Contains(kinds, s.Kind) {
				out = append(out, strings.ToLower(s.Name))
			}
		}
		return list(out)
	}
	with := append(slices.Clone(pace.Basing), pace.Attaching...)
	out := []Figure{
		{"attach", "Attaching only", names(pace.Attaching...), h.Of(pace.Attaching...)},
		{"base", "With plaits and base", names(with...), h.Of(with...)},
		{"head", "All of it at the head", "from the first comb to the last look: " + names(append(with, pace.Settle, pace.Finish)...), h.Total},
	}
	minutes, holds := d.wash(), []string{"wash and dry the own hair"}
	for _, t := range home {
		minutes += t.Minutes
		holds = append(holds, strings.ToLower(t.Title[:1])+t.Title[1:])
	}
	const spread = 0.3 // nobody times it
	return append(out, Figure{"home", "At home beforehand, apart", list(holds), pace.Range{Low: minutes * (1 - spread), Likely: minutes, High: minutes * (1 + spread)}})
}

// wash is what washing and drying the own hair takes, minutes.
func (d *day) wash() float64 {
	if d.in.Custom("stretch") == "curl" {
		return curlTime
	}
	return washTime
}

func (d *day) dayRows() []DayRow {
	out := make([]DayRow, len(d.rows))
	for r, row := range d.rows {
		out[r] = DayRow{WorkRow: row, Number: r + 1}
		for _, i := range row.Places {
			out[r].Pieces += d.res.Places[i].Count
			out[r].Plait += d.plait[0][i]
			out[r].Attach += d.attach[0][i]
		}
	}
	return out
}

// paces are what timed pieces say, for those skills this head asks for.
func (d *day) paces(timeable []Timeable) []Pace {
	out := []Pace{}
	if d.in.Day == nil {
		return out
	}
	for k, h := range d.hands {
		w := d.worker(k)
		for _, t := range timeable {
			now, has := w.Timed[t.Skill]
			if !has {
				continue
			}
			p := Pace{Skill: t.Skill, Name: t.Name, By: h.Key, Guess: t.Rate * w.Guess(), Now: t.Rate * now.Factor, Spread: now.Spread}
			for _, trial := range d.in.Day.Trials {
				if trial.Skill == t.Skill && trial.By == h.Key {
					p.Pieces += len(trial.Minutes)
				}
			}
			out = append(out, p)
		}
	}
	return out
}

// date gives the sittings their dates: those of a helper on the evenings before the first.
func (p *DayPlan) date(in Input) {
	day, err := time.Parse(time.DateOnly, in.InstallDay())
	if err != nil {
		return
	}
	want := in.sittings()
	evenings := 0
	for _, s := range p.Sittings {
		if s.Evening {
			evenings++
		}
	}
	for i := range p.Sittings {
		s, k := &p.Sittings[i], i-evenings
		switch {
		case k < 0:
			s.On = day.AddDate(0, 0, k).Format(time.DateOnly)
			continue
		case k == 0:
		case k < len(want.Slots) && want.Slots[k].After > 0:
			day = day.AddDate(0, 0, want.Slots[k].After)
		default:
			day = day.AddDate(0, 0, want.Every)
		}
		s.On = day.Format(time.DateOnly)
	}
}

// due is what comes before the first sitting, the earliest first.
func (d *day) due(in Input, home []Task, sittings []DaySitting) []Due {
	before := 0 // the first evening, days before the install
	for _, s := range sittings {
		if s.Evening {
			before++
		}
	}
	out := []Due{}
	for _, t := range home {
		out = append(out, Due{Key: t.Key, Title: t.Title, Before: max(t.Before, before), Minutes: t.Minutes, Wait: t.Wait})
	}
	first := before // hair is at home the day the first of it is prepared
	for _, t := range out {
		first = max(first, t.Before)
	}
	title := "Wash, dry and stretch the own hair"
	if d.in.Custom("stretch") == "curl" {
		title = "Wash and dry the own hair, the curl left"
	}
	out = append(out, Due{Key: "hair", Title: "Hair at home, counted", Before: first}, Due{Key: "wash", Title: title, Before: before + 1, Minutes: d.wash()})
	if len(sittings) > 0 {
		out = append(out, Due{Key: "eat", Title: "Eat and drink before you sit down", Before: before, At: earlier(sittings[0].At, eatAhead), Minutes: eatTime})
	}
	slices.SortStableFunc(out, func(a, b Due) int { return b.Before - a.Before })
	if day, err := time.Parse(time.DateOnly, in.InstallDay()); err == nil {
		for i := range out {
			out[i].On = day.AddDate(0, 0, -out[i].Before).Format(time.DateOnly)
		}
	}
	return out
}

// earlier is a time of the clock so many minutes before another of the same day.
func earlier(at string, minutes float64) string {
	clock, err := time.Parse("15:04", at)
	if err != nil {
		return ""
	}
	if before := clock.Add(-time.Duration(minutes) * time.Minute); before.Day() == clock.Day() {
		return before.Format("15:04")
	}
	return "00:00"
}

// says is what there is to know about a day, the truth told kindly.
func (d *day) says(p *DayPlan) []string {
	out := []string{}
	h := d.hands[0]
	if likely := p.Hours.Total.Likely; likely > 1.1*p.Practised {
		why := []string{}
		if d.in.OwnHead {
			why = append(why, "it is your own head, and the back is worked blind")
		}
		if h.Hand == pace.Beginner || h.Hand == pace.Used {
			why = append(why, "hands get quicker with every head")
		}
		if len(h.New) > 0 {
			why = append(why, "the first pieces of a new method are slow; after about ten there is a rhythm")
		}
		if len(why) > 0 {
			out = append(out, fmt.Sprintf("Practised hands take about %s on another's head; allow %s. That is usual: %s.", spellMinutes(p.Practised), spellMinutes(likely), list(why)))
		}
	}
	for i, s := range p.Sittings {
		name := fmt.Sprintf("Sitting %d", i+1)
		if len(p.Sittings) == 1 {
			name = "The day"
		}
		if s.Minutes > s.Limit {
			out = append(out, fmt.Sprintf("%s lasts %s, longer than the %s wished: one row is longer by itself. Make sections larger there, or sit longer.", name, spellMinutes(s.Minutes), spellMinutes(s.Limit)))
		}
		if s.Minutes > longDay {
			out = append(out, fmt.Sprintf("%s lasts %s: more than eight hours is a lot for a head and for hands. Two sittings are kinder, and quicker.", name, spellMinutes(s.Minutes)))
		}
		if late := minutesOf(s.At) + s.Minutes; late > 23*60 {
			out = append(out, fmt.Sprintf("%s would end about %02d:%02d. Begin earlier, or sit shorter and once more.", name, int(late/60)%24, int(late)%60))
		}
		if in := d.in; in.Child && s.Minutes > 150 {
			out = append(out, fmt.Sprintf("%s lasts %s: a child sits still for about two hours at the most, with breaks.", name, spellMinutes(s.Minutes)))
		}
	}
	if w := d.in.Day; w != nil && w.Within > 0 && p.Sum() > w.Within {
		out = append(out, fmt.Sprintf("It will not fit the %s wished: it takes about %s.", spellMinutes(w.Within), spellMinutes(p.Sum())))
	}
	return out
}

// Sum is how long all sittings last, breaks in them, minutes.
func (p DayPlan) Sum() (minutes float64) {
	for _, s := range p.Sittings {
		if !s.Evening {
			minutes += s.Minutes
		}
	}
	return minutes
}

func minutesOf(at string) float64 {
	clock, err := time.Parse("15:04", at)
	if err != nil {
		return 0
	}
	return float64(60*clock.Hour() + clock.Minute())
}

// spellMinutes says a time in words, in steps of five minutes.
func spellMinutes(minutes float64) string {
	m := 5 * int(math.Round(minutes/5))
	switch {
	case m < 60:
		return fmt.Sprintf("%d min", m)
	case m%60 == 0:
		return fmt.Sprintf("%d h", m/60)
	}
	return fmt.Sprintf("%d h %02d min", m/60, m%60)
}
