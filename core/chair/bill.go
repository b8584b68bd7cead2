package chair

import "slices"

// Line is what an install took of one need of its plan, counted as it is sold.
type Line struct {
	// Key names the need inside the plan, Item is the id of the item of the supplies; empty for one that
	// is not in them.
	Key, Item, Colour string
	Name              string // with the colour
	Used, Spoilt      int
}

// Bill is everything an install took: the pieces that hang, those filled in and those spoilt, and the
// goods at the places that are done. Needs that took nothing are left out. What is cut from
// one as sold counts as a whole one.
func (s *State) Bill() []Line {
	type count struct {
		Line
		per, used, spoilt int
	}
	var all []count
	add := func(l Line, per, used, spoilt int) {
		k := slices.IndexFunc(all, func(c count) bool { return c.Key == l.Key })
		if k < 0 {
			k = len(all)
			all = append(all, count{Line: l, per: max(1, per)})
		}
		all[k].used += used
		all[k].spoilt += spoilt
	}
	for _, p := range s.packs() {
		of := s.Pieces[p.Piece]
		add(Line{Key: of.Key, Item: of.Item, Colour: of.Colour, Name: of.Called()}, of.Per, p.Used-p.Spoilt, p.Spoilt)
	}
	for i := range s.places {
		p := &s.places[i]
		if p.attach < 0 || s.tasks[p.attach].status != Closed {
			continue
		}
		for _, w := range p.With {
			g := s.Goods[w.Good]
			add(Line{Key: g.Key, Item: g.Item, Colour: g.Colour, Name: called(g.Name, g.Colour)}, g.Per, w.Count, 0)
		}
	}
	var out []Line
	for _, c := range all {
		sold := func(n int) int { return (n + c.per - 1) / c.per }
		c.Line.Used = sold(c.used)
		c.Line.Spoilt = sold(c.used+c.spoilt) - c.Line.Used
		if c.Line.Used+c.Line.Spoilt > 0 {
			out = append(out, c.Line)
		}
	}
	return out
}
