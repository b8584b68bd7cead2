package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"

	"kladotex/core/chair"
	"kladotex/core/supply"
	"kladotex/core/wear"
)

// ErrTooMany: more was told than is kept of one thing.
var ErrTooMany = errors.New("more than is kept")

// Settlement is what the events of an install come to.
type Settlement struct {
	// Over is true where the last check is taken, At when.
	Over bool
	At   time.Time
	Log  chair.Log
	// Bill is everything it took; empty while it goes on.
	Bill []Bill
	// Claims are what its plan needs of the stash while it goes on.
	Claims []Claim
	// Renews is the install whose outer rows it does again, Renewal what that head is told at the end;
	// empty for a whole head.
	Renews  string
	Renewal wear.Entry
}

// Bill is what an install took of one need, as it is sold.
type Bill struct {
	Claim
	Name         string
	Used, Spoilt int
}

// Settle works out what the events of an install come to. It is called inside the transaction that
// books it and must not use the store's writes.
type Settle func(i Install, events []chair.Event) (Settlement, error)

// Telling is what a person's device tells of an install.
type Telling struct {
	// Person is the id of who tells it, By the name.
	Person, By string
	Events     []chair.Event
	// Most is how many events are kept of one install.
	Most   int
	Settle Settle
}

// Tell adds events to an install, leaves those it has already as they are, and settles it: an end closes
// it and books its bill, an end taken back opens it again and gives everything back, and what is told
// late books the difference. All of it is one transaction. It fails with [ErrNotFound], and with
// [ErrTooMany] where the install would hold more events than are kept.
func (s *Tx) Tell(ctx context.Context, install string, t Telling) error {
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		i, err := readInstall(tx.QueryRowContext(ctx, `SELECT `+installColumns+` FROM install WHERE id = ?`, install))
		if err != nil {
			return err
		}
		insert, err := tx.PrepareContext(ctx, `INSERT INTO install_event (install_id, id, document, person, received_at) VALUES (?, ?, ?, ?, ?)
			ON CONFLICT (install_id, id) DO NOTHING`)
		if err != nil {
			return err
		}
		defer insert.Close()
		now := time.Now()
		ends := !i.Closed.IsZero()
		for _, e := range t.Events {
			e.At = boundedTime(e.At, i.Started, now)
			document, err := json.Marshal(e)
			if err != nil {
				return err
			}
			if _, err := insert.ExecContext(ctx, install, e.ID, string(document), t.Person, stampOf(now)); err != nil {
				return err
			}
			ends = ends || e.Kind == chair.Ended || e.Kind == chair.Undone
		}
		known := 0
		if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM install_event WHERE install_id = ?`, install).Scan(&known); err != nil {
			return err
		}
		if known > t.Most {
			return ErrTooMany
		}
		if !ends {
			return nil
		}
		return settle(ctx, tx, i, t.By, t.Settle)
	})
	if err != nil {
		return fmt.Errorf("telling of install %s: %w", install, err)
	}
	return nil
}

// SettleInstall books once more what the events of an install come to: nothing, unless it was closed by
// a program that kept a shorter bill.
func (s *Tx) SettleInstall(ctx context.Context, install, by string, work Settle) error {
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		i, err := readInstall(tx.QueryRowContext(ctx, `SELECT `+installColumns+` FROM install WHERE id = ?`, install))
		if err != nil {
			return err
		}
		return settle(ctx, tx, i, by, work)
	})
	if err != nil {
		return fmt.Errorf("settling install %s: %w", install, err)
	}
	return nil
}

// clockSlack is by how much the clock of a device may differ from the studio's and still be believed.
const clockSlack = 24 * time.Hour

// boundedTime is when something happened at an install that began at a time and was told of at another:
// a clock that says what cannot be is put right by the nearer of the two.
func boundedTime(at int64, began, told time.Time) int64 {
	return min(max(at, began.Add(-clockSlack).UnixMilli()), told.Add(clockSlack).UnixMilli())
}

func settle(ctx context.Context, tx *sql.Tx, i Install, by string, work Settle) error {
	told, err := readReceived(ctx, tx, i.ID, 0)
	if err != nil {
		return err
	}
	x, err := work(i, told.Events)
	if err != nil {
		return err
	}
	if !x.Over && i.Closed.IsZero() {
		return nil
	}
	if _, err := tx.ExecContext(ctx, `DELETE FROM install_pace WHERE install_id = ?`, i.ID); err != nil {
		return err
	}
	if !x.Over {
		x.Bill, x.At = nil, time.Now()
	}
	booked, err := bill(ctx, tx, i, x.Bill, by, x.At)
	if err != nil {
		return err
	}
	if !x.Over {
		return reopen(ctx, tx, i, x, by)
	}
	return closeWith(ctx, tx, i, x, booked)
}

// reopen has an install go on: its plan holds its share again, and the head whose rows it does again is
// told nothing.
func reopen(ctx context.Context, tx *sql.Tx, i Install, x Settlement, by string) error {
	if _, err := tx.ExecContext(ctx, `UPDATE install SET closed_at = '', log = '' WHERE id = ?`, i.ID); err != nil {
		return err
	}
	if i.PlanID != "" {
		if err := promise(ctx, tx, i.PlanID, x.Claims); err != nil {
			return err
		}
	}
	if x.Renews == "" {
		return nil
	}
	return dropEntry(ctx, tx, x.Renews, x.Renewal.ID, by)
}

// closeWith keeps the log of an install and what it says of pace, frees what its plan held, and tells
// the head whose outer rows it did again.
func closeWith(ctx context.Context, tx *sql.Tx, i Install, x Settlement, booked []Taken) error {
	document, err := json.Marshal(struct {
		chair.Log
		Stash []Taken `json:"stash"`
	}{x.Log, booked})
	if err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, `UPDATE install SET closed_at = ?, log = ? WHERE id = ?`, stampOf(x.At), string(document), i.ID); err != nil {
		return err
	}
	for _, e := range x.Log.Evidence {
		if e.Person == "" {
			continue
		}
		// Who left the studio has no pace to keep.
		_, err := tx.ExecContext(ctx, `INSERT INTO install_pace (install_id, person_id, skill, actual, rate, own)
			SELECT ?, ?, ?, ?, ?, ? WHERE EXISTS (SELECT 1 FROM person WHERE id = ?)`, i.ID, e.Person, e.Skill, e.Actual, e.Rate, e.Own, e.Person)
		if err != nil {
			return err
		}
	}
	if i.PlanID != "" {
		if _, err := tx.ExecContext(ctx, `DELETE FROM promise WHERE plan_id = ?`, i.PlanID); err != nil {
			return err
		}
	}
	if x.Renews == "" {
		return nil
	}
	var there bool
	if err := tx.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM install WHERE id = ?)`, x.Renews).Scan(&there); err != nil || !there {
		return err // it was deleted meanwhile
	}
	return putEntry(ctx, tx, WornHead{Logged: Logged{ID: x.Renews}}, x.Renewal, Writer{Deletes: true}, x.At, nil)
}

// billed is what was billed of one need.
type billed struct {
	Bill
	// beyond is how much of used and spoilt the stash did not hold.
	usedBeyond, spoiltBeyond int
}

// part is one side of a bill: the pieces used, or those spoilt.
type part struct {
	kind         supply.MoveKind
	have, beyond *int
	want         int
}

// bill brings what is booked for an install up to a bill: only the difference is moved. What goes back
// goes to the lots it came from, the last one taken from first; what the stash never held is no part of
// either. It answers what is booked of each need.
func bill(ctx context.Context, tx *sql.Tx, i Install, lines []Bill, by string, at time.Time) ([]Taken, error) {
	before, err := list(ctx, tx, "what an install took", func(row scanner) (b billed, err error) {
		err = row.Scan(&b.Key, &b.Name, &b.Item, &b.Colour, &b.Used, &b.Spoilt, &b.usedBeyond, &b.spoiltBeyond)
		return b, err
	}, `SELECT key, name, item_id, colour, used, spoilt, used_beyond, spoilt_beyond FROM install_bill WHERE install_id = ? ORDER BY key`, i.ID)
	if err != nil {
		return nil, err
	}
	for _, l := range lines {
		if !slices.ContainsFunc(before, func(b billed) bool { return b.Key == l.Key }) {
			b := billed{Bill: l}
			if b.Used, b.Spoilt, err = byHand(ctx, tx, i.ID, l.Claim); err != nil {
				return nil, err
			}
			before = append(before, b)
		}
	}
	var out []Taken
	for k := range before {
		b := &before[k]
		want := Bill{}
		if w := slices.IndexFunc(lines, func(l Bill) bool { return l.Key == b.Key }); w >= 0 {
			want = lines[w]
			b.Reuse = want.Reuse
		}
		parts := []part{{supply.Used, &b.Used, &b.usedBeyond, want.Used}, {supply.Spoilt, &b.Spoilt, &b.spoiltBeyond, want.Spoilt}}
		for _, p := range parts {
			if err := giveBack(ctx, tx, i, b.Claim, p, by, at); err != nil {
				return nil, err
			}
		}
		for _, p := range parts {
			if err := take(ctx, tx, i, b.Claim, p, by, at); err != nil {
				return nil, err
			}
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO install_bill (install_id, key, name, item_id, colour, used, spoilt, used_beyond, spoilt_beyond) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)
			ON CONFLICT (install_id, key) DO UPDATE SET used = excluded.used, spoilt = excluded.spoilt, used_beyond = excluded.used_beyond, spoilt_beyond = excluded.spoilt_beyond`,
			i.ID, b.Key, b.Name, b.Item, b.Colour, b.Used, b.Spoilt, b.usedBeyond, b.spoiltBeyond)
		if err != nil {
			return nil, err
		}
		if b.Used+b.Spoilt > 0 {
			out = append(out, Taken{Piece: b.Name, Used: b.Used - b.usedBeyond, Spoilt: b.Spoilt - b.spoiltBeyond, Beyond: b.usedBeyond + b.spoiltBeyond})
		}
	}
	return out, nil
}

// ofClaim are the moves of an install for a need, those while it is worn (see [movesOf]) left out.
const ofClaim = ` FROM stash_move m JOIN lot ON lot.id = m.lot_id WHERE m.install_id = ? AND m.claim = ? AND m.kind = ? AND instr(m.id, '/') = 0`

// netTaken is what the moves of a group took, pieces.
const netTaken = `-sum(m.pieces + m.packs * json_extract(lot.document, '$.pack'))`

// byHand is what was booked for a plan before its install had a bill: by people, or by a program that
// kept none. From now on it is known which need it was for.
func byHand(ctx context.Context, tx *sql.Tx, install string, c Claim) (used, spoilt int, err error) {
	_, err = tx.ExecContext(ctx, `UPDATE stash_move SET claim = ? WHERE install_id = ? AND claim = '' AND kind IN ('used', 'spoilt') AND instr(id, '/') = 0 AND lot_id IN (
		SELECT lot.id FROM lot JOIN item ON item.id = lot.item_id WHERE lot.colour = ? AND (item.id = ? OR json_extract(item.document, '$.line') =
			(SELECT nullif(json_extract(document, '$.line'), '') FROM item WHERE id = ?)))`, c.Key, install, searchKey(c.Colour), c.Item, c.Item)
	if err != nil {
		return 0, 0, err
	}
	for kind, n := range map[supply.MoveKind]*int{supply.Used: &used, supply.Spoilt: &spoilt} {
		if err := tx.QueryRowContext(ctx, `SELECT coalesce(`+netTaken+`, 0)`+ofClaim, install, c.Key, string(kind)).Scan(n); err != nil {
			return 0, 0, err
		}
	}
	return used, spoilt, nil
}

// giveBack returns what was booked beyond what is wanted.
func giveBack(ctx context.Context, tx *sql.Tx, i Install, c Claim, p part, by string, at time.Time) error {
	back := *p.have - p.want
	if back <= 0 {
		return nil
	}
	*p.have = p.want
	never := min(back, *p.beyond)
	*p.beyond -= never
	if back -= never; back == 0 {
		return nil
	}
	lots, err := list(ctx, tx, "where pieces came from", func(row scanner) (t supply.TakeFrom, err error) {
		err = row.Scan(&t.Lot, &t.Pieces)
		return t, err
	}, `SELECT m.lot_id, `+netTaken+` AS taken`+ofClaim+` GROUP BY m.lot_id HAVING taken > 0 ORDER BY max(m.seq) DESC`, i.ID, c.Key, string(p.kind))
	if err != nil {
		return err
	}
	for _, l := range lots {
		n := min(back, l.Pieces)
		if n == 0 {
			break
		}
		back -= n
		_, err := tx.ExecContext(ctx, `INSERT INTO stash_move (id, lot_id, kind, packs, pieces, person, reason, plan_id, install_id, at, claim) VALUES (?, ?, ?, 0, ?, ?, ?, nullif(?, ''), ?, ?, ?)`,
			uuid.NewString(), l.Lot, string(p.kind), n, by, "Put right at the chair", i.PlanID, i.ID, stampOf(at), c.Key)
		if err != nil {
			return err
		}
	}
	return nil
}

// take books what is wanted beyond what was booked, out of the lots that serve for the need.
func take(ctx context.Context, tx *sql.Tx, i Install, c Claim, p part, by string, at time.Time) error {
	more := p.want - *p.have
	if more <= 0 {
		return nil
	}
	*p.have = p.want
	lots, err := matching(ctx, tx, holder{Plan: i.PlanID, Client: i.ClientID}, c)
	if err != nil {
		return err
	}
	for _, t := range supply.Take(more, lots, c.Reuse) {
		_, err := book(ctx, tx, t.Lot, MoveDraft{
			ID: uuid.NewString(), Kind: p.kind, Stock: supply.Stock{Loose: t.Pieces}, PlanID: i.PlanID, InstallID: i.ID, Claim: c.Key, By: by, At: at,
		})
		if err != nil {
			return err
		}
		more -= t.Pieces
	}
	*p.beyond += more
	return nil
}
