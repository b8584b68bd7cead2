package plan

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"math"
	"os"
	"runtime/debug"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/advice"
	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
)

// compute computes a plan that must work.
func compute(t testing.TB, in Input) Result {
	t.Helper()
	res, err := Compute(context.Background(), in)
	require.NoError(t, err)
	return res
}

// behind gives those behind so many pieces each.
func behind(count int) Use { return Use{Where: Where{Kind: InBack}, Count: count} }

// attachBy makes a method the one everything gets.
func attachBy(in Input, id method.ID) Input {
	in.Ways = slices.Clone(in.Ways)
	in.Ways[0] = NewWay(firstWay, id)
	return in
}

// withPiece makes a piece the one everything gets.
func withPiece(in Input, change func(*hair.Piece)) Input {
	in.Pieces = slices.Clone(in.Pieces)
	change(&in.Pieces[0])
	return in
}

func codes(notices []advice.Notice) (out []advice.Code) {
	for _, n := range notices {
		out = append(out, n.Code)
	}
	return out
}

func TestTallySumsThePlan(t *testing.T) {
	in := Default()
	in.Uses[0].Count = 2
	in.Uses = append(in.Uses, behind(1))
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
	require.Len(t, res.Need.Pieces, 1)
	order := res.Need.Pieces[0].Order
	assert.Equal(t, res.Tally.Pieces+res.Tally.Spares, order.Need)
	assert.GreaterOrEqual(t, order.Units, order.Need)
	assert.Equal(t, order.Cost, res.Tally.Cost)
	assert.InDelta(t, float64(res.Tally.Pieces)*in.Pieces[0].Mass, res.Tally.Weight, 1e-9)
	looked := 0
	for _, n := range res.Notices {
		if n.Severity != advice.Hint {
			looked++
		}
	}
	assert.Equal(t, looked, res.Tally.Notices)

	in.Fill.Count = 7
	filled := compute(t, in).Tally
	assert.Equal(t, res.Tally.Pieces+7, filled.Pieces)
	assert.InDelta(t, res.Tally.Weight+7*in.Pieces[0].Mass, filled.Weight, 1e-9)
	assert.Greater(t, filled.Minutes, res.Tally.Minutes)
}

func TestEachFamilyHidesThePlaitItsWay(t *testing.T) {
	in := Default()
	weave := compute(t, in)
	require.Len(t, weave.Work, 1)
	assert.Equal(t, Between{3, 3}, weave.Work[0].Passes, "5.2 in of plait at a 2 in pitch")
	assert.Empty(t, weave.Need.Wraps)

	wrap := compute(t, attachBy(in, method.CollarAndWrap))
	require.Len(t, wrap.Need.Wraps, 1)
	assert.Equal(t, weave.Tally.Packs+wrap.Need.Wraps[0].Order.Packs, wrap.Tally.Packs)
	assert.Greater(t, wrap.Tally.Weight, weave.Tally.Weight)
	assert.Zero(t, wrap.Work[0].Passes.Most)

	twisted := attachBy(in, method.FoldAndTwist)
	assert.Contains(t, codes(compute(t, twisted).Notices), advice.WrongForm, "a loc can not be folded")
	twisted = withPiece(twisted, func(p *hair.Piece) { p.Form, p.Pack = hair.Bulk, hair.Pack{Units: 30, Cuts: 2, Splits: 2} })
	twist := compute(t, twisted)
	assert.NotContains(t, codes(twist.Notices), advice.WrongForm)
	assert.Equal(t, 1, twist.Need.Pieces[0].Order.Packs, "120 units from a pack")
}

// What is hooked on is told by its ground, and what there is no plait for speaks
// against no method.
func TestHookingFollowsTheBase(t *testing.T) {
	hooked := func(res Result) *Attachment {
		i := slices.IndexFunc(res.Work, func(w Attachment) bool { return w.Method == method.TrackHitch })
		if i < 0 {
			return nil
		}
		return &res.Work[i]
	}
	assert.Nil(t, hooked(compute(t, Default())), "loose plaits all over")
	for structure, ground := range map[parting.Structure]method.Ground{
		parting.Perimeter: method.OnTrack, parting.NetCap: method.OnNet, parting.Linked: method.OnLink,
	} {
		in := Default()
		in.Parting.Structure = structure
		if structure == parting.NetCap {
			in.Parting.Base.Kind = parting.Net
		}
		res := compute(t, in)
		if w := hooked(res); assert.NotNil(t, w, structure) {
			assert.Equal(t, ground, w.Ground, structure)
			assert.Equal(t, res.Need.Pieces[0].Hooked, w.Pieces, structure)
		}
	}
	in := attachBy(Default(), method.FoldAndTwist)
	in.Parting.Structure = parting.Linked
	res := compute(t, in)
	assert.Equal(t, res.Need.Pieces[0].OnHead, res.Need.Pieces[0].Hooked)
	assert.NotContains(t, codes(res.Notices), advice.WrongForm)
	assert.Empty(t, compute(t, attachBy(in, method.CollarAndWrap)).Need.Wraps, "nothing is wrapped, so not even a spare strand is bought")

	in.Parting.Structure = parting.EarToEar
	first := func(tails parting.Tails) string {
		in.Parting.Base.Tails = tails
		return hooked(compute(t, in)).Steps[0].Text
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

// wrapped adds a way that wraps and gives it.
func wrapped(in *Input) *Way {
	in.Ways = append(in.Ways, NewWay("w2", method.CollarAndWrap))
	return &in.Ways[2]
}

// many are so many pieces, each with a key of its own.
func many(n int) (out []hair.Piece) {
	for i := range n {
		p := Default().Pieces[0]
		p.Key = fmt.Sprintf("more%d", i)
		out = append(out, p)
	}
	return out
}

func TestEveryBadFieldIsNamed(t *testing.T) {
	for path, spoil := range map[string]func(*Input){
		"schema":                 func(in *Input) { in.Schema = Schema + 1 },
		"head.circumferenceMm":   func(in *Input) { in.Head.Circumference = 0 },
		"head.earToEarMm":        func(in *Input) { in.Head.EarToEar = 235 },
		"hair.crownMm":           func(in *Input) { in.Hair.Crown = -3 },
		"hair.texture":           func(in *Input) { in.Hair.Texture = "shiny" },
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
		"plaits.far":                      func(in *Input) { in.Plaits.Far = "a bit" },
		"plaits.fedMm":                    func(in *Input) { in.Plaits.Fed = 301 },
		"pieces":                          func(in *Input) { in.Pieces = append(in.Pieces, many(12)...) },
		"pieces[0].name":                  func(in *Input) { in.Pieces[0].Name = strings.Repeat("x", 81) },
		"pieces[0].form":                  func(in *Input) { in.Pieces[0].Form = "yarn" },
		"pieces[0].lengthMm":              func(in *Input) { in.Pieces[0].Length = 1 },
		"pieces[0].thicknessMm":           func(in *Input) { in.Pieces[0].Thickness = math.NaN() },
		"pieces[0].massG":                 func(in *Input) { in.Pieces[0].Mass = -1 },
		"pieces[0].loopMm":                func(in *Input) { in.Pieces[0].Loop = 41 },
		"pieces[0].pack.units":            func(in *Input) { in.Pieces[0].Pack.Units = 0 },
		"pieces[0].pack.cuts":             func(in *Input) { in.Pieces[0].Pack.Cuts = -1 },
		"pieces[0].pack.splits":           func(in *Input) { in.Pieces[0].Pack.Splits = 1000 },
		"pieces[0].offers":                func(in *Input) { in.Pieces[0].Offers = nil },
		"pieces[0].offers[0].packs":       func(in *Input) { in.Pieces[0].Offers[0].Packs = 0 },
		"pieces[1].key":                   func(in *Input) { in.Pieces = append(in.Pieces, in.Pieces[0]) },
		"pieces[0].offers[0].priceMinor":  func(in *Input) { in.Pieces[0].Offers[0].Price = math.MaxInt64 },
		"spares.percent":                  func(in *Input) { in.Spares.Percent = -5 },
		"spares.least":                    func(in *Input) { in.Spares.Least = 100000 },
		"fill.count":                      func(in *Input) { in.Fill.Count = -1 },
		"fill.piece":                      func(in *Input) { in.Fill.Piece = "p9" },
		"ways[0].wrapping":                func(in *Input) { in.Ways[0] = NewWay(firstWay, method.CollarAndWrap); in.Ways[0].Wrapping = nil },
		"ways[2].wrapping.strandLengthMm": func(in *Input) { wrapped(in).Wrapping.StrandLength = 0 },
		"ways[2].wrapping.strandsPerPack": func(in *Input) { wrapped(in).Wrapping.Strands = 0 },
		"ways[2].wrapping.packMassG":      func(in *Input) { wrapped(in).Wrapping.PackMass = 0 },
		"ways[2].wrapping.priceMinor":     func(in *Input) { wrapped(in).Wrapping.Price = -1 },
		"ways[2].settings.ribbonMm":       func(in *Input) { wrapped(in).Settings["ribbonMm"] = 0 },
		"ways[2].settings.tailMm":         func(in *Input) { delete(wrapped(in).Settings, "tailMm") },
		"ways[0].settings.turns":          func(in *Input) { in.Ways[0].Settings["turns"] = 3 },
		"ways[0].settings.pitchMm":        func(in *Input) { in.Ways[0].Settings["pitchMm"] = 0 },
		"ways[2].method":                  func(in *Input) { wrapped(in).Method = "L9" },
		"uses[0].count":                   func(in *Input) { in.Uses[0].Count = 0 },
		"uses[0].where.kind":              func(in *Input) { in.Uses[0].Where.Kind = InFront },
		"uses[0].way":                     func(in *Input) { in.Uses[0].Way = hookWay },
		"uses[1].way":                     func(in *Input) { in.Uses[1].Way = firstWay },
		"uses[2].piece":                   func(in *Input) { in.Uses = append(in.Uses, Use{Where: Where{Kind: InBack}}) },
		"uses[2].way":                     func(in *Input) { in.Uses = append(in.Uses, Use{Where: Where{Kind: InBack}, Way: "w7"}) },
		"uses[2].count":                   func(in *Input) { in.Uses = append(in.Uses, behind(7)) },
		"uses[2].where.places":            func(in *Input) { in.Uses = append(in.Uses, Use{Where: Where{Kind: AtPlaces}, Count: 2}) },
		"uses[2].where.zones": func(in *Input) {
			in.Uses = append(in.Uses, Use{Where: Where{Kind: InBack, Zones: []parting.Zone{"B"}}, Count: 2})
		},
		"uses[2].where.places[0]": func(in *Input) {
			in.Uses = append(in.Uses, Use{Where: Where{Kind: AtPlaces, Places: []parting.Direction{{2, 0, 0}}}, Count: 2})
		},
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
		// What those versions had for a base.
		base := &want.Parting.Base
		base.Tracks, base.SideTracks, base.Spacing, want.Parting.PerSide = 10, 4, 19, 12
		// The wrapping hair of the plan stays, for when its method is one that wraps.
		want.Ways[0].Wrapping = NewWay("", method.CollarAndWrap).Wrapping
		want.Pieces[0].Name = "Pre-looped loc"
		assert.Equal(t, want, in, file)

		_, err = Decode(strings.NewReader(strings.Replace(string(raw), `"pattern"`, `"sparkle": 2, "pattern"`, 1)))
		bad := invalid.From(err)
		require.NotEmpty(t, bad, "a field no version has")
		assert.Equal(t, "sparkle", bad[0].Path)
	}
}

// Common practice, no source: individuals in front and tracks behind give the look in
// about half the time, a horseshoe or a part line with tracks in less; and a track is hooked in
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
	assert.InDelta(t, 0.5, at[parting.EarToEar].Minutes/whole.Minutes, 0.17)
	assert.Less(t, at[parting.Horseshoe].Minutes, at[parting.EarToEar].Minutes)

	in.Parting.Structure = parting.EarToEar
	res := compute(t, in)
	hooked := res.Need.Pieces[0].Hooked
	assert.Equal(t, res.Layout.Hooks(), hooked)
	assert.Equal(t, len(res.Layout.Sections)+hooked, res.Tally.Pieces)
	var hook float64
	for _, s := range res.Hours.Stages {
		if s.Name == "Hook on" {
			hook = s.Minutes.Likely
		}
	}
	// Common practice, no source: 120 pieces are hooked on tracks in 40 to 60 minutes, sorting
	// among them.
	assert.True(t, hook*120/float64(hooked) >= 40 && hook*120/float64(hooked) <= 60, "%v minutes", hook)
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

// The bar of docs/performance.md: a preview of a 300-section head, with the memory the
// program gives itself.
func BenchmarkPreview(b *testing.B) {
	defer debug.SetGCPercent(debug.SetGCPercent(400))
	for _, part := range []parting.Part{{Kind: parting.MiddlePart}, {Kind: parting.SidePart, Offset: 25.4}, {Kind: parting.NoPart}, {Kind: parting.Levels}} {
		b.Run(string(part.Kind), func(b *testing.B) {
			in := Default()
			in.Parting.Part = part
			size := parting.Size{Width: 0.58 * 25.4, Height: 0.58 * 25.4}
			in.Parting.Front.Size, in.Parting.Back.Size = size, size
			res := compute(b, in)
			b.ReportAllocs()
			for b.Loop() {
				if _, err := Compute(context.Background(), in); err != nil {
					b.Fatal(err)
				}
			}
			b.ReportMetric(float64(res.Tally.Sections), "sections")
		})
	}
}
