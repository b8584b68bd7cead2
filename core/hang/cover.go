package hang

import (
	"context"
	"fmt"
	"math"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"kladotex/core/fall"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/core/words"
)

// Cover is what shows of scalp and cornrows under the hair.
type Cover struct {
	// Bare is the share of the scalp no piece lies over; the parts are in it.
	Bare float64 `json:"bare" doc:"Share of the scalp no piece lies over, parts among it"`
	// Shows are cornrows and thin spots that will show, the largest first.
	Shows []Showing `json:"shows"`
}

// Showing is a stretch of cornrow or scalp that will show.
type Showing struct {
	Kind string `json:"kind" enum:"track,scalp"`
	// Name says what shows and about where.
	Name string `json:"name"`
	// Length of a cornrow, Area of scalp; the other is 0.
	Length float64    `json:"lengthMm"`
	Area   float64    `json:"areaMm2"`
	Points scalp.Line `json:"points" doc:"Where, to be marked"`
	// Fill are places at which a piece each covers it; none while the hair is tied, where
	// filling does not help.
	Fill   []parting.Direction `json:"fill"`
	Remedy string              `json:"remedy"`
}

const (
	// cornrowStep is the distance of the places at which a cornrow is looked at, mm.
	cornrowStep = 5.0
	// cornrowSlack and scalpSlack are how far beside its own width a piece still hides a cornrow,
	// and scalp, mm: hair does not hang still. By eye; at less all parts join into one spot.
	cornrowSlack, scalpSlack = 2.0, 8.0
	// partSlack is that by which the bare share is told: it counts the parts.
	partSlack = 3.0
	// leastShowing is the shortest stretch of cornrow that anybody notices, mm: about an inch and
	// a half; leastGaps is the share of it that must be bare, the rest being single pieces
	// across it. leastSpot is the least scalp that anybody notices, mm². By eye.
	leastShowing = 38.0
	leastGaps    = 0.3
	leastSpot    = 350.0
	// scalpPlaces is at how many places the scalp is looked at: about one to 25 mm².
	scalpPlaces = 2400
	// partWidth is how far beside the part line scalp is meant to show, mm.
	partWidth = 14.0
	// mostShown bounds the list: who has more has no cover at all.
	mostShown = 40
)

// cover reads what shows under hair that hangs so.
func cover(ctx context.Context, sol *plan.Solved, h *hanging, paths []fall.Path, style fall.Style) (Cover, error) {
	c := Cover{Shows: []Showing{}}
	cornrows, err := cornrowsShowing(ctx, sol, h, paths)
	if err != nil {
		return Cover{}, err
	}
	places, each := fall.Scalp(sol.Head, scalpPlaces)
	scalpShows, bare, err := scalpShowing(ctx, sol, h, paths, places, each)
	if err != nil {
		return Cover{}, err
	}
	c.Bare = bare
	thick := sol.Input.Piece(sol.Input.Fill.Piece).Thickness
	room := plan.MaxFill - len(sol.Input.Fill.At)
	for _, s := range paired(sol, append(cornrows, scalpShows...)) {
		if len(c.Shows) == mostShown {
			break
		}
		s.Fill = []parting.Direction{}
		s.Remedy = "It shows while the hair is up: leave the lower rows as individuals, or wear it down."
		if style == fall.Down {
			slack := scalpSlack
			if s.Kind == onCornrow {
				slack = cornrowSlack
			}
			roots, err := h.wearer.FillFor(ctx, vectors(s.Points), thick, slack, room)
			if err != nil {
				return Cover{}, err
			}
			for _, r := range roots {
				s.Fill = append(s.Fill, parting.Direction{r.X, r.Y, r.Z})
			}
			s.Remedy = fmt.Sprintf("Fill here: %s.", words.Count(len(roots), "piece"))
		}
		c.Shows = append(c.Shows, s)
	}
	return c, nil
}

// The kinds of what shows.
const (
	onCornrow = "track"
	onScalp   = "scalp"
)

// cornrowsShowing are the stretches of cornrows that no piece hides.
func cornrowsShowing(ctx context.Context, sol *plan.Solved, h *hanging, paths []fall.Path) ([]Showing, error) {
	var places []r3.Vec
	var of []int // the cornrow of each
	for k := range sol.Layout.Cornrows {
		t := &sol.Layout.Cornrows[k]
		if len(t.Hooks) == 0 {
			continue // a decorative cornrow is there to be seen
		}
		for _, p := range along(t.Line, cornrowStep) {
			places, of = append(places, p), append(of, k)
		}
	}
	found, err := h.wearer.Cover(ctx, h.pieces, paths, places, cornrowSlack)
	if err != nil {
		return nil, err
	}
	cover := found[0]
	across := 0.0 // of a single piece with what it hides beside it
	for _, p := range h.pieces {
		across = max(across, p.Thickness+2*cornrowSlack)
	}
	var out []Showing
	for _, run := range gaps(cover, of, int(across/cornrowStep)+1) {
		mm, bare := cornrowStep*float64(run.to-run.from), places[run.from:run.to:run.to]
		if mm < leastShowing || run.bare < leastGaps {
			continue
		}
		var shown []r3.Vec
		for k, p := range bare {
			if cover[run.from+k] == 0 {
				shown = append(shown, p)
			}
		}
		t := &sol.Layout.Cornrows[of[run.from]]
		out = append(out, Showing{
			Kind: onCornrow, Length: mm, Points: points(shown),
			Name: parting.CornrowName(parting.CornrowsBehind.Name(), t.ID) + " shows",
		})
	}
	return out, nil
}

// paired joins what shows alike on both sides, and says where.
func paired(sol *plan.Solved, shows []Showing) []Showing {
	var out []Showing
	used := make([]bool, len(shows))
	for i, s := range shows {
		if used[i] {
			continue
		}
		middle := middleOf(s.Points)
		where := parting.Toward(sol.Head, middle).Name()
		for j := i + 1; j < len(shows); j++ {
			other := middleOf(shows[j].Points)
			if !used[j] && shows[j].Kind == s.Kind && math.Abs(middle[1]) > plan.TwinReach &&
				scalp.Apart(scalp.Point{middle[0], -middle[1], middle[2]}, other) < plan.TwinReach {
				used[j] = true
				s.Length += shows[j].Length
				s.Area += shows[j].Area
				s.Points = append(s.Points, shows[j].Points...)
				where = strings.TrimSuffix(strings.TrimSuffix(where, " left"), " right") + ", both sides"
				break
			}
		}
		s.Name += " " + where
		out = append(out, s)
	}
	return out
}

func middleOf(line scalp.Line) (m scalp.Point) {
	for _, p := range line {
		for k := range m {
			m[k] += p[k] / float64(len(line))
		}
	}
	return m
}

// gap is a run of places that are bare, except for single pieces across it.
type gap struct {
	from, to int
	bare     float64 // share of its places
}

// gaps are the runs of places with no cover on one cornrow each; up to across covered ones
// between two bare ones do not end a run.
func gaps(cover, of []int, across int) []gap {
	var out []gap
	for i := 0; i < len(cover); i++ {
		if cover[i] > 0 {
			continue
		}
		bare, last := 1, i
		for j := i + 1; j < len(cover) && of[j] == of[i] && j-last <= across+1; j++ {
			if cover[j] == 0 {
				bare++
				last = j
			}
		}
		out = append(out, gap{i, last + 1, float64(bare) / float64(last+1-i)})
		i = last
	}
	return out
}

// scalpShowing are the thin spots, and the share of the scalp that is bare. Scalp along the
// part line is meant to show.
func scalpShowing(ctx context.Context, sol *plan.Solved, h *hanging, paths []fall.Path, places []r3.Vec, each float64) ([]Showing, float64, error) {
	found, err := h.wearer.Cover(ctx, h.pieces, paths, places, partSlack, scalpSlack)
	if err != nil {
		return nil, 0, err
	}
	bare := 0
	for _, n := range found[0] {
		if n == 0 {
			bare++
		}
	}
	far := found[1]
	isBare := func(i int) bool {
		return far[i] == 0 && sol.Layout.PartLine.From(scalp.Point{places[i].X, places[i].Y, places[i].Z}) > partWidth
	}
	var out []Showing
	for _, s := range fall.Spots(places, isBare, each) {
		if s.Area < leastSpot {
			continue
		}
		at := make([]r3.Vec, len(s.Places))
		for k, i := range s.Places {
			at[k] = places[i]
		}
		out = append(out, Showing{Kind: onScalp, Area: s.Area, Points: points(at), Name: groundAt(sol, at[len(at)/2]) + " shows"})
	}
	return out, float64(bare) / float64(max(1, len(places))), nil
}

// groundAt says what lies bare at a place.
func groundAt(sol *plan.Solved, p r3.Vec) string {
	if sol.HasBase() && sol.Layout.At(sol.Head, parting.Toward(sol.Head, points([]r3.Vec{p})[0])) < 0 {
		return "The base between the pieces"
	}
	return "Scalp"
}

// along are places on a line at even steps, mm.
func along(line scalp.Line, step float64) []r3.Vec {
	at := vectors(line)
	var out []r3.Vec
	carried := step / 2
	for i := 1; i < len(at); i++ {
		d := r3.Sub(at[i], at[i-1])
		mm := r3.Norm(d)
		for ; carried < mm; carried += step {
			out = append(out, r3.Add(at[i-1], r3.Scale(carried/mm, d)))
		}
		carried -= mm
	}
	return out
}

func vectors(line scalp.Line) []r3.Vec {
	out := make([]r3.Vec, len(line))
	for i, p := range line {
		out[i] = r3.Vec{X: p[0], Y: p[1], Z: p[2]}
	}
	return out
}

func points(at []r3.Vec) scalp.Line {
	out := make(scalp.Line, len(at))
	for i, p := range at {
		out[i] = scalp.Point{p.X, p.Y, p.Z}
	}
	return out
}

// finite is v, or 0 for one that is no number.
func finite(v float64) float64 {
	if math.IsInf(v, 0) || math.IsNaN(v) {
		return 0
	}
	return v
}
