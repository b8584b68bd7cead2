// Package advice holds what the program has to say about a plan before the first part
// is drawn: notices, each with its reason and what would help. Reasons and remedies are
// complete sentences for a person at the chair; lengths stand in both units.
package advice

import "slices"

// Code names what a notice is about, for programs.
type Code string

// The codes.
const (
	// Sliver: sections too small to carry a piece without pulling.
	Sliver Code = "sliver"
	// Needle: sections much longer than wide, whatever their area.
	Needle Code = "needle"
	// Oversize: sections half as large again as wished.
	Oversize Code = "oversize"
	// WeakStagger: brick part ends less than a quarter section from the next.
	WeakStagger Code = "weak-stagger"
	// BareChannel: parts in line behind the crown.
	BareChannel Code = "channel-behind-crown"
	// Asymmetry: left and right differ though the plan parts them alike.
	Asymmetry Code = "asymmetry"
	// FatCornrow and ThinCornrow: a cornrow that shows as a lump, or that is hard to hook
	// under.
	FatCornrow  Code = "fat-track"
	ThinCornrow Code = "thin-track"
	// WrongForm: the piece is not of a form the method takes.
	WrongForm Code = "wrong-form"
	// ShortHair: own hair too short for the method to hold.
	ShortHair Code = "short-hair"
	// LongPlait: the plait would hang out below the piece.
	LongPlait Code = "long-plait"
	// FatPlait: the plait cannot vanish in the piece.
	FatPlait Code = "fat-plait"
	// ThinPlait: the plait is too thin to carry the piece.
	ThinPlait Code = "thin-plait"
	// TightLoop: the loop does not pass over the plait.
	TightLoop Code = "tight-loop"
	// OwnLoop: the piece does not pass through its own loop.
	OwnLoop Code = "own-loop"
	// SlackLoop: the loop is far wider than what it is hitched on.
	SlackLoop Code = "slack-loop"
	// TightRoot: a snug plait leaves a thick piece no room under its root.
	TightRoot Code = "tight-root"
	// WrongBase: own hair is prepared otherwise than the method needs it.
	WrongBase Code = "wrong-base"
	// TenderScalp: the scalp is tender.
	TenderScalp Code = "tender-scalp"
	// Sparse: pieces hang so far apart on a base that scalp shows.
	Sparse Code = "sparse-base"
	// Slips: plaits of straight or very fine hair let go.
	Slips Code = "slips"
	// Allergy: a product is used that the head does not bear.
	Allergy Code = "allergy"
	// HotWater: ends of human hair would be dipped in hot water.
	HotWater Code = "hot-water"
	// HeavyHere: a place carries more than twice what is usual; TooHeavy: more than
	// four times.
	HeavyHere Code = "heavy-here"
	TooHeavy  Code = "too-heavy"
	// HeavyHead: all pieces together are heavy to wear; FewNecks: few necks bear them.
	HeavyHead Code = "heavy-head"
	FewNecks  Code = "few-necks"
	// LongPiece: a piece longer than is kind to a head that bears little.
	LongPiece Code = "long-piece"
	// EmptyUse: a rule for pieces and methods matches no place.
	EmptyUse Code = "empty-use"
	// NoWay: no rule gives a place a method that works there.
	NoWay Code = "no-way"
	// BareEdges: something hangs on edges where no hair is left.
	BareEdges Code = "bare-edges"
)

// Subject is what a notice is about.
type Subject string

// The subjects.
const (
	OfSections Subject = "sections"
	OfFit      Subject = "fit"  // a piece against its plait
	OfLoad     Subject = "load" // what hangs on hair and head
	OfRules    Subject = "rules"
)

// Fact is what holds for every notice of a code: what stands over it on a screen, and where it is
// found at places how it is marked on the head.
type Fact struct {
	Code    Code    `json:"code"`
	Subject Subject `json:"subject"`
	Title   string  `json:"title" doc:"What stands over notices of the code"`
	// Label and Mark stand on the head where it is found; empty for what is not shown there.
	Label string `json:"label,omitempty" doc:"What it is called on the head"`
	Mark  string `json:"mark,omitempty" doc:"The sign for it on the head"`
}

// Facts are those of all codes. Of one subject the gravest comes first. What would put a finding
// right is told by package judge.
var Facts = []Fact{
	{Code: Sliver, Subject: OfSections, Title: "Small sections"},
	{Code: Needle, Subject: OfSections, Title: "Thin sections"},
	{Code: Oversize, Subject: OfSections, Title: "Large sections"},
	{Code: WeakStagger, Subject: OfSections, Title: "Parts nearly in line"},
	{Code: BareChannel, Subject: OfSections, Title: "Channels behind the crown"},
	{Code: Asymmetry, Subject: OfSections, Title: "Left and right differ"},
	{Code: FatCornrow, Subject: OfSections, Title: "Fat cornrows"},
	{Code: ThinCornrow, Subject: OfSections, Title: "Thin cornrows"},
	{WrongForm, OfFit, "Piece and method do not suit", "Piece does not suit the method", "✕"},
	{FatPlait, OfFit, "Plaits may show through", "Plait too fat to hide", "F"},
	{ThinPlait, OfFit, "Thin plaits, thick pieces", "Plait too thin to carry it", "T"},
	{TightLoop, OfFit, "Tight loops", "Loop too small", "O"},
	{OwnLoop, OfFit, "Loops too small for their piece", "Own loop too small", "I"},
	{SlackLoop, OfFit, "Slack loops", "Loop slack on its plait", "C"},
	{TightRoot, OfFit, "Snug roots, thick pieces", "No slack at the root", "R"},
	{LongPlait, OfFit, "Plaits longer than the piece", "Plait longer than the piece", "L"},
	{ShortHair, OfFit, "Short hair for the method", "Own hair short for the method", "S"},
	{Slips, OfFit, "Plaits that slip", "Lets go without a band", "~"},
	{WrongBase, OfFit, "Plaits are not what the method needs", "Not plaited as it needs", "B"},
	{Code: TenderScalp, Subject: OfRules, Title: "Tender scalp"},
	{Code: Allergy, Subject: OfRules, Title: "Allergy"},
	{Code: HotWater, Subject: OfRules, Title: "Human hair and hot water"},
	{Code: TooHeavy, Subject: OfLoad, Title: "Too heavy here"},
	{Code: HeavyHere, Subject: OfLoad, Title: "Heavy here"},
	{Code: LongPiece, Subject: OfLoad, Title: "Long pieces"},
	{Code: FewNecks, Subject: OfLoad, Title: "Too heavy for most"},
	{Code: HeavyHead, Subject: OfLoad, Title: "Heavy to wear"},
	{Code: EmptyUse, Subject: OfRules, Title: "Matches no spot"},
	{Code: NoWay, Subject: OfRules, Title: "No method suits here"},
	{Code: Sparse, Subject: OfSections, Title: "Bald between pieces"},
	{Code: BareEdges, Subject: OfRules, Title: "Bare edges"},
}

// Codes are all codes.
func Codes() []Code { return Of() }

// Of are the codes of some subjects, those of one the gravest first; none named are all.
func Of(subjects ...Subject) []Code {
	var out []Code
	for _, f := range Facts {
		if len(subjects) == 0 || slices.Contains(subjects, f.Subject) {
			out = append(out, f.Code)
		}
	}
	return out
}

// Subjects are all of them.
var Subjects = []Subject{OfSections, OfFit, OfLoad, OfRules}

// Severity says how much a notice matters.
type Severity string

// The severities.
const (
	// Hint is worth knowing.
	Hint Severity = "hint"
	// Look should be looked at before the work begins.
	Look Severity = "look"
	// Danger can hurt someone or spoil the work.
	Danger Severity = "danger"
)

// Severities are all of them, the least first.
var Severities = []Severity{Hint, Look, Danger}

// Notice is something to know about a plan.
type Notice struct {
	Code     Code     `json:"code"`
	Severity Severity `json:"severity"`
	Reason   string   `json:"reason" doc:"What was found, and why it matters"`
	Remedy   string   `json:"remedy" doc:"What would help; empty where nothing needs to be done"`
	// About are the ids of the sections, cornrows or nets it is about, none when it is
	// about the head as a whole.
	About []string `json:"about"`
}
