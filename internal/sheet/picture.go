// Package sheet writes plans down for people: pictures now.
package sheet

import (
	"fmt"
	"math"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/plan"
	"kladotex/core/scalp"
)

// Tones of a small picture. Skin and hair are those a new plan is drawn with.
const (
	skinTone  = "#a9744f"
	neckTone  = "#94623f"
	scalpTone = "#d3a27c"
)

// hairDark and hairLight are the hair turned away from and towards the light.
var hairDark, hairLight = [3]float64{34, 24, 20}, [3]float64{104, 76, 58}

// camera is an orthographic view of a head.
type camera struct {
	axes                r3.Vec
	toViewer, right, up r3.Vec
	// rim separates what faces the viewer: a surface point p, divided by the
	// axes, is in sight when its product with rim is not negative. On an
	// ellipsoid that border is a plane.
	rim r3.Vec
}

// cameraAt looks at the head from a longitude and latitude, radians.
func cameraAt(axes scalp.Point, lon, lat float64) camera {
	c := camera{axes: r3.Vec{X: axes[0], Y: axes[1], Z: axes[2]}, toViewer: scalp.At(lon, lat)}
	c.right = r3.Unit(r3.Cross(r3.Vec{Z: 1}, c.toViewer))
	c.up = r3.Cross(c.toViewer, c.right)
	c.rim = r3.Unit(c.divide(c.toViewer))
	return c
}

func (c camera) divide(p r3.Vec) r3.Vec {
	return r3.Vec{X: p.X / c.axes.X, Y: p.Y / c.axes.Y, Z: p.Z / c.axes.Z}
}

// flat is the place of p on the picture, mm, y down.
func (c camera) flat(p r3.Vec) (x, y float64) {
	return r3.Dot(p, c.right), -r3.Dot(p, c.up)
}

// clip keeps the part of a polygon in sight.
func (c camera) clip(ring []scalp.Point) []r3.Vec {
	var out []r3.Vec
	vec := func(p scalp.Point) r3.Vec { return r3.Vec{X: p[0], Y: p[1], Z: p[2]} }
	prev := vec(ring[len(ring)-1])
	before := r3.Dot(c.divide(prev), c.rim)
	for _, p := range ring {
		cur := vec(p)
		now := r3.Dot(c.divide(cur), c.rim)
		if (before < 0) != (now < 0) {
			f := before / (before - now)
			out = append(out, r3.Add(r3.Scale(1-f, prev), r3.Scale(f, cur)))
		}
		if now >= 0 {
			out = append(out, cur)
		}
		prev, before = cur, now
	}
	return out
}

// path writes a closed path of the polygon.
func (c camera) path(ring []r3.Vec) string {
	var b strings.Builder
	for i, p := range ring {
		x, y := c.flat(p)
		letter := byte('L')
		if i == 0 {
			letter = 'M'
		}
		fmt.Fprintf(&b, "%c%.1f %.1f", letter, x, y)
	}
	return b.String() + "Z"
}

// outline is the head's rim as the viewer sees it.
func (c camera) outline() []r3.Vec {
	e1 := r3.Unit(r3.Cross(c.rim, r3.Vec{X: 0.3, Y: 0.5, Z: 0.81}))
	e2 := r3.Cross(c.rim, e1)
	ring := make([]r3.Vec, 72)
	for i := range ring {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / float64(len(ring)))
		u := r3.Add(r3.Scale(cos, e1), r3.Scale(sin, e2))
		ring[i] = r3.Vec{X: u.X * c.axes.X, Y: u.Y * c.axes.Y, Z: u.Z * c.axes.Z}
	}
	return ring
}

// Picture is a small SVG of the parted head, seen from behind and above on the
// left, where both halves of the parting show.
func Picture(res plan.Result) []byte {
	c := cameraAt(res.Head.Axes, 148*math.Pi/180, 26*math.Pi/180)
	light := r3.Unit(r3.Add(r3.Scale(0.7, c.toViewer), r3.Add(r3.Scale(0.75, c.up), r3.Scale(-0.35, c.right))))
	var b strings.Builder
	b.WriteString(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="-114 -116 228 228" role="img" aria-label="Parted head">`)
	a := c.axes
	neck := func(x, y, z float64) string {
		px, py := c.flat(r3.Vec{X: x * a.X, Y: y * a.Y, Z: z * a.Z})
		return fmt.Sprintf("%.1f %.1f", px, py)
	}
	fmt.Fprintf(&b, `<path fill="%s" d="M%s L%s L%s L%s Z"/>`, neckTone,
		neck(-0.55, -0.62, -0.5), neck(0.2, 0.62, -0.5), neck(0.1, 0.66, -1.7), neck(-0.6, -0.66, -1.7))
	fmt.Fprintf(&b, `<path fill="%s" d="%s"/>`, skinTone, c.path(c.outline()))
	fmt.Fprintf(&b, `<g stroke="%s" stroke-width="2.6" stroke-linejoin="round">`, scalpTone)
	for _, s := range res.Layout.Sections {
		ring := c.clip(s.Outline)
		if len(ring) < 3 {
			continue
		}
		n := r3.Vec{X: s.Normal[0], Y: s.Normal[1], Z: s.Normal[2]}
		shade := math.Max(0, r3.Dot(n, light))
		tone := func(i int) int { return int(hairDark[i] + shade*(hairLight[i]-hairDark[i])) }
		fmt.Fprintf(&b, `<path fill="#%02x%02x%02x" d="%s"/>`, tone(0), tone(1), tone(2), c.path(ring))
	}
	b.WriteString(`</g><g fill="#1c1411">`)
	for _, s := range res.Layout.Sections {
		p := r3.Vec{X: s.Centroid[0], Y: s.Centroid[1], Z: s.Centroid[2]}
		if r3.Dot(c.divide(p), c.rim) < 0.15 {
			continue
		}
		x, y := c.flat(p)
		fmt.Fprintf(&b, `<circle cx="%.1f" cy="%.1f" r="%.1f"/>`, x, y, math.Sqrt(s.Area)/9)
	}
	b.WriteString(`</g>`)
	top := r3.Vec{X: res.Head.Landmarks.EarTop[0], Y: res.Head.Landmarks.EarTop[1], Z: res.Head.Landmarks.EarTop[2]}
	ear := r3.Add(top, r3.Vec{X: -6, Y: 6, Z: -22})
	x, y := c.flat(ear)
	fmt.Fprintf(&b, `<ellipse cx="%.1f" cy="%.1f" rx="11" ry="27" fill="%s" stroke="%s" stroke-width="1.5" transform="rotate(-8 %.1f %.1f)"/>`, x, y, skinTone, neckTone, x, y)
	b.WriteString(`</svg>`)
	return []byte(b.String())
}
