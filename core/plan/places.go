package plan

import (
	"fmt"
	"math"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/scalp"
)

// Place is one spot where something is attached: the plait of a section, or a hook on a
// cornrow, a net or a linked plait.
type Place struct {
	// ID is that of the section, or of the cornrow or net with the number of the hook on
	// it, such as "T4/12".
	ID     string        `json:"id"`
	Zone   parting.Zone  `json:"zone"`
	Ground method.Ground `json:"ground"`
	// At is where on the scalp, mm in the head's axes.
	At scalp.Point `json:"atMm"`
	// Front is true in front of the ear-to-ear part.
	Front bool `json:"front"`
	// Section is the index of the section in the layout; -1 for a hook.
	Section int `json:"section"`
	// Round is how thick the plait is that a hook goes round, mm; 0 on a net and on loose plaits.
	Round float64 `json:"roundMm,omitempty"`
	// Along is the length of the cornrow that goes on from there as a braid, mm; else 0.
	Along float64 `json:"alongMm,omitempty"`
	// Hair is the length of own hair there, mm.
	Hair  float64     `json:"hairMm"`
	Plait plait.Plait `json:"plait"`
	// Piece and Way are indices into the plan's lists, Count the pieces at the place.
	Piece int `json:"piece"`
	Way   int `json:"way"`
	Count int `json:"count"`
	// Accents are indices into the plan's accents: what is put on besides.
	Accents []int `json:"accents,omitempty"`
	// Kept is true where what hangs stays, as in a plan that does only some rows again.
	Kept bool `json:"kept,omitempty"`
}

// Carrier is the id of the section of a place, or of the cornrow or net its hook is on.
func (p *Place) Carrier() string {
	id, _, _ := strings.Cut(p.ID, "/")
	return id
}

// Resolution is who gets what on a head.
type Resolution struct {
	// Places are the sections in the order of the layout, then the hooks of every cornrow,
	// then those of every net.
	Places []Place `json:"places"`
	// Matched is, for every use, the number of places it says something about: those
	// where its method cannot hang a piece, and nothing else is named, are not counted.
	Matched []int `json:"matched"`
}

// placesOf are the places of a layout with their plaits, and nothing hung on them yet.
func placesOf(in Input, h scalp.Head, l *parting.Layout) []Place {
	n := len(l.Sections) + l.Hooks() + len(l.Cornrows)
	places := make([]Place, 0, n)
	lengths := newLengths(h, in.Hair)
	density, strand := in.Hair.Density/100, in.Hair.Strand/1000
	for i := range l.Sections {
		s := &l.Sections[i]
		ground := method.OnPlait
		if s.Linked {
			ground = method.OnLink
		}
		if s.Laid {
			ground = method.OnLaid
		}
		own := lengths.at(s.Centroid)
		places = append(places, Place{
			ID: s.ID, Zone: s.Zone, Ground: ground, At: s.Centroid, Front: s.Front, Section: i,
			Hair: own, Plait: in.Plaits.Of(s.Area, own, density, strand), Way: -1, Piece: -1,
		})
		if p := &places[len(places)-1]; ground != method.OnPlait {
			p.Round = p.Plait.Diameter
		}
	}
	front := inFront(h, l)
	hooks := func(id string, zone parting.Zone, ground method.Ground, at scalp.Line, area float64, on *parting.Cornrow) {
		if len(at) == 0 {
			return
		}
		share := area / float64(len(at)) // of the scalp whose hair carries one hook
		for k, p := range at {
			own, ground, share, along, round := lengths.at(p), ground, share, 0.0, 0.0
			if on != nil { // a cornrow holds the hair of as much of its band as that reaches back over
				round = plait.Diameter(on.Width*min(on.Length, own*craft.BraidTakeUp), density, strand)
			}
			if on != nil && on.Fed && k == len(at)-1 { // all its hair goes into the braid
				ground, share, along, round = method.OnEnd, area, on.Length, 0
			}
			places = append(places, Place{
				ID: fmt.Sprintf("%s/%d", id, k+1), Zone: zone, Ground: ground, At: p, Front: front(p), Section: -1,
				Hair: own, Plait: in.Plaits.Of(share, own, density, strand), Way: -1, Piece: -1, Along: along, Round: round,
			})
		}
	}
	for i := range l.Cornrows {
		t := &l.Cornrows[i]
		hooks(t.ID, t.Zone, method.OnCornrow, t.Hooks, t.Area, t)
	}
	for i := range l.Nets {
		net := &l.Nets[i]
		hooks(string(net.Zone), net.Zone, method.OnNet, net.Hooks, net.Area, nil)
	}
	return places
}

// inFront tells whether a point lies in front of the plane through the ears and where
// front and back part on the middle.
func inFront(h scalp.Head, l *parting.Layout) func(scalp.Point) bool {
	crossing := h.Point(h.Crown())
	if n := len(l.EarToEar); n > 0 {
		crossing = l.EarToEar[n/2]
	}
	ear := h.Point(h.Landmark(scalp.EarTop))
	// The plane holds the y axis: only x and z count.
	dx, dz := crossing[0]-ear[0], crossing[2]-ear[2]
	return func(p scalp.Point) bool { return (p[0]-ear[0])*dz-(p[2]-ear[2])*dx > 0 }
}

// lengths blends the four lengths of own hair over the head.
type lengths struct {
	head    scalp.Head
	anchors [5]anchor
	even    float64 // the one length, where all are the same
}

// anchor is where a length was measured.
type anchor struct {
	at r3.Vec
	mm float64
}

// blendWidth is the angle, in radians, within which a length that was measured holds
// nearly alone.
const blendWidth = 0.25

func newLengths(h scalp.Head, o hair.Own) lengths {
	l := lengths{head: h}
	if o.Front == o.Sides && o.Sides == o.Crown && o.Crown == o.Nape {
		l.even = o.Front
	}
	side := h.Landmark(scalp.EarTop)
	mirrored := r3.Vec{X: side.X, Y: -side.Y, Z: side.Z}
	l.anchors = [5]anchor{
		{h.Landmark(scalp.FrontCentre), o.Front}, {side, o.Sides}, {mirrored, o.Sides},
		{h.Crown(), o.Crown}, {h.Landmark(scalp.NapeCentre), o.Nape},
	}
	return l
}

// at is the length at a point of the scalp, mm: the mean of those measured, weighted by
// how near they are.
func (l *lengths) at(p scalp.Point) float64 {
	if l.even > 0 {
		return l.even
	}
	d := parting.Toward(l.head, p)
	sum, weights := 0.0, 0.0
	for _, a := range l.anchors {
		angle := math.Acos(max(-1, min(1, d[0]*a.at.X+d[1]*a.at.Y+d[2]*a.at.Z)))
		w := 1 / (angle*angle + blendWidth*blendWidth)
		w *= w
		sum, weights = sum+w*a.mm, weights+w
	}
	return sum / weights
}

// Between is the least and the most of a number over some places.
type Between struct {
	Least float64 `json:"least"`
	Most  float64 `json:"most"`
}

// Add widens b to hold v; the first value makes it.
func (b *Between) Add(v float64, first bool) {
	if first {
		*b = Between{v, v}
		return
	}
	b.Least, b.Most = min(b.Least, v), max(b.Most, v)
}
