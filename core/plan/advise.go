package plan

import (
	"context"
	"slices"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
)

// Advice compares the methods for one part of a head.
type Advice struct {
	// Where is what a use must say for a method to go there.
	Where   WhereKind       `json:"where" enum:"everywhere,front,back,hairline,base"`
	Places  int             `json:"places"`
	Methods []method.Ranked `json:"methods"`
}

// advised are the parts of a head that methods are compared for: plaits everywhere, in front,
// behind and along the hairline, and the base.
var advised = []WhereKind{Everywhere, InFront, InBack, AtHairline, OnBase}

// Advise compares the methods for the whole head and for its parts, as far as they have
// places. The error is that of [Compute].
func Advise(ctx context.Context, in Input) ([]Advice, error) {
	w, err := in.resolved(ctx, parting.Lay)
	if err != nil {
		return nil, err
	}
	out := []Advice{}
	f := newFinder(in, w.head, &w.layout, w.res.Places)
	for _, where := range advised {
		places := f.match(Where{Kind: where})
		if where != OnBase { // there a plait is hidden
			places = slices.DeleteFunc(places, func(i int) bool { return w.res.Places[i].Ground != method.OnPlait })
		}
		// A side on which all plaits stand is the whole.
		side := where == InFront || where == InBack
		if len(places) == 0 || side && len(out) > 0 && len(places) == out[0].Places {
			continue
		}
		ranked := method.Compare(w.situation(where, places), w.res.Places[places[0]].Ground)
		out = append(out, Advice{where, len(places), ranked})
	}
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	return out, nil
}

// situation is a part of the head with what a method would be asked to do at its places.
func (w *worked) situation(where WhereKind, places []int) method.Situation {
	s := method.Situation{Places: len(w.res.Places), Slower: w.worker(0).Guess(), Child: w.in.Child, Shows: where == AtHairline, Wish: w.in.wish()}
	switch where {
	case AtHairline:
		s.Edges = w.in.Hair.Edges
	case InFront:
		seen := 0
		for _, i := range places {
			if w.layout.Sections[w.res.Places[i].Section].Seen {
				seen++
			}
		}
		s.Shows = 2*seen >= len(places)
	}
	for _, p := range w.in.Pieces {
		if !slices.Contains(s.Forms, p.Form) {
			s.Forms = append(s.Forms, p.Form)
		}
	}
	s.Jobs = func(m method.Method) []method.Job {
		way := w.in.wayOf(m)
		chosen := m.Decided(way.Choices)
		piece := slices.IndexFunc(w.in.Pieces, func(p hair.Piece) bool { return m.Suits(p.Form) })
		jobs := make([]method.Job, len(places))
		for k, i := range places {
			p := w.res.Places[i]
			if piece >= 0 && !m.Suits(w.in.Pieces[p.Piece].Form) {
				p.Piece = piece
			}
			jobs[k] = w.jobIn(&p, &way, chosen)
		}
		return jobs
	}
	return s
}

// wayOf is a method as the plan has it set, else as it usually is.
func (in Input) wayOf(m method.Method) Way {
	if i := slices.IndexFunc(in.Ways, func(w Way) bool { return w.Method == m.ID }); i >= 0 {
		return in.Ways[i]
	}
	return NewWay(string(m.ID), m.ID)
}
