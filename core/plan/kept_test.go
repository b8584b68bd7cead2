package plan

import (
	"bytes"
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Plans of version 3 keep their tallies to the piece, the pack, the cent and the minute. The
// tallies are those of the parting in even bands, the minutes those of the tasks place by place; a
// change of any of them must be meant.
func TestPlansOfVersion3KeepTheirTally(t *testing.T) {
	raw, err := os.ReadFile("testdata/schema3.json")
	require.NoError(t, err)
	var kept []struct {
		Title string `json:"title"`
		Tally struct {
			Sections int     `json:"sections"`
			Pieces   int     `json:"pieces"`
			Packs    int     `json:"packs"`
			Cost     int64   `json:"costMinor"`
			Minutes  float64 `json:"minutes"`
			Weight   float64 `json:"weightG"`
		} `json:"tally"`
		Plan json.RawMessage `json:"plan"`
	}
	require.NoError(t, json.Unmarshal(raw, &kept))
	require.Len(t, kept, 12)
	for _, k := range kept {
		in, err := Decode(bytes.NewReader(k.Plan))
		require.NoError(t, err, k.Title)
		res, err := Compute(t.Context(), in)
		require.NoError(t, err, k.Title)
		got := res.Tally
		assert.Equal(t, k.Tally.Sections, got.Sections, k.Title)
		assert.Equal(t, k.Tally.Pieces, got.Pieces, k.Title)
		assert.InDelta(t, k.Tally.Minutes, got.Minutes, 1e-6, k.Title)
		assert.Equal(t, k.Tally.Packs, got.Packs, k.Title)
		assert.Equal(t, k.Tally.Cost, got.Cost, k.Title)
		assert.InDelta(t, k.Tally.Weight, got.Weight, 1e-6, k.Title)
	}
}
