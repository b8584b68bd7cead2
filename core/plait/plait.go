// Package plait is about the plait of one place: how long and how thick it comes out,
// and what may hang on it. Lengths are mm, areas mm², mass g.
package plait

import "math"

// Take-ups: the length of what is worked ÷ that of its hair. Common practice, no source:
// a 36 in bundle braids down to about 31 in; a two-strand twist takes up about half as
// much.
const (
	BraidTakeUp = 31.0 / 36.0
	TwistTakeUp = 0.93
)

// packing is the share of a plait's cross-section that is hair; the rest is the
// air between strands. Common practice, no source.
const packing = 0.5

// Diameter is the diameter in mm of a plait made of all the hair on area mm² of scalp,
// with density hairs per mm² of strand mm diameter each: D = √(4·n·A ÷ (π·φ)) with A the
// cross-section of one hair and φ the packing.
func Diameter(area, density, strand float64) float64 {
	hairs := area * density
	hair := math.Pi / 4 * strand * strand
	return math.Sqrt(4 * hairs * hair / (math.Pi * packing))
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

// anchorLength is the length of hair that the anchor turns take, mm: three turns of a
// plait as thick as a pencil. Common practice, no source.
const anchorLength = 25.0

// Preparation is how the base plaits are made; the schools differ.
type Preparation struct {
	Far Far `json:"far" enum:"whole,half,anchor" doc:"How far it is plaited; the rest is twisted with two strands"`
	// Fed is 0 for bare ends.
	Fed       float64   `json:"fedMm" doc:"How far hair fed into the ends goes past them, mm; 0 leaves them bare"`
	Direction Direction `json:"direction" enum:"over,under" doc:"How the outer strand goes: over leaves a ridge at the root, under lies flat"`
	Tension   Tension   `json:"tension" enum:"slack,snug" doc:"At the scalp; a second tightening comes when the piece is drawn through"`
	Band      bool      `json:"band" doc:"A small elastic at the root holds fine hair; it tangles and breaks hair left in"`
}

// Direction is the way the outer strand of a plait goes.
type Direction string

// The directions.
const (
	Over  Direction = "over"
	Under Direction = "under"
)

// Tension is how tight a plait sits at the scalp.
type Tension string

// The tensions.
const (
	Slack Tension = "slack"
	Snug  Tension = "snug"
)

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
		worked = min(hair, anchorLength)
	}
	return Plait{
		Area: area, Hairs: area * density, Diameter: Diameter(area, density, strand),
		Braided: worked * BraidTakeUp, Twisted: (hair - worked) * TwistTakeUp, Fed: p.Fed,
	}
}

// ThinShare is the least diameter of a plait ÷ thickness of the piece it carries. Common
// practice, no source.
const ThinShare = 0.18

// Hook is the thickness of a latch hook, mm, which passes through a loop together with
// the plait. Common practice, no source.
const Hook = 2.0

// What hangs on hair, mg a hair. No safe limit is published; UsualLoad is what common
// practice hangs, no source: a 4 g piece on the 1 in section of 190 hairs per cm². Twice
// that is heavy, four times too heavy.
const (
	UsualLoad    = 3.3
	HeavyLoad    = 2 * UsualLoad
	TooHeavyLoad = 4 * UsualLoad
)

// Soaked is how much heavier a wet install is, until it was weighed. Common practice, no
// source.
const Soaked = 2.0

// Masses of all that hangs on a head, g. Common practice, no source: a head carries 150
// to 600 g. A child, a tender scalp and fragile edges bear two thirds of it.
const (
	HeavyHead   = 600.0
	FewNecks    = 900.0
	GentleShare = 2.0 / 3
)

// ThinDensity is the density in hairs per cm² under which hair counts as thin: one standard
// deviation below the mean of African hair, 190 ± 40 (Loussouarn 2001, from memory).
const ThinDensity = 150.0

// LongShare is the length of the longest piece, as it hangs, ÷ stature that is kind to a head
// that bears little: to about the mid-back. Common practice, no source.
const LongShare = 0.36

// Load is that of so many g on the plait, mg a hair.
func (p Plait) Load(g float64) float64 { return 1000 * g / p.Hairs }

// Bears is the mass in g that makes a load of so many mg a hair.
func (p Plait) Bears(load float64) float64 { return load * p.Hairs / 1000 }
