package propose

import (
	"slices"

	"kladotex/core/craft"
	"kladotex/core/fall"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/plan"
	"kladotex/core/wish"
)

// methods are those that hang a form of piece on a plait, in the order of the catalogue.
func (s *search) methods(form hair.Form) (out []method.ID) {
	for _, m := range method.Catalogue {
		if m.Suits(form) && m.On(method.OnPlait) && !slices.Contains(neverFirst, m.ID) {
			out = append(out, m.ID)
		}
	}
	return out
}

// neverFirst are methods for a few places or for more pieces than one, not for a whole head.
var neverFirst = []method.ID{method.Stack, method.FedIn, method.CornrowHitch}

// coarseSizes are the sizes a search begins with; thin hair may take larger ones.
var coarseSizes = []float64{0.5 * inch, 0.75 * inch, inch, 1.25 * inch, 1.5 * inch}

const (
	thinSize = 2 * inch
	// fineStep is how far round a good size is looked.
	fineStep = inch / 8
)

// foundation is a base that is tried, and whether somebody has to cornrow for it. Few individuals are seen one by
// one: above a size they would not cover what lies beside them.
type foundation struct {
	structure parting.Structure
	cornrows  bool
	most      float64
}

// bases are those that are tried, in this order. A front design is a wish of its own.
var bases = []foundation{
	{parting.AllIndividuals, false, thinSize}, {parting.EarToEar, true, 1.25 * inch}, {parting.Perimeter, true, 1.25 * inch}, {parting.Horseshoe, true, 0.75 * inch},
	{parting.PartLine, true, 0.75 * inch}, {parting.Linked, false, thinSize}, {parting.NetCap, false, 1.25 * inch},
}

// aparts are how far apart pieces hang on a base, in shares of the usual: as usual, airy, and close.
var aparts = []float64{1, 1.3, 0.8}

// tries are the bases that the wish leaves.
func (s *search) tries() (out []foundation) {
	for _, b := range bases {
		switch {
		case s.wish.Base != "" && s.wish.Base != b.structure:
		case b.cornrows && s.wish.Cornrow == wish.No:
			s.leave("Nobody there cornrows: bases of cornrows are left out.")
		default:
			out = append(out, b)
		}
	}
	return out
}

// variants are all ways to do the head that the wish leaves, at these sizes.
func (s *search) variants(sizes []float64) (out []Variant) {
	if s.Head.Hair.Density < craft.ThinDensity {
		sizes = append(slices.Clone(sizes), thinSize)
	}
	patterns := []parting.Pattern{parting.Brick}
	switch s.wish.Finish {
	case wish.Neat:
		patterns = []parting.Pattern{parting.Brick, parting.Grid}
	case wish.Grown:
		patterns = []parting.Pattern{parting.FreeHand}
	}
	for _, base := range s.tries() {
		for _, pattern := range patterns {
			for _, size := range sizes {
				for k, p := range s.pieces {
					// One that is asked about is worked out.
					if len(sizes) > 1 && (size > base.most || size > s.carries(p)) {
						continue
					}
					v := Variant{Base: base.structure, Pattern: pattern, Size: size, Piece: k}
					if p.lot != nil {
						v.Count = max(1, p.lot.Count-keptBack)
					}
					out = append(out, s.of(v, p.Form)...)
				}
			}
		}
	}
	return out
}

// keptBack is how many pieces in hand stay spare.
const keptBack = 2

// carries is the largest section a piece is hung on, mm. Thin hair takes larger ones, which carry as much.
func (s *search) carries(p candidatePiece) float64 {
	if s.Head.Hair.Density < craft.ThinDensity {
		return thinSize
	}
	return craft.PieceCovers * p.Thickness
}

// of are the methods and distances with which a variant can be done.
func (s *search) of(v Variant, form hair.Form) (out []Variant) {
	hooks := []method.ID{method.CornrowHitch}
	airs := aparts
	if v.Base == parting.AllIndividuals {
		airs = aparts[:1]
	}
	if v.Count > 0 { // the number says how far apart
		airs = airs[:1]
	}
	for _, id := range s.methods(form) {
		v.Method = id
		for _, lighter := range s.lighter(id, form) {
			v.Lighter = lighter
			for _, v.Hook = range hooks {
				for _, v.Apart = range airs {
					out = append(out, v)
				}
			}
		}
	}
	return out
}

// lighter are the methods that could stand at hairline and part in place of one: the same, and, on a head that
// bears less, those that draw less.
func (s *search) lighter(id method.ID, form hair.Form) []method.ID {
	out := []method.ID{""}
	if !gentle(s.Head) {
		return out
	}
	for _, light := range []method.ID{method.SplitRoot, method.HiddenKnot} {
		if m, _ := method.Lookup(light); light != id && m.Suits(form) {
			out = append(out, light)
		}
	}
	return out
}

// The keys of a proposed plan.
const (
	pieceKey = "p1"
	mainKey  = "w1"
	hookKey  = "hook"
	lightKey = "light"
)

// input is the plan of a variant with a piece.
func (s *search) input(v Variant, p candidatePiece) plan.Input {
	in := s.Head
	piece := p.Piece
	piece.Key = pieceKey
	in.Pieces, in.Fill, in.Accents, in.Trim, in.Redo = []hair.Piece{piece}, plan.Fill{Piece: pieceKey}, nil, nil, nil
	in.Ways = []plan.Way{plan.NewWay(mainKey, v.Method), plan.NewWay(hookKey, v.Hook)}
	in.Uses = []plan.Use{
		{Where: plan.Where{Kind: plan.Everywhere}, Piece: pieceKey, Way: mainKey, Count: 1},
		{Where: plan.Where{Kind: plan.OnBase}, Way: hookKey, Count: 1},
	}
	if v.Apart != 0 && v.Apart != 1 {
		in.Uses[1].Apart = v.Apart
	}
	if v.Lighter != "" {
		in.Ways = append(in.Ways, plan.NewWay(lightKey, v.Lighter))
		for _, where := range []plan.WhereKind{plan.AtHairline, plan.AlongPart} {
			in.Uses = append(in.Uses, plan.Use{Where: plan.Where{Kind: where}, Way: lightKey})
		}
	}
	in.Parting = in.Parting.On(v.Base)
	// What was settled for other sizes or another base does not bind; spots left out do.
	in.Parting.Edits, in.Parting.Grounds, in.Parting.Base.Hooks, in.Parting.Base.Spacing = []parting.Edit{}, nil, 0, 0
	for _, wish := range []*parting.Wish{&in.Parting.Front, &in.Parting.Back} {
		*wish = parting.Wish{Pattern: v.Pattern, Size: parting.Size{Width: v.Size, Height: v.Size}, Ramp: 1, Along: 1}
	}
	if v.Base == parting.NetCap && s.wish.Cornrow == wish.No {
		in.Parting.Base.Under = parting.OverPlaits
	}
	if in.Hair.Edges == hair.BareEdges && in.Parting.Edges == 0 {
		in.Parting.Edges = craft.EdgeStrip
	}
	if gentle(in) {
		in.Plaits.Tension = plait.Slack
	}
	if p.trimmed {
		in.Trim = &plan.Trim{Shape: fall.Blunt, Line: s.wish.To}
	}
	if p.lot != nil {
		in.Spares.Percent, in.Spares.Least = 0, keptBack
	}
	in.Wishes = s.methodWishes()
	s.day(&in)
	return in
}

// methodWishes is the wish as far as it decides between methods.
func (s *search) methodWishes() *method.Wishes {
	w := s.Head.Wish()
	w.Updo = s.wish.Style == fall.Tied || s.wish.Style == fall.HalfUp
	w.Water, w.Reuse, w.Quick = s.wish.Water, s.wish.Reuse, s.wish.Off > 0
	w.NoCornrows = s.wish.Cornrow == wish.No
	return &w
}

// day says who works and how long they sit.
func (s *search) day(in *plan.Input) {
	day := in.Dated()
	if s.wish.Helper && len(in.Hands()) < 2 {
		if len(day.Hands) == 0 {
			first := plan.Someone
			first.Name = "First"
			day.Hands = []plan.Hand{first}
		}
		day.Hands = append(slices.Clone(day.Hands), plan.Hand{Key: "helper", Name: "Helper", Hand: pace.Used, Does: plan.PlaitsFirst})
	}
	if s.wish.Sitting > 0 {
		sits := in.Sittings()
		sits.Longest = s.wish.Sitting
		day.Sittings = &sits
	}
	in.Day = &day
}

// around are the variants an eighth of an inch either way of some candidates.
func (s *search) around(of []*Candidate) (out []Variant) {
	seen := map[Variant]bool{}
	for _, c := range s.rated {
		seen[c.Variant] = true
	}
	for _, c := range of {
		for _, by := range []float64{-fineStep, fineStep} {
			v := c.Variant
			v.Size += by
			if v.Size >= coarseSizes[0]-1e-6 && v.Size <= min(mostSize(v.Base), s.carries(s.pieces[v.Piece]))+1e-6 && !seen[v] {
				seen[v] = true
				out = append(out, v)
			}
		}
	}
	return out
}

// mostSize is up to what size of section a base is tried, mm.
func mostSize(base parting.Structure) float64 {
	i := slices.IndexFunc(bases, func(b foundation) bool { return b.structure == base })
	return bases[i].most
}
