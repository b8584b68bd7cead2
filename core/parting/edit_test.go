package parting

import (
	"context"
	"encoding/json"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/advice"
	"kladotex/core/invalid"
	"kladotex/core/scalp"
	"kladotex/core/surface"
)

func find(t *testing.T, l Layout, id string) Section {
	t.Helper()
	i := l.find(id)
	require.GreaterOrEqual(t, i, 0, "section %s", id)
	return l.Sections[i]
}

func centreOf(h scalp.Head, s Section) Direction { return Toward(h, s.Centroid) }

// randomEdits are changes at places of a layout, some of them nonsense.
func randomEdits(r *rand.Rand, h scalp.Head, l Layout, n int) []Edit {
	somewhere := func() Direction {
		x := l.Sections[r.IntN(len(l.Sections))]
		p := x.Outline[r.IntN(len(x.Outline))]
		f := r.Float64()
		for i := range p {
			p[i] = f*p[i] + (1-f)*x.Centroid[i]
		}
		return Toward(h, p)
	}
	edits := make([]Edit, n)
	for i := range edits {
		e := Edit{Kind: EditKinds[r.IntN(len(EditKinds))], At: somewhere()}
		switch e.Kind {
		case Merge:
			x := l.Sections[r.IntN(len(l.Sections))]
			e.At = centreOf(h, x)
			with := somewhere()
			if len(x.Neighbours) > 0 && r.IntN(4) > 0 {
				with = centreOf(h, l.Sections[l.find(x.Neighbours[r.IntN(len(x.Neighbours))])])
			}
			e.With = &with
		case MoveRow, MovePart:
			with, p := somewhere(), l.Sections[r.IntN(len(l.Sections))]
			if r.IntN(4) > 0 { // a short way off, as a finger drags
				i := r.IntN(3)
				at := e.At
				at[i] += 0.1 * (r.Float64() - 0.5)
				e.At, with = Toward(h, scalp.Point{h.A * at[0], h.B * at[1], h.C * at[2]}), e.At
			} else {
				e.At = centreOf(h, p)
			}
			e.With = &with
		case Split:
			x := l.Sections[r.IntN(len(l.Sections))]
			a, b := r.IntN(len(x.Outline)), r.IntN(len(x.Outline))
			at, with := Toward(h, between(x.Outline[a], x.Centroid)), Toward(h, between(x.Outline[b], x.Centroid))
			e.At, e.With = at, &with
		}
		edits[i] = e
	}
	return edits
}

func between(p, q scalp.Point) scalp.Point {
	return scalp.Point{(p[0] + q[0]) / 2, (p[1] + q[1]) / 2, (p[2] + q[2]) / 2}
}

// Any list of changes keeps the scalp covered, ids unique and neighbours mutual, and
// every change that did not fit is reported; made twice it does the same as once.
func TestChangesByHandKeepTheHeadWhole(t *testing.T) {
	r := rand.New(rand.NewPCG(21, 4))
	made := 0
	for i := range 120 {
		h := randomHead(r)
		s := randomSettings(r, Structures[i%len(Structures)], Patterns[i/8%len(Patterns)])
		bare, err := Lay(context.Background(), h, s)
		if err != nil {
			continue
		}
		s.Edits = randomEdits(r, h, bare, 1+r.IntN(12))
		l, err := Lay(context.Background(), h, s)
		require.NoError(t, err)
		made += len(s.Edits) - len(l.Rejected)
		assert.InEpsilon(t, bare.Area+bare.BaseArea, l.Area+l.BaseArea+l.OutArea, 1e-3, "%v", s.Edits)
		byID := map[string]Section{}
		for _, x := range append(l.Sections, l.LeftOut...) {
			require.Positive(t, x.Area, x.ID)
			require.NotContains(t, byID, x.ID)
			byID[x.ID] = x
		}
		for _, x := range l.Sections {
			for _, id := range x.Neighbours {
				require.Contains(t, byID[id].Neighbours, x.ID, "%s and %s", x.ID, id)
			}
		}
		for _, m := range l.Rejected {
			assert.NotEmpty(t, m.Message)
			assert.Equal(t, s.Edits[m.Edit].At, m.At)
		}
		has := map[EditKind]bool{}
		for _, e := range s.Edits {
			has[e.Kind] = true
		}
		if len(l.Rejected) > 0 || has[Merge] && has[Split] { // one may undo the other
			continue
		}
		twice := s
		twice.Edits = append(append([]Edit{}, s.Edits...), s.Edits...)
		again, err := Lay(context.Background(), h, twice)
		require.NoError(t, err)
		require.Len(t, again.Sections, len(l.Sections))
		for k := range l.Sections {
			assert.Equal(t, l.Sections[k].ID, again.Sections[k].ID)
			assert.InEpsilon(t, l.Sections[k].Area, again.Sections[k].Area, 1e-3)
		}
	}
	assert.Greater(t, made, 200, "most random changes fit")
}

// What each change does, and that it holds when the sizes change a little.
func TestChangesDoWhatTheySay(t *testing.T) {
	h := average(t)
	s := both(Brick, square(1), square(1))
	bare, err := Lay(context.Background(), h, s)
	require.NoError(t, err)
	a, b := find(t, bare, "BL3.2"), find(t, bare, "BL3.3")
	with := func(edits ...Edit) Layout {
		s := s
		s.Edits = edits
		l, err := Lay(context.Background(), h, s)
		require.NoError(t, err)
		require.Empty(t, l.Rejected)
		return l
	}
	at, other := centreOf(h, a), centreOf(h, b)

	merged := with(Edit{Kind: Merge, At: at, With: &other})
	assert.Len(t, merged.Sections, len(bare.Sections)-1)
	assert.InEpsilon(t, a.Area+b.Area, find(t, merged, "BL3.2").Area, 1e-4)
	assert.InEpsilon(t, a.Width.Mean+b.Width.Mean, find(t, merged, "BL3.2").Width.Mean, 1e-6)

	east, west := Toward(h, between(a.Centroid, between(a.Centroid, b.Centroid))), Toward(h, between(a.Centroid, a.Outline[0]))
	split := with(Edit{Kind: Split, At: east, With: &west})
	assert.Len(t, split.Sections, len(bare.Sections)+1)
	first, second := find(t, split, "BL3.2a"), find(t, split, "BL3.2b")
	assert.InEpsilon(t, a.Area, first.Area+second.Area, 1e-4)
	assert.InEpsilon(t, first.Area, second.Area, 0.25)

	out := with(Edit{Kind: LeaveOut, At: at})
	assert.Len(t, out.Sections, len(bare.Sections)-1)
	assert.Equal(t, "BL3.2", out.LeftOut[0].ID)
	assert.InEpsilon(t, a.Area, out.OutArea, 1e-6)

	assert.True(t, find(t, with(Edit{Kind: Lock, At: at}), "BL3.2").Locked)

	// A row line dragged 5 mm towards the crown, on the left alone.
	line := bare.Rows[2].Line
	mid := line[len(line)/2]
	up, was := Toward(h, scalp.Point{mid[0], mid[1], mid[2] + 5}), Toward(h, mid)
	moved := with(Edit{Kind: MoveRow, At: up, With: &was})
	assert.Greater(t, find(t, moved, "BL3.2").Height.Mean, a.Height.Mean+2)
	assert.InEpsilon(t, find(t, bare, "BR3.2").Area, find(t, moved, "BR3.2").Area, 1e-9)
	// A part end dragged 4 mm along the row.
	part := between(a.Centroid, b.Centroid)
	aside, there := Toward(h, scalp.Point{part[0], part[1] + 4, part[2]}), Toward(h, part)
	slid := with(Edit{Kind: MovePart, At: aside, With: &there})
	assert.Greater(t, math.Abs(find(t, slid, "BL3.2").Width.Mean-a.Width.Mean), 1.0)

	// With both sides alike again there is nothing to warn of; else there is.
	assert.Contains(t, kinds(moved.Notices), advice.Asymmetry)
	both := with(Edit{Kind: MoveRow, At: up, With: &was}, Edit{Kind: MoveRow, At: Direction{up[0], -up[1], up[2]}, With: &Direction{was[0], -was[1], was[2]}})
	assert.NotContains(t, kinds(both.Notices), advice.Asymmetry)

	// Sizes change: the changes are made anew or reported, none is dropped.
	edits := []Edit{{Kind: Merge, At: at, With: &other}, {Kind: Split, At: east, With: &west}, {Kind: LeaveOut, At: at}, {Kind: MoveRow, At: up, With: &was}, {Kind: MovePart, At: aside, With: &there}}
	for _, in := range []float64{0.9, 1.1, 1.5, 2} {
		for i, e := range edits {
			s := bothWith(square(in), e)
			l, err := Lay(context.Background(), h, s)
			require.NoError(t, err)
			plain, err := Lay(context.Background(), h, bothWith(square(in)))
			require.NoError(t, err)
			changed := len(l.Sections) != len(plain.Sections) || !sameAreas(l, plain)
			satisfied := (e.Kind == Merge || e.Kind == Split) && (atOne(h, plain, e) == (e.Kind == Merge))
			assert.True(t, changed || satisfied || len(l.Rejected) == 1, "edit %d at %v in was dropped", i, in)
		}
	}
}

func bothWith(size Size, edits ...Edit) Settings {
	s := both(Brick, size, size)
	s.Edits = edits
	return s
}

// atOne tells whether both places of a change lie in one section.
func atOne(h scalp.Head, l Layout, e Edit) bool {
	return at(h, l.Sections, e.At.vec()) == at(h, l.Sections, e.With.vec())
}

func sameAreas(a, b Layout) bool {
	for i := range a.Sections {
		if math.Abs(a.Sections[i].Area-b.Sections[i].Area) > 1e-6 {
			return false
		}
	}
	return true
}

func kinds(list []advice.Notice) (out []advice.Code) {
	for _, n := range list {
		out = append(out, n.Code)
	}
	return out
}

// A locked section is left alone, one that is gone is reported, and so is a change
// far from any line.
func TestChangesThatDoNotFitAreReported(t *testing.T) {
	h := average(t)
	bare, err := Lay(context.Background(), h, both(Brick, square(1), square(1)))
	require.NoError(t, err)
	a, far := centreOf(h, find(t, bare, "BL3.2")), centreOf(h, find(t, bare, "FR2.2"))
	face := Direction{1, 0, 0}
	var backLeft []Edit
	for _, x := range bare.Sections {
		if x.Zone == BackLeft {
			backLeft = append(backLeft, Edit{Kind: LeaveOut, At: centreOf(h, x)})
		}
	}
	for want, edits := range map[string][]Edit{
		"last of its zone":     backLeft,
		"locked":               {{Kind: Lock, At: a}, {Kind: LeaveOut, At: a}},
		"left out":             {{Kind: LeaveOut, At: a}, {Kind: Lock, At: a}},
		"side by side":         {{Kind: Merge, At: a, With: &far}},
		"No section lies":      {{Kind: LeaveOut, At: face}},
		"The other place":      {{Kind: Merge, At: a, With: &face}},
		"nearest part line is": {{Kind: MoveRow, At: a, With: &Direction{0.6, 0, -0.8}}},
		"nearest part is":      {{Kind: MovePart, At: a, With: &Direction{0.6, 0, -0.8}}},
		"row only":             {{Kind: MoveRow, At: Direction{0, 0, 1}, With: &a}},
	} {
		l, err := Lay(context.Background(), h, bothWith(square(1), edits...))
		require.NoError(t, err)
		require.Len(t, l.Rejected, 1, want)
		assert.Contains(t, l.Rejected[0].Message, want)
		assert.Equal(t, len(edits)-1, l.Rejected[0].Edit)
	}
}

// A union is as large as its parts, on a round head and off it.
func TestUnionOfNeighbours(t *testing.T) {
	r := rand.New(rand.NewPCG(6, 6))
	for range 12 {
		h := randomHead(r)
		l, err := Lay(context.Background(), h, both(Patterns[r.IntN(len(Patterns))], square(0.8), square(1)))
		require.NoError(t, err)
		for _, x := range l.Sections {
			for _, id := range x.Neighbours {
				y := l.Sections[l.find(id)]
				ring, ok := surface.Union(h, surface.UnitRing(h, x.Outline), surface.UnitRing(h, y.Outline))
				require.True(t, ok, "%s and %s", x.ID, id)
				area, _ := h.AreaCentroid(ring)
				require.InEpsilon(t, x.Area+y.Area, area, 2e-3)
				require.True(t, surface.Contains(ring, surface.Toward(h, x.Centroid)) && surface.Contains(ring, surface.Toward(h, y.Centroid)))
				require.False(t, surface.Contains(ring, scalp.Unit(r3.Scale(-1, surface.Toward(h, x.Centroid)))))
			}
		}
	}
}

// FuzzEdits reads any list of changes and lays a head with it.
func FuzzEdits(f *testing.F) {
	h := average(f)
	for _, seed := range []string{
		`[{"kind":"merge","at":[0,0,1],"with":[0.1,0,0.995]}]`,
		`[{"kind":"split","at":[-0.6,0.5,0.62],"with":[-0.62,0.5,0.6]},{"kind":"lock","at":[0,0.6,0.8]}]`,
		`[{"kind":"move-row","at":[-0.6,0.6,0.53],"with":[-0.62,0.6,0.5]},{"kind":"move-part","at":[-0.6,0.6,0.53],"with":[-0.6,0.62,0.51]},{"kind":"pieces","at":[0,0,1],"pieces":3}]`,
		`[{"kind":"leave-out","at":[0,0,1e308]}]`, `[{"kind":"leave-out","at":[0,0,1]},{"kind":"leave-out","at":[0,0,1]}]`, `[]`,
	} {
		f.Add([]byte(seed), uint8(len(seed)))
	}
	f.Fuzz(func(t *testing.T, raw []byte, which uint8) {
		var edits []Edit
		if json.Unmarshal(raw, &edits) != nil {
			return
		}
		s := bothWith(square(1), edits...)
		s.Structure = Structures[int(which)%len(Structures)]
		s.Front.Pattern, s.Back.Pattern = Patterns[int(which/8)%len(Patterns)], Patterns[int(which/32)%len(Patterns)]
		l, err := Lay(context.Background(), h, s)
		if err != nil {
			require.NotEmpty(t, invalid.From(err))
			return
		}
		for _, x := range l.Sections {
			require.False(t, math.IsNaN(x.Area) || x.Area <= 0, x.ID)
		}
		_, err = json.Marshal(l)
		require.NoError(t, err)
	})
}

// A head with as much changed by hand as anyone would: sixty spots and a hundred edits.
func BenchmarkLayChangedByHand(b *testing.B) {
	h := average(b)
	s := both(Brick, square(0.6), square(0.6))
	bare, err := Lay(context.Background(), h, s)
	require.NoError(b, err)
	r := rand.New(rand.NewPCG(1, 9))
	s.Edits = randomEdits(r, h, bare, 100)
	for range maxSpots {
		x := bare.Sections[r.IntN(len(bare.Sections))]
		s.LeftOut = append(s.LeftOut, Spot{centreOf(h, x), 6})
	}
	b.ReportAllocs()
	for b.Loop() {
		if _, err := Lay(context.Background(), h, s); err != nil {
			b.Fatal(err)
		}
	}
}
