package fall

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// Fullness is how full hair hangs at a height.
type Fullness struct {
	// Layers is how many pieces lie over one another on average: the thickness of all that
	// crosses the height ÷ the length of its outline, which goes round the back from one temple
	// to the other. Under 1 there are gaps.
	Layers float64 `json:"layers" doc:"Pieces over one another on average; under 1 there are gaps"`
	// Outline is its length, mm, Crossing how many pieces come down to it.
	Outline  float64 `json:"outlineMm"`
	Crossing int     `json:"crossing"`
}

// sectors is into how many parts the way round the body is cut to find the outline.
const sectors = 30

// Fullness reads how full the hair hangs at a share of stature.
func (w *Wearer) Fullness(pieces []Piece, paths []Path, share float64) Fullness {
	z := w.Height(share)
	middle := ridge * w.body.stature
	var far [sectors]float64
	out, sum := Fullness{}, 0.0
	for i, p := range paths {
		for k := 1; k < len(p.Points); k++ {
			a, b := p.Points[k-1], p.Points[k]
			if a.Z <= z || b.Z > z {
				continue
			}
			q := r3.Add(a, r3.Scale((a.Z-z)/(a.Z-b.Z), r3.Sub(b, a)))
			out.Crossing++
			sum += pieces[i].Thickness
			// Counted from the face round, so that the outline is open there.
			s := int((math.Atan2(q.Y, -(q.X-middle))+math.Pi)/(2*math.Pi)*sectors) % sectors
			far[s] = max(far[s], math.Hypot(q.X-middle, q.Y))
			break
		}
	}
	last := -1
	for s := range far {
		if far[s] == 0 {
			continue
		}
		if last >= 0 {
			a, b := 2*math.Pi/sectors*float64(last), 2*math.Pi/sectors*float64(s)
			out.Outline += math.Hypot(far[s]*math.Cos(b)-far[last]*math.Cos(a), far[s]*math.Sin(b)-far[last]*math.Sin(a))
		}
		last = s
	}
	if out.Outline > 0 {
		out.Layers = sum / out.Outline
	}
	return out
}

// Band is how far hair reaches at a height, seen from behind.
type Band struct {
	Z     float64 `json:"zMm"`
	Left  float64 `json:"leftMm" doc:"How far to the client's left"`
	Right float64 `json:"rightMm" doc:"How far to the client's right, negative"`
}

// silhouetteStep is the height of a band, mm.
const silhouetteStep = 15.0

// Silhouette is the outline of the hair seen from behind, from the top down in even steps;
// heights that no hair crosses are left out.
func (w *Wearer) Silhouette(pieces []Piece, paths []Path) []Band {
	top := w.body.head.C + 60
	var bands []Band
	row := func(z float64) int { return max(0, int((top-z)/silhouetteStep)) }
	for i, p := range paths {
		half := pieces[i].Thickness / 2
		for k := 1; k < len(p.Points); k++ {
			a, b := p.Points[k-1], p.Points[k]
			for r := row(max(a.Z, b.Z)); r <= row(min(a.Z, b.Z)); r++ {
				for len(bands) <= r {
					bands = append(bands, Band{top - (float64(len(bands))+0.5)*silhouetteStep, math.Inf(-1), math.Inf(1)})
				}
				f := 0.5
				if a.Z != b.Z {
					f = max(0, min(1, (a.Z-bands[r].Z)/(a.Z-b.Z)))
				}
				y := a.Y + f*(b.Y-a.Y)
				bands[r].Left, bands[r].Right = max(bands[r].Left, y+half), min(bands[r].Right, y-half)
			}
		}
	}
	out := []Band{}
	for _, b := range bands {
		if b.Left >= b.Right {
			out = append(out, b)
		}
	}
	return out
}
