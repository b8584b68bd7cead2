package chair

import (
	"fmt"
	"slices"
	"strings"

	"kladotex/core/pace"
)

// Status is how it stands with a task.
type Status string

// The states.
const (
	Open    Status = "open"
	Closed  Status = "done"
	Without Status = "left-out"
)

// task is a task with how it stands.
type task struct {
	Task
	status Status
	again  int    // how often it had to be done again
	by     string // the hand that did it last
}

// place is a place with its tasks; plait is -1 where there is nothing to plait.
type place struct {
	Place
	planned       int // index of the place as planned, which it came from
	plait, attach int
}

// State is what a list of events comes to.
type State struct {
	*Brief
	places  []place
	tasks   []task // as planned, then those of places that came out as two
	byKey   map[string]int
	byPlace map[string]int
	rows    [][]int // the places of each row, as they are worked at

	used     map[string]counts // by key of a piece
	splits   []int             // places that came out as two, as planned
	asked    map[string]Answer
	looked   map[string]bool
	notes    []Note
	photos   []string
	over     bool
	overAt   int64
	streams  []stream
	undoable []Event
}

// counts are what was told of a piece.
type counts struct{ spoilt, opened, short, bought, filled int }

// Note is something written down.
type Note struct {
	Text  string `json:"text"`
	Hand  string `json:"hand"`
	At    int64  `json:"at"`
	Photo string `json:"photo,omitempty"`
}

// Fold is what events come to. Their order, and what is in them twice, makes no difference.
func (b *Brief) Fold(events []Event) *State {
	sorted := slices.Clone(events)
	slices.SortFunc(sorted, compare)
	undone := map[string]bool{}
	for i := range sorted {
		if sorted[i].Kind == Undone {
			undone[sorted[i].Of] = true
		}
	}
	seen := make(map[string]bool, len(sorted))
	sorted = slices.DeleteFunc(sorted, func(e Event) bool {
		twice := seen[e.ID]
		seen[e.ID] = true
		return twice || undone[e.ID]
	})
	s := b.begin()
	for i := range sorted {
		e := &sorted[i]
		k, known := kinds[e.Kind]
		if !known {
			continue // of a newer program
		}
		k.apply(s, e)
		if k.says != nil {
			s.undoable = append(s.undoable, *e)
		}
	}
	s.follow(sorted)
	return s
}

// begin is the state before anything happened.
func (b *Brief) begin() *State {
	s := &State{
		Brief: b, byKey: make(map[string]int, len(b.Tasks)), byPlace: make(map[string]int, len(b.Places)),
		rows: make([][]int, len(b.Rows)), used: map[string]counts{}, asked: map[string]Answer{}, looked: map[string]bool{},
	}
	s.places = make([]place, len(b.Places), len(b.Places)+8)
	for i, p := range b.Places {
		s.places[i] = place{Place: p, planned: i, plait: -1, attach: -1}
		s.byPlace[p.ID] = i
	}
	s.tasks = make([]task, len(b.Tasks), len(b.Tasks)+16)
	for i, t := range b.Tasks {
		s.tasks[i] = task{Task: t, status: Open}
		s.byKey[t.Key] = i
		if t.Place < 0 {
			continue
		}
		p := &s.places[t.Place]
		if attaches(t.Kind) {
			p.attach = i
			s.rows[p.Row] = append(s.rows[p.Row], t.Place)
		} else {
			p.plait = i
		}
	}
	return s
}

func nothing(*State, *Event) {}

func (s *State) began(*Event) { s.over = false }

func (s *State) ended(e *Event) { s.over, s.overAt = true, e.At }

// Over tells whether the last check is taken, and when.
func (s *State) Over() (at int64, over bool) { return s.overAt, s.over }

// eachTask goes through the tasks an event names that there are.
func (s *State) eachTask(e *Event, work func(i int, t *task)) {
	for _, key := range e.Tasks {
		if i, has := s.byKey[key]; has {
			work(i, &s.tasks[i])
		}
	}
}

func (s *State) done(e *Event) {
	s.eachTask(e, func(_ int, t *task) {
		t.status, t.by = Closed, e.Hand
		if t.Place < 0 || !attaches(t.Kind) {
			return
		}
		// What hangs hangs on a plait, told of or not.
		if k := s.places[t.Place].plait; k >= 0 && s.tasks[k].status != Closed {
			s.tasks[k].status, s.tasks[k].by = Closed, e.Hand
		}
	})
}

func (s *State) redo(e *Event) {
	s.eachTask(e, func(_ int, t *task) {
		if t.status == Closed {
			t.status = Open
			t.again++
		}
	})
}

func (s *State) leftOut(e *Event) {
	for _, id := range e.Places {
		i, has := s.byPlace[id]
		if !has {
			continue
		}
		for _, k := range []int{s.places[i].plait, s.places[i].attach} {
			if k >= 0 && s.tasks[k].status == Open {
				s.tasks[k].status = Without
			}
		}
	}
}

// split puts one more place beside each that came out as two, with tasks of its own.
func (s *State) split(e *Event) {
	for _, id := range e.Places {
		i, has := s.byPlace[id]
		if !has {
			continue
		}
		twin := s.places[i]
		twin.ID = fmt.Sprintf("%s#%s", id, e.ID)
		if _, there := s.byPlace[twin.ID]; there {
			continue
		}
		at := len(s.places)
		copied := func(k int, key string) int {
			if k < 0 {
				return -1
			}
			t := s.tasks[k].Task
			t.Key, t.Place = key, at
			s.tasks = append(s.tasks, task{Task: t, status: Open})
			s.byKey[key] = len(s.tasks) - 1
			return len(s.tasks) - 1
		}
		twin.plait, twin.attach = copied(twin.plait, PlaitKey(twin.ID)), copied(twin.attach, AttachKey(twin.ID))
		s.places = append(s.places, twin)
		s.byPlace[twin.ID] = at
		row := s.rows[twin.Row]
		s.rows[twin.Row] = slices.Insert(row, 1+slices.Index(row, i), at)
		s.splits = append(s.splits, twin.planned)
	}
}

func (s *State) tally(e *Event) {
	c := s.used[e.Piece]
	*map[Kind]*int{Spoilt: &c.spoilt, Opened: &c.opened, Short: &c.short, Bought: &c.bought, Filled: &c.filled}[e.Kind] += e.Count
	s.used[e.Piece] = c
}

func (s *State) answered(e *Event) { s.asked[e.Text] = e.Answer }

func (s *State) checked(e *Event) { s.looked[e.Text] = true }

func (s *State) noted(e *Event) {
	s.notes = append(s.notes, Note{Text: e.Text, Hand: e.Hand, At: e.At})
}

func (s *State) moved(e *Event) {
	for _, id := range e.Places {
		if i, has := s.byPlace[id]; has {
			s.notes = append(s.notes, Note{Text: fmt.Sprintf("%s came out elsewhere: %s", s.where(i), e.Text), Hand: e.Hand, At: e.At})
		}
	}
}

func (s *State) photographed(e *Event) {
	s.photos = append(s.photos, e.Photo)
	s.notes = append(s.notes, Note{Text: e.Text, Hand: e.Hand, At: e.At, Photo: e.Photo})
}

// Words of what was done last.

func sayWord(word string) func(*State, *Event) string {
	return func(_ *State, e *Event) string {
		if e.Text == "" || e.Kind == Checked || e.Kind == Answered {
			return word
		}
		return word + ": " + e.Text
	}
}

func sayText(_ *State, e *Event) string { return "Note: " + e.Text }

func sayTasks(word string) func(*State, *Event) string {
	return func(s *State, e *Event) string {
		var names []string
		s.eachTask(e, func(_ int, t *task) { names = append(names, s.nameOf(t)) })
		return first(word + some(names))
	}
}

func sayPlaces(word string) func(*State, *Event) string {
	return func(s *State, e *Event) string {
		var names []string
		for _, id := range e.Places {
			if i, has := s.byPlace[id]; has {
				names = append(names, s.where(i))
			}
		}
		return first(some(names) + " " + word)
	}
}

func sayPieces(word string) func(*State, *Event) string {
	return func(s *State, e *Event) string {
		return fmt.Sprintf("%d %s: %s", e.Count, word, s.called(e.Piece))
	}
}

func sayPacks(word string) func(*State, *Event) string {
	return func(s *State, e *Event) string {
		packs := "packs"
		if e.Count == 1 {
			packs = "pack"
		}
		return fmt.Sprintf("%d %s %s: %s", e.Count, packs, word, s.called(e.Piece))
	}
}

// first is a text with its first letter large.
func first(text string) string {
	if text == "" {
		return ""
	}
	return strings.ToUpper(text[:1]) + text[1:]
}

// some are names, the first of many.
func some(names []string) string {
	switch len(names) {
	case 0:
		return "nothing"
	case 1:
		return names[0]
	}
	return fmt.Sprintf("%s and %d more", names[0], len(names)-1)
}

// called is a piece by its key, in words.
func (b *Brief) called(key string) string {
	for _, p := range b.Pieces {
		if p.Key == key {
			return p.Called()
		}
	}
	return key
}

// nameOf says a task.
func (s *State) nameOf(t *task) string {
	if t.Place < 0 {
		return t.Name
	}
	if t.Kind == pace.Plaits {
		return "plait: " + s.where(t.Place)
	}
	return "piece: " + s.where(t.Place)
}

// where says a place: its row, and which of it it is.
func (s *State) where(i int) string {
	row := s.places[i].Row
	return fmt.Sprintf("%s, %d of %d", s.Rows[row].Name, 1+slices.Index(s.rows[row], i), len(s.rows[row]))
}
