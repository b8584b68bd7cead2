package store

import (
	"bytes"
	"context"
	"database/sql"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/client"
	"kladotex/core/plan"
)

// filled is a studio file with plans plans in it, closed.
func filled(t *testing.T, path string, plans int) {
	t.Helper()
	s := opened(t, path)
	for i := range plans {
		_, err := s.CreatePlan(t.Context(), uuid.NewString(), draft(t, fmt.Sprint("Plan ", i), "", plan.Default()))
		require.NoError(t, err)
	}
	require.NoError(t, s.Close())
}

// titles are those of the plans in a studio file.
func titles(t *testing.T, path string) (titles []string) {
	t.Helper()
	s := opened(t, path)
	defer s.Close()
	list, err := s.Plans(t.Context(), "", all)
	require.NoError(t, err)
	for _, e := range list {
		titles = append(titles, e.Title)
	}
	slices.Sort(titles)
	return titles
}

// files are the names in a folder.
func files(t *testing.T, dir string) (names []string) {
	t.Helper()
	entries, err := os.ReadDir(dir)
	require.NoError(t, err)
	for _, e := range entries {
		names = append(names, e.Name())
	}
	return names
}

func TestACopyIsRestoredUnderAnOpenStudio(t *testing.T) {
	t.Parallel()
	dir := t.TempDir()
	path, copied := filepath.Join(dir, "studio.db"), filepath.Join(dir, "copy of?.db")
	serving := opened(t, path)
	p, err := serving.CreatePlan(t.Context(), uuid.NewString(), draft(t, "Before", "", plan.Default()))
	require.NoError(t, err)
	require.NoError(t, Backup(t.Context(), path, copied))
	assert.ErrorContains(t, Backup(t.Context(), path, copied), "exists")
	after, err := serving.SavePlan(t.Context(), p.ID, 1, draft(t, "After", "", plan.Default()))
	require.NoError(t, err)

	kept, err := Restore(t.Context(), path, copied, false)
	require.NoError(t, err)
	assert.Equal(t, []string{"After"}, titles(t, kept), "what was is kept")
	now, err := serving.Plan(t.Context(), p.ID)
	require.NoError(t, err)
	assert.Equal(t, "Before", now.Title, "who has the studio open sees it")
	again, err := serving.SavePlan(t.Context(), p.ID, 1, draft(t, "On from there", "", plan.Default()))
	require.NoError(t, err)
	assert.Greater(t, again.Version, after.Version, "no number is used twice, or an old picture would be shown under it")
	_, err = serving.SavePlan(t.Context(), p.ID, after.Version, draft(t, "Late", "", plan.Default()))
	assert.ErrorIs(t, err, ErrStale, "who had the plan open before is not taken for one who saw this")
	c, err := serving.CreateClient(t.Context(), uuid.NewString(), ClientDraft{Name: "Juno Pellwether", Facts: client.New()})
	require.NoError(t, err)
	assert.Greater(t, c.Version, after.Version)
}

// A studio that cannot be opened any more is what copies are for.
func TestADamagedStudioIsReplacedAndKept(t *testing.T) {
	t.Parallel()
	dir := t.TempDir()
	path, copied := filepath.Join(dir, "studio.db"), filepath.Join(dir, "copy.db")
	filled(t, path, 3)
	require.NoError(t, Backup(t.Context(), path, copied))
	rubbish := bytes.Repeat([]byte("no studio any more "), 4000)
	for _, damaged := range [][]byte{rubbish, {}, nil} {
		if require.NoError(t, os.Remove(path)); damaged != nil {
			require.NoError(t, os.WriteFile(path, damaged, 0o600))
		}
		kept, err := Restore(t.Context(), path, copied, false)
		require.NoError(t, err)
		assert.Len(t, titles(t, path), 3)
		if damaged == nil {
			assert.Empty(t, kept)
			continue
		}
		was, err := os.ReadFile(kept)
		require.NoError(t, err)
		assert.True(t, bytes.Equal(damaged, was), "the damaged one stays beside it")
	}
	info, err := os.Stat(path)
	require.NoError(t, err)
	assert.Equal(t, fs.FileMode(0o600), info.Mode().Perm())
	for _, name := range files(t, dir) {
		assert.NotContains(t, name, "restoring", "nothing half-done is left")
	}
}

// Nine kinds of file that are no whole copy of a studio, and every byte of one that is.
func TestBadCopiesAreRefusedAndNothingChanges(t *testing.T) {
	t.Parallel()
	dir := t.TempDir()
	path, whole := filepath.Join(dir, "studio.db"), filepath.Join(dir, "whole.db")
	studio := path
	filled(t, path, 30) // enough pages to damage one in the middle
	require.NoError(t, Backup(t.Context(), path, whole))
	raw, err := os.ReadFile(whole)
	require.NoError(t, err)

	// sealed writes a file as if it were a copy, its checksum beside it.
	sealed := func(name string, raw []byte) string {
		path := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(path, raw, 0o600))
		sum, err := checksum(path)
		require.NoError(t, err)
		require.NoError(t, write(checksumPath(path), sum+"  "+name+"\n"))
		return path
	}
	torn := slices.Clone(raw)
	for i := range 4096 {
		torn[len(torn)/2+i] ^= 0x5a
	}
	// changed is the copy after some statements, sealed again.
	changed := func(name string, statements ...string) string {
		at := sealed(name, raw)
		db, err := sql.Open("sqlite", dataSource(at))
		require.NoError(t, err)
		for _, s := range statements {
			_, err := db.Exec(s)
			require.NoError(t, err)
		}
		require.NoError(t, db.Close())
		now, err := os.ReadFile(at)
		require.NoError(t, err)
		return sealed(name, now)
	}
	foreign := filepath.Join(dir, "foreign.db")
	db, err := sql.Open("sqlite", dataSource(foreign))
	require.NoError(t, err)
	_, err = db.Exec(`CREATE TABLE plan (id TEXT); CREATE TABLE goose_db_version (version_id INTEGER, is_applied INTEGER); PRAGMA application_id = 77`)
	require.NoError(t, err)
	require.NoError(t, db.Close())
	other, err := os.ReadFile(foreign)
	require.NoError(t, err)

	for name, path := range map[string]string{
		"cut short":           sealed("short.db", raw[:len(raw)/2]),
		"torn":                sealed("torn.db", torn),
		"a text":              sealed("text.db", []byte(strings.Repeat("This is no database. ", 400))),
		"empty":               sealed("empty.db", nil),
		"of a future":         changed("newer.db", `INSERT INTO goose_db_version (version_id, is_applied) VALUES (9999, 1)`),
		"of another program":  sealed("other.db", other),
		"without its tables":  changed("tables.db", `DROP TABLE goose_db_version`),
		"with broken ends":    changed("ends.db", `PRAGMA foreign_keys = OFF`, `UPDATE plan SET client_id = 'nobody'`),
		"without its version": changed("version.db", `DELETE FROM goose_db_version`),
	} {
		_, err := Restore(t.Context(), studio, path, false)
		assert.ErrorIs(t, err, ErrDamaged, name)
	}
	for i := 0; i < len(raw); i += 1 + len(raw)/40 {
		flipped := slices.Clone(raw)
		flipped[i] ^= 1
		at := filepath.Join(dir, "flipped.db")
		require.NoError(t, os.WriteFile(at, flipped, 0o600))
		require.NoError(t, os.Rename(checksumPath(whole), checksumPath(at)))
		_, err := Restore(t.Context(), path, at, false)
		assert.ErrorIs(t, err, ErrDamaged, "byte %d", i)
		require.NoError(t, os.Rename(checksumPath(at), checksumPath(whole)))
	}
	alone := filepath.Join(dir, "alone.db")
	require.NoError(t, os.WriteFile(alone, raw, 0o600))
	_, err = Restore(t.Context(), path, alone, false)
	assert.ErrorIs(t, err, ErrNoChecksum)
	_, err = Restore(t.Context(), path, filepath.Join(dir, "nothing.db"), false)
	assert.Error(t, err)
	assert.Len(t, titles(t, path), 30, "nothing was changed")
	for _, name := range files(t, dir) {
		assert.NotContains(t, name, "restor", "nothing is left behind")
	}
	_, err = Restore(t.Context(), path, alone, true)
	assert.NoError(t, err, "a copy made by hand, knowingly")
}

// at is a studio file of an earlier version.
func at(t *testing.T, path string, version int64) {
	t.Helper()
	db, err := sql.Open("sqlite", dataSource(path))
	require.NoError(t, err)
	provider, err := migrator(db)
	require.NoError(t, err)
	_, err = provider.UpTo(t.Context(), version)
	require.NoError(t, err)
	require.NoError(t, db.Close())
}

func versionOf(t *testing.T, path string) int64 {
	t.Helper()
	db, err := sql.Open("sqlite", dataSource(path, "mode=ro"))
	require.NoError(t, err)
	defer db.Close()
	v, err := fileVersion(t.Context(), db)
	require.NoError(t, err)
	return v
}

func TestACopyIsOfTheStudioAsItIs(t *testing.T) {
	t.Parallel()
	dir := t.TempDir()
	path, copied := filepath.Join(dir, "old.db"), filepath.Join(dir, "copy.db")
	at(t, path, 2)
	require.NoError(t, Backup(t.Context(), path, copied))
	assert.EqualValues(t, 2, versionOf(t, path), "the studio is not brought up to date by looking at it")
	assert.EqualValues(t, 2, versionOf(t, copied))
	// A failed one leaves nothing.
	before := files(t, dir)
	assert.Error(t, Backup(t.Context(), filepath.Join(dir, "nothing.db"), filepath.Join(dir, "none.db")))
	ctx, stop := context.WithCancel(t.Context())
	stop()
	assert.Error(t, Backup(ctx, path, filepath.Join(dir, "stopped.db")))
	text := filepath.Join(dir, "text.db")
	require.NoError(t, os.WriteFile(text, []byte(strings.Repeat("no database ", 900)), 0o600))
	assert.Error(t, Backup(t.Context(), text, filepath.Join(dir, "text-copy.db")))
	require.NoError(t, os.Remove(text))
	assert.Equal(t, before, files(t, dir))
	// An earlier version is restored, and brought up to date.
	_, err := Restore(t.Context(), filepath.Join(dir, "new.db"), copied, false)
	require.NoError(t, err)
	assert.Empty(t, titles(t, filepath.Join(dir, "new.db")))
}

func TestOpeningKeepsACopyBeforeAnUpgradeAndRefusesWhatItMustNotTouch(t *testing.T) {
	t.Parallel()
	dir := t.TempDir()
	path := filepath.Join(dir, "old.db")
	at(t, path, 3)
	require.NoError(t, opened(t, path).Close())
	kept, err := filepath.Glob(path + ".before-v*")
	require.NoError(t, err)
	require.Len(t, kept, 1)
	assert.EqualValues(t, 3, versionOf(t, kept[0]))
	for _, file := range []string{path, kept[0]} {
		info, err := os.Stat(file)
		require.NoError(t, err)
		if file != path { // it was there before, with the rights it had
			assert.Equal(t, fs.FileMode(0o600), info.Mode().Perm(), file)
		}
	}
	require.NoError(t, opened(t, path).Close())
	kept, err = filepath.Glob(path + ".before-v*")
	require.NoError(t, err)
	assert.Len(t, kept, 1, "nothing is copied when nothing is upgraded")

	db, err := sql.Open("sqlite", dataSource(path))
	require.NoError(t, err)
	_, err = db.Exec(`INSERT INTO goose_db_version (version_id, is_applied) VALUES (9999, 1)`)
	require.NoError(t, err)
	require.NoError(t, db.Close())

	foreign := filepath.Join(dir, "foreign.db")
	db, err = sql.Open("sqlite", dataSource(foreign))
	require.NoError(t, err)
	_, err = db.Exec(`CREATE TABLE recipe (id TEXT)`)
	require.NoError(t, err)
	require.NoError(t, db.Close())
	for path, want := range map[string]error{foreign: ErrForeign, path: ErrNewer} {
		before, err := os.ReadFile(path)
		require.NoError(t, err)
		_, err = Open(t.Context(), path)
		assert.ErrorIs(t, err, want)
		after, err := os.ReadFile(path)
		require.NoError(t, err)
		assert.True(t, bytes.Equal(before, after), "not a byte of %s is touched", filepath.Base(path))
	}

	fresh := filepath.Join(dir, "fresh.db")
	s := opened(t, fresh)
	_, err = s.AddOwner(t.Context(), "Odalys", "hash")
	require.NoError(t, err)
	for _, suffix := range []string{"", "-wal", "-shm"} {
		info, err := os.Stat(fresh + suffix)
		require.NoError(t, err)
		assert.Equal(t, fs.FileMode(0o600), info.Mode().Perm(), suffix)
	}
}

// What is deleted is deleted: no letter of it is left in the file or beside it.
func TestWhatIsDeletedIsNowhereInTheFile(t *testing.T) {
	t.Parallel()
	path := filepath.Join(t.TempDir(), "studio.db")
	s := opened(t, path)
	facts := client.New()
	facts.Notes = strings.Repeat("Zephyrine has a scar behind the left ear. ", 40)
	c, err := s.CreateClient(t.Context(), uuid.NewString(), ClientDraft{Name: "Zephyrine Oduvall", Facts: facts})
	require.NoError(t, err)
	d := draft(t, "For Zephyrine", "", plan.Default())
	d.ClientID = c.ID
	p, err := s.CreatePlan(t.Context(), uuid.NewString(), d)
	require.NoError(t, err)
	held := func() (found []string) {
		for _, suffix := range []string{"", "-wal"} {
			raw, err := os.ReadFile(path + suffix)
			require.NoError(t, err)
			if bytes.Contains(raw, []byte("ephyrine")) {
				found = append(found, suffix)
			}
		}
		return found
	}
	require.NotEmpty(t, held())
	require.NoError(t, s.DeleteClient(t.Context(), c.ID))
	assert.Empty(t, held())
	// A request that was under way does not bring it back.
	_, err = s.CreatePlan(t.Context(), p.ID, draft(t, "For Zephyrine", "", plan.Default()))
	assert.ErrorIs(t, err, ErrNotFound)
	_, err = s.CreateClient(t.Context(), c.ID, ClientDraft{Name: "Zephyrine Oduvall", Facts: facts})
	assert.ErrorIs(t, err, ErrNotFound)
}

// broken off is how a folder looks when putting a copy back was broken off between two of its steps.
func brokenOff(t *testing.T, path, ready string, after int) {
	t.Helper()
	steps := []func() error{
		func() error { return os.Link(path, path+".before-restore-x") },
		func() error { return os.Link(path+"-wal", path+".before-restore-x-wal") },
		func() error { return write(readyPath(path), ready) },
		func() error { return os.Remove(path + "-wal") },
		func() error { return os.Remove(path + "-shm") },
		func() error { return os.Rename(ready, path) },
	}
	for _, step := range steps[:after] {
		require.NoError(t, step())
	}
}

// Broken off anywhere, putting a copy back leaves the old studio or the new one, whole, never an empty one
// and never the log of one beside the other; what was is kept with its log.
func TestPuttingACopyBackIsBrokenOff(t *testing.T) {
	t.Parallel()
	for after := range 7 {
		dir := t.TempDir()
		path, live := filepath.Join(dir, "studio.db"), filepath.Join(dir, "live", "studio.db")
		require.NoError(t, os.Mkdir(filepath.Dir(live), 0o700))
		s := opened(t, live)
		_, err := s.CreatePlan(t.Context(), uuid.NewString(), draft(t, "Old", "", plan.Default()))
		require.NoError(t, err)
		for _, suffix := range []string{"", "-wal", "-shm"} { // as a power cut leaves them, all in the log
			raw, err := os.ReadFile(live + suffix)
			require.NoError(t, err)
			require.NoError(t, os.WriteFile(path+suffix, raw, 0o600))
		}
		require.NoError(t, s.Close())
		aside := path + ".restoring-1"
		require.NoError(t, os.Mkdir(aside, 0o700))
		ready := filepath.Join(aside, "studio.db")
		filled(t, ready, 2)
		brokenOff(t, path, ready, after)
		if after < 3 {
			assert.Equal(t, []string{"Old"}, titles(t, path), "after %d steps", after)
		} else {
			assert.Equal(t, []string{"Plan 0", "Plan 1"}, titles(t, path), "after %d steps", after)
			assert.NoFileExists(t, readyPath(path))
			assert.NoDirExists(t, aside)
		}
		if after > 1 {
			assert.Equal(t, []string{"Old"}, titles(t, path+".before-restore-x"), "after %d steps", after)
		}
	}
}

// A studio that is missing where copies of it are kept is no new one.
func TestAMissingStudioIsNoNewOne(t *testing.T) {
	t.Parallel()
	dir := t.TempDir()
	path := filepath.Join(dir, "studio [1].db")
	filled(t, path, 1)
	copied := filepath.Join(dir, "copy.db")
	require.NoError(t, Backup(t.Context(), path, copied))
	kept, err := Restore(t.Context(), path, copied, false)
	require.NoError(t, err)
	require.NoError(t, os.Remove(path))
	_, err = Open(t.Context(), path)
	assert.ErrorIs(t, err, ErrMissing)
	assert.ErrorContains(t, err, filepath.Base(kept))
	assert.NoFileExists(t, path)
	_, err = Restore(t.Context(), path, copied, false)
	require.NoError(t, err)
	assert.Len(t, titles(t, path), 1)
}

// Upgrades that begin within one instant keep a copy each.
func TestCopiesBeforeAnUpgradeHaveNamesOfTheirOwn(t *testing.T) {
	t.Parallel()
	path := filepath.Join(t.TempDir(), "kept")
	assert.Equal(t, path, unused(path))
	require.NoError(t, os.WriteFile(path, nil, 0o600))
	assert.Equal(t, path+"-2", unused(path))
	require.NoError(t, os.WriteFile(path+"-2", nil, 0o600))
	assert.Equal(t, path+"-3", unused(path))
}

// What is deleted while somebody reads for long goes from the log as soon as they are done, and till then it
// is said that it remains; so are the copies beside the studio.
func TestDeletingIsFinishedWhenNobodyReads(t *testing.T) {
	t.Parallel()
	dir := t.TempDir()
	path := filepath.Join(dir, "studio.db")
	s := opened(t, path)
	defer s.Close()
	facts := client.New()
	facts.Notes = "Xanthippe's secret"
	c, err := s.CreateClient(t.Context(), uuid.NewString(), ClientDraft{Name: "Zephyrine Oduvall", Facts: facts})
	require.NoError(t, err)
	reader, err := sql.Open("sqlite", dataSource(path))
	require.NoError(t, err)
	defer reader.Close()
	tx, err := reader.Begin()
	require.NoError(t, err)
	var n int
	require.NoError(t, tx.QueryRow(`SELECT count(*) FROM client`).Scan(&n))
	require.NoError(t, os.WriteFile(path+".before-v12-20260101-000000", []byte("old"), 0o600))

	require.NoError(t, s.DeleteClient(t.Context(), c.ID))
	remains, err := s.Remains()
	require.NoError(t, err)
	assert.Equal(t, Remains{Log: true, Copies: []string{"studio.db.before-v12-20260101-000000"}}, remains)
	in := func() bool {
		for _, suffix := range []string{"", "-wal"} {
			raw, err := os.ReadFile(path + suffix)
			require.NoError(t, err)
			if bytes.Contains(raw, []byte("Xanthippe")) {
				return true
			}
		}
		return false
	}
	assert.True(t, in())
	require.NoError(t, tx.Rollback())
	assert.Eventually(t, func() bool { r, err := s.Remains(); return err == nil && !r.Log }, 20*eraseEvery, eraseEvery/10)
	assert.False(t, in())
}
