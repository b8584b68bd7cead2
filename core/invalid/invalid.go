// Package invalid holds the one error value with which the core refuses an
// input: which field, what is wrong, and which values would work. Messages are
// complete sentences for a person at the chair; they give lengths in both
// centimetres and inches because the core does not know which the reader uses.
package invalid

import (
	"errors"
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"
)

// Field is one refused field of an input document.
type Field struct {
	// Path is the field's JSON path in the document, such as
	// "head.circumferenceMm".
	Path string `json:"path"`
	// Message says what is wrong and what would be right.
	Message string `json:"message"`
}

// Errors are the refused fields, in document order. A nil or empty Errors is
// no error; use [Errors.Err] to turn it into one.
type Errors []Field

// Error joins the messages, each with its path.
func (e Errors) Error() string {
	parts := make([]string, len(e))
	for i, f := range e {
		parts[i] = f.Path + ": " + f.Message
	}
	return strings.Join(parts, "; ")
}

// Err is nil when nothing was refused.
func (e Errors) Err() error {
	if len(e) == 0 {
		return nil
	}
	return e
}

// From finds the refusals in err; nil when it holds none.
func From(err error) Errors {
	var bad Errors
	errors.As(err, &bad)
	return bad
}

// Under puts parent and a dot before the path of every refusal in err. An error that
// holds none, such as that of a context, is returned as it is, so that it is never
// taken for success.
func Under(err error, parent string) error {
	if bad := From(err); bad != nil {
		return bad.under(parent)
	}
	return err
}

func (e Errors) under(parent string) Errors {
	out := make(Errors, len(e))
	for i, f := range e {
		out[i] = Field{Path: parent + "." + f.Path, Message: f.Message}
	}
	return out
}

// Collect adds the refusals in err. It returns an err that holds none, which is a
// failure of another kind; nil otherwise.
func (e *Errors) Collect(err error) error {
	bad := From(err)
	if bad == nil {
		return err
	}
	*e = append(*e, bad...)
	return nil
}

// Add appends a refusal.
func (e *Errors) Add(path, format string, args ...any) {
	*e = append(*e, Field{Path: path, Message: fmt.Sprintf(format, args...)})
}

// Length refuses a length (mm) outside low..high (mm, inclusive) or not finite;
// label is the field's name in the trade's words. It reports whether v is fine.
func (e *Errors) Length(path, label string, v, low, high float64) bool {
	if v >= low && v <= high {
		return true
	}
	e.Add(path, "%s must be between %s and %s; it is %s.", label, AtLeast(low), AtMost(high), Beyond(v, low, high))
	return false
}

// Number refuses a plain number outside low..high (inclusive) or not finite;
// unit, with its leading space, follows the figures.
func (e *Errors) Number(path, label string, v, low, high float64, unit string) bool {
	if v >= low && v <= high {
		return true
	}
	e.Add(path, "%s must be between %s and %s%s; it is %s.", label, trim(low), trim(high), unit, trim(v))
	return false
}

// Count refuses a whole number outside low..high, inclusive.
func (e *Errors) Count(path, label string, v, low, high int) {
	e.Number(path, label, float64(v), float64(low), float64(high), "")
}

var date = regexp.MustCompile(`^([12]\d{3})-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$`)

// Day refuses a text that is no day of the calendar written like 2026-05-31.
func (e *Errors) Day(path, label, text string) {
	m := date.FindStringSubmatch(text)
	if m != nil {
		year, _ := strconv.Atoi(m[1]) // figures alone
		month, _ := strconv.Atoi(m[2])
		day, _ := strconv.Atoi(m[3])
		if day <= daysIn(year, month) {
			return
		}
	}
	e.Add(path, "%s must be a date such as 2026-05-31; it is %q.", label, text)
}

// daysIn is how many days a month of the calendar has.
func daysIn(year, month int) int {
	switch month {
	case 4, 6, 9, 11:
		return 30
	case 2:
		if year%4 == 0 && (year%100 != 0 || year%400 == 0) {
			return 29
		}
		return 28
	}
	return 31
}

// Letters refuses a text of fewer or more letters than low..high, inclusive. Letters
// are counted as people count them.
func (e *Errors) Letters(path, label, text string, low, high int) {
	switch n := utf8.RuneCountInString(text); {
	case n > high:
		e.Add(path, "%s has %d letters; up to %d are kept.", label, n, high)
	case n < low:
		e.Add(path, "%s must have %d to %d letters; it has %d.", label, low, high, n)
	}
}

// OneOf refuses a value that is none of those allowed.
func OneOf[T ~string](e *Errors, path, label string, v T, allowed []T) {
	if slices.Contains(allowed, v) {
		return
	}
	names := make([]string, len(allowed))
	for i, a := range allowed {
		names[i] = string(a)
	}
	e.Add(path, "%s must be %s; it is %q.", label, strings.Join(names, ", "), string(v))
}

// Question is what is answered with one of a few options.
type Question struct {
	Key, Label string
	Options    []string
}

// Answers refuses answers to what is not asked, for which unasked has a place for the key, and
// options that a question has not; the paths of bad are put under path.
func Answers(e *Errors, path, unasked string, answers map[string]string, asked []Question) {
	for key, option := range answers {
		i := slices.IndexFunc(asked, func(q Question) bool { return q.Key == key })
		if i < 0 {
			e.Add(path+key, unasked, key)
			continue
		}
		OneOf(e, path+key, asked[i].Label, option, asked[i].Options)
	}
}

// At is the path of an entry of a list.
func At(path string, i int) string { return fmt.Sprintf("%s[%d]", path, i) }

const inch = 25.4

// Length writes a length given in mm as centimetres and inches: "55.9 cm (22 in)". It
// says what is; what would work is said by [AtLeast] and [AtMost].
func Length(mm float64) string { return written(mm, math.Round) }

// AtLeast writes a length given in mm that is the least of what works. It is rounded
// up, so that either figure works as it is read.
func AtLeast(mm float64) string {
	return written(mm, func(v float64) float64 { return math.Ceil(v - rounding) })
}

// AtMost writes a length given in mm that is the greatest of what works, rounded down.
func AtMost(mm float64) string {
	return written(mm, func(v float64) float64 { return math.Floor(v + rounding) })
}

// rounding is how far a figure may lie from a whole one by the rounding of numbers
// alone, in the last place that is written.
const rounding = 1e-9

// written is a length in mm as whole millimetres and hundredths of an inch.
func written(mm float64, whole func(float64) float64) string {
	if math.IsNaN(mm) || math.IsInf(mm, 0) {
		return "not a number"
	}
	// Adding 0 makes a zero below zero a plain one.
	return fmt.Sprintf("%s cm (%s in)", trim(whole(mm)/10+0), trim(whole(mm/inch*100)/100+0))
}

// Beyond writes a length in mm that lies outside low..high in as many digits as it
// takes to see that.
func Beyond(mm, low, high float64) string {
	if math.IsNaN(mm) || math.IsInf(mm, 0) {
		return Length(mm)
	}
	digits := func(v, low, high float64, places int) string {
		for ; ; places++ {
			f := math.Pow10(places)
			if r := math.Round(v*f) / f; r < low || r > high || places > 9 {
				return trim(r)
			}
		}
	}
	return fmt.Sprintf("%s cm (%s in)", digits(mm/10, low/10, high/10, 1), digits(mm/inch, low/inch, high/inch, 2))
}

func trim(v float64) string {
	return strconv.FormatFloat(v, 'f', -1, 64)
}

// Keys refuses a list that is empty or too long, and keys that are missing or stand
// twice.
func Keys[T any](e *Errors, path, label string, list []T, most int, key func(T) string) []string {
	e.Count(path, label, len(list), 1, most)
	out := make([]string, len(list))
	for i, x := range list {
		k := key(x)
		switch {
		case k == "":
			e.Add(At(path, i)+".key", "It needs a key.")
		case slices.Contains(out, k):
			e.Add(At(path, i)+".key", "The key %q stands twice.", k)
		}
		out[i] = k
	}
	return out
}
