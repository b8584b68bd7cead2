package plan

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
)

// The groups of the working order.
const (
	baseFirst = iota
	behindThen
	frontThen
	hairlineThen
	partLast
)

// workingOrder are the places in the order they are usually worked at: what is hooked behind,
// from the nape up; the plaits behind; those in front; the hairline and the part line last.
// Common practice, no source.
func (w *worked) workingOrder() []int {
	f := newFinder(w.in, w.head, &w.layout, w.res.Places)
	type key struct {
		group  int
		height float64 // of the row or track, mm
		line   string
		along  float64
	}
	keys := make([]key, len(w.res.Places))
	sum, n := map[string]float64{}, map[string]int{}
	for i := range w.res.Places {
		p := &w.res.Places[i]
		line := f.line(p)
		sum[line] += p.At[2]
		n[line]++
	}
	sideways := w.in.Parting.Base.Run == parting.Horizontal
	for i := range w.res.Places {
		p := &w.res.Places[i]
		k := key{group: behindThen, line: f.line(p), along: p.At[1]}
		switch {
		case p.Ground != method.OnPlait && !p.Front:
			k.group = baseFirst
		case p.Section >= 0 && p.Front && f.alongPart(p):
			k.group = partLast
		case p.Section >= 0 && p.At[0] > f.behindEars && f.atHairline(p):
			k.group = hairlineThen
		case p.Front:
			k.group = frontThen
		}
		// Rows of both sides stand level; a step of a few millimetres is none.
		k.height = math.Round(sum[k.line]/float64(n[k.line])/4) * 4
		if p.Section < 0 && !sideways {
			// Tracks that run from front to back are filled from the nape up, all together.
			k.height, k.line, k.along = math.Round(p.At[2]/15)*15, "", p.At[1]
		}
		keys[i] = k
	}
	order := make([]int, len(keys))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int {
		x, y := keys[a], keys[b]
		return cmp.Or(cmp.Compare(x.group, y.group), cmp.Compare(x.height, y.height), cmp.Compare(y.line, x.line), cmp.Compare(y.along, x.along))
	})
	return order
}

// Reach is how far a number of packs goes on this head in working order.
type Reach struct {
	Packs int `json:"packs"`
	// Pieces are those of them that hang.
	Pieces int `json:"pieces"`
	// At is where they end, in words.
	At string `json:"at"`
	// Places is how many places are covered, in the order of [Filling].
	Places int `json:"places"`
}

// Filling is the way one piece fills the head.
type Filling struct {
	Piece string `json:"piece" doc:"Key of the piece"`
	// Order are the places where it hangs, as indices, in working order.
	Order []int   `json:"order"`
	Reach []Reach `json:"reach" doc:"How far 1, 2, 3 … packs go"`
}

// fillings say of every piece how far its packs go. The packs are those in the order of the need.
func (w *worked) fillings(n Need) []Filling {
	order := w.workingOrder()
	out := []Filling{}
	for k := range n.Pieces {
		need := &n.Pieces[k]
		at := slices.IndexFunc(w.in.Pieces, func(p hair.Piece) bool { return p.Key == need.Piece })
		yield := w.in.Pieces[at].Pack.Yield()
		f := Filling{Piece: need.Piece, Order: []int{}, Reach: []Reach{}}
		hung := 0
		for _, i := range order {
			p := &w.res.Places[i]
			count := w.countOf(p, at)
			if count == 0 {
				continue
			}
			for hung+count > yield*(len(f.Reach)+1) {
				f.Reach = append(f.Reach, Reach{len(f.Reach) + 1, hung, w.reached(f.Order), len(f.Order)})
			}
			hung += count
			f.Order = append(f.Order, i)
		}
		f.Reach = append(f.Reach, Reach{len(f.Reach) + 1, hung, "all of them", len(f.Order)})
		out = append(out, f)
	}
	return out
}

// reached says in words how far a list of places goes.
func (w *worked) reached(places []int) string {
	if len(places) == 0 {
		return "not one place"
	}
	p := &w.res.Places[places[len(places)-1]]
	if p.Section >= 0 {
		s := &w.layout.Sections[p.Section]
		return fmt.Sprintf("%s, row %d", p.Zone.Name(), s.Row)
	}
	at, all := 0, 0
	for i := range w.res.Places {
		if w.res.Places[i].Zone == p.Zone && w.res.Places[i].Section < 0 {
			all++
		}
	}
	for _, i := range places {
		if w.res.Places[i].Zone == p.Zone && w.res.Places[i].Section < 0 {
			at++
		}
	}
	return fmt.Sprintf("%s, %d of %d hooks", p.Zone.Name(), at, all)
}
