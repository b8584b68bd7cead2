package attach_test

import (
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"

	"kladotex/core/attach"
	"kladotex/core/method"
	"kladotex/core/method/moves"
	"kladotex/core/need"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
)

// word is one to a reader: a number with its unit, a length put in and a word with an apostrophe are one each.
var word = regexp.MustCompile(`\{\w+\}|[\p{L}\p{N}][\p{L}\p{N}’'.½-]*`)

// A step is read with wet hands and a mirror: no step, caption or sentence about a method is longer than 22
// words, whatever is chosen and wherever it is done.
func TestNoStepIsLongerThanTwentyTwoWords(t *testing.T) {
	const most = 22
	seen := map[string]bool{}
	check := func(text string) {
		if n := len(word.FindAllString(text, -1)); !seen[text] && n > most {
			t.Errorf("%d words: %s", n, text)
		}
		seen[text] = true
	}
	steps := func(list []method.Step) {
		for _, s := range list {
			check(s.Text)
		}
	}
	told := func(in plan.Input) {
		sol := plantest.Solve(t, in)
		for _, w := range attach.Of(sol) {
			steps(w.Steps)
			steps(w.TakeDown)
		}
		before, after := attach.Around(in)
		steps(before)
		steps(after)
		need, err := need.Of(sol)
		assert.NoError(t, err)
		for _, task := range tasks(sol, need) {
			steps(task.Steps)
		}
	}
	for _, m := range method.Catalogue {
		for _, text := range []string{m.Summary, m.Mistake, m.Mend} {
			check(text)
		}
		for _, structure := range []parting.Structure{parting.AllIndividuals, parting.EarToEar, parting.NetCap, parting.Linked} {
			if structure == parting.AllIndividuals && !m.On(method.OnPlait) {
				continue
			}
			base := parting.Cornrows
			if structure == parting.NetCap {
				base = parting.Net
			}
			in := plantest.Of(plantest.Hung(m.Takes[0], 18, 8), plantest.On(structure, base))
			switch {
			case m.On(method.OnPlait):
				in = plantest.AttachBy(in, m.ID)
			case m.On(method.OnEnd):
				in = plantest.FedIn()
			default:
				in.Ways[1] = plan.NewWay(in.Ways[1].Key, m.ID)
			}
			in.Hair.Tender = true
			for _, c := range m.Choices {
				for _, o := range c.Options {
					for i := range in.Ways {
						if in.Ways[i].Method == m.ID {
							in.Ways[i] = plan.NewWay(in.Ways[i].Key, m.ID).With(c.Key, o.Key)
						}
					}
					told(in)
				}
			}
			told(in)
		}
	}
	for _, c := range plan.Customs {
		for _, side := range c.Sides {
			in := plan.Default()
			in.Customs = map[string]string{c.Key: side.Key}
			in.Plaits.Band, in.Plaits.Fed = true, 50
			told(in)
		}
	}
	for _, id := range moves.IDs() {
		f, _ := moves.Lookup(id)
		for _, frame := range f.Frames {
			check(frame.Says)
		}
	}
	assert.Greater(t, len(seen), 300)
}

func tasks(sol *plan.Solved, n need.Need) []need.Task { return need.Tasks(sol, n) }
