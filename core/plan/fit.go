package plan

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"
	"strings"

	"kladotex/core/advice"
	"kladotex/core/hair"
	"kladotex/core/parting"
	"kladotex/core/plait"
)

// Fitting says of every place whether the piece suits its plait and whether it is too heavy,
// and what would help.
type Fitting struct {
	// Places are in the order of the plan's places.
	Places []PlaceFit `json:"places"`
	Zones  []ZoneFit  `json:"zones"`
	Load   HeadLoad   `json:"load"`
}

// PlaceFit is how it is at one place.
type PlaceFit struct {
	// Fit is the gravest finding on the piece against its plait, empty where it suits.
	Fit advice.Code `json:"fit,omitempty"`
	// Hung is what hangs, dry, g, Soaked about what it is when wet; Load is the dry mass,
	// mg a hair; Word is what is said of it.
	Hung   float64  `json:"hungG"`
	Soaked float64  `json:"soakedG" doc:"About, until a soaked piece was weighed"`
	Load   float64  `json:"loadMg"`
	Word   LoadWord `json:"word" enum:"light,usual,heavy,too-heavy"`
}

// LoadWord is what is said of a load.
type LoadWord string

// The words: up to what is usual, up to twice that, up to four times, above it. Where hair or
// scalp bear less, each begins at two thirds.
const (
	LoadLight    LoadWord = "light"
	LoadUsual    LoadWord = "usual"
	LoadHeavy    LoadWord = "heavy"
	LoadTooHeavy LoadWord = "too-heavy"
)

// wordOf is what is said of a load where only a share of the usual is borne.
func wordOf(load, share float64) LoadWord {
	switch {
	case load > share*plait.TooHeavyLoad:
		return LoadTooHeavy
	case load > share*plait.HeavyLoad:
		return LoadHeavy
	case load > share*plait.UsualLoad:
		return LoadUsual
	}
	return LoadLight
}

// ZoneFit is a zone, both sides together, with what was found there.
type ZoneFit struct {
	Name   string `json:"name"`
	Places int    `json:"places"`
	Hooked bool   `json:"hooked" doc:"True where pieces are hooked on a base"`
	// Plait and Load are the least and the most there.
	Plait Between `json:"plaitMm" doc:"Thickness of the plaits"`
	Load  Between `json:"loadMg"`
	// Findings are the gravest first; none where all suits.
	Findings []ZoneFinding `json:"findings"`
}

// ZoneFinding is one thing that is wrong in a zone.
type ZoneFinding struct {
	Code     advice.Code     `json:"code"`
	Severity advice.Severity `json:"severity" enum:"hint,look,danger"`
	// Places are the ids of the sections, tracks or nets it is about, Count how many places
	// that are.
	Places []string `json:"places"`
	Count  int      `json:"count"`
	Reason string   `json:"reason"`
	// Words say what would help; Remedies do it.
	Words    string   `json:"words"`
	Remedies []Remedy `json:"remedies"`
}

// Remedy is a plan in which something is put right.
type Remedy struct {
	Says  string `json:"says" doc:"What is done, with its numbers"`
	Input Input  `json:"input" doc:"The plan after it"`
}

// HeadLoad is what hangs on the whole head.
type HeadLoad struct {
	Dry    float64 `json:"dryG"`
	Soaked float64 `json:"soakedG" doc:"About, until a soaked piece was weighed"`
	// Heavy and Most are the masses from which it is heavy to wear and few necks bear it, on
	// this head.
	Heavy float64 `json:"heavyG"`
	Most  float64 `json:"mostG"`
	// Median and Greatest are those of the places, mg a hair; Usual is what common practice
	// hangs.
	Median   float64 `json:"medianMg"`
	Greatest float64 `json:"greatestMg"`
	Usual    float64 `json:"usualMg"`
	// Says are sentences on it, the gravest first; NoLimit stands beside them always.
	Says    []string `json:"says"`
	NoLimit string   `json:"noLimit"`
}

// Worn is an earlier install of the same person.
type Worn struct {
	What        string
	On          string // day
	Mass        float64
	Comfortable bool
}

// fits are the findings on a piece against its plait, gravest first.
var fits = []advice.Code{
	advice.WrongForm, advice.FatPlait, advice.ThinPlait, advice.TightLoop, advice.TightRoot,
	advice.LongPlait, advice.ShortHair, advice.WrongBase,
}

// loads are the findings on weight.
var loads = []advice.Code{advice.TooHeavy, advice.HeavyHere, advice.LongPiece}

// Ready is a piece that could hang in place of another, and how many lie in the stash.
type Ready struct {
	hair.Piece
	Stash int
}

// FitOf judges fit and load at every place of a plan. have are pieces besides the plan's own,
// before what was worn earlier. The error is that of [Compute].
func FitOf(ctx context.Context, in Input, have []Ready, before []Worn) (Fitting, error) {
	w, err := in.resolved(ctx, parting.Lay)
	if err != nil {
		return Fitting{}, err
	}
	w.workAll()
	out := Fitting{Places: make([]PlaceFit, len(w.res.Places)), Zones: []ZoneFit{}}
	zones := map[string]*zoneFound{}
	var order []*zoneFound
	all := make([]float64, 0, len(w.res.Places))
	for i := range w.res.Places {
		p := &w.res.Places[i]
		load, share, _ := w.loadHere(i)
		all = append(all, load)
		hung := w.hung(i)
		out.Places[i] = PlaceFit{Hung: round10(hung), Soaked: round10(plait.Soaked * hung), Load: math.Round(100*load) / 100, Word: wordOf(load, share)}
		key := p.Zone.Sideless()
		z := zones[key]
		if z == nil {
			z = &zoneFound{fit: ZoneFit{Name: key, Hooked: p.Section < 0, Findings: []ZoneFinding{}}, zones: map[parting.Zone]bool{}}
			zones[key] = z
			order = append(order, z)
		}
		first := z.fit.Places == 0
		z.fit.Places++
		z.zones[p.Zone] = true
		z.fit.Plait.add(math.Round(10*p.Plait.Diameter)/10, first)
		z.fit.Load.add(math.Round(10*load)/10, first)
		found := w.methods[p.Way].Judge(w.job(p))
		if f, heavy := w.loadAt(i); heavy {
			found = append(found, f)
		}
		if f, long := w.longAt(i); long {
			found = append(found, f)
		}
		for _, f := range found {
			rank := slices.Index(fits, f.Code)
			if rank >= 0 && (out.Places[i].Fit == "" || rank < slices.Index(fits, out.Places[i].Fit)) {
				out.Places[i].Fit = f.Code
			}
			if rank >= 0 || slices.Contains(loads, f.Code) {
				z.add(i, f, w.edge(p))
			}
		}
	}
	if err := ctx.Err(); err != nil {
		return Fitting{}, err
	}
	for _, z := range order {
		z.fit.Findings = w.findings(z, have)
	}
	// What hurts first, of that the edges; then as they come, from the back.
	slices.SortStableFunc(order, func(a, b *zoneFound) int {
		if d := gravity(b.fit) - gravity(a.fit); d != 0 {
			return d
		}
		return b.edges() - a.edges()
	})
	for _, z := range order {
		out.Zones = append(out.Zones, z.fit)
	}
	out.Load = w.headLoad(all, before)
	return out, nil
}

// gravity is how grave the gravest finding of a zone is.
func gravity(z ZoneFit) int {
	worst := 0
	for _, f := range z.Findings {
		switch f.Severity {
		case advice.Danger:
			worst = max(worst, 2)
		case advice.Look:
			worst = max(worst, 1)
		}
	}
	return worst
}

// zoneFound collects what is found in a zone.
type zoneFound struct {
	fit   ZoneFit
	zones map[parting.Zone]bool
	kinds []*foundKind
}

// foundKind is the findings of one code in a zone.
type foundKind struct {
	worst  advice.Finding
	places []foundPlace
}

// foundPlace is a place at which something is wrong, what, and whether it lies at the hairline.
type foundPlace struct {
	place int
	advice.Finding
	edge bool
}

// outlier is how many times as bad as the middle one a place is that speaks for itself alone.
const outlier = 1.5

// typical is the place in the middle of those at which something is wrong, and target the worst that is not
// far worse than that: what is offered is offered for it. A sliver does not speak for its row.
func (k *foundKind) typical() (typical, target foundPlace) {
	sorted := slices.Clone(k.places)
	slices.SortStableFunc(sorted, func(a, b foundPlace) int { return cmp.Compare(a.Grade, b.Grade) })
	typical = sorted[len(sorted)/2]
	target = typical
	for _, p := range sorted {
		if farWorse := p.Grade > outlier*typical.Grade && p.Grade > 0 || p.Grade < 0 && p.Grade > typical.Grade/outlier; !farWorse && p.Grade >= target.Grade {
			target = p
		}
	}
	return typical, target
}

// says words what was found: at the typical place, and at the worst where that is another matter.
func (k *foundKind) says() advice.Notice {
	typical, target := k.typical()
	n, worst := typical.Notice(), k.worst.Notice()
	n.Code, n.Severity, n.Remedy = worst.Code, worst.Severity, target.Notice().Remedy
	if target.Grade != k.worst.Grade {
		first, _, _ := strings.Cut(worst.Reason, ". ")
		n.Reason += " The worst of them: " + strings.ToLower(first[:1]) + first[1:] + "."
	}
	return n
}

// edges is 1 for a zone in which something is wrong at the hairline.
func (z *zoneFound) edges() int {
	for _, k := range z.kinds {
		if slices.ContainsFunc(k.places, func(p foundPlace) bool { return p.edge }) {
			return 1
		}
	}
	return 0
}

// about is what a finding is about: too heavy and heavy are one thing, told by the worst.
func about(c advice.Code) advice.Code {
	if c == advice.TooHeavy {
		return advice.HeavyHere
	}
	return c
}

func (z *zoneFound) add(place int, f advice.Finding, edge bool) {
	i := slices.IndexFunc(z.kinds, func(k *foundKind) bool { return about(k.worst.Code) == about(f.Code) })
	if i < 0 {
		z.kinds = append(z.kinds, &foundKind{worst: f})
		i = len(z.kinds) - 1
	}
	k := z.kinds[i]
	if f.Grade > k.worst.Grade {
		k.worst = f
	}
	k.places = append(k.places, foundPlace{place, f, edge})
}

// where is what a use must say to be about the zone.
func (z *zoneFound) where() Where {
	out := Where{Kind: InZones}
	for zone := range z.zones {
		out.Zones = append(out.Zones, zone)
	}
	slices.Sort(out.Zones)
	return out
}

// findings words what was found in a zone, with what would put it right.
func (w *worked) findings(z *zoneFound, have []Ready) []ZoneFinding {
	rank := func(c advice.Code) int {
		return slices.Index(slices.Concat(loads[:1], fits, loads[1:]), c)
	}
	slices.SortStableFunc(z.kinds, func(a, b *foundKind) int { return rank(a.worst.Code) - rank(b.worst.Code) })
	out := []ZoneFinding{}
	for _, k := range z.kinds {
		n := k.says()
		f := ZoneFinding{Code: n.Code, Severity: n.Severity, Count: len(k.places), Reason: n.Reason, Words: n.Remedy, Places: []string{}}
		// Edges first, then the worst: of loads those are the slivers.
		slices.SortStableFunc(k.places, func(a, b foundPlace) int {
			if a.edge != b.edge {
				return map[bool]int{true: -1, false: 1}[a.edge]
			}
			return cmp.Compare(b.Grade, a.Grade)
		})
		for _, p := range k.places {
			if id := w.baseID(p.place); !slices.Contains(f.Places, id) {
				f.Places = append(f.Places, id)
			}
		}
		f.Remedies = w.remedies(z, k, have)
		out = append(out, f)
	}
	return out
}

// nearlyHeavy is the share of what is heavy from which a head that bears less is told so. Common practice, no
// source.
const nearlyHeavy = 0.75

// headLoad is what there is to say about the whole head.
func (w *worked) headLoad(places []float64, before []Worn) HeadLoad {
	slices.Sort(places)
	share, whose := 1.0, w.in.gentle()
	if whose != "" {
		share = plait.GentleShare
	}
	dry := w.weight()
	h := HeadLoad{
		Dry: dry, Soaked: plait.Soaked * dry, Heavy: share * plait.HeavyHead, Most: share * plait.FewNecks,
		Usual: plait.UsualLoad, NoLimit: noLimit, Says: []string{},
	}
	if n := len(places); n > 0 {
		h.Median, h.Greatest = math.Round(10*places[n/2])/10, math.Round(10*places[n-1])/10
	}
	switch {
	case dry > h.Most:
		h.Says = append(h.Says, fmt.Sprintf("%s dry, about %s soaked%s: few necks bear this.", grams(dry), grams(h.Soaked), whose))
	case dry > h.Heavy:
		h.Says = append(h.Says, fmt.Sprintf("%s dry, about %s soaked%s: heavy to wear.", grams(dry), grams(h.Soaked), whose))
	case whose != "" && dry > nearlyHeavy*h.Heavy:
		h.Says = append(h.Says, fmt.Sprintf("%s dry%s: nearly the %s from which it is heavy there. Soaked it weighs about %s. Fewer or shorter pieces are kinder.", grams(dry), whose, grams(h.Heavy), grams(h.Soaked)))
	case whose != "":
		h.Says = append(h.Says, fmt.Sprintf("%s dry%s: under the %s from which it is heavy there. Soaked it weighs about %s.", grams(dry), whose, grams(h.Heavy), grams(h.Soaked)))
	default:
		h.Says = append(h.Says, fmt.Sprintf("%s dry, about %s soaked: within what heads usually carry, 150 to %.0f g.", grams(dry), grams(h.Soaked), h.Heavy))
	}
	if h.Median > 0 && h.Greatest > 2*h.Median {
		h.Says = append(h.Says, fmt.Sprintf("Uneven: the heaviest place carries %.1f mg a hair, %.1f times as much as the middle one. Lighten it, or give it more hair.", h.Greatest, h.Greatest/h.Median))
	}
	return h.against(before)
}

// against compares the load with what the same person wore before.
func (h HeadLoad) against(before []Worn) HeadLoad {
	var most, hurt Worn
	for _, b := range before {
		switch {
		case b.Mass <= 0:
		case b.Comfortable && b.Mass > most.Mass:
			most = b
		case !b.Comfortable && (hurt.Mass == 0 || b.Mass < hurt.Mass):
			hurt = b
		}
	}
	if most.Mass > 0 {
		word := fmt.Sprintf("%.0f %% lighter than", 100*(1-h.Dry/most.Mass))
		switch {
		case h.Dry > 1.02*most.Mass:
			word = fmt.Sprintf("%.0f %% heavier than", 100*(h.Dry/most.Mass-1))
		case h.Dry > 0.98*most.Mass:
			word = "as heavy as"
		}
		h.Says = append(h.Says, fmt.Sprintf("It is %s the heaviest install worn in comfort before: %s, %s.", word, most.What, grams(most.Mass)))
	}
	if hurt.Mass > 0 && h.Dry >= hurt.Mass {
		h.Says = append(h.Says, fmt.Sprintf("An install of %s was tight or hurt before (%s); this one is no lighter.", grams(hurt.Mass), hurt.What))
	}
	return h
}
