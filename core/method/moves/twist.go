package moves

import (
	"math"
	"slices"

	"kladotex/core/method/figure"
)

// The moves in which own hair becomes part of a twist.
const (
	AnchorTwist  ID = "anchor-twist"
	OneSided     ID = "one-sided"
	FoldTwist    ID = "fold-twist"
	SameWay      ID = "same-way"
	Twine        ID = "twine"
	TwineAgainst ID = "twine-against"
)

var twists = map[ID]func() figure.Figure{
	AnchorTwist:  anchorTwist,
	OneSided:     oneSided,
	FoldTwist:    foldTwist,
	SameWay:      sameWay,
	Twine:        twine,
	TwineAgainst: twineAgainst,
}

// bulk is a strand of loose hair with two tips.
func bulk(bright float64, pts []point) []strand {
	return free("strand", figure.Combed, figure.Other, bright, figure.Tip, pts)
}

// inHook is a bulk strand with its middle laid into a hook that is pushed under the root.
func inHook() []point {
	return along(44, 40, 450, 0, 15, 44, 300, 0, 16, 60, 170, 0, 16, 92, 84, -19, 14, 112, 68, -19, 14, 126, 84, -19, 14, 116, 150, -8, 15, 104, 250, 0, 16, 96, 450, 0, 15)
}

// astride is a bulk strand drawn half under the root, with a leg on either side.
func astride(out float64) []point {
	return along(44, 180-out-4, 430, 0, 12, 180-out, 300, 0, 16, 180-out+10, 190, 0, 16, 146, 116, -10, 16, 180, 94, -30, 16, 214, 116, -10, 16, 180+out-10, 190, 0, 16, 180+out, 300, 0, 16, 180+out+4, 430, 0, 12)
}

// pair puts a strand on one of two ways that are twisted round each other from y = 150 on:
// start is the angle, beside how far from the middle of its way.
func pair(n int, start, beside, turns, w0, w1 float64) []point {
	out := helix(n, 180, 150, 424, 16, start, turns, w0, w1)
	for i := range out {
		out[i].X += beside
		out[i].Z += beside * 0.02
	}
	return out
}

// joined is a bulk strand whose legs are twisted round each other.
func joined(turns, w float64) []point {
	const n = 30
	legs := reversed(pair(n, math.Pi, -7, turns, w, w-2))
	legs = append(legs, line(150, 114, -8, 15, 180, 94, -30, 15, 210, 114, -8, 15)...)
	return append(legs, pair(n, 0, 7, turns, w, w-2)...)
}

func anchor() []strand {
	s := own("anchor", figure.Plaited, 0, figure.Round, line(180, 50, 18, 24, 180, 70, 18, 32, 180, 100, 18, 34, 180, 130, 18, 32))
	return s
}

// anchorTwist: a strand drawn half under the anchor turns, own twist undone, each leg
// takes one half, the legs twisted round each other.
func anchorTwist() figure.Figure {
	half := func(name string, bright float64, pts []point) []strand {
		return own(name, figure.Combed, bright, figure.Tip, pts)
	}
	twisted := func(start float64) []point { return helix(36, 180, 112, 400, 9, start, 2.5, 16, 11) }
	undone := func(side, out float64) []point {
		return along(20, 180+side*6, 118, 0, 14, 180+side*22, 150, 2, 14, 180+side*(out-14), 200, 2, 14, 180+side*out, 290, 2, 14, 180+side*(out+6), 400, 2, 9)
	}
	hanging := with(half("left half", 0, twisted(math.Pi)), half("right half", 0, twisted(0)), anchor())
	under := holds("strand under anchor 1")
	last := func(turns float64) []strand {
		l := append(line(174, 120, 0, 12, 170, 136, 2, 12), pair(30, math.Pi, 7, turns, 13, 9)...)
		r := append(line(186, 120, 0, 12, 190, 136, 0, 12), pair(30, 0, -7, turns, 13, 9)...)
		return with(half("left half", 0.5, l), half("right half", 0.5, r), anchor(), bulk(0.8, joined(turns, 15)))
	}
	return figure.Figure{Title: "Anchor and twist", Frames: []frame{{
		Says:    "The hook goes under the anchor turns; the strand's middle is laid in, the latch shut.",
		Strands: with(hanging, bulk(1, inHook()), sideways(100, 94, 0, 0.4)),
		Arrows:  arrows(way(230, 140, 270, 140, 336, 140)),
		States:  holds("hook under anchor 1", "strand over hook 1", "strand under latch 1"),
	}, {
		Says:    "Drawn half through: a leg on either side, both of one length.",
		Strands: with(hanging, bulk(1, astride(72))),
		Arrows:  arrows(way(76, 300, 72, 340, 70, 386), way(284, 300, 288, 340, 290, 386)),
		States:  under,
	}, {
		Says:    "Own twist below the anchor is undone into two even halves.",
		Strands: with(half("left half", 1, undone(-1, 38)), half("right half", 1, undone(1, 38)), anchor(), bulk(0, astride(98))),
		Arrows:  arrows(way(210, 150, 206, 176, 186, 186, 160, 180, 150, 160)),
		States:  under,
	}, {
		Says:    "Each leg takes one half.",
		Strands: with(half("left half", 1, undone(-1, 50)), half("right half", 1, undone(1, 50)), anchor(), bulk(0.4, astride(68))),
		Arrows:  arrows(way(284, 290, 286, 350, 250, 388, 196, 392)),
		States:  under,
	}, {
		Says:    "The two are twisted round each other, own hair inside.",
		Strands: last(0.75),
		Arrows:  arrows(way(270, 330, 266, 376, 226, 398, 180, 400)),
		States:  under,
	}, {
		Says:    "Down to the tip, even and not too tight.",
		Strands: last(2),
		States:  under,
	}}}
}

// oneSided is the usual mistake: all own hair with one leg.
func oneSided() figure.Figure {
	both := append(line(182, 120, 0, 20, 190, 136, 0, 22), pair(30, 0, -6, 2, 26, 18)...)
	return figure.Figure{Title: "All with one leg", Frames: []frame{{
		Says: "Wrong: all own hair goes with one leg. That side is thick, and the twist turns over.",
		Strands: with(own("right half", figure.Combed, 0.5, figure.Tip, both), anchor(),
			bulk(0.6, joined(2, 12))),
		Wrong:  &xy{X: 180, Y: 260},
		States: holds("strand under anchor 1"),
	}}}
}

// foldTwist: a strand half under the root of the plait; the plait rides with one leg, each
// leg is twisted one way and both round each other the other way.
func foldTwist() figure.Figure {
	riding := func(bright float64, pts []point) []strand {
		return own("plait", figure.Plaited, bright, figure.Tip, pts)
	}
	straight := line(180, 50, 0, 20, 180, 90, 0, 25, 180, 180, 0, 22, 180, 270, 0, 18, 180, 350, 0, 11)
	leg := func(name string, of figure.Material, bright float64, pts []point) []strand {
		return hair(name, of, figure.Other, bright, figure.Tip, pts)
	}
	under := line(142, 122, -10, 16, 156, 102, -22, 16, 180, 94, -30, 16, 204, 102, -22, 16, 218, 122, -10, 16)
	bridge := hair("strand", figure.Combed, figure.Other, 0, figure.Open, under)
	leftWay := func(out float64) []point {
		return along(24, 142, 122, -10, 16, 180-out+10, 190, 0, 18, 180-out, 300, 0, 18, 180-out-4, 430, 0, 13)
	}
	legs := func(of figure.Material, out, bright float64) []strand {
		return with(bridge,
			leg("left leg", of, bright, leftWay(out)),
			leg("right leg", of, bright, along(24, 218, 122, -10, 16, 180+out-10, 190, 0, 18, 180+out, 300, 0, 18, 180+out+4, 430, 0, 13)))
	}
	// round closes the left leg round the plait, wide enough to hold it; open is 1 while one still sees in.
	round := func(s []strand, open float64) []strand {
		for i := range s {
			if s[i].Name == "left leg" {
				s[i].Line = slices.Clone(s[i].Line)
				for k := 2; k < len(s[i].Line); k++ {
					s[i].Line[k].W *= 1 + 0.6*open
				}
				s[i].Tube = &figure.Tube{From: 0.12, To: 0.76, Open: open}
			}
		}
		return s
	}
	// inside is the plait from its root over the strand and into the leg, down its middle.
	inside := func(way []point, to float64) []point {
		out := line(180, 50, 0, 20, 179, 82, 0, 22, 168, 104, 8, 18, 154, 120, 18, 14)
		for _, p := range way {
			if p.Y > 142 && p.Y < to {
				out = append(out, pt(p.X, p.Y, p.Z, 11-4*(p.Y-142)/(to-142)))
			}
		}
		return figure.Along(out, 40)
	}
	twisted := func(turns, bright float64) []strand {
		left := append(line(142, 122, -10, 16, 150, 138, -4, 18), pair(34, math.Pi, 0, -turns, 20, 14)...)
		right := append(line(218, 122, -10, 16, 208, 138, -4, 18), pair(34, 0, 0, -turns, 20, 14)...)
		return with(bridge, round(leg("left leg", figure.Twisted, bright, left), 0), leg("right leg", figure.Twisted, bright, right), riding(bright*0.5, inside(left, 360)))
	}
	hidden := state{A: "plait", Is: figure.Inside, B: "left leg", Times: 1}
	held := holds("strand under plait 1")
	return figure.Figure{Title: "Fold and twist", Frames: []frame{{
		Says:    "The hook goes under the root of the plait; the strand's middle is laid in, the latch shut.",
		Strands: with(riding(0, straight), sideways(100, 94, 0, 0.4), bulk(1, inHook())),
		Arrows:  arrows(way(230, 140, 270, 140, 336, 140)),
		States:  holds("hook under plait 1", "strand over hook 1", "strand under latch 1"),
	}, {
		Says:    "Drawn half through: two even legs, the plait between them.",
		Strands: with(riding(0, straight), legs(figure.Combed, 76, 1)),
		Arrows:  arrows(way(70, 300, 66, 340, 64, 386), way(290, 300, 294, 340, 296, 386)),
		States:  held,
	}, {
		Says:    "The plait is laid inside one leg, and its hair closed round it.",
		Strands: with(riding(1, inside(leftWay(64), 366)), round(legs(figure.Combed, 64, 0), 1)),
		Arrows:  arrows(way(196, 250, 172, 262, 146, 262)),
		States:  append(holds("strand under plait 1"), hidden),
	}, {
		Says:    "Each leg is turned on itself, both the same way.",
		Strands: with(riding(0.4, inside(leftWay(56), 366)), round(legs(figure.Twisted, 56, 1), 0)),
		Arrows:  arrows(way(92, 384, 116, 398, 148, 386), way(208, 384, 232, 398, 264, 386)),
		States:  append(holds("strand under plait 1"), hidden),
	}, {
		Says:    "And round each other the other way: so they hold each other.",
		Strands: twisted(0.8, 0.9),
		Arrows:  arrows(way(270, 330, 266, 376, 226, 398, 180, 400)),
		States:  append(holds("strand under plait 1"), hidden),
	}, {
		Says:    "Down to the tip; the plait stays inside its leg to its end.",
		Strands: twisted(2.2, 0.3),
		States:  append(holds("strand under plait 1"), hidden),
	}}}
}

// sameWay is the usual mistake: legs and twist turned the same way, which spring open.
func sameWay() figure.Figure {
	spring := func(start float64) []point {
		out := helix(30, 180, 150, 400, 44, start, 1.1, 18, 13)
		for i := range out {
			out[i].X += 10 * math.Sin(float64(i)*0.9+start)
		}
		return out
	}
	left := append(line(142, 122, -10, 16, 140, 138, -4, 18), spring(math.Pi)...)
	right := append(line(218, 122, -10, 16, 220, 138, -4, 18), spring(0)...)
	return figure.Figure{Title: "Turned the same way", Frames: []frame{{
		Says: "Wrong: legs and twist all turned the same way. It springs open.",
		Strands: with(own("plait", figure.Plaited, 0, figure.Tip, line(180, 50, 0, 20, 180, 90, 0, 25, 182, 180, 0, 22, 178, 270, 0, 18, 182, 350, 0, 11)),
			hair("strand", figure.Combed, figure.Other, 0, figure.Open, line(142, 122, -10, 16, 156, 102, -22, 16, 180, 94, -30, 16, 204, 102, -22, 16, 218, 122, -10, 16)),
			hair("left leg", figure.Twisted, figure.Other, 0.4, figure.Tip, left), hair("right leg", figure.Twisted, figure.Other, 0.4, figure.Tip, right)),
		Wrong:  &xy{X: 180, Y: 270},
		States: holds("strand under plait 1"),
	}}}
}

// twineTurn is the height of one turn of a twisted piece, so that what is wound along lies
// in its furrow.
const twineTurn = 51.0

// twinePiece hangs from a shared hitch, with a gap low down.
func twinePiece(gap bool) []strand {
	body := slices.Concat(sharedNeck, line(200, 136, 4, 22, 202, 156, 0, 32, 202, 200, 0, 34, 202, 300, 0, 34, 202, 450, 0, 32))
	s := looped(figure.Twisted, 0, sharedRing, body)
	if gap {
		for i := range s {
			if s[i].Name == "piece" {
				s[i].Tube = &figure.Tube{From: 0.4, To: 0.6, Mouths: []figure.Mouth{{At: shareAt(body, 324), Across: -0.25, Half: 9}}}
			}
		}
	}
	return s
}

// twined is own twist wound round the piece; way is 1 with the piece, -1 against it.
func twined(turns, way float64) []point {
	out := line(180, 48, 0, 20, 179, 84, 0, 23, 176, 116, 4, 19)
	n := int(turns * 12)
	for k := 0; k <= n; k++ {
		t := float64(k) / 12
		sin, cos := math.Sincos(math.Pi*0.8 + way*2*math.Pi*t)
		out = append(out, pt(203+19*cos, 138+twineTurn*t, 26*math.Tanh(1.8*sin), 15-5*t/4))
	}
	return out
}

func ownTwist(bright float64, pts []point) []strand {
	return own("twist", figure.Twisted, bright, figure.Tip, pts)
}

// twine: own twist is wound round the piece in the piece's own direction and its tip
// locked in a gap.
func twine() figure.Figure {
	wound := func(from, to, bright float64) []strand {
		s := ownTwist(bright, twined(to, 1))
		s[0].Way = func(u float64) []point { return twined(from+(to-from)*u, 1) }
		return s
	}
	locked := func(bright float64, more ...float64) []strand {
		return ownTwist(bright, append(twined(3, 1), line(more...)...))
	}
	round := holds("twist over piece", "twist under piece")
	return figure.Figure{Title: "Twine and lock", Frames: []frame{{
		Says:    "Hitched with its loop round both, own twist hangs beside the piece.",
		Strands: with(twinePiece(true), ownTwist(0.6, along(24, 180, 48, 0, 20, 179, 84, 0, 23, 170, 120, 4, 20, 150, 190, 0, 17, 142, 270, 0, 14, 140, 340, 0, 8))),
		Arrows:  arrows(way(108, 200, 100, 240, 112, 280)),
	}, {
		Says:    "It is wound round the piece in the piece's own direction, in its groove.",
		Strands: with(twinePiece(true), wound(0.2, 1.6, 1)),
		Arrows:  arrows(way(256, 200, 262, 240, 254, 280)),
		States:  round,
	}, {
		Says:    "To its tip.",
		Strands: with(twinePiece(true), wound(1.6, 3.3, 1)),
		Arrows:  arrows(way(254, 300, 250, 330, 222, 344)),
		States:  round,
	}, {
		Says:    "The tip is poked through a small gap in the piece, which closes over it.",
		Strands: with(twinePiece(true), locked(0.8, 176, 312, 22, 8, 190, 322, 24, 8, 200, 328, 2, 7, 206, 340, 0, 6)),
		Lens:    &figure.Lens{At: at(196, 322), To: at(84, 318), Scale: 1.9, Radius: 72},
		States:  append(holds("twist inside piece 1"), round...),
	}}}
}

// twineAgainst is the usual mistake: wound against the piece, across its furrows.
func twineAgainst() figure.Figure {
	return figure.Figure{Title: "Wound against", Frames: []frame{{
		Says:    "Wrong: wound against the piece's own direction, it crosses the grooves and shows.",
		Strands: with(twinePiece(false), ownTwist(0.7, twined(3.3, -1))),
		Wrong:   &xy{X: 203, Y: 230},
		States:  holds("twist over piece", "twist under piece"),
	}}}
}
