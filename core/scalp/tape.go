package scalp

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/craft"
	"kladotex/core/invalid"
)

// earTopAngle is where the tape from ear to ear ends: the ear-top hairline lies
// about 8° below the plane of the circumference.
const earTopAngle = -8 * math.Pi / 180

// Bounds of what is accepted: from a small child's head to the largest adult's, with the hair
// still on it. Common practice, no source.
const (
	minCircumference, maxCircumference = 440, 680
	minFrontToNape, maxFrontToNape     = 240, 460
	minEarToEar, maxEarToEar           = 230, 420
	minBulk, maxBulk                   = 0, 15
	minRatio, maxRatio                 = 0.66, 0.94
	// A head's height above the circumference against its half breadth, and
	// the nape's angle: outside these the tapes contradict each other.
	minRise, maxRise = 0.95, 1.75
	minNape, maxNape = 22 * math.Pi / 180, 68 * math.Pi / 180
)

// Tapes are the measurements of one head, mm, taken over the hair.
type Tapes struct {
	Circumference float64 `json:"circumferenceMm" doc:"Largest way round, above the ears, mm"`
	FrontToNape   float64 `json:"frontToNapeMm" doc:"Front hairline centre over the top to the nape hairline centre, mm"`
	EarToEar      float64 `json:"earToEarMm" doc:"Ear top over the top to ear top, mm"`
	// HairBulk is the thickness of the hair lying under the tape; it is
	// subtracted, so that parts are planned on the scalp and not on the hair.
	HairBulk float64 `json:"hairBulkMm" doc:"Thickness of the hair under the tape, mm"`
	// Ratio is head breadth ÷ head length.
	Ratio float64 `json:"ratio" doc:"Head breadth divided by head length; 0.78 is usual"`
}

// Preset is a named head size to start from when no tape was taken.
type Preset struct {
	Name  string `json:"name"`
	Tapes Tapes  `json:"tapes"`
}

// Presets are head sizes from child to extra-large.
func Presets() []Preset {
	size := func(name string, around, frontToNape, earToEar float64) Preset {
		const inch = 25.4
		return Preset{name, Tapes{around * inch, frontToNape * inch, earToEar * inch, 0, craft.HeadRatio}}
	}
	return []Preset{
		size("Child", craft.ChildAround, craft.ChildFrontToNape, craft.ChildEarToEar),
		size("Petite", craft.PetiteAround, craft.PetiteFrontToNape, craft.PetiteEarToEar),
		size("Average", craft.AverageAround, craft.AverageFrontToNape, craft.AverageEarToEar),
		size("Large", craft.LargeAround, craft.LargeFrontToNape, craft.LargeEarToEar),
		size("Extra-large", craft.ExtraLargeAround, craft.ExtraLargeFrontToNape, craft.ExtraLargeEarToEar),
	}
}

// Fit solves for the head whose tapes, measured over HairBulk of hair, are t, its
// hairline the usual one. The error, if any, is an [invalid.Errors] with paths
// relative to t: a tape out of range, or one that contradicts the others, with the
// range that would fit.
func Fit(t Tapes) (Head, error) { return fit(t, Hairline{}) }

// FitWith is [Fit] for a head whose hairline departs from the usual one. The tape
// from front to nape starts at the front centre as it is moved. The error, if any,
// is an [invalid.Errors] with paths under "head" and "hairline".
func FitWith(t Tapes, l Hairline) (Head, error) {
	if bad := l.check(); len(bad) > 0 {
		return Head{}, invalid.Under(bad, "hairline")
	}
	h, err := fit(t, l)
	if err != nil {
		return Head{}, invalid.Under(err, "head")
	}
	if bad := h.crossed(); len(bad) > 0 {
		return Head{}, invalid.Under(bad, "hairline")
	}
	return h, nil
}

func fit(t Tapes, l Hairline) (Head, error) {
	var bad invalid.Errors
	bad.Length("circumferenceMm", "Around the head", t.Circumference, minCircumference, maxCircumference)
	bad.Length("frontToNapeMm", "Front to nape", t.FrontToNape, minFrontToNape, maxFrontToNape)
	bad.Length("earToEarMm", "Ear to ear", t.EarToEar, minEarToEar, maxEarToEar)
	bad.Length("hairBulkMm", "Hair under the tape", t.HairBulk, minBulk, maxBulk)
	bad.Number("ratio", "Head breadth ÷ length", t.Ratio, minRatio, maxRatio, "")
	if len(bad) > 0 {
		return Head{}, bad
	}

	// An ellipse scales with its axis, so one perimeter of ratio t.Ratio gives a.
	unit := Head{A: 1, B: t.Ratio, C: 1}.Circumference()
	a := (t.Circumference - 2*math.Pi*t.HairBulk) / unit
	b := a * t.Ratio

	earToEar := func(c float64) float64 { return Head{A: a, B: b, C: c}.earToEar(t.HairBulk) }
	if low, high := earToEar(minRise*b), earToEar(maxRise*b); !within(t.EarToEar, low, high) {
		contradiction(&bad, "earToEarMm", "Ear to ear", t.EarToEar, "the way round", low, high)
		return Head{}, bad
	}
	c := solve(earToEar, t.EarToEar, minRise*b, maxRise*b)

	frontToNape := func(nape float64) float64 { return Head{a, b, c, nape, l}.frontToNape(t.HairBulk) }
	if low, high := frontToNape(minNape), frontToNape(maxNape); !within(t.FrontToNape, low, high) {
		contradiction(&bad, "frontToNapeMm", "Front to nape", t.FrontToNape, "the other two tapes", low, high)
		return Head{}, bad
	}
	return Head{a, b, c, solve(frontToNape, t.FrontToNape, minNape, maxNape), l}, nil
}

// Tapes measures the head as a tape would over bulk mm of hair: the inverse of
// [Fit].
func (h Head) Tapes(bulk float64) Tapes {
	return Tapes{
		Circumference: h.Circumference() + 2*math.Pi*bulk,
		FrontToNape:   h.frontToNape(bulk),
		EarToEar:      h.earToEar(bulk),
		HairBulk:      bulk,
		Ratio:         h.B / h.A,
	}
}

func (h Head) earToEar(bulk float64) float64 {
	return h.tape(r3.Vec{Y: 1}, h.B, earTopAngle, math.Pi-earTopAngle, bulk)
}

func (h Head) frontToNape(bulk float64) float64 {
	return h.tape(r3.Vec{X: 1}, h.A, math.Asin(h.Landmark(FrontCentre).Z), math.Pi+h.Nape, bulk)
}

// tape is the length of a tape in the upright plane through side (X or Y, with
// semi-axis width) from one parametric angle to another, lying on bulk mm of
// hair. A curve parallel to a convex one at distance d is longer by d times the
// angle through which its normal turns (Steiner's formula).
func (h Head) tape(side r3.Vec, width, from, to, bulk float64) float64 {
	turn := normalAngle(to, width, h.C) - normalAngle(from, width, h.C)
	return h.sweep(side, r3.Vec{Z: 1}, from, to) + bulk*turn
}

// normalAngle is the direction of the outward normal of the ellipse
// (p·cos φ, q·sin φ) at φ, continuous in φ.
func normalAngle(phi, p, q float64) float64 {
	sin, cos := math.Sincos(phi)
	// The normal never strays a right angle from φ, so the turn between them
	// is found without counting revolutions.
	return phi + math.Atan2(p*sin*cos-q*cos*sin, q*cos*cos+p*sin*sin)
}

// solve finds x in low..high with f(x) = want to a millionth; f rises and
// brackets want. Regula falsi with the Illinois weighting: a tape is nearly
// straight in its unknown, so a handful of steps do.
func solve(f func(float64) float64, want, low, high float64) float64 {
	const enough = 1e-6
	below, above := f(low)-want, f(high)-want
	for range 60 {
		x := high - above*(high-low)/(above-below)
		off := f(x) - want
		switch {
		case math.Abs(off) < enough:
			return x
		case off < 0:
			low, below, above = x, off, above/2
		default:
			high, above, below = x, off, below/2
		}
	}
	return (low + high) / 2
}

func within(v, low, high float64) bool { return v >= low && v <= high }

func contradiction(bad *invalid.Errors, path, label string, v float64, with string, low, high float64) {
	bad.Add(path, "%s of %s contradicts %s: between %s and %s would agree. Take both again.",
		label, invalid.Beyond(v, low, high), with, invalid.AtLeast(low), invalid.AtMost(high))
}
