package plan

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/chair"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/wear"
)

// regionNames are the parts of the working order as they are spoken of.
var regionNames = map[RowGroup]string{
	GroupBase: "on the base", GroupBehind: "behind", GroupFront: "in front", GroupHairline: "at the hairline", GroupPart: "along the part",
}

// Chair is a plan as those at the chair need it.
type Chair struct {
	Brief chair.Brief
	How   How
	// Worn is the head as it is worn afterwards.
	Worn wear.Brief
}

// How is how a plan is done, step by step, as it was when it was frozen.
type How struct {
	// Before the first piece, Plait a section, Work the ways in which pieces go on, After the
	// last piece.
	Before []method.Step `json:"before"`
	Plait  method.Step   `json:"plait"`
	Work   []Attachment  `json:"work"`
	After  []method.Step `json:"after"`
}

// ChairOf freezes a plan for the chair. Its errors are those of [Compute].
func ChairOf(ctx context.Context, in Input) (Chair, error) {
	w, err := in.resolved(ctx, parting.Lay)
	if err != nil {
		return Chair{}, err
	}
	w.workAll()
	need, err := w.need()
	if err != nil {
		return Chair{}, err
	}
	d := w.day()
	p := d.plan(need)
	out := Chair{How: How{Work: w.work(), Plait: in.plaiting()}}
	out.How.Before, out.How.After = in.Around()
	b := &out.Brief
	*b = chair.Brief{
		Schema: chair.Schema, OwnHead: in.OwnHead, Child: in.Child, ByRow: in.order().ByRow || len(d.hands) > 1,
		Rests: chair.Rests{After: d.crew.Breaks.After, Long: d.crew.Breaks.Long, Arms: d.crew.Breaks.Arms},
		Alone: p.Sum(), Together: p.Sum(),
	}
	if p.Alone > 0 {
		b.Alone = p.Alone
	}
	for _, h := range d.hands {
		b.Hands = append(b.Hands, chair.Hand{Key: h.Key, Person: h.Person, Name: h.Name, Plaits: h.Does != DoesAttaches, Attaches: h.Does != DoesPlaits})
	}
	b.Pieces = w.chairPieces(need)
	b.Rows = chairRows(d.rows)
	b.Places = d.chairPlaces(out.How.Work)
	w.chairGoods(b)
	for i := range p.Sittings {
		b.Sittings = append(b.Sittings, chair.Sitting{Name: p.SittingName(i), Minutes: p.Sittings[i].Minutes})
	}
	b.Tasks = d.chairTasks(p.Sittings)
	out.Worn = w.worn(out.How.Work)
	return out, ctx.Err()
}

// chairPieces are the plan's pieces with what is needed of them. What is at hand is what the packs
// to buy hold.
func (w *worked) chairPieces(n Need) []chair.Piece {
	out := make([]chair.Piece, len(w.in.Pieces))
	for i, p := range w.in.Pieces {
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
func (w *worked) chairGoods(b *chair.Brief) {
	in := w.in
	b.Goods = []chair.Good{}
	put := func(place int, g chair.Good, count int) {
		k := slices.IndexFunc(b.Goods, func(x chair.Good) bool { return x.Key == g.Key })
		if k < 0 {
			k = len(b.Goods)
			b.Goods = append(b.Goods, g)
		}
		b.Places[place].With = append(b.Places[place].With, chair.With{Good: k, Count: count})
	}
	for i := range w.res.Places {
		p := &w.res.Places[i]
		if p.Kept {
			continue
		}
		for _, a := range p.Accents {
			if k := w.accentPiece(a); k >= 0 {
				x := in.Pieces[k]
				put(i, chair.Good{Key: x.Key, Item: x.Item, Name: x.Name, Colour: x.Colour, Per: x.Pack.Cuts * x.Pack.Splits}, 1)
			} else if t := in.Accents[a].Thing; t != nil {
				put(i, chair.Good{Key: ThingKey(a), Item: t.Item, Name: t.Name, Colour: t.Colour, Per: 1}, 1)
			}
		}
		way := &in.Ways[p.Way]
		if n := w.works[i].Strands; n > 0 && way.Wrapping != nil {
			h := way.Wrapping
			put(i, chair.Good{Key: WrapKey(way.Key), Item: h.Item, Name: in.wrappingName(way.Key), Colour: h.Colour, Per: max(1, h.Cuts)}, n)
		}
	}
}

// wrappingName is what the wrapping hair of a way is called.
func (in Input) wrappingName(way string) string {
	i := slices.IndexFunc(in.Ways, func(w Way) bool { return w.Key == way })
	return cmp.Or(in.Ways[i].Wrapping.Name, "Wrapping hair, "+in.WayName(way))
}

func chairRows(rows []WorkRow) []chair.Row {
	out := make([]chair.Row, len(rows))
	for r, row := range rows {
		out[r] = chair.Row{Name: row.Name, Region: regionNames[row.Group], Left: row.Side == Left, Mirror: -1}
		if row.Side == Middle {
			continue
		}
		other := strings.NewReplacer("left", "right", "right", "left").Replace(row.Name)
		out[r].Mirror = slices.IndexFunc(rows, func(o WorkRow) bool { return o.Name == other && o.Group == row.Group })
	}
	return out
}

// chairPlaces are the places with what is measured of each at the head.
func (d *day) chairPlaces(work []Attachment) []chair.Place {
	out := make([]chair.Place, len(d.res.Places))
	for i := range d.res.Places { // those that are kept belong to no row that is worked at
		p := &d.res.Places[i]
		out[i] = chair.Place{ID: p.ID, Piece: p.Piece, Hook: p.Ground != method.OnPlait}
	}
	towards := func(i int) r3.Vec {
		at := parting.Toward(d.head, d.res.Places[i].At)
		return r3.Vec{X: at[0], Y: at[1], Z: at[2]}
	}
	for r, row := range d.rows {
		for _, i := range row.Places {
			p := &d.res.Places[i]
			c := chair.Place{ID: p.ID, Row: r, Piece: p.Piece, Count: p.Count, Hook: p.Ground != method.OnPlait}
			c.Step = slices.IndexFunc(work, func(a Attachment) bool {
				return a.Way == d.in.Ways[p.Way].Key && a.Piece == d.in.Pieces[p.Piece].Key && a.Ground == p.Ground
			})
			for _, a := range p.Accents {
				c.Beside = append(c.Beside, d.in.accentName(a))
			}
			if p.Section >= 0 {
				s := &d.layout.Sections[p.Section]
				c.Middle, c.Part, c.Up = s.Part, len(d.layout.PartLine) > 0, s.Height.Mean
			} else {
				at := towards(i)
				c.Middle = d.head.Arc(at, r3.Unit(r3.Vec{X: at.X, Z: at.Z}))
				if i > 0 && trackOf(p.ID) == trackOf(d.res.Places[i-1].ID) {
					c.Up = d.head.Arc(at, towards(i-1))
				}
			}
			out[i] = c
		}
	}
	return out
}

// trackOf is the name of the track or net a hook is on.
func trackOf(id string) string {
	name, _, _ := strings.Cut(id, "/")
	return name
}

// accentName says an accent.
func (in Input) accentName(a int) string {
	if t := in.Accents[a].Thing; t != nil {
		return t.Name
	}
	return in.Piece(in.Accents[a].Piece).Called()
}

// chairTasks are the steps of the day, taken apart into places.
func (d *day) chairTasks(sittings []DaySitting) []chair.Task {
	sitting := make([]int, len(d.steps))
	for k, s := range sittings {
		for _, at := range s.steps {
			sitting[at] = k
		}
	}
	plait, attach := d.timedFor(pace.Worker{Hand: pace.Practised, Own: 1, New: d.hands[0].New})
	var out []chair.Task
	for i := range d.steps {
		s := &d.steps[i]
		if s.row < 0 {
			t := chair.Task{Key: string(s.kind) + "/" + s.name, Kind: s.kind, Skill: string(s.kind), Name: s.name, Place: -1, Sitting: sitting[i], Rate: s.rate, Arms: s.Arms}
			for _, m := range s.By {
				if m == 0 { // they do not do it, but they may
					m = slices.Max(s.By)
				}
				t.Minutes = append(t.Minutes, m)
			}
			out = append(out, t)
			continue
		}
		for _, at := range s.places {
			p := &d.res.Places[at]
			t := chair.Task{Key: chair.AttachKey(p.ID), Kind: s.kind, Skill: string(d.in.Ways[p.Way].Method), Place: at, Sitting: sitting[i], Rate: attach[at], Arms: s.Arms}
			by := d.attach
			if s.Plaits {
				t.Key, t.Skill, t.Rate, by = chair.PlaitKey(p.ID), plaiting, plait[at], d.plait
			}
			for k := range d.hands {
				t.Minutes = append(t.Minutes, by[k][at])
			}
			out = append(out, t)
		}
	}
	return out
}
