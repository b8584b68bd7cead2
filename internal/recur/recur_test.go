package recur

import (
	"context"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/teambition/rrule-go"
	"pgregory.net/rapid"
)

// enough is more than any one rule costs.
func enough() *Budget {
	b := 100 * Days
	return &b
}

func when(t *testing.T, text string) time.Time {
	t.Helper()
	at, err := time.Parse("20060102T150405", text)
	require.NoError(t, err)
	return at
}

// The examples of RFC 5545, section 3.8.5.3, as they stand there.
func TestTheExamplesOfTheStandard(t *testing.T) {
	for _, x := range []struct {
		start, rule string
		want        []string
	}{
		{"19970902T090000", "FREQ=DAILY;INTERVAL=10;COUNT=5", []string{"19970902", "19970912", "19970922", "19971002", "19971012"}},
		{"19970902T090000", "FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH", []string{"19970902", "19970904", "19970916", "19970918", "19970930", "19971002", "19971014", "19971016"}},
		{"19970905T090000", "FREQ=MONTHLY;COUNT=4;BYDAY=1FR", []string{"19970905", "19971003", "19971107", "19971205"}},
		{"19970922T090000", "FREQ=MONTHLY;COUNT=4;BYDAY=-2MO", []string{"19970922", "19971020", "19971117", "19971222"}},
		{"19970928T090000", "FREQ=MONTHLY;COUNT=4;BYMONTHDAY=-3", []string{"19970928", "19971029", "19971128", "19971229"}},
		{"19970101T090000", "FREQ=YEARLY;INTERVAL=3;COUNT=5;BYYEARDAY=1,100,200", []string{"19970101", "19970410", "19970719", "20000101", "20000409"}},
		{"19970519T090000", "FREQ=YEARLY;COUNT=3;BYDAY=20MO", []string{"19970519", "19980518", "19990517"}},
		{"19970512T090000", "FREQ=YEARLY;COUNT=3;BYWEEKNO=20;BYDAY=MO", []string{"19970512", "19980511", "19990517"}},
		{"19970902T090000", "FREQ=MONTHLY;COUNT=3;BYDAY=FR;BYMONTHDAY=13", []string{"19980213", "19980313", "19981113"}},
		{"19961105T090000", "FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8;COUNT=3", []string{"19961105", "20001107", "20041102"}},
		{"19970904T090000", "FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3", []string{"19970904", "19971007", "19971106"}},
		{"19970929T090000", "FREQ=MONTHLY;COUNT=4;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2", []string{"19970929", "19971030", "19971127", "19971230"}},
		{"19970805T090000", "FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO", []string{"19970805", "19970810", "19970819", "19970824"}},
		{"19970805T090000", "FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU", []string{"19970805", "19970817", "19970819", "19970831"}},
		{"20070115T090000", "FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5", []string{"20070115", "20070130", "20070215", "20070315", "20070330"}},
	} {
		o, err := rrule.StrToROption(x.rule)
		require.NoError(t, err, x.rule)
		r, err := New(*o, when(t, x.start))
		require.NoError(t, err, x.rule)
		times, err := r.Between(t.Context(), enough(), when(t, "19000101T000000"), when(t, "20300101T000000"), 100)
		require.NoError(t, err)
		var got []string
		for _, at := range times {
			assert.Equal(t, 9, at.Hour())
			got = append(got, at.Format("20060102"))
		}
		assert.Equal(t, x.want, got, x.rule)
	}
}

// On random rules it says what another library says, where that one comes to an end.
func TestRulesAgainstAnotherLibrary(t *testing.T) {
	to := time.Date(2034, 1, 1, 0, 0, 0, 0, time.UTC)
	rapid.Check(t, func(t *rapid.T) {
		some := func(name string, list []int, most int) []int {
			return rapid.SliceOfNDistinct(rapid.SampledFrom(list), 0, most, rapid.ID[int]).Draw(t, name)
		}
		signed := func(most int) (out []int) {
			for n := 1; n <= most; n++ {
				out = append(out, n, -n)
			}
			return out
		}
		o := rrule.ROption{
			Freq:     rapid.SampledFrom([]rrule.Frequency{rrule.YEARLY, rrule.MONTHLY, rrule.WEEKLY, rrule.DAILY}).Draw(t, "freq"),
			Interval: rapid.IntRange(1, 5).Draw(t, "interval"), Count: rapid.IntRange(0, 30).Draw(t, "count"),
			Wkst: weekdays[rapid.IntRange(0, 6).Draw(t, "wkst")], Bymonth: some("months", []int{1, 2, 3, 7, 11, 12}, 3), Bymonthday: some("month days", signed(31), 4),
		}
		start := time.Date(2023, time.Month(rapid.IntRange(1, 12).Draw(t, "month")), rapid.IntRange(1, 28).Draw(t, "day"), 9, 30, 0, 0, time.UTC)
		if o.Freq == rrule.YEARLY {
			o.Byyearday, o.Byweekno = some("year days", signed(366), 3), some("weeks", signed(50), 3) // weeks at both ends of a year counted from the other one it gets wrong
		}
		nth := o.Freq <= rrule.MONTHLY && rapid.Bool().Draw(t, "nth") // the other one wants a day to be of both kinds where they are mixed
		for _, d := range some("days", []int{0, 1, 2, 3, 4, 5, 6}, 3) {
			w := weekdays[d]
			if nth {
				w = w.Nth(rapid.SampledFrom(signed(4)).Draw(t, "n"))
			}
			o.Byweekday = append(o.Byweekday, w)
		}
		if o.Freq <= rrule.MONTHLY { // the other one cuts the first week short
			o.Bysetpos = some("positions", signed(5), 2)
		}
		mine, err := New(o, start)
		require.NoError(t, err)
		got, err := mine.Between(context.Background(), enough(), start, to, 100_000)
		require.NoError(t, err)
		// What is asked for from a later day on is the end of it.
		from := start.AddDate(0, 0, rapid.IntRange(0, 3500).Draw(t, "later"))
		late, err := mine.Between(context.Background(), enough(), from, to, 100_000)
		require.NoError(t, err)
		first := slices.IndexFunc(got, func(at time.Time) bool { return !at.Before(from) })
		if first < 0 {
			first = len(got)
		}
		assert.Equal(t, append([]time.Time{}, got[first:]...), append([]time.Time{}, late...), "%s from %s", o.RRuleString(), from)
		o.Dtstart, o.Until = start, to
		theirs, err := rrule.NewRRule(o)
		require.NoError(t, err)
		assert.Equal(t, theirs.All(), append([]time.Time{}, got...), "%s", o.RRuleString())
	})
}

// A rule that never comes true, or has lists without end, is as little work as another; one that is given up
// ends, and one that began long ago is refused.
func TestHardRulesAreBounded(t *testing.T) {
	positions := make([]int, 0, 6000)
	for n := range 6000 {
		positions = append(positions, n%366+1)
	}
	for _, o := range []rrule.ROption{
		{Freq: rrule.YEARLY, Bymonth: []int{2}, Bymonthday: []int{30}},
		{Freq: rrule.YEARLY, Bysetpos: positions},
		{Freq: rrule.DAILY, Bysetpos: positions[1:2]},
		{Freq: rrule.DAILY, Interval: mostStep},
	} {
		start := time.Date(firstYear, 1, 1, 9, 0, 0, 0, time.UTC)
		r, err := New(o, start)
		require.NoError(t, err)
		from := time.Date(2026, 12, 1, 0, 0, 0, 0, time.UTC)
		looked := 0
		for k := 0; ; k++ {
			_, begins, _ := r.period(k)
			looked++
			if begins.After(from.AddDate(2, 0, 0)) {
				break
			}
		}
		assert.LessOrEqual(t, looked, 50_000)
		_, err = r.Between(t.Context(), enough(), from, from.AddDate(2, 0, 0), 5000)
		require.NoError(t, err)
		little := Budget(1)
		_, err = r.Between(t.Context(), &little, from, from.AddDate(2, 0, 0), 5000)
		assert.ErrorIs(t, err, ErrTooMuch)
		assert.Greater(t, little, Budget(-366), "no more is looked at than a period beyond it")
		ctx, cancel := context.WithCancel(t.Context())
		cancel()
		_, err = r.Between(ctx, enough(), from, from.AddDate(2, 0, 0), 5000)
		assert.ErrorIs(t, err, context.Canceled)
	}
	_, err := New(rrule.ROption{Freq: rrule.YEARLY}, time.Date(1600, 1, 1, 9, 0, 0, 0, time.UTC))
	assert.ErrorIs(t, err, ErrTooLong)
	_, err = New(rrule.ROption{Freq: rrule.HOURLY}, time.Date(2026, 1, 1, 9, 0, 0, 0, time.UTC))
	assert.ErrorIs(t, err, ErrTooOften)
}
