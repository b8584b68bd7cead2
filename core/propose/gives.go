package propose

import (
	"context"
	"fmt"
	"math"
	"slices"

	"kladotex/core/invalid"
	"kladotex/core/wish"
	"kladotex/core/words"
)

const (
	mostGives = 4
	perSet    = 4
	mostSets  = 16
)

// gives are the smallest changes of the wish that would do, none of which contains another.
func (s *search) gives(ctx context.Context) ([]Give, error) {
	all := s.possible()
	slices.SortStableFunc(all, byMiss)
	// The nearest few of every set of limits are hung, if they are not yet.
	count := map[string]int{}
	var hang []*Candidate
	for _, c := range all {
		key := setOf(c)
		if count[key] == 0 && len(count) == mostSets {
			continue
		}
		if count[key]++; count[key] <= perSet && !c.hung {
			hang = append(hang, c)
		}
	}
	if err := s.hang(ctx, hang[:min(len(hang), mostHung/2)]); err != nil {
		return nil, err
	}
	hung := slices.DeleteFunc(s.possible(), func(c *Candidate) bool { return !c.hung })
	slices.SortStableFunc(hung, byMiss)
	out := []Give{}
	var kept []*Candidate
	for _, c := range hung {
		if len(out) == mostGives || slices.ContainsFunc(kept, func(k *Candidate) bool { return contains(c, k) }) {
			continue
		}
		kept = append(kept, c)
		says, wish := s.giving(c)
		out = append(out, Give{Says: says, Wish: wish, Title: c.title(), Facts: c.Facts, Input: c.Input})
	}
	return out, nil
}

// setOf names the limits a candidate breaks.
func setOf(c *Candidate) (key string) {
	keys := make([]string, len(c.Limits))
	for i, l := range c.Limits {
		keys[i] = l.Key
	}
	slices.Sort(keys)
	return fmt.Sprint(slices.Compact(keys))
}

// contains tells whether one breaks all that another one breaks.
func contains(c, other *Candidate) bool {
	for _, l := range other.Limits {
		if !slices.ContainsFunc(c.Limits, func(x Limit) bool { return x.Key == l.Key }) {
			return false
		}
	}
	return true
}

// giving is the wish that a candidate meets, and in words what was changed.
func (s *search) giving(c *Candidate) (says string, w wish.Wanted) {
	w = s.wish
	f := c.Facts
	var parts []string
	for _, l := range c.Limits {
		switch l.Key {
		case byHours:
			more := 15 * math.Ceil((f.Minutes-w.Minutes)/15)
			w.Minutes += more
			parts = append(parts, words.Minutes(more)+" more")
		case bySitting:
			w.Sitting = 15 * math.Ceil(f.Longest/15)
			parts = append(parts, "a sitting of "+words.Minutes(w.Sitting))
		case bySittings:
			w.Sittings = f.Sittings
			parts = append(parts, words.Count(f.Sittings, "sitting"))
		case byMoney, byStock:
			w.Money, w.Nothing = max(w.Money, f.Cost), false
			if l.Key == byMoney {
				parts = append(parts, words.Count(f.Packs, "pack")+" bought")
			} else {
				parts = append(parts, l.Says)
			}
		case byWeeks:
			w.Weeks = f.Weeks
			parts = append(parts, words.Count(f.Weeks, "week")+" worn")
		case byOff:
			w.Off = 15 * math.Ceil(f.Off/15)
			parts = append(parts, words.Minutes(w.Off)+" to take it off")
		case byLength:
			parts = append(parts, invalid.Length(l.By)+" shorter")
			if f.Lands != "" && f.Lands != "ear" {
				w.To = f.Lands
			}
		case byFullness:
			if w.Full = wish.Airy; f.Full >= wish.Layers[wish.Usual] {
				w.Full = wish.Usual
			}
			parts = append(parts, "less full")
		case byCover:
			parts = append(parts, l.Says)
		}
	}
	return words.Sentence(words.List(slices.Compact(parts))), w
}
