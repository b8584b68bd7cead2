package parting

import (
	"cmp"
	"context"
	"fmt"
	"maps"
	"math"
	"slices"

	"kladotex/core/invalid"
	"kladotex/core/scalp"
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
}

// How far a zone's width and height may depart from the common scale while a count
// is looked for, as shares, and the steps each way.
const (
	fitWidthReach  = 0.15
	fitWidthSteps  = 24
	fitHeightReach = 0.2
	fitHeightSteps = 10
	// fitClose is how close, as a ratio, the common scale is found.
	fitClose = 1.0002
	// fitWork bounds a search, in the units of [panel.work]: about a quarter of a second of
	// processor time, beside what it takes to find the common scale.
	fitWork = 250_000
	// frameWork is what setting out the zones takes, before any row.
	frameWork = 1500
)

// FitCount finds section sizes near those of s, patterns and ramps kept, for which
// head h has exactly total sections: the common scale at which the count passes
// total, then small departures from it, row heights and widths of front and back for
// themselves, the least first. Spots left out and changes by hand count. It returns one
// result when it is met, else the two nearest, the lesser first; an odd total is never
// met where left and right mirror each other.
//
// The error, if any, is an [invalid.Errors]: of the settings, with paths under
// "parting", or of "total" when no size in the accepted range comes near; or that of
// ctx when it ends first.
func FitCount(ctx context.Context, h scalp.Head, s Settings, wish Count) ([]Fitted, error) {
	now, err := Lay(ctx, h, s)
	if err != nil {
		return nil, invalid.Under(err, "parting")
	}
	// What laying the whole head costs, beyond its courses.
	const eachSection, eachEdit = 20, 150
	whole := eachSection*len(now.Sections) + eachEdit*len(s.Edits)
	f := fitting{
		ctx: ctx, head: h, settings: s, left: fitWork,
		free:    map[string]bool{"front": wish.Keep != KeepFront, "back": wish.Keep != KeepBack},
		options: map[string]map[int]option{"front": {}, "back": {}},
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
	return met, nil
}

// fitting looks for counts near a common scale of the free zones.
type fitting struct {
	ctx      context.Context
	head     scalp.Head
	settings Settings
	free     map[string]bool // by wish
	// left is the work that may still be done.
	left int
	// scale is the common one, and options what was found near it, by wish and by
	// sections; tried counts the departures looked at.
	scale   float64
	options map[string]map[int]option
	tried   int
	// fewer and more are counts on either side of the total, at other scales.
	fewer, more Fitted
	// rows are the zones of a wish with their row lines, by their height's step.
	rows map[rowsKey][]zonePair
}

// rowsKey names rows of one height.
type rowsKey struct {
	path string
	step int
}

// scaled are the settings with the free zones' sizes scaled.
func (f *fitting) scaled(scale float64) Settings {
	s := f.settings
	for path, wish := range map[string]*Wish{"front": &s.Front, "back": &s.Back} {
		if f.free[path] {
			wish.Width *= scale
			wish.Height *= scale
		}
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
func (f *fitting) count(scale float64) int { return f.laid(f.scaled(scale)) }

// rough is about count, for a small part of the work: sections of a brick follow the
// row's length within a few.
func (f *fitting) rough(scale float64) int {
	s := f.scaled(scale)
	for _, wish := range []*Wish{&s.Front, &s.Back} {
		if wish.Pattern.staggers() {
			wish.Pattern = Triangle
		}
	}
	return f.laid(s)
}

func (f *fitting) laid(s Settings) int {
	frames, err := newFrames(f.head, s)
	if err != nil {
		return 0
	}
	f.left -= frameWork
	rows := layRows(f.ctx, frames.pairs())
	eachPanel(rows, func(p *panel) { f.left -= p.work() })
	return sectionsOf(rows)
}

// work is about the microseconds that laying a panel's courses took: most in a brick
// whose rows cross the middle, where many bonds are tried.
func (p *panel) work() int {
	const plain, bordered, crossing = 1, 5, 30
	each := plain
	if p.wish.Pattern.staggers() {
		each = bordered
		if p.free[0] || p.free[1] {
			each = crossing
		}
	}
	return each*p.boxes() + 10*len(p.courses)
}

// near are the settings that lay exactly total sections, or the two nearest.
func (f *fitting) near(total int) ([]Fitted, error) {
	if f.scale == 0 || f.fewer.Sections > total || f.more.Sections < total {
		if err := f.findScale(total); err != nil {
			return nil, err
		}
	}
	if total%2 == 0 || !f.mirrored() {
		return f.nearest(total), nil
	}
	// Left and right are mirror images: an odd total lies between two even ones.
	lesser, greater := f.nearest(total-1), f.nearest(total+1)
	return []Fitted{lesser[0], greater[len(greater)-1]}, nil
}

// findScale sets the common scale at which the count passes total: rough counts find
// it, counts proper put it right. What lies on either side is kept.
func (f *fitting) findScale(total int) error {
	least, most := f.scaleRange()
	if total < 1 || total > MaxSections || least > most {
		return f.outOfReach(total, least, most)
	}
	f.scale = f.passing(total, least, most)
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
	f.tried, f.rows = 0, map[rowsKey][]zonePair{}
	return nil
}

// passing is the scale between two at which the rough count passes total.
func (f *fitting) passing(total int, low, high float64) float64 {
	for high/low > fitClose && f.ctx.Err() == nil { // fewer sections at larger scales
		if mid := math.Sqrt(low * high); f.rough(mid) >= total {
			low = mid
		} else {
			high = mid
		}
	}
	return math.Sqrt(low * high)
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
	for f.rough(low) > MaxSections*19/20 && low < 1 && f.ctx.Err() == nil {
		low *= step
	}
	// Nor larger than a structure has room for.
	for f.count(high) == 0 && high > 1 && f.ctx.Err() == nil {
		high = max(1, high/step)
	}
	var bad invalid.Errors
	bad.Add("total", "Between %d and %d sections can be had on this head with these patterns; %d can not.", f.count(high), min(MaxSections, f.count(low)), total)
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

// option is a way to part the zones of a wish, and how far it departs from what was
// looked for.
type option struct {
	size Size
	departure
}

// departure is how far width and height stray from the common scale, as shares, in
// steps.
type departure struct{ width, height int }

// size is how far that is, by which departures are compared: width and height for
// themselves, and against each other, so that sections keep their shape.
func (d departure) size() float64 {
	w, h := d.shares()
	return w*w + h*h + (w-h)*(w-h)
}

func (d departure) shares() (width, height float64) {
	return fitWidthReach * float64(d.width) / fitWidthSteps, fitHeightReach * float64(d.height) / fitHeightSteps
}

// departures are all that a fit looks at, the least first.
var departures = func() []departure {
	var all []departure
	for height := -fitHeightSteps; height <= fitHeightSteps; height++ {
		for width := -fitWidthSteps; width <= fitWidthSteps; width++ {
			all = append(all, departure{width, height})
		}
	}
	slices.SortStableFunc(all, func(a, b departure) int { return cmp.Compare(a.size(), b.size()) })
	return all
}()

// nearest are the settings with exactly total sections, or the two on either side. It
// looks no further than it must, and no longer than its work lasts.
func (f *fitting) nearest(total int) []Fitted {
	for _, path := range []string{"front", "back"} {
		if !f.free[path] && len(f.options[path]) == 0 {
			f.addOption(path, departure{})
		}
	}
	for ; !f.has(total) && f.tried < len(departures) && f.left > 0 && f.ctx.Err() == nil; f.tried++ {
		for _, path := range []string{"front", "back"} {
			if f.free[path] {
				f.addOption(path, departures[f.tried])
			}
		}
	}
	found := f.pairs()
	if x, ok := found[total]; ok {
		return []Fitted{x}
	}
	for _, x := range []Fitted{f.fewer, f.more} {
		if _, ok := found[x.Sections]; !ok {
			found[x.Sections] = x
		}
	}
	if x, ok := found[total]; ok {
		return []Fitted{x}
	}
	counts := slices.Sorted(maps.Keys(found))
	at, _ := slices.BinarySearch(counts, total)
	var out []Fitted
	for _, k := range []int{at - 1, at} {
		if k >= 0 && k < len(counts) {
			out = append(out, found[counts[k]])
		}
	}
	return out
}

// has tells whether the options make a total.
func (f *fitting) has(total int) bool {
	for n := range f.options["back"] {
		if _, ok := f.options["front"][total-n]; ok {
			return true
		}
	}
	return false
}

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

// pairs are the totals that the zones' options make together, each with the
// settings that depart least.
func (f *fitting) pairs() map[int]Fitted {
	out := map[int]Fitted{}
	departures := map[int]float64{}
	for _, nb := range slices.Sorted(maps.Keys(f.options["back"])) {
		for _, nf := range slices.Sorted(maps.Keys(f.options["front"])) {
			n, back, front := nb+nf, f.options["back"][nb], f.options["front"][nf]
			departure := back.departure.size() + front.departure.size()
			if old, ok := departures[n]; ok && old <= departure {
				continue
			}
			departures[n] = departure
			s := f.settings
			s.Back.Size, s.Front.Size = back.size, front.size
			out[n] = Fitted{Sections: n, Settings: s}
		}
	}
	return out
}

// addOption adds the count that a departure from the common scale makes of a wish.
func (f *fitting) addOption(path string, d departure) {
	s := f.settings
	if f.free[path] {
		s = f.scaled(f.scale)
	}
	wish := &s.Front
	if path == "back" {
		wish = &s.Back
	}
	width, height := d.shares()
	size := Size{wish.Width * math.Exp(width), wish.Height * math.Exp(height)}
	if min(size.Width, size.Height) < MinSize || max(size.Width, size.Height) > MaxSize {
		return
	}
	wish.Height = size.Height
	key := rowsKey{path, d.height}
	pairs, ok := f.rows[key]
	if !ok {
		if frames, err := newFrames(f.head, s); err == nil {
			pairs = []zonePair{}
			for _, c := range frames.pairs() {
				if c.any().wishPath == path {
					pairs = append(pairs, c)
				}
			}
			pairs = mapPanels(pairs, panel.withRows)
		}
		f.rows[key] = pairs
		f.left -= frameWork
	}
	if pairs == nil {
		return // no room for rows of this height
	}
	laid := mapPanels(pairs, func(p panel) panel {
		p.wish.Width = size.Width
		p = p.withCourses(f.ctx)
		f.left -= p.work()
		return p
	})
	if n := sectionsOf(laid); f.ctx.Err() == nil {
		if old, ok := f.options[path][n]; !ok || d.size() < old.departure.size() {
			f.options[path][n] = option{size, d}
		}
	}
}
