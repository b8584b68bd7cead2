package method

import (
	"kladotex/core/hair"
)

// Rates of the twist family, for a practised stylist.
const (
	foldTime  = 0.5   // minutes to draw a strand half through
	twistRate = 0.005 // minutes per mm of twisting
)

var twists = []Method{{
	ID: FoldAndTwist, Name: "Fold and twist", Family: Twist,
	Takes: []hair.Form{hair.Bulk, hair.CurlyBulk}, Grounds: []Ground{OnPlait},
	Summary: "A bulk strand is drawn half under the plait; its two legs are twisted together and the plait rides with one of them.",
	HidesBy: "the twist, with the plait inside one leg",
	Root:    "soft, lies flat",
	Wash:    "holds through washing, because the section is plaited whole",
	Undo:    "untwist the legs and draw the strand out",

	LeastHair: 75, WearWeeks: [2]int{4, 6}, Parameters: []Parameter{},
	work: func(j Job) Work {
		return Work{Attach: foldTime, Conceal: j.Piece.Length * twistRate}
	},
	steps: func(r Range) []Step {
		return []Step{
			text("Take one unit of bulk hair, hook by its root end, and find its middle."),
			text("Push the hook under the root of the plait, catch the bulk hair at its middle and draw it half through: two even legs."),
			text("Lay the plait along one leg and close the leg's hair round it."),
			with("Twist each leg on itself one way and the two round each other the other way, down {length} to the tip.", r.Long.Piece.Length),
			fromTo("Keep the plait inside its leg to its end, at {length}; beyond it the legs are bulk hair only.", r.Short.Plait.Length(), r.Long.Plait.Length()),
			text("Seal the tip as the fibre allows. Hot water scalds: away from skin, towel under, never over a child's back."),
		}
	},
	judge: onPlait,
}}
