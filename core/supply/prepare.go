package supply

import (
	"math"

	"kladotex/core/craft"
)

// Cut says how a strand of loose hair becomes units to hang: it is opened out, cut into equal
// lengths, each split into units, and each of them folded over the hook. It is cut before it is
// split: hair that is pulled apart at full length tangles and loses its wave.
type Cut struct {
	// Open is the length of a strand opened out, mm.
	Open   float64 `json:"openMm" doc:"Length of a strand opened out, mm"`
	Cuts   int     `json:"cuts" doc:"Lengths a strand is cut into"`
	Splits int     `json:"splits" doc:"Pieces a length is split into"`
	// Fold is true where a unit is folded over the hook into two legs.
	Fold bool `json:"fold" doc:"Folded over the hook into two legs"`
}

// Length of a unit before it is folded, mm.
func (c Cut) Length() float64 { return c.Open / float64(c.Cuts) }

// Hanging is the length of what hangs, mm.
func (c Cut) Hanging() float64 {
	if c.Fold {
		return c.Length() / 2
	}
	return c.Length()
}

// Units is what a number of strands gives.
func (c Cut) Units(strands int) int { return strands * c.Cuts * c.Splits }

// BraidBundle is the length in mm of a bundle of braiding hair that makes a braid of a finished length.
func BraidBundle(finished float64) float64 { return finished / craft.BraidTakeUp }

// MadeLoc is how a loc is made before it is hung: a base of cord or hair, folded back at its top
// into a loop, wound over its whole length with wrapping hair.
type MadeLoc struct {
	// Base is the length of cord or hair to cut, mm.
	Base float64 `json:"baseMm" doc:"Base of cord or hair to cut, mm"`
	// Ribbon is the wrapping hair wound over it, mm, Turns how often it goes round.
	Ribbon float64 `json:"ribbonMm" doc:"Wrapping hair wound over one loc, mm"`
	Turns  float64 `json:"turns"`
	// Strands is how many strands of wrapping hair that is.
	Strands float64 `json:"strands" doc:"Strands of wrapping hair for one loc"`
	// Minutes to make one, practised.
	Minutes float64 `json:"minutes"`
}

// MakeLoc is how a loc of a length and a thickness (mm) is made with wrapping strands of a
// length as wound, mm.
func MakeLoc(length, thickness, strand float64) MadeLoc {
	// As if all of it lay at the outside: what lies deeper takes a little less.
	ribbon := WrapRibbon(length, thickness, craft.MadeTurn)
	strands := ribbon / max(1, strand-craft.MadeOverlap)
	return MadeLoc{
		Base: length + craft.LoopLength*2 + craft.FoldBack, Ribbon: ribbon, Turns: length / craft.MadeTurn, Strands: strands,
		Minutes: craft.MadeEach + craft.MadeRate*length,
	}
}

// Batch is a part of what is made, so that an evening has an end.
type Batch struct {
	From    int     `json:"from" doc:"Number of its first loc"`
	To      int     `json:"to"`
	Minutes float64 `json:"minutes"`
}

// Batches cuts n locs of each minutes into sittings of at most most minutes; the
// first batch has the guide piece in it.
func Batches(n int, each, most float64) []Batch {
	size := max(1, int(most/each))
	parts := (n + size - 1) / size
	out := make([]Batch, 0, parts)
	for k, from := 0, 0; k < parts; k++ {
		to := int(math.Round(float64(n) * float64(k+1) / float64(parts)))
		out = append(out, Batch{from + 1, to, float64(to-from) * each})
		from = to
	}
	return out
}
