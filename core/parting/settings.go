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

// inch is one in mm.
const inch = 25.4

// NamedSize is a section size by name and by number: names alone mislead, "medium" is
// used for 40 and for 70 sections.
type NamedSize struct {
	Name string  `json:"name"`
	Size float64 `json:"sizeMm" doc:"Width and height, mm"`
}

// NamedSizes are the sizes seen in practice.
func NamedSizes() []NamedSize {
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
	// Front and Back are the sections it starts with, mm, PerSide the individuals beside the part.
	Front   float64 `json:"frontMm" doc:"Width and height of sections in front as a plan of the structure starts, mm"`
	Back    float64 `json:"backMm" doc:"The same behind"`
	PerSide int     `json:"perSide" doc:"Individuals beside the part as it starts; 0 as many as their width gives"`
	// Reach is how much of the front a design takes as it starts; 0 where there is none.
	Reach float64 `json:"reach" doc:"Share of the front that a design takes as it starts; 0 where there is none"`
}

// startBase is the base a plan of a structure starts with: as many cornrows as pieces cover,
// and beside a crescent of individuals more of them, which run together.
func startBase(structure Structure) Base {
	b := Base{Kind: Cornrows, Run: StraightBack, Cornrows: craft.StartCornrows, SideCornrows: craft.StartSideCornrows, Tails: Tucked}
	switch structure {
	case Horseshoe:
		b.Cornrows, b.MergeInto, b.MergeAfter, b.MergeSides = craft.StartCrescentCornrows, craft.StartMergeInto, craft.StartMergeAfter, true
	case NetCap:
		b.Kind, b.Under, b.NoRing, b.Cornrows = Net, OverPlaits, true, craft.StartNetPlaits
	}
	return b
}

// startCards are the sections a plan of a structure starts with, in front and behind, in; those
// left out start with an inch.
var startCards = map[Structure][2]float64{
	Perimeter: {craft.RingCard, 1}, Linked: {craft.LinkedCard, craft.LinkedCard},
	Horseshoe: {craft.PartCard, 1}, PartLine: {craft.PartCard, 1}, FrontDesign: {craft.DesignCard, 1}, NetCap: {craft.PartCard, 1},
}

// Rules are those of all structures, in the order of [Structures].
func Rules() []Rule {
	rules := make([]Rule, len(Structures))
	for i, structure := range Structures {
		r := Rule{Structure: structure, Parts: []PartKind{MiddlePart, SidePart, DiagonalPart}, Base: true, NapeGuard: true, Start: startBase(structure)}
		card, has := startCards[structure]
		if !has {
			card = [2]float64{1, 1}
		}
		r.Front, r.Back = card[0]*inch, card[1]*inch
		switch structure {
		case AllIndividuals, Linked: // rings need the whole head
			r.Parts, r.Base = append(r.Parts, NoPart, Levels), false
			r.NapeGuard = structure == Linked
		case EarToEar:
			r.Parts = append(r.Parts, NoPart)
		case PartLine:
			r.PerSide = craft.StartPerSide
		case FrontDesign:
			r.Reach = craft.StartReach
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
	// LoosePlaits are plaits that are hooked plainly and then laid back into the base.
	LoosePlaits BaseKind = "plaits"
	// Net is a weaving net over flat plaits, hooked through in a lattice.
	Net BaseKind = "net"
	// NoBase leaves individuals there, as behind a front design.
	NoBase BaseKind = "individuals"
)

// BaseKinds are all bases.
var BaseKinds = []BaseKind{Cornrows, LinkedPlaits, LoosePlaits, Net, NoBase}

// sectioned tells whether the base is one of plaits, each with a section of its own.
func (k BaseKind) sectioned() bool { return k == LinkedPlaits || k == LoosePlaits || k == NoBase }

// UnderNet is what a net lies on.
type UnderNet string

// The plaits under a net.
const (
	OverCornrows UnderNet = "tracks"
	// OverPlaits are small plaits laid back: nobody has to plait along the scalp.
	OverPlaits UnderNet = "plaits"
)

// UnderNets are all of them.
var UnderNets = []UnderNet{OverCornrows, OverPlaits}

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
	// Diagonal runs back and outward from the middle, on both sides alike.
	Diagonal Run = "diagonal"
)

// Runs are all ways.
var Runs = []Run{Horizontal, StraightBack, Curved, Diagonal}

// back tells whether cornrows run from the front towards the nape.
func (r Run) back() bool { return r != Horizontal }

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
	// Shown is the distance on cornrows that show, Netted that on a net, mm; 0 is that of the others. They
	// follow the piece and are no wishes of their own.
	Shown  float64 `json:"-"`
	Netted float64 `json:"-"`
	// Hooks is how many pieces are hooked on the whole base, exactly; 0 lets their distance say.
	Hooks int `json:"hooks,omitempty" doc:"Pieces hooked on the whole base, exactly so many; left out where their distance says"`
	// Under is what a net lies on; empty for cornrows.
	Under UnderNet `json:"under,omitempty" enum:"tracks,plaits," doc:"What a net lies on; left out for cornrows"`
	// NoRing leaves the hair outside a net cap loose, in place of a row of individuals.
	NoRing bool `json:"noRing,omitempty" doc:"True for a net cap set back from the hairline without a row of individuals round it"`
}

// BasePart is a part of the head that may have a base of its own.
type BasePart string

// The parts of a base. Their letters begin the names of their zones.
const (
	BaseBehind BasePart = "behind"
	BaseSides  BasePart = "sides"
	// BaseInFront is in front, inside a ring.
	BaseInFront BasePart = "front"
	BaseAtNape  BasePart = "nape"
)

// BaseParts are all of them.
var BaseParts = []BasePart{BaseBehind, BaseSides, BaseInFront, BaseAtNape}

// The letters of the zones of a base.
const (
	behindKey = "T"
	sidesKey  = "S"
	frontKey  = "C"
	designKey = "D"
	napeKey   = "N"
)

// keys are the letters of the zones of every part of a base.
var keys = map[BasePart]string{BaseBehind: behindKey, BaseSides: sidesKey, BaseInFront: frontKey, BaseAtNape: napeKey}

// OwnBase is the base of a part of the head where it is another than the rest.
type OwnBase struct {
	Part     BasePart `json:"part" doc:"The part of the head that has a base of its own"`
	Kind     BaseKind `json:"kind" doc:"Base"`
	Run      Run      `json:"run" doc:"How cornrows run there"`
	Cornrows int      `json:"tracks" doc:"Cornrows there; on each side where the part lies at the sides"`
	Tails    Tails    `json:"tails" doc:"What becomes of the loose ends"`
}

// ground is the base of its own that a part of the head has.
func (s Settings) ground(part BasePart) (OwnBase, bool) {
	i := slices.IndexFunc(s.Grounds, func(g OwnBase) bool { return g.Part == part })
	if i < 0 {
		return OwnBase{}, false
	}
	return s.Grounds[i], true
}

// at are the settings as they hold for the zones of a letter, by the base that part of the head
// has.
func (s Settings) at(key string) Settings {
	for part, letter := range keys {
		g, own := s.ground(part)
		if letter != key || !own {
			continue
		}
		b := s.Base
		b.Kind, b.Run, b.Tails, b.Cornrows, b.SideCornrows = g.Kind, g.Run, g.Tails, g.Cornrows, g.Cornrows
		b.MergeInto, b.MergeSides = 0, false
		s.Base = b
	}
	return s
}

// parts are the parts of the head that have a base in this structure.
func (s Settings) parts() []BasePart {
	if s.Structure == Linked && s.NapeGuard {
		return []BasePart{BaseAtNape}
	}
	if !s.hasBase() {
		return nil
	}
	parts := []BasePart{BaseBehind}
	switch s.Structure {
	case Horseshoe, PartLine:
		parts = append(parts, BaseSides)
	case NetCap:
		if s.hasPart() {
			parts = append(parts, BaseSides)
		} else {
			parts = append(parts, BaseInFront)
		}
	case Perimeter:
		parts = append(parts, BaseInFront)
	}
	if s.NapeGuard {
		parts = append(parts, BaseAtNape)
	}
	return parts
}

// has tells whether any part of the head has a base that will do.
func (s Settings) has(will func(Base) bool) bool {
	return slices.ContainsFunc(s.parts(), func(part BasePart) bool {
		if _, own := s.ground(part); part == BaseAtNape && !own {
			return false // a row of individuals
		}
		return will(s.at(keys[part]).Base)
	})
}

// RunIn is how the cornrows of a zone run.
func (s Settings) RunIn(z Zone) Run { return s.at(string(z[:1])).Base.Run }

// TailsIn is what becomes of the loose ends in a zone.
func (s Settings) TailsIn(z Zone) Tails { return s.at(string(z[:1])).Base.Tails }

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

// Across lays a design over the front from one side to the other.
const Across Side = "across"

// DesignSides are where a design can lie.
var DesignSides = append(slices.Clone(Sides), Across)

// Design is the decorative cornrows of a front design.
type Design struct {
	Side     Side `json:"side" doc:"Where the decorative cornrows lie"`
	Cornrows int  `json:"tracks" doc:"Decorative cornrows: on a side, or one behind the other where they run across"`
	Curved   bool `json:"curved" doc:"True for bent cornrows"`
	// Reach is how much of the front the design takes; 0 is the usual share.
	Reach float64 `json:"reach,omitempty" doc:"Share of the front that the design takes; left out for a little more than half"`
	// Pieces is true where pieces are hooked on the cornrows, which are seen without.
	Pieces bool `json:"pieces,omitempty" doc:"True for pieces hooked on the decorative cornrows"`
	// Fed is true where hair is fed in along each, and it goes on behind as a braid.
	Fed bool `json:"fed,omitempty" doc:"True where hair is fed in along each, and it goes on as a braid"`
	// Between is true for a row of individuals between any two of them.
	Between bool `json:"between,omitempty" doc:"True for a row of individuals between any two of them"`
	// Rings are strung on every cornrow before it is plaited.
	Rings int `json:"rings,omitempty" doc:"Rings or beads strung on each before it is plaited"`
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
	NapeGuard bool `json:"napeGuard" doc:"One row of individuals at the nape"`
	Base      Base `json:"base"`
	// Grounds are the parts of the head with a base of their own.
	Grounds []OwnBase `json:"grounds,omitempty" maxItems:"4" doc:"Parts of the head that have a base of their own; left out where all of it is alike"`
	Design  Design    `json:"design"`
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

// On are the settings on another structure: with the part line it needs, with the base and the
// sizes it starts with where nobody changed more of those of the structure before than how the
// cornrows run, without a nape guard where it has none, and without changes by hand, which
// belong to the sections they were made on.
func (s Settings) On(structure Structure) Settings {
	before := s.rule()
	if s.Structure != structure {
		s.Edits = []Edit{}
		s.Grounds = nil
	}
	s.Structure = structure
	rule := s.rule()
	untouched := s.Base
	untouched.Run = before.Start.Run
	if untouched == before.Start {
		run := s.Base.Run
		if s.Base = rule.Start; rule.Start.MergeInto == 0 && before.Start.MergeInto == 0 { // what merges runs back
			s.Base.Run = run
		}
	}
	for _, w := range []struct {
		size     *Size
		from, to float64
	}{{&s.Front.Size, before.Front, rule.Front}, {&s.Back.Size, before.Back, rule.Back}} {
		if *w.size == (Size{w.from, w.from}) {
			*w.size = Size{w.to, w.to}
		}
	}
	if s.Design.Reach == 0 {
		s.Design.Reach = rule.Reach
	}
	if s.PerSide == before.PerSide {
		s.PerSide = rule.PerSide
	}
	if !slices.Contains(rule.Parts, s.Part.Kind) {
		s.Part.Kind = MiddlePart
		if slices.Contains(rule.Parts, NoPart) {
			s.Part.Kind = NoPart
		}
	}
	s.NapeGuard = s.NapeGuard && rule.NapeGuard
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
		return s.NapeGuard || s.has(func(b Base) bool { return b.Kind.sectioned() })
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
	maxHooks               = 1000
	minReach, maxReach     = 0.3, 0.8
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
	if s.Structure == FrontDesign && s.Design.Side == Across {
		return false
	}
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

// netSpacing is the distance between pieces on a net, mm.
func (s Settings) netSpacing() float64 {
	if s.Base.Netted == 0 {
		return s.spacing()
	}
	return s.Base.Netted
}

// HasCornrows tells whether part of the head is braided flat.
func (s Settings) HasCornrows() bool {
	return s.Structure == FrontDesign || s.has(func(b Base) bool {
		return b.Kind == Cornrows || b.Kind == Net && b.Under != OverPlaits
	})
}

// hasBase tells whether anything but individuals stands on the head.
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
	bad.Count("base.hooks", "Pieces hooked on the base", b.Hooks, 0, maxHooks)
	if b.Under != "" {
		invalid.OneOf(bad, "base.under", "What the net lies on", b.Under, UnderNets)
	}
	if b.Spacing != 0 {
		bad.Length("base.spacingMm", "The distance between pieces", b.Spacing, MinSpacing, MaxSpacing)
	}
	s.checkGrounds(bad)
	s.checkDesign(bad)
	bad.Count("rows", "Rows of individuals", s.Rows, 1, maxRows)
	bad.Count("perSide", "Individuals on each side of the part", s.PerSide, 0, maxSide)
	if !s.hasBase() {
		return
	}
	if s.NapeGuard && !s.rule().NapeGuard {
		bad.Add("napeGuard", "The ring of individuals already covers the nape: turn the nape guard off.")
	}
	if b.Kind == NoBase && s.Structure != FrontDesign {
		bad.Add("base.kind", "Individuals stand behind a front design; with this structure choose cornrows, plaits or a net.")
	}
	if s.Structure == Perimeter && s.Peak && s.has(func(b Base) bool { return b.Kind.sectioned() }) {
		bad.Add("peakRow", "Plaits inside the ring follow it and leave no step for a second row at the peak: choose cornrows or a net inside it, or one row.")
	}
	if b.Kind != Cornrows {
		return
	}
	if b.Run == Diagonal && b.Cornrows%2 == 1 {
		bad.Add("base.tracks", "Diagonal cornrows run outward on both sides alike: %d or %d of them, not %d.", max(2, b.Cornrows-1), b.Cornrows+1, b.Cornrows)
	}
	switch {
	case b.MergeInto == 0:
	case b.Run == Horizontal || b.Run == Diagonal:
		bad.Add("base.mergeInto", "Cornrows from side to side do not merge: let them run straight back, or merge into none.")
	case b.MergeInto >= b.Cornrows:
		bad.Add("base.mergeInto", "%d cornrows can merge into %d at most; %d are wished.", b.Cornrows, max(1, b.Cornrows-1), b.MergeInto)
	}
}

// checkGrounds refuses bases of parts of the head that cannot be.
func (s Settings) checkGrounds(bad *invalid.Errors) {
	bad.Count("grounds", "Parts of the head with a base of their own", len(s.Grounds), 0, len(BaseParts))
	for i, g := range s.Grounds {
		path := invalid.At("grounds", i) + "."
		invalid.OneOf(bad, path+"part", "The part of the head", g.Part, BaseParts)
		invalid.OneOf(bad, path+"kind", "The base", g.Kind, BaseKinds)
		invalid.OneOf(bad, path+"run", "How the cornrows run", g.Run, Runs)
		invalid.OneOf(bad, path+"tails", "The tails", g.Tails, TailEnds)
		bad.Count(path+"tracks", "Cornrows there", g.Cornrows, 1, maxCornrow)
		if slices.ContainsFunc(s.Grounds[:i], func(h OwnBase) bool { return h.Part == g.Part }) {
			bad.Add(path+"part", "Each part of the head has one base; this one is told twice.")
		}
		switch {
		case g.Part == BaseAtNape && (g.Kind != Cornrows || g.Run != Horizontal):
			bad.Add(path+"kind", "A nape row is individuals, or one cornrow from side to side.")
		case g.Kind == NoBase && (g.Part != BaseBehind || s.Structure != FrontDesign):
			bad.Add(path+"kind", "Individuals stand behind a front design; here choose cornrows, plaits or a net.")
		case g.Kind == Cornrows && g.Run == Diagonal && g.Part != BaseSides && g.Cornrows%2 == 1:
			bad.Add(path+"tracks", "Diagonal cornrows run outward on both sides alike: %d or %d of them, not %d.", max(2, g.Cornrows-1), g.Cornrows+1, g.Cornrows)
		}
	}
}

// checkDesign refuses a front design that cannot be.
func (s Settings) checkDesign(bad *invalid.Errors) {
	d := s.Design
	invalid.OneOf(bad, "design.side", "The side of the design", d.Side, DesignSides)
	bad.Count("design.tracks", "Decorative cornrows", d.Cornrows, 1, 12)
	if d.Reach != 0 {
		bad.Number("design.reach", "The share of the front that the design takes", d.Reach, minReach, maxReach, "")
	}
	bad.Count("design.rings", "Rings on a decorative cornrow", d.Rings, 0, 20)
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
