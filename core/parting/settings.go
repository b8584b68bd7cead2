package parting

import (
	"fmt"
	"math"
	"slices"

	"kladotex/core/craft"
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

// Patterns are all patterns.
var Patterns = []Pattern{Grid, Brick, Triangle, FreeHand}

// Size is the wished width (along the row) and height (across it) of a section.
type Size struct {
	Width  float64 `json:"widthMm" doc:"Section width along the row, mm"`
	Height float64 `json:"heightMm" doc:"Section height across the row, mm"`
}

// NamedSize is a section size by name and by number: names alone mislead, "medium" is
// used for 40 and for 70 sections.
type NamedSize struct {
	Name string  `json:"name"`
	Size float64 `json:"sizeMm" doc:"Width and height, mm"`
}

// NamedSizes are the sizes seen in practice.
func NamedSizes() []NamedSize {
	const inch = 25.4
	return []NamedSize{
		{"Dense small twists", craft.DenseTwists * inch}, {"Small twists", craft.SmallTwists * inch}, {"Medium twists", craft.MediumTwists * inch},
		{"Medium locs", craft.MediumLocs * inch}, {"Large locs", craft.LargeLocs * inch},
	}
}

// Wish is how one zone, left and right, is to be parted.
type Wish struct {
	Pattern Pattern `json:"pattern" doc:"How parts of neighbouring rows stand to each other"`
	Size
	// Ramp lets sections grow from row to row.
	Ramp float64 `json:"ramp" doc:"Size of the sections farthest from the hairline below ÷ size at that hairline; 1 keeps one size"`
	// Along lets sections grow along their row. Front rows start at the front
	// hairline, back rows at the middle.
	Along float64 `json:"along" doc:"Width of a row's last section ÷ width of its first; 1 keeps one width"`
}

// Structure says where individual plaits stand and where a cheaper base does.
type Structure string

// The structures.
const (
	// AllIndividuals stand all over.
	AllIndividuals Structure = "all"
	// EarToEar: individuals in front of the ear-to-ear part, base behind.
	EarToEar Structure = "ear-to-ear"
	// Perimeter: rows of individuals all round the hairline, base inside.
	Perimeter Structure = "perimeter"
	// Horseshoe: rows of individuals either side of the part line, base beside
	// and behind.
	Horseshoe Structure = "horseshoe"
	// PartLine: a number of individuals either side of the part line, base else.
	PartLine Structure = "part-line"
	// Linked: no loose plaits; each is laid into the next one behind it.
	Linked Structure = "linked"
	// NetCap: hair at the hairline and along the part line in individuals, all
	// else under a weaving net.
	NetCap Structure = "net-cap"
	// FrontDesign: decorative cornrows in front, individuals beside them, base
	// behind.
	FrontDesign Structure = "front-design"
)

// Structures are all structures, the slowest first.
var Structures = []Structure{AllIndividuals, Linked, EarToEar, FrontDesign, Horseshoe, Perimeter, NetCap, PartLine}

// Rule is what a structure takes: the part lines it can have, whether a nape guard
// would be a row of its own, and whether a base is part of it.
type Rule struct {
	Structure Structure  `json:"structure"`
	Parts     []PartKind `json:"parts"`
	NapeGuard bool       `json:"napeGuard"`
	Base      bool       `json:"base"`
	// Start is the base a plan of the structure starts with.
	Start Base `json:"start"`
}

// startBase is the base a plan of a structure starts with: as many cornrows as pieces cover,
// and beside a crescent of individuals more of them, which run together.
func startBase(structure Structure) Base {
	b := Base{Kind: Cornrows, Run: StraightBack, Cornrows: craft.StartCornrows, SideCornrows: craft.StartSideCornrows, Tails: Tucked}
	if structure == Horseshoe {
		b.Cornrows, b.MergeInto, b.MergeAfter, b.MergeSides = craft.StartCrescentCornrows, craft.StartMergeInto, craft.StartMergeAfter, true
	}
	return b
}

// Rules are those of all structures, in the order of [Structures].
func Rules() []Rule {
	rules := make([]Rule, len(Structures))
	for i, structure := range Structures {
		r := Rule{Structure: structure, Parts: []PartKind{MiddlePart, SidePart, DiagonalPart}, Base: true, NapeGuard: true, Start: startBase(structure)}
		switch structure {
		case AllIndividuals, Linked: // rings need the whole head
			r.Parts, r.Base = append(r.Parts, NoPart, Levels), false
			r.NapeGuard = structure == Linked
		case EarToEar:
			r.Parts = append(r.Parts, NoPart)
		case Perimeter, NetCap: // their ring guards the nape
			r.Parts, r.NapeGuard = append(r.Parts, NoPart), false
		}
		rules[i] = r
	}
	return rules
}

// rule is that of the settings' structure.
func (s Settings) rule() Rule {
	rules := Rules()
	if i := slices.IndexFunc(rules, func(r Rule) bool { return r.Structure == s.Structure }); i >= 0 {
		return rules[i]
	}
	return Rule{}
}

// structureNames are the structures as people speak of them.
var structureNames = map[Structure]string{
	AllIndividuals: "all over", EarToEar: "ear to ear", Perimeter: "perimeter", Horseshoe: "horseshoe",
	PartLine: "part line only", Linked: "linked plaits", NetCap: "net cap", FrontDesign: "front design",
}

// Name is the structure as people speak of it.
func (s Structure) Name() string { return structureNames[s] }

// PartKind is the guide a head is parted by.
type PartKind string

// The guides.
const (
	// MiddlePart runs along the middle of the head.
	MiddlePart PartKind = "middle"
	// SidePart runs beside the middle at one distance from it.
	SidePart PartKind = "side"
	// DiagonalPart starts and ends at different distances from the middle.
	DiagonalPart PartKind = "diagonal"
	// NoPart lets front rows run from ear to ear.
	NoPart PartKind = "none"
	// Levels runs rows along the hairline, ring after ring, to a short oval at
	// the top.
	Levels PartKind = "levels"
)

// PartKinds are all guides.
var PartKinds = []PartKind{MiddlePart, SidePart, DiagonalPart, NoPart, Levels}

// Part is the part line and the ear-to-ear part.
type Part struct {
	Kind PartKind `json:"kind" doc:"The guide the head is parted by"`
	// Offset and EndOffset are distances from the middle, left above zero.
	Offset    float64 `json:"offsetMm" doc:"Where a side or diagonal part starts at the hairline: mm from the middle, left above zero"`
	EndOffset float64 `json:"endOffsetMm" doc:"Where a diagonal part ends: mm from the middle, left above zero"`
	// Stop is where the part line ends; rows behind cross the middle, and a
	// section stands directly behind the stop.
	Stop float64 `json:"stopMm" doc:"Where the part line stops: mm from the front hairline along the middle; 0 runs to the nape"`
	// Ear moves the ear-to-ear part.
	Ear float64 `json:"earPartMm" doc:"Where the ear-to-ear part crosses the middle: mm in front of straight over the top; negative is behind"`
}

// BaseKind is what stands where no individuals do.
type BaseKind string

// The bases.
const (
	// Cornrows are plaits worked flat along the scalp.
	Cornrows BaseKind = "tracks"
	// LinkedPlaits are plaits each laid into the next.
	LinkedPlaits BaseKind = "linked"
	// Net is a weaving net over flat plaits, hooked through in a lattice.
	Net BaseKind = "net"
)

// BaseKinds are all bases.
var BaseKinds = []BaseKind{Cornrows, LinkedPlaits, Net}

// Run is the way cornrows go.
type Run string

// The ways.
const (
	// Horizontal runs from side to side.
	Horizontal Run = "horizontal"
	// StraightBack runs from the front down to the nape.
	StraightBack Run = "straight-back"
	// Curved runs as straight back, bent outwards.
	Curved Run = "curved"
)

// Runs are all ways.
var Runs = []Run{Horizontal, StraightBack, Curved}

// Tails is what becomes of the loose ends of cornrows.
type Tails string

// The endings.
const (
	// Tucked tails are hooked under the cornrows.
	Tucked Tails = "tucked"
	// Stitched tails are sewn flat.
	Stitched Tails = "stitched"
	// Chained tails are each braided into the next cornrow, until one is left.
	Chained Tails = "chained"
)

// TailEnds are all endings.
var TailEnds = []Tails{Tucked, Stitched, Chained}

// Base is the cheaper foundation of a structure that has one.
type Base struct {
	Kind BaseKind `json:"kind" doc:"Base"`
	Run  Run      `json:"run" doc:"How cornrows run behind"`
	// Cornrows is the number behind, the whole way across; SideCornrows that on each
	// side in front, where the base reaches there.
	Cornrows     int `json:"tracks" doc:"Cornrows behind: side by side where they run back, one above the other where they run across"`
	SideCornrows int `json:"sideTracks" doc:"Cornrows on each side in front"`
	// MergeInto thin cornrows are left of those behind after MergeAfter mm.
	MergeInto int `json:"mergeInto" doc:"Cornrows that those behind merge into; 0 for none"`
	// MergeSides lets the cornrows of a side in front run together into one half way.
	MergeSides bool    `json:"mergeSides,omitempty" doc:"True for side cornrows that run together into one half way"`
	MergeAfter float64 `json:"mergeAfterMm" doc:"Distance from the start of a cornrow at which it merges, mm"`
	Tails      Tails   `json:"tails" doc:"What becomes of the loose ends"`
	Spacing    float64 `json:"spacingMm" doc:"Distance between pieces along a cornrow or on a net, mm; 0 lets the pieces' thickness say"`
	// Shown is the distance on cornrows that show, mm; 0 is that of the others. It follows the
	// piece and is no wish of its own.
	Shown float64 `json:"-"`
	// NoRing leaves the hair outside a net cap loose, in place of a row of individuals.
	NoRing bool `json:"noRing,omitempty" doc:"True for a net cap set back from the hairline without a row of individuals round it"`
}

// Side is a side of the head, or both.
type Side string

// The sides.
const (
	BothSides Side = "both"
	LeftSide  Side = "left"
	RightSide Side = "right"
)

// Sides are all of them.
var Sides = []Side{BothSides, LeftSide, RightSide}

// Design is the decorative cornrows of a front design.
type Design struct {
	Side     Side `json:"side" doc:"Where the decorative cornrows lie"`
	Cornrows int  `json:"tracks" doc:"Decorative cornrows on a side"`
	Curved   bool `json:"curved" doc:"True for bent cornrows"`
	// Pieces is true where pieces are hooked on the cornrows, which are seen without.
	Pieces bool `json:"pieces,omitempty" doc:"True for pieces hooked on the decorative cornrows"`
}

// Settings are the wishes a layout follows.
type Settings struct {
	Structure Structure `json:"structure" doc:"Where individuals stand and where a base does"`
	Part      Part      `json:"part"`
	Front     Wish      `json:"front" doc:"Sections in front of the ear-to-ear part, round the hairline and along the part line"`
	Back      Wish      `json:"back" doc:"Sections behind the ear-to-ear part"`
	// Rows are those of individuals in a structure that has a band of them.
	Rows int `json:"rows" doc:"Rows of individuals round the hairline (perimeter) or on each side of the part (horseshoe)"`
	// Peak doubles the row of a perimeter between the temple corners.
	Peak bool `json:"peakRow" doc:"A second row of a perimeter at the widow's peak"`
	// PerSide is the number of individuals on each side of the part line; 0 takes as many as
	// the card gives.
	PerSide int `json:"perSide" doc:"Individuals on each side of the part (part line only); 0 as many as their width gives"`
	// NapeGuard adds a row of individuals at the nape.
	NapeGuard bool   `json:"napeGuard" doc:"One row of individuals at the nape"`
	Base      Base   `json:"base"`
	Design    Design `json:"design"`
	// Edges is the width of the strip of fragile hair left out all round.
	Edges float64 `json:"edgesMm" doc:"Width of the strip along the hairline that is left out, mm"`
	// LeftOut are spots left out; a section at least half inside is.
	LeftOut []Spot `json:"leftOut" maxItems:"60" doc:"Spots of scalp that are left out"`
	Edits   []Edit `json:"edits" maxItems:"600" doc:"Changes by hand, in order"`
}

// Spot is a round spot of scalp.
type Spot struct {
	At     Direction `json:"at" doc:"Its centre"`
	Radius float64   `json:"radiusMm" doc:"mm along the scalp"`
}

// Plain are settings for sections of one wish all over, parted in the middle.
func Plain(front, back Wish) Settings {
	return Settings{
		Structure: AllIndividuals, Part: Part{Kind: MiddlePart}, Front: front, Back: back,
		Rows:    1,
		Base:    startBase(AllIndividuals),
		Design:  Design{Side: BothSides, Cornrows: 3},
		LeftOut: []Spot{}, Edits: []Edit{},
	}
}

// On are the settings on another structure: with the part line it needs, with the base it
// starts with where nobody changed more of it than how the cornrows run, without a nape guard where it has
// none, and without changes by hand, which belong to the sections they were made on.
func (s Settings) On(structure Structure) Settings {
	if s.Structure != structure {
		s.Edits = []Edit{}
	}
	untouched := s.Base
	untouched.Run = s.rule().Start.Run
	if start := startBase(structure); untouched == s.rule().Start {
		if start.MergeInto == 0 && s.rule().Start.MergeInto == 0 { // what merges runs back
			start.Run = s.Base.Run
		}
		s.Base = start
	}
	s.Structure = structure
	if rule := s.rule(); !slices.Contains(rule.Parts, s.Part.Kind) {
		s.Part.Kind = MiddlePart
		if slices.Contains(rule.Parts, NoPart) {
			s.Part.Kind = NoPart
		}
	}
	s.NapeGuard = s.NapeGuard && s.rule().NapeGuard
	return s
}

// Style names structure and pattern in a few words: "horseshoe, brick". Where front and
// back differ both patterns are named.
func (s Settings) Style() string {
	pattern := string(s.Front.Pattern)
	if s.hasBack() && s.Back.Pattern != s.Front.Pattern {
		pattern += " in front, " + string(s.Back.Pattern) + " behind"
	}
	switch {
	case s.Part.Kind == Levels:
		return "levels, " + pattern
	case s.Structure == AllIndividuals:
		return pattern
	}
	return s.Structure.Name() + ", " + pattern
}

// hasBack tells whether any sections follow the wish for the back.
func (s Settings) hasBack() bool {
	switch {
	case s.Part.Kind == Levels:
		return false
	case s.hasBase():
		return s.NapeGuard || s.Base.Kind == LinkedPlaits
	}
	return true
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
	// MinSpacing and MaxSpacing bound the distance between pieces on a base, mm.
	MinSpacing, MaxSpacing = 5.0, 80.0
	maxRows                = 6
	maxCornrow             = 60
	maxSide                = 60
	// leastFront, leastInRing and leastBehind are how far front and back meet from
	// the hairline in front, from a ring along it, and from the nape, mm: room for
	// a few sections, or for cornrows.
	leastFront, leastInRing, leastBehind = 50.0, 25.0, 60.0
	maxEdges                             = 40.0
	maxOffset                            = 60.0
	maxStop                              = 1000.0
	minEar, maxEar                       = -40.0, 50.0
	minSpot, maxSpot                     = 3.0, 90.0
	maxSpots, maxEdits                   = 60, 600
)

// hasPart tells whether a part line shows.
func (s Settings) hasPart() bool {
	return s.Structure != Perimeter && (s.Part.Kind == MiddlePart || s.Part.Kind == SidePart || s.Part.Kind == DiagonalPart)
}

// offsets are where the part line starts and ends, mm left of the middle.
func (s Settings) offsets() (start, end float64) {
	switch {
	case !s.hasPart():
		return 0, 0
	case s.Part.Kind == SidePart:
		return s.Part.Offset, s.Part.Offset
	case s.Part.Kind == DiagonalPart:
		return s.Part.Offset, s.Part.EndOffset
	}
	return 0, 0
}

// usualSpacing is the distance between pieces on a base where neither the settings nor a
// piece says, mm.
const usualSpacing = 19.0

// spacing is the distance between pieces on the base, mm.
func (s Settings) spacing() float64 {
	if s.Base.Spacing == 0 {
		return usualSpacing
	}
	return s.Base.Spacing
}

// shownSpacing is the distance between pieces on cornrows that show, mm.
func (s Settings) shownSpacing() float64 {
	if s.Base.Shown == 0 {
		return s.spacing()
	}
	return s.Base.Shown
}

// hasBase tells whether anything but individuals stands on the head.
// HasCornrows tells whether part of the head is braided flat.
func (s Settings) HasCornrows() bool { return s.hasBase() && s.Base.Kind != LinkedPlaits }

func (s Settings) hasBase() bool { return s.Structure != AllIndividuals && s.Structure != Linked }

// Check refuses settings that are no layout on any head, as [invalid.Errors] with
// paths relative to s. [Lay] refuses what does not fit the head at hand.
func (s Settings) Check() error {
	var bad invalid.Errors
	invalid.OneOf(&bad, "structure", "The structure", s.Structure, Structures)
	for _, z := range []struct {
		path, label string
		wish        Wish
	}{{"front", "in front", s.Front}, {"back", "behind", s.Back}} {
		invalid.OneOf(&bad, z.path+".pattern", "The pattern "+z.label, z.wish.Pattern, Patterns)
		bad.Length(z.path+".widthMm", "Section width "+z.label, z.wish.Width, MinSize, MaxSize)
		bad.Length(z.path+".heightMm", "Section height "+z.label, z.wish.Height, MinSize, MaxSize)
		bad.Number(z.path+".ramp", "The growth of sections "+z.label, z.wish.Ramp, MinRamp, MaxRamp, " times")
		bad.Number(z.path+".along", "The growth of sections along a row "+z.label, z.wish.Along, MinRamp, MaxRamp, " times")
	}
	s.checkPart(&bad)
	s.checkBase(&bad)
	bad.Length("edgesMm", "The strip left out along the hairline", s.Edges, 0, maxEdges)
	bad.Count("leftOut", "The number of spots left out", len(s.LeftOut), 0, maxSpots)
	for i, spot := range s.LeftOut {
		path := fmt.Sprintf("leftOut[%d].", i)
		spot.At.Check(&bad, path+"at")
		bad.Length(path+"radiusMm", "The radius of a spot left out", spot.Radius, minSpot, maxSpot)
	}
	bad.Count("edits", "The number of changes by hand", len(s.Edits), 0, maxEdits)
	for i, e := range s.Edits {
		e.check(&bad, fmt.Sprintf("edits[%d].", i))
	}
	return bad.Err()
}

func (s Settings) checkPart(bad *invalid.Errors) {
	invalid.OneOf(bad, "part.kind", "The part line", s.Part.Kind, PartKinds)
	bad.Length("part.offsetMm", "The start of the part, from the middle,", s.Part.Offset, -maxOffset, maxOffset)
	bad.Length("part.endOffsetMm", "The end of the part, from the middle,", s.Part.EndOffset, -maxOffset, maxOffset)
	bad.Length("part.earPartMm", "The ear-to-ear part, from straight over the top,", s.Part.Ear, minEar, maxEar)
	if !(s.Part.Stop >= 0 && s.Part.Stop < maxStop) { // how far it may be depends on the head
		bad.Add("part.stopMm", "The stop of the part is a distance from the front hairline along the middle; 0 runs to the nape.")
	}
	if s.Part.Kind == SidePart && math.Abs(s.Part.Offset) < 3 {
		bad.Add("part.offsetMm", "A side part lies off the middle: move it by at least %s, or choose the middle part.", invalid.AtLeast(3))
	}
	switch {
	case s.rule().Parts == nil || slices.Contains(s.rule().Parts, s.Part.Kind): // an unknown structure is refused as such
	case s.Part.Kind == Levels:
		bad.Add("part.kind", "Levels run rings over the whole head and leave no room for another base: with this structure choose a part line or none; levels go with individuals all over, or with linked plaits.")
	default:
		bad.Add("part.kind", "This structure lies along a part line: choose a middle, side or diagonal part.")
	}
}

func (s Settings) checkBase(bad *invalid.Errors) {
	b := s.Base
	invalid.OneOf(bad, "base.kind", "The base", b.Kind, BaseKinds)
	invalid.OneOf(bad, "base.run", "How the cornrows run", b.Run, Runs)
	invalid.OneOf(bad, "base.tails", "The tails", b.Tails, TailEnds)
	bad.Count("base.tracks", "Cornrows behind", b.Cornrows, 1, maxCornrow)
	bad.Count("base.sideTracks", "Cornrows on each side", b.SideCornrows, 1, maxCornrow)
	bad.Count("base.mergeInto", "Cornrows to merge into", b.MergeInto, 0, maxCornrow)
	bad.Length("base.mergeAfterMm", "The distance before merging", b.MergeAfter, 0, 500)
	if b.Spacing != 0 {
		bad.Length("base.spacingMm", "The distance between pieces", b.Spacing, MinSpacing, MaxSpacing)
	}
	invalid.OneOf(bad, "design.side", "The side of the design", s.Design.Side, Sides)
	bad.Count("design.tracks", "Decorative cornrows", s.Design.Cornrows, 1, 12)
	bad.Count("rows", "Rows of individuals", s.Rows, 1, maxRows)
	bad.Count("perSide", "Individuals on each side of the part", s.PerSide, 0, maxSide)
	if !s.hasBase() {
		return
	}
	if s.NapeGuard && !s.rule().NapeGuard {
		bad.Add("napeGuard", "The ring of individuals already covers the nape: turn the nape guard off.")
	}
	if s.Structure == Perimeter && s.Peak && b.Kind == LinkedPlaits {
		bad.Add("peakRow", "Linked plaits follow the ring and leave no step for a second row at the peak: choose cornrows or a net inside it, or one row.")
	}
	if b.Kind != Cornrows || b.MergeInto == 0 {
		return
	}
	switch {
	case b.Run == Horizontal:
		bad.Add("base.mergeInto", "Cornrows from side to side do not merge: let them run straight back, or merge into none.")
	case b.MergeInto >= b.Cornrows:
		bad.Add("base.mergeInto", "%d cornrows can merge into %d at most; %d are wished.", b.Cornrows, max(1, b.Cornrows-1), b.MergeInto)
	}
}

// oneOf refuses a value that is not in a list.
// Direction is a place on the scalp as a unit vector from the centre of the head,
// in the axes of [scalp.Head]: it stays where it is when the tapes change.
type Direction [3]float64

// Check refuses what is no direction.
func (d Direction) Check(bad *invalid.Errors, path string) {
	long := math.Sqrt(d[0]*d[0] + d[1]*d[1] + d[2]*d[2])
	if !(long > 0.99 && long < 1.01) {
		bad.Add(path, "A place on the head is a direction of length 1; this one has length %.3g.", long)
	}
}

// On is the point of h in this direction.
func (d Direction) On(h scalp.Head) scalp.Point { return h.Point(d.vec()) }

// Name says about where on the head a direction points, such as "behind left".
func (d Direction) Name() string {
	place := "on top"
	switch {
	case d[0] > 0.6:
		place = "in front"
	case d[0] < -0.6:
		place = "behind"
	case d[2] < 0.6:
		place = "at the side"
	}
	switch {
	case d[1] > 0.05:
		return place + " left"
	case d[1] < -0.05:
		return place + " right"
	}
	return place
}

// Toward is the direction of a surface point of h.
func Toward(h scalp.Head, p scalp.Point) Direction {
	x, y, z := p[0]/h.A, p[1]/h.B, p[2]/h.C
	long := math.Sqrt(x*x + y*y + z*z)
	return Direction{x / long, y / long, z / long}
}
