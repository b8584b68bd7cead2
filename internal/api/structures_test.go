package api

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/compare"
	"kladotex/core/house"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/core/tally"
	"kladotex/internal/flat"
)

// on is the plan a newcomer starts from, on another structure.
func on(structure parting.Structure) plan.Input {
	in := plan.Default()
	in.Parting.Structure = structure
	return in
}

// Every structure is computed, kept, and read back as it was sent.
func TestStructuresOverHTTP(t *testing.T) {
	t.Parallel()
	s := open(t)
	for _, structure := range parting.Structures {
		in := on(structure)
		in.Hairline.Front = 6
		in.Parting.LeftOut = []parting.Spot{{At: parting.Direction{0.6, 0.6, 0.5291502622129182}, Radius: 14}}
		in.Parting.Edits = []parting.Edit{{Kind: parting.Lock, At: parting.Direction{0.8, 0.1, 0.5916079783099616}}}
		var res flat.Preview
		s.send("POST", "/api/v1/preview", text(t, in)).json(t, &res)
		want, err := tally.Compute(context.Background(), in)
		require.NoError(t, err)
		assert.Equal(t, want.Tally, res.Tally, structure)
		assert.Len(t, res.Layout.Cornrows, len(want.Layout.Cornrows), structure)
		doc := s.newPlan(string(structure), in)
		var kept planDocument
		s.send("GET", "/api/v1/plans/"+doc.ID, "").json(t, &kept)
		assert.Equal(t, in, kept.Input, structure)
		assert.Equal(t, 200, s.send("GET", "/api/v1/plans/"+doc.ID+"/sheet.pdf?unit=in&paper=a4", "").StatusCode)
	}
}

// What contradicts itself is refused at its field, from the parts the schema knows to
// those only this head rules out.
func TestContradictionsAreRefusedAtTheirField(t *testing.T) {
	t.Parallel()
	s := open(t)
	good := text(t, on(parting.EarToEar))
	for name, c := range map[string]struct{ old, new, location, says string }{
		"no such structure":    {`"structure":"ear-to-ear"`, `"structure":"halo"`, "body.parting.structure", ""},
		"a part that stops":    {`"stopMm":0`, `"stopMm":3`, "body.parting.part.stopMm", "between"},
		"tracks":               {`"tracks":5,"sideTracks"`, `"tracks":55,"sideTracks"`, "body.parting.base.tracks", "possible on this head"},
		"merging":              {`"mergeInto":0`, `"mergeInto":10`, "body.parting.base.mergeInto", "at most"},
		"a change half said":   {`"edits":[]`, `"edits":[{"kind":"merge","at":[0,0,1]}]`, "body.parting.edits[0].with", "second is missing"},
		"a change of nothing":  {`"edits":[]`, `"edits":[{"kind":"tease","at":[0,0,1]}]`, "body.parting.edits[0].kind", ""},
		"a spot off the head":  {`"leftOut":[]`, `"leftOut":[{"at":[0,0,9],"radiusMm":9}]`, "body.parting.leftOut[0].at", "direction"},
		"a hairline gone wild": {`"frontMm":0`, `"frontMm":70`, "body.hairline.frontMm", "between"},
		"a missing base":       {`"base":{`, `"bass":{`, "body.parting.bass", ""},
	} {
		require.Contains(t, good, c.old, name)
		res := s.send("POST", "/api/v1/preview", strings.Replace(good, c.old, c.new, 1))
		require.Equal(t, 422, res.StatusCode, "%s: %s", name, res.body)
		var p problemDetails
		res.json(t, &p)
		locations := map[string]string{}
		for _, e := range p.Errors {
			locations[e.Location] = e.Message
		}
		require.Contains(t, locations, c.location, name)
		assert.Contains(t, locations[c.location], c.says, name)
	}
}

// A number for the back alone leaves the front as it is.
func TestOneZoneFittedOverHTTP(t *testing.T) {
	t.Parallel()
	s := open(t)
	in := plan.Default()
	var found []parting.Fitted
	s.send("POST", "/api/v1/fit", text(t, countWish{in, parting.Count{Total: 44, Keep: parting.KeepFront, Alone: true}})).json(t, &found)
	require.Len(t, found, 1)
	assert.Equal(t, 44, found[0].Back)
	assert.Equal(t, in.Parting.Front, found[0].Settings.Front)
	assert.Equal(t, found[0].Sections, found[0].Front+found[0].Back)
}

// Changes by hand are made, counted and kept; one that no longer fits is reported with
// its place in the list, and the rest still hold.
func TestChangesByHandOverHTTP(t *testing.T) {
	t.Parallel()
	s := open(t)
	in := plan.Default()
	laid := func() (res flat.Preview) {
		answer := s.send("POST", "/api/v1/preview", text(t, in))
		require.Equal(t, 200, answer.StatusCode, string(answer.body))
		answer.json(t, &res)
		return res
	}
	bare := laid()
	centre := map[string]parting.Direction{}
	axes := bare.Head.Axes
	for i, at := range points(bare.Layout.Centroids) {
		centre[bare.Layout.IDs[i]] = parting.Toward(scalp.Head{A: axes[0], B: axes[1], C: axes[2]}, at)
	}
	other := centre["BL3.3"]
	in.Parting.Edits = []parting.Edit{
		{Kind: parting.Merge, At: centre["BL3.2"], With: &other},
		{Kind: parting.LeaveOut, At: centre["FR2.1"]},
		{Kind: parting.Lock, At: centre["BR4.2"]},
		{Kind: parting.LeaveOut, At: centre["BR4.2"]},
		{Kind: parting.LeaveOut, At: parting.Direction{1, 0, 0}},
	}
	in.Uses = append(in.Uses, plan.Use{Where: plan.Where{Kind: plan.AtPlaces, Places: []parting.Direction{centre["BR4.2"]}}, Count: 3})
	res := laid()
	assert.Equal(t, bare.Tally.Sections-2, res.Tally.Sections, "one joined, one left out")
	assert.Equal(t, bare.Tally.Pieces-2+2, res.Tally.Pieces, "two sections less, two pieces more")
	require.Len(t, res.Layout.LeftOut, 1)
	assert.InDelta(t, bare.Layout.Area, res.Layout.Area+res.Layout.Out, 2)
	var where []int
	for _, m := range res.Layout.Rejected {
		where = append(where, m.Edit)
	}
	assert.Equal(t, []int{3, 4}, where, "locked, and on the face")

	doc := s.newPlan("by hand", in)
	var kept planDocument
	s.send("GET", "/api/v1/plans/"+doc.ID, "").json(t, &kept)
	assert.Equal(t, in.Parting.Edits, kept.Input.Parting.Edits)

	// On a coarser head and another structure the list stays whole, whatever fits of it.
	in.Parting.Back.Width *= 1.4
	in.Parting.Structure = parting.EarToEar
	for _, m := range laid().Layout.Rejected {
		assert.Less(t, m.Edit, len(in.Parting.Edits))
		assert.NotEmpty(t, m.Message)
	}

	// A list longer than a head has use for is refused, not cut.
	for len(in.Parting.Edits) <= 2000 {
		in.Parting.Edits = append(in.Parting.Edits, in.Parting.Edits...)
	}
	assert.Equal(t, 422, s.send("POST", "/api/v1/preview", text(t, in)).StatusCode)
}

// The methods are compared over HTTP with their reasons, wishes that cannot be are refused by
// name, and where a plan departs from the house is told with the plan as the house does it.
func TestAdviceAndDeparturesOverHTTP(t *testing.T) {
	t.Parallel()
	s := open(t)
	in := plan.Default()
	in.Hair.Tender = true
	var advice []compare.Advice
	s.send("POST", "/api/v1/advice", text(t, in)).json(t, &advice)
	require.NotEmpty(t, advice)
	assert.Equal(t, plan.Everywhere, advice[0].Where)
	out := map[method.ID][]string{}
	for _, r := range advice[0].Methods {
		out[r.Method] = r.Out
	}
	assert.NotEmpty(t, out[method.SharedLoop], "too tight for a tender scalp")
	assert.Empty(t, out[method.SplitRoot])
	in.Wishes = &method.Wishes{Hours: 900}
	refused := s.send("POST", "/api/v1/advice", text(t, in))
	assert.Equal(t, 422, refused.StatusCode)
	assert.Contains(t, string(refused.body), "wishes.hours")

	in = house.Usual().Begin(plan.Default())
	in.Plaits.Band = true
	var departures []house.Departure
	s.send("POST", "/api/v1/departures", text(t, in)).json(t, &departures)
	require.Len(t, departures, 1)
	assert.Equal(t, "elastics", departures[0].Key)
	assert.False(t, departures[0].AsHouse.Plaits.Band)
	rules := house.Usual()
	rules.Sides = map[string]string{"elastics": "yes"}
	require.Equal(t, 200, s.send("PUT", "/api/v1/house", text(t, rules), "If-Match", `"1"`).StatusCode)
	s.send("POST", "/api/v1/departures", text(t, in)).json(t, &departures)
	assert.Empty(t, departures)
	var begun PlanDraft
	s.send("GET", "/api/v1/begin", "").json(t, &begun)
	assert.True(t, begun.Input.Plaits.Band, "a new plan starts as the house does it")
	rules.Sides["elastics"] = "sometimes"
	assert.Equal(t, 422, s.send("PUT", "/api/v1/house", text(t, rules), "If-Match", `"2"`).StatusCode)
}
