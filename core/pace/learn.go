package pace

import (
	"math"

	"kladotex/core/craft"
)

// Logged is what one install took someone at one skill.
type Logged struct {
	// Actual are the minutes it took, Rate those of practised hands on another's head for the
	// same.
	Actual, Rate float64
	// Own is true where it was their own head.
	Own bool
}

// inRange is how many standard deviations either way hold eighty of a hundred times of a normal
// distribution.
const inRange = 1.2816

// Learn is what logged installs say of a skill: how much longer than the rates someone takes at it on
// another's head, who was guessed to have a hand and to take so much longer on their own. The
// factor is (k + Σ actual) ÷ (k + Σ predicted) of the guess, with k of 60 minutes; the spread is
// what holds eighty of a hundred installs, by how far past ones were off.
func Learn(hand Hand, own float64, log []Logged) Timed {
	actual, predicted := craft.GuessWeighs, craft.GuessWeighs
	of := func(l Logged) float64 {
		m := l.Rate * hand.Factor()
		if l.Own {
			m *= own
		}
		return m
	}
	for _, l := range log {
		actual += l.Actual
		predicted += of(l)
	}
	times := actual / predicted
	const first = craft.Unlogged / inRange
	off := craft.GuessInstalls * first * first
	n := craft.GuessInstalls
	for _, l := range log {
		if p := of(l) * times; p > 0 {
			off += (l.Actual/p - 1) * (l.Actual/p - 1)
			n++
		}
	}
	// One more install is off by its own spread and by that of what was learnt.
	sd := math.Sqrt(off / n * (1 + 1/n))
	return Timed{hand.Factor() * times, max(craft.LeastSpread, within(n)*sd)}
}

// within is how many standard deviations either way hold eighty of a hundred where the deviation
// itself is known from n installs: the nine tenths quantile of Student's t, expanded about that of
// the normal distribution (Abramowitz and Stegun 1964, 26.7.5).
func within(n float64) float64 {
	z, z3, z5 := inRange, inRange*inRange*inRange, math.Pow(inRange, 5)
	return z + (z3+z)/(4*n) + (5*z5+16*z3+3*z)/(96*n*n)
}
