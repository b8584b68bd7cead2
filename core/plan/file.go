package plan

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"unicode/utf8"

	"kladotex/core/invalid"
)

// Format marks a file as a plan of ours.
const Format = "kladotex-plan"

// File is a plan on its own, to be kept or carried to another studio. It names
// no client. Its JSON Schema is docs/plan.schema.json.
type File struct {
	Title string
	Input Input
}

// fileDocument is a File as it is written.
type fileDocument struct {
	Format string          `json:"format"`
	Title  string          `json:"title"`
	Plan   json.RawMessage `json:"plan"`
}

// maxTitle is the length of a title in letters.
const maxTitle = 120

// Encode writes the file as JSON.
func (f File) Encode() ([]byte, error) {
	input, err := json.Marshal(f.Input)
	if err != nil {
		return nil, fmt.Errorf("writing the plan %q: %w", f.Title, err)
	}
	raw, err := json.MarshalIndent(fileDocument{Format, f.Title, input}, "", "  ")
	return append(raw, '\n'), err
}

// ReadAny reads a plan's input by itself, as [Decode] does, or out of a file, as
// [ReadFile] does: whichever it is.
func ReadAny(r io.Reader) (Input, error) {
	raw, err := readLimited(r)
	if err != nil {
		return Input{}, err
	}
	var marked struct {
		Format *string `json:"format"`
	}
	if json.Unmarshal(raw, &marked) == nil && marked.Format != nil {
		f, err := ReadFile(bytes.NewReader(raw))
		return f.Input, err
	}
	return Decode(bytes.NewReader(raw))
}

// ReadFile reads what [File.Encode] wrote, strictly. The error is an
// [invalid.Errors] when it is about the file and not about reading it.
func ReadFile(r io.Reader) (File, error) {
	raw, err := readLimited(r)
	if err != nil {
		return File{}, err
	}
	var doc fileDocument
	if err := decodeStrictly(raw, &doc); err != nil {
		return File{}, err
	}
	var bad invalid.Errors
	letters := utf8.RuneCountInString(doc.Title)
	switch {
	case doc.Format != Format:
		bad.Add("format", "This is not a plan of Kladotex: its format must be %q; it is %q.", Format, doc.Format)
	case letters == 0 || letters > maxTitle:
		bad.Add("title", "The title must have 1 to %d letters; it has %d.", maxTitle, letters)
	case len(doc.Plan) == 0:
		bad.Add("plan", "The file holds no plan.")
	}
	if len(bad) > 0 {
		return File{}, bad
	}
	in, err := Decode(bytes.NewReader(doc.Plan))
	if err != nil {
		return File{}, invalid.Under(err, "plan")
	}
	return File{doc.Title, in}, nil
}
