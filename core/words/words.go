// Package words writes counts, lists, times and masses as people say them, so that a screen,
// a paper and a message say one thing alike. Lengths are written by package invalid.
package words

import (
	"fmt"
	"math"
	"strings"
)

// List joins words with commas; none of them are "none".
func List(parts []string) string {
	if len(parts) == 0 {
		return "none"
	}
	return strings.Join(parts, ", ")
}

// Count returns a number and what is counted, such as "1 pack" or "3 packs". The plural of
// thing is formed with an s.
func Count(n int, thing string) string {
	if n == 1 {
		return "1 " + thing
	}
	return fmt.Sprintf("%d %ss", n, thing)
}

// Minutes spells a time out, such as "45 min", "2 h" or "1 h 35 min": to five minutes from an hour on.
func Minutes(minutes float64) string {
	m := int(math.Round(minutes))
	if m < 60 {
		return fmt.Sprintf("%d min", m)
	}
	return Clock(5 * int(math.Round(float64(m)/5)))
}

// Clock spells whole minutes out as they are.
func Clock(m int) string {
	switch {
	case m < 60:
		return fmt.Sprintf("%d min", m)
	case m%60 == 0:
		return fmt.Sprintf("%d h", m/60)
	}
	return fmt.Sprintf("%d h %d min", m/60, m%60)
}

// Grams writes a mass in g and in ounces, small ones more finely.
func Grams(g float64) string {
	const ounce = 28.3495
	if g < 20 {
		return fmt.Sprintf("%.1f g (%.2f oz)", g, g/ounce)
	}
	return fmt.Sprintf("%.0f g (%.1f oz)", g, g/ounce)
}

// Sentence returns text with a capital first letter.
func Sentence(text string) string { return strings.ToUpper(text[:1]) + text[1:] }
