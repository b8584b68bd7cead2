package craft

// What hangs on hair and on a head. No safe limit is published.
const (
	// UsualLoad: what is commonly hung: a piece of 4 g on the section of an inch at 190 hairs per cm².
	UsualLoad = 3.3 // mg/hair; common practice
	// HeavyLoad: from where it is heavy.
	HeavyLoad = 2 * UsualLoad // mg/hair; common practice
	// TooHeavyLoad: from where it is too heavy.
	TooHeavyLoad = 4 * UsualLoad // mg/hair; common practice
	// HeavyHead: what heads carry at the most, 150 g at the least.
	HeavyHead = 600.0 // g; common practice
	// FewNecks: what few necks bear.
	FewNecks = 900.0 // g; common practice
	// GentleShare: how much of that a child, a tender scalp and fragile edges bear.
	GentleShare = 2.0 / 3 // share; common practice
	// NearlyHeavy: how much of what is heavy is told to a head that bears less.
	NearlyHeavy = 0.75 // share; common practice
	// LongShare: the longest piece, as it hangs, that is kind to a head that bears little: to about the mid-back.
	LongShare = 0.36 // share of stature; common practice
	// Soaked: how much heavier a wet install is, until it was weighed.
	Soaked = 2.0 // times; common practice
)
