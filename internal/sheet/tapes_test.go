package sheet

import (
	"fmt"
	"math"
	"os"
	"os/exec"
	"path/filepath"
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

// PDF's unit is 1/72 in (ISO 32000): at 300 dots an inch the marks of a tape lie where the
// row's parts are, within 0.3 mm, and so do the dashes of the row below.
func TestRowTapesAreInTrueScale(t *testing.T) {
	t.Parallel()
	const dpi, wide = 300.0, 178.0
	mm := func(dots float64) float64 { return dots / dpi * 25.4 }
	p := computed(t, plan.Default())
	body, err := PDF(t.Context(), p, Style{Centimetres, "a4", "USD"})
	require.NoError(t, err)
	dark := printed(t, body, pageWith(t, body, "Row tapes"), dpi)
	at := func(y float64) []float64 { // mm from the start of a strip
		var out []float64
		for _, x := range runs(dark, int(y/25.4*dpi), int(math.Round((margin+wide)/25.4*dpi))) {
			out = append(out, mm(x)-margin)
		}
		return out
	}
	layout := p.Result.Layout
	checked := 0
	for i, r := range layout.Rows[:6] {
		require.Equal(t, parting.BackLeft, r.Zone)
		y := tapeTop + float64(i)*(tapeHigh+tapeGap)
		if r.Lower.Length > wide {
			break // in two pieces
		}
		for _, list := range []struct {
			want, found []float64
		}{{r.Lower.Parts, at(y + 4.6)}, {r.Below, at(y + tapeHigh*0.55 + 0.5)}} {
			for _, want := range list.want {
				near := false
				for _, x := range list.found {
					near = near || want-0.3 < x && x < want+0.3
				}
				assert.True(t, near, "row %d: %.1f mm among %.1f", r.Row, want, list.found)
				checked++
			}
			assert.LessOrEqual(t, len(list.found), len(list.want)+1, "no mark but those")
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
	text := words(t, computed(t, in))
	text = text[strings.LastIndex(text, "Row tapes"):]
	all := words(t, computed(t, in))
	assert.Contains(t, all, "Rings, row 1, second piece")
	assert.Contains(t, all, "join")
	assert.NotContains(t, text, "Rings, row 6, second piece", "a short one is whole")
}
