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

// Fitted are settings with the number of sections they make.
type Fitted struct {
	Sections int      `json:"sections"`
	Settings Settings `json:"parting"`
}

// How far a zone's width and height may depart from the common scale while a count
// is looked for, as shares, and the steps each way.
const (
	fitWidthReach  = 0.15
	fitWidthSteps  = 24
	fitHeightReach = 0.2
	fitHeightSteps = 10
	fitBisection   = 40
)

// FitCount finds section sizes near those of s, patterns and ramps kept, for which
// head h has exactly total sections: the common scale at which the count passes
// total, then small departures from it, row heights and widths of each zone for
// themselves. It returns one result when it is met. When it can not be met it
// returns the two nearest, the lesser first; an odd total never is, because left
// and right mirror each other.
//
// The error, if any, is an [invalid.Errors]: of the settings, with paths under
// "parting", or of "total" when no size in the accepted range comes near.
func FitCount(h scalp.Head, s Settings, total int, keep Keep) ([]Fitted, error) {
	if err := s.Check(); err != nil {
		return nil, invalid.From(err).Under("parting").Err()
	}
	plans, _ := quadrants(h, s)
	free := make([]bool, len(plans)) // in the order of plans: back, front
	for i, p := range plans {
		free[i] = keep == KeepNone || keep == KeepFront && p.zone == BackLeft || keep == KeepBack && p.zone == FrontLeft
	}
	count := func(scale float64) int {
		n := 0
		for i, p := range plans {
			if free[i] {
				n += 2 * p.scaled(scale, scale).count()
			} else {
				n += 2 * p.scaled(1, 1).count()
			}
		}
		return n
	}
	low, high := scaleRange(plans, free)
	// Never more than can be laid: look at the smallest size only so far down.
	for count(low) > MaxSections && low < 1 {
		low *= 1.1
	}
	most, least := count(low), count(high)
	if total > most || total < least {
		var bad invalid.Errors
		bad.Add("total", "Between %d and %d sections can be had on this head with these patterns; %d can not.", least, most, total)
		return nil, bad
	}
	lay := fitting{plans: plans, free: free, settings: s}
	for range fitBisection { // fewer sections at larger scales
		if mid := math.Sqrt(low * high); count(mid) >= total {
			low = mid
		} else {
			high = mid
		}
	}
	lay.scale = math.Sqrt(low * high)
	if total%2 == 0 {
		return lay.nearest(total), nil
	}
	// Left and right are mirror images: an odd total lies between two even ones.
	lesser, greater := lay.nearest(total-1), lay.nearest(total+1)
	return []Fitted{lesser[0], greater[len(greater)-1]}, nil
}

// scaleRange are the least and the greatest common scale that keep the free zones'
// sizes, with some room for departures, within the limits.
func scaleRange(plans []*plan, free []bool) (low, high float64) {
	low, high = 0, math.Inf(1)
	for i, p := range plans {
		if !free[i] {
			continue
		}
		low = max(low, MinSize/min(p.wish.Width, p.wish.Height))
		high = min(high, MaxSize/max(p.wish.Width, p.wish.Height))
	}
	return low, high
}

// scaled is the zone with its width and height scaled, its rows laid.
func (p *plan) scaled(width, height float64) *plan {
	q := &plan{zone: p.zone, patch: p.patch, wish: p.wish}
	q.wish.Width *= width
	q.wish.Height *= height
	q.layRows()
	return q
}

// fitting looks for counts near a common scale of the zones.
type fitting struct {
	settings Settings
	plans    []*plan // back, front
	free     []bool  // which of them may change
	scale    float64
}

// option is a way to part a zone, and how far it departs from what was looked for.
type option struct {
	size      Size
	departure float64
}

// nearest are the settings with exactly total sections, or the two on either side.
// Row heights depart step by step, so that the first answer is a near one.
func (f fitting) nearest(total int) []Fitted {
	options := make([]map[int]option, len(f.plans)) // by sections on one side
	for i, p := range f.plans {
		options[i] = map[int]option{}
		if !f.free[i] {
			options[i][p.scaled(1, 1).count()] = option{p.wish.Size, 0}
		}
	}
	for step := range fitHeightSteps + 1 {
		height := fitHeightReach * float64(step) / fitHeightSteps
		for i, p := range f.plans {
			if f.free[i] {
				p.addOptions(options[i], f.scale, height)
				if step > 0 {
					p.addOptions(options[i], f.scale, -height)
				}
			}
		}
		if found, ok := f.pairs(options)[total]; ok {
			return []Fitted{found}
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

// pairs are the totals that the zones' options make together, each with the
// settings that depart least.
func (f fitting) pairs(options []map[int]option) map[int]Fitted {
	out := map[int]Fitted{}
	departures := map[int]float64{}
	for _, nb := range slices.Sorted(maps.Keys(options[0])) {
		for _, nf := range slices.Sorted(maps.Keys(options[1])) {
			n, back, front := 2*(nb+nf), options[0][nb], options[1][nf]
			departure := back.departure + front.departure
			if old, ok := departures[n]; ok && old <= departure {
				continue
			}
			departures[n] = departure
			s := f.settings
			s.Back.Size, s.Front.Size = back.size, front.size
			out[n] = Fitted{n, s}
		}
	}
	return out
}

// addOptions adds the counts of one side of a zone that widths near the scale make,
// rows being higher than the scale by the share height.
func (p *plan) addOptions(out map[int]option, scale, height float64) {
	rows := p.scaled(scale, scale*math.Exp(height)) // row lines hang on the height alone
	for c := -fitWidthSteps; c <= fitWidthSteps; c++ {
		width := fitWidthReach * float64(c) / fitWidthSteps
		size := Size{p.wish.Width * scale * math.Exp(width), rows.wish.Height}
		if min(size.Width, size.Height) < MinSize || max(size.Width, size.Height) > MaxSize {
			continue
		}
		rows.wish.Width = size.Width
		rows.layCourses()
		departure := width*width + height*height + (width-height)*(width-height)
		if old, ok := out[rows.count()]; !ok || departure < old.departure {
			out[rows.count()] = option{size, departure}
		}
	}
}
