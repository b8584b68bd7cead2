package parting

import (
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
)

// FitCount finds section sizes near those of s, patterns and ramps kept, for which
// head h has exactly total sections: the common scale at which the count passes
// total, then small departures from it, row heights and widths of front and back for
// themselves. Spots left out and changes by hand count. It returns one result when it
// is met, else the two nearest, the lesser first; an odd total is never met where
// left and right mirror each other.
//
// The error, if any, is an [invalid.Errors]: of the settings, with paths under
// "parting", or of "total" when no size in the accepted range comes near.
func FitCount(h scalp.Head, s Settings, wish Count) ([]Fitted, error) {
	now, err := Lay(h, s)
	if err != nil {
		return nil, invalid.From(err).Under("parting").Err()
	}
	f := fitting{head: h, settings: s, free: map[string]bool{"front": wish.Keep != KeepFront, "back": wish.Keep != KeepBack}}
	total := wish.Total
	if wish.Alone {
		front, back := f.held(now)
		total += map[Keep]int{KeepFront: front, KeepBack: back}[wish.Keep]
	}
	// Left out and changed by hand, the head holds fewer or more than are laid.
	byHand := len(now.Sections) - f.count(1)
	var met []Fitted
	for range 4 {
		found, err := f.near(total - byHand)
		if err != nil {
			return nil, err
		}
		met = met[:0]
		for _, x := range found {
			l, err := Lay(h, x.Settings)
			if err != nil {
				continue
			}
			byHand = len(l.Sections) - x.Sections
			x.Sections = len(l.Sections)
			x.Front, x.Back = f.held(l)
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
	head     scalp.Head
	settings Settings
	free     map[string]bool // by wish
	scale    float64
}

// scaled are the settings with the free zones' sizes scaled.
func (f fitting) scaled(scale float64) Settings {
	s := f.settings
	for path, wish := range map[string]*Wish{"front": &s.Front, "back": &s.Back} {
		if f.free[path] {
			wish.Width *= scale
			wish.Height *= scale
		}
	}
	return s
}

// held are the sections of a layout by the wish they follow.
func (f fitting) held(l Layout) (front, back int) {
	frames, err := newFrames(f.head, f.settings)
	if err != nil {
		return 0, 0
	}
	follows := map[Zone]string{}
	for _, c := range frames.couples() {
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
func (f fitting) count(scale float64) int {
	frames, err := newFrames(f.head, f.scaled(scale))
	if err != nil {
		return 0
	}
	couples := frames.couples()
	eachPanel(couples, (*panel).layRows)
	return sectionsOf(couples)
}

// near are the settings that lay exactly total sections, or the two nearest.
func (f fitting) near(total int) ([]Fitted, error) {
	least, most := f.scaleRange()
	low, high := f.around(total, least, most)
	if total > MaxSections || f.count(low) < total || f.count(high) > total {
		return nil, f.outOfReach(total, least, most)
	}
	for high/low > fitClose { // fewer sections at larger scales
		if mid := math.Sqrt(low * high); f.count(mid) >= total {
			low = mid
		} else {
			high = mid
		}
	}
	f.scale = math.Sqrt(low * high)
	if total%2 == 0 || !f.mirrored() {
		return f.nearest(total), nil
	}
	// Left and right are mirror images: an odd total lies between two even ones.
	lesser, greater := f.nearest(total-1), f.nearest(total+1)
	return []Fitted{lesser[0], greater[len(greater)-1]}, nil
}

// outOfReach refuses a total and names the range that scales from low to high make.
func (f fitting) outOfReach(total int, low, high float64) error {
	// Never more than can be laid: look at the smallest size only so far down.
	for f.count(low) > MaxSections && low < 1 {
		low *= 1.1
	}
	// Nor larger than a structure has room for.
	for f.count(high) == 0 && high > 1 {
		high = max(1, high/1.1)
	}
	var bad invalid.Errors
	bad.Add("total", "Between %d and %d sections can be had on this head with these patterns; %d can not.", f.count(high), f.count(low), total)
	return bad
}

// around narrows the range of scales in which the count passes total, from where areas
// alone would put it.
func (f fitting) around(total int, low, high float64) (float64, float64) {
	const step = 1.1
	guess := max(low, min(high, math.Sqrt(float64(max(1, f.count(1)))/float64(max(1, total)))))
	lower, upper := guess, guess
	for lower > low && f.count(lower) < total {
		lower = max(low, lower/step)
	}
	for upper < high && f.count(upper) >= total {
		upper = min(high, upper*step)
	}
	return lower, upper
}

// scaleRange are the least and the greatest common scale that keep the free zones'
// sizes within the limits.
func (f fitting) scaleRange() (low, high float64) {
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
	size      Size
	departure float64
}

// nearest are the settings with exactly total sections, or the two on either side.
// Row heights depart step by step, so that the first answer is a near one.
func (f fitting) nearest(total int) []Fitted {
	options := map[string]map[int]option{"front": {}, "back": {}} // by sections
	for _, path := range []string{"front", "back"} {
		if !f.free[path] {
			f.addOptions(options[path], path, 0, 0)
		}
	}
	for step := range fitHeightSteps + 1 {
		height := fitHeightReach * float64(step) / fitHeightSteps
		for _, path := range []string{"front", "back"} {
			if f.free[path] {
				f.addOptions(options[path], path, height, fitWidthSteps)
				if step > 0 {
					f.addOptions(options[path], path, -height, fitWidthSteps)
				}
			}
		}
		found := f.pairs(options)
		if x, ok := found[total]; ok {
			return []Fitted{x}
		}
	}
	found := f.pairs(options)
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

// mirrored tells whether every zone has its mirror image, so that the count is even.
func (f fitting) mirrored() bool {
	frames, err := newFrames(f.head, f.settings)
	if err != nil {
		return false
	}
	for _, c := range frames.couples() {
		if c.left != c.right || c.left.central {
			return false
		}
	}
	return true
}

// pairs are the totals that the zones' options make together, each with the
// settings that depart least.
func (f fitting) pairs(options map[string]map[int]option) map[int]Fitted {
	out := map[int]Fitted{}
	departures := map[int]float64{}
	for _, nb := range slices.Sorted(maps.Keys(options["back"])) {
		for _, nf := range slices.Sorted(maps.Keys(options["front"])) {
			n, back, front := nb+nf, options["back"][nb], options["front"][nf]
			departure := back.departure + front.departure
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

// addOptions adds the counts that widths near the scale make of a wish, rows being
// higher than the scale by the share height, in so many steps of width either way.
func (f fitting) addOptions(out map[int]option, path string, height float64, steps int) {
	s := f.scaled(max(f.scale, 1e-9))
	if !f.free[path] {
		s = f.settings
	}
	wish := &s.Front
	if path == "back" {
		wish = &s.Back
	}
	wish.Height *= math.Exp(height)
	whole := wish.Width
	if wish.Height < MinSize || wish.Height > MaxSize {
		return
	}
	frames, err := newFrames(f.head, s)
	if err != nil {
		return
	}
	var couples []couple
	for _, c := range frames.couples() {
		if c.any().wishPath == path {
			couples = append(couples, c)
		}
	}
	eachPanel(couples, (*panel).layRows)
	for c := -steps; c <= steps; c++ {
		width := 0.0
		if steps > 0 {
			width = fitWidthReach * float64(c) / float64(steps)
		}
		size := Size{whole * math.Exp(width), wish.Height}
		if size.Width < MinSize || size.Width > MaxSize {
			continue
		}
		eachPanel(couples, func(p *panel) {
			p.wish.Width = size.Width
			p.layCourses()
		})
		n := sectionsOf(couples)
		departure := width*width + height*height + (width-height)*(width-height)
		if old, ok := out[n]; !ok || departure < old.departure {
			out[n] = option{size, departure}
		}
	}
}
