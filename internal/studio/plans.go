package studio

import (
	"bytes"
	"cmp"
	"context"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"time"

	"kladotex/core/attach"
	"kladotex/core/fall"
	"kladotex/core/hang"
	"kladotex/core/hours"
	"kladotex/core/house"
	"kladotex/core/invalid"
	"kladotex/core/plan"
	"kladotex/core/tally"
	"kladotex/internal/sheet"
	"kladotex/internal/store"
)

// Draft is what a person saves of a plan.
type Draft struct {
	Title    string
	ClientID string // empty while it is open whose head it is
	Input    plan.Input
	Variants []store.Variant
}

// CreatePlan stores a new plan under an id made by who makes it; by is their name. The
// same again is the plan that is there.
func (s *Studio) CreatePlan(ctx context.Context, by, id string, d Draft) (store.Plan, error) {
	checked, err := d.checked(ctx, by, nil)
	if err != nil {
		return store.Plan{}, err
	}
	return s.Store.CreatePlan(ctx, id, checked)
}

// SavePlan saves a plan over the version it started from.
func (s *Studio) SavePlan(ctx context.Context, by, id string, version int, d Draft) (store.Plan, error) {
	stored, err := s.Store.Plan(ctx, id)
	if err != nil {
		return store.Plan{}, err
	}
	if stored.ClientID != "" && stored.ClientID != d.ClientID {
		if d, err = s.moved(ctx, stored, d); err != nil {
			return store.Plan{}, err
		}
	}
	checked, err := d.checked(ctx, by, stored.Variants)
	if err != nil {
		return store.Plan{}, err
	}
	return s.Store.SavePlan(ctx, id, version, checked)
}

// moved is a draft of a plan that goes on to another client: without what was pinned for the first one, whose
// name goes from its title, and with the other's head and hair in it, as far as they were measured.
func (s *Studio) moved(ctx context.Context, from store.Plan, d Draft) (Draft, error) {
	d.Variants = nil
	to := "A head"
	if d.ClientID != "" {
		c, err := s.Store.Client(ctx, d.ClientID)
		if err != nil {
			return Draft{}, fmt.Errorf("%w: %w", store.ErrNoClient, err)
		}
		to, d.Input = c.Name, c.Facts.Begin(d.Input)
	}
	d.Title = strings.ReplaceAll(d.Title, from.Client, to)
	d.Input.Redo = nil
	return d, nil
}

// checked computes a draft, so that only plans that work are stored. Pinned states that
// are stored as they are sent were computed when they were pinned: should this program
// not be able to any more, the plan can still be saved.
func (d Draft) checked(ctx context.Context, by string, pinned []store.Variant) (store.Draft, error) {
	title := strings.TrimSpace(d.Title)
	if title == "" {
		var bad invalid.Errors
		bad.Add("title", "A plan needs a name, such as who it is for.")
		return store.Draft{}, bad
	}
	res, err := tally.Compute(ctx, d.Input)
	if err != nil {
		return store.Draft{}, invalid.Under(err, "input")
	}
	for i, v := range d.Variants {
		known := v.Input == nil || slices.ContainsFunc(pinned, func(p store.Variant) bool {
			return p.Input != nil && reflect.DeepEqual(*p.Input, *v.Input)
		})
		if known {
			continue
		}
		if _, err := tally.Compute(ctx, *v.Input); err != nil {
			return store.Draft{}, invalid.Under(err, invalid.At("variants", i)+".input")
		}
	}
	return store.Draft{
		Title: title, ClientID: d.ClientID, Input: d.Input, Variants: d.Variants,
		Summary: Summarise(d.Input, res), By: by, Claims: claims(d.Input, res.Need),
	}, nil
}

// Import stores the plan in a file that was exported.
func (s *Studio) Import(ctx context.Context, by, id string, file []byte) (store.Plan, error) {
	f, err := plan.ReadFile(bytes.NewReader(file))
	if err != nil {
		return store.Plan{}, err
	}
	if _, err := tally.Compute(ctx, f.Input); err != nil {
		return store.Plan{}, invalid.Under(err, "plan")
	}
	return s.CreatePlan(ctx, by, id, Draft{Title: f.Title, Input: f.Input})
}

// Export writes a plan as a file, to be imported elsewhere.
func (s *Studio) Export(ctx context.Context, id string) (title string, file []byte, err error) {
	p, err := s.Store.Plan(ctx, id)
	if err != nil {
		return "", nil, err
	}
	file, err = plan.File{Title: p.Title, Input: p.Input}.Encode()
	return p.Title, file, err
}

// Summarise draws from a plan and what it comes to what a list shows of it.
func Summarise(in plan.Input, res tally.Result) store.Summary {
	t := res.Tally
	return store.Summary{
		Pattern: in.Parting.Style(), Method: attach.Methods(res.Work),
		Sections: t.Sections, Pieces: t.Pieces, Packs: t.Packs, Cost: t.Cost, Minutes: t.Minutes, Warnings: t.Notices,
	}
}

// Solved reads a plan and solves it.
func (s *Studio) Solved(ctx context.Context, id string) (store.Plan, *plan.Solved, error) {
	p, err := s.Store.Plan(ctx, id)
	if err != nil {
		return store.Plan{}, nil, err
	}
	sol, err := plan.Solve(ctx, p.Input)
	if err != nil {
		return store.Plan{}, nil, fmt.Errorf("stored plan %s: %w", id, err)
	}
	return p, sol, nil
}

// Computed reads a plan and sums it up.
func (s *Studio) Computed(ctx context.Context, id string) (store.Plan, tally.Result, error) {
	p, sol, err := s.Solved(ctx, id)
	if err != nil {
		return store.Plan{}, tally.Result{}, err
	}
	res, err := tally.Of(sol)
	return p, res, err
}

// Sheet writes parts of the plan sheet as PDF, all where none are named, in a unit of length and on the studio's paper, else on the
// one asked for; prices are in the studio's currency.
func (s *Studio) Sheet(ctx context.Context, id string, unit sheet.Unit, paper string, parts ...sheet.Part) (title string, pdf []byte, err error) {
	p, sol, style, err := s.onPaper(ctx, id, unit, paper)
	if err != nil {
		return "", nil, err
	}
	drape, err := hang.Of(ctx, sol, fall.Down)
	if err != nil {
		return "", nil, fmt.Errorf("drape of plan %s: %w", id, err)
	}
	landings, err := hang.Land(ctx, sol)
	if err != nil {
		return "", nil, fmt.Errorf("landing of plan %s: %w", id, err)
	}
	p.Drape, p.Landings = &drape, &landings
	if pdf, err = sheet.PDF(ctx, p, style, parts...); err != nil {
		return "", nil, fmt.Errorf("sheet of plan %s: %w", id, err)
	}
	return p.Title, pdf, nil
}

// DaySheet writes the day sheet as PDF, as [Studio.Sheet] does the plan sheet.
func (s *Studio) DaySheet(ctx context.Context, id string, unit sheet.Unit, paper string) (title string, pdf []byte, err error) {
	p, _, style, err := s.onPaper(ctx, id, unit, paper)
	if err != nil {
		return "", nil, err
	}
	if pdf, err = sheet.DayPDF(ctx, p, style); err != nil {
		return "", nil, fmt.Errorf("day sheet of plan %s: %w", id, err)
	}
	return p.Title, pdf, nil
}

// onPaper is a plan summed up to be put on paper, solved, and how it is printed.
func (s *Studio) onPaper(ctx context.Context, id string, unit sheet.Unit, paper string) (out sheet.Plan, sol *plan.Solved, style sheet.Style, err error) {
	p, sol, err := s.Solved(ctx, id)
	if err != nil {
		return out, nil, style, err
	}
	res, err := tally.Of(sol)
	if err != nil {
		return out, nil, style, fmt.Errorf("stored plan %s: %w", id, err)
	}
	home, err := s.Store.House(ctx)
	if err != nil {
		return out, nil, style, err
	}
	out = sheet.Plan{Title: p.Title, Client: p.Client, Updated: p.Updated, Input: p.Input, Result: res}
	if p.ClientID != "" {
		c, err := s.Store.Client(ctx, p.ClientID)
		if err != nil {
			return out, nil, style, err
		}
		out.Cautions = c.Facts.Cautions()
	}
	day, err := hours.DayOf(sol)
	if err != nil {
		return out, nil, style, fmt.Errorf("day of plan %s: %w", id, err)
	}
	out.Day = &day
	return out, sol, sheet.Style{Unit: unit, Paper: cmp.Or(home.Rules.Paper, paper), Currency: home.Rules.Currency}, nil
}

// Beginning says what a new plan starts from; every id may be empty.
type Beginning struct {
	ClientID string
	// From is an earlier plan.
	From string
	// Renews is the install of an install being worn, Rows how many of its outer rows are done again.
	Renews string
	Rows   int
}

// Begin is what a new plan starts from: the default as the house does it, worked by who begins
// it, an earlier plan, or the outer rows of an install being worn, with the client's head and hair in it.
func (s *Studio) Begin(ctx context.Context, by store.Person, b Beginning) (Draft, error) {
	d := Draft{Title: "New plan", ClientID: b.ClientID, Input: plan.Default()}
	switch {
	case b.Renews != "":
		return s.beginRenewal(ctx, by, b)
	case b.From != "":
		p, err := s.Store.Plan(ctx, b.From)
		if err != nil {
			return Draft{}, err
		}
		d.Title, d.Input = p.Title+", again", p.Input
		d.Input.Redo = nil // a copy is of the whole head
		if d.ClientID == "" {
			d.ClientID = p.ClientID
		}
	}
	if d.ClientID != "" {
		c, err := s.Store.Client(ctx, d.ClientID)
		if err != nil {
			return Draft{}, err
		}
		d.Input = c.Facts.Begin(d.Input)
		if b.From == "" {
			d.Title = c.Name
		}
	}
	if b.From == "" { // an earlier plan keeps what it departed in
		h, err := s.Store.House(ctx)
		if err != nil {
			return Draft{}, err
		}
		d.Input = h.Rules.Begin(d.Input)
		d.Input.Day = dayOf(by)
	}
	var err error
	d.Input, err = s.withPace(ctx, d.Input)
	return d, err
}

// dayOf is the day of a plan that one person does.
func dayOf(by store.Person) *plan.Day {
	return &plan.Day{Hands: []plan.Hand{{
		Key: "first", Person: by.ID, Name: by.Name, Hand: by.Hand, OwnHead: by.OwnHead, Does: plan.DoesBoth,
	}}}
}

// Departures are where a plan departs from the house rules.
func (s *Studio) Departures(ctx context.Context, in plan.Input) ([]house.Departure, error) {
	if err := plan.Check(in); err != nil {
		return nil, err
	}
	h, err := s.Store.House(ctx)
	if err != nil {
		return nil, err
	}
	return h.Rules.Departures(in), nil
}

// PutOnHead is a plan's input with a client's head and hair in it, as far as they were
// measured.
func (s *Studio) PutOnHead(ctx context.Context, clientID string, in plan.Input) (plan.Input, error) {
	c, err := s.Store.Client(ctx, clientID)
	if err != nil {
		return plan.Input{}, err
	}
	return c.Facts.Begin(in), nil
}

// Past is a version of a plan, with what it changed of the one before it.
type Past struct {
	store.Version
	Changes []plan.Change
}

// History is a plan's versions, newest first; what the oldest changed is not known.
func (s *Studio) History(ctx context.Context, id string) ([]Past, error) {
	versions, err := s.Store.Versions(ctx, id)
	if err != nil {
		return nil, err
	}
	out := make([]Past, len(versions))
	for i, v := range versions {
		out[i] = Past{v, []plan.Change{}}
		if i+1 < len(versions) {
			out[i].Changes = plan.Changes(versions[i+1].Input, v.Input)
		}
	}
	return out, nil
}

// Difference is what two people did to one plan.
type Difference struct {
	// Version, SavedBy and SavedAt are those of the plan as it is stored.
	Version int
	SavedBy string
	SavedAt time.Time
	// Theirs is what the stored plan changed of the base, Mine what the other state did.
	Theirs, Mine []plan.Change
}

// Compare tells what the stored plan and a state that someone else has both changed of
// the base they began from.
func (s *Studio) Compare(ctx context.Context, id string, base, mine Draft) (Difference, error) {
	p, err := s.Store.Plan(ctx, id)
	if err != nil {
		return Difference{}, err
	}
	stored := Draft{Title: p.Title, Input: p.Input}
	return Difference{p.Version, p.SavedBy, p.Updated, changes(base, stored), changes(base, mine)}, nil
}

// changes are those between two drafts, their titles among them.
func changes(from, to Draft) []plan.Change {
	out := plan.Changes(from.Input, to.Input)
	if from.Title != to.Title {
		out = append([]plan.Change{{Path: "title", Label: "Name of the plan", From: from.Title, To: to.Title}}, out...)
	}
	return out
}

// Next is what a plan waits for.
type Next string

// What to do next: say whose head it is, look at the warnings, take the sheet along.
const (
	NextClient   Next = "client"
	NextWarnings Next = "warnings"
	NextSheet    Next = "sheet"
)

// NextOf is what a plan waits for.
func NextOf(e store.Entry) Next {
	switch {
	case e.ClientID == "":
		return NextClient
	case e.Warnings > 0:
		return NextWarnings
	}
	return NextSheet
}
