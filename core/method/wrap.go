package method

import (
	"math"

	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/method/moves"
	"kladotex/core/supply"
)

// ribbonWidth and wrapTail are what every wrap lets be set.
var (
	ribbonWidth = Parameter{Key: "ribbonMm", Name: "Width of one turn", Unit: Fine, Least: 2, Most: 25, Usual: 6, Help: "As much of the wrapping hair as shows of a turn"}
	wrapTail    = Parameter{Key: "tailMm", Name: "Tail of the wrapping hair", Unit: Length, Least: 0, Most: 150, Usual: 2.5 * inch, Help: "Laid along the base before winding begins"}
)

// wrapEnd is how a wrap is ended; the schools differ.
var wrapEnd = Choice{Key: "end", Name: "The end of a wrap", Usual: "tucked", Options: []Option{
	{"tucked", "Tucked under its last turns", "Rough wrapping hair holds itself, and nothing has to be dissolved"},
	{"glue", "A dot of glue", "For slippery hair; away from skin and eyes, and slower to undo"},
}}

// sealed are the last moves of a wrap.
func sealed(r Range, last Step) []Step {
	if r.Long.Chosen["end"] != "glue" {
		return []Step{last}
	}
	return []Step{last, text("A dot of glue under the last turn, away from skin and eyes. Air the room; press until it holds.")}
}

// sealTime is what the end of a wrap takes.
func sealTime(j Job) float64 {
	if j.Chosen["end"] == "glue" {
		return craft.GlueTime
	}
	return 0
}

// wrapBase is the thickness of what is wound over: the plait with the piece's tail lying
// along it, their cross-sections added, mm.
func wrapBase(j Job) float64 { return math.Hypot(j.Plait.Diameter, craft.TailShare*j.Piece.Thickness) }

// wound is what winding over length mm takes.
func wound(j Job, length, attach float64) Work {
	width := j.Settings["ribbonMm"]
	ribbon := supply.WrapRibbon(length, wrapBase(j), width) + j.Settings["tailMm"]
	return Work{
		Ribbon: ribbon, Turns: length / width, Strands: int(math.Ceil(ribbon / j.Wrapping.StrandLength)),
		Attach: attach, Conceal: length*craft.WrapRate + sealTime(j),
	}
}

// unwinding are the moves in which a wrap comes off, as the figure of its winding is drawn from
// frame to frame. Hair that is unwound comes free by itself.
func unwinding(id moves.ID, from, half, to int) func(Range) []Step {
	return func(r Range) []Step {
		var steps []Step
		if r.Long.Chosen["end"] == "glue" {
			steps = texts("Soften the glue as its maker says, away from skin and eyes, in an aired room. Never pull.")
		}
		return append(steps,
			text("Find the end of the wind under its last turns and loosen it backward.").drawn(id, from, half),
			text("If it will not give, lift one turn past the plait's end clear on the tail of a comb; snip that alone."),
			text("Unwind upward to the root.").drawn(id, half, to))
	}
}

// unwound are the same and the move after them: the rest of the piece stays whole.
func unwound(id moves.ID, from, half, to int, more Step) func(Range) []Step {
	return func(r Range) []Step { return append(unwinding(id, from, half, to)(r), more) }
}

// winding are the moves of a wrap over plait and piece, both hanging from the root.
func winding(r Range) []Step {
	return append([]Step{
		with("Lay {length} of the wrapping hair down along plait and piece.", r.Long.Settings["tailMm"]).drawn(moves.Wind, 0, 0),
		text("Wind its long side over them, twice at the start, slack enough that the scalp does not move.").drawn(moves.Wind, 0, 1),
		with("Go on downward, each turn {length} below the last.", r.Long.Settings["ribbonMm"]).drawn(moves.Wind, 1, 2),
		with("Go on until {length} past the end of the plait, so that own hair cannot poke out.", craft.WoundPast).drawn(moves.Wind, 2, 3),
	}, sealed(r, text("Lay the last turns back upward, tuck the end under them and roll the piece between the palms.").drawn(moves.Wind, 3, 4))...)
}

// tooTight advises against a hitch that sits tight on the scalp where that is tender.
func tooTight(_ Method, j Job) []advice.Finding {
	if !j.TenderScalp {
		return nil
	}
	return []advice.Finding{finding(advice.TenderScalp, advice.Danger, 1, func() (string, string) {
		return "Tender scalp: a hitch that plait and piece share sits tighter on the scalp than any other.",
			"Choose collar and wrap or a split root there; pain, bumps or stinging mean loosen now."
	})}
}

// moist is how plait and piece are kept while a wrap is begun; the schools differ.
func moist(j Job) string {
	if j.Dry {
		return "; keep both dry"
	}
	return "; damp both"
}

// sharedHitch are the moves of a hitch through which plait and piece go together, as they
// are drawn.
func sharedHitch(id moves.ID) []Step {
	return []Step{
		text("Push the hook under the root of the plait, away from the part, catch the loop and draw it through.").drawn(id, 0, 2),
		text("Pass the end of the plait and the body of the piece through the loop together.").drawn(id, 2, 4),
		text("Draw the plait up and the piece down until the loop closes: snug, never pulling the scalp.").drawn(id, 4, 5),
	}
}

var wraps = []Method{{
	ID: SharedLoop, Name: "Shared loop and wrap", Family: Wrap, Base: Plaited,
	Takes: []hair.Form{hair.SoftLoc, hair.HandmadeLoc}, Grounds: []Ground{OnPlait},
	Summary: "The loop of the piece closes round plait and piece together; wrapping hair is wound over both.",
	HidesBy: "wrapping hair wound past the end of the plait",
	Root:    "may feel tight: not for a tender scalp",
	Wash:    "roots only, diluted, dried fully",
	Mistake: "Wound too near the scalp with all the hair at once: a fat, tight base.",
	Mend:    "Unwind to the root, split the wrapping hair thin and begin a finger's breadth lower.",
	Wrong:   moves.WindFat,

	LeastHair: 75, WearWeeks: [2]int{6, 8}, Wraps: true,
	traits:     Traits{Pull: Tight, Flat: false, Wet: Roots, Whole: true, Skill: UsedHand, Off: 2.5},
	Parameters: []Parameter{ribbonWidth, wrapTail},
	Choices:    []Choice{wrapEnd},
	work:       func(j Job) Work { return wound(j, j.Plait.Length()+craft.WoundPast, craft.SharedTime) },
	steps: func(r Range) []Step {
		out := append([]Step{text("Stretch the loop of the piece until plait and piece pass through it" + moist(r.Long) + ".")}, sharedHitch(moves.SharedHitch)...)
		return append(out, winding(r)...)
	},
	takeDown: unwound(moves.Wind, 4, 2, 0, text("Draw the piece up out of the shared loop, then the plait; open the loop and draw it off.").drawn(moves.SharedHitch, 5, 0)),
	judge:    judges(untender, fatBase, tooTight, roomy),
}, {
	ID: CollarAndWrap, Name: "Collar and wrap", Family: Wrap, Base: Plaited,
	Takes: []hair.Form{hair.SoftLoc, hair.HandmadeLoc}, Grounds: []Ground{OnPlait},
	Summary: "The piece slides over the plait like a collar; wrapping hair, hooked through the root, is wound over both.",
	HidesBy: "wrapping hair wound past the end of the plait",
	Root:    "slim if the wrapping hair is split thin",
	Wash:    "roots only, diluted, dried fully",
	Mistake: "Too much wrapping hair: the base comes out fat and heavy and feels tight.",
	Mend:    "Unwind it, split it in two and wind with one half.",
	Wrong:   moves.CollarFat,

	LeastHair: 75, WearWeeks: [2]int{6, 8}, Wraps: true,
	traits:     Traits{Pull: Middling, Flat: true, Wet: Roots, Whole: true, Skill: UsedHand, Off: 2.5},
	Parameters: []Parameter{ribbonWidth, wrapTail},
	Choices:    []Choice{wrapEnd},
	work:       func(j Job) Work { return wound(j, j.Plait.Length()+craft.WoundPast, craft.CollarTime) },
	steps: func(r Range) []Step {
		out := []Step{
			text("Stretch the loop of the piece until the plait slides through it" + moist(r.Long) + "."),
			text("Slide the piece over the plait like a collar, right up to the root.").drawn(moves.Collar, 0, 1),
			text("Push the hook under the root, catch the plait's end and draw it back through.").drawn(moves.Collar, 1, 3),
			text("Bring the end over its own root and tuck it down through the fold it made; pull until the fold closes.").drawn(moves.Collar, 3, 4),
			with("Split the wrapping hair thin, hook it through the root and leave a tail of {length} along the base.", r.Long.Settings["tailMm"]).drawn(moves.Collar, 4, 5),
			with("Wind evenly over plait and tail, each turn {length} below the last, slack enough that the scalp does not move.", r.Long.Settings["ribbonMm"]).drawn(moves.Collar, 5, 6),
			with("Go on until {length} past the end of the plait, so that own hair cannot poke out.", craft.WoundPast).drawn(moves.Collar, 6, 7),
		}
		return append(out, sealed(r, text("Lay the last turns back upward, tuck the end under them and roll the piece between the palms.").drawn(moves.Collar, 7, 7))...)
	},
	takeDown: unwound(moves.Collar, 7, 6, 4, text("Draw the plait's end out of the fold, back over its root and out from under it. Slide the piece off.").drawn(moves.Collar, 4, 0)),
	judge:    judges(onPlait, fatBase),
}, {
	ID: OpenCoil, Name: "Open coil", Family: Wrap, Base: Plaited,
	Takes: []hair.Form{hair.CoilLoc}, Grounds: []Ground{OnPlait},
	Summary: "Plait and piece go through the loop together; the hollow coil is opened and let close round the plait.",
	HidesBy: "the coil itself",
	Root:    "medium",
	Wash:    "roots only, diluted, dried fully",
	Mistake: "The coil is opened all at once: it loses its spring and stands off the plait.",
	Mend:    "Let go, start again at the root, and open no more than a finger's breadth at a time.",
	Wrong:   moves.CoilWide,

	LeastHair: 50, WearWeeks: [2]int{6, 8},
	traits: Traits{Pull: Middling, Flat: false, Wet: Roots, Whole: true, Skill: NewHand, Off: 1.0},
	Parameters: []Parameter{{
		Key: "starts", Name: "Turns in one place at each start", Unit: Count, Least: 1, Most: 4, Usual: 2, Help: "Twice round holds the coil where it begins",
	}},
	work: func(j Job) Work {
		return Work{Attach: craft.SharedTime, Conceal: (j.Plait.Length()+craft.WoundPast)*craft.CoilRate + 0.1*j.Settings["starts"]}
	},
	steps: func(r Range) []Step {
		times := map[float64]string{1: "once", 2: "twice", 3: "three times", 4: "four times"}[r.Long.Settings["starts"]]
		out := append([]Step{text("Stretch the loop of the piece until plait and piece pass through it" + moist(r.Long) + ".")}, sharedHitch(moves.SharedCoil)...)
		return append(out,
			text("Open the coil a little below the loop and lay the plait into it: "+times+" round where you begin.").drawn(moves.Coil, 0, 1),
			text("Let it close and go on downward, a finger's breadth at a time; "+times+" round at each new start.").drawn(moves.Coil, 1, 2),
			with("Go on until {length} past the end of the plait.", craft.WoundPast).drawn(moves.Coil, 2, 3),
			text("Roll it between the palms until it lies smooth.").drawn(moves.Coil, 3, 4))
	},
	takeDown: func(Range) []Step {
		return []Step{
			text("Open the coil from below, turn by turn, up to the root.").drawn(moves.Coil, 4, 0),
			text("Draw piece and plait back out of the loop. Nothing is cut: the coil closes again.").drawn(moves.SharedCoil, 5, 0),
		}
	},
	judge: judges(onPlait, vanishing(craft.InSoft), roomy),
}, {
	ID: Banded, Name: "Plait round loc, banded", Family: Wrap, Base: Plaited,
	Takes: []hair.Form{hair.HandmadeLoc}, Grounds: []Ground{OnPlait},
	Summary: "The plait goes through the loc's eye, round the loc and back up; a band and a thin wrap cover its end.",
	HidesBy: "a cover of wrapping hair over plait and band",
	Root:    "bulkier at first, settles",
	Wash:    "roots only, diluted, dried fully",
	Mistake: "The blunt end of the cover lies outside and frays.",
	Mend:    "Wind it back, lay the blunt end inside against the plait, and wind the thinned ends in.",
	Wrong:   moves.BluntOut,

	LeastHair: 200, WearWeeks: [2]int{6, 10}, Wraps: true,
	traits:     Traits{Pull: Middling, Flat: false, Wet: Roots, Whole: true, Skill: PractisedHand, Off: 2.5},
	Parameters: []Parameter{ribbonWidth, {Key: "tailMm", Name: "Tail of the wrapping hair", Unit: Length, Least: 0, Most: 150, Usual: inch, Help: "Its blunt end, inside against the plait"}},
	work: func(j Job) Work {
		w := wound(j, craft.BandedShare*j.Plait.Length()+craft.WoundPast, craft.CollarTime)
		w.Conceal += craft.BandTime
		w.Bands = 1
		return w
	},
	reach: func(j Job) float64 { return craft.WoundBack * j.Piece.Length },
	steps: func(r Range) []Step {
		return []Step{
			text("Slide a thin band over the loc and let it wait there.").drawn(moves.Banded, 0, 0),
			text("Draw the plait through the loc's eye, up to the root.").drawn(moves.Banded, 0, 0),
			fromTo("Wind the plait round the loc down to about {length}, then back up.", craft.BandedShare*r.Short.Plait.Length(), craft.BandedShare*r.Long.Plait.Length()).drawn(moves.Banded, 0, 2),
			text("Push the band up over the end of the plait.").drawn(moves.Banded, 2, 3),
			with("Hook a thin strand of wrapping hair through the root, {length} of its blunt end inside against the plait.", r.Long.Settings["tailMm"]).drawn(moves.Banded, 3, 4),
			with("Wind it over plait and band, each turn {length} below the last; wind the thinned ends in.", r.Long.Settings["ribbonMm"]).drawn(moves.Banded, 4, 5),
			text("Roll the loc between the palms.").drawn(moves.Banded, 5, 5),
		}
	},
	cuts: true,
	takeDown: func(Range) []Step {
		return []Step{
			text("Wind the cover backward until it hangs free of own hair.").drawn(moves.Banded, 5, 3),
			text("Hold it away and snip the hanging part, or unwind it all."),
			text("Roll the band off the end of the plait; it may be gone by now.").drawn(moves.Banded, 3, 2),
			text(clipBand),
			text("Untwist the plait from the loc and slide the loc off: it stays whole.").drawn(moves.Banded, 2, 0),
		}
	},
	judge: judges(onPlait, fatBase),
}, {
	ID: BuiltOnHead, Name: "Built on the head", Family: Wrap, Base: Plaited,
	Takes: []hair.Form{hair.Bulk, hair.CurlyBulk}, Grounds: []Ground{OnPlait},
	Summary: "Base hair is drawn half under the root; wrapping hair is wound round it and the plait, down to the tip.",
	HidesBy: "wrapping hair over the whole length",
	Root:    "looks as if it grew there",
	Wash:    "roots only, diluted, dried fully",
	Mistake: "Base hair of one length ends in a step: the loc breaks off there.",
	Mend:    "Thin the ends of the base hair with the fingers before winding over them.",
	Wrong:   moves.BuiltStep,

	LeastHair: 50, WearWeeks: [2]int{6, 12}, Wraps: true,
	traits:     Traits{Pull: Middling, Flat: true, Wet: Roots, Whole: false, Skill: PractisedHand, Off: 2.5},
	Parameters: []Parameter{ribbonWidth, wrapTail},
	Choices: []Choice{{Key: "surface", Name: "The surface", Usual: "smooth", Options: []Option{
		{"smooth", "Smooth", "Even turns"},
		{"teased", "Some loops teased out", "By the thumb, for a grown-in look"},
	}}, wrapEnd},
	work: func(j Job) Work { return wound(j, j.Piece.Length, craft.HookedTime) },
	steps: func(r Range) []Step {
		id, wound := moves.Built, 2
		if r.Long.Chosen["surface"] == "teased" {
			id = moves.BuiltSoft
		}
		out := []Step{
			text("Push the hook under the root along the row and draw the base hair half through; leave it loose.").drawn(id, 0, 0),
			with("Draw the wrapping hair half under the same root, across the row, with a tail of {length}.", r.Long.Settings["tailMm"]).drawn(id, 0, 1),
			with("Wind it round base hair and plait, each turn {length} below the last, slack enough that the scalp does not move.", r.Long.Settings["ribbonMm"]).drawn(id, 1, wound),
		}
		out = append(out, text("Near its end lay a second strand along the base, wind three turns over it, and go on with the second.").drawn(id, wound, wound+1))
		wound++
		if id == moves.BuiltSoft {
			out = append(out, text("Let the thumb tease a loop out here and there.").drawn(id, wound, wound+1))
			wound++
		}
		out = append(out, with("Go on to {length}, past the end of the plait.", r.Long.Piece.Length).drawn(id, wound, wound+1))
		return append(out, sealed(r, text("At the tip wind upward again to seal it, and roll it between the palms.").drawn(id, wound+1, wound+1))...)
	},
	cuts: true,
	takeDown: func(Range) []Step {
		return []Step{
			text("Cut below the mark."),
			text("Unwind what is left up to the root and draw the base hair out.").drawn(moves.Built, 2, 0),
		}
	},
	judge: judges(onPlait, fatBase),
}}
