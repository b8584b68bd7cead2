package studio

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"math"
	"slices"
	"time"

	"kladotex/core/advice"
	"kladotex/core/chair"
	"kladotex/core/client"
	"kladotex/core/freeze"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/plan"
	"kladotex/core/tally"
	"kladotex/internal/export"
	"kladotex/internal/flat"
	"kladotex/internal/photo"
	"kladotex/internal/sheet"
	"kladotex/internal/store"
)

// Start is how an install is begun.
type Start struct {
	ID, PlanID string
	// Unit is that of its papers; one that is written down afterwards has none to take along, and
	// no unit.
	Unit  sheet.Unit
	Paper string
	// At is when it began; the zero time is now.
	At time.Time
}

// StartInstall freezes a plan as it is stored, with both its papers, and has it at the chair. A plan
// that is or was there already is answered as it is.
func (s *Studio) StartInstall(ctx context.Context, by store.Person, start Start) (store.Install, error) {
	switch id, err := s.Store.InstallOf(ctx, start.PlanID); {
	case err == nil:
		return s.Store.Install(ctx, id)
	case !errors.Is(err, store.ErrNotFound):
		return store.Install{}, err
	}
	p, sol, err := s.Solved(ctx, start.PlanID)
	if err != nil {
		return store.Install{}, err
	}
	if err := s.cleared(ctx, p); err != nil {
		return store.Install{}, err
	}
	at, err := freeze.ForChair(sol)
	if err != nil {
		return store.Install{}, fmt.Errorf("stored plan %s: %w", p.ID, err)
	}
	at.Brief.Title, at.Brief.Client = p.Title, p.Client
	shop, err := s.Shop(ctx, p.ID, p.Input)
	if err != nil {
		return store.Install{}, err
	}
	for i := range at.Brief.Pieces {
		// At hand is what the stash gives, what is on its way, and what is bought for the rest.
		for _, l := range shop.Lines {
			if l.Key == at.Brief.Pieces[i].Key {
				at.Brief.Pieces[i].Have = l.Stash + l.Used + l.Coming + l.Order.Units
			}
		}
	}
	d := store.InstallDraft{
		PlanID: p.ID, ClientID: p.ClientID, Brief: at.Brief, Frozen: store.Frozen{How: at.How}, Wear: at.Wear, By: by.Name, At: start.At,
	}
	if p.Input.Redo != nil {
		d.Redoes = p.Input.Redo.Install
	}
	res, err := tally.Of(sol)
	if err != nil {
		return store.Install{}, fmt.Errorf("stored plan %s: %w", p.ID, err)
	}
	drawn := flat.Of(&res)
	drawn.Notices = []advice.Notice{} // they were looked at in the plan
	if d.Frozen.Head, err = flat.Marshal(drawn); err != nil {
		return store.Install{}, err
	}
	if d.Record, err = recordOf(sol); err != nil {
		return store.Install{}, err
	}
	if start.Unit != "" {
		if _, d.PlanSheet, err = s.Sheet(ctx, p.ID, start.Unit, start.Paper); err != nil {
			return store.Install{}, err
		}
		if _, d.DaySheet, err = s.DaySheet(ctx, p.ID, start.Unit, start.Paper); err != nil {
			return store.Install{}, err
		}
	}
	var out store.Install
	err = s.update(ctx, func(s *Studio) error {
		// Another device may have brought it to the chair meanwhile: then it is answered as it is there.
		if _, there := s.Store.InstallOf(ctx, p.ID); errors.Is(there, store.ErrNotFound) {
			if err := s.unmoved(ctx, p); err != nil {
				return err
			}
		}
		out, err = s.Store.StartInstall(ctx, start.ID, d)
		return err
	})
	return out, err
}

// AtChair is an install that goes on, with how it stands.
type AtChair struct {
	store.Install
	View chair.View
}

// AtChair are the installs that go on, the latest first.
func (s *Studio) AtChair(ctx context.Context) ([]AtChair, error) {
	installs, err := s.Store.AtChair(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]AtChair, len(installs))
	for k := range installs {
		told, err := s.Store.Received(ctx, installs[k].ID, 0)
		if err != nil {
			return nil, err
		}
		b := &installs[k].Brief
		out[k] = AtChair{installs[k], b.Fold(told.Events).View(chair.Wish{Hand: b.Hands[0].Key, ByRow: b.ByRow, Now: s.now().UnixMilli()})}
	}
	return out, nil
}

// handOf is the key of the hand a person of the studio has in an install: their own; that of someone
// the plan has no person for, such as on one's own head; else they came to help.
func handOf(b *chair.Brief, person string) string {
	for _, of := range []string{person, ""} {
		if k := slices.IndexFunc(b.Hands, func(h chair.Hand) bool { return h.Person == of }); k >= 0 {
			return b.Hands[k].Key
		}
	}
	return chair.Helper(person)
}

// HandOf is the key of the hand a person has in an install.
func (s *Studio) HandOf(i store.Install, by store.Person) string { return handOf(&i.Brief, by.ID) }

// mostEvents is how many events one install may have: a head of three hundred places told of one by
// one has some seven hundred.
const mostEvents = 20_000

// Tell adds events to an install and answers those that arrived after a cursor, its own among them.
// When they say that the last check is taken, the log is written and the stash brought up to date;
// when that is taken back, the install goes on.
func (s *Studio) Tell(ctx context.Context, by store.Person, id string, after int64, events []chair.Event) (store.Received, error) {
	var bad invalid.Errors
	for k := range events {
		events[k].Check(&bad, invalid.At("events", k)+".")
	}
	if err := bad.Err(); err != nil {
		return store.Received{}, err
	}
	i, err := s.Store.Install(ctx, id)
	if err != nil {
		return store.Received{}, err
	}
	if len(events) > 0 {
		settle, err := s.settling(ctx, by, i)
		if err != nil {
			return store.Received{}, err
		}
		err = s.Store.Tell(ctx, id, store.Telling{Person: by.ID, By: by.Name, Events: events, Most: mostEvents, Settle: settle})
		if errors.Is(err, store.ErrTooMany) {
			bad.Add("events", "An install holds at most %d events.", mostEvents)
			return store.Received{}, bad
		}
		if err != nil {
			return store.Received{}, err
		}
	}
	return s.Store.Received(ctx, id, after)
}

// KeepPhoto keeps a picture of an install, small and without where it was taken; who it shows was
// asked by the person who sends it.
func (s *Studio) KeepPhoto(ctx context.Context, by store.Person, install, id string, file []byte, asked bool) error {
	var bad invalid.Errors
	if !asked {
		bad.Add("asked", "Ask first: a picture is kept only of those who said yes.")
		return bad
	}
	if err := s.consented(ctx, install, client.KeepPhotos); err != nil {
		return err
	}
	small, err := photo.Small(file)
	if errors.Is(err, photo.ErrNoPicture) {
		bad.Add("(picture)", "A picture must be JPEG or PNG, of 50 million pixels at most, no side longer than 16,000.")
		return bad
	}
	if err != nil {
		return err
	}
	return s.Store.KeepPhoto(ctx, install, id, small, by.Name)
}

// SkillPace is what finished installs say of one skill of a person.
type SkillPace struct {
	Skill string `json:"skill"`
	Name  string `json:"name"`
	// Factor is how many times as long as practised hands they take on another's head, Guess what
	// their hand alone says, Spread how far one install may lie from it.
	Factor float64 `json:"factor"`
	Guess  float64 `json:"guess"`
	Spread float64 `json:"spread"`
	// Lines are the evidence, the oldest install first.
	Lines []PaceEvidence `json:"lines"`
}

// minutes are those of all its evidence.
func (x SkillPace) minutes() (sum float64) {
	for _, l := range x.Lines {
		sum += l.Actual
	}
	return sum
}

// PaceEvidence is what one install says.
type PaceEvidence struct {
	InstallID string    `json:"installId"`
	At        time.Time `json:"at"`
	Actual    float64   `json:"actualMin"`
	// Rate is what practised hands take for the same, on the same head.
	Rate float64 `json:"rateMin"`
	Own  bool    `json:"own" doc:"True for their own head"`
}

// PersonPace is what is known of the pace of a person.
type PersonPace struct {
	Person store.Person
	Skills []SkillPace
}

// Paces are what finished installs say of the pace of the studio's people.
func (s *Studio) Paces(ctx context.Context) ([]PersonPace, error) {
	people, err := s.Store.People(ctx)
	if err != nil {
		return nil, err
	}
	lines, err := s.Store.PaceLines(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]PersonPace, len(people))
	for i, p := range people {
		out[i] = PersonPace{Person: p, Skills: []SkillPace{}}
		bySkill := map[string][]pace.Logged{}
		for _, l := range lines {
			if l.PersonID != p.ID {
				continue
			}
			k := slices.IndexFunc(out[i].Skills, func(x SkillPace) bool { return x.Skill == l.Skill })
			if k < 0 {
				k = len(out[i].Skills)
				out[i].Skills = append(out[i].Skills, SkillPace{Skill: l.Skill, Name: skillName(l.Skill), Guess: p.Hand.Factor()})
			}
			rate := l.Rate
			if l.Own {
				rate *= p.OwnHead
			}
			out[i].Skills[k].Lines = append(out[i].Skills[k].Lines, PaceEvidence{l.InstallID, l.At, l.Actual, rate, l.Own})
			bySkill[l.Skill] = append(bySkill[l.Skill], pace.Logged{Actual: l.Actual, Rate: l.Rate, Own: l.Own})
		}
		for k := range out[i].Skills {
			x := &out[i].Skills[k]
			learnt := pace.Learn(p.Hand, p.OwnHead, bySkill[x.Skill])
			x.Factor, x.Spread = learnt.Factor, learnt.Spread
		}
		// What takes the most time comes first.
		slices.SortStableFunc(out[i].Skills, func(a, b SkillPace) int { return cmp.Compare(b.minutes(), a.minutes()) })
	}
	return out, nil
}

// skillName says a skill: a method, or a kind of work.
func skillName(skill string) string {
	if m, ok := method.Lookup(method.ID(skill)); ok {
		return m.Name
	}
	return pace.Kind(skill).Name()
}

// thousandths is a number as it is kept in a plan, to be read by people too.
func thousandths(v float64) float64 { return math.Round(1000*v) / 1000 }

// logged is the pace of a person as it is put on a plan.
func (p PersonPace) logged() (out []plan.LoggedPace) {
	for _, x := range p.Skills {
		out = append(out, plan.LoggedPace{Skill: x.Skill, Factor: thousandths(x.Factor), Spread: thousandths(x.Spread), Installs: len(x.Lines)})
	}
	return out
}

// withPace puts what is known of the pace of those who work on a plan that is begun.
func (s *Studio) withPace(ctx context.Context, in plan.Input) (plan.Input, error) {
	if in.Day == nil || !slices.ContainsFunc(in.Day.Hands, func(h plan.Hand) bool { return h.Person != "" }) {
		return in, nil
	}
	paces, err := s.Paces(ctx)
	if err != nil {
		return plan.Input{}, err
	}
	day := *in.Day
	day.Hands = slices.Clone(day.Hands)
	for k := range day.Hands {
		for _, p := range paces {
			if day.Hands[k].Person != "" && p.Person.ID == day.Hands[k].Person {
				day.Hands[k].Logged = p.logged()
			}
		}
	}
	in.Day = &day
	return in, nil
}

// LoggedPaces are those of everyone, by the id of the person, as they are put on plans.
func (s *Studio) LoggedPaces(ctx context.Context) (map[string][]plan.LoggedPace, error) {
	paces, err := s.Paces(ctx)
	if err != nil {
		return nil, err
	}
	out := map[string][]plan.LoggedPace{}
	for _, p := range paces {
		out[p.Person.ID] = p.logged()
	}
	return out, nil
}

// LogFile writes the log as a table: a line for each stage of an install and for each piece.
func (s *Studio) LogFile(ctx context.Context) ([]byte, error) {
	clock, err := s.Clock(ctx)
	if err != nil {
		return nil, err
	}
	var rows []export.LogRow
	for page := (store.Page{Limit: 200}); ; {
		list, err := s.Store.Log(ctx, page)
		if err != nil {
			return nil, err
		}
		for _, l := range list {
			on := clock.Date(l.Closed)
			for _, st := range l.Log.Stages {
				rows = append(rows, export.LogRow{On: on, Title: l.Title, Client: l.Client, What: "Work", Name: st.Name, Unit: "min", Planned: st.Planned, Actual: st.Actual, Tasks: st.Timed})
			}
			for _, p := range l.Log.Pieces {
				rows = append(rows, export.LogRow{
					On: on, Title: l.Title, Client: l.Client, What: "Hair", Name: p.Piece.Called(), Unit: "pieces",
					Planned: float64(p.Piece.Need), Actual: float64(p.Used), Spoilt: p.Spoilt, Left: p.Left, OpenedPacks: p.Opened,
				})
			}
		}
		if len(list) < page.Limit {
			return export.WriteLog(rows), nil
		}
		page.After = list[len(list)-1].Cursor()
	}
}
