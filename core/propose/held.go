package propose

import (
	"context"

	"kladotex/core/judge"
	"kladotex/core/plan"
)

// Held is a plan held against the wish it carries.
type Held struct {
	Facts Figures `json:"facts"`
	// Breaks are what it misses of the wish and of what the head bears; empty where it meets both.
	Breaks []string `json:"breaks"`
}

// Hold holds a plan, as it is, against its wish. The error is that of [plan.Solve].
func Hold(ctx context.Context, b Begin) (Held, error) {
	out := Held{Breaks: []string{}}
	sol, err := plan.Solve(ctx, b.Head)
	if err != nil {
		return out, err
	}
	s := &search{Begin: b, wish: customary(b.wished(), b.Head)}
	piece := b.Head.Piece(b.Head.Uses[0].Piece)
	p := candidatePiece{Piece: piece}
	for i := range s.wish.Lots {
		if l := &s.wish.Lots[i]; l.Piece.Name == piece.Name && l.Piece.Form == piece.Form {
			p.lot = l
		}
	}
	c := &Candidate{Input: b.Head}
	if err := s.fill(c, p, sol, judge.Count(sol)); err != nil {
		return out, err
	}
	if err := s.drape(ctx, c, p, sol); err != nil {
		return out, err
	}
	out.Facts = c.Facts
	for _, l := range c.Limits {
		out.Breaks = append(out.Breaks, l.Says)
	}
	return out, nil
}
