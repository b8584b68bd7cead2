// Package flat writes a parted head down as columns of whole numbers, as it travels and as it is kept
// with an install.
package flat

import (
	"encoding/json"
	"math"

	"kladotex/core/advice"
	"kladotex/core/hours"
	"kladotex/core/parting"
	"kladotex/core/scalp"
	"kladotex/core/tally"
)

// A Preview travels on every movement of a slider: what is drawn is written as columns
// of whole numbers, which are written and read several times as fast as objects of
// floats, and take a third of the room.

// Line is a line or an outline on the scalp: x, y, z of its points one after the other,
// in whole tenths of a millimetre, each point after the first as the step from the one
// before it.
type Line []int

// tenths is a length in whole tenths of a millimetre, hundredths a share in whole
// hundredths.
func tenths(mm float64) int        { return int(math.Round(10 * mm)) }
func hundredths(share float64) int { return int(math.Round(100 * share)) }

func lineOf(line scalp.Line) Line {
	out := make(Line, 0, 3*len(line))
	return out.with(line)
}

// with appends a line, which starts from nothing.
func (f Line) with(line scalp.Line) Line {
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

// FlatLayout is a parted head as columns: entry i of each is about section i. Lengths are
// tenths of a millimetre, areas mm², shares hundredths.
type FlatLayout struct {
	IDs   []string `json:"ids"`
	Zones []string `json:"zoneOf" doc:"Zone of each section"`
	Rows  []int    `json:"rowOf"`
	Index []int    `json:"indexOf"`
	// Flags add up what is true: 1 front, 2 linked, 4 seen, 8 locked, 16 edited, 32 laid back.
	Flags []int `json:"flags"`
	// Points is the number of points of each outline, Outlines all of them in one.
	Points     []int `json:"points"`
	Outlines   Line  `json:"outlines"`
	Areas      []int `json:"areas"`
	Shares     []int `json:"shares"`
	Widths     []int `json:"widths" doc:"Of each the mean, how far the least is below it and how far the greatest above"`
	Heights    []int `json:"heights"`
	Centroids  Line  `json:"centroids" doc:"A line through the middles of all"`
	Hairline   []int `json:"toHairline"`
	Part       []int `json:"toPart"`
	Stagger    []int `json:"stagger"`
	Into       []int `json:"into" doc:"Index of the section whose plait takes it up, -1 for none; empty where none is linked"`
	Neighbours []int `json:"neighbours" doc:"Of each section the number of those neighbours that come after it, then their indices"`

	LeftOut  []Line         `json:"leftOut"`
	Bands    []FlatRow      `json:"rows"`
	ZoneSum  []FlatZone     `json:"zones"`
	Cornrows []FlatCornrow  `json:"tracks"`
	Nets     []FlatNet      `json:"nets"`
	Area     float64        `json:"areaMm2"`
	Base     float64        `json:"baseAreaMm2"`
	Out      float64        `json:"outAreaMm2"`
	Spacing  float64        `json:"spacingMm" doc:"How far apart pieces are hooked on the base where no rule says otherwise, mm; 0 without a base"`
	Seams    []parting.Seam `json:"seams"`

	Channels []FlatChannel          `json:"channels"`
	Balance  []parting.Balance      `json:"balance"`
	Rejected []parting.RejectedEdit `json:"rejectedEdits"`
	Edge     Line                   `json:"hairline"`
	Border   Line                   `json:"border"`
	PartLine Line                   `json:"partLine"`
	EarToEar Line                   `json:"earToEar"`
}

// FlatRow is a row as the map and the panel need it; the row guide has more.
type FlatRow struct {
	Zone     parting.Zone `json:"zone"`
	Row      int          `json:"row"`
	Sections int          `json:"sections"`
	Line     Line         `json:"line"`
	End      Line         `json:"end"`
}

// FlatZone is a zone and what its sections come to.
type FlatZone struct {
	Zone     parting.Zone   `json:"zone"`
	Rows     int            `json:"rows"`
	Sections int            `json:"sections"`
	Area     float64        `json:"areaMm2"`
	Width    parting.Spread `json:"widthMm"`
	Height   parting.Spread `json:"heightMm"`
}

// FlatCornrow is a plait worked flat, with its hooks.
type FlatCornrow struct {
	ID       string       `json:"id"`
	Zone     parting.Zone `json:"zone"`
	Line     Line         `json:"line"`
	Length   float64      `json:"lengthMm"`
	Outlines []Line       `json:"outlines"`
	Width    float64      `json:"widthMm"`
	Into     string       `json:"into,omitempty"`
	Merged   bool         `json:"merged,omitempty"`
	Hooks    Line         `json:"hooks"`
	Fed      bool         `json:"fed,omitempty" doc:"True where the last of its hooks is its end, from which it goes on as a braid"`
}

// FlatNet is a net, with its hooks.
type FlatNet struct {
	Zone     parting.Zone `json:"zone"`
	Outlines []Line       `json:"outlines"`
	Area     float64      `json:"areaMm2"`
	Hooks    Line         `json:"hooks"`
	Plaits   Line         `json:"plaits" doc:"The small plaits it lies on; empty over cornrows"`
}

// FlatChannel is a run of parts that would open as a bare channel.
type FlatChannel struct {
	Length float64 `json:"lengthMm"`
	Line   Line    `json:"line"`
}

// Given is who gets what: entry i is about place i, the sections in order, then the hooks
// of every cornrow, then those of every net.
type Given struct {
	Pieces []int `json:"pieces" doc:"Index of the piece in the plan"`
	Ways   []int `json:"ways" doc:"Index of the method in the plan"`
	Counts []int `json:"counts"`
	// Accents are places with the accents put on there, one after the other.
	Accents []int `json:"accents" doc:"Index of a place and of the accent put on there, one pair after the other"`
	// Kept are places at which what hangs stays.
	Kept []int `json:"kept" doc:"Indices of the places at which what hangs stays"`
	// Matched counts the places each use says something about.
	Matched []int `json:"matched"`
	// Plaits are the thicknesses of the plaits at their roots, tenths of a millimetre.
	Plaits []int `json:"plaits" doc:"Thickness of each section's plait, tenths of a millimetre"`
}

// Preview is what a slider's movement shows.
type Preview struct {
	Tally  tally.Tally `json:"tally"`
	Head   tally.Head  `json:"head"`
	Layout FlatLayout  `json:"layout"`
	Given  Given       `json:"given"`
	// Design is what each side of a front design takes.
	Design  []hours.DesignSide `json:"design"`
	Notices []advice.Notice    `json:"notices"`
}

// Columned says that it is mostly long lists of whole numbers.
func (Preview) Columned()    {}
func (FlatLayout) Columned() {}
func (Given) Columned()      {}

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

func linesOf(lines []scalp.Line) []Line {
	out := make([]Line, len(lines))
	for i, l := range lines {
		out[i] = lineOf(l)
	}
	return out
}

// Read is a preview as it was kept, by this program or an earlier one.
func Read(raw []byte) (p Preview, err error) {
	p.Given.Kept, p.Design = []int{}, []hours.DesignSide{} // which earlier ones did not write
	if err = json.Unmarshal(raw, &p); err != nil {
		return p, err
	}
	for i := range p.Layout.Nets {
		if net := &p.Layout.Nets[i]; net.Plaits == nil {
			net.Plaits = Line{}
		}
	}
	return p, nil
}

// Of is what a plan comes to, as it travels.
func Of(r *tally.Result) Preview {
	return Preview{
		Tally: r.Tally, Head: r.Head, Layout: flattened(&r.Layout), Given: givenOf(r), Design: r.Design, Notices: r.Notices,
	}
}

func givenOf(r *tally.Result) Given {
	n := len(r.Places)
	g := Given{Pieces: make([]int, n), Ways: make([]int, n), Counts: make([]int, n), Plaits: make([]int, len(r.Layout.Sections)), Accents: []int{}, Kept: []int{}, Matched: r.Matched}
	for i := range r.Places {
		p := &r.Places[i]
		g.Pieces[i], g.Ways[i], g.Counts[i] = p.Piece, p.Way, p.Count
		for _, a := range p.Accents {
			g.Accents = append(g.Accents, i, a)
		}
		if p.Kept {
			g.Kept = append(g.Kept, i)
		}
		if p.Section >= 0 {
			g.Plaits[p.Section] = tenths(p.Plait.Diameter)
		}
	}
	return g
}

func flattened(l *parting.Layout) FlatLayout {
	n := len(l.Sections)
	ints := func() []int { return make([]int, 0, n) }
	f := FlatLayout{
		IDs: make([]string, 0, n), Zones: make([]string, 0, n), Rows: ints(), Index: ints(), Flags: ints(), Points: ints(),
		Areas: ints(), Shares: ints(), Widths: make([]int, 0, 3*n), Heights: make([]int, 0, 3*n), Hairline: ints(), Part: ints(),
		Stagger: ints(), Into: []int{}, Neighbours: make([]int, 0, 6*n), Outlines: make(Line, 0, 48*n),
		Area: math.Round(l.Area), Base: math.Round(l.BaseArea), Out: math.Round(l.OutArea), Spacing: round(l.Spacing),
		Seams: l.Seams, Balance: l.Balance, Rejected: l.Rejected,
		Edge: lineOf(l.HairlineCurve), Border: lineOf(l.Border), PartLine: lineOf(l.PartLine), EarToEar: lineOf(l.EarToEar),
		LeftOut: []Line{}, Bands: make([]FlatRow, len(l.Rows)), ZoneSum: make([]FlatZone, len(l.Zones)),
		Cornrows: make([]FlatCornrow, len(l.Cornrows)), Nets: make([]FlatNet, len(l.Nets)), Channels: make([]FlatChannel, len(l.Channels)),
	}
	at := make(map[string]int, n)
	linked := false
	middles := make(scalp.Line, n)
	for i := range l.Sections {
		x := &l.Sections[i]
		at[x.ID], middles[i] = i, x.Centroid
		linked = linked || x.Linked
	}
	f.Centroids = lineOf(middles)
	for i := range l.Sections {
		x := &l.Sections[i]
		f.IDs, f.Zones, f.Rows, f.Index = append(f.IDs, x.ID), append(f.Zones, string(x.Zone)), append(f.Rows, x.Row), append(f.Index, x.Index)
		flags := 0
		for bit, set := range []bool{x.Front, x.Linked, x.Seen, x.Locked, x.Edited, x.Laid} {
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
		f.LeftOut = append(f.LeftOut, lineOf(l.LeftOut[i].Outline))
	}
	for i := range l.Rows {
		r := &l.Rows[i]
		f.Bands[i] = FlatRow{r.Zone, r.Row, r.Sections, lineOf(everyOther(r.Line)), lineOf(scalp.Line{r.End})}
	}
	for i, z := range l.Zones {
		f.ZoneSum[i] = FlatZone{z.Zone, z.Rows, z.Sections, math.Round(z.Area), roundSpread(z.Width), roundSpread(z.Height)}
	}
	for i := range l.Cornrows {
		t := &l.Cornrows[i]
		f.Cornrows[i] = FlatCornrow{t.ID, t.Zone, lineOf(t.Line), round(t.Length), linesOf(t.Outlines), round(t.Width), t.Into, t.Merged, lineOf(t.Hooks), t.Fed}
	}
	for i := range l.Nets {
		net := &l.Nets[i]
		f.Nets[i] = FlatNet{net.Zone, linesOf(net.Outlines), math.Round(net.Area), lineOf(net.Hooks), lineOf(net.Plaits)}
	}
	for i, c := range l.Channels {
		f.Channels[i] = FlatChannel{round(c.Length), lineOf(c.Line)}
	}
	return f
}
