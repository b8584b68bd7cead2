// Package advice holds what the program has to say about a plan before the first part
// is drawn: notices, each with its reason and what would help. Reasons and remedies are
// complete sentences for a person at the chair; lengths stand in both units.
package advice

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
	// FatTrack and ThinTrack: a track that shows as a lump, or that is hard to hook
	// under.
	FatTrack  Code = "fat-track"
	ThinTrack Code = "thin-track"
	// WrongForm: the piece is not of a form the method takes.
	WrongForm Code = "wrong-form"
	// ShortHair: own hair too short for the method to hold.
	ShortHair Code = "short-hair"
	// LongPlait: the plait would hang out below the piece.
	LongPlait Code = "long-plait"
	// FatPlait: the plait can not vanish in the piece.
	FatPlait Code = "fat-plait"
	// ThinPlait: the plait is too thin to carry the piece.
	ThinPlait Code = "thin-plait"
	// TightLoop: the loop does not pass over the plait.
	TightLoop Code = "tight-loop"
	// TightRoot: a snug plait leaves a thick piece no room under its root.
	TightRoot Code = "tight-root"
	// WrongBase: the own hair is prepared otherwise than the method needs it.
	WrongBase Code = "wrong-base"
	// TenderScalp: the scalp is tender.
	TenderScalp Code = "tender-scalp"
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

// Notice is something to know about a plan.
type Notice struct {
	Code     Code     `json:"code" enum:"sliver,needle,oversize,weak-stagger,channel-behind-crown,asymmetry,fat-track,thin-track,wrong-form,short-hair,long-plait,fat-plait,thin-plait,tight-loop,tight-root,wrong-base,tender-scalp,heavy-here,too-heavy,heavy-head,few-necks,long-piece,empty-use,no-way,bare-edges"`
	Severity Severity `json:"severity" enum:"hint,look,danger"`
	Reason   string   `json:"reason" doc:"What is so, and why it matters"`
	Remedy   string   `json:"remedy" doc:"What would help; empty where nothing needs to be done"`
	// About are the ids of the sections, tracks or nets it is about, none when it is
	// about the head as a whole.
	About []string `json:"about"`
}
