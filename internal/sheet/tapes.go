package sheet

import (
	"fmt"
	"math"
	"slices"

	"kladotex/core/parting"
)

// Row tapes are strips of paper in true scale, one for each row line: laid along the scalp
// they show where every part goes. Measures in mm.
const (
	tapeHigh = 11.0 // a strip
	tapeGap  = 9.5  // between strips, with the name of the next
	joinLap  = 8.0  // how far the pieces of a long strip lie over one another
)

// tape is the strip of one row line.
type tape struct {
	name string
	from string
	// long is the line, parts the parts that go on from it, below those that come up to it.
	long         float64
	parts, below []float64
}

// says names a strip and where its dot lies.
func (t tape) says(u Unit) string {
	return fmt.Sprintf("%s, from the %s, %s", t.name, t.from, u.Length(t.long))
}

// tapes are the strips of the plan, zone by zone from the lowest row up; sides that are
// alike share theirs.
func (w *page) tapes() []tape {
	var out []tape
	for _, z := range w.plan.Result.Layout.Zones {
		name := w.told(z.Zone)
		if name == "" {
			continue
		}
		for _, r := range w.rows(z.Zone) {
			if r.Lower.Length < 1 { // the ear, round which the first row turns
				continue
			}
			t := tape{name: fmt.Sprintf("%s, row %d", name, r.Row), from: startOf(&r), long: r.Lower.Length, parts: r.Lower.Parts, below: r.Below}
			if r.Middle == "part" {
				t.parts = append([]float64{0}, t.parts...)
			}
			out = append(out, t)
		}
		// The topmost line has no row above: the part line, or where a base begins.
		if rows := w.rows(z.Zone); len(rows) > 0 {
			top := rows[len(rows)-1]
			above := "its upper line"
			if z.Zone[0] == 'F' || z.Zone[0] == 'P' {
				above = "along the part"
			}
			if top.Upper.Length >= 1 {
				out = append(out, tape{name: fmt.Sprintf("%s, row %d, %s", name, top.Row, above), from: startOf(&top), long: top.Upper.Length, parts: top.Upper.Parts})
			}
		}
	}
	return out
}

// startOf names the place a row is measured from.
func startOf(r *parting.Row) string {
	switch {
	case r.Zone == parting.Rings, r.Zone == parting.Hairline:
		return "front centre"
	case r.Zone.Central() && r.Middle != "border":
		return "middle"
	case r.Zone[0] == 'B', r.Zone[0] == 'N':
		return "part line"
	}
	return "hairline"
}

// strip is a stretch of a tape as it is printed: from at on, long mm long, in wide mm of the page.
type strip struct {
	tape
	at, long, wide float64
}

// strips are the tapes cut to the width of the page.
func (w *page) strips() (out []strip) {
	w.font("", 8.5)
	for _, t := range w.tapes() {
		for at := 0.0; at < t.long-1e-6; {
			long := min(t.long-at, w.width)
			if rest := t.long - at - long; rest > 0 { // the next piece lies over the end of this one
				long = min(long, math.Ceil((t.long-at+joinLap)/2))
			}
			out = append(out, strip{t, at, long, max(long+joinLap, w.GetStringWidth(t.says(w.style.Unit))+4)})
			if at += long; at < t.long-1e-6 {
				at -= joinLap
			}
		}
	}
	return out
}

// packed lays strips in lines no wider than the page, each in the first that has room for it.
func packed(strips []strip, width float64) (lines [][]strip) {
	var room []float64
	for _, s := range strips {
		i := slices.IndexFunc(room, func(free float64) bool { return s.wide <= free })
		if i < 0 {
			i = len(lines)
			lines, room = append(lines, nil), append(room, width)
		}
		lines[i] = append(lines[i], s)
		room[i] -= s.wide
	}
	return lines
}

// strip prints the stretch of a tape from at on, long mm long, its left edge at x.
func (w *page) strip(s strip, x, y float64) {
	t, at, long := s.tape, s.at, s.long
	u := w.style.Unit
	w.ink(ink)
	w.font("", 8.5)
	name := t.says(u)
	if at > 0 {
		name += ", second piece"
	}
	w.Text(x, y-1.6, name)
	w.SetDrawColor(rule[0], rule[1], rule[2])
	w.SetLineWidth(0.2)
	w.Rect(x, y, long, tapeHigh, "D")
	w.SetDrawColor(ink[0], ink[1], ink[2])
	inside := func(mm float64) bool { return mm > at-1e-6 && mm < at+long+1e-6 }
	w.SetDashPattern([]float64{1, 0.8}, 0)
	for _, mm := range t.below {
		if inside(mm) {
			w.Line(x+mm-at, y+tapeHigh*0.55, x+mm-at, y+tapeHigh)
		}
	}
	w.SetDashPattern(nil, 0)
	w.SetLineWidth(0.35)
	w.font("", 7)
	w.ink(ink)
	last := math.Inf(-1)
	for _, mm := range t.parts {
		if !inside(mm) {
			continue
		}
		here := x + mm - at
		w.Line(here, y, here, y+tapeHigh*0.55)
		if here-last > 7 { // room for its number
			w.Text(here+0.7, y+2.9, u.comb(mm))
			last = here
		}
	}
	if at == 0 {
		w.SetFillColor(ink[0], ink[1], ink[2])
		w.Circle(x, y+tapeHigh, 1.1, "F")
	}
	// Where two pieces meet: a dotted line on either, one on the other.
	w.SetDrawColor(leaf[0], leaf[1], leaf[2])
	w.SetDashPattern([]float64{0.4, 0.8}, 0)
	if at > 0 {
		w.Line(x+joinLap, y, x+joinLap, y+tapeHigh)
	}
	if at+long < t.long-1e-6 {
		w.Line(x+long, y, x+long, y+tapeHigh)
		w.font("", 7)
		w.ink(leaf)
		w.Text(x+long+1.5, y+tapeHigh/2+1, "join")
	}
	w.SetDashPattern(nil, 0)
}
