package method

import (
	"fmt"
	"math"
	"strings"

	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/invalid"
)

// spoken lists forms in a sentence.
func spoken(forms []hair.Form) string {
	names := make([]string, len(forms))
	for i, f := range forms {
		names[i] = f.Facts().Many
	}
	if len(names) == 1 {
		return names[0]
	}
	return strings.Join(names[:len(names)-1], ", ") + " or " + names[len(names)-1]
}

// finding is one whose notice is worded by say: its reason and its remedy.
func finding(code advice.Code, severity advice.Severity, grade float64, say func() (reason, remedy string)) advice.Finding {
	return advice.Finding{Code: code, Grade: grade, Notice: func() advice.Notice {
		reason, remedy := say()
		return advice.Notice{Code: code, Severity: severity, Reason: reason, Remedy: remedy}
	}}
}

// onPlait are the findings that every method with a plait to hide shares. What a notice
// will say is picked out of the job first: it is worded long after the job is done.
func onPlait(m Method, j Job) []advice.Finding { return append(untender(m, j), tender(j)...) }

// untender is onPlait without what is said of a tender scalp.
func untender(m Method, j Job) []advice.Finding {
	out := suited(m, j)
	out = append(out, shortHair(m, j)...)
	out = append(out, slipping(m, j)...)
	reach := j.Piece.Length
	if m.reach != nil {
		reach = m.reach(j)
	}
	if length := j.Plait.Length(); length > reach {
		length, piece, need := length, j.Piece.Length, length*j.Piece.Length/reach
		out = append(out, finding(advice.LongPlait, advice.Look, length, func() (string, string) {
			return fmt.Sprintf("The plait, about %s, is longer than the piece, %s, can hide: its end would hang out.", invalid.Length(length), invalid.Length(piece)),
				fmt.Sprintf("A piece of at least %s hides it.", invalid.AtLeast(need))
		}))
	}
	if j.Plait.Diameter < craft.ThinShare*j.Piece.Thickness {
		d, thick := j.Plait.Diameter, j.Piece.Thickness
		out = append(out, finding(advice.ThinPlait, advice.Look, -d, func() (string, string) {
			return fmt.Sprintf("The plait comes out %.1f mm thin under a piece %.0f mm thick: it can hardly carry it.", d, thick),
				resize(math.Ceil(10*math.Pow(craft.ThinShare*thick/d, 2))/10) + fmt.Sprintf("a piece of at most %.1f mm.", math.Floor(10*d/craft.ThinShare)/10)
		}))
	}
	if need := j.Plait.Diameter + craft.Hook; j.Piece.Loop > 0 && j.Piece.Loop < need {
		need, loop := need, j.Piece.Loop
		out = append(out, finding(advice.TightLoop, advice.Look, need, func() (string, string) {
			return fmt.Sprintf("The loop opens %.0f mm; plait and hook together are %.0f mm.", loop, need),
				"Stretch the loops with the tail of a comb before you start, or make the sections smaller."
		}))
	}
	return out
}

// ownLoop finds pieces too thick for their own loop: the hitch draws the piece through it.
func ownLoop(_ Method, j Job) []advice.Finding {
	loop, thick := j.Piece.Loop, j.Piece.Thickness
	if j.Piece.Form.Facts().Folded || loop == 0 || loop >= thick {
		return nil
	}
	return []advice.Finding{finding(advice.OwnLoop, advice.Look, thick-loop, func() (string, string) {
		return fmt.Sprintf("A piece %.0f mm thick does not pass through its own loop, which opens %.0f mm.", thick, loop),
			fmt.Sprintf("Stretch the loops to %.0f mm first, with the tail of a comb or two fingers: forced, a loop spoils the piece.", math.Ceil(craft.TightLoop*thick))
	})}
}

// roundTheBase finds loops that do not go round what the piece is hooked on, and what is too thin to hold one.
func roundTheBase(_ Method, j Job) (out []advice.Finding) {
	loop, round := j.Piece.Loop, j.Round
	if j.Piece.Form.Facts().Folded || loop == 0 || round == 0 {
		return nil
	}
	what, thinner := "The cornrow", "more and thinner cornrows"
	if j.Ground != OnCornrow {
		what, thinner = "The plait", "smaller sections"
	}
	switch need := round + craft.Hook; {
	case loop < need:
		out = append(out, finding(advice.TightLoop, advice.Look, need-loop, func() (string, string) {
			return fmt.Sprintf("%s comes out about %.0f mm thick; with the hook that is %.0f mm, and the loop opens %.0f mm.", what, round, need, loop),
				fmt.Sprintf("Stretch the loops to %.0f mm first, or %s.", math.Ceil(need), thinner)
		}))
	case loop > craft.SlackLoop*round && j.Piece.Thickness > craft.RoomyPiece:
		out = append(out, finding(advice.SlackLoop, advice.Hint, loop/round, func() (string, string) {
			return fmt.Sprintf("A loop of %.0f mm sits slack on %.0f mm: a thick piece slides along it and turns.", loop, round),
				"Draw the hitch tight twice, or larger plaits: fewer and wider cornrows."
		}))
	}
	return out
}

// braidJudge is what speaks against a braid from the root: it hides own hair of any
// thickness.
func braidJudge(m Method, j Job) []advice.Finding {
	out := append(suited(m, j), shortHair(m, j)...)
	if own, braid := j.Hair*craft.BraidTakeUp, j.Piece.Length; own > braid {
		out = append(out, finding(advice.LongPlait, advice.Look, own, func() (string, string) {
			return fmt.Sprintf("Own hair, braided about %s, is longer than the braid, %s: it would hang out below.", invalid.Length(own), invalid.Length(braid)),
				fmt.Sprintf("A braid of at least %s hides it.", invalid.AtLeast(own))
		}))
	}
	if j.Chosen["end"] == "water" && j.Piece.Natural() {
		out = append(out, finding(advice.HotWater, advice.Look, 0, func() (string, string) {
			return "Human hair is not set by hot water: it dries out, and the ends open again.",
				"Choose a band, or leave the ends loose."
		}))
	}
	return append(out, tender(j)...)
}

// A judge finds what speaks against a method for a job.
type judge = func(Method, Job) []advice.Finding

// judges are several in one.
func judges(list ...judge) judge {
	return func(m Method, j Job) (out []advice.Finding) {
		for _, of := range list {
			out = append(out, of(m, j)...)
		}
		return out
	}
}

// MostResized bounds by how many times the area of sections is changed to put something right: beyond it is
// another head.
const MostResized = 4.0

// resize says by how many times the area of sections would have to change, as the first of two ways; where
// that is another head it says only that there is the second.
func resize(area float64) string {
	if area > MostResized || area < 1/MostResized {
		return "Other sections alone do not help here: "
	}
	return fmt.Sprintf("Sections of %.1f times the area, or ", area)
}

// vanishing finds plaits too fat to vanish inside a piece: more than share
// times as thick as it.
func vanishing(share float64) judge {
	return func(_ Method, j Job) []advice.Finding {
		if j.Plait.Diameter <= share*j.Piece.Thickness {
			return nil
		}
		d, thick := j.Plait.Diameter, j.Piece.Thickness
		return []advice.Finding{finding(advice.FatPlait, advice.Look, d, func() (string, string) {
			return fmt.Sprintf("The plait comes out about %.0f mm thick against a piece of %.0f mm: it may show through.", d, thick),
				resize(math.Floor(10*math.Pow(share*thick/d, 2))/10) + fmt.Sprintf("a piece of at least %.0f mm, would hide it.", math.Ceil(d/share))
		})}
	}
}

// fatBase finds wraps whose base, plait and piece's tail together, is thicker than the piece
// below it: it feels fat and tight.
func fatBase(_ Method, j Job) []advice.Finding {
	d, thick := wrapBase(j), j.Piece.Thickness
	if d <= thick {
		return nil
	}
	return []advice.Finding{finding(advice.FatPlait, advice.Look, d, func() (string, string) {
		return fmt.Sprintf("Plait and piece together come out about %.0f mm thick before anything is wound over them, thicker than the piece, %.0f mm: a fat, heavy, tight base.", d, thick),
			"Smaller sections, and wrapping hair split thin."
	})}
}

// roomy finds thick pieces on plaits that sit tight: drawn through, they tighten the root
// once more.
func roomy(_ Method, j Job) []advice.Finding {
	if !j.Snug || j.Piece.Thickness <= craft.RoomyPiece {
		return nil
	}
	piece := j.Piece.Thickness
	return []advice.Finding{finding(advice.TightRoot, advice.Look, piece, func() (string, string) {
		return fmt.Sprintf("A piece %.0f mm thick is drawn through under a plait that sits snug: it tightens the root once more.", piece),
			fmt.Sprintf("Plait a little slack where it meets the scalp, or take pieces of at most %.0f mm.", craft.RoomyPiece)
	})}
}

// anchored finds plaits worked further than the few turns whose twist the method undoes.
func anchored(m Method, j Job) []advice.Finding {
	if j.Plait.Braided <= craft.MostAnchored {
		return nil
	}
	braided, name := j.Plait.Braided, m.Name
	return []advice.Finding{finding(advice.WrongBase, advice.Look, braided, func() (string, string) {
		return fmt.Sprintf("Own hair is plaited over %s; %s needs a few anchor turns and the rest twisted.", invalid.Length(braided), strings.ToLower(name)),
			"Choose anchor turns, then twist, for the plaits of this plan; fold and twist takes a whole plait."
	})}
}

// shortHair is a finding where own hair, with what is fed into its ends, is too short for
// the method.
func shortHair(m Method, j Job) []advice.Finding {
	if j.Hair+j.Plait.Fed >= m.LeastHair {
		return nil
	}
	hair, name, least := j.Hair, m.Name, m.LeastHair
	return []advice.Finding{finding(advice.ShortHair, advice.Look, -hair, func() (string, string) {
		return fmt.Sprintf("Own hair, %s, is short for %s, which holds from about %s.", invalid.Length(hair), strings.ToLower(name), invalid.Length(least)),
			"Hair fed into the ends, or a method for short hair, holds better."
	})}
}

// slipping is a finding where a plait lets go by itself.
func slipping(m Method, j Job) []advice.Finding {
	if !j.Slips || m.Family == Braid {
		return nil
	}
	return []advice.Finding{finding(advice.Slips, advice.Look, 0, func() (string, string) {
		return "Straight or very fine hair lets go: a plait that is only looped slips out within weeks, where textured hair holds.",
			"A small band at each root, hair fed into the ends, or a method that braids hair in."
	})}
}

// suited is a finding where the piece is not of a form the method takes.
func suited(m Method, j Job) []advice.Finding {
	if m.Suits(j.Piece.Form) {
		return nil
	}
	name, takes, piece, form := m.Name, m.Takes, j.Piece.Name, j.Piece.Form
	return []advice.Finding{finding(advice.WrongForm, advice.Danger, 0, func() (string, string) {
		return fmt.Sprintf("%s works with %s; %s is %s.", name, spoken(takes), piece, form.Facts().One()),
			"Choose another piece or another method for these."
	})}
}

// tender is said wherever something is drawn through at a tender scalp.
func tender(j Job) []advice.Finding {
	if !j.TenderScalp {
		return nil
	}
	return []advice.Finding{finding(advice.TenderScalp, advice.Look, 0, func() (string, string) {
		return "Tender scalp: drawing a piece through tightens the base again.",
			"Leave the base slack; pain, bumps or stinging mean loosen now."
	})}
}
