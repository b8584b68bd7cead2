package craft

// Cornrows, nets, and what hangs on them.
const (
	// HookShare: the distance between pieces on a base: so that they cover it and no more.
	HookShare = 2.2 // thicknesses; common practice
	// ShownShare: the same where the base shows.
	ShownShare = 1.6 // thicknesses; common practice
	// NetShare: the same on a net, where pieces stand in every direction: about as many as individuals of an inch.
	NetShare = 3.0 // thicknesses; common practice
	// BareShare: how far apart pieces hang on cornrows before scalp shows between them.
	BareShare = 4.0 // thicknesses; common practice
	// BareNetShare: the same on a net, where none lies in the way of another.
	BareNetShare = 5.0 // thicknesses; common practice
	// NarrowestCornrow: the least width of a cornrow: a loop no longer passes under a thinner one.
	NarrowestCornrow = 8.0 // mm; common practice
	// ThinCornrow: the width of a cornrow under which it is told to be thin.
	ThinCornrow = 12.0 // mm; common practice
	// FatCornrow: the width of a cornrow above which it is told to be fat.
	FatCornrow = 45.0 // mm; common practice
	// NetSetBack: how far from the hairline the edge of a net lies that has no ring of individuals.
	NetSetBack = 15.0 // mm; common practice
	// StartCornrows: how many cornrows a plan starts with behind.
	StartCornrows = 5 // cornrows; common practice
	// StartSideCornrows: how many it starts with on each side.
	StartSideCornrows = 3 // cornrows; common practice
	// StartCrescentCornrows: how many it starts with behind and beside a crescent of individuals.
	StartCrescentCornrows = 6 // cornrows; common practice
	// StartMergeInto: into how many those run together.
	StartMergeInto = 3 // cornrows; common practice
	// StartMergeAfter: how far on they run together.
	StartMergeAfter = 40.0 // mm; common practice
	// StartReach: how much of the front a design takes as it starts.
	StartReach = 0.45 // share; common practice
	// StartNetPlaits: how many small plaits lie under a net.
	StartNetPlaits = 16 // plaits; common practice
	// StartPerSide: how many individuals a part line starts with on each side.
	StartPerSide = 5 // individuals; common practice
)

// Sections.
const (
	// SliverShare: under which a section is told to be a sliver.
	SliverShare = 0.5 // share of the area wished; common practice
	// OversizeShare: above which it is told to be large.
	OversizeShare = 1.5 // share of the area wished; common practice
	// DenseTwists: the size of sections for dense small twists.
	DenseTwists = 0.5 // in; common practice
	// SmallTwists: the size for small twists.
	SmallTwists = 0.75 // in; common practice
	// MediumTwists: the size for medium twists.
	MediumTwists = 1.0 // in; common practice
	// MediumLocs: the size for medium locs.
	MediumLocs = 1.25 // in; common practice
	// LargeLocs: the size for large locs.
	LargeLocs = 1.5 // in; common practice
	// RingCard: the size of the sections of a ring round the hairline: 15 to 20 of them.
	RingCard = 1.25 // in; common practice
	// LinkedCard: the size of linked plaits: 60 to 70 on a head.
	LinkedCard = 1.25 // in; common practice
	// PartCard: the size of the few sections that show along a part.
	PartCard = 0.75 // in; common practice
	// DesignCard: the size of those beside a front design.
	DesignCard = 0.875 // in; common practice
	// BeforeCrown: how far before the crown a part line stops.
	BeforeCrown = 25.0 // mm; common practice
)
