package schema

import (
	"encoding/json"
	"slices"
)

// from4: version 4 kept wrapping hair with methods that wind none.
func from4(d document) error {
	var ways []map[string]json.RawMessage
	if err := d.read("ways", &ways); err != nil || ways == nil {
		return err
	}
	for _, w := range ways {
		var id string
		if err := json.Unmarshal(w["method"], &id); err != nil {
			return err
		}
		if !slices.Contains([]string{"W1", "W2", "W4", "W5"}, id) {
			delete(w, "wrapping")
		}
	}
	return d.write("ways", ways)
}
