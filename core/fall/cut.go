package fall

import (
	"math"

	"kladotex/core/craft"
)

// Shape is how the ends of a head are cut.
type Shape string

// The shapes.
const (
	// Blunt ends all pieces at one line.
	Blunt Shape = "blunt"
	// Layers end the lowest row at the line, each row above it higher.
	Layers Shape = "layers"
	// Bob is rounded: the outer rows end at the line, those beneath a little above it, so that
	// the ends turn under; to the face it lengthens.
	Bob Shape = "bob"
)

// Shapes are all of them.
var Shapes = []Shape{Blunt, Layers, Bob}

// Ends is the height, as a share of stature, at which a piece ends in a shape cut to a line:
// rank is how high its root stands among all, 0 the lowest and 1 the highest, facing is 1 for
// a root at the face and 0 from the ears back.
func (s Shape) Ends(line, rank, facing float64) float64 {
	switch s {
	case Layers:
		return line + craft.Layered*rank
	case Bob:
		return line + craft.Bevel*math.Pow(1-rank, 2) - craft.Forward*facing
	}
	return line
}
