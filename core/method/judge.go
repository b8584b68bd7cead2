package method

import (
	"fmt"
	"math"
	"strings"

	"kladotex/core/advice"
	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/plait"
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
func onPlait(m Method, j Job) []advice.Finding {
	out := suited(m, j)
	if j.Hair < m.LeastHair {
		hair, name, least := j.Hair, m.Name, m.LeastHair
		out = append(out, finding(advice.ShortHair, advice.Look, -hair, func() (string, string) {
			return fmt.Sprintf("The own hair, %s, is short for %s, which holds from about %s.", invalid.Length(hair), strings.ToLower(name), invalid.Length(least)),
				"Hair fed into the ends, or a method for short hair, holds better."
		}))
	}
	if length := j.Plait.Length(); length > j.Piece.Length {
		length, piece := length, j.Piece.Length
		out = append(out, finding(advice.LongPlait, advice.Look, length, func() (string, string) {
			return fmt.Sprintf("The plait, about %s, is longer than the piece, %s: its end would hang out below.", invalid.Length(length), invalid.Length(piece)),
				fmt.Sprintf("A piece of at least %s hides it.", invalid.AtLeast(length))
		}))
	}
	if j.Plait.Diameter < plait.ThinShare*j.Piece.Thickness {
		d, thick := j.Plait.Diameter, j.Piece.Thickness
		out = append(out, finding(advice.ThinPlait, advice.Look, -d, func() (string, string) {
			return fmt.Sprintf("The plait comes out %.1f mm thin under a piece %.0f mm thick: it can hardly carry it.", d, thick),
				fmt.Sprintf("Sections of %.1f times the area, or a piece of at most %.1f mm.", math.Ceil(10*math.Pow(plait.ThinShare*thick/d, 2))/10, math.Floor(10*d/plait.ThinShare)/10)
		}))
	}
	if need := j.Plait.Diameter + plait.Hook; j.Piece.Loop > 0 && j.Piece.Loop < need {
		need, loop := need, j.Piece.Loop
		out = append(out, finding(advice.TightLoop, advice.Look, need, func() (string, string) {
			return fmt.Sprintf("The loop opens %.0f mm; plait and hook together are %.0f mm.", loop, need),
				"Stretch the loops with the tail of a comb before you start, or make the sections smaller."
		}))
	}
	return append(out, tender(j)...)
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
