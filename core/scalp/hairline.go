package scalp

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"
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

// Landmark is the unit vector of a hairline landmark on the left side.
func (h Head) Landmark(l Landmark) r3.Vec {
	a := landmarkAngles[l]
	lat := a.lat*math.Pi/180 - a.napeShare*h.Nape
	u := At(a.lon*math.Pi/180, lat)
	if l == FrontCentre || l == NapeCentre {
		u.Y = 0 // exactly on the middle, so that mirrored halves meet
	}
	return u
}

// Crown is where the ear-to-ear part crosses the middle part: the top of the
// head over the ears.
func (h Head) Crown() r3.Vec { return r3.Vec{Z: 1} }

// hairlineSteps is the number of polyline steps between two landmarks: about
// 3 mm each on an average head.
const hairlineSteps = 14

// Hairline is the left hairline from one landmark round to a later one as unit
// vectors, about 3 mm apart: a centripetal Catmull-Rom curve through the
// landmarks, put back on the sphere. The right hairline is its mirror image.
func (h Head) Hairline(from, to Landmark) []r3.Vec {
	line := []r3.Vec{h.Landmark(from)}
	for l := from; l < to; l++ {
		p0, p1, p2, p3 := h.around(l-1), h.Landmark(l), h.Landmark(l+1), h.around(l+2)
		for k := 1; k < hairlineSteps; k++ {
			line = append(line, Unit(catmullRom(p0, p1, p2, p3, float64(k)/hairlineSteps)))
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
