// Package demo furnishes the made-up studio Tidewheel Loft of Merrow Sound, so
// that a newcomer finds plans to open.
package demo

import (
	"context"
	"fmt"

	"kladotex/core/attach"
	"kladotex/core/parting"
	"kladotex/core/pieces"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/internal/standin"
	"kladotex/internal/store"
)

const inch = 25.4

// Plans are the studio's first plans, by title.
func Plans() []struct {
	Title string
	Input plan.Input
} {
	line := func(n int) plan.Piece { return standin.PriceList()[n] }
	square := func(in float64) parting.Size { return parting.Size{Width: in * inch, Height: in * inch} }

	cellist := plan.Default()
	cellist.Head = scalp.Tapes{Circumference: 21.5 * inch, FrontToNape: 13.75 * inch, EarToEar: 12.25 * inch, HairBulk: 2, Ratio: 0.77}
	cellist.Hair = plan.Hair{Length: 5 * inch, Density: 170, Strand: 68}
	cellist.Parting = parting.Settings{Pattern: parting.Grid, Front: square(0.75), Back: square(1)}
	cellist.Piece = line(2)

	technician := plan.Default()
	technician.Head = scalp.Tapes{Circumference: 23.25 * inch, FrontToNape: 14.75 * inch, EarToEar: 13.25 * inch, HairBulk: 4, Ratio: 0.8}
	technician.Hair = plan.Hair{Length: 11 * inch, Density: 240, Strand: 82}
	technician.Parting = parting.Settings{Pattern: parting.Brick, Front: square(1), Back: square(1.25)}
	technician.Piece = line(4)
	technician.Attach.Method = attach.CollarAndWrap

	baker := plan.Default()
	baker.Head = scalp.Tapes{Circumference: 22 * inch, FrontToNape: 14 * inch, EarToEar: 12.75 * inch, HairBulk: 3, Ratio: 0.78}
	baker.Hair = plan.Hair{Length: 7 * inch, Density: 190, Strand: 72}
	baker.Parting = parting.Settings{Pattern: parting.Brick, Front: square(0.75), Back: square(0.875)}
	baker.Piece = line(5)
	baker.Spares = pieces.Spares{Percent: 8, Least: 4}
	baker.Attach.Method = attach.FoldAndTwist
	baker.OwnHead = true

	return []struct {
		Title string
		Input plan.Input
	}{
		{"The baker, four evenings at home", baker},
		{"The lighthouse technician, long thick hair", technician},
		{"The cellist, a hairline that shows", cellist},
	}
}

// Furnish adds the plans to an empty studio; a studio with plans is left alone.
func Furnish(ctx context.Context, s *store.Store) error {
	have, err := s.Plans(ctx)
	if err != nil || len(have) > 0 {
		return err
	}
	for _, p := range Plans() {
		res, err := plan.Compute(p.Input)
		if err != nil {
			return fmt.Errorf("demo plan %q: %w", p.Title, err)
		}
		if _, err := s.CreatePlan(ctx, p.Title, p.Input, store.Summarise(p.Input, res)); err != nil {
			return fmt.Errorf("demo plan %q: %w", p.Title, err)
		}
	}
	return nil
}
