package message

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/invalid"
)

// Every message that ships can be filled wholly, and what a client is called never becomes a
// field of its own.
func TestMessagesAreFilled(t *testing.T) {
	values := map[string]string{}
	for name := range Fields {
		values[name] = "<" + name + ">"
	}
	values["client"] = "{care} Pellwether"
	for _, s := range Sorts {
		var bad invalid.Errors
		s.Usual.Check(&bad, "")
		require.Empty(t, bad, s.Kind)
		out := s.Usual.Fill(values)
		assert.Contains(t, out.Body, "{care} Pellwether", s.Kind)
		assert.Len(t, braced.FindAllString(out.Subject+out.Body, -1), 1, s.Kind)
		found, ok := Of(s.Kind)
		assert.True(t, ok)
		assert.Equal(t, s.Name, found.Name)
	}
	_, ok := Of("card")
	assert.False(t, ok)
	assert.Len(t, Kinds(), 3)
}

func TestUnknownNamesAreRefused(t *testing.T) {
	var bad invalid.Errors
	Template{"Come on {day}", " "}.Check(&bad, "letters.prepare.")
	require.Len(t, bad, 2)
	assert.Equal(t, "letters.prepare.body", bad[0].Path)
	assert.Equal(t, "letters.prepare.subject", bad[1].Path)
	assert.Contains(t, bad[1].Message, "{date}", "what would be right is said")
}
