package plan

import (
	"kladotex/core/fall"
	"kladotex/core/invalid"
)

// Trim is how the ends of a head are cut once all hang.
type Trim struct {
	Shape fall.Shape `json:"shape"`
	// Line is the body line the ends are cut to.
	Line string `json:"line" enum:"chin,shoulder,armpit,mid-back,waist,hip,thigh,knee,floor"`
}

func (t Trim) check(bad *invalid.Errors, path string) {
	invalid.OneOf(bad, path+"shape", "The shape of the cut", t.Shape, fall.Shapes)
	keys := make([]string, len(fall.Lines))
	for i, l := range fall.Lines {
		keys[i] = l.Key
	}
	invalid.OneOf(bad, path+"line", "The line of the cut", t.Line, keys)
}

// Statures that are planned for, mm.
const MinStature, MaxStature = 600.0, 2400.0
