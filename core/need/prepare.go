package need

import (
	"fmt"
	"math"
	"slices"

	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/core/words"
)

// Task is one thing to prepare at home before the install.
type Task struct {
	// Key names the task inside its plan, whatever the counts are.
	Key   string `json:"key"`
	Title string `json:"title"`
	// Count is how many are made, Unit what one is called; 0 for a task that is done or not.
	Count int    `json:"count"`
	Unit  string `json:"unit"`
	// Minutes of work, practised; Wait is what it stands by itself, such as drying, hours.
	Minutes float64 `json:"minutes"`
	Wait    float64 `json:"waitHours" doc:"Hours in which it stands by itself, such as drying"`
	// Before is how many days before the install it must be begun.
	Before  int             `json:"daysBefore"`
	Steps   []method.Step   `json:"steps"`
	Cut     *supply.Cut     `json:"cut,omitempty"`
	Made    *supply.MadeLoc `json:"made,omitempty"`
	Batches []supply.Batch  `json:"batches,omitempty"`
}

// Tasks are what is prepared at home, in the order it is done.
func Tasks(sol *plan.Solved, n Need) []Task {
	in := sol.Input
	var out []Task
	for k := range n.Pieces {
		need := &n.Pieces[k]
		p := in.Piece(need.Piece)
		count := need.OnHead + need.Fill + need.Spares
		switch _, made := in.Making(p); {
		case made:
			making, _ := in.Making(p)
			out = append(out, makeTask(p, count, making))
		case p.Form == hair.BraidingHair:
			out = append(out, braidTask(p, count))
		case p.Form.Facts().Folded:
			if t, ok := cutTask(p, count); ok {
				out = append(out, t)
			}
		}
	}
	if in.Custom(plan.Rinse) == "rinsed" {
		out = append(out, Task{
			Key: "rinse", Title: "Rinse the new hair and dry it", Minutes: craft.SoakTime, Wait: craft.SoakHours + craft.DryHours, Before: 1,
			Steps: []method.Step{
				{Text: "Lay the new hair in lukewarm water for two hours, bound loosely so that it does not tangle."},
				{Text: "Rinse until the water stays clear. Do not rub."},
				{Text: "Press it out in a towel and hang it up overnight, away from heat. Damp inside, it smells once worn."},
			},
		})
	}
	for k := range n.Pieces {
		need := &n.Pieces[k]
		p := in.Piece(need.Piece)
		if f := p.Form.Facts(); f.Folded || p.Loop >= craft.TightLoop*p.Thickness {
			continue
		}
		count := need.OnHead + need.Fill
		out = append(out, Task{
			Key: "stretch:" + p.Key, Title: "Stretch the loops of " + p.Called(), Count: count, Unit: "loop", Minutes: craft.StretchTime * float64(count),
			Steps: []method.Step{{
				Text:    "Open each loop with a comb's tail or two fingers until the piece itself slips through, about {loop}.",
				Lengths: map[string]float64{"loop": craft.TightLoop * p.Thickness},
			}, {Text: "A loop too tight spoils the piece when it is forced."}},
		})
	}
	if ready := sol.Input.Ready(); len(ready) > 0 {
		t := Task{Key: "ready", Title: "Have ready"}
		for _, thing := range ready {
			t.Steps = append(t.Steps, method.Step{Text: words.Sentence(thing) + "."})
		}
		out = append(out, t)
	}
	for k := range n.Wraps {
		if t, ok := wrapTask(sol, &n.Wraps[k]); ok {
			out = append(out, t)
		}
	}
	if colours(sol) > 1 {
		out = append(out, Task{
			Key: "lay", Title: "Lay the pieces out", Minutes: craft.LayTime,
			Steps: []method.Step{{Text: "Lay the pieces of each row in the order of the map, so that nothing is counted at the head."}},
		})
	}
	return out
}

// colours is how many pieces of other kinds hang on the head.
func colours(sol *plan.Solved) int {
	used := map[int]bool{}
	for i := range sol.Places {
		used[sol.Places[i].Piece] = true
	}
	return len(used)
}

// cutTask is how loose hair becomes units; false where it hangs as it comes.
func cutTask(p hair.Piece, count int) (Task, bool) {
	cut := supply.Cut{Open: p.Sold, Cuts: p.Pack.Cuts, Splits: p.Pack.Splits, Fold: true}
	if cut.Open == 0 {
		cut.Open = 2 * p.Length * float64(cut.Cuts)
	}
	if cut.Cuts == 1 && cut.Splits == 1 {
		return Task{}, false
	}
	strands := (count + cut.Units(1) - 1) / cut.Units(1)
	t := Task{
		Key: "cut:" + p.Key, Title: "Cut and split " + p.Called(), Count: strands, Unit: "strand", Before: 1, Cut: &cut,
		Minutes: craft.CutTime*float64(strands)*boolTo(cut.Cuts > 1) + craft.SplitTime*float64(count)*boolTo(cut.Splits > 1),
	}
	if cut.Cuts > 1 {
		t.Steps = append(t.Steps, method.Step{
			Text:    fmt.Sprintf("Bind each strand at both ends, lay it out, {open} long, and cut it into %d lengths of {length}.", cut.Cuts),
			Lengths: map[string]float64{"open": cut.Open, "length": cut.Length()},
		}, method.Step{Text: "Cutting does not make more hair: the lengths add up to the strand."})
	}
	if cut.Splits > 1 {
		t.Steps = append(t.Steps, method.Step{
			Text: fmt.Sprintf("Split each length into %d, holding it at its middle: slowly, from the middle to the ends.", cut.Splits),
		}, method.Step{Text: "Cut first, split later: pulled apart at full length the hair tangles and loses its wave."})
	}
	t.Steps = append(t.Steps, method.Step{
		Text:    fmt.Sprintf("Folded over the hook a piece hangs {hanging}. %d strands give %d pieces; %d are needed.", strands, cut.Units(strands), count),
		Lengths: map[string]float64{"hanging": cut.Hanging()},
	})
	return t, true
}

func boolTo(yes bool) float64 {
	if yes {
		return 1
	}
	return 0
}

// braidTask is how bundles are made ready for braids made by hand.
func braidTask(p hair.Piece, count int) Task {
	bundle := supply.BraidBundle(p.Length)
	t := Task{
		Key: "bundle:" + p.Key, Title: "Make bundles of " + p.Called(), Count: count, Unit: "bundle", Minutes: craft.BundleTime * float64(count), Before: 1,
		Steps: []method.Step{
			{
				Text:    "Braiding takes up about a seventh: for a braid of {braid} a bundle must be {bundle} long.",
				Lengths: map[string]float64{"braid": p.Length, "bundle": bundle},
			},
			{Text: "Pull the ends of each bundle a little apart, so that the tip tapers and does not end blunt."},
		},
	}
	if p.Sold > 0 && p.Sold < bundle {
		t.Steps = append(t.Steps, method.Step{
			Text:    "As it is sold, {sold}, it braids down to {short}: plan shorter braids, or feed hair in on the way.",
			Lengths: map[string]float64{"sold": p.Sold, "short": p.Sold * craft.BraidTakeUp},
		})
	}
	return t
}

// makeTask is how locs are made by hand, in batches.
func makeTask(p hair.Piece, count int, making hair.Making) Task {
	wrapping := making.Wrapping
	m := supply.MakeLoc(p.Length, p.Thickness, wrapping.StrandLength)
	packs := m.Strands * float64(count) / float64(wrapping.Strands)
	return Task{
		Key: "make:" + p.Key, Title: "Make " + p.Called(), Count: count, Unit: "loc", Minutes: m.Minutes * float64(count), Before: 2,
		Made: &m, Batches: supply.Batches(count, m.Minutes, craft.BatchTime),
		Steps: []method.Step{
			beginLoc(making.Base, m),
			{Text: "Make the first one to its full length and mark it: it is the guide, every other is laid beside it."},
			{
				Text:    fmt.Sprintf("Wind wrapping hair from the loop down, turn beside turn: about %.0f strands of {strand} a loc.", math.Ceil(m.Strands)),
				Lengths: map[string]float64{"strand": wrapping.StrandLength},
			},
			{
				Text:    "Start each strand {over} over the end of the last.",
				Lengths: map[string]float64{"over": craft.MadeOverlap},
			},
			{Text: "At the tip wind back upward for a few turns, seal it with a dot of glue, and roll it."},
			{Text: "Glue stays off skin; air the room."},
			{Text: fmt.Sprintf("All %d take about %.1f packs of wrapping hair: %.2f of a pack each.", count, packs, m.Strands/float64(wrapping.Strands))},
		},
	}
}

// beginLoc is how a made loc is begun.
func beginLoc(base hair.MadeBase, m supply.MadeLoc) method.Step {
	cut := map[hair.MadeBase]string{
		hair.CordBase: "Cut a base of cord {base} long, fold it back at the top and leave a loop of {loop}.",
		hair.OldHair:  "Twist old hair into a base {base} long, fold it back at the top and leave a loop of {loop}.",
	}
	if base == hair.FinishedLoc {
		return method.Step{Text: "Take a finished loc, trim what stands off, and stretch its loop."}
	}
	return method.Step{Text: cut[base], Lengths: map[string]float64{"base": m.Base, "loop": craft.LoopLength}}
}

// wrapTask is how wrapping hair is laid ready; false where nobody wraps.
func wrapTask(sol *plan.Solved, need *WrapNeed) (Task, bool) {
	at := slices.IndexFunc(sol.Input.Ways, func(x plan.Way) bool { return x.Key == need.Way })
	if at < 0 { // what is wound into pieces is told where they are made
		return Task{}, false
	}
	way := &sol.Input.Ways[at]
	if way.Wrapping == nil {
		return Task{}, false
	}
	longest, most := 0.0, 0
	for i := range sol.Places {
		if p := &sol.Places[i]; p.Way == at {
			longest, most = max(longest, sol.Works[i].Ribbon), max(most, sol.Works[i].Strands)
		}
	}
	h := way.Wrapping
	each := float64(need.Strands) / float64(need.Plaits)
	return Task{
		Key: "wrap:" + way.Key, Title: "Lay the wrapping hair ready: " + sol.Input.WayName(way.Key), Count: need.Strands, Unit: "strand",
		Minutes: craft.WindTime * float64(need.Strands),
		Steps: []method.Step{
			{
				Text:    fmt.Sprintf("A plait takes up to {ribbon} of wrapping hair: %.1f strands of {strand}, at most %d; %.2f of a pack.", each, most, each/float64(h.Strands)),
				Lengths: map[string]float64{"ribbon": longest, "strand": h.StrandLength},
			},
			{
				Text:    "Cut in half it winds faster and goes just as far: every strand is two of {half}.",
				Lengths: map[string]float64{"half": h.StrandLength / 2},
			},
			{
				Text:    "Each new strand starts {over} over the end of the last.",
				Lengths: map[string]float64{"over": craft.MadeOverlap},
			},
			{Text: "Split it thin: too much of it makes a fat, heavy, tight base."},
		},
	}, true
}

// Supplied is what a plan needs of hair: how much, how far packs go, and what is prepared.
type Supplied struct {
	Need     Need      `json:"need"`
	Fillings []Filling `json:"fillings"`
	Tasks    []Task    `json:"tasks"`
}

// Supply works out what a plan needs of hair.
func Supply(sol *plan.Solved) (Supplied, error) {
	n, err := Of(sol)
	if err != nil {
		return Supplied{}, err
	}
	return Supplied{n, fillings(sol, n), append([]Task{}, Tasks(sol, n)...)}, nil
}
