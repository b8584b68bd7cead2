package plan

import (
	"fmt"
	"math"
	"strings"

	"kladotex/core/advice"
	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/plait"
)

// noLimit stands beside every word on load.
const noLimit = "No safe limit is published; this is compared with what is commonly hung."

// grams writes a mass in both units.
func grams(g float64) string {
	if g < 20 {
		return fmt.Sprintf("%.1f g (%.2f oz)", g, g/28.3495)
	}
	return fmt.Sprintf("%.0f g (%.1f oz)", g, g/28.3495)
}

// hung is the mass at a place, dry, g.
func (w *worked) hung(i int) float64 {
	p := &w.res.Places[i]
	g := float64(p.Count) * w.in.Pieces[p.Piece].Mass
	if s := w.works[i].Strands; s > 0 {
		g += float64(s) * w.in.Ways[p.Way].Wrapping.StrandMass()
	}
	for _, a := range p.Accents {
		if k := w.accentPiece(a); k >= 0 {
			g += w.in.Pieces[k].Mass
		} else {
			g += w.in.Accents[a].Thing.Mass
		}
	}
	return g + float64(w.filled[i])*w.in.Piece(w.in.Fill.Piece).Mass
}

// weight is the mass of all that is hung, dry, g.
func (w *worked) weight() float64 {
	sum := 0.0
	for i := range w.res.Places {
		sum += w.hung(i)
	}
	return sum + float64(w.in.Fill.Count)*w.in.Piece(w.in.Fill.Piece).Mass
}

// loadHere is the load at a place, mg a hair, the share of the usual that is borne there, and
// who bears less.
func (w *worked) loadHere(i int) (load, share float64, whose string) {
	p := &w.res.Places[i]
	share = 1
	if whose = w.gentleAt(p); whose != "" {
		share = plait.GentleShare
	}
	return p.Plait.Load(w.hung(i)), share, whose
}

// gentleAt says whose scalp bears less than others at a place; empty where it does not.
func (w *worked) gentleAt(p *Place) string {
	switch {
	case w.in.Child:
		return " on a child"
	case w.in.Hair.Tender:
		return " on a tender scalp"
	case w.in.Hair.Density < plait.ThinDensity:
		return " where hair grows thin"
	case w.in.fragile() && w.edge(p):
		return " on fragile edges"
	}
	return ""
}

// fragile tells whether the edges bear less than the rest.
func (in Input) fragile() bool {
	return in.Hair.Edges == hair.FragileEdges || in.Hair.Edges == hair.BareEdges
}

// edge tells whether a place lies at the hairline.
func (w *worked) edge(p *Place) bool {
	f := finder{head: w.head, layout: &w.layout, reach: w.in.HookSpacing()}
	return f.atHairline(p)
}

// loadAt finds whether a place carries too much for its hair.
func (w *worked) loadAt(i int) (advice.Finding, bool) {
	p := &w.res.Places[i]
	load, share, whose := w.loadHere(i)
	if load <= share*plait.HeavyLoad {
		return advice.Finding{}, false
	}
	mass := w.in.Pieces[p.Piece].Mass
	h := hangs{count: p.Count, piece: mass, others: w.hung(i) - float64(p.Count)*mass, hook: p.Section < 0}
	return heavyFinding(p.Plait, h, share, whose), true
}

// longAt finds whether a piece hangs longer than is kind to a head that bears little.
func (w *worked) longAt(i int) (advice.Finding, bool) {
	p := &w.res.Places[i]
	whose := w.gentleAt(p)
	if whose == "" {
		return advice.Finding{}, false
	}
	stature, _ := w.in.Wearing()
	mm, most := w.hangs(p, p.Piece), plait.LongShare*stature
	if mm <= most {
		return advice.Finding{}, false
	}
	return advice.Finding{Code: advice.LongPiece, Grade: mm, Notice: func() advice.Notice {
		return advice.Notice{
			Code: advice.LongPiece, Severity: advice.Look,
			Reason: fmt.Sprintf("Pieces of %s%s hang past the mid-back: they swing, catch, and pull twice as hard when soaked. %s", invalid.Length(mm), whose, noLimit),
			Remedy: fmt.Sprintf("Pieces of at most %s, and fewer of them.", invalid.AtMost(most)),
		}
	}}, true
}

// hangs is what hangs at one place: so many pieces of a mass each, g, and others beside them.
type hangs struct {
	count         int
	piece, others float64
	hook          bool
}

// heavyFinding says that what hangs is heavy on a plait that bears a share of what others do. What it offers
// is what makes it lighter than it is, and no other.
func heavyFinding(on plait.Plait, h hangs, share float64, whose string) advice.Finding {
	g := float64(h.count)*h.piece + h.others
	load := on.Load(g)
	code, severity, word := advice.HeavyHere, advice.Look, "heavy here"
	if load > share*plait.TooHeavyLoad {
		code, severity, word = advice.TooHeavy, advice.Danger, "too heavy: not this piece"
	}
	return advice.Finding{Code: code, Grade: load, Notice: func() advice.Notice {
		return advice.Notice{
			Code: code, Severity: severity,
			Reason: fmt.Sprintf("%s on about %.0f hairs%s, %.1f times what is usual and about twice that when soaked: %s. %s",
				grams(g), on.Hairs, whose, load/plait.UsualLoad, word, noLimit),
			Remedy: lighter(h, on.Bears(share*plait.HeavyLoad), load/(share*plait.HeavyLoad)),
		}
	}}
}

// lighter says what brings what hangs down to what is borne, g; times is by how much it is more now.
func lighter(h hangs, borne, times float64) string {
	var ways []string
	room := borne - h.others // for the pieces
	if each := math.Floor(10*room/float64(h.count)) / 10; each >= 0.1 {
		ways = append(ways, "pieces of at most "+grams(each)+" here")
	} else if h.others > 0 {
		ways = append(ways, fmt.Sprintf("less than the %s of wrapping hair and small things that hang here too", grams(h.others)))
	}
	if n := int(room / h.piece); n >= 1 && n < h.count {
		ways = append(ways, count(h.count-n, "piece")+" fewer")
	}
	if round := math.Ceil(10*times) / 10; round <= method.MostResized {
		if h.hook {
			ways = append(ways, fmt.Sprintf("pieces %.1f times as far apart", round))
		} else {
			ways = append(ways, fmt.Sprintf("sections of %.1f times the area", round))
		}
	}
	if len(ways) == 0 {
		return "Nothing hangs here: leave the section out, or join it to its neighbour."
	}
	text := strings.Join(ways, ", or ")
	return strings.ToUpper(text[:1]) + text[1:] + "."
}

// gentle says whose head bears less than others; empty for one that does not.
func (in Input) gentle() string {
	switch {
	case in.Child:
		return " on a child"
	case in.Hair.Tender:
		return " on a tender scalp"
	case in.fragile():
		return " on fragile edges"
	}
	return ""
}

// loadOfHead is what there is to say about all pieces together.
func (w *worked) loadOfHead(total float64, pieces int) []advice.Notice {
	share, whose := 1.0, w.in.gentle()
	if whose != "" {
		share = plait.GentleShare
	}
	heavy, most := share*plait.HeavyHead, share*plait.FewNecks
	if total <= heavy {
		return nil
	}
	n := advice.Notice{Code: advice.HeavyHead, Severity: advice.Look, About: []string{}}
	word := "heavy to wear"
	if total > most {
		n.Code, n.Severity, word = advice.FewNecks, advice.Danger, "few necks bear this"
	}
	n.Reason = fmt.Sprintf("All pieces weigh %s dry, about %s soaked%s: %s. %s", grams(total), grams(plait.Soaked*total), whose, word, noLimit)
	hair := 0.0 // of it the pieces
	for i := range w.res.Places {
		p := &w.res.Places[i]
		hair += float64(p.Count) * w.in.Pieces[p.Piece].Mass
	}
	n.Remedy = fmt.Sprintf("%d pieces fewer come to %s.", int(math.Ceil(float64(pieces)*(1-heavy/total))), grams(heavy))
	if each := math.Floor(10*(heavy-total+hair)/float64(pieces)) / 10; each >= 0.1 {
		n.Remedy = fmt.Sprintf("%d pieces fewer, or pieces of at most %s on average instead of %s, come to %s.",
			int(math.Ceil(float64(pieces)*(1-heavy/total))), grams(each), grams(hair/float64(pieces)), grams(heavy))
	}
	return []advice.Notice{n}
}

// notices are those of the layout, of the methods at their places, of load, and of rules
// that match nothing.
func (w *worked) notices(t Tally) []advice.Notice {
	var found advice.Gathered
	total := map[string]int{}
	for i := range w.res.Places {
		p := &w.res.Places[i]
		way := w.in.Ways[p.Way].Key
		total[way]++
		total[allPlaces]++
		id := w.baseID(i)
		for _, f := range w.methods[p.Way].Judge(w.job(p)) {
			group := way
			if f.Code == advice.TenderScalp {
				group = allPlaces // said once for all methods
			}
			found.Add(group, id, f)
		}
		if f, heavy := w.loadAt(i); heavy {
			found.Add(allPlaces, id, f)
		}
		if f, long := w.longAt(i); long {
			found.Add(allPlaces, id, f)
		}
	}
	out := append([]advice.Notice{}, w.in.refused()...)
	out = append(out, w.layout.Notices...)
	out = append(out, w.loadOfHead(t.Weight, t.Pieces)...)
	out = append(out, found.Notices(func(group string) int { return total[group] })...)
	for u, use := range w.in.Uses {
		if w.res.Matched[u] > 0 || u == 1 && !w.hasBase() {
			continue
		}
		out = append(out, advice.Notice{
			Code: advice.EmptyUse, Severity: advice.Hint, About: []string{},
			Reason: fmt.Sprintf("The rule %q says nothing about this head: no place lies there that it can be for.", use.Where.Name()),
			Remedy: "Choose other places, another way, or take the rule away.",
		})
	}
	placed := map[int]bool{}
	for i := range w.res.Places {
		for _, a := range w.res.Places[i].Accents {
			placed[a] = true
		}
	}
	for k, a := range w.in.Accents {
		if !placed[k] {
			out = append(out, advice.Notice{
				Code: advice.EmptyUse, Severity: advice.Hint, About: []string{},
				Reason: fmt.Sprintf("%s is put on nowhere: no place lies %s on this head.", w.in.AccentName(a), a.Where.Name()),
				Remedy: "Choose other places, or take the accent away.",
			})
		}
	}
	return out
}

// baseID is the id of the section of a place, or of the track or net its hook is on.
func (w *worked) baseID(i int) string {
	id, _, _ := strings.Cut(w.res.Places[i].ID, "/")
	return id
}

// allPlaces is the group of findings that are about no method in particular.
const allPlaces = ""

func (w *worked) hasBase() bool {
	for i := range w.res.Places {
		if w.res.Places[i].Ground != method.OnPlait {
			return true
		}
	}
	return false
}
