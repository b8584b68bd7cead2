package plan

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/internal/countdown"
	"kladotex/core/invalid"
)

func TestTradeOffIsThePlanAtOtherSizes(t *testing.T) {
	in := Default()
	in.Parting.Front.Width = 19.05
	trade, err := TradeOff(context.Background(), in)
	require.NoError(t, err)
	points := trade.Sizes
	require.Len(t, points, 13)
	own := compute(t, in).Tally
	for i, p := range points {
		if p.Width == in.Parting.Back.Width {
			assert.Equal(t, TradePoint{p.Width, own.Sections, own.Pieces, own.Packs, own.Cost, own.Minutes}, p)
		}
		if i > 0 {
			assert.LessOrEqual(t, p.Sections, points[i-1].Sections)
			assert.LessOrEqual(t, p.Minutes, points[i-1].Minutes)
			assert.LessOrEqual(t, p.Packs, points[i-1].Packs)
		}
	}
	// Half the size, four times the sections, roughly.
	assert.InEpsilon(t, 4, float64(points[0].Sections)/float64(points[4].Sections), 0.15)
	in.Spares.Percent = -1
	_, err = TradeOff(context.Background(), in)
	require.NotEmpty(t, invalid.From(err))
	assert.Equal(t, "spares.percent", invalid.From(err)[0].Path)
}

// A comparison that nobody waits for any more lays no further head.
func TestTradeOffStopsWithItsContext(t *testing.T) {
	const plenty = 1 << 40
	whole := countdown.From(plenty)
	_, err := TradeOff(whole, Default())
	require.NoError(t, err)
	asked := plenty - whole.Left()
	for share := range int64(8) {
		ctx := countdown.From(asked * share / 8)
		_, err := TradeOff(ctx, Default())
		require.ErrorIs(t, err, context.Canceled, "%d eighths", share)
		assert.Less(t, -ctx.Left(), int64(20), "%d eighths", share)
	}
}
