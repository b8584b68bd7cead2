package hours

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
	"kladotex/core/supply"
)

// Times of common practice, no source (core.md §9), each within a quarter of what is told; of
// a span the nearer end counts. What is in a time is said beside it.
func TestHoursOfCommonPractice(t *testing.T) {
	attached := pace.Attaching
	plaited := append([]pace.Kind{pace.Plaits}, attached...)
	all := append(append([]pace.Kind{pace.Settle, pace.Finish}, pace.Basing...), attached...)
	own := func(in plan.Input) plan.Input { in.OwnHead = true; return in }

	horseshoe := plantest.Carded(plantest.WornBy(method.HitchAndWeave, hair.SoftLoc, parting.Horseshoe), 19)
	horseshoe.Pieces[0].Thickness = 10
	merging := horseshoe
	merging.Parting.Base.MergeSides = true
	straight := plantest.WornBy(method.HitchAndWeave, hair.SoftLoc, parting.Perimeter)
	straight.Parting.Base.Run, straight.Parting.Base.Cornrows = parting.StraightBack, 10
	twists := plantest.Haired(plantest.Carded(plantest.WornBy(method.HitchAndWeave, hair.Twist, parting.AllIndividuals), 21), 4*25.4)
	design := plantest.WornBy(method.HitchAndWeave, hair.SoftLoc, parting.FrontDesign)
	net := plantest.WornBy(method.HitchAndWeave, hair.SoftLoc, parting.NetCap)
	net.Parting.Part.Kind, net.Pieces[0].Thickness = parting.NoPart, 7
	net.Pieces[0].Form, net.Ways[1] = hair.Bulk, plan.NewWay(plantest.HookWay, method.HiddenKnot)
	stations := plantest.Carded(plantest.WornBy(method.Stack, hair.CurlyBulk, parting.AllIndividuals), 38)
	stations.Ways[0].Settings["stations"] = 5

	for _, c := range []struct {
		what      string
		in        plan.Input
		of        []pace.Kind
		pieces    [2]int // what the practice is about
		low, high float64
	}{
		{"12 individuals woven and about 50 hooked, 45 min", horseshoe, attached, [2]int{52, 72}, 45, 45},
		{"their base, 12 plaits and 6 + 6 cornrows merging, 45 min", merging, pace.Basing, [2]int{40, 72}, 45, 45},
		{"straight-back cornrows all over, about 1 h", straight, []pace.Kind{pace.Cornrows}, [2]int{60, 170}, 60, 60},
		{"55 coil locs plaited and closed, 5 to 6 h", own(plantest.Haired(plantest.Carded(plantest.WornBy(method.OpenCoil, hair.CoilLoc, parting.AllIndividuals), 34), 8*25.4)), plaited, [2]int{50, 60}, 300, 360},
		{"150 short twists woven, first time, own head, 10 to 14 h", plantest.WithHand(own(twists), pace.Beginner, string(method.HitchAndWeave)), all, [2]int{140, 160}, 600, 840},
		{"45 to 70 collar-and-wrap locs after the plaits, at most 3 h", plantest.Carded(plantest.WornBy(method.CollarAndWrap, hair.HandmadeLoc, parting.AllIndividuals), 32), attached, [2]int{45, 70}, 120, 180},
		{"43 banded locs on very long hair, 4 h", plantest.Haired(plantest.Carded(plantest.WornBy(method.Banded, hair.HandmadeLoc, parting.AllIndividuals), 38.5), 18*25.4), attached, [2]int{41, 46}, 240, 240},
		{"net and hidden knots, 100 to 180 units, 2 h in all", net, append(all, pace.Nets), [2]int{100, 180}, 120, 120},
		{"70 to 80 braids of 24 in by hand, 6 to 8 h in all", plantest.Carded(plantest.Of(plantest.By(method.WrappedThird, hair.BraidingHair), plantest.Piece(24*25.4, 8, 5)), 29), all, [2]int{70, 80}, 360, 480},
		{"five pieces a plait, over 3 h", stations, attached, [2]int{200, 250}, 180, 360},
		{"a front of individuals and decorative cornrows with setting out and finishing, 2 to 2½ h", design, nil, [2]int{60, 90}, 120, 150},
		{"the same on own head, 2½ to 3 h", own(design), nil, [2]int{60, 90}, 150, 180},
	} {
		sol := plantest.Solve(t, c.in)
		pieces := 0
		for _, p := range sol.Places {
			pieces += p.Count
		}
		assert.True(t, c.pieces[0] <= pieces && pieces <= c.pieces[1], "%s: %d pieces", c.what, pieces)
		minutes := Of(sol).Of(c.of...).Likely
		if c.of == nil {
			minutes = frontMinutes(t, c.in)
		}
		assert.True(t, minutes >= 0.75*c.low && minutes <= 1.25*c.high, "%s: %.0f min", c.what, minutes)
		t.Logf("%s: %.0f min, %d pieces", c.what, minutes, pieces)
	}
}

// frontMinutes is what the front of a head takes: its plaits, cornrows and pieces, with setting
// out and finishing.
func frontMinutes(t *testing.T, in plan.Input) float64 {
	t.Helper()
	sol := plantest.Solve(t, in)
	tasks := []pace.Task{settle, finishTask(sol)}
	for i := range sol.Layout.Cornrows {
		if x := &sol.Layout.Cornrows[i]; x.OfDesign() {
			tasks = append(tasks, cornrowTask(sol, x))
		}
	}
	for i := range sol.Places {
		if !sol.Places[i].Front {
			continue
		}
		if p, has := plaitTask(sol, i); has {
			tasks = append(tasks, p)
		}
		tasks = attachTasks(sol, tasks, i)
	}
	return pace.Estimate(tasks, sol.Input.Worker(0)).Total.Likely
}

// A front side of six decorated cornrows with hair fed in takes about an hour, the same on both
// sides. Common practice, no source.
func TestADesignTakesAnHourASide(t *testing.T) {
	sides := Design(plantest.Solve(t, plantest.FedIn()))
	require.Len(t, sides, 2)
	assert.InEpsilon(t, sides[0].Minutes, sides[1].Minutes, 1e-9)
	// The braids that hang behind are not in the hour.
	braids := 6 * 24 * 25.4 * craft.BraidRate
	assert.InEpsilon(t, 60, sides[0].Minutes-braids, 0.25)
}

// Strands of one twist are taken up and twisted as one: two of them are twice the hair, and no
// more time than one.
func TestStrandsOfOneTwist(t *testing.T) {
	of := func(count int) (bought int, minutes float64) {
		in := plantest.WornBy(method.FoldAndTwist, hair.Bulk, parting.AllIndividuals)
		in.Uses[0].Count, in.Spares = count, supply.Spares{}
		sol := plantest.Solve(t, in)
		for _, p := range sol.Places {
			bought += p.Count
		}
		return bought, Of(sol).Of(pace.Attaching...).Likely
	}
	one, minutes := of(1)
	two, asLong := of(2)
	assert.Equal(t, 2*one, two)
	assert.InEpsilon(t, minutes, asLong, 1e-9)
}
