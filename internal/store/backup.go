package store

import (
	"bufio"
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/gofrs/flock"
	"modernc.org/sqlite"
)

// Errors about copies.
var (
	// ErrDamaged: a copy is no studio file, or not whole, or of a newer version.
	ErrDamaged = errors.New("not a whole studio file")
	// ErrNoChecksum: the file with the copy's checksum is not beside it.
	ErrNoChecksum = errors.New("its checksum is not beside it")
)

// checksumPath is where the checksum of a copy lies, in the form of sha256sum.
func checksumPath(copied string) string { return copied + ".sha256" }

// Backup writes a copy of the studio at path, as it is at this moment, to a new file,
// and its checksum beside it, while others go on working. The studio is read, never
// brought up to date. Backup refuses to overwrite a file, and leaves none when it fails.
func Backup(ctx context.Context, path, copied string) (err error) {
	failed := func(err error) error { return fmt.Errorf("backing up %s to %s: %w", path, copied, err) }
	for _, have := range []string{copied, checksumPath(copied)} {
		if _, err := os.Stat(have); err == nil {
			return failed(fmt.Errorf("the file %s exists; choose another name", have))
		}
	}
	if _, err := os.Stat(path); err != nil {
		return failed(err)
	}
	db, err := sql.Open("sqlite", dataSource(path, "mode=rw", "_pragma=busy_timeout(5000)"))
	if err != nil {
		return failed(err)
	}
	defer db.Close()
	switch version, err := fileVersion(ctx, db); {
	case err != nil:
		return failed(err)
	case version == 0:
		return failed(ErrForeign)
	}
	partial := copied + ".partial"
	defer func() {
		if err != nil {
			_ = os.Remove(partial)
			_ = os.Remove(checksumPath(copied))
		}
	}()
	if err := copyInto(ctx, db, partial); err != nil {
		return failed(err)
	}
	sum, err := checksum(partial)
	if err != nil {
		return failed(err)
	}
	if err := write(checksumPath(copied), sum+"  "+filepath.Base(copied)+"\n"); err != nil {
		return failed(err)
	}
	if err := os.Rename(partial, copied); err != nil {
		return failed(err)
	}
	return nil
}

// copyInto copies what db holds to a new file that only its owner may read.
func copyInto(ctx context.Context, db *sql.DB, path string) error {
	f, err := os.OpenFile(path, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600) // an empty file is one to SQLite
	if err != nil {
		return err
	}
	if err := f.Close(); err != nil {
		return err
	}
	if _, err := db.ExecContext(ctx, `VACUUM INTO ?`, path); err != nil {
		return errors.Join(err, os.Remove(path))
	}
	return synced(path)
}

// synced waits until the file is on disk.
func synced(path string) error {
	f, err := os.OpenFile(path, os.O_RDWR, 0)
	if err != nil {
		return err
	}
	return errors.Join(f.Sync(), f.Close())
}

func write(path, text string) error {
	if err := os.WriteFile(path, []byte(text), 0o600); err != nil {
		return err
	}
	return synced(path)
}

// checksum is the SHA-256 of a file, in hexadecimal.
func checksum(path string) (string, error) {
	f, err := os.Open(path)
	if err != nil {
		return "", err
	}
	defer f.Close()
	sum := sha256.New()
	if _, err := io.Copy(sum, f); err != nil {
		return "", err
	}
	return hex.EncodeToString(sum.Sum(nil)), nil
}

// Restore puts a copy in place of everything in the studio at path. The copy is looked
// over first, against the checksum beside it unless unchecked, and brought up to date
// in a file of its own; the studio that was is kept beside the new one, under the name
// that is returned. Everyone is signed out.
//
// The studio that was is not opened, so that a damaged one can be replaced; only where
// others have it open is the copy written into it, and they see it from their next
// request on. A copy that is not whole, foreign, or of a newer version is refused with
// [ErrDamaged], one without its checksum with [ErrNoChecksum], and nothing is changed.
func Restore(ctx context.Context, path, copied string, unchecked bool) (kept string, err error) {
	failed := func(err error) error { return fmt.Errorf("restoring %s from %s: %w", path, copied, err) }
	if err := verify(copied, unchecked); err != nil {
		return "", failed(err)
	}
	aside, err := os.MkdirTemp(filepath.Dir(path), filepath.Base(path)+".restoring-*")
	if err != nil {
		return "", failed(err)
	}
	defer os.RemoveAll(aside)
	ready := filepath.Join(aside, "studio.db")
	if err := prepare(ctx, ready, copied); err != nil {
		return "", failed(err)
	}
	if err := finishRestore(path); err != nil { // one that was broken off before
		return "", failed(err)
	}
	if _, err := os.Stat(path); err == nil {
		kept = unused(fmt.Sprintf("%s.before-restore-%s", path, time.Now().UTC().Format("20060102-150405.000")))
	}
	lock := flock.New(lockPath(path))
	alone, err := lock.TryLock()
	if err != nil {
		return "", failed(err)
	}
	if !alone {
		if err := writeOver(ctx, path, ready, kept); err != nil {
			return "", failed(fmt.Errorf("the studio is open elsewhere, and could not be written to; end that first: %w", err))
		}
		return kept, nil
	}
	err = replace(path, ready, kept)
	if err = errors.Join(err, lock.Unlock()); err != nil {
		return "", failed(err)
	}
	serves, err := Open(ctx, path)
	if err == nil {
		_, err = serves.HasPeople(ctx)
		err = errors.Join(err, serves.Close())
	}
	if err != nil {
		return "", failed(errors.Join(fmt.Errorf("the copy does not open; the studio is as it was: %w", err), putBack(path, kept)))
	}
	return kept, nil
}

// prepare makes a file that is ready to take the place of a studio.
func prepare(ctx context.Context, ready, copied string) error {
	from, err := os.Open(copied)
	if err != nil {
		return err
	}
	defer from.Close()
	to, err := os.OpenFile(ready, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	_, err = io.Copy(to, from)
	if err = errors.Join(err, to.Close()); err != nil {
		return err
	}
	if err := lookOver(ctx, ready); err != nil {
		return err
	}
	s, err := Open(ctx, ready)
	if err != nil {
		return fmt.Errorf("%w: %w", ErrDamaged, err)
	}
	return errors.Join(s.beginAnew(ctx), s.Close(), synced(ready))
}

// verify holds a copy against the checksum beside it.
func verify(copied string, unchecked bool) error {
	if _, err := os.Stat(copied); err != nil {
		return err
	}
	f, err := os.Open(checksumPath(copied))
	if errors.Is(err, os.ErrNotExist) {
		if unchecked {
			return nil
		}
		return ErrNoChecksum
	}
	if err != nil {
		return err
	}
	defer f.Close()
	line, err := bufio.NewReader(io.LimitReader(f, 1<<12)).ReadString('\n')
	if err != nil && !errors.Is(err, io.EOF) {
		return err
	}
	want, _, _ := strings.Cut(line, " ")
	have, err := checksum(copied)
	if err != nil {
		return err
	}
	if have != strings.TrimSpace(want) {
		return fmt.Errorf("%w: it is not as it was written, its checksum differs", ErrDamaged)
	}
	return nil
}

// lookOver refuses a file that is not a whole studio of this version or an earlier one.
func lookOver(ctx context.Context, path string) error {
	db, err := sql.Open("sqlite", dataSource(path, "mode=ro", "immutable=1"))
	if err != nil {
		return err
	}
	defer db.Close()
	damaged := func(err error) error { return fmt.Errorf("%w: %w", ErrDamaged, err) }
	version, err := fileVersion(ctx, db)
	if err != nil {
		return damaged(err)
	}
	provider, err := migrator(db)
	if err != nil {
		return err
	}
	switch {
	case version == 0:
		return damaged(ErrForeign)
	case version > newest(provider):
		return damaged(ErrNewer)
	}
	for _, check := range []string{`PRAGMA integrity_check(1)`, `SELECT coalesce((SELECT 'a reference to nothing in ' || "table" FROM pragma_foreign_key_check), 'ok')`} {
		var found string
		if err := db.QueryRowContext(ctx, check).Scan(&found); err != nil {
			return damaged(err)
		}
		if found != "ok" {
			return damaged(errors.New(found))
		}
	}
	return nil
}

// beginAnew readies a restored studio: everyone signs in again, and version numbers go
// on above any that the studio it replaces can have used, whatever they were. They are
// counted by saves, so the milliseconds of the clock are far ahead of them.
func (s *Store) beginAnew(ctx context.Context) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM sessions`); err != nil {
			return fmt.Errorf("signing everyone out: %w", err)
		}
		_, err := tx.ExecContext(ctx, `UPDATE studio SET version_floor = max(?, version_floor + 1,
			(SELECT coalesce(max(version), 0) FROM plan), (SELECT coalesce(max(version), 0) FROM client))`, time.Now().UnixMilli())
		return err
	})
}

// replace puts the file at ready in the place of the studio, which is kept. Broken off at any point, such as by
// a power cut, it is finished by [finishRestore] before anybody opens the studio: the studio is at path all
// the while, first the old one and then the new, and what is beside it belongs to it.
func replace(path, ready, kept string) error {
	if kept != "" {
		for _, suffix := range []string{"", "-wal"} {
			if err := os.Link(path+suffix, kept+suffix); err != nil && !errors.Is(err, os.ErrNotExist) {
				return err
			}
		}
	}
	if err := write(readyPath(path), ready); err != nil {
		return err
	}
	if err := syncedFolder(path); err != nil {
		return err
	}
	return finishRestore(path)
}

// readyPath is where it is written down which file takes the place of a studio.
func readyPath(path string) string { return path + ".restoring" }

// finishRestore carries on where [replace] was broken off; mostly there is nothing to do. It fails where
// others have the studio open.
func finishRestore(path string) (err error) {
	ready, err := os.ReadFile(readyPath(path))
	if errors.Is(err, os.ErrNotExist) {
		return nil
	}
	if err != nil {
		return err
	}
	if _, err := os.Stat(string(ready)); err == nil {
		// The log of the old studio goes before the new one comes: it would be taken for that one's.
		for _, suffix := range []string{"-wal", "-shm"} {
			if err := os.Remove(path + suffix); err != nil && !errors.Is(err, os.ErrNotExist) {
				return err
			}
		}
		if err := syncedFolder(path); err != nil {
			return err
		}
		if err := os.Rename(string(ready), path); err != nil {
			return err
		}
		if err := syncedFolder(path); err != nil {
			return err
		}
	}
	return errors.Join(os.Remove(readyPath(path)), os.RemoveAll(filepath.Dir(string(ready))))
}

// syncedFolder waits until the names in the folder of a file are on disk.
func syncedFolder(path string) error {
	dir, err := os.Open(filepath.Dir(path))
	if err != nil {
		return err
	}
	return errors.Join(dir.Sync(), dir.Close())
}

// putBack undoes replace.
func putBack(path, kept string) error {
	if kept == "" {
		return nil
	}
	var errs []error
	for _, suffix := range []string{"-wal", "-shm", ""} {
		err := os.Rename(kept+suffix, path+suffix)
		if errors.Is(err, os.ErrNotExist) && suffix != "" {
			err = os.Remove(path + suffix)
		}
		if err != nil && !errors.Is(err, os.ErrNotExist) {
			errs = append(errs, err)
		}
	}
	return errors.Join(errs...)
}

// writeOver writes the file at ready into a studio that others have open, in one
// transaction, after keeping what was in it.
func writeOver(ctx context.Context, path, ready, kept string) error {
	db, err := sql.Open("sqlite", dataSource(path, "mode=rw", "_pragma=busy_timeout(5000)"))
	if err != nil {
		return err
	}
	defer db.Close()
	if err := copyInto(ctx, db, kept); err != nil {
		return err
	}
	conn, err := db.Conn(ctx)
	if err != nil {
		return err
	}
	defer conn.Close()
	return conn.Raw(func(driver any) error {
		target, ok := driver.(interface {
			NewRestore(string) (*sqlite.Backup, error)
		})
		if !ok {
			return fmt.Errorf("the driver %T cannot restore", driver)
		}
		copying, err := target.NewRestore(dataSource(ready, "mode=ro"))
		if err != nil {
			return err
		}
		more, err := copying.Step(-1) // all pages in one transaction
		if err == nil && more {
			err = errors.New("the copy stopped half-way")
		}
		return errors.Join(err, copying.Finish())
	})
}
