package fall

import (
	"context"
	"fmt"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/scalp"
)

// FillFor are roots, as unit vectors, of pieces of a thickness that together hang over all of
// some bare places, from the highest down: each goes where hair is missing and takes what lies
// on its way down the head with it. Places are surface points, mm; most bounds the roots. The
// error is that of ctx.
func (w *Wearer) FillFor(ctx context.Context, places []r3.Vec, thickness, slack float64, most int) ([]r3.Vec, error) {
	b := &w.body
	order := make([]int, len(places))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(x, y int) int { return compare(places[y].Z, places[x].Z) })
	covered := make([]bool, len(places))
	var roots []r3.Vec
	for _, i := range order {
		if covered[i] || len(roots) == most {
			continue
		}
		if err := ctx.Err(); err != nil {
			return nil, fmt.Errorf("looking for places to fill: %w", err)
		}
		p := places[i]
		root := scalp.Unit(r3.Vec{X: p.X / b.head.A, Y: p.Y / b.head.B, Z: p.Z / b.head.C})
		roots = append(roots, root)
		way := []r3.Vec{p, r3.Add(p, r3.Vec{Z: -40})}
		if p.Z > onPlane {
			way = w.dome(root, 0, nil)
		}
		piece := []Piece{{Root: root, Thickness: thickness}}
		own := w.stretches(piece, []Path{{Points: way}}, slack)
		for k := range places {
			q := b.onBell(places[k])
			covered[k] = covered[k] || slices.ContainsFunc(own, func(s stretch) bool { return s.beside(q) <= slack })
		}
	}
	return roots, nil
}
