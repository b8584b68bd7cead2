package craft

// Methods that hide the plait in the piece, of practised hands.
const (
	// HitchTime: one root hitch.
	HitchTime = 0.6 // min; common practice
	// PassTime: one pass of a weave.
	PassTime = 0.4 // min; common practice
	// LaceTime: one pass of a zigzag.
	LaceTime = 0.35 // min; common practice
	// DrawTime: one more draw of own hair through the loop.
	DrawTime = 0.25 // min; common practice
	// KnotTime: a hidden knot.
	KnotTime = 0.47 // min; common practice
	// KnotTurn: more for each turn of a hidden knot beyond two.
	KnotTurn = 0.1 // min/turn; common practice
	// SplitRootTime: parting a root in two and plaiting the small strand in.
	SplitRootTime = 0.9 // min; common practice
	// StackTime: one piece of several along a plait.
	StackTime = 1.2 // min; common practice
	// InSoft: how thick a plait may be that vanishes in a twist or soft loc: they give way.
	InSoft = 0.8 // thicknesses of the piece; common practice
	// InBraid: how thick it may be in a braid.
	InBraid = 0.6 // thicknesses of the piece; common practice
	// WoundBack: how long a plait may be whose end is wound back up inside.
	WoundBack = 1.9 // lengths of the piece; common practice
	// DrySlower: how much longer it takes to fix a piece dry, where the hook snags.
	DrySlower = 1.1 // times; common practice
	// LargeSection: from where a section counts as large: about an inch square.
	LargeSection = 600.0 // mm²; common practice
	// SpareBelow: how far below the end of own hair a piece is cut at the least: what slips while scissors close is never own hair.
	SpareBelow = 25.4 // mm; common practice
)

// Methods that wrap, of practised hands.
const (
	// CollarTime: to slide a piece on and draw the end through.
	CollarTime = 0.8 // min; common practice
	// SharedTime: a hitch that plait and piece share.
	SharedTime = 0.8 // min; common practice
	// BandTime: winding a plait down and up round its loc, and the band over it.
	BandTime = 1.1 // min; common practice
	// HookedTime: drawing base hair half under a root.
	HookedTime = 0.5 // min; common practice
	// WrapRate: winding hair over a base.
	WrapRate = 0.014 // min/mm; common practice
	// CoilRate: letting a coil close.
	CoilRate = 0.010 // min/mm; common practice
	// GlueTime: to seal the end of a wrap with a dot of glue.
	GlueTime = 0.15 // min; common practice
	// WoundPast: how far past the end of the plait is wound.
	WoundPast = 12.7 // mm; common practice
	// TailShare: the thickness of a piece’s tail ÷ the piece’s.
	TailShare = 0.4 // share; common practice
	// BandedShare: the length covered ÷ that of a plait wound down and back up.
	BandedShare = 0.55 // share; common practice
)

// Twisting and braiding by hand, and hooking, of practised hands.
const (
	// FoldTime: to draw a strand half through.
	FoldTime = 0.5 // min; common practice
	// UndoTime: to undo own twist below its anchor.
	UndoTime = 0.2 // min; common practice
	// LockTime: to lock a tip in a gap of the piece.
	LockTime = 0.3 // min; common practice
	// TwistRate: twisting two strands.
	TwistRate = 0.005 // min/mm; common practice
	// BraidStart: to add the hair of a braid at the root.
	BraidStart = 1.0 // min; common practice
	// PlaitRate: plaiting three strands, of a finished braid.
	PlaitRate = 0.011 // min/mm; common practice
	// BraidRate: braiding with hair added, of a finished braid: faster than own plaits, which are finer. Seventy to
	// eighty of 24 in take a client’s head six to eight hours in all.
	BraidRate = 0.0055 // min/mm; common practice
	// ThirdTime: to wrap a third of the bundle.
	ThirdTime = 0.3 // min; common practice
	// HookTime: to hook one piece where no plait is hidden: 120 take 40 to 60 min with sorting.
	HookTime = 0.42 // min; common practice
	// RoomyPiece: the thickness above which a piece tightens a snug root once more.
	RoomyPiece = 8.0 // mm; common practice
	// MostAnchored: how far anchor turns go at the most: two inches.
	MostAnchored = 51.0 // mm; common practice
)
