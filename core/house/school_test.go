package house

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/wear"
)

// Where practitioners disagree, the usual side is the one in bold in the trade's schools
// (common practice, no source), but for how cornrows run: the five a plan begins with are no thinner than
// they should be straight back only.
func TestUsualSides(t *testing.T) {
	want := map[string]string{"tension": "slack", "elastics": "no", "edges": "out", "glue": "rolled", "hook": "up", "far": "whole", "direction": "over",
		"part": "before", "draws": "few", "hide": "inside", "perimeter": "B2", "water": "roots", "wear": "six",
		"stretch": "stretched", "rinse": "rinsed", "colour": "roots", "pieces": "bought", "product": "gel", "neat": "shown", "start": "back", "moisture": "damp", "density": "air", "knots": "left", "foam": "minutes", "run": "straight-back", "ends": "bare", "seal": "tucked"}
	require.Len(t, Schools, len(want))
	for _, s := range Schools {
		assert.Equal(t, want[s.Key], s.Usual, s.Key)
		keys := map[string]bool{}
		for _, side := range s.Sides {
			keys[side.Key] = true
			assert.NotEmpty(t, side.Reason, "%s: every side has its reason", s.Key)
		}
		assert.True(t, keys[s.Usual] && len(keys) == len(s.Sides) && len(keys) > 1, s.Key)
	}
}

// A plan begun in a house follows it in everything; taking another side is told, and taken
// back by what is told.
func TestPlansFollowTheHouseAndSayWhereTheyDoNot(t *testing.T) {
	in := plan.Default()
	in.Hair.Edges = hair.FragileEdges
	laced := plan.NewWay("w3", method.HitchAndZigzag)
	laced.Choices = method.Chosen{"hair": "loose"}
	in.Ways = append(in.Ways, laced, plan.NewWay("w4", method.WrappedThird), plan.NewWay("w5", method.CollarAndWrap))
	in.Uses = append(in.Uses, plan.Use{Where: plan.Where{Kind: plan.AlongPart}, Way: "w5"})
	based := in
	based.Parting = in.Parting.On(parting.EarToEar)
	usual := Usual().Begin(in)
	assert.Positive(t, usual.Parting.Edges, "tender edges are left out")
	assert.Empty(t, Usual().Departures(usual))
	for _, s := range Schools {
		for _, side := range s.Sides {
			r := Usual()
			r.Sides = map[string]string{s.Key: side.Key}
			require.NoError(t, r.Check())
			begun := r.Begin(in)
			if s.Key == "run" { // asked where there are cornrows
				begun = r.Begin(based)
			}
			require.NoError(t, plan.Check(begun), "%s: %s", s.Key, side.Key)
			assert.Empty(t, r.Departures(begun))
			if side.Key == s.Usual {
				continue
			}
			found := Usual().Departures(begun)
			require.Len(t, found, 1, "%s: %s", s.Key, side.Key)
			assert.Equal(t, side.Key, found[0].Plan.Key)
			assert.Equal(t, s.Usual, found[0].House.Key)
			assert.Empty(t, Usual().Departures(found[0].AsHouse))
		}
	}
	strong := Usual().Begin(plan.Default())
	strong.Parting.Edges = 0
	assert.Empty(t, Usual().Departures(strong), "strong edges are no question")
}

func TestUnknownSidesAreRefused(t *testing.T) {
	r := Usual()
	r.Sides = map[string]string{"tension": "tight", "moon": "full"}
	bad := invalid.From(r.Check())
	require.Len(t, bad, 2)
	for _, b := range bad {
		assert.Contains(t, []string{"sides.tension", "sides.moon"}, b.Path)
	}
	raw, err := json.Marshal(Usual())
	require.NoError(t, err)
	assert.NotContains(t, string(raw), "sides", "rules as they were stay as they were")
	read, err := Decode(raw)
	require.NoError(t, err)
	assert.True(t, read.Equal(Usual()))
	assert.False(t, read.Equal(r))
}

// A house has heads worn as its side says; six to eight weeks are the usual advice, two weeks to four months
// are seen (common practice, no source).
func TestAHouseHasHeadsWorn(t *testing.T) {
	assert.Equal(t, wear.Rules{Weeks: wear.Weeks{Least: 6, Most: 8}}, Usual().Wear())
	for side, most := range map[string]int{"two": 3, "six": 8, "four": 16} {
		r := Usual()
		r.Sides = map[string]string{"wear": side}
		require.NoError(t, r.Check())
		assert.Equal(t, most, r.Wear().Most, side)
		assert.Equal(t, side == "four", r.Wear().WithCare, side)
	}
}
