package parting

import (
	"cmp"
	"context"
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
	"kladotex/core/surface"
)

// Hooking is how pieces are spread over a base.
type Hooking struct {
	// Count is how many there are on the whole head, exactly; 0 lets the distance say.
	Count int
	// Apart is how far from one to the next at a place, in shares of the usual distance; nil
	// where it is the same all over.
	Apart func(Zone, scalp.Point) float64
}

// carriers are what of a layout carries hooked pieces.
type carriers struct {
	cornrows []run
	lattices []lattice
	// usual, shown and netted are the usual distances of pieces, mm: on cornrows, on those that
	// show, and on a net.
	usual, shown, netted float64
	// spots are those that stay free.
	spots []Spot
}

// stayFree tells whether a point lies in a spot on which nothing hangs.
func (c *carriers) stayFree(h scalp.Head, at r3.Vec) bool {
	return slices.ContainsFunc(c.spots, func(s Spot) bool { return s.covers(h, at) })
}

// StaysFree tells whether a point of the scalp lies in a spot that is left out.
func (s Settings) StaysFree(h scalp.Head, at scalp.Point) bool {
	c := carriers{spots: s.LeftOut}
	return len(s.LeftOut) > 0 && c.stayFree(h, Toward(h, at).vec())
}

// covers tells whether a point of the scalp lies in the spot.
func (s Spot) covers(h scalp.Head, at r3.Vec) bool {
	return h.Chord(at, s.At.vec()) < s.Radius && h.Arc(at, s.At.vec()) <= s.Radius
}

// run is a way along which pieces are hooked: a cornrow, or a line of a net.
type run struct {
	zone Zone
	path surface.Curve
	// carrier is the index of the cornrow in the layout, or of the net.
	carrier int
	// crosses is true for one that the middle of the head halves: its places mirror each other.
	crosses bool
	// staggered is true for every other one, whose pieces stand half a distance on.
	staggered bool
	// shows is true where the pieces stand closer, since the base is seen.
	shows bool
	// pitch is how far apart the borders of its stretch of a net lie, mm, at even steps along it;
	// none for a cornrow.
	pitch []float64

	// pieces is how many hang there by the distance wished, summed up in stretches along it.
	pieces []float64
	count  int
}

// lattice is a zone under a net, hooked in lines one above the other.
type lattice struct {
	net         int
	zone        Zone
	left, right *surface.Patch // lines run along them from the middle or from the front
	central     bool
}

// area is that of both sides, mm².
func (x lattice) area() (mm2 float64) {
	for _, p := range []*surface.Patch{x.left, x.right} {
		if p != nil {
			mm2 += p.Area()
		}
	}
	return mm2
}

// cell is the scalp that one piece of a lattice covers, as a share of the square of its distance
// to the next: the lines lie as far apart as an even triangle is high.
var cell = math.Sqrt(3) / 2

// lines are the lines of a lattice about spacing apart: those of a central zone run over both
// sides, else every side has its own.
func (x lattice) lines(ctx context.Context, h scalp.Head, spacing float64) (out []run) {
	for side, p := range []*surface.Patch{x.left, x.right} {
		if p == nil || x.central && side > 0 {
			continue
		}
		rise := p.Rise()
		n := max(1, int(math.Round(rise.Whole()/(spacing*cell))))
		ts := rowLines(rise, n, 1)
		for r := range n {
			if ctx.Err() != nil {
				return out
			}
			t := (ts[r] + ts[r+1]) / 2
			line, lower, upper := p.Line(t), p.Line(ts[r]), p.Line(ts[r+1])
			pitch := make([]float64, pitchSteps+1)
			for k := range pitch {
				at := float64(k) / pitchSteps
				pitch[k] = h.Chord(lower.At(at), upper.At(at))
			}
			switch {
			case x.central:
				line = line.Reversed().Then(h, x.right.Line(t).Mirrored())
				both := slices.Clone(pitch)
				slices.Reverse(both)
				pitch = append(both, pitch[1:]...)
			case side > 0:
				line = line.Mirrored()
			}
			out = append(out, run{zone: x.zone, path: line, carrier: x.net, crosses: x.central, staggered: r%2 == 1, pitch: pitch})
		}
	}
	return out
}

// pitchSteps is in how many steps the width of a stretch of net is measured along it.
const pitchSteps = 16

// pitchAt is that width at a share of the run, mm.
func (x *run) pitchAt(share float64) float64 {
	at := share * float64(len(x.pitch)-1)
	k := min(int(at), len(x.pitch)-2)
	return x.pitch[k] + (at-float64(k))*(x.pitch[k+1]-x.pitch[k])
}

// weighStep is how fine the distance wished is followed along a run, mm.
const weighStep = 6.0

// weigh sums up how many pieces hang on a run, usual the usual distance there. Spots that stay free get none.
func (x *run) weigh(h scalp.Head, on *carriers, usual float64, apart func(Zone, scalp.Point) float64) {
	n := 1
	if apart != nil || x.pitch != nil || len(on.spots) > 0 {
		n = max(1, int(math.Ceil(x.path.Length()/weighStep)))
	}
	x.pieces = make([]float64, n+1)
	step := x.path.Length() / float64(n)
	for k := range n {
		share, at := 1.0, (float64(k)+0.5)/float64(n)
		if apart != nil {
			share = apart(x.zone, h.Point(x.path.At(at)))
		}
		by := step / (usual * share)
		if x.pitch != nil {
			by *= x.pitchAt(at) / (cell * usual * share)
		}
		if on.stayFree(h, x.path.At(at)) {
			by = 0
		}
		x.pieces[k+1] = x.pieces[k] + by
	}
}

// whole is how many pieces hang on a run by the distance wished.
func (x *run) whole() float64 { return x.pieces[len(x.pieces)-1] }

// places are those of as many pieces as the run was given, evenly by the distance wished.
func (x *run) places(h scalp.Head) scalp.Line {
	if x.whole() == 0 { // all of it stays free
		return scalp.Line{}
	}
	off := 0.25
	switch {
	case x.crosses:
		off = 0.5
	case x.staggered:
		off = 0.75
	}
	out := make(scalp.Line, 0, x.count)
	k, stretches := 0, len(x.pieces)-1
	for i := range x.count {
		want := (float64(i) + off) / float64(x.count) * x.whole()
		for k < stretches-1 && x.pieces[k+1] < want {
			k++
		}
		within := (want - x.pieces[k]) / (x.pieces[k+1] - x.pieces[k])
		out = append(out, h.Point(x.path.At((float64(k)+within)/float64(stretches))))
	}
	return out
}

// Hooked is the layout with its pieces spread otherwise over the base. It has the distance that
// comes of it in Spacing.
func (l Layout) Hooked(ctx context.Context, h scalp.Head, wish Hooking) Layout {
	l = l.clone()
	if len(l.base.cornrows)+len(l.base.lattices) == 0 {
		l.goOn()
		return l
	}
	runs := slices.Clone(l.base.cornrows)
	loose := 1.0
	weigh := func(runs []run) (sum float64) {
		for i := range runs {
			usual := l.base.usual
			switch {
			case runs[i].pitch != nil:
				usual = l.base.netted
			case runs[i].shows:
				usual = l.base.shown
			}
			runs[i].weigh(h, &l.base, usual, wish.Apart)
			sum += runs[i].whole()
		}
		return sum
	}
	total := weigh(runs)
	if len(l.base.lattices) > 0 {
		covered := 0.0
		for _, x := range l.base.lattices {
			covered += x.area() / (cell * l.base.netted * l.base.netted)
		}
		if wish.Count > 0 { // as many lines as that many pieces make
			loose = math.Sqrt((total + covered) / float64(wish.Count))
		}
		for _, x := range l.base.lattices {
			runs = append(runs, x.lines(ctx, h, max(MinSpacing, l.base.netted*loose))...)
		}
		total = weigh(runs)
	}
	count := wish.Count
	if count == 0 {
		count = int(math.Round(total))
	}
	places := hang(h, runs, count, total, wish.Count > 0, loose*l.base.netted)
	for i := range l.Cornrows {
		l.Cornrows[i].Hooks = scalp.Line{}
	}
	for i := range l.Nets {
		l.Nets[i].Hooks = scalp.Line{}
	}
	for i, x := range runs {
		if x.pitch != nil {
			l.Nets[x.carrier].Hooks = append(l.Nets[x.carrier].Hooks, places[i]...)
		} else {
			l.Cornrows[x.carrier].Hooks = places[i]
		}
	}
	l.goOn()
	l.Spacing = l.base.usual
	if len(l.base.cornrows) == 0 {
		l.Spacing = l.base.netted
	}
	if wish.Count > 0 {
		ratio := total / float64(count)
		if len(l.base.cornrows) == 0 {
			ratio = math.Sqrt(ratio)
		}
		l.Spacing *= ratio
	}
	return l
}

// goOn adds the ends of those cornrows that go on as braids.
func (l *Layout) goOn() {
	for i := range l.Cornrows {
		if x := &l.Cornrows[i]; x.Fed {
			x.Hooks = append(slices.Clone(x.Hooks), x.Line[len(x.Line)-1])
		}
	}
}

// tooNear is how near to another a piece on a net is left out, in distances: where the lines of a
// net run together some pieces would crowd others.
const tooNear = 0.7

// hang gives every run its places, about or exactly count of them in all; netted is the distance
// on a net, mm.
func hang(h scalp.Head, runs []run, count int, total float64, exact bool, netted float64) [][]scalp.Point {
	out := make([][]scalp.Point, len(runs))
	crowded := func() (kept int) {
		crowds := map[Zone]crowd{}
		for i := range runs {
			x := &runs[i]
			out[i] = x.places(h)
			if x.pitch != nil {
				if _, has := crowds[x.zone]; !has {
					crowds[x.zone] = crowd{tooNear * netted, map[[3]int][]scalp.Point{}}
				}
				out[i] = slices.DeleteFunc(out[i], func(p scalp.Point) bool { return !crowds[x.zone].join(p) })
			}
			kept += len(out[i])
		}
		return kept
	}
	const tries = 12
	ask := count
	for range tries {
		allot(h, runs, ask, total, exact)
		kept := crowded()
		if !exact || kept == count {
			return out
		}
		ask += count - kept
	}
	allot(h, runs, count, total, exact)
	for i := range runs {
		out[i] = runs[i].places(h)
	}
	return out
}

// crowd are places on the scalp, kept so that those near another are found at once:
// by the cubes of a lattice, as wide as what counts as near.
type crowd struct {
	near  float64
	cubes map[[3]int][]scalp.Point
}

// join adds a place unless it crowds one that is there, and tells whether it did.
func (c crowd) join(p scalp.Point) bool {
	var cube [3]int
	for i, v := range p {
		cube[i] = int(math.Floor(v / c.near))
	}
	for i := range 27 {
		for _, q := range c.cubes[[3]int{cube[0] + i%3 - 1, cube[1] + i/3%3 - 1, cube[2] + i/9 - 1}] {
			if distance2(p, q) < c.near*c.near {
				return false
			}
		}
	}
	c.cubes[cube] = append(c.cubes[cube], p)
	return true
}

// share is one run, or two that mirror each other, among which pieces are allotted.
type share struct {
	runs  []int
	ideal float64
	count int
	// step is how many pieces are added at a time so that both sides stay alike, and every other
	// line of a net keeps its pieces between those of the next.
	step int
}

// allot gives every run whole pieces, count in all, as near to what hangs there by the distance
// wished as both sides alike allow; total is the sum of that. Where the number is exact, an odd
// one goes where it divides no pair, and where there are only pairs one side has one more.
func allot(h scalp.Head, runs []run, count int, total float64, exact bool) {
	if total == 0 {
		return
	}
	var shares []share
	left := count
	twin := twins(h, runs)
	odd := map[Zone]bool{}
	for i := range runs {
		ideal := runs[i].whole() * float64(count) / total
		s := share{runs: []int{i}, ideal: ideal, step: 1}
		switch j := twin[i]; {
		case j >= 0 && j < i:
			continue
		case j >= 0:
			s.runs, s.ideal, s.step = []int{i, j}, 2*ideal, 2
		case runs[i].crosses:
			s.step = 2
			if odd[runs[i].zone] && ideal >= 0.5 {
				s.count = 1
			}
			odd[runs[i].zone] = !odd[runs[i].zone]
		}
		if more := int((s.ideal - float64(s.count)) / float64(s.step)); more > 0 {
			s.count += more * s.step
		}
		left -= s.count
		shares = append(shares, s)
	}
	deal(shares, left, exact)
	for _, s := range shares {
		for k, i := range s.runs {
			runs[i].count = s.count / len(s.runs)
			if k < s.count%len(s.runs) {
				runs[i].count++
			}
		}
	}
}

// deal adds the pieces that are left to the shares that lack most, or takes away what is too
// many: whole steps first, then, where the number is exact, single ones.
func deal(shares []share, left int, exact bool) {
	for left != 0 {
		sign := 1
		if left < 0 {
			sign = -1
		}
		best, by := -1, 0
		most := math.Inf(-1)
		for _, whole := range []bool{true, false} {
			for i, s := range shares {
				step := s.step
				if !whole {
					step = 1
				}
				if step > sign*left || s.count+sign*step < 0 {
					continue
				}
				if lack := float64(sign)*(s.ideal-float64(s.count)) - float64(step)/2; lack > most {
					best, by, most = i, step, lack
				}
			}
			if best >= 0 || !exact {
				break
			}
		}
		if best < 0 {
			return // nothing that could take it
		}
		shares[best].count += sign * by
		left -= sign * by
	}
}

// twinNear is how near to the mirror image of a run's middle that of its twin lies, mm.
const twinNear = 1.5

// twinShare is by how much two runs that mirror each other may differ in what hangs on them, a share.
const twinShare = 0.05

// twins are, of every run, the one on the other side that mirrors it; -1 where it has none, or
// is its own.
func twins(h scalp.Head, runs []run) []int {
	out := make([]int, len(runs))
	middles := make([]scalp.Point, len(runs))
	for i := range runs {
		out[i] = -1
		middles[i] = h.Point(runs[i].path.At(0.4))
	}
	order := make([]int, len(runs))
	for i := range order {
		order[i] = i
	}
	slices.SortFunc(order, func(a, b int) int { return cmp.Compare(middles[a][0], middles[b][0]) })
	for n, i := range order {
		if out[i] >= 0 || runs[i].crosses || math.Abs(middles[i][1]) <= twinNear {
			continue
		}
		for _, j := range order[n+1:] {
			if middles[j][0]-middles[i][0] > twinNear {
				break
			}
			mirrored := scalp.Point{middles[j][0], -middles[j][1], middles[j][2]}
			if out[j] < 0 && scalp.Apart(middles[i], mirrored) <= twinNear && math.Abs(runs[i].path.Length()-runs[j].path.Length()) <= twinNear &&
				math.Abs(runs[i].whole()-runs[j].whole()) <= twinShare*runs[i].whole() { // no spot on one side alone
				out[i], out[j] = j, i
				break
			}
		}
	}
	return out
}

// netPlaits are the places of the small plaits that lie under a net, n of them.
func (x lattice) netPlaits(ctx context.Context, h scalp.Head, n int) scalp.Line {
	spacing := math.Sqrt(x.area() / (cell * float64(n)))
	lines := x.lines(ctx, h, spacing)
	total := 0.0
	for i := range lines {
		lines[i].weigh(h, &carriers{}, spacing, nil)
		total += lines[i].whole()
	}
	allot(h, lines, n, total, true)
	out := scalp.Line{}
	for i := range lines {
		out = append(out, lines[i].places(h)...)
	}
	return out
}
