package judge

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/core/words"
)

// trouble is what a remedy is to put right: a finding of a zone at its worst place.
type trouble struct {
	*plan.Solved
	zone *zoneFound
	kind *foundKind
	have []Ready
	// place is the index of the place that speaks for the zone, p that place, piece what hangs there, job what
	// its method does there.
	place int
	p     *plan.Place
	piece hair.Piece
	job   method.Job
}

// remedyFor are the ways to put a finding right, in the order they are offered.
var remedyFor = map[advice.Code][]func(*trouble) []Remedy{
	advice.WrongForm: {otherPiece, otherMethod},
	advice.FatPlait:  {smallerSections, splitHere, otherPiece, wrapped, otherMethod},
	advice.ThinPlait: {largerSections, otherPiece},
	advice.TightLoop: {stretched, otherPiece, smallerSections, otherMethod},
	advice.OwnLoop:   {stretched, otherPiece},
	advice.SlackLoop: {fewerCornrows, otherPiece},
	advice.TightRoot: {slackPlaits, otherPiece},
	advice.LongPlait: {otherPiece, otherMethod},
	advice.ShortHair: {fedHair, otherMethod},
	advice.Slips:     {bandedRoots, fedHair},
	advice.WrongBase: {fewTurns, otherMethod},
	advice.TooHeavy:  {fewerPieces, otherPiece, cutShorter, largerSections, wider},
	advice.HeavyHere: {fewerPieces, otherPiece, cutShorter, largerSections, wider},
	advice.LongPiece: {otherPiece, cutShorter},
}

// mostRemedies is how many are offered for a finding.
const mostRemedies = 4

// remedies are the plans that put a finding right; a plan that is refused by itself is none.
func remedies(sol *plan.Solved, z *zoneFound, k *foundKind, have []Ready) []Remedy {
	_, target := k.typical()
	p := &sol.Places[target.place]
	t := &trouble{Solved: sol, zone: z, kind: k, have: have, place: target.place, p: p, piece: sol.Input.Pieces[p.Piece], job: sol.Job(p)}
	out := []Remedy{}
	for _, of := range remedyFor[k.worst.Code] {
		for _, r := range of(t) {
			if len(out) < mostRemedies && plan.Check(r.Input) == nil {
				out = append(out, r)
			}
		}
	}
	return out
}

// limit is the greatest load that nothing is said of at the worst place, mg a hair.
func (t *trouble) limit() float64 {
	_, share, _ := loadHere(t.Solved, t.place)
	return share * craft.HeavyLoad
}

// area is by how many times the area of the worst section must change; 1 where that does not
// help.
func (t *trouble) area() float64 {
	d, thick := t.p.Plait.Diameter, t.piece.Thickness
	switch t.kind.worst.Code {
	case advice.FatPlait:
		if most := t.fattest(); most > 0 {
			return (most / d) * (most / d)
		}
	case advice.ThinPlait:
		return math.Pow(craft.ThinShare*thick/d, 2)
	case advice.TightLoop:
		return math.Pow(max(0, t.piece.Loop-craft.Hook)/d, 2)
	case advice.TooHeavy, advice.HeavyHere:
		load, _, _ := loadHere(t.Solved, t.place)
		return load / t.limit()
	}
	return 1
}

// fattest is the thickest plait that the method says nothing about under the piece, mm; 0 where
// there is none.
func (t *trouble) fattest() float64 {
	m := t.Methods[t.p.Way]
	suits := func(d float64) bool {
		j := t.job
		j.Plait.Diameter = d
		return !slices.ContainsFunc(m.Judge(j), func(f advice.Finding) bool { return f.Code == advice.FatPlait })
	}
	low, high := 0.0, t.p.Plait.Diameter
	for range 24 {
		if mid := (low + high) / 2; suits(mid) {
			low = mid
		} else {
			high = mid
		}
	}
	return low
}

// bandedRoots is the plan with a small band round each root.
func bandedRoots(t *trouble) []Remedy {
	in := t.Input
	in.Plaits.Band = true
	return []Remedy{{"A small band round each root", in}}
}

// stretched is the plan with the loops of the piece stretched as far as they must open.
func stretched(t *trouble) []Remedy {
	need := max(craft.TightLoop*t.piece.Thickness, t.p.Plait.Diameter+craft.Hook, t.p.Round+craft.Hook)
	// What a loop gives is bounded by what it is made of.
	if need = math.Ceil(need + 0.5); need > craft.MostStretched*t.piece.Loop {
		return nil
	}
	in := t.Input
	in.Pieces = slices.Clone(in.Pieces)
	in.Pieces[t.p.Piece].Loop = need
	return []Remedy{{fmt.Sprintf("Loops of %s stretched to %.0f mm first", t.piece.Name, need), in}}
}

// fewerCornrows is the plan with a cornrow less, each thicker.
func fewerCornrows(t *trouble) []Remedy {
	in := t.Input
	if t.p.Section >= 0 || t.p.Ground != method.OnCornrow || in.Parting.Base.Cornrows < 4 || in.Parting.Base.MergeInto > 0 {
		return nil
	}
	in.Parting.Base.Cornrows -= 2
	return []Remedy{{fmt.Sprintf("%d cornrows behind, each wider", in.Parting.Base.Cornrows), in}}
}

func smallerSections(t *trouble) []Remedy {
	return t.resized(t.area(), func(mm float64) float64 { return math.Floor(mm/plan.SizeStep+1e-9) * plan.SizeStep })
}

func largerSections(t *trouble) []Remedy {
	return t.resized(t.area(), func(mm float64) float64 { return math.Ceil(mm/plan.SizeStep-1e-9) * plan.SizeStep })
}

// roomy is the margin given when sections are resized: the new ones are not all alike.
const roomy = 1.08

// resized is the plan with the sections of the zone's side area times as large.
func (t *trouble) resized(area float64, round func(float64) float64) []Remedy {
	if t.p.Section < 0 || area == 1 || area <= 0 || area > method.MostResized || area < 1/method.MostResized {
		return nil
	}
	if area > 1 {
		area *= roomy
	} else {
		area /= roomy
	}
	scale := math.Sqrt(area)
	in := t.Input
	in.Parting.Edits = parting.AtAnySize(in.Parting.Edits)
	wish, where := &in.Parting.Back, "behind"
	if t.p.Front {
		wish, where = &in.Parting.Front, "in front"
	}
	wish.Width, wish.Height = round(wish.Width*scale), round(wish.Height*scale)
	if wish.Width <= 0 || wish.Height <= 0 {
		return nil
	}
	says := fmt.Sprintf("Sections of %s × %s %s", invalid.Length(wish.Width), invalid.Length(wish.Height), where)
	if n := len(t.Input.Parting.Edits) - len(in.Parting.Edits); n > 0 {
		says += fmt.Sprintf("; %s by hand would not hold", words.Count(n, "change"))
	}
	return []Remedy{{says, in}}
}

// wider is the plan with the hooks of the base further apart.
func wider(t *trouble) []Remedy {
	if t.p.Section >= 0 {
		return nil
	}
	in := t.Input
	in.Parting.Base.Spacing = math.Ceil(in.HookSpacing()*t.area()/plan.SizeStep) * plan.SizeStep
	if in.Parting.Base.Spacing > parting.MaxSpacing {
		return nil
	}
	return []Remedy{{fmt.Sprintf("Pieces on the base %s apart", invalid.Length(in.Parting.Base.Spacing)), in}}
}

// mostSplit is the most sections that are split by hand: more ask for other sizes.
const mostSplit = 12

// splitHere splits the sections it is about in two.
func splitHere(t *trouble) []Remedy {
	if t.area() < 1.0/2/roomy { // half of it would still be too much
		return nil
	}
	in := t.Input
	in.Parting.Edits = slices.Clone(in.Parting.Edits)
	n := 0
	for _, found := range t.kind.places {
		s := t.Places[found.place].Section
		if s < 0 {
			return nil
		}
		at, with := halves(t.Solved, &t.Layout.Sections[s])
		in.Parting.Edits = append(in.Parting.Edits, parting.Edit{Kind: parting.Split, At: at, With: &with})
		n++
	}
	if n == 0 || n > mostSplit {
		return nil
	}
	return []Remedy{{fmt.Sprintf("Split %s here in two", words.Count(n, "section")), in}}
}

// halves are the middles of the two halves of a section along its row.
func halves(sol *plan.Solved, s *parting.Section) (a, b parting.Direction) {
	along := r3.Cross(r3.Vec{Z: 1}, r3.Vec{X: s.Normal[0], Y: s.Normal[1], Z: s.Normal[2]})
	for i := range sol.Layout.Sections {
		if n := &sol.Layout.Sections[i]; n.Zone == s.Zone && n.Row == s.Row && (n.Index == s.Index+1 || n.Index == s.Index-1) {
			along = r3.Vec{X: n.Centroid[0] - s.Centroid[0], Y: n.Centroid[1] - s.Centroid[1], Z: n.Centroid[2] - s.Centroid[2]}
		}
	}
	along = r3.Scale(s.Width.Mean/4, scalp.Unit(along))
	at := func(by float64) parting.Direction {
		return parting.Toward(sol.Head, scalp.Point{s.Centroid[0] + by*along.X, s.Centroid[1] + by*along.Y, s.Centroid[2] + by*along.Z})
	}
	return at(-1), at(1)
}

// otherPiece offers pieces at hand that put the finding right and bring no other.
func otherPiece(t *trouble) []Remedy {
	m := t.Methods[t.p.Way]
	found := func(j method.Job) (codes []advice.Code) {
		for _, f := range m.Judge(j) {
			if slices.Contains(fits, f.Code) {
				codes = append(codes, f.Code)
			}
		}
		return codes
	}
	now := found(t.job)
	load, _, _ := loadHere(t.Solved, t.place)
	most := t.limit()
	if about(t.kind.worst.Code) != advice.HeavyHere {
		most = max(most, load) // no heavier than it is
	}
	suits := func(p hair.Piece) bool {
		if p.Key == t.piece.Key || !m.Suits(p.Form) {
			return false
		}
		j := t.job
		j.Piece = p
		for _, c := range found(j) {
			if c == t.kind.worst.Code || !slices.Contains(now, c) {
				return false
			}
		}
		others := t.Hung[t.place] - float64(t.p.Count)*t.piece.Mass
		if t.p.Plait.Load(others+float64(t.p.Count)*p.Mass) > most {
			return false
		}
		return t.kind.worst.Code != advice.LongPiece || p.Length <= t.longest()
	}
	candidates := slices.Clone(t.have)
	for _, p := range t.Input.Pieces {
		candidates = append(candidates, Ready{Piece: p})
	}
	candidates = slices.DeleteFunc(candidates, func(p Ready) bool { return !suits(p.Piece) })
	far := func(p Ready) float64 {
		d := math.Abs(p.Length-t.piece.Length) + 20*math.Abs(p.Thickness-t.piece.Thickness)
		if p.Colour != t.piece.Colour {
			d += 30
		}
		if p.Form != t.piece.Form {
			d += 200
		}
		if p.Stash > 0 { // what is there already is taken first
			d -= 60
		}
		return d
	}
	slices.SortStableFunc(candidates, func(a, b Ready) int { return cmp.Compare(far(a), far(b)) })
	var out []Remedy
	for _, p := range candidates[:min(2, len(candidates))] {
		says := fmt.Sprintf("%s: %s, %.0f mm thick, %s", p.Name, invalid.Length(p.Length), p.Thickness, words.Grams(p.Mass))
		if p.Stash > 0 {
			says += fmt.Sprintf("; %d in the stash", p.Stash)
		}
		out = append(out, Remedy{says, t.withPiece(p.Piece)})
	}
	return out
}

// withPiece is the plan with a piece in the zone.
func (t *trouble) withPiece(p hair.Piece) plan.Input {
	in := t.Input
	if !slices.ContainsFunc(in.Pieces, func(own hair.Piece) bool { return own.Key == p.Key }) {
		in.Pieces = append(slices.Clone(in.Pieces), p)
	}
	return in.WithUse(plan.Use{Where: t.zone.where(), Piece: p.Key})
}

// longest is the longest piece, as sold, that nobody minds at the worst place, mm.
func (t *trouble) longest() float64 {
	stature, _ := t.Input.Wearing()
	return craft.LongShare * stature / t.piece.Form.Facts().Hangs
}

// cutStep is to what lengths that pieces are cut to are rounded, mm: half an inch.
const cutStep = 12.7

// cutShorter cuts the pieces, which are lighter in proportion; they still hide the plait.
func cutShorter(t *trouble) []Remedy {
	share := t.longest() / t.piece.Length
	if t.kind.worst.Code != advice.LongPiece {
		others := t.Hung[t.place] - float64(t.p.Count)*t.piece.Mass
		share = (t.p.Plait.Bears(t.limit()) - others) / (float64(t.p.Count) * t.piece.Mass)
	}
	mm := math.Floor(t.piece.Length*share/cutStep) * cutStep
	if mm < t.p.Plait.Length()+25 || mm >= t.piece.Length {
		return nil
	}
	p := t.piece
	p.Key = t.Input.FreshKey(p.Key)
	p.Name, _, _ = strings.Cut(p.Name, ", cut to ")
	p.Name += ", cut to " + invalid.Length(mm)
	p.Mass *= mm / p.Length
	p.Length = mm
	return []Remedy{{fmt.Sprintf("The same cut to %s: %s a piece", invalid.Length(mm), words.Grams(p.Mass)), t.withPiece(p)}}
}

// fewerPieces hangs as many pieces at each place of the zone as its hair bears.
func fewerPieces(t *trouble) []Remedy {
	per := t.Methods[t.p.Way].Pieces(t.Input.Ways[t.p.Way].Settings)
	n := t.p.Count / per
	if per > 1 || n < 2 {
		return nil
	}
	others := t.Hung[t.place] - float64(n)*t.piece.Mass
	borne := int((t.p.Plait.Bears(t.limit()) - others) / t.piece.Mass)
	if borne < 1 || borne >= n {
		return nil
	}
	says := fmt.Sprintf("%s fewer: %d at each spot", words.Count(n-borne, "piece"), borne)
	return []Remedy{{says, t.Input.WithUse(plan.Use{Where: t.zone.where(), Count: borne})}}
}

// suits tells whether nothing is found against the piece of the worst place in another way.
func (t *trouble) suits(way *plan.Way) bool {
	m, _ := method.Lookup(way.Method)
	found := m.Judge(t.JobBy(t.p, way, m.DecidedOn(t.Input.Child, way.Choices)))
	return !slices.ContainsFunc(found, func(f advice.Finding) bool { return slices.Contains(fits, f.Code) })
}

// otherMethod offers methods that find nothing against the same piece at the worst place.
func otherMethod(t *trouble) []Remedy {
	var out []Remedy
	for _, m := range method.Catalogue {
		if m.ID == t.Methods[t.p.Way].ID || !m.On(t.p.Ground) || len(out) == 2 {
			continue
		}
		way := t.Input.WayOf(m)
		if !t.suits(&way) {
			continue
		}
		in := t.Input
		if !slices.ContainsFunc(in.Ways, func(w plan.Way) bool { return w.Key == way.Key }) {
			in.Ways = append(slices.Clone(in.Ways), way)
		}
		out = append(out, Remedy{m.Name + " instead", in.WithUse(plan.Use{Where: t.zone.where(), Way: way.Key})})
	}
	return out
}

// wrapped hides the plaits of a way under wrapping hair, where its method leaves that open.
func wrapped(t *trouble) []Remedy {
	m := t.Methods[t.p.Way]
	if m.WrapsAs == "" || m.Wraps {
		return nil
	}
	in := t.Input
	way := in.Ways[t.p.Way].With(method.CoverKey, m.WrapsAs)
	if !t.suits(&way) {
		return nil
	}
	in.Ways = slices.Clone(in.Ways)
	in.Ways[t.p.Way] = way
	return []Remedy{{"The plaits wrapped over instead", in}}
}

// slackPlaits makes all plaits a little slack.
func slackPlaits(t *trouble) []Remedy {
	in := t.Input
	in.Plaits.Tension = plait.Slack
	return []Remedy{{"Plaits a little slack at the scalp", in}}
}

// fewTurns plaits a few turns and twists the rest.
func fewTurns(t *trouble) []Remedy {
	in := t.Input
	in.Plaits.Far = plait.Anchor
	return []Remedy{{"A few turns, the rest twisted", in}}
}

// fedHair feeds hair into the ends, so that the plait is long enough for the method.
func fedHair(t *trouble) []Remedy {
	in := t.Input
	lacks := 25.4 * math.Ceil((t.Methods[t.p.Way].LeastHair-t.p.Hair)/25.4)
	in.Plaits.Fed = max(in.Plaits.Fed, craft.FedUsual, lacks)
	return []Remedy{{fmt.Sprintf("%s of hair fed into the ends", invalid.Length(in.Plaits.Fed)), in}}
}
