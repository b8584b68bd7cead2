// Package hang drapes a solved plan over head and shoulders: where ends land, what is covered and
// what shows, how full it is, and how the ends are cut.
package hang

import (
	"context"
	"math"

	"kladotex/core/fall"
	"kladotex/core/plan"
	"kladotex/core/scalp"
)

// Drape is how a head hangs, what it covers, and how full.
type Drape struct {
	Style fall.Style `json:"style"`
	// Stature is the wearer's height, mm; Asked is false where a usual one was taken.
	Stature float64 `json:"statureMm"`
	Asked   bool    `json:"asked" doc:"False where the height was not given and a usual one was taken"`
	// Vertex is the height of the top of the head, mm.
	Vertex float64 `json:"vertexMm"`
	// Torso and Face are what the hair falls over, slice by slice from the top: height,
	// front, back and half width, mm.
	Torso  [][4]float64  `json:"torso"`
	Face   [][4]float64  `json:"face"`
	Pieces []DrapedPiece `json:"pieces"`
	Cover  Cover         `json:"cover"`
	Chin   fall.Fullness `json:"chin" doc:"How full it hangs at the chin"`
	// Shoulder is how full it hangs there.
	Shoulder fall.Fullness `json:"shoulder"`
	Outline  []fall.Band   `json:"outline" doc:"The outline of the hair from behind, from the top"`
}

// DrapedPiece is one piece as it hangs.
type DrapedPiece struct {
	Piece int `json:"piece" doc:"Index of the piece"`
	Place int `json:"place" doc:"Index of the place it hangs at"`
	// Lift is how much hair lies beneath it, Thick its thickness, mm.
	Lift  float64 `json:"liftMm"`
	Thick float64 `json:"thickMm"`
	// Ends is the height of its end as a share of stature, Line the lowest body line it
	// reaches.
	Ends   float64    `json:"ends" doc:"Height of its end ÷ stature"`
	Line   string     `json:"line" enum:"ear,chin,shoulder,armpit,mid-back,waist,hip,thigh,knee,floor" doc:"Lowest body line it reaches"`
	Points scalp.Line `json:"points"`
}

// Of hangs a plan's pieces as they are worn and says what they cover. The error is that of ctx
// when it ends first.
func Of(ctx context.Context, sol *plan.Solved, style fall.Style) (Drape, error) {
	h := hang(sol)
	if err := trim(ctx, sol, h); err != nil {
		return Drape{}, err
	}
	paths, err := h.wearer.Hang(ctx, h.pieces, style)
	if err != nil {
		return Drape{}, err
	}
	d := Drape{Style: style, Vertex: tenth(sol.Head.C), Pieces: make([]DrapedPiece, len(paths))}
	d.Stature, d.Asked = sol.Input.Wearing()
	torso, face := h.wearer.Slices()
	d.Torso, d.Face = fours(torso), fours(face)
	for i, p := range paths {
		line := make(scalp.Line, len(p.Points))
		for k, q := range p.Points {
			line[k] = scalp.Point{q.X, q.Y, q.Z}
		}
		ends := h.wearer.Share(p.End().Z)
		d.Pieces[i] = DrapedPiece{
			h.list[i].piece, h.list[i].place, tenth(p.Lift), h.pieces[i].Thickness, math.Round(1e4*ends) / 1e4, fall.LineAt(ends), line,
		}
	}
	if d.Cover, err = cover(ctx, sol, h, paths, style); err != nil {
		return Drape{}, err
	}
	chin, _ := fall.LineOf("chin")
	shoulder, _ := fall.LineOf("shoulder")
	d.Chin = h.wearer.Fullness(h.pieces, paths, chin.Share)
	d.Shoulder = h.wearer.Fullness(h.pieces, paths, shoulder.Share)
	d.Outline = h.wearer.Silhouette(h.pieces, paths)
	return d, nil
}

func fours(slices []fall.Slice) [][4]float64 {
	out := make([][4]float64, len(slices))
	for i, s := range slices {
		out[i] = [4]float64{tenth(s.Z), tenth(s.Front), tenth(s.Back), tenth(s.Width)}
	}
	return out
}

// tenth rounds to a tenth.
func tenth(v float64) float64 { return math.Round(10*v) / 10 }
