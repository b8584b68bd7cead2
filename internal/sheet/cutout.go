package sheet

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"kladotex/core/parting"
)

// Places of the pages to cut out, mm from their top, and an inch.
const (
	rulerTop = 34.0
	cutTop   = 62.0
	inch     = 25.4
)

// cutHead heads a page to cut out: what to do with it, and the rulers that prove its scale.
func (w *page) cutHead() {
	w.say(17, "B", ink, "Gauge cards and row tapes")
	w.say(9.5, "", ink, "Print at 100 %, not fitted to the page, and hold a ruler to those printed here: both must agree.")
	w.ruler(rulerTop)
	w.SetXY(w.left, cutTop)
}

// cutOut are the gauge cards and the row tapes in true scale, each line of them whole.
func (w *page) cutOut() []lane {
	var cards []func()
	row, used := []gaugeCard{}, 0.0
	flush := func() {
		if len(row) > 0 {
			these := row
			cards = append(cards, func() { w.cardRow(these) })
			row, used = nil, 0
		}
	}
	for _, c := range w.cards() {
		if used+c.size.Width+cardText > w.width {
			flush()
		}
		row, used = append(row, c), used+c.size.Width+cardText+cardGap
	}
	flush()
	lanes := []lane{w.lane(1, "", append([]func(){func() {
		w.say(9.5, "", ink, "Gauge cards: cut them out and hold them to the scalp to keep parts equal.")
		w.Ln(2)
	}}, cards...)...)}
	strips := []func(){func() {
		w.say(9.5, "", ink, "Row tapes: lay one along the line below its row, the dot on the start named. Lines: parts of the row. Dashes: parts of the row below. Each zone’s last tape lies along its upper line.")
		w.Ln(1)
	}}
	for _, line := range packed(w.strips(), w.width) {
		strips = append(strips, func() {
			y := w.GetY() + tapeGap/2
			x := w.left
			for _, s := range line {
				w.strip(s, x, y)
				x += s.wide
			}
			w.SetXY(w.left, y+tapeHigh+tapeGap/2)
		})
	}
	return append(lanes, w.lane(1, "", strips...))
}

// cardRow prints cards side by side.
func (w *page) cardRow(cards []gaugeCard) {
	x, y, tallest := w.left, w.GetY(), 16.0
	for _, c := range cards {
		w.card(c, x, y)
		x += c.size.Width + cardText + cardGap
		tallest = max(tallest, c.size.Height)
	}
	w.SetXY(w.left, y+tallest+cardGap/2)
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

// ruler draws six inches and fifteen centimetres, their zero at the left w.left.
func (w *page) ruler(top float64) {
	w.scale(top, 9, 6, 8, inch, "in")
	w.scale(top+18, 8, 15, 10, 10, "cm")
}

// scale draws a ruler of units units of unitMM mm, each in parts, from the left w.left;
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
		x := w.left + float64(n)*unitMM/float64(parts)
		w.Line(x, y, x, y+long)
		if n%parts == 0 {
			w.Text(x+0.7, y+max(0.96*high, 0.6*high), fmt.Sprint(n/parts))
		}
	}
	end := w.left + float64(units)*unitMM
	w.Text(end+6, y+max(0.96*high, 0.6*high), name)
	w.Line(w.left, y, end, y)
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
