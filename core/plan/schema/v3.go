package schema

import "encoding/json"

// from3: version 3 had one length of hair, one piece, one method for every loose plait
// and one hooking where none hang, and set the pieces of a section by an edit of the
// parting.
func from3(d document) error {
	if err := hair4(d); err != nil {
		return err
	}
	perSection, err := piece4(d)
	if err != nil {
		return err
	}
	if err := ways4(d); err != nil {
		return err
	}
	if err := uses4(d, perSection[0], perSection[1]); err != nil {
		return err
	}
	for name, raw := range map[string]string{
		"plaits": `{"far":"whole","fedMm":0,"direction":"over","tension":"slack","band":false}`,
		"fill":   `{"piece":"p1","count":0}`,
		"child":  `false`,
	} {
		d[name] = json.RawMessage(raw)
	}
	return nil
}

// hair4 gives every part of the head the one length there was.
func hair4(d document) error {
	var old map[string]json.RawMessage
	if err := d.read("hair", &old); err != nil {
		return err
	}
	for _, area := range []string{"frontMm", "sidesMm", "crownMm", "napeMm"} {
		if old["lengthMm"] != nil {
			old[area] = old["lengthMm"]
		}
	}
	delete(old, "lengthMm")
	if old != nil {
		old["texture"], old["edges"] = json.RawMessage(`"coily"`), json.RawMessage(`"strong"`)
	}
	return d.write("hair", old)
}

// piece4 makes the piece the first of a list; the number on a section in front and
// behind is given back.
func piece4(d document) (perSection [2]int, err error) {
	var old map[string]json.RawMessage
	if err := d.read("piece", &old); err != nil {
		return perSection, err
	}
	delete(d, "piece")
	var counts struct {
		Front int `json:"front"`
		Back  int `json:"back"`
	}
	if raw := old["perSection"]; raw != nil {
		if err := strictly(raw, &counts); err != nil {
			return perSection, err
		}
	}
	delete(old, "perSection")
	rename := func(from, to string) {
		if old[from] != nil {
			old[to] = old[from]
			delete(old, from)
		}
	}
	if old != nil {
		rename("line", "name")
		rename("diameterMm", "thicknessMm")
		old["key"], old["colour"], old["loopMm"] = json.RawMessage(`"p1"`), json.RawMessage(`""`), json.RawMessage(`0`)
		if string(old["form"]) == `"looped-loc"` {
			old["form"] = json.RawMessage(`"soft-loc"`)
		}
	}
	return [2]int{counts.Front, counts.Back}, d.write("pieces", []any{old})
}

// ways4 makes the method the first of a list, with what was set of it, and hooking the
// second. The wrapping hair is kept with the first, whether its method wraps or not.
func ways4(d document) error {
	var attach struct {
		Method string   `json:"method"`
		Pitch  *float64 `json:"pitchMm"`
	}
	if err := d.read("attach", &attach); err != nil {
		return err
	}
	var wrap map[string]json.RawMessage
	if err := d.read("wrap", &wrap); err != nil {
		return err
	}
	delete(d, "attach")
	delete(d, "wrap")
	settings := map[string]any{}
	switch attach.Method {
	case "L1":
		settings["pitchMm"] = attach.Pitch
	case "W2":
		for _, key := range []string{"ribbonMm", "tailMm"} {
			if wrap[key] != nil {
				settings[key] = wrap[key]
			}
		}
	}
	delete(wrap, "ribbonMm")
	delete(wrap, "tailMm")
	return d.write("ways", []any{
		map[string]any{"key": "w1", "method": attach.Method, "settings": settings, "wrapping": wrap},
		map[string]any{"key": "hook", "method": "L5", "settings": map[string]any{}},
	})
}

// uses4 writes who gets what: the piece and the method everywhere, as many behind as
// there were, hooking on the base, and the numbers that were set by hand.
func uses4(d document, front, back int) error {
	var parting map[string]json.RawMessage
	if err := d.read("parting", &parting); err != nil {
		return err
	}
	var base struct {
		Kind string `json:"kind"`
	}
	if raw := parting["base"]; raw != nil {
		if err := json.Unmarshal(raw, &base); err != nil {
			return err
		}
	}
	var structure string
	if raw := parting["structure"]; raw != nil {
		if err := json.Unmarshal(raw, &structure); err != nil {
			return err
		}
	}
	type where map[string]any
	onBase := map[string]any{"where": where{"kind": "base"}, "way": "hook"}
	if base.Kind != "linked" && structure != "linked" {
		onBase["count"] = 1 // one on each hook, whatever hangs on plaits
	}
	uses := []any{map[string]any{"where": where{"kind": "everywhere"}, "piece": "p1", "way": "w1", "count": front}, onBase}
	if back != front {
		behind := map[string]any{"where": where{"kind": "back"}, "count": back}
		if base.Kind != "linked" && structure != "linked" {
			// Hooks behind keep their one: plaits first, then the base again.
			uses = append(uses, behind, map[string]any{"where": where{"kind": "base"}, "count": 1})
		} else {
			uses = append(uses, behind)
		}
	}
	var edits, kept []map[string]json.RawMessage
	if raw := parting["edits"]; raw != nil {
		if err := json.Unmarshal(raw, &edits); err != nil {
			return err
		}
		kept = []map[string]json.RawMessage{}
		for _, e := range edits {
			if string(e["kind"]) != `"pieces"` {
				kept = append(kept, e)
				continue
			}
			uses = append(uses, map[string]any{
				"where": where{"kind": "places", "places": []json.RawMessage{e["at"]}}, "count": e["pieces"],
			})
		}
		raw, err := json.Marshal(kept)
		if err != nil {
			return err
		}
		parting["edits"] = raw
		if err := d.write("parting", parting); err != nil {
			return err
		}
	}
	return d.write("uses", uses)
}
