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
	// staggered is true for every other one, whose pieces stand half a distance on; crosses for
	// one that the middle of the head halves.
	staggered, crosses bool
	// bare is true where no pieces hang on it.
	bare bool
	// shows is true for the design in front and for the lowest cornrow on a side, at the
	// temple: their pieces stand closer.
	shows bool
}

// layBase lays the cornrows and nets of both sides into the layout, and the pieces on them.
func layBase(ctx context.Context, h scalp.Head, s Settings, f frames, l Layout) (Layout, error) {
	bases := f.bases()
	if len(bases) == 0 {
		return l, nil
	}
	l = l.clone()
	l.base = carriers{usual: s.spacing(), shown: s.shownSpacing(), netted: s.netSpacing(), spots: s.LeftOut}
	for _, c := range bases {
		b := c.any()
		own := s.at(b.key)
		strands := strandsOf(h, c)
		switch {
		case b.key == behindKey:
			if err := l.checkMerge(own, strands); err != nil {
				return Layout{}, err
			}
			l.addCornrows(h, own, strands, own.Base.Run.back() && own.Base.MergeInto > 0)
		default:
			for i := range strands {
				lowest := i == 0 || strands[i].zone != strands[i-1].zone
				strands[i].bare = strands[i].bare || b.key == designKey && !s.Design.Pieces
				strands[i].shows = b.key == designKey || b.key == sidesKey && lowest
			}
			merging, ok := own.sidesMerged(b, strands)
			l.addCornrows(h, merging, strands, ok)
		}
	}
	for _, c := range bases {
		if c.any().net {
			l.addNet(ctx, h, s.at(c.any().key), c)
		}
	}
	for _, t := range l.Cornrows {
		if len(t.Outlines) > 0 { // a merged one takes what its parts took
			l.BaseArea += t.Area
		}
	}
	return l.Hooked(ctx, h, Hooking{Count: s.Base.Hooks}), nil
}

// sidesMerged are the settings by which the cornrows of a zone at the sides run together, one
// on each side, half way along the shortest; ok is false where they do not.
func (s Settings) sidesMerged(b *baseZone, strands []strand) (own Settings, ok bool) {
	if !s.Base.MergeSides || b.key != sidesKey {
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
	switch b := c.any(); {
	case b.plaits:
		return nil
	case b.central && !b.columns:
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
	if c.any().slants {
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
	for i := range all { // from the middle outward, so that both sides are alike
		all[i].staggered = max(i-len(all)/2, (len(all)-1)/2-i)%2 == 1
	}
	return all
}

// lines are the values of t between which the zone's cornrows on this side lie.
func (b *baseZone) lines() []float64 {
	rise := b.rise()
	switch {
	case b.apart > 0: // a cornrow, a row of individuals, and so on
		ts, at, whole := []float64{0}, 0.0, float64(b.cornrows)+b.apart*float64(b.cornrows-1)
		for i := range 2*b.cornrows - 1 {
			at += max(1, b.apart*float64(i%2))
			ts = append(ts, rise.ShareAt(rise.Whole()*at/whole))
		}
		ts[len(ts)-1] = 1
		return ts
	case b.slants:
		return rowLines(rise, b.cornrows/2, 1)
	case !b.central || !b.columns:
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
	step := 1
	if b.apart > 0 {
		step = 2
	}
	out := make([]strand, 0, len(ts)-1)
	for i := 0; i < len(ts)-1; i += step {
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
		out = append(out, strand{zone: on(b.key, b.central, side), path: path, outlines: []scalp.Line{outline}, area: b.bandArea(h, lower, upper, ts[i], ts[i+1]), staggered: i/step%2 == 1, bare: b.net})
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
	if b.columns && b.key == behindKey { // the patch runs from the nape up
		return b.patch.Line(t).Reversed()
	}
	return b.patch.Line(t)
}

// crossing draws the cornrows of a central zone that run from side to side.
func (b *baseZone) crossing(h scalp.Head) []strand {
	left, right := b.lay(h, LeftSide), b.lay(h, RightSide)
	for i := range left {
		left[i].path = left[i].path.Reversed().Then(h, right[i].path)
		left[i].crosses = true
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
			Outlines: x.outlines, Area: x.area, Width: x.area / x.path.Length(), Hooks: scalp.Line{},
			Fed: s.Design.Fed && string(x.zone[:1]) == designKey,
		}
		if !merge {
			l.hookOn(x, len(l.Cornrows), x.path)
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
	for g := range into {
		from, to := edge(g), edge(g+1)
		group := strands[from:to]
		if len(group) == 1 {
			l.hookOn(group[0], first+from, group[0].path)
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
			l.hookOn(x, first+from+i, path)
			area += x.area
		}
		l.Cornrows = append(l.Cornrows, Cornrow{
			ID: id, Zone: group[0].zone, Line: surface.OnHead(h, rest.Points), Length: rest.Length(),
			Outlines: []scalp.Line{}, Area: area, Width: area / whole.Length(), Merged: true, Hooks: scalp.Line{},
		})
		l.hookOn(strand{zone: group[0].zone, staggered: g%2 == 1}, len(l.Cornrows)-1, rest)
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
	if l.HasNapeCornrow() {
		n = 0 // it takes them in
	}
	for _, t := range l.Cornrows {
		if t.Into == "" && !t.Fed { // what is fed in goes on as a braid
			n++
		}
	}
	return n
}

// HasNapeCornrow tells whether the lowest row at the nape is a cornrow.
func (l Layout) HasNapeCornrow() bool {
	return slices.ContainsFunc(l.Cornrows, func(x Cornrow) bool { return x.Zone[:1] == napeKey })
}

// Hooks counts the pieces hooked on cornrows and nets, those that a cornrow goes on as apart.
func (l Layout) Hooks() (n int) {
	for _, t := range l.Cornrows {
		if n += len(t.Hooks); t.Fed {
			n--
		}
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

// hookOn notes that pieces hang along a way that a strand goes as one cornrow of the layout.
func (l *Layout) hookOn(x strand, cornrow int, way surface.Curve) {
	if !x.bare {
		l.base.cornrows = append(l.base.cornrows, run{zone: x.zone, path: way, carrier: cornrow, crosses: x.crosses, staggered: x.staggered, shows: x.shows})
	}
}

// addNet lays a net over a zone of both sides: the scalp under it, the lines it is hooked along,
// and the small plaits it lies on, where it lies on such.
func (l *Layout) addNet(ctx context.Context, h scalp.Head, s Settings, c basePair) {
	add := func(zone Zone, central bool, left, right *baseZone) {
		x := lattice{net: len(l.Nets), zone: zone, central: central}
		net := NetArea{Zone: zone, Outlines: []scalp.Line{}, Hooks: scalp.Line{}}
		for _, on := range []struct {
			b     *baseZone
			side  Side
			patch **surface.Patch
		}{{left, LeftSide, &x.left}, {right, RightSide, &x.right}} {
			if on.b == nil {
				continue
			}
			if *on.patch = on.b.patch; on.b.columns {
				*on.patch = on.b.patch.Transposed()
			}
			ring := (*on.patch).Ring()
			area, _ := h.AreaCentroid(ring)
			if area < 0 {
				slices.Reverse(ring)
			}
			net.Area += math.Abs(area)
			net.Outlines = append(net.Outlines, place(surface.OnHead(h, ring), on.side))
		}
		if c.any().plaits {
			net.Plaits = x.netPlaits(ctx, h, c.any().cornrows)
			l.BaseArea += net.Area
		}
		l.Nets = append(l.Nets, net)
		l.base.lattices = append(l.base.lattices, x)
	}
	b := c.any()
	if b.central {
		add(on(b.key, true, LeftSide), true, c.left, c.right)
		return
	}
	if c.left != nil {
		add(on(b.key, false, LeftSide), false, c.left, nil)
	}
	if c.right != nil {
		add(on(b.key, false, RightSide), false, nil, c.right)
	}
}
