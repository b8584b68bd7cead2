package propose

import (
	"context"

	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/scalp"
)

// counted is the plan of a variant made to carry the pieces that are in hand, if that can be: all over by the size
// of its sections, else by how many are hooked on the base beside them. Parts that were fitted once are kept.
func (s *search) counted(ctx context.Context, v Variant, in plan.Input) plan.Input {
	if v.Count == 0 {
		return in
	}
	key := v
	key.Method, key.Lighter, key.Hook, key.Apart = "", "", "", 0
	if v.Base == parting.AllIndividuals {
		key.Size = 0
	}
	fitted, have := s.fitted[key]
	if !have {
		fitted = fitCount(ctx, v, in)
		if s.fitted == nil {
			s.fitted = map[Variant]parting.Settings{}
		}
		s.fitted[key] = fitted
	}
	in.Parting = fitted
	return in
}

// The fewest and the most pieces that are hooked to come to a number.
const fewestHooks, mostHooks = 12, 300

func fitCount(ctx context.Context, v Variant, in plan.Input) parting.Settings {
	head, err := scalp.FitWith(in.Head, in.Hairline)
	if err != nil {
		return in.Parting // it is refused where it is laid
	}
	if v.Base == parting.AllIndividuals {
		fitted, err := parting.FitCount(ctx, head, in.Parting, parting.Count{Total: v.Count})
		if err != nil || len(fitted) == 0 {
			return in.Parting
		}
		return fitted[0].Settings
	}
	laid, err := plan.Attempt(ctx, in)
	if err != nil {
		return in.Parting
	}
	loose := 0
	for _, p := range laid.Places {
		if p.Section >= 0 && p.Count > 0 {
			loose++
		}
	}
	if n := v.Count - loose; n >= fewestHooks && n <= mostHooks && laid.HasBase() && laid.Layout.Hooks() > 0 {
		in.Parting.Base.Hooks = n
	}
	return in.Parting
}
