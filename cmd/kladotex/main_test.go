package main

import (
	"bytes"
	"context"
	"encoding/json"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/plan"
	"kladotex/core/tally"
)

func TestComputeReadsAFileOrStandardInput(t *testing.T) {
	raw, err := json.Marshal(plan.Default())
	require.NoError(t, err)
	name := filepath.Join(t.TempDir(), "plan.json")
	require.NoError(t, os.WriteFile(name, raw, 0o600))
	var fromFile, fromInput bytes.Buffer
	require.NoError(t, run(t.Context(), []string{"compute", name}, strings.NewReader(""), &fromFile))
	require.NoError(t, run(t.Context(), []string{"compute", "-"}, bytes.NewReader(raw), &fromInput))
	assert.Equal(t, fromFile.String(), fromInput.String())
	want, err := tally.Compute(context.Background(), plan.Default())
	require.NoError(t, err)
	text, err := json.Marshal(want)
	require.NoError(t, err)
	assert.JSONEq(t, string(text), fromFile.String())
}

// A plan to start from is printed as a file that can be computed as it is; and so can
// what the studio exports.
func TestAPlanToStartFromCanBeComputed(t *testing.T) {
	var file, result bytes.Buffer
	require.NoError(t, run(t.Context(), []string{"new"}, nil, &file))
	f, err := plan.ReadFile(bytes.NewReader(file.Bytes()))
	require.NoError(t, err)
	assert.Equal(t, plan.Default(), f.Input)
	require.NoError(t, run(t.Context(), []string{"compute", "-"}, &file, &result))
	assert.Contains(t, result.String(), `"sections"`)
	bad := strings.NewReader(`{"format":"kladotex-plan","title":"x","plan":{"schema":3,"sparkle":1}}`)
	err = run(t.Context(), []string{"compute", "-"}, bad, &bytes.Buffer{})
	assert.ErrorContains(t, err, "sparkle")
}

func TestRefusalsNameTheField(t *testing.T) {
	raw, err := json.Marshal(plan.Default())
	require.NoError(t, err)
	bad := strings.Replace(string(raw), `"earToEarMm":317.5`, `"earToEarMm":1`, 1)
	for input, says := range map[string]string{bad: "head.earToEarMm", "{": "(document)"} {
		var out bytes.Buffer
		err := run(t.Context(), []string{"compute", "-"}, strings.NewReader(input), &out)
		require.Error(t, err)
		assert.Contains(t, err.Error(), says)
		assert.Empty(t, out.String())
	}
	assert.ErrorContains(t, run(t.Context(), nil, nil, nil), "usage")
	assert.ErrorContains(t, run(t.Context(), []string{"dance"}, nil, nil), "dance")
}
