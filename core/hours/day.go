package hours

import (
	"slices"
	"strings"

	"kladotex/core/need"
	"kladotex/core/pace"
	"kladotex/core/plan"
	"kladotex/core/sitting"
	"kladotex/core/words"
)

// DayOf says how a plan is done.
func DayOf(sol *plan.Solved) (DayPlan, error) {
	n, err := need.Of(sol)
	if err != nil {
		return DayPlan{}, err
	}
	return WorkOf(sol).Day(need.Tasks(sol, n)), nil
}

// Day is the day in words and numbers.
func (d *Work) Day(home []need.Task) DayPlan {
	sol := d.Solved
	out := DayPlan{
		Hours: Of(sol), Hands: d.Hands, Timeable: timeable(sol), Usual: sol.Input.UsualSittings(), Sittings: d.sittings(),
		Practised: pace.Estimate(headTasks(sol), pace.Worker{Hand: pace.Practised, Own: 1}).Total.Likely,
	}
	out.Figures = d.figures(out.Hours, home)
	out.Rows, out.Finish = d.dayRows(), Finishing(sol)
	out.Paces = d.paces(out.Timeable)
	if len(d.Hands) > 1 {
		for _, s := range (sitting.Crew{People: make([]sitting.Person, 1), Breaks: d.Crew.Breaks}).Cut(d.alone(), d.limit) {
			out.Alone += s.Minutes
		}
	}
	out.Labour = d.labour(out.Hours, out.Sittings)
	out.date(sol.Input)
	out.Due = d.due(sol.Input, home, &out)
	out.Says = d.says(&out)
	return out
}

// labour is the work of all who work, rested: of one the hours, of two what each does in the sittings.
func (d *Work) labour(h pace.Hours, sittings []DaySitting) (minutes float64) {
	if len(d.Hands) == 1 {
		return h.Total.Likely
	}
	for _, s := range sittings {
		for _, x := range s.Spans {
			minutes += d.Steps[s.steps[x.Step-s.from]].By[x.Person]
		}
	}
	return minutes
}

// figures are the times people name.
func (d *Work) figures(h pace.Hours, home []need.Task) []DayFigure {
	names := func(kinds ...pace.Kind) string {
		var out []string
		for _, s := range h.Stages {
			if slices.Contains(kinds, s.Kind) {
				out = append(out, strings.ToLower(s.Name))
			}
		}
		return words.List(out)
	}
	with := append(slices.Clone(pace.Basing), pace.Attaching...)
	out := []DayFigure{
		{"attach", "Attaching only", names(pace.Attaching...), h.Of(pace.Attaching...)},
		{"base", "With plaits and base", names(with...), h.Of(with...)},
		{"head", "All of it at the head", "from the first comb to the last check: " + names(append(with, pace.Settle, pace.Finish)...), h.Total},
	}
	minutes, holds := 0.0, []string(nil)
	for _, step := range d.ownHair() {
		minutes += step.Minutes
		holds = append(holds, strings.ToLower(step.Title[:1])+step.Title[1:])
	}
	for _, t := range home {
		minutes += t.Minutes
		holds = append(holds, strings.ToLower(t.Title[:1])+t.Title[1:])
	}
	const spread = 0.3 // nobody times it
	return append(out, DayFigure{"home", "At home beforehand, apart", words.List(holds), pace.Range{Low: minutes * (1 - spread), Likely: minutes, High: minutes * (1 + spread)}})
}

func (d *Work) dayRows() []DayRow {
	out := make([]DayRow, len(d.Rows))
	for r, row := range d.Rows {
		out[r] = DayRow{Row: row, Number: r + 1}
		for _, i := range row.Places {
			out[r].Pieces += d.Places[i].Count
			out[r].Plait += d.Plait[0][i]
			out[r].Attach += d.Attach[0][i]
		}
	}
	return out
}

// paces are what timed pieces say, for those skills this head asks for.
func (d *Work) paces(timeable []Timeable) []TimedPace {
	out := []TimedPace{}
	if d.Input.Day == nil {
		return out
	}
	for k, h := range d.Hands {
		w := d.Input.Worker(k)
		for _, t := range timeable {
			now, has := w.Timed[t.Skill]
			if !has {
				continue
			}
			p := TimedPace{Skill: t.Skill, Name: t.Name, By: h.Key, Guess: t.Rate * w.Guess(), Now: t.Rate * now.Factor, Spread: now.Spread}
			for _, trial := range d.Input.Day.Trials {
				if trial.Skill == t.Skill && trial.By == h.Key {
					p.Pieces += len(trial.Minutes)
				}
			}
			out = append(out, p)
		}
	}
	return out
}
