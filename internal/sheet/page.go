// Package sheet writes plans down for people: the plan sheet as PDF, and everything held
// about a client as JSON.
package sheet

import (
	"bytes"
	"context"
	"fmt"
	"time"

	"codeberg.org/go-pdf/fpdf"

	"kladotex/internal/picture"
)

// Style is how a person reads.
type Style struct {
	Unit     Unit
	Paper    string // "letter" or "a4"
	Currency string // ISO 4217 code of the studio's currency
}

// Measures of the page, mm.
const (
	margin     = 16.0
	lineHeight = 4.6
)

// The inks of the page.
var (
	ink  = picture.Tone{42, 35, 28}
	soft = picture.Tone{103, 91, 77}
	rule = picture.Tone{205, 190, 165}
	leaf = picture.Tone{46, 90, 56}
)

// page is a sheet being written.
type page struct {
	*fpdf.Fpdf
	// ctx is that of the sheet: the long parts stop half-way when it ends.
	ctx   context.Context
	plan  Plan
	style Style
	// left and width are those of the column that is written.
	left, width float64
	// scratch is thrown away: what stands on it was measured only.
	scratch   *fpdf.Fpdf
	measuring bool
	// shrink is what sizes of text are multiplied by.
	shrink float64
	// weight and points are those of what is written next.
	weight string
	points float64
	// inFooter is true while the foot of a page is written, below where pages break.
	inFooter bool
}

// newDocument is an empty document with our fonts, dated as a plan was saved.
func newDocument(style Style, at time.Time) *fpdf.Fpdf {
	doc := fpdf.New("P", "mm", style.Paper, "")
	doc.SetCatalogSort(true)
	doc.SetCreationDate(at)
	doc.SetModificationDate(at)
	for _, f := range faces {
		doc.AddUTF8FontFromBytes(f.name, "", f.regular)
		doc.AddUTF8FontFromBytes(f.name, "B", f.bold)
	}
	doc.SetCellMargin(0)
	doc.SetMargins(margin, margin, margin)
	doc.SetAutoPageBreak(true, margin+6)
	return doc
}

// newPage is an empty paper about a plan.
func newPage(ctx context.Context, p Plan, style Style) *page {
	doc := newDocument(style, p.Updated)
	doc.SetTitle(plain(p.Title), true)
	doc.SetCreator("Kladotex", true)
	wide, _ := doc.GetPageSize()
	w := &page{Fpdf: doc, ctx: ctx, plan: p, style: style, left: margin, width: wide - 2*margin, shrink: 1}
	doc.SetFooterFunc(w.footer)
	return w
}

// written writes the parts of a paper one after the other. The error is that of the context when it ends
// first.
func (w *page) written(parts ...func()) ([]byte, error) {
	for _, part := range parts {
		part()
		if err := w.ctx.Err(); err != nil {
			return nil, fmt.Errorf("drawing the sheet: %w", err)
		}
	}
	var b bytes.Buffer
	if err := w.Output(&b); err != nil {
		return nil, fmt.Errorf("writing the sheet: %w", err)
	}
	return b.Bytes(), nil
}

// Ln goes on to the next line of the column.
func (w *page) Ln(high float64) {
	w.Fpdf.Ln(high)
	w.SetX(w.left)
}

func (w *page) ink(t picture.Tone) { w.SetTextColor(t[0], t[1], t[2]) }

// say writes a paragraph.
func (w *page) say(size float64, style string, t picture.Tone, text string) {
	w.font(style, size)
	w.ink(t)
	w.MultiCell(w.width, size*0.46*w.shrink, text, "", "L", false)
}

// keep goes on to a new page where what comes, height mm high, would not fit on this.
func (w *page) keep(height float64) {
	_, page := w.GetPageSize()
	if auto, bottom := w.GetAutoPageBreak(); auto && w.GetY()+height > page-bottom {
		w.AddPage()
	}
}

func (w *page) title(text string) {
	w.Ln(3)
	w.say(13, "B", leaf, text)
	w.Ln(1)
}

func (w *page) footer() {
	w.inFooter = true
	defer func() { w.inFooter = false }()
	w.SetY(-margin)
	w.font("", 8)
	w.ink(soft)
	w.CellFormat(w.width/2, 4, w.plan.Title, "", 0, "L", false, 0, "")
	w.CellFormat(w.width/2, 4, fmt.Sprintf("Kladotex · page %d", w.PageNo()), "", 0, "R", false, 0, "")
}

func (w *page) heading() {
	w.say(21, "B", ink, w.plan.Title)
	about := "As saved on " + w.plan.Updated.UTC().Format("2 January 2006, 15:04") + " UTC"
	if w.plan.Client != "" {
		about = "For " + w.plan.Client + " · " + about
	}
	w.Ln(0.5)
	w.say(9.5, "", soft, about)
	w.SetDrawColor(leaf[0], leaf[1], leaf[2])
	w.SetLineWidth(0.7)
	w.Line(w.left, w.GetY()+2, w.left+w.width, w.GetY()+2)
	w.Ln(5)
}

// draw paints shapes at a scale round a place on the page. A dense net has many thousand:
// colours are named only where they change, and places to a hundredth of a point.
func (w *page) draw(shapes []picture.Shape, at picture.Point, scale float64) {
	if w.measuring {
		return
	}
	w.SetLineJoinStyle("round")
	var last picture.Shape
	for i, s := range shapes {
		if i%1000 == 0 && w.ctx.Err() != nil {
			return
		}
		if len(s.Outline) < 3 {
			continue
		}
		if last.Outline == nil || s.Fill != last.Fill {
			w.SetFillColor(s.Fill[0], s.Fill[1], s.Fill[2])
		}
		for k, p := range s.Outline {
			to := w.LineTo
			if k == 0 {
				to = w.MoveTo
			}
			to(at.X+p.X*scale, at.Y+p.Y*scale)
		}
		if s.Width > 0 {
			w.SetDrawColor(s.Edge[0], s.Edge[1], s.Edge[2])
			w.SetLineWidth(s.Width * scale)
			w.ClosePath()
			w.DrawPath("FD")
		} else {
			w.DrawPath("F")
		}
		last = s
	}
}

// table writes rows under a head row; shares are those of the width.
func (w *page) table(rows [][]string, shares []float64) {
	for r, row := range rows {
		colour := ink
		if r == 0 {
			colour = soft
		}
		w.cells(row, shares, colour)
	}
}

// cells writes one row of a table, the last cell to the right.
func (w *page) cells(row []string, shares []float64, colour picture.Tone) {
	w.SetDrawColor(rule[0], rule[1], rule[2])
	w.SetLineWidth(0.2)
	size := 9.5
	if colour == soft { // a head
		size = 8.5
	}
	w.font("", size)
	w.ink(colour)
	cells, most := make([][]string, len(row)), 1
	for i, text := range row {
		cells[i] = w.SplitText(text, w.width*shares[i]-1.2)
		most = max(most, len(cells[i]))
	}
	line := 4.4 * w.shrink
	high := 1.6*w.shrink + line*float64(most)
	w.keep(high)
	top, x := w.GetY(), w.left
	for i, lines := range cells {
		align := "L"
		if i == len(row)-1 && i > 0 {
			align = "R"
		}
		for k, text := range lines {
			w.SetXY(x, top+line*float64(k))
			w.CellFormat(w.width*shares[i], high-line*float64(most-1), text, "", 0, align, false, 0, "")
		}
		x += w.width * shares[i]
	}
	w.Line(w.left, top+high, x, top+high)
	w.SetXY(w.left, top+high)
}
