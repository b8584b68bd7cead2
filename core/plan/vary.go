package plan

import (
	"fmt"
	"slices"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/parting"
)

// WayOf is a method as the plan has it set, else as it usually is.
func (in Input) WayOf(m method.Method) Way {
	if i := slices.IndexFunc(in.Ways, func(w Way) bool { return w.Method == m.ID }); i >= 0 {
		return in.Ways[i]
	}
	return NewWay(string(m.ID), m.ID)
}

// WithUse is the plan with one more use, which wins over those before it.
func (in Input) WithUse(u Use) Input {
	in.Uses = append(slices.Clone(in.Uses), u)
	return in
}

// FreshKey is a key that none of the plan's pieces has.
func (in Input) FreshKey(stem string) string {
	for n := 1; ; n++ {
		key := fmt.Sprintf("%s-%d", stem, n)
		if !slices.ContainsFunc(in.Pieces, func(p hair.Piece) bool { return p.Key == key }) {
			return key
		}
	}
}

// SizeStep is to what sizes of sections are rounded, mm: a sixteenth of an inch.
const SizeStep = 25.4 / 16

// Scaled is the plan with its sections scale times as wide and as high, with those changes by
// hand that hold at any size.
func (in Input) Scaled(scale float64) Input {
	for _, wish := range []*parting.Wish{&in.Parting.Front, &in.Parting.Back} {
		wish.Width *= scale
		wish.Height *= scale
	}
	in.Parting.Edits = parting.AtAnySize(in.Parting.Edits)
	return in
}

// With is the plan with another piece in place of the one that hangs everywhere; a mix there gives way to it. The
// error is an [invalid.Errors] where it cannot be.
func (in Input) With(p hair.Piece) (Input, error) {
	key := in.Uses[0].keys()[0]
	p.Key = key
	in.Pieces, in.Uses = slices.Clone(in.Pieces), slices.Clone(in.Uses)
	for i := range in.Pieces {
		if in.Pieces[i].Key == key {
			in.Pieces[i] = p
		}
	}
	in.Uses[0].Piece, in.Uses[0].Mix = key, nil
	return in, Check(in)
}
