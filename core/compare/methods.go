package compare

import (
	"context"
	"slices"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
)

// Advice compares the methods for one part of a head.
type Advice struct {
	// Where is what a use must say for a method to go there.
	Where   plan.WhereKind  `json:"where" enum:"everywhere,front,back,hairline,base"`
	Places  int             `json:"places"`
	Methods []method.Ranked `json:"methods"`
}

// advised are the parts of a head that methods are compared for: plaits everywhere, in front,
// behind and along the hairline, and the base.
var advised = []plan.WhereKind{plan.Everywhere, plan.InFront, plan.InBack, plan.AtHairline, plan.OnBase}

// Methods compares the methods for the whole head and for its parts, as far as they have places.
// The error is that of ctx when it ends first.
func Methods(ctx context.Context, sol *plan.Solved) ([]Advice, error) {
	out := []Advice{}
	for _, where := range advised {
		places := sol.Match(plan.Where{Kind: where})
		if where != plan.OnBase { // there a plait is hidden
			places = slices.DeleteFunc(places, func(i int) bool { return sol.Places[i].Ground != method.OnPlait })
		}
		// A side on which all plaits stand is the whole.
		side := where == plan.InFront || where == plan.InBack
		if len(places) == 0 || side && len(out) > 0 && len(places) == out[0].Places {
			continue
		}
		ranked := method.Compare(situation(sol, where, places), sol.Places[places[0]].Ground)
		out = append(out, Advice{where, len(places), ranked})
	}
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	return out, nil
}

// situation is a part of the head with what a method would be asked to do at its places.
func situation(sol *plan.Solved, where plan.WhereKind, places []int) method.Situation {
	wish := sol.Input.Wish()
	if where == plan.OnBase && sol.Input.Parting.Base.Under == parting.OverPlaits {
		wish.NoCornrows = false // a net over loose plaits asks for none
	}
	s := method.Situation{Places: len(sol.Places), Slower: sol.Input.Worker(0).Guess(), Child: sol.Input.Child, Shows: where == plan.AtHairline, Wish: wish}
	switch where {
	case plan.AtHairline:
		s.Edges = sol.Input.Hair.Edges
	case plan.InFront:
		seen := 0
		for _, i := range places {
			if sol.Layout.Sections[sol.Places[i].Section].Seen {
				seen++
			}
		}
		s.Shows = 2*seen >= len(places)
	}
	for _, p := range sol.Input.Pieces {
		if !slices.Contains(s.Forms, p.Form) {
			s.Forms = append(s.Forms, p.Form)
		}
	}
	s.Jobs = func(m method.Method) []method.Job {
		way := sol.Input.WayOf(m)
		chosen := m.Decided(way.Choices)
		piece := slices.IndexFunc(sol.Input.Pieces, func(p hair.Piece) bool { return m.Suits(p.Form) })
		jobs := make([]method.Job, len(places))
		for k, i := range places {
			p := sol.Places[i]
			if piece >= 0 && !m.Suits(sol.Input.Pieces[p.Piece].Form) {
				p.Piece = piece
			}
			jobs[k] = sol.JobBy(&p, &way, chosen)
		}
		return jobs
	}
	return s
}
