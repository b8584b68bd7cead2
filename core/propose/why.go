package propose

import (
	"context"
	"slices"

	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/wish"
)

// Asked is a way to do the head that somebody names, as far as they do.
type Asked struct {
	Base   parting.Structure `json:"base,omitempty" maxLength:"30"`
	SizeMM float64           `json:"sizeMm,omitempty" doc:"Width and height of a section"`
	Method method.ID         `json:"method,omitempty" maxLength:"8"`
	Piece  string            `json:"piece,omitempty" maxLength:"80" doc:"Name of a piece"`
	To     string            `json:"to,omitempty" maxLength:"20" doc:"Body line"`
}

// Why is what becomes of a way that was asked for.
type Why struct {
	// Says is the answer in one sentence.
	Says string `json:"says"`
	// Breaks are the limits it breaks, with by how much; empty where it would do.
	Breaks []string `json:"breaks"`
	// Gains and Loses are against what was offered instead.
	Gains []string `json:"gains"`
	Loses []string `json:"loses"`
	Title string   `json:"title,omitempty"`
	Facts *Figures `json:"facts,omitempty" doc:"What it comes to; left out where it cannot be worked out"`
}

// WhyNot works a way out that was asked for and says what speaks against it: the limits it breaks, or what it
// gains and loses against what was offered. The error is that of the wish or the head, or that of ctx.
func WhyNot(ctx context.Context, b Begin, a Asked, instead Figures) (Why, error) {
	out := Why{Breaks: []string{}, Gains: []string{}, Loses: []string{}}
	var bad invalid.Errors
	if a.Method != "" {
		if _, known := method.Lookup(a.Method); !known {
			bad.Add("method", "There is no method %q.", a.Method)
		}
	}
	if a.Base != "" {
		invalid.OneOf(&bad, "base", "The structure", a.Base, parting.Structures)
	}
	if a.SizeMM != 0 {
		bad.Length("sizeMm", "Section size", a.SizeMM, leastAsked, mostAsked)
	}
	if err := bad.Err(); err != nil {
		return out, err
	}
	if err := plan.Check(b.Head); err != nil {
		return out, err
	}
	if len(b.Stops) > 0 {
		out.Says = b.Stops[0].Says
		return out, nil
	}
	w := customary(b.wished(), b.Head)
	if a.Base != "" {
		w.Base = a.Base
	}
	if a.To != "" {
		w.To = a.To
	}
	if a.Piece != "" && !slices.ContainsFunc(w.Lots, func(l wish.InHand) bool { return l.Piece.Name == a.Piece }) {
		for _, p := range b.Shelf {
			if p.Name == a.Piece {
				b.Shelf = []hair.Piece{p}
				w.Look, w.Lots, w.Nothing = lookOf(p), nil, false
				break
			}
		}
	}
	s := &search{Begin: b, wish: w, tell: func(Progress) {}}
	if err := s.fitPieces(ctx); err != nil {
		return out, err
	}
	sizes := coarseSizes
	if a.SizeMM != 0 {
		sizes = []float64{a.SizeMM}
	}
	asked := slices.DeleteFunc(s.variants(sizes), func(v Variant) bool { return a.Method != "" && v.Method != a.Method })
	if len(asked) == 0 {
		out.Says = "That goes with none of the hair on offer."
		if len(s.out) > 0 {
			out.Says = s.out[0]
		}
		return out, nil
	}
	if err := s.rate(ctx, asked); err != nil {
		return out, err
	}
	nearest := slices.Clone(s.rated)
	slices.SortStableFunc(nearest, byMiss)
	if err := s.hang(ctx, hangable(nearest)); err != nil {
		return out, err
	}
	slices.SortStableFunc(nearest, byMiss)
	c := nearest[0]
	out.Title = c.title()
	if c.Facts.Pieces == 0 {
		out.Says = "It cannot be laid on this head."
		return out, nil
	}
	out.Facts = &c.Facts
	for _, l := range c.Limits {
		out.Breaks = append(out.Breaks, l.Says)
	}
	out.Gains, out.Loses = between(c.Facts, instead)
	switch {
	case len(out.Breaks) > 0:
		out.Says = "Because of this:"
	case len(out.Gains) == 0 && len(out.Loses) == 0:
		out.Says = "It would do, and nobody would notice a difference."
	case len(out.Gains) == 0:
		out.Says = "It would do; what is offered is no worse in anything, and better in this:"
	default:
		out.Says = "It would do. Against what is offered:"
	}
	return out, nil
}

// The sizes that may be asked about, mm.
const leastAsked, mostAsked = 9.0, 76.0

// hangable are the first few of a list that lie on the head.
func hangable(list []*Candidate) (out []*Candidate) {
	for _, c := range list {
		if len(out) < perSet && c.Facts.Pieces > 0 {
			out = append(out, c)
		}
	}
	return out
}

// lookOf is the look that a piece makes.
func lookOf(p hair.Piece) wish.Look {
	for _, l := range wish.Looks {
		if slices.Contains(l.Forms, p.Form) {
			return l.Key
		}
	}
	return ""
}
