package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/hair"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// itemDocument is an item of the supplies.
type itemDocument struct {
	ID       string      `json:"id"`
	Item     supply.Item `json:"item"`
	Archived bool        `json:"archived"`
	Version  int         `json:"version" doc:"Counts saves; send it back as If-Match"`
	Updated  time.Time   `json:"updated"`
	Pieces   int         `json:"pieces" doc:"How many lie in the stash"`
	Promised int         `json:"promised" doc:"How many of them plans hold"`
	Depths   []int       `json:"depths" doc:"Step of each colour from 1, dark, to 9, light"`
	// Piece is the item as a plan hangs it, in no colour yet.
	Piece *hair.Piece `json:"piece,omitempty" doc:"As a plan hangs it, in no colour yet; left out for what does not hang"`
	// Wrapping is the item as a way winds it.
	Wrapping *hair.Wrapping `json:"wrapping,omitempty" doc:"As a way winds it, in no colour yet; left out for what is not wound"`
}

func itemOf(i store.Item) itemDocument {
	depths := make([]int, len(i.Colours))
	for k, c := range i.Colours {
		depths[k] = supply.Depth(c.Swatch)
	}
	out := itemDocument{i.ID, listedItem(i.Item), i.Archived, i.Version, i.Updated, i.Pieces, i.Promised, depths, nil, nil}
	if i.Kind.Facts().Hangs {
		piece := i.Piece(i.ID, i.ID, "")
		out.Piece = &piece
	}
	if i.Kind == supply.WrappingHair {
		wrapping := i.Item.Wrapping(i.ID, "")
		out.Wrapping = &wrapping
	}
	return out
}

// listedItem is an item whose lists are never missing.
func listedItem(i supply.Item) supply.Item {
	i.Colours = append([]supply.Colour{}, i.Colours...)
	i.Offers = append([]hair.Offer{}, i.Offers...)
	i.Articles = append([]supply.Article{}, i.Articles...)
	return i
}

type itemOutput struct {
	ETag string `header:"ETag"`
	Body itemDocument
}

func itemAnswer(ctx context.Context, i store.Item, err error) (*itemOutput, error) {
	if err != nil {
		return nil, problem(ctx, err, "body.")
	}
	return &itemOutput{etag(i.Version), itemOf(i)}, nil
}

// ItemDraft is what a person saves of an item.
type ItemDraft struct {
	Item     supply.Item `json:"item"`
	Archived bool        `json:"archived"`
}

// ItemPath names an item, LotPath a lot, OrderPath an order.
type (
	ItemPath struct {
		ID string `path:"id" maxLength:"64"`
	}
	LotPath struct {
		ID string `path:"id" maxLength:"64"`
	}
	OrderPath struct {
		ID string `path:"id" maxLength:"64"`
	}
)

// lotDocument is a lot of the stash.
type lotDocument struct {
	ID       string          `json:"id"`
	Item     string          `json:"item" doc:"Id of its item"`
	Name     string          `json:"name"`
	Kind     supply.Kind     `json:"kind"`
	Swatch   string          `json:"swatch,omitempty"`
	Tip      string          `json:"tip,omitempty"`
	Lot      supply.Lot      `json:"lot"`
	Stock    supply.Stock    `json:"stock"`
	Pieces   int             `json:"pieces"`
	Promises []store.Promise `json:"promises"`
	Created  time.Time       `json:"created"`
	// WornBy is who wore them, and to whom alone they are offered; Ends is true for those worn as
	// often as their fibre stands, and for those of a client who is gone.
	WornBy string `json:"wornBy,omitempty" doc:"Name of the client who wore them: they are offered to no other"`
	Ends   bool   `json:"ends" doc:"True where no plan is offered them any more: worn as often as their fibre stands, or by a client who is on file no more"`
}

func lotOf(l store.Lot) lotDocument {
	out := lotDocument{
		ID: l.ID, Item: l.Stocked.Item, Name: l.Item.Name, Kind: l.Item.Kind, Lot: l.Lot, Stock: l.Stock, Pieces: l.Pieces(l.Pack),
		Promises: append([]store.Promise{}, l.Promises...), Created: l.Created, WornBy: l.WornBy,
	}
	most := supply.FactsOf(l.Item.Fibre).Rounds
	out.Ends = l.Once || most > 0 && l.Round >= most
	for _, c := range l.Item.Colours {
		if c.Name == l.Colour {
			out.Swatch, out.Tip = c.Swatch, c.Tip
		}
	}
	return out
}

// lotMove is what happened to pieces of a lot.
type lotMove struct {
	Made
	Kind   supply.MoveKind `json:"kind"`
	Packs  int             `json:"packs" doc:"Shut packs"`
	Loose  int             `json:"loose" doc:"Loose pieces"`
	Reason string          `json:"reason,omitempty" maxLength:"200"`
	PlanID string          `json:"planId,omitempty" maxLength:"64" doc:"The plan it was for"`
}

func (m lotMove) draft(by string) store.MoveDraft {
	return store.MoveDraft{ID: m.ID, Kind: m.Kind, Stock: supply.Stock{Packs: m.Packs, Loose: m.Loose}, Reason: m.Reason, PlanID: m.PlanID, By: by}
}

// newLot is a lot with what is in it.
type newLot struct {
	Made
	Item  string     `json:"item" maxLength:"64" doc:"Id of its item"`
	Lot   supply.Lot `json:"lot"`
	Packs int        `json:"packs" doc:"Shut packs"`
	Loose int        `json:"loose" doc:"Loose pieces"`
}

// orderDocument is an order with one supplier.
type orderDocument struct {
	ID       string               `json:"id"`
	Supplier string               `json:"supplier" doc:"Key of the supplier; empty for any shop"`
	PlanID   string               `json:"planId,omitempty"`
	Plan     string               `json:"plan,omitempty" doc:"Title of the plan it is for"`
	State    store.PurchaseState  `json:"state" enum:"listed,ordered,arrived"`
	Lines    []store.PurchaseLine `json:"lines"`
	Fee      int64                `json:"feeMinor"`
	Goods    int64                `json:"goodsMinor"`
	Ordered  string               `json:"orderedOn,omitempty"`
	Due      string               `json:"dueOn,omitempty"`
	Arrived  string               `json:"arrivedOn,omitempty"`
}

func orderOf(p store.Purchase) orderDocument {
	out := orderDocument{p.ID, p.Supplier, p.PlanID, p.Plan, p.State, p.Lines, p.Fee, 0, p.Ordered, p.Due, p.Arrived}
	for _, l := range p.Lines {
		out.Goods += int64(l.Count) * l.Offer.Price
	}
	return out
}

func ordersAnswer(ctx context.Context, list []store.Purchase, err error) (*struct{ Body []orderDocument }, error) {
	if err != nil {
		return nil, problem(ctx, err, "body.")
	}
	out := make([]orderDocument, len(list))
	for i, p := range list {
		out[i] = orderOf(p)
	}
	return &struct{ Body []orderDocument }{out}, nil
}

func orderAnswer(ctx context.Context, p store.Purchase, err error) (*struct{ Body orderDocument }, error) {
	if err != nil {
		return nil, problem(ctx, err, "body.")
	}
	return &struct{ Body orderDocument }{orderOf(p)}, nil
}

func (s *server) supplyOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "listItems", Method: http.MethodGet, Path: "/api/v1/items",
		Summary: "A page of the items of the supplies, by name", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		Search   string      `query:"search" maxLength:"120" doc:"Words of its name, product or colours"`
		Kind     supply.Kind `query:"kind" maxLength:"40" doc:"Only those of this kind"`
		Archived bool        `query:"archived" doc:"List the archived ones instead"`
		PageWish
	}) (*struct{ Body pageOf[itemDocument] }, error) {
		page, err := in.page()
		if err != nil {
			return nil, err
		}
		list, err := s.studio.Store.Items(ctx, store.ItemWish{Search: in.Search, Kind: in.Kind, Archived: in.Archived}, page)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return cut(list, in.PageWish, itemOf), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "createItem", Method: http.MethodPost, Path: "/api/v1/items",
		Summary: "Add an item to the supplies", Metadata: rights(studio.Crew), DefaultStatus: http.StatusCreated, MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct {
		Body struct {
			Made
			ItemDraft
		}
	}) (*itemOutput, error) {
		i, err := s.studio.CreateItem(ctx, in.Body.ID, store.ItemDraft(in.Body.ItemDraft))
		return itemAnswer(ctx, i, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "readItem", Method: http.MethodGet, Path: "/api/v1/items/{id}",
		Summary: "Read an item", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *ItemPath) (*itemOutput, error) {
		i, err := s.studio.Store.Item(ctx, in.ID)
		return itemAnswer(ctx, i, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "saveItem", Method: http.MethodPut, Path: "/api/v1/items/{id}",
		Summary: "Save an item over the version it started from", Metadata: rights(studio.Crew), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct {
		ItemPath
		Conditional
		Body ItemDraft
	}) (*itemOutput, error) {
		version, err := in.version()
		if err != nil {
			return nil, err
		}
		i, err := s.studio.SaveItem(ctx, in.ID, version, store.ItemDraft(in.Body))
		return itemAnswer(ctx, i, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "deleteItem", Method: http.MethodDelete, Path: "/api/v1/items/{id}",
		Summary: "Delete an item; one that lots, plans or orders name is archived instead", Metadata: rights(studio.Crew),
	}, func(ctx context.Context, in *ItemPath) (*struct{ Body itemGone }, error) {
		archived, err := s.studio.Store.DeleteItem(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &struct{ Body itemGone }{itemGone{archived}}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "weigh", Method: http.MethodPost, Path: "/api/v1/scale",
		Summary: "What the scale shows with packs of an item on it", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		Body struct {
			Item  supply.Item `json:"item"`
			Packs int         `json:"packs" minimum:"1" maximum:"20"`
		}
	}) (*struct{ Body weighing }, error) {
		readings, bag, err := s.studio.Weigh(ctx, in.Body.Item, in.Body.Packs)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body weighing }{weighing{readings, bag}}, nil
	})
	s.stashOperations(api)
	s.supplierOperations(api)
	s.orderOperations(api)
}

// itemGone says what became of an item that was to be deleted.
type itemGone struct {
	Archived bool `json:"archived" doc:"True where it was archived instead"`
}

// weighing is what the scale shows, one reading after the other; at the last it is at rest.
type weighing struct {
	Readings []float64 `json:"readingsG"`
	Bag      float64   `json:"bagG" doc:"Mass of the bag of one pack, to be taken off"`
}

func (s *server) stashOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "listStash", Method: http.MethodGet, Path: "/api/v1/stash",
		Summary: "A page of the lots of the stash, by the names of their items", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		Search string `query:"search" maxLength:"120" doc:"Words of the item's name, product or colours"`
		Item   string `query:"item" maxLength:"64" doc:"Only those of this item"`
		Empty  bool   `query:"empty" doc:"Those of which nothing is left too"`
		PageWish
	}) (*struct{ Body pageOf[lotDocument] }, error) {
		page, err := in.page()
		if err != nil {
			return nil, err
		}
		list, err := s.studio.Store.Stash(ctx, store.StashWish{Search: in.Search, Item: in.Item, Empty: in.Empty}, page)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return cut(list, in.PageWish, lotOf), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "addLot", Method: http.MethodPost, Path: "/api/v1/stash",
		Summary: "Put a lot into the stash", Metadata: rights(studio.All), DefaultStatus: http.StatusCreated,
	}, func(ctx context.Context, in *struct{ Body newLot }) (*struct{ Body lotDocument }, error) {
		kind := supply.Bought
		if in.Body.Lot.Round > 0 {
			kind = supply.Saved
		}
		first := store.MoveDraft{ID: in.Body.ID, Kind: kind, Stock: supply.Stock{Packs: in.Body.Packs, Loose: in.Body.Loose}, By: person(ctx).Name}
		l, err := s.studio.AddLot(ctx, store.LotDraft{ID: in.Body.ID, Item: in.Body.Item, Lot: in.Body.Lot}, first)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body lotDocument }{lotOf(l)}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "moveStash", Method: http.MethodPost, Path: "/api/v1/stash/{id}/moves",
		Summary: "Say what happened to pieces of a lot", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		LotPath
		Body lotMove
	}) (*struct{ Body lotDocument }, error) {
		l, err := s.studio.Store.Move(ctx, in.LotPath.ID, in.Body.draft(person(ctx).Name))
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body lotDocument }{lotOf(l)}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "stashMoves", Method: http.MethodGet, Path: "/api/v1/stash/{id}/moves",
		Summary: "What happened to a lot, newest first", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *LotPath) (*struct{ Body []store.StashMove }, error) {
		moves, err := s.studio.Store.StashMoves(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &struct{ Body []store.StashMove }{append([]store.StashMove{}, moves...)}, nil
	})
}

func (s *server) orderOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "listOrders", Method: http.MethodGet, Path: "/api/v1/orders",
		Summary: "The orders, those under way first", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		Plan string `query:"plan" maxLength:"64" doc:"Only those for this plan"`
	}) (*struct{ Body []orderDocument }, error) {
		list, err := s.studio.Store.Purchases(ctx, in.Plan)
		return ordersAnswer(ctx, list, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "placeOrder", Method: http.MethodPost, Path: "/api/v1/orders/{id}/place",
		Summary: "Say that an order was placed", Metadata: rights(studio.Crew),
	}, func(ctx context.Context, in *struct {
		OrderPath
		Body struct {
			On string `json:"on" maxLength:"10" doc:"The day, such as 2026-12-04"`
		}
	}) (*struct{ Body orderDocument }, error) {
		p, err := s.studio.PlaceOrder(ctx, in.ID, in.Body.On)
		return orderAnswer(ctx, p, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "arriveOrder", Method: http.MethodPost, Path: "/api/v1/orders/{id}/arrival",
		Summary: "Say what came of an order; it goes into the stash", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		OrderPath
		Body struct {
			On    string       `json:"on" maxLength:"10" doc:"The day, such as 2026-12-04"`
			Lines []store.Came `json:"lines" maxItems:"60" doc:"What came of each line, in their order"`
		}
	}) (*struct{ Body orderDocument }, error) {
		p, err := s.studio.Arrive(ctx, in.ID, in.Body.On, person(ctx).Name, in.Body.Lines)
		return orderAnswer(ctx, p, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "dropOrder", Method: http.MethodDelete, Path: "/api/v1/orders/{id}",
		Summary: "Take an order off the list", Metadata: rights(studio.Crew), DefaultStatus: http.StatusNoContent,
	}, func(ctx context.Context, in *OrderPath) (*struct{}, error) {
		if err := s.studio.Store.DropPurchase(ctx, in.ID); err != nil {
			return nil, problem(ctx, err, "")
		}
		return nil, nil
	})
}

// shoppingOperations are about what a plan needs, buys and prepares.
func (s *server) shoppingOperations(api huma.API) {
	answer := func(ctx context.Context, shop studio.Shopping, err error) (*struct{ Body studio.Shopping }, error) {
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body studio.Shopping }{shop}, nil
	}
	huma.Register(api, huma.Operation{
		OperationID: "shopping", Method: http.MethodPost, Path: "/api/v1/shopping",
		Summary: "What a plan needs of hair, what the stash gives, what is bought and how it is prepared", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct {
		Plan string `query:"plan" maxLength:"64" doc:"Id of the plan, where it is stored"`
		Body plan.Input
	}) (*struct{ Body studio.Shopping }, error) {
		shop, err := s.studio.Shop(ctx, in.Plan, in.Body)
		return answer(ctx, shop, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "alternatives", Method: http.MethodPost, Path: "/api/v1/alternatives",
		Summary: "The plan beside itself with other pieces of the supplies", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct {
		Body struct {
			Plan   string           `json:"plan,omitempty" maxLength:"64" doc:"Id of the plan, where it is stored"`
			Input  plan.Input       `json:"input"`
			Others []studio.Instead `json:"others" maxItems:"4"`
		}
	}) (*struct{ Body []studio.Alternative }, error) {
		list, err := s.studio.Alternatives(ctx, in.Body.Plan, in.Body.Input, in.Body.Others)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body []studio.Alternative }{list}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "holdStash", Method: http.MethodPut, Path: "/api/v1/plans/{id}/hold",
		Summary: "Have a plan hold its share of the stash, or free it", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		PlanPath
		Body struct {
			Holds bool `json:"holds"`
		}
	}) (*struct{ Body studio.Shopping }, error) {
		shop, err := s.studio.Hold(ctx, in.ID, in.Body.Holds)
		return answer(ctx, shop, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "orderForPlan", Method: http.MethodPost, Path: "/api/v1/plans/{id}/orders",
		Summary: "Put what a plan has to buy on the order list", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *PlanPath) (*struct{ Body []orderDocument }, error) {
		list, err := s.studio.ListOrders(ctx, in.ID)
		return ordersAnswer(ctx, list, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "prepare", Method: http.MethodPut, Path: "/api/v1/plans/{id}/prepared/{task}",
		Summary: "Tick off of a plan's preparation", Metadata: rights(studio.All), DefaultStatus: http.StatusNoContent,
	}, func(ctx context.Context, in *struct {
		PlanPath
		Task string `path:"task" maxLength:"64"`
		Body struct {
			Done int `json:"done" minimum:"0" maximum:"10000" doc:"How many are done"`
		}
	}) (*struct{}, error) {
		if err := s.studio.Prepare(ctx, in.ID, in.Task, in.Body.Done, person(ctx).Name); err != nil {
			return nil, problem(ctx, err, "")
		}
		return nil, nil
	})
}
