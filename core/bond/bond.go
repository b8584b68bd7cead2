// Package bond divides rows into sections as masons divide courses into bricks: grid,
// brick, triangles, free-hand. It knows no geometry.
//
// A [Course] is a row of one side. Places on it are given as σ, the share (0..1) of its
// length, lengths as multiples of the wished section width.
package bond

import (
	"cmp"
	"context"
	"math"
	"slices"
)

// The rules of a bond. A grid's column may shrink to minColumn of the wished
// width before columns are dropped; the quarter rule and the width band are
// those of a brick.
const (
	minColumn, maxColumn = 0.65, 1.5
	// Quarter is the least offset of a part end from those of the adjoining
	// row, in mean section widths: the quarter unit that building codes ask of
	// head joints in running bond.
	Quarter = 0.25
	// band is how far a width may stray from the wished one in rows of three
	// or more sections.
	band = 0.35
)

// End says what a row has at an end that lies on the middle of the head where no
// part runs: its mirror image goes on from there.
type End int

const (
	// Border is an end that is none: a hairline, a part, another zone.
	Border End = iota
	// Straddled: a section lies across the middle, half of it on either side.
	Straddled
	// Divided: a part end lies on the middle.
	Divided
)

// Course is a row of one side before it is drawn: its length in wished widths and
// the σ of its interior part ends, rising. A part end runs straight up but where
// Upper holds the σ at which each ends on the upper line.
type Course struct {
	Length     float64
	Joints     []float64
	Upper      []float64
	Start, End End
}

// Boxes is the number of sections on this side, one across the middle included.
func (c *Course) Boxes() int { return len(c.Joints) + 1 }

// Halves is the number of ends at which only half a section belongs to this side.
func (c *Course) Halves() (n int) {
	if c.Start == Straddled {
		n++
	}
	if c.End == Straddled {
		n++
	}
	return n
}

// Widths is the row's length in sections: one across the middle counts half.
func (c *Course) Widths() float64 { return float64(c.Boxes()) - float64(c.Halves())/2 }

// Folds is how often box k lies across the middle: its width is that of the box
// times 2 for each.
func (c *Course) Folds(k int) float64 {
	f := 1.0
	if k == 0 && c.Start == Straddled {
		f *= 2
	}
	if k == c.Boxes()-1 && c.End == Straddled {
		f *= 2
	}
	return f
}

// Top are the σ of the part ends on the upper line.
func (c *Course) Top() []float64 {
	if c.Upper != nil {
		return c.Upper
	}
	return c.Joints
}

// withMiddle are part ends of the course together with those on the middle.
func (c *Course) withMiddle(joints []float64) []float64 {
	if c.Start != Divided && c.End != Divided {
		return joints
	}
	out := make([]float64, 0, len(joints)+2)
	if c.Start == Divided {
		out = append(out, 0)
	}
	out = append(out, joints...)
	if c.End == Divided {
		out = append(out, 1)
	}
	return out
}

// Lower and Higher are all part ends on the lower and on the upper line, those on
// the middle included.
func (c *Course) Lower() []float64  { return c.withMiddle(c.Joints) }
func (c *Course) Higher() []float64 { return c.withMiddle(c.Top()) }

// Bounds are the σ on the lower line where section k (from 0) starts and ends.
func (c *Course) Bounds(k int) (from, to float64) { return Gap(c.Joints, k) }

// Gap are the ends of the k-th gap between joints.
func Gap(joints []float64, k int) (from, to float64) {
	to = 1
	if k > 0 {
		from = joints[k-1]
	}
	if k < len(joints) {
		to = joints[k]
	}
	return from, to
}

// Box is a section of a course: the σ it takes up on the lower and on the upper
// line. A triangle's tip takes up none.
type Box struct{ LowFrom, LowTo, HighFrom, HighTo float64 }

// Box is section k, from 0.
func (c *Course) Box(k int) Box {
	lowFrom, lowTo := Gap(c.Joints, k)
	highFrom, highTo := Gap(c.Top(), k)
	return Box{lowFrom, lowTo, highFrom, highTo}
}

// Middle is the share of the row's middle line that the box takes up.
func (b Box) Middle() float64 { return (b.LowTo - b.LowFrom + b.HighTo - b.HighFrom) / 2 }

// ends are what a course may have at an end: on the middle of the head, where
// free, either; a section where a part stops before the row.
func ends(free, behindStop bool) []End {
	switch {
	case behindStop:
		return []End{Straddled}
	case free:
		return []End{Straddled, Divided}
	}
	return []End{Border}
}

// Grid gives each course equal sections, with one column count for as many
// rows as will bear it: as few seams as the column limits allow, then counts
// that come nearest the wished width. Rows that cross the middle have a column on
// it.
func Grid(courses []Course, free [2]bool) {
	for i := range courses {
		courses[i].Start, courses[i].End = ends(free[0], false)[0], ends(free[1], false)[0]
	}
	halves := float64(courses[0].Halves()) / 2
	const seam = 1e3 // dearer than any sum of width errors
	type state struct {
		n    int
		cost float64
		from int
	}
	layers := make([][]state, len(courses))
	for i, c := range courses {
		least := max(1, int(math.Ceil(c.Length/maxColumn+halves)))
		most := max(least, int(c.Length/minColumn+halves))
		for n := least; n <= most; n++ {
			off := math.Log(c.Length / max(0.5, float64(n)-halves))
			s := state{n: n, cost: math.Inf(1)}
			if i == 0 {
				s.cost = off * off
			}
			for k := range layers[max(0, i-1)] {
				if i == 0 {
					break
				}
				prev := layers[i-1][k]
				cost := prev.cost + off*off
				if prev.n != n {
					cost += seam
				}
				if cost < s.cost {
					s.cost, s.from = cost, k
				}
			}
			layers[i] = append(layers[i], s)
		}
	}
	at := 0
	for k, s := range layers[len(layers)-1] {
		if s.cost < layers[len(layers)-1][at].cost {
			at = k
		}
	}
	for i := len(courses) - 1; i >= 0; i-- {
		courses[i].Joints = endJoints(layers[i][at].n, endWidths{1, 1}, courses[i].Start, courses[i].End)
		at = layers[i][at].from
	}
}

// Brick gives each course a count and part ends that keep the quarter rule
// with both neighbours: counts and end widths by dynamic programming over the
// rows, then part ends slid between mid-joint and equal width. Where a head
// narrows so fast that this breaks a rule, broken rules are spread out, and
// failing that a wider choice of counts and end widths is tried.
//
// Rows that cross the middle, where free, have a section or a part end on it, in
// turn; behindStop asks for a section on it in the topmost.
//
// When ctx ends it stops half-way; whoever asked looks at ctx before using the
// courses. So do the steps it takes.
func Brick(ctx context.Context, courses []Course, free [2]bool, behindStop bool) {
	best, kept := math.Inf(1), []Course(nil)
	for _, choice := range choices {
		choose(ctx, courses, choice, free, behindStop)
		slide(courses)
		if bondState(courses) >= broken {
			spread(ctx, courses)
		}
		if ctx.Err() != nil {
			return
		}
		cost := bondState(courses)
		if cost < best {
			best, kept = cost, Clone(courses)
		}
		if best < broken {
			break
		}
	}
	copy(courses, kept)
}

// choice is what the dynamic programming may pick from for a course.
type choice struct {
	reach int // counts either side of the natural one
	ends  []endWidths
}

// endWidths are the widths of the first and last section of a course, in interior
// widths. Alternating them from row to row is what sets a brick going without
// half sections at the edge, which tear.
type endWidths struct{ start, end float64 }

var choices = []choice{
	{1, []endWidths{{1, 1}, {0.75, 0.75}, {0.75, 1.25}, {1.25, 0.75}, {1.25, 1.25}}},
	{1, allEndWidths(0.75, 1, 1.25)},
	{2, allEndWidths(0.7, 0.85, 1, 1.15, 1.3)},
}

func allEndWidths(widths ...float64) []endWidths {
	var all []endWidths
	for _, start := range widths {
		for _, end := range widths {
			all = append(all, endWidths{start, end})
		}
	}
	return all
}

// choose picks every course's joints from what c offers, the cheapest way through
// the rows.
func choose(ctx context.Context, courses []Course, c choice, free [2]bool, behindStop bool) {
	type state struct {
		Course
		cost float64
		from int
	}
	layers := make([][]state, len(courses))
	for i, row := range courses {
		if ctx.Err() != nil {
			return
		}
		add := func(candidate Course) {
			s := state{Course: candidate, cost: math.Inf(1)}
			own := widthCost(&s.Course)
			if i == 0 {
				s.cost = own
			} else {
				for k := range layers[i-1] {
					prev := &layers[i-1][k]
					before := prev.cost + own
					if before >= s.cost {
						break // a bond costs nothing at best, and the rest are dearer
					}
					if cost := before + bondCost(&prev.Course, &s.Course, s.cost-before); cost < s.cost {
						s.cost, s.from = cost, k
					}
				}
			}
			layers[i] = append(layers[i], s)
		}
		for _, start := range ends(free[0], behindStop && i == len(courses)-1) {
			for _, end := range ends(free[1], false) {
				candidate := Course{Length: row.Length, Start: start, End: end}
				natural := int(math.Round(row.Length + float64(candidate.Halves())/2))
				for n := max(1, natural-c.reach); n <= max(1, natural+c.reach); n++ {
					for _, e := range c.ends {
						if start != Border && e.start != 1 || end != Border && e.end != 1 {
							continue // on the middle, straddled and divided rows take turns instead
						}
						candidate.Joints = endJoints(n, e, start, end)
						add(candidate)
						if n == 1 {
							break // one section has no end widths to choose
						}
					}
				}
			}
		}
		slices.SortFunc(layers[i], func(a, b state) int { return cmp.Compare(a.cost, b.cost) })
	}
	at := 0 // the cheapest end
	for i := len(courses) - 1; i >= 0; i-- {
		courses[i] = layers[i][at].Course
		at = layers[i][at].from
	}
}

// endJoints are the part ends of n sections, the first and last of which are e
// times as wide as the others; of one across the middle half is on this side.
func endJoints(n int, e endWidths, start, end End) []float64 {
	if n == 1 {
		return nil
	}
	if start == Straddled {
		e.start /= 2
	}
	if end == Straddled {
		e.end /= 2
	}
	unit := 1 / (float64(n) - 2 + e.start + e.end)
	joints := make([]float64, n-1)
	for k := range joints {
		joints[k] = unit * (e.start + float64(k))
	}
	return joints
}

// widthBand is the least and greatest width, in wished widths, that a course of
// n sections allows.
func widthBand(n int) (low, high float64) {
	if n < 3 {
		return 0.5, 1.6
	}
	return 1 - band, 1 + band
}

// broken prices a broken rule above any sum of width and offset errors.
const broken = 1e3

// countPull weighs a course's count against its widths and offsets: without it
// a brick gathers sections, because n and n+1 in turn bond most easily.
const countPull = 0.5

// widthCost is the squared error of a course's count, the mean squared error of
// its widths (by ratio, so that wide and narrow weigh alike) and the price of
// widths outside the band.
func widthCost(c *Course) float64 {
	low, high := widthBand(c.Boxes())
	short := c.Length - c.Widths()
	cost := countPull * short * short
	last, off := 1.0, 0.0
	for k := range c.Boxes() {
		from, to := c.Bounds(k)
		w := (to - from) * c.Length * c.Folds(k)
		if math.Abs(w-last) > 1e-12 { // most are as wide as the one before
			last, off = w, math.Log(w)
		}
		cost += 6 * off * off / float64(c.Boxes())
		if w < low-1e-9 || w > high+1e-9 {
			cost += broken * (1 + max(low-w, w-high))
		}
	}
	return cost
}

// bondCost prices the offsets between the part ends of two adjoining courses. Where
// most is less than a broken rule costs, it looks no further than the first.
func bondCost(below, above *Course, most float64) float64 {
	stop := 0.0
	if most < broken {
		stop = Quarter
	}
	least, mean, ok := Offsets(below, above, stop)
	if !ok {
		return 0
	}
	cost := 4 * (0.5 - mean) * (0.5 - mean)
	if least < Quarter {
		cost += broken * (1 + Quarter - least)
	}
	return cost
}

// MeanWidth is the mean section width of two adjoining courses on their shared
// line, in σ.
func MeanWidth(below, above *Course) float64 {
	return (1/below.Widths() + 1/above.Widths()) / 2
}

// Offsets are the least and the mean distance of a part end of one course from
// the nearest of the other on the line they share, in mean section widths, or of
// those up to the first that is less than stop; ok is false when either has none.
func Offsets(below, above *Course, stop float64) (least, mean float64, ok bool) {
	a, b := below.Higher(), above.Lower()
	if len(a) == 0 || len(b) == 0 {
		return 0, 0, false
	}
	w := MeanWidth(below, above)
	least, sum := gaps(a, b, stop*w)
	return least / w, sum / float64(len(a)+len(b)) / w, true
}

// gaps are the least and the sum of the distances from each of a to the nearest of
// b and from each of b to the nearest of a, both rising and not empty, up to the first
// that is less than stop. It walks both at once: the most frequent step of laying a
// brick.
func gaps(a, b []float64, stop float64) (least, sum float64) {
	least = math.Inf(1)
	lastA, lastB := math.Inf(-1), math.Inf(-1) // the last ones passed
	for i, j := 0, 0; i < len(a) || j < len(b); {
		var d float64
		if j == len(b) || i < len(a) && a[i] < b[j] {
			lastA, d = a[i], a[i]-lastB
			if i++; j < len(b) && b[j]-lastA < d {
				d = b[j] - lastA
			}
		} else {
			lastB, d = b[j], b[j]-lastA
			if j++; i < len(a) && a[i]-lastB < d {
				d = a[i] - lastB
			}
		}
		sum += d
		if d < least {
			if least = d; d < stop {
				break
			}
		}
	}
	return least, sum
}

// slideRounds is how often every course is slid against its neighbours. The pull
// settles within a handful of rounds.
const slideRounds = 6

// slide moves part ends towards the middle of the neighbours' sections without
// giving up equal widths, row by row, and keeps the best state seen.
func slide(courses []Course) {
	best := bondState(courses)
	kept := Clone(courses)
	for range slideRounds {
		for i := range courses {
			slideCourse(courses, i)
		}
		if cost := bondState(courses); cost < best {
			best, kept = cost, Clone(courses)
		}
	}
	copy(courses, kept)
}

func bondState(courses []Course) float64 {
	cost := 0.0
	for i := range courses {
		cost += widthCost(&courses[i])
		if i > 0 {
			cost += bondCost(&courses[i-1], &courses[i], math.Inf(1))
		}
	}
	return cost
}

// Clone copies courses so that their joints can be changed alone.
func Clone(courses []Course) []Course {
	out := slices.Clone(courses)
	for i := range out {
		out[i].Joints, out[i].Upper = slices.Clone(out[i].Joints), slices.Clone(out[i].Upper)
	}
	return out
}

// slideCourse minimises, for course i, the squared differences of its widths
// from their mean (weight 1 each) and of its part ends from the middle of the
// neighbours' section they fall in (weight midPull each): a tridiagonal least
// squares problem, solved by elimination. A section across the middle is twice as
// wide as its box, and counts half on this side: its box has the weight 2.
func slideCourse(courses []Course, i int) {
	const midPull = 0.35
	c := courses[i]
	joints := c.Joints
	m := len(joints)
	if m == 0 {
		return
	}
	weight := func(k int) float64 { return c.Folds(k) }
	// Row k: -weight(k)·x[k-1] + diag[k]·x[k] - weight(k+1)·x[k+1] = rhs[k], with
	// x[-1] = 0 and x[m] = 1; equal widths make their right side vanish.
	work := make([]float64, 2*m)
	diag, rhs := work[:m], work[m:]
	for k := range joints {
		diag[k] = weight(k) + weight(k+1)
	}
	rhs[m-1] = weight(m)
	for _, j := range []int{i - 1, i + 1} {
		if j < 0 || j >= len(courses) || len(courses[j].Joints) == 0 {
			continue
		}
		other := courses[j]
		for k, x := range joints {
			at, _ := slices.BinarySearch(other.Joints, x)
			if at == 0 || at == len(other.Joints) {
				continue // the edge section: its middle would make a sliver
			}
			from, to := other.Bounds(at)
			diag[k] += midPull
			rhs[k] += midPull * (from + to) / 2
		}
	}
	for k := 1; k < m; k++ {
		f := weight(k) / diag[k-1]
		diag[k] -= f * weight(k)
		rhs[k] += f * rhs[k-1]
	}
	joints[m-1] = rhs[m-1] / diag[m-1]
	for k := m - 2; k >= 0; k-- {
		joints[k] = (rhs[k] + weight(k+1)*joints[k+1]) / diag[k]
	}
}

// spreadRounds bounds the repair of a broken rule; most take under twenty. One that
// got nowhere for spreadPatience rounds is given up.
const spreadRounds, spreadPatience = 200, 20

// spread repairs what slide could not: it moves every part end that breaks a
// rule just far enough to keep it, over and over (projection onto each
// constraint in turn), and keeps the best state seen.
func spread(ctx context.Context, courses []Course) {
	// A little more than the rule, so that the rounds converge inside it.
	const margin = 1.02
	best := bondState(courses)
	kept := Clone(courses)
	since := 0 // rounds since the best state
	for range spreadRounds {
		if since++; since > spreadPatience || ctx.Err() != nil {
			break
		}
		for i, c := range courses {
			if i > 0 {
				pushApart(courses[i-1], c, margin*Quarter)
			}
			keepWidths(c, margin)
		}
		cost := bondState(courses)
		if cost < best {
			best, kept, since = cost, Clone(courses), 0
		}
		if best < broken {
			break
		}
	}
	copy(courses, kept)
}

// pushApart moves part ends of two adjoining courses that stand closer than
// least mean section widths apart, half the lack each; one on the middle stays.
func pushApart(below, above Course, least float64) {
	gap := least * MeanWidth(&below, &above)
	from := 0 // the first of the upper ones that may be near: both lists rise
	for k, x := range below.Joints {
		for from < len(above.Joints) && above.Joints[from] < x-2*gap {
			from++
		}
		for l := from; l < len(above.Joints); l++ {
			y := above.Joints[l]
			if y > x+2*gap {
				break
			}
			if lack := gap - math.Abs(x-y); lack > 0 {
				move := math.Copysign(lack/2, y-x)
				below.Joints[k] -= move
				above.Joints[l] += move
				x -= move
			}
		}
	}
	for _, pair := range [][2]Course{{below, above}, {above, below}} {
		fixed, free := pair[0], pair[1].Joints
		for k, x := range free {
			if fixed.Start == Divided && x < gap {
				free[k] = gap
			}
			if fixed.End == Divided && x > 1-gap {
				free[k] = 1 - gap
			}
		}
	}
}

// keepWidths moves the part ends of a course whose sections leave the width
// band, from its start to its end.
func keepWidths(c Course, margin float64) {
	low, high := widthBand(c.Boxes())
	low, high = low*margin/c.Length, high/margin/c.Length
	for k := range c.Boxes() {
		from, to := c.Bounds(k)
		f := c.Folds(k)
		lack := max(low/f-(to-from), 0) - max(to-from-high/f, 0)
		if lack == 0 {
			continue
		}
		// An end of the row cannot give way, so its neighbour gives all.
		first, last := k == 0, k == c.Boxes()-1
		switch {
		case first && !last:
			c.Joints[k] += lack
		case last && !first:
			c.Joints[k-1] -= lack
		case !first && !last:
			c.Joints[k-1] -= lack / 2
			c.Joints[k] += lack / 2
		}
	}
}

// Triangles cuts each course by a zigzag into as many triangles as it would
// hold boxes. At a border the corner pieces are three quarters and their neighbours
// five quarters of the rest: half triangles at the edge would be slivers. Across
// the middle two halves make a whole one. Zigzags of neighbouring courses start on
// opposite sides, so that tips meet tips and bases bases.
func Triangles(courses []Course, free [2]bool) {
	for i := range courses {
		c := &courses[i]
		c.Start, c.End = ends(free[0], false)[0], ends(free[1], false)[0]
		n := max(1, int(math.Round(c.Length+float64(c.Halves())/2)))
		if n == 1 {
			continue
		}
		// The zigzag's corners: one step apart, but one and a half at a border.
		const edge = 1.5
		first, last := edge, edge
		if c.Start == Straddled {
			first = 1
		}
		if c.End == Straddled {
			last = 1
		}
		steps := float64(n-3) + first + last
		if n == 2 {
			steps = 1 // one line from corner to corner
		}
		corner := func(k int) float64 {
			switch k {
			case 0:
				return 0
			case n - 1:
				return 1
			}
			return (float64(k-1) + first) / steps
		}
		c.Joints, c.Upper = make([]float64, n-1), make([]float64, n-1)
		for k := range n - 1 {
			low, high := corner(k), corner(k+1)
			if (i+k)%2 == 1 {
				low, high = high, low
			}
			c.Joints[k], c.Upper[k] = low, high
		}
	}
}

// jitterShare is how far a free-hand part end strays either way, in mean section
// widths: enough to look drawn by hand, too little to make a sliver.
const jitterShare = 0.12

// Loosen moves every part end on its lower and on its upper line by itself, the
// same way each time.
func Loosen(courses []Course) {
	for i := range courses {
		c := &courses[i]
		reach := jitterShare / c.Widths()
		c.Upper = slices.Clone(c.Joints)
		for k := range c.Joints {
			c.Joints[k] += reach * noise(2*i, k)
			c.Upper[k] += reach * noise(2*i+1, k)
		}
	}
}

// noise is a number in -1..1 that looks random but depends on a and b alone: the
// finalizer of the SplitMix64 generator (Steele, Lea and Flood 2014, constants
// from memory).
func noise(a, b int) float64 {
	x := uint64(a)<<32 + uint64(b) + 0x9e3779b97f4a7c15
	x = (x ^ x>>30) * 0xbf58476d1ce4e5b9
	x = (x ^ x>>27) * 0x94d049bb133111eb
	x ^= x >> 31
	return float64(x>>11)/(1<<52) - 1
}
