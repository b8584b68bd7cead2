package wear

import (
	"fmt"
	"math"

	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/words"
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

// Growth is what own hair was measured to have grown, in days over which it was.
type Growth struct {
	Grown float64 // mm
	Days  int
	heads int
}

// Plus is growth with that over one more head added: from its longest own hair before it to that when it
// was undone, mm. What cannot be growth is left out: a trim, or a length misread.
func (g Growth) Plus(before, after float64, days int) Growth {
	grown := after - before
	if before <= 0 || after <= 0 || days < craft.GrowthLeastDays || grown <= 0 || grown > craft.GrowthMost*float64(days) {
		return g
	}
	return Growth{g.Grown + grown, g.Days + days, g.heads + 1}
}

// byTexture is the growth of hair of a texture.
func (b *Brief) byTexture() rate {
	if r, known := growth[b.Texture]; known {
		return r
	}
	return coily
}

// rate is how the hair of this head grows: as it was measured, or else as its texture does.
func (b *Brief) rate() rate {
	if b.Own.Days == 0 {
		return b.byTexture()
	}
	days := float64(b.Own.Days)
	misread := craft.GrowthMisread * math.Sqrt(2*float64(b.Own.heads)) / days
	return rate{b.Own.Grown / days, max(misread, b.byTexture().spread/3)}
}

// GrownIn is what grows in days, mm, and how far one standard deviation lies from it.
func (b *Brief) GrownIn(days int) (likely, spread float64) {
	r := b.rate()
	return r.mean * float64(days), r.spread * float64(days)
}

// mostGrown is what may have grown in days, mm, of fast hair: whatever was measured, no less than of
// hair of this texture.
func (b *Brief) mostGrown(days int) float64 {
	texture, own := b.byTexture(), b.rate()
	return max(texture.mean+2*texture.spread, own.mean+2*own.spread) * float64(days)
}

// GrowsBy says what the growth of this head is taken from.
func (b *Brief) GrowsBy() string {
	if b.Own.Days == 0 {
		return "As hair of this texture grows; lengths measured at the taking down make it your own."
	}
	return fmt.Sprintf("As it was measured on this head before: over %s of wear.", words.Count((b.Own.Days+3)/7, "week"))
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
