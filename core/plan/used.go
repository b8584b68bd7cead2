package plan

import (
	"math"

	"kladotex/core/craft"
	"kladotex/core/method"
)

// Bands are the thin bands that a head takes, at roots and at ends.
func (s *Solved) Bands() (n int) {
	for i := range s.Places {
		p := &s.Places[i]
		if p.Kept {
			continue
		}
		n += s.Works[i].Bands * p.Count
		if s.Input.Plaits.Band && p.Ground == method.OnPlait {
			n++
		}
	}
	return n
}

// Measured is how much of every product that is measured out a head takes, in its unit.
func (s *Solved) Measured() map[ProductKey]float64 {
	in := &s.Input
	out := map[ProductKey]float64{Oil: craft.OilUse}
	lines := float64(len(s.Layout.Sections) + 3*len(s.Layout.Cornrows))
	switch in.Custom(Product) {
	case "gel":
		out[Gel] = craft.GelUse * lines
	case "wax":
		out[Wax] = craft.WaxUse * lines
	}
	long := min(2.5, max(0.5, in.Hair.Longest()/craft.UsualHair))
	out[LeaveIn] = craft.LeaveInUse * long
	switch in.Custom(Foam) {
	case "minutes":
		out[FoamSet] = craft.FoamUse
	case "night":
		out[FoamSet] = 1.5 * craft.FoamUse
	}
	glued := 0
	for i := range s.Places {
		chosen := s.Chosen[s.Places[i].Way]
		if chosen["tip"] == "glue" || chosen["end"] == "glue" {
			glued += s.Places[i].Count
		}
	}
	if glued > 0 {
		out[Glue] = math.Ceil(craft.GlueUse * float64(glued))
	}
	if in.Redo != nil { // a part of the head takes a part of it
		kept := 0
		for i := range s.Places {
			if s.Places[i].Kept {
				kept++
			}
		}
		share := 1 - float64(kept)/float64(max(1, len(s.Places)))
		for key := range out {
			out[key] *= share
		}
	}
	return out
}
