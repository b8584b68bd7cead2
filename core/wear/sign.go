package wear

import (
	"cmp"
	"fmt"
	"slices"

	"kladotex/core/craft"
	"kladotex/core/invalid"
)

// Grade is how much of a sign was found.
type Grade int

// The grades.
const (
	None Grade = iota
	Some
	Bad
)

// Sign is something to look for while a head is worn.
type Sign struct {
	Key string `json:"key"`
	Ask string `json:"ask"`
	// Where is where to look and how, Grades what each answer says, from none to bad.
	Where  string    `json:"where"`
	Grades [3]string `json:"grades"`
	// Since is the first day from which it is to be expected; before it it is asked last.
	Since int `json:"sinceDay"`

	// says is the advice on an answer, given the day.
	says func(g Grade, day int) []Advice
}

// Do is what an advice asks for, from the gravest.
type Do string

// What is asked for.
const (
	Clinician Do = "clinician"
	TakeDown  Do = "take-down"
	Loosen    Do = "loosen"
	Refresh   Do = "refresh"
	PutBack   Do = "put-back"
	Tend      Do = "tend"
)

// deeds are all of them, the gravest first.
var deeds = []Do{Clinician, TakeDown, Loosen, Refresh, PutBack, Tend}

// Advice is what to do about a sign.
type Advice struct {
	Do   Do     `json:"do" enum:"clinician,take-down,loosen,refresh,put-back,tend"`
	Sign string `json:"sign" doc:"Key of the sign it is about"`
	Text string `json:"text"`
	// Within is in how many days; 0 is today.
	Within int `json:"withinDays"`
	// day is that of the answer.
	day int
}

// either gives some the first, bad the second.
func either(some, bad []Advice) func(Grade, int) []Advice {
	return func(g Grade, _ int) []Advice {
		switch g {
		case Some:
			return some
		case Bad:
			return bad
		}
		return nil
	}
}

// signs are what is looked for. Common practice, no source; what hurts or breaks is for a clinician.
var signs = []Sign{
	{Key: "pulling", Ask: "Does it pull?", Since: 0, Where: "Temples, nape and along the part: look for bumps at the roots, press lightly beside them.",
		Grades: [3]string{"No", "It draws in places", "Pain, bumps or stinging"},
		says: either(
			[]Advice{{Do: Loosen, Text: "Loosen what draws, today: ease the hitch with the tail of a comb, or take those pieces off. It should be gone within two days."}},
			[]Advice{
				{Do: Loosen, Text: "Take off what hurts, today, and hang nothing there again this time."},
				{Do: Clinician, Text: "Pain, bumps or sores that stay for two days are for a clinician.", Within: 2},
			})},
	{Key: "sores", Ask: "Sore spots, or thinner edges?", Since: 0, Where: "Part the hair at the temples and behind the ears; compare the edges with the first picture.",
		Grades: [3]string{"No", "Thinner than before", "Sore, broken or bare"},
		says: either(
			[]Advice{{Do: TakeDown, Text: "Edges that thin want rest: take down the row at the hairline this week, and leave the edges out next time.", Within: 7}},
			[]Advice{
				{Do: TakeDown, Text: "Nothing hangs on sore, broken or bare skin: take it down there today, the rest within days.", Within: 1},
				{Do: Clinician, Text: "Broken skin, or hair that is lost in patches, is for a clinician.", Within: 2},
			})},
	{Key: "reaction", Ask: "A rash that spreads, swelling, or short breath?", Since: 0, Where: "Ask, and look at face, eyelids, neck and behind the ears: new hair and products can set it off within hours or days.",
		Grades: [3]string{"No", "A rash that stays where it is", "It spreads, swells, or breath is short"},
		says: either(
			[]Advice{
				{Do: TakeDown, Text: "A rash under new hair: take it down within two days, and wash scalp and neck with plain water.", Within: 2},
				{Do: Clinician, Text: "A rash that does not fade in two days is for a clinician.", Within: 2},
			},
			[]Advice{
				{Do: Clinician, Text: "A rash that spreads, swelling of the face, or short breath: a clinician today. Where breath is short or lips and tongue swell, call the emergency number now."},
				{Do: TakeDown, Text: "Take it down today: what sets it off must come off the skin."},
			})},
	{Key: "itching", Ask: "Does it itch?", Since: 7, Where: "Ask, and look at the scalp along two or three parts: red, dry or clear?",
		Grades: [3]string{"No", "Now and then", "All the time"},
		says: either(
			[]Advice{{Do: Tend, Text: "Rinse the roots, diluted, dry them fully, then a few drops of light oil along the parts. Never scratch with the comb."}},
			[]Advice{
				{Do: TakeDown, Text: "An itch that does not stop: take it down, and rinse new hair before the next time.", Within: 3},
				{Do: Clinician, Text: "An itch that stays once the hair is out is for a clinician.", Within: 7},
			})},
	{Key: "odour", Ask: "Any odour?", Since: 14, Where: "At the crown and the nape, once it is quite dry.",
		Grades: [3]string{"No", "Faintly", "Plainly, or musty"},
		says: either(
			[]Advice{{Do: Tend, Text: "Wash the roots and dry them fully with moving air, never under a scarf. Ask again in three days."}},
			[]Advice{{Do: TakeDown, Text: "Musty means damp that never left: take it down within two days, wash own hair and scalp, and throw the pieces away.", Within: 2}})},
	{Key: "flaking", Ask: "Flakes?", Since: 14, Where: "Along the parts: dry dust, or greasy and yellow?",
		Grades: [3]string{"No", "Dry dust, or product", "Thick, greasy or sore"},
		says: either(
			[]Advice{{Do: Tend, Text: "A diluted rinse by nozzle, then oil sparingly; use less product at the parts."}},
			[]Advice{
				{Do: TakeDown, Text: "Thick flakes want a scalp that can be washed: take it down within the week.", Within: 7},
				{Do: Clinician, Text: "Flakes that are greasy, thick or sore are for a clinician.", Within: 14},
			})},
	{Key: "matting", Ask: "Do roots mat together?", Since: 28, Where: "Lift neighbouring pieces at the nape and behind the ears: do their roots come apart freely?",
		Grades: [3]string{"No", "A few cling together", "Roots are grown together"},
		says: func(g Grade, day int) []Advice {
			switch {
			case g == Bad:
				return []Advice{{Do: TakeDown, Text: "Roots that have grown together get harder to undo by the day: take it down within three days, by fingers, and cut nothing at the root.", Within: 3}}
			case g == Some && day < craft.FreshMatting:
				return []Advice{{Do: Tend, Text: "Part the roots by hand after every night, from the nape up."}}
			case g == Some:
				return []Advice{
					{Do: Tend, Text: "Part the roots by hand today, from the nape up."},
					{Do: TakeDown, Text: "After four weeks matting does not stop by itself: take it down within a fortnight.", Within: 14},
				}
			}
			return nil
		}},
	{Key: "loose", Ask: "Is the hairline loose?", Since: 14, Where: "Tug lightly at the pieces of the hairline: which swing, slip or show own hair?",
		Grades: [3]string{"No", "A few are loose", "Most of the row"},
		says: either(
			[]Advice{{Do: PutBack, Text: "Put back what is loose: hitch it again at the grown-out root, or replace it, and note how many."}},
			[]Advice{{Do: Refresh, Text: "Do the ring again: the rest can stay, and the head looks new.", Within: 7}})},
}

// SignsOn are the signs to look for on a day: those to be expected by then first.
func SignsOn(day int) []Sign {
	out := slices.Clone(signs)
	slices.SortStableFunc(out, func(a, b Sign) int {
		later := func(s Sign) int {
			if s.Since > day {
				return s.Since
			}
			return 0
		}
		return cmp.Compare(later(a), later(b))
	})
	return out
}

// signOf finds a sign by its key.
func signOf(key string) (Sign, bool) {
	i := slices.IndexFunc(signs, func(s Sign) bool { return s.Key == key })
	if i < 0 {
		return Sign{}, false
	}
	return signs[i], true
}

// checkSigns refuses answers to what is not asked and grades there are not.
func checkSigns(bad *invalid.Errors, found map[string]Grade) {
	for key, g := range found {
		if _, known := signOf(key); !known {
			bad.Add("signs."+key, "There is no sign %q to look for.", key)
		}
		if g < None || g > Bad {
			bad.Add("signs."+key, "An answer is 0 for none, 1 for some or 2 for bad; it is %d.", g)
		}
	}
}

// Advise is what to do about what was found on a day, the gravest first.
func Advise(found map[string]Grade, day int) []Advice {
	answers := make(map[string]answer, len(found))
	for key, g := range found {
		answers[key] = answer{g, day}
	}
	return advise(answers)
}

// answer is what was answered last about a sign, and when.
type answer struct {
	Grade
	day int
}

func advise(found map[string]answer) []Advice {
	out := []Advice{}
	for _, s := range signs {
		x := found[s.Key]
		for _, a := range s.says(x.Grade, x.day) {
			a.Sign, a.day = s.Key, x.day
			out = append(out, a)
		}
	}
	slices.SortStableFunc(out, func(a, b Advice) int {
		return cmp.Or(cmp.Compare(slices.Index(deeds, a.Do), slices.Index(deeds, b.Do)), cmp.Compare(a.day+a.Within, b.day+b.Within))
	})
	return out
}

// answers are the last answers to every sign that was asked about: a look that leaves a question out says
// nothing of it.
func (s *State) answers() map[string]answer {
	out := map[string]answer{}
	for _, c := range s.Checks {
		for key, g := range c.Signs {
			out[key] = answer{g, c.Day}
		}
	}
	return out
}

// Advice is what the looks ask for, the gravest first: what was put back or done again since asks for
// nothing more.
func (s *State) Advice() []Advice {
	if s.Off >= 0 {
		return []Advice{}
	}
	return slices.DeleteFunc(advise(s.answers()), func(a Advice) bool {
		return a.Do == PutBack && s.mendedOn >= a.day || a.Do == Refresh && s.RenewedOn >= a.day
	})
}

// sooner is a day by which a head should be down, and why.
type sooner struct {
	day int
	why string
}

// bringsForward is the day by which what was found wants the head down.
func (s *State) bringsForward() (sooner, bool) {
	best, has := sooner{}, false
	found := s.answers()
	for _, a := range s.Advice() {
		if a.Do != TakeDown {
			continue
		}
		if day := a.day + a.Within; !has || day < best.day {
			sign, _ := signOf(a.Sign)
			best, has = sooner{day, fmt.Sprintf("At the check on day %d: %s", a.day, lower(sign.Grades[found[a.Sign].Grade]))}, true
		}
	}
	return best, has
}

// worry is the worst that was found and still holds.
func (s *State) worry() Grade {
	worst := None
	for _, x := range s.answers() {
		worst = max(worst, x.Grade)
	}
	return worst
}
