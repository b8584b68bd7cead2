package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"

	"kladotex/core/chair"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/core/wear"
)

// ErrAtChair: the plan is at the chair, or was: it stays as it is.
var ErrAtChair = errors.New("the plan is or was at the chair")

// Install is a plan at the chair, or one that was.
type Install struct {
	ID       string
	PlanID   string // empty once the plan is deleted
	ClientID string // empty where it was open whose head it is
	Brief    chair.Brief
	Engine   string
	By       string
	Started  time.Time
	Closed   time.Time // zero while it goes on
	// Papers is true where it was given papers to take along.
	Papers bool
}

// Frozen is what an install keeps beside its brief.
type Frozen struct {
	How plan.How
	// Head is how it is drawn, as JSON.
	Head json.RawMessage
}

// InstallDraft is what is frozen when an install begins.
type InstallDraft struct {
	PlanID, ClientID    string
	Brief               chair.Brief
	Frozen              Frozen
	Input, Places       []byte
	Engine, By          string
	PlanSheet, DaySheet []byte
	// Worn is the head as it is worn afterwards, Redoes the install whose outer rows it does again.
	Worn   wear.Brief
	Redoes string
	// At is when it began; the zero time is now.
	At time.Time
}

const installColumns = `id, coalesce(plan_id, ''), coalesce(client_id, ''), brief, engine, started_by, started_at, nullif(closed_at, ''), length(plan_sheet) > 0`

func readInstall(row scanner) (i Install, err error) {
	var brief string
	if err = row.Scan(&i.ID, &i.PlanID, &i.ClientID, &brief, &i.Engine, &i.By, (*stamp)(&i.Started), (*stamp)(&i.Closed), &i.Papers); err != nil {
		return Install{}, found(err)
	}
	i.Brief, err = chair.Decode([]byte(brief))
	return i, err
}

// StartInstall freezes a plan for the chair, under an id made by who starts it. A plan is at the
// chair once: where it is or was, that install is answered, whoever asks.
func (s *Store) StartInstall(ctx context.Context, id string, d InstallDraft) (i Install, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		read := func() error {
			i, err = readInstall(tx.QueryRowContext(ctx, `SELECT `+installColumns+` FROM install WHERE id = ? OR plan_id = ?`, id, d.PlanID))
			return err
		}
		if err := read(); !errors.Is(err, ErrNotFound) {
			return err
		}
		brief, err := json.Marshal(d.Brief)
		if err != nil {
			return err
		}
		how, err := json.Marshal(d.Frozen.How)
		if err != nil {
			return err
		}
		worn, err := json.Marshal(d.Worn)
		if err != nil {
			return err
		}
		at := d.At
		if at.IsZero() {
			at = time.Now()
		}
		paper := func(file []byte) []byte { return append([]byte{}, file...) } // none is an empty one
		_, err = tx.ExecContext(ctx, `INSERT INTO install (id, plan_id, client_id, brief, how, head, input, places, engine, plan_sheet, day_sheet, started_by, started_at, worn, redoes)
			VALUES (?, ?, nullif(?, ''), ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
			id, d.PlanID, d.ClientID, string(brief), string(how), string(d.Frozen.Head), string(d.Input), string(d.Places), d.Engine, paper(d.PlanSheet), paper(d.DaySheet), d.By, stampOf(at), string(worn), d.Redoes)
		if err != nil {
			return err
		}
		return read()
	})
	if err != nil {
		return Install{}, fmt.Errorf("starting an install: %w", err)
	}
	return i, nil
}

// Install reads an install.
func (s *Store) Install(ctx context.Context, id string) (Install, error) {
	i, err := readInstall(s.read.QueryRowContext(ctx, `SELECT `+installColumns+` FROM install WHERE id = ?`, id))
	if err != nil {
		return Install{}, fmt.Errorf("install %s: %w", id, err)
	}
	return i, nil
}

// InstallOf is the install of a plan, or [ErrNotFound].
func (s *Store) InstallOf(ctx context.Context, planID string) (id string, err error) {
	err = s.read.QueryRowContext(ctx, `SELECT id FROM install WHERE plan_id = ?`, planID).Scan(&id)
	if err != nil {
		return "", fmt.Errorf("install of plan %s: %w", planID, found(err))
	}
	return id, nil
}

// Frozen reads what an install keeps beside its brief.
func (s *Store) Frozen(ctx context.Context, id string) (f Frozen, err error) {
	var how, head string
	if err = s.read.QueryRowContext(ctx, `SELECT how, head FROM install WHERE id = ?`, id).Scan(&how, &head); err != nil {
		return Frozen{}, fmt.Errorf("install %s: %w", id, found(err))
	}
	f.Head = json.RawMessage(head)
	return f, json.Unmarshal([]byte(how), &f.How)
}

// InstallPaper is a paper that was frozen with an install: a column each.
type InstallPaper string

// The papers.
const (
	PlanSheet InstallPaper = "plan_sheet"
	DaySheet  InstallPaper = "day_sheet"
)

// InstallFile reads a paper that was frozen with an install.
func (s *Store) InstallFile(ctx context.Context, id string, paper InstallPaper) (file []byte, err error) {
	if err = s.read.QueryRowContext(ctx, `SELECT `+string(paper)+` FROM install WHERE id = ?`, id).Scan(&file); err != nil {
		return nil, fmt.Errorf("paper of install %s: %w", id, found(err))
	}
	if len(file) == 0 {
		return nil, fmt.Errorf("paper of install %s: %w", id, ErrNotFound)
	}
	return file, nil
}

// AtChair are the installs that go on, the latest first.
func (s *Store) AtChair(ctx context.Context) ([]Install, error) {
	return list(ctx, s.read, "installs at the chair", readInstall, `SELECT `+installColumns+` FROM install WHERE closed_at = '' ORDER BY started_at DESC, id LIMIT 100`)
}

// Told is what devices have told of an install.
type Told struct {
	Events []chair.Event
	// Cursor is where to go on reading, Known how many events there are in all.
	Cursor int64
	Known  int
}

// Tell adds events to an install; those it has already are left as they are. person is the
// id of who sends them.
func (s *Store) Tell(ctx context.Context, install, person string, events []chair.Event) error {
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		insert, err := tx.PrepareContext(ctx, `INSERT INTO install_event (install_id, id, document, person, received_at) VALUES (?, ?, ?, ?, ?)
			ON CONFLICT (install_id, id) DO NOTHING`)
		if err != nil {
			return err
		}
		defer insert.Close()
		now := stampOf(time.Now())
		for _, e := range events {
			document, err := json.Marshal(e)
			if err != nil {
				return err
			}
			if _, err := insert.ExecContext(ctx, install, e.ID, string(document), person, now); err != nil {
				if code(err) == foreignKey {
					err = ErrNotFound
				}
				return err
			}
		}
		return nil
	})
	if err != nil {
		return fmt.Errorf("telling of install %s: %w", install, err)
	}
	return nil
}

// readTold reads the events of an install that arrived after a cursor.
func readTold(ctx context.Context, q querier, install string, after int64) (t Told, err error) {
	t.Cursor = after
	t.Events, err = list(ctx, q, "events", func(row scanner) (e chair.Event, err error) {
		var document string
		if err = row.Scan(&t.Cursor, &document); err != nil {
			return e, err
		}
		return e, json.Unmarshal([]byte(document), &e)
	}, `SELECT seq, document FROM install_event WHERE install_id = ? AND seq > ? ORDER BY seq`, install, after)
	return t, err
}

// Told reads the events of an install that arrived after a cursor; 0 reads all.
func (s *Store) Told(ctx context.Context, install string, after int64) (t Told, err error) {
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		if t, err = readTold(ctx, tx, install, after); err != nil {
			return err
		}
		return tx.QueryRowContext(ctx, `SELECT count(*) FROM install_event WHERE install_id = ?`, install).Scan(&t.Known)
	})
	if err != nil {
		return Told{}, fmt.Errorf("what was told of install %s: %w", install, err)
	}
	return t, nil
}

// Logged is an install looked back on.
type Logged struct {
	ID, PlanID, ClientID string
	Title, Client        string
	Started, Closed      time.Time
	Log                  chair.Log
	Stash                []Booked
	// Papers is true where it was given papers to take along.
	Papers bool
}

// Booked is what the end of an install took out of the stash.
type Booked struct {
	Piece  string `json:"piece" doc:"What it is called"`
	Used   int    `json:"used"`
	Spoilt int    `json:"spoilt"`
	// Beyond are those the stash did not hold: hair that was never put into it.
	Beyond int `json:"beyond"`
}

// Spent is what an install took of an item, as pieces are sold.
type Spent struct {
	Claim
	Name         string
	Used, Spoilt int
}

// CloseInstall keeps the log of an install, what it says of pace, and takes what was spent out of the
// stash. Done once more it brings all of it up to what is known now.
func (s *Store) CloseInstall(ctx context.Context, i Install, at time.Time, log chair.Log, spent []Spent, by string) error {
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		var booked []Booked
		for _, sp := range spent {
			b, err := spend(ctx, tx, i.PlanID, sp, by, at)
			if err != nil {
				return err
			}
			booked = append(booked, b)
		}
		document, err := json.Marshal(struct {
			chair.Log
			Stash []Booked `json:"stash"`
		}{log, booked})
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE install SET closed_at = ?, log = ? WHERE id = ?`, stampOf(at), string(document), i.ID); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM install_pace WHERE install_id = ?`, i.ID); err != nil {
			return err
		}
		for _, e := range log.Evidence {
			if e.Person == "" {
				continue
			}
			// Who left the studio has no pace to keep.
			_, err := tx.ExecContext(ctx, `INSERT INTO install_pace (install_id, person_id, skill, actual, rate, own)
				SELECT ?, ?, ?, ?, ?, ? WHERE EXISTS (SELECT 1 FROM person WHERE id = ?)`, i.ID, e.Person, e.Skill, e.Actual, e.Rate, e.Own, e.Person)
			if err != nil {
				return err
			}
		}
		_, err = tx.ExecContext(ctx, `DELETE FROM promise WHERE plan_id = ?`, i.PlanID)
		return err
	})
	if err != nil {
		return fmt.Errorf("closing install %s: %w", i.ID, err)
	}
	return nil
}

// ReopenInstall takes back that an install is over.
func (s *Store) ReopenInstall(ctx context.Context, id string) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM install_pace WHERE install_id = ?`, id); err != nil {
			return fmt.Errorf("reopening install %s: %w", id, err)
		}
		if _, err := tx.ExecContext(ctx, `UPDATE install SET closed_at = '', log = '' WHERE id = ?`, id); err != nil {
			return fmt.Errorf("reopening install %s: %w", id, err)
		}
		return nil
	})
}

// spend takes pieces out of the lots that serve a plan: what was booked for it before is not
// booked again; repairs while it is worn (see [movesOf]) are not part of it.
func spend(ctx context.Context, tx *sql.Tx, planID string, sp Spent, by string, at time.Time) (Booked, error) {
	out := Booked{Piece: sp.Name}
	before := func(kind supply.MoveKind) (n int, err error) {
		err = tx.QueryRowContext(ctx, `SELECT coalesce(-sum(m.pieces + m.packs * json_extract(lot.document, '$.pack')), 0) FROM stash_move m JOIN lot ON lot.id = m.lot_id
			WHERE m.plan_id = ? AND m.kind = ? AND m.claim IN ('', ?) AND instr(m.id, '/') = 0 AND lot.colour = ? AND lot.item_id IN (
				SELECT id FROM item WHERE id = ? OR json_extract(document, '$.line') = (SELECT nullif(json_extract(document, '$.line'), '') FROM item WHERE id = ?))`,
			planID, string(kind), sp.Key, searchKey(sp.Colour), sp.Item, sp.Item).Scan(&n)
		return n, err
	}
	used, err := before(supply.Used)
	if err != nil {
		return Booked{}, err
	}
	spoilt, err := before(supply.Spoilt)
	if err != nil {
		return Booked{}, err
	}
	out.Used, out.Spoilt = used, spoilt
	for _, m := range []struct {
		kind  supply.MoveKind
		count int
		done  *int
	}{{supply.Used, sp.Used - used, &out.Used}, {supply.Spoilt, sp.Spoilt - spoilt, &out.Spoilt}} {
		if m.count <= 0 {
			continue
		}
		lots, err := matching(ctx, tx, planID, sp.Claim)
		if err != nil {
			return Booked{}, err
		}
		for _, t := range supply.Take(m.count, lots, sp.Reuse) {
			_, err := book(ctx, tx, t.Lot, MoveDraft{ID: uuid.NewString(), Kind: m.kind, Stock: supply.Stock{Loose: t.Pieces}, PlanID: planID, Claim: sp.Key, By: by, At: at})
			if err != nil {
				return Booked{}, err
			}
			*m.done += t.Pieces
			m.count -= t.Pieces
		}
		out.Beyond += m.count
	}
	return out, nil
}

const loggedColumns = `id, coalesce(plan_id, ''), coalesce(client_id, ''), json_extract(brief, '$.title'), json_extract(brief, '$.client'), started_at, closed_at, log, length(plan_sheet) > 0`

func readLogged(row scanner) (l Logged, err error) {
	var document string
	err = row.Scan(&l.ID, &l.PlanID, &l.ClientID, &l.Title, &l.Client, (*stamp)(&l.Started), (*stamp)(&l.Closed), &document, &l.Papers)
	if err != nil {
		return Logged{}, found(err)
	}
	read := struct {
		*chair.Log
		Stash *[]Booked `json:"stash"`
	}{&l.Log, &l.Stash}
	return l, json.Unmarshal([]byte(document), &read)
}

// Cursor is where the list goes on after this one.
func (l Logged) Cursor() string { return stampOf(l.Closed) + "\n" + l.ID }

// Log lists a page of the finished installs, the latest first.
func (s *Store) Log(ctx context.Context, page Page) ([]Logged, error) {
	at, id := page.split()
	if page.After == "" {
		at = "9"
	}
	return list(ctx, s.read, "the log", readLogged, `SELECT `+loggedColumns+` FROM install WHERE closed_at != '' AND (closed_at, id) < (?, ?) ORDER BY closed_at DESC, id DESC LIMIT ?`, at, id, page.Limit)
}

// LogOf is the log of one finished install, or [ErrNotFound].
func (s *Store) LogOf(ctx context.Context, id string) (Logged, error) {
	l, err := readLogged(s.read.QueryRowContext(ctx, `SELECT `+loggedColumns+` FROM install WHERE id = ? AND closed_at != ''`, id))
	if err != nil {
		return Logged{}, fmt.Errorf("log of install %s: %w", id, err)
	}
	return l, nil
}

// PaceLine is what one finished install says of one skill of a person.
type PaceLine struct {
	InstallID, PersonID, Skill string
	Actual, Rate               float64
	Own                        bool
	At                         time.Time
}

// PaceLines are what finished installs say of the pace of people, the oldest first.
func (s *Store) PaceLines(ctx context.Context) ([]PaceLine, error) {
	return list(ctx, s.read, "pace", func(row scanner) (l PaceLine, err error) {
		err = row.Scan(&l.InstallID, &l.PersonID, &l.Skill, &l.Actual, &l.Rate, &l.Own, (*stamp)(&l.At))
		return l, err
	}, `SELECT p.install_id, p.person_id, p.skill, p.actual, p.rate, p.own, i.closed_at FROM install_pace p JOIN install i ON i.id = p.install_id
		ORDER BY i.closed_at, p.install_id, p.skill`)
}

// KeepPhoto keeps a picture of an install under an id made by the device. The same id again is the
// picture that is there.
func (s *Store) KeepPhoto(ctx context.Context, install, id string, image []byte, askedBy string) error {
	_, err := s.write.ExecContext(ctx, `INSERT INTO install_photo (id, install_id, image, asked_by, received_at) VALUES (?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING`,
		id, install, image, askedBy, stampOf(time.Now()))
	if code(err) == foreignKey {
		err = ErrNotFound
	}
	if err != nil {
		return fmt.Errorf("keeping a picture of install %s: %w", install, err)
	}
	return nil
}

// Photo reads a picture of an install.
func (s *Store) Photo(ctx context.Context, install, id string) (image []byte, err error) {
	err = s.read.QueryRowContext(ctx, `SELECT image FROM install_photo WHERE install_id = ? AND id = ?`, install, id).Scan(&image)
	if err != nil {
		return nil, fmt.Errorf("picture of install %s: %w", install, found(err))
	}
	return image, nil
}

// DropPhoto deletes a picture of an install.
func (s *Store) DropPhoto(ctx context.Context, install, id string) error {
	_, err := s.write.ExecContext(ctx, `DELETE FROM install_photo WHERE install_id = ? AND id = ?`, install, id)
	if err != nil {
		return fmt.Errorf("dropping a picture of install %s: %w", install, err)
	}
	return nil
}

// heldInstalls are all installs of a client.
func heldInstalls(ctx context.Context, q querier, client string) (out []HeldInstall, err error) {
	installs, err := list(ctx, q, "installs", readInstall, `SELECT `+installColumns+` FROM install WHERE client_id = ? ORDER BY started_at, id`, client)
	if err != nil {
		return nil, err
	}
	for _, i := range installs {
		told, err := readTold(ctx, q, i.ID, 0)
		if err != nil {
			return nil, err
		}
		photos, err := list(ctx, q, "pictures", func(row scanner) (image []byte, err error) {
			err = row.Scan(&image)
			return image, err
		}, `SELECT image FROM install_photo WHERE install_id = ? ORDER BY received_at, id`, i.ID)
		if err != nil {
			return nil, err
		}
		entries, err := readEntries(ctx, q, i.ID)
		if err != nil {
			return nil, err
		}
		out = append(out, HeldInstall{i, told.Events, photos, entries})
	}
	return out, nil
}
