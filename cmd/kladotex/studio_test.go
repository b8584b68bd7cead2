package main

import (
	"bytes"
	"context"
	"os"
	"path/filepath"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/plan"
	"kladotex/core/tally"
	"kladotex/internal/demo"
	"kladotex/internal/store"
)

func TestBackupAndRestoreFromTheCommandLine(t *testing.T) {
	dir := t.TempDir()
	studio, copied := filepath.Join(dir, "studio.db"), filepath.Join(dir, "copy.db")
	command := func(args ...string) error {
		var out bytes.Buffer
		return run(t.Context(), args, nil, &out)
	}
	assert.ErrorContains(t, command("backup", "-db", studio, copied), "no studio")
	s, err := store.Open(t.Context(), studio)
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	in := plan.Default()
	res, err := tally.Compute(context.Background(), in)
	require.NoError(t, err)
	made, err := s.CreatePlan(t.Context(), uuid.NewString(), store.Draft{Title: "Kept", Input: in, Summary: store.Summary{Pattern: in.Parting.Style(), Sections: res.Tally.Sections}})
	require.NoError(t, err)

	require.NoError(t, command("backup", "-db", studio, copied))
	require.NoError(t, s.DeletePlan(t.Context(), made.ID))
	require.NoError(t, command("restore", "-db", studio, copied))
	back, err := s.Plan(t.Context(), made.ID)
	require.NoError(t, err)
	assert.Equal(t, "Kept", back.Title)

	kept, err := filepath.Glob(studio + ".before-restore-*")
	require.NoError(t, err)
	assert.NotEmpty(t, kept, "what was there is kept")

	// Without its checksum a copy is taken only when one says so.
	require.NoError(t, os.Rename(copied+".sha256", copied+".away"))
	assert.ErrorContains(t, command("restore", "-db", studio, copied), "-unchecked")
	require.NoError(t, command("restore", "-db", studio, "-unchecked", copied))
	require.NoError(t, os.Rename(copied+".away", copied+".sha256"))

	require.NoError(t, os.Truncate(copied, 6000))
	assert.ErrorIs(t, command("restore", "-db", studio, copied), store.ErrDamaged)
	assert.ErrorContains(t, command("restore", "-db", studio), "usage")
}

// Someone's own studio is not opened to anyone as the demo, and the proxies and names
// it is served under are read.
func TestServingRefusesWhatItMust(t *testing.T) {
	studio := filepath.Join(t.TempDir(), "studio.db")
	s, err := store.Open(t.Context(), studio)
	require.NoError(t, err)
	_, err = s.AddOwner(t.Context(), "Odalys", "hash")
	require.NoError(t, err)
	require.NoError(t, s.Close())
	assert.ErrorIs(t, run(t.Context(), []string{"demo", "-db", studio, "-addr", "127.0.0.1:0"}, nil, &bytes.Buffer{}), demo.ErrNotTheDemo)
	assert.ErrorContains(t, run(t.Context(), []string{"serve", "-db", studio, "-proxy", "next door"}, nil, &bytes.Buffer{}), "no address")
	p, err := network("192.0.2.77/24")
	require.NoError(t, err)
	assert.Equal(t, "192.0.2.0/24", p.String())
	p, err = network("::1")
	require.NoError(t, err)
	assert.Equal(t, "::1/128", p.String())
}

// A forgotten host must not open the studio to every machine around.
func TestServingElsewhereNeedsAnAddress(t *testing.T) {
	for _, addr := range []string{":8467", "8467", ""} {
		err := run(t.Context(), []string{"serve", "-db", filepath.Join(t.TempDir(), "s.db"), "-addr", addr}, nil, &bytes.Buffer{})
		assert.ErrorContains(t, err, "names no host", addr)
	}
}
