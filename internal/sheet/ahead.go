package sheet

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"kladotex/core/parting"
	"kladotex/core/supply"
	"kladotex/core/words"
)

// ahead is what is bought and done before the first sitting, the sittings, and how the head is
// parted.
func (w *page) ahead() []lane {
	lanes := []lane{w.order()}
	if w.plan.Day != nil {
		lanes = append(lanes, w.beforehand(), w.sittingLines())
	}
	return append(append(lanes, w.stages()), w.zones()...)
}

// order is what to buy.
func (w *page) order() lane {
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
		rows = append(rows, []string{words.Count(o.Packs, "pack") + " " + what, strings.Join(lines, ", "), fmt.Sprint(o.Leftover), money(o.Cost, w.style.Currency)})
	}
	need := w.plan.Result.Need
	for _, p := range need.Pieces {
		piece := w.plan.Input.Piece(p.Piece)
		if p.Made {
			rows = append(rows, []string{words.Count(p.Order.Need, "piece") + " " + piece.Called(), "made by hand", "", ""})
			continue
		}
		add(strings.TrimSuffix(piece.Name+", "+strings.ToLower(piece.Colour), ", "), p.Order)
	}
	for _, t := range need.Things {
		add(t.Name, t.Order)
	}
	for _, x := range need.Wraps {
		add(strings.ToLower(x.Name)+": "+x.Says, x.Order)
	}
	for _, p := range need.Products {
		rows = append(rows, []string{fmt.Sprintf("%.0f %s %s", p.Amount, p.Unit, strings.ToLower(p.Name)), "a share of a jar", "", money(p.Cost, w.style.Currency)})
	}
	rows = append(rows, []string{"In all", "", "", money(w.plan.Result.Tally.Cost, w.style.Currency)})
	return w.rowsLane(1, "To buy", rows, []float64{0.36, 0.4, 0.12, 0.12})
}

// stages is the table of hours.
func (w *page) stages() lane {
	rows := [][]string{{"Stage", "Likely", "From – to"}}
	for _, s := range w.plan.Result.Hours.Stages {
		rows = append(rows, []string{s.Name, words.Minutes(s.Minutes.Likely), between(s.Minutes)})
	}
	t := w.plan.Result.Hours.Total
	return w.rowsLane(2, "Hours", append(rows, []string{"All, without breaks", words.Minutes(t.Likely), between(t)}), []float64{0.32, 0.22, 0.46})
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

// zones are the tables of zones and of cornrows.
func (w *page) zones() []lane {
	rows := [][]string{{"Zone", "Section size", "Sections by row, lowest first", "All"}}
	for _, z := range w.plan.Result.Layout.Zones {
		own := w.rows(z.Zone)
		counts := make([]string, len(own))
		for i, r := range own {
			counts[i] = fmt.Sprint(r.Sections)
		}
		rows = append(rows, []string{z.Zone.Name(), w.size(own), strings.Join(counts, " · "), fmt.Sprint(z.Sections)})
	}
	lanes := []lane{w.rowsLane(1, "Parting: "+w.plan.Input.Parting.Style(), rows, []float64{0.17, 0.31, 0.42, 0.1})}
	if out := len(w.plan.Result.Layout.LeftOut); out > 0 {
		lanes = append(lanes, w.lane(1, "", func() {
			w.say(9.5, "", soft, words.Count(out, "section")+" left out.")
		}))
	}
	return append(lanes, w.cornrows()...)
}

// cornrows is the table of cornrows and nets, where there are any.
func (w *page) cornrows() []lane {
	l, u := w.plan.Result.Layout, w.style.Unit
	if len(l.Cornrows)+len(l.Nets) == 0 {
		return nil
	}
	title := "Cornrows"
	switch {
	case len(l.Cornrows) == 0:
		title = "The net"
	case len(l.Nets) > 0:
		title = "Cornrows under the net"
	}
	rows := [][]string{{"Zone", "Length of each, in order", "Pieces"}}
	pieces := map[parting.Zone]int{}
	lengths := map[parting.Zone][]string{}
	var order []parting.Zone
	for _, t := range l.Cornrows {
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
		if lengths[n.Zone] == nil {
			order = append(order, n.Zone)
			lengths[n.Zone] = []string{words.Count(len(n.Plaits), "small plait")}
		}
		pieces[n.Zone] += len(n.Hooks)
	}
	for _, z := range order {
		rows = append(rows, []string{z.Name(), strings.Join(lengths[z], " · "), fmt.Sprint(pieces[z])})
	}
	return []lane{
		w.rowsLane(1, title, rows, []float64{0.16, 0.74, 0.1}),
		w.lane(1, "", func() { w.say(9.5, "", soft, w.baseWords()) }),
	}
}

// plaitsUnder are the small plaits that the nets of a head lie on.
func plaitsUnder(l parting.Layout) (n int) {
	for _, net := range l.Nets {
		n += len(net.Plaits)
	}
	return n
}

// baseWords say how the pieces stand on the base, and what is left of it.
func (w *page) baseWords() string {
	l, against := w.plan.Result.Layout, "the next cornrow"
	if len(l.Nets) > 0 {
		against = "the row below"
	}
	tails := words.Count(l.Tails(), "tail") + " left to tuck or stitch."
	if len(l.Nets) > 0 && len(l.Cornrows) == 0 {
		tails = words.Count(plaitsUnder(l), "small plait") + " lie under it."
	}
	return fmt.Sprintf("Pieces %s apart, staggered against %s. %s", w.style.Unit.Length(l.Spacing), against, tails)
}

// rows are those of a zone, lowest first.
func (w *page) rows(z parting.Zone) []parting.Row {
	return slices.DeleteFunc(slices.Clone(w.plan.Result.Layout.Rows), func(r parting.Row) bool { return r.Zone != z })
}
