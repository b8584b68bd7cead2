package sheet

import (
	_ "embed"
	"strings"
	"sync"
	"unicode"

	"golang.org/x/image/font/sfnt"
	"golang.org/x/text/unicode/bidi"
	"golang.org/x/text/unicode/norm"
)

// The faces of the sheet: Noto Sans, and for the letters and signs it has not, DejaVu
// Sans. Their licences lie beside them.
var (
	//go:embed fonts/NotoSans-Regular.ttf
	notoRegular []byte
	//go:embed fonts/NotoSans-Bold.ttf
	notoBold []byte
	//go:embed fonts/DejaVuSans.ttf
	dejavuRegular []byte
	//go:embed fonts/DejaVuSans-Bold.ttf
	dejavuBold []byte
)

// face is a family of fonts, regular and bold.
type face struct {
	name          string
	regular, bold []byte
}

// faces are tried in order for every letter.
var faces = []face{{"noto", notoRegular, notoBold}, {"dejavu", dejavuRegular, dejavuBold}}

// glyphs are the fonts of the faces, to be asked what they have. Regular and bold have
// the same letters.
var glyphs = sync.OnceValue(func() []*sfnt.Font {
	fonts := make([]*sfnt.Font, len(faces))
	for i, f := range faces {
		font, err := sfnt.Parse(f.regular)
		if err != nil {
			panic("sheet: the font " + f.name + " shipped with the program: " + err.Error())
		}
		fonts[i] = font
	}
	return fonts
})

// run is a stretch of text in one face.
type run struct {
	face int
	text string
}

// runsOf divides a line into runs, each in the first face that has its letters. What no
// face has, such as an emoji, is left out: a name must never keep a sheet from being
// printed.
func runsOf(text string) []run {
	var runs []run
	var buffer sfnt.Buffer
	for _, r := range visual(norm.NFC.String(text)) {
		at := -1
		for i, font := range glyphs() {
			if r > 0xffff { // fpdf has no room for these
				break
			}
			if g, err := font.GlyphIndex(&buffer, r); err == nil && g != 0 {
				at = i
				break
			}
		}
		switch last := len(runs) - 1; {
		case at < 0:
		case last >= 0 && (runs[last].face == at || r == ' '):
			runs[last].text += string(r)
		default:
			runs = append(runs, run{at, string(r)})
		}
	}
	return runs
}

// visual puts a line with letters that run from right to left into the order in which it
// is printed.
func visual(line string) string {
	if !strings.ContainsFunc(line, func(r rune) bool { return unicode.In(r, unicode.Arabic, unicode.Hebrew) }) {
		return line
	}
	var p bidi.Paragraph
	if _, err := p.SetString(line); err != nil {
		return line
	}
	order, err := p.Order()
	if err != nil {
		return line
	}
	var b strings.Builder
	for i := range order.NumRuns() {
		r := order.Run(i)
		if r.Direction() == bidi.RightToLeft {
			b.WriteString(bidi.ReverseString(r.String()))
		} else {
			b.WriteString(r.String())
		}
	}
	return b.String()
}

// plain is a text without what no font and no title of a document can hold.
func plain(text string) string {
	var b strings.Builder
	for _, r := range runsOf(text) {
		b.WriteString(r.text)
	}
	return b.String()
}

// font sets the style ("" or "B") and the size in points of what is written next.
func (w *page) font(style string, size float64) {
	w.weight, w.points = style, size*w.shrink
	w.SetFont(faces[0].name, w.weight, w.points)
}

// in sets the face of a run.
func (w *page) in(r run) { w.SetFont(faces[r.face].name, w.weight, w.points) }

// GetStringWidth is the width of a text in mm, each letter in the face it is printed in.
func (w *page) GetStringWidth(text string) (width float64) {
	for _, r := range runsOf(text) {
		w.in(r)
		width += w.Fpdf.GetStringWidth(r.text)
	}
	return width
}

// CellFormat prints a cell as fpdf does, each letter in a face that has it.
func (w *page) CellFormat(width, height float64, text, border string, ln int, align string, fill bool, link int, linkText string) {
	runs := runsOf(text)
	if len(runs) < 2 {
		text = ""
		if len(runs) == 1 {
			w.in(runs[0])
			text = runs[0].text
		}
		w.Fpdf.CellFormat(width, height, text, border, ln, align, fill, link, linkText)
		return
	}
	// An empty cell first, so that a page that is full ends before it.
	_, page := w.GetPageSize()
	if auto, bottom := w.GetAutoPageBreak(); auto && w.GetY()+height > page-bottom && !w.inFooter {
		x := w.GetX()
		w.AddPage()
		w.SetX(x)
	}
	x, y := w.GetXY()
	at, long := x, w.GetStringWidth(text)
	switch align {
	case "R":
		at += width - long
	case "C":
		at += (width - long) / 2
	}
	for _, r := range runs {
		w.in(r)
		each := w.Fpdf.GetStringWidth(r.text)
		w.SetXY(at, y)
		w.Fpdf.CellFormat(each, height, r.text, "", 0, "L", false, 0, "")
		at += each
	}
	w.SetXY(x, y)
	w.Fpdf.CellFormat(width, height, "", border, ln, align, fill, link, linkText)
}

// SplitText divides a text into lines no wider than width, at spaces where there are
// any.
func (w *page) SplitText(text string, width float64) (lines []string) {
	for _, paragraph := range strings.Split(text, "\n") {
		line := ""
		for _, word := range strings.Fields(paragraph) {
			longer := word
			if line != "" {
				longer = line + " " + word
			}
			if w.GetStringWidth(longer) <= width {
				line = longer
				continue
			}
			if line != "" {
				lines = append(lines, line)
			}
			line = word
			for w.GetStringWidth(line) > width { // one word wider than the page
				letters := []rune(line)
				n := len(letters)
				for n > 1 && w.GetStringWidth(string(letters[:n])) > width {
					n--
				}
				lines, line = append(lines, string(letters[:n])), string(letters[n:])
				if n == len(letters) {
					break
				}
			}
		}
		lines = append(lines, line)
	}
	return lines
}

// MultiCell prints a text in lines, as fpdf does, each letter in a face that has it.
func (w *page) MultiCell(width, height float64, text, border, align string, fill bool) {
	for _, line := range w.SplitText(text, width) {
		w.CellFormat(width, height, line, border, 2, align, fill, 0, "")
	}
	w.SetX(w.left)
}

// Text prints a text at a place, each letter in a face that has it.
func (w *page) Text(x, y float64, text string) {
	for _, r := range runsOf(text) {
		w.in(r)
		w.Fpdf.Text(x, y, r.text)
		x += w.Fpdf.GetStringWidth(r.text)
	}
}
