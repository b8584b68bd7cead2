package client

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/invalid"
	"kladotex/core/plan"
	"kladotex/core/scalp"
)

func TestBeginTakesOverWhatIsKnown(t *testing.T) {
	f := New()
	in := f.Begin(plan.Default())
	assert.Equal(t, plan.Default().Head, in.Head, "a head not yet measured keeps the plan's")
	assert.Equal(t, plan.Default().Hair.Length, in.Hair.Length)

	tapes := scalp.Presets()[0].Tapes
	f.Tapes = &tapes
	f.Hair = OwnHair{Front: 100, Nape: 230, Density: 120, Strand: 60, Tender: true}
	in = f.Begin(plan.Default())
	assert.Equal(t, tapes, in.Head)
	assert.Equal(t, plan.Hair{Length: 230, Density: 120, Strand: 60, Tender: true}, in.Hair, "the longest hair is the plait to hide")
	_, err := plan.Compute(context.Background(), in)
	assert.NoError(t, err)
}

func TestCautionsGravestFirst(t *testing.T) {
	f := New()
	assert.Empty(t, f.Cautions())
	f.History = []Event{HeatDamage, SoreScalp}
	f.Hair.Tender, f.Hair.Edges, f.Guardian = true, FragileEdges, "an aunt"
	got := f.Cautions()
	require.Len(t, got, 5)
	assert.Contains(t, got[0], "Sore")
	assert.Contains(t, got[1], "Heat")
	assert.Contains(t, got[4], "child")
}

func TestCheckNamesTheField(t *testing.T) {
	for path, spoil := range map[string]func(*Facts){
		"tapes.earToEarMm":      func(f *Facts) { t := scalp.Presets()[2].Tapes; t.EarToEar = 1; f.Tapes = &t },
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
