package hours

import (
	"fmt"
	"slices"

	"kladotex/core/pace"
	"kladotex/core/plan"
	"kladotex/core/sitting"
	"kladotex/core/workorder"
)

// DayPlan is how a plan is done: in which order, by whom, how long, in which sittings.
type DayPlan struct {
	// Hours are what the first of those who work takes for all of it alone, breaks apart.
	Hours pace.Hours `json:"hours"`
	// Figures are the times people name, each with what is in it.
	Figures []DayFigure `json:"figures"`
	// Practised are the minutes of practised hands on another's head for the same.
	Practised float64     `json:"practisedMin"`
	Hands     []plan.Hand `json:"hands"`
	Rows      []DayRow    `json:"rows"`
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
	// Finish is what ends the head, part by part.
	Finish []FinishPart `json:"finish"`
	// Due are what comes before the first sitting, the earliest first.
	Due []DayDue `json:"due"`
	// Says are what there is to know about it, in words.
	Says []string `json:"says"`
	// Usual are the sittings of a plan that says nothing.
	Usual plan.Sittings `json:"usual"`
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
	workorder.Row
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

	steps []int // of the work, those of the list it was cut from begin at from
	from  int
}

// Has tells whether one of those who work has anything to do in it.
func (s DaySitting) Has(person int) bool {
	return slices.ContainsFunc(s.Spans, func(x DaySpan) bool { return x.Person == person })
}

// DaySpan is what one does for a while.
type DaySpan struct {
	sitting.Span
	Kind pace.Kind `json:"kind"`
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

// evenings are how many sittings of a helper come before the first.
func (p DayPlan) evenings() (n int) {
	for _, s := range p.Sittings {
		if s.Evening {
			n++
		}
	}
	return n
}

// SittingName is what sitting i is called: those of a helper beforehand are not counted.
func (p DayPlan) SittingName(i int) string {
	if p.Sittings[i].Evening {
		return "The evening before"
	}
	return fmt.Sprintf("Sitting %d", i+1-p.evenings())
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

// Steps are the steps done in the sitting, as indices into those of the [Work].
func (s DaySitting) Steps() []int { return s.steps }
