package plan

import (
	"slices"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
)

// resolve says of every place that f looks among what hangs there: exactly one piece, way and
// count. The input must have passed [Check].
func (in Input) resolve(f *finder, l *parting.Layout) Resolution {
	r := Resolution{Places: f.places, Matched: make([]int, len(in.Uses))}
	for u, use := range in.Uses {
		piece := slices.IndexFunc(in.Pieces, func(p hair.Piece) bool { return p.Key == use.Piece })
		way := slices.IndexFunc(in.Ways, func(w Way) bool { return w.Key == use.Way })
		var m method.Method
		if way >= 0 {
			m, _ = method.Lookup(in.Ways[way].Method)
		}
		matched := f.match(use.Where)
		var mixed []int
		if len(use.Mix) > 0 {
			mixed = in.mixed(use, f, matched)
		}
		for k, i := range matched {
			p := &r.Places[i]
			here := way >= 0 && m.On(p.Ground)
			if here {
				p.Way = way
			}
			if piece >= 0 {
				p.Piece = piece
			}
			if mixed != nil {
				p.Piece = mixed[k]
			}
			if use.Count > 0 {
				p.Count = use.Count
			}
			if here || use.names() || use.Count > 0 || use.Apart > 0 && p.Section < 0 {
				r.Matched[u]++
			}
		}
	}
	for i := range r.Places {
		if p := &r.Places[i]; p.Way >= 0 {
			way := &in.Ways[p.Way]
			m, _ := method.Lookup(way.Method)
			p.Count *= m.Pieces(way.Settings)
		}
	}
	for k, a := range in.Accents {
		for _, i := range f.accented(a) {
			r.Places[i].Accents = append(r.Places[i].Accents, k)
		}
	}
	in.keep(f, l, r.Places)
	return r
}

// keep marks the places that stay as they hang.
func (in Input) keep(f *finder, l *parting.Layout, places []Place) {
	if in.Redo == nil {
		return
	}
	for i, row := range outer(f, l, places) {
		places[i].Kept = row == 0 || row > in.Redo.Rows
	}
}
