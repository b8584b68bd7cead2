// Package care carries a solved plan over into what is worn: the parts and rows that the clock, the
// care and the taking down of the head go by.
package care

import (
	"math"

	"kladotex/core/attach"
	"kladotex/core/craft"
	"kladotex/core/hours"
	"kladotex/core/plan"
	"kladotex/core/wear"
	"kladotex/core/workorder"
)

// areaOrder is the order in which the parts of a head come off: the back first, what shows last.
var areaOrder = []workorder.Group{workorder.Base, workorder.Behind, workorder.Front, workorder.Part, workorder.Hairline}

// Brief is the head of a plan as it is worn once the last piece is on, before anything happened to
// it. work is what hangs, by [attach.Of].
func Brief(sol *plan.Solved, work []attach.Attachment) wear.Brief {
	in := sol.Input
	b := Worn(sol, work)
	taken := 0.0
	rows := sol.Outer()
	areas := map[workorder.Group]*wear.Area{}
	for i := range sol.Places {
		p := &sol.Places[i]
		taken += p.Plait.Area
		_, _, group, _ := workorder.RowOf(sol, p)
		if areas[group] == nil {
			areas[group] = &wear.Area{Name: group.Name()}
		}
		off, base := hours.Undo(sol, i)
		a := areas[group]
		a.Places, a.Pieces, a.Off = a.Places+1, a.Pieces+p.Count, a.Off+off
		b.Base += base
		if k := rows[i] - 1; k >= 0 {
			r := &b.Ring[k]
			r.Places, r.Pieces = r.Places+1, r.Pieces+p.Count
			r.Minutes += off + base
			for _, t := range hours.Tasks(sol, i) {
				r.Minutes += t.Minutes
			}
		}
	}
	for _, t := range hours.BaseTasks(sol) {
		b.Base += craft.UndoShare * t.Minutes
	}
	b.Taken = taken / max(1, taken+sol.Layout.OutArea)
	b.Taken = math.Round(1000*b.Taken) / 1000
	for _, g := range areaOrder {
		if a := areas[g]; a != nil {
			b.Areas = append(b.Areas, *a)
		}
	}
	counts := make([]int, len(in.Accents))
	for i := range sol.Places {
		for _, a := range sol.Places[i].Accents {
			counts[a]++
		}
	}
	for a, n := range counts {
		if t := in.Accents[a].Thing; t != nil && n > 0 {
			b.Things = append(b.Things, wear.Thing{Name: t.Name, Item: t.Item, Colour: t.Colour, Count: n})
		}
	}
	return b
}

// Worn is what of a brief decides how long the head is worn: whose it is, what it stands on, what hangs. It is
// worked out in a moment, for a search over many plans.
func Worn(sol *plan.Solved, work []attach.Attachment) wear.Brief {
	in := sol.Input
	b := wear.Brief{
		Schema: wear.Schema, OwnHead: in.OwnHead, Child: in.Child, Tender: in.Hair.Tender, Edges: in.Hair.Edges, Texture: in.Hair.Texture, Structure: in.Parting.Structure,
		Water: attach.Water(in), Wish: in.Wish().Weeks, Mass: sol.Weight, Hair: in.Hair.Longest(), Strand: in.Hair.Strand, Things: []wear.Thing{},
	}
	for _, a := range work {
		piece := in.Piece(a.Piece)
		b.Parts = append(b.Parts, wear.Part{
			Key: a.Piece, Name: piece.Called(), Method: a.Method, Ground: a.Ground, Form: piece.Form, Ends: piece.Ends, Fibre: piece.Fibre, Places: a.Places, Pieces: a.Pieces, CutBelow: a.CutBelow, TakesDown: a.TakeDown,
		})
	}
	return b
}
