package sheet

import (
	"fmt"
	"slices"

	"kladotex/core/parting"
	"kladotex/internal/picture"
)

// alike tells whether every row of a right zone has its like on the left.
func (w *page) alike(right parting.Zone) bool {
	ours, theirs := w.rows(right), w.rows(right[:1]+"L")
	return slices.EqualFunc(ours, theirs, func(a, b parting.Row) bool {
		return slices.Equal(a.Lower.Parts, b.Lower.Parts) && a.Lower.Length == b.Lower.Length && !a.Edited && !b.Edited
	})
}

// told is what a zone is called where sides that are alike are told once, on the left: empty for the right one
// of such a pair.
func (w *page) told(z parting.Zone) string {
	switch {
	case len(z) != 2 || !w.alike(z[:1]+"R"):
		return z.Name()
	case z[1] == 'R':
		return ""
	}
	return z.Sideless() + ", each side"
}

// rowGuide lists, row by row, where each part goes.
func (w *page) rowGuide() []lane {
	most := 0
	for _, r := range w.plan.Result.Layout.Rows {
		most = max(most, len(r.Lower.Parts))
	}
	columns := 1
	if most <= narrowParts {
		columns = 2
	}
	var out []lane
	for _, z := range w.plan.Result.Layout.Zones {
		name := w.told(z.Zone)
		if name == "" {
			continue
		}
		l := lane{columns: columns}
		first := len(out) == 0
		l.title = w.block(1, func() {
			if first {
				w.title("Row guide")
				w.say(9.5, "", ink, guideWords)
				w.Ln(2)
			}
			w.say(10.5, "B", ink, name)
		})
		l.head = w.block(columns, func() {
			w.cells([]string{"Row", "Length", "Parts", "at, " + string(w.style.Unit), "Sections"}, guideShares[columns], soft)
		})
		for _, r := range w.rows(z.Zone) {
			l.blocks = append(l.blocks, w.block(columns, func() { w.guideRow(r, guideShares[columns]) }))
		}
		out = append(out, l)
	}
	if slices.ContainsFunc(w.plan.Result.Layout.Rows, func(r parting.Row) bool { return r.Edited }) {
		out = append(out, w.lane(1, "", func() {
			w.say(9.5, "", soft, "* Sections of this row were merged, split or left out by hand: see the head.")
		}))
	}
	return out
}

// guideWords say how the row guide is read.
const guideWords = "Where the parts go on the lower line of each row, along the scalp: front rows from the hairline back, back rows from the part outward, rows that cross the middle from it outward. Off below: how far each part stands from the nearest one of the row below, + further on, − back. Rows are counted from below, rings from the hairline inward. Neat: the parts show. Quick: they are covered."

// narrowParts are the parts of a row that half the width has room for.
const narrowParts = 5

// guideShares are the columns of the row guide, where it stands in one or in two.
var guideShares = map[int][]float64{
	1: {0.07, 0.11, 0.09, 0.61, 0.12},
	2: {0.1, 0.15, 0.14, 0.42, 0.19},
}

// guideRow is one row of the guide: every part, and below it how far it stands off the
// row below.
func (w *page) guideRow(r parting.Row, shares []float64) {
	u := w.style.Unit
	at := make([]string, 0, len(r.Lower.Parts)+1)
	off := make([]string, 0, len(r.Lower.Parts)+1)
	if r.Middle == "part" {
		at, off = append(at, "mid"), append(off, " ")
	}
	for _, mm := range r.Lower.Parts {
		at = append(at, u.comb(mm))
	}
	told := false
	for k := range r.Lower.Parts {
		mm, ok := r.Off(k)
		if !ok {
			off = append(off, " ")
			continue
		}
		off, told = append(off, u.offset(mm)), true
	}
	count, care := fmt.Sprint(r.Sections), "quick"
	if r.Edited {
		count += " *"
	}
	if r.Seen {
		care = "neat"
	}
	cell := func(share float64, align, text string) {
		w.CellFormat(w.width*share, 5.4, text, "", 0, align, false, 0, "")
	}
	step := min(10.6/w.width, shares[3]/float64(max(1, len(at)))) // a part's share of the row
	parts := func(texts []string, size float64, t picture.Tone) {
		w.font("", size)
		w.ink(t)
		for _, text := range texts {
			cell(step, "L", text)
		}
		w.SetX(w.left + w.width*(1-shares[4]))
	}
	w.SetX(w.left)
	w.font("", 9.5)
	w.ink(ink)
	cell(shares[0], "L", fmt.Sprint(r.Row))
	cell(shares[1], "L", u.Length(r.Lower.Length))
	cell(shares[2], "L", care)
	parts(at, 9.5, ink)
	cell(shares[4], "R", count)
	w.Ln(5.4)
	if told {
		w.font("", 8)
		w.ink(soft)
		before := shares[0] + shares[1]
		cell(before, "L", "")
		cell(shares[2], "L", "off below")
		parts(off, 8, soft)
		w.Ln(4.6)
	}
	w.SetDrawColor(rule[0], rule[1], rule[2])
	w.SetLineWidth(0.2)
	w.Line(w.left, w.GetY(), w.left+w.width, w.GetY())
}
