package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/attach"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/internal/standin"
)

// catalogue is everything a plan is chosen from.
type catalogue struct {
	Default plan.Input      `json:"default" doc:"The plan a newcomer starts from"`
	Heads   []scalp.Preset  `json:"heads"`
	Methods []attach.Method `json:"methods"`
	Pieces  []plan.Piece    `json:"pieces" doc:"The supplier's price list"`
	Sizes   sizeLimits      `json:"sizes"`
	// Structures are what each structure takes.
	Structures []parting.Rule `json:"structures"`
}

// sizeLimits bound a section's width and height.
type sizeLimits struct {
	Min float64 `json:"minMm"`
	Max float64 `json:"maxMm"`
	// Presets are sizes by name and number.
	Presets []parting.NamedSize `json:"presets"`
}

type catalogueOutput struct {
	Body catalogue
}

func (s *server) catalogueOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "catalogue", Method: http.MethodGet, Path: "/api/v1/catalogue",
		Summary: "Head sizes, methods and pieces to choose from",
	}, func(context.Context, *struct{}) (*catalogueOutput, error) {
		c := catalogue{
			Default: plan.Default(), Heads: scalp.Presets(), Pieces: standin.PriceList(),
			Sizes:      sizeLimits{parting.MinSize, parting.MaxSize, parting.NamedSizes()},
			Structures: parting.Rules(),
		}
		for _, id := range attach.IDs {
			m, _ := attach.Lookup(id)
			c.Methods = append(c.Methods, m)
		}
		return &catalogueOutput{c}, nil
	})
}
