package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"
)

// Role is what a person of the studio may do; see the api package's table.
type Role string

// The roles.
const (
	Owner      Role = "owner"
	Stylist    Role = "stylist"
	Apprentice Role = "apprentice"
)

// Person is someone who works in the studio.
type Person struct {
	ID      string
	Name    string
	Role    Role
	Hash    string // argon2id hash of the password, PHC form
	Epoch   int    // counts the times all her sessions were ended
	Created time.Time
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

const personColumns = `id, name, role, password_hash, epoch, created_at`

func readPerson(row scanner) (p Person, err error) {
	err = row.Scan(&p.ID, &p.Name, &p.Role, &p.Hash, &p.Epoch, (*stamp)(&p.Created))
	return p, err
}

// People lists everyone, by name.
func (s *Store) People(ctx context.Context) ([]Person, error) {
	return list(ctx, s, "people", readPerson, `SELECT `+personColumns+` FROM person ORDER BY name`)
}

// Person finds a person by id.
func (s *Store) Person(ctx context.Context, id string) (Person, error) {
	return s.person(ctx, `id = ?`, id)
}

// PersonNamed finds a person by name, whatever the case.
func (s *Store) PersonNamed(ctx context.Context, name string) (Person, error) {
	return s.person(ctx, `name = ?`, strings.TrimSpace(name))
}

func (s *Store) person(ctx context.Context, where, value string) (Person, error) {
	p, err := readPerson(s.db.QueryRowContext(ctx, `SELECT `+personColumns+` FROM person WHERE `+where, value))
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	if err != nil {
		return Person{}, fmt.Errorf("person: %w", err)
	}
	return p, nil
}

// AddOwner adds the first person, an owner. It fails with ErrHasOwner when there
// is anyone already.
func (s *Store) AddOwner(ctx context.Context, name, hash string) (Person, error) {
	p := Person{ID: uuid.NewString(), Name: name, Role: Owner, Hash: hash, Created: time.Now().UTC()}
	res, err := s.db.ExecContext(ctx, `INSERT INTO person (`+personColumns+`)
		SELECT ?, ?, ?, ?, 0, ? WHERE NOT EXISTS (SELECT 1 FROM person)`,
		p.ID, p.Name, p.Role, p.Hash, stampOf(p.Created))
	if err != nil {
		return Person{}, fmt.Errorf("adding the owner: %w", err)
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return Person{}, errors.Join(ErrHasOwner, err)
	}
	return p, nil
}

// AddPerson adds a person.
func (s *Store) AddPerson(ctx context.Context, name string, role Role, hash string) (Person, error) {
	p := Person{ID: uuid.NewString(), Name: name, Role: role, Hash: hash, Created: time.Now().UTC()}
	_, err := s.db.ExecContext(ctx, `INSERT INTO person (`+personColumns+`) VALUES (?, ?, ?, ?, 0, ?)`,
		p.ID, p.Name, p.Role, p.Hash, stampOf(p.Created))
	if err != nil {
		return Person{}, fmt.Errorf("adding a person: %w", taken(err))
	}
	return p, nil
}

// taken turns a broken UNIQUE on the name into ErrNameTaken.
func taken(err error) error {
	if strings.Contains(err.Error(), "UNIQUE constraint failed: person.name") {
		return ErrNameTaken
	}
	return err
}

// ChangePerson puts p's name, role and hash in place of what was there. It fails
// with ErrLastOwner when no owner would be left.
func (s *Store) ChangePerson(ctx context.Context, p Person) error {
	return s.keepingAnOwner(ctx, func(tx *sql.Tx) (sql.Result, error) {
		return tx.ExecContext(ctx, `UPDATE person SET name = ?, role = ?, password_hash = ? WHERE id = ?`, p.Name, p.Role, p.Hash, p.ID)
	})
}

// EndSessions begins a new epoch for a person, which voids all her sessions, and
// returns it.
func (s *Store) EndSessions(ctx context.Context, id string) (epoch int, err error) {
	err = s.db.QueryRowContext(ctx, `UPDATE person SET epoch = epoch + 1 WHERE id = ? RETURNING epoch`, id).Scan(&epoch)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	if err != nil {
		return 0, fmt.Errorf("ending sessions: %w", err)
	}
	return epoch, nil
}

// RemovePerson removes a person; what she saved stays under her name. It fails
// with ErrLastOwner when no owner would be left.
func (s *Store) RemovePerson(ctx context.Context, id string) error {
	return s.keepingAnOwner(ctx, func(tx *sql.Tx) (sql.Result, error) {
		return tx.ExecContext(ctx, `DELETE FROM person WHERE id = ?`, id)
	})
}

// keepingAnOwner carries out a change of one person, unless it is of none or
// leaves no owner.
func (s *Store) keepingAnOwner(ctx context.Context, change func(*sql.Tx) (sql.Result, error)) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		res, err := change(tx)
		if err != nil {
			return taken(err)
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
		return nil
	})
}
