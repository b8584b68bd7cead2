// Package propose goes from a wish to plans: it lays and rates what a head could be given, keeps
// what nothing else beats, drapes that, and offers three that differ.
//
// Every candidate is a whole plan, and every figure of it is that of the packages that
// work a plan out: nothing is told of a proposal that the plan would not tell of itself. The work is
// capped by counts, never by the clock, and answers do not depend on how many workers there are.
//
// Lengths are mm, masses g, times minutes, money minor units of the studio's currency.
package propose

import (
	"context"
	"fmt"
	"slices"

	"kladotex/core/fall"
	"kladotex/core/plan"
)

// Search answers a wish. tell is told of progress, and may be nil. The error is that of the wish or the head,
// as [invalid.Errors], or that of ctx when it ends first.
func Search(ctx context.Context, b Begin, tell func(Progress)) (Answer, error) {
	out := Nothing()
	if err := plan.Check(b.Head); err != nil {
		return out, err
	}
	w := b.wished()
	if len(b.Stops) > 0 {
		out.Stops = b.Stops
		return out, nil
	}
	if w.Look == "" && len(w.Lots) == 0 {
		out.Asks = AskLook
		return out, nil
	}
	if tell == nil {
		tell = func(Progress) {}
	}
	s := &search{Begin: b, wish: customary(w, b.Head), tell: tell}
	if err := s.run(ctx); err != nil {
		return out, err
	}
	out.Done = s.done
	out.Says = s.says()
	if !b.Measured {
		sizes, err := s.sizes(ctx)
		if err != nil {
			return out, err
		}
		out.Sizes = sizes
	}
	met := s.met()
	if len(met) == 0 {
		gives, err := s.gives(ctx)
		out.Gives = gives
		return out, err
	}
	for _, p := range choose(met, s.wish) {
		out.Proposals = append(out.Proposals, s.proposal(ctx, p))
	}
	hold(out.Proposals)
	return out, nil
}

// run lays, rates and hangs.
func (s *search) run(ctx context.Context) error {
	if err := s.fitPieces(ctx); err != nil {
		return err
	}
	coarse := s.variants(coarseSizes)
	if err := s.rate(ctx, coarse); err != nil {
		return err
	}
	// Round what did best an eighth of an inch either way.
	near := s.around(thin(front(s.possible(), cheap), firstFront))
	if err := s.rate(ctx, near); err != nil {
		return err
	}
	return s.hang(ctx, s.hangs())
}

// hangs are those worth hanging: the front of those that meet the wish as far as is known by then, and, where
// none do, those that miss it by the least.
func (s *search) hangs() []*Candidate {
	all := s.possible()
	meets := slices.DeleteFunc(slices.Clone(all), func(c *Candidate) bool { return len(c.Limits) > 0 })
	if len(meets) == 0 {
		slices.SortStableFunc(all, byMiss)
		return all[:min(len(all), mostHung/2)]
	}
	return thin(front(meets, cheap), mostHung)
}

// met are the hung ones that meet the whole wish.
func (s *search) met() []*Candidate {
	return slices.DeleteFunc(slices.Clone(s.rated), func(c *Candidate) bool { return !c.hung || len(c.Limits) > 0 })
}

// proposal words a candidate that was chosen.
func (s *search) proposal(ctx context.Context, p chosen) Proposal {
	c := p.Candidate
	in := inside(ctx, c.Input, s.pieces[c.Variant.Piece].lot)
	return Proposal{Key: p.key, Title: c.title(), Input: in, Facts: c.Facts, Against: []Against{}, More: s.more(c), Says: s.warn(ctx, c)}
}

// says is what was left out, and why, in the order it was met.
func (s *search) says() []string {
	out := slices.Clone(s.out)
	if st := s.wish.Style; st != "" && st != fall.Down {
		out = append(out, fmt.Sprintf("What shows when it is worn %s was looked at, too.", worn[st]))
	}
	return out
}

// worn are the styles as they are spoken of.
var worn = map[fall.Style]string{fall.HalfUp: "half up", fall.Tied: "tied"}
