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
	"strings"

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
	// ErrNoClient: a plan names a client who is not there.
	ErrNoClient = errors.New("no such client")
)

// Store is an open studio file. It is safe for concurrent use.
type Store struct{ db *sql.DB }

// Open opens the file at path, making and migrating it as needed.
func Open(ctx context.Context, path string) (*Store, error) {
	db, err := sql.Open("sqlite", dataSource(path,
		"_pragma=busy_timeout(5000)", "_pragma=journal_mode(WAL)", "_pragma=synchronous(FULL)", "_pragma=foreign_keys(ON)",
		"_txlock=immediate"))
	if err != nil {
		return nil, fmt.Errorf("opening %s: %w", path, err)
	}
	s := &Store{db}
	if err := s.migrate(ctx); err != nil {
		return nil, errors.Join(fmt.Errorf("bringing %s up to date: %w", path, err), db.Close())
	}
	return s, nil
}

// dataSource names the file at path, whatever letters are in its name.
func dataSource(path string, settings ...string) string {
	return "file:" + (&url.URL{Path: path}).EscapedPath() + "?" + strings.Join(settings, "&")
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

// inTx carries out work in one transaction, which fails as a whole.
func (s *Store) inTx(ctx context.Context, work func(*sql.Tx) error) error {
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	if err := work(tx); err != nil {
		return errors.Join(err, tx.Rollback())
	}
	return tx.Commit()
}

// scanner is a row to be read.
type scanner interface{ Scan(...any) error }

// list reads all rows of a query; what names them in an error.
func list[T any](ctx context.Context, s *Store, what string, read func(scanner) (T, error), query string, args ...any) ([]T, error) {
	rows, err := s.db.QueryContext(ctx, query, args...)
	if err != nil {
		return nil, fmt.Errorf("listing %s: %w", what, err)
	}
	defer rows.Close()
	var out []T
	for rows.Next() {
		v, err := read(rows)
		if err != nil {
			return nil, fmt.Errorf("listing %s: %w", what, err)
		}
		out = append(out, v)
	}
	if err := rows.Err(); err != nil {
		return nil, fmt.Errorf("listing %s: %w", what, err)
	}
	return out, nil
}

// missingClient turns a broken reference to a client into ErrNoClient.
func missingClient(err error) error {
	if strings.Contains(err.Error(), "FOREIGN KEY constraint failed") {
		return ErrNoClient
	}
	return err
}

// DB is the file's connection pool, for the session library alone.
func (s *Store) DB() *sql.DB { return s.db }

// Close closes the file.
func (s *Store) Close() error { return s.db.Close() }
