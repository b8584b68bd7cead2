package plan

import (
	"context"
	"fmt"
	"math"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/fall"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/scalp"
)

// Statures that are planned for, mm.
const MinStature, MaxStature = 600.0, 2400.0

// Statures taken where nobody asked, mm: 5 ft 5 in, and 4 ft 7 in of a child of ten. From
// memory of growth charts.
const (
	usualStature = 1651.0
	childStature = 1400.0
)

// Wearing is the stature the plan is drawn at, and whether anybody said it.
func (in Input) Wearing() (stature float64, asked bool) {
	switch {
	case in.Stature > 0:
		return in.Stature, true
	case in.Child:
		return childStature, false
	}
	return usualStature, false
}

// hungPiece is one piece that hangs: which, where, and in which row its ends are cut.
type hungPiece struct {
	piece, place, row int
	// count is 1, or how many hang together as one.
	count int
}

// hanging is all that hangs on a head.
type hanging struct {
	wearer *fall.Wearer
	list   []hungPiece
	pieces []fall.Piece // of the list
	rows   []hungRow
}

// hungRow is a row whose ends are cut alike.
type hungRow struct {
	name   string
	front  bool
	height float64 // mean of its roots, mm
	pieces []int   // of the list
}

// trackBand is the height of a band of hooks that are cut alike where tracks run from front
// to back, mm.
const trackBand = 30.0

// hangs is the length at which a piece comes to hang at a place: its form springs up, and legs
// twisted together take up.
func (w *worked) hangs(p *Place, piece int) float64 {
	x := &w.in.Pieces[piece]
	mm := x.Length * x.Form.Facts().Hangs
	if p.Piece == piece && w.methods[p.Way].Family == method.Twist {
		mm *= plait.TwistTakeUp
	}
	return mm
}

// mostHung is how many pieces are hung one by one. No head carries as many; where a plan still
// does, those of a place hang as one bundle, as thick as all of them.
const mostHung = 4000

// besides is how far from the middle of a place each of several pieces there grows, in
// thicknesses.
const besides = 0.55

// hang lists all that hangs, row by row.
func (w *worked) hang() *hanging {
	stature, _ := w.in.Wearing()
	h := &hanging{wearer: fall.New(w.head, stature, w.layout.PartLine)}
	rows := map[string]int{}
	rowOf := func(p *Place) int {
		key, name := w.rowOf(p)
		k, ok := rows[key]
		if !ok {
			k = len(h.rows)
			rows[key] = k
			h.rows = append(h.rows, hungRow{name: name, front: p.Front})
		}
		return k
	}
	add := func(x hungPiece, root r3.Vec, side, mm float64) {
		row := &h.rows[x.row]
		row.pieces = append(row.pieces, len(h.list))
		row.height += root.Z * w.head.C
		h.list = append(h.list, x)
		h.pieces = append(h.pieces, fall.Piece{Root: root, Side: side, Length: mm, Thickness: w.in.Pieces[x.piece].Thickness * math.Sqrt(float64(x.count))})
	}
	total := 0
	for i := range w.res.Places {
		total += w.res.Places[i].Count
	}
	for i := range w.res.Places {
		p := &w.res.Places[i]
		here := make([]int, 0, p.Count+len(p.Accents))
		for range p.Count {
			here = append(here, p.Piece)
		}
		for _, a := range p.Accents {
			if k := w.accentPiece(a); k >= 0 {
				here = append(here, k)
			}
		}
		row := rowOf(p)
		if total > mostHung && len(here) > 0 {
			add(hungPiece{piece: here[0], place: i, row: row, count: len(here)}, w.root(p.At), sideOf(p.Zone), w.hangs(p, here[0]))
			continue
		}
		for k, piece := range here {
			root, side := w.root(p.At), sideOf(p.Zone)
			if n := len(here); n > 1 {
				aside := scalp.Unit(r3.Cross(r3.Vec{Z: 1}, root))
				if root.Y < 0 {
					aside = r3.Scale(-1, aside)
				}
				by := (float64(k) - float64(n-1)/2) * besides * w.in.Pieces[piece].Thickness / w.head.A
				root = scalp.Unit(r3.Add(root, r3.Scale(by, aside)))
			}
			add(hungPiece{piece: piece, place: i, row: row, count: 1}, root, side, w.hangs(p, piece))
		}
	}
	for k, piece := range w.in.Pieces {
		if piece.Key != w.in.Fill.Piece {
			continue
		}
		for _, d := range w.in.Fill.At {
			i := w.nearestPlace(d.On(w.head))
			if i < 0 {
				continue
			}
			p := &w.res.Places[i]
			add(hungPiece{piece: k, place: i, row: rowOf(p), count: 1}, scalp.Unit(r3.Vec{X: d[0], Y: d[1], Z: d[2]}), 0, w.hangs(p, k))
		}
	}
	for k := range h.rows {
		h.rows[k].height /= float64(max(1, len(h.rows[k].pieces)))
	}
	return h
}

// root is the unit vector of a surface point.
func (w *worked) root(p scalp.Point) r3.Vec {
	d := parting.Toward(w.head, p)
	return r3.Vec{X: d[0], Y: d[1], Z: d[2]}
}

// sideOf is the side of the part that a zone lies on: 1 left, -1 right, 0 in the middle.
func sideOf(z parting.Zone) float64 {
	switch {
	case len(z) > 1 && strings.HasSuffix(string(z), "L"):
		return 1
	case len(z) > 1 && strings.HasSuffix(string(z), "R"):
		return -1
	}
	return 0
}

// rowOf names the row of a place, both sides alike.
func (w *worked) rowOf(p *Place) (key, name string) {
	zone := p.Zone.Sideless()
	if p.Section >= 0 {
		row := w.layout.Sections[p.Section].Row
		return fmt.Sprintf("%s/%d", zone, row), fmt.Sprintf("%s, row %d", zone, row)
	}
	if p.Ground == method.OnTrack && w.in.Parting.Base.Run == parting.Horizontal {
		id, _, _ := strings.Cut(p.ID, "/")
		number := strings.TrimLeft(id, "ABCDEFGHIJKLMNOPQRSTUVWXYZ")
		return zone + "/t" + number, fmt.Sprintf("%s, track %s", zone, number)
	}
	// Counted from the nape.
	band := int(math.Floor((p.At[2]-w.lowest())/trackBand)) + 1
	return fmt.Sprintf("%s/b%d", zone, band), fmt.Sprintf("%s, band %d from the nape", zone, band)
}

// lowest is the height of the nape's hairline, mm.
func (w *worked) lowest() float64 { return w.head.Point(w.head.Landmark(scalp.NapeCentre))[2] }

// nearestPlace is the index of the place nearest to a point; -1 where there is none.
func (w *worked) nearestPlace(at scalp.Point) int {
	best, least := -1, math.Inf(1)
	for i := range w.res.Places {
		if d := apart(at, w.res.Places[i].At); d < least {
			best, least = i, d
		}
	}
	return best
}

// Drape is how a head hangs, what it covers, and how full.
type Drape struct {
	Style fall.Style `json:"style" enum:"down,half-up,tied"`
	// Stature is the wearer's height, mm; Asked is false where a usual one was taken.
	Stature float64 `json:"statureMm"`
	Asked   bool    `json:"asked" doc:"False where nobody said the height and a usual one was taken"`
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
	Line   string     `json:"line" enum:"ear,chin,shoulder,armpit,mid-back,waist,hip" doc:"Lowest body line it reaches"`
	Points scalp.Line `json:"points"`
}

// DrapeOf hangs a plan's pieces as they are worn and says what they cover. The error is that of
// [Compute].
func DrapeOf(ctx context.Context, in Input, style fall.Style) (Drape, error) {
	w, err := in.resolved(ctx, parting.Lay)
	if err != nil {
		return Drape{}, err
	}
	h := w.hang()
	if err := w.trim(ctx, h); err != nil {
		return Drape{}, err
	}
	paths, err := h.wearer.Hang(ctx, h.pieces, style)
	if err != nil {
		return Drape{}, err
	}
	d := Drape{Style: style, Vertex: round10(w.head.C), Pieces: make([]DrapedPiece, len(paths))}
	d.Stature, d.Asked = in.Wearing()
	torso, face := h.wearer.Slices()
	d.Torso, d.Face = fours(torso), fours(face)
	for i, p := range paths {
		line := make(scalp.Line, len(p.Points))
		for k, q := range p.Points {
			line[k] = scalp.Point{q.X, q.Y, q.Z}
		}
		ends := h.wearer.Share(p.End().Z)
		d.Pieces[i] = DrapedPiece{
			h.list[i].piece, h.list[i].place, round10(p.Lift), h.pieces[i].Thickness, math.Round(1e4*ends) / 1e4, fall.LineAt(ends), line,
		}
	}
	if d.Cover, err = w.cover(ctx, h, paths, style); err != nil {
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
		out[i] = [4]float64{round10(s.Z), round10(s.Front), round10(s.Back), round10(s.Width)}
	}
	return out
}

func round10(v float64) float64 { return math.Round(10*v) / 10 }
