package propose

import (
	"context"
	"math"
	"slices"
	"sync"

	"kladotex/core/attach"
	"kladotex/core/care"
	"kladotex/core/craft"
	"kladotex/core/fall"
	"kladotex/core/hang"
	"kladotex/core/hours"
	"kladotex/core/judge"
	"kladotex/core/method"
	"kladotex/core/need"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/core/wear"
)

// rate lays and rates variants: those that are parted alike hang on one laid head. Groups go to workers.
func (s *search) rate(ctx context.Context, variants []Variant) error {
	type job struct {
		c     *Candidate
		piece candidatePiece
	}
	groups := map[string][]job{}
	var order []string
	for _, v := range variants {
		p := s.pieces[v.Piece]
		c := &Candidate{Variant: v, Input: s.counted(ctx, v, s.input(v, p)), order: len(s.rated)}
		s.rated = append(s.rated, c)
		key := c.Input.LaidAs()
		if groups[key] == nil {
			order = append(order, key)
		}
		groups[key] = append(groups[key], job{c, p})
	}
	s.done.ToLay += len(order)
	err := s.work(ctx, len(order), func(ctx context.Context, k int) {
		jobs := groups[order[k]]
		laid, err := plan.Lay(ctx, jobs[0].c.Input)
		for _, j := range jobs {
			if err != nil { // it cannot be laid on this head
				j.c.Limits = []Limit{{Key: cannot, hard: true, share: 1}}
				continue
			}
			s.rateOne(laid, j.c, j.piece)
		}
	}, func(k int) {
		s.done.Laid++
		s.done.Rated += len(groups[order[k]])
	})
	return err
}

// work does n jobs on as many workers as there are; after each it counts it, one at a time, and tells.
func (s *search) work(ctx context.Context, n int, do func(context.Context, int), count func(int)) error {
	var wait sync.WaitGroup
	var lock sync.Mutex
	next := 0
	for range max(1, s.Workers) {
		wait.Add(1)
		go func() {
			defer wait.Done()
			for {
				lock.Lock()
				k := next
				next++
				lock.Unlock()
				if k >= n || ctx.Err() != nil {
					return
				}
				do(ctx, k)
				lock.Lock()
				count(k)
				s.tell(s.done)
				lock.Unlock()
			}
		}()
	}
	wait.Wait()
	return ctx.Err()
}

// rateOne hangs a candidate on a laid head and says what it comes to.
func (s *search) rateOne(laid *plan.Laid, c *Candidate, p candidatePiece) {
	sol, err := laid.Hang(c.Input)
	if err != nil {
		c.Limits = []Limit{{Key: cannot, hard: true, share: 1}}
		return
	}
	found := judge.Count(sol)
	if lighter, lightened := s.lightened(sol, c.Input, found.Heavy); lightened {
		if again, err := laid.Hang(lighter); err == nil {
			sol, c.Input = again, lighter
			found = judge.Count(sol)
		}
	}
	if err := s.fill(c, p, sol, found); err != nil {
		c.Limits = []Limit{{Key: cannot, hard: true, share: 1}}
	}
}

// fill says what a candidate comes to before it hangs, and holds it against the wish as far as that goes.
func (s *search) fill(c *Candidate, p candidatePiece, sol *plan.Solved, found judge.Counted) error {
	n, err := need.Of(sol)
	if err != nil {
		return err
	}
	f := &c.Facts
	f.Structure, f.SizeMM, f.Piece = c.Input.Parting.Structure, c.Input.Parting.Back.Width, p.Name
	loose := 0
	for i := range sol.Places {
		x := &sol.Places[i]
		switch {
		case x.Ground == method.OnPlait:
			loose++
			if f.Method == "" || x.Way == 0 {
				f.Method = sol.Methods[x.Way].Name
			}
		default:
			f.Hooked += x.Count
			f.Hook = sol.Methods[x.Way].Name
		}
		f.thick += float64(x.Count) * c.Input.Pieces[x.Piece].Thickness
	}
	f.Sections = len(sol.Layout.Sections)
	f.Singles = float64(loose) / float64(max(1, len(sol.Places)))
	s.buy(f, n, p)
	f.Weight = sol.Weight
	if k := len(found.Loads); k > 0 {
		f.Load = found.Loads[min(k-1, 97*k/100)]
	}
	f.Weeks, f.Off = s.weeks(sol), off(sol)
	f.Hands = len(c.Input.Hands())
	f.Minutes = estimate(sol)
	c.Limits = s.limits(c, found, p, sol)
	return nil
}

// buy says what is bought of what a plan takes: hair in hand costs nothing.
func (s *search) buy(f *Figures, n need.Need, p candidatePiece) {
	for _, x := range n.Pieces {
		f.Pieces += x.OnHead + x.Fill
		f.Spares += x.Spares
		if p.lot == nil {
			f.Packs += x.Order.Packs
			f.Cost += x.Order.Cost
			continue
		}
		if missing := x.OnHead + x.Fill - p.lot.Count; missing > 0 && len(p.Offers) > 0 {
			if order, err := supply.Buy(missing, max(1, p.Pack.Yield()), p.Offers); err == nil {
				f.Packs += order.Packs
				f.Cost += order.Cost
			}
		}
	}
	for _, w := range n.Wraps {
		f.Packs += w.Order.Packs
		f.Cost += w.Order.Cost
	}
	for _, t := range n.Things {
		f.Cost += t.Order.Cost
	}
	for _, x := range n.Products {
		f.Cost += x.Cost
	}
}

// weeks are how long a head is worn; a wish is held against it, and does not shorten it.
func (s *search) weeks(sol *plan.Solved) int {
	byWay := map[int]*attach.Attachment{}
	var order []int
	for i := range sol.Places {
		p := &sol.Places[i]
		if byWay[p.Way] == nil {
			byWay[p.Way] = &attach.Attachment{Method: sol.Methods[p.Way].ID, Piece: sol.Input.Pieces[p.Piece].Key, Ground: p.Ground}
			order = append(order, p.Way)
		}
		byWay[p.Way].Places++
	}
	work := make([]attach.Attachment, len(order))
	for k, w := range order {
		work[k] = *byWay[w]
	}
	b := care.Worn(sol, work)
	b.Wish = 0
	return b.Clock(s.Rules, &wear.State{Off: -1}, 0).Planned / 7
}

// off is how long it takes to take all pieces off and to undo what was plaited, minutes.
func off(sol *plan.Solved) float64 {
	sum := 0.0
	for i := range sol.Places {
		pieces, base := hours.Undo(sol, i)
		sum += pieces + base
	}
	for _, t := range hours.BaseTasks(sol) {
		sum += craft.UndoShare * t.Minutes
	}
	if sol.Input.OwnHead {
		sum *= craft.OwnHead
	}
	return sum
}

// estimate is how long a plan takes at the head, its breaks about as long as they will be: sittings are cut only
// for what is hung.
func estimate(sol *plan.Solved) float64 {
	work := hours.Of(sol).Total.Likely
	if hands := sol.Input.Hands(); len(hands) > 1 {
		work *= twoHands
	}
	b := sol.Input.Sittings().Breaks
	if b.After > 0 {
		work += b.Long * math.Floor(work/b.After)
	}
	return work
}

// twoHands is how long two take for what one takes alone, until their sittings are cut. By eye.
const twoHands = 0.62

// lightened is a plan in which the few places that would carry too much carry a lighter piece of the same look, or
// none where there is no lighter one; false where nothing is too heavy, or more than a few places are.
func (s *search) lightened(sol *plan.Solved, in plan.Input, heavy []int) (plan.Input, bool) {
	if len(heavy) == 0 || float64(len(heavy)) > mostLightened*float64(len(sol.Places)) {
		return in, false
	}
	lightest := -1
	for i, p := range s.pieces {
		if p.lot == nil && (lightest < 0 || p.Mass < s.pieces[lightest].Mass) {
			lightest = i
		}
	}
	if lightest < 0 || s.pieces[lightest].Mass >= in.Pieces[0].Mass || s.pieces[lightest].Form != in.Pieces[0].Form || s.pieces[lightest].Thickness > in.Pieces[0].Thickness {
		return in, false
	}
	light := s.pieces[lightest].Piece
	light.Key = "light"
	in.Pieces = append(slices.Clone(in.Pieces), light)
	var at []parting.Direction
	for _, i := range heavy {
		at = append(at, parting.Toward(sol.Head, sol.Places[i].At))
	}
	in.Uses = append(slices.Clone(in.Uses), plan.Use{Where: plan.Where{Kind: plan.AtPlaces, Places: at}, Piece: "light"})
	return in, true
}

// mostLightened is the share of the places that are lightened one by one: more of them is another plan.
const mostLightened = 0.06

// hang drapes candidates, cuts their sittings, and holds them against the wish once more.
func (s *search) hang(ctx context.Context, list []*Candidate) error {
	s.done.ToHang += len(list)
	errs := make([]error, len(list))
	err := s.work(ctx, len(list), func(ctx context.Context, k int) { errs[k] = s.hangOne(ctx, list[k]) }, func(int) { s.done.Draped++ })
	if err != nil {
		return err
	}
	for _, err := range errs {
		if err != nil {
			return err
		}
	}
	return nil
}

func (s *search) hangOne(ctx context.Context, c *Candidate) error {
	sol, err := plan.Attempt(ctx, c.Input)
	if err != nil {
		return err
	}
	return s.drape(ctx, c, s.pieces[c.Variant.Piece], sol)
}

// drape says what a candidate comes to once it hangs and its sittings are cut, and holds it against the whole wish.
func (s *search) drape(ctx context.Context, c *Candidate, p candidatePiece, sol *plan.Solved) error {
	f := &c.Facts
	day, err := hours.DayOf(sol)
	if err != nil {
		return err
	}
	f.Minutes, f.Sittings, f.Longest = day.Sum(), len(day.Sittings), 0
	for _, x := range day.Sittings {
		f.Longest = max(f.Longest, x.Minutes)
	}
	style := s.wish.Style
	if style == "" {
		style = fall.Down
	}
	drape, err := hang.Of(ctx, sol, fall.Down)
	if err != nil {
		return err
	}
	f.Bare, f.Shows = bare(sol, drape), tracks(drape)
	ends := make([]float64, len(drape.Pieces))
	for i, p := range drape.Pieces {
		ends[i] = p.Ends
	}
	lands := fall.Landed(ends)
	f.Lands = lands.Line
	f.Full = drape.Shoulder.Layers
	if shoulder, _ := fall.LineOf("shoulder"); lands.Middle > shoulder.Share-0.02 { // it hardly comes down there
		f.Full = drape.Chin.Layers
	}
	if style != fall.Down {
		tied, err := hang.Of(ctx, sol, style)
		if err != nil {
			return err
		}
		f.Shows = max(f.Shows, tracks(tied))
	}
	if line, wished := fall.LineOf(s.wish.To); wished {
		p.short = (lands.Middle - line.Share) * drape.Stature
	}
	c.hung = true
	c.Limits = s.limits(c, judge.Count(sol), p, sol)
	return nil
}

// bare is the share of the scalp that shows in spots large enough to be noticed.
func bare(sol *plan.Solved, d hang.Drape) float64 {
	spots, each := fall.Scalp(sol.Head, scalpPlaces)
	area := 0.0
	for _, x := range d.Cover.Shows {
		if x.Kind == "scalp" {
			area += x.Area
		}
	}
	return area / (float64(len(spots)) * each)
}

// scalpPlaces is by how many places the scalp is measured.
const scalpPlaces = 240

// tracks is how much cornrow shows, mm.
func tracks(d hang.Drape) (mm float64) {
	for _, x := range d.Cover.Shows {
		if x.Kind == "track" {
			mm += x.Length
		}
	}
	return mm
}
