// Package store keeps a studio in one SQLite file. Every acknowledged write is on
// disk. Times are UTC in RFC 3339 with nanoseconds.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"net/url"

	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // the "sqlite" driver
)

//go:embed migrations/*.sql
var migrations embed.FS

// Errors that callers tell apart.
var (
	// ErrNotFound: there is no such record.
	ErrNotFound = errors.New("not found")
	// ErrStale: the record was saved by someone else since it was read.
	ErrStale = errors.New("saved by someone else in the meantime")
)

// Store is an open studio file. It is safe for concurrent use.
type Store struct{ db *sql.DB }

// Open opens the file at path, making and migrating it as needed.
func Open(ctx context.Context, path string) (*Store, error) {
	query := url.Values{
		"_pragma": {"busy_timeout(5000)", "journal_mode(WAL)", "synchronous(FULL)", "foreign_keys(ON)"},
		"_txlock": {"immediate"},
	}
	db, err := sql.Open("sqlite", "file:"+(&url.URL{Path: path}).EscapedPath()+"?"+query.Encode())
	if err != nil {
		return nil, fmt.Errorf("opening %s: %w", path, err)
	}
	s := &Store{db}
	if err := s.migrate(ctx); err != nil {
		return nil, errors.Join(fmt.Errorf("bringing %s up to date: %w", path, err), db.Close())
	}
	return s, nil
}

func (s *Store) migrate(ctx context.Context) error {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	provider, err := goose.NewProvider(goose.DialectSQLite3, s.db, files)
	if err != nil {
		return err
	}
	_, err = provider.Up(ctx)
	return err
}

// Close closes the file.
func (s *Store) Close() error { return s.db.Close() }
