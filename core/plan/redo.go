package plan

import (
	"context"
	"math"
	"slices"

	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/wear"
)

// Redo is a plan of the outer rows of a head that is worn: they are taken off, parted, plaited and
// attached again, and all else stays as it hangs.
type Redo struct {
	// Install is the one the head is worn from.
	Install string `json:"install" maxLength:"64" doc:"Id of the install the head is worn from"`
	// Rows is 1 for the row at the hairline, 2 for the row behind it too.
	Rows int `json:"rows" minimum:"1" maximum:"2" doc:"1 for the row at the hairline, 2 for the row behind it too"`
}

const outerRows = 2

// outer is, for every place, the outer row it belongs to: 1 for plaits at the hairline, 2 for those
// beside them, 0 for all others and for what is hooked on a base.
func outer(f *finder, l *parting.Layout, places []Place) []int {
	row := make([]int, len(places))
	ring := map[string]bool{}
	for i := range places {
		if p := &places[i]; p.Ground == method.OnPlait && p.Section >= 0 && f.atHairline(p) {
			row[i] = 1
			ring[p.ID] = true
		}
	}
	for i := range places {
		p := &places[i]
		if row[i] == 0 && p.Ground == method.OnPlait && p.Section >= 0 &&
			slices.ContainsFunc(l.Sections[p.Section].Neighbours, func(id string) bool { return ring[id] }) {
			row[i] = 2
		}
	}
	return row
}

// keep marks the places that stay as they hang.
func (in Input) keep(f *finder, l *parting.Layout, places []Place) {
	if in.Redo == nil {
		return
	}
	for i, row := range outer(f, l, places) {
		places[i].Kept = row == 0 || row > in.Redo.Rows
	}
}

// checkKept refuses a plan of outer rows of a head that has none.
func (w *worked) checkKept() error {
	if w.in.Redo == nil || slices.ContainsFunc(w.res.Places, func(p Place) bool { return !p.Kept }) {
		return nil
	}
	var bad invalid.Errors
	bad.Add("redo.rows", "No plaits hang loose at this hairline: there is no outer row to do again.")
	return bad
}

// undoShare is what undoing a plait or a track takes ÷ what making it takes. Common practice, no
// source.
const undoShare = 0.35

// undone is what practised hands take to take a place down, and to undo its plait, minutes.
func (w *worked) undone(i int) (off, base float64) {
	p := &w.res.Places[i]
	if t, has := w.plaitTask(i); has {
		base = undoShare * t.Minutes
	}
	return w.methods[p.Way].Off() * float64(p.Count), base
}

// settleTask is what comes before the first part: of a head that is worn, taking off what is done
// again too.
func (w *worked) settleTask() pace.Task {
	t := settleTask
	if w.in.Redo != nil {
		for i := range w.res.Places {
			if !w.res.Places[i].Kept {
				off, base := w.undone(i)
				t.Minutes += off + base
			}
		}
	}
	return t
}

// areaOrder is the order in which the parts of a head come off: the back first, what shows last.
var areaOrder = []RowGroup{GroupBase, GroupBehind, GroupFront, GroupPart, GroupHairline}

// WornOf is the head of a plan as it is worn once it is done, before anything happened to it. Its errors
// are those of [Compute].
func WornOf(ctx context.Context, in Input) (wear.Brief, error) {
	w, err := in.resolved(ctx, parting.Lay)
	if err != nil {
		return wear.Brief{}, err
	}
	w.workAll()
	return w.worn(w.work()), ctx.Err()
}

// worn is the head as it is worn once the last piece is on.
func (w *worked) worn(work []Attachment) wear.Brief {
	in := w.in
	b := wear.Brief{
		Schema: wear.Schema, OwnHead: in.OwnHead, Child: in.Child, Tender: in.Hair.Tender, Edges: in.Hair.Edges, Texture: in.Hair.Texture, Structure: in.Parting.Structure,
		Water: in.water(), Wish: in.wish().Weeks, Mass: w.weight(), Hair: in.Hair.Longest(), Strand: in.Hair.Strand, Things: []wear.Thing{},
	}
	taken := 0.0
	f := newFinder(in, w.head, &w.layout, w.res.Places)
	rows := outer(f, &w.layout, w.res.Places)
	areas := map[RowGroup]*wear.Area{}
	for i := range w.res.Places {
		p := &w.res.Places[i]
		taken += p.Plait.Area
		_, _, group, _ := w.workRowOf(f, p)
		if areas[group] == nil {
			areas[group] = &wear.Area{Name: regionNames[group]}
		}
		off, base := w.undone(i)
		a := areas[group]
		a.Places, a.Pieces, a.Off = a.Places+1, a.Pieces+p.Count, a.Off+off
		b.Base += base
		if k := rows[i] - 1; k >= 0 {
			r := &b.Ring[k]
			r.Places, r.Pieces = r.Places+1, r.Pieces+p.Count
			r.Minutes += off + base
			if t, has := w.plaitTask(i); has {
				r.Minutes += t.Minutes
			}
			for _, t := range w.attachTasks(nil, i) {
				r.Minutes += t.Minutes
			}
		}
	}
	for _, t := range w.baseTasks() {
		b.Base += undoShare * t.Minutes
	}
	b.Taken = taken / max(1, taken+w.layout.OutArea)
	b.Taken = math.Round(1000*b.Taken) / 1000
	for _, g := range areaOrder {
		if a := areas[g]; a != nil {
			b.Areas = append(b.Areas, *a)
		}
	}
	for _, a := range work {
		piece := in.Piece(a.Piece)
		b.Parts = append(b.Parts, wear.Part{
			Key: a.Piece, Name: piece.Called(), Method: a.Method, Ground: a.Ground, Form: piece.Form, Places: a.Places, Pieces: a.Pieces, CutBelow: a.CutBelow, TakesDown: a.TakeDown,
		})
	}
	counts := make([]int, len(in.Accents))
	for i := range w.res.Places {
		for _, a := range w.res.Places[i].Accents {
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
