// Package schema brings a plan's document of any earlier version up to the current one.
//
// Every step is frozen for its version: it knows the documents of its two versions and
// none of the program's types, so that nothing that changes later changes what an old
// file means.
package schema

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
)

// Current is the version of the document that the program writes.
const Current = 5

// ErrUnknown: the document is of a version that no step leads on from.
var ErrUnknown = errors.New("unknown version of a plan")

// steps lead from a version to the next.
var steps = map[int]func(document) error{1: from1, 2: from2, 3: from3, 4: from4}

// document is a JSON object by the names of its fields.
type document map[string]json.RawMessage

// Upgrade brings a document of some version up to [Current], one version at a time. What
// it does not understand it leaves for who reads the result to refuse. The error is
// ErrUnknown, or one of encoding/json.
func Upgrade(raw []byte, version int) ([]byte, error) {
	if version == Current {
		return raw, nil
	}
	var d document
	if err := json.Unmarshal(raw, &d); err != nil {
		return nil, err
	}
	for ; version != Current; version++ {
		step, ok := steps[version]
		if !ok {
			return nil, ErrUnknown
		}
		if err := step(d); err != nil {
			return nil, fmt.Errorf("from version %d: %w", version, err)
		}
		d["schema"] = json.RawMessage(fmt.Sprint(version + 1))
	}
	return json.Marshal(d)
}

// read puts a field of the document into v; a field that is missing leaves v as it is,
// and one that v does not know is refused.
func (d document) read(name string, v any) error {
	raw, have := d[name]
	if !have {
		return nil
	}
	return strictly(raw, v)
}

// strictly reads JSON into v and refuses fields that v does not know, so that nothing is
// lost in silence.
func strictly(raw []byte, v any) error {
	decoder := json.NewDecoder(bytes.NewReader(raw))
	decoder.DisallowUnknownFields()
	return decoder.Decode(v)
}

// write puts v into a field of the document.
func (d document) write(name string, v any) error {
	raw, err := json.Marshal(v)
	d[name] = raw
	return err
}
