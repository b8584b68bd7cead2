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
	Input    plan.Input
	Variants []Variant
}

// Variant is a state of a plan pinned under a name, to be compared with others.
type Variant struct {
	Name  string
	Input plan.Input
}

// variantDocument is a variant as it is stored: the input as it was written then.
type variantDocument struct {
	Name     string          `json:"name"`
	Document json.RawMessage `json:"document"`
}

func writeVariants(variants []Variant) (string, error) {
	documents := make([]variantDocument, len(variants))
	for i, v := range variants {
		raw, err := json.Marshal(v.Input)
		if err != nil {
			return "", err
		}
		documents[i] = variantDocument{v.Name, raw}
	}
	raw, err := json.Marshal(documents)
	return string(raw), err
}

// readVariants brings every variant up to the current schema.
func readVariants(text string) ([]Variant, error) {
	var documents []variantDocument
	if err := json.Unmarshal([]byte(text), &documents); err != nil {
		return nil, err
	}
	variants := make([]Variant, len(documents))
	for i, d := range documents {
		in, err := plan.Decode(bytes.NewReader(d.Document))
		if err != nil {
			return nil, fmt.Errorf("variant %q: %w", d.Name, err)
		}
		variants[i] = Variant{d.Name, in}
	}
	return variants, nil
}

// Entry is a plan as a list shows it.
type Entry struct {
	ID      string
	Title   string
	Version int // counts saves, from 1
	// ClientID and Client name whose head it is; both empty while that is open.
	ClientID, Client string
	SavedBy          string // name of who saved last, as it was then
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
	Warnings int
}

// Summarise draws a plan's summary from its result.
func Summarise(in plan.Input, res plan.Result) Summary {
	t := res.Tally
	return Summary{
		Pattern: in.Parting.Style(), Method: res.Method.Name,
		Sections: t.Sections, Pieces: t.Pieces, Packs: t.Packs, Cost: t.Cost, Minutes: t.Minutes, Warnings: t.Warnings,
	}
}

// Draft is what is saved of a plan.
type Draft struct {
	Title    string
	ClientID string // empty while it is open whose head it is
	Input    plan.Input
	Summary  Summary
	Variants []Variant
	By       string // name of who saves
}

// documents are the draft's input and variants as they are stored.
func (d Draft) documents() (document, variants string, err error) {
	raw, err := json.Marshal(d.Input)
	if err != nil {
		return "", "", err
	}
	variants, err = writeVariants(d.Variants)
	return string(raw), variants, err
}

const entryColumns = `plan.id, title, plan.version, coalesce(client_id, ''), coalesce(client.name, ''), saved_by,
	pattern, method, sections, pieces, packs, cost_minor, minutes, warnings, plan.created_at, plan.updated_at`

const entryTables = `plan LEFT JOIN client ON client.id = plan.client_id`

// fields are scan targets for entryColumns.
func (e *Entry) fields() []any {
	return []any{
		&e.ID, &e.Title, &e.Version, &e.ClientID, &e.Client, &e.SavedBy,
		&e.Pattern, &e.Method, &e.Sections, &e.Pieces, &e.Packs, &e.Cost, &e.Minutes, &e.Warnings,
		(*stamp)(&e.Created), (*stamp)(&e.Updated),
	}
}

// stampLayout keeps its width, so that stamps sort as text.
const stampLayout = "2006-01-02T15:04:05.000000000Z"

// stamp reads and writes a time as text.
type stamp time.Time

// Scan implements sql.Scanner. NULL is the zero time.
func (s *stamp) Scan(v any) error {
	if v == nil {
		*s = stamp{}
		return nil
	}
	text, ok := v.(string)
	if !ok {
		return fmt.Errorf("a time stored as %T", v)
	}
	t, err := time.Parse(stampLayout, text)
	*s = stamp(t)
	return err
}

func stampOf(t time.Time) string { return t.UTC().Format(stampLayout) }

// Plans lists all plans, or those of one client, the one saved last first.
func (s *Store) Plans(ctx context.Context, clientID string) ([]Entry, error) {
	return list(ctx, s, "plans", func(row scanner) (e Entry, err error) {
		err = row.Scan(e.fields()...)
		return e, err
	}, `SELECT `+entryColumns+` FROM `+entryTables+`
		WHERE ? = '' OR client_id = ? ORDER BY plan.updated_at DESC, plan.id`, clientID, clientID)
}

// Plan reads one plan, its document brought up to the current schema.
func (s *Store) Plan(ctx context.Context, id string) (Plan, error) {
	var p Plan
	var document, variants string
	row := s.db.QueryRowContext(ctx, `SELECT `+entryColumns+`, plan.document, plan.variants FROM `+entryTables+` WHERE plan.id = ?`, id)
	err := row.Scan(append(p.fields(), &document, &variants)...)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	if err == nil {
		p.Input, err = plan.Decode(bytes.NewReader([]byte(document)))
	}
	if err == nil {
		p.Variants, err = readVariants(variants)
	}
	if err != nil {
		return Plan{}, fmt.Errorf("plan %s: %w", id, err)
	}
	return p, nil
}

// CreatePlan stores a new plan under a new id. It fails with ErrNoClient when
// the draft names a client who is not there.
func (s *Store) CreatePlan(ctx context.Context, d Draft) (Plan, error) {
	document, variants, err := d.documents()
	if err != nil {
		return Plan{}, fmt.Errorf("storing a plan: %w", err)
	}
	id, now := uuid.NewString(), stampOf(time.Now())
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		sum := d.Summary
		_, err := tx.ExecContext(ctx, `INSERT INTO plan (id, title, version, client_id, saved_by, schema_version, document, variants,
			pattern, method, sections, pieces, packs, cost_minor, minutes, warnings, created_at, updated_at)
			VALUES (?, ?, 1, nullif(?, ''), ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
			id, d.Title, d.ClientID, d.By, d.Input.Schema, document, variants,
			sum.Pattern, sum.Method, sum.Sections, sum.Pieces, sum.Packs, sum.Cost, sum.Minutes, sum.Warnings, now, now)
		if err != nil {
			return missingClient(err)
		}
		return keepVersion(ctx, tx, id)
	})
	if err != nil {
		return Plan{}, fmt.Errorf("storing a plan: %w", err)
	}
	return s.Plan(ctx, id)
}

// SavePlan replaces a plan that still has the given version, and returns it with
// the next one. It fails with ErrStale when it was saved since, with ErrNotFound
// when it is gone.
func (s *Store) SavePlan(ctx context.Context, id string, version int, d Draft) (Plan, error) {
	document, variants, err := d.documents()
	if err != nil {
		return Plan{}, fmt.Errorf("saving plan %s: %w", id, err)
	}
	stale := false
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		sum := d.Summary
		res, err := tx.ExecContext(ctx, `UPDATE plan SET title = ?, version = version + 1, client_id = nullif(?, ''), saved_by = ?,
			schema_version = ?, document = ?, variants = ?, pattern = ?, method = ?, sections = ?, pieces = ?, packs = ?, cost_minor = ?,
			minutes = ?, warnings = ?, updated_at = ?
			WHERE id = ? AND version = ?`,
			d.Title, d.ClientID, d.By, d.Input.Schema, document, variants,
			sum.Pattern, sum.Method, sum.Sections, sum.Pieces, sum.Packs, sum.Cost, sum.Minutes, sum.Warnings, stampOf(time.Now()),
			id, version)
		if err != nil {
			return missingClient(err)
		}
		if n, err := res.RowsAffected(); err != nil || n == 0 {
			stale = n == 0
			return err
		}
		return keepVersion(ctx, tx, id)
	})
	if err != nil {
		return Plan{}, fmt.Errorf("saving plan %s: %w", id, err)
	}
	p, err := s.Plan(ctx, id)
	if err == nil && stale {
		err = fmt.Errorf("plan %s: %w", id, ErrStale)
	}
	return p, err
}

// DeletePlan removes a plan with its history.
func (s *Store) DeletePlan(ctx context.Context, id string) error {
	return s.deleteFrom(ctx, "plan", id)
}
