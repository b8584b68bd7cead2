package judge

import (
	"fmt"
	"math"
	"strings"

	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/plait"
	"kladotex/core/plan"
	"kladotex/core/words"
)

// noLimit stands beside every word on load.
const noLimit = "No safe limit is published; this is compared with what is commonly hung."

// loadHere is the load at a place, mg a hair, the share of the usual that is borne there, and
// who bears less.
func loadHere(sol *plan.Solved, i int) (load, share float64, whose string) {
	p := &sol.Places[i]
	share = 1
	if whose = gentleAt(sol, p); whose != "" {
		share = craft.GentleShare
	}
	return p.Plait.Load(sol.Hung[i]), share, whose
}

// gentleAt says whose scalp bears less than others at a place; empty where it does not.
func gentleAt(sol *plan.Solved, p *plan.Place) string {
	switch {
	case sol.Input.Child:
		return " on a child"
	case sol.Input.Hair.Tender:
		return " on a tender scalp"
	case sol.Input.Hair.Density < craft.ThinDensity:
		return " where hair grows thin"
	case sol.Input.Fragile() && sol.AtHairline(p):
		return " on fragile edges"
	}
	return ""
}

// loadAt finds whether a place carries too much for its hair.
func loadAt(sol *plan.Solved, i int) (advice.Finding, bool) {
	p := &sol.Places[i]
	load, share, whose := loadHere(sol, i)
	if load <= share*craft.HeavyLoad {
		return advice.Finding{}, false
	}
	mass := sol.Input.Pieces[p.Piece].Mass
	h := hangs{count: p.Count, piece: mass, others: sol.Hung[i] - float64(p.Count)*mass, wound: sol.Wound(i), hook: p.Section < 0}
	return heavyFinding(p.Plait, h, share, whose), true
}

// longAt finds whether a piece hangs longer than is kind to a head that bears little.
func longAt(sol *plan.Solved, i int) (advice.Finding, bool) {
	p := &sol.Places[i]
	whose := gentleAt(sol, p)
	if whose == "" {
		return advice.Finding{}, false
	}
	stature, _ := sol.Input.Wearing()
	mm, most := sol.Hangs(p, p.Piece), craft.LongShare*stature
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

// hangs is what hangs at one place: a number of pieces, the mass of each, g, and what hangs beside
// them, of it the wrapping hair.
type hangs struct {
	count                int
	piece, others, wound float64
	hook                 bool
}

// says is what hangs there in words.
func (h hangs) says() string {
	g := words.Grams(float64(h.count)*h.piece + h.others)
	if h.wound > 0 {
		g += ", " + words.Grams(h.wound) + " of it wrapping hair,"
	}
	return g
}

// heavyFinding says that what hangs is heavy on a plait that bears a share of what others do. What it offers
// is what makes it lighter than it is, and no other.
func heavyFinding(on plait.Plait, h hangs, share float64, whose string) advice.Finding {
	g := float64(h.count)*h.piece + h.others
	load := on.Load(g)
	code, severity, word := advice.HeavyHere, advice.Look, "heavy here"
	if load > share*craft.TooHeavyLoad {
		code, severity, word = advice.TooHeavy, advice.Danger, "too heavy: not this piece"
	}
	return advice.Finding{Code: code, Grade: load, Notice: func() advice.Notice {
		return advice.Notice{
			Code: code, Severity: severity,
			Reason: fmt.Sprintf("%s on about %.0f hairs%s, %.1f times what is usual and about twice that when soaked: %s. %s",
				h.says(), on.Hairs, whose, load/craft.UsualLoad, word, noLimit),
			Remedy: lighter(h, on.Bears(share*craft.HeavyLoad), load/(share*craft.HeavyLoad)),
		}
	}}
}

// lighter says what brings what hangs down to what is borne, g; times is by how much it is more now.
func lighter(h hangs, borne, times float64) string {
	var ways []string
	room := borne - h.others // for the pieces
	if each := math.Floor(10*room/float64(h.count)) / 10; each >= 0.1 {
		ways = append(ways, "pieces of at most "+words.Grams(each)+" here")
	} else if h.others > 0 {
		ways = append(ways, fmt.Sprintf("less than the %s of wrapping hair and small things that hang here too", words.Grams(h.others)))
	}
	if n := int(room / h.piece); n >= 1 && n < h.count {
		ways = append(ways, words.Count(h.count-n, "piece")+" fewer")
	}
	if round := math.Ceil(10*times) / 10; round <= method.MostResized {
		if h.hook {
			ways = append(ways, fmt.Sprintf("pieces %.1f times as far apart", round))
		} else {
			ways = append(ways, fmt.Sprintf("sections of %.1f times the area", round))
		}
	}
	if len(ways) == 0 {
		return "Hang nothing here: leave the section out, or join it to its neighbour."
	}
	text := strings.Join(ways, ", or ")
	return words.Sentence(text) + "."
}

// gentle says whose head bears less than others; empty for one that does not.
func gentle(in plan.Input) string {
	switch {
	case in.Child:
		return " on a child"
	case in.Hair.Tender:
		return " on a tender scalp"
	case in.Fragile():
		return " on fragile edges"
	}
	return ""
}

// HeadBears is from what mass on it is heavy to wear on a head, and what few necks bear, g; whose says who bears
// less than others, empty for one that does not.
func HeadBears(in plan.Input) (heavy, most float64, whose string) {
	share := 1.0
	if whose = gentle(in); whose != "" {
		share = craft.GentleShare
	}
	return share * craft.HeavyHead, share * craft.FewNecks, whose
}

// loadOfHead is what there is to say about all pieces together.
func loadOfHead(sol *plan.Solved, total float64, pieces int) []advice.Notice {
	heavy, most, whose := HeadBears(sol.Input)
	if total <= heavy {
		return nil
	}
	n := advice.Notice{Code: advice.HeavyHead, Severity: advice.Look, About: []string{}}
	word := "heavy to wear"
	if total > most {
		n.Code, n.Severity, word = advice.FewNecks, advice.Danger, "too heavy for most"
	}
	n.Reason = fmt.Sprintf("All pieces weigh %s dry, about %s soaked%s: %s. %s", words.Grams(total), words.Grams(craft.Soaked*total), whose, word, noLimit)
	hair := 0.0 // of it the pieces
	for i := range sol.Places {
		p := &sol.Places[i]
		hair += float64(p.Count) * sol.Input.Pieces[p.Piece].Mass
	}
	n.Remedy = fmt.Sprintf("%d pieces fewer come to %s.", int(math.Ceil(float64(pieces)*(1-heavy/total))), words.Grams(heavy))
	if each := math.Floor(10*(heavy-total+hair)/float64(pieces)) / 10; each >= 0.1 {
		n.Remedy = fmt.Sprintf("%d pieces fewer, or pieces of at most %s on average instead of %s, come to %s.",
			int(math.Ceil(float64(pieces)*(1-heavy/total))), words.Grams(each), words.Grams(hair/float64(pieces)), words.Grams(heavy))
	}
	return []advice.Notice{n}
}
