// Package fit asks whether a plait suits a piece. Lengths are mm, areas mm².
package fit

import "math"

// packing is the share of a plait's cross-section that is hair; the rest is the
// air between strands. Common practice, no source.
const packing = 0.5

// PlaitDiameter is the diameter in mm of a plait made of all the hair on area
// mm² of scalp, with density hairs per mm² of strand mm diameter each:
// D = √(4·n·A ÷ (π·φ)) with A the cross-section of one hair and φ the packing.
func PlaitDiameter(area, density, strand float64) float64 {
	hairs := area * density
	hair := math.Pi / 4 * strand * strand
	return math.Sqrt(4 * hairs * hair / (math.Pi * packing))
}
