package parting

import (
	"fmt"
	"math"
	"slices"
	"sort"

	"kladotex/core/advice"
	"kladotex/core/bond"
	"kladotex/core/craft"
	"kladotex/core/scalp"
)

// staggers tells whether the parts of a pattern shall stand off those of the next
// row.
func (p Pattern) staggers() bool { return p == Brick || p == FreeHand }

// stagger measures the offsets between the part ends of adjoining rows, on the
// line they share, in the zones where they shall stand off. A layout without two
// such rows has the stagger 0.
func stagger(pairs []zonePair) Stagger {
	least, sum, rows := math.Inf(1), 0.0, 0
	eachPanel(pairs, func(p *panel) {
		if !p.wish.Pattern.staggers() {
			return
		}
		for r := 1; r < p.rows; r++ {
			if l, m, ok := p.seats[r].Offsets(); ok {
				least = min(least, l)
				sum += m
				rows++
			}
		}
	})
	if rows == 0 {
		return Stagger{}
	}
	return Stagger{least, sum / float64(rows)}
}

// readSeats notes what stands on every row line between two rows, once all lines lie where
// they stay.
func (p *panel) readSeats() {
	p.seats = make([]bond.Seat, p.rows)
	for r := 1; r < p.rows; r++ {
		p.seats[r] = p.seat(r)
	}
}

// seat is row line r with the part ends of the rows on either side of it. Where sections
// grow along the rows, lengths are those they would have if they did not.
func (p *panel) seat(r int) bond.Seat {
	below, above := &p.bands[r-1], &p.bands[r]
	run := p.lines[r].Run
	if along := p.along(); along != 1 {
		run = slices.Clone(run)
		whole := run[len(run)-1]
		for j, mm := range run {
			run[j] = whole * math.Log1p(mm/whole*(along-1)) / math.Log(along)
		}
	}
	low, high := bond.Edge{Run: run, From: below.HighFrom, To: below.HighTo}, bond.Edge{Run: run, From: above.LowFrom, To: above.LowTo}
	if p.fromTop {
		return bond.On(high, low, &p.courses[r], &p.courses[r-1])
	}
	return bond.On(low, high, &p.courses[r-1], &p.courses[r])
}

// jointOffsets are, for every row, the distances of its part ends, the row's two ends
// included, from the nearest of an adjoining row, in mean section widths; 1 where
// there is none to compare, as at the ends.
func (p *panel) jointOffsets() [][]float64 {
	out := make([][]float64, p.rows)
	all := make([]float64, p.boxes()+p.rows)
	for i := range all {
		all[i] = 1
	}
	for r, c := range p.courses {
		out[r], all = all[:c.Boxes()+1], all[c.Boxes()+1:]
	}
	steps := float64(p.chart.Steps)
	for line := 1; line < p.rows; line++ {
		seat := &p.seats[line]
		for _, r := range []int{line - 1, line} {
			joints := p.highJoints(r)
			if r == line {
				joints = p.lowJoints(r)
			}
			isOuter := (r == line) != p.fromTop
			note := func(k int, s float64) { out[r][k] = min(out[r][k], seat.Offset(s, isOuter)) }
			for k, s := range joints {
				note(k+1, s)
			}
			if p.courses[r].Start == bond.Divided {
				note(0, 0)
			}
			if p.courses[r].End == bond.Divided {
				note(len(joints)+1, steps)
			}
		}
	}
	return out
}

// Plaits counts loose and linked plaits, and gives the mean area of the sections of
// the loose ones, mm²; of the linked ones where there are no others.
func (l Layout) Plaits() (loose, linked int, area float64) {
	areas := [2]float64{}
	for i := range l.Sections {
		x := &l.Sections[i]
		if x.Linked {
			linked++
			areas[1] += x.Area
		} else {
			loose++
			areas[0] += x.Area
		}
	}
	if loose > 0 {
		return loose, linked, areas[0] / float64(loose)
	}
	return loose, linked, areas[1] / float64(max(1, linked))
}

// seams are the lines of a grid where its column count changes.
func (p *panel) seams(zone Zone) []Seam {
	var seams []Seam
	columns := func(c bond.Course) int {
		if p.central {
			return 2*c.Boxes() - min(c.Halves(), c.Boxes())
		}
		return c.Boxes()
	}
	for r := 1; r < len(p.courses); r++ {
		if below, above := columns(p.courses[r-1]), columns(p.courses[r]); below != above {
			seams = append(seams, Seam{zone, r, below, above})
		}
	}
	return seams
}

// Parts count as standing in line when they are offset by less than inLine mean
// section widths, and make a channel from channelRows rows on.
const (
	inLine      = 0.1
	channelRows = 3
)

// end is a part end of a row: its s on the lower and on the upper line.
type end struct{ low, high float64 }

// chained is a part end in line with one of the row below.
type chained struct {
	end
	row   int
	below int // among all that were found; -1 for none
	long  int // rows of the run up to here; 0 when it goes on
}

// channels are the runs of part ends in line through three or more rows. A zigzag
// has none.
func (p *panel) channels(h scalp.Head, zone Zone, side Side) []Channel {
	if p.wish.Pattern == Triangle {
		return nil
	}
	var out []Channel
	all := make([]chained, 0, p.boxes()+p.rows)
	var ends []end
	first, last := 0, 0 // of all, those of the row below
	for r := range p.courses {
		ends = p.ends(ends[:0], r)
		reach := 0.0
		if r > 0 {
			reach = inLine * p.seats[r].Width
		}
		from := len(all)
		for _, e := range ends {
			if side == RightSide && p.central && e.low == e.high && (e.low == 0 || e.low == float64(p.chart.Steps)) {
				continue // a part on the middle is the left side's
			}
			now := chained{e, r, -1, 1}
			for i := first; i < last; i++ {
				if below := &all[i]; below.long > 0 && math.Abs(p.lines[r].MM(below.high)-p.lines[r].MM(e.low)) < reach {
					now.below, now.long = i, below.long+1
					below.long = 0
					break
				}
			}
			all = append(all, now)
		}
		first, last = from, len(all)
	}
	for _, top := range all {
		if top.long < channelRows {
			continue
		}
		run := make([]end, top.long)
		for k, at := top.long-1, top; ; k, at = k-1, all[at.below] {
			run[k] = at.end
			if at.below < 0 {
				break
			}
		}
		out = append(out, p.channel(h, zone, side, top.row-top.long+1, run))
	}
	return out
}

// ends appends the part ends of row r that run from line to line, those on the middle included.
func (p *panel) ends(out []end, r int) []end {
	c, b := &p.courses[r], &p.bands[r]
	if c.Start == bond.Divided {
		out = append(out, end{0, 0})
	}
	low, high := p.lowJoints(r), p.highJoints(r)
	for k := range low {
		if min(low[k], high[k]) > b.FullFrom && max(low[k], high[k]) < b.FullTo {
			out = append(out, end{low[k], high[k]})
		}
	}
	if c.End == bond.Divided {
		last := float64(p.chart.Steps)
		out = append(out, end{last, last})
	}
	return out
}

// channel draws the run of part ends that starts at row first (from 0).
func (p *panel) channel(h scalp.Head, zone Zone, side Side, first int, run []end) Channel {
	c := Channel{Zone: zone, FromRow: first + 1, ToRow: first + len(run), Line: scalp.Line{}}
	var left, right [][]name
	if p.central {
		left, right = centralNames(p, zone)
	}
	for i, e := range run {
		r := first + i
		b := &p.bands[r]
		c.Length += b.Height(e.low, e.high)
		c.Line = append(c.Line, h.Point(b.Lower.At(e.low)), h.Point(b.Mid.At((e.low+e.high)/2)))
		if i == len(run)-1 {
			c.Line = append(c.Line, h.Point(b.Upper.At(e.high)))
		}
		k, _ := slices.BinarySearch(p.lowJoints(r), e.low)
		switch {
		case !p.central:
			c.Sections = append(c.Sections, sectionID(zone, r+1, k+1))
		case side == RightSide:
			c.Sections = append(c.Sections, right[r][k].id)
		default:
			c.Sections = append(c.Sections, left[r][k].id)
		}
	}
	c.Line = place(c.Line, side)
	return c
}

// needle is the compactness under which a section is one: a triangle of the usual shape has ½ by
// itself.
const needle, needleTriangle = 0.5, 0.3

// notices looks the layout over.
func notices(s Settings, pairs []zonePair, l Layout) []advice.Notice {
	var slivers, oversize, needles, weak, bare, lone, fat, thin []string
	have := make(map[string]bool, len(l.Sections))
	for i := range l.Sections {
		x := &l.Sections[i]
		have[x.ID] = true
		if x.Stagger < bond.Quarter-1e-9 && patternOf(pairs, x.Zone) == Brick {
			weak = append(weak, x.ID)
		}
		least := needle
		if patternOf(pairs, x.Zone) == Triangle {
			least = needleTriangle
		}
		if x.Compact < least && !x.Edited {
			needles = append(needles, x.ID)
		}
		switch {
		case x.Share < craft.SliverShare:
			slivers = append(slivers, x.ID)
		case x.Share > craft.OversizeShare:
			oversize = append(oversize, x.ID)
		}
	}
	channels := 0
	for _, c := range l.Channels {
		if c.Line[0][0] < 0 { // it starts behind the crown
			channels++
			bare = append(bare, slices.DeleteFunc(slices.Clone(c.Sections), func(id string) bool { return !have[id] })...)
		}
	}
	if s.mirrors() && len(s.Edits) > 0 {
		lone = l.withoutTwin()
	}
	netted := func(zone Zone) bool {
		return slices.ContainsFunc(l.Nets, func(n NetArea) bool { return n.Zone == zone })
	}
	for _, t := range l.Cornrows {
		if netted(t.Zone) {
			continue // pieces hang on the net
		}
		switch {
		case t.Width > craft.FatCornrow && !t.Merged:
			fat = append(fat, t.ID)
		case t.Width < craft.ThinCornrow && !t.Merged:
			thin = append(thin, t.ID)
		}
	}
	out := []advice.Notice{}
	add := func(code advice.Code, severity advice.Severity, ids []string, one, many, reason, remedy string) {
		if len(ids) == 0 {
			return
		}
		n := len(ids)
		if code == advice.BareChannel {
			n = channels
		}
		out = append(out, advice.Notice{Code: code, Severity: severity, Reason: are(n, one, many) + reason, Remedy: remedy, About: ids})
	}
	add(advice.Sliver, advice.Look, slivers, "section has", "sections have", " less than half the wished area. A heavy piece pulls on so little hair.", "Join it to its neighbour or hang something light.")
	add(advice.Needle, advice.Look, needles, "section is", "sections are", " long and thin: the hair at its ends is pulled sideways.", "Join it to its neighbour, or move the part by hand.")
	add(advice.Oversize, advice.Look, oversize, "section is", "sections are", " more than half as large again as wished. The plait may show through the piece.", "Smaller sizes, or split it by hand.")
	add(advice.WeakStagger, advice.Hint, weak, "section ends", "sections end", " less than a quarter section away from the row next to it, so a part may open there.", "Move the part by hand.")
	add(advice.BareChannel, advice.Look, bare, "run of parts stands", "runs of parts stand", " in line through three rows or more behind the crown and can open as bare lines.", "Brick closes them.")
	add(advice.Asymmetry, advice.Hint, lone, "section has", "sections have", " no like on the other side, though both sides are parted alike.", "Mirror the change by hand, or take it back.")
	add(advice.FatCornrow, advice.Look, fat, "cornrow is", "cornrows are", fmt.Sprintf(" over %.0f mm wide: a fat cornrow lumps and shows.", craft.FatCornrow), "More cornrows make it thinner.")
	add(advice.ThinCornrow, advice.Look, thin, "cornrow is", "cornrows are", fmt.Sprintf(" under %.0f mm wide: thin and tight, the loop hardly passes.", craft.ThinCornrow), "Fewer cornrows make it wider.")
	return out
}

// patternOf is how a zone is parted.
func patternOf(pairs []zonePair, zone Zone) Pattern {
	for _, c := range pairs {
		p := c.any()
		if Zone(p.key) == zone || !p.central && len(zone) == 2 && string(zone[0]) == p.key {
			return p.wish.Pattern
		}
	}
	return ""
}

// mirrors tells whether both sides are meant to be the same.
func (s Settings) mirrors() bool { return s.alike() && len(s.LeftOut) == 0 }

// withoutTwin are the sections with no like on the other side: none whose middle lies
// within a few millimetres of its mirror image and that is about as large.
func (l Layout) withoutTwin() []string {
	const near, like = 4.0, 0.15
	var ids []string
	for _, x := range l.Sections {
		found := false
		for _, y := range l.Sections {
			dx, dy, dz := x.Centroid[0]-y.Centroid[0], x.Centroid[1]+y.Centroid[1], x.Centroid[2]-y.Centroid[2]
			if dx*dx+dy*dy+dz*dz < near*near && math.Abs(x.Area-y.Area) < like*x.Area {
				found = true
				break
			}
		}
		if !found {
			ids = append(ids, x.ID)
		}
	}
	return ids
}

// are writes a count with the noun and verb that agree with it.
func are(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

// nearest is the one of the rising values, at least one, that lies
// nearest to x.
func nearest(rising []float64, x float64) float64 {
	i := sort.SearchFloat64s(rising, x)
	if i == len(rising) || i > 0 && x-rising[i-1] < rising[i]-x {
		return rising[i-1]
	}
	return rising[i]
}
