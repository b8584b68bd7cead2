package supply

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"kladotex/core/craft"
)

const inch = 25.4

// The ribbon against the length of a helix walked in small steps.
func TestWrapRibbonIsAHelix(t *testing.T) {
	const length, diameter, width, steps = 150.0, 6.0, 5.0, 200000
	assert.InEpsilon(t, walked(length, diameter, width, steps), WrapRibbon(length, diameter, width), 1e-5)
}

// walked is the length of a helix, by small straight steps.
func walked(length, diameter, width float64, steps int) float64 {
	sum, x, y := 0.0, diameter/2, 0.0
	for i := 1; i <= steps; i++ {
		sin, cos := math.Sincos(2 * math.Pi * length / width * float64(i) / float64(steps))
		nx, ny := diameter/2*cos, diameter/2*sin
		sum += math.Sqrt((nx-x)*(nx-x) + (ny-y)*(ny-y) + (length/float64(steps))*(length/float64(steps)))
		x, y = nx, ny
	}
	return sum
}

// Common practice, no source: a bundle of 36 in braids down to about 31 in.
func TestBraidingTakesUp(t *testing.T) {
	assert.InDelta(t, 36, BraidBundle(31*inch)/inch, 0.5)
}

// Common practice, no source: a loc down the back (24 in, as thick as a finger's half) takes about
// 0.15 of a pack of 50 strands.
func TestALocTakesAboutASeventhOfAPack(t *testing.T) {
	m := MakeLoc(24*inch, 10, 24*inch)
	assert.InDelta(t, 0.15, m.Strands/50, 0.03)
	assert.InEpsilon(t, walked(24*inch, 10, craft.MadeTurn, 400000), m.Ribbon, 1e-4)
	assert.Greater(t, m.Base, 24*inch+craft.LoopLength)
}

// Cutting makes no hair: whatever is cut and split, the lengths add up to those of the strands.
func TestCuttingMakesNoHair(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := Cut{
			Open: rapid.Float64Range(200, 2000).Draw(t, "open"), Cuts: rapid.IntRange(1, 10).Draw(t, "cuts"),
			Splits: rapid.IntRange(1, 10).Draw(t, "splits"), Fold: rapid.Bool().Draw(t, "fold"),
		}
		strands := rapid.IntRange(1, 200).Draw(t, "strands")
		hair := float64(c.Units(strands)) / float64(c.Splits) * c.Length()
		if math.Abs(hair-float64(strands)*c.Open) > 1e-6*hair {
			t.Fatalf("%v of hair where there were %v", hair, float64(strands)*c.Open)
		}
		if c.Fold && math.Abs(2*c.Hanging()-c.Length()) > 1e-9 {
			t.Fatal("two legs are the length")
		}
	})
}

// Batches hold every loc once, none is over its time, and none is much smaller than another.
func TestBatchesAreEven(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 300).Draw(t, "n")
		each := rapid.Float64Range(1, 40).Draw(t, "each")
		next, least, most := 1, n, 0
		for _, b := range Batches(n, each, 90) {
			size := b.To - b.From + 1
			if b.From != next || size < 1 {
				t.Fatalf("a batch from %d to %d after %d", b.From, b.To, next-1)
			}
			if size > 1 && b.Minutes > 90+1e-9 {
				t.Fatalf("a batch of %.0f minutes", b.Minutes)
			}
			next, least, most = b.To+1, min(least, size), max(most, size)
		}
		if next != n+1 || most-least > 1 {
			t.Fatalf("%d of %d, from %d to %d in a batch", next-1, n, least, most)
		}
	})
}
