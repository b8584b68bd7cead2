package method

import (
	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/method/moves"
)

const seal = "Seal the tip as the fibre allows. Hot water scalds: away from skin, towel under, never over a child's back."

// untwisting are the moves in which a twist comes off: drawn backward to a frame, and on to
// the first.
func untwisting(id moves.ID, from, to int, last string) func(Range) []Step {
	return func(Range) []Step {
		return []Step{text("Untwist from the tip upward.").drawn(id, from, to), text(last).drawn(id, to, 0)}
	}
}

var twists = []Method{{
	ID: AnchorTwist, Name: "Anchor and twist", Family: Twist, Base: Anchored,
	Takes: []hair.Form{hair.Bulk, hair.CurlyBulk}, Grounds: []Ground{OnPlait},
	Summary: "A bulk strand is drawn half under the anchor turns; each half of own twist is twisted in with a leg.",
	HidesBy: "the twist: own hair becomes part of it",
	Root:    "soft, messy on purpose",
	Wash:    "roots only, diluted, dried fully",
	Mistake: "All own hair goes with one leg: that side is thick, and the twist turns over.",
	Mend:    "Untwist, part own hair in two even halves and give one to each leg.",
	Wrong:   moves.OneSided,

	LeastHair: 75, WearWeeks: [2]int{3, 5}, AsOne: true,
	traits: Traits{Pull: Light, Flat: true, Wet: Roots, Whole: false, Skill: NewHand, Off: 0.8},
	work: func(j Job) Work {
		return Work{Attach: craft.FoldTime, Conceal: craft.UndoTime + j.Piece.Length*craft.TwistRate}
	},
	steps: func(r Range) []Step {
		return []Step{
			text(findMiddle),
			text("Push the hook under the anchor turns and draw the bulk hair half through: a leg on either side.").drawn(moves.AnchorTwist, 0, 1),
			text("Undo own twist below the anchor into two even halves.").drawn(moves.AnchorTwist, 1, 2),
			text("Lay one half to each leg.").drawn(moves.AnchorTwist, 2, 3),
			with("Twist the two legs round each other, own hair inside, down {length} to the tip.", r.Long.Piece.Length).drawn(moves.AnchorTwist, 3, 5),
			text(seal),
		}
	},
	takeDown: untwisting(moves.AnchorTwist, 5, 3, "Draw the bulk hair out from under the anchor turns and undo them."),
	judge:    judges(onPlait, anchored),
}, {
	ID: FoldAndTwist, Name: "Fold and twist", Family: Twist, Base: Plaited,
	Takes: []hair.Form{hair.Bulk, hair.CurlyBulk}, Grounds: []Ground{OnPlait},
	Summary: "A bulk strand is drawn half under the plait; its legs are twisted, the plait inside one of them.",
	HidesBy: "the twist, with the plait inside one leg",
	Root:    "soft, lies flat",
	Wash:    "holds through washing, because the section is plaited whole",
	Mistake: "Both legs are twisted the same way as they go round each other: the twist springs open.",
	Mend:    "Untwist, turn each leg on itself one way and both round each other the other way.",
	Wrong:   moves.SameWay,

	LeastHair: 75, WearWeeks: [2]int{4, 6}, AsOne: true,
	traits: Traits{Pull: Light, Flat: true, Wet: Swim, Whole: false, Skill: NewHand, Off: 0.8},
	work: func(j Job) Work {
		return Work{Attach: craft.FoldTime, Conceal: j.Piece.Length * craft.TwistRate}
	},
	steps: func(r Range) []Step {
		return []Step{
			text("Take one strand. For a fuller twist lay two together, ends a little apart."),
			text("Find the middle: that is where you hook it, two as one."),
			text("Push the hook under the root of the plait and draw the bulk hair half through: two even legs.").drawn(moves.FoldTwist, 0, 1),
			text("Lay the plait inside one leg and close the hair round it.").drawn(moves.FoldTwist, 1, 2),
			with("Turn both legs on themselves the same way, and round each other the other way, down {length} to the tip.", r.Long.Piece.Length).drawn(moves.FoldTwist, 2, 4),
			fromTo("Keep the plait inside its leg to its end, at {length}; beyond it the legs are bulk hair only.", r.Short.Plait.Length(), r.Long.Plait.Length()).drawn(moves.FoldTwist, 4, 5),
			text(seal),
		}
	},
	takeDown: untwisting(moves.FoldTwist, 5, 2, "Draw the bulk hair out from under the root; the plait stays whole."),
	judge:    onPlait,
}, {
	ID: TwineAndLock, Name: "Twine and lock", Family: Twist, Base: Anchored,
	Takes: []hair.Form{hair.Twist}, Grounds: []Ground{OnPlait},
	Summary: "The loop closes round own twist and piece; the twist is wound round the piece, its tip locked in a gap.",
	HidesBy: "own twist lies in the furrows of the piece",
	Root:    "soft",
	Wash:    "not at all: wet own hair untwines",
	Mistake: "Wound against the piece's own direction: the twist crosses its grooves and shows.",
	Mend:    "Unwind, look which way the piece is twisted, and wind the same way.",
	Wrong:   moves.TwineAgainst,

	LeastHair: 75, WearWeeks: [2]int{2, 3},
	traits: Traits{Pull: Middling, Flat: true, Wet: Dry, Whole: true, Skill: NewHand, Off: 0.5},
	work: func(j Job) Work {
		return Work{Attach: craft.SharedTime, Conceal: j.Plait.Length()*craft.TwistRate + craft.LockTime}
	},
	steps: func(r Range) []Step {
		dry := r.Long
		dry.Dry = true
		out := append([]Step{stretched(dry)}, sharedHitch(moves.SharedTwist)...)
		return append(out,
			fromTo("Look which way your piece is twisted, and wind own twist round it the same way, to its tip at {length}.", r.Short.Plait.Length(), r.Long.Plait.Length()).drawn(moves.Twine, 0, 2),
			text("Poke the tip through a small gap in the piece with the hook and let the gap close.").drawn(moves.Twine, 2, 3),
			text("Keep it dry: wet own hair untwines."))
	},
	takeDown: func(Range) []Step {
		return []Step{
			text("Draw the tip out of its gap and unwind own twist up to the root.").drawn(moves.Twine, 3, 0),
			text("Draw twist and piece back out of the loop: nothing is cut.").drawn(moves.SharedTwist, 5, 0),
		}
	},
	judge: judges(onPlait, anchored),
}}
