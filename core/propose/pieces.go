package propose

import (
	"cmp"
	"context"
	"math"
	"slices"

	"kladotex/core/craft"
	"kladotex/core/fall"
	"kladotex/core/hair"
	"kladotex/core/hang"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plan"
)

// fitPieces finds the pieces the wish can be made of, and where their ends come to on this head.
func (s *search) fitPieces(ctx context.Context) error {
	var all []candidatePiece
	for i := range s.wish.Lots {
		all = append(all, candidatePiece{Piece: s.wish.Lots[i].Piece, lot: &s.wish.Lots[i]})
	}
	if !s.wish.Nothing {
		forms := s.wish.Forms()
		for _, p := range s.Shelf {
			known := slices.ContainsFunc(all, func(x candidatePiece) bool { return x.Name == p.Name && x.Form == p.Form })
			if slices.Contains(forms, p.Form) && !known {
				all = append(all, candidatePiece{Piece: p})
			}
		}
	}
	line, wished := fall.LineOf(s.wish.To)
	if len(all) > mostHeld { // a shelf of hundreds is not hung piece by piece
		s.leave("Of %d pieces that make this look the first %d were looked at.", len(all), mostHeld)
		all = all[:mostHeld]
	}
	for _, p := range all {
		if wished {
			mm, err := s.falls(ctx, p, line)
			if err != nil {
				return err
			}
			p.short = mm
		}
		switch cut := p.Form != hair.HandmadeLoc && p.lot == nil; {
		case p.short > craft.MostShortEnds:
			s.leave("%s is too short: it ends %s above the %s.", p.Name, invalid.Length(p.short), line.Name)
			continue
		case p.short < -craft.LongEnds && !cut:
			s.leave("%s is too long, and is not cut.", p.Name)
			continue
		case p.short < -craft.EndsSlack && cut:
			p.trimmed = true
		}
		s.pieces = append(s.pieces, p)
	}
	// What is cut much is left out where something comes out right.
	if slices.ContainsFunc(s.pieces, func(p candidatePiece) bool { return math.Abs(p.short) <= craft.EndsSlack }) {
		s.pieces = slices.DeleteFunc(s.pieces, func(p candidatePiece) bool { return p.short < -craft.MostShortEnds || p.short > 2*craft.EndsSlack })
	}
	if len(s.pieces) > mostPieces {
		slices.SortStableFunc(s.pieces, func(a, b candidatePiece) int {
			own := func(p candidatePiece) float64 { // hair in hand before all other
				if p.lot != nil {
					return -1
				}
				return math.Abs(p.short)
			}
			return cmp.Compare(own(a), own(b))
		})
		s.leave("Of the pieces that make this look the %d nearest in length were tried.", mostPieces)
		s.pieces = s.pieces[:mostPieces]
	}
	if len(s.pieces) == 0 {
		s.leave("No hair on offer makes this look at this length.")
	}
	return nil
}

// mostHeld is how many pieces are held against a length, mostPieces how many are tried: the work is capped by counts.
const mostHeld, mostPieces = 40, 10

// falls is how far half of a piece's ends stay above a line, mm, hung all over this head.
func (s *search) falls(ctx context.Context, p candidatePiece, line fall.BodyLine) (float64, error) {
	p.trimmed = false
	in := s.input(Variant{Base: parting.AllIndividuals, Pattern: parting.Brick, Size: 38, Method: s.methods(p.Form)[0], Hook: method.CornrowHitch}, p)
	in.Plaits.Fed = 0
	sol, err := plan.Attempt(ctx, in)
	if err != nil {
		return 0, err
	}
	lands, err := hang.Land(ctx, sol)
	if err != nil {
		return 0, err
	}
	return (lands.All.Middle - line.Share) * lands.Stature, nil
}
