package plan_test

import (
	"encoding/json"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/invalid"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/core/tally"
)

// offered finds the figures of a refusal, both units of each length.
var offered = regexp.MustCompile(`(-?\d+(?:\.\d+)?) cm \((-?\d+(?:\.\d+)?) in\)|(-?\d+(?:\.\d+)?)`)

// offers are the values that a refusal says would work, as a reader would enter them:
// all figures but those of what is.
func offers(message string) (values [][]float64) {
	counts := !strings.Contains(message, " cm (")
	if i := strings.Index(message, "; up to "); i >= 0 {
		counts = !strings.Contains(message[i:], " cm (")
	}
	for _, what := range []string{"; it is", ". Take both again", " at most; "} {
		message, _, _ = strings.Cut(message, what)
	}
	// What is wrong comes first, what would work in a clause of its own.
	for _, start := range []string{": between ", "; up to ", ". Up to ", ": up to ", "; sections up to ", "; at ", "at least ", " Moved ", "between ", "cornrows that merge within ", " can merge into "} {
		if i := strings.LastIndex(message, start); i >= 0 {
			message = message[i:]
			break
		}
	}
	message, _, _ = strings.Cut(message, " instead of ")
	for _, m := range offered.FindAllStringSubmatch(message, -1) {
		read := func(text string, mm float64) float64 {
			v, _ := strconv.ParseFloat(text, 64)
			return v * mm
		}
		switch {
		case m[1] != "":
			values = append(values, []float64{read(m[1], 10), read(m[2], 25.4)})
		case counts:
			values = append(values, []float64{read(m[3], 1)})
		}
	}
	return values
}

// withValue is the input with one field of its document set.
func withValue(t *testing.T, in plan.Input, path string, value float64) (plan.Input, error) {
	t.Helper()
	raw, err := json.Marshal(in)
	require.NoError(t, err)
	var doc any
	require.NoError(t, json.Unmarshal(raw, &doc))
	at := doc
	keys := strings.Split(strings.NewReplacer("[", ".", "]", "").Replace(path), ".")
	for i, key := range keys {
		last := i == len(keys)-1
		switch node := at.(type) {
		case map[string]any:
			if last {
				node[key] = value
			}
			at = node[key]
		case []any:
			n, err := strconv.Atoi(key)
			require.NoError(t, err)
			at = node[n]
		}
	}
	raw, err = json.Marshal(doc)
	require.NoError(t, err)
	return plan.Decode(strings.NewReader(string(raw)))
}

// Every number that a refusal offers is accepted when it is entered as it is read, in
// either unit: another field may then be at fault, not this one again.
func TestWhatARefusalOffersIsAccepted(t *testing.T) {
	on := func(s parting.Structure, more func(*plan.Input)) func(*plan.Input) {
		return func(in *plan.Input) { in.Parting.Structure = s; more(in) }
	}
	at := parting.Direction{0, 0, 1}
	cases := map[string]func(*plan.Input){
		"circumference":   func(in *plan.Input) { in.Head.Circumference = 43.99 * 10 },
		"circumference 2": func(in *plan.Input) { in.Head.Circumference = 68.01 * 10 },
		"front to nape":   func(in *plan.Input) { in.Head.FrontToNape = 455 },
		"ear to ear":      func(in *plan.Input) { in.Head.EarToEar = 260 },
		"bulk":            func(in *plan.Input) { in.Head.HairBulk = 15.01 },
		"ratio":           func(in *plan.Input) { in.Head.Ratio = 0.95 },
		"own hair":        func(in *plan.Input) { in.Hair.Front = 9.96 },
		"own hair 2":      func(in *plan.Input) { in.Hair.Nape = 1500.4 },
		"density":         func(in *plan.Input) { in.Hair.Density = 30 },
		"strand":          func(in *plan.Input) { in.Hair.Strand = 151 },
		"width":           func(in *plan.Input) { in.Parting.Front.Width = 76.21 },
		"height":          func(in *plan.Input) { in.Parting.Back.Height = 4.99 },
		"ramp":            func(in *plan.Input) { in.Parting.Back.Ramp = 2.1 },
		"edges":           func(in *plan.Input) { in.Parting.Edges = 40.2 },
		"spot":            func(in *plan.Input) { in.Parting.LeftOut = []parting.Spot{{At: at, Radius: 91}} },
		"large spot": func(in *plan.Input) {
			in.Parting.LeftOut = []parting.Spot{{At: parting.Direction{1, 0, 0}, Radius: 90}, {At: at, Radius: 90}}
			in.Parting.Front.Size, in.Parting.Structure = parting.Size{Width: 50, Height: 50}, parting.PartLine
		},
		"side part":        func(in *plan.Input) { in.Parting.Part = parting.Part{Kind: parting.SidePart, Offset: 1} },
		"far part":         func(in *plan.Input) { in.Parting.Part = parting.Part{Kind: parting.SidePart, Offset: 60} },
		"far end":          func(in *plan.Input) { in.Parting.Part = parting.Part{Kind: parting.DiagonalPart, EndOffset: 60} },
		"stop":             func(in *plan.Input) { in.Parting.Part.Stop = 24.9 },
		"stop in front":    func(in *plan.Input) { in.Parting.Part.Stop = 40 },
		"stop behind":      func(in *plan.Input) { in.Parting.Part.Stop = 399 },
		"ear part":         func(in *plan.Input) { in.Parting.Part.Ear = 50.3 },
		"ear part behind":  func(in *plan.Input) { in.Parting.Part.Ear = -40.3 },
		"hairline":         func(in *plan.Input) { in.Hairline.Front = 90 },
		"hairline crossed": func(in *plan.Input) { in.Hairline.Temple.Back = -30 },
		"hairline passed":  func(in *plan.Input) { in.Hairline.TempleCorner.Back = 30 },
		"tracks":           on(parting.EarToEar, func(in *plan.Input) { in.Parting.Base.Cornrows = 60 }),
		"side cornrows":    on(parting.Horseshoe, func(in *plan.Input) { in.Parting.Base.SideCornrows = 60 }),
		"design cornrows":  on(parting.FrontDesign, func(in *plan.Input) { in.Parting.Design.Cornrows = 12; in.Head = scalp.Presets()[0].Tapes }),
		"merge":            on(parting.EarToEar, func(in *plan.Input) { in.Parting.Base.MergeInto = 40 }),
		"merge after":      on(parting.EarToEar, func(in *plan.Input) { in.Parting.Base.MergeInto, in.Parting.Base.MergeAfter = 4, 300 }),
		"spacing":          on(parting.EarToEar, func(in *plan.Input) { in.Parting.Base.Spacing = 80.04 }),
		"rows in a ring":   on(parting.Perimeter, func(in *plan.Input) { in.Parting.Rows = 6 }),
		"high net ring":    on(parting.NetCap, func(in *plan.Input) { in.Parting.Front.Height = 76; in.Head = scalp.Presets()[0].Tapes }),
		"rows at a part":   on(parting.Horseshoe, func(in *plan.Input) { in.Parting.Rows = 6 }),
		"per side":         on(parting.PartLine, func(in *plan.Input) { in.Parting.PerSide = 60 }),
		"piece":            func(in *plan.Input) { in.Pieces[0].Length = 74.9 },
		"piece 2":          func(in *plan.Input) { in.Pieces[0].Length = 1300.1 },
		"diameter":         func(in *plan.Input) { in.Pieces[0].Thickness = 1 },
		"mass":             func(in *plan.Input) { in.Pieces[0].Mass = 61 },
		"per section":      func(in *plan.Input) { in.Uses[0].Count = 7 },
		"units":            func(in *plan.Input) { in.Pieces[0].Pack.Units = 501 },
		"spares":           func(in *plan.Input) { in.Spares.Percent = 101 },
		"least spares":     func(in *plan.Input) { in.Spares.Least = 201 },
		"strand length":    func(in *plan.Input) { wrapped(in).Wrapping.StrandLength = 149.7 },
		"ribbon":           func(in *plan.Input) { wrapped(in).Settings["ribbonMm"] = 26 },
		"tail":             func(in *plan.Input) { wrapped(in).Settings["tailMm"] = 150.2 },
		"fed":              func(in *plan.Input) { in.Plaits.Fed = 300.4 },
		"fill":             func(in *plan.Input) { in.Fill.Count = 201 },
		"loop":             func(in *plan.Input) { in.Pieces[0].Loop = 40.5 },
		"pitch":            func(in *plan.Input) { in.Ways[0].Settings["pitchMm"] = 151 },
	}
	followed := 0
	for name, spoil := range cases {
		in := plan.Default()
		spoil(&in)
		_, err := tally.Compute(t.Context(), in)
		bad := invalid.From(err)
		require.NotEmpty(t, bad, name)
		path, message := bad[0].Path, bad[0].Message
		values := offers(message)
		assert.NotEmpty(t, values, "%s offers nothing: %s", name, message)
		for _, value := range values {
			for _, v := range value {
				for _, sign := range []float64{1, -1} {
					if sign < 0 && !strings.Contains(message, "from the middle") && !strings.Contains(message, "behind and") {
						continue
					}
					next, err := withValue(t, in, path, sign*v)
					require.NoError(t, err, "%s: %v", name, v)
					_, err = tally.Compute(t.Context(), next)
					for _, again := range invalid.From(err) {
						assert.NotEqual(t, path, again.Path, "%s: %q offers %v (%v), then %q", name, message, v*sign, value, again.Message)
					}
					followed++
				}
			}
		}
		// What is wrong reads as wrong: never the same figure as the bound.
		if is := regexp.MustCompile(`between (\S+) cm.* and (\S+) cm.*; it is (\S+) cm`).FindStringSubmatch(message); is != nil {
			assert.NotContains(t, []string{is[1], is[2]}, is[3], message)
		}
	}
	assert.Greater(t, followed, len(cases))
}

// Too many sections: the sizes that are said to work do, all four of them together.
func TestSizesForTooManySectionsWork(t *testing.T) {
	four := regexp.MustCompile(`([\d.]+) cm \(([\d.]+) in\)`)
	for _, kind := range []parting.PartKind{parting.MiddlePart, parting.NoPart, parting.Levels} {
		for _, pattern := range []parting.Pattern{parting.Brick, parting.Grid} {
			in := plan.Default()
			in.Parting.Part.Kind = kind
			in.Parting.Front.Pattern, in.Parting.Back.Pattern = pattern, pattern
			in.Parting.Front.Size, in.Parting.Back.Size = parting.Size{Width: 5, Height: 5.5}, parting.Size{Width: 6, Height: 5}
			_, err := tally.Compute(t.Context(), in)
			bad := invalid.From(err)
			require.Len(t, bad, 1)
			said := four.FindAllStringSubmatch(bad[0].Message, -1)
			require.Len(t, said, 4, bad[0].Message)
			for unit, mm := range map[int]float64{1: 10, 2: 25.4} {
				read := func(i int) float64 {
					v, err := strconv.ParseFloat(said[i][unit], 64)
					require.NoError(t, err)
					return v * mm
				}
				in.Parting.Front.Size = parting.Size{Width: read(0), Height: read(1)}
				in.Parting.Back.Size = parting.Size{Width: read(2), Height: read(3)}
				_, err := tally.Compute(t.Context(), in)
				assert.NoError(t, err, bad[0].Message)
			}
		}
	}
}

// Both ends of the range that a fit to a count names can be had.
func TestTheRangeOfCountsCanBeHad(t *testing.T) {
	ends := regexp.MustCompile(`Between (\d+) and (\d+) sections`)
	for _, structure := range []parting.Structure{parting.AllIndividuals, parting.EarToEar, parting.Perimeter} {
		in := plan.Default()
		in.Parting.Structure = structure
		h, err := scalp.FitWith(in.Head, in.Hairline)
		require.NoError(t, err)
		_, err = parting.FitCount(t.Context(), h, in.Parting, parting.Count{Total: 1})
		bad := invalid.From(err)
		require.Len(t, bad, 1)
		m := ends.FindStringSubmatch(bad[0].Message)
		require.Len(t, m, 3, bad[0].Message)
		for _, text := range m[1:] {
			n, err := strconv.Atoi(text)
			require.NoError(t, err)
			found, err := parting.FitCount(t.Context(), h, in.Parting, parting.Count{Total: n})
			assert.NoError(t, err, "%s: %s", structure, bad[0].Message)
			assert.NotEmpty(t, found)
		}
	}
}

// Names are measured in letters, as people count them.
func TestLettersAreCountedNotBytes(t *testing.T) {
	in := plan.Default()
	const most = 80
	in.Pieces[0].Name = strings.Repeat("Ọ", most)
	require.Greater(t, len(in.Pieces[0].Name), most)
	_, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	const longest = 120
	title := strings.Repeat("ễ", longest)
	raw, err := plan.File{Title: title, Input: in}.Encode()
	require.NoError(t, err)
	f, err := plan.ReadFile(strings.NewReader(string(raw)))
	require.NoError(t, err)
	assert.Equal(t, longest, utf8.RuneCountInString(f.Title))
	in.Pieces[0].Name += "Ọ"
	_, err = tally.Compute(t.Context(), in)
	assert.Equal(t, "pieces[0].name", invalid.From(err)[0].Path)
}
