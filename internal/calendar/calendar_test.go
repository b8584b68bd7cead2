package calendar

import (
	"testing"
	"time"
	_ "time/tzdata"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func zone(t require.TestingT, name string) *time.Location {
	z, err := time.LoadLocation(name)
	require.NoError(t, err)
	return z
}

// A sitting at nine is at nine before and after a change of clock, and lasts as long. The
// zone's changes are those of the zone database: on 2027-03-28 clocks there go forward at 02:00.
func TestAChangeOfClock(t *testing.T) {
	berlin := zone(t, "Europe/Berlin")
	of := func(on, at string) Span {
		s, err := Sitting{On: on, At: at, Minutes: 180}.When(berlin)
		require.NoError(t, err)
		return s
	}
	before, behind := of("2027-03-27", "09:00"), of("2027-03-28", "09:00")
	assert.Equal(t, 23*time.Hour, behind.Start.Sub(before.Start))
	assert.Equal(t, "2027-03-28T07:00:00Z", behind.Start.UTC().Format(time.RFC3339))
	over := of("2027-03-28", "00:30")
	assert.Equal(t, 3*time.Hour, over.End.Sub(over.Start))
	assert.Equal(t, "04:30", over.End.Format("15:04"), "an hour is left out")
	_, err := Sitting{On: "2027-02-30", At: "09:00"}.When(berlin)
	assert.Error(t, err)
}

// A person or a chair that is taken at the time is said; what only touches does not clash.
func TestClashes(t *testing.T) {
	utc := time.UTC
	mine := []Sitting{{On: "2027-03-20", At: "09:00", Minutes: 240, People: []string{"o"}, Chair: true}}
	at := func(from, to string) Span {
		a, err := time.Parse("15:04", from)
		require.NoError(t, err)
		b, err := time.Parse("15:04", to)
		require.NoError(t, err)
		day := time.Date(2027, 3, 20, 0, 0, 0, 0, utc)
		return Span{day.Add(time.Duration(a.Hour())*time.Hour + time.Duration(a.Minute())*time.Minute), day.Add(time.Duration(b.Hour())*time.Hour + time.Duration(b.Minute())*time.Minute)}
	}
	names := map[string]string{"o": "Odalys Brandt"}
	clash := func(chairs int, held ...Occupied) (kinds []ClashKind) {
		out, err := Clashes(mine, utc, held, chairs, names)
		require.NoError(t, err)
		for _, c := range out {
			kinds = append(kinds, c.Kind)
		}
		return kinds
	}
	assert.Empty(t, clash(1, Occupied{Span: at("07:00", "09:00"), People: []string{"o"}, Chair: true}, Occupied{Span: at("13:00", "14:00"), Chair: true}))
	assert.Equal(t, []ClashKind{PersonBusy}, clash(2, Occupied{Span: at("12:00", "18:00"), People: []string{"o"}, Chair: true}))
	assert.Equal(t, []ClashKind{ChairTaken}, clash(1, Occupied{Span: at("12:00", "18:00"), Chair: true}))
	assert.Empty(t, clash(2, Occupied{Span: at("08:00", "10:00"), Chair: true}, Occupied{Span: at("10:00", "12:00"), Chair: true}), "one after the other")
	assert.Equal(t, []ClashKind{ChairTaken}, clash(2, Occupied{Span: at("08:00", "11:00"), Chair: true}, Occupied{Span: at("10:00", "12:00"), Chair: true}))
	mine[0].Chair = false
	assert.Empty(t, clash(1, Occupied{Span: at("08:00", "11:00"), Chair: true}), "at home")
}

// A chair is said to be taken exactly where at some minute of the sitting as many others sit as
// there are chairs.
func TestChairsMinuteByMinute(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		day := time.Date(2027, 3, 20, 0, 0, 0, 0, time.UTC)
		minute := func(m int) time.Time { return day.Add(time.Duration(m) * time.Minute) }
		chairs := rapid.IntRange(1, 3).Draw(t, "chairs")
		var held []Occupied
		for range rapid.IntRange(0, 6).Draw(t, "others") {
			from := rapid.IntRange(0, 600).Draw(t, "from")
			held = append(held, Occupied{Span: Span{minute(from), minute(from + rapid.IntRange(1, 300).Draw(t, "long"))}, Chair: rapid.Bool().Draw(t, "chair")})
		}
		mine := Sitting{On: "2027-03-20", At: "03:00", Minutes: 200, Chair: true}
		full := false
		for m := 180; m < 380; m++ {
			n := 0
			for _, h := range held {
				if h.Chair && !minute(m).Before(h.Start) && minute(m).Before(h.End) {
					n++
				}
			}
			full = full || n >= chairs
		}
		out, err := Clashes([]Sitting{mine}, time.UTC, held, chairs, nil)
		require.NoError(t, err)
		assert.Equal(t, full, len(out) > 0)
	})
}
