package plan

import (
	"fmt"
	"strconv"
	"strings"

	"kladotex/core/attach"
)

// Unit says how a changed value is written for a person.
type Unit string

// The units of changes.
const (
	Length  Unit = "mm"    // a length, shown in the reader's own unit
	Percent Unit = "%"     // a percentage
	Money   Unit = "minor" // money, minor units
	Grams   Unit = "g"
	Plain   Unit = "" // a number or a word as it stands
)

// Change is one field that differs between two inputs.
type Change struct {
	// Path is the field's JSON path in the document.
	Path  string `json:"path"`
	Label string `json:"label" doc:"The field in the trade's words"`
	Unit  Unit   `json:"unit" enum:"mm,%,minor,g," doc:"How From and To are to be read"`
	From  string `json:"from"`
	To    string `json:"to"`
}

// field is a field of the document as people speak of it.
type field struct {
	path, label string
	unit        Unit
	text        func(Input) string
}

func number(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

func yesNo(v bool) string {
	if v {
		return "yes"
	}
	return "no"
}

// fields are all fields of the document, in reading order.
var fields = []field{
	{"head.circumferenceMm", "Around the head", Length, func(in Input) string { return number(in.Head.Circumference) }},
	{"head.frontToNapeMm", "Front to nape", Length, func(in Input) string { return number(in.Head.FrontToNape) }},
	{"head.earToEarMm", "Ear to ear", Length, func(in Input) string { return number(in.Head.EarToEar) }},
	{"head.hairBulkMm", "Hair under the tape", Length, func(in Input) string { return number(in.Head.HairBulk) }},
	{"head.ratio", "Head width ÷ length", Plain, func(in Input) string { return number(in.Head.Ratio) }},
	{"hair.lengthMm", "Own hair length", Length, func(in Input) string { return number(in.Hair.Length) }},
	{"hair.densityPerCm2", "Hair density", Plain, func(in Input) string { return number(in.Hair.Density) }},
	{"hair.strandUm", "Strand", Plain, func(in Input) string { return number(in.Hair.Strand) }},
	{"hair.tenderScalp", "Tender scalp", Plain, func(in Input) string { return yesNo(in.Hair.Tender) }},
	{"ownHead", "Her own hands do it", Plain, func(in Input) string { return yesNo(in.OwnHead) }},
	{"parting.front.pattern", "Front pattern", Plain, func(in Input) string { return string(in.Parting.Front.Pattern) }},
	{"parting.front.widthMm", "Front section width", Length, func(in Input) string { return number(in.Parting.Front.Width) }},
	{"parting.front.heightMm", "Front section height", Length, func(in Input) string { return number(in.Parting.Front.Height) }},
	{"parting.front.ramp", "Front sections grow to, times", Plain, func(in Input) string { return number(in.Parting.Front.Ramp) }},
	{"parting.back.pattern", "Back pattern", Plain, func(in Input) string { return string(in.Parting.Back.Pattern) }},
	{"parting.back.widthMm", "Back section width", Length, func(in Input) string { return number(in.Parting.Back.Width) }},
	{"parting.back.heightMm", "Back section height", Length, func(in Input) string { return number(in.Parting.Back.Height) }},
	{"parting.back.ramp", "Back sections grow to, times", Plain, func(in Input) string { return number(in.Parting.Back.Ramp) }},
	{"piece.line", "Piece", Plain, func(in Input) string { return in.Piece.Line }},
	{"piece.form", "Form of the piece", Plain, func(in Input) string { return string(in.Piece.Form) }},
	{"piece.lengthMm", "Piece length", Length, func(in Input) string { return number(in.Piece.Length) }},
	{"piece.diameterMm", "Piece thickness in mm", Plain, func(in Input) string { return number(in.Piece.Diameter) }},
	{"piece.massG", "Weight of a piece", Grams, func(in Input) string { return number(in.Piece.Mass) }},
	{"piece.perSection.front", "Pieces on a front section", Plain, func(in Input) string { return strconv.Itoa(in.Piece.PerSection.Front) }},
	{"piece.perSection.back", "Pieces on a back section", Plain, func(in Input) string { return strconv.Itoa(in.Piece.PerSection.Back) }},
	{"piece.pack.units", "Pieces in a pack", Plain, func(in Input) string { return strconv.Itoa(in.Piece.Pack.Units) }},
	{"piece.pack.cuts", "Lengths cut from a strand", Plain, func(in Input) string { return strconv.Itoa(in.Piece.Pack.Cuts) }},
	{"piece.pack.splits", "Units split from a length", Plain, func(in Input) string { return strconv.Itoa(in.Piece.Pack.Splits) }},
	{"spares.percent", "Spares", Percent, func(in Input) string { return number(in.Spares.Percent) }},
	{"spares.least", "Spares at least", Plain, func(in Input) string { return strconv.Itoa(in.Spares.Least) }},
	{"wrap.strandLengthMm", "Wrapping strand", Length, func(in Input) string { return number(in.Wrap.StrandLength) }},
	{"wrap.ribbonMm", "Width of a turn in mm", Plain, func(in Input) string { return number(in.Wrap.Ribbon) }},
	{"wrap.tailMm", "Tail of the wrapping hair", Length, func(in Input) string { return number(in.Wrap.Tail) }},
	{"wrap.strandsPerPack", "Strands in a pack of wrapping hair", Plain, func(in Input) string { return strconv.Itoa(in.Wrap.Strands) }},
	{"wrap.packMassG", "Weight of a pack of wrapping hair", Grams, func(in Input) string { return number(in.Wrap.PackMass) }},
	{"wrap.priceMinor", "Price of a pack of wrapping hair", Money, func(in Input) string { return strconv.FormatInt(in.Wrap.Price, 10) }},
	{"attach.method", "Method", Plain, func(in Input) string { return methodName(in) }},
	{"attach.pitchMm", "Distance between passes", Length, func(in Input) string { return number(in.Attach.Pitch) }},
	{"piece.offers", "How packs are sold", Plain, offersText},
}

func methodName(in Input) string {
	m, _ := attach.Lookup(in.Attach.Method)
	return m.Name
}

// offersText writes the offers without a currency, which the document does not
// know.
func offersText(in Input) string {
	parts := make([]string, len(in.Piece.Offers))
	for i, o := range in.Piece.Offers {
		parts[i] = fmt.Sprintf("%d for %d.%02d", o.Packs, o.Price/100, o.Price%100)
	}
	return strings.Join(parts, ", ")
}

// Changes lists the fields in which b differs from a, in reading order.
func Changes(a, b Input) []Change {
	out := []Change{}
	for _, f := range fields {
		if from, to := f.text(a), f.text(b); from != to {
			out = append(out, Change{f.path, f.label, f.unit, from, to})
		}
	}
	return out
}
