package demo

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"

	"kladotex/core/pace"
	"kladotex/core/plan"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// hands are how practised the studio's people are.
var hands = map[string]pace.Hand{
	"Odalys Brandt": pace.Fast, "Tamsin Okoro-Vale": pace.Practised, "Ikaika Moreau": pace.Used,
}

// dayOf is how a plan of the demo is done, beside its date; crew are the people by name.
func dayOf(title string, in plan.Input, crew map[string]store.Person) (out []plan.Hand, sittings *plan.Sittings) {
	worker := func(name string, does plan.Does) plan.Hand {
		p := crew[name]
		return plan.Hand{Key: p.ID, Person: p.ID, Name: p.Name, Hand: p.Hand, Does: does}
	}
	usual := in.UsualSittings()
	switch title {
	case "The baker, four evenings at home":
		usual.Longest, usual.At = 5*60, "17:30"
		return []plan.Hand{{Key: "own", Name: "Delphine", Hand: pace.Practised, Does: plan.DoesBoth}}, &usual
	case "The sail-school pupil, a part and no more":
		usual.At, usual.Slots = "10:00", []plan.Slot{{}, {After: 7}}
		return []plan.Hand{worker("Odalys Brandt", plan.DoesBoth)}, &usual
	case "The coxswain, linked plaits under the cap":
		usual.At = "13:30"
		return []plan.Hand{worker("Tamsin Okoro-Vale", plan.DoesBoth), worker("Ikaika Moreau", plan.PlaitsFirst)}, &usual
	case atChair:
		usual.At = "14:00"
		return []plan.Hand{worker("Tamsin Okoro-Vale", plan.DoesBoth)}, &usual
	case "The lighthouse technician, long thick hair":
		usual.At, usual.Longest = "08:00", 6*60 // on nights: before noon
		return []plan.Hand{worker("Odalys Brandt", plan.DoesBoth)}, &usual
	}
	return []plan.Hand{worker("Tamsin Okoro-Vale", plan.DoesBoth)}, nil
}

// booked are the plans that are on the demo's calendar.
var booked = []string{
	"The sail-school pupil, a part and no more", "The coxswain, linked plaits under the cap", "The lighthouse technician, long thick hair",
	"The baker, four evenings at home", "The cellist, a hairline that shows", atChair,
}

// cautioned has everything read that must be before a plan is carried out; nothing speaks against the heads
// where no card does.
func cautioned(ctx context.Context, use *studio.Studio, by store.Person, planID string) error {
	c, err := use.Clearance(ctx, planID)
	if err == nil && !c.Asked {
		c, err = use.Ask(ctx, by, planID, nil)
	}
	for _, x := range c.Cautions {
		if err == nil && x.By == "" {
			_, err = use.ReadCaution(ctx, by, planID, x.Key)
		}
	}
	if err != nil {
		return fmt.Errorf("demo cautions of plan %s: %w", planID, err)
	}
	return nil
}

// bookings puts plans on the calendar and says when people are busy.
func bookings(ctx context.Context, s *store.Store, use *studio.Studio, crew map[string]store.Person, plans map[string]string) error {
	for _, title := range booked {
		if err := cautioned(ctx, use, crew["Odalys Brandt"], plans[title]); err != nil {
			return err
		}
		if _, err := use.Book(ctx, crew["Odalys Brandt"], uuid.NewString(), plans[title], 1); err != nil {
			return fmt.Errorf("demo booking of %q: %w", title, err)
		}
	}
	midnight := time.Now().Truncate(24 * time.Hour)
	at := func(days, hour, minutes int) time.Time {
		day := midnight.AddDate(0, 0, days)
		return time.Date(day.Year(), day.Month(), day.Day(), hour, minutes, 0, 0, time.Local)
	}
	tamsin := crew["Tamsin Okoro-Vale"].ID
	return s.SetBusy(ctx, tamsin, []store.BusyTime{
		{PersonID: tamsin, Title: "Boat yard meeting", Start: at(1, 9, 0), End: at(1, 11, 30)},
		{PersonID: tamsin, Title: "Choir", Start: at(6, 18, 0), End: at(6, 20, 0)},
		{PersonID: tamsin, Title: "Choir", Start: at(13, 18, 0), End: at(13, 20, 0)},
	})
}
