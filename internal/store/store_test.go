package store

import (
	"context"
	"fmt"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/client"
	"kladotex/core/plan"
	"kladotex/core/tally"
)

// all is a page that holds every test's list.
var all = Page{Limit: 100}

func opened(t *testing.T, path string) *Store {
	t.Helper()
	s, err := Open(t.Context(), path)
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	return s
}

// draft is a plan to save, by someone.
func draft(t *testing.T, title, by string, in plan.Input) Draft {
	t.Helper()
	res, err := tally.Compute(context.Background(), in)
	require.NoError(t, err)
	return Draft{Title: title, By: by, Input: in, Summary: summary(in, res.Tally)}
}

func summary(in plan.Input, t tally.Tally) Summary {
	return Summary{
		Pattern: in.Parting.Style(), Method: "Hitch and weave", Sections: t.Sections, Pieces: t.Pieces, Packs: t.Packs, Cost: t.Cost, Minutes: t.Minutes, Warnings: t.Notices,
	}
}

func TestPlanOutlivesTheProcess(t *testing.T) {
	t.Parallel()
	path := filepath.Join(t.TempDir(), "a studio?.db")
	s := opened(t, path)
	in := plan.Default()
	made, err := s.CreatePlan(t.Context(), uuid.NewString(), draft(t, "The cellist", "Tamsin", in))
	require.NoError(t, err)
	assert.Empty(t, made.Variants)
	d := draft(t, "The cellist, again", "Odalys", in)
	own := in
	own.OwnHead = true
	d.Input = own
	d.Variants = []Variant{{Name: "With a client", Input: &in}, {Name: "Their own", Input: &own}}
	saved, err := s.SavePlan(t.Context(), made.ID, made.Version, d)
	require.NoError(t, err)
	assert.Equal(t, 2, saved.Version)
	assert.Equal(t, d.Variants, saved.Variants)
	assert.Equal(t, "Odalys", saved.SavedBy)
	require.NoError(t, s.Close())

	again := opened(t, path)
	p, err := again.Plan(t.Context(), made.ID)
	require.NoError(t, err)
	assert.Equal(t, saved, p)
	assert.Equal(t, own, p.Input)
	list, err := again.Plans(t.Context(), "", all)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, p.Entry, list[0])
}

func TestStaleAndMissingPlansAreTold(t *testing.T) {
	t.Parallel()
	s := opened(t, filepath.Join(t.TempDir(), "studio.db"))
	d := draft(t, "One", "", plan.Default())
	p, err := s.CreatePlan(t.Context(), uuid.NewString(), d)
	require.NoError(t, err)
	d.Title = "Two"
	_, err = s.SavePlan(t.Context(), p.ID, 1, d)
	require.NoError(t, err)
	d.Title = "Three"
	_, err = s.SavePlan(t.Context(), p.ID, 1, d)
	assert.ErrorIs(t, err, ErrStale)
	_, err = s.SavePlan(t.Context(), "nobody", 1, d)
	assert.ErrorIs(t, err, ErrNotFound)
	d.ClientID = "nobody"
	_, err = s.SavePlan(t.Context(), p.ID, 2, d)
	assert.ErrorIs(t, err, ErrNoClient)
	_, err = s.CreatePlan(t.Context(), uuid.NewString(), d)
	assert.ErrorIs(t, err, ErrNoClient)
	require.NoError(t, s.DeletePlan(t.Context(), p.ID))
	assert.ErrorIs(t, s.DeletePlan(t.Context(), p.ID), ErrNotFound)
	_, err = s.Plan(t.Context(), p.ID)
	assert.ErrorIs(t, err, ErrNotFound)
	_, err = s.Versions(t.Context(), p.ID)
	assert.ErrorIs(t, err, ErrNotFound, "the history goes with the plan")
}

// Of many who save the same version at once exactly one succeeds.
func TestConcurrentSavesOfOneVersion(t *testing.T) {
	t.Parallel()
	s := opened(t, filepath.Join(t.TempDir(), "studio.db"))
	d := draft(t, "One", "", plan.Default())
	p, err := s.CreatePlan(t.Context(), uuid.NewString(), d)
	require.NoError(t, err)
	const people = 12
	errs := make([]error, people)
	var wait sync.WaitGroup
	for i := range people {
		wait.Go(func() {
			mine := d
			mine.Title = fmt.Sprint("Of person ", i)
			var got Plan
			if got, errs[i] = s.SavePlan(t.Context(), p.ID, 1, mine); errs[i] == nil && got.Title != mine.Title {
				errs[i] = fmt.Errorf("saved %q, was told %q", mine.Title, got.Title)
			}
		})
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

// Autosave makes a version of every pause; the history keeps the first, the last,
// those ten minutes apart and those before another person's.
func TestHistoryIsThinnedOut(t *testing.T) {
	t.Parallel()
	s := opened(t, filepath.Join(t.TempDir(), "studio.db"))
	in := plan.Default()
	p, err := s.CreatePlan(t.Context(), uuid.NewString(), draft(t, "One", "Tamsin", in))
	require.NoError(t, err)
	save := func(by string) {
		in.Spares.Least++
		p, err = s.SavePlan(t.Context(), p.ID, p.Version, draft(t, "One", by, in))
		require.NoError(t, err)
	}
	kept := func() (numbers []int) {
		versions, err := s.Versions(t.Context(), p.ID)
		require.NoError(t, err)
		for _, v := range versions {
			numbers = append(numbers, v.Version)
		}
		return numbers
	}
	for range 4 {
		save("Tamsin")
	}
	assert.Equal(t, []int{5, 1}, kept())
	save("Odalys")
	assert.Equal(t, []int{6, 5, 1}, kept(), "what Odalys began from is kept")
	_, err = s.writes.Exec(`UPDATE plan_version SET saved_at = ? WHERE version = 5`, stampOf(time.Now().Add(-time.Hour)))
	require.NoError(t, err)
	save("Odalys")
	save("Odalys")
	assert.Equal(t, []int{8, 6, 5, 1}, kept(), "an hour later is another state")

	v, err := s.Version(t.Context(), p.ID, 5)
	require.NoError(t, err)
	assert.Equal(t, plan.Default().Spares.Least+4, v.Input.Spares.Least)
	assert.Equal(t, "Tamsin", v.SavedBy)
	_, err = s.Version(t.Context(), p.ID, 3)
	assert.ErrorIs(t, err, ErrNotFound)
}

func TestClientsAreFoundArchivedAndDeletedWithTheirPlans(t *testing.T) {
	t.Parallel()
	s := opened(t, filepath.Join(t.TempDir(), "studio.db"))
	facts := client.New()
	facts.Notes = "left-handed"
	c, err := s.CreateClient(t.Context(), uuid.NewString(), ClientDraft{Name: "Hesper Dunmorrow", Facts: facts})
	require.NoError(t, err)
	_, err = s.CreateClient(t.Context(), uuid.NewString(), ClientDraft{Name: "Juno Pellwether", Facts: client.New()})
	require.NoError(t, err)
	names := func(search string, archived bool) (names []string) {
		list, err := s.Clients(t.Context(), search, archived, all)
		require.NoError(t, err)
		for _, c := range list {
			names = append(names, c.Name)
		}
		return names
	}
	assert.Equal(t, []string{"Hesper Dunmorrow", "Juno Pellwether"}, names("", false))
	assert.Equal(t, []string{"Hesper Dunmorrow"}, names("MORR", false))
	assert.Empty(t, names("%", false), "a sign is a sign")

	d := draft(t, "For Hesper", "", plan.Default())
	d.ClientID = c.ID
	p, err := s.CreatePlan(t.Context(), uuid.NewString(), d)
	require.NoError(t, err)
	assert.Equal(t, "Hesper Dunmorrow", p.Client)
	list, err := s.Plans(t.Context(), c.ID, all)
	require.NoError(t, err)
	assert.Len(t, list, 1)

	archived := ClientDraft{c.Name, true, facts}
	saved, err := s.SaveClient(t.Context(), c.ID, 1, archived)
	require.NoError(t, err)
	assert.Equal(t, 1, saved.Plans)
	assert.Equal(t, "left-handed", saved.Facts.Notes)
	assert.Equal(t, []string{"Hesper Dunmorrow"}, names("", true))
	again, err := s.SaveClient(t.Context(), c.ID, 1, archived)
	require.NoError(t, err, "the same once more is no conflict")
	assert.Equal(t, saved, again)
	archived.Name = "Another"
	_, err = s.SaveClient(t.Context(), c.ID, 1, archived)
	assert.ErrorIs(t, err, ErrStale)

	require.NoError(t, s.DeleteClient(t.Context(), c.ID))
	_, err = s.Plan(t.Context(), p.ID)
	assert.ErrorIs(t, err, ErrNotFound)
	assert.ErrorIs(t, s.DeleteClient(t.Context(), c.ID), ErrNotFound)
}

func TestAStudioKeepsAnOwner(t *testing.T) {
	t.Parallel()
	s := opened(t, filepath.Join(t.TempDir(), "studio.db"))
	o, err := s.AddOwner(t.Context(), "Odalys", "hash")
	require.NoError(t, err)
	_, err = s.AddOwner(t.Context(), "Tamsin", "hash")
	assert.ErrorIs(t, err, ErrHasOwner)
	_, err = s.AddPerson(t.Context(), "ODALYS", Stylist, "hash")
	assert.ErrorIs(t, err, ErrNameTaken)
	_, err = s.ChangePerson(t.Context(), o.ID, o.Name, Stylist, "")
	assert.ErrorIs(t, err, ErrLastOwner)
	assert.ErrorIs(t, s.RemovePerson(t.Context(), o.ID), ErrLastOwner)
	p, err := s.PersonNamed(t.Context(), " odalys ")
	require.NoError(t, err)
	assert.Equal(t, o, p, "nothing was changed")

	second, err := s.AddPerson(t.Context(), "Tamsin", Owner, "hash")
	require.NoError(t, err)
	require.NoError(t, s.RemovePerson(t.Context(), o.ID))
	assert.ErrorIs(t, s.RemovePerson(t.Context(), o.ID), ErrNotFound)
	assert.ErrorIs(t, s.RemovePerson(t.Context(), second.ID), ErrLastOwner)
}
