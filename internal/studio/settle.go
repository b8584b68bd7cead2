package studio

import (
	"context"
	"fmt"
	"slices"
	"time"

	"kladotex/core/chair"
	"kladotex/core/freeze"
	"kladotex/core/need"
	"kladotex/core/plan"
	"kladotex/core/wear"
	"kladotex/internal/store"
)

// settling is how the events of an install are settled: the state folded from them says whether it is
// over, and then what it took and what it teaches. What may be read is read before, so that the fold
// alone runs inside the transaction.
func (s *Studio) settling(ctx context.Context, by store.Person, i store.Install) (store.Settle, error) {
	clock, err := s.Clock(ctx)
	if err != nil {
		return nil, err
	}
	in, err := s.frozenInput(ctx, i.ID)
	if err != nil {
		return nil, err
	}
	return func(i store.Install, events []chair.Event) (store.Settlement, error) {
		b := i.Brief
		if b.Goods == nil {
			if err := addGoods(ctx, &b, in); err != nil {
				return store.Settlement{}, fmt.Errorf("install %s: %w", i.ID, err)
			}
		}
		state := b.Fold(events)
		at, over := state.Over()
		out := store.Settlement{Over: over, At: time.UnixMilli(at)}
		if in.Redo != nil {
			out.Renews = in.Redo.Install
			out.Renewal = wear.Entry{ID: renewal(i.ID), On: clock.Date(out.At), Kind: wear.Renewed, Rows: in.Redo.Rows, Of: i.ID, By: by.Name}
		}
		if !over {
			sol, err := plan.Solve(ctx, in)
			if err != nil {
				return store.Settlement{}, fmt.Errorf("install %s: %w", i.ID, err)
			}
			n, err := need.Of(sol)
			out.Claims = claims(in, n)
			return out, err
		}
		out.Log = state.Log()
		for _, l := range state.Bill() {
			if l.Item != "" {
				out.Bill = append(out.Bill, store.Bill{
					Claim: store.Claim{Key: l.Key, Item: l.Item, Colour: l.Colour, Pieces: l.Used + l.Spoilt, Reuse: in.ReuseFirst},
					Name:  l.Name, Used: l.Used, Spoilt: l.Spoilt,
				})
			}
		}
		return out, nil
	}, nil
}

// settleOld books what an install took beside its pieces where it ended before that was counted, so that
// what comes back went out first.
func (s *Studio) settleOld(ctx context.Context, by store.Person, install string) error {
	i, err := s.Store.Install(ctx, install)
	if err != nil || i.Brief.Goods != nil {
		return err
	}
	settle, err := s.settling(ctx, by, i)
	if err != nil {
		return err
	}
	return s.Store.SettleInstall(ctx, i.ID, by.Name, settle)
}

// addGoods puts what goes on beside the pieces into a brief that was frozen before it was counted.
func addGoods(ctx context.Context, b *chair.Brief, in plan.Input) error {
	sol, err := plan.Solve(ctx, in)
	if err != nil {
		return err
	}
	at, err := freeze.ForChair(sol)
	if err != nil {
		return err
	}
	with := map[string][]chair.With{}
	for _, p := range at.Brief.Places {
		with[p.ID] = p.With
	}
	b.Goods = at.Brief.Goods
	b.Places = slices.Clone(b.Places)
	for k := range b.Places {
		b.Places[k].With = with[b.Places[k].ID]
	}
	return nil
}
