// Package workorder puts the places of a solved plan in the order they are worked at: row after
// row from the back corner up, mirrored sides level, or as the plan says.
package workorder

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
)

// Group is a part of the working order.
type Group string

// The groups.
const (
	Base     Group = "base"     // what is hooked behind
	Behind   Group = "behind"   // plaits behind
	Front    Group = "front"    // those in front
	Hairline Group = "hairline" // the hairline in front of the ears
	Part     Group = "part"     // beside the part line
)

// Groups are all of them.
var Groups = []Group{Base, Behind, Front, Hairline, Part}

// Name is the group as people speak of it, such as "at the hairline".
func (g Group) Name() string {
	return map[Group]string{
		Base: "on the base", Behind: "behind", Front: "in front", Hairline: "at the hairline", Part: "along the part",
	}[g]
}

// groupOrders are the groups in the order they are worked at, by the side the plan takes on
// where the first piece goes. Common practice, no source.
var groupOrders = map[string][]Group{
	"back":  {Base, Behind, Front, Hairline, Part},
	"front": {Part, Hairline, Front, Base, Behind},
}

// Side is a side of the head, as the one whose head it is says it.
type Side string

// The sides.
const (
	Left   Side = "left"
	Right  Side = "right"
	Middle Side = "middle"
)

// Sides are all of them, in the order they are worked at where they are level.
var Sides = []Side{Middle, Left, Right}

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

// Row is a row of the working order: places that are worked at in one go.
type Row struct {
	// Key names the row inside its plan; it survives other orders, and other sizes as far as
	// there is such a row then.
	Key   string `json:"key"`
	Name  string `json:"name"`
	Group Group  `json:"group"`
	Side  Side   `json:"side"`
	// Places are indices, in the order they are worked at.
	Places []int `json:"places"`

	height float64 // mean height, mm
}

// sameLevel is by how much rows of both sides may differ in height and still be level, mm.
const sameLevel = 4.0

// Rows are the rows in working order: from the back corner up, the hairline and the part
// line last, mirrored sides level; or as the plan says.
func Rows(sol *plan.Solved) []Row {
	var rows []Row
	index := map[string]int{}
	for i := range sol.Places {
		if sol.Places[i].Kept {
			continue
		}
		key, name, group, side := RowOf(sol, &sol.Places[i])
		k, have := index[key]
		if !have {
			k = len(rows)
			index[key] = k
			rows = append(rows, Row{Key: key, Name: name, Group: group, Side: side})
		}
		rows[k].Places = append(rows[k].Places, i)
		rows[k].height += sol.Places[i].At[2]
	}
	for k := range rows {
		rows[k].height /= float64(len(rows[k].Places))
		sortRow(sol, &rows[k])
	}
	sortRows(sol, rows)
	return rows
}

// RowOf is the row a place belongs to.
func RowOf(sol *plan.Solved, p *plan.Place) (key, name string, group Group, side Side) {
	side = Middle
	if math.Abs(p.At[1]) > acrossMiddle {
		side = towards(p.At[1])
	}
	switch {
	case p.Ground != method.OnPlait && !p.Front:
		group = Base
	case p.Section >= 0 && p.Front && sol.AlongPart(p):
		return fmt.Sprintf("part/%s", side), fmt.Sprintf("Along the part, %s", side), Part, side
	case p.Section >= 0 && p.Front && sol.AtHairline(p):
		return fmt.Sprintf("hairline/%s", side), fmt.Sprintf("Hairline, %s", side), Hairline, side
	case p.Front:
		group = Front
	default:
		group = Behind
	}
	line := sol.Line(p)
	number := strings.TrimLeft(line, "ABCDEFGHIJKLMNOPQRSTUVWXYZ")
	switch {
	case p.Section >= 0:
		name = fmt.Sprintf("%s, row %s", p.Zone.Name(), number)
	case p.Ground == method.OnCornrow && sol.Input.Parting.RunIn(p.Zone) == parting.Horizontal:
		name = parting.CornrowName(p.Zone.Name(), line)
	default:
		// What runs from front to back is filled from the nape up, all cornrows together.
		band := sol.Band(p)
		where := map[Group]string{Base: "behind", Front: "in front"}[group]
		return fmt.Sprintf("hooks/%s/%d", group, band), fmt.Sprintf("Base %s, row %d", where, band), group, Middle
	}
	return fmt.Sprintf("%s/%s", group, line), name, group, towards(p.Zone.Side())
}

// sortRow puts the places of a row in the order they are worked at: on a side from its outer
// end inward, the hairline and the part line from behind to the front, else from right to left.
func sortRow(sol *plan.Solved, r *Row) {
	along := func(i int) float64 {
		at := sol.Places[i].At
		switch {
		case r.Group == Hairline || r.Group == Part:
			return at[0]
		case r.Side != Middle:
			return -math.Abs(at[1])
		}
		return at[1]
	}
	slices.SortStableFunc(r.Places, func(a, b int) int { return cmp.Compare(along(a), along(b)) })
}

// sortRows puts rows in working order.
func sortRows(sol *plan.Solved, rows []Row) {
	order := sol.Input.WorkOrder()
	groups := groupOrders[sol.Input.Custom(plan.Start)]
	slices.SortStableFunc(rows, func(a, b Row) int {
		apart := 0
		if order.Apart {
			apart = cmp.Compare(slices.Index(Sides, a.Side), slices.Index(Sides, b.Side))
		}
		return cmp.Or(cmp.Compare(slices.Index(groups, a.Group), slices.Index(groups, b.Group)), apart,
			cmp.Compare(math.Round(a.height/sameLevel), math.Round(b.height/sameLevel)),
			cmp.Compare(slices.Index(Sides, a.Side), slices.Index(Sides, b.Side)), cmp.Compare(a.Key, b.Key))
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
	var named []Row
	for _, r := range rows {
		if _, is := rank[r.Key]; is {
			named = append(named, r)
		}
	}
	slices.SortStableFunc(named, func(a, b Row) int { return rank[a.Key] - rank[b.Key] })
	for i := range rows {
		if _, is := rank[rows[i].Key]; is {
			rows[i], named = named[0], named[1:]
		}
	}
}

// Places are the places in the order pieces go on.
func Places(sol *plan.Solved) (order []int) {
	for _, r := range Rows(sol) {
		order = append(order, r.Places...)
	}
	return order
}
