package supply

import (
	"math"

	"gonum.org/v1/gonum/stat/distuv"

	"kladotex/core/craft"
)

// Spares are bought above the count.
type Spares struct {
	Percent float64 `json:"percent" doc:"Spares as a percentage of the count"`
	Least   int     `json:"least" doc:"Spares at least"`
	// Amount is one of the three amounts in place of a percentage.
	Amount AmountName `json:"amount,omitempty" enum:"least,likely,safe," doc:"One of the three amounts in place of a percentage"`
	// Spoilt is the share of pieces that the studio spoils, once it has logged enough of them.
	Spoilt float64 `json:"spoiltShare,omitempty" doc:"Share of pieces that is spoilt; left out for the usual one"`
}

// AmountName names one of the three amounts.
type AmountName string

// The amounts.
const (
	LeastAmount  AmountName = "least"
	LikelyAmount AmountName = "likely"
	SafeAmount   AmountName = "safe"
)

// AmountNames are all of them.
var AmountNames = []AmountName{LeastAmount, LikelyAmount, SafeAmount}

// Odds are those the spares are meant for.
func (s Spares) Odds() Odds {
	o := Rate(0, 0)
	if s.Spoilt > 0 {
		o.Spoilt = s.Spoilt
	}
	return o
}

// From is the number of spares for n pieces whose three amounts are a.
func (s Spares) From(n int, a Amounts) int {
	switch s.Amount {
	case LeastAmount:
		return 0
	case LikelyAmount:
		return a.Likely - n
	case SafeAmount:
		return a.Safe - n
	}
	return s.Of(n)
}

// Of is the number of spares for n pieces by the percentage.
func (s Spares) Of(n int) int {
	// The last digits of a percentage are rounding, not a further piece.
	return max(s.Least, int(math.Ceil(float64(n)*s.Percent/100-1e-9)))
}

// Odds are the chances that a piece is lost before it hangs.
type Odds struct {
	// Spoilt is the chance that a piece is torn, tangled or dropped.
	Spoilt float64 `json:"spoilt"`
	// Short is the chance that a pack holds one piece less than its label says; 0 for packs
	// that were counted on arrival.
	Short float64 `json:"short"`
}

// logged is how many pieces a studio must have logged before its own rate holds.
const logged = 200

// Rate are a studio's odds after used pieces used and spoilt pieces spoilt: the usual ones until
// 200 are logged.
func Rate(used, spoilt int) Odds {
	o := Odds{craft.Spoilt, craft.ShortPacks}
	if n := used + spoilt; n >= logged {
		o.Spoilt = float64(spoilt) / float64(n)
	}
	return o
}

// Enough is the chance that n pieces out of packs of yield are enough for need good ones. Every
// pack may be short of one strand, which yields perStrand pieces; a piece is spoilt by itself.
func (o Odds) Enough(n, need, yield, perStrand int) float64 {
	if n < need {
		return 0
	}
	packs := (n + yield - 1) / yield
	sum := 0.0
	for k := 0; k <= packs; k++ {
		have := n - k*perStrand
		if have < need {
			break
		}
		// Spoilt ones may be as many as there are above the need.
		sum += exactly(k, packs, o.Short) * atMost(have-need, have, o.Spoilt)
	}
	return sum
}

// exactly is the chance of k in n of a thing with the chance p, atMost that of no more than k. The
// library knows no certain things.
func exactly(k, n int, p float64) float64 {
	if p == 0 {
		if k == 0 {
			return 1
		}
		return 0
	}
	return distuv.Binomial{N: float64(n), P: p}.Prob(float64(k))
}

func atMost(k, n int, p float64) float64 {
	if p == 0 {
		return 1
	}
	return distuv.Binomial{N: float64(n), P: p}.CDF(float64(k))
}

// Amounts are how many pieces to have for a need.
type Amounts struct {
	Least  int `json:"least" doc:"If nothing is lost"`
	Likely int `json:"likely" doc:"Enough in half of all installs"`
	Safe   int `json:"safe" doc:"Enough in 95 of 100 installs"`
}

// SafeShare is the share of installs in which the safe amount is enough.
const SafeShare = 0.95

// Amounts are the three amounts for a need of pieces out of packs of yield.
func (o Odds) Amounts(need, yield, perStrand int) Amounts {
	atLeast := func(from int, share float64) int {
		for need > 0 && o.Enough(from, need, yield, perStrand) < share {
			from++
		}
		return from
	}
	likely := atLeast(need, 0.5)
	return Amounts{need, likely, atLeast(likely, SafeShare)}
}
