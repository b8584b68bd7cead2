package plan

import (
	"context"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"kladotex/core/advice"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/scalp"
)

// resolved lays a head and says who gets what.
func resolved(t require.TestingT, in Input) (Resolution, parting.Layout, scalp.Head) {
	h, err := scalp.FitWith(in.Head, in.Hairline)
	require.NoError(t, err)
	l, err := parting.Lay(context.Background(), h, in.Parting)
	require.NoError(t, err)
	return Resolve(in, h, &l), l, h
}

// mixed is the default plan on a structure, with three pieces and a way of every method.
func mixed(structure parting.Structure, base parting.BaseKind) Input {
	in := Default()
	in.Parting.Structure, in.Parting.Base.Kind = structure, base
	in.Pieces = append(in.Pieces, many(2)...)
	for _, m := range method.Catalogue {
		in.Ways = append(in.Ways, NewWay("of "+string(m.ID), m.ID))
	}
	return in
}

// someUse draws a use of a mixed plan; its places are sections or hooks of a layout.
func someUse(t *rapid.T, in Input, l parting.Layout, h scalp.Head) Use {
	var u Use
	switch rapid.IntRange(0, 9).Draw(t, "where") {
	case 0:
		u.Where = Where{Kind: InFront}
	case 1:
		u.Where = Where{Kind: InBack}
	case 2:
		u.Where = Where{Kind: OnBase}
	case 3:
		u.Where = Where{Kind: AtHairline}
	case 4:
		u.Where = Where{Kind: AtNape}
	case 5:
		u.Where = Where{Kind: AlongPart}
	case 6:
		row := l.Rows[rapid.IntRange(0, len(l.Rows)-1).Draw(t, "row")]
		u.Where = Where{Kind: InRows, Rows: []RowName{{row.Zone, row.Row}}}
	case 7:
		u.Where = Where{Kind: InZones, Zones: []parting.Zone{l.Zones[rapid.IntRange(0, len(l.Zones)-1).Draw(t, "zone")].Zone}}
	default:
		for range rapid.IntRange(1, 4).Draw(t, "places") {
			at := l.Sections[rapid.IntRange(0, len(l.Sections)-1).Draw(t, "section")].Centroid
			u.Where.Places = append(u.Where.Places, parting.Toward(h, at))
		}
		u.Where.Kind = AtPlaces
	}
	if rapid.Bool().Draw(t, "with piece") {
		u.Piece = in.Pieces[rapid.IntRange(0, len(in.Pieces)-1).Draw(t, "piece")].Key
	}
	if rapid.Bool().Draw(t, "with way") {
		u.Way = in.Ways[rapid.IntRange(0, len(in.Ways)-1).Draw(t, "way")].Key
	}
	if u.Piece == "" && u.Way == "" || rapid.Bool().Draw(t, "with count") {
		u.Count = rapid.IntRange(1, MaxCount).Draw(t, "count")
	}
	return u
}

var bases = []parting.BaseKind{parting.Tracks, parting.LinkedPlaits, parting.Net}

// Whatever is said, every place has exactly one piece, one way that works where it is and
// one count; and what a use names holds for its places unless a later one says otherwise.
func TestEveryPlaceGetsOnePieceOneWayAndOneCount(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		in := mixed(rapid.SampledFrom(parting.Structures).Draw(t, "structure"), rapid.SampledFrom(bases).Draw(t, "base"))
		in.Parting = in.Parting.On(in.Parting.Structure)
		_, l, h := resolved(t, in)
		for range rapid.IntRange(0, 5).Draw(t, "uses") {
			in.Uses = append(in.Uses, someUse(t, in, l, h))
		}
		require.NoError(t, Check(in))
		r, _, _ := resolved(t, in)
		require.Len(t, r.Places, len(l.Sections)+l.Hooks())
		for _, p := range r.Places {
			require.True(t, p.Piece >= 0 && p.Piece < len(in.Pieces), p.ID)
			require.True(t, p.Way >= 0 && p.Way < len(in.Ways), p.ID)
			m, _ := method.Lookup(in.Ways[p.Way].Method)
			times := m.Pieces(in.Ways[p.Way].Settings) // stations take several
			require.True(t, p.Count >= times && p.Count <= times*MaxCount && p.Count%times == 0, p.ID)
			require.True(t, m.On(p.Ground), "%s is hung by %s on %s", p.ID, m.Name, p.Ground)
			require.Positive(t, p.Plait.Length())
		}
		// The order of uses decides: what the last one names, its places have.
		last := in.Uses[len(in.Uses)-1]
		f := finder{head: h, layout: &l, places: r.Places, reach: in.Parting.Base.Spacing, behindEars: h.Point(h.Landmark(scalp.BehindEar))[0]}
		for _, i := range f.match(last.Where) {
			if last.Piece != "" {
				require.Equal(t, last.Piece, in.Pieces[r.Places[i].Piece].Key)
			}
			if last.Count > 0 {
				way := in.Ways[r.Places[i].Way]
				m, _ := method.Lookup(way.Method)
				require.Equal(t, last.Count*m.Pieces(way.Settings), r.Places[i].Count)
			}
		}
	})
}

// A use said of both sides of a head parted alike gives both sides the same.
func TestMirroredUsesMirror(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		in := mixed(rapid.SampledFrom([]parting.Structure{parting.AllIndividuals, parting.EarToEar, parting.Perimeter}).Draw(t, "structure"), parting.Tracks)
		in.Parting = in.Parting.On(in.Parting.Structure)
		_, l, h := resolved(t, in)
		for range rapid.IntRange(1, 4).Draw(t, "uses") {
			u := someUse(t, in, l, h)
			for _, d := range u.Where.Places {
				u.Where.Places = append(u.Where.Places, parting.Direction{d[0], -d[1], d[2]})
			}
			for i, z := range u.Where.Zones {
				if !z.Central() {
					u.Where.Zones = append(u.Where.Zones[:i:i], z[:1]+"L", z[:1]+"R")
				}
			}
			for _, r := range u.Where.Rows {
				if !r.Zone.Central() {
					u.Where.Rows = append(u.Where.Rows, RowName{r.Zone[:1] + "L", r.Row}, RowName{r.Zone[:1] + "R", r.Row})
				}
			}
			in.Uses = append(in.Uses, u)
		}
		r, _, _ := resolved(t, in)
		for _, p := range r.Places {
			twin := slices.IndexFunc(r.Places, func(q Place) bool {
				return apart(q.At, scalp.Point{p.At[0], -p.At[1], p.At[2]}) < 0.5 && q.Ground == p.Ground
			})
			if twin < 0 {
				continue // across the middle the hooks of two tracks need not be alike
			}
			q := r.Places[twin]
			require.Equal(t, [3]int{p.Piece, p.Way, p.Count}, [3]int{q.Piece, q.Way, q.Count}, "%s and %s", p.ID, q.ID)
			require.InDelta(t, p.Hair, q.Hair, 1e-6)
		}
	})
}

// A use that matches nothing is counted so, and reported; the base's own is not, where a
// head has none.
func TestAUseThatMatchesNothingIsReported(t *testing.T) {
	in := Default()
	in.Parting.Part.Kind = parting.NoPart
	empty := func(in Input) int {
		return len(slices.DeleteFunc(codes(compute(t, in).Notices), func(c advice.Code) bool { return c != advice.EmptyUse }))
	}
	assert.Zero(t, empty(in), "no base, and nothing is said of it")
	for _, u := range []Use{
		{Where: Where{Kind: AlongPart}, Count: 2},
		{Where: Where{Kind: InZones, Zones: []parting.Zone{"T"}}, Count: 2},
		{Where: Where{Kind: InRows, Rows: []RowName{{"F", 99}}}, Count: 2},
		{Where: Where{Kind: AtPlaces, Places: []parting.Direction{{1, 0, 0}}}, Count: 2}, // on the face
		{Where: Where{Kind: InFront}, Way: hookWay},                                      // nothing there to hook on
	} {
		with := in
		with.Uses = append(slices.Clone(in.Uses), u)
		res := compute(t, with)
		assert.Zero(t, res.Matched[2], u.Where.Kind)
		assert.Equal(t, 1, empty(with), u.Where.Kind)
	}
	// One that matches is not.
	in.Uses = append(in.Uses, Use{Where: Where{Kind: AtNape}, Count: 2})
	res := compute(t, in)
	assert.Positive(t, res.Matched[2])
	assert.Zero(t, empty(in))
}

// Picked places stay with their section when sizes change, and a hook picked is one hook.
func TestPickedPlacesSurviveOtherSizes(t *testing.T) {
	in := mixed(parting.EarToEar, parting.Tracks)
	r, l, h := resolved(t, in)
	section, hook := l.Sections[5].Centroid, r.Places[len(l.Sections)+20].At
	in.Uses = append(in.Uses, Use{
		Where: Where{Kind: AtPlaces, Places: []parting.Direction{parting.Toward(h, section), parting.Toward(h, hook)}}, Piece: "more1",
	})
	for _, size := range []float64{18, 25.4, 33} {
		in.Parting.Front.Size = parting.Size{Width: size, Height: size}
		r, l, _ := resolved(t, in)
		var got []Place
		for _, p := range r.Places {
			if in.Pieces[p.Piece].Key == "more1" {
				got = append(got, p)
			}
		}
		require.Len(t, got, 2, "%v mm", size)
		assert.Equal(t, got[0].Section, l.At(h, parting.Toward(h, section)))
		assert.Less(t, apart(got[1].At, hook), 1e-6)
	}
}

// Where hair was measured the plait is about as long as it was; in between it is between.
func TestHairLengthsAreBlendedOverTheHead(t *testing.T) {
	in := Default()
	in.Hair.Front, in.Hair.Sides, in.Hair.Crown, in.Hair.Nape = 100, 140, 260, 180
	r, _, h := resolved(t, in)
	nearest := func(at scalp.Point) Place {
		return slices.MinFunc(r.Places, func(a, b Place) int {
			return int(math.Copysign(1, apart(a.At, at)-apart(b.At, at)))
		})
	}
	for mm, at := range map[float64]scalp.Point{
		100: h.Point(h.Landmark(scalp.FrontCentre)), 140: h.Point(h.Landmark(scalp.EarTop)),
		260: h.Point(h.Crown()), 180: h.Point(h.Landmark(scalp.NapeCentre)),
	} {
		assert.InEpsilon(t, mm, nearest(at).Hair, 0.15)
	}
	for _, p := range r.Places {
		assert.True(t, p.Hair >= 100 && p.Hair <= 260, "%s: %v", p.ID, p.Hair)
	}
}

// What once passed without a word: 35 kg on a head, heavy locs on small sections of fine
// sparse hair, long pieces on a tender child. Common practice, no source.
func TestLoadSpeaksUp(t *testing.T) {
	heavy := withPiece(Default(), func(p *hair.Piece) { p.Mass, p.Length = 60, 1016 })
	heavy.Uses[0].Count = 6
	found := codes(compute(t, heavy).Notices)
	assert.Contains(t, found, advice.FewNecks)
	assert.Contains(t, found, advice.TooHeavy)

	small := withPiece(Default(), func(p *hair.Piece) { p.Mass, p.Thickness = 8, 9 })
	small.Parting.Front.Size, small.Parting.Back.Size = parting.Size{Width: 12.7, Height: 12.7}, parting.Size{Width: 12.7, Height: 12.7}
	small.Hair.Density, small.Hair.Strand = 110, 58
	found = codes(compute(t, small).Notices)
	assert.Contains(t, found, advice.TooHeavy)
	assert.Contains(t, found, advice.ThinPlait, "a thin plait under a thick piece")

	child := withPiece(Default(), func(p *hair.Piece) { p.Mass, p.Length = 5.4, 762 })
	before := compute(t, child)
	assert.NotContains(t, codes(before.Notices), advice.HeavyHead)
	child.Child, child.Hair.Tender = true, true
	res := compute(t, child)
	assert.Contains(t, codes(res.Notices), advice.HeavyHead)
	for _, n := range res.Notices {
		if n.Code == advice.HeavyHead {
			assert.Contains(t, n.Reason, "No safe limit is published")
			assert.NotEmpty(t, n.Remedy)
		}
	}
	// What is usual stays unremarked: a 4 g piece on the 1 in section of a dense head.
	assert.Empty(t, compute(t, Default()).Notices)
}
