package store

import (
	"context"
	"database/sql"
	"fmt"
	"slices"
	"time"

	"kladotex/core/client"
)

// Acknowledged is a grave caution of a client that was read.
type Acknowledged struct {
	Caution string    `json:"caution"`
	Person  string    `json:"person" doc:"Who read it, by name"`
	At      time.Time `json:"at"`
}

// Acknowledge keeps that a person read a caution of a client. Read already, it stays as it is.
func (s *Tx) Acknowledge(ctx context.Context, id, caution, person string) (c Client, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		if c, err = readClient(ctx, tx, id); err != nil {
			return err
		}
		if slices.ContainsFunc(c.Acknowledged, func(a Acknowledged) bool { return a.Caution == caution }) {
			return nil
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO acknowledgement (client_id, caution, person, at) VALUES (?, ?, ?, ?)`,
			id, caution, person, stampOf(time.Now()))
		if err != nil {
			return err
		}
		c, err = readClient(ctx, tx, id)
		return err
	})
	if err != nil {
		return Client{}, fmt.Errorf("acknowledging a caution of client %s: %w", id, err)
	}
	return c, nil
}

// readAcknowledged are the cautions of a client that were read and still hold.
func readAcknowledged(ctx context.Context, q querier, id string) ([]Acknowledged, error) {
	return list(ctx, q, "acknowledged cautions", func(row scanner) (a Acknowledged, err error) {
		err = row.Scan(&a.Caution, &a.Person, (*stamp)(&a.At))
		return a, err
	}, `SELECT caution, person, at FROM acknowledgement WHERE client_id = ? AND ended IS NULL ORDER BY at, rowid`, id)
}

// endAcknowledged ends those that the card no longer gives reason for.
func endAcknowledged(ctx context.Context, tx *sql.Tx, c Client, facts client.Facts) error {
	for _, a := range c.Acknowledged {
		if slices.ContainsFunc(facts.Grave(), func(g client.Grave) bool { return g.Key == a.Caution }) {
			continue
		}
		_, err := tx.ExecContext(ctx, `UPDATE acknowledgement SET ended = ? WHERE client_id = ? AND caution = ? AND ended IS NULL`,
			stampOf(time.Now()), c.ID, a.Caution)
		if err != nil {
			return err
		}
	}
	return nil
}
