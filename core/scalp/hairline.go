package scalp

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/invalid"
)

// Landmark names a point of the hairline on one side of the head.
type Landmark int

// The landmarks of one side, from the forehead round to the nape.
const (
	FrontCentre Landmark = iota
	TempleCorner
	Temple
	Sideburn
	EarTop
	BehindEar
	NapeCorner
	NapeCentre
	landmarks
)

// landmarkAngles are longitude and latitude in degrees on the left side; the
// latitudes behind the ear are shares of the nape angle, which the tape gives.
// The shape is a usual adult hairline, set by eye (common practice, no source).
var landmarkAngles = [landmarks]struct{ lon, lat, napeShare float64 }{
	FrontCentre:  {lon: 0, lat: 27},
	TempleCorner: {lon: 41, lat: 25},
	Temple:       {lon: 59, lat: 11},
	Sideburn:     {lon: 71, lat: -9},
	EarTop:       {lon: 90, lat: -8},
	BehindEar:    {lon: 111, napeShare: 0.50},
	NapeCorner:   {lon: 135, napeShare: 0.91},
	NapeCentre:   {lon: 180, napeShare: 1},
}

// Move is how far a landmark lies from its usual place, mm along the scalp.
type Move struct {
	Up   float64 `json:"upMm" doc:"Towards the top of the head, mm; negative is down"`
	Back float64 `json:"backMm" doc:"Round the head towards the back, mm; negative is towards the face"`
}

// Hairline is how a hairline departs from the usual one, left and right alike. The
// ear tops and the nape centre have no move: the tapes end there and say where
// they are.
type Hairline struct {
	// Front lifts the front centre: a high forehead, or below zero a widow's
	// peak.
	Front        float64 `json:"frontMm" doc:"Front centre higher than usual, mm; negative is a widow's peak"`
	TempleCorner Move    `json:"templeCorner"`
	Temple       Move    `json:"temple"`
	Sideburn     Move    `json:"sideburn"`
	BehindEar    Move    `json:"behindEar"`
	NapeCorner   Move    `json:"napeCorner"`
}

// MaxMove bounds how far a landmark is moved, mm.
const MaxMove = 40.0

// of is the move of a landmark.
func (l Hairline) of(m Landmark) Move {
	switch m {
	case FrontCentre:
		return Move{Up: l.Front}
	case TempleCorner:
		return l.TempleCorner
	case Temple:
		return l.Temple
	case Sideburn:
		return l.Sideburn
	case BehindEar:
		return l.BehindEar
	case NapeCorner:
		return l.NapeCorner
	}
	return Move{}
}

// landmarkNames are the names of the landmarks and their fields in a [Hairline].
var landmarkNames = [landmarks]struct{ name, path string }{
	FrontCentre:  {"front centre", "front"},
	TempleCorner: {"temple corner", "templeCorner."},
	Temple:       {"temple", "temple."},
	Sideburn:     {"sideburn", "sideburn."},
	EarTop:       {"ear top", ""},
	BehindEar:    {"hairline behind the ear", "behindEar."},
	NapeCorner:   {"nape corner", "napeCorner."},
	NapeCentre:   {"nape centre", ""},
}

// check refuses moves out of range, as [invalid.Errors] relative to l.
func (l Hairline) check() invalid.Errors {
	var bad invalid.Errors
	bad.Length("frontMm", "The front centre's move", l.Front, -MaxMove, MaxMove)
	for m := TempleCorner; m < NapeCentre; m++ {
		if m == EarTop {
			continue
		}
		at := landmarkNames[m]
		bad.Length(at.path+"upMm", "The move of the "+at.name, l.of(m).Up, -MaxMove, MaxMove)
		bad.Length(at.path+"backMm", "The move of the "+at.name, l.of(m).Back, -MaxMove, MaxMove)
	}
	return bad
}

// minStep is the least step in longitude from a landmark to the next, radians:
// about 6 mm. Closer, the hairline would turn back on itself.
const minStep = 4 * math.Pi / 180

// crossed refuses a hairline whose landmarks pass each other.
func (h Head) crossed() invalid.Errors {
	var bad invalid.Errors
	for m := TempleCorner; m <= NapeCentre; m++ {
		gap := h.lon(m) - h.lon(m-1)
		if gap >= minStep {
			continue
		}
		// Name the one that can be moved.
		at, room := m, h.hairline.of(m).Back+(minStep-gap)*h.girth(m)
		word := "back"
		if h.hairline.of(m).Back == 0 && h.hairline.of(m-1).Back != 0 {
			at, room, word = m-1, h.hairline.of(m-1).Back-(minStep-gap)*h.girth(m-1), "forward"
		}
		// The nearest move that works, rounded to its safe side.
		works := invalid.AtMost(room)
		if word == "back" {
			works = invalid.AtLeast(room)
		}
		bad.Add(landmarkNames[at].path+"backMm", "The %s would pass the %s. Moved %s to %s it stays clear.",
			landmarkNames[m-1].name, landmarkNames[m].name, word, works)
		return bad
	}
	return bad
}

// lon is the longitude of a landmark on the left side, radians.
func (h Head) lon(m Landmark) float64 {
	return landmarkAngles[m].lon*math.Pi/180 + h.hairline.of(m).Back/h.girth(m)
}

// girth is how far, in mm, one radian of longitude reaches at a landmark's usual
// place.
func (h Head) girth(m Landmark) float64 {
	lat := landmarkAngles[m].lat*math.Pi/180 - landmarkAngles[m].napeShare*h.Nape
	sin, cos := math.Sincos(landmarkAngles[m].lon * math.Pi / 180)
	return math.Cos(lat) * math.Hypot(h.A*sin, h.B*cos)
}

// Landmark is the unit vector of a hairline landmark on the left side.
func (h Head) Landmark(l Landmark) r3.Vec {
	a := landmarkAngles[l]
	lat := a.lat*math.Pi/180 - a.napeShare*h.Nape
	lon := h.lon(l)
	if up := h.hairline.of(l).Up; up != 0 {
		lat += up / h.steepness(lon, lat+up/2/h.steepness(lon, lat))
	}
	u := At(lon, lat)
	if l == FrontCentre || l == NapeCentre {
		u.Y = 0 // exactly on the middle, so that mirrored halves meet
	}
	return u
}

// steepness is how far, in mm, one radian of latitude reaches along the scalp.
func (h Head) steepness(lon, lat float64) float64 {
	sin, cos := math.Sincos(lat)
	sinLon, cosLon := math.Sincos(lon)
	return math.Hypot(sin*math.Hypot(h.A*cosLon, h.B*sinLon), h.C*cos)
}

// Crown is where the ear-to-ear part crosses the middle part: the top of the
// head over the ears.
func (h Head) Crown() r3.Vec { return r3.Vec{Z: 1} }

// HairlineSteps is the number of steps of a [Head.Hairline] between two landmarks:
// about 3 mm each on an average head.
const HairlineSteps = 14

// Hairline is the left hairline from one landmark round to a later one as unit
// vectors, about 3 mm apart: a centripetal Catmull-Rom curve through the
// landmarks, put back on the sphere. The right hairline is its mirror image.
func (h Head) Hairline(from, to Landmark) []r3.Vec {
	line := []r3.Vec{h.Landmark(from)}
	for l := from; l < to; l++ {
		p0, p1, p2, p3 := h.around(l-1), h.Landmark(l), h.Landmark(l+1), h.around(l+2)
		for k := 1; k < HairlineSteps; k++ {
			line = append(line, Unit(catmullRom(p0, p1, p2, p3, float64(k)/HairlineSteps)))
		}
		line = append(line, p2)
	}
	return line
}

// around is the landmark, continued onto the right side before the front centre
// and beyond the nape centre.
func (h Head) around(l Landmark) r3.Vec {
	switch {
	case l < FrontCentre:
		return Mirror(h.Landmark(-l))
	case l > NapeCentre:
		return Mirror(h.Landmark(2*NapeCentre - l))
	}
	return h.Landmark(l)
}

// Mirror is u reflected to the other side of the head.
func Mirror(u r3.Vec) r3.Vec { return r3.Vec{X: u.X, Y: -u.Y, Z: u.Z} }

// catmullRom is the point at f in 0..1 between p1 and p2 of the centripetal
// Catmull-Rom curve through p0, p1, p2, p3 (Barry and Goldman's pyramid), which
// makes neither cusps nor loops.
func catmullRom(p0, p1, p2, p3 r3.Vec, f float64) r3.Vec {
	t0 := 0.0
	t1 := t0 + math.Sqrt(norm(r3.Sub(p1, p0)))
	t2 := t1 + math.Sqrt(norm(r3.Sub(p2, p1)))
	t3 := t2 + math.Sqrt(norm(r3.Sub(p3, p2)))
	t := t1 + f*(t2-t1)
	lerp := func(a, b r3.Vec, ta, tb float64) r3.Vec {
		return r3.Add(r3.Scale((tb-t)/(tb-ta), a), r3.Scale((t-ta)/(tb-ta), b))
	}
	a1, a2, a3 := lerp(p0, p1, t0, t1), lerp(p1, p2, t1, t2), lerp(p2, p3, t2, t3)
	return lerp(lerp(a1, a2, t0, t2), lerp(a2, a3, t1, t3), t1, t2)
}
