package craft

// Getting hair ready at home, of practised hands.
const (
	// StretchTime: to stretch one loop.
	StretchTime = 0.15 // min; common practice
	// CutTime: to cut one strand and bind its ends.
	CutTime = 0.35 // min; common practice
	// SplitTime: to split one unit off without tangling it.
	SplitTime = 0.2 // min; common practice
	// SoakTime: to soak, rinse, press out and hang up all of it.
	SoakTime = 20.0 // min; common practice
	// WindTime: to lay one strand of wrapping hair ready.
	WindTime = 0.1 // min; common practice
	// BundleTime: to even out and taper one bundle of braiding hair.
	BundleTime = 0.7 // min; common practice
	// LayTime: to lay out and mix colours.
	LayTime = 6.0 // min; common practice
	// BatchTime: how long one makes locs by hand before a break that is one.
	BatchTime = 90.0 // min; common practice
	// TightLoop: the opening of a loop under which it is stretched.
	TightLoop = 1.2 // thicknesses of the piece; common practice
	// OilUse: scalp oil, before the head is parted.
	OilUse = 5.0 // ml/head; common practice
	// GelUse: gel or pomade along the parts of one section; a cornrow takes three times as much.
	GelUse = 0.3 // g/section; common practice
	// WaxUse: the same of a balm of wax.
	WaxUse = 0.2 // g/section; common practice
	// LeaveInUse: leave-in, for own hair of usual length.
	LeaveInUse = 25.0 // ml/head; common practice
	// UsualHair: own hair for which that is.
	UsualHair = 150.0 // mm; common practice
	// FoamUse: setting foam, for some minutes under a scarf.
	FoamUse = 40.0 // ml/head; common practice
	// GlueUse: a dot of glue on one piece.
	GlueUse = 0.05 // ml/piece; common practice
	// SoakHours: for which new hair is soaked.
	SoakHours = 2 // h; common practice
	// DryHours: for which it dries: overnight.
	DryHours = 12 // h; common practice
	// WashTime: to wash, dry and stretch own hair of no length.
	WashTime = 35.0 // min; common practice
	// WashRate: more for its length: 6 in take an hour and a quarter.
	WashRate = 0.27 // min/mm; common practice
	// CurlTime: of that, to wash and detangle; the curl left, it dries by itself.
	CurlTime = 25.0 // min; common practice
	// CurlRate: more for its length.
	CurlRate = 0.1 // min/mm; common practice
	// BlowTime: to section it for drying and set the heat.
	BlowTime = 10.0 // min; common practice
	// BlowRate: blow-drying it, by its length: half an hour for 6 in.
	BlowRate = 0.13 // min/mm; common practice
	// EatTime: to eat before sitting down.
	EatTime = 30.0 // min; common practice
	// EatAhead: how long before the first sitting.
	EatAhead = 60.0 // min; common practice
)

// A loc made by hand.
const (
	// LoopLength: of the base that is the loop.
	LoopLength = 25.0 // mm; common practice
	// MadeOverlap: by which one strand starts over the end of the last.
	MadeOverlap = 25.0 // mm; common practice
	// FoldBack: of the base laid back over itself below the loop.
	FoldBack = 50.0 // mm; common practice
	// MadeTurn: of a turn that shows.
	MadeTurn = 4.5 // mm; common practice
	// MadeRate: winding it, as on the head.
	MadeRate = 0.014 // min/mm; common practice
	// MadeEach: to cut, fold, seal and roll one.
	MadeEach = 2.0 // min; common practice
)
