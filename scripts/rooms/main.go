// Command rooms draws docs/rooms.svg: the packages of the program as rooms on floors, each above
// all that it imports, with the imports as lines,
// but for those that a room also reaches through another. What is drawn is what the code imports now.
package main

import (
	"bufio"
	"cmp"
	"fmt"
	"html"
	"log"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
)

// room is a package.
type room struct {
	name    string // such as core/plan
	imports []string
	lines   int // of code, tests left out
	floor   int
	x, y, w float64
}

func main() {
	rooms, err := read()
	if err != nil {
		log.Fatal(err)
	}
	out := bufio.NewWriter(os.Stdout)
	draw(out, rooms)
	if err := out.Flush(); err != nil {
		log.Fatal(err)
	}
}

// read lists the packages of the program, those on the lowest floor first.
func read() ([]*room, error) {
	out, err := exec.Command("go", "list", "-f", `{{.ImportPath}}|{{.Dir}}|{{join .GoFiles " "}}|{{join .Imports " "}}`, "./core/...", "./internal/...", "./cmd/...").Output()
	if err != nil {
		return nil, fmt.Errorf("listing packages: %w", err)
	}
	byName := map[string]*room{}
	for line := range strings.Lines(string(out)) {
		f := strings.Split(strings.TrimSpace(line), "|")
		r := &room{name: strings.TrimPrefix(f[0], "kladotex/")}
		if strings.Contains(r.name, "/internal/") || strings.HasSuffix(r.name, "plantest") || f[2] == "" {
			continue
		}
		for _, file := range strings.Fields(f[2]) {
			raw, err := os.ReadFile(filepath.Join(f[1], file))
			if err != nil {
				return nil, err
			}
			r.lines += strings.Count(string(raw), "\n")
		}
		for _, i := range strings.Fields(f[3]) {
			if name, ours := strings.CutPrefix(i, "kladotex/"); ours {
				r.imports = append(r.imports, name)
			}
		}
		byName[r.name] = r
	}
	var floorOf func(*room) int
	floorOf = func(r *room) int {
		if r.floor == 0 {
			r.floor = 1
			for _, i := range r.imports {
				if below := byName[i]; below != nil {
					r.floor = max(r.floor, floorOf(below)+1)
				}
			}
		}
		return r.floor
	}
	var rooms []*room
	for _, r := range byName {
		floorOf(r)
		rooms = append(rooms, r)
	}
	slices.SortFunc(rooms, func(a, b *room) int { return cmp.Or(cmp.Compare(a.floor, b.floor), cmp.Compare(a.name, b.name)) })
	return rooms, nil
}

const (
	width  = 1240.0
	height = 46.0 // of a room
	gap    = 12.0
	storey = 84.0
	margin = 20.0
)

// tones tell the floors' owners apart: the core, what is round it, the commands.
var tones = map[string]string{"core": "#e3ebd9", "internal": "#f3e3b9", "cmd": "#e9e0cc"}

// direct are the imports of a room that it does not also reach through another: lines that would run
// beside others all the way are left out.
func direct(r *room, at map[string]*room) (out []*room) {
	var reaches func(from *room, to string) bool
	reaches = func(from *room, to string) bool {
		return slices.ContainsFunc(from.imports, func(i string) bool { return i == to || at[i] != nil && reaches(at[i], to) })
	}
	for _, name := range r.imports {
		below := at[name]
		if below != nil && !slices.ContainsFunc(r.imports, func(i string) bool { return i != name && at[i] != nil && reaches(at[i], name) }) {
			out = append(out, below)
		}
	}
	return out
}

// draw writes the picture, the highest floor on top.
func draw(out *bufio.Writer, rooms []*room) {
	top := rooms[len(rooms)-1].floor
	at := map[string]*room{}
	byFloor := map[int][]*room{}
	for _, r := range rooms {
		byFloor[r.floor] = append(byFloor[r.floor], r)
		at[r.name] = r
	}
	for floor, list := range byFloor {
		sum := 0.0
		for _, r := range list {
			r.w = 46 + 7.2*float64(len(short(r.name)))
			sum += r.w + gap
		}
		x := (width - sum + gap) / 2
		for _, r := range list {
			r.x, r.y = x, margin+storey*float64(top-floor)
			x += r.w + gap
		}
	}
	total := 2*margin + storey*float64(top-1) + height
	fmt.Fprintf(out, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %.0f %.0f" font-family="sans-serif" font-size="13">`+"\n", width, total)
	fmt.Fprintf(out, `<title>The packages of Kladotex, each above what it imports</title><rect width="%.0f" height="%.0f" fill="#fffaf0"/>`+"\n", width, total)
	for _, r := range rooms {
		for _, below := range direct(r, at) {
			x1, y1, x2, y2 := r.x+r.w/2, r.y+height, below.x+below.w/2, below.y
			bend := (y2 - y1) / 2
			fmt.Fprintf(out, `<path d="M%.1f %.1fC%.1f %.1f %.1f %.1f %.1f %.1f" fill="none" stroke="#8a7a60" stroke-opacity=".7"/>`+"\n", x1, y1, x1, y1+bend, x2, y2-bend, x2, y2)
		}
	}
	for _, r := range rooms {
		area, _, _ := strings.Cut(r.name, "/")
		fmt.Fprintf(out, `<g><rect x="%.1f" y="%.1f" width="%.1f" height="%.0f" rx="5" fill="%s" stroke="#2a231c"/>`, r.x, r.y, r.w, height, tones[area])
		fmt.Fprintf(out, `<text x="%.1f" y="%.1f" text-anchor="middle">%s</text><text x="%.1f" y="%.1f" text-anchor="middle" font-size="10" fill="#5b5040">%d lines</text></g>`+"\n",
			r.x+r.w/2, r.y+20, html.EscapeString(short(r.name)), r.x+r.w/2, r.y+36, r.lines)
	}
	fmt.Fprintln(out, `</svg>`)
}

// short is the name of a package without where it stands, where that is plain from its tone.
func short(name string) string {
	for _, area := range []string{"core/", "internal/"} {
		name = strings.TrimPrefix(name, area)
	}
	return name
}
