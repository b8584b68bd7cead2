package bond

import (
	"context"
	"math"
	"slices"
)

// Grid cuts rows into columns that line up for as many rows as will bear it: they are kept
// from row to row, one is dropped or the last ones evened out where a border runs in, and a
// seam divides a row afresh where that costs less. Several ways are followed at once and the
// cheapest is taken. Rows that cross the middle have a column on it.
//
// For sides, carry and ctx see [Brick].
func Grid(ctx context.Context, bands []Band, sides float64, carry *Carry) []Course {
	const kept = 6 // ways followed at once
	ways := []way{{laid: carry.Laid}}
	wished := carry.Wished
	for k := range bands {
		if ctx.Err() != nil {
			return make([]Course, len(bands))
		}
		g := gridRow{b: &bands[k], sides: sides, last: k == len(bands)-1, first: k == 0}
		g.natural = sides * g.b.Sections()
		wished += g.natural
		g.wished = wished
		g.start, g.end = Border, Border
		if g.b.FreeStart {
			g.start = Straddled
		}
		if g.b.FreeEnd {
			g.end = Straddled
		}
		if k == 0 && g.b.Most > 1 && g.b.FreeStart && !g.b.Straddle {
			g.start = Divided // two quarters of a disc
		}
		var next []way
		for i := range ways {
			next = g.goOn(next, &ways[i])
		}
		if k == 0 && g.start == Divided && g.b.FreeEnd {
			// Four quarters of an oval, or three sections: whichever comes nearer to the count.
			g.end = Divided
			next = g.goOn(next, &ways[0])
		}
		slices.SortStableFunc(next, func(a, b way) int {
			switch {
			case a.cost < b.cost:
				return -1
			case a.cost > b.cost:
				return 1
			}
			return 0
		})
		ways = slices.Clone(next[:min(kept, len(next))])
	}
	courses := make([]Course, len(bands))
	for w, k := &ways[0], len(bands)-1; k >= 0; w, k = w.before, k-1 {
		courses[k] = w.row
	}
	carry.Wished, carry.Laid = wished, ways[0].laid
	return courses
}

// way is a way to cut the rows up to one, and what it comes to.
type way struct {
	row    Course
	before *way
	cost   float64
	laid   float64
}

// gridRow is a row on its way to columns.
type gridRow struct {
	b               *Band
	sides           float64
	natural, wished float64
	start, end      End
	first, last     bool
}

// What a row costs beyond its widths: columns divided afresh, and evened out at an end.
const seamCost, evenedCost = 1.2, 0.15

// goOn adds the ways to go on from one.
func (g *gridRow) goOn(next []way, w *way) []way {
	b := g.b
	var before *way
	if !g.first {
		before = w
	}
	add := func(c Course, extra float64) {
		n := contribution(g.sides, c.Boxes(), c.Start, c.End)
		laid := w.laid + n
		if b.Fixed > 0 {
			laid = w.laid + g.natural // what is fixed carries nothing on
		}
		off := (laid - g.wished) / g.sides
		cost := w.cost + extra + g.cost(&c) + 0.6*off*off
		if over := math.Abs(off) - 0.55; g.last && over > 0 {
			cost += 25 * over
		}
		next = append(next, way{c, before, cost, laid})
	}
	if b.Fixed > 0 {
		add(b.even(b.Fixed, g.start, g.end), 0)
		return next
	}
	course := func(joints []float64) Course { return Course{Joints: joints, Start: g.start, End: g.end} }
	if !g.first {
		kept := g.fitEnds(w.row.Joints)
		add(course(kept), 0)
		m := len(kept)
		slanted := b.To-b.FullTo > 1
		if m >= 2 && g.end == Border && slanted {
			add(course(kept[:m-1:m-1]), 0)
		}
		if m >= 3 && g.end == Border && slanted {
			add(course(b.evened(kept, false)), evenedCost)
		}
		slanted = b.FullFrom-b.From > 1
		if m >= 2 && g.start == Border && slanted {
			add(course(kept[1:m:m]), 0)
		}
		if m >= 3 && g.start == Border && slanted {
			add(course(b.evened(kept, true)), evenedCost)
		}
	}
	halves := 0.0
	for _, e := range []End{g.start, g.end} {
		if e == Straddled {
			halves += 0.5
		}
	}
	natural := g.natural/g.sides + halves
	aim := (g.wished-w.laid)/g.sides + halves
	tries := []int{max(1, int(math.Floor(natural))), max(1, int(math.Ceil(natural))), max(1, int(math.Round(aim)))}
	if g.first && b.Most > 0 {
		most := 1
		for contribution(g.sides, most+1, g.start, g.end) <= float64(b.Most) {
			most++
		}
		for i := range tries {
			tries[i] = min(tries[i], most)
		}
	}
	slices.Sort(tries)
	for _, n := range slices.Compact(tries) {
		extra := seamCost
		if g.first {
			extra = 0
		}
		add(b.even(n, g.start, g.end), extra)
	}
	return next
}

// cost prices the sections of a row.
func (g *gridRow) cost(c *Course) float64 {
	b := g.b
	cost, from := 0.0, 0.0
	for k := range c.Boxes() {
		to := b.Sections()
		if k < len(c.Joints) {
			to = b.areaTo(c.Joints[k])
		}
		share := (to - from) * c.Folds(k)
		off := math.Log(max(1e-3, share))
		cost += 1.5*off*off + areaCost(share)
		from = to
	}
	if m := len(c.Joints); m > 0 {
		if c.Start == Border {
			cost += slantCost(b.compactAtEnd(c.Joints[0], false))
		}
		if c.End == Border {
			cost += slantCost(b.compactAtEnd(c.Joints[m-1], true))
		}
	}
	return cost
}

// fitEnds keeps the columns of the row before that fall into this one, drops the part end
// of an end section too small to stand, and parts one too large.
func (g *gridRow) fitEnds(before []float64) []float64 {
	const least, most = 0.55, 1.55
	b := g.b
	var kept []float64
	for _, s := range before {
		if s > b.From+1e-6 && s < b.To-1e-6 {
			kept = append(kept, s)
		}
	}
	if g.end == Border && len(kept) > 0 {
		for len(kept) > 0 && b.Sections()-b.areaTo(kept[len(kept)-1]) < least {
			kept = kept[:len(kept)-1]
		}
		from := 0.0
		if len(kept) > 0 {
			from = b.areaTo(kept[len(kept)-1])
		}
		if left := b.Sections() - from; left > most {
			m := math.Round(left)
			for i := 1.0; i < m; i++ {
				kept = append(kept, b.placeOf(from+left*i/m))
			}
		}
	}
	if g.start == Border && len(kept) > 0 {
		for len(kept) > 0 && b.areaTo(kept[0]) < least {
			kept = kept[1:]
		}
		to := b.Sections()
		if len(kept) > 0 {
			to = b.areaTo(kept[0])
		}
		if to > most {
			m := math.Round(to)
			var parted []float64
			for i := 1.0; i < m; i++ {
				parted = append(parted, b.placeOf(to*i/m))
			}
			kept = append(parted, kept...)
		}
	}
	return kept
}

// evened is joints with the last three sections, or the first three, made equal.
func (b *Band) evened(joints []float64, start bool) []float64 {
	out := slices.Clone(joints)
	m := len(out)
	if start {
		to := b.areaTo(out[2])
		out[0], out[1] = b.placeOf(to/3), b.placeOf(2*to/3)
		return out
	}
	from := b.areaTo(out[m-3])
	rest := b.Sections() - from
	out[m-2], out[m-1] = b.placeOf(from+rest/3), b.placeOf(from+2*rest/3)
	return out
}
