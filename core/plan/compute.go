package plan

import (
	"context"

	"kladotex/core/advice"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/scalp"
)

// Result is everything computed from an [Input].
type Result struct {
	Tally  Tally          `json:"tally"`
	Head   Head           `json:"head"`
	Layout parting.Layout `json:"layout"`
	// Resolution is who gets what.
	Resolution
	Need    Need            `json:"need"`
	Work    []Attachment    `json:"work"`
	Hours   pace.Hours      `json:"hours"`
	Notices []advice.Notice `json:"notices"`
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

// worked is a laid head with who gets what, and what that costs at every place.
type worked struct {
	in     Input
	head   scalp.Head
	layout parting.Layout
	res    Resolution
	// methods are those of the plan's ways.
	methods []method.Method
	// chosen are the choices of the plan's ways, every one decided.
	chosen []method.Chosen
	// works are those of the places.
	works []method.Work
	// filled is how many pieces are filled in at places, by index.
	filled map[int]int
	tails  string
}

// layer is [parting.Lay] or [parting.Attempt].
type layer = func(context.Context, scalp.Head, parting.Settings) (parting.Layout, error)

// resolved lays the head and says who gets what.
func (in Input) resolved(ctx context.Context, lay layer) (*worked, error) {
	head, err := in.fit()
	if err != nil {
		return nil, err
	}
	laid := in.Parting
	laid.Base.Spacing, laid.Base.Shown = in.HookSpacing(), in.shownSpacing()
	layout, err := lay(ctx, head, laid)
	if err != nil {
		return nil, invalid.Under(err, "parting")
	}
	w := &worked{in: in, head: head, layout: layout, res: Resolve(in, head, &layout), tails: tailWords(in, &layout)}
	for _, way := range in.Ways {
		m, _ := method.Lookup(way.Method) // checked above
		w.methods, w.chosen = append(w.methods, m), append(w.chosen, m.DecidedOn(in.Child, way.Choices))
	}
	if err := w.checkKept(); err != nil {
		return nil, err
	}
	w.filled = make(map[int]int, len(in.Fill.At))
	for _, d := range in.Fill.At {
		if i := w.nearestPlace(d.On(head)); i >= 0 {
			w.filled[i]++
		}
	}
	return w, nil
}

// workAll works every place.
func (w *worked) workAll() {
	w.works = make([]method.Work, len(w.res.Places))
	for i := range w.res.Places {
		p := &w.res.Places[i]
		w.works[i] = w.methods[p.Way].For(w.job(p))
	}
}

// workOut is [Compute] with a head laid by lay.
func workOut(ctx context.Context, in Input, lay layer) (Result, error) {
	w, err := in.resolved(ctx, lay)
	if err != nil {
		return Result{}, err
	}
	w.workAll()
	need, err := w.need()
	if err != nil {
		return Result{}, err
	}
	res := Result{
		Head: headOf(w.head), Layout: w.layout, Resolution: w.res, Need: need, Work: w.work(), Hours: w.hours(),
	}
	t := need.totals()
	t.Sections, t.Rows = len(w.layout.Sections), len(w.layout.Rows)
	t.Range = res.Hours.Total
	t.Minutes, t.Weight = t.Range.Likely, w.weight()
	res.Notices = w.notices(t)
	for _, n := range res.Notices {
		if n.Severity != advice.Hint {
			t.Notices++
		}
	}
	res.Tally = t
	return res, nil
}
