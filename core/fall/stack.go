package fall

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// stack is the hair laid so far: how far its outer face lies outside the bell. The sides are
// kept by azimuth and height; the top, where azimuths run together, by x and y.
type stack struct {
	body *body
	rows int
	topZ float64   // above it the top's grid holds
	side []float32 // rows × sideBins
	top  []float32 // topBins × topBins
	// rise is room to work in.
	rise []float64
}

const (
	sideBins = 180
	sideStep = 12.0   // mm of height
	sideFoot = -420.0 // mm: below it nothing is stacked
	topBins  = 48
	topCell  = 5.0  // mm
	topFrom  = 0.56 // of the head's height
	noHair   = -1e6
	// packed is how thick a layer of pieces is ÷ the pieces.
	packed = 0.62
	// stackedTo is the share of stature down to which pieces are stacked: they touch the body
	// there.
	stackedTo = 0.80
)

func newStack(b *body) *stack {
	topZ := topFrom * b.head.C
	rows := int((topZ+30-sideFoot)/sideStep) + 2
	all := make([]float32, rows*sideBins+topBins*topBins)
	for i := range all {
		all[i] = noHair
	}
	return &stack{body: b, rows: rows, topZ: topZ, side: all[:rows*sideBins], top: all[rows*sideBins:]}
}

// each visits the cells under a piece of a half width at p, whose lift is known.
func (m *stack) each(p r3.Vec, half, lift float64, visit func(*float32)) {
	if p.Z > m.topZ+0.5*lift {
		k := 1 - lift/length(p)
		x, y, h := p.X*k/topCell+topBins/2, p.Y*k/topCell+topBins/2, half/topCell
		for r := max(0, int(x-h)); r <= min(topBins-1, int(x+h)); r++ {
			for c := max(0, int(y-h)); c <= min(topBins-1, int(y+h)); c++ {
				visit(&m.top[r*topBins+c])
			}
		}
		return
	}
	row := max(0, min(m.rows-1, int((p.Z-sideFoot)/sideStep)))
	// Bins of the diamond's edge |x| + |y| = 1, which need no arc tangent.
	x, y := p.X/m.body.head.A, p.Y/m.body.head.B
	ax, ay := math.Abs(x), math.Abs(y)
	sum := max(ax+ay, 1e-9)
	d := y / sum
	if x < 0 {
		d = math.Copysign(2, y) - d
	}
	at := (d + 2) * (sideBins / 4)
	radius := max(math.Hypot(p.X, p.Y), 1e-9)
	h := half / radius * (sideBins / 4) * (ax*ax + ay*ay) / (sum * sum)
	for c := int(math.Floor(at - h)); c <= int(at+h); c++ {
		visit(&m.side[row*sideBins+(c+sideBins)%sideBins])
	}
}

// over is the least lift at which the middle of a piece of thickness t lies over what is at p
// already, and the lift p has.
func (m *stack) over(p r3.Vec, t float64) (need, lift float64) {
	lift = m.body.lift(p)
	most := float32(noHair)
	m.each(p, 0.3*t, lift, func(v *float32) { most = max(most, *v) })
	return float64(most) + packed*t/2, lift
}

// lay puts a piece down to where it touches the body.
func (m *stack) lay(line []r3.Vec, t float64) {
	foot := m.body.height(stackedTo)
	for i, p := range line {
		if p.Z < foot {
			return
		}
		m.put(p, t)
		if p.Z > m.topZ && i > 0 {
			m.put(r3.Scale(0.5, r3.Add(p, line[i-1])), t)
		}
	}
}

func (m *stack) put(p r3.Vec, t float64) {
	lift := m.body.lift(p)
	face := float32(lift + packed*t/2)
	m.each(p, 0.35*t, lift, func(v *float32) { *v = max(*v, face) })
}
