// Package wish holds what somebody wants of a head, and what there is for it: the look, the time, the money, the
// hair in hand. It is a part of a plan's document; what meets it is found by package propose.
//
// Lengths are mm, times minutes, money minor units of the studio's currency.
package wish

import (
	"fmt"
	"strings"

	"kladotex/core/craft"
	"kladotex/core/fall"
	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/words"
)

// Look is what one wants to look like.
type Look string

// The looks.
const (
	Locs   Look = "locs"
	Twists Look = "twists"
	Braids Look = "braids"
	Curls  Look = "curls"
)

// Looks are all of them, with the forms of hair that make them.
var Looks = []struct {
	Key   Look
	Forms []hair.Form
}{
	{Locs, []hair.Form{hair.SoftLoc, hair.CoilLoc, hair.HandmadeLoc}},
	{Twists, []hair.Form{hair.Twist, hair.Bulk}},
	{Braids, []hair.Form{hair.Braid, hair.BraidingHair}},
	{Curls, []hair.Form{hair.CurlyBulk}},
}

// Fullness is how full it is to be.
type Fullness string

// The fullnesses.
const (
	Airy  Fullness = "airy"
	Usual Fullness = "usual"
	Full  Fullness = "full"
)

// Layers are pieces over one another where hair is measured, for each fullness.
var Layers = map[Fullness]float64{Airy: craft.AiryLayers, Usual: craft.UsualLayers, Full: craft.FullLayers}

// Finish is whether parts are drawn with a ruler or look grown in.
type Finish string

// The finishes.
const (
	Neat  Finish = "neat"
	Grown Finish = "grown"
)

// Wanted is what is wished, and what there is. Everything may stay open; what is left out is not wished for.
type Wanted struct {
	Look   Look     `json:"look,omitempty" enum:"locs,twists,braids,curls" doc:"What it is to look like"`
	Finish Finish   `json:"finish,omitempty" enum:"neat,grown" doc:"Parts drawn neatly, or as if grown in"`
	To     string   `json:"to,omitempty" enum:"chin,shoulder,armpit,mid-back,waist,hip" doc:"Where on the body the ends come to"`
	Full   Fullness `json:"full,omitempty" enum:"airy,usual,full"`
	// Minutes are those there are from the first comb to the last check, breaks in them; Sittings how often one sits
	// for it at the most; Sitting how long one sits at a time.
	Minutes  float64 `json:"minutes,omitempty" doc:"Time there is from the first comb to the last check, breaks in it"`
	Sittings int     `json:"sittings,omitempty" doc:"Sittings at the most"`
	Sitting  float64 `json:"sittingMin,omitempty" doc:"How long one sits at a time at the most"`
	// Money is what may be spent, Nothing is true to spend none.
	Money   int64    `json:"moneyMinor,omitempty" doc:"What may be spent on hair and small things, minor units"`
	Nothing bool     `json:"nothing,omitempty" doc:"True to buy nothing: only the hair in hand"`
	Lots    []InHand `json:"lots,omitempty" maxItems:"8" doc:"Hair in hand that is to be used"`
	// Weeks are how long it is to last at least.
	Weeks int          `json:"weeks,omitempty" doc:"Weeks it is to last at least"`
	Style fall.Style   `json:"style,omitempty" enum:"down,half-up,tied" doc:"How it is worn mostly"`
	Water method.Water `json:"water,omitempty" enum:"dry,roots,swim" doc:"What it has to bear"`
	Off   float64      `json:"offMin,omitempty" doc:"Minutes in which all must come off"`
	Reuse bool         `json:"reuse,omitempty" doc:"True when the pieces are to be used again"`
	// Cornrow tells whether somebody there can cornrow, Helper whether a second pair of hands is there.
	Cornrow Answered `json:"cornrow,omitempty" enum:"yes,no" doc:"Whether somebody there can cornrow"`
	Helper  bool     `json:"helper,omitempty" doc:"True when a second pair of hands parts and plaits"`
	// Base is one that is asked for, and none other.
	Base parting.Structure `json:"base,omitempty" maxLength:"30" doc:"The structure that is asked for; left out to leave it open"`
}

// Answered is a question that may stay open.
type Answered string

// The answers.
const (
	Yes Answered = "yes"
	No  Answered = "no"
)

// InHand is hair in hand: so many of a piece.
type InHand struct {
	Piece hair.Piece `json:"piece"`
	Count int        `json:"count" minimum:"1" maximum:"600"`
	// Worn is how many of them show that they were worn: they hang inside.
	Worn int `json:"worn,omitempty" minimum:"0" maximum:"600" doc:"How many of them show wear and hang inside"`
}

// Check refuses a wish that cannot be, as [invalid.Errors] with paths relative to w.
func (w Wanted) Check() error {
	var bad invalid.Errors
	if w.Look != "" {
		keys := make([]Look, len(Looks))
		for i, l := range Looks {
			keys[i] = l.Key
		}
		invalid.OneOf(&bad, "look", "The look", w.Look, keys)
	}
	if w.Finish != "" {
		invalid.OneOf(&bad, "finish", "The finish", w.Finish, []Finish{Neat, Grown})
	}
	if w.Full != "" {
		invalid.OneOf(&bad, "full", "How full it is", w.Full, []Fullness{Airy, Usual, Full})
	}
	if w.To != "" {
		invalid.OneOf(&bad, "to", "Where it comes to", w.To, bodyLines())
	}
	if w.Style != "" {
		invalid.OneOf(&bad, "style", "How it is worn", w.Style, fall.Styles)
	}
	if w.Water != "" {
		invalid.OneOf(&bad, "water", "What it bears", w.Water, method.Waters)
	}
	if w.Cornrow != "" {
		invalid.OneOf(&bad, "cornrow", "Whether anybody can cornrow", w.Cornrow, []Answered{Yes, No})
	}
	if w.Base != "" {
		invalid.OneOf(&bad, "base", "The structure", w.Base, parting.Structures)
	}
	if w.Minutes != 0 {
		bad.Number("minutes", "The time there is", w.Minutes, leastMinutes, mostMinutes, " min")
	}
	if w.Sitting != 0 {
		bad.Number("sittingMin", "A sitting", w.Sitting, leastMinutes, mostMinutes, " min")
	}
	bad.Count("sittings", "Sittings", w.Sittings, 0, 12)
	bad.Count("weeks", "Weeks of wear", w.Weeks, 0, 12)
	bad.Number("offMin", "Time to take it off", w.Off, 0, 24*60, " min")
	hair.CheckPrice(&bad, "moneyMinor", w.Money)
	for i, l := range w.Lots {
		path := invalid.At("lots", i)
		l.Piece.Check(&bad, path+".piece.")
		bad.Count(path+".count", "Pieces in hand", l.Count, 1, 600)
		bad.Count(path+".worn", "Pieces that show wear", l.Worn, 0, l.Count)
	}
	if w.Nothing && len(w.Lots) == 0 {
		bad.Add("lots", "To buy nothing there must be hair in hand: say which, and how many.")
	}
	return bad.Err()
}

// The bounds of the time there is: half an hour, and a week of days.
const leastMinutes, mostMinutes = 30, 7 * 12 * 60

// bodyLines are the lines a length is wished to.
func bodyLines() []string {
	out := []string{}
	for _, l := range fall.Lines {
		if l.Key == "thigh" {
			break
		}
		out = append(out, l.Key)
	}
	return out
}

// Forms are the forms of hair the look is made of.
func (w Wanted) Forms() []hair.Form {
	for _, l := range Looks {
		if l.Key == w.Look {
			return l.Forms
		}
	}
	return nil
}

// Layers is how full it has to be, in pieces over one another: airy where nothing was said, which is full enough
// to be worn.
func (w Wanted) Layers() float64 {
	if n, ok := Layers[w.Full]; ok {
		return n
	}
	return Layers[Airy]
}

// Says is the wish in a line.
func (w Wanted) Says() string {
	var parts []string
	say := func(said bool, format string, args ...any) {
		if said {
			parts = append(parts, fmt.Sprintf(format, args...))
		}
	}
	say(w.Look != "", "%s", w.Look)
	say(w.Finish != "", "%s", finishes[w.Finish])
	line, _ := fall.LineOf(w.To)
	say(w.To != "", "to the %s", line.Name)
	say(w.Full != "", "%s", fullnesses[w.Full])
	say(w.Minutes > 0, "in %s", words.Minutes(w.Minutes))
	say(w.Sittings > 0, "%s", words.Count(w.Sittings, "sitting"))
	say(w.Sitting > 0, "sitting %s at a time", words.Minutes(w.Sitting))
	say(w.Money > 0, "for %d in the smallest unit of money", w.Money)
	say(w.Nothing, "nothing bought")
	for _, l := range w.Lots {
		say(true, "%d × %s in hand", l.Count, l.Piece.Name)
		say(l.Worn > 0, "%d of them worn", l.Worn)
	}
	say(w.Weeks > 0, "for %s", words.Count(w.Weeks, "week"))
	say(w.Style != "", "worn %s", w.Style)
	say(w.Water == method.Swim, "for the water")
	say(w.Water == method.Dry, "kept dry")
	say(w.Water == method.Roots, "washed at the roots")
	say(w.Off > 0, "off in %s", words.Minutes(w.Off))
	say(w.Reuse, "to be used again")
	say(w.Cornrow == No, "without cornrows")
	say(w.Cornrow == Yes, "cornrows can be made")
	say(w.Base != "", "on %s", w.Base.Name())
	say(w.Helper, "with a helper")
	if len(parts) == 0 {
		return "open"
	}
	return strings.Join(parts, ", ")
}

// finishes and fullnesses are as they are spoken of.
var (
	finishes   = map[Finish]string{Neat: "neat parts", Grown: "as if grown in"}
	fullnesses = map[Fullness]string{Airy: "airy", Usual: "as full as usual", Full: "full"}
)
