package plan

import (
	"slices"

	"kladotex/core/method"
	"kladotex/core/parting"
)

// Redo is a plan of the outer rows of a head that is worn: they are taken off, parted, plaited and
// attached again, and all else stays as it hangs.
type Redo struct {
	// Install is the one the head is worn from.
	Install string `json:"install" maxLength:"64" doc:"Id of the install the head is worn from"`
	// Rows is 1 for the row at the hairline, 2 for the row behind it too.
	Rows int `json:"rows" minimum:"1" maximum:"2" doc:"1 for the row at the hairline, 2 for the row behind it too"`
}

const outerRows = 2

// outer is, for every place, the outer row it belongs to: 1 for plaits at the hairline, 2 for those
// beside them, 0 for all others and for what is hooked on a base.
func outer(f *finder, l *parting.Layout, places []Place) []int {
	row := make([]int, len(places))
	ring := map[string]bool{}
	for i := range places {
		if p := &places[i]; p.Ground == method.OnPlait && p.Section >= 0 && f.atHairline(p) {
			row[i] = 1
			ring[p.ID] = true
		}
	}
	for i := range places {
		p := &places[i]
		if row[i] == 0 && p.Ground == method.OnPlait && p.Section >= 0 &&
			slices.ContainsFunc(l.Sections[p.Section].Neighbours, func(id string) bool { return ring[id] }) {
			row[i] = 2
		}
	}
	return row
}

// keep marks the places that stay as they hang.
func (in Input) keep(f *finder, l *parting.Layout, places []Place) {
	if in.Redo == nil {
		return
	}
	for i, row := range outer(f, l, places) {
		places[i].Kept = row == 0 || row > in.Redo.Rows
	}
}
