package judge

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
)

// Sections split here come out as two, each about half.
func TestSplitHere(t *testing.T) {
	in := plan.Default()
	sol := plantest.Solve(t, in)
	before := len(sol.Layout.Sections)
	s := &sol.Layout.Sections[before/2]
	at, with := halves(sol, s)
	in.Parting.Edits = []parting.Edit{{Kind: parting.Split, At: at, With: &with}}
	res := plantest.Solve(t, in)
	assert.Len(t, res.Layout.Sections, before+1)
	assert.Empty(t, res.Layout.Rejected)
	a, b := res.Layout.At(sol.Head, at), res.Layout.At(sol.Head, with)
	require.NotEqual(t, a, b)
	assert.InEpsilon(t, s.Area/2, res.Layout.Sections[a].Area, 0.2)
	assert.InEpsilon(t, s.Area/2, res.Layout.Sections[b].Area, 0.2)
}

// The thickest plait that still vanishes is where the judge begins to speak.
func TestTheFattestPlaitThatVanishes(t *testing.T) {
	in := plan.Default()
	plantest.All(plantest.Size(1.5*25.4), plantest.By(method.HitchAndWeave, hair.Twist), plantest.Piece(14*25.4, 5, 2))(&in)
	sol := plantest.Solve(t, in)
	p := &sol.Places[0]
	tr := &trouble{Solved: sol, kind: &foundKind{}, p: p, piece: in.Pieces[0], job: sol.Job(p)}
	most := tr.fattest()
	assert.InDelta(t, 0.8*5, most, 0.01, "0.8 of a twist (core rules)")
}

// A remedy of pieces takes what lies in the stash first, then what is most like it.
func TestPiecesOfTheStashComeFirst(t *testing.T) {
	in := plan.Default()
	in.Pieces[0].Mass = 12
	like := in.Pieces[0]
	like.Key, like.Name, like.Mass = "a", "Much the same", 3.5
	there := like
	there.Key, there.Name, there.Length = "b", "In the stash", like.Length-25
	heavy := like
	heavy.Key, heavy.Name, heavy.Mass = "c", "As heavy", 12
	f, err := Fit(t.Context(), plantest.Solve(t, in), []Ready{{Piece: like}, {Piece: there, Stash: 80}, {Piece: heavy, Stash: 200}}, nil)
	require.NoError(t, err)
	var says []string
	for _, r := range f.Zones[0].Findings[0].Remedies {
		says = append(says, r.Says)
	}
	require.GreaterOrEqual(t, len(says), 2)
	assert.Contains(t, says[0], "In the stash")
	assert.Contains(t, says[0], "80 in the stash")
	assert.Contains(t, says[1], "Much the same")
	assert.NotContains(t, says, "As heavy")
}

// Edges are named first, then what is worst.
func TestEdgesAndSliversComeFirst(t *testing.T) {
	in := plan.Default()
	in.Pieces[0].Mass = 12
	sol := plantest.Solve(t, in)
	f, err := Fit(t.Context(), plantest.Solve(t, in), nil, nil)
	require.NoError(t, err)
	at := map[string]int{}
	for i := range sol.Places {
		at[sol.Places[i].ID] = i
	}
	for _, z := range f.Zones {
		for _, x := range z.Findings {
			edges, last := true, math.Inf(1)
			for _, id := range x.Places {
				edge := sol.AtHairline(&sol.Places[at[id]])
				assert.False(t, edge && !edges, "an edge stands behind others")
				if edges != edge {
					edges, last = edge, math.Inf(1)
				}
				load, _, _ := loadHere(sol, at[id])
				if x.Code == advice.TooHeavy || x.Code == advice.HeavyHere {
					assert.LessOrEqual(t, load, last+1e-9)
					last = load
				}
			}
		}
	}
}

// A remedy says what changes something and no more: pieces lighter than they are, as many fewer as that takes,
// sections of a size that helps; over random heads, whatever hangs beside.
func TestWordsOfLoadAreTrue(t *testing.T) {
	number := regexp.MustCompile(`[\d.]+`)
	rapid.Check(t, func(t *rapid.T) {
		on := plait.Plait{Hairs: rapid.Float64Range(5, 900).Draw(t, "hairs"), Area: 100}
		h := hangs{
			count: rapid.IntRange(1, 6).Draw(t, "count"), piece: rapid.Float64Range(0.5, 60).Draw(t, "piece"),
			others: rapid.SampledFrom([]float64{0, 1, 8, 40}).Draw(t, "others"), hook: rapid.Bool().Draw(t, "hook"),
		}
		g := float64(h.count)*h.piece + h.others
		borne := on.Bears(craft.HeavyLoad)
		if g <= borne {
			return
		}
		words := heavyFinding(on, h, 1, "").Notice().Remedy
		for part := range strings.SplitSeq(strings.TrimSuffix(words, "."), ", or ") {
			n, _ := strconv.ParseFloat(strings.TrimSuffix(number.FindString(part), "."), 64)
			switch {
			case strings.Contains(part, "at most"):
				assert.Less(t, n, h.piece, words)
				assert.LessOrEqual(t, n*float64(h.count)+h.others, borne+1e-6, words)
			case strings.Contains(part, "fewer"):
				left := h.count - int(n)
				assert.LessOrEqual(t, float64(left)*h.piece+h.others, borne+1e-6, words)
				assert.Greater(t, float64(left+1)*h.piece+h.others, borne-1e-6, "no more fewer than it takes: %s", words)
			case strings.Contains(part, "times"):
				assert.Greater(t, n, 1.0, words)
				assert.LessOrEqual(t, g, n*borne+1e-6, words)
			}
		}
	})
}

// One sliver in a row says what it is; the rest speaks for itself, and what is offered helps the rest.
func TestASliverDoesNotSpeakForItsRow(t *testing.T) {
	finding := func(grade float64) advice.Finding {
		return advice.Finding{Code: advice.HeavyHere, Grade: grade, Notice: func() advice.Notice {
			return advice.Notice{Code: advice.HeavyHere, Reason: fmt.Sprintf("Load %.0f. More", grade), Remedy: fmt.Sprintf("for %.0f", grade)}
		}}
	}
	k := &foundKind{worst: finding(90)}
	for i, grade := range []float64{10, 11, 12, 13, 90} {
		k.places = append(k.places, foundPlace{i, finding(grade), false})
	}
	typical, target := k.typical()
	assert.Equal(t, 2, typical.place)
	assert.Equal(t, 3, target.place)
	n := k.says()
	assert.Equal(t, "Load 12. More The worst of them: load 90.", n.Reason)
	assert.Equal(t, "for 13", n.Remedy)
	alike := &foundKind{worst: finding(13), places: k.places[:4]}
	assert.Equal(t, "Load 12. More", alike.says().Reason)
}

// Nobody is told that what is nearly heavy on a child is what heads usually carry.
func TestNearlyHeavyIsSaidOfAChild(t *testing.T) {
	in := plan.Default()
	in.Child = true
	in.Pieces[0].Mass = 3.9
	f, err := Fit(t.Context(), plantest.Solve(t, in), nil, nil)
	require.NoError(t, err)
	require.Greater(t, f.Load.Dry, 0.75*f.Load.Heavy)
	require.LessOrEqual(t, f.Load.Dry, f.Load.Heavy)
	assert.Contains(t, f.Load.Says[0], "nearly the")
	assert.NotContains(t, strings.Join(f.Load.Says, " "), "usually carry")
}

// Every place has its word, by the load it carries.
// They depend on the load alone.
func TestWordsOfLoad(t *testing.T) {
	for load, want := range map[float64]LoadWord{1: LoadLight, 5: LoadUsual, 10: LoadHeavy, 30: LoadTooHeavy} {
		assert.Equal(t, want, wordOf(load, 1))
	}
	assert.Equal(t, LoadHeavy, wordOf(5, craft.GentleShare), "where less is borne the same load is heavy")
	// A 4 g piece on a square inch of 190 hairs/cm² is what common practice hangs.
	in := plan.Default()
	f, err := Fit(t.Context(), plantest.Solve(t, in), nil, nil)
	require.NoError(t, err)
	assert.InDelta(t, 3.3, f.Load.Median, 0.5)
}
