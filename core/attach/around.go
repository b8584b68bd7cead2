package attach

import (
	"cmp"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/method/moves"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/plan"
	"kladotex/core/words"
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
		if m, _ := method.Lookup(in.Ways[i].Method); m.As(in.Ways[i].Choices).Bears() == method.Dry {
			return method.Dry // whatever is wished: water would undo it
		}
	}
	return cmp.Or(in.Wish().Water, method.Roots)
}

// Around is what is done before the first piece and after the last one.
func Around(in plan.Input) (before, after []method.Step) {
	before, after = []method.Step{}, []method.Step{}
	say := func(steps *[]method.Step, texts ...string) {
		for _, text := range texts {
			*steps = append(*steps, method.Step{Text: text})
		}
	}
	for _, c := range plan.Customs {
		taken := in.Custom(c.Key)
		for _, s := range c.Sides {
			if s.Key == taken {
				say(&before, s.Before...)
				say(&after, s.After...)
			}
		}
	}
	if slices.ContainsFunc(in.Pieces, hair.Piece.Open) {
		say(&before, "Hold and hook a piece with curls or loose ends by its top: handled less, they frizz less.")
	}
	if slices.ContainsFunc(in.Pieces, hair.Piece.Natural) {
		say(&before, "Human hair slips: draw every hitch tight twice, and look at the knots before the last piece.")
	}
	if slices.ContainsFunc(in.Pieces, func(p hair.Piece) bool { return p.Coated }) && in.Custom(plan.Rinse) != "rinsed" {
		say(&before, "Its coating irritates some scalps: rinse and dry it first, or lay a strand behind an ear for a day.")
	}
	before = append(before, Plaiting(in)...)
	if in.Plaits.Band {
		say(&before, "A small thin band round each root, close but not pulling. Oiled bands perish within days: cut them out with care.")
	}
	say(&after, washing[Water(in)])
	return before, after
}

// far is how a plait goes on below the scalp.
var far = map[plait.Far]string{
	plait.Whole:  "Plait the section down its whole length, ",
	plait.Half:   "Plait the section to the half, then twist two strands to the tip, ",
	plait.Anchor: "Plait %s, then twist two strands to the tip, ",
}

// Plaiting is how the sections are plaited: which stay unplaited for their method, and how far, how
// tight and which way the others are.
func Plaiting(in plan.Input) (steps []method.Step) {
	p := in.Plaits
	var plaited, loose []string
	for _, use := range in.Uses {
		i := slices.IndexFunc(in.Ways, func(w plan.Way) bool { return w.Key == use.Way })
		if i < 0 || use.Where.Kind == plan.OnBase {
			continue
		}
		m, _ := method.Lookup(in.Ways[i].Method)
		list := &plaited
		if m.Unplaited(in.Ways[i].Choices) {
			list = &loose
		}
		if name := in.WayName(use.Way); m.On(method.OnPlait) && !slices.Contains(*list, name) {
			*list = append(*list, name)
		}
	}
	whose := func(names, others []string) string {
		if len(others) == 0 {
			return ""
		}
		return "For " + words.List(names) + ": "
	}
	if in.Parting.Structure == parting.Linked {
		return nil // the base says how these are plaited
	}
	if len(loose) > 0 {
		text := "Leave the section unplaited."
		if of := whose(loose, plaited); of != "" {
			text = of + "leave the section unplaited."
		}
		steps = append(steps, method.Step{Text: text})
	}
	if len(plaited) == 0 {
		return steps
	}
	tight := "a little slack at the scalp: a piece tightens it."
	if p.Tension == plait.Snug {
		tight = "snug at the scalp, never so that the skin lifts."
	}
	text := far[p.Far] + tight
	var lengths map[string]float64
	if p.Far == plait.Anchor {
		turns := words.Count(p.Turns(), "turn")
		if p.Anchor > 0 {
			turns, lengths = "{length}, about "+turns, map[string]float64{"length": p.Anchor}
		}
		text = fmt.Sprintf(text, turns)
	}
	if of := whose(plaited, loose); of != "" {
		text = of + strings.ToLower(text[:1]) + text[1:]
	}
	drawing, over := moves.PlaitOver, "The outer strand goes over the middle one: a ridge stands at the root."
	if p.Direction == plait.Under {
		drawing, over = moves.PlaitUnder, "The outer strand goes under the middle one: the root lies flat, no knot stands up."
	}
	steps = append(steps, method.Step{Text: text, Lengths: lengths}, method.Step{Text: over, Shows: &moves.Clip{Figure: drawing, First: 0, Last: 1}})
	if p.Fed > 0 {
		steps = append(steps, method.Step{Text: "Before own hair ends, feed a thin bit of hair in: the ends are sealed and longer."})
	}
	return steps
}

// How is how a plan is done, step by step, as it was when it was frozen.
type How struct {
	// Before the first piece, Plait a section, Work the ways in which pieces go on, After the
	// last piece.
	Before []method.Step `json:"before"`
	Plait  PlaitSteps    `json:"plait"`
	Work   []Attachment  `json:"work"`
	After  []method.Step `json:"after"`
}

// PlaitSteps are how the sections are plaited. What was frozen before they were several is one step.
type PlaitSteps []method.Step

// UnmarshalJSON reads a list of steps, or one alone.
func (p *PlaitSteps) UnmarshalJSON(raw []byte) error {
	var list []method.Step
	if err := json.Unmarshal(raw, &list); err == nil {
		*p = list
		return nil
	}
	var one method.Step
	if err := json.Unmarshal(raw, &one); err != nil {
		return fmt.Errorf("steps of a plait: %w", err)
	}
	*p = PlaitSteps{one}
	return nil
}
