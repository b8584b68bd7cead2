package craft

// Usual weeks of wear by structure; a method says its own.
const (
	// LeastAllWeeks: that individuals all over are worn at the least.
	LeastAllWeeks = 6 // weeks; common practice
	// MostAllWeeks: and at the most.
	MostAllWeeks = 8 // weeks; common practice
	// LeastEarToEarWeeks: that individuals in front, cornrows behind are worn at the least.
	LeastEarToEarWeeks = 6 // weeks; common practice
	// MostEarToEarWeeks: and at the most.
	MostEarToEarWeeks = 8 // weeks; common practice
	// LeastPerimeterWeeks: that a ring of individuals is worn at the least.
	LeastPerimeterWeeks = 4 // weeks; common practice
	// MostPerimeterWeeks: and at the most.
	MostPerimeterWeeks = 6 // weeks; common practice
	// LeastHorseshoeWeeks: that individuals beside the part are worn at the least.
	LeastHorseshoeWeeks = 6 // weeks; common practice
	// MostHorseshoeWeeks: and at the most.
	MostHorseshoeWeeks = 8 // weeks; common practice
	// LeastPartLineWeeks: that few individuals at the part are worn at the least.
	LeastPartLineWeeks = 4 // weeks; common practice
	// MostPartLineWeeks: and at the most.
	MostPartLineWeeks = 6 // weeks; common practice
	// LeastLinkedWeeks: that linked plaits are worn at the least.
	LeastLinkedWeeks = 4 // weeks; common practice
	// MostLinkedWeeks: and at the most.
	MostLinkedWeeks = 6 // weeks; common practice
	// LeastNetWeeks: that a net is worn at the least.
	LeastNetWeeks = 4 // weeks; common practice
	// MostNetWeeks: and at the most.
	MostNetWeeks = 6 // weeks; common practice
	// LeastDesignWeeks: that cornrows that are meant to be seen are worn at the least.
	LeastDesignWeeks = 3 // weeks; common practice
	// MostDesignWeeks: and at the most.
	MostDesignWeeks = 5 // weeks; common practice
)

// What a head that bears less is worn at the most, and what doing rows again gains.
const (
	// ChildWeeks: of a child.
	ChildWeeks = 4 // weeks; common practice
	// FragileWeeks: on fragile edges.
	FragileWeeks = 6 // weeks; common practice
	// BareWeeks: on bare edges.
	BareWeeks = 4 // weeks; common practice
	// TenderWeeks: on a tender scalp.
	TenderWeeks = 6 // weeks; common practice
	// SwimWeeks: in the water every day: it is never quite dry.
	SwimWeeks = 6 // weeks; common practice
	// LongestWeeks: whatever the head.
	LongestWeeks = 16 // weeks; common practice
	// FewPlaces: of all places below which a method does not decide how long a head is worn.
	FewPlaces = 0.05 // share; common practice
	// WithCare: the usual weeks, of a house that goes beyond them on strong edges.
	WithCare = 2 // times; common practice
	// RowGains: gained by doing the outer row again.
	RowGains = 3 // weeks; common practice
	// RowsGain: gained by doing both outer rows again.
	RowsGain = 5 // weeks; common practice
)

// Looking after it.
const (
	// FirstLook: after which it is looked over first: pull shows in two days.
	FirstLook = 2 // days; common practice
	// SecondLook: after which again.
	SecondLook = 7 // days; common practice
	// LookEvery: from then on.
	LookEvery = 14 // days; common practice
	// CloseLooks: the same of a child, a tender scalp and edges that are not strong.
	CloseLooks = 7 // days; common practice
	// LookAgain: after which a sign is looked at again.
	LookAgain = 3 // days; common practice
	// LookEarly: before a check is due that one counts as it.
	LookEarly = 2 // days; common practice
	// WashEvery: from one wash to the next.
	WashEvery = 10 // days; common practice
	// CurlEvery: after how many days curls below hooked braids are looked at.
	CurlEvery = 3 // days; common practice
	// RinseEvery: from one rinse or oiling of the scalp to the next.
	RinseEvery = 4 // days; common practice
	// FreshMatting: before which matting is loosened by hand rather than taken down.
	FreshMatting = 28 // days; common practice
	// RingAfter: before which a ring is no older than the rest looks.
	RingAfter = 21 // days; common practice
	// FewestRing: below which there is no ring to speak of.
	FewestRing = 6 // places; common practice
	// ShowsGrown: grown out from where the second row is seen too.
	ShowsGrown = 10.0 // mm; common practice
	// WeekCosts: that a week gained by the second row may cost of one gained by the first.
	WeekCosts = 2 // times; common practice
)

// Taking it down, and rest.
const (
	// CombTime: to crumble build-up and slide out shed hair, whatever the head.
	CombTime = 12.0 // min; common practice
	// CombEach: more for each plait.
	CombEach = 0.25 // min/plait; common practice
	// CombHook: more for each piece hooked on a base.
	CombHook = 0.05 // min/piece; common practice
	// CombWeekly: more of it for every week.
	CombWeekly = 0.06 // share/week; common practice
	// TakenWash: to detangle damp, wash and condition.
	TakenWash = 45.0 // min; common practice
	// LongTakeoff: from where a second sitting or second hands are advised.
	LongTakeoff = 240.0 // min; common practice
	// HookedBack: of hooked pieces that come back whole.
	HookedBack = 0.85 // share; common practice
	// WholeBack: of pieces made by hand that come back whole.
	WholeBack = 0.95 // share; common practice
	// RestShort: of rest after up to four weeks.
	RestShort = 3 // days; common practice
	// RestUsual: after up to eight.
	RestUsual = 7 // days; common practice
	// RestLong: after more, or where the edges are not strong.
	RestLong = 14 // days; common practice
	// RestHurt: where it hurt or the edges thinned.
	RestHurt = 28 // days; common practice
)
