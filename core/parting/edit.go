package parting

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/bond"
	"kladotex/core/invalid"
	"kladotex/core/scalp"
	"kladotex/core/surface"
)

// EditKind is what a change by hand does.
type EditKind string

// The changes by hand. Each names places on the head and what shall be there, not a
// section by its number: so it holds when sizes change, and holds once when it is
// made twice.
const (
	// MoveRow: the row line that would run by With runs through At.
	MoveRow EditKind = "move-row"
	// MovePart: the part that would end by With ends at At.
	MovePart EditKind = "move-part"
	// Merge: At and With lie in one section.
	Merge EditKind = "merge"
	// Split: At and With lie in two sections.
	Split EditKind = "split"
	// LeaveOut: no plait is made of the section at At.
	LeaveOut EditKind = "leave-out"
	// Lock: later changes leave the section at At alone.
	Lock EditKind = "lock"
)

// EditKinds are all changes by hand.
var EditKinds = []EditKind{MoveRow, MovePart, Merge, Split, LeaveOut, Lock}

// moves tells whether a change moves lines, before sections are cut; the others
// change sections.
func (k EditKind) moves() bool { return k == MoveRow || k == MovePart }

// two tells whether a change has a second place.
func (k EditKind) two() bool { return k.moves() || k == Merge || k == Split }

// Edit is a change by hand.
type Edit struct {
	Kind EditKind  `json:"kind"`
	At   Direction `json:"at" doc:"The place it is about, a unit vector in the head's axes"`
	// With is the second place of a merge or a split, and where what is moved
	// would be.
	With *Direction `json:"with,omitempty" doc:"The other place of merge and split; where a moved line would lie"`
}

func (e Edit) check(bad *invalid.Errors, path string) {
	invalid.OneOf(bad, path+"kind", "The change by hand", e.Kind, EditKinds)
	e.At.Check(bad, path+"at")
	switch {
	case e.Kind.two() && e.With == nil:
		bad.Add(path+"with", "To %s takes two places; the second is missing.", e.Kind)
	case e.Kind.two():
		e.With.Check(bad, path+"with")
	case e.With != nil:
		bad.Add(path+"with", "To %s takes one place; there are two.", e.Kind)
	}
}

// AtAnySize returns those changes by hand that are about a place on the head, and not about
// sections of one size.
func AtAnySize(edits []Edit) []Edit {
	return slices.DeleteFunc(slices.Clone(edits), func(e Edit) bool { return e.Kind != LeaveOut })
}

// vec is the direction as a unit vector.
func (d Direction) vec() r3.Vec { return scalp.Unit(r3.Vec{X: d[0], Y: d[1], Z: d[2]}) }

// leastHeight is how narrow a row or a section may be made by hand, mm.
const leastHeight = MinSize

// moveLines moves row lines, then part ends, to where they were dragged, and notes the
// moves that no longer fit. Which is meant is told from how they lay before any was moved.
func moveLines(ctx context.Context, h scalp.Head, pairs []zonePair, edits []Edit) (moved []zonePair, rejected []RejectedEdit) {
	moved = mapPanels(pairs, func(p panel) panel { return p })
	rejected = []RejectedEdit{}
	for _, kind := range []EditKind{MoveRow, MovePart} {
		move := moveRow
		if kind == MovePart {
			move = movePart
		}
		var laid map[*panel]asLaid
		for i, e := range edits {
			if e.Kind != kind {
				continue
			}
			if ctx.Err() != nil {
				return moved, rejected
			}
			if laid == nil {
				laid = layouts(moved, kind)
			}
			if trouble := move(h, moved, laid, e.With.vec(), e.At.vec()); trouble != "" {
				rejected = append(rejected, RejectedEdit{i, e.At, trouble})
			}
		}
	}
	return moved, rejected
}

// asLaid is a panel before anything of it was moved by hand.
type asLaid struct {
	panel
	// ends are its part ends; none while rows are moved.
	ends []partEnd
}

// partEnd is a part end of a row: where, and its line from the row below to that above.
type partEnd struct {
	row, joint int
	line       surface.Curve
	// middle is that of the line on the surface, reach how far it goes from there,
	// mm: most ends are told from it to be far away.
	middle scalp.Point
	reach  float64
}

// layouts are the panels as they are now, with what a kind of move looks for.
func layouts(pairs []zonePair, kind EditKind) map[*panel]asLaid {
	laid := map[*panel]asLaid{}
	eachPanel(pairs, func(p *panel) {
		was := asLaid{panel: *p}
		if kind == MovePart {
			for r, c := range p.courses {
				for k := range c.Joints {
					line := p.partEnd(r, k)
					was.ends = append(was.ends, partEnd{r, k, line, p.chart.Head.Point(line.Points[1]), line.Length()})
				}
			}
		}
		laid[p] = was
	})
	return laid
}

// sideOf are the panels of the side u lies on.
func sideOf(pairs []zonePair, u r3.Vec) (panels []*panel) {
	for _, c := range pairs {
		p := c.left
		if u.Y < 0 {
			p = c.right
		}
		if p != nil {
			panels = append(panels, p)
		}
	}
	return panels
}

// onLeft is u as it lies on a left side.
func onLeft(u r3.Vec) r3.Vec { return r3.Vec{X: u.X, Y: math.Abs(u.Y), Z: u.Z} }

// bothHalves are the panels that share their row lines with p: p, and the other half
// of a central zone.
func bothHalves(pairs []zonePair, p *panel) []*panel {
	for _, c := range pairs {
		if p.central && (c.left == p || c.right == p) && c.left != c.right {
			return []*panel{c.left, c.right}
		}
	}
	return []*panel{p}
}

// line is the stretch of row line i, between two rows, that lies in the zone.
func (p *panel) line(i int) (from, to float64) {
	below, above := &p.bands[i-1], &p.bands[i]
	return max(below.HighFrom, above.LowFrom), min(below.HighTo, above.LowTo)
}

// moveRow makes the row line that lay nearest to from run through to, and says why
// it cannot.
func moveRow(h scalp.Head, pairs []zonePair, laid map[*panel]asLaid, from, to r3.Vec) string {
	var p *panel
	row, off := 0, math.Inf(1)
	for _, q := range sideOf(pairs, from) {
		was := laid[q]
		for i := 1; i < was.rows; i++ {
			start, end := was.line(i)
			if d, _ := was.chart.Curve(was.lines[i], start, end).ToLine(h, onLeft(from)); d < off {
				p, row, off = q, i, d
			}
		}
	}
	if p == nil {
		return "There is no part line here any more; the rows were laid anew."
	}
	was := laid[p]
	if off > (was.gap(row-1, was.lines[row-1], was.lines[row])+was.gap(row, was.lines[row], was.lines[row+1]))/2 {
		return fmt.Sprintf("The nearest part line is %s away: rows lie elsewhere since sizes changed.", invalid.Length(off))
	}
	if p.isRound && p.chart.Start != nil && p.fromTop && p.xs[row] == p.kept {
		return "The front hairline ends in this line: it stays where it is. Move the hairline, or the next line."
	}
	start, end := p.line(row)
	x := leastBetween(p.xs[row-1], p.xs[row+1], func(x float64) float64 {
		d, _ := p.chart.Curve(p.chart.Line(x), start, end).ToLine(h, onLeft(to))
		return d
	})
	line := p.chart.Line(x)
	if least := min(p.gap(row-1, p.lines[row-1], line), p.gap(row, line, p.lines[row+1])); least < leastHeight {
		return fmt.Sprintf("It would leave a row only %s high; at least %s works.", invalid.Beyond(least, leastHeight, math.Inf(1)), invalid.AtLeast(leastHeight))
	}
	for _, q := range bothHalves(pairs, p) {
		q.xs, q.lines, q.bands = slices.Clone(q.xs), slices.Clone(q.lines), slices.Clone(q.bands)
		q.xs[row], q.lines[row] = x, q.chart.Line(x)
		for _, r := range []int{row - 1, row} {
			q.bands[r] = q.band(r)
		}
	}
	return ""
}

// leastBetween is where f, which falls and then rises, is least between low and high:
// golden section, to a few thousandths of a millimetre where a row is searched.
func leastBetween(low, high float64, f func(float64) float64) float64 {
	const steps = 28
	share := (math.Sqrt(5) - 1) / 2
	a, b := high-share*(high-low), low+share*(high-low)
	fa, fb := f(a), f(b)
	for range steps {
		if fa < fb {
			high, b, fb = b, a, fa
			a = high - share*(high-low)
			fa = f(a)
		} else {
			low, a, fa = a, b, fb
			b = low + share*(high-low)
			fb = f(b)
		}
	}
	return (low + high) / 2
}

// gap is the mean distance in mm of two lines where row r lies between them.
func (p *panel) gap(r int, a, b surface.Line) float64 {
	band := &p.bands[r]
	from, to := max(band.LowFrom, band.HighFrom), min(band.LowTo, band.HighTo)
	sum := 0.0
	const n = 8
	for k := range n + 1 {
		s := from + (to-from)*float64(k)/n
		sum += p.chart.Head.Chord(a.At(s), b.At(s))
	}
	return sum / (n + 1)
}

// movePart makes the part that ended nearest to from end at to, and says why it can
// not.
func movePart(h scalp.Head, pairs []zonePair, laid map[*panel]asLaid, from, to r3.Vec) string {
	var p *panel
	row, joint, off := 0, 0, math.Inf(1)
	place := h.Point(onLeft(from))
	for _, q := range sideOf(pairs, from) {
		for _, end := range laid[q].ends {
			if far := off + end.reach; distance2(place, end.middle) > far*far {
				continue
			}
			if d, _ := end.line.ToLine(h, onLeft(from)); d < off {
				p, row, joint, off = q, end.row, end.joint, d
			}
		}
	}
	if p == nil {
		return "There is no part here any more; the sections were laid anew."
	}
	c, band := &p.courses[row], &p.bands[row]
	mid := band.Mid
	length := p.midLength(row)
	if off > length/float64(c.Boxes())*0.75 {
		return fmt.Sprintf("The nearest part is %s away: parts lie elsewhere since sizes changed.", invalid.Length(off))
	}
	whole := p.chart.Curve(mid, 0, float64(p.chart.Steps))
	_, share := whole.ToLine(h, onLeft(to))
	move := share*whole.Length() - (mid.MM(c.Joints[joint])+mid.MM(c.OuterJoints()[joint]))/2
	room := func(joints []float64) (left, right float64) {
		low, _ := bond.Gap(joints, joint, band.From, band.To)
		_, high := bond.Gap(joints, joint+1, band.From, band.To)
		here := mid.MM(joints[joint]) + move
		return here - mid.MM(low), mid.MM(high) - here
	}
	left, right := room(c.Joints)
	outerLeft, outerRight := room(c.OuterJoints())
	left, right = min(left, outerLeft)*c.Folds(joint), min(right, outerRight)*c.Folds(joint+1)
	if p.wish.Pattern == Triangle { // a zigzag's corners may meet, not pass
		left, right = left+leastHeight, right+leastHeight
	}
	if width := min(left, right); width < leastHeight {
		return fmt.Sprintf("It would leave a section only %s wide; at least %s works.", invalid.Beyond(max(0, width), leastHeight, math.Inf(1)), invalid.AtLeast(leastHeight))
	}
	p.courses = movedJoint(p.courses, row, joint, func(s float64) float64 { return mid.SAt(mid.MM(s) + move) })
	return ""
}

// movedJoint are the courses with the place of one part end changed.
func movedJoint(courses []bond.Course, row, joint int, to func(float64) float64) []bond.Course {
	out := slices.Clone(courses)
	c := &out[row]
	c.Joints = slices.Clone(c.Joints)
	c.Joints[joint] = to(c.Joints[joint])
	if c.Outer != nil {
		c.Outer = slices.Clone(c.Outer)
		c.Outer[joint] = to(c.Outer[joint])
	}
	return out
}

// partEnd is the line of part end k in row r.
func (p *panel) partEnd(r, k int) surface.Curve {
	low, high := p.lowJoints(r)[k], p.highJoints(r)[k]
	b := &p.bands[r]
	return surface.NewCurve(p.chart.Head, []r3.Vec{b.Lower.At(low), b.Mid.At((low + high) / 2), b.Upper.At(high)})
}

// spotSamples is how many points of a section are looked at to tell how much of it a
// spot covers: its centroid, and for each corner points on the way there.
var spotSamples = []float64{1. / 3, 2. / 3, 0.95}

// leaveOut takes the sections out that lie at least half inside a spot. It refuses
// spots that leave nothing of a zone, and says how large one may be.
func leaveOut(h scalp.Head, s Settings, l Layout) (Layout, error) {
	if len(s.LeftOut) == 0 {
		return l, nil
	}
	l = l.clone()
	near := make([]Spot, 0, len(s.LeftOut))
	inside := func(spots []Spot, x *Section) bool {
		near = near[:0]
		for _, spot := range spots {
			if most := spot.Radius + x.reach(); distance2(x.Centroid, h.Point(spot.At.vec())) < most*most {
				near = append(near, spot)
			}
		}
		if len(near) == 0 {
			return false
		}
		centre := surface.Toward(h, x.Centroid)
		hits, all := 0, 0
		for _, v := range append(surface.UnitRing(h, x.Outline), centre) {
			for _, f := range spotSamples {
				u := scalp.Unit(r3.Add(r3.Scale(1-f, centre), r3.Scale(f, v)))
				all++
				if slices.ContainsFunc(near, func(spot Spot) bool { return spot.covers(h, u) }) {
					hits++
				}
			}
		}
		return 2*hits >= all
	}
	// What the spots take out, and the first zone that they leave nothing of.
	taken := func(spots []Spot) (ids []string, emptied Zone) {
		before, left := map[Zone]int{}, map[Zone]int{}
		for i := range l.Sections {
			x := &l.Sections[i]
			before[x.Zone]++
			if inside(spots, x) {
				ids = append(ids, x.ID)
			} else {
				left[x.Zone]++
			}
		}
		for _, r := range l.Rows {
			if before[r.Zone] > 0 && left[r.Zone] == 0 {
				return ids, r.Zone
			}
		}
		return ids, ""
	}
	ids, zone := taken(s.LeftOut)
	if zone != "" {
		return Layout{}, tooLarge(s.LeftOut, taken)
	}
	l.takeOut(ids...)
	return l, nil
}

// tooLarge refuses spots that leave nothing of a zone: it finds the first that does so
// together with those before it, and how large that one may be.
func tooLarge(all []Spot, taken func([]Spot) ([]string, Zone)) error {
	var bad invalid.Errors
	for i := range all {
		_, zone := taken(all[:i+1])
		if zone == "" {
			continue
		}
		spots := slices.Clone(all[:i+1])
		low, high := 0.0, spots[i].Radius
		for range 12 {
			spots[i].Radius = (low + high) / 2
			if _, emptied := taken(spots); emptied == "" {
				low = spots[i].Radius
			} else {
				high = spots[i].Radius
			}
		}
		path := fmt.Sprintf("leftOut[%d].radiusMm", i)
		if low < minSpot {
			bad.Add(path, "The spots left out take all of zone %s. Without the last of them some of it stays.", zone)
		} else {
			bad.Add(path, "A spot of this size leaves nothing of zone %s. Up to %s from its centre, something stays.", zone, invalid.AtMost(low))
		}
		break
	}
	return bad.Err()
}

// takeOut moves sections to those left out.
func (l *Layout) takeOut(ids ...string) {
	place := l.find
	if len(ids) > 1 { // looked up, not searched for each
		places := make(map[string]int, len(l.Sections))
		for i := range l.Sections {
			places[l.Sections[i].ID] = i
		}
		place = func(id string) int {
			if i, ok := places[id]; ok {
				return i
			}
			return -1
		}
	}
	out := make(map[int]bool, len(ids))
	var rows []rowAt
	for _, id := range ids {
		i := place(id)
		x := l.Sections[i]
		out[i] = true
		rows = append(rows, rowAt{x.Zone, x.Row})
		for _, other := range x.Neighbours {
			if k := place(other); k >= 0 {
				n := &l.Sections[k]
				n.Neighbours = slices.DeleteFunc(slices.Clone(n.Neighbours), func(s string) bool { return s == id })
			}
		}
		x.Neighbours = []string{}
		l.LeftOut = append(l.LeftOut, x)
	}
	k := -1
	l.Sections = slices.DeleteFunc(l.Sections, func(Section) bool { k++; return out[k] })
	l.recount(rows...)
}

// rowAt names a row of a layout.
type rowAt struct {
	zone Zone
	row  int
}

func (l *Layout) find(id string) int {
	return slices.IndexFunc(l.Sections, func(s Section) bool { return s.ID == id })
}

// inZone counts the sections of a zone.
func (l *Layout) inZone(zone Zone) (n int) {
	for i := range l.Sections {
		if l.Sections[i].Zone == zone {
			n++
		}
	}
	return n
}

// recount counts the sections of rows that were changed by hand.
func (l *Layout) recount(rows ...rowAt) {
	counts := make(map[rowAt]int, len(rows))
	for _, r := range rows {
		counts[r] = 0
	}
	for i := range l.Sections {
		r := rowAt{l.Sections[i].Zone, l.Sections[i].Row}
		if n, ok := counts[r]; ok {
			counts[r] = n + 1
		}
	}
	for i := range l.Rows {
		r := &l.Rows[i]
		if n, ok := counts[rowAt{r.Zone, r.Row}]; ok {
			r.Edited, r.Sections = true, n
		}
	}
}

// reach is a distance from the middle of a section beyond which it does not go, mm.
func (s *Section) reach() float64 { return s.Width.Max + s.Height.Max }

// at is the place in list of the section that holds u, or -1.
func at(h scalp.Head, list []Section, u r3.Vec) int {
	place := h.Point(u)
	for i := range list {
		x := &list[i]
		if reach := x.reach(); distance2(place, x.Centroid) < reach*reach && surface.Contains(surface.UnitRing(h, x.Outline), u) {
			return i
		}
	}
	return -1
}

// At is the index of the section that lies in a direction; -1 where none does.
func (l *Layout) At(h scalp.Head, d Direction) int { return at(h, l.Sections, d.vec()) }

// changeByHand makes the changes to sections, in order, and notes those that no
// longer fit.
func changeByHand(ctx context.Context, h scalp.Head, s Settings, l Layout) Layout {
	if len(s.Edits) == 0 {
		return l
	}
	l = l.clone()
	for i, e := range s.Edits {
		if ctx.Err() != nil {
			return l
		}
		if e.Kind.moves() {
			continue
		}
		if trouble := l.change(h, e); trouble != "" {
			l.Rejected = append(l.Rejected, RejectedEdit{i, e.At, trouble})
		}
	}
	slices.SortFunc(l.Rejected, func(a, b RejectedEdit) int { return cmp.Compare(a.Edit, b.Edit) })
	return l
}

const lockedHere = "Section %s is locked; unlock it first."

// change makes one change and says why it cannot.
func (l *Layout) change(h scalp.Head, e Edit) string {
	u := e.At.vec()
	i := at(h, l.Sections, u)
	if i < 0 {
		if at(h, l.LeftOut, u) < 0 {
			return "No section lies here any more: the structure or the hairline changed."
		}
		if e.Kind == LeaveOut {
			return ""
		}
		return "The section here is left out."
	}
	x := &l.Sections[i]
	switch e.Kind {
	case Lock:
		x.Locked = true
	case LeaveOut:
		switch {
		case x.Locked:
			return fmt.Sprintf(lockedHere, x.ID)
		case l.inZone(x.Zone) == 1:
			return fmt.Sprintf("Section %s is the last of its zone; something must stay. A structure with a base leaves a whole zone without plaits.", x.ID)
		}
		l.takeOut(x.ID)
	case Merge, Split:
		k := at(h, l.Sections, e.With.vec())
		switch {
		case k < 0:
			return "The other place no longer lies in a section."
		case (k == i) == (e.Kind == Merge):
			return "" // as it shall be
		case x.Locked || l.Sections[k].Locked:
			return fmt.Sprintf(lockedHere, x.ID)
		case e.Kind == Merge:
			return l.merge(h, i, k)
		default:
			return l.split(h, i, u, e.With.vec())
		}
	}
	return ""
}

// merge joins section k to section i.
func (l *Layout) merge(h scalp.Head, i, k int) string {
	a, b := l.Sections[i], l.Sections[k]
	if a.Linked != b.Linked || a.Laid != b.Laid {
		return fmt.Sprintf("%s and %s carry plaits of different kinds, loose or in the base; they cannot be one section.", a.ID, b.ID)
	}
	ring, ok := surface.Union(h, surface.UnitRing(h, a.Outline), surface.UnitRing(h, b.Outline))
	if !ok {
		return fmt.Sprintf("%s and %s do not lie side by side, so they cannot be one section.", a.ID, b.ID)
	}
	inRow := a.Zone == b.Zone && a.Row == b.Row
	a.Outline, a.Edited = surface.OnHead(h, ring), true
	a.measure(h, ring)
	wished := a.Area / (a.Share + b.Share) // of one section, as the two were judged
	a.Share = a.Area / wished
	if inRow {
		a.Width = Spread{a.Width.Min + b.Width.Min, a.Width.Mean + b.Width.Mean, a.Width.Max + b.Width.Max}
	} else {
		a.Width = Spread{min(a.Width.Min, b.Width.Min), max(a.Width.Mean, b.Width.Mean), max(a.Width.Max, b.Width.Max)}
		a.Height = Spread{a.Height.Min, a.Height.Mean + b.Height.Mean, a.Height.Max + b.Height.Max}
	}
	a.Hairline, a.Part = min(a.Hairline, b.Hairline), min(a.Part, b.Part)
	a.Seen, a.Stagger = a.Seen || b.Seen, min(a.Stagger, b.Stagger)
	a.Neighbours = slices.DeleteFunc(append(slices.Clone(a.Neighbours), b.Neighbours...), func(id string) bool { return id == a.ID || id == b.ID })
	slices.Sort(a.Neighbours)
	a.Neighbours = slices.Compact(a.Neighbours)
	l.Sections[i] = a
	l.Sections = slices.Delete(l.Sections, k, k+1)
	for _, id := range a.Neighbours {
		if n := l.find(id); n >= 0 {
			list := slices.DeleteFunc(slices.Clone(l.Sections[n].Neighbours), func(s string) bool { return s == a.ID || s == b.ID })
			l.Sections[n].Neighbours = append(list, a.ID)
		}
	}
	l.recount(rowAt{a.Zone, a.Row}, rowAt{b.Zone, b.Row})
	return ""
}

// measure takes area, centroid and normal from the outline.
func (s *Section) measure(h scalp.Head, ring []r3.Vec) {
	area, centroid := h.AreaCentroid(ring)
	normal := h.Normal(centroid)
	s.Area, s.Centroid, s.Normal = area, h.Point(centroid), scalp.Point{normal.X, normal.Y, normal.Z}
}

// split cuts section i in two halves between u and v.
func (l *Layout) split(h scalp.Head, i int, u, v r3.Vec) string {
	whole := l.Sections[i]
	ring := surface.UnitRing(h, whole.Outline)
	centre := surface.Toward(h, whole.Centroid)
	across := r3.Sub(u, v)
	across = r3.Sub(across, r3.Scale(r3.Dot(across, centre), centre))
	if r3.Norm(across) < surface.Same {
		return "The two places are one."
	}
	normal := scalp.Unit(across)
	// Halves as a rule; where both places lie on one side of the middle, between them.
	if r3.Dot(normal, u) <= 0 || r3.Dot(normal, v) >= 0 {
		between := scalp.Unit(r3.Add(u, v))
		normal = scalp.Unit(r3.Sub(normal, r3.Scale(r3.Dot(normal, between), between)))
	}
	first, second := surface.Cut(ring, normal), surface.Cut(ring, r3.Scale(-1, normal))
	if len(first) < 3 || len(second) < 3 {
		return "The cut would miss the section."
	}
	a, b := whole, whole
	for _, part := range []struct {
		s    *Section
		ring []r3.Vec
		mark string
	}{{&a, first, "a"}, {&b, second, "b"}} {
		part.s.ID, part.s.Edited = whole.ID+part.mark, true
		part.s.Outline = surface.OnHead(h, part.ring)
		part.s.measure(h, part.ring)
		part.s.Share = whole.Share * part.s.Area / whole.Area
		share := part.s.Area / whole.Area
		if math.Abs(r3.Dot(normal, whole.along)) > math.Sqrt2/2 {
			part.s.Width = whole.Width.times(share)
		} else {
			part.s.Height = whole.Height.times(share)
		}
		part.s.Hairline = surface.NewCurve(h, surface.UnitRing(h, l.HairlineCurve)).Distance(h, surface.Toward(h, part.s.Centroid), new(int))
	}
	if least := min(a.Area, b.Area); least < MinSize*MinSize {
		return fmt.Sprintf("The smaller half would be %.0f mm² only; at least %.0f mm² works.", least, MinSize*MinSize)
	}
	touching := func(x Section, id string) bool {
		n := l.find(id)
		if n < 0 {
			return false
		}
		_, ok := surface.Union(h, surface.UnitRing(h, x.Outline), surface.UnitRing(h, l.Sections[n].Outline))
		return ok
	}
	for _, part := range []*Section{&a, &b} {
		part.Neighbours = []string{}
		for _, id := range whole.Neighbours {
			if touching(*part, id) {
				part.Neighbours = append(part.Neighbours, id)
			}
		}
	}
	for _, id := range whole.Neighbours {
		n := l.find(id)
		if n < 0 {
			continue
		}
		list := slices.DeleteFunc(slices.Clone(l.Sections[n].Neighbours), func(s string) bool { return s == whole.ID })
		for _, part := range []Section{a, b} {
			if slices.Contains(part.Neighbours, id) {
				list = append(list, part.ID)
			}
		}
		l.Sections[n].Neighbours = list
	}
	a.Neighbours, b.Neighbours = append(a.Neighbours, b.ID), append(b.Neighbours, a.ID)
	l.Sections = slices.Replace(l.Sections, i, i+1, a, b)
	l.recount(rowAt{whole.Zone, whole.Row})
	return ""
}

// times is the spread of f times the values.
func (s Spread) times(f float64) Spread { return Spread{s.Min * f, s.Mean * f, s.Max * f} }

// distance2 is the square of the distance of two points, mm².
func distance2(a, b scalp.Point) float64 {
	return (a[0]-b[0])*(a[0]-b[0]) + (a[1]-b[1])*(a[1]-b[1]) + (a[2]-b[2])*(a[2]-b[2])
}
