// Package plan holds the document of a plan and solves it.
//
// The document, [Input], is what is stored and exchanged. It carries the version of its
// schema; [Decode] reads any version it knows, [Check] names every field that is wrong, and
// [Changes] lists what differs between two. Lengths are mm, mass g, money minor units of the
// studio's currency.
//
// [Solve] fits the head, lays it out and decides which piece hangs where and by which method.
// Its value is read only. What follows from it (hair to buy, load, hours, how it hangs) is
// worked out by packages of their own, each of which takes a [Solved] and knows nothing of
// the others' insides.
package plan

import (
	"fmt"
	"slices"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/plan/schema"
	"kladotex/core/quote"
	"kladotex/core/scalp"
	"kladotex/core/supply"
)

// Schema is the version of the input document this package writes.
const Schema = schema.Current

// Engine names the way a document is worked out: it changes whenever the same document comes
// to other numbers. What is frozen keeps it.
const Engine = "2026-12"

// MaxDocument is the size in bytes above which an input document is refused.
const MaxDocument = 1 << 20

// Bounds of the lists of a document.
const (
	MaxPieces = 12
	MaxWays   = 20
	MaxUses   = 200
	maxPlaces = 400 // of one use
	// MaxCount is the most pieces at one place.
	MaxCount = 6
)

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
	Uses     []Use             `json:"uses" minItems:"2" maxItems:"200" doc:"Who gets what. The first is everywhere, the second on the base; of several that match a place the later wins, in what it names"`
	Spares   supply.Spares     `json:"spares" doc:"Spares of each piece"`
	Fill     Fill              `json:"fill"`
	// Wishes decide between methods; nil where none were said.
	Wishes *method.Wishes `json:"wishes,omitempty" doc:"What is wanted of the install that decides between methods"`
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
	// ReuseFirst takes pieces that were worn before out of the stash before new ones.
	ReuseFirst bool `json:"reuseFirst,omitempty" doc:"True to take pieces that were worn before out of the stash first"`
}

// hookShare is the usual distance between pieces on a base ÷ their thickness: so that they
// cover it and no more; on those that show they stand closer. Common practice, no source.
const (
	hookShare  = 2.2
	shownShare = 1.6
)

// HookSpacing is the distance between pieces on the base, mm: as the plan says, else from the
// thickness of the piece that hangs there; never closer than a piece is thick.
func (in Input) HookSpacing() float64 { return in.hooksApart(hookShare) }

// shownSpacing is [Input.HookSpacing] on tracks that show.
func (in Input) shownSpacing() float64 { return in.hooksApart(shownShare) }

func (in Input) hooksApart(share float64) float64 {
	thick := 0.0
	for i, use := range in.Uses {
		if use.names() && (i == 0 || use.Where.Kind == OnBase) {
			thick = 0
			for _, key := range use.keys() {
				thick = max(thick, in.Piece(key).Thickness)
			}
		}
	}
	spacing := in.Parting.Base.Spacing
	if spacing == 0 {
		if in.Custom(Airiness) == "packed" {
			share = shownShare
		}
		spacing = share * thick
	}
	return max(parting.MinSpacing, min(parting.MaxSpacing, max(spacing, thick)))
}

// Wish is what is wanted of the install; nothing where nothing was said.
func (in Input) Wish() method.Wishes {
	if in.Wishes == nil {
		return method.Wishes{}
	}
	return *in.Wishes
}

// PricedBy is what the install is priced by; the usual where nothing was said.
func (in Input) PricedBy() quote.Basis {
	if in.Price == nil {
		return quote.Basis{}
	}
	return *in.Price
}

// Way is a method with what may be set of it.
type Way struct {
	// Key names the way inside its plan.
	Key      string          `json:"key" minLength:"1" maxLength:"40"`
	Method   method.ID       `json:"method" enum:"L1,L2,L3,L4,L5,L6,W1,W2,W3,W4,W5,T1,T2,T3,B1,B2"`
	Settings method.Settings `json:"settings" doc:"The method's parameters by key; the catalogue lists them"`
	Choices  method.Chosen   `json:"choices,omitempty" doc:"Options of the method's choices by key; those left out are as usual"`
	// Wrapping may be kept for methods that take none; those that wrap need it.
	Wrapping *hair.Wrapping `json:"wrapping,omitempty" doc:"The wrapping hair; methods that wrap need it"`
}

// Use says what places get. What it leaves out stays as earlier uses say.
type Use struct {
	Where Where  `json:"where"`
	Piece string `json:"piece,omitempty" doc:"Key of a piece; left out to leave it as it is"`
	// Mix is several pieces in place of one, spread evenly.
	Mix   []Share `json:"mix,omitempty" maxItems:"6" doc:"Several pieces spread evenly, in place of one"`
	Way   string  `json:"way,omitempty" doc:"Key of a way; it is taken where its method can hang a piece"`
	Count int     `json:"count,omitempty" minimum:"0" maximum:"6" doc:"Pieces at each place; 0 to leave it as it is"`
}

// Fill is what is hung into thin spots at the end.
type Fill struct {
	Piece string `json:"piece" doc:"Key of the piece"`
	Count int    `json:"count" doc:"How many, besides those whose places are known"`
	// At are places that were found bare beforehand; one piece goes to each, on the plait
	// or track nearest to it.
	At []parting.Direction `json:"at,omitempty" maxItems:"200" doc:"Places known beforehand: one piece at each, hung on what lies nearest"`
}

// MaxFill bounds the pieces to fill with, of either sort.
const MaxFill = 200

// Total is how many pieces are filled in.
func (f Fill) Total() int { return f.Count + len(f.At) }

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
		Ways: []Way{NewWay(firstWay, method.HitchAndWeave), NewWay(hookWay, method.TrackHitch)},
		Uses: []Use{
			{Where: Where{Kind: Everywhere}, Piece: firstPiece, Way: firstWay, Count: 1},
			{Where: Where{Kind: OnBase}, Way: hookWay, Count: 1},
		},
		Spares: supply.Spares{Percent: 5, Least: 2},
		Fill:   Fill{Piece: firstPiece},
	}
}

// Piece is the piece with a key; empty when there is none.
func (in Input) Piece(key string) hair.Piece {
	for _, p := range in.Pieces {
		if p.Key == key {
			return p
		}
	}
	return hair.Piece{}
}

// UsualWrapping is the wrapping hair a plan starts with.
var UsualWrapping = hair.Wrapping{StrandLength: 610, Strands: 60, PackMass: 100, Price: 600}

// NewWay is a method as it usually is, with usual wrapping hair where it wraps.
func NewWay(key string, id method.ID) Way {
	m, _ := method.Lookup(id)
	w := Way{Key: key, Method: id, Settings: m.Usual()}
	if m.Wraps {
		usual := UsualWrapping
		w.Wrapping = &usual
	}
	return w
}

// WayOf is a method as the plan has it set, else as it usually is.
func (in Input) WayOf(m method.Method) Way {
	if i := slices.IndexFunc(in.Ways, func(w Way) bool { return w.Method == m.ID }); i >= 0 {
		return in.Ways[i]
	}
	return NewWay(string(m.ID), m.ID)
}

// WithUse is the plan with one more use, the last of which wins.
func (in Input) WithUse(u Use) Input {
	in.Uses = append(slices.Clone(in.Uses), u)
	return in
}

// FreshKey is a key that none of the plan's pieces has.
func (in Input) FreshKey(stem string) string {
	for n := 1; ; n++ {
		key := fmt.Sprintf("%s-%d", stem, n)
		if !slices.ContainsFunc(in.Pieces, func(p hair.Piece) bool { return p.Key == key }) {
			return key
		}
	}
}

// Fragile tells whether the edges bear less than the rest.
func (in Input) Fragile() bool {
	return in.Hair.Edges == hair.FragileEdges || in.Hair.Edges == hair.BareEdges
}

// SizeStep is to what sizes of sections are rounded, mm: a sixteenth of an inch.
const SizeStep = 25.4 / 16

// Scaled is the plan with its sections so many times as wide and as high, with those changes by
// hand that hold at any size.
func (in Input) Scaled(scale float64) Input {
	for _, wish := range []*parting.Wish{&in.Parting.Front, &in.Parting.Back} {
		wish.Width *= scale
		wish.Height *= scale
	}
	in.Parting.Edits = parting.AtAnySize(in.Parting.Edits)
	return in
}

// With is the plan with another piece in place of the one that hangs everywhere; a mix there gives way to it. The
// error is an [invalid.Errors] where it can not be.
func (in Input) With(p hair.Piece) (Input, error) {
	key := in.Uses[0].keys()[0]
	p.Key = key
	in.Pieces, in.Uses = slices.Clone(in.Pieces), slices.Clone(in.Uses)
	for i := range in.Pieces {
		if in.Pieces[i].Key == key {
			in.Pieces[i] = p
		}
	}
	in.Uses[0].Piece, in.Uses[0].Mix = key, nil
	return in, Check(in)
}

// WayName is the method of a way, told apart from others of the same method by number.
func (in Input) WayName(key string) string {
	at := slices.IndexFunc(in.Ways, func(w Way) bool { return w.Key == key })
	if at < 0 {
		return key
	}
	m, _ := method.Lookup(in.Ways[at].Method)
	same, number := 0, 0
	for i, w := range in.Ways {
		if w.Method == in.Ways[at].Method {
			same++
			if i <= at {
				number++
			}
		}
	}
	if same > 1 {
		return fmt.Sprintf("%s (%d)", m.Name, number)
	}
	return m.Name
}
