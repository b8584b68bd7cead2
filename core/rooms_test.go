package core_test

import (
	"errors"
	"go/ast"
	"go/parser"
	"go/token"
	"go/types"
	"maps"
	"os/exec"
	"path"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The facets of a solved plan, each with those of the core that may import it: what puts several of
// them together, and no other facet. Outside of the core the interface, use cases, papers, pictures
// and the demo may import all of them, and the store the steps that it keeps.
var facets = map[string][]string{
	"attach":    {"care", "freeze", "propose", "tally"},
	"workorder": {"care", "freeze", "hours", "need"},
	"need":      {"freeze", "hours", "propose", "tally"},
	"judge":     {"propose", "tally"},
	"hang":      {"propose"},
	"hours":     {"care", "compare", "freeze", "propose", "tally"},
	"care":      {"freeze", "propose"},
	"tally":     {"compare", "freeze"},
	"compare":   {},
	"propose":   {},
	"freeze":    {},
}

var outside = []string{"internal/api", "internal/studio", "internal/sheet", "internal/demo", "internal/picture", "internal/flat", "cmd/kladotex"}

func TestWhoImportsAFacet(t *testing.T) {
	out, err := exec.Command("go", "list", "-f", `{{.ImportPath}} {{join .Imports " "}}`, "kladotex/...").Output()
	require.NoError(t, err)
	seen := map[string]bool{}
	for line := range strings.Lines(string(out)) {
		fields := strings.Fields(line)
		from := strings.TrimPrefix(fields[0], "kladotex/")
		for _, to := range fields[1:] {
			facet := strings.TrimPrefix(to, "kladotex/core/")
			may, is := facets[facet]
			if !is || to == facet {
				continue
			}
			seen[facet] = true
			kept := from == "internal/store" && facet == "attach"
			assert.True(t, kept || slices.Contains(outside, from) || slices.Contains(may, strings.TrimPrefix(from, "core/")), "%s imports %s", from, to)
		}
	}
	assert.ElementsMatch(t, slices.Collect(maps.Keys(facets)), slices.Collect(maps.Keys(seen)))
}

// Files of a facet, and those of the plan, use one another one way.
func TestFilesPointOneWay(t *testing.T) {
	for _, room := range append(slices.Sorted(maps.Keys(facets)), "plan") {
		uses := fileUses(t, room)
		var reaches func(from, to string, seen map[string]bool) bool
		reaches = func(from, to string, seen map[string]bool) bool {
			for next := range uses[from] {
				if next == to {
					return true
				}
				if !seen[next] {
					seen[next] = true
					if reaches(next, to, seen) {
						return true
					}
				}
			}
			return false
		}
		for file, others := range uses {
			for other, what := range others {
				assert.False(t, reaches(other, file, map[string]bool{}), "%s/%s uses %s of %s, which uses it", room, file, what, other)
			}
		}
	}
}

// fileUses are, for every file of a package, the other files whose declarations it uses, with one of them.
func fileUses(t *testing.T, room string) map[string]map[string]string {
	t.Helper()
	set := token.NewFileSet()
	names, err := filepath.Glob(filepath.Join(room, "*.go"))
	require.NoError(t, err)
	var files []*ast.File
	for _, name := range names {
		if strings.HasSuffix(name, "_test.go") {
			continue
		}
		f, err := parser.ParseFile(set, name, nil, 0)
		require.NoError(t, err)
		files = append(files, f)
	}
	// What is imported is not looked at: what is used of the package itself is found all the same.
	check := types.Config{Importer: nothing{}, Error: func(error) {}}
	info := &types.Info{Uses: map[*ast.Ident]types.Object{}, Selections: map[*ast.SelectorExpr]*types.Selection{}}
	pkg, _ := check.Check(room, set, files, info)
	out := map[string]map[string]string{}
	for _, f := range files {
		out[path.Base(set.Position(f.Pos()).Filename)] = map[string]string{}
	}
	for id, of := range info.Uses {
		if of.Pkg() != pkg || !of.Pos().IsValid() {
			continue
		}
		from, to := path.Base(set.Position(id.Pos()).Filename), path.Base(set.Position(of.Pos()).Filename)
		if from != to {
			out[from][to] = of.Name()
		}
	}
	return out
}

// nothing imports nothing.
type nothing struct{}

func (nothing) Import(string) (*types.Package, error) { return nil, errors.New("not looked at") }
