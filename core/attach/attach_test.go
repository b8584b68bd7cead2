package attach

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/pieces"
)

const inch = 25.4

// job is a usual one: a six-inch plait, a soft loc.
var job = Job{
	PlaitLength: 6 * inch, PlaitDiameter: 4, PieceForm: pieces.Loc, PieceLength: 18 * inch, PieceDiameter: 9,
	Pitch: 2 * inch, Ribbon: 6, WrapTail: 2.5 * inch,
}

func TestCatalogueIsWhole(t *testing.T) {
	families := map[Family]bool{}
	for _, id := range IDs {
		m, ok := Lookup(id)
		require.True(t, ok, id)
		assert.Equal(t, id, m.ID)
		families[m.Family] = true
		for field, text := range map[string]string{"name": m.Name, "summary": m.Summary, "hides": m.HidesBy, "root": m.Root, "wash": m.Wash, "undo": m.Undo} {
			assert.NotEmpty(t, text, "%s of %s", field, id)
		}
		j := job
		j.PieceForm = m.Takes[0]
		w := m.For(j)
		assert.Greater(t, len(w.Steps), 4, id)
		for _, s := range w.Steps {
			assert.Equal(t, strings.Contains(s.Text, "{length}"), len(s.Lengths) > 0, s.Text)
		}
		assert.Empty(t, w.Concerns, id)
		// Common practice, no source: hiding a plait takes 2 to 5 minutes in all.
		assert.True(t, w.Attach+w.Conceal >= 1.5 && w.Attach+w.Conceal <= 5, "%s takes %v min", id, w.Attach+w.Conceal)
	}
	assert.Len(t, families, 3)
	_, ok := Lookup("X9")
	assert.False(t, ok)
}

func TestPassesCoverTheHiddenLength(t *testing.T) {
	m, _ := Lookup(HitchAndWeave)
	for hidden, want := range map[float64]int{1 * inch: 1, 2 * inch: 1, 2.01 * inch: 2, 6 * inch: 3, 7 * inch: 4} {
		j := job
		j.PlaitLength = hidden
		assert.Equal(t, want, m.For(j).Passes, "%v in", hidden/inch)
	}
}

// A step is said as one does it: one pass is not repeated, and a plait longer than its
// piece is refused by every family, with the length that hides it.
func TestStepsAndConcernsFollowTheLengths(t *testing.T) {
	weave, _ := Lookup(HitchAndWeave)
	text := func(plait float64) (all string) {
		j := job
		j.PlaitLength = plait
		for _, s := range weave.For(j).Steps {
			all += s.Text + "\n"
		}
		return all
	}
	assert.NotContains(t, text(inch), "Repeat")
	assert.Contains(t, text(inch), "One pass is enough")
	assert.Contains(t, text(6*inch), "3 passes in all")
	assert.NotContains(t, text(6*inch), "over nothing")
	for _, id := range IDs {
		m, _ := Lookup(id)
		j := job
		j.PieceForm, j.PieceLength, j.PlaitLength = m.Takes[0], 8*inch, 9*inch
		require.Len(t, m.For(j).Concerns, 1, id)
		assert.Contains(t, m.For(j).Concerns[0], "at least 22.9 cm (9 in)", id)
		j.PieceLength = 9 * inch
		assert.Empty(t, m.For(j).Concerns, id)
	}
}

// Common practice, no source: some locs take one strand of wrapping hair (24 in),
// long ones two.
func TestWrapTakesOneStrandOrTwo(t *testing.T) {
	m, _ := Lookup(CollarAndWrap)
	short := m.For(job)
	assert.Less(t, short.WrapRibbon, 24*inch)
	long := job
	long.PlaitLength = 10 * inch
	assert.Greater(t, m.For(long).WrapRibbon, 24*inch)
	assert.Less(t, m.For(long).WrapRibbon, 48*inch)
	assert.Zero(t, short.Passes)
}

func TestConcernsSayWhatIsWrong(t *testing.T) {
	weave, _ := Lookup(HitchAndWeave)
	for want, spoil := range map[string]func(*Job){
		"bulk hair":    func(j *Job) { j.PieceForm = pieces.Bulk },
		"short":        func(j *Job) { j.PlaitLength = 20 },
		"hang out":     func(j *Job) { j.PlaitLength = 20 * inch },
		"show through": func(j *Job) { j.PlaitDiameter = 9 },
		"loosen now":   func(j *Job) { j.TenderScalp = true },
	} {
		j := job
		spoil(&j)
		concerns := weave.For(j).Concerns
		require.Len(t, concerns, 1, want)
		assert.Contains(t, concerns[0], want)
	}
}
