package compare_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/compare"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
)

// Some forty clients as a working stylist would judge them (common practice, no source): which
// methods are among the first three, which are ruled out, and a reason that is given.
func TestAdviceInFortySituations(t *testing.T) {
	const (
		l1, l2, l3, l4, l5 = method.HitchAndWeave, method.HitchAndZigzag, method.HiddenKnot, method.SplitRoot, method.CornrowHitch
		l6, w1, w2, w3, w4 = method.Stack, method.SharedLoop, method.CollarAndWrap, method.OpenCoil, method.Banded
		w5, t1, t2, t3, b1 = method.BuiltOnHead, method.AnchorTwist, method.FoldAndTwist, method.TwineAndLock, method.OwnStrand
		b2                 = method.WrappedThird
	)
	type ids = []method.ID
	cases := []struct {
		what   string
		change plantest.Change
		where  plan.WhereKind
		first  ids // among the first three
		out    ids
		reason method.ID // whose reason says
		says   string
	}{
		{"soft locs on a usual head", plantest.All(), plan.Everywhere, ids{l1}, nil, l1, "fit each other"},
		{"hair of 1¼ in, braids in hand", plantest.All(plantest.Grown(1.25), plantest.Hung(hair.Braid, 18, 7)), plan.Everywhere, ids{l2}, ids{l1, l4, w2, w4, t2, b2}, l2, "short hair"},
		{"hair of 1¼ in, bulk in hand", plantest.All(plantest.Grown(1.25), plantest.Hung(hair.Bulk, 18, 9)), plan.Everywhere, ids{l3}, ids{l1, l6, t2, w5}, l3, "short hair"},
		{"hair of 2½ in, soft locs", plantest.Grown(2.5), plan.Everywhere, ids{l1}, ids{l4, w2, w4}, w2, "too short"},
		{"hair of 2½ in, coils", plantest.All(plantest.Grown(2.5), plantest.Hung(hair.CoilLoc, 14, 8)), plan.Everywhere, ids{w3}, ids{w2}, w3, "fit each other"},
		{"hair of 20 in, handmade locs", plantest.All(plantest.Grown(20), plantest.Hung(hair.HandmadeLoc, 14, 12)), plan.Everywhere, ids{w4}, nil, w4, "longer than the piece"},
		{"hair of 20 in, soft locs of 18 in thick enough", plantest.All(plantest.Grown(20), plantest.Hung(hair.SoftLoc, 18, 11)), plan.Everywhere, ids{l1}, nil, l1, "Plait and piece fit"},
		{"hair of 26 in, short twists", plantest.All(plantest.Grown(26), plantest.Hung(hair.Twist, 14, 7)), plan.Everywhere, nil, nil, l1, "longer than the piece"},
		{"tender scalp, soft locs", plantest.Tender, plan.Everywhere, ids{l4}, ids{w1}, w1, "tighter on the scalp"},
		{"tender scalp, handmade locs", plantest.All(plantest.Tender, plantest.Hung(hair.HandmadeLoc, 22, 10), plantest.Grown(10)), plan.Everywhere, ids{w2}, ids{w1}, w1, "Tender scalp"},
		{"tender scalp, bulk", plantest.All(plantest.Tender, plantest.Hung(hair.Bulk, 20, 10)), plan.Everywhere, ids{l3, t2}, ids{w1}, t2, "Light on a tender scalp"},
		{"tender scalp, braiding hair", plantest.All(plantest.Tender, plantest.Hung(hair.BraidingHair, 26, 8)), plan.Everywhere, ids{b2}, ids{w1}, b1, "tightens the base"},
		{"fragile edges at the hairline", plantest.Fragile, plan.AtHairline, ids{l4}, ids{w1}, l1, "pulls at them"},
		{"fragile edges, twists", plantest.All(plantest.Fragile, plantest.Hung(hair.Twist, 14, 7)), plan.AtHairline, ids{l4}, ids{w1}, l4, "Light on fragile edges"},
		{"fragile edges matter only there", plantest.Fragile, plan.InBack, ids{l1}, nil, l1, "fit each other"},
		{"a child with twists", plantest.All(plantest.Child, plantest.Hung(hair.Twist, 10, 6)), plan.Everywhere, ids{l4}, ids{w1}, l4, "child"},
		{"a child with bulk", plantest.All(plantest.Child, plantest.Hung(hair.CurlyBulk, 10, 8)), plan.Everywhere, ids{l3, t2}, ids{w1}, w1, "child"},
		{"in the water every day, soft locs", plantest.Wished(method.Wishes{Water: method.Swim}), plan.Everywhere, ids{l1, l4}, ids{t3}, t3, "stay dry"},
		{"in the water, braids", plantest.All(plantest.Wished(method.Wishes{Water: method.Swim}), plantest.Hung(hair.Braid, 18, 9)), plan.Everywhere, ids{l2}, ids{t3}, l2, "holds through washing"},
		{"in the water, bulk", plantest.All(plantest.Wished(method.Wishes{Water: method.Swim}), plantest.Hung(hair.Bulk, 20, 10)), plan.Everywhere, ids{t2}, ids{t3}, t2, "plaited whole"},
		{"in the water, wrapped locs", plantest.All(plantest.Wished(method.Wishes{Water: method.Swim}), plantest.Hung(hair.HandmadeLoc, 22, 10)), plan.Everywhere, nil, ids{t3}, w2, "roots only"},
		{"roots washed, twists on anchored twists", plantest.All(plantest.Wished(method.Wishes{Water: method.Roots}), plantest.Turns, plantest.Hung(hair.Twist, 14, 7)), plan.Everywhere, nil, ids{t3}, t3, "wet own hair"},
		{"two weeks, twists on anchored twists", plantest.All(plantest.Wished(method.Wishes{Weeks: 2, Water: method.Dry}), plantest.Turns, plantest.Hung(hair.Twist, 14, 8)), plan.Everywhere, ids{t3}, nil, t3, "2 to 3 weeks, as wished"},
		{"twelve weeks, soft locs", plantest.Wished(method.Wishes{Weeks: 12}), plan.Everywhere, nil, ids{t1, t3}, l1, "worn 6 to 8 weeks; 12"},
		{"twelve weeks, bulk", plantest.All(plantest.Wished(method.Wishes{Weeks: 12}), plantest.Hung(hair.Bulk, 20, 10)), plan.Everywhere, ids{w5}, ids{t1, t3}, w5, "6 to 12 weeks, as wished"},
		{"five weeks, bulk", plantest.All(plantest.Wished(method.Wishes{Weeks: 5}), plantest.Hung(hair.Bulk, 20, 10)), plan.Everywhere, ids{t2, l3}, nil, t2, "4 to 6 weeks, as wished"},
		{"pieces to be used again, handmade locs", plantest.All(plantest.Wished(method.Wishes{Reuse: true}), plantest.Grown(10), plantest.Hung(hair.HandmadeLoc, 22, 10)), plan.Everywhere, ids{w2, w4}, nil, w2, "come off whole"},
		{"pieces to be used again, coils", plantest.All(plantest.Wished(method.Wishes{Reuse: true}), plantest.Hung(hair.CoilLoc, 14, 8)), plan.Everywhere, ids{w3}, nil, l1, "cut or undone"},
		{"tied up, soft locs", plantest.Wished(method.Wishes{Updo: true}), plan.Everywhere, ids{l4}, nil, l1, "ridge"},
		{"tied up, bulk", plantest.All(plantest.Wished(method.Wishes{Updo: true}), plantest.Hung(hair.Bulk, 20, 10)), plan.Everywhere, ids{l3, t2}, nil, w4, "bulkier at first"},
		{"roots seen in front, soft locs", plantest.All(), plan.InFront, ids{l4}, nil, l4, "the flattest"},
		{"roots seen in front, braids from the root", plantest.Hung(hair.BraidingHair, 26, 8), plan.InFront, ids{b2}, nil, b1, "knot shows"},
		{"a new hand, bulk", plantest.All(plantest.Wished(method.Wishes{Hand: method.NewHand}), plantest.Hung(hair.Bulk, 20, 10)), plan.Everywhere, ids{l3, t2}, nil, w5, "practised hand"},
		{"a new hand, coils", plantest.All(plantest.Wished(method.Wishes{Hand: method.NewHand}), plantest.Hung(hair.CoilLoc, 14, 8)), plan.Everywhere, ids{w3}, nil, w3, "Easy"},
		{"off quickly, twists", plantest.All(plantest.Wished(method.Wishes{Quick: true}), plantest.Hung(hair.Twist, 14, 9)), plan.Everywhere, ids{l1}, nil, w2, "to come off"},
		{"snug plaits, thick locs", plantest.All(plantest.Snug, plantest.Hung(hair.SoftLoc, 20, 11)), plan.Everywhere, ids{l4}, nil, l1, "sits snug"},
		{"fine thin hair, thick locs", plantest.All(plantest.Fine, plantest.Hung(hair.SoftLoc, 20, 14)), plan.Everywhere, nil, nil, l1, "hardly carry"},
		{"thick dense hair, thin twists", plantest.All(plantest.Thick, plantest.Hung(hair.Twist, 14, 5)), plan.Everywhere, nil, nil, l1, "may show through"},
		{"four hours for a whole head", plantest.Wished(method.Wishes{Hours: 4}), plan.Everywhere, ids{l1}, ids{w5}, l1, "there are 4 h"},
		{"on cornrows", plantest.On(parting.EarToEar, parting.Cornrows), plan.OnBase, ids{l5}, nil, l3, "It takes bulk hair"},
		{"on a net, bulk to be used again", plantest.All(plantest.On(parting.NetCap, parting.Net), plantest.Hung(hair.Bulk, 12, 9), plantest.Wished(method.Wishes{Reuse: true})), plan.OnBase, ids{l5, l3}, nil, l5, "come off whole"},
	}
	cases = append(cases, []struct {
		what       string
		change     plantest.Change
		where      plan.WhereKind
		first, out ids
		reason     method.ID
		says       string
	}{
		{"cornrows, and nobody plaits flat", plantest.All(plantest.On(parting.EarToEar, parting.Cornrows), plantest.Wished(method.Wishes{NoCornrows: true})), plan.OnBase, nil, ids{l5, l3}, l5, "choose linked plaits"},
		{"a net over cornrows, and nobody plaits flat", plantest.All(plantest.On(parting.NetCap, parting.Net), plantest.Wished(method.Wishes{NoCornrows: true}), func(in *plan.Input) { in.Parting.Base.Under = parting.OverCornrows }), plan.OnBase, nil, ids{l5}, l5, "cornrows"},
		{"linked plaits, and nobody plaits flat", plantest.All(plantest.On(parting.Linked, parting.LinkedPlaits), plantest.Wished(method.Wishes{NoCornrows: true})), plan.OnBase, ids{l5}, nil, l5, "no plaiting along the scalp"},
		{"locs whose hair is to be wrapped", plantest.All(plantest.Hung(hair.SoftLoc, 20, 11), plantest.Wished(method.Wishes{Hide: method.HiddenUnder})), plan.Everywhere, ids{w2}, nil, l1, "hides own hair differently"},
		{"twists woven inside, as wished", plantest.All(plantest.Hung(hair.Twist, 18, 9), plantest.Wished(method.Wishes{Hide: method.HiddenInside})), plan.Everywhere, ids{l1}, nil, t3, "differently"},
		{"curls in a stack, most of a pack over", plantest.All(plantest.Hung(hair.CurlyBulk, 14, 9), func(in *plan.Input) {
			in.Pieces[0].Pack.Units = 500
			in.Parting.Front.Size = parting.Size{Width: 38, Height: 38}
			in.Parting.Back.Size = in.Parting.Front.Size
		}), plan.Everywhere, nil, nil, l6, "A lot left over"},
	}...)
	require.GreaterOrEqual(t, len(cases), 40)
	for _, c := range cases {
		t.Run(c.what, func(t *testing.T) {
			in := plan.Default()
			c.change(&in)
			list, err := compare.Methods(t.Context(), plantest.Solve(t, in))
			require.NoError(t, err)
			at := slices.IndexFunc(list, func(a compare.Advice) bool { return a.Where == c.where })
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
	in := plan.Default()
	plantest.On(parting.EarToEar, parting.Cornrows)(&in)
	list, err := compare.Methods(t.Context(), plantest.Solve(t, in))
	require.NoError(t, err)
	require.NotEmpty(t, list)
	for _, a := range list {
		seen := map[method.ID]bool{}
		last := 0
		for _, r := range a.Methods {
			assert.False(t, seen[r.Method])
			seen[r.Method] = true
			m, _ := method.Lookup(r.Method)
			assert.Equal(t, a.Where == plan.OnBase, !m.On(method.OnPlait) || a.Where == plan.OnBase)
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
	_, err = plan.Solve(t.Context(), in)
	require.Error(t, err)
	assert.Contains(t, err.Error(), "Weeks of wear")
}
