package main

import (
	"fmt"
	"go/ast"
	"go/token"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const root = "../.."

// Every number has a unit, an origin and a word on what it is, and something reads it.
func TestEveryNumberSaysWhatItIs(t *testing.T) {
	groups, err := Read(root)
	require.NoError(t, err)
	n := 0
	for _, g := range groups {
		assert.NotEmpty(t, g.Title)
		for _, x := range g.Numbers {
			n++
			derived := strings.HasSuffix(x.Name, "Load") // two of them are times the usual one
			assert.True(t, len(x.Used) > 0 || derived, "nothing reads craft.%s", x.Name)
		}
	}
	assert.Greater(t, n, 150)
}

func TestTheTableIsCurrent(t *testing.T) {
	want, err := Table(root)
	require.NoError(t, err)
	have, err := os.ReadFile(filepath.Join(root, "docs", "craft.md"))
	require.NoError(t, err)
	assert.Equal(t, want, string(have), "run make craft")
}

// origin is how the origin of a number of the craft is told; named are the names that such
// numbers bear.
var (
	origin = regexp.MustCompile(`(?i)common practice|no source|from memory|cited from|published`)
	named  = regexp.MustCompile(`(Time|Rate|Weeks|Days|TakeUp|Factor|Load|Every|Spread)$`)
)

// geometry are the packages of lines and drawings, whose steps and rates are no craft.
var geometry = regexp.MustCompile(`core/(fall|bond|parting|surface|method/figure|method/moves)$`)

// elsewhere lists the numbers that a file declares and that belong to the craft: those said to be
// common practice or out of a source, and outside geometry those that bear the name of a rate, a
// time or a load. Bounds of what may be entered are none.
func elsewhere(f *ast.File, geometry bool) (out []string) {
	for _, d := range f.Decls {
		block, ok := d.(*ast.GenDecl)
		if !ok || block.Tok != token.CONST && block.Tok != token.VAR {
			continue
		}
		for _, s := range block.Specs {
			v, ok := s.(*ast.ValueSpec)
			if !ok {
				continue
			}
			said := block.Doc.Text() + v.Doc.Text() + v.Comment.Text()
			for i, name := range v.Names {
				if i >= len(v.Values) {
					break
				}
				bounds := strings.HasPrefix(name.Name, "least") || strings.HasPrefix(name.Name, "most") || strings.Contains(said, "Bounds")
				if holdsNumber(v.Values[i], block.Tok) && !bounds && (origin.MatchString(said) || !geometry && named.MatchString(name.Name)) {
					out = append(out, name.Name)
				}
			}
		}
	}
	return out
}

// holdsNumber tells whether a constant is a number, or a variable a bare one.
func holdsNumber(x ast.Expr, of token.Token) (found bool) {
	ast.Inspect(x, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.CompositeLit, *ast.FuncLit, *ast.CallExpr:
			return of == token.CONST
		case *ast.BasicLit:
			found = found || n.Kind == token.INT || n.Kind == token.FLOAT
		}
		return true
	})
	return found
}

// A number of the craft stands in core/craft alone. Where a method is drawn and where sections are
// laid there are numbers of other kinds, which stand where they are used.
func TestNoNumberOfTheCraftStandsElsewhere(t *testing.T) {
	seen := 0
	require.NoError(t, eachFile(filepath.Join(root), func(path string, f *ast.File) {
		dir := filepath.ToSlash(filepath.Dir(path))
		if strings.HasSuffix(dir, "core/craft") || !strings.Contains(dir, "/core") {
			return
		}
		seen++
		for _, name := range elsewhere(f, geometry.MatchString(dir)) {
			assert.Fail(t, fmt.Sprintf("%s declares %s: a number of the craft belongs in core/craft", path, name))
		}
	}))
	assert.Greater(t, seen, 100)
}
