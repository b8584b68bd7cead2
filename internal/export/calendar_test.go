package export

import (
	"context"
	"fmt"
	"strings"
	"testing"
	"time"
	_ "time/tzdata"

	rfc5545 "github.com/emersion/go-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/internal/calendar"
)

// What is written is read back by another library, at the same instants: sittings before and
// after the clocks change in the studio's zone, names with commas, semicolons, letters of any
// language and lines too long for one (RFC 5545 §3.1), and errands as whole days.
func TestCalendarReadBackByAnotherParser(t *testing.T) {
	long := strings.Repeat("Ọlá-Ndừng; a name, that goes on ", 8)
	lisbon, err := time.LoadLocation("Europe/Lisbon")
	require.NoError(t, err)
	entry := Entry{ID: "b1", Zone: lisbon, At: time.Date(2027, 3, 1, 10, 0, 0, 0, time.UTC), Booking: calendar.Booking{
		Schema: 1, Title: "Plan", Client: long, Pieces: 64,
		Sittings: []calendar.Sitting{
			{On: "2027-03-27", At: "18:30", Minutes: 172, Names: []string{"Odalys Brandt"}, Does: "Plait rows 1 to 11"},
			{On: "2027-03-28", At: "18:30", Minutes: 172, Names: []string{"Odalys Brandt"}, Does: "Attach rows 1 to 11"},
		},
		Errands: []calendar.Errand{{On: "2027-03-26", Title: "Rinse the new hair, dry it"}},
	}}
	raw, err := Calendar("Tidewheel Loft", []Entry{entry}, nil)
	require.NoError(t, err)
	for _, line := range strings.Split(string(raw), "\r\n") {
		assert.LessOrEqual(t, len(line), 75, "RFC 5545: lines of at most 75 octets")
	}
	cal, err := rfc5545.NewDecoder(strings.NewReader(string(raw))).Decode()
	require.NoError(t, err)
	events := cal.Events()
	require.Len(t, events, 3)
	for i, want := range []string{"2027-03-27T18:30:00Z", "2027-03-28T17:30:00Z"} { // the clocks of Lisbon went forward that night
		start, err := events[i].DateTimeStart(time.UTC)
		require.NoError(t, err)
		end, err := events[i].DateTimeEnd(time.UTC)
		require.NoError(t, err)
		assert.Equal(t, want, start.UTC().Format(time.RFC3339))
		assert.Equal(t, 172*time.Minute, end.Sub(start))
		title, err := events[i].Props.Text(rfc5545.PropSummary)
		require.NoError(t, err)
		assert.Contains(t, title, long)
	}
	errand, err := events[2].DateTimeStart(time.UTC)
	require.NoError(t, err)
	assert.Equal(t, "2027-03-26", errand.Format(time.DateOnly))
	title, err := events[2].Props.Text(rfc5545.PropSummary)
	require.NoError(t, err)
	assert.Contains(t, title, "Rinse the new hair, dry it")
	uids := map[string]bool{}
	for _, e := range events {
		uid, err := e.Props.Text(rfc5545.PropUID)
		require.NoError(t, err)
		uids[uid] = true
	}
	assert.Len(t, uids, 3)
}

const theirs = `BEGIN:VCALENDAR
VERSION:2.0
PRODID:-//Example//EN
BEGIN:VEVENT
UID:1
DTSTAMP:20270101T000000Z
DTSTART;TZID=Europe/Lisbon:20270326T090000
DTEND;TZID=Europe/Lisbon:20270326T103000
RRULE:FREQ=DAILY;COUNT=4
EXDATE;TZID=Europe/Lisbon:20270327T090000
SUMMARY:Choir
END:VEVENT
BEGIN:VEVENT
UID:2
DTSTAMP:20270101T000000Z
DTSTART;VALUE=DATE:20270402
SUMMARY:Regatta
END:VEVENT
BEGIN:VEVENT
UID:3
DTSTAMP:20270101T000000Z
DTSTART:20270403T090000
DURATION:PT45M
SUMMARY:Without a zone
END:VEVENT
BEGIN:VEVENT
UID:4
DTSTAMP:20270101T000000Z
DTSTART:20270404T090000Z
DTEND:20270404T100000Z
TRANSP:TRANSPARENT
SUMMARY:Free all the same
END:VEVENT
BEGIN:VEVENT
UID:5
DTSTAMP:20270101T000000Z
DTSTART:20270404T090000Z
DTEND:20270404T100000Z
STATUS:CANCELLED
SUMMARY:Off
END:VEVENT
BEGIN:VEVENT
UID:6
DTSTAMP:20270101T000000Z
DTSTART;TZID=Nowhere/At all:20270404T090000
DTEND;TZID=Nowhere/At all:20270404T100000
SUMMARY:Where
END:VEVENT
BEGIN:VEVENT
UID:7
DTSTAMP:20270101T000000Z
DTSTART:19700101T000000Z
DTEND:19700101T000001Z
RRULE:FREQ=SECONDLY
SUMMARY:Ticking
END:VEVENT
END:VCALENDAR
`

// What repeats is repeated at the same time of the clock, through a change of it (RFC 5545
// §3.3.10); exceptions, free and cancelled times are left out, and what is not understood is told.
func TestReadBusyTimes(t *testing.T) {
	lisbon, err := time.LoadLocation("Europe/Lisbon")
	require.NoError(t, err)
	from, to := time.Date(2027, 1, 1, 0, 0, 0, 0, time.UTC), time.Date(2028, 1, 1, 0, 0, 0, 0, time.UTC)
	busy, leftOut, err := ReadBusy(t.Context(), strings.NewReader(strings.ReplaceAll(theirs, "\n", "\r\n")), lisbon, from, to)
	require.NoError(t, err)
	var got []string
	for _, b := range busy {
		got = append(got, b.Start.UTC().Format("0102 15:04")+" "+b.End.Sub(b.Start).String()+" "+b.Title)
	}
	assert.Equal(t, []string{
		"0326 09:00 1h30m0s Choir", "0328 08:00 1h30m0s Choir", "0329 08:00 1h30m0s Choir",
		"0401 23:00 24h0m0s Regatta", "0403 08:00 45m0s Without a zone",
	}, got)
	require.Len(t, leftOut, 2)
	assert.Contains(t, leftOut[0], "Where")
	assert.Contains(t, leftOut[1], "Ticking")
	_, _, err = ReadBusy(t.Context(), strings.NewReader("what a day"), lisbon, from, to)
	assert.ErrorIs(t, err, ErrNoCalendar)
	_, _, err = ReadBusy(t.Context(), strings.NewReader(""), lisbon, from, to)
	assert.ErrorIs(t, err, ErrNoCalendar)
}

// Whatever is read in, nothing hangs or falls over, and every time read has a beginning before
// its end.
func FuzzReadBusy(f *testing.F) {
	f.Add(theirs)
	f.Add(strings.Replace(theirs, "DAILY;COUNT=4", "YEARLY;BYMONTH=2;BYMONTHDAY=30", 1))
	f.Fuzz(func(t *testing.T, text string) {
		from := time.Date(2027, 1, 1, 0, 0, 0, 0, time.UTC)
		busy, _, err := ReadBusy(t.Context(), strings.NewReader(text), time.UTC, from, from.AddDate(2, 0, 0))
		if err != nil {
			return
		}
		for _, b := range busy {
			assert.True(t, b.Start.Before(b.End))
		}
	})
}

// Whole days are read back by another library, in order, with ids that stay: read in once more they take
// the place of those before.
func TestDaysReadBackByAnotherParser(t *testing.T) {
	days := []Day{{"2026-12-31", "Wash the roots; dry them fully, all of them"}, {"2027-01-01", "Take it down"}}
	at := time.Date(2026, 12, 1, 10, 0, 0, 0, time.UTC)
	read := func() []rfc5545.Event {
		raw, err := Days("The care of your hair", "an-install", at, days)
		require.NoError(t, err)
		cal, err := rfc5545.NewDecoder(strings.NewReader(string(raw))).Decode()
		require.NoError(t, err)
		return cal.Events()
	}
	events := read()
	require.Len(t, events, 2)
	for i, e := range events {
		start, err := e.DateTimeStart(time.UTC)
		require.NoError(t, err)
		end, err := e.DateTimeEnd(time.UTC)
		require.NoError(t, err)
		assert.Equal(t, days[i].On, start.Format(time.DateOnly))
		assert.Equal(t, 24*time.Hour, end.Sub(start))
		title, err := e.Props.Text(rfc5545.PropSummary)
		require.NoError(t, err)
		assert.Equal(t, days[i].Title, title)
		assert.Equal(t, e.Props.Get(rfc5545.PropUID).Value, read()[i].Props.Get(rfc5545.PropUID).Value)
	}
	_, err := Days("x", "y", at, []Day{{"soon", "Wash"}})
	require.Error(t, err)
}

// What was moved is where it was moved to and no more where it was; what is named besides counts without a
// rule; a byte-order mark is no obstacle; rules from long ago and lists without end are told, not followed.
func TestBusyTimesThatMoved(t *testing.T) {
	const file = "\uFEFF" + `BEGIN:VCALENDAR
VERSION:2.0
PRODID:-//Test//EN
BEGIN:VEVENT
UID:choir
DTSTAMP:20261101T000000Z
DTSTART:20261202T180000Z
DTEND:20261202T190000Z
RRULE:FREQ=WEEKLY;COUNT=4
SUMMARY:Choir
END:VEVENT
BEGIN:VEVENT
UID:choir
DTSTAMP:20261101T000000Z
RECURRENCE-ID:20261209T180000Z
DTSTART:20261210T200000Z
DTEND:20261210T210000Z
SUMMARY:Choir\, moved
END:VEVENT
BEGIN:VEVENT
UID:choir
DTSTAMP:20261101T000000Z
RECURRENCE-ID:20261216T180000Z
STATUS:CANCELLED
DTSTART:20261216T180000Z
DTEND:20261216T190000Z
SUMMARY:Choir, called off
END:VEVENT
BEGIN:VEVENT
UID:twice
DTSTAMP:20261101T000000Z
DTSTART:20261203T080000Z
DTEND:20261203T083000Z
RDATE:20261205T080000Z,20261206T080000Z
SUMMARY:Two more
END:VEVENT
BEGIN:VEVENT
UID:old
DTSTAMP:20261101T000000Z
DTSTART:16000101T080000Z
DTEND:16000101T083000Z
RRULE:FREQ=YEARLY;BYSETPOS=1
SUMMARY:Ancient
END:VEVENT
END:VCALENDAR
`
	from := time.Date(2026, 12, 1, 0, 0, 0, 0, time.UTC)
	busy, leftOut, err := ReadBusy(t.Context(), strings.NewReader(strings.ReplaceAll(file, "\n", "\r\n")), time.UTC, from, from.AddDate(2, 0, 0))
	require.NoError(t, err)
	var got []string
	for _, b := range busy {
		got = append(got, b.Start.Format("02 15:04 ")+b.Title)
	}
	assert.Equal(t, []string{"02 18:00 Choir", "03 08:00 Two more", "05 08:00 Two more", "06 08:00 Two more", "10 20:00 Choir, moved", "23 18:00 Choir"}, got)
	require.Len(t, leftOut, 1)
	assert.Contains(t, leftOut[0], "before 1900")
}

// A calendar of a few kilobytes that asks for work without end is read in no time, and given up when
// nobody waits for it.
func TestHardCalendarsAreBounded(t *testing.T) {
	positions := strings.Repeat("1,-1,200,366,", 1500) + "1"
	file := strings.ReplaceAll("BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:x\nBEGIN:VEVENT\nUID:a\nDTSTAMP:20261101T000000Z\nDTSTART:19000101T080000Z\nDTEND:19000101T090000Z\nRRULE:FREQ=DAILY;BYSETPOS="+
		positions+"\nEND:VEVENT\nEND:VCALENDAR\n", "\n", "\r\n")
	from := time.Date(2026, 12, 1, 0, 0, 0, 0, time.UTC)
	busy, _, err := ReadBusy(t.Context(), strings.NewReader(file), time.UTC, from, from.AddDate(2, 0, 0))
	require.NoError(t, err)
	assert.Len(t, busy, 731)
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	_, _, err = ReadBusy(ctx, strings.NewReader(file), time.UTC, from, from.AddDate(2, 0, 0))
	assert.ErrorIs(t, err, context.Canceled)
}

// A name cannot end a line of the file.
func TestNamesStayInTheirLine(t *testing.T) {
	file, err := Days("Tidewheel\rLoft", "a", time.Date(2026, 12, 1, 0, 0, 0, 0, time.UTC), []Day{{"2026-12-04", "Juno\rBEGIN:VALARM\r\nX:\x00y"}})
	require.NoError(t, err)
	assert.NotContains(t, strings.ReplaceAll(string(file), "\r\n", ""), "\r")
	assert.NotContains(t, string(file), "\nBEGIN:VALARM")
	assert.Contains(t, string(file), "SUMMARY:Juno BEGIN:VALARM X: y")
}

// The hardest calendars that are taken: as many events as its size holds, each with a rule that is long to
// work out and seldom comes true. To be held against 1 s and 256 MB.
func BenchmarkReadTheHardestCalendars(b *testing.B) {
	const largest = 4 << 20
	from := time.Date(2026, 12, 1, 0, 0, 0, 0, time.UTC)
	for name, event := range map[string]string{
		"once":         "DTSTART:20261201T090000Z\r\n",
		"never":        "DTSTART:19700101T090000Z\r\nRRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30\r\n",
		"daily, never": "DTSTART:19700101T090000Z\r\nRRULE:FREQ=DAILY;BYSETPOS=2\r\n",
		"long ago":     "DTSTART:19700101T090000Z\r\nRRULE:FREQ=DAILY;UNTIL=20261101T000000Z\r\n",
		"one id":       "DTSTART:19700101T090000Z\r\nRECURRENCE-ID:19700101T090000Z\r\n",
	} {
		b.Run(name, func(b *testing.B) {
			var raw strings.Builder
			raw.WriteString("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//t//t//\r\n")
			for n := 0; raw.Len() < largest-300; n++ {
				fmt.Fprintf(&raw, "BEGIN:VEVENT\r\nUID:%d\r\nDTSTAMP:20261201T000000Z\r\nDURATION:PT1H\r\n%sEND:VEVENT\r\n", n, event)
				if name == "one id" { // moved, and not moved, under one id
					fmt.Fprintf(&raw, "BEGIN:VEVENT\r\nUID:0\r\nDTSTAMP:20261201T000000Z\r\nDURATION:PT1H\r\nDTSTART:19700101T090000Z\r\n%sEND:VEVENT\r\n", []string{"", "RECURRENCE-ID:20200101T090000Z\r\n"}[n%2])
				}
			}
			raw.WriteString("END:VCALENDAR\r\n")
			b.ReportAllocs()
			for b.Loop() {
				_, _, _ = ReadBusy(b.Context(), strings.NewReader(raw.String()), time.UTC, from, from.AddDate(2, 0, 0))
			}
		})
	}
}
