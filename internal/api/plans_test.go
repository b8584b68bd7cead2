package api

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/compare"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/tally"
	"kladotex/internal/demo"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

func (s tester) newPlan(title string, in plan.Input) planDocument {
	s.t.Helper()
	res := s.send("POST", "/api/v1/plans", anew(draft(s.t, title, in)))
	require.Equal(s.t, http.StatusCreated, res.StatusCode, string(res.body))
	var doc planDocument
	res.json(s.t, &doc)
	return doc
}

// safe has everything read that must be before a plan is carried out; nothing speaks against a head where
// no card does.
func (s tester) safe(planID string) {
	s.t.Helper()
	var c studio.Clearance
	s.send("GET", "/api/v1/plans/"+planID+"/clearance", "").json(s.t, &c)
	if !c.Asked {
		res := s.send("PUT", "/api/v1/plans/"+planID+"/asked", `{"history":[]}`)
		require.Equal(s.t, http.StatusOK, res.StatusCode, string(res.body))
		res.json(s.t, &c)
	}
	for _, x := range c.Cautions {
		res := s.send("POST", "/api/v1/plans/"+planID+"/cautions", text(s.t, map[string]string{"caution": x.Key}))
		require.Equal(s.t, http.StatusOK, res.StatusCode, string(res.body))
		res.json(s.t, &c)
	}
	require.True(s.t, c.Clear || len(c.Refusals) > 0)
}

// Two people on one plan: the second is told who changed what, and can look back.
func TestTwoPeopleOnOnePlan(t *testing.T) {
	t.Parallel()
	owner := open(t)
	apprentice := owner.as(store.Apprentice)
	base := plan.Default()
	doc := owner.newPlan("The pilot", base)
	path := "/api/v1/plans/" + doc.ID

	theirs, mine := base, base
	theirs.Parting.Back.Pattern = "grid"
	mine.OwnHead = true
	require.Equal(t, 200, apprentice.send("PUT", path, draft(t, "The pilot", theirs), "If-Match", `"1"`).StatusCode)
	require.Equal(t, 412, owner.send("PUT", path, draft(t, "Pilot", mine), "If-Match", `"1"`).StatusCode)

	var d difference
	owner.send("POST", path+"/compare", text(t, comparison{
		Base: PlanDraft{Title: "The pilot", Input: base}, Mine: PlanDraft{Title: "Pilot", Input: mine},
	})).json(t, &d)
	assert.Equal(t, "apprentice", d.SavedBy)
	assert.Equal(t, 2, d.Version)
	assert.Equal(t, []plan.Change{{Path: "parting.back.pattern", Label: "Back pattern", From: "brick", To: "grid"}}, d.Theirs)
	assert.Equal(t, []plan.Change{
		{Path: "title", Label: "Name of the plan", From: "The pilot", To: "Pilot"},
		{Path: "ownHead", Label: "Own head, own hands", From: "no", To: "yes"},
	}, d.Mine)

	require.Equal(t, 200, owner.send("PUT", path, draft(t, "Pilot", mine), "If-Match", `"2"`).StatusCode)
	var history []planVersion
	owner.send("GET", path+"/versions", "").json(t, &history)
	require.Len(t, history, 3)
	assert.Equal(t, []string{"Odalys", "apprentice", "Odalys"}, []string{history[0].SavedBy, history[1].SavedBy, history[2].SavedBy})
	assert.Equal(t, "Back pattern", history[1].Changes[0].Label)
	var old PlanDraft
	owner.send("GET", path+"/versions/2", "").json(t, &old)
	assert.Equal(t, theirs, old.Input)
	assert.Equal(t, 404, owner.send("GET", path+"/versions/7", "").StatusCode)
}

// Variants are kept beside the plan; one that cannot be computed is refused by its
// place, and what differs between two is told.
func TestVariantsAreKeptAndCompared(t *testing.T) {
	t.Parallel()
	s := open(t)
	doc := s.newPlan("The pilot", plan.Default())
	assert.Equal(t, []variant{}, doc.Variants)
	brick, grid := plan.Default(), plan.Default()
	grid.Parting.Front.Pattern = "grid"
	body := PlanDraft{Title: "The pilot", Input: brick, Variants: []variant{{Name: "Brick", Input: &brick}, {Name: "Grid in front", Input: &grid}}}
	path := "/api/v1/plans/" + doc.ID
	require.Equal(t, 200, s.send("PUT", path, text(t, body), "If-Match", `"1"`).StatusCode)
	s.send("GET", path, "").json(t, &doc)
	assert.Equal(t, body.Variants, doc.Variants)

	var changes []plan.Change
	s.send("POST", "/api/v1/changes", text(t, twoInputs{brick, grid})).json(t, &changes)
	require.Len(t, changes, 1)
	assert.Equal(t, "Front pattern", changes[0].Label)

	bad := grid
	bad.Head.EarToEar = 1
	body.Variants[1].Input = &bad
	refused := s.send("PUT", path, text(t, body), "If-Match", `"2"`)
	require.Equal(t, 422, refused.StatusCode)
	var p problemDetails
	refused.json(t, &p)
	assert.Equal(t, "body.variants[1].input.head.earToEarMm", p.Errors[0].Location)
	body.Variants = make([]variant, 7)
	assert.Equal(t, 422, s.send("PUT", path, text(t, body), "If-Match", `"2"`).StatusCode)
}

// A wished number of sections is met, or its range named.
func TestFitToACountOverHTTP(t *testing.T) {
	t.Parallel()
	s := open(t)
	in := plan.Default()
	var found []parting.Fitted
	s.send("POST", "/api/v1/fit", text(t, countWish{in, parting.Count{Total: 121}})).json(t, &found)
	require.Len(t, found, 2)
	in.Parting = found[1].Settings
	res, err := tally.Compute(context.Background(), in)
	require.NoError(t, err)
	assert.Equal(t, 122, res.Tally.Sections)
	for body, location := range map[string]string{
		text(t, countWish{in, parting.Count{Total: 100000}}):                                                   "body.total",
		strings.Replace(text(t, countWish{in, parting.Count{Total: 80}}), `"ratio":0.78`, `"ratio":7`, 1):      "body.input.head.ratio",
		strings.Replace(text(t, countWish{in, parting.Count{Total: 80}}), `"total":80`, `"total":"many"`, 1):   "body.total",
		strings.Replace(text(t, countWish{in, parting.Count{Total: 80}}), `"total":80`, `"total":80,"x":1`, 1): "body.x",
	} {
		res := s.send("POST", "/api/v1/fit", body)
		require.Equal(t, 422, res.StatusCode, string(res.body))
		var p problemDetails
		res.json(t, &p)
		assert.Equal(t, location, p.Errors[0].Location)
	}
	var trade compare.Trade
	s.send("POST", "/api/v1/tradeoff", text(t, plan.Default())).json(t, &trade)
	assert.Len(t, trade.Sizes, 13)
	assert.Len(t, trade.Structures, len(parting.Structures))
}

func TestSheetAndViewOfAPlan(t *testing.T) {
	t.Parallel()
	s := open(t)
	doc := s.newPlan(`Hesper: "½" \ way`, plan.Default())
	path := "/api/v1/plans/" + doc.ID
	sheet := s.send("GET", path+"/sheet.pdf?unit=cm&paper=a4", "")
	require.Equal(t, 200, sheet.StatusCode, string(sheet.body))
	assert.Equal(t, "application/pdf", sheet.Header.Get("Content-Type"))
	assert.True(t, bytes.HasPrefix(sheet.body, []byte("%PDF-")))
	view := s.send("GET", path+"/view.svg?lon=200&lat=-10", "")
	require.Equal(t, 200, view.StatusCode)
	assert.True(t, bytes.HasPrefix(view.body, []byte("<svg")))
	one := s.send("GET", path+"/sheet.pdf?unit=cm&parts=chair,cut", "")
	assert.Equal(t, 200, one.StatusCode)
	for _, bad := range []string{"/sheet.pdf?unit=ell", "/sheet.pdf?parts=chair,poem", "/sheet.pdf?paper=silk", "/view.svg?lat=900", "/view.svg?lon=x"} {
		assert.Equal(t, 422, s.send("GET", path+bad, "").StatusCode, bad)
	}
}

// Drawn moves: in words, as pictures, and with the pictures on the way; what is not drawn is
// not found.
func TestDrawnMoves(t *testing.T) {
	t.Parallel()
	s := open(t)
	const root = "/api/v1/figures/root-hitch"
	var words sketch
	s.send("GET", root, "").json(t, &words)
	assert.Equal(t, "Root hitch", words.Title)
	require.Len(t, words.Stills, 6)
	assert.Contains(t, words.Stills[4].Holds, "piece through loop")
	assert.Contains(t, words.Stills[4].Holds, "loop under plait twice")
	svg := s.send("GET", root+"/4/picture.svg", "")
	assert.Equal(t, "image/svg+xml", svg.Header.Get("Content-Type"))
	assert.Contains(t, string(svg.body), words.Stills[4].Says)
	left := s.send("GET", root+"/4/picture.svg?left=true", "")
	assert.NotEqual(t, svg.body, left.body)
	var first, on, back motion
	s.send("GET", root+"/0/motion", "").json(t, &first)
	assert.Empty(t, first.Way, "nothing comes before the first")
	s.send("GET", root+"/5/motion", "").json(t, &on)
	assert.Greater(t, len(on.Way), 10)
	assert.NotNil(t, on.Lens)
	assert.NotEmpty(t, on.Front, "arrows")
	s.send("GET", root+"/2/motion?back=true", "").json(t, &back)
	assert.Greater(t, len(back.Way), 10)
	assert.Empty(t, back.Front, "off by hand: no arrows")
	for path, want := range map[string]int{root + "/6/motion": 404, root + "/-1/motion": 422, "/api/v1/figures/square-knot": 404, root + "/x/picture.svg": 422} {
		assert.Equal(t, want, s.send("GET", path, "").StatusCode, path)
	}
	// The catalogue and the steps of a plan name only what is drawn.
	var how work
	s.send("POST", "/api/v1/work", text(t, plan.Default())).json(t, &how)
	assert.NotEmpty(t, how.Before)
	for _, step := range how.Work[0].Steps {
		if c := step.Shows; c != nil {
			assert.Equal(t, 200, s.send("GET", fmt.Sprintf("/api/v1/figures/%s/%d/picture.svg", c.Figure, c.Last), "").StatusCode, step.Text)
		}
	}
}

// An exported plan is imported as it was, keeps to its published JSON Schema, and
// what does not keep to it is refused by the schema and by us alike.
func TestExportedPlanIsImportedAndKeepsToItsSchema(t *testing.T) {
	t.Parallel()
	compiler := jsonschema.NewCompiler()
	raw, err := os.ReadFile("../../docs/plan.schema.json")
	require.NoError(t, err)
	current, err := FileSchema()
	require.NoError(t, err)
	require.JSONEq(t, string(current), string(raw), "make types brings the schema up to date")
	document, err := jsonschema.UnmarshalJSON(bytes.NewReader(raw))
	require.NoError(t, err)
	require.NoError(t, compiler.AddResource("plan.schema.json", document))
	schema, err := compiler.Compile("plan.schema.json")
	require.NoError(t, err)
	keeps := func(body []byte) bool {
		value, err := jsonschema.UnmarshalJSON(bytes.NewReader(body))
		return err == nil && schema.Validate(value) == nil
	}

	s := open(t)
	var good []byte
	for _, p := range demo.Plans() {
		doc := s.newPlan(p.Title, p.Input)
		file := s.send("GET", "/api/v1/plans/"+doc.ID+"/export", "")
		require.Equal(t, 200, file.StatusCode)
		good = file.body
		assert.True(t, keeps(good), p.Title)
		back := s.send("POST", "/api/v1/import?id="+uuid.NewString(), string(good))
		require.Equal(t, 201, back.StatusCode, string(back.body))
		var copied planDocument
		back.json(t, &copied)
		assert.Equal(t, p.Title, copied.Title)
		assert.Equal(t, p.Input, copied.Input)
		assert.NotEqual(t, doc.ID, copied.ID)
	}

	swap := func(was, is string) string {
		require.Contains(t, string(good), was)
		return strings.Replace(string(good), was, is, 1)
	}
	for name, c := range map[string]struct {
		body, location, says string
		schema               bool // whether the schema alone finds it
	}{
		"another format": {swap(plan.Format, "some-plan"), "format", "not a plan of Kladotex", true},
		"no title":       {swap(`"title": "The cellist, a hairline that shows"`, `"title": ""`), "title", "1 to 120", true},
		"unknown field":  {swap(`"title"`, `"sparkle": 1, "title"`), "sparkle", "no field", true},
		"in the plan":    {swap(`"ownHead"`, `"sparkle": 1, "ownHead"`), "plan.sparkle", "no field", true},
		"wrong type":     {swap(`"ownHead": false`, `"ownHead": "no"`), "plan.ownHead", "bool", true},
		"a wild tape":    {swap(`"circumferenceMm": 546.1`, `"circumferenceMm": 5`), "plan.head.circumferenceMm", "between", false},
		"from a future":  {swap(`"schema": 5`, `"schema": 6, "novelty": true`), "plan.schema", "newer Kladotex", true},
		"cut short":      {string(good[:len(good)/2]), "(document)", "JSON", true},
		"no JSON":        {"dear studio", "(document)", "JSON", true},
		"two plans":      {string(good) + string(good), "(document)", "behind", true},
	} {
		res := s.send("POST", "/api/v1/import?id="+uuid.NewString(), c.body)
		require.Equal(t, 422, res.StatusCode, "%s: %s", name, res.body)
		var p problemDetails
		res.json(t, &p)
		require.NotEmpty(t, p.Errors, name)
		assert.Equal(t, c.location, p.Errors[0].Location, name)
		assert.Contains(t, p.Errors[0].Message, c.says, name)
		if c.schema {
			assert.False(t, keeps([]byte(c.body)), "%s: the schema allows it", name)
		}
	}
	assert.Equal(t, 413, s.send("POST", "/api/v1/import?id="+uuid.NewString(), strings.Repeat(" ", maxBody+1)).StatusCode)
	var list pageOf[planEntry]
	require.NoError(t, json.Unmarshal(s.send("GET", "/api/v1/plans", "").body, &list))
	assert.Len(t, list.Items, 2*len(demo.Plans()), "nothing half taken in")
}
