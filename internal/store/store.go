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
	"os"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"github.com/gofrs/flock"
	"github.com/pressly/goose/v3"
	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Errors that callers tell apart.
var (
	// ErrNotFound: there is no such record.
	ErrNotFound = errors.New("not found")
	// ErrGone: there was such a record, and it was deleted. It is an ErrNotFound too.
	ErrGone = fmt.Errorf("deleted: %w", ErrNotFound)
	// ErrStale: the record was saved by someone else since it was read.
	ErrStale = errors.New("saved by someone else in the meantime")
	// ErrNoClient: a plan names a client who is not there.
	ErrNoClient = errors.New("no such client")
	// ErrNewer: the file was written by a newer program.
	ErrNewer = errors.New("the file is of a newer Kladotex: open it with that one")
	// ErrForeign: the file is not one of ours.
	ErrForeign = errors.New("not a studio of Kladotex")
)

// How many connections may be open at once: writes wait for one another in the
// program, where a wait can be given up, not in the file. Readers see the state before
// a write until it is done.
const readers = 8

// Store is an open studio file. It is safe for concurrent use. Each of its methods is carried out by
// itself; [Tx.Update] carries several out as one.
type Store struct {
	Tx
}

// Tx is a studio file as its records are read and written: outside of a transaction each method has one of
// its own, inside of one all are part of it.
type Tx struct {
	*file
	read, write runner
	// tx is the transaction that all is part of, nil outside of one; erases is set in it where something
	// was deleted whose traces are removed once it is done.
	tx     *sql.Tx
	erases *bool
}

// file is what holds for a studio file, however many look into it.
type file struct {
	writes, reads *sql.DB
	// lock is shared by all who have the file open.
	lock  *flock.Flock
	facts Facts
	path  string
	// closing ends what goes on in the background; erasing is true while a log is still to be emptied.
	closing chan struct{}
	erasing atomic.Bool
	tasks   sync.WaitGroup
	// ended are sign-ins that ended while nothing could be written.
	ended sync.Map
}

// Facts are true of a studio file as a whole.
type Facts struct {
	// ID tells studios apart.
	ID string
	// Demo is true for one that opens to anyone.
	Demo bool
}

// Open opens the file at path, making and migrating it as needed; a copy of it as it
// was is kept before a migration. It fails with [ErrNewer] or [ErrForeign] on a file
// that it must not touch.
func Open(ctx context.Context, path string) (*Store, error) {
	s, err := open(ctx, path)
	if err != nil {
		return nil, fmt.Errorf("opening %s: %w", path, err)
	}
	return s, nil
}

func open(ctx context.Context, path string) (_ *Store, err error) {
	if err := finishRestore(path); err != nil {
		return nil, err
	}
	if err := create(path); err != nil {
		return nil, err
	}
	s := &Store{Tx{file: &file{lock: flock.New(lockPath(path)), path: path, closing: make(chan struct{})}}}
	defer func() {
		if err != nil {
			err = errors.Join(err, s.Close())
		}
	}()
	if ok, err := s.lock.TryRLock(); err != nil || !ok {
		return nil, errors.Join(errors.New("a copy is just being put in its place"), err)
	}
	// Looked at before anything is set in it: a file that is not ours stays as it is.
	theirs, err := versionAt(ctx, path)
	if err != nil {
		return nil, err
	}
	if s.writes, err = pool(path, 1, "_txlock=immediate"); err != nil {
		return nil, err
	}
	s.write = s.writes
	if err := s.upgrade(ctx, path, theirs); err != nil {
		return nil, err
	}
	if s.reads, err = pool(path, readers, "_pragma=query_only(ON)"); err != nil {
		return nil, err
	}
	s.read = s.reads
	err = s.write.QueryRowContext(ctx, `SELECT id, demo FROM studio`).Scan(&s.facts.ID, &s.facts.Demo)
	if err != nil {
		return nil, err
	}
	return s, s.DropOldSessions(ctx)
}

// ErrMissing: the file is not there, but what was kept of it is: it was moved or lost, and is no new studio.
var ErrMissing = errors.New("the studio's file is missing, though copies that were kept of it lie beside it: put one back with kladotex restore, or move them away to begin a new studio")

// create makes an empty file that only its owner may read, unless there is one. SQLite
// gives the files beside it the same rights. It fails with [ErrMissing] where there was one.
func create(path string) error {
	if _, err := os.Stat(path); errors.Is(err, fs.ErrNotExist) {
		kept, err := keptBeside(path)
		if err != nil {
			return err
		}
		if len(kept) > 0 {
			return fmt.Errorf("%w (%s)", ErrMissing, kept[len(kept)-1])
		}
	}
	f, err := os.OpenFile(path, os.O_CREATE|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	return f.Close()
}

func lockPath(path string) string { return path + ".lock" }

// pool opens at most size connections to the file at path. What is deleted is
// overwritten, so that nothing of it stays in the file.
func pool(path string, size int, settings ...string) (*sql.DB, error) {
	db, err := sql.Open("sqlite", dataSource(path, append([]string{
		"_pragma=busy_timeout(5000)", "_pragma=journal_mode(WAL)", "_pragma=synchronous(FULL)", "_pragma=foreign_keys(ON)",
		"_pragma=secure_delete(ON)"}, settings...)...))
	if err != nil {
		return nil, err
	}
	db.SetMaxOpenConns(size)
	db.SetMaxIdleConns(size)
	return db, nil
}

// dataSource names the file at path, whatever letters are in its name.
func dataSource(path string, settings ...string) string {
	return "file:" + (&url.URL{Path: path}).EscapedPath() + "?" + strings.Join(settings, "&")
}

// versionAt is the version of the studio in the file at path, which is only read. It
// fails with [ErrNewer] or [ErrForeign] for one that must not be touched.
func versionAt(ctx context.Context, path string) (int64, error) {
	db, err := sql.Open("sqlite", dataSource(path, "mode=ro", "_pragma=busy_timeout(5000)"))
	if err != nil {
		return 0, err
	}
	defer db.Close()
	version, err := fileVersion(ctx, db)
	if err != nil {
		return 0, err
	}
	provider, err := migrator(db)
	if err != nil {
		return 0, err
	}
	if version > newest(provider) {
		return 0, ErrNewer
	}
	return version, nil
}

// upgrade brings the file from their version up to that of this program.
func (s *Store) upgrade(ctx context.Context, path string, theirs int64) error {
	provider, err := migrator(s.writes)
	if err != nil {
		return err
	}
	ours := newest(provider)
	switch {
	case theirs == ours:
		return nil
	case theirs > 0:
		kept := fmt.Sprintf("%s.before-v%d-%s", path, ours, time.Now().UTC().Format("20060102-150405.000"))
		if err := copyInto(ctx, s.writes, unused(kept)); err != nil {
			return fmt.Errorf("keeping a copy before the upgrade: %w", err)
		}
	}
	_, err = provider.Up(ctx)
	return err
}

// unused is a name for a file that there is not, such as where an upgrade begins anew within an instant.
func unused(path string) string {
	for n, name := 2, path; ; n++ {
		if _, err := os.Lstat(name); errors.Is(err, fs.ErrNotExist) {
			return name
		}
		name = fmt.Sprintf("%s-%d", path, n)
	}
}

func migrator(db *sql.DB) (*goose.Provider, error) {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	return goose.NewProvider(goose.DialectSQLite3, db, files)
}

// newest is the version of a file that a provider brings it up to.
func newest(p *goose.Provider) int64 {
	sources := p.ListSources()
	return sources[len(sources)-1].Version
}

// applicationID marks a studio file: "Kltx" in its header.
const applicationID = 0x4b6c7478

// fileVersion is the version of the studio in a file, 0 for an empty one. It fails with
// [ErrForeign] for a file of something else. Files of the first versions bear no mark,
// but their tables do.
func fileVersion(ctx context.Context, db *sql.DB) (version int64, err error) {
	var id, tables, ours int64
	err = db.QueryRowContext(ctx, `SELECT (SELECT application_id FROM pragma_application_id), count(*),
		coalesce(sum(name IN ('plan', 'goose_db_version')), 0) FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'`).
		Scan(&id, &tables, &ours)
	switch {
	case err != nil:
		return 0, err
	case tables == 0 && id == 0:
		return 0, nil
	case id != applicationID && id != 0 || ours != 2:
		return 0, ErrForeign
	}
	err = db.QueryRowContext(ctx, `SELECT coalesce(max(version_id), 0) FROM goose_db_version WHERE is_applied`).Scan(&version)
	return version, err
}

// Facts are what is true of the file as a whole.
func (f *file) Facts() Facts { return f.facts }

// MarkDemo makes an empty studio one that opens to anyone. It fails with [ErrHasOwner]
// when people are in it.
func (s *Store) MarkDemo(ctx context.Context) error {
	res, err := s.write.ExecContext(ctx, `UPDATE studio SET demo = 1 WHERE NOT EXISTS (SELECT 1 FROM person)`)
	if err != nil {
		return fmt.Errorf("marking the demo: %w", err)
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return errors.Join(ErrHasOwner, err)
	}
	s.facts.Demo = true
	return nil
}

// Update carries out work in one transaction that writes: it reads what it judges by, judges, and
// writes, and fails as a whole. Nobody else writes meanwhile, so what takes long is worked out before.
// Within a transaction it is part of that.
func (s *Tx) Update(ctx context.Context, work func(*Tx) error) error {
	if s.tx != nil {
		return work(s)
	}
	var erases bool
	err := within(ctx, s.writes, nil, func(tx *sql.Tx) error {
		return work(&Tx{file: s.file, read: tx, write: tx, tx: tx, erases: &erases})
	})
	if err == nil && erases {
		err = s.erase(ctx)
	}
	return err
}

// inTx carries out work in one transaction that writes, which fails as a whole: in that at hand, else
// in one of its own.
func (s *Tx) inTx(ctx context.Context, work func(*sql.Tx) error) error {
	if s.tx != nil {
		return work(s.tx)
	}
	return within(ctx, s.writes, nil, work)
}

// snapshot reads what belongs together as it was at one moment.
func (s *Tx) snapshot(ctx context.Context, work func(*sql.Tx) error) error {
	if s.tx != nil {
		return work(s.tx)
	}
	return within(ctx, s.reads, &sql.TxOptions{ReadOnly: true}, work)
}

func within(ctx context.Context, db *sql.DB, options *sql.TxOptions, work func(*sql.Tx) error) error {
	tx, err := db.BeginTx(ctx, options)
	if err != nil {
		return err
	}
	if err := work(tx); err != nil {
		return errors.Join(err, tx.Rollback())
	}
	return tx.Commit()
}

// scanner is a row to be read, querier what reads rows.
type (
	scanner interface{ Scan(...any) error }
	querier interface {
		QueryContext(context.Context, string, ...any) (*sql.Rows, error)
		QueryRowContext(context.Context, string, ...any) *sql.Row
	}
	// runner reads and writes: some connections, or a transaction.
	runner interface {
		querier
		ExecContext(context.Context, string, ...any) (sql.Result, error)
	}
)

// list reads all rows of a query; what names them in an error.
func list[T any](ctx context.Context, q querier, what string, read func(scanner) (T, error), query string, args ...any) ([]T, error) {
	rows, err := q.QueryContext(ctx, query, args...)
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

// orNotFound is err, or [ErrNotFound] where no row was there.
func orNotFound(err error) error {
	if errors.Is(err, sql.ErrNoRows) {
		return ErrNotFound
	}
	return err
}

// absent says of a record that was not found whether it was deleted.
func absent(ctx context.Context, q querier, id string, err error) error {
	if errors.Is(err, ErrNotFound) && notGone(ctx, q, id) != nil {
		return ErrGone
	}
	return err
}

// notGone fails with ErrNotFound when something of this id was once deleted.
func notGone(ctx context.Context, q querier, id string) error {
	var gone bool
	err := q.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM gone WHERE id = ?)`, id).Scan(&gone)
	if err == nil && gone {
		err = ErrNotFound
	}
	return err
}

// Trouble is what ails a file or the disk under it.
type Trouble int

// The troubles.
const (
	NoTrouble Trouble = iota
	// DiskFull: there is no room to write.
	DiskFull
	// Busy: others kept the file too long.
	Busy
	// ReadOnly: the file or its folder cannot be written.
	ReadOnly
	// Damaged: the file is not whole.
	Damaged
	// DiskFailed: the disk did not do what was asked.
	DiskFailed
)

var troubles = map[int]Trouble{
	sqlite3.SQLITE_FULL: DiskFull, sqlite3.SQLITE_BUSY: Busy, sqlite3.SQLITE_LOCKED: Busy,
	sqlite3.SQLITE_READONLY: ReadOnly, sqlite3.SQLITE_CANTOPEN: ReadOnly, sqlite3.SQLITE_PERM: ReadOnly,
	sqlite3.SQLITE_CORRUPT: Damaged, sqlite3.SQLITE_NOTADB: Damaged, sqlite3.SQLITE_IOERR: DiskFailed,
}

// TroubleOf is what ails the file, if that is what err tells.
func TroubleOf(err error) Trouble {
	return troubles[code(err)&0xff]
}

// foreignKey is the code of a reference to a row that is not there.
const foreignKey = sqlite3.SQLITE_CONSTRAINT_FOREIGNKEY

// code is SQLite's extended result code in err; 0 when it has none.
func code(err error) int {
	var failed *sqlite.Error
	if errors.As(err, &failed) {
		return failed.Code()
	}
	return 0
}

// missingClient turns a broken reference to a client into ErrNoClient.
func missingClient(err error) error {
	if code(err) == foreignKey {
		return ErrNoClient
	}
	return err
}

// Close closes the file.
func (s *Store) Close() error {
	select {
	case <-s.closing: // it is closed
	default:
		close(s.closing)
	}
	s.tasks.Wait()
	var errs []error
	for _, db := range []*sql.DB{s.reads, s.writes} {
		if db != nil {
			errs = append(errs, db.Close())
		}
	}
	return errors.Join(append(errs, s.lock.Unlock())...)
}
