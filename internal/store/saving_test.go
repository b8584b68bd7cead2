package store

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/client"
	"kladotex/core/plan"
)

// An answer that is lost is asked for again: what was stored is told once more, and
// nothing is stored twice.
func TestARepeatedRequestIsRecognised(t *testing.T) {
	t.Parallel()
	s := opened(t, filepath.Join(t.TempDir(), "studio.db"))
	id, d := uuid.NewString(), draft(t, "The cellist", "Tamsin", plan.Default())
	made, err := s.CreatePlan(t.Context(), id, d)
	require.NoError(t, err)
	again, err := s.CreatePlan(t.Context(), id, d)
	require.NoError(t, err)
	assert.Equal(t, made, again)
	d.Title = "The cellist, at the regatta"
	_, err = s.CreatePlan(t.Context(), id, d)
	assert.ErrorIs(t, err, ErrStale, "another plan under the same id is none that was repeated")

	saved, err := s.SavePlan(t.Context(), id, made.Version, d)
	require.NoError(t, err)
	again, err = s.SavePlan(t.Context(), id, made.Version, d)
	require.NoError(t, err)
	assert.Equal(t, saved, again)
	versions, err := s.Versions(t.Context(), id)
	require.NoError(t, err)
	assert.Len(t, versions, 2)

	c := ClientDraft{Name: "Hesper Dunmorrow", Facts: client.New()}
	first, err := s.CreateClient(t.Context(), "c", c)
	require.NoError(t, err)
	second, err := s.CreateClient(t.Context(), "c", c)
	require.NoError(t, err)
	assert.Equal(t, first, second)
	list, err := s.Clients(t.Context(), "", false, all)
	require.NoError(t, err)
	assert.Len(t, list, 1)
}

// A pinned state that this program cannot read any more, or not compute, says why,
// and neither hides its plan nor keeps it from being saved.
func TestAVariantInTroubleBlocksNothing(t *testing.T) {
	t.Parallel()
	s := opened(t, filepath.Join(t.TempDir(), "studio.db"))
	in := plan.Default()
	d := draft(t, "The pilot", "", in)
	d.Variants = []Variant{{Name: "Good", Input: &in}, {Name: "Torn", Input: &in}, {Name: "Odd", Input: &in}}
	p, err := s.CreatePlan(t.Context(), uuid.NewString(), d)
	require.NoError(t, err)
	_, err = s.writes.Exec(`UPDATE plan SET variants = json_set(variants, '$[1].document.sparkle', 3, '$[2].document.pieces[0].massG', 9000)`)
	require.NoError(t, err)

	p, err = s.Plan(t.Context(), p.ID)
	require.NoError(t, err)
	require.Len(t, p.Variants, 3)
	assert.NoError(t, p.Variants[0].Trouble)
	assert.Nil(t, p.Variants[1].Input)
	assert.ErrorContains(t, p.Variants[1].Trouble, "sparkle")
	assert.NotNil(t, p.Variants[2].Input)
	assert.ErrorContains(t, p.Variants[2].Trouble, "massG")

	d.Title, d.Variants = "The pilot, again", p.Variants
	saved, err := s.SavePlan(t.Context(), p.ID, p.Version, d)
	require.NoError(t, err)
	assert.Equal(t, p.Variants, saved.Variants, "what cannot be read is kept as it is")
	d.Variants = []Variant{{Name: "Never pinned"}}
	_, err = s.SavePlan(t.Context(), p.ID, saved.Version, d)
	assert.ErrorIs(t, err, ErrNoVariant)
}

// A change of role and one of the password, both begun before either was done, both
// hold; a password that was changed meanwhile is not put back.
func TestChangesOfOnePersonDoNotUndoEachOther(t *testing.T) {
	t.Parallel()
	s := opened(t, filepath.Join(t.TempDir(), "studio.db"))
	_, err := s.AddOwner(t.Context(), "Odalys", "hash")
	require.NoError(t, err)
	p, err := s.AddPerson(t.Context(), "Tamsin", Stylist, "first")
	require.NoError(t, err)
	changed, err := s.ChangePassword(t.Context(), p.ID, "first", "second")
	require.NoError(t, err)
	assert.Equal(t, p.Epoch+1, changed.Epoch, "in one step with the end of every sign-in")
	promoted, err := s.ChangePerson(t.Context(), p.ID, "Tamsin", Owner, "")
	require.NoError(t, err)
	assert.Equal(t, "second", promoted.Hash)
	assert.Equal(t, changed.Epoch, promoted.Epoch)
	_, err = s.ChangePassword(t.Context(), p.ID, "first", "third")
	assert.ErrorIs(t, err, ErrStale)
	reset, err := s.ChangePerson(t.Context(), p.ID, "Tamsin", Owner, "fourth")
	require.NoError(t, err)
	assert.Equal(t, "fourth", reset.Hash)
	assert.Equal(t, changed.Epoch+1, reset.Epoch)
}

func TestNamesOfEveryAlphabet(t *testing.T) {
	t.Parallel()
	s := opened(t, filepath.Join(t.TempDir(), "studio.db"))
	_, err := s.AddOwner(t.Context(), "Émile", "hash")
	require.NoError(t, err)
	_, err = s.AddPerson(t.Context(), "éMILE", Stylist, "hash")
	assert.ErrorIs(t, err, ErrNameTaken)
	_, err = s.AddPerson(t.Context(), "Emile", Stylist, "hash")
	assert.NoError(t, err, "marks tell names apart")
	p, err := s.PersonNamed(t.Context(), " e\u0301mile ")
	require.NoError(t, err)
	assert.Equal(t, "Émile", p.Name)

	for _, name := range []string{"Émile Quillonde", "Ọlá Ṣadé", "Nguyễn Thảo", "Ольга", "Ζωή", "Straße"} {
		_, err := s.CreateClient(t.Context(), uuid.NewString(), ClientDraft{Name: name, Facts: client.New()})
		require.NoError(t, err)
	}
	for search, want := range map[string]string{
		"émile": "Émile Quillonde", "EMILE": "Émile Quillonde", "ọla": "Ọlá Ṣadé", "sade": "Ọlá Ṣadé", "nguyen": "Nguyễn Thảo",
		"ОЛЬГА": "Ольга", "ζωη": "Ζωή", "STRASSE": "Straße",
	} {
		list, err := s.Clients(t.Context(), search, false, all)
		require.NoError(t, err)
		if assert.Len(t, list, 1, search) {
			assert.Equal(t, want, list[0].Name)
		}
	}
}

// A list read in pages is the list, each once.
func TestPagesMakeUpTheList(t *testing.T) {
	t.Parallel()
	s := opened(t, filepath.Join(t.TempDir(), "studio.db"))
	c, err := s.CreateClient(t.Context(), "c", ClientDraft{Name: "Of the plans", Facts: client.New()})
	require.NoError(t, err)
	for i := range 23 {
		d := draft(t, "A plan", "", plan.Default())
		if i%2 == 0 {
			d.ClientID = c.ID
		}
		_, err := s.CreatePlan(t.Context(), uuid.NewString(), d)
		require.NoError(t, err)
		_, err = s.CreateClient(t.Context(), uuid.NewString(), ClientDraft{Name: "Émile", Facts: client.New()})
		require.NoError(t, err)
	}
	// Saved in one moment, they are told apart by their ids.
	_, err = s.writes.Exec(`UPDATE plan SET updated_at = ?`, stampOf(time.Now()))
	require.NoError(t, err)
	for _, of := range []string{"", c.ID} {
		whole, err := s.Plans(t.Context(), of, all)
		require.NoError(t, err)
		var got []Entry
		for page := (Page{Limit: 5}); ; page.After = got[len(got)-1].Cursor() {
			next, err := s.Plans(t.Context(), of, page)
			require.NoError(t, err)
			if len(next) == 0 {
				break
			}
			got = append(got, next...)
		}
		assert.Equal(t, whole, got)
	}
	whole, err := s.Clients(t.Context(), "", false, all)
	require.NoError(t, err)
	require.Len(t, whole, 24)
	var got []ClientEntry
	for page := (Page{Limit: 5}); ; page.After = got[len(got)-1].Cursor() {
		next, err := s.Clients(t.Context(), "", false, page)
		require.NoError(t, err)
		if len(next) == 0 {
			break
		}
		got = append(got, next...)
	}
	assert.Equal(t, whole, got)
}

// A clock that is set back does not thin the history out.
func TestHistoryDoesNotTrustTheClock(t *testing.T) {
	t.Parallel()
	s := opened(t, filepath.Join(t.TempDir(), "studio.db"))
	in := plan.Default()
	p, err := s.CreatePlan(t.Context(), uuid.NewString(), draft(t, "One", "Tamsin", in))
	require.NoError(t, err)
	for range 6 { // each was saved an hour before the one before it
		_, err := s.writes.Exec(`UPDATE plan_version SET saved_at = strftime('%Y-%m-%dT%H:%M:%f000000Z', saved_at, '+1 hour')`)
		require.NoError(t, err)
		in.Spares.Least++
		p, err = s.SavePlan(t.Context(), p.ID, p.Version, draft(t, "One", "Tamsin", in))
		require.NoError(t, err)
	}
	versions, err := s.Versions(t.Context(), p.ID)
	require.NoError(t, err)
	assert.Len(t, versions, 7)
}

func TestSessionsThatRanOutAreRemoved(t *testing.T) {
	t.Parallel()
	s := opened(t, filepath.Join(t.TempDir(), "studio.db"))
	x := s.Sessions()
	require.NoError(t, x.CommitCtx(t.Context(), "old", []byte("a"), time.Now().Add(-time.Second)))
	require.NoError(t, x.CommitCtx(t.Context(), "new", []byte("b"), time.Now().Add(time.Hour)))
	_, ok, err := x.FindCtx(t.Context(), "old")
	require.NoError(t, err)
	assert.False(t, ok)
	data, ok, err := x.FindCtx(t.Context(), "new")
	require.NoError(t, err)
	assert.True(t, ok)
	assert.Equal(t, "b", string(data))
	require.NoError(t, s.DropOldSessions(t.Context()))
	var left int
	require.NoError(t, s.reads.QueryRow(`SELECT count(*) FROM sessions`).Scan(&left))
	assert.Equal(t, 1, left)
	require.NoError(t, x.DeleteCtx(t.Context(), "new"))
	_, ok, err = x.FindCtx(t.Context(), "new")
	require.NoError(t, err)
	assert.False(t, ok)
}

func TestOnlyAnEmptyStudioBecomesTheDemo(t *testing.T) {
	t.Parallel()
	path := filepath.Join(t.TempDir(), "studio.db")
	s := opened(t, path)
	require.NoError(t, s.MarkDemo(t.Context()))
	require.NoError(t, s.Close())
	assert.True(t, opened(t, path).Facts().Demo, "the mark stays in the file")
	mine := opened(t, filepath.Join(t.TempDir(), "mine.db"))
	_, err := mine.AddOwner(t.Context(), "Odalys", "hash")
	require.NoError(t, err)
	assert.ErrorIs(t, mine.MarkDemo(t.Context()), ErrHasOwner)
	assert.False(t, mine.Facts().Demo)
}

// What ails the disk is told apart by SQLite's own codes.
func TestTroublesAreToldApart(t *testing.T) {
	t.Parallel()
	s := opened(t, filepath.Join(t.TempDir(), "studio.db"))
	var pages int
	require.NoError(t, s.writes.QueryRow(`PRAGMA page_count`).Scan(&pages))
	_, err := s.writes.Exec(`PRAGMA max_page_count = 1`) // as small as the file is
	require.NoError(t, err)
	full := error(nil)
	for range 2 * pages {
		if _, full = s.CreatePlan(t.Context(), uuid.NewString(), draft(t, "One", "", plan.Default())); full != nil {
			break
		}
	}
	assert.Equal(t, DiskFull, TroubleOf(full))
	_, err = s.reads.Exec(`DELETE FROM plan`)
	assert.Equal(t, ReadOnly, TroubleOf(err))
	assert.Equal(t, NoTrouble, TroubleOf(ErrNotFound))
	assert.Equal(t, NoTrouble, TroubleOf(nil))
}
