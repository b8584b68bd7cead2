package picture

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"kladotex/core/method/figure"
)

// Figure is a drawn move as an SVG. Words say what it shows, for those who do not see it.
func Figure(d figure.Drawing, words string) []byte {
	var b strings.Builder
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %g %g" role="img" stroke-linecap="round" stroke-linejoin="round"><title>%s</title>`, figure.Width, figure.Height, escaped.Replace(words))
	if l := d.Lens; l != nil {
		fmt.Fprintf(&b, `<defs><clipPath id="lens"><circle cx="%g" cy="%g" r="%g"/></clipPath></defs><g id="behind">`, l.To.X, l.To.Y, l.Radius)
		paths(&b, d.Stage)
		paths(&b, d.Strands)
		b.WriteString(`</g>`)
		paths(&b, d.Glass)
		fmt.Fprintf(&b, `<g clip-path="url(#lens)"><use href="#behind" transform="%s"/></g>`, Enlarged(*l))
	} else {
		paths(&b, d.Stage)
		paths(&b, d.Strands)
	}
	paths(&b, d.Front)
	b.WriteString(`</svg>`)
	return []byte(b.String())
}

var escaped = strings.NewReplacer("&", "&amp;", "<", "&lt;", ">", "&gt;")

// Enlarged is the transform under which a lens shows its surroundings.
func Enlarged(l figure.Lens) string {
	return fmt.Sprintf("translate(%.1f %.1f) scale(%g)", l.To.X-l.At.X*l.Scale, l.To.Y-l.At.Y*l.Scale, l.Scale)
}

func paths(b *strings.Builder, shapes []figure.Shape) {
	for _, s := range shapes {
		fmt.Fprintf(b, `<path d="%s"`, PathData(s))
		if s.Fill != nil {
			fmt.Fprintf(b, ` fill="%s"`, *s.Fill)
		} else {
			fmt.Fprintf(b, ` fill="none" stroke="%s" stroke-width="%g"`, *s.Line, s.Width)
		}
		if s.Holes {
			b.WriteString(` fill-rule="evenodd"`)
		}
		if s.Opacity < 1 {
			fmt.Fprintf(b, ` opacity="%.2g"`, s.Opacity)
		}
		b.WriteString(`/>`)
	}
}

// PathData writes the paths of a shape in tenths of a unit, each point from the one before,
// as SVG and the canvas of a browser read it.
func PathData(s figure.Shape) string {
	var b strings.Builder
	for _, p := range s.Paths {
		x, y, letter := 0, 0, "l" // named once
		for i, q := range p {
			nx, ny := int(math.Round(q.X*10)), int(math.Round(q.Y*10))
			switch {
			case i == 0:
				b.WriteString("M" + tenths(nx) + " " + tenths(ny))
			case nx == x && ny == y:
				continue
			default:
				if letter == "" && nx-x >= 0 {
					letter = " "
				}
				b.WriteString(letter + tenths(nx-x))
				letter = ""
				if ny-y >= 0 {
					b.WriteByte(' ')
				}
				b.WriteString(tenths(ny - y))
			}
			x, y = nx, ny
		}
		if s.Fill != nil {
			b.WriteByte('z')
		}
	}
	return b.String()
}

// tenths writes a number of tenths, without the zero before the point.
func tenths(v int) string {
	sign := ""
	if v < 0 {
		sign, v = "-", -v
	}
	whole, rest := v/10, v%10
	switch {
	case rest == 0:
		return sign + strconv.Itoa(whole)
	case whole == 0:
		return sign + "." + strconv.Itoa(rest)
	}
	return sign + strconv.Itoa(whole) + "." + strconv.Itoa(rest)
}
