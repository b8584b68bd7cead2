package house

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/invalid"
	"kladotex/core/quote"
)

// A house that has set no prices asks the usual; terms that can not be are refused by name, and
// two documents that differ in them are not the same.
func TestTermsOfTheHouse(t *testing.T) {
	r := Usual()
	assert.Equal(t, quote.UsualTerms(), r.Asks())
	terms := quote.UsualTerms()
	terms.Rate, terms.Rates = 4100, map[string]int64{"ikaika": 1600}
	r.Terms = &terms
	require.NoError(t, r.Check())
	assert.Equal(t, int64(4100), r.Asks().RateOf("odalys"))
	assert.Equal(t, int64(1600), r.Asks().RateOf("ikaika"))
	assert.False(t, r.Equal(Usual()))
	raw, err := json.Marshal(r)
	require.NoError(t, err)
	read, err := Decode(raw)
	require.NoError(t, err)
	assert.True(t, r.Equal(read))

	terms.Tax = -1
	fields := invalid.From(r.Check())
	require.Len(t, fields, 1)
	assert.Equal(t, "terms.taxPercent", fields[0].Path)
}
