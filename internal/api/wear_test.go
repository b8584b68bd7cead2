package api

import (
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	rfc5545 "github.com/emersion/go-ical"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/client"
	"kladotex/core/hair"
	"kladotex/core/house"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/core/wear"
	"kladotex/internal/standin"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// planFor stores a plan for a client.
func (s tester) planFor(title, clientID string, in plan.Input) (p planDocument) {
	s.t.Helper()
	res := s.send("POST", "/api/v1/plans", anew(text(s.t, map[string]any{"title": title, "clientId": clientID, "input": in})))
	require.Equal(s.t, http.StatusCreated, res.StatusCode, string(res.body))
	res.json(s.t, &p)
	return p
}

// done has a plan worked at the chair, to an end days ago to the minute.
func (s tester) done(planID string, days int) string {
	s.t.Helper()
	s.safe(planID)
	ended := time.Now().AddDate(0, 0, -days)
	use, err := studio.Open(s.t.Context(), s.store, standin.World())
	require.NoError(s.t, err)
	i, err := use.StartInstall(s.t.Context(), store.Person{Name: "Odalys"}, studio.Start{ID: uuid.NewString(), PlanID: planID, At: ended.Add(-20 * time.Hour)})
	require.NoError(s.t, err)
	long := time.Minute
	for _, task := range i.Brief.Tasks {
		long += time.Duration(task.Minutes[0] * float64(time.Minute))
	}
	events := worked(i.Brief, i.Brief.Hands[0].Key, 1, ended.Add(-long))
	for part := range slices.Chunk(events, 400) {
		s.tell(i.ID, 0, part...)
	}
	return i.ID
}

// wear reads a head.
func (s tester) wear(id string) (d wornDocument) {
	s.t.Helper()
	res := s.send("GET", "/api/v1/installs/"+id+"/wear", "")
	require.Equal(s.t, http.StatusOK, res.StatusCode, string(res.body))
	res.json(s.t, &d)
	return d
}

// put keeps an entry of a head, of today unless it says another day.
func (s tester) put(id string, e wear.Entry) answer {
	s.t.Helper()
	if e.ID == "" {
		e.ID = uuid.NewString()
	}
	if e.On == "" {
		e.On = time.Now().Format(time.DateOnly)
	}
	return s.send("PUT", "/api/v1/installs/"+id+"/wear/"+e.ID, text(s.t, e))
}

// consent puts what a client agreed to on the card.
func (s tester) consent(c *clientDocument, given client.Consent) {
	s.t.Helper()
	c.Facts.Consent = given
	res := s.send("PUT", "/api/v1/clients/"+c.ID, text(s.t, ClientDraft{Name: c.Name, Facts: c.Facts}), "If-Match", etag(c.Version))
	require.Equal(s.t, http.StatusOK, res.StatusCode, string(res.body))
	res.json(s.t, c)
}

// lots are what lies in the stash, those with nothing left too.
func (s tester) lots() []lotDocument {
	s.t.Helper()
	var page pageOf[lotDocument]
	s.send("GET", "/api/v1/stash?empty=true", "").json(s.t, &page)
	return page.Items
}

// pieces are those of all lots worn so often.
func (s tester) pieces(round int) (n int) {
	for _, l := range s.lots() {
		if l.Lot.Round == round {
			n += l.Pieces
		}
	}
	return n
}

// A worn head: its clock, a look that needs consent, a repair out of the stash, the ring done again from
// it, the taking down, what came back for that client alone, and a ledger that closes.
func TestAHeadFromTheLastLookToTheStash(t *testing.T) {
	t.Parallel()
	s := open(t)
	var me me
	s.send("GET", "/api/v1/session", "").json(t, &me)
	item := s.adopt("D-18")
	s.send("POST", "/api/v1/stash", anew(text(t, map[string]any{
		"item": item.ID, "lot": supply.Lot{Colour: "Peat", Pack: 20, Condition: supply.New}, "packs": 8, "loose": 0,
	})))
	c := s.newClient("Ysolde Abarinwe")
	in := plan.Default()
	in.Parting.Structure = parting.EarToEar
	in.Pieces = []hair.Piece{item.Item.Piece("p1", item.ID, "Peat")}
	in.Day = &plan.Day{Hands: []plan.Hand{{Key: "first", Person: me.ID, Name: me.Name, Hand: pace.Practised, Does: plan.DoesBoth}}}
	p := s.planFor("The cellist", c.ID, in)
	id := s.done(p.ID, 35)
	var list []WornEntry
	s.send("GET", "/api/v1/wear", "").json(t, &list)
	require.Len(t, list, 1)
	assert.Equal(t, 35, list[0].Clock.Day)
	assert.InDelta(t, 35*0.256, list[0].Grown, 0.01)
	h := s.wear(id)
	hung := h.Pieces[0].Hung
	left := s.pieces(0)
	assert.Equal(t, 160-hung, left)
	assert.NotEmpty(t, h.Head.Layout.IDs)
	assert.Equal(t, 2, h.Pieces[0].Rounds)

	// Health notes need consent; withheld, they are refused again.
	look := wear.Entry{Kind: wear.Checked, Signs: map[string]wear.Grade{"loose": wear.Some}}
	refused := s.put(id, look)
	assert.Equal(t, http.StatusUnprocessableEntity, refused.StatusCode)
	assert.Contains(t, string(refused.body), "only with consent")
	s.consent(&c, client.Consent{Given: true, On: "2026-10-02", Withheld: []client.Keeping{client.KeepHealth, client.KeepPhotos}})
	assert.Equal(t, http.StatusUnprocessableEntity, s.put(id, look).StatusCode)
	photo := s.send("PUT", "/api/v1/installs/"+id+"/photos/"+uuid.NewString()+"?asked=true", "no picture", "Content-Type", "image/jpeg")
	assert.Contains(t, string(photo.body), "did not agree to pictures")
	s.consent(&c, client.Consent{Given: true, On: "2026-10-02"})
	require.Equal(t, http.StatusOK, s.put(id, look).StatusCode)
	h = s.wear(id)
	require.Len(t, h.Advice, 1)
	assert.Equal(t, wear.PutBack, h.Advice[0].Do)

	// Two are replaced out of the stash: told twice they are taken once, taken back they lie there again.
	mend := wear.Entry{ID: uuid.NewString(), Kind: wear.Replaced, Piece: "p1", Count: 2}
	require.Equal(t, http.StatusOK, s.put(id, mend).StatusCode)
	require.Equal(t, http.StatusOK, s.put(id, mend).StatusCode)
	assert.Equal(t, left-2, s.pieces(0))
	mend.Count = 3
	require.Equal(t, http.StatusOK, s.put(id, mend).StatusCode, "put right")
	assert.Equal(t, left-3, s.pieces(0))
	require.Equal(t, http.StatusOK, s.send("DELETE", "/api/v1/installs/"+id+"/wear/"+mend.ID, "").StatusCode)
	assert.Equal(t, left, s.pieces(0))
	mend.ID, mend.Count = uuid.NewString(), 2
	require.Equal(t, http.StatusOK, s.put(id, mend).StatusCode)
	assert.Empty(t, s.wear(id).Advice, "what was loose is put right")

	// The ring again: a plan made from this one, from the stash, at the chair; the head is told.
	before := s.wear(id)
	require.NotEmpty(t, before.Renewals)
	var begun PlanDraft
	s.send("GET", "/api/v1/begin?renews="+id+"&rows=1", "").json(t, &begun)
	assert.Equal(t, c.ID, begun.ClientID)
	assert.True(t, begun.Input.ReuseFirst)
	ring := s.planFor(begun.Title, begun.ClientID, begun.Input)
	again := s.done(ring.ID, 0)
	after := s.wear(id)
	assert.Equal(t, left-2-before.Renewals[0].Pieces, s.pieces(0))
	assert.Equal(t, before.Clock.Planned+21, after.Clock.Planned)
	assert.True(t, slices.ContainsFunc(after.Entries, func(e wear.Entry) bool { return e.Kind == wear.Renewed && e.Of == again }))
	s.send("GET", "/api/v1/wear", "").json(t, &list)
	assert.Len(t, list, 1, "the ring is no head of its own")

	// Taken down: what is saved comes back a round older, for this client.
	down := wear.Entry{ID: uuid.NewString(), Kind: wear.Down, Saved: []wear.Saved{{Piece: "p1", Good: 40, Worn: 5}}, Felt: wear.Comfortable, Edges: wear.Same, Minutes: 95, Length: 170}
	require.Equal(t, http.StatusOK, s.put(id, down).StatusCode)
	require.Equal(t, http.StatusOK, s.put(id, down).StatusCode)
	assert.Equal(t, 45, s.pieces(1))
	assert.Equal(t, http.StatusUnprocessableEntity, s.put(id, wear.Entry{Kind: wear.Down}).StatusCode, "down once")
	h = s.wear(id)
	assert.Len(t, h.Back, 2)
	for _, a := range h.Account {
		assert.Equal(t, a.Came, a.Hangs+a.UsedUp+a.Spoilt+a.Saved+a.Left)
		assert.Equal(t, 45, a.Saved)
		assert.Zero(t, a.Hangs)
		assert.Positive(t, a.Price)
	}
	s.send("GET", "/api/v1/wear", "").json(t, &list)
	assert.Empty(t, list)

	// Another client is never offered them; this one gets them first where the plan asks to.
	in.ReuseFirst = true
	fromStash := func(p planDocument) (worn int) {
		var shop studio.Shopping
		s.send("POST", "/api/v1/shopping?plan="+p.ID, text(t, p.Input)).json(t, &shop)
		for _, take := range shop.Lines[0].Lots {
			for _, l := range s.lots() {
				if l.ID == take.Lot && l.Lot.Round > 0 {
					worn += take.Pieces
				}
			}
		}
		return worn
	}
	assert.Equal(t, 45, fromStash(s.planFor("Once more", c.ID, in)))
	assert.Zero(t, fromStash(s.planFor("Someone else", s.newClient("Hesper Dunmorrow").ID, in)))

	// The year closes, in pieces and in money.
	var year studio.Year
	s.send("GET", "/api/v1/ledger/"+time.Now().Format("2006"), "").json(t, &year)
	require.Len(t, year.Items, 1)
	assert.True(t, year.All.Closes())
	assert.True(t, year.Money.Closes())
	assert.Equal(t, 160, year.All.Bought)
	assert.Equal(t, 45, year.All.Saved)
	assert.Equal(t, 45, year.All.LeftSaved)

	// The next plan is offered what worked.
	var over pastHeads
	s.send("GET", "/api/v1/clients/"+c.ID+"/heads", "").json(t, &over)
	require.Len(t, over.Heads, 1)
	require.NotNil(t, over.Worked)
	assert.Equal(t, p.ID, over.Worked.PlanID)
	assert.Contains(t, over.Worked.Keep[0], "comfortable")
	assert.InDelta(t, 170, over.Heads[0].Length, 0)

	// Taken back it is worn again, and nothing of it lies in the stash.
	require.Equal(t, http.StatusOK, s.send("DELETE", "/api/v1/installs/"+id+"/wear/"+down.ID, "").StatusCode)
	assert.Zero(t, s.pieces(1))
	s.send("GET", "/api/v1/wear", "").json(t, &list)
	assert.Len(t, list, 1)
}

// ownHead is a finished head of nobody on file, days old.
func (s tester) ownHead(days int) string {
	in := plan.Default()
	in.Parting.Structure = parting.EarToEar
	in.OwnHead = true
	return s.done(s.newPlan("Own head", in).ID, days)
}

// Who knows the address reads the care and its days, and nothing else; a guess, a revoked one, one that
// was replaced and one that ran out are all answered alike, and guessing is slowed.
func TestCareIsReadByWhoKnowsItsAddress(t *testing.T) {
	t.Parallel()
	s := open(t)
	c := s.newClient("Ysolde Abarinwe")
	in := plan.Default()
	in.Parting.Structure = parting.EarToEar
	id := s.done(s.planFor("Chamber evenings", c.ID, in).ID, 5)
	hand := func() (l careLink) {
		s.send("POST", "/api/v1/installs/"+id+"/care-link", "").json(t, &l)
		return l
	}
	link := hand()
	assert.Greater(t, len(strings.TrimPrefix(link.Path, carePath)), 24, "128 bits and more")
	stranger := s.stranger()
	page := stranger.send("GET", link.Path, "")
	require.Equal(t, http.StatusOK, page.StatusCode)
	assert.Equal(t, "noindex, nofollow", page.Header.Get("X-Robots-Tag"))
	assert.Equal(t, "no-store", page.Header.Get("Cache-Control"))
	assert.Contains(t, page.Header.Get("Content-Security-Policy"), "default-src 'none'")
	body := string(page.body)
	assert.Contains(t, body, "The care of your hair")
	assert.Contains(t, body, `name="robots" content="noindex`)
	assert.NotContains(t, body, "<script")
	for _, other := range []string{"Ysolde", "Abarinwe", "Chamber evenings", id, "Odalys", "/api/"} {
		assert.NotContains(t, body, other)
	}
	days := stranger.send("GET", link.Path+"/days.ics", "")
	require.Equal(t, http.StatusOK, days.StatusCode)
	calendar, err := rfc5545.NewDecoder(strings.NewReader(string(days.body))).Decode()
	require.NoError(t, err)
	assert.Greater(t, len(calendar.Events()), 4)
	assert.NotContains(t, string(days.body), "Ysolde")

	// The address opens nothing but itself.
	for _, path := range []string{"/api/v1/installs/" + id + "/wear", "/api/v1/installs/" + id + "/care.pdf", "/api/v1/clients/" + c.ID, "/api/v1/feeds/" + strings.TrimPrefix(link.Path, carePath) + "/calendar.ics"} {
		assert.Contains(t, []int{http.StatusUnauthorized, http.StatusNotFound}, stranger.send("GET", path, "").StatusCode, path)
	}

	// Replaced, revoked, run out: all are answered like a guess.
	gone := func(path string) string {
		a := stranger.send("GET", path, "")
		assert.Equal(t, http.StatusNotFound, a.StatusCode, path)
		return string(a.body)
	}
	second := hand()
	guess := gone(carePath + "AAAAAAAAAAAAAAAAAAAAAAAAAA")
	assert.Equal(t, guess, gone(link.Path))
	assert.Equal(t, http.StatusNoContent, s.send("DELETE", "/api/v1/installs/"+id+"/care-link", "").StatusCode)
	assert.Equal(t, guess, gone(second.Path))
	require.NoError(t, s.store.SetCareLink(t.Context(), id, store.CareLink{Secret: "RANOUTRANOUTRANOUTRANOUT", Until: time.Now().AddDate(0, 0, -2).Format(time.DateOnly)}))
	assert.Equal(t, guess, gone(carePath+"RANOUTRANOUTRANOUTRANOUT"))

	// Reading costs no tries; guessing runs out of them.
	open := hand()
	for range 2 * addressBurst {
		require.Equal(t, http.StatusOK, stranger.send("GET", open.Path, "").StatusCode)
	}
	slowed := false
	for range addressBurst + 1 {
		slowed = slowed || stranger.send("GET", carePath+uuid.NewString(), "").StatusCode == http.StatusTooManyRequests
	}
	assert.True(t, slowed)
}

// The sheet is a PDF, the days are read by a calendar, and the studio's calendar has the taking down.
func TestCareOnPaperAndInCalendars(t *testing.T) {
	t.Parallel()
	s := open(t)
	id := s.ownHead(3)
	paper := s.send("GET", "/api/v1/installs/"+id+"/care.pdf?paper=a4", "")
	assert.True(t, strings.HasPrefix(string(paper.body), "%PDF"))
	days, err := rfc5545.NewDecoder(strings.NewReader(string(s.send("GET", "/api/v1/installs/"+id+"/care.ics", "").body))).Decode()
	require.NoError(t, err)
	due := s.wear(id).Due
	last := days.Events()[len(days.Events())-1]
	at, err := last.DateTimeStart(time.UTC)
	require.NoError(t, err)
	assert.Equal(t, due, at.Format(time.DateOnly))
	assert.Contains(t, string(s.send("GET", "/api/v1/calendar.ics", "").body), "Own head: take down")
}

// What the house rules keep no longer is deleted; what is held is handed out; a deleted install and a
// deleted client leave nothing behind.
func TestWhatIsKeptOfAHeadCanGo(t *testing.T) {
	t.Parallel()
	s := open(t)
	c := s.newClient("Ysolde Abarinwe")
	s.consent(&c, client.Consent{Given: true, On: "2026-10-02"})
	in := plan.Default()
	in.Parting.Structure = parting.EarToEar
	id := s.done(s.planFor("Chamber evenings", c.ID, in).ID, 40)
	young := s.ownHead(3)
	for _, head := range []string{id, young} {
		require.Equal(t, http.StatusOK, s.put(head, wear.Entry{Kind: wear.Checked, Signs: map[string]wear.Grade{"itching": wear.Some}, Text: "under the cap"}).StatusCode)
		require.NoError(t, s.store.KeepPhoto(t.Context(), head, uuid.NewString(), []byte("a picture"), "Odalys"))
		require.Equal(t, http.StatusOK, s.put(head, wear.Entry{Kind: wear.Mended, Piece: "p1", Count: 1}).StatusCode)
	}
	held := string(s.send("GET", "/api/v1/clients/"+c.ID+"/export", "").body)
	assert.Contains(t, held, "under the cap")
	assert.Contains(t, held, `"kind": "put-back"`)

	pictures, notes, err := studio.Keep(t.Context(), s.store, time.Now())
	require.NoError(t, err)
	assert.Zero(t, pictures+notes, "kept until they are deleted")
	s.setHouse(func(r *house.Rules) { r.Keeps = &house.Keeps{Photos: 1, Health: 1} })
	pictures, notes, err = studio.Keep(t.Context(), s.store, time.Now())
	require.NoError(t, err)
	assert.Equal(t, []int64{1, 1}, []int64{pictures, notes}, "of the older head alone")
	assert.Len(t, s.wear(id).Entries, 1, "what was done stays, what was seen is gone")
	assert.Len(t, s.wear(young).Entries, 2)

	apprentice := s.as(store.Apprentice)
	assert.Equal(t, http.StatusForbidden, apprentice.send("DELETE", "/api/v1/installs/"+young, "").StatusCode)
	assert.Equal(t, http.StatusOK, s.send("DELETE", "/api/v1/installs/"+young, "").StatusCode)
	assert.Equal(t, http.StatusNotFound, s.send("GET", "/api/v1/installs/"+young+"/wear", "").StatusCode)
	s.send("POST", "/api/v1/installs/"+id+"/care-link", "")
	assert.Equal(t, http.StatusOK, s.send("DELETE", "/api/v1/clients/"+c.ID, "").StatusCode)
	assert.Equal(t, http.StatusNotFound, s.send("GET", "/api/v1/installs/"+id+"/wear", "").StatusCode)
	link, err := s.store.CareLink(t.Context(), id)
	require.NoError(t, err)
	assert.Empty(t, link.Secret)
}

// Two lengths of one line and colour on a head are booked apart, and come back apart.
func TestTwoLengthsOfALineAreBookedApart(t *testing.T) {
	t.Parallel()
	s := open(t)
	short, long := s.adopt("D-18"), s.adopt("D-24")
	in := plan.Default()
	in.Parting.Structure = parting.EarToEar
	in.Pieces = []hair.Piece{short.Item.Piece("front", short.ID, "Peat"), long.Item.Piece("back", long.ID, "Peat")}
	in.Uses[0].Piece, in.Uses[1].Piece, in.Fill.Piece = "front", "back", "front"
	for _, item := range []string{short.ID, long.ID} {
		s.send("POST", "/api/v1/stash", anew(text(t, map[string]any{"item": item, "lot": supply.Lot{Colour: "Peat", Pack: 20, Condition: supply.New}, "packs": 6, "loose": 0})))
	}
	id := s.done(s.newPlan("Two lengths", in).ID, 40)
	left := func(item string, round int) (n int) {
		for _, l := range s.lots() {
			if l.Item == item && l.Lot.Round == round {
				n += l.Pieces
			}
		}
		return n
	}
	h := s.wear(id)
	require.Len(t, h.Pieces, 2)
	assert.Equal(t, 120-h.Pieces[0].Hung, left(short.ID, 0))
	assert.Equal(t, 120-h.Pieces[1].Hung, left(long.ID, 0))
	require.Equal(t, http.StatusOK, s.put(id, wear.Entry{Kind: wear.Down, Saved: []wear.Saved{{Piece: "back", Good: 30, Worn: 4}}}).StatusCode)
	assert.Equal(t, 34, left(long.ID, 1))
	assert.Zero(t, left(short.ID, 1))
}

// An apprentice writes down what they see and deletes nothing; a stranger sees nothing at all; what
// cannot be is refused; a look that found nothing moves the next check alone.
func TestWhoMayWriteOfAHead(t *testing.T) {
	t.Parallel()
	s := open(t)
	id := s.ownHead(10)
	now := s.wear(id)
	apprentice := s.as(store.Apprentice)
	look := wear.Entry{ID: uuid.NewString(), Kind: wear.Checked, Signs: map[string]wear.Grade{"pulling": wear.None}}
	require.Equal(t, http.StatusOK, apprentice.put(id, look).StatusCode)
	assert.Equal(t, "apprentice", s.wear(id).Entries[0].By)
	assert.Equal(t, http.StatusForbidden, apprentice.send("DELETE", "/api/v1/installs/"+id+"/wear/"+look.ID, "").StatusCode)
	for _, path := range []string{"/api/v1/wear", "/api/v1/installs/" + id + "/wear", "/api/v1/ledger/2026"} {
		assert.Equal(t, http.StatusUnauthorized, s.stranger().send("GET", path, "").StatusCode, path)
	}
	future := look
	future.ID, future.On = uuid.NewString(), time.Now().AddDate(0, 0, 9).Format(time.DateOnly)
	assert.Contains(t, string(s.put(id, future).body), "lies in the future")
	assert.Contains(t, string(s.put(id, wear.Entry{Kind: wear.Renewed, Rows: 1}).body), "done again at the chair")
	after := s.wear(id).Clock
	assert.Equal(t, now.Clock.Planned, after.Planned, "all was well")
	assert.Greater(t, after.Next, now.Clock.Next)
}
