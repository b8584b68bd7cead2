// Package parting divides the hair-bearing scalp into zones, rows and sections, and
// lays cornrows and nets where a head carries no individual plaits.
//
// A zone is a patch of scalp between four boundary curves. Rows run between its
// bottom and its top rail; sections follow one another along a row. Positions
// along a row are given as σ, the share (0..1) of the row's length, measured
// along the scalp from the row's start; so equal steps of σ are equal widths
// wherever in the row they are taken, and a part end keeps one σ on the line
// that two rows share.
//
// Every zone is laid as if it were on the client's left; one on the right is laid
// in a mirror. Where no part keeps left and right apart, a zone is central: it
// has a left half, its rows go on into their mirror image, and a section may lie
// across the middle.
//
// A head is parted in stages, which leave what they are given as it is and make
// new values: the frame of zones, their rows, lines moved by hand, sections, sections
// changed by hand, the base, and at last the reading that sums up and looks it over.
//
// Lengths are mm, areas mm². Layouts are deterministic.
package parting

import (
	"strings"

	_ "embed"
	"encoding/json"
	"math"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/advice"
	"kladotex/core/scalp"
)

// Zone is one region of the head. A name of two letters ends in its side, L or R;
// one of a single letter is central.
type Zone string

// The zones of individuals.
const (
	BackLeft   Zone = "BL"
	BackRight  Zone = "BR"
	Back       Zone = "B"
	FrontLeft  Zone = "FL"
	FrontRight Zone = "FR"
	Front      Zone = "F"
	Rings      Zone = "R"  // levels
	Hairline   Zone = "H"  // the ring of a perimeter or a net cap
	PeakRow    Zone = "W"  // its second row at the widow's peak
	PartLeft   Zone = "PL" // along the part line
	PartRight  Zone = "PR"
	NapeLeft   Zone = "NL" // nape guard
	NapeRight  Zone = "NR"
	Nape       Zone = "N"
)

// The zones of a base.
const (
	CornrowsBehind Zone = "T"
	CornrowsTop    Zone = "C" // in front, inside a perimeter
	SideLeft       Zone = "SL"
	SideRight      Zone = "SR"
	DesignLeft     Zone = "DL"
	DesignRight    Zone = "DR"
	DesignAcross   Zone = "D"
)

//go:embed zones.json
var zonesFile []byte

// zoneNames are the zones as people speak of them; the screen reads the same file.
var zoneNames = func() (names map[Zone]string) {
	if err := json.Unmarshal(zonesFile, &names); err != nil {
		panic("parting: zones.json: " + err.Error())
	}
	return names
}()

// Name is the zone as people speak of it.
func (z Zone) Name() string { return zoneNames[z] }

// Sideless is the zone's name without its side.
func (z Zone) Sideless() string {
	name := strings.TrimSuffix(strings.TrimSuffix(z.Name(), " left"), " right")
	return strings.TrimPrefix(strings.TrimPrefix(name, "Left "), "Right ")
}

// CornrowName names a cornrow by its id, its zone with or without a side: "Cornrow 3 on top", "Left side, cornrow 1".
func CornrowName(zone, id string) string {
	number := strings.TrimLeft(id, "ABCDEFGHIJKLMNOPQRSTUVWXYZ")
	if rest, all := strings.CutPrefix(zone, "Cornrows"); all {
		return "Cornrow " + number + rest
	}
	return zone + ", cornrow " + number
}

// Side is the side of the part that the zone lies on: 1 left, -1 right, 0 in the middle.
func (z Zone) Side() float64 {
	switch {
	case len(z) > 1 && strings.HasSuffix(string(z), "L"):
		return 1
	case len(z) > 1 && strings.HasSuffix(string(z), "R"):
		return -1
	}
	return 0
}

// Central tells whether the zone reaches over both sides.
func (z Zone) Central() bool { return len(z) == 1 }

// Spread is the least, mean and greatest of a length, mm.
type Spread struct {
	Min  float64 `json:"min"`
	Mean float64 `json:"mean"`
	Max  float64 `json:"max"`
}

// Section is one box of scalp whose hair makes one plait.
type Section struct {
	// ID is zone, row and place, such as "BL3.2": stable for given settings.
	ID string `json:"id"`
	// Zone, Row (1 at the bottom rail) and Index (1 at the row's start) say
	// where the section lies. Front rows start at the hairline, back rows at
	// the middle part; rows of a central zone are counted from left to right,
	// rings from the front centre by the left round to it again.
	Zone  Zone `json:"zone"`
	Row   int  `json:"row"`
	Index int  `json:"index"`
	// Front is true where the pieces of the front hang.
	Front bool `json:"front"`
	// Linked is true when its plait is laid into the next one behind it: that of
	// the section Into, or of none at the end of the chain.
	Linked bool   `json:"linked,omitempty"`
	Into   string `json:"into,omitempty"`
	// Laid is true when its plait is hooked plainly and laid back into the base.
	Laid bool `json:"laid,omitempty"`
	// Outline is the section's edge on the scalp, counter-clockwise seen from
	// outside, the first point not repeated.
	Outline scalp.Line `json:"outline"`
	Area    float64    `json:"areaMm2"`
	// Share is the area ÷ that of the section wished for in its row.
	Share float64 `json:"share"`
	// Width is measured along the row, Height across it.
	Width  Spread `json:"widthMm"`
	Height Spread `json:"heightMm"`
	// Compact is the area ÷ that of the smallest rectangle round it: 1 for a true box,
	// little for a needle.
	Compact  float64     `json:"compactness"`
	Centroid scalp.Point `json:"centroid"`
	// Normal is the outward unit normal at the centroid.
	Normal scalp.Point `json:"normal"`
	// Hairline and Part are the distances along the scalp from the centroid to
	// the nearest hairline and to the part line, or to the middle where there is
	// none.
	Hairline float64 `json:"hairlineMm"`
	Part     float64 `json:"partMm"`
	// Stagger is the least distance of its part ends from those of the adjoining
	// rows, in mean section widths; 1 where it has none to compare.
	Stagger float64 `json:"stagger"`
	// Seen is true where the parts show, at the hairline and along the part
	// line, and so are drawn neatest.
	Seen bool `json:"seen"`
	// Locked is true for one that further changes leave alone.
	Locked bool `json:"locked,omitempty"`
	// Edited is true for one whose shape was changed by hand.
	Edited bool `json:"edited,omitempty"`
	// Neighbours are the ids of the sections that share an edge with this one,
	// across zone borders too.
	Neighbours []string `json:"neighbours"`
	// along is the direction of the row at the centroid.
	along r3.Vec
}

// Row is one band of sections of a zone.
type Row struct {
	Zone     Zone `json:"zone"`
	Row      int  `json:"row"`
	Sections int  `json:"sections"`
	// Length is measured along the middle of the row, mm: the whole row, both
	// sides of a central one.
	Length float64 `json:"lengthMm"`
	// Size is the section wished for in this row.
	Size Size `json:"size"`
	// Middle says what lies on the middle of a central row at its start.
	Middle string `json:"middle" enum:"border,section,part" doc:"What a row that crosses the middle of the head has there"`
	// Lower and Upper are the row's two lines, for parting it by measure.
	Lower RowLine `json:"lower"`
	Upper RowLine `json:"upper"`
	// Below are the part ends of the row below on the lower line, mm from its start, rising;
	// those on the middle of the head among them.
	Below []float64 `json:"belowMm"`
	// Line is the line between this row and the next above, the left half of a
	// central one; the topmost row has none.
	Line scalp.Line `json:"line"`
	// End is where a number at the row's end stands.
	End scalp.Point `json:"end"`
	// Seen is true where at least half of its sections show: its parts are drawn
	// neatly, others may be quick.
	Seen bool `json:"seen"`
	// Edited is true where sections of the row were merged, split or left out by
	// hand, so that its parts are not only those of the lines.
	Edited bool `json:"edited,omitempty"`
}

// RowLine is a line along a row with the part ends on it. Front rows are measured
// from the hairline back, back rows from the middle part outward, rows of a central
// zone from the middle outward, alike on both sides.
type RowLine struct {
	// Start is how much further on than the row the line starts, mm: more than 0 where the
	// row starts on a slanting hairline.
	Start float64 `json:"startMm"`
	// Length of the line along the scalp, mm; of a central row, that of a half.
	Length float64 `json:"lengthMm"`
	// Parts are the distances of the part ends from the line's start, mm, rising. First is how
	// many parts of the row before them end on the hairline and do not come to this line.
	Parts []float64 `json:"partsMm"`
	First int       `json:"firstPart"`
}

// Off is how far part k of the lower line stands from the nearest of the row below, mm,
// positive further from the line's start; ok is false where none stands within a section.
func (r *Row) Off(k int) (mm float64, ok bool) {
	if len(r.Below) == 0 {
		return 0, false
	}
	at := r.Lower.Parts[k]
	mm = at - nearest(r.Below, at)
	return mm, math.Abs(mm) <= r.Size.Width
}

// Round makes the lengths (mm), areas (mm²) and shares of every section and row ones
// of few digits, a hundredth of a millimetre fine: they are most of the numbers of a
// layout on its way to a screen, and seventeen digits would say more than a comb can.
func (l *Layout) Round() {
	round := func(digits float64, values ...*float64) {
		for _, v := range values {
			*v = math.Round(*v*digits) / digits
		}
	}
	for i := range l.Sections {
		x := &l.Sections[i]
		round(100, &x.Area, &x.Hairline, &x.Part, &x.Width.Min, &x.Width.Mean, &x.Width.Max, &x.Height.Min, &x.Height.Mean, &x.Height.Max)
		round(1e4, &x.Share, &x.Stagger, &x.Compact)
	}
	for i := range l.Rows {
		r := &l.Rows[i]
		round(100, &r.Length, &r.Size.Width, &r.Size.Height)
		for k := range r.Below {
			round(100, &r.Below[k])
		}
		for _, line := range []*RowLine{&r.Lower, &r.Upper} {
			round(100, &line.Length, &line.Start)
			for k := range line.Parts {
				round(100, &line.Parts[k])
			}
		}
	}
}

// ZoneSum sums a zone up.
type ZoneSum struct {
	Zone     Zone    `json:"zone"`
	Rows     int     `json:"rows"`
	Sections int     `json:"sections"`
	Area     float64 `json:"areaMm2"`
	// Width and Height spread over the zone's sections.
	Width  Spread `json:"widthMm"`
	Height Spread `json:"heightMm"`
}

// Cornrow is one plait worked flat along the scalp.
type Cornrow struct {
	// ID is zone and number, such as "T4".
	ID   string `json:"id"`
	Zone Zone   `json:"zone"`
	// Line is the way of its middle, from where the plait begins; Length is its
	// length, mm.
	Line   scalp.Line `json:"line"`
	Length float64    `json:"lengthMm"`
	// Outlines is the scalp whose hair it takes, one as a rule; a merged cornrow takes
	// that of those it is made of and has none.
	Outlines []scalp.Line `json:"outlines"`
	Area     float64      `json:"areaMm2"`
	// Width is the mean width of that scalp, mm; of a merged one, of all of them.
	Width float64 `json:"widthMm"`
	// Into is the id of the cornrow it runs into: one it merges with, or whose
	// plait takes up its tail. Empty leaves a tail to tuck or stitch.
	Into string `json:"into,omitempty"`
	// Merged is true where it ends in another cornrow, or begins from several.
	Merged bool `json:"merged,omitempty"`
	// Hooks are where pieces are hooked on. Fed is true where the last of them is its end, from
	// which it goes on as a braid of the hair that was fed in.
	Hooks scalp.Line `json:"hooks"`
	Fed   bool       `json:"fed,omitempty"`
}

// OfDesign tells whether it is one of the decorative cornrows of a front design.
func (c *Cornrow) OfDesign() bool { return string(c.Zone[:1]) == designKey }

// NetArea is a stretch of weaving net over flat plaits.
type NetArea struct {
	Zone     Zone         `json:"zone"`
	Outlines []scalp.Line `json:"outlines"`
	Area     float64      `json:"areaMm2"`
	Hooks    scalp.Line   `json:"hooks"`
	// Plaits are the small plaits it lies on; none over cornrows.
	Plaits scalp.Line `json:"plaits,omitempty"`
}

// Seam is a line of a grid at which the number of columns changes.
type Seam struct {
	Zone Zone `json:"zone"`
	// BelowRow is the row under the seam; the next one lies above it.
	BelowRow int `json:"belowRow"`
	// Below and Above are the column counts on either side.
	Below int `json:"below"`
	Above int `json:"above"`
}

// Channel is a run of part lines that stand in line through three or more rows,
// so that bare scalp shows when the hair moves.
type Channel struct {
	Zone    Zone `json:"zone"`
	FromRow int  `json:"fromRow"`
	ToRow   int  `json:"toRow"`
	// Length along the scalp, mm.
	Length float64    `json:"lengthMm"`
	Line   scalp.Line `json:"line"`
	// Sections are the ids of those along the channel's start side.
	Sections []string `json:"sections"`
}

// Stagger says how far part ends stand from those of the adjoining row, as a
// share of the mean section width there: 0.5 is a perfect brick, 0 a grid.
type Stagger struct {
	Min  float64 `json:"min"`
	Mean float64 `json:"mean"`
}

// Balance compares left and right in one part of the head.
type Balance struct {
	Place string `json:"place" enum:"front,back"`
	Left  Half   `json:"left"`
	Right Half   `json:"right"`
	// Middle counts what lies across the middle.
	Middle Half `json:"middle"`
}

// Half is one side of a [Balance].
type Half struct {
	Sections int     `json:"sections"`
	Area     float64 `json:"areaMm2"`
}

// RejectedEdit is a change by hand that the layout could not take.
type RejectedEdit struct {
	// Edit is its place in the list, from 0.
	Edit    int       `json:"edit"`
	At      Direction `json:"at"`
	Message string    `json:"message"`
}

// Layout is a parted head.
type Layout struct {
	Sections []Section `json:"sections"`
	// LeftOut are sections no plait is made of: inside a spot, or left out by
	// hand.
	LeftOut  []Section `json:"leftOut"`
	Rows     []Row     `json:"rows"`
	Zones    []ZoneSum `json:"zones"`
	Cornrows []Cornrow `json:"tracks"`
	Nets     []NetArea `json:"nets"`
	// Area is that of all sections together, BaseArea that of cornrows and nets,
	// OutArea that of what is left out.
	Area     float64   `json:"areaMm2"`
	BaseArea float64   `json:"baseAreaMm2"`
	OutArea  float64   `json:"outAreaMm2"`
	Seams    []Seam    `json:"seams"`
	Channels []Channel `json:"channels"`
	// Stagger is that of the zones whose parts shall stand off, brick and
	// free-hand.
	Stagger  Stagger        `json:"stagger"`
	Balance  []Balance      `json:"balance"`
	Rejected []RejectedEdit `json:"rejectedEdits"`
	// Notices are passed on by the plan, together with its own.
	Notices []advice.Notice `json:"-"`
	// HairlineCurve is closed; PartLine runs from the front back and is empty
	// where there is none, EarToEar from left to right over the crown, and is
	// empty for levels.
	HairlineCurve scalp.Line `json:"hairline"`
	// Border is where sections start inside edges left out, point for point beside
	// the hairline; empty where none are.
	Border   scalp.Line `json:"border"`
	PartLine scalp.Line `json:"partLine"`
	EarToEar scalp.Line `json:"earToEar"`
	// Spacing is how far apart pieces are hooked on the base where no rule says otherwise, mm.
	Spacing float64 `json:"spacingMm"`
	base    carriers
}
