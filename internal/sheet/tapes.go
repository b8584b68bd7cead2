package sheet

import (
	"fmt"
	"math"

	"kladotex/core/parting"
)

// Row tapes are strips of paper in true scale, one for each row line: laid along the scalp
// they show where every part goes. Measures in mm.
const (
	tapeHigh = 11.0 // a strip
	tapeGap  = 9.5  // between strips, with the name of the next
	tapeTop  = 57.0 // the first strip of a page, below the ruler
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

// tapes are the strips of the plan, zone by zone from the lowest row up; sides that are
// alike share theirs.
func (w *page) tapes() []tape {
	var out []tape
	for _, z := range w.plan.Result.Layout.Zones {
		name := z.Zone.Name()
		if len(z.Zone) == 2 && z.Zone[1] == 'R' && w.alike(z.Zone) {
			continue
		}
		if len(z.Zone) == 2 && z.Zone[1] == 'L' && w.alike(z.Zone[:1]+"R") {
			name = z.Zone.Sideless() + ", each side"
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

// rowTapes prints the strips to cut out, several to a page, with a ruler on each page to
// check its scale by.
func (w *page) rowTapes() {
	y := w.tapePage()
	_, high := w.GetPageSize()
	for _, t := range w.tapes() {
		for at := 0.0; at < t.long-1e-6; {
			if w.ctx.Err() != nil {
				return
			}
			if y+tapeHigh > high-margin-8 {
				w.AddPage()
				y = w.tapePage()
			}
			long := min(t.long-at, w.width)
			if rest := t.long - at - long; rest > 0 { // the next piece lies over the end of this one
				long = min(long, math.Ceil((t.long-at+joinLap)/2))
			}
			w.tape(t, at, long, y)
			y += tapeHigh + tapeGap
			if at += long; at < t.long-1e-6 {
				at -= joinLap
			}
		}
	}
}

// tapePage heads a page of strips and tells where the first stands.
func (w *page) tapePage() float64 {
	w.say(21, "B", ink, "Row tapes")
	w.Ln(1)
	w.say(9.5, "", ink, "Print at 100 %. Cut a strip out and lay it along the line below its row, the dot on the start named. Lines: parts of the row. Dashes: parts of the row below. Each zone's last strip lies along its upper line.")
	w.scale(tapeTop-tapeGap-3.5, -5, 15, 10, 10, "cm")
	return tapeTop
}

// tape prints the stretch of a strip from at on, long mm long.
func (w *page) tape(t tape, at, long, y float64) {
	u := w.style.Unit
	w.ink(ink)
	w.font("B", 8.5)
	name := t.name
	if at > 0 {
		name += ", second piece"
	}
	w.Text(margin, y-1.6, name)
	begins := w.GetStringWidth(name) + 3
	w.font("", 8.5)
	w.ink(soft)
	w.Text(margin+begins, y-1.6, fmt.Sprintf("from the %s, %s long", t.from, u.Length(t.long)))
	w.SetDrawColor(rule[0], rule[1], rule[2])
	w.SetLineWidth(0.2)
	w.Rect(margin, y, long, tapeHigh, "D")
	w.SetDrawColor(ink[0], ink[1], ink[2])
	inside := func(mm float64) bool { return mm > at-1e-6 && mm < at+long+1e-6 }
	w.SetDashPattern([]float64{1, 0.8}, 0)
	for _, mm := range t.below {
		if inside(mm) {
			w.Line(margin+mm-at, y+tapeHigh*0.55, margin+mm-at, y+tapeHigh)
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
		x := margin + mm - at
		w.Line(x, y, x, y+tapeHigh*0.55)
		if x-last > 7 { // room for its number
			w.Text(x+0.7, y+2.9, u.comb(mm))
			last = x
		}
	}
	if at == 0 {
		w.SetFillColor(ink[0], ink[1], ink[2])
		w.Circle(margin, y+tapeHigh, 1.1, "F")
	}
	// Where two pieces meet: a dotted line on either, one on the other.
	w.SetDrawColor(leaf[0], leaf[1], leaf[2])
	w.SetDashPattern([]float64{0.4, 0.8}, 0)
	if at > 0 {
		w.Line(margin+joinLap, y, margin+joinLap, y+tapeHigh)
	}
	if at+long < t.long-1e-6 {
		w.Line(margin+long, y, margin+long, y+tapeHigh)
		w.font("", 7)
		w.ink(leaf)
		w.Text(margin+long+1.5, y+tapeHigh/2+1, "join")
	}
	w.SetDashPattern(nil, 0)
}
