package parting

import (
	"context"
	"errors"
	"fmt"
	"math"
	"slices"
	"sort"

	"kladotex/core/bond"
	"kladotex/core/invalid"
	"kladotex/core/scalp"
	"kladotex/core/surface"
)

// sides is a zone on both sides: the same on each where they mirror one another, and
// nil on a side that has none.
type sides[T any] struct{ left, right *T }

// zonePair is a zone of individuals on both sides, basePair one of cornrows or net.
type (
	zonePair = sides[panel]
	basePair = sides[baseZone]
)

// any is the zone on a side that has it.
func (s sides[T]) any() *T {
	if s.left != nil {
		return s.left
	}
	return s.right
}

// frames are both sides of a head.
type frames struct{ left, right *frame }

// newFrames lays out the zones of both sides.
func newFrames(h scalp.Head, s Settings) (frames, error) {
	left, err := newFrame(h, s, LeftSide)
	if err != nil || s.symmetric() {
		return frames{left, left}, err
	}
	right, err := newFrame(h, s, RightSide)
	return frames{left, right}, err
}

// pairs are the zones of individuals in working order: from the back, the front
// last.
func (f frames) pairs() []zonePair {
	return pair(f.left.panels, f.right.panels, func(p *panel) string { return p.key })
}

func (f frames) bases() []basePair {
	return pair(f.left.bases, f.right.bases, func(b *baseZone) string { return b.key })
}

// pair puts what has the same name on either side together.
func pair[T any](left, right []*T, name func(*T) string) []sides[T] {
	find := func(list []*T, x *T) *T {
		if i := slices.IndexFunc(list, func(y *T) bool { return name(x) == name(y) }); i >= 0 {
			return list[i]
		}
		return nil
	}
	var out []sides[T]
	for _, l := range left {
		out = append(out, sides[T]{l, find(right, l)})
	}
	for _, r := range right {
		if find(left, r) == nil {
			out = append(out, sides[T]{nil, r})
		}
	}
	return out
}

// on is the name of a zone on a side.
func on(key string, central bool, side Side) Zone {
	switch {
	case central:
		return Zone(key)
	case side == RightSide:
		return Zone(key + "R")
	}
	return Zone(key + "L")
}

// Lay parts the head as s wishes. Where nothing keeps them apart, the right side is
// the exact mirror image of the left. The error, if any, is an [invalid.Errors] with
// paths relative to s: settings that are no layout, or that do not fit this head; or
// that of ctx when it ends first.
func Lay(ctx context.Context, h scalp.Head, s Settings) (Layout, error) {
	l, err := Attempt(ctx, h, s)
	switch off, many, over := (misplaced{}), (crowded{}), (folded{}); {
	case errors.As(err, &off):
		return Layout{}, off.refusal(ctx, h, s)
	case errors.As(err, &many):
		return Layout{}, many.refusal(ctx, h, s)
	case errors.As(err, &over):
		return Layout{}, over.refusal(ctx, h, s)
	}
	return l, err
}

// Attempt is [Lay] for trying many settings: of some it does not find out what would
// be right in their place, which takes several layouts, and its error names no field.
func Attempt(ctx context.Context, h scalp.Head, s Settings) (Layout, error) {
	if err := s.Check(); err != nil {
		return Layout{}, err
	}
	f, rows, l, err := cutSections(ctx, h, s)
	if err != nil {
		return Layout{}, err
	}
	if i := slices.IndexFunc(l.Sections, func(x Section) bool { return x.Area < leastArea }); i >= 0 {
		return Layout{}, folded{l.Sections[i].Zone}
	}
	if l, err = leaveOut(h, s, l); err != nil {
		return Layout{}, err
	}
	l = changeByHand(ctx, h, s, l)
	if l, err = layBase(ctx, h, s, f, l); err != nil {
		return Layout{}, err
	}
	if err := ctx.Err(); err != nil {
		return Layout{}, fmt.Errorf("laying the head: %w", err)
	}
	return read(h, s, rows, l), nil
}

// cutSections takes the stages from the frame to the sections, lines moved by hand among
// them, whether or not sections lie over one another. Its error may be a [misplaced] or a
// [crowded].
func cutSections(ctx context.Context, h scalp.Head, s Settings) (frames, []zonePair, Layout, error) {
	f, err := newFrames(h, s)
	if err != nil {
		return frames{}, nil, Layout{}, err
	}
	rows, rejected := moveLines(ctx, h, layRows(ctx, s, f.pairs()), s.Edits)
	if err := ctx.Err(); err != nil {
		return frames{}, nil, Layout{}, fmt.Errorf("parting the head: %w", err)
	}
	if n := sectionsOf(rows); n > MaxSections {
		return frames{}, nil, Layout{}, crowded{n, rows}
	}
	l := draw(ctx, h, s, f, rows)
	if err := ctx.Err(); err != nil {
		return frames{}, nil, Layout{}, fmt.Errorf("drawing the sections: %w", err)
	}
	l.Rejected = rejected
	return f, rows, l, nil
}

// flat tells whether settings can be cut into sections that lie side by side.
func flat(ctx context.Context, h scalp.Head, s Settings) bool {
	_, _, l, err := cutSections(ctx, h, s)
	return err == nil && !slices.ContainsFunc(l.Sections, func(x Section) bool { return x.Area < leastArea })
}

// leastArea is the area in mm² under which a section has folded over: where lines run
// together too sharply, outlines turn round and areas below zero make up for it.
const leastArea = 1.0

// folded is the error of a zone in which sections lie over one another.
type folded struct{ zone Zone }

// Error implements error.
func (o folded) Error() string {
	return fmt.Sprintf("sections of zone %s lie over one another", o.zone)
}

// refusal looks for the one field that has to give way, and for how far.
func (o folded) refusal(ctx context.Context, h scalp.Head, s Settings) error {
	zone := o.zone
	flat := func(s Settings) bool { return flat(ctx, h, s) }
	var bad invalid.Errors
	unmoved := s
	unmoved.Edits = slices.DeleteFunc(slices.Clone(s.Edits), func(e Edit) bool { return e.Kind.moves() })
	if len(unmoved.Edits) < len(s.Edits) {
		if flat(unmoved) {
			return folding(ctx, s, zone, flat)
		}
		s = unmoved // it is not the lines moved by hand
	}
	_, end := s.offsets()
	for _, give := range []struct {
		path, what string
		value, to  float64
		set        func(*Settings, float64)
	}{
		{"part.stopMm", "The part line stops", s.Part.Stop, h.Arc(h.Landmark(scalp.FrontCentre), h.Crown()) - s.Part.Ear, func(s *Settings, v float64) { s.Part.Stop = v }},
		{"part.earPartMm", "The ear-to-ear part lies", s.Part.Ear, 0, func(s *Settings, v float64) { s.Part.Ear = v }},
		{"part.endOffsetMm", "The part line ends", end, 0, func(s *Settings, v float64) { s.Part.EndOffset = v }},
		{"part.offsetMm", "The part line starts", s.Part.Offset, 0, func(s *Settings, v float64) { s.Part.Offset = v }},
		{"edgesMm", "The strip left out is", s.Edges, 0, func(s *Settings, v float64) { s.Edges = v }},
	} {
		if give.value == 0 {
			continue
		}
		at := func(share float64) Settings {
			changed := s
			give.set(&changed, give.value+share*(give.to-give.value))
			return changed
		}
		if !flat(at(1)) {
			continue
		}
		low, high := 0.0, 1.0
		for range 6 {
			if mid := (low + high) / 2; flat(at(mid)) {
				high = mid
			} else {
				low = mid
			}
		}
		bound := give.value + high*(give.to-give.value)
		works := invalid.AtMost(bound)
		if give.to > give.value {
			works = invalid.AtLeast(bound)
		}
		bad.Add(give.path, "%s where sections of zone %s would lie over one another; at %s instead of %s they lie side by side.",
			give.what, zone, works, invalid.Length(give.value))
		return bad
	}
	if err := ctx.Err(); err != nil {
		return fmt.Errorf("parting the head: %w", err)
	}
	bad.Add("part.kind", "Part line, hairline and sizes leave so little room in zone %s that sections would lie over one another: bring the hairline nearer to the usual one, or choose the middle part.", zone)
	return bad
}

// misplaced is the error of a front and a back that meet too far in front or behind.
// Lengths are mm along the middle from the front hairline.
type misplaced struct {
	// stopped is true where they meet at the stop of the part line.
	stopped bool
	// at is where they meet, low and high between which there is room for either,
	// crown is the top of the head.
	at, low, high, crown float64
}

// Error implements error.
func (m misplaced) Error() string {
	return fmt.Sprintf("front and back meet %.0f mm from the hairline, not within %.0f to %.0f", m.at, m.low, m.high)
}

// refusal names the range that works on this head. Near its ends there is room, but
// sections may lie over one another: then it is narrowed until they do not.
func (m misplaced) refusal(ctx context.Context, h scalp.Head, s Settings) error {
	works := func(at float64) bool {
		if m.stopped {
			s.Part.Stop = at
		} else {
			s.Part.Ear = m.crown - at
		}
		return flat(ctx, h, s)
	}
	middle := min(m.high, max(m.low, m.crown-s.Part.Ear))
	narrowed := func(end float64) float64 {
		if works(end) || !works(middle) {
			return end
		}
		bad, good := end, middle
		for range 5 {
			if mid := (bad + good) / 2; works(mid) {
				good = mid
			} else {
				bad = mid
			}
		}
		return good
	}
	const inside = 1e-6 // so that no rounding puts an end outside again
	low, high := narrowed(m.low+inside), narrowed(m.high-inside)
	if err := ctx.Err(); err != nil {
		return fmt.Errorf("parting the head: %w", err)
	}
	where := "in front of"
	if m.at > m.high {
		where = "too close to the nape for"
	}
	var bad invalid.Errors
	if m.stopped {
		bad.Add("part.stopMm", "The stop of the part line lies %s the hair it should part: between %s and %s from the front hairline it works.", where,
			invalid.AtLeast(low), invalid.AtMost(high))
	} else {
		bad.Add("part.earPartMm", "The ear-to-ear part lies %s the hair it should part: between %s behind and %s in front of the top it works.", where,
			invalid.AtMost(max(0, high-m.crown)), invalid.AtMost(max(0, m.crown-low)))
	}
	return bad
}

// folding refuses the line moved by hand that makes sections lie over one another: the
// first up to which they do, found by halves. All up to the one before it hold.
func folding(ctx context.Context, s Settings, zone Zone, flat func(Settings) bool) error {
	var moved []int
	for i, e := range s.Edits {
		if e.Kind.moves() {
			moved = append(moved, i)
		}
	}
	upTo := s
	first := sort.Search(len(moved)-1, func(n int) bool {
		upTo.Edits = s.Edits[:moved[n]+1]
		return !flat(upTo)
	})
	without := s
	without.Edits = slices.Delete(slices.Clone(s.Edits), moved[first], moved[first]+1)
	alone := flat(without)
	if err := ctx.Err(); err != nil {
		return fmt.Errorf("parting the head: %w", err)
	}
	var bad invalid.Errors
	path := fmt.Sprintf("edits[%d].at", moved[first])
	if alone {
		bad.Add(path, "Dragged there, sections of zone %s would lie over one another; a shorter way works.", zone)
	} else {
		bad.Add(path, "From this change on, lines moved by hand would make sections of zone %s lie over one another; take it and the later ones back.", zone)
	}
	return bad
}

// mapPanels are the pairs with every panel replaced by what change makes of it; sides
// that are one panel stay one.
func mapPanels(pairs []zonePair, change func(panel) panel) []zonePair {
	out := make([]zonePair, len(pairs))
	for i, c := range pairs {
		if c.left != nil {
			left := change(*c.left)
			out[i].left = &left
		}
		switch {
		case c.right == c.left:
			out[i].right = out[i].left
		case c.right != nil:
			right := change(*c.right)
			out[i].right = &right
		}
	}
	return out
}

// eachPanel looks once at every panel.
func eachPanel(pairs []zonePair, do func(*panel)) {
	for _, c := range pairs {
		if c.left != nil {
			do(c.left)
		}
		if c.right != nil && c.right != c.left {
			do(c.right)
		}
	}
}

// sectionsOf counts the sections of both sides, those across the middle once.
func sectionsOf(pairs []zonePair) (n int) {
	for _, c := range pairs {
		if c.left != nil {
			n += c.left.boxes()
		}
		if c.right != nil {
			n += c.right.boxes() - c.right.across()
		}
	}
	return n
}

// boxes counts the sections of this side.
func (p *panel) boxes() (n int) {
	for _, c := range p.courses {
		n += c.Boxes()
	}
	return n
}

// across counts those that lie across the middle; a row of one section only, all
// round the head, is one of them.
func (p *panel) across() (n int) {
	for _, c := range p.courses {
		n += min(c.Halves(), c.Boxes())
	}
	return n
}

// layRows gives every panel its rows and the sections in each; see [bond.Brick] for ctx.
// What rounding leaves over is carried from zone to zone that follow one wish, so that front
// and back each stay as they are while sizes of the other change.
func layRows(ctx context.Context, s Settings, pairs []zonePair) []zonePair {
	out := mapPanels(pairs, panel.withRows)
	carries := map[string]*bond.Carry{"front": {}, "back": {}}
	for i, c := range out {
		carry := carries[c.any().wishPath]
		alike := c.left != nil && c.right != nil && (c.left == c.right || c.left.central || s.alike())
		sides := 1.0
		if alike {
			sides = 2
		}
		if c.left != nil {
			left := c.left.withCourses(ctx, sides, carry)
			out[i].left = &left
		}
		switch {
		case c.right == c.left:
			out[i].right = out[i].left
		case alike:
			right := *c.right
			right.courses = bond.Clone(out[i].left.courses)
			out[i].right = &right
		case c.right != nil:
			right := c.right.withCourses(ctx, sides, carry)
			out[i].right = &right
		}
	}
	return out
}

// A row of triangles is taller than one of boxes of the same area, so that a triangle is
// about as wide as high: of an even-sided one, the height is √(√3) times the side of the
// square.
var triangleTall = math.Sqrt(math.Sqrt(3))

// size is the section wished for at the bottom of the zone, as its pattern draws it.
func (p *panel) size() Size {
	if p.wish.Pattern == Triangle {
		return Size{p.wish.Width / triangleTall, p.wish.Height * triangleTall}
	}
	return p.wish.Size
}

// growthMean is the mean size of sections that grow by ramp ÷ the first.
func growthMean(ramp float64) float64 {
	if ramp == 1 {
		return 1
	}
	return (ramp - 1) / math.Log(ramp)
}

// withRows is the panel with its chart and the lines of its rows.
func (p panel) withRows() panel {
	size := p.size()
	if p.isRound = p.layRound(size); !p.isRound {
		p.layBetween(size)
		p.drawRows()
	}
	return p
}

// drawRows draws the row lines and what lies between them.
func (p *panel) drawRows() {
	p.lines, p.bands = make([]surface.Line, p.rows+1), make([]surface.Band, p.rows)
	for i, x := range p.xs {
		p.lines[i] = p.chart.Line(x)
	}
	for i := range p.bands {
		p.bands[i] = p.band(i)
	}
}

// band is the row between lines i and i+1.
func (p *panel) band(i int) surface.Band {
	lower, upper := p.lines[i], p.lines[i+1]
	return p.chart.Band(lower, p.chart.Line((lower.X+upper.X)/2), upper)
}

// layRound charts the zone round its pole, and tells whether it could: a hairline far from
// the usual one may turn back on a ray, and part of the zone would be lost.
func (p *panel) layRound(size Size) bool {
	if p.sector == nil {
		return false
	}
	mean := growthMean(p.wish.Ramp)
	p.charted = p.sector(Size{size.Width * mean, size.Height * mean})
	p.xs = rampedLines(p.rows, p.wish.Ramp, p.kept)
	p.rows = len(p.xs) - 1
	p.drawRows()
	area, _ := p.chart.Head.AreaCentroid(surface.Outline(p.bands))
	const lost = 0.001
	return math.Abs(math.Abs(area)/p.patch.Area()-1) < lost
}

// rampedLines are the places of row lines between 0 and n, about n rows that grow by ramp
// from the first to the last. One of them is kept, if it is not 0: on either side of it whole
// rows share what there is.
func rampedLines(n int, ramp, kept float64) []float64 {
	whole := float64(n)
	// The line that t rows lie below, and how many rows lie below a line.
	at := func(t float64) float64 { return whole * (math.Pow(ramp, t/whole) - 1) / (ramp - 1) }
	below := func(x float64) float64 { return whole * math.Log1p((ramp-1)*x/whole) / math.Log(ramp) }
	if ramp == 1 {
		at = func(t float64) float64 { return t }
		below = at
	}
	xs := []float64{0}
	stretch := func(from, to float64) {
		rows := max(1, int(math.Round(to-from)))
		for i := 1; i <= rows; i++ {
			xs = append(xs, at(from+(to-from)*float64(i)/float64(rows)))
		}
	}
	if kept > 0 && ramp != 1 {
		turn := below(kept)
		stretch(0, turn)
		xs[len(xs)-1] = kept
		stretch(turn, whole)
	} else {
		stretch(0, whole)
	}
	xs[len(xs)-1] = whole
	return xs
}

// layBetween charts the zone between its rails.
func (p *panel) layBetween(size Size) {
	rise := p.patch.Rise()
	rows := p.setRows
	if rows == 0 {
		rows = rowCount(rise.Whole(), size.Height, p.wish.Ramp)
	}
	p.charted = charted{chart: surface.ChartOf(p.patch, rowLines(rise, rows, p.wish.Ramp)), rows: rows}
	p.xs = rampedLines(rows, 1, 0)
}

// withCourses is the panel with the sections in each of its rows.
func (p panel) withCourses(ctx context.Context, sides float64, carry *bond.Carry) panel {
	bands := p.inOrder(sides)
	switch p.wish.Pattern {
	case Grid:
		p.courses = bond.Grid(ctx, bands, sides, carry)
	case Triangle:
		p.courses = bond.Triangles(bands, sides, carry)
	default:
		p.courses = bond.Brick(ctx, bands, sides, carry)
		if p.wish.Pattern == FreeHand {
			bond.Loosen(bands, p.courses)
		}
	}
	if p.fromTop {
		slices.Reverse(p.courses)
	}
	return p
}

// inOrder are the rows as a bond lays them, from the pole outward.
func (p *panel) inOrder(sides float64) []bond.Band {
	bands := make([]bond.Band, p.rows)
	size := p.size()
	along := p.along()
	for i := range bands {
		r := i
		if p.fromTop {
			r = p.rows - 1 - i
		}
		g := p.growth(r)
		bands[i] = bandOf(&p.bands[r], p.fromTop, Size{size.Width * g, size.Height * g}, along)
		b := &bands[i]
		row := &p.bands[r]
		b.FreeStart = p.free[0] && row.FullFrom == 0
		b.FreeEnd = p.free[1] && row.FullTo == float64(p.chart.Steps)
		b.Fixed = p.fixed
		if i == 0 && p.most > 0 && p.setRows == 0 {
			b.Most = p.most
			if !p.central {
				b.Most *= int(sides)
			}
		}
		b.Straddle = p.behindStop && r == p.rows-1
	}
	return bands
}

// bandOf are the tables of a row for sections of a size, that grow by along from its start.
func bandOf(row *surface.Band, fromTop bool, size Size, along float64) bond.Band {
	low, high := bond.Edge{Run: row.Lower.Run, From: row.LowFrom, To: row.LowTo}, bond.Edge{Run: row.Upper.Run, From: row.HighFrom, To: row.HighTo}
	b := bond.Band{Inner: low, Outer: high, From: row.From, To: row.To, FullFrom: row.FullFrom, FullTo: row.FullTo, Grow: along}
	if fromTop {
		b.Inner, b.Outer = high, low
	}
	steps := len(row.Running)
	tables := make([]float64, 3*steps)
	b.Area, b.InnerArea, b.Tall = tables[:steps], tables[steps:2*steps], tables[2*steps:]
	whole := row.Area()
	unit := 1 / (size.Width * size.Height)
	for j, mm2 := range row.Running {
		inner := row.RunningLow[j]
		if fromTop {
			inner = mm2 - inner
		}
		b.Area[j], b.InnerArea[j] = mm2*unit, inner*unit
		if along != 1 { // as many sections as if they were all of one size
			if share := mm2 / whole; share > 0 {
				flat := math.Log1p(share*(along-1)) / math.Log(along) * whole * unit / growthMean(along)
				b.Area[j], b.InnerArea[j] = flat, flat*inner/mm2
			}
		}
	}
	row.Tall(b.Tall)
	from, to := row.FullFrom, row.FullTo
	if to <= from+1 {
		from, to = row.From, row.To
	}
	n := 0.0
	for j := int(from); j < int(math.Ceil(to)) && j < steps-1; j++ {
		b.PerStep += row.Mid.Run[j+1] - row.Mid.Run[j]
		b.Height += row.Height(float64(j), float64(j))
		n++
	}
	b.PerStep, b.Height = b.PerStep/max(1, n)/size.Width, b.Height/max(1, n)/size.Height
	return b
}

// along is how sections grow along this panel's rows: in rings, and in the single
// row of a nape guard or a peak, not at all.
func (p *panel) along() float64 {
	if p.ring || p.key == "N" || p.key == "W" {
		return 1
	}
	return p.wish.Along
}

// growth is the wished size in row i ÷ that at the bottom rail.
func (p *panel) growth(i int) float64 {
	return math.Pow(p.wish.Ramp, (float64(i)+0.5)/float64(p.rows))
}

// grown is the wished size of the section at share x of row i.
func (p *panel) grown(i int, x float64) Size {
	size := p.size()
	g := p.growth(i)
	width := size.Width * g * math.Pow(p.along(), x)
	if p.fixed > 0 {
		width = p.midLength(i) / float64(p.fixed)
	}
	return Size{width, size.Height * g}
}

// midLength is the length of row i along its middle, mm.
func (p *panel) midLength(i int) float64 {
	b := &p.bands[i]
	return b.Mid.MM((b.LowTo+b.HighTo)/2) - b.Mid.MM((b.LowFrom+b.HighFrom)/2)
}

// lowJoints and highJoints are the s of the part ends of row r on its lower and on its upper
// line.
func (p *panel) lowJoints(r int) []float64 {
	if p.fromTop {
		return p.courses[r].OuterJoints()
	}
	return p.courses[r].Joints
}

func (p *panel) highJoints(r int) []float64 {
	if p.fromTop {
		return p.courses[r].Joints
	}
	return p.courses[r].OuterJoints()
}

// box is section k of row r.
func (p *panel) box(r, k int) surface.Box {
	b := &p.bands[r]
	lowFrom, lowTo := bond.Gap(p.lowJoints(r), k, b.From, b.To)
	highFrom, highTo := bond.Gap(p.highJoints(r), k, b.From, b.To)
	return surface.Box{LowFrom: lowFrom, LowTo: lowTo, HighFrom: highFrom, HighTo: highTo}
}

// crowded is the error of more sections than are planned.
type crowded struct {
	sections int
	pairs    []zonePair
}

// Error implements error.
func (m crowded) Error() string {
	return fmt.Sprintf("%d sections are more than %d", m.sections, MaxSections)
}

// refusal finds, by trying, sizes at which the head can be laid; it names the zone with
// the more sections.
func (m crowded) refusal(ctx context.Context, h scalp.Head, s Settings) error {
	n := m.sections
	most, path := 0, "back.widthMm"
	for _, c := range m.pairs {
		if k := c.any().boxes(); k > most {
			most, path = k, c.any().wishPath+".widthMm"
		}
	}
	larger := s
	for grow := math.Sqrt(float64(n) / MaxSections); ctx.Err() == nil; grow *= 1.03 {
		for wish, was := range map[*Wish]Size{&larger.Front: s.Front.Size, &larger.Back: s.Back.Size} {
			// What is said must work, so it is tried as it will be read.
			wish.Width, wish.Height = min(MaxSize, math.Ceil(was.Width*grow)), min(MaxSize, math.Ceil(was.Height*grow))
		}
		if f, err := newFrames(h, larger); err == nil {
			if sectionsOf(layRows(ctx, larger, f.pairs())) <= MaxSections {
				break
			}
		}
	}
	if err := ctx.Err(); err != nil {
		return fmt.Errorf("parting the head: %w", err)
	}
	size := func(z Size) string {
		return invalid.AtLeast(z.Width) + " wide and " + invalid.AtLeast(z.Height) + " high"
	}
	var bad invalid.Errors
	bad.Add(path, "Sections this small make %d on this head; up to %d are planned. Sections at least %s in front and %s behind would work.",
		n, MaxSections, size(larger.Front.Size), size(larger.Back.Size))
	return bad
}

// read sums the layout up when every change is in it, and looks it over.
func read(h scalp.Head, s Settings, rows []zonePair, l Layout) Layout {
	l.Rows = slices.Clone(l.Rows)
	l.sumZones()
	l.linkPlaits(h)
	for _, x := range l.LeftOut {
		l.OutArea += x.Area
	}
	l.balance()
	l.Notices = notices(s, rows, l)
	return l
}

// clone is a layout that can be changed without changing l. The lists of a section are
// never changed in place.
func (l Layout) clone() Layout {
	l.Sections, l.LeftOut, l.Rows = slices.Clone(l.Sections), slices.Clone(l.LeftOut), slices.Clone(l.Rows)
	l.Cornrows, l.Nets, l.Rejected = slices.Clone(l.Cornrows), slices.Clone(l.Nets), slices.Clone(l.Rejected)
	return l
}

// sumZones counts what every zone and row holds.
func (l *Layout) sumZones() {
	at := map[Zone]int{}
	l.Zones, l.Area = l.Zones[:0], 0
	for _, r := range l.Rows {
		i, ok := at[r.Zone]
		if !ok {
			i = len(l.Zones)
			at[r.Zone] = i
			l.Zones = append(l.Zones, ZoneSum{Zone: r.Zone})
		}
		l.Zones[i].Rows++
	}
	seen := map[rowAt]int{}
	for i := range l.Sections {
		if x := &l.Sections[i]; x.Seen {
			seen[rowAt{x.Zone, x.Row}]++
		}
	}
	for i := range l.Rows {
		r := &l.Rows[i]
		r.Seen = r.Sections > 0 && 2*seen[rowAt{r.Zone, r.Row}] >= r.Sections
	}
	for i := range l.Sections {
		x := &l.Sections[i]
		l.Zones[at[x.Zone]].add(x)
		l.Area += x.Area
	}
}

// balance compares left and right, in front and behind.
func (l *Layout) balance() {
	l.Balance = []Balance{{Place: "front"}, {Place: "back"}}
	for i := range l.Sections {
		x, b := &l.Sections[i], &l.Balance[1]
		if x.Front {
			b = &l.Balance[0]
		}
		half := &b.Middle
		switch {
		case x.Centroid[1] > 1:
			half = &b.Left
		case x.Centroid[1] < -1:
			half = &b.Right
		}
		half.Sections++
		half.Area += x.Area
	}
}

// rowLines are the n+1 values of t, from 0 to 1, that divide the patch into n
// rows. With ramp ρ the rows grow from the bottom rail up, by the same factor
// from each to the next: the height at share τ of the rise is as 1 + (ρ-1)τ, so
// that the integral of 1/height reaches the share x of its whole at
// τ = (ρˣ - 1) ÷ (ρ - 1).
func rowLines(rise surface.Rise, n int, ramp float64) []float64 {
	ts := make([]float64, n+1)
	ts[n] = 1
	for i := 1; i < n; i++ {
		share := float64(i) / float64(n)
		if ramp != 1 {
			share = (math.Pow(ramp, share) - 1) / (ramp - 1)
		}
		ts[i] = rise.ShareAt(rise.Whole() * share)
	}
	return ts
}

// rowCount is the number of rows of the wished height at the bottom rail, growing
// by ramp to the top, that come nearest to filling rise mm.
func rowCount(rise, height, ramp float64) int {
	rows := rise / height
	if ramp != 1 {
		rows *= math.Log(ramp) / (ramp - 1)
	}
	return max(1, int(math.Round(rows)))
}
