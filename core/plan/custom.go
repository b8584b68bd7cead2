package plan

// Custom is a question on which good practitioners disagree and for which a plan has no
// other setting: its side shows in what is said before, while and after pieces go on.
type Custom struct {
	Key, Ask string
	Usual    string // key of the usual side
	Sides    []CustomSide
}

// CustomSide is one answer: what speaks for it; what is done for it before the first piece and
// after the last one, a step each; and what must be at hand for it. Each may be empty.
type CustomSide struct {
	Key, Name, Reason string
	Before, After     []string
	Ready             []string
}

// Keys of the customs that more than words follow from.
const (
	Moisture = "moisture"
	Start    = "start"
	Airiness = "density"
	Stretch  = "stretch"
	Rinse    = "rinse"
	Origin   = "pieces"
	Product  = "product"
	Neatness = "neat"
	Knots    = "knots"
	Foam     = "foam"
)

// Sides of them that more than words follow from.
const (
	CrispShown = "shown"
	CrispAll   = "all"
	RoughParts = "rough"
	CurlLeft   = "curl"
	Blown      = "blown"
	KnotsRough = "rough"
)

// Customs are all such questions in the order they come up at work. Common practice, no
// source.
var Customs = []Custom{
	{Stretch, "Own hair before it is parted", "stretched", []CustomSide{
		{
			Key: "stretched", Name: "Washed, dried and stretched", Reason: "It parts clean, plaits longer and shrinks less under the pieces",
			Before: []string{washed, "Work a little leave-in through, let it dry, and stretch it by hand or with the least heat that does."},
			Ready:  []string{"leave-in"},
		},
		{
			Key: CurlLeft, Name: "Washed, the curl left", Reason: "No heat and no pull; the plaits come out shorter",
			Before: []string{washed, "Work a little leave-in through and let it dry; the curl stays. Its plaits come out shorter."},
			Ready:  []string{"leave-in"},
		},
		{
			Key: Blown, Name: "Washed, blow-dried", Reason: "Straight and dry the same day, the plaits come out longest; heat dries hair out",
			Before: []string{
				washed, "Work leave-in through. Blow-dry on the least heat that does, the nozzle moving, never resting or near the scalp.",
			},
			Ready: []string{"leave-in", "a hair dryer"},
		},
	}},
	{Rinse, "New hair", "rinsed", []CustomSide{
		{
			Key: "rinsed", Name: "Rinsed, dried overnight", Reason: "Coatings on unwashed fibre irritate some scalps",
			Before: []string{"Soak the new hair two hours, rinse until the water stays clear, and dry it overnight."},
		},
		{
			Key: "new", Name: "Used as it comes", Reason: "Quicker, and it keeps its set",
			Before: []string{"The new hair is not rinsed: lay a strand behind an ear for a day first.", "Itching or redness: rinse it, and with a rash ask a clinician."},
		},
	}},
	{"colour", "Colour", "roots", []CustomSide{
		{
			Key: "roots", Name: "Matched to the roots", Reason: "The join is what is seen first",
			Before: []string{"Hold each piece against the roots in daylight, not against the lengths."},
		},
		{
			Key: "lengths", Name: "Matched to the lengths", Reason: "Where own hair hangs out among the pieces",
			Before: []string{"Hold each piece against the lengths in daylight."},
		},
		{
			Key: "mixed", Name: "Mixed on purpose", Reason: "A lively head; an exact match is not needed",
			Before: []string{"Lay the colours out and mix them before the first piece, so that they come evenly."},
		},
	}},
	{Origin, "Pieces", "bought", []CustomSide{
		{Key: "bought", Name: "Bought", Reason: "Ready, and all alike"},
		{
			Key: "made", Name: "Made by hand", Reason: "Fully reusable, at the length and thickness wished",
			Before: []string{"Make the pieces first; the first of each length is the guide for the others."},
			Ready:  []string{"cord or hair for the bases", "wrapping hair"},
		},
	}},
	{Product, "Product at the parts", "gel", []CustomSide{
		{
			Key: "gel", Name: "Firm gel or pomade, sparing", Reason: "Crisp parts; little of it leaves little residue",
			Before: []string{"A little firm gel or pomade along the parts, no more than shows: residue builds up."},
			Ready:  []string{"firm gel or pomade"},
		},
		{
			Key: "wax", Name: "A balm of wax", Reason: "Kinder over a long wear",
			Before: []string{"A thin balm of wax along the parts, warmed between the fingers."},
			Ready:  []string{"a balm of wax"},
		},
		{Key: "none", Name: "None", Reason: "Nothing to wash out; parts soften sooner"},
	}},
	{Neatness, "Parts", CrispShown, []CustomSide{
		{
			Key: CrispShown, Name: "Crisp where they show, quick where covered", Reason: "Nobody sees the parts behind",
			Before: []string{"Take time for the parts at the hairline and along the part; those behind are covered."},
		},
		{
			Key: CrispAll, Name: "All crisp", Reason: "Every view bears looking at, updos too; the parts behind take longer",
			Before: []string{"Part every row with the tail of a comb and clips, those behind too: allow more time."},
		},
		{
			Key: RoughParts, Name: "Irregular on purpose", Reason: "As if grown in: free-hand parts, quicker to draw",
			Before: []string{"Part by hand, no comb: counts still matter, straightness does not."},
		},
	}},
	{Start, "Where the first piece goes", "back", []CustomSide{
		{Key: "back", Name: "Back corner first, front last", Reason: "What hangs already stays out of the way"},
		{Key: "front", Name: "The front first", Reason: "A design is set while hand and eye are fresh"},
	}},
	{Moisture, "While hooking", "damp", []CustomSide{
		{Key: "damp", Name: "Damp", Reason: "The hook does not snag", Ready: []string{"a spray bottle of water"}},
		{Key: "dry", Name: "Dry", Reason: "Water undoes what is twined; it is slower where the hook snags"},
	}},
	{Airiness, "On a base", "air", []CustomSide{
		{
			Key: "air", Name: "Air between the pieces, filled afterwards", Reason: "Lighter, and fewer pieces",
			After: []string{"Look for thin spots from all sides and fill them."},
		},
		{Key: "packed", Name: "Packed, so that no cornrow shows", Reason: "Nothing to fill afterwards; heavier"},
	}},
	{Knots, "Knots of loose hair", "left", []CustomSide{
		{Key: "left", Name: "Left as they are", Reason: "Quick; the hair falls over them"},
		{
			Key: KnotsRough, Name: "Roughed up", Reason: "No knot shows where the hair parts; a while for a whole head",
			After: []string{"Draw a few hairs out at each knot and rough them up with the fingers: no knot shows."},
		},
	}},
	{Foam, "Setting foam", "minutes", []CustomSide{
		{
			Key: "minutes", Name: "Some minutes under a scarf", Reason: "Flyaways lie flat before you go",
			After: []string{"A little setting foam over all; some minutes under a scarf, then let it dry."},
			Ready: []string{"setting foam", "a scarf"},
		},
		{
			Key: "night", Name: "Overnight under a scarf", Reason: "It sets deeper, and nobody waits at the chair",
			After: []string{"Setting foam over all, a scarf, and leave it on overnight."},
			Ready: []string{"setting foam", "a scarf"},
		},
		{Key: "none", Name: "None", Reason: "Nothing builds up; flyaways stay"},
	}},
}

// washed is how own hair is got ready, whatever comes after it.
const washed = "Wash own hair and detangle it, tips first."
