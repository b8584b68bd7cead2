package parting

import (
	"cmp"
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

// course is a row before it is drawn: its length in wished widths and the σ of
// its interior part ends, rising. A part end runs straight up but where upper
// holds the σ at which each ends on the upper line.
type course struct {
	length float64
	joints []float64
	upper  []float64
}

func (c course) sections() int { return len(c.joints) + 1 }

// top are the σ of the part ends on the upper line.
func (c course) top() []float64 {
	if c.upper != nil {
		return c.upper
	}
	return c.joints
}

// bounds are the σ on the lower line where section k (from 0) starts and ends.
func (c course) bounds(k int) (from, to float64) { return gap(c.joints, k) }

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

func (c course) box(k int) box {
	lowFrom, lowTo := gap(c.joints, k)
	highFrom, highTo := gap(c.top(), k)
	return box{lowFrom, lowTo, highFrom, highTo}
}

// middle is the share of the row's middle line that the box takes up.
func (b box) middle() float64 { return (b.lowTo - b.lowFrom + b.highTo - b.highFrom) / 2 }

// equalJoints are the part ends of n sections of equal width.
func equalJoints(n int) []float64 {
	joints := make([]float64, n-1)
	for k := range joints {
		joints[k] = float64(k+1) / float64(n)
	}
	return joints
}

// layGrid gives each course equal sections, with one column count for as many
// rows as will bear it: as few seams as the column limits allow, then counts
// that come nearest the wished width.
func layGrid(courses []course) {
	const seam = 1e3 // dearer than any sum of width errors
	type state struct {
		n    int
		cost float64
		from int
	}
	layers := make([][]state, len(courses))
	for i, c := range courses {
		least := max(1, int(math.Ceil(c.length/maxColumn)))
		most := max(least, int(c.length/minColumn))
		for n := least; n <= most; n++ {
			off := math.Log(c.length / float64(n))
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
		courses[i].joints = equalJoints(layers[i][at].n)
		at = layers[i][at].from
	}
}

// layBrick gives each course a count and part ends that keep the quarter rule
// with both neighbours: counts and end widths by dynamic programming over the
// rows, then part ends slid between mid-joint and equal width. Where a head
// narrows so fast that this breaks a rule, broken rules are spread out, and
// failing that a wider choice of counts and end widths is tried.
func layBrick(courses []course) {
	best, kept := math.Inf(1), [][]float64(nil)
	for _, choice := range choices {
		choose(courses, choice)
		slide(courses)
		if bondState(courses) >= broken {
			spread(courses)
		}
		cost := bondState(courses)
		if cost < best {
			best, kept = cost, cloneJoints(courses)
		}
		if best < broken {
			break
		}
	}
	for i := range courses {
		courses[i].joints = kept[i]
	}
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
func choose(courses []course, c choice) {
	type state struct {
		joints []float64
		cost   float64
		from   int
	}
	layers := make([][]state, len(courses))
	for i, row := range courses {
		natural := int(math.Round(row.length))
		for n := max(1, natural-c.reach); n <= max(1, natural+c.reach); n++ {
			for _, e := range c.ends {
				s := state{joints: endJoints(n, e), cost: math.Inf(1)}
				own := widthCost(s.joints, row.length)
				if i == 0 {
					s.cost = own
				} else {
					for k, prev := range layers[i-1] {
						if prev.cost+own >= s.cost {
							break // a bond costs nothing at best, and the rest are dearer
						}
						if cost := prev.cost + own + bondCost(prev.joints, s.joints); cost < s.cost {
							s.cost, s.from = cost, k
						}
					}
				}
				layers[i] = append(layers[i], s)
				if n == 1 {
					break // one section has no end widths to choose
				}
			}
		}
		slices.SortFunc(layers[i], func(a, b state) int { return cmp.Compare(a.cost, b.cost) })
	}
	at := 0 // the cheapest end
	for i := len(courses) - 1; i >= 0; i-- {
		courses[i].joints = layers[i][at].joints
		at = layers[i][at].from
	}
}

// endJoints are the part ends of n sections, the first and last of which are e
// times as wide as the others.
func endJoints(n int, e ends) []float64 {
	if n == 1 {
		return nil
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
func widthCost(joints []float64, length float64) float64 {
	c := course{length: length, joints: joints}
	low, high := widthBand(c.sections())
	short := length - float64(c.sections())
	cost := countPull * short * short
	for k := range c.sections() {
		from, to := c.bounds(k)
		w := (to - from) * length
		off := math.Log(w)
		cost += 6 * off * off / float64(c.sections())
		if w < low-1e-9 || w > high+1e-9 {
			cost += broken * (1 + max(low-w, w-high))
		}
	}
	return cost
}

// bondCost prices the offsets between the part ends of two adjoining courses.
func bondCost(below, above []float64) float64 {
	if len(below) == 0 || len(above) == 0 {
		return 0
	}
	least, mean := offsets(below, above)
	cost := 4 * (0.5 - mean) * (0.5 - mean)
	if least < quarter {
		cost += broken * (1 + quarter - least)
	}
	return cost
}

// meanWidth is the mean section width of two adjoining courses on their shared
// line, in σ.
func meanWidth(below, above []float64) float64 {
	return (1/float64(len(below)+1) + 1/float64(len(above)+1)) / 2
}

// offsets are the least and the mean distance of a part end of one course from
// the nearest of the other, in mean section widths. Neither may be empty.
func offsets(below, above []float64) (least, mean float64) {
	least, sum := nearest(below, above)
	least2, sum2 := nearest(above, below)
	w := meanWidth(below, above)
	return min(least, least2) / w, (sum + sum2) / float64(len(below)+len(above)) / w
}

// nearest are the least and the sum of the distances from each of a to the
// nearest of b, both rising and not empty.
func nearest(a, b []float64) (least, sum float64) {
	least = math.Inf(1)
	k := 0 // the first of b not below x
	for _, x := range a {
		for k < len(b) && b[k] < x {
			k++
		}
		d := math.Inf(1)
		if k < len(b) {
			d = b[k] - x
		}
		if k > 0 {
			d = min(d, x-b[k-1])
		}
		least = min(least, d)
		sum += d
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
	kept := cloneJoints(courses)
	for range slideRounds {
		for i := range courses {
			slideCourse(courses, i)
		}
		if cost := bondState(courses); cost < best {
			best, kept = cost, cloneJoints(courses)
		}
	}
	for i := range courses {
		courses[i].joints = kept[i]
	}
}

func bondState(courses []course) float64 {
	cost := 0.0
	for i, c := range courses {
		cost += widthCost(c.joints, c.length)
		if i > 0 {
			cost += bondCost(courses[i-1].joints, c.joints)
		}
	}
	return cost
}

func cloneJoints(courses []course) [][]float64 {
	joints := make([][]float64, len(courses))
	for i, c := range courses {
		joints[i] = slices.Clone(c.joints)
	}
	return joints
}

// slideCourse minimises, for course i, the squared differences of its widths
// from their mean (weight 1 each) and of its part ends from the middle of the
// neighbours' section they fall in (weight midPull each): a tridiagonal least
// squares problem, solved by elimination.
func slideCourse(courses []course, i int) {
	const midPull = 0.35
	joints := courses[i].joints
	m := len(joints)
	if m == 0 {
		return
	}
	// Row k: -x[k-1] + diag[k]·x[k] - x[k+1] = rhs[k], with x[-1] = 0 and
	// x[m] = 1; equal widths make their right side vanish.
	diag := make([]float64, m)
	rhs := make([]float64, m)
	for k := range joints {
		diag[k] = 2
	}
	rhs[m-1] = 1
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
		f := 1 / diag[k-1]
		diag[k] -= f
		rhs[k] += f * rhs[k-1]
	}
	joints[m-1] = rhs[m-1] / diag[m-1]
	for k := m - 2; k >= 0; k-- {
		joints[k] = (rhs[k] + joints[k+1]) / diag[k]
	}
}

// spreadRounds bounds the repair of a broken rule; most take under twenty.
const spreadRounds = 200

// spread repairs what slide could not: it moves every part end that breaks a
// rule just far enough to keep it, over and over (projection onto each
// constraint in turn), and keeps the best state seen.
func spread(courses []course) {
	// A little more than the rule, so that the rounds converge inside it.
	const margin = 1.02
	best := bondState(courses)
	kept := cloneJoints(courses)
	for range spreadRounds {
		for i, c := range courses {
			if i > 0 {
				pushApart(courses[i-1].joints, c.joints, margin*quarter)
			}
			keepWidths(c, margin)
		}
		cost := bondState(courses)
		if cost < best {
			best, kept = cost, cloneJoints(courses)
		}
		if best < broken {
			break
		}
	}
	for i := range courses {
		courses[i].joints = kept[i]
	}
}

// pushApart moves part ends of two adjoining courses that stand closer than
// least mean section widths apart, half the lack each.
func pushApart(below, above []float64, least float64) {
	gap := least * meanWidth(below, above)
	for k, x := range below {
		for l, y := range above {
			if lack := gap - math.Abs(x-y); lack > 0 {
				move := math.Copysign(lack/2, y-x)
				below[k] -= move
				above[l] += move
				x -= move
			}
		}
	}
}

// keepWidths moves the part ends of a course whose sections leave the width
// band, from its start to its end.
func keepWidths(c course, margin float64) {
	low, high := widthBand(c.sections())
	low, high = low*margin/c.length, high/margin/c.length
	for k := range c.sections() {
		from, to := c.bounds(k)
		lack := max(low-(to-from), 0) - max(to-from-high, 0)
		if lack == 0 {
			continue
		}
		// An end of the row cannot give way, so its neighbour gives all.
		first, last := k == 0, k == c.sections()-1
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
// hold boxes. The corner pieces are three quarters and their neighbours five
// quarters of the rest: half triangles at the edge would be slivers. Zigzags of
// neighbouring courses start on opposite sides, so that tips meet tips and bases
// bases.
func layTriangles(courses []course) {
	for i := range courses {
		c := &courses[i]
		n := max(1, int(math.Round(c.length)))
		// The zigzag's corners: one step apart, but one and a half at the ends.
		corner := func(k int) float64 {
			switch k {
			case 0:
				return 0
			case n - 1:
				return 1
			}
			return (float64(k) + 0.5) / float64(n)
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
		reach := jitterShare / float64(c.sections())
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
