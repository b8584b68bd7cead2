package sheet

import (
	"context"
	"slices"
	"time"

	"kladotex/core/hang"
	"kladotex/core/hours"
	"kladotex/core/plan"
	"kladotex/core/tally"
)

// Plan is a plan to be put on paper.
type Plan struct {
	Title  string
	Client string // empty while it is open whose head it is
	// Cautions are the client's, gravest first.
	Cautions []string
	Updated  time.Time
	Input    plan.Input
	Result   tally.Result
	// Drape and Landings are how it hangs; nil leaves that page out.
	Drape    *hang.Drape
	Landings *hang.Landings
	// Day is how it is done; nil leaves that page out.
	Day *hours.DayPlan
}

// PDF writes parts of the plan sheet, in the order of [Parts]; none named are all. The error is
// that of ctx when it ends first.
func PDF(ctx context.Context, p Plan, style Style, parts ...Part) ([]byte, error) {
	w := newPage(ctx, p, style)
	if len(parts) == 0 {
		parts = Parts
	}
	has := func(part Part) bool { return slices.Contains(parts, part) }
	var flowing []lane
	add := func(part Part, lanes func() []lane) {
		if has(part) && ctx.Err() == nil {
			flowing = append(flowing, lanes()...)
		}
	}
	return w.written(
		func() {
			if has(AtTheChair) {
				w.chairPage()
			}
		},
		func() {
			add(ToBuy, w.ahead)
			add(Steps, w.methods)
			add(Hang, w.hanging)
			add(RowGuide, w.rowGuide)
			if len(flowing) > 0 {
				w.flow(flowing, nil)
			}
		},
		func() {
			if has(CutOut) {
				w.flow(w.cutOut(), w.cutHead)
			}
		},
	)
}

// Part is a part of the plan sheet that is printed or left out.
type Part string

// The parts.
const (
	AtTheChair Part = "chair"
	ToBuy      Part = "buy"
	Steps      Part = "steps"
	Hang       Part = "hang"
	RowGuide   Part = "guide"
	CutOut     Part = "cut"
)

// Parts are all of them, in the order in which they are printed.
var Parts = []Part{AtTheChair, ToBuy, Steps, Hang, RowGuide, CutOut}
