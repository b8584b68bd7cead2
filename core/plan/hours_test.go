package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
)

// withHand is the plan with one who works.
func withHand(in Input, hand pace.Hand, fresh ...string) Input {
	in.Day = &Day{Hands: []Hand{{Key: "a", Name: "A", Hand: hand, Does: DoesBoth, New: fresh}}}
	return in
}

// carded cuts all sections to a width and height, mm.
func carded(in Input, mm float64) Input {
	for _, w := range []*parting.Wish{&in.Parting.Front, &in.Parting.Back} {
		w.Width, w.Height = mm, mm
	}
	return in
}

// haired gives the own hair one length, mm.
func haired(in Input, mm float64) Input {
	in.Hair.Front, in.Hair.Sides, in.Hair.Crown, in.Hair.Nape = mm, mm, mm, mm
	return in
}

// wornBy hangs a form of piece everywhere by a method, on a structure.
func wornBy(id method.ID, form hair.Form, structure parting.Structure) Input {
	in := Default()
	in.Ways[0], in.Pieces[0].Form = NewWay(firstWay, id), form
	if structure != parting.AllIndividuals {
		in.Parting = in.Parting.On(structure)
	}
	return in
}

// Times of common practice, no source (core.md §9), each within a quarter of what is told; of
// a span the nearer end counts. What is in a time is said beside it.
func TestHoursOfCommonPractice(t *testing.T) {
	attached := pace.Attaching
	plaited := append([]pace.Kind{pace.Plaits}, attached...)
	all := append(append([]pace.Kind{pace.Settle, pace.Finish}, pace.Basing...), attached...)
	own := func(in Input) Input { in.OwnHead = true; return in }

	horseshoe := carded(wornBy(method.HitchAndWeave, hair.SoftLoc, parting.Horseshoe), 19)
	horseshoe.Pieces[0].Thickness = 10
	merging := horseshoe
	merging.Parting.Base.MergeSides = true
	straight := wornBy(method.HitchAndWeave, hair.SoftLoc, parting.Perimeter)
	straight.Parting.Base.Run, straight.Parting.Base.Tracks = parting.StraightBack, 10
	twists := haired(carded(wornBy(method.HitchAndWeave, hair.Twist, parting.AllIndividuals), 21), 4*25.4)
	design := carded(wornBy(method.HitchAndWeave, hair.SoftLoc, parting.FrontDesign), 17)
	net := wornBy(method.HitchAndWeave, hair.SoftLoc, parting.NetCap)
	net.Parting.Base.Kind, net.Parting.Base.NoRing, net.Parting.Part.Kind = parting.Net, true, parting.NoPart
	net.Pieces[0].Form, net.Ways[1] = hair.Bulk, NewWay(hookWay, method.HiddenKnot)
	stations := carded(wornBy(method.Stations, hair.CurlyBulk, parting.AllIndividuals), 38)
	stations.Ways[0].Settings["stations"] = 5

	for _, c := range []struct {
		what      string
		in        Input
		of        []pace.Kind
		pieces    [2]int // what the practice is about
		low, high float64
	}{
		{"12 individuals woven and about 50 hooked, 45 min", horseshoe, attached, [2]int{52, 72}, 45, 45},
		{"their base, 12 plaits and 6 + 6 tracks merging, 45 min", merging, pace.Basing, [2]int{40, 72}, 45, 45},
		{"straight-back tracks all over, own head, with setting out, about 1 h", own(straight), []pace.Kind{pace.Settle, pace.Tracks}, [2]int{60, 170}, 60, 60},
		{"55 coil locs plaited and closed, 5 to 6 h", own(haired(carded(wornBy(method.OpenCoil, hair.CoilLoc, parting.AllIndividuals), 34), 8*25.4)), plaited, [2]int{50, 60}, 300, 360},
		{"150 short twists woven, first time, own head, 10 to 14 h", withHand(own(twists), pace.Beginner, string(method.HitchAndWeave)), all, [2]int{140, 160}, 600, 840},
		{"45 to 70 collar-and-wrap locs after the plaits, at most 3 h", carded(wornBy(method.CollarAndWrap, hair.HandmadeLoc, parting.AllIndividuals), 32), attached, [2]int{45, 70}, 120, 180},
		{"43 banded locs on very long hair, 4 h", haired(carded(wornBy(method.Banded, hair.HandmadeLoc, parting.AllIndividuals), 38.5), 18*25.4), attached, [2]int{41, 46}, 240, 240},
		{"net laid and hidden knots, 100 to 180 units, 2 h", net, []pace.Kind{pace.Nets, pace.Hook}, [2]int{100, 180}, 120, 120},
		{"five stations a plait, over 3 h", stations, attached, [2]int{200, 250}, 180, 360},
		{"a front of individuals and decorative tracks with setting out and finishing, 2 to 2½ h", design, nil, [2]int{60, 90}, 120, 150},
		{"the same on the own head, 2½ to 3 h", own(design), nil, [2]int{60, 90}, 150, 180},
	} {
		res, err := Compute(t.Context(), c.in)
		require.NoError(t, err, c.what)
		assert.True(t, c.pieces[0] <= res.Tally.Pieces && res.Tally.Pieces <= c.pieces[1], "%s: %d pieces", c.what, res.Tally.Pieces)
		minutes := res.Hours.Of(c.of...).Likely
		if c.of == nil {
			minutes = frontMinutes(t, c.in)
		}
		assert.True(t, minutes >= 0.75*c.low && minutes <= 1.25*c.high, "%s: %.0f min", c.what, minutes)
		t.Logf("%s: %.0f min, %d pieces", c.what, minutes, res.Tally.Pieces)
	}
}

// frontMinutes is what the front of a head takes: its plaits, tracks and pieces, with setting
// out and finishing.
func frontMinutes(t *testing.T, in Input) float64 {
	t.Helper()
	w, err := in.resolved(t.Context(), parting.Lay)
	require.NoError(t, err)
	w.workAll()
	tasks := []pace.Task{settleTask, w.finishTask()}
	for i := range w.layout.Tracks {
		if x := &w.layout.Tracks[i]; x.Zone == parting.DesignLeft || x.Zone == parting.DesignRight {
			tasks = append(tasks, trackTask(x))
		}
	}
	for i := range w.res.Places {
		if !w.res.Places[i].Front {
			continue
		}
		if p, has := w.plaitTask(i); has {
			tasks = append(tasks, p)
		}
		tasks = w.attachTasks(tasks, i)
	}
	return pace.Estimate(tasks, w.worker(0)).Total.Likely
}

// Each piece of a plait that is twisted in takes its own twist: two strands twice one.
func TestTwoStrandsTakeTwoTwists(t *testing.T) {
	hidden := func(count int) float64 {
		in := wornBy(method.FoldAndTwist, hair.Bulk, parting.AllIndividuals)
		in.Uses[0].Count = count
		res, err := Compute(t.Context(), in)
		require.NoError(t, err)
		return res.Hours.Of(pace.Conceal).Likely
	}
	assert.InEpsilon(t, 2*hidden(1), hidden(2), 1e-9)
}
