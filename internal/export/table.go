// Package export writes what a studio keeps as open tables and reads such tables in: CSV after
// RFC 4180, and what spreadsheets make of it (a byte-order mark, semicolons or tabs, decimal
// commas, lengths in inches or centimetres).
package export

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"
	"unicode/utf8"
)

// MaxLines is the most lines of a table that are read.
const MaxLines = 50_000

// bom marks a file as UTF-8 for spreadsheets.
var bom = []byte{0xef, 0xbb, 0xbf}

// LineError is what is wrong in a line of a table.
type LineError struct {
	// Line counts from 1; the names of the columns stand in the first.
	Line int `json:"line"`
	// Column is its name; empty where the whole line is meant.
	Column  string `json:"column"`
	Message string `json:"message"`
}

// kind says how the cells of a column are read.
type kind int

const (
	words kind = iota
	count
	number
	length // mm
	amount // minor units of the currency
	yesNo
)

// column is one column of a table of rows T: the name it is written under, other names it is
// read under, and where its cells go.
type column[T any] struct {
	name    string
	aliases []string
	kind    kind
	// needed is true for one without which a table cannot be read.
	needed bool
	get    func(T) string
	set    func(*T, cell)
}

// cell is what a cell says, read as its column wants it.
type cell struct {
	text   string
	number float64
	yes    bool
	empty  bool
}

// row is a line of a table as it was read.
type row[T any] struct {
	line  int
	value T
}

// write is a table of rows as CSV after RFC 4180, with a byte-order mark, so that spreadsheets
// take it for what it is.
func write[T any](columns []column[T], rows []T) []byte {
	var b bytes.Buffer
	b.Write(bom)
	w := csv.NewWriter(&b)
	w.UseCRLF = true
	record := make([]string, len(columns))
	put := func() { _ = w.Write(record) } // into memory
	for i, c := range columns {
		record[i] = c.name
	}
	put()
	for _, r := range rows {
		for i, c := range columns {
			record[i] = guarded(c.get(r))
		}
		put()
	}
	w.Flush()
	return b.Bytes()
}

// guarded keeps a spreadsheet from taking a text for a formula.
func guarded(text string) string {
	if text != "" && strings.ContainsRune("=+@'\t\r", rune(text[0])) || strings.HasPrefix(text, "-") && !isNumber(text) {
		return "'" + text
	}
	return text
}

func isNumber(text string) bool {
	_, err := strconv.ParseFloat(text, 64)
	return err == nil
}

// unguarded takes off what [guarded] put on.
func unguarded(text string) string {
	if len(text) > 1 && text[0] == '\'' && strings.ContainsRune("=+-@'\t\r", rune(text[1])) {
		return text[1:]
	}
	return text
}

// found is a column of a file: where its cells go and what its lengths are in, mm.
type found[T any] struct {
	column *column[T]
	name   string
	unit   float64
}

// read reads a table. What is wrong is told line by line; a file whose columns are not known
// is refused as a whole. progress is told every thousand lines.
func read[T any](raw []byte, columns []column[T], money float64, progress func(lines int) error) ([]row[T], []LineError, error) {
	raw = bytes.TrimPrefix(raw, bom)
	if len(bytes.TrimSpace(raw)) == 0 {
		return nil, []LineError{{1, "", "The file is empty."}}, nil
	}
	if !utf8.Valid(raw) {
		return nil, []LineError{{lineOfInvalid(raw), "", "This is not UTF-8 text. In the spreadsheet choose to save as CSV UTF-8."}}, nil
	}
	r := csv.NewReader(bytes.NewReader(raw))
	r.Comma = delimiter(raw)
	r.FieldsPerRecord = -1
	r.ReuseRecord = true
	header, err := r.Read()
	if err != nil {
		return nil, []LineError{unreadable(err)}, nil
	}
	heads, bad := columnsOf(header, columns)
	if len(bad) > 0 {
		return nil, bad, nil
	}
	var rows []row[T]
	for {
		record, err := r.Read()
		if err == io.EOF {
			return rows, bad, nil
		}
		if err != nil {
			return rows, append(bad, unreadable(err)), nil
		}
		line, _ := r.FieldPos(0)
		switch {
		case len(rows) == MaxLines:
			return rows, append(bad, LineError{line, "", fmt.Sprintf("The table has more than %d lines: cut it in two.", MaxLines)}), nil
		case blank(record):
			continue
		case len(record) > len(heads):
			bad = append(bad, LineError{line, "", fmt.Sprintf("The line has %d cells, the table %d columns: is a text with a comma in it missing its quotes?", len(record), len(heads))})
			continue
		}
		out := row[T]{line: line}
		for i, text := range record {
			h := heads[i]
			if h.column == nil {
				continue
			}
			c, message := h.cellOf(text, money)
			if message != "" {
				bad = append(bad, LineError{line, h.name, message})
				continue
			}
			h.column.set(&out.value, c)
		}
		rows = append(rows, out)
		if len(rows)%1000 == 0 {
			if err := progress(len(rows)); err != nil {
				return nil, nil, err
			}
		}
	}
}

// delimiter is what the first line is cut by: the sign that occurs most outside of quotes.
func delimiter(raw []byte) rune {
	best, most := ',', 0
	for _, sign := range []rune{',', ';', '\t'} {
		n, quoted := 0, false
	line:
		for _, c := range string(raw[:min(len(raw), 4096)]) {
			switch {
			case c == '"':
				quoted = !quoted
			case c == '\n' && !quoted:
				break line
			case c == sign && !quoted:
				n++
			}
		}
		if n > most {
			best, most = sign, n
		}
	}
	return best
}

func blank(record []string) bool {
	for _, text := range record {
		if strings.TrimSpace(text) != "" {
			return false
		}
	}
	return true
}

func lineOfInvalid(raw []byte) int {
	line := 1
	for len(raw) > 0 {
		r, n := utf8.DecodeRune(raw)
		if r == utf8.RuneError && n == 1 {
			return line
		}
		if r == '\n' {
			line++
		}
		raw = raw[n:]
	}
	return line
}

func unreadable(err error) LineError {
	var p *csv.ParseError
	if !errors.As(err, &p) {
		return LineError{1, "", "The file cannot be read as a table."}
	}
	return LineError{p.Line, "", "A quote stands where none can: a text with quotes in it is written \"like \"\"this\"\" one\". What follows was not read."}
}

// units are those a column may name behind its own name.
var units = map[string]float64{"mm": 1, "cm": 10, "in": 25.4, "inch": 25.4, "inches": 25.4, "\"": 25.4}

// columnsOf finds the columns of a header, whatever their order, and refuses one that lacks
// what is needed, has a name twice, or is of something else.
func columnsOf[T any](header []string, columns []column[T]) ([]found[T], []LineError) {
	var bad []LineError
	heads := make([]found[T], len(header))
	known := 0
	for i, name := range header {
		name = strings.TrimSpace(name)
		heads[i].name = name
		key, unit := splitUnit(name)
		for k := range columns {
			c := &columns[k]
			if !c.is(key) {
				continue
			}
			scale := 1.0
			if unit != "" && c.kind == length {
				s, ok := units[unit]
				if !ok {
					bad = append(bad, LineError{1, name, fmt.Sprintf("A length is in mm, cm or in; this column says %q.", unit)})
					continue
				}
				scale = s
			}
			for _, before := range heads[:i] {
				if before.column == c {
					bad = append(bad, LineError{1, name, "This column stands twice."})
				}
			}
			heads[i].column, heads[i].unit = c, scale
			known++
		}
	}
	if known == 0 {
		return nil, []LineError{{1, "", "None of the columns is known: this is the table of another program. The first line names the columns: " + names(columns) + "."}}
	}
	for k := range columns {
		if columns[k].needed && !has(heads, &columns[k]) {
			bad = append(bad, LineError{1, columns[k].name, "This column is missing."})
		}
	}
	return heads, bad
}

func has[T any](heads []found[T], c *column[T]) bool {
	for _, h := range heads {
		if h.column == c {
			return true
		}
	}
	return false
}

func names[T any](columns []column[T]) string {
	out := make([]string, len(columns))
	for i, c := range columns {
		out[i] = c.name
	}
	return strings.Join(out, ", ")
}

// is tells whether the column goes by a name.
func (c *column[T]) is(key string) bool {
	own, _ := splitUnit(c.name)
	if key == own {
		return true
	}
	for _, a := range c.aliases {
		if key == a {
			return true
		}
	}
	return false
}

// splitUnit takes "Length (in)" and "Length, in" apart, in small letters.
func splitUnit(name string) (key, unit string) {
	name = strings.ToLower(strings.TrimSpace(name))
	if at := strings.IndexAny(name, "(["); at > 0 {
		return strings.TrimSpace(name[:at]), strings.Trim(strings.TrimSpace(name[at+1:]), ")] ")
	}
	if at := strings.LastIndexAny(name, ", "); at > 0 {
		if _, ok := units[name[at+1:]]; ok {
			return strings.Trim(name[:at], ", "), name[at+1:]
		}
	}
	return name, ""
}

// cellOf reads a cell; the message says what is wrong with it.
func (h found[T]) cellOf(text string, money float64) (c cell, message string) {
	text = unguarded(strings.TrimSpace(text))
	c.text, c.empty = text, text == ""
	if c.empty || h.column.kind == words {
		return c, ""
	}
	if h.column.kind == yesNo {
		switch strings.ToLower(text) {
		case "yes", "y", "true", "1", "x":
			c.yes = true
		case "no", "n", "false", "0", "-":
		default:
			return c, fmt.Sprintf("Yes or no belongs here; it is %q.", text)
		}
		return c, ""
	}
	v, unit, ok := readNumber(text)
	if !ok {
		return c, fmt.Sprintf("A number belongs here; it is %q.", text)
	}
	switch h.column.kind {
	case count:
		if unit != "" || v != float64(int(v)) {
			return c, fmt.Sprintf("A whole number belongs here; it is %q.", text)
		}
	case length:
		scale := h.unit
		if unit != "" {
			s, known := units[unit]
			if !known {
				return c, fmt.Sprintf("A length is in mm, cm or in; it is %q.", text)
			}
			scale = s
		}
		v *= scale
	case amount:
		v *= money
	case number:
		if unit != "" && unit != "g" && unit != "mm" {
			return c, fmt.Sprintf("A number belongs here; it is %q.", text)
		}
	}
	c.number = v
	return c, ""
}

// readNumber reads "4.2", "4,2", "1,250.00", "1.250,00" and "18 in": the last of comma and point
// is the decimal sign, unless it stands before three figures with the other one before it.
func readNumber(text string) (v float64, unit string, ok bool) {
	end := len(text)
	for end > 0 && !strings.ContainsRune("0123456789", rune(text[end-1])) {
		end--
	}
	unit = strings.ToLower(strings.TrimSpace(text[end:]))
	digits := strings.NewReplacer(" ", "", "\u00a0", "", "\u202f", "", "'", "").Replace(strings.TrimLeft(text[:end], "$€£ "))
	comma, point := strings.LastIndexByte(digits, ','), strings.LastIndexByte(digits, '.')
	switch {
	case comma >= 0 && point >= 0 && comma > point:
		digits = strings.Replace(strings.ReplaceAll(digits, ".", ""), ",", ".", 1)
	case comma >= 0 && point >= 0:
		digits = strings.ReplaceAll(digits, ",", "")
	case comma >= 0 && strings.Count(digits, ",") == 1:
		digits = strings.Replace(digits, ",", ".", 1)
	case comma >= 0:
		digits = strings.ReplaceAll(digits, ",", "")
	}
	v, err := strconv.ParseFloat(digits, 64)
	return v, unit, err == nil && v < 1e12 && v > -1e12
}

func plain(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }
