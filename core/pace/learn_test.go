package pace_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"kladotex/core/pace"
)

// stylist is one whose true pace only the test knows.
type stylist struct {
	hand  pace.Hand
	own   float64
	times float64 // against what is guessed of the hand
	off   float64 // how far one install lies from the next, a standard deviation
}

// install is one more of theirs: between half an hour and three hours of practised work.
func (s stylist) install(random *rand.Rand) pace.Logged {
	l := pace.Logged{Rate: 30 + 150*random.Float64(), Own: random.IntN(3) == 0}
	l.Actual = l.Rate * s.hand.Factor() * s.times * math.Exp(s.off*random.NormFloat64())
	if l.Own {
		l.Actual *= s.own
	}
	return l
}

// After five installs the pace of a steady stylist is known within a tenth, whatever was guessed.
func TestPaceIsLearntInFiveInstalls(t *testing.T) {
	random := rand.New(rand.NewPCG(7, 11))
	for range 400 {
		s := stylist{hand: pace.Hands[random.IntN(len(pace.Hands))], own: 1.25, times: 0.7 + 0.9*random.Float64(), off: 0.03}
		var log []pace.Logged
		minutes := 0.0
		for len(log) < 5 || minutes < 300 {
			log = append(log, s.install(random))
			minutes += log[len(log)-1].Rate
		}
		got := pace.Learn(s.hand, s.own, log)
		assert.InEpsilon(t, s.hand.Factor()*s.times, got.Factor, 0.1)
	}
}

// The range holds about eighty of a hundred installs, whether hands are steady or not.
func TestRangesHoldEightyOfAHundred(t *testing.T) {
	random := rand.New(rand.NewPCG(3, 5))
	for _, off := range []float64{0.08, 0.15, 0.25} {
		within, all := 0, 0
		for range 500 {
			s := stylist{hand: pace.Used, own: 1.25, times: 0.8 + 0.5*random.Float64(), off: off}
			var log []pace.Logged
			for range 8 {
				log = append(log, s.install(random))
			}
			got := pace.Learn(s.hand, s.own, log)
			for range 10 {
				next := s.install(random)
				expected := next.Rate * got.Factor
				if next.Own {
					expected *= s.own
				}
				all++
				if math.Abs(next.Actual/expected-1) <= got.Spread {
					within++
				}
			}
		}
		share := float64(within) / float64(all)
		assert.GreaterOrEqual(t, share, 0.75, "installs %.0f %% apart", 100*off)
		assert.LessOrEqual(t, share, 0.93, "installs %.0f %% apart", 100*off)
	}
}

func TestNothingLoggedIsTheGuess(t *testing.T) {
	got := pace.Learn(pace.Beginner, 1.25, nil)
	assert.InDelta(t, pace.Beginner.Factor(), got.Factor, 1e-12)
	w := pace.Worker{Hand: pace.Beginner, Own: 1, Logged: map[string]pace.Timed{"plaits": {Factor: 0.9, Spread: 0.1}}}
	assert.InDelta(t, 9, w.Begin().Range(pace.Task{Kind: pace.Plaits, Skill: "plaits", Minutes: 10}).Likely, 1e-9, "the log is believed before the hand")
	assert.InDelta(t, 14.5, w.Begin().Range(pace.Task{Kind: pace.Plaits, Skill: "other", Minutes: 10}).Likely, 1e-9)
}
