package chair

import (
	"fmt"
	"math"
	"slices"

	"kladotex/core/pace"
)

// Watch is how an install stands against its plan.
type Watch struct {
	// Done of Of are all tasks, those left out apart.
	Done int `json:"done"`
	Of   int `json:"of"`
	// Pieces hang of PiecesOf.
	Pieces   int          `json:"pieces"`
	PiecesOf int          `json:"piecesOf"`
	Stages   []StageWatch `json:"stages"`
	// Worked are the minutes at it so far, Planned those planned for what is done.
	Worked  float64 `json:"workedMin"`
	Planned float64 `json:"plannedMin"`
	// Left is what is still to do, breaks apart; Until what of it is planned for this sitting, and
	// Ends when that is over with breaks, as three points in time.
	Left    pace.Range `json:"leftMin"`
	Until   pace.Range `json:"untilMin"`
	Ends    [3]int64   `json:"ends" doc:"Soonest, likely and latest end of this sitting, milliseconds since 1970"`
	Sitting string     `json:"sitting"`
	Says    string     `json:"says" doc:"Pace against plan, in words"`
	// Timed is true once taps tell of pace.
	Timed   bool         `json:"timed"`
	Packs   []PackWatch  `json:"packs"`
	Balance []RowBalance `json:"balance"`
	Missed  []Missed     `json:"missed"`
}

// StageWatch is one stage of the work.
type StageWatch struct {
	Kind    pace.Kind `json:"kind" enum:"settle,tracks,net,plaits,hook,attach,finish"`
	Name    string    `json:"name"`
	Done    int       `json:"done"`
	Of      int       `json:"of"`
	Planned float64   `json:"plannedMin" doc:"Of all of it"`
	Left    float64   `json:"leftMin"`
}

// PackWatch is one piece against its packs.
type PackWatch struct {
	Piece int `json:"piece" doc:"Index of the piece"`
	// Used hang, fill or are spoilt; Spoilt are those of them that are.
	Used   int `json:"used"`
	Spoilt int `json:"spoilt"`
	Opened int `json:"opened"`
	// Loose are in packs that are open, Shut in those that are not; Still go on as planned,
	// Short are those that will be wanting, of what is at hand.
	Loose int    `json:"loose"`
	Shut  int    `json:"shut"`
	Still int    `json:"still"`
	Short int    `json:"short"`
	Says  string `json:"says"`
	// Checks are what is expected where a region ends.
	Checks []PackCheck `json:"checks"`
}

// PackCheck is how many packs a region ends with.
type PackCheck struct {
	Region string `json:"region"`
	// Planned packs close it, and Now as many as it looks.
	Planned float64 `json:"planned"`
	Now     float64 `json:"now"`
	Closed  bool    `json:"closed"`
}

// RowBalance is a row on both sides.
type RowBalance struct {
	Name string `json:"name"`
	// Left and Right are the places of each side, LeftDone and RightDone those with their pieces.
	Left      int  `json:"left"`
	Right     int  `json:"right"`
	LeftDone  int  `json:"leftDone"`
	RightDone int  `json:"rightDone"`
	Odd       bool `json:"odd" doc:"True where the sides do not agree"`
}

func (s *State) watch(w Wish) Watch {
	out := Watch{Stages: s.stages(), Packs: s.packs(), Balance: s.balance(), Missed: []Missed{}}
	for i := range s.tasks {
		t := &s.tasks[i]
		if t.status == Without {
			continue
		}
		out.Of++
		count := 0
		if t.Place >= 0 && attaches(t.Kind) {
			count = s.places[t.Place].Count
		}
		out.PiecesOf += count
		if t.status == Closed {
			out.Done++
			out.Pieces += count
		}
	}
	s.hours(w, &out)
	return out
}

// stages are those there are, in the order of a day.
func (s *State) stages() []StageWatch {
	out := []StageWatch{}
	for _, kind := range []pace.Kind{pace.Settle, pace.Cornrows, pace.Nets, pace.Plaits, pace.Hook, pace.Attach, pace.Finish} {
		w := StageWatch{Kind: kind, Name: kind.Name()}
		for i := range s.tasks {
			t := &s.tasks[i]
			if t.Kind != kind || t.status == Without {
				continue
			}
			w.Of++
			w.Planned += t.Minutes[0]
			if t.status == Closed {
				w.Done++
			} else {
				w.Left += t.Minutes[0]
			}
		}
		if w.Of > 0 {
			out = append(out, w)
		}
	}
	return out
}

// hours says what is left, and when the sitting ends.
func (s *State) hours(w Wish, out *Watch) {
	pace0 := s.pace(s.streams[0].key)
	timed, timedPlanned := 0.0, 0.0
	resting := 0.0
	for h := range s.streams {
		out.Worked += s.streams[h].worked()
		for _, g := range s.streams[h].groups {
			if g.believed() {
				timed += g.minutes
				timedPlanned += g.planned
			}
		}
		if s.streams[h].working {
			resting = max(resting, float64(w.Now-s.streams[h].rested)/minute)
		}
	}
	sitting := s.sittingNow()
	left, until := 0.0, 0.0
	for i := range s.tasks {
		t := &s.tasks[i]
		if t.status != Open {
			if t.status == Closed {
				out.Planned += t.Minutes[min(s.hand(t.by), len(t.Minutes)-1)]
			}
			continue
		}
		minutes := t.Minutes[0] * pace0(t.Skill)
		left += minutes
		if t.Sitting <= sitting {
			until += minutes
		}
	}
	if s.Alone > 0 && s.Together < s.Alone {
		share := s.Together / s.Alone
		left, until = left*share, until*share
	}
	by := spread(timed)
	around := func(m float64) pace.Range { return pace.Range{Low: m * (1 - by), Likely: m, High: m * (1 + by)} }
	out.Left, out.Until, out.Timed = around(left), around(until), timed > 0
	if sitting >= 0 && sitting < len(s.Sittings) {
		out.Sitting = s.Sittings[sitting].Name
	}
	for k, m := range []float64{out.Until.Low, out.Until.Likely, out.Until.High} {
		if s.Rests.After > 0 {
			m += s.Rests.Long * math.Floor((min(resting, s.Rests.After)+m)/s.Rests.After)
		}
		out.Ends[k] = w.Now + int64(m*minute)
	}
	out.Says = paceText(timed, timedPlanned)
}

// sittingNow is the sitting that is worked at: that of what was done last while anything of it or of
// a later one is open, else the first with anything open; -1 for none.
func (s *State) sittingNow() int {
	at := 0
	for _, w := range s.streams {
		if w.latest >= 0 {
			at = max(at, s.tasks[w.latest].Sitting)
		}
	}
	now, first := -1, -1
	for i := range s.tasks {
		t := &s.tasks[i]
		if t.status != Open {
			continue
		}
		if first < 0 || t.Sitting < first {
			first = t.Sitting
		}
		if t.Sitting >= at && (now < 0 || t.Sitting < now) {
			now = t.Sitting
		}
	}
	if now < 0 {
		return first
	}
	return now
}

// paceText says pace against plan; nothing before there is something to say.
func paceText(timed, planned float64) string {
	if timed < 5 {
		return "Pace shows after the first few pieces."
	}
	switch off := math.Round(timed - planned); {
	case math.Abs(off) < max(2, 0.03*planned):
		return "As fast as planned."
	case off < 0:
		return fmt.Sprintf("%.0f min ahead of the plan.", -off)
	default:
		return fmt.Sprintf("%.0f min behind the plan.", off)
	}
}

// regions are those of the pieces in working order.
func (s *State) regions() (out []string) {
	for _, row := range s.workedRows() {
		if r := s.Rows[row].Region; !slices.Contains(out, r) {
			out = append(out, r)
		}
	}
	return out
}

// packs hold every piece against what is at hand.
func (s *State) packs() []PackWatch {
	out := make([]PackWatch, len(s.Pieces))
	regions := s.regions()
	for k := range s.Pieces {
		p := &s.Pieces[k]
		c := s.used[p.Key]
		w := PackWatch{Piece: k, Spoilt: c.spoilt, Opened: c.opened, Checks: []PackCheck{}}
		hung, planned, open, again := 0, 0, 0, 0
		for i := range s.places {
			if s.places[i].Piece != k || s.places[i].attach < 0 {
				continue
			}
			t := &s.tasks[s.places[i].attach]
			if i == s.places[i].planned {
				planned += s.places[i].Count
			}
			switch t.status {
			case Closed:
				hung += s.places[i].Count
			case Open:
				open += s.places[i].Count
			}
			again += t.again
		}
		w.Used = hung + c.filled + c.spoilt
		fill := max(0, p.Need-planned-c.filled)
		// What splits and spoils goes on as it did.
		lost := 0.0
		if hung > 0 {
			lost = float64(c.spoilt) / float64(hung)
		}
		grown := s.grown(k)
		w.Still = open + fill
		expected := float64(open)*(1+lost)*grown + float64(fill)
		had := p.Have + c.bought*p.Yield - c.short
		w.Loose = max(0, c.opened*p.Yield-c.short-w.Used)
		w.Shut = max(0, had-w.Used-w.Loose)
		w.Short = max(0, int(math.Ceil(expected-1e-9))-(had-w.Used))
		w.Says = s.packText(p, &w, had)
		w.Checks = s.checks(k, regions, p.Yield)
		out[k] = w
	}
	return out
}

// grown is how many more places of a piece there are than planned, in the regions that were begun:
// as sections come out so far, so will the rest.
func (s *State) grown(piece int) float64 {
	planned, found := 0, 0
	for i := range s.places {
		p := &s.places[i]
		if p.Piece != piece || p.attach < 0 {
			continue
		}
		k := p.plait
		if k < 0 {
			k = p.attach
		}
		switch {
		case i != p.planned:
			found++
		case s.tasks[k].status == Closed:
			planned++
			found++
		}
	}
	if planned < 8 {
		return 1
	}
	return max(1, float64(found)/float64(planned))
}

// packText says in words how a piece stands; had is what was at hand from the beginning.
func (s *State) packText(p *Piece, w *PackWatch, had int) string {
	switch {
	case w.Short > 0 && p.Yield > 0:
		packs := (w.Short + p.Yield - 1) / p.Yield
		what := "one pack"
		if packs > 1 {
			what = fmt.Sprintf("%d packs", packs)
		}
		return fmt.Sprintf("%s short: order %s now, or widen the sections that are left.", number(w.Short, "piece"), what)
	case w.Still == 0:
		return fmt.Sprintf("All on; %s left over.", number(had-w.Used, "piece"))
	}
	over := had - w.Used - w.Still
	return fmt.Sprintf("Enough: %d to go on, %d at hand, %d over.", w.Still, had-w.Used, over)
}

// checks say how many packs each region closes with, as planned and as it looks.
func (s *State) checks(piece int, regions []string, yield int) []PackCheck {
	out := []PackCheck{}
	if yield == 0 {
		return out
	}
	planned, now := 0, float64(s.used[s.Pieces[piece].Key].spoilt)
	for _, region := range regions {
		of, open := 0, 0
		for i := range s.places {
			p := &s.places[i]
			if p.Piece != piece || p.attach < 0 || s.Rows[p.Row].Region != region {
				continue
			}
			if i == p.planned {
				planned += p.Count
				of++
			}
			switch s.tasks[p.attach].status {
			case Closed:
				now += float64(p.Count)
			case Open:
				open++
				now += float64(p.Count)
			}
		}
		if of > 0 {
			out = append(out, PackCheck{Region: region, Planned: float64(planned) / float64(yield), Now: now / float64(yield), Closed: open == 0})
		}
	}
	return out
}

// balance sets every row beside that of the other side.
func (s *State) balance() []RowBalance {
	out := []RowBalance{}
	for r := range s.Rows {
		row := s.Rows[r]
		if row.Mirror < 0 || !row.Left {
			continue
		}
		b := RowBalance{Name: bothSides(row.Name)}
		b.Left, b.LeftDone = s.side(r)
		b.Right, b.RightDone = s.side(row.Mirror)
		b.Odd = b.Left != b.Right
		out = append(out, b)
	}
	return out
}

// side counts the places of a row, and those that are done.
func (s *State) side(row int) (places, done int) {
	for _, i := range s.rows[row] {
		if k := s.places[i].attach; k >= 0 && s.tasks[k].status != Without {
			places++
			if s.tasks[k].status == Closed {
				done++
			}
		}
	}
	return places, done
}
