// Package client holds what a stylist knows about a person in the chair: the
// tapes, the hair, what calls for caution. Lengths are mm.
//
// The document is what is stored and exported. It holds no judgement of its own;
// [Facts.Cautions] draws the cautions from it and [Facts.Begin] the start of a
// plan.
package client

import (
	"fmt"
	"slices"
	"strings"

	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/core/wear"
	"kladotex/core/words"
)

// Facts are all that is known of one client.
type Facts struct {
	Schema   int    `json:"schema" doc:"Version of this document's schema" minimum:"1"`
	Contact  string `json:"contact" maxLength:"200" doc:"How to reach the client, in their words"`
	Guardian string `json:"guardian" maxLength:"120" doc:"Who decides for a child; empty for an adult"`
	// Tapes are nil until they were taken.
	Tapes *scalp.Tapes `json:"tapes,omitempty"`
	// Hairline is how it departs from the usual one; it belongs to the person, and every
	// plan starts with it.
	Hairline scalp.Hairline `json:"hairline"`
	Stature  float64        `json:"statureMm" doc:"Height standing, mm; 0 when not asked"`
	Hair     hair.Own       `json:"hair" doc:"A length of 0 was not measured"`
	History  []Event        `json:"history" maxItems:"20" enum:"chemical,heat-damage,hair-loss,sore-scalp,fibre-itch,product-allergy,pain-before" doc:"What calls for caution"`
	// Allergies are the products that are not borne.
	Allergies []plan.ProductKey `json:"allergies,omitempty" maxItems:"9" enum:"bands,rings,cord,gel,wax,oil,leave-in,foam,glue" doc:"Products that are not borne"`
	Notes     string            `json:"notes" maxLength:"4000"`
	Consent   Consent           `json:"consent"`
	Installs  []Install         `json:"installs" maxItems:"100" doc:"Earlier installs, newest first"`
}

// Event is something in the past, or going on, that calls for caution.
type Event string

// The events.
const (
	Chemical       Event = "chemical"
	HeatDamage     Event = "heat-damage"
	HairLoss       Event = "hair-loss"
	SoreScalp      Event = "sore-scalp"
	FibreItch      Event = "fibre-itch"
	ProductAllergy Event = "product-allergy"
	PainBefore     Event = "pain-before"
)

// Consent is what was agreed to before the first install.
type Consent struct {
	Given  bool   `json:"given"`
	On     string `json:"on" maxLength:"10" doc:"Day as YYYY-MM-DD; empty when not given"`
	Covers string `json:"covers" maxLength:"500" doc:"What was agreed to"`
	// Withheld is what the client did not agree to.
	Withheld []Keeping `json:"withheld,omitempty" maxItems:"2" enum:"photos,health" doc:"What the client did not agree to"`
}

// Keeping is something that is kept of a client only with consent.
type Keeping string

// What is kept.
const (
	KeepPhotos Keeping = "photos"
	KeepHealth Keeping = "health"
)

// Withholds tells whether something was refused.
func (c Consent) Withholds(k Keeping) bool { return slices.Contains(c.Withheld, k) }

// Allows tells whether something was agreed to.
func (c Consent) Allows(k Keeping) bool { return c.Given && !c.Withholds(k) }

// Install is an earlier install, as far as it is remembered.
type Install struct {
	On      string  `json:"on" maxLength:"10" doc:"Day as YYYY-MM-DD"`
	What    string  `json:"what" maxLength:"200"`
	Weeks   float64 `json:"weeksWorn"`
	Comfort string  `json:"comfort" enum:"comfortable,tight,painful"`
	// Mass is that of all that hung, g; 0 where nobody weighed or counted.
	Mass float64 `json:"massG,omitempty" doc:"Mass of all that hung, g; left out where nobody knows"`
	Note string  `json:"note" maxLength:"1000"`
}

// New are the facts of a client nobody has asked yet.
func New() Facts {
	return Facts{
		Schema:  Schema,
		Hair:    hair.Own{Density: 190, Strand: 75, Texture: hair.Coily, Edges: hair.StrongEdges},
		History: []Event{}, Installs: []Install{},
	}
}

var cautions = map[Event]string{
	Chemical:       "Recent chemical service: hair breaks more easily. Wait or refer; no weight on fresh relaxer or bleach.",
	HeatDamage:     "Heat-damaged lengths: plait loosely and hang light.",
	HairLoss:       "Hair loss: ask a clinician before anything is hung. No piece on a thin area.",
	SoreScalp:      "Sore, broken or infected scalp: not now. Refer to a clinician.",
	FibreItch:      "Fibre coatings have itched before: rinse and dry all hair overnight first.",
	ProductAllergy: "Product allergy: patch test, and read what is in it.",
	PainBefore:     "An earlier install hurt: looser plaits, lighter pieces, ask while you work.",
}

// Cautions are what a stylist should have in sight, gravest first. They
// are usual practice, not medical advice.
func (f Facts) Cautions() []string {
	out := []string{}
	for _, e := range []Event{SoreScalp, HairLoss, Chemical, ProductAllergy, FibreItch, PainBefore, HeatDamage} {
		if slices.Contains(f.History, e) || e == ProductAllergy && len(f.Allergies) > 0 {
			out = append(out, f.caution(e))
		}
	}
	if f.Hair.Tender {
		out = append(out, "Tender scalp: a little slack in every plait; pain, bumps or stinging mean loosen now.")
	}
	switch f.Hair.Edges {
	case hair.FragileEdges:
		out = append(out, "Fragile edges: leave the tender ones out, nothing long or heavy on the first row.")
	case hair.BareEdges:
		out = append(out, "Bare edges: hang nothing there; ask a clinician if it is new.")
	}
	if f.Guardian != "" {
		out = append(out, childCaution)
	}
	return out
}

// caution is what an event calls for.
func (f Facts) caution(e Event) string {
	if e != ProductAllergy || len(f.Allergies) == 0 {
		return cautions[e]
	}
	names := make([]string, len(f.Allergies))
	for i, key := range f.Allergies {
		names[i] = key.Name()
	}
	return "Allergy to " + words.List(names) + ": none of it on this head; patch test others, and read what is in them."
}

// Grave is a caution that must be read before anything is attached.
type Grave struct {
	Key  string `json:"key"`
	Text string `json:"text"`
}

// Child is the key of the caution of a child; those of events are the events.
const Child = "child"

// stops are what nobody goes on with before it was read: sore or broken scalp, active loss, a recent
// chemical service. Usual practice, not medical advice.
var stops = []Event{SoreScalp, HairLoss, Chemical}

// asks are the questions on them, for a head that no card speaks of.
var asks = map[Event]string{
	SoreScalp: "Is the scalp sore, broken or infected anywhere?",
	HairLoss:  "Is hair being lost: thinner edges, bare patches, more in the comb than before?",
	Chemical:  "Relaxed, bleached, coloured or permed in the last weeks?",
}

// Asks are the questions that are asked about a head that no card speaks of, each with the key of its
// caution.
func Asks() []Grave {
	out := make([]Grave, len(stops))
	for i, e := range stops {
		out[i] = Grave{string(e), asks[e]}
	}
	return out
}

// Grave are the cautions without which nobody goes on.
func (f Facts) Grave() []Grave { return f.GraveOn(false) }

// GraveOn are the same on a head that may be a child's though no guardian is on the card.
func (f Facts) GraveOn(child bool) []Grave {
	out := []Grave{}
	for _, e := range stops {
		if slices.Contains(f.History, e) {
			out = append(out, Grave{string(e), cautions[e]})
		}
	}
	if child || f.Guardian != "" {
		out = append(out, Grave{Child, childCaution})
	}
	return out
}

const childCaution = "A child: lighter, fewer, looser, shorter wear. No hot water over the back. The guardian decides."

// Begin puts the client's head, hairline and hair into a plan's input, which keeps what
// the facts do not tell. Lengths that were not measured are taken as long as the longest
// that was: a plait that turns out shorter is hidden as well.
func (f Facts) Begin(in plan.Input) plan.Input {
	if f.Tapes != nil {
		in.Head = *f.Tapes
	}
	if f.Tapes != nil || f.Hairline != (scalp.Hairline{}) {
		in.Hairline = f.Hairline
	}
	in.Child, in.Avoid = f.Guardian != "", f.Allergies
	if f.Stature > 0 {
		in.Stature = f.Stature
	}
	before := in.Hair
	in.Hair = f.Hair
	longest := f.Hair.Longest()
	for _, l := range []struct{ mm, kept *float64 }{
		{&in.Hair.Front, &before.Front}, {&in.Hair.Sides, &before.Sides}, {&in.Hair.Crown, &before.Crown}, {&in.Hair.Nape, &before.Nape},
	} {
		switch {
		case longest == 0:
			*l.mm = *l.kept
		case *l.mm == 0:
			*l.mm = longest
		}
	}
	return in
}

// Earlier are the earlier installs, to compare a new one with.
func (f Facts) Earlier() []wear.Earlier {
	out := make([]wear.Earlier, len(f.Installs))
	for i, in := range f.Installs {
		out[i] = wear.Earlier{What: in.What, On: in.On, Mass: in.Mass, Comfortable: in.Comfort == "comfortable"}
	}
	return out
}

// Check refuses facts that cannot be, as [invalid.Errors] with paths relative to
// f.
func (f Facts) Check() error {
	var bad invalid.Errors
	if f.Schema != Schema {
		bad.Add("schema", "This card is of version %d; this program reads versions up to %d. A newer Kladotex will open it.", f.Schema, Schema)
	}
	// The hairline is judged on the client's head, or on a usual one until it is measured.
	tapes, under := plan.Default().Head, "tapes"
	if f.Tapes != nil {
		tapes = *f.Tapes
	}
	_, err := scalp.FitWith(tapes, f.Hairline)
	for _, field := range invalid.From(err) {
		if path, line := strings.CutPrefix(field.Path, "hairline"); line {
			bad = append(bad, invalid.Field{Path: "hairline" + path, Message: field.Message})
		} else {
			bad = append(bad, invalid.Field{Path: strings.Replace(field.Path, "head", under, 1), Message: field.Message})
		}
	}
	if err != nil && invalid.From(err) == nil {
		return err
	}
	if f.Stature != 0 {
		bad.Length("statureMm", "Height", f.Stature, 600, 2400)
	}
	f.Hair.Check(&bad, "hair.", true)
	if f.Consent.Given || f.Consent.On != "" {
		bad.Day("consent.on", "The day of consent", f.Consent.On)
	}
	for i, k := range f.Consent.Withheld {
		invalid.OneOf(&bad, invalid.At("consent.withheld", i), "What was not agreed to", k, []Keeping{KeepPhotos, KeepHealth})
	}
	for i, key := range f.Allergies {
		invalid.OneOf(&bad, invalid.At("allergies", i), "The product", key, plan.ProductKeys())
	}
	for i, in := range f.Installs {
		path := fmt.Sprintf("installs[%d].", i)
		bad.Day(path+"on", "The day of the install", in.On)
		bad.Number(path+"weeksWorn", "Weeks worn", in.Weeks, 0, 60, "")
		bad.Number(path+"massG", "Mass of what hung", in.Mass, 0, 5000, " g")
	}
	return bad.Err()
}
