package api

import (
	"bytes"
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"
	_ "time/tzdata"

	rfc5545 "github.com/emersion/go-ical"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/compare"
	"kladotex/core/hours"
	"kladotex/core/house"
	"kladotex/core/message"
	"kladotex/core/pace"
	"kladotex/core/plan"
	"kladotex/internal/calendar"
	"kladotex/internal/store"
)

// setHouse changes the house rules.
func (s tester) setHouse(change func(*house.Rules)) answer {
	s.t.Helper()
	var h houseDocument
	s.send("GET", "/api/v1/house", "").json(s.t, &h)
	change(&h.Rules)
	return s.send("PUT", "/api/v1/house", text(s.t, h.Rules), "If-Match", fmt.Sprintf(`"%d"`, h.Version))
}

// made is the body of something that has an id and nothing else.
func made() string { return `{"id":"` + uuid.NewString() + `"}` }

// twoSittings is a plan cut in two, from a day on, worked by a person.
func twoSittings(on, personID string) plan.Input {
	in := plan.Default()
	sit := in.UsualSittings()
	sit.Longest, sit.At = 5*60, "09:00"
	in.Day = &plan.Day{Install: on, Sittings: &sit, Hands: []plan.Hand{{Key: "first", Person: personID, Name: "Odalys", Hand: pace.Practised, Does: plan.DoesBoth}}}
	return in
}

func (s tester) month(from, to string) (m month) {
	s.t.Helper()
	res := s.send("GET", "/api/v1/calendar?from="+from+"&to="+to, "")
	require.Equal(s.t, http.StatusOK, res.StatusCode, string(res.body))
	res.json(s.t, &m)
	return m
}

// A plan goes on the calendar as it is, and stays so whatever becomes of it; it is followed by a
// secret address that can be renewed, and what it wants that others hold is said.
func TestAPlanOnTheCalendar(t *testing.T) {
	t.Parallel()
	s := open(t)
	var me me
	s.send("GET", "/api/v1/session", "").json(t, &me)
	require.Equal(t, http.StatusOK, s.setHouse(func(r *house.Rules) { r.Zone, r.Chairs = "Europe/Lisbon", 1 }).StatusCode)
	bad := s.setHouse(func(r *house.Rules) { r.Zone = "Harbour/Time" })
	assert.Equal(t, http.StatusUnprocessableEntity, bad.StatusCode)
	assert.Contains(t, string(bad.body), "Europe/Lisbon")

	in := twoSittings("2027-03-27", me.ID)
	open := in
	day := *in.Day
	day.Install = ""
	open.Day = &day
	undated := s.newPlan("No date", open)
	s.safe(undated.ID)
	res := s.send("POST", "/api/v1/plans/"+undated.ID+"/booking", made(), "If-Match", `"1"`)
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, string(res.body), "day.install")

	p := s.newPlan("The cellist", in)
	body := made()
	book := func(id, body, match string) (b bookingDocument) {
		s.safe(id)
		res := s.send("POST", "/api/v1/plans/"+id+"/booking", body, "If-Match", match)
		require.Equal(t, http.StatusCreated, res.StatusCode, string(res.body))
		res.json(t, &b)
		return b
	}
	assert.Equal(t, http.StatusPreconditionFailed, s.send("POST", "/api/v1/plans/"+p.ID+"/booking", body, "If-Match", `"4"`).StatusCode)
	b := book(p.ID, body, `"1"`)
	assert.Equal(t, b.ID, book(p.ID, body, `"1"`).ID, "the same request twice is one booking")
	require.Len(t, b.Booked.Sittings, 2)
	assert.Equal(t, []string{me.ID}, b.Booked.Sittings[0].People)

	// What is planned for the same day finds no chair and nobody free; the plan itself does not
	// stand in its own way.
	clashes := func(planID string, in plan.Input) (kinds []calendar.ClashKind) {
		for _, c := range ask[[]calendar.Clash](s, "/api/v1/clashes", map[string]any{"planId": planID, "input": in}) {
			kinds = append(kinds, c.Kind)
		}
		return kinds
	}
	assert.Empty(t, clashes(p.ID, in))
	assert.Contains(t, clashes("", in), calendar.PersonBusy)
	assert.Contains(t, clashes("", in), calendar.ChairTaken)
	assert.Empty(t, clashes("", twoSittings("2027-04-10", me.ID)))

	// The calendar by instants, through the change of clock of the second night.
	followed := func(path string) []rfc5545.Event {
		res := s.stranger().send("GET", path, "")
		require.Equal(t, http.StatusOK, res.StatusCode, string(res.body))
		assert.True(t, strings.HasPrefix(res.Header.Get("Content-Type"), "text/calendar"))
		cal, err := rfc5545.NewDecoder(bytes.NewReader(res.body)).Decode()
		require.NoError(t, err)
		return cal.Events()
	}
	// Far days are not followed; near ones are.
	near := time.Now().AddDate(0, 0, 20).Format(time.DateOnly)
	other := s.newPlan("The pilot", twoSittings(near, me.ID))
	booked := book(other.ID, made(), `"1"`)
	var f, renewed feed
	s.send("GET", "/api/v1/calendar/feed", "").json(t, &f)
	sittings := 0
	for _, e := range followed(f.Path) {
		if start, err := e.DateTimeStart(time.UTC); err == nil && start.UTC().Format(time.DateOnly) >= near {
			sittings++
		}
	}
	assert.GreaterOrEqual(t, sittings, 2)
	assert.Equal(t, http.StatusNotFound, s.stranger().send("GET", strings.Replace(f.Path, "/feeds/", "/feeds/X", 1), "").StatusCode)
	s.send("POST", "/api/v1/calendar/feed", "").json(t, &renewed)
	assert.NotEqual(t, f.Path, renewed.Path)
	assert.Equal(t, http.StatusNotFound, s.stranger().send("GET", f.Path, "").StatusCode, "the old address leads nowhere")
	assert.NotEmpty(t, followed(renewed.Path))
	assert.Equal(t, http.StatusForbidden, s.as(store.Apprentice).send("GET", "/api/v1/calendar/feed", "").StatusCode)

	// The plan is deleted: what is booked stays as it was.
	m := s.month("2027-03-01", "2027-03-31")
	require.Len(t, m.Bookings, 1)
	assert.Equal(t, http.StatusNoContent, s.send("DELETE", "/api/v1/plans/"+p.ID, "").StatusCode)
	m = s.month("2027-03-27", "2027-03-27")
	require.Len(t, m.Bookings, 1)
	assert.Equal(t, b.Booked, m.Bookings[0].Booked)
	assert.Empty(t, m.Bookings[0].PlanID)

	// Booked anew, it stands once; taken off, not at all.
	again := book(other.ID, made(), `"1"`)
	assert.NotEqual(t, booked.ID, again.ID)
	var stands []bookingDocument
	s.send("GET", "/api/v1/plans/"+other.ID+"/booking", "").json(t, &stands)
	require.Len(t, stands, 1)
	assert.Equal(t, again.ID, stands[0].ID)
	assert.Equal(t, http.StatusNoContent, s.send("DELETE", "/api/v1/bookings/"+again.ID, "").StatusCode)
	s.send("GET", "/api/v1/plans/"+other.ID+"/booking", "").json(t, &stands)
	assert.Empty(t, stands)
	assert.Equal(t, http.StatusNotFound, s.send("DELETE", "/api/v1/bookings/nothing", "").StatusCode)
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("GET", "/api/v1/calendar?from=2027-01-01&to=2028-01-01", "").StatusCode)
}

// A calendar that is read in makes its keeper busy then, in place of what was read in before; an
// apprentice reads in their own alone.
func TestBusyTimesAreReadIn(t *testing.T) {
	t.Parallel()
	s := open(t)
	s.setHouse(func(r *house.Rules) { r.Zone = "Europe/Lisbon" })
	var me me
	s.send("GET", "/api/v1/session", "").json(t, &me)
	day := time.Now().AddDate(0, 0, 12).Format(time.DateOnly)
	at := strings.ReplaceAll(day, "-", "")
	file := func(title string) string {
		return strings.ReplaceAll("BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:-//x//EN\nBEGIN:VEVENT\nUID:1\nDTSTAMP:20270101T000000Z\nDTSTART;TZID=Europe/Lisbon:"+at+"T100000\nDTEND;TZID=Europe/Lisbon:"+at+"T120000\nSUMMARY:"+title+"\nEND:VEVENT\nEND:VCALENDAR\n", "\n", "\r\n")
	}
	put := func(who tester, id, body string) answer {
		return who.send("PUT", "/api/v1/people/"+id+"/busy", body, "Content-Type", "text/calendar")
	}
	var said readIn
	res := put(s, me.ID, file("Choir"))
	require.Equal(t, http.StatusOK, res.StatusCode, string(res.body))
	res.json(t, &said)
	assert.Equal(t, readIn{1, []string{}}, said)
	put(s, me.ID, file("Dentist"))
	m := s.month(day, day)
	require.Len(t, m.Busy, 1)
	assert.Equal(t, busyEntry{me.ID, "Dentist", day + "T10:00", day + "T12:00"}, m.Busy[0])
	clashes := ask[[]calendar.Clash](s, "/api/v1/clashes", map[string]any{"input": twoSittings(day, me.ID)})
	require.NotEmpty(t, clashes)
	assert.Contains(t, clashes[0].Says, "from 10:00 to 12:00: Dentist")
	res = put(s, me.ID, "no calendar")
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, string(res.body), "BEGIN:VCALENDAR")
	assert.Equal(t, http.StatusForbidden, put(s.as(store.Apprentice), me.ID, file("Mine")).StatusCode)
}

// A message is worded by the studio, filled for the plan, looked at, reworded, sent once and kept.
func TestMessagesAreSentAndKept(t *testing.T) {
	t.Parallel()
	s := open(t)
	bad := s.setHouse(func(r *house.Rules) {
		r.Letters = map[message.Kind]message.Template{"reminder": {Subject: "On {day}", Body: "Come"}}
	})
	assert.Equal(t, http.StatusUnprocessableEntity, bad.StatusCode)
	assert.Contains(t, string(bad.body), "letters.reminder.subject")
	require.Equal(t, http.StatusOK, s.setHouse(func(r *house.Rules) {
		r.Letters = map[message.Kind]message.Template{"reminder": {Subject: "On {date}", Body: "Until {time}, {client}."}}
	}).StatusCode)
	c := s.newClient("Juno Pellwether")
	res := s.send("POST", "/api/v1/plans", anew(text(t, map[string]any{"title": "Juno", "clientId": c.ID, "input": twoSittings("2027-03-27", "")})))
	require.Equal(t, http.StatusCreated, res.StatusCode, string(res.body))
	var p planDocument
	res.json(t, &p)
	var written writtenMessage
	s.send("GET", "/api/v1/plans/"+p.ID+"/letters/reminder", "").json(t, &written)
	assert.Equal(t, "On Saturday 27 March 2027", written.Subject)
	assert.Equal(t, "Until 09:00, Juno Pellwether.", written.Body)
	s.send("GET", "/api/v1/plans/"+p.ID+"/letters/prepare", "").json(t, &written)
	assert.NotContains(t, written.Body, "{", "the usual words, wholly filled")
	assert.Equal(t, 2, strings.Count(written.Body, "–"), "a line for each sitting")
	body := anew(`{"kind":"reminder","subject":"On Saturday","body":"Until nine."}`)
	for range 2 {
		require.Equal(t, http.StatusCreated, s.send("POST", "/api/v1/plans/"+p.ID+"/messages", body).StatusCode)
	}
	var sent []sentMessage
	s.send("GET", "/api/v1/plans/"+p.ID+"/messages", "").json(t, &sent)
	require.Len(t, sent, 1)
	assert.Equal(t, "Until nine.", sent[0].Says.Body)
	assert.Equal(t, "Juno Pellwether", sent[0].To)
	// What was sent and booked is held about the client, and goes with them.
	s.safe(p.ID)
	require.Equal(t, http.StatusCreated, s.send("POST", "/api/v1/plans/"+p.ID+"/booking", made(), "If-Match", `"1"`).StatusCode)
	held := string(s.send("GET", "/api/v1/clients/"+c.ID+"/export", "").body)
	assert.Contains(t, held, "Until nine.")
	assert.Contains(t, held, `"on": "2027-03-27"`)
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("POST", "/api/v1/plans/"+p.ID+"/messages", anew(`{"kind":"card","subject":"x","body":"y"}`)).StatusCode)
}

// A client who is deleted takes bookings along.
func TestADeletedClientIsOffTheCalendar(t *testing.T) {
	t.Parallel()
	s := open(t)
	c := s.newClient("Juno Pellwether")
	res := s.send("POST", "/api/v1/plans", anew(text(t, map[string]any{"title": "Juno", "clientId": c.ID, "input": twoSittings("2027-03-27", "")})))
	var p planDocument
	res.json(t, &p)
	s.safe(p.ID)
	require.Equal(t, http.StatusCreated, s.send("POST", "/api/v1/plans/"+p.ID+"/booking", made(), "If-Match", `"1"`).StatusCode)
	require.Len(t, s.month("2027-03-27", "2027-03-28").Bookings, 1)
	require.Equal(t, http.StatusOK, s.send("DELETE", "/api/v1/clients/"+c.ID, "").StatusCode)
	assert.Empty(t, s.month("2027-03-27", "2027-03-28").Bookings)
}

// A plan that takes longer than is wished comes with plans that do not; one that fits with none,
// and a day that cannot be is refused by name.
func TestADayAndWhatMakesItFit(t *testing.T) {
	t.Parallel()
	s := open(t)
	in := twoSittings("2027-03-27", "")
	in.Day.Within = 180
	day := ask[hours.DayPlan](s, "/api/v1/day", in)
	require.Len(t, day.Sittings, 2)
	assert.Equal(t, "2027-03-28", day.Sittings[1].On)
	require.Greater(t, day.Sum(), in.Day.Within)
	quicker := ask[[]compare.Quicker](s, "/api/v1/quicker", in)
	require.NotEmpty(t, quicker)
	for _, q := range quicker {
		res := s.send("POST", "/api/v1/preview", text(t, q.Input))
		assert.Equal(t, http.StatusOK, res.StatusCode, "%s: %s", q.Says, res.body)
	}
	in.Day.Within = 3000
	assert.Empty(t, ask[[]compare.Quicker](s, "/api/v1/quicker", in))
	in.Day.Sittings.At = "nine"
	for _, path := range []string{"day", "quicker", "preview"} {
		res := s.send("POST", "/api/v1/"+path, text(t, in))
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, path)
		assert.Contains(t, string(res.body), "day.sittings.at", path)
	}
}

// People say how practised they are; plans they begin are timed by it.
func TestPaceIsOnesOwn(t *testing.T) {
	t.Parallel()
	s := open(t)
	var me me
	s.send("GET", "/api/v1/session", "").json(t, &me)
	require.Equal(t, http.StatusOK, s.send("PUT", "/api/v1/people/"+me.ID+"/pace", `{"hand":"beginner","ownHead":1.4}`).StatusCode)
	var begun PlanDraft
	s.send("GET", "/api/v1/begin", "").json(t, &begun)
	assert.Equal(t, plan.Hand{Key: "first", Person: me.ID, Name: me.Name, Hand: pace.Beginner, OwnHead: 1.4, Does: plan.DoesBoth}, begun.Input.Day.Hands[0])
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("PUT", "/api/v1/people/"+me.ID+"/pace", `{"hand":"used","ownHead":9}`).StatusCode)
	assert.Equal(t, http.StatusForbidden, s.as(store.Stylist).send("PUT", "/api/v1/people/"+me.ID+"/pace", `{"hand":"used","ownHead":1.2}`).StatusCode)
}
