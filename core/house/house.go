// Package house holds the house rules of a studio: what is the same for all its plans.
package house

import (
	"encoding/json"
	"fmt"
	"maps"
	"reflect"
	"regexp"

	"kladotex/core/invalid"
	"kladotex/core/message"
	"kladotex/core/quote"
)

// Schema is the version of the document this package writes.
const Schema = 1

// Rules are the house rules, one document for a studio.
type Rules struct {
	Schema int `json:"schema" doc:"Version of this document's schema" minimum:"1"`
	// Currency is that of every price the studio keeps; a price does not name its own.
	Currency string `json:"currency" pattern:"^[A-Z]{3}$" doc:"ISO 4217 code of the studio's currency"`
	// Sides are those the studio takes where practitioners disagree, by the question's key;
	// those left out are as usual.
	Sides map[string]string `json:"sides,omitempty" doc:"The sides the studio takes, by the question's key"`
	// Terms are what it asks for its work; nil until they are set.
	Terms *quote.Terms `json:"terms,omitempty" doc:"What the studio asks for its work; left out until it is set"`
	// Chairs are how many can sit at once; 0 for one.
	Chairs int `json:"chairs,omitempty" doc:"How many can sit at once; left out for one"`
	// Zone is that of the studio's clock, by its name in the zone database; empty for this
	// machine's.
	Zone string `json:"zone,omitempty" maxLength:"64" doc:"Zone of the studio's clock, such as Europe/Lisbon; left out for this machine's"`
	// Paper is what papers are printed on; empty for what each reader prefers.
	Paper string `json:"paper,omitempty" enum:"letter,a4" doc:"Size of the studio's paper; left out for each reader's own"`
	// Letters are the words of messages, by kind; those left out are as usual.
	Letters map[message.Kind]message.Template `json:"letters,omitempty" doc:"Words of messages by kind; those left out are as usual"`
	// Keeps is for how long pictures and health notes are kept; nil keeps them until they are deleted.
	Keeps *Keeps `json:"keeps,omitempty" doc:"For how long pictures and health notes are kept; left out to keep them until they are deleted"`
}

// Keeps is for how many months after the end of an install what is delicate is kept; 0 is until it is
// deleted.
type Keeps struct {
	Photos int `json:"photoMonths" minimum:"0" maximum:"120"`
	Health int `json:"healthMonths" minimum:"0" maximum:"120"`
}

const mostMonths = 120

// mostChairs bounds the chairs of a studio.
const mostChairs = 40

// Seats are how many can sit at once.
func (r Rules) Seats() int { return max(1, r.Chairs) }

// Letter is how a kind of message is worded.
func (r Rules) Letter(kind message.Kind) message.Template {
	if t, ok := r.Letters[kind]; ok {
		return t
	}
	s, _ := message.Of(kind)
	return s.Usual
}

// Asks are the studio's terms; the usual where none are set.
func (r Rules) Asks() quote.Terms {
	if r.Terms == nil {
		return quote.UsualTerms()
	}
	return *r.Terms
}

// Equal tells whether two documents say the same.
func (r Rules) Equal(other Rules) bool {
	return r.Schema == other.Schema && r.Currency == other.Currency && maps.Equal(r.Sides, other.Sides) && reflect.DeepEqual(r.Terms, other.Terms) &&
		r.Chairs == other.Chairs && r.Zone == other.Zone && r.Paper == other.Paper && maps.Equal(r.Letters, other.Letters) &&
		reflect.DeepEqual(r.Keeps, other.Keeps)
}

// Usual are the rules a studio starts with.
func Usual() Rules { return Rules{Schema: Schema, Currency: "USD"} }

var code = regexp.MustCompile(`^[A-Z]{3}$`)

// Check refuses rules that cannot be, as [invalid.Errors] with paths relative to r.
func (r Rules) Check() error {
	var bad invalid.Errors
	if r.Schema != Schema {
		bad.Add("schema", "These house rules are of version %d; this program reads versions up to %d. A newer Kladotex will open them.", r.Schema, Schema)
	}
	if !code.MatchString(r.Currency) {
		bad.Add("currency", "A currency is three capital letters, such as USD; it is %q.", r.Currency)
	}
	r.checkSides(&bad)
	if r.Terms != nil {
		r.Terms.Check(&bad, "terms.")
	}
	if r.Chairs != 0 {
		bad.Count("chairs", "The number of chairs", r.Chairs, 1, mostChairs)
	}
	if r.Paper != "" {
		invalid.OneOf(&bad, "paper", "The paper", r.Paper, []string{"letter", "a4"})
	}
	if r.Keeps != nil {
		bad.Count("keeps.photoMonths", "Months for which pictures are kept", r.Keeps.Photos, 0, mostMonths)
		bad.Count("keeps.healthMonths", "Months for which health notes are kept", r.Keeps.Health, 0, mostMonths)
	}
	for kind, t := range r.Letters {
		if invalid.OneOf(&bad, "letters", "The kind of a message", kind, message.Kinds()); len(bad) == 0 {
			t.Check(&bad, fmt.Sprintf("letters.%s.", kind))
		}
	}
	return bad.Err()
}

// Decode reads rules as they are stored. Versions have been one so far.
func Decode(raw []byte) (Rules, error) {
	var r Rules
	if err := json.Unmarshal(raw, &r); err != nil {
		return Rules{}, fmt.Errorf("reading the house rules: %w", err)
	}
	if err := r.Check(); err != nil {
		return Rules{}, fmt.Errorf("reading the house rules: %w", err)
	}
	return r, nil
}
