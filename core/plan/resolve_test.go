package plan_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
	"kladotex/core/scalp"
	"kladotex/core/tally"
)

// resolved lays a head and says who gets what.
func resolved(t require.TestingT, in plan.Input) (plan.Resolution, parting.Layout, scalp.Head) {
	sol := plantest.Solve(t, in)
	return sol.Resolution, sol.Layout, sol.Head
}

// mixed is the default plan on a structure, with three pieces and a way of every method.
func mixed(structure parting.Structure, base parting.BaseKind) plan.Input {
	in := plan.Default()
	in.Parting.Structure, in.Parting.Base.Kind = structure, base
	in.Pieces = append(in.Pieces, plantest.Many(2)...)
	for _, m := range method.Catalogue {
		in.Ways = append(in.Ways, plan.NewWay("of "+string(m.ID), m.ID))
	}
	return in
}

// someUse draws a use of a mixed plan; its places are sections or hooks of a layout.
func someUse(t *rapid.T, in plan.Input, l parting.Layout, h scalp.Head) plan.Use {
	var u plan.Use
	switch rapid.IntRange(0, 9).Draw(t, "where") {
	case 0:
		u.Where = plan.Where{Kind: plan.InFront}
	case 1:
		u.Where = plan.Where{Kind: plan.InBack}
	case 2:
		u.Where = plan.Where{Kind: plan.OnBase}
	case 3:
		u.Where = plan.Where{Kind: plan.AtHairline}
	case 4:
		u.Where = plan.Where{Kind: plan.AtNape}
	case 5:
		u.Where = plan.Where{Kind: plan.AlongPart}
	case 6:
		row := l.Rows[rapid.IntRange(0, len(l.Rows)-1).Draw(t, "row")]
		u.Where = plan.Where{Kind: plan.InRows, Rows: []plan.RowName{{row.Zone, row.Row}}}
	case 7:
		u.Where = plan.Where{Kind: plan.InZones, Zones: []parting.Zone{l.Zones[rapid.IntRange(0, len(l.Zones)-1).Draw(t, "zone")].Zone}}
	default:
		for range rapid.IntRange(1, 4).Draw(t, "places") {
			at := l.Sections[rapid.IntRange(0, len(l.Sections)-1).Draw(t, "section")].Centroid
			u.Where.Places = append(u.Where.Places, parting.Toward(h, at))
		}
		u.Where.Kind = plan.AtPlaces
	}
	if rapid.Bool().Draw(t, "with piece") {
		u.Piece = in.Pieces[rapid.IntRange(0, len(in.Pieces)-1).Draw(t, "piece")].Key
	}
	if rapid.Bool().Draw(t, "with way") {
		u.Way = in.Ways[rapid.IntRange(0, len(in.Ways)-1).Draw(t, "way")].Key
	}
	if u.Piece == "" && u.Way == "" || rapid.Bool().Draw(t, "with count") {
		u.Count = rapid.IntRange(1, plan.MaxCount).Draw(t, "count")
	}
	return u
}

var bases = []parting.BaseKind{parting.Cornrows, parting.LinkedPlaits, parting.Net}

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
		require.NoError(t, plan.Check(in))
		r := plantest.Solve(t, in)
		require.Len(t, r.Places, len(r.Layout.Sections)+r.Layout.Hooks())
		for _, p := range r.Places {
			require.True(t, p.Piece >= 0 && p.Piece < len(in.Pieces), p.ID)
			require.True(t, p.Way >= 0 && p.Way < len(in.Ways), p.ID)
			m, _ := method.Lookup(in.Ways[p.Way].Method)
			times := m.Pieces(in.Ways[p.Way].Settings) // stations take several
			require.True(t, p.Count >= times && p.Count <= times*plan.MaxCount && p.Count%times == 0, p.ID)
			require.True(t, m.On(p.Ground), "%s is hung by %s on %s", p.ID, m.Name, p.Ground)
			require.Positive(t, p.Plait.Length())
		}
		// The order of uses decides: what the last one names, its places have.
		last := in.Uses[len(in.Uses)-1]
		for _, i := range r.Match(last.Where) {
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
		in := mixed(rapid.SampledFrom([]parting.Structure{parting.AllIndividuals, parting.EarToEar, parting.Perimeter}).Draw(t, "structure"), parting.Cornrows)
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
					u.Where.Rows = append(u.Where.Rows, plan.RowName{r.Zone[:1] + "L", r.Row}, plan.RowName{r.Zone[:1] + "R", r.Row})
				}
			}
			in.Uses = append(in.Uses, u)
		}
		r, _, _ := resolved(t, in)
		for _, p := range r.Places {
			twin := slices.IndexFunc(r.Places, func(q plan.Place) bool {
				return scalp.Apart(q.At, scalp.Point{p.At[0], -p.At[1], p.At[2]}) < 0.5 && q.Ground == p.Ground
			})
			if twin < 0 {
				continue // across the middle the hooks of two cornrows need not be alike
			}
			q := r.Places[twin]
			require.Equal(t, [3]int{p.Piece, p.Way, p.Count}, [3]int{q.Piece, q.Way, q.Count}, "%s and %s", p.ID, q.ID)
			require.InDelta(t, p.Hair, q.Hair, 1e-6)
		}
	})
}

// Picked places stay with their section when sizes change, and a hook picked is one hook.
func TestPickedPlacesSurviveOtherSizes(t *testing.T) {
	in := mixed(parting.EarToEar, parting.Cornrows)
	r, l, h := resolved(t, in)
	section, hook := l.Sections[5].Centroid, r.Places[len(l.Sections)+20].At
	in.Uses = append(in.Uses, plan.Use{
		Where: plan.Where{Kind: plan.AtPlaces, Places: []parting.Direction{parting.Toward(h, section), parting.Toward(h, hook)}}, Piece: "more1",
	})
	for _, size := range []float64{18, 25.4, 33} {
		in.Parting.Front.Size = parting.Size{Width: size, Height: size}
		r, l, _ := resolved(t, in)
		var got []plan.Place
		for _, p := range r.Places {
			if in.Pieces[p.Piece].Key == "more1" {
				got = append(got, p)
			}
		}
		require.Len(t, got, 2, "%v mm", size)
		assert.Equal(t, got[0].Section, l.At(h, parting.Toward(h, section)))
		assert.Less(t, scalp.Apart(got[1].At, hook), 1e-6)
	}
}

// Where hair was measured the plait is about as long as it was; in between it is between.
func TestHairLengthsAreBlendedOverTheHead(t *testing.T) {
	in := plan.Default()
	in.Hair.Front, in.Hair.Sides, in.Hair.Crown, in.Hair.Nape = 100, 140, 260, 180
	r, _, h := resolved(t, in)
	nearest := func(at scalp.Point) plan.Place {
		return slices.MinFunc(r.Places, func(a, b plan.Place) int {
			return int(math.Copysign(1, scalp.Apart(a.At, at)-scalp.Apart(b.At, at)))
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

// A mix comes evenly: a third of the places has the rarer piece, as many left as right, and no
// row is without it that is long enough.
func TestMixesAreEvenAndAlikeOnBothSides(t *testing.T) {
	for _, structure := range []parting.Structure{parting.AllIndividuals, parting.EarToEar, parting.Perimeter, parting.NetCap} {
		in := plantest.InTwoColours()
		in.Parting.Structure = structure
		sol := plantest.Solve(t, in)
		res, err := tally.Of(sol)
		require.NoError(t, err, structure)
		light, left, right := 0, 0, 0
		rows := map[string][2]int{}
		for _, p := range res.Places {
			if p.Piece != 1 && p.Piece != 0 {
				t.Fatalf("%s has no piece", p.ID)
			}
			row := rows[sol.Line(&p)]
			row[0]++
			if p.Piece == 1 {
				light++
				row[1]++
				switch {
				case p.At[1] > 1:
					left++
				case p.At[1] < -1:
					right++
				}
			}
			rows[sol.Line(&p)] = row
		}
		assert.InDelta(t, float64(len(res.Places))/3, float64(light), 4, structure)
		assert.InDelta(t, left, right, 4, structure)
		for name, r := range rows {
			if r[0] >= 8 {
				assert.InDelta(t, float64(r[0])/3, float64(r[1]), 2.5, "%s of %s", name, structure)
			}
		}
		n := res.Need.Pieces
		require.Len(t, n, 2)
		assert.Equal(t, res.Tally.Pieces, n[0].OnHead+n[1].OnHead)
	}
}
