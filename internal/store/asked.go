package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"kladotex/core/client"
)

// Asked is what was asked about the head of a plan that no client's card speaks of.
type Asked struct {
	// History is what calls for caution; none is an answer too.
	History []client.Event
	Person  string // by name
	At      time.Time
	Read    []Acknowledged
}

// AskedOf is what was asked for a plan; nil where nobody asked.
func (s *Tx) AskedOf(ctx context.Context, plan string) (a *Asked, err error) {
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		var history string
		found := Asked{}
		err := tx.QueryRowContext(ctx, `SELECT history, person, at FROM plan_asked WHERE plan_id = ?`, plan).Scan(&history, &found.Person, (*stamp)(&found.At))
		if errors.Is(err, sql.ErrNoRows) {
			return nil
		}
		if err != nil {
			return err
		}
		if err := json.Unmarshal([]byte(history), &found.History); err != nil {
			return err
		}
		found.Read, err = list(ctx, tx, "cautions read", func(row scanner) (a Acknowledged, err error) {
			err = row.Scan(&a.Caution, &a.Person, (*stamp)(&a.At))
			return a, err
		}, `SELECT caution, person, at FROM plan_read WHERE plan_id = ? ORDER BY at, caution`, plan)
		a = &found
		return err
	})
	if err != nil {
		return nil, fmt.Errorf("what was asked for plan %s: %w", plan, err)
	}
	return a, nil
}

// SetAsked keeps what was answered for a plan. A caution that was read and is answered anew is read anew.
func (s *Tx) SetAsked(ctx context.Context, plan string, history []client.Event, by string) error {
	document, err := json.Marshal(append([]client.Event{}, history...))
	if err != nil {
		return err
	}
	return s.ofPlan(ctx, plan, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx, `INSERT INTO plan_asked (plan_id, history, person, at) VALUES (?, ?, ?, ?)
			ON CONFLICT (plan_id) DO UPDATE SET history = excluded.history, person = excluded.person, at = excluded.at`, plan, string(document), by, stampOf(time.Now()))
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `DELETE FROM plan_read WHERE plan_id = ? AND caution NOT IN (SELECT value FROM json_each(?))`, plan, string(document))
		return err
	})
}

// ReadCaution keeps that a caution was read for a plan. Read already, it stays as it is.
func (s *Tx) ReadCaution(ctx context.Context, plan, caution, by string) error {
	return s.ofPlan(ctx, plan, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx, `INSERT INTO plan_read (plan_id, caution, person, at) VALUES (?, ?, ?, ?) ON CONFLICT (plan_id, caution) DO NOTHING`, plan, caution, by, stampOf(time.Now()))
		return err
	})
}

// ofPlan changes what belongs to a plan; [ErrNotFound] where that is gone.
func (s *Tx) ofPlan(ctx context.Context, plan string, change func(*sql.Tx) error) error {
	err := s.inTx(ctx, change)
	if code(err) == foreignKey {
		err = ErrNotFound
	}
	if err != nil {
		return fmt.Errorf("plan %s: %w", plan, err)
	}
	return nil
}
