package propose

import (
	"cmp"
	"fmt"
	"slices"

	"kladotex/core/client"
	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/wear"
	"kladotex/core/wish"
)

// Begin is what a search starts from: whose head it is, what is wished, what there is, and how the house works.
type Begin struct {
	// Head is the plan of the person: tapes, hair, what the head bears, the sides the house takes, and the wish.
	Head plan.Input
	// Shelf are the pieces on offer.
	Shelf []hair.Piece
	// Rules are how long the house has heads worn.
	Rules wear.Rules
	// Stops are what must be settled by name before anything is proposed.
	Stops []Stop
	// Before is what the same person wore earlier.
	Before []wear.Earlier
	// Measured is true where the three tapes were taken.
	Measured bool
	// Workers is how many lay and rate at once; at least 1.
	Workers int
}

// wished is the wish of the plan; nothing where none is.
func (b Begin) wished() wish.Wanted {
	if b.Head.Wanted == nil {
		return wish.Wanted{}
	}
	return *b.Head.Wanted
}

// Ask is what must be said before anything is proposed.
type Ask string

// What is asked first.
const (
	AskLook   Ask = "look"
	AskHealth Ask = "health"
)

// Stop is why nothing is proposed, and when to ask again.
type Stop struct {
	Key  string `json:"key"`
	Says string `json:"says"`
}

// Progress is how far a search has come.
type Progress struct {
	Laid   int `json:"laid" doc:"Heads laid out so far"`
	ToLay  int `json:"toLay" doc:"Heads to be laid out"`
	Rated  int `json:"rated" doc:"Plans rated so far"`
	Draped int `json:"draped" doc:"Plans hung so far"`
	ToHang int `json:"toHang" doc:"Plans to be hung"`
}

// Answer is what comes of a wish.
type Answer struct {
	// Stops keep anything from being proposed; Asks is what must be said first.
	Stops []Stop `json:"stops"`
	Asks  Ask    `json:"asks,omitempty" enum:"look,health," doc:"What must be said first; left out where enough was said"`
	// Questions are those on health, where they are asked first.
	Questions []client.Grave `json:"questions"`
	// Proposals are three, or fewer where no more differ: the quickest first.
	Proposals []Proposal `json:"proposals"`
	// Gives are the smallest changes of the wish under which something meets it; none where something does.
	Gives []Give `json:"gives"`
	// Says are what there is to know beside all of them.
	Says []string `json:"says"`
	// Sizes are what a word for a size comes to on heads that were not measured; none for one that was.
	Sizes []SizeRange `json:"sizes"`
	// Done is what was looked at.
	Done Progress `json:"done"`
}

// Nothing is an answer with nothing in it.
func Nothing() Answer {
	return Answer{Stops: []Stop{}, Questions: []client.Grave{}, Proposals: []Proposal{}, Gives: []Give{}, Says: []string{}, Sizes: []SizeRange{}}
}

// Proposal is a plan that meets the wish.
type Proposal struct {
	Key   string     `json:"key" enum:"quick,balanced,full"`
	Title string     `json:"title" doc:"What it is, in a few words"`
	Input plan.Input `json:"input" doc:"The plan"`
	Facts Figures    `json:"facts"`
	// Against is what it gives up and gains against the other proposals, facet by facet.
	Against []Against `json:"against"`
	// More is what the next half hour and the next pack would buy.
	More []string `json:"more"`
	// Says is what must be known of it, what hurts first.
	Says []string `json:"says"`
}

// Against is a proposal held against another one.
type Against struct {
	Key   string   `json:"key" enum:"quick,balanced,full"`
	Gains []string `json:"gains"`
	Loses []string `json:"loses"`
}

// Give is a change of the wish under which a plan meets it.
type Give struct {
	Says  string      `json:"says" doc:"What is changed, in words"`
	Wish  wish.Wanted `json:"wish" doc:"The wish after it"`
	Title string      `json:"title" doc:"What that gives"`
	Facts Figures     `json:"facts"`
	Input plan.Input  `json:"input"`
}

// SizeRange is what a size of section comes to on petite, average and large heads that were not measured.
type SizeRange struct {
	SizeMM float64 `json:"sizeMm"`
	// Says is the word people have for it.
	Says string   `json:"says"`
	On   []OnHead `json:"on"`
	Tape string   `json:"tape" doc:"Which tape changes it most, in words"`
}

// OnHead is what it comes to on a head of one size.
type OnHead struct {
	Head     string `json:"head" doc:"Petite, Average or Large"`
	Sections int    `json:"sections"`
	Packs    int    `json:"packs"`
}

// Variant is one way to do a head: what tells a candidate from the others.
type Variant struct {
	Base    parting.Structure
	Pattern parting.Pattern
	// Size is the width and height of a section, mm.
	Size float64
	// Piece is the index of a piece.
	Piece  int
	Method method.ID
	// Lighter is the method at the hairline and beside the part; empty for the same as elsewhere.
	Lighter method.ID
	// Hook is the method on the base, Apart how far apart it hooks, in shares of the usual.
	Hook  method.ID
	Apart float64
	// Count is how many pieces hang on the whole head, of hair in hand; 0 lets sizes say.
	Count int
}

const inch = 25.4

// Figures are what a plan comes to, as far as plans are told apart by it.
type Figures struct {
	Structure parting.Structure `json:"structure"`
	SizeMM    float64           `json:"sizeMm" doc:"Width and height of a section"`
	Piece     string            `json:"piece" doc:"Name of the piece"`
	Method    string            `json:"method" doc:"Name of the method on the plaits"`
	Hook      string            `json:"hook,omitempty" doc:"Name of the method on the base; left out where there is none"`

	Sections int     `json:"sections" doc:"Plaits that hang loose"`
	Hooked   int     `json:"hooked" doc:"Pieces hooked on a base"`
	Pieces   int     `json:"pieces" doc:"Pieces on the head"`
	Spares   int     `json:"spares"`
	Packs    int     `json:"packs" doc:"Packs to buy, wrapping hair among them"`
	Cost     int64   `json:"costMinor"`
	Minutes  float64 `json:"minutes" doc:"From the first comb to the last check, breaks in it"`
	Sittings int     `json:"sittings"`
	Longest  float64 `json:"longestMin" doc:"The longest sitting"`
	Hands    int     `json:"hands" doc:"Who works"`
	Weight   float64 `json:"weightG" doc:"All that hangs, dry"`
	Load     float64 `json:"load" doc:"What hangs at one of the heaviest spots, in shares of what is usual there"`
	Singles  float64 `json:"singles" doc:"Share of the spots that are plaits hanging loose"`
	Weeks    int     `json:"weeks" doc:"Weeks it is worn"`
	Off      float64 `json:"offMin" doc:"Minutes to take pieces off and to undo plaits and cornrows"`
	Lands    string  `json:"lands" doc:"The lowest body line half of the ends reach"`
	Full     float64 `json:"full" doc:"Pieces over one another where it is measured"`
	Bare     float64 `json:"bare" doc:"Share of the scalp that shows in spots that are noticed"`
	Shows    float64 `json:"showsMm" doc:"Cornrow that shows"`

	// thick stands for fullness until it is hung: the thickness of all pieces together, mm.
	thick float64
}

// Limit is something a plan breaks.
type Limit struct {
	Key string `json:"key"`
	// By is by how much, in the limit's own unit, and Says that in words.
	By   float64 `json:"by"`
	Says string  `json:"says"`

	// hard is true for one that never gives; share is by how much in shares of what there is.
	hard  bool
	share float64
}

// The limits. Those that may give are named for what of the wish gives.
const (
	cannot    = "cannot" // it cannot be laid on this head
	wrongForm = "form"
	tooHeavy  = "heavy"
	edges     = "edges"
	headMass  = "head"
	hurtMass  = "hurt"
	shortHair = "short-hair"
	hangsOut  = "hangs-out"
	badFit    = "fit"
	pull      = "pull"
	water     = "water"
	onSpot    = "spot"
	tooLong   = "too-long"

	byHours    = "hours"
	bySitting  = "sitting"
	bySittings = "sittings"
	byMoney    = "money"
	byStock    = "stock"
	byWeeks    = "weeks"
	byOff      = "off"
	byLength   = "length"
	byFullness = "fullness"
	byCover    = "cover"
)

// Candidate is a variant as a plan, with what it comes to and which limits of the wish it breaks.
type Candidate struct {
	Variant Variant
	Input   plan.Input
	Facts   Figures
	Limits  []Limit

	hung  bool
	order int // of its making, which decides between equals
}

// title says in a few words what a candidate is.
func (c *Candidate) title() string {
	text := c.Variant.Base.Name()
	if c.Facts.Sections > 0 {
		text += fmt.Sprintf(", sections of %s", invalid.Length(c.Variant.Size))
	}
	return text
}

// packPrice is what a pack of its piece costs, and at least something.
func (c *Candidate) packPrice() int64 {
	price := int64(1)
	for _, o := range c.Input.Pieces[0].Offers {
		price = max(price, o.Price/int64(max(1, o.Packs)))
	}
	return price
}

// broken tells whether a candidate breaks a limit that never gives.
func (c *Candidate) broken() bool {
	return slices.ContainsFunc(c.Limits, func(l Limit) bool { return l.hard })
}

// miss is how far a candidate is from the wish: a tenth for every limit, and the shares by which it breaks them.
func (c *Candidate) miss() (sum float64) {
	for _, l := range c.Limits {
		sum += 0.1 + l.share
	}
	return sum
}

func byMiss(a, b *Candidate) int {
	return cmp.Or(cmp.Compare(a.miss(), b.miss()), cmp.Compare(a.Facts.Minutes, b.Facts.Minutes), cmp.Compare(a.order, b.order))
}

// candidatePiece is a piece that could hang.
type candidatePiece struct {
	hair.Piece
	// lot is the hair in hand it is; nil for one that is bought.
	lot *wish.InHand
	// short is how far its ends stay above the line wished for, mm; negative where they come lower.
	short float64
	// trimmed is true where its ends are cut to that line.
	trimmed bool
}

// Caps of a search.
const (
	firstFront = 70 // plans kept after the coarse sizes
	mostHung   = 120
)

// search is one wish on its way to an answer.
type search struct {
	Begin
	wish wish.Wanted
	tell func(Progress)
	done Progress

	pieces []candidatePiece
	rated  []*Candidate
	// fitted are parts that were fitted to a number, by variant without its methods.
	fitted map[Variant]parting.Settings
	// out are the reasons for which kinds of plans were left out, each once.
	out []string
}

// possible are those that break no limit that never gives.
func (s *search) possible() []*Candidate {
	return slices.DeleteFunc(slices.Clone(s.rated), func(c *Candidate) bool { return c.broken() })
}

func (s *search) leave(format string, args ...any) {
	text := fmt.Sprintf(format, args...)
	if !slices.Contains(s.out, text) {
		s.out = append(s.out, text)
	}
}

// gentle tells whether a head bears less than others.
func gentle(in plan.Input) bool {
	return in.Child || in.Hair.Tender || in.Fragile() || in.Hair.Density < craft.ThinDensity
}
