// Package pace says how long an install takes. Times are minutes. Every figure is a range:
// until a studio has logged its own installs, a stylist's true time lies within about a fifth
// of the likely one.
//
// The rates are those of practised hands on another's head; package craft has them. A [Worker]
// takes longer or less; a timed piece corrects the guess.
package pace

import (
	"slices"

	"kladotex/core/craft"
)

// Kind is a kind of work at the head.
type Kind string

// The kinds.
const (
	Settle   Kind = "settle"
	Cornrows Kind = "tracks"
	Nets     Kind = "net"
	Plaits   Kind = "plaits"
	Hook     Kind = "hook"
	Attach   Kind = "attach"
	Conceal  Kind = "conceal"
	Finish   Kind = "finish"
)

// kinds are all of them in the order of a day, each with the name of its stage.
var kinds = []struct {
	kind Kind
	name string
}{
	{Settle, "Prepare the head"}, {Cornrows, "Cornrows"}, {Nets, "Lay the net"}, {Plaits, "Part and plait"},
	{Hook, "Hook on"}, {Attach, "Attach"}, {Conceal, "Hide the plaits"}, {Finish, "Check and finish"},
}

// Kinds are all kinds in the order of a day.
func Kinds() []Kind {
	out := make([]Kind, len(kinds))
	for i, k := range kinds {
		out[i] = k.kind
	}
	return out
}

// Name is that of the stage of a kind.
func (k Kind) Name() string {
	for _, x := range kinds {
		if x.kind == k {
			return x.name
		}
	}
	return string(k)
}

// Attaching are the kinds of putting pieces on, and Basing those of what they hang on.
var (
	Attaching = []Kind{Hook, Attach, Conceal}
	Basing    = []Kind{Cornrows, Nets, Plaits}
)

// Plait is to part a section and plait its hair: braided and twisted are mm worked in three
// strands and in two, both 0 where own hair stays loose.
func Plait(braided, twisted float64) float64 {
	return craft.PartTime + craft.PlaitRate*braided + craft.TwistRate*twisted
}

// Link is to part a section and lay its plait, that long, mm, into the next one.
func Link(length float64) float64 { return craft.PartTime + craft.PlaitRate*craft.LinkedShare*length }

// Cornrow is to plait a cornrow of a length, mm, flat.
func Cornrow(length float64, shows bool) float64 {
	minutes := craft.CornrowTime + craft.CornrowRate*length
	if shows {
		minutes *= craft.Decorative
	}
	return minutes
}

// Task is one thing to do, at one place or for the whole head.
type Task struct {
	Kind Kind
	// Skill is what is practised by it: the id of a method, else the kind.
	Skill string
	// Minutes of practised hands on another's head.
	Minutes float64
	// Piece is true where it finishes one more piece of its skill: a hand that is new to it
	// gets quicker by it.
	Piece bool
}

// Range is a likely time with the times it will hardly go below and above.
type Range struct {
	Low    float64 `json:"low"`
	Likely float64 `json:"likely"`
	High   float64 `json:"high"`
}

// Plus is the sum of two ranges.
func (r Range) Plus(s Range) Range { return Range{r.Low + s.Low, r.Likely + s.Likely, r.High + s.High} }

// Stage is one part of the day.
type Stage struct {
	Kind    Kind   `json:"kind"`
	Name    string `json:"name"`
	Minutes Range  `json:"minutes"`
}

// Hours are the stages of an install in order, and their sum. Preparation at home and breaks
// are not in it.
type Hours struct {
	Stages []Stage `json:"stages"`
	Total  Range   `json:"total"`
}

// Of sums the stages of some kinds.
func (h Hours) Of(of ...Kind) (sum Range) {
	for _, s := range h.Stages {
		if slices.Contains(of, s.Kind) {
			sum = sum.Plus(s.Minutes)
		}
	}
	return sum
}

// Estimate is what a worker takes for tasks, in the order they are done.
func Estimate(tasks []Task, w Worker) Hours {
	run := w.Begin()
	sums := map[Kind]Range{}
	for _, t := range tasks {
		sums[t.Kind] = sums[t.Kind].Plus(run.Range(t))
	}
	var h Hours
	for _, x := range kinds {
		if r := sums[x.kind]; r.Likely > 0 {
			h.Stages = append(h.Stages, Stage{x.kind, x.name, r})
			h.Total = h.Total.Plus(r)
		}
	}
	return h
}
