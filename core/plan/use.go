package plan

import (
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
)

// Way is a method with what may be set of it.
type Way struct {
	// Key names the way inside its plan.
	Key      string          `json:"key" minLength:"1" maxLength:"40"`
	Method   method.ID       `json:"method"`
	Settings method.Settings `json:"settings" doc:"The method's parameters by key; the catalogue lists them"`
	Choices  method.Chosen   `json:"choices,omitempty" doc:"Options of the method's choices by key; those left out are as usual"`
	// Wrapping is what is wound; ways that wrap need it, others have none.
	Wrapping *hair.Wrapping `json:"wrapping,omitempty" doc:"The wrapping hair; ways that wrap need it, others have none"`
}

// Use says what places get. What it leaves out stays as earlier uses say.
type Use struct {
	Where Where  `json:"where"`
	Piece string `json:"piece,omitempty" doc:"Key of a piece; left out to leave it as it is"`
	// Mix is several pieces in place of one, spread evenly.
	Mix   []Share `json:"mix,omitempty" maxItems:"6" doc:"Several pieces spread evenly, in place of one"`
	Way   string  `json:"way,omitempty" doc:"Key of a method; it is taken where its method can hang a piece"`
	Count int     `json:"count,omitempty" minimum:"0" maximum:"6" doc:"Pieces at each spot; 0 to leave it as it is"`
	// Apart spreads what is hooked there: above 1 airy, below 1 close.
	Apart float64 `json:"apart,omitempty" doc:"How far apart pieces are hooked there, in shares of the usual distance: 0.7 is close, 1.5 airy; left out as elsewhere"`
}

// names tells whether the use says which piece hangs.
func (u Use) names() bool { return u.Piece != "" || len(u.Mix) > 0 }

// keys are those of the pieces the use names.
func (u Use) keys() []string {
	if len(u.Mix) == 0 {
		return []string{u.Piece}
	}
	out := make([]string, len(u.Mix))
	for i, s := range u.Mix {
		out[i] = s.Piece
	}
	return out
}

// Share is one piece of a mix and its whole parts of it: 2 and 1 are two of the one to one of
// the other.
type Share struct {
	Piece string `json:"piece" doc:"Key of a piece"`
	Parts int    `json:"parts" minimum:"1" maximum:"20"`
}

// Fill is what is hung into thin spots at the end.
type Fill struct {
	Piece string `json:"piece" doc:"Key of the piece"`
	Count int    `json:"count" doc:"How many, besides those whose places are known"`
	// At are places that were found bare beforehand; one piece goes to each, on the plait
	// or cornrow nearest to it.
	At []parting.Direction `json:"at,omitempty" maxItems:"200" doc:"Places known beforehand: one piece at each, hung on what lies nearest"`
}

// Total is how many pieces are filled in.
func (f Fill) Total() int { return f.Count + len(f.At) }

// Redo is a plan of the outer rows of a head that is worn: they are taken off, parted, plaited and
// attached again, and all else stays as it hangs.
type Redo struct {
	// Install is the one the head is worn from.
	Install string `json:"install" maxLength:"64" doc:"Id of the install the head is worn from"`
	// Rows is 1 for the row at the hairline, 2 for the row behind it too.
	Rows int `json:"rows" minimum:"1" maximum:"2" doc:"1 for the row at the hairline, 2 for the row behind it too"`
}

// Accent is a few of a piece or of a small thing put on beside what hangs there.
type Accent struct {
	// Piece is the key of a piece of the plan; empty for a small thing.
	Piece string `json:"piece,omitempty" doc:"Key of a piece of the plan; left out for a small thing"`
	Thing *Thing `json:"thing,omitempty" doc:"The small thing; left out for a piece"`
	Where Where  `json:"where"`
	// Count is how many on the whole head; at picked places it is one at each.
	Count int `json:"count" minimum:"1" maximum:"200" doc:"How many, spread evenly and alike on both sides; at picked places one is put at each"`
}

// Thing is a small thing such as a cuff.
type Thing struct {
	Name  string  `json:"name" minLength:"1" maxLength:"80"`
	Mass  float64 `json:"massG"`
	Pack  int     `json:"pack" doc:"How many in a pack"`
	Price int64   `json:"priceMinor" doc:"Price of a pack, minor units"`
	Item  string  `json:"item,omitempty" maxLength:"64" doc:"Id of the item of the supplies it is"`
	// Colour is that of the item.
	Colour string `json:"colour,omitempty" maxLength:"40"`
}
