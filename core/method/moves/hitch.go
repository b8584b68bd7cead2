package moves

import "kladotex/core/method/figure"

// The hitches.
const (
	RootHitch      ID = "root-hitch"
	RootHitchBraid ID = "root-hitch-braid"
	SharedHitch    ID = "shared-hitch"
)

var hitches = map[ID]func() figure.Figure{
	RootHitch:      func() figure.Figure { return rootHitch(figure.Twisted) },
	RootHitchBraid: func() figure.Figure { return rootHitch(figure.Plaited) },
	SharedHitch:    func() figure.Figure { return sharedHitch() },
}

// hookedUnder are the first frames of most methods: the hook goes under the plait from A to
// B, the loop is laid in and the latch shut, and it is drawn back to A.
func hookedUnder(of figure.Material) []frame {
	hk := func(x, open, bright float64) []strand {
		return hook{at: at(x, 94), toward: at(-1, 0), long: 168, z: -26, side: 1, open: open, lift: 14, bright: bright}.strands()
	}
	hang := func(x, y float64) []point {
		return line(x, y, 6, 14, x-8, y+22, 4, 20, x-14, y+90, 0, 26, x-18, y+190, 0, 27, x-18, 450, 0, 26)
	}
	return []frame{{
		Says: "The open hook goes under the plait; its point shows on the far side.",
		Strands: with(plait(), looped(of, 0,
			line(84, 246, 0, 11, 68, 226, 0, 12, 58, 194, 0, 12, 66, 168, 0, 12, 86, 156, 0, 12, 106, 168, 0, 12, 112, 196, 0, 12, 102, 226, 0, 12, 88, 246, 0, 11), hang(86, 242)),
			hk(80, 1, 1)),
		Arrows: arrows(way(330, 140, 300, 140, 214, 140), way(118, 168, 132, 150, 128, 122)),
		States: holds("hook under plait 1"),
	}, {
		Says: "The loop is laid into the hook and the latch shut over it.",
		Strands: with(plait(), looped(of, 1,
			line(62, 176, 0, 11, 50, 150, -4, 12, 56, 104, -12, 12, 80, 64, -18, 12, 104, 62, -19, 12, 111, 88, -19, 12, 104, 120, -18, 12, 86, 150, -6, 12, 66, 176, 0, 11), hang(64, 172)),
			hk(80, 0, 0.2)),
		Arrows: arrows(way(214, 140, 250, 140, 320, 140)),
		States: holds("hook under plait 1", "loop over hook 1", "loop under latch 1"),
	}, {
		Says: "Drawn back: the loop lies under the plait, the piece still hangs on the far side.",
		Strands: with(plait(), looped(of, 1,
			line(106, 130, -2, 11, 110, 112, -8, 12, 134, 92, -20, 12, 180, 78, -28, 12, 240, 68, -19, 12, 259, 88, -19, 12, 240, 116, -19, 12, 180, 120, -28, 12, 110, 131, -2, 11), hang(107, 127)),
			hk(228, 0, 1)),
		States: holds("loop under plait 2", "hook under plait 0"),
	}}
}

// openLoop is the loop under the plait, its bow held open at A.
func openLoop() []point {
	return line(112, 100, -4, 12, 132, 84, -18, 12, 180, 76, -28, 12, 238, 74, -8, 12, 272, 102, 8, 12, 238, 132, -8, 12, 180, 128, -28, 12, 132, 120, -18, 12, 112, 104, -4, 12)
}

// rootHitch: loop under the plait, the piece over it and through its own loop, drawn tight.
func rootHitch(of figure.Material) figure.Figure {
	held := holds("loop under plait 2", "piece over plait 1", "piece through loop 1")
	over := frame{
		Says: "The tail of the piece comes over the plait to the loop.",
		Strands: with(plait(), looped(of, 0.9, openLoop(),
			line(118, 102, 2, 15, 94, 107, 2, 22, 72, 140, 0, 26, 64, 190, 4, 26, 80, 232, 14, 26, 116, 226, 24, 26, 148, 196, 32, 26, 180, 158, 32, 26, 208, 124, 26, 25, 232, 98, 10, 20))),
		Arrows: arrows(way(258, 86, 300, 96, 314, 160)),
		States: holds("loop under plait 2", "piece over plait 1"),
	}
	start := frame{
		Via: true,
		Strands: with(plait(), looped(of, 0.9, openLoop(),
			line(118, 102, 2, 15, 96, 107, 2, 22, 76, 140, 0, 27, 68, 190, 0, 27, 66, 240, 0, 27, 65, 290, 0, 27, 64, 330, 0, 27, 64, 370, 0, 27, 65, 410, 0, 27, 66, 450, 0, 27))),
	}
	into := frame{
		Via: true,
		Strands: with(plait(), looped(of, 0.9, openLoop(),
			line(118, 102, 2, 15, 92, 107, 2, 22, 74, 136, 2, 25, 76, 176, 8, 25, 104, 190, 16, 25, 142, 164, 28, 25, 186, 126, 34, 24, 230, 101, 8, 22, 268, 108, -18, 22, 290, 130, -16, 20))),
	}
	through := frame{
		Says: "It goes through the loop, all of it.",
		Strands: with(plait(), looped(of, 0.9, openLoop(),
			line(118, 102, 2, 15, 94, 107, 2, 21, 84, 130, 6, 23, 106, 152, 14, 23, 144, 142, 28, 23, 182, 118, 34, 23, 228, 102, 8, 22, 280, 122, -20, 24, 304, 220, 0, 27, 304, 450, 0, 27))),
		Arrows: arrows(way(336, 230, 336, 300, 336, 370)),
		States: held,
	}
	tight := frame{
		Says: "Plait and piece drawn apart: the hitch sits snug at the root.",
		Strands: with(plait(), looped(of, 0,
			line(152, 94, -4, 12, 158, 84, -14, 12, 180, 80, -28, 12, 208, 78, -2, 12, 227, 96, 18, 12, 208, 116, -2, 12, 180, 112, -28, 12, 160, 108, -14, 12, 152, 98, -4, 12),
			line(156, 97, 2, 14, 144, 100, 3, 17, 138, 114, 6, 20, 148, 128, 16, 21, 168, 122, 28, 21, 188, 108, 32, 21, 208, 99, 14, 20, 232, 112, -4, 22, 238, 200, 0, 27, 242, 450, 0, 27))),
		Arrows: arrows(way(270, 260, 290, 310, 294, 366), way(146, 316, 130, 350, 120, 394)),
		Lens:   &figure.Lens{At: at(184, 100), To: at(82, 218), Scale: 1.75, Radius: 78},
		States: held,
	}
	return figure.Figure{Title: "Root hitch", Frames: append(hookedUnder(of), start, over, into, through, tight)}
}

// sharedHitch: plait and piece go through the loop together.
func sharedHitch() figure.Figure {
	return figure.Figure{Title: "Shared hitch", Frames: hookedUnder(figure.Locked)}
}
