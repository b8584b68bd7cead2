// Package freeze takes from a solved plan what a chair, a quote and a booking keep as it was when
// they were made, whatever becomes of the plan.
package freeze

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/attach"
	"kladotex/core/care"
	"kladotex/core/chair"
	"kladotex/core/hours"
	"kladotex/core/method"
	"kladotex/core/need"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/wear"
	"kladotex/core/workorder"
)

// Chair is a plan as those at the chair need it.
type Chair struct {
	Brief chair.Brief
	How   attach.How
	// Wear is the head as it is worn afterwards.
	Wear wear.Brief
}

// ForChair freezes a plan for the chair.
func ForChair(sol *plan.Solved) (Chair, error) {
	in := sol.Input
	n, err := need.Of(sol)
	if err != nil {
		return Chair{}, err
	}
	d := hours.WorkOf(sol)
	p := d.Day(need.Tasks(sol, n))
	out := Chair{How: attach.How{Work: attach.Of(sol), Plait: attach.Plaiting(in)}}
	out.How.Before, out.How.After = attach.Around(in)
	b := &out.Brief
	*b = chair.Brief{
		Schema: chair.Schema, OwnHead: in.OwnHead, Child: in.Child, ByRow: in.WorkOrder().ByRow || len(d.Hands) > 1,
		Rests: chair.Rests{After: d.Crew.Breaks.After, Long: d.Crew.Breaks.Long, Arms: d.Crew.Breaks.Arms},
		Alone: p.Sum(), Together: p.Sum(),
	}
	if p.Alone > 0 {
		b.Alone = p.Alone
	}
	for _, h := range d.Hands {
		b.Hands = append(b.Hands, chair.Hand{Key: h.Key, Person: h.Person, Name: h.Name, Plaits: h.Does != plan.DoesAttaches, Attaches: h.Does != plan.DoesPlaits})
	}
	b.Pieces = chairPieces(sol, n)
	b.Rows = chairRows(d.Rows)
	b.Places = chairPlaces(d, out.How.Work)
	chairGoods(sol, b)
	for i := range p.Sittings {
		b.Sittings = append(b.Sittings, chair.Sitting{Name: p.SittingName(i), Minutes: p.Sittings[i].Minutes})
	}
	b.Tasks = chairTasks(d, p.Sittings)
	out.Wear = care.Brief(sol, out.How.Work)
	return out, nil
}

// chairPieces are the plan's pieces with what is needed of them. What is at hand is what the packs
// to buy hold.
func chairPieces(sol *plan.Solved, n need.Need) []chair.Piece {
	out := make([]chair.Piece, len(sol.Input.Pieces))
	for i, p := range sol.Input.Pieces {
		out[i] = chair.Piece{Key: p.Key, Item: p.Item, Name: p.Name, Colour: p.Colour, Swatch: p.Swatch, Yield: p.Pack.Yield(), Per: p.Pack.Cuts * p.Pack.Splits}
		for _, need := range n.Pieces {
			if need.Piece == p.Key {
				out[i].Packs, out[i].Have, out[i].Need = need.Order.Packs, need.Order.Units, need.OnHead-need.Accents+need.Fill
			}
		}
	}
	return out
}

// WrapKey and ThingKey name the needs of a plan that are no pieces: the wrapping hair of a way, and an
// accent that is a small thing.
func WrapKey(way string) string  { return "wrap:" + way }
func ThingKey(accent int) string { return fmt.Sprint("thing:", accent) }

// chairGoods puts what goes on beside the pieces, and how much of it at each place.
func chairGoods(sol *plan.Solved, b *chair.Brief) {
	in := sol.Input
	b.Goods = []chair.Good{}
	put := func(place int, g chair.Good, count int) {
		k := slices.IndexFunc(b.Goods, func(x chair.Good) bool { return x.Key == g.Key })
		if k < 0 {
			k = len(b.Goods)
			b.Goods = append(b.Goods, g)
		}
		b.Places[place].With = append(b.Places[place].With, chair.With{Good: k, Count: count})
	}
	for i := range sol.Places {
		p := &sol.Places[i]
		if p.Kept {
			continue
		}
		for _, a := range p.Accents {
			if k := sol.Input.AccentPiece(a); k >= 0 {
				x := in.Pieces[k]
				put(i, chair.Good{Key: x.Key, Item: x.Item, Name: x.Name, Colour: x.Colour, Per: x.Pack.Cuts * x.Pack.Splits}, 1)
			} else if t := in.Accents[a].Thing; t != nil {
				put(i, chair.Good{Key: ThingKey(a), Item: t.Item, Name: t.Name, Colour: t.Colour, Per: 1}, 1)
			}
		}
		way := &in.Ways[p.Way]
		if n := sol.Works[i].Strands; n > 0 && way.Wrapping != nil {
			h := way.Wrapping
			put(i, chair.Good{Key: WrapKey(way.Key), Item: h.Item, Name: wrappingName(in, way.Key), Colour: h.Colour, Per: max(1, h.Cuts)}, n)
		}
	}
}

// wrappingName is what the wrapping hair of a way is called.
func wrappingName(in plan.Input, way string) string {
	i := slices.IndexFunc(in.Ways, func(w plan.Way) bool { return w.Key == way })
	return cmp.Or(in.Ways[i].Wrapping.Name, "Wrapping hair, "+in.WayName(way))
}

func chairRows(rows []workorder.Row) []chair.Row {
	out := make([]chair.Row, len(rows))
	for r, row := range rows {
		out[r] = chair.Row{Name: row.Name, Region: row.Group.Name(), Left: row.Side == workorder.Left, Mirror: -1}
		if row.Side == workorder.Middle {
			continue
		}
		other := strings.NewReplacer("left", "right", "right", "left").Replace(row.Name)
		out[r].Mirror = slices.IndexFunc(rows, func(o workorder.Row) bool { return o.Name == other && o.Group == row.Group })
	}
	return out
}

// chairPlaces are the places with what is measured of each at the head.
func chairPlaces(d *hours.Work, work []attach.Attachment) []chair.Place {
	out := make([]chair.Place, len(d.Places))
	for i := range d.Places { // those that are kept belong to no row that is worked at
		p := &d.Places[i]
		out[i] = chair.Place{ID: p.ID, Piece: p.Piece, Hook: p.Ground != method.OnPlait}
	}
	towards := func(i int) r3.Vec {
		at := parting.Toward(d.Head, d.Places[i].At)
		return r3.Vec{X: at[0], Y: at[1], Z: at[2]}
	}
	for r, row := range d.Rows {
		for _, i := range row.Places {
			p := &d.Places[i]
			c := chair.Place{ID: p.ID, Row: r, Piece: p.Piece, Count: p.Count, Hook: p.Ground != method.OnPlait}
			c.Step = slices.IndexFunc(work, func(a attach.Attachment) bool {
				return a.Way == d.Input.Ways[p.Way].Key && a.Piece == d.Input.Pieces[p.Piece].Key && a.Ground == p.Ground
			})
			for _, a := range p.Accents {
				c.Beside = append(c.Beside, accentName(d.Input, a))
			}
			if p.Section >= 0 {
				s := &d.Layout.Sections[p.Section]
				c.Middle, c.Part, c.Up = s.Part, len(d.Layout.PartLine) > 0, s.Height.Mean
			} else {
				at := towards(i)
				c.Middle = d.Head.Arc(at, r3.Unit(r3.Vec{X: at.X, Z: at.Z}))
				if i > 0 && p.Carrier() == d.Places[i-1].Carrier() {
					c.Up = d.Head.Arc(at, towards(i-1))
				}
			}
			out[i] = c
		}
	}
	return out
}

// accentName says an accent.
func accentName(in plan.Input, a int) string {
	if t := in.Accents[a].Thing; t != nil {
		return t.Name
	}
	return in.Piece(in.Accents[a].Piece).Called()
}

// chairTasks are the steps of the day, taken apart into places.
func chairTasks(d *hours.Work, sittings []hours.DaySitting) []chair.Task {
	sitting := make([]int, len(d.Steps))
	for k, s := range sittings {
		for _, at := range s.Steps() {
			sitting[at] = k
		}
	}
	plait, attach := d.Timed(pace.Worker{Hand: pace.Practised, Own: 1, New: d.Hands[0].New})
	var out []chair.Task
	for i := range d.Steps {
		s := &d.Steps[i]
		if s.Row < 0 {
			t := chair.Task{Key: string(s.Kind) + "/" + s.Name, Kind: s.Kind, Skill: string(s.Kind), Name: s.Name, Place: -1, Sitting: sitting[i], Rate: s.Rate, Arms: s.Arms}
			for _, m := range s.By {
				if m == 0 { // they do not do it, but they may
					m = slices.Max(s.By)
				}
				t.Minutes = append(t.Minutes, m)
			}
			out = append(out, t)
			continue
		}
		for _, at := range s.Places {
			p := &d.Places[at]
			t := chair.Task{Key: chair.AttachKey(p.ID), Kind: s.Kind, Skill: string(d.Input.Ways[p.Way].Method), Place: at, Sitting: sitting[i], Rate: attach[at], Arms: s.Arms}
			by := d.Attach
			if s.Plaits {
				t.Key, t.Skill, t.Rate, by = chair.PlaitKey(p.ID), plan.PlaitingSkill, plait[at], d.Plait
			}
			for k := range d.Hands {
				t.Minutes = append(t.Minutes, by[k][at])
			}
			out = append(out, t)
		}
	}
	return out
}
