package parting

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
	"kladotex/core/surface"
)

// A sector is a zone whose rows run round a pole: row lines are near-circles about it, part
// ends lie on rays from it, and the hairline ends rows where it lies. So bands keep an even
// height and are nowhere squeezed into a corner.
//
// Along a ray, row lines count outward from the pole. The band at the pole is taller or
// lower than the others by tilt, so that it holds whole sections. Line x lies
//
//	r(x) = (x + tilt·min(x, 1)) · (near + (far − near)·(x ÷ rows)²) + less·max(0, x − kept)
//
// mm along the ray: near is smooth from ray to ray, far makes the outermost line meet the
// border that rows run along, and less takes some height from rows that run out.
type sector struct {
	rays       int
	near, far  []float64
	less       []float64
	tilt, kept float64
	rows       float64
}

// The shape of sectors, set so that sections of a hundred heads came out even.
const (
	sectorRays = 36
	rayLengths = 32 // steps of a ray's table of lengths
	// How much of the far border's tilt rows take over.
	tiltShare = 0.35
	// By how much rows at the ear are higher than on the middle behind, lower in front, as a
	// logarithm: they meet the hairline more squarely.
	earLean = 0.11
	// How fast the height on the middle gives way to that at the ear.
	bendBack, bendFront = 3.0, 1.5
	// Height taken from rows that run out.
	lessBack, lessFront = 0.15, 0.10
	// Over what share of the rays the far border is forgotten.
	fadeBack, fadeFront, fadeSideburn = 0.35, 0.2, 0.4
	// How far past the corner the far border goes on, in heights.
	riseBack, riseFront = 0.06, 0.25
	// Beside a part: how much rows follow its distance, and grow towards the forehead.
	besideShare, besideGrowth = 0.25, 0.12
	// Levels: over what share of the rays the hairline's bends are smoothed, and how fast they
	// come.
	levelSmooth, levelBend = 9.0 / 48, 1.8
)

func newSector(rows int, tilt float64) sector {
	return sector{
		rays: sectorRays, near: make([]float64, sectorRays+1), far: make([]float64, sectorRays+1),
		less: make([]float64, sectorRays+1), tilt: tilt, kept: float64(rows), rows: float64(rows),
	}
}

// smooth goes from 0 to 1 without a kink.
func smooth(t float64) float64 {
	t = max(0, min(1, t))
	return t * t * (3 - 2*t)
}

func (c *sector) length(near, far, less, x float64) float64 {
	y := x / c.rows
	return (x+c.tilt*min(x, 1))*(near+(far-near)*y*y) - less*max(0, x-c.kept)
}

// on is how far along ray j line x lies, mm.
func (c *sector) on(j int, x float64) float64 {
	return c.length(c.near[j], c.far[j], c.less[j], x)
}

// at is the line that lies r mm along the ray at s: Newton's method.
func (c *sector) at(s, r float64) float64 {
	j := min(c.rays-1, max(0, int(s)))
	f := max(0, min(1, s-float64(j)))
	mix := func(v []float64) float64 { return v[j] + f*(v[j+1]-v[j]) }
	near, far, less := mix(c.near), mix(c.far), mix(c.less)
	x := r/near - c.tilt
	if x < 1 {
		x = r / near / (1 + c.tilt)
	}
	for range 6 {
		const step = 1e-4
		now := c.length(near, far, less, x)
		x -= (now - r) * step / (c.length(near, far, less, x+step) - now)
	}
	return x
}

// rays are the great circles from a pole over an angle, with their lengths in mm.
type rays struct {
	h        scalp.Head
	pole     r3.Vec
	e1, e2   r3.Vec
	from, to float64
	dirs     [sectorRays + 1]r3.Vec
	lengths  [sectorRays + 1][rayLengths + 1]float64
	step     float64
}

// newRays turns from angle from to angle to, seen from e1 towards e2.
func newRays(h scalp.Head, pole, e1, e2 r3.Vec, from, to float64) *rays {
	c := &rays{h: h, pole: pole, e1: e1, e2: e2, from: from, to: to, step: 160 * math.Pi / 180 / rayLengths}
	p := h.Surface(pole)
	pp := r3.Norm2(p)
	var sin, cos [rayLengths]float64
	for i := range sin {
		sin[i], cos[i] = math.Sincos((float64(i) + 0.5) * c.step)
	}
	for j := range c.dirs {
		s, co := math.Sincos(from + (to-from)*float64(j)/sectorRays)
		c.dirs[j] = r3.Add(r3.Scale(co, e1), r3.Scale(s, e2))
		q := h.Surface(c.dirs[j])
		pq, qq := r3.Dot(p, q), r3.Norm2(q)
		for i := range rayLengths {
			c.lengths[j][i+1] = c.lengths[j][i] + c.step*math.Sqrt(cos[i]*cos[i]*qq-2*sin[i]*cos[i]*pq+sin[i]*sin[i]*pp)
		}
	}
	return c
}

// stepAt is the step of a ray's table at which r mm of it lie behind.
func stepAt(table *[rayLengths + 1]float64, r float64) float64 {
	low, high := 0, rayLengths
	for high-low > 1 {
		if mid := (low + high) / 2; table[mid] <= r {
			low = mid
		} else {
			high = mid
		}
	}
	return float64(low) + (r-table[low])/(table[low+1]-table[low])
}

// place is what lies r mm along ray j.
func (c *rays) place(j int, r float64) r3.Vec {
	sin, cos := math.Sincos(c.step * stepAt(&c.lengths[j], r))
	return r3.Add(r3.Scale(cos, c.pole), r3.Scale(sin, c.dirs[j]))
}

// polar is a place seen from a pole: the ray it lies on and how far along, mm.
type polar struct {
	s, r float64
	at   r3.Vec
}

func (c *rays) polar(u r3.Vec) polar {
	s := (math.Atan2(r3.Dot(u, c.e2), r3.Dot(u, c.e1)) - c.from) / (c.to - c.from) * sectorRays
	angle := math.Acos(max(-1, min(1, r3.Dot(u, c.pole)))) / c.step
	i := min(rayLengths-1, int(angle))
	f := angle - float64(i)
	j := min(sectorRays-1, max(0, int(s)))
	g := max(0, min(1, s-float64(j)))
	a := c.lengths[j][i] + f*(c.lengths[j][i+1]-c.lengths[j][i])
	b := c.lengths[j+1][i] + f*(c.lengths[j+1][i+1]-c.lengths[j+1][i])
	return polar{s, a + g*(b-a), u}
}

func (c *rays) polars(line []r3.Vec) []polar {
	out := make([]polar, len(line))
	for i, u := range line {
		out[i] = c.polar(u)
	}
	return out
}

// far is how far along the ray at s a border lies, whose places run on from ray to ray.
func far(border []polar, s float64) float64 {
	rising := border[0].s < border[len(border)-1].s
	for i := 1; i < len(border); i++ {
		a, b := border[i-1], border[i]
		if !rising {
			a, b = b, a
		}
		if s >= a.s && s <= b.s {
			return a.r + (s-a.s)/(b.s-a.s+1e-12)*(b.r-a.r)
		}
	}
	if (s < border[0].s) == rising {
		return border[0].r
	}
	return border[len(border)-1].r
}

// crossings are where the rays cross a border that runs on from ray to ray: exact places,
// so that zones on both sides of it meet. Rays that miss it have none.
func (c *rays) crossings(border []polar) [sectorRays + 1]r3.Vec {
	var out [sectorRays + 1]r3.Vec
	for i := 1; i < len(border); i++ {
		a, b := border[i-1], border[i]
		low, high := min(a.s, b.s), max(a.s, b.s)
		for j := int(math.Ceil(low - 1e-9)); j <= sectorRays && float64(j) <= high+1e-9; j++ {
			if j < 0 {
				continue
			}
			across := r3.Cross(c.pole, c.dirs[j])
			p, q := r3.Dot(across, a.at), r3.Dot(across, b.at)
			if p == q {
				out[j] = b.at
				continue
			}
			out[j] = towardsOf(a.at, b.at, max(0, min(1, p/(p-q))))
		}
	}
	return out
}

// towardsOf is the place at share f of the short way from a to b.
func towardsOf(a, b r3.Vec, f float64) r3.Vec {
	return scalp.Unit(r3.Add(r3.Scale(1-f, a), r3.Scale(f, b)))
}

// tangent is the direction at p towards q.
func tangent(p, q r3.Vec) r3.Vec { return scalp.Unit(r3.Sub(q, r3.Scale(r3.Dot(p, q), p))) }

// quarters are how many sections a pole of angle radians holds without a needle.
func quarters(angle float64) float64 { return max(1, math.Round(angle/(math.Pi/2))) }

// tiltOf lets the band at a pole of angle radians hold a whole number of sections, at most
// most.
func tiltOf(angle, most float64, size Size) float64 {
	best, tilt := math.Inf(1), 0.0
	for m := 1.0; m <= most; m++ {
		t := math.Sqrt(2*m*size.Width*size.Height/angle)/size.Height - 1
		if math.Abs(t) < best {
			best, tilt = math.Abs(t), t
		}
	}
	return max(-0.2, min(0.35, tilt))
}

// rowPair are the numbers of rows on the middle and at the ear: near the wished height, and
// leaning so that rows meet the hairline more squarely.
func rowPair(middle, ear, height, tilt float64, front bool) (onMiddle, atEar int) {
	best := math.Inf(1)
	lean := earLean
	if front {
		lean = -lean
	}
	m0, e0 := max(1, int(middle/height-tilt)), max(1, int(ear/height-tilt))
	for _, m := range []int{m0, m0 + 1} {
		for _, e := range []int{e0, e0 + 1} {
			if front && e < m || !front && m < e {
				continue
			}
			a, b := math.Log(middle/(float64(m)+tilt)/height), math.Log(ear/(float64(e)+tilt)/height)
			off := b - a - lean
			if cost := a*a + b*b + 0.7*off*off; cost < best {
				best, onMiddle, atEar = cost, m, e
			}
		}
	}
	if !math.IsInf(best, 1) {
		return onMiddle, atEar
	}
	onMiddle, atEar = wholeRows(middle, height, tilt), wholeRows(ear, height, tilt)
	if front {
		return onMiddle, max(onMiddle, atEar)
	}
	return onMiddle, min(onMiddle, atEar)
}

func wholeRows(long, height, tilt float64) int {
	return max(1, int(math.Round(long/height-tilt)))
}

// charted is a zone's chart with what laying its rows must know.
type charted struct {
	chart *surface.Chart
	rows  int
	// kept is the x of a line that must stay one, for the border turns there; 0 for none.
	kept float64
	// fromTop is true where the narrow end is at the top.
	fromTop bool
	// most is how many sections the row at the pole holds, at most: of a central zone on the
	// whole head, else on a side.
	most int
}

// outermost orders the marks of a border from the outermost line in, dropping those that
// turn back, and counts x from there.
func outermost(marks []surface.Mark, rows int, fromTop bool) []surface.Mark {
	var out []surface.Mark
	for _, m := range marks {
		if len(out) == 0 || m.X > out[len(out)-1].X+1e-6 {
			out = append(out, m)
		}
	}
	if !fromTop {
		return out
	}
	for i := range out {
		out[i].X = float64(rows) - out[i].X
	}
	slices.Reverse(out)
	return out
}

// draw is the chart of a sector: lines counted from the outermost in where the pole is at
// the top, edge holding the exact places of the outermost line where a border gives them.
func (c *sector) draw(h scalp.Head, r *rays, edge [sectorRays + 1]r3.Vec, fromTop bool) *surface.Chart {
	return &surface.Chart{Head: h, Steps: sectorRays, Draw: func(x float64) []r3.Vec {
		if fromTop {
			x = c.rows - x
		}
		out := make([]r3.Vec, sectorRays+1)
		for j := range out {
			if x == c.rows && edge[j] != (r3.Vec{}) {
				out[j] = edge[j]
				continue
			}
			out[j] = r.place(j, c.on(j, x))
		}
		return out
	}}
}

// aroundCrossing is the back, or the front where no part runs: rows round the place where
// the ear-to-ear part crosses the middle or the part line. Its hairline runs from the ear
// round to the middle; corner is the place in it where the nape's, or the forehead's,
// begins, and sideburn that of the sideburn in front; straddled asks for one section at the
// pole, across the middle.
func aroundCrossing(h scalp.Head, pole r3.Vec, hair []r3.Vec, corner, sideburn int, size Size, front, central, straddled bool) charted {
	ear, middle := hair[0], hair[len(hair)-1]
	e1 := tangent(pole, middle)
	e2 := r3.Cross(pole, e1)
	if r3.Dot(e2, ear) < 0 {
		e2 = r3.Scale(-1, e2)
	}
	te := tangent(pole, ear)
	angle := math.Atan2(r3.Dot(te, e2), r3.Dot(te, e1))
	fan := newRays(h, pole, e1, e2, 0, angle)
	border := fan.polars(hair) // from the ear to the middle
	border[0].s, border[len(border)-1].s = sectorRays, 0
	atCorner := border[corner].r
	if front {
		for corner > 1 && border[corner-1].r < atCorner+riseFront*size.Height && border[corner-1].s < 0.72*sectorRays {
			corner--
		}
	} else { // the nape goes on until the hairline begins to rise
		for corner > 1 && border[corner-1].r > border[corner].r-riseBack*size.Height && border[corner-1].s < 0.7*sectorRays {
			corner--
		}
	}
	most, tilt := 1, tiltOf(angle, quarters(angle), size)
	switch {
	case straddled:
		tilt = tiltOf(2*angle, 1, size)
	case central:
		most, tilt = 2, tiltOf(2*angle, quarters(2*angle), size)
	}
	turn := border[corner].s
	mean, n := 0.0, 0.0
	for j := 0.0; j <= turn; j++ {
		mean += far(border, j)
		n++
	}
	mean /= n
	onMiddle, atEar := rowPair(mean, border[0].r, size.Height, tilt, front)
	rows := max(onMiddle, atEar)
	c := newSector(rows, tilt)
	c.kept = float64(min(onMiddle, atEar))
	// A straight line through the far border's spacings, so that rows lie level with it.
	num, den := 0.0, 0.0
	for j := 0.0; j <= turn; j++ {
		t := j - turn/2
		num += t * (far(border, j) - mean) / (float64(onMiddle) + tilt)
		den += t * t
	}
	slope := tiltShare * num / max(1e-9, den)
	bend, less, fade := bendBack, lessBack, fadeBack
	if front {
		bend, less, fade = bendFront, lessFront, fadeFront
	}
	a, b := mean/(float64(onMiddle)+tilt), border[0].r/(float64(atEar)+tilt)
	for j := range c.near {
		s := float64(j) / sectorRays
		t := math.Pow(s, bend)
		c.near[j] = (a+slope*(float64(j)-turn/2))*(1-t) + b*t
		if onMiddle != atEar {
			c.less[j] = less * size.Height * smooth(s)
			if front {
				c.less[j] = less * size.Height * (1 - smooth(s))
			}
		}
	}
	mix := func(v []float64, s float64) float64 {
		j := min(sectorRays-1, int(s))
		return v[j] + (s-float64(j))*(v[j+1]-v[j])
	}
	// What far must be for line k to lie on the border at s.
	meets := func(s float64, k int) float64 {
		y := float64(k) / c.rows
		near := mix(c.near, s)
		return near + ((far(border, s)+mix(c.less, s)*max(0, float64(k)-c.kept))/(float64(k)+tilt)-near)/(y*y)
	}
	for j := range c.far {
		s := float64(j)
		c.far[j] = meets(min(s, turn), onMiddle)
		if s > turn {
			c.far[j] = c.near[j] + (c.far[j]-mix(c.near, turn))*(1-smooth((s-turn)/(fade*sectorRays)))
		}
	}
	edge := fan.crossings(border)
	var marks []surface.Mark
	mark := func(i, onLine int) {
		x := c.at(border[i].s, border[i].r)
		if onLine > 0 {
			x = float64(onLine)
		}
		marks = append(marks, surface.Mark{S: border[i].s, X: x, At: border[i].at})
	}
	out := charted{rows: rows, kept: float64(rows) - c.kept, fromTop: true, most: most}
	switch {
	case !front && onMiddle > atEar:
		for i := 0; i <= corner; i++ {
			switch {
			case i == 0:
				mark(i, atEar)
			case i == corner:
				mark(i, onMiddle)
			case c.at(border[i].s, border[i].r) < float64(onMiddle):
				mark(i, 0)
			}
		}
		for j := range edge { // there the border ends rows
			if float64(j) > turn {
				edge[j] = r3.Vec{}
			}
		}
		out.chart = c.draw(h, fan, edge, true)
		out.chart.End = outermost(marks, rows, true)
	case front && atEar > onMiddle:
		// The rows at the side start on the temple; the lowest ends at the sideburn.
		low := border[sideburn].s
		for j := range c.far {
			if s := float64(j); s >= low {
				c.far[j] = (far(border, s) + c.less[j]*(float64(atEar)-c.kept)) / (float64(atEar) + tilt)
			}
		}
		if from := int(math.Ceil(low)); from <= sectorRays {
			off := c.far[from] - c.near[from]
			for j := from - 1; j >= 0 && float64(j) > turn; j-- {
				c.far[j] += off * (1 - smooth(float64(from-j)/(fadeSideburn*sectorRays)))
			}
		}
		for i := corner; i >= sideburn; i-- {
			switch {
			case i == corner:
				mark(i, onMiddle)
			case i == sideburn:
				mark(i, atEar)
			case c.at(border[i].s, border[i].r) < float64(atEar):
				mark(i, 0)
			}
		}
		inner := edge
		for j := range edge {
			if float64(j) < low {
				edge[j] = r3.Vec{}
			}
		}
		out.chart = c.draw(h, fan, edge, true)
		// The line in which the forehead lies meets it exactly, too.
		whole := out.chart.Draw
		out.chart.Draw = func(x float64) []r3.Vec {
			line := whole(x)
			if x == out.kept {
				for j := range line {
					if float64(j) <= turn && inner[j] != (r3.Vec{}) {
						line[j] = inner[j]
					}
				}
			}
			return line
		}
		out.chart.Start = outermost(marks, rows, true)
	default:
		for j := range c.far {
			c.far[j] = far(border, float64(j)) / (c.rows + tilt)
		}
		out.kept = 0
		out.chart = c.draw(h, fan, edge, true)
	}
	if onMiddle == atEar {
		out.kept = 0
	}
	return out
}

// besideEar is the front beside a part: rows round the ear, which start on the hairline and
// end on the ear-to-ear part. The outermost lies along the part, that runs from pole crossing
// to the place on the hairline where it starts; hair runs from there round to the ear.
func besideEar(h scalp.Head, crossing r3.Vec, part, hair []r3.Vec, size Size) charted {
	ear := hair[len(hair)-1]
	up := tangent(ear, crossing)
	forward := r3.Cross(ear, up)
	if forward.X < 0 {
		forward = r3.Scale(-1, forward)
	}
	const reach = 135 * math.Pi / 180
	fan := newRays(h, ear, up, forward, reach, 0)
	along := fan.polars(part) // from the crossing forward
	along[0].s = sectorRays
	front := along[len(along)-1].s
	mean, n := 0.0, 0.0
	for j := float64(sectorRays); j >= front; j-- {
		mean += far(along, j)
		n++
	}
	mean /= n
	border := make([]polar, 0, len(hair))
	for i := len(hair) - 1; i >= 0; i-- {
		border = append(border, fan.polar(hair[i]))
	}
	border[0].s, border[0].r = border[1].s, 0
	wide := (1 - border[min(len(border)-1, 10)].s/sectorRays) * reach
	tilt := tiltOf(wide, quarters(wide), size)
	rows := wholeRows(mean, size.Height, tilt)
	c := newSector(rows, tilt)
	near := mean / (c.rows + tilt)
	for j := range c.near {
		c.far[j] = far(along, max(front, float64(j))) / (c.rows + tilt)
		ahead := reach * (1 - float64(j)/sectorRays)
		c.near[j] = (near + besideShare*(c.far[j]-near)) * (1 + besideGrowth*min(1, ahead/(80*math.Pi/180)))
	}
	var marks []surface.Mark
	for i, q := range border {
		x := c.at(q.s, q.r)
		switch {
		case i == 0:
			x = 0
		case i == len(border)-1:
			x = c.rows
		case x >= c.rows:
			continue
		}
		marks = append(marks, surface.Mark{S: q.s, X: x, At: q.at})
	}
	chart := c.draw(h, fan, fan.crossings(along), false)
	chart.Start = outermost(marks, rows, false)
	return charted{chart: chart, rows: rows, most: 1}
}

// levels are rings at equal distance from the hairline: rays from a short oval on the middle
// to it. hair runs from the front centre to the nape centre, middle along the middle between
// the same places.
func levels(h scalp.Head, hair []r3.Vec, middle surface.Curve, size Size) charted {
	long := middle.Length()
	centre := middle.At(0.5)
	y := r3.Vec{Y: 1}
	forward := scalp.Unit(r3.Cross(y, centre))
	if forward.X < 0 {
		forward = r3.Scale(-1, forward)
	}
	line := surface.NewCurve(h, hair)
	var target, base [sectorRays + 1]r3.Vec
	var angle, flat, whole, reach [sectorRays + 1]float64
	var lengths [sectorRays + 1][rayLengths + 1]float64
	w, high := size.Width, size.Height
	// The innermost oval holds four sections; half of it is straight.
	straight := max(0.08*high, min(0.15*long, w-math.Pi*high/4))
	deep := (-4*straight + math.Sqrt(16*straight*straight+16*math.Pi*w*high)) / (2 * math.Pi)
	tilt := max(-0.3, min(0.3, deep/high-1))
	mean := 0.0
	for j := range target {
		target[j] = line.At(float64(j) / sectorRays)
		angle[j] = math.Atan2(r3.Dot(target[j], y), r3.Dot(target[j], forward))
		base[j] = middle.At(0.5 - straight*math.Cos(angle[j])/long)
		reach[j] = math.Acos(max(-1, min(1, r3.Dot(base[j], target[j]))))
		q := h.Surface(tangent(base[j], target[j]))
		p := h.Surface(base[j])
		pp, pq, qq := r3.Norm2(p), r3.Dot(p, q), r3.Norm2(q)
		for i := range rayLengths {
			sin, cos := math.Sincos(reach[j] * (float64(i) + 0.5) / rayLengths)
			lengths[j][i+1] = lengths[j][i] + reach[j]/rayLengths*math.Sqrt(cos*cos*qq-2*sin*cos*pq+sin*sin*pp)
		}
		whole[j] = lengths[j][rayLengths]
		mean += whole[j] / (sectorRays + 1)
	}
	target[0], target[sectorRays] = hair[0], hair[len(hair)-1]
	for j := range flat { // the hairline's distance without its bends
		sum, weight := 0.0, 0.0
		const sigma = levelSmooth * sectorRays
		wide := int(math.Round(2 * sigma))
		for d := -wide; d <= wide; d++ {
			i := j + d
			if i < 0 {
				i = -i
			}
			if i > sectorRays {
				i = 2*sectorRays - i
			}
			g := math.Exp(-float64(d*d) / (2 * sigma * sigma))
			sum, weight = sum+g*whole[i], weight+g
		}
		flat[j] = sum / weight
	}
	rows := wholeRows(mean, high, tilt)
	n := float64(rows)
	chart := &surface.Chart{Head: h, Steps: sectorRays, Draw: func(x float64) []r3.Vec {
		out := make([]r3.Vec, sectorRays+1)
		x = n - x
		y := (x + tilt*min(1, x)) / (n + tilt)
		for j := range out {
			if x == n {
				out[j] = target[j]
				continue
			}
			r := y * (flat[j] + (whole[j]-flat[j])*math.Pow(y, levelBend))
			share := stepAt(&lengths[j], r) / rayLengths
			out[j] = scalp.Unit(r3.Add(r3.Scale(math.Sin((1-share)*reach[j]), base[j]), r3.Scale(math.Sin(share*reach[j]), target[j])))
		}
		return out
	}}
	return charted{chart: chart, rows: rows, fromTop: true, most: 4}
}
