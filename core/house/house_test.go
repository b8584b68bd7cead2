package house

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/invalid"
	"kladotex/core/message"
	"kladotex/core/quote"
)

// A house that has set no prices asks the usual; terms that cannot be are refused by name, and
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

// How many sit at once, the paper and the words of messages are the house's; what cannot be is
// refused by name, and documents that differ in any of them are not the same.
func TestChairsPaperAndLetters(t *testing.T) {
	r := Usual()
	assert.Equal(t, 1, r.Seats())
	usual, _ := message.Of(message.Care)
	assert.Equal(t, usual.Usual, r.Letter(message.Care))
	own := message.Template{Subject: "Care", Body: "{care}"}
	for path, change := range map[string]func(*Rules){
		"chairs":               func(r *Rules) { r.Chairs = 2 },
		"zone":                 func(r *Rules) { r.Zone = "Europe/Lisbon" },
		"paper":                func(r *Rules) { r.Paper = "a4" },
		"letters.care.subject": func(r *Rules) { r.Letters = map[message.Kind]message.Template{message.Care: own} },
	} {
		other := Usual()
		change(&other)
		require.NoError(t, other.Check(), path)
		assert.False(t, other.Equal(Usual()), path)
		raw, err := json.Marshal(other)
		require.NoError(t, err)
		read, err := Decode(raw)
		require.NoError(t, err)
		assert.True(t, read.Equal(other), path)
	}
	for path, spoil := range map[string]func(*Rules){
		"chairs":               func(r *Rules) { r.Chairs = 99 },
		"paper":                func(r *Rules) { r.Paper = "foolscap" },
		"letters":              func(r *Rules) { r.Letters = map[message.Kind]message.Template{"card": own} },
		"letters.care.subject": func(r *Rules) { r.Letters = map[message.Kind]message.Template{message.Care: {Body: "x"}} },
	} {
		other := Usual()
		spoil(&other)
		fields := invalid.From(other.Check())
		require.Len(t, fields, 1, path)
		assert.Equal(t, path, fields[0].Path)
	}
}

// For how long delicate things are kept is said in months, up to ten years; 0 is until they are deleted.
func TestKeepsAreMonths(t *testing.T) {
	r := Usual()
	r.Keeps = &Keeps{Photos: 12}
	require.NoError(t, r.Check())
	assert.False(t, r.Equal(Usual()))
	raw, err := json.Marshal(r)
	require.NoError(t, err)
	read, err := Decode(raw)
	require.NoError(t, err)
	assert.True(t, read.Equal(r))
	r.Keeps = &Keeps{Photos: -1, Health: 121}
	fields := invalid.From(r.Check())
	require.Len(t, fields, 2)
	assert.Equal(t, "keeps.photoMonths", fields[0].Path)
	assert.Equal(t, "keeps.healthMonths", fields[1].Path)
}
