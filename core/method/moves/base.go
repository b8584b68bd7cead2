package moves

import (
	"fmt"

	"kladotex/core/method/figure"
)

// The bases that pieces hang on, other than a plait.
const (
	Net   ID = "net"
	Link  ID = "link"
	Merge ID = "merge"

	PlaitOver  ID = "plait-over"
	PlaitUnder ID = "plait-under"

	FeedIn  ID = "feed-in"
	FedLump ID = "fed-lump"
)

var bases = map[ID]func() figure.Figure{
	Net:   net,
	Link:  link,
	Merge: merge,

	PlaitOver:  func() figure.Figure { return plaiting(figure.Over) },
	PlaitUnder: func() figure.Figure { return plaiting(figure.Under) },

	FeedIn:  feedIn,
	FedLump: fedLump,
}

// mesh is a net laid over what lies on the scalp.
func mesh() (out []strand) {
	thread := func(name string, pts []point) {
		s := hair(name, figure.Elastic, figure.Rubber, 0, figure.Open, pts)
		s[0].Snug = true
		out = append(out, s...)
	}
	for i := range 8 {
		x := 20 + 46*float64(i)
		thread(fmt.Sprintf("down-%d", i), line(x-20, 104, 24, 4, x-4, 150, 26, 4, x+8, 200, 26, 4, x+24, 244, 24, 4))
		thread(fmt.Sprintf("up-%d", i), line(x+24, 104, 25, 4, x+8, 150, 27, 4, x-4, 200, 27, 4, x-20, 244, 25, 4))
	}
	for i, y := range []float64{104, 244} {
		thread(fmt.Sprintf("edge-%d", i), line(-10, y, 30, 7, 180, y-4, 30, 7, 370, y, 30, 7))
	}
	return out
}

// net: laid over flat plaits; the hook goes through the net and under the plait, both at
// once.
func net() figure.Figure {
	hk := layered(hook{at: at(104, 112), toward: at(-0.82, -0.57), long: 196, side: -1, open: 1, lift: 8, bright: 1}.strands(), 44,
		func(p point) bool { return p.Y > 140 && p.Y < 204 }, -26, 48)
	return figure.Figure{Title: "Net", Stage: figure.Lying, Frames: []frame{{
		Says:    "The net lies smooth over the cornrows, its edge set back from the hairline and off the part line.",
		Strands: with(cornrow(), mesh()),
		States:  holds("down-3 over cornrow 1", "up-4 over cornrow 1"),
	}, {
		Says:    "The hook goes through the net and under the plait below it, both at once.",
		Strands: with(cornrow(), mesh(), hk),
		Arrows:  arrows(way(336, 262, 300, 238, 264, 212)),
		States:  holds("hook under cornrow 1", "hook under down-3", "handle over edge-1"),
	}}}
}

// flat turns a braid that hangs into one that lies from x0 to x1 along a height.
func flat(n int, y, x0, x1, half, depth, turns, w float64) (out [3][]point) {
	for i, b := range braid(n, y, x0, x1, half, depth, turns, w, w) {
		for _, p := range b {
			out[i] = append(out[i], pt(p.Y, p.X, p.Z, p.W))
		}
	}
	return out
}

// lyingBraid is three strands that are taken from their places and plaited flat.
func lyingBraid(names [3]string, of [3]figure.Material, from [3][]point, x0, x1, turns, spread float64) (out []strand) {
	b := flat(34, 170, x0, x1, 14, 13, turns, 17)
	for i := range b {
		pts := append(append([]point{}, from[i]...), b[i]...)
		if spread > 0 { // the ends fan out as they lie, none over another once more
			end := b[i][len(b[i])-1]
			rank := -1.0
			for _, other := range b {
				if other[len(other)-1].Y < end.Y {
					rank++
				}
			}
			aside := rank * spread
			pts = append(pts, pt(end.X+60, end.Y+aside, 0, 15), pt(end.X+150, end.Y+aside*1.4, 0, 14))
		}
		out = append(out, own(names[i], of[i], 0.85, figure.Open, pts)...)
	}
	return out
}

// link: a plait is taken as one of the strands into the section behind it.
func link() figure.Figure {
	names := [3]string{"upper", "first", "lower"}
	of := [3]figure.Material{figure.Combed, figure.Plaited, figure.Combed}
	from := [3][]point{line(178, 124, 0, 10, 188, 140, 0, 13), line(24, 168, 0, 20, 60, 170, 0, 24, 130, 170, 0, 22, 180, 170, 0, 18), line(178, 216, 0, 10, 188, 200, 0, 13)}
	return figure.Figure{Title: "Linked plaits", Stage: figure.Lying, Frames: []frame{{
		Says:    "The first plait, worked back a few turns, is taken as one of the three strands of the section behind it.",
		Strands: lyingBraid(names, of, from, 212, 266, 0.5, 30),
		Arrows:  arrows(way(84, 126, 120, 126, 160, 130)),
	}, {
		Says:    "Plaited on: so each is laid into the next, to the end of the chain.",
		Strands: snug(lyingBraid(names, of, from, 212, 400, 2.4, 0)),
		States:  holds("first over upper", "lower over first"),
	}}}
}

// plaiting is how the outer strand goes: over the middle one or under it.
func plaiting(outer figure.Relation) figure.Figure {
	depth, says := 14.0, "The outer strand goes over the middle one, right and left in turn: a ridge stands at the root."
	if outer == figure.Under {
		depth, says = -14, "The outer strand goes under the middle one, right and left in turn: the root lies flat."
	}
	strands := func(y1, half, turns, spread, bright float64) []strand {
		names := [3]string{"left", "middle", "right"}
		var out []strand
		for i, b := range braid(30, 180, 84, y1, half, depth, turns, 22, 18) {
			end := b[len(b)-1]
			b = append([]point{pt(168+12*float64(i), 48, 0, 12)}, b...)
			for k := 1; k <= 4; k++ {
				u := float64(k) / 4
				b = append(b, pt(end.X+(end.X-180)/half*spread*u, end.Y+u*(410-y1), end.Z*(1-u), 18-8*u))
			}
			out = append(out, own(names[i], figure.Combed, bright-0.3*float64(i), figure.Tip, b)...)
		}
		return out
	}
	// Of two strands that cross, one always lies over the other, in a plait of three.
	first, second := "left", "right"
	if outer == figure.Under {
		first, second = second, first
	}
	crosses := holds(first+" over "+second, second+" over middle", "middle over "+first)
	return figure.Figure{Title: "Plait", Frames: []frame{{
		Says: says, Strands: strands(214, 36, 1.2, 26, 0.8), States: crosses,
	}, {
		Says: "Plaited down, each turn as firm as the last.", Strands: snug(strands(390, 18, 3.6, 0, 0.7)), States: crosses,
	}}}
}

// merge: thin cornrows become the strands of one.
func merge() figure.Figure {
	names := [3]string{"upper", "middle", "lower"}
	of := [3]figure.Material{figure.Plaited, figure.Plaited, figure.Plaited}
	from := [3][]point{line(-10, 112, 0, 18, 60, 114, 0, 18, 120, 136, 0, 17, 150, 152, 0, 16), line(-10, 170, 0, 18, 60, 170, 0, 18, 120, 170, 0, 17, 150, 170, 0, 16), line(-10, 228, 0, 18, 60, 226, 0, 18, 120, 204, 0, 17, 150, 188, 0, 16)}
	return figure.Figure{Title: "Merging cornrows", Stage: figure.Lying, Frames: []frame{{
		Says:    "Thin cornrows come together after the stated way; each becomes one of the strands.",
		Strands: lyingBraid(names, of, from, 180, 236, 0.5, 30),
		Arrows:  arrows(way(196, 120, 236, 130, 276, 150)),
	}, {
		Says:    "Plaited on as one: only one tail is left.",
		Strands: snug(lyingBraid(names, of, from, 180, 400, 2.6, 0)),
		States:  holds("middle over upper", "lower over middle"),
	}}}
}

// fed is a cornrow plaited from x 132 to x1, with hair fed in at its middle strand and at the next
// one, so thick; none where that is 0.
func fed(x1, turns, thick, bright float64) (out []strand) {
	names := [3]string{"upper", "middle", "lower"}
	from := [3][]point{
		line(-10, 150, 0, 13, 60, 154, 0, 13, 110, 160, 0, 14), line(-10, 170, 0, 13, 60, 170, 0, 13, 110, 170, 0, 14), line(-10, 190, 0, 13, 60, 186, 0, 13, 110, 180, 0, 14),
	}
	b := flat(44, 170, 132, x1, 15, 13, turns, 17)
	for i := range b {
		out = append(out, own(names[i], figure.Combed, 0.3, figure.Open, append(append([]point{}, from[i]...), b[i]...))...)
	}
	if thick == 0 {
		return out
	}
	// Each bit lies free from above, and from where it is laid in it goes with a strand.
	for k, bit := range []struct {
		with, at int
		x        float64
	}{{1, 5, 96}, {0, 15, 176}} {
		pts := line(bit.x, 92, 30, thick*0.8, bit.x+18, 118, 30, thick)
		for _, p := range b[bit.with][bit.at:] {
			pts = append(pts, pt(p.X, p.Y, p.Z+2.5, thick))
		}
		out = append(out, added(fmt.Sprintf("bit-%d", k+1), figure.Piece, bright, pts)...)
	}
	return out
}

// feedIn: braiding hair fed into a cornrow a little at a time, which goes on as a braid.
func feedIn() figure.Figure {
	return figure.Figure{Title: "Hair fed in", Stage: figure.Lying, Frames: []frame{{
		Says:    "The cornrow is begun with own hair alone, a finger's breadth.",
		Strands: fed(236, 1.6, 0, 0.2),
		States:  holds("middle over upper"),
	}, {
		Says:    "A thin bit of braiding hair is laid to the middle strand, another at the next turn: always the same little.",
		Strands: fed(300, 2.6, 10, 1),
		Arrows:  arrows(way(70, 112, 92, 106, 112, 116)),
		States:  holds("bit-1 over upper", "bit-1 under lower", "bit-2 over lower"),
	}, {
		Says:    "Where the scalp ends it is as thick as the braid that hangs: braided on.",
		Strands: snug(fed(400, 4, 10, 0.6)),
		States:  holds("bit-1 over upper", "bit-1 under lower"),
	}}}
}

// fedLump is the usual mistake: too much hair at once.
func fedLump() figure.Figure {
	return figure.Figure{Title: "Too much at once", Stage: figure.Lying, Frames: []frame{{
		Says:    "Wrong: too much hair is fed in at once. A lump stands up, and the root is pulled.",
		Strands: fed(400, 4, 22, 1),
		Wrong:   &xy{X: 150, Y: 150},
		States:  holds("bit-1 over upper", "bit-1 under lower"),
	}}}
}
