// Package hair holds the hair a plan works with: the client's own, and the pieces that
// are hung on it with the ways they are sold. Lengths are mm, mass g, prices integer
// minor units of the studio's currency.
package hair

import (
	"regexp"
	"slices"
	"strings"

	"kladotex/core/craft"
	"kladotex/core/invalid"
)

// MinLength and MaxLength bound the length of own hair that is planned for, mm,
// stretched: from what a loop just holds to below the hip.
const MinLength, MaxLength = 10.0, 1500.0

// Own is the client's own hair. Lengths are measured stretched; on a client's card 0 is
// one that was not measured.
type Own struct {
	Front float64 `json:"frontMm" doc:"Length in front, stretched, mm"`
	Sides float64 `json:"sidesMm" doc:"Length at the sides, stretched, mm"`
	Crown float64 `json:"crownMm" doc:"Length at the crown, stretched, mm"`
	Nape  float64 `json:"napeMm" doc:"Length at the nape, stretched, mm"`

	Density float64 `json:"densityPerCm2" doc:"Hairs per square centimetre"`
	Strand  float64 `json:"strandUm" doc:"Diameter of one hair, micrometres"`
	Texture Texture `json:"texture"`
	Tender  bool    `json:"tenderScalp"`
	Edges   Edges   `json:"edges"`
}

// Texture is how the hair grows.
type Texture string

// The textures.
const (
	Straight Texture = "straight"
	Wavy     Texture = "wavy"
	Curly    Texture = "curly"
	Coily    Texture = "coily"
)

// Textures are all of them, the straightest first.
var Textures = []Texture{Straight, Wavy, Curly, Coily}

// Edges is the state of the hairline.
type Edges string

// The states of a hairline.
const (
	StrongEdges  Edges = "strong"
	FineEdges    Edges = "fine"
	FragileEdges Edges = "fragile"
	BareEdges    Edges = "bare"
)

// EdgeStates are all states of a hairline, the best first.
var EdgeStates = []Edges{StrongEdges, FineEdges, FragileEdges, BareEdges}

// Longest is the greatest of the four lengths, mm.
func (o Own) Longest() float64 { return max(o.Front, o.Sides, o.Crown, o.Nape) }

// Slips tells whether plaits of it let go by themselves: straight hair, and hair of very fine strands.
func (o Own) Slips() bool { return o.Texture == Straight || o.Strand < craft.FineStrand }

// Check refuses hair that cannot be. The paths of bad are put under path; unmeasured
// says whether a length of 0 stands for one that was not measured.
func (o Own) Check(bad *invalid.Errors, path string, unmeasured bool) {
	for _, l := range []struct {
		key, label string
		mm         float64
	}{
		{"frontMm", "Own hair length in front", o.Front}, {"sidesMm", "Own hair length at the sides", o.Sides},
		{"crownMm", "Own hair length at the crown", o.Crown}, {"napeMm", "Own hair length at the nape", o.Nape},
	} {
		if l.mm != 0 || !unmeasured {
			bad.Length(path+l.key, l.label, l.mm, MinLength, MaxLength)
		}
	}
	bad.Number(path+"densityPerCm2", "Hair density", o.Density, 40, 400, " hairs per cm²")
	bad.Number(path+"strandUm", "Strand diameter", o.Strand, 30, 150, " µm")
	invalid.OneOf(bad, path+"texture", "The texture", o.Texture, Textures)
	invalid.OneOf(bad, path+"edges", "The state of the edges", o.Edges, EdgeStates)
}

// Form is what a piece is before it is attached.
type Form string

// The forms.
const (
	// Twist is a pre-looped twist, soft enough to weave a plait through.
	Twist Form = "looped-twist"
	// Braid is a pre-looped braid.
	Braid Form = "looped-braid"
	// SoftLoc is a pre-looped loc, soft enough to weave a plait through.
	SoftLoc Form = "soft-loc"
	// CoilLoc is a hollow spiral that can be opened.
	CoilLoc Form = "coil-loc"
	// HandmadeLoc is a loc wound by hand, with an eye at its top.
	HandmadeLoc Form = "handmade-loc"
	// Bulk is loose hair, folded over the hook to make two legs.
	Bulk Form = "bulk"
	// CurlyBulk is bulk hair that keeps a curl.
	CurlyBulk Form = "curly-bulk"
	// BraidingHair is stretched hair in bundles, braided by hand from the root.
	BraidingHair Form = "braiding-hair"
)

// FormFacts are what holds for every piece of a form.
type FormFacts struct {
	Form Form   `json:"form"`
	Name string `json:"name" doc:"What one piece of it is called"`
	// Many is several of them, in a sentence.
	Many string `json:"many"`
	// Folded is true for loose hair, which is folded over the hook and has no loop.
	Folded bool `json:"folded"`
	// Hangs is how long it hangs ÷ its length drawn straight: twist, wave and curl spring up.
	Hangs float64 `json:"hangs" doc:"How long it hangs ÷ its length drawn straight"`
}

// One is a piece of the form in a sentence: "a soft loc"; of loose hair, the hair.
func (f FormFacts) One() string {
	if f.Folded {
		return f.Many
	}
	return "a " + strings.ToLower(f.Name)
}

// Forms are all forms.
var Forms = []FormFacts{
	{Twist, "Pre-looped twist", "pre-looped twists", false, craft.HangsTwist},
	{Braid, "Pre-looped braid", "pre-looped braids", false, craft.HangsBraid},
	{SoftLoc, "Soft loc", "soft locs", false, craft.HangsSoftLoc},
	{CoilLoc, "Coil loc", "coil locs", false, craft.HangsCoilLoc},
	{HandmadeLoc, "Handmade loc", "handmade locs", false, craft.HangsHandmadeLoc},
	{Bulk, "Bulk hair", "bulk hair", true, craft.HangsBulk},
	{CurlyBulk, "Curly bulk hair", "curly bulk hair", true, craft.HangsCurlyBulk},
	{BraidingHair, "Braiding hair", "braiding hair", true, craft.HangsBraidingHair},
}

// FormNames are all forms by themselves.
func FormNames() []Form {
	out := make([]Form, len(Forms))
	for i, f := range Forms {
		out[i] = f.Form
	}
	return out
}

// Facts are those of the form; empty for one that is unknown.
func (f Form) Facts() FormFacts {
	if i := slices.IndexFunc(Forms, func(have FormFacts) bool { return have.Form == f }); i >= 0 {
		return Forms[i]
	}
	return FormFacts{}
}

// Pack is what one pack holds. A strand of bulk hair may be cut into several lengths and
// each length split into several units; a piece is one unit.
type Pack struct {
	Units  int `json:"units" doc:"Pieces or bulk strands in a pack"`
	Cuts   int `json:"cuts" doc:"Lengths each strand is cut into; 1 leaves it whole"`
	Splits int `json:"splits" doc:"Pieces each length is split into; 1 leaves it whole"`
}

// Yield is the number of units ready to attach that a pack gives.
func (p Pack) Yield() int { return p.Units * p.Cuts * p.Splits }

// Offer is a way to buy packs: a single one or a set.
type Offer struct {
	Packs int   `json:"packs" doc:"Packs in the offer"`
	Price int64 `json:"priceMinor" doc:"Price of the offer, minor units"`
	// Supplier is the key of who sells it; empty for any shop.
	Supplier string `json:"supplier,omitempty" maxLength:"40" doc:"Key of the supplier; left out for any shop"`
}

// Stiffness is how a piece bends.
type Stiffness string

// The stiffnesses; empty where nobody has felt it.
const (
	Supple Stiffness = "supple"
	Firm   Stiffness = "firm"
	Stiff  Stiffness = "stiff"
)

// Stiffnesses are all of them.
var Stiffnesses = []Stiffness{Supple, Firm, Stiff}

// Ends is how a piece ends.
type Ends string

// The ends.
const (
	PlainEnds Ends = "plain"
	// CurlyEnds keep a curl below a loc or a braid.
	CurlyEnds Ends = "curly"
	// LooseEnds are left open below a braid or a twist.
	LooseEnds Ends = "loose"
)

// EndKinds are all of them.
var EndKinds = []Ends{PlainEnds, CurlyEnds, LooseEnds}

// Open tells whether its ends mat and are kept apart by hand: those with a curl, those left open, and curly hair
// itself.
func (p Piece) Open() bool { return p.Ends == CurlyEnds || p.Ends == LooseEnds || p.Form == CurlyBulk }

// Natural tells whether it is human hair, wholly or in part, which bears no hot water.
func (p Piece) Natural() bool { return p.Fibre == Blend || p.Fibre == Human }

// Fibre is what hair is made of.
type Fibre string

// The fibres.
const (
	Synthetic Fibre = "synthetic"
	Blend     Fibre = "blend"
	Human     Fibre = "human"
)

// Fibres are all of them.
var Fibres = []Fibre{Synthetic, Blend, Human}

// swatch is a colour as screens write it.
var swatch = regexp.MustCompile(`^#[0-9a-f]{6}$`)

// CheckSwatch refuses a colour that is not written as screens do.
func CheckSwatch(bad *invalid.Errors, path, hex string) {
	if !swatch.MatchString(hex) {
		bad.Add(path, "A swatch is written like #4a3021: a hash and six of 0-9, a-f; it is %q.", hex)
	}
}

// MaxPrice of one offer, minor units: far above any pack in any currency, be it of millions of small coins,
// and far below overflow.
const MaxPrice = 10_000_000_000

// Piece is what is hung, and how it is sold.
type Piece struct {
	// Key names the piece inside its plan.
	Key       string  `json:"key" minLength:"1" maxLength:"40"`
	Name      string  `json:"name" maxLength:"80" doc:"What the supplier calls it"`
	Form      Form    `json:"form"`
	Colour    string  `json:"colour" maxLength:"40" doc:"Its colour in words; may be empty"`
	Length    float64 `json:"lengthMm" doc:"Hanging length, mm"`
	Thickness float64 `json:"thicknessMm"`
	Mass      float64 `json:"massG" doc:"Mass of one piece, g"`
	Loop      float64 `json:"loopMm" doc:"Opening of its loop when stretched, mm; 0 when not measured"`
	Pack      Pack    `json:"pack"`
	Offers    []Offer `json:"offers" minItems:"1" maxItems:"12"`
	// Item is the id of the studio's item it was taken from; the facts above are as they
	// were then.
	Item      string    `json:"item,omitempty" maxLength:"64" doc:"Id of the item of the supplies it is; left out for one that is not in them"`
	Swatch    string    `json:"swatch,omitempty" doc:"Its colour as a screen shows it, such as #4a3021"`
	Stiffness Stiffness `json:"stiffness,omitempty" enum:"supple,firm,stiff,"`
	// Made is how it is made by hand; nil for one that is bought.
	Made *Making `json:"made,omitempty" doc:"How it is made by hand; left out for one that is bought"`
	// Ends, Fibre and Coated are what decide how it is cared for; empty where nobody said.
	Ends   Ends  `json:"ends,omitempty" enum:"plain,curly,loose," doc:"How its ends are; left out for plain ones"`
	Fibre  Fibre `json:"fibre,omitempty" enum:"synthetic,blend,human," doc:"What it is made of; left out for synthetic"`
	Coated bool  `json:"coated,omitempty" doc:"True where its coating irritates some scalps"`
	// Sold is the length of loose hair as it lies in the pack, opened out, mm.
	Sold float64 `json:"soldMm,omitempty" doc:"Loose hair: length of a strand as sold, opened out, mm; left out where it hangs as it was sold"`
}

// Check refuses a piece that cannot be; the paths of bad are put under path.
func (p Piece) Check(bad *invalid.Errors, path string) {
	bad.Letters(path+"name", "The piece's name", p.Name, 0, 80)
	bad.Letters(path+"colour", "The colour", p.Colour, 0, 40)
	invalid.OneOf(bad, path+"form", "The piece's form", p.Form, FormNames())
	bad.Length(path+"lengthMm", "Piece length", p.Length, 75, 1300)
	bad.Number(path+"thicknessMm", "Piece thickness", p.Thickness, 2, 30, " mm")
	bad.Number(path+"massG", "Piece mass", p.Mass, 0.2, 60, " g")
	bad.Number(path+"loopMm", "Opening of the loop", p.Loop, 0, 40, " mm")
	bad.Count(path+"pack.units", "Pieces in a pack", p.Pack.Units, 1, 500)
	bad.Count(path+"pack.cuts", "Lengths cut from a strand", p.Pack.Cuts, 1, 10)
	bad.Count(path+"pack.splits", "Pieces split from a length", p.Pack.Splits, 1, 10)
	checkOffers(bad, path+"offers", p.Offers, 1, 12)
	bad.Letters(path+"item", "The item", p.Item, 0, 64)
	if p.Swatch != "" {
		CheckSwatch(bad, path+"swatch", p.Swatch)
	}
	if p.Stiffness != "" {
		invalid.OneOf(bad, path+"stiffness", "Stiffness", p.Stiffness, Stiffnesses)
	}
	if p.Made != nil {
		p.Made.Check(bad, path+"made.")
	}
	if p.Ends != "" {
		invalid.OneOf(bad, path+"ends", "The ends", p.Ends, EndKinds)
	}
	if p.Fibre != "" {
		invalid.OneOf(bad, path+"fibre", "The fibre", p.Fibre, Fibres)
	}
	if p.Sold != 0 {
		bad.Length(path+"soldMm", "Length as sold", p.Sold, MinSold, MaxSold)
	}
}

// MinSold and MaxSold bound the length of loose hair as sold, opened out, mm.
const MinSold, MaxSold = 150.0, 3000.0

// CheckPrice refuses a price that cannot be.
func CheckPrice(bad *invalid.Errors, path string, v int64) {
	if v < 0 || v > MaxPrice {
		bad.Add(path, "A price must be between 0 and %d of the currency's smallest unit; it is %d.", MaxPrice, v)
	}
}

// Wrapping is the hair wound over plaits by methods that wrap.
type Wrapping struct {
	StrandLength float64 `json:"strandLengthMm" doc:"Length of one strand as wound, mm"`
	Strands      int     `json:"strandsPerPack"`
	PackMass     float64 `json:"packMassG" doc:"Mass of one pack, g"`
	Price        int64   `json:"priceMinor" doc:"Price of one pack, minor units"`
	// Name, Item, Colour, Swatch and Offers are those of the studio's item it was taken from;
	// all empty for hair that is not in the supplies.
	Name   string  `json:"name,omitempty" maxLength:"80"`
	Item   string  `json:"item,omitempty" maxLength:"64" doc:"Id of the item of the supplies it is"`
	Colour string  `json:"colour,omitempty" maxLength:"40"`
	Swatch string  `json:"swatch,omitempty"`
	Offers []Offer `json:"offers,omitempty" maxItems:"12" doc:"The ways it is sold; left out for a pack at a time"`
	// Cuts is into how many a strand as sold is cut before it is wound; 0 leaves it whole.
	Cuts int `json:"cuts,omitempty" doc:"Lengths a strand as sold was cut into; left out where it is whole"`
}

// Check refuses wrapping hair that cannot be; the paths of bad are put under path.
func (w Wrapping) Check(bad *invalid.Errors, path string) {
	bad.Length(path+"strandLengthMm", "Wrapping strand", w.StrandLength, 150, 2000)
	bad.Count(path+"strandsPerPack", "Strands in a pack of wrapping hair", w.Strands, 1, 1000)
	bad.Number(path+"packMassG", "Pack mass of wrapping hair", w.PackMass, 1, 1000, " g")
	CheckPrice(bad, path+"priceMinor", w.Price)
	bad.Letters(path+"name", "The name of the wrapping hair", w.Name, 0, 80)
	bad.Letters(path+"colour", "The colour", w.Colour, 0, 40)
	if w.Swatch != "" {
		CheckSwatch(bad, path+"swatch", w.Swatch)
	}
	bad.Count(path+"cuts", "Lengths cut from a strand", w.Cuts, 0, 10)
	checkOffers(bad, path+"offers", w.Offers, 0, 12)
}

// checkOffers refuses offers that cannot be.
func checkOffers(bad *invalid.Errors, path string, offers []Offer, least, most int) {
	bad.Count(path, "The number of offers", len(offers), least, most)
	for i, o := range offers {
		o.Check(bad, invalid.At(path, i))
	}
}

// Check refuses an offer that cannot be; the paths of bad are put under path.
func (o Offer) Check(bad *invalid.Errors, path string) {
	bad.Count(path+".packs", "Packs in the offer", o.Packs, 1, 50)
	CheckPrice(bad, path+".priceMinor", o.Price)
	bad.Letters(path+".supplier", "The supplier", o.Supplier, 0, 40)
}

// StrandMass is the mass of one strand, g.
func (w Wrapping) StrandMass() float64 { return w.PackMass / float64(w.Strands) }

// AsOffers is how it is sold: a pack at a time where nothing else is said.
func (w Wrapping) AsOffers() []Offer {
	if len(w.Offers) > 0 {
		return w.Offers
	}
	return []Offer{{Packs: 1, Price: w.Price}}
}

// Called is a piece with its colour.
func (p Piece) Called() string {
	if p.Colour == "" {
		return p.Name
	}
	return p.Name + ", " + strings.ToLower(p.Colour)
}
