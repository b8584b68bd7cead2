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
// person looks for where they were, not for every movement of a slider.
const versionGap = 10 * time.Minute

// keepVersion copies the plan as it now is into its history. The version before
// it goes when the same person saved it less than versionGap after the one
// before that; where a clock was set back in between, nothing is known of that.
func keepVersion(ctx context.Context, tx *sql.Tx, id string) error {
	var last int
	var at, before time.Time
	err := tx.QueryRowContext(ctx, `SELECT version, saved_at, lead(saved_at) OVER (ORDER BY version DESC)
		FROM plan_version WHERE plan_id = ? ORDER BY version DESC LIMIT 1`, id).Scan(&last, (*stamp)(&at), (*stamp)(&before))
	switch {
	case errors.Is(err, sql.ErrNoRows):
	case err != nil:
		return err
	case !before.IsZero() && at.Sub(before) >= 0 && at.Sub(before) < versionGap:
		_, err := tx.ExecContext(ctx, `DELETE FROM plan_version WHERE plan_id = ? AND version = ?
			AND saved_by = (SELECT saved_by FROM plan WHERE id = ?)`, id, last, id)
		if err != nil {
			return err
		}
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO plan_version (plan_id, version, title, document, sections, saved_by, saved_at)
		SELECT id, version, title, document, sections, saved_by, updated_at FROM plan WHERE id = ?`, id)
	return err
}

const versionColumns = `version, title, sections, saved_by, saved_at, document`

func readVersion(row scanner) (Version, error) {
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
func (s *Tx) Versions(ctx context.Context, id string) ([]Version, error) {
	out, err := readVersions(ctx, s.read, id)
	if err != nil {
		return nil, err
	}
	if len(out) == 0 {
		return nil, fmt.Errorf("history of plan %s: %w", id, ErrNotFound)
	}
	return out, nil
}

func readVersions(ctx context.Context, q querier, id string) ([]Version, error) {
	return list(ctx, q, "the history of plan "+id, readVersion,
		`SELECT `+versionColumns+` FROM plan_version WHERE plan_id = ? ORDER BY version DESC`, id)
}

// Version reads one version of a plan's history.
func (s *Tx) Version(ctx context.Context, id string, version int) (Version, error) {
	row := s.read.QueryRowContext(ctx, `SELECT `+versionColumns+` FROM plan_version WHERE plan_id = ? AND version = ?`, id, version)
	v, err := readVersion(row)
	if err != nil {
		return Version{}, fmt.Errorf("version %d of plan %s: %w", version, id, orNotFound(err))
	}
	return v, nil
}
