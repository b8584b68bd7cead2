package chair_test

import (
	"context"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"kladotex/core/chair"
	"kladotex/core/freeze"
	"kladotex/core/invalid"
	"kladotex/core/pace"
	"kladotex/core/plan"
)

const minute = int64(60_000)

// head is a plan of a full head for the chair: plaits, then pieces.
func head(t require.TestingT, change func(*plan.Input)) chair.Brief {
	in := plan.Default()
	if change != nil {
		change(&in)
	}
	sol, err := plan.Solve(context.Background(), in)
	require.NoError(t, err)
	c, err := freeze.ForChair(sol)
	require.NoError(t, err)
	return c.Brief
}

// teller makes events of one device, one after the other.
type teller struct {
	hand   string
	at     int64
	n      int
	events []chair.Event
}

func (d *teller) tell(after int64, e chair.Event) chair.Event {
	d.at += after
	d.n++
	e.ID, e.N, e.At, e.Hand = fmt.Sprintf("%s-%08d", d.hand, d.n), d.n, d.at, d.hand
	d.events = append(d.events, e)
	return e
}

func view(b *chair.Brief, d *teller) chair.View {
	return b.Fold(d.events).View(chair.Wish{Hand: d.hand, ByRow: b.ByRow, Now: d.at})
}

// Going by the card from the first part to the last check does every task once, rows together, and
// leaves nothing.
func TestTheCardLeadsThroughTheWholeHead(t *testing.T) {
	for name, change := range map[string]func(*plan.Input){
		"all plaits first": nil,
		"row by row":       func(in *plan.Input) { in.Day = &plan.Day{Order: &plan.WorkOrder{ByRow: true}} },
	} {
		t.Run(name, func(t *testing.T) {
			b := head(t, change)
			d := &teller{hand: b.Hands[0].Key}
			d.tell(0, chair.Event{Kind: chair.Began})
			seen := map[string]bool{}
			rows := 0
			row := ""
			for {
				v := view(&b, d)
				if v.Card == nil {
					assert.Equal(t, v.Watch.Of, v.Watch.Done)
					assert.Equal(t, v.Watch.PiecesOf, v.Watch.Pieces)
					assert.Zero(t, v.Watch.Left.Likely)
					break
				}
				require.False(t, seen[v.Card.Task], "%s comes twice", v.Card.Task)
				require.Empty(t, v.Watch.Missed)
				seen[v.Card.Task] = true
				if key := string(v.Card.Kind) + v.Card.RowName; v.Card.RowName != "" && key != row {
					row = key
					rows++
				}
				d.tell(2*minute, chair.Event{Kind: chair.Done, Tasks: []string{v.Card.Task}})
			}
			assert.Len(t, seen, len(b.Tasks))
			assert.Equal(t, 2*len(b.Rows), rows, "a row is begun once for its plaits and once for its pieces")
		})
	}
}

// Any order of arrival of the same events, and any of them twice, gives the same state.
func TestFoldKnowsNoOrder(t *testing.T) {
	b := head(t, nil)
	rapid.Check(t, func(t *rapid.T) {
		events := someEvents(t, &b, rapid.IntRange(1, 120).Draw(t, "events"))
		wish := chair.Wish{Hand: b.Hands[0].Key, Now: events[len(events)-1].At + minute}
		want := seenAs(t, b.Fold(events), wish)
		mixed := slices.Clone(events)
		for range rapid.IntRange(0, 20).Draw(t, "twice") {
			mixed = append(mixed, rapid.SampledFrom(events).Draw(t, "again"))
		}
		mixed = rapid.Permutation(mixed).Draw(t, "order")
		assert.Equal(t, want, seenAs(t, b.Fold(mixed), wish))
	})
}

// seenAs is all that can be seen of a state.
func seenAs(t require.TestingT, s *chair.State, w chair.Wish) string {
	text, err := json.Marshal(struct {
		View chair.View
		Log  chair.Log
	}{s.View(w), s.Log()})
	require.NoError(t, err)
	return string(text)
}

// someEvents are events of two devices whose clocks and counters overlap.
func someEvents(t *rapid.T, b *chair.Brief, n int) []chair.Event {
	kinds := []chair.Kind{
		chair.Began, chair.Done, chair.Done, chair.Done, chair.Redo, chair.LeftOut, chair.Split, chair.Moved, chair.Spoilt, chair.Opened, chair.Short, chair.Bought,
		chair.Filled, chair.Paused, chair.Rested, chair.Answered, chair.Checked, chair.Noted, chair.Photographed, chair.Ended, chair.Undone,
	}
	var out []chair.Event
	keys := make([]string, len(b.Tasks))
	for i, task := range b.Tasks {
		keys[i] = task.Key
	}
	for i := range n {
		e := chair.Event{
			ID: fmt.Sprintf("event-%06d", i), N: rapid.IntRange(1, n).Draw(t, "n"), At: int64(rapid.IntRange(0, 600).Draw(t, "minute")) * minute,
			Hand: rapid.SampledFrom([]string{"first", "other"}).Draw(t, "hand"), Kind: rapid.SampledFrom(kinds).Draw(t, "kind"),
			Piece: b.Pieces[0].Key, Count: rapid.IntRange(1, 3).Draw(t, "count"), Text: rapid.SampledFrom([]string{"thin", "half", "arms"}).Draw(t, "text"),
			Answer: chair.Pulls, Photo: "photo", Of: fmt.Sprintf("event-%06d", rapid.IntRange(0, n-1).Draw(t, "of")),
		}
		for range rapid.IntRange(1, 4).Draw(t, "tasks") {
			e.Tasks = append(e.Tasks, rapid.SampledFrom(keys).Draw(t, "task"))
		}
		place := rapid.SampledFrom(b.Places).Draw(t, "place").ID
		e.Places = []string{place}
		if e.Kind == chair.Split { // what comes of it may be worked at by later events
			keys = append(keys, chair.AttachKey(place+"#"+e.ID))
		}
		out = append(out, e)
	}
	return out
}

// What is told of a place is what is seen of it.
func TestWhatIsToldIsSeen(t *testing.T) {
	b := head(t, nil)
	d := &teller{hand: b.Hands[0].Key}
	d.tell(0, chair.Event{Kind: chair.Began})
	place := b.Places[0].ID
	d.tell(3*minute, chair.Event{Kind: chair.Done, Tasks: []string{chair.AttachKey(place)}})
	v := view(&b, d)
	assert.Equal(t, chair.Closed, v.Pieces[0])
	assert.Equal(t, chair.Closed, v.Plaits[0], "what hangs hangs on a plait, told of or not")

	d.tell(minute, chair.Event{Kind: chair.Split, Places: []string{place}})
	v = view(&b, d)
	assert.Equal(t, chair.Open, v.Pieces[0], "its twin has no piece")
	assert.Equal(t, []int{0}, v.Twins)
	assert.Equal(t, len(b.Tasks)+2, v.Watch.Of)
	twin := d.events[len(d.events)-1]
	d.tell(minute, chair.Event{Kind: chair.Done, Tasks: []string{chair.AttachKey(place + "#" + twin.ID)}})
	assert.Equal(t, chair.Closed, view(&b, d).Pieces[0])

	d.tell(minute, chair.Event{Kind: chair.Moved, Places: []string{b.Places[2].ID, "none"}, Text: "one row up"})
	notes := view(&b, d).Notes
	require.Len(t, notes, 1)
	assert.Contains(t, notes[0].Text, "came out elsewhere: one row up")
	d.tell(minute, chair.Event{Kind: chair.LeftOut, Places: []string{b.Places[1].ID}})
	v = view(&b, d)
	assert.Equal(t, chair.Without, v.Pieces[1])
	assert.Equal(t, len(b.Tasks), v.Watch.Of)

	redo := d.tell(minute, chair.Event{Kind: chair.Redo, Tasks: []string{chair.AttachKey(place)}})
	assert.Equal(t, chair.Open, view(&b, d).Pieces[0])
	d.tell(minute, chair.Event{Kind: chair.Undone, Of: redo.ID})
	v = view(&b, d)
	assert.Equal(t, chair.Closed, v.Pieces[0])
	require.NotEmpty(t, v.Undo)
	assert.NotEqual(t, redo.ID, v.Undo[0].ID, "what is undone is not offered again")
	assert.LessOrEqual(t, len(v.Undo), 10)
}

// A hole in a row is told when the row is left, and before the region is.
func TestMissedPlacesAreFoundBeforeARegionIsLeft(t *testing.T) {
	b := head(t, nil)
	d := &teller{hand: b.Hands[0].Key}
	d.tell(0, chair.Event{Kind: chair.Began})
	missed, region := "", ""
	for step := 0; ; step++ {
		v := view(&b, d)
		require.NotNil(t, v.Card)
		if v.Behind != nil {
			assert.Equal(t, []string{missed}, v.Behind.Tasks)
			assert.Equal(t, region, v.Behind.Region)
			assert.NotEqual(t, region, b.Rows[b.Places[v.Card.Planned].Row].Region)
			return
		}
		task := v.Card.Task
		if v.Card.Kind == pace.Plaits && missed == "" {
			missed, region = task, b.Rows[b.Places[v.Card.Planned].Row].Region
			w := chair.Wish{Hand: d.hand, From: v.Card.Row[1], Stays: true, Now: d.at}
			v = b.Fold(d.events).View(w)
			task = v.Card.Task
			require.Equal(t, w.From, task, "a touch on the head goes there")
		}
		require.Less(t, step, len(b.Tasks), "nothing was said of what was missed")
		require.NotEqual(t, missed, task, "it came back by itself only once the head was through")
		d.tell(2*minute, chair.Event{Kind: chair.Done, Tasks: []string{task}})
	}
}

// Two who work never have the same row shown while there is another.
func TestTwoAreNotSentToOneRow(t *testing.T) {
	b := head(t, func(in *plan.Input) {
		in.Day = &plan.Day{Hands: []plan.Hand{
			{Key: "one", Name: "One", Hand: pace.Practised, Does: plan.DoesBoth}, {Key: "two", Name: "Two", Hand: pace.Used, Does: plan.PlaitsFirst},
		}}
	})
	one, two := &teller{hand: "one"}, &teller{hand: "two"}
	v := func(events []chair.Event) chair.Watch {
		return b.Fold(events).View(chair.Wish{Hand: "one", Now: 1}).Watch
	}
	all := func() []chair.Event { return append(slices.Clone(one.events), two.events...) }
	shown := func(d *teller) *chair.Card {
		return b.Fold(all()).View(chair.Wish{Hand: d.hand, ByRow: true, Now: d.at}).Card
	}
	one.tell(0, chair.Event{Kind: chair.Began})
	one.tell(15*minute, chair.Event{Kind: chair.Done, Tasks: []string{b.Tasks[0].Key}})
	two.tell(0, chair.Event{Kind: chair.Began})
	apart := 0
	for range 2 * len(b.Tasks) {
		for _, d := range []*teller{one, two} {
			if c := shown(d); c != nil {
				other := one
				if d == one {
					other = two
				}
				if o := shown(other); o != nil && v(all()).Of-v(all()).Done > 2*len(b.Places)/len(b.Rows) {
					require.NotEqual(t, c.Task, o.Task, "both are shown one thing")
					apart++
				}
				d.n = max(one.n, two.n)
				d.tell(2*minute, chair.Event{Kind: chair.Done, Tasks: []string{c.Task}})
			}
		}
	}
	assert.Greater(t, apart, len(b.Tasks)/2)
	w := v(all())
	assert.Equal(t, w.Of, w.Done)
}

// Taps that come late, in one go or after a pause nobody told of, do not spoil the pace.
func TestTimeIsBelievedWhereItCanBe(t *testing.T) {
	b := head(t, nil)
	plaits := slices.DeleteFunc(slices.Clone(b.Tasks), func(x chair.Task) bool { return x.Kind != pace.Plaits })
	d := &teller{hand: b.Hands[0].Key}
	d.tell(0, chair.Event{Kind: chair.Began})
	done := func(after float64, tasks ...chair.Task) {
		e := chair.Event{Kind: chair.Done}
		for _, x := range tasks {
			e.Tasks = append(e.Tasks, x.Key)
		}
		d.tell(int64(after*float64(minute)), e)
	}
	planned, next := 0.0, 0
	take := func(n int) (out []chair.Task, minutes float64) {
		out = plaits[next : next+n]
		next += n
		for _, x := range out {
			minutes += x.Minutes[0]
		}
		planned += minutes
		return out, minutes
	}
	const slower = 1.5
	one, m := take(1)
	done(slower*m, one...)
	row, m := take(5)
	done(slower*m, row...) // a row by one touch
	late, m := take(4)     // told of one after the other when all were done
	done(slower*m, late[0])
	for _, x := range late[1:] {
		done(0.02, x)
	}
	one, m = take(1) // a pause in the middle of it, told of
	d.tell(int64(0.5*slower*m*float64(minute)), chair.Event{Kind: chair.Paused, Text: "break"})
	d.tell(30*minute, chair.Event{Kind: chair.Began})
	done(0.5*slower*m, one...)
	evidence := b.Fold(d.events).Evidence()
	require.Len(t, evidence, 1)
	assert.InEpsilon(t, slower*planned, evidence[0].Actual, 0.02)
	assert.InEpsilon(t, planned, evidence[0].Planned, 1e-9)

	gap, _ := take(1) // a phone call
	done(90, gap...)
	caught, _ := take(6) // written down afterwards
	done(0.2, caught...)
	assert.Equal(t, evidence, b.Fold(d.events).Evidence())
}

// Packs: what is at hand, less what hangs and is spoilt, against what is still to come.
func TestPacksAgainstReach(t *testing.T) {
	b := head(t, nil)
	p := b.Pieces[0]
	require.Greater(t, p.Yield, 4)
	d := &teller{hand: b.Hands[0].Key}
	d.tell(0, chair.Event{Kind: chair.Began})
	d.tell(0, chair.Event{Kind: chair.Opened, Piece: p.Key, Count: 1})
	var keys []string
	for _, x := range b.Tasks {
		if x.Place >= 0 && x.Kind == pace.Attach {
			keys = append(keys, x.Key)
		}
	}
	d.tell(20*minute, chair.Event{Kind: chair.Done, Tasks: keys[:5]})
	w := view(&b, d).Watch.Packs[0]
	assert.Equal(t, chair.PackWatch{Piece: 0, Used: 5, Opened: 1, Loose: p.Yield - 5, Shut: p.Have - p.Yield, Still: p.Need - 5, Says: w.Says, Checks: w.Checks}, w)
	last := w.Checks[len(w.Checks)-1]
	assert.InDelta(t, float64(p.Need)/float64(p.Yield), last.Planned, 1e-9)
	assert.InDelta(t, last.Planned, last.Now, 1e-9)

	lost := p.Have - p.Need + 1 // one more than there are spares
	d.tell(minute, chair.Event{Kind: chair.Spoilt, Piece: p.Key, Count: lost})
	w = view(&b, d).Watch.Packs[0]
	assert.Equal(t, 5+lost, w.Used)
	assert.GreaterOrEqual(t, w.Short, 1, "what spoils goes on spoiling")
	assert.Contains(t, w.Says, "order")
	d.tell(minute, chair.Event{Kind: chair.Bought, Piece: p.Key, Count: 40})
	assert.Zero(t, view(&b, d).Watch.Packs[0].Short)
}

// A section that came out as two makes its side uneven, and the log says what to change.
func TestTheLogSaysWhatToChange(t *testing.T) {
	b := head(t, nil)
	d := &teller{hand: b.Hands[0].Key}
	d.tell(0, chair.Event{Kind: chair.Began})
	split := 0
	for _, x := range b.Tasks {
		times := 1.0
		if x.Kind == pace.Plaits {
			times = 1.4
		}
		d.tell(int64(times*x.Minutes[0]*float64(minute)), chair.Event{Kind: chair.Done, Tasks: []string{x.Key}})
		if x.Kind == pace.Plaits && b.Rows[b.Places[x.Place].Row].Region == "behind" && b.Rows[b.Places[x.Place].Row].Left && split < 3 {
			split++
			e := d.tell(0, chair.Event{Kind: chair.Split, Places: []string{b.Places[x.Place].ID}})
			twin := b.Places[x.Place].ID + "#" + e.ID
			d.tell(int64(1.4*x.Minutes[0]*float64(minute)), chair.Event{Kind: chair.Done, Tasks: []string{chair.PlaitKey(twin)}})
		}
	}
	s := b.Fold(d.events)
	log := s.Log()
	require.NotEmpty(t, log.Change)
	assert.Contains(t, log.Change[0], "Part and plait took 1.4 × as long as planned")
	assert.Contains(t, log.Change[0], "your sections behind came out smaller")
	assert.Equal(t, 3, log.Twice)
	odd := 0
	for _, row := range s.View(chair.Wish{Now: d.at}).Watch.Balance {
		if row.Odd {
			odd++
			assert.Greater(t, row.Left, row.Right)
		}
	}
	assert.NotZero(t, odd)
}

func TestEventsThatSayNothingAreRefused(t *testing.T) {
	good := chair.Event{ID: "12345678", N: 1, Kind: chair.Done, Tasks: []string{"finish"}}
	refused := func(change func(*chair.Event)) bool {
		e := good
		change(&e)
		var bad invalid.Errors
		e.Check(&bad, "events[0].")
		return len(bad) > 0
	}
	assert.False(t, refused(func(*chair.Event) {}))
	for name, change := range map[string]func(*chair.Event){
		"kind":   func(e *chair.Event) { e.Kind = "danced" },
		"tasks":  func(e *chair.Event) { e.Tasks = nil },
		"id":     func(e *chair.Event) { e.ID = "1" },
		"number": func(e *chair.Event) { e.N = 0 },
		"count":  func(e *chair.Event) { e.Kind = chair.Spoilt },
		"places": func(e *chair.Event) { e.Kind = chair.Split },
		"of":     func(e *chair.Event) { e.Kind = chair.Undone },
		"photo":  func(e *chair.Event) { e.Kind = chair.Photographed },
		"text":   func(e *chair.Event) { e.Kind = chair.Noted },
	} {
		assert.True(t, refused(change), name)
	}
}

// The fold of a long install; the card sets 20 ms for 5,000 events.
func BenchmarkFold(bench *testing.B) {
	b := head(bench, nil)
	random := rand.New(rand.NewPCG(1, 2))
	var events []chair.Event
	for i := range 5000 {
		kind := []chair.Kind{chair.Done, chair.Done, chair.Done, chair.Redo, chair.Spoilt, chair.Noted}[random.IntN(6)]
		events = append(events, chair.Event{
			ID: fmt.Sprintf("event-%06d", random.IntN(1_000_000)), N: i + 1, At: int64(i) * minute, Hand: "first", Kind: kind,
			Tasks: []string{b.Tasks[random.IntN(len(b.Tasks))].Key}, Piece: b.Pieces[0].Key, Count: 1, Text: "note",
		})
	}
	for bench.Loop() {
		b.Fold(events).View(chair.Wish{Now: 5000 * minute})
	}
}
