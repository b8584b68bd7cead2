package chair

import (
	"cmp"
	"slices"
	"unicode/utf8"

	"kladotex/core/invalid"
)

// Kind is what an event tells.
type Kind string

// The kinds.
const (
	Began        Kind = "began"        // somebody is at work, for the first time or after a pause
	Done         Kind = "done"         // Tasks
	Redo         Kind = "redo"         // Tasks have to be done again
	LeftOut      Kind = "left-out"     // Places stay without
	Split        Kind = "split"        // a place came out as two
	Moved        Kind = "moved"        // Places came out elsewhere, as Text says
	Spoilt       Kind = "spoilt"       // Count of Piece
	Opened       Kind = "opened"       // Count packs of Piece
	Short        Kind = "short"        // an opened pack of Piece held Count fewer than its label says
	Bought       Kind = "bought"       // Count packs of Piece came to hand
	Filled       Kind = "filled"       // Count of Piece were put where it was thin
	Paused       Kind = "paused"       // work rests; Text says why
	Rested       Kind = "rested"       // arms put down, water drunk or a break put off, as Text says; work goes on
	Answered     Kind = "answered"     // the client was asked how it feels: Text is a key, Answer what was said
	Checked      Kind = "checked"      // a look of the last check was taken; Text is its key
	Noted        Kind = "noted"        // Text
	Photographed Kind = "photographed" // Photo is the id of a picture
	Ended        Kind = "ended"        // the last check is taken
	Undone       Kind = "undone"       // the event named by Of did not happen
)

// Answer is how it feels.
type Answer string

// The answers.
const (
	Fine  Answer = "fine"
	Pulls Answer = "pulls"
	Hurts Answer = "hurts"
)

// Event is one thing that happened. ID is made by the device, and the same event sent twice is one.
type Event struct {
	ID string `json:"id" minLength:"8" maxLength:"64"`
	// N is one more than the largest of any event the device knew when this was made: what is
	// told later of the same thing counts, whatever the clocks of two devices say.
	N int `json:"n" minimum:"1" maximum:"1000000"`
	// At is when, by the clock of the device.
	At int64 `json:"at" doc:"Milliseconds since 1970, UTC, by the clock of the device"`
	// Hand is the key of who did it.
	Hand   string   `json:"hand" maxLength:"64"`
	Kind   Kind     `json:"kind" enum:"began,done,redo,left-out,split,moved,spoilt,opened,short,bought,filled,paused,rested,answered,checked,noted,photographed,ended,undone"`
	Tasks  []string `json:"tasks,omitempty" maxItems:"400"`
	Places []string `json:"places,omitempty" maxItems:"400"`
	Piece  string   `json:"piece,omitempty" maxLength:"40" doc:"Key of a piece"`
	Count  int      `json:"count,omitempty" minimum:"0" maximum:"500"`
	Text   string   `json:"text,omitempty" maxLength:"2000"`
	Answer Answer   `json:"answer,omitempty" enum:"fine,pulls,hurts,"`
	Photo  string   `json:"photo,omitempty" maxLength:"64"`
	Of     string   `json:"of,omitempty" maxLength:"64" doc:"Id of the event that did not happen"`
}

// kind is what an event of a kind does and must say.
type kind struct {
	apply func(*State, *Event)
	// needs tells what is missing in it; empty for nothing.
	needs func(*Event) string
	// breaks is true where the clock of who works stops.
	breaks bool
	// says is what is shown of it in the list of what was last done.
	says func(*State, *Event) string
}

func tasksNamed(e *Event) string {
	if len(e.Tasks) == 0 {
		return "Name at least one task."
	}
	return ""
}

func placesNamed(e *Event) string {
	if len(e.Places) == 0 {
		return "Name at least one spot."
	}
	return ""
}

func counted(e *Event) string {
	if e.Count < 1 || e.Piece == "" {
		return "Say of which piece, and how many: 1 or more."
	}
	return ""
}

func said(e *Event) string {
	if e.Text == "" {
		return "Say what."
	}
	return ""
}

func anything(*Event) string { return "" }

// kinds are all kinds of events.
var kinds map[Kind]kind

func init() { // it refers to what reads it
	kinds = map[Kind]kind{
		Began:    {(*State).began, anything, false, sayWord("Work began")},
		Done:     {(*State).done, tasksNamed, false, sayTasks("")},
		Redo:     {(*State).redo, tasksNamed, false, sayTasks("to do again: ")},
		LeftOut:  {(*State).leftOut, placesNamed, false, sayPlaces("left out")},
		Split:    {(*State).split, placesNamed, false, sayPlaces("came out as two")},
		Moved:    {(*State).moved, placesNamed, false, sayPlaces("came out elsewhere")},
		Spoilt:   {(*State).tally, counted, false, sayPieces("spoilt")},
		Opened:   {(*State).tally, counted, false, sayPacks("opened")},
		Short:    {(*State).tally, counted, false, sayPieces("too few in a pack")},
		Bought:   {(*State).tally, counted, false, sayPacks("came to hand")},
		Filled:   {(*State).tally, counted, false, sayPieces("filled in")},
		Paused:   {nothing, anything, true, sayWord("Pause")},
		Rested:   {nothing, said, false, sayWord("Rested")},
		Answered: {(*State).answered, said, false, sayWord("Asked how it feels")},
		Checked:  {(*State).checked, said, false, sayWord("Looked over")},
		Noted:    {(*State).noted, said, false, sayText},
		Photographed: {(*State).photographed, func(e *Event) string {
			if e.Photo == "" {
				return "Name the picture."
			}
			return ""
		}, false, sayWord("Picture taken")},
		Ended: {(*State).ended, anything, true, sayWord("Finished")},
		Undone: {nothing, func(e *Event) string {
			if e.Of == "" {
				return "Name the event that did not happen."
			}
			return ""
		}, false, nil},
	}
}

// Check refuses an event that nobody could make sense of.
func (e *Event) Check(bad *invalid.Errors, path string) {
	k, known := kinds[e.Kind]
	if !known {
		bad.Add(path+"kind", "There is no event %q.", e.Kind)
		return
	}
	if e.N < 1 {
		bad.Add(path+"n", "The number of an event is 1 or more.")
	}
	if n := utf8.RuneCountInString(e.ID); n < 8 || n > 64 {
		bad.Add(path+"id", "The id of an event has 8 to 64 letters.")
	}
	if why := k.needs(e); why != "" {
		bad.Add(path+"kind", "%s", why)
	}
}

// compare puts events in the order they count: by what their devices knew, then by id, so that it
// is one order everywhere.
func compare(a, b Event) int {
	return cmp.Or(
		cmp.Compare(a.N, b.N), cmp.Compare(a.ID, b.ID), cmp.Compare(a.At, b.At), cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.Hand, b.Hand),
		slices.Compare(a.Tasks, b.Tasks), slices.Compare(a.Places, b.Places), cmp.Compare(a.Piece, b.Piece), cmp.Compare(a.Count, b.Count),
		cmp.Compare(a.Text, b.Text), cmp.Compare(a.Answer, b.Answer), cmp.Compare(a.Photo, b.Photo), cmp.Compare(a.Of, b.Of),
	)
}
