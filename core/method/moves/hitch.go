package moves

import (
	"math"
	"slices"

	"kladotex/core/method/figure"
)

// The hitches.
const (
	RootHitch      ID = "root-hitch"
	RootHitchBraid ID = "root-hitch-braid"
	SharedHitch    ID = "shared-hitch"
	SharedTwist    ID = "shared-hitch-twist"
	SharedCoil     ID = "shared-hitch-coil"
	LooseDraw      ID = "loose-draw"
	HiddenKnot     ID = "hidden-knot"
	SplitRoot      ID = "split-root"
	SplitBand      ID = "split-root-banded"
	CornrowHitch   ID = "track-hitch"
	SetIn          ID = "set-in"
	Stack          ID = "stations"
	Lump           ID = "lump"
	ThinStrand     ID = "thin-strand"
	AcrossCornrow  ID = "across-track"
	RootFirst      ID = "root-first"
)

var hitches = map[ID]func() figure.Figure{
	RootHitch:      func() figure.Figure { return rootHitch(figure.Twisted) },
	RootHitchBraid: func() figure.Figure { return rootHitch(figure.Plaited) },
	SharedHitch:    func() figure.Figure { return sharedHitch(figure.Plaited, figure.Locked) },
	SharedTwist:    func() figure.Figure { return sharedHitch(figure.Twisted, figure.Twisted) },
	SharedCoil:     func() figure.Figure { return sharedHitch(figure.Plaited, figure.Coiled) },
	LooseDraw:      looseDraw,
	HiddenKnot:     hiddenKnot,
	SplitRoot:      splitRoot,
	SplitBand:      splitBand,
	CornrowHitch:   cornrowHitch,
	SetIn:          setIn,
	Stack:          stations,
	Lump:           lump,
	ThinStrand:     thinStrand,
	AcrossCornrow:  acrossCornrow,
	RootFirst:      rootFirst,
}

// plait is own hair, plaited or twisted, that hangs from the root in the middle.
func plait(of figure.Material) []strand {
	return own("plait", of, 0, figure.Open, line(180, 50, 0, 22, 180, 66, 0, 28, 180, 120, 0, 30, 180, 220, 0, 30, 180, 330, 0, 28, 180, 440, 0, 27))
}

// sideways is a hook that goes from A to B with its point at a place.
func sideways(x, y, open, bright float64) []strand {
	return hook{at: at(x, y), toward: at(-1, 0), long: 168, z: -26, side: 1, open: open, lift: 14, bright: bright}.strands()
}

// hookedUnder are the first frames of most methods: the hook goes under the plait from A to
// B, the loop is laid in and the latch shut, and it is drawn back to A.
func hookedUnder(base, of figure.Material) []frame {
	hang := func(x, y float64) []point {
		return line(x, y, 6, 14, x-8, y+22, 4, 20, x-14, y+90, 0, 26, x-18, y+190, 0, 27, x-18, 450, 0, 26)
	}
	return []frame{{
		Says: "The open hook goes under the plait; its point shows on the far side.",
		Strands: with(plait(base), looped(of, 0,
			line(84, 246, 0, 11, 68, 226, 0, 12, 58, 194, 0, 12, 66, 168, 0, 12, 86, 156, 0, 12, 106, 168, 0, 12, 112, 196, 0, 12, 102, 226, 0, 12, 88, 246, 0, 11), hang(86, 242)),
			sideways(80, 94, 1, 1)),
		Arrows: arrows(way(330, 140, 300, 140, 214, 140), way(118, 168, 132, 150, 128, 122)),
		States: holds("hook under plait 1"),
	}, {
		Says: "The loop is laid into the hook and the latch shut over it.",
		Strands: with(plait(base), looped(of, 1,
			line(62, 176, 0, 11, 50, 150, -4, 12, 56, 104, -12, 12, 80, 64, -18, 12, 104, 62, -19, 12, 111, 88, -19, 12, 104, 120, -18, 12, 86, 150, -6, 12, 66, 176, 0, 11), hang(64, 172)),
			sideways(80, 94, 0, 0.2)),
		Arrows: arrows(way(214, 140, 250, 140, 320, 140)),
		States: holds("hook under plait 1", "loop over hook 1", "loop under latch 1"),
	}, {
		Says: "Drawn back: the loop lies under the plait, the piece still hangs on the far side.",
		Strands: with(plait(base), looped(of, 1,
			line(106, 130, -2, 11, 110, 112, -8, 12, 134, 92, -20, 12, 180, 78, -28, 12, 240, 68, -19, 12, 259, 88, -19, 12, 240, 116, -19, 12, 180, 120, -28, 12, 110, 131, -2, 11), hang(107, 127)),
			sideways(228, 94, 0, 1)),
		States: holds("loop under plait 2", "hook under plait 0"),
	}}
}

// openLoop is the loop under the plait, its bow held open at A.
func openLoop() []point {
	return line(112, 100, -4, 12, 132, 84, -18, 12, 180, 76, -28, 12, 238, 74, -8, 12, 272, 102, 8, 12, 238, 132, -8, 12, 180, 128, -28, 12, 132, 120, -18, 12, 112, 104, -4, 12)
}

// atB is the body of a piece whose loop is drawn through: it still hangs at B.
func atB() []point {
	return line(118, 102, 2, 15, 96, 107, 2, 22, 76, 140, 0, 27, 68, 190, 0, 27, 66, 240, 0, 27, 65, 290, 0, 27, 64, 330, 0, 27, 64, 370, 0, 27, 65, 410, 0, 27, 66, 450, 0, 27)
}

// A hitch that sits snug at the root: the loop, and the body of the piece over the plait and through it.
var (
	snugLoop = line(152, 94, -4, 12, 158, 84, -14, 12, 180, 80, -28, 12, 208, 78, -2, 12, 227, 96, 18, 12, 208, 116, -2, 12, 180, 112, -28, 12, 160, 108, -14, 12, 152, 98, -4, 12)
	snugBody = line(156, 97, 2, 14, 144, 100, 3, 17, 138, 114, 6, 20, 148, 128, 16, 21, 168, 122, 28, 21, 188, 108, 32, 21, 208, 99, 14, 20, 232, 112, -4, 22)
)

// rootHitch: loop under the plait, the piece over it and through its own loop, drawn tight.
func rootHitch(of figure.Material) figure.Figure {
	held := holds("loop under plait 2", "piece over plait 1", "piece through loop 1")
	drawn := func(bright float64, body []point) []strand {
		return with(plait(figure.Plaited), looped(of, bright, openLoop(), body))
	}
	return figure.Figure{Title: "Root hitch", Frames: append(hookedUnder(figure.Plaited, of), frame{
		Via: true, Strands: drawn(0.9, atB()),
	}, frame{
		Says:    "The tail of the piece comes over the plait to the loop.",
		Strands: drawn(0.9, line(118, 102, 2, 15, 94, 107, 2, 22, 72, 140, 0, 26, 64, 190, 4, 26, 80, 232, 14, 26, 116, 226, 24, 26, 148, 196, 32, 26, 180, 158, 32, 26, 208, 124, 26, 25, 232, 98, 10, 20)),
		Arrows:  arrows(way(258, 86, 300, 96, 314, 160)),
		States:  holds("loop under plait 2", "piece over plait 1"),
	}, frame{
		Via:     true,
		Strands: drawn(0.9, line(118, 102, 2, 15, 92, 107, 2, 22, 74, 136, 2, 25, 76, 176, 8, 25, 104, 190, 16, 25, 142, 164, 28, 25, 186, 126, 34, 24, 230, 101, 8, 22, 268, 108, -18, 22, 290, 130, -16, 20)),
	}, frame{
		Says:    "It goes through the loop, all of it.",
		Strands: drawn(0.9, line(118, 102, 2, 15, 94, 107, 2, 21, 84, 130, 6, 23, 106, 152, 14, 23, 144, 142, 28, 23, 182, 118, 34, 23, 228, 102, 8, 22, 280, 122, -20, 24, 304, 220, 0, 27, 304, 450, 0, 27)),
		Arrows:  arrows(way(336, 230, 336, 300, 336, 370)),
		States:  held,
	}, frame{
		Says:    "Plait and piece drawn apart: the hitch sits snug at the root.",
		Strands: with(plait(figure.Plaited), looped(of, 0, snugLoop, append(slices.Clone(snugBody), line(238, 200, 0, 27, 242, 450, 0, 27)...))),
		Arrows:  arrows(way(270, 260, 290, 310, 294, 366), way(146, 316, 130, 350, 120, 394)),
		Lens:    &figure.Lens{At: at(184, 100), To: at(82, 218), Scale: 1.75, Radius: 78},
		States:  held,
	})}
}

// sharedHitch: plait and piece go through the loop together; then the plait is drawn up and
// the piece down.
func sharedHitch(base, of figure.Material) figure.Figure {
	wide := line(112, 100, -4, 12, 132, 84, -18, 12, 180, 74, -28, 12, 240, 62, -10, 12, 294, 104, 8, 12, 240, 148, -10, 12, 180, 130, -28, 12, 132, 120, -18, 12, 112, 104, -4, 12)
	drawn := func(bright float64, loop, body, plaited []point) []strand {
		return with(own("plait", base, bright, figure.Tip, plaited), looped(of, bright, loop, body))
	}
	held := holds("loop under plait 3", "plait through loop 1", "piece through loop 1")
	first := hookedUnder(base, of)
	return figure.Figure{Title: "Shared hitch", Frames: append(first, frame{
		Says: "Plait and piece are brought to the loop together.",
		Strands: drawn(0.8, wide,
			line(118, 102, 2, 15, 94, 107, 2, 22, 72, 140, 0, 26, 66, 190, 4, 26, 82, 222, 14, 26, 112, 212, 26, 26, 144, 178, 34, 26, 176, 140, 34, 26, 204, 114, 30, 25, 226, 100, 24, 20),
			line(180, 50, 0, 22, 180, 100, 0, 29, 180, 170, 0, 29, 182, 250, 2, 28, 200, 306, 8, 27, 230, 306, 16, 25, 246, 260, 22, 23, 250, 210, 24, 20, 248, 174, 24, 16)),
		Arrows: arrows(way(282, 214, 284, 180, 262, 138), way(236, 84, 262, 76, 290, 72)),
		States: holds("loop under plait 2", "piece over plait 1", "plait through loop 0", "piece through loop 0"),
	}, frame{
		Says: "Both go through the loop.",
		Strands: drawn(0.9, wide,
			line(118, 102, 2, 15, 94, 107, 2, 21, 84, 132, 6, 23, 106, 154, 16, 23, 144, 140, 32, 23, 184, 116, 36, 23, 230, 98, 26, 22, 262, 104, 4, 22, 296, 122, -20, 24, 318, 210, 0, 27, 320, 450, 0, 27),
			line(180, 50, 0, 22, 180, 100, 0, 29, 180, 160, 0, 29, 186, 206, 4, 27, 212, 218, 14, 25, 236, 190, 22, 23, 244, 152, 16, 22, 247, 130, 2, 22, 250, 104, -18, 21, 252, 76, -32, 20, 260, 34, -30, 20, 282, 4, -20, 20, 312, -30, 0, 20, 330, -70, 0, 20, 340, -140, 0, 19, 346, -240, 0, 16)),
		Arrows: arrows(way(300, 60, 312, 36, 318, 8), way(346, 230, 346, 300, 346, 370)),
		States: held,
	}, frame{
		Says: "The plait is drawn up and the piece down, until the loop closes.",
		Strands: drawn(0.2,
			line(150, 96, -4, 12, 158, 84, -14, 12, 180, 78, -28, 12, 214, 70, -6, 12, 242, 98, 18, 12, 214, 126, -6, 12, 180, 116, -28, 12, 160, 110, -14, 12, 150, 100, -4, 12),
			line(154, 99, 2, 14, 142, 102, 3, 17, 136, 116, 6, 20, 146, 131, 18, 21, 168, 124, 32, 21, 192, 108, 34, 21, 214, 99, 22, 20, 231, 103, 4, 20, 247, 119, -12, 22, 254, 200, 0, 27, 258, 450, 0, 27),
			line(180, 50, 0, 22, 180, 80, 0, 27, 180, 106, 0, 26, 181, 128, 0, 25, 187, 143, 4, 23, 198, 149, 14, 21, 208, 142, 21, 20, 216, 124, 8, 19, 220, 92, -16, 19, 223, 72, -28, 19, 230, 46, -30, 19, 248, 22, -20, 19, 276, 20, 0, 19, 300, 52, 4, 20, 310, 130, 2, 20, 314, 260, 0, 19, 314, 390, 0, 16)),
		Arrows: arrows(way(210, 40, 214, 22, 226, 6), way(228, 280, 230, 330, 232, 380)),
		Lens:   &figure.Lens{At: at(196, 104), To: at(82, 226), Scale: 1.7, Radius: 78},
		States: held,
	})}
}

// looseDraw: unplaited hair is drawn through the loop of the piece at the root, and once
// more round its rim; then it is laced.
func looseDraw() figure.Figure {
	loop := line(232, 202, 0, 11, 206, 176, 2, 12, 194, 134, 4, 12, 206, 92, 2, 12, 232, 78, 0, 12, 258, 92, -2, 12, 268, 134, 2, 12, 256, 176, 2, 12, 236, 202, 0, 11)
	body := line(234, 198, 4, 15, 238, 224, 2, 23, 240, 270, 0, 28, 240, 340, 0, 29, 240, 450, 0, 28)
	drawn := func(bright float64, hairs []point, more ...[]strand) []strand {
		return with(append([][]strand{own("hair", figure.Combed, bright, figure.Tip, hairs), looped(figure.Plaited, 0, loop, body)}, more...)...)
	}
	twice := holds("hair through loop 2", "hair over loop 2", "hair under loop 2")
	return figure.Figure{Title: "Loose hair through the loop", Frames: []frame{{
		Says: "The loop at the root. The hook goes through it from where the braid's pattern points up, and takes own hair.",
		Strands: drawn(0.4, line(180, 50, 0, 16, 174, 90, -20, 22, 150, 130, -22, 22, 126, 190, -10, 22, 116, 280, 0, 22, 112, 400, 0, 14),
			hook{at: at(134, 112), toward: at(-0.92, -0.1), long: 178, z: -34, dive: 72, side: 1, open: 1, lift: 20, bright: 1}.strands()),
		Arrows: arrows(way(336, 166, 306, 162, 280, 160)),
		States: holds("hook through loop 1"),
	}, {
		Says:    "Latch shut, own hair is drawn through, down to its root.",
		Strands: drawn(1, line(180, 50, 0, 16, 180, 78, 14, 21, 198, 104, 24, 21, 228, 124, 4, 20, 264, 140, -22, 20, 296, 176, -6, 20, 306, 270, 0, 20, 308, 400, 0, 13)),
		Arrows:  arrows(way(338, 200, 342, 260, 342, 320)),
		States:  holds("hair through loop 1", "hair over loop 1", "hair under loop 1"),
	}, {
		Says:    "Once more, from the other side, round the other leg: once on large sections, twice on small ones.",
		Strands: drawn(1, line(180, 50, 0, 16, 180, 78, 14, 20, 198, 104, 24, 20, 228, 122, 4, 18, 262, 138, -22, 18, 290, 154, -6, 18, 284, 174, 18, 18, 258, 174, 24, 18, 232, 168, 2, 18, 202, 168, -22, 18, 170, 186, -8, 18, 154, 230, 0, 18, 148, 300, 0, 17, 146, 400, 0, 12)),
		Arrows:  arrows(way(118, 230, 112, 290, 112, 350)),
		States:  twice,
	}, {
		Says: "Drawn snug, and the piece turned so that its smooth side lies outward.",
		Strands: with(
			own("hair", figure.Combed, 0, figure.Tip, line(180, 50, 0, 16, 172, 74, 8, 19, 166, 94, 16, 18, 180, 99, 20, 16, 198, 100, 2, 16, 217, 104, -20, 16, 233, 113, -4, 16, 228, 125, 18, 16, 212, 125, 22, 16, 197, 121, 2, 16, 180, 122, -20, 16, 163, 134, -6, 17, 152, 180, 0, 18, 148, 260, 0, 18, 146, 350, 0, 12)),
			looped(figure.Plaited, 0,
				line(194, 140, 0, 11, 182, 130, 2, 11, 176, 108, 4, 11, 184, 88, 2, 11, 200, 82, 0, 11, 214, 90, -2, 11, 218, 110, 2, 11, 208, 130, 2, 11, 196, 140, 0, 11),
				line(195, 137, 4, 15, 194, 160, 2, 23, 192, 210, 0, 28, 190, 300, 0, 29, 188, 450, 0, 28))),
		Lens:   &figure.Lens{At: at(196, 110), To: at(276, 244), Scale: 1.9, Radius: 76},
		States: twice,
	}}}
}

// hiddenKnot: a strand folded through the root; a thin part of one leg goes through the fold
// twice, the other leg falls over the knot.
func hiddenKnot() figure.Figure {
	fold := func(bright float64, pts ...float64) []strand {
		return free("strand", figure.Combed, figure.Other, bright, figure.Tip, along(64, pts...))
	}
	// open marks the part of a strand that makes the fold.
	open := func(from, to float64, s []strand) []strand {
		s[0].Bow = [2]float64{from, to}
		return s
	}
	thin := func(bright float64, pts ...float64) []strand {
		return hair("part", figure.Combed, figure.Piece, bright, figure.Tip, line(pts...))
	}
	base := plait(figure.Plaited)
	bow := []float64{62, 450, 0, 17, 66, 330, 0, 18, 76, 210, 0, 18, 104, 132, -12, 17, 140, 96, -24, 16, 180, 84, -30, 15, 236, 78, -4, 15, 262, 104, 8, 15, 236, 130, -4, 15, 180, 122, -30, 15, 142, 132, -24, 16, 124, 170, -10, 17, 116, 240, 0, 18, 110, 340, 0, 18, 108, 450, 0, 17}
	return figure.Figure{Title: "Hidden knot", Frames: []frame{{
		Says: "The strand's middle is laid into the hook under the plait, the latch shut.",
		Strands: with(base, sideways(100, 94, 0, 0.3),
			fold(1, 34, 450, 0, 17, 38, 330, 0, 18, 48, 210, 0, 18, 70, 128, -8, 16, 92, 74, -19, 14, 110, 62, -19, 14, 122, 78, -19, 14, 116, 140, -10, 16, 106, 220, 0, 18, 100, 330, 0, 18, 98, 450, 0, 17)),
		Arrows: arrows(way(214, 140, 250, 140, 320, 140)),
		States: holds("hook under plait 1", "strand over hook 1", "strand under latch 1"),
	}, {
		Says:    "Drawn half under: a fold on one side, two legs on the other.",
		Strands: with(base, fold(0.6, bow...)),
		States:  holds("strand under plait 2"),
	}, {
		Says: "A thin part of the leg that will be covered goes over the plait and into the fold.",
		Strands: with(base, open(0.36, 0.62, fold(0, bow...)),
			thin(1, 116, 236, 6, 7, 122, 200, 14, 9, 144, 172, 24, 9, 180, 146, 32, 9, 214, 120, 20, 9, 238, 102, 0, 9, 256, 112, -16, 9, 276, 136, -16, 8)),
		Arrows: arrows(way(288, 96, 306, 116, 306, 158)),
		States: holds("strand under plait 2", "part over plait 1", "part through strand 1"),
	}, {
		Says: "Round the fold and through it again, twice in all, on the side away from the part.",
		Strands: with(base, open(0.36, 0.62, fold(0, bow...)),
			thin(1, 116, 236, 6, 7, 122, 200, 14, 9, 144, 172, 24, 9, 180, 146, 32, 9, 212, 118, 20, 9, 232, 104, 0, 9, 240, 118, -18, 9, 244, 142, -14, 9, 232, 156, 6, 9, 218, 146, 18, 9, 226, 124, 16, 9, 242, 106, 0, 9, 258, 112, -16, 9, 282, 140, -16, 9, 294, 200, 0, 9, 296, 330, 0, 7)),
		Arrows: arrows(way(318, 190, 320, 240, 320, 290)),
		Lens:   &figure.Lens{At: at(236, 122), To: at(262, 320), Scale: 1.8, Radius: 78},
		States: holds("strand under plait 2", "part over plait 1", "part through strand 2"),
	}, {
		Says: "Drawn tight both ways; the other leg falls over the knot.",
		Strands: with(base,
			open(0.42, 0.6, fold(0, 206, 450, 44, 17, 204, 330, 46, 18, 200, 210, 46, 19, 184, 140, 46, 19, 156, 102, 22, 17, 164, 84, -14, 15, 182, 80, -30, 15, 206, 84, -4, 14, 216, 100, 8, 14, 204, 112, -4, 14, 182, 112, -30, 14, 152, 120, -20, 15, 140, 160, -10, 17, 134, 240, 0, 18, 130, 340, 0, 18, 128, 450, 0, 17)),
			thin(0.5, 138, 200, 6, 7, 142, 170, 14, 9, 156, 146, 24, 9, 178, 124, 30, 9, 194, 108, 18, 9, 204, 98, 0, 8, 206, 108, -18, 8, 208, 122, -14, 8, 200, 128, 6, 8, 194, 120, 18, 8, 198, 108, 16, 8, 208, 100, 0, 8, 216, 104, -16, 8, 226, 126, -10, 8, 232, 200, 0, 9, 234, 330, 0, 7)),
		Arrows: arrows(way(126, 74, 140, 66, 164, 72)),
		States: holds("strand over plait", "part through strand 2"),
	}}}
}

// splitRoot: the piece is hitched on a small strand of the section, and that strand is
// plaited in with the rest.
func splitRoot() figure.Figure {
	const n, m = 31, 38
	loose := func(name string, bright float64, pts []point) []strand {
		return own(name, figure.Combed, bright, figure.Tip, pts)
	}
	one := along(n, 164, 48, 0, 12, 148, 90, 0, 20, 134, 160, 0, 22, 128, 260, 0, 22, 128, 410, 0, 18)
	two := along(n, 176, 48, 1, 12, 166, 90, 1, 20, 154, 160, 1, 22, 148, 260, 1, 22, 146, 412, 1, 18)
	hk := func(x, open, bright float64) []strand {
		return hook{at: at(x, 134), toward: at(-1, 0), long: 120, side: 1, open: open, lift: 16, bright: bright}.strands()
	}
	loop := line(300, 186, 0, 11, 284, 172, 4, 12, 262, 148, 10, 12, 256, 112, 12, 12, 282, 100, -8, 12, 306, 120, -14, 12, 310, 160, -8, 12, 304, 186, 0, 11)
	body := line(302, 182, 4, 15, 308, 206, 2, 22, 314, 250, 0, 27, 316, 330, 0, 27, 316, 460, 0, 27)
	drawnIn := line(222, 98, 2, 10, 208, 98, 14, 11, 192, 92, 20, 11, 186, 80, 12, 11, 194, 72, -8, 11, 208, 76, -18, 11, 220, 86, -10, 11, 225, 98, 2, 10)
	aside := line(222, 96, 4, 14, 240, 130, -30, 20, 260, 180, -30, 27, 268, 300, -30, 27, 270, 460, -30, 27)
	// plaited is the three strands braided to y1 and loose below; apart spreads their ends.
	plaited := func(y1, half, depth, turns, w0, w1, apart float64) (out [3][]point) {
		// The small strand comes through the loop before it is plaited.
		root := [3][]point{line(166, 48, 0, 10), line(178, 48, 1, 10), append(along(7, 192, 48, 0, 9, 180, 64, -2, 9, 182, 82, 0, 10, 197, 87, 2, 11, 210, 84, 6, 11), pt(224, 94, 12, 13))}
		for i, b := range braid(25, 180, 108, y1, half, depth, turns, w0, w1) {
			out[i] = append(slices.Clone(root[i]), b...)
			end := b[len(b)-1]
			for k := 1; k <= 5; k++ {
				u := float64(k) / 5
				out[i] = append(out[i], pt(end.X+(end.X-180)/half*apart*u, end.Y+u*(404-y1), end.Z*(1-u), w1+(9-w1)*u))
			}
		}
		return out
	}
	some, whole := plaited(212, 34, 12, 0.72, 18, 17, 30), plaited(366, 15, 16, 3, 19, 15, 0)
	return figure.Figure{Title: "Split root", Frames: []frame{{
		Says: "The section is parted: a small strand on the side away from the part, and a large one.",
		Strands: with(loose("half", 0, one), loose("other-half", 0, two), loose("small", 1, along(m, 192, 48, 0, 9, 206, 84, 0, 13, 222, 130, 0, 14, 230, 230, 0, 14, 234, 404, 0, 11)),
			looped(figure.Twisted, 0, line(316, 176, 0, 11, 300, 160, 0, 12, 292, 130, 0, 12, 306, 104, 0, 12, 330, 104, 0, 12, 340, 132, 0, 12, 334, 160, 0, 12, 320, 176, 0, 11), line(318, 172, 4, 15, 320, 200, 2, 22, 322, 250, 0, 27, 322, 330, 0, 27, 322, 460, 0, 27))),
		Arrows: arrows(way(194, 250, 182, 250, 166, 250), way(198, 250, 206, 250, 222, 250)),
	}, {
		Says: "The open hook goes through the loop of the piece and behind the small strand.",
		Strands: with(loose("half", 0, one), loose("other-half", 0, two), loose("small", 1, along(m, 192, 48, 0, 9, 204, 80, 2, 13, 216, 120, 8, 14, 226, 150, 8, 14, 234, 220, 0, 14, 236, 404, 0, 11)),
			looped(figure.Twisted, 0, loop, body), hk(198, 1, 1)),
		Arrows: arrows(way(346, 78, 316, 78, 270, 78)),
		States: holds("hook through loop 1"),
	}, {
		Says: "The small strand is caught and the latch shut.",
		Strands: with(loose("half", 0, one), loose("other-half", 0, two), loose("small", 1, along(m, 192, 48, 0, 9, 206, 80, 4, 13, 224, 102, 8, 14, 234, 126, 9, 14, 238, 156, 6, 14, 238, 220, 0, 14, 238, 404, 0, 11)),
			looped(figure.Twisted, 0, loop, body), hk(204, 0, 1)),
		Arrows: arrows(way(270, 78, 300, 78, 346, 78)),
		States: holds("hook through loop 1", "small over hook 1", "small under latch 1"),
	}, {
		Says: "Drawn through, down to its root: the piece hangs on the small strand.",
		Strands: with(loose("half", 0, one), loose("other-half", 0, two), loose("small", 1, along(m, 192, 48, 0, 9, 206, 76, 2, 13, 224, 98, 4, 14, 258, 110, 4, 14, 284, 140, 4, 14, 280, 200, 4, 14, 282, 330, 0, 11)),
			looped(figure.Twisted, 0, line(226, 142, 2, 11, 216, 130, 12, 12, 210, 108, 20, 12, 214, 88, 12, 12, 226, 82, -8, 12, 236, 100, -18, 12, 236, 124, -10, 12, 230, 142, 2, 11), line(228, 139, 6, 15, 234, 166, 2, 22, 240, 210, 0, 27, 242, 320, 0, 27, 242, 460, 0, 27))),
		Arrows: arrows(way(196, 176, 186, 140, 196, 104)),
		States: holds("small through loop 1"),
	}, {
		Via: true, // the loop slides up to the root
		Strands: with(loose("half", 0.3, one), loose("other-half", 0.3, two),
			loose("small", 1, append(append(along(7, 192, 48, 0, 10, 190, 74, 0, 10, 198, 93, 2, 11, 218, 96, 4, 12), pt(229, 98, 8, 13)), along(30, 238, 106, 6, 14, 252, 150, 0, 14, 258, 240, 0, 14, 260, 350, 0, 10)...)),
			looped(figure.Twisted, 0.4, line(224, 120, 2, 10, 212, 114, 13, 11, 201, 100, 20, 11, 200, 84, 12, 11, 210, 77, -8, 11, 222, 88, -18, 11, 228, 105, -10, 11, 227, 120, 2, 10), line(225, 118, 5, 14, 237, 148, -14, 21, 250, 195, -15, 27, 255, 310, -15, 27, 256, 460, -15, 27))),
	}, {
		Via: true, // and is drawn in there, before anything is plaited
		Strands: with(loose("half", 0.5, one), loose("other-half", 0.3, two),
			loose("small", 1, append(append(along(7, 192, 48, 0, 9, 180, 64, -2, 9, 182, 82, 0, 10, 197, 87, 2, 11, 210, 84, 6, 11), pt(224, 94, 12, 13)), along(30, 236, 108, 8, 14, 250, 150, 0, 14, 256, 240, 0, 14, 258, 350, 0, 10)...)),
			looped(figure.Twisted, 0.2, drawnIn, aside)),
	}, {
		Says: "The large strand is halved; small strand and halves are plaited, away from the knot.",
		Strands: with(loose("half", 0.7, some[0]), loose("other-half", 0.35, some[1]), loose("small", 1, some[2]),
			looped(figure.Twisted, 0, drawnIn, aside)),
		States: holds("small through loop 1"),
	}, {
		Says: "Plaited down: the root lies flat, and the plait bears the piece. Now it is woven in.",
		Strands: with(snug(with(loose("half", 0.5, whole[0]), loose("other-half", 0.2, whole[1]), loose("small", 0.8, whole[2]))),
			looped(figure.Twisted, 0, drawnIn, aside)),
		States: holds("small through loop 1"),
	}}}
}

// splitBand is the other way to hold a split root: small and large strand are gathered, a band round both.
func splitBand() figure.Figure {
	const n = 31
	loose := func(name string, bright float64, pts []point) []strand {
		return own(name, figure.Combed, bright, figure.Tip, pts)
	}
	drawnIn := line(222, 98, 2, 10, 208, 98, 14, 11, 192, 92, 20, 11, 186, 80, 12, 11, 194, 72, -8, 11, 208, 76, -18, 11, 220, 86, -10, 11, 225, 98, 2, 10)
	hangs := with(loose("large", 0.2, along(n, 166, 48, 0, 14, 150, 90, 0, 24, 146, 150, 0, 26, 152, 220, 0, 26, 156, 404, 0, 22)),
		loose("small", 0.8, append(along(7, 192, 48, 0, 9, 180, 64, -2, 9, 182, 82, 0, 10, 197, 87, 2, 11, 210, 84, 6, 11), append(line(224, 94, 12, 13, 222, 112, 8, 14), along(n, 206, 128, 2, 15, 188, 150, 0, 16, 180, 220, 0, 16, 178, 404, 0, 13)...)...)),
		looped(figure.Twisted, 0, drawnIn, line(222, 96, 4, 14, 240, 130, -30, 20, 260, 180, -30, 27, 268, 300, -30, 27, 270, 460, -30, 27)))
	return figure.Figure{Title: "Split root, banded", Frames: []frame{{
		Says:    "Small and large strand are gathered; a thin band is slid over both from below.",
		Strands: with(hangs, bright("band", 1, bandRing(166, 300, 40))),
		Arrows:  arrows(way(112, 290, 108, 240, 112, 186)),
		States:  holds("small through loop 1", "band over small", "band over large"),
	}, {
		Says:    "Pushed up below the loop, close to the root but not pulling: the two are one.",
		Strands: with(hangs, bright("band", 0.6, bandRing(166, 158, 34))),
		States:  holds("small through loop 1", "band over small", "band over large"),
	}}}
}

// cornrow is a plait worked flat, which lies across the stage.
func cornrow() []strand {
	s := own("cornrow", figure.Plaited, 0.8, figure.Open, line(-20, 176, 0, 30, 60, 171, 0, 34, 180, 168, 0, 35, 300, 171, 0, 34, 380, 176, 0, 32))
	return s
}

// cornrowHitch: as the root hitch, on a cornrow that lies flat; the hook goes along it rather
// than across.
func cornrowHitch() figure.Figure {
	hk := func(x, y, open, bright float64) []strand {
		return hook{at: at(x, y), toward: at(-0.82, -0.57), long: 196, z: -28, side: -1, open: open, lift: 14, bright: bright}.strands()
	}
	above := line(92, 72, 4, 14, 80, 52, 4, 20, 66, 20, 0, 26, 54, -40, 0, 27)
	open := line(118, 118, -2, 11, 132, 120, -12, 12, 176, 158, -30, 12, 226, 196, -14, 12, 250, 236, 8, 12, 212, 240, -2, 12, 162, 202, -30, 12, 118, 146, -12, 12, 114, 122, -2, 11)
	held := holds("loop under cornrow 2", "piece over cornrow 1", "piece through loop 1")
	return figure.Figure{Title: "Cornrow hitch", Stage: figure.Lying, Frames: []frame{{
		Says: "The open hook goes under the cornrow from below, slanting along it; its point shows above.",
		Strands: with(cornrow(), looped(figure.Twisted, 0,
			line(88, 76, 2, 11, 74, 86, 2, 12, 60, 108, 2, 12, 62, 130, 2, 12, 80, 136, 2, 12, 98, 122, 2, 12, 104, 98, 2, 12, 94, 76, 2, 11), above), hk(104, 112, 1, 1)),
		Arrows: arrows(way(336, 250, 300, 226, 264, 200)),
		States: holds("hook under cornrow 1"),
	}, {
		Says: "The loop is laid in, the latch shut.",
		Strands: with(cornrow(), looped(figure.Twisted, 1,
			line(88, 76, 2, 11, 84, 94, -4, 12, 90, 124, -18, 12, 104, 144, -21, 12, 122, 142, -21, 12, 130, 122, -21, 12, 112, 94, -10, 12, 94, 76, 2, 11), above), hk(104, 112, 0, 0.3)),
		Arrows: arrows(way(264, 200, 300, 226, 336, 250)),
		States: holds("hook under cornrow 1", "loop over hook 1", "loop under latch 1"),
	}, {
		Says:    "Drawn back under the cornrow: the loop below it, the piece still above.",
		Strands: with(cornrow(), looped(figure.Twisted, 1, open, line(116, 120, 4, 14, 100, 96, 4, 20, 80, 50, 0, 26, 62, -40, 0, 27))),
		States:  holds("loop under cornrow 2"),
	}, {
		Via:     true,
		Strands: with(cornrow(), looped(figure.Twisted, 0.9, open, line(116, 120, 4, 14, 98, 100, 4, 20, 76, 98, 10, 24, 70, 128, 20, 24, 104, 150, 32, 24, 150, 172, 38, 24, 190, 202, 24, 22, 214, 216, 12, 18))),
	}, {
		Says:    "The piece comes over the cornrow and goes through its own loop.",
		Strands: with(cornrow(), looped(figure.Twisted, 0.9, open, line(116, 120, 4, 14, 98, 102, 4, 20, 78, 106, 10, 23, 76, 134, 20, 23, 108, 148, 32, 23, 150, 172, 38, 23, 192, 208, 20, 22, 226, 228, -6, 22, 256, 268, -20, 24, 268, 330, 0, 27, 272, 460, 0, 27))),
		Arrows:  arrows(way(304, 290, 310, 340, 312, 396)),
		States:  held,
	}, {
		Says: "Drawn snug: the knot lies flat, on the side away from the part.",
		Strands: with(cornrow(), looped(figure.Twisted, 0,
			line(150, 134, -2, 11, 160, 130, -12, 12, 186, 156, -30, 12, 212, 180, -12, 12, 226, 204, 12, 12, 202, 212, 0, 12, 176, 192, -30, 12, 150, 156, -12, 12, 146, 138, -2, 11),
			line(148, 137, 4, 14, 138, 130, 6, 17, 128, 138, 12, 20, 136, 154, 26, 21, 160, 170, 36, 21, 186, 190, 26, 20, 208, 202, 4, 20, 232, 226, -16, 22, 244, 300, 0, 27, 250, 460, 0, 27))),
		Lens:   &figure.Lens{At: at(182, 172), To: at(92, 322), Scale: 1.5, Radius: 82},
		States: held,
	}}}
}

// setIn: at the start of a cornrow that begins in sight the end of a piece is worked into its
// first turns.
func setIn() figure.Figure {
	// flat turns a braid that hangs into a cornrow that runs to the right.
	flat := func(x0, x1, half, depth, turns, w float64) (out [3][]point) {
		for i, b := range braid(40, 170, x0, x1, half, depth, turns, w, w) {
			for _, p := range b {
				out[i] = append(out[i], pt(p.Y, p.X, p.Z, p.W))
			}
		}
		return out
	}
	begun, on := flat(100, 210, 22, 12, 1, 14), flat(90, 390, 16, 13, 3.2, 16)
	root := func(y float64) point { return pt(52, y, 0, 8) }
	strands := func(b [3][]point, spread float64) []strand {
		var out []strand
		for i, y := range []float64{150, 170, 190} {
			pts := append([]point{root(y)}, b[i]...)
			if spread > 0 {
				end := b[i][len(b[i])-1]
				pts = append(pts, pt(end.X+80, end.Y+(float64(i)-1)*spread, 0, 14), pt(end.X+190, end.Y+(float64(i)-1)*spread*1.4, 0, 14))
			}
			out = append(out, own([]string{"upper", "middle", "lower"}[i], figure.Combed, 0.85, figure.Open, pts)...)
		}
		return out
	}
	// The end of the piece rides on the middle strand, at its side: over and under with it.
	piece := func(b [3][]point, last int, bright float64) []strand {
		pts := line(118, 460, 0, 28, 110, 340, 0, 28, 96, 262, 0, 27, 78, 214, 10, 22)
		for _, p := range b[1][:last] {
			pts = append(pts, pt(p.X, p.Y+9, p.Z+1.5, 11))
		}
		return free("piece", figure.Twisted, figure.Piece, bright, figure.Tip, append(pts, pt(b[1][last].X, b[1][last].Y+9, b[1][last].Z+1.5, 6)))
	}
	return figure.Figure{Title: "At the start of a cornrow", Stage: figure.Lying, Frames: []frame{{
		Says:    "As the cornrow is begun, the end of the piece is laid on one strand and plaited with it as one.",
		Strands: with(strands(begun, 26), piece(begun, len(begun[1])-1, 1)),
		Arrows:  arrows(way(262, 236, 292, 236, 330, 232)),
		States:  holds("piece over upper", "piece under lower"),
	}, {
		Says:    "Over and under with it for some turns: it can't be lifted out, and no loop shows.",
		Strands: with(snug(strands(on, 0)), piece(on, len(on[1])*2/3, 0.3)),
		States:  holds("piece over upper", "piece under lower"),
	}}}
}

// shortBase is a plait that ends in sight.
func shortBase() []strand {
	return own("plait", figure.Plaited, 0, figure.Tip, line(180, 50, 0, 20, 180, 90, 0, 24, 180, 200, 0, 23, 180, 270, 0, 20, 180, 318, 0, 14))
}

func curls(name string, bright float64, pts ...float64) []strand {
	return free(name, figure.Curly, figure.Other, bright, figure.Tip, line(pts...))
}

// station is a small piece hitched on the plait at a height: its fold under the plait, its
// legs over it and through the fold; they hang over what is below.
func station(name string, y, bright float64) []strand {
	return with(
		free(name+"-fold", figure.Combed, figure.Other, bright, figure.Round, line(152, y, 2, 10, 162, y-10, -10, 11, 182, y-12, -24, 11, 204, y-7, -2, 11, 212, y+4, 12, 11, 200, y+14, 0, 11, 180, y+13, -24, 11, 160, y+9, -10, 11, 152, y+2, 2, 10)),
		curls(name, bright, 153, y+1, 6, 11, 144, y+9, 10, 14, 156, y+21, 22, 15, 180, y+11, 32, 15, 202, y+2, 14, 13, 222, y+10, -6, 16, 222, y+36, 20, 28, 196, y+66, 48, 40, 184, y+100, 52, 46, 192, y+132, 52, 44, 186, y+160, 52, 34))
}

// hitchedThere states that a station holds.
func hitchedThere(name string) []string {
	return []string{name + "-fold under plait 2", name + " over plait", name + " through " + name + "-fold 1"}
}

// tiedTip is a tail led once round and through its own turn, and drawn tight: an overhand knot, by the polynomial
// line of Shastri 1992, from memory.
func tiedTip() []point {
	out := line(180, 340, 14, 13)
	const n = 36
	for i := range n + 1 {
		t := -2.08 + 4.16*float64(i)/n
		out = append(out, pt(186+6.5*(math.Pow(t, 4)-4*t*t), 378+9*(math.Pow(t, 3)-3*t), 1.4*(math.Pow(t, 5)-10*t), 11))
	}
	return append(out, line(188, 424, 4, 16, 184, 452, 0, 18)...)
}

// braidedTip is own hair below a plait braided with the two legs of a piece that is folded over it, the tail tied.
func braidedTip() []strand {
	b := braid(26, 180, 290, 352, 11, 10, 1.9, 14, 12)
	legs := folded(b[0], b[2], 164, 280, 20, 12, 170, 268, 26, 11, 180, 264, 28, 11, 190, 268, 26, 11, 196, 280, 20, 12)
	return with(own("own", figure.Combed, 0, figure.Round, append(line(180, 262, 4, 13, 180, 276, 4, 13), b[1]...)),
		hair("tip", figure.Combed, figure.Other, 0.2, figure.Round, legs),
		hair("tail", figure.Combed, figure.Other, 0.2, figure.Tip, tiedTip()))
}

// stations: small pieces along one plait, from the tip upward; each covers the one below.
func stations() figure.Figure {
	base, braided := shortBase(), braidedTip()
	// The plait ends where its hair is taken into the braid.
	short := own("plait", figure.Plaited, 0, figure.Round, line(180, 50, 0, 20, 180, 90, 0, 24, 180, 200, 0, 23, 180, 250, 0, 20, 180, 272, 0, 17))
	return figure.Figure{Title: "Stack", Frames: []frame{{
		Says:    "The first piece is folded over the tip of the plait.",
		Strands: with(base, curls("tip", 1, 122, 400, 0, 20, 134, 340, 0, 22, 152, 296, 12, 18, 164, 280, 20, 12, 180, 274, 26, 11, 196, 280, 20, 12, 208, 296, 12, 18, 226, 340, 0, 22, 238, 400, 0, 20)),
		Arrows:  arrows(way(106, 300, 112, 340, 108, 386), way(254, 300, 248, 340, 252, 386)),
		States:  holds("tip over plait 1"),
	}, {
		Says:    "Its legs and own hair are braided as one; below own hair the tail goes round and through its own turn.",
		Strands: with(short, braided),
	}, {
		Says:    "The next is hitched on the body of the plait, above.",
		Strands: with(short, braided, station("body", 186, 1)),
		Arrows:  arrows(way(130, 300, 122, 250, 132, 200)),
		States:  holds(hitchedThere("body")...),
	}, {
		Says:    "The last at the root: each covers the knot of the one below.",
		Strands: with(short, braided, station("body", 186, 0), station("root", 94, 1)),
		States:  holds(append(hitchedThere("body"), hitchedThere("root")...)...),
	}}}
}

// rootFirst is the usual mistake: the root piece hangs over where the others belong.
func rootFirst() figure.Figure {
	return figure.Figure{Title: "The root first", Frames: []frame{{
		Says: "Wrong: the root piece went on first. What belongs below can no longer be reached.",
		Strands: with(shortBase(), station("root", 94, 0.4),
			hook{at: at(212, 214), toward: at(-1, 0), long: 120, z: 90, side: 1, open: 1, lift: 14, bright: 1}.strands()),
		Wrong:  &xy{X: 190, Y: 200},
		States: holds(append(hitchedThere("root"), "hook under plait 0")...),
	}}}
}

// lump is the usual mistake of a hidden knot: it is made with the whole leg.
func lump() figure.Figure {
	f := hiddenKnot()
	tight := f.Frames[len(f.Frames)-1]
	for i := range tight.Strands {
		s := &tight.Strands[i]
		switch s.Name {
		case "part":
			s.Line = slices.Clone(s.Line)
			for k := range s.Line {
				s.Line[k].W = 21
			}
		case "strand": // the one leg that is left
			s.Line = s.Line[len(s.Line)/4:]
			s.Bow = [2]float64{0.12, 0.42}
		}
	}
	return figure.Figure{Title: "A lump at the root", Frames: []frame{{
		Says: "Wrong: knotted with the whole leg. A lump shows at the root.", Strands: tight.Strands, Wrong: &xy{X: 200, Y: 112},
		States: holds("part over plait"),
	}}}
}

// thinStrand is the usual mistake of a split root.
func thinStrand() figure.Figure {
	f := splitRoot()
	hung := f.Frames[3]
	for i := range hung.Strands {
		if s := &hung.Strands[i]; s.Name == "small" {
			s.Line = slices.Clone(s.Line)
			for k := range s.Line {
				s.Line[k].W = 3.5
			}
		}
	}
	return figure.Figure{Title: "The small strand too thin", Frames: []frame{{
		Says: "Wrong: the small strand is too thin. It bears the whole piece by itself.", Strands: hung.Strands, Wrong: &xy{X: 222, Y: 108},
		States: holds("small through loop 1"),
	}}}
}

// acrossCornrow is the usual mistake on a cornrow.
func acrossCornrow() figure.Figure {
	return figure.Figure{Title: "Across the cornrow", Stage: figure.Lying, Frames: []frame{{
		Says: "Wrong: hooked straight across. The knot stands up on the cornrow, and shows.",
		Strands: with(cornrow(), looped(figure.Twisted, 0.4,
			line(172, 112, 8, 11, 152, 120, -12, 12, 154, 176, -30, 12, 162, 222, -4, 12, 184, 236, 12, 12, 206, 222, 0, 12, 212, 176, -30, 12, 206, 122, -12, 12, 184, 112, 8, 11),
			line(178, 116, 12, 16, 178, 96, 30, 22, 192, 92, 50, 26, 200, 116, 60, 28, 190, 160, 60, 28, 184, 200, 34, 24, 186, 228, -4, 22, 190, 262, -16, 24, 196, 320, 0, 27, 198, 460, 0, 27))),
		Wrong:  &xy{X: 184, Y: 160},
		States: holds("loop under cornrow 2", "piece over cornrow 1"),
	}}}
}
