package store

import (
	"path/filepath"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/plan"
)

func open(t *testing.T, path string) *Store {
	t.Helper()
	s, err := Open(t.Context(), path)
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	return s
}

func summary(t *testing.T, in plan.Input) Summary {
	t.Helper()
	res, err := plan.Compute(in)
	require.NoError(t, err)
	return Summarise(in, res)
}

func TestPlanOutlivesTheProcess(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a studio?.db")
	s := open(t, path)
	in := plan.Default()
	made, err := s.CreatePlan(t.Context(), "The cellist", in, summary(t, in))
	require.NoError(t, err)
	in.OwnHead = true
	saved, err := s.SavePlan(t.Context(), made.ID, made.Version, "The cellist, again", in, summary(t, in))
	require.NoError(t, err)
	assert.Equal(t, 2, saved.Version)
	require.NoError(t, s.Close())

	again := open(t, path)
	p, err := again.Plan(t.Context(), made.ID)
	require.NoError(t, err)
	assert.Equal(t, saved, p)
	assert.Equal(t, in, p.Input)
	list, err := again.Plans(t.Context())
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, p.Entry, list[0])
}

func TestStaleAndMissingPlansAreTold(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "studio.db"))
	in := plan.Default()
	sum := summary(t, in)
	p, err := s.CreatePlan(t.Context(), "One", in, sum)
	require.NoError(t, err)
	_, err = s.SavePlan(t.Context(), p.ID, 1, "Two", in, sum)
	require.NoError(t, err)
	_, err = s.SavePlan(t.Context(), p.ID, 1, "Three", in, sum)
	assert.ErrorIs(t, err, ErrStale)
	_, err = s.SavePlan(t.Context(), "nobody", 1, "Four", in, sum)
	assert.ErrorIs(t, err, ErrNotFound)
	require.NoError(t, s.DeletePlan(t.Context(), p.ID))
	assert.ErrorIs(t, s.DeletePlan(t.Context(), p.ID), ErrNotFound)
	_, err = s.Plan(t.Context(), p.ID)
	assert.ErrorIs(t, err, ErrNotFound)
}

// Of many who save the same version at once exactly one succeeds.
func TestConcurrentSavesOfOneVersion(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "studio.db"))
	in := plan.Default()
	sum := summary(t, in)
	p, err := s.CreatePlan(t.Context(), "One", in, sum)
	require.NoError(t, err)
	const people = 12
	errs := make([]error, people)
	var wait sync.WaitGroup
	for i := range people {
		wait.Go(func() { _, errs[i] = s.SavePlan(t.Context(), p.ID, 1, "Mine", in, sum) })
	}
	wait.Wait()
	saved := 0
	for _, err := range errs {
		if err == nil {
			saved++
		} else {
			assert.ErrorIs(t, err, ErrStale)
		}
	}
	assert.Equal(t, 1, saved)
}
