// Package wear follows a head from the last check to the taking down: how long it may be worn and
// why, what has grown out, what to look for and what an answer means, how it comes off, what comes
// back, and when the next one may follow.
//
// A Brief is what is worn, as it was when the install ended; an Entry is one thing that was seen or
// done since. Days count from the day of the last check, which is day 0. Lengths are mm, areas mm²,
// mass g, durations minutes. All of it is usual practice and no medical advice: what hurts, breaks or
// lasts is for a clinician.
package wear

import (
	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
)

// Schema is the version of the brief this package writes.
const Schema = 1

// Brief is what is worn. It never changes.
type Brief struct {
	Schema  int          `json:"schema"`
	OwnHead bool         `json:"ownHead"`
	Child   bool         `json:"child"`
	Tender  bool         `json:"tender"`
	Edges   hair.Edges   `json:"edges"`
	Texture hair.Texture `json:"texture"`
	// Structure is the foundation, Water what the head gets to bear.
	Structure parting.Structure `json:"structure"`
	Water     method.Water      `json:"water"`
	// Wish is how many weeks were wished for; 0 where nobody said.
	Wish int `json:"wishWeeks"`
	// Mass is that of all that hangs, g, dry.
	Mass float64 `json:"massG"`
	// Hair is the longest own hair, mm, Strand the thickness of one, µm, and Taken the share of
	// the head's hair that is plaited up.
	Hair   float64 `json:"hairMm"`
	Strand float64 `json:"strandUm"`
	Taken  float64 `json:"taken"`
	// Parts are the ways in which pieces hang, Things the small ones put on besides.
	Parts  []Part  `json:"parts"`
	Things []Thing `json:"things"`
	// Areas are the parts of the head in the order in which they come off.
	Areas []Area `json:"areas"`
	// Base is what practised hands take to undo all plaits, cornrows and nets, minutes.
	Base float64 `json:"baseMin"`
	// Ring are the outer rows: that at the hairline, and that behind it.
	Ring [2]Row `json:"ring"`
	// Own is what is known of how this client's hair grows; it grows on with the log, and is not frozen.
	Own Growth `json:"-"`
}

// Part is one piece hung in one way on one ground.
type Part struct {
	Key    string        `json:"key"` // of the piece
	Name   string        `json:"name"`
	Method method.ID     `json:"method"`
	Ground method.Ground `json:"ground"`
	Form   hair.Form     `json:"form"`
	// Ends and Fibre are those of the piece; empty for plain ends and for synthetic hair.
	Ends   hair.Ends  `json:"ends,omitempty" enum:"plain,curly,loose,"`
	Fibre  hair.Fibre `json:"fibre,omitempty" enum:"synthetic,blend,human,"`
	Places int        `json:"places"`
	Pieces int        `json:"pieces"`
	// CutBelow is the distance from the root above which no piece is cut through, mm; 0 where nothing is.
	CutBelow  float64       `json:"cutBelowMm"`
	TakesDown []method.Step `json:"takesDown"`
}

// Area is a part of the head with what hangs there.
type Area struct {
	Name   string  `json:"name"`
	Places int     `json:"places"`
	Pieces int     `json:"pieces"`
	Off    float64 `json:"minutes" doc:"Minutes of practised hands to take it off"`
}

// Thing is something small that was put on besides, such as a cuff.
type Thing struct {
	Name   string `json:"name"`
	Item   string `json:"item,omitempty"` // id of the item of the supplies; empty for one that is not in them
	Colour string `json:"colour,omitempty"`
	Count  int    `json:"count"`
}

// Row is one of the outer rows: its places, its pieces, and what practised hands take to do it again.
type Row struct {
	Places  int     `json:"places"`
	Pieces  int     `json:"pieces"`
	Minutes float64 `json:"minutes"`
}

// factor is how much longer than practised hands on another's head the work is planned with: own
// heads take longer.
func (b *Brief) factor() float64 {
	if b.OwnHead {
		return craft.OwnHead
	}
	return 1
}

// Earlier is an install the same person wore before.
type Earlier struct {
	What        string
	On          string // day
	Mass        float64
	Comfortable bool
}
