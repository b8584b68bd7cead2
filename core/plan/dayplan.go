package plan

import (
	"context"
	"slices"
	"strings"

	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/sitting"
)

// DayPlan is how a plan is done: in which order, by whom, how long, in which sittings.
type DayPlan struct {
	// Hours are what the first of those who work takes for all of it alone, breaks apart.
	Hours pace.Hours `json:"hours"`
	// Figures are the times people name, each with what is in it.
	Figures []DayFigure `json:"figures"`
	// Practised are the minutes of practised hands on another's head for the same.
	Practised float64  `json:"practisedMin"`
	Hands     []Hand   `json:"hands"`
	Rows      []DayRow `json:"rows"`
	// Sittings are in order, those of a helper the evening before among them.
	Sittings []DaySitting `json:"sittings"`
	// Alone is how long the first would sit there alone, in the sittings that would take, breaks in
	// them, where two work; 0 for one.
	Alone float64 `json:"aloneMin" doc:"At the head with one pair of hands, in the sittings that would take, where two work; else 0"`
	// Labour is the work of all who work, breaks apart: what is paid for.
	Labour   float64    `json:"labourMin" doc:"Work of all who work, breaks apart, minutes"`
	Timeable []Timeable `json:"timeable"`
	// Paces are what timed pieces say.
	Paces []TimedPace `json:"paces"`
	// Due are what comes before the first sitting, the earliest first.
	Due []DayDue `json:"due"`
	// Says are what there is to know about it, in words.
	Says []string `json:"says"`
	// Usual are the sittings of a plan that says nothing.
	Usual Sittings `json:"usual"`
}

// DayFigure is a time that people name.
type DayFigure struct {
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
	Evening bool      `json:"evening,omitempty"`
	Home    bool      `json:"home,omitempty"`
	Does    string    `json:"does" doc:"What is done in it, in words"`
	Spans   []DaySpan `json:"spans"`
	// Waits are minutes of each who works with nothing in hand.
	Waits []float64 `json:"waitsMin"`

	steps []int // of the day, those of the list it was cut from begin at from
	from  int
}

// Has tells whether one of those who work has anything to do in it.
func (s DaySitting) Has(person int) bool {
	return slices.ContainsFunc(s.Spans, func(x DaySpan) bool { return x.Person == person })
}

// DaySpan is what one does for a while.
type DaySpan struct {
	sitting.Span
	Kind pace.Kind `json:"kind" enum:"settle,tracks,net,plaits,hook,attach,conceal,finish"`
	Name string    `json:"name"`
	Row  int       `json:"row" doc:"Index of the row; -1 for the whole head"`
}

// TimedPace is what timed pieces say of a skill.
type TimedPace struct {
	Skill string `json:"skill"`
	Name  string `json:"name"`
	By    string `json:"by"`
	// Guess and Now are minutes a place before and after, warm.
	Guess  float64 `json:"guessMin"`
	Now    float64 `json:"nowMin"`
	Spread float64 `json:"spread" doc:"How far the true one may lie from it, a share"`
	Pieces int     `json:"pieces"`
}

// DayDue is something to be done before the first sitting.
type DayDue struct {
	Key   string `json:"key"`
	Title string `json:"title"`
	// Before is how many days before; On the date, empty while that is open.
	Before  int     `json:"daysBefore"`
	On      string  `json:"on"`
	At      string  `json:"at,omitempty"`
	Minutes float64 `json:"minutes"`
	Wait    float64 `json:"waitHours"`
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
	return w.day().plan(need), ctx.Err()
}

// plan is the day in words and numbers.
func (d *day) plan(need Need) DayPlan {
	w := d.worked
	out := DayPlan{
		Hours: w.hours(), Hands: d.hands, Timeable: w.timeable(), Usual: w.in.UsualSittings(), Sittings: d.sittings(),
		Practised: pace.Estimate(w.headTasks(), pace.Worker{Hand: pace.Practised, Own: 1}).Total.Likely,
	}
	home := w.tasks(need)
	out.Figures = d.figures(out.Hours, home)
	out.Rows = d.dayRows()
	out.Paces = d.paces(out.Timeable)
	if len(d.hands) > 1 {
		for _, s := range (sitting.Crew{People: make([]sitting.Person, 1), Breaks: d.crew.Breaks}).Cut(d.alone(), d.limit) {
			out.Alone += s.Minutes
		}
	}
	out.Labour = d.labour(out.Hours, out.Sittings)
	out.date(w.in)
	out.Due = d.due(w.in, home, &out)
	out.Says = d.says(&out)
	return out
}

// labour is the work of all who work, rested: of one the hours, of two what each does in the sittings.
func (d *day) labour(h pace.Hours, sittings []DaySitting) (minutes float64) {
	if len(d.hands) == 1 {
		return h.Total.Likely
	}
	for _, s := range sittings {
		for _, x := range s.Spans {
			minutes += d.steps[s.steps[x.Step-s.from]].By[x.Person]
		}
	}
	return minutes
}

// figures are the times people name.
func (d *day) figures(h pace.Hours, home []Task) []DayFigure {
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
	out := []DayFigure{
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
	return append(out, DayFigure{"home", "At home beforehand, apart", list(holds), pace.Range{Low: minutes * (1 - spread), Likely: minutes, High: minutes * (1 + spread)}})
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
func (d *day) paces(timeable []Timeable) []TimedPace {
	out := []TimedPace{}
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
			p := TimedPace{Skill: t.Skill, Name: t.Name, By: h.Key, Guess: t.Rate * w.Guess(), Now: t.Rate * now.Factor, Spread: now.Spread}
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
