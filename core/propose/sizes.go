package propose

import (
	"context"
	"fmt"
	"math"

	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/need"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/scalp"
)

// spokenSizes are the sizes that one word may mean. Common practice, no source.
var spokenSizes = []struct {
	mm   float64
	says string
}{{inch, "Medium, as most mean it"}, {1.25 * inch, "Medium, as some mean it"}}

// sizes are counts and packs all over for heads that were not measured.
func (s *search) sizes(ctx context.Context) ([]SizeRange, error) {
	out := []SizeRange{}
	if len(s.pieces) == 0 {
		return out, nil
	}
	count := func(size float64, tapes scalp.Tapes) (OnHead, error) {
		p := s.pieces[0]
		in := s.input(Variant{Base: parting.AllIndividuals, Pattern: parting.Brick, Size: size, Method: s.methods(p.Form)[0], Hook: method.CornrowHitch}, p)
		in.Head, in.Hairline = tapes, scalp.Hairline{}
		sol, err := plan.Attempt(ctx, in)
		if err != nil {
			return OnHead{}, err
		}
		n, err := need.Of(sol)
		if err != nil {
			return OnHead{}, err
		}
		h := OnHead{Sections: len(sol.Layout.Sections)}
		for _, x := range n.Pieces {
			h.Packs += x.Order.Packs
		}
		return h, nil
	}
	for _, spoken := range spokenSizes {
		r := SizeRange{SizeMM: spoken.mm, Says: spoken.says, On: []OnHead{}}
		var average scalp.Tapes
		for _, preset := range scalp.Presets() {
			switch preset.Name {
			case "Average":
				average = preset.Tapes
			case "Petite", "Large":
			default:
				continue
			}
			h, err := count(spoken.mm, preset.Tapes)
			if err != nil {
				return nil, err
			}
			h.Head = preset.Name
			r.On = append(r.On, h)
		}
		tape, err := s.widestTape(average, func(t scalp.Tapes) (int, error) {
			h, err := count(spoken.mm, t)
			return h.Sections, err
		})
		if err != nil {
			return nil, err
		}
		r.Tape = tape
		out = append(out, r)
	}
	return out, nil
}

// widestTape says which of the three tapes changes a count most when it is an inch off.
func (s *search) widestTape(from scalp.Tapes, count func(scalp.Tapes) (int, error)) (string, error) {
	best, most := "", 0.0
	for _, t := range []struct {
		name string
		add  func(*scalp.Tapes)
	}{
		{"around the head", func(t *scalp.Tapes) { t.Circumference += inch }},
		{"front to nape", func(t *scalp.Tapes) { t.FrontToNape += inch }},
		{"ear to ear", func(t *scalp.Tapes) { t.EarToEar += inch }},
	} {
		off := from
		t.add(&off)
		was, err := count(from)
		if err != nil {
			return "", err
		}
		now, err := count(off)
		if err != nil {
			continue // no such head
		}
		if by := math.Abs(float64(now - was)); by > most {
			best, most = t.name, by
		}
	}
	if best == "" {
		return "", nil
	}
	return fmt.Sprintf("The tape %s changes it most: %s off are about %.0f sections.", best, invalid.Length(inch), most), nil
}
