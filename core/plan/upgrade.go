package plan

import (
	"encoding/json"
	"fmt"

	"kladotex/core/parting"
)

// upgrade brings a document of some version up to [Schema], one version at a time. A
// version it does not know is refused.
func upgrade(raw []byte, version int) ([]byte, error) {
	steps := map[int]func([]byte) ([]byte, error){1: fromSchema1, 2: fromSchema2}
	for version != Schema {
		step, ok := steps[version]
		if !ok {
			return nil, Input{Schema: version}.check()[:1]
		}
		var err error
		if raw, err = step(raw); err != nil {
			return nil, err
		}
		version++
	}
	return raw, nil
}

// fromSchema2 brings a document of version 2 up to version 3. Version 2 knew one
// structure, individuals all over along a middle part to the nape, on the usual
// hairline, and no changes by hand.
func fromSchema2(raw []byte) ([]byte, error) {
	var document map[string]json.RawMessage
	if err := json.Unmarshal(raw, &document); err != nil {
		return nil, unreadable(err)
	}
	type wish struct {
		Pattern parting.Pattern `json:"pattern"`
		parting.Size
		Ramp float64 `json:"ramp"`
	}
	var old struct {
		Front wish `json:"front"`
		Back  wish `json:"back"`
	}
	if raw, ok := document["parting"]; ok {
		if err := decodeStrictly(raw, &old); err != nil {
			return nil, err
		}
	}
	now := func(w wish) parting.Wish {
		return parting.Wish{Pattern: w.Pattern, Size: w.Size, Ramp: w.Ramp, Along: 1}
	}
	settings := parting.Plain(now(old.Front), now(old.Back))
	var err error
	if document["parting"], err = json.Marshal(settings); err != nil {
		return nil, fmt.Errorf("upgrading the plan: %w", err)
	}
	document["hairline"] = json.RawMessage("{}")
	document["schema"] = json.RawMessage("3")
	return json.Marshal(document)
}

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
