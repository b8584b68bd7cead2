package api

import (
	"reflect"
	"sync"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/advice"
	"kladotex/core/fall"
	"kladotex/core/hair"
	"kladotex/core/house"
	"kladotex/core/judge"
	"kladotex/core/message"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/plan"
	"kladotex/core/quote"
	"kladotex/core/supply"
	"kladotex/core/workorder"
	"kladotex/internal/sheet"
	"kladotex/internal/store"
)

// enumerate says which values each type with a fixed set of them has, as the package has them that
// owns the type. A field that takes fewer says so in its own tag.
func enumerate(r huma.Registry) {
	oneOf(r, advice.Codes())
	oneOf(r, advice.Severities)
	oneOf(r, advice.Subjects)
	oneOf(r, fall.Shapes)
	oneOf(r, fall.Styles)
	oneOf(r, hair.EdgeStates)
	oneOf(r, hair.FormNames())
	oneOf(r, hair.Textures)
	oneOf(r, judge.LoadWords)
	oneOf(r, message.Kinds())
	oneOf(r, house.Touched)
	oneOf(r, method.Families)
	oneOf(r, method.Grounds)
	oneOf(r, method.Hands)
	oneOf(r, method.Hidings)
	oneOf(r, method.IDs())
	oneOf(r, method.Verdicts)
	oneOf(r, method.Waters)
	oneOf(r, pace.Hands)
	oneOf(r, pace.Kinds())
	oneOf(r, parting.BaseKinds)
	oneOf(r, parting.EditKinds)
	oneOf(r, parting.PartKinds)
	oneOf(r, parting.Patterns)
	oneOf(r, parting.Runs)
	oneOf(r, parting.DesignSides)
	oneOf(r, parting.Structures)
	oneOf(r, parting.TailEnds)
	oneOf(r, parting.BaseParts)
	oneOf(r, plait.Directions)
	oneOf(r, plait.Fars)
	oneOf(r, plait.Tensions)
	oneOf(r, plan.Doings)
	oneOf(r, plan.WhereKinds())
	oneOf(r, quote.States)
	oneOf(r, sheet.Parts)
	oneOf(r, sheet.Units)
	oneOf(r, store.Roles)
	oneOf(r, supply.Conditions)
	oneOf(r, supply.FibreNames())
	oneOf(r, supply.KindNames())
	oneOf(r, supply.MoveKinds())
	oneOf(r, workorder.Groups)
	oneOf(r, workorder.Sides)
}

// enumerated stands for a type in the description of the interface; values are kept by type.
type enumerated[T ~string] string

// values are the lists of strings, by their types.
var values sync.Map

// Schema implements [huma.SchemaProvider].
func (enumerated[T]) Schema(huma.Registry) *huma.Schema {
	list, _ := values.Load(reflect.TypeFor[T]())
	return &huma.Schema{Type: huma.TypeString, Enum: list.([]any)}
}

// oneOf makes a type one of some values wherever it stands.
func oneOf[T ~string](r huma.Registry, all []T) {
	list := make([]any, len(all))
	for i, v := range all {
		list[i] = string(v)
	}
	values.Store(reflect.TypeFor[T](), list)
	r.RegisterTypeAlias(reflect.TypeFor[T](), reflect.TypeFor[enumerated[T]]())
}
