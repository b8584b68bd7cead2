package studio

import (
	"context"
	"time"

	"kladotex/core/hair"
	"kladotex/core/supply"
)

// world is a world around a studio in which a test says what happens.
type world struct {
	known []supply.Seller
	lists map[string][]supply.Listed
	// posted are the subjects of what was sent; refuses is why nothing more is.
	posted  []string
	refuses error
}

func (w *world) outside() Outside { return Outside{Suppliers: w, Scale: w, Outbox: w} }

func (w *world) Known() []supply.Seller { return w.known }

func (w *world) List(ctx context.Context, key string, _ time.Time) ([]supply.Listed, error) {
	return w.lists[key], ctx.Err()
}

func (w *world) Samples() []hair.Piece { return nil }

func (w *world) Weigh(ctx context.Context, item supply.Item, packs int) ([]float64, error) {
	return []float64{float64(packs) * item.Mass}, ctx.Err()
}

func (w *world) Bag() float64 { return 0 }

func (w *world) Post(_ context.Context, _, subject, _ string) error {
	if w.refuses == nil {
		w.posted = append(w.posted, subject)
	}
	return w.refuses
}
