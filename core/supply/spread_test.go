package supply

import (
	"fmt"
	"testing"

	"pgregory.net/rapid"

	"kladotex/core/hair"
)

func pack(units int) hair.Pack { return hair.Pack{Units: units, Cuts: 1, Splits: 1} }

// Every kind gets its share, twins are alike, and along a line no kind comes earlier or later
// than its share by more than a few places.
func TestSpreadIsEvenAndAlikeOnBothSides(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		shares := rapid.SliceOfN(rapid.IntRange(1, 5), 2, 4).Draw(t, "shares")
		rows := rapid.IntRange(1, 12).Draw(t, "rows")
		total := 0
		for _, s := range shares {
			total += s
		}
		// Rows on the left, their mirror images on the right, some spots on the middle.
		var spots []Spot
		for r := range rows {
			n := rapid.IntRange(1, 14).Draw(t, "n")
			first := len(spots)
			for k := range 2 * n {
				side := "L"
				if k >= n {
					side = "R"
				}
				spots = append(spots, Spot{Line: fmt.Sprint(side, r), Twin: first + (k+n)%(2*n)})
			}
			if rapid.Bool().Draw(t, "middle") {
				spots = append(spots, Spot{Line: fmt.Sprint("M", r), Twin: len(spots)})
			}
		}
		got := Spread(spots, shares)
		counts := make([]int, len(shares))
		for i, k := range got {
			if k < 0 || k >= len(shares) {
				t.Fatalf("spot %d has kind %d", i, k)
			}
			if got[spots[i].Twin] != k {
				t.Fatalf("spot %d and its twin differ", i)
			}
			counts[k]++
		}
		for k, s := range shares {
			due := float64(len(spots)) * float64(s) / float64(total)
			if off := float64(counts[k]) - due; off > 4 || off < -4 {
				t.Fatalf("kind %d is at %d spots where %.1f are due", k, counts[k], due)
			}
		}
	})
}

// Two to one along a line never sets the rarer one side by side.
func TestTwoToOneNeverStandsSideBySide(t *testing.T) {
	spots := make([]Spot, 60)
	for i := range spots {
		spots[i] = Spot{Line: fmt.Sprint(i / 12), Twin: -1}
	}
	got := Spread(spots, []int{2, 1})
	for i := 1; i < len(got); i++ {
		if got[i] == 1 && got[i-1] == 1 && i%12 != 0 {
			t.Fatalf("the rarer one stands at %d and %d", i-1, i)
		}
	}
}
