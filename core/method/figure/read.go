package figure

import (
	"fmt"
	"math"
	"strings"
)

// Relation is how one strand lies to another.
type Relation string

// The relations.
const (
	Over    Relation = "over"
	Under   Relation = "under"
	Through Relation = "through" // the one goes through the loop that the other makes
	Inside  Relation = "inside"  // the one runs in the hollow of the other
)

// State is what holds in a frame: strand A lies over, under, through or inside strand B so
// many times. Some is any number but none.
type State struct {
	A     string
	Is    Relation
	B     string
	Times int
}

// String is the state in words.
func (s State) String() string {
	words := strings.ReplaceAll(fmt.Sprintf("%s %s %s", s.A, s.Is, s.B), "-", " ")
	switch s.Times {
	case 0:
		return strings.Replace(words, string(s.Is), "not "+string(s.Is), 1)
	case 1, Some:
		return words
	case 2:
		return words + " twice"
	}
	return fmt.Sprintf("%s %d times", words, s.Times)
}

// Some times: at least once.
const Some = -1

// Crossing is where the centre lines of two strands cross on the page.
type Crossing struct {
	Strands [2]string
	S       [2]float64 // distance along each, units
	Z       [2]float64 // depth of each
	At      XY
}

// Upper is the strand nearer to the viewer.
func (c Crossing) Upper() string {
	if c.Z[0] > c.Z[1] {
		return c.Strands[0]
	}
	return c.Strands[1]
}

// crossings of two curves, by the segments of their centre lines.
func crossings(a, b *curve) (out []Crossing) {
	for i := 0; i+1 < len(a.at); i++ {
		p, q := a.at[i], a.at[i+1]
		from := 0
		if a == b {
			from = i + 2
		}
		for j := from; j+1 < len(b.at); j++ {
			u, v := b.at[j], b.at[j+1]
			if math.Abs(u.x-p.x)+math.Abs(u.y-p.y) > 5*a.step+2 {
				continue
			}
			d := (q.x-p.x)*(v.y-u.y) - (q.y-p.y)*(v.x-u.x)
			if math.Abs(d) < 1e-9 {
				continue
			}
			s := ((u.x-p.x)*(v.y-u.y) - (u.y-p.y)*(v.x-u.x)) / d
			t := ((u.x-p.x)*(q.y-p.y) - (u.y-p.y)*(q.x-p.x)) / d
			if s < 0 || s >= 1 || t < 0 || t >= 1 {
				continue
			}
			out = append(out, Crossing{
				Strands: [2]string{a.of.Name, b.of.Name},
				S:       [2]float64{(float64(i) + s) * a.step, (float64(j) + t) * b.step},
				Z:       [2]float64{mix(p.z, q.z, s), mix(u.z, v.z, t)},
				At:      XY{mix(p.x, q.x, s), mix(p.y, q.y, s)},
			})
		}
	}
	return out
}

// find makes the curve of a strand; nil where the frame has none in sight by that name.
func (f Frame) find(name string) *curve {
	for i := range f.Strands {
		if f.Strands[i].Name == name && f.Strands[i].Shown > shut {
			return newCurve(&f.Strands[i], fine)
		}
	}
	return nil
}

// Crossings are all crossings of two strands.
func (f Frame) Crossings(a, b string) []Crossing {
	p := f.find(a)
	if a == b && p != nil {
		return crossings(p, p)
	}
	q := f.find(b)
	if p == nil || q == nil {
		return nil
	}
	return crossings(p, q)
}

// Count reads back how often a relation holds between two strands.
func (f Frame) Count(a string, is Relation, b string) (n int) {
	switch is {
	case Over, Under:
		for _, c := range f.Crossings(a, b) {
			if (c.Upper() == a) == (is == Over) {
				n++
			}
		}
	case Through:
		n = f.pierces(a, b)
		return max(n, -n)
	case Inside:
		n = f.within(a, b)
	}
	return n
}

// within counts the stretches of a strand, longer than it is wide, that run in the hollow
// of another.
func (f Frame) within(a, b string) (n int) {
	p, q := f.find(a), f.find(b)
	if p == nil || q == nil || q.of.Tube == nil {
		return 0
	}
	start := -1
	for i := 0; i <= len(p.at); i++ {
		in := false
		if i < len(p.at) {
			at := p.at[i]
			for _, o := range q.at {
				if math.Hypot(math.Hypot(at.x-o.x, at.y-o.y), at.z-o.z) < o.half {
					in = true
					break
				}
			}
		}
		switch {
		case in && start < 0:
			start = i
		case !in && start >= 0:
			if float64(i-start)*p.step > 2*p.at[start].half {
				n++
			}
			start = -1
		}
	}
	return n
}

// vector is a place in space.
type vector [3]float64

func (a vector) minus(b vector) vector { return vector{a[0] - b[0], a[1] - b[1], a[2] - b[2]} }
func (a vector) cross(b vector) vector {
	return vector{a[1]*b[2] - a[2]*b[1], a[2]*b[0] - a[0]*b[2], a[0]*b[1] - a[1]*b[0]}
}
func (a vector) dot(b vector) float64 { return a[0]*b[0] + a[1]*b[1] + a[2]*b[2] }

func (a vector) unit() vector {
	l := math.Sqrt(a.dot(a))
	if l < 1e-12 {
		return a
	}
	return vector{a[0] / l, a[1] / l, a[2] / l}
}

func (c *curve) vectors() []vector {
	out := make([]vector, len(c.at))
	for i, p := range c.at {
		out[i] = vector{p.x, p.y, p.z}
	}
	return out
}

// bow is the part of a strand that makes a loop.
func (c *curve) bow() []vector {
	all := c.vectors()
	if c.of.Bow[1] == 0 {
		return all
	}
	n := float64(len(all))
	return all[int(c.of.Bow[0]*n):int(c.of.Bow[1]*n)]
}

// neck is how much of a strand that grows out of a loop's ends is left out, in samples.
func neck(p, loop *curve) int {
	a, b := p.at[0], loop.at[0]
	if math.Hypot(a.x-b.x, a.y-b.y) > 4*b.half {
		return 0
	}
	return int(6 * a.half / p.step)
}

// pierces counts, with its sign, how often a strand goes through the fan that a loop, its
// ends joined, spans round its middle.
func (f Frame) pierces(a, b string) (n int) {
	p, loop := f.find(a), f.find(b)
	if p == nil || loop == nil {
		return 0
	}
	line, rim := p.vectors(), loop.bow()
	var middle vector
	for _, q := range rim {
		for k := range middle {
			middle[k] += q[k] / float64(len(rim))
		}
	}
	for i := neck(p, loop); i+1 < len(line); i++ {
		for j := range rim {
			n += meets(line[i], line[i+1], middle, rim[j], rim[(j+1)%len(rim)])
		}
	}
	return n
}

// meets is 1 or -1 where a segment goes through a triangle, by the side it comes from.
func meets(p, q, a, b, c vector) int {
	volume := func(a, b, c, d vector) float64 { return b.minus(a).dot(c.minus(a).cross(d.minus(a))) }
	from := volume(p, a, b, c)
	if (from > 0) == (volume(q, a, b, c) > 0) {
		return 0
	}
	w1, w2, w3 := volume(p, q, a, b), volume(p, q, b, c), volume(p, q, c, a)
	switch {
	case (w1 > 0) != (w2 > 0) || (w2 > 0) != (w3 > 0):
		return 0
	case from > 0:
		return 1
	}
	return -1
}

// linking is the Gauss linking number of two closed lines, exact for straight segments: the
// sum of the solid angles of their pairs (Klenin and Langowski 2000, from memory).
func linking(a, b []vector) float64 {
	sum := 0.0
	asin := func(x float64) float64 { return math.Asin(min(max(x, -1), 1)) }
	for i := range a {
		p1, p2 := a[i], a[(i+1)%len(a)]
		for j := range b {
			p3, p4 := b[j], b[(j+1)%len(b)]
			r13, r14, r23, r24 := p3.minus(p1), p4.minus(p1), p3.minus(p2), p4.minus(p2)
			n1, n2, n3, n4 := r13.cross(r14).unit(), r14.cross(r24).unit(), r24.cross(r23).unit(), r23.cross(r13).unit()
			angle := asin(n1.dot(n2)) + asin(n2.dot(n3)) + asin(n3.dot(n4)) + asin(n4.dot(n1))
			if p4.minus(p3).cross(p2.minus(p1)).dot(r13) < 0 {
				angle = -angle
			}
			sum += angle
		}
	}
	return sum / (4 * math.Pi)
}

// endless joins the ends of a strand far away: a plait comes out of the scalp and hangs
// down further than the stage.
func endless(line []vector) []vector {
	const far = 4000
	start, end := line[0], line[len(line)-1]
	return append(append([]vector{}, line...),
		vector{end[0], end[1] + far, end[2]}, vector{end[0], end[1] + far, -far},
		vector{start[0], start[1] - far, -far}, vector{start[0], start[1] - far, start[2]})
}

// Hitch reads a hitch back: the body of a piece, the loop it grows out of, and the strand
// that it is hitched on. Noose is the linking number of that strand with the closed line
// from the neck over the body to where it goes through the loop and back along either leg;
// lock is how often the body goes through the loop, by its sign. Both are 1 or -1 where the
// hitch holds: it cannot fall off, only be undone by drawing the body back.
func (f Frame) Hitch(loop, body, on string) (noose [2]float64, lock int) {
	l, b, p := f.find(loop), f.find(body), f.find(on)
	if l == nil || b == nil || p == nil {
		return noose, 0
	}
	lock = f.pierces(body, loop)
	rim, line := l.vectors(), b.vectors()
	best, bodyAt, rimAt := math.Inf(1), 0, 0
	for i := neck(b, l); i < len(line); i++ {
		for j := len(rim) / 4; j < len(rim)*3/4; j++ {
			if d := math.Hypot(line[i][0]-rim[j][0], line[i][1]-rim[j][1]); d < best {
				best, bodyAt, rimAt = d, i, j
			}
		}
	}
	way := line[:bodyAt:bodyAt]
	back := append([]vector{}, way...)
	for j := rimAt; j >= 0; j-- {
		back = append(back, rim[j])
	}
	held := endless(p.vectors())
	return [2]float64{linking(back, held), linking(append(append([]vector{}, way...), rim[rimAt:]...), held)}, lock
}

// Linked is the linking number of a closed loop with a strand that hangs from the scalp.
func (f Frame) Linked(loop, on string) float64 {
	l, p := f.find(loop), f.find(on)
	if l == nil || p == nil {
		return 0
	}
	return linking(l.vectors(), endless(p.vectors()))
}

// Check reads back what the frame states and returns what does not hold.
func (f Frame) Check() (bad []string) {
	for _, s := range f.States {
		n := f.Count(s.A, s.Is, s.B)
		if s.Times == Some && n == 0 || s.Times != Some && n != s.Times {
			bad = append(bad, fmt.Sprintf("%s %s %s: stated %d, drawn %d", s.A, s.Is, s.B, s.Times, n))
		}
	}
	return bad
}
