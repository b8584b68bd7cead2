package figure

import "math"

// span is how many samples are ordered together.
const span = 3

// clear is a difference in depth from which one strand is seen to lie over another, units.
const clear = 7.0

// stretch is a part of a strand that is painted in one go.
type stretch struct {
	c        *curve
	from, to float64
	// over are the parts with something beneath them.
	over [][2]float64
}

// chunk is span samples of a curve.
type chunk struct {
	c       int // which curve
	i       int // its first sample
	x, y, z float64
	reach   float64
	beneath int // how many chunks must be painted first
	above   []int
	done    bool
	over    bool
}

// painting orders the chunks of strands: a chunk is ready when all that lies beneath it is
// painted, and the longest ready stretch of a strand comes next.
type painting struct {
	curves []*curve
	chunks []chunk
	first  []int // the first chunk of each curve, and one past the last of all
}

// ordered cuts the strands into stretches, from the back to the front.
func ordered(curves []*curve) []stretch {
	p := &painting{curves: curves}
	for k, c := range curves {
		p.first = append(p.first, len(p.chunks))
		for i := 0; i < len(c.at)-1; i += span {
			m := c.at[min(i+span/2, len(c.at)-1)]
			z := m.z
			switch c.layer {
			case inside:
				z -= 2
			case skin:
				z += m.half
			case whole:
			}
			p.chunks = append(p.chunks, chunk{c: k, i: i, x: m.x, y: m.y, z: z, reach: m.half + outline})
		}
	}
	p.first = append(p.first, len(p.chunks))
	for a := range curves {
		for b := a; b < len(curves); b++ {
			p.compare(a, b)
		}
	}
	return p.stretches()
}

// lies notes that one chunk lies over another by dz, or under it where dz is negative.
func (p *painting) lies(a, b int, dz float64) {
	if dz > 0 {
		a, b = b, a
	}
	p.chunks[a].above = append(p.chunks[a].above, b)
	p.chunks[b].beneath++
	low, high := p.chunks[a].c, p.chunks[b].c
	if math.Abs(dz) > clear && (low == high || p.curves[low].of != p.curves[high].of) {
		p.chunks[b].over = true
	}
}

// compare finds which parts of two curves cover each other. A clear difference in depth, or
// a crossing at an angle, decides by depth. Where two run side by side at nearly one depth,
// chunks that hang together take the order of their nearest true crossing, or where there
// is none that of their mean: chunk by chunk they would change places all the time.
func (p *painting) compare(ka, kb int) {
	a, b := p.curves[ka], p.curves[kb]
	type pair struct{ m, n int }
	var near []pair
	apart := map[pair]float64{}
	for m := p.first[ka]; m < p.first[ka+1]; m++ {
		n := p.first[kb]
		if ka == kb {
			n = m + 1
		}
		for ; n < p.first[kb+1]; n++ {
			u, v := &p.chunks[m], &p.chunks[n]
			reach := u.reach + v.reach
			d := math.Hypot(u.x-v.x, u.y-v.y)
			if d > reach+a.step*span*0.6 || ka == kb && float64(v.i-u.i)*a.step < 2.2*reach {
				continue
			}
			dz := u.z - v.z
			turned := math.Abs(a.at[u.i].nx*b.at[v.i].nx+a.at[u.i].ny*b.at[v.i].ny) < 0.9
			if a.layer != whole || b.layer != whole || math.Abs(dz) > 0.55*reach || math.Abs(dz) > 1.5 && turned {
				p.lies(m, n, dz)
				continue
			}
			near = append(near, pair{m, n})
			apart[pair{m, n}] = d
		}
	}
	if len(near) == 0 {
		return
	}
	zone := map[pair]int{}
	zones := 0
	for _, start := range near {
		if _, seen := zone[start]; seen {
			continue
		}
		zone[start] = zones
		for open := []pair{start}; len(open) > 0; {
			at := open[len(open)-1]
			open = open[:len(open)-1]
			for dm := -1; dm <= 1; dm++ {
				for dn := -1; dn <= 1; dn++ {
					next := pair{at.m + dm, at.n + dn}
					if _, is := apart[next]; !is {
						continue
					}
					if _, seen := zone[next]; !seen {
						zone[next] = zones
						open = append(open, next)
					}
				}
			}
		}
		zones++
	}
	mean := make([]float64, zones)
	for _, q := range near {
		d := apart[q]
		mean[zone[q]] += (p.chunks[q.m].z - p.chunks[q.n].z) / (1 + d*d)
	}
	type meeting struct{ m, n, dz float64 }
	meetings := make([][]meeting, zones)
	for _, x := range crossings(a, b) {
		m, n := x.S[0]/a.step/span, x.S[1]/b.step/span
		if z, is := zone[pair{p.first[ka] + int(m), p.first[kb] + int(n)}]; is {
			meetings[z] = append(meetings[z], meeting{float64(p.first[ka]) + m, float64(p.first[kb]) + n, x.Z[0] - x.Z[1]})
		}
	}
	for _, q := range near {
		dz, best := mean[zone[q]], math.Inf(1)
		for _, x := range meetings[zone[q]] {
			if d := math.Abs(x.m-float64(q.m)-0.5) + math.Abs(x.n-float64(q.n)-0.5); d < best {
				best, dz = d, x.dz
			}
		}
		p.lies(q.m, q.n, dz)
	}
}

// stretches takes the chunks one ready stretch after the other. In a tight braid three
// strands may lie each over the next; there the deepest comes first.
func (p *painting) stretches() (out []stretch) {
	ready := func(i int) bool { return !p.chunks[i].done && p.chunks[i].beneath == 0 }
	for left := len(p.chunks); left > 0; {
		from, to := -1, -1
		for k := range p.curves {
			for i := p.first[k]; i < p.first[k+1]; {
				if !ready(i) {
					i++
					continue
				}
				end := i
				for end < p.first[k+1] && ready(end) {
					end++
				}
				if end-i > to-from {
					from, to = i, end
				}
				i = end
			}
		}
		if from < 0 {
			for i, c := range p.chunks {
				if !c.done && (from < 0 || c.z < p.chunks[from].z) {
					from, to = i, i+1
				}
			}
		}
		out = append(out, p.take(from, to))
		left -= to - from
	}
	return out
}

// take makes a stretch of chunks and sets free what lies above them.
func (p *painting) take(from, to int) stretch {
	c := p.curves[p.chunks[from].c]
	along := func(i int) (a, b float64) {
		return float64(p.chunks[i].i) * c.step, math.Min(c.length, float64(p.chunks[i].i+span)*c.step)
	}
	out := stretch{c: c}
	out.from, _ = along(from)
	_, out.to = along(to - 1)
	for i := from; i < to; i++ {
		p.chunks[i].done = true
		for _, k := range p.chunks[i].above {
			p.chunks[k].beneath--
		}
		if !p.chunks[i].over {
			continue
		}
		a, b := along(i)
		if n := len(out.over); n > 0 && a-out.over[n-1][1] < 9 {
			out.over[n-1][1] = b
		} else {
			out.over = append(out.over, [2]float64{a, b})
		}
	}
	return out
}
