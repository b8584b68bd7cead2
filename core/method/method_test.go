package method

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/advice"
	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/plait"
)

// job is a usual one of a method: a plait of some length, a piece it takes.
func job(t *testing.T, id ID, length float64) (Method, Job) {
	t.Helper()
	m, ok := Lookup(id)
	require.True(t, ok, id)
	return m, Job{
		Ground: m.Grounds[0], Plait: plait.Plait{Area: 645, Hairs: 1226, Diameter: 4, Braided: length}, Hair: length / plait.BraidTakeUp,
		Piece:    hair.Piece{Name: "Piece", Form: m.Takes[len(m.Takes)-1], Length: 18 * inch, Thickness: 9, Mass: 4},
		Settings: m.Usual(), Wrapping: &hair.Wrapping{StrandLength: 24 * inch, Strands: 60, PackMass: 100}, Spacing: 19,
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

func TestCatalogueIsWhole(t *testing.T) {
	families := map[Family]bool{}
	for _, m := range Catalogue {
		_, j := job(t, m.ID, 6*inch)
		families[m.Family] = true
		for field, said := range map[string]string{"name": m.Name, "summary": m.Summary, "hides": m.HidesBy, "root": m.Root, "wash": m.Wash, "undo": m.Undo} {
			assert.NotEmpty(t, said, "%s of %s", field, m.ID)
		}
		list := steps(m, j, j)
		assert.Greater(t, len(list), 4, m.ID)
		for _, s := range list {
			for name := range s.Lengths {
				assert.Contains(t, s.Text, "{"+name+"}", m.ID)
			}
			assert.Equal(t, strings.Count(s.Text, "{"), len(s.Lengths), s.Text)
		}
		assert.Empty(t, judged(m, j), m.ID)
		var bad invalid.Errors
		m.Check(&bad, "", m.Usual())
		assert.Empty(t, bad, "%s starts from settings it takes", m.ID)
		w := m.For(j)
		if m.On(OnPlait) {
			// Common practice, no source: hiding a plait takes 2 to 5 minutes in all.
			assert.True(t, w.Attach+w.Conceal >= 1.5 && w.Attach+w.Conceal <= 5, "%s takes %v min", m.ID, w.Attach+w.Conceal)
		} else {
			// Common practice, no source: hooking takes 10 to 40 seconds a piece.
			assert.True(t, w.Attach >= 10.0/60 && w.Attach <= 40.0/60, "%s takes %v min", m.ID, w.Attach)
		}
	}
	assert.Len(t, families, 4)
	assert.Len(t, IDs(), len(Catalogue))
	_, ok := Lookup("X9")
	assert.False(t, ok)
}

// Whatever a place is like, exactly one of the grounds of a head can be had by some
// method.
func TestEveryGroundHasAMethod(t *testing.T) {
	for _, g := range []Ground{OnPlait, OnTrack, OnNet, OnLink} {
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
	assert.Contains(t, text(3*inch, 7*inch), "2 to 4 passes in all")
	m, a := job(t, FoldAndTwist, 3*inch)
	_, b := job(t, FoldAndTwist, 6*inch)
	assert.Equal(t, map[string]float64{"from": 3 * inch, "to": 6 * inch}, steps(m, a, b)[4].Lengths)
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
		advice.TightLoop:   {func(j *Job) { j.Piece.Loop = 5 }, "loop opens 5 mm", "Stretch"},
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
		if _, j := job(t, m.ID, 20*inch); m.On(OnPlait) {
			assert.Len(t, judged(m, j), 1, m.ID)
		}
	}
}
