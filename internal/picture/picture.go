package picture

import (
	"fmt"
	"math"
	"strings"

	"kladotex/core/tally"
)

// Small is a small SVG of the parted head, seen from behind and above on the
// left, where both halves of the parting show.
func Small(res tally.Result) []byte {
	return svg(Scene(res, CameraAt(res.Head.Axes, 148*math.Pi/180, 26*math.Pi/180)), "-114 -116 228 228", "Parted head")
}

// View is an SVG of the parted head seen from a longitude, from the face towards
// the client's left, and a latitude, radians. Its unit is 1 mm.
func View(res tally.Result, lon, lat float64) []byte {
	return svg(Scene(res, CameraAt(res.Head.Axes, lon, lat)), "-150 -135 300 300", "Parted head")
}

func svg(shapes []Shape, box, name string) []byte {
	var b strings.Builder
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="%s" role="img" aria-label="%s" stroke-linejoin="round">`, box, name)
	for _, s := range shapes {
		fmt.Fprintf(&b, `<path fill="%s"`, s.Fill.hex())
		if s.Width > 0 {
			fmt.Fprintf(&b, ` stroke="%s" stroke-width="%.1f"`, s.Edge.hex(), s.Width)
		}
		b.WriteString(` d="`)
		for i, p := range s.Outline {
			letter := byte('L')
			if i == 0 {
				letter = 'M'
			}
			fmt.Fprintf(&b, "%c%.1f %.1f", letter, p.X, p.Y)
		}
		b.WriteString(`Z"/>`)
	}
	b.WriteString(`</svg>`)
	return []byte(b.String())
}

func (t Tone) hex() string { return fmt.Sprintf("#%02x%02x%02x", t[0], t[1], t[2]) }
