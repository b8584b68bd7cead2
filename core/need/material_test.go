package need_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/need"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
)

// made are locs of 22 in, finger-thick, wound by hand over a base.
func made(base hair.MadeBase) plan.Input {
	in := plantest.Of(plantest.Size(38.5), plantest.By(method.Banded, hair.HandmadeLoc), plantest.Piece(22*25.4, 11, 6))
	in.Pieces[0].Made = &hair.Making{Base: base, Wrapping: hair.Wrapping{StrandLength: 610, Strands: 50, PackMass: 90, Price: 700}}
	return in
}

// A loc made by hand takes about a seventh of a pack of wrapping hair at back length, 44 of them six to
// seven packs, and no pack of locs. Common practice, no source.
func TestMadeLocsTakeNoPacks(t *testing.T) {
	for _, base := range hair.MadeBases {
		n, err := need.Of(plantest.Solve(t, made(base)))
		require.NoError(t, err)
		require.Len(t, n.Pieces, 1)
		assert.True(t, n.Pieces[0].Made)
		assert.Zero(t, n.Pieces[0].Order.Packs)
		var wound need.WrapNeed
		for _, w := range n.Wraps {
			if w.Piece != "" {
				wound = w
			}
		}
		assert.Equal(t, n.Pieces[0].Order.Need, wound.Plaits)
		each := float64(wound.Strands) / 50 / float64(wound.Plaits)
		assert.InDelta(t, 0.15, each, 0.03, "of a pack for a loc")
		assert.InDelta(t, 6.5, each*44, 1, "packs for 44")
		cord := false
		for _, x := range n.Things {
			cord = cord || x.Product == plan.Cord
		}
		assert.Equal(t, base == hair.CordBase, cord)
		tasks := need.Tasks(plantest.Solve(t, made(base)), n)
		assert.Equal(t, "make:p1", tasks[0].Key)
		assert.Greater(t, tasks[0].Minutes, 44*5.0)
		assert.NotEmpty(t, tasks[0].Batches)
	}
}

// Nothing that hangs comes from nowhere, and nothing is bought twice: of every piece as many are bought or
// made as hang, of all hair that is wound or fed in as much is bought as is used, and each is told once.
func TestMaterialIsConserved(t *testing.T) {
	fedEnds := plantest.Of(func(in *plan.Input) { in.Plaits.Fed = 60 })
	wrapped := plantest.Of(plantest.By(method.CollarAndWrap, hair.SoftLoc))
	house := plantest.Of(plantest.By(method.CollarAndWrap, hair.HandmadeLoc), func(in *plan.Input) {
		in.Customs = map[string]string{plan.Origin: "made"}
	})
	design := plantest.FedIn()
	design.Parting.Design.Rings = 3
	for name, in := range map[string]plan.Input{
		"fed ends": fedEnds, "wrapped": wrapped, "made by house rule": house, "made": made(hair.CordBase), "fed-in design": design,
		"net": plantest.Of(plantest.On(parting.NetCap, parting.Net)), "two colours": plantest.InTwoColours(),
	} {
		sol := plantest.Solve(t, in)
		n, err := need.Of(sol)
		require.NoError(t, err, name)
		hung, wound, fed := map[string]int{}, 0, 0.0
		for i := range sol.Places {
			p := &sol.Places[i]
			hung[in.Pieces[p.Piece].Key] += p.Count
			wound += sol.Works[i].Strands
			fed += sol.FedGrams(p)
		}
		keys := map[string]bool{}
		once := func(key string) {
			assert.False(t, keys[key], "%s: %s is bought twice", name, key)
			keys[key] = true
		}
		for _, p := range n.Pieces {
			once(p.Piece)
			assert.Equal(t, hung[p.Piece], p.OnHead, name)
			assert.GreaterOrEqual(t, p.Order.Units, p.OnHead+p.Fill, name)
			_, byHand := in.Making(in.Piece(p.Piece))
			assert.Equal(t, byHand, p.Made, name)
			assert.Equal(t, byHand, p.Order.Packs == 0, "%s: packs of what is made", name)
			delete(hung, p.Piece)
		}
		assert.Empty(t, hung, "%s: it hangs and is bought nowhere", name)
		woundBought, fedBought, makes := 0, 0, map[string]bool{}
		for _, w := range n.Wraps {
			once(w.Key())
			assert.GreaterOrEqual(t, w.Order.Units, w.Strands, name)
			switch {
			case w.Way != "":
				woundBought += w.Strands
			case w.Piece != "":
				makes[w.Piece] = true
			default:
				fedBought += w.Strands
			}
		}
		assert.Equal(t, wound, woundBought, name)
		assert.InDelta(t, fed, fedBought, 1, name)
		for _, p := range n.Pieces {
			assert.Equal(t, p.Made, makes[p.Piece], name)
		}
		for _, x := range n.Things {
			once(x.Key())
		}
	}
	n, err := need.Of(plantest.Solve(t, design))
	require.NoError(t, err)
	rings := 0
	for _, x := range n.Things {
		if x.Product == plan.Rings {
			rings = x.Count
		}
	}
	assert.Equal(t, 3*12, rings)
	// Twelve braids hang behind, a bundle each.
	for _, p := range n.Pieces {
		if p.Piece == "braid" {
			assert.Equal(t, 12, p.OnHead)
		}
	}
}
