package knot

import (
	"slices"
	"strconv"
	"strings"
)

// Laurent is a Laurent polynomial in A with whole coefficients: the power of A to each of them. It has no
// zero entries, so the polynomial 0 is empty.
type Laurent map[int]int64

// plus adds c·A^shift·q to p.
func (p Laurent) plus(q Laurent, c int64, shift int) {
	for power, k := range q {
		at := power + shift
		if p[at] += c * k; p[at] == 0 {
			delete(p, at)
		}
	}
}

// round is p times the value of a ring that crosses nothing, -A² - A⁻².
func (p Laurent) round() Laurent {
	out := Laurent{}
	out.plus(p, -1, 2)
	out.plus(p, -1, -2)
	return out
}

// Steps are the coefficients of p from its lowest power to its highest, four powers apart, the first of them
// positive: p up to ±Aⁿ. It is empty for 0.
func (p Laurent) Steps() []int64 {
	if len(p) == 0 {
		return nil
	}
	powers := make([]int, 0, len(p))
	for power := range p {
		powers = append(powers, power)
	}
	low, high := slices.Min(powers), slices.Max(powers)
	out := make([]int64, 0, (high-low)/4+1)
	sign := int64(1)
	if p[low] < 0 {
		sign = -1
	}
	for power := low; power <= high; power += 4 {
		out = append(out, sign*p[power])
	}
	return out
}

// String writes the steps one after the other, "0" where there are none.
func (p Laurent) String() string {
	steps := p.Steps()
	if len(steps) == 0 {
		return "0"
	}
	words := make([]string, len(steps))
	for i, c := range steps {
		words[i] = strconv.FormatInt(c, 10)
	}
	return strings.Join(words, " ")
}
