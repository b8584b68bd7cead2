package main

import (
	"encoding/json"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"maps"
	"os/exec"
	"path/filepath"
	"reflect"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// Texts are those of one file, in the order in which they stand there, each once.
type Texts struct {
	File  string
	Lines []string
}

// Collect finds every text that people read: of the program under a root, and of its pages; and apart
// from it what the buttons of the pages say.
func Collect(root string) (all, buttons []Texts, err error) {
	if all, err = ofProgram(root); err != nil {
		return nil, nil, err
	}
	pages, buttons, err := ofPages(root)
	return append(all, pages...), buttons, err
}

// ofPages asks the compiler of the pages, by a script beside them.
func ofPages(root string) (texts, buttons []Texts, err error) {
	cmd := exec.Command("node", "words.mjs")
	cmd.Dir = filepath.Join(root, "web")
	body, err := cmd.Output()
	if err != nil {
		return nil, nil, fmt.Errorf("texts of the pages: %w", err)
	}
	var found struct{ Texts, Buttons map[string][]string }
	if err := json.Unmarshal(body, &found); err != nil {
		return nil, nil, fmt.Errorf("texts of the pages: %w", err)
	}
	return byFile(found.Texts), byFile(found.Buttons), nil
}

func byFile(files map[string][]string) []Texts {
	out := make([]Texts, 0, len(files))
	for _, file := range slices.Sorted(maps.Keys(files)) {
		out = append(out, Texts{file, files[file]})
	}
	return out
}

func ofProgram(root string) (out []Texts, err error) {
	for _, folder := range []string{"core", "internal", "cmd"} {
		err = filepath.WalkDir(filepath.Join(root, folder), func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
				return err
			}
			file, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
			if err != nil {
				return err
			}
			name, err := filepath.Rel(root, path)
			if err != nil {
				return err
			}
			if lines := inFile(file); len(lines) > 0 {
				out = append(out, Texts{filepath.ToSlash(name), lines})
			}
			return nil
		})
		if err != nil {
			return nil, fmt.Errorf("texts of the program: %w", err)
		}
	}
	return out, nil
}

var (
	// A text has a word, and either a space or a capital at its head.
	worded   = regexp.MustCompile(`\p{L}{2,}`)
	sentence = regexp.MustCompile(`\p{L}[ ,.:;!?…’]`)
	headed   = regexp.MustCompile(`^\p{Lu}\p{Ll}+[.…]?$`)
	// What only machines read.
	query = regexp.MustCompile(`\b(SELECT|INSERT|UPDATE|DELETE|CREATE|PRAGMA|WHERE|VALUES|BEGIN IMMEDIATE|ORDER BY|VACUUM)\b|^<|^image/|^text/|^application/|^[a-z-]+=|default-src`)
)

// unread are functions whose words go to a log, to whoever mends the program, or to a machine.
var unread = map[string]bool{
	"fmt.Errorf": true, "panic": true, "regexp.MustCompile": true, "slog.String": true, "log.Info": true,
	"log.Error": true, "log.Warn": true, "log.Debug": true, "slog.Info": true, "slog.Error": true, "slog.Warn": true,
	"log.Fatal": true, "log.Fatalf": true, "time.Parse": true, "exec.CommandContext": true,
}

// inFile are the texts of a file: its strings, and what the description of the interface says.
func inFile(file *ast.File) (lines []string) {
	seen := map[string]bool{}
	say := func(text string) {
		text = strings.Join(strings.Fields(text), " ")
		if seen[text] || !worded.MatchString(text) || query.MatchString(text) {
			return
		}
		if !headed.MatchString(text) && !(sentence.MatchString(text) && strings.Contains(text, " ")) {
			return
		}
		seen[text] = true
		lines = append(lines, text)
	}
	var visit func(ast.Node) bool
	visit = func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.ImportSpec:
			return false
		case *ast.Field:
			if n.Tag != nil {
				if tag, err := strconv.Unquote(n.Tag.Value); err == nil {
					say(reflect.StructTag(tag).Get("doc"))
				}
			}
			ast.Inspect(n.Type, visit)
			return false
		case *ast.CallExpr:
			return !unread[called(n)]
		case *ast.BasicLit:
			if n.Kind == token.STRING {
				if text, err := strconv.Unquote(n.Value); err == nil {
					say(text)
				}
			}
		}
		return true
	}
	ast.Inspect(file, visit)
	return lines
}

// called names a function as it is called: package and name, or the name alone.
func called(call *ast.CallExpr) string {
	switch f := call.Fun.(type) {
	case *ast.Ident:
		return f.Name
	case *ast.SelectorExpr:
		if of, ok := f.X.(*ast.Ident); ok {
			return of.Name + "." + f.Sel.Name
		}
	}
	return ""
}
