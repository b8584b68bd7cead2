// Package plan ties the core together: a plan's input document goes in, and the parted
// head, who gets which piece in which way, the counts, the order, the work and the hours
// come out.
//
// The input document is what is stored and exchanged. It carries the version of its
// schema; [Decode] reads any version it knows. Lengths are mm, mass g, money minor units
// of the studio's currency.
//
// The head is laid once; [Resolve] says of every place what hangs there and how. All else
// is a fold over places.
package plan

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"regexp"
	"slices"

	"kladotex/core/hair"
	"kladotex/core/invalid"
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
		if in.Custom(density) == "packed" {
			share = shownShare
		}
		spacing = share * thick
	}
	return max(parting.MinSpacing, min(parting.MaxSpacing, max(spacing, thick)))
}

// wish is what is wanted of the install; nothing where nothing was said.
func (in Input) wish() method.Wishes {
	if in.Wishes == nil {
		return method.Wishes{}
	}
	return *in.Wishes
}

// price is what the install is priced by; the usual where nothing was said.
func (in Input) price() quote.Basis {
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

// maxFill bounds the pieces to fill with, of either sort.
const maxFill = 200

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

// usualWrapping is the wrapping hair a plan starts with.
var usualWrapping = hair.Wrapping{StrandLength: 610, Strands: 60, PackMass: 100, Price: 600}

// NewWay is a method as it usually is, with usual wrapping hair where it wraps.
func NewWay(key string, id method.ID) Way {
	m, _ := method.Lookup(id)
	w := Way{Key: key, Method: id, Settings: m.Usual()}
	if m.Wraps {
		usual := usualWrapping
		w.Wrapping = &usual
	}
	return w
}

// check refuses what the packages that use a field do not check themselves.
func (in Input) check() invalid.Errors {
	var bad invalid.Errors
	if in.Schema != Schema {
		bad.Add("schema", "This plan is of version %d; this program reads versions up to %d. A newer Kladotex will open it.", in.Schema, Schema)
	}
	in.Hair.Check(&bad, "hair.", false)
	invalid.OneOf(&bad, "plaits.far", "How far to plait", in.Plaits.Far, []plait.Far{plait.Whole, plait.Half, plait.Anchor})
	bad.Length("plaits.fedMm", "Hair fed into the ends", in.Plaits.Fed, 0, 300)
	invalid.OneOf(&bad, "plaits.direction", "The way of the plaits", in.Plaits.Direction, []plait.Direction{plait.Over, plait.Under})
	invalid.OneOf(&bad, "plaits.tension", "The tension of the plaits", in.Plaits.Tension, []plait.Tension{plait.Slack, plait.Snug})

	pieces := keys(&bad, "pieces", "The number of pieces", in.Pieces, MaxPieces, func(p hair.Piece) string { return p.Key })
	for i, p := range in.Pieces {
		p.Check(&bad, invalid.At("pieces", i)+".")
	}
	ways := keys(&bad, "ways", "The number of ways", in.Ways, MaxWays, func(w Way) string { return w.Key })
	for i, w := range in.Ways {
		w.check(&bad, invalid.At("ways", i)+".")
	}
	in.checkUses(&bad, pieces, ways)
	bad.Number("spares.percent", "Spares", in.Spares.Percent, 0, 100, " %")
	bad.Count("spares.least", "Spares at least", in.Spares.Least, 0, 200)
	if in.Spares.Amount != "" {
		invalid.OneOf(&bad, "spares.amount", "The amount", in.Spares.Amount, supply.AmountNames)
	}
	bad.Number("spares.spoiltShare", "The share that is spoilt", in.Spares.Spoilt, 0, 0.3, "")
	bad.Count("fill.count", "Pieces to fill with", in.Fill.Count, 0, maxFill)
	bad.Count("fill.at", "Places to fill", len(in.Fill.At), 0, maxFill)
	for i, d := range in.Fill.At {
		d.Check(&bad, invalid.At("fill.at", i))
	}
	if in.Stature != 0 {
		bad.Length("statureMm", "Height standing", in.Stature, MinStature, MaxStature)
	}
	if in.Trim != nil {
		in.Trim.check(&bad, "trim.")
	}
	if in.Price != nil {
		in.Price.Check(&bad, "price.")
	}
	if in.Wishes != nil {
		in.Wishes.Check(&bad, "wishes.")
	}
	if in.Redo != nil {
		bad.Count("redo.rows", "The outer rows to do again", in.Redo.Rows, 1, outerRows)
		bad.Letters("redo.install", "The install they belong to", in.Redo.Install, 1, 64)
	}
	in.checkCustoms(&bad)
	in.checkAccents(&bad, pieces)
	if in.Day != nil {
		in.Day.check(&bad, "day.")
	}
	if !slices.Contains(pieces, in.Fill.Piece) {
		bad.Add("fill.piece", "The piece to fill with must be one of the plan's; it is %q.", in.Fill.Piece)
	}
	return bad
}

// keys refuses a list that is empty or too long, and keys that are missing or stand
// twice.
func keys[T any](bad *invalid.Errors, path, label string, list []T, most int, key func(T) string) []string {
	bad.Count(path, label, len(list), 1, most)
	out := make([]string, len(list))
	for i, x := range list {
		k := key(x)
		switch {
		case k == "":
			bad.Add(invalid.At(path, i)+".key", "It needs a key.")
		case slices.Contains(out, k):
			bad.Add(invalid.At(path, i)+".key", "The key %q stands twice.", k)
		}
		out[i] = k
	}
	return out
}

func (w Way) check(bad *invalid.Errors, path string) {
	m, ok := method.Lookup(w.Method)
	if !ok {
		invalid.OneOf(bad, path+"method", "The method", w.Method, method.IDs())
		return
	}
	m.Check(bad, path+"settings.", w.Settings)
	m.CheckChoices(bad, path+"choices.", w.Choices)
	switch {
	case w.Wrapping != nil:
		w.Wrapping.Check(bad, path+"wrapping.")
	case m.Wraps:
		bad.Add(path+"wrapping", "%s takes wrapping hair; say which.", m.Name)
	}
}

// checkUses refuses uses that name what the plan does not have, and a list that does not
// begin with what everything gets: a method for plaits everywhere, one for the base.
func (in Input) checkUses(bad *invalid.Errors, pieces, ways []string) {
	bad.Count("uses", "The number of rules", len(in.Uses), 2, MaxUses)
	on := func(use Use, grounds ...method.Ground) bool {
		i := slices.Index(ways, use.Way)
		if i < 0 {
			return false
		}
		m, _ := method.Lookup(in.Ways[i].Method)
		return !slices.ContainsFunc(grounds, func(g method.Ground) bool { return !m.On(g) })
	}
	for i, use := range in.Uses {
		path := invalid.At("uses", i) + "."
		switch {
		case i == 0 && use.Where.Kind != Everywhere:
			bad.Add(path+"where.kind", "The first rule is for everywhere; others come after it.")
		case i == 1 && use.Where.Kind != OnBase:
			bad.Add(path+"where.kind", "The second rule is for the base; others come after it.")
		}
		use.Where.check(bad, path+"where.")
		if use.Piece != "" && !slices.Contains(pieces, use.Piece) || use.Piece == "" && i == 0 && len(use.Mix) == 0 {
			bad.Add(path+"piece", "The piece must be one of the plan's; it is %q.", use.Piece)
		}
		use.checkMix(bad, path, pieces)
		switch {
		case use.Way != "" && !slices.Contains(ways, use.Way):
			bad.Add(path+"way", "The way must be one of the plan's; it is %q.", use.Way)
		case i == 0 && !on(use, method.OnPlait):
			bad.Add(path+"way", "What everything gets must be a method that hides a plait.")
		case i == 1 && !on(use, method.OnTrack, method.OnNet, method.OnLink):
			bad.Add(path+"way", "On the base pieces are hooked; this method needs a plait to hide.")
		}
		least := 0
		if i == 0 {
			least = 1
		}
		bad.Count(path+"count", "Pieces at each place", use.Count, least, MaxCount)
		if use.Piece == "" && len(use.Mix) == 0 && use.Way == "" && use.Count == 0 {
			bad.Add(path+"piece", "This rule says nothing: choose a piece, a way or a number.")
		}
	}
}

// Decode reads one input document of at most MaxDocument bytes, strictly:
// unknown fields, trailing text and unknown versions are refused. The error is an
// [invalid.Errors] when it is about the document and not about reading it.
func Decode(r io.Reader) (Input, error) {
	raw, err := readLimited(r)
	if err != nil {
		return Input{}, err
	}
	var bad invalid.Errors
	// The version first: a newer document may have fields this one lacks.
	var head struct {
		Schema *int `json:"schema"`
	}
	if err := json.Unmarshal(raw, &head); err != nil {
		return Input{}, unreadable(err)
	}
	if head.Schema == nil {
		bad.Add("schema", "The plan does not say its version; %d is current.", Schema)
		return Input{}, bad
	}
	if *head.Schema != Schema {
		// What stands behind the document would be lost on the way.
		if err := decodeStrictly(raw, new(map[string]json.RawMessage)); err != nil {
			return Input{}, err
		}
	}
	switch raw, err = schema.Upgrade(raw, *head.Schema); {
	case errors.Is(err, schema.ErrUnknown):
		return Input{}, Input{Schema: *head.Schema}.check()[:1]
	case err != nil:
		return Input{}, unreadable(err)
	}
	var in Input
	if err := decodeStrictly(raw, &in); err != nil {
		return Input{}, err
	}
	return in, nil
}

// readLimited reads a document of at most MaxDocument bytes.
func readLimited(r io.Reader) ([]byte, error) {
	raw, err := io.ReadAll(io.LimitReader(r, MaxDocument+1))
	if err != nil {
		return nil, fmt.Errorf("reading the plan: %w", err)
	}
	if len(raw) > MaxDocument {
		var bad invalid.Errors
		bad.Add("(document)", "The plan is larger than 1 MB; a plan takes a few kB.")
		return nil, bad
	}
	return raw, nil
}

// decodeStrictly reads one JSON document into v and refuses unknown fields and
// trailing text.
func decodeStrictly(raw []byte, v any) error {
	d := json.NewDecoder(bytes.NewReader(raw))
	d.DisallowUnknownFields()
	if err := d.Decode(v); err != nil {
		return unreadable(err)
	}
	if _, err := d.Token(); err != io.EOF {
		var bad invalid.Errors
		bad.Add("(document)", "Not valid JSON: something stands behind the plan.")
		return bad
	}
	return nil
}

var unknownField = regexp.MustCompile(`unknown field "(.*)"`)

// unreadable turns a decoding error into a refusal that names the place.
func unreadable(err error) invalid.Errors {
	var bad invalid.Errors
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	switch {
	case errors.As(err, &kind):
		bad.Add(orDocument(kind.Field), "A %s stands where a %s belongs.", kind.Value, kind.Type)
	case errors.Is(err, io.ErrUnexpectedEOF), errors.Is(err, io.EOF):
		bad.Add("(document)", "Not valid JSON: it ends too early.")
	case errors.As(err, &syntax):
		bad.Add("(document)", "Not valid JSON at byte %d: %s.", syntax.Offset, syntax.Error())
	default:
		if m := unknownField.FindStringSubmatch(err.Error()); m != nil {
			bad.Add(orDocument(m[1]), "A plan has no field named %q; check its spelling.", m[1])
		} else {
			bad.Add("(document)", "Not a plan: %s.", err)
		}
	}
	return bad
}

func orDocument(path string) string {
	if path == "" {
		return "(document)"
	}
	return path
}
