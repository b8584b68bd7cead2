package parting

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/bond"
	"kladotex/core/craft"
	"kladotex/core/invalid"
	"kladotex/core/scalp"
	"kladotex/core/surface"
)

// earShare is how far up the ear-to-ear part, from the ear top, the corner of
// the back half lies: rows below it end at the hairline and the part, the top
// row runs along the rest of the part. A part that stops off the ear-to-ear part
// bends it from there.
const earShare = 0.6

// ovalShare is the length of the oval in which levels end, as a share of the middle
// line from front to nape: then the rings keep about one width all round.
const ovalShare = 0.16

// designShare is how far a front design reaches from the part towards the ear, as a
// share of the front.
const designShare = 0.55

// outline is the left half of a line round the head, from the front centre to the
// nape centre, with the places of the landmarks on it.
type outline struct {
	points []r3.Vec
	marks  [scalp.NapeCentre + 1]int
}

// sub is the stretch between two landmarks, in that direction.
func (o outline) sub(h scalp.Head, from, to scalp.Landmark) surface.Curve {
	if from > to {
		return o.sub(h, to, from).Reversed()
	}
	return surface.NewCurve(h, o.points[o.marks[from]:o.marks[to]+1])
}

func (o outline) at(l scalp.Landmark) r3.Vec { return o.points[o.marks[l]] }

// stretch is a part of a rail, given in mm along it, that lies on a border shared
// with other zones; at is where its start lies on that border, dir the direction
// in which the border runs there.
type stretch struct {
	border   string
	from, to float64
	at, dir  float64
	// across is the length of a border that runs over both sides; 0 for one that
	// each side has for itself, or that lies on the middle.
	across float64
	sided  bool
}

// The rails of a patch, as they index its stretches.
const (
	bottomRail = iota
	topRail
	startRail
	endRail
)

// rails are the stretches of a patch's four rails.
type rails [4][]stretch

// cutRail is a list of stretches as it stands on the part of the rail between two
// places in mm.
func cutRail(list []stretch, from, to float64) []stretch {
	var out []stretch
	for _, x := range list {
		low, high := max(x.from, from), min(x.to, to)
		if high <= low {
			continue
		}
		x.at += x.dir * (low - x.from)
		x.from, x.to = low-from, high-from
		out = append(out, x)
	}
	return out
}

// panel is a zone of individuals on one side, or the left half of a central one, on
// its way to becoming sections.
type panel struct {
	// key is the zone's name without its side; it is the same left and right.
	key     string
	central bool
	// ring is true for rows that run all round the head.
	ring   bool
	linked bool
	// laid is true where plaits are hooked and laid back into the base.
	laid bool
	// front tells whose pieces hang here; open leaves it to each section's place.
	front, open bool
	wish        Wish
	// wishPath is the settings' field that holds the wish.
	wishPath string
	patch    *surface.Patch
	rails    rails
	// ccw tells whether rows run counter-clockwise seen from outside when
	// walked along the lower line first.
	ccw bool
	// setRows and fixed, above 0, set the number of rows and of sections in each.
	setRows, fixed int
	// free tells which ends of the rows lie on the middle of the head where no
	// part runs; behindStop asks for a section there in the topmost row.
	free       [2]bool
	behindStop bool
	// sector gives the zone's chart for sections of a size, rows round a pole; none where
	// rows run between two rails.
	sector func(Size) charted
	// sectorEnd is what its last ray lies on, in mm from the ear, where its chart is one of
	// rows round the crossing.
	sectorEnd []stretch
	// isRound is true where its chart is that of the sector.
	isRound bool
	charted
	// xs are where in the chart the row lines lie, from the bottom up; bands are the rows
	// between them, courses the sections in each.
	xs      []float64
	lines   []surface.Line
	bands   []surface.Band
	courses []bond.Course
	// seats are the row lines with the part ends of the rows on either side, from the second
	// up.
	seats []bond.Seat
}

// baseZone is a zone of cornrows or net on one side, or the left half of a central one. Its
// cornrows run along its patch's lines.
type baseZone struct {
	key     string
	central bool
	patch   *surface.Patch
	ccw     bool
	// columns is true where a central base's cornrows lie side by side, from the
	// middle outward; else they cross it.
	columns bool
	// cornrows is their number, on both sides of a central base.
	cornrows int
	// path is the settings' field that holds the number.
	path string
	// net is true where net covers them, plaits where that lies on small plaits instead.
	net, plaits bool
	// apart is how much wider than a cornrow the row of individuals is that lies between any two; 0 for none.
	apart float64
	// slants is true where they run outward from the middle, as many on either side.
	slants bool
}

// frame is one side of a head with all that is laid on it, seen as a left side.
type frame struct {
	h scalp.Head
	s Settings
	// flip is 1 on the left and -1 on the right: offsets to the left count
	// towards this side, or away from it.
	flip float64
	side Side
	// middle runs along the middle of the head from the front to the nape.
	middle surface.Curve
	// border is the line the zones start at: the hairline, or inside the edges.
	border outline
	edge   surface.Curve // along it
	// part and divide are the part line in front and the ear-to-ear part up to
	// the middle; empty where there is none.
	part, divide surface.Curve
	panels       []*panel
	bases        []*baseZone
}

// alike tells whether left and right are laid as mirror images, before any change by hand.
func (s Settings) alike() bool {
	start, end := s.offsets()
	return start == 0 && end == 0 && (s.Structure != FrontDesign || s.Design.Side == BothSides || s.Design.Side == Across)
}

// symmetric tells whether left and right are parted as mirror images.
func (s Settings) symmetric() bool {
	return s.alike() && !slices.ContainsFunc(s.Edits, func(e Edit) bool { return e.Kind.moves() })
}

// newFrame lays out the zones of a side, before any row. The error, if any, is an
// [invalid.Errors] with paths relative to s.
func newFrame(h scalp.Head, s Settings, side Side) (*frame, error) {
	f := &frame{h: h, s: s, flip: 1, side: side}
	if side == RightSide {
		f.flip = -1
	}
	o := outline{points: h.Hairline(scalp.FrontCentre, scalp.NapeCentre)}
	for l := range o.marks {
		o.marks[l] = l * scalp.HairlineSteps
	}
	f.middle = surface.NewCurve(h, append(surface.GreatCircle(h, o.at(scalp.FrontCentre), h.Crown()),
		surface.GreatCircle(h, h.Crown(), o.at(scalp.NapeCentre))[1:]...))
	edges := s.Edges
	if s.ringless() {
		edges = max(edges, craft.NetSetBack)
	}
	if edges > 0 {
		rings := f.rings(o)
		o = inner(o, rings.Line(rings.Rise().ShareAt(edges)))
	}
	f.border, f.edge = o, surface.NewCurve(h, o.points)
	var err error
	switch {
	case s.Part.Kind == Levels:
		f.levels(o)
	case s.Structure == Perimeter, s.Structure == NetCap && !s.ringless():
		if o, err = f.perimeter(o); err == nil {
			err = f.quadrants(o)
		}
	default:
		err = f.quadrants(o)
	}
	if err == nil {
		err = f.checkBases()
	}
	return f, err
}

// rings is the half head between a line round it and a short oval at the top, its
// lines running along the former.
func (f *frame) rings(o outline) *surface.Patch {
	bottom := surface.NewCurve(f.h, o.points)
	shares := make([]float64, len(bottom.Run))
	for i, r := range bottom.Run {
		shares[i] = r / bottom.Length()
	}
	front, nape := f.place(o.at(scalp.FrontCentre)), f.place(o.at(scalp.NapeCentre))
	depth := (nape - front) * (1 - ovalShare) / 2
	return surface.NewPatchAt(f.h, bottom,
		f.middle.SubMM(f.h, front+depth, nape-depth),
		f.middle.SubMM(f.h, front, front+depth),
		f.middle.SubMM(f.h, nape-depth, nape).Reversed(), shares)
}

// inner is the outline that a line of [frame.rings] makes, its ear top straight below
// the top of the head, so that the ear-to-ear part keeps its place.
func inner(o outline, line surface.Curve) outline {
	in := outline{line.Points, o.marks}
	best := o.marks[scalp.EarTop]
	for i := o.marks[scalp.Sideburn] + 2; i < o.marks[scalp.BehindEar]-1; i++ {
		if math.Abs(line.Points[i].X) < math.Abs(line.Points[best].X) {
			best = i
		}
	}
	in.marks[scalp.EarTop] = best
	return in
}

// place is how far along the middle, mm from the front hairline, a point of it lies.
func (f *frame) place(u r3.Vec) float64 {
	_, share := f.middle.ToLine(f.h, u)
	return share * f.middle.Length()
}

// onMiddle are stretches for a rail that lies on the middle line, from mm at on,
// in direction dir.
func onMiddle(c surface.Curve, at, dir float64) []stretch {
	return []stretch{{border: "middle", to: c.Length(), at: at, dir: dir}}
}

func (f *frame) levels(o outline) {
	p := f.rings(o)
	front, nape := f.place(o.at(scalp.FrontCentre)), f.place(o.at(scalp.NapeCentre))
	middle := f.middle.SubMM(f.h, front, nape)
	f.panels = append(f.panels, &panel{
		key: "R", central: true, ring: true, open: true, ccw: true, linked: f.s.Structure == Linked,
		wish: f.s.Front, wishPath: "front", patch: p, free: [2]bool{true, true},
		sector: func(size Size) charted { return levels(f.h, o.points, middle, size) },
		rails: rails{
			topRail:   onMiddle(p.Top, front+p.Start.Length(), 1),
			startRail: onMiddle(p.Start, front, 1), endRail: onMiddle(p.End, nape, -1),
		},
	})
}

// perimeter lays the ring of individuals and returns the line inside it.
func (f *frame) perimeter(o outline) (outline, error) {
	whole := f.rings(o)
	rise := whole.Rise()
	rows, path := f.s.Rows, "rows"
	if f.s.Structure == NetCap {
		rows, path = 1, "front.heightMm"
	}
	depth := float64(rows) * f.s.Front.Height
	// Inside must be left what can carry cornrows.
	if most := 0.55 * rise.Whole(); depth > most {
		var bad invalid.Errors
		if fit := math.Floor(most / f.s.Front.Height); path == "rows" && fit >= 1 {
			bad.Add(path, "%d rows of %s leave no room inside the ring; up to %.0f are possible on this head.", rows, invalid.Length(f.s.Front.Height), fit)
		} else {
			bad.Add("front.heightMm", "A ring %s high leaves no room inside it; sections up to %s high are possible on this head.", invalid.Beyond(depth, 0, most), invalid.AtMost(most/float64(rows)))
		}
		return o, bad
	}
	t := rise.ShareAt(depth)
	ring := whole.Strip(0, t)
	front, nape := f.place(o.at(scalp.FrontCentre)), f.place(o.at(scalp.NapeCentre))
	f.panels = append(f.panels, &panel{
		key: "H", central: true, ring: true, open: true, ccw: true,
		wish: f.s.Front, wishPath: "front", patch: ring, setRows: rows, free: [2]bool{true, true},
		rails: rails{
			topRail:   {{border: "ring", to: ring.Top.Length(), dir: 1, sided: true}},
			startRail: onMiddle(ring.Start, front, 1), endRail: onMiddle(ring.End, nape, -1),
		},
	})
	within := inner(o, ring.Top)
	if f.s.Structure != Perimeter || !f.s.Peak {
		return within, nil
	}
	// The second row at the peak ends before the temple corner in a slope, which
	// cornrows inside the ring follow without a kink.
	deep := rise.ShareAt(depth + f.s.Front.Height)
	second := whole.Line(deep)
	corner := o.marks[scalp.TempleCorner]
	slope := max(2, min(corner/2, int(math.Round(f.s.Front.Height/2/f.h.Chord(ring.Top.Points[0], ring.Top.Points[1])))))
	end := second.Points[corner-slope]
	step := []r3.Vec{ring.Top.Points[corner]}
	for k := 1; k < slope; k++ {
		step = append(step, whole.Line(t + (deep-t)*float64(k)/float64(slope)).Points[corner-k])
	}
	step = append(step, end)
	outer := surface.NewCurve(f.h, ring.Top.Points[:corner+1])
	start := f.middle.SubMM(f.h, f.place(ring.Top.First()), f.place(second.First()))
	f.panels = append(f.panels, &panel{
		key: "W", central: true, front: true,
		wish: f.s.Front, wishPath: "front", setRows: 1, ccw: true, free: [2]bool{true, false},
		patch: surface.NewPatch(f.h, outer, surface.NewCurve(f.h, second.Points[:corner-slope+1]), start, surface.NewCurve(f.h, step)),
		rails: rails{
			bottomRail: {{border: "ring", to: outer.Length(), dir: 1, sided: true}},
			startRail:  onMiddle(start, f.place(ring.Top.First()), 1),
		},
	})
	down := slices.Clone(step) // from the second row down to the first
	slices.Reverse(down)
	// The line inside follows the second row, then the slope down to the ring: as
	// many points as before, the temple corner at the foot of the slope.
	within.points = append(append(slices.Clone(second.Points[:corner-slope]), down...), ring.Top.Points[corner+1:]...)
	return within, nil
}

// quadrants lays what is inside an outline: front and back, with a part line or
// without.
func (f *frame) quadrants(o outline) error {
	s, h := f.s, f.h
	if s.inOne() {
		f.inside(o)
		return nil
	}
	stop, err := f.dividePlace(o)
	if err != nil {
		return err
	}
	pole, other := f.pole(stop)
	f.divide = surface.NewCurve(h, surface.GreatCircle(h, o.at(scalp.EarTop), pole))
	ear := f.divide.Sub(h, 0, earShare)
	whole := f.divide.Length() + surface.NewCurve(h, surface.GreatCircle(h, o.at(scalp.EarTop), other)).Length()
	onDivide := func(from, to, at, dir float64) stretch {
		return stretch{border: "divide", from: from, to: to, at: at, dir: dir, across: whole}
	}

	back := f.back(o, ear, onDivide, stop)
	front, err := f.front(o, ear, onDivide, stop)
	if err != nil {
		return err
	}
	switch s.Structure {
	case AllIndividuals, Linked:
		back.linked, front.linked = s.Structure == Linked, s.Structure == Linked
		if s.NapeGuard && s.Structure == Linked {
			if back, err = f.napeGuard(back); err != nil {
				return err
			}
		}
		f.panels = append(f.panels, back, front)
		return nil
	}
	if s.NapeGuard {
		if back, err = f.napeGuard(back); err != nil {
			return err
		}
	}
	f.lay(back, behindKey)
	switch s.Structure {
	case EarToEar:
		f.panels = append(f.panels, front)
	case Perimeter:
		f.lay(front, frontKey)
	case NetCap, Horseshoe, PartLine:
		if front.central { // a net cap without a part line
			f.lay(front, frontKey)
			return nil
		}
		return f.besidePart(front)
	case FrontDesign:
		f.design(front)
	}
	return nil
}

// design lays the decorative cornrows of a front design, and individuals in the rest of the
// front: towards the ear, or behind a design that runs across.
func (f *frame) design(front *panel) {
	s := f.s
	across := s.Design.Side == Across
	if s.Design.Side != BothSides && s.Design.Side != f.side && !across {
		f.panels = append(f.panels, front)
		return
	}
	share := s.Design.Reach
	if share == 0 {
		share = designShare
	}
	beside, design := *front, *front
	beside.sector, design.sector = nil, nil
	design.rails = rails{}
	if across {
		beside.patch, design.patch = front.patch.Strip(share, 1), front.patch.Strip(0, share)
		for _, r := range []int{startRail, endRail} {
			from := map[int]float64{startRail: design.patch.Start.Length(), endRail: design.patch.End.Length()}[r]
			beside.rails[r], design.rails[r] = cutRail(front.rails[r], from, math.Inf(1)), cutRail(front.rails[r], 0, from)
		}
		beside.rails[bottomRail] = nil
	} else {
		beside.patch, design.patch = front.patch.Strip(0, 1-share), front.patch.Strip(1-share, 1)
		beside.rails[endRail] = cutRail(front.rails[endRail], 0, beside.patch.End.Length())
		design.rails[endRail] = cutRail(front.rails[endRail], beside.patch.End.Length(), math.Inf(1))
		beside.rails[topRail] = nil
	}
	f.panels = append(f.panels, &beside)
	b := &baseZone{key: designKey, central: design.central, patch: design.patch, ccw: design.ccw, cornrows: s.Design.Cornrows, path: "design.tracks"}
	if s.Design.Curved {
		b.patch.Bow = bowOf(b.cornrows)
	}
	if s.Design.Between {
		b.apart = rowShare
		f.between(&design, b)
	}
	f.bases = append(f.bases, b)
}

// rowShare is how much wider a row of individuals between two cornrows is than they are.
const rowShare = 1.5

// betweenKeys are the letters of the rows between the cornrows of a design, from the first gap on.
const betweenKeys = "AEGIJKMOQUV"

// between lays a row of individuals between any two cornrows of a design.
func (f *frame) between(design *panel, b *baseZone) {
	ts := b.lines()
	for k := 1; k+1 < len(ts)-1; k += 2 {
		row := *design
		row.key, row.setRows, row.patch, row.rails = betweenKeys[k/2:k/2+1], 1, b.patch.Strip(ts[k], ts[k+1]), rails{}
		for r, side := range map[int]surface.Curve{startRail: b.patch.Start, endRail: b.patch.End} {
			row.rails[r] = cutRail(design.rails[r], side.Sub(f.h, 0, ts[k]).Length(), side.Sub(f.h, 0, ts[k+1]).Length())
		}
		f.panels = append(f.panels, &row)
	}
}

// inOne tells whether cornrows run from the front to the nape inside a ring, with no
// ear-to-ear part between.
func (s Settings) inOne() bool {
	ringed := s.Structure == Perimeter || s.Structure == NetCap
	b := s.at(behindKey).Base
	_, front := s.ground(BaseInFront)
	return ringed && !front && !s.hasPart() && (b.Kind == Net || b.Kind == Cornrows && (b.Run == StraightBack || b.Run == Curved))
}

// ringless tells whether a net stands back from the hairline with no individuals round it.
func (s Settings) ringless() bool {
	return s.Structure == NetCap && s.Base.Kind == Net && s.Base.NoRing
}

// inside lays a base all over an outline, its cornrows side by side from the middle out: the
// outermost runs from the temple over the ear to the corner of the nape.
func (f *frame) inside(o outline) {
	base := f.s.at(behindKey).Base
	b := &baseZone{
		key: behindKey, central: true, ccw: true, columns: true, net: base.Kind == Net, plaits: base.netted(),
		cornrows: base.Cornrows, path: f.s.path(BaseBehind),
		patch: surface.NewPatch(f.h,
			f.middle.SubMM(f.h, f.place(o.at(scalp.FrontCentre)), f.place(o.at(scalp.NapeCentre))).Reversed(),
			o.sub(f.h, scalp.NapeCorner, scalp.TempleCorner),
			o.sub(f.h, scalp.NapeCentre, scalp.NapeCorner),
			o.sub(f.h, scalp.FrontCentre, scalp.TempleCorner)),
	}
	if base.Run == Curved && !b.net {
		b.patch.Bow = bowOf(b.cornrows)
	}
	f.bases = append(f.bases, b)
}

// netted tells whether a net lies on small plaits.
func (b Base) netted() bool { return b.Kind == Net && b.Under == OverPlaits }

// path is the settings' field that says how many cornrows a part of the head has.
func (s Settings) path(part BasePart) string {
	i := slices.IndexFunc(s.Grounds, func(g OwnBase) bool { return g.Part == part })
	switch {
	case i >= 0:
		return fmt.Sprintf("grounds[%d].tracks", i)
	case part == BaseSides:
		return "base.sideTracks"
	}
	return "base.tracks"
}

// toNape tells whether the part line runs on behind the ear-to-ear part.
func (s Settings) toNape() bool {
	return s.hasPart() && s.Part.Stop == 0 && (!s.hasBase() || s.at(behindKey).Base.Kind == NoBase)
}

// pole is where the ear-to-ear part of this side ends: on the middle, or on a part line that
// runs on to the nape; other is the same seen from the other side.
func (f *frame) pole(stop float64) (pole, other r3.Vec) {
	crossing := f.middle.At(stop / f.middle.Length())
	_, off := f.s.offsets()
	if off == 0 || !f.s.toNape() {
		return crossing, crossing
	}
	// Along the great circle square to the middle, until it is far enough.
	beside := func(angle float64) r3.Vec {
		sin, cos := math.Sincos(angle)
		return r3.Add(r3.Scale(cos, crossing), r3.Vec{Y: sin})
	}
	angle := f.flip * off / f.h.B
	for range 6 {
		angle *= math.Abs(off) / f.h.Arc(crossing, beside(angle))
	}
	return beside(angle), beside(-angle)
}

// dividePlace is where front and back meet on the middle, mm from the front
// hairline: at the stop of the part line, else at the ear-to-ear part. The error is a
// [misplaced].
func (f *frame) dividePlace(o outline) (float64, error) {
	front, nape := f.place(o.at(scalp.FrontCentre)), f.place(o.at(scalp.NapeCentre))
	low, high := front+leastFront, nape-leastBehind
	if f.s.Structure == Perimeter || f.s.Structure == NetCap {
		low = front + leastInRing
	}
	at := f.place(f.h.Crown()) - f.s.Part.Ear
	stopped := f.s.hasPart() && f.s.Part.Stop > 0
	if stopped {
		at = f.s.Part.Stop
	}
	if at >= low && at <= high {
		return at, nil
	}
	return 0, misplaced{stopped: stopped, at: at, low: low, high: high, crown: f.place(f.h.Crown())}
}

// back is the panel behind the ear-to-ear part.
func (f *frame) back(o outline, ear surface.Curve, onDivide func(from, to, at, dir float64) stretch, stop float64) *panel {
	h, s := f.h, f.s
	half := f.divide.Length()
	hair := o.sub(h, scalp.NapeCorner, scalp.EarTop)
	end := hair.Then(h, ear)
	p := &panel{
		key: "B", wish: s.Back, wishPath: "back",
		rails: rails{endRail: {onDivide(hair.Length(), end.Length(), 0, 1)}},
	}
	nape := o.at(scalp.NapeCentre)
	top := f.divide.SubMM(h, ear.Length(), half).Reversed()
	p.rails[topRail] = []stretch{onDivide(0, top.Length(), half, -1)}
	start := surface.NewCurve(h, surface.GreatCircle(h, nape, f.divide.Last()))
	if s.toNape() {
		p.rails[startRail] = []stretch{{border: "part-behind", to: start.Length(), dir: 1}}
	} else {
		p.central, p.free, p.behindStop = true, [2]bool{true, false}, s.hasPart()
		start = f.middle.SubMM(h, stop, f.place(nape)).Reversed()
		p.rails[startRail] = onMiddle(start, f.place(nape), -1)
	}
	p.patch = surface.NewPatch(h, o.sub(h, scalp.NapeCentre, scalp.NapeCorner), top, start, end)
	round := o.points[o.marks[scalp.EarTop]:]
	p.sectorEnd = []stretch{onDivide(0, half, 0, 1)}
	p.sector = func(size Size) charted {
		corner := o.marks[scalp.NapeCorner] - o.marks[scalp.EarTop]
		return aroundCrossing(h, f.divide.Last(), round, corner, 0, size, false, p.central, p.behindStop)
	}
	return p
}

// divideTo is the ear-to-ear part as far as a part line that ends off to the left of
// the middle: short of the middle on that side, beyond it on the other.
func (f *frame) divideTo(off float64) surface.Curve {
	if f.flip*off >= 0 {
		return f.divide
	}
	return f.divide.Then(f.h, f.divide.Mirrored().Reversed())
}

// front is the panel in front of the ear-to-ear part.
func (f *frame) front(o outline, ear surface.Curve, onDivide func(from, to, at, dir float64) stretch, stop float64) (*panel, error) {
	h, s := f.h, f.s
	half := f.divide.Length()
	p := &panel{key: "F", front: true, wish: s.Front, wishPath: "front", ccw: true}
	if !s.hasPart() {
		// Rows follow the hairline down to the sideburn; inside a ring with a second
		// row at the peak they end at its step.
		corner := scalp.Sideburn
		if s.Structure == Perimeter && s.Peak {
			corner = scalp.TempleCorner
		}
		hair := o.sub(h, corner, scalp.EarTop)
		end := hair.Then(h, ear)
		top := f.divide.SubMM(h, ear.Length(), half).Reversed()
		start := f.middle.SubMM(h, f.place(o.at(scalp.FrontCentre)), stop)
		p.central, p.free = true, [2]bool{true, false}
		p.rails = rails{
			startRail: onMiddle(start, f.place(o.at(scalp.FrontCentre)), 1),
			topRail:   {onDivide(0, top.Length(), half, -1)},
			endRail:   {onDivide(hair.Length(), end.Length(), 0, 1)},
		}
		p.patch = surface.NewPatch(h, o.sub(h, scalp.FrontCentre, corner), top, start, end)
		if corner == scalp.Sideburn {
			round := slices.Clone(o.points[:o.marks[scalp.EarTop]+1])
			slices.Reverse(round)
			at := func(l scalp.Landmark) int { return o.marks[scalp.EarTop] - o.marks[l] }
			p.sectorEnd = []stretch{onDivide(0, half, 0, 1)}
			p.sector = func(size Size) charted {
				return aroundCrossing(h, f.divide.Last(), round, at(scalp.TempleCorner), at(scalp.Sideburn), size, true, true, false)
			}
		}
		return p, nil
	}
	from, to := s.offsets()
	side := o.sub(h, scalp.Sideburn, scalp.FrontCentre)
	if err := f.checkOffsets(ear, from, to, stop); err != nil {
		return nil, err
	}
	start := side
	switch off := f.flip * from; {
	case off > 0:
		start = side.SubMM(h, 0, side.Length()-off)
	case off < 0:
		start = side.Then(h, side.Mirrored().Reversed()).SubMM(h, 0, side.Length()-off)
	}
	end := f.divide
	if to != 0 && !s.toNape() {
		end = f.divideTo(to).SubMM(h, 0, half-f.flip*to)
	}
	f.part = surface.NewCurve(h, surface.GreatCircle(h, start.Last(), end.Last()))
	p.rails = rails{
		topRail: {{border: "part", to: f.part.Length(), dir: 1}},
		endRail: {onDivide(0, end.Length(), 0, 1)},
	}
	p.patch = surface.NewPatch(h, o.sub(h, scalp.Sideburn, scalp.EarTop), f.part, start, end)
	// Rows round the ear end on one great circle; an ear-to-ear part with a bend is none.
	straight := surface.NewCurve(h, surface.GreatCircle(h, end.First(), end.Last()))
	if math.Abs(straight.Length()-end.Length()) < 0.05 {
		round := start.Reversed().Then(h, o.sub(h, scalp.Sideburn, scalp.EarTop)).Points
		backward := f.part.Reversed().Points
		p.sector = func(size Size) charted { return besideEar(h, end.Last(), backward, round, size) }
	}
	return p, nil
}

// checkOffsets refuses a part line that would leave the front hairline or the top.
func (f *frame) checkOffsets(ear surface.Curve, from, to, stop float64) error {
	var bad invalid.Errors
	room := f.border.sub(f.h, scalp.FrontCentre, scalp.TempleCorner).Length() - 8
	if math.Abs(from) > room {
		bad.Add("part.offsetMm", "The part would start beside the front hairline: up to %s from the middle it starts on it.", invalid.AtMost(room))
	}
	across := surface.NewCurve(f.h, surface.GreatCircle(f.h, ear.First(), f.middle.At(stop/f.middle.Length()))).Length()
	room = 0.8 * (1 - earShare) * across
	if math.Abs(to) > room {
		path := "part.endOffsetMm"
		if f.s.Part.Kind == SidePart {
			path = "part.offsetMm"
		}
		bad.Add(path, "The part would end far down the side: up to %s from the middle it ends on top.", invalid.AtMost(room))
	}
	return bad.Err()
}

// napeGuard cuts the lowest row off a back panel and makes it one of individuals.
func (f *frame) napeGuard(back *panel) (*panel, error) {
	rise := back.patch.Rise()
	height := f.s.Back.Height
	if most := rise.Whole() / 2; height > most {
		var bad invalid.Errors
		bad.Add("back.heightMm", "A nape row %s high takes most of the back; up to %s works.", invalid.Beyond(height, 0, most), invalid.AtMost(most))
		return nil, bad
	}
	t := rise.ShareAt(height)
	guard, rest := *back, *back
	guard.key, guard.setRows, guard.linked, guard.behindStop = "N", 1, false, false
	guard.sector, rest.sector = nil, nil
	guard.patch, rest.patch = back.patch.Strip(0, t), back.patch.Strip(t, 1)
	for _, r := range []int{startRail, endRail} {
		length := map[int]float64{startRail: guard.patch.Start.Length(), endRail: guard.patch.End.Length()}[r]
		guard.rails[r] = cutRail(back.rails[r], 0, length)
		rest.rails[r] = cutRail(back.rails[r], length, math.Inf(1))
	}
	shared := []stretch{{border: "nape", to: guard.patch.Top.Length(), dir: 1, sided: true}}
	guard.rails[topRail], rest.rails[bottomRail] = shared, shared
	if _, cornrow := f.s.ground(BaseAtNape); cornrow {
		f.bases = append(f.bases, f.baseZone(&guard, napeKey))
	} else {
		f.panels = append(f.panels, &guard)
	}
	return &rest, nil
}

// besidePart lays individuals along the part line and the base beside them.
func (f *frame) besidePart(front *panel) error {
	rows, fixed := 1, 0
	switch f.s.Structure {
	case Horseshoe:
		rows = f.s.Rows
	case PartLine:
		if fixed = f.s.PerSide; fixed == 0 {
			fixed = max(1, int(math.Round(front.patch.Top.Length()/f.s.Front.Width)))
		}
	}
	rise := front.patch.Rise()
	depth := float64(rows) * f.s.Front.Height
	if most := rise.Whole() - 2*craft.NarrowestCornrow; depth > most {
		var bad invalid.Errors
		if fit := math.Floor(most / f.s.Front.Height); f.s.Structure == Horseshoe && fit >= 1 {
			bad.Add("rows", "%d rows of %s beside the part leave no room for the base; up to %.0f are possible on this head.", rows, invalid.Length(f.s.Front.Height), fit)
		} else {
			bad.Add("front.heightMm", "Sections %s high beside the part leave no room for the base; up to %s are possible on this head.", invalid.Beyond(depth, 0, most), invalid.AtMost(most/float64(rows)))
		}
		return bad
	}
	if width := front.patch.Top.Length() / float64(max(1, fixed)); width < MinSize {
		var bad invalid.Errors
		bad.Add("perSide", "%d sections along the part would be %s wide each; up to %.0f are possible on this head.", fixed, invalid.Beyond(width, MinSize, math.Inf(1)), math.Floor(front.patch.Top.Length()/MinSize))
		return bad
	}
	t := rise.ShareAt(rise.Whole() - depth)
	along, beside := *front, *front
	along.key, along.setRows, along.fixed = "P", rows, fixed
	along.sector, beside.sector = nil, nil
	along.patch, beside.patch = front.patch.Strip(t, 1), front.patch.Strip(0, t)
	length := beside.patch.End.Length()
	beside.rails[endRail] = cutRail(front.rails[endRail], 0, length)
	along.rails[endRail] = cutRail(front.rails[endRail], length, math.Inf(1))
	shared := []stretch{{border: "strip", to: along.patch.Bottom.Length(), dir: 1, sided: true}}
	beside.rails[topRail], along.rails[bottomRail] = shared, shared
	f.panels = append(f.panels, &along)
	f.lay(&beside, sidesKey)
	return nil
}

// lay makes the base of a panel's place: plaits in its sections, cornrows or a net.
func (f *frame) lay(p *panel, key string) {
	if kind := f.s.at(key).Base.Kind; kind.sectioned() {
		p.linked, p.laid = kind == LinkedPlaits, kind == LoosePlaits
		p.wish, p.wishPath = f.s.Back, "back"
		f.panels = append(f.panels, p)
		return
	}
	f.bases = append(f.bases, f.baseZone(p, key))
}

// bow is how far curved cornrows bend.
const bow = 0.18

// bowOf is the bend of n curved cornrows, less where there are few, so that the
// outermost keeps its room.
func bowOf(n int) float64 { return bow * min(1, float64(n)/6) }

// baseZone makes cornrows or a net of a panel's place.
func (f *frame) baseZone(p *panel, key string) *baseZone {
	base := f.s.at(key).Base
	b := &baseZone{key: key, central: p.central, patch: p.patch, ccw: p.ccw, net: base.Kind == Net, plaits: base.netted()}
	run := base.Run
	if b.net {
		run = StraightBack // the plaits under a net lie flat, whichever way it is hooked
	}
	b.cornrows, b.path = base.Cornrows, f.s.path(BaseBehind)
	switch behind := p.key == "B" || p.central; {
	case key == sidesKey || !behind:
		b.cornrows, b.path = base.SideCornrows, f.s.path(BaseSides)
		if run == Diagonal {
			b.patch = f.slanted(p.patch)
		}
	case key == napeKey:
		b.path = f.s.path(BaseAtNape)
	case run == Diagonal:
		b.patch, b.ccw, b.columns, b.slants = f.slanted(p.patch.Transposed()), !p.ccw, true, true
	case run.back():
		b.patch, b.ccw, b.columns = p.patch.Transposed(), !p.ccw, true
	}
	if _, own := f.s.ground(BaseInFront); key == frontKey && !b.columns && !own {
		// Cornrows from side to side in front keep the width of those behind.
		for _, other := range f.bases {
			if other.key == behindKey && !other.plaits {
				width := other.rise().Whole() / float64(other.cornrows)
				b.cornrows = max(1, int(math.Round(b.rise().Whole()/width)))
			}
		}
	}
	if run == Curved {
		b.patch.Bow = bowOf(b.cornrows)
	}
	return b
}

// slant is how far diagonal cornrows are turned: the share of its border by which the corners of
// their zone are moved on.
const slant = 0.55

// slanted is a patch whose lines run at a slant from border to border: its corners lie back along
// its border, so that a line begins where the start or the top was and ends at the end or the bottom.
func (f *frame) slanted(p *surface.Patch) *surface.Patch {
	// The border once round: along the bottom, up the end, back along the top, down the start.
	round := []surface.Curve{p.Bottom, p.End, p.Top.Reversed(), p.Start.Reversed()}
	side := func(k int) surface.Curve { // from the corner on one border to that on the next
		return round[(k+3)%4].Sub(f.h, slant, 1).Then(f.h, round[k].Sub(f.h, 0, slant))
	}
	return surface.NewPatch(f.h, side(0), side(2).Reversed(), side(3).Reversed(), side(1))
}

func (b *baseZone) rise() surface.Rise { return b.patch.Rise() }

// width is the mean width of the zone's cornrows, mm.
func (b *baseZone) width() float64 {
	room := b.rise().Whole()
	if b.central && b.columns {
		room *= 2
	}
	return room / (float64(b.cornrows) + b.apart*float64(b.cornrows-1))
}

// fit is how many cornrows have room, each as narrow as one may be.
func (b *baseZone) fit() float64 {
	n := float64(b.cornrows)
	room := b.width() * (n + b.apart*(n-1))
	return math.Floor((room/craft.NarrowestCornrow + b.apart) / (1 + b.apart))
}

// checkBases refuses more cornrows than fit.
func (f *frame) checkBases() error {
	var bad invalid.Errors
	for _, b := range f.bases {
		if b.plaits {
			continue
		}
		if width := b.width(); width < craft.NarrowestCornrow {
			bad.Add(b.path, "%d cornrows would be %s wide each, and a loop passes under none thinner than %s; up to %.0f are possible on this head.",
				b.cornrows, invalid.Beyond(width, craft.NarrowestCornrow, math.Inf(1)), invalid.AtLeast(craft.NarrowestCornrow), b.fit())
			return bad
		}
	}
	return nil
}
