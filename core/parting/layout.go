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

// zonePair is a zone of individuals on both sides, basePair one of tracks or net.
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
	rows, rejected := moveLines(ctx, h, layRows(ctx, f.pairs()), s.Edits)
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
		bad.Add("part.stopMm", "The stop of the part line lies %s the hair it shall part: between %s and %s from the front hairline it works.", where,
			invalid.AtLeast(low), invalid.AtMost(high))
	} else {
		bad.Add("part.earPartMm", "The ear-to-ear part lies %s the hair it shall part: between %s behind and %s in front of the top it works.", where,
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
func layRows(ctx context.Context, pairs []zonePair) []zonePair {
	return mapPanels(pairs, func(p panel) panel { return p.withRows().withCourses(ctx) })
}

// withRows is the panel with the number of its rows and their lines.
func (p panel) withRows() panel {
	rise := p.patch.Rise()
	rows := p.rows
	if rows == 0 {
		rows = rowCount(rise.Whole(), p.wish.Height, p.wish.Ramp)
	}
	p.ts = rowLines(rise, rows, p.wish.Ramp)
	p.lines, p.mids = make([]surface.Curve, rows+1), make([]surface.Curve, rows)
	for i, t := range p.ts {
		p.lines[i] = p.patch.Line(t)
	}
	for i := range rows {
		p.mids[i] = p.patch.Line((p.ts[i] + p.ts[i+1]) / 2)
	}
	return p
}

// withCourses is the panel with the sections in each of its rows.
func (p panel) withCourses(ctx context.Context) panel {
	p.courses = make([]bond.Course, len(p.mids))
	along := p.along()
	for i := range p.courses {
		p.courses[i].Length = p.mids[i].Length() / (p.wish.Width * p.growth(i)) * growthCount(along)
		if p.fixed > 0 {
			p.courses[i].Length = float64(p.fixed)
		}
	}
	switch p.wish.Pattern {
	case Grid:
		bond.Grid(p.courses, p.free)
	case Brick:
		bond.Brick(ctx, p.courses, p.free, p.behindStop)
	case Triangle:
		bond.Triangles(p.courses, p.free)
	case FreeHand:
		bond.Brick(ctx, p.courses, p.free, p.behindStop)
		bond.Loosen(p.courses)
	}
	p.flat = p.courses
	if along != 1 {
		p.flat = bond.Clone(p.courses)
		for i := range p.courses {
			c := &p.courses[i]
			c.Joints = stretched(c.Joints, along)
			if c.Upper != nil {
				c.Upper = stretched(c.Upper, along)
			}
		}
	}
	return p
}

// along is how sections grow along this panel's rows: in rings, and in the single
// row of a nape guard or a peak, not at all.
func (p *panel) along() float64 {
	if p.ring || p.key == "N" || p.key == "W" {
		return 1
	}
	return p.wish.Along
}

// growthCount is how many more sections a row holds that grow from the wished width
// by the factor along, than equal ones.
func growthCount(along float64) float64 {
	if along == 1 {
		return 1
	}
	return math.Log(along) / (along - 1)
}

// stretched moves part ends so that equal sections become ones that grow along the
// row, as [rowLines] does with rows.
func stretched(joints []float64, along float64) []float64 {
	out := make([]float64, len(joints))
	for i, x := range joints {
		out[i] = stretchedTo(x, along)
	}
	return out
}

// stretchedTo is where [stretched] puts one part end.
func stretchedTo(x, along float64) float64 { return (math.Pow(along, x) - 1) / (along - 1) }

// unstretched is where a part end of [stretched] would stand among equal sections.
func unstretched(x, along float64) float64 {
	return math.Log1p(x*(along-1)) / math.Log(along)
}

// growth is the wished size in row i ÷ that at the bottom rail.
func (p *panel) growth(i int) float64 {
	return math.Pow(p.wish.Ramp, (float64(i)+0.5)/float64(len(p.mids)))
}

// grown is the wished size of the section at the middle of a row, at share x of it.
func (p *panel) grown(i int, x float64) Size {
	g := p.growth(i)
	width := p.wish.Width * g * math.Pow(p.along(), x)
	if p.fixed > 0 {
		width = p.mids[i].Length() / float64(p.fixed)
	}
	return Size{width, p.wish.Height * g}
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
			if sectionsOf(layRows(ctx, f.pairs())) <= MaxSections {
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
	l.Tracks, l.Nets, l.Rejected = slices.Clone(l.Tracks), slices.Clone(l.Nets), slices.Clone(l.Rejected)
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
