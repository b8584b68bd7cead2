package parting

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
	// quarter is the least offset of a part end from those of the adjoining
	// row, in mean section widths: the quarter unit that building codes ask of
	// head joints in running bond.
	quarter = 0.25
	// band is how far a width may stray from the wished one in rows of three
	// or more sections.
	band = 0.35
)

// middle says what a row has at an end that lies on the middle of the head where no
// part runs: its mirror image goes on from there.
type middle int

const (
	// border is an end that is none: a hairline, a part, another zone.
	border middle = iota
	// straddled: a section lies across the middle, half of it on either side.
	straddled
	// divided: a part end lies on the middle.
	divided
)

// course is a row of one side before it is drawn: its length in wished widths and
// the σ of its interior part ends, rising. A part end runs straight up but where
// upper holds the σ at which each ends on the upper line.
type course struct {
	length     float64
	joints     []float64
	upper      []float64
	start, end middle
}

// boxes is the number of sections on this side, one across the middle included.
func (c *course) boxes() int { return len(c.joints) + 1 }

// halves is the number of ends at which only half a section belongs to this side.
func (c *course) halves() (n int) {
	if c.start == straddled {
		n++
	}
	if c.end == straddled {
		n++
	}
	return n
}

// widths is the row's length in sections: one across the middle counts half.
func (c *course) widths() float64 { return float64(c.boxes()) - float64(c.halves())/2 }

// folds is how often box k lies across the middle: its width is that of the box
// times 2 for each.
func (c *course) folds(k int) float64 {
	f := 1.0
	if k == 0 && c.start == straddled {
		f *= 2
	}
	if k == c.boxes()-1 && c.end == straddled {
		f *= 2
	}
	return f
}

// top are the σ of the part ends on the upper line.
func (c *course) top() []float64 {
	if c.upper != nil {
		return c.upper
	}
	return c.joints
}

// withMiddle are part ends of the course together with those on the middle.
func (c *course) withMiddle(joints []float64) []float64 {
	if c.start != divided && c.end != divided {
		return joints
	}
	out := make([]float64, 0, len(joints)+2)
	if c.start == divided {
		out = append(out, 0)
	}
	out = append(out, joints...)
	if c.end == divided {
		out = append(out, 1)
	}
	return out
}

// lower and higher are all part ends on the lower and on the upper line, those on
// the middle included.
func (c *course) lower() []float64  { return c.withMiddle(c.joints) }
func (c *course) higher() []float64 { return c.withMiddle(c.top()) }

// bounds are the σ on the lower line where section k (from 0) starts and ends.
func (c *course) bounds(k int) (from, to float64) { return gap(c.joints, k) }

// gap are the ends of the k-th gap between joints.
func gap(joints []float64, k int) (from, to float64) {
	to = 1
	if k > 0 {
		from = joints[k-1]
	}
	if k < len(joints) {
		to = joints[k]
	}
	return from, to
}

// box is a section of a course: the σ it takes up on the lower and on the upper
// line. A triangle's tip takes up none.
type box struct{ lowFrom, lowTo, highFrom, highTo float64 }

func (c *course) box(k int) box {
	lowFrom, lowTo := gap(c.joints, k)
	highFrom, highTo := gap(c.top(), k)
	return box{lowFrom, lowTo, highFrom, highTo}
}

// middle is the share of the row's middle line that the box takes up.
func (b box) middle() float64 { return (b.lowTo - b.lowFrom + b.highTo - b.highFrom) / 2 }

// mids are what a course may have at an end: on the middle of the head, where
// free, either; a section where a part stops before the row.
func mids(free, behindStop bool) []middle {
	switch {
	case behindStop:
		return []middle{straddled}
	case free:
		return []middle{straddled, divided}
	}
	return []middle{border}
}

// layGrid gives each course equal sections, with one column count for as many
// rows as will bear it: as few seams as the column limits allow, then counts
// that come nearest the wished width. Rows that cross the middle have a column on
// it.
func layGrid(courses []course, free [2]bool) {
	for i := range courses {
		courses[i].start, courses[i].end = mids(free[0], false)[0], mids(free[1], false)[0]
	}
	halves := float64(courses[0].halves()) / 2
	const seam = 1e3 // dearer than any sum of width errors
	type state struct {
		n    int
		cost float64
		from int
	}
	layers := make([][]state, len(courses))
	for i, c := range courses {
		least := max(1, int(math.Ceil(c.length/maxColumn+halves)))
		most := max(least, int(c.length/minColumn+halves))
		for n := least; n <= most; n++ {
			off := math.Log(c.length / max(0.5, float64(n)-halves))
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
		courses[i].joints = endJoints(layers[i][at].n, ends{1, 1}, courses[i].start, courses[i].end)
		at = layers[i][at].from
	}
}

// layBrick gives each course a count and part ends that keep the quarter rule
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
func layBrick(ctx context.Context, courses []course, free [2]bool, behindStop bool) {
	best, kept := math.Inf(1), []course(nil)
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
			best, kept = cost, cloneCourses(courses)
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
	ends  []ends
}

// ends are the widths of the first and last section of a course, in interior
// widths. Alternating them from row to row is what sets a brick going without
// half sections at the edge, which tear.
type ends struct{ start, end float64 }

var choices = []choice{
	{1, []ends{{1, 1}, {0.75, 0.75}, {0.75, 1.25}, {1.25, 0.75}, {1.25, 1.25}}},
	{1, allEnds(0.75, 1, 1.25)},
	{2, allEnds(0.7, 0.85, 1, 1.15, 1.3)},
}

func allEnds(widths ...float64) []ends {
	var all []ends
	for _, start := range widths {
		for _, end := range widths {
			all = append(all, ends{start, end})
		}
	}
	return all
}

// choose picks every course's joints from what c offers, the cheapest way through
// the rows.
func choose(ctx context.Context, courses []course, c choice, free [2]bool, behindStop bool) {
	type state struct {
		course
		cost float64
		from int
	}
	layers := make([][]state, len(courses))
	for i, row := range courses {
		if ctx.Err() != nil {
			return
		}
		add := func(candidate course) {
			s := state{course: candidate, cost: math.Inf(1)}
			own := widthCost(&s.course)
			if i == 0 {
				s.cost = own
			} else {
				for k := range layers[i-1] {
					prev := &layers[i-1][k]
					before := prev.cost + own
					if before >= s.cost {
						break // a bond costs nothing at best, and the rest are dearer
					}
					if cost := before + bondCost(&prev.course, &s.course, s.cost-before); cost < s.cost {
						s.cost, s.from = cost, k
					}
				}
			}
			layers[i] = append(layers[i], s)
		}
		for _, start := range mids(free[0], behindStop && i == len(courses)-1) {
			for _, end := range mids(free[1], false) {
				candidate := course{length: row.length, start: start, end: end}
				natural := int(math.Round(row.length + float64(candidate.halves())/2))
				for n := max(1, natural-c.reach); n <= max(1, natural+c.reach); n++ {
					for _, e := range c.ends {
						if start != border && e.start != 1 || end != border && e.end != 1 {
							continue // on the middle, straddled and divided rows take turns instead
						}
						candidate.joints = endJoints(n, e, start, end)
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
		courses[i] = layers[i][at].course
		at = layers[i][at].from
	}
}

// endJoints are the part ends of n sections, the first and last of which are e
// times as wide as the others; of one across the middle half is on this side.
func endJoints(n int, e ends, start, end middle) []float64 {
	if n == 1 {
		return nil
	}
	if start == straddled {
		e.start /= 2
	}
	if end == straddled {
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
func widthCost(c *course) float64 {
	low, high := widthBand(c.boxes())
	short := c.length - c.widths()
	cost := countPull * short * short
	last, off := 1.0, 0.0
	for k := range c.boxes() {
		from, to := c.bounds(k)
		w := (to - from) * c.length * c.folds(k)
		if math.Abs(w-last) > 1e-12 { // most are as wide as the one before
			last, off = w, math.Log(w)
		}
		cost += 6 * off * off / float64(c.boxes())
		if w < low-1e-9 || w > high+1e-9 {
			cost += broken * (1 + max(low-w, w-high))
		}
	}
	return cost
}

// bondCost prices the offsets between the part ends of two adjoining courses. Where
// most is less than a broken rule costs, it looks no further than the first.
func bondCost(below, above *course, most float64) float64 {
	stop := 0.0
	if most < broken {
		stop = quarter
	}
	least, mean, ok := offsets(below, above, stop)
	if !ok {
		return 0
	}
	cost := 4 * (0.5 - mean) * (0.5 - mean)
	if least < quarter {
		cost += broken * (1 + quarter - least)
	}
	return cost
}

// meanWidth is the mean section width of two adjoining courses on their shared
// line, in σ.
func meanWidth(below, above *course) float64 {
	return (1/below.widths() + 1/above.widths()) / 2
}

// offsets are the least and the mean distance of a part end of one course from
// the nearest of the other on the line they share, in mean section widths, or of
// those up to the first that is less than stop; ok is false when either has none.
func offsets(below, above *course, stop float64) (least, mean float64, ok bool) {
	a, b := below.higher(), above.lower()
	if len(a) == 0 || len(b) == 0 {
		return 0, 0, false
	}
	w := meanWidth(below, above)
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
func slide(courses []course) {
	best := bondState(courses)
	kept := cloneCourses(courses)
	for range slideRounds {
		for i := range courses {
			slideCourse(courses, i)
		}
		if cost := bondState(courses); cost < best {
			best, kept = cost, cloneCourses(courses)
		}
	}
	copy(courses, kept)
}

func bondState(courses []course) float64 {
	cost := 0.0
	for i := range courses {
		cost += widthCost(&courses[i])
		if i > 0 {
			cost += bondCost(&courses[i-1], &courses[i], math.Inf(1))
		}
	}
	return cost
}

func cloneCourses(courses []course) []course {
	out := slices.Clone(courses)
	for i := range out {
		out[i].joints, out[i].upper = slices.Clone(out[i].joints), slices.Clone(out[i].upper)
	}
	return out
}

// slideCourse minimises, for course i, the squared differences of its widths
// from their mean (weight 1 each) and of its part ends from the middle of the
// neighbours' section they fall in (weight midPull each): a tridiagonal least
// squares problem, solved by elimination. A section across the middle is twice as
// wide as its box, and counts half on this side: its box has the weight 2.
func slideCourse(courses []course, i int) {
	const midPull = 0.35
	c := courses[i]
	joints := c.joints
	m := len(joints)
	if m == 0 {
		return
	}
	weight := func(k int) float64 { return c.folds(k) }
	// Row k: -weight(k)·x[k-1] + diag[k]·x[k] - weight(k+1)·x[k+1] = rhs[k], with
	// x[-1] = 0 and x[m] = 1; equal widths make their right side vanish.
	work := make([]float64, 2*m)
	diag, rhs := work[:m], work[m:]
	for k := range joints {
		diag[k] = weight(k) + weight(k+1)
	}
	rhs[m-1] = weight(m)
	for _, j := range []int{i - 1, i + 1} {
		if j < 0 || j >= len(courses) || len(courses[j].joints) == 0 {
			continue
		}
		other := courses[j]
		for k, x := range joints {
			at, _ := slices.BinarySearch(other.joints, x)
			if at == 0 || at == len(other.joints) {
				continue // the edge section: its middle would make a sliver
			}
			from, to := other.bounds(at)
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
func spread(ctx context.Context, courses []course) {
	// A little more than the rule, so that the rounds converge inside it.
	const margin = 1.02
	best := bondState(courses)
	kept := cloneCourses(courses)
	since := 0 // rounds since the best state
	for range spreadRounds {
		if since++; since > spreadPatience || ctx.Err() != nil {
			break
		}
		for i, c := range courses {
			if i > 0 {
				pushApart(courses[i-1], c, margin*quarter)
			}
			keepWidths(c, margin)
		}
		cost := bondState(courses)
		if cost < best {
			best, kept, since = cost, cloneCourses(courses), 0
		}
		if best < broken {
			break
		}
	}
	copy(courses, kept)
}

// pushApart moves part ends of two adjoining courses that stand closer than
// least mean section widths apart, half the lack each; one on the middle stays.
func pushApart(below, above course, least float64) {
	gap := least * meanWidth(&below, &above)
	from := 0 // the first of the upper ones that may be near: both lists rise
	for k, x := range below.joints {
		for from < len(above.joints) && above.joints[from] < x-2*gap {
			from++
		}
		for l := from; l < len(above.joints); l++ {
			y := above.joints[l]
			if y > x+2*gap {
				break
			}
			if lack := gap - math.Abs(x-y); lack > 0 {
				move := math.Copysign(lack/2, y-x)
				below.joints[k] -= move
				above.joints[l] += move
				x -= move
			}
		}
	}
	for _, pair := range [][2]course{{below, above}, {above, below}} {
		fixed, free := pair[0], pair[1].joints
		for k, x := range free {
			if fixed.start == divided && x < gap {
				free[k] = gap
			}
			if fixed.end == divided && x > 1-gap {
				free[k] = 1 - gap
			}
		}
	}
}

// keepWidths moves the part ends of a course whose sections leave the width
// band, from its start to its end.
func keepWidths(c course, margin float64) {
	low, high := widthBand(c.boxes())
	low, high = low*margin/c.length, high/margin/c.length
	for k := range c.boxes() {
		from, to := c.bounds(k)
		f := c.folds(k)
		lack := max(low/f-(to-from), 0) - max(to-from-high/f, 0)
		if lack == 0 {
			continue
		}
		// An end of the row cannot give way, so its neighbour gives all.
		first, last := k == 0, k == c.boxes()-1
		switch {
		case first && !last:
			c.joints[k] += lack
		case last && !first:
			c.joints[k-1] -= lack
		case !first && !last:
			c.joints[k-1] -= lack / 2
			c.joints[k] += lack / 2
		}
	}
}

// layTriangles cuts each course by a zigzag into as many triangles as it would
// hold boxes. At a border the corner pieces are three quarters and their neighbours
// five quarters of the rest: half triangles at the edge would be slivers. Across
// the middle two halves make a whole one. Zigzags of neighbouring courses start on
// opposite sides, so that tips meet tips and bases bases.
func layTriangles(courses []course, free [2]bool) {
	for i := range courses {
		c := &courses[i]
		c.start, c.end = mids(free[0], false)[0], mids(free[1], false)[0]
		n := max(1, int(math.Round(c.length+float64(c.halves())/2)))
		if n == 1 {
			continue
		}
		// The zigzag's corners: one step apart, but one and a half at a border.
		const edge = 1.5
		first, last := edge, edge
		if c.start == straddled {
			first = 1
		}
		if c.end == straddled {
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
		c.joints, c.upper = make([]float64, n-1), make([]float64, n-1)
		for k := range n - 1 {
			low, high := corner(k), corner(k+1)
			if (i+k)%2 == 1 {
				low, high = high, low
			}
			c.joints[k], c.upper[k] = low, high
		}
	}
}

// jitterShare is how far a free-hand part end strays either way, in mean section
// widths: enough to look drawn by hand, too little to make a sliver.
const jitterShare = 0.12

// jitter moves every part end on its lower and on its upper line by itself, the
// same way each time.
func jitter(courses []course) {
	for i := range courses {
		c := &courses[i]
		reach := jitterShare / c.widths()
		c.upper = slices.Clone(c.joints)
		for k := range c.joints {
			c.joints[k] += reach * stray(2*i, k)
			c.upper[k] += reach * stray(2*i+1, k)
		}
	}
}

// stray is a number in -1..1 that looks random but depends on a and b alone: the
// finalizer of the SplitMix64 generator (Steele, Lea and Flood 2014, constants
// from memory).
func stray(a, b int) float64 {
	x := uint64(a)<<32 + uint64(b) + 0x9e3779b97f4a7c15
	x = (x ^ x>>30) * 0xbf58476d1ce4e5b9
	x = (x ^ x>>27) * 0x94d049bb133111eb
	x ^= x >> 31
	return float64(x>>11)/(1<<52) - 1
}
