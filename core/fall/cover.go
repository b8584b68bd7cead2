package fall

import (
	"context"
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
)

const (
	// coverCell is the side of a cell in which stretches of hair are looked up, mm.
	coverCell = 12.0
	// chord is the longest straight stretch laid on the bell, mm.
	chord = 14.0
	// coverFoot is the height, mm, below which hair covers no scalp.
	coverFoot = -140.0
)

// grid says which stretches of hair come near a cell of the space round the bell.
type grid struct {
	// from is where the list of a cell begins in ids.
	from []int32
	ids  []int32
}

// The grid's cells along x, y and z, and the cell of the origin.
const (
	gridX, gridY, gridZ = 26, 24, 26
	midX, midY, midZ    = gridX / 2, gridY / 2, 13
)

func cellOf(p r3.Vec) (x, y, z int) {
	return int(math.Floor(p.X/coverCell)) + midX, int(math.Floor(p.Y/coverCell)) + midY, int(math.Floor(p.Z/coverCell)) + midZ
}

// newGrid sorts stretches into cells, each with a reach round it.
func newGrid(all []stretch) *grid {
	each := func(s *stretch, visit func(cell int)) {
		to := r3.Add(s.from, s.step)
		x0, y0, z0 := cellOf(r3.Vec{X: min(s.from.X, to.X) - s.reach, Y: min(s.from.Y, to.Y) - s.reach, Z: min(s.from.Z, to.Z) - s.reach})
		x1, y1, z1 := cellOf(r3.Vec{X: max(s.from.X, to.X) + s.reach, Y: max(s.from.Y, to.Y) + s.reach, Z: max(s.from.Z, to.Z) + s.reach})
		for x := max(0, x0); x <= min(gridX-1, x1); x++ {
			for y := max(0, y0); y <= min(gridY-1, y1); y++ {
				for z := max(0, z0); z <= min(gridZ-1, z1); z++ {
					visit((x*gridY+y)*gridZ + z)
				}
			}
		}
	}
	g := &grid{from: make([]int32, gridX*gridY*gridZ+1)}
	for i := range all {
		each(&all[i], func(cell int) { g.from[cell+1]++ })
	}
	for c := 1; c < len(g.from); c++ {
		g.from[c] += g.from[c-1]
	}
	g.ids = make([]int32, g.from[len(g.from)-1])
	next := slices.Clone(g.from)
	for i := range all {
		each(&all[i], func(cell int) {
			g.ids[next[cell]] = int32(i)
			next[cell]++
		})
	}
	return g
}

// at are the stretches near a point of the bell.
func (g *grid) at(p r3.Vec) []int32 {
	x, y, z := cellOf(p)
	if x < 0 || y < 0 || z < 0 || x >= gridX || y >= gridY || z >= gridZ {
		return nil
	}
	c := (x*gridY+y)*gridZ + z
	return g.ids[g.from[c]:g.from[c+1]]
}

// stretch is a straight piece of hair laid on the bell.
type stretch struct {
	from, step r3.Vec
	// inverse is 1 ÷ the square of its length, half the half thickness of its piece, reach how
	// far it is looked for.
	inverse, half, reach float64
	piece                int32
}

// beside is how far p lies beside the hair, mm; negative under it.
func (s *stretch) beside(p r3.Vec) float64 {
	v := r3.Sub(p, s.from)
	f := max(0, min(1, r3.Dot(v, s.step)*s.inverse))
	return length(r3.Sub(v, r3.Scale(f, s.step))) - s.half
}

// stretches lays all ways on the bell, to be looked for up to slack mm beside each piece.
func (w *Wearer) stretches(pieces []Piece, paths []Path, slack float64) []stretch {
	b := &w.body
	var out []stretch
	for i, p := range paths {
		half := pieces[i].Thickness / 2
		for k := 1; k < len(p.Points); k++ {
			from, to := b.onBell(p.Points[k-1]), b.onBell(p.Points[k])
			if from.Z < coverFoot && to.Z < coverFoot {
				continue
			}
			n := max(1, int(length(r3.Sub(to, from))/chord))
			at := from
			for j := 1; j <= n; j++ {
				next := b.onBell(r3.Add(from, r3.Scale(float64(j)/float64(n), r3.Sub(to, from))))
				step := r3.Sub(next, at)
				if l := r3.Norm2(step); l > 1e-9 {
					out = append(out, stretch{at, step, 1 / l, half, half + slack, int32(i)})
				}
				at = next
			}
		}
	}
	return out
}

// Cover counts, for each of some slacks and every place, the pieces that hang over it: those
// whose way on the bell passes within half their thickness and slack mm. Places are surface
// points, mm. The error is that of ctx.
func (w *Wearer) Cover(ctx context.Context, pieces []Piece, paths []Path, places []r3.Vec, slacks ...float64) ([][]int, error) {
	all := w.stretches(pieces, paths, slices.Max(slacks))
	g := newGrid(all)
	if err := ctx.Err(); err != nil {
		return nil, fmt.Errorf("looking for bare scalp: %w", err)
	}
	out, seen := make([][]int, len(slacks)), make([][]int, len(slacks))
	for k := range slacks {
		out[k] = make([]int, len(places))
		seen[k] = make([]int, len(pieces)) // the last place a piece was counted at
	}
	for i, p := range places {
		q := w.body.onBell(p)
		for _, id := range g.at(q) {
			s := &all[id]
			beside := s.beside(q)
			for k, slack := range slacks {
				if beside <= slack && seen[k][s.piece] != i+1 {
					seen[k][s.piece] = i + 1
					out[k][i]++
				}
			}
		}
	}
	return out, nil
}

// Scalp are about n places spread evenly inside the hairline, surface points, with the area of
// the scalp that each stands for, mm². On the left they lie on a spiral of equal steps round
// the unit sphere; the right is its mirror image.
func Scalp(h scalp.Head, n int) (places []r3.Vec, each float64) {
	line := h.Hairline(scalp.FrontCentre, scalp.NapeCentre)
	lowest := make([]float64, 361) // by half degree of longitude
	for d := range lowest {
		lon := float64(d) / 2 * degree
		lowest[d] = math.Asin(line[len(line)-1].Z)
		for i := 1; i < len(line); i++ {
			a, b := line[i-1], line[i]
			from, to := math.Abs(math.Atan2(a.Y, a.X)), math.Abs(math.Atan2(b.Y, b.X))
			if from <= lon && lon <= to && to > from {
				lowest[d] = math.Asin(a.Z) + (lon-from)/(to-from)*(math.Asin(b.Z)-math.Asin(a.Z))
				break
			}
		}
	}
	const haired = 0.66 // of a usual head
	total := int(float64(n) / haired)
	area := 0.0
	for i := range total {
		z := 1 - (2*float64(i)+1)/float64(total)
		lon := math.Remainder(float64(i)*golden, 2*math.Pi)
		lat := math.Asin(z)
		if lat <= lowest[int(math.Abs(lon)/degree*2)] {
			continue
		}
		u := scalp.At(lon, lat)
		if u.Y < 1e-9 { // one on the middle is its own twin
			continue
		}
		places = append(places, h.Surface(u), h.Surface(scalp.Mirror(u)))
		area += 2 * math.Sqrt(r3.Norm2(r3.Vec{X: h.B * h.C * u.X, Y: h.A * h.C * u.Y, Z: h.A * h.B * u.Z})) * 4 * math.Pi / float64(total)
	}
	return places, area / float64(max(1, len(places)))
}

// Spot is a stretch of scalp under no hair.
type Spot struct {
	// Places are the indices of what was looked at, Area what they stand for, mm².
	Places []int
	Area   float64
	Middle r3.Vec // mm, about on the surface
}

// leastSpot is how many places make a spot: fewer are the ends of parts.
const leastSpot = 6

// Spots joins neighbouring places that are bare into spots, the largest first; each place
// stands for each mm².
func Spots(places []r3.Vec, bare func(i int) bool, each float64) []Spot {
	near := 2.1 * math.Sqrt(each)
	var list []int
	for i := range places {
		if bare(i) {
			list = append(list, i)
		}
	}
	slices.SortStableFunc(list, func(a, b int) int { return compare(places[a].X, places[b].X) })
	group := make([]int, len(list))
	for i := range group {
		group[i] = i
	}
	root := func(i int) int {
		for group[i] != i {
			group[i] = group[group[i]]
			i = group[i]
		}
		return i
	}
	for a := range list {
		for b := a + 1; b < len(list) && places[list[b]].X-places[list[a]].X < near; b++ {
			if r3.Norm2(r3.Sub(places[list[a]], places[list[b]])) < near*near {
				group[root(a)] = root(b)
			}
		}
	}
	spots := map[int]*Spot{}
	var out []*Spot
	for a, i := range list {
		g := root(a)
		if spots[g] == nil {
			spots[g] = &Spot{}
			out = append(out, spots[g])
		}
		s := spots[g]
		s.Places = append(s.Places, i)
		s.Middle = r3.Add(s.Middle, places[i])
	}
	found := []Spot{}
	for _, s := range out {
		if n := len(s.Places); n >= leastSpot {
			s.Area = each * float64(n)
			s.Middle = r3.Scale(1/float64(n), s.Middle)
			slices.Sort(s.Places)
			found = append(found, *s)
		}
	}
	slices.SortStableFunc(found, func(a, b Spot) int { return compare(b.Area, a.Area) })
	return found
}
