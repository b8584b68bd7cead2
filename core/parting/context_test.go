package parting

import (
	"context"
	"kladotex/core/bond"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/advice"
	"kladotex/core/internal/countdown"
	"kladotex/core/invalid"
)

// Whatever takes long stops when nobody waits for it any more, wherever it is.
func TestEveryLongWorkStopsWithItsContext(t *testing.T) {
	h := average(t)
	levels := both(Brick, square(0.3), square(0.3))
	levels.Part.Kind = Levels
	net := both(Grid, square(1), square(1))
	net.Structure, net.Base.Kind, net.Base.Spacing = NetCap, Net, 5
	byHand := both(Brick, square(0.5), square(0.5))
	l, err := Lay(t.Context(), h, byHand)
	require.NoError(t, err)
	for _, x := range l.Sections {
		byHand.Edits = append(byHand.Edits, Edit{Kind: Lock, At: Toward(h, x.Centroid)})
	}
	for name, work := range map[string]func(context.Context) error{
		"levels": func(ctx context.Context) error { _, err := Lay(ctx, h, levels); return err },
		"a net":  func(ctx context.Context) error { _, err := Lay(ctx, h, net); return err },
		"work by hand": func(ctx context.Context) error {
			_, err := Lay(ctx, h, byHand)
			return err
		},
		"a fit to a count": func(ctx context.Context) error {
			_, err := FitCount(ctx, h, levels, Count{Total: 601})
			return err
		},
		"a refusal": func(ctx context.Context) error {
			small := both(Brick, Size{5, 5}, Size{5, 5})
			_, err := Lay(ctx, h, small)
			return err
		},
	} {
		whole := countdown.From(1 << 40)
		_ = work(whole)
		asked := 1<<40 - whole.Left()
		require.Greater(t, asked, int64(8), "%s looks at its context as it goes", name)
		for _, share := range []int64{0, 1, 2, 3} {
			ctx := countdown.From(asked * share / 4)
			err := work(ctx)
			require.ErrorIs(t, err, context.Canceled, "%s, a quarter times %d", name, share)
			assert.Less(t, -ctx.Left(), int64(200), "%s goes on long after its end", name)
		}
	}
}

// A part dragged next to one of the row below is seen by the stagger, by its section's
// colour and by the warning.
func TestADraggedPartIsSeenByStagger(t *testing.T) {
	for _, along := range []float64{1, 1.5} {
		h := average(t)
		s := both(Brick, square(1), square(1))
		s.Front.Along, s.Back.Along = along, along
		before, err := Lay(t.Context(), h, s)
		require.NoError(t, err)
		require.GreaterOrEqual(t, before.Stagger.Min, bond.Quarter-1e-9)
		// A part of the fourth row behind, dragged in line with the nearest one of the third.
		f, err := newFrames(h, s)
		require.NoError(t, err)
		pairs := layRows(t.Context(), s, f.pairs())
		var back *panel
		for _, c := range pairs {
			if c.any().key == "B" {
				back = c.left
			}
		}
		line := back.bands[3].Mid
		from := back.courses[3].Joints[1]
		to := nearest(back.courses[2].Joints, from)
		at := func(x float64) Direction { return Toward(h, h.Point(line.At(x))) }
		with := at(from)
		s.Edits = []Edit{{Kind: MovePart, At: at(to), With: &with}}
		after, err := Lay(t.Context(), h, s)
		require.NoError(t, err)
		require.Empty(t, after.Rejected)
		assert.Less(t, after.Stagger.Min, 0.1, "along %v", along)
		weak := 0
		for _, x := range after.Sections {
			if x.Stagger < bond.Quarter-1e-9 {
				weak++
			}
		}
		assert.Positive(t, weak)
		kinds := map[advice.Code]bool{}
		for _, w := range after.Notices {
			kinds[w.Code] = true
		}
		assert.True(t, kinds[advice.WeakStagger])
	}
}

// A failure that is no refusal stays one, however many hands it goes through.
func TestAForeignErrorIsNoSuccess(t *testing.T) {
	assert.ErrorIs(t, invalid.Under(context.Canceled, "parting"), context.Canceled)
	assert.NoError(t, invalid.Under(nil, "parting"))
	ctx, stop := context.WithCancel(t.Context())
	stop()
	_, err := FitCount(ctx, average(t), both(Brick, square(1), square(1)), Count{Total: 60})
	assert.ErrorIs(t, err, context.Canceled)
}
