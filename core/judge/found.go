package judge

import (
	"cmp"
	"slices"
	"strings"

	"kladotex/core/advice"
	"kladotex/core/parting"
	"kladotex/core/plan"
)

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
func (z *zoneFound) where() plan.Where {
	out := plan.Where{Kind: plan.InZones}
	for zone := range z.zones {
		out.Zones = append(out.Zones, zone)
	}
	slices.Sort(out.Zones)
	return out
}
