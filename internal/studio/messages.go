package studio

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"time"

	"kladotex/core/hours"
	"kladotex/core/house"
	"kladotex/core/invalid"
	"kladotex/core/message"
	"kladotex/core/plan"
	"kladotex/core/wear"
	"kladotex/core/words"
	"kladotex/internal/store"
)

// WriteMessage is a message for a plan as the studio words it, filled: to be looked at before it
// is sent.
func (s *Studio) WriteMessage(ctx context.Context, by store.Person, planID string, kind message.Kind) (to string, words message.Template, err error) {
	p, sol, err := s.Solved(ctx, planID)
	if err != nil {
		return "", message.Template{}, err
	}
	home, err := s.Store.House(ctx)
	if err != nil {
		return "", message.Template{}, err
	}
	day, err := hours.DayOf(sol)
	if err != nil {
		return "", message.Template{}, fmt.Errorf("stored plan %s: %w", planID, err)
	}
	to = p.Client
	if to == "" {
		to = p.Title
	}
	told, err := s.toldOf(ctx, p, sol, home.Rules)
	if err != nil {
		return "", message.Template{}, fmt.Errorf("stored plan %s: %w", planID, err)
	}
	return to, home.Rules.Letter(kind).Fill(said(p, day, home.Rules, by, told)), nil
}

// toldOf is what the client of a plan is told of care and wear: of the head as it is worn, where it is, and
// else of the plan.
func (s *Studio) toldOf(ctx context.Context, p store.Plan, sol *plan.Solved, rules house.Rules) (wear.Told, error) {
	if p.InstallID != "" {
		switch h, err := s.HeadOf(ctx, p.InstallID); {
		case err == nil:
			return h.Told(), nil
		case !errors.Is(err, store.ErrNotFound): // it goes on
			return wear.Told{}, err
		}
	}
	return told(sol, rules), nil
}

// said is what stands for the names in braces of a message.
func said(p store.Plan, day hours.DayPlan, rules house.Rules, by store.Person, told wear.Told) map[string]string {
	studio := strings.TrimSpace(rules.Asks().Name)
	if studio == "" {
		studio = "your stylist"
	}
	client := p.Client
	if client == "" {
		client = "you"
	}
	worker := by.Name
	if h := day.Hands[0]; h.Name != "" {
		worker = h.Name
	}
	date, at := "a day to be settled", ""
	var lines []string
	for _, sitting := range day.Sittings {
		when := spokenDay(sitting.On)
		if sitting.Evening {
			when += ", the plaits beforehand"
		}
		lines = append(lines, fmt.Sprintf("– %s at %s, about %s", when, sitting.At, words.Minutes(sitting.Minutes)))
	}
	if len(day.Sittings) > 0 {
		date, at = spokenDay(day.Sittings[0].On), day.Sittings[0].At
	}
	bring := "Everything else is here."
	if b := p.Input.Price; b != nil && b.BringsHair {
		var names []string
		for _, n := range p.Input.Pieces {
			names = append(names, n.Called())
		}
		bring = "Please bring the hair: " + strings.Join(names, "; ") + "."
	}
	return map[string]string{
		"client": client, "studio": studio, "by": worker, "date": date, "time": at, "sittings": strings.Join(lines, "\n"),
		"hours": words.Minutes(day.Sum()), "bring": bring, "care": strings.Join(told.Lines(), "\n"),
	}
}

// spokenDay is a date as it is said in a message.
func spokenDay(on string) string {
	day, err := time.Parse(time.DateOnly, on)
	if err != nil {
		return "a day to be settled"
	}
	return day.Format("Monday 2 January 2006")
}

// SendMessage sends a message for a plan, as it was looked at and perhaps reworded, through the
// outbox, and keeps it.
func (s *Studio) SendMessage(ctx context.Context, by store.Person, id, planID string, kind message.Kind, words message.Template) (store.Message, error) {
	p, err := s.Store.Plan(ctx, planID)
	if err != nil {
		return store.Message{}, err
	}
	var bad invalid.Errors
	invalid.OneOf(&bad, "kind", "The kind of a message", kind, message.Kinds())
	bad.Letters("subject", "The subject", strings.TrimSpace(words.Subject), 1, 160)
	bad.Letters("body", "The message", strings.TrimSpace(words.Body), 1, 6000)
	if err := bad.Err(); err != nil {
		return store.Message{}, err
	}
	to := p.Client
	if to == "" {
		to = p.Title
	}
	m := store.Message{ID: id, PlanID: p.ID, ClientID: p.ClientID, Kind: kind, To: to, Words: words, By: by.Name}
	switch sent, err := s.Store.Message(ctx, id); {
	case err == nil: // it was sent, and is not sent twice
		return sent, m.Repeats(sent)
	case !errors.Is(err, store.ErrNotFound):
		return store.Message{}, err
	}
	if err := s.outside.Outbox.Post(ctx, to, words.Subject, words.Body); err != nil {
		return store.Message{}, err
	}
	return s.Store.KeepMessage(ctx, m)
}
