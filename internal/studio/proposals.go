package studio

import (
	"context"
	"runtime"
	"slices"

	"kladotex/core/client"
	"kladotex/core/invalid"
	"kladotex/core/plan"
	"kladotex/core/propose"
)

// Wished is what is wished for a head.
type Wished struct {
	// Input is the head: its tapes, its hair, what it bears.
	Input    plan.Input `json:"input"`
	ClientID string     `json:"clientId,omitempty" maxLength:"64" doc:"Whose head it is; left out for a head without a card"`
	// Measured is true where the three tapes were taken.
	Measured bool `json:"measured" doc:"True where the three tapes were taken"`
	// Asked and History are what was answered about a head that no card speaks of, Read the cautions of it that
	// were read.
	Asked   bool           `json:"asked" doc:"True once it was asked about scalp, loss and chemicals; a client's card answers it"`
	History []client.Event `json:"history" maxItems:"3" doc:"What was answered with yes"`
	Read    []string       `json:"read" maxItems:"4" doc:"Keys of cautions that were read by who asks"`
}

// Propose answers a wish; tell is told how far it has come, and may be nil.
func (s *Studio) Propose(ctx context.Context, in Wished, tell func(propose.Progress)) (propose.Answer, error) {
	begin, asks, err := s.search(ctx, in)
	if err != nil {
		return propose.Answer{}, err
	}
	if asks != "" {
		answer := propose.Nothing()
		answer.Asks, answer.Questions = asks, client.Asks()
		return answer, nil
	}
	answer, err := propose.Search(ctx, begin, tell)
	return answer, invalid.Under(err, "input")
}

// WhyNot says why something was not proposed that is asked for.
func (s *Studio) WhyNot(ctx context.Context, in Wished, asked propose.Asked, instead propose.Figures) (propose.Why, error) {
	begin, _, err := s.search(ctx, in)
	if err != nil {
		return propose.Why{}, err
	}
	return propose.WhyNot(ctx, begin, asked, instead)
}

// HoldAgainstWish holds a plan against the wish it carries.
func (s *Studio) HoldAgainstWish(ctx context.Context, in Wished) (propose.Held, error) {
	begin, _, err := s.search(ctx, in)
	if err != nil {
		return propose.Held{}, err
	}
	held, err := propose.Hold(ctx, begin)
	return held, invalid.Under(err, "input")
}

// search is what a search for a wish starts from, and what must be asked before.
func (s *Studio) search(ctx context.Context, in Wished) (begin propose.Begin, asks propose.Ask, err error) {
	if err := plan.Check(in.Input); err != nil {
		return begin, "", invalid.Under(err, "input")
	}
	home, err := s.Store.House(ctx)
	if err != nil {
		return begin, "", err
	}
	begin = propose.Begin{Head: in.Input, Rules: home.Rules.Wear(), Measured: in.Measured, Workers: min(4, runtime.GOMAXPROCS(0))}
	ready, err := s.ready(ctx, in.Input.Pieces[0].Colour)
	if err != nil {
		return begin, "", err
	}
	for _, r := range ready {
		begin.Shelf = append(begin.Shelf, r.Piece)
	}
	if len(begin.Shelf) == 0 { // nothing in the supplies yet: what a plan may start from
		begin.Shelf = s.Samples()
	}
	if begin.Before, err = s.earlier(ctx, in.ClientID); err != nil {
		return begin, "", err
	}
	facts, read := client.Facts{History: in.History}, in.Read
	if in.ClientID != "" {
		c, err := s.Store.Client(ctx, in.ClientID)
		if err != nil {
			return begin, "", err
		}
		facts = c.Facts
		for _, a := range c.Acknowledged {
			read = append(read, a.Caution)
		}
	} else if !in.Asked {
		return begin, propose.AskHealth, nil
	}
	for _, g := range facts.GraveOn(in.Input.Child) {
		if g.Key != client.Child && !slices.Contains(read, g.Key) { // a child changes the limits, and stops nothing
			begin.Stops = append(begin.Stops, propose.Stop{Key: g.Key, Says: g.Text})
		}
	}
	return begin, "", nil
}
