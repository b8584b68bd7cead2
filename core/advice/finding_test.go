package advice

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Findings of one kind make one notice, worded where it is worst, about each thing once;
// one that is so everywhere is about nothing in particular.
func TestFindingsAreGatheredByKind(t *testing.T) {
	var g Gathered
	worded := 0
	found := func(code Code, grade float64, reason string) Finding {
		return Finding{code, grade, func() Notice {
			worded++
			return Notice{Code: code, Severity: Look, Reason: reason}
		}}
	}
	g.Add("a", "T1", found(ThinPlait, 1, "thin"))
	g.Add("a", "T1", found(ThinPlait, 3, "thinner"))
	g.Add("a", "T2", found(ThinPlait, 2, "in between"))
	g.Add("b", "T1", found(ThinPlait, 9, "of another group"))
	g.Add("b", "T2", found(TenderScalp, 0, "everywhere"))
	g.Add("b", "T3", found(TenderScalp, 0, "everywhere"))
	out := g.Notices(func(group string) int { return map[string]int{"a": 9, "b": 2}[group] })
	require.Len(t, out, 3)
	assert.Equal(t, "At 3 of 9 spots. The worst: thinner", out[0].Reason)
	assert.Equal(t, []string{"T1", "T2"}, out[0].About)
	assert.Equal(t, "At 1 spot: of another group", out[1].Reason)
	assert.Equal(t, "everywhere", out[2].Reason)
	assert.Empty(t, out[2].About)
	assert.Equal(t, 3, worded, "only the worst is put in words")
}
