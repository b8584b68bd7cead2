package sheet

import (
	"context"
	"fmt"
	"strings"
	"time"

	"kladotex/core/need"
	"kladotex/core/supply"
	"kladotex/core/words"
)

// Shopping is what a plan buys and prepares, to be put on paper.
type Shopping struct {
	Title   string
	Client  string // empty while it is open whose head it is
	Updated time.Time
	// Install, HomeBy and RinseOn are dates; empty while the day of the install is open.
	Install, HomeBy, RinseOn string
	// Stash are what is taken out of it, in words.
	Stash  []string
	Orders []ShopOrder
	Tasks  []need.Task
	// Done is how much of each task is done, by its key.
	Done map[string]int
}

// ShopOrder is what is bought of one supplier.
type ShopOrder struct {
	Name, OrderBy string
	Lines         []ShopLine
	Fee, Total    int64 // minor units
}

// ShopLine is one line of an order.
type ShopLine struct {
	Text  string
	Price int64 // minor units
}

// ShoppingPDF writes the shopping and preparation list. The error is that of ctx when it ends first.
func ShoppingPDF(ctx context.Context, s Shopping, style Style) ([]byte, error) {
	w := newPage(ctx, Plan{Title: s.Title, Client: s.Client, Updated: s.Updated}, style)
	return w.written(
		w.AddPage, w.heading,
		func() { w.dates(s) },
		func() { w.buys(s) },
		func() { w.prepares(s) },
	)
}

func onDay(date string) string {
	d, err := time.Parse(time.DateOnly, date)
	if err != nil {
		return date
	}
	return d.Format("Monday, 2 January 2006")
}

func (w *page) dates(s Shopping) {
	w.say(13, "B", leaf, "Shopping and preparation")
	w.Ln(1)
	if s.Install == "" {
		w.say(10.5, "", ink, "The day of the install is open; dates are counted back from it.")
		return
	}
	text := "Install on " + onDay(s.Install) + ". Hair at home by " + onDay(s.HomeBy) + "."
	if s.RinseOn != "" {
		text += " Rinse it on " + onDay(s.RinseOn) + " and let it dry overnight."
	}
	w.say(10.5, "", ink, text)
}

const boxSize = 4.0 // mm, to be ticked

// box is a line with a box to tick before it; checked where it is done already.
func (w *page) box(text, right string, checked bool) {
	w.keep(8)
	y := w.GetY()
	w.SetDrawColor(ink[0], ink[1], ink[2])
	w.SetLineWidth(0.35)
	w.Rect(w.left, y+0.6, boxSize, boxSize, "D")
	if checked {
		w.Line(w.left+0.8, y+2.6, w.left+1.8, y+3.8)
		w.Line(w.left+1.8, y+3.8, w.left+3.4, y+1.4)
	}
	w.font("", 10.5)
	w.ink(ink)
	w.SetXY(w.left+boxSize+3, y)
	const rightWide, boxLine = 24.0, 5.2
	w.MultiCell(w.width-boxSize-3-rightWide, boxLine, text, "", "L", false)
	end := w.GetY()
	w.SetXY(w.left+w.width-rightWide, y)
	w.CellFormat(rightWide, boxLine, right, "", 0, "R", false, 0, "")
	w.SetXY(w.left, end+1.2)
}

func (w *page) buys(s Shopping) {
	if len(s.Stash) > 0 {
		w.title("Out of the stash")
		for _, line := range s.Stash {
			w.box(line, "", false)
		}
	}
	w.title("To buy")
	if len(s.Orders) == 0 {
		w.say(10.5, "", ink, "Nothing: the stash has it all.")
	}
	for _, o := range s.Orders {
		w.keep(20)
		text := o.Name
		if o.OrderBy != "" {
			text += ", order by " + onDay(o.OrderBy)
		}
		w.say(11, "B", ink, text)
		w.Ln(1)
		for _, l := range o.Lines {
			w.box(l.Text, money(l.Price, w.style.Currency), false)
		}
		total := "Together " + money(o.Total, w.style.Currency)
		if o.Fee > 0 {
			total += ", with " + money(o.Fee, w.style.Currency) + " for delivery"
		}
		w.say(9.5, "", soft, total)
		w.Ln(2)
	}
}

func (w *page) prepares(s Shopping) {
	w.title("To prepare at home")
	if len(s.Tasks) == 0 {
		w.say(10.5, "", ink, "Nothing: the hair hangs as it comes.")
	}
	for i := range s.Tasks {
		t := &s.Tasks[i]
		w.keep(24)
		about := words.Minutes(t.Minutes)
		if t.Wait > 0 {
			about += fmt.Sprintf(" + %.0f h", t.Wait)
		}
		title := t.Title
		if t.Count > 0 {
			title += fmt.Sprintf(": %d", t.Count)
		}
		done := s.Done[t.Key]
		w.box(title, about, done >= max(1, t.Count))
		for _, step := range t.Steps {
			w.SetX(margin + boxSize + 3)
			w.font("", 10)
			w.ink(soft)
			w.MultiCell(w.width-boxSize-3, 4.6, w.stepText(step), "", "L", false)
			w.SetX(w.left)
		}
		if t.Cut != nil {
			w.cut(*t.Cut)
		}
		w.batches(t.Batches, done)
		w.Ln(2)
	}
}

// batches are those of a task, each with a box.
func (w *page) batches(list []supply.Batch, done int) {
	if len(list) < 2 {
		return
	}
	var parts []string
	for _, b := range list {
		mark := "☐"
		if done >= b.To {
			mark = "☑"
		}
		parts = append(parts, fmt.Sprintf("%s %d–%d (%s)", mark, b.From, b.To, words.Minutes(b.Minutes)))
	}
	w.SetX(margin + boxSize + 3)
	w.font("", 10)
	w.ink(ink)
	w.MultiCell(w.width-boxSize-3, 5.2, strings.Join(parts, "   "), "", "L", false)
}

// cut draws how a strand becomes units, to one scale: opened out, cut, split, folded.
func (w *page) cut(c supply.Cut) {
	const gap = 1.2
	wide := w.width - boxSize - 3 - 40
	left := margin + boxSize + 3
	each := wide / float64(c.Cuts)
	w.keep(34)
	y := w.GetY() + 3
	w.SetDrawColor(ink[0], ink[1], ink[2])
	line := func(text string, thick float64, draw func()) {
		w.SetLineWidth(thick)
		draw()
		w.font("", 9)
		w.ink(soft)
		w.SetXY(left+wide+4, y-2.4)
		w.CellFormat(36, 4.8, text, "", 0, "L", false, 0, "")
		y += 6.5
	}
	line(w.style.Unit.Length(c.Open), 1.6, func() { w.Line(left, y, left+wide, y) })
	if c.Cuts > 1 {
		line(fmt.Sprintf("%d of %s", c.Cuts, w.style.Unit.Length(c.Length())), 1.6, func() {
			for k := range c.Cuts {
				w.Line(left+each*float64(k), y, left+each*float64(k+1)-gap, y)
			}
		})
	}
	if c.Splits > 1 {
		line(fmt.Sprintf("split into %d", c.Splits), 0.7, func() {
			for k := range c.Cuts {
				for m := range c.Splits {
					at := y + 1.4*(float64(m)-float64(c.Splits-1)/2)
					w.Line(left+each*float64(k), at, left+each*float64(k+1)-gap, at)
				}
			}
		})
	}
	if c.Fold {
		line("hangs "+w.style.Unit.Length(c.Hanging()), 0.7, func() {
			w.Line(left+1.2, y-1.2, left+each/2, y-1.2)
			w.Line(left+1.2, y+1.2, left+each/2, y+1.2)
			w.Arc(left+1.2, y, 1.2, 1.2, 0, 90, 270, "D")
		})
	}
	w.SetXY(w.left, y)
}
