package house

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/attach"
	"kladotex/core/compare"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/need"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/tally"
	"kladotex/core/workorder"
)

// asked is a plan that every question applies to: tender edges, a part line, cornrows or
// not, loose hair laced, and individuals braided by hand.
func asked(structure parting.Structure) plan.Input {
	in := plan.Default()
	if structure != parting.AllIndividuals {
		in.Parting = in.Parting.On(structure)
	}
	in.Hair.Edges = hair.FragileEdges
	laced := plan.NewWay("w3", method.HitchAndZigzag)
	laced.Choices = method.Chosen{"hair": "loose"}
	in.Ways = append(in.Ways, laced, plan.NewWay("w4", method.WrappedThird), plan.NewWay("w5", method.CollarAndWrap))
	braid := in.Pieces[0]
	braid.Key, braid.Form = "p2", hair.Braid
	bundle := in.Pieces[0]
	bundle.Key, bundle.Form = "p3", hair.BraidingHair
	loc := in.Pieces[0]
	loc.Key, loc.Form = "p4", hair.HandmadeLoc
	in.Pieces = append(in.Pieces, braid, bundle, loc)
	in.Uses = append(in.Uses,
		plan.Use{Where: plan.Where{Kind: plan.InBack}, Piece: "p2", Way: "w3", Count: 1},
		plan.Use{Where: plan.Where{Kind: plan.AtHairline}, Piece: "p3", Way: "w4", Count: 1},
		plan.Use{Where: plan.Where{Kind: plan.AlongPart}, Piece: "p4", Way: "w5", Count: 1})
	return in
}

// told is what a plan tells of each of its parts.
func told(t *testing.T, in plan.Input, house Rules) map[Touch]string {
	t.Helper()
	sol, err := plan.Solve(t.Context(), in)
	require.NoError(t, err)
	res, err := tally.Of(sol)
	require.NoError(t, err)
	advice, err := compare.Methods(t.Context(), sol)
	require.NoError(t, err)
	verdicts := map[string]method.Verdict{}
	for _, a := range advice {
		for _, m := range a.Methods {
			verdicts[string(a.Where)+" "+string(m.Method)] = m.Verdict
		}
	}
	supplied, err := need.Supply(sol)
	require.NoError(t, err)
	before, after := attach.Around(in)
	var steps []any
	for _, w := range res.Work {
		steps = append(steps, w.Steps, w.TakeDown)
	}
	order := []string{}
	for _, r := range workorder.Rows(sol) {
		order = append(order, r.Key)
	}
	write := func(v ...any) string {
		raw, err := json.Marshal(v)
		require.NoError(t, err)
		return string(raw)
	}
	return map[Touch]string{
		TheParting: write(res.Layout.Sections, res.Layout.Cornrows), TheSteps: write(steps, before, after), TheHours: write(res.Hours),
		TheOrder: write(order), WhatToBuy: write(supplied.Need), AtHome: write(supplied.Tasks), TheLoad: write(res.Notices),
		TheMethods: write(verdicts), WeeksOfWear: write(house.Wear(), in.Wish().Weeks),
	}
}

// Something follows from every side of every question, and the question says from what: it
// touches the parts of a plan that it names and no others.
func TestWhatAQuestionTouches(t *testing.T) {
	for _, s := range Schools {
		t.Run(s.Key, func(t *testing.T) {
			t.Parallel()
			touched := map[Touch]bool{}
			alone := map[string]bool{}
			for _, structure := range []parting.Structure{parting.AllIndividuals, parting.EarToEar} {
				seen := map[string]string{}
				var first map[Touch]string
				for _, side := range s.Sides {
					r := Usual()
					r.Sides = map[string]string{s.Key: side.Key}
					in := r.Begin(asked(structure))
					require.NoError(t, plan.Check(in), side.Key)
					what := told(t, in, r)
					if first == nil {
						first = what
					}
					for _, part := range Touched {
						if what[part] != first[part] {
							touched[part] = true
						}
					}
					raw, err := json.Marshal(what)
					require.NoError(t, err)
					if _, same := seen[string(raw)]; !same {
						alone[side.Key] = true
					}
					seen[string(raw)] = side.Key
				}
			}
			for _, side := range s.Sides {
				assert.True(t, alone[side.Key], "nothing follows from %s", side.Key)
			}
			var parts []Touch
			for _, part := range Touched {
				if touched[part] {
					parts = append(parts, part)
				}
			}
			assert.Equal(t, parts, s.Touches)
		})
	}
}

// A house that takes a side begins no plan against it, whatever the head, and never undoes
// what else was settled.
func TestBeginningKeepsWhatIsNotAsked(t *testing.T) {
	in := asked(parting.AllIndividuals)
	in.Customs = map[string]string{"foam": "night"}
	in.Wishes = &method.Wishes{Updo: true, Hours: 5}
	r := Usual()
	r.Sides = map[string]string{"foam": "night", "wear": "two", "hide": "wrapped", "rinse": "new"}
	begun := r.Begin(in)
	assert.Equal(t, map[string]string{"foam": "night", "rinse": "new"}, begun.Customs)
	assert.Equal(t, method.Wishes{Updo: true, Hours: 5, Weeks: 2, Hide: method.HiddenUnder}, *begun.Wishes)
	assert.Equal(t, map[string]string{"foam": "night"}, in.Customs, "the plan it began from stays as it was")
	assert.Equal(t, method.Wishes{Updo: true, Hours: 5}, *in.Wishes)
	assert.Equal(t, in.Pieces, begun.Pieces)
	assert.Equal(t, in.Uses, begun.Uses)
	assert.Empty(t, r.Departures(begun))
}

// The line stops where the crown of this head is, large or small.
func TestThePartLineFollowsTheHead(t *testing.T) {
	stops := func(around, over float64) float64 {
		in := plan.Default()
		in.Head.Circumference, in.Head.FrontToNape = around, over
		return Usual().Begin(in).Parting.Part.Stop
	}
	small, large := stops(520, 330), stops(600, 380)
	assert.Greater(t, large, small+3)
	assert.InDelta(t, 86, stops(558.8, 355.6), 2)
	levels := plan.Default()
	levels.Parting.Part.Kind = parting.Levels
	assert.Zero(t, Usual().Begin(levels).Parting.Part.Stop, "levels have no part line")
}
