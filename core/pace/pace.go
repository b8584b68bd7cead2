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
	hookTime  = 0.25  // minutes to hook one piece on a track, a net or a linked plait
	netTime   = 25.0  // minutes to lay a net and stitch its edge
	// linkedShare is the share of its length that a plait is worked before it is
	// laid into the next one.
	linkedShare    = 0.6
	finishPerPiece = 0.15
	// ownHead is how much longer one takes on one's own head than a stylist.
	ownHead = 1.25
	// unlogged is the spread of a first estimate either way.
	unlogged = 0.2
)

// Work is what is to be done.
type Work struct {
	// Sections are those of loose plaits, and Pieces the ones on them.
	Sections    int
	Pieces      int
	PlaitLength float64 // mm
	// Linked are plaits each laid into the next, Hooked the pieces hooked on
	// them, on tracks and on a net.
	Linked, Hooked int
	// Tracks are worked flat, TrackLength mm of them together; Tails are left to
	// tuck or stitch.
	Tracks      int
	TrackLength float64
	Tails       int
	// Net is true where one is stitched over them.
	Net bool
	// Attach is minutes for one piece, Conceal for one plait: of several
	// pieces on a section only one hides it.
	Attach, Conceal float64
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
		factor = ownHead
	}
	var h Hours
	stage := func(name string, minutes float64) {
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
	stage("Part and plait", float64(w.Sections)*(partTime+plaitRate*w.PlaitLength)+
		float64(w.Linked)*(partTime+plaitRate*linkedShare*w.PlaitLength))
	if w.Hooked > 0 {
		stage("Hook on", hookTime*float64(w.Hooked))
	}
	stage("Attach", float64(w.Pieces)*w.Attach)
	stage("Hide the plaits", float64(w.Sections)*w.Conceal)
	stage("Check and finish", finish+finishPerPiece*float64(w.Pieces+w.Hooked))
	return h
}
