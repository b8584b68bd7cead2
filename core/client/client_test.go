package client

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/core/tally"
	"kladotex/core/wear"
)

func TestBeginTakesOverWhatIsKnown(t *testing.T) {
	f := New()
	in := f.Begin(plan.Default())
	assert.Equal(t, plan.Default().Head, in.Head, "a head not yet measured keeps the plan's")
	assert.Equal(t, plan.Default().Hair.Crown, in.Hair.Crown)

	tapes := scalp.Presets()[0].Tapes
	f.Tapes = &tapes
	f.Hair = hair.Own{Front: 100, Nape: 230, Density: 120, Strand: 60, Tender: true, Texture: hair.Curly, Edges: hair.FineEdges}
	f.Hairline.Front, f.Guardian = 6, "an aunt"
	in = f.Begin(plan.Default())
	assert.Equal(t, tapes, in.Head)
	want := f.Hair
	want.Sides, want.Crown = 230, 230
	assert.Equal(t, want, in.Hair, "what was not measured is taken as long as the longest")
	assert.True(t, in.Child)
	assert.Equal(t, f.Hairline, in.Hairline, "the hairline belongs to the person")
	_, err := tally.Compute(context.Background(), in)
	assert.NoError(t, err)
}

func TestCautionsGravestFirst(t *testing.T) {
	f := New()
	assert.Empty(t, f.Cautions())
	f.History = []Event{HeatDamage, SoreScalp}
	f.Hair.Tender, f.Hair.Edges, f.Guardian = true, hair.FragileEdges, "an aunt"
	got := f.Cautions()
	require.Len(t, got, 5)
	assert.Contains(t, got[0], "Sore")
	assert.Contains(t, got[1], "Heat")
	assert.Contains(t, got[4], "child")
}

func TestCheckNamesTheField(t *testing.T) {
	for path, spoil := range map[string]func(*Facts){
		"tapes.earToEarMm":      func(f *Facts) { t := scalp.Presets()[2].Tapes; t.EarToEar = 1; f.Tapes = &t },
		"hairline.frontMm":      func(f *Facts) { f.Hairline.Front = 90 },
		"schema":                func(f *Facts) { f.Schema = Schema + 1 },
		"statureMm":             func(f *Facts) { f.Stature = 17 },
		"hair.napeMm":           func(f *Facts) { f.Hair.Nape = -1 },
		"hair.densityPerCm2":    func(f *Facts) { f.Hair.Density = 0 },
		"consent.on":            func(f *Facts) { f.Consent.Given = true },
		"installs[0].on":        func(f *Facts) { f.Installs = []Install{{On: "spring"}} },
		"installs[0].weeksWorn": func(f *Facts) { f.Installs = []Install{{On: "2026-05-31", Weeks: -2}} },
	} {
		f := New()
		require.NoError(t, f.Check())
		spoil(&f)
		bad := invalid.From(f.Check())
		require.Len(t, bad, 1, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

// Cards of version 1 are read; they knew no version and no hairline of their own.
func TestCardsOfVersion1AreRead(t *testing.T) {
	f, err := Decode([]byte(`{"contact":"","guardian":"","statureMm":1580,"hair":{"frontMm":110,"sidesMm":0,"crownMm":0,"napeMm":0,
		"densityPerCm2":200,"strandUm":74,"texture":"coily","tenderScalp":true,"edges":"fine"},
		"history":["pain-before"],"notes":"x","consent":{"given":false,"on":"","covers":""},"installs":[]}`))
	require.NoError(t, err)
	assert.Equal(t, Schema, f.Schema)
	assert.Equal(t, 110.0, f.Hair.Front)
	assert.NoError(t, f.Check())
	_, err = Decode([]byte(`{"schema":0}`))
	assert.Error(t, err)
}

// A plan is drawn at the height on the card, and compared with what was worn before.
func TestHeightAndWhatWasWorn(t *testing.T) {
	f := New()
	assert.Zero(t, f.Begin(plan.Default()).Stature, "nobody asked")
	f.Stature = 1690
	f.Installs = []Install{
		{On: "2026-05-16", What: "Locs", Weeks: 9, Comfort: "comfortable", Mass: 520},
		{On: "2026-01-10", What: "Braids", Weeks: 6, Comfort: "tight"},
	}
	in := f.Begin(plan.Default())
	assert.Equal(t, 1690.0, in.Stature)
	mm, asked := in.Wearing()
	assert.Equal(t, 1690.0, mm)
	assert.True(t, asked)
	assert.Equal(t, []wear.Earlier{{What: "Locs", On: "2026-05-16", Mass: 520, Comfortable: true}, {What: "Braids", On: "2026-01-10"}}, f.Earlier())
	f.Installs[0].Mass = -4
	fields := invalid.From(f.Check())
	require.Len(t, fields, 1)
	assert.Equal(t, "installs[0].massG", fields[0].Path)
	// Where nobody asked a child is taken to be smaller.
	in.Stature = 0
	adult, asked := in.Wearing()
	assert.False(t, asked)
	in.Child = true
	child, _ := in.Wearing()
	assert.Less(t, child, adult)
}

// Consent covers what is not withheld, and nothing before it is given.
func TestConsentCoversWhatIsNotWithheld(t *testing.T) {
	var c Consent
	assert.False(t, c.Allows(KeepPhotos))
	assert.False(t, c.Withholds(KeepPhotos), "nobody was asked yet")
	c = Consent{Given: true, On: "2026-10-02"}
	assert.True(t, c.Allows(KeepHealth))
	c.Withheld = []Keeping{KeepHealth}
	assert.False(t, c.Allows(KeepHealth))
	assert.True(t, c.Allows(KeepPhotos))
	f := New()
	f.Consent = c
	require.NoError(t, f.Check())
	f.Consent.Withheld = []Keeping{"gossip"}
	fields := invalid.From(f.Check())
	require.Len(t, fields, 1)
	assert.Equal(t, "consent.withheld[0]", fields[0].Path)
}

// What a client does not bear is on every plan that is begun for them, and is said by its name.
func TestAllergiesGoWithTheClient(t *testing.T) {
	f := New()
	f.Allergies = []plan.ProductKey{plan.Gel, plan.Glue}
	require.NoError(t, f.Check())
	assert.Contains(t, f.Cautions()[0], "firm gel, glue")
	assert.Equal(t, f.Allergies, f.Begin(plan.Default()).Avoid)
	f.Allergies[0] = "soap"
	assert.Equal(t, "allergies[0]", invalid.From(f.Check())[0].Path)
}
