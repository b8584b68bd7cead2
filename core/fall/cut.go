package fall

import "math"

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

const (
	// layered is how far, ÷ stature, the highest row of layers ends above the line: about
	// 6 in. bevel is how far the lowest row of a bob ends above its outer rows, about 1 in, and
	// forward how much lower the bob hangs beside the face, about 3/4 in. Common practice, no
	// source.
	layered = 0.092
	bevel   = 0.016
	forward = 0.012
)

// Ends is the height, as a share of stature, at which a piece ends in a shape cut to a line:
// rank is how high its root stands among all, 0 the lowest and 1 the highest, facing is 1 for
// a root at the face and 0 from the ears back.
func (s Shape) Ends(line, rank, facing float64) float64 {
	switch s {
	case Layers:
		return line + layered*rank
	case Bob:
		return line + bevel*math.Pow(1-rank, 2) - forward*facing
	}
	return line
}
