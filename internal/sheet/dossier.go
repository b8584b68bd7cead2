package sheet

import (
	"encoding/json"
	"time"

	"kladotex/core/chair"
	"kladotex/core/client"
	"kladotex/core/message"
	"kladotex/core/plan"
	"kladotex/core/quote"
	"kladotex/core/wear"
	"kladotex/internal/calendar"
	"kladotex/internal/store"
)

// Dossier writes everything a studio holds about one client down, as JSON, for the client
// to read and keep.
func Dossier(h store.Dossier) ([]byte, error) {
	type version struct {
		Version int        `json:"version"`
		Title   string     `json:"title"`
		SavedBy string     `json:"savedBy"`
		SavedAt time.Time  `json:"savedAt"`
		Input   plan.Input `json:"input"`
	}
	type pinned struct {
		Name  string      `json:"name"`
		Input *plan.Input `json:"input,omitempty"`
	}
	type heldPlan struct {
		Title    string    `json:"title"`
		Created  time.Time `json:"created"`
		Updated  time.Time `json:"updated"`
		Pinned   []pinned  `json:"pinned"`
		Versions []version `json:"versions"`
	}
	type heldQuote struct {
		Number int          `json:"number"`
		State  quote.State  `json:"state"`
		Given  quote.Letter `json:"given"`
	}
	type heldBooking struct {
		At     time.Time        `json:"at"`
		Booked calendar.Booking `json:"booked"`
	}
	type heldMessage struct {
		At   time.Time        `json:"at"`
		Says message.Template `json:"says"`
	}
	type heldInstall struct {
		Title   string        `json:"title"`
		Started time.Time     `json:"started"`
		Closed  time.Time     `json:"closed"`
		Events  []chair.Event `json:"events"`
		// Photos are JPEG.
		Photos [][]byte `json:"photos"`
		// Worn is what was seen and done while it was worn.
		Worn []wear.Entry `json:"worn"`
	}
	out := struct {
		Format   string       `json:"format"`
		Name     string       `json:"name"`
		Archived bool         `json:"archived"`
		Created  time.Time    `json:"created"`
		Updated  time.Time    `json:"updated"`
		Facts    client.Facts `json:"facts"`
		// Acknowledged are the grave cautions that were read.
		Acknowledged []store.Acknowledged `json:"acknowledged"`
		Plans        []heldPlan           `json:"plans"`
		Quotes       []heldQuote          `json:"quotes"`
		Bookings     []heldBooking        `json:"bookings"`
		Messages     []heldMessage        `json:"messages"`
		Installs     []heldInstall        `json:"installs"`
	}{
		"kladotex-client", h.Client.Name, h.Client.Archived, h.Client.Created, h.Client.Updated, h.Client.Facts, append([]store.Acknowledged{}, h.Client.Acknowledged...), []heldPlan{}, []heldQuote{}, []heldBooking{}, []heldMessage{}, []heldInstall{},
	}
	for _, p := range h.Plans {
		entry := heldPlan{Title: p.Plan.Title, Created: p.Plan.Created, Updated: p.Plan.Updated, Pinned: []pinned{}, Versions: []version{}}
		for _, v := range p.Plan.Variants {
			entry.Pinned = append(entry.Pinned, pinned{v.Name, v.Input})
		}
		for _, v := range p.Versions {
			entry.Versions = append(entry.Versions, version{v.Version, v.Title, v.SavedBy, v.SavedAt, v.Input})
		}
		out.Plans = append(out.Plans, entry)
	}
	for _, q := range h.Quotes {
		out.Quotes = append(out.Quotes, heldQuote{q.Number, q.State, q.Given})
	}
	for _, b := range h.Bookings {
		out.Bookings = append(out.Bookings, heldBooking{b.At, b.Entry})
	}
	for _, m := range h.Messages {
		out.Messages = append(out.Messages, heldMessage{m.At, m.Words})
	}
	for _, i := range h.Installs {
		out.Installs = append(out.Installs, heldInstall{i.Install.Brief.Title, i.Install.Started, i.Install.Closed, i.Events, i.Photos, append([]wear.Entry{}, i.Worn...)})
	}
	raw, err := json.MarshalIndent(out, "", "  ")
	return append(raw, '\n'), err
}
