package sheet

import (
	"fmt"

	"kladotex/core/fall"
)

// hangPage is how the hair falls: pictures, where every row ends, and what is cut off.
func (w *page) hanging() []lane {
	d, l := w.plan.Drape, w.plan.Landings
	if d == nil || l == nil {
		return nil
	}
	at := "At " + w.style.Unit.Length(d.Stature) + " standing"
	if !d.Asked {
		at = "Height not given: drawn at a usual " + w.style.Unit.Length(d.Stature)
	}
	u := w.style.Unit
	cut := w.plan.Input.Trim != nil
	rows := [][]string{{"Row, lowest first", "Pieces", "Ends reach"}}
	if cut {
		rows[0] = []string{"Row, lowest first", "Pieces", "Guide piece", "Cut off"}
	}
	for _, r := range l.Rows {
		row := []string{r.Name, fmt.Sprint(r.Pieces), r.Lands.Line}
		if cut {
			off := u.Length(max(0, r.Off))
			if r.Off < 0 {
				off = "falls short by " + u.Length(-r.Off)
			}
			row = []string{r.Name, fmt.Sprint(r.Pieces), u.Length(r.Guide), off}
		}
		rows = append(rows, row)
	}
	chin, shoulder := d.Chin.Layers, d.Shoulder.Layers
	says := fmt.Sprintf("Fullness: %.1f pieces over one another at the chin, %.1f at the shoulder. Bare scalp with the hair down, parts among it: %.0f %%.", chin, shoulder, 100*d.Cover.Bare)
	if l.All.Low > 0 && !cut {
		says += " One end in twenty hangs as low as the " + fall.LineAt(l.All.Low) + "."
	}
	first := w.lane(1, "How it hangs", func() {
		w.say(9.5, "", ink, fmt.Sprintf("%s. Half of the ends reach the %s. A drawing: hair falls its own way.", at, l.All.Line))
		const high = 70.0
		top, each := w.GetY()+2, w.width/3
		w.drapes(w.plan.Result, *d, w.plan.Input, w.left, top, each, high, []float64{0, 90, 180})
		w.SetXY(w.left, top+high+2)
		w.say(9.5, "", soft, says)
		for _, s := range d.Cover.Shows {
			w.say(9.5, "", ink, "•  "+s.Name+". "+s.Remedy)
		}
		w.Ln(1)
		w.say(9.5, "", ink, "Where the ends land. "+w.plan.Input.CutWords())
		w.Ln(1)
	})
	columns, shares := 2, []float64{0.54, 0.16, 0.3}
	if cut {
		columns, shares = 1, []float64{0.46, 0.14, 0.2, 0.2}
	}
	return []lane{first, w.rowsLane(columns, "", rows, shares)}
}
