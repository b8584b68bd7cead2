package moves

import (
	"math"

	"kladotex/core/method/figure"
)

// The moves that hide a plait inside a piece.
const (
	Weave      ID = "weave"
	WeaveAside ID = "weave-aside"
	Lace       ID = "lace"
	LaceGap    ID = "lace-gap"
)

var weaves = map[ID]func() figure.Figure{
	Weave:      weave,
	WeaveAside: weaveAside,
	Lace:       lace,
	LaceGap:    laceGap,
}

// The piece that is cut open: its top and its line.
const (
	tubeTop = 118.0
	tubeEnd = 450.0
)

// outside is a depth in front of the skin of a cut-open piece, within one in its hollow.
const (
	outside = 72.0
	within  = 4.0
)

// mouthAt is a mouth at a height, on the left (-1) or the right (1) of the piece.
func mouthAt(y, side float64) figure.Mouth {
	return figure.Mouth{At: (y - tubeTop) / tubeLength, Across: 0.8 * side, Half: 13}
}

var tubeLine = line(200, tubeTop, 0, 20, 203, 134, 0, 52, 206, 162, 0, 86, 207, 260, 0, 92, 207, 340, 0, 92, 207, tubeEnd, 0, 90)

const tubeLength = 332.1

// cutOpen is a piece that hangs by its hitch, with a window in it.
func cutOpen(of figure.Material, open float64, mouths ...figure.Mouth) []strand {
	body := hair("piece", of, figure.Piece, 0, figure.Open, tubeLine)
	body[0].Ends[0] = figure.Round
	body[0].Tube = &figure.Tube{From: 0.13, To: 0.86, Open: open, Mouths: mouths}
	return with(body, free("loop", figure.Twisted, figure.Piece, 0, figure.Round,
		line(200, 126, 2, 11, 208, 104, -4, 11, 200, 84, -14, 11, 180, 77, -22, 11, 160, 84, 0, 11, 162, 99, 18, 11, 180, 106, 24, 11, 200, 126, 2, 11)))
}

// inHollow lays the points of a strand that are in a part of the stage into the hollow,
// all others in front of the skin.
func inHollow(s []strand, n int, in func(p point) bool) []strand {
	return layered(s, n, in, within, outside)
}

// weave: the hook goes up inside the piece, takes the plait and draws it down; so on until
// its end is inside.
func weave() figure.Figure {
	mouths := []figure.Mouth{mouthAt(192, -1), mouthAt(300, 1)}
	piece := func(open float64) []strand { return cutOpen(figure.Twisted, open, mouths...) }
	between := func(p point) bool { return p.X > 168 && p.X < 246 && p.Y > 191 && p.Y < 302 }
	hk := func(x, y, open float64) []strand {
		return inHollow(hook{at: at(x, y), toward: at(-0.556, -0.831), long: 232, side: 1, open: open, lift: 8, bright: 1}.strands(), 44, between)
	}
	hang := func(bright float64, pts ...float64) []strand {
		return own("plait", figure.Plaited, bright, figure.Tip, along(34, pts...))
	}
	o, in := outside, within
	return figure.Figure{Title: "Weave inside", Frames: []frame{{
		Says: "The piece, cut open to show its inside. The open hook goes in below and up through the middle to where the plait hangs out.",
		Strands: with(hang(0, 180, 48, 0, 18, 178, 84, 0, 19, 158, 116, 4, 20, 132, 150, 4, 20, 112, 200, 0, 20, 104, 270, 0, 20, 100, 404, 0, 16), piece(1),
			hk(268, 342, 1)),
		Arrows: arrows(way(250, 306, 220, 260, 182, 204)),
	}, {
		Says: "Its point comes out beside the plait, a pitch above where it went in.",
		Strands: with(hang(0.6, 180, 48, 0, 18, 178, 84, 0, 19, 156, 112, 4, 20, 118, 140, 4, 20, 92, 196, 0, 20, 88, 266, 0, 20, 86, 398, 0, 16), piece(1),
			hk(150, 160, 1)),
		Arrows: arrows(way(64, 230, 66, 190, 84, 158)),
		States: holds("hook inside piece 1"),
	}, {
		Says: "The plait is laid in and the latch shut.",
		Strands: with(hang(1, 180, 48, 0, 18, 180, 80, 0, 19, 186, 112, 44, 20, 188, 148, o+5, 20, 177, 174, o+5, 20, 158, 184, o+5, 20, 132, 206, 30, 20, 106, 260, 0, 20, 98, 398, 0, 16), piece(1),
			hk(150, 160, 0)),
		Arrows: arrows(way(280, 330, 296, 354, 316, 384)),
		States: holds("hook inside piece 1", "plait over hook 1", "plait under latch 1"),
	}, {
		Via: true,
		Strands: with(hang(1, 180, 48, 0, 18, 177, 84, 0, 19, 152, 120, o, 19, 148, 160, o, 18, 166, 188, 20, 18, 186, 206, in, 17, 204, 242, in+4, 15, 196, 258, in+5, 15, 182, 240, in+2, 16, 166, 198, 14, 16, 140, 200, o, 18, 114, 232, o, 19, 102, 290, 0, 19, 96, 380, 0, 16), piece(1),
			hk(190, 222, 0)),
		States: holds("hook inside piece 1"),
	}, {
		Says: "Drawn down: the plait lies inside, between the two places.",
		Strands: with(hang(1, 180, 48, 0, 18, 177, 84, 0, 20, 152, 120, o, 20, 148, 160, o, 20, 172, 190, 22, 20, 192, 214, in, 20, 208, 242, in, 20, 226, 276, in, 20, 247, 300, 22, 20, 276, 318, o, 20, 290, 350, o, 18, 292, 410, o, 14), piece(1),
			hk(330, 440, 0)),
		States: holds("plait inside piece 1"),
	}, {
		Says: "And so on, a pitch lower each time, until the tip is inside.",
		Strands: with(hang(0.8, 180, 48, 0, 18, 178, 84, 0, 19, 152, 120, o, 19, 148, 160, o, 19, 172, 190, 22, 18, 206, 222, in, 18, 240, 258, in+14, 17, 208, 290, in, 17, 175, 322, in+14, 15, 206, 350, in, 14, 228, 378, in, 12, 214, 396, in, 9),
			cutOpen(figure.Twisted, 1, mouthAt(192, -1), mouthAt(258, 1), mouthAt(322, -1), mouthAt(386, 1))),
		States: holds("plait inside piece 1"),
	}, {
		Says: "Rolled between the fingers: nothing of the own hair shows.",
		Strands: with(own("plait", figure.Plaited, 0, figure.Tip, along(34, 180, 48, 0, 18, 180, 84, 0, 19, 184, 112, 0, 18, 196, 150, in, 18, 207, 214, in, 18, 207, 300, in, 15, 207, 380, in, 10)),
			cutOpen(figure.Twisted, 0)),
		Dots:   []xy{at(158, 292), at(256, 292)},
		States: holds("plait inside piece 1"),
	}}}
}

// weaveAside is the usual mistake: the hook went in at the side, and the plait lies between
// the strands of the piece, in sight.
func weaveAside() figure.Figure {
	return figure.Figure{Title: "Woven at the side", Frames: []frame{{
		Says: "Wrong: the hook went in at the side, and the plait shows between the strands.",
		Strands: with(own("plait", figure.Plaited, 0.8, figure.Tip, along(40, 180, 48, 0, 18, 178, 84, 0, 19, 152, 120, outside, 19, 162, 166, outside, 19, 176, 196, 40, 18, 182, 226, outside, 18, 178, 262, outside, 18, 186, 288, 40, 17, 184, 316, outside, 16, 178, 350, outside, 15, 186, 380, 40, 12)),
			cutOpen(figure.Twisted, 0)),
		Wrong:  &xy{X: 190, Y: 280},
		States: holds("plait inside piece 0"),
	}}}
}

// zigzag is the own hair laced through a braid: over the outside on each side, inside across.
func zigzag(bright float64, ys []float64) []strand {
	pts := []float64{180, 48, 0, 17, 178, 84, 0, 18, 150, 122, outside, 18, 136, 152, outside, 18}
	side := -1.0
	for i, y := range ys {
		w := 17 - 8*float64(i)/float64(len(ys))
		pts = append(pts, 207+side*37, y, 24, w, 207+side*14, y+4, within, w, 207-side*14, y+10, within, w, 207-side*37, y+14, 24, w)
		side = -side
		if i < len(ys)-1 {
			pts = append(pts, 207+side*62, (y+14+ys[i+1])/2, outside, w)
		}
	}
	last := ys[len(ys)-1]
	return own("plait", figure.Plaited, bright, figure.Tip, line(append(pts, 207+side*58, last+26, outside, 8)...))
}

// laced are the mouths of a zigzag.
func laced(ys []float64) (out []figure.Mouth) {
	side := -1.0
	for _, y := range ys {
		out = append(out, mouthAt(y, side), mouthAt(y+14, -side))
		side = -side
	}
	return out
}

// lace: in at one side of the braid and out at the other, close together.
func lace() figure.Figure {
	hang := func(bright float64, pts ...float64) []strand {
		return own("plait", figure.Plaited, bright, figure.Tip, along(34, pts...))
	}
	inside := func(p point) bool { return p.X > 168 && p.X < 246 }
	o, in := outside, within
	first := []float64{180}
	two := []float64{180, 226}
	all := []float64{176, 206, 236, 266, 296, 326}
	hk := func(h hook) []strand {
		h.open, h.lift, h.bright = math.Abs(h.open), 8, 1
		return inHollow(h.strands(), 44, inside)
	}
	left := hook{at: at(130, 172), toward: at(-0.975, -0.18), long: 190, side: 1, open: 1}
	shut := left
	shut.open = 0
	right := hook{at: at(284, 218), toward: at(0.975, -0.18), long: 190, side: -1, open: 1}
	return figure.Figure{Title: "Zigzag inside", Frames: []frame{{
		Says: "The braid, cut open. The hook goes through its middle from one side; its point shows at the other.",
		Strands: with(hang(0.5, 180, 48, 0, 17, 178, 84, 0, 18, 150, 116, 4, 18, 112, 150, 4, 18, 92, 210, 0, 18, 86, 290, 0, 18, 84, 400, 0, 14),
			cutOpen(figure.Plaited, 1, laced(first)...), hk(left)),
		Arrows: arrows(way(340, 254, 312, 248, 270, 240)),
		States: holds("hook inside piece 1"),
	}, {
		Says: "The own hair is laid in, the latch shut.",
		Strands: with(hang(1, 180, 48, 0, 17, 178, 84, 0, 18, 168, 112, 40, 18, 163, 146, o+5, 18, 159, 168, o+5, 18, 154, 188, o+5, 18, 138, 216, 40, 18, 112, 270, 0, 18, 104, 400, 0, 14),
			cutOpen(figure.Plaited, 1, laced(first)...), hk(shut)),
		Arrows: arrows(way(270, 240, 312, 248, 340, 254)),
		States: holds("hook inside piece 1", "plait over hook 1", "plait under latch 1"),
	}, {
		Says: "Drawn across: it goes in at one side and comes out at the other.",
		Strands: with(hang(1, 180, 48, 0, 17, 177, 84, 0, 18, 150, 122, o, 18, 140, 156, o, 18, 170, 180, 24, 18, 193, 184, in, 18, 221, 190, in, 18, 244, 194, 24, 18, 280, 206, o, 18, 306, 260, o, 17, 312, 390, o, 13),
			cutOpen(figure.Plaited, 1, laced(first)...)),
		Arrows: arrows(way(336, 230, 340, 290, 338, 350)),
		States: holds("plait inside piece 1"),
	}, {
		Says: "The next one from the other side, close below.",
		Strands: with(hang(0.6, 180, 48, 0, 17, 177, 84, 0, 18, 150, 122, o, 18, 140, 156, o, 18, 170, 180, 24, 18, 193, 184, in, 18, 221, 190, in, 18, 244, 194, 24, 18, 276, 206, o+5, 18, 272, 236, o+5, 18, 300, 290, o, 16, 306, 390, o, 13),
			cutOpen(figure.Plaited, 1, laced(two)...), hk(right)),
		Arrows: arrows(way(24, 300, 54, 294, 100, 284)),
		States: holds("plait inside piece 1", "hook inside piece 1"),
	}, {
		Says:    "Left, right, left, no gaps, until the tip is inside.",
		Strands: with(zigzag(0.7, all), cutOpen(figure.Plaited, 1, laced(all)...)),
		States:  holds("plait inside piece 6"),
	}, {
		Says: "The braid pulled straight and smoothed: nothing of the own hair shows.",
		Strands: with(own("plait", figure.Plaited, 0, figure.Tip, along(34, 180, 48, 0, 17, 180, 84, 0, 18, 184, 112, 0, 17, 196, 150, in, 17, 207, 214, in, 17, 207, 300, in, 14, 207, 380, in, 10)),
			cutOpen(figure.Plaited, 0)),
		Dots:   []xy{at(158, 300), at(256, 300)},
		States: holds("plait inside piece 1"),
	}}}
}

// laceGap is the usual mistake: the passes stand too far apart.
func laceGap() figure.Figure {
	far := []float64{176, 262, 348}
	return figure.Figure{Title: "Gaps in the zigzag", Frames: []frame{{
		Says:    "Wrong: gaps between the passes, and the own hair stands out at the sides.",
		Strands: with(zigzag(0.7, far), cutOpen(figure.Plaited, 0.8, laced(far)...)),
		Wrong:   &xy{X: 222, Y: 232},
		States:  holds("plait inside piece 3"),
	}}}
}
