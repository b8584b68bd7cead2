package chair

import (
	"fmt"
	"slices"
	"strings"

	"kladotex/core/pace"
)

// Wish is what one device is to be shown.
type Wish struct {
	// Hand is the key of who works with it.
	Hand string `json:"hand"`
	// ByRow is true to attach each row once it is plaited, else all is plaited first.
	ByRow bool `json:"byRow"`
	// From is the key of the task to go on from; empty for where this hand was.
	From string `json:"from,omitempty"`
	// Stays is true to have From itself, as where the head was touched.
	Stays bool `json:"stays,omitempty"`
	// Now is the time, milliseconds since 1970.
	Now int64 `json:"now"`
}

// Card is one next step.
type Card struct {
	Task  string    `json:"task" doc:"Key of the task"`
	Kind  pace.Kind `json:"kind" enum:"settle,tracks,net,plaits,hook,attach,finish"`
	Title string    `json:"title" doc:"What is done, in a word or two"`
	// Place is its id, and Planned the index of the place it is drawn at; empty and -1 for the
	// whole head.
	Place   string `json:"place,omitempty"`
	Planned int    `json:"planned"`
	Where   string `json:"where"`
	// Piece is an index into the pieces; -1 where none goes on.
	Piece  int      `json:"piece"`
	Count  int      `json:"count"`
	Beside []string `json:"beside"`
	Step   int      `json:"step" doc:"Index of the method a piece goes on; -1 where none does"`
	// Measures are words with lengths in braces, and Lengths those lengths, mm.
	Measures []string           `json:"measures"`
	Lengths  map[string]float64 `json:"lengthsMm"`
	// Row are the keys of what is open of its row at this stage, itself among them; RowDone of
	// RowOf are closed.
	Row     []string `json:"rowTasks"`
	RowName string   `json:"rowName"`
	RowDone int      `json:"rowDone"`
	RowOf   int      `json:"rowOf"`
	// Again is true for one that has to be done again, Twin for one that came out as two.
	Again bool `json:"again"`
	// Done is true for one that is done already: the head was touched there.
	Done bool `json:"done"`
	Twin bool `json:"twin"`
}

// Missed are open places in rows that were worked at before.
type Missed struct {
	Region string   `json:"region"`
	Says   string   `json:"says"`
	Tasks  []string `json:"tasks"`
}

// order lists all tasks in the order they are worked at: as planned, those of a twin behind their
// original, and plaits before pieces by the row or all of them.
func (s *State) order(byRow bool) []int {
	var before, plaits, pieces, after []int
	links := false
	for i := range s.Tasks {
		t := &s.tasks[i]
		switch {
		case t.Place >= 0:
			if t.Kind == pace.Plaits && s.places[t.Place].Hook {
				links = true // a linked plait is laid into a later one: all come first
			}
		case t.Kind == pace.Finish:
			after = append(after, i)
		default:
			before = append(before, i)
		}
	}
	for _, row := range s.workedRows() {
		var own []int
		for _, p := range s.rows[row] {
			if k := s.places[p].plait; k >= 0 {
				own = append(own, k)
			}
		}
		if byRow && !links {
			pieces = append(pieces, own...)
		} else {
			plaits = append(plaits, own...)
		}
		for _, p := range s.rows[row] {
			if k := s.places[p].attach; k >= 0 {
				pieces = append(pieces, k)
			}
		}
	}
	return slices.Concat(before, plaits, pieces, after)
}

// workedRows are the rows in the order their first piece goes on.
func (s *State) workedRows() []int {
	out := make([]int, 0, len(s.Rows))
	seen := make([]bool, len(s.Rows))
	for i := range s.Tasks {
		if t := &s.Tasks[i]; t.Place >= 0 && attaches(t.Kind) {
			if row := s.Places[t.Place].Row; !seen[row] {
				seen[row] = true
				out = append(out, row)
			}
		}
	}
	return out
}

// does tells whether a hand does a kind of work; who came to help does what there is.
func (s *State) does(key string, k pace.Kind) bool {
	at := slices.IndexFunc(s.Hands, func(h Hand) bool { return h.Key == key })
	if at < 0 {
		return true
	}
	h := s.Hands[at]
	switch {
	case k == pace.Finish:
		return true
	case attaches(k):
		return h.Attaches
	}
	return h.Plaits
}

// next is the task a device shows: the first open one from where it was on, or -1. A row that
// another has in hand, or is shown, is left to them while there is another.
func (s *State) next(w Wish, order []int) int {
	at, _ := s.latest(w.Hand)
	if i, has := s.byKey[w.From]; has {
		at = i
		if w.Stays && s.tasks[i].status != Without {
			return i
		}
	}
	theirs := s.inHand(w.Hand)
	shown := -1
	for h := range s.streams { // the hands before have the first choice
		o := &s.streams[h]
		if o.key == w.Hand {
			break
		}
		if o.working {
			shown = s.nextFrom(o.key, o.latest, order, s.inHand(o.key), shown)
			if shown >= 0 && s.tasks[shown].Place >= 0 {
				theirs[s.rowStage(shown)] = true
			}
		}
	}
	return s.nextFrom(w.Hand, at, order, theirs, shown)
}

// nextFrom is the first open task of a hand from a task on, round the order: not one of the rows of
// others and not the one that is shown to another, while there is any else.
func (s *State) nextFrom(hand string, at int, order []int, theirs map[rowStage]bool, shown int) int {
	start := max(0, slices.Index(order, at))
	last := s.left(hand) == 0 // the last check comes when nothing else is open
	open := func(i int) bool {
		t := &s.tasks[i]
		return t.status == Open && s.does(hand, t.Kind) && (last || t.Kind != pace.Finish)
	}
	free := func(i int) bool {
		return open(i) && i != shown && !(s.tasks[i].Place >= 0 && theirs[s.rowStage(i)])
	}
	for _, may := range []func(int) bool{free, open} {
		for k := range order {
			if i := order[(start+k)%len(order)]; may(i) {
				return i
			}
		}
	}
	return -1
}

// left is how many tasks but the last check are open that a hand does.
func (s *State) left(hand string) (n int) {
	for i := range s.tasks {
		if t := &s.tasks[i]; t.status == Open && t.Kind != pace.Finish && s.does(hand, t.Kind) {
			n++
		}
	}
	return n
}

// rowStage is a row at one stage of its work.
type rowStage struct {
	row  int
	kind pace.Kind
}

// rowStage is that of a task of a place.
func (s *State) rowStage(i int) rowStage {
	t := &s.tasks[i]
	return rowStage{s.places[t.Place].Row, stage(t.Kind)}
}

// inHand are the rows that others who are at work were last at.
func (s *State) inHand(hand string) map[rowStage]bool {
	out := map[rowStage]bool{}
	for h := range s.streams {
		w := &s.streams[h]
		if w.key == hand || !w.working || w.latest < 0 {
			continue
		}
		if s.tasks[w.latest].Place >= 0 {
			out[s.rowStage(w.latest)] = true
		}
	}
	return out
}

// card is a task as it is shown.
func (s *State) card(i int) Card {
	t := &s.tasks[i]
	c := Card{
		Task: t.Key, Kind: t.Kind, Planned: -1, Piece: -1, Step: -1, Title: t.Kind.Name(), Where: t.Name,
		Beside: []string{}, Measures: []string{}, Lengths: map[string]float64{}, Row: []string{t.Key}, RowOf: 1, Again: t.again > 0, Done: t.status == Closed,
	}
	if t.Place < 0 {
		if t.Name == "" {
			c.Where = "The whole head"
		}
		return c
	}
	p := &s.places[t.Place]
	row := s.rows[p.Row]
	c.Place, c.Planned, c.Twin = p.ID, p.planned, t.Place != p.planned
	c.Where, c.RowName = s.where(t.Place), s.Rows[p.Row].Name
	c.Row, c.RowOf = []string{}, len(row)
	for _, q := range row {
		k := s.places[q].plait
		if attaches(t.Kind) {
			k = s.places[q].attach
		}
		switch {
		case k < 0:
		case s.tasks[k].status == Open || k == i:
			c.Row = append(c.Row, s.tasks[k].Key)
		default:
			c.RowDone++
		}
	}
	from := "the middle"
	if p.Part {
		from = "the part line"
	}
	c.Measures = append(c.Measures, "{middle} from "+from)
	c.Lengths["middle"] = p.Middle
	if p.Up > 0 {
		c.Lengths["up"] = p.Up
		if p.Hook {
			c.Measures = append(c.Measures, "{up} on from the last spot")
		} else {
			c.Measures = append(c.Measures, "row {up} high, above the row below")
		}
	}
	if attaches(t.Kind) {
		c.Piece, c.Count, c.Step = p.Piece, p.Count, p.Step
		c.Beside = append(c.Beside, p.Beside...)
	}
	return c
}

// region is that of a task of a place; empty for one of the whole head, and for none.
func (s *State) region(i int) string {
	if i < 0 || s.tasks[i].Place < 0 {
		return ""
	}
	return s.Rows[s.places[s.tasks[i].Place].Row].Region
}

// byRegion puts open tasks that were missed together, by region.
func (s *State) byRegion(missed []int) []Missed {
	out := []Missed{}
	for _, i := range missed {
		region := s.region(i)
		k := slices.IndexFunc(out, func(m Missed) bool { return m.Region == region })
		if k < 0 {
			k = len(out)
			out = append(out, Missed{Region: region})
		}
		out[k].Tasks = append(out[k].Tasks, s.tasks[i].Key)
	}
	for k := range out {
		out[k].Says = s.missedText(out[k].Tasks)
	}
	return out
}

// passed are the open places in rows that were begun and left by everyone.
func (s *State) passed(w Wish, order []int, next int) []Missed {
	at := s.inHand("") // of everyone at work
	if latest, _ := s.latest(w.Hand); latest >= 0 && s.tasks[latest].Place >= 0 {
		at[s.rowStage(latest)] = true
	}
	var missed []int
	for _, i := range order {
		t := &s.tasks[i]
		if t.status == Open && t.Place >= 0 && i != next && !at[s.rowStage(i)] && s.begun(s.places[t.Place].Row, t.Kind) {
			missed = append(missed, i)
		}
	}
	return s.byRegion(missed)
}

// behind is what is open at its stage in the region this hand was in last, where the next task is in
// another and nobody else is at work there; none where nothing is.
func (s *State) behind(w Wish, order []int, next int) *Missed {
	latest, _ := s.latest(w.Hand)
	region := s.region(latest)
	if region == "" || next < 0 || s.region(next) == region || w.Stays {
		return nil
	}
	for h := range s.streams {
		if o := &s.streams[h]; o.key != w.Hand && o.working && s.region(o.latest) == region {
			return nil
		}
	}
	var missed []int
	for _, i := range order {
		if t := &s.tasks[i]; t.status == Open && s.region(i) == region && stage(t.Kind) == stage(s.tasks[latest].Kind) {
			missed = append(missed, i)
		}
	}
	if len(missed) == 0 {
		return nil
	}
	return &s.byRegion(missed)[0]
}

// stage puts the two ways of putting a piece on together.
func stage(k pace.Kind) pace.Kind {
	if k == pace.Hook {
		return pace.Attach
	}
	return k
}

// begun tells whether anything of a row is done at the stage of a kind.
func (s *State) begun(row int, kind pace.Kind) bool {
	return slices.ContainsFunc(s.rows[row], func(p int) bool {
		k := s.places[p].plait
		if attaches(kind) {
			k = s.places[p].attach
		}
		return k >= 0 && s.tasks[k].status == Closed
	})
}

// missedText says open tasks by their rows.
func (s *State) missedText(tasks []string) string {
	var names []string
	count := map[string]int{}
	for _, key := range tasks {
		t := &s.tasks[s.byKey[key]]
		name := s.Rows[s.places[t.Place].Row].Name
		if attaches(t.Kind) {
			name += " (piece)"
		} else {
			name += " (plait)"
		}
		if count[name] == 0 {
			names = append(names, name)
		}
		count[name]++
	}
	for i, n := range names {
		if count[n] > 1 {
			names[i] = fmt.Sprintf("%s × %d", n, count[n])
		}
	}
	return strings.Join(names, " · ")
}
