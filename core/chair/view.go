package chair

import (
	"fmt"
	"strings"

	"kladotex/core/craft"
)

// View is what one device shows of an install.
type View struct {
	// Plaits and Pieces are, for each place as planned, how it stands; a place that came out as two
	// is done when both are. Empty where there is nothing to plait.
	Plaits []Status `json:"plaits"`
	Pieces []Status `json:"pieces"`
	Twins  []int    `json:"twins" doc:"Indices of places that came out as two"`
	// Head are the tasks of the whole head.
	Head []HeadTask `json:"head"`
	// Card is the next step; none where nothing is left.
	Card *Card `json:"card,omitempty"`
	// Behind are places missed in a region that would be left by the next step.
	Behind *Missed `json:"behind,omitempty"`
	Watch  Watch   `json:"watch"`
	Due    []Due   `json:"due"`
	Looks  []Look  `json:"looks"`
	// Undo are the last things done by this hand, the latest first.
	Undo    []Undo `json:"undo"`
	Notes   []Note `json:"notes"`
	Working bool   `json:"working" doc:"True while this hand is at work"`
	Begun   bool   `json:"begun" doc:"True once anything was told"`
	Over    bool   `json:"over"`
}

// HeadTask is a task of the whole head.
type HeadTask struct {
	Task string `json:"task"`
	Name string `json:"name"`
	Done bool   `json:"done"`
}

// Undo is something that can be taken back.
type Undo struct {
	ID   string `json:"id"`
	Says string `json:"says"`
	At   int64  `json:"at"`
}

// undoes is how much can be taken back.
const undoes = 10

// View is what a device shows.
func (s *State) View(w Wish) View {
	order := s.order(w.ByRow)
	next := s.next(w, order)
	_, working := s.latest(w.Hand)
	v := View{
		Plaits: make([]Status, len(s.Places)), Pieces: make([]Status, len(s.Places)), Twins: []int{}, Head: []HeadTask{},
		Watch: s.watch(w), Due: s.due(w, next), Looks: s.looks(), Undo: []Undo{}, Notes: append([]Note{}, s.notes...),
		Working: working, Begun: len(s.undoable) > 0, Over: s.over,
	}
	for i := range s.places {
		p := &s.places[i]
		if i != p.planned {
			v.Twins = append(v.Twins, p.planned)
		}
		if p.plait >= 0 {
			v.Plaits[p.planned] = both(v.Plaits[p.planned], s.tasks[p.plait].status)
		}
		if p.attach >= 0 {
			v.Pieces[p.planned] = both(v.Pieces[p.planned], s.tasks[p.attach].status)
		}
	}
	for i := range s.tasks {
		if t := &s.tasks[i]; t.Place < 0 {
			v.Head = append(v.Head, HeadTask{t.Key, t.Name, t.status == Closed})
		}
	}
	v.Watch.Missed = s.passed(w, order, next)
	if next >= 0 {
		c := s.card(next)
		v.Card = &c
		v.Behind = s.behind(w, order, next)
	}
	for i := len(s.undoable) - 1; i >= 0 && len(v.Undo) < undoes; i-- {
		if e := &s.undoable[i]; e.Hand == w.Hand {
			v.Undo = append(v.Undo, Undo{e.ID, kinds[e.Kind].says(s, e), e.At})
		}
	}
	return v
}

// both is how a place stands by how its two parts stand.
func both(a, b Status) Status {
	switch {
	case a == "" || a == b || a == Without:
		return b
	case b == Without:
		return a
	}
	return Open
}

// Due is something to be asked or done now.
type Due struct {
	Key   string `json:"key"`
	Title string `json:"title"`
	Says  string `json:"says"`
	// Asks is true where an answer is wanted: fine, pulls or hurts.
	Asks bool `json:"asks"`
	// Pauses is true where work should rest.
	Pauses bool `json:"pauses"`
}

// What a [Rested] event says.
const (
	restBreak = "break" // put off
	restArms  = "arms"
	restWater = "water"
)

// feels are the points at which it is asked how the head feels: after so large a share of the pieces.
var feels = []struct {
	key   string
	share float64
	says  string
}{
	{"first-row", 0, "The first row is on. Does anything pull, sting or pinch?"},
	{"half", 0.5, "Half of it hangs. Does anything pull, and how heavy does the head feel?"},
	{"all", 1, "All of it hangs. Move the head every way: does anything pull, and is the weight easy to bear?"},
}

// due is what is to be asked or done now.
func (s *State) due(w Wish, next int) []Due {
	out := []Due{}
	since := func(mark int64) float64 { return float64(w.Now-mark) / minute }
	hung, of := 0, 0
	rowClosed := false
	for r := range s.rows {
		places, done := s.side(r)
		hung, of = hung+done, of+places
		rowClosed = rowClosed || places > 0 && places == done
	}
	for _, f := range feels {
		if _, answered := s.asked[f.key]; !answered && of > 0 && rowClosed && float64(hung) >= f.share*float64(of) {
			out = append(out, Due{Key: f.key, Title: "How does it feel?", Says: f.says, Asks: true})
			break
		}
	}
	k := s.stream(w.Hand)
	if k < 0 || !s.streams[k].working {
		return out
	}
	at := &s.streams[k]
	switch {
	case s.Rests.After > 0 && since(at.rested) >= s.Rests.After:
		out = append(out, Due{Key: restBreak, Title: "Time for a break", Says: fmt.Sprintf("%.0f min at it. %.0f min for hands, back and head.", since(at.rested), s.Rests.Long), Pauses: true})
	case s.Rests.Arms && at.own && at.hand == 0 && next >= 0 && s.tasks[next].Arms && since(at.armsDown) >= craft.ArmsUp:
		out = append(out, Due{Key: restArms, Title: "Arms down", Says: "Two minutes: let them hang, shake the hands out."})
	case since(at.drank) >= craft.WaterEvery:
		out = append(out, Due{Key: restWater, Title: "A sip of water", Says: "For you and for whoever sits."})
	}
	return out
}

// Look is one look of the last check.
type Look struct {
	Key   string `json:"key"`
	Title string `json:"title"`
	Says  string `json:"says"`
	Done  bool   `json:"done"`
	// Wants is what was found by counting, in words; empty where only eyes can tell.
	Wants string `json:"wants"`
}

// Of the last check, common practice, no source.
var checks = []struct{ key, title, says string }{
	{"missed", "Missed spots behind", "Back to the wall mirror, a second one in hand. Lift the rows one by one from the nape with two fingers and feel along each part: every plait has its piece."},
	{"sides", "Left against right", "Face the mirror, then the back through the second one. Count a row on both sides where they look unlike."},
	{"thin", "Thin spots", "Let it hang, then part it at the crown, behind the ears and at the nape. Where scalp or a cornrow shows, fill in a piece."},
	{"lumps", "Lumps", "Run a palm down over every wind and every hitch, root to tip. Wind or draw once more what is thick."},
	{"tails", "Tails and tips", "Shake the head. What pokes out, own hair or piece, is drawn back in or trimmed, never own hair."},
	{"knots", "Knots at the part", "Along the part line and the hairline no knot shows: turn it away from the part with the hook."},
	{"line", "Ends", "Stand straight, chin level. Follow the ends from shoulder to shoulder in both mirrors; trim from the middle outward."},
}

// looks are those of the last check.
func (s *State) looks() []Look {
	out := make([]Look, len(checks))
	for i, c := range checks {
		out[i] = Look{c.key, c.title, c.says, s.looked[c.key], ""}
	}
	out[0].Wants = s.lacking()
	var odd []string
	for _, b := range s.balance() {
		if b.Odd {
			odd = append(odd, fmt.Sprintf("%s: %d left, %d right", b.Name, b.Left, b.Right))
		}
	}
	out[1].Wants = strings.Join(odd, " · ")
	return out
}

// someLacking is how many places are named one by one; more are counted by region.
const someLacking = 6

// lacking says which places have no piece yet; empty where all do.
func (s *State) lacking() string {
	var open []string
	byRegion := map[string]int{}
	for i := range s.tasks {
		if t := &s.tasks[i]; t.status == Open && t.Place >= 0 && attaches(t.Kind) {
			open = append(open, t.Key)
			byRegion[s.Rows[s.places[t.Place].Row].Region]++
		}
	}
	switch {
	case len(open) == 0:
		return ""
	case len(open) <= someLacking:
		return number(len(open), "place") + " not told of: " + s.missedText(open)
	}
	var parts []string
	for _, region := range s.regions() {
		if n := byRegion[region]; n > 0 {
			parts = append(parts, fmt.Sprintf("%d %s", n, region))
		}
	}
	return fmt.Sprintf("%d spots not told of: %s", len(open), strings.Join(parts, ", "))
}

// bothSides is the name of a row without its side.
func bothSides(name string) string {
	for _, side := range []string{", left", ", right", " left", " right"} {
		name = strings.Replace(name, side, "", 1)
	}
	return name
}

// number is a count with its noun.
func number(n int, noun string) string {
	if n == 1 {
		return "1 " + noun
	}
	return fmt.Sprintf("%d %ss", n, noun)
}
