package method

import (
	"fmt"
	"math"

	"kladotex/core/advice"
	"kladotex/core/hair"
)

const inch = 25.4

// fits is how thick a plait may be ÷ the piece it vanishes in. Common practice, no
// source.
const fits = 0.8

// Minutes of the loop family, for a practised stylist.
const (
	hitchTime = 0.6 // one root hitch
	passTime  = 0.4 // one pass
)

var loops = []Method{{
	ID: HitchAndWeave, Name: "Hitch and weave", Family: Loop,
	Takes: []hair.Form{hair.Twist, hair.SoftLoc}, Grounds: []Ground{OnPlait},
	Summary: "The piece is hitched by its loop under the root; the plait is drawn into its middle, pass by pass.",
	HidesBy: "passes through the middle of the piece",
	Root:    "a small ridge where the hitch sits",
	Wash:    "holds through washing",
	Undo:    "pull the plait out, cut the piece a few inches from the root but below the end of the own hair, unloop",

	LeastHair: 50, WearWeeks: [2]int{6, 8},
	Parameters: []Parameter{{
		Key: "pitchMm", Name: "Distance between passes", Unit: Length, Least: 10, Most: 150, Usual: 2 * inch,
		Help: "Closer passes hold better and take longer",
	}},
	work: func(j Job) Work {
		// What is left after a whole number of pitches needs one more pass; a rounding
		// error of a pitch does not.
		passes := max(1, int(math.Ceil(j.Plait.Length()/j.Settings["pitchMm"]-1e-9)))
		return Work{Passes: passes, Attach: hitchTime, Conceal: float64(passes) * passTime}
	},
	steps: func(r Range) []Step {
		pitch := r.Long.Settings["pitchMm"]
		return []Step{
			text("Stretch the loop with the tail of a comb, damp plait and piece, and see that the latch of the hook opens and shuts freely."),
			text("Push the hook under the root of the plait, away from the part, and catch the loop."),
			text("Push the piece up while the latch comes out, so that it stays shut; draw the loop through."),
			text("Pass the tail of the piece through its own loop. Draw plait and piece apart to tighten the hitch: snug, never pulling the scalp."),
			with("From {length} below the hitch push the hook up through the middle of the piece, catch the plait, close, and draw it down inside.", pitch),
			repeat(r.ShortWork.Passes, r.LongWork.Passes, pitch),
			text("Roll the piece between the fingers; tuck a tip that pokes out back with the hook."),
		}
	},
	judge: func(m Method, j Job) []advice.Finding {
		out := onPlait(m, j)
		if j.Plait.Diameter > fits*j.Piece.Thickness {
			d, thick := j.Plait.Diameter, j.Piece.Thickness
			out = append(out, finding(advice.FatPlait, advice.Look, d, func() (string, string) {
				return fmt.Sprintf("The plait comes out about %.0f mm thick against a piece of %.0f mm: it may show through.", d, thick),
					fmt.Sprintf("Smaller sections, or a piece of at least %.0f mm, would hide it.", math.Ceil(d/fits))
			}))
		}
		return out
	},
}}

// repeat is the step after the first of so many passes.
func repeat(least, most int, pitch float64) Step {
	switch {
	case most == 1:
		return text("One pass is enough here: draw on until the end of the plait is inside.")
	case least == most:
		return with(fmt.Sprintf("Repeat every {length} until the end of the plait is inside: %d passes in all.", most), pitch)
	}
	return with(fmt.Sprintf("Repeat every {length} until the end of the plait is inside: %d to %d passes in all, as long as the plait is.", least, most), pitch)
}
