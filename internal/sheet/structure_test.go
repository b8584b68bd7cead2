package sheet

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/scalp"
)

// written is the text of a sheet, as pdftotext reads it.
func written(t *testing.T, p Plan) string {
	t.Helper()
	body, err := PDF(t.Context(), p, Style{Unit: Inches, Currency: "$", Paper: "letter"})
	require.NoError(t, err)
	return textOf(t, body)
}

// The sheet of every structure names its zones, its cornrows and its rows.
func TestSheetTellsEveryStructure(t *testing.T) {
	t.Parallel()
	for structure, names := range map[parting.Structure][]string{
		parting.AllIndividuals: {"Parting: brick", "Back left", "Front, each side"},
		parting.EarToEar:       {"ear to ear", "Cornrows", "5 tails left", "On the cornrows: ", "Hitch and weave"},
		parting.Perimeter:      {"perimeter", "Hairline ring", "Cornrows"},
		parting.Horseshoe:      {"horseshoe", "Part line left", "Left side", "Part line, each side"},
		parting.PartLine:       {"part line only", "Part line left"},
		parting.Linked:         {"linked plaits", "Back left", "On the linked plaits: "},
		parting.NetCap:         {"net cap", "Hairline ring", "Cornrows under the net", "Through the net: "},
		parting.FrontDesign:    {"front design", "Design left", "Design right"},
	} {
		in := plan.Default()
		in.Parting.Structure = structure
		if structure == parting.NetCap {
			in.Parting.Base.Kind = parting.Net
		}
		text := written(t, computed(t, in))
		for _, name := range names {
			assert.Contains(t, text, name, structure)
		}
		assert.Contains(t, text, "neat", structure)
		assert.Equal(t, structure != parting.Linked, strings.Contains(text, "Plait to hide"), structure)
	}
	// Sides that differ are both told; those that mirror each other once.
	in := plan.Default()
	in.Parting.Part = parting.Part{Kind: parting.SidePart, Offset: 30}
	text := written(t, computed(t, in))
	assert.Equal(t, 1, strings.Count(text, "Front right\n"), text)
	assert.NotContains(t, text, "Front, each side")
	// Every part of a row has its distance from the row below, in a row of its own.
	in = plan.Default()
	in.Parting.Part.Kind = parting.Levels
	p := computed(t, in)
	guide := written(t, p)
	guide = guide[strings.LastIndex(guide, "Row guide"):]
	lines := slices.DeleteFunc(strings.Split(guide, "\n"), func(line string) bool { return !strings.Contains(line, "off below") })
	require.Len(t, lines, len(p.Result.Layout.Rows)-1)
	for i, line := range lines {
		var want []string
		row := &p.Result.Layout.Rows[i+1]
		for k := range row.Lower.Parts {
			if mm, ok := row.Off(k); ok {
				want = append(want, Inches.offset(mm))
			}
		}
		assert.Equal(t, want, strings.Fields(line)[2:], "ring %d", i+2)
	}
	for i, r := range p.Result.Layout.Rows {
		assert.Regexp(t, fmt.Sprintf(`(?m)^ *%d .* %d$`, i+1, r.Sections), guide, "the row's count stands at its end")
	}
	// A row changed by hand is marked.
	p = computed(t, plan.Default())
	x := p.Result.Layout.Sections[5]
	in = plan.Default()
	head, err := scalp.Fit(in.Head)
	require.NoError(t, err)
	in.Parting.Edits = []parting.Edit{{Kind: parting.LeaveOut, At: parting.Toward(head, x.Centroid)}}
	text = written(t, computed(t, in))
	assert.Contains(t, text, "1 section left out")
	assert.Contains(t, text, "merged, split or left out by hand")
}
