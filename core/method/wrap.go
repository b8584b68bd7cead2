package method

import (
	"math"

	"kladotex/core/hair"
	"kladotex/core/supply"
)

// Rates of the wrap family, for a practised stylist.
const (
	collarTime = 0.8   // minutes to slide a piece on and draw the end through
	wrapRate   = 0.014 // minutes per mm wound over
	// past is wound past the end of the plait, mm.
	past = 12.7
	// tailShare is the thickness of a piece's tail ÷ the piece's.
	tailShare = 0.4
)

var wraps = []Method{{
	ID: CollarAndWrap, Name: "Collar and wrap", Family: Wrap,
	Takes: []hair.Form{hair.SoftLoc, hair.HandmadeLoc}, Grounds: []Ground{OnPlait},
	Summary: "The piece slides over the plait like a collar; wrapping hair, hooked through the root, is wound over both.",
	HidesBy: "wrapping hair wound past the end of the plait",
	Root:    "slim if the wrapping hair is split thin",
	Wash:    "roots only, diluted, dried fully",
	Undo:    "loosen the wind backward, clip it below the end of the own hair, unwind",

	LeastHair: 75, WearWeeks: [2]int{6, 8}, Wraps: true,
	Parameters: []Parameter{
		{Key: "ribbonMm", Name: "Width of one turn", Unit: Fine, Least: 2, Most: 25, Usual: 6, Help: "As much of the wrapping hair as shows of a turn"},
		{Key: "tailMm", Name: "Tail of the wrapping hair", Unit: Length, Least: 0, Most: 150, Usual: 2.5 * inch, Help: "Laid along the base before winding begins"},
	},
	work: func(j Job) Work {
		// What is wound over is the plait with the piece's tail lying along it, their
		// cross-sections added.
		base := math.Hypot(j.Plait.Diameter, tailShare*j.Piece.Thickness)
		length, width := j.Plait.Length()+past, j.Settings["ribbonMm"]
		ribbon := supply.WrapRibbon(length, base, width) + j.Settings["tailMm"]
		return Work{
			Ribbon: ribbon, Turns: length / width, Strands: int(math.Ceil(ribbon / j.Wrapping.StrandLength)),
			Attach: collarTime, Conceal: length * wrapRate,
		}
	},
	steps: func(r Range) []Step {
		return []Step{
			text("Stretch the loop of the piece until the plait slides through it."),
			text("Slide the piece over the plait like a collar, right up to the root."),
			text("Push the hook under the root, catch the end of the plait and draw it back through; tuck the tail."),
			with("Split the wrapping hair thin, hook it through the root and leave a tail of {length} along the base.", r.Long.Settings["tailMm"]),
			with("Wind with even tension, each turn {length} below the last, over plait and tail. Slack enough that the scalp does not move.", r.Long.Settings["ribbonMm"]),
			with("Go on until {length} past the end of the plait, so that own hair can not poke out.", past),
			text("Lay the last turns back upward, tuck the end under them and roll the piece between the palms."),
		}
	},
	judge: onPlait,
}}
