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
	eachPanel(pairs, (*panel).readSeats)
	out := Layout{
		Seams: []Seam{}, Channels: []Channel{}, Notices: []advice.Notice{}, Rejected: []RejectedEdit{},
		LeftOut: []Section{}, Cornrows: []Cornrow{}, Nets: []NetArea{}, Balance: []Balance{}, Zones: []ZoneSum{}, Rows: []Row{},
		PartLine: scalp.Line{}, EarToEar: scalp.Line{}, Border: scalp.Line{},
		HairlineCurve: surface.BothSides(h, surface.NewCurve(h, h.Hairline(scalp.FrontCentre, scalp.NapeCentre)), true),
		Stagger:       stagger(pairs),
	}
	if f.left.divide.Points != nil {
		right := surface.Mirrored(surface.OnHead(h, f.right.divide.Points))
		slices.Reverse(right)
		out.EarToEar = append(surface.OnHead(h, f.left.divide.Points), right[1:]...)
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
	if s.toNape() {
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
	if like != nil {
		d.likeTheLeft(p, zone)
		return rows
	}
	for r, row := range rows {
		d.out.Rows = append(d.out.Rows, p.row(d.h, zone, r, len(row), side))
	}
	d.seamsAndChannels(p, zone, side)
	return rows
}

// likeTheLeft notes of a panel on the right, just drawn, what was noted of it on the left
// before.
func (d drawing) likeTheLeft(p *panel, zone Zone) {
	left := on(p.key, false, LeftSide)
	for _, r := range d.out.Rows[len(d.out.Rows)-len(p.courses):] {
		r.Zone, r.Line = zone, surface.Mirrored(r.Line)
		r.End[1] = -r.End[1]
		d.out.Rows = append(d.out.Rows, r)
	}
	for _, c := range d.out.Channels {
		if c.Zone != left {
			continue
		}
		c.Zone, c.Line, c.Sections = zone, surface.Mirrored(c.Line), slices.Clone(c.Sections)
		for i, id := range c.Sections {
			c.Sections[i] = string(zone) + id[len(left):]
		}
		d.out.Channels = append(d.out.Channels, c)
	}
	for _, x := range d.out.Seams {
		if x.Zone == left {
			x.Zone = zone
			d.out.Seams = append(d.out.Seams, x)
		}
	}
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
	c, band := p.courses[r], &p.bands[r]
	line := func(l surface.Line, from, to float64, joints []float64) RowLine {
		out := RowLine{Start: band.Mid.MM(from) - band.Mid.MM(band.From), Length: l.MM(to) - l.MM(from), Parts: make([]float64, 0, len(joints))}
		for _, s := range joints {
			switch { // a zigzag has corners at the ends
			case s > from && s < to, c.Outer != nil && s >= from && s <= to:
				out.Parts = append(out.Parts, l.MM(s)-l.MM(from))
			case s <= from:
				out.First++
			}
		}
		return out
	}
	out := Row{
		Zone: zone, Row: r + 1, Sections: n, Length: p.midLength(r), Size: p.grown(r, 0),
		Middle: [...]string{bond.Border: "border", bond.Straddled: "section", bond.Divided: "part"}[c.Start],
		Lower:  line(band.Lower, band.LowFrom, band.LowTo, p.lowJoints(r)),
		Upper:  line(band.Upper, band.HighFrom, band.HighTo, p.highJoints(r)), Line: scalp.Line{},
		Below: p.below(r),
	}
	end := (band.LowTo + band.HighTo) / 2
	if p.ring || p.front && !p.central { // these start at the hairline, where there is room
		end = (band.LowFrom + band.HighFrom) / 2
	}
	out.End = place(scalp.Line{h.Point(band.Mid.At(end))}, side)[0]
	if r < len(p.bands)-1 {
		next := &p.bands[r+1]
		from, to := max(band.HighFrom, next.LowFrom), min(band.HighTo, next.LowTo)
		out.Line = place(surface.OnHead(h, p.chart.Curve(band.Upper, from, to).Points), side)
	}
	if p.central {
		out.Length *= 2
	}
	return out
}

// below are the part ends of the row under row r on the line they share, mm from where row
// r starts on it, those on the middle included.
func (p *panel) below(r int) []float64 {
	if r == 0 {
		return []float64{}
	}
	c, band := &p.courses[r-1], &p.bands[r]
	mm := make([]float64, 0, c.Boxes()+1)
	from, to := p.line(r)
	start := band.Lower.MM(band.LowFrom)
	if c.Start == bond.Divided {
		mm = append(mm, 0)
	}
	for _, s := range p.highJoints(r - 1) {
		if s > from && s < to || c.Outer != nil && s >= from && s <= to {
			mm = append(mm, band.Lower.MM(s)-start)
		}
	}
	if c.End == bond.Divided {
		mm = append(mm, band.Lower.MM(band.LowTo)-start)
	}
	return mm
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
	ring := make([]r3.Vec, 0, 96)
	var room [64][2]float64
	var near, nearPart int // points of the hairline and of the part
	for r, c := range p.courses {
		band := &p.bands[r]
		rows[r], all = all[:c.Boxes()], all[c.Boxes():]
		for k := range rows[r] {
			box := p.box(r, k)
			ring = band.Ring(ring[:0], box)
			area, centroid := h.AreaCentroid(ring)
			if area < 0 { // laid clockwise
				slices.Reverse(ring)
				area, centroid = -area, r3.Scale(-1, centroid)
			}
			s := &rows[r][k]
			*s = Section{
				ID: names[r][k].id, Zone: zone, Row: r + 1, Index: names[r][k].index,
				Front: p.front, Linked: p.linked, Laid: p.laid,
				Outline:  d.outline(ring),
				Area:     area,
				Width:    p.width(band, box),
				Compact:  surface.Compactness(h, ring, area, centroid, room[:0]),
				Centroid: h.Point(centroid),
				Hairline: f.edge.Distance(h, centroid, &near),
				Part:     f.toPart(centroid, &nearPart),
				Stagger:  min(offsets[r][k], offsets[r][k+1]),
			}
			s.Height = p.heights(band, box, area/max(1, s.Width.Mean))
			s.along = scalp.Unit(r3.Sub(band.Mid.At((box.LowTo+box.HighTo)/2), band.Mid.At((box.LowFrom+box.HighFrom)/2)))
			if p.open {
				s.Front = centroid.X > 0
			}
			normal := h.Normal(centroid)
			s.Normal = scalp.Point{normal.X, normal.Y, normal.Z}
			wish := p.grown(r, band.ShareAt((box.LowFrom+box.LowTo+box.HighFrom+box.HighTo)/4))
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

// width is how wide a section is along its row, on both lines and between them.
func (p *panel) width(b *surface.Band, box surface.Box) Spread {
	on := func(l surface.Line, from, to, start, end float64) float64 {
		return max(0, l.MM(min(to, end))-l.MM(max(from, start)))
	}
	return spreadOf(
		on(b.Lower, box.LowFrom, box.LowTo, b.LowFrom, b.LowTo),
		on(b.Mid, (box.LowFrom+box.HighFrom)/2, (box.LowTo+box.HighTo)/2, (b.LowFrom+b.HighFrom)/2, (b.LowTo+b.HighTo)/2),
		on(b.Upper, box.HighFrom, box.HighTo, b.HighFrom, b.HighTo))
}

// heights is how high a section is across its row, at its ends and between them, where no
// border cuts the row off; mean is what stands for it where one does all along.
func (p *panel) heights(b *surface.Band, box surface.Box, mean float64) Spread {
	var found [3]float64
	n := 0
	for _, f := range [3]float64{0, 0.5, 1} {
		low, high := box.LowFrom+f*(box.LowTo-box.LowFrom), box.HighFrom+f*(box.HighTo-box.HighFrom)
		if min(low, high) >= b.FullFrom-1e-9 && max(low, high) <= b.FullTo+1e-9 {
			found[n] = b.Height(low, high)
			n++
		}
	}
	if n == 0 {
		return Spread{mean, mean, mean}
	}
	return spreadOf(found[:n]...)
}

// partShows tells whether a panel's sections beside the part line are seen.
func (d drawing) partShows(p *panel) bool { return p.front && d.f.left.s.hasPart() }

// toPart is the distance along the scalp to the part line, or to the middle where
// there is none, or where it is the middle; see [surface.Curve.Distance] for guess.
func (f *frame) toPart(u r3.Vec, guess *int) float64 {
	if from, to := f.s.offsets(); from == 0 && to == 0 {
		return f.h.Arc(u, scalp.Unit(r3.Vec{X: u.X, Z: u.Z}))
	}
	return f.part.Distance(f.h, u, guess)
}

// neighbours are the ids next to section k of row r of a panel within the zone.
func (d drawing) neighbours(p *panel, r, k int, names [][]name) []string {
	out := d.ids.take(8)[:0]
	own, band := p.box(r, k), &p.bands[r]
	across := func(other int) {
		if other < 0 || other >= len(p.courses) {
			return
		}
		next := &p.bands[other]
		line := band.Upper
		from, to, joints := own.HighFrom, own.HighTo, p.lowJoints(other)
		start, end := max(band.HighFrom, next.LowFrom), min(band.HighTo, next.LowTo)
		if other < r {
			line = band.Lower
			from, to, joints = own.LowFrom, own.LowTo, p.highJoints(other)
			start, end = max(band.LowFrom, next.HighFrom), min(band.LowTo, next.HighTo)
		}
		from, to = max(from, start), min(to, end)
		l, _ := slices.BinarySearch(joints, from)
		for ; l <= len(joints); l++ {
			low, high := bond.Gap(joints, l, start, end)
			if low >= to {
				break
			}
			if a, b := max(from, low), min(to, high); b > a && line.MM(b)-line.MM(a) > surface.Touch {
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
	touch := func(rail []stretch, id string, from, to float64) {
		for _, x := range rail {
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
	rails := p.rails
	// How far up its first and its last ray every line lies, mm.
	first, last := p.upTo(0), p.upTo(p.chart.Steps)
	if p.isRound && p.sectorEnd != nil { // counted from the ear, where the outermost line ends below it
		rails[endRail] = p.sectorEnd
		shift := p.sectorEnd[0].to - last[p.rows]
		for i := range last {
			last[i] += shift
		}
	}
	steps := float64(p.chart.Steps)
	for r, c := range p.courses {
		band := &p.bands[r]
		n := c.Boxes()
		if band.LowFrom == 0 && band.HighFrom == 0 {
			touch(rails[startRail], names[r][0].id, first[r], first[r+1])
		}
		if band.LowTo == steps && band.HighTo == steps {
			touch(rails[endRail], names[r][n-1].id, last[r], last[r+1])
		}
		for k := range names[r] {
			b := p.box(r, k)
			if r == 0 {
				touch(rails[bottomRail], names[r][k].id, band.Lower.MM(b.LowFrom), band.Lower.MM(b.LowTo))
			}
			if r == len(p.courses)-1 {
				touch(rails[topRail], names[r][k].id, band.Upper.MM(max(b.HighFrom, band.HighFrom))-band.Upper.MM(band.HighFrom), band.Upper.MM(b.HighTo)-band.Upper.MM(band.HighFrom))
			}
		}
	}
}

// upTo is how far up a ray every row line lies, mm from the lowest.
func (p *panel) upTo(ray int) []float64 {
	out := make([]float64, p.rows+1)
	for i := range p.bands {
		b := &p.bands[i]
		s := float64(ray)
		out[i+1] = out[i] + b.Height(s, s)
	}
	return out
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
