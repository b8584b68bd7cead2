package studio

import (
	"context"
	"strings"

	"kladotex/core/invalid"
	"kladotex/internal/sheet"
	"kladotex/internal/store"
)

// CreateClient adds a client under an id made by who adds them. The same again is the
// client that is there.
func (s *Studio) CreateClient(ctx context.Context, id string, d store.ClientDraft) (store.Client, error) {
	checked, err := checkedClient(d)
	if err != nil {
		return store.Client{}, err
	}
	return s.Store.CreateClient(ctx, id, checked)
}

// SaveClient saves a client over the version it started from.
func (s *Studio) SaveClient(ctx context.Context, id string, version int, d store.ClientDraft) (store.Client, error) {
	checked, err := checkedClient(d)
	if err != nil {
		return store.Client{}, err
	}
	return s.Store.SaveClient(ctx, id, version, checked)
}

// checkedClient refuses a client without a name or with facts that cannot be.
func checkedClient(d store.ClientDraft) (store.ClientDraft, error) {
	d.Name = strings.TrimSpace(d.Name)
	if d.Name == "" {
		var bad invalid.Errors
		bad.Add("name", "A client needs a name.")
		return store.ClientDraft{}, bad
	}
	return d, invalid.Under(d.Facts.Check(), "facts")
}

// Dossier writes everything that is held about a client.
func (s *Studio) Dossier(ctx context.Context, id string) (name string, file []byte, err error) {
	held, err := s.Store.Dossier(ctx, id)
	if err != nil {
		return "", nil, err
	}
	file, err = sheet.Dossier(held)
	return held.Client.Name, file, err
}
