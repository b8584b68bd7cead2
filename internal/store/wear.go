package store

import (
	"cmp"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"

	"kladotex/core/invalid"
	"kladotex/core/supply"
	"kladotex/core/wear"
)

// WornHead is a finished install with what was seen and done since.
type WornHead struct {
	Logged
	// Brief is the head as it is worn; nil for an install begun before there was one.
	Brief *wear.Brief
	// Redoes is the id of the install whose outer rows this one did again; empty for a whole head.
	Redoes  string
	Entries []wear.Entry
}

const wornColumns = loggedColumns + `, worn, redoes`

func readWorn(row scanner) (w WornHead, err error) {
	var brief string
	w.Logged, err = readLogged(alsoScan{row, []any{&brief, &w.Redoes}})
	if err != nil || brief == "" {
		return w, err
	}
	return w, json.Unmarshal([]byte(brief), &w.Brief)
}

// alsoScan reads further columns behind those asked for.
type alsoScan struct {
	scanner
	more []any
}

func (a alsoScan) Scan(to ...any) error { return a.scanner.Scan(append(to, a.more...)...) }

func (s *Tx) wornWith(ctx context.Context, what, where string, args ...any) (out []WornHead, err error) {
	err = s.snapshot(ctx, func(tx *sql.Tx) error {
		out, err = list(ctx, tx, what, readWorn, `SELECT `+wornColumns+` FROM install WHERE closed_at != '' AND `+where, args...)
		for i := range out {
			if err == nil {
				out[i].Entries, err = readEntries(ctx, tx, out[i].ID)
			}
		}
		return err
	})
	return out, err
}

// WornHeads are the installs being worn that were finished since: those not taken down, of every client the
// latest alone. What did outer rows again belongs to the head it was done for.
func (s *Tx) WornHeads(ctx context.Context, since time.Time) ([]WornHead, error) {
	return s.wornWith(ctx, "installs being worn", `down_on = '' AND redoes = '' AND closed_at > ? AND NOT EXISTS (
		SELECT 1 FROM install later WHERE later.client_id = install.client_id AND later.redoes = '' AND later.closed_at > install.closed_at)
		ORDER BY closed_at LIMIT 200`, stampOf(since))
}

// WornHead is one finished install with what was seen and done since, or [ErrNotFound].
func (s *Tx) WornHead(ctx context.Context, id string) (WornHead, error) {
	found, err := s.wornWith(ctx, "a head", `id = ?`, id)
	if err == nil && len(found) == 0 {
		err = ErrNotFound
	}
	if err != nil {
		return WornHead{}, fmt.Errorf("head %s: %w", id, err)
	}
	return found[0], nil
}

// Heads are all finished installs of a client, the latest first.
func (s *Tx) Heads(ctx context.Context, client string) ([]WornHead, error) {
	return s.wornWith(ctx, "heads of a client", `client_id = ? ORDER BY closed_at DESC, id LIMIT 200`, client)
}

// RedoneOf are the finished installs by which outer rows of a head were done again, the oldest first.
func (s *Tx) RedoneOf(ctx context.Context, id string) ([]WornHead, error) {
	return s.wornWith(ctx, "rows done again", `redoes = ? ORDER BY closed_at, id`, id)
}

// InputOf is the frozen input document of an install.
func (s *Tx) InputOf(ctx context.Context, id string) (raw []byte, err error) {
	var text string
	if err = s.read.QueryRowContext(ctx, `SELECT input FROM install WHERE id = ?`, id).Scan(&text); err != nil {
		return nil, fmt.Errorf("input of install %s: %w", id, orNotFound(err))
	}
	return []byte(text), nil
}

func readEntries(ctx context.Context, q querier, install string) ([]wear.Entry, error) {
	return list(ctx, q, "entries of a head", func(row scanner) (e wear.Entry, err error) {
		var document string
		var received time.Time
		if err = row.Scan(&document, (*stamp)(&received)); err != nil {
			return e, err
		}
		err = json.Unmarshal([]byte(document), &e)
		e.At = cmp.Or(e.At, received.UnixMilli()) // one written before it was kept
		return e, err
	}, `SELECT document, received_at FROM wear_entry WHERE install_id = ? ORDER BY on_day, received_at, id`, install)
}

// Moving is what an entry takes out of the stash or brings back to it.
type Moving struct {
	// Key is that of the piece inside the plan.
	Key, Item, Colour string
	// Length is that of pieces that were cut from longer hair, mm; 0 for as the item.
	Length float64
	// Take is how many are taken out for a repair; Good and Worn how many come back.
	Take, Good, Worn int
}

// Back are pieces of a head that came back.
type Back struct {
	Item      string           `json:"item"`
	Name      string           `json:"name"`
	Pieces    int              `json:"pieces"`
	Round     int              `json:"round"`
	Condition supply.Condition `json:"condition"`
}

// Errors about entries.
var (
	// ErrNotYours: an entry is replaced by who wrote it, or by who may delete it.
	ErrNotYours = errors.New("written by someone else")
	// ErrOtherKind: an entry stays of the kind it is.
	ErrOtherKind = errors.New("an entry of another kind")
)

// MostEntries is how many entries are kept of one head.
const MostEntries = 500

// Writer is who writes an entry down.
type Writer struct {
	// Person is the id; Deletes is true for one who may delete what others wrote.
	Person  string
	Deletes bool
}

// PutEntry keeps an entry of a head under its id, and books at a time what it moves in the stash. The same
// entry again changes nothing; another of its kind takes its place, its moves are put right, and what it
// was is kept. It fails with [ErrNotYours], [ErrOtherKind] or [ErrTooMany].
func (s *Tx) PutEntry(ctx context.Context, w WornHead, e wear.Entry, by Writer, at time.Time, moves []Moving) error {
	err := s.inTx(ctx, func(tx *sql.Tx) error { return putEntry(ctx, tx, w, e, by, at, moves) })
	if err != nil {
		return fmt.Errorf("keeping an entry of head %s: %w", w.ID, err)
	}
	return nil
}

func putEntry(ctx context.Context, tx *sql.Tx, w WornHead, e wear.Entry, by Writer, at time.Time, moves []Moving) error {
	if e.At == 0 {
		e.At = time.Now().UnixMilli()
	}
	if err := replaces(ctx, tx, w.ID, &e, by); err == errSame || err != nil {
		if err == errSame {
			err = nil
		}
		return err
	}
	document, err := json.Marshal(e)
	if err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO wear_entry (install_id, id, on_day, kind, document, person, received_at) VALUES (?, ?, ?, ?, ?, ?, ?)
		ON CONFLICT (install_id, id) DO UPDATE SET on_day = excluded.on_day, kind = excluded.kind, document = excluded.document`,
		w.ID, e.ID, e.On, string(e.Kind), string(document), by.Person, stampOf(time.Now()))
	if err != nil {
		if code(err) == foreignKey {
			err = ErrNotFound
		}
		return err
	}
	for _, m := range moves {
		if err := moved(ctx, tx, w, e, at, m); err != nil {
			return err
		}
	}
	if err := stillThere(ctx, tx, w.ID, e.ID); err != nil {
		return err
	}
	return markDown(ctx, tx, w.ID)
}

// errSame: an entry is what it would be made.
var errSame = errors.New("the same")

// replaces readies an entry to take the place of one under its id, if there is any: who wrote that one and
// when stays. It answers [errSame] where there is nothing to change.
func replaces(ctx context.Context, tx *sql.Tx, install string, e *wear.Entry, by Writer) error {
	var document, person string
	err := tx.QueryRowContext(ctx, `SELECT document, person FROM wear_entry WHERE install_id = ? AND id = ?`, install, e.ID).Scan(&document, &person)
	if errors.Is(err, sql.ErrNoRows) {
		n := 0
		err := tx.QueryRowContext(ctx, `SELECT count(*) FROM wear_entry WHERE install_id = ?`, install).Scan(&n)
		if err == nil && n >= MostEntries {
			err = ErrTooMany
		}
		return err
	}
	if err != nil {
		return err
	}
	var was wear.Entry
	if err := json.Unmarshal([]byte(document), &was); err != nil {
		return err
	}
	editor := e.By
	e.At, e.By, was.Day = was.At, was.By, e.Day // the day follows from the date
	if same, err := sameJSON(was, *e); err != nil || same {
		return cmp.Or(err, errSame)
	}
	switch {
	case !by.Deletes && (by.Person == "" || by.Person != person):
		return ErrNotYours
	case was.Kind != e.Kind:
		return ErrOtherKind
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO wear_entry_past (install_id, id, document, replaced_by, replaced_at) VALUES (?, ?, ?, ?, ?)`, install, e.ID, document, editor, stampOf(time.Now()))
	if err != nil {
		return err
	}
	return unbook(ctx, tx, install, e.ID, editor)
}

// DropEntry deletes an entry and takes its moves in the stash back. One that is gone is no error.
func (s *Tx) DropEntry(ctx context.Context, install, id, by string) error {
	err := s.inTx(ctx, func(tx *sql.Tx) error { return dropEntry(ctx, tx, install, id, by) })
	if err != nil {
		return fmt.Errorf("deleting an entry of head %s: %w", install, err)
	}
	return nil
}

func dropEntry(ctx context.Context, tx *sql.Tx, install, id, by string) error {
	if err := unbook(ctx, tx, install, id, by); err != nil {
		return err
	}
	if err := stillThere(ctx, tx, install, id); err != nil {
		return err
	}
	for _, table := range []string{"wear_entry", "wear_entry_past"} {
		if _, err := tx.ExecContext(ctx, `DELETE FROM `+table+` WHERE install_id = ? AND id = ?`, install, id); err != nil {
			return err
		}
	}
	return markDown(ctx, tx, install)
}

// markDown keeps the day a head was taken down, as its entries have it.
func markDown(ctx context.Context, tx *sql.Tx, install string) error {
	_, err := tx.ExecContext(ctx, `UPDATE install SET down_on = coalesce((SELECT on_day FROM wear_entry WHERE install_id = install.id AND kind = ?), '') WHERE id = ?`, string(wear.Down), install)
	return err
}

// movesOf is what the ids of the moves of an entry begin with. No other id has a slash.
func movesOf(install, entry string) string {
	return uuid.NewSHA1(uuid.NameSpaceOID, []byte(install+"/"+entry)).String() + "/"
}

// unbook books the opposite of what an entry moved; packs that were opened stay open. The ids of moves of
// one entry and lot go by how many lines there are already, so that each is new.
func unbook(ctx context.Context, tx *sql.Tx, install, entry, by string) error {
	prefix := movesOf(install, entry)
	type net struct {
		lot           string
		kind          supply.MoveKind
		packs, pieces int
	}
	nets, err := list(ctx, tx, "moves of an entry", func(row scanner) (n net, err error) {
		err = row.Scan(&n.lot, &n.kind, &n.packs, &n.pieces)
		return n, err
	}, `SELECT lot_id, kind, sum(packs), sum(pieces) FROM stash_move WHERE substr(id, 1, ?) = ? AND kind != 'opened' GROUP BY lot_id, kind HAVING sum(packs) != 0 OR sum(pieces) != 0`, len(prefix), prefix)
	if err != nil {
		return err
	}
	for _, n := range nets {
		id, err := nextMove(ctx, tx, prefix, n.lot)
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO stash_move (id, lot_id, kind, packs, pieces, person, reason, install_id, at) VALUES (?, ?, ?, ?, ?, ?, 'Taken back: written down otherwise', ?, ?)`,
			id, n.lot, string(n.kind), -n.packs, -n.pieces, by, install, stampOf(time.Now()))
		if err != nil {
			return err
		}
	}
	return nil
}

// nextMove is an id for one more move of an entry and lot.
func nextMove(ctx context.Context, tx *sql.Tx, prefix, lot string) (id string, err error) {
	var n int
	err = tx.QueryRowContext(ctx, `SELECT count(*) FROM stash_move WHERE substr(id, 1, ?) = ? AND lot_id = ?`, len(prefix), prefix, lot).Scan(&n)
	return fmt.Sprintf("%s%d", prefix, n), err
}

// stillThere refuses a change of an entry by which pieces that came back, and were used since, would not
// have come back.
func stillThere(ctx context.Context, tx *sql.Tx, install, entry string) error {
	prefix := movesOf(install, entry)
	lacking := 0
	err := tx.QueryRowContext(ctx, `SELECT coalesce(-sum(remaining), 0) FROM (SELECT `+lotPieces+` AS remaining FROM lot
		WHERE lot.id IN (SELECT lot_id FROM stash_move WHERE substr(id, 1, ?) = ? AND kind = 'saved')) WHERE remaining < 0`, len(prefix), prefix).Scan(&lacking)
	if err != nil || lacking == 0 {
		return err
	}
	var bad invalid.Errors
	bad.Add("saved", "Of the pieces that came back %d were used since. Put right first what they were used for.", lacking)
	return bad
}

// moved books what an entry takes out of the stash, or brings back.
func moved(ctx context.Context, tx *sql.Tx, w WornHead, e wear.Entry, at time.Time, m Moving) error {
	prefix := movesOf(w.ID, e.ID)
	next := func(lot string) (id string, err error) { return nextMove(ctx, tx, prefix, lot) }
	if m.Take > 0 {
		lots, err := matching(ctx, tx, holder{w.PlanID, w.ClientID}, Claim{Key: m.Key, Item: m.Item, Colour: m.Colour})
		if err != nil {
			return err
		}
		for _, t := range supply.Take(m.Take, lots, true) {
			id, err := next(t.Lot)
			if err != nil {
				return err
			}
			if _, err := book(ctx, tx, t.Lot, MoveDraft{ID: id, Kind: supply.Used, Stock: supply.Stock{Loose: t.Pieces}, PlanID: w.PlanID, InstallID: w.ID, Claim: m.Key, By: e.By, At: at}); err != nil {
				return err
			}
		}
	}
	if m.Good+m.Worn == 0 {
		return nil
	}
	sources, err := sourcesOf(ctx, tx, w, m)
	if err != nil {
		return err
	}
	for _, c := range []struct {
		condition supply.Condition
		count     int
	}{{supply.Good, m.Good}, {supply.Worn, m.Worn}} {
		for i := range sources {
			src := &sources[i]
			n := min(c.count, src.used)
			if n <= 0 {
				continue
			}
			c.count -= n
			src.used -= n
			lot := src.lot
			lot.Condition, lot.Round = c.condition, lot.Round+1
			lot.Counted, lot.Length = true, cmp.Or(m.Length, lot.Length)
			lotID := uuid.NewSHA1(uuid.NameSpaceOID, []byte(w.ID+"/"+e.ID+"/"+src.id+"/"+string(c.condition))).String()
			id, err := next(lotID)
			if err != nil {
				return err
			}
			draft := LotDraft{ID: lotID, Item: src.item, Lot: lot, WornBy: w.ClientID}
			move := MoveDraft{ID: id, Kind: supply.Saved, Stock: supply.Stock{Loose: n}, Reason: "Came back from a head", PlanID: w.PlanID, InstallID: w.ID, Claim: m.Key, By: e.By, At: at}
			if _, err := readLot(ctx, tx, lotID); err == nil {
				_, err = book(ctx, tx, lotID, move)
				if err != nil {
					return err
				}
			} else if _, err := addLot(ctx, tx, draft, move); err != nil {
				return err
			}
		}
	}
	return nil
}

// source is where pieces on a head came from, and how many of them.
type source struct {
	id, item string
	lot      supply.Lot
	used     int
}

// sourcesOf are the lots a piece of a head came from, the newest round first: what was worn
// least is most likely to come back. What came from no lot stands last.
func sourcesOf(ctx context.Context, tx *sql.Tx, w WornHead, m Moving) ([]source, error) {
	out, err := list(ctx, tx, "where pieces came from", func(row scanner) (s source, err error) {
		var document string
		if err = row.Scan(&s.id, &s.item, &document, &s.used); err != nil {
			return s, err
		}
		return s, json.Unmarshal([]byte(document), &s.lot)
	}, `SELECT lot.id, lot.item_id, lot.document, -sum(mv.pieces + mv.packs * json_extract(lot.document, '$.pack')) FROM stash_move mv JOIN lot ON lot.id = mv.lot_id
		WHERE mv.kind = 'used' AND lot.colour = ? AND mv.install_id IN (SELECT id FROM install WHERE id = ? OR redoes = ?)
			AND (mv.claim = ? OR mv.claim = '' AND lot.item_id = ?)
		GROUP BY lot.id HAVING -sum(mv.pieces + mv.packs * json_extract(lot.document, '$.pack')) > 0 ORDER BY json_extract(lot.document, '$.round'), lot.id`, searchKey(m.Colour), w.ID, w.ID, m.Key, m.Item)
	if err != nil {
		return nil, err
	}
	item, err := readItem(ctx, tx, m.Item)
	if errors.Is(err, ErrNotFound) {
		return out, nil // it left the supplies meanwhile
	}
	if err != nil {
		return nil, err
	}
	return append(out, source{id: m.Item, item: m.Item, lot: supply.Lot{Colour: m.Colour, Pack: max(1, item.Pack.Units)}, used: m.Good + m.Worn}), nil
}

// BackOf are the pieces of a head that came back: those of an item, a round and a condition together.
func (s *Tx) BackOf(ctx context.Context, install string, entries []wear.Entry) (out []Back, err error) {
	for _, e := range entries {
		prefix := movesOf(install, e.ID)
		lots, err := list(ctx, s.read, "pieces that came back", func(row scanner) (b Back, err error) {
			err = row.Scan(&b.Item, &b.Name, &b.Round, &b.Condition, &b.Pieces)
			return b, err
		}, `SELECT lot.item_id, json_extract(item.document, '$.name'), json_extract(lot.document, '$.round'), json_extract(lot.document, '$.condition'), sum(mv.pieces)
			FROM stash_move mv JOIN lot ON lot.id = mv.lot_id JOIN item ON item.id = lot.item_id
			WHERE substr(mv.id, 1, ?) = ? AND mv.kind IN ('saved', 'adjusted') AND json_extract(lot.document, '$.round') > 0 GROUP BY lot.id HAVING sum(mv.pieces) > 0 ORDER BY lot.id`, len(prefix), prefix)
		if err != nil {
			return nil, err
		}
		for _, b := range lots {
			k := slices.IndexFunc(out, func(o Back) bool { return o.Item == b.Item && o.Round == b.Round && o.Condition == b.Condition })
			if k < 0 {
				out = append(out, b)
			} else {
				out[k].Pieces += b.Pieces
			}
		}
	}
	return out, nil
}

// CareLink is the address under which a client reads the care of their head.
type CareLink struct {
	Secret string
	Until  string // the last day it is open
	By     string
}

// CareLink is that of a head; one with no secret where there is none.
func (s *Tx) CareLink(ctx context.Context, install string) (l CareLink, err error) {
	err = s.read.QueryRowContext(ctx, `SELECT secret, until, made_by FROM care_link WHERE install_id = ?`, install).Scan(&l.Secret, &l.Until, &l.By)
	if errors.Is(err, sql.ErrNoRows) {
		return CareLink{}, nil
	}
	return l, err
}

// SetCareLink puts an address in place of the one before, which leads nowhere from then on.
func (s *Tx) SetCareLink(ctx context.Context, install string, l CareLink) error {
	_, err := s.write.ExecContext(ctx, `INSERT INTO care_link (install_id, secret, until, made_by, made_at) VALUES (?, ?, ?, ?, ?)
		ON CONFLICT (install_id) DO UPDATE SET secret = excluded.secret, until = excluded.until, made_by = excluded.made_by, made_at = excluded.made_at`,
		install, l.Secret, l.Until, l.By, stampOf(time.Now()))
	if code(err) == foreignKey {
		err = ErrNotFound
	}
	if err != nil {
		return fmt.Errorf("address for the care of head %s: %w", install, err)
	}
	return nil
}

// DropCareLink revokes the address of a head. None is no error.
func (s *Tx) DropCareLink(ctx context.Context, install string) error {
	if _, err := s.write.ExecContext(ctx, `DELETE FROM care_link WHERE install_id = ?`, install); err != nil {
		return fmt.Errorf("revoking the address of head %s: %w", install, err)
	}
	return nil
}

// ByCareSecret is the head that a secret opens on a day, or [ErrNotFound].
func (s *Tx) ByCareSecret(ctx context.Context, secret, today string) (install string, err error) {
	err = s.read.QueryRowContext(ctx, `SELECT install_id FROM care_link WHERE secret = ? AND until >= ?`, secret, today).Scan(&install)
	return install, orNotFound(err)
}

// DeleteInstall removes an install with all that was told of it, its pictures and what was seen since.
func (s *Tx) DeleteInstall(ctx context.Context, id string) error {
	return s.deleteFrom(ctx, "install", id)
}

// Forget deletes pictures and health notes of installs that ended before a time; the zero time deletes
// none. Looks and notes go; of a taking down, of repairs and of what was told at the chair goes what says
// anything of scalp and hair, and what was done stays. It answers how many of each went.
func (s *Tx) Forget(ctx context.Context, photos, health time.Time) (pictures, notes int64, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		const ended = `install_id IN (SELECT id FROM install WHERE closed_at != '' AND closed_at < ?)`
		drop := func(before time.Time, n *int64, query string, args ...any) error {
			if before.IsZero() {
				return nil
			}
			res, err := tx.ExecContext(ctx, query, append([]any{stampOf(before)}, args...)...)
			if err != nil {
				return err
			}
			gone, err := res.RowsAffected()
			*n += gone
			return err
		}
		if err := drop(photos, &pictures, `DELETE FROM install_photo WHERE `+ended); err != nil {
			return err
		}
		if err := drop(health, &notes, `DELETE FROM wear_entry WHERE `+ended+` AND kind IN (?, ?)`, string(wear.Checked), string(wear.Noted)); err != nil {
			return err
		}
		for _, query := range []string{
			`DELETE FROM wear_entry_past WHERE ` + ended,
			`UPDATE install_event SET document = json_remove(document, '$.text', '$.answer') WHERE ` + ended + `
				AND json_extract(document, '$.kind') IN ('noted', 'answered', 'photographed') AND json_type(document, '$.text') IS NOT NULL`,
			`UPDATE install SET log = json_set(log, '$.notes', json('[]'), '$.felt', json('{}')) WHERE closed_at != '' AND closed_at < ? AND json_valid(log)
				AND (json_array_length(log, '$.notes') > 0 OR json_extract(log, '$.felt') != '{}')`,
		} {
			if err := drop(health, &notes, query); err != nil {
				return err
			}
		}
		stripped, err := strip(ctx, tx, health)
		notes += stripped
		return err
	})
	if err == nil && pictures+notes > 0 {
		err = s.erase(ctx)
	}
	if err != nil {
		return 0, 0, fmt.Errorf("deleting what is kept no longer: %w", err)
	}
	return pictures, notes, nil
}

// strip takes out of the entries of installs that ended before a time what they say of scalp and hair.
func strip(ctx context.Context, tx *sql.Tx, before time.Time) (n int64, err error) {
	if before.IsZero() {
		return 0, nil
	}
	type kept struct {
		install string
		entry   wear.Entry
	}
	all, err := list(ctx, tx, "entries", func(row scanner) (k kept, err error) {
		var document string
		if err = row.Scan(&k.install, &document); err != nil {
			return k, err
		}
		return k, json.Unmarshal([]byte(document), &k.entry)
	}, `SELECT install_id, document FROM wear_entry WHERE install_id IN (SELECT id FROM install WHERE closed_at != '' AND closed_at < ?)`, stampOf(before))
	if err != nil {
		return 0, err
	}
	for _, k := range all {
		if !k.entry.Health() {
			continue
		}
		document, err := json.Marshal(k.entry.WithoutHealth())
		if err != nil {
			return n, err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE wear_entry SET document = ? WHERE install_id = ? AND id = ?`, string(document), k.install, k.entry.ID); err != nil {
			return n, err
		}
		n++
	}
	return n, nil
}
