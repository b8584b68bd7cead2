package plan

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"kladotex/core/advice"
	"kladotex/core/fall"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/quote"
	"kladotex/core/scalp"
)

// Sections split here come out as two, each about half.
func TestSplitHere(t *testing.T) {
	in := Default()
	w, err := in.resolved(t.Context(), parting.Lay)
	require.NoError(t, err)
	before := len(w.layout.Sections)
	s := &w.layout.Sections[before/2]
	at, with := w.halves(s)
	in.Parting.Edits = []parting.Edit{{Kind: parting.Split, At: at, With: &with}}
	res, err := Compute(t.Context(), in)
	require.NoError(t, err)
	assert.Len(t, res.Layout.Sections, before+1)
	assert.Empty(t, res.Layout.Rejected)
	a, b := res.Layout.At(w.head, at), res.Layout.At(w.head, with)
	require.NotEqual(t, a, b)
	assert.InEpsilon(t, s.Area/2, res.Layout.Sections[a].Area, 0.2)
	assert.InEpsilon(t, s.Area/2, res.Layout.Sections[b].Area, 0.2)
}

// The thickest plait that still vanishes is where the judge begins to speak.
func TestTheFattestPlaitThatVanishes(t *testing.T) {
	in := Default()
	all(size(1.5*in1), by(method.HitchAndWeave, hair.Twist), piece(14*in1, 5, 2))(&in)
	w, err := in.resolved(t.Context(), parting.Lay)
	require.NoError(t, err)
	p := &w.res.Places[0]
	tr := &trouble{worked: w, kind: &foundKind{}, p: p, piece: in.Pieces[0], job: w.job(p)}
	most := tr.fattest()
	assert.InDelta(t, 0.8*5, most, 0.01, "0.8 of a twist (core rules)")
}

// A remedy of pieces takes what lies in the stash first, then what is most like it.
func TestPiecesOfTheStashComeFirst(t *testing.T) {
	in := Default()
	in.Pieces[0].Mass = 12
	like := in.Pieces[0]
	like.Key, like.Name, like.Mass = "a", "Much the same", 3.5
	there := like
	there.Key, there.Name, there.Length = "b", "In the stash", like.Length-25
	heavy := like
	heavy.Key, heavy.Name, heavy.Mass = "c", "As heavy", 12
	f, err := FitOf(t.Context(), in, []Ready{{Piece: like}, {Piece: there, Stash: 80}, {Piece: heavy, Stash: 200}}, nil)
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
	in := Default()
	in.Pieces[0].Mass = 12
	w, err := in.resolved(t.Context(), parting.Lay)
	require.NoError(t, err)
	w.workAll()
	f, err := FitOf(t.Context(), in, nil, nil)
	require.NoError(t, err)
	at := map[string]int{}
	for i := range w.res.Places {
		at[w.res.Places[i].ID] = i
	}
	for _, z := range f.Zones {
		for _, x := range z.Findings {
			edges, last := true, math.Inf(1)
			for _, id := range x.Places {
				edge := w.edge(&w.res.Places[at[id]])
				assert.False(t, edge && !edges, "an edge stands behind others")
				if edges != edge {
					edges, last = edge, math.Inf(1)
				}
				load, _, _ := w.loadHere(at[id])
				if x.Code == advice.TooHeavy || x.Code == advice.HeavyHere {
					assert.LessOrEqual(t, load, last+1e-9)
					last = load
				}
			}
		}
	}
}

// Runs of bare places, single pieces across them or not.
func TestGapsAlongATrack(t *testing.T) {
	cover := []int{1, 0, 0, 1, 0, 0, 1, 1, 1, 0, 0}
	of := make([]int, len(cover))
	runs := gaps(cover, of, 1)
	require.Len(t, runs, 2)
	assert.Equal(t, [2]int{1, 6}, [2]int{runs[0].from, runs[0].to})
	assert.InDelta(t, 0.8, runs[0].bare, 1e-9)
	assert.Equal(t, [2]int{9, 11}, [2]int{runs[1].from, runs[1].to})
	// One track ends where the next begins.
	of = []int{0, 0, 0, 0, 1, 1, 1, 1, 1, 1, 1}
	assert.Len(t, gaps(cover, of, 1), 3)
	assert.Empty(t, gaps([]int{1, 2, 1}, make([]int, 3), 2))
}

// What shows alike on both sides is one thing, filled by one touch.
func TestBothSidesAreOne(t *testing.T) {
	w, err := Default().resolved(t.Context(), parting.Lay)
	require.NoError(t, err)
	left := Showing{Kind: onScalp, Name: "Scalp shows", Area: 400, Points: scalp.Line{{-60, 50, 60}, {-62, 52, 58}}}
	right := Showing{Kind: onScalp, Name: "Scalp shows", Area: 390, Points: scalp.Line{{-60, -50, 60}, {-62, -51, 58}}}
	other := Showing{Kind: onScalp, Name: "Scalp shows", Area: 350, Points: scalp.Line{{60, -40, 70}}}
	out := w.paired([]Showing{left, other, right})
	require.Len(t, out, 2)
	assert.Equal(t, 790.0, out[0].Area)
	assert.Len(t, out[0].Points, 4)
	assert.Contains(t, out[0].Name, "both sides")
	assert.Contains(t, out[1].Name, "right")
}

// The price of a plan is made of its packs and its hours.
func TestWhatAPlanCosts(t *testing.T) {
	in := Default()
	in.Ways[0] = NewWay(firstWay, method.CollarAndWrap)
	in.Accents = []Accent{{Thing: &Thing{Name: "Cuff", Mass: 0.5, Pack: 20, Price: 400}, Where: Where{Kind: InFront}, Count: 8}}
	terms := quote.UsualTerms()
	price, res, err := PriceOf(t.Context(), in, terms)
	require.NoError(t, err)
	sum := map[quote.Kind]int64{}
	for _, l := range price.Lines {
		sum[l.Kind] += l.Amount
	}
	assert.Equal(t, res.Tally.Cost, sum[quote.Hair]+sum[quote.Things])
	assert.Equal(t, int64(400), sum[quote.Things])
	assert.Equal(t, int64(quote.Hours(res.Tally.Minutes))*terms.Rate/60, sum[quote.Work])
	in.Price = &quote.Basis{BringsHair: true}
	brought, _, err := PriceOf(t.Context(), in, terms)
	require.NoError(t, err)
	assert.Equal(t, sum[quote.Work], brought.Total)
	included := res.Included(in)
	assert.Contains(t, included[0], "100 sections parted and plaited")
	assert.Contains(t, included[1], "100 pieces hung, collar and wrap")
	in.Trim = &Trim{fall.Bob, "chin"}
	assert.Contains(t, res.Included(in)[2], "A rounded bob to the chin")
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
		borne := on.Bears(plait.HeavyLoad)
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
	in := Default()
	in.Child = true
	in.Pieces[0].Mass = 3.9
	f, err := FitOf(t.Context(), in, nil, nil)
	require.NoError(t, err)
	require.Greater(t, f.Load.Dry, 0.75*f.Load.Heavy)
	require.LessOrEqual(t, f.Load.Dry, f.Load.Heavy)
	assert.Contains(t, f.Load.Says[0], "nearly the")
	assert.NotContains(t, strings.Join(f.Load.Says, " "), "usually carry")
}

// A day counts tiredness within a sitting, at most two fifths more; alone it takes the sittings it would have,
// and two people are paid for what both do.
func TestADayOfTwo(t *testing.T) {
	assert.InDelta(t, 1.4, pace.Tired(10_000), 1e-9)
	in := Default()
	in.Parting.Front.Size, in.Parting.Back.Size = parting.Size{Width: 14, Height: 14}, parting.Size{Width: 14, Height: 14}
	one := in
	one.Day = &Day{Hands: []Hand{{Key: "a", Name: "A", Hand: pace.Practised, Does: DoesBoth}}}
	two := in
	two.Day = &Day{Hands: append(slices.Clone(one.Day.Hands), Hand{Key: "b", Name: "B", Hand: pace.Practised, Does: PlaitsFirst})}
	alone, err := DayOf(t.Context(), one)
	require.NoError(t, err)
	both, err := DayOf(t.Context(), two)
	require.NoError(t, err)
	assert.InDelta(t, alone.Sum(), both.Alone, 0.02*alone.Sum(), "as long as it takes who does it alone")
	assert.InDelta(t, alone.Labour, alone.Hours.Total.Likely, 1e-9)
	assert.InDelta(t, alone.Labour, both.Labour, 0.05*alone.Labour, "the same work, by whoever")
	terms := quote.Terms{Rate: 3000}
	a, _, err := PriceOf(t.Context(), one, terms)
	require.NoError(t, err)
	b, _, err := PriceOf(t.Context(), two, terms)
	require.NoError(t, err)
	work := func(p quote.Price) quote.Charge {
		return p.Lines[slices.IndexFunc(p.Lines, func(c quote.Charge) bool { return c.Kind == quote.Work })]
	}
	assert.InDelta(t, work(a).Amount, work(b).Amount, 0.05*float64(work(a).Amount))
	assert.Contains(t, work(b).Detail, "of 2 people")
	slow := two
	day := *two.Day
	day.Hands = slices.Clone(day.Hands)
	day.Hands[1].Hand = pace.Beginner
	slow.Day = &day
	c, _, err := PriceOf(t.Context(), slow, terms)
	require.NoError(t, err)
	assert.Greater(t, work(c).Amount, work(b).Amount, "the second pair of hands is paid too")
}

// A quote for outer rows says what is done again, not that the whole head is parted.
func TestAQuoteForOuterRowsSaysSo(t *testing.T) {
	in := Default()
	in.Redo = &Redo{Install: "an-install", Rows: 1}
	res, err := Compute(t.Context(), in)
	require.NoError(t, err)
	said := res.Included(in)
	assert.Contains(t, said[0], "The outer row taken off, parted and plaited again")
	assert.Contains(t, said[0], "the rest stays as it hangs")
	assert.NotContains(t, strings.Join(said, " "), "flat track")
}
