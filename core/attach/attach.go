// Package attach is the catalogue of attachment methods: what each needs, how a
// plait is hidden by it, how long it takes and its steps in order. Lengths are
// mm, times minutes.
package attach

import (
	"fmt"
	"math"
	"slices"

	"kladotex/core/invalid"
	"kladotex/core/pieces"
)

// Family is a way of hiding the plait.
type Family string

// The families.
const (
	Weave Family = "loop" // hitched by its loop, the plait woven inside
	Wrap  Family = "wrap" // the plait covered with wound hair
	Twine Family = "twist"
)

// ID names a method of the catalogue.
type ID string

// The methods so far, one of each family.
const (
	HitchAndWeave ID = "L1"
	CollarAndWrap ID = "W2"
	FoldAndTwist  ID = "T2"
)

// IDs are the methods' ids in the order of the catalogue.
var IDs = []ID{HitchAndWeave, CollarAndWrap, FoldAndTwist}

// Method is an entry of the catalogue. Its judgements are common practice, no
// source.
type Method struct {
	ID      ID            `json:"id" enum:"L1,W2,T2"`
	Name    string        `json:"name"`
	Family  Family        `json:"family"`
	Takes   []pieces.Form `json:"takes" enum:"looped-twist,looped-loc,bulk" doc:"Forms of piece it works with"`
	Summary string        `json:"summary"`
	HidesBy string        `json:"hidesBy"`
	Root    string        `json:"root" doc:"How the root looks and feels"`
	Wash    string        `json:"wash"`
	Undo    string        `json:"undo"`
	// LeastHair is the shortest own hair that holds, mm.
	LeastHair float64 `json:"leastHairMm"`
	// WearWeeks are the usual least and most weeks of wear.
	WearWeeks [2]int `json:"wearWeeks"`

	hitch    float64 // minutes to fix one piece at the root
	passTime float64 // minutes for one pass
	windRate float64 // minutes per mm of wrapping or twisting
	past     float64 // mm wound past the end of the plait
}

var catalogue = map[ID]Method{
	HitchAndWeave: {
		ID: HitchAndWeave, Name: "Hitch and weave", Family: Weave,
		Takes:   []pieces.Form{pieces.Twist, pieces.Loc},
		Summary: "The piece is hitched by its loop under the root; the plait is drawn into its middle, pass by pass.",
		HidesBy: "passes through the middle of the piece",
		Root:    "a small ridge where the hitch sits",
		Wash:    "holds through washing",
		Undo:    "pull the plait out, cut the piece a few inches from the root but below the end of the own hair, unloop",

		LeastHair: 50, WearWeeks: [2]int{6, 8},
		hitch: 0.6, passTime: 0.4,
	},
	CollarAndWrap: {
		ID: CollarAndWrap, Name: "Collar and wrap", Family: Wrap,
		Takes:   []pieces.Form{pieces.Loc},
		Summary: "The piece slides over the plait like a collar; wrapping hair, hooked through the root, is wound over both.",
		HidesBy: "wrapping hair wound past the end of the plait",
		Root:    "slim if the wrapping hair is split thin",
		Wash:    "roots only, diluted, dried fully",
		Undo:    "loosen the wind backward, clip it below the end of the own hair, unwind",

		LeastHair: 75, WearWeeks: [2]int{6, 8},
		hitch: 0.8, windRate: 0.014, past: 12.7,
	},
	FoldAndTwist: {
		ID: FoldAndTwist, Name: "Fold and twist", Family: Twine,
		Takes:   []pieces.Form{pieces.Bulk},
		Summary: "A bulk strand is drawn half under the plait; its two legs are twisted together and the plait rides with one of them.",
		HidesBy: "the twist, with the plait inside one leg",
		Root:    "soft, lies flat",
		Wash:    "holds through washing, because the section is plaited whole",
		Undo:    "untwist the legs and draw the strand out",

		LeastHair: 75, WearWeeks: [2]int{4, 6},
		hitch: 0.5, windRate: 0.005,
	},
}

// Lookup finds a method.
func Lookup(id ID) (Method, bool) {
	m, ok := catalogue[id]
	return m, ok
}

// Job is what a method is asked to hide and with what, for a typical section.
type Job struct {
	PlaitLength   float64 // mm, from root to tip
	PlaitDiameter float64 // mm
	PieceForm     pieces.Form
	PieceLength   float64 // mm, hanging
	PieceDiameter float64 // mm
	Pitch         float64 // mm along the piece between passes
	Ribbon        float64 // visible width of the wrapping hair, mm
	WrapTail      float64 // mm of wrapping hair left to lay along the base
	TenderScalp   bool
}

// Step is one move of a method. Braces in Text name a length to be put in, in
// the unit the reader prefers.
type Step struct {
	Text    string             `json:"text"`
	Lengths map[string]float64 `json:"lengthsMm,omitempty"`
}

// Work is what one section costs.
type Work struct {
	// Hidden is the length of plait to hide, mm.
	Hidden float64 `json:"hiddenMm"`
	// Passes are draws through the piece; 0 unless the method weaves.
	Passes int `json:"passes"`
	// WrapRibbon is the wrapping hair for one piece, mm; 0 unless it wraps.
	WrapRibbon float64 `json:"wrapRibbonMm"`
	// WrapTurns are the turns it makes round the base.
	WrapTurns float64 `json:"wrapTurns"`
	// Attach is minutes to fix one piece, Conceal to hide one plait, for a
	// practised stylist.
	Attach  float64 `json:"attachMin"`
	Conceal float64 `json:"concealMin"`
	Steps   []Step  `json:"steps"`
	// Concerns say in plain words what speaks against the method here.
	Concerns []string `json:"concerns"`
}

// For works the method out for a job.
func (m Method) For(j Job) Work {
	w := Work{Hidden: j.PlaitLength, Attach: m.hitch, Concerns: m.concerns(j)}
	switch m.Family {
	case Weave:
		// What is left after a whole number of pitches needs one more pass; a
		// rounding error of a pitch does not.
		w.Passes = max(1, int(math.Ceil(j.PlaitLength/j.Pitch-1e-9)))
		w.Conceal = float64(w.Passes) * m.passTime
	case Wrap:
		length := j.PlaitLength + m.past
		w.WrapTurns = length / j.Ribbon
		w.WrapRibbon = pieces.WrapRibbon(length, m.base(j), j.Ribbon) + j.WrapTail
		w.Conceal = length * m.windRate
	case Twine:
		w.Conceal = j.PieceLength * m.windRate
	}
	w.Steps = m.steps(j, w)
	return w
}

// base is the diameter of what is wound over: the plait with the piece's tail
// lying along it, their cross-sections added.
func (m Method) base(j Job) float64 {
	const tail = 0.4 // the tail's diameter ÷ the piece's
	return math.Hypot(j.PlaitDiameter, tail*j.PieceDiameter)
}

func (m Method) steps(j Job, w Work) []Step {
	text := func(s string) Step { return Step{Text: s} }
	with := func(s string, mm float64) Step { return Step{s, map[string]float64{"length": mm}} }
	switch m.ID {
	case HitchAndWeave:
		return []Step{
			text("Stretch the loop with the tail of a comb, damp plait and piece, and see that the latch of the hook opens and shuts freely."),
			text("Push the hook under the root of the plait, away from the part, and catch the loop."),
			text("Push the piece up while the latch comes out, so that it stays shut; draw the loop through."),
			text("Pass the tail of the piece through its own loop. Draw plait and piece apart to tighten the hitch: snug, never pulling the scalp."),
			with("From {length} below the hitch push the hook up through the middle of the piece, catch the plait, close, and draw it down inside.", j.Pitch),
			repeat(w.Passes, j.Pitch),
			text("Roll the piece between the fingers; tuck a tip that pokes out back with the hook."),
		}
	case CollarAndWrap:
		return []Step{
			text("Stretch the loop of the piece until the plait slides through it."),
			text("Slide the piece over the plait like a collar, right up to the root."),
			text("Push the hook under the root, catch the end of the plait and draw it back through; tuck the tail."),
			with("Split the wrapping hair thin, hook it through the root and leave a tail of {length} along the base.", j.WrapTail),
			with("Wind with even tension, each turn {length} below the last, over plait and tail. Slack enough that the scalp does not move.", j.Ribbon),
			with("Go on until {length} past the end of the plait, so that own hair can not poke out.", m.past),
			text("Lay the last turns back upward, tuck the end under them and roll the piece between the palms."),
		}
	default: // FoldAndTwist
		return []Step{
			text("Take one unit of bulk hair, hook by its root end, and find its middle."),
			text("Push the hook under the root of the plait, catch the bulk hair at its middle and draw it half through: two even legs."),
			text("Lay the plait along one leg and close the leg's hair round it."),
			with("Twist each leg on itself one way and the two round each other the other way, down {length} to the tip.", j.PieceLength),
			with("Keep the plait inside its leg to its end, at {length}; beyond it the legs are bulk hair only.", j.PlaitLength),
			text("Seal the tip as the fibre allows. Hot water scalds: away from skin, towel under, never over a child's back."),
		}
	}
}

// repeat is the step after the first of so many passes.
func repeat(passes int, pitch float64) Step {
	if passes == 1 {
		return Step{Text: "One pass is enough here: draw on until the end of the plait is inside."}
	}
	return Step{
		fmt.Sprintf("Repeat every {length} until the end of the plait is inside: %d passes in all.", passes),
		map[string]float64{"length": pitch},
	}
}

var formNames = map[pieces.Form]string{
	pieces.Twist: "pre-looped twists", pieces.Loc: "pre-looped locs", pieces.Bulk: "bulk hair",
}

// Suits tells whether the method works with a form of piece.
func (m Method) Suits(form pieces.Form) bool { return slices.Contains(m.Takes, form) }

func (m Method) concerns(j Job) []string {
	out := []string{}
	if !m.Suits(j.PieceForm) {
		out = append(out, fmt.Sprintf("%s works with %s; the piece chosen is %s.", m.Name, formNames[m.Takes[0]], formNames[j.PieceForm]))
	}
	if j.PlaitLength < m.LeastHair*pieces.BraidTakeUp {
		out = append(out, fmt.Sprintf("The own hair is short for this method, which holds from about %.0f cm (%.0f in).", m.LeastHair/10, m.LeastHair/25.4))
	}
	if j.PlaitLength > j.PieceLength {
		out = append(out, fmt.Sprintf("The plait, about %s, is longer than the piece, %s: its end would hang out below. A piece of at least %s hides it.",
			invalid.Length(j.PlaitLength), invalid.Length(j.PieceLength), invalid.AtLeast(j.PlaitLength)))
	}
	// A plait thicker than about four fifths of the piece can not vanish in it.
	if m.Family == Weave && j.PlaitDiameter > 0.8*j.PieceDiameter {
		out = append(out, fmt.Sprintf("The plaits come out about %.0f mm thick against a piece of %.0f mm: they may show through. Smaller sections or a thicker piece would hide them.", j.PlaitDiameter, j.PieceDiameter))
	}
	if j.TenderScalp {
		out = append(out, "Tender scalp: leave the base plaits slack, because drawing the piece through tightens them again. Pain, bumps or stinging mean loosen now.")
	}
	return out
}
