package hang_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/fall"
	"kladotex/core/hair"
	"kladotex/core/hang"
	"kladotex/core/judge"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
	"kladotex/core/tally"
)

// worn is the plan with pieces of a length and thickness, on a wearer of a stature.
func worn(mm, thick, stature float64) plan.Input {
	in := plantest.WithPiece(plan.Default(), func(p *hair.Piece) { p.Length, p.Thickness = mm, thick })
	in.Stature = stature
	return in
}

// Common practice, no source: where lengths reach to.
func TestLandingsOfCommonPractice(t *testing.T) {
	const in = 25.4
	for _, c := range []struct {
		name            string
		mm, stature     float64
		structure       parting.Structure
		lowest, highest string // the middle of the ends lies between these lines
	}{
		{"24 in at 5 ft 7 in: the waist or past it", 24 * in, 67 * in, parting.AllIndividuals, "hip", "waist"},
		{"18 in at 5 ft 4 in: mid-back", 18 * in, 64 * in, parting.AllIndividuals, "waist", "mid-back"},
		{"32 in at 5 ft 5 in: below the waist", 32 * in, 65 * in, parting.Perimeter, "", "waist"},
		{"8 in at 5 ft 5 in: a bob above the shoulder", 8 * in, 65 * in, parting.AllIndividuals, "shoulder", ""},
	} {
		p := worn(c.mm, 8, c.stature)
		p.Parting = p.Parting.On(c.structure)
		l, err := hang.Land(t.Context(), plantest.Solve(t, p))
		require.NoError(t, err, c.name)
		if line, ok := fall.LineOf(c.highest); ok {
			assert.LessOrEqual(t, l.All.Middle, line.Share+0.012, c.name)
		}
		if line, ok := fall.LineOf(c.lowest); ok {
			assert.Greater(t, l.All.Middle, line.Share, c.name)
		}
		total := 0
		for _, r := range l.Rows {
			total += r.Pieces
		}
		res, err := tally.Compute(t.Context(), p)
		require.NoError(t, err)
		assert.Equal(t, res.Tally.Pieces, total, "every piece lands in a row")
	}
}

// The length that is said to reach a line does: half of the ends come down to it.
func TestTheLengthForALineReachesIt(t *testing.T) {
	in := worn(400, 9, 1650)
	before, err := hang.Land(t.Context(), plantest.Solve(t, in))
	require.NoError(t, err)
	for _, line := range before.Lines {
		if line.Key == "chin" || line.Half > 1300 {
			continue // above it some ends lie on the head; longer pieces are not made
		}
		after, err := hang.Land(t.Context(), plantest.Solve(t, worn(line.Half, 9, 1650)))
		require.NoError(t, err)
		assert.InDelta(t, line.Share, after.All.Middle, 0.012, line.Name)
		assert.LessOrEqual(t, line.First, line.Half)
		assert.LessOrEqual(t, line.Half, line.All)
	}
	// A tall wearer takes longer pieces.
	tall, err := hang.Land(t.Context(), plantest.Solve(t, worn(400, 9, 1850)))
	require.NoError(t, err)
	assert.Greater(t, tall.Lines[4].Half, before.Lines[4].Half)
	// Curl springs up: as much hair of it hangs shorter.
	curly := plantest.WithPiece(worn(400, 9, 1650), func(p *hair.Piece) { p.Form = hair.CurlyBulk })
	sprung, err := hang.Land(t.Context(), plantest.Solve(t, curly))
	require.NoError(t, err)
	assert.Greater(t, sprung.All.Middle, before.All.Middle)
}

// Every row is cut to its guide: ends of a blunt line lie on it within two centimetres and a
// half, layers rise from row to row behind, and what does not come down is said.
func TestCutLists(t *testing.T) {
	in := worn(24*25.4, 9, 67*25.4)
	in.Trim = &plan.Trim{Shape: fall.Blunt, Line: "mid-back"}
	l, err := hang.Land(t.Context(), plantest.Solve(t, in))
	require.NoError(t, err)
	line, _ := fall.LineOf("mid-back")
	for _, r := range l.Rows {
		assert.LessOrEqual(t, r.Shortest, r.Guide)
		assert.LessOrEqual(t, r.Guide, r.Longest)
		if r.Off > 0 {
			assert.InDelta(t, line.Share, r.Lands.Middle, 0.015, r.Name)
			assert.InDelta(t, 24*25.4*0.98, r.Guide+r.Off, 0.5, "what is cut off and what is left make up the piece")
		}
	}
	in.Trim = &plan.Trim{Shape: fall.Layers, Line: "waist"}
	l, err = hang.Land(t.Context(), plantest.Solve(t, in))
	require.NoError(t, err)
	assert.Greater(t, l.Rows[len(l.Rows)/2].Lands.Middle, l.Rows[0].Lands.Middle)
	// Pieces too short for the line stay as they are, and the shortfall is said.
	short := worn(12*25.4, 9, 67*25.4)
	short.Trim = &plan.Trim{Shape: fall.Blunt, Line: "hip"}
	l, err = hang.Land(t.Context(), plantest.Solve(t, short))
	require.NoError(t, err)
	for _, r := range l.Rows {
		assert.Negative(t, r.Off)
	}
}

// A cornrow that shows is found; filled as proposed it shows no more, and the pieces filled in
// are counted, bought and weighed.
func TestAShowingCornrowIsFoundAndFilled(t *testing.T) {
	in := worn(24*25.4, 8, 67*25.4)
	in.Parting = in.Parting.On(parting.EarToEar)
	before, err := hang.Of(t.Context(), plantest.Solve(t, in), fall.Down)
	require.NoError(t, err)
	require.NotEmpty(t, before.Cover.Shows)
	bare := func(d hang.Drape) (cornrows float64) {
		for _, s := range d.Cover.Shows {
			cornrows += s.Length + s.Area/20
		}
		return cornrows
	}
	filled := in
	for range 3 { // as a person would: what is left is filled once more
		d, err := hang.Of(t.Context(), plantest.Solve(t, filled), fall.Down)
		require.NoError(t, err)
		for _, s := range d.Cover.Shows {
			filled.Fill.At = append(filled.Fill.At, s.Fill...)
		}
	}
	after, err := hang.Of(t.Context(), plantest.Solve(t, filled), fall.Down)
	require.NoError(t, err)
	assert.Less(t, bare(after), 0.25*bare(before), "%v", after.Cover.Shows)
	assert.Less(t, after.Cover.Bare, before.Cover.Bare)

	a, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	b, err := tally.Compute(t.Context(), filled)
	require.NoError(t, err)
	more := len(filled.Fill.At)
	assert.Equal(t, a.Tally.Pieces+more, b.Tally.Pieces)
	assert.InDelta(t, a.Tally.Weight+float64(more)*in.Pieces[0].Mass, b.Tally.Weight, 1e-6)
	assert.Len(t, after.Pieces, b.Tally.Pieces, "every piece is drawn")
	assert.Greater(t, b.Tally.Minutes, a.Tally.Minutes)
}

// Up bares what down hides; more and thicker pieces hang fuller.
func TestUpAndDown(t *testing.T) {
	in := worn(24*25.4, 8, 1650)
	in.Parting = in.Parting.On(parting.Horseshoe)
	down, err := hang.Of(t.Context(), plantest.Solve(t, in), fall.Down)
	require.NoError(t, err)
	tied, err := hang.Of(t.Context(), plantest.Solve(t, in), fall.Tied)
	require.NoError(t, err)
	length := func(d hang.Drape) (mm float64) {
		for _, s := range d.Cover.Shows {
			mm += s.Length
		}
		return mm
	}
	assert.Greater(t, length(tied), length(down))
	for _, s := range tied.Cover.Shows {
		assert.Empty(t, s.Fill, "filling does not hide what is tied away from")
	}
	thick, err := hang.Of(t.Context(), plantest.Solve(t, worn(24*25.4, 12, 1650)), fall.Down)
	require.NoError(t, err)
	thin, err := hang.Of(t.Context(), plantest.Solve(t, worn(24*25.4, 6, 1650)), fall.Down)
	require.NoError(t, err)
	assert.Greater(t, thick.Shoulder.Layers, thin.Shoulder.Layers)
	assert.NotEmpty(t, thick.Outline)
	// Three at each place hang beside one another, not in one another.
	three := in
	three.Uses[0].Count = 3
	d, err := hang.Of(t.Context(), plantest.Solve(t, three), fall.Down)
	require.NoError(t, err)
	seen := map[[3]float64]bool{}
	for _, p := range d.Pieces {
		seen[p.Points[len(p.Points)-1]] = true
	}
	assert.Len(t, seen, len(d.Pieces))
}

// No head carries thousands of pieces; a plan that does is still hung in good time, a bundle
// at each place, and every piece is counted.
func TestFarTooManyPiecesHangInBundles(t *testing.T) {
	in := worn(24*25.4, 4, 1650)
	for _, w := range []*parting.Wish{&in.Parting.Front, &in.Parting.Back} {
		w.Width, w.Height = 8, 8
	}
	in.Uses[0].Count = plan.MaxCount
	res, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	require.Greater(t, res.Tally.Pieces, 4000, "more than are hung one by one")
	d, err := hang.Of(t.Context(), plantest.Solve(t, in), fall.Down)
	require.NoError(t, err)
	assert.Len(t, d.Pieces, len(res.Places))
	l, err := hang.Land(t.Context(), plantest.Solve(t, in))
	require.NoError(t, err)
	total := 0
	for _, r := range l.Rows {
		total += r.Pieces
	}
	assert.Equal(t, res.Tally.Pieces, total)
}

// Places 300 and more, of every structure: what a facet of them costs.
func BenchmarkFacets(b *testing.B) {
	in := worn(24*25.4, 6, 1650)
	for _, w := range []*parting.Wish{&in.Parting.Front, &in.Parting.Back} {
		w.Width, w.Height = 14.6, 14.6
	}
	res, err := tally.Compute(b.Context(), in)
	require.NoError(b, err)
	name := func(s string) string { return fmt.Sprintf("%s of %d places", s, len(res.Places)) }
	b.Run(name("drape"), func(b *testing.B) {
		for b.Loop() {
			_, _ = hang.Of(b.Context(), plantest.Solve(b, in), fall.Down)
		}
	})
	b.Run(name("landing"), func(b *testing.B) {
		for b.Loop() {
			_, _ = hang.Land(b.Context(), plantest.Solve(b, in))
		}
	})
	b.Run(name("fit"), func(b *testing.B) {
		for b.Loop() {
			_, _ = judge.Fit(b.Context(), plantest.Solve(b, in), nil, nil)
		}
	})
}
