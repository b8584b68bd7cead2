// Package chair follows an install from the first part to the last check.
//
// A Brief is the plan as it was when the install began; an Event is one thing that happened,
// made on a device. A fold of events gives the state: what is done, what was missed, what comes
// next, how pace and packs stand against the plan. Any order of arrival of the same events, and
// any of them twice, gives the same state: devices may be apart for hours and still agree.
//
// Lengths are mm, durations minutes, points in time milliseconds since 1970 UTC, as they are told by
// who calls. Rates are those of package pace.
package chair

import (
	"encoding/json"
	"fmt"
	"slices"

	"kladotex/core/pace"
)

// Schema is the version of the brief this package writes.
const Schema = 1

// Brief is a plan as those at the chair need it. It never changes.
type Brief struct {
	Schema int    `json:"schema"`
	Title  string `json:"title"`
	Client string `json:"client" doc:"Empty where it was open whose head it is"`
	// OwnHead is true where the first hand works on their own head.
	OwnHead bool `json:"ownHead"`
	Child   bool `json:"child"`
	// ByRow is true where each row is attached once it is plaited.
	ByRow  bool    `json:"byRow"`
	Hands  []Hand  `json:"hands"`
	Pieces []Piece `json:"pieces"`
	// Goods are what goes on beside the pieces that hang; nil for an install begun before they were counted.
	Goods  []Good  `json:"goods"`
	Rows   []Row   `json:"rows"`
	Places []Place `json:"places"`
	// Task are all things to do in working order, as planned.
	Tasks []Task `json:"tasks"`
	// Sittings are what they are called, with their length as planned, breaks in it.
	Sittings []Sitting `json:"sittings"`
	Rests    Rests     `json:"rests"`
	// Alone and Together are the minutes of work of one pair of hands, and of all who work.
	Alone    float64 `json:"aloneMin"`
	Together float64 `json:"togetherMin"`
}

// Hand is one who works.
type Hand struct {
	Key    string `json:"key"`
	Person string `json:"person,omitempty" doc:"Id of the person of the studio; left out for someone else"`
	Name   string `json:"name"`
	// Plaits and Attaches are what they do of the work.
	Plaits   bool `json:"plaits"`
	Attaches bool `json:"attaches"`
}

// Piece is what hangs, how it comes, and how many are at hand.
type Piece struct {
	Key    string `json:"key"`
	Item   string `json:"item,omitempty" doc:"Id of the item of the supplies; left out for one that is not in them"`
	Name   string `json:"name"`
	Colour string `json:"colour"`
	Swatch string `json:"swatch,omitempty"`
	// Yield is the pieces of a pack, Packs how many packs were planned, Have the pieces at
	// hand when it began, Need those that hang or fill.
	Yield int `json:"yield"`
	// Per is how many pieces one as sold gives, once cut and split.
	Per   int `json:"per"`
	Packs int `json:"packs"`
	Have  int `json:"have"`
	Need  int `json:"need"`
}

// Called is the piece with its colour.
func (p Piece) Called() string { return called(p.Name, p.Colour) }

func called(name, colour string) string {
	if colour == "" {
		return name
	}
	return name + ", " + colour
}

// Good is what goes on beside the pieces that hang: wrapping hair, pieces put on as accents, cuffs.
type Good struct {
	// Key names the need inside the plan; an accent that is a piece has the key of that piece.
	Key    string `json:"key"`
	Item   string `json:"item,omitempty" doc:"Id of the item of the supplies; left out for one that is not in them"`
	Name   string `json:"name"`
	Colour string `json:"colour"`
	// Per is how many are made of one as sold.
	Per int `json:"per"`
}

// With is a good and how many of it one place takes.
type With struct {
	// Good is an index into the goods.
	Good  int `json:"good"`
	Count int `json:"count"`
}

// Row is a row of the working order.
type Row struct {
	Name string `json:"name"`
	// Region is the part of the head it belongs to, such as "behind"; a region is looked over
	// before it is left.
	Region string `json:"region"`
	// Mirror is the index of the same row on the other side; -1 for none. Left is true for one
	// on the left.
	Mirror int  `json:"mirror"`
	Left   bool `json:"left"`
}

// Place is one spot where something is attached.
type Place struct {
	ID  string `json:"id"`
	Row int    `json:"row"`
	// Piece is an index into the pieces, Count how many hang here.
	Piece int `json:"piece"`
	Count int `json:"count"`
	// Step is an index into the ways in which pieces go on, as the plan lists them.
	Step int `json:"step"`
	// Hook is true for one on a cornrow, a net or a linked plait.
	Hook bool `json:"hook"`
	// Middle is the distance along the scalp from the part line, or from the middle where Part
	// is false.
	Middle float64 `json:"middleMm"`
	Part   bool    `json:"part"`
	// Up is how far the upper line of its row stands off the row below; of a hook, how far it
	// stands from the one before it on its cornrow. 0 for neither.
	Up float64 `json:"upMm"`
	// Beside is what is put on besides, in words; With is what that takes, and the wrapping hair.
	Beside []string `json:"beside,omitempty"`
	With   []With   `json:"with,omitempty"`
}

// Task is one thing to do: at one place or, where Place is -1, for the head.
type Task struct {
	Key  string    `json:"key"`
	Kind pace.Kind `json:"kind" enum:"settle,tracks,net,plaits,hook,attach,finish"`
	// Skill is what is practised by it: the id of a method, else the kind.
	Skill string `json:"skill"`
	Name  string `json:"name,omitempty" doc:"Of one for the head"`
	Place int    `json:"place"`
	// Sitting is an index into the sittings.
	Sitting int `json:"sitting"`
	// Rate is what practised hands take on another's head, Minutes what each hand was planned
	// to take.
	Rate    float64   `json:"rateMin"`
	Minutes []float64 `json:"minutes"`
	// Arms is true for work behind one's own head.
	Arms bool `json:"arms,omitempty"`
}

// Sitting is one sitting as planned.
type Sitting struct {
	Name    string  `json:"name"`
	Minutes float64 `json:"minutes"`
}

// Rests are the breaks as planned: Long after so much work, 0 for none; Arms is true where arms
// are put down behind one's own head.
type Rests struct {
	After float64 `json:"afterMin"`
	Long  float64 `json:"longMin"`
	Arms  bool    `json:"arms"`
}

// Decode reads a brief as it was stored.
func Decode(raw []byte) (Brief, error) {
	var b Brief
	if err := json.Unmarshal(raw, &b); err != nil {
		return Brief{}, fmt.Errorf("reading what was planned for the chair: %w", err)
	}
	if b.Schema != Schema {
		return Brief{}, fmt.Errorf("reading what was planned for the chair: version %d; this program reads %d", b.Schema, Schema)
	}
	return b, nil
}

// PlaitKey and AttachKey name the tasks of a place.
func PlaitKey(place string) string  { return "plait/" + place }
func AttachKey(place string) string { return "attach/" + place }

// hand is the index of a hand by its key; the first for one that is not known, such as a person who
// came to help.
func (b *Brief) hand(key string) int {
	return max(0, slices.IndexFunc(b.Hands, func(h Hand) bool { return h.Key == key }))
}

// attaches tells whether a kind of work puts a piece on.
func attaches(k pace.Kind) bool { return k == pace.Attach || k == pace.Hook }
