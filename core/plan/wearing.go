package plan

import (
	"fmt"
	"strings"

	"kladotex/core/fall"
	"kladotex/core/invalid"
)

// Trim is how the ends of a head are cut once all hang.
type Trim struct {
	Shape fall.Shape `json:"shape" enum:"blunt,layers,bob"`
	// Line is the body line the ends are cut to.
	Line string `json:"line" enum:"chin,shoulder,armpit,mid-back,waist,hip"`
}

func (t Trim) check(bad *invalid.Errors, path string) {
	invalid.OneOf(bad, path+"shape", "The shape of the cut", t.Shape, fall.Shapes)
	keys := make([]string, len(fall.Lines))
	for i, l := range fall.Lines {
		keys[i] = l.Key
	}
	invalid.OneOf(bad, path+"line", "The line of the cut", t.Line, keys)
}

// trimmed is how the ends are cut; nothing where they stay as they come.
func (in Input) trimmed() Trim {
	if in.Trim == nil {
		return Trim{}
	}
	return *in.Trim
}

// CutWords says how the ends are cut, in a sentence.
func (in Input) CutWords() string {
	if in.Trim == nil {
		return "The ends stay as they come."
	}
	line, _ := fall.LineOf(in.Trim.Line)
	name := strings.ToLower(line.Name)
	switch in.Trim.Shape {
	case fall.Layers:
		return fmt.Sprintf("Layers: the lowest row ends at the %s, each row above it higher.", name)
	case fall.Bob:
		return fmt.Sprintf("A rounded bob to the %s: the outer rows end there, those beneath a little above, and it lengthens to the face.", name)
	}
	return fmt.Sprintf("One blunt line at the %s.", name)
}

// Statures that are planned for, mm.
const MinStature, MaxStature = 600.0, 2400.0

// Statures taken where nobody asked, mm: 5 ft 5 in, and 4 ft 7 in of a child of ten. From
// memory of growth charts.
const (
	usualStature = 1651.0
	childStature = 1400.0
)

// Wearing is the stature the plan is drawn at, and whether anybody said it.
func (in Input) Wearing() (stature float64, asked bool) {
	switch {
	case in.Stature > 0:
		return in.Stature, true
	case in.Child:
		return childStature, false
	}
	return usualStature, false
}
