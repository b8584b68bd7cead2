package wear

import (
	"math"

	"kladotex/core/craft"
	"kladotex/core/hair"
)

// rate is growth of hair, mm a day, with its standard deviation.
type rate struct{ mean, spread float64 }

// Growth by texture: what lies between coily and straight is taken to lie between in growth.
var (
	coily    = rate{craft.GrowthCoily, craft.GrowthCoilySpread}
	straight = rate{craft.GrowthStraight, craft.GrowthStraightSpread}
	growth   = map[hair.Texture]rate{
		hair.Coily:    coily,
		hair.Curly:    {(coily.mean + straight.mean) / 2, (coily.spread + straight.spread) / 2},
		hair.Wavy:     straight,
		hair.Straight: straight,
	}
)

// Grown is how much own hair stands between scalp and piece.
type Grown struct {
	Week   int     `json:"week"`
	Least  float64 `json:"leastMm"`
	Likely float64 `json:"likelyMm"`
	Most   float64 `json:"mostMm"`
}

// GrownIn is what grows in days, mm, and how far one standard deviation lies from it.
func (b *Brief) GrownIn(days int) (likely, spread float64) {
	r, known := growth[b.Texture]
	if !known {
		r = coily
	}
	return r.mean * float64(days), r.spread * float64(days)
}

// Growing is what has grown out at the end of every week up to one.
func (b *Brief) Growing(weeks int) []Grown {
	out := make([]Grown, weeks+1)
	for w := range out {
		likely, spread := b.GrownIn(7 * w)
		out[w] = Grown{w, likely - spread, likely, likely + spread}
	}
	return out
}

// Shed is the hair that was ready to fall and was held by the plaits.
type Shed struct {
	Days  int `json:"days"`
	Least int `json:"least" doc:"Hairs"`
	Most  int `json:"most"`
	// Mass of the most of it, g, and the width of the loose ball it makes, mm.
	Mass float64 `json:"massG"`
	Ball float64 `json:"ballMm"`
}

// ShedIn is the hair that comes loose when a head is undone that was plaited up for days: all
// that fell meanwhile, of the share that was taken up. It is no loss of hair.
func (b *Brief) ShedIn(days int) Shed {
	s := Shed{Days: days, Least: int(math.Round(craft.ShedLeast * float64(days) * b.Taken)), Most: int(math.Round(craft.ShedMost * float64(days) * b.Taken))}
	d := b.Strand / 1000
	volume := float64(s.Most) * math.Pi * d * d / 4 * b.Hair
	s.Mass = craft.HairDensity * volume
	s.Ball = 2 * math.Cbrt(3*volume/craft.BallShare/(4*math.Pi))
	return s
}
