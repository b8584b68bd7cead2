package sheet

import (
	"html"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var careSheet = Care{
	Studio: "Tidewheel Loft",
	Lines: []CareLine{
		{Title: "Every night", Text: "A scarf & a bonnet.", Every: 1}, {Title: "Wash the roots only", Text: "Diluted.", Every: 10},
		{Title: "No elastics", Text: "A <strip> of cloth.", Avoid: true},
	},
	Dates: []CareDate{{"2026-12-04", "Check scalp, edges and roots", false}, {"2026-12-14", "Wash the roots", false}, {"2027-01-08", "Take it down", true}},
}

// The paper says all that is to be done and left, with the days to tick.
func TestCareOnPaper(t *testing.T) {
	t.Parallel()
	for _, paper := range []string{"a4", "letter"} {
		body, err := CarePDF(t.Context(), careSheet, paper)
		require.NoError(t, err)
		text := textOf(t, body)
		for _, says := range []string{"The care of your hair", "Tidewheel Loft", "every day", "every 10 days", "leave it", "A <strip> of cloth.", "Friday, 8 January 2027", "not medical advice"} {
			assert.Contains(t, text, says)
		}
	}
}

// The page is sound HTML without a script or anything from elsewhere; it shows the next day first and
// those that are past not at all, and what people wrote stays text.
func TestCareAsAPage(t *testing.T) {
	t.Parallel()
	page, err := CarePage(careSheet, "2026-12-10", "NONCE", "/care/SECRET/days.ics", Faces{"/assets/display.woff2", "/assets/text.woff2"})
	require.NoError(t, err)
	_, body, _ := strings.Cut(string(page), "</style>")
	var links []string
	for _, m := range regexp.MustCompile(`(?:href|src)="([^"]*)"`).FindAllStringSubmatch(body, -1) {
		links = append(links, m[1])
	}
	for _, tag := range regexp.MustCompile(`<[a-z][^>]*>`).FindAllString(body, -1) {
		assert.NotRegexp(t, `^<script|\sstyle=|\son[a-z]+=`, tag, "the policy allows none of these")
	}
	text := html.UnescapeString(regexp.MustCompile(`<[^>]*>`).ReplaceAllString(body, " "))
	assert.Equal(t, []string{"/care/SECRET/days.ics"}, links)
	assert.Contains(t, text, "A scarf & a bonnet.")
	assert.Contains(t, text, "A <strip> of cloth.")
	assert.NotContains(t, text, "Friday, 4 December")
	assert.Less(t, strings.Index(text, "Monday, 14 December 2026"), strings.Index(text, "Every night"), "the next day stands first")
	assert.Contains(t, string(page), `<style nonce="NONCE">`)

	down := careSheet
	down.Down = true
	page, err = CarePage(down, "2026-12-10", "NONCE", "/care/SECRET/days.ics", Faces{})
	require.NoError(t, err)
	assert.Contains(t, string(page), "It is taken down.")
	assert.NotContains(t, string(page), "days.ics")
}
