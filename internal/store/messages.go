package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"time"

	"kladotex/core/message"
)

// Message is one that was sent, as it was sent.
type Message struct {
	ID       string
	PlanID   string // empty once the plan is deleted
	ClientID string
	Kind     message.Kind
	To       string
	Words    message.Template
	By       string
	At       time.Time
}

const messageColumns = `id, coalesce(plan_id, ''), coalesce(client_id, ''), kind, recipient, subject, body, sent_by, sent_at`

func readMessage(row scanner) (m Message, err error) {
	err = row.Scan(&m.ID, &m.PlanID, &m.ClientID, &m.Kind, &m.To, &m.Words.Subject, &m.Words.Body, &m.By, (*stamp)(&m.At))
	return m, orNotFound(err)
}

// Message reads one that was sent, or [ErrNotFound].
func (s *Tx) Message(ctx context.Context, id string) (Message, error) {
	m, err := readMessage(s.read.QueryRowContext(ctx, `SELECT `+messageColumns+` FROM message WHERE id = ?`, id))
	if err != nil {
		return Message{}, fmt.Errorf("message %s: %w", id, err)
	}
	return m, nil
}

// Repeats is nil when a message is what was kept under its id: then it was sent already. Else it is
// [ErrStale].
func (m Message) Repeats(kept Message) error {
	return repeated(m.PlanID == kept.PlanID && m.Kind == kept.Kind && m.Words == kept.Words, nil)
}

// KeepMessage keeps a message that was sent, under an id made by who sends it. The same again is the
// message that is there; another under its id fails with [ErrStale].
func (s *Tx) KeepMessage(ctx context.Context, m Message) (kept Message, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		read := func() error {
			kept, err = readMessage(tx.QueryRowContext(ctx, `SELECT `+messageColumns+` FROM message WHERE id = ?`, m.ID))
			return err
		}
		if err := read(); !errors.Is(err, ErrNotFound) {
			if err == nil {
				err = m.Repeats(kept)
			}
			return err
		}
		if err := notGone(ctx, tx, m.ID); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO message (id, plan_id, client_id, kind, recipient, subject, body, sent_by, sent_at)
			VALUES (?, nullif(?, ''), nullif(?, ''), ?, ?, ?, ?, ?, ?)`,
			m.ID, m.PlanID, m.ClientID, m.Kind, m.To, m.Words.Subject, m.Words.Body, m.By, stampOf(time.Now()))
		if err != nil {
			return err
		}
		return read()
	})
	if err != nil {
		return Message{}, fmt.Errorf("keeping a message: %w", err)
	}
	return kept, nil
}

// Messages are those sent for a plan, the latest first.
func (s *Tx) Messages(ctx context.Context, plan string) ([]Message, error) {
	return list(ctx, s.read, "messages", readMessage, `SELECT `+messageColumns+` FROM message WHERE plan_id = ? ORDER BY sent_at DESC, id LIMIT 200`, plan)
}
