package pace

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"kladotex/core/craft"
)

func anyTasks(t *rapid.T) []Task {
	return rapid.SliceOfN(rapid.Custom(func(t *rapid.T) Task {
		kind := rapid.SampledFrom(kinds).Draw(t, "kind").kind
		return Task{Kind: kind, Skill: rapid.SampledFrom([]string{"a", "b", string(kind)}).Draw(t, "skill"), Minutes: rapid.Float64Range(0.1, 30).Draw(t, "minutes"), Piece: rapid.Bool().Draw(t, "piece")}
	}), 1, 60).Draw(t, "tasks")
}

func anyWorker(t *rapid.T) Worker {
	w := Worker{Hand: rapid.SampledFrom(Hands).Draw(t, "hand"), Own: rapid.Float64Range(1, 1.5).Draw(t, "own")}
	if rapid.Bool().Draw(t, "new") {
		w.New = []string{"a"}
	}
	return w
}

// Stages sum to the total, and every likely time lies inside its range.
func TestStagesSumToTheTotal(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		h := Estimate(anyTasks(t), anyWorker(t))
		var sum Range
		for _, s := range h.Stages {
			assert.Less(t, s.Minutes.Low, s.Minutes.Likely, s.Name)
			assert.Less(t, s.Minutes.Likely, s.Minutes.High, s.Name)
			sum = sum.Plus(s.Minutes)
		}
		assert.InDelta(t, h.Total.Likely, sum.Likely, 1e-6)
		assert.InDelta(t, h.Total.High, h.Of(append(append([]Kind{Settle, Finish}, Attaching...), Basing...)...).High, 1e-6)
	})
}

// Common practice, no source: own head takes 1.2 to 1.3 times as long as a client's.
func TestTheOwnHeadTakesLonger(t *testing.T) {
	tasks := []Task{{Kind: Plaits, Skill: "plaits", Minutes: 100}}
	client, own := Estimate(tasks, Worker{Hand: Practised, Own: 1}), Estimate(tasks, Worker{Hand: Practised, Own: craft.OwnHead})
	factor := own.Total.Likely / client.Total.Likely
	assert.True(t, factor >= 1.2 && factor <= 1.3, "%v", factor)
	for i, h := range Hands[1:] {
		assert.Less(t, h.Factor(), Hands[i].Factor(), "%s is quicker than %s", h, Hands[i])
	}
}

// Common practice, no source: the first few of a new method are slow, then there is a rhythm.
// Whatever the number, newness costs no more than what six more pieces would.
func TestNewMethodsWarmUp(t *testing.T) {
	took := func(n int, fresh bool) float64 {
		w := Worker{Hand: Practised, Own: 1}
		if fresh {
			w.New = []string{"m"}
		}
		tasks := make([]Task, n)
		for i := range tasks {
			tasks[i] = Task{Kind: Attach, Skill: "m", Minutes: 3, Piece: true}
		}
		return Estimate(tasks, w).Total.Likely
	}
	assert.Greater(t, took(1, true), 2*took(1, false))
	for _, n := range []int{5, 20, 150} {
		more := took(n, true) - took(n, false)
		assert.True(t, more > 3*3 && more < 6*3, "%d pieces: %v min more", n, more)
	}
	assert.InDelta(t, 1, WarmUp(40), 1e-3)
}

// Attaching and hiding are one piece of a method, not two.
func TestAPieceIsCountedOnce(t *testing.T) {
	w := Worker{Hand: Practised, New: []string{"m"}}
	run := w.Begin()
	for k := range 3 {
		for _, task := range []Task{{Attach, "m", 1, false}, {Conceal, "m", 2, true}} {
			assert.InDelta(t, task.Minutes*WarmUp(k), run.Range(task).Likely, 1e-12)
		}
	}
}

// One timed piece weighs as the guess, and pieces that all take the same bring the guess there
// and make it surer; the true pace is found however far off the guess was.
func TestTimedPiecesCorrectTheGuess(t *testing.T) {
	w := Worker{Hand: Practised, Own: 1}
	one := w.Time("m", []float64{6}, 3)
	assert.InDelta(t, (1+2)/2.0, one.Factor, 1e-12)
	rapid.Check(t, func(t *rapid.T) {
		w := anyWorker(t)
		truth := rapid.Float64Range(0.4, 4).Draw(t, "pace")
		rate := rapid.Float64Range(0.5, 12).Draw(t, "rate")
		last := Timed{w.Guess(), craft.Unlogged}
		var minutes []float64
		for k := range 5 {
			m := rate * truth
			if len(w.New) > 0 {
				m *= WarmUp(k)
			}
			minutes = append(minutes, m)
			now := w.Time("a", minutes, rate)
			assert.LessOrEqual(t, math.Abs(now.Factor-truth), math.Abs(last.Factor-truth)+1e-9)
			assert.LessOrEqual(t, now.Spread, last.Spread)
			last = now
		}
		assert.LessOrEqual(t, math.Abs(last.Factor-truth), math.Abs(w.Guess()-truth)/10)
	})
}

// Nobody is tired in the first four hours; after six an hour's work takes a fifth more.
func TestTired(t *testing.T) {
	assert.Equal(t, 1.0, Tired(240))
	assert.InDelta(t, 1.2, Tired(360), 1e-12)
}
