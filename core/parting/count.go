package parting

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/craft"
	"kladotex/core/invalid"
	"kladotex/core/scalp"
	"kladotex/core/surface"
)

// Keep says which zones a fit leaves as they are.
type Keep string

// What may be kept.
const (
	KeepNone  Keep = ""
	KeepFront Keep = "front"
	KeepBack  Keep = "back"
)

// Count is a wished number of sections.
type Count struct {
	Total int  `json:"total" doc:"Sections wished for"`
	Keep  Keep `json:"keep,omitempty" enum:"front,back" doc:"Zones to leave as they are; left out to change both"`
	// Alone counts the zones that change by themselves, not the whole head.
	Alone bool `json:"alone,omitempty" doc:"True when the number is that of the zones that change alone"`
}

// Fitted are settings with the number of sections they make, on the whole head and in
// the zones of either wish.
type Fitted struct {
	Sections int      `json:"sections"`
	Front    int      `json:"front"`
	Back     int      `json:"back"`
	Settings Settings `json:"parting"`
	// Split sections are among the changes by hand of the settings, which were not before:
	// no sizes alone come to the number.
	Split int `json:"split,omitempty" doc:"Sections split to come to the number where no sizes do; they are changes by hand"`
}

// Bounds of the search for a count.
const (
	// fitClose is how close, as a ratio, the common scale is found.
	fitClose = 1.0003
	// fitWork bounds a search, in sections laid: about half a second of processor time.
	fitWork = 90_000
	// frameWork is what setting out the zones takes beside, in the same unit.
	frameWork = 60
	// fitStep is the ratio between the scales tried near the common one, fitSkew that
	// between the shapes: wider and lower, narrower and higher. fitTilt is that between front
	// and back: larger in front and smaller behind, and the other way round.
	fitStep, fitSkew, fitTilt    = 1.0013, 1.02, 1.015
	fitSteps, fitSkews, fitTilts = 10, 7, 4
	// fitCleaner is how many more ways to the total are looked at where the first have more
	// slivers than sections of that size have by themselves.
	fitCleaner = 100
)

// FitCount finds section sizes near those of s, patterns and ramps kept, for which
// head h has exactly total sections: the common scale at which the count passes
// total, then scales and shapes a little off it, the nearest first; last, one or two
// sections too few are made up by splitting the largest. Spots left out and changes by hand
// count. It returns one result when it is met, else the two nearest, the lesser first; an odd
// total is never met where left and right mirror each other and nothing crosses the middle.
//
// The error, if any, is an [invalid.Errors]: of the settings, with paths under
// "parting", or of "total" when no size in the accepted range comes near; or that of
// ctx when it ends first.
func FitCount(ctx context.Context, h scalp.Head, s Settings, wish Count) ([]Fitted, error) {
	now, err := Lay(ctx, h, s)
	if err != nil {
		return nil, invalid.Under(err, "parting")
	}
	whole := 2*len(now.Sections) + 10*len(s.Edits) // of laying the head with all changes
	f := fitting{
		ctx: ctx, head: h, settings: s, left: fitWork,
		free: map[string]bool{"front": wish.Keep != KeepFront, "back": wish.Keep != KeepBack},
	}
	total := wish.Total
	if wish.Alone {
		front, back := f.locked(now)
		total += map[Keep]int{KeepFront: front, KeepBack: back}[wish.Keep]
	}
	// Left out and changed by hand, the head holds fewer or more than are laid.
	byHand := len(now.Sections) - f.count(1)
	var met []Fitted
	for round := range 4 {
		if round > 0 && f.left <= 0 {
			break
		}
		found, err := f.near(total - byHand)
		if err := ctx.Err(); err != nil {
			return nil, fmt.Errorf("fitting a count: %w", err)
		}
		if err != nil {
			return nil, err
		}
		met = met[:0]
		for _, x := range found {
			l, err := Attempt(ctx, h, x.Settings)
			f.left -= whole
			if err := ctx.Err(); err != nil {
				return nil, fmt.Errorf("fitting a count: %w", err)
			}
			if err != nil {
				continue
			}
			byHand = len(l.Sections) - x.Sections
			x.Sections = len(l.Sections)
			x.Front, x.Back = f.locked(l)
			met = append(met, x)
			if x.Sections == total {
				return []Fitted{x}, nil
			}
		}
		if len(s.Edits) == 0 && len(s.LeftOut) == 0 {
			break
		}
	}
	if len(met) > 0 {
		if x, ok := f.split(met[0], total); ok {
			return []Fitted{x}, nil
		}
	}
	return met, nil
}

// split makes up for one section or two that a fit has too few: the largest is split, on
// both sides where they mirror each other, or one that lies across the middle.
func (f *fitting) split(x Fitted, total int) (Fitted, bool) {
	lack := total - x.Sections
	if lack < 1 || lack > 2 {
		return x, false
	}
	l, err := Attempt(f.ctx, f.head, x.Settings)
	if err != nil {
		return x, false
	}
	mirrored := f.settings.alike()
	slices.SortStableFunc(l.Sections, func(a, b Section) int { return cmp.Compare(b.Share, a.Share) })
	var edits []Edit
	for i := 0; i < len(l.Sections) && len(edits) < lack; i++ {
		s := &l.Sections[i]
		wish := f.settings.Back
		if s.Front {
			wish = f.settings.Front
		}
		path := map[bool]string{true: "front", false: "back"}[s.Front]
		across := math.Abs(s.Centroid[1]) < 1
		switch {
		case !f.free[path] || wish.Pattern == Triangle || s.Width.Mean < 2*MinSize || s.Edited:
		case mirrored && lack == 1 && across, !mirrored:
			edits = append(edits, s.halved(f.head))
		case mirrored && lack == 2 && s.Centroid[1] > s.Width.Max:
			e := s.halved(f.head)
			with := Direction{e.With[0], -e.With[1], e.With[2]}
			edits = append(edits, e, Edit{Kind: Split, At: Direction{e.At[0], -e.At[1], e.At[2]}, With: &with})
		}
	}
	if len(edits) < lack {
		return x, false
	}
	x.Settings.Edits = append(slices.Clone(x.Settings.Edits), edits...)
	if l, err = Attempt(f.ctx, f.head, x.Settings); err != nil || len(l.Sections) != total {
		return x, false
	}
	x.Sections, x.Split = total, lack
	x.Front, x.Back = f.locked(l)
	return x, true
}

// halved is the change by hand that splits a section across its row.
func (s *Section) halved(h scalp.Head) Edit {
	row := scalp.Unit(r3.Cross(h.Normal(surface.Toward(h, s.Centroid)), s.along))
	aside := func(mm float64) Direction {
		return Toward(h, scalp.Point{s.Centroid[0] + mm*row.X, s.Centroid[1] + mm*row.Y, s.Centroid[2] + mm*row.Z})
	}
	with := aside(-s.Width.Mean / 4)
	return Edit{Kind: Split, At: aside(s.Width.Mean / 4), With: &with}
}

// fitting looks for counts near a common scale of the free zones.
type fitting struct {
	ctx      context.Context
	head     scalp.Head
	settings Settings
	free     map[string]bool // by wish
	// left is the work that may still be done.
	left int
	// scale is the common one.
	scale float64
	// fewer and more are the counts found on either side of the total.
	fewer, more Fitted
}

// scaled are the settings with the free zones' sizes scaled.
func (f *fitting) scaled(scale float64) Settings { return f.shaped(scale, 1, 1) }

// shaped are the settings with the free zones' sizes scaled, as much wider as lower, and as
// much larger in front as smaller behind.
func (f *fitting) shaped(scale, skew, tilt float64) Settings {
	s := f.settings
	if f.free["front"] {
		s.Front.Width *= scale * tilt * skew
		s.Front.Height *= scale * tilt / skew
	}
	if f.free["back"] {
		s.Back.Width *= scale / tilt * skew
		s.Back.Height *= scale / tilt / skew
	}
	return s
}

// locked are the sections of a layout by the wish they follow.
func (f *fitting) locked(l Layout) (front, back int) {
	frames, err := newFrames(f.head, f.settings)
	if err != nil {
		return 0, 0
	}
	follows := map[Zone]string{}
	for _, c := range frames.pairs() {
		p := c.any()
		for _, side := range []Side{LeftSide, RightSide} {
			follows[on(p.key, p.central, side)] = p.wishPath
		}
	}
	for i := range l.Sections {
		if follows[l.Sections[i].Zone] == "front" {
			front++
		} else {
			back++
		}
	}
	return front, back
}

// count is the number of sections laid at a scale; none where the zones have no room
// at it.
func (f *fitting) count(scale float64) int {
	n, _ := f.laid(f.scaled(scale))
	return n
}

// laid is the number of sections that settings lay, and the rows they lie in.
func (f *fitting) laid(s Settings) (int, []zonePair) {
	frames, err := newFrames(f.head, s)
	if err != nil {
		return 0, nil
	}
	rows := layRows(f.ctx, s, frames.pairs())
	n := sectionsOf(rows)
	f.left -= frameWork + n
	return n, rows
}

// sliversOf counts the sections of both sides that are slivers, by the area between their
// part ends.
func sliversOf(rows []zonePair) (n int) {
	for _, c := range rows {
		for _, p := range []*panel{c.left, c.right} {
			if p != nil {
				n += p.slivers()
			}
		}
	}
	return n
}

func (p *panel) slivers() (n int) {
	for r, c := range p.courses {
		band := &p.bands[r]
		for k := range c.Boxes() {
			b := p.box(r, k)
			from, to := (b.LowFrom+b.HighFrom)/2, (b.LowTo+b.HighTo)/2
			wish := p.grown(r, band.ShareAt((from+to)/2))
			area := (band.ShareAt(to) - band.ShareAt(from)) * band.Area() * c.Folds(k)
			if area < craft.SliverShare*wish.Width*wish.Height {
				n++
			}
		}
	}
	return n
}

// near are the settings that lay exactly total sections, or the two nearest.
func (f *fitting) near(total int) ([]Fitted, error) {
	if err := f.findScale(total); err != nil {
		return nil, err
	}
	if total%2 == 0 || !f.mirrored() {
		return f.nearest(total), nil
	}
	// Left and right are mirror images: an odd total lies between two even ones.
	lesser, greater := f.nearest(total-1), f.nearest(total+1)
	return []Fitted{lesser[0], greater[len(greater)-1]}, nil
}

// findScale sets the common scale at which the count passes total.
func (f *fitting) findScale(total int) error {
	least, most := f.scaleRange()
	if total < 1 || total > MaxSections || least > most {
		return f.outOfReach(total, least, most)
	}
	// The count follows the area, and so the square of the scale.
	f.scale = max(least, min(most, math.Sqrt(float64(max(1, f.count(1)))/float64(total))))
	low, more := f.beyond(least, func(n int) bool { return n >= total })
	high, fewer := f.beyond(most, func(n int) bool { return n > 0 && n <= total })
	if more == 0 || fewer == 0 {
		return f.outOfReach(total, least, most)
	}
	for high/low > fitClose && f.left > fitWork/2 && f.ctx.Err() == nil {
		mid := math.Sqrt(low * high)
		n := f.count(mid)
		if n == 0 {
			break // no room at it
		}
		if n >= total {
			low, more = mid, n
		} else {
			high, fewer = mid, n
		}
	}
	f.scale = math.Sqrt(low * high)
	f.more, f.fewer = Fitted{Sections: more, Settings: f.scaled(low)}, Fitted{Sections: fewer, Settings: f.scaled(high)}
	return nil
}

// beyond looks from the common scale towards end, in growing steps, for a count that
// will do, and at which scale; the count is 0 when there is none.
func (f *fitting) beyond(end float64, will func(int) bool) (scale float64, n int) {
	const firstStep = 0.005
	step := math.Copysign(firstStep, end-f.scale)
	for scale = f.scale; f.ctx.Err() == nil; step *= 2 {
		if n = f.count(scale); will(n) {
			return scale, n
		}
		if scale == end {
			break
		}
		if scale *= math.Exp(step); (scale-end)*step >= 0 {
			scale = end
		}
	}
	return scale, 0
}

// outOfReach refuses a total and names the range that scales from low to high make.
func (f *fitting) outOfReach(total int, low, high float64) error {
	const step = 1.1
	// Never more than can be laid: look at the smallest size only so far down.
	for low < 1 && f.ctx.Err() == nil && f.count(low) > MaxSections*19/20 {
		low *= step
	}
	// Nor larger than a structure has room for.
	for f.count(high) == 0 && high > 1 && f.ctx.Err() == nil {
		high = max(1, high/step)
	}
	var bad invalid.Errors
	bad.Add("total", "Between %d and %d sections can be had on this head with these patterns; %d cannot.", f.count(high), min(MaxSections, f.count(low)), total)
	return bad
}

// scaleRange are the least and the greatest common scale that keep the free zones'
// sizes within the limits.
func (f *fitting) scaleRange() (low, high float64) {
	low, high = 0, math.Inf(1)
	for path, wish := range map[string]Wish{"front": f.settings.Front, "back": f.settings.Back} {
		if f.free[path] {
			low = max(low, MinSize/min(wish.Width, wish.Height))
			high = min(high, MaxSize/max(wish.Width, wish.Height))
		}
	}
	return low, high
}

// nearest are the settings with exactly total sections, or the two on either side. It
// looks no further than it must, and no longer than its work lasts: an exact total with no
// more slivers than sections of that size have by themselves, else that with the fewest.
func (f *fitting) nearest(total int) []Fitted {
	_, free := f.laid(f.scaled(f.scale))
	usual, least := sliversOf(free), math.MaxInt
	var exact Fitted
	met := func(x Fitted, rows []zonePair) (clean bool) {
		if slivers := sliversOf(rows); slivers < least {
			exact, least = x, slivers
		}
		return least <= usual
	}
	for _, x := range []Fitted{f.more, f.fewer} {
		if n, rows := f.laid(x.Settings); n == total && met(x, rows) {
			return []Fitted{exact}
		}
	}
	more := fitCleaner
	for _, at := range triedNear {
		if f.left <= 0 || f.ctx.Err() != nil || more == 0 {
			break
		}
		if at.tilt != 0 && !(f.free["front"] && f.free["back"]) {
			continue
		}
		s := f.shaped(f.scale*math.Pow(fitStep, float64(at.step)), math.Pow(fitSkew, float64(at.skew)), math.Pow(fitTilt, float64(at.tilt)))
		if s.Check() != nil { // a size out of range
			continue
		}
		n, rows := f.laid(s)
		x := Fitted{Sections: n, Settings: s}
		switch {
		case n == total:
			if met(x, rows) {
				return []Fitted{exact}
			}
			more--
		case n == 0:
		case n < total && n > f.fewer.Sections:
			f.fewer = x
		case n > total && n < f.more.Sections:
			f.more = x
		}
	}
	if least < math.MaxInt {
		return []Fitted{exact}
	}
	return []Fitted{f.fewer, f.more}
}

// tried is how many steps off the common size a fit looks.
type tried struct{ step, skew, tilt int }

// triedNear are the steps of scale and shape a fit tries, those least off first, and last
// those that part front and back.
var triedNear = func() []tried {
	var all []tried
	for tilt := -fitTilts; tilt <= fitTilts; tilt++ {
		for skew := -fitSkews; skew <= fitSkews; skew++ {
			for step := -fitSteps; step <= fitSteps; step++ {
				all = append(all, tried{step, skew, tilt})
			}
		}
	}
	off := func(t tried) int { return t.step*t.step + 5*t.skew*t.skew + 400*t.tilt*t.tilt }
	slices.SortStableFunc(all, func(a, b tried) int { return cmp.Compare(off(a), off(b)) })
	return all
}()

// mirrored tells whether every zone has its mirror image, so that the count is even.
func (f *fitting) mirrored() bool {
	frames, err := newFrames(f.head, f.settings)
	if err != nil {
		return false
	}
	for _, c := range frames.pairs() {
		if c.left != c.right || c.left.central {
			return false
		}
	}
	return true
}
