// Package pace says how long an install takes. Times are minutes. Every figure is
// a range: until a studio has logged its own installs, a stylist's true time lies
// within about a fifth of the likely one.
package pace

// Rates of a practised stylist. Common practice, no source.
const (
	partTime  = 0.55  // minutes to part one section and clip the rest away
	plaitRate = 0.011 // minutes per mm of plait
	settle    = 25.0  // minutes to detangle, dry and set out before the first part
	// finish is checking the back, filling, trimming and smoothing: a fixed
	// part and a share per piece.
	finish    = 15.0
	trackPart = 0.8   // minutes to part one track
	trackRate = 0.017 // minutes per mm of plait worked flat
	tailTime  = 1.2   // minutes to tuck or stitch one tail
	twistRate = 0.005 // minutes per mm twisted with two strands
	netTime   = 25.0  // minutes to lay a net and stitch its edge
	// linkedShare is the share of its length that a plait is worked before it is
	// laid into the next one.
	linkedShare    = 0.6
	finishPerPiece = 0.15
	fillTime       = 0.4 // minutes to find a thin spot and hook a piece into it
	thingTime      = 0.3 // minutes to close a cuff round a piece
	// unlogged is the spread of a first estimate either way.
	unlogged = 0.2
)

// OwnHead is how much longer one takes on one's own head than a stylist. Common practice, no
// source.
const OwnHead = 1.25

// AccentTime is the minutes to hook one piece on beside another, practised. Common practice,
// no source.
const AccentTime = 0.5

// Work is what is to be done on a whole head. Lengths are mm, times minutes of a
// practised stylist.
type Work struct {
	// Sections are those of loose plaits, Braided and Twisted mm of them together.
	Sections         int
	Braided, Twisted float64
	// Linked are plaits each laid into the next, LinkedLength mm of them together.
	Linked       int
	LinkedLength float64
	// Tracks are worked flat, TrackLength mm of them together; Tails are left to
	// tuck or stitch.
	Tracks      int
	TrackLength float64
	Tails       int
	// Net is true where one is stitched over them.
	Net bool
	// Things are cuffs and the like that are put on.
	Things int
	// Pieces are all that are hung, Fill those hung into thin spots besides.
	Pieces, Fill int
	// Attach is minutes to fix the pieces on loose plaits, Conceal to hide the plaits,
	// Hook to hook on the others.
	Attach, Conceal, Hook float64
	// OwnHead is true for one who does their own head.
	OwnHead bool
}

// Range is a likely time with the times it will hardly go below and above.
type Range struct {
	Low    float64 `json:"low"`
	Likely float64 `json:"likely"`
	High   float64 `json:"high"`
}

// Stage is one part of the day.
type Stage struct {
	Name    string `json:"name"`
	Minutes Range  `json:"minutes"`
}

// Hours are the stages of an install in order, and their sum.
type Hours struct {
	Stages []Stage `json:"stages"`
	Total  Range   `json:"total"`
}

// Estimate sums the stages of w. Breaks are not counted.
func Estimate(w Work) Hours {
	factor := 1.0
	if w.OwnHead {
		factor = OwnHead
	}
	var h Hours
	stage := func(name string, minutes float64) {
		if minutes == 0 {
			return
		}
		minutes *= factor
		r := Range{minutes * (1 - unlogged), minutes, minutes * (1 + unlogged)}
		h.Stages = append(h.Stages, Stage{name, r})
		h.Total.Low += r.Low
		h.Total.Likely += r.Likely
		h.Total.High += r.High
	}
	stage("Prepare the head", settle)
	if w.Tracks > 0 {
		stage("Tracks", float64(w.Tracks)*trackPart+trackRate*w.TrackLength+tailTime*float64(w.Tails))
	}
	if w.Net {
		stage("Lay the net", netTime)
	}
	stage("Part and plait", float64(w.Sections+w.Linked)*partTime+
		plaitRate*(w.Braided+linkedShare*w.LinkedLength)+twistRate*w.Twisted)
	stage("Hook on", w.Hook)
	stage("Attach", w.Attach)
	stage("Hide the plaits", w.Conceal)
	stage("Check and finish", finish+fillTime*float64(w.Fill)+thingTime*float64(w.Things)+finishPerPiece*float64(w.Pieces+w.Fill))
	return h
}
