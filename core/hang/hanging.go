package hang

import (
	"fmt"
	"math"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/fall"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/scalp"
)

// hungPiece is one piece that hangs: which, where, and in which row its ends are cut.
type hungPiece struct {
	piece, place, row int
	// count is 1, or how many hang together as one.
	count int
	// beside is true for an accent and for what is filled in: neither is what the head is told by.
	beside bool
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

// mostHung is how many pieces are hung one by one. No head carries as many; where a plan still
// does, those of a place hang as one bundle, as thick as all of them.
const mostHung = 4000

// besides is how far from the middle of a place each of several pieces there grows, in
// thicknesses.
const besides = 0.55

// hang lists all that hangs, row by row.
func hang(sol *plan.Solved) *hanging {
	stature, _ := sol.Input.Wearing()
	h := &hanging{wearer: fall.New(sol.Head, stature, sol.Layout.PartLine)}
	rows := map[string]int{}
	rowOf := func(p *plan.Place) int {
		key, name := rowOf(sol, p)
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
		row.height += root.Z * sol.Head.C
		h.list = append(h.list, x)
		h.pieces = append(h.pieces, fall.Piece{Root: root, Side: side, Length: mm, Thickness: sol.Input.Pieces[x.piece].Thickness * math.Sqrt(float64(x.count))})
	}
	total := 0
	for i := range sol.Places {
		total += sol.Places[i].Count
	}
	for i := range sol.Places {
		p := &sol.Places[i]
		here := make([]int, 0, p.Count+len(p.Accents))
		for range p.Count {
			here = append(here, p.Piece)
		}
		for _, a := range p.Accents {
			if k := sol.Input.AccentPiece(a); k >= 0 {
				here = append(here, k)
			}
		}
		row := rowOf(p)
		if total > mostHung && len(here) > 0 {
			add(hungPiece{piece: here[0], place: i, row: row, count: len(here)}, root(sol, p.At), p.Zone.Side(), sol.Hangs(p, here[0]))
			continue
		}
		for k, piece := range here {
			root, side := root(sol, p.At), p.Zone.Side()
			deep := 0.0
			if k < p.Count {
				deep = sol.Methods[p.Way].Depth(k, p.Count, p.Plait)
			}
			if n := len(here); n > 1 {
				aside := scalp.Unit(r3.Cross(r3.Vec{Z: 1}, root))
				if root.Y < 0 {
					aside = r3.Scale(-1, aside)
				}
				by := (float64(k) - float64(n-1)/2) * besides * sol.Input.Pieces[piece].Thickness / sol.Head.A
				root = scalp.Unit(r3.Add(root, r3.Scale(by, aside)))
			}
			add(hungPiece{piece: piece, place: i, row: row, count: 1, beside: k >= p.Count}, root, side, deep+sol.Hangs(p, piece))
		}
	}
	for k, piece := range sol.Input.Pieces {
		if piece.Key != sol.Input.Fill.Piece {
			continue
		}
		for _, d := range sol.Input.Fill.At {
			i := sol.Nearest(d.On(sol.Head))
			if i < 0 {
				continue
			}
			p := &sol.Places[i]
			add(hungPiece{piece: k, place: i, row: rowOf(p), count: 1, beside: true}, scalp.Unit(r3.Vec{X: d[0], Y: d[1], Z: d[2]}), 0, sol.Hangs(p, k))
		}
	}
	for k := range h.rows {
		h.rows[k].height /= float64(max(1, len(h.rows[k].pieces)))
	}
	return h
}

// root is the unit vector of a surface point.
func root(sol *plan.Solved, p scalp.Point) r3.Vec {
	d := parting.Toward(sol.Head, p)
	return r3.Vec{X: d[0], Y: d[1], Z: d[2]}
}

// rowOf names the row of a place, both sides alike.
func rowOf(sol *plan.Solved, p *plan.Place) (key, name string) {
	zone := p.Zone.Sideless()
	if p.Section >= 0 {
		row := sol.Layout.Sections[p.Section].Row
		return fmt.Sprintf("%s/%d", zone, row), fmt.Sprintf("%s, row %d", zone, row)
	}
	if p.Ground == method.OnEnd {
		return zone + "/ends", "Braids of the design"
	}
	if p.Ground == method.OnCornrow && sol.Input.Parting.RunIn(p.Zone) == parting.Horizontal {
		id, _, _ := strings.Cut(p.ID, "/")
		name := parting.CornrowName(zone, id)
		return name, name
	}
	// Counted from the nape.
	band := sol.Band(p)
	return fmt.Sprintf("%s/b%d", zone, band), fmt.Sprintf("%s, row %d", zone, band)
}
