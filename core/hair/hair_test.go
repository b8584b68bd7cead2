package hair

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/invalid"
)

func TestOffersAndSwatchesThatCanNotBeAreRefused(t *testing.T) {
	good := Wrapping{StrandLength: 610, Strands: 60, PackMass: 100, Price: 600, Swatch: "#2f2119", Offers: []Offer{{Packs: 1, Price: 600}, {Packs: 5, Price: 2700, Supplier: "near"}}}
	refused := func(w Wrapping) (paths []string) {
		var bad invalid.Errors
		w.Check(&bad, "wrapping.")
		for _, f := range bad {
			paths = append(paths, f.Path)
		}
		return paths
	}
	require.Empty(t, refused(good))
	assert.Equal(t, good.Offers, good.AsOffers())
	bad := good
	bad.Swatch, bad.Cuts, bad.Offers = "#2F2119", 99, []Offer{{Packs: 0, Price: 600}, {Packs: 1, Price: -1}}
	assert.Equal(t, []string{"wrapping.swatch", "wrapping.cuts", "wrapping.offers[0].packs", "wrapping.offers[1].priceMinor"}, refused(bad))
	bad = good
	bad.Offers = nil
	assert.Equal(t, []Offer{{Packs: 1, Price: 600}}, bad.AsOffers(), "a pack at a time")
}
