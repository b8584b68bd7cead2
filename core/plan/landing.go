package plan

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"

	"kladotex/core/fall"
	"kladotex/core/invalid"
	"kladotex/core/parting"
)

// Trim is how the ends of a head are cut once all hang.
type Trim struct {
	Shape fall.Shape `json:"shape" enum:"blunt,layers,bob"`
	// Line is the body line the ends are cut to.
	Line string `json:"line" enum:"chin,shoulder,armpit,mid-back,waist,hip"`
}

func (t Trim) check(bad *invalid.Errors, path string) {
	invalid.OneOf(bad, path+"shape", "The shape of the cut", t.Shape, fall.Shapes)
	keys := make([]string, len(fall.Lines))
	for i, l := range fall.Lines {
		keys[i] = l.Key
	}
	invalid.OneOf(bad, path+"line", "The line of the cut", t.Line, keys)
}

// trimmed is how the ends are cut; nothing where they stay as they come.
func (in Input) trimmed() Trim {
	if in.Trim == nil {
		return Trim{}
	}
	return *in.Trim
}

// Landings say where the ends of a plan's pieces land, and what would make them land
// elsewhere.
type Landings struct {
	Stature float64      `json:"statureMm"`
	Asked   bool         `json:"asked" doc:"False where nobody said the height and a usual one was taken"`
	All     fall.Landing `json:"all"`
	// Rows are from the lowest behind to the highest in front, as they are worked.
	Rows []RowLanding `json:"rows"`
	// Lines are the body lines with the lengths that reach them, from the top.
	Lines []LineReach `json:"lines"`
}

// RowLanding is where the pieces of one row end.
type RowLanding struct {
	Name   string       `json:"name"`
	Front  bool         `json:"front"`
	Pieces int          `json:"pieces"`
	Lands  fall.Landing `json:"lands"`
	// Drawn are its pieces, as indices into those of the [Drape].
	Drawn []int `json:"drawn"`
	// Guide is the length of the row's guide piece when cut, as it hangs; Shortest and
	// Longest are what a cut exact at every piece would make of it. 0 without a cut.
	Guide    float64 `json:"guideMm"`
	Shortest float64 `json:"shortestMm"`
	Longest  float64 `json:"longestMm"`
	// Off is what is cut off the guide piece; negative where the piece does not come down
	// to the line.
	Off float64 `json:"offMm" doc:"What is cut off; below zero the piece falls short by so much"`
}

// LineReach is the length, as pieces are sold, whose ends come down to a body line.
type LineReach struct {
	fall.BodyLine
	// First is that at which the first end touches it, Half half of them, All every one.
	First float64 `json:"firstMm"`
	Half  float64 `json:"halfMm"`
	All   float64 `json:"allMm"`
}

// LandingsOf says where the ends of a plan land. The error is that of [Compute].
func LandingsOf(ctx context.Context, in Input) (Landings, error) {
	w, err := in.resolved(ctx, parting.Lay)
	if err != nil {
		return Landings{}, err
	}
	return w.landings(ctx)
}

func (w *worked) landings(ctx context.Context) (Landings, error) {
	h := w.hang()
	reach, err := h.wearer.Reach(ctx, h.pieces)
	if err != nil {
		return Landings{}, err
	}
	whole := make([]float64, len(h.pieces)) // lengths before any is cut
	for i, p := range h.pieces {
		whole[i] = p.Length
	}
	cuts := w.cutTo(h, reach)
	paths, err := h.wearer.Hang(ctx, h.pieces, fall.Down)
	if err != nil {
		return Landings{}, err
	}
	out := Landings{Rows: []RowLanding{}, Lines: make([]LineReach, len(fall.Lines))}
	out.Stature, out.Asked = w.in.Wearing()
	all := make([]float64, len(paths))
	for i, p := range paths {
		all[i] = h.wearer.Share(p.End().Z)
	}
	for k, row := range h.rows {
		if len(row.pieces) == 0 {
			continue
		}
		ends := make([]float64, len(row.pieces))
		longest, count := 0.0, 0
		for n, i := range row.pieces {
			ends[n] = all[i]
			count += h.list[i].count
			longest = max(longest, whole[i])
		}
		r := RowLanding{Name: row.name, Front: row.front, Pieces: count, Lands: fall.Landed(ends), Drawn: row.pieces}
		if cuts != nil {
			c := cuts[k]
			r.Guide, r.Shortest, r.Longest = finite(c.guide), finite(c.shortest), finite(c.longest)
			r.Off = longest - r.Guide
		}
		out.Rows = append(out.Rows, r)
	}
	out.All = fall.Landed(all)
	// As sold: lengths that hang are longer before they spring up.
	sold := make([]float64, len(h.pieces))
	for i, x := range h.list {
		sold[i] = w.in.Pieces[x.piece].Length / max(1, whole[i])
	}
	for k, line := range fall.Lines {
		need := make([]float64, 0, len(h.pieces))
		for i := range h.pieces {
			if mm := reach.At(i, line.Share); !math.IsInf(mm, 0) {
				need = append(need, mm*sold[i])
			}
		}
		slices.Sort(need)
		out.Lines[k] = LineReach{line, finite(fall.Quantile(need, 0)), finite(fall.Quantile(need, 0.5)), finite(fall.Quantile(need, 1))}
	}
	return out, nil
}

// rowCut is what a cut makes of a row, lengths as it hangs, mm.
type rowCut struct{ guide, shortest, longest float64 }

// trim cuts what hangs as the plan says, every row to its guide piece.
func (w *worked) trim(ctx context.Context, h *hanging) error {
	if w.in.Trim == nil {
		return nil
	}
	reach, err := h.wearer.Reach(ctx, h.pieces)
	if err != nil {
		return err
	}
	w.cutTo(h, reach)
	return nil
}

// cutTo cuts every row to its guide piece and gives what was cut; nil where nothing is.
func (w *worked) cutTo(h *hanging, reach fall.Reach) []rowCut {
	if w.in.Trim == nil {
		return nil
	}
	line, _ := fall.LineOf(w.in.Trim.Line) // checked
	low, high := math.Inf(1), math.Inf(-1)
	for _, row := range h.rows {
		low, high = min(low, row.height), max(high, row.height)
	}
	cuts := make([]rowCut, len(h.rows))
	for k, row := range h.rows {
		rank := (row.height - low) / max(1, high-low)
		each := make([]float64, 0, len(row.pieces))
		for _, i := range row.pieces {
			facing := max(0, min(1, 1.6*h.pieces[i].Root.X))
			each = append(each, reach.At(i, w.in.Trim.Shape.Ends(line.Share, rank, facing)))
		}
		slices.Sort(each)
		cuts[k] = rowCut{fall.Quantile(each, 0.5), fall.Quantile(each, 0), fall.Quantile(each, 1)}
		for _, i := range row.pieces {
			h.pieces[i].Length = min(h.pieces[i].Length, max(leastCut, cuts[k].guide))
		}
	}
	return cuts
}

// leastCut is the shortest a piece is cut, mm.
const leastCut = 25.0

// CutWords says how the ends are cut, in a sentence.
func (in Input) CutWords() string {
	if in.Trim == nil {
		return "The ends stay as they come."
	}
	line, _ := fall.LineOf(in.Trim.Line)
	name := strings.ToLower(line.Name)
	switch in.Trim.Shape {
	case fall.Layers:
		return fmt.Sprintf("Layers: the lowest row ends at the %s, each row above it higher.", name)
	case fall.Bob:
		return fmt.Sprintf("A rounded bob to the %s: the outer rows end there, those beneath a little above, and it lengthens to the face.", name)
	}
	return fmt.Sprintf("One blunt line at the %s.", name)
}
