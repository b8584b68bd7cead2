package sheet

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"github.com/bojanz/currency"
)

// Unit is the unit of length a person reads.
type Unit string

// The units.
const (
	Inches      Unit = "in"
	Centimetres Unit = "cm"
)

// Units are both of them.
var Units = []Unit{Inches, Centimetres}

var eighths = [8]string{"", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞"}

// Length writes a length given in mm with its unit: inches to the nearest eighth,
// centimetres to the nearest millimetre.
func (u Unit) Length(mm float64) string {
	if u == Centimetres {
		return strconv.FormatFloat(math.Round(mm)/10, 'f', -1, 64) + " cm"
	}
	n := int(math.Round(mm / 25.4 * 8))
	whole, part := n/8, eighths[n%8]
	if whole == 0 && part != "" {
		return part + " in"
	}
	return strconv.Itoa(whole) + part + " in"
}

// comb writes a distance as it is set with a comb, without its unit: to the nearest
// eighth of an inch or two millimetres.
func (u Unit) comb(mm float64) string {
	if u == Centimetres {
		mm = math.Round(mm/2) * 2
	}
	return strings.TrimSuffix(u.Length(mm), " "+string(u))
}

// offset is comb with the way told: + further on, − back.
func (u Unit) offset(mm float64) string {
	switch text := u.comb(math.Abs(mm)); {
	case text == u.comb(0):
		return text
	case mm < 0:
		return "−" + text
	default:
		return "+" + text
	}
}

// Weight writes a mass given in g.
func (u Unit) Weight(g float64) string {
	if u == Centimetres {
		return fmt.Sprintf("%.0f g", g)
	}
	return fmt.Sprintf("%.1f oz", g/28.349523125)
}

// amounts writes amounts of money as an English reader has them.
var amounts = currency.NewFormatter(currency.NewLocale("en"))

// money writes an amount in minor units of a currency, by its ISO 4217 code.
func money(minor int64, code string) string {
	amount, err := currency.NewAmountFromInt64(minor, code)
	if err != nil { // no currency that we know: better a number than no sheet
		return fmt.Sprintf("%s %d.%02d", code, minor/100, minor%100)
	}
	return amounts.Format(amount)
}
