package pace

import (
	"math"
	"slices"

	"kladotex/core/craft"
)

// Hand is how practised someone is.
type Hand string

// The hands.
const (
	Beginner  Hand = "beginner"
	Used      Hand = "used"
	Practised Hand = "practised"
	Fast      Hand = "fast"
)

// Hands are all of them, the slowest first.
var Hands = []Hand{Beginner, Used, Practised, Fast}

// factors are how much longer each takes than practised hands.
var factors = map[Hand]float64{Beginner: craft.BeginnerFactor, Used: craft.UsedFactor, Practised: 1, Fast: craft.FastFactor}

// Factor is how much longer a hand takes than a practised one.
func (h Hand) Factor() float64 {
	if f, ok := factors[h]; ok {
		return f
	}
	return 1
}

// Worker is who works: how long they take against the rates of this package.
type Worker struct {
	Hand Hand
	// Own is how much longer it takes because it is their own head; 1 on another's.
	Own float64
	// New are skills that they do for the first time.
	New []string
	// Logged is what installs before taught of a skill, and Timed what pieces of this head say.
	Logged map[string]Timed
	Timed  map[string]Timed
}

// Timed is what timed pieces say of a skill.
type Timed struct {
	// Factor is true time ÷ the time of the rates, Spread how far the true one may yet lie
	// from it, a share either way.
	Factor, Spread float64
}

// factor is how much longer the worker takes at a skill once warm, and with what spread.
func (w Worker) factor(skill string) Timed {
	if t, ok := w.Timed[skill]; ok {
		return t
	}
	return w.before(skill)
}

// before is what is expected of a skill before anything of it was timed on this head.
func (w Worker) before(skill string) Timed {
	if t, ok := w.Logged[skill]; ok {
		return t
	}
	return Timed{w.Guess(), craft.Unlogged}
}

// Guess is how much longer the worker takes at what was never timed and never logged.
func (w Worker) Guess() float64 {
	if w.Own == 0 {
		return w.Hand.Factor()
	}
	return w.Hand.Factor() * w.Own
}

// WarmUp is how much longer the k-th piece of a new method takes, from 0.
func WarmUp(k int) float64 { return 1 + craft.WarmUp*math.Exp(-float64(k)/craft.WarmPieces) }

// Tired is how much longer work takes when it begins after minutes of work in one sitting.
func Tired(minutes float64) float64 {
	return 1 + min(craft.MostTired, craft.TiredRate*max(0, minutes-craft.TiredAfter))
}

// Time corrects the guess of a worker by pieces that were timed: their minutes in the order they
// were made, against the rate of practised hands for the same. One piece weighs as much as what
// was expected, each later one more than the one before: the first ones are the least sure of hand.
func (w Worker) Time(skill string, minutes []float64, rate float64) Timed {
	before := w.before(skill)
	sum, weights := before.Factor, 1.0
	for k, took := range minutes {
		f := took / rate
		if slices.Contains(w.New, skill) {
			f /= WarmUp(k)
		}
		weight := float64(k + 1)
		sum, weights = sum+weight*f, weights+weight
	}
	return Timed{sum / weights, max(craft.LeastSpread, before.Spread/math.Sqrt(weights))}
}

// Run is a worker at work, who remembers how many pieces of a new method are done.
type Run struct {
	worker Worker
	done   map[string]int
}

// Begin is the worker before the first piece.
func (w Worker) Begin() *Run { return &Run{worker: w, done: map[string]int{}} }

// Range is what the next task takes, rested.
func (r *Run) Range(t Task) Range {
	f := r.worker.factor(t.Skill)
	minutes := t.Minutes * f.Factor
	if slices.Contains(r.worker.New, t.Skill) {
		minutes *= WarmUp(r.done[t.Skill])
		if t.Piece {
			r.done[t.Skill]++
		}
	}
	return Range{minutes * (1 - f.Spread), minutes, minutes * (1 + f.Spread)}
}
