package plan

// Custom is a question on which good practitioners disagree and for which a plan has no
// other setting: its side shows in what is said before, while and after pieces go on.
type Custom struct {
	Key, Ask string
	Usual    string // key of the usual side
	Sides    []CustomSide
}

// CustomSide is one answer: what speaks for it, and what is done for it before the first
// piece and after the last one; empty for nothing.
type CustomSide struct {
	Key, Name, Reason string
	Before, After     string
}

// Keys of the customs that more than words follow from.
const (
	Moisture = "moisture"
	Start    = "start"
	Airiness = "density"
	Stretch  = "stretch"
	Rinse    = "rinse"
	Origin   = "pieces"
)

// Customs are all such questions in the order they come up at work. Common practice, no
// source.
var Customs = []Custom{
	{Stretch, "Own hair before it is parted", "stretched", []CustomSide{
		{"stretched", "Washed, dried and stretched", "It parts clean, plaits longer and shrinks less under the pieces", "Wash the own hair, dry it and stretch it, by hand or with the least heat that does.", ""},
		{"curl", "Washed, the curl left", "No heat and no pull; the plaits come out shorter", "Wash and detangle the own hair and dry it; the curl stays. Its plaits come out shorter than combed out.", ""},
	}},
	{Rinse, "New hair", "rinsed", []CustomSide{
		{"rinsed", "Rinsed, dried overnight", "Coatings on unwashed fibre irritate some scalps", "Soak the new hair two hours, rinse until the water stays clear, and dry it overnight.", ""},
		{"new", "Used as it comes", "Quicker, and it keeps its set", "The new hair is not rinsed: lay a strand behind an ear for a day first. Itching or redness: rinse it, and with a rash ask a clinician.", ""},
	}},
	{"colour", "Colour", "roots", []CustomSide{
		{"roots", "Matched to the roots", "The join is what is seen first", "Hold each piece against the roots in daylight, not against the lengths.", ""},
		{"lengths", "Matched to the lengths", "Where the own hair hangs out among the pieces", "Hold each piece against the lengths in daylight.", ""},
		{"mixed", "Mixed on purpose", "A lively head; an exact match is not needed", "Lay the colours out and mix them before the first piece, so that they come evenly.", ""},
	}},
	{Origin, "Pieces", "bought", []CustomSide{
		{"bought", "Bought", "Ready, and all alike", "", ""},
		{"made", "Made by hand", "Fully reusable, at the length and thickness wished", "Make the pieces first; the first of each length is the guide for the others.", ""},
	}},
	{"product", "Product at the parts", "gel", []CustomSide{
		{"gel", "Firm gel or pomade, sparing", "Crisp parts; little of it leaves little residue", "A little firm gel or pomade along the parts, no more than shows: residue builds up.", ""},
		{"wax", "A balm of wax", "Kinder over a long wear", "A thin balm of wax along the parts, warmed between the fingers.", ""},
		{"none", "None", "Nothing to wash out; parts soften sooner", "", ""},
	}},
	{"neat", "Parts", "shown", []CustomSide{
		{"shown", "Crisp where they show, quick where covered", "Nobody sees the parts behind", "Take time for the parts at the hairline and along the part line; those behind are covered.", ""},
		{"all", "All crisp", "Every view bears looking at, updos too", "Part every row with the tail of a comb and clips, those behind too: allow more time.", ""},
		{"rough", "Irregular on purpose", "As if grown in", "Part by hand, no comb: counts still matter, straightness does not.", ""},
	}},
	{Start, "Where the first piece goes", "back", []CustomSide{
		{"back", "Back corner first, front last", "What hangs already stays out of the way", "", ""},
		{"front", "The front first", "A design is set while hand and eye are fresh", "", ""},
	}},
	{Moisture, "While hooking", "damp", []CustomSide{
		{"damp", "Damp", "The hook does not snag", "", ""},
		{"dry", "Dry", "Water undoes what is twined", "", ""},
	}},
	{Airiness, "On a base", "air", []CustomSide{
		{"air", "Air between the pieces, filled afterwards", "Lighter, and fewer pieces", "", "Look for thin spots from all sides and fill them."},
		{"packed", "Packed, so that no cornrow shows", "Nothing to fill afterwards; heavier", "", ""},
	}},
	{"foam", "Setting foam", "minutes", []CustomSide{
		{"minutes", "Some minutes under a scarf", "Flyaways lie flat before you go", "", "A little setting foam over all; ten minutes under a scarf, then let it dry."},
		{"night", "Overnight under a scarf", "It sets deeper", "", "Setting foam over all, a scarf, and leave it on overnight."},
		{"none", "None", "Nothing builds up", "", ""},
	}},
}
