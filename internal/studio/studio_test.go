package studio

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/chair"
	"kladotex/core/client"
	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/message"
	"kladotex/core/pace"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/core/wear"
	"kladotex/internal/sheet"
	"kladotex/internal/store"
)

// noon is the present of these tests.
var noon = time.Date(2026, 12, 1, 12, 0, 0, 0, time.UTC)

// owner is someone who may do everything, of no studio in particular.
var owner = store.Person{ID: "odalys", Name: "Odalys", Role: store.Owner}

// planned stores a plan for a head that no card speaks of, with the first sitting on a day.
func planned(t *testing.T, use *Studio, title string) store.Plan {
	t.Helper()
	in := plan.Default()
	in.Day = &plan.Day{Install: "2027-03-01"}
	p, err := use.CreatePlan(t.Context(), owner.Name, uuid.NewString(), Draft{Title: title, Input: in})
	require.NoError(t, err)
	return p
}

// clearedPlan stores a plan that nothing holds back.
func clearedPlan(t *testing.T, use *Studio, title string) store.Plan {
	t.Helper()
	p := planned(t, use, title)
	c, err := use.Ask(t.Context(), owner, p.ID, nil)
	require.NoError(t, err)
	require.True(t, c.Clear)
	return p
}

// atOnce calls work n times at the same time and gives back the errors.
func atOnce(n int, work func(i int) error) []error {
	errs := make([]error, n)
	var group sync.WaitGroup
	for i := range n {
		group.Go(func() { errs[i] = work(i) })
	}
	group.Wait()
	return errs
}

// What belongs to a person is set by them or by an owner, by nobody else; the last owner stays one, and names
// differ by more than their case.
func TestWhoMaySetWhat(t *testing.T) {
	use, _ := clocked(t, "UTC", noon)
	const secret = "lantern regatta"
	odalys, err := use.Claim(t.Context(), " Odalys ", secret)
	require.NoError(t, err)
	assert.Equal(t, "Odalys", odalys.Name)
	_, err = use.Claim(t.Context(), "Somebody", secret)
	assert.ErrorIs(t, err, store.ErrHasOwner)
	_, err = use.AddPerson(t.Context(), "oDALYS", store.Stylist, secret)
	assert.ErrorIs(t, err, store.ErrNameTaken)
	_, err = use.AddPerson(t.Context(), "Tamsin", store.Stylist, "short")
	require.NotEmpty(t, invalid.From(err))
	assert.Equal(t, "password", invalid.From(err)[0].Path)
	tamsin, err := use.AddPerson(t.Context(), "Tamsin", store.Stylist, secret)
	require.NoError(t, err)
	ikaika, err := use.AddPerson(t.Context(), "Ikaika", store.Apprentice, secret)
	require.NoError(t, err)

	for _, x := range []struct {
		by, of store.Person
		want   error
	}{{tamsin, tamsin, nil}, {odalys, tamsin, nil}, {ikaika, tamsin, ErrNotTheirs}, {tamsin, odalys, ErrNotTheirs}} {
		_, err := use.SetPace(t.Context(), x.by, x.of.ID, pace.Hands[0], 1.25)
		assert.ErrorIs(t, err, x.want, "%s for %s", x.by.Name, x.of.Name)
		_, _, err = use.ImportBusy(t.Context(), x.by, x.of.ID, strings.NewReader("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nEND:VCALENDAR\r\n"))
		assert.ErrorIs(t, err, x.want, "%s for %s", x.by.Name, x.of.Name)
	}
	_, err = use.ChangePerson(t.Context(), odalys.ID, "Odalys", store.Stylist, "")
	assert.ErrorIs(t, err, store.ErrLastOwner)
	_, err = use.ChangePerson(t.Context(), tamsin.ID, "Tamsin", store.Owner, "")
	require.NoError(t, err)
	_, err = use.ChangePerson(t.Context(), odalys.ID, "Odalys", store.Stylist, "")
	assert.NoError(t, err)

	// A name that is not there and a password that is wrong are told alike.
	for _, name := range []string{"Tamsin", "Nobody"} {
		_, err = use.SignIn(t.Context(), name, "not this one")
		assert.Equal(t, ErrNoMatch, err, name)
	}
}

// An entry about a worn head is put right by who wrote it, or by those who may delete it.
func TestEntriesOfOthers(t *testing.T) {
	use, _ := clocked(t, "UTC", noon)
	i := installed(t, use)
	ikaika := store.Person{ID: "ikaika", Name: "Ikaika", Role: store.Apprentice}
	other := store.Person{ID: "other", Name: "Other", Role: store.Apprentice}
	note := wear.Entry{ID: uuid.NewString(), On: "2026-12-01", Kind: wear.Mended, Piece: i.Brief.Pieces[0].Key, Count: 1}
	put := func(by store.Person) error {
		_, err := use.PutWear(t.Context(), by, i.ID, note)
		return err
	}
	require.NoError(t, put(ikaika))
	note.Count = 2
	assert.NoError(t, put(ikaika))
	note.Count = 3
	assert.ErrorIs(t, put(other), store.ErrNotYours)
	assert.NoError(t, put(owner))
}

// installed is a head that was finished on the day before noon.
func installed(t *testing.T, use *Studio) store.Install {
	t.Helper()
	p := clearedPlan(t, use, "A head")
	began := noon.AddDate(0, 0, -1)
	i, err := use.StartInstall(t.Context(), owner, Start{ID: uuid.NewString(), PlanID: p.ID, At: began})
	require.NoError(t, err)
	events := []chair.Event{{ID: uuid.NewString(), N: 1, At: began.UnixMilli(), Hand: i.Brief.Hands[0].Key, Kind: chair.Began}}
	for _, task := range i.Brief.Tasks {
		events = append(events, chair.Event{ID: uuid.NewString(), N: len(events) + 1, At: began.Add(time.Hour).UnixMilli(), Hand: i.Brief.Hands[0].Key, Kind: chair.Done, Tasks: []string{task.Key}})
	}
	events = append(events, chair.Event{ID: uuid.NewString(), N: len(events) + 1, At: began.Add(6 * time.Hour).UnixMilli(), Hand: i.Brief.Hands[0].Key, Kind: chair.Ended})
	_, err = use.Tell(t.Context(), owner, i.ID, 0, events)
	require.NoError(t, err)
	return i
}

// A day of wear is told up to tomorrow by the studio's clock, whatever the machine's.
func TestTomorrowByTheStudiosClock(t *testing.T) {
	for zone, today := range map[string]string{"Pacific/Kiritimati": "2026-12-02", "Pacific/Pago_Pago": "2026-12-01"} {
		use, _ := clocked(t, zone, noon)
		i := installed(t, use)
		day, err := time.Parse(time.DateOnly, today)
		require.NoError(t, err)
		put := func(days int) error {
			_, err := use.PutWear(t.Context(), owner, i.ID, wear.Entry{
				ID: uuid.NewString(), On: day.AddDate(0, 0, days).Format(time.DateOnly), Kind: wear.Mended, Piece: i.Brief.Pieces[0].Key, Count: 1,
			})
			return err
		}
		assert.NoError(t, put(0), zone)
		assert.NoError(t, put(1), "%s: a clock that runs ahead by a day is no fault", zone)
		require.NotEmpty(t, invalid.From(put(2)), zone)
		assert.Equal(t, "on", invalid.From(put(2))[0].Path)
	}
}

// Half of a use case is not kept: what fails within leaves nothing, however deep it was.
func TestAUseCaseIsKeptAsAWhole(t *testing.T) {
	use, _ := clocked(t, "UTC", noon)
	failed := errors.New("thought better of it")
	err := use.update(t.Context(), func(s *Studio) error {
		p := planned(t, s, "Within")
		if _, err := s.Ask(t.Context(), owner, p.ID, nil); err != nil { // a use case within one
			return err
		}
		if _, err := s.Store.Plan(t.Context(), p.ID); err != nil { // it reads what it wrote
			return err
		}
		return failed
	})
	assert.ErrorIs(t, err, failed)
	plans, err := use.Store.Plans(t.Context(), "", store.Page{Limit: 9})
	require.NoError(t, err)
	assert.Empty(t, plans)

	// There is room for one of two: neither is taken on.
	w := &world{known: []supply.Seller{{Key: "one", Name: "One"}, {Key: "two", Name: "Two"}}}
	use.outside = w.outside()
	for n := range supply.MaxSellers - 1 {
		_, err := use.AddSupplier(t.Context(), supply.Seller{Key: uuid.NewString(), Name: fmt.Sprint("Stall ", n)})
		require.NoError(t, err)
	}
	require.NotEmpty(t, invalid.From(use.Practise(t.Context())))
	have, err := use.Store.Suppliers(t.Context())
	require.NoError(t, err)
	assert.Len(t, have, supply.MaxSellers-1)
}

// Two devices bring one plan to the chair: it is there once.
func TestAPlanComesToTheChairOnce(t *testing.T) {
	use, _ := clocked(t, "UTC", noon)
	p := clearedPlan(t, use, "A head")
	ids := make([]string, 4)
	for _, err := range atOnce(len(ids), func(k int) error {
		i, err := use.StartInstall(context.WithoutCancel(t.Context()), owner, Start{ID: uuid.NewString(), PlanID: p.ID})
		ids[k] = i.ID
		return err
	}) {
		require.NoError(t, err)
	}
	for _, id := range ids {
		assert.Equal(t, ids[0], id)
	}
	at, err := use.AtChair(t.Context())
	require.NoError(t, err)
	assert.Len(t, at, 1)
	_, err = use.SavePlan(t.Context(), owner.Name, p.ID, p.Version, Draft{Title: "Another", Input: p.Input})
	assert.ErrorIs(t, err, store.ErrAtChair)
}

// Quotes given at the same time have numbers of their own, without a gap. What was saved since it was looked at, and
// what something holds back, is neither quoted nor booked nor begun.
func TestWhatIsFrozenIsWhatWasLookedAt(t *testing.T) {
	use, _ := clocked(t, "UTC", noon)
	p := clearedPlan(t, use, "A head")
	numbers := make([]int, 3)
	for _, err := range atOnce(len(numbers), func(k int) error {
		q, err := use.GiveQuote(context.WithoutCancel(t.Context()), owner, uuid.NewString(), p.ID, p.Version, sheet.Inches, "letter")
		numbers[k] = q.Number
		return err
	}) {
		require.NoError(t, err)
	}
	assert.ElementsMatch(t, []int{1, 2, 3}, numbers)

	next, err := use.SavePlan(t.Context(), owner.Name, p.ID, p.Version, Draft{Title: "Another", Input: p.Input})
	require.NoError(t, err)
	_, err = use.GiveQuote(t.Context(), owner, uuid.NewString(), p.ID, p.Version, sheet.Inches, "letter")
	assert.ErrorIs(t, err, store.ErrStale)
	_, err = use.Book(t.Context(), owner, uuid.NewString(), p.ID, p.Version)
	assert.ErrorIs(t, err, store.ErrStale)
	// Between its looking and its writing the plan is saved: nothing is written.
	assert.ErrorIs(t, use.unmoved(t.Context(), p), store.ErrStale)
	assert.NoError(t, use.unmoved(t.Context(), next))

	_, err = use.Ask(t.Context(), owner, p.ID, []client.Event{client.SoreScalp})
	require.NoError(t, err)
	for what, refused := range map[string]error{
		"quote": func() error {
			_, err := use.GiveQuote(t.Context(), owner, uuid.NewString(), p.ID, next.Version, sheet.Inches, "letter")
			return err
		}(),
		"booking": func() error {
			_, err := use.Book(t.Context(), owner, uuid.NewString(), p.ID, next.Version)
			return err
		}(),
		"chair": func() error {
			_, err := use.StartInstall(t.Context(), owner, Start{ID: uuid.NewString(), PlanID: p.ID})
			return err
		}(),
		"half-way": use.unmoved(t.Context(), next),
	} {
		require.NotEmpty(t, invalid.From(refused), what)
		assert.Equal(t, "cautions", invalid.From(refused)[0].Path, what)
	}
}

// A message goes out once, however often it is sent; one the outbox refuses is not kept, and can be sent later.
func TestAMessageIsSentOnce(t *testing.T) {
	use, _ := clocked(t, "UTC", noon)
	w := &world{refuses: errors.New("no line")}
	use.outside = w.outside()
	p := planned(t, use, "A head")
	id := uuid.NewString()
	send := func() error {
		_, err := use.SendMessage(t.Context(), owner, id, p.ID, message.Kinds()[0], message.Template{Subject: "Your day", Body: "See you"})
		return err
	}
	assert.ErrorIs(t, send(), w.refuses)
	_, err := use.Store.Message(t.Context(), id)
	assert.ErrorIs(t, err, store.ErrNotFound)
	w.refuses = nil
	require.NoError(t, send())
	require.NoError(t, send())
	assert.Equal(t, []string{"Your day"}, w.posted)
}

// Prices are asked of those whose list can be asked for, and of nobody else; what they no longer sell has no price, what
// was written by hand stays. A list in another currency is refused by name.
func TestWhosePricesAreAsked(t *testing.T) {
	use, _ := clocked(t, "UTC", noon)
	item := supply.Item{
		Schema: supply.ItemSchema, Kind: "soft-loc", Name: "Loc", Length: 457, Thickness: 9, Mass: 4.2, Fibre: supply.Synthetic, Currency: "USD",
		Pack: hair.Pack{Units: 20, Cuts: 1, Splits: 1},
	}
	listed := item
	listed.Offers = []hair.Offer{{Packs: 1, Price: 1100, Supplier: "near"}}
	w := &world{known: []supply.Seller{{Key: "near", Name: "Near"}}, lists: map[string][]supply.Listed{"near": {{Number: "7", Item: listed}}}}
	use.outside = w.outside()
	require.NoError(t, use.Practise(t.Context()))
	_, err := use.AddSupplier(t.Context(), supply.Seller{Key: "ours", Name: "Ours"})
	require.NoError(t, err)
	item.Articles = []supply.Article{{Supplier: "near", Number: "7"}, {Supplier: "ours", Number: "x"}}
	item.Offers = []hair.Offer{{Packs: 1, Price: 1000, Supplier: "near"}, {Packs: 6, Price: 5000, Supplier: "near"}, {Packs: 1, Price: 900, Supplier: "ours"}}
	stored, err := use.CreateItem(t.Context(), uuid.NewString(), store.ItemDraft{Item: item})
	require.NoError(t, err)
	changes, err := use.RefreshPrices(t.Context(), true)
	require.NoError(t, err)
	assert.Equal(t, []PriceChange{
		{Item: stored.ID, Name: "Loc", Supplier: "near", Packs: 1, Was: 1000, Is: 1100}, {Item: stored.ID, Name: "Loc", Supplier: "near", Packs: 6, Was: 5000},
	}, changes)
	now, err := use.Store.Item(t.Context(), stored.ID)
	require.NoError(t, err)
	assert.ElementsMatch(t, []hair.Offer{{Packs: 1, Price: 1100, Supplier: "near"}, {Packs: 1, Price: 900, Supplier: "ours"}}, now.Offers)

	w.lists["near"][0].Item.Currency = "EUR"
	_, err = use.RefreshPrices(t.Context(), false)
	require.NotEmpty(t, invalid.From(err))
	assert.Contains(t, invalid.From(err)[0].Message, "Near quotes in EUR")
}
