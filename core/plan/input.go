// Package plan holds the document of a plan and solves it.
//
// The document, [Input], is what is stored and exchanged. It carries the version of its
// schema; [Decode] reads any version it knows, [Check] names every field that is wrong, and
// [Changes] lists what differs between two. Lengths are mm, mass g, money minor units of the
// studio's currency.
//
// [Solve] fits the head, lays it out and decides which piece hangs where and by which method.
// Its value is read only. What follows from it (hair to buy, load, hours, how it hangs) is
// worked out by packages of their own, which take a [Solved] and know nothing of
// the others' insides.
package plan

import (
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/plan/schema"
	"kladotex/core/quote"
	"kladotex/core/scalp"
	"kladotex/core/supply"
	"kladotex/core/wish"
)

// Schema is the version of the input document this package writes.
const Schema = schema.Current

// Engine names the way a document is worked out: it changes whenever the same document comes
// to other numbers. What is frozen keeps it.
const Engine = "2026-12b"

// MaxDocument is the size in bytes above which an input document is refused.
const MaxDocument = 1 << 20

// Input is a plan: the head, the hair, the wish. It is a complete document; no
// field has a silent default.
type Input struct {
	Schema int         `json:"schema" doc:"Version of this document's schema" minimum:"1"`
	Head   scalp.Tapes `json:"head"`
	// Hairline is how it departs from the usual one.
	Hairline scalp.Hairline    `json:"hairline"`
	Hair     hair.Own          `json:"hair"`
	OwnHead  bool              `json:"ownHead" doc:"True when you do your own head"`
	Child    bool              `json:"child" doc:"True for a child, whose head bears less"`
	Parting  parting.Settings  `json:"parting"`
	Plaits   plait.Preparation `json:"plaits"`
	Pieces   []hair.Piece      `json:"pieces" minItems:"1" maxItems:"12"`
	Ways     []Way             `json:"ways" minItems:"1" maxItems:"20"`
	Uses     []Use             `json:"uses" minItems:"2" maxItems:"200" doc:"What goes where. The first is everywhere, the second on the base; of several that match a place the later wins, in what it names"`
	Spares   supply.Spares     `json:"spares" doc:"Spares of each piece"`
	Fill     Fill              `json:"fill"`
	// Wishes decide between methods; nil where none were said.
	Wishes *method.Wishes `json:"wishes,omitempty" doc:"What is wanted of the install that decides between methods"`
	// Wanted is what is wished of the whole head, against which every change is held; nil where nobody said.
	Wanted *wish.Wanted `json:"wanted,omitempty" doc:"What is wished of the head and what there is for it; left out while it is open"`
	// Accents are a few pieces or small things beside what hangs everywhere.
	Accents []Accent `json:"accents,omitempty" maxItems:"12" doc:"A few pieces or small things put on beside the rest"`
	// Stature is the wearer's height standing; 0 where nobody asked, and a usual one is taken.
	Stature float64 `json:"statureMm,omitempty" doc:"The wearer's height standing, mm; left out where nobody asked"`
	// Trim is how the ends are cut once all hang; nil leaves them as they come.
	Trim *Trim `json:"trim,omitempty" doc:"How the ends are cut once all hang; left out to leave them as they come"`
	// Price is what the install is priced by; nil is as the studio usually does.
	Price *quote.Basis `json:"price,omitempty" doc:"What the install is priced by; left out for the studio's usual way"`
	// Day is when it is done; nil while that is open.
	Day *Day `json:"day,omitempty" doc:"When it is done; left out while that is open"`
	// Customs are sides taken where practitioners disagree and nothing else says how it is
	// done; nil where all are as usual.
	Customs map[string]string `json:"customs,omitempty" doc:"Sides taken on questions of practice, by key; those left out are as usual"`
	// Redo is what is done again of a head that is worn; nil for a whole head.
	Redo *Redo `json:"redo,omitempty" doc:"What is done again of a head that is worn; left out for a whole head"`
	// Feed is the hair fed into the ends of plaits; nil for the usual one.
	Feed *hair.Wrapping `json:"feed,omitempty" doc:"The hair fed into the ends of plaits; left out for the usual one"`
	// Products are those taken in place of the usual ones.
	Products []Chosen `json:"products,omitempty" maxItems:"12" doc:"Gel, foam and the like taken in place of the usual ones"`
	// Avoid are products that the head does not bear.
	Avoid []ProductKey `json:"avoid,omitempty" maxItems:"9" enum:"bands,rings,cord,gel,wax,oil,leave-in,foam,glue" doc:"Products that the head does not bear: an allergy"`
	// ReuseFirst takes pieces that were worn before out of the stash before new ones.
	ReuseFirst bool `json:"reuseFirst,omitempty" doc:"True to take pieces that were worn before out of the stash first"`
}

// The keys of the default plan.
const (
	firstPiece = "p1"
	firstWay   = "w1"
	hookWay    = "hook"
)

// Default is the plan a newcomer starts from: an average head in brick at one inch, soft
// locs hitched and woven, hooked on wherever the head is given a base.
func Default() Input {
	const inch = 25.4
	wish := parting.Wish{Pattern: parting.Brick, Size: parting.Size{Width: inch, Height: inch}, Ramp: 1, Along: 1}
	var average scalp.Tapes
	for _, p := range scalp.Presets() {
		if p.Name == "Average" {
			average = p.Tapes
		}
	}
	return Input{
		Schema: Schema,
		Head:   average,
		Hair: hair.Own{
			Front: 6 * inch, Sides: 6 * inch, Crown: 6 * inch, Nape: 6 * inch,
			Density: 190, Strand: 75, Texture: hair.Coily, Edges: hair.StrongEdges,
		},
		Parting: parting.Plain(wish, wish),
		Plaits:  plait.Usual(),
		Pieces: []hair.Piece{{
			Key: firstPiece, Name: "Pre-looped loc", Form: hair.SoftLoc, Length: 18 * inch, Thickness: 9, Mass: 4,
			Pack:   hair.Pack{Units: 20, Cuts: 1, Splits: 1},
			Offers: []hair.Offer{{Packs: 1, Price: 1250}},
		}},
		Ways: []Way{NewWay(firstWay, method.HitchAndWeave), NewWay(hookWay, method.CornrowHitch)},
		Uses: []Use{
			{Where: Where{Kind: Everywhere}, Piece: firstPiece, Way: firstWay, Count: 1},
			{Where: Where{Kind: OnBase}, Way: hookWay, Count: 1},
		},
		Spares: supply.Spares{Percent: 5, Least: 2},
		Fill:   Fill{Piece: firstPiece},
	}
}

// UsualWrapping is the wrapping hair a plan starts with.
var UsualWrapping = hair.Wrapping{StrandLength: 610, Strands: 60, PackMass: 100, Price: 600}

// NewWay is a method as it usually is, with usual wrapping hair where it wraps.
func NewWay(key string, id method.ID) Way {
	m, _ := method.Lookup(id)
	return Way{Key: key, Method: id, Settings: m.Usual()}.wrapping()
}

// With is the way with an option of one of its method's choices taken.
func (w Way) With(choice, option string) Way {
	m, _ := method.Lookup(w.Method)
	w.Choices = m.Choosing(w.Choices, choice, option)
	return w.wrapping()
}

// wrapping gives the way wrapping hair where it winds some and has none, and takes away what it
// does not wind.
func (w Way) wrapping() Way {
	m, _ := method.Lookup(w.Method)
	switch wraps := m.As(w.Choices).Wraps; {
	case !wraps:
		w.Wrapping = nil
	case w.Wrapping == nil:
		usual := UsualWrapping
		w.Wrapping = &usual
	}
	return w
}
