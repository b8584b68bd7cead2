package craft

// What is customary where a wish leaves it open, and what is noticed of a head.
const (
	// AiryLayers: pieces over one another at the shoulder, or at the chin for short hair, on an airy head.
	AiryLayers = 0.6 // pieces; common practice
	// UsualLayers: the same as full as usual.
	UsualLayers = 0.9 // pieces; common practice
	// FullLayers: the same where it is full.
	FullLayers = 1.2 // pieces; common practice
	// BaldLayers: from how few on it is bald.
	BaldLayers = 0.5 // pieces; common practice
	// LayersSlack: within what it is as full as was wished.
	LayersSlack = 0.05 // pieces; common practice
	// MostTrackShown: how much cornrow may show.
	MostTrackShown = 210.0 // mm; common practice
	// MostBareScalp: the share of the scalp that may show in spots that are noticed.
	MostBareScalp = 0.14 // share; common practice
	// PieceCovers: how wide a section a piece covers at the most: ¾ to 1 in under twists, 1¼ in under locs, 1½ in
	// under large ones.
	PieceCovers = 3.65 // thicknesses of the piece; common practice
	// KindLoad: from where a place is heavy, in shares of what is usual there.
	KindLoad = 2.0 // times; common practice
	// GentleLoad: the same where a head bears less and is to be treated kindly.
	GentleLoad = 1.25 // times; common practice
	// EndsSlack: within what half of the ends are where they were wished, hung all over.
	EndsSlack = 20.0 // mm; common practice
	// EndsHungSlack: the same on another base, whose ends lie a little elsewhere.
	EndsHungSlack = 45.0 // mm; common practice
	// ClientDay: how long a head takes at the most on a client, where nobody said.
	ClientDay = 14 * 60.0 // minutes; common practice
	// OwnDay: the same on oneself.
	OwnDay = 15 * 60.0 // minutes; common practice
	// ChildDay: the same on a child.
	ChildDay = 5 * 60.0 // minutes; common practice
	// LastsWeeks: how long it lasts at least, where nobody said.
	LastsWeeks = 4 // weeks; common practice
	// MostShortEnds: how much shorter than wished a piece may be to be spoken of.
	MostShortEnds = 6 * 25.4 // mm; common practice
	// LongEnds: how much longer than wished a piece may hang that cannot be cut.
	LongEnds = 3 * 25.4 // mm; common practice
)
