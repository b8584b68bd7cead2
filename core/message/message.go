// Package message writes what a studio tells a client around an install: what to bring and how
// to prepare, a reminder, and how to care for it. A studio words them; names in braces stand for
// what is different each time.
package message

import (
	"maps"
	"regexp"
	"slices"
	"strings"

	"kladotex/core/invalid"
)

// Kind is what a message is for.
type Kind string

// The kinds.
const (
	Prepare  Kind = "prepare"
	Reminder Kind = "reminder"
	Care     Kind = "care"
)

// Template is how a studio words a message.
type Template struct {
	Subject string `json:"subject" maxLength:"160"`
	Body    string `json:"body" maxLength:"6000"`
}

// Sort is a kind with its name, when it is sent, and how it is worded where the studio has no
// words of its own.
type Sort struct {
	Kind  Kind     `json:"kind"`
	Name  string   `json:"name"`
	Short string   `json:"short" doc:"Its name in a word or two"`
	When  string   `json:"when"`
	Usual Template `json:"usual"`
}

// Sorts are all kinds, in the order they are sent. Their words are common practice.
var Sorts = []Sort{
	{Prepare, "What to bring, how to prepare", "To prepare", "Sent once it is booked", Template{
		"Your appointment on {date}",
		"Dear {client},\n\nyou are booked with {by}, {studio}:\n{sittings}\n\nPlease come with your hair washed, dried and stretched, without oil or gel in it. {bring}\n\nEat before you come, bring something to drink and to read, and wear a top that need not go over your head. Tell us beforehand of a sore scalp, hair loss, a chemical service or anything that itches: then we may have to wait.\n\n{studio}",
	}},
	{Reminder, "Reminder", "Reminder", "Sent a day or two before", Template{
		"Tomorrow is near: {date}, {time}",
		"Dear {client},\n\na reminder of your appointment on {date} at {time} with {by}. It takes about {hours}, with breaks.\n\nHair washed, dried and stretched, please, and something eaten. If you cannot come, let us know as early as you can.\n\n{studio}",
	}},
	{Care, "Care sheet", "Care", "Sent when it is done", Template{
		"How to care for it",
		"Dear {client},\n\n{care}\n\nPain, bumps or stinging mean too tight: come back at once, it is loosened. This is the usual advice of the trade, not medical advice; with a rash, sores or hair loss ask a clinician.\n\n{studio}",
	}},
}

// Of is the sort of a kind; false where there is none.
func Of(kind Kind) (Sort, bool) {
	i := slices.IndexFunc(Sorts, func(s Sort) bool { return s.Kind == kind })
	if i < 0 {
		return Sort{}, false
	}
	return Sorts[i], true
}

// Kinds are all of them.
func Kinds() []Kind {
	out := make([]Kind, len(Sorts))
	for i, s := range Sorts {
		out[i] = s.Kind
	}
	return out
}

// Fields are the names that may stand in braces, with what they stand for.
var Fields = map[string]string{
	"client": "the client's name", "studio": "what the studio is called", "by": "who works", "date": "the day of the first sitting",
	"time": "when it begins", "sittings": "all sittings, a line each", "hours": "how long they last", "bring": "what to bring along", "care": "how it is cared for",
}

var braced = regexp.MustCompile(`\{([^{}]*)\}`)

// Check refuses words that are missing or too long, and names in braces that stand for nothing.
func (t Template) Check(bad *invalid.Errors, path string) {
	bad.Letters(path+"subject", "The subject", strings.TrimSpace(t.Subject), 1, 160)
	bad.Letters(path+"body", "The message", strings.TrimSpace(t.Body), 1, 3000)
	for field, text := range map[string]string{"subject": t.Subject, "body": t.Body} {
		for _, m := range braced.FindAllStringSubmatch(text, -1) {
			if _, known := Fields[m[1]]; !known {
				bad.Add(path+field, "{%s} stands for nothing. These do: {%s}.", m[1], strings.Join(slices.Sorted(maps.Keys(Fields)), "}, {"))
			}
		}
	}
}

// Fill puts values in place of the names in braces. Values are not looked through again: braces
// in a name stay as they are.
func (t Template) Fill(values map[string]string) Template {
	put := func(text string) string {
		return braced.ReplaceAllStringFunc(text, func(m string) string {
			if v, has := values[m[1:len(m)-1]]; has {
				return v
			}
			return m
		})
	}
	return Template{put(t.Subject), put(t.Body)}
}
