package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"time"

	"kladotex/core/supply"
)

// Item is a stored item of the supplies.
type Item struct {
	ID string
	supply.Item
	Archived bool
	Version  int // counts saves, from 1
	Updated  time.Time
	// Pieces is how many of it lie in the stash, Promised what plans hold of them.
	Pieces, Promised int
}

// Cursor is where the list goes on after this item.
func (i Item) Cursor() string { return itemKey(i.Item) + "\n" + i.ID }

// itemKey is what an item is found and listed by.
func itemKey(i supply.Item) string {
	parts := []string{i.Name, i.Line, i.Kind.Facts().Name}
	for _, c := range i.Colours {
		parts = append(parts, c.Name)
	}
	return searchKey(strings.Join(parts, " "))
}

// lotPieces is what is left of lot, pieces by the label of its packs.
const lotPieces = `(SELECT coalesce(sum(m.packs * json_extract(lot.document, '$.pack') + m.pieces), 0) FROM stash_move m WHERE m.lot_id = lot.id)`

const itemColumns = `id, document, archived, version, updated_at,
	(SELECT coalesce(sum(` + lotPieces + `), 0) FROM lot WHERE lot.item_id = item.id),
	(SELECT coalesce(sum(pieces), 0) FROM promise JOIN lot ON lot.id = promise.lot_id WHERE lot.item_id = item.id)`

func readItemRow(row scanner) (i Item, err error) {
	var document string
	if err := row.Scan(&i.ID, &document, &i.Archived, &i.Version, (*stamp)(&i.Updated), &i.Pieces, &i.Promised); err != nil {
		return Item{}, orNotFound(err)
	}
	i.Item, err = supply.DecodeItem([]byte(document))
	return i, err
}

// ItemWish says which items are wanted: those that hold every word of Search, of a kind or of
// all, and only the archived ones or the others.
type ItemWish struct {
	Search   string
	Kind     supply.Kind
	Archived bool
}

// Items lists a page of the items, by name.
func (s *Tx) Items(ctx context.Context, wish ItemWish, page Page) ([]Item, error) {
	key, id := page.split()
	where, args := ` WHERE archived = ? AND (search_key, id) > (?, ?)`, []any{wish.Archived, key, id}
	if wish.Kind != "" {
		where, args = where+` AND kind = ?`, append(args, string(wish.Kind))
	}
	for word := range strings.FieldsSeq(searchKey(wish.Search)) {
		where, args = where+` AND instr(search_key, ?) > 0`, append(args, word)
	}
	return list(ctx, s.read, "items", readItemRow, `SELECT `+itemColumns+` FROM item`+where+` ORDER BY search_key, id LIMIT ?`, append(args, page.Limit)...)
}

// Item reads one item.
func (s *Tx) Item(ctx context.Context, id string) (Item, error) {
	i, err := readItem(ctx, s.read, id)
	if err != nil {
		return Item{}, fmt.Errorf("item %s: %w", id, err)
	}
	return i, nil
}

func readItem(ctx context.Context, q querier, id string) (Item, error) {
	return readItemRow(q.QueryRowContext(ctx, `SELECT `+itemColumns+` FROM item WHERE id = ?`, id))
}

// ItemDraft is what is saved of an item.
type ItemDraft struct {
	Item     supply.Item
	Archived bool
}

func (d ItemDraft) repeats(i Item) error {
	same, err := sameJSON(d.Item, i.Item)
	return repeated(same && d.Archived == i.Archived, err)
}

// CreateItem stores a new item under an id made by who asks; see [Store.CreateClient].
func (s *Tx) CreateItem(ctx context.Context, id string, d ItemDraft) (i Item, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		i, err = createItem(ctx, tx, id, d)
		return err
	})
	if err != nil {
		return Item{}, fmt.Errorf("storing an item: %w", err)
	}
	return i, nil
}

func createItem(ctx context.Context, tx *sql.Tx, id string, d ItemDraft) (Item, error) {
	switch i, err := readItem(ctx, tx, id); {
	case err == nil:
		return i, d.repeats(i)
	case !errors.Is(err, ErrNotFound):
		return Item{}, err
	}
	if err := notGone(ctx, tx, id); err != nil {
		return Item{}, err
	}
	if err := insertItem(ctx, tx, id, d); err != nil {
		return Item{}, err
	}
	return readItem(ctx, tx, id)
}

func insertItem(ctx context.Context, tx *sql.Tx, id string, d ItemDraft) error {
	document, err := json.Marshal(d.Item)
	if err != nil {
		return err
	}
	now := stampOf(time.Now())
	_, err = tx.ExecContext(ctx, `INSERT INTO item (id, name, search_key, kind, archived, version, document, created_at, updated_at)
		VALUES (?, ?, ?, ?, ?, 1 + (SELECT version_floor FROM studio), ?, ?, ?)`,
		id, d.Item.Name, itemKey(d.Item), string(d.Item.Kind), d.Archived, string(document), now, now)
	return err
}

// SaveItem replaces an item that still has the given version; see [Store.SaveClient].
func (s *Tx) SaveItem(ctx context.Context, id string, version int, d ItemDraft) (i Item, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		if i, err = readItem(ctx, tx, id); err != nil {
			return err
		}
		if i.Version != version {
			return d.repeats(i)
		}
		i, err = saveItem(ctx, tx, id, d)
		return err
	})
	if err != nil {
		return Item{}, fmt.Errorf("saving item %s: %w", id, err)
	}
	return i, nil
}

func saveItem(ctx context.Context, tx *sql.Tx, id string, d ItemDraft) (Item, error) {
	document, err := json.Marshal(d.Item)
	if err != nil {
		return Item{}, err
	}
	_, err = tx.ExecContext(ctx, `UPDATE item SET name = ?, search_key = ?, kind = ?, archived = ?, document = ?,
		version = 1 + max(version, (SELECT version_floor FROM studio)), updated_at = ? WHERE id = ?`,
		d.Item.Name, itemKey(d.Item), string(d.Item.Kind), d.Archived, string(document), stampOf(time.Now()), id)
	if err != nil {
		return Item{}, err
	}
	return readItem(ctx, tx, id)
}

// DeleteItem removes an item that nothing speaks of. One that lots, plans or orders name is
// archived instead.
func (s *Tx) DeleteItem(ctx context.Context, id string) (archived bool, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		i, err := readItem(ctx, tx, id)
		if err != nil {
			return err
		}
		err = tx.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM lot WHERE item_id = ?1)
			OR EXISTS (SELECT 1 FROM purchase WHERE instr(lines, ?1) > 0)
			OR EXISTS (SELECT 1 FROM plan WHERE instr(document, ?1) > 0 OR instr(variants, ?1) > 0)`, id).Scan(&archived)
		if err != nil {
			return err
		}
		if archived {
			_, err = saveItem(ctx, tx, id, ItemDraft{i.Item, true})
			return err
		}
		_, err = tx.ExecContext(ctx, `DELETE FROM item WHERE id = ?`, id)
		return err
	})
	if err != nil {
		return false, fmt.Errorf("deleting item %s: %w", id, err)
	}
	return archived, nil
}

// ItemPut is an item to be stored: new, under an id that was just made, where its version is 0,
// else over that version.
type ItemPut struct {
	ID      string
	Version int
	Draft   ItemDraft
}

// PutItems stores many items in one transaction; an error, such as one of progress, undoes all of them.
func (s *Tx) PutItems(ctx context.Context, puts []ItemPut, progress func(done int) error) error {
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		return eachOf(puts, progress, func(p ItemPut) error {
			if p.Version == 0 {
				return insertItem(ctx, tx, p.ID, p.Draft)
			}
			i, err := readItem(ctx, tx, p.ID)
			if err == nil && i.Version != p.Version {
				err = ErrStale
			}
			if err == nil {
				_, err = saveItem(ctx, tx, p.ID, p.Draft)
			}
			return err
		})
	})
	if err != nil {
		return fmt.Errorf("storing items: %w", err)
	}
	return nil
}

// eachOf works through a list and tells of it every thousand entries.
func eachOf[T any](list []T, progress func(done int) error, work func(T) error) error {
	for n, x := range list {
		if err := work(x); err != nil {
			return err
		}
		if (n+1)%1000 == 0 {
			if err := progress(n + 1); err != nil {
				return err
			}
		}
	}
	return nil
}
