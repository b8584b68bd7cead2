package store

import (
	"cmp"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"kladotex/core/supply"
)

// Lot is a lot of the stash with what is left of it.
type Lot struct {
	supply.Stocked
	Item supply.Item
	// WornBy is the name of the client who wore them, "" for nobody in particular; Once is true where
	// that client is on file no more.
	WornBy   string
	Once     bool
	Created  time.Time
	Promises []Promise
}

// Promise is what a plan in work holds of a lot.
type Promise struct {
	PlanID string `json:"planId"`
	Plan   string `json:"plan" doc:"Its title"`
	Pieces int    `json:"pieces"`
}

const lotColumns = `lot.id, lot.item_id, lot.document, lot.created_at, item.document,
	(SELECT coalesce(sum(packs), 0) FROM stash_move WHERE lot_id = lot.id), (SELECT coalesce(sum(pieces), 0) FROM stash_move WHERE lot_id = lot.id),
	(SELECT coalesce(sum(pieces), 0) FROM promise WHERE lot_id = lot.id),
	coalesce((SELECT name FROM client WHERE id = lot.worn_by), ''), lot.worn_by != '' AND NOT EXISTS (SELECT 1 FROM client WHERE id = lot.worn_by)`

const lotTables = ` FROM lot JOIN item ON item.id = lot.item_id`

func readLotRow(row scanner) (l Lot, err error) {
	var document, item string
	err = row.Scan(&l.ID, &l.Stocked.Item, &document, (*stamp)(&l.Created), &item, &l.Packs, &l.Loose, &l.Promised, &l.WornBy, &l.Once)
	if err != nil {
		return Lot{}, orNotFound(err)
	}
	if err := json.Unmarshal([]byte(document), &l.Lot); err != nil {
		return Lot{}, err
	}
	l.Item, err = supply.DecodeItem([]byte(item))
	return l, err
}

func readLot(ctx context.Context, q querier, id string) (Lot, error) {
	return readLotRow(q.QueryRowContext(ctx, `SELECT `+lotColumns+lotTables+` WHERE lot.id = ?`, id))
}

// Cursor is where the list goes on after this lot.
func (l Lot) Cursor() string { return itemKey(l.Item) + "\n" + l.ID }

// StashWish says which lots are wanted: those whose item holds every word of Search, of one item or of
// all, and the empty ones too where that is wished.
type StashWish struct {
	Search, Item string
	Empty        bool
}

// Stash lists a page of the lots, by the names of their items, with who has been promised
// what of them.
func (s *Tx) Stash(ctx context.Context, wish StashWish, page Page) (lots []Lot, err error) {
	key, id := page.split()
	where, args := ` WHERE (item.search_key, lot.id) > (?, ?)`, []any{key, id}
	if wish.Item != "" {
		where, args = where+` AND lot.item_id = ?`, append(args, wish.Item)
	}
	if !wish.Empty {
		where += ` AND ` + lotPieces + ` != 0`
	}
	for word := range strings.FieldsSeq(searchKey(wish.Search)) {
		where, args = where+` AND instr(item.search_key, ?) > 0`, append(args, word)
	}
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		lots, err = list(ctx, tx, "the stash", readLotRow, `SELECT `+lotColumns+lotTables+where+` ORDER BY item.search_key, lot.id LIMIT ?`, append(args, page.Limit)...)
		if err != nil {
			return err
		}
		for i := range lots {
			if lots[i].Promised == 0 {
				continue
			}
			lots[i].Promises, err = list(ctx, tx, "promises", func(row scanner) (p Promise, err error) {
				err = row.Scan(&p.PlanID, &p.Plan, &p.Pieces)
				return p, err
			}, `SELECT plan.id, plan.title, sum(promise.pieces) FROM promise JOIN plan ON plan.id = promise.plan_id WHERE lot_id = ? GROUP BY plan.id ORDER BY plan.title`, lots[i].ID)
			if err != nil {
				return err
			}
		}
		return nil
	})
	return lots, err
}

// StashMove is one line of the ledger.
type StashMove struct {
	Kind   supply.MoveKind `json:"kind"`
	Packs  int             `json:"packs"`
	Pieces int             `json:"pieces"`
	Person string          `json:"person"`
	Reason string          `json:"reason,omitempty"`
	Plan   string          `json:"plan,omitempty" doc:"Title of the plan it was for"`
	At     time.Time       `json:"at"`
}

// StashMoves are the moves of a lot, newest first.
func (s *Tx) StashMoves(ctx context.Context, lot string) ([]StashMove, error) {
	return list(ctx, s.read, "moves of a lot", func(row scanner) (m StashMove, err error) {
		err = row.Scan(&m.Kind, &m.Packs, &m.Pieces, &m.Person, &m.Reason, &m.Plan, (*stamp)(&m.At))
		return m, err
	}, `SELECT kind, stash_move.packs, stash_move.pieces, person, reason, coalesce(plan.title, ''), at FROM stash_move LEFT JOIN plan ON plan.id = stash_move.plan_id
		WHERE lot_id = ? ORDER BY seq DESC LIMIT 500`, lot)
}

// MoveDraft is a move that a person makes: how many shut packs and loose pieces, and why.
type MoveDraft struct {
	// ID is made by who asks: the same again is recognised.
	ID     string
	Kind   supply.MoveKind
	Stock  supply.Stock
	Reason string
	PlanID string
	// InstallID is the install it was for; empty has it be that of the plan, if there is one.
	InstallID string
	// Claim names what it is for inside the plan; empty where nobody said.
	Claim string
	By    string
	// At is when it happened; the zero time is now.
	At time.Time
}

// LotDraft is a new lot of an item.
type LotDraft struct {
	ID, Item string
	Lot      supply.Lot
	Purchase string // empty for one that was not ordered here
	// WornBy is the client who wore them; empty for new ones, and for those of nobody in particular.
	WornBy string
}

// AddLot makes a lot and books its first move. Where the same was done under this id already, the
// request was repeated, and the lot stays as it is; another lot under it fails with [ErrStale].
func (s *Tx) AddLot(ctx context.Context, d LotDraft, first MoveDraft) (l Lot, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		l, err = addLot(ctx, tx, d, first)
		return err
	})
	if err != nil {
		return Lot{}, fmt.Errorf("adding a lot: %w", err)
	}
	return l, nil
}

func addLot(ctx context.Context, tx *sql.Tx, d LotDraft, first MoveDraft) (Lot, error) {
	switch l, err := readLot(ctx, tx, d.ID); {
	case err == nil:
		same, err := sameJSON(d.Lot, l.Lot)
		if err = repeated(same && d.Item == l.Stocked.Item, err); err != nil {
			return Lot{}, err
		}
		return book(ctx, tx, d.ID, first)
	case !errors.Is(err, ErrNotFound):
		return Lot{}, err
	}
	if _, err := readItem(ctx, tx, d.Item); err != nil {
		return Lot{}, fmt.Errorf("item %s: %w", d.Item, err)
	}
	document, err := json.Marshal(d.Lot)
	if err != nil {
		return Lot{}, err
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO lot (id, item_id, colour, document, purchase_id, created_at, worn_by) VALUES (?, ?, ?, ?, nullif(?, ''), ?, ?)`,
		d.ID, d.Item, searchKey(d.Lot.Colour), string(document), d.Purchase, stampOf(time.Now()), d.WornBy)
	if err != nil {
		return Lot{}, err
	}
	return book(ctx, tx, d.ID, first)
}

// Move books what happened to pieces of a lot. The same move again changes nothing; another under its
// id fails with [ErrStale].
func (s *Tx) Move(ctx context.Context, lot string, d MoveDraft) (l Lot, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		var elsewhere bool
		if err := tx.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM stash_move WHERE id = ? AND lot_id != ?)`, d.ID, lot).Scan(&elsewhere); err != nil {
			return err
		}
		if elsewhere {
			return ErrStale
		}
		l, err = book(ctx, tx, lot, d)
		return err
	})
	if err != nil {
		return Lot{}, fmt.Errorf("moving of lot %s: %w", lot, err)
	}
	return l, nil
}

func book(ctx context.Context, tx *sql.Tx, lot string, d MoveDraft) (Lot, error) {
	l, err := readLot(ctx, tx, lot)
	if err != nil {
		return Lot{}, err
	}
	booked, err := list(ctx, tx, "a move", func(row scanner) (e supply.Entry, err error) {
		err = row.Scan(&e.Kind, &e.Packs, &e.Pieces)
		return e, err
	}, `SELECT kind, packs, pieces FROM stash_move WHERE id = ? AND lot_id = ?`, d.ID, lot)
	if err != nil {
		return Lot{}, err
	}
	if len(booked) > 0 {
		return l, repeated(supply.Booking(d.Kind, d.Stock, booked), nil)
	}
	entries, err := l.Book(l.Stock, d.Kind, d.Stock, d.Reason)
	if err != nil {
		return Lot{}, err
	}
	at := d.At
	if at.IsZero() {
		at = time.Now()
	}
	for _, e := range entries {
		_, err := tx.ExecContext(ctx, `INSERT INTO stash_move (id, lot_id, kind, packs, pieces, person, reason, plan_id, install_id, at, claim)
			VALUES (?, ?, ?, ?, ?, ?, ?, nullif(?, ''), coalesce(nullif(?, ''), (SELECT id FROM install WHERE plan_id = ?), ''), ?, ?)`,
			d.ID, lot, string(e.Kind), e.Packs, e.Pieces, d.By, d.Reason, d.PlanID, d.InstallID, d.PlanID, stampOf(at), d.Claim)
		if err != nil {
			return Lot{}, err
		}
	}
	if d.PlanID != "" && d.Kind == supply.Used {
		if err := redeem(ctx, tx, d.PlanID, lot, d.Stock.Pieces(l.Pack)); err != nil {
			return Lot{}, err
		}
	}
	return readLot(ctx, tx, lot)
}

// redeem takes what a plan used of a lot off what it was promised of it.
func redeem(ctx context.Context, tx *sql.Tx, plan, lot string, pieces int) error {
	_, err := tx.ExecContext(ctx, `DELETE FROM promise WHERE plan_id = ? AND lot_id = ? AND pieces <= ?`, plan, lot, pieces)
	if err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `UPDATE promise SET pieces = pieces - ? WHERE plan_id = ? AND lot_id = ?`, pieces, plan, lot)
	return err
}

// Claim is what a plan needs of an item in a colour.
type Claim struct {
	// Key names what it is for inside the plan.
	Key, Item, Colour string
	Pieces            int // as sold, before loose hair is cut
	// Reuse is true where what was worn before goes first.
	Reuse bool
}

// lengthSlack is by how much a piece may be shorter than planned and still do, mm.
const lengthSlack = 12.0

// holder is who lots are looked for.
type holder struct {
	// Plan is the id of a plan, whose own promises do not count; Client whose head it is, worn pieces are
	// that client's alone.
	Plan, Client string
}

// holderOf is a stored plan with its client.
func holderOf(ctx context.Context, q querier, plan string) (h holder, err error) {
	h.Plan = plan
	err = q.QueryRowContext(ctx, `SELECT coalesce((SELECT client_id FROM plan WHERE id = ?), '')`, plan).Scan(&h.Client)
	return h, err
}

// matching are the lots that can serve for a claim: its item or another of the same line and form,
// in its colour, long enough, not worn as often as its fibre stands, nor by another client. Pieces that a plan holds already are not counted as promised.
func matching(ctx context.Context, q querier, who holder, c Claim) ([]supply.Stocked, error) {
	item, err := readItem(ctx, q, c.Item)
	if err != nil {
		if errors.Is(err, ErrNotFound) {
			return nil, nil
		}
		return nil, err
	}
	lots, err := list(ctx, q, "lots", readLotRow, `SELECT `+lotColumns+lotTables+` WHERE lot.colour = ? AND item.kind = ? AND `+lotPieces+` > 0
		AND lot.worn_by IN ('', ?)`, searchKey(c.Colour), string(item.Kind), who.Client)
	if err != nil {
		return nil, err
	}
	var out []supply.Stocked
	for _, l := range lots {
		if l.Stocked.Item != c.Item && (item.Line == "" || l.Item.Line != item.Line || l.Item.Thickness != item.Thickness) {
			continue
		}
		if most := supply.FactsOf(l.Item.Fibre).Rounds; most > 0 && l.Round >= most {
			continue // worn as often as its fibre stands
		}
		if l.Length == 0 {
			l.Length = l.Item.Length
		}
		if l.Length < item.Length-lengthSlack {
			continue
		}
		own := 0
		if err := q.QueryRowContext(ctx, `SELECT coalesce(sum(pieces), 0) FROM promise WHERE plan_id = ? AND lot_id = ?`, who.Plan, l.ID).Scan(&own); err != nil {
			return nil, err
		}
		l.Promised -= own
		out = append(out, l.Stocked)
	}
	slices.SortStableFunc(out, func(a, b supply.Stocked) int { return cmp.Compare(a.ID, b.ID) })
	return out, nil
}

// Covered is what the stash can give a plan for one of its claims.
type Covered struct {
	Key  string
	Take []supply.TakeFrom
	// Used is what was taken for the plan already, Elsewhere what others are promised of
	// the lots that would do.
	Used, Elsewhere int
}

// Covering is what the stash can give a plan now, and whether the plan holds it.
func (s *Tx) Covering(ctx context.Context, plan string, claims []Claim) (out []Covered, holds bool, err error) {
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		out, err = covering(ctx, tx, plan, claims)
		if err == nil {
			err = tx.QueryRowContext(ctx, `SELECT coalesce((SELECT holds FROM plan WHERE id = ?), 0)`, plan).Scan(&holds)
		}
		return err
	})
	return out, holds, err
}

func covering(ctx context.Context, q querier, plan string, claims []Claim) ([]Covered, error) {
	out := make([]Covered, 0, len(claims))
	who, err := holderOf(ctx, q, plan)
	if err != nil {
		return nil, err
	}
	taken := map[string]int{} // of lots that two pieces of the plan could share
	for _, c := range claims {
		lots, err := matching(ctx, q, who, c)
		if err != nil {
			return nil, err
		}
		covered := Covered{Key: c.Key}
		err = q.QueryRowContext(ctx, `SELECT coalesce(-sum(m.pieces + m.packs * json_extract(lot.document, '$.pack')), 0) FROM stash_move m JOIN lot ON lot.id = m.lot_id
			JOIN item ON item.id = lot.item_id
			WHERE m.plan_id = ? AND m.kind = 'used' AND m.claim IN ('', ?) AND lot.colour = ? AND (item.id = ? OR json_extract(item.document, '$.line') =
				(SELECT nullif(json_extract(document, '$.line'), '') FROM item WHERE id = ?))`, plan, c.Key, searchKey(c.Colour), c.Item, c.Item).Scan(&covered.Used)
		if err != nil {
			return nil, err
		}
		for i := range lots {
			covered.Elsewhere += min(lots[i].Promised, lots[i].Pieces(lots[i].Pack))
			lots[i].Promised += taken[lots[i].ID]
		}
		covered.Take = supply.Take(max(0, c.Pieces-covered.Used), lots, c.Reuse)
		for _, t := range covered.Take {
			taken[t.Lot] += t.Pieces
		}
		out = append(out, covered)
	}
	return out, nil
}

// Hold has a plan hold what it needs of the stash, or frees it.
func (s *Tx) Hold(ctx context.Context, plan string, holds bool, claims []Claim) error {
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		res, err := tx.ExecContext(ctx, `UPDATE plan SET holds = ? WHERE id = ?`, holds, plan)
		if err != nil {
			return err
		}
		if n, err := res.RowsAffected(); err != nil || n == 0 {
			return errors.Join(ErrNotFound, err)
		}
		return promise(ctx, tx, plan, claims)
	})
	if err != nil {
		return fmt.Errorf("holding for plan %s: %w", plan, err)
	}
	return nil
}

// promise renews what a plan that holds anything is promised: what it needs no more is free.
func promise(ctx context.Context, tx *sql.Tx, plan string, claims []Claim) error {
	var holds bool
	if err := tx.QueryRowContext(ctx, `SELECT holds FROM plan WHERE id = ?`, plan).Scan(&holds); err != nil {
		return orNotFound(err)
	}
	var given []Covered
	if holds {
		var err error
		if given, err = covering(ctx, tx, plan, claims); err != nil {
			return err
		}
	}
	if _, err := tx.ExecContext(ctx, `DELETE FROM promise WHERE plan_id = ?`, plan); err != nil {
		return err
	}
	for _, c := range given {
		for _, t := range c.Take {
			_, err := tx.ExecContext(ctx, `INSERT INTO promise (plan_id, lot_id, claim, pieces) VALUES (?, ?, ?, ?)`, plan, t.Lot, c.Key, t.Pieces)
			if err != nil {
				return err
			}
		}
	}
	return nil
}

// Lost is how many pieces the studio used and spoilt in all.
func (s *Tx) Lost(ctx context.Context) (used, spoilt int, err error) {
	err = s.read.QueryRowContext(ctx, `SELECT coalesce(-sum(pieces) FILTER (WHERE kind = 'used'), 0), coalesce(-sum(pieces) FILTER (WHERE kind = 'spoilt'), 0) FROM stash_move`).Scan(&used, &spoilt)
	if err != nil {
		return 0, 0, fmt.Errorf("pieces used and spoilt: %w", err)
	}
	return used, spoilt, nil
}

// Prepared is what was done of a task of preparation.
type Prepared struct {
	Task   string    `json:"task"`
	Done   int       `json:"done" doc:"How many are done"`
	Person string    `json:"person"`
	At     time.Time `json:"at"`
}

// Prepared is what was ticked off for a plan.
func (s *Tx) Prepared(ctx context.Context, plan string) ([]Prepared, error) {
	return list(ctx, s.read, "what is prepared", func(row scanner) (p Prepared, err error) {
		err = row.Scan(&p.Task, &p.Done, &p.Person, (*stamp)(&p.At))
		return p, err
	}, `SELECT task, done, person, at FROM prepared WHERE plan_id = ? ORDER BY task`, plan)
}

// Prepare keeps how much of a task of a plan is done.
func (s *Tx) Prepare(ctx context.Context, plan, task string, done int, by string) error {
	_, err := s.write.ExecContext(ctx, `INSERT INTO prepared (plan_id, task, done, person, at) VALUES (?, ?, ?, ?, ?)
		ON CONFLICT (plan_id, task) DO UPDATE SET done = excluded.done, person = excluded.person, at = excluded.at`,
		plan, task, done, by, stampOf(time.Now()))
	if errors.Is(missingClient(err), ErrNoClient) {
		err = ErrNotFound // the plan is gone
	}
	if err != nil {
		return fmt.Errorf("preparing for plan %s: %w", plan, err)
	}
	return nil
}

// LotPut is a new lot with its first move, or a move of one that is there, which names no item.
type LotPut struct {
	Lot  LotDraft
	Move MoveDraft
}

// PutLots books many moves in one transaction; an error, such as one of progress, undoes all of them. A new
// lot whose id is there already stays as it is.
func (s *Tx) PutLots(ctx context.Context, puts []LotPut, progress func(done int) error) error {
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		lot, err := tx.PrepareContext(ctx, `INSERT INTO lot (id, item_id, colour, document, created_at, worn_by) VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING`)
		if err != nil {
			return err
		}
		defer lot.Close()
		move, err := tx.PrepareContext(ctx, `INSERT INTO stash_move (id, lot_id, kind, packs, pieces, person, reason, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`)
		if err != nil {
			return err
		}
		defer move.Close()
		now := stampOf(time.Now())
		err = eachOf(puts, progress, func(p LotPut) error {
			if p.Lot.Item == "" {
				_, err := book(ctx, tx, p.Lot.ID, p.Move)
				return err
			}
			entries, err := p.Lot.Lot.Book(supply.Stock{}, p.Move.Kind, p.Move.Stock, p.Move.Reason)
			if err != nil {
				return err
			}
			document, err := json.Marshal(p.Lot.Lot)
			if err != nil {
				return err
			}
			res, err := lot.ExecContext(ctx, p.Lot.ID, p.Lot.Item, searchKey(p.Lot.Lot.Colour), string(document), now, p.Lot.WornBy)
			if err != nil {
				return err
			}
			if n, err := res.RowsAffected(); err != nil || n == 0 {
				return err
			}
			for _, e := range entries {
				if _, err := move.ExecContext(ctx, p.Move.ID, p.Lot.ID, string(e.Kind), e.Packs, e.Pieces, p.Move.By, p.Move.Reason, now); err != nil {
					return err
				}
			}
			return nil
		})
		if err != nil {
			return err
		}
		return progress(len(puts)) // who gave up by now gets nothing
	})
	if err != nil {
		return fmt.Errorf("storing lots: %w", err)
	}
	return nil
}

// EveryLot is each lot with what is left of it, empty ones too, by the names of their items; who is
// promised what is left out.
func (s *Tx) EveryLot(ctx context.Context) ([]Lot, error) {
	items := map[string]supply.Item{} // there are far fewer
	return list(ctx, s.read, "lots", func(row scanner) (l Lot, err error) {
		var document, item string
		if err = row.Scan(&l.ID, &l.Stocked.Item, &document, (*stamp)(&l.Created), &item, &l.Packs, &l.Loose); err != nil {
			return l, err
		}
		if err := json.Unmarshal([]byte(document), &l.Lot); err != nil {
			return l, err
		}
		known, has := items[l.Stocked.Item]
		if !has {
			if known, err = supply.DecodeItem([]byte(item)); err != nil {
				return l, err
			}
			items[l.Stocked.Item] = known
		}
		l.Item = known
		return l, nil
	}, `SELECT lot.id, lot.item_id, lot.document, lot.created_at, item.document, coalesce(moved.packs, 0), coalesce(moved.pieces, 0)
		FROM lot JOIN item ON item.id = lot.item_id
		LEFT JOIN (SELECT lot_id, sum(packs) AS packs, sum(pieces) AS pieces FROM stash_move GROUP BY lot_id) moved ON moved.lot_id = lot.id
		ORDER BY item.search_key, lot.id`)
}

// LotBook is the ledger of one lot up to the end of a time, summed by what happened.
type LotBook struct {
	Lot   Lot
	Lines []supply.Posting
	// Price is what a piece of it cost, minor units: as it was ordered, else as its item is sold.
	Price float64
}

// Ledger is the ledger of every lot up to a time; lines before from say so.
func (s *Tx) Ledger(ctx context.Context, from, to time.Time) (out []LotBook, err error) {
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		lots, err := list(ctx, tx, "lots", func(row scanner) (b LotBook, err error) {
			var order string
			b.Lot, err = readLotRow(alsoScan{row, []any{&order}})
			if err != nil {
				return b, err
			}
			b.Price = b.Lot.Item.UnitPrice()
			var lines []PurchaseLine
			if err := json.Unmarshal([]byte(order), &lines); err != nil {
				return b, err
			}
			for _, l := range lines {
				if pieces := l.Offer.Packs * l.Pack; l.Item == b.Lot.Stocked.Item && strings.EqualFold(l.Colour, b.Lot.Colour) && pieces > 0 && l.Offer.Price > 0 {
					b.Price = float64(l.Offer.Price) / float64(pieces)
				}
			}
			return b, nil
		}, `SELECT `+lotColumns+`, coalesce((SELECT lines FROM purchase WHERE purchase.id = lot.purchase_id), '[]')`+lotTables+` ORDER BY item.search_key, lot.id`)
		if err != nil {
			return err
		}
		index := make(map[string]int, len(lots))
		for i := range lots {
			index[lots[i].Lot.ID] = i
		}
		_, err = list(ctx, tx, "the ledger", func(row scanner) (b supply.Posting, err error) {
			var lot string
			if err = row.Scan(&lot, &b.Kind, &b.Before, &b.Packs, &b.Pieces); err == nil {
				if i, has := index[lot]; has {
					lots[i].Lines = append(lots[i].Lines, b)
				}
			}
			return b, err
		}, `SELECT lot_id, kind, at < ? AS before, sum(packs), sum(pieces) FROM stash_move WHERE at < ? GROUP BY lot_id, kind, before`, stampOf(from), stampOf(to))
		out = lots
		return err
	})
	if err != nil {
		return nil, fmt.Errorf("the ledger: %w", err)
	}
	return out, nil
}
