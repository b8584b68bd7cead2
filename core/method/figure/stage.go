package figure

import "math"

// backdrops are what lies behind the strands, and the colour of the gap where one strand
// passes over another.
var backdrops = [...]struct {
	draw func() []Shape
	gap  Colour
}{
	Hanging: {hangingStage, paper},
	Lying:   {lyingStage, combed.mix(ink, 0.6)},
}

// combed is hair seen flat, darker than the strands on it.
var combed = tones[Own][0].base.mix(tones[Own][0].dark, 0.45)

var (
	hairDark  = tones[Own][0].dark
	hairLight = tones[Own][0].light
	hairBase  = tones[Own][0].base
)

func page() *canvas {
	cv := &canvas{}
	cv.fill(paper, 1, false, []XY{{0, 0}, {Width, 0}, {Width, Height}, {0, Height}})
	return cv
}

// hangingStage is a strip of scalp with its part lines: the hair of each section is combed
// to its root, and the middle one is the root in use.
func hangingStage() []Shape {
	cv := page()
	edge := func(x float64) float64 { return 50 + 6*math.Sin(x/Width*math.Pi) }
	scalp := []XY{{0, 0}, {Width, 0}}
	for x := Width; x >= 0; x -= 12 {
		scalp = append(scalp, XY{x, edge(x)})
	}
	cv.fill(flesh, 1, false, scalp)
	var dark, light [][]XY
	for _, s := range [][2]float64{{-60, 62}, {62, 118}, {118, 242}, {242, 298}, {298, 420}} {
		const in = 3.4
		var area []XY
		for i := 0; i <= 12; i++ {
			area = append(area, XY{mix(s[0]+in, s[1]-in, float64(i)/12), -2})
		}
		for i := 12; i >= 0; i-- {
			x := mix(s[0]+in, s[1]-in, float64(i)/12)
			area = append(area, XY{x, edge(x) - 6})
		}
		cv.fill(hairBase, 1, false, area)
		root := XY{(s[0] + s[1]) / 2, edge((s[0]+s[1])/2) - 7}
		for i := 0; i <= 14; i++ {
			u := float64(i) / 14
			x := mix(s[0]+in+2, s[1]-in-2, u)
			var hair []XY
			for j := 0; j <= 6; j++ {
				v := float64(j) / 6
				hair = append(hair, XY{mix(x, root.X+(u-0.5)*10, ease(v)*0.96), mix(-1, root.Y, v)})
			}
			if i%3 == 1 {
				light = append(light, hair)
			} else {
				dark = append(dark, hair)
			}
		}
	}
	cv.line(hairDark, 1, 0.8, dark...)
	cv.line(hairLight, 1.2, 0.8, light...)
	return cv.shapes
}

// lyingStage is the scalp from above: combed hair in rows that run across, with their part
// lines between; a cornrow lies along the middle one, at y = 170.
func lyingStage() []Shape {
	cv := page()
	cv.fill(flesh, 1, false, []XY{{0, 0}, {Width, 0}, {Width, Height}, {0, Height}})
	var dark, light [][]XY
	for row, r := range [][2]float64{{-6, 86}, {92, 248}, {254, 400}, {406, 480}} {
		cv.fill(combed, 1, false, []XY{{0, r[0]}, {Width, r[0]}, {Width, r[1]}, {0, r[1]}})
		middle := (r[0] + r[1]) / 2
		for i := -2; i < 44; i++ {
			for _, from := range []float64{r[0] + 2, r[1] - 2} {
				x := 9*float64(i) + 4*noise(i, from)
				var hair []XY
				for j := 0; j <= 5; j++ { // combed toward the cornrow, which goes to the right
					v := float64(j) / 5
					hair = append(hair, XY{x + 26*v*v, mix(from, middle, v*0.94)})
				}
				if (i+row)%3 == 0 {
					light = append(light, hair)
				} else {
					dark = append(dark, hair)
				}
			}
		}
	}
	cv.line(hairDark, 1, 0.7, dark...)
	cv.line(hairLight, 1.1, 0.35, light...)
	return cv.shapes
}
