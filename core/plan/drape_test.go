package plan

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/fall"
	"kladotex/core/hair"
	"kladotex/core/parting"
	"kladotex/core/scalp"
)

// worn is the plan with pieces of a length and thickness, on a wearer of a stature.
func worn(mm, thick, stature float64) Input {
	in := withPiece(Default(), func(p *hair.Piece) { p.Length, p.Thickness = mm, thick })
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
		plan := worn(c.mm, 8, c.stature)
		plan.Parting = plan.Parting.On(c.structure)
		l, err := LandingsOf(t.Context(), plan)
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
		res, err := Compute(t.Context(), plan)
		require.NoError(t, err)
		assert.Equal(t, res.Tally.Pieces, total, "every piece lands in a row")
	}
}

// The length that is said to reach a line does: half of the ends come down to it.
func TestTheLengthForALineReachesIt(t *testing.T) {
	in := worn(400, 9, 1650)
	before, err := LandingsOf(t.Context(), in)
	require.NoError(t, err)
	for _, line := range before.Lines {
		if line.Key == "chin" {
			continue // above it some ends lie on the head
		}
		after, err := LandingsOf(t.Context(), worn(line.Half, 9, 1650))
		require.NoError(t, err)
		assert.InDelta(t, line.Share, after.All.Middle, 0.012, line.Name)
		assert.LessOrEqual(t, line.First, line.Half)
		assert.LessOrEqual(t, line.Half, line.All)
	}
	// A tall wearer takes longer pieces.
	tall, err := LandingsOf(t.Context(), worn(400, 9, 1850))
	require.NoError(t, err)
	assert.Greater(t, tall.Lines[4].Half, before.Lines[4].Half)
	// Curl springs up: as much hair of it hangs shorter.
	curly := withPiece(worn(400, 9, 1650), func(p *hair.Piece) { p.Form = hair.CurlyBulk })
	sprung, err := LandingsOf(t.Context(), curly)
	require.NoError(t, err)
	assert.Greater(t, sprung.All.Middle, before.All.Middle)
}

// Every row is cut to its guide: ends of a blunt line lie on it within two centimetres and a
// half, layers rise from row to row behind, and what does not come down is said.
func TestCutLists(t *testing.T) {
	in := worn(24*25.4, 9, 67*25.4)
	in.Trim = &Trim{fall.Blunt, "mid-back"}
	l, err := LandingsOf(t.Context(), in)
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
	in.Trim = &Trim{fall.Layers, "waist"}
	l, err = LandingsOf(t.Context(), in)
	require.NoError(t, err)
	assert.Greater(t, l.Rows[len(l.Rows)/2].Lands.Middle, l.Rows[0].Lands.Middle)
	// Pieces too short for the line stay as they are, and the shortfall is said.
	short := worn(12*25.4, 9, 67*25.4)
	short.Trim = &Trim{fall.Blunt, "hip"}
	l, err = LandingsOf(t.Context(), short)
	require.NoError(t, err)
	for _, r := range l.Rows {
		assert.Negative(t, r.Off)
	}
}

// A track that shows is found; filled as proposed it shows no more, and the pieces filled in
// are counted, bought and weighed.
func TestAShowingTrackIsFoundAndFilled(t *testing.T) {
	in := worn(24*25.4, 8, 67*25.4)
	in.Parting = in.Parting.On(parting.EarToEar)
	before, err := DrapeOf(t.Context(), in, fall.Down)
	require.NoError(t, err)
	require.NotEmpty(t, before.Cover.Shows)
	bare := func(d Drape) (tracks float64) {
		for _, s := range d.Cover.Shows {
			tracks += s.Length + s.Area/20
		}
		return tracks
	}
	filled := in
	for range 3 { // as a person would: what is left is filled once more
		d, err := DrapeOf(t.Context(), filled, fall.Down)
		require.NoError(t, err)
		for _, s := range d.Cover.Shows {
			filled.Fill.At = append(filled.Fill.At, s.Fill...)
		}
	}
	after, err := DrapeOf(t.Context(), filled, fall.Down)
	require.NoError(t, err)
	assert.Less(t, bare(after), 0.25*bare(before), "%v", after.Cover.Shows)
	assert.Less(t, after.Cover.Bare, before.Cover.Bare)

	a, err := Compute(t.Context(), in)
	require.NoError(t, err)
	b, err := Compute(t.Context(), filled)
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
	down, err := DrapeOf(t.Context(), in, fall.Down)
	require.NoError(t, err)
	tied, err := DrapeOf(t.Context(), in, fall.Tied)
	require.NoError(t, err)
	length := func(d Drape) (mm float64) {
		for _, s := range d.Cover.Shows {
			mm += s.Length
		}
		return mm
	}
	assert.Greater(t, length(tied), length(down))
	for _, s := range tied.Cover.Shows {
		assert.Empty(t, s.Fill, "filling does not hide what is tied away from")
	}
	thick, err := DrapeOf(t.Context(), worn(24*25.4, 12, 1650), fall.Down)
	require.NoError(t, err)
	thin, err := DrapeOf(t.Context(), worn(24*25.4, 6, 1650), fall.Down)
	require.NoError(t, err)
	assert.Greater(t, thick.Shoulder.Layers, thin.Shoulder.Layers)
	assert.NotEmpty(t, thick.Outline)
	// Three at each place hang beside one another, not in one another.
	three := in
	three.Uses[0].Count = 3
	d, err := DrapeOf(t.Context(), three, fall.Down)
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
	in.Uses[0].Count = MaxCount
	res, err := Compute(t.Context(), in)
	require.NoError(t, err)
	require.Greater(t, res.Tally.Pieces, mostHung)
	d, err := DrapeOf(t.Context(), in, fall.Down)
	require.NoError(t, err)
	assert.Len(t, d.Pieces, len(res.Places))
	l, err := LandingsOf(t.Context(), in)
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
	res, err := Compute(b.Context(), in)
	require.NoError(b, err)
	name := func(s string) string { return fmt.Sprintf("%s of %d places", s, len(res.Places)) }
	b.Run(name("drape"), func(b *testing.B) {
		for b.Loop() {
			_, _ = DrapeOf(b.Context(), in, fall.Down)
		}
	})
	b.Run(name("landing"), func(b *testing.B) {
		for b.Loop() {
			_, _ = LandingsOf(b.Context(), in)
		}
	})
	b.Run(name("fit"), func(b *testing.B) {
		for b.Loop() {
			_, _ = FitOf(b.Context(), in, nil, nil)
		}
	})
}

// Places along a line stand at even steps.
func TestPlacesAlongALine(t *testing.T) {
	at := along(scalp.Line{{0}, {12}, {12, 20, 0}}, 5)
	require.Len(t, at, 6)
	for i := 1; i < len(at); i++ {
		assert.LessOrEqual(t, r3.Norm(r3.Sub(at[i], at[i-1])), 5.0+1e-9)
	}
	assert.Equal(t, r3.Vec{X: 2.5}, at[0])
}
