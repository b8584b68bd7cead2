package store

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"

	"kladotex/core/plan"
)

// Plan is a stored plan.
type Plan struct {
	Entry
	Input plan.Input
}

// Entry is a plan as a list shows it.
type Entry struct {
	ID      string
	Title   string
	Version int // counts saves, from 1
	Summary
	Created, Updated time.Time
}

// Summary is what a list shows of a plan's result, as it was when saved.
type Summary struct {
	Pattern  string
	Method   string
	Sections int
	Pieces   int
	Packs    int
	Cost     int64 // minor units
	Minutes  float64
}

// Summarise draws a plan's summary from its result.
func Summarise(in plan.Input, res plan.Result) Summary {
	t := res.Tally
	return Summary{
		Pattern: string(in.Parting.Pattern), Method: res.Method.Name,
		Sections: t.Sections, Pieces: t.Pieces, Packs: t.Packs, Cost: t.Cost, Minutes: t.Minutes,
	}
}

const entryColumns = `id, title, version, pattern, method, sections, pieces, packs, cost_minor, minutes, created_at, updated_at`

// fields are scan targets for entryColumns.
func (e *Entry) fields() []any {
	return []any{
		&e.ID, &e.Title, &e.Version, &e.Pattern, &e.Method, &e.Sections, &e.Pieces, &e.Packs, &e.Cost, &e.Minutes,
		(*stamp)(&e.Created), (*stamp)(&e.Updated),
	}
}

// stampLayout keeps its width, so that stamps sort as text.
const stampLayout = "2006-01-02T15:04:05.000000000Z"

// stamp reads and writes a time as text.
type stamp time.Time

// Scan implements sql.Scanner.
func (s *stamp) Scan(v any) error {
	text, ok := v.(string)
	if !ok {
		return fmt.Errorf("a time stored as %T", v)
	}
	t, err := time.Parse(stampLayout, text)
	*s = stamp(t)
	return err
}

func stampOf(t time.Time) string { return t.UTC().Format(stampLayout) }

// Plans lists all plans, the one saved last first.
func (s *Store) Plans(ctx context.Context) ([]Entry, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+entryColumns+` FROM plan ORDER BY updated_at DESC, id`)
	if err != nil {
		return nil, fmt.Errorf("listing plans: %w", err)
	}
	defer rows.Close()
	var out []Entry
	for rows.Next() {
		var e Entry
		if err := rows.Scan(e.fields()...); err != nil {
			return nil, fmt.Errorf("listing plans: %w", err)
		}
		out = append(out, e)
	}
	return out, rows.Err()
}

// Plan reads one plan, its document brought up to the current schema.
func (s *Store) Plan(ctx context.Context, id string) (Plan, error) {
	var p Plan
	var document string
	row := s.db.QueryRowContext(ctx, `SELECT `+entryColumns+`, document FROM plan WHERE id = ?`, id)
	if err := row.Scan(append(p.fields(), &document)...); err != nil {
		if errors.Is(err, sql.ErrNoRows) {
			err = ErrNotFound
		}
		return Plan{}, fmt.Errorf("plan %s: %w", id, err)
	}
	in, err := plan.Decode(bytes.NewReader([]byte(document)))
	if err != nil {
		return Plan{}, fmt.Errorf("plan %s: its document: %w", id, err)
	}
	p.Input = in
	return p, nil
}

// CreatePlan stores a new plan under a new id.
func (s *Store) CreatePlan(ctx context.Context, title string, in plan.Input, sum Summary) (Plan, error) {
	document, err := json.Marshal(in)
	if err != nil {
		return Plan{}, fmt.Errorf("storing a plan: %w", err)
	}
	now := time.Now().UTC()
	p := Plan{Entry{
		ID: uuid.NewString(), Title: title, Version: 1, Summary: sum, Created: now, Updated: now,
	}, in}
	_, err = s.db.ExecContext(ctx, `INSERT INTO plan (`+entryColumns+`, schema_version, document)
		VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
		p.ID, p.Title, p.Version, sum.Pattern, sum.Method, sum.Sections, sum.Pieces, sum.Packs, sum.Cost, sum.Minutes,
		stampOf(now), stampOf(now), in.Schema, string(document))
	if err != nil {
		return Plan{}, fmt.Errorf("storing a plan: %w", err)
	}
	return p, nil
}

// SavePlan replaces a plan that still has the given version, and returns it with
// the next one. It fails with ErrStale when it was saved since, with ErrNotFound
// when it is gone.
func (s *Store) SavePlan(ctx context.Context, id string, version int, title string, in plan.Input, sum Summary) (Plan, error) {
	document, err := json.Marshal(in)
	if err != nil {
		return Plan{}, fmt.Errorf("saving plan %s: %w", id, err)
	}
	res, err := s.db.ExecContext(ctx, `UPDATE plan SET title = ?, version = version + 1, schema_version = ?, document = ?,
		pattern = ?, method = ?, sections = ?, pieces = ?, packs = ?, cost_minor = ?, minutes = ?, updated_at = ?
		WHERE id = ? AND version = ?`,
		title, in.Schema, string(document),
		sum.Pattern, sum.Method, sum.Sections, sum.Pieces, sum.Packs, sum.Cost, sum.Minutes, stampOf(time.Now()),
		id, version)
	if err != nil {
		return Plan{}, fmt.Errorf("saving plan %s: %w", id, err)
	}
	n, err := res.RowsAffected()
	if err != nil {
		return Plan{}, fmt.Errorf("saving plan %s: %w", id, err)
	}
	p, err := s.Plan(ctx, id)
	if err == nil && n == 0 {
		err = fmt.Errorf("plan %s: %w", id, ErrStale)
	}
	return p, err
}

// DeletePlan removes a plan.
func (s *Store) DeletePlan(ctx context.Context, id string) error {
	res, err := s.db.ExecContext(ctx, `DELETE FROM plan WHERE id = ?`, id)
	if err != nil {
		return fmt.Errorf("deleting plan %s: %w", id, err)
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return fmt.Errorf("plan %s: %w", id, errors.Join(ErrNotFound, err))
	}
	return nil
}
