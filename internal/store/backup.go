package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"os"

	"modernc.org/sqlite"
)

// ErrDamaged: a backup is no studio file, or not whole, or of a newer version.
var ErrDamaged = errors.New("not a whole studio file")

// Backup writes a copy of the studio as it is at this moment to a new file at
// path, while others go on working. It refuses to overwrite a file.
func (s *Store) Backup(ctx context.Context, path string) error {
	if _, err := os.Stat(path); err == nil {
		return fmt.Errorf("backing up to %s: the file exists; choose another name", path)
	}
	if _, err := s.db.ExecContext(ctx, `VACUUM INTO ?`, path); err != nil {
		return fmt.Errorf("backing up to %s: %w", path, err)
	}
	return nil
}

// Restore puts the backup at path in place of everything in the studio, while
// others may be connected: they see it from their next request on. Everyone is
// signed out. A backup that is damaged, or of a newer version, is refused with
// ErrDamaged and nothing is changed.
func (s *Store) Restore(ctx context.Context, path string) error {
	if err := s.checkBackup(ctx, path); err != nil {
		return fmt.Errorf("restoring from %s: %w", path, err)
	}
	conn, err := s.db.Conn(ctx)
	if err != nil {
		return fmt.Errorf("restoring from %s: %w", path, err)
	}
	defer conn.Close()
	err = conn.Raw(func(driver any) error {
		target, ok := driver.(interface {
			NewRestore(string) (*sqlite.Backup, error)
		})
		if !ok {
			return fmt.Errorf("the driver %T can not restore", driver)
		}
		copying, err := target.NewRestore(dataSource(path, "mode=ro"))
		if err != nil {
			return err
		}
		more, err := copying.Step(-1) // all pages in one transaction
		if err == nil && more {
			err = errors.New("the copy stopped half-way")
		}
		return errors.Join(err, copying.Finish())
	})
	if err != nil {
		return fmt.Errorf("restoring from %s: %w", path, err)
	}
	if err := s.migrate(ctx); err != nil {
		return fmt.Errorf("bringing the restored studio up to date: %w", err)
	}
	if _, err := s.db.ExecContext(ctx, `DELETE FROM sessions`); err != nil {
		return fmt.Errorf("signing everyone out: %w", err)
	}
	return nil
}

// checkBackup opens the file at path for reading only and looks it over.
func (s *Store) checkBackup(ctx context.Context, path string) error {
	if _, err := os.Stat(path); err != nil {
		return err
	}
	db, err := sql.Open("sqlite", dataSource(path, "mode=ro", "immutable=1"))
	if err != nil {
		return err
	}
	defer db.Close()
	var found string
	if err := db.QueryRowContext(ctx, `PRAGMA integrity_check(1)`).Scan(&found); err != nil {
		return fmt.Errorf("%w: %w", ErrDamaged, err)
	}
	if found != "ok" {
		return fmt.Errorf("%w: %s", ErrDamaged, found)
	}
	version := func(db *sql.DB) (n int, err error) {
		err = db.QueryRowContext(ctx, `SELECT max(version_id) FROM goose_db_version WHERE is_applied`).Scan(&n)
		return n, err
	}
	theirs, err := version(db)
	if err != nil {
		return fmt.Errorf("%w: %w", ErrDamaged, err)
	}
	ours, err := version(s.db)
	if err != nil {
		return err
	}
	if theirs > ours {
		return fmt.Errorf("%w: it was made by a newer Kladotex", ErrDamaged)
	}
	return nil
}
