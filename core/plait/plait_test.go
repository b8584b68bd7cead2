package plait

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"kladotex/core/craft"
)

// The plait's cross-section is twice that of its hairs laid without air, at half
// packing. Density 190 per cm² after Loussouarn 2001, from memory.
func TestPlaitHoldsAllItsHairs(t *testing.T) {
	const area, density, strand = 25.4 * 25.4, 1.90, 0.075
	d := Diameter(area, density, strand)
	hair := area * density * math.Pi / 4 * strand * strand
	assert.InEpsilon(t, 2*hair, math.Pi/4*d*d, 1e-12)
	// Common practice, no source: the plait of an inch-square section is 3 to
	// 5 mm thick.
	assert.True(t, d > 3 && d < 5, "%v mm", d)
	assert.InEpsilon(t, 2*d, Diameter(4*area, density, strand), 1e-12)
}

// Two turns and two inches are what people plait before they twist the rest: the plait is as long
// as was said, about as many turns of it. Turns: common practice, no source.
func TestAnchorsGoAsFarAsIsSaid(t *testing.T) {
	p := Preparation{Far: Anchor, Anchor: 2 * 25.4}
	made := p.Of(645, 250, 1.9, 0.075)
	assert.InDelta(t, 50.8, made.Braided, 1e-9)
	assert.InDelta(t, 250, made.Braided/craft.BraidTakeUp+made.Twisted/craft.TwistTakeUp, 1e-9, "no hair is lost")
	assert.Equal(t, 7, p.Turns())
	assert.Equal(t, 3, Preparation{Far: Anchor}.Turns())
	assert.Equal(t, 2, Preparation{Far: Anchor, Anchor: 2 * Turn}.Turns())
	assert.InDelta(t, 60*craft.BraidTakeUp, Preparation{Far: Anchor, Anchor: 100}.Of(645, 60, 1.9, 0.075).Braided, 1e-9, "no longer than own hair")
}
