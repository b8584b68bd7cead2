package parting

import (
	"context"
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/invalid"
	"kladotex/core/scalp"
	"kladotex/core/surface"
)

// cornrowSteps is the number of steps in which a cornrow is drawn.
const cornrowSteps = 40

// blend is the length over which merging cornrows run together, mm.
const blend = 25.0

// strand is a cornrow on its way: its middle and the scalp whose hair it takes.
type strand struct {
	zone     Zone
	path     surface.Curve
	outlines []scalp.Line
	area     float64
	// staggered is true for every other one, whose pieces stand half a spacing on.
	staggered bool
	// bare is true where no pieces hang on it.
	bare bool
	// shows is true for the design in front and for the lowest cornrow on a side, at the
	// temple: their pieces stand closer.
	shows bool
}

// layBase lays the cornrows and nets of both sides into the layout.
func layBase(ctx context.Context, h scalp.Head, s Settings, f frames, l Layout) (Layout, error) {
	bases := f.bases()
	if len(bases) == 0 {
		return l, nil
	}
	l = l.clone()
	var behind []strand
	for _, c := range bases {
		strands := strandsOf(h, c)
		switch b := c.any(); {
		case b.key == "T":
			behind = append(behind, strands...)
		default:
			for i := range strands {
				lowest := i == 0 || strands[i].zone != strands[i-1].zone
				strands[i].bare = strands[i].bare || b.key == "D" && !s.Design.Pieces
				strands[i].shows = b.key == "D" || b.key == "S" && lowest
			}
			if own, ok := s.sidesMerged(b, strands); ok {
				l.addCornrows(h, own, strands, true)
			} else {
				l.addCornrows(h, s, strands, false)
			}
		}
	}
	columns := s.Base.Run != Horizontal
	if err := l.checkMerge(s, behind); err != nil {
		return Layout{}, err
	}
	l.addCornrows(h, s, behind, columns && s.Base.MergeInto > 0)
	for _, c := range bases {
		if c.any().net {
			l.addNet(ctx, h, s, c)
		}
	}
	for _, t := range l.Cornrows {
		if len(t.Outlines) > 0 { // a merged one takes what its parts took
			l.BaseArea += t.Area
		}
	}
	return l, nil
}

// sidesMerged are the settings by which the cornrows of a zone at the sides run together, one
// on each side, half way along the shortest; ok is false where they do not.
func (s Settings) sidesMerged(b *baseZone, strands []strand) (own Settings, ok bool) {
	if !s.Base.MergeSides || b.key != "S" {
		return s, false
	}
	shortest, sides := math.Inf(1), map[Zone]bool{}
	for _, x := range strands {
		shortest, sides[x.zone] = min(shortest, x.path.Length()), true
	}
	s.Base.MergeInto, s.Base.MergeAfter = len(sides), max(0, shortest/2-blend)
	return s, len(sides) < len(strands)
}

// strandsOf are the cornrows of a zone: of a central one from left to right or from the
// nape up, else those of the left before those of the right, from the ear up.
func strandsOf(h scalp.Head, c basePair) []strand {
	if b := c.any(); b.central && !b.columns {
		return b.crossing(h)
	}
	var left, right []strand
	if c.left != nil {
		left = c.left.lay(h, LeftSide)
	}
	if c.right != nil {
		right = c.right.lay(h, RightSide)
	}
	if !c.any().central {
		return append(left, right...)
	}
	slices.Reverse(left)
	if c.left.cornrows%2 == 1 { // one lies on the middle, half of it on either side
		both := &left[len(left)-1]
		both.path = c.left.way(0)
		both.outlines = oneOutline(h, both.outlines[0], right[0].outlines[0])
		both.area += right[0].area
		right = right[1:]
	}
	all := append(left, right...)
	for i := range all {
		all[i].staggered = i%2 == 1
	}
	return all
}

// lines are the values of t between which the zone's cornrows on this side lie.
func (b *baseZone) lines() []float64 {
	rise := b.rise()
	if !b.central || !b.columns {
		return rowLines(rise, b.cornrows, 1)
	}
	width := 2 * rise.Whole() / float64(b.cornrows)
	ts := []float64{0}
	for at := width * (0.5 + 0.5*float64((b.cornrows+1)%2)); at < rise.Whole()-width/4; at += width {
		ts = append(ts, rise.ShareAt(at))
	}
	return append(ts, 1)
}

// lay draws the cornrows of one side. Those that run back start in front: at the
// hairline, or at the ear-to-ear part.
func (b *baseZone) lay(h scalp.Head, side Side) []strand {
	ts := b.lines()
	out := make([]strand, len(ts)-1)
	for i := range out {
		lower, upper := b.patch.Line(ts[i]), b.patch.Line(ts[i+1])
		ring := append(slices.Clone(lower.Points), b.patch.End.Between(nil, ts[i], ts[i+1])...)
		ring = append(ring, upper.Reversed().Points...)
		if !b.central || b.columns { // else its start is the seam to the other half
			ring = append(ring, b.patch.Start.Between(nil, ts[i+1], ts[i])...)
		}
		if !b.ccw {
			slices.Reverse(ring)
		}
		outline := surface.OnHead(h, ring)
		path := b.way((ts[i] + ts[i+1]) / 2)
		if side == RightSide {
			outline, path = surface.Mirrored(outline), path.Mirrored()
			slices.Reverse(outline)
		}
		out[i] = strand{zone: on(b.key, b.central, side), path: path, outlines: []scalp.Line{outline}, area: b.bandArea(h, lower, upper, ts[i], ts[i+1]), staggered: i%2 == 1, bare: b.net}
	}
	return out
}

// bandArea is the area in mm² between two lines of the zone, at from and to. It is
// summed in short stretches: a long bent band is no polygon for
// [scalp.Head.AreaCentroid].
func (b *baseZone) bandArea(h scalp.Head, lower, upper surface.Curve, from, to float64) float64 {
	sum := 0.0
	for k := range cornrowSteps {
		f, g := float64(k)/cornrowSteps, float64(k+1)/cornrowSteps
		ring := append(lower.Between([]r3.Vec{lower.At(f)}, f, g), lower.At(g))
		if k == cornrowSteps-1 {
			ring = b.patch.End.Between(ring, from, to)
		}
		ring = append(upper.Between(append(ring, upper.At(g)), g, f), upper.At(f))
		if k == 0 {
			ring = b.patch.Start.Between(ring, to, from)
		}
		area, _ := h.AreaCentroid(ring)
		sum += area
	}
	return math.Abs(sum)
}

// way is the cornrow along the line at t, from where its plait begins: in front, at the
// hairline or at the ear-to-ear part.
func (b *baseZone) way(t float64) surface.Curve {
	if b.columns && b.key == "T" { // the patch runs from the nape up
		return b.patch.Line(t).Reversed()
	}
	return b.patch.Line(t)
}

// crossing draws the cornrows of a central zone that run from side to side.
func (b *baseZone) crossing(h scalp.Head) []strand {
	left, right := b.lay(h, LeftSide), b.lay(h, RightSide)
	for i := range left {
		left[i].path = left[i].path.Reversed().Then(h, right[i].path)
		// Either half runs from the middle round to it again; their ends are the same.
		ours, theirs := left[i].outlines[0], right[i].outlines[0]
		left[i].outlines = []scalp.Line{append(slices.Clone(ours), theirs[1:len(theirs)-1]...)}
		left[i].area += right[i].area
	}
	return left
}

// oneOutline joins what two halves of a band take up.
func oneOutline(h scalp.Head, a, b scalp.Line) []scalp.Line {
	if ring, ok := surface.Union(h, surface.UnitRing(h, a), surface.UnitRing(h, b)); ok {
		return []scalp.Line{surface.OnHead(h, ring)}
	}
	return []scalp.Line{a, b}
}

// checkMerge refuses a distance before merging that some cornrow does not reach.
func (l *Layout) checkMerge(s Settings, cornrows []strand) error {
	if s.Base.MergeInto == 0 || s.Base.Kind != Cornrows || !s.hasBase() || len(cornrows) == 0 {
		return nil
	}
	shortest := math.Inf(1)
	for _, t := range cornrows {
		shortest = min(shortest, t.path.Length())
	}
	if most := shortest - 2*blend; s.Base.MergeAfter > most {
		var bad invalid.Errors
		bad.Add("base.mergeAfterMm", "The shortest cornrow behind is %s long; cornrows that merge within %s of their start have room to.",
			invalid.Length(shortest), invalid.AtMost(max(0, most)))
		return bad
	}
	return nil
}

// addCornrows adds strands to the layout, numbered after those of their zone, with
// their pieces; merge runs those of a zone together as the base says.
func (l *Layout) addCornrows(h scalp.Head, s Settings, strands []strand, merge bool) {
	if len(strands) == 0 {
		return
	}
	first := len(l.Cornrows)
	number := map[Zone]int{}
	name := func(z Zone) string {
		number[z]++
		return fmt.Sprintf("%s%d", z, number[z])
	}
	merge = merge && s.Base.Kind == Cornrows && s.Base.MergeInto < len(strands)
	for _, x := range strands {
		t := Cornrow{
			ID: name(x.zone), Zone: x.zone, Line: surface.OnHead(h, x.path.Points), Length: x.path.Length(),
			Outlines: x.outlines, Area: x.area, Width: x.area / x.path.Length(),
		}
		if !merge {
			t.Hooks = x.hooks(h, s, x.path)
		}
		l.Cornrows = append(l.Cornrows, t)
	}
	if merge {
		l.merged(h, s, strands, first, name)
	}
	if s.Base.Tails == Chained {
		l.chain(first)
	}
}

// merged cuts the cornrows from first on short where they run together in groups, and
// adds the ones they go on as.
func (l *Layout) merged(h scalp.Head, s Settings, strands []strand, first int, name func(Zone) string) {
	n, into := len(strands), s.Base.MergeInto
	edge := func(i int) int { // where group i starts: as even as can be, the same from either side
		x := float64(i)*float64(n)/float64(into) - float64(n)/2
		if n%2 == 0 {
			return n/2 + int(math.Round(x))
		}
		return (n-1)/2 + int(math.Floor(math.Abs(x)))*int(math.Copysign(1, x)) + map[bool]int{true: 1, false: 0}[x > 0]
	}
	rests := map[Zone]int{} // cornrows that go on, of either side by themselves
	for g := range into {
		from, to := edge(g), edge(g+1)
		group := strands[from:to]
		if len(group) == 1 {
			t := &l.Cornrows[first+from]
			t.Hooks = group[0].hooks(h, s, group[0].path)
			continue
		}
		common := make([]r3.Vec, cornrowSteps+1)
		for k := range common {
			var sum r3.Vec
			for _, x := range group {
				sum = r3.Add(sum, x.path.At(float64(k)/cornrowSteps))
			}
			common[k] = scalp.Unit(sum)
		}
		whole := surface.NewCurve(h, common)
		after := s.Base.MergeAfter + blend
		rest := whole.SubMM(h, after, whole.Length())
		id := name(group[0].zone)
		area := 0.0
		for i, x := range group {
			t := &l.Cornrows[first+from+i]
			own := x.path.SubMM(h, 0, s.Base.MergeAfter)
			path := own.Then(h, surface.NewCurve(h, surface.GreatCircle(h, own.Last(), rest.First())))
			if s.Base.MergeAfter == 0 {
				path = surface.NewCurve(h, surface.GreatCircle(h, x.path.First(), rest.First()))
			}
			t.Line, t.Length, t.Into, t.Merged = surface.OnHead(h, path.Points), path.Length(), id, true
			t.Hooks = x.hooks(h, s, path)
			area += x.area
		}
		l.Cornrows = append(l.Cornrows, Cornrow{
			ID: id, Zone: group[0].zone, Line: surface.OnHead(h, rest.Points), Length: rest.Length(),
			Outlines: []scalp.Line{}, Area: area, Width: area / whole.Length(), Merged: true,
			Hooks: hooksAlong(h, rest, s.spacing(), rests[group[0].zone]%2 == 1),
		})
		rests[group[0].zone]++
	}
}

// chain braids the tail of every cornrow from first on that leaves one into the next of
// its zone.
func (l *Layout) chain(first int) {
	for i := first; i < len(l.Cornrows); i++ {
		if l.Cornrows[i].Into != "" {
			continue
		}
		for k := i + 1; k < len(l.Cornrows); k++ {
			if next := l.Cornrows[k]; next.Zone == l.Cornrows[i].Zone && (next.Into == "" || !next.Merged) {
				l.Cornrows[i].Into = next.ID
				break
			}
		}
	}
}

// squarely is how far behind a section the next one must lie to take its
// plait up, as the cosine of the angle.
const squarely = 0.35

// linkPlaits finds for every linked plait the one behind it that it is laid into: the
// neighbour that lies most squarely on the way to the nape.
func (l *Layout) linkPlaits(h scalp.Head) {
	if _, linked, _ := l.Plaits(); linked == 0 {
		return
	}
	l.Sections = slices.Clone(l.Sections)
	nape := h.Landmark(scalp.NapeCentre)
	at := make(map[string]int, len(l.Sections))
	for i, x := range l.Sections {
		at[x.ID] = i
	}
	for i := range l.Sections {
		x := &l.Sections[i]
		if !x.Linked {
			continue
		}
		u := surface.Toward(h, x.Centroid)
		back := r3.Sub(nape, r3.Scale(r3.Dot(nape, u), u))
		most := squarely * r3.Norm(back)
		for _, id := range x.Neighbours {
			next := l.Sections[at[id]]
			v := surface.Toward(h, next.Centroid)
			if !next.Linked || r3.Dot(v, nape) <= r3.Dot(u, nape) { // always on towards the nape: no chain closes
				continue
			}
			way := r3.Sub(v, u)
			if along := r3.Dot(back, scalp.Unit(way)); along > most {
				most, x.Into = along, id
			}
		}
	}
}

// Tails counts the loose ends that are left to tuck or stitch, of cornrows and of chains
// of linked plaits.
func (l Layout) Tails() (n int) {
	for i := range l.Sections {
		if x := &l.Sections[i]; x.Linked && x.Into == "" {
			n++
		}
	}
	for _, t := range l.Cornrows {
		if t.Into == "" {
			n++
		}
	}
	return n
}

// Hooks counts the pieces hooked on cornrows and nets.
func (l Layout) Hooks() (n int) {
	for _, t := range l.Cornrows {
		n += len(t.Hooks)
	}
	for _, a := range l.Nets {
		n += len(a.Hooks)
	}
	return n
}

// CornrowLength is the length of all cornrows together, mm.
func (l Layout) CornrowLength() (mm float64) {
	for _, t := range l.Cornrows {
		mm += t.Length
	}
	return mm
}

// hooks are the places of pieces along the way that a strand goes by itself.
func (x strand) hooks(h scalp.Head, s Settings, way surface.Curve) scalp.Line {
	switch {
	case x.bare:
		return scalp.Line{}
	case x.shows:
		return hooksAlong(h, way, s.shownSpacing(), x.staggered)
	}
	return hooksAlong(h, way, s.spacing(), x.staggered)
}

// hooksAlong are places a spacing apart along a cornrow: from a quarter of it, or from
// three quarters where staggered against the next cornrow.
func hooksAlong(h scalp.Head, path surface.Curve, spacing float64, staggered bool) scalp.Line {
	at := spacing / 4
	if staggered {
		at += spacing / 2
	}
	out := scalp.Line{}
	for ; at < path.Length(); at += spacing {
		out = append(out, h.Point(path.At(at/path.Length())))
	}
	return out
}

// tooNear is how near to another a piece on a net is left out, in spacings.
const tooNear = 0.7

// distance2 is the square of the distance of two points, mm².
func distance2(a, b scalp.Point) float64 {
	return (a[0]-b[0])*(a[0]-b[0]) + (a[1]-b[1])*(a[1]-b[1]) + (a[2]-b[2])*(a[2]-b[2])
}

// crowd are places on the scalp, kept so that those near another are found at once:
// by the cubes of a lattice, as wide as what counts as near.
type crowd struct {
	near  float64
	cubes map[[3]int][]scalp.Point
}

// join adds a place unless it crowds one that is there, and tells whether it did.
func (c crowd) join(p scalp.Point) bool {
	var cube [3]int
	for i, v := range p {
		cube[i] = int(math.Floor(v / c.near))
	}
	for i := range 27 {
		for _, q := range c.cubes[[3]int{cube[0] + i%3 - 1, cube[1] + i/3%3 - 1, cube[2] + i/9 - 1}] {
			if distance2(p, q) < c.near*c.near {
				return false
			}
		}
	}
	c.cubes[cube] = append(c.cubes[cube], p)
	return true
}

// addNet hooks a net in a lattice: lines as far apart as an even triangle is high, the
// places on one between those on the next, the same on both sides.
func (l *Layout) addNet(ctx context.Context, h scalp.Head, s Settings, c basePair) {
	spacing := s.spacing()
	places := map[Zone]crowd{}
	add := func(b *baseZone, side Side, zone Zone) {
		i := slices.IndexFunc(l.Nets, func(a NetArea) bool { return a.Zone == zone })
		if i < 0 {
			l.Nets = append(l.Nets, NetArea{Zone: zone, Outlines: []scalp.Line{}, Hooks: scalp.Line{}})
			places[zone] = crowd{tooNear * spacing, map[[3]int][]scalp.Point{}}
			i = len(l.Nets) - 1
		}
		net := &l.Nets[i]
		var across *surface.Patch
		if across = b.patch; b.columns {
			across = b.patch.Transposed()
		}
		ring := slices.Clone(across.Bottom.Points)
		ring = append(ring, across.End.Points[1:]...)
		ring = append(ring, across.Top.Reversed().Points[1:]...)
		ring = append(ring, across.Start.Reversed().Points[1:len(across.Start.Points)-1]...)
		if area, _ := h.AreaCentroid(ring); area < 0 {
			slices.Reverse(ring)
		}
		area, _ := h.AreaCentroid(ring)
		net.Area += area
		net.Outlines = append(net.Outlines, place(surface.OnHead(h, ring), side))
		rise := across.Rise()
		n := max(1, int(math.Round(rise.Whole()/(spacing*math.Sqrt(3)/2))))
		ts := rowLines(rise, n, 1)
		for r := range n {
			if ctx.Err() != nil {
				return
			}
			line := across.Line((ts[r] + ts[r+1]) / 2)
			at := spacing / 2
			if b.central && r%2 == 1 {
				at = 0 // on the middle, once
			} else if r%2 == 1 {
				at = spacing
			}
			for ; at < line.Length(); at += spacing {
				if at == 0 && side == RightSide {
					continue
				}
				hook := place(scalp.Line{h.Point(line.At(at / line.Length()))}, side)[0]
				// Where lines run together some places would crowd others.
				if places[zone].join(hook) {
					net.Hooks = append(net.Hooks, hook)
				}
			}
		}
	}
	if c.left != nil {
		add(c.left, LeftSide, on(c.left.key, c.left.central, LeftSide))
	}
	if c.right != nil {
		add(c.right, RightSide, on(c.right.key, c.right.central, RightSide))
	}
}
