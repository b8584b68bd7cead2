package method

import (
	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/method/moves"
)

// braidedBy is the work of a braid of so much hair: it ends at the bundle's length after
// take-up.
func braidedBy(j Job, start float64) Work {
	w := Work{Attach: start, Conceal: j.Piece.Length * craft.BraidRate, Unplaited: true}
	if j.Chosen["end"] == "band" {
		w.Bands = 1
	}
	return w
}

// tips are how the ends of a braid are finished.
var tips = Choice{Key: "end", Name: "The end of the braid", Usual: "water", Child: "loose", Options: []Option{
	{"water", "Dipped in hot water", "Seals the fibre; water scalds"},
	{"loose", "Left loose", "A few inches of curl below the last turns"},
	{"band", "A band", "Quick; it perishes within weeks"},
}}

// tipEnds are the moves of each. Water of 140 °F burns in about six seconds: consumer safety
// advice, from memory.
var tipEnds = map[string][]Step{
	"water": texts("Dip the ends in hot water. It scalds: at 60 °C (140 °F) skin burns in seconds.",
		"Keep it off skin, a towel between, never over a child's back, never near the face."),
	"loose": texts("Stop a few inches above the end and leave the rest loose."),
	"band":  texts("Put a small band round the end."),
}

// braidedOn are the last moves of a braid, drawn from one frame to the next.
func braidedOn(r Range, id moves.ID, from int) []Step {
	on := with("Braid on, each turn as tight as the last, to about {length}: there the braiding hair ends after take-up.", r.Long.Piece.Length)
	return append([]Step{on.drawn(id, from, from+1)}, tipEnds[r.Long.Chosen["end"]]...)
}

var braids = []Method{{
	ID: OwnStrand, Name: "Own hair as a strand", Family: Braid, Base: Loose,
	Takes: []hair.Form{hair.BraidingHair}, Grounds: []Ground{OnPlait},
	Summary: "Braiding hair is folded round own hair at the root: two strands of it, and own hair is the third.",
	HidesBy: "the braid itself",
	Root:    "knotted: a small knot shows",
	Wash:    "roots only, diluted, dried fully",
	Mistake: "Own hair runs out and the third strand is suddenly thin.",
	Mend:    "Borrow a little from each of the others well above its end.",
	Wrong:   moves.RunsOut,

	LeastHair: 50, WearWeeks: [2]int{6, 8}, Choices: []Choice{tips}, AsOne: true,
	traits:    Traits{Pull: Middling, Flat: false, Wet: Roots, Whole: false, Skill: UsedHand, Off: 3},
	work:      func(j Job) Work { return braidedBy(j, craft.BraidStart) },
	unplaited: func(Chosen) bool { return true },
	steps: func(r Range) []Step {
		return append([]Step{
			text("Part the section and comb it smooth; leave it unplaited.").drawn(moves.OwnStrand, 0, 0),
			text("Fold the bundle round own hair at the root: two strands of braiding hair, own hair is the third.").drawn(moves.OwnStrand, 0, 1),
			text("Braid the first turns close to the scalp, never so tight that the skin lifts.").drawn(moves.OwnStrand, 1, 2),
			fromTo("Before own hair ends, at {length}, borrow a little from the other two strands for the third.", r.Short.Hair, r.Long.Hair).drawn(moves.OwnStrand, 2, 3),
		}, braidedOn(r, moves.OwnStrand, 3)...)
	},
	cuts: true,
	takeDown: func(Range) []Step {
		return []Step{
			text("Cut the braid below the mark."),
			text("Unbraid upward with the tail of a comb, and take the braiding hair out at the root.").drawn(moves.OwnStrand, 4, 0),
		}
	},
	judge: braidJudge,
}, {
	ID: WrappedThird, Name: "A wrapped third", Family: Braid, Base: Loose,
	Takes: []hair.Form{hair.BraidingHair}, Grounds: []Ground{OnPlait},
	Summary: "A third of the bundle is wrapped once round the rest and becomes a strand: nothing is borrowed later.",
	HidesBy: "the braid itself",
	Root:    "knotless: it lies flat",
	Wash:    "roots only, diluted, dried fully",
	Mistake: "The bundle is parted in halves: two strands are thick and the third is thin.",
	Mend:    "Part one third from two thirds before you begin.",
	Wrong:   moves.Halves,

	LeastHair: 50, WearWeeks: [2]int{6, 8}, Choices: []Choice{tips}, AsOne: true,
	traits:    Traits{Pull: Light, Flat: true, Wet: Roots, Whole: false, Skill: PractisedHand, Off: 3},
	work:      func(j Job) Work { return braidedBy(j, craft.BraidStart+craft.ThirdTime) },
	unplaited: func(Chosen) bool { return true },
	steps: func(r Range) []Step {
		return append([]Step{
			text("Part the section and comb it smooth; leave it unplaited."),
			text("Part the bundle: one third, and two thirds.").drawn(moves.WrappedThird, 0, 0),
			text("Lay the bundle to the root and hold it with the fingers: nothing holds it until it is braided.").drawn(moves.WrappedThird, 0, 1),
			text("Wrap the third once round the rest: now there are three strands.").drawn(moves.WrappedThird, 1, 2),
			fromTo("Lay own hair into one strand; it ends inside at {length}.", r.Short.Hair, r.Long.Hair).drawn(moves.WrappedThird, 2, 3),
			text("Braid the first turns close to the scalp, never so tight that the skin lifts. Nothing is borrowed.").drawn(moves.WrappedThird, 3, 4),
		}, braidedOn(r, moves.WrappedThird, 4)...)
	},
	cuts: true,
	takeDown: func(Range) []Step {
		return []Step{
			text("Cut the braid below the mark."),
			text("Unbraid upward with the tail of a comb, and unwrap the third at the root.").drawn(moves.WrappedThird, 5, 0),
		}
	},
	judge: braidJudge,
}, {
	ID: FedIn, Name: "Fed-in braid", Family: Braid, Base: Loose,
	Takes: []hair.Form{hair.BraidingHair}, Grounds: []Ground{OnEnd},
	Summary: "Braiding hair is fed into a cornrow a little at a time; where the scalp ends it goes on as a braid.",
	HidesBy: "the braid itself",
	Root:    "flat: own hair begins it, no knot",
	Wash:    "roots only, diluted, dried fully",
	Mistake: "Too much hair is fed in at once: a lump stands up and the root is pulled.",
	Mend:    "Undo it to there, halve the bit, and feed in at every turn instead of every third.",
	Wrong:   moves.FedLump,

	LeastHair: 40, WearWeeks: [2]int{2, 6}, Choices: []Choice{tips}, AsOne: true,
	traits: Traits{Pull: Middling, Flat: true, Wet: Roots, Whole: false, Skill: UsedHand, Off: 3},
	work: func(j Job) Work {
		w := braidedBy(j, craft.FeedStart+craft.FeedRate*j.Along)
		w.Unplaited = false
		return w
	},
	steps: func(r Range) []Step {
		return append([]Step{
			text("Lay out a row of thin bits of braiding hair for each cornrow, all alike."),
			with("Begin the cornrow with own hair alone, {length}, so that nothing pulls at the hairline.", craft.FedFrom).drawn(moves.FeedIn, 0, 0),
			text("Lay a bit to the middle strand, and go on: another at every turn, always the same little.").drawn(moves.FeedIn, 0, 1),
			text("Feed until the cornrow is as thick as the braid that is to hang, well before the scalp ends.").drawn(moves.FeedIn, 1, 2),
			with("Braid on from its end, each turn as tight as the last, to about {length}.", r.Long.Piece.Length),
		}, tipEnds[r.Long.Chosen["end"]]...)
	},
	cuts: true,
	takeDown: func(Range) []Step {
		return []Step{
			text("Cut the braid below the mark."),
			text("Unbraid upward with the tail of a comb; the bits come free one after the other as the cornrow opens.").drawn(moves.FeedIn, 2, 0),
		}
	},
	judge: braidJudge,
}}
