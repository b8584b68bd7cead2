package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"

	"kladotex/core/client"
)

// Client is a stored client.
type Client struct {
	ClientEntry
	Facts client.Facts
}

// ClientEntry is a client as a list shows her.
type ClientEntry struct {
	ID       string
	Name     string
	Archived bool
	Version  int // counts saves, from 1
	Plans    int // plans made for her
	Created  time.Time
	Updated  time.Time
}

const clientColumns = `id, name, archived, version, (SELECT count(*) FROM plan WHERE client_id = client.id), created_at, updated_at`

func (c *ClientEntry) fields() []any {
	return []any{&c.ID, &c.Name, &c.Archived, &c.Version, &c.Plans, (*stamp)(&c.Created), (*stamp)(&c.Updated)}
}

// Clients lists the clients whose names hold search, whatever the case, by name.
// An empty search lists all. Archived clients are listed when asked for, and
// then they alone.
func (s *Store) Clients(ctx context.Context, search string, archived bool) ([]ClientEntry, error) {
	return list(ctx, s, "clients", func(row scanner) (c ClientEntry, err error) {
		err = row.Scan(c.fields()...)
		return c, err
	}, `SELECT `+clientColumns+` FROM client
		WHERE archived = ? AND (? = '' OR instr(lower(name), lower(?)) > 0)
		ORDER BY name COLLATE NOCASE, id`, archived, search, search)
}

// Client reads one client.
func (s *Store) Client(ctx context.Context, id string) (Client, error) {
	var c Client
	var document string
	err := s.db.QueryRowContext(ctx, `SELECT `+clientColumns+`, document FROM client WHERE id = ?`, id).Scan(append(c.fields(), &document)...)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	if err == nil {
		err = json.Unmarshal([]byte(document), &c.Facts)
	}
	if err != nil {
		return Client{}, fmt.Errorf("client %s: %w", id, err)
	}
	return c, nil
}

// CreateClient stores a new client under a new id.
func (s *Store) CreateClient(ctx context.Context, name string, facts client.Facts) (Client, error) {
	document, err := json.Marshal(facts)
	if err != nil {
		return Client{}, fmt.Errorf("storing a client: %w", err)
	}
	now := time.Now().UTC()
	c := Client{ClientEntry{ID: uuid.NewString(), Name: name, Version: 1, Created: now, Updated: now}, facts}
	_, err = s.db.ExecContext(ctx, `INSERT INTO client (id, name, version, document, created_at, updated_at) VALUES (?, ?, ?, ?, ?, ?)`,
		c.ID, c.Name, c.Version, string(document), stampOf(now), stampOf(now))
	if err != nil {
		return Client{}, fmt.Errorf("storing a client: %w", err)
	}
	return c, nil
}

// SaveClient replaces a client who still has the given version. It fails with
// ErrStale when she was saved since, with ErrNotFound when she is gone.
func (s *Store) SaveClient(ctx context.Context, id string, version int, name string, archived bool, facts client.Facts) (Client, error) {
	document, err := json.Marshal(facts)
	if err != nil {
		return Client{}, fmt.Errorf("saving client %s: %w", id, err)
	}
	res, err := s.db.ExecContext(ctx, `UPDATE client SET name = ?, archived = ?, document = ?, version = version + 1, updated_at = ?
		WHERE id = ? AND version = ?`, name, archived, string(document), stampOf(time.Now()), id, version)
	if err != nil {
		return Client{}, fmt.Errorf("saving client %s: %w", id, err)
	}
	n, err := res.RowsAffected()
	if err != nil {
		return Client{}, fmt.Errorf("saving client %s: %w", id, err)
	}
	c, err := s.Client(ctx, id)
	if err == nil && n == 0 {
		err = fmt.Errorf("client %s: %w", id, ErrStale)
	}
	return c, err
}

// DeleteClient removes a client with all her plans.
func (s *Store) DeleteClient(ctx context.Context, id string) error {
	return s.deleteFrom(ctx, "client", id)
}

// deleteFrom removes the row with the id from a table, ErrNotFound if there is none.
func (s *Store) deleteFrom(ctx context.Context, table, id string) error {
	res, err := s.db.ExecContext(ctx, `DELETE FROM `+table+` WHERE id = ?`, id)
	if err != nil {
		return fmt.Errorf("deleting %s %s: %w", table, id, err)
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return fmt.Errorf("%s %s: %w", table, id, errors.Join(ErrNotFound, err))
	}
	return nil
}
