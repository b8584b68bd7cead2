package compare

import (
	"context"
	"fmt"
	"math"
	"slices"

	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/hours"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/words"
)

// Quicker is another way to do a plan in less time, or in sittings that fit.
type Quicker struct {
	Key   string     `json:"key" enum:"larger,method,tracks,line,hand,helper,sittings"`
	Says  string     `json:"says" doc:"What is done, with its numbers"`
	Input plan.Input `json:"input" doc:"The plan after it"`
	// Minutes are those at the head in all sittings, breaks in them; Longest the longest of
	// them.
	Minutes  float64 `json:"minutes"`
	Longest  float64 `json:"longestMin"`
	Sittings int     `json:"sittings"`
	Pieces   int     `json:"pieces"`
	// Fits is true where it keeps to the time wished.
	Fits bool `json:"fits"`
}

// hurries are what makes a plan fit the time wished, in the order they are offered. None of
// them is given a plan that fits already.
var hurries = []struct {
	key string
	of  func(ctx context.Context, sol *plan.Solved, sum float64) (says string, in plan.Input, ok bool)
}{
	{"larger", largerAll}, {"method", fasterMethod}, {"tracks", cornrowsBehind}, {"line", partAlone}, {"hand", byHand}, {"helper", aHelper}, {"sittings", moreSittings},
}

// Quicken finds ways to do a plan in the time that is wished, each a whole plan; none where it fits,
// or where nobody said a time. The error is that of ctx when it ends first.
func Quicken(ctx context.Context, sol *plan.Solved) ([]Quicker, error) {
	out := []Quicker{}
	in := sol.Input
	if in.Day == nil || in.Day.Within == 0 {
		return out, nil
	}
	now, err := hours.DayOf(sol)
	if err != nil || now.Sum() <= in.Day.Within {
		return out, err
	}
	for _, h := range hurries {
		says, other, ok := h.of(ctx, sol, now.Sum())
		if !ok {
			continue
		}
		day, err := dayOf(ctx, other)
		if err != nil { // it cannot be laid on this head
			if ctx.Err() != nil {
				return nil, err
			}
			continue
		}
		o := Quicker{Key: h.key, Says: says, Input: other, Minutes: day.Sum()}
		for _, s := range day.Sittings {
			o.Longest = max(o.Longest, s.Minutes)
			o.Sittings++
		}
		for _, r := range day.Rows {
			o.Pieces += r.Pieces
		}
		o.Fits = o.Minutes <= in.Day.Within || h.key == "sittings" && o.Longest <= in.Day.Within
		if o.Minutes < 0.97*now.Sum() || o.Fits {
			out = append(out, o)
		}
	}
	return out, nil
}

// dayOf solves a plan and says how it is done.
func dayOf(ctx context.Context, in plan.Input) (hours.DayPlan, error) {
	sol, err := plan.Solve(ctx, in)
	if err != nil {
		return hours.DayPlan{}, err
	}
	return hours.DayOf(sol)
}

// mostLarger is by how much sections are made wider and higher at most to save time.
const mostLarger = 2.0

// largerAll makes all sections larger until the hours fit.
func largerAll(ctx context.Context, sol *plan.Solved, sum float64) (says string, in plan.Input, ok bool) {
	share := sum / hours.Of(sol).Total.Likely // breaks and tiredness on top
	fits := func(scale float64) bool {
		x, err := plan.Solve(ctx, sol.Input.Scaled(scale))
		if err != nil {
			return false
		}
		return share*hours.Of(x).Total.Likely <= sol.Input.Day.Within
	}
	low, high := 1.0, mostLarger
	for range 6 {
		if mid := (low + high) / 2; fits(mid) {
			high = mid
		} else {
			low = mid
		}
	}
	in = sol.Input.Scaled(high)
	for _, wish := range []*parting.Wish{&in.Parting.Front, &in.Parting.Back} {
		wish.Width, wish.Height = math.Ceil(wish.Width/plan.SizeStep-1e-6)*plan.SizeStep, math.Ceil(wish.Height/plan.SizeStep-1e-6)*plan.SizeStep
	}
	return fmt.Sprintf("Fewer and larger: sections of %s behind", invalid.Length(in.Parting.Back.Width)), in, true
}

// fasterMethod takes the quickest method that suits a piece of the plan and that nothing rules
// out, for all plaits.
func fasterMethod(_ context.Context, sol *plan.Solved, _ float64) (says string, in plan.Input, ok bool) {
	places := slices.DeleteFunc(sol.Match(plan.Where{Kind: plan.Everywhere}), func(i int) bool { return sol.Places[i].Ground != method.OnPlait })
	if len(places) == 0 {
		return "", plan.Input{}, false
	}
	var best *method.Ranked
	ranked := method.Compare(situation(sol, plan.Everywhere, places), method.OnPlait)
	for i := range ranked {
		r := &ranked[i]
		if len(r.Out) == 0 && !r.NeedsPiece && (best == nil || r.Minutes < best.Minutes) {
			best = r
		}
	}
	if best == nil || best.Method == sol.Methods[sol.Places[places[0]].Way].ID {
		return "", plan.Input{}, false
	}
	m, _ := method.Lookup(best.Method)
	way := sol.Input.WayOf(m)
	in = sol.Input
	if !slices.ContainsFunc(in.Ways, func(x plan.Way) bool { return x.Key == way.Key }) {
		in.Ways = append(slices.Clone(in.Ways), way)
	}
	in.Uses = slices.Clone(in.Uses)
	in.Uses[0].Way = way.Key
	return "A faster method: " + m.Name, in, true
}

// cornrowsBehind hooks on behind the ears, and partAlone everywhere but beside the part line.
func cornrowsBehind(_ context.Context, sol *plan.Solved, _ float64) (says string, in plan.Input, ok bool) {
	return on(sol, parting.EarToEar, "Cornrows behind, individuals in front of the ears")
}

func partAlone(_ context.Context, sol *plan.Solved, _ float64) (says string, in plan.Input, ok bool) {
	return on(sol, parting.PartLine, "Individuals beside the part line alone, cornrows elsewhere")
}

// byHand braids every section from its root, nothing hung and nothing hidden.
func byHand(_ context.Context, sol *plan.Solved, _ float64) (says string, in plan.Input, ok bool) {
	in = sol.Input
	main := in.Piece(in.Uses[0].Piece)
	if main.Form == hair.BraidingHair || len(in.Pieces) >= plan.MaxPieces || len(in.Ways) >= plan.MaxWays {
		return "", in, false
	}
	if in.Parting.Structure != parting.AllIndividuals {
		in.Parting = in.Parting.On(parting.AllIndividuals)
	}
	braid := hair.Piece{
		Key: in.FreshKey("braid"), Name: "Braiding hair", Form: hair.BraidingHair, Colour: main.Colour, Swatch: main.Swatch, Length: main.Length, Thickness: craft.BraidThick,
		Mass: craft.BraidMass * main.Length, Pack: hair.Pack{Units: craft.BraidsPerPack, Cuts: 1, Splits: 1}, Offers: []hair.Offer{{Packs: 1, Price: plan.UsualFeed.Price}},
	}
	m, _ := method.Lookup(method.WrappedThird)
	way := in.WayOf(m)
	if !slices.ContainsFunc(in.Ways, func(x plan.Way) bool { return x.Key == way.Key }) {
		in.Ways = append(slices.Clone(in.Ways), way)
	}
	in.Pieces = append(slices.Clone(in.Pieces), braid)
	in.Uses = []plan.Use{{Where: in.Uses[0].Where, Piece: braid.Key, Way: way.Key, Count: 1}, {Where: in.Uses[1].Where, Way: in.Uses[1].Way}}
	in.Accents = nil
	return "Braided by hand from the root, nothing hung", in, true
}

func on(sol *plan.Solved, structure parting.Structure, words string) (says string, in plan.Input, ok bool) {
	in = sol.Input
	if in.Parting.Structure == structure {
		return "", in, false
	}
	in.Parting = in.Parting.On(structure)
	return words, in, true
}

// aHelper lets a second pair of hands part and plait.
func aHelper(_ context.Context, sol *plan.Solved, _ float64) (says string, in plan.Input, ok bool) {
	hands := sol.Input.Hands()
	if len(hands) > 1 {
		return "", plan.Input{}, false
	}
	in = sol.Input
	day := *in.Day
	if len(day.Hands) == 0 {
		first := plan.Someone
		first.Name = "First"
		day.Hands = []plan.Hand{first}
	}
	day.Hands = append(slices.Clone(day.Hands), plan.Hand{Key: "helper", Name: "Helper", Hand: pace.Used, Does: plan.PlaitsFirst})
	in.Day = &day
	return "A helper who parts and plaits", in, true
}

// moreSittings sits more often, never longer than is wished: from then on the wish is for each
// of them, no more for all.
func moreSittings(_ context.Context, sol *plan.Solved, _ float64) (says string, in plan.Input, ok bool) {
	in = sol.Input
	if in.Day.Within < plan.LeastSitting {
		return "", in, false
	}
	s := in.Sittings()
	s.Longest = min(s.Longest, in.Day.Within)
	s.Slots = slices.Clone(s.Slots)
	for i := range s.Slots {
		s.Slots[i].Longest = 0
	}
	day := *in.Day
	day.Sittings, day.Within = &s, 0
	in.Day = &day
	return fmt.Sprintf("More sittings, none longer than %s", words.Minutes(s.Longest)), in, true
}
