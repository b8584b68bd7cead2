package wear

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"kladotex/core/chair"
	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
)

// head is a ring of twelve woven pieces over cornrows with fifty hooked ones.
func head() Brief {
	return Brief{
		Schema: Schema, Edges: hair.StrongEdges, Texture: hair.Coily, Structure: parting.Perimeter, Water: method.Roots, Mass: 240, Hair: 150, Strand: 75, Taken: 1,
		Parts: []Part{
			{Key: "twist", Name: "Twist", Method: method.HitchAndWeave, Ground: method.OnPlait, Form: hair.Twist, Places: 12, Pieces: 12, CutBelow: 150,
				TakesDown: []method.Step{{Text: "mark {length}", Lengths: map[string]float64{"length": 150}}, {Text: "cut"}}},
			{Key: "loc", Name: "Loc", Method: method.CornrowHitch, Ground: method.OnCornrow, Form: hair.SoftLoc, Places: 50, Pieces: 50},
		},
		Areas: []Area{{Name: "on the base", Places: 50, Pieces: 50, Off: 50 * 0.12}, {Name: "at the hairline", Places: 12, Pieces: 12, Off: 12 * 0.4}},
		Base:  20, Ring: [2]Row{{Places: 12, Pieces: 12, Minutes: 60}, {Places: 8, Pieces: 8, Minutes: 40}},
	}
}

var usual = Rules{Weeks: Weeks{6, 8}}

func hangs() map[string]int { return map[string]int{"twist": 12, "loc": 50} }

func fold(b Brief, entries ...Entry) *State { return b.Fold(hangs(), entries) }

// Growth: 256 ± 44 µm a day in African hair, about half an inch a month in straight hair (Loussouarn
// 2001, and the figure that is commonly said; both from memory). Two inches in four months.
func TestGrowthIsAsPublished(t *testing.T) {
	b := head()
	mm, spread := b.GrownIn(1000)
	assert.InDelta(t, 256, mm, 0.5)
	assert.InDelta(t, 44, spread, 0.5)
	b.Texture = hair.Straight
	mm, _ = b.GrownIn(30)
	assert.InDelta(t, 12.7, mm, 1)
	mm, _ = b.GrownIn(122)
	assert.InDelta(t, 50.8, mm, 4)
	for _, texture := range []hair.Texture{hair.Straight, hair.Wavy, hair.Curly, hair.Coily} {
		b.Texture = texture
		weeks := b.Growing(16)
		require.Len(t, weeks, 17)
		for i := 1; i < len(weeks); i++ {
			assert.Greater(t, weeks[i].Least, weeks[i-1].Least)
			assert.Less(t, weeks[i].Least, weeks[i].Likely)
			assert.Less(t, weeks[i].Likely, weeks[i].Most)
		}
	}
}

// Two heads that were measured make the rate the client's own, surer than the texture's; a trim and
// a few days say nothing; what is cut through lies no nearer to the scalp for slow hair.
func TestGrowthFollowsTheClient(t *testing.T) {
	b := head()
	mark := b.Takedown(56).Mark
	_, wide := b.GrownIn(56)
	b.Own = Growth{}.Plus(150, 158, 56).Plus(160, 168, 56).Plus(168, 120, 56).Plus(120, 140, 20).Plus(150, 400, 56)
	likely, spread := b.GrownIn(56)
	assert.InDelta(t, 8, likely, 1e-9)
	assert.Positive(t, spread)
	assert.GreaterOrEqual(t, b.Takedown(56).Mark, mark)
	assert.Contains(t, b.GrowsBy(), "16 weeks")
	for range 12 {
		b.Own = b.Own.Plus(150, 158, 56)
	}
	_, spread = b.GrownIn(56)
	assert.Less(t, spread, wide)
	assert.Positive(t, spread)
}

// Shedding: 50 to 100 hairs a day (advice of dermatologists' associations, from memory), so that eight
// weeks of a whole head come to 2,800 to 5,600; of half a head to half of it. Against the mass of so
// many cylinders of keratin, 1.32 g/cm³ (from memory).
func TestShedHairIsAsPublished(t *testing.T) {
	b := head()
	s := b.ShedIn(56)
	assert.Equal(t, 2800, s.Least)
	assert.Equal(t, 5600, s.Most)
	const cylinder = 3.14159265 * 0.0375 * 0.0375 * 150 // mm³
	assert.InEpsilon(t, 5600*cylinder*1.32e-3, s.Mass, 0.03)
	assert.Less(t, s.Ball, 90.0, "no more than a fist")
	b.Taken = 0.5
	assert.Equal(t, 1400, b.ShedIn(56).Least)
}

// Six to eight weeks are the usual advice; two weeks to four months are seen. A child, edges that are
// not strong and twined hair come down sooner. Common practice, no source.
func TestClockKeepsToUsualAdvice(t *testing.T) {
	all := head()
	all.Structure = parting.AllIndividuals
	all.Parts = all.Parts[:1]
	weeks := func(change func(*Brief), r Rules) int {
		b := all
		change(&b)
		return b.Clock(r, fold(b), 0).Planned / 7
	}
	assert.Equal(t, 8, weeks(func(*Brief) {}, usual))
	assert.Equal(t, 2, weeks(func(*Brief) {}, Rules{Weeks: Weeks{2, 2}}))
	long := Rules{Weeks{8, 16}, true}
	assert.Equal(t, 8, weeks(func(*Brief) {}, long), "four months of a house are within what the method bears")
	assert.Equal(t, 12, weeks(func(b *Brief) { b.Parts = []Part{{Method: method.BuiltOnHead, Places: 40}} }, long), "and it bears more")
	assert.Equal(t, 3, weeks(func(b *Brief) { b.Parts = []Part{{Method: method.TwineAndLock, Places: 40}} }, long), "or far less")
	assert.Equal(t, 4, weeks(func(b *Brief) { b.Child = true }, Rules{Weeks{8, 16}, true}), "not a child")
	assert.Equal(t, 6, weeks(func(b *Brief) { b.Edges = hair.FragileEdges }, usual))
	assert.Equal(t, 5, weeks(func(b *Brief) { b.Wish = 5 }, usual))
	assert.LessOrEqual(t, weeks(func(b *Brief) { b.Parts = []Part{{Method: method.TwineAndLock, Places: 40}} }, usual), 3)
	assert.Equal(t, 8, weeks(func(b *Brief) {
		b.Parts = []Part{{Method: method.HitchAndWeave, Places: 97}, {Method: method.TwineAndLock, Places: 3}}
	}, usual), "three places of a hundred decide nothing")
}

// Whatever the head, the day lies between a day and four months, its range holds it, exactly one reason
// decides, and a gloomier head never comes down later.
func TestClockHolds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		b := head()
		b.Structure = rapid.SampledFrom([]parting.Structure{parting.AllIndividuals, parting.EarToEar, parting.Perimeter, parting.NetCap, parting.FrontDesign}).Draw(t, "structure")
		b.Edges = rapid.SampledFrom([]hair.Edges{hair.StrongEdges, hair.FineEdges, hair.FragileEdges, hair.BareEdges}).Draw(t, "edges")
		b.Wish = rapid.IntRange(0, 26).Draw(t, "wish")
		b.Tender = rapid.Bool().Draw(t, "tender")
		rules := rapid.SampledFrom([]Rules{usual, {Weeks{2, 3}, false}, {Weeks{8, 16}, true}}).Draw(t, "rules")
		day := rapid.IntRange(0, 200).Draw(t, "day")
		c := b.Clock(rules, b.Fold(hangs(), nil), day)
		assert.LessOrEqual(t, c.From, c.Planned)
		assert.LessOrEqual(t, c.Planned, c.Latest)
		assert.Positive(t, c.Planned)
		assert.LessOrEqual(t, c.Latest, 7*16)
		decide := 0
		for _, r := range c.Reasons {
			if r.Decides {
				decide++
			}
		}
		assert.Equal(t, 1, decide)
		b.Child = true
		assert.LessOrEqual(t, b.Clock(rules, b.Fold(hangs(), nil), day).Planned, c.Planned)
		looks := b.Looks(c.Planned)
		assert.IsIncreasing(t, append([]int{-1}, looks[:len(looks)-1]...))
	})
}

// What hurts, breaks, smells or mats brings the day forward; what is loose is put back, and then asks
// for nothing more. Usual practice (handbook of the trade), no source.
func TestSignsLeadToAdvice(t *testing.T) {
	b := head()
	look := func(day int, signs map[string]Grade) Entry {
		return Entry{ID: "look-1234", Day: day, Kind: Checked, Signs: signs}
	}
	deeds := func(advice []Advice) (out []Do) {
		for _, a := range advice {
			out = append(out, a.Do)
		}
		return out
	}
	for sign, want := range map[string]struct {
		some, bad Do
		days      int // after the look by which it comes down where it is bad; -1 for as planned
	}{
		"pulling": {Loosen, Clinician, -1}, "sores": {TakeDown, Clinician, 1}, "itching": {Tend, Clinician, 3}, "odour": {Tend, TakeDown, 2},
		"flaking": {Tend, Clinician, 7}, "matting": {TakeDown, TakeDown, 3}, "loose": {PutBack, Refresh, -1},
	} {
		some, bad := fold(b, look(30, map[string]Grade{sign: Some})), fold(b, look(30, map[string]Grade{sign: Bad}))
		assert.Equal(t, want.some, some.Advice()[0].Do, sign)
		assert.Equal(t, want.bad, bad.Advice()[0].Do, sign)
		planned := b.Clock(usual, fold(b), 30).Planned
		if want.days >= 0 {
			planned = 30 + want.days
		}
		assert.Equal(t, planned, b.Clock(usual, bad, 30).Planned, sign)
	}
	assert.Empty(t, fold(b, look(30, map[string]Grade{"pulling": None})).Advice())
	loose := look(30, map[string]Grade{"loose": Some})
	mended := Entry{ID: "mend-1234", Day: 31, Kind: Mended, Piece: "twist", Count: 2}
	assert.Empty(t, fold(b, loose, mended).Advice())
	assert.Equal(t, []Do{PutBack}, deeds(fold(b, Entry{ID: "mend-1234", Day: 29, Kind: Mended, Piece: "twist", Count: 2}, loose).Advice()), "what came loose since")
	assert.Equal(t, 33, b.Clock(usual, fold(b, loose), 30).Next, "a sign is looked at again soon")
}

// Doing the ring again gains weeks, never past four months, and is advised once it shows and not twice
// in a row.
func TestTheRingAgainGainsWeeks(t *testing.T) {
	b := head()
	at := func(day int, s *State) []Renewal { return b.Renewals(day, s, b.Clock(usual, s, day)) }
	fresh := fold(b)
	assert.False(t, at(10, fresh)[0].Pays)
	five := at(35, fresh)
	assert.True(t, five[0].Pays)
	assert.False(t, five[1].Pays, "the second row is covered yet")
	assert.True(t, at(41, fresh)[1].Pays, "by now it shows, and costs little more")
	assert.False(t, at(60, fresh)[0].Pays, "past its day")
	before := b.Clock(usual, fresh, 36)
	again := fold(b, Entry{ID: "again-1234", Day: 36, Kind: Renewed, Rows: 1, Of: "other"})
	after := b.Clock(usual, again, 36)
	assert.Equal(t, before.Planned+21, after.Planned)
	assert.False(t, at(40, again)[0].Pays, "done a short while ago")
	b.Ring[0].Places = 0
	assert.Empty(t, at(35, fresh))
}

// 12 woven and 50 hooked pieces are off in about ten minutes, 120 hooked in a quarter of an hour
// (common practice, no source: "under 10 min", "15 min").
func TestTakedownTakesWhatIsSeen(t *testing.T) {
	b := head()
	g := b.Takedown(42)
	assert.InDelta(t, 10, g.Off, 1.5)
	assert.Equal(t, "on the base", g.Areas[0].Name, "the back first")
	assert.Equal(t, method.CornrowHitch, g.Parts[0].Method)
	assert.InDelta(t, g.Total, g.Off+g.Base+g.Comb+g.Wash, 1e-9)
	assert.Equal(t, 0, g.Parts[1].Back, "what is cut does not come back")
	assert.Greater(t, g.Parts[0].Back, 35, "most of what was hooked does")
	own := b
	own.OwnHead = true
	assert.Greater(t, own.Takedown(42).Total, g.Total)
	b.Areas = []Area{{Pieces: 120, Places: 120, Off: 120 * 0.12}}
	assert.InDelta(t, 15, b.Takedown(42).Off, 2)
}

// The mark moves away from the scalp with own hair that grows meanwhile, by more than what is likely,
// in the figure and in the words; the frozen words stay as they are.
func TestTheMarkGrowsWithTheHair(t *testing.T) {
	b := head()
	likely, _ := b.GrownIn(56)
	g := b.Takedown(56)
	assert.Greater(t, g.Mark, 150+likely)
	woven := g.Parts[1]
	assert.InDelta(t, g.Mark, woven.Steps[0].Lengths["length"], 1e-9)
	assert.InDelta(t, 150, b.Parts[0].TakesDown[0].Lengths["length"], 0)
	b.Parts = b.Parts[1:]
	assert.Zero(t, b.Takedown(56).Mark, "no piece is cut through")
	assert.Contains(t, strings.Join(b.Takedown(56).Before, " "), "both blades in sight", "a turn that will not give may still be snipped")
}

// Every piece of a head is accounted for, whatever happens to it.
func TestAccountCloses(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		b := head()
		log := chair.Log{Pieces: []chair.PieceLog{
			{Piece: chair.Piece{Key: "twist", Name: "Twist"}, Used: 12, Spoilt: rapid.IntRange(0, 3).Draw(t, "spoilt"), Left: rapid.IntRange(0, 9).Draw(t, "left")},
			{Piece: chair.Piece{Key: "loc", Name: "Loc"}, Used: 50},
		}}
		var entries []Entry
		for i := range rapid.IntRange(0, 6).Draw(t, "entries") {
			e := Entry{ID: string(rune('a'+i)) + "-entry-123", Day: i, Piece: rapid.SampledFrom([]string{"twist", "loc"}).Draw(t, "piece")}
			e.Kind = rapid.SampledFrom([]Kind{Mended, Replaced, Lost}).Draw(t, "kind")
			e.Count = rapid.IntRange(1, 4).Draw(t, "count")
			if e.Check(&b, hangs(), entries) == nil {
				entries = append(entries, e)
			}
		}
		down := Entry{ID: "down-12345", Day: 40, Kind: Down, Saved: []Saved{{"loc", rapid.IntRange(0, 30).Draw(t, "good"), rapid.IntRange(0, 8).Draw(t, "worn")}}}
		if rapid.Bool().Draw(t, "down") && down.Check(&b, hangs(), entries) == nil {
			entries = append(entries, down)
		}
		s := b.Fold(hangs(), entries)
		for _, a := range s.Account(log) {
			assert.Equal(t, a.Came, a.Hangs+a.UsedUp+a.Spoilt+a.Saved+a.Left)
			assert.GreaterOrEqual(t, a.Hangs, 0)
			assert.GreaterOrEqual(t, a.UsedUp, 0)
			repaired := s.Replacements[a.Piece]
			came := map[string]int{"twist": 12 + log.Pieces[0].Spoilt + log.Pieces[0].Left, "loc": 50}[a.Piece]
			assert.Equal(t, came+repaired, a.Came, "what came is what was at hand and what repairs took")
		}
		// The order in which entries are told makes no difference.
		for i, j := 0, len(entries)-1; i < j; i, j = i+1, j-1 {
			entries[i], entries[j] = entries[j], entries[i]
		}
		assert.Equal(t, s, b.Fold(hangs(), entries))
	})
}

// Entries that nobody could make sense of are refused, and the field is named.
func TestEntriesAreChecked(t *testing.T) {
	b := head()
	down := Entry{ID: "down-12345", Day: 40, Kind: Down}
	for name, c := range map[string]struct {
		e      Entry
		others []Entry
		path   string
	}{
		"no kind":             {Entry{Kind: "eaten"}, nil, "kind"},
		"before it was done":  {Entry{Kind: Noted, Text: "x", Day: -1}, nil, "on"},
		"a look at nothing":   {Entry{Kind: Checked}, nil, "signs"},
		"an unknown sign":     {Entry{Kind: Checked, Signs: map[string]Grade{"aura": 1}}, nil, "signs.aura"},
		"a grade there's not": {Entry{Kind: Checked, Signs: map[string]Grade{"odour": 3}}, nil, "signs.odour"},
		"no piece":            {Entry{Kind: Lost, Count: 1}, nil, "piece"},
		"more than hang":      {Entry{Kind: Lost, Piece: "twist", Count: 13}, nil, "count"},
		"more saved than":     {Entry{Kind: Down, Saved: []Saved{{"loc", 40, 11}}}, nil, "saved[0].worn"},
		"things there's not":  {Entry{Kind: Down, Things: []int{1}}, nil, "things"},
		"down twice":          {Entry{Kind: Down, Day: 41}, []Entry{down}, "kind"},
		"seen once down":      {Entry{Kind: Checked, Day: 41, Signs: map[string]Grade{"odour": 0}}, []Entry{down}, "kind"},
		"three rows":          {Entry{Kind: RingOff, Rows: 3}, nil, "rows"},
	} {
		fields := invalid.From(c.e.Check(&b, hangs(), c.others))
		require.NotEmpty(t, fields, name)
		assert.Equal(t, c.path, fields[0].Path, name)
	}
	assert.NoError(t, (&Entry{Kind: Noted, Text: "Wash day", Day: 41}).Check(&b, hangs(), []Entry{down}), "a note may come later")
}

// Care follows what hangs and what it bears: no water for what is twined, curls taken apart by hand,
// edges left alone where they are not strong. Usual practice, no source.
func TestCareFollowsTheHead(t *testing.T) {
	keys := func(b Brief) (out []string) {
		for _, c := range b.Care() {
			out = append(out, c.Key)
		}
		return out
	}
	b := head()
	assert.Contains(t, keys(b), "dry")
	assert.NotContains(t, keys(b), "curls")
	assert.NotContains(t, keys(b), "edges")
	b.Water, b.Edges = method.Dry, hair.FragileEdges
	assert.NotContains(t, keys(b), "dry")
	assert.Contains(t, keys(b), "edges")
	b.Parts[0].Form, b.Water, b.Child = hair.CurlyBulk, method.Swim, true
	assert.Subset(t, keys(b), []string{"curls", "swim", "child", "call"})
	dates := b.Dates(b.Clock(usual, fold(b), 0))
	assert.Equal(t, DateDown, dates[len(dates)-1].Key)
}

// Rest: longer after a long wear, where edges are not strong, and longest where it hurt.
func TestRestGrowsWithWear(t *testing.T) {
	b := head()
	days := func(d int, felt Comfort, e Change) int { n, _ := b.Rest(d, felt, e); return n }
	assert.Less(t, days(28, Comfortable, Same), days(56, Comfortable, Same))
	assert.Less(t, days(56, Comfortable, Same), days(100, Comfortable, Same))
	assert.GreaterOrEqual(t, days(28, Painful, Same), 28)
	assert.GreaterOrEqual(t, days(28, Comfortable, Worse), 28)
}

// Whatever is told of a head, the fold stands: counts stay in bounds, and a check never panics.
func FuzzFold(f *testing.F) {
	f.Add("checked", "pulling", 2, 5, 0, "twist", 3)
	f.Add("taken-down", "odour", 1, 40, 1, "loc", 60)
	f.Add("renewed", "", 0, -3, 2, "", -1)
	f.Fuzz(func(t *testing.T, kind, sign string, grade, day, rows int, piece string, count int) {
		b := head()
		e := Entry{
			ID: "fuzzed-entry", Day: day, Kind: Kind(kind), Signs: map[string]Grade{sign: Grade(grade)}, Piece: piece, Count: count, Rows: rows,
			Saved: []Saved{{piece, count, rows}}, Things: []int{count}, Text: sign,
		}
		if e.Check(&b, hangs(), nil) != nil {
			return
		}
		s := b.Fold(hangs(), []Entry{e})
		for key, n := range s.Saved {
			assert.LessOrEqual(t, n, hangs()[key])
			assert.GreaterOrEqual(t, n, 0)
		}
		c := b.Clock(usual, s, max(0, day))
		assert.LessOrEqual(t, c.From, c.Latest)
		b.Renewals(max(0, day), s, c)
		for _, a := range s.Advice() {
			assert.NotEmpty(t, a.Text)
			assert.GreaterOrEqual(t, a.Within, 0)
		}
	})
}

// Every sign says where to look and what each answer means, is asked once, and its worst answer always
// leads to something to do.
func TestEverySignLeadsSomewhere(t *testing.T) {
	for _, day := range []int{0, 10, 30, 100} {
		list := SignsOn(day)
		require.Len(t, list, len(signs))
		seen := map[string]bool{}
		late := false
		for _, s := range list {
			assert.False(t, seen[s.Key], s.Key)
			seen[s.Key] = true
			assert.NotEmpty(t, s.Where)
			for _, g := range s.Grades {
				assert.NotEmpty(t, g)
			}
			assert.Empty(t, Advise(map[string]Grade{s.Key: None}, day))
			some, bad := Advise(map[string]Grade{s.Key: Some}, day), Advise(map[string]Grade{s.Key: Bad}, day)
			require.NotEmpty(t, some, s.Key)
			require.NotEmpty(t, bad, s.Key)
			assert.LessOrEqual(t, deedRank(bad[0].Do), deedRank(some[0].Do), "%s: worse is not graver", s.Key)
			late = late || s.Since > day
			assert.Equal(t, late, s.Since > day, "what is to be expected by then comes first")
		}
	}
}

func deedRank(d Do) int {
	for i, x := range deeds {
		if x == d {
			return i
		}
	}
	return -1
}

// A week before its day a head is soon due, on its day it is, and after the last that speaks for it it is over.
func TestClockStates(t *testing.T) {
	b := head()
	planned := b.Clock(usual, fold(b), 0).Planned
	for day, want := range map[int]ClockState{0: Fine, planned - 8: Fine, planned - 7: Soon, planned - 1: Soon, planned: Due, planned + 1: Over} {
		assert.Equal(t, want, b.Clock(usual, fold(b), day).State, "day %d", day)
	}
	smelt := fold(b, Entry{ID: "look-1234", Day: 20, Kind: Checked, Signs: map[string]Grade{"odour": Bad}})
	assert.Equal(t, Due, b.Clock(usual, smelt, 22).State, "brought forward it is due, not over")
}

// What protects a head is passed by nothing: not by rows done again, not by a house that wears long.
func TestNothingPassesWhatProtects(t *testing.T) {
	long := Rules{Weeks{8, 16}, true}
	for name, protect := range map[string]func(*Brief){
		"a child with bare edges": func(b *Brief) { b.Child, b.Edges = true, hair.BareEdges },
		"a child":                 func(b *Brief) { b.Child = true },
		"fragile edges":           func(b *Brief) { b.Edges = hair.FragileEdges },
		"a tender scalp":          func(b *Brief) { b.Tender = true },
	} {
		b := head()
		protect(&b)
		for _, r := range []Rules{usual, long} {
			most := 7 * b.protected(r)
			s := fold(b, Entry{ID: "again-1234", Day: 24, Kind: Renewed, Rows: 2})
			assert.LessOrEqual(t, b.Clock(r, s, 30).Planned, most, name)
			for _, x := range b.Renewals(22, fold(b), b.Clock(r, fold(b), 22)) {
				assert.LessOrEqual(t, b.Clock(r, fold(b), 22).Planned+7*x.Weeks, most, name)
			}
		}
	}
	// A grave answer stands, whatever the house says and whatever is done again.
	b := head()
	s := fold(b, Entry{ID: "look-1234", Day: 20, Kind: Checked, Signs: map[string]Grade{"sores": Bad}}, Entry{ID: "again-1234", Day: 20, Kind: Renewed, Rows: 1})
	c := b.Clock(long, s, 30)
	assert.Equal(t, 21, c.Planned)
	assert.Equal(t, Over, c.State)
}

// A question that a look leaves out keeps its last answer; of two looks on one day the later one counts,
// whatever their ids; an answer that it is gone ends it.
func TestAnUnansweredQuestionKeepsItsAnswer(t *testing.T) {
	b := head()
	look := func(id string, day int, at int64, signs map[string]Grade) Entry {
		return Entry{ID: id, Day: day, At: at, Kind: Checked, Signs: signs}
	}
	grave := look("look-0001", 10, 1, map[string]Grade{"sores": Bad, "itching": None})
	part := look("look-0002", 11, 2, map[string]Grade{"itching": None})
	s := fold(b, grave, part)
	require.NotEmpty(t, s.Advice())
	assert.Equal(t, TakeDown, s.Advice()[1].Do)
	assert.Equal(t, 11, b.Clock(usual, s, 11).Planned, "by the day after it was found, not after it was left out")
	assert.Empty(t, fold(b, grave, part, look("look-0003", 13, 3, map[string]Grade{"sores": None})).Advice())

	gone := look("a-first-id", 10, 9, map[string]Grade{"sores": None})
	assert.Empty(t, fold(b, gone, grave).Advice(), "told later on the same day")
	gone.ID, gone.At = "z-last-one", 0
	assert.NotEmpty(t, fold(b, gone, grave).Advice(), "told earlier on the same day")
}

// No more comes back of a piece than hangs, over all entries together.
func TestNoMoreComesBackThanHangs(t *testing.T) {
	b := head()
	off := Entry{ID: "ring-12345", Day: 20, Kind: RingOff, Rows: 1, Saved: []Saved{{"loc", 20, 0}}}
	down := Entry{ID: "down-12345", Day: 40, Kind: Down, Saved: []Saved{{"loc", 31, 0}}}
	assert.ErrorContains(t, down.Check(&b, hangs(), []Entry{off}), "Good ones")
	down.Saved[0].Good = 30
	assert.NoError(t, down.Check(&b, hangs(), []Entry{off}))
}

// Swelling, short breath and a rash that spreads are for a clinician today, and it comes down today.
// Common practice (first aid), no source.
func TestAReactionIsForToday(t *testing.T) {
	list := Advise(map[string]Grade{"reaction": Bad}, 3)
	require.Len(t, list, 2)
	for _, a := range list {
		assert.Zero(t, a.Within)
	}
	assert.Equal(t, Clinician, list[0].Do)
	assert.Contains(t, list[0].Text, "emergency")
	b := head()
	assert.Equal(t, 3, b.Clock(usual, fold(b, Entry{ID: "look-1234", Day: 3, Kind: Checked, Signs: map[string]Grade{"reaction": Bad}}), 3).Planned)
}

// Words of care do not contradict each other, and count their weeks.
func TestWordsOfCare(t *testing.T) {
	b := head()
	for _, c := range b.Care() {
		if c.Key == "night" {
			assert.NotContains(t, c.Text, "on top")
		}
	}
	for _, days := range []int{0, 3, 7, 10, 30, 70} {
		_, why := b.Rest(days, "", "")
		assert.NotRegexp(t, `\b[01] weeks`, why)
	}
	assert.Equal(t, "Worn for 2 to 3 weeks, and taken down by then: twine and lock.", Told{Weeks: Weeks{2, 3}, Why: "Twine and lock"}.Says())
	assert.Contains(t, Told{Weeks: Weeks{1, 1}}.Says(), "for 1 week,")
}
