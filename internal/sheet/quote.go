package sheet

import (
	"context"
	"fmt"
	"math"
	"strconv"
	"time"

	"kladotex/core/hang"
	"kladotex/core/plan"
	"kladotex/core/quote"
	"kladotex/core/tally"
	"kladotex/internal/picture"
)

// Quote is a quote to be put on paper, with the head it is for.
type Quote struct {
	Number int
	Given  quote.Letter
	At     time.Time
	Input  plan.Input
	Result tally.Result
	Drape  hang.Drape
}

// QuotePDF writes a quote. The error is that of ctx when it ends first.
func QuotePDF(ctx context.Context, q Quote, style Style) ([]byte, error) {
	style.Currency = q.Given.Currency
	w := newPage(ctx, Plan{Title: fmt.Sprintf("Quote %d: %s", q.Number, q.Given.Title), Client: q.Given.Client, Updated: q.At, Input: q.Input, Result: q.Result}, style)
	return w.written(
		w.AddPage,
		func() { w.quoteHead(q) },
		func() { w.partedAndDraped(q) },
		func() { w.priced(q.Given) },
		func() { w.quoteWords(q.Given) },
	)
}

func (w *page) quoteHead(q Quote) {
	g := q.Given
	w.say(21, "B", ink, fmt.Sprintf("Quote %d", q.Number))
	w.Ln(0.5)
	who := g.Studio
	if g.By != "" {
		who += " · " + g.By
	}
	w.say(10.5, "", ink, who)
	if g.Client != "" {
		w.say(10.5, "", ink, "For "+g.Client)
	}
	w.say(10.5, "", ink, g.Title)
	w.say(9.5, "", soft, "Given on "+onDay(g.On)+". It holds until "+onDay(g.Until)+".")
	w.SetDrawColor(leaf[0], leaf[1], leaf[2])
	w.SetLineWidth(0.7)
	w.Line(w.left, w.GetY()+2, w.left+w.width, w.GetY()+2)
	w.Ln(5)
}

// partedAndDraped are the head as it is parted, and with its hair from the front and behind.
func (w *page) partedAndDraped(q Quote) {
	const high = 74.0
	top := w.GetY()
	each := w.width / 3
	parted := picture.CameraAt(q.Result.Head.Axes, 148*math.Pi/180, 26*math.Pi/180)
	w.draw(picture.Scene(q.Result, parted), picture.Point{X: margin + each/2, Y: top + 0.5*high}, each/250)
	w.drapes(q.Result, q.Drape, q.Input, w.left+each, top, each, high, []float64{0, 180})
	for i, name := range []string{"The parting", "The front", "The back"} {
		w.SetXY(w.left+each*float64(i), top+high)
		w.font("", 9)
		w.ink(soft)
		w.CellFormat(each, 4, name, "", 0, "C", false, 0, "")
	}
	w.SetXY(w.left, top+high+6)
	w.say(8.5, "", soft, "Drawings, not photographs: hair falls its own way.")
}

// drapes draws the hair as it hangs from some longitudes, in degrees, each so wide and high.
func (w *page) drapes(res tally.Result, d hang.Drape, in plan.Input, left, top, each, high float64, lons []float64) {
	if w.measuring {
		return
	}
	_, boxTop, _, boxHigh := picture.DrapedBox(d.Stature)
	scale := high / boxHigh
	for i, lon := range lons {
		if w.ctx.Err() != nil {
			return
		}
		c := picture.CameraAt(res.Head.Axes, lon*math.Pi/180, 5*math.Pi/180)
		w.draw(picture.Draped(res, d, picture.HairTones(in), c), picture.Point{X: left + each*(float64(i)+0.5), Y: top - boxTop*scale}, scale)
	}
}

// priced is the table of the price.
func (w *page) priced(g quote.Letter) {
	w.title("Price")
	rows := [][]string{{"What", "How it comes about", g.Currency}}
	for _, l := range g.Price.Lines {
		rows = append(rows, []string{l.Name, l.Detail, money(l.Amount, g.Currency)})
	}
	if p := g.Price; p.TaxPercent > 0 {
		name := fmt.Sprintf("%s %s %%", p.TaxName, strconv.FormatFloat(float64(p.TaxPercent), 'f', -1, 64))
		if p.TaxIncluded {
			rows = append(rows, []string{"All, " + name + " in it", money(p.Tax, g.Currency) + " of it", money(p.Total, g.Currency)})
		} else {
			rows = append(rows, []string{name, "", money(p.Tax, g.Currency)}, []string{"All", "", money(p.Total, g.Currency)})
		}
	} else {
		rows = append(rows, []string{"All", "", money(p.Total, g.Currency)})
	}
	if g.Price.Deposit > 0 {
		rows = append(rows, []string{"Deposit, to book the day", "", money(g.Price.Deposit, g.Currency)}, []string{"Left to pay on the day", "", money(g.Price.Rest, g.Currency)})
	}
	w.table(rows, []float64{0.42, 0.36, 0.22})
}

func (w *page) quoteWords(g quote.Letter) {
	points := func(title string, lines []string) {
		if len(lines) == 0 {
			return
		}
		w.keep(20)
		w.title(title)
		for _, l := range lines {
			w.say(9.5, "", ink, "•  "+l)
			w.Ln(0.6)
		}
	}
	points("What is in it", g.Included)
	points("Look out for", g.Cautions)
	points("In the weeks after", g.Care)
	if g.Conditions != "" {
		w.title("What else holds")
		w.say(9.5, "", ink, g.Conditions)
	}
	w.Ln(1.5)
	w.say(8.5, "", soft, "Usual practice of the trade, not medical advice. Follow the rules for salons where you work.")
}
