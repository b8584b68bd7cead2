package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"

	"kladotex/core/house"
)

// House is a studio's house rules as stored.
type House struct {
	Rules   house.Rules
	Version int // counts saves, from 1
}

// House reads the house rules.
func (s *Tx) House(ctx context.Context) (House, error) {
	h, err := readHouse(ctx, s.read)
	if err != nil {
		return House{}, fmt.Errorf("house rules: %w", err)
	}
	return h, nil
}

func readHouse(ctx context.Context, q querier) (h House, err error) {
	var document string
	err = q.QueryRowContext(ctx, `SELECT rules, rules_version FROM studio`).Scan(&document, &h.Version)
	if err == nil {
		h.Rules, err = house.Decode([]byte(document))
	}
	return h, err
}

// SaveHouse replaces house rules that still have the given version. When they were saved
// since, but as the same, the request was repeated, and succeeds; else it fails with
// ErrStale.
func (s *Tx) SaveHouse(ctx context.Context, version int, rules house.Rules) (h House, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		if h, err = readHouse(ctx, tx); err != nil {
			return err
		}
		if h.Version != version {
			return repeated(h.Rules.Equal(rules), nil)
		}
		document, err := json.Marshal(rules)
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `UPDATE studio SET rules = ?, rules_version = 1 + max(rules_version, version_floor)`, string(document))
		if err != nil {
			return err
		}
		h, err = readHouse(ctx, tx)
		return err
	})
	if err != nil {
		return House{}, fmt.Errorf("saving the house rules: %w", err)
	}
	return h, nil
}
