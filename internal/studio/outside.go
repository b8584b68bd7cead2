package studio

import (
	"context"
	"time"

	"kladotex/core/hair"
	"kladotex/core/supply"
)

// Outside is the world around a studio, as far as it asks for it.
type Outside struct {
	Suppliers Suppliers
	Scale     Scale
	Outbox    Outbox
}

// Suppliers are those whose lists can be asked for.
type Suppliers interface {
	// Known are those that a studio may take on; none where there are none.
	Known() []supply.Seller
	// List is what a supplier has on a day, with the prices of that day; nil for one whose list cannot be
	// asked for. It fails when ctx ends, or the supplier does not answer.
	List(ctx context.Context, key string, day time.Time) ([]supply.Listed, error)
	// Samples are pieces a plan may start from before the studio has any of its own on file.
	Samples() []hair.Piece
}

// Scale is the scale that packs are laid on.
type Scale interface {
	// Weigh gives what the scale shows with packs of an item on it, g, one reading after the other; at the
	// last it is at rest.
	Weigh(ctx context.Context, item supply.Item, packs int) ([]float64, error)
	// Bag is the mass of the bag of one pack, g, which is taken off.
	Bag() float64
}

// Outbox takes messages to clients.
type Outbox interface {
	// Post sends a message. It fails on one without a recipient, a subject or words, and when ctx ends.
	Post(ctx context.Context, to, subject, body string) error
}
