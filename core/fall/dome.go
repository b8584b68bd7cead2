package fall

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
)

const (
	domeStep = 7.0 // mm
	mostDome = 80  // steps
	// onPlane is the height under which a root hangs at once, mm.
	onPlane = 0.5
	// partReach is how far from the part hair is laid over, mm, partPull how strongly against
	// the full slope. By eye.
	partReach = 42.0
	partPull  = 1.1
)

// dome is the way of a root down to the plane of the circumference over the bare scalp, away
// from the part first; it is appended to way.
func (w *Wearer) dome(root r3.Vec, side float64, way []r3.Vec) []r3.Vec {
	b := &w.body
	p := b.head.Surface(root)
	way = append(way, p)
	if side == 0 {
		side = math.Copysign(1, root.Y)
	}
	for range mostDome {
		half := b.onHead(r3.Add(p, r3.Scale(domeStep/2, w.slope(p, side))))
		q := b.onHead(r3.Add(p, r3.Scale(domeStep, w.slope(half, side))))
		if q.Z < 0 {
			q = b.onHead(r3.Add(p, r3.Scale(p.Z/(p.Z-q.Z), r3.Sub(q, p))))
			q.Z = 0
		}
		p = q
		way = append(way, p)
		if p.Z <= onPlane {
			break
		}
	}
	return way
}

// slope is the way hair takes at a point of the head: down, and away from the part.
func (w *Wearer) slope(p r3.Vec, side float64) r3.Vec {
	b := &w.body
	down, normal := b.steepest(p)
	down = r3.Add(down, w.laidOver(p, normal, side))
	if l := length(down); l > 1e-6 {
		return r3.Scale(1/l, down)
	}
	return r3.Vec{X: -1} // at the very top: back
}

// laidOver is the pull away from the part: hair is laid over on top; down the back it falls by
// itself, or the back would open along a middle part.
func (w *Wearer) laidOver(p, normal r3.Vec, side float64) r3.Vec {
	long := w.body.head.A
	if len(w.part) < 2 || normal.Z <= 0.35 || p.X <= -0.75*long {
		return r3.Vec{}
	}
	nearest, least := 0, math.Inf(1)
	for k, q := range w.part {
		if d := r3.Norm2(r3.Sub(p, q)); d < least {
			nearest, least = k, d
		}
	}
	least = math.Sqrt(least)
	if least >= partReach {
		return r3.Vec{}
	}
	away := r3.Sub(p, w.part[nearest])
	if nearest > 0 && nearest < len(w.part)-1 || least < 2 {
		// Beside the line: straight across it, to the piece's own side.
		along := scalp.Unit(r3.Sub(w.part[min(nearest+1, len(w.part)-1)], w.part[max(nearest-1, 0)]))
		away = r3.Cross(normal, along)
		if away.Y*side < 0 {
			away = r3.Scale(-1, away)
		}
	}
	away = r3.Sub(away, r3.Scale(r3.Dot(away, normal), normal))
	l := length(away)
	if l < 1e-9 {
		return r3.Vec{}
	}
	fade := (1 - least/partReach) * smooth(0.35, 0.8, normal.Z) * smooth(-0.75*long, -0.1*long, p.X)
	return r3.Scale(partPull*fade/l, away)
}

const (
	// faceEdge is the azimuth of the hair nearest to the face, faceSoft how gradually what
	// would hang before it is led there. By eye.
	faceEdge = 53 * degree
	faceSoft = 7 * degree
	// laterBack is how much further back the rows behind the hairline hang, in full at
	// laterFrom mm behind it.
	laterBack = 26 * degree
	laterFrom = 90.0
	// evenness is the share of the way from where a piece falls by itself to an even curtain.
	evenness = 0.5
	// Roots lower than earRoots mm above the plane do not lie over the ear: they pass before or
	// behind the window in which it stands.
	earRoots = 28.0
	earFrom  = 77 * degree
	earSplit = 90 * degree
	earTo    = 105 * degree
	// atOnce is how many pieces lie over one another before they spread sideways.
	atOnce = 2.4
)

// lead turns what would cross the face to the temple, and spreads the curtain: half way to an
// even one, nothing more than a few pieces thick. The order round the head is kept.
func (w *Wearer) lead(strands []strand) {
	for _, side := range []float64{1, -1} {
		var own []*strand
		total := 0.0
		for i := range strands {
			s := &strands[i]
			// What leaves exactly in front or behind counts to the left.
			if s.tied || s.natural*side < 0 || s.natural == 0 && side < 0 {
				continue
			}
			s.want = w.offFace(s)
			own = append(own, s)
			if !s.free {
				total += s.Thickness
			}
		}
		byWant := func(a, b *strand) int { return compare(a.want, b.want) }
		slices.SortStableFunc(own, byWant)
		run := 0.0
		for _, s := range own {
			if s.free {
				continue
			}
			even := faceEdge + (run+s.Thickness/2)/total*(math.Pi-faceEdge)
			run += s.Thickness
			s.want += evenness * (even - s.want)
			if s.root < earRoots && s.want > earFrom && s.want < earTo {
				if s.want < earSplit {
					s.want = earFrom
				} else {
					s.want = earTo
				}
			}
		}
		slices.SortStableFunc(own, byWant)
		last := 0.0
		for k, s := range own {
			if !s.free {
				h := w.body.head
				radius := h.A*math.Abs(math.Cos(s.want)) + h.B*math.Abs(math.Sin(s.want))
				if least := last + s.Thickness/atOnce/radius; k > 0 && s.want < least {
					s.want = min(least, math.Pi)
				}
				last = max(last, s.want)
			}
			s.led = side * s.want
		}
	}
}

// offFace is the azimuth, without its side, at which a piece may leave the head: softly never
// before the edge of the face; the further behind the hairline, the further round.
func (w *Wearer) offFace(s *strand) float64 {
	a := math.Abs(s.natural)
	if s.free && a >= faceEdge {
		return a
	}
	behind := min(w.behind(w.body.head.Surface(s.Root)), laterFrom) / laterFrom
	front := max(0, 1-a/(100*degree))
	past := (a - faceEdge) / faceSoft
	led := faceEdge + faceSoft*(math.Log1p(math.Exp(past))-0.6*math.Ln2*math.Exp(-math.Abs(past)))
	return min(led+laterBack*behind*front, math.Pi)
}

// bend moves the way over the head so that it ends where it is led to, and keeps it off the
// face.
func (w *Wearer) bend(s *strand) {
	b, h := &w.body, w.body.head
	shift := s.led - s.natural
	way, n := s.dome, len(s.dome)-1
	if n < 1 || math.Abs(shift) < 0.2*degree {
		return
	}
	const (
		margin = 3 * degree // above the hairline
		turned = 0.7        // of the way
	)
	for i := 1; i <= n; i++ {
		u := r3.Vec{X: way[i].X / h.A, Y: way[i].Y / h.B, Z: way[i].Z / h.C}
		lon, lat := math.Atan2(u.Y, u.X), math.Asin(max(-1, min(1, u.Z)))
		lon += shift * smooth(0, turned, float64(i)/float64(n))
		// The hairline is a barrier up to where the hair nearest to the face hangs.
		if a := math.Abs(lon); a < faceEdge+8*degree {
			barrier := w.front[int(a/degree)] + margin
			barrier *= min(1, max(0, (faceEdge+8*degree-a)/(14*degree)))
			lat = max(lat, barrier)
		}
		way[i] = h.Surface(scalp.At(lon, lat))
	}
	for range 3 { // smoothed, the ends kept
		before := way[0]
		for i := 1; i < n; i++ {
			here := way[i]
			way[i] = b.onHead(r3.Scale(0.25, r3.Add(r3.Add(before, way[i+1]), r3.Scale(2, here))))
			before = here
		}
	}
}
