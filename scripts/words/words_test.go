package main

import (
	"bytes"
	"os"
	"regexp"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const root = "../.."

// found is what there is, collected once for all tests.
var found = sync.OnceValues(func() (both [2][]Texts, err error) {
	both[0], both[1], err = Collect(root)
	return both, err
})

func collected(t *testing.T) (all, buttons []Texts) {
	t.Helper()
	both, err := found()
	require.NoError(t, err, "the pages' packages are installed by make check")
	require.Greater(t, len(both[0]), 200)
	return both[0], both[1]
}

// The list that is kept is the one the program has: make words.
func TestTheListIsCurrent(t *testing.T) {
	t.Parallel()
	all, _ := collected(t)
	var b bytes.Buffer
	Write(&b, all)
	kept, err := os.ReadFile(root + "/docs/words.md")
	require.NoError(t, err)
	assert.True(t, b.String() == string(kept), "docs/words.md is not what the program says: make words")
}

// refused are words of the trade in a sense that has another name here, and phrases that nobody says. What
// may stand all the same is named beside them.
var refused = []struct{ phrase, instead, but string }{
	{`(?i)\bflat plaits?\b|plaits? flat\b`, "cornrow", ""},
	{`(?i)\btracks?\b`, "cornrow", ""},
	{`(?i)\bstations?\b`, "stack", ""},
	{`(?i)\bbase plaits?\b`, "plait", ""},
	{`(?i)\bloose plaits?\b`, "plait", ""},
	{`(?i)\bunits?\b`, "piece", `(?i)minor units|smallest unit|unit vectors?|unit of length|^Unit$|its unit|in a unit`},
	{`(?i)\b(one|first|same) spot\b`, "place", `(?i)at least one spot`},
	{`(?i)\bsessions?\b`, "sitting", `/session|^the session$`},
	{`(?i)\brow lines?\b`, "part line", ""},
	{`(?i)\blength line\b`, "ends", ""},
	{`(?i)\b(another|index of the|key of the|key of a|number of) ways?\b|^Ways?$`, "method", ""},
	{`(?i)\bpieces? at each place\b|\bat \d+ places?\b|\bof %d places\b|of {…} places`, "spot", ""},
	{`(?i)\blast hook\b|%d hooks\b|under a hook|sections or hooks`, "spot", ""},
	{`(?i)\bheads? being worn\b|\bfinished heads?\b`, "install", ""},
	{`(?i)\ba look is due\b|\b(next|last|first) look\b`, "check", ""},
	{`\bfits?\b|\bfitting\b`, "match a count, within your hours", `(?i)^fit$|fit and load|fit on the head|plait and piece fit`},
	{`(?i)\bthe own\b`, "own", ""},
	{`(?i)\bshall\b|\bnobody said\b|\breckon|\bfew necks\b|\bgone for good\b|\bthe middle one\b.*typical|\bforgotten of\b`, "plain words", ""},
	{`(?i)\b(he|she|his|her|hers|him)\b`, "the client, or you", ""},
	{`(?i)\bfoundations?\b|\bassignments?\b`, "structure, what goes where", ""},
}

// One name a thing, one thing a name: no word of the glossary in a second sense.
func TestNoWordIsUsedInASecondSense(t *testing.T) {
	t.Parallel()
	all, _ := collected(t)
	for _, r := range refused {
		phrase := regexp.MustCompile(r.phrase)
		for _, texts := range all {
			for _, line := range texts.Lines {
				text := line
				if r.but != "" {
					text = regexp.MustCompile(r.but).ReplaceAllString(text, "")
				}
				if said := phrase.FindString(text); said != "" {
					t.Errorf("%s: %q says %q; say %s", texts.File, line, said, r.instead)
				}
			}
		}
	}
}

// A button is read at a glance: three words at the most, beside what is put in.
func TestNoButtonSaysMoreThanThreeWords(t *testing.T) {
	t.Parallel()
	_, buttons := collected(t)
	word := regexp.MustCompile(`[\p{L}\p{N}][\p{L}\p{N}’'-]*`)
	seen := 0
	for _, texts := range buttons {
		for _, line := range texts.Lines {
			seen++
			if n := len(word.FindAllString(strings.ReplaceAll(line, "{…}", ""), -1)); n > 3 {
				t.Errorf("%s: %d words on a button: %q", texts.File, n, line)
			}
		}
	}
	assert.Greater(t, seen, 150)
}
