// Package client holds what a stylist knows about a person in the chair: the
// tapes, the hair, what calls for caution. Lengths are mm.
//
// The document is what is stored and exported. It holds no judgement of its own;
// [Facts.Cautions] draws the cautions from it and [Facts.Begin] the start of a
// plan.
package client

import (
	"fmt"
	"regexp"

	"kladotex/core/invalid"
	"kladotex/core/plan"
	"kladotex/core/scalp"
)

// Facts are all that is known of one client.
type Facts struct {
	Contact  string `json:"contact" maxLength:"200" doc:"How to reach the client, in their words"`
	Guardian string `json:"guardian" maxLength:"120" doc:"Who decides for a child; empty for an adult"`
	// Tapes are nil until they were taken.
	Tapes    *scalp.Tapes `json:"tapes,omitempty"`
	Stature  float64      `json:"statureMm" doc:"Height standing, mm; 0 when not asked"`
	Hair     OwnHair      `json:"hair"`
	History  []Event      `json:"history" maxItems:"20" enum:"chemical,heat-damage,hair-loss,sore-scalp,fibre-itch,product-allergy,pain-before" doc:"What calls for caution"`
	Notes    string       `json:"notes" maxLength:"4000"`
	Consent  Consent      `json:"consent"`
	Installs []Install    `json:"installs" maxItems:"100" doc:"Earlier installs, newest first"`
}

// OwnHair is the client's own hair.
type OwnHair struct {
	// Lengths when stretched, by zone; 0 when not measured.
	Front float64 `json:"frontMm"`
	Sides float64 `json:"sidesMm"`
	Crown float64 `json:"crownMm"`
	Nape  float64 `json:"napeMm"`

	Density float64 `json:"densityPerCm2" doc:"Hairs per square centimetre"`
	Strand  float64 `json:"strandUm" doc:"Diameter of one hair, micrometres"`
	Texture Texture `json:"texture" enum:"straight,wavy,curly,coily"`
	Tender  bool    `json:"tenderScalp"`
	Edges   Edges   `json:"edges" enum:"strong,fine,fragile,bare"`
}

// Texture is how the hair grows.
type Texture string

// The textures.
const (
	Straight Texture = "straight"
	Wavy     Texture = "wavy"
	Curly    Texture = "curly"
	Coily    Texture = "coily"
)

// Edges is the state of the hairline.
type Edges string

// The states of a hairline.
const (
	StrongEdges  Edges = "strong"
	FineEdges    Edges = "fine"
	FragileEdges Edges = "fragile"
	BareEdges    Edges = "bare"
)

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
}

// Install is an earlier install, as far as it is remembered.
type Install struct {
	On      string  `json:"on" maxLength:"10" doc:"Day as YYYY-MM-DD"`
	What    string  `json:"what" maxLength:"200"`
	Weeks   float64 `json:"weeksWorn"`
	Comfort string  `json:"comfort" enum:"comfortable,tight,painful"`
	Note    string  `json:"note" maxLength:"1000"`
}

// New are the facts of a client nobody has asked yet.
func New() Facts {
	return Facts{
		Hair:    OwnHair{Density: 190, Strand: 75, Texture: Coily, Edges: StrongEdges},
		History: []Event{}, Installs: []Install{},
	}
}

// Longest is the greatest of the measured lengths, mm; 0 when none was.
func (h OwnHair) Longest() float64 { return max(h.Front, h.Sides, h.Crown, h.Nape) }

var cautions = map[Event]string{
	Chemical:       "Recent chemical service: hair breaks more easily. Wait or refer; no weight on fresh relaxer or bleach.",
	HeatDamage:     "Heat-damaged lengths: plait loosely and hang light.",
	HairLoss:       "Hair loss: ask a clinician before anything is hung. No piece on a thin area.",
	SoreScalp:      "Sore, broken or infected scalp: not now. Refer to a clinician.",
	FibreItch:      "Fibre coatings have itched before: rinse and dry all hair overnight first.",
	ProductAllergy: "Product allergy: patch test, and read what is in it.",
	PainBefore:     "An earlier install hurt: looser base plaits, lighter pieces, ask while you work.",
}

// Cautions are what a stylist should have in sight, gravest first. They
// are usual practice, not medical advice.
func (f Facts) Cautions() []string {
	out := []string{}
	for _, e := range []Event{SoreScalp, HairLoss, Chemical, ProductAllergy, FibreItch, PainBefore, HeatDamage} {
		for _, have := range f.History {
			if have == e {
				out = append(out, cautions[e])
			}
		}
	}
	if f.Hair.Tender {
		out = append(out, "Tender scalp: a little slack in every base plait; pain, bumps or stinging mean loosen now.")
	}
	switch f.Hair.Edges {
	case FragileEdges:
		out = append(out, "Fragile edges: leave the tender ones out, nothing long or heavy on the first row.")
	case BareEdges:
		out = append(out, "Bare edges: hang nothing there; ask a clinician if it is new.")
	}
	if f.Guardian != "" {
		out = append(out, "A child: lighter, fewer, looser, shorter wear. No hot water over the back. The guardian decides.")
	}
	return out
}

// Begin puts the client's head and hair into a plan's input, which keeps what the
// facts do not tell.
func (f Facts) Begin(in plan.Input) plan.Input {
	if f.Tapes != nil {
		in.Head = *f.Tapes
	}
	if l := f.Hair.Longest(); l > 0 {
		in.Hair.Length = l
	}
	in.Hair.Density, in.Hair.Strand, in.Hair.Tender = f.Hair.Density, f.Hair.Strand, f.Hair.Tender
	return in
}

// Check refuses facts that can not be, as [invalid.Errors] with paths relative to
// f.
func (f Facts) Check() error {
	var bad invalid.Errors
	if f.Tapes != nil {
		_, err := scalp.Fit(*f.Tapes)
		if err := bad.Collect(invalid.Under(err, "tapes")); err != nil {
			return err
		}
	}
	measured := func(path, label string, v, low, high float64) {
		if v != 0 {
			bad.Length(path, label, v, low, high)
		}
	}
	measured("statureMm", "Height", f.Stature, 600, 2400)
	measured("hair.frontMm", "Hair length in front", f.Hair.Front, plan.MinHair, plan.MaxHair)
	measured("hair.sidesMm", "Hair length at the sides", f.Hair.Sides, plan.MinHair, plan.MaxHair)
	measured("hair.crownMm", "Hair length at the crown", f.Hair.Crown, plan.MinHair, plan.MaxHair)
	measured("hair.napeMm", "Hair length at the nape", f.Hair.Nape, plan.MinHair, plan.MaxHair)
	bad.Number("hair.densityPerCm2", "Hair density", f.Hair.Density, 40, 400, " hairs per cm²")
	bad.Number("hair.strandUm", "Strand diameter", f.Hair.Strand, 30, 150, " µm")
	if f.Consent.Given || f.Consent.On != "" {
		day(&bad, "consent.on", "The day of consent", f.Consent.On)
	}
	for i, in := range f.Installs {
		path := fmt.Sprintf("installs[%d].", i)
		day(&bad, path+"on", "The day of the install", in.On)
		bad.Number(path+"weeksWorn", "Weeks worn", in.Weeks, 0, 60, "")
	}
	return bad.Err()
}

var date = regexp.MustCompile(`^[12]\d{3}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$`)

func day(bad *invalid.Errors, path, label, text string) {
	if !date.MatchString(text) {
		bad.Add(path, "%s must be a date such as 2026-05-31; it is %q.", label, text)
	}
}
