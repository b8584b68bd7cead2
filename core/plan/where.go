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

// takes are the lists that belong to a kind.
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
	invalid.OneOf(bad, path+"kind", "Where a rule holds", w.Kind,
		[]WhereKind{Everywhere, InFront, InBack, OnBase, AtHairline, AtNape, AlongPart, InZones, InRows, AtPlaces})
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

// match are the indices of the places a use is about.
func (f *finder) match(w Where) []int {
	var test func(p *Place) bool
	switch w.Kind {
	case Everywhere:
		test = func(*Place) bool { return true }
	case InFront:
		test = func(p *Place) bool { return p.Front }
	case InBack:
		test = func(p *Place) bool { return !p.Front }
	case OnBase:
		test = func(p *Place) bool { return p.Ground != method.OnPlait }
	case AtHairline:
		test = f.atHairline
	case AtNape:
		test = func(p *Place) bool { return p.At[0] < f.behindEars && f.atHairline(p) }
	case AlongPart:
		test = f.alongPart
	case InZones:
		test = func(p *Place) bool { return slices.Contains(w.Zones, p.Zone) }
	case InRows:
		test = func(p *Place) bool {
			return p.Section >= 0 && slices.Contains(w.Rows, RowName{p.Zone, f.layout.Sections[p.Section].Row})
		}
	case AtPlaces:
		return f.picked(w.Places)
	}
	var out []int
	for i := range f.places {
		if test(&f.places[i]) {
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

// whereNames are the kinds as people speak of them.
var whereNames = map[WhereKind]string{
	Everywhere: "everywhere", InFront: "in front", InBack: "behind", OnBase: "on the base",
	AtHairline: "along the hairline", AtNape: "at the nape", AlongPart: "along the part",
}

// Name is where, as people speak of it.
func (w Where) Name() string {
	switch w.Kind {
	case InZones:
		names := make([]string, len(w.Zones))
		for i, z := range w.Zones {
			names[i] = z.Name()
		}
		return list(names)
	case InRows:
		names := make([]string, len(w.Rows))
		for i, r := range w.Rows {
			names[i] = fmt.Sprintf("%s row %d", r.Zone.Name(), r.Row)
		}
		return list(names)
	case AtPlaces:
		if len(w.Places) == 1 {
			return "at 1 place picked " + placeName(w.Places[0])
		}
		return fmt.Sprintf("at %d places picked", len(w.Places))
	}
	return whereNames[w.Kind]
}
