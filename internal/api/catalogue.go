package api

import (
	"context"
	"net/http"

	"github.com/bojanz/currency"
	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/advice"
	"kladotex/core/hair"
	"kladotex/core/house"
	"kladotex/core/message"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/plan"
	"kladotex/core/scalp"
	"kladotex/core/supply"
	"kladotex/internal/studio"
)

// catalogue is everything a plan is chosen from.
type catalogue struct {
	Default plan.Input      `json:"default" doc:"The plan a newcomer starts from"`
	Heads   []scalp.Preset  `json:"heads"`
	Methods []method.Method `json:"methods"`
	// Ways are the methods as they usually are, to be added to a plan.
	Ways   []plan.Way       `json:"ways"`
	Forms  []hair.FormFacts `json:"forms"`
	Pieces []hair.Piece     `json:"pieces" doc:"The supplier's price list"`
	// Kinds are those of the items of the supplies, Moves what happens to a lot.
	Kinds  []supply.KindFacts  `json:"kinds"`
	Moves  []supply.MoveFacts  `json:"moves"`
	Fibres []supply.FibreFacts `json:"fibres"`
	Sizes  sizeLimits          `json:"sizes"`
	// Schools are the questions on which practitioners disagree.
	Schools []house.School `json:"schools"`
	// Notices are what holds for notices by code, the gravest of a subject first.
	Notices []advice.Fact `json:"notices"`
	// Structures are what each structure takes.
	Structures []parting.Rule `json:"structures"`
	// Currencies are the ISO 4217 codes a studio can choose from.
	Currencies []string `json:"currencies"`
	// Messages are the sorts of messages, MessageNames what may stand in braces in them.
	Messages     []message.Sort    `json:"messages"`
	MessageNames map[string]string `json:"messageNames" doc:"What may stand in braces, with what it stands for"`
	Bounds       bounds            `json:"bounds"`
	// Turn is how far one turn of a plait goes.
	Turn float64 `json:"turnMm" doc:"How far one turn of a plait goes along it, mm"`
}

// bounds are the most entries a plan's lists can have.
type bounds struct {
	Pieces int `json:"pieces"`
	Ways   int `json:"ways"`
	Uses   int `json:"uses"`
	Count  int `json:"count" doc:"Pieces at one place"`
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
		Summary: "Head sizes, methods and pieces to choose from", Metadata: rights(studio.All),
	}, func(context.Context, *struct{}) (*catalogueOutput, error) {
		c := catalogue{
			Messages: message.Sorts, MessageNames: message.Fields,
			Default: plan.Default(), Heads: scalp.Presets(), Pieces: s.studio.Samples(), Kinds: supply.Kinds, Moves: supply.Moves, Fibres: supply.Fibres,
			Sizes:      sizeLimits{parting.MinSize, parting.MaxSize, parting.NamedSizes()},
			Structures: parting.Rules(), Methods: method.Catalogue, Forms: hair.Forms, Schools: house.Schools, Notices: advice.Facts,
			Currencies: currency.GetCurrencyCodes(), Turn: plait.Turn, Bounds: bounds{plan.MaxPieces, plan.MaxWays, plan.MaxUses, plan.MaxCount},
		}
		for _, m := range method.Catalogue {
			c.Ways = append(c.Ways, plan.NewWay(string(m.ID), m.ID))
		}
		return &catalogueOutput{c}, nil
	})
}
