package plan

import (
	"fmt"
	"slices"
	"strings"

	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plait"
)

// Attachment is how one piece goes on in one way on one ground, at all its places.
type Attachment struct {
	Way    string        `json:"way" doc:"Key of the way"`
	Method method.ID     `json:"method" enum:"L1,L2,L3,L4,L5,L6,W1,W2,W3,W4,W5,T1,T2,T3,B1,B2"`
	Piece  string        `json:"piece" doc:"Key of the piece"`
	Ground method.Ground `json:"ground" enum:"plait,tracks,net,linked"`
	Places int           `json:"places"`
	Pieces int           `json:"pieces"`
	// Plait, Thickness, Passes, Ribbon, Turns, Strands and Conceal are the least and the
	// most of its places.
	Plait     Between       `json:"plaitMm" doc:"Length of the plaits to hide, mm"`
	Thickness Between       `json:"thicknessMm" doc:"Thickness of the plaits, mm"`
	Passes    Between       `json:"passes" doc:"Draws through the piece; 0 unless the method weaves"`
	Ribbon    Between       `json:"ribbonMm" doc:"Wrapping hair for one place, mm; 0 unless the method wraps"`
	Turns     Between       `json:"turns"`
	Strands   Between       `json:"strands" doc:"Strands of wrapping hair for one place"`
	Attach    float64       `json:"attachMin" doc:"Minutes to fix one piece, practised"`
	Conceal   Between       `json:"concealMin" doc:"Minutes to hide one plait, practised"`
	Steps     []method.Step `json:"steps"`
	TakeDown  []method.Step `json:"takeDown" doc:"The moves in which it comes off"`
	CutBelow  float64       `json:"cutBelowMm" doc:"Distance from the root above which no piece is cut through, mm; 0 where nothing is cut"`
}

// Between is the least and the most of a number.
type Between struct {
	Least float64 `json:"least"`
	Most  float64 `json:"most"`
}

func (b *Between) add(v float64, first bool) {
	if first {
		*b = Between{v, v}
		return
	}
	b.Least, b.Most = min(b.Least, v), max(b.Most, v)
}

// tails are what is done with the loose tails of tracks, before pieces are hooked on.
var tails = map[parting.Tails]string{
	parting.Tucked:   "First tuck each loose tail under the track beside it with the hook.",
	parting.Stitched: "First stitch the loose tails flat with thread, no knot against the scalp.",
	parting.Chained:  "Each tail is braided into the next track: first tuck or stitch the one that is left.",
}

// tailWords are said of the tails of a layout; empty where there are none.
func tailWords(in Input, l *parting.Layout) string {
	if l.Tails() == 0 {
		return ""
	}
	if len(l.Tracks) == 0 {
		return "First tuck or stitch the tail at the end of each chain."
	}
	return tails[in.Parting.Base.Tails]
}

// job is what the method of a place is asked to do there.
func (w *worked) job(p *Place) method.Job { return w.jobIn(p, &w.in.Ways[p.Way], w.chosen[p.Way]) }

// jobIn is what a way would be asked to do at a place.
func (w *worked) jobIn(p *Place, way *Way, chosen method.Chosen) method.Job {
	return method.Job{
		Ground: p.Ground, Plait: p.Plait, Hair: p.Hair, Piece: w.in.Pieces[p.Piece], Settings: way.Settings, Chosen: chosen, Wrapping: way.Wrapping,
		TenderScalp: w.in.Hair.Tender, Snug: w.in.Plaits.Tension == plait.Snug, Spacing: w.in.HookSpacing(), Tails: w.tails,
		Dry: w.in.Custom(moisture) == "dry", FrontFirst: w.in.Custom(start) == "front",
		Merges: w.in.Parting.Base.Kind == parting.Tracks && (w.in.Parting.Base.MergeInto > 0 || w.in.Parting.Base.MergeSides),
	}
}

// work folds the places into what is done at them, in the order of the plan's ways.
func (w *worked) work() []Attachment {
	type group struct {
		Attachment
		way, piece  int
		short, long int
	}
	var groups []*group
	for i := range w.res.Places {
		p := &w.res.Places[i]
		if p.Kept {
			continue
		}
		k := slices.IndexFunc(groups, func(g *group) bool { return g.way == p.Way && g.piece == p.Piece && g.Ground == p.Ground })
		if k < 0 {
			way := w.in.Ways[p.Way]
			groups = append(groups, &group{way: p.Way, piece: p.Piece, short: i, long: i, Attachment: Attachment{
				Way: way.Key, Method: way.Method, Piece: w.in.Pieces[p.Piece].Key, Ground: p.Ground,
			}})
			k = len(groups) - 1
		}
		g, x := groups[k], w.works[i]
		first := g.Places == 0
		g.Places++
		g.Pieces += p.Count
		g.Attach = x.Attach
		g.Plait.add(p.Plait.Length(), first)
		g.Thickness.add(p.Plait.Diameter, first)
		g.Passes.add(float64(x.Passes), first)
		g.Ribbon.add(x.Ribbon, first)
		g.Turns.add(x.Turns, first)
		g.Strands.add(float64(x.Strands), first)
		g.Conceal.add(x.Conceal, first)
		if p.Plait.Length() < w.res.Places[g.short].Plait.Length() {
			g.short = i
		}
		if p.Plait.Length() > w.res.Places[g.long].Plait.Length() {
			g.long = i
		}
	}
	slices.SortStableFunc(groups, func(a, b *group) int { return a.way - b.way })
	out := make([]Attachment, len(groups))
	for i, g := range groups {
		m, _ := method.Lookup(g.Method)
		places := method.Range{
			Short: w.job(&w.res.Places[g.short]), Long: w.job(&w.res.Places[g.long]),
			ShortWork: w.works[g.short], LongWork: w.works[g.long],
		}
		g.Steps = m.Steps(places)
		g.TakeDown, g.CutBelow = m.TakeDown(places)
		out[i] = g.Attachment
	}
	return out
}

// WayName is the method of a way, told apart from others of the same method by number.
func (in Input) WayName(key string) string {
	at := slices.IndexFunc(in.Ways, func(w Way) bool { return w.Key == key })
	if at < 0 {
		return key
	}
	m, _ := method.Lookup(in.Ways[at].Method)
	same, number := 0, 0
	for i, w := range in.Ways {
		if w.Method == in.Ways[at].Method {
			same++
			if i <= at {
				number++
			}
		}
	}
	if same > 1 {
		return fmt.Sprintf("%s (%d)", m.Name, number)
	}
	return m.Name
}

// Methods names the methods in use, that of most places first.
func (r Result) Methods() string {
	places := map[method.ID]int{}
	var ids []method.ID
	for _, w := range r.Work {
		if places[w.Method] == 0 {
			ids = append(ids, w.Method)
		}
		places[w.Method] += w.Places
	}
	slices.SortStableFunc(ids, func(a, b method.ID) int { return places[b] - places[a] })
	names := make([]string, len(ids))
	for i, id := range ids {
		m, _ := method.Lookup(id)
		names[i] = m.Name
		if i > 0 {
			names[i] = strings.ToLower(m.Name)
		}
	}
	return list(names)
}
