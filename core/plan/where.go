package plan

import (
	"fmt"
	"math"
	"slices"

	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/scalp"
)

// WhereKind says how a use finds its places.
type WhereKind string

// The kinds.
const (
	Everywhere WhereKind = "everywhere"
	InFront    WhereKind = "front"
	InBack     WhereKind = "back"
	// OnBase is wherever no plait hangs loose: tracks, nets, linked plaits.
	OnBase WhereKind = "base"
	// AtHairline is the row along the hairline all round, AtNape its part behind the
	// ears, AlongPart those beside the part line.
	AtHairline WhereKind = "hairline"
	AtNape     WhereKind = "nape"
	AlongPart  WhereKind = "part"
	InZones    WhereKind = "zones"
	InRows     WhereKind = "rows"
	// AtPlaces are those picked on the head.
	AtPlaces WhereKind = "places"
)

// Where says which places a use is about, in terms that survive other sizes.
type Where struct {
	Kind  WhereKind      `json:"kind" enum:"everywhere,front,back,base,hairline,nape,part,zones,rows,places"`
	Zones []parting.Zone `json:"zones,omitempty" maxItems:"30" doc:"Of zones: their names"`
	Rows  []RowName      `json:"rows,omitempty" maxItems:"100" doc:"Of rows"`
	// Places are directions as changes by hand have them.
	Places []parting.Direction `json:"places,omitempty" maxItems:"400" doc:"Of places: unit vectors in the head's axes"`
}

// RowName is a row of a zone.
type RowName struct {
	Zone parting.Zone `json:"zone"`
	Row  int          `json:"row" minimum:"1"`
}

// check refuses a kind that is none, and lists that are missing or belong to another.
func (w Where) check(bad *invalid.Errors, path string) {
	rules := []struct {
		kind WhereKind
		path string
		n    int
		most int
	}{
		{InZones, "zones", len(w.Zones), 30}, {InRows, "rows", len(w.Rows), 100}, {AtPlaces, "places", len(w.Places), maxPlaces},
	}
	for _, r := range rules {
		switch {
		case w.Kind == r.kind:
			bad.Count(path+r.path, "The number of "+r.path, r.n, 1, r.most)
		case r.n > 0:
			bad.Add(path+r.path, "Only a rule for %s names %s.", r.path, r.path)
		}
	}
	for i, d := range w.Places {
		d.Check(bad, invalid.At(path+"places", i))
	}
	allowed := make([]WhereKind, len(wheres))
	for i, rule := range wheres {
		allowed[i] = rule.kind
	}
	invalid.OneOf(bad, path+"kind", "Where a rule holds", w.Kind, allowed)
}

// whereRule is a kind of where: its name as people speak of it, which may name what w
// lists, and whether a place is meant.
type whereRule struct {
	kind WhereKind
	name func(w Where) string
	test func(f *finder, w Where, p *Place) bool
}

// wheres are the kinds, in the order they are offered.
var wheres = []whereRule{
	{Everywhere, says("everywhere"), func(*finder, Where, *Place) bool { return true }},
	{InFront, says("in front"), func(_ *finder, _ Where, p *Place) bool { return p.Front }},
	{InBack, says("behind"), func(_ *finder, _ Where, p *Place) bool { return !p.Front }},
	{OnBase, says("on the base"), func(_ *finder, _ Where, p *Place) bool { return p.Ground != method.OnPlait }},
	{AtHairline, says("along the hairline"), func(f *finder, _ Where, p *Place) bool { return f.atHairline(p) }},
	{AtNape, says("at the nape"), func(f *finder, _ Where, p *Place) bool { return p.At[0] < f.behindEars && f.atHairline(p) }},
	{AlongPart, says("along the part"), func(f *finder, _ Where, p *Place) bool { return f.alongPart(p) }},
	{InZones, Where.zoneNames, func(_ *finder, w Where, p *Place) bool { return slices.Contains(w.Zones, p.Zone) }},
	{InRows, Where.rowNames, func(f *finder, w Where, p *Place) bool {
		return p.Section >= 0 && slices.Contains(w.Rows, RowName{p.Zone, f.layout.Sections[p.Section].Row})
	}},
	{AtPlaces, Where.placeNames, nil}, // found by [finder.picked], the nearest of all
}

func says(name string) func(Where) string { return func(Where) string { return name } }

// rule is that of a kind; false where there is none of that name.
func (w Where) rule() (whereRule, bool) {
	i := slices.IndexFunc(wheres, func(r whereRule) bool { return r.kind == w.Kind })
	if i < 0 {
		return whereRule{}, false
	}
	return wheres[i], true
}

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
func newFinder(in Input, h scalp.Head, l *parting.Layout, places []Place) *finder {
	return &finder{
		head: h, layout: l, places: places, reach: in.HookSpacing(),
		behindEars: h.Point(h.Landmark(scalp.BehindEar))[0],
	}
}

// match are the indices of the places a use is about.
func (f *finder) match(w Where) []int {
	if w.Kind == AtPlaces {
		return f.picked(w.Places)
	}
	rule, ok := w.rule()
	if !ok {
		return nil
	}
	var out []int
	for i := range f.places {
		if rule.test(f, w, &f.places[i]) {
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
	return toLine(p.At, f.layout.HairlineCurve) <= f.reach
}

func (f *finder) alongPart(p *Place) bool {
	if len(f.layout.PartLine) == 0 {
		return false
	}
	if p.Section >= 0 {
		s := &f.layout.Sections[p.Section]
		return s.Part <= near*math.Sqrt(s.Area)
	}
	return toLine(p.At, f.layout.PartLine) <= f.reach
}

// toLine is the distance to the nearest point of a line, mm, straight.
func toLine(p scalp.Point, line scalp.Line) float64 {
	least := math.Inf(1)
	for _, q := range line {
		least = min(least, apart(p, q))
	}
	return least
}

func apart(p, q scalp.Point) float64 {
	return math.Sqrt((p[0]-q[0])*(p[0]-q[0]) + (p[1]-q[1])*(p[1]-q[1]) + (p[2]-q[2])*(p[2]-q[2]))
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
				if mm := apart(point, p.At); mm < least {
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

// Name is where, as people speak of it.
func (w Where) Name() string {
	if rule, ok := w.rule(); ok {
		return rule.name(w)
	}
	return string(w.Kind)
}

func (w Where) zoneNames() string {
	names := make([]string, len(w.Zones))
	for i, z := range w.Zones {
		names[i] = z.Name()
	}
	return list(names)
}

func (w Where) rowNames() string {
	names := make([]string, len(w.Rows))
	for i, r := range w.Rows {
		names[i] = fmt.Sprintf("%s row %d", r.Zone.Name(), r.Row)
	}
	return list(names)
}

func (w Where) placeNames() string {
	if len(w.Places) == 1 {
		return "at 1 place picked " + placeName(w.Places[0])
	}
	return fmt.Sprintf("at %d places picked", len(w.Places))
}
