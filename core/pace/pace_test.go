package pace

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/plait"
)

const inch = 25.4

// load is n sections of one piece each by a method on own hair of a length.
func load(t *testing.T, id method.ID, n int, length float64) Work {
	t.Helper()
	m, ok := method.Lookup(id)
	require.True(t, ok)
	p := plait.Usual().Of(645, length, 1.9, 0.075)
	w := m.For(method.Job{
		Ground: method.OnPlait, Plait: p, Piece: hair.Piece{Form: m.Takes[0], Length: 14 * inch, Thickness: 8},
		Settings: m.Usual(), Wrapping: &hair.Wrapping{StrandLength: 610},
	})
	return Work{
		Sections: n, Pieces: n, Braided: float64(n) * p.Braided, Twisted: float64(n) * p.Twisted,
		Attach: float64(n) * w.Attach, Conceal: float64(n) * w.Conceal,
	}
}

// Common practice, no source: 55 locs plaited and wrapped take five
// to six hours, getting ready and finishing apart.
func TestFiftyFiveWrappedLocs(t *testing.T) {
	hours := 0.0
	for _, s := range Estimate(load(t, method.CollarAndWrap, 55, 8*inch)).Stages {
		switch s.Name {
		case "Part and plait", "Attach", "Hide the plaits":
			hours += s.Minutes.Likely / 60
		}
	}
	assert.True(t, hours >= 5 && hours <= 6, "%.1f h", hours)
}

// Common practice, no source: 150 short twists woven one by one on one's own head take
// ten to fourteen hours; one's own head takes 1.2 to 1.3 times as long as a client's.
func TestHundredAndFiftyTwistsOnOnesOwnHead(t *testing.T) {
	w := load(t, method.HitchAndWeave, 150, 6*inch)
	client := Estimate(w).Total.Likely
	w.OwnHead = true
	own := Estimate(w).Total.Likely
	assert.True(t, own/60 >= 10 && own/60 <= 14, "%.1f h", own/60)
	assert.True(t, own/client >= 1.2 && own/client <= 1.3, "factor %v", own/client)
}

// What is twisted with two strands goes faster than what is plaited.
func TestTwistingIsFasterThanPlaiting(t *testing.T) {
	whole := Work{Sections: 60, Braided: 60 * 130}
	half := Work{Sections: 60, Braided: 60 * 65, Twisted: 60 * 70}
	assert.Less(t, Estimate(half).Total.Likely, Estimate(whole).Total.Likely)
}

func TestStagesSumToTheTotal(t *testing.T) {
	h := Estimate(load(t, method.FoldAndTwist, 80, 7*inch))
	var sum Range
	for _, s := range h.Stages {
		assert.Less(t, s.Minutes.Low, s.Minutes.Likely, s.Name)
		assert.Less(t, s.Minutes.Likely, s.Minutes.High, s.Name)
		sum = Range{sum.Low + s.Minutes.Low, sum.Likely + s.Minutes.Likely, sum.High + s.Minutes.High}
	}
	assert.InDelta(t, h.Total.Likely, sum.Likely, 1e-9)
	assert.InDelta(t, h.Total.High, sum.High, 1e-9)
}

// Common practice, no source: hooking on a track takes 10 to 40 seconds a piece, hiding
// a plait 2 to 5 minutes; a dozen individuals and tracks take a fraction of the time.
func TestTracksAreQuick(t *testing.T) {
	plaits := Estimate(load(t, method.HitchAndWeave, 100, 6*inch))
	few := load(t, method.HitchAndWeave, 12, 6*inch)
	m, _ := method.Lookup(method.TrackHitch)
	based := few
	based.Tracks, based.TrackLength, based.Tails = 10, 10*200, 10
	based.Pieces, based.Hook = 112, 100*m.For(method.Job{}).Attach
	tracks := Estimate(based)
	assert.Less(t, tracks.Total.Likely, 0.6*plaits.Total.Likely)
	assert.Greater(t, tracks.Total.Likely, Estimate(few).Total.Likely)
	stages := map[string]float64{}
	for _, s := range tracks.Stages {
		stages[s.Name] = s.Minutes.Likely
	}
	seconds := stages["Hook on"] / 100 * 60
	assert.True(t, seconds >= 10 && seconds <= 40, "%.0f s a piece", seconds)
	perTrack := stages["Tracks"] / 10
	assert.True(t, perTrack >= 3 && perTrack <= 10, "%.1f min for a track of 20 cm", perTrack)
	assert.NotContains(t, stages, "Lay the net")
	// Fewer tails and no net cost less; a net is a stage of its own.
	chained := Estimate(Work{Tracks: 10, TrackLength: 2000, Tails: 1})
	assert.Less(t, chained.Total.Likely, Estimate(Work{Tracks: 10, TrackLength: 2000, Tails: 10}).Total.Likely)
	assert.Len(t, Estimate(Work{Tracks: 1, Net: true}).Stages, len(Estimate(Work{Tracks: 1}).Stages)+1)
}
