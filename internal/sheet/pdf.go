// Package sheet writes plans down for people: the plan sheet as PDF, and everything held
// about a client as JSON.
package sheet

import (
	"bytes"
	"context"
	"fmt"
	"math"
	"regexp"
	"slices"
	"strings"
	"time"

	"codeberg.org/go-pdf/fpdf"

	"kladotex/core/attach"
	"kladotex/core/hang"
	"kladotex/core/hours"
	"kladotex/core/method"
	"kladotex/core/method/figure"
	"kladotex/core/method/moves"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/core/tally"
	"kladotex/internal/picture"
)

// Plan is a plan to be put on paper.
type Plan struct {
	Title  string
	Client string // empty while it is open whose head it is
	// Cautions are the client's, gravest first.
	Cautions []string
	Updated  time.Time
	Input    plan.Input
	Result   tally.Result
	// Drape and Landings are how it hangs; nil leaves that page out.
	Drape    *hang.Drape
	Landings *hang.Landings
	// Day is how it is done; nil leaves that page out.
	Day *hours.DayPlan
}

// Style is how a person reads.
type Style struct {
	Unit     Unit
	Paper    string // "letter" or "a4"
	Currency string // ISO 4217 code of the studio's currency
}

// Measures of the page, mm.
const (
	margin     = 16.0
	lineHeight = 5.2
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
	width float64 // between the margins
	// weight and points are those of what is written next.
	weight string
	points float64
	// inFooter is true while the foot of a page is written, below where pages break.
	inFooter bool
}

// PDF writes the plan sheet: the head from four sides, counts, order, hours and
// the steps of the method, the gauge card in true scale with a ruler to check the print
// by, the row guide, and the row tapes. The error is that of ctx when it ends first.
func PDF(ctx context.Context, p Plan, style Style) ([]byte, error) {
	w := newPage(ctx, p, style)
	return w.written(
		w.AddPage, w.heading, w.heads, w.tally, w.zones, w.order,
		w.AddPage, w.methods, w.hours, w.cautions,
		w.hangPage,
		w.dayPages,
		w.AddPage, w.gauge,
		w.AddPage, w.rowGuide,
		w.AddPage, w.rowTapes,
	)
}

// newPage is an empty paper about a plan.
func newPage(ctx context.Context, p Plan, style Style) *page {
	doc := fpdf.New("P", "mm", style.Paper, "")
	doc.SetCatalogSort(true)
	doc.SetCreationDate(p.Updated)
	doc.SetModificationDate(p.Updated)
	doc.SetTitle(plain(p.Title), true)
	doc.SetCreator("Kladotex", true)
	for _, f := range faces {
		doc.AddUTF8FontFromBytes(f.name, "", f.regular)
		doc.AddUTF8FontFromBytes(f.name, "B", f.bold)
	}
	doc.SetCellMargin(0)
	doc.SetMargins(margin, margin, margin)
	doc.SetAutoPageBreak(true, margin+6)
	wide, _ := doc.GetPageSize()
	w := &page{Fpdf: doc, ctx: ctx, plan: p, style: style, width: wide - 2*margin}
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

func (w *page) ink(t picture.Tone) { w.SetTextColor(t[0], t[1], t[2]) }

// say writes a paragraph.
func (w *page) say(size float64, style string, t picture.Tone, text string) {
	w.font(style, size)
	w.ink(t)
	w.MultiCell(w.width, size*0.46, text, "", "L", false)
}

// keep goes on to a new page where what comes, height mm high, would not fit on this.
func (w *page) keep(height float64) {
	_, page := w.GetPageSize()
	if _, bottom := w.GetAutoPageBreak(); w.GetY()+height > page-bottom {
		w.AddPage()
	}
}

func (w *page) title(text string) {
	w.Ln(4)
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
	w.Line(margin, w.GetY()+2, margin+w.width, w.GetY()+2)
	w.Ln(5)
}

// heads draws the head from four sides.
func (w *page) heads() {
	const high = 58.0
	sides := []struct {
		name     string
		lon, lat float64
	}{{"Front", 0, 14}, {"Left", 90, 8}, {"Back", 180, 12}, {"Right", 270, 8}}
	each := w.width / float64(len(sides))
	top := w.GetY()
	for i, side := range sides {
		if w.ctx.Err() != nil {
			return
		}
		middle := picture.Point{X: margin + each*(float64(i)+0.5), Y: top + high*0.46}
		w.draw(picture.Scene(w.plan.Result, picture.CameraAt(w.plan.Result.Head.Axes, side.lon*math.Pi/180, side.lat*math.Pi/180)), middle, each/228)
		w.SetXY(margin+each*float64(i), top+high)
		w.font("", 9)
		w.ink(soft)
		w.CellFormat(each, 4, side.name, "", 0, "C", false, 0, "")
	}
	w.SetXY(margin, top+high+6)
}

// draw paints shapes at a scale round a place on the page. A dense net has many thousand:
// colours are named only where they change, and places to a hundredth of a point.
func (w *page) draw(shapes []picture.Shape, at picture.Point, scale float64) {
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

// tally writes the plan in six numbers.
func (w *page) tally() {
	t, h := w.plan.Result.Tally, w.plan.Result.Hours.Total
	figures := [][2]string{
		{"Sections", fmt.Sprint(t.Sections)},
		{"Pieces", fmt.Sprintf("%d + %d spare", t.Pieces, t.Spares)},
		{"Packs to buy", fmt.Sprint(t.Packs)},
		{"Cost", money(t.Cost, w.style.Currency)},
		{"Hours", duration(h.Low) + " – " + duration(h.High)},
		{"Weight, dry", w.style.Unit.Weight(t.Weight)},
	}
	const columns = 3
	each := w.width / columns
	for i, f := range figures {
		if i%columns == 0 && i > 0 {
			w.Ln(12)
		}
		x, y := margin+each*float64(i%columns), w.GetY()
		w.SetXY(x, y)
		w.font("", 9)
		w.ink(soft)
		w.CellFormat(each, 4, f[0], "", 2, "L", false, 0, "")
		w.font("B", 13)
		w.ink(ink)
		w.CellFormat(each, 6.5, f[1], "", 0, "L", false, 0, "")
		w.SetXY(x, y)
	}
	w.SetXY(margin, w.GetY()+12)
}

// size writes the section wished for, and what it grows to where rows grow.
func (w *page) size(rows []parting.Row) string {
	u := w.style.Unit
	first, last := rows[0].Size, rows[len(rows)-1].Size
	text := u.Length(first.Width) + " × " + u.Length(first.Height)
	if math.Abs(last.Width-first.Width) > 0.5 {
		text += " to " + u.Length(last.Width) + " × " + u.Length(last.Height)
	}
	return text
}

// tracks is the table of tracks and nets, where there are any.
func (w *page) tracks() {
	l, u := w.plan.Result.Layout, w.style.Unit
	if len(l.Tracks) == 0 {
		return
	}
	title, against := "Cornrows", "the next cornrow"
	if len(l.Nets) > 0 {
		title, against = "Cornrows under the net", "the row below"
	}
	w.title(title)
	rows := [][]string{{"Zone", "Length of each, in order", "Pieces"}}
	pieces := map[parting.Zone]int{}
	lengths := map[parting.Zone][]string{}
	var order []parting.Zone
	for _, t := range l.Tracks {
		if lengths[t.Zone] == nil {
			order = append(order, t.Zone)
		}
		text := u.Length(t.Length)
		if t.Merged && t.Into != "" {
			text += " into " + t.Into
		}
		lengths[t.Zone] = append(lengths[t.Zone], text)
		pieces[t.Zone] += len(t.Hooks)
	}
	for _, n := range l.Nets {
		pieces[n.Zone] += len(n.Hooks)
	}
	for _, z := range order {
		// A line of the table holds about six of them.
		const line = 6
		list := lengths[z]
		for from := 0; from < len(list); from += line {
			name, count := "", ""
			if from == 0 {
				name, count = z.Name(), fmt.Sprint(pieces[z])
			}
			rows = append(rows, []string{name, strings.Join(list[from:min(len(list), from+line)], " · "), count})
		}
	}
	w.table(rows, []float64{0.16, 0.74, 0.1})
	w.Ln(1)
	tails := fmt.Sprintf("%d tails are left to tuck or stitch.", l.Tails())
	if l.Tails() == 1 {
		tails = "One tail is left to tuck or stitch."
	}
	w.say(9.5, "", soft, fmt.Sprintf("Pieces %s apart, staggered against %s. %s", u.Length(w.plan.Input.HookSpacing()), against, tails))
}

// zones is the table of zones.
func (w *page) zones() {
	in := w.plan.Input.Parting
	w.title("Parting: " + in.Style())
	rows := [][]string{{"Zone", "Section size", "Sections by row, lowest first", "All"}}
	for _, z := range w.plan.Result.Layout.Zones {
		own := w.rows(z.Zone)
		counts := make([]string, len(own))
		for i, r := range own {
			counts[i] = fmt.Sprint(r.Sections)
		}
		rows = append(rows, []string{z.Zone.Name(), w.size(own), strings.Join(counts, " · "), fmt.Sprint(z.Sections)})
	}
	w.table(rows, []float64{0.17, 0.31, 0.42, 0.1})
	if out := len(w.plan.Result.Layout.LeftOut); out > 0 {
		w.Ln(1)
		text := fmt.Sprintf("%d sections are left out.", out)
		if out == 1 {
			text = "1 section is left out."
		}
		w.say(9.5, "", soft, text)
	}
	w.tracks()
}

// rows are those of a zone, lowest first.
func (w *page) rows(z parting.Zone) []parting.Row {
	return slices.DeleteFunc(slices.Clone(w.plan.Result.Layout.Rows), func(r parting.Row) bool { return r.Zone != z })
}

// table writes rows under a head row; shares are those of the width.
func (w *page) table(rows [][]string, shares []float64) {
	w.SetDrawColor(rule[0], rule[1], rule[2])
	w.SetLineWidth(0.2)
	for r, row := range rows {
		style, colour := "", ink
		if r == 0 {
			colour = soft
		}
		w.font(style, 9.5)
		w.ink(colour)
		cells, most := make([][]string, len(row)), 1
		for i, text := range row {
			cells[i] = w.SplitText(text, w.width*shares[i]-2)
			most = max(most, len(cells[i]))
		}
		high := 6 + 4.4*float64(most-1)
		w.keep(high)
		left, top := w.GetXY()
		x := left
		for i, lines := range cells {
			align := "L"
			if i == len(row)-1 {
				align = "R"
			}
			for k, line := range lines {
				w.SetXY(x, top+4.4*float64(k))
				w.CellFormat(w.width*shares[i], 6, line, "", 0, align, false, 0, "")
			}
			x += w.width * shares[i]
		}
		w.Line(left, top+high, x, top+high)
		w.SetXY(left, top+high)
	}
}

// order is what to buy.
func (w *page) order() {
	w.title("To buy")
	rows := [][]string{{"What", "How sold", "Left over", "Cost"}}
	add := func(what string, o supply.Order) {
		var lines []string
		for _, l := range o.Lines {
			sold := "single"
			if l.Offer.Packs > 1 {
				sold = fmt.Sprintf("set of %d", l.Offer.Packs)
			}
			lines = append(lines, fmt.Sprintf("%d × %s at %s", l.Count, sold, money(l.Offer.Price, w.style.Currency)))
		}
		packs := "packs"
		if o.Packs == 1 {
			packs = "pack"
		}
		rows = append(rows, []string{fmt.Sprintf("%d %s %s", o.Packs, packs, what), strings.Join(lines, ", "), fmt.Sprint(o.Leftover), money(o.Cost, w.style.Currency)})
	}
	need := w.plan.Result.Need
	for _, p := range need.Pieces {
		piece := w.plan.Input.Piece(p.Piece)
		add(strings.TrimSuffix(piece.Name+", "+strings.ToLower(piece.Colour), ", "), p.Order)
	}
	for _, t := range need.Things {
		add(t.Name, t.Order)
	}
	for _, x := range need.Wraps {
		add(fmt.Sprintf("wrapping hair: %d strands for %d plaits", x.Strands, x.Plaits), x.Order)
	}
	w.table(rows, []float64{0.36, 0.4, 0.12, 0.12})
}

var placeholder = regexp.MustCompile(`\{(\w+)\}`)

// stepText puts a step's lengths in.
func (w *page) stepText(s method.Step) string {
	return placeholder.ReplaceAllStringFunc(s.Text, func(name string) string {
		return w.style.Unit.Length(s.Lengths[name[1:len(name)-1]])
	})
}

// whoGetsWhat is the table of pieces and ways, where there is more than one.
func (w *page) whoGetsWhat() {
	in := w.plan.Input
	if len(in.Uses) == 2 && len(w.plan.Result.Need.Pieces) < 2 {
		return // the same everywhere
	}
	w.title("What goes where")
	rows := [][]string{{"Where", "Piece", "Way", "At each"}}
	for _, u := range in.Uses {
		piece, way, count := "as before", "as before", "as before"
		if u.Piece != "" {
			piece = in.Piece(u.Piece).Name
		}
		if u.Way != "" {
			way = in.WayName(u.Way)
		}
		if u.Count > 0 {
			count = fmt.Sprint(u.Count)
		}
		where := u.Where.Name()
		rows = append(rows, []string{strings.ToUpper(where[:1]) + where[1:], piece, way, count})
	}
	w.table(rows, []float64{0.34, 0.32, 0.22, 0.12})
	w.Ln(1)
	w.say(9.5, "", soft, "A later line wins over those above it, in what it names.")
}

// groundNames are what pieces hang on where no plait hangs loose, as a heading says it.
var groundNames = map[method.Ground]string{
	method.OnTrack: "On the cornrows", method.OnNet: "Through the net", method.OnLink: "On the linked plaits",
}

// methods are how the pieces go on, each piece in each way.
func (w *page) methods() {
	w.whoGetsWhat()
	before, after := attach.Around(w.plan.Input)
	w.title("Before the first piece")
	w.numbered(before)
	for _, x := range w.plan.Result.Work {
		m, _ := method.Lookup(x.Method)
		name := w.plan.Input.WayName(x.Way)
		if x.Ground != method.OnPlait {
			name = groundNames[x.Ground]
		}
		if len(w.plan.Result.Need.Pieces) > 1 {
			name += ", " + w.plan.Input.Piece(x.Piece).Name
		}
		w.keep(60)
		w.title(fmt.Sprintf("%s: %d pieces", name, x.Pieces))
		w.say(9.5, "", soft, m.Summary)
		w.Ln(2)
		w.drawnSteps(x.Steps)
		u, facts := w.style.Unit, ""
		if x.Ground == method.OnPlait {
			facts = fmt.Sprintf("Plait to hide: %s, %s mm thick. ", between(x.Plait, u.Length), between(x.Thickness, func(mm float64) string { return fmt.Sprintf("%.1f", mm) }))
		}
		whole := func(v float64) string { return fmt.Sprintf("%.0f", v) }
		if x.Passes.Most > 0 {
			facts += "Passes: " + between(x.Passes, whole) + ". "
		}
		if x.Ribbon.Most > 0 {
			facts += fmt.Sprintf("Wrapping hair: %s in %s turns. ", between(x.Ribbon, u.Length), between(x.Turns, whole))
		}
		w.say(9.5, "", ink, facts+"Usual wear: "+fmt.Sprintf("%d to %d weeks.", m.WearWeeks[0], m.WearWeeks[1]))
		w.keep(moveWide*moveShape + 12)
		w.say(9.5, "", ink, "Usual mistake: "+m.Mistake+" Fix: "+m.Mend)
		w.Ln(1.5)
		wrong, _ := moves.Lookup(m.Wrong)
		w.pictures(1, func(int) (figure.Frame, figure.Stage) { return wrong.Frames[0], wrong.Stage })
		w.Ln(1.5)
		w.keep(30)
		w.say(10.5, "B", ink, "To take it off")
		w.Ln(0.5)
		w.numbered(x.TakeDown)
	}
	w.keep(30)
	w.title("After the last piece")
	w.numbered(after)
}

// between writes a number that differs between places.
func between(b plan.Between, write func(float64) string) string {
	least, most := write(b.Least), write(b.Most)
	if least == most {
		return most
	}
	return least + " to " + most
}

// numbered is a list of moves.
func (w *page) numbered(steps []method.Step) {
	for i, s := range steps {
		w.move(i+1, s)
	}
	w.Ln(1)
}

// move is one of them.
func (w *page) move(number int, s method.Step) {
	y := w.GetY()
	w.font("B", 10.5)
	w.ink(leaf)
	w.CellFormat(8, lineHeight, fmt.Sprint(number), "", 0, "L", false, 0, "")
	w.SetXY(margin+8, y)
	w.font("", 10.5)
	w.ink(ink)
	w.MultiCell(w.width-8, lineHeight, w.stepText(s), "", "L", false)
	w.Ln(1)
}

// hours is the table of stages.
func (w *page) hours() {
	w.title("Hours")
	rows := [][]string{{"Stage", "Likely", "From – to"}}
	for _, s := range w.plan.Result.Hours.Stages {
		rows = append(rows, []string{s.Name, duration(s.Minutes.Likely), duration(s.Minutes.Low) + " – " + duration(s.Minutes.High)})
	}
	t := w.plan.Result.Hours.Total
	w.table(append(rows, []string{"All, without breaks", duration(t.Likely), duration(t.Low) + " – " + duration(t.High)}), []float64{0.5, 0.2, 0.3})
}

// cautions are the client's, the warnings of this plan and the usual ones, on one
// page where they fit on one.
func (w *page) cautions() {
	points := slices.Clone(w.plan.Cautions)
	for _, n := range w.plan.Result.Notices {
		points = append(points, strings.TrimSpace(n.Reason+" "+n.Remedy))
	}
	points = append(points, "Pain, bumps or stinging mean too tight: loosen now. Nothing on sore, broken or infected scalp; with hair loss or a recent chemical service ask a clinician first.")
	const size, line, around = 9.5, 9.5 * 0.46, 22 // around: the title and the closing words, mm
	w.font("", size)
	height := float64(around)
	for i, point := range points {
		points[i] = "•  " + point
		height += line*float64(len(w.SplitText(points[i], w.width))) + 0.8
	}
	w.keep(height)
	w.title("Look out for")
	for _, point := range points {
		w.say(size, "", ink, point)
		w.Ln(0.8)
	}
	w.Ln(1.2)
	w.say(8.5, "", soft, "Usual practice of the trade, not medical advice. Follow the rules for salons where you work.")
}

// Places of the gauge card's page, mm from its top.
const (
	rulerTop = 44.0
	cardsTop = 92.0
	inch     = 25.4
)

// gauge is the gauge card in true scale and the ruler that proves it.
func (w *page) gauge() {
	w.say(21, "B", ink, "Gauge card")
	w.Ln(1)
	w.say(10, "", ink, "Print at 100 %, not fitted to the page. Hold a ruler to the one printed here: both must agree. Then cut the cards out and hold them to the scalp to keep parts equal.")
	w.ruler(rulerTop)
	x, y, tallest := margin, cardsTop, 0.0
	for _, c := range w.cards() {
		if x > margin && x+c.size.Width+cardText > margin+w.width {
			x, y, tallest = margin, y+tallest+cardGap, 0
		}
		if _, high := w.GetPageSize(); y+c.size.Height > high-margin-8 {
			w.AddPage()
			x, y, tallest = margin, margin, 0
		}
		w.card(c, x, y)
		x += c.size.Width + cardText + cardGap
		tallest = max(tallest, c.size.Height, 16)
	}
}

// gaugeCard is one size of the plan and the rows it is for.
type gaugeCard struct {
	name string
	size parting.Size
}

// cards are the sizes of the plan, each once, to a quarter of a millimetre. A zone
// whose sections grow has one for each row.
func (w *page) cards() []gaugeCard {
	var cards []gaugeCard
	near := func(a, b parting.Size) bool {
		return math.Abs(a.Width-b.Width) < 0.25 && math.Abs(a.Height-b.Height) < 0.25
	}
	for _, r := range w.plan.Result.Layout.Rows {
		name := r.Zone.Sideless()
		if own := w.rows(r.Zone); !near(own[0].Size, own[len(own)-1].Size) {
			name += fmt.Sprintf(", row %d", r.Row)
		}
		k := slices.IndexFunc(cards, func(c gaugeCard) bool { return near(c.size, r.Size) })
		switch {
		case k < 0:
			cards = append(cards, gaugeCard{name, r.Size})
		case !strings.Contains(strings.ToLower(cards[k].name), strings.ToLower(name)):
			cards[k].name += " and " + strings.ToLower(name)
		}
	}
	return cards
}

// alike tells whether every row of a right zone has its like on the left.
func (w *page) alike(right parting.Zone) bool {
	ours, theirs := w.rows(right), w.rows(right[:1]+"L")
	return slices.EqualFunc(ours, theirs, func(a, b parting.Row) bool {
		return slices.Equal(a.Lower.Parts, b.Lower.Parts) && a.Lower.Length == b.Lower.Length && !a.Edited && !b.Edited
	})
}

// rowGuide lists, row by row, where each part goes.
func (w *page) rowGuide() {
	w.say(21, "B", ink, "Row guide")
	w.Ln(1)
	w.say(10, "", ink, "Where the parts go on the lower line of each row, measured along the scalp: front rows from the hairline back, back rows from the middle part outward, rows that cross the middle from it outward, both sides alike. Off below: how far each part stands from the nearest one of the row below, + further on, − back. Rows are counted from below, rings from the hairline inward. Neat: the parts show. Quick: they are covered.")
	for _, z := range w.plan.Result.Layout.Zones {
		name := z.Zone.Name()
		if len(z.Zone) == 2 && z.Zone[1] == 'R' && w.alike(z.Zone) {
			continue
		}
		if len(z.Zone) == 2 && z.Zone[1] == 'L' && w.alike(z.Zone[:1]+"R") {
			name = z.Zone.Sideless() + ", each side"
		}
		w.keep(28) // the title, the head row and the first row stay together
		w.title(name)
		w.table([][]string{{"Row", "Line", "Parts", "at, " + string(w.style.Unit), "Sections"}}, guideShares)
		for _, r := range w.rows(z.Zone) {
			if w.ctx.Err() != nil {
				return
			}
			w.guideRow(r)
		}
	}
	if slices.ContainsFunc(w.plan.Result.Layout.Rows, func(r parting.Row) bool { return r.Edited }) {
		w.Ln(1)
		w.say(9.5, "", soft, "* Sections of this row were merged, split or left out by hand: see the head.")
	}
}

// guideShares are the columns of the row guide.
var guideShares = []float64{0.07, 0.11, 0.09, 0.62, 0.11}

// guideRow is one row of the guide: every part, and below it how far it stands off the
// row below.
func (w *page) guideRow(r parting.Row) {
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
	step := min(0.058, guideShares[3]/float64(max(1, len(at)))) // a part's share of the line
	parts := func(texts []string, size float64, t picture.Tone) {
		w.font("", size)
		w.ink(t)
		for _, text := range texts {
			cell(step, "L", text)
		}
		w.SetX(margin + w.width*(1-guideShares[4]))
	}
	w.keep(11)
	w.font("", 9.5)
	w.ink(ink)
	cell(guideShares[0], "L", fmt.Sprint(r.Row))
	cell(guideShares[1], "L", u.Length(r.Lower.Length))
	cell(guideShares[2], "L", care)
	parts(at, 9.5, ink)
	cell(guideShares[4], "R", count)
	w.Ln(-1)
	if told {
		w.font("", 8)
		w.ink(soft)
		before := guideShares[0] + guideShares[1]
		cell(before, "L", "")
		cell(guideShares[2], "L", "off below")
		parts(off, 8, soft)
		w.Ln(4.6)
	}
	w.Line(margin, w.GetY(), margin+w.width, w.GetY())
}

// ruler draws six inches and fifteen centimetres, their zero at the left margin.
func (w *page) ruler(top float64) {
	w.scale(top, 9, 6, 8, inch, "in")
	w.scale(top+18, 8, 15, 10, 10, "cm")
}

// scale draws a ruler of units units of unitMM mm, each in parts, from the left margin;
// its longest strokes are high mm, downwards, upwards below 0.
func (w *page) scale(y, high float64, units, parts int, unitMM float64, name string) {
	w.SetDrawColor(ink[0], ink[1], ink[2])
	w.SetLineWidth(0.2)
	w.font("", math.Abs(high))
	w.ink(ink)
	for n := range units*parts + 1 {
		long := 0.33 * high
		switch {
		case n%parts == 0:
			long = high
		case 2*n%parts == 0:
			long = 0.66 * high
		}
		x := margin + float64(n)*unitMM/float64(parts)
		w.Line(x, y, x, y+long)
		if n%parts == 0 {
			w.Text(x+0.7, y+max(0.96*high, 0.6*high), fmt.Sprint(n/parts))
		}
	}
	end := margin + float64(units)*unitMM
	w.Text(end+6, y+max(0.96*high, 0.6*high), name)
	w.Line(margin, y, end, y)
}

// Room beside a card for its name, and between cards, mm.
const cardText, cardGap = 42.0, 8.0

// card draws one card, width along the row.
func (w *page) card(c gaugeCard, x, y float64) {
	w.SetDrawColor(ink[0], ink[1], ink[2])
	w.SetLineWidth(0.3)
	w.SetFillColor(251, 233, 196)
	w.Rect(x, y, c.size.Width, c.size.Height, "FD")
	w.SetXY(x+c.size.Width+3, y)
	w.ink(ink)
	w.font("B", 10)
	w.MultiCell(cardText-4, 4.6, c.name, "", "L", false)
	w.SetX(x + c.size.Width + 3)
	w.font("", 9)
	w.MultiCell(cardText-4, 4.2, fmt.Sprintf("%s × %s\n%s × %s",
		Inches.Length(c.size.Width), Inches.Length(c.size.Height),
		Centimetres.Length(c.size.Width), Centimetres.Length(c.size.Height)), "", "L", false)
}
