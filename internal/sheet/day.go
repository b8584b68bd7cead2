package sheet

import (
	"context"
	"fmt"
	"math"
	"strings"
	"time"

	"kladotex/core/hours"
	"kladotex/core/pace"
	"kladotex/core/words"
	"kladotex/internal/picture"
)

// DayPDF writes the day sheet: what comes before, the head with its rows in working order, every
// sitting with its times to tick, and what is looked at before anyone gets up. The error is that
// of ctx when it ends first.
func DayPDF(ctx context.Context, p Plan, style Style) ([]byte, error) {
	w := newPage(ctx, p, style)
	return w.written(func() {
		lanes := []lane{
			w.lane(1, "", w.heading, w.dayTitle, w.dayFigures),
			w.beforehand(),
			w.lane(1, "Working order", w.heads),
			w.dayRows(3, ""),
		}
		for i := range p.Day.Sittings {
			lanes = append(lanes, w.sitting(i))
		}
		w.flow(append(lanes, w.inspected()), nil)
	})
}

// kindStyle is how a kind of work is drawn on the day line.
type kindStyle struct {
	mark string
	fill picture.Tone
	ink  picture.Tone
}

var (
	paleInk  = picture.Tone{255, 250, 240}
	kindLook = map[pace.Kind]kindStyle{
		pace.Settle:   {"S", picture.Tone{233, 217, 182}, ink},
		pace.Cornrows: {"C", picture.Tone{79, 113, 134}, paleInk},
		pace.Nets:     {"N", picture.Tone{169, 192, 204}, ink},
		pace.Plaits:   {"P", picture.Tone{148, 182, 144}, ink},
		pace.Hook:     {"H", picture.Tone{201, 138, 27}, ink},
		pace.Attach:   {"A", picture.Tone{46, 90, 56}, paleInk},
		pace.Conceal:  {"A", picture.Tone{46, 90, 56}, paleInk},
		pace.Finish:   {"F", picture.Tone{109, 95, 141}, paleInk},
	}
)

func (w *page) dayTitle() {
	w.say(13, "B", leaf, "Day sheet")
	w.Ln(1)
}

// dayFigures are the times people name, with what is in each.
func (w *page) dayFigures() {
	rows := [][]string{{"Time", "What is in it", "Between"}}
	for _, f := range w.plan.Day.Figures {
		rows = append(rows, []string{f.Name, f.Holds, between(f.Minutes)})
	}
	w.table(rows, []float64{0.24, 0.5, 0.26})
	for _, s := range w.plan.Day.Says {
		w.Ln(1)
		w.say(9.5, "", ink, s)
	}
}

// beforehand is what comes before the first sitting, to be ticked.
func (w *page) beforehand() lane {
	var draws []func()
	for _, d := range w.plan.Day.Due {
		draws = append(draws, func() { w.due(d) })
	}
	return w.lane(1, "Before", draws...)
}

// due is one thing to be done before the first sitting, to be ticked.
func (w *page) due(d hours.DayDue) {
	when := onDay(d.On)
	switch {
	case d.On != "":
	case d.Before == 0:
		when = "the same day"
	case d.Before == 1:
		when = "the day before"
	default:
		when = fmt.Sprintf("%d days before", d.Before)
	}
	if d.At != "" {
		when += ", " + d.At
	}
	long := ""
	if d.Minutes > 0 {
		long = words.Minutes(d.Minutes)
	}
	if d.Wait > 0 {
		long += fmt.Sprintf(" + %.0f h", d.Wait)
	}
	w.box(d.Title+" – "+when, strings.TrimSpace(long), false)
}

// dayRows are the rows in working order.
func (w *page) dayRows(columns int, title string) lane {
	rows := [][]string{{"No.", "Row", "Pieces", "Time"}}
	for _, r := range w.plan.Day.Rows {
		rows = append(rows, []string{fmt.Sprint(r.Number), r.Name, fmt.Sprint(r.Pieces), words.Minutes(r.Plait + r.Attach)})
	}
	return w.rowsLane(columns, title, rows, []float64{0.13, 0.45, 0.19, 0.23})
}

// sittingName is what a sitting is called, with its date and times.
func (w *page) sittingName(i int) string {
	s := &w.plan.Day.Sittings[i]
	name := w.plan.Day.SittingName(i)
	if s.On != "" {
		name += " · " + onDay(s.On)
	}
	return fmt.Sprintf("%s · %s to about %s", name, s.At, clockAfter(s.At, 5*math.Round(s.Minutes/5)))
}

// clockAfter is the time of the clock minutes after another.
func clockAfter(at string, minutes float64) string {
	from, err := time.Parse("15:04", at)
	if err != nil {
		return at
	}
	return from.Add(time.Duration(math.Round(minutes)) * time.Minute).Format("15:04")
}

// sittingLines are all sittings as lines, without their steps.
func (w *page) sittingLines() lane {
	columns := 1
	if len(w.plan.Day.Sittings) > 2 {
		columns = 2
	}
	draws := make([]func(), len(w.plan.Day.Sittings))
	for i := range draws {
		s := &w.plan.Day.Sittings[i]
		draws[i] = func() {
			w.say(10, "B", ink, w.sittingName(i))
			w.say(9.5, "", ink, s.Does+".")
			w.line(s)
		}
	}
	return w.lane(columns, "Sittings", draws...)
}

// sitting is one of them with its line and its steps to tick.
func (w *page) sitting(i int) lane {
	s := &w.plan.Day.Sittings[i]
	l := lane{columns: 2}
	l.title = w.block(1, func() {
		w.title(w.sittingName(i))
		w.say(10, "", ink, fmt.Sprintf("%s. About %s, breaks in it.", s.Does, words.Minutes(s.Minutes)))
		w.line(s)
		w.say(9.5, "", soft, "Begun at ________   ended at ________   packs opened ________   spoilt ________")
		w.Ln(2)
	})
	for _, x := range s.Spans {
		who := ""
		if len(w.plan.Day.Hands) > 1 {
			who = w.plan.Day.Hands[x.Person].Name + ": "
		}
		l.blocks = append(l.blocks, w.block(l.columns, func() {
			w.box(fmt.Sprintf("%s  %s%s%s", clockAfter(s.At, x.Start), who, x.Name, w.pieces(x)), words.Minutes(x.End-x.Start), false)
			for _, r := range x.Rests {
				if r.Arms {
					continue
				}
				w.SetX(w.left + boxSize + 3)
				w.say(9, "", soft, fmt.Sprintf("%s  a break of %.0f min", clockAfter(s.At, r.Start), r.End-r.Start))
			}
		}))
	}
	return l
}

// pieces says how many pieces a row takes, where they are attached.
func (w *page) pieces(x hours.DaySpan) string {
	if x.Row < 0 || x.Kind == pace.Plaits {
		return ""
	}
	if n := w.plan.Day.Rows[x.Row].Pieces; n != 1 {
		return fmt.Sprintf(", %d pieces", n)
	}
	return ", 1 piece"
}

// line draws a sitting: a lane for each who works, breaks hatched, the clock below.
func (w *page) line(s *hours.DaySitting) {
	const lane, gap = 7.0, 1.4
	scale := w.width / max(s.Minutes, 120)
	top := w.GetY() + 2
	lanes := map[int]float64{}
	for k, h := range w.plan.Day.Hands {
		if !s.Has(k) {
			continue
		}
		y := top + float64(len(lanes))*(lane+gap)
		if len(w.plan.Day.Hands) > 1 {
			w.font("", 8.5)
			w.ink(soft)
			w.SetXY(w.left, y)
			w.CellFormat(w.width, 3.6, h.Name, "", 0, "L", false, 0, "")
			top += 3.8
			y += 3.8
		}
		lanes[k] = y
	}
	var wide [2]float64 // of the stretch being drawn: from, to
	flush := func(kind pace.Kind, y float64) {
		look := kindLook[kind]
		if wide[1]-wide[0] > 4 {
			w.font("B", 9)
			w.ink(look.ink)
			w.SetXY(wide[0], y)
			w.CellFormat(min(wide[1]-wide[0], 40), lane, " "+look.mark, "", 0, "L", false, 0, "")
		}
	}
	for k := range w.plan.Day.Hands {
		y, present := lanes[k]
		if !present {
			continue
		}
		var kind pace.Kind
		for _, x := range s.Spans {
			if x.Person != k {
				continue
			}
			from, to := w.left+x.Start*scale, w.left+x.End*scale
			look := kindLook[x.Kind]
			w.SetFillColor(look.fill[0], look.fill[1], look.fill[2])
			w.Rect(from, y, to-from, lane, "F")
			if kind != x.Kind {
				if kind != "" {
					flush(kind, y)
				}
				kind, wide[0] = x.Kind, from
			}
			wide[1] = to
			for _, r := range x.Rests {
				if !r.Arms {
					w.SetFillColor(255, 255, 255)
					w.SetDrawColor(ink[0], ink[1], ink[2])
					w.SetLineWidth(0.2)
					w.Rect(w.left+r.Start*scale, y, (r.End-r.Start)*scale, lane, "FD")
				}
			}
		}
		if kind != "" {
			flush(kind, y)
		}
	}
	bottom := top + float64(len(lanes))*(lane+gap)
	w.font("", 8)
	w.ink(soft)
	step := 30.0
	if 30*scale < 12 { // no room for the clock every half hour
		step = 60
	}
	for m := 0.0; m < s.Minutes-8; m += step {
		w.SetXY(w.left+m*scale, bottom)
		w.CellFormat(20, 4, clockAfter(s.At, m), "", 0, "L", false, 0, "")
	}
	w.SetXY(w.left, bottom+6)
}

// inspected is what is looked at before anyone gets up. Common practice, no source.
func (w *page) inspected() lane {
	var draws []func()
	for _, c := range []string{
		"The back with two mirrors: no plait missed",
		"No thin spots from any side; pieces per row equal left and right",
		"No knots, loops or own hair to be seen at the hairline and the part",
		"Tails and tips in, no lumps in the wind",
		"The ends fall evenly against the body",
		"Nothing pulls: no pain, bumps or stinging. Else loosen it now",
		"Packs used and left are counted; what is left goes back to the stash",
	} {
		draws = append(draws, func() { w.box(c, "", false) })
	}
	return w.lane(1, "Before you get up", append(draws, func() {
		w.say(8.5, "", soft, "S prepare the head · C cornrows · N net · P part and plait · H hook on · A attach and hide · F check and finish; white: a break. Usual practice of the trade, not medical advice. Follow the rules for salons where you work.")
	})...)
}
