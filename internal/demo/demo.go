// Package demo furnishes the made-up studio Tidewheel Loft of Merrow Sound, so
// that a newcomer finds people, clients and plans to open.
package demo

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"slices"

	"github.com/google/uuid"

	"kladotex/core/client"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/quote"
	"kladotex/core/scalp"
	"kladotex/core/supply"
	"kladotex/core/tally"
	"kladotex/internal/password"
	"kladotex/internal/sheet"
	"kladotex/internal/standin"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

const inch = 25.4

// people work at Tidewheel Loft. They need no password in the demo, and have none
// that anyone knows.
var people = []struct {
	name string
	role store.Role
}{
	{"Odalys Brandt", store.Owner},
	{"Tamsin Okoro-Vale", store.Stylist},
	{"Ikaika Moreau", store.Apprentice},
}

// The clients with plans.
const (
	cellist    = "Ysolde Abarinwe"
	technician = "Maren Tolliver-Oduya"
	baker      = "Delphine Quessant"
	coxswain   = "Saffi Quillonde"
	pilot      = "Hesper Dunmorrow"
	pupil      = "Juno Pellwether"
)

func tapes(around, frontToNape, earToEar, bulk, ratio float64) *scalp.Tapes {
	return &scalp.Tapes{Circumference: around * inch, FrontToNape: frontToNape * inch, EarToEar: earToEar * inch, HairBulk: bulk, Ratio: ratio}
}

// Clients are the people who come to the studio, by name.
func Clients() map[string]client.Facts {
	consent := client.Consent{Given: true, On: "2026-10-02", Covers: "Record of head, hair and installs; pictures of the head for planning"}
	facts := func(f client.Facts) client.Facts {
		f.Schema = client.Schema
		if f.History == nil {
			f.History = []client.Event{}
		}
		if f.Installs == nil {
			f.Installs = []client.Install{}
		}
		f.Consent = consent
		return f
	}
	return map[string]client.Facts{
		coxswain: facts(client.Facts{
			Tapes: tapes(22.25, 14.25, 12.75, 2, 0.78), Stature: 1580,
			Hair:    hair.Own{Front: 110, Sides: 120, Crown: 150, Nape: 130, Density: 200, Strand: 74, Texture: hair.Coily, Tender: true, Edges: hair.FineEdges},
			History: []client.Event{client.PainBefore},
			Notes:   "Coxswain: in the water every day, so nothing that must stay dry. Comes straight from the boat; hair is salty, wash first.",
		}),
		technician: facts(client.Facts{
			Tapes: tapes(23.25, 14.75, 13.25, 4, 0.8), Stature: 1760,
			Hair:     hair.Own{Front: 250, Sides: 260, Crown: 280, Nape: 240, Density: 240, Strand: 82, Texture: hair.Coily, Edges: hair.StrongEdges},
			Notes:    "Lighthouse technician on nights: book before noon. Very thick; sections of an inch and a quarter behind are the most that can be sat through.",
			Installs: []client.Install{{On: "2026-05-16", What: "Wrapped locs, 84 pieces", Weeks: 9, Comfort: "comfortable", Mass: 520, Note: "Used ten packs; two left."}},
		}),
		cellist: facts(client.Facts{
			Tapes: tapes(21.5, 13.75, 12.25, 2, 0.77), Stature: 1690,
			Hair:    hair.Own{Front: 90, Sides: 100, Crown: 125, Nape: 110, Density: 170, Strand: 68, Texture: hair.Coily, Edges: hair.FragileEdges},
			History: []client.Event{client.FibreItch},
			Notes:   "Cellist: left side shows on stage. Wants a hairline that shows and nothing that falls on the strings.",
		}),
		pilot: facts(client.Facts{
			Tapes: tapes(22, 13.75, 12.25, 1, 0.79), Stature: 1630,
			Hair:  hair.Own{Front: 75, Sides: 80, Crown: 90, Nape: 85, Density: 110, Strand: 58, Texture: hair.Curly, Edges: hair.FineEdges},
			Notes: "Retired ferry pilot. Fine hair, low density: fewer, wider sections and light pieces.",
		}),
		pupil: facts(client.Facts{
			Guardian: "Orla Pellwether, an aunt",
			Tapes:    tapes(20.5, 13, 11.5, 2, 0.79), Stature: 1390,
			Hair:  hair.Own{Front: 100, Sides: 110, Crown: 130, Nape: 120, Density: 190, Strand: 66, Texture: hair.Coily, Tender: true, Edges: hair.FineEdges},
			Notes: "Sail-school pupil, ten years old. Two short sittings rather than a long one.",
		}),
		baker: facts(client.Facts{
			Tapes: tapes(22, 14, 12.75, 3, 0.78), Stature: 1650,
			Hair:  hair.Own{Front: 150, Sides: 160, Crown: 178, Nape: 165, Density: 190, Strand: 72, Texture: hair.Coily, Edges: hair.StrongEdges},
			Notes: "Baker: does it all alone over four evenings and wants the plan to take home.",
		}),
	}
}

// Plan is one of the studio's plans.
type Plan struct {
	Title, Client, By string
	Input             plan.Input
}

// Plans are the studio's plans, the one looked at last coming last.
func Plans() []Plan {
	line := func(n int) hair.Piece { return standin.PriceList()[n] }
	square := func(pattern parting.Pattern, in float64) parting.Wish {
		return parting.Wish{Pattern: pattern, Size: parting.Size{Width: in * inch, Height: in * inch}, Ramp: 1, Along: 1}
	}
	clients := Clients()
	// hang makes pieces those of the plan, the first of them everywhere.
	hang := func(in *plan.Input, pieces ...hair.Piece) {
		in.Pieces, in.Uses[0].Piece, in.Fill.Piece = pieces, pieces[0].Key, pieces[0].Key
	}
	begin := func(name string) plan.Input { return clients[name].Begin(plan.Default()) }

	stage := begin(cellist)
	stage.Parting = parting.Plain(square(parting.Grid, 0.75), square(parting.Grid, 1))
	hang(&stage, line(2))
	// Where it shows the passes stand closer.
	closer := plan.NewWay("closer", method.HitchAndWeave)
	closer.Settings["pitchMm"] = inch
	stage.Ways = append(stage.Ways, closer)
	stage.Uses = append(stage.Uses, plan.Use{Where: plan.Where{Kind: plan.AtHairline}, Way: closer.Key})

	thick := begin(technician)
	thick.Parting = parting.Plain(square(parting.Brick, 1), square(parting.Brick, 1.25))
	hang(&thick, line(0))
	thick.Ways[0] = plan.NewWay(thick.Ways[0].Key, method.CollarAndWrap)
	thick.Ways[0].Wrapping.PackMass = 80

	home := begin(baker)
	home.Parting = parting.Plain(square(parting.Brick, 0.75), square(parting.Brick, 0.875))
	hang(&home, line(5))
	home.Spares = supply.Spares{Percent: 8, Least: 4}
	home.Ways[0] = plan.NewWay(home.Ways[0].Key, method.FoldAndTwist)
	home.OwnHead = true

	boat := begin(coxswain)
	boat.Parting = parting.Plain(square(parting.FreeHand, 1), square(parting.FreeHand, 1.125))
	boat.Parting.Part.Kind = parting.Levels
	hang(&boat, line(2))

	light := begin(pilot)
	light.Parting = parting.Plain(square(parting.Triangle, 1), square(parting.Brick, 1))
	light.Parting.Back.Ramp = 1.4
	hang(&light, line(2))

	light.Parting.Structure, light.Parting.Base.Kind = parting.NetCap, parting.Net
	light.Parting.Base.Cornrows, light.Parting.Base.Spacing = 12, 26

	winter := begin(technician)
	winter.Parting = parting.Plain(square(parting.Brick, 0.875), square(parting.Brick, 1.25))
	winter.Parting.Structure, winter.Parting.Rows = parting.Horseshoe, 2
	winter.Parting.Part.Stop = 150
	winter.Parting.Base.MergeInto, winter.Parting.Base.MergeAfter = 3, 60
	// Thick locs where parts show, light twists on the cornrows.
	hang(&winter, line(4), line(3))
	winter.Uses[1].Piece = winter.Pieces[1].Key
	winter.Ways[0] = plan.NewWay(winter.Ways[0].Key, method.CollarAndWrap)

	ring := begin(cellist)
	ring.Parting = parting.Plain(square(parting.Brick, 0.875), square(parting.Brick, 1))
	ring.Parting.Structure, ring.Parting.Peak = parting.Perimeter, true
	ring.Parting.Part.Kind, ring.Parting.Edges = parting.NoPart, 6
	ring.Parting.Base.Run, ring.Parting.Base.Cornrows = parting.Horizontal, 5
	ring.Hairline = scalp.Hairline{Front: -6, TempleCorner: scalp.Move{Up: 5}}
	hang(&ring, line(2), line(3))
	ring.Uses[1].Piece = ring.Pieces[1].Key

	front := begin(baker)
	front.Parting = parting.Plain(square(parting.Brick, 0.875), square(parting.Brick, 1))
	front.Parting.Structure, front.Parting.NapeGuard = parting.EarToEar, true
	front.Parting.Part = parting.Part{Kind: parting.SidePart, Offset: 22, Stop: 140}
	front.Parting.Base.Run, front.Parting.Base.Tails = parting.Horizontal, parting.Chained
	hang(&front, line(2))
	front.OwnHead = true

	school := begin(pupil)
	school.Parting = parting.Plain(square(parting.Brick, 0.75), square(parting.Brick, 1))
	school.Parting.Structure = parting.PartLine
	school.Parting.Part.Stop = 110
	hang(&school, line(2))

	linked := begin(coxswain)
	linked.Parting = parting.Plain(square(parting.Brick, 1), square(parting.Brick, 1.125))
	linked.Parting.Structure, linked.Parting.Part.Stop = parting.Linked, 130
	hang(&linked, line(2))

	design := begin(pilot)
	design.Parting = parting.Plain(square(parting.Brick, 1), square(parting.Brick, 1.125))
	design.Parting.Structure = parting.FrontDesign
	design.Parting.Part = parting.Part{Kind: parting.DiagonalPart, Offset: 26, EndOffset: 6}
	design.Parting.Design = parting.Design{Side: parting.LeftSide, Cornrows: 4, Curved: true}
	design.Parting.Base.Cornrows, design.Parting.Base.Run, design.Parting.Base.Hooks = 7, parting.Curved, 60
	hang(&design, line(2), line(10))
	// Its cornrows go on behind as braids.
	design.Parting.Design.Fed = true
	fed := plan.NewWay("fed", method.FedIn)
	design.Ways = append(design.Ways, fed)
	design.Uses = append(design.Uses, plan.Use{Where: plan.Where{Kind: plan.AtEnds}, Piece: design.Pieces[1].Key, Way: fed.Key, Count: 1})

	quick := begin(pilot)
	quick.Parting = parting.Plain(square(parting.Brick, 1.125), square(parting.Brick, 1.125))
	quick.Parting.Structure = parting.EarToEar
	quick.Parting.Part.Stop = 130
	quick.Parting.Base.Run = parting.Horizontal
	hang(&quick, line(2))

	return []Plan{
		{atChair, pilot, "Tamsin Okoro-Vale", quick},
		{"The ferry pilot, a design on the left", pilot, "Tamsin Okoro-Vale", design},
		{"The coxswain, linked plaits under the cap", coxswain, "Ikaika Moreau", linked},
		{"The sail-school pupil, a part and no more", pupil, "Odalys Brandt", school},
		{"The baker, own front and a quick back", baker, "Odalys Brandt", front},
		{"The cellist, a ring to tie up", cellist, "Tamsin Okoro-Vale", ring},
		{"The lighthouse technician, horseshoe", technician, "Tamsin Okoro-Vale", winter},
		{"The ferry pilot, fine hair, few and light", pilot, "Odalys Brandt", light},
		{"The coxswain, grown-in, before the regatta", coxswain, "Odalys Brandt", boat},
		{"The baker, four evenings at home", baker, "Odalys Brandt", home},
		{"The lighthouse technician, long thick hair", technician, "Tamsin Okoro-Vale", thick},
		{"The cellist, a hairline that shows", cellist, "Tamsin Okoro-Vale", stage},
	}
}

// ErrNotTheDemo: the studio is someone's own. Opening it as the demo would let anyone
// in as its owner.
var ErrNotTheDemo = errors.New("this is not the demo studio, and is not opened to anyone: choose another file with -db, or start it with serve")

// Furnish makes an empty studio the demo and adds people, clients and plans to it. One
// that is the demo already is left alone; any other is refused with [ErrNotTheDemo].
func Furnish(ctx context.Context, s *store.Store) error {
	has, err := s.HasPeople(ctx)
	switch {
	case err != nil:
		return err
	case has && s.Facts().Demo:
		return nil
	case has:
		return ErrNotTheDemo
	}
	if err := s.MarkDemo(ctx); err != nil {
		return err
	}
	crew := map[string]store.Person{}
	for _, p := range people {
		hash, err := password.Hash(ctx, rand.Text())
		if err != nil {
			return err
		}
		added, err := s.AddPerson(ctx, p.name, p.role, hash)
		if err == nil {
			crew[p.name], err = s.SetPace(ctx, added.ID, hands[p.name], added.OwnHead)
		}
		if err != nil {
			return fmt.Errorf("demo person %q: %w", p.name, err)
		}
	}
	ids := map[string]string{}
	for name, facts := range Clients() {
		c, err := s.CreateClient(ctx, uuid.NewString(), store.ClientDraft{Name: name, Facts: facts})
		if err != nil {
			return fmt.Errorf("demo client %q: %w", name, err)
		}
		ids[name] = c.ID
	}
	use, err := studio.Open(ctx, s, standin.World())
	if err != nil {
		return err
	}
	if err := use.Practise(ctx); err != nil {
		return err
	}
	stock, err := furnishItems(ctx, s)
	if err != nil {
		return err
	}
	plans, inputs := map[string]string{}, map[string]plan.Input{}
	for _, p := range Plans() {
		in := stock.take(p)
		in.Day.Hands, in.Day.Sittings = dayOf(p.Title, in, crew)
		inputs[p.Title] = in
	}
	if err := log(ctx, s, use, crew, ids, inputs); err != nil {
		return err
	}
	for _, p := range Plans() {
		in := inputs[p.Title]
		res, err := tally.Compute(ctx, in)
		if err != nil {
			return fmt.Errorf("demo plan %q: %w", p.Title, err)
		}
		draft := store.Draft{Title: p.Title, ClientID: ids[p.Client], Input: in, Summary: studio.Summarise(in, res), By: p.By}
		plans[p.Title] = uuid.NewString()
		if _, err := s.CreatePlan(ctx, plans[p.Title], draft); err != nil {
			return fmt.Errorf("demo plan %q: %w", p.Title, err)
		}
	}
	if err := stock.furnish(ctx, s, use, plans); err != nil {
		return err
	}
	if err := prices(ctx, s, use, plans["The lighthouse technician, long thick hair"]); err != nil {
		return err
	}
	if err := bookings(ctx, s, use, crew, plans); err != nil {
		return err
	}
	return chairs(ctx, use, crew["Tamsin Okoro-Vale"], plans[atChair])
}

// prices sets what the studio asks, and gives a quote for a plan, which is accepted.
func prices(ctx context.Context, s *store.Store, use *studio.Studio, planID string) error {
	home, err := s.House(ctx)
	if err != nil {
		return err
	}
	crew, err := s.People(ctx)
	if err != nil {
		return err
	}
	at := slices.IndexFunc(crew, func(p store.Person) bool { return p.Role == store.Owner })
	terms := quote.Terms{
		Name: "Tidewheel Loft, Merrow Sound", Rate: 2800, Rates: map[string]int64{}, Deposit: 25, TaxName: "Harbour tax", Tax: 5, TaxIncluded: true, ValidDays: 30,
		Conditions: "The deposit books the day. It is kept when the day is given up less than two days before; a day can be moved once.",
	}
	for _, p := range crew {
		if p.Role == store.Apprentice {
			terms.Rates[p.ID] = 1600
		}
	}
	home.Rules.Terms, home.Rules.Chairs, home.Rules.Paper = &terms, 2, "letter"
	if _, err := use.SaveHouse(ctx, home.Version, home.Rules); err != nil {
		return fmt.Errorf("demo prices: %w", err)
	}
	if err := cautioned(ctx, use, crew[at], planID); err != nil {
		return err
	}
	given, err := use.GiveQuote(ctx, crew[at], uuid.NewString(), planID, 1, sheet.Inches, "letter")
	if err != nil {
		return fmt.Errorf("demo quote: %w", err)
	}
	_, err = use.AnswerQuote(ctx, crew[at], given.ID, quote.Accepted)
	return err
}
