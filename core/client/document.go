package client

import (
	"encoding/json"
	"fmt"
)

// Schema is the version of the document this package writes.
const Schema = 2

// steps lead from a version of the document to the next. Each is frozen: it knows the
// documents of its two versions and none of the program's types.
var steps = map[int]func(map[string]json.RawMessage) error{
	// Version 1 did not say its version, and knew no hairline of the client's own.
	1: func(d map[string]json.RawMessage) error {
		d["hairline"] = json.RawMessage("{}")
		return nil
	},
}

// Decode reads facts as they are stored, of any version up to [Schema].
func Decode(raw []byte) (Facts, error) {
	var document map[string]json.RawMessage
	if err := json.Unmarshal(raw, &document); err != nil {
		return Facts{}, fmt.Errorf("reading a client's facts: %w", err)
	}
	version := 1
	if said := document["schema"]; said != nil {
		if err := json.Unmarshal(said, &version); err != nil {
			return Facts{}, fmt.Errorf("reading the version of a client's facts: %w", err)
		}
	}
	for ; version < Schema; version++ {
		step, ok := steps[version]
		if !ok {
			return Facts{}, fmt.Errorf("a client's facts are of version %d, which is unknown", version)
		}
		if err := step(document); err != nil {
			return Facts{}, fmt.Errorf("upgrading a client's facts from version %d: %w", version, err)
		}
		document["schema"] = json.RawMessage(fmt.Sprint(version + 1))
	}
	upgraded, err := json.Marshal(document)
	if err != nil {
		return Facts{}, err
	}
	var f Facts
	if err := json.Unmarshal(upgraded, &f); err != nil {
		return Facts{}, fmt.Errorf("reading a client's facts: %w", err)
	}
	return f, nil
}
