package supply

import (
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"

	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/invalid"
)

// ItemSchema is the version of the item document that this package writes.
const ItemSchema = 1

// Kind is what an item is: a form of piece, wrapping hair, or a small thing.
type Kind string

// The kinds that are no form of piece.
const (
	WrappingHair Kind = "wrapping-hair"
	Bands        Kind = "bands"
	Cuffs        Kind = "cuffs"
	Thread       Kind = "thread"
	Hook         Kind = "hook"
	Net          Kind = "net"
	Gel          Kind = "gel"
	Wax          Kind = "wax"
	Oil          Kind = "oil"
	LeaveIn      Kind = "leave-in"
	Foam         Kind = "foam"
	Glue         Kind = "glue"
)

// KindFacts are what holds for every item of a kind.
type KindFacts struct {
	Kind Kind   `json:"kind"`
	Name string `json:"name"`
	// Unit and Units are what is counted in a pack, one and many.
	Unit  string `json:"unit"`
	Units string `json:"units"`
	// Hair is true for all that is measured and weighed, Loose for hair that has no loop and
	// is cut and split, Hangs for what a plan can hang.
	Hair  bool `json:"hair"`
	Loose bool `json:"loose"`
	Hangs bool `json:"hangs"`
}

// Kinds are all kinds: the forms of pieces, then the others.
var Kinds = func() (all []KindFacts) {
	for _, f := range hair.Forms {
		k := KindFacts{Kind(f.Form), f.Name, "piece", "pieces", true, f.Folded, true}
		switch {
		case f.Form == hair.BraidingHair:
			k.Unit, k.Units = "bundle", "bundles"
		case f.Folded:
			k.Unit, k.Units = "strand", "strands"
		}
		all = append(all, k)
	}
	return append(all,
		KindFacts{WrappingHair, "Wrapping hair", "strand", "strands", true, true, false},
		KindFacts{Bands, "Bands", "band", "bands", false, false, false},
		KindFacts{Cuffs, "Cuffs", "cuff", "cuffs", false, false, false},
		KindFacts{Thread, "Thread", "spool", "spools", false, false, false},
		KindFacts{Hook, "Hooks", "hook", "hooks", false, false, false},
		KindFacts{Net, "Nets", "net", "nets", false, false, false},
		KindFacts{Gel, "Gel", "g", "g", false, false, false},
		KindFacts{Wax, "Wax", "g", "g", false, false, false},
		KindFacts{Oil, "Oil", "ml", "ml", false, false, false},
		KindFacts{LeaveIn, "Leave-in", "ml", "ml", false, false, false},
		KindFacts{Foam, "Setting foam", "ml", "ml", false, false, false},
		KindFacts{Glue, "Glue", "ml", "ml", false, false, false},
	)
}()

// Facts are those of the kind; empty for one that is unknown.
func (k Kind) Facts() KindFacts {
	if i := slices.IndexFunc(Kinds, func(f KindFacts) bool { return f.Kind == k }); i >= 0 {
		return Kinds[i]
	}
	return KindFacts{}
}

// Fibre is what hair is made of.
type Fibre = hair.Fibre

// The fibres.
const (
	Synthetic = hair.Synthetic
	Blend     = hair.Blend
	Human     = hair.Human
)

// FibreFacts are what holds for hair of a fibre.
type FibreFacts struct {
	Fibre Fibre  `json:"fibre"`
	Name  string `json:"name"`
	// Care is how it wants to be handled, and whether it is worth saving.
	Care string `json:"care"`
	// Rounds is how often it stands being worn.
	Rounds int `json:"rounds" doc:"How often it stands being worn"`
}

// Fibres are all fibres.
var Fibres = []FibreFacts{
	{Synthetic, "Synthetic", "Most of it: hot water sets it, flame and irons melt it.", craft.RoundsSynthetic},
	{Blend, "Blend", "Part human hair. Handle it gently: no hot water, comb from the tips, wash by hand. Worth saving for another round.", craft.RoundsBlend},
	{Human, "Human", "Wash and condition it like the client's own hair, no hot-water set. Worth saving for several rounds.", craft.RoundsHuman},
}

// FibreNames are all fibres by themselves.
func FibreNames() []Fibre {
	out := make([]Fibre, len(Fibres))
	for i, f := range Fibres {
		out[i] = f.Fibre
	}
	return out
}

// KindNames are all kinds by themselves.
func KindNames() []Kind {
	out := make([]Kind, len(Kinds))
	for i, k := range Kinds {
		out[i] = k.Kind
	}
	return out
}

// FactsOf are those of a fibre; empty for one that is unknown.
func FactsOf(f Fibre) FibreFacts {
	if i := slices.IndexFunc(Fibres, func(x FibreFacts) bool { return x.Fibre == f }); i >= 0 {
		return Fibres[i]
	}
	return FibreFacts{}
}

// Colour is one that an item comes in.
type Colour struct {
	Name   string `json:"name" minLength:"1" maxLength:"40"`
	Swatch string `json:"swatch" doc:"As a screen shows it, such as #4a3021"`
	// Tip is the colour of its ends, where they are another.
	Tip string `json:"tip,omitempty" doc:"Colour of the ends, where they are another"`
}

// Depths is how many steps there are from dark to light.
const Depths = 9

// Depth is the step of a swatch from 1, the darkest, to 9, by its lightness (CIE L*, with the
// luminance of sRGB after IEC 61966-2-1); 0 for what is no swatch.
func Depth(swatch string) int {
	var r, g, b uint8
	if n, err := fmt.Sscanf(swatch, "#%02x%02x%02x", &r, &g, &b); n != 3 || err != nil {
		return 0
	}
	linear := func(v uint8) float64 {
		c := float64(v) / 255
		if c <= 0.04045 {
			return c / 12.92
		}
		return math.Pow((c+0.055)/1.055, 2.4)
	}
	y := 0.2126*linear(r) + 0.7152*linear(g) + 0.0722*linear(b)
	light := 903.3 * y
	if y > 0.008856 {
		light = 116*math.Cbrt(y) - 16
	}
	return 1 + min(Depths-1, int(light/100*Depths))
}

// Article is how a supplier lists an item, for asking what it costs now.
type Article struct {
	Supplier string `json:"supplier" maxLength:"40" doc:"Key of the supplier"`
	Number   string `json:"number" maxLength:"40" doc:"The supplier's own number of it"`
}

// Item is one line at one length, as a studio keeps it on file. Facts that nobody has measured
// are 0.
type Item struct {
	Schema int    `json:"schema" minimum:"1" doc:"Version of this document's schema"`
	Kind   Kind   `json:"kind"`
	Name   string `json:"name" minLength:"1" maxLength:"80"`
	// Line is what items have in common that differ in length alone.
	Line    string   `json:"line" maxLength:"60" doc:"The product it belongs to: other lengths of it can stand in for it"`
	Colours []Colour `json:"colours" maxItems:"40"`

	Length    float64        `json:"lengthMm" doc:"Hanging length of a piece; of loose hair, the length of a strand as it lies in the pack"`
	Folded    bool           `json:"folded" doc:"Loose hair: sold folded, so that a strand opened out is twice as long"`
	Thickness float64        `json:"thicknessMm"`
	Mass      float64        `json:"massG" doc:"Mass of one piece or strand, g"`
	Loop      float64        `json:"loopMm" doc:"Opening of the loop when stretched, mm; 0 when not measured"`
	Stiffness hair.Stiffness `json:"stiffness" enum:"supple,firm,stiff,"`
	Fibre     Fibre          `json:"fibre"`
	Ends      hair.Ends      `json:"ends,omitempty" enum:"plain,curly,loose," doc:"How its ends are; left out for plain ones"`
	Coated    bool           `json:"coated" doc:"Its coating irritates some scalps: rinse and dry before use"`

	// Units in a pack as sold; Cuts and Splits are how loose hair is usually prepared.
	Pack hair.Pack `json:"pack"`
	// Offers are the ways it is sold, by supplier.
	Offers   []hair.Offer `json:"offers" maxItems:"12"`
	Currency string       `json:"currency" pattern:"^[A-Z]{3}$" doc:"Currency of the prices; it must be the studio's"`
	Articles []Article    `json:"articles" maxItems:"8"`
	Note     string       `json:"note" maxLength:"400"`
}

// Open is the length of a strand of loose hair opened out, mm.
func (i Item) Open() float64 {
	if i.Folded {
		return 2 * i.Length
	}
	return i.Length
}

// Piece is the item as a plan hangs it, in one of its colours: of loose hair, what a strand
// gives when it is cut, split and folded over the hook.
func (i Item) Piece(key, id, colour string) hair.Piece {
	p := hair.Piece{
		Key: key, Name: i.Name, Form: hair.Form(i.Kind), Colour: colour, Length: i.Length, Thickness: i.Thickness, Mass: i.Mass, Loop: i.Loop,
		Stiffness: i.Stiffness, Pack: i.Pack, Offers: i.Offers, Item: id, Ends: i.Ends, Fibre: i.Fibre, Coated: i.Coated,
	}
	for _, c := range i.Colours {
		if c.Name == colour {
			p.Swatch = c.Swatch
		}
	}
	if i.Kind.Facts().Loose {
		cut := Cut{Open: i.Open(), Cuts: i.Pack.Cuts, Splits: i.Pack.Splits, Fold: p.Form != hair.BraidingHair}
		p.Sold, p.Length, p.Mass = i.Open(), cut.Hanging(), i.Mass/float64(i.Pack.Cuts*i.Pack.Splits)
		if p.Form == hair.BraidingHair {
			p.Length *= craft.BraidTakeUp
		}
	}
	if len(p.Offers) == 0 {
		p.Offers = []hair.Offer{{Packs: 1}}
	}
	return p
}

// Wrapping is an item of wrapping hair as a way winds it, in one of its colours.
func (i Item) Wrapping(id, colour string) hair.Wrapping {
	w := hair.Wrapping{
		StrandLength: i.Open(), Strands: i.Pack.Units, PackMass: i.Mass * float64(i.Pack.Units), Name: i.Name, Item: id, Colour: colour, Offers: i.Offers,
	}
	for _, o := range i.Offers {
		if o.Packs == 1 && (w.Price == 0 || o.Price < w.Price) {
			w.Price = o.Price
		}
	}
	for _, c := range i.Colours {
		if c.Name == colour {
			w.Swatch = c.Swatch
		}
	}
	return w
}

// Check refuses an item that cannot be, as [invalid.Errors] with paths relative to it.
func (i Item) Check() error {
	var bad invalid.Errors
	if i.Schema != ItemSchema {
		bad.Add("schema", "This item is of version %d; this program reads versions up to %d. A newer Kladotex will open it.", i.Schema, ItemSchema)
	}
	invalid.OneOf(&bad, "kind", "The kind", i.Kind, KindNames())
	bad.Letters("name", "The name", strings.TrimSpace(i.Name), 1, 80)
	bad.Letters("line", "The product", i.Line, 0, 60)
	bad.Count("colours", "The number of colours", len(i.Colours), 0, 40)
	for k, c := range i.Colours {
		at := invalid.At("colours", k)
		bad.Letters(at+".name", "The colour's name", strings.TrimSpace(c.Name), 1, 40)
		hair.CheckSwatch(&bad, at+".swatch", c.Swatch)
		if c.Tip != "" {
			hair.CheckSwatch(&bad, at+".tip", c.Tip)
		}
		if slices.ContainsFunc(i.Colours[:k], func(o Colour) bool { return strings.EqualFold(o.Name, c.Name) }) {
			bad.Add(at+".name", "The colour %q stands twice.", c.Name)
		}
	}
	bad.Count("pack.units", "What a pack holds", i.Pack.Units, 1, 5000)
	bad.Count("pack.cuts", "Lengths cut from a strand", i.Pack.Cuts, 1, 10)
	bad.Count("pack.splits", "Pieces split from a length", i.Pack.Splits, 1, 10)
	if i.Kind.Facts().Hair {
		i.checkHair(&bad)
	}
	bad.Count("offers", "The number of offers", len(i.Offers), 0, 12)
	for k, o := range i.Offers {
		o.Check(&bad, invalid.At("offers", k))
	}
	bad.Letters("note", "The note", i.Note, 0, 400)
	return bad.Err()
}

func (i Item) checkHair(bad *invalid.Errors) {
	bad.Length("lengthMm", "The length", i.Length, 75, hair.MaxSold)
	if i.Kind != WrappingHair {
		bad.Number("thicknessMm", "The thickness", i.Thickness, 2, 30, " mm")
	}
	bad.Number("massG", "The mass of one", i.Mass, 0.1, 200, " g")
	bad.Number("loopMm", "Opening of the loop", i.Loop, 0, 40, " mm")
	if i.Stiffness != "" {
		invalid.OneOf(bad, "stiffness", "Stiffness", i.Stiffness, hair.Stiffnesses)
	}
	invalid.OneOf(bad, "fibre", "The fibre", i.Fibre, FibreNames())
}

// DecodeItem reads an item as it is stored. Versions have been one so far.
func DecodeItem(raw []byte) (Item, error) {
	var i Item
	if err := json.Unmarshal(raw, &i); err != nil {
		return Item{}, fmt.Errorf("reading an item: %w", err)
	}
	return i, nil
}
