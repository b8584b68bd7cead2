package plan

import (
	"fmt"
	"slices"
	"strings"

	"kladotex/core/craft"
	"kladotex/core/fall"
	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/quote"
)

// HookSpacing is the distance between pieces on the base, mm: as the plan says, else from the
// thickness of the piece that hangs there; never closer than a piece is thick.
func (in Input) HookSpacing() float64 { return in.hooksApart(craft.HookShare) }

// shownSpacing is [Input.HookSpacing] on cornrows that show, netSpacing that on a net.
func (in Input) shownSpacing() float64 { return in.hooksApart(craft.ShownShare) }
func (in Input) netSpacing() float64   { return in.hooksApart(craft.NetShare) }

// hookedThickness is how thick the piece is that hangs on the base, mm.
func (in Input) hookedThickness() (thick float64) {
	for i, use := range in.Uses {
		if use.names() && (i == 0 || use.Where.Kind == OnBase) {
			thick = 0
			for _, key := range use.keys() {
				thick = max(thick, in.Piece(key).Thickness)
			}
		}
	}
	return thick
}

func (in Input) hooksApart(share float64) float64 {
	thick, spacing := in.hookedThickness(), in.Parting.Base.Spacing
	if spacing == 0 {
		if in.Custom(Airiness) == "packed" {
			share = max(craft.ShownShare, share*craft.ShownShare/craft.HookShare)
		}
		spacing = share * thick
	}
	return max(parting.MinSpacing, min(parting.MaxSpacing, max(spacing, thick)))
}

// Wish is what is wanted of the install; nothing where nothing was said.
func (in Input) Wish() method.Wishes {
	if in.Wishes == nil {
		return method.Wishes{}
	}
	return *in.Wishes
}

// wantedText says what is wished of the head in a line.
func (in Input) wantedText() string {
	if in.Wanted == nil {
		return "open"
	}
	return in.Wanted.Says()
}

// PricedBy is what the install is priced by; the usual where nothing was said.
func (in Input) PricedBy() quote.Basis {
	if in.Price == nil {
		return quote.Basis{}
	}
	return *in.Price
}

// Piece is the piece with a key; empty when there is none.
func (in Input) Piece(key string) hair.Piece {
	for _, p := range in.Pieces {
		if p.Key == key {
			return p
		}
	}
	return hair.Piece{}
}

// WayName is what a way is called: its method, with its letter where there are several to tell
// apart. The hooking of the base has no letter on a head that has no base.
func (in Input) WayName(key string) string {
	shown := slices.DeleteFunc(slices.Clone(in.Ways), func(w Way) bool {
		return in.Parting.Structure == parting.AllIndividuals && w.Key == in.Uses[1].Way &&
			!slices.ContainsFunc(in.Uses, func(u Use) bool { return u.Where.Kind != OnBase && u.Way == w.Key })
	})
	named := func(w Way) bool { return w.Key == key }
	i := slices.IndexFunc(in.Ways, named)
	if i < 0 {
		return key
	}
	m, _ := method.Lookup(in.Ways[i].Method)
	if at := slices.IndexFunc(shown, named); at >= 0 && len(shown) > 1 {
		return string(rune('A'+at)) + " " + m.Name
	}
	return m.Name
}

// comparedName is [Input.WayName] for telling what differs: with a letter only where another way
// has the same method, so that one more way does not change what the others are called.
func (in Input) comparedName(key string) string {
	at := slices.IndexFunc(in.Ways, func(w Way) bool { return w.Key == key })
	if at < 0 {
		return key
	}
	m, _ := method.Lookup(in.Ways[at].Method)
	for i, w := range in.Ways {
		if i != at && w.Method == in.Ways[at].Method {
			return in.WayName(key)
		}
	}
	return m.Name
}

// Fragile tells whether the edges bear less than the rest.
func (in Input) Fragile() bool {
	return in.Hair.Edges == hair.FragileEdges || in.Hair.Edges == hair.BareEdges
}

// Dated is the plan's day; nothing settled where nothing was said.
func (in Input) Dated() Day {
	if in.Day == nil {
		return Day{}
	}
	return *in.Day
}

// Hands are those who work: at least one.
func (in Input) Hands() []Hand {
	if hands := in.Dated().Hands; len(hands) > 0 {
		return hands
	}
	return []Hand{Someone}
}

// UsualSittings are those of a plan that says nothing: one day with breaks, arms put down; for a
// child two short sittings, on one's own head evenings.
func (in Input) UsualSittings() Sittings {
	s := Sittings{Longest: craft.LongSitting, At: "09:00", Every: 1, Breaks: Breaks{After: craft.BreakAfter, Long: craft.BreakLong, Arms: true}}
	switch {
	case in.Child:
		s.Longest, s.Breaks.After = craft.ChildSitting, craft.ChildBreakAfter
	case in.OwnHead:
		s.Longest, s.At, s.Home = craft.OwnSitting, "18:30", true
	}
	return s
}

// Sittings are how the plan's work is cut up.
func (in Input) Sittings() Sittings {
	if s := in.Dated().Sittings; s != nil {
		return *s
	}
	return in.UsualSittings()
}

// WorkOrder is the plan's working order where it departs from the usual one.
func (in Input) WorkOrder() WorkOrder {
	if o := in.Dated().Order; o != nil {
		return *o
	}
	return WorkOrder{}
}

// InstallDay is the date of the install; empty while that is open.
func (in Input) InstallDay() string { return in.Dated().Install }

// Worker is one of those who work, by the day's list; where it names nobody, practised hands.
func (in Input) Worker(k int) pace.Worker {
	hand := in.Hands()[k]
	out := pace.Worker{Hand: hand.Hand, Own: 1, New: hand.New}
	if in.OwnHead && k == 0 {
		out.Own = hand.Own()
	}
	if in.Day == nil {
		return out
	}
	if len(hand.Logged) > 0 {
		out.Logged = make(map[string]pace.Timed, len(hand.Logged))
		for _, l := range hand.Logged {
			out.Logged[l.Skill] = pace.Timed{Factor: l.Factor * out.Own, Spread: l.Spread}
		}
	}
	timed := map[string]pace.Timed{}
	for _, t := range in.Day.Trials {
		if t.By == hand.Key {
			timed[t.Skill] = out.Time(t.Skill, t.Minutes, t.Rate)
		}
	}
	out.Timed = timed
	return out
}

// Ready is what must be at hand for the sides that a plan takes and the methods it uses, beside hair and hook.
func (in Input) Ready() (list []string) {
	add := func(things ...string) {
		for _, x := range things {
			if !slices.Contains(list, x) {
				list = append(list, x)
			}
		}
	}
	for _, c := range Customs {
		for _, side := range c.Sides {
			if side.Key == in.Custom(c.Key) {
				add(side.Ready...)
			}
		}
	}
	if in.Plaits.Fed > 0 {
		add("a little hair to feed into the ends")
	}
	for _, w := range in.Ways {
		m, _ := method.Lookup(w.Method)
		chosen := m.DecidedOn(in.Child, w.Choices)
		if chosen["tip"] == "glue" || chosen["end"] == "glue" {
			add("glue and what dissolves it")
		}
		if chosen["end"] == "water" {
			add("a thermometer, a towel and hot water")
		}
	}
	return list
}

// Custom is the side the plan takes on a question.
func (in Input) Custom(key string) string {
	if side := in.Customs[key]; side != "" {
		return side
	}
	i := slices.IndexFunc(Customs, func(c Custom) bool { return c.Key == key })
	return Customs[i].Usual
}

// trimmed is how the ends are cut; nothing where they stay as they come.
func (in Input) trimmed() Trim {
	if in.Trim == nil {
		return Trim{}
	}
	return *in.Trim
}

// CutWords says how the ends are cut, in a sentence.
func (in Input) CutWords() string {
	if in.Trim == nil {
		return "The ends stay as they come."
	}
	line, _ := fall.LineOf(in.Trim.Line)
	name := strings.ToLower(line.Name)
	switch in.Trim.Shape {
	case fall.Layers:
		return fmt.Sprintf("Layers: the lowest row ends at the %s, each row above it higher.", name)
	case fall.Bob:
		return fmt.Sprintf("A rounded bob to the %s: the outer rows end there, those beneath a little above, and it lengthens to the face.", name)
	}
	return fmt.Sprintf("One blunt line at the %s.", name)
}

// Wearing is the stature the plan is drawn at, and whether anybody said it.
func (in Input) Wearing() (stature float64, asked bool) {
	switch {
	case in.Stature > 0:
		return in.Stature, true
	case in.Child:
		return craft.ChildStature, false
	}
	return craft.Stature, false
}

// AccentName is what an accent is called.
func (in Input) AccentName(a Accent) string {
	if a.Thing != nil {
		return a.Thing.Name
	}
	return in.Piece(a.Piece).Name
}

// AccentPiece is the index of the piece of an accent, -1 for a small thing.
func (in Input) AccentPiece(accent int) int {
	key := in.Accents[accent].Piece
	if key == "" {
		return -1
	}
	return slices.IndexFunc(in.Pieces, func(p hair.Piece) bool { return p.Key == key })
}

// Product is what the plan takes of a kind: the one it names, else the usual one.
func (in Input) Product(key ProductKey) Thing {
	for _, c := range in.Products {
		if c.Product == key {
			return c.Thing
		}
	}
	for _, p := range Products {
		if p.Key == key {
			return p.Usual
		}
	}
	return Thing{}
}

// Fed is the hair the plan feeds into ends.
func (in Input) Fed() hair.Wrapping {
	if in.Feed != nil {
		return *in.Feed
	}
	return UsualFeed
}

// Making is what a piece is made of by hand; false for one that is bought.
func (in Input) Making(p hair.Piece) (hair.Making, bool) {
	switch {
	case p.Made != nil:
		return *p.Made, true
	case p.Form == hair.HandmadeLoc && in.Custom(Origin) == "made":
		return hair.Making{Base: hair.CordBase, Wrapping: in.wrapping()}, true
	}
	return hair.Making{}, false
}

// wrapping is the wrapping hair of the first method that has some, else the usual.
func (in Input) wrapping() hair.Wrapping {
	for i := range in.Ways {
		if have := in.Ways[i].Wrapping; have != nil {
			return *have
		}
	}
	return UsualWrapping
}
