package bond

import (
	"context"
	"math"
)

// A brick's part ends stand at tenths of an even section, and up to slack of them away
// from where even sections would end.
const (
	tenths = 10
	slack  = 9
	// Widths in tenths: of a section, of one at a border, and of the half of one that lies
	// across the middle.
	narrowest, widest           = 5, 15
	narrowestAtEnd, widestAtEnd = 5, 18
	narrowestHalf, widestHalf   = 3, 8
	widthPull, countPull        = 10.0, 3.0
)

// Rows that turn out to hold more than countSlack sections too many or too few together are
// cut again, counted more strictly. A section too many or too few there may be: where left
// and right mirror each other rows lack every other number.
const countSlack = 1.05

var counting = [...]float64{1, 4, 16}

// Brick cuts rows so that part ends keep the quarter rule with both neighbours and the
// number of sections follows the area. Rows that cross the middle, where free, have a
// section or a part end on it, in turn. Each row is laid on the one before by dynamic
// programming over where its part ends stand, then once more between both its neighbours.
//
// sides is the number of sides that are cut so, 1 or 2. When ctx ends it stops half-way;
// whoever asked looks at ctx before using the courses.
func Brick(ctx context.Context, bands []Band, sides float64, carry *Carry) []Course {
	l := layer{bands: bands, sides: sides}
	var courses []Course
	least, found := math.Inf(1), *carry
	for _, l.strict = range counting {
		now := *carry
		tried := make([]Course, len(bands))
		for k := range bands {
			if ctx.Err() != nil {
				return tried
			}
			tried[k] = l.lay(tried[:k], &now)
		}
		if off := math.Abs(now.Wished - now.Laid); off < least {
			least, found, courses = off, now, tried
		}
		if least <= countSlack {
			break
		}
	}
	*carry = found
	for k := range bands {
		var inner, outer *Course
		if k > 0 {
			inner = &courses[k-1]
		}
		if k+1 < len(bands) {
			outer = &courses[k+1]
		}
		c := courses[k]
		if again, cost := l.row(k, c.Boxes(), c.Start, c.End, inner, outer); !math.IsInf(cost, 1) {
			courses[k] = again
		}
	}
	repair(bands, courses)
	return courses
}

// layer lays the rows of a zone in brick; it keeps room for the search.
type layer struct {
	bands []Band
	sides float64
	// strict is how much more than usual a count off the wish costs.
	strict float64
	cells  [][2*slack + 1]cell
	place  []float64
	price  []float64
	seats  [2][]float64
	probe  []float64
}

// cell is the cheapest way to a part end: its price and where the part end before stands.
type cell struct {
	cost float64
	from int
}

// lay cuts the next row on those before it.
func (l *layer) lay(before []Course, carry *Carry) Course {
	k := len(before)
	b := &l.bands[k]
	var inner *Course
	var was Course
	if k > 0 {
		inner = &before[k-1]
		was = *inner
	}
	natural := l.sides * b.Sections()
	want := carry.Wished + natural - carry.Laid
	best, found, laid := math.Inf(1), Course{}, 0.0
	starts, stops := ends(b.FreeStart, was.Start), ends(b.FreeEnd, was.End)
	if b.Straddle {
		starts = []End{Straddled}
	}
	for _, start := range starts {
		for _, end := range stops {
			aim := (want - contribution(l.sides, 0, start, end)) / l.sides
			near := int(math.Round(aim))
			away := 1
			if aim < float64(near) {
				away = -1
			}
			for _, boxes := range [3]int{near, near + away, near - away} {
				boxes = max(1, boxes)
				if b.Fixed > 0 {
					boxes = b.Fixed
				}
				n := contribution(l.sides, boxes, start, end)
				switch {
				case b.Fixed > 0:
				case b.Most > 0 && n > float64(b.Most), n < 0.6*natural-1, n > 1.5*natural+1:
					continue
				}
				off := (n - want) / l.sides
				cost := countPull * off * off
				if over := math.Abs(off) - 0.55; over > 0 {
					cost += 12 * over
					if k == len(l.bands)-1 {
						cost += 200 * over
					}
				}
				cost *= l.strict
				if cost >= best {
					continue
				}
				c, price := l.row(k, boxes, start, end, inner, nil)
				share := math.Log(natural / max(0.5, n))
				if cost += price + 4*share*share*float64(boxes); cost < best {
					best, found, laid = cost, c, n
				}
				if b.Fixed > 0 {
					break
				}
			}
		}
	}
	if math.IsInf(best, 1) { // no way keeps the rules: even sections, and what they carry
		boxes := max(1, int(math.Round((want-contribution(l.sides, 0, starts[0], stops[0]))/l.sides)))
		if b.Fixed > 0 {
			boxes = b.Fixed
		}
		found = b.even(boxes, starts[0], stops[0])
		laid = contribution(l.sides, boxes, starts[0], stops[0])
	}
	if b.Fixed == 0 {
		carry.Wished += natural
		carry.Laid += laid
	}
	return found
}

// seat is a line the row to be cut shares with a neighbour that is.
type seat struct {
	mm       []float64 // the neighbour's part ends
	width    float64
	line     Edge
	from, to float64
	past     int // of the neighbour's part ends, those before the last place asked about
}

// off is how far the nearest of the neighbour's part ends lies, mm; asked about places that
// rise.
func (n *seat) off(mm float64) float64 {
	for n.past < len(n.mm) && n.mm[n.past] < mm {
		n.past++
	}
	d := math.Inf(1)
	if n.past < len(n.mm) {
		d = n.mm[n.past] - mm
	}
	if n.past > 0 {
		d = min(d, mm-n.mm[n.past-1])
	}
	return d
}

// row places boxes in band k against the rows on either side that are cut already; the
// price is infinite where no way keeps the widths.
func (l *layer) row(k, boxes int, start, end End, inner, outer *Course) (Course, float64) {
	b := &l.bands[k]
	steps := tenths * boxes
	if start == Straddled {
		steps -= tenths / 2
	}
	if end == Straddled {
		steps -= tenths / 2
	}
	out := Course{Start: start, End: end}
	unit := b.Sections() / float64(steps)
	cost := 0.0
	var room [2]seat
	seats := room[:0]
	for i, c := range []*Course{inner, outer} {
		if c == nil {
			continue
		}
		var from, to float64
		var line Edge
		joints := c.Joints
		if i == 0 {
			from, to = shared(&l.bands[k-1], b)
			line, joints = l.bands[k-1].Outer, c.OuterJoints()
		} else {
			from, to = shared(b, &l.bands[k+1])
			line = b.Outer
		}
		if to <= from {
			continue
		}
		l.probe = b.evenJoints(l.probe[:0], boxes, &out)
		width := (widthOn(line, c, joints, from, to) + widthOn(line, &out, l.probe, from, to)) / 2
		mm := partsOn(l.seats[i][:0], line, c, joints, from, to)
		l.seats[i] = mm
		if len(mm) == 0 {
			continue
		}
		if start == Divided {
			cost += offsetCost(nearestTo(mm, line.at(0)) / width)
		}
		if end == Divided {
			cost += offsetCost(nearestTo(mm, line.at(float64(len(line.Run)-1))) / width)
		}
		seats = append(seats, seat{mm: mm, width: width, line: line, from: from, to: to})
	}
	for len(l.price) <= steps {
		l.price, l.place = append(l.price, 0), append(l.place, 0)
	}
	price, place := l.price[:steps+1], l.place[:steps+1]
	clear(price)
	for p, j := 1, 0; p < steps; p++ {
		s := b.placeFrom(&j, float64(p)*unit)
		place[p] = s
		for i := range seats {
			if n := &seats[i]; s > n.from+1e-6 && s < n.to-1e-6 {
				price[p] += offsetCost(n.off(n.line.at(s)) / (n.width * b.local(s)))
			}
		}
	}
	if boxes == 1 {
		return out, cost
	}
	section := func(from, to int, first, last bool) float64 {
		w := float64(to-from) / tenths
		if first && start == Straddled {
			w *= 2
		}
		if last && end == Straddled {
			w *= 2
		}
		c := widthPull*(w-1)*(w-1) + areaCost(w*tenths*unit)
		if first && start == Border {
			c += slantCost(b.compactAtEnd(place[to], false))
		}
		if last && end == Border {
			c += slantCost(b.compactAtEnd(place[from], true))
		}
		return c
	}
	bounds := func(at End) (low, high int) {
		if at == Straddled {
			return narrowestHalf, widestHalf
		}
		return narrowestAtEnd, widestAtEnd
	}
	home := func(c int) int { // where the c-th part end of even sections stands
		p := c * tenths
		if start == Straddled {
			p -= tenths / 2
		}
		return p
	}
	for len(l.cells) < boxes {
		l.cells = append(l.cells, [2*slack + 1]cell{})
	}
	ways := l.cells[:boxes]
	for c := range ways {
		for i := range ways[c] {
			ways[c][i] = cell{cost: math.Inf(1)}
		}
	}
	low, high := bounds(start)
	for i := range ways[1] {
		if p := home(1) + i - slack; p >= low && p <= high && p < steps {
			ways[1][i].cost = cost + section(0, p, true, false) + price[p]
		}
	}
	var inside [2*tenths + 1]float64
	for w := range inside {
		inside[w] = section(0, w, false, false)
	}
	for c := 2; c < boxes; c++ {
		for i := range ways[c] {
			p := home(c) + i - slack
			if p >= steps {
				break
			}
			off := p - home(c-1) + slack
			best, from := math.Inf(1), 0
			for w := max(narrowest, off-2*slack); w <= min(widest, off); w++ {
				if v := ways[c-1][off-w].cost + inside[w]; v < best {
					best, from = v, off-w
				}
			}
			ways[c][i] = cell{best + price[p], from}
		}
	}
	best, at := math.Inf(1), -1
	low, high = bounds(end)
	for i, x := range ways[boxes-1] {
		p := home(boxes-1) + i - slack
		if w := steps - p; p >= steps || w < low || w > high || math.IsInf(x.cost, 1) {
			continue
		}
		if v := x.cost + section(p, steps, false, true); v < best {
			best, at = v, i
		}
	}
	if at < 0 {
		return out, math.Inf(1)
	}
	out.Joints = make([]float64, boxes-1)
	for c := boxes - 1; c >= 1; c-- {
		out.Joints[c-1] = place[home(c)+at-slack]
		at = ways[c][at].from
	}
	return out, best
}

// offsetCost prices a part end so far, in mean widths, from the next row's nearest one:
// little for less than half a section, more for what a row laid later may push under the
// quarter rule, much for what breaks it.
func offsetCost(offset float64) float64 {
	const safe, kept, risky, broken, steep, pull = 0.275, 0.257, 40, 150, 1000, 12.8
	switch {
	case offset < kept:
		return broken + steep*(safe-offset)
	case offset < safe:
		return risky
	}
	lack := 0.5 - min(0.5, offset)
	return pull * lack * lack
}

// repair moves part ends that miss the quarter rule by a little away from those they stand
// too near to, half the lack each, over and over.
func repair(bands []Band, courses []Course) {
	const rounds, margin = 30, 1.01 * Quarter
	for range rounds {
		broken := false
		for k := 1; k < len(bands); k++ {
			a, b := &courses[k-1], &courses[k]
			from, to := shared(&bands[k-1], &bands[k])
			line := bands[k-1].Outer
			width := (widthOn(line, a, a.Joints, from, to) + widthOn(line, b, b.Joints, from, to)) / 2
			push := func(c *Course, i int, fixed float64, share float64) {
				s := c.Joints[i]
				mm := line.at(s)
				lack := margin*width - math.Abs(mm-fixed)
				if lack <= 0 {
					return
				}
				broken = true
				low, _ := Gap(c.Joints, i, 0, 0)
				_, high := Gap(c.Joints, i+1, 0, float64(len(line.Run)-1))
				if i == 0 {
					low = 0
				}
				step := lack * share / perStep(line, s)
				if mm < fixed {
					step = -step
				}
				if next := s + step; next > low && next < high {
					c.Joints[i] = next
				}
			}
			inside := func(s float64) bool { return s > from+1e-6 && s < to-1e-6 }
			for i, s := range a.Joints {
				if !inside(s) {
					continue
				}
				for m, t := range b.Joints {
					if inside(t) && math.Abs(line.at(s)-line.at(t)) < margin*width {
						push(a, i, line.at(t), 0.5)
						push(b, m, line.at(a.Joints[i]), 1)
					}
				}
			}
			last := float64(len(line.Run) - 1)
			for _, pair := range [2][2]*Course{{a, b}, {b, a}} {
				for i, s := range pair[1].Joints {
					if !inside(s) {
						continue
					}
					if pair[0].Start == Divided {
						push(pair[1], i, line.at(0), 1)
					}
					if pair[0].End == Divided {
						push(pair[1], i, line.at(last), 1)
					}
				}
			}
		}
		if !broken {
			return
		}
	}
}

// perStep is the length of a step of s on a line at s, mm.
func perStep(line Edge, s float64) float64 {
	j := min(len(line.Run)-2, max(0, int(s)))
	return max(1e-6, line.Run[j+1]-line.Run[j])
}
