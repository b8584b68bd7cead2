package api

import (
	"context"
	"net/http"

	"github.com/bojanz/currency"
	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/house"
	"kladotex/core/quote"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// houseDocument is a studio's house rules.
type houseDocument struct {
	Version int         `json:"version" doc:"Counts saves; send it back as If-Match"`
	Rules   house.Rules `json:"rules"`
	// Asks are the terms of the rules, the usual where none are set.
	Asks quote.Terms `json:"asks" readOnly:"true" doc:"What the studio asks for its work, the usual where nothing is set"`
	// Digits is the exponent of the currency by ISO 4217: pages must not take it from elsewhere.
	Digits int `json:"currencyDigits" readOnly:"true" doc:"Decimals of the currency by ISO 4217: ten to that power of minor units make a whole one"`
}

type houseOutput struct {
	ETag string `header:"ETag"`
	Body houseDocument
}

func houseOf(h store.House) *houseOutput {
	digits, _ := currency.GetDigits(h.Rules.Currency)
	return &houseOutput{etag(h.Version), houseDocument{h.Version, h.Rules, h.Rules.Asks(), int(digits)}}
}

func (s *server) houseOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "readHouse", Method: http.MethodGet, Path: "/api/v1/house",
		Summary: "The house rules", Metadata: rights(studio.All),
	}, func(ctx context.Context, _ *struct{}) (*houseOutput, error) {
		h, err := s.studio.Store.House(ctx)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return houseOf(h), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "saveHouse", Method: http.MethodPut, Path: "/api/v1/house",
		Summary: "Save the house rules over the version they were read at", Metadata: rights(studio.Owners),
	}, func(ctx context.Context, in *struct {
		Conditional
		Body house.Rules
	}) (*houseOutput, error) {
		version, err := in.version()
		if err != nil {
			return nil, err
		}
		h, err := s.studio.SaveHouse(ctx, version, in.Body)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return houseOf(h), nil
	})
}
