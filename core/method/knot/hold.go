package knot

import (
	"math"
	"slices"
)

// Held is own hair with a piece on it: three lines that end where they are drawn to.
//
// The own hair runs from the root to its tip. The loop runs from its neck round to its neck; the body grows
// out of the neck and runs to the tail. Wall is half the width of a hollow body at each of its points, nil for
// a solid one: what runs between its walls is inside. Each line has at least two points, the body four.
type Held struct {
	Own, Loop, Body []Point
	Wall            []float64
}

// beside is half the distance of the two lines a solid body is taken as, and far how far off the page the open
// ends are led; both in units of the stage.
const (
	beside = 0.5
	far    = 2000.0
)

// Holds tells whether the piece stays on when its tail is held and its loop pulled: a polynomial that is 0 for
// everything that comes off, however it is drawn, and is the same, up to ±Aⁿ, while things are only pushed
// about or loop or body turn on themselves. Anything but 0 proves that it holds; 0 is strong evidence that it
// does not.
//
// Nobody can bring the far ends back in: the root is led straight up, the tip and the tail straight down. The
// body is taken as two lines, beside each other or as near wall and far wall. They make one line with the loop,
// which joined to own hair makes one ring, the band; cut through at the neck it makes two. With a ring that
// crosses nothing at d = -A² - A⁻², it is d·⟨band⟩ - ⟨cut⟩: the bracket with the doubled body projected on what
// cannot be pulled back (Wenzl 1987, from memory), so that no turn of the body counts.
func (h Held) Holds() Laurent {
	left, right := h.doubled()
	own := h.own()
	// The line of the body that hangs nearer to own hair is joined to its tip, below everything; the other
	// goes round outside, to the root. Which end of the loop goes with which line is all one: it is half a turn
	// of the body.
	tip := own[len(own)-1]
	near, off := left, right
	if math.Abs(tail(right).X-tip.X) < math.Abs(tail(left).X-tip.X) {
		near, off = right, left
	}
	end := tail(off)
	aside := end.X + math.Copysign(far, end.X-tip.X)
	home := []Point{{end.X, far + 40, end.Z}, {aside, far + 40, end.Z}, {aside, -far, end.Z}}
	// Cut a little past the neck, so that both have whatever turn there is at it.
	const cut = 3
	up := reversed(near)
	at := len(up) - cut
	out := Bracket(slices.Concat(own, up, h.Loop, off, home)).round()
	out.plus(Bracket(slices.Concat(own, up[:at], off[cut:], home), slices.Concat(up[at:], h.Loop, off[:cut])), -1, 0)
	return out
}

func reversed(line []Point) []Point {
	out := slices.Clone(line)
	slices.Reverse(out)
	return out
}

// Through counts, with its sign, how often the body goes through the loop, its first stretch past the neck left
// out: half the sum of the signs of their crossings.
func (h Held) Through(neck int) int {
	body := append(slices.Clone(h.Body[neck:]), led(tail(h.Body), front)...)
	last := tail(body)
	return Linking(Ring(append(body, Point{last.X + far, far, last.Z}, Point{last.X + far, body[0].Y, behind}, Point{body[0].X, body[0].Y, behind})), h.Loop)
}

// OwnThrough counts, with its sign, how often own hair goes through the loop.
func (h Held) OwnThrough() int { return Linking(h.Alone(), h.Loop) }

// Inside counts how often own hair crosses the middle of the body between its walls.
func (h Held) Inside() (n int) {
	for i := 0; i+1 < len(h.Wall); i++ {
		for j := 0; j+1 < len(h.Own); j++ {
			p, q := h.Own[j], h.Own[j+1]
			_, t, _, ok := intersect(h.Body[i], h.Body[i+1], p, q)
			if ok && math.Abs(p.Z+(q.Z-p.Z)*t-h.Body[i].Z) < h.Wall[i] {
				n++
			}
		}
	}
	return n
}

// Alone is own hair as a ring of its own.
func (h Held) Alone() Ring {
	own := h.own()
	return slices.Concat(own, []Point{{-far, far, 0}, {-far, -far, 0}})
}

// own leads the root straight up and the tip straight down: in front, or inside where it is hidden.
func (h Held) own() []Point {
	depth := front
	if tip := tail(h.Own); h.inside(tip) {
		depth = tip.Z
	}
	root := h.Own[0]
	return slices.Concat([]Point{{root.X, -far, root.Z}}, h.Own, led(tail(h.Own), depth))
}

// front and behind are depths that nothing drawn comes to.
const front, behind = 900.0, -900.0

// led goes from a place straight down at a depth.
func led(from Point, depth float64) []Point {
	return []Point{{from.X, from.Y, depth}, {from.X, far, depth}}
}

// doubled are the two lines the body is taken as, the one on its left as one goes down it first, led down.
func (h Held) doubled() (left, right []Point) {
	n := len(h.Body)
	for i, p := range h.Body {
		a, b := h.Body[max(i-1, 0)], h.Body[min(i+1, n-1)]
		l := math.Hypot(b.X-a.X, b.Y-a.Y)
		nx, ny, wall := (b.Y-a.Y)/l*beside, (a.X-b.X)/l*beside, 0.0
		if h.Wall != nil {
			wall = h.Wall[i]
		}
		left = append(left, Point{p.X + nx, p.Y + ny, p.Z + wall})
		right = append(right, Point{p.X - nx, p.Y - ny, p.Z - wall})
	}
	wall := 0.0
	if h.Wall != nil {
		wall = h.Wall[n-1]
	}
	return append(left, led(tail(left), front/2+wall)...), append(right, led(tail(right), front/2-wall)...)
}

// inside tells whether a place lies between the walls of the body.
func (h Held) inside(p Point) bool {
	for i, w := range h.Wall {
		b := h.Body[i]
		if math.Abs(p.Z-b.Z) < w && math.Hypot(p.X-b.X, p.Y-b.Y) < w {
			return true
		}
	}
	return false
}

func tail(line []Point) Point { return line[len(line)-1] }
