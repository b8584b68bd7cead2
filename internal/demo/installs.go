package demo

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"time"

	"github.com/google/uuid"

	"kladotex/core/chair"
	"kladotex/core/pace"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/core/tally"
	"kladotex/core/wear"
	"kladotex/internal/sheet"
	"kladotex/internal/standin"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// finished are heads that were done before, the oldest first: each like one of today's plans, by
// someone, some weeks ago; and what became of it.
var finished = []struct {
	title, like, client, by string
	weeks                   int
	// colour is that of its pieces where they came out of the stash; empty for hair that was bought
	// for it and never put there.
	colour string
	// worn is after how many weeks it came off; 0 for one that is worn still.
	worn  int
	felt  wear.Comfort
	edges wear.Change
	// grown is own hair's length at the taking down beyond that planned with, mm.
	grown float64
	seen  []seen
}{
	{"The cellist, first rehearsals", "The cellist, a ring to tie up", cellist, "Tamsin Okoro-Vale", 54, "", 6, wear.Tight, wear.Worse, 9, nil},
	{"The ferry pilot, first go", "The ferry pilot, fine hair, few and light", pilot, "Odalys Brandt", 50, "", 5, wear.Comfortable, wear.Same, 11, nil},
	{"The coxswain, training camp", "The coxswain, grown-in, before the regatta", coxswain, "Tamsin Okoro-Vale", 45, "", 6, wear.Tight, wear.Same, 10, []seen{{1, map[string]wear.Grade{"pulling": wear.Some}, "Temples drew for a day; two pieces eased."}}},
	{"The lighthouse technician, spring", "The lighthouse technician, horseshoe", technician, "Odalys Brandt", 39, "Tar", 8, wear.Comfortable, wear.Same, 15, nil},
	{"The sail-school pupil, end of term", "The sail-school pupil, a part and no more", pupil, "Ikaika Moreau", 34, "", 4, wear.Comfortable, wear.Same, 7, nil},
	{"The cellist, spring concert", "The cellist, a hairline that shows", cellist, "Tamsin Okoro-Vale", 30, "", 6, wear.Comfortable, wear.Same, 10, nil},
	{"The ferry pilot, a quick back for summer", atChair, pilot, "Ikaika Moreau", 25, "Walnut", 6, wear.Comfortable, wear.Better, 14, nil},
	{"The coxswain, the long race", "The coxswain, grown-in, before the regatta", coxswain, "Tamsin Okoro-Vale", 20, "", 6, wear.Comfortable, wear.Same, 11, nil},
	{"The sail-school pupil, summer camp", "The sail-school pupil, a part and no more", pupil, "Ikaika Moreau", 15, "", 4, wear.Comfortable, wear.Same, 7, nil},
	{"The lighthouse technician, lantern week", "The lighthouse technician, long thick hair", technician, "Odalys Brandt", 9, "Walnut", 0, "", "", 0, []seen{
		{2, map[string]wear.Grade{"pulling": wear.None}, ""}, {21, map[string]wear.Grade{"itching": wear.Some}, "Itches after night shifts under the cap."}, {49, map[string]wear.Grade{"matting": wear.None}, ""},
	}},
	{"The cellist, chamber evenings", "The cellist, a ring to tie up", cellist, "Odalys Brandt", 5, "Rope", 0, "", "", 0, []seen{
		{2, map[string]wear.Grade{"pulling": wear.None}, ""}, {9, map[string]wear.Grade{"itching": wear.None}, ""}, {19, map[string]wear.Grade{"itching": wear.None}, ""}, {33, map[string]wear.Grade{"loose": wear.Some}, "Two at the left temple, where the cello leans."},
	}},
	{"The baker, a quick front", "The baker, own front and a quick back", baker, "Tamsin Okoro-Vale", 2, "", 0, "", "", 0, []seen{{2, map[string]wear.Grade{"pulling": wear.None}, ""}, {8, map[string]wear.Grade{"pulling": wear.None}, ""}}},
}

// swatches are the colours of pieces out of the stash, as a screen shows them.
var swatches = func() map[string]string {
	out := map[string]string{}
	for _, l := range standin.List(standin.Chandlery, time.Now()) {
		for _, c := range l.Item.Colours {
			out[c.Name] = c.Swatch
		}
	}
	return out
}()

// seen is a look at an install being worn: signs that are not named were not found.
type seen struct {
	day   int
	signs map[string]wear.Grade
	text  string
}

// atChair is the plan that is half done at the chair today.
const atChair = "The ferry pilot, a quick back for the regatta"

// paceOf is how much longer than planned each takes at a skill: what the log has to find out.
var paceOf = map[string]map[string]float64{
	"Odalys Brandt":     {"plaits": 1.06, "L1": 1.12, "L5": 0.95, "W2": 0.9},
	"Tamsin Okoro-Vale": {"plaits": 1.28, "L1": 0.92, "L5": 1.08, "W2": 1.1},
	"Ikaika Moreau":     {"plaits": 1.2, "L1": 1.3, "L5": 1.1, "W2": 1.25},
}

// told is somebody telling, piece by piece, what they do at the chair.
type told struct {
	brief  chair.Brief
	random *rand.Rand
	slow   map[string]float64
	at     time.Time
	events []chair.Event
}

func (d *told) say(minutes float64, e chair.Event) {
	d.at = d.at.Add(time.Duration(minutes * float64(time.Minute)))
	e.ID, e.N, e.At, e.Hand = uuid.NewString(), len(d.events)+1, d.at.UnixMilli(), d.brief.Hands[0].Key
	d.events = append(d.events, e)
}

// work does the tasks up to a share of them, with breaks, packs opened as they are needed, a piece
// spoilt now and then, and a section that comes out as two.
func (d *told) work(share float64) {
	packs, used, since, sitting := map[int]int{}, map[int]int{}, 0.0, 0
	d.say(0, chair.Event{Kind: chair.Began})
	last := int(math.Ceil(share * float64(len(d.brief.Tasks))))
	for n, t := range d.brief.Tasks[:last] {
		if t.Sitting != sitting { // another day
			sitting, since = t.Sitting, 0
			d.say(2, chair.Event{Kind: chair.Paused, Text: "for today"})
			d.say(22*60, chair.Event{Kind: chair.Began})
		}
		if d.brief.Rests.After > 0 && since > d.brief.Rests.After {
			since = 0
			d.say(0.5, chair.Event{Kind: chair.Paused, Text: "break"})
			d.say(d.brief.Rests.Long, chair.Event{Kind: chair.Began})
		}
		slow := 1.0
		if s, has := d.slow[t.Skill]; has {
			slow = s
		}
		minutes := t.Minutes[0] * slow * math.Exp(0.16*d.random.NormFloat64())
		if t.Place >= 0 && t.Kind != pace.Plaits {
			p := d.brief.Places[t.Place]
			for used[p.Piece]+p.Count > packs[p.Piece]*max(1, d.brief.Pieces[p.Piece].Yield) {
				packs[p.Piece]++
				d.say(0.1, chair.Event{Kind: chair.Opened, Piece: d.brief.Pieces[p.Piece].Key, Count: 1})
			}
			used[p.Piece] += p.Count
			if d.random.IntN(60) == 0 {
				used[p.Piece]++
				d.say(0.1, chair.Event{Kind: chair.Spoilt, Piece: d.brief.Pieces[p.Piece].Key, Count: 1})
			}
		}
		d.say(minutes, chair.Event{Kind: chair.Done, Tasks: []string{t.Key}})
		since += minutes
		if t.Kind == pace.Plaits && d.random.IntN(70) == 0 {
			id := d.brief.Places[t.Place].ID
			d.say(0.2, chair.Event{Kind: chair.Split, Places: []string{id}})
			twin := id + "#" + d.events[len(d.events)-1].ID
			d.say(minutes, chair.Event{Kind: chair.Done, Tasks: []string{chair.PlaitKey(twin)}})
			if share == 1 {
				d.say(t.Minutes[0], chair.Event{Kind: chair.Done, Tasks: []string{chair.AttachKey(twin)}})
			}
		}
		if share == 1 && (n == last/2 || n == last-2) {
			d.say(0.3, chair.Event{Kind: chair.Answered, Text: []string{"first-row", "all"}[min(1, n/(last-2))], Answer: chair.Fine})
		}
	}
}

// tellAll tells the studio all of it.
func (d *told) tellAll(ctx context.Context, use *studio.Studio, id string, by store.Person) error {
	for part := range slices.Chunk(d.events, 400) {
		if _, err := use.Tell(ctx, by, id, 0, part); err != nil {
			return fmt.Errorf("demo install of %q: %w", d.brief.Title, err)
		}
	}
	return nil
}

// log puts heads that were done before into the log.
func log(ctx context.Context, s *store.Store, use *studio.Studio, crew map[string]store.Person, clients map[string]string, inputs map[string]plan.Input) error {
	morning := time.Now().Truncate(24 * time.Hour).Add(9 * time.Hour)
	for n, f := range finished {
		by := crew[f.by]
		in := inputs[f.like]
		in.OwnHead = false
		in.Pieces = slices.Clone(in.Pieces)
		for i := range in.Pieces {
			if p := &in.Pieces[i]; f.colour == "" {
				p.Item = "" // what hung there was bought for it
			} else {
				p.Colour, p.Swatch = f.colour, swatches[f.colour]
			}
		}
		at := morning.AddDate(0, 0, -7*f.weeks-1)
		in.Day = &plan.Day{
			Install: at.Format(time.DateOnly),
			Hands:   []plan.Hand{{Key: by.ID, Person: by.ID, Name: by.Name, Hand: by.Hand, Does: plan.DoesBoth}},
		}
		res, err := tally.Compute(ctx, in)
		if err != nil {
			return fmt.Errorf("demo install %q: %w", f.title, err)
		}
		id := uuid.NewString()
		if _, err := s.CreatePlan(ctx, id, store.Draft{Title: f.title, ClientID: clients[f.client], Input: in, Summary: studio.Summarise(in, res), By: by.Name}); err != nil {
			return fmt.Errorf("demo install %q: %w", f.title, err)
		}
		if f.colour != "" {
			if err := bought(ctx, s, id, in, res, at.AddDate(0, 0, -8)); err != nil {
				return fmt.Errorf("demo install %q: %w", f.title, err)
			}
		}
		if err := cautioned(ctx, use, by, id); err != nil {
			return err
		}
		i, err := use.StartInstall(ctx, by, studio.Start{ID: uuid.NewString(), PlanID: id, At: at})
		if err != nil {
			return fmt.Errorf("demo install %q: %w", f.title, err)
		}
		d := &told{brief: i.Brief, random: rand.New(rand.NewPCG(2026, uint64(n))), slow: paceOf[f.by], at: at}
		d.work(1)
		d.say(1, chair.Event{Kind: chair.Ended})
		if err := d.tellAll(ctx, use, i.ID, by); err != nil {
			return err
		}
		if err := giveLeft(ctx, s, in, id, at); err != nil {
			return fmt.Errorf("demo install %q: %w", f.title, err)
		}
		if err := wore(ctx, use, n, i.ID, by); err != nil {
			return fmt.Errorf("demo wear of %q: %w", f.title, err)
		}
	}
	return nil
}

// bought puts the hair of a plan into the stash some days before it is hung.
func bought(ctx context.Context, s *store.Store, planID string, in plan.Input, res tally.Result, at time.Time) error {
	for _, n := range res.Need.Pieces {
		p := in.Piece(n.Piece)
		_, err := s.AddLot(ctx, store.LotDraft{ID: uuid.NewString(), Item: p.Item, Lot: supply.Lot{Colour: p.Colour, Pack: p.Pack.Units, Condition: supply.New, Supplier: standin.Chandlery}},
			store.MoveDraft{ID: uuid.NewString(), Kind: supply.Bought, Stock: supply.Stock{Packs: n.Order.Packs}, PlanID: planID, By: "Odalys Brandt", At: at})
		if err != nil {
			return err
		}
	}
	return nil
}

// giveLeft gives what was bought for a plan and did not hang to the sail school.
func giveLeft(ctx context.Context, s *store.Store, in plan.Input, planID string, at time.Time) error {
	for _, p := range in.Pieces {
		if p.Item == "" {
			continue
		}
		lots, err := s.Stash(ctx, store.StashWish{Item: p.Item}, store.Page{Limit: 100})
		if err != nil {
			return err
		}
		for _, l := range lots {
			if l.Round > 0 || l.Colour != p.Colour || l.Pieces(l.Pack) <= 0 {
				continue
			}
			_, err := s.Move(ctx, l.ID, store.MoveDraft{ID: uuid.NewString(), Kind: supply.Given, Stock: l.Stock, Reason: "Left over, for the sail school", PlanID: planID, By: "Odalys Brandt", At: at.AddDate(0, 0, 3)})
			if err != nil {
				return err
			}
		}
	}
	return nil
}

// wore tells what was seen of a finished head, and how it came off.
func wore(ctx context.Context, use *studio.Studio, n int, install string, by store.Person) error {
	f := finished[n]
	h, err := use.HeadOf(ctx, install)
	if err != nil {
		return err
	}
	put := func(day int, e wear.Entry) error {
		if day > h.Day { // it was finished a day late
			return nil
		}
		e.ID, e.On = uuid.NewString(), h.Date(day)
		_, err := use.PutWear(ctx, by, install, e)
		return err
	}
	for _, s := range f.seen {
		signs := map[string]wear.Grade{}
		for _, sign := range wear.SignsOn(s.day) {
			signs[sign.Key] = s.signs[sign.Key]
		}
		if err := put(s.day, wear.Entry{Kind: wear.Checked, Signs: signs, Text: s.text}); err != nil {
			return err
		}
		if signs["loose"] == wear.Some {
			if err := put(s.day, wear.Entry{Kind: wear.Mended, Piece: h.Log.Pieces[0].Piece.Key, Count: 2, Text: "Hitched again at the grown-out root."}); err != nil {
				return err
			}
		}
	}
	if f.worn == 0 {
		return nil
	}
	guide := h.Brief.Takedown(7 * f.worn)
	e := wear.Entry{Kind: wear.Down, Felt: f.felt, Edges: f.edges, Length: math.Round(h.Brief.Hair + f.grown), Minutes: 5 * math.Round(0.9*guide.Total/5)}
	for _, p := range guide.Parts {
		if p.Back > 0 {
			k := slices.IndexFunc(e.Saved, func(s wear.Saved) bool { return s.Piece == p.Piece })
			if k < 0 {
				k = len(e.Saved)
				e.Saved = append(e.Saved, wear.Saved{Piece: p.Piece})
			}
			good := min(p.Back*3/4, h.State.Hung[p.Piece])
			e.Saved[k].Good += good
			e.Saved[k].Worn += min(p.Back-p.Back*3/4, h.State.Hung[p.Piece]-e.Saved[k].Good)
		}
	}
	return put(7*f.worn, e)
}

// chairs has a plan at the chair, half done by a person.
func chairs(ctx context.Context, use *studio.Studio, by store.Person, planID string) error {
	if err := cautioned(ctx, use, by, planID); err != nil {
		return err
	}
	i, err := use.StartInstall(ctx, by, studio.Start{ID: uuid.NewString(), PlanID: planID, Unit: sheet.Inches, Paper: "letter", At: time.Now().Add(-4 * time.Hour)})
	if err != nil {
		return fmt.Errorf("demo install at the chair: %w", err)
	}
	d := &told{brief: i.Brief, random: rand.New(rand.NewPCG(2026, 99)), slow: paceOf[by.Name], at: time.Now()}
	d.work(0.62)
	// One was passed over; nobody has noticed yet.
	missed := slices.IndexFunc(d.events, func(e chair.Event) bool {
		return e.Kind == chair.Done && e.Tasks[0] == i.Brief.Tasks[len(i.Brief.Tasks)/2].Key
	})
	d.events = slices.Delete(d.events, missed, missed+1)
	// The last piece went on a minute ago, whenever the demo is opened.
	back := (time.Since(d.at) - time.Minute).Milliseconds()
	for k := range d.events {
		d.events[k].At += back
	}
	return d.tellAll(ctx, use, i.ID, by)
}
