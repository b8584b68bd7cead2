package house

import (
	"maps"
	"math"
	"slices"

	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/core/wear"
)

// School is a question on which good practitioners disagree, with its sides. A studio takes
// a side; a plan may depart from it. Common practice, no source.
type School struct {
	Key   string `json:"key"`
	Ask   string `json:"ask" doc:"The question"`
	Usual string `json:"usual" doc:"Key of the side that holds where the studio takes none"`
	Sides []Side `json:"sides"`
	// Custom is true where a plan has its own answer among its customs.
	Custom bool `json:"custom,omitempty" doc:"True where a plan keeps its side among its customs"`
	// Touches are what of a plan follows from its sides, in a word or two each.
	Touches []Touch `json:"touches" doc:"What of a plan follows from its sides"`

	// start makes a new plan ready to take a side once it is asked; nil where there is nothing to make ready.
	start func(plan.Input, string) plan.Input
	// of is the side a plan takes, empty where the question is not asked of it, and take
	// makes it take one.
	of   func(plan.Input) string
	take func(plan.Input, string) plan.Input
}

// Touch is a part of a plan that a question has a say in.
type Touch string

// The parts of a plan.
const (
	TheParting  Touch = "the parting"
	TheSteps    Touch = "the steps"
	TheHours    Touch = "the hours"
	TheOrder    Touch = "the working order"
	WhatToBuy   Touch = "what to buy"
	AtHome      Touch = "what is prepared at home"
	TheLoad     Touch = "fit and load"
	TheMethods  Touch = "which methods suit"
	WeeksOfWear Touch = "the weeks of wear"
)

// Touched are all of them, in the order in which a plan is made.
var Touched = []Touch{TheParting, TheSteps, TheHours, TheOrder, WhatToBuy, AtHome, TheLoad, TheMethods, WeeksOfWear}

// Side is one answer, with what speaks for it.
type Side struct {
	Key    string `json:"key"`
	Name   string `json:"name"`
	Reason string `json:"reason"`
}

// toCrown is the way from the front hairline over the middle to the crown, mm, of a head that
// is parted by a line all over.
func toCrown(in plan.Input) (mm float64, ok bool) {
	line := []parting.PartKind{parting.MiddlePart, parting.SidePart, parting.DiagonalPart}
	if in.Parting.Structure != parting.AllIndividuals || !slices.Contains(line, in.Parting.Part.Kind) {
		return 0, false
	}
	head, err := scalp.FitWith(in.Head, in.Hairline)
	if err != nil {
		return 0, false
	}
	return head.Arc(head.Landmark(scalp.FrontCentre), head.Crown()), true
}

// Schools are all questions: those on the head and its base first, then on attaching, then
// what shows only in what is said and done.
var Schools = func() []School {
	all := slices.Concat(settled, customs())
	for i := range all {
		all[i].Touches = touches[all[i].Key]
	}
	return all
}()

// touches are what of a plan follows from each question.
var touches = map[string][]Touch{
	"edges":     {TheParting, TheSteps, TheHours, TheOrder, WhatToBuy, AtHome, TheLoad},
	"part":      {TheParting, TheSteps, TheHours, TheOrder, WhatToBuy, AtHome, TheLoad, TheMethods},
	"run":       {TheParting, TheSteps, TheHours, TheOrder, WhatToBuy, AtHome, TheLoad},
	"far":       {TheSteps, TheHours, AtHome},
	"tension":   {TheSteps, TheLoad, TheMethods},
	"direction": {TheSteps},
	"ends":      {TheSteps, TheHours, WhatToBuy, AtHome, TheLoad, TheMethods},
	"elastics":  {TheSteps, TheHours, WhatToBuy},
	"hook":      {TheSteps},
	"glue":      {TheSteps, WhatToBuy, AtHome},
	"seal":      {TheSteps, TheHours, WhatToBuy, AtHome},
	"hide":      {TheMethods},
	"draws":     {TheSteps, TheHours},
	"perimeter": {TheSteps, TheHours},
	"water":     {TheSteps},
	"wear":      {TheMethods, WeeksOfWear},
	"stretch":   {TheSteps, AtHome},
	"rinse":     {TheSteps, AtHome},
	"colour":    {TheSteps},
	"pieces":    {TheSteps, WhatToBuy, AtHome},
	"product":   {TheSteps, TheHours, WhatToBuy, AtHome},
	"neat":      {TheParting, TheSteps, TheHours, AtHome, TheLoad},
	"start":     {TheSteps, TheOrder},
	"moisture":  {TheSteps, TheHours, AtHome},
	"density":   {TheParting, TheSteps, TheHours, WhatToBuy, AtHome, TheLoad},
	"knots":     {TheSteps, TheHours},
	"foam":      {TheSteps, TheHours, WhatToBuy, AtHome},
}

// settled are the questions that a setting of the plan answers.
var settled = []School{
	{
		Key: "edges", Ask: "Fragile edges and baby hair", Usual: "out",
		Sides: []Side{
			{"out", "Left out where they are tender", "Nothing pulls at the most fragile hair on the head"},
			{"in", "Taken into the first row", "No hair of its own stands outside the pieces"},
		},
		of: func(in plan.Input) string {
			switch in.Hair.Edges {
			case hair.FragileEdges, hair.BareEdges:
				return either(in.Parting.Edges > 0, "out", "in")
			}
			return ""
		},
		take: func(in plan.Input, side string) plan.Input {
			in.Parting.Edges = either(side == "out", max(craft.EdgeStrip, in.Parting.Edges), 0)
			return in
		},
	},
	{
		Key: "part", Ask: "The part runs", Usual: "before",
		Sides: []Side{
			{"before", "Up to a little before the crown", "No straight channel opens behind; a plait stands behind the stop"},
			{"crown", "To the crown", "The whole of the front can fall to either side"},
			{"nape", "To the nape", "For styles that are parted behind too"},
		},
		of: func(in plan.Input) string {
			crown, ok := toCrown(in)
			switch stop := in.Parting.Part.Stop; {
			case !ok:
				return ""
			case stop == 0:
				return "nape"
			case stop < crown-craft.BeforeCrown/2:
				return "before"
			}
			return "crown"
		},
		take: func(in plan.Input, side string) plan.Input {
			crown, _ := toCrown(in)
			in.Parting.Part.Stop = map[string]float64{"nape": 0, "crown": math.Round(crown), "before": math.Round(crown - craft.BeforeCrown)}[side]
			return in
		},
	},
	// Side to side hides best, but as few cornrows as a new plan begins with would be fat then.
	{
		Key: "run", Ask: "Cornrows run", Usual: string(parting.StraightBack),
		Sides: []Side{
			{string(parting.Horizontal), "Side to side", "They hide best under hair that hangs, and suit layered cuts"},
			{string(parting.StraightBack), "Straight back", "Quick to braid, and they lie flat"},
		},
		of: func(in plan.Input) string {
			b := in.Parting.Base
			switch {
			case !in.Parting.HasCornrows() || b.MergeInto > 0: // what merges runs back
				return ""
			case b.Run == parting.Horizontal, b.Run == parting.StraightBack:
				return string(b.Run)
			}
			return ""
		},
		start: withRun,
		take:  withRun,
	},
	plaitSchool("far", "How far to plait", string(plait.Whole), []Side{
		{string(plait.Whole), "The whole length", "It holds and protects the ends"},
		{string(plait.Half), "Half, then two-strand twist", "Faster, and easier to undo"},
		{string(plait.Anchor), "A few anchor turns, then twist", "Where own hair is twisted in with the piece"},
	}, func(p *plait.Preparation) *string { return (*string)(&p.Far) }),
	plaitSchool("tension", "Plaits at the scalp", string(plait.Slack), []Side{
		{string(plait.Slack), "A little slack", "A thick piece adds its own pull when it is drawn through"},
		{string(plait.Snug), "Snug", "Tidy, and it holds a hitch"},
	}, func(p *plait.Preparation) *string { return (*string)(&p.Tension) }),
	plaitSchool("direction", "The outer strand goes", string(plait.Over), []Side{
		{string(plait.Over), "Over the middle one", "The usual plait; a ridge at the root"},
		{string(plait.Under), "Under it", "The root lies flat, no knot stands up"},
	}, func(p *plait.Preparation) *string { return (*string)(&p.Direction) }),
	{
		Key: "ends", Ask: "The ends of the plaits", Usual: "bare",
		Sides: []Side{
			{"bare", "Bare", "Nothing to buy, and nothing to undo"},
			{"fed", "A thin bit of hair fed in", "Sealed and longer: straight or fine hair lets go less; it takes a little longer"},
		},
		of: func(in plan.Input) string { return either(in.Plaits.Fed > 0, "fed", "bare") },
		take: func(in plan.Input, side string) plan.Input {
			in.Plaits.Fed = either(side == "fed", max(craft.FedUsual, in.Plaits.Fed), 0)
			return in
		},
	},
	{
		Key: "elastics", Ask: "Elastics at the root", Usual: "no",
		Sides: []Side{
			{"no", "Never", "They tangle and break hair, and perish within days"},
			{"yes", "On fine hair", "They hold what slips"},
		},
		of:   func(in plan.Input) string { return either(in.Plaits.Band, "yes", "no") },
		take: func(in plan.Input, side string) plan.Input { in.Plaits.Band = side == "yes"; return in },
	},
	choiceSchool("hook", "The hook goes", "direction", method.CornrowHitch),
	choiceSchool("glue", "The tip of own hair", "tip", method.HitchAndWeave, method.SplitRoot),
	choiceSchool("seal", "The end of a wrap", "end", method.SharedLoop, method.CollarAndWrap, method.BuiltOnHead),
	{
		Key: "hide", Ask: "Own hair is hidden", Usual: string(method.HiddenInside),
		Sides: []Side{
			{string(method.HiddenInside), "By weaving it inside", "Quick, and slim: looped twists and braids are made for it"},
			{string(method.HiddenUnder), "By wrapping it outside", "Nothing shows and nothing slips: for locs"},
			{string(method.HiddenAmong), "By twining or twisting it in", "Soft, and undone in no time"},
		},
		of: func(in plan.Input) string {
			if in.Wishes == nil || in.Wishes.Hide == "" {
				return string(method.HiddenInside)
			}
			return string(in.Wishes.Hide)
		},
		take: func(in plan.Input, side string) plan.Input {
			return withWishes(in, func(w *method.Wishes) { w.Hide = method.Hiding(side) })
		},
	},
	{
		Key: "draws", Ask: "More draws through the loop, of loose hair", Usual: "few",
		Sides: []Side{
			{"few", "One on a large section, two on a small one", "Enough to hold, never so much that it pulls"},
			{"none", "None", "Quick and soft; it slips sooner"},
			{"three", "Three, on a small accent", "What is small must not slip"},
		},
		of: func(in plan.Input) string {
			for _, w := range in.Ways {
				if side := drawn[w.Choices["hair"]]; w.Method == method.HitchAndZigzag && side != "" {
					return side
				}
			}
			return ""
		},
		take: func(in plan.Input, side string) plan.Input {
			return withWays(in, func(w *plan.Way) {
				if w.Method == method.HitchAndZigzag && drawn[w.Choices["hair"]] != "" {
					w.Choices = maps.Clone(w.Choices)
					for option, is := range drawn {
						if is == side {
							w.Choices["hair"] = option
						}
					}
				}
			})
		},
	},
	{
		Key: "perimeter", Ask: "Individuals braided by hand", Usual: string(method.WrappedThird),
		Sides: []Side{
			{string(method.WrappedThird), "A third of the bundle wrapped", "No hair is borrowed later"},
			{string(method.OwnStrand), "Own hair as the third strand", "Quicker to begin; hair is borrowed where it ends"},
		},
		of: func(in plan.Input) string {
			for _, w := range in.Ways {
				if w.Method == method.WrappedThird || w.Method == method.OwnStrand {
					return string(w.Method)
				}
			}
			return ""
		},
		take: func(in plan.Input, side string) plan.Input {
			return withWays(in, func(w *plan.Way) {
				if w.Method == method.WrappedThird || w.Method == method.OwnStrand {
					w.Method = method.ID(side)
				}
			})
		},
	},
	{
		Key: "water", Ask: "Washing while worn", Usual: string(method.Roots),
		Sides: []Side{
			{string(method.Roots), "Roots only, diluted, dried fully", "The scalp stays clean, the pieces keep their set"},
			{string(method.Dry), "None", "Nothing loosens; for weeks that are few"},
		},
		of: func(in plan.Input) string {
			if in.Wishes == nil || in.Wishes.Water == "" {
				return string(method.Roots)
			}
			if in.Wishes.Water == method.Swim {
				return "" // the client goes into the water, whatever the house thinks
			}
			return string(in.Wishes.Water)
		},
		take: func(in plan.Input, side string) plan.Input {
			return withWishes(in, func(w *method.Wishes) { w.Water = method.Water(side) })
		},
	},
	{
		Key: "wear", Ask: "How long it is worn", Usual: "six",
		Sides: []Side{
			{"six", "Six to eight weeks", "The usual advice: roots grow out half an inch a month, and shed hair gathers"},
			{"two", "About two weeks", "Nothing mats, and edges rest often"},
			{"four", "Up to four months, with care", "Only with strong edges and a scalp that is looked after"},
		},
		of: func(in plan.Input) string {
			switch {
			case in.Wishes == nil || in.Wishes.Weeks == 0 || in.Wishes.Weeks >= 6 && in.Wishes.Weeks <= 8:
				return "six"
			case in.Wishes.Weeks <= 3:
				return "two"
			case in.Wishes.Weeks >= 12:
				return "four"
			}
			return ""
		},
		take: func(in plan.Input, side string) plan.Input {
			return withWishes(in, func(w *method.Wishes) { w.Weeks = map[string]int{"six": 8, "two": 2, "four": 16}[side] })
		},
	},
}

// drawn are the sides on more draws by the option of own hair that takes each.
var drawn = map[string]string{"loose": "few", "once": "none", "accent": "three"}

// withWays is a plan with its ways changed.
func withWays(in plan.Input, change func(*plan.Way)) plan.Input {
	in.Ways = slices.Clone(in.Ways)
	for i := range in.Ways {
		change(&in.Ways[i])
	}
	return in
}

// withWishes is a plan with its wishes changed.
func withWishes(in plan.Input, change func(*method.Wishes)) plan.Input {
	wishes := method.Wishes{}
	if in.Wishes != nil {
		wishes = *in.Wishes
	}
	change(&wishes)
	in.Wishes = &wishes
	return in
}

// customs are the questions that a plan answers among its customs.
func customs() []School {
	out := make([]School, len(plan.Customs))
	for i, c := range plan.Customs {
		s := School{
			Key: c.Key, Ask: c.Ask, Usual: c.Usual, Custom: true,
			of: func(in plan.Input) string { return in.Custom(c.Key) },
			take: func(in plan.Input, side string) plan.Input {
				taken := map[string]string{c.Key: side}
				for k, v := range in.Customs {
					if k != c.Key {
						taken[k] = v
					}
				}
				in.Customs = taken
				return in
			},
		}
		if c.Key == plan.Neatness {
			s.of, s.take = neatness(s.of, s.take)
		}
		for _, side := range c.Sides {
			s.Sides = append(s.Sides, Side{side.Key, side.Name, side.Reason})
		}
		out[i] = s
	}
	return out
}

// neatness is how neat the parts are: irregular ones are drawn free-hand, and what is drawn with a comb is not.
func neatness(of func(plan.Input) string, take func(plan.Input, string) plan.Input) (func(plan.Input) string, func(plan.Input, string) plan.Input) {
	freeHand := func(in plan.Input) bool {
		return in.Parting.Front.Pattern == parting.FreeHand && in.Parting.Back.Pattern == parting.FreeHand
	}
	return func(in plan.Input) string {
			switch side := of(in); {
			case freeHand(in):
				return plan.RoughParts
			case side == plan.RoughParts:
				return plan.CrispShown
			default:
				return side
			}
		}, func(in plan.Input, side string) plan.Input {
			was := freeHand(in)
			in = take(in, side)
			for _, wish := range []*parting.Wish{&in.Parting.Front, &in.Parting.Back} {
				switch {
				case side == plan.RoughParts:
					wish.Pattern = parting.FreeHand
				case was:
					wish.Pattern = parting.Brick
				}
			}
			return in
		}
}

func either[T any](first bool, a, b T) T {
	if first {
		return a
	}
	return b
}

// plaitSchool is a question on the preparation of plaits.
func plaitSchool(key, ask, usual string, sides []Side, field func(*plait.Preparation) *string) School {
	return School{
		Key: key, Ask: ask, Usual: usual, Sides: sides,
		of:   func(in plan.Input) string { return *field(&in.Plaits) },
		take: func(in plan.Input, side string) plan.Input { *field(&in.Plaits) = side; return in },
	}
}

// withRun makes the cornrows of a plan run one way.
func withRun(in plan.Input, run string) plan.Input {
	if in.Parting.Base.MergeInto == 0 && in.Parting.Base.Run != parting.Curved {
		in.Parting.Base.Run = parting.Run(run)
	}
	return in
}

// choiceSchool is a question on a choice that some methods have, asked of plans that use one of them;
// its sides are the options of the choice.
func choiceSchool(key, ask, choice string, ids ...method.ID) School {
	m, _ := method.Lookup(ids[0])
	asked := func(w plan.Way) bool { return slices.Contains(ids, w.Method) }
	var sides []Side
	for _, c := range m.Choices {
		if c.Key == choice {
			for _, o := range c.Options {
				sides = append(sides, Side{o.Key, o.Name, o.Help})
			}
		}
	}
	return School{
		Key: key, Ask: ask, Usual: m.Decided(nil)[choice], Sides: sides,
		of: func(in plan.Input) string {
			if i := slices.IndexFunc(in.Ways, asked); i >= 0 {
				m, _ := method.Lookup(in.Ways[i].Method)
				return m.Decided(in.Ways[i].Choices)[choice]
			}
			return ""
		},
		take: func(in plan.Input, side string) plan.Input {
			return withWays(in, func(w *plan.Way) {
				if asked(*w) {
					chosen := method.Chosen{choice: side}
					for k, v := range w.Choices {
						if k != choice {
							chosen[k] = v
						}
					}
					w.Choices = chosen
				}
			})
		},
	}
}

// side is the one a studio takes on a question.
func (r Rules) side(s *School) string {
	if taken := r.Sides[s.Key]; taken != "" {
		return taken
	}
	return s.Usual
}

// wears is how long heads are worn by the side a studio takes.
var wears = map[string]wear.Rules{
	"six":  {Weeks: wear.Weeks{Least: 6, Most: 8}},
	"two":  {Weeks: wear.Weeks{Least: 2, Most: 3}},
	"four": {Weeks: wear.Weeks{Least: 8, Most: 16}, WithCare: true},
}

// Wear is how long the studio has heads worn.
func (r Rules) Wear() wear.Rules {
	for i := range Schools {
		if Schools[i].Key == "wear" {
			return wears[r.side(&Schools[i])]
		}
	}
	return wear.Rules{}
}

// checkSides refuses questions that are not asked and sides they do not have.
func (r Rules) checkSides(bad *invalid.Errors) {
	asked := make([]invalid.Question, len(Schools))
	for i, s := range Schools {
		asked[i] = invalid.Question{Key: s.Key, Label: s.Ask}
		for _, side := range s.Sides {
			asked[i].Options = append(asked[i].Options, side.Key)
		}
	}
	invalid.Answers(bad, "sides.", "The house rules have no question named %q.", r.Sides, asked)
}

// Begin is a new plan as the house does it.
func (r Rules) Begin(in plan.Input) plan.Input {
	for i := range Schools {
		switch s := &Schools[i]; {
		case s.of(in) != "" && s.of(in) != r.side(s):
			in = s.take(in, r.side(s))
		case s.of(in) == "" && s.start != nil:
			in = s.start(in, r.side(s))
		}
	}
	return in
}

// Departure is a question on which a plan takes another side than the house.
type Departure struct {
	Key   string `json:"key"`
	Ask   string `json:"ask"`
	House Side   `json:"house"`
	Plan  Side   `json:"plan"`
	// Touches are what of the plan follows from the side.
	Touches []Touch `json:"touches"`
	// AsHouse is the plan with the side of the house.
	AsHouse plan.Input `json:"asHouse"`
}

// Departures are where a plan departs from the house rules.
func (r Rules) Departures(in plan.Input) []Departure {
	out := []Departure{}
	for i := range Schools {
		s := &Schools[i]
		now, wanted := s.of(in), r.side(s)
		if now == "" || now == wanted {
			continue
		}
		named := func(key string) Side {
			return s.Sides[max(0, slices.IndexFunc(s.Sides, func(x Side) bool { return x.Key == key }))]
		}
		out = append(out, Departure{s.Key, s.Ask, named(wanted), named(now), s.Touches, s.take(in, wanted)})
	}
	return out
}
