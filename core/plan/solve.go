package plan

import (
	"context"
	"errors"
	"fmt"
	"math"
	"reflect"
	"slices"

	"kladotex/core/craft"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/scalp"
)

// Solved is a laid head with who gets what. It is read only: everything that follows from a
// plan is worked out from it by others.
type Solved struct {
	Input  Input
	Head   scalp.Head
	Layout parting.Layout
	// Resolution says what hangs at every place.
	Resolution
	// Methods and Chosen are those of the plan's ways, every choice decided.
	Methods []method.Method
	Chosen  []method.Chosen
	// Works is what the method of every place does there.
	Works []method.Work
	// Filled is how many pieces are filled in at places, by index.
	Filled map[int]int
	// Hung is the mass at every place, dry, g; Weight that of all that is hung, pieces filled in
	// anywhere among it.
	Hung   []float64
	Weight float64

	find  *finder
	tails string
}

// Solve lays the head of a plan and says who gets what. The error is an [invalid.Errors] that
// names every field that can be judged by itself, or the first contradiction between fields; or
// that of ctx when it ends first.
func Solve(ctx context.Context, in Input) (*Solved, error) { return solve(ctx, in, parting.Lay) }

// Attempt is [Solve] for a plan that nobody asked for as it is, such as one of many sizes: a head
// that cannot be laid is given up early, without a search for what would be right.
func Attempt(ctx context.Context, in Input) (*Solved, error) { return solve(ctx, in, parting.Attempt) }

func solve(ctx context.Context, in Input, lay layer) (*Solved, error) {
	laid, err := in.lay(ctx, lay)
	if err != nil {
		return nil, err
	}
	return laid.hang(in)
}

// layer draws the parts of a head.
type layer func(context.Context, scalp.Head, parting.Settings) (parting.Layout, error)

// Laid is the head of a plan with its parts drawn and its base laid, before anything hangs on it. Every plan
// that is parted alike hangs on it, which takes a fraction of the time. It is read only.
type Laid struct {
	head   scalp.Head
	layout parting.Layout
	from   parted
}

// parted is all of a plan that its layout follows from.
type parted struct {
	head     scalp.Tapes
	hairline scalp.Hairline
	settings parting.Settings
	apart    []Use
}

// parted is what the plan's layout follows from: its settings with the distances of what is hooked, and the
// uses that spread it.
func (in Input) parted() parted {
	laid := in.Parting
	laid.Base.Spacing, laid.Base.Shown, laid.Base.Netted = in.HookSpacing(), in.shownSpacing(), in.netSpacing()
	p := parted{head: in.Head, hairline: in.Hairline, settings: laid}
	for _, u := range in.Uses {
		if u.Apart > 0 {
			p.apart = append(p.apart, Use{Where: u.Where, Apart: u.Apart})
		}
	}
	return p
}

// LaidAs tells plans apart whose heads are laid out differently: two of the same hang on one [Laid].
func (in Input) LaidAs() string { return fmt.Sprintf("%+v", in.parted()) }

// Lay draws the parts of a plan. The error is that of [Attempt].
func Lay(ctx context.Context, in Input) (*Laid, error) { return in.lay(ctx, parting.Attempt) }

func (in Input) lay(ctx context.Context, lay layer) (*Laid, error) {
	head, err := in.fit()
	if err != nil {
		return nil, err
	}
	from := in.parted()
	layout, err := lay(ctx, head, from.settings)
	if err != nil {
		return nil, invalid.Under(err, "parting")
	}
	if apart := newFinder(head, &layout, nil).apart(in.Uses); apart != nil {
		layout = layout.Hooked(ctx, head, parting.Hooking{Count: in.Parting.Base.Hooks, Apart: apart})
	}
	return &Laid{head, layout, from}, nil
}

// Hang hangs a plan on the head as it is laid. The error is that of [Attempt]; a plan that is parted otherwise
// is refused.
func (l *Laid) Hang(in Input) (*Solved, error) {
	if !reflect.DeepEqual(in.parted(), l.from) {
		return nil, errOtherParts
	}
	if bad := in.check(); bad.Err() != nil {
		return nil, bad.Err()
	}
	return l.hang(in)
}

var errOtherParts = errors.New("this plan is parted otherwise than the head that is laid")

func (l *Laid) hang(in Input) (*Solved, error) {
	head, layout := l.head, l.layout
	if err := in.checkHooks(&layout); err != nil {
		return nil, err
	}
	s := &Solved{Input: in, Head: head, Layout: layout, tails: tailWords(in, &layout)}
	s.find = newFinder(head, &s.Layout, placesOf(in, head, &s.Layout))
	s.Resolution = in.resolve(s.find, &s.Layout)
	for _, way := range in.Ways {
		m, _ := method.Lookup(way.Method) // checked above
		chosen := m.DecidedOn(in.Child, way.Choices)
		s.Methods, s.Chosen = append(s.Methods, m.As(chosen)), append(s.Chosen, chosen)
	}
	if err := s.checkKept(); err != nil {
		return nil, err
	}
	s.Filled = make(map[int]int, len(in.Fill.At))
	for _, d := range in.Fill.At {
		if i := s.Nearest(d.On(head)); i >= 0 {
			s.Filled[i]++
		}
	}
	s.Works, s.Hung = make([]method.Work, len(s.Places)), make([]float64, len(s.Places))
	for i := range s.Places {
		p := &s.Places[i]
		s.Works[i] = s.Methods[p.Way].For(s.Job(p))
		s.Hung[i] = s.massAt(i)
		s.Weight += s.Hung[i]
	}
	s.Weight += float64(in.Fill.Count) * in.Piece(in.Fill.Piece).Mass
	return s, nil
}

// checkHooks refuses more pieces on a base than have room side by side.
func (in Input) checkHooks(l *parting.Layout) error {
	n, thick := l.Hooks(), in.hookedThickness()
	if in.Parting.Base.Hooks == 0 || n == 0 || l.Spacing >= thick {
		return nil
	}
	share := l.Spacing / thick
	if len(l.Cornrows) == 0 {
		share *= share
	}
	var bad invalid.Errors
	bad.Add("parting.base.hooks", "%d pieces would stand %s apart, closer than they are thick; up to %d have room on this base, or choose a thinner piece.",
		n, invalid.Length(l.Spacing), int(share*float64(n)))
	return bad
}

// checkKept refuses a plan of outer rows of a head that has none.
func (s *Solved) checkKept() error {
	if s.Input.Redo == nil || slices.ContainsFunc(s.Places, func(p Place) bool { return !p.Kept }) {
		return nil
	}
	var bad invalid.Errors
	bad.Add("redo.rows", "No plaits hang loose at this hairline: there is no outer row to do again.")
	return bad
}

// Wound is the mass of the wrapping hair at a place, dry, g.
func (s *Solved) Wound(i int) float64 {
	n := s.Works[i].Strands
	if n == 0 {
		return 0
	}
	return float64(n) * s.Input.Ways[s.Places[i].Way].Wrapping.StrandMass()
}

// massAt is the mass at a place, dry, g.
func (s *Solved) massAt(i int) float64 {
	p, in := &s.Places[i], &s.Input
	g := float64(p.Count) * in.Pieces[p.Piece].Mass
	g += s.Wound(i) + s.FedGrams(p)
	for _, a := range p.Accents {
		if k := in.AccentPiece(a); k >= 0 {
			g += in.Pieces[k].Mass
		} else {
			g += in.Accents[a].Thing.Mass
		}
	}
	return g + float64(s.Filled[i])*in.Piece(in.Fill.Piece).Mass
}

// FedGrams is the hair fed into the end of the plait of a place, g: none where no plait is made.
func (s *Solved) FedGrams(p *Place) float64 {
	if p.Section < 0 || s.Input.Plaits.Fed == 0 || p.Way >= 0 && p.Ground == method.OnPlait && s.Methods[p.Way].Unplaited(s.Chosen[p.Way]) {
		return 0
	}
	return craft.FedMass * p.Plait.Fed
}

// tails are what is done with the loose tails of cornrows, before pieces are hooked on.
var tails = map[parting.Tails]string{
	parting.Tucked:   "First tuck each loose tail under the cornrow beside it with the hook.",
	parting.Stitched: "First stitch the loose tails flat with thread, no knot against the scalp.",
	parting.Chained:  "Each tail is braided into the next cornrow: first tuck or stitch the one that is left.",
}

// tailWords are said of the tails of a layout; empty where there are none.
func tailWords(in Input, l *parting.Layout) string {
	if l.Tails() == 0 {
		return ""
	}
	if _, linked, _ := l.Plaits(); linked > 0 && l.HasNapeCornrow() {
		return "First braid the end of each chain into the cornrow at the nape, and tuck or stitch the tail of that."
	}
	if len(l.Cornrows) == 0 {
		return "First tuck or stitch the tail at the end of each chain."
	}
	return tails[in.Parting.TailsIn(l.Cornrows[0].Zone)]
}

// Job is what the method of a place is asked to do there.
func (s *Solved) Job(p *Place) method.Job { return s.JobBy(p, &s.Input.Ways[p.Way], s.Chosen[p.Way]) }

// JobBy is what a way would be asked to do at a place.
func (s *Solved) JobBy(p *Place, way *Way, chosen method.Chosen) method.Job {
	in := &s.Input
	m, _ := method.Lookup(way.Method)
	return method.Job{
		Ground: p.Ground, Plait: p.Plait, Hair: p.Hair, Along: p.Along, Round: p.Round, Piece: in.Pieces[p.Piece], Settings: m.Set(way.Settings), Chosen: chosen, Wrapping: way.Wrapping,
		Slips: in.Hair.Slips() && !in.Plaits.Band && in.Plaits.Fed == 0, TenderScalp: in.Hair.Tender, Snug: in.Plaits.Tension == plait.Snug, Spacing: s.Layout.Spacing, Tails: s.tails,
		Dry: in.Custom(Moisture) == "dry", FrontFirst: in.Custom(Start) == "front",
		Merges: in.Parting.Base.Kind == parting.Cornrows && (in.Parting.Base.MergeInto > 0 || in.Parting.Base.MergeSides),
	}
}

// Hangs is the length at which a piece comes to hang at a place, mm: its form springs up, and
// legs twisted together take up.
func (s *Solved) Hangs(p *Place, piece int) float64 {
	x := &s.Input.Pieces[piece]
	mm := x.Length * x.Form.Facts().Hangs
	if p.Piece == piece && s.Methods[p.Way].Family == method.Twist {
		mm *= craft.TwistTakeUp
	}
	return mm
}

// Match returns the indices of the places that are meant by w, in the order of the places.
func (s *Solved) Match(w Where) []int { return s.find.match(w) }

// AtHairline tells whether a place lies in the row along the hairline.
func (s *Solved) AtHairline(p *Place) bool { return s.find.atHairline(p) }

// AlongPart tells whether a place lies beside the part line.
func (s *Solved) AlongPart(p *Place) bool { return s.find.alongPart(p) }

// Line names the row of the section of a place, or the cornrow or net its hook is on.
func (s *Solved) Line(p *Place) string { return s.find.line(p) }

// Outer is, for every place, the outer row it belongs to: 1 at the hairline, 2 beside those, else
// 0.
func (s *Solved) Outer() []int { return outer(s.find, &s.Layout, s.Places) }

// HairAt is the length of own hair at a point of the scalp, mm.
func (s *Solved) HairAt(at scalp.Point) float64 {
	lengths := newLengths(s.Head, s.Input.Hair)
	return lengths.at(at)
}

// Nearest is the index of the place nearest to a point of the scalp; -1 where there is none.
func (s *Solved) Nearest(at scalp.Point) int {
	best, least := -1, math.Inf(1)
	for i := range s.Places {
		if d := scalp.Apart(at, s.Places[i].At); d < least {
			best, least = i, d
		}
	}
	return best
}

// HasBase tells whether anything hangs elsewhere than on a loose plait.
func (s *Solved) HasBase() bool {
	return slices.ContainsFunc(s.Places, func(p Place) bool { return p.Ground != method.OnPlait })
}

// bandHeight is the height of a band of hooks that are worked and cut alike where cornrows run from
// front to back, mm.
const bandHeight = 30.0

// Band is the band a hook lies in where cornrows run from front to back, counted from 1 at the nape.
func (s *Solved) Band(p *Place) int {
	lowest := s.Head.Point(s.Head.Landmark(scalp.NapeCentre))[2]
	return int(math.Floor((p.At[2]-lowest)/bandHeight)) + 1
}
