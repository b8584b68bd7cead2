package moves

import (
	"slices"

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

// outside is a depth in front of the skin of a cut-open piece, within one in its hollow.
const (
	outside = 72.0
	within  = 4.0
)

// The piece that is cut open hangs by its hitch: its middle line, and half its width.
const (
	tubeAt   = 240.0
	tubeHalf = 46.0
)

var tubeLine = slices.Concat(snugBody, line(237, 136, 0, 44, tubeAt, 162, 0, 84, tubeAt, 200, 0, 2*tubeHalf, tubeAt, 450, 0, 90))

// mouthAt is a mouth at a height, on the left (-1) or the right (1) of the piece.
func mouthAt(y, side float64) figure.Mouth {
	return figure.Mouth{At: shareAt(tubeLine, y), Across: 0.8 * side, Half: 13}
}

// cutOpen is a piece that hangs by its hitch, with a window in it.
func cutOpen(of figure.Material, open float64, mouths ...figure.Mouth) []strand {
	s := looped(of, 0, snugLoop, tubeLine)
	for i := range s {
		if s[i].Name == "piece" {
			s[i].Ends[1] = figure.Open
			s[i].Tube = &figure.Tube{From: shareAt(tubeLine, 172), To: shareAt(tubeLine, 404), Open: open, Mouths: mouths}
		}
	}
	return s
}

// throughHitch is own hair straight down through the hitch at its root, on to where it is led.
func throughHitch(of figure.Material, bright float64, on ...float64) []strand {
	return own("plait", of, bright, figure.Tip, figure.Along(line(append([]float64{180, 48, 0, 22, 180, 70, 0, 26, 180, 104, 0, 26, 180, 132, 0, 24}, on...)...), 44))
}

// inHollow lays the points of a strand that are in a part of the stage into the hollow,
// all others in front of the skin.
func inHollow(s []strand, n int, in func(p point) bool) []strand {
	return layered(s, n, in, within, outside)
}

// weave: the hook goes up inside the piece, takes the plait and draws it down; so on until
// its end is inside. The hitch at the root holds in every picture.
func weave() figure.Figure {
	mouths := []figure.Mouth{mouthAt(190, -1), mouthAt(304, 1)}
	piece := func(open float64) []strand { return cutOpen(figure.Twisted, open, mouths...) }
	between := func(p point) bool { return p.X > 202 && p.X < 279 && p.Y > 188 && p.Y < 306 }
	hk := func(x, y, open float64) []strand {
		return inHollow(hook{at: at(x, y), toward: at(-0.545, -0.839), long: 232, side: 1, open: open, lift: 8, bright: 1}.strands(), 44, between)
	}
	hang := func(bright float64, pts ...float64) []strand { return throughHitch(figure.Plaited, bright, pts...) }
	holding := func(list ...string) []state {
		return holds(append([]string{"loop under plait 2", "piece through loop 1"}, list...)...)
	}
	o, in := outside, within
	woven := []float64{204, 190, 22, 18, 240, 222, in, 18, 274, 254, in, 17, 240, 286, in, 17, 208, 318, in, 15, 240, 350, in, 14, 260, 376, in, 12, 246, 394, in, 9}
	return figure.Figure{Title: "Weave inside", Frames: []frame{{
		Says: "The piece, cut open. The open hook goes in below and up through the middle, out right at the hitch.",
		Strands: with(hang(0, 172, 164, 0, 23, 150, 208, 0, 22, 128, 264, 0, 21, 114, 330, 0, 20, 106, 412, 0, 16), piece(1),
			hk(300, 340, 1)),
		Arrows: arrows(way(284, 318, 250, 266, 214, 208)),
		States: holding(),
	}, {
		Says: "Its point comes out right at the hitch, beside the plait.",
		Strands: with(hang(0.6, 166, 154, 0, 23, 134, 184, 0, 22, 108, 240, 0, 21, 98, 310, 0, 20, 94, 404, 0, 16), piece(1),
			hk(177, 150, 1)),
		Arrows: arrows(way(84, 250, 84, 210, 104, 178)),
		States: holding("hook inside piece 1"),
	}, {
		Says: "The plait is laid in and the latch shut.",
		Strands: with(hang(1, 194, 138, o-10, 22, 207, 152, o+5, 22, 206, 168, o+5, 22, 189, 179, o+5, 22, 169, 187, o+5, 22, 148, 206, 30, 21, 122, 260, 0, 20, 108, 398, 0, 16), piece(1),
			hk(177, 150, 0)),
		Arrows: arrows(way(312, 330, 328, 354, 346, 382)),
		States: holding("hook inside piece 1", "plait over hook 1", "plait under latch 1"),
	}, {
		Via: true,
		Strands: with(hang(1, 184, 152, 26, 21, 190, 172, o, 20, 203, 190, 22, 18, 224, 214, in, 16, 240, 242, in+4, 14, 234, 262, in+5, 14, 216, 240, in+2, 15, 204, 206, 14, 16, 184, 202, o, 18, 152, 232, o, 20, 134, 290, 0, 19, 124, 380, 0, 16), piece(1),
			hk(222, 220, 0)),
		States: holding("hook inside piece 1"),
	}, {
		Says: "Drawn down: the plait lies inside, from the hitch to where the hook went in. No plait shows at the hitch.",
		Strands: with(hang(1, 184, 152, 26, 22, 190, 172, o, 20, 204, 190, 22, 20, 224, 218, in, 20, 244, 254, in, 20, 262, 286, in, 20, 279, 306, 22, 20, 306, 322, o, 20, 320, 352, o, 18, 324, 412, o, 14), piece(1),
			hk(356, 440, 0)),
		States: holding("plait inside piece 1"),
	}, {
		Says: "And so on, a pitch lower each time, until the tip is inside.",
		Strands: with(hang(0.8, append([]float64{184, 152, 26, 22, 190, 172, o, 20}, woven...)...),
			cutOpen(figure.Twisted, 1, mouthAt(190, -1), mouthAt(254, 1), mouthAt(318, -1), mouthAt(382, 1))),
		States: holding("plait inside piece 1"),
	}, {
		Says: "Rolled between the fingers: nothing of own hair shows.",
		Strands: with(hang(0, append([]float64{186, 150, 0, 22, 194, 172, in, 18}, append([]float64{204, 190, in, 18}, woven[4:]...)...)...),
			cutOpen(figure.Twisted, 0)),
		Dots:   []xy{at(190, 292), at(290, 292)},
		States: holding("plait inside piece 1"),
	}}}
}

// weaveAside is the usual mistake: the hook went in at the side, and the plait lies between
// the strands of the piece, in sight.
func weaveAside() figure.Figure {
	o := outside
	return figure.Figure{Title: "Woven at the side", Frames: []frame{{
		Says: "Wrong: the hook went in at the side, and the plait shows between the strands.",
		Strands: with(throughHitch(figure.Plaited, 0.8, 184, 152, o, 22, 196, 176, o, 20, 212, 204, o, 19, 208, 236, o, 18, 214, 266, o, 18, 210, 300, o, 17, 216, 330, o, 15, 212, 372, o, 11),
			cutOpen(figure.Twisted, 0)),
		Wrong:  &xy{X: 214, Y: 280},
		States: holds("loop under plait 2", "piece through loop 1", "plait inside piece 0"),
	}}}
}

// zigzag is own hair laced through a braid: inside across, and over the outside between two passes,
// or all of it drawn in. Its tip stays inside.
func zigzag(bright float64, ys []float64, drawnIn bool) []strand {
	edge, skin, turn, depth := 37.0, 24.0, 62.0, outside
	pts := []float64{178, 152, 26, 19, 176, 168, outside, 18}
	if drawnIn {
		edge, skin, turn, depth = 26, within, 28, within
		pts = []float64{186, 150, 0, 20, 196, 168, within, 18}
	}
	side := -1.0
	for i, y := range ys {
		w := 17 - 8*float64(i)/float64(len(ys))
		pts = append(pts, tubeAt+side*edge, y, skin, w, tubeAt+side*14, y+4, within, w, tubeAt-side*14, y+10, within, w)
		if i < len(ys)-1 {
			pts = append(pts, tubeAt-side*edge, y+14, skin, w, tubeAt-side*turn, (y+14+ys[i+1])/2, depth, w)
		}
		side = -side
	}
	return throughHitch(figure.Plaited, bright, pts...)
}

// laced are the mouths of a zigzag.
func laced(ys []float64) (out []figure.Mouth) {
	side := -1.0
	for i, y := range ys {
		out = append(out, mouthAt(y, side))
		if i < len(ys)-1 {
			out = append(out, mouthAt(y+14, -side))
		}
		side = -side
	}
	return out
}

// lace: in at one side of the braid and out at the other, close together.
func lace() figure.Figure {
	hang := func(bright float64, pts ...float64) []strand { return throughHitch(figure.Plaited, bright, pts...) }
	holding := func(list ...string) []state {
		return holds(append([]string{"loop under plait 2", "piece through loop 1"}, list...)...)
	}
	inside := func(p point) bool { return p.X > 201 && p.X < 279 }
	o, in := outside, within
	first := []figure.Mouth{mouthAt(185, -1), mouthAt(199, 1)}
	two := append(slices.Clone(first), mouthAt(231, 1), mouthAt(245, -1))
	all := []float64{185, 215, 245, 275, 305, 335}
	hk := func(h hook) []strand {
		h.lift, h.bright = 8, 1
		return inHollow(h.strands(), 44, inside)
	}
	left := hook{at: at(163, 178), toward: at(-0.975, -0.18), long: 190, side: 1, open: 1}
	shut := left
	shut.open = 0
	right := hook{at: at(317, 224), toward: at(0.975, -0.18), long: 190, side: -1, open: 1}
	across := []float64{178, 152, 26, 22, 178, 170, o, 20, 203, 185, 24, 18, 226, 190, in, 18, 254, 196, in, 18, 277, 200, 24, 18}
	return figure.Figure{Title: "Zigzag inside", Frames: []frame{{
		Says: "The braid, cut open. The hook goes through its middle from one side; its point shows at the other.",
		Strands: with(hang(0.5, 166, 152, 0, 22, 138, 172, 0, 21, 112, 216, 0, 20, 100, 300, 0, 19, 94, 404, 0, 14),
			cutOpen(figure.Plaited, 1, first...), hk(left)),
		Arrows: arrows(way(352, 256, 336, 252, 300, 245)),
		States: holding("hook inside piece 1"),
	}, {
		Says: "Own hair is laid in, the latch shut.",
		Strands: with(hang(1, 186, 146, 40, 22, 195, 160, o+5, 20, 192, 176, o+5, 20, 186, 194, o+5, 20, 168, 222, 40, 20, 140, 276, 0, 19, 130, 400, 0, 14),
			cutOpen(figure.Plaited, 1, first...), hk(shut)),
		Arrows: arrows(way(300, 245, 336, 252, 352, 256)),
		States: holding("hook inside piece 1", "plait over hook 1", "plait under latch 1"),
	}, {
		Says: "Drawn across: it goes in at one side and comes out at the other.",
		Strands: with(hang(1, append(slices.Clone(across), 310, 214, o, 18, 334, 266, o, 17, 340, 392, o, 13)...),
			cutOpen(figure.Plaited, 1, first...)),
		Arrows: arrows(way(312, 300, 318, 340, 316, 380)),
		States: holding("plait inside piece 1"),
	}, {
		Says: "The next one from the other side, close below.",
		Strands: with(hang(0.6, append(slices.Clone(across), 309, 212, o+5, 18, 305, 242, o+5, 18, 330, 296, o, 16, 336, 392, o, 13)...),
			cutOpen(figure.Plaited, 1, two...), hk(right)),
		Arrows: arrows(way(57, 306, 87, 300, 133, 290)),
		States: holding("plait inside piece 1", "hook inside piece 1"),
	}, {
		Says:    "Left, right, left, no gaps, until the tip is inside.",
		Strands: with(zigzag(0.7, all, false), cutOpen(figure.Plaited, 1, laced(all)...)),
		States:  holding("plait inside piece 6"),
	}, {
		Says:    "The braid pulled straight and smoothed: nothing of own hair shows.",
		Strands: with(zigzag(0, all, true), cutOpen(figure.Plaited, 0)),
		Dots:    []xy{at(190, 300), at(290, 300)},
		States:  holding("plait inside piece 1"),
	}}}
}

// laceGap is the usual mistake: the passes stand too far apart.
func laceGap() figure.Figure {
	far := []float64{185, 271, 357}
	return figure.Figure{Title: "Gaps in the zigzag", Frames: []frame{{
		Says:    "Wrong: gaps between the passes, and own hair stands out at the sides.",
		Strands: with(zigzag(0.7, far, false), cutOpen(figure.Plaited, 0.8, laced(far)...)),
		Wrong:   &xy{X: 255, Y: 240},
		States:  holds("loop under plait 2", "piece through loop 1", "plait inside piece 3"),
	}}}
}
