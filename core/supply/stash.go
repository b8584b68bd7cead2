package supply

import (
	"cmp"
	"slices"

	"kladotex/core/invalid"
	"kladotex/core/words"
)

// Condition is the state of what lies in a lot.
type Condition string

// The conditions.
const (
	New  Condition = "new"
	Good Condition = "good"
	Worn Condition = "worn"
)

// Conditions are all of them, the best first.
var Conditions = []Condition{New, Good, Worn}

// Lot is hair or small things of one item that came together and are alike.
type Lot struct {
	Colour string `json:"colour" maxLength:"40"`
	// Length is that of its pieces where they were cut, mm; 0 for as the item.
	Length float64 `json:"lengthMm" doc:"Length where they were cut, mm; 0 for as the item's"`
	// Pack is what a pack of it holds by its label.
	Pack int `json:"pack" doc:"Pieces in a pack by its label"`
	// Round counts how often they were worn; 0 is new.
	Round     int       `json:"round" doc:"How often they were worn; 0 for new ones"`
	Condition Condition `json:"condition"`
	Supplier  string    `json:"supplier,omitempty" maxLength:"40"`
	// Counted is true for packs whose content was counted on arrival.
	Counted bool `json:"counted"`
}

// Check refuses a lot that cannot be; the paths of bad are put under path.
func (l Lot) Check(bad *invalid.Errors, path string) {
	bad.Letters(path+"colour", "The colour", l.Colour, 0, 40)
	if l.Length != 0 {
		bad.Length(path+"lengthMm", "The length they were cut to", l.Length, 50, 3000)
	}
	bad.Count(path+"pack", "What a pack holds", l.Pack, 1, 5000)
	bad.Count(path+"round", "How often they were worn", l.Round, 0, 20)
	invalid.OneOf(bad, path+"condition", "The condition", l.Condition, Conditions)
}

// Stock is what is left of a lot: packs that are shut, and loose pieces out of opened ones.
type Stock struct {
	Packs int `json:"packs" doc:"Packs that are shut"`
	Loose int `json:"loose" doc:"Pieces out of opened packs"`
}

// Pieces is how many there are in all, by the label of the packs.
func (s Stock) Pieces(pack int) int { return s.Packs*pack + s.Loose }

// MoveKind is what happened to pieces of a lot.
type MoveKind string

// The moves.
const (
	Bought   MoveKind = "bought"
	Opened   MoveKind = "opened"
	Used     MoveKind = "used"
	Spoilt   MoveKind = "spoilt"
	Saved    MoveKind = "saved"
	Counted  MoveKind = "counted"
	Given    MoveKind = "given"
	Adjusted MoveKind = "adjusted"
)

// MoveFacts are what holds for every move of a kind.
type MoveFacts struct {
	Kind MoveKind `json:"kind"`
	Name string   `json:"name"`
	// Means is what packs and pieces of such a move say.
	Means string `json:"means"`
	// Reasoned is true for one that is only taken with a reason.
	Reasoned bool `json:"reasoned"`
	book     func(Lot, Stock, Stock) []Entry
	// wrote tells whether a line of this kind was written by a move.
	wrote func(Stock, Entry) bool
}

// Entry is one line of the ledger: how many shut packs and loose pieces came or went.
type Entry struct {
	Kind   MoveKind
	Packs  int
	Pieces int
}

// Moves are all kinds of moves.
var Moves = []MoveFacts{
	{Bought, "Bought", "packs, and pieces beside them, that came", false, func(_ Lot, _, m Stock) []Entry {
		return []Entry{{Bought, m.Packs, m.Loose}}
	}, came},
	{Opened, "Opened", "packs opened, and the pieces that were in them; none for as the label says", false, func(l Lot, _, m Stock) []Entry {
		inside := m.Loose
		if inside == 0 {
			inside = m.Packs * l.Pack
		}
		return []Entry{{Opened, -m.Packs, inside}}
	}, func(m Stock, e Entry) bool { return e.Packs == -m.Packs }},
	{Used, "Used", "pieces that went on a head", false, takes(Used), left},
	{Spoilt, "Spoilt", "pieces torn, tangled or lost", false, takes(Spoilt), left},
	{Saved, "Saved", "pieces that came back from a head", false, func(_ Lot, _, m Stock) []Entry {
		return []Entry{{Saved, m.Packs, m.Loose}}
	}, came},
	{Counted, "Counted", "what there is: shut packs, and loose pieces", false, func(_ Lot, have, m Stock) []Entry {
		return []Entry{{Counted, m.Packs - have.Packs, m.Loose - have.Loose}}
	}, func(Stock, Entry) bool { return true }}, // it keeps what was missing, not what was counted
	{Given, "Given away", "pieces given away or sold", false, takes(Given), left},
	{Adjusted, "Put right", "packs and pieces to add, or with a minus to take away", true, func(_ Lot, _, m Stock) []Entry {
		return []Entry{{Adjusted, m.Packs, m.Loose}}
	}, came},
}

// MoveKinds are all kinds of moves by themselves.
func MoveKinds() []MoveKind {
	out := make([]MoveKind, len(Moves))
	for i, f := range Moves {
		out[i] = f.Kind
	}
	return out
}

func came(m Stock, e Entry) bool { return e.Packs == m.Packs && e.Pieces == m.Loose }
func left(m Stock, e Entry) bool { return e.Packs == -m.Packs && e.Pieces == -m.Loose }

// Booking tells whether lines of the ledger are those of a move: one that is repeated is known by its id,
// and another under the same id by this.
func Booking(kind MoveKind, m Stock, lines []Entry) bool {
	i := slices.IndexFunc(Moves, func(f MoveFacts) bool { return f.Kind == kind })
	return i >= 0 && slices.ContainsFunc(lines, func(e Entry) bool { return e.Kind == kind && Moves[i].wrote(m, e) })
}

// takes books pieces that leave a lot. What is in opened packs goes first; further packs are
// opened for the rest, and whole packs that are named leave shut.
func takes(kind MoveKind) func(Lot, Stock, Stock) []Entry {
	return func(l Lot, have, m Stock) []Entry {
		var out []Entry
		if lack := m.Loose - have.Loose; lack > 0 {
			if open := min((lack+l.Pack-1)/l.Pack, max(0, have.Packs-m.Packs)); open > 0 {
				out = append(out, Entry{Opened, -open, open * l.Pack})
			}
		}
		return append(out, Entry{kind, -m.Packs, -m.Loose})
	}
}

// After is the stock when entries are booked.
func (s Stock) After(entries ...Entry) Stock {
	for _, e := range entries {
		s.Packs += e.Packs
		s.Loose += e.Pieces
	}
	return s
}

// Book says what a move of a kind, with its packs and pieces, writes into the ledger of a lot
// that holds a stock. It refuses one that would leave less than nothing, unless a reason is
// given for it, one that needs a reason and has none, and one of nothing. The error is an
// [invalid.Errors].
func (l Lot) Book(have Stock, kind MoveKind, m Stock, reason string) ([]Entry, error) {
	var bad invalid.Errors
	i := slices.IndexFunc(Moves, func(f MoveFacts) bool { return f.Kind == kind })
	if i < 0 {
		invalid.OneOf(&bad, "kind", "What happened", kind, MoveKinds())
		return nil, bad
	}
	facts := Moves[i]
	least := 0
	if facts.Reasoned {
		least = -maxMoved
	}
	bad.Count("packs", "The number of packs", m.Packs, least, maxMoved)
	bad.Count("loose", "The number of pieces", m.Loose, least, maxMoved)
	bad.Letters("reason", "The reason", reason, 0, 200)
	switch {
	case facts.Reasoned && reason == "":
		bad.Add("reason", "Say why the ledger is put right.")
	case kind == Opened && m.Packs < 1:
		bad.Add("packs", "Say how many packs were opened: 1 or more.")
	case kind != Counted && m == Stock{}:
		bad.Add("loose", "Say how many: nothing was entered.")
	}
	if len(bad) > 0 {
		return nil, bad
	}
	entries := facts.book(l, have, m)
	after := have.After(entries...)
	if reason == "" && (after.Packs < 0 || after.Loose < 0) {
		bad.Add("loose", "There are %s; that is more than there is. Count the lot, or give the reason.", have.words())
		return nil, bad
	}
	return entries, nil
}

// maxMoved is the most packs or pieces of one move.
const maxMoved = 100_000

func (s Stock) words() string {
	return words.Count(s.Packs, "shut pack") + " and " + words.Count(s.Loose, "loose piece")
}

// Stocked is a lot with what is left of it.
type Stocked struct {
	ID   string
	Item string
	Lot
	Stock
	// Promised is what other plans hold of it, pieces.
	Promised int
}

// Free is what nobody else has been promised, pieces.
func (s Stocked) Free() int { return max(0, s.Pieces(s.Pack)-s.Promised) }

// TakeFrom is a number of pieces of one lot.
type TakeFrom struct {
	Lot    string `json:"lot" doc:"Id of the lot"`
	Pieces int    `json:"pieces"`
}

// Take finds need pieces in lots: new ones before worn ones, or where reuse is wished worn ones before
// new ones, good ones first; then the shortest before longer ones, and what is open before what is
// shut. It is less than the need where fewer lie there.
func Take(need int, lots []Stocked, reuse bool) []TakeFrom {
	lots = slices.Clone(lots)
	late := func(h Stocked) int {
		switch {
		case h.Round == 0 && reuse:
			return 2
		case h.Round == 0:
			return -1
		case h.Condition == Worn:
			return 1
		}
		return 0
	}
	slices.SortStableFunc(lots, func(a, b Stocked) int {
		return cmp.Or(cmp.Compare(late(a), late(b)), cmp.Compare(a.Length, b.Length), cmp.Compare(a.Round, b.Round), cmp.Compare(a.Packs, b.Packs))
	})
	var out []TakeFrom
	for _, l := range lots {
		if n := min(need, l.Free()); n > 0 {
			out = append(out, TakeFrom{l.ID, n})
			need -= n
		}
	}
	return out
}
