package wear

import (
	"fmt"
	"math"
	"slices"

	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/method"
)

// Guide is how a head comes off.
type Guide struct {
	// Areas come off in this order, the back first.
	Areas []Area      `json:"areas"`
	Parts []GuidePart `json:"parts"`
	// Off, Base, Comb and Wash are the minutes to take the pieces off, to undo plaits and cornrows, to
	// get shed hair and build-up out, and to detangle and wash; Total is their sum.
	Off   float64 `json:"offMin"`
	Base  float64 `json:"baseMin"`
	Comb  float64 `json:"combMin"`
	Wash  float64 `json:"washMin"`
	Total float64 `json:"totalMin"`
	Shed  Shed    `json:"shed"`
	// Mark is the longest distance from a root above which no piece is cut through, mm; 0 where none is.
	Mark float64 `json:"markMm"`
	// Before, After and Worry are what is done before the first piece, once all are off, and what is
	// no shed hair any more.
	Before []string `json:"before"`
	After  []string `json:"after"`
	Worry  []string `json:"worry"`
	// Rest is how many days own hair and scalp rest before the next install, and why.
	Rest    int    `json:"restDays"`
	RestWhy string `json:"restWhy"`
}

// GuidePart is how one piece comes off.
type GuidePart struct {
	Piece    string        `json:"piece" doc:"Key of the piece"`
	Name     string        `json:"name"`
	Method   method.ID     `json:"method"`
	Way      string        `json:"way" doc:"Name of the method"`
	Places   int           `json:"places"`
	Pieces   int           `json:"pieces"`
	CutBelow float64       `json:"cutBelowMm"`
	Steps    []method.Step `json:"steps"`
	// Back is how many of its pieces usually come back whole.
	Back int `json:"usuallyBack"`
}

// comesBack is how many of a part usually come back.
func comesBack(p Part) int {
	m, _ := method.Lookup(p.Method)
	switch {
	case !m.Whole() || p.Form == hair.BraidingHair:
		return 0
	case p.Form == hair.HandmadeLoc:
		return int(math.Round(craft.WholeBack * float64(p.Pieces)))
	}
	return int(math.Round(craft.HookedBack * float64(p.Pieces)))
}

// Takedown is how a head comes off after days of wear.
func (b *Brief) Takedown(days int) Guide {
	g := Guide{Areas: []Area{}, Parts: []GuidePart{}, Shed: b.ShedIn(days)}
	factor := b.factor()
	for _, a := range b.Areas {
		a.Off *= factor
		g.Areas = append(g.Areas, a)
		g.Off += a.Off
	}
	// The end of own hair has grown away from the scalp; what grows fast counts.
	grown := b.mostGrown(days)
	comb := craft.CombTime
	for _, onBase := range []bool{true, false} { // what lies on the base comes off first
		for _, p := range b.Parts {
			if (p.Ground != method.OnPlait) != onBase {
				continue
			}
			if onBase {
				comb += craft.CombHook * float64(p.Places)
			} else {
				comb += craft.CombEach * float64(p.Places)
			}
			m, _ := method.Lookup(p.Method)
			part := GuidePart{p.Key, p.Name, p.Method, m.Name, p.Places, p.Pieces, p.CutBelow, p.TakesDown, comesBack(p)}
			if p.CutBelow > 0 {
				part.CutBelow += grown
				part.Steps = marked(p.TakesDown, grown)
			}
			g.Parts = append(g.Parts, part)
			g.Mark = max(g.Mark, part.CutBelow)
		}
	}
	g.Base = b.Base * factor
	g.Comb = comb * (1 + craft.CombWeekly*float64(days)/7) * factor
	g.Wash = craft.TakenWash * factor
	g.Total = g.Off + g.Base + g.Comb + g.Wash
	g.Before = []string{
		"Sit at a table with good light, a bowl for cuffs and one for pieces to use again.",
		"Clip all away but the lowest row at the back.",
		"Start at the back, at the nape, and go up and forward; the hairline comes last, when hands know how it gives.",
	}
	if g.Mark > 0 {
		g.Before = append(g.Before,
			"Before the first cut mark every piece an inch below where own hair ends: felt with two fingers, not guessed.",
			"Cut a piece through only below its mark: above it own hair runs inside.")
	}
	g.Before = append(g.Before,
		"Snip a loop, a fold or a turn of wrapping hair only where a step says so.",
		"Lift it clear of own hair on the tail of a comb, both blades in sight.",
		"Where no light shows between the two, undo it with the fingers.")
	if g.Total > craft.LongTakeoff {
		g.Before = append(g.Before, "It is long: split it over two evenings, open hair tied up loosely overnight, or ask for a helper.")
	}
	g.After = []string{
		"Dry, before any water: crumble the grey build-up at each root between two fingertips with a drop of oil.",
		"Hold the root, and slide the loose hair out towards the tip; then the next one. Wet, it mats.",
		"The edges first, with fingers alone, no comb.",
		"Mist with water and a little conditioner, detangle in sections from the tip up, wide comb last.",
		"Wash scalp and hair, condition, rinse, dry fully.",
	}
	g.Worry = []string{
		"Hairs with a tiny pale bulb at one end were shed and were due. They come evenly from all over.",
		"A handful from one place, bare patches, or short broken hairs along the edges: rest, and ask a clinician.",
	}
	g.Rest, g.RestWhy = b.Rest(days, "", "")
	return g
}

// marked are the moves in which a piece comes off, the mark on it moved down by what has grown out.
func marked(steps []method.Step, grown float64) []method.Step {
	out := slices.Clone(steps)
	lengths := make(map[string]float64, len(out[0].Lengths))
	for k, mm := range out[0].Lengths {
		lengths[k] = mm + grown
	}
	out[0].Lengths = lengths
	return out
}

// Rest is how many days own hair and scalp rest after days of wear, and why.
func (b *Brief) Rest(days int, felt Comfort, edges Change) (int, string) {
	weeks := (days + 3) / 7
	switch {
	case edges == Worse || felt == Painful:
		return craft.RestHurt, "The edges thinned, or it hurt: at least four weeks without anything that pulls. See a clinician if it does not mend."
	case b.Edges == hair.FragileEdges || b.Edges == hair.BareEdges || b.Tender || weeks > 8:
		return craft.RestLong, fmt.Sprintf("After %s, with %s: two weeks to rest, washed and conditioned at least twice.", worn(days), b.delicate(weeks))
	case weeks > 4:
		return craft.RestUsual, fmt.Sprintf("After %s: a week to rest, washed and conditioned.", worn(days))
	}
	return craft.RestShort, fmt.Sprintf("After %s: wash, condition, and let the scalp breathe for some days.", worn(days))
}

// worn says for how long a head was worn.
func worn(days int) string {
	if days < 7 {
		return "less than a week"
	}
	return weeks((days + 3) / 7)
}

// delicate is why a head rests for longer.
func (b *Brief) delicate(weeks int) string {
	switch {
	case b.Edges == hair.FragileEdges || b.Edges == hair.BareEdges:
		return "edges that are not strong"
	case b.Tender:
		return "a tender scalp"
	}
	return "so long a wear"
}

// Renewal is what doing the outer rows again would cost and bring.
type Renewal struct {
	Rows    int     `json:"rows"`
	Places  int     `json:"places"`
	Pieces  int     `json:"pieces"`
	Minutes float64 `json:"minutes" doc:"Minutes of practised hands to take off, part, plait and attach, on this head"`
	Weeks   int     `json:"weeks" doc:"Weeks gained"`
	// Pays is true where it is worth it, Why says why or why not.
	Pays bool   `json:"pays"`
	Why  string `json:"why"`
}

// Renewals are doing the outer row again, and both, after days of wear; empty where no pieces hang
// loose at the hairline.
func (b *Brief) Renewals(days int, s *State, c Clock) []Renewal {
	out := []Renewal{}
	if b.Ring[0].Places < craft.FewestRing {
		return out
	}
	row := func(k int) (r Renewal) {
		for i := range k {
			r.Places += b.Ring[i].Places
			r.Pieces += b.Ring[i].Pieces
			r.Minutes += b.Ring[i].Minutes * b.factor()
		}
		r.Rows, r.Weeks = k, max(0, min(gained[k], c.protected-c.base))
		return r
	}
	one := row(1)
	grown, _ := b.GrownIn(days)
	switch {
	case s.RenewedOn >= 0 && days-s.RenewedOn < craft.RingAfter:
		one.Why = "It was done again a short while ago."
	case c.State == Over:
		one.Why = "The head is past its day: take it down, a new ring would hold old hair longer."
	case one.Weeks < 1 && c.protected < craft.LongestWeeks:
		one.Why = fmt.Sprintf("It would gain nothing: this head rests after %s, however new its ring looks.", weeks(c.protected))
	case one.Weeks < 1:
		one.Why = "It is worn as long as anything is worn already."
	case days < craft.RingAfter:
		one.Why = fmt.Sprintf("Only %.0f mm have grown out: put back what is loose, and wait.", grown)
	default:
		one.Pays = true
		one.Why = fmt.Sprintf("%.0f mm have grown out; the ring is what is seen, and the rest holds.", grown)
	}
	out = append(out, one)
	if b.Ring[1].Places == 0 {
		return out
	}
	two := row(2)
	more := two.Minutes - one.Minutes
	extra := two.Weeks - one.Weeks
	switch {
	case !one.Pays:
		two.Why = one.Why
	case extra < 1:
		two.Why = "The second row would gain nothing more."
	case grown < craft.ShowsGrown:
		two.Why = "The second row is still covered by the first."
	case more/float64(extra) > craft.WeekCosts*one.Minutes/float64(one.Weeks):
		two.Why = fmt.Sprintf("%.0f min more for %s more; a week of the ring costs %.0f. It does not pay.", more, weeks(extra), one.Minutes/float64(one.Weeks))
	default:
		two.Pays = true
		two.Why = fmt.Sprintf("%.0f min more for %s more.", more, weeks(extra))
	}
	return append(out, two)
}

func weeks(n int) string {
	if n == 1 {
		return "1 week"
	}
	return fmt.Sprintf("%d weeks", n)
}
