package judge_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/advice"
	"kladotex/core/hair"
	"kladotex/core/judge"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
	"kladotex/core/tally"
	"kladotex/core/wear"
)

// judgedHead is a head with what a stylist would say of it: the code that must be found, or
// none of those on fit and load.
type judgedHead struct {
	name   string
	change plantest.Change
	want   advice.Code
}

const in1 = 25.4

// Common practice, no source, except for what core rules say of plait against piece: what a
// stylist would say of thirty heads.
var judged = []judgedHead{
	// What suits.
	{"soft locs of 18 in at an inch", plantest.All(), ""},
	{"small twists at three quarters", plantest.All(plantest.Size(0.75*in1), plantest.By(method.HitchAndWeave, hair.Twist), plantest.Piece(14*in1, 7, 2)), ""},
	{"medium locs at an inch and a quarter", plantest.All(plantest.Size(1.25*in1), plantest.By(method.CollarAndWrap, hair.SoftLoc), plantest.Piece(18*in1, 11, 5)), ""},
	{"coil locs at an inch", plantest.All(plantest.By(method.OpenCoil, hair.CoilLoc), plantest.Piece(16*in1, 11, 4)), ""},
	{"braids by hand at an inch", plantest.All(plantest.By(method.WrappedThird, hair.BraidingHair), plantest.Piece(24*in1, 7, 4)), ""},
	{"a child's short light twists", plantest.All(func(in *plan.Input) { in.Child = true }, plantest.Size(in1), plantest.Piece(10*in1, 8, 1.8)), ""},
	// Plait against piece.
	{"thick hair in big sections under thin braids", plantest.All(plantest.OwnHair(230, 90, 150), plantest.Size(1.5*in1), plantest.By(method.HitchAndZigzag, hair.Braid), plantest.Piece(18*in1, 6, 3)), advice.FatPlait},
	{"big sections under thin twists", plantest.All(plantest.Size(1.5*in1), plantest.By(method.HitchAndWeave, hair.Twist), plantest.Piece(14*in1, 5, 2)), advice.FatPlait},
	{"dense hair under a wrap no thicker than its base", plantest.All(plantest.OwnHair(260, 95, 150), plantest.Size(1.5*in1), plantest.By(method.CollarAndWrap, hair.SoftLoc), plantest.Piece(18*in1, 6, 4)), advice.FatPlait},
	{"fine hair in half-inch sections under a fat loc", plantest.All(plantest.OwnHair(120, 55, 150), plantest.Size(0.5*in1), plantest.Piece(18*in1, 14, 2)), advice.ThinPlait},
	{"sparse hair under thick locs", plantest.All(plantest.OwnHair(80, 60, 150), plantest.Size(0.75*in1), plantest.Piece(18*in1, 16, 2)), advice.ThinPlait},
	{"a loop that does not open", func(in *plan.Input) { in.Pieces[0].Loop = 4 }, advice.TightLoop},
	{"thick hair and a small loop", plantest.All(plantest.OwnHair(230, 90, 150), plantest.Size(1.25*in1), func(in *plan.Input) { in.Pieces[0].Loop = 7 }), advice.TightLoop},
	{"12 mm locs with loops of 10 mm on cornrows", plantest.All(plantest.Piece(18*in1, 12, 4), func(in *plan.Input) {
		in.Parting, in.Pieces[0].Loop = in.Parting.On(parting.EarToEar), 10
	}), advice.OwnLoop},
	{"a loop that does not go round a cornrow", plantest.All(plantest.OwnHair(230, 90, 200), plantest.Piece(18*in1, 8, 3), func(in *plan.Input) {
		in.Parting, in.Pieces[0].Loop = in.Parting.On(parting.EarToEar), 10
		in.Parting.Base.Cornrows = 4
	}), advice.TightLoop},
	{"thick locs on hair-thin cornrows", plantest.All(plantest.OwnHair(110, 55, 60), plantest.Piece(18*in1, 11, 2), func(in *plan.Input) {
		in.Parting, in.Pieces[0].Loop = in.Parting.On(parting.EarToEar), 16
		in.Parting.Base.Cornrows = 11
	}), advice.SlackLoop},
	{"a loop that opens far enough", func(in *plan.Input) { in.Pieces[0].Loop = 14 }, ""},
	{"a thick loc on snug plaits", plantest.All(plantest.Piece(18*in1, 10, 4), func(in *plan.Input) { in.Plaits.Tension = plait.Snug }), advice.TightRoot},
	{"a thin twist on snug plaits", plantest.All(plantest.Size(0.75*in1), plantest.Piece(18*in1, 7, 2), func(in *plan.Input) { in.Plaits.Tension = plait.Snug }), ""},
	{"long own hair and short pieces", plantest.All(plantest.OwnHair(190, 75, 18*in1), plantest.Piece(12*in1, 9, 3)), advice.LongPlait},
	{"long own hair and pieces as long", plantest.All(plantest.OwnHair(190, 75, 16*in1), plantest.Piece(18*in1, 9, 4)), ""},
	{"very short own hair woven in", plantest.OwnHair(190, 75, 25), advice.ShortHair},
	{"straight hair, only looped", func(in *plan.Input) { in.Hair.Texture = hair.Straight }, advice.Slips},
	{"straight hair with a band at each root", func(in *plan.Input) { in.Hair.Texture, in.Plaits.Band = hair.Straight, true }, ""},
	{"very fine hair, only looped", plantest.All(plantest.OwnHair(200, 50, 150), plantest.Size(1.1*in1)), advice.Slips},
	{"a coil loc method with braids", func(in *plan.Input) { in.Ways[0] = plan.NewWay(plantest.FirstWay, method.OpenCoil) }, advice.WrongForm},
	{"a whole plait for anchor and twist", plantest.By(method.AnchorTwist, hair.Bulk), advice.WrongBase},
	// Load.
	{"60 g pieces", plantest.Piece(18*in1, 14, 60), advice.TooHeavy},
	{"six a section", func(in *plan.Input) { in.Uses[0].Count = 6 }, advice.TooHeavy},
	{"40 in long, as heavy as they come", plantest.Piece(40*in1, 9, 9), advice.HeavyHere},
	{"8 g locs on half-inch sections of fine sparse hair", plantest.All(plantest.OwnHair(110, 55, 150), plantest.Size(0.5*in1), plantest.Piece(18*in1, 9, 8)), advice.TooHeavy},
	{"30 in on a tender child", plantest.All(plantest.Piece(30*in1, 8, 3), func(in *plan.Input) { in.Child, in.Hair.Tender = true, true }), advice.LongPiece},
	{"30 in on strong adult edges", plantest.All(plantest.Piece(30*in1, 9, 4.5)), ""},
	{"5.5 g on a tender scalp", plantest.All(plantest.Piece(18*in1, 9, 5.5), func(in *plan.Input) { in.Hair.Tender = true }), advice.HeavyHere},
	{"5 g on any other", plantest.Piece(18*in1, 9, 5), ""},
	{"long locs on fragile edges", plantest.All(plantest.Piece(26*in1, 9, 4.5), func(in *plan.Input) { in.Hair.Edges = hair.FragileEdges }), advice.LongPiece},
	{"8 g hooked close on cornrows", plantest.All(plantest.Piece(18*in1, 9, 9), func(in *plan.Input) {
		in.Parting = in.Parting.On(parting.EarToEar)
		in.Parting.Base.Spacing = 10
	}), advice.HeavyHere},
}

func TestWhatAStylistWouldSay(t *testing.T) {
	require.GreaterOrEqual(t, len(judged), 30)
	for _, c := range judged {
		in := plan.Default()
		c.change(&in)
		f, err := judge.Fit(t.Context(), plantest.Solve(t, in), nil, nil)
		require.NoError(t, err, c.name)
		found := map[advice.Code]bool{}
		for _, z := range f.Zones {
			for _, x := range z.Findings {
				found[x.Code] = true
				assert.NotEmpty(t, x.Reason, c.name)
			}
		}
		if c.want == "" {
			assert.Empty(t, found, c.name)
			continue
		}
		assert.Contains(t, found, c.want, c.name)
		// What is found at places is told among the plan's notices too.
		res, err := tally.Compute(t.Context(), in)
		require.NoError(t, err)
		assert.True(t, slices.ContainsFunc(res.Notices, func(n advice.Notice) bool { return n.Code == c.want }), c.name)
	}
}

// Every remedy is a plan that can be laid, and in it fewer places have what it is for; nearly
// always none.
func TestRemediesHelp(t *testing.T) {
	have := []judge.Ready{
		{Piece: hair.Piece{Key: "s1", Name: "Short light twist", Form: hair.Twist, Length: 12 * in1, Thickness: 8, Mass: 1.6, Loop: 16, Pack: hair.Pack{Units: 30, Cuts: 1, Splits: 1}, Offers: []hair.Offer{{Packs: 1, Price: 900}}}, Stash: 30},
		{Piece: hair.Piece{Key: "s3", Name: "Slim soft loc", Form: hair.SoftLoc, Length: 16 * in1, Thickness: 5, Mass: 1, Loop: 16, Pack: hair.Pack{Units: 40, Cuts: 1, Splits: 1}, Offers: []hair.Offer{{Packs: 1, Price: 900}}}, Stash: 30},
		{Piece: hair.Piece{Key: "s2", Name: "Long soft loc", Form: hair.SoftLoc, Length: 24 * in1, Thickness: 12, Mass: 4, Loop: 18, Pack: hair.Pack{Units: 20, Cuts: 1, Splits: 1}, Offers: []hair.Offer{{Packs: 1, Price: 1500}}}, Stash: 30},
	}
	tried, cured, kinds := 0, 0, map[advice.Code]bool{}
	for _, c := range judged {
		if c.want == "" {
			continue
		}
		in := plan.Default()
		c.change(&in)
		before, err := judge.Fit(t.Context(), plantest.Solve(t, in), have, nil)
		require.NoError(t, err)
		for _, z := range before.Zones {
			for _, x := range z.Findings {
				for _, r := range x.Remedies {
					after, err := judge.Fit(t.Context(), plantest.Solve(t, r.Input), nil, nil)
					require.NoError(t, err, "%s: %s", c.name, r.Says)
					left := countAt(after, z.Name, x.Code)
					assert.Less(t, left, x.Count, "%s: %s in %s does not help against %s", c.name, r.Says, z.Name, x.Code)
					tried++
					kinds[x.Code] = true
					if left == 0 {
						cured++
					}
				}
			}
		}
	}
	assert.Greater(t, tried, 60)
	assert.Greater(t, float64(cured)/float64(tried), 0.8)
	for _, c := range judged {
		assert.True(t, c.want == "" || kinds[c.want], "nothing is offered against %s", c.want)
	}
}

// A product that is not borne is said where the head is planned with it, and nowhere else.
func TestWhatIsNotBorneIsSaid(t *testing.T) {
	said := func(change plantest.Change, avoid ...plan.ProductKey) (reasons []string) {
		in := plantest.Of(change)
		in.Avoid = avoid
		for _, n := range judge.Notices(plantest.Solve(t, in), 100) {
			if n.Code == advice.Allergy {
				assert.Equal(t, advice.Danger, n.Severity)
				assert.NotEmpty(t, n.Remedy)
				reasons = append(reasons, n.Reason)
			}
		}
		return reasons
	}
	banded := func(in *plan.Input) { in.Plaits.Band = true }
	assert.Len(t, said(banded, plan.Bands, plan.Gel, plan.FoamSet, plan.Glue), 3)
	assert.Len(t, said(plantest.All(), plan.Bands, plan.Glue, plan.Wax), 0)
	bare := func(in *plan.Input) { in.Customs = map[string]string{plan.Product: "none", plan.Foam: "none"} }
	assert.Empty(t, said(bare, plan.Gel, plan.Wax, plan.FoamSet))
}

// heavy tells of the two codes that say a load is too much.
func heavy(c advice.Code) bool { return c == advice.HeavyHere || c == advice.TooHeavy }

// countAt is at how many places of a zone a code is found.
func countAt(f judge.Fitting, zone string, code advice.Code) int {
	n := 0
	for _, z := range f.Zones {
		for _, x := range z.Findings {
			if z.Name == zone && (x.Code == code || heavy(x.Code) && heavy(code)) {
				n += x.Count
			}
		}
	}
	return n
}

func TestTheHeadAgainstWhatWasWornBefore(t *testing.T) {
	in := plan.Default()
	res, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	says := func(before ...wear.Earlier) []string {
		f, err := judge.Fit(t.Context(), plantest.Solve(t, in), nil, before)
		require.NoError(t, err)
		assert.Equal(t, res.Tally.Weight, f.Load.Dry)
		assert.Equal(t, 2*f.Load.Dry, f.Load.Soaked)
		assert.Contains(t, f.Load.NoLimit, "No safe limit is published")
		return f.Load.Says
	}
	assert.Len(t, says(), 1)
	heavier := says(wear.Earlier{What: "Twists", Mass: res.Tally.Weight / 1.5, Comfortable: true})
	require.Len(t, heavier, 2)
	assert.Contains(t, heavier[1], "50 % heavier than the heaviest install worn in comfort")
	assert.Contains(t, says(wear.Earlier{What: "Locs", Mass: 2 * res.Tally.Weight, Comfortable: true})[1], "50 % lighter")
	assert.Contains(t, says(wear.Earlier{What: "Locs", Mass: res.Tally.Weight - 1})[1], "no lighter")
	assert.Len(t, says(wear.Earlier{What: "Not weighed", Comfortable: true}), 1)
}
