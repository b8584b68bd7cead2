package moves

import (
	"math"
	"slices"

	"kladotex/core/method/figure"
)

// The moves that cover a plait.
const (
	Wind      ID = "wind"
	WindFat   ID = "wind-fat"
	Collar    ID = "collar"
	CollarFat ID = "collar-fat"
	Coil      ID = "coil"
	CoilWide  ID = "coil-wide"
	Banded    ID = "banded"
	BluntOut  ID = "blunt-out"
	Built     ID = "built"
	BuiltSoft ID = "built-teased"
	BuiltStep ID = "built-step"
)

var wraps = map[ID]func() figure.Figure{
	Wind: wind,
	WindFat: func() figure.Figure {
		return fat("Wound too fat", sharedBase(), windStart(), "Wrong: all the hair at once, wound up against the scalp: a fat, tight base.")
	},
	Collar: collar,
	CollarFat: func() figure.Figure {
		return fat("Too much hair", collarBase(), collarStart(), "Wrong: too much wrapping hair. The base comes out fat and heavy, and pulls.")
	},
	Coil:      coil,
	CoilWide:  coilWide,
	Banded:    banded,
	BluntOut:  bluntOut,
	Built:     func() figure.Figure { return built(false) },
	BuiltSoft: func() figure.Figure { return built(true) },
	BuiltStep: builtStep,
}

// winding is hair that is laid along a base and then wound round it: some turns in one place
// where it starts, then each below the last, and at the end a few upward again.
type winding struct {
	name        string
	start       []point // as it is laid before the first turn
	x           float64
	top, bottom float64
	radius      float64
	depth       float64 // of the turns in front of the base and behind it
	width       float64
	spot, turns float64 // turns in the first place, and in all
	up          float64 // turns upward at the end
	joined      float64 // turns after which a next strand goes on; 0 for none
}

// angle of the first turn: it begins in front, on the left.
const windFrom = math.Pi * 0.85

// height of the wind after some turns.
func (w winding) height(turns float64) float64 {
	down := (w.bottom - w.top) / (w.turns - w.spot)
	switch {
	case turns <= w.spot:
		return w.top + 2*turns
	case turns <= w.turns:
		return w.top + 2*w.spot + (turns-w.spot)*down
	}
	return w.bottom - (turns-w.turns)*down*0.8
}

// line is the hair after turns turns; what is not wound yet hangs free from the side
// where the hand is.
func (w winding) line(turns float64) []point {
	out := append([]point{}, w.start...)
	const steps = 10 // points a turn
	round := func(a, more, y, wide float64) point {
		sin, cos := math.Sincos(a)
		return pt(w.x+(w.radius+more)*cos, y, (w.depth+more)*math.Tanh(2.4*sin), wide)
	}
	thick := func(t float64) float64 { // laid turns upward lie on those below
		return 5 * math.Min(1, math.Max(0, t-w.turns))
	}
	n := int(math.Ceil(turns * steps))
	for k := 0; k <= n; k++ {
		t := math.Min(turns, float64(k)/steps)
		out = append(out, round(windFrom+2*math.Pi*t, thick(t), w.height(t), w.width))
	}
	end, y := windFrom+2*math.Pi*turns, w.height(turns)
	if w.joined > 0 && turns >= w.joined { // laid along the base, under what the next strand winds
		sin, cos := math.Sincos(end)
		down := func(by float64) point {
			return pt(w.x+0.5*w.radius*cos, y+by, 0.8*w.depth*math.Tanh(2.4*sin+1), w.width*0.7)
		}
		return append(out, down(16), down(34), down(56))
	}
	if left := w.turns + w.up - turns; left > 0.01 {
		for _, p := range [][3]float64{{0.2, 10, 3}, {0.3, 44, 22}, {0.36, 70, 62}, {0.4, 78, 120}, {0.42, 80, 200}} {
			out = append(out, round(end+p[0], p[1], y+p[2]*(0.5+0.5*left/w.turns), w.width*0.72))
		}
		return out
	}
	// the end is tucked under the last turns
	return append(out, round(end+0.5, -4, y+4, w.width*0.7), round(end+1.1, -14, y+12, 7))
}

// strand is the hair on the way from one number of turns to another; on the way it is wound on from some turns before.
func (w winding) strand(from, to, bright float64) []strand {
	s := free(w.name, figure.Wrapping, figure.Cover, bright, figure.Tip, w.line(to))
	if to > from {
		s[0].Way = func(u float64) []point { return w.line(from + (to-from)*u) }
	}
	return s
}

// A shared hitch drawn close: the loop is a ring in which the plait hangs, over its back rim and under its
// front one. The body of the piece goes from its neck up beside the ring, over the back rim, down through it
// and out under the front rim, along the plait.
var (
	sharedRing = line(222, 118, 12, 11, 206, 116, 22, 12, 180, 110, 28, 12, 156, 101, 10, 12, 156, 90, -8, 12, 180, 84, -24, 12, 208, 86, -16, 12, 226, 102, 2, 12, 224, 117, 10, 11)
	sharedNeck = line(222, 115, 14, 13, 238, 104, 12, 15, 240, 84, 8, 16, 225, 70, 4, 17, 207, 76, 4, 17, 200, 96, 4, 17, 199, 122, 4, 18)
)

// sharedBase is a plait and a piece that hang from a shared hitch.
func sharedBase() []strand {
	return with(
		own("plait", figure.Plaited, 0, figure.Tip, line(180, 48, 0, 22, 180, 90, 0, 24, 176, 140, -4, 22, 172, 200, -4, 20, 174, 270, -4, 16, 176, 310, -4, 10)),
		looped(figure.Locked, 0, sharedRing, slices.Concat(sharedNeck, line(198, 150, 2, 24, 196, 200, 2, 26, 194, 340, 0, 28, 194, 450, 0, 28))))
}

func windStart() []point {
	return line(182, 222, 32, 9, 184, 190, 32, 13, 180, 150, 32, 14, 168, 128, 32, 14)
}

// sharedWinding is the winding of a shared loop.
func sharedWinding() winding {
	return winding{name: "wrap", start: windStart(), x: 189, top: 132, bottom: 330, radius: 30, depth: 44, width: 20, spot: 2, turns: 12, up: 2}
}

// wind: a tail of wrapping hair is laid along plait and piece, its long side wound over all.
func wind() figure.Figure {
	w := sharedWinding()
	over := holds("plait through loop 1", "piece through loop 1", "wrap over piece", "wrap under piece", "wrap over plait", "wrap under plait")
	return figure.Figure{Title: "Wind", Frames: []frame{{
		Says:    "Two to three inches of the wrapping hair are laid down along plait and piece; the long side stays in the hand.",
		Strands: with(sharedBase(), w.strand(0, 0.55, 1)),
		Dots:    []xy{at(182, 176)},
		Arrows:  arrows(way(86, 236, 92, 268, 128, 276)),
		States:  holds("plait through loop 1", "piece through loop 1", "wrap under piece", "wrap under plait"),
	}, {
		Says:    "Twice round in one place, over its own tail.",
		Strands: with(sharedBase(), w.strand(0.55, 2.55, 1)),
		Arrows:  arrows(way(76, 250, 84, 290, 128, 302)),
		States:  over,
	}, {
		Says:    "Then turn below turn, slack enough that the scalp does not move.",
		Strands: with(sharedBase(), w.strand(2.55, 7.55, 1)),
		Arrows:  arrows(way(306, 200, 308, 250, 306, 304)),
		States:  over,
	}, {
		Says:    "On until half an inch past the end of the plait.",
		Strands: with(sharedBase(), w.strand(7.55, 12.05, 1)),
		States:  over,
	}, {
		Says:    "The last turns go upward again and the end is tucked under them; rolled between the palms.",
		Strands: with(sharedBase(), w.strand(12.05, 14, 0.6)),
		Dots:    []xy{at(140, 316), at(240, 316)},
		States:  over,
	}}}
}

// fat is the usual mistake of a wrap.
func fat(title string, base []strand, start []point, says string) figure.Figure {
	w := winding{name: "wrap", start: start, x: 189, top: 84, bottom: 260, radius: 62, depth: 60, width: 30, spot: 2, turns: 9, up: 1}
	return figure.Figure{Title: title, Frames: []frame{{
		Says: says, Strands: with(base, w.strand(0, 10, 0.5)), Wrong: &xy{X: 189, Y: 150},
		States: holds("wrap over piece"),
	}}}
}

func collarStart() []point {
	return line(186, 240, 34, 9, 186, 210, 34, 13, 176, 160, 34, 13, 158, 110, 26, 13, 150, 84, 0, 13, 182, 66, -44, 13, 214, 72, -44, 13, 236, 96, -10, 13, 226, 118, 34, 14, 200, 130, 44, 15)
}

// collarRing is the loop of a piece slid over a plait, so far up.
func collarRing(up float64) []point {
	pts := line(222, 318, 2, 11, 206, 312, 18, 12, 180, 306, 26, 12, 154, 298, 6, 12, 154, 284, -6, 12, 180, 282, -26, 12, 208, 296, -14, 12, 224, 316, 2, 11)
	for i := range pts {
		pts[i].Y -= up
	}
	return pts
}

// atRoot is how far up the root lies from where the loop is slid on.
const atRoot = 180.0

// collarKnot is a plait knotted round its own root: its end goes behind the root, comes over it in front and
// down through the fold it made, out behind the fold.
var collarKnot = line(180, 48, 0, 20, 180, 80, 0, 23, 180, 120, 0, 24, 180, 148, 0, 24, 166, 168, 3, 22, 138, 170, 4, 21, 114, 148, 4, 20, 112, 110, 2, 20, 128, 80, -14, 19, 156, 66, -30, 18, 188, 62, -32, 18,
	212, 70, -6, 17, 208, 88, 24, 16, 182, 90, 36, 16, 154, 92, 28, 15, 137, 108, 14, 15,
	133, 136, -4, 14, 140, 168, -24, 13, 160, 192, -18, 13, 180, 222, -8, 12, 184, 280, -6, 10, 184, 314, -6, 8)

// knotted is that knot as far as one of its points, and on to where the end is then.
func knotted(bright float64, points int, end ...float64) []strand {
	return own("plait", figure.Plaited, bright, figure.Tip, figure.Along(append(slices.Clone(collarKnot[:points]), line(end...)...), 46))
}

// tucked is the knot whose end goes down through the fold; on its way it slides along its own line.
func tucked() []strand {
	s := knotted(0, len(collarKnot))
	const n = 600
	all := figure.Along(collarKnot, n)
	over := collarKnot[15] // the end lies over the root, before the fold
	from := n - 1
	for math.Hypot(all[from].X-over.X, all[from].Y-over.Y) > 2 {
		from--
	}
	s[0].Way = func(u float64) []point { return figure.Along(all[:from+int(u*float64(n-from))], len(s[0].Line)) }
	return s
}

// collarBase is a plait knotted round its own root, with the piece on it.
func collarBase() []strand {
	return with(knotted(0, len(collarKnot)),
		looped(figure.Locked, 0, collarRing(atRoot), line(223, 134, 6, 14, 226, 154, 4, 20, 214, 200, 0, 25, 202, 260, 0, 27, 198, 340, 0, 28, 198, 450, 0, 28)))
}

// collar: the piece slid over the plait to the root, the plait's end drawn back through
// under its own root, wrapping hair hooked through the root and wound over all.
func collar() figure.Figure {
	const n = 20
	plaited := func(bright float64, pts ...float64) []strand {
		return own("plait", figure.Plaited, bright, figure.Tip, along(n, pts...))
	}
	hk := func(x, y, open float64) []strand {
		return hook{at: at(x, y), toward: at(-1, 0), long: 150, z: -26, side: 1, open: open, lift: 14, bright: 1}.strands()
	}
	body := line(223, 134, 6, 14, 234, 154, 4, 22, 244, 200, 0, 27, 248, 300, 0, 27, 250, 460, 0, 27)
	w := winding{name: "wrap", start: collarStart(), x: 194, top: 128, bottom: 332, radius: 29, depth: 48, width: 19, spot: 1, turns: 11, up: 2}
	wound := holds("wrap over piece", "wrap under piece", "wrap over plait", "wrap under plait")
	half := collarBase()
	return figure.Figure{Title: "Collar and wrap", Frames: []frame{{
		Says: "The loop of the piece is slid over the end of the plait, like a collar.",
		Strands: with(plaited(0, 180, 48, 0, 22, 180, 100, 0, 26, 180, 200, 0, 26, 180, 300, 0, 25, 180, 404, 0, 20),
			looped(figure.Locked, 1, collarRing(0), line(223, 314, 6, 14, 234, 334, 4, 22, 244, 370, 0, 27, 248, 400, 0, 27, 250, 460, 0, 27))),
		Arrows: arrows(way(116, 300, 116, 220, 116, 140)),
		States: holds("loop over plait 1", "loop under plait 1", "plait through loop 1"),
	}, {
		Says: "Up to the root; the hook goes under the root, and the plait's end is brought to it.",
		Strands: with(plaited(1, 180, 48, 0, 22, 180, 100, 0, 26, 179, 170, 0, 26, 164, 222, 4, 26, 128, 236, 6, 25, 92, 200, 4, 25, 84, 150, 0, 24, 96, 116, -4, 22, 110, 100, -8, 19),
			looped(figure.Locked, 0, collarRing(atRoot), body), hk(96, 80, 1)),
		Arrows: arrows(way(66, 250, 50, 210, 52, 140)),
		States: holds("loop over plait 1", "loop under plait 1", "hook under plait 1"),
	}, {
		Says: "The end is laid in, the latch shut.",
		Strands: with(plaited(1, 180, 48, 0, 22, 180, 100, 0, 26, 179, 164, 0, 26, 166, 208, 4, 26, 134, 222, 6, 25, 102, 190, 4, 25, 98, 140, 0, 24, 112, 108, -10, 21, 126, 82, -19, 17, 126, 62, -19, 13, 110, 44, -16, 10),
			looped(figure.Locked, 0, collarRing(atRoot), body), hk(96, 80, 0)),
		Arrows: arrows(way(262, 116, 290, 116, 336, 116)),
		States: holds("hook under plait", "plait over hook", "plait under latch 1"),
	}, {
		Says: "Drawn back through, under its own root.",
		Strands: with(knotted(1, 11, 226, 66, -20, 16, 262, 92, -10, 14),
			looped(figure.Locked, 0, collarRing(atRoot), body), hk(262, 78, 0)),
		Arrows: arrows(way(292, 116, 310, 116, 346, 116)),
		States: holds("plait over plait 1", "plait through loop 1"),
	}, {
		Via:     true,
		Strands: with(knotted(1, 16), looped(figure.Locked, 0, collarRing(atRoot), body)),
	}, {
		Says:    "The end comes over its own root and is tucked down through the fold it made; pulled until the fold closes.",
		Strands: with(tucked(), half[1:]),
		Dots:    []xy{at(106, 152)},
		States:  holds("plait over plait 3", "plait through loop 1"),
	}, {
		Says:    "Thin wrapping hair, hooked half under the root: one half lies along the base, the other is wound.",
		Strands: with(half, w.strand(0, 0.55, 1)),
		Arrows:  arrows(way(88, 266, 96, 300, 134, 306)),
		States:  holds("wrap under plait", "wrap over plait"),
	}, {
		Says:    "Turn below turn over plait, tail and piece, slack enough that the scalp does not move.",
		Strands: with(half, w.strand(0.55, 5.55, 1)),
		Arrows:  arrows(way(300, 200, 302, 250, 300, 300)),
		States:  wound,
	}, {
		Says:    "On past the end of the plait; the last turns upward, the end tucked, rolled between the palms.",
		Strands: with(half, w.strand(5.55, 13, 0.6)),
		Dots:    []xy{at(144, 320), at(246, 320)},
		States:  wound,
	}}}
}

// coilTurns are the turns of a coil loc.
const coilTurns = 26.0

// coilLine is a coil: some turns lie round the plait at x = 180, closed; the next
// few are opened, and the rest hangs at its side.
func coilLine(on, opened, beside float64) []point {
	const steps = 9
	var out []point
	y := 136.0
	from := beside + (182-beside)*math.Min(1, on) // where the opened part begins
	for k := 0; k <= int(coilTurns*steps); k++ {
		t := float64(k) / steps
		x, radius, pitch := 182.0, 20.0, 11.0
		switch {
		case t < on:
			if t < 2 {
				pitch = 3 // twice round where it begins
			}
		case t < on+opened:
			u := (t - on) / opened
			x = from + (beside-from)*(u*u*(3-2*u))
			pitch, radius = 11+20*math.Sin(math.Pi*u), 20+5*math.Sin(math.Pi*u)
		default:
			x, radius = beside, 17
		}
		sin, cos := math.Sincos(math.Pi*0.8 + 2*math.Pi*t)
		out = append(out, pt(x+radius*cos, y, 20*math.Tanh(2*sin)+2, 12))
		y += pitch / steps
	}
	return out
}

func coilStrand(from, to, opened, beside, bright float64) []strand {
	s := hair("coil", figure.Twisted, figure.Piece, bright, figure.Round, slices.Concat(sharedNeck, coilLine(to, opened, beside)))
	if to != from {
		s[0].Way = func(u float64) []point {
			return slices.Concat(sharedNeck, coilLine(from+(to-from)*u, opened, beside))
		}
	}
	return s
}

// coilBase is the plait in its loop.
func coilBase() []strand {
	return with(
		own("plait", figure.Plaited, 0, figure.Tip, line(180, 48, 0, 20, 180, 90, 0, 24, 181, 160, 0, 20, 182, 240, 0, 17, 182, 310, 0, 9)),
		free("loop", figure.Twisted, figure.Piece, 0, figure.Round, sharedRing))
}

// coil: the hollow coil is opened a little at a time and let close round the plait.
func coil() figure.Figure {
	round := holds("plait through loop 1", "coil through loop 1", "coil over plait", "coil under plait")
	return figure.Figure{Title: "Open coil", Frames: []frame{{
		Says:    "The coil hangs beside the plait, hitched at the root.",
		Strands: with(coilBase(), coilStrand(0, 0, 2.5, 256, 0)),
		Arrows:  arrows(way(306, 150, 316, 176, 304, 200)),
		States:  holds("plait through loop 1", "coil through loop 1"),
	}, {
		Says:    "Opened a little, the plait laid in: twice round where it begins.",
		Strands: with(coilBase(), coilStrand(0, 3, 3, 256, 1)),
		Arrows:  arrows(way(310, 190, 312, 230, 308, 270)),
		States:  round,
	}, {
		Says:    "It closes round the plait; a finger's breadth at a time, turn below turn.",
		Strands: with(coilBase(), coilStrand(3, 11, 3, 256, 1)),
		Arrows:  arrows(way(310, 250, 312, 290, 308, 330)),
		States:  round,
	}, {
		Says:    "On past the end of own hair.",
		Strands: with(coilBase(), coilStrand(11, 20, 3, 220, 1)),
		States:  round,
	}, {
		Says:    "Rolled between the palms until it lies smooth.",
		Strands: with(coilBase(), coilStrand(20, 26, 3, 200, 0.3)),
		Dots:    []xy{at(140, 250), at(226, 250)},
		States:  round,
	}}}
}

// coilWide is the usual mistake: opened all at once.
func coilWide() figure.Figure {
	var pts []point
	for k := range 100 {
		t := float64(k) / 9
		sin, cos := math.Sincos(math.Pi*0.8 + 2*math.Pi*t)
		pts = append(pts, pt(188+(30+14*math.Sin(t))*cos, 138+26*t, 34*math.Tanh(2*sin), 12))
	}
	return figure.Figure{Title: "Opened all at once", Frames: []frame{{
		Says:    "Wrong: opened all at once, the coil has lost its spring and stands off the plait.",
		Strands: with(coilBase(), hair("coil", figure.Twisted, figure.Piece, 0.4, figure.Round, slices.Concat(sharedNeck, pts))),
		Wrong:   &xy{X: 190, Y: 230},
		States:  holds("coil over plait", "coil under plait"),
	}}}
}

// loc is a handmade loc with an eye at its root end.
func loc() []strand {
	return with(
		hair("piece", figure.Locked, figure.Piece, 0, figure.Open, line(206, 126, 0, 20, 206, 150, 0, 26, 206, 250, 0, 28, 206, 450, 0, 28)),
		free("loop", figure.Locked, figure.Piece, 0, figure.Round, line(210, 134, 2, 11, 220, 114, -2, 11, 216, 94, -10, 11, 200, 88, -14, 11, 186, 98, -6, 11, 186, 114, 12, 11, 202, 132, 4, 11)))
}

// bandRing is a thin band round what hangs at a place.
func bandRing(x, y, radius float64) []strand {
	var pts []point
	for k := range 13 {
		sin, cos := math.Sincos(2*math.Pi*float64(k)/12 + math.Pi)
		pts = append(pts, pt(x+radius*cos, y+3*sin, 30*sin, 7))
	}
	return free("band", figure.Elastic, figure.Rubber, 0, figure.Round, pts)
}

// downAndUp winds a plait round the loc, down turns down and up of them up again.
func downAndUp(down, up float64) []point {
	out := line(180, 48, 0, 22, 179, 74, 4, 22, 184, 92, 14, 20, 200, 104, 2, 19, 216, 124, -18, 18)
	const steps = 10
	for k := 1; k <= int((down+up)*steps); k++ {
		t := float64(k) / steps
		sin, cos := math.Sincos(2*math.Pi*t - 0.9)
		y, r := 132+42*t, 22.0
		if t > down {
			y, r = 132+42*(2*down-t), 27
		}
		out = append(out, pt(206+r*cos, y, (r+6)*math.Tanh(1.6*sin), 18-6*t/5))
	}
	return out
}

// banded: the plait through the loc's eye, wound down and back up, the band over its end,
// a thin cover over all.
func banded() figure.Figure {
	wound := func(fromDown, fromUp, down, up, bright float64) []strand {
		s := own("plait", figure.Plaited, bright, figure.Tip, downAndUp(down, up))
		s[0].Way = func(u float64) []point { return downAndUp(fromDown+(down-fromDown)*u, fromUp+(up-fromUp)*u) }
		return s
	}
	cover := winding{
		name: "wrap", start: line(196, 268, 42, 15, 192, 220, 42, 14, 176, 150, 42, 13, 156, 110, 26, 13, 152, 84, 0, 13, 182, 66, -44, 13, 220, 72, -44, 13, 246, 98, -10, 13, 240, 124, 34, 14),
		x: 206, top: 132, bottom: 318, radius: 37, depth: 58, width: 19, spot: 1, turns: 10,
	}
	hung := downAndUp(2.6, 0)
	return figure.Figure{Title: "Plait round loc, banded", Frames: []frame{{
		Says: "A thin band waits on the loc; the plait is drawn through the loc's eye.",
		Strands: with(loc(), bandRing(206, 360, 17), own("plait", figure.Plaited, 1, figure.Tip,
			append(append([]point{}, hung[:5]...), line(250, 160, -6, 18, 262, 220, 0, 18, 266, 390, 0, 12)...))),
		Arrows: arrows(way(296, 180, 300, 240, 298, 300)),
		States: holds("plait through loop 1", "band over piece"),
	}, {
		Says:    "It is wound round the loc, downward.",
		Strands: with(loc(), bandRing(206, 360, 17), wound(0.3, 0, 2.6, 0, 1)),
		Arrows:  arrows(way(272, 170, 274, 210, 270, 250)),
		States:  holds("plait over piece", "plait under piece"),
	}, {
		Says:    "And back up again.",
		Strands: with(loc(), bandRing(206, 360, 17), wound(2.6, 0, 2.6, 1.4, 1)),
		Arrows:  arrows(way(272, 250, 274, 210, 270, 170)),
		States:  holds("plait over piece", "plait over plait"),
	}, {
		Says:    "The band is pushed up over its end.",
		Strands: with(loc(), bright("band", 1, bandRing(206, 202, 31)), wound(2.6, 1.4, 2.6, 1.4, 0)),
		Arrows:  arrows(way(150, 320, 146, 270, 150, 222)),
		States:  holds("band over piece", "band over plait", "plait through loop 1"),
	}, {
		Says:    "A thin cover is hooked half under the root, its blunt end inside, against the plait.",
		Strands: with(loc(), bandRing(206, 202, 31), wound(2.6, 1.4, 2.6, 1.4, 0), cover.strand(0, 0.55, 1)),
		Arrows:  arrows(way(94, 270, 102, 304, 140, 314)),
		States:  holds("wrap under plait", "wrap over plait"),
	}, {
		Says:    "Wound over plait and band; the thinned ends are wound in.",
		Strands: with(loc(), bandRing(206, 202, 31), wound(2.6, 1.4, 2.6, 1.4, 0), cover.strand(0.55, 10, 0.6)),
		States:  holds("wrap over band", "wrap over piece", "wrap under piece"),
	}}}
}

// bright is a group with one of its strands lit.
func bright(name string, how float64, s []strand) []strand {
	for i := range s {
		if s[i].Name == name {
			s[i].Bright = how
		}
	}
	return s
}

// bluntOut is the usual mistake: the blunt end of the cover lies outside.
func bluntOut() figure.Figure {
	w := winding{name: "wrap", start: line(268, 176, 48, 20, 258, 164, 48, 20, 238, 150, 48, 19), x: 206, top: 132, bottom: 318, radius: 37, depth: 58, width: 19, spot: 1, turns: 10}
	s := w.strand(0, 10, 0.5)
	s[0].Ends[0] = figure.Open
	ends := free("ends", figure.Wrapping, figure.Cover, 0.5, figure.Tip, line(248, 158, 50, 10, 270, 170, 52, 9, 292, 168, 52, 5))
	more := free("more", figure.Wrapping, figure.Cover, 0.5, figure.Tip, line(250, 162, 50, 10, 268, 184, 53, 9, 284, 200, 53, 5))
	return figure.Figure{Title: "The blunt end outside", Frames: []frame{{
		Says:    "Wrong: the blunt end of the cover lies outside, and frays.",
		Strands: with(loc(), own("plait", figure.Plaited, 0, figure.Tip, downAndUp(2.6, 1.4)), s, ends, more),
		Wrong:   &xy{X: 262, Y: 176},
		States:  holds("wrap over plait"),
	}}}
}

// underRoot is hair drawn half under the root of the plait, its two legs hanging beside it.
func underRoot(bright float64, tips figure.End, ends float64) []strand {
	return free("base", figure.Combed, figure.Other, bright, tips, figure.Along(line(160, ends, 8, 12, 160, 300, 8, 14, 160, 200, 8, 14, 158, 130, 8, 14, 164, 100, 0, 14, 180, 90, -28, 14, 196, 100, 0, 14, 202, 130, 8, 14, 200, 200, 8, 14, 200, 300, 8, 14, 200, ends, 8, 12), 60))
}

func shortPlait() []strand {
	return own("plait", figure.Plaited, 0, figure.Tip, line(180, 50, 0, 22, 180, 80, 0, 26, 180, 160, 0, 22, 180, 240, 0, 18, 180, 290, 0, 9))
}

// built: base hair under the root, wrapping hair wound over base and plait, down past the
// tip; for a grown-in look the thumb teases some loops out.
func built(teased bool) figure.Figure {
	w := winding{
		name: "wrap", start: line(176, 250, 40, 10, 176, 200, 40, 14, 166, 130, 40, 14, 146, 92, 20, 14, 146, 72, 0, 14, 180, 66, -44, 14, 216, 76, -44, 14, 232, 100, -10, 14, 222, 122, 40, 15),
		x: 180, top: 130, bottom: 400, radius: 34, depth: 48, width: 22, spot: 1, turns: 13, up: 2,
	}
	wound := holds("wrap over base", "wrap under base", "wrap over plait", "wrap under plait")
	tease := func(name string, x, y, side float64) []strand {
		return free(name, figure.Wrapping, figure.Cover, 0.8, figure.Tip, line(x, y-8, 44, 6, x+side*16, y-14, 46, 8, x+side*24, y-2, 48, 8, x+side*12, y+10, 46, 8, x-side*4, y+6, 44, 6))
	}
	tufts := with(tease("tuft", 212, 168, 1), tease("second-tuft", 150, 208, -1), tease("third-tuft", 210, 236, 1))
	frames := []frame{{
		Says:    "Base hair is drawn half under the root, along the row; its legs stay loose over the plait.",
		Strands: with(shortPlait(), underRoot(1, figure.Tip, 430)),
		Arrows:  arrows(way(124, 300, 120, 346, 122, 392), way(238, 300, 242, 346, 240, 392)),
		States:  holds("base under plait 1"),
	}, {
		Says:    "Wrapping hair half under the same root, across the row: one half lies along the base.",
		Strands: with(shortPlait(), underRoot(0, figure.Tip, 430), w.strand(0, 0.55, 1)),
		Arrows:  arrows(way(70, 260, 78, 296, 116, 304)),
		States:  holds("wrap under plait", "wrap over base"),
	}, {
		Says:    "Wound round base hair and plait together, turn below turn.",
		Strands: with(shortPlait(), underRoot(0, figure.Tip, 430), w.strand(0.55, 6.55, 1)),
		Arrows:  arrows(way(296, 200, 298, 250, 296, 300)),
		States:  wound,
	}}
	// A second strand goes on where the first is at its end: its own end lies under the last three turns.
	const joint = 6.55
	first := w
	first.joined = joint
	next := winding{
		name: "next", start: line(172, w.height(joint-3)-6, 42, 9, 172, w.height(joint-1.5), 42, 13, 170, w.height(joint)-2, 42, 14),
		x: 180, top: w.height(joint) + 3, bottom: 400, radius: 34, depth: 48, width: 22, turns: 6.5, up: 2,
	}
	frames = append(frames, frame{
		Says:    "Near its end a second strand is laid along the base. Three turns go over it, then it goes on.",
		Strands: with(shortPlait(), underRoot(0, figure.Tip, 430), first.strand(joint, joint, 0), next.strand(0, 0.55, 1)),
		Dots:    []xy{at(172, w.height(joint-1.5))},
		Arrows:  arrows(way(70, 330, 78, 366, 116, 374)),
		States:  append(holds("next under wrap", "next over base"), wound...),
	})
	last := frame{
		Says:    "Past the plait to the length wished; at the tip upward again to seal it, rolled between the palms.",
		Strands: with(shortPlait(), underRoot(0, figure.Tip, 430), first.strand(joint, joint, 0), next.strand(0.55, 8.5, 0.5)),
		States:  append(holds("next under wrap", "next over base"), wound...),
	}
	if teased {
		frames = append(frames, frame{
			Says:    "Here and there the thumb teases a loop out.",
			Strands: with(shortPlait(), underRoot(0, figure.Tip, 430), first.strand(joint, joint, 0.2), next.strand(0.55, 0.55, 0), tufts),
			Dots:    []xy{at(244, 166)},
			States:  wound,
		})
		last.Strands = append(last.Strands, tufts...)
	}
	return figure.Figure{Title: "Built on the head", Frames: append(frames, last)}
}

// builtStep is the usual mistake: base hair cut blunt ends in a step.
func builtStep() figure.Figure {
	w := winding{name: "wrap", start: line(176, 220, 40, 12, 166, 130, 40, 14, 200, 116, 40, 14), x: 180, top: 130, bottom: 300, radius: 34, depth: 48, width: 22, spot: 1, turns: 8}
	thin := winding{name: "tail", start: line(176, 318, 20, 12, 170, 312, 20, 12), x: 180, top: 316, bottom: 404, radius: 12, depth: 16, width: 15, spot: 0, turns: 6}
	return figure.Figure{Title: "Ends in a step", Frames: []frame{{
		Says:    "Wrong: base hair of one length ends in a step, and the loc breaks off there.",
		Strands: with(shortPlait(), underRoot(0, figure.Open, 316), w.strand(0, 8, 0.4), thin.strand(0, 6, 0.4)),
		Wrong:   &xy{X: 180, Y: 312},
		States:  holds("wrap over base"),
	}}}
}
