package plan

import (
	"slices"

	"kladotex/core/hair"
	"kladotex/core/invalid"
)

// Share is one piece of a mix and its whole parts of it: 2 and 1 are two of the one to one of
// the other.
type Share struct {
	Piece string `json:"piece" doc:"Key of a piece"`
	Parts int    `json:"parts" minimum:"1" maximum:"20"`
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

func (u Use) checkMix(bad *invalid.Errors, path string, pieces []string) {
	if len(u.Mix) == 0 {
		return
	}
	if u.Piece != "" {
		bad.Add(path+"mix", "A rule names one piece or a mix, not both.")
	}
	bad.Count(path+"mix", "The number of pieces in a mix", len(u.Mix), 2, 6)
	for i, s := range u.Mix {
		at := invalid.At(path+"mix", i)
		if !slices.Contains(pieces, s.Piece) {
			bad.Add(at+".piece", "The piece must be one of the plan's; it is %q.", s.Piece)
		}
		bad.Count(at+".parts", "Its parts", s.Parts, 1, 20)
	}
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

// maxAccents bounds the accents of a plan.
const maxAccents = 12

func (in Input) checkAccents(bad *invalid.Errors, pieces []string) {
	bad.Count("accents", "The number of accents", len(in.Accents), 0, maxAccents)
	for i, a := range in.Accents {
		at := invalid.At("accents", i) + "."
		a.Where.check(bad, at+"where.")
		bad.Count(at+"count", "How many accents", a.Count, 1, 200)
		switch {
		case (a.Piece == "") == (a.Thing == nil):
			bad.Add(at+"piece", "An accent is a piece of the plan or a small thing: say one of them.")
		case a.Thing == nil && !slices.Contains(pieces, a.Piece):
			bad.Add(at+"piece", "The piece must be one of the plan's; it is %q.", a.Piece)
		case a.Thing != nil:
			bad.Letters(at+"thing.name", "The name of the thing", a.Thing.Name, 1, 80)
			bad.Number(at+"thing.massG", "The mass of one", a.Thing.Mass, 0, 50, " g")
			bad.Count(at+"thing.pack", "How many in a pack", a.Thing.Pack, 1, 5000)
			hair.CheckPrice(bad, at+"thing.priceMinor", a.Thing.Price)
		}
	}
}

// AccentName is what an accent is called.
func (in Input) AccentName(a Accent) string {
	if a.Thing != nil {
		return a.Thing.Name
	}
	return in.Piece(a.Piece).Name
}

// AccentPiece is the index of the piece of an accent, -1 for a small thing.
func (in Input) AccentPiece(accent int) int {
	key := in.Accents[accent].Piece
	if key == "" {
		return -1
	}
	return slices.IndexFunc(in.Pieces, func(p hair.Piece) bool { return p.Key == key })
}
