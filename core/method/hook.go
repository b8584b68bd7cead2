package method

import (
	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/method/moves"
)

// hookWay is the way the hook goes; the schools differ.
var hookWay = Choice{Key: "direction", Name: "The hook goes", Usual: "up", Options: []Option{
	{"up", "From below upward", "The loop lies on top and falls with the hair"},
	{"down", "From the top down", "Where the base cannot be reached from below"},
}}

// knotSide is where a knot comes to lie; it must not show.
var knotSide = Choice{Key: "knot", Name: "The knot lies", Usual: "part", Options: []Option{
	{"part", "Away from the part", "Hair falls over it from the part"},
	{"back", "Toward the back of the head", "At the hairline, where hair is drawn back"},
	{"face", "Toward the face", "Behind a fringe, where hair falls forward"},
}}

// knotWords are the sides of a knot as the steps say them.
var knotWords = map[string]string{"part": "away from the part", "back": "toward the back of the head", "face": "toward the face"}

var hooks = []Method{{
	ID: CornrowHitch, Name: "Cornrow hitch", Family: Hook, Base: Plaited,
	Takes:   []hair.Form{hair.Twist, hair.Braid, hair.SoftLoc, hair.CoilLoc, hair.HandmadeLoc, hair.Bulk, hair.CurlyBulk},
	Grounds: []Ground{OnCornrow, OnNet, OnLink, OnLaid},
	Summary: "A plain hitch where there is no plait to hide: seconds a piece.",
	HidesBy: "nothing to hide: the base lies flat under the pieces",
	Root:    "flat, the knot out of sight",
	Wash:    "roots only, diluted, dried fully",
	Mistake: "Hooked across the cornrow: the knot stands up and shows.",
	Mend:    "Draw it out again and hook along the cornrow, the knot turned away from the part.",
	Wrong:   moves.AcrossCornrow,

	WearWeeks: [2]int{4, 6},
	traits:    Traits{Pull: Light, Flat: true, Wet: Roots, Whole: true, Skill: NewHand, Off: 0.12},
	Choices: []Choice{hookWay, knotSide, {Key: "head", Name: "At the start of a cornrow", Usual: "hitched", Options: []Option{
		{"hitched", "Hitched like the others", "Where hair falls over it"},
		{"set-in", "The end worked in, no loop shows", "Where the cornrow begins in sight: the piece's end goes into its first turns"},
	}}},
	work:  func(Job) Work { return Work{Attach: craft.HookTime} },
	steps: func(r Range) []Step { return hooking(r.Long) },
	takeDown: func(Range) []Step {
		return []Step{
			text("Push the loop open with the tail of a comb and draw the tail of the piece back through it.").drawn(moves.CornrowHitch, 4, 2),
			text("Draw the piece out and lay it with its like: whole ones are used again.").drawn(moves.CornrowHitch, 2, 0),
			text("Undo tails and cornrows last, from the nape up."),
		}
	},
	judge: judges(suited, ownLoop, roundTheBase, func(_ Method, j Job) []advice.Finding { return tender(j) }),
}}

// grounded are the words for hooking on a ground: what comes before it, where to start,
// how the hook goes and how that is drawn, and what is said of the next piece.
var grounded = map[Ground]struct {
	before            []Step
	start, push, next string
	hooked            moves.Clip
	// after is what is done once a piece hangs.
	after []Step
}{
	OnPlait: {
		hooked: moves.Clip{Figure: moves.RootHitch, First: 0, Last: 2},
		start:  "Start low at the back, so that what hangs already stays out of the way.",
		push:   "Push the hook under the root of the plait, latch covered.",
	},
	OnCornrow: {
		hooked: moves.Clip{Figure: moves.CornrowHitch, First: 0, Last: 2},
		start:  "Start low at the back, so that what hangs already stays out of the way.",
		push:   "Push the hook under the whole cornrow, latch covered, from the side away from the part.",
		next:   "Hook the next one {length} further, each between two of the cornrow beside it; closer where scalp would show.",
	},
	OnNet: {
		hooked: moves.Clip{Figure: moves.Net, First: 0, Last: 1},
		before: []Step{
			text("Lay the net over the cornrows, its edge set back from the hairline and off the part line.").drawn(moves.Net, 0, 0),
			text("Stretch it smooth from the middle outward and pin it, so that it neither slides nor pulls."),
			text("Stitch the edge to the plaits all round, no knot against the scalp."),
			text("Cut the surplus away outside the stitches."),
		},
		start: "Start low at the back, and keep inside the edge of the net.",
		push:  "Push the hook through the net and under the plait below it, both at once: net by itself tears.",
		next:  "Hook the next one {length} further, each between two of the row below.",
	},
	OnLink: {
		before: []Step{
			text("Plait the first section. Where it reaches the section behind, undo nothing: take it as one of three strands.").drawn(moves.Link, 0, 0),
			text("Halve the section behind for the other two, and plait on. So to the end of the chain.").drawn(moves.Link, 0, 1),
			text("Leave the stretch between two sections slack: a fingertip passes under it with the head bent."),
		},
		hooked: moves.Clip{Figure: moves.CornrowHitch, First: 0, Last: 2},
		start:  "Start at the end of the chains, low at the back.",
		push:   "Push the hook under the plait just in front of where it is laid into the next.",
	},
	OnLaid: {
		hooked: moves.Clip{Figure: moves.RootHitch, First: 0, Last: 2},
		start:  "Start low at the back, so that what hangs already stays out of the way.",
		push:   "Push the hook under the root of the plait, latch covered.",
		after: []Step{
			text("Nothing is woven: lay the plait back over the base, and take it as a strand into the plait behind it.").drawn(moves.Link, 0, 1),
			text("A plait with none behind it: hook its end under the plaits beside it and draw it through."),
		},
	},
}

// onBase are the moves before the first piece on the ground of a job. The base is finished
// before it carries anything: under hanging pieces no tail is found again.
func onBase(j Job) (steps []Step) {
	on := grounded[j.Ground]
	if j.Merges && j.Ground == OnCornrow {
		steps = append(steps, text("Thin cornrows run together: take each as one of the strands and braid on, so that fewer tails are left.").drawn(moves.Merge, 0, 1))
	}
	if j.Tails != "" && j.Ground != OnPlait {
		steps = append(steps, text(j.Tails))
	}
	start := on.start
	if j.FrontFirst {
		start = "Start in front with what is seen, then from the back corner upward; lift aside what hangs already."
	}
	return append(append(steps, on.before...), text(start))
}

// withNext adds what is said of the next piece on the ground of a job, and of a tender scalp.
func withNext(steps []Step, j Job) []Step {
	if next := grounded[j.Ground].next; next != "" {
		steps = append(steps, with(next, j.Spacing))
	}
	steps = append(steps, grounded[j.Ground].after...)
	if j.TenderScalp {
		steps = append(steps, text("Tender scalp: work the base slack, and stop where hooking on tightens it. Pain, bumps or stinging mean loosen now."))
	}
	return steps
}

// hooking are the steps of a plain hitch on the ground of a job.
func hooking(j Job) (steps []Step) {
	on := grounded[j.Ground]
	steps = onBase(j)
	if j.Piece.Form.Facts().Folded {
		steps = append(steps, text(findMiddle))
	} else {
		damp := "damp the piece, so that the hook does not snag."
		if j.Dry {
			damp = "keep it dry, and work slowly where the hook snags."
		}
		steps = append(steps, text("Stretch the loop with the tail of a comb; "+damp))
	}
	way := "from below upward"
	if j.Chosen["direction"] == "down" {
		way = "from the top down"
	}
	if j.Chosen["head"] == "set-in" && j.Ground == OnCornrow {
		steps = append(steps,
			text("At the start of a cornrow in sight: as you begin it, lay the end of the piece on one strand.").drawn(moves.SetIn, 0, 0),
			text("Braid them as one for some turns: the piece goes over and under with its strand.").drawn(moves.SetIn, 0, 1))
	}
	steps = append(steps,
		text(on.push).drawn(on.hooked.Figure, on.hooked.First, on.hooked.First),
		text("Catch the loop, push the piece up while the latch comes out, and draw it half through, "+way+".").drawn(on.hooked.Figure, on.hooked.First, on.hooked.Last),
		text("Pass the tail through its own loop and tighten, never pulling the scalp; the knot "+knotWords[j.Chosen["knot"]]+".").drawn(moves.CornrowHitch, 2, 4))
	return withNext(steps, j)
}
