package plait

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
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
