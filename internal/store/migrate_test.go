package store

import (
	"context"
	"database/sql"
	"io/fs"
	"os"
	"path/filepath"
	"testing"

	"github.com/pressly/goose/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/parting"
)

// A studio file of the first version, with a plan of the first version in it, is
// brought up to date as it is opened: the plan is there, has a history, and can be
// saved.
func TestStudioOfTheFirstVersionIsBroughtUpToDate(t *testing.T) {
	t.Parallel()
	path := filepath.Join(t.TempDir(), "old.db")
	db, err := sql.Open("sqlite", dataSource(path))
	require.NoError(t, err)
	files, err := fs.Sub(migrations, "migrations")
	require.NoError(t, err)
	provider, err := goose.NewProvider(goose.DialectSQLite3, db, files)
	require.NoError(t, err)
	_, err = provider.UpTo(t.Context(), 1)
	require.NoError(t, err)
	document, err := os.ReadFile("../../core/plan/testdata/schema1.json")
	require.NoError(t, err)
	_, err = db.Exec(`INSERT INTO plan VALUES ('p', 'From long ago', 3, 1, ?, 'grid', 'Hitch and weave', 100, 100, 6, 7500, 420,
		'2026-01-02T10:00:00.000000000Z', '2026-01-03T10:00:00.000000000Z')`, string(document))
	require.NoError(t, err)
	require.NoError(t, db.Close())

	s := opened(t, path)
	p, err := s.Plan(t.Context(), "p")
	require.NoError(t, err)
	assert.Equal(t, "From long ago", p.Title)
	assert.Equal(t, parting.Grid, p.Input.Parting.Back.Pattern)
	assert.Empty(t, p.Variants)
	history, err := s.Versions(t.Context(), "p")
	require.NoError(t, err)
	require.Len(t, history, 1)
	assert.Equal(t, p.Input, history[0].Input)
	saved, err := s.SavePlan(t.Context(), "p", 3, draft(t, "And on", "Odalys", p.Input))
	require.NoError(t, err)
	assert.Equal(t, 4, saved.Version)
}

// Every migration can be taken back and done again.
func TestMigrationsGoBothWays(t *testing.T) {
	t.Parallel()
	path := filepath.Join(t.TempDir(), "studio.db")
	s := opened(t, path)
	files, err := fs.Sub(migrations, "migrations")
	require.NoError(t, err)
	provider, err := goose.NewProvider(goose.DialectSQLite3, s.writes, files)
	require.NoError(t, err)
	shape := func() (tables []string) {
		rows, err := s.write.QueryContext(context.Background(), `SELECT type || ' ' || name FROM sqlite_master WHERE name NOT LIKE 'goose%' AND name NOT LIKE 'sqlite%' ORDER BY 1`)
		require.NoError(t, err)
		defer rows.Close()
		for rows.Next() {
			var name string
			require.NoError(t, rows.Scan(&name))
			tables = append(tables, name)
		}
		return tables
	}
	before := shape()
	require.NotEmpty(t, before)
	_, err = provider.DownTo(t.Context(), 0)
	require.NoError(t, err)
	assert.Empty(t, shape())
	_, err = provider.Up(t.Context())
	require.NoError(t, err)
	assert.Equal(t, before, shape())
}
