// Package studio holds what people do in a studio: plan a head and save it, keep a
// client's card, let people in, set the house rules. The interface calls it and nothing
// below it.
//
// A use case looks at what it was given, computes, and changes the store in one
// transaction. Its errors name fields as [invalid.Errors], with paths relative to what was
// given, or are those of the store.
package studio

import (
	"context"
	"crypto/rand"
	"time"

	"kladotex/internal/password"
	"kladotex/internal/store"
)

// Studio is one studio over its store.
type Studio struct {
	// Store is where it is kept: what is only read, ended or deleted is asked of it.
	Store *store.Tx
	// outside is the world around it.
	outside Outside
	// now is the present, by the machine's clock.
	now func() time.Time
	// nobody is the hash of a password that no one has.
	nobody string
}

// Open makes a studio of its store and the world around it. It fails when ctx ends before it is ready.
func Open(ctx context.Context, s *store.Store, outside Outside) (*Studio, error) {
	nobody, err := password.Hash(ctx, rand.Text())
	if err != nil {
		return nil, err
	}
	return &Studio{Store: &s.Tx, outside: outside, now: time.Now, nobody: nobody}, nil
}

// update carries out a use case in one transaction: what it reads, judges by and writes are of one
// moment, and nothing of it stays where it fails. Nobody else writes meanwhile; what takes long is
// worked out before.
func (s *Studio) update(ctx context.Context, work func(*Studio) error) error {
	return s.Store.Update(ctx, func(tx *store.Tx) error {
		within := *s
		within.Store = tx
		return work(&within)
	})
}

// unmoved refuses to write what was worked out from a plan, where the plan was saved since or something
// holds it back by now.
func (s *Studio) unmoved(ctx context.Context, p store.Plan) error {
	now, err := s.Store.Plan(ctx, p.ID)
	switch {
	case err != nil:
		return err
	case now.Version != p.Version:
		return store.ErrStale
	}
	return s.cleared(ctx, now)
}
