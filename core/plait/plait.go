// Package plait is about the plait of one place: how long and how thick it comes out,
// and what may hang on it. Lengths are mm, areas mm², mass g.
package plait

import (
	"math"

	"kladotex/core/craft"
)

// Diameter is the diameter in mm of a plait made of all the hair on area mm² of scalp,
// with density hairs per mm² of strand mm diameter each: D = √(4·n·A ÷ (π·φ)) with A the
// cross-section of one hair and φ the packing.
func Diameter(area, density, strand float64) float64 {
	hairs := area * density
	hair := math.Pi / 4 * strand * strand
	return math.Sqrt(4 * hairs * hair / (math.Pi * craft.Packing))
}

// Plait is one plait, or the hair that a hook takes hold of.
type Plait struct {
	// Hairs grow on Area mm² of scalp.
	Area  float64 `json:"areaMm2"`
	Hairs float64 `json:"hairs"`
	// Diameter at its root, mm.
	Diameter float64 `json:"diameterMm"`
	// Braided and Twisted are the lengths worked in three strands and in two, mm.
	Braided float64 `json:"braidedMm"`
	Twisted float64 `json:"twistedMm"`
	// Fed is the length by which hair fed into its end makes it longer, mm.
	Fed float64 `json:"fedMm"`
}

// Length is that of the whole plait, mm.
func (p Plait) Length() float64 { return p.Braided + p.Twisted + p.Fed }

// Far is how far a section is plaited.
type Far string

// The schools.
const (
	// Whole plaits to the ends: it holds and protects them.
	Whole Far = "whole"
	// Half plaits to the middle and twists the rest with two strands: faster, easier to
	// undo.
	Half Far = "half"
	// Anchor makes a few turns and twists the rest.
	Anchor Far = "anchor"
)

// Fars are all of them.
var Fars = []Far{Whole, Half, Anchor}

// Preparation is how the base plaits are made; the schools differ.
type Preparation struct {
	Far Far `json:"far" doc:"How far it is plaited; the rest is twisted with two strands"`
	// Anchor is how far a few turns go along the plait, mm; 0 for three turns.
	Anchor float64 `json:"anchorMm,omitempty" doc:"How far a few turns go along the plait, mm; left out for three turns"`
	// Fed is 0 for bare ends.
	Fed       float64   `json:"fedMm" doc:"How far hair fed into the ends goes past them, mm; 0 leaves them bare"`
	Direction Direction `json:"direction" doc:"How the outer strand goes: over leaves a ridge at the root, under lies flat"`
	Tension   Tension   `json:"tension" doc:"At the scalp; a second tightening comes when the piece is drawn through"`
	Band      bool      `json:"band" doc:"A small elastic at the root holds fine hair; it tangles and breaks hair left in"`
}

// Direction is the way the outer strand of a plait goes.
type Direction string

// The directions.
const (
	Over  Direction = "over"
	Under Direction = "under"
)

// Directions are both of them.
var Directions = []Direction{Over, Under}

// Tension is how tight a plait sits at the scalp.
type Tension string

// The tensions.
const (
	Slack Tension = "slack"
	Snug  Tension = "snug"
)

// Tensions are both of them.
var Tensions = []Tension{Slack, Snug}

// Usual is the preparation in bold in the trade's schools.
func Usual() Preparation { return Preparation{Far: Whole, Direction: Over, Tension: Slack} }

// Of is the plait of all the hair on area mm² of scalp, hair mm long, prepared so; density
// is hairs per mm², strand the diameter of one in mm.
func (p Preparation) Of(area, hair, density, strand float64) Plait {
	worked := hair
	switch p.Far {
	case Half:
		worked = hair / 2
	case Anchor:
		worked = min(hair, p.anchored())
	}
	return Plait{
		Area: area, Hairs: area * density, Diameter: Diameter(area, density, strand),
		Braided: worked * craft.BraidTakeUp, Twisted: (hair - worked) * craft.TwistTakeUp, Fed: p.Fed,
	}
}

// anchored is the hair that the anchor turns take, mm.
func (p Preparation) anchored() float64 {
	if p.Anchor > 0 {
		return p.Anchor / craft.BraidTakeUp
	}
	return craft.AnchorLength
}

// Turn is how far one turn of a plait goes along it, mm.
const Turn = craft.AnchorLength * craft.BraidTakeUp / craft.AnchorTurns

// Turns are about how many turns the anchor takes.
func (p Preparation) Turns() int {
	return max(1, int(math.Round(p.anchored()*craft.BraidTakeUp/Turn)))
}

// Load is what g grams load the plait with, mg a hair.
func (p Plait) Load(g float64) float64 { return 1000 * g / p.Hairs }

// Bears is the mass, g, that loads the plait with load mg a hair.
func (p Plait) Bears(load float64) float64 { return load * p.Hairs / 1000 }
