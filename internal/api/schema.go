package api

import (
	"bytes"
	"encoding/json"
	"regexp"

	"kladotex/core/plan"
)

// reference is a reference between schemas of the interface's description.
var reference = regexp.MustCompile(`#/components/schemas/(\w+)`)

// collect puts the named schema and all it refers to into defs.
func collect(defs, from map[string]json.RawMessage, name string) {
	if _, have := defs[name]; have {
		return
	}
	defs[name] = from[name]
	for _, found := range reference.FindAllSubmatch(from[name], -1) {
		collect(defs, from, string(found[1]))
	}
}

// FileSchema is the JSON Schema (2020-12) of an exported plan, as JSON.
func FileSchema() ([]byte, error) {
	described, err := Describe()
	if err != nil {
		return nil, err
	}
	var doc struct {
		Components struct {
			Schemas map[string]json.RawMessage `json:"schemas"`
		} `json:"components"`
	}
	if err := json.Unmarshal(described, &doc); err != nil {
		return nil, err
	}
	defs := map[string]json.RawMessage{}
	collect(defs, doc.Components.Schemas, "Input")
	schema := map[string]any{
		"$schema":              "https://json-schema.org/draft/2020-12/schema",
		"title":                "A plan of Kladotex",
		"type":                 "object",
		"required":             []string{"format", "title", "plan"},
		"additionalProperties": false,
		"properties": map[string]any{
			"format": map[string]any{"const": plan.Format},
			"title":  map[string]any{"type": "string", "minLength": 1, "maxLength": 120},
			"plan":   map[string]any{"$ref": "#/$defs/Input"},
		},
		"$defs": defs,
	}
	raw, err := json.MarshalIndent(schema, "", "  ")
	return append(bytes.ReplaceAll(raw, []byte("#/components/schemas/"), []byte("#/$defs/")), '\n'), err
}
