package method

import (
	"maps"

	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/method/moves"
)

// cover is a way of hiding the plait of a piece that is hitched by its loop. Hitch and cover
// combine freely: a method that leaves its cover open has one of covers in its place.
type cover struct {
	option        Option
	hidesBy, wash string
	traits        Traits // Wet, Whole and Off, as they are under this cover
	wraps, cuts   bool
	work          func(Job) Work // without the hitch
	steps         func(Range) []Step
	// free are the moves in which the plait is free again, and off is how the piece comes off then.
	free  func(Range) []Step
	off   string
	judge judge
}

// CoverKey is the choice of the cover, where a method leaves it open.
const CoverKey = "cover"

// The covers.
const (
	weave = "weave"
	lace  = "lace"
	wrap  = "wrap"
)

var covers = []cover{{
	option:  Option{Key: weave, Name: "Woven inside", Help: "Drawn into the middle of the piece, pass by pass"},
	hidesBy: "passes through the middle of the piece",
	wash:    "holds through washing",
	traits:  Traits{Wet: Swim, Off: 0.4}, cuts: true,
	work: func(j Job) Work {
		n := passes(j.Plait.Length(), j.Settings["pitchMm"])
		return Work{Passes: n, Conceal: float64(n) * craft.PassTime}
	},
	steps: func(r Range) []Step {
		pitch := r.Long.Settings["pitchMm"]
		out := append(intoThePiece(pitch), repeat(wovenOn, r.ShortWork.Passes, r.LongWork.Passes, pitch).drawn(moves.Weave, 3, 4))
		if r.Long.Chosen["long"] == "back" {
			out = append(out, text("Where the piece ends before the plait does, turn round and weave the rest up again beside the first way.").drawn(moves.Weave, 3, 4))
		}
		return append(out, tipSteps[r.Long.Chosen["tip"]])
	},
	free: func(r Range) []Step {
		return append(unglued(r), text("Find where the plait comes out of the piece. Draw it out pass by pass and lay it aside.").drawn(moves.Weave, 4, 0))
	},
	off:   "Cut the piece below the mark, open the loop at the root and draw it off.",
	judge: vanishing(craft.InSoft),
}, {
	option:  Option{Key: lace, Name: "Laced in a zigzag", Help: "From one side and the other, close together: for braids"},
	hidesBy: "a zigzag through the middle of the piece",
	wash:    "holds through washing",
	traits:  Traits{Wet: Swim, Off: 0.5}, cuts: true,
	work: func(j Job) Work {
		n := passes(j.Plait.Length(), j.Settings["laceMm"])
		return Work{Passes: n, Conceal: float64(n) * craft.LaceTime}
	},
	steps: func(r Range) []Step { return laced(r, r.Long.Settings["laceMm"]) },
	free: func(Range) []Step {
		return []Step{text("Draw the plait out of the piece from its end, one side after the other.").drawn(moves.Lace, 4, 0)}
	},
	off:   "Cut the piece below the mark, open the loop at the root and draw it off.",
	judge: vanishing(craft.InBraid),
}, {
	option:  Option{Key: wrap, Name: "Wrapped", Help: "Wrapping hair wound over plait and piece: for plaits too fat to vanish inside"},
	hidesBy: "wrapping hair wound past the end of the plait",
	wash:    "roots only, diluted, dried fully",
	traits:  Traits{Wet: Roots, Whole: true, Off: 2.5}, wraps: true,
	work:  func(j Job) Work { return wound(j, j.Plait.Length()+craft.WoundPast, 0) },
	steps: winding,
	free:  func(r Range) []Step { return unwinding(moves.Wind, 4, 2, 0)(r) },
	off:   "Draw the body of the piece back through its loop at the root: it comes off whole.",
	judge: fatBase,
}}

// coverOf is the cover that was chosen; the woven one where none was.
func coverOf(chosen Chosen) *cover {
	for i := range covers {
		if covers[i].option.Key == chosen[CoverKey] {
			return &covers[i]
		}
	}
	return &covers[0]
}

// Cover tells whether the plait is hidden by a cover, any where it is empty.
func (c Chosen) Cover(of string) bool { return of == "" || c[CoverKey] == of }

// covered is the choice among some of the covers, the first of them the usual one.
func covered(keys ...string) Choice {
	c := Choice{Key: CoverKey, Name: "How the plait is hidden", Usual: keys[0]}
	for _, key := range keys {
		c.Options = append(c.Options, coverOf(Chosen{CoverKey: key}).option)
	}
	return c
}

// only is a parameter that goes with one cover.
func (p Parameter) only(cover string) Parameter { p.Of = cover; return p }

// only is a choice that goes with one cover.
func (c Choice) only(cover string) Choice { c.Of = cover; return c }

// Choosing are choices with one more option taken, and the cover that it goes with.
func (m Method) Choosing(chosen Chosen, key, option string) Chosen {
	out := Chosen{}
	maps.Copy(out, chosen)
	out[key] = option
	for _, c := range m.Choices {
		if c.Key == key && c.Of != "" {
			out[CoverKey] = c.Of
		}
	}
	return out
}

// wrapCover is the option of the method's choice of cover under which hair is wound; empty for none.
func (m Method) wrapCover() string {
	for _, c := range m.Choices {
		for _, o := range c.Options {
			if c.Key == CoverKey && coverOf(Chosen{CoverKey: o.Key}).wraps {
				return o.Key
			}
		}
	}
	return ""
}

// underCover judges by the cover that was chosen.
func underCover(m Method, j Job) []advice.Finding { return coverOf(j.Chosen).judge(m, j) }

// As is the method as its choices make it: how it hides, washes and comes off is that of its
// cover where it leaves the cover open.
func (m Method) As(chosen Chosen) Method {
	chosen = m.Decided(chosen)
	if chosen[CoverKey] == "" {
		return m
	}
	c := coverOf(chosen)
	m.HidesBy, m.Wash, m.Wraps, m.cuts = c.hidesBy, c.wash, c.wraps, c.cuts
	m.traits.Wet, m.traits.Whole = c.traits.Wet, c.traits.Whole
	m.traits.Off += c.traits.Off - covers[0].traits.Off
	return m
}
