package judge

import (
	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/plan"
)

// Fitting says of every place whether the piece suits its plait and whether it is too heavy,
// and what would help.
type Fitting struct {
	// Places are in the order of the plan's places.
	Places []PlaceFit `json:"places"`
	Zones  []ZoneFit  `json:"zones"`
	Load   HeadLoad   `json:"load"`
}

// PlaceFit is how it is at one place.
type PlaceFit struct {
	// Fit is the gravest finding on the piece against its plait, empty where it suits.
	Fit advice.Code `json:"fit,omitempty"`
	// Hung is what hangs, dry, g, Soaked about what it is when wet; Load is the dry mass,
	// mg a hair; Word is what is said of it.
	Hung   float64  `json:"hungG"`
	Soaked float64  `json:"soakedG" doc:"About, until a soaked piece was weighed"`
	Load   float64  `json:"loadMg"`
	Word   LoadWord `json:"word"`
}

// LoadWord is what is said of a load.
type LoadWord string

// The words: up to what is usual, up to twice that, up to four times, above it. Where hair or
// scalp bear less, each begins at two thirds.
const (
	LoadLight    LoadWord = "light"
	LoadUsual    LoadWord = "usual"
	LoadHeavy    LoadWord = "heavy"
	LoadTooHeavy LoadWord = "too-heavy"
)

// LoadWords are all of them, the lightest first.
var LoadWords = []LoadWord{LoadLight, LoadUsual, LoadHeavy, LoadTooHeavy}

// wordOf is what is said of a load where only a share of the usual is borne.
func wordOf(load, share float64) LoadWord {
	switch {
	case load > share*craft.TooHeavyLoad:
		return LoadTooHeavy
	case load > share*craft.HeavyLoad:
		return LoadHeavy
	case load > share*craft.UsualLoad:
		return LoadUsual
	}
	return LoadLight
}

// ZoneFit is a zone, both sides together, with what was found there.
type ZoneFit struct {
	Name   string `json:"name"`
	Places int    `json:"places"`
	Hooked bool   `json:"hooked" doc:"True where pieces are hooked on a base"`
	// Plait and Load are the least and the most there.
	Plait plan.Between `json:"plaitMm" doc:"Thickness of the plaits"`
	Load  plan.Between `json:"loadMg"`
	// Findings are the gravest first; none where all suits.
	Findings []ZoneFinding `json:"findings"`
}

// ZoneFinding is one thing that is wrong in a zone.
type ZoneFinding struct {
	Code     advice.Code     `json:"code"`
	Severity advice.Severity `json:"severity"`
	// Places are the ids of the sections, cornrows or nets it is about, Count how many places
	// that are.
	Places []string `json:"places"`
	Count  int      `json:"count"`
	Reason string   `json:"reason"`
	// Words say what would help; Remedies do it.
	Words    string   `json:"words"`
	Remedies []Remedy `json:"remedies"`
}

// Remedy is a plan in which something is put right.
type Remedy struct {
	Says  string     `json:"says" doc:"What is done, with its numbers"`
	Input plan.Input `json:"input" doc:"The plan after it"`
}

// HeadLoad is what hangs on the whole head.
type HeadLoad struct {
	Dry    float64 `json:"dryG"`
	Soaked float64 `json:"soakedG" doc:"About, until a soaked piece was weighed"`
	// Heavy and Most are the masses from which it is heavy to wear and few necks bear it, on
	// this head.
	Heavy float64 `json:"heavyG"`
	Most  float64 `json:"mostG"`
	// Median and Greatest are those of the places, mg a hair; Usual is what common practice
	// hangs.
	Median   float64 `json:"medianMg"`
	Greatest float64 `json:"greatestMg"`
	Usual    float64 `json:"usualMg"`
	// Says are sentences on it, the gravest first; NoLimit stands beside them always.
	Says    []string `json:"says"`
	NoLimit string   `json:"noLimit"`
}

// fits are the findings on a piece against its plait, the gravest first, loads those on weight.
var fits, loads = advice.Of(advice.OfFit), advice.Of(advice.OfLoad)

// Ready is a piece that could hang in place of another, and how many lie in the stash.
type Ready struct {
	hair.Piece
	Stash int
}
