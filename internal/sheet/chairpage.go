package sheet

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"kladotex/core/attach"
	"kladotex/core/hours"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/words"
	"kladotex/internal/picture"
)

// chairPage is all that is needed at the chair, on one page: the head with the numbers of its
// rows, counts, what goes where, hours, cautions. Where that is much, it is set smaller; what is
// more than a page then goes on upon the next.
func (w *page) chairPage() {
	_, high := w.GetPageSize()
	_, bottom := w.GetAutoPageBreak()
	for w.shrink = 1; ; w.shrink -= 0.06 {
		lanes := w.atTheChair()
		if _, pages, _ := arrange(lanes, high-bottom-margin); pages == 1 || w.shrink < 0.8 {
			w.flow(lanes, nil)
			break
		}
	}
	w.shrink = 1
}

func (w *page) atTheChair() []lane {
	lanes := []lane{
		w.lane(1, "", w.heading, w.figures, w.heads),
		w.lane(2, "", slices.Concat(w.goesWhere(), w.times(), w.cautions())...),
	}
	if w.plan.Day == nil {
		return lanes
	}
	return append(lanes, w.dayRows(3, "Rows, in working order"))
}

// figures are the plan in a few numbers.
func (w *page) figures() {
	t := w.plan.Result.Tally
	list := [][2]string{
		{"Pieces", fmt.Sprintf("%d + %d spare", t.Pieces, t.Spares)},
		{"Sections", fmt.Sprint(t.Sections)},
		{"Packs to buy", fmt.Sprint(t.Packs)},
		{"Weight, dry", w.style.Unit.Weight(t.Weight)},
		{"Hours, without breaks", between(w.plan.Result.Hours.Total)},
	}
	shares := []float64{0.21, 0.13, 0.16, 0.16, 0.34}
	x, y := w.left, w.GetY()
	for i, f := range list {
		w.SetXY(x, y)
		w.font("", 9)
		w.ink(soft)
		w.CellFormat(w.width*shares[i], 4, f[0], "", 2, "L", false, 0, "")
		w.font("B", 12)
		w.ink(ink)
		w.CellFormat(w.width*shares[i], 6, f[1], "", 0, "L", false, 0, "")
		x += w.width * shares[i]
	}
	w.SetXY(w.left, y+13)
}

// between is a range of time.
func between(r pace.Range) string { return words.Minutes(r.Low) + " – " + words.Minutes(r.High) }

// heads draws the head from four sides, with the number of every row where it is seen.
func (w *page) heads() {
	high := 54 * w.shrink
	sides := []struct {
		name     string
		lon, lat float64
	}{{"Front, from above", 0, 40}, {"Left", 90, 10}, {"Back", 180, 12}, {"Right", 270, 10}}
	each := w.width / float64(len(sides))
	top := w.GetY()
	for i, side := range sides {
		if w.ctx.Err() != nil {
			return
		}
		middle := picture.Point{X: w.left + each*(float64(i)+0.5), Y: top + high*0.46}
		camera := picture.CameraAt(w.plan.Result.Head.Axes, side.lon*math.Pi/180, side.lat*math.Pi/180)
		scale := each / 228 * min(1, w.shrink+0.04)
		if !w.measuring {
			w.draw(picture.Scene(w.plan.Result, camera), middle, scale)
		}
		if w.plan.Day != nil {
			w.numbers(w.plan.Day.Rows, camera, middle, scale)
		}
		w.SetXY(w.left+each*float64(i), top+high)
		w.font("", 9)
		w.ink(soft)
		w.CellFormat(each, 4, side.name, "", 0, "C", false, 0, "")
	}
	w.SetXY(w.left, top+high+5)
}

// numbers writes the number of each row once, at the one of its places that is seen best and has
// room for it.
func (w *page) numbers(rows []hours.DayRow, camera picture.Camera, middle picture.Point, scale float64) {
	const apart, radius = 3.7, 1.75 // mm on paper
	var taken []picture.Point
	w.font("B", 6.5/w.shrink)
	for _, r := range rows {
		best, facing := picture.Point{}, 0.3
		for _, i := range r.Places {
			seen, f := camera.See(w.plan.Result.Places[i].At)
			at := picture.Point{X: middle.X + seen.X*scale, Y: middle.Y + seen.Y*scale}
			if f > facing && !slices.ContainsFunc(taken, func(p picture.Point) bool { return math.Hypot(p.X-at.X, p.Y-at.Y) < apart }) {
				best, facing = at, f
			}
		}
		if facing == 0.3 {
			continue
		}
		taken = append(taken, best)
		w.SetFillColor(255, 255, 255)
		w.SetDrawColor(ink[0], ink[1], ink[2])
		w.SetLineWidth(0.2)
		w.Circle(best.X, best.Y, radius, "FD")
		w.ink(ink)
		w.SetXY(best.X-3, best.Y-1.5)
		w.CellFormat(6, 3, fmt.Sprint(r.Number), "", 0, "C", false, 0, "")
	}
}

// titled is a list of parts with a title over the first, which stays with it.
func (w *page) titled(title string, draws []func()) []func() {
	if len(draws) == 0 {
		return nil
	}
	first := draws[0]
	draws[0] = func() {
		w.title(title)
		first()
	}
	return draws
}

// goesWhere is the table of pieces and methods.
func (w *page) goesWhere() []func() {
	in, shares := w.plan.Input, []float64{0.28, 0.6, 0.12}
	var draws []func()
	for i, u := range in.Uses {
		if i == 1 && !slices.ContainsFunc(w.plan.Result.Work, func(x attach.Attachment) bool { return x.Ground != method.OnPlait }) {
			continue // the base, of a head that has none
		}
		var what []string
		if u.Piece != "" {
			what = append(what, in.Piece(u.Piece).Name)
		}
		if u.Way != "" {
			what = append(what, in.WayName(u.Way))
		}
		each := "same"
		if u.Count > 0 {
			each = fmt.Sprint(u.Count)
		}
		draws = append(draws, func() {
			if i == 0 {
				w.cells([]string{"Where", "Piece and method", "Each"}, shares, soft)
			}
			w.cells([]string{words.Sentence(u.Where.Name()), strings.Join(what, " · "), each}, shares, ink)
		})
	}
	if len(draws) > 1 {
		draws = append(draws, func() { w.say(9, "", soft, "Where two lines match, the lower one counts.") })
	}
	if len(w.plan.Result.Layout.Cornrows) > 0 {
		draws = append(draws, func() { w.say(9, "", soft, w.baseWords()) })
	}
	return w.titled("What goes where", draws)
}

// fewSittings are so many as page one has room for; the next page tells all.
const fewSittings = 3

// times are the times people name, and the sittings.
func (w *page) times() []func() {
	if w.plan.Day == nil {
		return nil
	}
	var rows [][]string
	for _, f := range w.plan.Day.Figures {
		rows = append(rows, []string{f.Name, between(f.Minutes)})
	}
	if n := len(w.plan.Day.Sittings); n > fewSittings {
		rows = append(rows, []string{words.Count(n, "sitting"), "the first at " + w.plan.Day.Sittings[0].At})
	} else {
		for i, s := range w.plan.Day.Sittings {
			rows = append(rows, []string{w.sittingName(i), s.Does})
		}
	}
	draws := make([]func(), len(rows))
	for i, r := range rows {
		draws[i] = func() { w.cells(r, []float64{0.46, 0.54}, ink) }
	}
	return w.titled("Hours", draws)
}

// cautions are the client's, the warnings of this plan and the usual ones.
func (w *page) cautions() []func() {
	var draws []func()
	points := slices.Clone(w.plan.Cautions)
	for _, n := range w.plan.Result.Notices {
		points = append(points, strings.TrimSpace(n.Reason+" "+n.Remedy))
	}
	points = append(points, "Pain, bumps or stinging mean too tight: loosen now. Nothing on sore, broken or infected scalp; with hair loss or a recent chemical service ask a clinician first.")
	for _, point := range points {
		draws = append(draws, func() {
			w.say(9, "", ink, "•  "+point)
			w.Ln(0.6)
		})
	}
	draws = append(draws, func() {
		w.say(8, "", soft, "Usual practice of the trade, not medical advice. Follow the rules for salons where you work.")
	})
	return w.titled("Look out for", draws)
}
