// Package attach says how pieces go on and come off a solved plan: every method on every ground
// with its steps, and what is done before the first piece and after the last one.
package attach

import (
	"slices"
	"strings"

	"kladotex/core/method"
	"kladotex/core/plan"
	"kladotex/core/words"
)

// Attachment is how one piece goes on in one way on one ground, at all its places.
type Attachment struct {
	Way    string        `json:"way" doc:"Key of the method"`
	Method method.ID     `json:"method"`
	Piece  string        `json:"piece" doc:"Key of the piece"`
	Ground method.Ground `json:"ground"`
	Places int           `json:"places"`
	Pieces int           `json:"pieces"`
	// Plait, Thickness, Passes, Ribbon, Turns, Strands and Conceal are the least and the
	// most of its places.
	Plait     plan.Between  `json:"plaitMm" doc:"Length of the plaits to hide, mm"`
	Thickness plan.Between  `json:"thicknessMm" doc:"Thickness of the plaits, mm"`
	Passes    plan.Between  `json:"passes" doc:"Draws through the piece; 0 unless the method weaves"`
	Ribbon    plan.Between  `json:"ribbonMm" doc:"Wrapping hair for one place, mm; 0 unless the method wraps"`
	Turns     plan.Between  `json:"turns"`
	Strands   plan.Between  `json:"strands" doc:"Strands of wrapping hair for one place"`
	Attach    float64       `json:"attachMin" doc:"Minutes to fix one piece, practised"`
	Conceal   plan.Between  `json:"concealMin" doc:"Minutes to hide one plait, practised"`
	HidesBy   string        `json:"hidesBy" doc:"How the plait is hidden"`
	Wash      string        `json:"wash" doc:"How it bears washing"`
	Steps     []method.Step `json:"steps"`
	TakeDown  []method.Step `json:"takeDown" doc:"The moves in which it comes off"`
	CutBelow  float64       `json:"cutBelowMm" doc:"Distance from the root above which no piece is cut through, mm; 0 where none is"`
}

// Of folds the places into what is done at them, in the order of the plan's ways.
func Of(sol *plan.Solved) []Attachment {
	type group struct {
		Attachment
		way, piece  int
		short, long int
	}
	var groups []*group
	for i := range sol.Places {
		p := &sol.Places[i]
		if p.Kept {
			continue
		}
		k := slices.IndexFunc(groups, func(g *group) bool { return g.way == p.Way && g.piece == p.Piece && g.Ground == p.Ground })
		if k < 0 {
			way := sol.Input.Ways[p.Way]
			groups = append(groups, &group{way: p.Way, piece: p.Piece, short: i, long: i, Attachment: Attachment{
				Way: way.Key, Method: way.Method, Piece: sol.Input.Pieces[p.Piece].Key, Ground: p.Ground,
				HidesBy: sol.Methods[p.Way].HidesBy, Wash: sol.Methods[p.Way].Wash,
			}})
			k = len(groups) - 1
		}
		g, x := groups[k], sol.Works[i]
		first := g.Places == 0
		g.Places++
		g.Pieces += p.Count
		g.Attach = x.Attach
		g.Plait.Add(p.Plait.Length(), first)
		g.Thickness.Add(p.Plait.Diameter, first)
		g.Passes.Add(float64(x.Passes), first)
		g.Ribbon.Add(x.Ribbon, first)
		g.Turns.Add(x.Turns, first)
		g.Strands.Add(float64(x.Strands), first)
		g.Conceal.Add(x.Conceal, first)
		if p.Plait.Length() < sol.Places[g.short].Plait.Length() {
			g.short = i
		}
		if p.Plait.Length() > sol.Places[g.long].Plait.Length() {
			g.long = i
		}
	}
	slices.SortStableFunc(groups, func(a, b *group) int { return a.way - b.way })
	out := make([]Attachment, len(groups))
	for i, g := range groups {
		m := sol.Methods[g.way]
		places := method.Range{
			Short: sol.Job(&sol.Places[g.short]), Long: sol.Job(&sol.Places[g.long]),
			ShortWork: sol.Works[g.short], LongWork: sol.Works[g.long],
		}
		g.Steps = m.Steps(places)
		g.TakeDown, g.CutBelow = m.TakeDown(places)
		out[i] = g.Attachment
	}
	return out
}

// Methods names the methods in use, that of most places first.
func Methods(work []Attachment) string {
	places := map[method.ID]int{}
	var ids []method.ID
	for _, w := range work {
		if places[w.Method] == 0 {
			ids = append(ids, w.Method)
		}
		places[w.Method] += w.Places
	}
	slices.SortStableFunc(ids, func(a, b method.ID) int { return places[b] - places[a] })
	names := make([]string, len(ids))
	for i, id := range ids {
		m, _ := method.Lookup(id)
		names[i] = m.Name
		if i > 0 {
			names[i] = strings.ToLower(m.Name)
		}
	}
	return words.List(names)
}
