package attach_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/attach"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/tally"
)

func told(steps []method.Step) string {
	var b strings.Builder
	for _, s := range steps {
		b.WriteString(s.Text + "\n")
	}
	return b.String()
}

// What is done before and after follows the sides taken; the usual ones are those in bold in
// the trade's schools (common practice, no source).
func TestCustomsAreFollowed(t *testing.T) {
	in := plan.Default()
	before, after := attach.Around(in)
	for _, words := range []string{"stretch it", "two hours", "dry it overnight", "against the roots", "gel"} {
		assert.Contains(t, told(before), words)
	}
	for _, words := range []string{"thin spots", "some minutes under a scarf", "only the roots are washed"} {
		assert.Contains(t, told(after), words)
	}
	for _, c := range plan.Customs {
		keys := map[string]bool{}
		for _, side := range c.Sides {
			in := plan.Default()
			in.Customs = map[string]string{c.Key: side.Key}
			require.NoError(t, plan.Check(in), c.Key)
			before, after := attach.Around(in)
			for _, step := range side.Before {
				assert.Contains(t, told(before), step)
			}
			for _, step := range side.After {
				assert.Contains(t, told(after), step)
			}
			keys[side.Key] = true
		}
		assert.True(t, keys[c.Usual] && len(keys) == len(c.Sides), c.Key)
	}
	in.Customs = map[string]string{"rinse": "new"}
	before, _ = attach.Around(in)
	assert.Contains(t, told(before), "ask a clinician", "unrinsed fibre is a danger to some scalps")

	in.Customs = map[string]string{"moon": "full", "foam": "never"}
	bad := invalid.From(plan.Check(in))
	require.Len(t, bad, 2)
	for _, b := range bad {
		assert.Contains(t, []string{"customs.moon", "customs.foam"}, b.Path)
	}
}

// Steps follow too: water while hooking, and where the first piece goes; packed bases take
// more pieces.
func TestCustomsReachTheSteps(t *testing.T) {
	steps := func(change func(*plan.Input)) (all string, pieces int) {
		in := plan.Default()
		in.Parting = in.Parting.On(parting.EarToEar)
		change(&in)
		res := compute(t, in)
		for _, w := range res.Work {
			all += told(w.Steps)
		}
		return all, res.Tally.Pieces
	}
	usual, air := steps(func(*plan.Input) {})
	assert.Contains(t, usual, "damp plait and piece")
	assert.Contains(t, usual, "Start low at the back")
	dry, _ := steps(func(in *plan.Input) { in.Customs = map[string]string{"moisture": "dry", "start": "front"} })
	assert.NotContains(t, dry, "damp")
	assert.Contains(t, dry, "Start in front")
	_, packed := steps(func(in *plan.Input) { in.Customs = map[string]string{"density": "packed"} })
	assert.Greater(t, packed, air)

	twined := plan.Default()
	twined.Ways[0] = plan.NewWay("w1", method.TwineAndLock)
	_, after := attach.Around(twined)
	assert.Contains(t, told(after), "kept dry", "what untwines in water is not washed")
}

// compute sums up a plan that must work.
func compute(t testing.TB, in plan.Input) tally.Result {
	t.Helper()
	res, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	return res
}
