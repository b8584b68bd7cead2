package propose

import (
	"kladotex/core/craft"
	"kladotex/core/method"
	"kladotex/core/plan"
	"kladotex/core/wish"
)

// customary is the wish on a head, with what is customary where nothing was said. What it wishes beyond what such a
// head bears is brought down to that.
func customary(w wish.Wanted, in plan.Input) wish.Wanted {
	if w.Minutes == 0 {
		switch {
		case in.Child:
			w.Minutes = craft.ChildDay
		case in.OwnHead:
			w.Minutes = craft.OwnDay
		default:
			w.Minutes = craft.ClientDay
		}
	}
	if w.Sitting == 0 && in.Child {
		w.Sitting = craft.ChildSitting
	}
	if w.Weeks == 0 {
		w.Weeks = craft.LastsWeeks
	}
	if in.Child {
		w.Weeks = min(w.Weeks, craft.ChildWeeks)
	}
	if w.Water == "" {
		w.Water = method.Roots
	}
	if w.Cornrow == "" && in.Wish().NoCornrows {
		w.Cornrow = wish.No
	}
	return w
}
