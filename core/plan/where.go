package plan

import (
	"fmt"

	"kladotex/core/invalid"
	"kladotex/core/parting"
	"kladotex/core/words"
)

// WhereKind says how a use finds its places.
type WhereKind string

// The kinds.
const (
	Everywhere WhereKind = "everywhere"
	InFront    WhereKind = "front"
	InBack     WhereKind = "back"
	// OnBase is wherever no plait hangs loose: cornrows, nets, linked plaits.
	OnBase WhereKind = "base"
	// AtHairline is the row along the hairline all round, AtNape its part behind the
	// ears, AlongPart those beside the part line.
	AtHairline WhereKind = "hairline"
	AtNape     WhereKind = "nape"
	AlongPart  WhereKind = "part"
	InZones    WhereKind = "zones"
	InRows     WhereKind = "rows"
	// AtEnds are the ends of cornrows that go on as braids.
	AtEnds WhereKind = "ends"
	// AtPlaces are those picked on the head.
	AtPlaces WhereKind = "places"
)

// Where says which places a use is about, in terms that survive other sizes.
type Where struct {
	Kind  WhereKind      `json:"kind"`
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
	invalid.OneOf(bad, path+"kind", "Where a rule holds", w.Kind, WhereKinds())
}

// whereNames are the kinds in the order they are offered, each as people speak of it, which may
// name what a where lists.
var whereNames = []struct {
	kind WhereKind
	name func(Where) string
}{
	{Everywhere, says("everywhere")}, {InFront, says("in front")}, {InBack, says("behind")}, {OnBase, says("on the base")},
	{AtHairline, says("along the hairline")}, {AtNape, says("at the nape")}, {AlongPart, says("along the part")},
	{AtEnds, says("where cornrows go on as braids")},
	{InZones, Where.zoneNames}, {InRows, Where.rowNames}, {AtPlaces, Where.placeNames},
}

// WhereKinds are all kinds, in the order they are offered.
func WhereKinds() []WhereKind {
	out := make([]WhereKind, len(whereNames))
	for i, k := range whereNames {
		out[i] = k.kind
	}
	return out
}

func says(name string) func(Where) string { return func(Where) string { return name } }

// Name is where, as people speak of it.
func (w Where) Name() string {
	for _, k := range whereNames {
		if k.kind == w.Kind {
			return k.name(w)
		}
	}
	return string(w.Kind)
}

func (w Where) zoneNames() string {
	names := make([]string, len(w.Zones))
	for i, z := range w.Zones {
		names[i] = z.Name()
	}
	return words.List(names)
}

func (w Where) rowNames() string {
	names := make([]string, len(w.Rows))
	for i, r := range w.Rows {
		names[i] = fmt.Sprintf("%s row %d", r.Zone.Name(), r.Row)
	}
	return words.List(names)
}

func (w Where) placeNames() string {
	if len(w.Places) == 1 {
		return "at 1 spot picked " + w.Places[0].Name()
	}
	return fmt.Sprintf("at %d spots picked", len(w.Places))
}
