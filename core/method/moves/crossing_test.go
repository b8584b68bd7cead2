package moves

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/method/figure"
	"kladotex/core/method/knot"
)

// strandOf is the line of a strand by name, a hair's breadth aside of the others.
func strandOf(t *testing.T, f figure.Frame, name string, nth float64) []knot.Point {
	t.Helper()
	i := slices.IndexFunc(f.Strands, func(s figure.Strand) bool { return s.Name == name })
	require.GreaterOrEqual(t, i, 0, name)
	line, _ := lineOf(f.Strands[i], nth)
	return line
}

// legsOf are the two legs of a folded strand, each from its highest point down.
func legsOf(line []knot.Point) (a, b []knot.Point) {
	top := 0
	for i := range line {
		if line[i].Y < line[top].Y {
			top = i
		}
	}
	a = slices.Clone(line[:top])
	slices.Reverse(a)
	return a, line[top+1:]
}

// word is how one line crosses another, from its beginning on: o over, u under.
func word(a, b []knot.Point) string {
	var out strings.Builder
	for i := 0; i+1 < len(a); i++ {
		for j := 0; j+1 < len(b); j++ {
			p, q, r, s := a[i], a[i+1], b[j], b[j+1]
			det := (q.X-p.X)*(s.Y-r.Y) - (q.Y-p.Y)*(s.X-r.X)
			if det == 0 {
				continue
			}
			u := ((r.X-p.X)*(s.Y-r.Y) - (r.Y-p.Y)*(s.X-r.X)) / det
			v := ((r.X-p.X)*(q.Y-p.Y) - (r.Y-p.Y)*(q.X-p.X)) / det
			if u < 0 || u >= 1 || v < 0 || v >= 1 {
				continue
			}
			if p.Z+u*(q.Z-p.Z) > r.Z+v*(s.Z-r.Z) {
				out.WriteByte('o')
			} else {
				out.WriteByte('u')
			}
		}
	}
	return out.String()
}

// toFront closes a line in front of everything, behind one that goes on up and down, behind everything.
func toFront(line []knot.Point) knot.Ring {
	a, b := line[0], line[len(line)-1]
	return slices.Concat([]knot.Point{{X: a.X, Y: a.Y, Z: 900}}, line, []knot.Point{{X: b.X, Y: b.Y, Z: 900}})
}

func behind(line []knot.Point) knot.Ring {
	a, b := line[0], line[len(line)-1]
	return slices.Concat([]knot.Point{{X: a.X, Y: -2000, Z: a.Z}}, line,
		[]knot.Point{{X: b.X, Y: 2000, Z: b.Z}, {X: b.X + 2000, Y: 2000, Z: -900}, {X: a.X + 2000, Y: -2000, Z: -900}})
}

// What is wound lies so often round what it is wound over: linking numbers, still by still. The end that is
// tucked upward may count one more for the plait. Common practice, no source.
func TestWhatIsWoundGoesRound(t *testing.T) {
	for _, w := range []struct {
		id         ID
		wrap, over string
		first      int
		turns      []int
	}{
		{Wind, "wrap", "piece", 0, []int{1, 3, 8, 12, 14}},
		{Wind, "wrap", "plait", 0, []int{1, 3, 8, 12, 15}},
		{Collar, "wrap", "piece", 5, []int{2, 4, 11}},
		{Collar, "wrap", "plait", 5, []int{2, 5, 12}},
		{Coil, "coil", "plait", 0, []int{0, 5, 13, 22, 26}},
		{Twine, "twist", "piece", 0, []int{0, 2, 3, 3}},
		{TwineAgainst, "twist", "piece", 0, []int{-3}},
		{Banded, "plait", "piece", 0, []int{1, 3, 5, 5, 5, 5}},
		{Banded, "wrap", "plait", 4, []int{2, 11}},
		{Banded, "wrap", "piece", 4, []int{2, 11}},
		{Built, "base", "plait", 0, []int{1, 1, 1, 1, 1}}, // astride
		{Built, "wrap", "plait", 1, []int{2, 8, 8, 8}},
		{Built, "wrap", "base", 1, []int{2, 8, 8, 8}},
		{Built, "next", "plait", 3, []int{1, 9}},
		{Built, "next", "base", 3, []int{1, 9}},
	} {
		f := drawn(t, w.id)
		for k, turns := range w.turns {
			frame := still(f, w.first+k)
			wrap, over := toFront(strandOf(t, frame, w.wrap, 1)), behind(strandOf(t, frame, w.over, 2))
			assert.Equal(t, turns, knot.Linking(wrap, over), "%s %d: %s round %s", w.id, w.first+k, w.wrap, w.over)
			mirrored := frame.Mirror()
			wrap, over = toFront(strandOf(t, mirrored, w.wrap, 1)), behind(strandOf(t, mirrored, w.over, 2))
			assert.Equal(t, -turns, knot.Linking(wrap, over), "%s %d, left-handed", w.id, w.first+k)
		}
	}
	// The band is a closed ring: round the piece from the first, round the plait too once it is pushed up.
	band := drawn(t, Banded)
	for i := range band.Stills() {
		frame := still(band, i)
		ring := knot.Ring(strandOf(t, frame, "band", 1))
		assert.Equal(t, 1, size(knot.Linking(ring, behind(strandOf(t, frame, "piece", 2)))), "still %d", i)
		want := 0
		if i >= 3 {
			want = 1
		}
		assert.Equal(t, want, size(knot.Linking(ring, behind(strandOf(t, frame, "plait", 3)))), "still %d", i)
	}
	for i := range drawn(t, SplitBand).Stills() {
		frame := still(drawn(t, SplitBand), i)
		ring := knot.Ring(strandOf(t, frame, "band", 1))
		for n, held := range []string{"small", "large"} {
			assert.Equal(t, 1, size(knot.Linking(ring, behind(strandOf(t, frame, held, float64(n+2))))), "%s, still %d", held, i)
		}
		assert.Zero(t, knot.Linking(ring, behind(strandOf(t, frame, "piece", 4))), "the piece hangs clear of the band, still %d", i)
	}
	// The second strand's end lies under turns of the first, three at the least.
	for i := 3; i < 5; i++ {
		frame := still(drawn(t, Built), i)
		under := strings.Count(word(strandOf(t, frame, "next", 1), strandOf(t, frame, "wrap", 2)), "u")
		assert.GreaterOrEqual(t, under, 3, "still %d", i)
	}
	// The tip of what is twined ends inside the piece, through its gap.
	held := asHeld(t, still(drawn(t, Twine), 3), "twist", "loop", "piece")
	assert.Equal(t, []any{ringed, 1, 1, 1}, []any{held.Holds().String(), size(held.Through(pastNeck)), size(held.OwnThrough()), held.Inside()})
}

// strands of a plait, by name; a name with a leg behind it is that leg of a folded strand.
type plied struct {
	id          ID
	first, last int
	// in the order in which each lies over the next, the last over the first
	a, b, c string
}

func (p plied) line(t *testing.T, f figure.Frame, name string, nth float64) []knot.Point {
	of, leg, folded := strings.Cut(name, "/")
	line := strandOf(t, f, of, nth)
	if !folded {
		return line
	}
	one, other := legsOf(line)
	if leg == "1" {
		return one
	}
	return other
}

// In a plait of three one of every two strands always lies over the other, and so round: it cannot come apart.
// Over is the reverse of under. Common practice, no source.
func TestPlaitsOfThreeAreTrue(t *testing.T) {
	for _, p := range []plied{
		{PlaitOver, 0, 1, "right", "middle", "left"},
		{PlaitUnder, 0, 1, "left", "middle", "right"},
		{Link, 0, 1, "first", "upper", "lower"},
		{Merge, 0, 1, "middle", "upper", "lower"},
		{SplitRoot, 5, 5, "small", "other-half", "half"},
		{OwnStrand, 2, 4, "hair", "bundle/1", "bundle/2"},
		{RunsOut, 0, 0, "hair", "bundle/1", "bundle/2"},
		{WrappedThird, 4, 5, "third/1", "two-thirds/1", "two-thirds/2"},
		{Halves, 0, 0, "third/2", "two-thirds/1", "two-thirds/2"},
		{Stack, 1, 3, "own", "tip/1", "tip/2"},
		{FeedIn, 0, 2, "middle", "upper", "lower"},
		{FedLump, 0, 0, "middle", "upper", "lower"},
	} {
		f := drawn(t, p.id)
		for i := p.first; i <= p.last; i++ {
			for hand, frame := range []figure.Frame{still(f, i), still(f, i).Mirror()} {
				a, b, c := p.line(t, frame, p.a, 1), p.line(t, frame, p.b, 2), p.line(t, frame, p.c, 3)
				for _, pair := range [][2][]knot.Point{{a, b}, {b, c}, {c, a}} {
					w := word(pair[0], pair[1])
					assert.Regexp(t, `^o+$`, w, "%s %d, hand %d", p.id, i, hand)
				}
			}
		}
	}
}

// A leg of a twist runs beside the half of own hair it takes and crosses the other leg alone; own hair of a fold
// and twist never leaves its leg; the hook takes net and cornrow together.
func TestStrandsKeepTheirCompany(t *testing.T) {
	twist := drawn(t, AnchorTwist)
	for i := 1; i < 6; i++ {
		f := still(twist, i)
		one, other := legsOf(strandOf(t, f, "strand", 1))
		left, right := strandOf(t, f, "left half", 2), strandOf(t, f, "right half", 3)
		assert.Empty(t, word(left, one)+word(right, other), "still %d: a half beside its leg", i)
		// Each crosses the other leg as its own leg does, as far as it goes.
		assert.Contains(t, word(one, other), word(left, other), "still %d", i)
		assert.Contains(t, word(other, one), word(right, one), "still %d", i)
		assert.Equal(t, i > 3, word(left, other) != "", "still %d", i)
		assert.Equal(t, "u", word(strandOf(t, f, "strand", 1), strandOf(t, f, "anchor", 2))[:1], "still %d: under the anchor", i)
	}
	assert.Regexp(t, `^(uo)+$|^(ou)+$`, word(legsOf(strandOf(t, still(twist, 5), "strand", 1))), "leg over leg in turn")
	wrong := still(drawn(t, OneSided), 0)
	one, other := legsOf(strandOf(t, wrong, "strand", 1))
	assert.Empty(t, word(strandOf(t, wrong, "right half", 2), other))
	assert.NotEmpty(t, one)

	third := drawn(t, WrappedThird)
	for i := 1; i < 3; i++ {
		f := still(third, i)
		assert.Equal(t, "u", word(strandOf(t, f, "hair", 1), strandOf(t, f, "two-thirds", 2)), "still %d: laid in front, held by nothing", i)
		assert.Equal(t, strings.Repeat("ouou", i-1), word(strandOf(t, f, "third", 1), strandOf(t, f, "two-thirds", 2)), "still %d: once round", i)
	}
	net := still(drawn(t, Net), 1)
	hook := strandOf(t, net, "hook", 1)
	for _, below := range []string{"cornrow", "down-3", "up-4"} {
		assert.Equal(t, "u", word(hook, strandOf(t, net, below, 2)), below)
	}
}

// On the way from one still to the next nothing passes through anything but what the step moves: where both
// stills agree on how often one strand lies round another, so does every frame between them.
func TestNothingSlipsThroughOnTheWay(t *testing.T) {
	for _, w := range []struct {
		id          ID
		round, over string
	}{
		{Banded, "band", "piece"}, {Built, "base", "plait"}, {Wind, "plait", "loop"}, {Coil, "plait", "loop"},
	} {
		f := drawn(t, w.id)
		linked := func(frame figure.Frame) int {
			ring := knot.Ring(strandOf(t, frame, w.over, 2))
			if w.over != "loop" {
				ring = behind(ring)
			}
			return knot.Linking(toFront(strandOf(t, frame, w.round, 1)), ring)
		}
		for i := range len(f.Stills()) - 1 {
			before, after := linked(still(f, i)), linked(still(f, i+1))
			if before != after {
				continue
			}
			for k, frame := range f.Way(i, i+1, 6) {
				assert.Equal(t, before, linked(frame), "%s %d to %d, %d on: %s and %s", w.id, i, i+1, k, w.round, w.over)
			}
		}
	}
}
