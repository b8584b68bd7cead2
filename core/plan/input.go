// Package plan ties the core together: a plan's input document goes in, and the
// parted head, the counts, the order, the work and the hours come out.
//
// The input document is what is stored and exchanged. It carries the version of
// its schema; [Decode] reads any version it knows. Lengths are mm, mass g, money
// minor units of the studio's currency.
package plan

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"regexp"
	"unicode/utf8"

	"kladotex/core/attach"
	"kladotex/core/invalid"
	"kladotex/core/parting"
	"kladotex/core/pieces"
	"kladotex/core/scalp"
)

// Schema is the version of the input document this package writes.
const Schema = 3

// MaxDocument is the size in bytes above which an input document is refused.
const MaxDocument = 1 << 20

// MinHair and MaxHair bound the length of own hair that is planned for, mm, stretched:
// from what a loop just holds to below the hip.
const MinHair, MaxHair = 10.0, 1500.0

// maxLine is the length of a piece's name in letters.
const maxLine = 80

// maxPrice of one offer, minor units: far above any pack, far below overflow.
const maxPrice = 1_000_000

// Input is a plan: the head, the hair, the wish. It is a complete document; no
// field has a silent default.
type Input struct {
	Schema int         `json:"schema" doc:"Version of this document's schema" minimum:"1"`
	Head   scalp.Tapes `json:"head"`
	// Hairline is how it departs from the usual one.
	Hairline scalp.Hairline   `json:"hairline"`
	Hair     Hair             `json:"hair"`
	Parting  parting.Settings `json:"parting"`
	Piece    Piece            `json:"piece"`
	Spares   pieces.Spares    `json:"spares"`
	Wrap     WrappingHair     `json:"wrap"`
	Attach   Attachment       `json:"attach"`
	OwnHead  bool             `json:"ownHead" doc:"True when you do your own head"`
}

// Hair is the client's own hair.
type Hair struct {
	Length  float64 `json:"lengthMm" doc:"Length when stretched, mm"`
	Density float64 `json:"densityPerCm2" doc:"Hairs per square centimetre"`
	Strand  float64 `json:"strandUm" doc:"Diameter of one hair, micrometres"`
	Tender  bool    `json:"tenderScalp"`
}

// Piece is the piece to hang, and how it is sold.
type Piece struct {
	Line       string         `json:"line" maxLength:"80" doc:"What the supplier calls it"`
	Form       pieces.Form    `json:"form" enum:"looped-twist,looped-loc,bulk"`
	Length     float64        `json:"lengthMm" doc:"Hanging length, mm"`
	Diameter   float64        `json:"diameterMm"`
	Mass       float64        `json:"massG" doc:"Mass of one piece, g"`
	PerSection PerSection     `json:"perSection"`
	Pack       pieces.Pack    `json:"pack"`
	Offers     []pieces.Offer `json:"offers" minItems:"1" maxItems:"8"`
}

// PerSection is the number of pieces on each section.
type PerSection struct {
	Front int `json:"front"`
	Back  int `json:"back"`
}

// WrappingHair is the hair wound over the plaits by methods that wrap.
type WrappingHair struct {
	StrandLength float64 `json:"strandLengthMm" doc:"Length of one strand as wound, mm"`
	Ribbon       float64 `json:"ribbonMm" doc:"Visible width of one turn, mm"`
	Tail         float64 `json:"tailMm" doc:"Tail laid along the base, mm"`
	Strands      int     `json:"strandsPerPack"`
	PackMass     float64 `json:"packMassG" doc:"Mass of one pack, g"`
	Price        int64   `json:"priceMinor" doc:"Price of one pack, minor units"`
}

// Attachment is the method and what may be set of it.
type Attachment struct {
	Method attach.ID `json:"method" enum:"L1,W2,T2"`
	Pitch  float64   `json:"pitchMm" doc:"Distance between passes of a weaving method, mm"`
}

// Default is the plan a newcomer starts from: an average head in brick at one
// inch, soft locs hitched and woven.
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
		Schema:  Schema,
		Head:    average,
		Hair:    Hair{Length: 6 * inch, Density: 190, Strand: 75},
		Parting: parting.Plain(wish, wish),
		Piece: Piece{
			Line: "Pre-looped loc", Form: pieces.Loc, Length: 18 * inch, Diameter: 9, Mass: 4,
			PerSection: PerSection{Front: 1, Back: 1},
			Pack:       pieces.Pack{Units: 20, Cuts: 1, Splits: 1},
			Offers:     []pieces.Offer{{Packs: 1, Price: 1250}},
		},
		Spares: pieces.Spares{Percent: 5, Least: 2},
		Wrap:   WrappingHair{StrandLength: 610, Ribbon: 6, Tail: 2.5 * inch, Strands: 60, PackMass: 100, Price: 600},
		Attach: Attachment{Method: attach.HitchAndWeave, Pitch: 2 * inch},
	}
}

// check refuses what the packages that use a field do not check themselves.
func (in Input) check() invalid.Errors {
	var bad invalid.Errors
	if in.Schema != Schema {
		bad.Add("schema", "This plan is of version %d; this program reads versions up to %d. A newer Kladotex will open it.", in.Schema, Schema)
	}
	count := func(path, label string, v, low, high int) {
		bad.Number(path, label, float64(v), float64(low), float64(high), "")
	}
	price := func(path string, v int64) {
		if v < 0 || v > maxPrice {
			bad.Add(path, "A price must be between 0 and %d.%02d; it is %.2f.", maxPrice/100, maxPrice%100, float64(v)/100)
		}
	}
	bad.Length("hair.lengthMm", "Own hair length", in.Hair.Length, MinHair, MaxHair)
	bad.Number("hair.densityPerCm2", "Hair density", in.Hair.Density, 40, 400, " hairs per cm²")
	bad.Number("hair.strandUm", "Strand diameter", in.Hair.Strand, 30, 150, " µm")

	if n := utf8.RuneCountInString(in.Piece.Line); n > maxLine {
		bad.Add("piece.line", "The piece's name has %d letters; up to %d are kept.", n, maxLine)
	}
	switch in.Piece.Form {
	case pieces.Twist, pieces.Loc, pieces.Bulk:
	default:
		bad.Add("piece.form", "The piece's form must be looped-twist, looped-loc or bulk; it is %q.", in.Piece.Form)
	}
	bad.Length("piece.lengthMm", "Piece length", in.Piece.Length, 75, 1300)
	bad.Number("piece.diameterMm", "Piece thickness", in.Piece.Diameter, 2, 30, " mm")
	bad.Number("piece.massG", "Piece mass", in.Piece.Mass, 0.2, 60, " g")
	count("piece.perSection.front", "Pieces per section in front", in.Piece.PerSection.Front, 1, 6)
	count("piece.perSection.back", "Pieces per section behind", in.Piece.PerSection.Back, 1, 6)
	count("piece.pack.units", "Pieces in a pack", in.Piece.Pack.Units, 1, 500)
	count("piece.pack.cuts", "Lengths cut from a strand", in.Piece.Pack.Cuts, 1, 10)
	count("piece.pack.splits", "Units split from a length", in.Piece.Pack.Splits, 1, 10)
	count("piece.offers", "The number of offers", len(in.Piece.Offers), 1, 8)
	for i, o := range in.Piece.Offers {
		path := fmt.Sprintf("piece.offers[%d]", i)
		count(path+".packs", "Packs in the offer", o.Packs, 1, 50)
		price(path+".priceMinor", o.Price)
	}
	bad.Number("spares.percent", "Spares", in.Spares.Percent, 0, 100, " %")
	count("spares.least", "Spares at least", in.Spares.Least, 0, 200)

	bad.Length("wrap.strandLengthMm", "Wrapping strand", in.Wrap.StrandLength, 150, 2000)
	bad.Number("wrap.ribbonMm", "Width of a turn", in.Wrap.Ribbon, 2, 25, " mm")
	bad.Length("wrap.tailMm", "Tail of the wrapping hair", in.Wrap.Tail, 0, 150)
	count("wrap.strandsPerPack", "Strands in a pack of wrapping hair", in.Wrap.Strands, 1, 1000)
	bad.Number("wrap.packMassG", "Pack mass of wrapping hair", in.Wrap.PackMass, 1, 1000, " g")
	price("wrap.priceMinor", in.Wrap.Price)

	if _, ok := attach.Lookup(in.Attach.Method); !ok {
		bad.Add("attach.method", "The method must be one of %v; it is %q.", attach.IDs, in.Attach.Method)
	}
	bad.Length("attach.pitchMm", "Distance between passes", in.Attach.Pitch, 10, 150)
	return bad
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
	if raw, err = upgrade(raw, *head.Schema); err != nil {
		return Input{}, err
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
