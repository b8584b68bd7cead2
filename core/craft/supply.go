package craft

// Spares, and how often hair is worn.
const (
	// Spoilt: of pieces torn, tangled or dropped.
	Spoilt = 0.02 // share; common practice
	// ShortPacks: of packs that hold one piece less than their label says.
	ShortPacks = 0.05 // share; common practice
	// RoundsSynthetic: that synthetic hair stands.
	RoundsSynthetic = 2 // wearings; common practice
	// RoundsBlend: that a blend stands.
	RoundsBlend = 3 // wearings; common practice
	// RoundsHuman: that human hair stands.
	RoundsHuman = 6 // wearings; common practice
	// MuchLonger: the plan, from where a log says that it took long.
	MuchLonger = 1.2 // times; common practice
	// MuchShorter: the plan, under which it says that it went fast.
	MuchShorter = 0.83 // times; common practice
	// MuchSpoilt: of pieces spoilt from where it is told.
	MuchSpoilt = 0.04 // share; common practice
)
