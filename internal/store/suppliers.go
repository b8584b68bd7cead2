package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"

	"kladotex/core/supply"
)

// Supplier is one whom the studio orders from.
type Supplier struct {
	supply.Seller
	Version int // counts saves, from 1
}

// ErrSupplierNamed: another supplier has this name.
var ErrSupplierNamed = errors.New("a supplier has this name")

const supplierColumns = `key, name, note, fee_minor, days, practice, archived, version`

func readSupplierRow(row scanner) (p Supplier, err error) {
	err = row.Scan(&p.Key, &p.Name, &p.Note, &p.Fee, &p.Days, &p.Practice, &p.Archived, &p.Version)
	return p, err
}

// Suppliers lists all of them by name, the archived ones last.
func (s *Tx) Suppliers(ctx context.Context) ([]Supplier, error) {
	return list(ctx, s.read, "suppliers", readSupplierRow, `SELECT `+supplierColumns+` FROM supplier ORDER BY archived, name_key`)
}

func readSupplier(ctx context.Context, q querier, key string) (Supplier, error) {
	p, err := readSupplierRow(q.QueryRowContext(ctx, `SELECT `+supplierColumns+` FROM supplier WHERE key = ?`, key))
	return p, orNotFound(err)
}

// AddSupplier stores a new supplier under a key made by who asks. It fails with [ErrSupplierNamed] when
// another has the name. Adding the same once more gives back what is stored.
func (s *Tx) AddSupplier(ctx context.Context, seller supply.Seller) (p Supplier, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		switch p, err = readSupplier(ctx, tx, seller.Key); {
		case err == nil:
			return repeated(p.Seller == seller, nil)
		case !errors.Is(err, ErrNotFound):
			return err
		}
		if err := errors.Join(notGone(ctx, tx, seller.Key), freeSupplier(ctx, tx, seller)); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO supplier (`+supplierColumns+`, name_key) VALUES (?, ?, ?, ?, ?, ?, ?, 1 + (SELECT version_floor FROM studio), ?)`,
			seller.Key, seller.Name, seller.Note, seller.Fee, seller.Days, seller.Practice, seller.Archived, nameKey(seller.Name))
		if err != nil {
			return err
		}
		p, err = readSupplier(ctx, tx, seller.Key)
		return err
	})
	if err != nil {
		return Supplier{}, fmt.Errorf("storing a supplier: %w", err)
	}
	return p, nil
}

// freeSupplier fails with [ErrSupplierNamed] when another supplier has the name.
func freeSupplier(ctx context.Context, tx *sql.Tx, seller supply.Seller) error {
	var taken bool
	err := tx.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM supplier WHERE name_key = ? AND key <> ?)`, nameKey(seller.Name), seller.Key).Scan(&taken)
	if err == nil && taken {
		err = ErrSupplierNamed
	}
	return err
}

// SaveSupplier replaces a supplier that still has the given version; whether it is a simulated one stays
// as it is. It fails with [ErrStale] and [ErrSupplierNamed].
func (s *Tx) SaveSupplier(ctx context.Context, version int, seller supply.Seller) (p Supplier, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		if p, err = readSupplier(ctx, tx, seller.Key); err != nil {
			return err
		}
		seller.Practice = p.Practice
		if p.Version != version {
			return repeated(p.Seller == seller, nil)
		}
		if err := freeSupplier(ctx, tx, seller); err != nil {
			return err
		}
		return saveSupplier(ctx, tx, &p, seller)
	})
	if err != nil {
		return Supplier{}, fmt.Errorf("saving a supplier: %w", err)
	}
	return p, nil
}

func saveSupplier(ctx context.Context, tx *sql.Tx, p *Supplier, seller supply.Seller) error {
	_, err := tx.ExecContext(ctx, `UPDATE supplier SET name = ?, name_key = ?, note = ?, fee_minor = ?, days = ?, archived = ?,
		version = 1 + max(version, (SELECT version_floor FROM studio)) WHERE key = ?`,
		seller.Name, nameKey(seller.Name), seller.Note, seller.Fee, seller.Days, seller.Archived, seller.Key)
	if err != nil {
		return err
	}
	*p, err = readSupplier(ctx, tx, seller.Key)
	return err
}

// DeleteSupplier removes a supplier that nothing speaks of. One that prices, lots, plans or orders name is
// archived instead.
func (s *Tx) DeleteSupplier(ctx context.Context, key string) (archived bool, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		p, err := readSupplier(ctx, tx, key)
		if err != nil {
			return err
		}
		err = tx.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM item WHERE instr(document, ?1) > 0)
			OR EXISTS (SELECT 1 FROM lot WHERE instr(document, ?1) > 0)
			OR EXISTS (SELECT 1 FROM purchase WHERE supplier = ?1 OR instr(lines, ?1) > 0)
			OR EXISTS (SELECT 1 FROM plan WHERE instr(document, ?1) > 0 OR instr(variants, ?1) > 0)`, key).Scan(&archived)
		if err != nil {
			return err
		}
		if archived {
			p.Seller.Archived = true
			return saveSupplier(ctx, tx, &p, p.Seller)
		}
		_, err = tx.ExecContext(ctx, `DELETE FROM supplier WHERE key = ?`, key)
		return err
	})
	if err != nil {
		return false, fmt.Errorf("deleting a supplier: %w", err)
	}
	return archived, nil
}
