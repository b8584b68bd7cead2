// Package method is the catalogue of attachment methods: what each needs, how a plait is
// hidden by it, how long that takes, its steps in order, and what speaks against it
// somewhere. Lengths are mm, times minutes.
//
// A method is one entry of the catalogue, in the file of its family, with its own
// parameters, work, steps and judgement. Nothing else in the program knows one method
// from another.
package method

import (
	"maps"
	"math"
	"slices"
	"strings"

	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/method/moves"
	"kladotex/core/plait"
)

// Family is a way of hiding the plait.
type Family string

// The families.
const (
	Loop  Family = "loop" // hitched by its loop, the plait woven inside
	Wrap  Family = "wrap" // the plait covered with wound hair
	Twist Family = "twist"
	Hook  Family = "hook"  // hooked where there is no plait to hide
	Braid Family = "braid" // braided by hand from the root, without a plait below
)

// Families are all of them.
var Families = []Family{Loop, Wrap, Twist, Hook, Braid}

// ID names a method of the catalogue.
type ID string

// The methods.
const (
	HitchAndWeave  ID = "L1"
	HitchAndZigzag ID = "L2"
	HiddenKnot     ID = "L3"
	SplitRoot      ID = "L4"
	CornrowHitch   ID = "L5"
	Stack          ID = "L6"
	SharedLoop     ID = "W1"
	CollarAndWrap  ID = "W2"
	OpenCoil       ID = "W3"
	Banded         ID = "W4"
	BuiltOnHead    ID = "W5"
	AnchorTwist    ID = "T1"
	FoldAndTwist   ID = "T2"
	TwineAndLock   ID = "T3"
	OwnStrand      ID = "B1"
	WrappedThird   ID = "B2"
	FedIn          ID = "B3"
)

// Ground is what a piece hangs on.
type Ground string

// The grounds.
const (
	OnPlait   Ground = "plait"  // a plait hanging loose
	OnCornrow Ground = "tracks" // a plait worked flat
	OnNet     Ground = "net"    // a net over cornrows
	OnLink    Ground = "linked" // a plait laid into the next one
	OnLaid    Ground = "laid"   // a plait that is laid back once its piece hangs
	OnEnd     Ground = "end"    // the end of a cornrow with hair fed in, which goes on as a braid
)

// Grounds are all of them.
var Grounds = []Ground{OnPlait, OnCornrow, OnNet, OnLink, OnLaid, OnEnd}

// Base is what is made of own hair before a piece goes on.
type Base string

// The bases.
const (
	Plaited  Base = "plait"  // the plait as the plan prepares it
	Anchored Base = "anchor" // a few turns, the rest twisted in two: the twist is undone or twined
	Loose    Base = "loose"  // nothing: own hair is worked in as it is
)

// Parameter is a number that may be set of a method.
type Parameter struct {
	Key   string  `json:"key"`
	Name  string  `json:"name"`
	Unit  Unit    `json:"unit" enum:"length,mm,count"`
	Least float64 `json:"least"`
	Most  float64 `json:"most"`
	Usual float64 `json:"usual"`
	Help  string  `json:"help"`
	// Of is the cover it goes with, an option of the choice "cover"; empty for any.
	Of string `json:"of,omitempty" doc:"Option of the choice cover it goes with; left out for any"`
}

// Unit says how a parameter is read.
type Unit string

// The units.
const (
	Length Unit = "length" // mm, shown in the reader's own unit
	Fine   Unit = "mm"     // mm, shown as such
	Count  Unit = "count"  // a whole number
)

// Choice is one of a few ways in which a method is done.
type Choice struct {
	Key   string `json:"key"`
	Name  string `json:"name"`
	Usual string `json:"usual" doc:"Key of the option that holds where none is chosen"`
	// Child is the same on a child's head; empty for no other.
	Child   string   `json:"child,omitempty" doc:"Key of the option that holds on a child's head where none is chosen; left out for the usual one"`
	Options []Option `json:"options"`
	// Of is the cover it goes with, an option of the choice "cover"; empty for any.
	Of string `json:"of,omitempty" doc:"Option of the choice cover it goes with; left out for any"`
}

// Option is one way of a choice, with when it is the right one.
type Option struct {
	Key  string `json:"key"`
	Name string `json:"name"`
	Help string `json:"help"`
}

// Method is an entry of the catalogue. Its judgements are common practice, no source.
type Method struct {
	ID      ID          `json:"id"`
	Name    string      `json:"name"`
	Family  Family      `json:"family"`
	Takes   []hair.Form `json:"takes" doc:"Forms of piece it works with"`
	Grounds []Ground    `json:"grounds" doc:"What it can hang a piece on"`
	Summary string      `json:"summary"`
	HidesBy string      `json:"hidesBy"`
	Root    string      `json:"root" doc:"How the root looks and feels"`
	Wash    string      `json:"wash"`
	Mistake string      `json:"mistake" doc:"What usually goes wrong"`
	Mend    string      `json:"mend" doc:"How it is fixed"`
	Wrong   moves.ID    `json:"wrong" doc:"The drawing of that mistake"`
	// Base is what must be made of own hair first.
	Base Base `json:"base" enum:"plait,anchor,loose"`
	// LeastHair is the shortest own hair that holds, mm.
	LeastHair float64 `json:"leastHairMm"`
	// WearWeeks are the usual least and most weeks of wear.
	WearWeeks  [2]int      `json:"wearWeeks"`
	Parameters []Parameter `json:"parameters"`
	Choices    []Choice    `json:"choices"`
	// AsOne is true where all pieces of a place are strands of one, taken up together.
	AsOne bool `json:"asOne" doc:"True where all pieces at a spot are strands of one, taken up together"`
	// Wraps is true when it takes wrapping hair, WrapsAs the cover under which one that else takes
	// none does; empty for no such cover.
	Wraps   bool   `json:"wraps"`
	WrapsAs string `json:"wrapsAs,omitempty" doc:"Option of the choice cover under which it takes wrapping hair; left out for none"`

	work  func(Job) Work
	steps func(Range) []Step
	judge func(Method, Job) []advice.Finding
	// pieces is how many go on one place; nil for one.
	pieces func(Settings) int
	// takeDown are the moves in which it comes off, and cuts tells whether the piece is cut.
	takeDown func(Range) []Step
	cuts     bool
	traits   Traits
	// unplaited tells by its choices whether the section is left without a plait; nil for never.
	unplaited func(Chosen) bool
	// reach is the longest plait it hides, mm; nil for one as long as the piece.
	reach func(Job) float64
}

// Catalogue is all methods, in the order they are offered.
var Catalogue = func() []Method {
	all := slices.Concat(loops, wraps, twists, hooks, braids)
	for i := range all { // lists, in JSON too, where an entry has none
		if all[i].Parameters == nil {
			all[i].Parameters = []Parameter{}
		}
		if all[i].Choices == nil {
			all[i].Choices = []Choice{}
		}
		all[i].WrapsAs = all[i].wrapCover()
	}
	return all
}()

// IDs are the methods' ids in the order of the catalogue.
func IDs() []ID {
	ids := make([]ID, len(Catalogue))
	for i, m := range Catalogue {
		ids[i] = m.ID
	}
	return ids
}

// Lookup finds a method.
func Lookup(id ID) (Method, bool) {
	i := slices.IndexFunc(Catalogue, func(m Method) bool { return m.ID == id })
	if i < 0 {
		return Method{}, false
	}
	return Catalogue[i], true
}

// On tells whether the method hangs a piece on a ground.
func (m Method) On(g Ground) bool { return slices.Contains(m.Grounds, g) }

// Unplaited tells whether own hair is worked in without a plait, or plaited by the method itself.
func (m Method) Unplaited(chosen Chosen) bool {
	return m.unplaited != nil && m.unplaited(m.Decided(chosen))
}

// Suits tells whether the method works with a form of piece.
func (m Method) Suits(form hair.Form) bool { return slices.Contains(m.Takes, form) }

// Settings are the values of a method's parameters, by key.
type Settings map[string]float64

// Usual are the settings a method starts from, those of its usual cover.
func (m Method) Usual() Settings {
	s, decided := Settings{}, m.Decided(nil)
	for _, p := range m.Parameters {
		if decided.Cover(p.Of) {
			s[p.Key] = p.Usual
		}
	}
	return s
}

// Set are the settings as they hold: those given, the others as usual.
func (m Method) Set(given Settings) Settings {
	if !slices.ContainsFunc(m.Parameters, func(p Parameter) bool { _, set := given[p.Key]; return !set }) {
		return given
	}
	s := Settings{}
	for _, p := range m.Parameters {
		s[p.Key] = p.Usual
	}
	maps.Copy(s, given)
	return s
}

// Check refuses settings that are unknown or out of range; the paths of bad are put under
// path. Settings left out are as usual.
func (m Method) Check(bad *invalid.Errors, path string, s Settings) {
	for _, p := range m.Parameters {
		v, set := s[p.Key]
		switch {
		case !set:
		case p.Unit == Length:
			bad.Length(path+p.Key, p.Name, v, p.Least, p.Most)
		case p.Unit == Count:
			if bad.Number(path+p.Key, p.Name, v, p.Least, p.Most, ""); v != math.Trunc(v) {
				bad.Add(path+p.Key, "%s must be a whole number.", p.Name)
			}
		default:
			bad.Number(path+p.Key, p.Name, v, p.Least, p.Most, " mm")
		}
	}
	for key := range s {
		if !slices.ContainsFunc(m.Parameters, func(p Parameter) bool { return p.Key == key }) {
			bad.Add(path+key, "%s has no setting named %q.", m.Name, key)
		}
	}
}

// Chosen are the options of a method's choices, by key.
type Chosen map[string]string

// CheckChoices refuses choices and options that the method has not; the paths of bad are put
// under path. Choices left out are as usual.
func (m Method) CheckChoices(bad *invalid.Errors, path string, chosen Chosen) {
	asked := make([]invalid.Question, len(m.Choices))
	for i, c := range m.Choices {
		asked[i] = invalid.Question{Key: c.Key, Label: c.Name}
		for _, o := range c.Options {
			asked[i].Options = append(asked[i].Options, o.Key)
		}
	}
	invalid.Answers(bad, path, m.Name+" has no choice named %q.", chosen, asked)
}

// Decided are a method's choices as they hold: those of chosen, the others as usual.
func (m Method) Decided(chosen Chosen) Chosen { return m.DecidedOn(false, chosen) }

// DecidedOn are the same on a head that may be a child's.
func (m Method) DecidedOn(child bool, chosen Chosen) Chosen {
	if len(m.Choices) == 0 {
		return nil
	}
	out := make(Chosen, len(m.Choices))
	for _, c := range m.Choices {
		out[c.Key] = c.Usual
		if child && c.Child != "" {
			out[c.Key] = c.Child
		}
		if chosen[c.Key] != "" {
			out[c.Key] = chosen[c.Key]
		}
	}
	return out
}

// Bears is the water that what hangs by the method bears while it is worn.
func (m Method) Bears() Water { return m.traits.Wet }

// Pulls is how much it draws at the scalp.
func (m Method) Pulls() Pull { return m.traits.Pull }

// Off is what practised hands take to take one place down, minutes.
func (m Method) Off() float64 { return m.traits.Off }

// Whole tells whether its pieces come off whole, to be used again.
func (m Method) Whole() bool { return m.traits.Whole }

// Pieces is how many pieces go on one place, for each that is asked for there.
func (m Method) Pieces(s Settings) int {
	if m.pieces == nil {
		return 1
	}
	return m.pieces(m.Set(s))
}

// Depth is how far down a plait piece k of n there is hooked, mm: those of a stack along it, the last at its
// root, all others at the root.
func (m Method) Depth(k, n int, p plait.Plait) float64 {
	if m.ID != Stack || n < 2 {
		return 0
	}
	return p.Length() * float64(n-1-k) / float64(n-1)
}

// Job is what a method is asked to do at one place.
type Job struct {
	Ground   Ground
	Plait    plait.Plait
	Hair     float64 // length of own hair there, mm
	Piece    hair.Piece
	Settings Settings
	Chosen   Chosen // every choice of the method
	// Wrapping is nil unless the method wraps.
	Wrapping    *hair.Wrapping
	TenderScalp bool
	// Slips is true where plaits of the hair let go by themselves and nothing holds them: no band, no
	// hair fed into their ends.
	Slips bool
	// Snug is true where the plait sits tight at the scalp.
	Snug bool
	// Round is how thick the plait is that a hook goes round, mm; 0 where that does not matter.
	Round float64
	// Along is the length of the cornrow it goes on from, mm; 0 for what hangs elsewhere.
	Along float64
	// Spacing is the distance between pieces on cornrows and on a net, mm.
	Spacing float64
	// Tails is what is done with the loose tails of the base before anything hangs on it,
	// in words; empty where there are none.
	Tails string
	// Dry is true where own hair and pieces stay dry while they are hooked, FrontFirst where
	// the first piece goes in front.
	Dry, FrontFirst bool
	// Merges is true where thin cornrows run together into fewer.
	Merges bool
}

// Work is what one place costs.
type Work struct {
	// Passes are draws through the piece; 0 unless the method weaves.
	Passes int
	// Ribbon is the wrapping hair for one place, mm, and Turns what it makes round the
	// base; 0 unless the method wraps.
	Ribbon, Turns float64
	// Strands of wrapping hair that takes.
	Strands int
	// Attach is minutes to fix one piece, Conceal to hide the plait, for a practised
	// stylist.
	Attach, Conceal float64
	// together is true where Attach is what all pieces of a place take.
	together bool
	// Unplaited is true where own hair is worked in without a plait.
	Unplaited bool
	// Bands are the small bands that one piece takes.
	Bands int
}

// Minutes is how long a practised stylist takes for a place with that number of pieces.
func (w Work) Minutes(pieces int) float64 { return w.Fixing(pieces) + w.Conceal }

// Fixing are the minutes of it that go into fixing the pieces.
func (w Work) Fixing(pieces int) float64 {
	if w.together {
		return w.Attach
	}
	return float64(pieces) * w.Attach
}

// For works the method out for a job.
func (m Method) For(j Job) Work {
	w := m.work(j)
	w.together = m.AsOne
	if j.Dry {
		w.Attach *= craft.DrySlower
	}
	return w
}

// Range is a job at the places it is done, those with the shortest and the longest
// plait standing for all.
type Range struct {
	Short, Long         Job
	ShortWork, LongWork Work
}

// Step is one move of a method. Braces in Text name a length to be put in, in the unit
// the reader prefers.
type Step struct {
	Text    string             `json:"text"`
	Lengths map[string]float64 `json:"lengthsMm,omitempty"`
	// Shows is how it is drawn; nil for what needs no picture.
	Shows *moves.Clip `json:"shows,omitempty"`
}

// drawn is the step with its drawing.
func (s Step) drawn(id moves.ID, first, last int) Step {
	s.Shows = &moves.Clip{Figure: id, First: first, Last: last}
	return s
}

// Steps are the moves in order, for places from the shortest plait to the longest.
func (m Method) Steps(r Range) []Step { return m.steps(r) }

// TakeDown are the moves in which the pieces come off again, and cutBelow the distance from
// the root, mm, above which no piece is cut through: 0 where none is. A move
// that cuts a loop, a band or a wind above it says how own hair is known to be away.
func (m Method) TakeDown(r Range) (steps []Step, cutBelow float64) {
	steps = m.takeDown(r)
	if !m.cuts {
		return steps, 0
	}
	cutBelow = r.Long.Plait.Length() + craft.SpareBelow
	return append([]Step{
		with("Feel for the end of own hair and mark the piece {length} from the root, an inch below it.", cutBelow),
		text("Below the mark cut freely. Above it only where a step says so, lifted clear on a comb's tail."),
	}, steps...), cutBelow
}

// Judge finds what speaks against the method for a job.
func (m Method) Judge(j Job) []advice.Finding { return m.judge(m, j) }

// Helpers of the catalogue.

func text(s string) Step { return Step{Text: s} }

// findMiddle is how a strand of bulk hair is taken up.
const findMiddle = "Take one strand of bulk hair and find its middle. That is where you hook it."

func with(s string, mm float64) Step { return Step{Text: s, Lengths: map[string]float64{"length": mm}} }

// fromTo writes a length that differs between places: {from} to {to}, or one length where
// they are the same to a few millimetres.
func fromTo(s string, from, to float64) Step {
	if to-from < 4 {
		return with(s, to)
	}
	return Step{Text: strings.ReplaceAll(s, "{length}", "{from} to {to}"), Lengths: map[string]float64{"from": from, "to": to}}
}
