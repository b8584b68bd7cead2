package moves

import "kladotex/core/method/figure"

// The braids made by hand from the root.
const (
	OwnStrand    ID = "own-strand"
	RunsOut      ID = "runs-out"
	WrappedThird ID = "wrapped-third"
	Halves       ID = "halves"
)

var braids = map[ID]func() figure.Figure{
	OwnStrand:    ownStrand,
	RunsOut:      runsOut,
	WrappedThird: wrappedThird,
	Halves:       halves,
}

// combed is own hair, unplaited, that hangs from the root.
func combed() []point {
	return along(28, 180, 48, -40, 14, 180, 80, -44, 22, 180, 130, -44, 24, 180, 250, -44, 24, 180, 404, -44, 16)
}

func ownHair(bright float64, pts []point) []strand {
	return own("hair", figure.Combed, bright, figure.Tip, pts)
}

func added(name string, tone figure.Tone, bright float64, pts []point) []strand {
	return free(name, figure.Combed, tone, bright, figure.Tip, pts)
}

// folded is a bundle folded over the root: up one leg, across, and down the other.
func folded(left, right []point, over ...float64) []point {
	return append(append(reversed(left), line(over...)...), right...)
}

// bundleU hangs over the root with two straight legs.
func bundleU(z, w float64) []point {
	return along(57, 96, 440, z, w-5, 100, 300, z, w, 108, 180, z, w, 126, 122, z, w, 156, 100, z, w, 180, 97, z, w, 204, 100, z, w, 234, 122, z, w, 252, 180, z, w, 260, 300, z, w, 264, 440, z, w-5)
}

// ownStrand: braiding hair folded round own hair, which is the third strand; when it
// runs out hair is borrowed from the others.
func ownStrand() figure.Figure {
	const n = 40
	// braided gives bundle and own hair, braided to y1 with the rest hanging; own hair
	// ends at a share of the way, and from there on what is borrowed goes on for it.
	braided := func(y1, turns, spread float64) (left, middle, right []point) {
		b := braid(n, 180, 124, y1, 17, 16, turns, 19, 15)
		for i := range b {
			end := b[i][n-1]
			for k := 1; k <= 4; k++ {
				u := float64(k) / 4
				b[i] = append(b[i], pt(end.X+(float64(i)-1)*spread*u, end.Y+(436-y1)*u, end.Z*(1-u), 15-3*u))
			}
		}
		return b[0], b[1], b[2]
	}
	at := func(y1, turns, spread float64, borrowed bool, bright float64) []strand {
		l, m, r := braided(y1, turns, spread)
		up := folded(l, r, 160, 112, 0, 19, 168, 98, -14, 20, 180, 94, -22, 20, 192, 98, -14, 20, 200, 112, 0, 19)
		own := append(line(180, 48, 0, 14, 180, 84, 2, 18, 178, 108, 2, 18), m...)
		if !borrowed {
			return snug(with(ownHair(bright, own), added("bundle", figure.Piece, bright*0.5, up)))
		}
		cut := 28
		short := append([]point{}, own[:cut]...)
		for i := range short {
			short[i].W *= 1 - 0.6*float64(i)/float64(cut)
		}
		from := append([]point{}, r[14:20]...)
		for i := range from {
			from[i].W = 7
			from[i].Z += 3
		}
		lent := append(from, own[cut-3:]...)
		for i := len(from); i < len(lent); i++ {
			lent[i].W = 14
		}
		return snug(with(ownHair(0.3, short), added("bundle", figure.Piece, 0, up), added("borrowed", figure.Other, bright, lent)))
	}
	return figure.Figure{Title: "Own hair as a strand", Frames: []frame{{
		Says:    "The section is combed smooth, not plaited; the bundle is taken at its middle.",
		Strands: with(ownHair(0, combed()), added("bundle", figure.Piece, 0.4, along(57, 250, 440, 20, 18, 254, 300, 20, 23, 262, 200, 20, 24, 274, 150, 20, 24, 290, 134, 20, 24, 304, 134, 20, 24, 318, 150, 20, 24, 328, 200, 20, 24, 334, 300, 20, 23, 338, 440, 20, 18))),
		Arrows:  arrows(way(292, 106, 262, 76, 204, 76)),
	}, {
		Says:    "Folded round own hair at the root: two strands of it, own hair between them is the third.",
		Strands: with(ownHair(0.4, along(28, 180, 48, 10, 14, 180, 80, 26, 22, 180, 130, 26, 24, 180, 250, 26, 24, 180, 404, 26, 16)), added("bundle", figure.Piece, 1, bundleU(0, 24))),
		Dots:    []xy{{X: 180, Y: 150}},
		States:  holds("hair over bundle 1"),
	}, {
		Says:    "Braided, the first turns close to the scalp, never so tight that the skin lifts.",
		Strands: at(210, 0.9, 40, false, 1),
		States:  holds("hair over bundle", "hair under bundle"),
	}, {
		Says:    "Before own hair ends a little is borrowed from the others: it goes on as the third strand.",
		Strands: at(330, 2.4, 34, true, 1),
		States:  holds("borrowed over bundle", "hair over bundle"),
	}, {
		Says:    "Braided on to the end, all three strands alike.",
		Strands: at(410, 3.3, 0, true, 0.4),
		States:  holds("borrowed over bundle", "borrowed under bundle"),
	}}}
}

// uneven is a braid in which one strand is thinner than the others from a share of its
// length on.
func uneven(from, thin float64) (left, middle, right []point) {
	b := braid(44, 180, 124, 420, 17, 16, 3.4, 21, 17)
	for i := range b[1] {
		if float64(i) > from*float64(len(b[1])) {
			b[1][i].W = thin
		}
	}
	return b[0], b[1], b[2]
}

// runsOut is the usual mistake: nothing was borrowed, and the third strand is thin.
func runsOut() figure.Figure {
	l, m, r := uneven(0.42, 4)
	up := folded(l, r, 160, 112, 0, 20, 168, 98, -14, 21, 180, 94, -22, 21, 192, 98, -14, 21, 200, 112, 0, 20)
	return figure.Figure{Title: "Own hair runs out", Frames: []frame{{
		Says:    "Wrong: own hair has run out, and the third strand is suddenly thin.",
		Strands: snug(with(ownHair(0.6, append(line(180, 48, 0, 14, 180, 84, 2, 18, 178, 108, 2, 18), m...)), added("bundle", figure.Piece, 0.2, up))),
		Wrong:   &xy{X: 180, Y: 300},
		States:  holds("hair over bundle"),
	}}}
}

// wrappedThird: a third of the bundle, wrapped once round the rest, is a strand of its own,
// so that nothing need be borrowed.
func wrappedThird() figure.Figure {
	const n = 57
	beside := func(x, w float64) []point {
		return along(n, x-18, 440, 30, w-4, x-16, 300, 30, w, x-13, 190, 30, w, x-6, 150, 30, w, x, 142, 30, w, x+6, 150, 30, w, x+13, 190, 30, w, x+16, 300, 30, w, x+18, 440, 30, w-4)
	}
	third := along(n, 168, 430, 26, 12, 168, 360, 26, 14, 168, 290, 26, 14, 166, 220, 26, 14, 162, 160, 26, 14, 156, 124, 28, 14, 156, 96, 30, 14, 164, 76, 0, 14, 176, 92, -28, 14, 182, 116, -22, 14, 190, 124, 16, 14, 197, 100, 30, 14, 199, 78, 0, 14, 204, 96, -28, 14, 200, 132, -20, 14, 194, 180, 0, 14, 190, 290, 10, 14, 190, 430, 10, 12)
	// done is everything braided to y1, with the ends spread.
	done := func(y1, turns, spread, bright float64) []strand {
		const m = 30
		b := braid(m, 180, 132, y1, 16, 16, turns, 20, 15)
		for i := range b {
			end := b[i][m-1]
			for k := 1; k <= 4; k++ {
				u := float64(k) / 4
				b[i] = append(b[i], pt(end.X+(float64(i)-1)*spread*u, end.Y+(430-y1)*u, end.Z*(1-u), 15-3*u))
			}
		}
		two := folded(b[0], b[2], 158, 120, 0, 20, 160, 104, 0, 21, 180, 94, 0, 22, 202, 102, 0, 21, 206, 118, 0, 20)
		var tl, tr []point
		hair := line(180, 48, -44, 14, 196, 108, -40, 12)
		for _, p := range b[1] {
			tl, tr = append(tl, pt(p.X-p.W*0.23, p.Y, p.Z, p.W*0.52)), append(tr, pt(p.X+p.W*0.23, p.Y, p.Z+0.1, p.W*0.52))
		}
		for _, p := range b[2] {
			hair = append(hair, pt(p.X-p.W*0.25, p.Y, p.Z+0.8, p.W*0.42))
		}
		th := folded(tl, tr, 168, 100, 30, 12, 173, 80, 0, 12, 180, 116, -26, 12, 188, 100, 30, 12, 192, 80, 0, 12, 198, 104, -28, 12, 192, 124, -20, 12)
		return snug(with(ownHair(bright, hair), added("two-thirds", figure.Piece, bright*0.4, two), added("third", figure.Other, bright, th)))
	}
	wrapped := holds("third over two-thirds", "third under two-thirds")
	return figure.Figure{Title: "A wrapped third", Frames: []frame{{
		Says:    "The bundle is parted: one third, and two thirds.",
		Strands: with(ownHair(0, combed()), added("two-thirds", figure.Piece, 1, beside(262, 24)), added("third", figure.Other, 1, beside(324, 12))),
		Arrows:  arrows(way(292, 112, 280, 112, 258, 112), way(298, 112, 312, 112, 332, 112)),
	}, {
		Says:    "The two thirds are laid to the root, under which own hair hangs.",
		Strands: with(ownHair(0, combed()), added("two-thirds", figure.Piece, 0.8, bundleU(0, 24)), added("third", figure.Other, 0.2, beside(318, 13))),
		Arrows:  arrows(way(316, 116, 286, 76, 214, 76)),
		States:  holds("hair under two-thirds 1"),
	}, {
		Says:    "The third is wrapped once round the rest, and its ends together are a strand of their own.",
		Strands: with(ownHair(0, combed()), added("two-thirds", figure.Piece, 0, bundleU(0, 24)), added("third", figure.Other, 1, third)),
		Lens:    &figure.Lens{At: at(180, 104), To: at(296, 320), Scale: 1.7, Radius: 60},
		States:  holds("third over two-thirds 2", "third under two-thirds 2", "hair under two-thirds 1"),
	}, {
		Says: "Own hair is laid into one of the strands: three in all.",
		Strands: with(ownHair(1, along(28, 180, 48, -40, 14, 190, 78, -44, 22, 208, 116, -30, 18, 234, 180, 22, 14, 250, 240, 22, 13, 266, 320, 22, 13, 270, 400, 22, 9)),
			added("two-thirds", figure.Piece, 0, bundleU(0, 24)), added("third", figure.Other, 0.3, third)),
		Arrows: arrows(way(300, 226, 282, 230, 258, 228)),
		States: holds("third over two-thirds 2", "hair over two-thirds"),
	}, {
		Says:    "Braided, the first turns close to the scalp; nothing is borrowed.",
		Strands: done(230, 1.1, 38, 0.9),
		States:  wrapped,
	}, {
		Says:    "On to the end: three strands alike all the way.",
		Strands: done(410, 2.9, 0, 0.4),
		States:  wrapped,
	}}}
}

// halves is the usual mistake: two thick strands and a thin one.
func halves() figure.Figure {
	l, m, r := uneven(0, 8)
	up := folded(l, r, 158, 112, 0, 23, 166, 96, 0, 24, 180, 92, 0, 24, 194, 96, 0, 24, 202, 112, 0, 23)
	return figure.Figure{Title: "Parted in halves", Frames: []frame{{
		Says:    "Wrong: the bundle was parted in halves. Two strands are thick, the third is thin.",
		Strands: snug(with(ownHair(0, line(180, 48, -30, 14, 180, 90, -30, 18, 176, 130, -20, 10)), added("two-thirds", figure.Piece, 0.3, up), added("third", figure.Other, 0.6, append(line(176, 92, 24, 8, 182, 110, 24, 8), m...)))),
		Wrong:   &xy{X: 180, Y: 200},
		States:  holds("third over two-thirds"),
	}}}
}
