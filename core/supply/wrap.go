package supply

import "math"

// WrapRibbon is the length in mm of a ribbon of hair of the given visible width
// wound as a helix over length mm of a base of diameter mm:
// turns × √((πD)² + w²).
func WrapRibbon(length, diameter, width float64) float64 {
	return length / width * math.Hypot(math.Pi*diameter, width)
}
