// Package invalid holds the one error value with which the core refuses an
// input: which field, what is wrong, and which values would work. Messages are
// complete sentences for a person at the chair; they give lengths in both
// centimetres and inches because the core does not know which she reads.
package invalid

import (
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"
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

// Under returns the same refusals with every path prefixed by parent and a dot.
func (e Errors) Under(parent string) Errors {
	out := make(Errors, len(e))
	for i, f := range e {
		out[i] = Field{Path: parent + "." + f.Path, Message: f.Message}
	}
	return out
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
	e.Add(path, "%s must be between %s and %s; it is %s.", label, Length(low), Length(high), Length(v))
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

// Length writes a length given in mm as centimetres and inches: "55.9 cm (22 in)".
func Length(mm float64) string {
	if math.IsNaN(mm) || math.IsInf(mm, 0) {
		return "not a number"
	}
	return fmt.Sprintf("%s cm (%s in)", trim(math.Round(mm)/10), trim(math.Round(mm/25.4*100)/100))
}

func trim(v float64) string {
	return strconv.FormatFloat(v, 'f', -1, 64)
}
