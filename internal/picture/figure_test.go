package picture

import (
	"encoding/xml"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/method/figure"
	"kladotex/core/method/moves"
)

// Every drawn move is a sound picture: well-formed, with its words, for either hand.
func TestDrawnMovesAreSoundPictures(t *testing.T) {
	for _, id := range moves.IDs() {
		f, _ := moves.Lookup(id)
		for _, i := range f.Stills() {
			frame := f.Frames[i]
			for _, f2 := range []figure.Frame{frame, frame.Mirror(), frame.Bare()} {
				svg := Figure(figure.Draw(f2, f.Stage, false), f2.Says)
				var doc struct {
					Title string `xml:"title"`
				}
				require.NoError(t, xml.Unmarshal(svg, &doc), "%s %d", id, i)
				assert.Equal(t, frame.Says, doc.Title)
				assert.NotContains(t, string(svg), "NaN")
			}
		}
	}
}

// Paths are written in steps from point to point; added up they lead where they should.
func TestPathsAddUp(t *testing.T) {
	c := figure.Colour{1, 2, 3}
	path := []figure.XY{{X: 0.04, Y: -0.26}, {X: 12.34, Y: 5}, {X: 12.34, Y: 5.01}, {X: -3, Y: 0.55}, {X: 100, Y: -7.77}}
	d := PathData(figure.Shape{Paths: [][]figure.XY{path}, Line: &c})
	assert.Equal(t, "M0 -.3l12.3 5.3-15.3-4.4 103-8.4", d)
	assert.True(t, strings.HasSuffix(PathData(figure.Shape{Paths: [][]figure.XY{path}, Fill: &c}), "z"))
	// Read as SVG says: numbers may stand without a blank before a sign.
	x, y := 0.0, 0.0
	rest := strings.NewReplacer("M", " ", "l", " ", "-", " -").Replace(d)
	fields := strings.Fields(rest)
	for i := 0; i+1 < len(fields); i += 2 {
		dx, err := strconv.ParseFloat(fields[i], 64)
		require.NoError(t, err)
		dy, err := strconv.ParseFloat(fields[i+1], 64)
		require.NoError(t, err)
		x, y = x+dx, y+dy
	}
	assert.InDelta(t, 100, x, 0.06)
	assert.InDelta(t, -7.8, y, 0.06)
}
