package plan_test

import (
	"bytes"
	"context"
	"encoding/json"
	"math"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
	"kladotex/core/tally"
)

// wrapped adds a way that wraps and gives it.
func wrapped(in *plan.Input) *plan.Way {
	in.Ways = append(in.Ways, plan.NewWay("w2", method.CollarAndWrap))
	return &in.Ways[2]
}

func TestEveryBadFieldIsNamed(t *testing.T) {
	for path, spoil := range map[string]func(*plan.Input){
		"schema":                 func(in *plan.Input) { in.Schema = plan.Schema + 1 },
		"head.circumferenceMm":   func(in *plan.Input) { in.Head.Circumference = 0 },
		"head.earToEarMm":        func(in *plan.Input) { in.Head.EarToEar = 235 },
		"hair.crownMm":           func(in *plan.Input) { in.Hair.Crown = -3 },
		"hair.texture":           func(in *plan.Input) { in.Hair.Texture = "shiny" },
		"hair.densityPerCm2":     func(in *plan.Input) { in.Hair.Density = 1e9 },
		"hair.strandUm":          func(in *plan.Input) { in.Hair.Strand = math.Inf(1) },
		"parting.front.pattern":  func(in *plan.Input) { in.Parting.Front.Pattern = "" },
		"parting.back.ramp":      func(in *plan.Input) { in.Parting.Back.Ramp = 9 },
		"parting.front.widthMm":  func(in *plan.Input) { in.Parting.Front.Width = 0 },
		"hairline.frontMm":       func(in *plan.Input) { in.Hairline.Front = 90 },
		"hairline.temple.backMm": func(in *plan.Input) { in.Hairline.Temple.Back = -30 },
		"parting.part.kind":      func(in *plan.Input) { in.Parting.Structure, in.Parting.Part.Kind = parting.Horseshoe, parting.NoPart },
		"parting.back.heightMm":  func(in *plan.Input) { in.Parting.Back.Height = 1e6 },
		"parting.back.widthMm": func(in *plan.Input) {
			in.Parting.Front.Size, in.Parting.Back.Size = parting.Size{Width: 5, Height: 5}, parting.Size{Width: 5, Height: 5}
		},
		"plaits.far":                     func(in *plan.Input) { in.Plaits.Far = "a bit" },
		"plaits.fedMm":                   func(in *plan.Input) { in.Plaits.Fed = 301 },
		"pieces":                         func(in *plan.Input) { in.Pieces = append(in.Pieces, plantest.Many(12)...) },
		"pieces[0].name":                 func(in *plan.Input) { in.Pieces[0].Name = strings.Repeat("x", 81) },
		"pieces[0].form":                 func(in *plan.Input) { in.Pieces[0].Form = "yarn" },
		"pieces[0].lengthMm":             func(in *plan.Input) { in.Pieces[0].Length = 1 },
		"pieces[0].thicknessMm":          func(in *plan.Input) { in.Pieces[0].Thickness = math.NaN() },
		"pieces[0].massG":                func(in *plan.Input) { in.Pieces[0].Mass = -1 },
		"pieces[0].loopMm":               func(in *plan.Input) { in.Pieces[0].Loop = 41 },
		"pieces[0].pack.units":           func(in *plan.Input) { in.Pieces[0].Pack.Units = 0 },
		"pieces[0].pack.cuts":            func(in *plan.Input) { in.Pieces[0].Pack.Cuts = -1 },
		"pieces[0].pack.splits":          func(in *plan.Input) { in.Pieces[0].Pack.Splits = 1000 },
		"pieces[0].offers":               func(in *plan.Input) { in.Pieces[0].Offers = nil },
		"pieces[0].offers[0].packs":      func(in *plan.Input) { in.Pieces[0].Offers[0].Packs = 0 },
		"pieces[1].key":                  func(in *plan.Input) { in.Pieces = append(in.Pieces, in.Pieces[0]) },
		"pieces[0].offers[0].priceMinor": func(in *plan.Input) { in.Pieces[0].Offers[0].Price = math.MaxInt64 },
		"spares.percent":                 func(in *plan.Input) { in.Spares.Percent = -5 },
		"spares.least":                   func(in *plan.Input) { in.Spares.Least = 100000 },
		"fill.count":                     func(in *plan.Input) { in.Fill.Count = -1 },
		"fill.piece":                     func(in *plan.Input) { in.Fill.Piece = "p9" },
		"ways[0].wrapping": func(in *plan.Input) {
			in.Ways[0] = plan.NewWay(plantest.FirstWay, method.CollarAndWrap)
			in.Ways[0].Wrapping = nil
		},
		"ways[2].wrapping":                func(in *plan.Input) { wrapped(in).Wrapping = nil },
		"ways[2].wrapping.strandLengthMm": func(in *plan.Input) { wrapped(in).Wrapping.StrandLength = 0 },
		"ways[2].wrapping.strandsPerPack": func(in *plan.Input) { wrapped(in).Wrapping.Strands = 0 },
		"ways[2].wrapping.packMassG":      func(in *plan.Input) { wrapped(in).Wrapping.PackMass = 0 },
		"ways[2].wrapping.priceMinor":     func(in *plan.Input) { wrapped(in).Wrapping.Price = -1 },
		"ways[2].settings.ribbonMm":       func(in *plan.Input) { wrapped(in).Settings["ribbonMm"] = 0 },
		"ways[2].settings.tailMm":         func(in *plan.Input) { wrapped(in).Settings["tailMm"] = -1 },
		"ways[0].settings.turns":          func(in *plan.Input) { in.Ways[0].Settings["turns"] = 3 },
		"ways[0].settings.pitchMm":        func(in *plan.Input) { in.Ways[0].Settings["pitchMm"] = 0 },
		"ways[2].method":                  func(in *plan.Input) { wrapped(in).Method = "L9" },
		"uses[0].count":                   func(in *plan.Input) { in.Uses[0].Count = 0 },
		"uses[0].where.kind":              func(in *plan.Input) { in.Uses[0].Where.Kind = plan.InFront },
		"uses[0].way":                     func(in *plan.Input) { in.Uses[0].Way = plantest.HookWay },
		"uses[1].way":                     func(in *plan.Input) { in.Uses[1].Way = plantest.FirstWay },
		"uses[2].piece":                   func(in *plan.Input) { in.Uses = append(in.Uses, plan.Use{Where: plan.Where{Kind: plan.InBack}}) },
		"uses[2].way": func(in *plan.Input) {
			in.Uses = append(in.Uses, plan.Use{Where: plan.Where{Kind: plan.InBack}, Way: "w7"})
		},
		"uses[2].count": func(in *plan.Input) { in.Uses = append(in.Uses, plantest.Behind(7)) },
		"uses[2].where.places": func(in *plan.Input) {
			in.Uses = append(in.Uses, plan.Use{Where: plan.Where{Kind: plan.AtPlaces}, Count: 2})
		},
		"uses[2].where.zones": func(in *plan.Input) {
			in.Uses = append(in.Uses, plan.Use{Where: plan.Where{Kind: plan.InBack, Zones: []parting.Zone{"B"}}, Count: 2})
		},
		"uses[2].where.places[0]": func(in *plan.Input) {
			in.Uses = append(in.Uses, plan.Use{Where: plan.Where{Kind: plan.AtPlaces, Places: []parting.Direction{{2, 0, 0}}}, Count: 2})
		},
	} {
		in := plan.Default()
		spoil(&in)
		_, err := tally.Compute(context.Background(), in)
		var bad invalid.Errors
		require.ErrorAs(t, err, &bad, path)
		require.Len(t, bad, 1, "%s: %v", path, bad)
		assert.Equal(t, path, bad[0].Path)
		assert.NotEmpty(t, bad[0].Message)
	}
}

func TestDecodeReadsWhatMarshalWrites(t *testing.T) {
	raw, err := json.Marshal(plan.Default())
	require.NoError(t, err)
	in, err := plan.Decode(bytes.NewReader(raw))
	require.NoError(t, err)
	assert.Equal(t, plan.Default(), in)
}

func TestDecodeRefusesWhatIsNoPlan(t *testing.T) {
	good, err := json.Marshal(plan.Default())
	require.NoError(t, err)
	for name, c := range map[string]struct{ raw, path, says string }{
		"broken":        {`{"schema":3,"head":`, "(document)", "JSON"},
		"empty":         {``, "(document)", "JSON"},
		"unknown field": {strings.Replace(string(good), `"schema"`, `"colour":3,"schema"`, 1), "colour", "no field"},
		"wrong type":    {strings.Replace(string(good), `"ownHead":false`, `"ownHead":"yes"`, 1), "ownHead", "bool"},
		"no version":    {`{"head":{}}`, "schema", "version"},
		"newer":         {`{"schema":7,"whatever":true}`, "schema", "newer"},
		"two plans":     {string(good) + string(good), "(document)", "JSON"},
		"too large":     {`{"schema":3,"x":"` + strings.Repeat("y", plan.MaxDocument) + `"}`, "(document)", "1 MB"},
	} {
		_, err := plan.Decode(strings.NewReader(c.raw))
		var bad invalid.Errors
		require.ErrorAs(t, err, &bad, name)
		assert.Equal(t, c.path, bad[0].Path, name)
		assert.Contains(t, bad[0].Message, c.says, name)
	}
}

// Documents written by earlier versions, as they lie in studios.
func TestDocumentsOfEarlierVersionsAreBroughtUpToDate(t *testing.T) {
	wish := func(p parting.Pattern, width, height, ramp float64) parting.Wish {
		return parting.Wish{Pattern: p, Size: parting.Size{Width: width, Height: height}, Ramp: ramp, Along: 1}
	}
	for file, settings := range map[string]parting.Settings{
		"testdata/schema1.json": parting.Plain(wish(parting.Grid, 19.05, 19.05, 1), wish(parting.Grid, 25.4, 28, 1)),
		"testdata/schema2.json": parting.Plain(wish(parting.Triangle, 19.05, 22, 1.25), wish(parting.Brick, 25.4, 25.4, 1)),
	} {
		raw, err := os.ReadFile(file)
		require.NoError(t, err)
		in, err := plan.Decode(bytes.NewReader(raw))
		require.NoError(t, err, file)
		want := plan.Default()
		want.Parting = settings
		// What those versions had for a base.
		base := &want.Parting.Base
		base.Cornrows, base.SideCornrows, base.Spacing, want.Parting.PerSide = 10, 4, 19, 12
		want.Pieces[0].Name = "Pre-looped loc"
		assert.Equal(t, want, in, file)

		_, err = plan.Decode(strings.NewReader(strings.Replace(string(raw), `"pattern"`, `"sparkle": 2, "pattern"`, 1)))
		bad := invalid.From(err)
		require.NotEmpty(t, bad, "a field no version has")
		assert.Equal(t, "sparkle", bad[0].Path)
	}
}

// Version 4 kept wrapping hair with a method that winds none.
func TestWrappingHairOfVersion4(t *testing.T) {
	raw, err := os.ReadFile("testdata/schema4.json")
	require.NoError(t, err)
	in, err := plan.Decode(bytes.NewReader(raw))
	require.NoError(t, err)
	assert.Nil(t, in.Ways[0].Wrapping)
	assert.Equal(t, &plan.UsualWrapping, in.Ways[2].Wrapping)
	assert.Equal(t, plan.Default().Uses, in.Uses)
}

// Whatever is read either computes to finite numbers or is refused by name.
func FuzzDecodeAndCompute(f *testing.F) {
	good, err := json.Marshal(plan.Default())
	require.NoError(f, err)
	f.Add(good)
	f.Add(bytes.Replace(good, []byte("25.4"), []byte("5.1"), 2))
	f.Add([]byte(`{"schema":1}`))
	f.Add([]byte(`{"schema":1,"parting":{"pattern":"grid","front":{"widthMm":20,"heightMm":20},"back":7}}`))
	f.Add([]byte(`[]`))
	for _, structure := range parting.Structures {
		in := plan.Default()
		in.Parting.Structure = structure
		raw, err := json.Marshal(in)
		require.NoError(f, err)
		f.Add(raw)
	}
	f.Fuzz(func(t *testing.T, raw []byte) {
		var bad invalid.Errors
		in, err := plan.Decode(bytes.NewReader(raw))
		if err != nil {
			require.ErrorAs(t, err, &bad)
			return
		}
		res, err := tally.Compute(context.Background(), in)
		if err != nil {
			require.ErrorAs(t, err, &bad)
			require.NotEmpty(t, bad)
			return
		}
		require.LessOrEqual(t, res.Tally.Sections, parting.MaxSections)
		_, err = json.Marshal(res)
		require.NoError(t, err)
	})
}

func TestMixesAndAccentsThatCanNotBeAreRefused(t *testing.T) {
	for path, spoil := range map[string]func(*plan.Input){
		"uses[0].mix": func(in *plan.Input) {
			in.Uses[0].Piece, in.Uses[0].Mix = plantest.FirstPiece, []plan.Share{{plantest.FirstPiece, 1}, {plantest.FirstPiece, 1}}
		},
		"uses[0].mix[1].piece": func(in *plan.Input) {
			in.Uses[0].Piece, in.Uses[0].Mix = "", []plan.Share{{plantest.FirstPiece, 1}, {"gone", 1}}
		},
		"uses[0].mix[0].parts": func(in *plan.Input) {
			in.Uses[0].Piece, in.Uses[0].Mix = "", []plan.Share{{plantest.FirstPiece, 0}, {plantest.FirstPiece, 1}}
		},
		"accents[0].piece": func(in *plan.Input) { in.Accents = []plan.Accent{{Where: plan.Where{Kind: plan.InFront}, Count: 3}} },
		"accents[0].count": func(in *plan.Input) {
			in.Accents = []plan.Accent{{Piece: plantest.FirstPiece, Where: plan.Where{Kind: plan.InFront}}}
		},
		"accents[0].thing.pack": func(in *plan.Input) {
			in.Accents = []plan.Accent{{Thing: &plan.Thing{Name: "Cuff"}, Where: plan.Where{Kind: plan.InFront}, Count: 3}}
		},
		"day.install":      func(in *plan.Input) { in.Day = &plan.Day{Install: "4.12.2026"} },
		"spares.amount":    func(in *plan.Input) { in.Spares.Amount = "plenty" },
		"pieces[0].swatch": func(in *plan.Input) { in.Pieces = slices.Clone(in.Pieces); in.Pieces[0].Swatch = "brown" },
	} {
		in := plan.Default()
		in.Uses = slices.Clone(in.Uses)
		spoil(&in)
		refused := invalid.From(plan.Check(in))
		require.NotEmpty(t, refused, path)
		assert.Equal(t, path, refused[0].Path)
	}
}

func TestDaysAreChecked(t *testing.T) {
	for path, spoil := range map[string]func(*plan.Day){
		"day.install":                     func(d *plan.Day) { d.Install = "tomorrow" },
		"day.withinMin":                   func(d *plan.Day) { d.Within = 5 },
		"day.hands":                       func(d *plan.Day) { d.Hands[0].Does = plan.DoesPlaits },
		"day.hands[0].hand":               func(d *plan.Day) { d.Hands[0].Hand = "deft" },
		"day.hands[0].ownHead":            func(d *plan.Day) { d.Hands[0].OwnHead = 0.5 },
		"day.hands[0].new[0]":             func(d *plan.Day) { d.Hands[0].New = []string{"X"} },
		"day.hands[0].evening":            func(d *plan.Day) { d.Hands[0].Evening = true },
		"day.trials[0].minutes[0]":        func(d *plan.Day) { d.Trials = []plan.Trial{{Skill: "L1", By: "a", Minutes: []float64{0}, Rate: 1}} },
		"day.trials[0].skill":             func(d *plan.Day) { d.Trials = []plan.Trial{{Skill: "?", By: "a", Minutes: []float64{1}, Rate: 1}} },
		"day.sittings.at":                 func(d *plan.Day) { d.Sittings.At = "25:00" },
		"day.sittings.longestMin":         func(d *plan.Day) { d.Sittings.Longest = 10 },
		"day.sittings.breaks.longMin":     func(d *plan.Day) { d.Sittings.Breaks = plan.Breaks{After: 30, Long: 40} },
		"day.sittings.slots[0].at":        func(d *plan.Day) { d.Sittings.Slots = []plan.Slot{{At: "9"}} },
		"day.sittings.slots[0].afterDays": func(d *plan.Day) { d.Sittings.Slots = []plan.Slot{{After: -1}} },
	} {
		in := plantest.WithHand(plan.Default(), pace.Practised)
		s := in.UsualSittings()
		in.Day.Sittings = &s
		require.NoError(t, plan.Check(in))
		spoil(in.Day)
		bad := invalid.From(plan.Check(in))
		require.Len(t, bad, 1, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

func TestChoicesAreChecked(t *testing.T) {
	in := plan.Default()
	in.Ways[0].Choices = method.Chosen{"tip": "glue"}
	_, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	other := plan.Default()
	assert.Contains(t, plan.Changes(other, in)[0].To, "a dot of glue")
	in.Ways[0].Choices = method.Chosen{"tip": "sewn"}
	_, err = tally.Compute(t.Context(), in)
	bad := invalid.From(err)
	require.Len(t, bad, 1)
	assert.Equal(t, "ways[0].choices.tip", bad[0].Path)
}
