package parting

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/scalp"
)

// hooked are the pieces of a base on the left, on the right and on the middle of the head.
func hooked(l Layout) (left, right, middle int) {
	count := func(at scalp.Line) {
		for _, p := range at {
			switch {
			case p[1] > 1:
				left++
			case p[1] < -1:
				right++
			default:
				middle++
			}
		}
	}
	for _, x := range l.Cornrows {
		count(x.Hooks)
	}
	for _, n := range l.Nets {
		count(n.Hooks)
	}
	return left, right, middle
}

// bases are the ways a base can be laid behind the ear-to-ear part.
func bases() map[string]Settings {
	out := map[string]Settings{}
	for _, structure := range []Structure{EarToEar, Horseshoe, PartLine, Perimeter, NetCap, FrontDesign} {
		for _, run := range Runs {
			s := both(Brick, square(1), square(1)).On(structure)
			if s.Base.MergeInto > 0 && run != StraightBack {
				continue
			}
			if s.Base.Run = run; run == Diagonal {
				s.Base.Cornrows = 6
			}
			out[fmt.Sprint(structure, " ", run)] = s
		}
	}
	mixed := both(Brick, square(1), square(1)).On(PartLine)
	mixed.Grounds = []OwnBase{{Part: BaseSides, Kind: Net, Run: StraightBack, Cornrows: 2, Tails: Tucked}}
	out["net at the sides, cornrows behind"] = mixed
	return out
}

// As many pieces are hooked on a base as were wished, exactly, whatever it is; as many on the
// left as on the right, but for an odd one where nothing lies on the middle.
func TestHooksMeetTheirCount(t *testing.T) {
	h := average(t)
	for name, s := range bases() {
		for _, want := range []int{20, 41, 60, 80, 120, 133} {
			s.Base.Hooks = want
			l, err := Lay(context.Background(), h, s)
			require.NoError(t, err, name)
			left, right, middle := hooked(l)
			assert.Equal(t, want, left+right+middle, name)
			if odd := want%2 + middle%2; odd == 0 {
				assert.Equal(t, left, right, "%s, %d", name, want)
			} else {
				assert.InDelta(t, left, right, 1, "%s, %d", name, want)
			}
		}
	}
}

// A count is spread evenly: cornrows of one head carry pieces by their length, within a piece or
// so, and half the pieces stand twice as far apart.
func TestACountIsSpreadEvenly(t *testing.T) {
	h := average(t)
	s := both(Brick, square(1), square(1)).On(EarToEar)
	at := func(n int) Layout {
		s.Base.Hooks = n
		l, err := Lay(context.Background(), h, s)
		require.NoError(t, err)
		return l
	}
	full, light := at(120), at(60)
	assert.InEpsilon(t, 2*full.Spacing, light.Spacing, 1e-9)
	for _, x := range full.Cornrows {
		assert.InDelta(t, 120*x.Length/full.CornrowLength(), float64(len(x.Hooks)), 1.5, x.ID)
	}
	free := s
	free.Base.Hooks = 0
	l, err := Lay(context.Background(), h, free)
	require.NoError(t, err)
	assert.Equal(t, free.spacing(), l.Spacing)
	s.Base.Hooks = l.Hooks()
	same, err := Lay(context.Background(), h, s)
	require.NoError(t, err)
	for i := range l.Cornrows {
		assert.Equal(t, l.Cornrows[i].Hooks, same.Cornrows[i].Hooks, "as many as the distance gives is the same head")
	}
}

// Pieces stand close where that is wished and airy elsewhere, with the number kept.
func TestHooksFollowTheDistanceWished(t *testing.T) {
	h := average(t)
	for name, s := range bases() {
		s.Base.Hooks = 90
		l, err := Lay(context.Background(), h, s)
		require.NoError(t, err)
		low := func(at scalp.Point) bool { return at[2] < 0 }
		below := func(l Layout) (n int) {
			for _, x := range l.Cornrows {
				for _, p := range x.Hooks {
					if low(p) {
						n++
					}
				}
			}
			for _, x := range l.Nets {
				for _, p := range x.Hooks {
					if low(p) {
						n++
					}
				}
			}
			return n
		}
		dense := l.Hooked(t.Context(), h, Hooking{Count: 90, Apart: func(_ Zone, at scalp.Point) float64 {
			if low(at) {
				return 0.5
			}
			return 1.5
		}})
		assert.Equal(t, 90, dense.Hooks(), name)
		assert.Greater(t, float64(below(dense)), 1.3*float64(below(l)), name)
	}
}
