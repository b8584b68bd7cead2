package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"

	"kladotex/core/craft"
	"kladotex/core/pace"
)

// Role is what a person of the studio may do; see the api package's table.
type Role string

// The roles.
const (
	Owner      Role = "owner"
	Stylist    Role = "stylist"
	Apprentice Role = "apprentice"
)

// Roles are all of them.
var Roles = []Role{Owner, Stylist, Apprentice}

// Person is someone who works in the studio.
type Person struct {
	ID      string
	Name    string
	Role    Role
	Hash    string // argon2id hash of the password, PHC form
	Epoch   int    // counts the times all their sign-ins were ended
	Created time.Time
	// Hand is how practised they are, OwnHead how many times as long their own head takes.
	Hand    pace.Hand
	OwnHead float64
}

// Errors about people.
var (
	// ErrNameTaken: another person of the studio has this name.
	ErrNameTaken = errors.New("name taken")
	// ErrLastOwner: the studio would be left without an owner.
	ErrLastOwner = errors.New("the last owner")
	// ErrHasOwner: the studio has people already.
	ErrHasOwner = errors.New("the studio has an owner")
)

const personColumns = `id, name, role, password_hash, epoch, created_at, hand, own_head`

func readPerson(row scanner) (p Person, err error) {
	err = row.Scan(&p.ID, &p.Name, &p.Role, &p.Hash, &p.Epoch, (*stamp)(&p.Created), &p.Hand, &p.OwnHead)
	return p, err
}

// People lists everyone, by name.
func (s *Tx) People(ctx context.Context) ([]Person, error) {
	return list(ctx, s.read, "people", readPerson, `SELECT `+personColumns+` FROM person ORDER BY name`)
}

// Person finds a person by id.
func (s *Tx) Person(ctx context.Context, id string) (Person, error) {
	return s.person(ctx, `id = ?`, id)
}

// PersonNamed finds a person by name, whatever the case of its letters.
func (s *Tx) PersonNamed(ctx context.Context, name string) (Person, error) {
	return s.person(ctx, `name_key = ? ORDER BY name = ? DESC, id LIMIT 1`, nameKey(name), strings.TrimSpace(name))
}

func (s *Tx) person(ctx context.Context, where string, values ...any) (Person, error) {
	p, err := readPerson(s.read.QueryRowContext(ctx, `SELECT `+personColumns+` FROM person WHERE `+where, values...))
	if err != nil {
		return Person{}, fmt.Errorf("person: %w", orNotFound(err))
	}
	return p, nil
}

// HasPeople tells whether anyone is in the studio.
func (s *Tx) HasPeople(ctx context.Context) (has bool, err error) {
	if err := s.read.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM person)`).Scan(&has); err != nil {
		return false, fmt.Errorf("looking for people: %w", err)
	}
	return has, nil
}

// AddOwner adds the first person, an owner. It fails with ErrHasOwner when there
// is anyone already.
func (s *Tx) AddOwner(ctx context.Context, name, hash string) (Person, error) {
	return s.add(ctx, name, Owner, hash, func(tx *sql.Tx) error {
		var has bool
		if err := tx.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM person)`).Scan(&has); err != nil {
			return err
		}
		if has {
			return ErrHasOwner
		}
		return nil
	})
}

// AddPerson adds a person. It fails with ErrNameTaken when another has the name.
func (s *Tx) AddPerson(ctx context.Context, name string, role Role, hash string) (Person, error) {
	return s.add(ctx, name, role, hash, func(tx *sql.Tx) error { return free(ctx, tx, name, "") })
}

// add adds a person unless may refuses it.
func (s *Tx) add(ctx context.Context, name string, role Role, hash string, may func(*sql.Tx) error) (Person, error) {
	p := Person{
		ID: uuid.NewString(), Name: name, Role: role, Hash: hash, Created: time.Now().UTC(), Hand: pace.Practised, OwnHead: craft.OwnHead,
	}
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		if err := may(tx); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO person (`+personColumns+`, name_key) VALUES (?, ?, ?, ?, 0, ?, ?, ?, ?)`,
			p.ID, p.Name, p.Role, p.Hash, stampOf(p.Created), p.Hand, p.OwnHead, nameKey(name))
		return err
	})
	if err != nil {
		return Person{}, fmt.Errorf("adding a person: %w", err)
	}
	return p, nil
}

// free fails with ErrNameTaken when someone other than the person of the id has the
// name, whatever the case of its letters.
func free(ctx context.Context, tx *sql.Tx, name, id string) error {
	var taken bool
	err := tx.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM person WHERE name_key = ? AND id <> ?)`, nameKey(name), id).Scan(&taken)
	if err == nil && taken {
		err = ErrNameTaken
	}
	return err
}

// ChangePerson gives a person another name and role and, where hash is not empty,
// another password by its hash, which ends every sign-in. It fails with ErrLastOwner
// when no owner would be left, with ErrNameTaken when another has the name.
func (s *Tx) ChangePerson(ctx context.Context, id, name string, role Role, hash string) (Person, error) {
	return s.change(ctx, id, func(tx *sql.Tx) (sql.Result, error) {
		if err := free(ctx, tx, name, id); err != nil {
			return nil, err
		}
		return tx.ExecContext(ctx, `UPDATE person SET name = ?, name_key = ?, role = ?,
			password_hash = coalesce(nullif(?, ''), password_hash), epoch = epoch + (? <> '') WHERE id = ?`,
			name, nameKey(name), role, hash, hash, id)
	})
}

// SetPace says how practised a person is, and how many times as long their own head takes.
func (s *Tx) SetPace(ctx context.Context, id string, hand pace.Hand, ownHead float64) (Person, error) {
	return s.change(ctx, id, func(tx *sql.Tx) (sql.Result, error) {
		return tx.ExecContext(ctx, `UPDATE person SET hand = ?, own_head = ? WHERE id = ?`, hand, ownHead, id)
	})
}

// ChangePassword puts a password, by its hash, in place of the one whose hash is old,
// and ends every sign-in. It fails with ErrStale when the password was changed
// meanwhile.
func (s *Tx) ChangePassword(ctx context.Context, id, old, hash string) (Person, error) {
	return s.change(ctx, id, func(tx *sql.Tx) (sql.Result, error) {
		res, err := tx.ExecContext(ctx, `UPDATE person SET password_hash = ?, epoch = epoch + 1 WHERE id = ? AND password_hash = ?`, hash, id, old)
		if err != nil {
			return nil, err
		}
		if n, err := res.RowsAffected(); err != nil || n == 0 {
			return nil, errors.Join(ErrStale, err)
		}
		return res, nil
	})
}

// EndSessions begins a new epoch for a person, which voids all their sign-ins.
func (s *Tx) EndSessions(ctx context.Context, id string) error {
	_, err := s.change(ctx, id, func(tx *sql.Tx) (sql.Result, error) {
		return tx.ExecContext(ctx, `UPDATE person SET epoch = epoch + 1 WHERE id = ?`, id)
	})
	return err
}

// RemovePerson removes a person; what they saved stays under their name. It fails
// with ErrLastOwner when no owner would be left.
func (s *Tx) RemovePerson(ctx context.Context, id string) error {
	_, err := s.change(ctx, id, func(tx *sql.Tx) (sql.Result, error) {
		return tx.ExecContext(ctx, `DELETE FROM person WHERE id = ?`, id)
	})
	return err
}

// change carries out a change of one person, unless it is of none or leaves no owner,
// and returns the person as changed; none when removed.
func (s *Tx) change(ctx context.Context, id string, change func(*sql.Tx) (sql.Result, error)) (p Person, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		res, err := change(tx)
		if err != nil {
			return err
		}
		if n, err := res.RowsAffected(); err != nil || n == 0 {
			return errors.Join(ErrNotFound, err)
		}
		var owners int
		if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM person WHERE role = 'owner'`).Scan(&owners); err != nil {
			return err
		}
		if owners == 0 {
			return ErrLastOwner
		}
		p, err = readPerson(tx.QueryRowContext(ctx, `SELECT `+personColumns+` FROM person WHERE id = ?`, id))
		if errors.Is(err, sql.ErrNoRows) {
			return nil
		}
		return err
	})
	if err != nil {
		return Person{}, fmt.Errorf("changing a person: %w", err)
	}
	return p, nil
}
