// Package need says what a solved plan takes of hair and small things: how much of each to buy,
// how far the packs go on the head, and what is prepared at home.
package need

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/core/words"
)

// Need is what to buy.
type Need struct {
	// Pieces are the needs of those that hang somewhere, in the plan's order.
	Pieces []PieceNeed `json:"pieces"`
	// Wraps are the needs of hair that is used up: wound over plaits, wound into pieces made by
	// hand, fed into ends.
	Wraps []WrapNeed `json:"wraps"`
	// Things are the needs of accents that are no pieces, and of bands, rings and cord.
	Things []ThingNeed `json:"things"`
	// Products are what is measured out: gel, foam and the like.
	Products []ProductNeed `json:"products"`
}

// PieceNeed is the need of one piece.
type PieceNeed struct {
	Piece  string `json:"piece" doc:"Key of the piece"`
	OnHead int    `json:"onHead" doc:"At places, without those to fill with"`
	Hooked int    `json:"hooked" doc:"Of them, those hooked on cornrows, on a net or on linked plaits"`
	FedIn  int    `json:"fedIn" doc:"Of them, those fed into cornrows that go on as braids"`
	Fill   int    `json:"fill"`
	Spares int    `json:"spares"`
	// Made is true for a piece that is made by hand, of which no packs are bought.
	Made  bool         `json:"made,omitempty" doc:"True for one made by hand: no packs of it are bought"`
	Order supply.Order `json:"order"`
	// Accents are those of OnHead that are put on besides.
	Accents int `json:"accents" doc:"Of those on the head, the ones put on as accents"`
	// Amounts are how many to have; Enough is the chance that the packs ordered are enough.
	Amounts supply.Amounts `json:"amounts"`
	Enough  float64        `json:"enough" doc:"Chance that the packs ordered are enough"`
	// Without is how many packs are enough without any spares.
	Without int `json:"withoutSpares" doc:"Packs that are enough without any spares"`
}

// ThingNeed is the need of a small thing.
type ThingNeed struct {
	Accent int `json:"accent" doc:"Index of the accent; -1 for what methods, plaits and made pieces take"`
	// Product is which of those it is; empty for an accent.
	Product plan.ProductKey `json:"product,omitempty" doc:"Which of those it is; left out for an accent"`
	Name    string          `json:"name"`
	Unit    string          `json:"unit" enum:"piece,m"`
	Count   int             `json:"count"`
	Order   supply.Order    `json:"order"`
}

// NoAccent stands for the index of an accent where a thing is none.
const NoAccent = -1

// Thing is what is needed: of an accent, or a product that is counted.
func (n ThingNeed) Thing(in plan.Input) plan.Thing {
	if n.Accent == NoAccent {
		return in.Product(n.Product)
	}
	return *in.Accents[n.Accent].Thing
}

// Key names the need inside its plan.
func (n ThingNeed) Key() string {
	if n.Accent == NoAccent {
		return "thing:" + string(n.Product)
	}
	return fmt.Sprint("thing:", n.Accent)
}

// ProductNeed is how much a head takes of what is measured out. The jar is the studio's: a head pays its share.
type ProductNeed struct {
	Product plan.ProductKey `json:"product"`
	Name    string          `json:"name"`
	Amount  float64         `json:"amount"`
	Unit    string          `json:"unit" enum:"g,ml"`
	Cost    int64           `json:"costMinor" doc:"Its share of the price of a jar, minor units"`
	// Item is the id of the item of the supplies it is; empty for one that is not in them.
	Item string `json:"item,omitempty"`
}

// WrapNeed is hair of one use that is used up by the strand or by weight.
type WrapNeed struct {
	// Way is the method that winds it, Piece the piece it is wound into; both empty for hair fed in.
	Way   string `json:"way,omitempty" doc:"Key of the method that winds it"`
	Piece string `json:"piece,omitempty" doc:"Key of the piece made by hand of it"`
	// Plaits is how many plaits, pieces or ends take it.
	Plaits  int    `json:"plaits" doc:"Plaits wrapped, pieces made, or ends fed"`
	Strands int    `json:"strands" doc:"For all of them, without spares; of hair fed in, grams"`
	Unit    string `json:"unit" enum:"strand,g"`
	// Name is what the hair is called, Says what it is for, with how much.
	Name  string       `json:"name"`
	Says  string       `json:"says" doc:"How much for what, such as 156 strands for 78 plaits"`
	Order supply.Order `json:"order"`
}

// Key names the need inside its plan.
func (n WrapNeed) Key() string {
	switch {
	case n.Way != "":
		return "wrap:" + n.Way
	case n.Piece != "":
		return "make:" + n.Piece
	}
	return "feed"
}

// Hair is what is used up.
func (n WrapNeed) Hair(in plan.Input) hair.Wrapping {
	switch {
	case n.Way != "":
		i := slices.IndexFunc(in.Ways, func(w plan.Way) bool { return w.Key == n.Way })
		return *in.Ways[i].Wrapping
	case n.Piece != "":
		made, _ := in.Making(in.Piece(n.Piece))
		return made.Wrapping
	}
	return in.Fed()
}

// called is what it is called.
func (n WrapNeed) called(in plan.Input) string {
	usual := "Hair to feed in"
	switch {
	case n.Way != "":
		usual = "Wrapping hair, " + in.WayName(n.Way)
	case n.Piece != "":
		usual = "Wrapping hair for " + in.Piece(n.Piece).Name
	}
	return cmp.Or(n.Hair(in).Name, usual)
}

// says is what it is for, with how much: "156 strands for 78 plaits".
func (n WrapNeed) says() string {
	switch {
	case n.Way != "":
		return fmt.Sprintf("%s for %s", words.Count(n.Strands, "strand"), words.Count(n.Plaits, "plait"))
	case n.Piece != "":
		return fmt.Sprintf("%s for %s made by hand", words.Count(n.Strands, "strand"), words.Count(n.Plaits, "piece"))
	}
	return fmt.Sprintf("%s for the ends of %s", words.Grams(float64(n.Strands)), words.Count(n.Plaits, "plait"))
}

// pack is how many of its units a pack holds.
func (n WrapNeed) pack(h hair.Wrapping) int {
	if n.Unit == grams {
		return max(1, int(h.PackMass))
	}
	return h.Strands
}

// The units in which hair is used up.
const (
	strands = "strand"
	grams   = "g"
)

// Of folds the places into what to buy.
func Of(sol *plan.Solved) (Need, error) {
	in := sol.Input
	n := Need{Pieces: []PieceNeed{}, Wraps: []WrapNeed{}, Things: []ThingNeed{}, Products: []ProductNeed{}}
	feed := WrapNeed{Unit: grams}
	fedGrams, cord := 0.0, 0.0
	things := make([]int, len(in.Accents))
	pieces := make([]PieceNeed, len(in.Pieces))
	wraps := make([]WrapNeed, len(in.Ways))
	for i := range sol.Places {
		p := &sol.Places[i]
		if p.Kept {
			continue
		}
		pieces[p.Piece].OnHead += p.Count
		switch p.Ground {
		case method.OnPlait:
		case method.OnEnd:
			pieces[p.Piece].FedIn += p.Count
		default:
			pieces[p.Piece].Hooked += p.Count
		}
		for _, a := range p.Accents {
			things[a]++
			if k := sol.Input.AccentPiece(a); k >= 0 {
				pieces[k].OnHead++
				pieces[k].Accents++
			}
		}
		if g := sol.FedGrams(p); g > 0 {
			feed.Plaits++
			fedGrams += g
		}
		if s := sol.Works[i].Strands; s > 0 {
			wraps[p.Way].Plaits++
			wraps[p.Way].Strands += s
		}
	}
	for i, need := range pieces {
		piece := in.Pieces[i]
		if in.Fill.Piece == piece.Key {
			need.Fill = in.Fill.Total()
		}
		if need.OnHead+need.Fill == 0 {
			continue
		}
		hang, yield, perStrand := need.OnHead+need.Fill, piece.Pack.Yield(), piece.Pack.Cuts*piece.Pack.Splits
		odds := in.Spares.Odds()
		need.Amounts = odds.Amounts(hang, yield, perStrand)
		need.Piece, need.Spares = piece.Key, in.Spares.From(hang, need.Amounts)
		if made, ok := in.Making(piece); ok { // as many as are made, of hair that is wound
			all := hang + need.Spares
			need.Made, need.Order, need.Enough = true, supply.Order{Need: all, Units: all, Lines: []supply.OrderLine{}}, 1
			n.Pieces = append(n.Pieces, need)
			each := supply.MakeLoc(piece.Length, piece.Thickness, made.Wrapping.StrandLength)
			wraps = append(wraps, WrapNeed{Piece: piece.Key, Plaits: all, Strands: int(math.Ceil(each.Strands * float64(all)))})
			if made.Base == hair.CordBase {
				cord += each.Base * float64(all)
			}
			continue
		}
		need.Without = (hang + yield - 1) / yield
		var err error
		if need.Order, err = supply.Buy(hang+need.Spares, yield, piece.Offers); err != nil {
			return Need{}, fmt.Errorf("ordering %q: %w", piece.Key, err)
		}
		need.Enough = odds.Enough(need.Order.Units, hang, yield, perStrand)
		n.Pieces = append(n.Pieces, need)
	}
	feed.Strands = int(math.Ceil(fedGrams))
	for i, need := range append(wraps, feed) {
		if need.Strands == 0 {
			continue
		}
		if i < len(in.Ways) {
			need.Way = in.Ways[i].Key
		}
		if need.Unit == "" {
			need.Unit = strands
		}
		of := need.Hair(in)
		wanted := need.Strands
		if need.Piece == "" { // spare pieces are counted in what is made
			wanted += in.Spares.Of(need.Strands)
		}
		var err error
		if need.Order, err = supply.Buy(wanted, need.pack(of), of.AsOffers()); err != nil {
			return Need{}, fmt.Errorf("ordering hair for %q: %w", need.Key(), err)
		}
		need.Name, need.Says = need.called(in), need.says()
		n.Wraps = append(n.Wraps, need)
	}
	for a, count := range things {
		t := in.Accents[a].Thing
		if t == nil || count == 0 {
			continue
		}
		order, err := supply.Buy(count, t.Pack, []hair.Offer{{Packs: 1, Price: t.Price}})
		if err != nil {
			return Need{}, fmt.Errorf("ordering %q: %w", t.Name, err)
		}
		n.Things = append(n.Things, ThingNeed{a, "", t.Name, "piece", count, order})
	}
	rings := 0
	for i := range sol.Layout.Cornrows {
		if sol.Layout.Cornrows[i].OfDesign() && in.Redo == nil {
			rings += in.Parting.Design.Rings
		}
	}
	counted := map[plan.ProductKey]int{plan.Bands: sol.Bands(), plan.Rings: rings, plan.Cord: int(math.Ceil(cord / 1000))}
	measured := sol.Measured()
	for _, facts := range plan.Products {
		of := in.Product(facts.Key)
		if count := counted[facts.Key]; count > 0 {
			spare := 0
			if facts.Key == plan.Bands {
				spare = in.Spares.Of(count)
			}
			order, err := supply.Buy(count+spare, of.Pack, []hair.Offer{{Packs: 1, Price: of.Price}})
			if err != nil {
				return Need{}, fmt.Errorf("ordering %q: %w", of.Name, err)
			}
			n.Things = append(n.Things, ThingNeed{NoAccent, facts.Key, of.Name, facts.Unit, count, order})
		}
		if amount := math.Round(measured[facts.Key]); amount > 0 && !facts.Whole {
			n.Products = append(n.Products, ProductNeed{
				facts.Key, of.Name, amount, facts.Unit, int64(math.Ceil(amount * float64(of.Price) / float64(of.Pack))), of.Item,
			})
		}
	}
	return n, nil
}
