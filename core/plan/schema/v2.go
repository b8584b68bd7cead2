package schema

import "encoding/json"

// from2: version 2 knew one structure, individuals all over along a middle part to the
// nape, on the usual hairline, and no changes by hand.
func from2(d document) error {
	type wish struct {
		Pattern string  `json:"pattern"`
		Width   float64 `json:"widthMm"`
		Height  float64 `json:"heightMm"`
		Ramp    float64 `json:"ramp"`
	}
	var old struct {
		Front wish `json:"front"`
		Back  wish `json:"back"`
	}
	if err := d.read("parting", &old); err != nil {
		return err
	}
	now := func(w wish) map[string]any {
		return map[string]any{"pattern": w.Pattern, "widthMm": w.Width, "heightMm": w.Height, "ramp": w.Ramp, "along": 1}
	}
	d["hairline"] = json.RawMessage("{}")
	return d.write("parting", map[string]any{
		"structure": "all",
		"part":      map[string]any{"kind": "middle", "offsetMm": 0, "endOffsetMm": 0, "stopMm": 0, "earPartMm": 0},
		"front":     now(old.Front), "back": now(old.Back),
		"rows": 1, "peakRow": false, "perSide": 12, "napeGuard": false,
		"base": map[string]any{
			"kind": "tracks", "run": "straight-back", "tracks": 10, "sideTracks": 4,
			"mergeInto": 0, "mergeAfterMm": 0, "tails": "tucked", "spacingMm": 19,
		},
		"design":  map[string]any{"side": "both", "tracks": 3, "curved": false},
		"edgesMm": 0, "leftOut": []any{}, "edits": []any{},
	})
}
