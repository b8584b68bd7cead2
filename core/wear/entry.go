package wear

import (
	"cmp"
	"slices"
	"strings"

	"kladotex/core/invalid"
)

// Kind is what an entry tells.
type Kind string

// The kinds.
const (
	Checked  Kind = "checked"    // looked at: Signs, and Text
	Mended   Kind = "put-back"   // Count of Piece were loose and were put back
	Replaced Kind = "replaced"   // Count of Piece were lost or spoilt, and new ones hang in their place
	Lost     Kind = "lost"       // Count of Piece came off and nothing hangs in their place
	RingOff  Kind = "ring-off"   // the outer Rows came off to be done again; Saved says what came back
	Renewed  Kind = "renewed"    // the outer Rows were done again, by the install Of
	Noted    Kind = "noted"      // Text, or the picture Photo
	Down     Kind = "taken-down" // all came off: Saved, Things, Minutes, Felt, Edges, Lengths
)

// Comfort is how a head felt over the weeks, as a client's card has it.
type Comfort string

// How it felt.
const (
	Comfortable Comfort = "comfortable"
	Tight       Comfort = "tight"
	Painful     Comfort = "painful"
)

// Change is how the edges came out.
type Change string

// How they came out.
const (
	Better Change = "better"
	Same   Change = "same"
	Worse  Change = "worse"
)

// Saved is what came back of a piece.
type Saved struct {
	Piece string `json:"piece" maxLength:"40" doc:"Key of the piece"`
	Good  int    `json:"good" minimum:"0" maximum:"500"`
	Worn  int    `json:"worn" minimum:"0" maximum:"500" doc:"Fit for filling, for covered rows or for practice"`
}

// Entry is one thing that was seen or done while a head was worn.
type Entry struct {
	ID string `json:"id" minLength:"8" maxLength:"64"`
	// On is the day by the studio's calendar, Day the same counted from the last check.
	On    string           `json:"on" maxLength:"10"`
	Day   int              `json:"day"`
	Kind  Kind             `json:"kind" enum:"checked,put-back,replaced,lost,ring-off,renewed,noted,taken-down"`
	Signs map[string]Grade `json:"signs,omitempty"`
	Piece string           `json:"piece,omitempty" maxLength:"40"`
	Count int              `json:"count,omitempty" minimum:"0" maximum:"500"`
	Rows  int              `json:"rows,omitempty" minimum:"0" maximum:"2"`
	Saved []Saved          `json:"saved,omitempty" maxItems:"12"`
	// Things are the small ones that came back, in the order of the brief.
	Things  []int   `json:"things,omitempty" maxItems:"12"`
	Minutes float64 `json:"minutes,omitempty" minimum:"0" maximum:"3000"`
	Felt    Comfort `json:"felt,omitempty" enum:"comfortable,tight,painful,"`
	Edges   Change  `json:"edges,omitempty" enum:"better,same,worse,"`
	// Length is the longest own hair, measured once it is undone, mm; 0 where nobody measured.
	Length float64 `json:"lengthMm,omitempty" minimum:"0" maximum:"2000"`
	Text   string  `json:"text,omitempty" maxLength:"2000"`
	Photo  string  `json:"photo,omitempty" maxLength:"64"`
	Of     string  `json:"of,omitempty" maxLength:"64" doc:"Id of the install by which rows were done again"`
	// By is the name of who wrote it down, At when, by the studio's clock: of two on one day the later one
	// counts.
	By string `json:"by,omitempty" maxLength:"80"`
	At int64  `json:"at,omitempty" doc:"When it was first written down, milliseconds since 1970 UTC; set by the studio"`
}

// Health tells whether an entry says anything of scalp, hair or how the client felt, which is kept with
// consent alone.
func (e *Entry) Health() bool {
	return len(e.Signs) > 0 || strings.TrimSpace(e.Text) != "" || e.Felt != "" || e.Edges != "" || e.Length != 0
}

// WithoutHealth is an entry with nothing in it that [Entry.Health] speaks of.
func (e Entry) WithoutHealth() Entry {
	e.Signs, e.Text, e.Felt, e.Edges, e.Length = nil, "", "", "", 0
	return e
}

// kind is what an entry of a kind must say and does.
type kind struct {
	needs func(*Brief, *Entry, *State, *invalid.Errors)
	apply func(*Brief, *State, *Entry)
}

var kinds = map[Kind]kind{
	Checked: {func(_ *Brief, e *Entry, _ *State, bad *invalid.Errors) {
		if len(e.Signs) == 0 {
			bad.Add("signs", "Answer at least one of what to look for.")
		}
		checkSigns(bad, e.Signs)
	}, func(_ *Brief, s *State, e *Entry) { s.Checks = append(s.Checks, *e) }},
	Mended: {onePiece, func(_ *Brief, s *State, e *Entry) { s.Mended, s.mendedOn = s.Mended+e.Count, e.Day }},
	Replaced: {onePiece, func(_ *Brief, s *State, e *Entry) {
		s.Replaced += e.Count
		s.mendedOn = e.Day
		s.Replacements[e.Piece] += e.Count
		s.Spent[e.Piece] += e.Count
	}},
	Lost: {onePiece, func(_ *Brief, s *State, e *Entry) {
		s.Lost += e.Count
		s.Hung[e.Piece] -= e.Count
		s.Spent[e.Piece] += e.Count
	}},
	RingOff: {func(b *Brief, e *Entry, s *State, bad *invalid.Errors) {
		bad.Count("rows", "The outer rows", e.Rows, 1, 2)
		checkSaved(b, e, s, bad)
	}, func(_ *Brief, s *State, e *Entry) {
		for _, x := range e.Saved {
			s.Saved[x.Piece] += x.Good + x.Worn
		}
	}},
	Renewed: {func(_ *Brief, e *Entry, _ *State, bad *invalid.Errors) {
		bad.Count("rows", "The outer rows", e.Rows, 1, 2)
	}, func(_ *Brief, s *State, e *Entry) {
		s.rows, s.RenewedOn = max(s.rows, e.Rows), e.Day
		s.times++
	}},
	Noted: {func(_ *Brief, e *Entry, _ *State, bad *invalid.Errors) {
		if strings.TrimSpace(e.Text) == "" && e.Photo == "" {
			bad.Add("text", "Write a note, or take a picture.")
		}
	}, func(*Brief, *State, *Entry) {}},
	Down: {func(b *Brief, e *Entry, s *State, bad *invalid.Errors) {
		checkSaved(b, e, s, bad)
		if len(e.Things) > len(b.Things) {
			bad.Add("things", "There were %d kinds of small things.", len(b.Things))
			return
		}
		for i, n := range e.Things {
			bad.Count(invalid.At("things", i), b.Things[i].Name, n, 0, b.Things[i].Count)
		}
		if e.Felt != "" {
			invalid.OneOf(bad, "felt", "How it felt", e.Felt, []Comfort{Comfortable, Tight, Painful})
		}
		if e.Edges != "" {
			invalid.OneOf(bad, "edges", "How the edges came out", e.Edges, []Change{Better, Same, Worse})
		}
		if e.Length != 0 {
			bad.Length("lengthMm", "The longest own hair", e.Length, 5, 2000)
		}
	}, func(_ *Brief, s *State, e *Entry) {
		down := *e
		s.Off, s.Down = e.Day, &down
		for _, x := range e.Saved {
			s.Saved[x.Piece] += x.Good + x.Worn
		}
	}},
}

func onePiece(_ *Brief, e *Entry, s *State, bad *invalid.Errors) {
	hung, known := s.Hung[e.Piece]
	if !known {
		bad.Add("piece", "Say which piece.")
		return
	}
	bad.Count("count", "How many", e.Count, 1, max(1, hung))
}

// checkSaved refuses more of a piece than hangs.
func checkSaved(_ *Brief, e *Entry, s *State, bad *invalid.Errors) {
	for i, x := range e.Saved {
		hung, known := s.Hung[x.Piece]
		hung -= s.Saved[x.Piece]
		at := invalid.At("saved", i)
		if !known {
			bad.Add(at+".piece", "No piece %q hung.", x.Piece)
			continue
		}
		bad.Count(at+".good", "Good ones", x.Good, 0, hung)
		bad.Count(at+".worn", "Worn ones", x.Worn, 0, max(0, hung-x.Good))
	}
}

// Check refuses an entry that nobody could make sense of, on a head whose other entries are others.
func (e *Entry) Check(b *Brief, hung map[string]int, others []Entry) error {
	var bad invalid.Errors
	k, known := kinds[e.Kind]
	if !known {
		bad.Add("kind", "There is no entry %q.", e.Kind)
		return bad
	}
	if e.Day < 0 {
		bad.Add("on", "The day lies before the head was finished.")
	}
	s := b.Fold(hung, others)
	if e.Kind != Noted && s.Off >= 0 && (e.Kind == Down || e.Day > s.Off) {
		bad.Add("kind", "It is taken down already, on day %d. Take that back first.", s.Off)
	}
	k.needs(b, e, s, &bad)
	bad.Letters("text", "The note", e.Text, 0, 2000)
	return bad.Err()
}

// State is what the entries of a head come to.
type State struct {
	// Hung is how many of each piece hang or hung, Spent how many of them were lost, Replacements how
	// many new ones hang in their place, Saved how many came back; all by key of the piece.
	Hung, Spent, Replacements, Saved map[string]int
	Checks                           []Entry // the oldest first
	Mended                           int
	Replaced, Lost                   int
	// RenewedOn is the day rows were done again last, -1 for never.
	RenewedOn int
	// Off is the day it was taken down, -1 while it is worn; Down is what was told of that.
	Off  int
	Down *Entry

	rows, times, mendedOn int
}

// Fold is what entries come to, given how many of each piece hung at the end of the install, those
// of rows that were done again among them. Days decide their order, then when they were written down.
func (b *Brief) Fold(hung map[string]int, entries []Entry) *State {
	s := &State{Hung: map[string]int{}, Spent: map[string]int{}, Replacements: map[string]int{}, Saved: map[string]int{}, RenewedOn: -1, Off: -1, mendedOn: -1}
	for k, n := range hung {
		s.Hung[k] = n
	}
	sorted := slices.Clone(entries)
	slices.SortStableFunc(sorted, func(a, b Entry) int {
		return cmp.Or(cmp.Compare(a.Day, b.Day), cmp.Compare(a.At, b.At), cmp.Compare(a.ID, b.ID))
	})
	for i := range sorted {
		if k, known := kinds[sorted[i].Kind]; known {
			k.apply(b, s, &sorted[i])
		}
	}
	return s
}

// gain is how many weeks rows done again add.
func (s *State) gain() int {
	if s.times == 0 {
		return 0
	}
	return gained[s.rows]
}

// lower is a text with its first letter small.
func lower(text string) string {
	if text == "" {
		return ""
	}
	return strings.ToLower(text[:1]) + text[1:]
}
