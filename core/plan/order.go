package plan

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
)

// RowGroup is a part of the working order.
type RowGroup string

// The groups.
const (
	GroupBase     RowGroup = "base"     // what is hooked behind
	GroupBehind   RowGroup = "behind"   // plaits behind
	GroupFront    RowGroup = "front"    // those in front
	GroupHairline RowGroup = "hairline" // the hairline in front of the ears
	GroupPart     RowGroup = "part"     // beside the part line
)

// groupOrders are the groups in the order they are worked at, by the side the plan takes on
// where the first piece goes. Common practice, no source.
var groupOrders = map[string][]RowGroup{
	"back":  {GroupBase, GroupBehind, GroupFront, GroupHairline, GroupPart},
	"front": {GroupPart, GroupHairline, GroupFront, GroupBase, GroupBehind},
}

// Side is a side of the head, as the one whose head it is says it.
type Side string

// The sides.
const (
	Left   Side = "left"
	Right  Side = "right"
	Middle Side = "middle"
)

// sides are in the order they are worked at where they are level.
var sides = []Side{Middle, Left, Right}

// acrossMiddle is how far from the middle a place still is in it, mm.
const acrossMiddle = 2.0

// towards is the side of a number that is positive on the left.
func towards(y float64) Side {
	switch {
	case y > 0:
		return Left
	case y < 0:
		return Right
	}
	return Middle
}

// WorkRow is a row of the working order: places that are worked at in one go.
type WorkRow struct {
	// Key names the row inside its plan; it survives other orders, and other sizes as far as
	// there is such a row then.
	Key   string   `json:"key"`
	Name  string   `json:"name"`
	Group RowGroup `json:"group" enum:"base,behind,front,hairline,part"`
	Side  Side     `json:"side" enum:"left,right,middle"`
	// Places are indices, in the order they are worked at.
	Places []int `json:"places"`

	height float64 // mean height, mm
}

// sameLevel is by how much rows of both sides may differ in height and still be level, mm.
const sameLevel = 4.0

// workRows are the rows in working order: from the back corner up, the hairline and the part
// line last, mirrored sides level; or as the plan says.
func (w *worked) workRows() []WorkRow {
	f := newFinder(w.in, w.head, &w.layout, w.res.Places)
	var rows []WorkRow
	index := map[string]int{}
	for i := range w.res.Places {
		if w.res.Places[i].Kept {
			continue
		}
		key, name, group, side := w.workRowOf(f, &w.res.Places[i])
		k, have := index[key]
		if !have {
			k = len(rows)
			index[key] = k
			rows = append(rows, WorkRow{Key: key, Name: name, Group: group, Side: side})
		}
		rows[k].Places = append(rows[k].Places, i)
		rows[k].height += w.res.Places[i].At[2]
	}
	for k := range rows {
		rows[k].height /= float64(len(rows[k].Places))
		w.sortRow(&rows[k])
	}
	w.sortRows(rows)
	return rows
}

// workRowOf is the row a place belongs to.
func (w *worked) workRowOf(f *finder, p *Place) (key, name string, group RowGroup, side Side) {
	side = Middle
	if math.Abs(p.At[1]) > acrossMiddle {
		side = towards(p.At[1])
	}
	switch {
	case p.Ground != method.OnPlait && !p.Front:
		group = GroupBase
	case p.Section >= 0 && p.Front && f.alongPart(p):
		return fmt.Sprintf("part/%s", side), fmt.Sprintf("Along the part, %s", side), GroupPart, side
	case p.Section >= 0 && p.Front && f.atHairline(p):
		return fmt.Sprintf("hairline/%s", side), fmt.Sprintf("Hairline, %s", side), GroupHairline, side
	case p.Front:
		group = GroupFront
	default:
		group = GroupBehind
	}
	line := f.line(p)
	number := strings.TrimLeft(line, "ABCDEFGHIJKLMNOPQRSTUVWXYZ")
	switch {
	case p.Section >= 0:
		name = fmt.Sprintf("%s, row %s", p.Zone.Name(), number)
	case p.Ground == method.OnTrack && w.in.Parting.Base.Run == parting.Horizontal:
		name = fmt.Sprintf("%s, track %s", p.Zone.Name(), number)
	default:
		// What runs from front to back is filled from the nape up, all tracks together.
		band := int(math.Floor((p.At[2]-w.lowest())/trackBand)) + 1
		where := map[RowGroup]string{GroupBase: "behind", GroupFront: "in front"}[group]
		return fmt.Sprintf("hooks/%s/%d", group, band), fmt.Sprintf("Hooks %s, band %d from the nape", where, band), group, Middle
	}
	return fmt.Sprintf("%s/%s", group, line), name, group, towards(sideOf(p.Zone))
}

// sortRow puts the places of a row in the order they are worked at: on a side from its outer
// end inward, the hairline and the part line from behind to the front, else from right to left.
func (w *worked) sortRow(r *WorkRow) {
	along := func(i int) float64 {
		at := w.res.Places[i].At
		switch {
		case r.Group == GroupHairline || r.Group == GroupPart:
			return at[0]
		case r.Side != Middle:
			return -math.Abs(at[1])
		}
		return at[1]
	}
	slices.SortStableFunc(r.Places, func(a, b int) int { return cmp.Compare(along(a), along(b)) })
}

// sortRows puts rows in working order.
func (w *worked) sortRows(rows []WorkRow) {
	order := w.in.order()
	groups := groupOrders[w.in.Custom(start)]
	slices.SortStableFunc(rows, func(a, b WorkRow) int {
		apart := 0
		if order.Apart {
			apart = cmp.Compare(slices.Index(sides, a.Side), slices.Index(sides, b.Side))
		}
		return cmp.Or(cmp.Compare(slices.Index(groups, a.Group), slices.Index(groups, b.Group)), apart,
			cmp.Compare(math.Round(a.height/sameLevel), math.Round(b.height/sameLevel)),
			cmp.Compare(slices.Index(sides, a.Side), slices.Index(sides, b.Side)), cmp.Compare(a.Key, b.Key))
	})
	if len(order.Rows) == 0 {
		return
	}
	// Rows of one's own order come where the first of them would; those between keep their
	// places among the rest.
	rank := make(map[string]int, len(order.Rows))
	for i, key := range order.Rows {
		rank[key] = i
	}
	var named []WorkRow
	for _, r := range rows {
		if _, is := rank[r.Key]; is {
			named = append(named, r)
		}
	}
	slices.SortStableFunc(named, func(a, b WorkRow) int { return rank[a.Key] - rank[b.Key] })
	for i := range rows {
		if _, is := rank[rows[i].Key]; is {
			rows[i], named = named[0], named[1:]
		}
	}
}

// workingOrder are the places in the order pieces go on.
func (w *worked) workingOrder() (order []int) {
	for _, r := range w.workRows() {
		order = append(order, r.Places...)
	}
	return order
}

// Reach is how far a number of packs goes on this head in working order.
type Reach struct {
	Packs int `json:"packs"`
	// Pieces are those of them that hang.
	Pieces int `json:"pieces"`
	// At is where they end, in words.
	At string `json:"at"`
	// Places is how many places are covered, in the order of [Filling].
	Places int `json:"places"`
}

// Filling is the way one piece fills the head.
type Filling struct {
	Piece string `json:"piece" doc:"Key of the piece"`
	// Order are the places where it hangs, as indices, in working order.
	Order []int   `json:"order"`
	Reach []Reach `json:"reach" doc:"How far 1, 2, 3 … packs go"`
}

// fillings say of every piece how far its packs go. The packs are those in the order of the need.
func (w *worked) fillings(n Need) []Filling {
	order := w.workingOrder()
	out := []Filling{}
	for k := range n.Pieces {
		need := &n.Pieces[k]
		at := slices.IndexFunc(w.in.Pieces, func(p hair.Piece) bool { return p.Key == need.Piece })
		yield := w.in.Pieces[at].Pack.Yield()
		f := Filling{Piece: need.Piece, Order: []int{}, Reach: []Reach{}}
		hung := 0
		for _, i := range order {
			p := &w.res.Places[i]
			count := w.countOf(p, at)
			if count == 0 {
				continue
			}
			for hung+count > yield*(len(f.Reach)+1) {
				f.Reach = append(f.Reach, Reach{len(f.Reach) + 1, hung, w.reached(f.Order), len(f.Order)})
			}
			hung += count
			f.Order = append(f.Order, i)
		}
		f.Reach = append(f.Reach, Reach{len(f.Reach) + 1, hung, "all of them", len(f.Order)})
		out = append(out, f)
	}
	return out
}

// reached says in words how far a list of places goes.
func (w *worked) reached(places []int) string {
	if len(places) == 0 {
		return "not one place"
	}
	p := &w.res.Places[places[len(places)-1]]
	if p.Section >= 0 {
		s := &w.layout.Sections[p.Section]
		return fmt.Sprintf("%s, row %d", p.Zone.Name(), s.Row)
	}
	at, all := 0, 0
	for i := range w.res.Places {
		if w.res.Places[i].Zone == p.Zone && w.res.Places[i].Section < 0 {
			all++
		}
	}
	for _, i := range places {
		if w.res.Places[i].Zone == p.Zone && w.res.Places[i].Section < 0 {
			at++
		}
	}
	return fmt.Sprintf("%s, %d of %d hooks", p.Zone.Name(), at, all)
}
