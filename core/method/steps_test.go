package method

import (
	"flag"
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
)

var update = flag.Bool("update", false, "write the steps anew")

// written puts a step down as it is read, its lengths in inches, with what it shows.
func written(s Step) string {
	text := s.Text
	for key, mm := range s.Lengths {
		text = strings.ReplaceAll(text, "{"+key+"}", fmt.Sprintf("%.2f in", mm/inch))
	}
	if c := s.Shows; c != nil {
		text += fmt.Sprintf(" [%s %d–%d]", c.Figure, c.First, c.Last)
	}
	return text
}

// Every method as it is told on 8 in of hair: its steps in order with their drawings, what it
// costs in minutes and hair, its takedown with the mark, and its mistake; and each option
// with what it changes. A change of any of them shows here.
func TestMethodsAsTheyAreTold(t *testing.T) {
	var b strings.Builder
	for _, m := range Catalogue {
		_, j := job(t, m.ID, 8*inch)
		if !m.On(OnPlait) {
			j.Ground, j.Spacing = OnCornrow, 20
		}
		fmt.Fprintf(&b, "%s %s (%s)\n", m.ID, m.Name, m.Family)
		usual := tell(&b, m, j)
		for _, c := range m.Choices {
			for _, o := range c.Options {
				if o.Key == c.Usual {
					continue
				}
				other := j
				other.Chosen = m.Decided(m.Choosing(nil, c.Key, o.Key))
				var told strings.Builder
				tell(&told, m.As(other.Chosen), other)
				fmt.Fprintf(&b, "  %s: %s\n", strings.ToLower(c.Name), strings.ToLower(o.Name))
				for _, line := range strings.Split(strings.TrimSpace(told.String()), "\n") {
					if !strings.Contains(usual, strings.TrimSpace(line)) {
						fmt.Fprintf(&b, "    %s\n", strings.TrimSpace(line))
					}
				}
			}
		}
		fmt.Fprintf(&b, "  wrong: %s [%s]\n  the way out: %s\n\n", m.Mistake, m.Wrong, m.Mend)
	}
	const file = "testdata/methods.txt"
	if *update {
		require.NoError(t, os.MkdirAll("testdata", 0o755))
		require.NoError(t, os.WriteFile(file, []byte(b.String()), 0o644))
	}
	kept, err := os.ReadFile(file)
	require.NoError(t, err)
	assert.Equal(t, string(kept), b.String())
}

// tell writes what a method is at a job, and gives it back too.
func tell(b *strings.Builder, m Method, j Job) string {
	var out strings.Builder
	w := m.For(j)
	fmt.Fprintf(&out, "  %d pieces, %.2f + %.2f min, %d passes, %.0f mm of wrapping hair in %.0f turns\n", m.Pieces(j.Settings), w.Attach, w.Conceal, w.Passes, w.Ribbon, w.Turns)
	r := Range{j, j, w, w}
	for _, s := range m.Steps(r) {
		fmt.Fprintf(&out, "  - %s\n", written(s))
	}
	off, mark := m.TakeDown(r)
	for _, s := range off {
		fmt.Fprintf(&out, "  < %s\n", written(s))
	}
	fmt.Fprintf(&out, "  cut below %.2f in\n", mark/inch)
	b.WriteString(out.String())
	return out.String()
}

// What a method is told to do with hair follows from what it is: those that weave say so in
// passes, those that wrap take hair, those that hook say how far apart.
func TestWhatIsToldFollowsTheMethod(t *testing.T) {
	for _, m := range Catalogue {
		_, j := job(t, m.ID, 8*inch)
		if !m.On(OnPlait) {
			j.Ground, j.Spacing = OnCornrow, 20
		}
		w := m.For(j)
		assert.Equal(t, m.Wraps, w.Ribbon > 0, "%s: wrapping hair", m.ID)
		assert.Equal(t, m.Base == Loose && m.On(OnPlait), w.Unplaited && m.Family == Braid, "%s: braided by hand", m.ID)
		told := ""
		for _, s := range m.Steps(Range{j, j, w, w}) {
			told += written(s)
		}
		if w.Passes > 1 {
			assert.Contains(t, told, fmt.Sprintf("%d passes", w.Passes), m.ID)
		}
		if m.Family == Hook {
			assert.Contains(t, told, "further", m.ID)
		}
		assert.NotContains(t, told, "{", "%s: every length is put in", m.ID)
		_, mark := m.TakeDown(Range{j, j, w, w})
		if mark > 0 {
			assert.InDelta(t, j.Plait.Length()+inch, mark, 0.1, "%s: an inch below own hair", m.ID)
		}
		assert.NotEmpty(t, m.Bears(), m.ID)
		for _, form := range m.Takes {
			assert.NotEqual(t, hair.Form(""), form)
		}
	}
}
