package standin

import (
	"math"

	"kladotex/core/supply"
)

// bag is the mass of the bag a pack comes in, g.
const bag = 6.5

// fibre is the mass of a piece whose mass nobody knows, g a mm³: a soft loc of 18 in and 9 mm
// weighs about 4 g. Common practice, no source.
const fibre = 1.44e-4

// Weigh is what the simulated scale shows while packs of an item are laid on it, g: it swings and
// comes to rest at the last reading, in steps of half a gram. The packs hold what the label
// says; what a piece weighs departs a little from the label.
func Weigh(i supply.Item, packs int) []float64 {
	mass := i.Mass
	if mass == 0 {
		mass = fibre * i.Length * math.Pi / 4 * i.Thickness * i.Thickness
	}
	mass *= 0.992 + 0.016*share(i.Name, 0)
	rest := float64(packs) * (bag + mass*float64(i.Pack.Units))
	out := make([]float64, 7)
	for k := range out {
		swing := rest * 0.4 * math.Exp(-0.9*float64(k)) * math.Cos(2.2*float64(k))
		if k == len(out)-1 {
			swing = 0
		}
		out[k] = math.Round(2*(rest-swing)) / 2
	}
	return out
}

// Bag is what the bag of a pack weighs, g: it is taken off what the scale shows.
func Bag() float64 { return bag }
