// Package core_test guards the layering of core.
package core_test

import (
	"os/exec"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The core imports nothing but the standard library's computation and numerics:
// no HTTP, SQL, files, clocks, randomness or interface code.
func TestCoreImportsOnlyComputation(t *testing.T) {
	out, err := exec.Command("go", "list", "-f", `{{.ImportPath}} {{join .Imports " "}}`, "./...").Output()
	require.NoError(t, err)
	forbidden := []string{"net", "net/http", "database/sql", "os", "io/fs", "time", "math/rand", "math/rand/v2", "crypto/rand"}
	packages := strings.Split(strings.TrimSpace(string(out)), "\n")
	assert.GreaterOrEqual(t, len(packages), 14)
	for _, line := range packages {
		fields := strings.Fields(line)
		for _, path := range fields[1:] {
			ours := strings.HasPrefix(path, "kladotex/core/")
			numerics := strings.HasPrefix(path, "gonum.org/v1/gonum/")
			standard := !strings.Contains(path, ".") && !strings.HasPrefix(path, "kladotex/")
			assert.True(t, ours || numerics || standard, "%s imports %s", fields[0], path)
			assert.NotContains(t, forbidden, path, "%s imports %s", fields[0], path)
		}
	}
}
