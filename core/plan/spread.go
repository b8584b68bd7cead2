package plan

import (
	"slices"
	"strconv"

	"kladotex/core/hair"
	"kladotex/core/scalp"
	"kladotex/core/supply"
)

// mixed is the index of the piece of every one of some places, spread evenly over neighbours
// and alike on both sides.
func (in Input) mixed(u Use, f *finder, at []int) []int {
	shares, index := make([]int, len(u.Mix)), make([]int, len(u.Mix))
	for k, s := range u.Mix {
		shares[k] = s.Parts
		index[k] = slices.IndexFunc(in.Pieces, func(p hair.Piece) bool { return p.Key == s.Piece })
	}
	out := supply.Spread(f.spots(at), shares)
	for i, k := range out {
		out[i] = index[k]
	}
	return out
}

// TwinReach is how far from the mirror image of a place its twin may lie, mm.
const TwinReach = 6.0

// spots are places as they are spread over: by rows and cornrows, with their mirror images.
func (f *finder) spots(at []int) []supply.Spot {
	out := make([]supply.Spot, len(at))
	for k, i := range at {
		p := &f.places[i]
		out[k] = supply.Spot{Line: f.line(p), Twin: -1}
		mirrored := scalp.Point{p.At[0], -p.At[1], p.At[2]}
		least := TwinReach
		for m, j := range at {
			if d := scalp.Apart(mirrored, f.places[j].At); d <= least {
				out[k].Twin, least = m, d
			}
		}
	}
	// A twin's twin is oneself: where two lie equally near, neither is one.
	for k := range out {
		if t := out[k].Twin; t >= 0 && out[t].Twin != k {
			out[k].Twin = -1
		}
	}
	return out
}

// line names the row or the cornrow of a place.
func (f *finder) line(p *Place) string {
	if p.Section >= 0 {
		return string(p.Zone) + strconv.Itoa(f.layout.Sections[p.Section].Row)
	}
	return p.Carrier()
}

// accented are the places an accent is put at.
func (f *finder) accented(a Accent) []int {
	at := f.match(a.Where)
	if a.Where.Kind == AtPlaces || a.Count >= len(at) {
		return at
	}
	var out []int
	for k, chosen := range supply.Spread(f.spots(at), []int{len(at) - a.Count, a.Count}) {
		if chosen == 1 {
			out = append(out, at[k])
		}
	}
	return out
}
