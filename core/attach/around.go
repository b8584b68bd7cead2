package attach

import (
	"cmp"
	"fmt"
	"slices"

	"kladotex/core/method"
	"kladotex/core/method/moves"
	"kladotex/core/plait"
	"kladotex/core/plan"
)

// washing is what is said of water while the pieces are worn.
var washing = map[method.Water]string{
	method.Roots: "Worn, only the roots are washed: diluted, by a nozzle, and dried fully.",
	method.Dry:   "Worn, it is kept dry: no washing, a cap in the shower.",
	method.Swim:  "After the water rinse with fresh water, press it out and dry it fully, down to the roots.",
}

// Water is what may become of the pieces while they are worn: as wished, or else as the most
// delicate of the methods in use bears it.
func Water(in plan.Input) method.Water {
	for _, use := range in.Uses {
		i := slices.IndexFunc(in.Ways, func(w plan.Way) bool { return w.Key == use.Way })
		if i < 0 {
			continue
		}
		if m, _ := method.Lookup(in.Ways[i].Method); m.Bears() == method.Dry {
			return method.Dry // whatever is wished: water would undo it
		}
	}
	return cmp.Or(in.Wish().Water, method.Roots)
}

// Around is what is done before the first piece and after the last one.
func Around(in plan.Input) (before, after []method.Step) {
	before, after = []method.Step{}, []method.Step{}
	add := func(steps *[]method.Step, text string) {
		if text != "" {
			*steps = append(*steps, method.Step{Text: text})
		}
	}
	for _, c := range plan.Customs {
		taken := in.Custom(c.Key)
		for _, s := range c.Sides {
			if s.Key == taken {
				add(&before, s.Before)
				add(&after, s.After)
			}
		}
	}
	before = append(before, Plaiting(in))
	if in.Plaits.Band {
		add(&before, "A small thin band round each root, close but not pulling. Oiled bands perish within days, and tangle: cut them out with care.")
	}
	add(&after, washing[Water(in)])
	return before, after
}

// far is how a plait goes on below the scalp.
var far = map[plait.Far]string{
	plait.Whole:  "down its whole length",
	plait.Half:   "to the half, then twist two strands on to the tip",
	plait.Anchor: "for three turns, then twist two strands on to the tip",
}

// Plaiting is how the sections are plaited.
func Plaiting(in plan.Input) method.Step {
	p := in.Plaits
	drawing, over := moves.PlaitOver, "over the middle one: a ridge stands at the root"
	if p.Direction == plait.Under {
		drawing, over = moves.PlaitUnder, "under the middle one: the root lies flat, no knot stands up"
	}
	tight := "with a little slack at the scalp: drawing a piece through tightens it once more"
	if p.Tension == plait.Snug {
		tight = "snug at the scalp, never so that the skin lifts: drawing a piece through tightens it once more"
	}
	fed := ""
	if p.Fed > 0 {
		fed = " Before the own hair ends, feed a thin bit of hair in: the ends are sealed and longer."
	}
	return method.Step{
		Text:  fmt.Sprintf("Where a piece is hitched on, plait the section %s, %s. The outer strand goes %s.%s", far[p.Far], tight, over, fed),
		Shows: &moves.Clip{Figure: drawing, First: 0, Last: 1},
	}
}

// How is how a plan is done, step by step, as it was when it was frozen.
type How struct {
	// Before the first piece, Plait a section, Work the ways in which pieces go on, After the
	// last piece.
	Before []method.Step `json:"before"`
	Plait  method.Step   `json:"plait"`
	Work   []Attachment  `json:"work"`
	After  []method.Step `json:"after"`
}
