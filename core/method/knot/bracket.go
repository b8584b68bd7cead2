package knot

import (
	"encoding/binary"
	"slices"
)

// smoothings are the two ways to undo a crossing: which ports are joined, and the power of A of it. With the
// upper strand turned against the clock, A joins the two fields it sweeps over.
var smoothings = [2]struct {
	joins [2][2]int
	power int
}{{[2][2]int{{0, 1}, {2, 3}}, 1}, {[2][2]int{{0, 3}, {1, 2}}, -1}}

// Bracket is the Kauffman bracket of rings (Kauffman 1987, State models and the Jones polynomial), in which a
// ring that crosses nothing counts -A² - A⁻²: it does not change while the rings are only pushed about, but
// for a factor -A³ or -A⁻³ for each turn that one makes on itself.
//
// It is summed crossing by crossing. Of what is done only how the open ends are joined is kept, so that the
// work grows with the number of strands side by side and not with that of all crossings. It tells 16,000
// crossings apart.
func Bracket(rings ...Ring) Laurent {
	d := draw(rings)
	arcs, free := d.arcs()
	partner := make([]int, 4*len(d.crossings))
	for _, a := range arcs {
		partner[a[0]], partner[a[1]] = a[1], a[0]
	}
	sum := map[string]Laurent{"": {0: 1}}
	done := make([]bool, len(d.crossings))
	for range d.crossings {
		i := nearest(partner, done)
		next := map[string]Laurent{}
		for key, value := range sum {
			for _, s := range smoothings {
				ends := decode(key)
				for _, j := range s.joins {
					ends[4*i+j[0]], ends[4*i+j[1]] = 4*i+j[1], 4*i+j[0]
				}
				rounds := 0
				for port := 4 * i; port < 4*i+4; port++ {
					other := partner[port]
					if !done[other/4] && other/4 != i || other/4 == i && other < port {
						continue
					}
					rounds += join(ends, port, other)
				}
				v := value
				for range rounds {
					v = v.round()
				}
				k := encode(ends)
				if next[k] == nil {
					next[k] = Laurent{}
				}
				next[k].plus(v, 1, s.power)
			}
		}
		done[i], sum = true, next
	}
	out := sum[""]
	for range free {
		out = out.round()
	}
	return out
}

// nearest is the open crossing that most arcs lead to from those that are done.
func nearest(partner []int, done []bool) int {
	best, most := -1, -1
	for i := range done {
		if done[i] {
			continue
		}
		n := 0
		for port := 4 * i; port < 4*i+4; port++ {
			if done[partner[port]/4] {
				n++
			}
		}
		if n > most {
			best, most = i, n
		}
	}
	return best
}

// join ties two open ends together and returns 1 where that closes a ring.
func join(ends map[int]int, a, b int) int {
	x, y := ends[a], ends[b]
	delete(ends, a)
	delete(ends, b)
	if x == b {
		return 1
	}
	ends[x], ends[y] = y, x
	return 0
}

// encode writes which open ends are joined, each pair once; decode reads it.
func encode(ends map[int]int) string {
	list := make([]int, 0, len(ends))
	for a, b := range ends {
		if a < b {
			list = append(list, a)
		}
	}
	slices.Sort(list)
	out := make([]byte, 0, 4*len(list))
	for _, a := range list {
		out = binary.BigEndian.AppendUint16(out, uint16(a))
		out = binary.BigEndian.AppendUint16(out, uint16(ends[a]))
	}
	return string(out)
}

func decode(key string) map[int]int {
	ends := make(map[int]int, len(key)/2+8)
	for i := 0; i+3 < len(key); i += 4 {
		a, b := int(key[i])<<8|int(key[i+1]), int(key[i+2])<<8|int(key[i+3])
		ends[a], ends[b] = b, a
	}
	return ends
}
