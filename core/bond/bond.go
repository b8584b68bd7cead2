// Package bond divides rows into sections as masons divide courses into bricks: grid,
// brick, triangles, free-hand. It knows no head: a row is a [Band], tables of its area and
// of its two lines.
//
// Places along a row are given as s, which runs over the whole zone, so that one s on the
// line that two rows share is one place. Rows are laid from the narrow end of a zone
// outward; the line of a row nearer to that end is its inner one.
//
// The number of sections follows the area: what rounding adds or takes in one row is
// carried into the next, and from zone to zone ([Carry]).
package bond

import (
	"math"
	"slices"
)

// Quarter is the least offset of a part end from those of the adjoining row, in mean
// section widths: the quarter unit that building codes ask of head joints in running bond.
const Quarter = 0.25

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

// Edge is one of the lines of a row: its running length in mm at every whole s, and the s
// between which the row lies along it.
type Edge struct {
	Run      []float64
	From, To float64
}

// at is the running length at s, mm.
func (e Edge) at(s float64) float64 { return between(e.Run, s) }

// length is how long the row is along it, mm.
func (e Edge) length() float64 { return e.at(e.To) - e.at(e.From) }

// between interpolates a table of whole s.
func between(table []float64, s float64) float64 {
	j := min(len(table)-2, max(0, int(s)))
	return table[j] + (s-float64(j))*(table[j+1]-table[j])
}

// Band is a row before it is cut, seen from one side of the head.
type Band struct {
	// Area is the running area at every whole s, in wished sections; where sections grow
	// along the row, in sections of the size that is wished there.
	// InnerArea is that of the half towards the inner line.
	Area, InnerArea []float64
	Inner, Outer    Edge
	// From and To are the least and the greatest s of the row; between FullFrom and FullTo
	// it has its whole height.
	From, To, FullFrom, FullTo float64
	// Tall is the share of its height that the row has at every whole s.
	Tall []float64
	// PerStep is the length of a step of s along the middle of the row, and Height the
	// row's mean height, in wished widths and heights.
	PerStep, Height float64
	// FreeStart and FreeEnd tell which ends lie on the middle of the head where no part
	// runs.
	FreeStart, FreeEnd bool
	// Straddle asks for a section across the middle at the start.
	Straddle bool
	// Fixed, above 0, sets the number of sections.
	Fixed int
	// Most, above 0, is the greatest number of sections on the whole head that this row
	// and its like may hold: that of a narrow end, where more would be needles.
	Most int
	// Grow is the width of the last section ÷ that of the first; 1 for equal ones.
	Grow float64
}

// Sections is how many sections the row's area would make.
func (b *Band) Sections() float64 { return b.Area[len(b.Area)-1] }

// areaTo is the area from the start to s, in sections, and placeOf its inverse.
func (b *Band) areaTo(s float64) float64 { return between(b.Area, s) }

func (b *Band) placeOf(area float64) float64 {
	switch {
	case area <= 0:
		return b.From
	case area >= b.Sections():
		return b.To
	}
	low, high := 0, len(b.Area)-1
	for high-low > 1 {
		if mid := (low + high) / 2; b.Area[mid] <= area {
			low = mid
		} else {
			high = mid
		}
	}
	return float64(low) + (area-b.Area[low])/(b.Area[high]-b.Area[low])
}

// placeFrom is placeOf for areas that rise from call to call, none of them the whole; j is
// the step of the last one.
func (b *Band) placeFrom(j *int, area float64) float64 {
	for b.Area[*j+1] <= area {
		*j++
	}
	return float64(*j) + (area-b.Area[*j])/(b.Area[*j+1]-b.Area[*j])
}

// local is the width of a section at s ÷ the mean width in the row.
func (b *Band) local(s float64) float64 {
	if b.Grow == 1 {
		return 1
	}
	return math.Pow(b.Grow, b.areaTo(s)/b.Sections()) * math.Log(b.Grow) / (b.Grow - 1)
}

// Course is a row of one side, cut: the s of its interior part ends, rising. A part end
// has one s on both lines but where Outer holds those on the outer line.
type Course struct {
	Joints     []float64
	Outer      []float64
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

// OuterJoints are the s of the part ends on the outer line.
func (c *Course) OuterJoints() []float64 {
	if c.Outer != nil {
		return c.Outer
	}
	return c.Joints
}

// Clone copies courses so that their joints can be changed alone.
func Clone(courses []Course) []Course {
	out := slices.Clone(courses)
	for i := range out {
		out[i].Joints, out[i].Outer = slices.Clone(out[i].Joints), slices.Clone(out[i].Outer)
	}
	return out
}

// Gap are the ends of the k-th gap between joints in a row from s to s.
func Gap(joints []float64, k int, from, to float64) (low, high float64) {
	low, high = from, to
	if k > 0 {
		low = joints[k-1]
	}
	if k < len(joints) {
		high = joints[k]
	}
	return low, high
}

// Carry is what rounding has left over so far: the sections wished for and those laid, of
// the whole head.
type Carry struct{ Wished, Laid float64 }

// contribution is how many sections of the head a row with boxes boxes on each of sides
// sides makes; those across the middle count once.
func contribution(sides float64, boxes int, start, end End) float64 {
	n := sides * float64(boxes)
	if sides == 1 {
		return n // either half of the head counts for itself
	}
	if start == Straddled {
		n--
	}
	if end == Straddled {
		n--
	}
	return n
}

// shared is the stretch of the line between two bands that both lie along.
func shared(inner, outer *Band) (from, to float64) {
	return max(inner.Outer.From, outer.Inner.From), min(inner.Outer.To, outer.Inner.To)
}

// partsOn are the places, mm along a line, of part ends within a stretch of it, those on
// the middle included.
func partsOn(mm []float64, line Edge, c *Course, joints []float64, from, to float64) []float64 {
	const within = 1e-6
	if c.Start == Divided {
		mm = append(mm, line.at(0))
	}
	for _, s := range joints {
		if s > from+within && s < to-within {
			mm = append(mm, line.at(s))
		}
	}
	if c.End == Divided {
		mm = append(mm, line.at(float64(len(line.Run)-1)))
	}
	return mm
}

// widthOn is the mean width in mm of a row's sections along a stretch of one of its lines.
func widthOn(line Edge, c *Course, joints []float64, from, to float64) float64 {
	inside, first, last := 0.0, 0.0, 0.0
	for _, s := range joints {
		if s <= from || s >= to {
			continue
		}
		if last = line.at(s); inside == 0 {
			first = last
		}
		inside++
	}
	if inside >= 2 && last > first {
		return (last - first) / (inside - 1)
	}
	return (line.at(to) - line.at(from)) / max(0.5, inside+1-float64(c.Halves())/2)
}

// Seat is a line that two rows share with what stands on it: the part ends of the row
// inside it and of the row outside it, in mm along it, and the mean width of their sections.
type Seat struct {
	Inner, Outer []float64
	Width        float64
	line         Edge // between the s that both rows share
}

// On is the line between two adjoining rows: the outer line of the one, the inner line of
// the other.
func On(inner, outer Edge, a, b *Course) Seat {
	from, to := max(inner.From, outer.From), min(inner.To, outer.To)
	room := make([]float64, 0, a.Boxes()+b.Boxes()+2) // for both lists
	room = partsOn(room, inner, a, a.OuterJoints(), from, to)
	n := len(room)
	return Seat{
		Inner: room[:n:n],
		Outer: partsOn(room[n:], inner, b, b.Joints, from, to),
		Width: (widthOn(inner, a, a.OuterJoints(), from, to) + widthOn(inner, b, b.Joints, from, to)) / 2,
		line:  Edge{inner.Run, from, to},
	}
}

// Offset is how far a part end at s of the outer row, or of the inner one, stands from the
// nearest of the other, in mean section widths; 1 where there is none to compare.
func (s Seat) Offset(at float64, ofOuter bool) float64 {
	others := s.Outer
	if ofOuter {
		others = s.Inner
	}
	if len(others) == 0 || at < s.line.From || at > s.line.To {
		return 1
	}
	return min(1, nearestTo(others, s.line.at(at))/s.Width)
}

// Offsets are the least and the mean distance of a part end of one row from the nearest of
// the other, in mean section widths; ok is false when either has none.
func (s Seat) Offsets() (least, mean float64, ok bool) {
	if len(s.Inner) == 0 || len(s.Outer) == 0 {
		return 0, 0, false
	}
	least = math.Inf(1)
	sum := 0.0
	for _, pair := range [2][2][]float64{{s.Inner, s.Outer}, {s.Outer, s.Inner}} {
		for _, x := range pair[0] {
			d := nearestTo(pair[1], x)
			least = min(least, d)
			sum += d
		}
	}
	return least / s.Width, sum / float64(len(s.Inner)+len(s.Outer)) / s.Width, true
}

// nearestTo is the distance of x from the nearest of the rising values.
func nearestTo(rising []float64, x float64) float64 {
	i, _ := slices.BinarySearch(rising, x)
	d := math.Inf(1)
	if i < len(rising) {
		d = rising[i] - x
	}
	if i > 0 {
		d = min(d, x-rising[i-1])
	}
	return d
}

// ends are what a course may have at an end: on the middle of the head, where free, either,
// and the other one than the row before.
func ends(free bool, before End) []End {
	switch {
	case !free:
		return []End{Border}
	case before == Straddled:
		return []End{Divided}
	case before == Divided:
		return []End{Straddled}
	}
	return []End{Straddled, Divided}
}

// even cuts a band into n sections of one area.
func (b *Band) even(n int, start, end End) Course {
	c := Course{Start: start, End: end}
	c.Joints = b.evenJoints(make([]float64, 0, max(0, n-1)), n, &c)
	return c
}

// evenJoints appends the part ends of n sections of one area to joints.
func (b *Band) evenJoints(joints []float64, n int, c *Course) []float64 {
	unit := b.Sections() / max(0.5, float64(n)-float64(c.Halves())/2)
	for k := 1; k < n; k++ {
		at := float64(k)
		if c.Start == Straddled {
			at -= 0.5
		}
		joints = append(joints, b.placeOf(at*unit))
	}
	return joints
}

// compactAtEnd estimates how compact the piece between the band's border and s would be:
// its area ÷ that of the box round it.
func (b *Band) compactAtEnd(s float64, atEnd bool) float64 {
	area, wide := b.areaTo(s), s-b.From
	if atEnd {
		area, wide = b.Sections()-area, b.To-s
	}
	return area / (wide * b.PerStep * b.Height * max(0.2, between(b.Tall, s)))
}

// slantCost prices a piece at a slanted border that is not compact.
func slantCost(compact float64) float64 {
	const good, pull, most = 0.74, 700.0, 200.0
	if compact >= good {
		return 0
	}
	return min(most, pull*(good-compact)*(good-compact))
}

// Shares of the wished area beyond which the search for a cut avoids sections.
const (
	smallShare, largeShare = 0.66, 1.34
	smallPrice, largePrice = 40, 60
)

// areaCost prices a section that is far smaller or larger than wished.
func areaCost(share float64) float64 {
	return smallPrice*max(0, smallShare-share) + largePrice*max(0, share-largeShare)
}
