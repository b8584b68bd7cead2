package method

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"kladotex/core/advice"
	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/words"
)

// Traits are what tells one method from another when one is chosen. Common practice, no
// source.
type Traits struct {
	// Pull is how much it draws at the scalp.
	Pull Pull
	// Flat is true where no ridge or knot shows at the root.
	Flat bool
	// Wet is what it bears.
	Wet Water
	// Whole is true where the piece comes off whole, to be used again.
	Whole bool
	// Skill is what it asks of the hand.
	Skill Hand
	// Off is minutes to take one place down.
	Off float64
}

// Pull is how much a method draws at the scalp.
type Pull int

// The pulls, from the least.
const (
	Light Pull = iota
	Middling
	Tight
)

// Water is what becomes of an install: kept dry, washed at the roots, or in the water.
type Water string

// The waters.
const (
	Dry   Water = "dry"
	Roots Water = "roots"
	Swim  Water = "swim"
)

// Waters are all of them, from what bears the least.
var Waters = []Water{Dry, Roots, Swim}

// Hand is what a stylist's hand can do, or what a method asks of it.
type Hand string

// The hands.
const (
	NewHand       Hand = "new"
	UsedHand      Hand = "used"
	PractisedHand Hand = "practised"
)

// Hands are all of them.
var Hands = []Hand{NewHand, UsedHand, PractisedHand}

// Hiding is how own hair is to be hidden.
type Hiding string

// The ways of hiding.
const (
	HiddenInside Hiding = "inside"
	HiddenUnder  Hiding = "wrapped"
	HiddenAmong  Hiding = "twined"
)

// Hidings are all of them.
var Hidings = []Hiding{HiddenInside, HiddenUnder, HiddenAmong}

// hiding is what each family does.
var hiding = map[Family]Hiding{Loop: HiddenInside, Wrap: HiddenUnder, Twist: HiddenAmong}

// Wishes are what is wanted of an install, as far as it decides between methods. What is left out is not
// wished for.
type Wishes struct {
	Updo  bool  `json:"updo,omitempty" doc:"True when it will be tied up, so that roots show"`
	Water Water `json:"water,omitempty" doc:"Kept dry, washed at the roots, or in the water"`
	Weeks int   `json:"weeks,omitempty" minimum:"0" maximum:"26" doc:"Weeks of wear; 0 leaves it open"`
	Reuse bool  `json:"reuse,omitempty" doc:"True when the pieces are to be reused"`
	Quick bool  `json:"quick,omitempty" doc:"True when it must come off quickly"`
	Hand  Hand  `json:"hand,omitempty" doc:"How used to this work the hand is"`
	Hours int   `json:"hours,omitempty" minimum:"0" maximum:"60" doc:"Hours there are for attaching all pieces; 0 leaves them open"`
	// Hide leaves it open where it is empty.
	Hide       Hiding `json:"hide,omitempty" doc:"How own hair is hidden: woven inside, wrapped, or twined in"`
	NoCornrows bool   `json:"noTracks,omitempty" doc:"True when nobody here can cornrow"`
}

// Check refuses wishes that cannot be; the paths of bad are put under path.
func (w Wishes) Check(bad *invalid.Errors, path string) {
	if w.Water != "" {
		invalid.OneOf(bad, path+"water", "What becomes of it", w.Water, Waters)
	}
	if w.Hand != "" {
		invalid.OneOf(bad, path+"hand", "The hand", w.Hand, Hands)
	}
	if w.Hide != "" {
		invalid.OneOf(bad, path+"hide", "How own hair is hidden", w.Hide, Hidings)
	}
	bad.Count(path+"weeks", "Weeks of wear", w.Weeks, 0, 26)
	bad.Count(path+"hours", "Hours for attaching", w.Hours, 0, 60)
}

// Situation is where methods are to be compared.
type Situation struct {
	// Jobs are those of a method at every place of the situation; the piece is one it takes
	// where the plan has any.
	Jobs func(Method) []Job
	// Places are those of the whole head.
	Places int
	// Slower is how much longer these hands take than a practised stylist's.
	Slower float64
	// Forms are the forms of piece the plan has.
	Forms []hair.Form
	// Shows is true where most roots are seen: at the hairline and beside the part.
	Shows bool
	// Edges is the state of the hairline, where the places lie at it.
	Edges hair.Edges
	Child bool
	Wish  Wishes
}

// Verdict is what a comparison comes to.
type Verdict string

// The verdicts, from the best.
const (
	Leads    Verdict = "leads"    // nothing against it, and most for it
	Suits    Verdict = "suits"    // nothing against it
	Possible Verdict = "possible" // something against it
	Out      Verdict = "out"      // ruled out
)

// Verdicts are all of them, from the best.
var Verdicts = []Verdict{Leads, Suits, Possible, Out}

// Ranked is a method compared, with its reasons in words: what speaks for it, what against,
// and what rules it out.
type Ranked struct {
	Method  ID       `json:"method"`
	Verdict Verdict  `json:"verdict"`
	For     []string `json:"for"`
	Against []string `json:"against"`
	Out     []string `json:"out" doc:"What rules it out"`
	// NeedsPiece is true where the plan has no piece of a form it takes.
	NeedsPiece bool `json:"needsPiece"`
	// Minutes are those of attaching and hiding at all places, practised; TakeDown those of
	// taking them down.
	Minutes  float64 `json:"minutes"`
	TakeDown float64 `json:"takeDownMin"`
}

// Compare ranks the methods that hang pieces on a ground: those ruled out last, then by how
// little speaks against them, pieces that the plan has not counted twice, how much for them,
// and how long they take.
func Compare(s Situation, ground Ground) []Ranked {
	var out []Ranked
	for _, m := range Catalogue {
		if m.On(ground) {
			out = append(out, m.weigh(s))
		}
	}
	slices.SortStableFunc(out, func(a, b Ranked) int {
		rank := func(r Ranked) float64 {
			against := len(r.Against)
			if r.NeedsPiece { // other pieces speak twice against it
				against++
			}
			return 1000*float64(min(1, len(r.Out))) + 10*float64(against) - float64(len(r.For)) + min(0.9, r.Minutes/1e4)
		}
		return int(math.Copysign(1, rank(a)-rank(b)))
	})
	for i := range out {
		switch r := &out[i]; {
		case len(r.Out) > 0:
			r.Verdict = Out
		case len(r.Against) > 0:
			r.Verdict = Possible
		case i < 3 && len(r.For) >= len(out[0].For)-1 && len(r.For) > 0:
			r.Verdict = Leads
		default:
			r.Verdict = Suits
		}
	}
	return out
}

// weigh collects the reasons for and against a method.
func (m Method) weigh(s Situation) Ranked {
	jobs := s.Jobs(m)
	r := Ranked{
		Method: m.ID, For: []string{}, Against: []string{}, Out: []string{},
		NeedsPiece: !slices.ContainsFunc(s.Forms, m.Suits),
	}
	for _, j := range jobs {
		w := m.For(j)
		n := m.Pieces(j.Settings)
		r.Minutes += w.Minutes(n)
		r.TakeDown += m.traits.Off * float64(n)
	}
	for _, of := range weights {
		of(m, s, jobs, &r)
	}
	return r
}

func (r *Ranked) speaksFor(format string, a ...any) { r.For = append(r.For, fmt.Sprintf(format, a...)) }
func (r *Ranked) speaksAgainst(format string, a ...any) {
	r.Against = append(r.Against, fmt.Sprintf(format, a...))
}
func (r *Ranked) rulesOut(format string, a ...any) { r.Out = append(r.Out, fmt.Sprintf(format, a...)) }

// weights are what is weighed, in the order reasons are read.
var weights = []func(Method, Situation, []Job, *Ranked){
	byPiece, byHair, byFit, byHiding, byScalp, byRoot, byWater, byWear, byHours, byTakeDown, byHand, byTexture, byCornrows, byLeftOver,
}

func byPiece(m Method, _ Situation, _ []Job, r *Ranked) {
	if r.NeedsPiece {
		r.speaksAgainst("It takes %s, and this plan has none yet.", spoken(m.Takes))
	}
}

// most is the share of places from which a reason is about the situation as a whole.
const most = 0.5

// byHair weighs the length of own hair.
func byHair(m Method, _ Situation, jobs []Job, r *Ranked) {
	if len(jobs) == 0 {
		return
	}
	short, least, long := 0, math.Inf(1), 0.0
	for _, j := range jobs {
		least, long = min(least, j.Hair), max(long, j.Hair)
		if j.Hair < m.LeastHair {
			short++
		}
	}
	switch share := float64(short) / float64(len(jobs)); {
	case share > most:
		r.rulesOut("Own hair of %s is too short: it holds from about %s.", invalid.Length(least), invalid.Length(m.LeastHair))
	case short > 0:
		r.speaksAgainst("At %d of %d spots own hair is shorter than the %s it holds from.", short, len(jobs), invalid.Length(m.LeastHair))
	case long < 76 && m.LeastHair <= 25:
		r.speaksFor("Made for short hair: it holds from about %s.", invalid.Length(m.LeastHair))
	case long > 300 && m.reach != nil && jobs[0].Plait.Length() > jobs[0].Piece.Length && m.reach(jobs[0]) > jobs[0].Piece.Length:
		r.speaksFor("It hides hair longer than the piece.")
	}
}

// byFit weighs what the method itself finds at the places: plait against piece.
func byFit(m Method, _ Situation, jobs []Job, r *Ranked) {
	type kind struct {
		n     int
		worst advice.Finding
	}
	found := map[advice.Code]*kind{}
	var codes []advice.Code
	for _, j := range jobs {
		for _, f := range m.Judge(j) {
			switch f.Code {
			case advice.WrongForm, advice.ShortHair, advice.TenderScalp:
				continue // weighed by themselves
			}
			k := found[f.Code]
			if k == nil {
				k = &kind{worst: f}
				found[f.Code] = k
				codes = append(codes, f.Code)
			}
			if k.n++; f.Grade > k.worst.Grade {
				k.worst = f
			}
		}
	}
	for _, code := range codes {
		k := found[code]
		n := k.worst.Notice()
		where := ""
		if k.n < len(jobs) {
			where = fmt.Sprintf("At %d of %d spots: ", k.n, len(jobs))
		}
		r.speaksAgainst("%s%s %s", where, n.Reason, n.Remedy)
	}
	if len(codes) == 0 && len(jobs) > 0 && !r.NeedsPiece && m.Base == Plaited && jobs[0].Ground == OnPlait {
		r.speaksFor("Plait and piece fit each other.")
	}
}

// byHiding weighs how it hides own hair.
func byHiding(m Method, s Situation, _ []Job, r *Ranked) {
	how, hides := hiding[m.Family]
	switch {
	case s.Wish.Hide == "" || !hides:
	case how == s.Wish.Hide:
		r.speaksFor("It hides own hair as wished: %s.", m.HidesBy)
	default:
		r.speaksAgainst("It hides own hair differently: %s.", m.HidesBy)
	}
}

// byTexture weighs how it holds where plaits slip.
func byTexture(m Method, _ Situation, jobs []Job, r *Ranked) {
	if len(jobs) == 0 || !jobs[0].Slips {
		return
	}
	switch m.Family {
	case Braid:
		r.speaksFor("Braided in, straight or very fine hair holds.")
	case Twist:
		r.speaksAgainst("Straight or very fine hair untwists by itself.")
	case Loop, Wrap, Hook:
	}
}

// byCornrows weighs what it hangs on where nobody plaits flat.
func byCornrows(_ Method, s Situation, jobs []Job, r *Ranked) {
	if !s.Wish.NoCornrows || len(jobs) == 0 {
		return
	}
	switch jobs[0].Ground {
	case OnCornrow, OnNet:
		r.rulesOut("It hangs on cornrows, and nobody here can cornrow: choose linked plaits for the base, or plait all over.")
	case OnLaid:
		r.speaksFor("Plaits laid back into the base ask for no plaiting along the scalp.")
	case OnLink:
		r.speaksFor("Linked plaits ask for no plaiting along the scalp.")
	case OnPlait:
	}
}

// byLeftOver weighs the hair that is bought and not used, where the method itself decides
// how much that is.
func byLeftOver(m Method, _ Situation, jobs []Job, r *Ranked) {
	if len(jobs) == 0 || r.NeedsPiece {
		return
	}
	const much = 0.35 // of what is used
	says := func(used, pack int, what string) {
		if pack == 0 || used == 0 {
			return
		}
		packs := (used + pack - 1) / pack
		if left := packs*pack - used; float64(left) > much*float64(used) && left > pack/2 {
			r.speaksAgainst("A lot left over: %d of the %d %s in %s.", left, packs*pack, what, words.Count(packs, "pack"))
		}
	}
	if m.pieces != nil {
		says(len(jobs)*m.Pieces(jobs[0].Settings), jobs[0].Piece.Pack.Yield(), "pieces")
	}
	if m.Wraps && jobs[0].Wrapping != nil {
		strands := 0
		for _, j := range jobs {
			strands += m.For(j).Strands
		}
		says(strands, jobs[0].Wrapping.Strands, "strands of wrapping hair")
	}
}

// byScalp weighs how much it pulls.
func byScalp(m Method, s Situation, jobs []Job, r *Ranked) {
	tender := len(jobs) > 0 && jobs[0].TenderScalp
	fragile := s.Edges == hair.FragileEdges || s.Edges == hair.BareEdges
	switch m.traits.Pull {
	case Tight:
		if tender {
			r.rulesOut("Tender scalp: it sits tighter on the scalp than any other.")
		}
		if fragile {
			r.rulesOut("Fragile edges: it pulls at them more than any other.")
		}
		if s.Child {
			r.rulesOut("A child: nothing that sits tight.")
		}
	case Middling:
		if tender {
			r.speaksAgainst("Tender scalp: drawing it through tightens the base once more.")
		}
		if fragile {
			r.speaksAgainst("Fragile edges: it pulls at them.")
		}
	case Light:
		if tender {
			r.speaksFor("Light on a tender scalp.")
		}
		if fragile {
			r.speaksFor("Light on fragile edges.")
		}
		if s.Child {
			r.speaksFor("Light on a child's head.")
		}
	}
}

// byRoot weighs how the root looks where it is seen.
func byRoot(m Method, s Situation, _ []Job, r *Ranked) {
	if !s.Shows && !s.Wish.Updo {
		return
	}
	seen := "Roots are seen here"
	if !s.Shows {
		seen = "Tied up, roots are seen"
	}
	if m.traits.Flat {
		r.speaksFor("%s: %s.", seen, m.Root)
	} else {
		r.speaksAgainst("%s: %s.", seen, m.Root)
	}
}

// byWater weighs what it bears.
func byWater(m Method, s Situation, _ []Job, r *Ranked) {
	if s.Wish.Water == "" || s.Wish.Water == Dry {
		return
	}
	bears, wished := slices.Index(Waters, m.traits.Wet), slices.Index(Waters, s.Wish.Water)
	switch {
	case m.traits.Wet == Dry:
		r.rulesOut("It must stay dry: wet own hair untwines.")
	case bears < wished:
		r.speaksAgainst("In the water: %s.", m.Wash)
	case s.Wish.Water == Swim:
		r.speaksFor("In the water: %s.", m.Wash)
	}
}

// byWear weighs how long it lasts, and whether the pieces can be used again.
func byWear(m Method, s Situation, _ []Job, r *Ranked) {
	low, high := m.WearWeeks[0], m.WearWeeks[1]
	switch weeks := s.Wish.Weeks; {
	case weeks == 0:
	case weeks > 2*high:
		r.rulesOut("It is worn %d to %d weeks, not %d.", low, high, weeks)
	case weeks > high:
		r.speaksAgainst("It is worn %d to %d weeks; %d are wished for.", low, high, weeks)
	case weeks >= low:
		r.speaksFor("Worn %d to %d weeks, as wished.", low, high)
	}
	switch {
	case !s.Wish.Reuse:
	case m.traits.Whole:
		r.speaksFor("The pieces come off whole, to be used again.")
	default:
		r.speaksAgainst("The pieces are cut or undone when it comes off.")
	}
}

// byHours weighs how long it takes to go on, for the share of the head that is looked at.
func byHours(_ Method, s Situation, jobs []Job, r *Ranked) {
	if s.Wish.Hours == 0 || s.Places == 0 {
		return
	}
	const twice = 2
	there, takes := 60*float64(s.Wish.Hours)*float64(len(jobs))/float64(s.Places), s.Slower*r.Minutes
	switch {
	case takes > twice*there:
		r.rulesOut("It takes about %s here; there are %s.", spell(takes), spell(there))
	case takes > there:
		r.speaksAgainst("It takes about %s here; there are %s.", spell(takes), spell(there))
	default:
		r.speaksFor("It goes on in about %s; there are %s.", spell(takes), spell(there))
	}
}

// byTakeDown weighs how long it takes to come off.
func byTakeDown(m Method, s Situation, _ []Job, r *Ranked) {
	const quick, slow = 0.5, 1.5 // minutes a place
	switch {
	case !s.Wish.Quick:
	case m.traits.Off <= quick:
		r.speaksFor("It comes off in about %.0f min.", r.TakeDown)
	case m.traits.Off >= slow:
		r.speaksAgainst("It takes about %s to come off.", spell(r.TakeDown))
	}
}

// byHand weighs what it asks of the hand.
func byHand(m Method, s Situation, _ []Job, r *Ranked) {
	if s.Wish.Hand == "" {
		return
	}
	asks, has := slices.Index(Hands, m.traits.Skill), slices.Index(Hands, s.Wish.Hand)
	switch {
	case asks-has >= 2:
		r.speaksAgainst("It needs a practised hand.")
	case asks > has:
		r.speaksAgainst("It needs practice; try one piece first.")
	case s.Wish.Hand == NewHand:
		r.speaksFor("Easy for a new hand.")
	}
}

// spell writes minutes as people say them.
func spell(minutes float64) string {
	if minutes < 90 {
		return fmt.Sprintf("%.0f min", minutes)
	}
	return strings.Replace(fmt.Sprintf("%.1f h", minutes/60), ".0 h", " h", 1)
}
