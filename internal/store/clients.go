package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"time"

	"kladotex/core/chair"
	"kladotex/core/client"
	"kladotex/core/wear"
)

// Client is a stored client.
type Client struct {
	ClientEntry
	Facts client.Facts
	// Acknowledged are the grave cautions that were read and still hold.
	Acknowledged []Acknowledged
}

// ClientEntry is a client as a list shows it.
type ClientEntry struct {
	ID       string
	Name     string
	Archived bool
	Version  int // counts saves, from 1
	Plans    int // plans made for the client
	Created  time.Time
	Updated  time.Time
}

const clientColumns = `id, name, archived, version, (SELECT count(*) FROM plan WHERE client_id = client.id), created_at, updated_at`

func (c *ClientEntry) fields() []any {
	return []any{&c.ID, &c.Name, &c.Archived, &c.Version, &c.Plans, (*stamp)(&c.Created), (*stamp)(&c.Updated)}
}

// Page says which part of a list is wanted.
type Page struct {
	// After is the [Entry.Cursor] or [ClientEntry.Cursor] of the last one had; empty
	// for the first page.
	After string
	// Limit is how many at most.
	Limit int
}

// split takes a cursor apart. What is no cursor of ours starts at the beginning.
func (p Page) split() (key, id string) {
	key, id, _ = strings.Cut(p.After, "\n")
	return key, id
}

// Cursor is where the list goes on after this client.
func (c ClientEntry) Cursor() string { return searchKey(c.Name) + "\n" + c.ID }

// Clients lists a page of the clients whose names hold search, whatever the case of its
// letters and with or without their marks, by name. An empty search lists all. Archived
// clients are listed when asked for, and then they alone.
func (s *Tx) Clients(ctx context.Context, search string, archived bool, page Page) ([]ClientEntry, error) {
	key, id := page.split()
	search = searchKey(search)
	return list(ctx, s.read, "clients", func(row scanner) (c ClientEntry, err error) {
		err = row.Scan(c.fields()...)
		return c, err
	}, `SELECT `+clientColumns+` FROM client
		WHERE archived = ? AND (? = '' OR instr(search_key, ?) > 0) AND (search_key, id) > (?, ?)
		ORDER BY search_key, id LIMIT ?`, archived, search, search, key, id, page.Limit)
}

// Client reads one client.
func (s *Tx) Client(ctx context.Context, id string) (Client, error) {
	c, err := readClient(ctx, s.read, id)
	if err != nil {
		return Client{}, fmt.Errorf("client %s: %w", id, err)
	}
	return c, nil
}

func readClient(ctx context.Context, q querier, id string) (c Client, err error) {
	var document string
	err = q.QueryRowContext(ctx, `SELECT `+clientColumns+`, document FROM client WHERE id = ?`, id).Scan(append(c.fields(), &document)...)
	if err == nil {
		c.Facts, err = client.Decode([]byte(document))
	}
	if err == nil {
		c.Acknowledged, err = readAcknowledged(ctx, q, id)
	}
	return c, orNotFound(err)
}

// ClientDraft is what is saved of a client.
type ClientDraft struct {
	Name     string
	Archived bool
	Facts    client.Facts
}

// repeats is nil when a stored client is what the draft would make of it: then the
// request that stored it was repeated. Else it is ErrStale.
func (d ClientDraft) repeats(c Client) error {
	same, err := sameJSON(d.Facts, c.Facts)
	return repeated(same && d.Name == c.Name && d.Archived == c.Archived, err)
}

// CreateClient stores a new client under an id that was made by who asks. When the same
// client is stored under it already, the request was repeated, and succeeds again; when
// another is, it fails with ErrStale, and with ErrNotFound when it was deleted.
func (s *Tx) CreateClient(ctx context.Context, id string, d ClientDraft) (c Client, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		switch c, err = readClient(ctx, tx, id); {
		case err == nil:
			return d.repeats(c)
		case !errors.Is(err, ErrNotFound):
			return err
		}
		if err := notGone(ctx, tx, id); err != nil {
			return err
		}
		document, err := json.Marshal(d.Facts)
		if err != nil {
			return err
		}
		now := stampOf(time.Now())
		_, err = tx.ExecContext(ctx, `INSERT INTO client (id, name, search_key, archived, version, document, created_at, updated_at)
			VALUES (?, ?, ?, ?, 1 + (SELECT version_floor FROM studio), ?, ?, ?)`,
			id, d.Name, searchKey(d.Name), d.Archived, string(document), now, now)
		if err != nil {
			return err
		}
		c, err = readClient(ctx, tx, id)
		return err
	})
	if err != nil {
		return Client{}, fmt.Errorf("storing a client: %w", err)
	}
	return c, nil
}

// SaveClient replaces a client who still has the given version. When it was saved
// since, but as the same, the request was repeated, and succeeds; else it fails with
// ErrStale, and with ErrNotFound when the client is gone.
func (s *Tx) SaveClient(ctx context.Context, id string, version int, d ClientDraft) (c Client, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		if c, err = readClient(ctx, tx, id); err != nil {
			return err
		}
		if c.Version != version {
			return d.repeats(c)
		}
		document, err := json.Marshal(d.Facts)
		if err != nil {
			return err
		}
		if err := endAcknowledged(ctx, tx, c, d.Facts); err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `UPDATE client SET name = ?, search_key = ?, archived = ?, document = ?,
			version = 1 + max(version, (SELECT version_floor FROM studio)), updated_at = ? WHERE id = ?`,
			d.Name, searchKey(d.Name), d.Archived, string(document), stampOf(time.Now()), id)
		if err != nil {
			return err
		}
		c, err = readClient(ctx, tx, id)
		return err
	})
	if err != nil {
		return Client{}, fmt.Errorf("saving client %s: %w", id, err)
	}
	return c, nil
}

// Dossier is everything the studio holds about one client, as it was at one moment.
type Dossier struct {
	Client Client
	Plans  []DossierPlan
	Quotes []Quote
	// Bookings are those that stand and those that were cancelled, Messages those sent.
	Bookings []Booking
	Messages []Message
	// Installs are those at the chair and those that were, with all that was told of them.
	Installs []DossierInstall
}

// DossierInstall is an install with what was told of it and its pictures.
type DossierInstall struct {
	Install Install
	Events  []chair.Event
	Photos  [][]byte
	// Worn is what was seen and done while it was worn.
	Worn []wear.Entry
}

// DossierPlan is a plan made for a client, with the states pinned beside it and its
// history.
type DossierPlan struct {
	Plan     Plan
	Versions []Version
}

// Dossier reads everything that is held about a client.
func (s *Tx) Dossier(ctx context.Context, id string) (h Dossier, err error) {
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		if h.Client, err = readClient(ctx, tx, id); err != nil {
			return err
		}
		ids, err := list(ctx, tx, "plans", func(row scanner) (id string, err error) {
			err = row.Scan(&id)
			return id, err
		}, `SELECT id FROM plan WHERE client_id = ? ORDER BY updated_at DESC, id`, id)
		if err != nil {
			return err
		}
		for _, id := range ids {
			p, err := readPlan(ctx, tx, id)
			if err != nil {
				return err
			}
			versions, err := readVersions(ctx, tx, id)
			if err != nil {
				return err
			}
			h.Plans = append(h.Plans, DossierPlan{p, versions})
		}
		if h.Quotes, err = list(ctx, tx, "quotes", readQuoteRow, `SELECT `+quoteColumns+` FROM quote WHERE client_id = ? ORDER BY number`, id); err != nil {
			return err
		}
		if h.Bookings, err = list(ctx, tx, "bookings", readBooking, `SELECT `+bookingColumns+` FROM booking WHERE client_id = ? ORDER BY booked_at, id`, id); err != nil {
			return err
		}
		if h.Messages, err = list(ctx, tx, "messages", readMessage, `SELECT `+messageColumns+` FROM message WHERE client_id = ? ORDER BY sent_at, id`, id); err != nil {
			return err
		}
		h.Installs, err = heldInstalls(ctx, tx, id)
		return err
	})
	if err != nil {
		return Dossier{}, fmt.Errorf("what is held about client %s: %w", id, err)
	}
	return h, nil
}

// DeleteClient removes a client with all their plans.
func (s *Tx) DeleteClient(ctx context.Context, id string) error {
	return s.deleteFrom(ctx, "client", id)
}

// deleteFrom removes the row with the id from a table, ErrNotFound if there is none.
// What is deleted is overwritten in the file, and does not stay in the log beside it.
func (s *Tx) deleteFrom(ctx context.Context, table, id string) error {
	res, err := s.write.ExecContext(ctx, `DELETE FROM `+table+` WHERE id = ?`, id)
	if err != nil {
		return fmt.Errorf("deleting %s %s: %w", table, id, err)
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return fmt.Errorf("%s %s: %w", table, id, errors.Join(ErrNotFound, err))
	}
	return s.erase(ctx)
}

// repeated judges a save that met something stored already: none if that is the same.
func repeated(same bool, err error) error {
	if err == nil && !same {
		err = ErrStale
	}
	return err
}

// sameJSON tells whether two values are written alike.
func sameJSON(a, b any) (bool, error) {
	first, err := json.Marshal(a)
	if err != nil {
		return false, err
	}
	second, err := json.Marshal(b)
	return string(first) == string(second), err
}
