// Package internal_test guards the layering of the server.
package internal_test

import (
	"os/exec"
	"path"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The layers from the inside out. Each imports only those before it, beside the core and
// libraries, so no circle can arise.
var layers = []string{"password", "calendar", "recur", "store", "picture", "photo", "flat", "sheet", "export", "studio", "standin", "demo", "api"}

func TestLayersPointInward(t *testing.T) {
	out, err := exec.Command("go", "list", "-f", `{{.ImportPath}} {{join .Imports " "}}`, "./...").Output()
	require.NoError(t, err)
	place := map[string]int{}
	for i, layer := range layers {
		place["kladotex/internal/"+layer] = i
	}
	packages := strings.Split(strings.TrimSpace(string(out)), "\n")
	seen := 0
	for _, line := range packages {
		fields := strings.Fields(line)
		if fields[0] == "kladotex/internal" {
			continue
		}
		own, ok := place[fields[0]]
		assert.True(t, ok, "%s has no place among the layers", fields[0])
		seen++
		for _, imported := range fields[1:] {
			ours := strings.HasPrefix(imported, "kladotex/") && imported != "kladotex/web" // the built pages
			if !ours || strings.HasPrefix(imported, "kladotex/core/") {
				continue
			}
			at, ok := place[imported]
			assert.True(t, ok && at < own, "%s imports %s", path.Base(fields[0]), imported)
		}
	}
	assert.Equal(t, len(layers), seen)
}
