package main

import (
	"cmp"
	"fmt"
	"go/ast"
	"go/constant"
	"go/parser"
	"go/token"
	"go/types"
	"io/fs"
	"path/filepath"
	"slices"
	"strings"

	"kladotex/core/method"
)

// Number is one number of the craft.
type Number struct {
	Name, Value, Unit, Origin, Says string
	// Used are the packages that read it, without those of tests.
	Used []string
}

// Group is a block of numbers that belong together.
type Group struct {
	Title   string
	Numbers []Number
}

// origins are what the origin of a number begins with.
var origins = []string{"common practice", "memory", "published", "standard"}

// Read returns the numbers of core/craft under a root, file by file, as they stand. The error
// names a number without a unit, an origin or a word on what it is.
func Read(root string) ([]Group, error) {
	dir := filepath.Join(root, "core", "craft")
	files := token.NewFileSet()
	names, err := filepath.Glob(filepath.Join(dir, "*.go"))
	if err != nil {
		return nil, err
	}
	var parsed []*ast.File
	for _, name := range names {
		f, err := parser.ParseFile(files, name, nil, parser.ParseComments)
		if err != nil {
			return nil, err
		}
		parsed = append(parsed, f)
	}
	info := &types.Info{Defs: map[*ast.Ident]types.Object{}}
	if _, err := (&types.Config{}).Check("craft", files, parsed, info); err != nil {
		return nil, err
	}
	used, err := uses(root)
	if err != nil {
		return nil, err
	}
	var out []Group
	for _, f := range parsed {
		for _, d := range f.Decls {
			block, ok := d.(*ast.GenDecl)
			if !ok || block.Tok != token.CONST {
				continue
			}
			g := Group{Title: strings.TrimSpace(block.Doc.Text())}
			for _, s := range block.Specs {
				n, err := read(s.(*ast.ValueSpec), info)
				if err != nil {
					return nil, fmt.Errorf("%s: %w", files.Position(s.Pos()), err)
				}
				n.Used = used[n.Name]
				g.Numbers = append(g.Numbers, n)
			}
			out = append(out, g)
		}
	}
	return out, nil
}

// read is the number of one line.
func read(s *ast.ValueSpec, info *types.Info) (Number, error) {
	name := s.Names[0].Name
	n := Number{Name: name, Says: strings.TrimSuffix(strings.TrimSpace(strings.ReplaceAll(strings.TrimPrefix(s.Doc.Text(), name+":"), "\n", " ")), ".")}
	unit, origin, found := strings.Cut(strings.TrimSpace(s.Comment.Text()), "; ")
	n.Unit, n.Origin = unit, origin
	known := slices.ContainsFunc(origins, func(o string) bool { return strings.HasPrefix(origin, o) })
	switch {
	case len(s.Names) != 1:
		return n, fmt.Errorf("%s shares a line with another number", name)
	case n.Says == "" || !strings.HasPrefix(s.Doc.Text(), name+":"):
		return n, fmt.Errorf("%s does not say what it is", name)
	case !found || unit == "":
		return n, fmt.Errorf("%s has no unit", name)
	case !known:
		return n, fmt.Errorf("%s does not say where it comes from: %s", name, strings.Join(origins, ", "))
	}
	value, _ := constant.Float64Val(constant.ToFloat(info.Defs[s.Names[0]].(*types.Const).Val()))
	n.Value = fmt.Sprintf("%.4g", value)
	return n, nil
}

// uses are the packages of the program that read each number of the craft.
func uses(root string) (map[string][]string, error) {
	out := map[string][]string{}
	err := eachFile(root, func(path string, f *ast.File) {
		ast.Inspect(f, func(n ast.Node) bool {
			sel, ok := n.(*ast.SelectorExpr)
			if !ok {
				return true
			}
			if x, ok := sel.X.(*ast.Ident); ok && x.Name == "craft" {
				if pkg := filepath.Base(filepath.Dir(path)); !slices.Contains(out[sel.Sel.Name], pkg) {
					out[sel.Sel.Name] = append(out[sel.Sel.Name], pkg)
				}
			}
			return true
		})
	})
	for _, list := range out {
		slices.Sort(list)
	}
	return out, err
}

// eachFile goes through the Go files of the program under a root, tests left out.
func eachFile(root string, visit func(path string, f *ast.File)) error {
	for _, top := range []string{"core", "internal", "cmd"} {
		err := filepath.WalkDir(filepath.Join(root, top), func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
				return err
			}
			f, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ParseComments)
			if err != nil {
				return err
			}
			visit(path, f)
			return nil
		})
		if err != nil {
			return err
		}
	}
	return nil
}

// Table is docs/craft.md.
func Table(root string) (string, error) {
	groups, err := Read(root)
	if err != nil {
		return "", err
	}
	var b strings.Builder
	b.WriteString(`# What we believe

Every number of the craft that the program computes with. Argue with it: where you know better, the
line to change is in ` + "`core/craft`" + `, or in the method's own entry for the last table. This page is
written by ` + "`make craft`" + `.

*Common practice* is what is seen at work and nobody published. *Memory* names a source that was not
at hand when it was written down. Length is mm, mass g, time minutes, unless the unit says otherwise.
`)
	for _, g := range groups {
		fmt.Fprintf(&b, "\n## %s\n\n| what | value | unit | from | used in | name |\n| --- | ---: | --- | --- | --- | --- |\n", strings.TrimSuffix(g.Title, "."))
		for _, n := range g.Numbers {
			fmt.Fprintf(&b, "| %s | %s | %s | %s | %s | `%s` |\n", n.Says, n.Value, n.Unit, n.Origin, strings.Join(n.Used, ", "), n.Name)
		}
	}
	b.WriteString("\n## What each method is, by its own entry\n\nAll common practice.\n\n| method | holds from own hair of, mm | weeks of wear | minutes to come off, a piece |\n| --- | ---: | --- | ---: |\n")
	for _, m := range slices.SortedFunc(slices.Values(method.Catalogue), func(a, b method.Method) int { return cmp.Compare(a.Name, b.Name) }) {
		fmt.Fprintf(&b, "| %s | %.0f | %d to %d | %.4g |\n", m.Name, m.LeastHair, m.WearWeeks[0], m.WearWeeks[1], m.Off())
	}
	return b.String(), nil
}
