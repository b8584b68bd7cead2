package chair_test

import (
	"context"
	"encoding/json"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/chair"
	"kladotex/core/freeze"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plan"
)

// dues are the keys of what is due for a hand after minutes from its last word.
func dues(b *chair.Brief, d *teller, after float64) (keys []string) {
	for _, x := range b.Fold(d.events).View(chair.Wish{Hand: d.hand, Now: d.at + int64(after*float64(minute))}).Due {
		keys = append(keys, x.Key)
	}
	return keys
}

// Arms, water and breaks come in time, each by itself, and not for somebody who rests.
func TestRestsComeInTime(t *testing.T) {
	b := head(t, func(in *plan.Input) { in.OwnHead = true })
	require.True(t, b.Rests.Arms)
	d := &teller{hand: b.Hands[0].Key}
	assert.Empty(t, dues(&b, d, 500), "nobody is at work")
	d.tell(0, chair.Event{Kind: chair.Began})
	d.tell(0, chair.Event{Kind: chair.Done, Tasks: []string{b.Tasks[0].Key}})
	assert.Empty(t, dues(&b, d, 19))
	assert.Equal(t, []string{"arms"}, dues(&b, d, 21), "the back is plaited with raised arms")
	d.tell(21*minute, chair.Event{Kind: chair.Rested, Text: "arms"})
	assert.Empty(t, dues(&b, d, 1))
	d.tell(18*minute, chair.Event{Kind: chair.Rested, Text: "arms"})
	d.tell(18*minute, chair.Event{Kind: chair.Rested, Text: "arms"})
	assert.Equal(t, []string{"water"}, dues(&b, d, 5), "putting arms down is no drink")
	d.tell(5*minute, chair.Event{Kind: chair.Rested, Text: "water"})
	d.tell(18*minute, chair.Event{Kind: chair.Rested, Text: "arms"})
	assert.Equal(t, []string{"break"}, dues(&b, d, 11), "an hour and a half are over")
	d.tell(11*minute, chair.Event{Kind: chair.Rested, Text: "break"})
	assert.NotContains(t, dues(&b, d, 1), "break", "put off")
	d.tell(minute, chair.Event{Kind: chair.Paused, Text: "break"})
	assert.Empty(t, dues(&b, d, 300))
	d.tell(10*minute, chair.Event{Kind: chair.Began})
	assert.Empty(t, dues(&b, d, 1))
}

// It is asked how the head feels once the first row is on, at half, and with all of it on; each once.
func TestItIsAskedHowItFeels(t *testing.T) {
	b := head(t, nil)
	d := &teller{hand: b.Hands[0].Key}
	d.tell(0, chair.Event{Kind: chair.Began})
	asked := []string{}
	pieces, at := 0, map[string]int{}
	for _, task := range b.Tasks {
		d.tell(minute, chair.Event{Kind: chair.Done, Tasks: []string{task.Key}})
		if task.Kind == pace.Attach {
			pieces++
		}
		for _, due := range b.Fold(d.events).View(chair.Wish{Hand: d.hand, Now: d.at}).Due {
			if due.Asks {
				asked = append(asked, due.Key)
				at[due.Key] = pieces
				d.tell(0, chair.Event{Kind: chair.Answered, Text: due.Key, Answer: chair.Fine})
			}
		}
	}
	assert.Equal(t, []string{"first-row", "half", "all"}, asked)
	assert.InDelta(t, float64(len(b.Places))/2, float64(at["half"]), 1)
	assert.Equal(t, len(b.Places), at["all"])
	assert.Equal(t, map[string]chair.Answer{"first-row": chair.Fine, "half": chair.Fine, "all": chair.Fine}, b.Fold(d.events).Log().Felt)
}

// A head in two sittings: the end that is told is that of the sitting in work, whatever was left open
// in one before.
func TestTheEndIsThatOfTheSitting(t *testing.T) {
	b := head(t, func(in *plan.Input) {
		sit := in.UsualSittings()
		sit.Longest = 240
		in.Day = &plan.Day{Sittings: &sit}
	})
	require.Greater(t, len(b.Sittings), 1)
	d := &teller{hand: b.Hands[0].Key}
	d.tell(0, chair.Event{Kind: chair.Began})
	first := view(&b, d).Watch
	assert.Equal(t, b.Sittings[0].Name, first.Sitting)
	assert.Less(t, first.Until.Likely, first.Left.Likely)
	ends := float64(first.Ends[1]-d.at) / float64(minute)
	assert.InDelta(t, b.Sittings[0].Minutes, ends, 12, "with its breaks as long as planned")
	assert.LessOrEqual(t, first.Ends[0], first.Ends[1])
	assert.LessOrEqual(t, first.Ends[1], first.Ends[2])

	for k, task := range b.Tasks {
		if task.Sitting == 0 && k != 5 {
			d.tell(int64(task.Minutes[0]*float64(minute)), chair.Event{Kind: chair.Done, Tasks: []string{task.Key}})
		}
	}
	d.tell(minute, chair.Event{Kind: chair.Paused, Text: "for today"})
	d.tell(20*60*minute, chair.Event{Kind: chair.Began})
	second := slices.IndexFunc(b.Tasks, func(x chair.Task) bool { return x.Sitting == 1 })
	d.tell(int64(b.Tasks[second].Minutes[0]*float64(minute)), chair.Event{Kind: chair.Done, Tasks: []string{b.Tasks[second].Key}})
	w := view(&b, d).Watch
	assert.Equal(t, b.Sittings[1].Name, w.Sitting)
	assert.Greater(t, w.Until.Likely, 30.0)
	assert.Equal(t, "As fast as planned.", w.Says)
}

// Linked plaits are all laid before the first piece goes on, whatever the device was told.
func TestLinkedPlaitsComeFirst(t *testing.T) {
	b := head(t, func(in *plan.Input) {
		in.Parting.Structure = parting.Linked
		for _, r := range parting.Rules() {
			if r.Structure == parting.Linked {
				in.Parting.Base = r.Start
			}
		}
	})
	d := &teller{hand: b.Hands[0].Key}
	d.tell(0, chair.Event{Kind: chair.Began})
	pieces := false
	for range b.Tasks {
		c := b.Fold(d.events).View(chair.Wish{Hand: d.hand, ByRow: true, Now: d.at}).Card
		require.NotNil(t, c)
		if c.Kind == pace.Plaits {
			require.False(t, pieces, "a plait after a piece")
		}
		pieces = pieces || c.Kind == pace.Hook
		d.tell(minute, chair.Event{Kind: chair.Done, Tasks: []string{c.Task}})
	}
	assert.True(t, pieces)
}

// Who comes to help is timed by themselves, and the plan's own hand is not thought quicker for it.
func TestAHelperIsTimedByThemselves(t *testing.T) {
	b := head(t, nil)
	own, helper := &teller{hand: b.Hands[0].Key}, &teller{hand: chair.Helper("ikaika")}
	own.tell(0, chair.Event{Kind: chair.Began})
	helper.tell(0, chair.Event{Kind: chair.Began})
	for k, task := range b.Tasks[1:41] {
		d := own
		if k%2 == 1 {
			d = helper
		}
		times := map[*teller]float64{own: 1, helper: 2}[d]
		d.tell(int64(times*task.Minutes[0]*float64(minute)), chair.Event{Kind: chair.Done, Tasks: []string{task.Key}})
	}
	for _, e := range b.Fold(append(slices.Clone(own.events), helper.events...)).Evidence() {
		switch e.Hand {
		case own.hand:
			assert.InEpsilon(t, 1, e.Actual/e.Planned, 0.01)
			assert.Empty(t, e.Person)
		default:
			assert.InEpsilon(t, 2, e.Actual/e.Planned, 0.01)
			assert.Equal(t, "ikaika", e.Person)
		}
		assert.Equal(t, 20, e.Tasks)
	}
}

// The last check names what lacks: a few places one by one, many by region, and sides that differ.
func TestTheLastLookSaysWhatLacks(t *testing.T) {
	b := head(t, nil)
	d := &teller{hand: b.Hands[0].Key}
	d.tell(0, chair.Event{Kind: chair.Began})
	wants := func(key string) string {
		for _, l := range view(&b, d).Looks {
			if l.Key == key {
				return l.Wants
			}
		}
		return "no such look"
	}
	assert.Contains(t, wants("missed"), "behind")
	assert.Contains(t, wants("missed"), "in front")
	left := ""
	for k, task := range b.Tasks {
		if k == len(b.Tasks)-2 {
			left = b.Rows[b.Places[task.Place].Row].Name
			continue
		}
		d.tell(minute, chair.Event{Kind: chair.Done, Tasks: []string{task.Key}})
	}
	assert.Equal(t, "1 place not told of: "+left+" (piece)", wants("missed"))
	assert.Empty(t, wants("sides"))
	d.tell(minute, chair.Event{Kind: chair.LeftOut, Places: []string{b.Places[b.Tasks[len(b.Tasks)-2].Place].ID}})
	assert.Empty(t, wants("missed"))
	assert.Contains(t, wants("sides"), " left, ")
	d.tell(minute, chair.Event{Kind: chair.Checked, Text: "thin"})
	for _, l := range view(&b, d).Looks {
		assert.Equal(t, l.Key == "thin", l.Done)
	}
}

// A brief of another version is refused rather than misread.
func TestBriefsOfOtherVersionsAreRefused(t *testing.T) {
	b := head(t, nil)
	raw, err := json.Marshal(b)
	require.NoError(t, err)
	again, err := chair.Decode(raw)
	require.NoError(t, err)
	assert.Equal(t, b, again)
	b.Schema++
	raw, err = json.Marshal(b)
	require.NoError(t, err)
	_, err = chair.Decode(raw)
	assert.ErrorContains(t, err, "version 2")
	_, err = chair.Decode([]byte("{"))
	assert.Error(t, err)
}

// Whatever a device sends, the fold answers something that can be written down.
func FuzzFold(f *testing.F) {
	sol, err := plan.Solve(context.Background(), plan.Default())
	if err != nil {
		f.Fatal(err)
	}
	c, err := freeze.ForChair(sol)
	if err != nil {
		f.Fatal(err)
	}
	b := c.Brief
	f.Add([]byte(`[{"id":"12345678","n":1,"at":5,"hand":"first","kind":"done","tasks":["attach/BL1.1"]},{"id":"12345679","n":2,"kind":"split","places":["BL1.1"]}]`))
	f.Add([]byte(`[{"id":"x","n":-1,"at":-9223372036854775808,"kind":"paused"},{"id":"y","kind":"undone","of":"x"},{"id":"z","at":9223372036854775807,"kind":"began"}]`))
	f.Add([]byte(`[{"id":"a","kind":"split","places":["BL1.1","BL1.1","none"]},{"id":"a2","n":3,"kind":"split","places":["BL1.1#a"]},{"id":"b","kind":"spoilt","piece":"none","count":3},{"kind":"danced"}]`))
	f.Fuzz(func(t *testing.T, raw []byte) {
		var events []chair.Event
		if json.Unmarshal(raw, &events) != nil || len(events) > 200 {
			return
		}
		s := b.Fold(events)
		for _, hand := range []string{b.Hands[0].Key, "nobody"} {
			v := s.View(chair.Wish{Hand: hand, Now: 1, From: "attach/BL1.1", Stays: true})
			if _, err := json.Marshal(v); err != nil {
				t.Fatal(err)
			}
			assert.LessOrEqual(t, v.Watch.Done, v.Watch.Of)
		}
		if _, err := json.Marshal(s.Log()); err != nil {
			t.Fatal(err)
		}
	})
}
