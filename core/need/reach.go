package need

import (
	"fmt"
	"slices"

	"kladotex/core/hair"
	"kladotex/core/plan"
	"kladotex/core/workorder"
)

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
func fillings(sol *plan.Solved, n Need) []Filling {
	order := workorder.Places(sol)
	out := []Filling{}
	for k := range n.Pieces {
		need := &n.Pieces[k]
		at := slices.IndexFunc(sol.Input.Pieces, func(p hair.Piece) bool { return p.Key == need.Piece })
		yield := sol.Input.Pieces[at].Pack.Yield()
		f := Filling{Piece: need.Piece, Order: []int{}, Reach: []Reach{}}
		hung := 0
		for _, i := range order {
			p := &sol.Places[i]
			count := countOf(sol, p, at)
			if count == 0 {
				continue
			}
			for hung+count > yield*(len(f.Reach)+1) {
				f.Reach = append(f.Reach, Reach{len(f.Reach) + 1, hung, reached(sol, f.Order), len(f.Order)})
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
func reached(sol *plan.Solved, places []int) string {
	if len(places) == 0 {
		return "not one place"
	}
	p := &sol.Places[places[len(places)-1]]
	if p.Section >= 0 {
		s := &sol.Layout.Sections[p.Section]
		return fmt.Sprintf("%s, row %d", p.Zone.Name(), s.Row)
	}
	at, all := 0, 0
	for i := range sol.Places {
		if sol.Places[i].Zone == p.Zone && sol.Places[i].Section < 0 {
			all++
		}
	}
	for _, i := range places {
		if sol.Places[i].Zone == p.Zone && sol.Places[i].Section < 0 {
			at++
		}
	}
	return fmt.Sprintf("%s, %d of %d spots", p.Zone.Name(), at, all)
}

// countOf is how many of a piece hang at a place, accents among them.
func countOf(sol *plan.Solved, p *plan.Place, piece int) int {
	n := 0
	if p.Piece == piece {
		n = p.Count
	}
	for _, a := range p.Accents {
		if sol.Input.AccentPiece(a) == piece {
			n++
		}
	}
	return n
}
