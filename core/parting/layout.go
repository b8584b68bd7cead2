package parting

import (
	"math"
	"slices"
	"strconv"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/invalid"
	"kladotex/core/scalp"
)

// earShare is how far up the ear-to-ear part, from the ear top, the corner of
// the back half lies: rows below it end at the hairline and the part, the top
// row runs along the rest of the part.
const earShare = 0.6

// plan is a zone of the left side on its way to becoming sections.
type plan struct {
	zone, mirror Zone
	wish         Wish
	patch        *patch
	// ccw tells whether rows run counter-clockwise seen from outside when
	// walked along the lower line first.
	ccw bool
	// lines are the row lines from the bottom rail up, mids the middles of the
	// rows between them; courses the rows themselves.
	ts          []float64
	lines, mids []curve
	courses     []course
	// ids name the sections by row and place.
	ids [][]string
}

// borders are the named lines of one side that zones meet at.
type borders struct {
	hairline, middle, earToEar curve
}

// Lay parts the head in four quadrants along a middle part and an ear-to-ear
// part. The right side is the exact mirror image of the left. The error, if any,
// is an [invalid.Errors] with paths relative to s.
func Lay(h scalp.Head, s Settings) (Layout, error) {
	if err := s.Check(); err != nil {
		return Layout{}, err
	}
	plans, lines := quadrants(h, s)
	for _, p := range plans {
		p.layRows()
	}
	if n := 2 * (plans[0].count() + plans[1].count()); n > MaxSections {
		return Layout{}, tooMany(plans, s, n)
	}
	return draw(h, plans, lines), nil
}

// quadrants are the back and the front zone of the left side.
func quadrants(h scalp.Head, s Settings) ([]*plan, borders) {
	ear := newCurve(h, meridian(h, h.Landmark(scalp.EarTop), h.Crown()))
	corner := ear.at(earShare)
	ear = newCurve(h, append(append(
		ear.between([]r3.Vec{ear.points[0]}, 0, earShare), corner),
		ear.between(nil, earShare, 2)...))
	cut := slices.Index(ear.points, corner)

	frontPart := newCurve(h, meridian(h, h.Landmark(scalp.FrontCentre), h.Crown()))
	backPart := newCurve(h, meridian(h, h.Landmark(scalp.NapeCentre), h.Crown()))
	sub := func(from, to scalp.Landmark) curve { return newCurve(h, h.Hairline(from, to)) }

	side := slices.Clone(sub(scalp.EarTop, scalp.NapeCorner).points)
	slices.Reverse(side)
	side = append(side, ear.points[1:cut+1]...)
	back := &plan{
		zone: BackLeft, mirror: BackRight, wish: s.Back,
		patch: newPatch(h,
			sub(scalp.NapeCorner, scalp.NapeCentre).reversed(),
			newCurve(h, ear.points[cut:]).reversed(),
			backPart,
			newCurve(h, side)),
	}
	front := &plan{
		zone: FrontLeft, mirror: FrontRight, wish: s.Front, ccw: true,
		patch: newPatch(h,
			sub(scalp.Sideburn, scalp.EarTop),
			frontPart,
			sub(scalp.FrontCentre, scalp.Sideburn).reversed(),
			ear),
	}
	return []*plan{back, front}, borders{
		hairline: sub(scalp.FrontCentre, scalp.NapeCentre),
		middle:   newCurve(h, append(slices.Clone(frontPart.points), backPart.reversed().points[1:]...)),
		earToEar: ear,
	}
}

// layRows sets the number of rows, their lines and the sections in each.
func (p *plan) layRows() {
	rise := p.patch.rise()
	rows := rowCount(rise[riseSteps], p.wish.Height, p.wish.Ramp)
	p.ts = rowLines(rise, rows, p.wish.Ramp)
	p.lines, p.mids = make([]curve, rows+1), make([]curve, rows)
	p.courses = make([]course, rows)
	for i, t := range p.ts {
		p.lines[i] = p.patch.line(t)
	}
	for i := range rows {
		p.mids[i] = p.patch.line((p.ts[i] + p.ts[i+1]) / 2)
	}
	p.layCourses()
}

// layCourses sets the sections in each row.
func (p *plan) layCourses() {
	for i := range p.courses {
		p.courses[i] = course{length: p.mids[i].length() / (p.wish.Width * p.growth(i))}
	}
	switch p.wish.Pattern {
	case Grid:
		layGrid(p.courses)
	case Brick:
		layBrick(p.courses)
	case Triangle:
		layTriangles(p.courses)
	case FreeHand:
		layBrick(p.courses)
		jitter(p.courses)
	}
}

// growth is the wished size in row i ÷ that at the bottom rail.
func (p *plan) growth(i int) float64 {
	return math.Pow(p.wish.Ramp, (float64(i)+0.5)/float64(len(p.courses)))
}

func (p *plan) count() int {
	n := 0
	for _, c := range p.courses {
		n += c.sections()
	}
	return n
}

// tooMany refuses a layout of n sections and finds, by trying, by how much
// both sizes must grow; it names the zone with the more sections.
func tooMany(plans []*plan, s Settings, n int) error {
	count := func(grow float64) int {
		total := 0
		for _, p := range plans {
			q := &plan{patch: p.patch, wish: p.wish}
			q.wish.Pattern = Grid
			q.wish.Width *= grow
			q.wish.Height *= grow
			q.layRows()
			total += 2 * q.count()
		}
		return total
	}
	grow := math.Sqrt(float64(n) / MaxSections)
	for count(grow) > MaxSections*49/50 { // a brick may hold a little more than a grid
		grow *= 1.02
	}
	path := "back.widthMm"
	if plans[1].count() > plans[0].count() {
		path = "front.widthMm"
	}
	var bad invalid.Errors
	bad.Add(path, "Sections this small make %d on this head; up to %d are planned. Sections at least %s wide in front and %s behind would work.",
		n, MaxSections, invalid.Length(math.Ceil(s.Front.Width*grow*10)/10), invalid.Length(math.Ceil(s.Back.Width*grow*10)/10))
	return bad
}

// draw turns the plans of the left side into the layout of the whole head.
func draw(h scalp.Head, plans []*plan, lines borders) Layout {
	out := Layout{
		Seams: []Seam{}, Channels: []Channel{}, Warnings: []Warning{},
		HairlineCurve: bothSides(h, lines.hairline, true),
		MiddlePart:    surface(h, lines.middle.points),
		EarToEar:      bothSides(h, lines.earToEar, false),
		Stagger:       stagger(plans),
	}
	drawn := make([][][]Section, len(plans)) // by plan and row
	n := 0
	for i, p := range plans {
		drawn[i] = p.sections(h, lines)
		n += 2 * p.count()
	}
	out.Sections = make([]Section, 0, n)
	linkAcross(plans, drawn)
	for i, p := range plans {
		for _, zone := range []Zone{p.zone, p.mirror} {
			sum := ZoneSum{Zone: zone, Rows: len(p.courses)}
			for r, row := range drawn[i] {
				out.Rows = append(out.Rows, p.row(zone, r))
				for _, sec := range row {
					if zone == p.mirror {
						sec = mirrored(sec)
					}
					sum.add(sec)
					out.Sections = append(out.Sections, sec)
				}
			}
			out.Area += sum.Area
			out.Zones = append(out.Zones, sum)
			if p.wish.Pattern == Grid {
				out.Seams = append(out.Seams, p.seams(zone)...)
			}
			out.Channels = append(out.Channels, p.channels(h, zone)...)
		}
	}
	out.Warnings = warnings(plans, out)
	return out
}

// row are the facts of row r (from 0).
func (p *plan) row(zone Zone, r int) Row {
	grown := p.growth(r)
	line := func(c curve, joints []float64) RowLine {
		parts := make([]float64, len(joints))
		for i, x := range joints {
			parts[i] = x * c.length()
		}
		return RowLine{c.length(), parts}
	}
	c := p.courses[r]
	return Row{
		Zone: zone, Row: r + 1, Sections: c.sections(), Length: p.mids[r].length(),
		Size:  Size{p.wish.Width * grown, p.wish.Height * grown},
		Lower: line(p.lines[r], c.joints), Upper: line(p.lines[r+1], c.top()),
	}
}

// sectionID names the section at row and index, both from 1.
func sectionID(zone Zone, row, index int) string {
	return string(zone) + strconv.Itoa(row) + "." + strconv.Itoa(index)
}

// name gives every section its id.
func (p *plan) name() {
	p.ids = make([][]string, len(p.courses))
	for r, c := range p.courses {
		p.ids[r] = make([]string, c.sections())
		for k := range p.ids[r] {
			p.ids[r][k] = sectionID(p.zone, r+1, k+1)
		}
	}
}

// sections draws the zone row by row, with the facts that need no other zone.
func (p *plan) sections(h scalp.Head, lines borders) [][]Section {
	p.name()
	rows := make([][]Section, len(p.courses))
	ring := make([]r3.Vec, 0, 64)
	for r, c := range p.courses {
		lower, mid, upper := p.lines[r], p.mids[r], p.lines[r+1]
		rows[r] = make([]Section, c.sections())
		for k := range rows[r] {
			b := c.box(k)
			ring = p.ring(ring[:0], r, b)
			area, centroid := h.AreaCentroid(ring)
			normal := h.Normal(centroid)
			rows[r][k] = Section{
				ID: p.ids[r][k], Zone: p.zone, Row: r + 1, Index: k + 1,
				Outline:  surface(h, ring),
				Area:     area,
				Width:    spreadOf((b.lowTo-b.lowFrom)*lower.length(), b.middle()*mid.length(), (b.highTo-b.highFrom)*upper.length()),
				Height:   spreadOf(p.height(r, b.lowFrom, b.highFrom), p.height(r, (b.lowFrom+b.lowTo)/2, (b.highFrom+b.highTo)/2), p.height(r, b.lowTo, b.highTo)),
				Centroid: h.Point(centroid),
				Normal:   scalp.Point{normal.X, normal.Y, normal.Z},
				Hairline: distance(h, centroid, lines.hairline.points),
				Part:     h.Arc(centroid, scalp.Unit(r3.Vec{X: centroid.X, Z: centroid.Z})),
			}
			p.judge(&rows[r][k])
			rows[r][k].Neighbours = p.neighbours(r, k)
		}
	}
	return rows
}

// judge tells how large a section came out against what was wished, and whether
// its parts show: whether a hairline, or in front the part line, is nearer than
// the next section would be.
func (p *plan) judge(s *Section) {
	grown := p.growth(s.Row - 1)
	s.Share = s.Area / (p.wish.Width * p.wish.Height * grown * grown)
	reach := 0.75 * max(s.Width.Mean, s.Height.Mean)
	s.Seen = s.Hairline < reach || p.zone == FrontLeft && s.Part < reach
}

// ring appends the outline of a box of row r, counter-clockwise.
func (p *plan) ring(ring []r3.Vec, r int, b box) []r3.Vec {
	lower, upper := p.lines[r], p.lines[r+1]
	ring = append(ring, lower.at(b.lowFrom))
	if b.lowTo > b.lowFrom { // not the tip of a triangle
		ring = append(lower.between(ring, b.lowFrom, b.lowTo), lower.at(b.lowTo))
	}
	ring = p.riser(ring, r, b.lowTo, b.highTo, true)
	ring = append(ring, upper.at(b.highTo))
	if b.highTo > b.highFrom {
		ring = append(upper.between(ring, b.highTo, b.highFrom), upper.at(b.highFrom))
	}
	ring = p.riser(ring, r, b.lowFrom, b.highFrom, false)
	if !p.ccw {
		slices.Reverse(ring)
	}
	return ring
}

// riser appends the inner points of the part end of row r that runs from σ low on
// the lower line to σ high on the upper one. The ends of a row follow the zone's
// boundary point by point, so that zones meet exactly.
func (p *plan) riser(ring []r3.Vec, r int, low, high float64, up bool) []r3.Vec {
	from, to := p.ts[r], p.ts[r+1]
	if !up {
		from, to = to, from
	}
	switch {
	case low == 0 && high == 0:
		return p.patch.start.between(ring, from, to)
	case low == 1 && high == 1:
		return p.patch.end.between(ring, from, to)
	}
	return append(ring, p.mids[r].at((low+high)/2))
}

// height is the height in mm of row r along the riser from σ low to σ high.
func (p *plan) height(r int, low, high float64) float64 {
	mid := p.mids[r].at((low + high) / 2)
	return p.patch.head.Chord(p.lines[r].at(low), mid) + p.patch.head.Chord(mid, p.lines[r+1].at(high))
}

// neighbours are the ids next to section k of row r within the zone.
func (p *plan) neighbours(r, k int) []string {
	ids := make([]string, 0, 8)
	own := p.courses[r].box(k)
	across := func(other int) {
		if other < 0 || other >= len(p.courses) {
			return
		}
		for l := range p.courses[other].sections() {
			b := p.courses[other].box(l)
			shared := overlap(own.lowFrom, own.lowTo, b.highFrom, b.highTo)
			if other > r {
				shared = overlap(own.highFrom, own.highTo, b.lowFrom, b.lowTo)
			}
			if shared > 1e-6 {
				ids = append(ids, p.ids[other][l])
			}
		}
	}
	across(r - 1)
	if k > 0 {
		ids = append(ids, p.ids[r][k-1])
	}
	if k+1 < p.courses[r].sections() {
		ids = append(ids, p.ids[r][k+1])
	}
	across(r + 1)
	return ids
}

func overlap(a, b, c, d float64) float64 { return min(b, d) - max(a, c) }

// linkAcross joins the neighbours over the middle part and the ear-to-ear part.
func linkAcross(plans []*plan, drawn [][][]Section) {
	back, front := plans[0], plans[1]
	// Over the middle part every section meets its own mirror image.
	for r := range drawn[0] {
		for k := range drawn[0][r] {
			if b := back.courses[r].box(k); b.lowFrom == 0 && b.highFrom == 0 {
				link(&drawn[0][r][k], sectionID(back.mirror, r+1, k+1))
			}
		}
	}
	top := len(drawn[1]) - 1
	for k := range drawn[1][top] {
		if b := front.courses[top].box(k); b.highTo > b.highFrom {
			link(&drawn[1][top][k], sectionID(front.mirror, top+1, k+1))
		}
	}
	// Along the ear-to-ear part, in mm from the ear top.
	type contact struct {
		section  *Section
		from, to float64
	}
	var behind, before []contact
	ear := front.patch.end.length()
	hair := back.patch.end.length() - earShare*ear // the side rail's hairline stretch
	for r, row := range drawn[0] {
		side := back.patch.end.length()
		behind = append(behind, contact{&row[len(row)-1], back.ts[r]*side - hair, back.ts[r+1]*side - hair})
	}
	last := len(drawn[0]) - 1
	for k := range drawn[0][last] {
		b := back.courses[last].box(k)
		from, to := b.highFrom, b.highTo
		rail := back.patch.top.length()
		behind = append(behind, contact{&drawn[0][last][k], ear - to*rail, ear - from*rail})
	}
	for r, row := range drawn[1] {
		before = append(before, contact{&row[len(row)-1], front.ts[r] * ear, front.ts[r+1] * ear})
	}
	const touch = 0.5 // mm; less is a corner, not an edge
	for _, b := range behind {
		for _, f := range before {
			if overlap(max(0, b.from), b.to, f.from, f.to) > touch {
				link(b.section, f.section.ID)
				link(f.section, b.section.ID)
			}
		}
	}
}

func link(s *Section, id string) {
	if !slices.Contains(s.Neighbours, id) {
		s.Neighbours = append(s.Neighbours, id)
	}
}

// mirrorID is the id of the section opposite.
func mirrorID(id string) string {
	side := "L"
	if id[1] == 'L' {
		side = "R"
	}
	return id[:1] + side + id[2:]
}

// mirrored is the section's mirror image on the other side of the head.
func mirrored(s Section) Section {
	s.ID = mirrorID(s.ID)
	s.Zone = Zone(mirrorID(string(s.Zone)))
	s.Outline = mirroredLine(s.Outline)
	slices.Reverse(s.Outline)
	s.Centroid[1] = -s.Centroid[1]
	s.Normal[1] = -s.Normal[1]
	s.Neighbours = slices.Clone(s.Neighbours)
	for i, id := range s.Neighbours {
		s.Neighbours[i] = mirrorID(id)
	}
	return s
}

func mirroredLine(line scalp.Line) scalp.Line {
	out := slices.Clone(line)
	for i := range out {
		out[i][1] = -out[i][1]
	}
	return out
}

func surface(h scalp.Head, line []r3.Vec) scalp.Line {
	out := make(scalp.Line, len(line))
	for i, u := range line {
		out[i] = h.Point(u)
	}
	return out
}

// bothSides continues a left curve that ends on the middle down the right side;
// a closed curve does not repeat its first point.
func bothSides(h scalp.Head, c curve, closed bool) scalp.Line {
	left := surface(h, c.points)
	right := mirroredLine(left[:len(left)-1])
	slices.Reverse(right)
	if closed {
		right = right[:len(right)-1]
	}
	return append(left, right...)
}

// distance is the length in mm of the central plane section from u to the
// nearest point of line.
func distance(h scalp.Head, u r3.Vec, line []r3.Vec) float64 {
	best, least := line[0], math.Inf(1)
	for _, v := range line {
		if d := h.Surface(r3.Sub(u, v)); r3.Norm2(d) < least {
			best, least = v, r3.Norm2(d)
		}
	}
	return h.Arc(u, best)
}

func spreadOf(values ...float64) Spread {
	sum := 0.0
	for _, v := range values {
		sum += v
	}
	return Spread{slices.Min(values), sum / float64(len(values)), slices.Max(values)}
}

// add counts a section in.
func (z *ZoneSum) add(s Section) {
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
