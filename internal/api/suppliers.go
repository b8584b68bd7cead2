package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/supply"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// SupplierDraft is what a person saves of a supplier.
type SupplierDraft struct {
	Name     string `json:"name" maxLength:"60"`
	Note     string `json:"note,omitempty" maxLength:"400" doc:"How to order there, whom to ask"`
	Fee      int64  `json:"feeMinor" doc:"Delivery of one order, minor units"`
	Days     int    `json:"days" doc:"Days from order to door"`
	Archived bool   `json:"archived" doc:"True for one that is ordered from no more"`
}

func (d SupplierDraft) seller(key string) supply.Seller {
	return supply.Seller{Key: key, Name: d.Name, Note: d.Note, Fee: d.Fee, Days: d.Days, Archived: d.Archived}
}

// SupplierPath names a supplier.
type SupplierPath struct {
	ID string `path:"id" maxLength:"64" doc:"Its key"`
}

type supplierOutput struct {
	ETag string `header:"ETag"`
	Body studio.Supplier
}

func supplierAnswer(ctx context.Context, p store.Supplier, err error) (*supplierOutput, error) {
	if err != nil {
		return nil, problem(ctx, err, "body.")
	}
	return &supplierOutput{etag(p.Version), studio.Supplier{Seller: p.Seller, Version: p.Version}}, nil
}

// supplierOperations are about those whom the studio orders from.
func (s *server) supplierOperations(api huma.API) {
	list := func(ctx context.Context) (*struct{ Body []studio.Supplier }, error) {
		out, err := s.studio.Suppliers(ctx)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &struct{ Body []studio.Supplier }{out}, nil
	}
	huma.Register(api, huma.Operation{
		OperationID: "listSuppliers", Method: http.MethodGet, Path: "/api/v1/suppliers",
		Summary: "Whom the studio orders from, and how their packs came", Metadata: rights(studio.All),
	}, func(ctx context.Context, _ *struct{}) (*struct{ Body []studio.Supplier }, error) { return list(ctx) })

	huma.Register(api, huma.Operation{
		OperationID: "addSupplier", Method: http.MethodPost, Path: "/api/v1/suppliers",
		Summary: "Enter a supplier", Metadata: rights(studio.Crew), DefaultStatus: http.StatusCreated,
	}, func(ctx context.Context, in *struct {
		Body struct {
			Made
			SupplierDraft
		}
	}) (*supplierOutput, error) {
		p, err := s.studio.AddSupplier(ctx, in.Body.seller(in.Body.ID))
		return supplierAnswer(ctx, p, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "practiseSuppliers", Method: http.MethodPost, Path: "/api/v1/suppliers/practice",
		Summary: "Take on the simulated suppliers, whose lists and prices can be asked for", Metadata: rights(studio.Crew),
	}, func(ctx context.Context, _ *struct{}) (*struct{ Body []studio.Supplier }, error) {
		if err := s.studio.Practise(ctx); err != nil {
			return nil, problem(ctx, err, "")
		}
		return list(ctx)
	})

	huma.Register(api, huma.Operation{
		OperationID: "saveSupplier", Method: http.MethodPut, Path: "/api/v1/suppliers/{id}",
		Summary: "Save a supplier over the version it was read at", Metadata: rights(studio.Crew),
	}, func(ctx context.Context, in *struct {
		SupplierPath
		Conditional
		Body SupplierDraft
	}) (*supplierOutput, error) {
		version, err := in.version()
		if err != nil {
			return nil, err
		}
		p, err := s.studio.SaveSupplier(ctx, version, in.Body.seller(in.ID))
		return supplierAnswer(ctx, p, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "deleteSupplier", Method: http.MethodDelete, Path: "/api/v1/suppliers/{id}",
		Summary: "Delete a supplier; one that prices, lots, plans or orders name is archived instead", Metadata: rights(studio.Crew),
	}, func(ctx context.Context, in *SupplierPath) (*struct{ Body itemGone }, error) {
		archived, err := s.studio.Store.DeleteSupplier(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &struct{ Body itemGone }{itemGone{archived}}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "supplierList", Method: http.MethodGet, Path: "/api/v1/suppliers/{id}/list",
		Summary: "What a supplier whose list can be asked for has today", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *SupplierPath) (*struct{ Body []supply.Listed }, error) {
		out, err := s.studio.ListOf(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		for i := range out {
			out[i].Item = listedItem(out[i].Item)
		}
		return &struct{ Body []supply.Listed }{out}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "refreshPrices", Method: http.MethodPost, Path: "/api/v1/suppliers/prices",
		Summary: "Ask those whose lists can be asked for today's prices, and say what changed", Metadata: rights(studio.Crew),
	}, func(ctx context.Context, in *struct {
		Body struct {
			Save bool `json:"save" doc:"Write them into the items too"`
		}
	}) (*struct{ Body []studio.PriceChange }, error) {
		changes, err := s.studio.RefreshPrices(ctx, in.Body.Save)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &struct{ Body []studio.PriceChange }{changes}, nil
	})
}
