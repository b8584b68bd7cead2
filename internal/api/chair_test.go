package api

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"math"
	"net/http"
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
	"kladotex/core/hours"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/core/tally"
	"kladotex/core/wear"
	"kladotex/internal/store"
)

// atChair starts an install of a plan.
func (s tester) atChair(planID string) (i installDocument) {
	s.t.Helper()
	s.safe(planID)
	res := s.send("POST", "/api/v1/plans/"+planID+"/install", `{"id":"`+uuid.NewString()+`","unit":"in","paper":"letter"}`)
	require.Equal(s.t, http.StatusCreated, res.StatusCode, string(res.body))
	res.json(s.t, &i)
	return i
}

// tell sends events and reads what arrived since.
func (s tester) tell(install string, after int64, events ...chair.Event) (t told) {
	s.t.Helper()
	if events == nil {
		events = []chair.Event{}
	}
	res := s.send("POST", "/api/v1/installs/"+install+"/events", text(s.t, tellRequest{after, events}))
	require.Equal(s.t, http.StatusOK, res.StatusCode, string(res.body))
	res.json(s.t, &t)
	return t
}

// worked are the events of a hand that does every task of an install, each times as long as
// planned.
func worked(b chair.Brief, hand string, times float64, from time.Time) []chair.Event {
	at := from.UnixMilli()
	out := []chair.Event{{Kind: chair.Began}}
	for _, task := range b.Tasks {
		at += int64(times * task.Minutes[0] * 60_000)
		out = append(out, chair.Event{Kind: chair.Done, Tasks: []string{task.Key}, At: at})
	}
	out[0].At = from.UnixMilli()
	out = append(out, chair.Event{Kind: chair.Ended, At: at + 60_000})
	for i := range out {
		out[i].ID, out[i].N, out[i].Hand = uuid.NewString(), i+1, hand
	}
	return out
}

// A plan at the chair: frozen, started once, not changed under anyone, told of by two, finished into
// the log and out of the stash, and learnt from.
func TestAnInstallFromTheFirstPartToTheLog(t *testing.T) {
	t.Parallel()
	s := open(t)
	var me me
	s.send("GET", "/api/v1/session", "").json(t, &me)
	item := s.adopt("D-18")
	res := s.send("POST", "/api/v1/stash", anew(text(t, map[string]any{
		"item": item.ID, "lot": supply.Lot{Colour: "Peat", Pack: 20, Condition: supply.New}, "packs": 9, "loose": 0,
	})))
	require.Equal(t, http.StatusCreated, res.StatusCode)
	in := plan.Default()
	in.Pieces = []hair.Piece{item.Item.Piece("p1", item.ID, "Peat")}
	in.Day = &plan.Day{Hands: []plan.Hand{{Key: "first", Person: me.ID, Name: me.Name, Hand: pace.Practised, Does: plan.DoesBoth}}}
	p := s.newPlan("The cellist", in)
	i := s.atChair(p.ID)
	assert.Equal(t, i.ID, s.atChair(p.ID).ID, "started again it is the same")
	assert.Equal(t, "first", i.Hand)
	assert.Len(t, i.Head.Layout.IDs, len(i.Brief.Places))
	assert.NotEmpty(t, i.How.Work[0].Steps)
	for _, paper := range []string{"plan-sheet.pdf", "day-sheet.pdf"} {
		assert.True(t, strings.HasPrefix(string(s.send("GET", "/api/v1/installs/"+i.ID+"/"+paper, "").body), "%PDF"), paper)
	}

	// The plan is not changed under it.
	changed := in
	changed.OwnHead = true
	refused := s.send("PUT", "/api/v1/plans/"+p.ID, draft(t, "The cellist", changed), "If-Match", `"1"`)
	assert.Equal(t, http.StatusConflict, refused.StatusCode)
	assert.Contains(t, string(refused.body), "Copy it")
	assert.Equal(t, http.StatusOK, s.send("PUT", "/api/v1/plans/"+p.ID, draft(t, "The cellist", in), "If-Match", `"1"`).StatusCode, "the same again changes nothing")

	// What an apprentice tells from a second device joins what the first one tells.
	events := worked(i.Brief, "first", 1.3, time.Now().Add(-9*time.Hour))
	half := len(events) / 2
	helper := s.as(store.Apprentice)
	first := helper.tell(i.ID, 0, events[half:len(events)-1]...)
	both := s.tell(i.ID, 0, events[:half]...)
	assert.Len(t, both.Events, len(events)-1)
	assert.Equal(t, both.Known, len(events)-1)
	again := s.tell(i.ID, first.Cursor, events[:half]...)
	assert.Len(t, again.Events, half, "only what arrived since")
	assert.Equal(t, both.Known, again.Known, "sent twice it is there once")
	var list []chairEntry
	s.send("GET", "/api/v1/installs", "").json(t, &list)
	require.Len(t, list, 1)
	assert.Equal(t, list[0].View.Watch.Of, list[0].View.Watch.Done)
	assert.Nil(t, list[0].View.Card)

	// Its end.
	spoilt := chair.Event{ID: uuid.NewString(), N: len(events) + 1, At: events[len(events)-1].At, Hand: "first", Kind: chair.Spoilt, Piece: "p1", Count: 3}
	end := s.tell(i.ID, again.Cursor, spoilt, events[len(events)-1])
	require.NotNil(t, end.Closed)
	s.send("GET", "/api/v1/installs", "").json(t, &list)
	assert.Empty(t, list)
	var page pageOf[loggedDocument]
	s.send("GET", "/api/v1/log", "").json(t, &page)
	require.Len(t, page.Items, 1)
	log := page.Items[0]
	onHead := i.Brief.Pieces[0].Need
	assert.Equal(t, []store.Taken{{Piece: i.Brief.Pieces[0].Called(), Used: log.Log.Pieces[0].Used, Spoilt: 3}}, log.Stash)
	var stash pageOf[lotDocument]
	s.send("GET", "/api/v1/stash", "").json(t, &stash)
	assert.Equal(t, 180-log.Log.Pieces[0].Used-3, stash.Items[0].Pieces)
	assert.LessOrEqual(t, log.Log.Pieces[0].Used, onHead)
	for _, st := range log.Log.Stages {
		assert.InEpsilon(t, 1.3, st.Actual/st.Planned, 0.02, st.Name)
	}

	// Told late, by a device that was away, it is brought up to date; the stash is not booked twice.
	late := spoilt
	late.ID, late.Count = uuid.NewString(), 2
	s.tell(i.ID, end.Cursor, late)
	s.send("GET", "/api/v1/stash", "").json(t, &stash)
	assert.Equal(t, 180-log.Log.Pieces[0].Used-5, stash.Items[0].Pieces)

	// Learnt from, with the evidence, and the next plan says so.
	var paces []learntPace
	s.send("GET", "/api/v1/paces", "").json(t, &paces)
	for _, skill := range paces[0].Skills {
		assert.Greater(t, skill.Factor, 1.0, skill.Name)
		assert.Less(t, skill.Factor, 1.3, skill.Name)
		assert.Len(t, skill.Lines, 1)
	}
	var begun struct{ Input plan.Input }
	s.send("GET", "/api/v1/begin", "").json(t, &begun)
	require.NotEmpty(t, begun.Input.Day.Hands[0].Logged)
	day := ask[hours.DayPlan](s, "/api/v1/day", begun.Input)
	assert.Contains(t, strings.Join(day.Says, " "), "Hours follow the log of Odalys")
	csv := string(s.send("GET", "/api/v1/log.csv", "").body)
	assert.Contains(t, csv, "Part and plait")
	assert.Contains(t, csv, i.Brief.Pieces[0].Name)

	// Taken back, it goes on and nothing of it is learnt.
	back := chair.Event{ID: uuid.NewString(), N: len(events) + 9, At: time.Now().UnixMilli(), Hand: "first", Kind: chair.Undone, Of: events[len(events)-1].ID}
	assert.Nil(t, s.tell(i.ID, 0, back).Closed)
	s.send("GET", "/api/v1/paces", "").json(t, &paces)
	assert.Empty(t, paces[0].Skills)
	assert.Equal(t, http.StatusNotFound, s.send("GET", "/api/v1/log/"+i.ID, "").StatusCode)
	s.send("GET", "/api/v1/stash", "").json(t, &stash)
	assert.Equal(t, 180, stash.Items[0].Pieces, "and nothing is out of the stash")
}

// stock is a line of the supplier's list with packs of it in the stash.
func (s tester) stock(number, colour string, packs int) itemDocument {
	s.t.Helper()
	item := s.adopt(number)
	res := s.send("POST", "/api/v1/stash", anew(text(s.t, map[string]any{
		"item": item.ID, "lot": supply.Lot{Colour: colour, Pack: item.Item.Pack.Units, Condition: supply.New}, "packs": packs, "loose": 0,
	})))
	require.Equal(s.t, http.StatusCreated, res.StatusCode, string(res.body))
	return item
}

// An end takes everything out of the stash that went on: pieces, wrapping hair, accents that are pieces,
// cuffs; once, though it is told late after the plan is gone; and cuffs that come back are those that went.
func TestAnEndTakesTheWholeBill(t *testing.T) {
	t.Parallel()
	s := open(t)
	loc, wrap, cuff, accent := s.stock("D-18", "Peat", 9), s.stock("MW-24", "Peat", 20), s.stock("TC-12", "Brass", 5), s.stock("SB-18", "Tar", 2)
	in := plan.Default()
	in.Parting.Structure = parting.EarToEar
	hair1, hair2, wrapping := loc.Item.Piece("p1", loc.ID, "Peat"), accent.Item.Piece("p2", accent.ID, "Tar"), wrap.Item.Wrapping(wrap.ID, "Peat")
	in.Pieces = []hair.Piece{hair1, hair2}
	way := plan.NewWay(in.Ways[0].Key, "W1")
	way.Wrapping = &wrapping
	in.Ways[0] = way
	everywhere := plan.Where{Kind: plan.Everywhere}
	in.Accents = []plan.Accent{
		{Piece: "p2", Where: everywhere, Count: 4},
		{Thing: &plan.Thing{Name: "Lantern cuffs", Mass: 0.6, Pack: 12, Item: cuff.ID, Colour: "Brass"}, Where: everywhere, Count: 10},
	}
	p := s.newPlan("The cellist", in)
	computed, err := tally.Compute(t.Context(), in)
	require.NoError(t, err)
	need := computed.Need
	lies := func() map[string]int {
		var stash pageOf[lotDocument]
		s.send("GET", "/api/v1/stash?empty=true", "").json(t, &stash)
		out := map[string]int{}
		for _, l := range stash.Items {
			out[l.Item] += l.Pieces
		}
		return out
	}
	before := lies()
	i := s.atChair(p.ID)
	events := worked(i.Brief, i.Hand, 1, time.Now().Add(-9*time.Hour))
	require.NotNil(t, s.tell(i.ID, 0, events...).Closed)
	after := lies()
	strands := 0
	for _, w := range need.Wraps {
		strands += w.Strands
	}
	require.Positive(t, strands)
	went := func(item itemDocument) int { return before[item.ID] - after[item.ID] }
	assert.Equal(t, need.Things[0].Count, went(cuff))
	assert.Equal(t, need.Pieces[1].Accents, went(accent))
	assert.Equal(t, need.Pieces[0].OnHead, went(loc))
	assert.Equal(t, strands, went(wrap))

	require.Equal(t, http.StatusNoContent, s.send("DELETE", "/api/v1/plans/"+p.ID, "").StatusCode)
	for n := range 3 {
		s.tell(i.ID, 0, chair.Event{ID: uuid.NewString(), N: 9000 + n, At: time.Now().UnixMilli(), Hand: i.Hand, Kind: chair.Noted, Text: "Told late"})
		assert.Equal(t, after, lies())
	}
	res := s.put(i.ID, wear.Entry{ID: uuid.NewString(), Kind: wear.Down, Things: []int{need.Things[0].Count}, Saved: []wear.Saved{{Piece: "p1", Good: 5}}})
	require.Equal(t, http.StatusOK, res.StatusCode, string(res.body))
	assert.Equal(t, before[cuff.ID], lies()[cuff.ID], "all cuffs are back, and no more")
	assert.Equal(t, after[loc.ID]+5, lies()[loc.ID])
}

// A clock that cannot be right is put right where it is told: nothing that is read afterwards fails.
func TestAnEndFarOutOfTimeBreaksNothing(t *testing.T) {
	t.Parallel()
	s := open(t)
	c := s.newClient("Ysolde Abarinwe")
	s.consent(&c, client.Consent{})
	for _, at := range []int64{time.Now().UnixMicro(), math.MaxInt64, math.MinInt64, 0} {
		p := s.planFor("The cellist", c.ID, plan.Default())
		i := s.atChair(p.ID)
		end := s.tell(i.ID, 0, chair.Event{ID: uuid.NewString(), N: 1, At: at, Hand: i.Hand, Kind: chair.Ended})
		require.NotNil(t, end.Closed)
		assert.WithinDuration(t, time.Now(), *end.Closed, 25*time.Hour)
		for _, path := range []string{
			"log", "log.csv", "log/" + i.ID, "wear", "installs/" + i.ID + "/wear", "installs/" + i.ID, "calendar.ics", "paces", "begin?client=" + c.ID, "clients/" + c.ID + "/held",
		} {
			assert.Less(t, s.send("GET", "/api/v1/"+path, "").StatusCode, 500, "%s at %d", path, at)
		}
	}
}

// Two devices that tell at the same time, each of them twice, lose nothing and double nothing.
func TestDevicesThatTellAtOnce(t *testing.T) {
	t.Parallel()
	s := open(t)
	i := s.atChair(s.newPlan("A ring", plan.Default()).ID)
	events := worked(i.Brief, "first", 1, time.Now())
	events = events[:len(events)-1]
	var wait sync.WaitGroup
	for device := range 4 {
		wait.Go(func() {
			for k := device % 2; k < len(events); k += 2 * 7 {
				var some []chair.Event
				for j := k; j < min(len(events), k+2*7); j += 2 {
					some = append(some, events[j])
				}
				res := s.send("POST", "/api/v1/installs/"+i.ID+"/events", text(t, tellRequest{0, some}))
				assert.Equal(t, http.StatusOK, res.StatusCode)
			}
		})
	}
	wait.Wait()
	all := s.tell(i.ID, 0)
	assert.Len(t, all.Events, len(events))
	assert.Equal(t, i.Brief.Fold(events).View(chair.Wish{Now: 1}), i.Brief.Fold(all.Events).View(chair.Wish{Now: 1}))
}

// A picture is kept only of one who was asked, small, and without what the device wrote into it.
func TestPicturesAreSmallAndSayNothingOfWhere(t *testing.T) {
	t.Parallel()
	s := open(t)
	i := s.atChair(s.newPlan("A ring", plan.Default()).ID)
	full := image.NewGray(image.Rect(0, 0, 3000, 2000))
	full.Set(9, 9, color.White)
	var taken bytes.Buffer
	require.NoError(t, jpeg.Encode(&taken, full, nil))
	// As a camera writes it: a block of facts behind the first two bytes.
	facts := "Exif\x00\x00GPSLatitude 51.5"
	file := taken.String()[:2] + "\xff\xe1" + string([]byte{0, byte(len(facts) + 2)}) + facts + taken.String()[2:]
	at := fmt.Sprintf("/api/v1/installs/%s/photos/%s", i.ID, uuid.NewString())
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("PUT", at, file, "Content-Type", "image/jpeg").StatusCode)
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("PUT", at+"?asked=true", "no picture", "Content-Type", "image/jpeg").StatusCode)
	for range 2 {
		assert.Equal(t, http.StatusNoContent, s.send("PUT", at+"?asked=true", file, "Content-Type", "image/jpeg").StatusCode)
	}
	kept := s.send("GET", at, "")
	require.Equal(t, http.StatusOK, kept.StatusCode)
	assert.NotContains(t, string(kept.body), "GPS")
	size, _, err := image.DecodeConfig(bytes.NewReader(kept.body))
	require.NoError(t, err)
	assert.Equal(t, 1280, size.Width)
	assert.Equal(t, 853, size.Height)
	assert.Equal(t, http.StatusForbidden, s.as(store.Apprentice).send("DELETE", at, "").StatusCode)
	assert.Equal(t, http.StatusNoContent, s.send("DELETE", at, "").StatusCode)
	assert.Equal(t, http.StatusNotFound, s.send("GET", at, "").StatusCode)
}

func TestBadEventsAreNamed(t *testing.T) {
	t.Parallel()
	s := open(t)
	i := s.atChair(s.newPlan("A ring", plan.Default()).ID)
	good := chair.Event{ID: uuid.NewString(), N: 1, At: 1, Hand: "first", Kind: chair.Began}
	bad := good
	bad.ID, bad.Kind = uuid.NewString(), chair.Spoilt
	res := s.send("POST", "/api/v1/installs/"+i.ID+"/events", text(t, tellRequest{0, []chair.Event{good, bad}}))
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, string(res.body), "body.events[1].kind")
	assert.Zero(t, s.tell(i.ID, 0).Known, "none of them was taken")
	assert.Equal(t, http.StatusNotFound, s.send("POST", "/api/v1/installs/none/events", text(t, tellRequest{0, []chair.Event{good}})).StatusCode)
	assert.Equal(t, http.StatusUnauthorized, s.stranger().send("GET", "/api/v1/installs/"+i.ID, "").StatusCode)
}

// What happened at the chair is in what is held about a client, and goes with them; a plan that is
// deleted takes none of it along.
func TestInstallsAreHeldAndGoWithTheirClient(t *testing.T) {
	t.Parallel()
	s := open(t)
	c := s.newClient("Hesper Dunmorrow")
	var p planDocument
	res := s.send("POST", "/api/v1/plans", anew(text(t, map[string]any{"title": "A ring", "clientId": c.ID, "input": plan.Default()})))
	require.Equal(t, http.StatusCreated, res.StatusCode, string(res.body))
	res.json(t, &p)
	i := s.atChair(p.ID)
	assert.Equal(t, "Hesper Dunmorrow", i.Brief.Client)
	s.tell(i.ID, 0, chair.Event{ID: uuid.NewString(), N: 1, At: 1, Hand: i.Hand, Kind: chair.Noted, Text: "the crown is finer"})
	var taken bytes.Buffer
	require.NoError(t, jpeg.Encode(&taken, image.NewGray(image.Rect(0, 0, 40, 30)), nil))
	at := fmt.Sprintf("/api/v1/installs/%s/photos/%s?asked=true", i.ID, uuid.NewString())
	require.Equal(t, http.StatusNoContent, s.send("PUT", at, taken.String(), "Content-Type", "image/jpeg").StatusCode)
	var held struct {
		Installs []struct {
			Title  string        `json:"title"`
			Events []chair.Event `json:"events"`
			Photos [][]byte      `json:"photos"`
		} `json:"installs"`
	}
	s.send("GET", "/api/v1/clients/"+c.ID+"/export", "").json(t, &held)
	require.Len(t, held.Installs, 1)
	assert.Equal(t, "the crown is finer", held.Installs[0].Events[0].Text)
	assert.Len(t, held.Installs[0].Photos, 1)

	require.Equal(t, http.StatusNoContent, s.send("DELETE", "/api/v1/plans/"+p.ID, "").StatusCode)
	var still installDocument
	s.send("GET", "/api/v1/installs/"+i.ID, "").json(t, &still)
	assert.Empty(t, still.PlanID)
	assert.Equal(t, i.Brief, still.Brief)
	require.Equal(t, http.StatusOK, s.send("DELETE", "/api/v1/clients/"+c.ID, "").StatusCode)
	assert.Equal(t, http.StatusGone, s.send("GET", "/api/v1/installs/"+i.ID, "").StatusCode)
	assert.Equal(t, http.StatusNotFound, s.send("GET", at, "").StatusCode)
}

// What keeps the application on a device is asked for anew each time, and fetches only what is ours.
func TestTheWorkerHasAPolicyOfItsOwn(t *testing.T) {
	t.Parallel()
	s := open(t)
	worker := s.send("GET", "/sw.js", "")
	require.Equal(t, http.StatusOK, worker.StatusCode, "build the web application first: make bin/kladotex")
	assert.Equal(t, "no-cache", worker.Header.Get("Cache-Control"))
	policy := worker.Header.Get("Content-Security-Policy")
	assert.Contains(t, policy, "connect-src 'self'")
	assert.NotContains(t, policy, "unsafe")
	assert.NotContains(t, string(worker.body), "/api/v1/clients", "nothing about people is kept")
	assert.Equal(t, "no-cache", s.send("GET", "/kladotex.webmanifest", "").Header.Get("Cache-Control"))
}

// Everyone helps at the chair; a picture is deleted by those who keep clients.
func TestWhoMayDoWhatAtTheChair(t *testing.T) {
	t.Parallel()
	s := open(t)
	i := s.atChair(s.newPlan("A ring", plan.Default()).ID)
	apprentice := s.as(store.Apprentice)
	assert.Equal(t, i.ID, apprentice.atChair(i.PlanID).ID)
	for _, path := range []string{"/installs", "/installs/" + i.ID, "/log", "/log.csv", "/paces", "/paces/plans"} {
		assert.Equal(t, http.StatusOK, apprentice.send("GET", "/api/v1"+path, "").StatusCode, path)
		assert.Equal(t, http.StatusUnauthorized, s.stranger().send("GET", "/api/v1"+path, "").StatusCode, path)
	}
	assert.Equal(t, http.StatusNotFound, s.send("POST", "/api/v1/plans/none/install", `{"id":"`+uuid.NewString()+`","unit":"in","paper":"a4"}`).StatusCode)
	assert.Equal(t, http.StatusNotFound, s.send("GET", "/api/v1/log/"+i.ID, "").StatusCode, "it is not finished")
	var empty pageOf[loggedDocument]
	s.send("GET", "/api/v1/log", "").json(t, &empty)
	assert.NotNil(t, empty.Items)
	assert.Empty(t, empty.Items)
}
