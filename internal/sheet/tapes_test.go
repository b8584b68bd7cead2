package sheet

import (
	"fmt"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/parting"
	"kladotex/core/plan"
)

// pageWith is the number of the first page that holds a text.
func pageWith(t *testing.T, body []byte, text string) int {
	t.Helper()
	file := filepath.Join(t.TempDir(), "sheet.pdf")
	require.NoError(t, os.WriteFile(file, body, 0o600))
	for n := 1; n < 30; n++ {
		out, err := exec.CommandContext(t.Context(), "pdftotext", "-f", fmt.Sprint(n), "-l", fmt.Sprint(n), file, "-").Output()
		require.NoError(t, err, "pdftotext is part of poppler-utils")
		if strings.Contains(string(out), text) {
			return n
		}
	}
	t.Fatalf("no page holds %q", text)
	return 0
}

// named is where the text of a strip begins on a page, mm: its left edge and its baseline.
func named(t *testing.T, body []byte, page int, name string) (x, y float64, ok bool) {
	t.Helper()
	file := filepath.Join(t.TempDir(), "sheet.pdf")
	require.NoError(t, os.WriteFile(file, body, 0o600))
	out, err := exec.CommandContext(t.Context(), "pdftotext", "-bbox", "-f", fmt.Sprint(page), "-l", fmt.Sprint(page), file, "-").Output()
	require.NoError(t, err)
	word := regexp.MustCompile(`<word xMin="([0-9.]+)" yMin="[0-9.]+" xMax="[0-9.]+" yMax="([0-9.]+)">(.*)</word>`)
	found := word.FindAllStringSubmatch(string(out), -1)
	want := strings.Fields(name)
	for i := range len(found) - len(want) + 1 {
		same := true
		for k, w := range want {
			same = same && found[i+k][3] == w
		}
		if same {
			left, err := strconv.ParseFloat(found[i][1], 64)
			require.NoError(t, err)
			low, err := strconv.ParseFloat(found[i][2], 64)
			require.NoError(t, err)
			const points = 25.4 / 72
			return left * points, (low - 0.293*8.5) * points, true // what the letters of the face reach below
		}
	}
	return 0, 0, false
}

// PDF's unit is 1/72 in (ISO 32000): at 300 dots an inch the marks of a tape lie where the
// row's parts are, within 0.3 mm, and so do the dashes of the row below.
func TestRowTapesAreInTrueScale(t *testing.T) {
	t.Parallel()
	const dpi, wide = 300.0, 178.0
	mm := func(dots float64) float64 { return dots / dpi * 25.4 }
	p := computed(t, plan.Default())
	body, err := PDF(t.Context(), p, Style{Centimetres, "a4", "USD"}, CutOut)
	require.NoError(t, err)
	dark := printed(t, body, 1, dpi)
	checked := 0
	for _, r := range p.Result.Layout.Rows[:8] {
		require.Equal(t, parting.BackLeft, r.Zone)
		name := fmt.Sprintf("Back, each side, row %d, from the part line,", r.Row)
		x, y, ok := named(t, body, 1, name)
		if !ok || r.Lower.Length > wide {
			continue // on the next page, or in two pieces
		}
		y += 1.6
		at := func(y float64) (out []float64) { // mm from the start of the strip, as far as it goes
			for _, dots := range runs(dark, int(y/25.4*dpi), int(math.Round((x+r.Lower.Length+1)/25.4*dpi))) {
				if from := mm(dots) - x; from > -1 {
					out = append(out, from)
				}
			}
			return out
		}
		for _, list := range []struct {
			want, found []float64
		}{{r.Lower.Parts, at(y + 4.6)}, {r.Below, at(y + tapeHigh*0.55 + 0.5)}} {
			for _, want := range list.want {
				near := slices.ContainsFunc(list.found, func(x float64) bool { return math.Abs(want-x) < 0.3 })
				assert.True(t, near, "row %d: %.1f mm among %.1f", r.Row, want, list.found)
				checked++
			}
			assert.LessOrEqual(t, len(list.found), len(list.want)+2, "no mark but those, and the ends")
		}
	}
	assert.Greater(t, checked, 20)
}

// A line longer than the page comes in two pieces that lie over one another, and together
// they carry every part.
func TestLongTapesAreJoined(t *testing.T) {
	t.Parallel()
	in := plan.Default()
	in.Parting.Part.Kind = parting.Levels
	all := written(t, computed(t, in))
	assert.Regexp(t, `Rings, row 1, from .*, second piece`, all)
	assert.Contains(t, all, "join")
	assert.NotRegexp(t, `Rings, row 6, from .*, second piece`, all, "a short one is whole")
}
