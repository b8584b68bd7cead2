package sheet

import (
	"encoding/xml"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/plan"
)

func TestPictureIsSoundAndShowsTheNearSide(t *testing.T) {
	res, err := plan.Compute(plan.Default())
	require.NoError(t, err)
	picture := Picture(res)
	require.NoError(t, xml.Unmarshal(picture, new(struct{})), "well-formed XML")
	assert.NotContains(t, string(picture), "NaN")
	// From behind the left shoulder more than half of the sections are in sight,
	// and never all.
	paths := strings.Count(string(picture), `<path fill="#`) - 2 // neck and head
	assert.Greater(t, paths, len(res.Layout.Sections)/2)
	assert.Less(t, paths, len(res.Layout.Sections))
}
