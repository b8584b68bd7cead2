package craft

// Own hair: its growth, its density, what falls.
const (
	// GrowthCoily: mean growth of coily hair.
	GrowthCoily = 0.256 // mm/day; memory: Loussouarn 2001, British Journal of Dermatology 145
	// GrowthLeastDays: over which own growth is measured at the least, to say anything.
	GrowthLeastDays = 28 // days; common practice
	// GrowthMisread: by how much a length of hair is misread, at either end of it.
	GrowthMisread = 5.0 // mm; common practice
	// GrowthMost: beyond which a length was misread, or hair was trimmed where it is less than none.
	GrowthMost = 0.65 // mm/day; memory: beyond two and a half times the mean of coily hair
	// GrowthCoilySpread: its standard deviation.
	GrowthCoilySpread = 0.044 // mm/day; memory: Loussouarn 2001, British Journal of Dermatology 145
	// GrowthStraight: mean growth of straight and wavy hair; the half inch a month that is often said.
	GrowthStraight = 0.396 // mm/day; memory: Loussouarn 2001, British Journal of Dermatology 145
	// GrowthStraightSpread: its standard deviation.
	GrowthStraightSpread = 0.055 // mm/day; memory: Loussouarn 2001, British Journal of Dermatology 145
	// ThinDensity: the density under which hair counts as thin.
	ThinDensity = 150.0 // hairs/cm²; memory: Loussouarn 2001, British Journal of Dermatology 145; one standard deviation below the mean, 190 ± 40
	// ShedLeast: the least that falls from a whole head.
	ShedLeast = 50 // hairs/day; memory: advice of dermatologists’ associations
	// ShedMost: the most that falls from a whole head.
	ShedMost = 100 // hairs/day; memory: advice of dermatologists’ associations
	// HairDensity: the mass of hair by its volume.
	HairDensity = 1.3e-3 // g/mm³; memory: density of keratin
	// BallShare: how much of a loose ball of combed-out hair is hair.
	BallShare = 0.04 // share; common practice
	// BraidThick: a braid made by hand, as thick as a pencil.
	BraidThick = 8.0 // mm; common practice
	// BraidMass: its mass for its length: about 5 g at 24 in.
	BraidMass = 0.008 // g/mm; common practice
	// BraidsPerPack: bundles that a pack of braiding hair gives.
	BraidsPerPack = 16 // bundles/pack; common practice
	// FedMass: hair fed into the end of a plait, thin to its tip.
	FedMass = 0.003 // g/mm; common practice
	// FedFrom: how far a cornrow goes with own hair alone before hair is fed in.
	FedFrom = 13.0 // mm; common practice
	// FineStrand: the diameter of a hair under which plaits slip whatever the texture.
	FineStrand = 55.0 // µm; common practice
	// EdgeStrip: how wide tender edges are left out: baby hair and the first fine row of it.
	EdgeStrip = 8.0 // mm; common practice
)

// How long pieces hang ÷ their length drawn straight: twist, wave and curl spring up.
const (
	// HangsTwist: a pre-looped twist.
	HangsTwist = 0.96 // share; common practice
	// HangsBraid: a pre-looped braid.
	HangsBraid = 1.0 // share; common practice
	// HangsSoftLoc: a soft loc.
	HangsSoftLoc = 0.98 // share; common practice
	// HangsCoilLoc: a coil loc.
	HangsCoilLoc = 0.96 // share; common practice
	// HangsHandmadeLoc: a loc made by hand.
	HangsHandmadeLoc = 1.0 // share; common practice
	// HangsBulk: bulk hair.
	HangsBulk = 0.95 // share; common practice
	// HangsCurlyBulk: curly bulk hair.
	HangsCurlyBulk = 0.8 // share; common practice
	// HangsBraidingHair: braiding hair.
	HangsBraidingHair = 1.0 // share; common practice
)
