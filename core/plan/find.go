package plan

import (
	"math"
	"slices"

	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/scalp"
)

// near is how far from a line, in roots of its area, the middle of a section that lies
// along it may be.
const near = 0.75

// leastReach is how far from a place picked a hook is still meant, mm.
const leastReach = 8.0

// finder tells which places a use is about.
type finder struct {
	head   scalp.Head
	layout *parting.Layout
	places []Place
	// reach is how far a hook on the base lies from the next, mm.
	reach float64
	// behindEars is the x behind which the hairline is the nape's, mm.
	behindEars float64
}

// newFinder looks among the places of a laid head.
func newFinder(h scalp.Head, l *parting.Layout, places []Place) *finder {
	return &finder{
		head: h, layout: l, places: places, reach: l.Spacing,
		behindEars: h.Point(h.Landmark(scalp.BehindEar))[0],
	}
}

// meant tells of every kind of where whether a place is meant. Places picked on the head are
// found by [finder.picked], the nearest of all.
var meant = map[WhereKind]func(f *finder, w Where, p *Place) bool{
	Everywhere: func(*finder, Where, *Place) bool { return true },
	InFront:    func(_ *finder, _ Where, p *Place) bool { return p.Front },
	InBack:     func(_ *finder, _ Where, p *Place) bool { return !p.Front },
	OnBase:     func(_ *finder, _ Where, p *Place) bool { return p.Ground != method.OnPlait && p.Ground != method.OnEnd },
	AtEnds:     func(_ *finder, _ Where, p *Place) bool { return p.Ground == method.OnEnd },
	AtHairline: func(f *finder, _ Where, p *Place) bool { return f.atHairline(p) },
	AtNape:     func(f *finder, _ Where, p *Place) bool { return p.At[0] < f.behindEars && f.atHairline(p) },
	AlongPart:  func(f *finder, _ Where, p *Place) bool { return f.alongPart(p) },
	InZones:    func(_ *finder, w Where, p *Place) bool { return slices.Contains(w.Zones, p.Zone) },
	InRows: func(f *finder, w Where, p *Place) bool {
		return p.Section >= 0 && slices.Contains(w.Rows, RowName{p.Zone, f.layout.Sections[p.Section].Row})
	},
}

// match are the indices of the places a use is about.
func (f *finder) match(w Where) []int {
	if w.Kind == AtPlaces {
		return f.picked(w.Places)
	}
	meant, ok := meant[w.Kind]
	if !ok {
		return nil
	}
	var out []int
	for i := range f.places {
		if meant(f, w, &f.places[i]) {
			out = append(out, i)
		}
	}
	return out
}

func (f *finder) atHairline(p *Place) bool {
	if p.Section >= 0 {
		s := &f.layout.Sections[p.Section]
		return s.Hairline <= near*math.Sqrt(s.Area)
	}
	return f.layout.HairlineCurve.From(p.At) <= f.reach
}

func (f *finder) alongPart(p *Place) bool {
	if len(f.layout.PartLine) == 0 {
		return false
	}
	if p.Section >= 0 {
		s := &f.layout.Sections[p.Section]
		return s.Part <= near*math.Sqrt(s.Area)
	}
	return f.layout.PartLine.From(p.At) <= f.reach
}

// apart is how far apart pieces are hooked at a point of the base, in shares of the usual
// distance, by the last of the rules that says so; nil where none does.
func (f *finder) apart(uses []Use) func(parting.Zone, scalp.Point) float64 {
	if !slices.ContainsFunc(uses, func(u Use) bool { return u.Apart > 0 }) {
		return nil
	}
	front := inFront(f.head, f.layout)
	return func(zone parting.Zone, at scalp.Point) float64 {
		p := Place{Zone: zone, Ground: method.OnCornrow, At: at, Front: front(at), Section: -1}
		share := 1.0
		for _, u := range uses {
			if u.Apart > 0 && meant[u.Where.Kind](f, u.Where, &p) {
				share = u.Apart
			}
		}
		return share
	}
}

// picked are the places at directions: the section each lies in, else the nearest hook
// within reach.
func (f *finder) picked(at []parting.Direction) []int {
	bySection := map[int]int{}
	for i := range f.places {
		if f.places[i].Section >= 0 {
			bySection[f.places[i].Section] = i
		}
	}
	var out []int
	for _, d := range at {
		if s := f.layout.At(f.head, d); s >= 0 {
			out = append(out, bySection[s])
			continue
		}
		point := d.On(f.head)
		best, least := -1, max(leastReach, 0.6*f.reach)
		for i := range f.places {
			if p := &f.places[i]; p.Section < 0 {
				if mm := scalp.Apart(point, p.At); mm < least {
					best, least = i, mm
				}
			}
		}
		if best >= 0 {
			out = append(out, best)
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// outer is, for every place, the outer row it belongs to: 1 for plaits at the hairline, 2 for those
// beside them, 0 for all others and for what is hooked on a base.
func outer(f *finder, l *parting.Layout, places []Place) []int {
	row := make([]int, len(places))
	ring := map[string]bool{}
	for i := range places {
		if p := &places[i]; p.Ground == method.OnPlait && p.Section >= 0 && f.atHairline(p) {
			row[i] = 1
			ring[p.ID] = true
		}
	}
	for i := range places {
		p := &places[i]
		if row[i] == 0 && p.Ground == method.OnPlait && p.Section >= 0 &&
			slices.ContainsFunc(l.Sections[p.Section].Neighbours, func(id string) bool { return ring[id] }) {
			row[i] = 2
		}
	}
	return row
}
