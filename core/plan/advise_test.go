package plan

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plait"
)

// change makes a situation of the plan a newcomer starts from: 6 in of hair, soft locs, 1 in
// sections.
type change func(*Input)

func all(list ...change) change {
	return func(in *Input) {
		for _, of := range list {
			of(in)
		}
	}
}

// grown is own hair of so many inches all over.
func grown(inches float64) change {
	return func(in *Input) {
		mm := inches * 25.4
		in.Hair.Front, in.Hair.Sides, in.Hair.Crown, in.Hair.Nape = mm, mm, mm, mm
	}
}

// hung are pieces of a form in hand, so long and thick.
func hung(form hair.Form, inches, thick float64) change {
	return func(in *Input) {
		in.Pieces[0].Form, in.Pieces[0].Length, in.Pieces[0].Thickness = form, inches*25.4, thick
	}
}

func wished(of method.Wishes) change { return func(in *Input) { in.Wishes = &of } }

func on(structure parting.Structure, base parting.BaseKind) change {
	return func(in *Input) {
		in.Parting = in.Parting.On(structure)
		in.Parting.Base.Kind = base
	}
}

var (
	tender  change = func(in *Input) { in.Hair.Tender = true }
	fragile change = func(in *Input) { in.Hair.Edges = hair.FragileEdges }
	child   change = func(in *Input) { in.Child = true }
	snug    change = func(in *Input) { in.Plaits.Tension = plait.Snug }
	turns   change = func(in *Input) { in.Plaits.Far = plait.Anchor }
	fine    change = func(in *Input) { in.Hair.Density, in.Hair.Strand = 90, 50 }
	thick   change = func(in *Input) { in.Hair.Density, in.Hair.Strand = 320, 95 }
)

// Some forty clients as a working stylist would judge them (common practice, no source): which
// methods are among the first three, which are ruled out, and a reason that is given.
func TestAdviceInFortySituations(t *testing.T) {
	const (
		l1, l2, l3, l4, l5 = method.HitchAndWeave, method.HitchAndZigzag, method.HiddenKnot, method.SplitRoot, method.TrackHitch
		l6, w1, w2, w3, w4 = method.Stations, method.SharedLoop, method.CollarAndWrap, method.OpenCoil, method.Banded
		w5, t1, t2, t3, b1 = method.BuiltOnHead, method.AnchorTwist, method.FoldAndTwist, method.TwineAndLock, method.OwnStrand
		b2                 = method.WrappedThird
	)
	type ids = []method.ID
	cases := []struct {
		what   string
		change change
		where  WhereKind
		first  ids // among the first three
		out    ids
		reason method.ID // whose reason says
		says   string
	}{
		{"soft locs on a usual head", all(), Everywhere, ids{l1}, nil, l1, "fit each other"},
		{"hair of 1¼ in, braids in hand", all(grown(1.25), hung(hair.Braid, 18, 7)), Everywhere, ids{l2}, ids{l1, l4, w2, w4, t2, b2}, l2, "short hair"},
		{"hair of 1¼ in, bulk in hand", all(grown(1.25), hung(hair.Bulk, 18, 9)), Everywhere, ids{l3}, ids{l1, l6, t2, w5}, l3, "short hair"},
		{"hair of 2½ in, soft locs", grown(2.5), Everywhere, ids{l1}, ids{l4, w2, w4}, w2, "too short"},
		{"hair of 2½ in, coils", all(grown(2.5), hung(hair.CoilLoc, 14, 8)), Everywhere, ids{w3}, ids{w2}, w3, "fit each other"},
		{"hair of 20 in, handmade locs", all(grown(20), hung(hair.HandmadeLoc, 14, 12)), Everywhere, ids{w4}, nil, w4, "longer than the piece"},
		{"hair of 20 in, soft locs of 18 in thick enough", all(grown(20), hung(hair.SoftLoc, 18, 11)), Everywhere, ids{l1}, nil, l1, "Plait and piece fit"},
		{"hair of 26 in, short twists", all(grown(26), hung(hair.Twist, 14, 7)), Everywhere, nil, nil, l1, "longer than the piece"},
		{"tender scalp, soft locs", tender, Everywhere, ids{l4}, ids{w1}, w1, "tighter on the scalp"},
		{"tender scalp, handmade locs", all(tender, hung(hair.HandmadeLoc, 22, 10), grown(10)), Everywhere, ids{w2}, ids{w1}, w1, "Tender scalp"},
		{"tender scalp, bulk", all(tender, hung(hair.Bulk, 20, 10)), Everywhere, ids{l3, t2}, ids{w1}, t2, "Light on a tender scalp"},
		{"tender scalp, braiding hair", all(tender, hung(hair.BraidingHair, 26, 8)), Everywhere, ids{b2}, ids{w1}, b1, "tightens the base"},
		{"fragile edges at the hairline", fragile, AtHairline, ids{l4}, ids{w1}, l1, "pulls at them"},
		{"fragile edges, twists", all(fragile, hung(hair.Twist, 14, 7)), AtHairline, ids{l4}, ids{w1}, l4, "Light on fragile edges"},
		{"fragile edges matter only there", fragile, InBack, ids{l1}, nil, l1, "fit each other"},
		{"a child with twists", all(child, hung(hair.Twist, 10, 6)), Everywhere, ids{l4}, ids{w1}, l4, "child"},
		{"a child with bulk", all(child, hung(hair.CurlyBulk, 10, 8)), Everywhere, ids{l3, t2}, ids{w1}, w1, "child"},
		{"in the water every day, soft locs", wished(method.Wishes{Water: method.Swim}), Everywhere, ids{l1, l4}, ids{t3}, t3, "stay dry"},
		{"in the water, braids", all(wished(method.Wishes{Water: method.Swim}), hung(hair.Braid, 18, 9)), Everywhere, ids{l2}, ids{t3}, l2, "holds through washing"},
		{"in the water, bulk", all(wished(method.Wishes{Water: method.Swim}), hung(hair.Bulk, 20, 10)), Everywhere, ids{t2}, ids{t3}, t2, "plaited whole"},
		{"in the water, wrapped locs", all(wished(method.Wishes{Water: method.Swim}), hung(hair.HandmadeLoc, 22, 10)), Everywhere, nil, ids{t3}, w2, "roots only"},
		{"roots washed, twists on anchored twists", all(wished(method.Wishes{Water: method.Roots}), turns, hung(hair.Twist, 14, 7)), Everywhere, nil, ids{t3}, t3, "wet own hair"},
		{"two weeks, twists on anchored twists", all(wished(method.Wishes{Weeks: 2, Water: method.Dry}), turns, hung(hair.Twist, 14, 8)), Everywhere, ids{t3}, nil, t3, "2 to 3 weeks, as wished"},
		{"twelve weeks, soft locs", wished(method.Wishes{Weeks: 12}), Everywhere, nil, ids{t1, t3}, l1, "worn 6 to 8 weeks; 12"},
		{"twelve weeks, bulk", all(wished(method.Wishes{Weeks: 12}), hung(hair.Bulk, 20, 10)), Everywhere, ids{w5}, ids{t1, t3}, w5, "6 to 12 weeks, as wished"},
		{"five weeks, bulk", all(wished(method.Wishes{Weeks: 5}), hung(hair.Bulk, 20, 10)), Everywhere, ids{t2, l3}, nil, t2, "4 to 6 weeks, as wished"},
		{"pieces to be used again, handmade locs", all(wished(method.Wishes{Reuse: true}), grown(10), hung(hair.HandmadeLoc, 22, 10)), Everywhere, ids{w2, w4}, nil, w2, "come off whole"},
		{"pieces to be used again, coils", all(wished(method.Wishes{Reuse: true}), hung(hair.CoilLoc, 14, 8)), Everywhere, ids{w3}, nil, l1, "cut or undone"},
		{"tied up, soft locs", wished(method.Wishes{Updo: true}), Everywhere, ids{l4}, nil, l1, "ridge"},
		{"tied up, bulk", all(wished(method.Wishes{Updo: true}), hung(hair.Bulk, 20, 10)), Everywhere, ids{l3, t2}, nil, w4, "bulkier at first"},
		{"roots seen in front, soft locs", all(), InFront, ids{l4}, nil, l4, "the flattest"},
		{"roots seen in front, braids from the root", hung(hair.BraidingHair, 26, 8), InFront, ids{b2}, nil, b1, "knot shows"},
		{"a new hand, bulk", all(wished(method.Wishes{Hand: method.NewHand}), hung(hair.Bulk, 20, 10)), Everywhere, ids{l3, t2}, nil, w5, "practised hand"},
		{"a new hand, coils", all(wished(method.Wishes{Hand: method.NewHand}), hung(hair.CoilLoc, 14, 8)), Everywhere, ids{w3}, nil, w3, "Easy"},
		{"off quickly, twists", all(wished(method.Wishes{Quick: true}), hung(hair.Twist, 14, 9)), Everywhere, ids{l1}, nil, w2, "to come off"},
		{"snug plaits, thick locs", all(snug, hung(hair.SoftLoc, 20, 11)), Everywhere, ids{l4}, nil, l1, "sits snug"},
		{"fine thin hair, thick locs", all(fine, hung(hair.SoftLoc, 20, 14)), Everywhere, nil, nil, l1, "hardly carry"},
		{"thick dense hair, thin twists", all(thick, hung(hair.Twist, 14, 5)), Everywhere, nil, nil, l1, "may show through"},
		{"four hours for a whole head", wished(method.Wishes{Hours: 4}), Everywhere, ids{l1}, ids{w5, b1, b2}, l1, "there are 4 h"},
		{"on tracks", on(parting.EarToEar, parting.Tracks), OnBase, ids{l5}, nil, l3, "It takes bulk hair"},
		{"on a net, bulk to be used again", all(on(parting.NetCap, parting.Net), hung(hair.Bulk, 12, 9), wished(method.Wishes{Reuse: true})), OnBase, ids{l5, l3}, nil, l5, "come off whole"},
	}
	cases = append(cases, []struct {
		what       string
		change     change
		where      WhereKind
		first, out ids
		reason     method.ID
		says       string
	}{
		{"tracks, and nobody plaits flat", all(on(parting.EarToEar, parting.Tracks), wished(method.Wishes{NoTracks: true})), OnBase, nil, ids{l5, l3}, l5, "choose linked plaits"},
		{"a net, and nobody plaits flat", all(on(parting.NetCap, parting.Net), wished(method.Wishes{NoTracks: true})), OnBase, nil, ids{l5}, l5, "flat plaits"},
		{"linked plaits, and nobody plaits flat", all(on(parting.Linked, parting.LinkedPlaits), wished(method.Wishes{NoTracks: true})), OnBase, ids{l5}, nil, l5, "no plaiting along the scalp"},
		{"locs whose hair shall be wrapped", all(hung(hair.SoftLoc, 20, 11), wished(method.Wishes{Hide: method.HiddenUnder})), Everywhere, ids{w2}, nil, l1, "hides the own hair otherwise"},
		{"twists woven inside, as wished", all(hung(hair.Twist, 18, 9), wished(method.Wishes{Hide: method.HiddenInside})), Everywhere, ids{l1}, nil, t3, "otherwise"},
		{"curls at stations, most of a pack over", all(hung(hair.CurlyBulk, 14, 9), func(in *Input) {
			in.Pieces[0].Pack.Units = 500
			in.Parting.Front.Size = parting.Size{Width: 38, Height: 38}
			in.Parting.Back.Size = in.Parting.Front.Size
		}), Everywhere, nil, nil, l6, "Much is left over"},
	}...)
	require.GreaterOrEqual(t, len(cases), 40)
	for _, c := range cases {
		t.Run(c.what, func(t *testing.T) {
			in := Default()
			c.change(&in)
			list, err := Advise(t.Context(), in)
			require.NoError(t, err)
			at := slices.IndexFunc(list, func(a Advice) bool { return a.Where == c.where })
			require.GreaterOrEqual(t, at, 0)
			ranked := list[at].Methods
			order := ids{}
			byID := map[method.ID]method.Ranked{}
			for _, r := range ranked {
				order = append(order, r.Method)
				byID[r.Method] = r
			}
			for _, id := range c.first {
				assert.Contains(t, order[:min(3, len(order))], id, "order %v", order)
				assert.NotEqual(t, method.Out, byID[id].Verdict)
			}
			for _, id := range c.out {
				assert.Equal(t, method.Out, byID[id].Verdict, "%s: %+v", id, byID[id])
				assert.NotEmpty(t, byID[id].Out)
			}
			r := byID[c.reason]
			reasons := strings.Join(slices.Concat(r.For, r.Against, r.Out), " | ")
			assert.Contains(t, reasons, c.says, fmt.Sprint(c.reason))
		})
	}
}

// Every part of the head has every method that hangs a piece there, each once and with a
// reason unless nothing is to be said.
func TestAdviceIsWhole(t *testing.T) {
	in := Default()
	on(parting.EarToEar, parting.Tracks)(&in)
	list, err := Advise(t.Context(), in)
	require.NoError(t, err)
	require.NotEmpty(t, list)
	for _, a := range list {
		seen := map[method.ID]bool{}
		last := 0
		for _, r := range a.Methods {
			assert.False(t, seen[r.Method])
			seen[r.Method] = true
			m, _ := method.Lookup(r.Method)
			assert.Equal(t, a.Where == OnBase, !m.On(method.OnPlait) || a.Where == OnBase)
			assert.Equal(t, r.Verdict == method.Out, len(r.Out) > 0)
			assert.Positive(t, r.Minutes)
			against := 1000*min(1, len(r.Out)) + len(r.Against)
			if r.NeedsPiece {
				against++
			}
			assert.GreaterOrEqual(t, against, last, "those with less against them come first")
			last = against
		}
	}
	in.Wishes = &method.Wishes{Weeks: 90, Water: "rain"}
	_, err = Advise(t.Context(), in)
	require.Error(t, err)
	assert.Contains(t, err.Error(), "Weeks of wear")
}
