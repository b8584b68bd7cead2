package propose

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"

	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/judge"
	"kladotex/core/plan"
	"kladotex/core/wish"
	"kladotex/core/words"
)

// chosen is a candidate that is offered, and as what.
type chosen struct {
	*Candidate
	key string
}

// The proposals.
const (
	quick    = "quick"
	balanced = "balanced"
	full     = "full"
)

// choose takes the quick, the full and the balanced one of those that meet the wish; two where no third differs,
// one where nothing does.
func choose(met []*Candidate, w wish.Wanted) []chosen {
	best := front(met, whole)
	first := slices.MinFunc(best, func(a, b *Candidate) int {
		return cmp.Or(compareSteps(byMinutes, a, b), compareSteps(byCost, a, b), compareSteps(byLoad, a, b), cmp.Compare(a.order, b.order))
	})
	enough := wish.Layers[wish.Usual]
	switch w.Full {
	case wish.Airy:
		enough *= 0.8
	case wish.Full:
		enough = wish.Layers[wish.Full]
	}
	// As full as usual is full enough; beyond that it is told by fifths where full was asked for.
	fullness := func(c *Candidate) int {
		if w.Full == wish.Full {
			return int(5 * min(c.Facts.Full, 2*enough))
		}
		return min(1, int(c.Facts.Full/enough))
	}
	last := slices.MinFunc(best, func(a, b *Candidate) int {
		return cmp.Or(
			cmp.Compare(heavyOf(a), heavyOf(b)), cmp.Compare(fullness(b), fullness(a)), compareSteps(bySingles, a, b), compareSteps(byWear, a, b),
			compareSteps(byMinutes, a, b), compareSteps(byCost, a, b), cmp.Compare(a.order, b.order))
	})
	out := []chosen{{first, quick}}
	if !differ(first, last) {
		// Another one that differs is offered in its place, the one that pleases best in all.
		if other := pleasing(best, []*Candidate{first}, first.Facts.Minutes, math.Inf(1)); other != nil {
			return append(out, chosen{other, full})
		}
		return out
	}
	if between := pleasing(best, []*Candidate{first, last}, first.Facts.Minutes, last.Facts.Minutes); between != nil {
		out = append(out, chosen{between, balanced})
	}
	return append(out, chosen{last, full})
}

func compareSteps(f facet, a, b *Candidate) int { return cmp.Compare(f.steps(a), f.steps(b)) }

// heavyOf is 1 for a candidate whose heaviest places carry more than is kind: twice what is usual, and what is usual
// where a head bears less.
func heavyOf(c *Candidate) int {
	most := craft.KindLoad
	if gentle(c.Input) {
		most = craft.GentleLoad
	}
	if c.Facts.Load > most {
		return 1
	}
	return 0
}

// differ tells whether two are worth offering side by side: another base with a difference that is noticed, or
// hours a quarter apart.
func differ(a, b *Candidate) bool {
	if a == b {
		return false
	}
	if a.Variant.Base != b.Variant.Base {
		for _, f := range whole {
			if f.steps(a) != f.steps(b) {
				return true
			}
		}
	}
	low, high := min(a.Facts.Minutes, b.Facts.Minutes), max(a.Facts.Minutes, b.Facts.Minutes)
	return high > 1.25*low
}

// thirdBase is how much less a plan may please and still be taken since it stands on a base of its own.
const thirdBase = 0.15

// pleasing is the one between two times that differs from those taken and whose worst facet is best; nil for
// none. A base that is not among them is preferred if it loses little.
func pleasing(list, taken []*Candidate, from, to float64) *Candidate {
	worst := func(c *Candidate) float64 {
		least := 1.0
		for _, f := range whole {
			low, high := math.Inf(1), math.Inf(-1)
			for _, x := range list {
				low, high = min(low, f.of(x)), max(high, f.of(x))
			}
			if high > low {
				least = min(least, (high-f.of(c))/(high-low))
			}
		}
		if !slices.ContainsFunc(taken, func(t *Candidate) bool { return t.Variant.Base == c.Variant.Base }) {
			least += thirdBase
		}
		return least
	}
	var best *Candidate
	most := math.Inf(-1)
	for _, c := range list {
		if c.Facts.Minutes <= from || c.Facts.Minutes >= to || slices.ContainsFunc(taken, func(t *Candidate) bool { return !differ(t, c) }) {
			continue
		}
		if w := worst(c); w > most {
			best, most = c, w
		}
	}
	return best
}

// hold says of every proposal what it gains and loses against each of the others.
func hold(list []Proposal) {
	for i := range list {
		for k := range list {
			if i == k {
				continue
			}
			gains, loses := between(list[i].Facts, list[k].Facts)
			list[i].Against = append(list[i].Against, Against{list[k].Key, gains, loses})
		}
	}
}

// between says facet by facet, in whole steps that anybody would notice, what one plan gains and loses against another.
func between(a, b Figures) (gains, loses []string) {
	gains, loses = []string{}, []string{}
	say := func(by, step float64, better, worse string) {
		switch {
		case by <= -step:
			gains = append(gains, better)
		case by >= step:
			loses = append(loses, worse)
		}
	}
	minutes := words.Minutes(15 * math.Round(math.Abs(a.Minutes-b.Minutes)/15))
	say(a.Minutes-b.Minutes, 15, minutes+" quicker", minutes+" longer")
	packs := words.Count(int(math.Abs(float64(a.Packs-b.Packs))), "pack")
	say(float64(a.Packs-b.Packs), 1, packs+" fewer", packs+" more")
	grams := words.Grams(math.Abs(a.Weight - b.Weight))
	say(a.Load-b.Load, 0.25, "lighter where it is heaviest", "heavier where it is heaviest")
	say(a.Weight-b.Weight, 40, grams+" lighter", grams+" heavier")
	say(b.Full-a.Full, 0.08, "fuller", "less full")
	say(a.Bare-b.Bare, 0.015, "less scalp shows", "more scalp shows")
	say(a.Shows-b.Shows, 40, "less cornrow shows", "more cornrow shows")
	say(b.Singles-a.Singles, 0.15, "more plaits that hang one by one", "fewer plaits that hang one by one")
	weeks := words.Count(int(math.Abs(float64(a.Weeks-b.Weeks))), "week")
	say(float64(b.Weeks-a.Weeks), 1, weeks+" longer worn", weeks+" shorter worn")
	off := words.Minutes(15 * math.Round(math.Abs(a.Off-b.Off)/15))
	say(a.Off-b.Off, 15, off+" quicker off", off+" longer to take off")
	sittings := words.Count(int(math.Abs(float64(a.Sittings-b.Sittings))), "sitting")
	say(float64(a.Sittings-b.Sittings), 1, sittings+" fewer", sittings+" more")
	return gains, loses
}

// more is what the next half hour and the next pack would buy: of the plans that were rated with the same piece,
// those of the same base first, the fullest that is noticed.
func (s *search) more(c *Candidate) []string {
	within := func(in func(*Candidate) bool) *Candidate {
		var best *Candidate
		for _, same := range []bool{true, false} {
			for _, x := range s.rated {
				if x == c || x.broken() || len(x.Limits) > 0 || x.Variant.Piece != c.Variant.Piece || same != (x.Variant.Base == c.Variant.Base) || !in(x) {
					continue
				}
				if byThick.steps(x) < byThick.steps(c) && (best == nil || x.Facts.thick > best.Facts.thick) {
					best = x
				}
			}
			if best != nil {
				return best
			}
		}
		return nil
	}
	what := func(x *Candidate) string {
		if x == nil {
			return "nothing that is noticed"
		}
		by := words.Count(x.Facts.Pieces-c.Facts.Pieces, "piece") + " more"
		if x.Facts.Pieces <= c.Facts.Pieces {
			by = "thicker pieces"
		}
		if x.Variant.Base != c.Variant.Base {
			by += ", " + x.Variant.Base.Name()
		}
		return by
	}
	half := within(func(x *Candidate) bool { return x.Facts.Minutes <= c.Facts.Minutes+30 })
	out := []string{"Half an hour more: " + what(half) + "."}
	if s.pieces[c.Variant.Piece].lot == nil {
		pack := within(func(x *Candidate) bool { return x.Facts.Packs <= c.Facts.Packs+1 })
		out = append(out, "A pack more: "+what(pack)+".")
	}
	return out
}

// warn is what must be known of a proposal.
func (s *search) warn(ctx context.Context, c *Candidate) []string {
	out := []string{}
	sol, err := plan.Attempt(ctx, c.Input)
	if err != nil {
		return out
	}
	out = append(out, judge.HeadSays(sol, s.Before)...)
	p := c.Input.Pieces[0]
	if p.Open() {
		out = append(out, "Ends are parted by hand every day, at the nape first: they mat within days.")
	}
	if len(c.Input.Parting.LeftOut) > 0 {
		out = append(out, "Nothing hangs on the spots that stay free, nor is anything plaited there: nobody knows what such a spot bears.")
	}
	if s.pieces[c.Variant.Piece].trimmed {
		out = append(out, "Its ends are cut to where they were wished once all hang.")
	}
	if f := s.pieces[c.Variant.Piece]; f.lot != nil {
		left := f.lot.Count - c.Facts.Pieces
		if left > 0 {
			out = append(out, fmt.Sprintf("%s of those in hand left: spares at the hairline, and to fill thin spots behind.", words.Count(left, "piece")))
		}
		if p.Item == "" {
			out = append(out, "Put what is in hand into the stash, so that what is bought takes it from there.")
		}
		if f.lot.Worn > 0 {
			out = append(out, fmt.Sprintf("The %s that show wear hang inside, farthest from hairline and part; wash them before.", words.Count(f.lot.Worn, "piece")))
		}
	}
	if p.Form == hair.BraidingHair {
		out = append(out, "Braided by hand from the root: nothing is hung, and nothing comes back to be used again.")
	}
	return out
}
