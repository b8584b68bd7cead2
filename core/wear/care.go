package wear

import (
	"fmt"
	"math"
	"slices"

	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/method"
)

// Care is one thing the client does, or leaves, while the head is worn.
type Care struct {
	Key   string `json:"key"`
	Title string `json:"title"`
	Text  string `json:"text"`
	// Every is after how many days it comes again; 0 for what is no matter of days.
	Every int `json:"everyDays"`
	// Avoid is true for what is left.
	Avoid bool `json:"avoid"`
}

// nightly is the rhythm of what is done every night, days.
const nightly = 1

// piece is what hangs there, as far as its ends and its fibre go.
func (p Part) piece() hair.Piece { return hair.Piece{Form: p.Form, Ends: p.Ends, Fibre: p.Fibre} }

// looped tells whether a curl hangs below a braid that was hooked on: it slides along the braid and mats first.
func (p Part) looped() bool { return p.Form == hair.Braid && p.piece().Open() }

// Care is what the client does while the head is worn, in the order of a day: for the methods, the
// water it gets, the pieces and the hairline at hand. Common practice, no source.
func (b *Brief) Care() []Care {
	out := []Care{
		{Key: "night", Title: "Every night", Every: nightly,
			Text: "Lay the pieces loosely to one side or over the pillow, never tight, and nothing drawn up. A satin or silk scarf over the edges, a bonnet over all of it. A headband keeps a scarf from slipping; it lies on the forehead, not on the hairline."},
	}
	switch b.Water {
	case method.Dry:
		out = append(out, Care{Key: "wash", Title: "Washing", Avoid: true,
			Text: "Keep it dry: water undoes what is twined. A cap in the shower and in the rain. Wipe the parts with a damp cloth on a fingertip, and let them dry."})
	case method.Swim:
		out = append(out,
			Care{Key: "swim", Title: "After the water", Text: "Rinse with fresh water at once, roots first, so that neither salt nor pool water dries in. Press it out in a towel, never wring it."},
			b.rootsOnly())
	default:
		out = append(out, b.rootsOnly())
	}
	if b.Water != method.Dry {
		out = append(out, Care{Key: "dry", Title: "Dry it fully", Text: fmt.Sprintf(
			"Wet it weighs about %.0f g instead of %.0f g: hold it in a towel while it drips, and let nothing hang free. Then moving air, cool, at the roots until they are dry to the touch: two hours or more. Never to bed, nor under a scarf, while it is damp.",
			roundTo(craft.Soaked*b.Mass, 10), roundTo(b.Mass, 10))})
	}
	out = append(out, Care{Key: "scalp", Title: "The scalp", Every: craft.RinseEvery, Text: "A few drops of light oil, or a diluted rinse, from a nozzle along the parts; press it in with the fingertips, no nails. Little: what builds up at the root mats."})
	if slices.ContainsFunc(b.Parts, func(p Part) bool { return p.piece().Open() }) {
		out = append(out, Care{Key: "curls", Title: "Curly and loose ends", Every: nightly, Text: "At the nape, every day: take the ends apart by hand, one piece at a time, from the tip upward. No brush, no comb. No heavy cream or oil on them, and no hot water: both mat them. Ends that have matted are cut off, not combed."})
	}
	if slices.ContainsFunc(b.Parts, Part.looped) {
		out = append(out, Care{Key: "looped-curls", Title: "Curls below braids", Every: craft.CurlEvery, Text: "On braids that were hooked on, curls mat at the nape within days: look there from the third day on, and cut a knot out before it takes in its neighbours."})
	}
	if slices.ContainsFunc(b.Parts, func(p Part) bool { return p.piece().Natural() }) {
		out = append(out, Care{Key: "natural", Title: "Human hair", Text: "Treat it as your own: lukewarm water, a little conditioner from the middle down, no hot water. It slips more than fibre: an end that comes loose is put back the same day."})
	}
	out = append(out,
		Care{Key: "elastics", Title: "No elastics", Avoid: true, Text: "Nothing tight to tie it up: a strip of cloth or a large soft clip. Not up at all in the first week, and never twice in the same place."},
		Care{Key: "heat", Title: "Heat and flame", Avoid: true, Text: "Fibre melts: no irons, no hot dryer, care at candles, grills and ovens."},
	)
	if b.Edges != hair.StrongEdges || b.Tender {
		out = append(out, Care{Key: "edges", Title: "The edges", Text: "Leave them be: no gel every day, no brush, no headband on the hairline. Let the scarf lie loosely there."})
	}
	if b.Child {
		out = append(out, Care{Key: "child", Title: "For whoever looks after the child", Text: "Look at the edges and the nape once a week, and ask every time whether anything hurts. Swimming and sport: a loose cap, and dry it afterwards."})
	}
	return append(out, Care{Key: "call", Title: "When to get in touch", Text: "It should not hurt. Pain, bumps, stinging, or a face that feels drawn up: have it loosened the same day. Sores, or hair that comes out in patches: see a clinician. A rash that spreads, swelling or short breath: a clinician today, and it comes down today. Itching that stays, an odour, flakes or roots that mat: come sooner than planned."})
}

func (b *Brief) rootsOnly() Care {
	return Care{Key: "wash", Title: "Wash the roots only", Every: craft.WashEvery,
		Text: "Shampoo diluted one to ten, from a bottle with a nozzle, along the parts only; fingertips, not nails. Let the water run down the pieces, do not rub them. Rinse until it runs clear."}
}

func roundTo(v, step float64) float64 { return step * math.Round(v/step) }

// Told is what a client is told of a head: how to look after it, for how many weeks it is worn, and what
// sets that. Every paper, page and message that speaks of either says this.
type Told struct {
	Care []Care `json:"care"`
	Weeks
	// Why is what decides the weeks.
	Why string `json:"why"`
}

// Told is what a client is told of a head that was not looked over yet, by a house's rules.
func (b *Brief) Told(r Rules) Told {
	return b.ToldBy(b.Clock(r, b.Fold(nil, nil), 0))
}

// ToldBy is the same once it is worn: by its clock.
func (b *Brief) ToldBy(c Clock) Told {
	t := Told{Care: b.Care(), Weeks: Weeks{(c.From + 6) / 7, (c.Planned + 6) / 7}}
	for _, x := range c.Reasons {
		if x.Decides {
			t.Why = x.Text
		}
	}
	return t
}

// Says is for how long it is worn, in a sentence.
func (t Told) Says() string {
	long := weeks(t.Most)
	if t.Least < t.Most {
		long = fmt.Sprintf("%d to %s", t.Least, long)
	}
	return fmt.Sprintf("Worn for %s, and taken down by then: %s.", long, lower(t.Why))
}

// Lines are all of it, a line each.
func (t Told) Lines() []string {
	out := make([]string, 0, len(t.Care)+1)
	for _, c := range t.Care {
		out = append(out, c.Title+": "+c.Text)
	}
	return append(out, t.Says())
}

// DateDown is the key of the day of the taking down.
const DateDown = "down"

// Date is a day on which something is due while a head is worn, in days since the last check.
type Date struct {
	Day   int    `json:"day"`
	Key   string `json:"key"`
	Title string `json:"title"`
}

// Dates are the looks, the washing days and the day of the taking down.
func (b *Brief) Dates(c Clock) []Date {
	var out []Date
	for _, d := range b.Looks(c.Planned) {
		if d < c.Planned {
			out = append(out, Date{d, "look", "Check scalp, edges and roots"})
		}
	}
	for _, care := range b.Care() {
		for d := care.Every; care.Key == "wash" && d > 0 && d < c.Planned-craft.WashEvery/2; d += care.Every {
			out = append(out, Date{d, "wash", "Wash the roots, and dry them fully"})
		}
	}
	slices.SortStableFunc(out, func(a, b Date) int { return a.Day - b.Day })
	return append(out, Date{c.Planned, DateDown, "Take it down"})
}
