package hours

import (
	"cmp"
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"kladotex/core/fall"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
	"kladotex/core/workorder"
)

func dayOf(t *testing.T, in plan.Input) DayPlan {
	t.Helper()
	d, err := DayOf(plantest.Solve(t, in))
	require.NoError(t, err)
	return d
}

// everyHead are plans on every structure, alone and with a helper, one's own head and another's.
func everyHead(t *testing.T, each func(name string, in plan.Input)) {
	t.Helper()
	for _, structure := range parting.Structures {
		for _, with := range []string{"alone", "helper", "evening"} {
			in := plan.Default()
			if structure != parting.AllIndividuals {
				in.Parting = in.Parting.On(structure)
			}
			if structure == parting.NetCap {
				in.Parting.Base.Kind = parting.Net
			}
			in.OwnHead = with != "helper"
			in.Day = &plan.Day{Install: "2027-03-20", Hands: []plan.Hand{{Key: "a", Name: "You", Hand: pace.Used, Does: plan.DoesBoth}}}
			if with != "alone" {
				in.Day.Hands = append(in.Day.Hands, plan.Hand{Key: "b", Name: "Helper", Hand: pace.Beginner, Does: plan.PlaitsFirst, Evening: with == "evening"})
			}
			s := in.UsualSittings()
			s.Longest = 150
			in.Day.Sittings = &s
			each(fmt.Sprintf("%s, %s", structure, with), in)
		}
	}
}

// Whatever the structure, every place is plaited and attached exactly once, no sitting is over
// its limit, and rows are done in working order by one who works alone.
func TestSittingsHoldTheWholeHead(t *testing.T) {
	everyHead(t, func(name string, in plan.Input) {
		d := dayOf(t, in)
		sol := plantest.Solve(t, in)
		var places []int
		for _, r := range d.Rows {
			places = append(places, r.Places...)
		}
		slices.Sort(places)
		require.Len(t, places, len(sol.Places), name)
		for i, p := range places {
			require.Equal(t, i, p, name)
		}
		plaited, attached := map[int]float64{}, map[int]bool{}
		lastAttached := -1
		for _, s := range d.Sittings {
			assert.LessOrEqual(t, s.Minutes, s.Limit+1e-9, name)
			assert.NotEmpty(t, s.Does, name)
			for _, span := range s.Spans {
				switch {
				case span.Row < 0:
				case span.Kind == pace.Plaits:
					plaited[span.Row]++
				default:
					attached[span.Row] = true
					if len(d.Hands) == 1 {
						assert.GreaterOrEqual(t, span.Row, lastAttached, name)
						lastAttached = span.Row
					}
				}
			}
		}
		assert.Len(t, attached, len(d.Rows), name)
		for i, r := range d.Rows {
			assert.Equal(t, r.Plait > 0, plaited[i] > 0, "%s: %s", name, r.Name)
		}
	})
}

// A helper shortens the day, an evening before it more so.
func TestAHelperShortensTheDay(t *testing.T) {
	in := plantest.Carded(plan.Default(), 32)
	in.Day = &plan.Day{Install: "2027-03-20", Hands: []plan.Hand{
		{Key: "a", Name: "A", Hand: pace.Practised, Does: plan.DoesBoth}, {Key: "b", Name: "B", Hand: pace.Used, Does: plan.PlaitsFirst},
	}}
	two := dayOf(t, in)
	assert.Less(t, two.Sum(), 0.7*two.Alone)
	in.Day.Hands = slices.Clone(in.Day.Hands)
	in.Day.Hands[1].Evening = true
	evening := dayOf(t, in)
	assert.Less(t, evening.Sum(), two.Sum())
	assert.True(t, evening.Sittings[0].Evening)
	assert.Equal(t, []string{"The evening before", "Sitting 1"}, []string{evening.SittingName(0), evening.SittingName(1)})
	assert.Equal(t, "2027-03-19", evening.Sittings[0].On)
	assert.Equal(t, "2027-03-20", evening.Sittings[1].On)
	in.Day.Hands = in.Day.Hands[:1]
	assert.InDelta(t, two.Alone, dayOf(t, in).Sum(), 0.1*two.Alone, "alone, about as long as without a helper")
}

// Moving the first sitting, or one in between, moves those after it and all that comes before
// the first, whatever month or year lies between.
func TestMovingASittingMovesWhatHangsOnIt(t *testing.T) {
	in := plan.Default()
	in.OwnHead = true
	s := in.UsualSittings()
	s.Slots = []plan.Slot{{}, {After: 3, At: "10:00"}}
	in.Day = &plan.Day{Install: "2026-12-30", Sittings: &s}
	d := dayOf(t, in)
	require.GreaterOrEqual(t, len(d.Sittings), 3)
	dates := func(d DayPlan) (out []string) {
		for _, s := range d.Sittings[:3] {
			out = append(out, s.On+" "+s.At)
		}
		return out
	}
	assert.Equal(t, []string{"2026-12-30 18:30", "2027-01-02 10:00", "2027-01-03 18:30"}, dates(d))
	on := func(d DayPlan, key string) DayDue {
		for _, x := range d.Due {
			if x.Key == key {
				return x
			}
		}
		return DayDue{}
	}
	assert.Equal(t, "2026-12-29", on(d, "wash").On)
	assert.Equal(t, "2026-12-29", on(d, "rinse").On)
	assert.Equal(t, "17:30", on(d, "eat").At)
	in.Day.Install = "2027-02-28"
	d = dayOf(t, in)
	assert.Equal(t, []string{"2027-02-28 18:30", "2027-03-03 10:00", "2027-03-04 18:30"}, dates(d))
	assert.Equal(t, "2027-02-27", on(d, "wash").On)
	assert.True(t, slices.IsSortedFunc(d.Due, func(a, b DayDue) int { return b.Before - a.Before }))
	in.Day.Install = ""
	assert.Empty(t, dayOf(t, in).Sittings[0].On, "open")
}

// A row of one's own order keeps its place through other sizes; rows it does not name follow.
func TestAnOrderOfOnesOwn(t *testing.T) {
	in := plan.Default()
	usual := dayOf(t, in)
	keys := func(d DayPlan) (out []string) {
		for _, r := range d.Rows {
			out = append(out, r.Key)
		}
		return out
	}
	own := keys(usual)
	own[0], own[4] = own[4], own[0]
	in.Day = &plan.Day{Order: &plan.WorkOrder{Rows: append([]string{"gone/1"}, own...)}}
	assert.Equal(t, own, keys(dayOf(t, in)))
	in = in.Scaled(1.2)
	assert.Subset(t, append(own, keys(dayOf(t, in))...), keys(dayOf(t, in)))
	// By rule: the usual order goes from the back corner up, the part line last, both sides
	// level; in front first where the house begins there; one side first where that is wished.
	groups := func(d DayPlan) (out []workorder.Group) {
		for _, r := range d.Rows {
			out = append(out, r.Group)
		}
		return slices.Compact(out)
	}
	assert.Equal(t, []workorder.Group{workorder.Behind, workorder.Front, workorder.Hairline, workorder.Part}, groups(usual))
	for i := 1; i < len(usual.Rows); i++ {
		if a, b := usual.Rows[i-1], usual.Rows[i]; a.Group == workorder.Behind && b.Group == workorder.Behind && a.Side == workorder.Left {
			assert.Equal(t, workorder.Right, b.Side, "%s, then %s", a.Name, b.Name)
		}
	}
	in = plan.Default()
	in.Customs = map[string]string{"start": "front"}
	assert.Equal(t, workorder.Part, dayOf(t, in).Rows[0].Group)
	in.Day = &plan.Day{Order: &plan.WorkOrder{Apart: true}}
	sides := []workorder.Side{}
	for _, r := range dayOf(t, in).Rows {
		if r.Group == workorder.Behind {
			sides = append(sides, r.Side)
		}
	}
	assert.Equal(t, []workorder.Side{workorder.Left, workorder.Right}, slices.Compact(sides))
}

// A beginner on own head is told how long it takes, and why; practised hands on another's
// head are told nothing of the kind. Long days, late ends and children are spoken of.
func TestTheTruthIsTold(t *testing.T) {
	in := plantest.WithHand(plan.Default(), pace.Beginner, "L1")
	in.OwnHead = true
	d := dayOf(t, in)
	require.NotEmpty(t, d.Says)
	assert.Contains(t, d.Says[0], "own head")
	assert.Contains(t, d.Says[0], "rhythm")
	assert.Empty(t, dayOf(t, plantest.WithHand(plantest.Carded(plan.Default(), 34), pace.Practised)).Says)
	s := in.UsualSittings()
	s.Longest, s.At = 14*60, "12:00"
	all := plantest.WithHand(plan.Default(), pace.Beginner)
	all.Day.Sittings = &s
	says := fmt.Sprint(dayOf(t, all).Says)
	assert.Contains(t, says, "eight hours")
	assert.Contains(t, says, "would end about")
	in = plan.Default()
	in.Child = true
	for _, s := range dayOf(t, in).Sittings {
		assert.LessOrEqual(t, s.Minutes, 120.0, "short sittings for a child")
	}
	in = plan.Default()
	in.Day = &plan.Day{Within: 120}
	assert.Contains(t, fmt.Sprint(dayOf(t, in).Says), "longer than the")
}

// Every figure says what is in it, and each holds the one before.
func TestFiguresSayWhatIsInThem(t *testing.T) {
	d := dayOf(t, plan.Default())
	require.Len(t, d.Figures, 4)
	for i, f := range d.Figures {
		assert.NotEmpty(t, f.Holds, f.Name)
		if i == 1 || i == 2 {
			assert.Greater(t, f.Minutes.Likely, d.Figures[i-1].Minutes.Likely)
		}
	}
	assert.Equal(t, d.Hours.Total, d.Figures[2].Minutes)
	assert.Contains(t, d.Figures[3].Holds, "wash")
}

// Pieces timed on this head move the hours of their method alone, and make them surer.
func TestTrialsMoveTheHours(t *testing.T) {
	in := plantest.WithHand(plan.Default(), pace.Practised)
	before := dayOf(t, in)
	rate := before.Timeable[slices.IndexFunc(before.Timeable, func(x Timeable) bool { return x.Skill == "L1" })].Rate
	in.Day.Trials = []plan.Trial{{Skill: "L1", By: "a", Minutes: []float64{2 * rate, 2 * rate}, Rate: rate}}
	after := dayOf(t, in)
	// The guess, one and two more of twice the time: (1 + 2 + 2 × 2) ÷ 4.
	assert.InEpsilon(t, 1.75, after.Hours.Of(pace.Attach, pace.Conceal).Likely/before.Hours.Of(pace.Attach, pace.Conceal).Likely, 1e-9)
	assert.InDelta(t, before.Hours.Of(pace.Plaits).Likely, after.Hours.Of(pace.Plaits).Likely, 1e-9)
	require.Len(t, after.Paces, 1)
	assert.Equal(t, 2, after.Paces[0].Pieces)
	assert.InEpsilon(t, 1.75*rate, after.Paces[0].Now, 1e-9)
	assert.Less(t, after.Paces[0].Spread, 0.2)
}

func BenchmarkDay(b *testing.B) {
	in := plantest.Carded(plan.Default(), 15.5)
	in.OwnHead = true
	in.Day = &plan.Day{Hands: []plan.Hand{{Key: "a", Name: "A", Hand: pace.Used, Does: plan.DoesBoth}, {Key: "b", Name: "B", Hand: pace.Used, Does: plan.PlaitsFirst}}}
	for b.Loop() {
		if _, err := DayOf(plantest.Solve(b, in)); err != nil {
			b.Fatal(err)
		}
	}
}

// Whatever the head, the people and the sittings: every row is attached once, nothing is done
// before what it hangs on, nobody does two things at once, two never share a row, and no sitting
// is over its limit. With a helper it never takes longer than alone.
func TestAnyDayHolds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		in := plantest.Carded(plan.Default(), rapid.Float64Range(24, 45).Draw(t, "size"))
		if structure := rapid.SampledFrom(parting.Structures).Draw(t, "structure"); structure != parting.AllIndividuals {
			in.Parting = in.Parting.On(structure)
		}
		in.OwnHead, in.Child = rapid.Bool().Draw(t, "own"), rapid.Bool().Draw(t, "child")
		hand := func(key string, does plan.Does) plan.Hand {
			return plan.Hand{Key: key, Name: key, Hand: rapid.SampledFrom(pace.Hands).Draw(t, key), Does: does}
		}
		in.Day = &plan.Day{Install: "2027-03-20", Hands: []plan.Hand{hand("a", plan.DoesBoth)}, Order: &plan.WorkOrder{Apart: rapid.Bool().Draw(t, "apart"), ByRow: rapid.Bool().Draw(t, "by row")}}
		if rapid.Bool().Draw(t, "two") {
			in.Day.Hands = append(in.Day.Hands, hand("b", plan.PlaitsFirst))
		}
		s := in.UsualSittings()
		s.Longest = rapid.Float64Range(plan.LeastSitting, 500).Draw(t, "longest")
		in.Day.Sittings = &s
		d, err := DayOf(plantest.Solve(t, in))
		if err != nil {
			return // sizes that no such head takes are refused elsewhere
		}
		plaited, attached := map[int]bool{}, map[int]int{}
		for _, sitting := range d.Sittings {
			if len(sitting.Spans) > 1 {
				assert.LessOrEqual(t, sitting.Minutes, sitting.Limit+1e-9)
			}
			for i, a := range sitting.Spans {
				for _, b := range sitting.Spans[:i] {
					apart := a.End <= b.Start+1e-9 || b.End <= a.Start+1e-9
					assert.True(t, apart || a.Person != b.Person && (a.Row != b.Row || a.Row < 0), "%+v and %+v", a, b)
				}
			}
			spans := slices.Clone(sitting.Spans)
			slices.SortFunc(spans, func(a, b DaySpan) int { return cmp.Compare(a.Start, b.Start) })
			for _, x := range spans {
				switch {
				case x.Row < 0:
				case x.Kind == pace.Plaits:
					plaited[x.Row] = true
				default:
					attached[x.Row]++
					assert.True(t, plaited[x.Row] || d.Rows[x.Row].Plait == 0, "%s is attached before it is plaited", d.Rows[x.Row].Name)
				}
			}
		}
		assert.Len(t, attached, len(d.Rows))
		if len(d.Hands) > 1 && len(d.Sittings) == 1 {
			assert.LessOrEqual(t, d.Sum(), d.Alone+1e-6)
		}
	})
}

// Days are counted as the standard library counts them.
func TestDaysAreCountedOn(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		from := time.Date(2000, 1, 1, 0, 0, 0, 0, time.UTC).AddDate(0, 0, rapid.IntRange(0, 60000).Draw(t, "from"))
		n := rapid.IntRange(-800, 800).Draw(t, "days")
		assert.Equal(t, from.AddDate(0, 0, n).Format(time.DateOnly), addDays(from.Format(time.DateOnly), n))
	})
}

// Who does the design in front does that alone, and nobody else does it.
func TestSomebodyDoesOnlyTheDesign(t *testing.T) {
	in := plantest.FedIn()
	in.Day = &plan.Day{Hands: []plan.Hand{
		{Key: "a", Name: "A", Hand: pace.Practised, Does: plan.DoesBoth}, {Key: "b", Name: "B", Hand: pace.Practised, Does: plan.DoesDesign},
	}}
	require.NoError(t, plan.Check(in))
	work := WorkOf(plantest.Solve(t, in))
	designs := 0
	for _, s := range work.Steps {
		switch {
		case s.Design:
			designs++
			assert.Zero(t, s.By[0], s.Name)
			assert.Positive(t, s.By[1], s.Name)
		case s.Kind == pace.Cornrows || s.Kind == pace.Plaits || s.Kind == pace.Hook:
			assert.Zero(t, s.By[1], s.Name)
			assert.Positive(t, s.By[0], s.Name)
		}
	}
	assert.GreaterOrEqual(t, designs, 13, "twelve cornrows, and the braids they go on as")
	in.Day.Hands = in.Day.Hands[1:]
	assert.Error(t, plan.Check(in), "somebody must do the rest")
}

// What ends a head takes its own time: a bob longer than a blunt line, braids dipped longer than braids left loose.
func TestWhatEndsAHeadTakesTime(t *testing.T) {
	minutes := func(in plan.Input) (sum float64) {
		for _, p := range Finishing(plantest.Solve(t, in)) {
			sum += p.Minutes
		}
		return sum
	}
	plain := plan.Default()
	blunt, bob := plain, plain
	blunt.Trim, bob.Trim = &plan.Trim{Shape: fall.Blunt, Line: "shoulder"}, &plan.Trim{Shape: fall.Bob, Line: "chin"}
	assert.Greater(t, minutes(blunt), minutes(plain)+8)
	assert.Greater(t, minutes(bob), minutes(blunt)+5)
	braids := plantest.Of(plantest.By(method.WrappedThird, hair.BraidingHair))
	loose := plantest.Of(plantest.By(method.WrappedThird, hair.BraidingHair), func(in *plan.Input) { in.Ways[0].Choices = method.Chosen{"end": "loose"} })
	assert.Greater(t, minutes(braids), minutes(loose)+10)
	knots := plantest.Of(plantest.By(method.HiddenKnot, hair.CurlyBulk))
	roughed := knots
	roughed.Customs = map[string]string{plan.Knots: plan.KnotsRough}
	assert.Greater(t, minutes(roughed), minutes(knots)+5)
	plain.Customs = roughed.Customs
	assert.InDelta(t, minutes(plan.Default()), minutes(plain), 1e-9, "pieces with a loop leave no knot to rough up")
}

// Washing, drying and stretching are steps of their own, longer on longer hair; what is blow-dried
// does not wait.
func TestOwnHairTakesItsTimeFirst(t *testing.T) {
	before := func(side string, inches float64) (keys []string, minutes float64) {
		in := plantest.Of(plantest.Grown(inches))
		in.Customs = map[string]string{plan.Stretch: side}
		for _, d := range dayOf(t, in).Due {
			if d.Key == "wash" || d.Key == "dry" {
				keys, minutes = append(keys, d.Key), minutes+d.Minutes
			}
		}
		return keys, minutes
	}
	for side, want := range map[string][]string{"stretched": {"wash", "dry"}, plan.Blown: {"wash", "dry"}, plan.CurlLeft: {"wash"}} {
		short, quick := before(side, 4)
		long, slow := before(side, 16)
		assert.Equal(t, want, short, side)
		assert.Equal(t, want, long, side)
		assert.Greater(t, slow, 1.3*quick, side)
	}
}
