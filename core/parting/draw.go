package parting

import (
	"cmp"
	"context"
	"math"
	"slices"
	"strconv"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/advice"
	"kladotex/core/bond"
	"kladotex/core/scalp"
	"kladotex/core/surface"
)

// draw turns the panels into the sections of the whole head. When ctx ends it stops
// half-way; whoever asked looks at ctx before using the sections.
func draw(ctx context.Context, h scalp.Head, s Settings, f frames, pairs []zonePair) Layout {
	out := Layout{
		Seams: []Seam{}, Channels: []Channel{}, Notices: []advice.Notice{}, Rejected: []RejectedEdit{},
		LeftOut: []Section{}, Tracks: []Track{}, Nets: []NetArea{}, Balance: []Balance{}, Zones: []ZoneSum{}, Rows: []Row{},
		PartLine: scalp.Line{}, EarToEar: scalp.Line{}, Border: scalp.Line{},
		HairlineCurve: surface.BothSides(h, surface.NewCurve(h, h.Hairline(scalp.FrontCentre, scalp.NapeCentre)), true),
		Stagger:       stagger(pairs),
	}
	if f.left.divide.Points != nil {
		out.EarToEar = surface.BothSides(h, f.left.divide, false)
	}
	if s.hasPart() {
		out.PartLine = partLine(h, s, f.left)
	}
	if s.Edges > 0 {
		out.Border = surface.BothSides(h, surface.NewCurve(h, f.left.border.points), true)
	}
	out.Sections = make([]Section, 0, sectionsOf(pairs))
	contacts := map[string][]contact{}
	d := drawing{h: h, f: f, out: &out, contacts: contacts, points: &arena[scalp.Point]{}, ids: &arena[string]{}}
	for _, c := range pairs {
		switch p := c.any(); {
		case ctx.Err() != nil:
			return out
		case p.central:
			d.central(c)
		default:
			var left [][]Section
			if c.left != nil {
				left = d.side(c.left, LeftSide, nil)
			}
			if c.right != nil {
				if c.right != c.left {
					left = nil
				}
				d.side(c.right, RightSide, left)
			}
		}
	}
	out.link(contacts)
	return out
}

// partLine runs from the front hairline to the stop or the nape.
func partLine(h scalp.Head, s Settings, f *frame) scalp.Line {
	line := f.part
	if s.Part.Stop == 0 && !s.hasBase() {
		line = line.Then(h, surface.NewCurve(h, surface.GreatCircle(h, line.Last(), f.border.at(scalp.NapeCentre))))
	}
	return surface.OnHead(h, line.Points)
}

// drawing draws panels into a layout.
type drawing struct {
	h        scalp.Head
	f        frames
	out      *Layout
	contacts map[string][]contact
	points   *arena[scalp.Point]
	ids      *arena[string]
}

// arena hands out short slices from long ones: a head has hundreds of outlines and
// lists of neighbours, and one allocation for each would be felt.
type arena[T any] struct{ free []T }

func (r *arena[T]) take(n int) []T {
	if n > len(r.free) {
		r.free = make([]T, max(n, 1024))
	}
	taken := r.free[:n:n]
	r.free = r.free[n:]
	return taken
}

// outline is a ring of unit vectors on the surface.
func (d drawing) outline(ring []r3.Vec) scalp.Line {
	line := scalp.Line(d.points.take(len(ring)))
	for i, u := range ring {
		line[i] = d.h.Point(u)
	}
	return line
}

// side draws a panel on one side, from its likeness on the other where there is one.
func (d drawing) side(p *panel, side Side, like [][]Section) [][]Section {
	zone := on(p.key, false, side)
	names := make([][]name, len(p.courses))
	for r, c := range p.courses {
		names[r] = make([]name, c.Boxes())
		for k := range names[r] {
			names[r][k] = nameOf(zone, r+1, k+1)
		}
	}
	from := len(d.out.Sections)
	d.out.Sections = d.out.Sections[:from+p.boxes()] // there is room for all
	rows := d.half(p, zone, side, names, like, d.out.Sections[from:])
	for r, row := range rows {
		d.out.Rows = append(d.out.Rows, p.row(d.h, zone, r, len(row), side))
	}
	d.seamsAndChannels(p, zone, side)
	return rows
}

// central draws both halves of a panel and joins what lies across the middle.
func (d drawing) central(c zonePair) {
	zone := on(c.left.key, true, LeftSide)
	left, right := centralNames(c.left, zone)
	ours := d.half(c.left, zone, LeftSide, left, nil, make([]Section, c.left.boxes()))
	var like [][]Section
	if c.right == c.left {
		like = ours
	}
	theirs := d.half(c.right, zone, RightSide, right, like, make([]Section, c.right.boxes()))
	for r := range ours {
		from := len(d.out.Sections)
		for k := range ours[r] {
			if i := slices.IndexFunc(theirs[r], func(s Section) bool { return s.ID == ours[r][k].ID }); i >= 0 {
				ours[r][k] = joined(d.h, ours[r][k], theirs[r][i])
			}
			d.out.Sections = append(d.out.Sections, ours[r][k])
		}
		for k := range theirs[r] {
			if !slices.ContainsFunc(left[r], func(n name) bool { return n.id == theirs[r][k].ID }) {
				d.out.Sections = append(d.out.Sections, theirs[r][k])
			}
		}
		row := d.out.Sections[from:]
		slices.SortFunc(row, func(a, b Section) int { return cmp.Compare(a.Index, b.Index) })
		d.out.Rows = append(d.out.Rows, c.left.row(d.h, zone, r, len(row), LeftSide))
	}
	d.seamsAndChannels(c.left, zone, LeftSide)
	d.seamsAndChannels(c.right, zone, RightSide)
}

// centralNames name the sections of both halves of a central zone: from left to right,
// or in rings from the front centre round by the left.
func centralNames(p *panel, zone Zone) (left, right [][]name) {
	left, right = make([][]name, len(p.courses)), make([][]name, len(p.courses))
	for r, c := range p.courses {
		n := c.Boxes()
		left[r], right[r] = make([]name, n), make([]name, n)
		for k := range n {
			onStart, onEnd := k == 0 && c.Start == bond.Straddled, k == n-1 && c.End == bond.Straddled
			l, m := n-k, n+k+1
			if c.Start == bond.Straddled {
				m--
			}
			if p.ring {
				l, m = k+1, 2*n-k
				if c.End == bond.Straddled {
					m--
				}
			}
			if onStart || onEnd {
				m = l
			}
			left[r][k], right[r][k] = nameOf(zone, r+1, l), nameOf(zone, r+1, m)
		}
	}
	return left, right
}

// joined is a section across the middle, from its two halves.
func joined(h scalp.Head, a, b Section) Section {
	ring, ok := surface.Union(h, surface.UnitRing(h, a.Outline), surface.UnitRing(h, b.Outline))
	if ok {
		a.Outline = surface.OnHead(h, ring)
	}
	total := a.Area + b.Area
	centroid := scalp.Unit(r3.Add(r3.Scale(a.Area/total, surface.Toward(h, a.Centroid)), r3.Scale(b.Area/total, surface.Toward(h, b.Centroid))))
	normal := h.Normal(centroid)
	a.Area, a.Centroid, a.Normal = total, h.Point(centroid), scalp.Point{normal.X, normal.Y, normal.Z}
	a.Share = (a.Share + b.Share) // both are measured against a whole section
	a.Width = Spread{a.Width.Min + b.Width.Min, a.Width.Mean + b.Width.Mean, a.Width.Max + b.Width.Max}
	a.Hairline, a.Part = min(a.Hairline, b.Hairline), math.Abs(h.Arc(centroid, scalp.Unit(r3.Vec{X: centroid.X, Z: centroid.Z})))
	a.Stagger, a.Seen = min(a.Stagger, b.Stagger), a.Seen || b.Seen
	for _, id := range b.Neighbours {
		if id != a.ID && !slices.Contains(a.Neighbours, id) {
			a.Neighbours = append(a.Neighbours, id)
		}
	}
	return a
}

// seamsAndChannels notes what else there is to know of a panel on a side.
func (d drawing) seamsAndChannels(p *panel, zone Zone, side Side) {
	if p.wish.Pattern == Grid && (side == LeftSide || !p.central) {
		d.out.Seams = append(d.out.Seams, p.seams(zone)...)
	}
	d.out.Channels = append(d.out.Channels, p.channels(d.h, zone, side)...)
}

// row are the facts of row r (from 0), drawn on a side, that holds n sections.
func (p *panel) row(h scalp.Head, zone Zone, r, n int, side Side) Row {
	line := func(c surface.Curve, joints []float64) RowLine {
		parts := make([]float64, len(joints))
		for i, x := range joints {
			parts[i] = x * c.Length()
		}
		return RowLine{c.Length(), parts}
	}
	c := p.courses[r]
	size := p.grown(r, 0)
	out := Row{
		Zone: zone, Row: r + 1, Sections: n, Length: p.mids[r].Length(), Size: size,
		Middle: [...]string{bond.Border: "border", bond.Straddled: "section", bond.Divided: "part"}[c.Start],
		Lower:  line(p.lines[r], c.Joints), Upper: line(p.lines[r+1], c.Top()),
		OffBelow: p.offBelow(r), Line: scalp.Line{},
		End: place(scalp.Line{h.Point(p.mids[r].Last())}, side)[0],
	}
	if r < len(p.mids)-1 {
		out.Line = place(surface.OnHead(h, p.lines[r+1].Points), side)
	}
	if p.central {
		out.Length *= 2
	}
	if p.ring || p.front && !p.central { // these start at the hairline, where there is room
		out.End = place(scalp.Line{h.Point(p.mids[r].First())}, side)[0]
	}
	return out
}

// offBelow are the distances in mm of the part ends on the lower line of row r from
// the nearest ones of the row below.
func (p *panel) offBelow(r int) []float64 {
	out := []float64{}
	if r == 0 {
		return out
	}
	below := p.courses[r-1].Higher()
	if len(below) == 0 {
		return out
	}
	for _, x := range p.courses[r].Joints {
		out = append(out, (x-nearest(below, x))*p.lines[r].Length())
	}
	return out
}

// place is a line laid on the left as it lies on a side.
func place(line scalp.Line, side Side) scalp.Line {
	if side == RightSide {
		return surface.Mirrored(line)
	}
	return line
}

// name is a section's id with its place in the row.
type name struct {
	id    string
	index int
}

func nameOf(zone Zone, row, index int) name { return name{sectionID(zone, row, index), index} }

// sectionID names the section at row and index, both from 1.
func sectionID(zone Zone, row, index int) string {
	return string(zone) + strconv.Itoa(row) + "." + strconv.Itoa(index)
}

// half draws a panel row by row on a side, its sections named so, and notes
// where they meet other zones. like is the same panel drawn on the other side, if
// it was; all has room for the sections.
func (d drawing) half(p *panel, zone Zone, side Side, names [][]name, like [][]Section, all []Section) [][]Section {
	h, f := d.h, d.f.left
	d.noteContacts(p, side, names)
	if like != nil {
		rows := make([][]Section, len(like))
		for r := range like {
			rows[r], all = all[:len(like[r])], all[len(like[r]):]
			copy(rows[r], like[r])
			for k := range rows[r] {
				s := &rows[r][k]
				s.ID, s.Zone, s.Index = names[r][k].id, zone, names[r][k].index
				s.Neighbours = d.neighbours(p, r, k, names)
				d.mirror(s)
			}
		}
		return rows
	}
	if side == RightSide {
		f = d.f.right
	}
	offsets := p.jointOffsets()
	rows := make([][]Section, len(p.courses))
	ring := make([]r3.Vec, 0, 64)
	for r, c := range p.courses {
		lower, mid, upper := p.lines[r], p.mids[r], p.lines[r+1]
		rows[r], all = all[:c.Boxes()], all[c.Boxes():]
		for k := range rows[r] {
			b := c.Box(k)
			ring = p.ringOf(ring[:0], r, b)
			area, centroid := h.AreaCentroid(ring)
			s := &rows[r][k]
			*s = Section{
				ID: names[r][k].id, Zone: zone, Row: r + 1, Index: names[r][k].index,
				Front: p.front, Linked: p.linked,
				Outline:  d.outline(ring),
				Area:     area,
				Width:    spreadOf((b.LowTo-b.LowFrom)*lower.Length(), b.Middle()*mid.Length(), (b.HighTo-b.HighFrom)*upper.Length()),
				Height:   spreadOf(p.height(r, b.LowFrom, b.HighFrom), p.height(r, (b.LowFrom+b.LowTo)/2, (b.HighFrom+b.HighTo)/2), p.height(r, b.LowTo, b.HighTo)),
				Centroid: h.Point(centroid),
				Hairline: surface.Distance(h, centroid, f.border.points),
				Part:     f.toPart(centroid),
				Stagger:  min(offsets[r][k], offsets[r][k+1]),
			}
			s.along = scalp.Unit(r3.Sub(mid.At((b.LowTo+b.HighTo)/2), mid.At((b.LowFrom+b.HighFrom)/2)))
			if p.open {
				s.Front = centroid.X > 0
			}
			normal := h.Normal(centroid)
			s.Normal = scalp.Point{normal.X, normal.Y, normal.Z}
			wish := p.grown(r, (b.LowFrom+b.LowTo+b.HighFrom+b.HighTo)/4)
			s.Share = area / (wish.Width * wish.Height)
			reach := 0.75 * max(s.Width.Mean*c.Folds(k), s.Height.Mean)
			s.Seen = s.Hairline < reach || d.partShows(p) && s.Part < reach
			s.Neighbours = d.neighbours(p, r, k, names)
			if side == RightSide {
				d.mirror(s)
			}
		}
	}
	return rows
}

// partShows tells whether a panel's sections beside the part line are seen.
func (d drawing) partShows(p *panel) bool { return p.front && d.f.left.s.hasPart() }

// toPart is the distance along the scalp to the part line, or to the middle where
// there is none, or where it is the middle.
func (f *frame) toPart(u r3.Vec) float64 {
	if from, to := f.s.offsets(); from == 0 && to == 0 {
		return f.h.Arc(u, scalp.Unit(r3.Vec{X: u.X, Z: u.Z}))
	}
	return surface.Distance(f.h, u, f.part.Points)
}

// ringOf appends the outline of a box of row r, counter-clockwise.
func (p *panel) ringOf(ring []r3.Vec, r int, b bond.Box) []r3.Vec {
	lower, upper := p.lines[r], p.lines[r+1]
	ring = append(ring, lower.At(b.LowFrom))
	if b.LowTo > b.LowFrom { // not the tip of a triangle
		ring = append(lower.Between(ring, b.LowFrom, b.LowTo), lower.At(b.LowTo))
	}
	ring = p.riser(ring, r, b.LowTo, b.HighTo, true)
	ring = append(ring, upper.At(b.HighTo))
	if b.HighTo > b.HighFrom {
		ring = append(upper.Between(ring, b.HighTo, b.HighFrom), upper.At(b.HighFrom))
	}
	ring = p.riser(ring, r, b.LowFrom, b.HighFrom, false)
	if !p.ccw {
		slices.Reverse(ring)
	}
	return ring
}

// riser appends the inner points of the part end of row r that runs from σ low on
// the lower line to σ high on the upper one. The ends of a row follow the zone's
// boundary point by point, so that zones meet exactly.
func (p *panel) riser(ring []r3.Vec, r int, low, high float64, up bool) []r3.Vec {
	from, to := p.ts[r], p.ts[r+1]
	if !up {
		from, to = to, from
	}
	switch {
	case low == 0 && high == 0:
		return p.patch.Start.Between(ring, from, to)
	case low == 1 && high == 1:
		return p.patch.End.Between(ring, from, to)
	}
	return append(ring, p.mids[r].At((low+high)/2))
}

// height is the height in mm of row r along the riser from σ low to σ high.
func (p *panel) height(r int, low, high float64) float64 {
	mid := p.mids[r].At((low + high) / 2)
	return p.patch.Head.Chord(p.lines[r].At(low), mid) + p.patch.Head.Chord(mid, p.lines[r+1].At(high))
}

// neighbours are the ids next to section k of row r of a panel within the zone.
func (d drawing) neighbours(p *panel, r, k int, names [][]name) []string {
	out := d.ids.take(8)[:0]
	own := p.courses[r].Box(k)
	across := func(other int) {
		if other < 0 || other >= len(p.courses) {
			return
		}
		from, to, line := own.LowFrom, own.LowTo, p.courses[other].Top()
		if other > r {
			from, to, line = own.HighFrom, own.HighTo, p.courses[other].Joints
		}
		const touching = 1e-6
		l, _ := slices.BinarySearch(line, from+touching)
		for ; l <= len(line); l++ {
			if low, high := bond.Gap(line, l); low >= to-touching {
				break
			} else if overlap(from, to, low, high) > touching {
				out = append(out, names[other][l].id)
			}
		}
	}
	across(r - 1)
	if k > 0 {
		out = append(out, names[r][k-1].id)
	}
	if k+1 < p.courses[r].Boxes() {
		out = append(out, names[r][k+1].id)
	}
	across(r + 1)
	return out
}

func overlap(a, b, c, d float64) float64 { return min(b, d) - max(a, c) }

// contact is where a section touches a border, mm along it.
type contact struct {
	id       string
	from, to float64
}

// noteContacts notes where the sections of a panel touch the borders of its zone.
func (d drawing) noteContacts(p *panel, side Side, names [][]name) {
	touch := func(rail int, id string, from, to float64) {
		for _, x := range p.rails[rail] {
			low, high := max(from, x.from), min(to, x.to)
			if high <= low {
				continue
			}
			a, b := x.at+x.dir*(low-x.from), x.at+x.dir*(high-x.from)
			name := x.border
			switch {
			case x.across > 0 && side == RightSide:
				a, b = x.across-a, x.across-b
			case x.sided:
				name += string(side)
			}
			d.contacts[name] = append(d.contacts[name], contact{id, min(a, b), max(a, b)})
		}
	}
	for r, c := range p.courses {
		from, to := p.ts[r], p.ts[r+1]
		last := c.Boxes() - 1
		start, end := p.patch.Start.Length(), p.patch.End.Length()
		touch(startRail, names[r][0].id, from*start, to*start)
		touch(endRail, names[r][last].id, from*end, to*end)
		for k := range names[r] {
			b := c.Box(k)
			if r == 0 {
				touch(bottomRail, names[r][k].id, b.LowFrom*p.patch.Bottom.Length(), b.LowTo*p.patch.Bottom.Length())
			}
			if r == len(p.courses)-1 {
				touch(topRail, names[r][k].id, b.HighFrom*p.patch.Top.Length(), b.HighTo*p.patch.Top.Length())
			}
		}
	}
}

// link makes neighbours of the sections that touch one border at the same place.
func (l *Layout) link(contacts map[string][]contact) {
	at := make(map[string]int, len(l.Sections))
	for i := range l.Sections {
		at[l.Sections[i].ID] = i
	}
	add := func(id, other string) {
		s := &l.Sections[at[id]]
		if !slices.Contains(s.Neighbours, other) {
			s.Neighbours = append(s.Neighbours, other)
		}
	}
	names := make([]string, 0, len(contacts))
	for name := range contacts {
		names = append(names, name)
	}
	slices.Sort(names)
	for _, name := range names {
		list := contacts[name]
		slices.SortFunc(list, func(a, b contact) int {
			return cmp.Or(cmp.Compare(a.from, b.from), cmp.Compare(a.id, b.id))
		})
		for i, a := range list {
			for _, b := range list[i+1:] {
				if b.from >= a.to {
					break
				}
				if a.id != b.id && overlap(a.from, a.to, b.from, b.to) > surface.Touch {
					add(a.id, b.id)
					add(b.id, a.id)
				}
			}
		}
	}
}

// mirror puts a section laid in a mirror on the right side.
func (d drawing) mirror(s *Section) {
	line := scalp.Line(d.points.take(len(s.Outline)))
	for i, p := range s.Outline { // counter-clockwise again
		line[len(line)-1-i] = scalp.Point{p[0], -p[1], p[2]}
	}
	s.Outline = line
	s.Centroid[1] = -s.Centroid[1]
	s.Normal[1] = -s.Normal[1]
	s.along = scalp.Mirror(s.along)
}

func spreadOf(values ...float64) Spread {
	sum := 0.0
	for _, v := range values {
		sum += v
	}
	return Spread{slices.Min(values), sum / float64(len(values)), slices.Max(values)}
}

// add counts a section in.
func (z *ZoneSum) add(s *Section) {
	z.Width = z.Width.with(s.Width, z.Sections)
	z.Height = z.Height.with(s.Height, z.Sections)
	z.Sections++
	z.Area += s.Area
}

// with is the spread of n values and one more, itself a spread.
func (s Spread) with(more Spread, n int) Spread {
	if n == 0 {
		return more
	}
	return Spread{
		min(s.Min, more.Min),
		s.Mean + (more.Mean-s.Mean)/float64(n+1),
		max(s.Max, more.Max),
	}
}
