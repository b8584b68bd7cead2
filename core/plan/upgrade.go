package plan

import (
	"encoding/json"
	"fmt"
)

// fromSchema1 brings a document of version 1 up to version 2. Version 1 had one
// pattern for the whole head, and sections of one size all over a zone.
func fromSchema1(raw []byte) ([]byte, error) {
	var document map[string]json.RawMessage
	if err := json.Unmarshal(raw, &document); err != nil {
		return nil, unreadable(err)
	}
	type size struct {
		Width  float64 `json:"widthMm"`
		Height float64 `json:"heightMm"`
	}
	var old struct {
		Pattern string `json:"pattern"`
		Front   size   `json:"front"`
		Back    size   `json:"back"`
	}
	if parting, ok := document["parting"]; ok {
		if err := decodeStrictly(parting, &old); err != nil {
			return nil, err
		}
	}
	type wish struct {
		Pattern string `json:"pattern"`
		size
		Ramp float64 `json:"ramp"`
	}
	parting, err := json.Marshal(map[string]wish{
		"front": {old.Pattern, old.Front, 1}, "back": {old.Pattern, old.Back, 1},
	})
	if err != nil {
		return nil, fmt.Errorf("upgrading the plan: %w", err)
	}
	document["parting"], document["schema"] = parting, json.RawMessage("2")
	return json.Marshal(document)
}
