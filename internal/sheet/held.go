package sheet

import (
	"encoding/json"
	"time"

	"kladotex/core/client"
	"kladotex/core/plan"
	"kladotex/internal/store"
)

// Held is everything a studio holds about one client.
type Held struct {
	Client store.Client
	Plans  []HeldPlan
}

// HeldPlan is a plan made for her, with its history.
type HeldPlan struct {
	Entry    store.Entry
	Versions []store.Version
}

// JSON writes it down for the client to read and keep.
func (h Held) JSON() ([]byte, error) {
	type version struct {
		Version int        `json:"version"`
		Title   string     `json:"title"`
		SavedBy string     `json:"savedBy"`
		SavedAt time.Time  `json:"savedAt"`
		Input   plan.Input `json:"input"`
	}
	type heldPlan struct {
		Title    string    `json:"title"`
		Created  time.Time `json:"created"`
		Versions []version `json:"versions"`
	}
	out := struct {
		Format   string       `json:"format"`
		Name     string       `json:"name"`
		Archived bool         `json:"archived"`
		Created  time.Time    `json:"created"`
		Updated  time.Time    `json:"updated"`
		Facts    client.Facts `json:"facts"`
		Plans    []heldPlan   `json:"plans"`
	}{
		"kladotex-client", h.Client.Name, h.Client.Archived, h.Client.Created, h.Client.Updated, h.Client.Facts, []heldPlan{},
	}
	for _, p := range h.Plans {
		entry := heldPlan{Title: p.Entry.Title, Created: p.Entry.Created, Versions: []version{}}
		for _, v := range p.Versions {
			entry.Versions = append(entry.Versions, version{v.Version, v.Title, v.SavedBy, v.SavedAt, v.Input})
		}
		out.Plans = append(out.Plans, entry)
	}
	raw, err := json.MarshalIndent(out, "", "  ")
	return append(raw, '\n'), err
}
