package standin

import (
	"context"
	"time"

	"kladotex/core/hair"
	"kladotex/core/supply"
	"kladotex/internal/studio"
)

// World is the simulated world around a studio. Nothing leaves this machine.
func World() studio.Outside {
	return studio.Outside{Suppliers: shops{}, Scale: scale{}, Outbox: outbox{}}
}

type shops struct{}

func (shops) Known() []supply.Seller { return Suppliers }

func (shops) List(ctx context.Context, key string, day time.Time) ([]supply.Listed, error) {
	return List(key, day), ctx.Err()
}

func (shops) Samples() []hair.Piece { return PriceList() }

type scale struct{}

func (scale) Weigh(ctx context.Context, item supply.Item, packs int) ([]float64, error) {
	return Weigh(item, packs), ctx.Err()
}

func (scale) Bag() float64 { return Bag() }

type outbox struct{}

func (outbox) Post(ctx context.Context, to, subject, body string) error {
	return Post(ctx, to, subject, body)
}
