package method

import (
	"kladotex/core/advice"
	"kladotex/core/hair"
)

// hookTime is minutes to hook one piece where no plait is to be hidden, for a practised
// stylist.
const hookTime = 0.25

var hooks = []Method{{
	ID: TrackHitch, Name: "Track hitch", Family: Hook,
	Takes:   []hair.Form{hair.Twist, hair.Braid, hair.SoftLoc, hair.CoilLoc, hair.HandmadeLoc, hair.Bulk, hair.CurlyBulk},
	Grounds: []Ground{OnTrack, OnNet, OnLink},
	Summary: "A plain hitch where there is no plait to hide: seconds a piece.",
	HidesBy: "nothing to hide: the base lies flat under the pieces",
	Root:    "flat, the knot out of sight",
	Wash:    "roots only, diluted, dried fully",
	Undo:    "push the loop back over the tail and draw the piece out: seconds each, and nothing is cut",

	WearWeeks: [2]int{4, 6}, Parameters: []Parameter{},
	work:  func(Job) Work { return Work{Attach: hookTime} },
	steps: func(r Range) []Step { return hooking(r.Long) },
	judge: func(m Method, j Job) []advice.Finding { return append(suited(m, j), tender(j)...) },
}}

// grounded are the words for hooking on a ground: what comes before it, where to start,
// how the hook goes, and what is said of the next piece.
var grounded = map[Ground]struct {
	before            []string
	start, push, next string
}{
	OnTrack: {
		start: "Start low at the back, so that what hangs already stays out of the way.",
		push:  "Push the hook under the whole track, latch covered, from the side away from the part. ",
		next:  "Hook the next one {length} further, each between two of the track beside it; closer where scalp would show.",
	},
	OnNet: {
		before: []string{
			"Lay the net over the flat plaits, its edge set back from the hairline and off the part line.",
			"Stretch it smooth from the middle outward and pin it, so that it neither slides nor pulls.",
			"Stitch the edge to the plaits all round, no knot against the scalp.",
			"Cut the surplus away outside the stitches.",
		},
		start: "Start low at the back, and keep inside the edge of the net.",
		push:  "Push the hook through the net and under the plait below it, both at once: net by itself tears. ",
		next:  "Hook the next one {length} further, each between two of the row below.",
	},
	OnLink: {
		start: "Start at the end of the chains, low at the back.",
		push:  "Push the hook under the plait just in front of where it is laid into the next. ",
	},
}

// hooking are the steps on the ground of a job. The base is finished before it carries
// anything: under hanging pieces no tail is found again.
func hooking(j Job) (steps []Step) {
	on := grounded[j.Ground]
	if j.Tails != "" {
		steps = append(steps, text(j.Tails))
	}
	for _, before := range on.before {
		steps = append(steps, text(before))
	}
	if j.Piece.Form.Facts().Folded {
		steps = append(steps, text("Take one unit of bulk hair, hook by its root end, and find its middle: folded there, it is the loop."))
	} else {
		steps = append(steps, text("Stretch the loop with the tail of a comb; damp the piece, so that the hook does not snag."))
	}
	steps = append(steps,
		text(on.start),
		text(on.push+"Catch the loop, push the piece up while the latch comes out, and draw it half through."),
		text("Pass the tail through its own loop and tighten: snug, the knot turned away from the part, never pulling the scalp."))
	if on.next != "" {
		steps = append(steps, with(on.next, j.Spacing))
	}
	if j.TenderScalp {
		steps = append(steps, text("Tender scalp: work the base slack, and stop where hooking on tightens it. Pain, bumps or stinging mean loosen now."))
	}
	return steps
}
