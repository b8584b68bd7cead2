// Package parting divides the hair-bearing scalp into zones, rows and sections.
//
// A zone is a patch of scalp between four boundary curves. Rows run between its
// bottom and its top rail; sections follow one another along a row. Positions
// along a row are given as σ, the share (0..1) of the row's length, measured
// along the scalp from the row's start; so equal steps of σ are equal widths
// wherever in the row they are taken, and a part end keeps one σ on the line
// that two rows share.
//
// Lengths are mm, areas mm². Layouts are deterministic.
package parting

import (
	"slices"

	"kladotex/core/invalid"
	"kladotex/core/scalp"
)

// Pattern says how a zone's parts stand to each other.
type Pattern string

// The patterns.
const (
	// Grid lines the parts of neighbouring rows up.
	Grid Pattern = "grid"
	// Brick sets each section over the part between two of the next row.
	Brick Pattern = "brick"
	// Triangle cuts each row by a zigzag: no part line is straight.
	Triangle Pattern = "triangle"
	// FreeHand is a brick drawn irregularly, as without a comb. It is the same
	// each time.
	FreeHand Pattern = "free-hand"
)

// patterns are all patterns.
var patterns = []Pattern{Grid, Brick, Triangle, FreeHand}

// Size is the wished width (along the row) and height (across it) of a section.
type Size struct {
	Width  float64 `json:"widthMm" doc:"Section width along the row, mm"`
	Height float64 `json:"heightMm" doc:"Section height across the row, mm"`
}

// Wish is how one zone, left and right, is to be parted.
type Wish struct {
	Pattern Pattern `json:"pattern" enum:"grid,brick,triangle,free-hand" doc:"How parts of neighbouring rows stand to each other"`
	Size
	// Ramp lets sections grow from row to row.
	Ramp float64 `json:"ramp" doc:"Size of the sections farthest from the hairline below ÷ size at that hairline; 1 keeps one size"`
}

// Settings are the wishes a layout follows.
type Settings struct {
	Front Wish `json:"front" doc:"Sections in front of the ear-to-ear part"`
	Back  Wish `json:"back" doc:"Sections behind the ear-to-ear part"`
}

// Pattern names the pattern, or both where front and back differ.
func (s Settings) Pattern() string {
	if s.Front.Pattern == s.Back.Pattern {
		return string(s.Front.Pattern)
	}
	return string(s.Front.Pattern) + " in front, " + string(s.Back.Pattern) + " behind"
}

// Limits of a layout.
const (
	// MinSize and MaxSize bound a section's width and height, mm: from about
	// 3/16 in, below which a hook no longer passes, to 3 in.
	MinSize, MaxSize = 5.0, 76.2
	// MaxSections bounds a layout; a head with more is a mistyped size.
	MaxSections = 2000
	// MinRamp and MaxRamp bound how much sections shrink or grow over a zone.
	MinRamp, MaxRamp = 0.5, 2.0
)

// Zone is one quadrant of the head.
type Zone string

// The zones, in working order: from the back bottom corner, the front last.
const (
	BackLeft   Zone = "BL"
	BackRight  Zone = "BR"
	FrontLeft  Zone = "FL"
	FrontRight Zone = "FR"
)

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
	// the middle part.
	Zone  Zone `json:"zone"`
	Row   int  `json:"row"`
	Index int  `json:"index"`
	// Outline is the section's edge on the scalp, counter-clockwise seen from
	// outside, the first point not repeated.
	Outline scalp.Line `json:"outline"`
	Area    float64    `json:"areaMm2"`
	// Share is the area ÷ that of the section wished for in its row.
	Share    float64     `json:"share"`
	Width    Spread      `json:"widthMm"`
	Height   Spread      `json:"heightMm"`
	Centroid scalp.Point `json:"centroid"`
	// Normal is the outward unit normal at the centroid.
	Normal scalp.Point `json:"normal"`
	// Hairline and Part are the distances along the scalp from the centroid to
	// the nearest hairline and to the middle part.
	Hairline float64 `json:"hairlineMm"`
	Part     float64 `json:"partMm"`
	// Seen is true where the parts show, at the hairline and along the part line in
	// front, and so are drawn neatest.
	Seen bool `json:"seen"`
	// Neighbours are the ids of the sections that share an edge with this one,
	// across zone borders too.
	Neighbours []string `json:"neighbours"`
}

// Row is one band of sections of a zone.
type Row struct {
	Zone     Zone `json:"zone"`
	Row      int  `json:"row"`
	Sections int  `json:"sections"`
	// Length is measured along the middle of the row, mm.
	Length float64 `json:"lengthMm"`
	// Size is the section wished for in this row.
	Size Size `json:"size"`
	// Lower and Upper are the row's two lines, for parting it by measure.
	Lower RowLine `json:"lower"`
	Upper RowLine `json:"upper"`
}

// RowLine is a line along a row with the part ends on it. Front rows are measured
// from the hairline back, back rows from the middle part outward.
type RowLine struct {
	// Length of the line along the scalp, mm.
	Length float64 `json:"lengthMm"`
	// Parts are the distances of the part ends from the line's start, mm, rising.
	Parts []float64 `json:"partsMm"`
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

// WarningKind names what a warning is about.
type WarningKind string

// The kinds of warning.
const (
	// Sliver: a section too small to carry a piece without pulling.
	Sliver WarningKind = "sliver"
	// Oversize: a section half as large again as wished.
	Oversize WarningKind = "oversize"
	// WeakStagger: a brick part end less than a quarter section from the next.
	WeakStagger WarningKind = "weak-stagger"
	// BareChannel: parts in line behind the crown.
	BareChannel WarningKind = "channel-behind-crown"
)

// Warning is something to look at before the first part is drawn.
type Warning struct {
	Kind     WarningKind `json:"kind"`
	Message  string      `json:"message"`
	Sections []string    `json:"sections" doc:"Ids of the sections it is about"`
}

// Layout is a parted head.
type Layout struct {
	Sections []Section `json:"sections"`
	Rows     []Row     `json:"rows"`
	Zones    []ZoneSum `json:"zones"`
	// Area is that of all sections together: the hair-bearing scalp.
	Area     float64   `json:"areaMm2"`
	Seams    []Seam    `json:"seams"`
	Channels []Channel `json:"channels"`
	// Stagger is that of the zones whose parts shall stand off, brick and
	// free-hand.
	Stagger Stagger `json:"stagger"`
	// Warnings are passed on by the plan, together with those of the method.
	Warnings []Warning `json:"-"`
	// HairlineCurve is closed; MiddlePart runs from the front centre to the
	// nape, EarToEar from left to right over the crown.
	HairlineCurve scalp.Line `json:"hairline"`
	MiddlePart    scalp.Line `json:"middlePart"`
	EarToEar      scalp.Line `json:"earToEar"`
}

// Check refuses settings that are no layout, as [invalid.Errors] with paths
// relative to s.
func (s Settings) Check() error {
	var bad invalid.Errors
	for _, z := range []struct {
		path, label string
		wish        Wish
	}{{"front", "in front", s.Front}, {"back", "behind", s.Back}} {
		if !slices.Contains(patterns, z.wish.Pattern) {
			bad.Add(z.path+".pattern", "The pattern %s must be one of %v; it is %q.", z.label, patterns, z.wish.Pattern)
		}
		bad.Length(z.path+".widthMm", "Section width "+z.label, z.wish.Width, MinSize, MaxSize)
		bad.Length(z.path+".heightMm", "Section height "+z.label, z.wish.Height, MinSize, MaxSize)
		bad.Number(z.path+".ramp", "The growth of sections "+z.label, z.wish.Ramp, MinRamp, MaxRamp, " times")
	}
	return bad.Err()
}
