package store

import (
	"errors"
	"flag"
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/chair"
	"kladotex/core/client"
	"kladotex/core/invalid"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/core/wear"
)

// ended tells an end of an install that comes to a settlement.
func ended(t *testing.T, s *Store, install string, x Settlement) {
	t.Helper()
	require.NoError(t, s.Tell(t.Context(), install, Telling{
		Person: "odalys", By: "Odalys", Most: 1000, Events: []chair.Event{{ID: uuid.NewString(), N: 1, Kind: chair.Ended}},
		Settle: func(Install, []chair.Event) (Settlement, error) { return x, nil },
	}))
}

// hangs is the settlement of an install that used and spoilt some of an item.
func hangs(item string, used, spoilt int) Settlement {
	return Settlement{Over: true, At: time.Now(), Bill: []Bill{{
		Claim: Claim{Key: "p1", Item: item, Colour: "Peat", Pieces: used + spoilt}, Name: "Driftline", Used: used, Spoilt: spoilt,
	}}}
}

// left is how many pieces lie in the stash.
func left(t *testing.T, s *Store) (n int) {
	t.Helper()
	for _, pieces := range lying(t, s) {
		n += pieces
	}
	return n
}

// What an install took is out of the stash once: told twice, late, corrected either way, undone, and after
// its plan is gone.
func TestASettlementBooksTheDifference(t *testing.T) {
	t.Parallel()
	s, item, _ := stocked(t, 3)
	id := planned(t, s)
	_, err := s.StartInstall(t.Context(), "one", startOf(t, id))
	require.NoError(t, err)
	booked := func() []Taken {
		l, err := s.LogOf(t.Context(), "one")
		require.NoError(t, err)
		return l.Stash
	}
	for _, step := range []struct {
		says         string
		used, spoilt int
		left         int
		want         Taken
	}{
		{"the end", 28, 2, 30, Taken{Used: 28, Spoilt: 2}},
		{"told twice", 28, 2, 30, Taken{Used: 28, Spoilt: 2}},
		{"twenty more were spoilt", 28, 22, 10, Taken{Used: 28, Spoilt: 22}},
		{"they were not", 28, 2, 30, Taken{Used: 28, Spoilt: 2}},
		{"more than it held", 62, 2, 0, Taken{Used: 58, Spoilt: 2, Beyond: 4}},
		{"told twice", 62, 2, 0, Taken{Used: 58, Spoilt: 2, Beyond: 4}},
		{"what it never held does not come back", 60, 2, 0, Taken{Used: 58, Spoilt: 2, Beyond: 2}},
		{"what it held does", 40, 0, 20, Taken{Used: 40}},
	} {
		ended(t, s, "one", hangs(item.ID, step.used, step.spoilt))
		step.want.Piece = "Driftline"
		require.Equal(t, step.left, left(t, s), step.says)
		require.Equal(t, []Taken{step.want}, booked(), step.says)
	}
	require.NoError(t, s.DeletePlan(t.Context(), id))
	for range 3 {
		ended(t, s, "one", hangs(item.ID, 40, 0))
		require.Equal(t, 20, left(t, s), "the plan is gone; the install took what it took")
	}
	ended(t, s, "one", hangs(item.ID, 45, 0))
	assert.Equal(t, 15, left(t, s))

	ended(t, s, "one", Settlement{})
	assert.Equal(t, 60, left(t, s), "an end that is taken back took nothing")
	_, err = s.LogOf(t.Context(), "one")
	assert.ErrorIs(t, err, ErrNotFound)
	going, err := s.AtChair(t.Context())
	require.NoError(t, err)
	assert.Len(t, going, 1)
}

// What a person took for a plan by hand is part of what its install took, and an end taken back has the
// plan hold its share again.
func TestWhatWasTakenByHandIsNotTakenTwice(t *testing.T) {
	t.Parallel()
	s, item, lot := stocked(t, 3)
	id := planned(t, s)
	claims := []Claim{{Key: "p1", Item: item.ID, Colour: "Peat", Pieces: 30}}
	require.NoError(t, s.Hold(t.Context(), id, true, claims))
	_, err := s.Move(t.Context(), lot.ID, MoveDraft{ID: "by-hand-1", Kind: supply.Used, Stock: supply.Stock{Loose: 10}, PlanID: id, By: "Tamsin"})
	require.NoError(t, err)
	_, err = s.StartInstall(t.Context(), "one", startOf(t, id))
	require.NoError(t, err)
	ended(t, s, "one", hangs(item.ID, 30, 0))
	assert.Equal(t, 30, left(t, s))
	lots, err := s.Stash(t.Context(), StashWish{}, all)
	require.NoError(t, err)
	assert.Zero(t, lots[0].Promised, "a finished install holds nothing")
	ended(t, s, "one", Settlement{Claims: claims})
	lots, err = s.Stash(t.Context(), StashWish{}, all)
	require.NoError(t, err)
	assert.Equal(t, 30, lots[0].Promised)
	assert.Equal(t, 60, left(t, s))
}

// An end and its undoing told at once, again and again: what is kept is always what the events come to.
func TestAnEndAndItsUndoingAtOnce(t *testing.T) {
	t.Parallel()
	s, item, _ := stocked(t, 4)
	for round := range 40 {
		id := fmt.Sprintf("install-%02d", round)
		_, err := s.StartInstall(t.Context(), id, startOf(t, planned(t, s)))
		require.NoError(t, err)
		settle := func(i Install, events []chair.Event) (Settlement, error) {
			at, over := i.Brief.Fold(events).Over()
			x := hangs(item.ID, 10, 0)
			x.Over, x.At = over, time.UnixMilli(at)
			if !over {
				x.Bill = nil
			}
			return x, nil
		}
		now := time.Now().UnixMilli()
		end := chair.Event{ID: "the-end-of-it", N: 1, At: now, Kind: chair.Ended}
		undo := chair.Event{ID: "it-was-not", N: 2, At: now, Kind: chair.Undone, Of: end.ID}
		var wait sync.WaitGroup
		for _, e := range []chair.Event{end, undo, end} {
			wait.Go(func() {
				err := s.Tell(t.Context(), id, Telling{Person: "odalys", By: "Odalys", Events: []chair.Event{e}, Most: 10, Settle: settle})
				assert.NoError(t, err)
			})
		}
		wait.Wait()
		i, err := s.Install(t.Context(), id)
		require.NoError(t, err)
		require.True(t, i.Closed.IsZero(), "round %d", round)
		require.Equal(t, 80, left(t, s), "round %d", round)
	}
}

// life is one life of hair: what the store should hold of it, counted beside it.
type life struct {
	t      *testing.T
	s      *Store
	r      *rand.Rand
	item   string
	claim  Claim
	draft  Draft
	start  InstallDraft
	bought int
	given  int
	plans  []string
	heads  []*lifeHead
	gone   []*lifeHead // of clients who were deleted: what they took, and gave back, stays as it was
	lots   []string
}

// lifeHead is an install of it: what it took, and what came back.
type lifeHead struct {
	id, client   string
	over         bool
	used, spoilt int
	entries      map[string]int // pieces saved by each entry
}

func (l *life) buy() {
	packs := 1 + l.r.IntN(3)
	id := uuid.NewString()
	_, err := l.s.AddLot(l.t.Context(), LotDraft{ID: id, Item: l.item, Lot: supply.Lot{Colour: "Peat", Pack: 20, Condition: supply.New}},
		MoveDraft{ID: uuid.NewString(), Kind: supply.Bought, Stock: supply.Stock{Packs: packs}, By: "Odalys"})
	require.NoError(l.t, err)
	l.bought += 20 * packs
	l.lots = append(l.lots, id)
}

func (l *life) give() {
	lot := l.lots[l.r.IntN(len(l.lots))]
	n := 1 + l.r.IntN(4)
	_, err := l.s.Move(l.t.Context(), lot, MoveDraft{ID: uuid.NewString(), Kind: supply.Given, Stock: supply.Stock{Loose: n}, By: "Odalys"})
	if invalid.From(err) == nil { // there may be fewer
		require.NoError(l.t, err)
		l.given += n
	}
}

func (l *life) begin() {
	h := &lifeHead{id: uuid.NewString(), entries: map[string]int{}}
	d := l.draft
	if l.r.IntN(2) == 0 {
		c, err := l.s.CreateClient(l.t.Context(), uuid.NewString(), ClientDraft{Name: "The cellist", Facts: client.New()})
		require.NoError(l.t, err)
		h.client, d.ClientID = c.ID, c.ID
	}
	p, err := l.s.CreatePlan(l.t.Context(), uuid.NewString(), d)
	require.NoError(l.t, err)
	require.NoError(l.t, l.s.Hold(l.t.Context(), p.ID, true, []Claim{l.claim}))
	l.plans = append(l.plans, p.ID)
	start := l.start
	start.PlanID, start.ClientID = p.ID, h.client
	_, err = l.s.StartInstall(l.t.Context(), h.id, start)
	require.NoError(l.t, err)
	l.heads = append(l.heads, h)
}

// part deletes the client of a head, and with them its plan and its install.
func (l *life) part() {
	k := l.r.IntN(len(l.heads))
	h := l.heads[k]
	if h.client == "" || len(l.heads) == 1 {
		return
	}
	i, err := l.s.Install(l.t.Context(), h.id)
	require.NoError(l.t, err)
	require.NoError(l.t, l.s.DeleteClient(l.t.Context(), h.client))
	l.plans = slices.DeleteFunc(l.plans, func(id string) bool { return id == i.PlanID })
	l.heads, l.gone = slices.Delete(l.heads, k, k+1), append(l.gone, h)
}

// settle tells another end of an install: more or fewer used or spoilt, the same again, or that it goes on.
func (l *life) settle() {
	h := l.heads[l.r.IntN(len(l.heads))]
	saved := 0
	for _, n := range h.entries {
		saved += n
	}
	switch l.r.IntN(5) {
	case 0: // the same again
	case 1:
		if saved == 0 {
			h.over, h.used, h.spoilt = false, 0, 0
		}
	default:
		h.over = true
		h.used, h.spoilt = max(saved, l.r.IntN(30)), l.r.IntN(8)
	}
	x := Settlement{}
	if h.over {
		x = hangs(l.item, h.used, h.spoilt)
	}
	ended(l.t, l.s, h.id, x)
	// What the stash did not hold came from elsewhere: it is no part of this life.
	var usedBeyond, spoiltBeyond int
	err := l.s.read.QueryRowContext(l.t.Context(), `SELECT coalesce(sum(used_beyond), 0), coalesce(sum(spoilt_beyond), 0) FROM install_bill WHERE install_id = ?`, h.id).Scan(&usedBeyond, &spoiltBeyond)
	require.NoError(l.t, err)
	h.used, h.spoilt = h.used-usedBeyond, h.spoilt-spoiltBeyond
	if usedBeyond+spoiltBeyond > 0 && h.over {
		ended(l.t, l.s, h.id, hangs(l.item, h.used, h.spoilt))
	}
}

// save brings pieces of a head back, otherwise than it was said before, or not at all.
func (l *life) save() {
	h := l.heads[l.r.IntN(len(l.heads))]
	if !h.over {
		return
	}
	w, err := l.s.WornHead(l.t.Context(), h.id)
	require.NoError(l.t, err)
	id := fmt.Sprintf("entry-of-%d", l.r.IntN(2))
	others := 0
	for key, n := range h.entries {
		if key != id {
			others += n
		}
	}
	if l.r.IntN(4) == 0 {
		err = l.s.DropEntry(l.t.Context(), h.id, id, "Odalys")
		if invalid.From(err) == nil {
			require.NoError(l.t, err)
			delete(h.entries, id)
		}
		return
	}
	n := l.r.IntN(h.used - others + 1)
	good := l.r.IntN(n + 1)
	e := wear.Entry{ID: id, On: time.Now().Format(time.DateOnly), Kind: wear.RingOff, Rows: 1, Text: fmt.Sprint(good, n), By: "Odalys"}
	err = l.s.PutEntry(l.t.Context(), w, e, Writer{Deletes: true}, time.Now(), []Moving{{Key: "p1", Item: l.item, Colour: "Peat", Good: good, Worn: n - good}})
	if invalid.From(err) == nil { // what came back may be used again by now
		require.NoError(l.t, err)
		h.entries[id] = n
	}
}

func (l *life) forget() {
	if len(l.plans) == 0 {
		return
	}
	k := l.r.IntN(len(l.plans))
	require.NoError(l.t, l.s.DeletePlan(l.t.Context(), l.plans[k]))
	l.plans = slices.Delete(l.plans, k, k+1)
}

// holds compares: bought = on heads + in the stash + spoilt + given away, by the ledger and by what happened.
func (l *life) holds(step int) {
	onHeads, spoilt := 0, 0
	for _, h := range append(slices.Clone(l.gone), l.heads...) {
		onHeads, spoilt = onHeads+h.used, spoilt+h.spoilt
		for _, n := range h.entries {
			onHeads -= n
		}
	}
	stash := 0
	var a supply.Account
	books, err := l.s.Ledger(l.t.Context(), time.Now().AddDate(-1, 0, 0), time.Now().AddDate(0, 0, 1))
	require.NoError(l.t, err)
	for _, b := range books {
		if b.Lot.Stocked.Item != l.item {
			continue
		}
		n := b.Lot.Pieces(b.Lot.Pack)
		require.GreaterOrEqual(l.t, n, 0, "step %d: a lot below nothing", step)
		stash += n
		a = a.Plus(supply.AccountOf(b.Lot.Stocked.Lot, b.Lines))
	}
	require.Equal(l.t, l.bought, onHeads+stash+spoilt+l.given, "step %d: %d on heads, %d in the stash, %d spoilt, %d given away", step, onHeads, stash, spoilt, l.given)
	require.Equal(l.t, supply.Account{Bought: l.bought, UsedUp: onHeads, Saved: a.Saved, Spoilt: spoilt, Given: l.given, LeftNew: a.LeftNew, LeftSaved: a.LeftSaved}, a, "step %d", step)
}

// studios is the number of studios in which twenty lives of hair are lived; make bars takes a hundred.
var studios = flag.Int("studios", 8, "studios in which lives of hair are lived")

// Nothing is lost and nothing made over many lives of hair: bought, promised, hung, spoilt, put
// right, taken off, saved, used again, with plans and clients deleted in between.
func TestHairIsConservedOverItsLife(t *testing.T) {
	const lives = 20
	start := startOf(t, "")
	for studio := range *studios {
		t.Run(fmt.Sprint(studio), func(t *testing.T) {
			t.Parallel()
			s := fresh(t)
			d := draft(t, "A head", "Odalys", plan.Default())
			for n := range lives {
				l := &life{t: t, s: s, r: rand.New(rand.NewPCG(uint64(studio), uint64(n))), draft: d, start: start}
				piece := someItem(fmt.Sprintf("Driftline %d", n))
				piece.Line = piece.Name // pieces of one line stand in for each other
				item, err := s.CreateItem(t.Context(), uuid.NewString(), ItemDraft{Item: piece})
				require.NoError(t, err)
				l.item = item.ID
				l.claim = Claim{Key: "p1", Item: item.ID, Colour: "Peat", Pieces: 30}
				l.buy()
				l.begin()
				steps := []func(){l.buy, l.give, l.settle, l.settle, l.settle, l.save, l.save, l.save, l.begin, l.forget, l.part}
				for range 14 {
					steps[l.r.IntN(len(steps))]()
				}
				l.holds(n)
			}
		})
	}
}

// What comes of an id that is used: the same again is the same, and another is refused.
func TestAUsedIDIsNotAnother(t *testing.T) {
	t.Parallel()
	s, item, lot := stocked(t, 2)
	move := MoveDraft{ID: uuid.NewString(), Kind: supply.Used, Stock: supply.Stock{Loose: 3}, By: "Odalys"}
	_, err := s.Move(t.Context(), lot.ID, move)
	require.NoError(t, err)
	again, err := s.Move(t.Context(), lot.ID, move)
	require.NoError(t, err)
	assert.Equal(t, 37, again.Pieces(20))
	move.Stock.Loose = 5
	_, err = s.Move(t.Context(), lot.ID, move)
	assert.ErrorIs(t, err, ErrStale)

	draft := LotDraft{ID: uuid.NewString(), Item: item.ID, Lot: supply.Lot{Colour: "Ash", Pack: 20, Condition: supply.New}}
	first := MoveDraft{ID: uuid.NewString(), Kind: supply.Bought, Stock: supply.Stock{Packs: 1}, By: "Odalys"}
	for range 2 {
		_, err = s.AddLot(t.Context(), draft, first)
		require.NoError(t, err)
	}
	first.Stock.Packs = 2
	_, err = s.AddLot(t.Context(), draft, first)
	assert.ErrorIs(t, err, ErrStale)
	_, err = s.Move(t.Context(), draft.ID, MoveDraft{ID: move.ID, Kind: supply.Used, Stock: supply.Stock{Loose: 3}})
	assert.ErrorIs(t, err, ErrStale, "a move of another lot")
	draft.Lot.Colour = "Peat"
	_, err = s.AddLot(t.Context(), draft, first)
	assert.ErrorIs(t, err, ErrStale)

	_, err = s.StartInstall(t.Context(), "install-1", startOf(t, planned(t, s)))
	require.NoError(t, err)
	_, err = s.StartInstall(t.Context(), "install-1", startOf(t, planned(t, s)))
	assert.ErrorIs(t, err, ErrStale, "another plan's install")
	require.NoError(t, s.DeleteInstall(t.Context(), "install-1"))
	_, err = s.StartInstall(t.Context(), "install-1", startOf(t, planned(t, s)))
	assert.ErrorIs(t, err, ErrNotFound, "a deleted one's id")
}

// A quote's number is used once, though its client and it are gone, and papers are made while others write.
func TestQuoteNumbersAreUsedOnce(t *testing.T) {
	t.Parallel()
	s := fresh(t)
	c, err := s.CreateClient(t.Context(), uuid.NewString(), ClientDraft{Name: "The cellist", Facts: client.New()})
	require.NoError(t, err)
	var at []int
	give := func(client string) Quote {
		q, err := s.GiveQuote(t.Context(), uuid.NewString(), QuoteDraft{ClientID: client, Record: Record{Input: []byte(`{}`), Places: []byte(`{}`)}, Parted: []byte("x"), Draped: []byte("x"), Paper: func(n int) ([]byte, error) {
			at = append(at, n)
			_, err := s.CreateItem(t.Context(), uuid.NewString(), ItemDraft{Item: someItem("Somebody writes meanwhile")})
			return []byte("%PDF"), err
		}})
		require.NoError(t, err)
		return q
	}
	assert.Equal(t, 1, give("").Number)
	assert.Equal(t, 2, give(c.ID).Number)
	require.NoError(t, s.DeleteClient(t.Context(), c.ID))
	assert.Equal(t, 3, give("").Number)
	assert.Equal(t, []int{1, 2, 3}, at)

	// Those given at once get numbers of their own.
	var wait sync.WaitGroup
	var mu sync.Mutex
	numbers := map[int]bool{}
	for range 8 {
		wait.Go(func() {
			q, err := s.GiveQuote(t.Context(), uuid.NewString(), QuoteDraft{Record: Record{Input: []byte(`{}`), Places: []byte(`{}`)}, Parted: []byte("x"), Draped: []byte("x"), Paper: func(n int) ([]byte, error) {
				return fmt.Appendf(nil, "%d", n), nil
			}})
			if assert.NoError(t, err) {
				mu.Lock()
				defer mu.Unlock()
				numbers[q.Number] = true
				_, paper, err := s.QuoteFile(t.Context(), q.ID, QuotePaper)
				assert.NoError(t, err)
				assert.Equal(t, fmt.Sprint(q.Number), string(paper))
			}
		})
	}
	wait.Wait()
	assert.Equal(t, []int{4, 5, 6, 7, 8, 9, 10, 11}, slices.Sorted(maps.Keys(numbers)))
	_, err = s.GiveQuote(t.Context(), uuid.NewString(), QuoteDraft{Paper: func(int) ([]byte, error) { return nil, errors.New("no ink") }})
	assert.ErrorContains(t, err, "no ink")
}

// A plan that goes on to another client leaves behind what was the first one's.
func TestAPlanThatGoesOnLeavesTheFirstClientBehind(t *testing.T) {
	t.Parallel()
	s, _, lot := stocked(t, 2)
	from, err := s.CreateClient(t.Context(), uuid.NewString(), ClientDraft{Name: "The cellist", Facts: client.New()})
	require.NoError(t, err)
	to, err := s.CreateClient(t.Context(), uuid.NewString(), ClientDraft{Name: "The pilot", Facts: client.New()})
	require.NoError(t, err)
	d := draft(t, "The cellist", "Odalys", plan.Default())
	d.ClientID = from.ID
	pinned := plan.Default()
	d.Variants = []Variant{{Name: "The cellist, sore scalp", Input: &pinned}}
	p, err := s.CreatePlan(t.Context(), uuid.NewString(), d)
	require.NoError(t, err)
	_, err = s.KeepMessage(t.Context(), Message{ID: "message-1", PlanID: p.ID, ClientID: from.ID, Kind: "care", To: "The cellist"})
	require.NoError(t, err)
	_, err = s.Move(t.Context(), lot.ID, MoveDraft{ID: "move-1", Kind: supply.Used, Stock: supply.Stock{Loose: 1}, PlanID: p.ID, Reason: "for the cellist"})
	require.NoError(t, err)

	d.ClientID, d.Title = to.ID, "The pilot"
	p, err = s.SavePlan(t.Context(), p.ID, p.Version, d)
	require.NoError(t, err)
	assert.Empty(t, p.Variants)
	versions, err := s.Versions(t.Context(), p.ID)
	require.NoError(t, err)
	assert.Len(t, versions, 1)
	sent, err := s.Messages(t.Context(), p.ID)
	require.NoError(t, err)
	assert.Empty(t, sent)
	moves, err := s.StashMoves(t.Context(), lot.ID)
	require.NoError(t, err)
	for _, m := range moves {
		assert.Empty(t, m.Plan)
		assert.Empty(t, m.Reason)
	}
	held, err := s.Dossier(t.Context(), from.ID)
	require.NoError(t, err)
	assert.Len(t, held.Messages, 1, "it stays with the client it was for")
	held, err = s.Dossier(t.Context(), to.ID)
	require.NoError(t, err)
	assert.Empty(t, held.Messages)
}

// An entry is put right by who wrote it or who may delete it, keeps its kind and who wrote it, and what it
// was is kept until it is deleted.
func TestEntriesAreTheirsWhoWroteThem(t *testing.T) {
	t.Parallel()
	s, _, _, w := hungHead(t)
	put := func(kind wear.Kind, text, by string, who Writer) error {
		return s.PutEntry(t.Context(), w, wear.Entry{ID: "entry-1234", On: "2026-12-01", Kind: kind, Text: text, By: by}, who, time.Now(), nil)
	}
	odalys, ikaika := Writer{Person: "odalys", Deletes: true}, Writer{Person: "ikaika"}
	require.NoError(t, put(wear.Noted, "Sore at the nape", "Odalys", odalys))
	require.NoError(t, put(wear.Noted, "Sore at the nape", "Ikaika", ikaika), "the same again")
	assert.ErrorIs(t, put(wear.Noted, ".", "Ikaika", ikaika), ErrNotYours)
	assert.ErrorIs(t, put(wear.Down, "Sore at the nape", "Odalys", odalys), ErrOtherKind)
	require.NoError(t, put(wear.Noted, "Sore behind the ear", "Tamsin", Writer{Person: "tamsin", Deletes: true}))
	entries, err := readEntries(t.Context(), s.read, w.ID)
	require.NoError(t, err)
	require.Len(t, entries, 1)
	assert.Equal(t, "Odalys", entries[0].By)
	past := func() (n int) {
		require.NoError(t, s.reads.QueryRow(`SELECT count(*) FROM wear_entry_past WHERE document LIKE '%nape%'`).Scan(&n))
		return n
	}
	assert.Equal(t, 1, past())
	require.NoError(t, s.DropEntry(t.Context(), w.ID, "entry-1234", "Odalys"))
	assert.Zero(t, past())

	for n := range MostEntries {
		_, err := s.writes.Exec(`INSERT INTO wear_entry (install_id, id, on_day, kind, document, received_at) VALUES (?, ?, '2026-12-01', 'noted', '{}', ?)`, w.ID, fmt.Sprint(n), stampOf(time.Now()))
		require.NoError(t, err)
	}
	assert.ErrorIs(t, put(wear.Noted, "one more", "Odalys", odalys), ErrTooMany)
}

// What is kept no longer goes wherever it stands: looks and notes, what a taking down says of scalp and edges, what
// was answered at the chair. What was done stays.
func TestForgettingLeavesNoHealthNotes(t *testing.T) {
	t.Parallel()
	s, _, _, w := hungHead(t)
	now := time.Now()
	for _, e := range []wear.Entry{
		{ID: "look-123456", Kind: wear.Checked, Signs: map[string]wear.Grade{"sores": wear.Bad}},
		{ID: "down-123456", Kind: wear.Down, Text: "open sores, bald patch", Felt: wear.Painful, Edges: wear.Worse, Length: 100, Saved: []wear.Saved{{Piece: "p1", Good: 4}}},
	} {
		e.On = now.Format(time.DateOnly)
		require.NoError(t, s.PutEntry(t.Context(), w, e, Writer{Deletes: true}, now, nil))
	}
	require.NoError(t, s.Tell(t.Context(), w.ID, Telling{Most: 100, Events: []chair.Event{
		{ID: "answered-1", N: 5, At: now.UnixMilli(), Kind: chair.Answered, Text: "half", Answer: chair.Hurts}, {ID: "noted-1234", N: 6, At: now.UnixMilli(), Kind: chair.Noted, Text: "bald patch"},
	}, Settle: func(Install, []chair.Event) (Settlement, error) {
		return Settlement{Over: true, At: now.AddDate(0, 0, -40), Log: chair.Log{Notes: []chair.Note{{Text: "bald patch"}}, Felt: map[string]chair.Answer{"half": chair.Hurts}}}, nil
	}}))
	_, notes, err := s.Forget(t.Context(), time.Time{}, now)
	require.NoError(t, err)
	assert.Positive(t, notes)
	got, err := s.WornHead(t.Context(), w.ID)
	require.NoError(t, err)
	require.Len(t, got.Entries, 1)
	assert.False(t, got.Entries[0].Health())
	assert.Equal(t, []wear.Saved{{Piece: "p1", Good: 4}}, got.Entries[0].Saved)
	assert.Empty(t, got.Log.Notes)
	assert.Empty(t, got.Log.Felt)
	told, err := s.Received(t.Context(), w.ID, 0)
	require.NoError(t, err)
	for _, e := range told.Events {
		assert.Empty(t, e.Text)
		assert.Empty(t, e.Answer)
	}
}

// Fifty thousand lots are read in without a look at each other, and once more they change nothing.
func TestManyLotsAreReadIn(t *testing.T) {
	t.Parallel()
	s, item, _ := stocked(t, 1)
	puts := make([]LotPut, 5000)
	for n := range puts {
		puts[n] = LotPut{
			LotDraft{ID: fmt.Sprintf("lot-%06d", n), Item: item.ID, Lot: supply.Lot{Colour: "Peat", Pack: 20, Condition: supply.New}},
			MoveDraft{ID: fmt.Sprintf("move-%06d", n), Kind: supply.Bought, Stock: supply.Stock{Packs: 1, Loose: 2}, By: "Odalys"},
		}
	}
	for range 2 {
		require.NoError(t, s.PutLots(t.Context(), puts, func(int) error { return nil }))
		lots, err := s.EveryLot(t.Context())
		require.NoError(t, err)
		require.Len(t, lots, 5001)
		assert.Equal(t, 22, lots[4000].Pieces(20))
	}
	gone := errors.New("nobody waits any more")
	puts[0].Lot.ID = "lot-of-nobody"
	assert.ErrorIs(t, s.PutLots(t.Context(), puts[:1], func(int) error { return gone }), gone)
	lots, err := s.EveryLot(t.Context())
	require.NoError(t, err)
	assert.Len(t, lots, 5001)
}

// Who signs out is out, though nothing can be written.
func TestSigningOutNeedsNoRoomOnTheDisk(t *testing.T) {
	t.Parallel()
	s := fresh(t)
	x := s.Sessions()
	require.NoError(t, x.CommitCtx(t.Context(), "token", []byte("x"), time.Now().Add(time.Hour)))
	_, err := s.writes.Exec(`PRAGMA query_only = ON`)
	require.NoError(t, err)
	require.NoError(t, x.DeleteCtx(t.Context(), "token"))
	_, there, err := x.FindCtx(t.Context(), "token")
	require.NoError(t, err)
	assert.False(t, there)
}
