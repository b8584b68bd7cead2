package store

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

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
	Name string
	// Input is nil when the document cannot be read any more. In a draft it stands for
	// the one that is stored under the name.
	Input *plan.Input
	// Trouble says why the input is missing, or why it cannot be computed.
	Trouble error
}

// variantDocument is a variant as it is stored: the input as it was written then.
type variantDocument struct {
	Name     string          `json:"name"`
	Document json.RawMessage `json:"document"`
}

// ErrNoVariant: a draft keeps a variant that is not stored.
var ErrNoVariant = errors.New("no such variant")

// writeVariants writes a draft's variants down; those without an input as they are
// stored.
func writeVariants(variants []Variant, stored []variantDocument) (string, error) {
	documents := make([]variantDocument, len(variants))
	for i, v := range variants {
		if v.Input == nil {
			at := slices.IndexFunc(stored, func(d variantDocument) bool { return d.Name == v.Name })
			if at < 0 {
				return "", fmt.Errorf("variant %d: %w", i, ErrNoVariant)
			}
			documents[i] = stored[at]
			continue
		}
		raw, err := json.Marshal(v.Input)
		if err != nil {
			return "", err
		}
		documents[i] = variantDocument{v.Name, raw}
	}
	raw, err := json.Marshal(documents)
	return string(raw), err
}

// readVariants brings every variant up to the current schema. One that cannot be read
// does not keep the plan from being read.
func readVariants(text string) (variants []Variant, documents []variantDocument, err error) {
	if err := json.Unmarshal([]byte(text), &documents); err != nil {
		return nil, nil, err
	}
	variants = make([]Variant, len(documents))
	for i, d := range documents {
		variants[i].Name = d.Name
		in, err := plan.Decode(bytes.NewReader(d.Document))
		if err != nil {
			variants[i].Trouble = err
			continue
		}
		variants[i].Input, variants[i].Trouble = &in, plan.Check(in)
	}
	return variants, documents, nil
}

// Entry is a plan as a list shows it.
type Entry struct {
	ID      string
	Title   string
	Version int // counts saves, from 1
	// ClientID and Client name whose head it is; both empty while that is open.
	ClientID, Client string
	SavedBy          string // name of who saved last, as it was then
	// InstallID is its install, once it is or was at the chair: then it stays as it is.
	InstallID string
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

// Draft is what is saved of a plan.
type Draft struct {
	Title    string
	ClientID string // empty while it is open whose head it is
	Input    plan.Input
	Summary  Summary
	Variants []Variant
	By       string // name of who saves
	// Claims are what the plan needs of the stash: renewed where it holds any of it.
	Claims []Claim
}

const entryColumns = `plan.id, title, plan.version, coalesce(client_id, ''), coalesce(client.name, ''), saved_by,
	pattern, method, sections, pieces, packs, cost_minor, minutes, warnings, plan.created_at, plan.updated_at,
	coalesce((SELECT id FROM install WHERE plan_id = plan.id), '')`

const entryTables = `plan LEFT JOIN client ON client.id = plan.client_id`

// fields are scan targets for entryColumns.
func (e *Entry) fields() []any {
	return []any{
		&e.ID, &e.Title, &e.Version, &e.ClientID, &e.Client, &e.SavedBy,
		&e.Pattern, &e.Method, &e.Sections, &e.Pieces, &e.Packs, &e.Cost, &e.Minutes, &e.Warnings,
		(*stamp)(&e.Created), (*stamp)(&e.Updated), &e.InstallID,
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

// Cursor is where the list goes on after this plan.
func (e Entry) Cursor() string { return stampOf(e.Updated) + "\n" + e.ID }

// Plans lists a page of all plans, or of those of one client, the one saved last first.
func (s *Tx) Plans(ctx context.Context, clientID string, page Page) ([]Entry, error) {
	const newestFirst = ` ORDER BY plan.updated_at DESC, plan.id LIMIT ?`
	where, args := `WHERE true`, []any{}
	if clientID != "" {
		where, args = where+` AND client_id = ?`, append(args, clientID)
	}
	if updated, id := page.split(); updated != "" {
		where, args = where+` AND (plan.updated_at < ? OR plan.updated_at = ? AND plan.id > ?)`, append(args, updated, updated, id)
	}
	return list(ctx, s.read, "plans", func(row scanner) (e Entry, err error) {
		err = row.Scan(e.fields()...)
		return e, err
	}, `SELECT `+entryColumns+` FROM `+entryTables+` `+where+newestFirst, append(args, page.Limit)...)
}

// Plan reads one plan, its document brought up to the current schema.
func (s *Tx) Plan(ctx context.Context, id string) (Plan, error) {
	p, err := readPlan(ctx, s.read, id)
	if err != nil {
		return Plan{}, fmt.Errorf("plan %s: %w", id, err)
	}
	return p, nil
}

func readPlan(ctx context.Context, q querier, id string) (Plan, error) {
	p, _, err := readStored(ctx, q, id)
	return p.Plan, err
}

// storedPlan is a plan with the texts it is stored as.
type storedPlan struct {
	Plan
	document, variants string
}

func readStored(ctx context.Context, q querier, id string) (p storedPlan, documents []variantDocument, err error) {
	row := q.QueryRowContext(ctx, `SELECT `+entryColumns+`, plan.document, plan.variants FROM `+entryTables+` WHERE plan.id = ?`, id)
	if err := row.Scan(append(p.fields(), &p.document, &p.variants)...); err != nil {
		return p, nil, orNotFound(err)
	}
	if p.Input, err = plan.Decode(strings.NewReader(p.document)); err != nil {
		return p, nil, err
	}
	p.Variants, documents, err = readVariants(p.variants)
	return p, documents, err
}

// repeats is nil when a stored plan is what the draft would make of it: then the
// request that stored it was repeated. Else it is ErrStale.
func (d Draft) repeats(p storedPlan, variants string) error {
	same, err := sameJSON(d.Input, p.Input)
	return repeated(same && d.Title == p.Title && d.ClientID == p.ClientID && variants == p.variants, err)
}

// CreatePlan stores a new plan under an id that was made by who asks. When the same
// plan is stored under it already, the request was repeated, and succeeds again; when
// another is, it fails with ErrStale, and with ErrNotFound when it was deleted. It
// fails with ErrNoClient when the draft names a client who is not there.
func (s *Tx) CreatePlan(ctx context.Context, id string, d Draft) (Plan, error) {
	p, err := s.putPlan(ctx, func(tx *sql.Tx) (Plan, error) {
		variants, err := writeVariants(d.Variants, nil)
		if err != nil {
			return Plan{}, err
		}
		switch p, _, err := readStored(ctx, tx, id); {
		case err == nil:
			return p.Plan, d.repeats(p, variants)
		case !errors.Is(err, ErrNotFound):
			return Plan{}, err
		}
		if err := notGone(ctx, tx, id); err != nil {
			return Plan{}, err
		}
		document, err := json.Marshal(d.Input)
		if err != nil {
			return Plan{}, err
		}
		sum, now := d.Summary, stampOf(time.Now())
		_, err = tx.ExecContext(ctx, `INSERT INTO plan (id, title, version, client_id, saved_by, schema_version, document, variants,
			pattern, method, sections, pieces, packs, cost_minor, minutes, warnings, created_at, updated_at)
			VALUES (?, ?, 1 + (SELECT version_floor FROM studio), nullif(?, ''), ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
			id, d.Title, d.ClientID, d.By, d.Input.Schema, string(document), variants,
			sum.Pattern, sum.Method, sum.Sections, sum.Pieces, sum.Packs, sum.Cost, sum.Minutes, sum.Warnings, now, now)
		if err != nil {
			return Plan{}, missingClient(err)
		}
		return keptPlan(ctx, tx, id)
	})
	if err != nil {
		return Plan{}, fmt.Errorf("storing a plan: %w", err)
	}
	return p, nil
}

// SavePlan replaces a plan that still has the given version, and returns it with a
// greater one. A plan that goes on to another client leaves behind what was the first one's. When it was saved since, but as the same, the request was repeated, and
// succeeds; else it fails with ErrStale, and with ErrNotFound when it is gone.
func (s *Tx) SavePlan(ctx context.Context, id string, version int, d Draft) (Plan, error) {
	p, err := s.putPlan(ctx, func(tx *sql.Tx) (Plan, error) {
		p, documents, err := readStored(ctx, tx, id)
		if err != nil {
			return Plan{}, err
		}
		variants, err := writeVariants(d.Variants, documents)
		if err != nil {
			return Plan{}, err
		}
		if p.Version != version {
			return p.Plan, d.repeats(p, variants)
		}
		if p.InstallID != "" {
			if d.repeats(p, variants) != nil {
				return Plan{}, ErrAtChair
			}
			return p.Plan, nil
		}
		if p.ClientID != "" && p.ClientID != d.ClientID {
			if err := leaveBehind(ctx, tx, id); err != nil {
				return Plan{}, err
			}
			variants = "[]"
		}
		document, err := json.Marshal(d.Input)
		if err != nil {
			return Plan{}, err
		}
		sum := d.Summary
		_, err = tx.ExecContext(ctx, `UPDATE plan SET title = ?, version = 1 + max(version, (SELECT version_floor FROM studio)),
			client_id = nullif(?, ''), saved_by = ?, schema_version = ?, document = ?, variants = ?,
			pattern = ?, method = ?, sections = ?, pieces = ?, packs = ?, cost_minor = ?, minutes = ?, warnings = ?, updated_at = ?
			WHERE id = ?`,
			d.Title, d.ClientID, d.By, d.Input.Schema, string(document), variants,
			sum.Pattern, sum.Method, sum.Sections, sum.Pieces, sum.Packs, sum.Cost, sum.Minutes, sum.Warnings, stampOf(time.Now()), id)
		if err != nil {
			return Plan{}, missingClient(err)
		}
		if err := promise(ctx, tx, id, d.Claims); err != nil {
			return Plan{}, err
		}
		return keptPlan(ctx, tx, id)
	})
	if err != nil {
		return Plan{}, fmt.Errorf("saving plan %s: %w", id, err)
	}
	return p, nil
}

// leaveBehind takes from a plan that goes on to another client what was the first one's: its history, and that
// messages, quotes, bookings and pieces were for it. They stay with the client they were for.
func leaveBehind(ctx context.Context, tx *sql.Tx, id string) error {
	for _, change := range []string{
		`DELETE FROM plan_version WHERE plan_id = ?`,
		`DELETE FROM plan_asked WHERE plan_id = ?`,
		`DELETE FROM plan_read WHERE plan_id = ?`,
		`DELETE FROM prepared WHERE plan_id = ?`,
		`UPDATE message SET plan_id = NULL WHERE plan_id = ?`,
		`UPDATE quote SET plan_id = NULL WHERE plan_id = ?`,
		`UPDATE booking SET plan_id = NULL, cancelled_at = coalesce(nullif(cancelled_at, ''), strftime('%Y-%m-%dT%H:%M:%S.000000000Z', 'now')) WHERE plan_id = ?`,
		`UPDATE stash_move SET plan_id = NULL, reason = '' WHERE plan_id = ?`,
		`UPDATE purchase SET plan_id = NULL WHERE plan_id = ? AND state = 'arrived'`,
	} {
		if _, err := tx.ExecContext(ctx, change, id); err != nil {
			return err
		}
	}
	return nil
}

// putPlan carries out a save and returns the plan as it is when the save is done: what
// others save after it is not seen.
func (s *Tx) putPlan(ctx context.Context, put func(*sql.Tx) (Plan, error)) (p Plan, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		p, err = put(tx)
		return err
	})
	return p, err
}

// keptPlan puts the plan as it now is into its history, and reads it.
func keptPlan(ctx context.Context, tx *sql.Tx, id string) (Plan, error) {
	if err := keepVersion(ctx, tx, id); err != nil {
		return Plan{}, err
	}
	return readPlan(ctx, tx, id)
}

// DeletePlan removes a plan with its history.
func (s *Tx) DeletePlan(ctx context.Context, id string) error {
	return s.deleteFrom(ctx, "plan", id)
}
