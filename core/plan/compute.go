package plan

import (
	"context"
	"fmt"
	"math"

	"kladotex/core/attach"
	"kladotex/core/fit"
	"kladotex/core/invalid"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/pieces"
	"kladotex/core/scalp"
)

// Result is everything computed from an [Input].
type Result struct {
	Tally  Tally          `json:"tally"`
	Head   Head           `json:"head"`
	Layout parting.Layout `json:"layout"`
	Hair   HairNeed       `json:"hair"`
	Method attach.Method  `json:"method"`
	Work   attach.Work    `json:"work" doc:"What one typical section costs"`
	// Hooking is how pieces go on tracks, a net or linked plaits, where there are any.
	Hooking *attach.Hooking `json:"hooking,omitempty"`
	Hours   pace.Hours      `json:"hours"`
	// Warnings are those of the layout and of the method together.
	Warnings []parting.Warning `json:"warnings"`
}

// Tally is the plan in seven numbers.
type Tally struct {
	Sections int     `json:"sections"`
	Pieces   int     `json:"pieces" doc:"Pieces in use, without spares"`
	Packs    int     `json:"packs" doc:"Packs to buy, wrapping hair included"`
	Cost     int64   `json:"costMinor"`
	Minutes  float64 `json:"minutes" doc:"Likely time"`
	Weight   float64 `json:"weightG" doc:"Mass of the hair hung, dry, g"`
	Warnings int     `json:"warnings"`
}

// Head is the fitted head as a drawing needs it.
type Head struct {
	// Axes are the semi-axes along x (face), y (left) and z (up), mm.
	Axes scalp.Point `json:"axesMm"`
	// Landmarks of the left hairline; the right is its mirror image.
	Landmarks Landmarks `json:"landmarks"`
}

// Landmarks are hairline points that a drawing takes its bearings from.
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

// HairNeed is what to buy.
type HairNeed struct {
	Pieces int          `json:"pieces" doc:"On the head"`
	Hooked int          `json:"hooked" doc:"Of them, those hooked on tracks, on a net or on linked plaits"`
	Spares int          `json:"spares"`
	Order  pieces.Order `json:"order"`
	// PlaitLength and PlaitDiameter are those of a typical section, mm.
	PlaitLength   float64 `json:"plaitLengthMm"`
	PlaitDiameter float64 `json:"plaitDiameterMm"`
	// StrandsPerPiece is the wrapping strands one piece takes, and Wrap their
	// order; both only for methods that wrap.
	StrandsPerPiece int           `json:"wrapStrandsPerPiece"`
	Wrap            *pieces.Order `json:"wrap,omitempty"`
}

// MethodConcern is the kind of a warning that speaks against the method; it is
// about no section in particular.
const MethodConcern parting.WarningKind = "method"

// Compute works a plan out. The error is an [invalid.Errors] that names every
// field that can be judged by itself, or the first contradiction between fields; or
// that of ctx when it ends first.
func Compute(ctx context.Context, in Input) (Result, error) {
	return workOut(ctx, in, parting.Lay)
}

// Check is what [Compute] refuses before it lays the head: every field that can be
// judged by itself.
func Check(in Input) error {
	_, err := in.fit()
	return err
}

// fit is the head of an input whose fields are fine by themselves.
func (in Input) fit() (scalp.Head, error) {
	bad := in.check()
	head, err := scalp.FitWith(in.Head, in.Hairline)
	for _, err := range []error{err, invalid.Under(in.Parting.Check(), "parting")} {
		if err := bad.Collect(err); err != nil {
			return scalp.Head{}, err
		}
	}
	return head, bad.Err()
}

// workOut is [Compute] with a head laid by [parting.Lay] or [parting.Attempt].
func workOut(ctx context.Context, in Input, lay func(context.Context, scalp.Head, parting.Settings) (parting.Layout, error)) (Result, error) {
	head, err := in.fit()
	if err != nil {
		return Result{}, err
	}
	layout, err := lay(ctx, head, in.Parting)
	if err != nil {
		return Result{}, invalid.Under(err, "parting")
	}
	method, _ := attach.Lookup(in.Attach.Method) // checked above
	loose, linked, plaited := layout.Plaits()
	plaitLength := in.Hair.Length * pieces.BraidTakeUp
	plaitDiameter := fit.PlaitDiameter(plaited, in.Hair.Density/100, in.Hair.Strand/1000)
	work := method.For(attach.Job{
		PlaitLength: plaitLength, PlaitDiameter: plaitDiameter,
		PieceForm: in.Piece.Form, PieceLength: in.Piece.Length, PieceDiameter: in.Piece.Diameter,
		Pitch: in.Attach.Pitch, Ribbon: in.Wrap.Ribbon, WrapTail: in.Wrap.Tail, TenderScalp: in.Hair.Tender,
	})
	need := HairNeed{PlaitLength: plaitLength, PlaitDiameter: plaitDiameter}
	onPlaits := 0
	for i := range layout.Sections {
		x := &layout.Sections[i]
		n := x.Pieces
		switch {
		case n > 0: // set by hand
		case x.Front:
			n = in.Piece.PerSection.Front
		default:
			n = in.Piece.PerSection.Back
		}
		if x.Linked {
			need.Hooked += n
		} else {
			onPlaits += n
		}
	}
	need.Hooked += layout.Hooks()
	if onPlaits == 0 {
		work.Concerns = []string{} // there is no plait to hide
	}
	need.Pieces = onPlaits + need.Hooked
	need.Spares = in.Spares.Of(need.Pieces)
	need.Order, err = pieces.Buy(need.Pieces+need.Spares, in.Piece.Pack.Yield(), in.Piece.Offers)
	if err != nil {
		return Result{}, fmt.Errorf("ordering the pieces: %w", err)
	}
	weight := float64(need.Pieces) * in.Piece.Mass
	if work.WrapRibbon > 0 && loose > 0 {
		need.StrandsPerPiece = int(math.Ceil(work.WrapRibbon / in.Wrap.StrandLength))
		strands := need.StrandsPerPiece * loose
		wrap, err := pieces.Buy(strands+in.Spares.Of(strands), in.Wrap.Strands, []pieces.Offer{{Packs: 1, Price: in.Wrap.Price}})
		if err != nil {
			return Result{}, fmt.Errorf("ordering the wrapping hair: %w", err)
		}
		need.Wrap = &wrap
		weight += float64(strands) * in.Wrap.PackMass / float64(in.Wrap.Strands)
	}

	res := Result{
		Head: Head{
			Axes: scalp.Point{head.A, head.B, head.C},
			Landmarks: Landmarks{
				Front:        head.Point(head.Landmark(scalp.FrontCentre)),
				TempleCorner: head.Point(head.Landmark(scalp.TempleCorner)),
				Temple:       head.Point(head.Landmark(scalp.Temple)),
				Sideburn:     head.Point(head.Landmark(scalp.Sideburn)),
				EarTop:       head.Point(head.Landmark(scalp.EarTop)),
				Behind:       head.Point(head.Landmark(scalp.BehindEar)),
				NapeCorner:   head.Point(head.Landmark(scalp.NapeCorner)),
				Nape:         head.Point(head.Landmark(scalp.NapeCentre)),
			},
		},
		Layout: layout, Hair: need, Method: method, Work: work,
		Hours: pace.Estimate(pace.Work{
			Sections: loose, Pieces: onPlaits, PlaitLength: plaitLength,
			Linked: linked, Hooked: need.Hooked,
			Tracks: len(layout.Tracks), TrackLength: layout.TrackLength(), Tails: layout.Tails(), Net: len(layout.Nets) > 0,
			Attach: work.Attach, Conceal: work.Conceal, OwnHead: in.OwnHead,
		}),
		Warnings: layout.Warnings,
	}
	if need.Hooked > 0 {
		hooking := attach.Hook(need.Hooked, hang(in, layout))
		res.Hooking = &hooking
	}
	for _, c := range work.Concerns {
		res.Warnings = append(res.Warnings, parting.Warning{Kind: MethodConcern, Message: c, Sections: []string{}})
	}
	res.Tally = Tally{
		Sections: len(layout.Sections), Pieces: need.Pieces, Packs: need.Order.Packs, Cost: need.Order.Cost,
		Minutes: res.Hours.Total.Likely, Weight: weight, Warnings: len(res.Warnings),
	}
	if need.Wrap != nil {
		res.Tally.Packs += need.Wrap.Packs
		res.Tally.Cost += need.Wrap.Cost
	}
	return res, nil
}

// tails are what is done with the loose tails of tracks, before pieces are hooked on.
var tails = map[parting.Tails]string{
	parting.Tucked:   "First tuck each loose tail under the track beside it with the hook.",
	parting.Stitched: "First stitch the loose tails flat with thread, no knot against the scalp.",
	parting.Chained:  "Each tail is braided into the next track: first tuck or stitch the one that is left.",
}

// hang is what pieces are hooked on.
func hang(in Input, l parting.Layout) attach.Hang {
	out := attach.Hang{Ground: attach.OnLinks, Form: in.Piece.Form, Spacing: in.Parting.Base.Spacing, TenderScalp: in.Hair.Tender}
	switch {
	case len(l.Nets) > 0:
		out.Ground = attach.OnNet
	case len(l.Tracks) > 0:
		out.Ground = attach.OnTracks
	}
	switch {
	case l.Tails() == 0:
	case out.Ground == attach.OnLinks:
		out.Tails = "First tuck or stitch the tail at the end of each chain."
	default:
		out.Tails = tails[in.Parting.Base.Tails]
	}
	return out
}
