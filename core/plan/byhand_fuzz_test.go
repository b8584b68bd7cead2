package plan_test

import (
	"errors"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"kladotex/core/invalid"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/core/tally"
)

// movedByHand is a head in small, odd sections whose row lines were dragged somewhere.
func movedByHand(seed uint64) plan.Input {
	r := rand.New(rand.NewPCG(seed, 7))
	in := plan.Default()
	presets := scalp.Presets()
	in.Head = presets[r.IntN(len(presets))].Tapes
	s := &in.Parting
	s.Structure = []parting.Structure{parting.Perimeter, parting.NetCap, parting.Perimeter, parting.AllIndividuals}[r.IntN(4)]
	for _, have := range parting.Rules() {
		if have.Structure == s.Structure {
			s.Part.Kind = have.Parts[r.IntN(len(have.Parts))]
		}
	}
	width, height := 8+40*r.Float64(), 8+40*r.Float64()
	for _, wish := range []*parting.Wish{&s.Front, &s.Back} {
		wish.Pattern = []parting.Pattern{parting.Triangle, parting.Triangle, parting.FreeHand, parting.Brick}[r.IntN(4)]
		wish.Width, wish.Height = width, height
	}
	s.Rows = 1 + r.IntN(4)
	sphere := scalp.Head{A: 1, B: 1, C: 1}
	for range 1 + r.IntN(2) {
		at := parting.Toward(sphere, scalp.Point{r.NormFloat64(), r.NormFloat64(), 1.2*r.Float64() - 0.2})
		with := parting.Toward(sphere, scalp.Point{at[0] + 0.1*r.NormFloat64(), at[1] + 0.1*r.NormFloat64(), at[2] + 0.1*r.NormFloat64()})
		s.Edits = append(s.Edits, parting.Edit{Kind: parting.MoveRow, At: at, With: &with})
	}
	return in
}

// A row line that is dragged anywhere leaves a layout whose sections all have room, or is refused by name.
// The first seed left a section with no room at all, and once broke off on the way to its area.
func FuzzLinesMovedByHand(f *testing.F) {
	f.Add(uint64(6202))
	for seed := range uint64(150) {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, seed uint64) {
		in := movedByHand(seed)
		res, err := tally.Compute(t.Context(), in)
		if err != nil {
			var named invalid.Errors
			assert.True(t, errors.As(err, &named), "%v", err)
			return
		}
		for _, s := range res.Layout.Sections {
			assert.Positive(t, s.Area, "section %s", s.ID)
		}
	})
}
