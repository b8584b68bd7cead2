package studio

import (
	"context"
	"slices"
	"time"

	"kladotex/core/client"
	"kladotex/core/invalid"
	"kladotex/core/judge"
	"kladotex/internal/store"
)

// Clearance is whether a plan may be carried out: quoted, booked, brought to the chair.
type Clearance struct {
	// Clear is true where nothing holds it back.
	Clear bool `json:"clear"`
	// Asked is false where no client's card speaks of the head and nobody was asked about it; History is
	// what was answered then.
	Asked   bool           `json:"asked" doc:"False where no client's card speaks of this head and nobody was asked"`
	History []client.Event `json:"history" enum:"chemical,heat-damage,hair-loss,sore-scalp,fibre-itch,product-allergy,pain-before" doc:"What was answered where no card speaks of it"`
	// Questions are what is asked where no card speaks of the head.
	Questions []client.Grave  `json:"questions" doc:"What is asked where no card speaks of the head"`
	Cautions  []Caution       `json:"cautions"`
	Refusals  []judge.Refusal `json:"refusals"`
}

// Caution is a grave caution of a head with who read it; nobody yet where By is empty.
type Caution struct {
	client.Grave
	By string     `json:"by,omitempty"`
	At *time.Time `json:"at,omitempty"`
}

// Clearance looks at what holds a stored plan back.
func (s *Studio) Clearance(ctx context.Context, planID string) (Clearance, error) {
	p, err := s.Store.Plan(ctx, planID)
	if err != nil {
		return Clearance{}, err
	}
	return s.clearance(ctx, p)
}

func (s *Studio) clearance(ctx context.Context, p store.Plan) (Clearance, error) {
	out := Clearance{Asked: true, History: []client.Event{}, Questions: client.Asks(), Cautions: []Caution{}, Refusals: judge.Refusals(p.Input)}
	var facts client.Facts
	var read []store.Acknowledged
	if p.ClientID != "" {
		c, err := s.Store.Client(ctx, p.ClientID)
		if err != nil {
			return Clearance{}, err
		}
		facts, read = c.Facts, c.Acknowledged
	} else {
		asked, err := s.Store.AskedOf(ctx, p.ID)
		if err != nil {
			return Clearance{}, err
		}
		if out.Asked = asked != nil; out.Asked {
			facts.History, read = asked.History, asked.Read
			out.History = append(out.History, asked.History...)
		}
	}
	out.Clear = out.Asked && len(out.Refusals) == 0
	for _, g := range facts.GraveOn(p.Input.Child) {
		c := Caution{Grave: g}
		if i := slices.IndexFunc(read, func(a store.Acknowledged) bool { return a.Caution == g.Key }); i >= 0 {
			c.By, c.At = read[i].Person, &read[i].At
		}
		out.Clear = out.Clear && c.By != ""
		out.Cautions = append(out.Cautions, c)
	}
	return out, nil
}

// cleared refuses to go on with a plan that something holds back, and says what.
func (s *Studio) cleared(ctx context.Context, p store.Plan) error {
	c, err := s.clearance(ctx, p)
	if err != nil || c.Clear {
		return err
	}
	var bad invalid.Errors
	for _, r := range c.Refusals {
		bad.Add("(plan)", "%s", r.Reason)
	}
	if !c.Asked {
		bad.Add("cautions", "Ask first about a sore scalp, hair that is being lost, and a recent chemical service: nobody's card answers it for this head.")
	}
	for _, x := range c.Cautions {
		if x.By == "" {
			bad.Add("cautions", "Read this first: %s", x.Text)
		}
	}
	return bad
}

// Ask keeps what was answered about the head of a plan that no client's card speaks of.
func (s *Studio) Ask(ctx context.Context, by store.Person, planID string, history []client.Event) (Clearance, error) {
	var bad invalid.Errors
	var known []client.Event
	for _, q := range client.Asks() {
		known = append(known, client.Event(q.Key))
	}
	for i, e := range history {
		invalid.OneOf(&bad, invalid.At("history", i), "What calls for caution", e, known)
	}
	if err := bad.Err(); err != nil {
		return Clearance{}, err
	}
	var out Clearance
	err := s.update(ctx, func(s *Studio) (err error) {
		if err = s.Store.SetAsked(ctx, planID, history, by.Name); err == nil {
			out, err = s.Clearance(ctx, planID)
		}
		return err
	})
	return out, err
}

// ReadCaution keeps that a caution of the head of a plan was read: on the client's card, or with the plan
// where there is none. One that is not given is refused.
func (s *Studio) ReadCaution(ctx context.Context, by store.Person, planID, caution string) (Clearance, error) {
	var out Clearance
	err := s.update(ctx, func(s *Studio) error {
		p, err := s.Store.Plan(ctx, planID)
		if err != nil {
			return err
		}
		c, err := s.clearance(ctx, p)
		if err != nil {
			return err
		}
		if !slices.ContainsFunc(c.Cautions, func(x Caution) bool { return x.Key == caution }) {
			var bad invalid.Errors
			bad.Add("caution", "Nothing gives reason for such a caution; it is %q.", caution)
			return bad
		}
		if p.ClientID != "" {
			_, err = s.Store.Acknowledge(ctx, p.ClientID, caution, by.Name)
		} else {
			err = s.Store.ReadCaution(ctx, planID, caution, by.Name)
		}
		if err != nil {
			return err
		}
		out, err = s.Clearance(ctx, planID)
		return err
	})
	return out, err
}
