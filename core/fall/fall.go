// Package fall says how the pieces of a head hang: their ways from the root over head, ears,
// neck and shoulders, where their ends land at the wearer's stature, what they cover, and how
// full they hang.
//
// Points are mm in the head's axes: x to the face, y to the client's left, z up. Heights on
// the body are told as shares of stature, 1 at the vertex. It is a drawing made with care, not
// a simulation of fibres: each piece takes the steepest way down the head, away from the part
// first; pieces are led round the face; later ones lie on earlier ones; from where the head
// turns under they hang straight, or slide over neck and shoulders.
//
// Where left and right are alike the right side is the exact mirror image of the left.
package fall

import (
	"context"
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
)

// Style is how the hair is worn.
type Style string

// The styles.
const (
	Down   Style = "down"
	HalfUp Style = "half-up"
	Tied   Style = "tied"
)

// Styles are all of them.
var Styles = []Style{Down, HalfUp, Tied}

// Piece is what hangs at one place.
type Piece struct {
	// Root is the place as a unit vector of the head.
	Root r3.Vec
	// Side is the side of the part it belongs to: 1 left, -1 right, 0 for that which it
	// grows on.
	Side float64
	// Length is that as it hangs, curl and wave counted, Thickness its own, mm.
	Length, Thickness float64
}

// MaxPoints is the most points of a [Path].
const MaxPoints = 16

// Path is how a piece hangs.
type Path struct {
	// Points go from the root to the end.
	Points []r3.Vec
	// Lift is how much hair lies beneath it where it leaves the head, mm.
	Lift float64
}

// End is where it lands.
func (p Path) End() r3.Vec { return p.Points[len(p.Points)-1] }

// Wearer is whose hair hangs. Make one with [New].
type Wearer struct {
	body body
	part []r3.Vec // the part line, surface points
	// front is the latitude of the front hairline by degree of longitude, line the hairline
	// itself on the left, surface points.
	front [91]float64
	line  []r3.Vec
}

// New is a head worn at a stature in mm, its hair laid away from a part line, which may be
// empty.
func New(h scalp.Head, stature float64, part scalp.Line) *Wearer {
	w := &Wearer{body: newBody(h, stature), front: frontLatitude(h)}
	const most = 26 // points: it bends little
	every := max(1, len(part)/most)
	for i, p := range part {
		if i%every == 0 || i == len(part)-1 {
			w.part = append(w.part, r3.Vec{X: p[0], Y: p[1], Z: p[2]})
		}
	}
	for _, u := range h.Hairline(scalp.FrontCentre, scalp.EarTop) {
		w.line = append(w.line, h.Surface(u))
	}
	return w
}

// Share is the share of stature at a height in the head's axes.
func (w *Wearer) Share(z float64) float64 { return w.body.share(z) }

// Height is the height in the head's axes of a share of stature, mm.
func (w *Wearer) Height(share float64) float64 { return w.body.height(share) }

// Slices are those of the body under the head and of the face, from the top, for drawing.
func (w *Wearer) Slices() (torso, face []Slice) { return w.body.torso, w.body.face }

// frontLatitude samples the front hairline: its latitude in radians by whole degrees of
// longitude up to the ear.
func frontLatitude(h scalp.Head) (lat [91]float64) {
	line := h.Hairline(scalp.FrontCentre, scalp.EarTop)
	for d := range lat {
		lon := float64(d) * degree
		lat[d] = math.Asin(line[len(line)-1].Z)
		for i := 1; i < len(line); i++ {
			a, b := line[i-1], line[i]
			from, to := math.Atan2(a.Y, a.X), math.Atan2(b.Y, b.X)
			if from <= lon && lon <= to && to > from {
				f := (lon - from) / (to - from)
				lat[d] = math.Asin(a.Z) + f*(math.Asin(b.Z)-math.Asin(a.Z))
				break
			}
		}
	}
	return lat
}

const degree = math.Pi / 180

// behind is how far behind the front hairline a root grows, mm, straight through.
func (w *Wearer) behind(root r3.Vec) float64 {
	best := math.Inf(1)
	root.Y = math.Abs(root.Y)
	for _, q := range w.line {
		best = min(best, r3.Norm2(r3.Sub(root, q)))
	}
	return math.Sqrt(best)
}

// strand is a piece on its way down.
type strand struct {
	*Piece
	tied bool
	// dome is its way over the head.
	dome []r3.Vec
	// free is true for a root below the plane of the circumference, which hangs at once.
	free bool
	// root is the height of its root, natural the azimuth at which it leaves the head by
	// itself, led the one it is led to, want an azimuth without its side.
	root, natural, led, want float64
}

// Hang says how pieces hang, in their order. The error is that of ctx when it ends first.
func (w *Wearer) Hang(ctx context.Context, pieces []Piece, style Style) ([]Path, error) {
	lines, lifts, err := w.hang(ctx, pieces, style)
	if err != nil {
		return nil, err
	}
	out := make([]Path, len(lines))
	floor := w.Height(0)
	var weights []float64
	for i, line := range lines {
		out[i].Lift = lifts[i]
		out[i].Points, weights = thinned(line, weights)
		for k := range out[i].Points { // what is longer lies on it
			out[i].Points[k].Z = max(out[i].Points[k].Z, floor)
		}
	}
	return out, nil
}

// hang is [Wearer.Hang] with every point of the ways.
func (w *Wearer) hang(ctx context.Context, pieces []Piece, style Style) (lines [][]r3.Vec, lifts []float64, err error) {
	strands, err := w.overHead(ctx, pieces, style)
	if err != nil {
		return nil, nil, err
	}
	order := make([]int, len(strands))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return compare(strands[a].root, strands[b].root) })
	m := newStack(&w.body)
	lines, lifts = make([][]r3.Vec, len(pieces)), make([]float64, len(pieces))
	tied := 0
	for k := 0; k < len(order); {
		if err := ctx.Err(); err != nil {
			return nil, nil, fmt.Errorf("hanging the pieces: %w", err)
		}
		// Pieces of one height are hung before any of them is laid down, so that left and right
		// stay mirrored.
		from := k
		for ; k < len(order) && strands[order[k]].root == strands[order[from]].root; k++ {
			i := order[k]
			if strands[i].tied {
				lines[i] = w.gather(&strands[i], tieOf(style), tied, m)
				tied++
			} else {
				lines[i], lifts[i] = w.drop(&strands[i], m)
			}
		}
		for _, i := range order[from:k] {
			m.lay(lines[i], pieces[i].Thickness)
		}
	}
	return lines, lifts, nil
}

// overHead takes every piece over the head.
func (w *Wearer) overHead(ctx context.Context, pieces []Piece, style Style) ([]strand, error) {
	b := &w.body
	strands := make([]strand, len(pieces))
	arena := make([]r3.Vec, 0, len(pieces)*24)
	for i := range pieces {
		s := &strands[i]
		s.Piece = &pieces[i]
		at := b.head.Surface(s.Root)
		s.root = math.Round(at.Z*1e4) / 1e4 // mirrored roots are equally high
		s.tied = style == Tied || style == HalfUp && s.Root.Z > halfUp
		start := len(arena)
		switch {
		case s.tied:
			arena = w.toTie(s.Root, tieOf(style), arena)
		case at.Z <= onPlane:
			s.free = true
			arena = append(arena, at)
		default:
			arena = w.dome(s.Root, s.Side, arena)
		}
		s.dome = arena[start:len(arena):len(arena)]
		s.natural = b.azimuth(s.dome[len(s.dome)-1])
		s.led = s.natural
	}
	if err := ctx.Err(); err != nil {
		return nil, fmt.Errorf("hanging the pieces: %w", err)
	}
	w.lead(strands)
	for i := range strands {
		if s := &strands[i]; !s.free && !s.tied {
			w.bend(s)
		}
	}
	return strands, nil
}

// bendWeight is how much length, in mm, one radian of bend counts for where points are
// placed along a way.
const bendWeight = 55.0

// thinned keeps at most [MaxPoints] points of a way, more where it bends. weights is room to
// work in, given back for the next.
func thinned(line []r3.Vec, weights []float64) (points []r3.Vec, room []float64) {
	if len(line) <= MaxPoints {
		return slices.Clone(line), weights
	}
	weights = append(weights[:0], 0)
	for i := 1; i < len(line); i++ {
		d := r3.Sub(line[i], line[i-1])
		l, bend := length(d), 0.0
		if i+1 < len(line) {
			e := r3.Sub(line[i+1], line[i])
			if m := length(e); l > 0 && m > 0 {
				bend = math.Sqrt(max(0, 2-2*r3.Dot(d, e)/l/m)) // the chord of the angle
			}
		}
		weights = append(weights, weights[i-1]+l+bendWeight*bend)
	}
	points = make([]r3.Vec, 0, MaxPoints)
	total, j := weights[len(weights)-1], 0
	for k := range MaxPoints - 1 {
		want := total * float64(k) / (MaxPoints - 1)
		for weights[j+1] < want {
			j++
		}
		f := 0.0
		if step := weights[j+1] - weights[j]; step > 0 {
			f = (want - weights[j]) / step
		}
		points = append(points, r3.Add(line[j], r3.Scale(f, r3.Sub(line[j+1], line[j]))))
	}
	return append(points, line[len(line)-1]), weights
}

// cutTo shortens a way to a length, and says how much of the length is left where the way is
// shorter.
func cutTo(line []r3.Vec, mm float64) ([]r3.Vec, float64) {
	for i := 1; i < len(line); i++ {
		step := r3.Sub(line[i], line[i-1])
		l := length(step)
		if l >= mm {
			line[i] = r3.Add(line[i-1], r3.Scale(mm/l, step))
			return line[:i+1], 0
		}
		mm -= l
	}
	return line, mm
}
