package propose

import (
	"fmt"
	"slices"
	"strings"

	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/fall"
	"kladotex/core/invalid"
	"kladotex/core/judge"
	"kladotex/core/method"
	"kladotex/core/plan"
	"kladotex/core/words"
)

// Tolerances: the share of the places at which a finding is a sliver, not a plan. By eye.
const (
	fewPlaces  = 0.05
	somePlaces = 0.12
)

// limits are what a candidate breaks of what the head bears and of the wish. What is known only once it hangs is
// held against the wish then.
func (s *search) limits(c *Candidate, found judge.Counted, p candidatePiece, sol *plan.Solved) (out []Limit) {
	f, w := &c.Facts, s.wish
	hard := func(breaks bool, key string, by float64, format string, args ...any) {
		if breaks {
			out = append(out, Limit{Key: key, By: by, Says: fmt.Sprintf(format, args...), hard: true, share: 1})
		}
	}
	all := float64(max(1, len(sol.Places)))
	share := func(codes ...advice.Code) (most float64) {
		for _, code := range codes {
			most = max(most, float64(found.Places[code])/all)
		}
		return most
	}
	heavy, most, whose := judge.HeadBears(c.Input)
	hard(found.Places[advice.WrongForm] > 0, wrongForm, 0, "%s does not go with %s", f.Piece, strings.ToLower(f.Method))
	hard(found.Places[advice.WrongBase] > 0, wrongForm, 0, "the plaits are not what %s needs", f.Method)
	hard(found.Places[advice.TooHeavy] > 0, tooHeavy, float64(found.Places[advice.TooHeavy]), "too heavy at %s", words.Count(found.Places[advice.TooHeavy], "spot"))
	hard(whose != "" && f.Load > craft.KindLoad, tooHeavy, f.Load, "%.1f times what is usual at the heaviest spots%s", f.Load, whose)
	seen := found.Seen
	hard(whose != "" && seen > 0, edges, float64(seen), "heavy at %s of the hairline%s", words.Count(seen, "spot"), whose)
	switch {
	case whose != "":
		hard(f.Weight > heavy, headMass, f.Weight-heavy, "%s more than the %s that is borne%s", words.Grams(f.Weight-heavy), words.Grams(heavy), whose)
	default:
		hard(f.Weight > most, headMass, f.Weight-most, "%s more than most can wear", words.Grams(f.Weight-most))
	}
	if hurt := s.hurtBy(); hurt > 0 {
		hard(f.Weight >= hurt, hurtMass, f.Weight-hurt, "no lighter than the %s that hurt before", words.Grams(hurt))
	}
	hard(share(advice.ShortHair) > fewPlaces, shortHair, share(advice.ShortHair), "own hair too short for %s at %.0f %% of the spots", f.Method, 100*share(advice.ShortHair))
	hard(share(advice.LongPlait) > fewPlaces, hangsOut, share(advice.LongPlait), "plaits longer than the piece hides at %.0f %% of the spots", 100*share(advice.LongPlait))
	fit := share(advice.FatPlait, advice.ThinPlait)
	hard(fit > somePlaces, badFit, fit, "plaits too fat or too thin for the piece at %.0f %% of the spots", 100*fit)
	tight := share(advice.TightRoot)
	if m, _ := method.Lookup(c.Input.Ways[0].Method); m.Pulls() == method.Tight {
		tight = f.Singles
	}
	hard(whose != "" && tight > fewPlaces, pull, tight, "%s pulls too much%s", strings.ToLower(f.Method), whose)
	hard(found.Places[advice.LongPiece] > 0, tooLong, found.Worst[advice.LongPiece], "past the mid-back%s", whose)
	bears := bearsLeast(sol)
	hard(slices.Index(method.Waters, bears) < slices.Index(method.Waters, w.Water), water, 0, "%s does not bear the water that is wished", f.Method)
	spots := onSpots(sol)
	hard(spots > 0, onSpot, float64(spots), "%s on a spot that stays free", words.Count(spots, "piece"))
	for _, r := range judge.Refusals(c.Input) {
		hard(true, string(r.Code), 0, "%s", r.Reason)
	}

	gives := func(key string, by, have float64, format string, args ...any) {
		if by > 1e-9 {
			out = append(out, Limit{Key: key, By: by, Says: fmt.Sprintf(format, args...), share: by / max(1e-9, have)})
		}
	}
	slack := 1.0
	if !c.hung { // sittings are not cut yet
		slack = 1.03
	}
	gives(byHours, f.Minutes-slack*w.Minutes, w.Minutes, "%s longer than there is", words.Minutes(f.Minutes-w.Minutes))
	if w.Sitting > 0 && c.hung {
		gives(bySitting, f.Longest-w.Sitting, w.Sitting, "a sitting of %s", words.Minutes(f.Longest))
	}
	if w.Sittings > 0 && c.hung {
		gives(bySittings, float64(f.Sittings-w.Sittings), float64(w.Sittings), "%s", words.Count(f.Sittings, "sitting"))
	}
	if w.Money > 0 {
		gives(byMoney, float64(f.Cost-w.Money), float64(w.Money), "over what may be spent")
	}
	if p.lot != nil {
		gives(byStock, float64(f.Pieces-p.lot.Count), float64(p.lot.Count), "%s more than there are", words.Count(f.Pieces-p.lot.Count, "piece"))
		if p.lot.Count > 0 && f.Pieces <= p.lot.Count && len(w.Lots) == 1 {
			left := p.lot.Count - f.Pieces
			gives(byStock, float64(left-mostLeft), float64(p.lot.Count), "%s of those in hand left over", words.Count(left, "piece"))
		}
	}
	if w.Nothing && p.lot != nil {
		gives(byMoney, float64(f.Packs), 1, "%s to buy", words.Count(f.Packs, "pack"))
	}
	gives(byWeeks, float64(w.Weeks-f.Weeks), float64(w.Weeks), "%s, not %d", words.Count(f.Weeks, "week"), w.Weeks)
	if w.Off > 0 {
		gives(byOff, f.Off-w.Off, w.Off, "%s to take off", words.Minutes(f.Off))
	}
	slackMM := craft.EndsSlack
	if c.hung {
		slackMM = craft.EndsHungSlack
	}
	if p.short > slackMM {
		line, _ := fall.LineOf(w.To)
		gives(byLength, p.short, 1000, "ends %s above the %s", invalid.Length(p.short), line.Name)
	}
	if c.hung {
		hard(f.Full < craft.BaldLayers, byFullness, f.Full, "%.2f pieces over one another: bald", f.Full)
		gives(byFullness, w.Layers()-craft.LayersSlack-f.Full, w.Layers(), "%.2f pieces over one another, not %.1f", f.Full, w.Layers())
		gives(byCover, f.Shows-craft.MostTrackShown, 1000, "%s of cornrow shows", invalid.Length(f.Shows))
		gives(byCover, f.Bare-craft.MostBareScalp-partedOff(sol), 0.2, "%.0f %% of the scalp lies bare", 100*f.Bare)
	}
	return out
}

// mostLeft is how many pieces in hand are kept as spares and for thin spots.
const mostLeft = 4

// hurtBy is the mass of the lightest install that hurt the same person; 0 for none.
func (s *search) hurtBy() (least float64) {
	for _, b := range s.Before {
		if !b.Comfortable && b.Mass > 0 && (least == 0 || b.Mass < least) {
			least = b.Mass
		}
	}
	return least
}

// bearsLeast is the water that the most delicate of the methods on a head bears.
func bearsLeast(sol *plan.Solved) method.Water {
	least := len(method.Waters) - 1
	for i := range sol.Places {
		least = min(least, slices.Index(method.Waters, sol.Methods[sol.Places[i].Way].Bears()))
	}
	return method.Waters[max(0, least)]
}

// onSpots is how many pieces hang inside a spot that is left out.
func onSpots(sol *plan.Solved) (n int) {
	for i := range sol.Places {
		p := &sol.Places[i]
		if p.Section < 0 && sol.Input.Parting.StaysFree(sol.Head, p.At) {
			n += p.Count
		}
	}
	return n
}

// partedOff is the share of the scalp that is left out on purpose.
func partedOff(sol *plan.Solved) float64 {
	whole := sol.Layout.OutArea
	for i := range sol.Places {
		whole += sol.Places[i].Plait.Area
	}
	return sol.Layout.OutArea / max(1, whole)
}
