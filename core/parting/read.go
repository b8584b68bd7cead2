package parting

import (
	"fmt"
	"math"
	"slices"

	"kladotex/core/scalp"
)

// stands tells whether the parts of a pattern shall stand off those of the next
// row.
func (p Pattern) stands() bool { return p == Brick || p == FreeHand }

// stagger measures the offsets between the part ends of adjoining rows, on the
// line they share, in the zones where they shall stand off. A layout without two
// such rows has the stagger 0.
func stagger(plans []*plan) Stagger {
	least, sum, pairs := math.Inf(1), 0.0, 0
	for _, p := range plans {
		if !p.wish.Pattern.stands() {
			continue
		}
		for r := 1; r < len(p.courses); r++ {
			below, above := p.courses[r-1].top(), p.courses[r].joints
			if len(below) == 0 || len(above) == 0 {
				continue
			}
			l, m := offsets(below, above)
			least = min(least, l)
			sum += m
			pairs++
		}
	}
	if pairs == 0 {
		return Stagger{}
	}
	return Stagger{least, sum / float64(pairs)}
}

// seams are the lines of a grid where its column count changes.
func (p *plan) seams(zone Zone) []Seam {
	var seams []Seam
	for r := 1; r < len(p.courses); r++ {
		if below, above := p.courses[r-1].sections(), p.courses[r].sections(); below != above {
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

// end is a part end of a row: its σ on the lower and on the upper line.
type end struct{ low, high float64 }

// channels are the runs of part ends in line through three or more rows. A zigzag
// has none.
func (p *plan) channels(h scalp.Head, zone Zone) []Channel {
	if p.wish.Pattern == Triangle {
		return nil
	}
	var out []Channel
	var open [][]end // the running lines, as they stand in the row below
	close := func(run []end, top int) {
		if len(run) >= channelRows {
			out = append(out, p.channel(h, zone, top-len(run)+1, run))
		}
	}
	for r, c := range p.courses {
		var next [][]end
		taken := make([]bool, len(open))
		for k, x := range c.joints {
			var run []end
			for l, o := range open {
				if !taken[l] && math.Abs(o[len(o)-1].high-x) < inLine*meanWidth(p.courses[r-1].joints, c.joints) {
					taken[l] = true
					run = slices.Clone(o)
					break
				}
			}
			next = append(next, append(run, end{x, c.top()[k]}))
		}
		for l, o := range open {
			if !taken[l] {
				close(o, r-1)
			}
		}
		open = next
	}
	for _, o := range open {
		close(o, len(p.courses)-1)
	}
	return out
}

// channel draws the run of part ends that starts at row first (from 0).
func (p *plan) channel(h scalp.Head, zone Zone, first int, run []end) Channel {
	c := Channel{Zone: zone, FromRow: first + 1, ToRow: first + len(run)}
	for i, e := range run {
		r := first + i
		lower, mid, upper := p.lines[r].at(e.low), p.mids[r].at((e.low+e.high)/2), p.lines[r+1].at(e.high)
		c.Length += h.Chord(lower, mid) + h.Chord(mid, upper)
		c.Line = append(c.Line, h.Point(lower), h.Point(mid))
		if i == len(run)-1 {
			c.Line = append(c.Line, h.Point(upper))
		}
		k, _ := slices.BinarySearch(p.courses[r].joints, e.low)
		c.Sections = append(c.Sections, sectionID(zone, r+1, k+1))
	}
	if zone == p.mirror {
		c.Line = mirroredLine(c.Line)
	}
	return c
}

// Shares of the wished area (width × height) below and above which a section is
// warned about.
const (
	sliverShare   = 0.5
	oversizeShare = 1.5
)

// warnings looks the layout over.
func warnings(plans []*plan, l Layout) []Warning {
	var slivers, oversize, weak, bare []string
	for _, p := range plans {
		if p.wish.Pattern == Brick {
			weak = append(weak, p.weakJoints()...)
		}
	}
	for _, sec := range l.Sections {
		switch {
		case sec.Share < sliverShare:
			slivers = append(slivers, sec.ID)
		case sec.Share > oversizeShare:
			oversize = append(oversize, sec.ID)
		}
	}
	channels := 0
	for _, c := range l.Channels {
		if c.Zone == BackLeft || c.Zone == BackRight {
			channels++
			bare = append(bare, c.Sections...)
		}
	}
	out := []Warning{}
	add := func(kind WarningKind, ids []string, format string, args ...any) {
		if len(ids) > 0 {
			out = append(out, Warning{kind, fmt.Sprintf(format, args...), ids})
		}
	}
	add(Sliver, slivers, "%s less than half the wished area. A heavy piece pulls on so little hair: join it to its neighbour or hang something light.", are(len(slivers), "section has", "sections have"))
	add(Oversize, oversize, "%s more than half as large again as wished. The plait may show through the piece.", are(len(oversize), "section is", "sections are"))
	add(WeakStagger, weak, "%s less than a quarter section away from the row next to it, so a part may open there.", are(len(weak), "part ends", "parts end"))
	add(BareChannel, bare, "%s in line through three rows or more behind the crown and can open as bare lines. Brick closes them.", are(channels, "run of parts stands", "runs of parts stand"))
	return out
}

// are writes a count with the noun and verb that agree with it.
func are(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

// weakJoints are the sections, on both sides, that end at a part closer than a
// quarter section to one of the adjoining rows.
func (p *plan) weakJoints() []string {
	var ids []string
	for r, c := range p.courses {
		for k, x := range c.joints {
			for _, other := range []int{r - 1, r + 1} {
				if other < 0 || other >= len(p.courses) || len(p.courses[other].joints) == 0 {
					continue
				}
				least, _ := offsets([]float64{x}, p.courses[other].joints)
				scale := meanWidth([]float64{x}, p.courses[other].joints) / meanWidth(c.joints, p.courses[other].joints)
				if least*scale < quarter-1e-9 {
					ids = append(ids, sectionID(p.zone, r+1, k+1), sectionID(p.mirror, r+1, k+1))
					break
				}
			}
		}
	}
	return ids
}
