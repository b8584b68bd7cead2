// Package plantest makes plans for tests, each from the one a newcomer starts with: 6 in of
// hair, soft locs, sections of an inch.
package plantest

import (
	"context"
	"fmt"
	"slices"

	"kladotex/core/hair"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/plan"
)

// Keys of the default plan.
const (
	FirstPiece = "p1"
	FirstWay   = "w1"
	HookWay    = "hook"
)

// T is what a test, a benchmark and a property have in common.
type T interface {
	Errorf(format string, args ...any)
	FailNow()
}

// Solve solves a plan that must work.
func Solve(t T, in plan.Input) *plan.Solved {
	sol, err := plan.Solve(context.Background(), in)
	if err != nil {
		t.Errorf("solving a plan: %v", err)
		t.FailNow()
	}
	return sol
}

// Change makes a situation of a plan.
type Change func(*plan.Input)

// Of is the default plan with changes.
func Of(list ...Change) plan.Input {
	in := plan.Default()
	All(list...)(&in)
	return in
}

// All makes several changes.
func All(list ...Change) Change {
	return func(in *plan.Input) {
		for _, of := range list {
			of(in)
		}
	}
}

// Clients whose head or hair is not the usual one.
var (
	Tender  Change = func(in *plan.Input) { in.Hair.Tender = true }
	Fragile Change = func(in *plan.Input) { in.Hair.Edges = hair.FragileEdges }
	Child   Change = func(in *plan.Input) { in.Child = true }
	Snug    Change = func(in *plan.Input) { in.Plaits.Tension = plait.Snug }
	Turns   Change = func(in *plan.Input) { in.Plaits.Far = plait.Anchor }
	Fine    Change = func(in *plan.Input) { in.Hair.Density, in.Hair.Strand = 90, 50 }
	Thick   Change = func(in *plan.Input) { in.Hair.Density, in.Hair.Strand = 320, 95 }
)

// Size cuts all sections to a width and height, mm.
func Size(mm float64) Change {
	return func(in *plan.Input) {
		for _, w := range []*parting.Wish{&in.Parting.Front, &in.Parting.Back} {
			w.Width, w.Height = mm, mm
		}
	}
}

// Run lays cornrows another way.
func Run(run parting.Run) Change {
	return func(in *plan.Input) { in.Parting.Base.Run = run }
}

// FedIn is a front design of six cornrows a side, braiding hair fed in along them, which go on as
// braids of 24 in.
func FedIn() plan.Input {
	in := plan.Default()
	in.Parting = in.Parting.On(parting.FrontDesign)
	in.Parting.Design.Cornrows = 6
	Feeds(&in)
	return in
}

// Feeds feeds braiding hair of 24 in into the cornrows of a design.
func Feeds(in *plan.Input) {
	in.Parting.Design.Fed = true
	in.Pieces = append(in.Pieces, hair.Piece{
		Key: "braid", Name: "Braiding hair", Form: hair.BraidingHair, Length: 24 * 25.4, Thickness: 8, Mass: 5,
		Pack: hair.Pack{Units: 12, Cuts: 1, Splits: 1}, Offers: []hair.Offer{{Packs: 1, Price: 600}},
	})
	in.Ways = append(in.Ways, plan.NewWay("fed", method.FedIn))
	*in = in.WithUse(plan.Use{Where: plan.Where{Kind: plan.AtEnds}, Piece: "braid", Way: "fed", Count: 1})
}

// Grown is own hair of inches inches all over.
func Grown(inches float64) Change { return haired(inches * 25.4) }

func haired(mm float64) Change {
	return func(in *plan.Input) {
		in.Hair.Front, in.Hair.Sides, in.Hair.Crown, in.Hair.Nape = mm, mm, mm, mm
	}
}

// OwnHair is own hair by density, strand and length.
func OwnHair(density, strand, length float64) Change {
	return func(in *plan.Input) {
		in.Hair.Density, in.Hair.Strand = density, strand
		haired(length)(in)
	}
}

// Hung are pieces of a form in hand, so long and thick.
func Hung(form hair.Form, inches, thick float64) Change {
	return func(in *plan.Input) {
		in.Pieces[0].Form, in.Pieces[0].Length, in.Pieces[0].Thickness = form, inches*25.4, thick
	}
}

// Piece are pieces by length and thickness, mm, and mass, g.
func Piece(length, thick, mass float64) Change {
	return func(in *plan.Input) {
		p := &in.Pieces[0]
		p.Length, p.Thickness, p.Mass = length, thick, mass
	}
}

// By hangs a form of piece everywhere by a method.
func By(id method.ID, form hair.Form) Change {
	return func(in *plan.Input) {
		in.Ways[0] = plan.NewWay(FirstWay, id)
		in.Pieces[0].Form = form
	}
}

// Wished is what is wanted of the install.
func Wished(of method.Wishes) Change { return func(in *plan.Input) { in.Wishes = &of } }

// On is a structure with a base.
func On(structure parting.Structure, base parting.BaseKind) Change {
	return func(in *plan.Input) {
		in.Parting = in.Parting.On(structure)
		in.Parting.Base.Kind = base
	}
}

// Carded cuts all sections of a plan to a width and height, mm.
func Carded(in plan.Input, mm float64) plan.Input {
	Size(mm)(&in)
	return in
}

// Haired gives own hair of a plan one length, mm.
func Haired(in plan.Input, mm float64) plan.Input {
	haired(mm)(&in)
	return in
}

// WornBy hangs a form of piece everywhere by a method, on a structure.
func WornBy(id method.ID, form hair.Form, structure parting.Structure) plan.Input {
	in := Of(By(id, form))
	if structure != parting.AllIndividuals {
		in.Parting = in.Parting.On(structure)
	}
	return in
}

// AttachBy makes a method the one everything gets.
func AttachBy(in plan.Input, id method.ID) plan.Input {
	in.Ways = slices.Clone(in.Ways)
	in.Ways[0] = plan.NewWay(FirstWay, id)
	return in
}

// Behind gives those behind count pieces each.
func Behind(count int) plan.Use {
	return plan.Use{Where: plan.Where{Kind: plan.InBack}, Count: count}
}

// Many are n pieces, each with a key of its own.
func Many(n int) (out []hair.Piece) {
	for i := range n {
		p := plan.Default().Pieces[0]
		p.Key = fmt.Sprintf("more%d", i)
		out = append(out, p)
	}
	return out
}

// InTwoColours is the default plan with a second piece, two to one.
func InTwoColours() plan.Input {
	in := plan.Default()
	light := in.Pieces[0]
	light.Key, light.Colour = "p2", "Honey"
	in.Pieces = append(in.Pieces, light)
	in.Uses[0].Piece = ""
	in.Uses[0].Mix = []plan.Share{{Piece: FirstPiece, Parts: 2}, {Piece: "p2", Parts: 1}}
	return in
}

// WithPiece changes the piece that everything gets.
func WithPiece(in plan.Input, change func(*hair.Piece)) plan.Input {
	in.Pieces = slices.Clone(in.Pieces)
	change(&in.Pieces[0])
	return in
}

// WithHand is the plan with one who works, to whom some methods are new.
func WithHand(in plan.Input, hand pace.Hand, fresh ...string) plan.Input {
	in.Day = &plan.Day{Hands: []plan.Hand{{Key: "a", Name: "A", Hand: hand, Does: plan.DoesBoth, New: fresh}}}
	return in
}
