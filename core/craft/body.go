package craft

// Body lines, where ends land.
const (
	// ChinLine: the height of the chin.
	ChinLine = 0.870 // share of stature; memory: Drillis and Contini 1966
	// ShoulderLine: of the shoulder.
	ShoulderLine = 0.818 // share of stature; memory: Drillis and Contini 1966
	// ArmpitLine: of the armpit.
	ArmpitLine = 0.750 // share of stature; common practice
	// MidBackLine: of the mid-back.
	MidBackLine = 0.700 // share of stature; common practice
	// WaistLine: of the waist: the elbow.
	WaistLine = 0.630 // share of stature; memory: Drillis and Contini 1966
	// HipLine: of the hip.
	HipLine = 0.530 // share of stature; memory: Drillis and Contini 1966
	// ThighLine: of the middle of the thigh.
	ThighLine = 0.410 // share of stature; common practice
	// KneeLine: of the knee.
	KneeLine = 0.285 // share of stature; memory: Drillis and Contini 1966
	// Stature: taken where nobody asked: 5 ft 5 in.
	Stature = 1651.0 // mm; memory: growth charts
	// ChildStature: taken for a child of ten: 4 ft 7 in.
	ChildStature = 1400.0 // mm; memory: growth charts
	// Layered: how far the highest row of layers ends above the line: about 6 in.
	Layered = 0.092 // share of stature; common practice
	// Bevel: how far the lowest row of a bob ends above its outer rows: about 1 in.
	Bevel = 0.016 // share of stature; common practice
	// Forward: how much lower a bob hangs beside the face: about ¾ in.
	Forward = 0.012 // share of stature; common practice
)

// Heads, where no tape was taken.
const (
	// HeadRatio: breadth of a head ÷ its length.
	HeadRatio = 0.78 // share; common practice
	// ChildAround: around a child’s head.
	ChildAround = 20.5 // in; common practice: the sizes in which caps are sold
	// ChildFrontToNape: front to nape of a child’s head.
	ChildFrontToNape = 13.0 // in; common practice: the sizes in which caps are sold
	// ChildEarToEar: ear to ear over a child’s head.
	ChildEarToEar = 11.5 // in; common practice: the sizes in which caps are sold
	// PetiteAround: around a petite head.
	PetiteAround = 21.25 // in; common practice: the sizes in which caps are sold
	// PetiteFrontToNape: front to nape of a petite head.
	PetiteFrontToNape = 13.5 // in; common practice: the sizes in which caps are sold
	// PetiteEarToEar: ear to ear over a petite head.
	PetiteEarToEar = 12.0 // in; common practice: the sizes in which caps are sold
	// AverageAround: around an average head.
	AverageAround = 22.0 // in; common practice: the sizes in which caps are sold
	// AverageFrontToNape: front to nape of an average head.
	AverageFrontToNape = 14.0 // in; common practice: the sizes in which caps are sold
	// AverageEarToEar: ear to ear over an average head.
	AverageEarToEar = 12.5 // in; common practice: the sizes in which caps are sold
	// LargeAround: around a large head.
	LargeAround = 23.0 // in; common practice: the sizes in which caps are sold
	// LargeFrontToNape: front to nape of a large head.
	LargeFrontToNape = 14.5 // in; common practice: the sizes in which caps are sold
	// LargeEarToEar: ear to ear over a large head.
	LargeEarToEar = 13.0 // in; common practice: the sizes in which caps are sold
	// ExtraLargeAround: around an extra-large head.
	ExtraLargeAround = 24.0 // in; common practice: the sizes in which caps are sold
	// ExtraLargeFrontToNape: front to nape of an extra-large head.
	ExtraLargeFrontToNape = 15.0 // in; common practice: the sizes in which caps are sold
	// ExtraLargeEarToEar: ear to ear over an extra-large head.
	ExtraLargeEarToEar = 13.5 // in; common practice: the sizes in which caps are sold
)
