package hair

import "kladotex/core/invalid"

// MadeBase is what a piece made by hand is wound on.
type MadeBase string

// The bases of a made piece.
const (
	CordBase MadeBase = "cord"
	// OldHair is hair that is there already, twisted or braided into a base.
	OldHair MadeBase = "old-hair"
	// FinishedLoc is a loc that is wound over: its own thickness stays.
	FinishedLoc MadeBase = "loc"
)

// MadeBases are all of them.
var MadeBases = []MadeBase{CordBase, OldHair, FinishedLoc}

// Making is how a piece is made by hand: it is bought in no pack.
type Making struct {
	Base     MadeBase `json:"base" doc:"What it is wound on"`
	Wrapping Wrapping `json:"wrapping" doc:"The hair wound over its base"`
}

// Check refuses a making that cannot be; the paths of bad are put under path.
func (m Making) Check(bad *invalid.Errors, path string) {
	invalid.OneOf(bad, path+"base", "What a made piece is wound on", m.Base, MadeBases)
	m.Wrapping.Check(bad, path+"wrapping.")
}
