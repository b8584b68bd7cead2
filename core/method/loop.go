package method

import (
	"fmt"
	"math"

	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/method/moves"
)

const inch = 25.4

// stretched is how every looped piece is got ready.
func stretched(j Job) Step {
	water := "damp plait and piece"
	if j.Dry {
		water = "keep plait and piece dry"
	}
	return text("Stretch the loop with the tail of a comb; " + water + "; see that the latch opens and shuts freely.")
}

// rootHitch are the moves of the hitch most pieces hang by, as they are drawn.
func rootHitch(id moves.ID) []Step {
	return []Step{
		text("Push the hook under the root of the plait, away from the part, and catch the loop.").drawn(id, 0, 1),
		text("Push the piece up while the latch comes out, so that it stays shut; draw the loop through.").drawn(id, 1, 2),
		text("Pass the tail of the piece through its own loop.").drawn(id, 2, 4),
		text("Draw plait and piece apart to tighten the hitch: snug, never pulling the scalp.").drawn(id, 4, 5),
	}
}

// intoThePiece is the first pass of a weave, a pitch below the hitch.
func intoThePiece(pitch float64) []Step {
	return []Step{
		with("Push the hook into the piece {length} below the hitch, up through its middle, and out right at the hitch.", pitch).drawn(moves.Weave, 0, 1),
		text("Catch the plait, shut the latch and draw it down inside: no plait shows at the hitch.").drawn(moves.Weave, 1, 3),
	}
}

// texts are steps without lengths.
func texts(list ...string) []Step {
	out := make([]Step, len(list))
	for i, s := range list {
		out[i] = text(s)
	}
	return out
}

// weavePitch is the way from one pass of a weave to the next.
var weavePitch = Parameter{
	Key: "pitchMm", Name: "Distance between passes", Unit: Length, Least: 10, Most: 150, Usual: 2 * inch,
	Help: "Closer passes hold better and take longer",
}

// lacePitch is the same of a lace.
var lacePitch = Parameter{
	Key: "pitchMm", Name: "Distance between passes", Unit: Length, Least: 8, Most: 50, Usual: 0.85 * inch,
	Help: "About ¾ to 1 in: no gaps",
}

// laceBeside is the pitch of a lace where a weave may be chosen instead, which has its own.
var laceBeside = Parameter{
	Key: "laceMm", Name: lacePitch.Name, Unit: Length, Least: lacePitch.Least, Most: lacePitch.Most, Usual: lacePitch.Usual,
	Help: lacePitch.Help,
}

// laced are the moves of a lace, a pitch between its passes.
func laced(r Range, pitch float64) []Step {
	return []Step{
		with("Push the hook through the braid from one side, catch own hair {length} below where it came out, draw it through.", pitch).drawn(moves.Lace, 0, 2),
		text("The next one from the other side, close below: left, right, left, no gaps.").drawn(moves.Lace, 2, 3),
		repeat(lacedOn, r.ShortWork.Passes, r.LongWork.Passes, pitch).drawn(moves.Lace, 3, 4),
		text("Pull the braid straight and smooth it: nothing of own hair shows from either side.").drawn(moves.Lace, 4, 5),
	}
}

// onLongHair is what is done with a plait that is longer than its piece.
var onLongHair = Choice{Key: "long", Name: "A plait longer than the piece", Usual: "down", Options: []Option{
	{"down", "Down to the tip", "For hair no longer than the piece"},
	{"back", "Wound back up inside", "The end is woven up again; hides nearly twice the piece's length"},
}}

// tipFinish is what is done with the tip of own hair at the end of the weave.
var tipFinish = Choice{Key: "tip", Name: "The tip of own hair", Usual: "rolled", Options: []Option{
	{"rolled", "Rolled in", "Rough hair holds itself, and nothing has to be dissolved"},
	{"turned", "Turned back", "One pass upward holds slippery ends"},
	{"glue", "A dot of glue", "Away from skin and eyes; it holds longest and is hard to undo"},
}}

var tipSteps = map[string]Step{
	"rolled": text("Roll the piece between the fingers; tuck a tip that pokes out back with the hook.").drawn(moves.Weave, 4, 5),
	"turned": text("Turn the tip back: one short pass upward, then roll the piece between the fingers.").drawn(moves.Weave, 4, 5),
	"glue":   text("A dot of glue on the tip inside the piece, away from skin and eyes. Air the room; press until it holds.").drawn(moves.Weave, 4, 5),
}

// unglued are the moves that come first where a tip was glued. A tip drawn out of its glue
// breaks. Common practice, no source.
func unglued(r Range) []Step {
	if r.Long.Chosen["tip"] != "glue" {
		return nil
	}
	return []Step{
		text("Cut the piece below the mark and open it up to the glue."),
		text("Soften the glue as its maker says, away from skin and eyes, in an aired room."),
		text("Wait, and work it off with the fingers."),
		text("Never pull the plait out of glue. Only when it is off, draw the plait out, pass by pass."),
	}
}

// snipped is how a fold or a loop is cut that lies round a plait and will not give: lifted clear on a comb, where
// nothing else can lie between the blades. Common practice, no source.
func snipped(what string) Step {
	return text("If it will not give, lift the " + what + " clear on the tail of a comb and snip it there: see both blades.")
}

// clipBand is how a band is cut that will not roll off. Common practice, no source.
const clipBand = "One that will not roll is clipped on the point of a comb slid under it, no hair above it."

func toTheTip(j Job) float64 {
	if j.Chosen["long"] == "back" {
		return craft.WoundBack * j.Piece.Length
	}
	return j.Piece.Length
}

// passes over a length: what is left after a whole number of pitches needs one more; a
// rounding error of a pitch does not.
func passes(length, pitch float64) int { return max(1, int(math.Ceil(length/pitch-1e-9))) }

var loops = []Method{{
	ID: HitchAndWeave, Name: "Hitch and weave", Family: Loop, Base: Plaited,
	Takes: []hair.Form{hair.Twist, hair.SoftLoc}, Grounds: []Ground{OnPlait},
	Summary: "The piece is hitched by its loop under the root; the plait is drawn into its middle, pass by pass.",
	HidesBy: "passes through the middle of the piece",
	Root:    "a small ridge where the hitch sits",
	Wash:    "holds through washing",
	Mistake: "The hook goes in at the side of the piece, and the plait shows between its strands.",
	Mend:    "Draw that pass back and go in again through the middle, a pitch lower.",
	Wrong:   moves.WeaveAside,

	LeastHair: 50, WearWeeks: [2]int{6, 8},
	traits:     Traits{Pull: Middling, Flat: false, Wet: Swim, Whole: false, Skill: UsedHand, Off: 0.4},
	Parameters: []Parameter{weavePitch.only(weave), ribbonWidth.only(wrap), wrapTail.only(wrap)},
	Choices:    []Choice{covered(weave, wrap), onLongHair.only(weave), tipFinish.only(weave), wrapEnd.only(wrap)},
	work: func(j Job) Work {
		w := coverOf(j.Chosen).work(j)
		w.Attach += craft.HitchTime
		return w
	},
	reach: toTheTip,
	steps: func(r Range) []Step {
		out := append([]Step{stretched(r.Long)}, rootHitch(moves.RootHitch)...)
		return append(out, coverOf(r.Long.Chosen).steps(r)...)
	},
	cuts: true,
	takeDown: func(r Range) []Step {
		c := coverOf(r.Long.Chosen)
		return append(c.free(r), text(c.off).drawn(moves.RootHitch, 5, 0))
	},
	judge: judges(onPlait, underCover, ownLoop, roomy),
}, {
	ID: HitchAndZigzag, Name: "Hitch and zigzag", Family: Loop, Base: Plaited,
	Takes: []hair.Form{hair.Braid}, Grounds: []Ground{OnPlait},
	Summary: "The piece is hitched under the root; the plait is laced through its middle from one side and the other, close together.",
	HidesBy: "a zigzag through the middle of the braid",
	Root:    "flat and secure",
	Wash:    "holds through washing",
	Mistake: "Gaps between the passes: the plait shows on one side.",
	Mend:    "Go back to the gap and put in two passes closer together, from either side.",
	Wrong:   moves.LaceGap,

	LeastHair: 25, WearWeeks: [2]int{6, 8},
	traits:     Traits{Pull: Middling, Flat: true, Wet: Swim, Whole: false, Skill: NewHand, Off: 0.5},
	Parameters: []Parameter{lacePitch},
	Choices: []Choice{{Key: "hair", Name: "Own hair", Usual: "plaited", Options: []Option{
		{"plaited", "Plaited first", "Holds best, and protects the ends"},
		{"loose", "Loose, drawn through the loop", "For very short hair: once more on a large section, twice on a small one, never more"},
		{"accent", "Loose, three draws in all", "For a small accent that must not slip"},
		{"once", "Loose, no more draws", "Quick and soft at the root; it slips sooner"},
	}}},
	work: func(j Job) Work {
		n := passes(j.Plait.Length(), j.Settings["pitchMm"])
		return Work{Passes: n, Attach: craft.HitchTime + craft.DrawTime*float64(draws(j)), Conceal: float64(n) * craft.LaceTime, Unplaited: j.Chosen["hair"] != "plaited"}
	},
	unplaited: func(c Chosen) bool { return c["hair"] != "plaited" },
	steps: func(r Range) []Step {
		pitch := r.Long.Settings["pitchMm"]
		out := []Step{stretched(r.Long)}
		if r.Long.Chosen["hair"] == "plaited" {
			out = append(out, rootHitch(moves.RootHitchBraid)...)
		} else {
			out = append(out,
				text("Look for the side where the braid's pattern points up, like an upturned V.").drawn(moves.LooseDraw, 0, 0),
				text("From there push the hook through the loop, catch own hair at its root and draw it through.").drawn(moves.LooseDraw, 0, 1))
			turn := text("Turn the piece so that its smooth side lies outward.")
			if most := draws(r.Short); most > 0 {
				out = append(out, drawStep(draws(r.Long), most).drawn(moves.LooseDraw, 1, 2))
				turn = turn.drawn(moves.LooseDraw, 2, 3)
			}
			out = append(out, turn)
		}
		return append(out, laced(r, pitch)...)
	},
	cuts: true,
	takeDown: func(r Range) []Step {
		off := text("Open the loop with the tail of a comb and draw it off.").drawn(moves.RootHitchBraid, 5, 0)
		if r.Long.Chosen["hair"] != "plaited" {
			off = off.drawn(moves.LooseDraw, 3, 0)
		}
		return []Step{
			text("Trim the braid below the mark."),
			text("Unravel it upward: own hair comes free by itself.").drawn(moves.Lace, 4, 0),
			off,
		}
	},
	judge: judges(onPlait, vanishing(craft.InBraid), ownLoop, roomy),
}, {
	ID: HiddenKnot, Name: "Hidden-knot fold", Family: Loop, Base: Plaited,
	Takes: []hair.Form{hair.Bulk, hair.CurlyBulk}, Grounds: []Ground{OnPlait, OnCornrow, OnNet, OnLink, OnLaid},
	Summary: "A strand is folded through the root; a thin part of one leg knots it, the other falls over the knot.",
	HidesBy: "nothing is hidden: the strands fall over the base",
	Root:    "very flat, the knot out of sight",
	Wash:    "roots only, diluted, dried fully",
	Mistake: "The knot is made with the whole leg: a lump shows at the root.",
	Mend:    "Open it while it is loose, part a thin strand off the leg and knot with that alone.",
	Wrong:   moves.Lump,

	LeastHair: 25, WearWeeks: [2]int{3, 6},
	traits: Traits{Pull: Light, Flat: true, Wet: Roots, Whole: false, Skill: NewHand, Off: 0.2},
	Parameters: []Parameter{{
		Key: "turns", Name: "Turns of the leg through the fold", Unit: Count, Least: 2, Most: 3, Usual: 2,
		Help: "Three for slippery hair",
	}},
	Choices: []Choice{knotSide},
	work:    func(j Job) Work { return Work{Attach: craft.KnotTime + craft.KnotTurn*(j.Settings["turns"]-2)} },
	steps: func(r Range) []Step {
		j := r.Long
		out := onBase(j)
		out = append(out,
			text(findMiddle),
			text(grounded[j.Ground].push).drawn(moves.HiddenKnot, 0, 0),
			text("Catch the strand at its middle and draw it through: a fold on one side, two legs on the other.").drawn(moves.HiddenKnot, 0, 1),
			text("See which leg will be covered when the hair falls; part a thin strand off that leg.").drawn(moves.HiddenKnot, 1, 2),
			text(fmt.Sprintf("Pass the thin strand through the fold %.0f times, on the side %s, and tighten both ways.", j.Settings["turns"], knotWords[j.Chosen["knot"]])).drawn(moves.HiddenKnot, 2, 3),
			text("Let the other leg fall over the knot.").drawn(moves.HiddenKnot, 3, 4))
		return withNext(out, j)
	},
	takeDown: func(Range) []Step {
		return []Step{
			text("Lift the leg off the knot. Loosen the thin part with a comb's tail and draw it out of the fold.").drawn(moves.HiddenKnot, 4, 2),
			snipped("fold"),
			text("Draw the strand out by its legs. What will not come is not pulled: look at it again.").drawn(moves.HiddenKnot, 2, 0),
		}
	},
	reach: func(j Job) float64 { return craft.FallsOver * j.Piece.Length },
	judge: func(m Method, j Job) []advice.Finding {
		if j.Ground == OnPlait { // the plait hangs under the strands
			return onPlait(m, j)
		}
		return append(suited(m, j), tender(j)...)
	},
}, {
	ID: SplitRoot, Name: "Split root", Family: Loop, Base: Plaited,
	Takes: []hair.Form{hair.Twist, hair.Braid, hair.SoftLoc}, Grounds: []Ground{OnPlait},
	Summary: "The piece is hitched on a small strand, which is plaited in: the plait leads away from the knot.",
	HidesBy: "passes through the middle of the piece",
	Root:    "the flattest, and the least pull",
	Wash:    "holds through washing",
	Mistake: "The small strand is too thin: it bears the whole piece by itself.",
	Mend:    "Take a third of the section for it, and plait it in right at the root.",
	Wrong:   moves.ThinStrand,

	LeastHair: 75, WearWeeks: [2]int{6, 8},
	traits:     Traits{Pull: Light, Flat: true, Wet: Swim, Whole: false, Skill: PractisedHand, Off: 0.8},
	Parameters: []Parameter{weavePitch.only(weave), laceBeside.only(lace), ribbonWidth.only(wrap), wrapTail.only(wrap)},
	Choices: []Choice{{Key: "hold", Name: "The small strand", Usual: "plaited", Options: []Option{
		{Key: "plaited", Name: "Plaited in with the rest", Help: "Small strand and halves of the large one make a three-strand plait"},
		{Key: "banded", Name: "Gathered and banded", Help: "On fine hair; a band tangles, and perishes within days"},
	}}, covered(weave, lace, wrap), tipFinish.only(weave), wrapEnd.only(wrap)},
	work: func(j Job) Work {
		w := coverOf(j.Chosen).work(j)
		w.Attach += craft.HitchTime + craft.SplitRootTime
		if j.Chosen["hold"] == "banded" {
			w.Bands = 1
		}
		return w
	},
	unplaited: func(Chosen) bool { return true },
	steps: func(r Range) []Step {
		out := []Step{
			stretched(r.Long),
			text("Leave the section unplaited. Part off a third, on the side away from the part: the small strand.").drawn(moves.SplitRoot, 0, 0),
			text("Push the hook through the loop of the piece, catch the small strand and draw it through, down to its root.").drawn(moves.SplitRoot, 0, 3),
		}
		if r.Long.Chosen["hold"] == "banded" {
			out = append(out, text("Gather small and large strand and put a thin band round them, close to the root but not pulling.").drawn(moves.SplitBand, 0, 1))
		} else {
			out = append(out, text("Halve the large strand; plait small strand and halves, three strands, away from the knot.").drawn(moves.SplitRoot, 3, 5))
		}
		return append(out, coverOf(r.Long.Chosen).steps(r)...)
	},
	cuts: true,
	takeDown: func(r Range) []Step {
		c := coverOf(r.Long.Chosen)
		steps := c.free(r)
		if r.Long.Chosen["hold"] == "banded" {
			steps = append(steps, text("Roll the band off both strands.").drawn(moves.SplitBand, 1, 0), text(clipBand))
		} else {
			steps = append(steps, text("Undo the plait up to the knot.").drawn(moves.SplitRoot, 5, 3))
		}
		return append(steps, text(c.off).drawn(moves.SplitRoot, 3, 0))
	},
	judge: judges(onPlait, underCover, ownLoop),
}, {
	ID: Stack, Name: "Stack", Family: Loop, Base: Plaited,
	Takes: []hair.Form{hair.CurlyBulk, hair.Bulk}, Grounds: []Ground{OnPlait},
	Summary: "Several small pieces are hitched along one plait, at its tip, its body and its root; each covers the one below.",
	HidesBy: "pieces that cover each other",
	Root:    "full",
	Wash:    "roots only, diluted, dried fully",
	Mistake: "The root piece goes on first, and those below can no longer be reached.",
	Mend:    "Lift it aside, and go on from the tip upward.",
	Wrong:   moves.RootFirst,

	LeastHair: 75, WearWeeks: [2]int{4, 6},
	traits: Traits{Pull: Middling, Flat: false, Wet: Roots, Whole: false, Skill: UsedHand, Off: 0.2},
	Parameters: []Parameter{{
		Key: "stations", Name: "Pieces along one plait", Unit: Count, Least: 3, Most: 5, Usual: 3,
		Help: "Tip, body and root; one or two more on the body of a long plait",
	}},
	pieces: func(s Settings) int { return int(s["stations"]) },
	work:   func(Job) Work { return Work{Attach: craft.StackTime} },
	reach:  func(j Job) float64 { return 2 * j.Piece.Length }, // the lowest hangs from the tip
	steps: func(r Range) []Step {
		n := int(r.Long.Settings["stations"])
		apart := r.Long.Plait.Length() / float64(n-1)
		return []Step{
			text("Take one small piece and find its middle."),
			text("At the tip fold it over. Braid both legs and own hair as three strands until no own hair is left.").drawn(moves.Stack, 0, 0),
			text("Lead the tail once round all and through its own turn; draw the knot tight below own hair.").drawn(moves.Stack, 0, 1),
			with(fmt.Sprintf("At the body: hitch the next ones every {length} upward, %d in all with tip and root.", n), apart).drawn(moves.Stack, 1, 2),
			text("Last, at the root: draw the fold under the plait, pass the legs through it and tighten: snug, never pulling.").drawn(moves.Stack, 2, 3),
			text("Shake the head: each piece covers the knot below it. Fill where one shows."),
		}
	},
	takeDown: func(Range) []Step {
		return []Step{
			text("From the root down: lift the piece and draw its body back out of its loop.").drawn(moves.Stack, 3, 1),
			snipped("loop"),
			text("At the tip undo the knot and unbraid.").drawn(moves.Stack, 1, 0),
		}
	},
	judge: onPlait,
}}

// draws is how many more times loose hair is drawn through the loop: once on a large section,
// twice on a small one or an accent, never more.
func draws(j Job) int {
	switch {
	case j.Chosen["hair"] == "accent":
		return 2
	case j.Chosen["hair"] != "loose": // plaited, or drawn through once and no more
		return 0
	case j.Plait.Area >= craft.LargeSection:
		return 1
	}
	return 2
}

func drawStep(large, small int) Step {
	switch {
	case large == 1 && small == 1:
		return text("Draw it through once more, from the other side, round the other leg of the loop. Never more here.")
	case large == 2 && small == 2:
		return text("Draw it through twice more, from the other side each time, round the other leg of the loop. Never more.")
	}
	return text("Draw it through from the other side, round the other leg: once more on large sections, twice on small ones.")
}

// The ways a pass follows the last.
const (
	wovenOn = "Go in {length} lower, and come out where the plait came out last"
	lacedOn = "Repeat every {length}"
)

// repeat is the step after the first of least to most passes, each made as told.
func repeat(how string, least, most int, pitch float64) Step {
	switch {
	case most == 1:
		return text("One pass is enough here: draw on until the end of the plait is inside.")
	case least == most:
		return with(fmt.Sprintf("%s, until the plait is inside: %d passes in all.", how, most), pitch)
	}
	return with(fmt.Sprintf("%s, until the plait is inside: %d to %d passes, as long as it is.", how, least, most), pitch)
}
