package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"time"

	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/supply"
)

// PurchaseState is how far an order has come.
type PurchaseState string

// The states.
const (
	Listed  PurchaseState = "listed"
	Ordered PurchaseState = "ordered"
	Arrived PurchaseState = "arrived"
)

// PurchaseLine is one item of an order.
type PurchaseLine struct {
	// Key names the need of the plan it is for; empty in orders for no plan, and in those listed before
	// there was one.
	Key    string     `json:"key,omitempty" doc:"What it is for inside the plan"`
	Item   string     `json:"item,omitempty" doc:"Id of the item; left out for one that is not in the supplies"`
	Name   string     `json:"name"`
	Colour string     `json:"colour,omitempty"`
	Pack   int        `json:"pack" doc:"Pieces in a pack by its label"`
	Offer  hair.Offer `json:"offer"`
	Count  int        `json:"count" doc:"How many of the offer"`
	// Came is the pieces counted on arrival; nil until it came.
	Came *Came `json:"came,omitempty"`
}

// Packs in the line.
func (l PurchaseLine) Packs() int { return l.Count * l.Offer.Packs }

// Came is what came of a line.
type Came struct {
	Packs  int `json:"packs"`
	Pieces int `json:"pieces" doc:"Pieces in all of them, by the label where nobody counted"`
	// Checked says how it was looked at: by the label, counted, or weighed.
	Checked string `json:"checked" enum:"label,counted,weighed"`
}

// Purchase is an order with one supplier.
type Purchase struct {
	ID, Supplier string
	PlanID, Plan string // empty for one that is for no plan
	State        PurchaseState
	Version      int
	Lines        []PurchaseLine
	Fee          int64 // minor units
	// Ordered, Due and Arrived are dates; empty until they are known.
	Ordered, Due, Arrived string
	Created               time.Time
}

const purchaseColumns = `purchase.id, supplier, coalesce(plan_id, ''), coalesce(plan.title, ''), state, purchase.version, lines, fee_minor, ordered_on, due_on, arrived_on, purchase.created_at`

const purchaseTables = ` FROM purchase LEFT JOIN plan ON plan.id = purchase.plan_id`

func readPurchaseRow(row scanner) (p Purchase, err error) {
	var lines string
	err = row.Scan(&p.ID, &p.Supplier, &p.PlanID, &p.Plan, &p.State, &p.Version, &lines, &p.Fee, &p.Ordered, &p.Due, &p.Arrived, (*stamp)(&p.Created))
	if err != nil {
		return Purchase{}, orNotFound(err)
	}
	return p, json.Unmarshal([]byte(lines), &p.Lines)
}

func readPurchase(ctx context.Context, q querier, id string) (Purchase, error) {
	return readPurchaseRow(q.QueryRowContext(ctx, `SELECT `+purchaseColumns+purchaseTables+` WHERE purchase.id = ?`, id))
}

// Purchases lists the orders, those that are open first and then the latest; of one plan, or of
// all.
func (s *Tx) Purchases(ctx context.Context, plan string) ([]Purchase, error) {
	return list(ctx, s.read, "orders", readPurchaseRow, `SELECT `+purchaseColumns+purchaseTables+` WHERE ? IN ('', purchase.plan_id)
		ORDER BY state = 'arrived', coalesce(nullif(due_on, ''), '9'), purchase.created_at DESC, purchase.id LIMIT 200`, plan)
}

// ListPurchases puts orders on the list: those that the plan had on it before are replaced, what
// is ordered already stays.
func (s *Tx) ListPurchases(ctx context.Context, plan string, orders []Purchase) error {
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		if plan != "" {
			if _, err := tx.ExecContext(ctx, `DELETE FROM purchase WHERE plan_id = ? AND state = 'listed'`, plan); err != nil {
				return err
			}
		}
		for _, p := range orders {
			if err := insertPurchase(ctx, tx, p); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return fmt.Errorf("listing orders: %w", err)
	}
	return nil
}

func insertPurchase(ctx context.Context, tx *sql.Tx, p Purchase) error {
	lines, err := json.Marshal(p.Lines)
	if err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO purchase (id, supplier, plan_id, state, version, lines, fee_minor, ordered_on, due_on, arrived_on, created_at)
		VALUES (?, ?, nullif(?, ''), ?, 1 + (SELECT version_floor FROM studio), ?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING`,
		p.ID, p.Supplier, p.PlanID, p.State, string(lines), p.Fee, p.Ordered, p.Due, p.Arrived, stampOf(time.Now()))
	return err
}

// Place says that an order was placed on a day and is due on another. Said again it is as it
// was said last.
func (s *Tx) Place(ctx context.Context, id, ordered, due string) (Purchase, error) {
	return s.changePurchase(ctx, id, func(_ *sql.Tx, p *Purchase) error {
		if p.State == Arrived {
			return arrivedAlready()
		}
		p.State, p.Ordered, p.Due = Ordered, ordered, due
		return nil
	})
}

func arrivedAlready() error {
	var bad invalid.Errors
	bad.Add("state", "This order has arrived: what came lies in the stash. Put it right there.")
	return bad
}

// Arrive books what came of an order: every line of an item of the supplies becomes a lot. An
// order arrives once; the same again changes nothing.
func (s *Tx) Arrive(ctx context.Context, id, on, by string, came []Came) (Purchase, error) {
	return s.changePurchase(ctx, id, func(tx *sql.Tx, p *Purchase) error {
		if p.State == Arrived {
			return nil
		}
		var bad invalid.Errors
		bad.Count("lines", "What came", len(came), len(p.Lines), len(p.Lines))
		if len(bad) > 0 {
			return bad
		}
		for i := range p.Lines {
			line, c := &p.Lines[i], came[i]
			at := invalid.At("lines", i)
			bad.Count(at+".packs", "Packs that came", c.Packs, 0, 2*line.Packs()+10)
			bad.Count(at+".pieces", "Pieces that came", c.Pieces, 0, 2*max(1, c.Packs)*line.Pack)
			if len(bad) > 0 {
				return bad
			}
			line.Came = &c
			if line.Item == "" || c.Packs == 0 {
				continue
			}
			if err := arriveLine(ctx, tx, p, i, by); err != nil {
				return err
			}
		}
		p.State, p.Arrived = Arrived, on
		return nil
	})
}

// arriveLine makes a lot of what came of a line.
func arriveLine(ctx context.Context, tx *sql.Tx, p *Purchase, i int, by string) error {
	line := p.Lines[i]
	c := *line.Came
	lot := supply.Lot{Colour: line.Colour, Pack: line.Pack, Condition: supply.New, Supplier: p.Supplier, Counted: c.Checked != "label"}
	id := fmt.Sprintf("%s-%d", p.ID, i+1)
	_, err := addLot(ctx, tx, LotDraft{ID: id, Item: line.Item, Lot: lot, Purchase: p.ID},
		MoveDraft{ID: id, Kind: supply.Bought, Stock: supply.Stock{Packs: c.Packs}, PlanID: p.PlanID, By: by})
	if err != nil {
		return err
	}
	if short := c.Packs*line.Pack - c.Pieces; short != 0 {
		_, err = book(ctx, tx, id, MoveDraft{
			ID: id + "-counted", Kind: supply.Adjusted, Stock: supply.Stock{Loose: -short}, By: by,
			Reason: fmt.Sprintf("%s on arrival: %d where the labels say %d", c.Checked, c.Pieces, c.Packs*line.Pack),
		})
	}
	return err
}

// changePurchase changes an order in one transaction.
func (s *Tx) changePurchase(ctx context.Context, id string, change func(*sql.Tx, *Purchase) error) (p Purchase, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		if p, err = readPurchase(ctx, tx, id); err != nil {
			return err
		}
		if err := change(tx, &p); err != nil {
			return err
		}
		lines, err := json.Marshal(p.Lines)
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `UPDATE purchase SET state = ?, lines = ?, ordered_on = ?, due_on = ?, arrived_on = ?,
			version = 1 + max(version, (SELECT version_floor FROM studio)) WHERE id = ?`, p.State, string(lines), p.Ordered, p.Due, p.Arrived, id)
		if err != nil {
			return err
		}
		p, err = readPurchase(ctx, tx, id)
		return err
	})
	if err != nil {
		return Purchase{}, fmt.Errorf("order %s: %w", id, err)
	}
	return p, nil
}

// DropPurchase takes an order off the list. One that has arrived stays.
func (s *Tx) DropPurchase(ctx context.Context, id string) error {
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		p, err := readPurchase(ctx, tx, id)
		switch {
		case err != nil:
			return err
		case p.State == Arrived:
			return arrivedAlready()
		}
		_, err = tx.ExecContext(ctx, `DELETE FROM purchase WHERE id = ?`, id)
		return err
	})
	if err != nil {
		return fmt.Errorf("taking order %s off the list: %w", id, err)
	}
	return nil
}

// Shortfall is how a supplier's packs came.
type Shortfall struct {
	Supplier string `json:"supplier"`
	Orders   int    `json:"orders" doc:"Orders that arrived"`
	Packs    int    `json:"packs" doc:"Packs that were looked into"`
	Missing  int    `json:"missing" doc:"Pieces that were missing in them"`
	Lacking  int    `json:"lacking" doc:"Packs that did not come at all"`
}

// Shortfalls are those of every supplier whose orders arrived.
func (s *Tx) Shortfalls(ctx context.Context) ([]Shortfall, error) {
	arrived, err := list(ctx, s.read, "orders that arrived", readPurchaseRow, `SELECT `+purchaseColumns+purchaseTables+` WHERE state = 'arrived' ORDER BY supplier`)
	if err != nil {
		return nil, err
	}
	out := []Shortfall{}
	for _, p := range arrived {
		if len(out) == 0 || out[len(out)-1].Supplier != p.Supplier {
			out = append(out, Shortfall{Supplier: p.Supplier})
		}
		last := &out[len(out)-1]
		last.Orders++
		for _, l := range p.Lines {
			if l.Came == nil {
				continue
			}
			last.Lacking += max(0, l.Packs()-l.Came.Packs)
			if l.Came.Checked != "label" {
				last.Packs += l.Came.Packs
				last.Missing += max(0, l.Came.Packs*l.Pack-l.Came.Pieces)
			}
		}
	}
	return out, nil
}
