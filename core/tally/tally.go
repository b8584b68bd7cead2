// Package tally sums a solved plan up: the parted head, who gets what, what it takes of hair and
// hours, and what should be looked at. It is what every change of a plan asks for first.
package tally

import (
	"context"

	"kladotex/core/advice"
	"kladotex/core/attach"
	"kladotex/core/hours"
	"kladotex/core/judge"
	"kladotex/core/need"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/scalp"
)

// Result is a plan with its layout and what it comes to.
type Result struct {
	Tally  Tally          `json:"tally"`
	Head   Head           `json:"head"`
	Layout parting.Layout `json:"layout"`
	// Resolution is who gets what.
	plan.Resolution
	Need  need.Need           `json:"need"`
	Work  []attach.Attachment `json:"work"`
	Hours pace.Hours          `json:"hours"`
	// Design is what each side of a front design takes; none without one.
	Design  []hours.DesignSide `json:"design"`
	Notices []advice.Notice    `json:"notices"`
}

// Tally is the plan in a few numbers.
type Tally struct {
	Sections int        `json:"sections"`
	Rows     int        `json:"rows"`
	Pieces   int        `json:"pieces" doc:"Pieces in use, without spares"`
	Spares   int        `json:"spares"`
	Packs    int        `json:"packs" doc:"Packs to buy, wrapping hair included"`
	Leftover int        `json:"leftover" doc:"Pieces in those packs beyond those in use and spares"`
	Cost     int64      `json:"costMinor"`
	Minutes  float64    `json:"minutes" doc:"Likely time"`
	Range    pace.Range `json:"range" doc:"Minutes, with those it will hardly go below and above"`
	Weight   float64    `json:"weightG" doc:"Mass of the hair hung, dry, g"`
	Wound    float64    `json:"woundG" doc:"Of it wrapping hair, g"`
	Notices  int        `json:"notices" doc:"Notices that should be looked at"`
}

// Head is the fitted head as a drawing needs it.
type Head struct {
	// Axes are the semi-axes along x (face), y (left) and z (up), mm.
	Axes scalp.Point `json:"axesMm"`
	// Landmarks of the left hairline; the right is its mirror image.
	Landmarks Landmarks `json:"landmarks"`
	// Middle is the length of the middle line from the front hairline to that at the
	// nape, ToCrown how far along it the crown lies, mm.
	Middle  float64 `json:"middleMm"`
	ToCrown float64 `json:"toCrownMm"`
}

// Landmarks are hairline points that a drawing takes its bearings from, mm.
type Landmarks struct {
	Front        scalp.Point `json:"front"`
	TempleCorner scalp.Point `json:"templeCorner"`
	Temple       scalp.Point `json:"temple"`
	Sideburn     scalp.Point `json:"sideburn"`
	EarTop       scalp.Point `json:"earTop"`
	Behind       scalp.Point `json:"behindEar"`
	NapeCorner   scalp.Point `json:"napeCorner"`
	Nape         scalp.Point `json:"nape"`
}

// headOf is a fitted head for a drawing.
func headOf(h scalp.Head) Head {
	at := func(l scalp.Landmark) scalp.Point { return h.Point(h.Landmark(l)) }
	front, nape := h.Landmark(scalp.FrontCentre), h.Landmark(scalp.NapeCentre)
	toCrown := h.Arc(front, h.Crown())
	return Head{
		Axes: scalp.Point{h.A, h.B, h.C}, Middle: toCrown + h.Arc(h.Crown(), nape), ToCrown: toCrown,
		Landmarks: Landmarks{
			Front: at(scalp.FrontCentre), TempleCorner: at(scalp.TempleCorner), Temple: at(scalp.Temple), Sideburn: at(scalp.Sideburn),
			EarTop: at(scalp.EarTop), Behind: at(scalp.BehindEar), NapeCorner: at(scalp.NapeCorner), Nape: at(scalp.NapeCentre),
		},
	}
}

// Compute solves a plan and sums it up. The error is that of [plan.Solve].
func Compute(ctx context.Context, in plan.Input) (Result, error) {
	sol, err := plan.Solve(ctx, in)
	if err != nil {
		return Result{}, err
	}
	return Of(sol)
}

// Of sums a solved plan up.
func Of(sol *plan.Solved) (Result, error) {
	n, err := need.Of(sol)
	if err != nil {
		return Result{}, err
	}
	res := Result{
		Head: headOf(sol.Head), Layout: sol.Layout, Resolution: sol.Resolution, Need: n, Work: attach.Of(sol), Hours: hours.Of(sol), Design: hours.Design(sol),
	}
	t := totals(n)
	t.Sections, t.Rows = len(sol.Layout.Sections), len(sol.Layout.Rows)
	t.Range = res.Hours.Total
	t.Minutes, t.Weight = t.Range.Likely, sol.Weight
	for i := range sol.Places {
		t.Wound += sol.Wound(i)
	}
	res.Notices = judge.Notices(sol, t.Pieces)
	for _, n := range res.Notices {
		if n.Severity != advice.Hint {
			t.Notices++
		}
	}
	res.Tally = t
	return res, nil
}

// totals are pieces on the head, spares, packs, those left over and the cost of all.
func totals(n need.Need) (t Tally) {
	for _, p := range n.Pieces {
		t.Pieces += p.OnHead + p.Fill
		t.Spares += p.Spares
		t.Packs += p.Order.Packs
		t.Leftover += p.Order.Leftover
		t.Cost += p.Order.Cost
	}
	for _, x := range n.Things {
		t.Cost += x.Order.Cost
	}
	for _, x := range n.Products {
		t.Cost += x.Cost
	}
	for _, w := range n.Wraps {
		t.Packs += w.Order.Packs
		t.Cost += w.Order.Cost
	}
	return t
}
