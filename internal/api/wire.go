package api

import (
	"math"

	"kladotex/core/advice"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/scalp"
)

// A preview travels on every movement of a slider: what is drawn is written as columns
// of whole numbers, which are written and read several times as fast as objects of
// floats, and take a third of the room.

// flat is a line or an outline on the scalp: x, y, z of its points one after the other,
// in whole tenths of a millimetre, each point after the first as the step from the one
// before it.
type flat []int

// tenths is a length in whole tenths of a millimetre, hundredths a share in whole
// hundredths.
func tenths(mm float64) int        { return int(math.Round(10 * mm)) }
func hundredths(share float64) int { return int(math.Round(100 * share)) }

func flatOf(line scalp.Line) flat {
	out := make(flat, 0, 3*len(line))
	return out.with(line)
}

// with appends a line, which starts from nothing.
func (f flat) with(line scalp.Line) flat {
	var last [3]int
	for _, p := range line {
		for i, v := range p {
			n := tenths(v)
			f = append(f, n-last[i])
			last[i] = n
		}
	}
	return f
}

// flatLayout is a parted head as columns: entry i of each is about section i. Lengths are
// tenths of a millimetre, areas mm², shares hundredths.
type flatLayout struct {
	IDs   []string `json:"ids"`
	Zones []string `json:"zoneOf" doc:"Zone of each section"`
	Rows  []int    `json:"rowOf"`
	Index []int    `json:"indexOf"`
	// Flags add up what is true: 1 front, 2 linked, 4 seen, 8 locked, 16 edited.
	Flags []int `json:"flags"`
	// Points is the number of points of each outline, Outlines all of them in one.
	Points     []int `json:"points"`
	Outlines   flat  `json:"outlines"`
	Areas      []int `json:"areas"`
	Shares     []int `json:"shares"`
	Widths     []int `json:"widths" doc:"Of each the mean, how far the least is below it and how far the greatest above"`
	Heights    []int `json:"heights"`
	Centroids  flat  `json:"centroids" doc:"A line through the middles of all"`
	Hairline   []int `json:"toHairline"`
	Part       []int `json:"toPart"`
	Stagger    []int `json:"stagger"`
	Into       []int `json:"into" doc:"Index of the section whose plait takes it up, -1 for none; empty where none is linked"`
	Neighbours []int `json:"neighbours" doc:"Of each section the number of those neighbours that come after it, then their indices"`

	LeftOut []flat         `json:"leftOut"`
	Bands   []flatRow      `json:"rows"`
	ZoneSum []flatZone     `json:"zones"`
	Tracks  []flatTrack    `json:"tracks"`
	Nets    []flatNet      `json:"nets"`
	Area    float64        `json:"areaMm2"`
	Base    float64        `json:"baseAreaMm2"`
	Out     float64        `json:"outAreaMm2"`
	Seams   []parting.Seam `json:"seams"`

	Channels []flatChannel          `json:"channels"`
	Balance  []parting.Balance      `json:"balance"`
	Rejected []parting.RejectedEdit `json:"rejectedEdits"`
	Edge     flat                   `json:"hairline"`
	Border   flat                   `json:"border"`
	PartLine flat                   `json:"partLine"`
	EarToEar flat                   `json:"earToEar"`
}

// flatRow is a row as the map and the panel need it; the row guide has more.
type flatRow struct {
	Zone     parting.Zone `json:"zone"`
	Row      int          `json:"row"`
	Sections int          `json:"sections"`
	Line     flat         `json:"line"`
	End      flat         `json:"end"`
}

type flatZone struct {
	Zone     parting.Zone   `json:"zone"`
	Rows     int            `json:"rows"`
	Sections int            `json:"sections"`
	Area     float64        `json:"areaMm2"`
	Width    parting.Spread `json:"widthMm"`
	Height   parting.Spread `json:"heightMm"`
}

type flatTrack struct {
	ID       string       `json:"id"`
	Zone     parting.Zone `json:"zone"`
	Line     flat         `json:"line"`
	Length   float64      `json:"lengthMm"`
	Outlines []flat       `json:"outlines"`
	Width    float64      `json:"widthMm"`
	Into     string       `json:"into,omitempty"`
	Merged   bool         `json:"merged,omitempty"`
	Hooks    flat         `json:"hooks"`
}

type flatNet struct {
	Zone     parting.Zone `json:"zone"`
	Outlines []flat       `json:"outlines"`
	Area     float64      `json:"areaMm2"`
	Hooks    flat         `json:"hooks"`
}

type flatChannel struct {
	Length float64 `json:"lengthMm"`
	Line   flat    `json:"line"`
}

// given is who gets what: entry i is about place i, the sections in order, then the hooks
// of every track, then those of every net.
type given struct {
	Pieces []int `json:"pieces" doc:"Index of the piece in the plan"`
	Ways   []int `json:"ways" doc:"Index of the way in the plan"`
	Counts []int `json:"counts"`
	// Accents are places with the accents put on there, one after the other.
	Accents []int `json:"accents" doc:"Index of a place and of the accent put on there, one pair after the other"`
	// Matched counts the places each use says something about.
	Matched []int `json:"matched"`
	// Plaits are the thicknesses of the plaits at their roots, tenths of a millimetre.
	Plaits []int `json:"plaits" doc:"Thickness of each section's plait, tenths of a millimetre"`
}

// preview is what a slider's movement shows.
type preview struct {
	Tally   plan.Tally      `json:"tally"`
	Head    plan.Head       `json:"head"`
	Layout  flatLayout      `json:"layout"`
	Given   given           `json:"given"`
	Notices []advice.Notice `json:"notices"`
}

func (preview) columned()    {}
func (flatLayout) columned() {}
func (given) columned()      {}

func round(mm float64) float64 { return math.Round(10*mm) / 10 }

// everyOther is a line that is only drawn and taken hold of, at half its points, its ends
// among them.
func everyOther(line scalp.Line) scalp.Line {
	out := make(scalp.Line, 0, len(line)/2+2)
	for i, p := range line {
		if i%2 == 0 || i == len(line)-1 {
			out = append(out, p)
		}
	}
	return out
}

// spread appends a spread as its mean and how far its ends are from it.
func spread(to []int, s parting.Spread) []int {
	mean := tenths(s.Mean)
	return append(to, mean, mean-tenths(s.Min), tenths(s.Max)-mean)
}

func roundSpread(s parting.Spread) parting.Spread {
	return parting.Spread{Min: round(s.Min), Mean: round(s.Mean), Max: round(s.Max)}
}

func flats(lines []scalp.Line) []flat {
	out := make([]flat, len(lines))
	for i, l := range lines {
		out[i] = flatOf(l)
	}
	return out
}

func previewOf(r *plan.Result) preview {
	return preview{
		Tally: r.Tally, Head: r.Head, Layout: flattened(&r.Layout), Given: givenOf(r), Notices: r.Notices,
	}
}

func givenOf(r *plan.Result) given {
	n := len(r.Places)
	g := given{Pieces: make([]int, n), Ways: make([]int, n), Counts: make([]int, n), Plaits: make([]int, len(r.Layout.Sections)), Accents: []int{}, Matched: r.Matched}
	for i := range r.Places {
		p := &r.Places[i]
		g.Pieces[i], g.Ways[i], g.Counts[i] = p.Piece, p.Way, p.Count
		for _, a := range p.Accents {
			g.Accents = append(g.Accents, i, a)
		}
		if p.Section >= 0 {
			g.Plaits[p.Section] = tenths(p.Plait.Diameter)
		}
	}
	return g
}

func flattened(l *parting.Layout) flatLayout {
	n := len(l.Sections)
	ints := func() []int { return make([]int, 0, n) }
	f := flatLayout{
		IDs: make([]string, 0, n), Zones: make([]string, 0, n), Rows: ints(), Index: ints(), Flags: ints(), Points: ints(),
		Areas: ints(), Shares: ints(), Widths: make([]int, 0, 3*n), Heights: make([]int, 0, 3*n), Hairline: ints(), Part: ints(),
		Stagger: ints(), Into: []int{}, Neighbours: make([]int, 0, 6*n), Outlines: make(flat, 0, 48*n),
		Area: math.Round(l.Area), Base: math.Round(l.BaseArea), Out: math.Round(l.OutArea),
		Seams: l.Seams, Balance: l.Balance, Rejected: l.Rejected,
		Edge: flatOf(l.HairlineCurve), Border: flatOf(l.Border), PartLine: flatOf(l.PartLine), EarToEar: flatOf(l.EarToEar),
		LeftOut: []flat{}, Bands: make([]flatRow, len(l.Rows)), ZoneSum: make([]flatZone, len(l.Zones)),
		Tracks: make([]flatTrack, len(l.Tracks)), Nets: make([]flatNet, len(l.Nets)), Channels: make([]flatChannel, len(l.Channels)),
	}
	at := make(map[string]int, n)
	linked := false
	middles := make(scalp.Line, n)
	for i := range l.Sections {
		x := &l.Sections[i]
		at[x.ID], middles[i] = i, x.Centroid
		linked = linked || x.Linked
	}
	f.Centroids = flatOf(middles)
	for i := range l.Sections {
		x := &l.Sections[i]
		f.IDs, f.Zones, f.Rows, f.Index = append(f.IDs, x.ID), append(f.Zones, string(x.Zone)), append(f.Rows, x.Row), append(f.Index, x.Index)
		flags := 0
		for bit, set := range []bool{x.Front, x.Linked, x.Seen, x.Locked, x.Edited} {
			if set {
				flags |= 1 << bit
			}
		}
		f.Flags, f.Points = append(f.Flags, flags), append(f.Points, len(x.Outline))
		f.Outlines = f.Outlines.with(x.Outline)
		f.Areas, f.Shares = append(f.Areas, int(math.Round(x.Area))), append(f.Shares, hundredths(x.Share))
		f.Widths, f.Heights = spread(f.Widths, x.Width), spread(f.Heights, x.Height)
		f.Hairline, f.Part, f.Stagger = append(f.Hairline, tenths(x.Hairline)), append(f.Part, tenths(x.Part)), append(f.Stagger, hundredths(x.Stagger))
		if linked {
			into := -1
			if x.Into != "" {
				into = at[x.Into]
			}
			f.Into = append(f.Into, into)
		}
		count := len(f.Neighbours)
		f.Neighbours = append(f.Neighbours, 0)
		for _, id := range x.Neighbours {
			if k := at[id]; k > i {
				f.Neighbours[count]++
				f.Neighbours = append(f.Neighbours, k)
			}
		}
	}
	for i := range l.LeftOut {
		f.LeftOut = append(f.LeftOut, flatOf(l.LeftOut[i].Outline))
	}
	for i := range l.Rows {
		r := &l.Rows[i]
		f.Bands[i] = flatRow{r.Zone, r.Row, r.Sections, flatOf(everyOther(r.Line)), flatOf(scalp.Line{r.End})}
	}
	for i, z := range l.Zones {
		f.ZoneSum[i] = flatZone{z.Zone, z.Rows, z.Sections, math.Round(z.Area), roundSpread(z.Width), roundSpread(z.Height)}
	}
	for i := range l.Tracks {
		t := &l.Tracks[i]
		f.Tracks[i] = flatTrack{t.ID, t.Zone, flatOf(t.Line), round(t.Length), flats(t.Outlines), round(t.Width), t.Into, t.Merged, flatOf(t.Hooks)}
	}
	for i := range l.Nets {
		net := &l.Nets[i]
		f.Nets[i] = flatNet{net.Zone, flats(net.Outlines), math.Round(net.Area), flatOf(net.Hooks)}
	}
	for i, c := range l.Channels {
		f.Channels[i] = flatChannel{round(c.Length), flatOf(c.Line)}
	}
	return f
}
