package plan

import (
	"fmt"
	"regexp"
	"slices"

	"kladotex/core/craft"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/pace"
)

// Day is when, by whom and in which order an install is done.
type Day struct {
	// Install is the date of the first sitting; empty while that is open.
	Install string `json:"install" doc:"Date of the install, such as 2026-12-04; empty while that is open"`
	// Within is how long all of it at the head may take; 0 while nobody said.
	Within float64 `json:"withinMin,omitempty" doc:"How long all of it at the head may take, minutes; left out while that is open"`
	// Hands are those who work, the one who answers for it first; none are one pair of
	// practised hands.
	Hands []Hand `json:"hands,omitempty" maxItems:"2" doc:"Who works, the one who answers for it first"`
	// Trials are pieces that were timed on this head.
	Trials []Trial `json:"trials,omitempty" maxItems:"40" doc:"Pieces timed on this head"`
	// Order is the working order where it is not the usual one.
	Order *WorkOrder `json:"order,omitempty" doc:"The working order, where it is not the usual one"`
	// Sittings are how the work is cut up; nil for one day from nine.
	Sittings *Sittings `json:"sittings,omitempty" doc:"How the work is cut up into sittings"`
}

// Does is what one of two does.
type Does string

// What one does.
const (
	DoesBoth     Does = "both" // attaches, and plaits where nothing can be attached yet
	DoesPlaits   Does = "plaits"
	DoesAttaches Does = "attaches"
	// PlaitsFirst parts and plaits, and helps to attach once all is plaited.
	PlaitsFirst Does = "plaits-first"
	// DoesDesign does the decorative cornrows in front and nothing else.
	DoesDesign Does = "design"
)

// Doings are all of them.
var Doings = []Does{DoesBoth, DoesPlaits, DoesAttaches, PlaitsFirst, DoesDesign}

// Hand is one who works.
type Hand struct {
	Key    string    `json:"key" minLength:"1" maxLength:"40" doc:"Names them inside the plan"`
	Person string    `json:"person,omitempty" maxLength:"64" doc:"Id of the person of the studio; left out for someone else"`
	Name   string    `json:"name" minLength:"1" maxLength:"120"`
	Hand   pace.Hand `json:"hand" doc:"How practised they are"`
	// OwnHead is how much longer their own head takes; 0 for the usual quarter more.
	OwnHead float64 `json:"ownHead,omitempty" doc:"How many times as long own head takes; left out for the usual"`
	// New are methods they do for the first time.
	New  []string `json:"new,omitempty" maxItems:"16" doc:"Ids of methods they do for the first time"`
	Does Does     `json:"does" doc:"What they do of the work"`
	// Logged is what their installs before taught of their pace, as it was when they were put
	// on this plan.
	Logged []LoggedPace `json:"logged,omitempty" maxItems:"40" doc:"What their installs before taught of their pace"`
	// Evening is true for one who plaits the evening before.
	Evening bool `json:"evening,omitempty" doc:"True for a helper who plaits at home the evening before"`
}

// LoggedPace is what installs taught of one skill.
type LoggedPace struct {
	Skill string `json:"skill" minLength:"1" maxLength:"40" doc:"Id of a method, else the kind of work"`
	// Factor is how many times as long as practised hands they take on another's head, Spread
	// how far one install may lie from it, a share.
	Factor   float64 `json:"factor" doc:"How many times as long as practised hands they take on another's head"`
	Spread   float64 `json:"spread" doc:"How far one install may lie from it, a share either way"`
	Installs int     `json:"installs" doc:"How many installs say so"`
}

// Bounds of a logged pace.
const (
	leastFactor, mostFactor       = 0.1, 10.0
	leastLogSpread, mostLogSpread = 0.01, 5.0
)

func (l LoggedPace) check(bad *invalid.Errors, path string) {
	bad.Letters(path+"skill", "What was logged", l.Skill, 1, 40)
	bad.Number(path+"factor", "How many times as long they take", l.Factor, leastFactor, mostFactor, " times")
	bad.Number(path+"spread", "The spread", l.Spread, leastLogSpread, mostLogSpread, "")
	bad.Count(path+"installs", "The number of installs", l.Installs, 1, 10000)
}

// Bounds of how much longer own head takes.
const leastOwn, mostOwn = 1.0, 2.5

// Own is how many times as long their own head takes.
func (h Hand) Own() float64 {
	if h.OwnHead == 0 {
		return craft.OwnHead
	}
	return h.OwnHead
}

// Someone works where nobody is named.
var Someone = Hand{Key: "first", Hand: pace.Practised, Does: DoesBoth}

// Trial is a few pieces that were timed on this head, by one who works. It holds whatever else
// of the plan changes.
type Trial struct {
	Skill string `json:"skill" minLength:"1" maxLength:"40" doc:"Id of a method, or plaits for sections parted and plaited"`
	By    string `json:"by" minLength:"1" maxLength:"40" doc:"Key of who was timed"`
	// Minutes are those of each, in the order they were made; Rate what the same takes
	// practised hands on another's head.
	Minutes []float64 `json:"minutes" minItems:"1" maxItems:"5" doc:"Minutes of each, in the order they were made"`
	Rate    float64   `json:"rateMin" doc:"What practised hands take for one of them on another's head, minutes"`
}

// Bounds of a timed piece, minutes, and of how many are timed.
const (
	leastTrial, mostTrial = 0.05, 120.0
	mostTimed             = 5
)

// WorkOrder is how the working order departs from the usual one.
type WorkOrder struct {
	// Apart is true to finish one side before the other; else mirrored sides stay level.
	Apart bool `json:"apart,omitempty" doc:"True to finish one side before the other; else both stay level"`
	// ByRow is true to attach each row once it is plaited; else all is plaited first.
	ByRow bool `json:"byRow,omitempty" doc:"True to attach every row once it is plaited; else the whole head is plaited first"`
	// Rows are keys of rows in an order of one's own. Rows that are not named follow as usual.
	Rows []string `json:"rows,omitempty" maxItems:"200" doc:"Keys of rows in an order of one's own"`
}

// Sittings are how an install is cut up.
type Sittings struct {
	// Longest is the longest sitting, with breaks, minutes.
	Longest float64 `json:"longestMin" doc:"The longest sitting, breaks in it, minutes"`
	// At is when a sitting begins, Every how many days lie from one to the next.
	At    string `json:"at" doc:"When a sitting begins, such as 18:30"`
	Every int    `json:"everyDays" doc:"Days from one sitting to the next"`
	// Home is true for sittings at home, which take no chair of the studio.
	Home   bool   `json:"home,omitempty" doc:"True for sittings at home, without a chair of the studio"`
	Breaks Breaks `json:"breaks"`
	// Slots are those settled one by one, from the first sitting on.
	Slots []Slot `json:"slots,omitempty" maxItems:"30" doc:"Sittings settled one by one, from the first on"`
}

// Breaks are the pauses of a sitting, minutes.
type Breaks struct {
	// After so much work comes a break of so long; 0 for none.
	After float64 `json:"afterMin" doc:"Work before a break, minutes; 0 for no breaks"`
	Long  float64 `json:"longMin" doc:"Length of a break, minutes"`
	// Arms are put down in plaiting one's own back.
	Arms bool `json:"arms" doc:"True to put the arms down while plaiting the back of one's own head"`
}

// Slot is a sitting that was settled. Sittings are dated from the first on, so that moving one
// moves those after it.
type Slot struct {
	After   int     `json:"afterDays,omitempty" doc:"Days after the sitting before; left out for the usual"`
	At      string  `json:"at,omitempty" doc:"When it begins, such as 14:00; left out for the usual time"`
	Longest float64 `json:"longestMin,omitempty" doc:"Its length at most, minutes; left out for the usual"`
}

// LeastSitting is the shortest a sitting may be wished, minutes: shorter ones end before a row
// does.
const LeastSitting = 45.0

const mostSitting = 14 * 60.0

var clock = regexp.MustCompile(`^([01][0-9]|2[0-3]):[0-5][0-9]$`)

func checkClock(bad *invalid.Errors, path, label, at string) {
	if !clock.MatchString(at) {
		bad.Add(path, "%s is a time from 00:00 to 23:59, such as 18:30; it is %q.", label, at)
	}
}

func (d Day) check(bad *invalid.Errors, path string) {
	if d.Install != "" {
		bad.Day(path+"install", "The day of the install", d.Install)
	}
	if d.Within != 0 {
		bad.Number(path+"withinMin", "How long it may take", d.Within, 30, 60*60, " min")
	}
	if len(d.Hands) > 0 {
		invalid.Keys(bad, path+"hands", "The number of those who work", d.Hands, 2, func(h Hand) string { return h.Key })
	}
	for i, h := range d.Hands {
		h.check(bad, invalid.At(path+"hands", i)+".")
	}
	checkRoles(bad, path+"hands", d.Hands)
	bad.Count(path+"trials", "The number of trials", len(d.Trials), 0, 40)
	for i, t := range d.Trials {
		t.check(bad, invalid.At(path+"trials", i)+".")
	}
	if d.Order != nil {
		bad.Count(path+"order.rows", "The number of rows", len(d.Order.Rows), 0, 200)
	}
	if d.Sittings != nil {
		d.Sittings.check(bad, path+"sittings.")
	}
}

func (h Hand) check(bad *invalid.Errors, path string) {
	bad.Letters(path+"name", "Who works", h.Name, 1, 120)
	invalid.OneOf(bad, path+"hand", "The hand", h.Hand, pace.Hands)
	if h.OwnHead != 0 {
		CheckOwnHead(bad, path+"ownHead", h.OwnHead)
	}
	for k, id := range h.New {
		if _, ok := method.Lookup(method.ID(id)); !ok {
			bad.Add(invalid.At(path+"new", k), "There is no method %q.", id)
		}
	}
	bad.Count(path+"logged", "The number of skills logged", len(h.Logged), 0, 40)
	for k, l := range h.Logged {
		l.check(bad, invalid.At(path+"logged", k)+".")
	}
	invalid.OneOf(bad, path+"does", "What they do", h.Does, Doings)
}

// CheckOwnHead refuses how many times as long own head takes where that cannot be.
func CheckOwnHead(bad *invalid.Errors, path string, times float64) {
	bad.Number(path, "How much longer own head takes", times, leastOwn, mostOwn, " times")
}

// checkRoles refuses hands between which something is left undone.
func checkRoles(bad *invalid.Errors, path string, hands []Hand) {
	if len(hands) == 0 {
		return
	}
	may := func(not Does) bool {
		return slices.ContainsFunc(hands, func(h Hand) bool { return h.Does != not && h.Does != DoesDesign })
	}
	if !may(DoesAttaches) {
		bad.Add(path, "Nobody parts and plaits: let one of them do both.")
	}
	if !may(DoesPlaits) {
		bad.Add(path, "Nobody attaches: let one of them do both.")
	}
	for i, h := range hands {
		if h.Evening && i == 0 {
			bad.Add(invalid.At(path, i)+".evening", "Only a helper plaits the evening before.")
		}
		if h.Evening && i > 0 && h.Does != DoesPlaits && h.Does != PlaitsFirst {
			bad.Add(invalid.At(path, i)+".does", "Who plaits the evening before must be one who plaits.")
		}
	}
}

func (t Trial) check(bad *invalid.Errors, path string) {
	if _, ok := method.Lookup(method.ID(t.Skill)); !ok && t.Skill != PlaitingSkill {
		bad.Add(path+"skill", "What is timed is a method or %q; it is %q.", PlaitingSkill, t.Skill)
	}
	bad.Count(path+"minutes", "Pieces that were timed", len(t.Minutes), 1, mostTimed)
	for i, m := range t.Minutes {
		bad.Number(invalid.At(path+"minutes", i), "The time of a piece", m, leastTrial, mostTrial, " min")
	}
	bad.Number(path+"rateMin", "What practised hands take", t.Rate, leastTrial, mostTrial, " min")
}

func (s Sittings) check(bad *invalid.Errors, path string) {
	bad.Number(path+"longestMin", "The longest sitting", s.Longest, LeastSitting, mostSitting, " min")
	checkClock(bad, path+"at", "When a sitting begins", s.At)
	bad.Count(path+"everyDays", "Days from one sitting to the next", s.Every, 1, 60)
	if s.Breaks.After != 0 {
		bad.Number(path+"breaks.afterMin", "Work before a break", s.Breaks.After, 15, 240, " min")
		bad.Number(path+"breaks.longMin", "The break", s.Breaks.Long, 2, 60, " min")
		if s.Breaks.Long >= s.Breaks.After {
			bad.Add(path+"breaks.longMin", "The break must be shorter than the work before it, %.0f min.", s.Breaks.After)
		}
	}
	bad.Count(path+"slots", "The number of sittings", len(s.Slots), 0, 30)
	for i, d := range s.Slots {
		at := invalid.At(path+"slots", i)
		bad.Count(at+".afterDays", fmt.Sprintf("Days before sitting %d", i+1), d.After, 0, 120)
		if d.At != "" {
			checkClock(bad, at+".at", fmt.Sprintf("When sitting %d begins", i+1), d.At)
		}
		if d.Longest != 0 {
			bad.Number(at+".longestMin", fmt.Sprintf("The length of sitting %d", i+1), d.Longest, LeastSitting, mostSitting, " min")
		}
	}
}

// PlaitingSkill is the skill of parting a section and plaiting its hair; others are ids of
// methods.
const PlaitingSkill = "plaits"
