package method

import (
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/plait"
)

// job is a usual one of a method: a plait of some length, a piece it takes.
func job(t *testing.T, id ID, length float64) (Method, Job) {
	t.Helper()
	m, ok := Lookup(id)
	require.True(t, ok, id)
	base := plait.Plait{Area: 645, Hairs: 1226, Diameter: 4, Braided: length}
	if m.Base == Anchored {
		base.Braided = min(length, 22)
		base.Twisted = length - base.Braided
	}
	return m, Job{
		Ground: m.Grounds[0], Plait: base, Hair: length / craft.BraidTakeUp,
		Piece:    hair.Piece{Name: "Piece", Form: m.Takes[len(m.Takes)-1], Length: 18 * inch, Thickness: 9, Mass: 4},
		Settings: m.Set(nil), Chosen: m.Decided(nil), Wrapping: &hair.Wrapping{StrandLength: 24 * inch, Strands: 60, PackMass: 100}, Spacing: 19,
	}
}

func judged(m Method, j Job) (out []advice.Notice) {
	for _, f := range m.Judge(j) {
		out = append(out, f.Notice())
	}
	return out
}

func steps(m Method, short, long Job) []Step {
	return m.Steps(Range{short, long, m.For(short), m.For(long)})
}

// scissors finds moves in which something is cut.
var scissors = regexp.MustCompile(`\b(cut|clip|clipped|trim|snip)\b`)

func TestCatalogueIsWhole(t *testing.T) {
	families := map[Family]bool{}
	for _, m := range Catalogue {
		_, j := job(t, m.ID, max(6*inch, m.LeastHair))
		families[m.Family] = true
		for field, said := range map[string]string{"name": m.Name, "summary": m.Summary, "hides": m.HidesBy, "root": m.Root, "wash": m.Wash, "mistake": m.Mistake, "way out": m.Mend} {
			assert.NotEmpty(t, said, "%s of %s", field, m.ID)
		}
		list := steps(m, j, j)
		assert.Greater(t, len(list), 4, m.ID)
		off, mark := m.TakeDown(Range{j, j, m.For(j), m.For(j)})
		assert.GreaterOrEqual(t, len(off), 2, m.ID)
		assert.Equal(t, strings.Contains(fmt.Sprint(off), "Below the mark cut freely"), mark > 0, "%s says where to cut", m.ID)
		assert.Equal(t, mark > 0, slices.ContainsFunc(off[min(1, len(off)-1):], func(s Step) bool {
			return regexp.MustCompile(`(?i)\b(cut|trim)\b.*below the mark|hanging part`).MatchString(s.Text)
		}), "%s cuts below its mark", m.ID)
		glued := maps.Clone(j.Chosen)
		if glued["tip"] != "" {
			glued["tip"] = "glue"
		}
		j.Chosen = glued
		stuck, _ := m.TakeDown(Range{j, j, m.For(j), m.For(j)})
		for _, s := range append(off[min(1, len(off)-1):], stuck[min(1, len(stuck)-1):]...) {
			if said := strings.ToLower(s.Text); scissors.MatchString(said) && !strings.Contains(said, "nothing is cut") {
				assert.Regexp(t, "below the mark|clear on the tail of a comb|point of a comb|hold it away", said, "%s: a cut says how own hair is known to be away", m.ID)
			}
		}
		if glued["tip"] == "glue" {
			assert.Contains(t, fmt.Sprint(stuck), "Never pull the plait out of glue", m.ID)
			assert.NotContains(t, fmt.Sprint(off), "glue", m.ID)
		}
		for _, s := range append(list, off...) {
			for name := range s.Lengths {
				assert.Contains(t, s.Text, "{"+name+"}", m.ID)
			}
			assert.Equal(t, strings.Count(s.Text, "{"), len(s.Lengths), s.Text)
		}
		assert.Empty(t, judged(m, j), m.ID)
		var bad invalid.Errors
		m.Check(&bad, "", m.Usual())
		assert.Empty(t, bad, "%s starts from settings it takes", m.ID)
		for _, c := range m.Choices { // every option is said or done, and taken
			assert.Greater(t, len(c.Options), 1, c.Key)
			seen := map[string]bool{}
			for _, o := range c.Options {
				with := m.Decided(m.Choosing(nil, c.Key, o.Key))
				m.CheckChoices(&bad, "", Chosen{c.Key: o.Key})
				assert.Empty(t, bad)
				other := j
				other.Chosen = with
				if m.On(OnCornrow) {
					other.Ground = OnCornrow
				}
				seen[fmt.Sprint(steps(m, other, other))] = true
			}
			assert.Len(t, seen, len(c.Options), "%s: its steps follow the choice of %s", m.ID, c.Key)
			assert.Contains(t, m.Decided(nil), c.Key)
		}
	}
	assert.Len(t, families, 5)
	assert.Len(t, Catalogue, 17)
	assert.Len(t, IDs(), len(Catalogue))
	_, ok := Lookup("X9")
	assert.False(t, ok)
}

// Whatever a place is like, exactly one of the grounds of a head can be had by some
// method.
func TestEveryGroundHasAMethod(t *testing.T) {
	for _, g := range Grounds {
		found := false
		for _, m := range Catalogue {
			found = found || m.On(g)
		}
		assert.True(t, found, g)
	}
}

func TestPassesCoverTheHiddenLength(t *testing.T) {
	for hidden, want := range map[float64]int{1 * inch: 1, 2 * inch: 1, 2.01 * inch: 2, 6 * inch: 3, 7 * inch: 4} {
		m, j := job(t, HitchAndWeave, hidden)
		assert.Equal(t, want, m.For(j).Passes, "%v in", hidden/inch)
	}
}

// A step is said as one does it: one pass is not repeated, and where plaits differ so do
// the passes.
func TestStepsFollowTheLengths(t *testing.T) {
	text := func(short, long float64) (all string) {
		m, a := job(t, HitchAndWeave, short)
		_, b := job(t, HitchAndWeave, long)
		for _, s := range steps(m, a, b) {
			all += s.Text + "\n"
		}
		return all
	}
	assert.NotContains(t, text(inch, inch), "Repeat")
	assert.Contains(t, text(inch, inch), "One pass is enough")
	assert.Contains(t, text(6*inch, 6*inch), "3 passes in all")
	assert.Contains(t, text(3*inch, 7*inch), "2 to 4 passes, as long as it is")
	m, a := job(t, FoldAndTwist, 3*inch)
	_, b := job(t, FoldAndTwist, 6*inch)
	assert.Equal(t, map[string]float64{"from": 3 * inch, "to": 6 * inch}, steps(m, a, b)[5].Lengths)
}

// Common practice, no source: some locs take one strand of wrapping hair (24 in), long
// ones two.
func TestWrapTakesOneStrandOrTwo(t *testing.T) {
	m, short := job(t, CollarAndWrap, 6*inch)
	assert.Equal(t, 1, m.For(short).Strands)
	_, long := job(t, CollarAndWrap, 10*inch)
	assert.Equal(t, 2, m.For(long).Strands)
	assert.Zero(t, m.For(short).Passes)
}

func TestJudgementsSayWhatIsWrongAndWhatHelps(t *testing.T) {
	for code, c := range map[advice.Code]struct {
		spoil        func(*Job)
		says, remedy string
	}{
		advice.WrongForm:   {func(j *Job) { j.Piece.Form = hair.Bulk }, "bulk hair", "another"},
		advice.ShortHair:   {func(j *Job) { j.Hair = 40 }, "short", "Hair fed"},
		advice.LongPlait:   {func(j *Job) { j.Plait.Braided = 20 * inch }, "hang out", "at least 50.8 cm (20 in)"},
		advice.FatPlait:    {func(j *Job) { j.Plait.Diameter = 9 }, "show through", "12 mm"},
		advice.ThinPlait:   {func(j *Job) { j.Plait.Diameter = 1.2 }, "thin under", "6.6 mm"},
		advice.TightLoop:   {func(j *Job) { j.Piece.Loop, j.Plait.Diameter, j.Piece.Thickness = 8.4, 6.5, 8.2 }, "loop opens 8 mm", "Stretch"},
		advice.OwnLoop:     {func(j *Job) { j.Piece.Loop = 8 }, "own loop, which opens 8 mm", "Stretch the loops to 11 mm"},
		advice.TenderScalp: {func(j *Job) { j.TenderScalp = true }, "tightens the base", "loosen now"},
	} {
		m, j := job(t, HitchAndWeave, 6*inch)
		c.spoil(&j)
		found := judged(m, j)
		require.Len(t, found, 1, code)
		assert.Equal(t, code, found[0].Code)
		assert.Contains(t, found[0].Reason, c.says)
		assert.Contains(t, found[0].Remedy, c.remedy)
	}
	// A plait longer than its piece is told by every method that hides one.
	for _, m := range Catalogue {
		if _, j := job(t, m.ID, 37*inch); m.On(OnPlait) && m.ID != HiddenKnot {
			if found := judged(m, j); assert.Len(t, found, 1, m.ID) {
				assert.Equal(t, advice.LongPlait, found[0].Code, m.ID)
			}
		}
	}
}

// Common practice, no source, for heads with 6 in of hair where nothing else is said; parting
// 0.55 min and plaiting 0.011 min/mm of it, a quarter more on own head.
func TestTimesOfCommonPractice(t *testing.T) {
	const ownHead = 1.25
	plaiting := func(length float64) float64 { return 0.55 + 0.011*length }
	each := func(id ID, length float64) float64 {
		m, j := job(t, id, length)
		w := m.For(j)
		return w.Minutes(m.Pieces(j.Settings))
	}
	for _, c := range []struct {
		what      string
		minutes   float64
		low, high float64
	}{
		{"70 close-set hooks on own head, 45 min", 70 * each(CornrowHitch, 150) * ownHead, 34, 56},
		{"120 hooks with sorting, 40 to 60 min", 120 * each(CornrowHitch, 150), 40, 60},
		{"55 coil locs plaited and closed, 5 to 6 h", 55 * (plaiting(150) + each(OpenCoil, 150)) * ownHead, 300, 360},
		{"45 collar-and-wrap locs after the plaits, 3 h at most", 45 * each(CollarAndWrap, 150), 90, 180},
		{"43 banded locs on long hair, 4 h", 43 * (plaiting(180) + each(Banded, 180)), 210, 270},
	} {
		assert.True(t, c.low <= c.minutes && c.minutes <= c.high, "%s: %.0f min", c.what, c.minutes)
	}
	m, j := job(t, Stack, 150)
	j.Settings = Settings{"stations": 5}
	assert.Greater(t, 40*m.For(j).Attach*float64(m.Pieces(j.Settings)), 180.0, "five pieces on forty plaits: over 3 h")
}

// One more draw on a large section, two on a small one, never more; three on an accent.
// Common practice, no source.
func TestExtraDraws(t *testing.T) {
	m, j := job(t, HitchAndZigzag, 2*inch)
	told := func(hair string, area float64) (string, float64) {
		j.Chosen, j.Plait.Area = m.Decided(Chosen{"hair": hair}), area
		return fmt.Sprint(steps(m, j, j)), m.For(j).Attach
	}
	plaited, base := told("plaited", 645)
	assert.NotContains(t, plaited, "once more")
	large, one := told("loose", 645)
	assert.Contains(t, large, "once more")
	small, two := told("loose", 360)
	assert.Contains(t, small, "twice more")
	accent, three := told("accent", 360)
	assert.Contains(t, accent, "twice more")
	assert.InDelta(t, one-base, (two-base)/2, 1e-9)
	assert.InDelta(t, two, three, 1e-9)
	assert.True(t, m.For(j).Unplaited)
}

// A plait thicker than the piece takes it shows: 0.8 of a twist, 0.6 of a braid, and under a
// wrap a fat base is told. A snug root leaves a thick piece no room. Common practice, no
// source.
func TestPlaitAgainstPiece(t *testing.T) {
	for id, c := range map[ID]struct{ fits, fat float64 }{
		HitchAndWeave: {7.1, 7.3}, HitchAndZigzag: {5.3, 5.5}, OpenCoil: {7.1, 7.3}, CollarAndWrap: {8.1, 8.4},
	} {
		m, j := job(t, id, 6*inch)
		j.Plait.Diameter = c.fits
		assert.Empty(t, judged(m, j), id)
		j.Plait.Diameter = c.fat
		if found := judged(m, j); assert.Len(t, found, 1, id) {
			assert.Equal(t, advice.FatPlait, found[0].Code, id)
		}
	}
	m, j := job(t, HitchAndWeave, 6*inch)
	j.Snug = true
	require.Len(t, judged(m, j), 1)
	assert.Equal(t, advice.TightRoot, judged(m, j)[0].Code)
	j.Piece.Thickness = 6
	assert.Empty(t, judged(m, j))
	m, j = job(t, SharedLoop, 6*inch)
	j.TenderScalp = true
	require.Len(t, judged(m, j), 1)
	assert.Equal(t, advice.Danger, judged(m, j)[0].Severity, "not for a tender scalp")
	m, j = job(t, AnchorTwist, 6*inch)
	j.Plait = plait.Plait{Area: 645, Hairs: 1226, Diameter: 4, Braided: 150}
	require.Len(t, judged(m, j), 1)
	assert.Equal(t, advice.WrongBase, judged(m, j)[0].Code)
}

// Long hair is woven back up, where the method can.
func TestLongHairIsWoundBack(t *testing.T) {
	m, j := job(t, HitchAndWeave, 24*inch)
	require.Len(t, judged(m, j), 1)
	j.Chosen = m.Decided(Chosen{"long": "back"})
	assert.Empty(t, judged(m, j))
	assert.Contains(t, fmt.Sprint(steps(m, j, j)), "turn round")
}

func TestUnknownChoicesAreRefused(t *testing.T) {
	m, _ := Lookup(HitchAndWeave)
	var bad invalid.Errors
	m.CheckChoices(&bad, "", Chosen{"tip": "sewn", "colour": "red"})
	require.Len(t, bad, 2)
	for _, b := range bad {
		assert.True(t, b.Path == "colour" || strings.Contains(b.Message, "glue"), "%s: %s", b.Path, b.Message)
	}
}

// Where the piece is cut, it is cut an inch below the end of own hair. Common practice,
// no source.
func TestTheMarkLiesBelowTheOwnHair(t *testing.T) {
	m, short := job(t, HitchAndWeave, 4*inch)
	_, long := job(t, HitchAndWeave, 7*inch)
	_, mark := m.TakeDown(Range{short, long, m.For(short), m.For(long)})
	assert.InDelta(t, 8*inch, mark, 1e-9)
}
