package studio

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/supply"
	"kladotex/internal/store"
)

// Supplier is one whom the studio orders from, with how its packs came.
type Supplier struct {
	supply.Seller
	Version int `json:"version" doc:"Counts saves; send it back as If-Match"`
	// Came is nil while no order of it came.
	Came *store.Shortfall `json:"came,omitempty" doc:"How its orders came; left out while none did"`
}

// Suppliers are those whom the studio orders from, or did, by name, the archived ones last.
func (s *Studio) Suppliers(ctx context.Context) ([]Supplier, error) {
	sellers, err := s.Store.Suppliers(ctx)
	if err != nil {
		return nil, err
	}
	came, err := s.Store.Shortfalls(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]Supplier, len(sellers))
	for i, p := range sellers {
		out[i] = Supplier{Seller: p.Seller, Version: p.Version}
		if k := slices.IndexFunc(came, func(c store.Shortfall) bool { return c.Supplier == p.Key }); k >= 0 {
			out[i].Came = &came[k]
		}
	}
	return out, nil
}

// AddSupplier takes on a supplier that people order from themselves.
func (s *Studio) AddSupplier(ctx context.Context, seller supply.Seller) (store.Supplier, error) {
	seller.Practice, seller.Archived = false, false
	return s.addSupplier(ctx, seller)
}

// Practise takes on the simulated suppliers, or brings them back from the archive.
func (s *Studio) Practise(ctx context.Context) error {
	return s.update(ctx, func(s *Studio) error {
		have, err := s.Store.Suppliers(ctx)
		if err != nil {
			return err
		}
		for _, seller := range s.outside.Suppliers.Known() {
			seller.Practice = true
			k := slices.IndexFunc(have, func(p store.Supplier) bool { return p.Key == seller.Key })
			switch {
			case k < 0:
				_, err = s.addSupplier(ctx, seller)
			case have[k].Archived:
				again := have[k]
				again.Archived = false
				_, err = s.SaveSupplier(ctx, again.Version, again.Seller)
			}
			if err != nil {
				return err
			}
		}
		return nil
	})
}

func (s *Studio) addSupplier(ctx context.Context, seller supply.Seller) (p store.Supplier, err error) {
	seller, err = checkedSeller(seller)
	if err != nil {
		return store.Supplier{}, err
	}
	err = s.update(ctx, func(s *Studio) error {
		if err := s.room(ctx, seller.Key); err != nil {
			return err
		}
		p, err = s.Store.AddSupplier(ctx, seller)
		return err
	})
	return p, err
}

// SaveSupplier saves a supplier over the version it was read at.
func (s *Studio) SaveSupplier(ctx context.Context, version int, seller supply.Seller) (p store.Supplier, err error) {
	seller, err = checkedSeller(seller)
	if err != nil {
		return store.Supplier{}, err
	}
	err = s.update(ctx, func(s *Studio) error {
		if !seller.Archived {
			if err := s.room(ctx, seller.Key); err != nil {
				return err
			}
		}
		p, err = s.Store.SaveSupplier(ctx, version, seller)
		return err
	})
	return p, err
}

func checkedSeller(seller supply.Seller) (supply.Seller, error) {
	seller.Name, seller.Note = strings.TrimSpace(seller.Name), strings.TrimSpace(seller.Note)
	return seller, seller.Check()
}

// room refuses one more supplier than can be weighed against one another; the one of the key may be among
// them already.
func (s *Studio) room(ctx context.Context, key string) error {
	have, err := s.Store.Suppliers(ctx)
	if err != nil {
		return err
	}
	others := 0
	for _, p := range have {
		if !p.Archived && p.Key != key {
			others++
		}
	}
	if others < supply.MaxSellers {
		return nil
	}
	var bad invalid.Errors
	bad.Add("name", "Up to %d suppliers can be weighed against one another: archive one first.", supply.MaxSellers)
	return bad
}

// sellers are all suppliers, those archived too, in the order of [store.Tx.Suppliers].
func (s *Studio) sellers(ctx context.Context) ([]supply.Seller, error) {
	have, err := s.Store.Suppliers(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]supply.Seller, len(have))
	for i, p := range have {
		out[i] = p.Seller
	}
	return out, nil
}

// selling are those of the sellers that an offer of the wants names: the first of them, where they are more than can be
// weighed against one another.
func selling(sellers []supply.Seller, wants []supply.Want) []supply.Seller {
	named := map[string]bool{}
	for _, w := range wants {
		for _, o := range w.Offers {
			named[o.Supplier] = true
		}
	}
	var out []supply.Seller
	for _, p := range sellers {
		if named[p.Key] && len(out) < supply.MaxSellers {
			out = append(out, p)
		}
	}
	return out
}

// sellerOf is the supplier of a key. One that is not on file goes by its key; nobody is any shop.
func sellerOf(sellers []supply.Seller, key string) supply.Seller {
	if k := slices.IndexFunc(sellers, func(p supply.Seller) bool { return p.Key == key }); k >= 0 {
		return sellers[k]
	}
	return supply.Seller{Key: key, Name: cmp.Or(key, anyShop)}
}

// sellerNamed is the key of the supplier that a table calls by its name, or by its key; empty stays empty.
// It is false for one that is not on file.
func sellerNamed(sellers []supply.Seller, name string) (key string, known bool) {
	name = strings.TrimSpace(name)
	if name == "" {
		return "", true
	}
	for _, p := range sellers {
		if strings.EqualFold(p.Name, name) || p.Key == name {
			return p.Key, true
		}
	}
	return "", false
}

// ListOf is what a supplier has today. It fails with [store.ErrNotFound] where its list cannot be asked
// for.
func (s *Studio) ListOf(ctx context.Context, key string) ([]supply.Listed, error) {
	list, err := s.outside.Suppliers.List(ctx, key, s.now())
	if err == nil && list == nil {
		err = store.ErrNotFound
	}
	return list, err
}

// Samples are pieces a plan may start from before the studio has any on file.
func (s *Studio) Samples() []hair.Piece { return s.outside.Suppliers.Samples() }

// Weigh is what the scale shows with packs of an item on it, g, one reading after the other, and the
// mass of a pack's bag, g.
func (s *Studio) Weigh(ctx context.Context, item supply.Item, packs int) (readings []float64, bag float64, err error) {
	readings, err = s.outside.Scale.Weigh(ctx, item, packs)
	return readings, s.outside.Scale.Bag(), err
}
