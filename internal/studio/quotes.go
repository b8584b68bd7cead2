package studio

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"kladotex/core/advice"
	"kladotex/core/attach"
	"kladotex/core/care"
	"kladotex/core/fall"
	"kladotex/core/freeze"
	"kladotex/core/hang"
	"kladotex/core/house"
	"kladotex/core/invalid"
	"kladotex/core/judge"
	"kladotex/core/plan"
	"kladotex/core/quote"
	"kladotex/core/supply"
	"kladotex/core/wear"
	"kladotex/internal/picture"
	"kladotex/internal/sheet"
	"kladotex/internal/store"
)

// Fit judges fit and load of a plan, against what is in the supplies and what the client wore
// before; no client leaves that out.
func (s *Studio) Fit(ctx context.Context, clientID string, in plan.Input) (judge.Fitting, error) {
	if err := plan.Check(in); err != nil {
		return judge.Fitting{}, err
	}
	have, err := s.ready(ctx, in.Pieces[0].Colour)
	if err != nil {
		return judge.Fitting{}, err
	}
	before, err := s.earlier(ctx, clientID)
	if err != nil {
		return judge.Fitting{}, err
	}
	sol, err := plan.Solve(ctx, in)
	if err != nil {
		return judge.Fitting{}, err
	}
	return judge.Fit(ctx, sol, have, before)
}

// ready are the pieces of the supplies that can be had, in a colour where they come in it, with how many of each
// lie free in the stash.
func (s *Studio) ready(ctx context.Context, wanted string) ([]judge.Ready, error) {
	items, err := s.everyItem(ctx)
	if err != nil {
		return nil, err
	}
	var have []judge.Ready
	for _, i := range items {
		if i.Archived || !i.Kind.Facts().Hangs || len(i.Offers) == 0 {
			continue
		}
		colour := ""
		if len(i.Colours) > 0 {
			colour = i.Colours[0].Name
		}
		if slices.ContainsFunc(i.Colours, func(c supply.Colour) bool { return c.Name == wanted }) {
			colour = wanted
		}
		have = append(have, judge.Ready{Piece: i.Piece(i.ID, i.ID, colour), Stash: i.Pieces - i.Promised})
	}
	return have, nil
}

// earlier is what a client wore before, here and elsewhere; none where no client is named.
func (s *Studio) earlier(ctx context.Context, clientID string) ([]wear.Earlier, error) {
	if clientID == "" {
		return nil, nil
	}
	c, err := s.Store.Client(ctx, clientID)
	if err != nil {
		return nil, err
	}
	heads, err := s.Heads(ctx, clientID)
	if err != nil {
		return nil, err
	}
	return append(wornBefore(heads), c.Facts.Earlier()...), nil
}

// Price is what a plan costs on the studio's terms.
func (s *Studio) Price(ctx context.Context, in plan.Input) (quote.Price, error) {
	home, err := s.Store.House(ctx)
	if err != nil {
		return quote.Price{}, err
	}
	sol, err := plan.Solve(ctx, in)
	if err != nil {
		return quote.Price{}, err
	}
	price, _, err := freeze.Price(sol, home.Rules.Asks())
	return price, err
}

// GiveQuote freezes a quote of a plan as it is stored, under an id made by who gives it. The
// version is that which was looked at: a plan that was saved since is refused with
// [store.ErrStale].
func (s *Studio) GiveQuote(ctx context.Context, by store.Person, id, planID string, version int, unit sheet.Unit, paper string) (store.Quote, error) {
	p, sol, err := s.Solved(ctx, planID)
	if err != nil {
		return store.Quote{}, err
	}
	if p.Version != version {
		return store.Quote{}, store.ErrStale
	}
	if err := s.cleared(ctx, p); err != nil {
		return store.Quote{}, err
	}
	home, err := s.Store.House(ctx)
	if err != nil {
		return store.Quote{}, err
	}
	terms := home.Rules.Asks()
	price, res, err := freeze.Price(sol, terms)
	if err != nil {
		return store.Quote{}, fmt.Errorf("stored plan %s: %w", planID, err)
	}
	drape, err := hang.Of(ctx, sol, fall.Down)
	if err != nil {
		return store.Quote{}, fmt.Errorf("drape of plan %s: %w", planID, err)
	}
	clock, err := s.clockOf(home.Rules)
	if err != nil {
		return store.Quote{}, err
	}
	now := clock.Now()
	given := quote.Letter{
		Schema: quote.LetterSchema, Title: p.Title, Client: p.Client, Studio: terms.Name, By: by.Name,
		On: now.Format(time.DateOnly), Until: now.AddDate(0, 0, terms.ValidDays).Format(time.DateOnly),
		Currency: home.Rules.Currency, Price: price, Included: freeze.Included(p.Input, res), Cautions: []string{}, Care: told(sol, home.Rules).Lines(),
		Conditions: strings.TrimSpace(terms.Conditions), Engine: plan.Engine,
	}
	if p.ClientID != "" {
		c, err := s.Store.Client(ctx, p.ClientID)
		if err != nil {
			return store.Quote{}, err
		}
		given.Cautions = append(given.Cautions, c.Facts.Cautions()...)
	}
	for _, n := range res.Notices {
		if n.Severity == advice.Danger {
			given.Cautions = append(given.Cautions, strings.TrimSpace(n.Reason+" "+n.Remedy))
		}
	}
	record, err := recordOf(sol)
	if err != nil {
		return store.Quote{}, err
	}
	return s.Store.GiveQuote(ctx, id, store.QuoteDraft{
		PlanID: p.ID, ClientID: p.ClientID, Given: given, Record: record,
		Still: func(tx *store.Tx) error {
			within := *s
			within.Store = tx
			return within.unmoved(ctx, p)
		},
		Parted: picture.Small(res), Draped: picture.DrapedView(res, drape, p.Input, 32*math.Pi/180, 6*math.Pi/180),
		Paper: func(number int) ([]byte, error) {
			return sheet.QuotePDF(ctx, sheet.Quote{Number: number, Given: given, At: now, Input: p.Input, Result: res, Drape: drape},
				sheet.Style{Unit: unit, Paper: cmp.Or(home.Rules.Paper, paper), Currency: given.Currency})
		},
	})
}

// told is what the client of a plan is told of care and wear: in a quote, in messages and on papers, and
// once it is done as [Head.Told] on its pages.
func told(sol *plan.Solved, rules house.Rules) wear.Told {
	worn := care.Brief(sol, attach.Of(sol))
	return worn.Told(rules.Wear())
}

// recordOf is a plan as a quote, a booking and an install keep it.
func recordOf(sol *plan.Solved) (r store.Record, err error) {
	r.Engine = plan.Engine
	if r.Input, err = json.Marshal(sol.Input); err != nil {
		return r, err
	}
	r.Places, err = json.Marshal(sol.Resolution)
	return r, err
}

// AnswerQuote says what became of a quote.
func (s *Studio) AnswerQuote(ctx context.Context, by store.Person, id string, state quote.State) (store.Quote, error) {
	var bad invalid.Errors
	invalid.OneOf(&bad, "state", "What became of the quote", state, quote.States)
	if len(bad) > 0 {
		return store.Quote{}, bad
	}
	return s.Store.AnswerQuote(ctx, id, state, by.Name)
}
