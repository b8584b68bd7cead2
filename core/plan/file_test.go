package plan_test

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/invalid"
	"kladotex/core/plan"
)

func TestFileReadsWhatItWrote(t *testing.T) {
	f := plan.File{"Hesper’s, ½ in", plan.Default()}
	raw, err := f.Encode()
	require.NoError(t, err)
	back, err := plan.ReadFile(bytes.NewReader(raw))
	require.NoError(t, err)
	assert.Equal(t, f, back)
}

// Whatever is read as a file is a plan or refused by name; what was read is written
// and read again as it is.
func FuzzReadFile(f *testing.F) {
	good, err := plan.File{"A plan", plan.Default()}.Encode()
	require.NoError(f, err)
	f.Add(good)
	f.Add(bytes.Replace(good, []byte(`"schema": 5`), []byte(`"schema": 1`), 1))
	f.Add([]byte(`{"format":"kladotex-plan","title":"x","plan":null}`))
	f.Add([]byte(`{"format":"kladotex-plan","title":"x","plan":{"schema":3}}`))
	f.Fuzz(func(t *testing.T, raw []byte) {
		file, err := plan.ReadFile(bytes.NewReader(raw))
		if err != nil {
			require.NotEmpty(t, invalid.From(err))
			for _, bad := range invalid.From(err) {
				require.NotEmpty(t, bad.Path)
				require.NotEmpty(t, bad.Message)
			}
			return
		}
		again, err := file.Encode()
		require.NoError(t, err)
		back, err := plan.ReadFile(bytes.NewReader(again))
		require.NoError(t, err)
		// Empty and missing lists are one: compared as they are written.
		twice, err := back.Encode()
		require.NoError(t, err)
		require.Equal(t, string(again), string(twice))
	})
}
