package studio

import (
	"context"

	"github.com/bojanz/currency"

	"kladotex/core/house"
	"kladotex/core/invalid"
	"kladotex/internal/store"
)

// SaveHouse saves the house rules over the version they were read at.
func (s *Studio) SaveHouse(ctx context.Context, version int, rules house.Rules) (store.House, error) {
	if err := rules.Check(); err != nil {
		return store.House{}, err
	}
	if !currency.IsValid(rules.Currency) {
		var bad invalid.Errors
		bad.Add("currency", "There is no currency %s; choose one from the list.", rules.Currency)
		return store.House{}, bad
	}
	if _, err := zoneNamed(rules.Zone); err != nil {
		var bad invalid.Errors
		bad.Add("zone", "There is no zone %q; one is named like Europe/Lisbon.", rules.Zone)
		return store.House{}, bad
	}
	return s.Store.SaveHouse(ctx, version, rules)
}
