package plan

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"regexp"

	"kladotex/core/invalid"
	"kladotex/core/plan/schema"
)

// Decode reads one input document of at most MaxDocument bytes, strictly:
// unknown fields, trailing text and unknown versions are refused. The error is an
// [invalid.Errors] when it is about the document and not about reading it.
func Decode(r io.Reader) (Input, error) {
	raw, err := readLimited(r)
	if err != nil {
		return Input{}, err
	}
	var bad invalid.Errors
	// The version first: a newer document may have fields this one lacks.
	var head struct {
		Schema *int `json:"schema"`
	}
	if err := json.Unmarshal(raw, &head); err != nil {
		return Input{}, unreadable(err)
	}
	if head.Schema == nil {
		bad.Add("schema", "The plan does not say its version; %d is current.", Schema)
		return Input{}, bad
	}
	if *head.Schema != Schema {
		// What stands behind the document would be lost on the way.
		if err := decodeStrictly(raw, new(map[string]json.RawMessage)); err != nil {
			return Input{}, err
		}
	}
	switch raw, err = schema.Upgrade(raw, *head.Schema); {
	case errors.Is(err, schema.ErrUnknown):
		return Input{}, Input{Schema: *head.Schema}.check()[:1]
	case err != nil:
		return Input{}, unreadable(err)
	}
	var in Input
	if err := decodeStrictly(raw, &in); err != nil {
		return Input{}, err
	}
	return in, nil
}

// readLimited reads a document of at most MaxDocument bytes.
func readLimited(r io.Reader) ([]byte, error) {
	raw, err := io.ReadAll(io.LimitReader(r, MaxDocument+1))
	if err != nil {
		return nil, fmt.Errorf("reading the plan: %w", err)
	}
	if len(raw) > MaxDocument {
		var bad invalid.Errors
		bad.Add("(document)", "The plan is larger than 1 MB; a plan takes a few kB.")
		return nil, bad
	}
	return raw, nil
}

// decodeStrictly reads one JSON document into v and refuses unknown fields and
// trailing text.
func decodeStrictly(raw []byte, v any) error {
	d := json.NewDecoder(bytes.NewReader(raw))
	d.DisallowUnknownFields()
	if err := d.Decode(v); err != nil {
		return unreadable(err)
	}
	if _, err := d.Token(); err != io.EOF {
		var bad invalid.Errors
		bad.Add("(document)", "Not valid JSON: something stands behind the plan.")
		return bad
	}
	return nil
}

var unknownField = regexp.MustCompile(`unknown field "(.*)"`)

// unreadable turns a decoding error into a refusal that names the place.
func unreadable(err error) invalid.Errors {
	var bad invalid.Errors
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	switch {
	case errors.As(err, &kind):
		bad.Add(orDocument(kind.Field), "A %s stands where a %s belongs.", kind.Value, kind.Type)
	case errors.Is(err, io.ErrUnexpectedEOF), errors.Is(err, io.EOF):
		bad.Add("(document)", "Not valid JSON: it ends too early.")
	case errors.As(err, &syntax):
		bad.Add("(document)", "Not valid JSON at byte %d: %s.", syntax.Offset, syntax.Error())
	default:
		if m := unknownField.FindStringSubmatch(err.Error()); m != nil {
			bad.Add(orDocument(m[1]), "A plan has no field named %q; check its spelling.", m[1])
		} else {
			bad.Add("(document)", "Not a plan: %s.", err)
		}
	}
	return bad
}

func orDocument(path string) string {
	if path == "" {
		return "(document)"
	}
	return path
}
