package surface

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
)

// Chart maps a zone (s, x) to unit vectors: s runs along its rows from 0 to Steps, x across
// them from the bottom line up. Where s is whole lie the rays of the chart; between them it
// is interpolated. A zone may begin or end short of the first or last ray.
type Chart struct {
	Head  scalp.Head
	Steps int
	// Start and End are the border where the zone begins and ends, x rising; beyond them,
	// or where there are none, it is the first and the last ray.
	Start, End []Mark
	// Draw gives the places at x on every ray.
	Draw func(x float64) []r3.Vec
	// Room for clipping, so that a head's hundreds of outlines need no more of it. A chart is
	// used by one goroutine at a time.
	cut, kept, half []Mark
}

// Mark is a place of a border in a chart. At is the exact place, zero where the chart gives
// it.
type Mark struct {
	S, X float64
	At   r3.Vec
}

// Line is the line of a chart at one x, ray by ray, with its running length in mm.
type Line struct {
	X      float64
	Points []r3.Vec
	Run    []float64
}

// Line draws the chart's line at x.
func (c *Chart) Line(x float64) Line {
	curve := NewCurve(c.Head, c.Draw(x))
	return Line{x, curve.Points, curve.Run}
}

// At is the place at s.
func (l Line) At(s float64) r3.Vec {
	j, f := l.split(s)
	switch {
	case f < 1e-9:
		return l.Points[j]
	case f > 1-1e-9:
		return l.Points[j+1]
	}
	return towards(l.Points[j], l.Points[j+1], f)
}

// MM is the running length at s, mm.
func (l Line) MM(s float64) float64 {
	j, f := l.split(s)
	return l.Run[j] + f*(l.Run[j+1]-l.Run[j])
}

// SAt is the s at a running length; lines that shrink to a point have none of their own.
func (l Line) SAt(mm float64) float64 {
	j := min(len(l.Run)-1, max(1, firstFrom(l.Run, mm)))
	if step := l.Run[j] - l.Run[j-1]; step > 0 {
		return float64(j-1) + (mm-l.Run[j-1])/step
	}
	return float64(j - 1)
}

func (l Line) split(s float64) (j int, f float64) {
	j = min(len(l.Points)-2, max(0, int(s)))
	return j, s - float64(j)
}

// Between appends to out the line's own points strictly between two s, in that direction.
func (l Line) Between(out []r3.Vec, from, to float64) []r3.Vec {
	const within = 1e-6
	if from <= to {
		for j := int(from+within) + 1; float64(j) < to-within; j++ {
			out = append(out, l.Points[j])
		}
		return out
	}
	for j := int(math.Ceil(from-within)) - 1; float64(j) > to+within; j-- {
		out = append(out, l.Points[j])
	}
	return out
}

// towards is the place at share f of the short way from a to b.
func towards(a, b r3.Vec, f float64) r3.Vec {
	return scalp.Unit(r3.Add(r3.Scale(1-f, a), r3.Scale(f, b)))
}

// Box is a section of a band: the s it takes up on the lower and on the upper line. A
// triangle's tip takes up none.
type Box struct{ LowFrom, LowTo, HighFrom, HighTo float64 }

// Band is the part of a chart between two of its lines.
type Band struct {
	chart             *Chart
	Lower, Mid, Upper Line
	// LowFrom to LowTo and HighFrom to HighTo are where the zone lies along the two lines,
	// From and To its least and greatest s, and between FullFrom and FullTo no border runs
	// through the band.
	LowFrom, LowTo, HighFrom, HighTo float64
	From, To, FullFrom, FullTo       float64
	// Running is the area from the start up to every ray, mm²; RunningLow is that of the half
	// below the middle line.
	Running, RunningLow []float64
	edge                []Mark
	start, end          []Mark // the border at its start and at its end, upwards
}

// Band is the stretch of the zone between two lines, the third half way between them.
func (c *Chart) Band(lower, mid, upper Line) Band {
	b := Band{chart: c, Lower: lower, Mid: mid, Upper: upper}
	start, end := border(c.Start, lower.X, upper.X, 0), border(c.End, lower.X, upper.X, float64(c.Steps))
	span := func(list []Mark) (least, most float64) {
		least, most = math.Inf(1), math.Inf(-1)
		for i := range list {
			list[i].S = max(0, min(float64(c.Steps), list[i].S))
			least, most = min(least, list[i].S), max(most, list[i].S)
		}
		return least, most
	}
	b.From, b.FullFrom = span(start)
	b.FullTo, b.To = span(end)
	b.LowFrom, b.HighFrom = start[0].S, start[len(start)-1].S
	b.LowTo, b.HighTo = end[0].S, end[len(end)-1].S
	b.start, b.end = start, end
	b.measure()
	return b
}

// polygon is the band's edge in the chart, made when it is first asked for: most bands are
// cut where no border runs.
func (b *Band) polygon() []Mark {
	if b.edge != nil {
		return b.edge
	}
	start, end, lower, upper := b.start, b.end, b.Lower, b.Upper
	b.edge = make([]Mark, 0, 2*b.chart.Steps+len(start)+len(end))
	b.edge = append(b.edge, start[0])
	const within = 1e-6
	for j := int(b.LowFrom+within) + 1; float64(j) < b.LowTo-within; j++ {
		b.edge = append(b.edge, Mark{S: float64(j), X: lower.X})
	}
	b.edge = append(b.edge, end...)
	for j := int(math.Ceil(b.HighTo-within)) - 1; float64(j) > b.HighFrom+within; j-- {
		b.edge = append(b.edge, Mark{S: float64(j), X: upper.X})
	}
	for i := len(start) - 1; i > 0; i-- {
		b.edge = append(b.edge, start[i])
	}
	return b.edge
}

// border is a zone's border between two x, from the list that holds it or along the ray
// at s.
func border(list []Mark, low, high, s float64) []Mark {
	const within = 1e-9
	ray := []Mark{{S: s, X: low}, {S: s, X: high}}
	if len(list) < 2 {
		return ray
	}
	first, last := list[0], list[len(list)-1]
	if mid := (low + high) / 2; mid < first.X || mid > last.X {
		return ray
	}
	at := func(x float64) Mark {
		switch {
		case x <= first.X+within:
			return first
		case x >= last.X-within:
			return last
		}
		i := 1
		for list[i].X < x {
			i++
		}
		f := (x - list[i-1].X) / (list[i].X - list[i-1].X)
		return Mark{list[i-1].S + f*(list[i].S-list[i-1].S), x, towards(list[i-1].At, list[i].At, f)}
	}
	// Where a line runs past the border's end, the ray goes on from there if it meets it.
	meets := func(m Mark) bool { return math.Abs(m.S-s) < 1e-6 }
	var out []Mark
	if low < first.X-within && meets(first) {
		out = append(out, Mark{S: s, X: low})
	}
	// On a line a border's place is that of the line, which the next row shares.
	from := at(low)
	if from.X, from.At = low, (r3.Vec{}); len(out) > 0 {
		from.X, from.At = first.X, first.At
	}
	out = append(out, from)
	for _, m := range list {
		if m.X > low+1e-4 && m.X < high-1e-4 && m.X > from.X+1e-4 {
			out = append(out, m)
		}
	}
	if high > last.X+within && meets(last) {
		return append(out, last, Mark{S: s, X: high})
	}
	return append(out, Mark{S: at(high).S, X: high})
}

// measure sums the band's area up ray by ray: halves of a cell as flat pieces, those cut
// by a border as polygons.
func (b *Band) measure() {
	tables := make([]float64, 2*(b.chart.Steps+1))
	b.Running, b.RunningLow = tables[:b.chart.Steps+1], tables[b.chart.Steps+1:]
	for j := range b.chart.Steps {
		from, to := float64(j), float64(j+1)
		low, high := 0.0, 0.0
		switch {
		case to <= b.From || from >= b.To:
		case from >= b.FullFrom-1e-9 && to <= b.FullTo+1e-9:
			low, high = b.quad(b.Lower, b.Mid, j), b.quad(b.Mid, b.Upper, j)
		default:
			cell := b.clip(Box{from, to, from, to})
			b.chart.half = below(b.chart.half[:0], cell, b.Mid.X)
			low = b.flatArea(b.chart.half)
			high = b.flatArea(cell) - low
		}
		b.Running[j+1] = b.Running[j] + low + high
		b.RunningLow[j+1] = b.RunningLow[j] + low
	}
}

// below is the part of a polygon of the chart below a line.
func below(out, edge []Mark, x float64) []Mark {
	if len(edge) == 0 {
		return out
	}
	last := edge[len(edge)-1]
	for _, m := range edge {
		if (last.X < x) != (m.X < x) {
			f := (x - last.X) / (m.X - last.X)
			out = append(out, Mark{S: last.S + f*(m.S-last.S), X: x})
		}
		if m.X < x {
			out = append(out, m)
		}
		last = m
	}
	return out
}

// Outline is the edge of a zone of rows, from the lowest up: for measuring it whole.
func Outline(rows []Band) []r3.Vec {
	var out []r3.Vec
	put := func(b *Band, marks ...Mark) {
		for _, m := range marks {
			out = append(out, b.at(m))
		}
	}
	low := &rows[0]
	out = append(out, low.Lower.At(low.LowFrom))
	out = low.Lower.Between(out, low.LowFrom, low.LowTo)
	for i := range rows {
		put(&rows[i], rows[i].end...)
	}
	top := &rows[len(rows)-1]
	out = top.Upper.Between(out, top.HighTo, top.HighFrom)
	for i := len(rows) - 1; i >= 0; i-- {
		b := &rows[i]
		for k := len(b.start) - 1; k >= 0; k-- {
			put(b, b.start[k])
		}
		if i > 0 && b.LowFrom != rows[i-1].HighFrom { // the border runs along the line
			out = b.Lower.Between(out, b.LowFrom, rows[i-1].HighFrom)
		}
	}
	return out
}

// quad is the area between two lines from ray j to the next, mm².
func (b *Band) quad(low, high Line, j int) float64 {
	h := b.chart.Head
	p, q := r3.Sub(high.Points[j+1], low.Points[j]), r3.Sub(high.Points[j], low.Points[j+1])
	return math.Sqrt(r3.Norm2(r3.Cross(h.Surface(p), h.Surface(q)))) / 2
}

// flatArea is the area of a small polygon of the chart, mm².
func (b *Band) flatArea(edge []Mark) float64 {
	if len(edge) < 3 {
		return 0
	}
	h := b.chart.Head
	first := h.Surface(b.at(edge[0]))
	var sum, before r3.Vec
	for i, m := range edge[1:] {
		v := r3.Sub(h.Surface(b.at(m)), first)
		if i > 0 {
			sum = r3.Add(sum, r3.Cross(before, v))
		}
		before = v
	}
	return math.Sqrt(r3.Norm2(sum)) / 2
}

// Area of the whole band, mm².
func (b *Band) Area() float64 { return b.Running[len(b.Running)-1] }

// at is the place of a mark of the band.
func (b *Band) at(m Mark) r3.Vec {
	if m.At != (r3.Vec{}) {
		return m.At
	}
	f := 2 * (m.X - b.Lower.X) / (b.Upper.X - b.Lower.X)
	switch {
	case f < 1e-9:
		return b.Lower.At(m.S)
	case f > 2-1e-9:
		return b.Upper.At(m.S)
	case f < 1:
		return towards(b.Lower.At(m.S), b.Mid.At(m.S), f)
	}
	return towards(b.Mid.At(m.S), b.Upper.At(m.S), f-1)
}

// clip is what lies of the band between the two sides of a box; it stands until the next call.
func (b *Band) clip(box Box) []Mark {
	side := func(out, edge []Mark, low, high, sign float64) []Mark {
		if len(edge) == 0 {
			return out
		}
		off := func(m Mark) float64 {
			return sign * (m.S - low - (high-low)*(m.X-b.Lower.X)/(b.Upper.X-b.Lower.X))
		}
		const on = 1e-9
		last := edge[len(edge)-1]
		before := off(last)
		for _, m := range edge {
			now := off(m)
			if before < -on && now > on || before > on && now < -on {
				f := before / (before - now)
				out = append(out, Mark{S: last.S + f*(m.S-last.S), X: last.X + f*(m.X-last.X)})
			}
			if now >= -on {
				out = append(out, m)
			}
			last, before = m, now
		}
		return out
	}
	c := b.chart
	c.cut = side(c.cut[:0], b.polygon(), box.LowFrom, box.HighFrom, 1)
	c.kept = side(c.kept[:0], c.cut, box.LowTo, box.HighTo, -1)
	return c.kept
}

// Ring appends the outline of a box of the band: along the lower line, up, back along the
// upper line and down. Of a box that has no room in the band it is a single point, three times, so that it
// has a place and no area.
func (b *Band) Ring(out []r3.Vec, box Box) []r3.Vec {
	const within = 1e-9
	if min(box.LowFrom, box.HighFrom) >= b.FullFrom-within && max(box.LowTo, box.HighTo) <= b.FullTo+within &&
		(len(b.start) == 2 || box.LowFrom > b.FullFrom) && (len(b.end) == 2 || box.LowTo < b.FullTo) {
		put := func(l Line, from, to float64) {
			out = append(out, l.At(from))
			// A line that is a point, as at a pole, or the tip of a triangle, is there once.
			if math.Abs(from-to) > within && math.Abs(l.MM(from)-l.MM(to)) > 1e-6 {
				out = append(l.Between(out, from, to), l.At(to))
			}
		}
		put(b.Lower, box.LowFrom, box.LowTo)
		out = append(out, b.Mid.At((box.LowTo+box.HighTo)/2))
		put(b.Upper, box.HighTo, box.HighFrom)
		return append(out, b.Mid.At((box.LowFrom+box.HighFrom)/2))
	}
	edge := b.clip(box)
	first := len(out)
	put := func(u r3.Vec) {
		if len(out) == first || r3.Norm2(r3.Sub(u, out[len(out)-1])) > 1e-14 {
			out = append(out, u)
		}
	}
	high := b.Upper.X - b.Lower.X
	side := func(m Mark, low, up float64) bool {
		return math.Abs(m.S-low-(up-low)*(m.X-b.Lower.X)/high) < 1e-6
	}
	for i, m := range edge {
		put(b.at(m))
		next := edge[(i+1)%len(edge)]
		if (side(m, box.LowFrom, box.HighFrom) && side(next, box.LowFrom, box.HighFrom) ||
			side(m, box.LowTo, box.HighTo) && side(next, box.LowTo, box.HighTo)) && math.Abs(m.X-next.X) > 0.6*high { // a part end: its middle
			put(b.at(Mark{S: (m.S + next.S) / 2, X: (m.X + next.X) / 2}))
		}
	}
	for len(out) > first+1 && r3.Norm2(r3.Sub(out[first], out[len(out)-1])) < 1e-14 {
		out = out[:len(out)-1]
	}
	if len(out) == first {
		at := b.Mid.At((box.LowFrom + box.LowTo + box.HighFrom + box.HighTo) / 4)
		out = append(out, at, at, at)
	}
	return out
}

// ShareAt is the share of the band's area up to s.
func (b *Band) ShareAt(s float64) float64 {
	j := min(len(b.Running)-2, max(0, int(s)))
	return (b.Running[j] + (s-float64(j))*(b.Running[j+1]-b.Running[j])) / b.Area()
}

// Tall fills out with the share of the band's height that it has at every whole s.
func (b *Band) Tall(out []float64) {
	from, to := int(math.Ceil(b.FullFrom)), int(math.Floor(b.FullTo))
	for j := range out {
		if out[j] = 0; j >= from && j <= to {
			out[j] = 1
		}
	}
	if from <= 0 && to >= len(out)-1 {
		return
	}
	// Where a border runs the edge passes s twice: upwards on one side, downwards on the other.
	edge := b.polygon()
	high := b.Upper.X - b.Lower.X
	last := edge[len(edge)-1]
	for _, m := range edge {
		way, low, up := 1.0, last, m
		if m.S < last.S {
			way, low, up = -1, m, last
		}
		for j := max(0, int(math.Ceil(low.S))); float64(j) < up.S && j < len(out); j++ {
			if j < from || j > to {
				out[j] += way * (low.X + (float64(j)-low.S)/(up.S-low.S)*(up.X-low.X)) / high
			}
		}
		last = m
	}
	for j := range out {
		out[j] = math.Abs(out[j])
	}
}

// Height is the height of the band in mm along a part end from s low to s high.
func (b *Band) Height(low, high float64) float64 {
	mid := b.Mid.At((low + high) / 2)
	return b.chart.Head.Chord(b.Lower.At(low), mid) + b.chart.Head.Chord(mid, b.Upper.At(high))
}

// Curve is a stretch of a line of the chart.
func (c *Chart) Curve(l Line, from, to float64) Curve {
	points := make([]r3.Vec, 0, int(math.Abs(to-from))+3)
	points = append(l.Between(append(points, l.At(from)), from, to), l.At(to))
	return NewCurve(c.Head, points)
}

// ChartOf is the chart of a patch whose lines stand at the given t, x counting them.
func ChartOf(p *Patch, ts []float64) *Chart {
	rows := len(ts) - 1
	tOf := func(x float64) float64 {
		k := min(rows-1, max(0, int(x)))
		return ts[k] + (x-float64(k))*(ts[k+1]-ts[k])
	}
	c := &Chart{Head: p.Head, Steps: len(p.shares) - 1}
	c.Draw = func(x float64) []r3.Vec { return p.steps(tOf(x), make([]r3.Vec, 0, len(p.shares))) }
	marks := func(side Curve, s float64) []Mark {
		var out []Mark
		k := 0
		for i, u := range side.Points {
			t := side.Run[i] / side.Length()
			for k < rows-1 && ts[k+1] < t {
				k++
			}
			out = append(out, Mark{S: s, X: float64(k) + (t-ts[k])/(ts[k+1]-ts[k]), At: u})
		}
		return out
	}
	c.Start, c.End = marks(p.Start, 0), marks(p.End, float64(c.Steps))
	return c
}
