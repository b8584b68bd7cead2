package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"kladotex/core/attach"
	"kladotex/core/chair"
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
	How attach.How
	// Head is how it is drawn, as JSON.
	Head json.RawMessage
}

// InstallDraft is what is frozen when an install begins.
type InstallDraft struct {
	PlanID, ClientID string
	Brief            chair.Brief
	Frozen           Frozen
	Record
	By                  string
	PlanSheet, DaySheet []byte
	// Wear is the head as it is worn afterwards, Redoes the install whose outer rows it does again.
	Wear   wear.Brief
	Redoes string
	// At is when it began; the zero time is now.
	At time.Time
}

const installColumns = `id, coalesce(plan_id, ''), coalesce(client_id, ''), brief, engine, started_by, started_at, nullif(closed_at, ''), length(plan_sheet) > 0`

func readInstall(row scanner) (i Install, err error) {
	var brief string
	if err = row.Scan(&i.ID, &i.PlanID, &i.ClientID, &brief, &i.Engine, &i.By, (*stamp)(&i.Started), (*stamp)(&i.Closed), &i.Papers); err != nil {
		return Install{}, orNotFound(err)
	}
	i.Brief, err = chair.Decode([]byte(brief))
	return i, err
}

// StartInstall freezes a plan for the chair, under an id made by who starts it. A plan is at the
// chair once: where it is or was, that install is answered, whoever asks. It fails with [ErrStale] where
// the id is that of another plan's install, with [ErrNotFound] where it is that of a deleted one.
func (s *Tx) StartInstall(ctx context.Context, id string, d InstallDraft) (i Install, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		read := func() error {
			i, err = readInstall(tx.QueryRowContext(ctx, `SELECT `+installColumns+` FROM install WHERE id = ? OR plan_id = ?`, id, d.PlanID))
			return err
		}
		if err := read(); !errors.Is(err, ErrNotFound) {
			if err == nil && i.PlanID != d.PlanID {
				err = ErrStale // another plan's
			}
			return err
		}
		if err := notGone(ctx, tx, id); err != nil {
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
		worn, err := json.Marshal(d.Wear)
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
		// What was taken for the plan by hand was taken for this install.
		if _, err := tx.ExecContext(ctx, `UPDATE stash_move SET install_id = ? WHERE plan_id = ? AND kind IN ('used', 'spoilt')`, id, d.PlanID); err != nil {
			return err
		}
		return read()
	})
	if err != nil {
		return Install{}, fmt.Errorf("starting an install: %w", err)
	}
	return i, nil
}

// Install reads an install. It fails with [ErrGone] where it was deleted: devices that follow it forget it.
func (s *Tx) Install(ctx context.Context, id string) (Install, error) {
	i, err := readInstall(s.read.QueryRowContext(ctx, `SELECT `+installColumns+` FROM install WHERE id = ?`, id))
	if err != nil {
		return Install{}, fmt.Errorf("install %s: %w", id, absent(ctx, s.read, id, err))
	}
	return i, nil
}

// InstallOf is the install of a plan, or [ErrNotFound].
func (s *Tx) InstallOf(ctx context.Context, planID string) (id string, err error) {
	err = s.read.QueryRowContext(ctx, `SELECT id FROM install WHERE plan_id = ?`, planID).Scan(&id)
	if err != nil {
		return "", fmt.Errorf("install of plan %s: %w", planID, orNotFound(err))
	}
	return id, nil
}

// Frozen reads what an install keeps beside its brief.
func (s *Tx) Frozen(ctx context.Context, id string) (f Frozen, err error) {
	var how, head string
	if err = s.read.QueryRowContext(ctx, `SELECT how, head FROM install WHERE id = ?`, id).Scan(&how, &head); err != nil {
		return Frozen{}, fmt.Errorf("install %s: %w", id, orNotFound(err))
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
func (s *Tx) InstallFile(ctx context.Context, id string, paper InstallPaper) (file []byte, err error) {
	if err = s.read.QueryRowContext(ctx, `SELECT `+string(paper)+` FROM install WHERE id = ?`, id).Scan(&file); err != nil {
		return nil, fmt.Errorf("paper of install %s: %w", id, orNotFound(err))
	}
	if len(file) == 0 {
		return nil, fmt.Errorf("paper of install %s: %w", id, ErrNotFound)
	}
	return file, nil
}

// AtChair are the installs that go on, the latest first.
func (s *Tx) AtChair(ctx context.Context) ([]Install, error) {
	return list(ctx, s.read, "installs at the chair", readInstall, `SELECT `+installColumns+` FROM install WHERE closed_at = '' ORDER BY started_at DESC, id LIMIT 100`)
}

// Received is what devices have told of an install.
type Received struct {
	Events []chair.Event
	// Cursor is where to go on reading, Known how many events there are in all.
	Cursor int64
	Known  int
}

// readReceived reads the events of an install that arrived after a cursor.
func readReceived(ctx context.Context, q querier, install string, after int64) (t Received, err error) {
	t.Cursor = after
	t.Events, err = list(ctx, q, "events", func(row scanner) (e chair.Event, err error) {
		var document string
		var began, received time.Time
		if err = row.Scan(&t.Cursor, &document, (*stamp)(&received), (*stamp)(&began)); err != nil {
			return e, err
		}
		err = json.Unmarshal([]byte(document), &e)
		e.At = boundedTime(e.At, began, received)
		return e, err
	}, `SELECT seq, document, received_at, started_at FROM install_event JOIN install ON install.id = install_id WHERE install_id = ? AND seq > ? ORDER BY seq`, install, after)
	return t, err
}

// Received reads the events of an install that arrived after a cursor; 0 reads all.
func (s *Tx) Received(ctx context.Context, install string, after int64) (t Received, err error) {
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		if t, err = readReceived(ctx, tx, install, after); err != nil {
			return err
		}
		return tx.QueryRowContext(ctx, `SELECT count(*) FROM install_event WHERE install_id = ?`, install).Scan(&t.Known)
	})
	if err != nil {
		return Received{}, fmt.Errorf("what was told of install %s: %w", install, err)
	}
	return t, nil
}

// Logged is an install looked back on.
type Logged struct {
	ID, PlanID, ClientID string
	Title, Client        string
	Started, Closed      time.Time
	Log                  chair.Log
	Stash                []Taken
	// Papers is true where it was given papers to take along.
	Papers bool
}

// Taken is what the end of an install took out of the stash.
type Taken struct {
	Piece  string `json:"piece" doc:"What it is called"`
	Used   int    `json:"used"`
	Spoilt int    `json:"spoilt"`
	// Beyond are those the stash did not hold: hair that was never put into it.
	Beyond int `json:"beyond"`
}

const loggedColumns = `id, coalesce(plan_id, ''), coalesce(client_id, ''), json_extract(brief, '$.title'), json_extract(brief, '$.client'), started_at, closed_at, log, length(plan_sheet) > 0`

func readLogged(row scanner) (l Logged, err error) {
	var document string
	err = row.Scan(&l.ID, &l.PlanID, &l.ClientID, &l.Title, &l.Client, (*stamp)(&l.Started), (*stamp)(&l.Closed), &document, &l.Papers)
	if err != nil {
		return Logged{}, orNotFound(err)
	}
	read := struct {
		*chair.Log
		Stash *[]Taken `json:"stash"`
	}{&l.Log, &l.Stash}
	return l, json.Unmarshal([]byte(document), &read)
}

// Cursor is where the list goes on after this one.
func (l Logged) Cursor() string { return stampOf(l.Closed) + "\n" + l.ID }

// Log lists a page of the finished installs, the latest first.
func (s *Tx) Log(ctx context.Context, page Page) ([]Logged, error) {
	at, id := page.split()
	if page.After == "" {
		at = "9"
	}
	return list(ctx, s.read, "the log", readLogged, `SELECT `+loggedColumns+` FROM install WHERE closed_at != '' AND (closed_at, id) < (?, ?) ORDER BY closed_at DESC, id DESC LIMIT ?`, at, id, page.Limit)
}

// LogOf is the log of one finished install, or [ErrNotFound].
func (s *Tx) LogOf(ctx context.Context, id string) (Logged, error) {
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
func (s *Tx) PaceLines(ctx context.Context) ([]PaceLine, error) {
	return list(ctx, s.read, "pace", func(row scanner) (l PaceLine, err error) {
		err = row.Scan(&l.InstallID, &l.PersonID, &l.Skill, &l.Actual, &l.Rate, &l.Own, (*stamp)(&l.At))
		return l, err
	}, `SELECT p.install_id, p.person_id, p.skill, p.actual, p.rate, p.own, i.closed_at FROM install_pace p JOIN install i ON i.id = p.install_id
		ORDER BY i.closed_at, p.install_id, p.skill`)
}

// KeepPhoto keeps a picture of an install under an id made by the device. The same id again is the
// picture that is there.
func (s *Tx) KeepPhoto(ctx context.Context, install, id string, image []byte, askedBy string) error {
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
func (s *Tx) Photo(ctx context.Context, install, id string) (image []byte, err error) {
	err = s.read.QueryRowContext(ctx, `SELECT image FROM install_photo WHERE install_id = ? AND id = ?`, install, id).Scan(&image)
	if err != nil {
		return nil, fmt.Errorf("picture of install %s: %w", install, orNotFound(err))
	}
	return image, nil
}

// DropPhoto deletes a picture of an install.
func (s *Tx) DropPhoto(ctx context.Context, install, id string) error {
	_, err := s.write.ExecContext(ctx, `DELETE FROM install_photo WHERE install_id = ? AND id = ?`, install, id)
	if err != nil {
		return fmt.Errorf("dropping a picture of install %s: %w", install, err)
	}
	return nil
}

// heldInstalls are all installs of a client.
func heldInstalls(ctx context.Context, q querier, client string) (out []DossierInstall, err error) {
	installs, err := list(ctx, q, "installs", readInstall, `SELECT `+installColumns+` FROM install WHERE client_id = ? ORDER BY started_at, id`, client)
	if err != nil {
		return nil, err
	}
	for _, i := range installs {
		told, err := readReceived(ctx, q, i.ID, 0)
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
		out = append(out, DossierInstall{i, told.Events, photos, entries})
	}
	return out, nil
}
