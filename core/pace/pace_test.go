package pace

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/attach"
	"kladotex/core/pieces"
)

const inch = 25.4

// estimate is n sections of one piece each by a method on own hair of a length.
func estimate(t *testing.T, id attach.ID, form pieces.Form, n int, hair, pitch float64, own bool) Hours {
	t.Helper()
	m, ok := attach.Lookup(id)
	require.True(t, ok)
	plait := hair * pieces.BraidTakeUp
	w := m.For(attach.Job{
		PlaitLength: plait, PlaitDiameter: 4, PieceForm: form, PieceLength: 14 * inch, PieceDiameter: 8,
		Pitch: pitch, Ribbon: 6, WrapTail: 2.5 * inch,
	})
	return Estimate(Work{Sections: n, Pieces: n, PlaitLength: plait, Attach: w.Attach, Conceal: w.Conceal, OwnHead: own})
}

// Common practice, no source: 55 locs plaited and wrapped take five
// to six hours, getting ready and finishing apart.
func TestFiftyFiveWrappedLocs(t *testing.T) {
	hours := 0.0
	for _, s := range estimate(t, attach.CollarAndWrap, pieces.Loc, 55, 8*inch, 50, false).Stages {
		switch s.Name {
		case "Part and plait", "Attach", "Hide the plaits":
			hours += s.Minutes.Likely / 60
		}
	}
	assert.True(t, hours >= 5 && hours <= 6, "%.1f h", hours)
}

// Common practice, no source: 150 short twists woven one by one on
// one's own head take ten to fourteen hours.
func TestHundredAndFiftyTwistsOnOnesOwnHead(t *testing.T) {
	h := estimate(t, attach.HitchAndWeave, pieces.Twist, 150, 6*inch, 2*inch, true)
	hours := h.Total.Likely / 60
	assert.True(t, hours >= 10 && hours <= 14, "%.1f h", hours)
}

// Common practice, no source: one's own head takes 1.2 to 1.3 times
// as long as a client's.
func TestOwnHeadTakesLonger(t *testing.T) {
	client := estimate(t, attach.HitchAndWeave, pieces.Twist, 100, 6*inch, 2*inch, false).Total.Likely
	own := estimate(t, attach.HitchAndWeave, pieces.Twist, 100, 6*inch, 2*inch, true).Total.Likely
	assert.True(t, own/client >= 1.2 && own/client <= 1.3, "factor %v", own/client)
}

func TestStagesSumToTheTotal(t *testing.T) {
	h := estimate(t, attach.FoldAndTwist, pieces.Bulk, 80, 7*inch, 50, false)
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
	plaits := estimate(t, attach.HitchAndWeave, pieces.Twist, 100, 6*inch, 2*inch, false)
	few := estimate(t, attach.HitchAndWeave, pieces.Twist, 12, 6*inch, 2*inch, false)
	m, _ := attach.Lookup(attach.HitchAndWeave)
	w := m.For(attach.Job{PlaitLength: 6 * inch * pieces.BraidTakeUp, PlaitDiameter: 4, PieceForm: pieces.Twist, PieceLength: 14 * inch, PieceDiameter: 8, Pitch: 2 * inch, Ribbon: 6, WrapTail: 2.5 * inch})
	tracks := Estimate(Work{
		Sections: 12, Pieces: 12, PlaitLength: 6 * inch * pieces.BraidTakeUp, Attach: w.Attach, Conceal: w.Conceal,
		Tracks: 10, TrackLength: 10 * 200, Tails: 10, Hooked: 100,
	})
	assert.Less(t, tracks.Total.Likely, 0.6*plaits.Total.Likely)
	assert.Greater(t, tracks.Total.Likely, few.Total.Likely)
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
