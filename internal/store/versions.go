package store

import (
	"bytes"
	"context"
	"database/sql"
	"errors"
	"fmt"
	"time"

	"kladotex/core/plan"
)

// Version is a plan as it was once saved.
type Version struct {
	Version  int
	Title    string
	Sections int
	SavedBy  string
	SavedAt  time.Time
	Input    plan.Input
}

// versionGap thins the history out: autosave keeps every state on disk, but a
// person looks for where she was, not for every movement of a slider.
const versionGap = 10 * time.Minute

// keepVersion copies the plan as it now is into its history. The version before
// it goes when the same person saved it less than versionGap after the one
// before that.
func keepVersion(ctx context.Context, tx *sql.Tx, id string) error {
	rows, err := tx.QueryContext(ctx, `SELECT version, saved_by, saved_at FROM plan_version WHERE plan_id = ? ORDER BY version DESC LIMIT 2`, id)
	if err != nil {
		return err
	}
	defer rows.Close()
	var last []Version
	for rows.Next() {
		var v Version
		if err := rows.Scan(&v.Version, &v.SavedBy, (*stamp)(&v.SavedAt)); err != nil {
			return err
		}
		last = append(last, v)
	}
	if err := rows.Err(); err != nil {
		return err
	}
	if len(last) == 2 && last[0].SavedAt.Sub(last[1].SavedAt) < versionGap {
		_, err := tx.ExecContext(ctx, `DELETE FROM plan_version WHERE plan_id = ? AND version = ?
			AND saved_by = (SELECT saved_by FROM plan WHERE id = ?)`, id, last[0].Version, id)
		if err != nil {
			return err
		}
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO plan_version (plan_id, version, title, document, sections, saved_by, saved_at)
		SELECT id, version, title, document, sections, saved_by, updated_at FROM plan WHERE id = ?`, id)
	return err
}

const versionColumns = `version, title, sections, saved_by, saved_at, document`

func scanVersion(row interface{ Scan(...any) error }) (Version, error) {
	var v Version
	var document string
	if err := row.Scan(&v.Version, &v.Title, &v.Sections, &v.SavedBy, (*stamp)(&v.SavedAt), &document); err != nil {
		return Version{}, err
	}
	var err error
	v.Input, err = plan.Decode(bytes.NewReader([]byte(document)))
	return v, err
}

// Versions lists a plan's history, newest first.
func (s *Store) Versions(ctx context.Context, id string) ([]Version, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+versionColumns+` FROM plan_version WHERE plan_id = ? ORDER BY version DESC`, id)
	if err != nil {
		return nil, fmt.Errorf("history of plan %s: %w", id, err)
	}
	defer rows.Close()
	var out []Version
	for rows.Next() {
		v, err := scanVersion(rows)
		if err != nil {
			return nil, fmt.Errorf("history of plan %s: %w", id, err)
		}
		out = append(out, v)
	}
	if err := rows.Err(); err != nil {
		return nil, fmt.Errorf("history of plan %s: %w", id, err)
	}
	if len(out) == 0 {
		return nil, fmt.Errorf("history of plan %s: %w", id, ErrNotFound)
	}
	return out, nil
}

// Version reads one version of a plan's history.
func (s *Store) Version(ctx context.Context, id string, version int) (Version, error) {
	row := s.db.QueryRowContext(ctx, `SELECT `+versionColumns+` FROM plan_version WHERE plan_id = ? AND version = ?`, id, version)
	v, err := scanVersion(row)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	if err != nil {
		return Version{}, fmt.Errorf("version %d of plan %s: %w", version, id, err)
	}
	return v, nil
}
