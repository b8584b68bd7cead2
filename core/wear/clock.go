package wear

import (
	"cmp"
	"fmt"
	"slices"

	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
)

// Weeks is how long something is worn, from the least to the most.
type Weeks struct {
	Least int `json:"least"`
	Most  int `json:"most"`
}

// Rules are how long a house has heads worn: within what the methods on a head bear, and never past what
// protects the head.
type Rules struct {
	Weeks
	// WithCare is true for a house that goes beyond what a base usually bears, on strong edges and
	// a scalp that is looked after.
	WithCare bool
}

// foundations are the usual weeks of each foundation, and why.
var foundations = map[parting.Structure]struct {
	Weeks
	why string
}{
	parting.AllIndividuals: {Weeks{craft.LeastAllWeeks, craft.MostAllWeeks}, "Individuals all over: every root grows out alike"},
	parting.EarToEar:       {Weeks{craft.LeastEarToEarWeeks, craft.MostEarToEarWeeks}, "Individuals in front: the cornrows behind stay covered longer than the front looks new"},
	parting.Perimeter:      {Weeks{craft.LeastPerimeterWeeks, craft.MostPerimeterWeeks}, "A ring that is tied up: its roots are what is seen, and the ring can be done again"},
	parting.Horseshoe:      {Weeks{craft.LeastHorseshoeWeeks, craft.MostHorseshoeWeeks}, "Individuals beside the part, cornrows at the sides and behind"},
	parting.PartLine:       {Weeks{craft.LeastPartLineWeeks, craft.MostPartLineWeeks}, "Few individuals at the part: the cornrows beside it lift as they grow out"},
	parting.Linked:         {Weeks{craft.LeastLinkedWeeks, craft.MostLinkedWeeks}, "Linked plaits: one that loosens loosens the next"},
	parting.NetCap:         {Weeks{craft.LeastNetWeeks, craft.MostNetWeeks}, "A net: the plaits under it are hard to wash and to dry"},
	parting.FrontDesign:    {Weeks{craft.LeastDesignWeeks, craft.MostDesignWeeks}, "Cornrows that are meant to be seen get fuzzy first"},
}

// Reason is one thing that speaks for a number of weeks.
type Reason struct {
	Key  string `json:"key"`
	Text string `json:"text"`
	Weeks
	// Decides is true for the one that sets the day.
	Decides bool `json:"decides"`
	// protects is true for one that nothing puts off.
	protects bool
}

// reasons are all that limits how long a head is worn.
func (b *Brief) reasons(r Rules) []Reason {
	stretch := func(w Weeks) Weeks {
		if r.WithCare && b.Edges == hair.StrongEdges && !b.Child && !b.Tender {
			return Weeks{w.Least, min(craft.LongestWeeks, craft.WithCare*w.Most)}
		}
		return w
	}
	out := []Reason{{Key: "house", Text: "By the house rules", Weeks: r.Weeks}}
	if f, has := foundations[b.Structure]; has {
		out = append(out, Reason{Key: "foundation", Text: f.why, Weeks: stretch(f.Weeks)})
	}
	all := 0
	for _, p := range b.Parts {
		all += p.Places
	}
	var seen []method.ID
	for _, p := range b.Parts {
		m, has := method.Lookup(p.Method)
		if !has || slices.Contains(seen, p.Method) || float64(p.Places) < craft.FewPlaces*float64(all) {
			continue
		}
		seen = append(seen, p.Method)
		if m.Family == method.Hook && p.Ground == method.OnCornrow {
			continue // on a cornrow a plain hook holds as long as that: the foundation says how long
		}
		out = append(out, Reason{Key: "method", Text: m.Name, Weeks: Weeks{m.WearWeeks[0], m.WearWeeks[1]}})
	}
	limit := func(applies bool, key string, weeks int, text string) {
		if applies {
			out = append(out, Reason{Key: key, Text: text, Weeks: Weeks{min(r.Least, weeks), weeks}, protects: key != "wish" && key != "water"})
		}
	}
	limit(b.Child, "child", craft.ChildWeeks, "A child: lighter, fewer, looser, and worn for a shorter time")
	limit(b.Edges == hair.FragileEdges, "edges", craft.FragileWeeks, "Fragile edges: they rest sooner")
	limit(b.Edges == hair.BareEdges, "edges", craft.BareWeeks, "Bare edges: what still grows there rests soon")
	limit(b.Tender, "scalp", craft.TenderWeeks, "A tender scalp")
	limit(b.Water == method.Swim, "water", craft.SwimWeeks, "In the water often: it is never dry for long")
	limit(b.Wish > 0, "wish", b.Wish, "As long as you wished")
	return out
}

// ClockState is how it stands with the day of the taking down.
type ClockState string

// The states.
const (
	Fine ClockState = "fine"
	Soon ClockState = "soon" // within a week
	Due  ClockState = "due"  // today, or its range has begun and the day has passed
	Over ClockState = "over" // past all that speaks for it
)

// Clock is when a head is taken down, and when it is looked at next. Days count from the last check of
// the install.
type Clock struct {
	Day int `json:"day" doc:"Today, in days since the last check"`
	// From is the first day on which it is usual to take it down, Planned the day planned for it,
	// Latest the last that anything speaks for.
	From    int        `json:"from"`
	Planned int        `json:"planned"`
	Latest  int        `json:"latest"`
	State   ClockState `json:"state" enum:"fine,soon,due,over"`
	Reasons []Reason   `json:"reasons"`
	// Next is the next check at it, Late is true where one is overdue; -1 once it is taken down.
	Next int  `json:"nextCheck"`
	Late bool `json:"checkLate"`

	// base are the weeks it would be worn with nothing done again, protected those it is worn at most
	// whatever is done.
	base, protected int
}

// gained are the weeks gained by doing no row, the outer row, or both outer rows again.
var gained = [3]int{0, craft.RowGains, craft.RowsGain}

// protected is the most weeks that what protects a head lets it be worn, whatever else is done to it.
func (b *Brief) protected(r Rules) int {
	most := craft.LongestWeeks
	for _, x := range b.reasons(r) {
		if x.protects {
			most = min(most, x.Most)
		}
	}
	return most
}

// Clock says when a head is taken down. Signs that were found bring it forward; rows done again put it
// off, as far as the longest that anything is worn and never past what protects the head.
func (b *Brief) Clock(r Rules, s *State, day int) Clock {
	c := Clock{Day: day, Reasons: b.reasons(r), Next: -1}
	least, most := craft.LongestWeeks, craft.LongestWeeks
	decides := 0
	for i, x := range c.Reasons {
		least = min(least, x.Least)
		if x.Most < most {
			most, decides = x.Most, i
		}
	}
	if b.Wish > 0 {
		least = min(least, b.Wish)
	}
	c.From, c.Planned = 7*min(least, most), 7*most
	c.base, c.protected = most, b.protected(r)
	if gain := min(s.gain(), c.protected-c.base); gain > 0 {
		c.Planned += 7 * gain
		decides = len(c.Reasons)
		c.Reasons = append(c.Reasons, Reason{
			Key: "refresh", Text: fmt.Sprintf("%s done again: %s more", rowsOf(s.rows), weeks(gain)), Weeks: Weeks{c.From / 7, c.Planned / 7},
		})
	}
	c.Latest = c.Planned
	if d, sooner := s.bringsForward(); sooner && d.day < c.Planned {
		c.Planned, c.Latest = d.day, d.day // what was found is overruled by nothing
		c.From = min(c.From, c.Planned)
		decides = len(c.Reasons)
		c.Reasons = append(c.Reasons, Reason{Key: "signs", Text: d.why, Weeks: Weeks{d.day / 7, d.day / 7}})
	}
	c.Reasons[decides].Decides = true
	slices.SortStableFunc(c.Reasons, func(a, b Reason) int { return cmp.Compare(a.Most, b.Most) })
	switch {
	case day > c.Latest:
		c.State = Over
	case day >= c.Planned:
		c.State = Due
	case c.Planned-day <= 7:
		c.State = Soon
	default:
		c.State = Fine
	}
	if s.Off < 0 {
		c.Next = b.nextCheck(s, c.Planned)
		c.Late = c.Next < day
	}
	return c
}

func rowsOf(n int) string {
	if n > 1 {
		return "Both outer rows"
	}
	return "The outer row"
}

// Looks are the days on which a head is looked at, the last of them that of the taking down.
func (b *Brief) Looks(planned int) []int {
	every := craft.LookEvery
	if b.Child || b.Tender || b.Edges == hair.FragileEdges || b.Edges == hair.BareEdges {
		every = craft.CloseLooks
	}
	out := []int{craft.FirstLook}
	for d := craft.SecondLook; d < planned-craft.LookEarly; d += every {
		out = append(out, d)
	}
	return append(out, max(planned, craft.FirstLook))
}

// nextCheck is the first look that nobody took yet; after a sign, sooner.
func (b *Brief) nextCheck(s *State, planned int) int {
	last := -1
	if n := len(s.Checks); n > 0 {
		last = s.Checks[n-1].Day
	}
	looks := b.Looks(planned)
	next := looks[len(looks)-1]
	for _, d := range looks {
		if d > last+craft.LookEarly || last < 0 {
			next = d
			break
		}
	}
	if last >= 0 && s.worry() > None {
		next = min(next, last+craft.LookAgain)
	}
	return max(next, last+1)
}
