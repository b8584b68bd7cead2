package plan

import (
	"bytes"
	"context"
	"encoding/json"
	"math"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/attach"
	"kladotex/core/invalid"
	"kladotex/core/parting"
	"kladotex/core/pieces"
	"kladotex/core/scalp"
)

// compute computes a plan that must work.
func compute(t testing.TB, in Input) Result {
	t.Helper()
	res, err := Compute(context.Background(), in)
	require.NoError(t, err)
	return res
}

func TestTallySumsThePlan(t *testing.T) {
	in := Default()
	in.Piece.PerSection = PerSection{Front: 2, Back: 1}
	res := compute(t, in)
	front, back := 0, 0
	for _, s := range res.Layout.Sections {
		if strings.HasPrefix(s.ID, "F") {
			front++
		} else {
			back++
		}
	}
	assert.Equal(t, front+back, res.Tally.Sections)
	assert.Equal(t, 2*front+back, res.Tally.Pieces)
	assert.Equal(t, res.Tally.Pieces+res.Hair.Spares, res.Hair.Order.Need)
	assert.GreaterOrEqual(t, res.Hair.Order.Units, res.Hair.Order.Need)
	assert.Equal(t, res.Hair.Order.Cost, res.Tally.Cost)
	assert.InDelta(t, float64(res.Tally.Pieces)*in.Piece.Mass, res.Tally.Weight, 1e-9)
	assert.Len(t, res.Warnings, res.Tally.Warnings)
}

func TestEachFamilyHidesThePlaitItsWay(t *testing.T) {
	in := Default()
	weave := compute(t, in)
	assert.Equal(t, 3, weave.Work.Passes, "5.2 in of plait at a 2 in pitch")
	assert.Nil(t, weave.Hair.Wrap)

	in.Attach.Method = attach.CollarAndWrap
	wrap := compute(t, in)
	require.NotNil(t, wrap.Hair.Wrap)
	assert.Equal(t, weave.Tally.Packs+wrap.Hair.Wrap.Packs, wrap.Tally.Packs)
	assert.Greater(t, wrap.Tally.Weight, weave.Tally.Weight)
	assert.Zero(t, wrap.Work.Passes)

	in.Attach.Method = attach.FoldAndTwist
	assert.NotEmpty(t, compute(t, in).Work.Concerns, "a loc can not be folded")
	in.Piece.Form, in.Piece.Pack = pieces.Bulk, pieces.Pack{Units: 30, Cuts: 2, Splits: 2}
	twist := compute(t, in)
	assert.Empty(t, twist.Work.Concerns)
	assert.Equal(t, 1, twist.Hair.Order.Packs, "120 units from a pack")
}

// What is hooked on is told by its ground, and what there is no plait for speaks
// against no method.
func TestHookingFollowsTheBase(t *testing.T) {
	assert.Nil(t, compute(t, Default()).Hooking, "loose plaits all over")
	for structure, ground := range map[parting.Structure]attach.Ground{
		parting.Perimeter: attach.OnTracks, parting.NetCap: attach.OnNet, parting.Linked: attach.OnLinks,
	} {
		in := Default()
		in.Parting.Structure = structure
		if structure == parting.NetCap {
			in.Parting.Base.Kind = parting.Net
		}
		res := compute(t, in)
		if assert.NotNil(t, res.Hooking, structure) {
			assert.Equal(t, ground, res.Hooking.Ground, structure)
			assert.Equal(t, res.Hair.Hooked, res.Hooking.Pieces, structure)
		}
	}
	in := Default()
	in.Attach.Method = attach.FoldAndTwist
	assert.NotZero(t, compute(t, in).Work.Concerns, "a loc can not be folded")
	in.Parting.Structure = parting.Linked
	res := compute(t, in)
	assert.Equal(t, res.Hair.Pieces, res.Hair.Hooked)
	assert.Empty(t, res.Work.Concerns)
	in.Attach.Method = attach.CollarAndWrap
	assert.Nil(t, compute(t, in).Hair.Wrap, "nothing is wrapped, so not even a spare strand is bought")

	in.Parting.Structure = parting.EarToEar
	first := func(tails parting.Tails) string {
		in.Parting.Base.Tails = tails
		return compute(t, in).Hooking.Steps[0].Text
	}
	assert.Contains(t, first(parting.Tucked), "tuck each loose tail")
	assert.Contains(t, first(parting.Stitched), "stitch")
	assert.Contains(t, first(parting.Chained), "the one that is left")
}

func TestResultIsDeterministicAndFinite(t *testing.T) {
	first, err := json.Marshal(compute(t, Default()))
	require.NoError(t, err, "JSON has no NaN")
	for range 3 {
		again, err := json.Marshal(compute(t, Default()))
		require.NoError(t, err)
		require.True(t, bytes.Equal(first, again))
	}
}

func TestEveryBadFieldIsNamed(t *testing.T) {
	for path, spoil := range map[string]func(*Input){
		"schema":                 func(in *Input) { in.Schema = Schema + 1 },
		"head.circumferenceMm":   func(in *Input) { in.Head.Circumference = 0 },
		"head.earToEarMm":        func(in *Input) { in.Head.EarToEar = 235 },
		"hair.lengthMm":          func(in *Input) { in.Hair.Length = -3 },
		"hair.densityPerCm2":     func(in *Input) { in.Hair.Density = 1e9 },
		"hair.strandUm":          func(in *Input) { in.Hair.Strand = math.Inf(1) },
		"parting.front.pattern":  func(in *Input) { in.Parting.Front.Pattern = "" },
		"parting.back.ramp":      func(in *Input) { in.Parting.Back.Ramp = 9 },
		"parting.front.widthMm":  func(in *Input) { in.Parting.Front.Width = 0 },
		"hairline.frontMm":       func(in *Input) { in.Hairline.Front = 90 },
		"hairline.temple.backMm": func(in *Input) { in.Hairline.Temple.Back = -30 },
		"parting.part.kind":      func(in *Input) { in.Parting.Structure, in.Parting.Part.Kind = parting.Horseshoe, parting.NoPart },
		"parting.back.heightMm":  func(in *Input) { in.Parting.Back.Height = 1e6 },
		"parting.back.widthMm": func(in *Input) {
			in.Parting.Front.Size, in.Parting.Back.Size = parting.Size{Width: 5, Height: 5}, parting.Size{Width: 5, Height: 5}
		},
		"piece.line":                 func(in *Input) { in.Piece.Line = strings.Repeat("x", 81) },
		"piece.form":                 func(in *Input) { in.Piece.Form = "yarn" },
		"piece.lengthMm":             func(in *Input) { in.Piece.Length = 1 },
		"piece.diameterMm":           func(in *Input) { in.Piece.Diameter = math.NaN() },
		"piece.massG":                func(in *Input) { in.Piece.Mass = -1 },
		"piece.perSection.front":     func(in *Input) { in.Piece.PerSection.Front = 0 },
		"piece.perSection.back":      func(in *Input) { in.Piece.PerSection.Back = 99 },
		"piece.pack.units":           func(in *Input) { in.Piece.Pack.Units = 0 },
		"piece.pack.cuts":            func(in *Input) { in.Piece.Pack.Cuts = -1 },
		"piece.pack.splits":          func(in *Input) { in.Piece.Pack.Splits = 1000 },
		"piece.offers":               func(in *Input) { in.Piece.Offers = nil },
		"piece.offers[0].packs":      func(in *Input) { in.Piece.Offers[0].Packs = 0 },
		"piece.offers[0].priceMinor": func(in *Input) { in.Piece.Offers[0].Price = math.MaxInt64 },
		"spares.percent":             func(in *Input) { in.Spares.Percent = -5 },
		"spares.least":               func(in *Input) { in.Spares.Least = 100000 },
		"wrap.strandLengthMm":        func(in *Input) { in.Wrap.StrandLength = 0 },
		"wrap.ribbonMm":              func(in *Input) { in.Wrap.Ribbon = 0 },
		"wrap.tailMm":                func(in *Input) { in.Wrap.Tail = -1 },
		"wrap.strandsPerPack":        func(in *Input) { in.Wrap.Strands = 0 },
		"wrap.packMassG":             func(in *Input) { in.Wrap.PackMass = 0 },
		"wrap.priceMinor":            func(in *Input) { in.Wrap.Price = -1 },
		"attach.method":              func(in *Input) { in.Attach.Method = "L9" },
		"attach.pitchMm":             func(in *Input) { in.Attach.Pitch = 0 },
	} {
		in := Default()
		spoil(&in)
		_, err := Compute(context.Background(), in)
		var bad invalid.Errors
		require.ErrorAs(t, err, &bad, path)
		require.Len(t, bad, 1, "%s: %v", path, bad)
		assert.Equal(t, path, bad[0].Path)
		assert.NotEmpty(t, bad[0].Message)
	}
}

func TestDecodeReadsWhatMarshalWrites(t *testing.T) {
	raw, err := json.Marshal(Default())
	require.NoError(t, err)
	in, err := Decode(bytes.NewReader(raw))
	require.NoError(t, err)
	assert.Equal(t, Default(), in)
}

func TestDecodeRefusesWhatIsNoPlan(t *testing.T) {
	good, err := json.Marshal(Default())
	require.NoError(t, err)
	for name, c := range map[string]struct{ raw, path, says string }{
		"broken":        {`{"schema":3,"head":`, "(document)", "JSON"},
		"empty":         {``, "(document)", "JSON"},
		"unknown field": {strings.Replace(string(good), `"schema"`, `"colour":3,"schema"`, 1), "colour", "no field"},
		"wrong type":    {strings.Replace(string(good), `"ownHead":false`, `"ownHead":"yes"`, 1), "ownHead", "bool"},
		"no version":    {`{"head":{}}`, "schema", "version"},
		"newer":         {`{"schema":7,"whatever":true}`, "schema", "newer"},
		"two plans":     {string(good) + string(good), "(document)", "JSON"},
		"too large":     {`{"schema":3,"x":"` + strings.Repeat("y", MaxDocument) + `"}`, "(document)", "1 MB"},
	} {
		_, err := Decode(strings.NewReader(c.raw))
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
		in, err := Decode(bytes.NewReader(raw))
		require.NoError(t, err, file)
		want := Default()
		want.Parting = settings
		assert.Equal(t, want, in, file)

		_, err = Decode(strings.NewReader(strings.Replace(string(raw), `"pattern"`, `"sparkle": 2, "pattern"`, 1)))
		bad := invalid.From(err)
		require.NotEmpty(t, bad, "a field no version has")
		assert.Equal(t, "sparkle", bad[0].Path)
	}
}

// Common practice, no source: individuals in front and tracks behind give the look in
// about half the time, a part line with tracks in less; and a track is hooked in
// seconds where a plait takes minutes.
func TestWhatStructuresSave(t *testing.T) {
	in := Default()
	trade, err := TradeOff(context.Background(), in)
	require.NoError(t, err)
	at := map[parting.Structure]StructurePoint{}
	for _, p := range trade.Structures {
		at[p.Structure] = p
	}
	require.Len(t, at, len(parting.Structures))
	whole := compute(t, in).Tally
	assert.Equal(t, whole.Minutes, at[parting.AllIndividuals].Minutes)
	for _, s := range []parting.Structure{parting.EarToEar, parting.Horseshoe, parting.Perimeter, parting.PartLine} {
		assert.InDelta(t, whole.Minutes-at[s].Minutes, at[s].SavedMinutes, 1e-9)
		assert.Less(t, at[s].Minutes, 0.8*whole.Minutes, s)
		assert.Less(t, at[s].Sections, whole.Sections)
	}
	assert.Less(t, at[parting.PartLine].Minutes, at[parting.EarToEar].Minutes)
	assert.InDelta(t, 0.5, at[parting.Horseshoe].Minutes/whole.Minutes, 0.17)

	in.Parting.Structure = parting.EarToEar
	res := compute(t, in)
	assert.Equal(t, res.Layout.Hooks(), res.Hair.Hooked)
	assert.Equal(t, len(res.Layout.Sections)+res.Hair.Hooked, res.Tally.Pieces)
	var hook float64
	for _, s := range res.Hours.Stages {
		if s.Name == "Hook on" {
			hook = s.Minutes.Likely
		}
	}
	// Common practice, no source: 120 pieces are hooked on tracks in 20 to 40 minutes.
	assert.True(t, hook*120/float64(res.Hair.Hooked) >= 20 && hook*120/float64(res.Hair.Hooked) <= 40, "%v minutes", hook)

	// Pieces set by hand count.
	x := res.Layout.Sections[0]
	head, err := scalp.Fit(in.Head)
	require.NoError(t, err)
	in.Parting.Edits = []parting.Edit{{Kind: parting.SetPieces, At: parting.Toward(head, x.Centroid), Pieces: 4}}
	assert.Equal(t, res.Tally.Pieces+3, compute(t, in).Tally.Pieces)
}

// Whatever is read either computes to finite numbers or is refused by name.
func FuzzDecodeAndCompute(f *testing.F) {
	good, err := json.Marshal(Default())
	require.NoError(f, err)
	f.Add(good)
	f.Add(bytes.Replace(good, []byte("25.4"), []byte("5.1"), 2))
	f.Add([]byte(`{"schema":1}`))
	f.Add([]byte(`{"schema":1,"parting":{"pattern":"grid","front":{"widthMm":20,"heightMm":20},"back":7}}`))
	f.Add([]byte(`[]`))
	for _, structure := range parting.Structures {
		in := Default()
		in.Parting.Structure = structure
		raw, err := json.Marshal(in)
		require.NoError(f, err)
		f.Add(raw)
	}
	f.Fuzz(func(t *testing.T, raw []byte) {
		var bad invalid.Errors
		in, err := Decode(bytes.NewReader(raw))
		if err != nil {
			require.ErrorAs(t, err, &bad)
			return
		}
		res, err := Compute(context.Background(), in)
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

// The bar of docs/performance.md: a preview of a 300-section head.
func BenchmarkPreview(b *testing.B) {
	in := Default()
	size := parting.Size{Width: 0.6 * 25.4, Height: 0.6 * 25.4}
	in.Parting.Front.Size, in.Parting.Back.Size = size, size
	res := compute(b, in)
	b.ReportAllocs()
	for b.Loop() {
		if _, err := Compute(context.Background(), in); err != nil {
			b.Fatal(err)
		}
	}
	b.ReportMetric(float64(res.Tally.Sections), "sections")
}
